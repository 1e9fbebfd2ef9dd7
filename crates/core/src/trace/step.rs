//! What a screen is told of the trace: the next step, with where to walk, and how far it is.

use std::collections::BTreeMap;

use super::{EndsOpen, Likely, Progress, StepCard};

use crate::logbook::{Fact, Instrument};
use crate::model::{BreakerId, PointId, PointKind, RoomId, Seen, Since, TraceSetup, Volts};

/// A point to look at.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct PointToSee {
    /// Which.
    pub point: PointId,
    /// Where in its room.
    pub name: String,
    /// What it is.
    pub kind: PointKind,
    /// 120 or 240.
    pub volts: Volts,
    /// What it is looked at with, as a rule.
    pub instrument: Instrument,
    /// What was seen since the last handle moved.
    pub seen: Option<Seen>,
    /// The line that says so, to strike it out.
    pub line: Option<crate::model::EntryId>,
    /// Passed over since the last handle moved.
    pub skipped: bool,
    /// A tester was left plugged in here: a glance is enough.
    pub plugged: bool,
    /// Dark once, which is not sure enough: to be looked at once more.
    pub again: bool,
    /// To be found anew by its place and name, so that it is not the wrong point twice over.
    pub anew: bool,
    /// Where a GFCI is usual and nobody has looked at it yet, “has it a test button?” is asked: what says so.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub test_button: Vec<Fact>,
    /// How it is looked at, where it goes on and off by itself or has a battery.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub how: Option<String>,
    /// What it showed fits a point that goes on and off by itself, and its voltage is easily read: that is asked for.
    pub measure: bool,
    /// Volts that a meter showed since, neither lit nor dark: to be looked at with something that loads it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub between: Option<f64>,
}

/// A room to walk, with its points.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct RoomToWalk {
    /// Which.
    pub room: RoomId,
    /// Its name.
    pub name: String,
    /// The old card's words for the breaker name this room.
    pub on_card: bool,
    /// Its points.
    pub points: Vec<PointToSee>,
    /// Helpers who look at them now, by name.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub who: Vec<String>,
}

/// What to do next.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "step", rename_all = "snake_case")]
pub enum NextStep {
    /// Something has to be entered first: a panel, breakers, points.
    SetUp {
        /// `panel`, `breakers` or `points`.
        missing: String,
    },
    /// With everything on: see that each point is lit.
    SeeAllLit {
        /// Where to walk.
        rooms: Vec<RoomToWalk>,
        /// Points left to look at.
        left: usize,
        /// Breakers that are left off or tripped meanwhile, by number.
        left_off: Vec<String>,
    },
    /// Switch this breaker off, leave the rest on.
    SwitchOff {
        /// Which.
        breaker: BreakerId,
        /// Why this one.
        why: String,
        /// How many points may be on it.
        candidates: usize,
    },
    /// Have just these off, all others on.
    SwitchTo {
        /// To be switched off now.
        off: Vec<BreakerId>,
        /// To be switched on again.
        on: Vec<BreakerId>,
        /// Why.
        why: String,
    },
    /// With these off: look at these points.
    LookUnder {
        /// What is off.
        off: Vec<BreakerId>,
        /// Where to go.
        rooms: Vec<RoomToWalk>,
        /// Points left to look at.
        left: usize,
        /// Why.
        why: String,
        /// Nobody walks: a radio is there, and is listened to from the panel.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        listen: bool,
    },
    /// Plug the tone sender in at this point and sweep the panel with the receiver. What it says is a clue.
    FollowTone {
        /// Where to plug it in.
        point: PointId,
        /// The room.
        room: String,
        /// Its name.
        name: String,
        /// Why here.
        why: String,
    },
    /// A GFCI was tripped on purpose: see what is dark, then reset it.
    SeeDownstream {
        /// The device.
        device: PointId,
        /// Its name.
        name: String,
        /// Where to walk.
        rooms: Vec<RoomToWalk>,
        /// What it is known to protect then: what was known before and what was seen dark now.
        protects: Vec<PointId>,
    },
    /// With this breaker off: look at these points.
    Look {
        /// Which breaker is off.
        breaker: BreakerId,
        /// Where to walk.
        rooms: Vec<RoomToWalk>,
        /// Points left to look at.
        left: usize,
    },
    /// Switch these on again.
    SwitchOn {
        /// Which.
        breakers: Vec<BreakerId>,
        /// Why.
        why: String,
        /// What was looked at in this round, for another look.
        rooms: Vec<RoomToWalk>,
    },
    /// Push this breaker fully off and on again: it may look on and carry no power.
    Cycle {
        /// Which.
        breaker: BreakerId,
        /// Why.
        why: String,
    },
    /// Watch this point, which is lit, while somebody switches the breaker off and on again.
    Watch {
        /// Which breaker.
        breaker: BreakerId,
        /// Which point.
        point: PointId,
        /// `Kitchen, counter`.
        place: String,
        /// Why.
        why: String,
    },
    /// See one of these lit again: the breaker has latched.
    SeeOneLitAgain {
        /// The breaker that was switched on.
        breaker: BreakerId,
        /// The points that went dark with it.
        rooms: Vec<RoomToWalk>,
    },
    /// A meter showed what a lost neutral shows: more volts than a circuit may have, or one outlet high and another low. The main
    /// goes off, and an electrician or the utility comes, before anything else.
    Stop {
        /// Where.
        point: PointId,
        /// `Kitchen, counter`.
        place: String,
        /// What the meter showed.
        volts: f64,
        /// What is wrong with that, as a sentence.
        why: String,
        /// The line that says so, to strike it out if it was mistyped.
        line: crate::model::EntryId,
    },
    /// Nothing more to switch.
    Done {
        /// What is left, as a sentence.
        summary: String,
        /// Points that were passed over, to look at after all.
        rooms: Vec<RoomToWalk>,
        /// Every point that ends open, with its reason and what to do next.
        open: Vec<EndsOpen>,
    },
}

impl NextStep {
    /// Where to walk, while something is to be looked at.
    pub fn rooms(&self) -> Option<&[RoomToWalk]> {
        match self {
            Self::SeeAllLit { rooms, .. }
            | Self::Look { rooms, .. }
            | Self::LookUnder { rooms, .. }
            | Self::SeeOneLitAgain { rooms, .. } => Some(rooms),
            _ => None,
        }
    }

    /// Where to walk, while something is to be looked at.
    pub(super) const fn rooms_mut(&mut self) -> Option<&mut Vec<RoomToWalk>> {
        match self {
            Self::SeeAllLit { rooms, .. }
            | Self::Look { rooms, .. }
            | Self::LookUnder { rooms, .. }
            | Self::SeeOneLitAgain { rooms, .. } => Some(rooms),
            _ => None,
        }
    }
}

/// The trace as every screen shows it.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct TraceView {
    /// The last line this follows from.
    pub seq: u64,
    /// What to do next.
    pub next: NextStep,
    /// The breakers that are off or tripped, as this step has them: what a look is recorded under.
    pub off: Vec<BreakerId>,
    /// How far it is.
    pub progress: Progress,
    /// Breakers with which off something was looked at, by now.
    pub rounds_done: usize,
    /// Breakers that could still be switched off and would tell something, in the order proposed.
    pub to_switch: Vec<BreakerId>,
    /// Points whose looks disagree.
    pub contradictory: Vec<PointId>,
    /// Points that were dark with everything on.
    pub out: Vec<PointId>,
    /// How it is traced, by whom and with what.
    pub setup: TraceSetup,
    /// Nobody has said so yet, and nothing was looked at: it is asked before the first step.
    pub asks_setup: bool,
    /// The last line that moved a handle: what a look is recorded under.
    pub last_turn: Since,
    /// What to mind with what is off or is to go off now.
    pub cautions: Vec<String>,
    /// The step in words, for whoever is at the panel.
    pub panel: StepCard,
    /// The step in words, for whoever walks.
    pub walk: StepCard,
    /// The likeliest breaker of points that are open: a clue, no proof.
    pub likely: BTreeMap<PointId, Likely>,
}
