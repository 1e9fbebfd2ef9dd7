//! One line of the logbook.

use super::Fact;
use crate::model::{EntryId, Moment};

/// With what something was observed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Instrument {
    /// By eye: a lamp or an appliance that runs.
    Eye,
    /// A plug-in tester.
    PlugInTester,
    /// A lamp plugged in.
    Lamp,
    /// A meter.
    Meter,
    /// A non-contact tester: it warns and proves nothing.
    NonContact,
    /// A tone sender and its receiver.
    ToneTracer,
    /// A clamp around a conductor.
    ClampMeter,
    /// A radio or buzzer plugged in there and heard, or not, at the panel.
    Radio,
}

impl Instrument {
    /// As it stands behind a line of the logbook: `by eye`.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Eye => "by eye",
            Self::PlugInTester => "plug-in tester",
            Self::Lamp => "lamp",
            Self::Meter => "meter",
            Self::NonContact => "non-contact tester",
            Self::ToneTracer => "tone tracer",
            Self::ClampMeter => "clamp meter",
            Self::Radio => "radio heard at the panel",
        }
    }
}

/// A fact as its observer writes it down, before the logbook has given it a sequence.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Draft {
    /// Made by the writer; a second entry with the same id is the same entry.
    pub id: EntryId,
    /// When it was observed.
    pub at: Moment,
    /// Who observed it.
    pub by: String,
    /// With what.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub instrument: Option<Instrument>,
    /// The version of the fact's shape; see [`Fact::VERSION`].
    #[serde(default = "first_version")]
    pub version: u16,
    /// What was found out or done.
    pub fact: Fact,
}

const fn first_version() -> u16 {
    Fact::VERSION
}

/// A line that the logbook holds.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Line {
    /// Its place in the logbook, from 1.
    pub seq: u64,
    /// What was written.
    pub entry: Draft,
}
