//! Which look comes next, and when a cause is named.

use super::belief::Belief;
use super::case::{PointNo, State, Takes, TripCase};
use super::cause::{Cause, Family, Key};
use super::file::PowerBox;
use super::look::{Done, Look, Saw};

/// A look is worth it where so many seconds buy one bit. Between 150 and 900 the minutes hardly change.
const SECONDS_A_BIT: f64 = 480.0;
/// Reading a step and answering it.
pub(super) const READ_S: f64 = 5.0;
/// Above this a cause is named, once it was looked at itself.
const NAMED: f64 = 0.95;
/// The same for three boxes of a joint.
const BOXES_NAMED: f64 = 0.9;
/// Above this the volts are taken to be out of bounds: stop.
const STOP: f64 = 0.5;
/// As long as that is at least so likely nothing is reset and nothing else named.
const NOT_RULED_OUT: f64 = 0.005;
/// If no look is left that tells and it is more likely than this: stop.
const STOP_AT_THE_END: f64 = 0.05;
/// A breaker is reset only where it is that one so surely.
const RESET_SURE: f64 = 0.7;
/// More looks than this are never asked for.
const MOST_LOOKS: usize = 45;

/// What comes next.
#[derive(Debug, Clone, PartialEq)]
pub enum Next {
    /// This look.
    Look(Look),
    /// The cause is this.
    Name(Named),
    /// Volts out of bounds, or a sign of danger: stop.
    Stop,
}

/// A look with what it tells, in bits, and what it takes, in seconds.
pub(super) type Worth = (Look, f64, f64);

/// What is the matter.
#[derive(Debug, Clone, PartialEq)]
pub struct Named {
    /// The likeliest cause.
    pub key: Key,
    /// How likely: of that cause; where boxes are named, that it is in one of them.
    pub p: f64,
    /// The boxes to open, the likeliest first; three at most.
    pub boxes: Vec<PowerBox>,
}

/// What has to be told apart before a cause is named. Which of its loads tripped a breaker is not: they go back one by one.
const fn apart(key: Key) -> Key {
    match key.cause {
        Cause::ShortLoad | Cause::GroundLoad | Cause::Inrush => Key { place: None, ..key },
        _ => key,
    }
}

/// Where somebody is, what was done, what is believed.
#[derive(Debug, Clone)]
pub struct Search<'a> {
    case: &'a TripCase,
    /// What is believed.
    pub belief: Belief<'a>,
    pub(super) room: usize,
    pub(super) done: Done,
    danger: bool,
}

impl<'a> Search<'a> {
    /// After the report.
    pub fn new(case: &'a TripCase) -> Self {
        Self { case, belief: Belief::new(case), room: case.start_room, done: Done::default(), danger: false }
    }

    /// Takes a look into account. A sign of danger ends the search.
    pub fn see(&mut self, look: Look, saw: Saw) {
        if saw == Saw::Danger {
            self.danger = true;
            return;
        }
        if let [_, Some(room)] | [Some(room), None] = look.rooms(self.case) {
            self.room = room;
        }
        match look {
            Look::Point(p) if self.case.points[p].takes == Takes::Receptacle => {
                self.done.tester_in = Some(self.case.points[p].room);
            }
            Look::Outlet(p) => self.done.tester_in = Some(self.case.points[p].room),
            Look::Meter(_) => self.done.metered = true,
            _ => {}
        }
        self.belief.see(look, saw);
        // Once it was that likely no later look makes it go away by itself.
        self.danger |= self.saw(Look::Safety).is_some() && self.belief.emergency() > STOP;
    }

    /// Seconds for a look: the walk, the doing, reading and answering.
    pub fn seconds(&self, look: Look) -> f64 {
        let mut at = self.room;
        let mut walk = 0.0;
        for room in look.rooms(self.case).into_iter().flatten() {
            walk += self.case.walk_s[at][room];
            at = room;
        }
        walk + look.seconds(self.case, &self.done) + READ_S
    }

    /// What was seen of a look, if it was made.
    pub(super) fn saw(&self, look: Look) -> Option<Saw> {
        self.belief.seen().iter().find(|(l, _)| *l == look).map(|(_, saw)| *saw)
    }

    /// What comes next.
    pub fn next(&self) -> Next {
        self.next_by(&mut |looks| {
            looks.iter().copied().max_by(|a, b| (a.1 / a.2).total_cmp(&(b.1 / b.2))).map(|(look, _, _)| look)
        })
    }

    /// The same, with another way to choose among the looks that are worth it: each with its bits and seconds.
    pub(super) fn next_by(&self, choose: &mut dyn FnMut(&[Worth]) -> Option<Look>) -> Next {
        if self.danger {
            return Next::Stop;
        }
        if self.saw(Look::Safety).is_none() {
            return Next::Look(Look::Safety);
        }
        let worth = |look: Look, bits: f64| {
            let seconds = self.seconds(look);
            (SECONDS_A_BIT * bits > seconds).then_some((look, bits, seconds))
        };
        let more = self.belief.seen().len() < MOST_LOOKS;
        if self.belief.emergency() >= NOT_RULED_OUT {
            let emergency = |key: Key| usize::from(key.cause.emergency());
            let looks: Vec<_> = self.looks(false).into_iter().filter_map(|l| worth(l, self.bits(l, &emergency))).collect();
            if let Some(look) = choose(&looks).filter(|_| more) {
                return Next::Look(look);
            }
            if self.belief.emergency() > STOP_AT_THE_END {
                return Next::Stop;
            }
        }
        let named = self.named();
        let sure = named.p >= if named.key.cause.family() == Family::Itself { NAMED } else { BOXES_NAMED };
        if sure || !more {
            return self.look_at_it(named.key).filter(|_| more).map_or(Next::Name(named), Next::Look);
        }
        let mut told_apart: Vec<Key> = self.belief.keys().iter().map(|k| apart(*k)).collect();
        told_apart.sort_unstable();
        told_apart.dedup();
        let by = |key: Key| told_apart.binary_search(&apart(key)).unwrap_or(0);
        let looks: Vec<_> = self.looks(true).into_iter().filter_map(|l| worth(l, self.bits(l, &by))).collect();
        match choose(&looks).or_else(|| self.look_at_it(named.key)) {
            Some(look) => Next::Look(look),
            None => Next::Name(named),
        }
    }

    /// The likeliest cause; for a fault in a box the boxes.
    pub fn named(&self) -> Named {
        let single = |key: Key| match key.cause {
            Cause::GfciTripped => {
                self.belief.sum(|k| k.place == key.place && matches!(k.cause, Cause::GfciTripped | Cause::GfciDead))
            }
            _ => self.belief.sum(|k| apart(k) == apart(key)),
        };
        let causes = self.belief.causes();
        let mut best: Option<Named> = None;
        let mut offer = |named: Named| {
            if best.as_ref().is_none_or(|b| named.p > b.p) {
                best = Some(named);
            }
        };
        for (key, _) in causes.iter().filter(|(k, _)| k.cause.family() == Family::Itself).take(12) {
            offer(Named { key: *key, p: single(*key), boxes: Vec::new() });
        }
        for family in [Family::NoPowerPast, Family::BadJoint] {
            let boxes: Vec<_> = self.belief.boxes(family).into_iter().take(3).collect();
            if let Some((key, _)) = causes.iter().find(|(k, _)| k.cause.family() == family) {
                let p = boxes.iter().map(|(_, p)| p).sum();
                offer(Named { key: *key, p, boxes: boxes.into_iter().map(|(place, _)| place).collect() });
            }
        }
        best.unwrap_or(Named { key: Key::house(Cause::Outage), p: 0.0, boxes: Vec::new() })
    }

    /// The look at the cause itself that has to be made before it is named, if it was not.
    fn look_at_it(&self, key: Key) -> Option<Look> {
        let case = self.case;
        let point = case.report.point;
        let any: Vec<Look> = match (key.cause, key.breaker, key.place) {
            (cause, Some(b), _) if cause.trips() => {
                if case.report.tripped_handle == Some(b) {
                    return None;
                }
                vec![Look::Handles(case.breakers[b].panel), Look::Feel(b)]
            }
            (Cause::OffOrNotLatched, Some(b), _) => vec![Look::Handles(case.breakers[b].panel), Look::Feel(b)],
            (Cause::BreakerFailed, Some(b), _) => vec![Look::Feel(b)],
            (Cause::FeederOff, Some(b), _) => vec![Look::Handles(case.breakers[b].panel), Look::Feel(b)],
            (Cause::MainOff, _, _) => vec![Look::Handles(0)],
            (Cause::GfciTripped | Cause::GfciDead, _, Some(p)) => vec![Look::Gfci(p)],
            (Cause::SwitchOff, _, Some(s)) => vec![Look::Toggle(s)],
            (Cause::Control, _, Some(s)) => vec![Look::Control(s)],
            (Cause::Lamp, _, Some(p)) => vec![Look::Lamp(p)],
            (Cause::Cord, _, Some(p)) if case.points[p].has_outlet => vec![Look::Outlet(p)],
            (Cause::Cord, _, Some(p)) if self.may_be_a_short() => vec![Look::Point(p)],
            (Cause::Cord, _, Some(p)) => vec![Look::Point(p), Look::Elsewhere(p)],
            (Cause::Cutout, _, Some(p)) => vec![Look::Cutout(p)],
            (Cause::Outage, _, _) => vec![Look::Neighbors],
            (Cause::LostLeg | Cause::FeederLeg, _, _) => {
                let of_240 = (0..case.points.len()).filter(|p| case.points[*p].takes == Takes::Appliance240);
                let meter = (case.points[point].takes == Takes::Receptacle && case.has_meter).then_some(Look::Meter(point));
                of_240.map(Look::Point).chain(meter).collect()
            }
            _ => return None,
        };
        // After a reset the handles and the points say no more why it was dark.
        if self.power_is_back() || any.iter().any(|look| self.saw(*look).is_some()) {
            return None;
        }
        any.into_iter().min_by(|a, b| self.seconds(*a).total_cmp(&self.seconds(*b)))
    }

    /// The looks that could tell anything now and were not made.
    fn looks(&self, resets: bool) -> Vec<Look> {
        let case = self.case;
        let point = case.report.point;
        let mut looks = Vec::new();
        if self.power_is_back() {
            // What stands otherwise now tells nothing of what was: only the loads go back on, one by one.
            for (key, p) in self.belief.causes() {
                if let (Cause::ShortLoad | Cause::GroundLoad | Cause::Inrush, Some(load)) = (key.cause, key.place)
                    && p >= 0.01
                {
                    looks.push(Look::Add(load));
                }
            }
            looks.sort_unstable();
            looks.dedup();
            looks.retain(|look| self.saw(*look).is_none());
            return if self.a_load_tripped_it() { Vec::new() } else { looks };
        }
        for (p, share) in self.belief.affected().into_iter().enumerate() {
            if case.points[p].blind {
                continue;
            }
            if (0.015..=0.985).contains(&share) || (p == point && share > 0.0) {
                looks.push(Look::Point(p));
                if case.points[p].takes == Takes::Receptacle {
                    looks.push(Look::Meter(p));
                }
            }
        }
        looks.extend((0..case.panels.len()).map(Look::Handles));
        looks.push(Look::Neighbors);
        const ALIVE: f64 = 0.01;
        for (key, _) in self.belief.causes().into_iter().filter(|(_, p)| *p >= ALIVE) {
            match (key.cause, key.breaker, key.place) {
                (Cause::GfciTripped | Cause::GfciDead | Cause::Double, _, Some(g)) => looks.push(Look::Gfci(g)),
                (Cause::SwitchOff, _, Some(s)) => looks.push(Look::Toggle(s)),
                (Cause::Control, _, Some(s)) => looks.push(Look::Control(s)),
                (Cause::Lamp, _, Some(p)) => looks.push(Look::Lamp(p)),
                (Cause::Cutout, _, Some(p)) => looks.push(Look::Cutout(p)),
                (Cause::Cord, _, Some(p)) if case.points[p].has_outlet => looks.push(Look::Outlet(p)),
                (Cause::Cord, _, Some(p)) if !self.may_be_a_short() => looks.push(Look::Elsewhere(p)),
                _ => {}
            }
            if let Some(b) = key.breaker {
                if key.cause.trips() || matches!(key.cause, Cause::OffOrNotLatched | Cause::BreakerFailed | Cause::FeederOff) {
                    looks.push(Look::Feel(b));
                }
                if key.cause.trips() && case.breakers[b].has.indicator() {
                    looks.push(Look::Indicator(b));
                }
            }
        }
        if case.points[point].has_outlet {
            looks.push(Look::Outlet(point));
        }
        if resets {
            looks.extend((0..case.breakers.len()).filter(|b| self.may_reset(*b)).map(Look::Reset));
        }
        looks.sort_unstable();
        looks.dedup();
        looks.retain(|look| self.saw(*look).is_none() && !self.no_meter(*look));
        looks
    }

    /// The point has power again: a reset held, a GFCI clicked in, a switch or a lamp was it.
    fn power_is_back(&self) -> bool {
        self.belief.seen().iter().any(|(look, saw)| {
            matches!(
                (look, saw),
                (_, Saw::ResetWorks | Saw::HoldsLive)
                    | (Look::Toggle(_) | Look::Control(_) | Look::Lamp(_), Saw::Lit)
                    | (Look::Cutout(_), Saw::Works)
            )
        })
    }

    /// The trial is over: a load that went back on tripped the breaker.
    fn a_load_tripped_it(&self) -> bool {
        self.belief.seen().iter().any(|(look, saw)| matches!((look, saw), (Look::Add(_), Saw::Trips)))
    }

    /// A suspected short is never tried at another outlet.
    fn may_be_a_short(&self) -> bool {
        const LIKELY_ENOUGH: f64 = 0.1;
        self.belief.sum(|k| matches!(k.cause, Cause::ShortLoad | Cause::GroundLoad | Cause::Arc)) >= LIKELY_ENOUGH
    }

    /// It asks for a meter, and nobody has one.
    const fn no_meter(&self, look: Look) -> bool {
        matches!(look, Look::Meter(_)) && !self.case.has_meter
    }

    /// A breaker may be reset once: its handle is not on, it is surely this one, and at most two in all.
    pub(super) fn may_reset(&self, breaker: usize) -> bool {
        let panel = self.case.breakers[breaker].panel;
        let not_on = self.case.report.tripped_handle == Some(breaker)
            || matches!(self.saw(Look::Handles(panel)), Some(Saw::Tripped(b) | Saw::Off(b)) if b == breaker)
            || matches!(self.saw(Look::Feel(breaker)), Some(Saw::IsTripped | Saw::IsOff));
        let resets = self.belief.seen().iter().filter(|(l, _)| matches!(l, Look::Reset(_))).count();
        not_on
            && resets < 2
            && self.saw(Look::Reset(breaker)).is_none()
            && self.belief.emergency() < NOT_RULED_OUT
            && self.belief.sum(|k| k.breaker == Some(breaker)) >= RESET_SURE
    }

    /// What each answer of a look would leave, the likeliest answer first: the likeliest cause then, and how likely.
    pub(super) fn after(&self, look: Look) -> Vec<(Saw, Key, f64)> {
        let table = self.belief.by_state(look.site());
        let keys = self.belief.keys();
        let breakers: Vec<usize> = keys.iter().filter_map(|k| k.breaker).collect();
        let mut answers: Vec<(f64, Saw, Key, f64)> = Vec::new();
        let mut can_show = look.can_show(&breakers);
        can_show.sort_unstable();
        can_show.dedup();
        for saw in can_show {
            let mut of: std::collections::BTreeMap<Key, f64> = std::collections::BTreeMap::new();
            for (at, row) in table.iter().enumerate() {
                for state in State::ALL.into_iter().filter(|s| row[*s as usize] > 0.0) {
                    *of.entry(apart(keys[at])).or_default() += row[state as usize] * look.chance(self.case, saw, keys[at], state);
                }
            }
            let all: f64 = of.values().sum();
            if let Some((key, p)) = of.into_iter().max_by(|a, b| a.1.total_cmp(&b.1)) {
                answers.push((all, saw, key, p / all));
            }
        }
        answers.sort_by(|a, b| b.0.total_cmp(&a.0));
        answers.into_iter().filter(|(p, ..)| *p > 0.01).map(|(_, saw, key, p)| (saw, key, p)).collect()
    }

    /// How many bits a look tells about what its causes are numbered by.
    pub(super) fn bits(&self, look: Look, number: &dyn Fn(Key) -> usize) -> f64 {
        let table = self.belief.by_state(look.site());
        let keys = self.belief.keys();
        let mut breakers: Vec<usize> = Vec::new();
        if let Look::Handles(panel) = look {
            breakers = keys.iter().filter_map(|k| k.breaker).filter(|b| self.case.breakers[*b].panel == panel).collect();
            breakers.sort_unstable();
            breakers.dedup();
        }
        let answers = look.can_show(&breakers);
        let numbers: Vec<usize> = keys.iter().map(|k| number(*k)).collect();
        let groups = numbers.iter().max().map_or(0, |m| m + 1);
        let mut joint = vec![0.0; groups * answers.len()];
        let mut group = vec![0.0; groups];
        let mut all = vec![0.0; answers.len()];
        for (at, row) in table.iter().enumerate() {
            for state in State::ALL {
                let weight = row[state as usize];
                if weight < 1e-9 {
                    continue;
                }
                for (a, saw) in answers.iter().enumerate() {
                    let p = weight * look.chance(self.case, *saw, keys[at], state);
                    joint[numbers[at] * answers.len() + a] += p;
                    all[a] += p;
                    group[numbers[at]] += p;
                }
            }
        }
        let plog = |p: f64| if p > 0.0 { p * p.log2() } else { 0.0 };
        // I = H(group) + H(answer) - H(both), with what the answers add up to taken for the whole.
        let whole: f64 = all.iter().sum();
        if whole <= 0.0 {
            return 0.0;
        }
        let entropy = |of: &[f64]| -of.iter().map(|p| plog(p / whole)).sum::<f64>();
        entropy(&group) + entropy(&all) - entropy(&joint)
    }

    /// The outlets and lights whose state is not sure, for a screen.
    pub fn affected(&self) -> Vec<(PointNo, f64)> {
        self.belief.affected().into_iter().enumerate().filter(|(_, p)| *p > 0.015).collect()
    }
}
