//! What can put a point out, and how often each does.
//!
//! The weights per 100 calls are judgement (`trips.md`), not statistics: nobody publishes such counts. They order the looks; no
//! cause is named by its weight alone.

use super::case::{BreakerNo, PointNo};
pub use crate::model::Cause;
use crate::model::Onset;

impl Cause {
    /// How many of 100 calls it is.
    pub(super) const fn per_100(self) -> f64 {
        match self {
            Self::Overload => 14.0,
            Self::ShortLoad | Self::OffOrNotLatched | Self::OpenNeutral | Self::GfciDead => 3.0,
            Self::ShortWiring | Self::MainOff | Self::SharedNeutral => 1.0,
            Self::GroundLoad | Self::BreakerFailed | Self::LostLeg | Self::LostNeutral | Self::FeederOff | Self::Double => 1.5,
            Self::GroundWiring | Self::FeederLeg => 0.7,
            Self::Arc => 3.5,
            Self::Inrush => 2.0,
            Self::GfciTripped => 16.0,
            Self::SwitchOff => 6.0,
            Self::Control => 2.5,
            Self::Lamp => 9.0,
            Self::Cutout | Self::Cord | Self::LooseJoint => 4.0,
            Self::OpenHot => 7.0,
            Self::Outage => 5.0,
        }
    }

    /// How likely it is that it came at once, after minutes, or that nobody knows.
    pub(super) const fn came(self, onset: Onset) -> f64 {
        let (at_once, minutes, unknown) = match self {
            Self::Overload => (0.12, 0.58, 0.30),
            Self::ShortLoad => (0.6, 0.1, 0.3),
            Self::ShortWiring => (0.25, 0.25, 0.5),
            Self::GroundLoad => (0.55, 0.15, 0.3),
            Self::GroundWiring => (0.2, 0.3, 0.5),
            Self::Arc => (0.4, 0.3, 0.3),
            Self::Inrush => (0.7, 0.02, 0.28),
            Self::OffOrNotLatched => (0.05, 0.1, 0.85),
            Self::BreakerFailed => (0.1, 0.3, 0.6),
            Self::GfciTripped => (0.2, 0.15, 0.65),
            Self::GfciDead => (0.05, 0.1, 0.85),
            Self::Lamp => (0.35, 0.1, 0.55),
            Self::Cutout => (0.1, 0.45, 0.45),
            Self::Cord => (0.25, 0.25, 0.5),
            Self::OpenHot | Self::OpenNeutral => (0.12, 0.33, 0.55),
            Self::LooseJoint => (0.1, 0.4, 0.5),
            _ => (0.1, 0.2, 0.7),
        };
        match onset {
            Onset::AtOnce => at_once,
            Onset::Minutes => minutes,
            Onset::Unknown => unknown,
        }
    }

    /// The breaker has tripped.
    pub const fn trips(self) -> bool {
        matches!(
            self,
            Self::Overload
                | Self::ShortLoad
                | Self::ShortWiring
                | Self::GroundLoad
                | Self::GroundWiring
                | Self::Arc
                | Self::Inrush
                | Self::Double
        )
    }

    /// A place along the circuit, where a box has to be opened.
    pub const fn joint(self) -> bool {
        matches!(self, Self::OpenHot | Self::OpenNeutral | Self::LooseJoint)
    }

    /// Volts out of bounds: it sets fire to what is plugged in.
    pub const fn emergency(self) -> bool {
        matches!(self, Self::LostNeutral | Self::SharedNeutral)
    }

    /// What is told apart only by opening a box: the boxes are named, the likeliest first.
    pub const fn family(self) -> Family {
        match self {
            Self::OpenHot | Self::BreakerFailed | Self::GfciDead => Family::NoPowerPast,
            Self::OpenNeutral | Self::LooseJoint => Family::BadJoint,
            _ => Family::Itself,
        }
    }
}

/// Causes that are looked for in the same boxes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Family {
    /// Power reaches a box and does not leave it: an open hot wire, a failed breaker, a dead GFCI.
    NoPowerPast,
    /// A joint that makes bad contact.
    BadJoint,
    /// Found where it is.
    Itself,
}

/// One cause at one place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Key {
    /// Which cause.
    pub cause: Cause,
    /// On which breaker; `None` where that is no matter, so that doubt about the map does not pass for doubt about the cause.
    pub breaker: Option<BreakerNo>,
    /// Which load, switch or point, by the cause: the point after the joint, the GFCI, the lamp.
    pub place: Option<usize>,
}

impl Key {
    /// A cause that concerns the whole house.
    pub(super) const fn house(cause: Cause) -> Self {
        Self { cause, breaker: None, place: None }
    }
    /// A cause at a breaker.
    pub(super) const fn breaker(cause: Cause, breaker: BreakerNo) -> Self {
        Self { cause, breaker: Some(breaker), place: None }
    }
    /// A cause at a place, whatever feeds it.
    pub(super) const fn place(cause: Cause, place: usize) -> Self {
        Self { cause, breaker: None, place: Some(place) }
    }
    /// A cause at a place on a breaker.
    pub(super) const fn at(cause: Cause, breaker: BreakerNo, place: PointNo) -> Self {
        Self { cause, breaker: Some(breaker), place: Some(place) }
    }
}
