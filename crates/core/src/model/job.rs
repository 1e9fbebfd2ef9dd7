//! What somebody sets out to do at a panel or at a point, what they answered on the way, and how it ended.

use super::{Amps, BreakerId, PanelId, PointId, Protection, RoomId, Slot, Wire, number_of};

/// One thing that is done in an open panel.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "does", rename_all = "snake_case")]
pub enum JobMove {
    /// A spare breaker, with no wire on it, is taken out.
    TakeOut {
        /// Which.
        breaker: BreakerId,
    },
    /// A breaker sits elsewhere afterwards, or its wires are on half of a tandem.
    Move {
        /// Which.
        breaker: BreakerId,
        /// Its poles from the top.
        at: Vec<Slot>,
    },
    /// Another breaker takes over its wires, in its place.
    Replace {
        /// Which.
        breaker: BreakerId,
        /// The rating of the new one.
        amps: Amps,
        /// The kind of the new one.
        #[serde(default)]
        protection: Protection,
    },
    /// 240 V in place of 120 V: a two-pole, the white wire marked as a hot.
    TwoPole {
        /// Which.
        breaker: BreakerId,
        /// Its poles from the top.
        at: Vec<Slot>,
        /// The rating of the two-pole.
        amps: Amps,
    },
    /// 120 V in place of 240 V: a one-pole, the wire that was white when it was made back on the neutral bar.
    OnePole {
        /// Which.
        breaker: BreakerId,
        /// Where.
        at: Slot,
        /// The rating of the one-pole.
        amps: Amps,
    },
    /// Two circuits on one breaker, by a splice with one pigtail.
    Join {
        /// The one whose breaker comes out.
        breaker: BreakerId,
        /// The one that feeds both afterwards.
        to: BreakerId,
    },
    /// Two circuits on one breaker, both wires under a terminal that is listed for two.
    Tap {
        /// The one whose breaker comes out.
        breaker: BreakerId,
        /// The one that feeds both afterwards.
        to: BreakerId,
    },
    /// A breaker for a new circuit.
    New {
        /// The id that it will have.
        breaker: BreakerId,
        /// Its poles from the top.
        at: Vec<Slot>,
        /// Its rating.
        amps: Amps,
        /// Its kind.
        #[serde(default)]
        protection: Protection,
        /// What it is for; may be empty.
        #[serde(default)]
        what: String,
        /// Its wire, where it is chosen.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        wire: Option<Wire>,
        /// Whether a neutral goes with it.
        #[serde(default)]
        neutral: bool,
        /// The panel that it feeds, where it is a feeder.
        #[serde(default)]
        feeds: String,
        /// The outlet that it ends at, where that is said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        outlet: Option<NewOutlet>,
    },
    /// An open space is closed with a filler.
    Fill {
        /// Which.
        at: Slot,
    },
    /// The terminals of a breaker are tightened to the torque of its label.
    Tighten {
        /// Which.
        breaker: BreakerId,
    },
}

impl JobMove {
    /// The breaker that it is about.
    pub const fn breaker(&self) -> Option<&BreakerId> {
        match self {
            Self::TakeOut { breaker }
            | Self::Move { breaker, .. }
            | Self::Replace { breaker, .. }
            | Self::TwoPole { breaker, .. }
            | Self::OnePole { breaker, .. }
            | Self::Join { breaker, .. }
            | Self::Tap { breaker, .. }
            | Self::New { breaker, .. }
            | Self::Tighten { breaker } => Some(breaker),
            Self::Fill { .. } => None,
        }
    }
}

/// The outlet at the end of a new circuit.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewOutlet {
    /// The id that the point will have.
    pub point: PointId,
    /// In which room.
    pub room: RoomId,
    /// What it takes, in amperes, where that is known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub takes: Option<f64>,
}

/// How long a reading of dead holds while nobody is at it: after a longer break all is read again. A judgement of our own.
pub(crate) const DEAD_HOLDS_MS: i64 = 2 * 3_600_000;

/// What is changed at a point.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PointWork {
    /// A receptacle.
    Receptacle,
    /// A switch.
    Switch,
    /// A light.
    Light,
}

impl PointWork {
    /// `receptacle`.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Receptacle => "receptacle",
            Self::Switch => "switch",
            Self::Light => "light",
        }
    }
}

/// A job.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "job", rename_all = "snake_case")]
pub enum Job {
    /// A breaker that tripped is reset, once.
    Reset {
        /// Which.
        breaker: BreakerId,
    },
    /// Work in an open panel.
    Panel {
        /// Which.
        panel: PanelId,
        /// What is done, in this order.
        moves: Vec<JobMove>,
    },
    /// A receptacle, switch or light is replaced.
    Point {
        /// Which.
        point: PointId,
        /// What it is.
        work: PointWork,
    },
    /// A new panel is made up: cables in, wires dressed, before or after the walls are closed.
    MakeUp {
        /// Which.
        panel: PanelId,
        /// The walls are closed: breakers go in, and the panel is put to use.
        #[serde(default)]
        closed: bool,
    },
    /// What an electrician has done in a panel, to be recorded.
    Done {
        /// Which panel.
        panel: PanelId,
        /// What was done.
        moves: Vec<JobMove>,
        /// Who did it, and when, in words.
        who: String,
    },
}

/// What things are called where a job is said in words.
pub(crate) struct JobNames<'a> {
    pub(crate) number: &'a dyn Fn(&BreakerId) -> String,
    pub(crate) point: &'a dyn Fn(&PointId) -> String,
    pub(crate) panel: &'a dyn Fn(&PanelId) -> String,
    /// What stands before the numbers of a panel.
    pub(crate) tag: &'a dyn Fn(&PanelId) -> String,
}

impl Job {
    /// `Join 16 to 22, a new circuit of 20 A at 16 for the kiln`.
    pub(crate) fn words(&self, names: &JobNames<'_>) -> String {
        let said = match self {
            Self::Reset { breaker } => format!("reset {}", (names.number)(breaker)),
            Self::Point { point, work } => format!("a new {}: {}", work.words(), (names.point)(point)),
            Self::MakeUp { panel, closed: false } => format!("make up “{}” before the walls are closed", (names.panel)(panel)),
            Self::MakeUp { panel, closed: true } => format!("put “{}” to use", (names.panel)(panel)),
            Self::Panel { panel, moves } => every(moves, &(names.tag)(panel), names),
            Self::Done { panel, moves, who } => format!("{}, by {}", every(moves, &(names.tag)(panel), names), who.trim()),
        };
        let mut letters = said.chars();
        letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
    }
}

fn every(moves: &[JobMove], tag: &str, names: &JobNames<'_>) -> String {
    let at = |slots: &[Slot]| format!("{tag}{}", number_of(slots));
    let number = names.number;
    let said: Vec<String> = moves
        .iter()
        .map(|one| match one {
            JobMove::TakeOut { breaker } => format!("take {} out", number(breaker)),
            JobMove::Move { breaker, at: to } if to.iter().any(|slot| slot.half.is_some()) => {
                format!("{} into a tandem at {}", number(breaker), at(to))
            }
            JobMove::Move { breaker, at: to } => format!("move {} to {}", number(breaker), at(to)),
            JobMove::Replace { breaker, amps, protection } => {
                let guard = protection.words();
                let guard = if guard.is_empty() { String::new() } else { format!(", {guard}") };
                format!("replace {} by one of {amps}{guard}", number(breaker))
            }
            JobMove::TwoPole { breaker, at: to, .. } => format!("{} from 120 to 240 V, at {}", number(breaker), at(to)),
            JobMove::OnePole { breaker, at: to, .. } => format!("{} from 240 to 120 V, at {}", number(breaker), at(&[*to])),
            JobMove::Join { breaker, to } => format!("join {} to {}", number(breaker), number(to)),
            JobMove::Tap { breaker, to } => format!("put {} under the terminal of {}", number(breaker), number(to)),
            JobMove::New { at: to, amps, what, feeds, .. } => {
                let what = if feeds.is_empty() { what } else { feeds };
                let what = if what.is_empty() { String::new() } else { format!(" for {what}") };
                format!("a new circuit of {amps} at {}{what}", at(to))
            }
            JobMove::Fill { at: to } => format!("a filler in {}", at(&[*to])),
            JobMove::Tighten { breaker } => format!("tighten {}", number(breaker)),
        })
        .collect();
    said.join(", ")
}

/// What somebody answered to a step of a job sheet.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "said", rename_all = "snake_case")]
pub enum JobAnswer {
    /// It is done.
    Done,
    /// One of the named choices.
    Chose {
        /// Which.
        choice: String,
    },
    /// A reading.
    Read {
        /// Which of the step's readings.
        reading: String,
        /// What was read, in the unit of that reading.
        value: f64,
    },
    /// All readings of the step are taken anew.
    Anew,
}

/// What was found on the way that ends a job.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JobFound {
    /// Heat, burn marks or smell.
    Burnt,
    /// Water or rust.
    Water,
    /// Aluminum branch wire.
    Aluminum,
    /// Cloth, knob-and-tube or brittle insulation.
    OldWire,
    /// Something that stays live, or a second feed.
    SecondFeed,
    /// A main that does not move or does not stay off.
    MainStuck,
    /// A shock was felt.
    Shock,
    /// It tripped again at once.
    TripsAgain,
    /// Readings that wander, or are neither live nor dead.
    Wanders,
    /// The panel is not as the sheet says.
    NotAsSaid,
    /// The label does not name the part, or cannot be read.
    Label,
}

impl JobFound {
    /// Every one, in the order in which it is offered.
    pub const ALL: [Self; 11] = [
        Self::Burnt,
        Self::Water,
        Self::Aluminum,
        Self::OldWire,
        Self::SecondFeed,
        Self::MainStuck,
        Self::Shock,
        Self::TripsAgain,
        Self::Wanders,
        Self::NotAsSaid,
        Self::Label,
    ];

    /// What was found.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Burnt => "heat, burn marks or a smell",
            Self::Water => "water or rust",
            Self::Aluminum => "aluminum branch wire",
            Self::OldWire => "cloth, knob-and-tube or brittle wire",
            Self::SecondFeed => "something that stays live, or a second feed",
            Self::MainStuck => "a main that does not move or stay off",
            Self::Shock => "a shock was felt",
            Self::TripsAgain => "it tripped again at once",
            Self::Wanders => "readings that wander, or are neither live nor dead",
            Self::NotAsSaid => "the panel is not as the sheet says",
            Self::Label => "the label does not name the part, or cannot be read",
        }
    }

    /// Whether nothing is switched on again before an electrician has looked.
    pub(crate) const fn is_grave(self) -> bool {
        !matches!(self, Self::NotAsSaid | Self::Label | Self::TripsAgain)
    }

    /// Whom to call, and what not to touch meanwhile.
    pub const fn call(self) -> &'static str {
        match self {
            Self::Burnt => {
                "Call an electrician. What is scorched is not put under load again; a stab that is burnt condemns its space."
            }
            Self::Water => "Call an electrician. Keep away from the panel while it is wet, and from the water on the floor.",
            Self::Aluminum => "Call an electrician: aluminum wire needs its own connectors and its own method.",
            Self::OldWire => "Call an electrician. Do not bend the wires: old insulation breaks.",
            Self::SecondFeed => {
                "Call an electrician. Whatever is still live is found and switched off first, and nothing is touched until then."
            }
            Self::MainStuck => "Call an electrician, who may need the utility to cut the supply. Do not force the handle.",
            Self::Shock => "Stop. See a doctor after any shock, and call an electrician before anything there is touched again.",
            Self::TripsAgain => "Leave it off. Call an electrician if it trips with everything unplugged.",
            Self::Wanders => "Call an electrician. Between live and dead nothing is touched.",
            Self::NotAsSaid => {
                "Record what is there first; then make a new sheet. Where it is not understood, call an electrician."
            }
            Self::Label => "Only a type that the label names goes in. Ask the maker of the panel or an electrician.",
        }
    }
}
