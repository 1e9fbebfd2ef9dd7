//! What one helper does next: only their own step, at the panel or on foot.

use super::dark_clock::{DarkClock, dark_clocks};
use super::next_step::trace_view;
use super::walkers::own_rooms;
use super::{NextStep, OffNow, RoomToWalk, off_now};
use crate::model::{BreakerId, PointId, Since};
use crate::study::Study;

/// Where a helper stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HelperSide {
    /// At the panel: switches.
    Panel,
    /// Walks and looks.
    Walk,
}

/// A breaker as somebody finds it at the panel.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Handle {
    /// Which.
    pub breaker: BreakerId,
    /// `5-7`, `S3`.
    pub number: String,
    /// What the old card says of it.
    pub claim: Option<String>,
    /// Its rating.
    pub amps: f64,
}

/// What to do.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "do", rename_all = "snake_case")]
pub enum HelperStep {
    /// Switch these off and those on again.
    Switch {
        /// Off.
        off: Vec<Handle>,
        /// On again.
        on: Vec<Handle>,
        /// Why.
        why: String,
    },
    /// Look at these points, in this order.
    Look {
        /// Room by room.
        rooms: Vec<RoomToWalk>,
        /// What for.
        why: String,
    },
    /// Plug the tone sender in there.
    PlugTone {
        /// `Kitchen, counter`.
        place: String,
    },
    /// Sweep the panel with the receiver: where is it loudest?
    Sweep {
        /// Where the sender is plugged in.
        point: PointId,
        /// `Kitchen, counter`.
        place: String,
        /// Every breaker.
        breakers: Vec<Handle>,
    },
    /// Something is wrong with the supply: nothing else is done before that is mended.
    Stop {
        /// What was read, and what it means.
        words: String,
    },
    /// Somebody else's turn.
    Wait {
        /// What is going on.
        words: String,
    },
    /// Nothing more to do.
    Finished {
        /// What came of it.
        words: String,
    },
}

/// All that a helper's phone is told.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct HelperView {
    /// The last line this follows from.
    pub seq: u64,
    /// The name of the home.
    pub home: String,
    /// Where this helper stands.
    pub side: HelperSide,
    /// What is off now.
    pub off_now: Vec<OffNow>,
    /// The last line that moved a handle: what a look is recorded under.
    pub last_turn: Since,
    /// What may be without power only so long, and may be dark now.
    pub clocks: Vec<DarkClock>,
    /// What those clocks want on again, when they have run out.
    pub clocked: Vec<Handle>,
    /// The home is a made-up house: instruments are on the screen.
    pub practice: bool,
    /// What to mind with what is off or is to go off now.
    pub cautions: Vec<String>,
    /// What to do.
    pub step: HelperStep,
}

/// What a helper does next. `walkers`: all helpers who walk; `own`: the name of this one.
pub fn helper_view(home: &Study, side: HelperSide, walkers: &[String], own: &str) -> HelperView {
    let clocks = dark_clocks(home);
    let mut clocked: Vec<Handle> = Vec::new();
    for breaker in clocks.iter().flat_map(|clock| &clock.breakers) {
        if !clocked.iter().any(|h| &h.breaker == breaker) {
            clocked.extend(handle(home, breaker));
        }
    }
    let view = trace_view(home, home.setup());
    HelperView {
        seq: home.seq(),
        home: home.name().unwrap_or_default().to_owned(),
        side,
        off_now: off_now(home),
        last_turn: home.switchings().last(),
        practice: home.practice().is_some(),
        clocks,
        clocked,
        step: step(home, &view.next, side, walkers, own),
        cautions: view.cautions,
    }
}

fn handle(home: &Study, breaker: &BreakerId) -> Option<Handle> {
    let b = home.panels().breaker(breaker)?;
    Some(Handle { breaker: b.id.clone(), number: home.panels().number(&b.id), claim: b.claim.clone(), amps: b.amps.value() })
}

fn step(home: &Study, next: &NextStep, side: HelperSide, walkers: &[String], own: &str) -> HelperStep {
    let handles = |ids: &[BreakerId]| -> Vec<Handle> { ids.iter().filter_map(|b| handle(home, b)).collect() };
    let numbers = |ids: &[BreakerId]| ids.iter().map(|b| home.panels().number(b)).collect::<Vec<_>>().join(", ");
    let wait = |words: String| HelperStep::Wait { words };
    let switch = |off: &[BreakerId], on: &[BreakerId], why: &str| match side {
        HelperSide::Panel => HelperStep::Switch { off: handles(off), on: handles(on), why: why.to_owned() },
        HelperSide::Walk => match (off, on) {
            ([], on) => wait(format!("{} is being switched on again.", numbers(on))),
            (off, _) => wait(format!("{} is being switched off.", numbers(off))),
        },
    };
    let look = |rooms: &[RoomToWalk], why: String| match side {
        HelperSide::Walk => HelperStep::Look { rooms: own_rooms(home, rooms, walkers, own), why },
        HelperSide::Panel => wait(match home.switchings().off().len() {
            0 => "Leave everything on. Points are being looked at.".into(),
            _ => format!(
                "Leave {} off. Points are being looked at.",
                numbers(&home.switchings().off().iter().cloned().collect::<Vec<_>>())
            ),
        }),
    };
    match next {
        NextStep::SetUp { .. } => wait("The panel and the points are still being entered.".into()),
        NextStep::SeeAllLit { rooms, .. } => look(rooms, "See that each one is lit, with everything on.".into()),
        NextStep::SwitchOff { breaker, why, .. } => switch(std::slice::from_ref(breaker), &[], why),
        NextStep::SwitchTo { off, on, why } => switch(off, on, why),
        NextStep::SwitchOn { breakers, why, .. } => switch(&[], breakers, why),
        NextStep::Look { rooms, breaker, .. } => look(rooms, format!("{} is off. Lit or dark?", home.panels().number(breaker))),
        NextStep::LookUnder { rooms, why, .. } => look(rooms, why.clone()),
        NextStep::SeeOneLitAgain { rooms, breaker } => {
            look(rooms, format!("{} is on again. See one of these lit.", home.panels().number(breaker)))
        }
        NextStep::FollowTone { point, room, name, .. } => {
            let place = format!("{room}, {name}");
            match side {
                HelperSide::Walk => HelperStep::PlugTone { place },
                HelperSide::Panel => {
                    let all: Vec<BreakerId> = home.panels().breakers().map(|b| b.id.clone()).collect();
                    HelperStep::Sweep { point: point.clone(), place, breakers: handles(&all) }
                }
            }
        }
        NextStep::SeeDownstream { name, .. } => wait(format!("{name} is tripped on purpose; the owner sees what it darkens.")),
        NextStep::Stop { place, volts, .. } => HelperStep::Stop {
            words: format!(
                "{place} read {volts} V. Tell the owner at once: the main goes off now, what is plugged in is unplugged, and an electrician comes."
            ),
        },
        NextStep::Done { summary, .. } => HelperStep::Finished { words: summary.clone() },
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{line, written};
    use crate::logbook::{Fact, LineStruck};

    const HOUSE: &str = "panel 6\n1 20 kitchen\n3 15 rec\nroom Hall\npoint Hall light lamp\npoint Hall receptacle plug\n";

    fn told(acts: &str, side: HelperSide) -> HelperStep {
        let home = written(&format!("{HOUSE}{acts}")).home;
        helper_view(&home, side, &[], "").step
    }

    #[test]
    fn each_side_is_told_its_own_step_and_the_other_waits() {
        let waits = |step: HelperStep, says: &str| match step {
            HelperStep::Wait { words } => assert!(words.contains(says), "{words}"),
            other => panic!("{other:?}"),
        };
        assert!(matches!(told("", HelperSide::Walk), HelperStep::Look { rooms, .. } if rooms[0].points.len() == 2));
        waits(told("", HelperSide::Panel), "Leave everything on");
        let lit = "lit lamp\nlit plug\n";
        assert!(
            matches!(told(lit, HelperSide::Panel), HelperStep::Switch { off, .. } if off[0].number == "1" && off[0].claim.is_some())
        );
        waits(told(lit, HelperSide::Walk), "1 is being switched off");
        let off = "lit lamp\nlit plug\noff 1\n";
        assert!(matches!(told(off, HelperSide::Walk), HelperStep::Look { .. }));
        waits(told(off, HelperSide::Panel), "Leave 1 off");
        let seen = "lit lamp\nlit plug\noff 1\ndark lamp\nlit plug\n";
        assert!(matches!(told(seen, HelperSide::Panel), HelperStep::Switch { on, .. } if on[0].number == "1"));
        waits(told(seen, HelperSide::Walk), "1 is being switched on again");
        let done = "lit lamp\nlit plug\noff 1\ndark lamp\nlit plug\non 1\nlit lamp\noff 3\ndark plug\non 3\nlit plug\n";
        assert!(matches!(told(done, HelperSide::Walk), HelperStep::Finished { words } if words == "Every point is proven."));
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
