//! What the utility's data say of the home, in words and for two pictures: the year day by day, the mean day hour by hour.

use chrono::{Datelike, TimeDelta};
use serde::Serialize;

use super::interval::caveats;
use crate::model::{Demand, OtherSource};
use crate::study::Study;

/// The beginning of a month, for the picture of the year.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct MonthBegins {
    /// On which day of the picture, from 0.
    pub day: usize,
    /// `Jan`.
    pub name: String,
}

/// A demand in words.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct DemandSaid {
    /// The demand.
    pub demand: Demand,
    /// The highest, in one sentence.
    pub title: String,
    /// What else can be said: what runs always, when most is taken.
    pub said: Vec<String>,
    /// What such data do not show.
    pub caveats: Vec<String>,
    /// The months in the picture.
    pub months: Vec<MonthBegins>,
    /// On which day of the picture the highest was, from 0.
    pub peak_day: usize,
}

/// The page of usage data.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct DemandView {
    /// The file that was read.
    pub file: String,
    /// What it says; `null` where none was read.
    pub said: Option<DemandSaid>,
}

/// What the utility's data say of the home.
pub fn demand_view(home: &Study) -> DemandView {
    let read = home.loads().usage();
    DemandView {
        file: read.map(|read| read.file.clone()).unwrap_or_default(),
        said: read.map(|read| demand_said(&read.demand, has_solar(home))),
    }
}

/// Whether solar feeds the home.
pub fn has_solar(home: &Study) -> bool {
    home.panels().breakers().any(|breaker| breaker.details.brings_in == Some(OtherSource::Solar))
}

fn kw(watts: u32) -> String {
    format!("{:.2} kW", f64::from(watts) / 1000.0)
}

/// A demand in words; `solar`: the house makes power of its own.
pub fn demand_said(demand: &Demand, solar: bool) -> DemandSaid {
    let of = if demand.is_a_year() {
        "the year".to_owned()
    } else {
        if demand.days() == 1 { "this one day".to_owned() } else { format!("these {} days", demand.days()) }
    };
    let hours = demand.hours.iter().enumerate();
    let (busiest, most) = hours.clone().max_by_key(|(_, watts)| **watts).map_or((0, 0), |(hour, watts)| (hour, *watts));
    let amps = f64::from(demand.peak) / 240.0;
    let mut said = vec![
        format!("That is {amps:.0} A on both legs at 240 V, if it were split evenly; one leg may have carried more."),
        format!("Most is taken from {busiest} to {} o'clock: {} on the mean day.", busiest + 1, kw(most)),
    ];
    let days = demand.days().max(1) as f64;
    let always = f64::from(demand.base) * 24.0 * days / 1000.0;
    // A house with solar takes nothing at noon, so that this says nothing of it.
    if !demand.netted && !solar && demand.kwh > 0.0 && always <= demand.kwh {
        let share = 100.0 * always / demand.kwh;
        said.push(format!("{} run nearly always, {share:.0} % of all energy.", kw(demand.base)));
    }
    said.push(format!("{:.0} kWh in {} days, in readings of {} minutes.", demand.kwh, demand.days(), demand.minutes));
    let first = demand.first();
    let begins = |day: usize| {
        let date = first? + TimeDelta::days(i64::try_from(day).ok()?);
        (date.day() == 1).then(|| MonthBegins { day, name: date.format("%b").to_string() })
    };
    let peak_day = first.zip(demand.peak_moment()).and_then(|(first, at)| usize::try_from((at.date() - first).num_days()).ok());
    DemandSaid {
        title: format!("The highest demand of {of} was {}", demand.peak_words()),
        said,
        caveats: caveats(demand, solar),
        months: (0..demand.daily.len()).filter_map(begins).collect(),
        peak_day: peak_day.unwrap_or(0),
        demand: demand.clone(),
    }
}
