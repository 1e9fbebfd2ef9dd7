//! A breaker as it sits in the panel.

use super::{OtherSource, Slot};
use crate::model::{Amps, BreakerId, PanelId, PointId, Wire};

/// What the breaker protects against beside overload and short.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Protection {
    /// Thermal-magnetic only.
    #[default]
    Standard,
    /// Ground fault.
    Gfci,
    /// Arc fault.
    Afci,
    /// Arc and ground fault.
    DualFunction,
}

impl Protection {
    /// `GFCI`; nothing for a standard breaker.
    pub(crate) const fn words(self) -> &'static str {
        match self {
            Self::Standard => "",
            Self::Gfci => "GFCI",
            Self::Afci => "AFCI",
            Self::DualFunction => "GFCI and AFCI",
        }
    }
}

/// Where the handle stands.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum State {
    /// On. A breaker is taken to be on until the logbook says otherwise.
    #[default]
    On,
    /// Switched off by hand.
    Off,
    /// Tripped by itself.
    Tripped,
}

/// How a breaker is kept.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Kept {
    /// Never to be switched off: a pump, a medical device, a running server.
    On,
    /// Left off: a spare, a fault that waits for an electrician.
    Off,
}

/// By how many spaces further a wire has to reach to come from one side of a panel to the other. A judgement of our own.
pub(crate) const ACROSS: i64 = 6;

/// What the handles share.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Housing {
    /// A breaker of whole spaces.
    Full,
    /// Two circuits in one space, on one leg.
    Tandem,
    /// Four handles over two spaces.
    Quad,
    /// Half as wide as a space, in a housing of its own.
    Slim,
}

/// How several poles open together.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Tie {
    /// One mechanism: a fault on one pole opens all.
    #[default]
    CommonTrip,
    /// Single breakers whose handles are tied.
    Handle,
}

/// Where the neutral of a GFCI or AFCI breaker goes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NeutralLead {
    /// A white pigtail to the neutral bar.
    Pigtail,
    /// It plugs onto the panel's neutral rail.
    PlugOn,
}

/// What was seen at the breaker's terminals.
#[derive(Debug, Clone, Copy, Default, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Terminal {
    /// Conductors under one terminal, 1 to 4.
    pub under: Option<u8>,
    /// How many its marking allows; without a marking one.
    pub listed: Option<u8>,
    /// Whether they are of one size and one metal.
    pub alike: Option<bool>,
    /// Torque from the label, in pound-inches. Never a default.
    pub torque_inlb: Option<f64>,
}

/// What is known of a breaker beyond its rating.
#[derive(Debug, Clone, Default, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct BreakerDetails {
    /// What the handles share, where it does not follow from the spaces.
    pub housing: Option<Housing>,
    /// How several poles open together.
    pub tie: Tie,
    /// It is the panel's main, back-fed through its spaces.
    pub back_fed_main: bool,
    /// A back-fed main is held by more than its clip.
    pub fastened: Option<bool>,
    /// A tandem with the hook that fits notched spaces only.
    pub hooked: Option<bool>,
    /// Its type, as printed.
    pub type_name: String,
    /// Its interrupting rating in kA.
    pub interrupting_ka: Option<f64>,
    /// Where its own neutral goes.
    pub neutral: Option<NeutralLead>,
    /// At its terminals.
    pub terminal: Terminal,
    /// The panel it is said to feed, before that panel is described.
    pub feeds: String,
    /// What feeds the panel through it: solar, a battery, a generator.
    pub brings_in: Option<OtherSource>,
    /// What the inverter behind it gives at most, from its plate.
    pub inverter_amps: Option<Amps>,
    /// Whether an interlock keeps it and the main from being on together.
    pub interlocked: Option<bool>,
    /// Its label says 120/240 V; `false`: one voltage alone, 240 V.
    pub slash_rated: Option<bool>,
    /// By how many spaces further down or up its wires would reach, 0 to 40; to the other side of the panel counts as six.
    pub slack: Option<u8>,
}

/// Somebody's own words for a circuit on the card, and what was known of it when they were written.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct OwnWords {
    /// As they stand on the card.
    pub text: String,
    /// The points that were proven on it.
    pub proven: Vec<PointId>,
    /// The panels that it fed.
    pub feeds: Vec<PanelId>,
}

/// A breaker: what one handle, or several that move together, switch.
#[derive(Debug, Clone, PartialEq)]
pub struct Breaker {
    /// Its id.
    pub id: BreakerId,
    /// The panel it sits in.
    pub panel: PanelId,
    /// Its poles from the top.
    pub at: Vec<Slot>,
    /// Its rating.
    pub amps: Amps,
    /// Its kind.
    pub protection: Protection,
    /// The wire on it, where it was read.
    pub wire: Option<Wire>,
    /// What else is known of it.
    pub details: BreakerDetails,
    /// What the old card claims; never a fact.
    pub claim: Option<String>,
    /// Own words for the new card.
    pub own: Option<OwnWords>,
    /// Where the handle stands.
    pub state: State,
    /// Whether it must stay on (or be left off), and why.
    pub kept: Option<(Kept, String)>,
}

impl Breaker {
    /// `5-7`, `14a`: as it is said at its own panel. Elsewhere [`crate::logbook::Home::number`].
    pub fn number(&self) -> String {
        super::number_of(&self.at)
    }

    /// How many poles it has: how many circuits it counts for.
    pub fn poles(&self) -> usize {
        self.at.len()
    }

    /// What its handles share: as recorded, else as its spaces tell.
    pub fn housing(&self) -> Housing {
        self.details.housing.unwrap_or_else(|| housing_of(&self.at))
    }

    /// Whether a generator feeds the panel through it.
    pub fn brings_in_a_generator(&self) -> bool {
        matches!(self.details.brings_in, Some(OtherSource::PortableGenerator | OtherSource::StandbyGenerator))
    }

    /// Whether they sit one above the other in a column.
    pub fn is_beside(&self, other: &Self) -> bool {
        let (own, its) = (i32::from(self.at[0].space), i32::from(other.at[0].space));
        self.id != other.id && self.panel == other.panel && (own - its).abs() <= 2 && (own - its) % 2 == 0
    }

    /// Whether it must never be switched off.
    pub fn must_stay_on(&self) -> bool {
        matches!(self.kept, Some((Kept::On, _)))
    }

    /// Off or tripped for a reason of its own: no round of the trace has switched it.
    pub fn is_left_off(&self) -> bool {
        match self.state {
            State::On => false,
            State::Tripped => true,
            State::Off => matches!(self.kept, Some((Kept::Off, _))),
        }
    }
}

/// What the spaces alone tell: one half is a tandem's, two halves are a slim pair's.
pub(crate) fn housing_of(at: &[Slot]) -> Housing {
    match at {
        [one] if one.half.is_some() => Housing::Tandem,
        _ if at.iter().any(|slot| slot.half.is_some()) => Housing::Slim,
        _ => Housing::Full,
    }
}

/// `on`, `off`, `tripped`.
pub(crate) const fn state_word(state: State) -> &'static str {
    match state {
        State::On => "on",
        State::Off => "off",
        State::Tripped => "tripped",
    }
}
