//! How long a breaker may hold a load, and by when it must have tripped.
//!
//! Only latest times are published; there is no earliest. Below 135 % a breaker may hold for ever.
//!
//! Source: UL 489 calibration, in open air at 40 °C, from memory. A hot panel trips sooner.

use serde::Serialize;

use crate::model::Amps;

/// What a breaker does at a steady load.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[serde(tag = "does", rename_all = "snake_case")]
pub enum TripWindow {
    /// It holds.
    Holds,
    /// It may trip, and it may hold for ever.
    MayHold,
    /// It must have tripped after so many minutes; there is no earliest time.
    TripsWithin {
        /// At the latest.
        minutes: u32,
    },
    /// No published time is known for this rating.
    NotPublished,
}

/// By when a breaker of this rating must have tripped at twice its rating, in minutes.
fn at_200_percent(rating: f64) -> Option<u32> {
    const LATEST: [(f64, u32); 6] = [(30.0, 2), (50.0, 4), (100.0, 6), (150.0, 8), (225.0, 10), (400.0, 12)];
    LATEST.into_iter().find(|(up_to, _)| rating <= *up_to).map(|(_, minutes)| minutes)
}

/// By when it must have tripped at 135 %, in minutes.
const fn at_135_percent(rating: f64) -> u32 {
    if rating <= 50.0 { 60 } else { 120 }
}

/// What a breaker of this rating does at this steady load.
pub fn trip_window(rating: Amps, load: Amps) -> TripWindow {
    let (rating, load) = (rating.value(), load.value());
    if load <= rating {
        return TripWindow::Holds;
    }
    let Some(at_200) = at_200_percent(rating) else { return TripWindow::NotPublished };
    // Hundredths of an ampere on both sides: 20.25 A on 15 A is 135 % to the last digit.
    let percent = (load * 100.0).round() * 100.0 / (rating * 100.0).round();
    if percent < 135.0 {
        TripWindow::MayHold
    } else if percent < 200.0 {
        TripWindow::TripsWithin { minutes: at_135_percent(rating) }
    } else {
        TripWindow::TripsWithin { minutes: at_200 }
    }
}

/// As one sentence.
impl std::fmt::Display for TripWindow {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::Holds => f.write_str("The breaker holds this."),
            Self::MayHold => f.write_str("The breaker may trip, and it may hold for ever."),
            Self::TripsWithin { minutes: 60 } => {
                f.write_str("The breaker must have tripped within an hour; it may trip much sooner.")
            }
            Self::TripsWithin { minutes: 120 } => {
                f.write_str("The breaker must have tripped within two hours; it may trip much sooner.")
            }
            Self::TripsWithin { minutes } => {
                write!(f, "The breaker must have tripped within {minutes} minutes; it may trip much sooner.")
            }
            Self::NotPublished => f.write_str("For a breaker of this rating no time is known here."),
        }
    }
}

/// For the simulator and for likelihoods only, never drawn and never a verdict: how many seconds a breaker takes as if it warmed like
/// one body. `None` where it holds.
pub fn as_one_body(rating: Amps, load: Amps) -> Option<f64> {
    let m = load.value() / rating.value();
    let t200 = f64::from(at_200_percent(rating.value())?) * 60.0;
    let t135 = f64::from(at_135_percent(rating.value())) * 60.0;
    if m <= 1.35 {
        None
    } else if m < 2.0 {
        Some((t200 * (m * m / (m * m - 1.8225)).ln() / (4.0 / 2.1775_f64).ln()).min(t135))
    } else {
        Some(t200 * (m * m / (m * m - 1.0)).ln() / (4.0 / 3.0_f64).ln())
    }
}
