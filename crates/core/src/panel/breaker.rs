//! A breaker as it sits in the panel.

use super::Slot;
use crate::{Amps, BreakerId, Kept, PanelId, Wire};

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

/// A breaker (of a tandem: one of its two handles, which is one circuit).
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
    /// What the old card claims; never a fact.
    pub claim: Option<String>,
    /// Where the handle stands.
    pub state: State,
    /// Whether it must stay on (or be left off), and why.
    pub kept: Option<(Kept, String)>,
}

impl Breaker {
    /// `5-7`, `14a`.
    pub fn number(&self) -> String {
        super::number_of(&self.at)
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
