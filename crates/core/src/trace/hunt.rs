//! The next step point by point: a lamp and a helper, or a tone tracer. And what a GFCI tripped on purpose darkens.

use std::collections::BTreeSet;

use super::ask::{Hunted, hunted};
use super::next_step::Rounds;
use super::reset::not_reset;
use super::{NextStep, Verdict};
use crate::logbook::Trip;
use crate::model::{BreakerId, Method, PointId, Seen, TraceSetup};
use crate::study::Study;

impl Rounds<'_> {
    /// From one point to the next: its likeliest breaker alone off, a look, the next likeliest. With a tone tracer the
    /// sender goes first, and what it says decides which breaker is the likeliest.
    pub(super) fn next_of_hunt(&self, setup: TraceSetup) -> NextStep {
        let off = match self.before_a_search() {
            Ok(off) => off,
            Err(first) => return first,
        };
        let home = self.home;
        let seen_now = |p: &PointId| self.seen_now(p).is_some() || self.skipped_now(p);
        let mut left = hunted(home, self.at_home);
        left.retain(|h| self.was_lit_all_on(&h.point));
        // Passed over with a breaker alone off: the next likeliest has its turn.
        for Hunted { point, breakers, .. } in &mut left {
            let with = |breaker: &BreakerId| self.left_off().iter().chain([breaker]).cloned().collect();
            breakers.retain(|breaker| !self.skipped_under(point, &with(breaker)));
        }
        let by_ear = setup.by_ear();
        // A radio stays where it is until it has told.
        let listened = home.trace().looks().last().filter(|look| by_ear && !look.off.is_empty());
        let radio = listened.map(|look| &look.point);
        left.sort_by_key(|h| Some(&h.point) != radio);
        // Whoever is there looks at the point, and at its neighbors in the room that are likeliest on the same breaker.
        if let [only] = off.as_slice() {
            let fits = |point: &PointId| left.iter().any(|h| &h.point == point && h.breakers.first() == Some(only));
            let target = left.iter().find(|h| h.breakers.first() == Some(only) && !seen_now(&h.point));
            if let Some(target) = target {
                let room = home.house().point(&target.point).map(|p| &p.room);
                let here: Vec<PointId> = home
                    .house()
                    .points()
                    .filter(|p| Some(&p.room) == room && (seen_now(&p.id) || fits(&p.id)))
                    .map(|p| p.id.clone())
                    .collect();
                // The first after a switching is the one with the radio; the others are gone to.
                if by_ear && target.takes_tone && !home.house().points().any(|p| seen_now(&p.id)) {
                    let at = self.in_words(&target.point);
                    let why =
                        format!("Stay at the panel and listen: with {} alone off, silent is dark.", home.panels().number(only));
                    let rooms = self.rooms(std::slice::from_ref(&target.point), None);
                    return NextStep::LookUnder {
                        off,
                        rooms,
                        left: 1,
                        why: format!("The radio is in {at}. {why}"),
                        listen: true,
                    };
                }
                let left = here.iter().filter(|p| !seen_now(p)).count();
                let why = format!("{} alone is off: dark now is proven on it.", home.panels().number(only));
                return NextStep::LookUnder { off, rooms: self.rooms(&here, None), left, why, listen: false };
            }
        }
        // Heard, or passed over because there was no tone.
        let tried =
            home.trace().tones().iter().map(|(point, _)| point).chain(home.trace().skips().iter().map(|skip| &skip.point));
        let heard: BTreeSet<&PointId> = tried.collect();
        for target in &left {
            let Some(point) = home.house().point(&target.point) else { continue };
            let room = home.house().room(&point.room).map_or_else(String::new, |room| room.name.clone());
            let same_room = |other: &PointId| home.house().point(other).is_some_and(|other| other.room == point.room);
            if setup.method == Method::ToneTracer && target.takes_tone && !heard.contains(&target.point) {
                return NextStep::FollowTone {
                    point: target.point.clone(),
                    room,
                    name: point.name.clone(),
                    why: "It says which breaker to try first. It may be off by one; only a breaker switched off proves.".into(),
                };
            }
            if let Some(breaker) = target.breakers.first() {
                if off.as_slice() == std::slice::from_ref(breaker) {
                    continue;
                }
                let beside = |h: &&Hunted| h.point != target.point && h.breakers.first() == Some(breaker) && same_room(&h.point);
                let mut here: Vec<PointId> = left.iter().filter(beside).map(|h| h.point.clone()).collect();
                // A radio goes in last, at the point that is listened to; while it is there nobody walks.
                if by_ear && radio == Some(&target.point) {
                    here.clear();
                }
                let neighbors = if by_ear { self.see_lit_first(&off, here.clone()) } else { None };
                here.push(target.point.clone());
                if let Some(first) = neighbors.or_else(|| self.see_lit_first(&off, here)) {
                    return first;
                }
                let likeliest = format!("{} is the likeliest for {room}, {}.", home.panels().number(breaker), point.name);
                let carry = by_ear && target.takes_tone && radio != Some(&target.point);
                return NextStep::SwitchTo {
                    why: if carry {
                        format!(
                            "First plug the radio in at {room}, {}, loud and with no batteries in it. {likeliest}",
                            point.name
                        )
                    } else {
                        likeliest
                    },
                    off: if off.contains(breaker) { Vec::new() } else { vec![breaker.clone()] },
                    on: off.into_iter().filter(|other| other != breaker).collect(),
                };
            }
        }
        if off.is_empty() {
            return self.done();
        }
        NextStep::SwitchOn { breakers: off, why: "Nothing more can be told with it off.".into(), rooms: Vec::new() }
    }

    /// `Kitchen, counter`.
    pub(super) fn in_words(&self, point: &PointId) -> String {
        let Some(point) = self.home.house().point(point) else { return String::new() };
        let room = self.home.house().room(&point.room).map_or("", |room| room.name.as_str());
        format!("{room}, {}", point.name)
    }

    /// A GFCI was tripped and reset: once it is seen lit, what was seen lit before at points that may be behind it counts on.
    pub(super) fn see_reset(&self) -> Option<NextStep> {
        let home = self.home;
        let waits_for = self.known.iter().filter(|(_, v)| matches!(v, Verdict::Open { .. })).find_map(|(p, _)| {
            let own = self.counted(p);
            let lit = own.iter().rev().find(|look| look.seen == Seen::Lit)?;
            not_reset(home, &own, lit, None).filter(|trip| trip.reset.is_some() && home.house().point(&trip.device).is_some())
        })?;
        let device = &waits_for.device;
        let off = home.switchings().off();
        // With all that may feed it off it is dark, reset or not.
        let dark_now = self.known.iter().any(|(p, v)| {
            p == device
                && match v {
                    Verdict::Proven { breaker, .. } => off.contains(breaker),
                    Verdict::Open { possible, .. } => !possible.is_empty() && possible.iter().all(|b| off.contains(b)),
                    _ => false,
                }
        });
        if dark_now || self.skipped_now(device) || self.seen_now(device).is_some() {
            return None;
        }
        let why = "It was tripped and reset. Seen lit, it gives power again, and what was seen lit before counts on.".into();
        Some(NextStep::LookUnder {
            off: self.off_for_this(),
            rooms: self.rooms(std::slice::from_ref(device), None),
            left: 1,
            why,
            listen: false,
        })
    }

    /// While a GFCI is tripped on purpose: what went dark with it, and back to reset it.
    pub(super) fn downstream(&self) -> Option<NextStep> {
        let home = self.home;
        let trip = home.trace().trips().iter().find(|trip| trip.reset.is_none())?;
        let device = &trip.device;
        let name = home.house().point(device).map_or_else(String::new, |point| point.name.clone());
        let protects = protected(home, trip);
        let near = |p: &&crate::model::Point| p.volts == crate::model::Volts::new(120) && &p.id != device;
        let shown: Vec<PointId> = home.house().points().filter(near).map(|p| p.id.clone()).collect();
        let own_room = home.house().point(device).map(|p| p.room.clone());
        let mut rooms = self.rooms(&shown, None);
        rooms.sort_by_key(|room| Some(&room.room) != own_room.as_ref());
        for point in rooms.iter_mut().flat_map(|room| &mut room.points) {
            // What it showed before says nothing of this.
            let seen = trip.seen.get(&point.point);
            let (showed, line) = seen.cloned().flatten().unzip();
            (point.seen, point.line, point.skipped) = (showed, line, seen == Some(&None));
        }
        Some(NextStep::SeeDownstream { device: device.clone(), name, rooms, protects })
    }
}

/// What the device protects, with what was seen dark while it was tripped.
fn protected(home: &Study, trip: &Trip) -> Vec<PointId> {
    let mut points = home.plan().protects.get(&trip.device).cloned().unwrap_or_default();
    let fresh = trip.seen.keys().filter(|p| **p != trip.device && trip.showed(p, Seen::Dark));
    points.extend(fresh.filter(|p| !points.contains(p)).cloned().collect::<Vec<_>>());
    points
}
