//! The utility's interval data in: CSV as utilities export it, and the open usage XML (ESPI, NAESB REQ.21).
//!
//! Bytes in, intervals on the clock of the house out, with what was guessed about the columns. Nothing outside the file is ever read:
//! a document type, where entities could be, is refused.

use chrono::NaiveDateTime;
use serde::{Deserialize, Serialize};
use wayfinder_core::loads::interval::{DemandRead, Interval, IntervalError, demand};

mod espi;
mod table;

pub use table::{UsageColumn, UsageColumns, UsageUnit};

/// The most bytes that are taken: ten years of quarters of an hour with room to spare.
pub const MOST_USAGE_BYTES: usize = 48 << 20;
/// The most readings that are taken.
pub const MOST_READINGS: usize = 1_000_000;

/// Why a file of usage was not read.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum UsageError {
    /// It is neither.
    #[error("This is neither a CSV file nor usage XML. Export the interval data (“15-minute” or “hourly”) as one of these.")]
    NotUsage,
    /// It has too many.
    #[error("It has more than {MOST_READINGS} readings. Export one year.")]
    TooMany,
    /// The XML declares a document type.
    #[error(
        "This XML declares a document type, in which something outside could be named. Usage files have none, so it is not read."
    )]
    DocumentType,
    /// The XML is damaged.
    #[error("This XML cannot be read: {0}. Export it anew.")]
    Damaged(String),
    /// No column can be read as a time.
    #[error("No column can be read as a date and time. Interval data have one row for each 15 minutes or hour.")]
    NoTime,
    /// Each row is a day or a month.
    #[error("There is a date and no time of day: one row for a day or a month shows no demand. Export the interval data.")]
    NoTimeOfDay,
    /// No column can be read as figures.
    #[error("No column can be read as energy or power. Choose the column, or export the interval data.")]
    NoFigures,
    /// What is measured is no electricity, or in no unit known here.
    #[error("Its unit is {0}, which is neither watt-hours nor watts of electricity.")]
    OtherUnit(String),
    /// What was read is no demand.
    #[error(transparent)]
    NoDemand(#[from] IntervalError),
}

/// What was read of a file.
#[derive(Debug, Clone, PartialEq)]
pub struct UsageFile {
    /// The columns, where it is a table.
    pub columns: Option<UsageColumns>,
    /// The first rows as read.
    pub first: Vec<FirstRow>,
    /// Rows that could not be read, and do not count.
    pub unread_rows: usize,
    /// The demand, and what was done with the file.
    pub read: DemandRead,
}

/// A row as it was read, to be compared with the file.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct FirstRow {
    /// When it begins: `2026-01-14 18:15`.
    pub at: String,
    /// Minutes.
    pub minutes: u16,
    /// The mean in kilowatts.
    pub kw: f64,
}

/// What somebody chose in place of what was guessed; columns count from 0.
#[derive(Debug, Clone, Default, PartialEq, Deserialize)]
pub struct UsageChoices {
    /// The column of the figures.
    pub value: Option<usize>,
    /// Their unit.
    pub unit: Option<UsageUnit>,
    /// The meter.
    pub meter: Option<String>,
}

/// Reads a file of usage.
pub fn read_usage(bytes: &[u8], choices: &UsageChoices) -> Result<UsageFile, UsageError> {
    let bytes = bytes.strip_prefix(b"\xef\xbb\xbf").unwrap_or(bytes);
    if bytes.iter().take(4000).any(|b| *b < 9 || (14..32).contains(b)) || bytes.iter().all(u8::is_ascii_whitespace) {
        return Err(UsageError::NotUsage);
    }
    let is_xml = bytes.iter().find(|b| !b.is_ascii_whitespace()) == Some(&b'<');
    let (intervals, columns, unread_rows) = if is_xml {
        (espi::read(bytes)?, None, 0)
    } else {
        let table = table::read(bytes, choices)?;
        (table.intervals, Some(table.columns), table.unread_rows)
    };
    let first = intervals.iter().take(5).map(first_row).collect();
    let mut read = demand(intervals)?;
    if columns.as_ref().is_some_and(|columns| columns.flows_out) {
        read.demand.netted = true;
    }
    if unread_rows > 0 {
        let rows = if unread_rows == 1 { "1 row".to_owned() } else { format!("{unread_rows} rows") };
        read.remarks.push(format!("{rows} could not be read and do not count."));
    }
    Ok(UsageFile { columns, first, unread_rows, read })
}

fn first_row(interval: &Interval) -> FirstRow {
    let at = chrono::DateTime::from_timestamp(interval.at * 60, 0).map(|at| at.naive_utc()).unwrap_or_default();
    FirstRow {
        at: at.format("%Y-%m-%d %H:%M").to_string(),
        minutes: interval.minutes,
        kw: (interval.watts / 10.0).round() / 100.0,
    }
}

/// Minutes since 1970 of a clock.
fn minutes(at: NaiveDateTime) -> i64 {
    at.and_utc().timestamp().div_euclid(60)
}
