//! What the leveller is told.

use serde::{Deserialize, Serialize};

/// The service.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
pub enum LegSystem {
    /// Two legs that are opposite.
    #[default]
    #[serde(rename = "120/240")]
    SplitPhase,
    /// Two or three legs of a wye.
    #[serde(rename = "208Y/120")]
    Wye,
}

/// A space of a panel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
pub struct LegSpace {
    /// 0, 1 or 2, as read or as counted from the rows.
    pub leg: usize,
    /// A tandem may sit here.
    #[serde(default)]
    pub tandem: bool,
    /// What sits here.
    #[serde(default)]
    pub unit: Option<String>,
    /// Nothing may sit here.
    #[serde(default)]
    pub blocked: bool,
}

/// How a unit may move.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum UnitKind {
    /// One hot, to any open space.
    Single,
    /// Two halves on one leg, which move together, to a listed space.
    Tandem,
    /// Hots that share a neutral or a tie: they may change places among their own spaces.
    Group,
    /// Stays.
    Fixed,
    /// A group that feeds another panel.
    Feeder,
}

/// What sits in one or several spaces.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
pub struct LegUnit {
    /// Its name.
    pub id: String,
    /// How it may move.
    pub kind: UnitKind,
    /// Where its hots end, by number from 0.
    pub spaces: Vec<usize>,
    /// What each hot carries at one time, in tenths of an ampere; a tandem's two halves.
    #[serde(default)]
    pub amps_x10: Vec<i64>,
    /// Its hots may change places.
    #[serde(default)]
    pub turn: bool,
    /// The panel that it feeds, by number from 0.
    #[serde(default)]
    pub feeds: Option<usize>,
    /// `line-to-line` where no neutral carries it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub load: Option<String>,
}

/// A panel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
pub struct LegPanel {
    /// Its name.
    pub name: String,
    /// What a leg may carry: its main's or feeder's rating.
    pub rating_a: i64,
    /// 2 or 3.
    pub legs: usize,
    /// From the top.
    pub spaces: Vec<LegSpace>,
    /// What sits in them.
    pub units: Vec<LegUnit>,
}

/// Panels that feed one another, the first from the service.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
pub struct LegPanels {
    /// A name for it.
    #[serde(default)]
    pub id: String,
    /// The service.
    #[serde(default)]
    pub system: LegSystem,
    /// The panels.
    pub panels: Vec<LegPanel>,
}
