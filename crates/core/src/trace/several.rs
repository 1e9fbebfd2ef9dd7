//! The next step with several breakers off at once.

use super::NextStep;
use super::ask::{Asked, ask};
use super::next_step::Rounds;
use crate::model::{BreakerId, PointId, State};

impl Rounds<'_> {
    /// Several off at once. A proof needs a look that showed the point lit with everything on, so that comes first; then
    /// the search says what is off and where to look, whatever was done meanwhile.
    pub(super) fn next_of_several(&self) -> NextStep {
        let off = match self.before_a_search() {
            Ok(off) => off,
            Err(first) => return first,
        };
        let home = self.home;
        let unlit = |p: &PointId| !self.was_lit_all_on(p);
        // A second look under the same switching tells nothing new here.
        let seen_now = |p: &PointId| self.seen_now(p).is_some();
        let on_again = |why: String| {
            let kept: Vec<BreakerId> =
                off.iter().filter(|b| home.panels().breaker(b).is_some_and(|b| b.kept.is_some())).cloned().collect();
            NextStep::SwitchOn { breakers: if kept.is_empty() { off.clone() } else { kept }, why, rooms: Vec::new() }
        };
        match ask(home, self.at_home, &unlit, &seen_now) {
            Asked::Tone(point) => {
                let at = home.house().point(&point);
                let room = at.and_then(|p| home.house().room(&p.room)).map_or_else(String::new, |room| room.name.clone());
                let name = at.map_or_else(String::new, |p| p.name.clone());
                NextStep::FollowTone {
                    why: format!("The sender in {room}, {name} narrows more down than a switching would. It proves nothing."),
                    point,
                    room,
                    name,
                }
            }
            Asked::Cycle(breaker) => self.cycle(breaker),
            Asked::Watch(breaker, point) => self.watch(breaker, point),
            Asked::Nothing if off.is_empty() => self.done(),
            Asked::Nothing => on_again("Nothing more can be told with these off.".into()),
            Asked::Off(wanted, points) => {
                if let ([_], Some(first)) = (wanted.as_slice(), self.see_lit_first(&off, points)) {
                    return first;
                }
                let switch_off: Vec<BreakerId> = wanted.iter().filter(|b| !off.contains(b)).cloned().collect();
                let on: Vec<BreakerId> = off.iter().filter(|b| !wanted.contains(b)).cloned().collect();
                NextStep::SwitchTo { why: self.why_several(&wanted), off: switch_off, on }
            }
            Asked::Look(points) => {
                let room = points.first().and_then(|p| home.house().point(p)).map(|p| p.room.clone());
                let shown: Vec<PointId> = home
                    .house()
                    .points()
                    .filter(|p| points.contains(&p.id) || (Some(&p.room) == room.as_ref() && self.seen_now(&p.id).is_some()))
                    .map(|p| p.id.clone())
                    .collect();
                let left = points.len();
                NextStep::LookUnder { listen: false, why: self.why_look(&off, left), off, rooms: self.rooms(&shown, None), left }
            }
        }
    }

    /// What is off for this trace; or what comes before any search: something to enter, points to see lit.
    pub(super) fn before_a_search(&self) -> Result<Vec<BreakerId>, NextStep> {
        if let Some(first) = self.set_up() {
            return Err(first);
        }
        let off = self.off_for_this();
        if off.is_empty()
            && let Some(first) = self.see_all_lit(&|p| !self.was_lit_all_on(p))
        {
            return Err(first);
        }
        Ok(off)
    }

    /// The breakers that are off or tripped and not left so.
    pub(super) fn off_for_this(&self) -> Vec<BreakerId> {
        let off = self.home.panels().breakers().filter(|b| b.state != State::On && !b.is_left_off());
        off.map(|b| b.id.clone()).collect()
    }

    /// One alone proves what goes dark, if it was seen lit under the same but for that one: that costs a look, no walk.
    pub(super) fn see_lit_first(&self, off: &[BreakerId], mut points: Vec<PointId>) -> Option<NextStep> {
        points.retain(|p| {
            self.seen_now(p).is_none() && !self.skipped_now(p) && !self.was_lit_with(p, self.home.switchings().off())
        });
        if points.is_empty() {
            return None;
        }
        let (left, rooms) = (points.len(), self.rooms(&points, None));
        let why = "See these lit first: then what goes dark next has no other cause.".into();
        Some(NextStep::LookUnder { off: off.to_vec(), rooms, left, why, listen: false })
    }

    /// A look showed it lit with everything on but what is left off now, and none of that moved since: what a proof with
    /// one more breaker off needs.
    pub(super) fn was_lit_all_on(&self, point: &PointId) -> bool {
        self.was_lit_with(point, &self.left_off())
    }

    fn why_several(&self, wanted: &[BreakerId]) -> String {
        match wanted {
            [one] => match self.home.panels().breaker(one).and_then(|b| b.claim.as_ref()) {
                Some(claim) => {
                    format!(
                        "{} alone: what goes dark now is proven on it. The old card says “{claim}”.",
                        self.home.panels().number(one)
                    )
                }
                None => format!("{} alone: what goes dark now is proven on it.", self.home.panels().number(one)),
            },
            several => format!(
                "{} off together: what stays lit is on none of them, and what goes dark is on one of these few. Each is proven \
                 alone later.",
                several.len()
            ),
        }
    }

    fn why_look(&self, off: &[BreakerId], left: usize) -> String {
        let points = if left == 1 { "This point tells".to_owned() } else { format!("These {left} points tell") };
        match off {
            [] => "Everything is on.".into(),
            [one] => format!("{points} most with {} off.", self.home.panels().number(one)),
            several => format!("{points} most with these {} off.", several.len()),
        }
    }
}
