//! The search: which breakers to have off next, where to go and what to look at, so that every point is proven soon.
//!
//! In: a [`Case`] (what a crew sees) and what it saw so far. Out: one [`Act`] at a time. After each act everything is
//! thought over again, so a crew may do as it likes: every fact counts wherever it comes from. No breaker that must stay
//! on is ever asked to be off, and none that may feed a clocked point for longer than its clock.

mod belief;
mod binary;
mod case;
mod choose;
mod house;
mod play;
mod referee;
mod wiring;

pub use belief::Belief;
pub use case::{Case, CasePoint, Costs, Crew, MOST_BREAKERS, OffSet, OldLabel, PointClass};
pub use house::{House, HouseError, HouseLabel, HousePoint};
pub(crate) use play::play_as;
pub use play::{Strategy, play};
pub use referee::Played;
pub(crate) use wiring::NumberedWiring;
pub use wiring::{Feed, Wiring};

use crate::proof::single_cause;

/// Where somebody is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Place {
    /// At the panel.
    Panel,
    /// In a room.
    Room(usize),
}

/// What to do next.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Act {
    /// Have these off and all others on, go to the room, look at the points.
    Look {
        /// What is off.
        off: OffSet,
        /// Where.
        room: usize,
        /// At what, in this order.
        points: Vec<usize>,
    },
    /// Plug the tone sender in at the point, go to the panel, sweep twice.
    Tone {
        /// Where it is plugged in.
        point: usize,
    },
    /// Nothing more can be proven.
    Done,
}

/// What is known of a point.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Standing {
    /// On this breaker.
    Proven(usize),
    /// On this one, which may never be off: with every other off it stayed lit.
    ByExclusion(usize),
    /// Neither.
    Open,
}

/// A trace as it goes.
#[derive(Debug, Clone)]
pub struct Search<'a> {
    pub(crate) case: &'a Case,
    pub(crate) crew: Crew,
    pub(crate) costs: Costs,
    pub(crate) belief: Belief,
    /// What is off now.
    pub(crate) off: OffSet,
    /// Seconds since the start.
    pub(crate) now_s: f64,
    /// Since when each breaker is off.
    off_since: Vec<f64>,
    /// Where the walker is.
    pub(crate) at: Place,
    /// Points in which a tester or lamp is left.
    pub(crate) plugged: Vec<bool>,
    /// Testers and lamps in hand.
    in_hand: usize,
    burnt: Vec<bool>,
    /// The last lit look at each point: what was off, and how many handles had moved.
    last_lit: Vec<Option<(OffSet, usize)>>,
    /// Every breaker that was off at some look that showed the point lit.
    lit_without: Vec<OffSet>,
    moved: Vec<usize>,
    /// The off-set was changed and nothing was looked at under it yet.
    pub(crate) fresh: bool,
    /// Where the tone sender was left, if it is not in hand.
    pub(crate) sender: Option<usize>,
    binary_rounds: usize,
    pub(crate) in_binary: bool,
    round_set: OffSet,
    round_seen: Vec<bool>,
    /// Points that are not to be looked at.
    pub(crate) left_out: Vec<bool>,
    /// Points that were looked at under just what is off now.
    pub(crate) seen_now: Vec<bool>,
    /// Points that were passed over, and what was off then: they are not asked for under it again.
    pub(crate) passed_over: Vec<(OffSet, usize)>,
    salt: u64,
}

impl<'a> Search<'a> {
    /// Begins at the panel with everything on and every point seen lit so.
    pub fn new(case: &'a Case, crew: Crew, costs: Costs) -> Self {
        let points = case.points.len();
        assert!(case.breakers() <= MOST_BREAKERS, "a case has at most {MOST_BREAKERS} breakers; this is a bug");
        let mut search = Self {
            case,
            crew,
            costs,
            belief: Belief::new(case, crew.alone),
            off: OffSet::NONE,
            now_s: 0.0,
            off_since: vec![0.0; case.breakers()],
            at: Place::Panel,
            plugged: vec![false; points],
            in_hand: crew.plugs,
            burnt: vec![false; points],
            last_lit: vec![Some((OffSet::NONE, 0)); points],
            lit_without: vec![OffSet::NONE; points],
            moved: Vec::new(),
            fresh: false,
            sender: None,
            binary_rounds: 0,
            in_binary: false,
            round_set: OffSet::NONE,
            round_seen: Vec::new(),
            left_out: vec![false; points],
            seen_now: vec![false; points],
            passed_over: Vec::new(),
            salt: 1,
        };
        search.belief.infer(case);
        search
    }

    /// What is believed.
    pub fn belief(&self) -> &Belief {
        &self.belief
    }
    /// What is off now.
    pub fn off(&self) -> OffSet {
        self.off
    }

    /// What is known of a point.
    pub fn standing(&self, point: usize) -> Standing {
        if let Some(breaker) = self.belief.proven(point) {
            return Standing::Proven(breaker);
        }
        let mut never_off = self.case.stay_on.iter();
        let others = self.case.may_be_off();
        match (never_off.next(), never_off.next()) {
            (Some(only), None) if self.belief.is_sure(point, only) && self.lit_without[point].and(others) == others => {
                Standing::ByExclusion(only)
            }
            _ => Standing::Open,
        }
    }

    /// Whether a look at the point under this set is still to be had.
    pub(crate) fn can_look(&self, point: usize, off: OffSet) -> bool {
        let seen = off == self.off && self.seen_now[point];
        !seen && !self.passed_over.contains(&(off, point))
    }

    pub(crate) fn is_open(&self, point: usize) -> bool {
        !self.left_out[point] && self.standing(point) == Standing::Open
    }

    /// Seconds on foot.
    pub fn walk_s(&self, from: Place, to: Place) -> f64 {
        match (from, to) {
            (Place::Panel, Place::Panel) => 0.0,
            (Place::Panel, Place::Room(room)) | (Place::Room(room), Place::Panel) => self.case.panel_s[room],
            (Place::Room(a), Place::Room(b)) => self.case.walk_s[a][b],
        }
    }

    /// Seconds for a look at a point from within its room.
    pub fn look_s(&self, point: usize) -> f64 {
        let p = &self.case.points[point];
        if self.burnt[point] {
            self.costs.burnt_s
        } else if p.class == PointClass::Receptacle && !p.high && !self.plugged[point] {
            self.costs.plug_s
        } else {
            self.costs.glance_s
        }
    }

    /// Handles were moved so that just these are off.
    pub fn switched(&mut self, off: OffSet) {
        for breaker in self.off.differs(off).iter() {
            self.moved.push(breaker);
            if off.has(breaker) {
                self.off_since[breaker] = self.now_s;
            }
        }
        self.fresh |= self.off != off;
        self.off = off;
    }

    /// It has been off for so many seconds.
    pub(crate) fn off_for(&mut self, breaker: usize, seconds: f64) {
        self.off_since[breaker] = self.now_s - seconds.max(0.0);
    }

    /// Time passed.
    pub fn passed(&mut self, seconds: f64) {
        self.now_s += seconds;
    }

    /// The walker is there now.
    pub fn went(&mut self, to: Place) {
        self.at = to;
    }

    /// A lamp is found to be burnt out.
    pub fn is_burnt_out(&mut self, point: usize) {
        self.burnt[point] = true;
    }

    /// A look at a point. True where it should be looked at once more at once: it would be proven, but is not sure.
    pub fn saw(&mut self, point: usize, dark: bool) -> bool {
        self.fresh = false;
        self.plug_in(point);
        if self.belief.proven(point).is_some() {
            return false;
        }
        self.belief.saw(point, self.off, dark, self.costs.misread);
        let cause = if dark { self.cause(point) } else { None };
        if !dark {
            self.last_lit[point] = Some((self.off, self.moved.len()));
            self.lit_without[point] = self.off.iter().fold(self.lit_without[point], OffSet::with);
        }
        self.belief.infer(self.case);
        let Some(breaker) = cause else { return false };
        if self.belief.is_sure(point, breaker) {
            self.belief.prove(point, breaker);
            self.belief.infer(self.case);
            self.unplug(point);
            return false;
        }
        true
    }

    /// A tone sender at the point was heard at a breaker; it is still plugged in there.
    pub fn heard(&mut self, point: usize, breaker: usize) {
        let (case, costs) = (self.case, self.costs);
        self.belief.heard(case, point, breaker, &costs);
        self.sender = Some(case.points[point].room);
        self.belief.infer(case);
    }

    /// The referee's own crew, which knows the answer, has proven it.
    pub(crate) fn prove(&mut self, point: usize, breaker: usize) {
        self.belief.prove(point, breaker);
    }

    /// The single cause of a dark look now. Every point was seen lit with everything on at the start; the last lit look may
    /// tell more.
    fn cause(&self, point: usize) -> Option<usize> {
        let since = |(lit, moves): (OffSet, usize)| single_cause(&lit, &self.off, self.moved[moves..].iter().copied());
        since((OffSet::NONE, 0)).or_else(|| self.last_lit[point].and_then(since))
    }

    /// With more than one tester, all but the last stay where they are plugged in.
    pub(crate) fn plug_in(&mut self, point: usize) {
        let p = &self.case.points[point];
        if p.class != PointClass::Receptacle || p.high || self.burnt[point] || self.plugged[point] {
            return;
        }
        if self.in_hand > 1 {
            self.in_hand -= 1;
            self.plugged[point] = true;
        } else {
            // The one in hand: it is the one plugged in where the walker stands.
            for (n, other) in self.plugged.iter_mut().enumerate() {
                *other &= !(self.crew.plugs == 1 && n != point);
            }
            self.plugged[point] = self.crew.plugs == 1;
        }
    }

    /// Left behind in a room: what is proven there needs no tester any more.
    fn unplug(&mut self, point: usize) {
        if self.plugged[point] && self.crew.plugs > 1 {
            self.plugged[point] = false;
            self.in_hand += 1;
        }
    }

    /// Whether the breaker may stay off for so many more seconds, by the clocks of every point it may feed.
    pub(crate) fn clock_allows(&self, breaker: usize, seconds: f64) -> bool {
        const MARGIN_S: f64 = 60.0;
        let since = if self.off.has(breaker) { self.now_s - self.off_since[breaker] } else { 0.0 };
        self.case.points.iter().enumerate().all(|(p, point)| {
            let Some(most) = point.max_dark_s else { return true };
            let may_feed = match self.belief.proven(p) {
                Some(on) => on == breaker,
                None => true,
            };
            !may_feed || since + seconds + MARGIN_S <= most
        })
    }

    /// What to do next.
    pub fn next_act(&mut self) -> Act {
        self.salt = self.salt.wrapping_add(1);
        if let Some(act) = self.binary_act() {
            return act;
        }
        self.best_act()
    }

    pub(crate) fn salt(&self) -> u64 {
        self.salt
    }
}
