//! What the utility's interval data say of a home: the demand of a year.

use chrono::{NaiveDate, NaiveDateTime};

/// The demand of a year, or of what there is of one, on the clock of the house.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Demand {
    /// The first day, `2025-11-01`.
    pub first_day: String,
    /// Minutes of an interval: 15, 30 or 60.
    pub minutes: u16,
    /// The highest demand of each day from the first on, in watts, as the mean of an interval; `null` where a day has no data.
    pub daily: Vec<Option<u32>>,
    /// The mean demand of each hour of the day, in watts; 24 of them.
    pub hours: Vec<u32>,
    /// The highest demand, in watts.
    pub peak: u32,
    /// When that interval began, `2026-01-14T18:15`.
    pub peak_at: String,
    /// What is exceeded in 19 of 20 intervals, in watts: what runs nearly always.
    pub base: u32,
    /// Energy taken in all, in kilowatt-hours.
    pub kwh: f64,
    /// Intervals that are missing between the first and the last.
    pub missing: u32,
    /// Power also flowed out, or the figures are net of what was made in the house.
    pub netted: bool,
}

/// Days of data from which on it stands for a year: a few lost days change nothing.
const A_YEAR: usize = 350;

impl Demand {
    /// The first day; `None` where it is none.
    pub fn first(&self) -> Option<NaiveDate> {
        self.first_day.parse().ok()
    }

    /// When the highest interval began; `None` where it is no moment.
    pub fn peak_moment(&self) -> Option<NaiveDateTime> {
        NaiveDateTime::parse_from_str(&self.peak_at, "%Y-%m-%dT%H:%M").ok()
    }

    /// Days with data.
    pub fn days(&self) -> usize {
        self.daily.iter().flatten().count()
    }

    /// Whether it stands for a year.
    pub fn is_a_year(&self) -> bool {
        self.days() >= A_YEAR
    }

    /// `9.84 kW on 14 January 2026 at 18:15`.
    pub fn peak_words(&self) -> String {
        let when = self.peak_moment().map_or_else(|| self.peak_at.clone(), |at| at.format("%-d %B %Y at %H:%M").to_string());
        format!("{:.2} kW on {when}", f64::from(self.peak) / 1000.0)
    }
}
