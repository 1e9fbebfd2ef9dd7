//! The card that hangs in a panel's door.

use crate::model::{Moment, PointId};

/// A line of a card as it was printed.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HungLine {
    /// `5-7`, as printed.
    pub number: String,
    /// Its words.
    pub text: String,
    /// What stands below them.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub notes: Vec<String>,
    /// The points that were proven on it when the card was printed.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub proven: Vec<PointId>,
}

/// The card that hangs.
#[derive(Debug, Clone, PartialEq)]
pub struct HungCard {
    /// The revision printed on it.
    pub revision: u64,
    /// When it was hung.
    pub at: Moment,
    /// Who said so.
    pub by: String,
    /// Height of a row of it, in mm, where that is known.
    pub row_mm: Option<f64>,
    /// Its lines.
    pub lines: Vec<HungLine>,
}
