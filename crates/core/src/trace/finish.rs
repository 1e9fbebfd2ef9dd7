//! What is asked for a point that went dark with one breaker alone, and is not sure yet: a second look, a look with that breaker on
//! again, a breaker pushed off and on. Each is asked for only where it brings the proof nearer.

use super::ask::suspected;
use super::next_step::Rounds;
use super::{NextStep, Unsure, Verdict};
use crate::model::{BreakerId, Method, PointId};

/// The most looks at one point between two moves of a handle.
const MOST_IN_A_ROW: usize = 3;
/// The most looks at a point; after that it is left open.
pub(super) const MOST_LOOKS: usize = 30;

impl Rounds<'_> {
    /// Dark just now, and not sure: look again where one stands, so that no slip proves it; or find it anew, so that it is not the
    /// wrong point twice over.
    pub(super) fn once_more(&self) -> Option<NextStep> {
        for anew in [false, true] {
            let points = self.unsure(|point, unsure| {
                self.is_without_power(&unsure.breaker)
                    && self.seen_now(point).is_some()
                    && self.looks_now(point) < MOST_IN_A_ROW
                    && self.brings(point, unsure, !anew)
            });
            let why = if anew {
                "Not sure yet that it is this one. Step back, find it by its place and name, and look again."
            } else {
                "Dark, and not sure yet. Look once more, so that no slip proves it: pushed in all the way, the right lamp, its switch on?"
            };
            if let Some(next) = self.look_at_room_of(points, why, anew) {
                return Some(next);
            }
        }
        None
    }

    /// Its breaker is on again: seen lit, nothing else can have made it dark.
    pub(super) fn back_again(&self, method: Method) -> Option<NextStep> {
        // With several off the search weighs this look against all others.
        if method == Method::SeveralOff {
            return None;
        }
        let points = self.unsure(|point, unsure| {
            !self.is_without_power(&unsure.breaker) && self.seen_now(point).is_none() && self.brings(point, unsure, false)
        });
        let why = "It went dark with a breaker that is on again. Lit now, it was no outage and no other breaker.";
        self.look_at_room_of(points, why, false)
    }

    /// A breaker that may look on and carry no power.
    pub(super) fn is_it_on(&self, method: Method) -> Option<NextStep> {
        if method == Method::SeveralOff {
            return None;
        }
        suspected(self.home, self.at_home).map(|breaker| self.cycle(breaker))
    }

    pub(super) fn cycle(&self, breaker: BreakerId) -> NextStep {
        let number = self.home.panels().number(&breaker);
        let why = format!(
            "A point is dark that should be lit. {number} may look on and carry no power: it did not latch, or it tripped."
        );
        NextStep::Cycle { breaker, why }
    }

    /// Seen to go out and to come back with its breaker: an outage, or another breaker that tripped, does not do that.
    pub(super) fn watch(&self, breaker: BreakerId, point: PointId) -> NextStep {
        let number = self.home.panels().number(&breaker);
        let why = format!(
            "It may be on {number}. If it goes out and comes back just as {number} is switched, hardly anything else can have done it."
        );
        NextStep::Watch { place: self.in_words(&point), breaker, point, why }
    }

    /// Whether a look at the point with the breaker off would tell something.
    pub(super) fn may_be_on(&self, point: &PointId, known: &Verdict, breaker: &BreakerId) -> bool {
        match known {
            Verdict::Open { possible, .. } => {
                possible.contains(breaker) && self.looks.get(point).is_none_or(|looks| looks.len() < MOST_LOOKS)
            }
            Verdict::Contradictory { .. } => {
                self.looks.get(point).is_none_or(|looks| looks.len() < MOST_LOOKS) && self.is_likely(point, breaker)
            }
            _ => false,
        }
    }

    /// Whether the breaker is one of those that are likely for the point, whatever a look said.
    pub(super) fn is_likely(&self, point: &PointId, breaker: &BreakerId) -> bool {
        const LIKELY: f64 = 0.1;
        self.weighed.is_some_and(|weighed| {
            weighed.numbers(point, breaker).is_some_and(|(p, b)| weighed.weigh.belief().of(p)[b] >= LIKELY)
        })
    }

    /// Points that went dark with one breaker and are not sure, as wanted.
    fn unsure(&self, want: impl Fn(&PointId, &Unsure) -> bool) -> Vec<PointId> {
        let unsure = self.known.iter().filter_map(|(p, v)| match v {
            Verdict::Open { unsure: Some(unsure), unreset: None, .. } => Some((p, unsure)),
            _ => None,
        });
        // Passed over is an answer, too: it is not asked for again until a handle moves.
        unsure.filter(|(p, unsure)| !self.skipped_now(p) && want(p, unsure)).map(|(p, _)| p.clone()).collect()
    }

    fn is_without_power(&self, breaker: &BreakerId) -> bool {
        self.weighed.is_some_and(|weighed| weighed.breaker(breaker).is_some_and(|b| weighed.weigh.off().has(b)))
    }

    fn looks_now(&self, point: &PointId) -> usize {
        let now = self.home.switchings().count();
        self.home.trace().looks().iter().rev().take_while(|look| look.moves == now).filter(|look| &look.point == point).count()
    }

    /// Whether a look now, showing what is expected, brings the proof nearer.
    fn brings(&self, point: &PointId, unsure: &Unsure, in_place: bool) -> bool {
        let Some(weighed) = self.weighed else { return false };
        let Some((p, b)) = weighed.numbers(point, &unsure.breaker) else { return false };
        self.looks.get(point).is_none_or(|looks| looks.len() < MOST_LOOKS)
            && weighed.weigh.progress(&weighed.case, p, b, weighed.weigh.off(), None, in_place) > 0.0
    }

    /// These points, as far as they are in the room of the one that is nearest to where somebody looked last.
    fn look_at_room_of(&self, points: Vec<PointId>, why: &str, anew: bool) -> Option<NextStep> {
        let room_of = |point: &PointId| self.home.house().point(point).map(|p| p.room.clone());
        let here = self.home.trace().looks().last().and_then(|look| room_of(&look.point));
        let first = points.iter().find(|p| room_of(p) == here).or(points.first())?;
        let room = room_of(first)?;
        let mut rooms = self.rooms(&points, None);
        rooms.retain(|r| r.room == room);
        for point in rooms.iter_mut().flat_map(|room| &mut room.points) {
            (point.again, point.anew, point.seen, point.line) = (point.seen.is_some(), anew, None, None);
        }
        let left = rooms.iter().map(|room| room.points.len()).sum();
        Some(NextStep::LookUnder { off: self.off_for_this(), rooms, left, why: why.into(), listen: false })
    }
}
