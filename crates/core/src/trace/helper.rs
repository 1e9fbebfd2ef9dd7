//! What one helper does next: only their own step, at the panel or on foot.

use super::dark_clock::{DarkClock, dark_clocks};
use super::next_step::trace_view;
use super::step_card::{Reader, StepCard, StepSide, step_cards};
use super::walkers::own_rooms;
use super::{OffNow, RoomToWalk, off_now};
use crate::model::Since;
use crate::study::Study;

/// All that a helper's phone is told.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct HelperView {
    /// The last line this follows from.
    pub seq: u64,
    /// The name of the home.
    pub home: String,
    /// What is off now.
    pub off_now: Vec<OffNow>,
    /// The last line that moved a handle: what a look is recorded under.
    pub last_turn: Since,
    /// What may be without power only so long, and may be dark now.
    pub clocks: Vec<DarkClock>,
    /// The home is a made-up house: instruments are on the screen.
    pub practice: bool,
    /// What to mind with what is off or is to go off now.
    pub cautions: Vec<String>,
    /// What to do.
    pub card: StepCard,
    /// Where to walk, in this order, while something is to be looked at.
    pub rooms: Vec<RoomToWalk>,
}

/// What a helper does next. `walkers`: all helpers who walk; `own`: the name of this one.
pub fn helper_view(home: &Study, side: StepSide, walkers: &[String], own: &str) -> HelperView {
    let mut clocks = dark_clocks(home);
    let view = trace_view(home, home.setup());
    let (panel, walk) = step_cards(home, &view.next, &[], Reader::Helper);
    let rooms = match (side, view.next.rooms()) {
        (StepSide::Walk, Some(rooms)) if walk.looking.is_some() => own_rooms(home, rooms, walkers, own),
        _ => Vec::new(),
    };
    // What a point is, the owner says.
    let asked = |mut room: RoomToWalk| {
        room.points.iter_mut().for_each(|point| point.test_button.clear());
        room
    };
    let rooms = rooms.into_iter().map(asked).collect();
    if side == StepSide::Walk {
        for clock in &mut clocks {
            clock.card = clock.card.clone().only_told();
        }
    }
    HelperView {
        seq: home.seq(),
        home: home.name().unwrap_or_default().to_owned(),
        off_now: off_now(home),
        last_turn: home.switchings().last(),
        practice: home.practice().is_some(),
        clocks,
        cautions: view.cautions,
        card: if side == StepSide::Panel { panel } else { walk },
        rooms,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{line, written};
    use crate::logbook::{Fact, LineStruck};

    const HOUSE: &str = "panel 6\n1 20 kitchen\n3 15 rec\nroom Hall\npoint Hall light lamp\npoint Hall receptacle plug\n";

    fn told(acts: &str, side: StepSide) -> HelperView {
        let home = written(&format!("{HOUSE}{acts}")).home;
        helper_view(&home, side, &[], "")
    }

    #[test]
    fn each_side_is_told_its_own_step_and_the_other_waits() {
        let lit = "lit lamp\nlit plug\n";
        let off = "lit lamp\nlit plug\noff 1\n";
        let seen = "lit lamp\nlit plug\noff 1\ndark lamp\nlit plug\n";
        let done = "proof lamp 1\nproof plug 3\n";
        for (acts, panel, walk, rooms) in [
            ("", "Leave everything ON", "See that each one is lit", 1),
            (lit, "Turn OFF, leave the rest ON", "Wait", 0),
            (off, "Leave 1 OFF", "Lit or dark?", 1),
            (seen, "Turn ON again", "Wait", 0),
            (done, "Nothing more to switch", "Nothing more to look at", 0),
        ] {
            let (at_the_panel, on_foot) = (told(acts, StepSide::Panel), told(acts, StepSide::Walk));
            assert_eq!((at_the_panel.card.title.as_str(), on_foot.card.title.as_str()), (panel, walk));
            assert_eq!((at_the_panel.rooms.len(), on_foot.rooms.len()), (0, rooms), "{walk}");
        }
        let handle = &told(lit, StepSide::Panel).card.switches[0].handles[0];
        assert_eq!((handle.number.as_str(), handle.claim.as_deref()), ("1", Some("kitchen")));
        assert_eq!(told(lit, StepSide::Panel).card.instead, [], "a helper keeps nothing on");
    }

    #[test]
    fn a_helper_writes_looks_and_switchings_and_strikes_out_own_lines_only() {
        let w = written(&format!("{HOUSE}lit lamp\noff 1\nskip plug"));
        let may = |fact: &Fact| fact.may_be_written_by_a_helper(|_| false);
        let allowed: Vec<bool> = w.book.lines().map(|l| may(&l.entry.fact)).collect();
        assert_eq!(allowed.iter().filter(|may| **may).count(), 3, "{allowed:?}");
        let strike = Fact::LineStruck(LineStruck { line: line(3) });
        assert!(!may(&strike));
        assert!(strike.may_be_written_by_a_helper(|id| *id == line(3)));
    }
}
