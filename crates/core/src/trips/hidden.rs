//! A fault that is drawn for practice, and what each look at it shows: one of the stories of the search itself, so that it is as likely as
//! the search holds it to be, and misreads as often.

use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;

use super::case::{PointNo, State, TripCase};
use super::cause::{Cause, Family, Key};
use super::file::PowerBox;
use super::look::{Look, Saw};
use super::planner::{Next, Search};
use super::stories::{Boxes, Stories};
use crate::model::DangerSign;

/// A fault that nobody sees.
#[derive(Debug, Clone)]
pub(super) struct HiddenTrip {
    pub(crate) key: Key,
    /// How every point stands.
    pub(crate) scene: Vec<State>,
    /// The bad box, where it is a matter of boxes.
    pub(crate) bad_box: Option<PowerBox>,
    /// A sign of danger in a room; whether somebody notices it who only thinks of it.
    pub(crate) danger: Option<(DangerSign, usize, bool)>,
    seed: u64,
}

/// A search through a hidden fault by the program itself.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct OwnSearch {
    pub(crate) minutes: f64,
    pub(crate) looks: usize,
}

impl HiddenTrip {
    /// One of the stories of the case that may be chosen, as often as each is likely.
    pub(crate) fn draw(case: &TripCase, seed: u64, may: &dyn Fn(Key, &[State]) -> bool) -> Option<Self> {
        let mut rng = Pcg64Mcg::seed_from_u64(seed);
        let stories = Stories::of(case, &mut rng);
        let open: Vec<_> = stories.all.iter().filter(|s| may(stories.keys[s.key], &stories.scenes[s.scene])).collect();
        let total: f64 = open.iter().map(|s| s.before).sum();
        let mut left = rng.random_range(0.0..1.0) * total;
        let story = open.iter().find(|s| {
            left -= s.before;
            left <= 0.0
        })?;
        let bad_box = match story.boxes {
            Boxes::None => None,
            Boxes::One(one) => Some(one),
            Boxes::Cable(cables, to) => {
                let mut share = rng.random_range(0.0..1.0);
                let from = stories.cables[cables].iter().find(|(_, p)| {
                    share -= p;
                    share <= 0.0
                });
                let from = from.or(stories.cables[cables].last()).and_then(|(from, _)| *from);
                let at_the_start = rng.random_bool(if from.is_some() { 0.5 } else { 0.25 });
                Some(if at_the_start { from.map_or(PowerBox::Panel, PowerBox::Point) } else { PowerBox::Point(to) })
            }
        };
        Some(Self { key: stories.keys[story.key], scene: stories.scenes[story.scene].clone(), bad_box, danger: None, seed })
    }

    /// What a look shows, after those: the same look shows the same again, unless something was put right meanwhile.
    pub(crate) fn shows(&self, case: &TripCase, look: Look, seen: &[(Look, Saw)]) -> Saw {
        if let Some((_, room, told)) = self.danger
            && (look == Look::Safety && told || look.rooms(case).contains(&Some(room)))
        {
            return Saw::Danger;
        }
        let right = seen.iter().rev().find_map(|(look, saw)| match (look, saw) {
            (Look::Add(_), Saw::Trips) => Some(false),
            (Look::Reset(_), Saw::HoldsLive) | (Look::Gfci(_), Saw::ResetWorks) => Some(true),
            (Look::Toggle(_) | Look::Control(_) | Look::Lamp(_), Saw::Lit) => Some(true),
            _ => None,
        });
        let state = match look.site() {
            Some(_) if right == Some(true) => State::Live,
            Some(point) => self.scene[point],
            None => State::Live,
        };
        let every: Vec<usize> = (0..case.breakers.len()).collect();
        let could: Vec<(Saw, f64)> =
            look.can_show(&every).into_iter().map(|saw| (saw, look.chance(case, saw, self.key, state).max(0.0))).collect();
        // Rare misreads come from a number of the look's own, so that another order of looks shows the same.
        let own = look.to_string().bytes().fold(self.seed, |h, b| (h ^ u64::from(b)).wrapping_mul(0x100_0000_01b3));
        let total: f64 = could.iter().map(|(_, p)| p).sum();
        let mut left = Pcg64Mcg::seed_from_u64(own).random_range(0.0..1.0) * total;
        let drawn = could.iter().find(|(_, p)| {
            left -= p;
            left <= 0.0
        });
        drawn.or(could.last()).map_or(Saw::CannotTell, |(saw, _)| *saw)
    }

    /// Whether that was it. Of a fault in a box: its box is among those that were found.
    pub(crate) fn is(&self, found: Cause, breaker: Option<usize>, points: &[PointNo]) -> bool {
        let Key { cause, breaker: own, place } = self.key;
        let gfci = |c: Cause| matches!(c, Cause::GfciTripped | Cause::GfciDead);
        if gfci(cause) && gfci(found) {
            return place.is_some_and(|p| points.contains(&p));
        }
        if cause.family() != Family::Itself {
            return cause.family() == found.family()
                && match self.bad_box {
                    Some(PowerBox::Point(p)) => points.contains(&p),
                    Some(PowerBox::Panel) | None => own.is_none() || own == breaker,
                };
        }
        cause == found && (own.is_none() || own == breaker)
    }

    /// How long the program itself looks for it, with the same things shown.
    pub(crate) fn searched(&self, case: &TripCase) -> OwnSearch {
        let mut search = Search::new(case);
        let mut seen = Vec::new();
        let mut seconds = 0.0;
        while let Next::Look(look) = search.next() {
            seconds += search.seconds(look);
            let saw = self.shows(case, look, &seen);
            search.see(look, saw);
            seen.push((look, saw));
        }
        OwnSearch { minutes: seconds / 60.0, looks: seen.len() }
    }
}
