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

/// The last moment that is taken from outside: the end of the year 9999. Sums and differences of moments stay far from the ends of
/// their type.
const LATEST_MS: i64 = 253_402_300_799_999;

/// A moment, in milliseconds since 1970-01-01 UTC, as the observer's clock had it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(try_from = "i64")]
#[schema(value_type = i64, minimum = 0, maximum = 253_402_300_799_999_i64)]
pub struct Moment(i64);

impl TryFrom<i64> for Moment {
    type Error = &'static str;
    fn try_from(ms: i64) -> Result<Self, Self::Error> {
        if (0..=LATEST_MS).contains(&ms) { Ok(Self(ms)) } else { Err("a moment lies between the years 1970 and 9999") }
    }
}

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

/// No length or place that is taken from outside is more than 100 km: sums and products of lengths stay far from the ends of their
/// type. What a plan may hold is much less, and is said where it is written.
const FARTHEST_MM: i32 = 100_000_000;

/// A number of millimeters from outside.
pub(crate) fn millimeters<'de, D: serde::Deserializer<'de>>(from: D) -> Result<i32, D::Error> {
    let mm: i32 = serde::Deserialize::deserialize(from)?;
    Length::try_from(mm).map(Length::millimeters).map_err(serde::de::Error::custom)
}

/// A length in whole millimeters.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(try_from = "i32")]
#[schema(value_type = i32, minimum = -100_000_000, maximum = 100_000_000)]
pub struct Length(i32);

impl TryFrom<i32> for Length {
    type Error = &'static str;
    fn try_from(mm: i32) -> Result<Self, Self::Error> {
        if mm.unsigned_abs() <= FARTHEST_MM.unsigned_abs() { Ok(Self(mm)) } else { Err("a length is at most 100 km") }
    }
}

impl Length {
    /// From millimeters.
    pub const fn mm(mm: i32) -> Self {
        Self(mm)
    }
    /// In millimeters.
    pub const fn millimeters(self) -> i32 {
        self.0
    }
    /// As a tape reads it: `4.2 m`, or `13'9"` to the nearest half inch.
    pub fn said(self, units: Units) -> String {
        match units {
            Units::Metric => {
                let meters = format!("{:.2}", f64::from(self.0) / 1000.0);
                format!("{} m", meters.strip_suffix('0').unwrap_or(&meters))
            }
            Units::FeetInches => {
                let halves = (f64::from(self.0) / 12.7).round() as i64;
                let (feet, rest) = (halves / 24, halves % 24);
                let half = if rest % 2 == 1 { "½" } else { "" };
                match (feet, rest) {
                    (0, _) => format!("{}{half}\"", rest / 2),
                    (_, 0) => format!("{feet}'"),
                    (_, 1) => format!("{feet}' {half}\""),
                    _ => format!("{feet}'{}{half}\"", rest / 2),
                }
            }
        }
    }
}

/// How lengths are typed and said in a home.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Units {
    /// Meters.
    #[default]
    Metric,
    /// Feet and inches.
    FeetInches,
}

/// `1 point`, `3 points`: so many of what has a plural in s.
pub(crate) fn so_many(count: usize, one: &str) -> String {
    if count == 1 { format!("1 {one}") } else { format!("{count} {one}s") }
}

/// `kettle and toaster`, `heater, projector and amplifier`.
pub(crate) fn listed<T: AsRef<str>>(names: &[T]) -> String {
    match names {
        [] => String::new(),
        [one] => one.as_ref().into(),
        [first @ .., last] => {
            let first: Vec<&str> = first.iter().map(AsRef::as_ref).collect();
            format!("{} and {}", first.join(", "), last.as_ref())
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn lengths_read_like_a_tape() {
        for (mm, metric, feet) in [
            (4200, "4.2 m", "13'9½\""),
            (4191, "4.19 m", "13'9\""),
            (3000, "3.0 m", "9'10\""),
            (3048, "3.05 m", "10'"),
            (152, "0.15 m", "6\""),
            (3061, "3.06 m", "10' ½\""),
        ] {
            assert_eq!(Length::mm(mm).said(Units::Metric), metric);
            assert_eq!(Length::mm(mm).said(Units::FeetInches), feet);
        }
    }
}
