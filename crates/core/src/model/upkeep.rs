//! Devices with a button for their own test, and how a test went.

use super::{BreakerId, PointId};

/// A device that is tested by its own button: a breaker, a receptacle with a GFCI, an alarm.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TestedDevice {
    /// A GFCI or AFCI breaker.
    Breaker(BreakerId),
    /// A point: a GFCI, or an alarm.
    Point(PointId),
}

/// How a test by the button went.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TestWent {
    /// It tripped and was reset; an alarm sounded.
    Works,
    /// It did not trip.
    NoTrip,
    /// It tripped, and does not stay reset.
    NoReset,
    /// The alarm did not sound.
    Silent,
}

impl TestWent {
    /// `it tripped and was reset`.
    pub(crate) const fn words(self, alarm: bool) -> &'static str {
        match self {
            Self::Works if alarm => "it sounded",
            Self::Works => "it tripped and was reset",
            Self::NoTrip => "it did not trip",
            Self::NoReset => "it does not stay reset",
            Self::Silent => "it did not sound",
        }
    }
}

/// After how many months tests come round.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TestMonths {
    /// GFCI and AFCI buttons, 1 to 12.
    pub buttons: u8,
    /// Alarms, 1 to 12.
    pub alarms: u8,
}

impl Default for TestMonths {
    /// Once a month, as makers print it on the devices and in their leaflets (common practice, from memory).
    fn default() -> Self {
        Self { buttons: 1, alarms: 1 }
    }
}
