//! The search: which breakers to have off next, where to go and what to look at, so that every point is proven soon.
//!
//! In: a [`Case`] (what a crew sees) and what it saw so far. Out: one [`Act`] at a time. After each act everything is
//! thought over again, so a crew may do as it likes: every fact counts wherever it comes from. No breaker that must stay
//! on is ever asked to be off, and none that may feed a clocked point for longer than its clock.

mod binary;
mod choose;
mod house;
mod play;
mod referee;
mod wiring;
mod world;

pub use crate::proof::{Belief, Case, CasePoint, Costs, Crew, Found, MOST_BREAKERS, OffSet, OldLabel, PointClass};
pub(crate) use choose::WATCH_S;
pub use house::{House, HouseError, HouseLabel, HousePoint};
pub(crate) use play::play_as;
pub use play::{Game, Strategy, play};
pub use referee::Played;
pub(crate) use wiring::NumberedWiring;
pub use wiring::{Feed, Wiring};
pub use world::World;

use crate::proof::{Way, Weigh};

/// Seconds from one point to the next while everything is seen lit, before the clock of a made-up house starts.
const LOOKED_ROUND_S: f64 = 8.0;
/// The most looks at a point since a handle was moved, but the first.
const MOST_AGAIN: usize = 2;
/// What a second look in place must save for every second: it is had for little.
const AGAIN_RATE: f64 = 0.2;
/// What a look at a point that is found anew must save, as any other look.
const ANEW_RATE: f64 = 1.2;

/// Where somebody is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Place {
    /// At the panel.
    Panel,
    /// In a room.
    Room(usize),
}

/// A second look at once.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Again {
    /// Where the walker stands.
    InPlace,
    /// Found anew by its place and name, so that it is not the wrong point twice over.
    Anew,
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
    /// See whether this point, which should be lit, is: if it is, the house has power.
    Control {
        /// Which.
        point: usize,
    },
    /// Push this breaker fully off and on again: it may look on and carry no power.
    Cycle {
        /// Which.
        breaker: usize,
    },
    /// Watch this point, which is lit, while this breaker is switched off and on again.
    Watch {
        /// Which breaker.
        breaker: usize,
        /// Which point.
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
    /// On one of those that may never be off: no other is likely, by the same bounds as a proof.
    ByExclusion,
    /// Neither.
    Open,
}

/// A trace as it goes.
#[derive(Debug, Clone)]
pub struct Search<'a> {
    pub(crate) case: &'a Case,
    pub(crate) crew: Crew,
    pub(crate) costs: Costs,
    pub(crate) weigh: Weigh,
    /// What is off now.
    pub(crate) off: OffSet,
    /// What is left off for a reason of its own, and nobody asks about.
    pub(crate) left_off: OffSet,
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
    /// Looks at each point; second ones since a handle was moved; and where a point is waited for in vain.
    looks: Vec<usize>,
    again: Vec<usize>,
    excluded: Vec<bool>,
    /// Where the walker looked last, still with the tester in.
    last_at: Option<usize>,
    /// To be pushed off and on next; and how often each was.
    suspect: Option<usize>,
    cycled: Vec<usize>,
    /// The points and breakers that were watched.
    pub(crate) watched: Vec<(usize, usize)>,
    /// Something that should be lit is to be looked at next; and that was done since a handle moved.
    control: Option<usize>,
    controlled: bool,
    salt: u64,
}

impl<'a> Search<'a> {
    /// Begins at the panel with everything on and every point seen lit so.
    pub fn new(case: &'a Case, crew: Crew, costs: Costs) -> Self {
        let mut weigh = Weigh::new(case, crew.alone);
        // Everything was seen lit before the clock starts.
        for point in 0..case.points.len() {
            weigh.passed(LOOKED_ROUND_S);
            weigh.saw(case, point, false, Way::Anew, false, 0);
        }
        weigh.infer(case);
        Self::with(case, crew, costs, weigh)
    }

    /// Goes on from lines that were weighed.
    pub(crate) fn with(case: &'a Case, crew: Crew, costs: Costs, weigh: Weigh) -> Self {
        let points = case.points.len();
        assert!(case.breakers() <= MOST_BREAKERS, "a case has at most {MOST_BREAKERS} breakers; this is a bug");
        Self {
            case,
            crew,
            costs,
            weigh,
            off: OffSet::NONE,
            left_off: OffSet::NONE,
            now_s: 0.0,
            off_since: vec![0.0; case.breakers()],
            at: Place::Panel,
            plugged: vec![false; points],
            in_hand: crew.plugs,
            burnt: vec![false; points],
            fresh: false,
            sender: None,
            binary_rounds: 0,
            in_binary: false,
            round_set: OffSet::NONE,
            round_seen: Vec::new(),
            left_out: vec![false; points],
            seen_now: vec![false; points],
            passed_over: Vec::new(),
            looks: vec![0; points],
            again: vec![0; points],
            excluded: vec![false; points],
            last_at: None,
            suspect: None,
            cycled: vec![0; case.breakers()],
            watched: Vec::new(),
            control: None,
            controlled: false,
            salt: 1,
        }
    }

    /// Takes up what a logbook has: the points looked at, in order; of them those since a handle moved, the last first; the
    /// breakers that were pushed off and on.
    pub(crate) fn take_up(&mut self, looked: &[usize], in_window: Vec<usize>, cycled: Vec<usize>) {
        for point in looked {
            self.looks[*point] += 1;
        }
        for breaker in cycled {
            self.cycled[breaker] += 1;
        }
        self.last_at = looked.last().copied();
        for point in &in_window {
            self.again[*point] += 1;
        }
        for point in in_window {
            self.suspect(point, false);
        }
    }

    /// What is believed.
    pub fn belief(&self) -> &Belief {
        self.weigh.belief()
    }
    /// What is off now.
    pub fn off(&self) -> OffSet {
        self.off
    }

    /// What is known of a point.
    pub fn standing(&self, point: usize) -> Standing {
        match self.belief().proven(point) {
            Some(breaker) => Standing::Proven(breaker),
            None if self.excluded[point] => Standing::ByExclusion,
            None => Standing::Open,
        }
    }

    /// Whether a look at the point under this set is still to be had.
    pub(crate) fn can_look(&self, point: usize, off: OffSet) -> bool {
        let seen = off == self.off && (self.seen_now[point] || self.again[point] > 0);
        !seen && !self.passed_over.contains(&(off, point))
    }

    pub(crate) fn is_open(&self, point: usize) -> bool {
        /// Looks after which a point is left open.
        const MOST_LOOKS: usize = 30;
        !self.left_out[point] && self.looks[point] < MOST_LOOKS && self.standing(point) == Standing::Open
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
        if self.burnt[point] || self.by_volts(point) {
            self.costs.burnt_s
        } else if p.class == PointClass::Receptacle && !p.high && !self.plugged[point] {
            self.costs.plug_s
        } else {
            self.costs.glance_s
        }
    }

    /// It goes by itself, so that it is looked at by its voltage or what shows that.
    pub(crate) fn by_volts(&self, point: usize) -> bool {
        self.case.points[point].by_itself || self.weigh.is_measured(point)
    }

    /// Handles were moved so that just these are off.
    pub fn switched(&mut self, off: OffSet) {
        let moved = self.off.differs(off);
        for breaker in moved.iter() {
            let now = self.weigh.off();
            self.weigh.switched(if off.has(breaker) { now.with(breaker) } else { now.without(breaker) });
            if off.has(breaker) {
                self.off_since[breaker] = self.now_s;
            }
        }
        if !moved.is_empty() {
            self.again.fill(0);
            (self.control, self.controlled) = (None, false);
        }
        self.fresh |= !moved.is_empty();
        self.off = off;
    }

    /// A handle was found to stand otherwise, and was put right.
    pub fn found(&mut self, breaker: usize, found: Found) {
        let case = self.case;
        self.weigh.found(case, breaker, found);
        self.weigh.infer(case);
        self.suspect = self.suspect.filter(|suspect| *suspect != breaker);
    }

    /// It has been off for so many seconds.
    pub(crate) fn off_for(&mut self, breaker: usize, seconds: f64) {
        self.off_since[breaker] = self.now_s - seconds.max(0.0);
    }

    /// Time passed.
    pub fn passed(&mut self, seconds: f64) {
        self.now_s += seconds;
        self.weigh.passed(seconds);
    }

    /// The walker is there now.
    pub fn went(&mut self, to: Place) {
        self.at = to;
        self.last_at = None;
    }

    /// A lamp is found to be burnt out.
    pub fn is_burnt_out(&mut self, point: usize) {
        self.burnt[point] = true;
    }

    /// A look at a point. Says where it should be looked at once more at once: it would be proven, but is not sure.
    pub fn saw(&mut self, point: usize, dark: bool) -> Option<Again> {
        let left_there = self.crew.plugs > 1 && self.plugged[point];
        let in_place = self.last_at == Some(point) || left_there;
        self.fresh = false;
        self.last_at = Some(point);
        self.plug_in(point);
        if self.seen_in_window(point) {
            self.again[point] += 1;
        }
        let way = if in_place { Way::InPlace } else { Way::Anew };
        self.seen_by(point, dark, way).then(|| self.worth_looking_again(point)).flatten()
    }

    /// A look at a point, by whatever way. Says whether it is open after it.
    fn seen_by(&mut self, point: usize, dark: bool, way: Way) -> bool {
        let case = self.case;
        self.looks[point] += 1;
        self.weigh.saw(case, point, dark, way, self.by_volts(point), self.looks[point]);
        self.again[point] = self.again[point].max(1);
        let fresh = self.weigh.infer(case);
        for proven in &fresh {
            self.unplug(*proven);
        }
        if self.belief().proven(point).is_some() {
            return false;
        }
        self.exclude(point);
        self.suspect(point, dark);
        true
    }

    /// A point that was seen lit just now: whether it went out as this breaker was switched off, and was lit with it on again.
    pub fn watched(&mut self, point: usize, breaker: usize, went_out: bool, came_back: bool) {
        let all = self.weigh.off();
        self.weigh.switched(all.with(breaker));
        self.watched.push((point, breaker));
        self.seen_by(point, went_out, Way::Watched(breaker));
        self.weigh.switched(all);
        self.again.fill(0);
        self.seen_now.fill(false);
        (self.control, self.controlled, self.suspect) = (None, false, None);
        self.seen_by(point, !came_back, Way::InPlace);
    }

    fn seen_in_window(&self, point: usize) -> bool {
        self.again[point] > 0
    }

    /// Nothing but breakers that may never be off is likely any more.
    fn exclude(&mut self, point: usize) {
        let never_off = self.case.stay_on;
        if never_off.is_empty() || never_off.iter().map(|b| self.belief().of(point)[b]).sum::<f64>() < 0.98 {
            self.excluded[point] = false;
            return;
        }
        self.excluded[point] = self.weigh.reading(self.case, point).is_among(never_off);
    }

    /// What may be behind a look, and what is to be done about it: a breaker pushed off and on, a look at something that should
    /// be lit, from now on a look by its voltage.
    fn suspect(&mut self, point: usize, dark: bool) {
        const LIKELY: f64 = 0.25;
        const OUTAGE: f64 = 0.03;
        const MOST: usize = 3;
        let behind = self.weigh.behind(self.case, point);
        let breaker = behind.likeliest;
        if behind.out_of_order > LIKELY
            && !self.off.has(breaker)
            && !self.left_off.has(breaker)
            && !self.case.stay_on.has(breaker)
            && self.cycled[breaker] < MOST
        {
            self.suspect = Some(breaker);
        }
        if dark && behind.outage > OUTAGE && !self.controlled {
            self.control = self.best_control(point);
        }
        if behind.is_to_be_measured() && !self.by_volts(point) {
            self.weigh.measure(point);
        }
    }

    /// The nearest point that is believed to be lit now, other than this one.
    fn best_control(&self, point: usize) -> Option<usize> {
        const LIT: f64 = 0.97;
        let believed_lit = |p: usize| {
            let row = self.belief().of(p);
            1.0 - self.off.iter().map(|b| row[b]).sum::<f64>()
        };
        let fits = |p: &usize| *p != point && !self.by_volts(*p) && self.again[*p] == 0 && believed_lit(*p) > LIT;
        let cost = |p: usize| self.walk_s(self.at, Place::Room(self.case.points[p].room)) + self.look_s(p);
        (0..self.case.points.len()).filter(fits).min_by(|a, b| cost(*a).total_cmp(&cost(*b)))
    }

    /// The breaker that is to be pushed off and on next.
    pub(crate) const fn suspected(&self) -> Option<usize> {
        self.suspect
    }

    /// The breaker with which the point went dark, where that is not sure yet.
    pub(crate) fn waits(&self, point: usize) -> Option<usize> {
        self.weigh.waits(point)
    }

    /// Whether a second look, in place or found anew, at what was seen just now is worth its seconds.
    fn worth_looking_again(&self, point: usize) -> Option<Again> {
        let breaker = self.weigh.waits(point).filter(|b| self.off.has(*b))?;
        if self.again[point] > MOST_AGAIN {
            return None;
        }
        let progress = |in_place| self.weigh.progress(self.case, point, breaker, self.off.or(self.left_off), None, in_place);
        let worth = |in_place, seconds: f64| progress(in_place) * self.finish_s(point) / seconds;
        if worth(true, self.again_s(point)) >= AGAIN_RATE {
            return Some(Again::InPlace);
        }
        (worth(false, self.costs.plug_s) >= ANEW_RATE).then_some(Again::Anew)
    }

    /// The walker steps back to find the point anew.
    pub(crate) fn steps_back(&mut self, point: usize) {
        self.last_at = None;
        if self.crew.plugs > 1 && self.plugged[point] {
            self.plugged[point] = false;
            self.in_hand += 1;
        }
    }

    /// Seconds that a proof is worth.
    pub(crate) fn finish_s(&self, point: usize) -> f64 {
        self.look_s(point) + 10.0
    }

    /// Seconds for a second look in place.
    pub(crate) fn again_s(&self, point: usize) -> f64 {
        if self.burnt[point] || self.by_volts(point) { self.costs.burnt_s } else { self.costs.glance_s }
    }

    /// Whether the tester is in there, or a glance from where the walker stands is enough.
    pub(crate) fn is_in_place(&self, point: usize) -> bool {
        self.last_at == Some(point) || self.crew.plugs > 1 && self.plugged[point]
    }

    /// The breaker was pushed fully off and on again.
    pub fn cycled(&mut self, breaker: usize) {
        let off = self.off;
        self.weigh.switched(off.with(breaker));
        self.weigh.switched(off);
        self.cycled[breaker] += 1;
        self.again.fill(0);
        self.seen_now.fill(false);
        self.suspect = None;
    }

    /// A tone sender at the point was heard at a breaker; it is still plugged in there.
    pub fn heard(&mut self, point: usize, breaker: usize) {
        let (case, costs) = (self.case, self.costs);
        self.weigh.heard(case, point, breaker, &costs);
        self.sender = Some(case.points[point].room);
        self.weigh.infer(case);
    }

    /// The referee's own crew, which knows the answer, has proven it.
    pub(crate) fn prove(&mut self, point: usize, breaker: usize) {
        self.weigh.prove(point, breaker);
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
            let may_feed = match self.belief().proven(p) {
                Some(on) => on == breaker,
                None => true,
            };
            !may_feed || since + seconds + MARGIN_S <= most
        })
    }

    /// What to do next.
    pub fn next_act(&mut self) -> Act {
        self.salt = self.salt.wrapping_add(1);
        if let Some(point) = self.control.take() {
            self.controlled = true;
            return Act::Control { point };
        }
        if let Some(breaker) = self.suspect.take() {
            return Act::Cycle { breaker };
        }
        if let Some(act) = self.binary_act() {
            return act;
        }
        self.best_act()
    }

    pub(crate) fn salt(&self) -> u64 {
        self.salt
    }
}
