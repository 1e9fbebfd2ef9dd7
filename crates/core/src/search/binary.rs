//! Rounds with half of the breakers off, for a house in which rooms tell nothing of one another.

use super::{Act, OffSet, Place, Search};

/// Below this affinity rooms are taken to tell nothing.
const LITTLE_TOGETHER: f64 = 0.3;
/// The most such rounds.
const MOST_ROUNDS: usize = 8;

fn bits(p: f64) -> f64 {
    if p <= 0.0 || p >= 1.0 { 0.0 } else { -p * p.log2() - (1.0 - p) * (1.0 - p).log2() }
}

impl Search<'_> {
    /// The next act of such a round, where rooms were found to tell nothing and much is open.
    pub(crate) fn binary_act(&mut self) -> Option<Act> {
        if self.in_binary {
            if let Some(act) = self.next_of_round() {
                return Some(act);
            }
            self.in_binary = false;
        }
        let open: Vec<usize> = (0..self.case.points.len()).filter(|p| self.is_open(*p)).collect();
        let total = self.case.points.len();
        let mean = open.iter().map(|p| self.belief().open_bits(*p)).sum::<f64>() / open.len().max(1) as f64;
        let wanted = self.belief().affinity() < LITTLE_TOGETHER
            && open.len() * 100 >= total * 15
            && mean > 1.3
            && self.binary_rounds < MOST_ROUNDS;
        if !wanted {
            return None;
        }
        let off = self.best_half(&open);
        if off.is_empty() {
            return None;
        }
        self.binary_rounds += 1;
        self.in_binary = true;
        self.round_set = off;
        self.round_seen = vec![false; total];
        self.next_of_round()
    }

    /// Goes on with a round that was under way when the logbook was left, by what is off now.
    pub(crate) fn take_up_round(&mut self) {
        if self.off.len() > 2 && self.belief().affinity() < LITTLE_TOGETHER {
            self.in_binary = true;
            self.round_set = self.off;
            self.round_seen = vec![false; self.case.points.len()];
        }
    }

    /// The nearest room of the round in which a look would tell enough.
    fn next_of_round(&mut self) -> Option<Act> {
        const ENOUGH_BITS: f64 = 0.4;
        let off = self.round_set;
        let telling = |p: usize| {
            let m: f64 = off.iter().map(|b| self.belief().of(p)[b]).sum();
            !self.round_seen[p] && self.can_look(p, off) && self.is_open(p) && bits(m) >= ENOUGH_BITS
        };
        let points: Vec<usize> = (0..self.case.points.len()).filter(|p| telling(*p)).collect();
        let from = if self.crew.alone && self.off != off { Place::Panel } else { self.at };
        let room = points.iter().map(|p| self.case.points[*p].room).min_by(|a, b| {
            let far = |room: usize| self.walk_s(from, Place::Room(room));
            far(*a).total_cmp(&far(*b)).then(a.cmp(b))
        })?;
        let points: Vec<usize> = points.into_iter().filter(|p| self.case.points[*p].room == room).collect();
        // Nothing may be dark past its clock: looking about there and the way back must fit.
        let needs = self.walk_s(from, Place::Room(room)) + points.len() as f64 * 30.0 + self.case.panel_s[room] + 120.0;
        if !off.iter().all(|b| self.clock_allows(b, needs)) {
            return None;
        }
        for p in &points {
            self.round_seen[*p] = true;
        }
        Some(Act::Look { off, room, points })
    }

    /// A few halves at random, each improved by single toggles.
    fn best_half(&self, open: &[usize]) -> OffSet {
        let may: Vec<usize> = self.case.may_be_off().iter().filter(|b| self.clock_allows(*b, 300.0)).collect();
        let price = 12.0;
        let value = |off: OffSet| {
            let gained: f64 = open
                .iter()
                .map(|p| {
                    let m: f64 = off.iter().map(|b| self.belief().of(*p)[b]).sum();
                    bits(m) - bits(self.costs.misread)
                })
                .sum();
            price * gained - self.costs.flip_s * self.off.differs(off).len() as f64
        };
        let mut seed = self.salt();
        let mut best = (f64::NEG_INFINITY, OffSet::NONE);
        for _ in 0..4 {
            let mut set: OffSet = may
                .iter()
                .copied()
                .filter(|_| {
                    seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
                    seed >> 63 == 1
                })
                .collect();
            let mut now = value(set);
            loop {
                let toggled = may.iter().map(|b| if set.has(*b) { set.without(*b) } else { set.with(*b) });
                let Some((more, next)) = toggled.map(|s| (value(s), s)).max_by(|a, b| a.0.total_cmp(&b.0)) else { break };
                if more <= now + 1e-9 {
                    break;
                }
                (now, set) = (more, next);
            }
            if now > best.0 {
                best = (now, set);
            }
        }
        best.1
    }
}
