//! Quantities as types: never a bare number across a module border.

use std::fmt;

/// Current in amperes.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(transparent)]
#[schema(value_type = f64)]
pub struct Amps(f64);

impl Amps {
    /// From a count of amperes.
    pub const fn new(amps: f64) -> Self {
        Self(amps)
    }
    /// The count of amperes.
    pub const fn value(self) -> f64 {
        self.0
    }
}

impl fmt::Display for Amps {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{} A", self.0)
    }
}

/// Voltage in volts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(transparent)]
#[schema(value_type = u16)]
pub struct Volts(u16);

impl Volts {
    /// From a count of volts.
    pub const fn new(volts: u16) -> Self {
        Self(volts)
    }
    /// The count of volts.
    pub const fn value(self) -> u16 {
        self.0
    }
}

/// A moment, in milliseconds since 1970-01-01 UTC, as the observer's clock had it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(transparent)]
#[schema(value_type = i64)]
pub struct Moment(i64);

impl Moment {
    /// From milliseconds since 1970-01-01 UTC.
    pub const fn from_unix_ms(ms: i64) -> Self {
        Self(ms)
    }
    /// Milliseconds since 1970-01-01 UTC.
    pub const fn unix_ms(self) -> i64 {
        self.0
    }
}
