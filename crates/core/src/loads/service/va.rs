//! Volt-amperes that add up without rounding.

use std::iter::Sum;
use std::ops::{Add, AddAssign, Sub};

/// Volt-amperes, kept as whole ten-thousandths: factors are whole percents and at most two follow each other, so no sheet
/// ever rounds before its last line.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, PartialOrd, Ord)]
pub struct Va(i64);

impl Va {
    /// None.
    pub const ZERO: Self = Self(0);

    /// From whole volt-amperes.
    pub const fn new(va: i64) -> Self {
        Self(va * 10_000)
    }

    /// In volt-amperes.
    pub fn value(self) -> f64 {
        self.0 as f64 / 10_000.0
    }

    /// So many percent of it.
    pub const fn percent(self, percent: i64) -> Self {
        Self(self.0 * percent / 100)
    }

    /// What is above `floor`, or none.
    pub fn above(self, floor: Self) -> Self {
        Self((self.0 - floor.0).max(0))
    }

    /// Amperes at this voltage, to four places.
    pub fn amps_exact(self, volts: i64) -> f64 {
        (self.value() / volts as f64 * 10_000.0).round() / 10_000.0
    }

    /// Whole amperes at this voltage, halves up (NEC 220.5(B), from memory).
    pub const fn amps(self, volts: i64) -> i64 {
        let whole = volts * 10_000;
        (2 * self.0 + whole).div_euclid(2 * whole)
    }
}

impl Add for Va {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}

impl AddAssign for Va {
    fn add_assign(&mut self, other: Self) {
        self.0 += other.0;
    }
}

impl Sub for Va {
    type Output = Self;
    fn sub(self, other: Self) -> Self {
        Self(self.0 - other.0)
    }
}

impl Sum for Va {
    fn sum<I: Iterator<Item = Self>>(all: I) -> Self {
        all.fold(Self::ZERO, Add::add)
    }
}

impl serde::Serialize for Va {
    fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.serialize_f64(self.value())
    }
}

impl utoipa::PartialSchema for Va {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        f64::schema()
    }
}

impl utoipa::ToSchema for Va {}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn whole_amperes_round_halves_up_and_only_at_the_end() {
        // 62.4958 and 62.5 A: the two beside a half in the specification of the sheets.
        assert_eq!((Va::new(14_999).amps(240), Va::new(15_000).amps(240)), (62, 63));
        assert_eq!(Va::new(14_999).amps_exact(240), 62.4958);
        assert_eq!(Va::new(1).percent(35).percent(70).value(), 0.245);
        assert_eq!(Va::new(100).above(Va::new(300)), Va::ZERO);
    }
}
