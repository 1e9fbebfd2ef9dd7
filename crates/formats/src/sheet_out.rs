//! The panel's circuits as a sheet: CSV, XLSX and ODS, one breaker a row, in the columns that are read back.

use std::io::{Cursor, Write};

use rust_xlsxwriter::{Format, Workbook};
use wayfinder_core::{DIRECTORY_COLUMNS, Housing, Panel, Protection, Study, Tie, panel_view};
use zip::write::SimpleFileOptions;

/// Which kind of sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SheetKind {
    /// Comma-separated text, RFC 4180, UTF-8.
    Csv,
    /// Office Open XML.
    Xlsx,
    /// OpenDocument.
    Ods,
}

const HEADINGS: [&str; 9] = ["Space", "Amps", "Poles", "Type", "Wire", "Legs", "Card", "Proven", "State"];

impl SheetKind {
    /// The kinds by their names: `csv`, `xlsx`, `ods`.
    pub fn named(name: &str) -> Option<Self> {
        Some(match name {
            "csv" => Self::Csv,
            "xlsx" => Self::Xlsx,
            "ods" => Self::Ods,
            _ => return None,
        })
    }

    /// Its media type.
    pub const fn media(self) -> &'static str {
        match self {
            Self::Csv => "text/csv; charset=utf-8",
            Self::Xlsx => "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            Self::Ods => "application/vnd.oasis.opendocument.spreadsheet",
        }
    }
}

/// Why no sheet was written.
#[derive(Debug, thiserror::Error)]
#[error("The sheet could not be written: {0}")]
pub struct SheetWriteError(String);

/// Writes the panel's circuits; open spaces too.
pub fn write_sheet(home: &Study, panel: &Panel, kind: SheetKind) -> Result<Vec<u8>, SheetWriteError> {
    write_table(&Table { name: &panel.name, headings: HEADINGS, rows: &rows(home, panel), numbers: &[1, 2], wide: &[6, 7] }, kind)
}

/// Rows below headings.
#[derive(Debug, Clone, Copy)]
pub struct Table<'a, const N: usize> {
    /// What the sheet is called.
    pub name: &'a str,
    /// Above each column.
    pub headings: [&'a str; N],
    /// The rows.
    pub rows: &'a [[String; N]],
    /// The columns whose cells are numbers.
    pub numbers: &'a [usize],
    /// The columns of long texts.
    pub wide: &'a [usize],
}

impl<const N: usize> Table<'_, N> {
    /// The number in a cell of a column of numbers.
    fn number(&self, column: usize, cell: &str) -> Option<f64> {
        cell.parse::<f64>().ok().filter(|number| number.is_finite() && self.numbers.contains(&column))
    }
}

/// Writes a table. No cell of it is ever taken for a formula.
pub fn write_table<const N: usize>(table: &Table<'_, N>, kind: SheetKind) -> Result<Vec<u8>, SheetWriteError> {
    let failed = |error: &dyn std::fmt::Display| SheetWriteError(error.to_string());
    match kind {
        SheetKind::Csv => write_csv(std::iter::once(table.headings.map(Into::into)).chain(table.rows.iter().cloned())),
        SheetKind::Xlsx => {
            let mut book = Workbook::new();
            let sheet = book.add_worksheet();
            sheet.set_name(table.name).map_err(|e| failed(&e))?;
            let bold = Format::new().set_bold();
            for (n, heading) in table.headings.iter().enumerate() {
                sheet.write_string_with_format(0, n as u16, *heading, &bold).map_err(|e| failed(&e))?;
            }
            for (n, row) in table.rows.iter().enumerate() {
                for (column, cell) in row.iter().enumerate() {
                    let at = (n as u32 + 1, column as u16);
                    match table.number(column, cell) {
                        Some(number) => sheet.write_number(at.0, at.1, number),
                        None => sheet.write_string(at.0, at.1, cell),
                    }
                    .map_err(|e| failed(&e))?;
                }
            }
            for column in table.wide {
                sheet.set_column_width(*column as u16, 40).map_err(|e| failed(&e))?;
            }
            book.save_to_buffer().map_err(|e| failed(&e))
        }
        SheetKind::Ods => ods(table).map_err(|e| failed(&e)),
    }
}

/// The directory's rows as a table.
pub const fn directory_table(rows: &[[String; 8]]) -> Table<'_, 8> {
    Table { name: "Directory", headings: DIRECTORY_COLUMNS, rows, numbers: &[2], wide: &[3, 4] }
}

/// Writes rows as comma-separated text.
pub fn write_csv<const N: usize>(rows: impl IntoIterator<Item = [String; N]>) -> Result<Vec<u8>, SheetWriteError> {
    let failed = |error: &dyn std::fmt::Display| SheetWriteError(error.to_string());
    let mut writer = csv::Writer::from_writer(Vec::new());
    for row in rows {
        // A text that a spreadsheet would take for a formula stays a text; it is read back without the mark.
        let safe = row.iter().map(|cell| if cell.starts_with(['=', '+', '-', '@']) { format!("'{cell}") } else { cell.clone() });
        writer.write_record(safe).map_err(|e| failed(&e))?;
    }
    writer.into_inner().map_err(|e| failed(&e))
}

fn rows(home: &Study, panel: &Panel) -> Vec<[String; 9]> {
    let Some(view) = panel_view(home, &panel.id) else { return Vec::new() };
    let blades = view.breakers.iter().map(|blade| {
        let mut kind = match blade.protection {
            Protection::Standard => String::new(),
            Protection::Gfci => "GFCI".into(),
            Protection::Afci => "AFCI".into(),
            Protection::DualFunction => "dual function".into(),
        };
        for (is, word) in [
            (blade.housing == Housing::Tandem, "tandem"),
            (blade.housing == Housing::Quad, "quad"),
            (blade.housing == Housing::Slim, "slim"),
            (blade.poles.len() > 1 && blade.details.tie == Tie::Handle, "tied"),
        ] {
            if is {
                kind = format!("{kind} {word}").trim().to_owned();
            }
        }
        let legs: Vec<String> = blade.legs.iter().map(|leg| format!("{leg:?}")).collect();
        let wire = blade.wire.map(|wire| wire.words()).unwrap_or_default();
        let feeds = blade.feeds.first().map(|fed| format!("Feeds {}", fed.name));
        let row = [
            blade.number.clone(),
            blade.amps.value().to_string(),
            blade.poles.len().to_string(),
            kind,
            wire,
            legs.join("-"),
            blade.claim.clone().unwrap_or_default(),
            feeds.unwrap_or_else(|| blade.wording.clone()),
            format!("{:?}", blade.state).to_lowercase(),
        ];
        ((blade.side, blade.poles[0]), row)
    });
    let open = view.open.iter().map(|open| {
        let mut row: [String; 9] = Default::default();
        row[0].clone_from(&open.number);
        row[7] = "open".into();
        ((open.side, open.part), row)
    });
    let mut all: Vec<_> = blades.chain(open).collect();
    all.sort_by_key(|(place, _)| *place);
    all.into_iter().map(|(_, row)| row).collect()
}

fn ods<const N: usize>(table: &Table<'_, N>) -> Result<Vec<u8>, Box<dyn std::error::Error>> {
    let text = |cell: &str| quick_xml::escape::escape(cell).into_owned();
    let mut content = String::from(concat!(
        r#"<?xml version="1.0" encoding="UTF-8"?>"#,
        r#"<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" "#,
        r#"xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" "#,
        r#"xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" office:version="1.3"><office:body><office:spreadsheet>"#,
    ));
    content.push_str(&format!(r#"<table:table table:name="{}">"#, text(table.name)));
    let headings = table.headings.map(str::to_owned);
    for row in std::iter::once(&headings).chain(table.rows) {
        content.push_str("<table:table-row>");
        for (column, cell) in row.iter().enumerate() {
            let shown = text(cell);
            match table.number(column, cell) {
                Some(number) => content.push_str(&format!(
                    r#"<table:table-cell office:value-type="float" office:value="{number}"><text:p>{shown}</text:p></table:table-cell>"#
                )),
                None if cell.is_empty() => content.push_str("<table:table-cell/>"),
                None => content.push_str(&format!(
                    r#"<table:table-cell office:value-type="string"><text:p>{shown}</text:p></table:table-cell>"#
                )),
            }
        }
        content.push_str("</table:table-row>");
    }
    content.push_str("</table:table></office:spreadsheet></office:body></office:document-content>");
    let manifest = concat!(
        r#"<?xml version="1.0" encoding="UTF-8"?>"#,
        r#"<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3">"#,
        r#"<manifest:file-entry manifest:full-path="/" manifest:media-type="application/vnd.oasis.opendocument.spreadsheet"/>"#,
        r#"<manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/></manifest:manifest>"#,
    );
    let mut zip = zip::ZipWriter::new(Cursor::new(Vec::new()));
    let plain = SimpleFileOptions::default().compression_method(zip::CompressionMethod::Stored);
    let packed = SimpleFileOptions::default().compression_method(zip::CompressionMethod::Deflated);
    // The kind comes first and unpacked, so that it can be told from the file's first bytes.
    for (name, options, bytes) in [
        ("mimetype", plain, "application/vnd.oasis.opendocument.spreadsheet"),
        ("META-INF/manifest.xml", packed, manifest),
        ("content.xml", packed, content.as_str()),
    ] {
        zip.start_file(name, options)?;
        zip.write_all(bytes.as_bytes())?;
    }
    Ok(zip.finish()?.into_inner())
}
