//! Spreadsheets in: CSV (also with semicolons or tabs), XLSX and ODS, as rows of text.
//!
//! A card has at most 84 spaces, so a sheet is read up to a bound and refused with a sentence beyond it;
//! archives are bounded before they are opened. Formulas are not worked out: the value that was saved with
//! them counts.

use std::io::{BufReader, Cursor, Read};

use calamine::{Data, DataRef, Reader as _, Xlsx};
use quick_xml::Reader;
use quick_xml::events::{BytesStart, Event};

/// The most rows that are looked at.
pub const MOST_ROWS: usize = 2000;
/// The most columns that are looked at.
const MOST_COLUMNS: usize = 40;
/// The most characters of a cell that are kept.
const MOST_LETTERS: usize = 300;
/// The most that an archive may unpack to.
const MOST_UNPACKED: u64 = 48 << 20;

/// Why a sheet was not read.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum SheetError {
    /// It is none of the three kinds.
    #[error("This is no spreadsheet: it is neither CSV nor XLSX nor ODS. Save the sheet as one of these.")]
    NotASheet,
    /// It has more rows than a card can need.
    #[error("This sheet has more than {MOST_ROWS} rows; a panel has at most 84 spaces. Save the card alone as a sheet.")]
    TooManyRows,
    /// It unpacks to more than is taken.
    #[error("This file unpacks to more than {} MB. Save the card alone as a sheet.", MOST_UNPACKED >> 20)]
    TooLarge,
    /// It is damaged.
    #[error("This {0} file cannot be read: {1}. Save it anew, or as CSV.")]
    Damaged(&'static str, String),
    /// There is nothing in it.
    #[error("There is nothing in this sheet.")]
    Empty,
}

/// The rows of the first sheet that has any, as text.
pub fn read_rows(bytes: &[u8]) -> Result<Vec<Vec<String>>, SheetError> {
    let mut rows = if bytes.starts_with(b"PK\x03\x04") { archive(bytes)? } else { csv(bytes)? };
    while rows.last().is_some_and(|row| row.iter().all(|cell| cell.trim().is_empty())) {
        rows.pop();
    }
    if rows.is_empty() { Err(SheetError::Empty) } else { Ok(rows) }
}

fn kept(cell: &str) -> String {
    cell.chars().filter(|c| !c.is_control()).take(MOST_LETTERS).collect()
}

fn csv(bytes: &[u8]) -> Result<Vec<Vec<String>>, SheetError> {
    let bytes = bytes.strip_prefix(b"\xef\xbb\xbf").unwrap_or(bytes);
    if bytes.iter().take(4000).any(|b| *b < 9 || (14..32).contains(b)) {
        return Err(SheetError::NotASheet);
    }
    // What is not UTF-8 is taken as Western European, as older spreadsheets save it.
    let text = match std::str::from_utf8(bytes) {
        Ok(text) => text.to_owned(),
        Err(_) => bytes.iter().map(|b| char::from(*b)).collect(),
    };
    let head: String = text.lines().take(20).collect::<Vec<_>>().join("\n");
    let delimiter =
        [b'\t', b';', b','].into_iter().max_by_key(|d| (head.matches(char::from(*d)).count(), *d == b',')).unwrap_or(b',');
    let mut reader =
        csv::ReaderBuilder::new().has_headers(false).flexible(true).delimiter(delimiter).from_reader(text.as_bytes());
    let mut rows = Vec::new();
    // The reader passes blank lines over; a row's own line keeps the numbers that a person sees.
    for record in reader.records() {
        let record = record.map_err(|error| SheetError::Damaged("CSV", error.to_string()))?;
        if rows.len() >= MOST_ROWS {
            return Err(SheetError::TooManyRows);
        }
        let line = record.position().map_or(rows.len(), |p| p.line().saturating_sub(1) as usize).min(MOST_ROWS);
        while rows.len() < line {
            rows.push(Vec::new());
        }
        rows.push(record.iter().take(MOST_COLUMNS).map(|cell| kept(cell.strip_prefix('\'').unwrap_or(cell))).collect());
    }
    Ok(rows)
}

fn archive(bytes: &[u8]) -> Result<Vec<Vec<String>>, SheetError> {
    let mut zip = zip::ZipArchive::new(Cursor::new(bytes)).map_err(|_| SheetError::NotASheet)?;
    let mut unpacked = 0_u64;
    for n in 0..zip.len() {
        let file = zip.by_index_raw(n).map_err(|error| SheetError::Damaged("spreadsheet", error.to_string()))?;
        unpacked = file.size().saturating_add(unpacked);
    }
    if unpacked > MOST_UNPACKED || zip.len() > 2000 {
        return Err(SheetError::TooLarge);
    }
    if zip.index_for_name("content.xml").is_some() {
        // The sizes that an archive states may be a lie: reading stops at the bound all the same.
        let mut xml = Vec::new();
        let file = zip.by_name("content.xml").map_err(|error| SheetError::Damaged("ODS", error.to_string()))?;
        file.take(MOST_UNPACKED).read_to_end(&mut xml).map_err(|error| SheetError::Damaged("ODS", error.to_string()))?;
        ods(&xml)
    } else if zip.index_for_name("xl/workbook.xml").is_some() {
        if strings_said(&mut zip)? > MOST_STRINGS {
            return Err(SheetError::TooLarge);
        }
        // The reader is not ours; whatever it makes of a damaged file must not take the program along.
        let read = std::panic::catch_unwind(|| xlsx(bytes));
        read.unwrap_or_else(|_| Err(SheetError::Damaged("XLSX", "its parts contradict each other".into())))
    } else {
        Err(SheetError::NotASheet)
    }
}

/// So many texts may a workbook say that it holds.
const MOST_STRINGS: u64 = 1_000_000;

/// How many texts the workbook says that it holds: the reader makes room for that many, whether it is true or not. What is no number is
/// taken for too many.
fn strings_said(zip: &mut zip::ZipArchive<Cursor<&[u8]>>) -> Result<u64, SheetError> {
    let mut most = 0;
    for n in 0..zip.len() {
        let part = zip.by_index(n).map_err(|error| SheetError::Damaged("spreadsheet", error.to_string()))?;
        let mut reader = quick_xml::Reader::from_reader(BufReader::new(part.take(MOST_UNPACKED)));
        // As little strict as the reader that comes after.
        reader.config_mut().check_end_names = false;
        let mut buffer = Vec::new();
        loop {
            buffer.clear();
            match reader.read_event_into(&mut buffer) {
                Ok(Event::Start(tag) | Event::Empty(tag)) if tag.local_name().as_ref() == "sst" => {
                    let counts = tag.attributes().flatten().filter(|of| matches!(of.key.as_ref(), "count" | "uniqueCount"));
                    most = counts.map(|of| of.value.parse().unwrap_or(u64::MAX)).fold(most, u64::max);
                    break;
                }
                Ok(Event::Eof) | Err(_) => break,
                Ok(_) => {}
            }
        }
    }
    Ok(most)
}

/// Cell by cell, as far as the bound: a sheet with one cell at its far corner costs no more than that cell.
fn xlsx(bytes: &[u8]) -> Result<Vec<Vec<String>>, SheetError> {
    let damaged = |error: calamine::XlsxError| SheetError::Damaged("XLSX", error.to_string());
    let mut book: Xlsx<_> = calamine::open_workbook_from_rs(BufReader::new(Cursor::new(bytes))).map_err(damaged)?;
    for name in book.sheet_names() {
        let mut rows: Vec<Vec<String>> = Vec::new();
        let mut cells = match book.worksheet_cells_reader(&name) {
            Ok(cells) => cells,
            Err(calamine::XlsxError::NotAWorksheet(_)) => continue,
            Err(error) => return Err(damaged(error)),
        };
        while let Some(cell) = cells.next_cell().map_err(damaged)? {
            let (row, column) = (cell.get_position().0 as usize, cell.get_position().1 as usize);
            let text = kept(&match cell.get_value() {
                DataRef::Empty => continue,
                DataRef::Float(number) => number.to_string(),
                DataRef::SharedString(text) => (*text).to_owned(),
                other => Data::from(other.clone()).to_string(),
            });
            if text.trim().is_empty() || column >= MOST_COLUMNS {
                continue;
            }
            if row >= MOST_ROWS {
                return Err(SheetError::TooManyRows);
            }
            put(&mut rows, row, column, text);
        }
        if !rows.is_empty() {
            return Ok(rows);
        }
    }
    Ok(Vec::new())
}

fn put(rows: &mut Vec<Vec<String>>, row: usize, column: usize, text: String) {
    if rows.len() <= row {
        rows.resize(row + 1, Vec::new());
    }
    if rows[row].len() <= column {
        rows[row].resize(column + 1, String::new());
    }
    rows[row][column] = text;
}

/// The first table of an OpenDocument sheet. Repeated rows and cells are counted, not copied, where they are
/// empty: such files fill themselves up to the last row.
fn ods(xml: &[u8]) -> Result<Vec<Vec<String>>, SheetError> {
    let damaged = |error: String| SheetError::Damaged("ODS", error);
    let xml = std::str::from_utf8(xml).map_err(|error| damaged(error.to_string()))?;
    let mut reader = Reader::from_str(xml);
    let (mut rows, mut row, mut column) = (Vec::<Vec<String>>::new(), 0_usize, 0_usize);
    let mut current: Vec<(usize, usize, String)> = Vec::new();
    let mut cell: Option<(usize, String)> = None;
    let mut row_repeat = 1;
    let mut paragraphs = 0;
    loop {
        match reader.read_event().map_err(|error| damaged(error.to_string()))? {
            Event::Start(tag) if tag.name().as_ref() == "table:table-row" => {
                row_repeat = repeat(&tag, "table:number-rows-repeated");
                (column, current) = (0, Vec::new());
            }
            Event::Empty(tag) if tag.name().as_ref() == "table:table-row" => {
                row += repeat(&tag, "table:number-rows-repeated");
            }
            Event::Empty(tag) if is_cell(&tag) => column += repeat(&tag, "table:number-columns-repeated"),
            Event::Start(tag) if is_cell(&tag) => {
                paragraphs = 0;
                cell = Some((repeat(&tag, "table:number-columns-repeated"), String::new()));
            }
            Event::Start(tag) if tag.name().as_ref() == "text:p" => {
                if let Some((_, text)) = cell.as_mut().filter(|_| paragraphs > 0) {
                    text.push(' ');
                }
                paragraphs += 1;
            }
            Event::Empty(tag) if tag.name().as_ref() == "text:s" => {
                if let Some((_, text)) = cell.as_mut() {
                    text.push(' ');
                }
            }
            Event::Text(text) => {
                if let Some((_, cell)) = cell.as_mut().filter(|(_, cell)| cell.len() < 4 * MOST_LETTERS) {
                    cell.push_str(&text);
                }
            }
            Event::GeneralRef(entity) => {
                if let Some((_, cell)) = cell.as_mut().filter(|(_, cell)| cell.len() < 4 * MOST_LETTERS) {
                    cell.push(match entity.as_ref() {
                        "amp" => '&',
                        "lt" => '<',
                        "gt" => '>',
                        "quot" => '"',
                        "apos" => '\'',
                        _ => entity.resolve_char_ref().ok().flatten().unwrap_or('?'),
                    });
                }
            }
            Event::End(tag) if tag.name().as_ref() == "table:table-cell" || tag.name().as_ref() == "table:covered-table-cell" => {
                if let Some((times, text)) = cell.take() {
                    if !text.trim().is_empty() {
                        current.push((column, times.min(MOST_COLUMNS), kept(&text)));
                    }
                    column += times;
                }
            }
            Event::End(tag) if tag.name().as_ref() == "table:table-row" => {
                for n in 0..if current.is_empty() { 0 } else { row_repeat } {
                    if row + n >= MOST_ROWS {
                        return Err(SheetError::TooManyRows);
                    }
                    for (column, times, text) in &current {
                        for at in *column..(column + times).min(MOST_COLUMNS) {
                            put(&mut rows, row + n, at, text.clone());
                        }
                    }
                }
                row = row.saturating_add(row_repeat);
            }
            Event::End(tag) if tag.name().as_ref() == "table:table" => {
                if !rows.is_empty() {
                    return Ok(rows);
                }
                row = 0;
            }
            Event::Eof => return Ok(rows),
            _ => {}
        }
    }
}

fn is_cell(tag: &BytesStart<'_>) -> bool {
    ["table:table-cell", "table:covered-table-cell"].contains(&tag.name().as_ref())
}

fn repeat(tag: &BytesStart<'_>, name: &str) -> usize {
    let value = tag.attributes().flatten().find(|a| a.key.as_ref() == name);
    value.and_then(|a| a.value.parse().ok()).unwrap_or(1)
}
