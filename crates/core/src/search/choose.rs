//! The next act by its rate: seconds of later work saved for every second it costs.

use super::{Act, OffSet, Place, PointClass, Search};

/// What things are worth, found by playing made-up houses; no source.
struct Prices {
    /// A bit, in seconds.
    bit_s: f64,
    /// A breaker that need not be switched again, in seconds.
    round_s: f64,
    /// What the other points of a group are worth beside its best, at full affinity.
    others: f64,
    /// How much of switching on again counts against switching off.
    restoring: f64,
}

const PAIR: Prices = Prices { bit_s: 12.0, round_s: 12.0, others: 0.2, restoring: 0.2 };
const ALONE: Prices = Prices { bit_s: 15.0, round_s: 12.0, others: 0.09, restoring: 0.0 };

/// Rooms on one round.
const MOST_ROOMS: usize = 6;
/// What a look must save for every second it costs; lowered when nothing does.
const BARS: [f64; 3] = [0.5, 0.17, 0.0];

/// Bits from which the chances of a point are halved by an off-set of its own, and at how many points that is tried.
const UNCLEAR: f64 = 1.5;
const MOST_HALVED: usize = 20;

/// Rooms near by, and groups of points that are most open, whose likeliest breakers are tried together.
const NEAR_ROOMS: usize = 7;
const OPEN_GROUPS: usize = 4;

/// Breakers are added to the off-set or taken out, the likeliest first, until they have so much of the chances.
fn with_share(begun: OffSet, order: &[usize], chances: &[f64], share: f64) -> OffSet {
    let mut set = begun;
    let mut sum: f64 = begun.iter().map(|b| chances[b]).sum();
    let grows = sum < share;
    for b in order.iter().filter(|b| begun.has(**b) != grows) {
        if (sum < share) != grows {
            break;
        }
        (set, sum) = if grows { (set.with(*b), sum + chances[*b]) } else { (set.without(*b), sum - chances[*b]) };
    }
    set
}

fn bits(p: f64) -> f64 {
    if p <= 0.0 || p >= 1.0 { 0.0 } else { -p * p.log2() - (1.0 - p) * (1.0 - p).log2() }
}

/// Seconds of watching a point go out and come back.
pub(crate) const WATCH_S: f64 = 2.0;

/// A round under one off-set: what it saves, what it costs, where it goes first.
struct Round {
    rate: f64,
    room: usize,
    points: Vec<usize>,
}

/// A point whose single cause was seen and that is not sure yet: how far one more look would bring it.
struct Waiting {
    breaker: usize,
    /// How likely that is.
    chance: f64,
    /// By one more dark look, with the breaker off alone or as it stands.
    dark: f64,
    /// By a lit look with it on.
    back: f64,
}

/// The breaker that is likeliest for a point of which no single cause counts.
#[derive(Clone, Copy)]
struct Leader {
    breaker: usize,
    /// A look disagreed, so that it has to be seen lit again before switching the breaker off can single it out.
    needs_lit: bool,
}

/// What is known of the points beforehand, by their places in the case.
struct Outlook {
    open: Vec<usize>,
    /// How many open points each breaker is expected to feed.
    expected: Vec<f64>,
    waiting: Vec<Option<Waiting>>,
    leaders: Vec<Option<Leader>>,
}

impl Search<'_> {
    const fn prices(&self) -> &'static Prices {
        if self.crew.alone { &ALONE } else { &PAIR }
    }

    pub(crate) fn best_act(&mut self) -> Act {
        let open: Vec<usize> = (0..self.case.points.len()).filter(|p| self.is_open(*p)).collect();
        if open.is_empty() {
            return Act::Done;
        }
        let breakers = self.case.breakers();
        let mut expected = vec![0.0; breakers];
        for p in &open {
            for (b, x) in self.belief().of(*p).iter().enumerate() {
                expected[b] += x;
            }
        }
        let points = 0..self.case.points.len();
        let waiting: Vec<Option<Waiting>> = points.clone().map(|p| self.waiting(p)).collect();
        let leaders = points.map(|p| if waiting[p].is_none() { self.leader(p) } else { None }).collect();
        let outlook = Outlook { open, expected, waiting, leaders };
        let candidates = self.candidates(&outlook);
        for bar in BARS {
            let mut best: Option<(f64, OffSet, Round)> = None;
            for off in &candidates {
                if let Some(round) = self.round(*off, &outlook, bar)
                    && best.as_ref().is_none_or(|(rate, _, _)| round.rate > *rate)
                {
                    best = Some((round.rate, *off, round));
                }
            }
            if let Some((rate, off, _)) = &best
                && let Some(better) = self.one_more_or_less(*off, *rate, &outlook, bar)
            {
                best = Some(better);
            }
            let looked = best.as_ref().map_or(0.0, |(rate, _, _)| *rate);
            if self.crew.tone
                && !self.fresh
                && let Some((rate, point)) = self.best_tone(&outlook.open)
                && rate > looked
                && rate > 0.05
            {
                return Act::Tone { point };
            }
            if !self.fresh
                && let Some((breaker, point)) = self.best_watch(&outlook, looked)
            {
                return Act::Watch { breaker, point };
            }
            if let Some((rate, off, round)) = best
                && rate > 0.004
            {
                return Act::Look { off, room: round.room, points: round.points };
            }
        }
        Act::Done
    }

    /// Off-sets worth a thought.
    fn candidates(&self, outlook: &Outlook) -> Vec<OffSet> {
        let Outlook { open, expected, waiting, leaders } = outlook;
        let may = self.case.may_be_off();
        let mut sets: Vec<OffSet> = Vec::with_capacity(160);
        let mut add = |set: OffSet| {
            let set = set.and(may);
            if !set.is_empty() && !sets.contains(&set) {
                sets.push(set);
            }
        };
        if self.fresh {
            // After a change the next act is a look under it, else sets could be swapped for ever.
            add(self.off);
            if !sets.is_empty() {
                return sets;
            }
        }
        let mut add = |set: OffSet| {
            let set = set.and(may);
            if !set.is_empty() && !sets.contains(&set) {
                sets.push(set);
            }
        };
        add(self.off);
        for b in may.iter().filter(|b| expected[*b] > 0.01) {
            add(OffSet::one(b));
        }
        for (p, leader) in leaders.iter().enumerate() {
            let Some(Leader { breaker, needs_lit: false }) = leader else { continue };
            // With what is off left off: everything else has to have stayed as it was.
            if !self.singles_out(p, *breaker, OffSet::one(*breaker)) {
                add(self.off.with(*breaker));
            }
        }
        let here = match self.at {
            Place::Room(room) => Some(room),
            Place::Panel => None,
        };
        // The likeliest breakers of rooms that are near, and of the groups that are most open.
        let mut rooms: Vec<usize> =
            (0..self.case.rooms).filter(|r| open.iter().any(|p| self.case.points[*p].room == *r)).collect();
        rooms.sort_by(|a, b| {
            let far = |room: usize| self.walk_s(self.at, Place::Room(room));
            far(*a).total_cmp(&far(*b))
        });
        rooms.truncate(NEAR_ROOMS);
        if let Some(here) = here
            && !rooms.contains(&here)
        {
            rooms.push(here);
        }
        let ranked = |points: &mut dyn Iterator<Item = usize>| -> Vec<usize> {
            let mut weight = vec![0.0; expected.len()];
            for p in points {
                for (b, x) in self.belief().of(p).iter().enumerate() {
                    weight[b] += x;
                }
            }
            let mut order: Vec<usize> = may.iter().filter(|b| weight[*b] > 1e-3).collect();
            order.sort_by(|a, b| weight[*b].total_cmp(&weight[*a]));
            order
        };
        for room in &rooms {
            let order = ranked(&mut open.iter().copied().filter(|p| self.case.points[*p].room == *room));
            for n in [2, 3, 4, 6, 8] {
                add(order.iter().take(n).copied().collect());
            }
            add(order.iter().step_by(2).take(8).copied().collect());
            add(order.iter().skip(1).step_by(2).take(8).copied().collect());
        }
        let mut groups: Vec<(f64, usize)> = Vec::new();
        for p in open {
            let g = self.belief().group(*p);
            let h = self.belief().open_bits(*p);
            match groups.iter_mut().find(|(_, other)| *other == g) {
                Some((sum, _)) => *sum += h,
                None => groups.push((h, g)),
            }
        }
        groups.sort_by(|a, b| b.0.total_cmp(&a.0));
        for (_, g) in groups.iter().take(OPEN_GROUPS) {
            let order = ranked(&mut open.iter().copied().filter(|p| self.belief().group(*p) == *g));
            for n in [2, 3, 4, 6] {
                add(order.iter().take(n).copied().collect());
            }
        }
        // What halves the chances of the points that are nearest, with as few moves as may be or from nothing.
        let mut unclear: Vec<usize> = open.iter().copied().filter(|p| self.belief().open_bits(*p) > UNCLEAR).collect();
        unclear.sort_by(|a, b| {
            let far = |p: usize| self.walk_s(self.at, Place::Room(self.case.points[p].room));
            let bits = |p: usize| self.belief().open_bits(p);
            far(*a).total_cmp(&far(*b)).then(bits(*b).total_cmp(&bits(*a)))
        });
        for p in unclear.into_iter().take(MOST_HALVED) {
            let row = self.belief().of(p);
            let order = ranked(&mut std::iter::once(p));
            for share in [0.5, 0.3] {
                for begun in [OffSet::NONE, self.off.and(may)] {
                    add(with_share(begun, &order, row, share));
                }
            }
        }
        // Halves of what is off and a few at random.
        let now: Vec<usize> = self.off.and(may).iter().collect();
        if now.len() > 1 {
            add(now.iter().take(now.len() / 2).copied().collect());
            add(now.iter().skip(now.len() / 2).copied().collect());
            for b in &now {
                add(self.off.without(*b));
            }
        }
        let live: Vec<usize> = may.iter().filter(|b| expected[*b] > 0.05).collect();
        let mut seed = self.salt().wrapping_mul(0x9E37_79B9_7F4A_7C15);
        for size in [3, 4, 5, 6, 8, 10] {
            let mut set = OffSet::NONE;
            for _ in 0..size.min(live.len()) {
                seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
                set = set.with(live[(seed >> 33) as usize % live.len()]);
            }
            add(set);
        }
        if !self.case.stay_on.is_empty() {
            add(may);
        }
        if waiting.iter().any(Option::is_some) || leaders.iter().flatten().any(|leader| leader.needs_lit) {
            // Everything on, then look.
            sets.push(OffSet::NONE);
        }
        sets
    }

    /// The best round with one breaker more or less off, where that is better than this.
    fn one_more_or_less(&self, off: OffSet, rate: f64, outlook: &Outlook, bar: f64) -> Option<(f64, OffSet, Round)> {
        /// How many points a breaker is expected to feed at least, and by how much the round is to be better.
        const LEAST: f64 = 0.02;
        const BETTER: f64 = 1.02;
        if self.fresh {
            return None;
        }
        let worth_a_thought = self.case.may_be_off().iter().filter(|b| outlook.expected[*b] > LEAST);
        worth_a_thought
            .map(|b| if off.has(b) { off.without(b) } else { off.with(b) })
            .filter(|set| !set.is_empty())
            .filter_map(|set| self.round(set, outlook, bar).map(|round| (round.rate, set, round)))
            .filter(|(other, _, _)| *other > BETTER * rate)
            .max_by(|one, other| one.0.total_cmp(&other.0))
    }

    /// The best round under an off-set, or none that is worth it.
    fn round(&self, off: OffSet, outlook: &Outlook, bar: f64) -> Option<Round> {
        let Outlook { open, expected, waiting, leaders } = outlook;
        let prices = self.prices();
        let lie = self.costs.misread;
        let single = off.single();
        let base = bits(lie);
        // Where the card is right throughout, what it says is proven rather than asked about.
        let bit_s = prices.bit_s * (1.0 - 0.35 * self.belief().card_whole());
        // Each point's worth; the best of a group counts in full.
        let mut worth: Vec<(usize, f64, f64)> = Vec::with_capacity(open.len());
        for p in open.iter().filter(|p| self.can_look(**p, off)) {
            if let Some(waiting) = &waiting[*p] {
                let progress = match (off.has(waiting.breaker), off == self.off || single.is_some()) {
                    (true, true) => waiting.dark,
                    (true, false) => 0.0,
                    (false, _) => waiting.back,
                };
                worth.push((*p, 0.0, waiting.chance * self.finish_s(*p) * progress));
                continue;
            }
            let row = self.belief().of(*p);
            let m: f64 = off.iter().map(|b| row[b]).sum();
            let gained = bit_s * (bits(m * (1.0 - 2.0 * lie) + lie) - base).max(0.0);
            let proof = |b: usize| row[b] * (self.look_s(*p) + prices.round_s / expected[b].max(1.0));
            let proof = match (single, leaders[*p]) {
                (Some(b), _) if self.singles_out(*p, b, off) => proof(b),
                (_, Some(leader)) if self.singles_out(*p, leader.breaker, off) => proof(leader.breaker),
                (_, Some(leader)) if leader.needs_lit && !off.has(leader.breaker) => {
                    0.5 * row[leader.breaker] * self.finish_s(*p)
                }
                _ => 0.0,
            };
            worth.push((*p, gained, proof));
        }
        let mut best_of: Vec<(usize, usize, f64)> = Vec::new();
        for (p, gained, _) in &worth {
            let g = self.belief().group(*p);
            match best_of.iter_mut().find(|(other, _, _)| *other == g) {
                Some(best) if best.2 < *gained => (best.1, best.2) = (*p, *gained),
                Some(_) => {}
                None => best_of.push((g, *p, *gained)),
            }
        }
        let f = self.belief().affinity();
        let rest = 1.0 - (1.0 - prices.others) * f;
        let mut rooms: Vec<(usize, f64, f64, Vec<usize>)> = Vec::new();
        for (p, gained, proof) in &worth {
            let first = best_of.iter().any(|(_, best, _)| best == p);
            let value = gained * if first { 1.0 } else { rest } + proof;
            let look = if self.is_in_place(*p) { self.again_s(*p) } else { self.look_s(*p) };
            if value < bar * look || value <= 1e-6 {
                continue;
            }
            let room = self.case.points[*p].room;
            match rooms.iter_mut().find(|(r, _, _, _)| *r == room) {
                Some((_, v, c, points)) => {
                    *v += value;
                    *c += look;
                    points.push(*p);
                }
                None => rooms.push((room, value, look, vec![*p])),
            }
        }
        if rooms.is_empty() {
            return None;
        }
        let (mut cost, mut at) = self.switching_s(off);
        let mut value = 0.0;
        let mut first: Option<usize> = None;
        let mut left: Vec<usize> = (0..rooms.len()).collect();
        let mut rate = 0.0;
        for _ in 0..MOST_ROOMS {
            let next = left
                .iter()
                .map(|n| {
                    let (room, v, c, _) = &rooms[*n];
                    let walk = self.walk_s(at, Place::Room(*room));
                    ((value + v) / (cost + walk + c).max(0.1), *n, walk)
                })
                .max_by(|a, b| a.0.total_cmp(&b.0));
            let Some((with, n, walk)) = next.filter(|(with, _, _)| *with > rate) else { break };
            rate = with;
            value += rooms[n].1;
            cost += walk + rooms[n].2;
            at = Place::Room(rooms[n].0);
            first.get_or_insert(n);
            left.retain(|m| *m != n);
        }
        let n = first?;
        let (room, _, looks, points) = rooms.swap_remove(n);
        // Nothing may be dark past its clock: this room's looks, and the way back to the panel, must fit.
        let needs = self.switching_s(off).0 + looks + 2.0 * self.case.panel_s[room] + 120.0;
        if !off.iter().all(|b| self.clock_allows(b, needs)) {
            return None;
        }
        Some(Round { rate, room, points })
    }

    /// Whether a look at the point with these off, dark if the breaker feeds it, would single that out.
    fn singles_out(&self, point: usize, breaker: usize, off: OffSet) -> bool {
        self.weigh.would_single_out(self.case, point, breaker, off.or(self.left_off))
    }

    /// The likeliest breaker of a point that is open, where it leads.
    fn leader(&self, point: usize) -> Option<Leader> {
        const LEADS: f64 = 0.5;
        let breaker = self.belief().of(point).iter().position(|chance| *chance > LEADS).filter(|_| self.is_open(point))?;
        let singles_out = |off| self.singles_out(point, breaker, off);
        let needs_lit = !singles_out(OffSet::one(breaker)) && !singles_out(self.off.with(breaker));
        Some(Leader { breaker, needs_lit })
    }

    /// What is left to be had for a point whose single cause was seen.
    fn waiting(&self, point: usize) -> Option<Waiting> {
        if !self.is_open(point) {
            return None;
        }
        /// Where the looks since speak for another breaker, that one is searched for.
        const LEAST_CHANCE: f64 = 0.2;
        let breaker = self.weigh.waits(point)?;
        let chance = self.belief().of(point)[breaker];
        if chance < LEAST_CHANCE {
            return None;
        }
        let in_place = self.is_in_place(point);
        let off_now = self.off.has(breaker);
        let alone = if off_now { self.off } else { OffSet::one(breaker) }.or(self.left_off);
        let turn = |to: bool| (off_now != to).then_some((OffSet::one(breaker), to));
        let on = self.off.without(breaker).or(self.left_off);
        // What was switched for is looked at, even where less is to be gained than was foreseen.
        let least = if self.fresh { 0.05 } else { 0.0 };
        Some(Waiting {
            breaker,
            chance,
            dark: self.weigh.progress(self.case, point, breaker, alone, turn(true), in_place).max(least),
            back: self.weigh.progress(self.case, point, breaker, on, turn(false), in_place).max(least),
        })
    }

    /// What it costs to have just these off, with half of switching them on again; and where the walker is then.
    fn switching_s(&self, off: OffSet) -> (f64, Place) {
        if off == self.off {
            return (0.0, self.at);
        }
        let changed = self.off.differs(off);
        let newly_off = changed.and(off).len() as f64;
        let flips = self.costs.flip_s * (changed.len() as f64 + self.prices().restoring * newly_off);
        if self.crew.alone {
            (flips + self.walk_s(self.at, Place::Panel), Place::Panel)
        } else {
            (flips + self.costs.exchange_s, self.at)
        }
    }

    /// The breaker and the point that is best watched as it is switched off and on again, where that saves more than `bar`: for a
    /// pair, which says the moment, and nothing that should not go off and come on within seconds.
    fn best_watch(&self, outlook: &Outlook, bar: f64) -> Option<(usize, usize)> {
        /// Below this belief nothing is watched; above that of a delicate point, its breaker is left alone.
        const LEAST: f64 = 0.15;
        const DELICATE: f64 = 0.3;
        /// How far what is foreseen comes true. Several points at once brought nothing in made-up houses.
        const HOPED: f64 = 0.45;
        const MOST: usize = 2;
        if self.crew.alone {
            return None;
        }
        let delicate = self.case.delicate.or(self.may_feed_delicate(DELICATE));
        let begins = 2.0 * (self.costs.exchange_s + self.costs.flip_s) + WATCH_S;
        let off = self.off.or(self.left_off);
        let shut_out = off.or(self.case.stay_on).or(delicate);
        let mut best = (bar, None);
        let may_watch = |p: &usize| !self.by_volts(*p) && !self.passed_over.contains(&(self.off, *p));
        for p in outlook.open.iter().copied().filter(may_watch) {
            let in_place = self.is_in_place(p);
            let look = if in_place { self.again_s(p) } else { self.look_s(p) };
            let cost = begins + look + self.walk_s(self.at, Place::Room(self.case.points[p].room));
            for (breaker, chance) in self.belief().of(p).iter().enumerate().filter(|(_, chance)| **chance >= LEAST) {
                if shut_out.has(breaker) || self.watched.iter().filter(|w| **w == (p, breaker)).count() >= MOST {
                    continue;
                }
                let saved = match &outlook.waiting[p] {
                    Some(_) => self.finish_s(p),
                    None => self.finish_s(p) + self.look_s(p) + self.prices().round_s / outlook.expected[breaker].max(1.0),
                };
                let hoped = chance * saved * HOPED / cost;
                if hoped > best.0 {
                    let rate = hoped * self.weigh.progress_by_watching(self.case, p, breaker, off, in_place);
                    if rate > best.0 {
                        best = (rate, Some((breaker, p)));
                    }
                }
            }
        }
        best.1
    }

    /// Breakers that are likelier than this to feed what should not go off and come on within seconds.
    fn may_feed_delicate(&self, least: f64) -> OffSet {
        let delicate = || (0..self.case.points.len()).filter(|p| self.case.points[*p].delicate);
        let feeds = |p: usize, b: usize| match self.belief().proven(p) {
            Some(on) => on == b,
            None => self.belief().of(p)[b] > least,
        };
        (0..self.case.breakers()).filter(|b| delicate().any(|p| feeds(p, *b))).collect()
    }

    /// The point at which a tone sender saves most for its time. Never at 240 V.
    fn best_tone(&self, open: &[usize]) -> Option<(f64, usize)> {
        let prices = self.prices();
        let breakers = self.case.breakers();
        let sweeps = self.costs.tone_s(breakers);
        let mut best: Option<(f64, usize)> = None;
        for p in open.iter().copied() {
            let point = &self.case.points[p];
            // Passed over there: no tone was heard.
            if point.class != PointClass::Receptacle || point.high || self.passed_over.iter().any(|(_, q)| *q == p) {
                continue;
            }
            let row = self.belief().of(p);
            let before = self.belief().open_bits(p);
            if before < 0.8 {
                continue;
            }
            // The entropy left when the tracer is right or off by one.
            let mut after = 0.0;
            for t in 0..breakers {
                let chance = |b: usize| {
                    if b == t {
                        self.costs.tone_right
                    } else if self.case.beside[t].contains(&b) {
                        (1.0 - self.costs.tone_right) / self.case.beside[b].len().max(1) as f64
                    } else {
                        0.0
                    }
                };
                let near = self.case.beside[t].iter().copied().chain([t]);
                let joint: Vec<f64> = near.map(|b| row[b] * chance(b)).collect();
                let total: f64 = joint.iter().sum();
                if total > 1e-9 {
                    after -= joint.iter().filter(|x| **x > 1e-12).map(|x| x * (x / total).log2()).sum::<f64>();
                }
            }
            let gained = (before - after).max(0.0);
            let group = open.iter().filter(|q| self.belief().group(**q) == self.belief().group(p)).count() as f64;
            let spread = 1.0 + 0.3 * self.belief().affinity() * (group - 1.0).min(4.0);
            let value = prices.bit_s * gained * spread;
            let fetch = self.sender.map_or(self.at, Place::Room);
            let cost = self.walk_s(self.at, fetch)
                + self.walk_s(fetch, Place::Room(point.room))
                + self.costs.tone_place_s
                + self.case.panel_s[point.room]
                + sweeps;
            let rate = value / cost;
            if best.is_none_or(|(most, _)| rate > most) {
                best = Some((rate, p));
            }
        }
        best
    }
}
