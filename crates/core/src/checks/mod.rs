//! What is worth a look in the home: one file per rule.
//!
//! A rule is a function over the home that adds its findings; its file says why, by what source, and
//! tests itself on a text fixture. A finding is about the user's house, never an error of ours; local
//! codes and licensed practice come first, and every screen that shows findings says so.

mod breaker_over_wire;
mod directory_wording;

pub use directory_wording::about_wording;

use crate::{BreakerId, Home};

/// How much it matters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Severity {
    /// Can do harm: leave the circuit off or call an electrician.
    Danger,
    /// Against today's rule.
    Fault,
    /// Worth knowing.
    Note,
}

/// Something worth a look.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Finding {
    /// The rule, for programs: `breaker-over-wire`.
    pub code: String,
    /// How much it matters.
    pub severity: Severity,
    /// What it is about, where that is a breaker.
    pub breaker: Option<BreakerId>,
    /// What it is about, in words: `12`, `Room “Emma's room”`.
    pub about: String,
    /// What is the matter.
    pub message: String,
    /// What to do.
    pub remedy: String,
    /// The rule's source.
    pub source: String,
}

/// Everything worth a look, the gravest first.
pub fn findings(home: &Home) -> Vec<Finding> {
    let mut all = Vec::new();
    for rule in [breaker_over_wire::check, directory_wording::check] {
        rule(home, &mut all);
    }
    all.sort_by_key(|finding| finding.severity);
    all
}
