//! The open usage XML: an Atom feed of reading types, meter readings and blocks of interval readings.
//!
//! Source: ESPI, NAESB REQ.21, from memory: seconds of UTC, `powerOfTenMultiplier`, `uom` 72 watt-hours and 38 watts, `flowDirection` 1
//! to the house and 19 from it; the house's clock is `tzOffset`, and `dstOffset` between the moments of two packed rules.

use std::collections::BTreeMap;

use chrono::{DateTime, Datelike, NaiveDate, NaiveDateTime, TimeDelta, Weekday};
use quick_xml::Reader;
use quick_xml::events::{BytesStart, Event};

use super::{Interval, MOST_READINGS, UsageError};

const DAY_S: i64 = 86_400;
const YEAR_S: i64 = 366 * DAY_S;
/// The end of the year 9999.
const LATEST_S: i64 = 253_402_300_799;

#[derive(Debug, Clone, Copy, Default)]
struct ReadingType {
    multiplier: i32,
    unit: Option<u32>,
    direction: Option<u32>,
    seconds: Option<i64>,
}

#[derive(Debug, Clone, Copy, Default)]
struct Raw {
    start: i64,
    seconds: i64,
    value: f64,
}

/// An entry of the feed: its own address, those that it names, and the blocks in it.
#[derive(Debug, Default)]
struct Entry {
    own: String,
    up: String,
    related: Vec<String>,
    reading_type: Option<ReadingType>,
    is_meter_reading: bool,
    readings: Vec<Raw>,
}

#[derive(Debug, Clone, Copy, Default)]
struct Clock {
    offset: i64,
    summer: i64,
    from: Option<u32>,
    to: Option<u32>,
}

fn local_name(tag: &BytesStart<'_>) -> String {
    tag.local_name().as_ref().to_owned()
}

fn attribute(tag: &BytesStart<'_>, name: &str) -> Option<String> {
    let found = tag.attributes().flatten().find(|attribute| attribute.key.as_ref() == name)?;
    Some(found.value.into_owned())
}

/// The moment in this year that a packed rule names, as the rule has it: month, which weekday or day, hour.
///
/// Bits 28 to 31 the month, 25 to 27 which one, 20 to 24 the day, 17 to 19 the weekday from Monday 1, 12 to 16 the hour.
pub(super) fn rule_moment(rule: u32, year: i32) -> Option<NaiveDateTime> {
    if rule == u32::MAX {
        return None;
    }
    let (month, which, day, weekday, hour) =
        (rule >> 28, (rule >> 25) & 7, (rule >> 20) & 31, (rule >> 17) & 7, (rule >> 12) & 31);
    let weekday = Weekday::try_from(u8::try_from(weekday.checked_sub(1).unwrap_or(6)).ok()?).ok()?;
    let date = match which {
        0 => NaiveDate::from_ymd_opt(year, month, day)?,
        1 => {
            let from = NaiveDate::from_ymd_opt(year, month, day.max(1))?;
            (0..7).map(|n| from + TimeDelta::days(n)).find(|date| date.weekday() == weekday)?
        }
        2..=6 => NaiveDate::from_weekday_of_month_opt(year, month, weekday, u8::try_from(which - 1).ok()?)?,
        _ => (1..=5).rev().find_map(|nth| NaiveDate::from_weekday_of_month_opt(year, month, weekday, nth))?,
    };
    date.and_hms_opt(hour, 0, 0)
}

impl Clock {
    /// Minutes of the house's clock at this second of UTC.
    fn local(&self, utc: i64) -> i64 {
        let standard = utc + self.offset;
        let summer = || {
            let moment = DateTime::from_timestamp(standard, 0)?.naive_utc();
            let from = rule_moment(self.from?, moment.year())?;
            // The end is told on the summer clock.
            let to = rule_moment(self.to?, moment.year())? - TimeDelta::seconds(self.summer);
            Some(if from < to { from <= moment && moment < to } else { moment >= from || moment < to })
        };
        let set = if self.summer != 0 && summer().unwrap_or(false) { self.summer } else { 0 };
        (standard + set).div_euclid(60)
    }
}

/// The intervals of the feed, on the house's clock; what flows out counts less than nothing.
pub(super) fn read(bytes: &[u8]) -> Result<Vec<Interval>, UsageError> {
    let (entries, clock) = entries(bytes)?;
    if entries.iter().all(|entry| entry.readings.is_empty()) {
        return Err(UsageError::NotUsage);
    }
    let types: BTreeMap<&str, ReadingType> =
        entries.iter().filter_map(|entry| Some((entry.own.as_str(), entry.reading_type?))).collect();
    let meter_readings: BTreeMap<&str, &Entry> =
        entries.iter().filter(|entry| entry.is_meter_reading).map(|entry| (entry.own.as_str(), entry)).collect();
    let only = (types.len() == 1).then(|| types.values().next().copied()).flatten();
    let mut by_time: BTreeMap<(i64, i64), f64> = BTreeMap::new();
    let mut seen: BTreeMap<(i64, i64, bool), f64> = BTreeMap::new();
    for entry in entries.iter().filter(|entry| !entry.readings.is_empty()) {
        // A block's `up` is the collection below its meter reading, which names its type.
        let of_reading = meter_readings.iter().find(|(own, _)| belongs(&entry.up, own));
        let named = of_reading.and_then(|(_, meter)| meter.related.iter().find_map(|to| types.get(to.as_str()).copied()));
        let of = named.or(only).unwrap_or_default();
        let out = of.direction == Some(19);
        for raw in &entry.readings {
            let seconds = if raw.seconds > 0 { raw.seconds } else { of.seconds.unwrap_or(0) };
            let value = raw.value * 10_f64.powi(of.multiplier);
            let watts = match of.unit {
                Some(72) | None if seconds > 0 => value * 3600.0 / seconds as f64,
                Some(38) => value,
                Some(other) if other != 72 => return Err(UsageError::OtherUnit(format!("number {other}"))),
                _ => continue,
            };
            let watts = if out { -watts } else { watts };
            // The same block twice is one; two meters with different figures are told apart below.
            match seen.insert((raw.start, seconds, out), watts) {
                Some(before) if (before - watts).abs() < 0.05 => {}
                Some(_) => {
                    let at =
                        DateTime::from_timestamp(clock.local(raw.start) * 60, 0).map(|at| at.naive_utc()).unwrap_or_default();
                    let two = wayfinder_core::loads::interval::IntervalError::TwoForOneTime;
                    return Err(two(at.format("%Y-%m-%d %H:%M").to_string()).into());
                }
                None => *by_time.entry((raw.start, seconds)).or_default() += watts,
            }
        }
    }
    let minutes = |seconds: i64| u16::try_from(seconds / 60).unwrap_or(u16::MAX);
    Ok(by_time
        .into_iter()
        .map(|((start, seconds), watts)| Interval { at: clock.local(start), minutes: minutes(seconds), watts })
        .collect())
}

fn entries(bytes: &[u8]) -> Result<(Vec<Entry>, Clock), UsageError> {
    let damaged = |error: &dyn std::fmt::Display| UsageError::Damaged(error.to_string());
    let mut reader = Reader::from_reader(bytes);
    reader.config_mut().trim_text(true);
    let mut all = Vec::new();
    let mut entry = Entry::default();
    let mut clock = Clock::default();
    let mut path: Vec<String> = Vec::new();
    let mut text = String::new();
    let mut raw = Raw::default();
    let mut count = 0_usize;
    let mut buffer = Vec::new();
    loop {
        match reader.read_event_into(&mut buffer).map_err(|error| damaged(&error))? {
            Event::DocType(_) => return Err(UsageError::DocumentType),
            Event::Empty(tag) => {
                link(&tag, &mut entry);
                entry.is_meter_reading |= local_name(&tag) == "MeterReading";
            }
            Event::Start(tag) => {
                let name = local_name(&tag);
                link(&tag, &mut entry);
                match name.as_str() {
                    "entry" => entry = Entry::default(),
                    "IntervalReading" => raw = Raw::default(),
                    "ReadingType" => entry.reading_type = Some(ReadingType::default()),
                    "MeterReading" => entry.is_meter_reading = true,
                    _ => {}
                }
                path.push(name);
                text.clear();
            }
            Event::Text(part) => text.push_str(part.as_ref()),
            Event::End(_) => {
                let name = path.pop().unwrap_or_default();
                let within = |outer: &str| path.iter().any(|tag| tag == outer);
                let number = || text.trim().parse::<i64>().ok();
                // Seconds of any time that a file may speak of; past that it is damaged.
                let seconds = |most: i64| match number() {
                    Some(n) if !(-most..=most).contains(&n) => Err(UsageError::Damaged(format!("{name} is {n} seconds"))),
                    n => Ok(n),
                };
                if name == "entry" {
                    all.push(std::mem::take(&mut entry));
                } else if within("IntervalReading") {
                    match name.as_str() {
                        "start" => raw.start = seconds(LATEST_S)?.unwrap_or(0),
                        "duration" => raw.seconds = seconds(YEAR_S)?.unwrap_or(0),
                        "value" if path.last().is_some_and(|tag| tag == "IntervalReading") => {
                            raw.value = text.trim().parse().unwrap_or(0.0);
                        }
                        _ => {}
                    }
                } else if name == "IntervalReading" {
                    count += 1;
                    if count > MOST_READINGS {
                        return Err(UsageError::TooMany);
                    }
                    entry.readings.push(raw);
                } else if within("ReadingType") {
                    if let Some(of) = entry.reading_type.as_mut() {
                        match name.as_str() {
                            "powerOfTenMultiplier" => {
                                of.multiplier = number().and_then(|n| i32::try_from(n).ok()).unwrap_or(0).clamp(-12, 12)
                            }
                            "uom" => of.unit = number().and_then(|n| u32::try_from(n).ok()),
                            "flowDirection" => of.direction = number().and_then(|n| u32::try_from(n).ok()),
                            "intervalLength" => of.seconds = seconds(YEAR_S)?,
                            _ => {}
                        }
                    }
                } else if within("LocalTimeParameters") {
                    match name.as_str() {
                        "tzOffset" => clock.offset = seconds(DAY_S)?.unwrap_or(0),
                        "dstOffset" => clock.summer = seconds(DAY_S)?.unwrap_or(0),
                        "dstStartRule" => clock.from = u32::from_str_radix(text.trim(), 16).ok(),
                        "dstEndRule" => clock.to = u32::from_str_radix(text.trim(), 16).ok(),
                        _ => {}
                    }
                }
                text.clear();
            }
            Event::Eof => break,
            _ => {}
        }
        buffer.clear();
    }
    if !path.is_empty() {
        return Err(UsageError::Damaged("it ends in the middle".into()));
    }
    // Without a feed around them the blocks stand alone.
    if !entry.readings.is_empty() || entry.reading_type.is_some() {
        all.push(entry);
    }
    Ok((all, clock))
}

/// Whether an address is this one or one below it.
fn belongs(address: &str, own: &str) -> bool {
    !own.is_empty() && address.strip_prefix(own).is_some_and(|rest| rest.is_empty() || rest.starts_with('/'))
}

fn link(tag: &BytesStart<'_>, entry: &mut Entry) {
    if tag.local_name().as_ref() != "link" {
        return;
    }
    let Some(to) = attribute(tag, "href") else { return };
    match attribute(tag, "rel").as_deref() {
        Some("self") => entry.own = to,
        Some("up") => entry.up = to,
        Some("related") => entry.related.push(to),
        _ => {}
    }
}
