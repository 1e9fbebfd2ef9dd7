//! Interval data as a table: which column is the time, which the figures, and in what unit.

use chrono::{DateTime, NaiveDate, NaiveDateTime, NaiveTime};
use serde::{Deserialize, Serialize};

use super::{Interval, MOST_READINGS, UsageChoices, UsageError, minutes};

/// The unit of the figures.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum UsageUnit {
    /// Kilowatt-hours of the interval.
    Kwh,
    /// Watt-hours of the interval.
    Wh,
    /// Kilowatts, the mean of the interval.
    Kw,
    /// Watts, the mean of the interval.
    W,
}

impl UsageUnit {
    /// Every unit.
    pub const ALL: [Self; 4] = [Self::Kwh, Self::Wh, Self::Kw, Self::W];

    fn watts(self, figure: f64, minutes: u16) -> f64 {
        let hours = f64::from(minutes) / 60.0;
        match self {
            Self::Kwh => figure * 1000.0 / hours,
            Self::Wh => figure / hours,
            Self::Kw => figure * 1000.0,
            Self::W => figure,
        }
    }

    /// As a header or a column of units has it.
    fn read(words: &str) -> Option<Self> {
        let words = words.to_lowercase().replace(['-', ' '], "");
        let has = |unit: &str| words.contains(unit);
        if has("kwh") || has("kilowatthour") {
            Some(Self::Kwh)
        } else if has("wh") || has("watthour") {
            Some(Self::Wh)
        } else if has("kw") || has("kilowatt") {
            Some(Self::Kw)
        } else if words == "w" || has("(w)") || has("watt") {
            Some(Self::W)
        } else {
            None
        }
    }
}

/// A column.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct UsageColumn {
    /// What stands over it.
    pub name: String,
    /// Its first cells.
    pub first: Vec<String>,
    /// It can be read as figures.
    pub figures: bool,
}

/// The columns of a table, and which of them were taken.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct UsageColumns {
    /// All of them.
    pub all: Vec<UsageColumn>,
    /// Those of the time: one, or a date and a time of day.
    pub time: Vec<usize>,
    /// That of the figures.
    pub value: usize,
    /// Their unit.
    pub unit: UsageUnit,
    /// The table says the unit; else it is a guess.
    pub unit_is_said: bool,
    /// The meters in it, where there are several.
    pub meters: Vec<String>,
    /// The meter that was taken.
    pub meter: Option<String>,
    /// A column of what flowed out has figures.
    pub flows_out: bool,
}

pub(super) struct Table {
    pub(super) intervals: Vec<Interval>,
    pub(super) columns: UsageColumns,
    pub(super) unread_rows: usize,
}

/// How many rows are looked at to guess.
const LOOKED_AT: usize = 60;
/// Rows before the header that are passed over: name, address, account.
const PREAMBLE: usize = 40;

const MOMENTS: [&str; 12] = [
    "%Y-%m-%d %H:%M:%S",
    "%Y-%m-%d %H:%M",
    "%Y-%m-%dT%H:%M:%S",
    "%Y-%m-%dT%H:%M",
    "%m/%d/%Y %I:%M:%S %p",
    "%m/%d/%Y %I:%M %p",
    "%m/%d/%Y %H:%M:%S",
    "%m/%d/%Y %H:%M",
    "%m/%d/%y %I:%M %p",
    "%m/%d/%y %H:%M",
    "%Y/%m/%d %H:%M:%S",
    "%Y/%m/%d %H:%M",
];
const DATES: [&str; 5] = ["%Y-%m-%d", "%m/%d/%Y", "%m/%d/%y", "%Y/%m/%d", "%Y%m%d"];
const TIMES: [&str; 5] = ["%H:%M:%S", "%H:%M", "%I:%M:%S %p", "%I:%M %p", "%I:%M%p"];

/// The order of day and month where the figures leave it open.
#[derive(Clone, Copy, PartialEq)]
enum Order {
    AsWritten,
    DayFirst,
}

fn ordered(format: &str, order: Order) -> String {
    match order {
        Order::AsWritten => format.into(),
        Order::DayFirst => format.replace("%m/%d", "%d/%m"),
    }
}

fn moment(cell: &str, order: Order) -> Option<NaiveDateTime> {
    let cell = cell.trim();
    // The clock of the house is what is written; the offset behind it says that this is so.
    if let Ok(at) = DateTime::parse_from_rfc3339(&cell.replacen(' ', "T", 1)) {
        return Some(at.naive_local());
    }
    // A span, `2026-01-14 18:00 to 2026-01-14 18:15`, begins with its start.
    let cell = cell.split(" to ").next().unwrap_or(cell);
    MOMENTS.iter().find_map(|format| NaiveDateTime::parse_from_str(cell, &ordered(format, order)).ok())
}

fn date(cell: &str, order: Order) -> Option<NaiveDate> {
    DATES.iter().find_map(|format| NaiveDate::parse_from_str(cell.trim(), &ordered(format, order)).ok())
}

fn time_of_day(cell: &str) -> Option<NaiveTime> {
    let cell = cell.trim().to_uppercase();
    TIMES.iter().find_map(|format| NaiveTime::parse_from_str(&cell, format).ok())
}

/// `0.45`, `1,234.5`, `0,45` in a table with semicolons.
fn figure(cell: &str, comma: bool) -> Option<f64> {
    let cell = cell.trim().trim_end_matches(|c: char| c.is_ascii_alphabetic() || c == ' ');
    let plain = if comma { cell.replace('.', "").replace(',', ".") } else { cell.replace(',', "") };
    plain.parse().ok().filter(|figure: &f64| figure.is_finite())
}

fn rows(bytes: &[u8]) -> Result<(Vec<csv::StringRecord>, bool), UsageError> {
    let text = match std::str::from_utf8(bytes) {
        Ok(text) => text.to_owned(),
        Err(_) => bytes.iter().map(|b| char::from(*b)).collect(),
    };
    let head: String = text.lines().take(PREAMBLE).collect::<Vec<_>>().join("\n");
    let delimiter =
        [b'\t', b';', b','].into_iter().max_by_key(|d| (head.matches(char::from(*d)).count(), *d == b',')).unwrap_or(b',');
    let mut reader =
        csv::ReaderBuilder::new().has_headers(false).flexible(true).delimiter(delimiter).from_reader(text.as_bytes());
    let mut all = Vec::new();
    for record in reader.records() {
        if all.len() >= MOST_READINGS + PREAMBLE {
            return Err(UsageError::TooMany);
        }
        all.push(record.map_err(|_| UsageError::NotUsage)?);
    }
    Ok((all, delimiter == b';'))
}

const TAKEN: [&str; 8] = ["usage", "consumption", "import", "delivered", "energy", "demand", "value", "kw"];
const OUT: [&str; 6] = ["generation", "export", "received", "to grid", "returned", "production"];
const METER: [&str; 5] = ["meter", "esi", "service point", "account", "nmi"];

fn names(header: &str, words: &[&str]) -> bool {
    let header = header.to_lowercase();
    words.iter().any(|word| header.contains(word))
}

pub(super) fn read(bytes: &[u8], choices: &UsageChoices) -> Result<Table, UsageError> {
    let (rows, comma) = rows(bytes)?;
    let cell = |row: &csv::StringRecord, column: usize| row.get(column).unwrap_or("").to_owned();
    // The body begins with the first row that has a date; the row above it says what stands over the columns.
    let is_date = |text: &str| {
        moment(text, Order::AsWritten).is_some()
            || moment(text, Order::DayFirst).is_some()
            || date(text, Order::AsWritten).is_some()
            || date(text, Order::DayFirst).is_some()
    };
    let begins = |row: &csv::StringRecord| {
        row.len() > 1 && row.iter().any(is_date) && row.iter().any(|text| figure(text, comma).is_some())
    };
    let body = rows.iter().take(PREAMBLE).position(begins).ok_or(UsageError::NoTime)?;
    let header: Vec<String> = match body.checked_sub(1) {
        Some(above) => rows[above].iter().map(|name| name.trim().to_owned()).collect(),
        None => Vec::new(),
    };
    let body = &rows[body..];
    let looked_at = &body[..body.len().min(LOOKED_AT)];
    let width = looked_at.iter().map(csv::StringRecord::len).max().unwrap_or(0);
    let share = |fits: &dyn Fn(&str) -> bool, column: usize| {
        let fitting = looked_at.iter().filter(|row| fits(row.get(column).unwrap_or(""))).count();
        10 * fitting >= 8 * looked_at.len()
    };
    // A first part above 12 anywhere is a day: then the day stands first in the whole table.
    let first_part = |text: &str| text.split('/').next().and_then(|part| part.trim().parse::<u32>().ok());
    let day_first = body
        .iter()
        .any(|row| row.iter().any(|text| text.contains('/') && first_part(text).is_some_and(|n| (13..32).contains(&n))));
    let order = if day_first { Order::DayFirst } else { Order::AsWritten };
    let whole = (0..width).find(|column| share(&|text| moment(text, order).is_some(), *column));
    let time: Vec<usize> = match whole {
        Some(column) => vec![column],
        None => {
            let day = (0..width).find(|column| share(&|text| date(text, order).is_some(), *column)).ok_or(UsageError::NoTime)?;
            let of_day =
                (0..width).find(|column| share(&|text| time_of_day(text).is_some(), *column)).ok_or(UsageError::NoTimeOfDay)?;
            vec![day, of_day]
        }
    };
    let over = |column: usize| header.get(column).cloned().unwrap_or_default();
    let is_figures = |column: usize| {
        !time.contains(&column) && share(&|text| figure(text, comma).is_some(), column) && !names(&over(column), &METER)
    };
    let candidates: Vec<usize> = (0..width).filter(|column| is_figures(*column)).collect();
    let rank = |column: &usize| {
        let name = over(*column).to_lowercase();
        let cost = names(&name, &["cost", "price", "$", "temp", "rate", "amount"]);
        (cost || names(&name, &OUT), TAKEN.iter().position(|word| name.contains(word)).unwrap_or(TAKEN.len()))
    };
    let guessed = candidates.iter().min_by_key(|column| rank(column)).copied();
    let value = choices.value.filter(|column| candidates.contains(column)).or(guessed).ok_or(UsageError::NoFigures)?;
    let of_units = (0..width).find(|column| names(&over(*column), &["unit", "uom"]));
    let in_cells = of_units.and_then(|column| looked_at.first().and_then(|row| UsageUnit::read(row.get(column).unwrap_or(""))));
    let said = UsageUnit::read(&over(value)).or(in_cells);
    let unit = choices.unit.or(said).unwrap_or(UsageUnit::Kwh);
    let of_meter = (0..width).find(|column| !time.contains(column) && *column != value && names(&over(*column), &METER));
    let mut meters: Vec<String> = Vec::new();
    if let Some(column) = of_meter {
        for row in body {
            let name = cell(row, column);
            if !name.is_empty() && !meters.contains(&name) && meters.len() < 20 {
                meters.push(name);
            }
        }
    }
    let meter = choices.meter.clone().filter(|name| meters.contains(name));
    let out = candidates.iter().filter(|column| names(&over(**column), &OUT));
    let flows_out = out.clone().any(|column| body.iter().any(|row| figure(&cell(row, *column), comma).is_some_and(|n| n > 0.0)));

    let mut moments: Vec<(i64, f64)> = Vec::with_capacity(body.len());
    let mut unread_rows = 0;
    for row in body {
        if meter.is_some() && of_meter.is_some_and(|column| Some(cell(row, column)) != meter) {
            continue;
        }
        let at = match time.as_slice() {
            [day, of_day] => row
                .get(*day)
                .and_then(|day| date(day, order))
                .zip(row.get(*of_day).and_then(time_of_day))
                .map(|(day, time)| day.and_time(time)),
            whole => whole.first().and_then(|column| moment(row.get(*column).unwrap_or(""), order)),
        };
        match at.zip(figure(row.get(value).unwrap_or(""), comma)) {
            Some((at, figure)) => moments.push((minutes(at), figure)),
            None if row.iter().all(|text| text.trim().is_empty()) => {}
            None => unread_rows += 1,
        }
    }
    let length = usual_step(&moments);
    let intervals = moments
        .into_iter()
        .map(|(at, figure)| Interval { at, minutes: length, watts: unit.watts(figure, length.max(1)) })
        .collect();
    let all = (0..width).map(|column| UsageColumn {
        name: over(column),
        first: looked_at.iter().take(3).map(|row| cell(row, column)).collect(),
        figures: candidates.contains(&column),
    });
    let columns = UsageColumns { all: all.collect(), time, value, unit, unit_is_said: said.is_some(), meters, meter, flows_out };
    Ok(Table { intervals, columns, unread_rows })
}

/// The step from row to row that is most frequent, in minutes.
fn usual_step(moments: &[(i64, f64)]) -> u16 {
    let mut counts: std::collections::BTreeMap<i64, usize> = std::collections::BTreeMap::new();
    for pair in moments.windows(2) {
        let step = (pair[1].0 - pair[0].0).abs();
        if step > 0 {
            *counts.entry(step).or_default() += 1;
        }
    }
    let usual = counts.into_iter().max_by_key(|(step, count)| (*count, -step)).map_or(0, |(step, _)| step);
    u16::try_from(usual).unwrap_or(u16::MAX)
}
