//! Why an entry was not taken, in a sentence a person can act on.

use crate::model::EntryId;

/// The kind of refusal, for programs.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
#[non_exhaustive]
pub enum RefusalCode {
    /// The logbook has no home, panel, breaker, room, point or line of that id.
    Unknown,
    /// The panel has no such space.
    NoSuchSpace,
    /// The space is taken.
    Occupied,
    /// The breaker does not fit there.
    DoesNotFit,
    /// A value is outside what can be.
    OutOfRange,
    /// A text is missing, too long or has characters that cannot be shown.
    BadText,
    /// Something else still needs it.
    StillNeeded,
    /// Later lines depend on the line to be struck out.
    LinesDepend,
    /// The breakers that are off changed since the observer's screen was drawn.
    OffSetChanged,
    /// The id was used before for another entry.
    IdTaken,
    /// The entry's version is newer than this program.
    NewerVersion,
    /// This version of the program cannot do it.
    NotYet,
}

/// A refused entry. Nothing was written.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error, serde::Serialize, utoipa::ToSchema)]
#[error("{wrong} {accepted}")]
pub struct Refusal {
    /// The kind.
    pub code: RefusalCode,
    /// The field that is at fault.
    pub field: String,
    /// What is wrong, as a sentence.
    pub wrong: String,
    /// What would be accepted, as a sentence.
    pub accepted: String,
    /// The entry that was refused, once known.
    pub entry: Option<EntryId>,
    /// Lines that stand in the way.
    pub lines: Vec<EntryId>,
}

impl Refusal {
    /// A refusal about a field.
    pub fn new(code: RefusalCode, field: &str, wrong: impl Into<String>, accepted: impl Into<String>) -> Self {
        Self { code, field: field.into(), wrong: wrong.into(), accepted: accepted.into(), entry: None, lines: Vec::new() }
    }
}
