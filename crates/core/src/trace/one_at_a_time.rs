//! The next step, one breaker at a time.
//!
//! The round: everything on and every point seen lit once; then a breaker off, the points that may be on
//! it looked at by room, the breaker on again, one of its points seen lit again; then the next.

use super::next_step::{Rounds, may_be_switched};
use std::collections::BTreeSet;

use super::{NextStep, Verdict};
use crate::model::{Breaker, BreakerId, PointId, Seen, State, so_many};

impl<'a> Rounds<'a> {
    pub(super) fn next(&self) -> NextStep {
        if let Some(first) = self.set_up() {
            return first;
        }
        let home = self.home;
        let off: Vec<&Breaker> = home.panels().breakers().filter(|b| b.state != State::On && !b.is_left_off()).collect();
        match off.as_slice() {
            [] => self.with_all_on(),
            [one] => self.with_one_off(one),
            several => {
                let last = home.switchings().all().last().map(|switching| &switching.breaker);
                let breakers: Vec<&Breaker> = several.iter().filter(|b| Some(&b.id) != last).copied().collect();
                let numbers: Vec<_> = several.iter().map(|b| home.panels().number(&b.id)).collect();
                NextStep::SwitchOn {
                    breakers: breakers.iter().map(|b| b.id.clone()).collect(),
                    why: format!(
                        "{} are off together. A point is proven with one breaker off, so switch {} on again first.",
                        numbers.join(" and "),
                        breakers.iter().map(|b| home.panels().number(&b.id)).collect::<Vec<_>>().join(" and ")
                    ),
                    rooms: Vec::new(),
                }
            }
        }
    }

    fn with_all_on(&self) -> NextStep {
        let home = self.home;
        if let Some(breaker) = home
            .switchings()
            .all()
            .last()
            .map(|switching| &switching.breaker)
            .filter(|b| home.panels().breaker(b).is_some_and(|b| b.state == State::On))
        {
            let dark = self.dark_in_last_round(breaker);
            if !dark.is_empty() && !dark.iter().any(|p| self.seen_now(p).is_some() || self.skipped_now(p)) {
                return NextStep::SeeOneLitAgain { breaker: breaker.clone(), rooms: self.rooms(&dark, None) };
            }
        }
        if let Some(first) = self.see_all_lit(&|p| !self.has_lit_look(p)) {
            return first;
        }
        let worth = self.worth_switching();
        if let Some((breaker, candidates)) = worth.first() {
            return NextStep::SwitchOff {
                breaker: breaker.id.clone(),
                why: self.why(breaker, *candidates),
                candidates: *candidates,
            };
        }
        self.done()
    }

    fn with_one_off(&self, breaker: &Breaker) -> NextStep {
        let looked: Vec<PointId> = self
            .home
            .house()
            .points()
            .map(|p| p.id.clone())
            .filter(|p| self.seen_now(p).is_some() || self.skipped_now(p))
            .collect();
        let asked = self.asked_with(breaker, &looked);
        let shown: Vec<PointId> =
            self.home.house().points().map(|p| p.id.clone()).filter(|p| looked.contains(p) || asked.contains(p)).collect();
        let rooms = self.rooms(&shown, breaker.claim.as_deref());
        if !asked.is_empty() {
            return NextStep::Look { breaker: breaker.id.clone(), left: asked.len(), rooms };
        }
        let dark = looked.iter().filter(|p| self.seen_now(p).is_some_and(|l| l.seen == Seen::Dark)).count();
        NextStep::SwitchOn {
            breakers: vec![breaker.id.clone()],
            why: match dark {
                0 => {
                    format!(
                        "Every point that could be on {} has been looked at; none went dark.",
                        self.home.panels().number(&breaker.id)
                    )
                }
                1 => format!(
                    "Every point that could be on {} has been looked at; one went dark.",
                    self.home.panels().number(&breaker.id)
                ),
                n => format!(
                    "Every point that could be on {} has been looked at; {n} went dark.",
                    self.home.panels().number(&breaker.id)
                ),
            },
            rooms,
        }
    }

    /// The points to be looked at with just this breaker off. Of two poles it feeds one big thing, as a rule: what has 240 V is
    /// looked at first, and once one of that is dark, other points only where they are likely on it, too.
    fn asked_with(&self, breaker: &Breaker, looked: &[PointId]) -> Vec<PointId> {
        let may_be: Vec<&PointId> =
            self.known.iter().filter(|(p, v)| self.may_be_on(p, v, &breaker.id)).map(|(p, _)| p).collect();
        let left = || may_be.iter().copied().filter(|p| !looked.contains(p));
        if breaker.poles() < 2 {
            return left().cloned().collect();
        }
        let high: Vec<PointId> = left().filter(|p| self.is_high(p)).cloned().collect();
        let is_dark = |p: &PointId| self.seen_now(p).is_some_and(|look| look.seen == Seen::Dark);
        let found = looked.iter().any(|p| self.is_high(p) && is_dark(p));
        match (high.is_empty(), found) {
            (false, _) => high,
            (true, false) => left().cloned().collect(),
            (true, true) => left().filter(|p| self.is_likely(p, &breaker.id)).cloned().collect(),
        }
    }

    fn is_high(&self, point: &PointId) -> bool {
        self.home.house().point(point).is_some_and(|point| point.volts.value() > 120)
    }

    /// Breakers that may be switched off and would tell something, with how many points may be on each: those that were not off yet,
    /// or with which a point went dark that is not sure, those that may feed a 240 V appliance first, in the order of the panel; then
    /// the others, the likeliest for what is still
    /// open first, so that a point that is added on the way sends nobody through the whole panel again. A point that was passed over
    /// with that breaker off does not count.
    pub(super) fn worth_switching(&self) -> Vec<(&'a Breaker, usize)> {
        let home = self.home;
        let powerless = home.panels().dead_behind(home.switchings().off());
        let may = |b: &&Breaker| b.state == State::On && !powerless.contains(&b.id) && may_be_switched(home, b);
        let breakers = home.panels().all().flat_map(|panel| {
            let mut here: Vec<&Breaker> = home.panels().breakers_of(&panel.id).filter(may).collect();
            here.sort_by_key(|b| crate::model::position(panel, b.at[0].space).map(|(side, row)| (side, row, b.at[0].half)));
            here
        });
        let mut worth: Vec<(&Breaker, usize)> = breakers
            .map(|b| {
                let mut under = (**home.switchings().off()).clone();
                under.insert(b.id.clone());
                let count = self
                    .known
                    .iter()
                    .filter(|(p, v)| self.may_be_on(p, v, &b.id) && !self.skipped_under(p, &under))
                    .filter(|(p, _)| !self.skipped_under(p, home.switchings().off()) || self.has_lit_look(p))
                    .count();
                (b, count)
            })
            .filter(|(_, count)| *count > 0)
            .collect();
        let done = self.done_with();
        let high: Vec<&(PointId, Verdict)> = self.known.iter().filter(|(p, _)| self.is_high(p)).collect();
        // One look tells, and nobody has to walk through the house for it.
        let feeds_one_thing = |b: &Breaker| b.poles() > 1 && high.iter().any(|(p, v)| self.may_be_on(p, v, &b.id));
        // From 0 to 1, where the bits of a float are in its order.
        worth.sort_by_cached_key(|(breaker, _)| match done.contains(&breaker.id) {
            true => self.after_all(breaker).to_bits(),
            false => u64::from(!feeds_one_thing(breaker)),
        });
        worth
    }

    /// Every breaker with which off something was looked at, and no point waits to be made sure on it.
    fn done_with(&self) -> BTreeSet<&'a BreakerId> {
        let mut done: BTreeSet<&BreakerId> = self.home.trace().looks().iter().flat_map(|look| look.off.iter()).collect();
        for (_, known) in self.known {
            if let Verdict::Open { unsure: Some(unsure), .. } = known {
                done.remove(&unsure.breaker);
            }
        }
        done
    }

    /// How far a breaker that is done with stands behind the others: 1, and less for one that is likely for what is still open.
    fn after_all(&self, breaker: &Breaker) -> f64 {
        let Some(weighed) = self.weighed else { return 1.0 };
        let Some(number) = weighed.breaker(&breaker.id) else { return 1.0 };
        let open = |(_, known): &(usize, &(PointId, Verdict))| known.1.proven_on().is_none();
        let places = self.known.iter().enumerate().filter(open).map(|(place, _)| place);
        1.0 - places.map(|place| weighed.weigh.belief().of(place)[number]).fold(0.0, f64::max) / 2.0
    }

    fn has_lit_look(&self, point: &PointId) -> bool {
        self.was_lit_with(point, self.home.switchings().off())
    }

    /// The points that were dark with `breaker` off, in the round that ended when it was switched on.
    fn dark_in_last_round(&self, breaker: &BreakerId) -> Vec<PointId> {
        let before = self.home.switchings().count() - 1;
        let mut dark = Vec::new();
        for look in self.home.trace().looks().iter().rev().skip_while(|l| l.moves > before).take_while(|l| l.moves == before) {
            if look.seen == Seen::Dark
                && look.off.contains(breaker)
                && self.home.house().point(&look.point).is_some()
                && !dark.contains(&look.point)
            {
                dark.push(look.point.clone());
            }
        }
        dark.reverse();
        dark
    }

    fn why(&self, breaker: &Breaker, candidates: usize) -> String {
        let points = so_many(candidates, "point");
        let may_feed_high = || self.known.iter().any(|(p, v)| self.is_high(p) && self.may_be_on(p, v, &breaker.id));
        let next = if self.done_with().contains(&breaker.id) {
            format!("It is the likeliest one that may feed {points} not yet proven.")
        } else if breaker.poles() > 1 && may_feed_high() {
            "It is the next one of two poles. As a rule one 240 V appliance goes out with it, so those are looked at first."
                .to_owned()
        } else {
            format!("It is the next one down the panel that may feed {points} not yet proven.")
        };
        let says = breaker.claim.as_ref().map_or_else(|| "nothing".to_owned(), |claim| format!("“{claim}”"));
        format!("{next} The old card says {says}.")
    }
}
