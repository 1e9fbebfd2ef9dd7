//! The directory: a panel's card as it prints, own words on it, stickers and strips.

use axum::Json;
use axum::extract::Path;
use axum::response::Response;
use wayfinder_core::{
    Card, CardHung, CardTooSmall, DeviceTest, Drift, HangingCard, PanelId, Printed, Sticker, Study, TestMonths, WordsRead, card,
    drifts, hanging, read_words, stickers, tests_due, to_hang,
};
use wayfinder_formats::{
    CardColors, DirectoryError, DirectoryFormat, PdfError, Sheet, StickerSheet, door_card_pdf, fitted_card, read_rows,
    stickers_pdf, strips_pdf, write_directory,
};

use super::homes::{Printing, date_of, file, sheet_of, unfit, unwritten};
use super::panels::SHEET_LIMIT;
use super::share::{QrPath, qr};
use crate::guard::{Asked, RawBody};
use crate::in_home::{HomePath, InHome};
use crate::problem::{Problem, internal};

/// A panel's card, how it prints, and what on it is to be looked at.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct DirectoryView {
    card: Card,
    /// The type size that it prints at, in points; `null` where it cannot be printed.
    type_pt: Option<f64>,
    /// Why it cannot be printed at its size.
    too_small: Option<CardTooSmall>,
    /// On which papers it can be printed: `card` (its true size), `letter`, `a4`.
    papers: Vec<&'static str>,
    /// Own words in the whole home that no longer match what is known, those that mislead first.
    drifts: Vec<Drift>,
    /// The card that hangs in this panel's door, where somebody said that one does.
    hanging: Option<HangingCard>,
    /// The fact that this card was printed and hangs in the door.
    to_hang: CardHung,
    /// The code of the home's lasting address, as it stands on the card; `null` where none is given.
    code: Option<QrPath>,
}

/// Devices with a test button, and after how many months their tests come round.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct TestsView {
    /// At the panels first, then room by room.
    devices: Vec<DeviceTest>,
    /// After how many months.
    months: TestMonths,
}

/// Tests that come round: when each device with a test button was tested last, and when that is due again.
#[utoipa::path(get, path = "/api/homes/{home}/tests", params(HomePath), responses((status = 200, body = TestsView), (status = 404, body = Problem)))]
pub(crate) async fn tests(home: InHome) -> Result<Response, Problem> {
    home.answer(move |opened| {
        Ok::<_, Problem>(TestsView { devices: tests_due(&opened.study), months: opened.study.upkeep().months() })
    })
    .await
}

/// The door card, worded from what is proven, and own words that no longer match.
#[utoipa::path(get, path = "/api/homes/{home}/directory", params(HomePath, Printing), responses((status = 200, body = DirectoryView), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn directory(home: InHome, Asked(printing): Asked<Printing>) -> Result<Response, Problem> {
    let colors = colors_of(&printing)?;
    home.answer(move |opened| {
        let card = card_of(&opened.study, &printing)?;
        let fitted = fitted_card(&card, colors);
        Ok::<_, Problem>(DirectoryView {
            type_pt: fitted.as_ref().ok().map(|fitted| (fitted.type_pt() * 10.0).floor() / 10.0),
            papers: [("card", Sheet::Card), ("letter", Sheet::Letter), ("a4", Sheet::A4)]
                .into_iter()
                .filter(|(_, sheet)| fitted.is_ok() && sheet.holds(card.panel.card))
                .map(|(name, _)| name)
                .collect(),
            drifts: drifts(&opened.study).to_vec(),
            hanging: hanging(&opened.study).iter().find(|hangs| hangs.panel == card.panel.id).cloned(),
            to_hang: CardHung {
                row_mm: fitted.as_ref().ok().map(|fitted| fitted.row_mm),
                ..to_hang(&opened.study, &card.panel.id)
            },
            too_small: fitted.err(),
            code: card.address.as_deref().and_then(qr),
            card,
        })
    })
    .await
}

/// The door card as a one-page PDF.
#[utoipa::path(get, path = "/api/homes/{home}/directory.pdf", params(HomePath, Printing), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn directory_pdf(home: InHome, Asked(printing): Asked<Printing>) -> Result<Response, Problem> {
    let (sheet, colors) = (sheet_of(&printing)?, colors_of(&printing)?);
    let disposition = home.saved_as("inline", &format!(", door card, revision {}.pdf", home.opened.study.seq()));
    let pdf =
        home.ask(move |opened| door_card_pdf(&card_of(&opened.study, &printing)?, sheet, colors).map_err(unwritten)).await?;
    Ok(file(pdf, "application/pdf", &disposition))
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct StickersAsked {
    /// Width of the paper, in mm.
    paper_width: f64,
    /// Height of the paper, in mm.
    paper_height: f64,
    /// Labels side by side.
    columns: usize,
    /// Labels one below the other.
    rows: usize,
    /// From the left edge of the paper to the first label, in mm.
    left: f64,
    /// From the upper edge of the paper to the first label, in mm.
    top: f64,
    /// Width of a label, in mm.
    width: f64,
    /// Height of a label, in mm.
    height: f64,
    /// Between two labels side by side, in mm.
    gap_x: f64,
    /// Between two labels one below the other, in mm.
    gap_y: f64,
    /// At which label of the first sheet to begin, counted by rows from 1; 1 if left out.
    begin: Option<usize>,
    /// Only those that say something else than when they were last printed.
    changed: Option<bool>,
}

/// A sticker for each proven point with a cover plate, room by room.
#[utoipa::path(get, path = "/api/homes/{home}/stickers", params(HomePath), responses((status = 200, body = [Sticker]), (status = 404, body = Problem)))]
pub(crate) async fn sticker_list(home: InHome) -> Result<Response, Problem> {
    home.answer(move |opened| Ok::<_, Problem>(stickers(&opened.study))).await
}

/// The stickers on sheets of labels, as a PDF.
#[utoipa::path(get, path = "/api/homes/{home}/stickers.pdf", params(HomePath, StickersAsked), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn sticker_sheets(home: InHome, Asked(asked): Asked<StickersAsked>) -> Result<Response, Problem> {
    let sheet = StickerSheet {
        paper: (asked.paper_width, asked.paper_height),
        cells: (asked.columns, asked.rows),
        margin: (asked.left, asked.top),
        label: (asked.width, asked.height),
        gap: (asked.gap_x, asked.gap_y),
    };
    let begin = asked.begin.unwrap_or(1).saturating_sub(1);
    let only_changed = asked.changed.unwrap_or(false);
    let disposition = home.saved_as("inline", &format!(", stickers, revision {}.pdf", home.opened.study.seq()));
    let pdf = home
        .ask(move |opened| {
            let all = stickers(&opened.study).into_iter().filter(|sticker| sticker.changed || !only_changed);
            stickers_pdf(&all.collect::<Vec<_>>(), &sheet, begin).map_err(unwritten)
        })
        .await?;
    Ok(file(pdf, "application/pdf", &disposition))
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct StripsAsked {
    /// The numbers of the lines, with commas between: `1,5-7`; left out: those of the hanging card that are wrong.
    lines: Option<String>,
}

/// Strips to stick over single lines of the card that hangs, at the height of its rows, as a PDF on `letter` or `a4`.
#[utoipa::path(get, path = "/api/homes/{home}/strips.pdf", params(HomePath, Printing, StripsAsked), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn strips(
    home: InHome,
    Asked(printing): Asked<Printing>,
    Asked(asked): Asked<StripsAsked>,
) -> Result<Response, Problem> {
    let (sheet, colors) = (sheet_of(&printing)?, colors_of(&printing)?);
    let disposition = home.saved_as("inline", &format!(", strips for the card, revision {}.pdf", home.opened.study.seq()));
    let pdf = home
        .ask(move |opened| {
            let card = card_of(&opened.study, &printing)?;
            let hangs = hanging(&opened.study).iter().find(|hangs| hangs.panel == card.panel.id);
            let lines: Vec<String> = match (&asked.lines, hangs) {
                (Some(lines), _) => lines.split(',').map(|line| line.trim().to_owned()).collect(),
                (None, Some(hangs)) => hangs.wrong.iter().map(|line| line.number.clone()).collect(),
                (None, None) => Vec::new(),
            };
            let known = |line: &String| card.cells.iter().any(|cell| &cell.number == line);
            if !lines.iter().any(known) {
                return Err(unfit(
                    "lines",
                    "None of these lines is on the card.".into(),
                    "Name them as they stand there: 1,5-7.",
                ));
            }
            strips_pdf(&card, hangs.and_then(|hangs| hangs.row_mm), &lines, sheet, colors).map_err(unwritten)
        })
        .await?;
    Ok(file(pdf, "application/pdf", &disposition))
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct FormatPath {
    /// `csv`, `xlsx`, `ods` (every line of every card), `json`, `svg` or `pdf` (one panel's card).
    format: String,
}

/// The directory as a file: `csv`, `xlsx` and `ods` hold every line of every card, `json`, `svg` and `pdf` the card of one panel.
#[utoipa::path(get, path = "/api/homes/{home}/directory/as/{format}", params(HomePath, FormatPath, Printing), responses((status = 200, body = Vec<u8>, content_type = "application/octet-stream"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn directory_as(
    home: InHome,
    Path(FormatPath { format }): Path<FormatPath>,
    Asked(printing): Asked<Printing>,
) -> Result<Response, Problem> {
    let colors = colors_of(&printing)?;
    let asked = DirectoryFormat::named(&format).ok_or_else(|| Problem::not_found("format"))?;
    let disposition = home.saved_as("attachment", &format!(", directory, revision {}.{format}", home.opened.study.seq()));
    let date = date_of(&printing)?;
    let by = by_of(&printing)?.to_owned();
    let bytes = home
        .ask(move |opened| {
            let panel = panel_of(&opened.study, &printing)?;
            let printed = Printed { date: &date, by: &by };
            write_directory(&opened.study, asked, &panel, printed, colors).map_err(|error| match error {
                DirectoryError::NoPanel => Problem::not_found("panel"),
                DirectoryError::TooSmall(small) => unwritten(PdfError::TooSmall(small)),
                DirectoryError::Pdf(error) => unwritten(error),
                error => {
                    tracing::error!(%error, "no directory");
                    internal()
                }
            })
        })
        .await?;
    Ok(file(bytes, asked.media(), &disposition))
}

/// Reads own words out of a sheet (CSV, XLSX or ODS) that the directory was written into: what they would change. Writes nothing.
#[utoipa::path(post, path = "/api/homes/{home}/directory/sheet", params(HomePath), request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses((status = 200, body = WordsRead), (status = 404, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn words_sheet(home: InHome, RawBody(bytes): RawBody<SHEET_LIMIT>) -> Result<Json<WordsRead>, Problem> {
    home.ask(move |opened| {
        let rows = read_rows(&bytes).map_err(|error| unfit("file", error.to_string(), ""))?;
        read_words(&opened.study, &rows).map(Json).map_err(|wrong| unfit("file", wrong, ""))
    })
    .await
}

fn colors_of(printing: &Printing) -> Result<CardColors, Problem> {
    colors_named(printing.colors.as_deref())
}

pub(super) fn colors_named(name: Option<&str>) -> Result<CardColors, Problem> {
    let name = name.unwrap_or("load");
    CardColors::named(name)
        .ok_or_else(|| unfit("colors", format!("“{name}” is no way to color a card."), "Use load, amps or none."))
}

/// The panel that is meant: the first one where none is named.
fn panel_of(home: &Study, printing: &Printing) -> Result<PanelId, Problem> {
    let panel = match &printing.panel {
        Some(panel) => panel.parse::<PanelId>().ok(),
        None => home.panels().all().next().map(|panel| panel.id.clone()),
    };
    panel.ok_or_else(|| Problem::not_found("panel"))
}

fn by_of(printing: &Printing) -> Result<&str, Problem> {
    by_of_text(printing.by.as_deref())
}

pub(super) fn by_of_text(by: Option<&str>) -> Result<&str, Problem> {
    let by = by.unwrap_or_default();
    if by.chars().count() > 60 || by.chars().any(char::is_control) {
        return Err(unfit("by", "That is too long for a name.".into(), "Use up to 60 characters."));
    }
    Ok(by)
}

fn card_of(home: &Study, printing: &Printing) -> Result<Card, Problem> {
    let printed = Printed { date: &date_of(printing)?, by: by_of(printing)? };
    card(home, &panel_of(home, printing)?, printed).ok_or_else(|| Problem::not_found("panel"))
}
