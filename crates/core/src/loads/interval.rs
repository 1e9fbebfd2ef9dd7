//! Interval data of the utility: from means of 15 minutes or an hour to the demand of a year.
//!
//! In: intervals on the clock of the house, in any order. Out: the highest demand and when it was, what runs always, the mean day, the
//! highest of each day, what is missing. The clock that is set forward leaves no gap, the hour that comes twice counts twice.

use std::collections::BTreeMap;

use chrono::{DateTime, Datelike, NaiveDate, NaiveDateTime, TimeDelta, Timelike, Weekday};

use crate::model::Demand;

/// The mean of some minutes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Interval {
    /// When it began, on the clock of the house: minutes since 1970-01-01 00:00 of that clock.
    pub at: i64,
    /// How long it is, in minutes.
    pub minutes: u16,
    /// Watts taken from the utility, as a mean; less than nothing where power flowed out.
    pub watts: f64,
}

/// Why intervals are no demand.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum IntervalError {
    /// There are none.
    #[error("There are no readings in it.")]
    Nothing,
    /// Two different figures for one time.
    #[error("There are two different readings for {0}. Are two meters in the file? Choose one, or export them one by one.")]
    TwoForOneTime(String),
    /// They are too long.
    #[error("Its readings are {0} minutes apart. A demand needs readings of an hour or less: export the interval data.")]
    TooLong(u32),
    /// No house takes so much.
    #[error(
        "The highest would be {0} kW, which is more than any house takes. Its unit is another: watt-hours in place of \
         kilowatt-hours? Choose the unit."
    )]
    TooMuch(i64),
    /// A house takes more.
    #[error("The highest would be {0} W, which is less than any house takes. Its unit is another: choose it.")]
    TooLittle(i64),
}

/// The demand, with what is worth saying about how it was read.
#[derive(Debug, Clone, PartialEq)]
pub struct DemandRead {
    /// The demand.
    pub demand: Demand,
    /// What was done with the file: sentences.
    pub remarks: Vec<String>,
}

/// No house takes more, in watts: 1200 A at 240 V.
const MOST: f64 = 288_000.0;
/// The highest of a lived-in house is never below this, in watts (our estimate).
const LEAST: f64 = 100.0;
/// What counts as a year.
const DAYS: i64 = 365;

fn moment(at: i64) -> NaiveDateTime {
    DateTime::from_timestamp(at * 60, 0).map_or(NaiveDateTime::MIN, |moment| moment.naive_utc())
}

fn day_of(at: i64) -> i64 {
    at.div_euclid(24 * 60)
}

/// A Sunday of spring or autumn on which clocks are set, in either country, northern half of the earth.
fn clocks_are_set(at: i64) -> bool {
    let moment = moment(at);
    moment.weekday() == Weekday::Sun && matches!(moment.month(), 3 | 4 | 10 | 11) && moment.hour() <= 3
}

/// The length that most have.
fn usual_length(intervals: &[Interval]) -> u16 {
    let mut counts: BTreeMap<u16, usize> = BTreeMap::new();
    intervals.iter().for_each(|interval| *counts.entry(interval.minutes).or_default() += 1);
    counts.into_iter().max_by_key(|(_, count)| *count).map_or(0, |(minutes, _)| minutes)
}

/// The demand that these intervals show: of the last year, where there is more.
pub fn demand(mut all: Vec<Interval>) -> Result<DemandRead, IntervalError> {
    let mut remarks = Vec::new();
    all.sort_by_key(|interval| interval.at);
    let last = all.last().ok_or(IntervalError::Nothing)?.at;
    let minutes = usual_length(&all);
    if minutes == 0 || minutes > 60 {
        return Err(IntervalError::TooLong(u32::from(minutes)));
    }
    let before = all.len();
    all.retain(|interval| day_of(last) - day_of(interval.at) < DAYS);
    if all.len() < before {
        remarks.push(format!("It goes back further; only the last {DAYS} days count."));
    }
    let of_other_length = all.iter().filter(|interval| interval.minutes != minutes).count();
    if of_other_length > 0 {
        all.retain(|interval| interval.minutes == minutes);
        remarks.push(format!("{of_other_length} readings are of another length than {minutes} minutes and do not count."));
    }
    let mut doubled = 0_u32;
    let mut twice = 0_u32;
    let mut kept: Vec<Interval> = Vec::with_capacity(all.len());
    for interval in all {
        match kept.last() {
            Some(before) if before.at == interval.at && clocks_are_set(interval.at) => {
                twice += 1;
                kept.push(interval);
            }
            // Tenths of a watt are the rounding of whoever wrote the file.
            Some(before) if before.at == interval.at && (before.watts - interval.watts).abs() < 0.05 => doubled += 1,
            Some(before) if before.at == interval.at => {
                return Err(IntervalError::TwoForOneTime(moment(interval.at).format("%Y-%m-%d %H:%M").to_string()));
            }
            _ => kept.push(interval),
        }
    }
    if doubled > 0 {
        remarks.push(format!("{doubled} readings are in it twice and count once."));
    }
    if twice > 0 {
        remarks.push("The hour that came twice as the clocks were set back counts twice.".into());
    }
    let length = i64::from(minutes);
    let mut missing = 0_i64;
    let mut set_forward = false;
    for pair in kept.windows(2) {
        let gap = pair[1].at - pair[0].at - length;
        if gap == 60 && clocks_are_set(pair[0].at + length) {
            set_forward = true;
        } else if gap > 0 {
            missing += (gap + length - 1) / length;
        }
    }
    if set_forward {
        remarks.push("The hour that is not there as the clocks were set forward is no gap.".into());
    }
    if missing > 0 {
        remarks.push(format!(
            "{missing} readings are missing between the first and the last. The highest demand may be among them."
        ));
    }
    let netted = kept.iter().any(|interval| interval.watts < 0.0);
    let peak = kept.iter().max_by(|a, b| a.watts.total_cmp(&b.watts)).ok_or(IntervalError::Nothing)?;
    let whole = |watts: f64| watts.max(0.0).round() as u32;
    if peak.watts > MOST {
        return Err(IntervalError::TooMuch((peak.watts / 1000.0).round() as i64));
    }
    if peak.watts < LEAST {
        return Err(IntervalError::TooLittle(peak.watts.round() as i64));
    }
    let first = day_of(kept[0].at);
    let mut daily: Vec<Option<u32>> = vec![None; usize::try_from(day_of(last) - first + 1).unwrap_or(0)];
    let mut hours = [(0.0_f64, 0_u32); 24];
    for interval in &kept {
        let day = &mut daily[usize::try_from(day_of(interval.at) - first).unwrap_or(0)];
        *day = Some(day.map_or(0, |watts| watts).max(whole(interval.watts)));
        let hour = &mut hours[usize::try_from(interval.at.rem_euclid(24 * 60) / 60).unwrap_or(0)];
        *hour = (hour.0 + interval.watts.max(0.0), hour.1 + 1);
    }
    let mut sorted: Vec<f64> = kept.iter().map(|interval| interval.watts).collect();
    sorted.sort_by(f64::total_cmp);
    let kwh: f64 = kept.iter().map(|interval| interval.watts.max(0.0) * f64::from(interval.minutes) / 60_000.0).sum();
    let demand = Demand {
        first_day: first_day(first).to_string(),
        minutes,
        daily,
        hours: hours.map(|(sum, count)| whole(sum / f64::from(count.max(1)))).to_vec(),
        peak: whole(peak.watts),
        peak_at: moment(peak.at).format("%Y-%m-%dT%H:%M").to_string(),
        base: whole(sorted[sorted.len() / 20]),
        kwh: (kwh * 100.0).round() / 100.0,
        missing: u32::try_from(missing).unwrap_or(u32::MAX),
        netted,
    };
    Ok(DemandRead { demand, remarks })
}

fn first_day(day: i64) -> NaiveDate {
    NaiveDate::from_ymd_opt(1970, 1, 1).and_then(|epoch| epoch.checked_add_signed(TimeDelta::days(day))).unwrap_or_default()
}

/// What such data do not show: sentences.
pub fn caveats(demand: &Demand, solar: bool) -> Vec<String> {
    let mut said = Vec::new();
    if demand.minutes > 15 {
        said.push(format!("Readings of {} minutes hide the peaks within them.", demand.minutes));
    }
    if demand.netted || solar {
        said.push("What was made in the house hides load: the meter shows only what was taken from the street.".into());
    }
    if !demand.is_a_year() {
        said.push(format!("{} days are no year: the worst season may be missing.", demand.days()));
    }
    if demand.missing > 0 {
        said.push("Readings are missing, and the highest may be among them.".into());
    }
    said.push("Energy does not show the legs: one of them may carry more than half.".into());
    said
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Minutes since 1970 of a day and an hour.
    fn at(day: &str, minute: i64) -> i64 {
        let day: NaiveDate = day.parse().unwrap();
        day.and_time(chrono::NaiveTime::MIN).and_utc().timestamp() / 60 + minute
    }

    fn every(minutes: u16, from: i64, count: i64, watts: impl Fn(i64) -> f64) -> Vec<Interval> {
        (0..count).map(|n| Interval { at: from + n * i64::from(minutes), minutes, watts: watts(n) }).collect()
    }

    #[test]
    fn a_year_of_15_minutes() {
        let watts = |n: i64| if n == 7211 { 9840.0 } else { 300.0 + (n % 96) as f64 };
        let all = every(15, at("2025-01-01", 0), 365 * 96, watts);
        let read = demand(all.clone()).unwrap();
        let DemandRead { demand: year, remarks } = &read;
        assert_eq!((year.days(), year.minutes, year.missing, year.netted), (365, 15, 0, false));
        assert_eq!((year.peak, year.peak_at.as_str()), (9840, "2025-03-17T02:45"), "7211 quarters are 75 days and 2 h 45 min");
        assert_eq!(year.peak_words(), "9.84 kW on 17 March 2025 at 02:45");
        assert_eq!(year.daily[75], Some(9840));
        assert_eq!(year.hours[0], 302, "the mean of 300, 301, 302, 303, half up");
        assert_eq!(year.base, 304, "a twentieth of the quarters of a day are four and a bit");
        let sum: f64 = all.iter().map(|interval| interval.watts / 4000.0).sum();
        assert!((year.kwh - sum).abs() < 0.01, "{} {sum}", year.kwh);
        assert!(remarks.is_empty(), "{remarks:?}");
        assert_eq!(caveats(year, false).len(), 1);
        let mut mixed = all;
        mixed.reverse();
        assert_eq!(demand(mixed).unwrap(), read, "the order does not count");
    }

    #[test]
    fn clocks_that_are_set_make_neither_gap_nor_double() {
        // 8 March 2026: from 01:59 to 03:00. 1 November 2026: from 01:59 back to 01:00.
        let mut all = every(60, at("2026-03-07", 0), 24 + 2, |_| 500.0);
        all.extend(every(60, at("2026-03-08", 180), 21, |_| 500.0));
        let spring = demand(all).unwrap();
        assert_eq!(spring.demand.missing, 0);
        assert!(spring.remarks[0].contains("set forward"), "{:?}", spring.remarks);
        let mut all = every(60, at("2026-10-31", 0), 24 + 2, |_| 500.0);
        all.extend(every(60, at("2026-11-01", 60), 23, |_| 700.0));
        let autumn = demand(all).unwrap();
        assert_eq!((autumn.demand.missing, autumn.demand.kwh), (0, 29.1));
        // The same on another day is a gap, and two meters.
        let mut gap = every(60, at("2026-03-03", 0), 5, |_| 500.0);
        gap.extend(every(60, at("2026-03-03", 360), 5, |_| 500.0));
        assert_eq!(demand(gap).unwrap().demand.missing, 1);
        let mut two = every(60, at("2026-03-03", 0), 5, |_| 500.0);
        two.extend(every(60, at("2026-03-03", 0), 5, |_| 700.0));
        assert!(matches!(demand(two), Err(IntervalError::TwoForOneTime(when)) if when == "2026-03-03 00:00"));
    }

    #[test]
    fn ten_years_count_as_their_last() {
        let read = demand(every(60, at("2016-01-01", 0), 10 * 365 * 24, |n| if n < 24 { 20_000.0 } else { 900.0 })).unwrap();
        assert_eq!((read.demand.days(), read.demand.peak), (365, 900));
        assert!(read.remarks[0].contains("only the last 365 days"), "{:?}", read.remarks);
    }

    #[test]
    fn wrong_units_doubles_and_what_flows_out() {
        let year = |watts: f64| demand(every(15, at("2026-01-01", 0), 96, |_| watts));
        assert!(matches!(year(900_000.0), Err(IntervalError::TooMuch(900))));
        assert!(matches!(year(3.0), Err(IntervalError::TooLittle(3))));
        assert!(matches!(demand(Vec::new()), Err(IntervalError::Nothing)));
        assert!(matches!(demand(every(1440, 0, 30, |_| 900.0)), Err(IntervalError::TooLong(1440))));
        let mut doubled = every(15, at("2026-01-01", 0), 96, |_| 400.0);
        doubled.extend_from_within(..10);
        assert_eq!(demand(doubled).unwrap().demand.kwh, 9.6);
        let solar = demand(every(15, at("2026-06-01", 0), 96, |n| if n > 48 { -900.0 } else { 400.0 })).unwrap().demand;
        assert!(solar.netted && solar.kwh == 4.9);
        assert_eq!(caveats(&solar, false).len(), 3);
    }
}
