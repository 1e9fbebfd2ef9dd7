//! The door card as a one-page PDF: at its true size, or laid on a sheet with cutting lines.

use krilla::Document;
use krilla::geom::Transform;
use krilla::metadata::Metadata;
use krilla::page::PageSettings;
use wayfinder_core::{Card, CellKind, Columns, FitRequest, FittedCell, Side, fit_card};

use crate::fonts::{HEAD, TEXT, Type};
use crate::pen::{INK, PT, Pen, SOFT, TINT};

/// What the card is printed on.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub enum Sheet {
    /// The page is the card, at its true size.
    #[default]
    Card,
    /// The card on US letter paper, with cutting lines.
    Letter,
    /// The card on A4 paper, with cutting lines.
    A4,
}

impl Sheet {
    /// Width and height in mm; `None` for the card's own.
    pub const fn size_mm(self) -> Option<(f64, f64)> {
        match self {
            Self::Card => None,
            Self::Letter => Some((215.9, 279.4)),
            Self::A4 => Some((210.0, 297.0)),
        }
    }
}

/// Why no PDF was made.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum PdfError {
    /// The card is larger than the sheet.
    #[error("The card of {0} by {1} mm does not fit on this paper. Print it at card size, or make the card smaller.")]
    TooLarge(f64, f64),
    /// The writer failed: a bug.
    #[error("The PDF could not be written: {0}")]
    Writer(String),
}

/// Draws the card.
pub fn door_card_pdf(card: &Card, sheet: Sheet) -> Result<Vec<u8>, PdfError> {
    let (width, height) = (card.panel.card.width_mm, card.panel.card.height_mm);
    let (page_width, page_height) = sheet.size_mm().unwrap_or((width, height));
    if sheet != Sheet::Card && (width > page_width - 16.0 || height > page_height - 28.0) {
        return Err(PdfError::TooLarge(width, height));
    }
    let settings = PageSettings::from_wh(page_width as f32 * PT, page_height as f32 * PT)
        .ok_or_else(|| PdfError::Writer("the page has no size".into()))?;
    let mut document = Document::new();
    let metadata = Metadata::new().title(format!("{}: {}", card.text.title, card.text.subtitle)).language("en".into());
    document.set_metadata(metadata);
    let mut page = document.start_page_with(settings);
    let mut surface = page.surface();
    surface.push_transform(&Transform::from_scale(PT, PT));
    let (left, top) = ((page_width - width) / 2.0, if sheet == Sheet::Card { 0.0 } else { 12.0 });
    surface.push_transform(&Transform::from_translate(left as f32, top as f32));
    if sheet != Sheet::Card {
        let mut pen = Pen { surface: &mut surface };
        pen.frame(0.0, 0.0, width, height, 0.15, INK, true);
        let said = "Print at 100 %, cut along the dashed line. This line is 50 mm long:";
        pen.text(&TEXT, said, 0.0, height + 6.0, 2.8, INK);
        let from = TEXT.width(said) * 2.8 + 2.0;
        pen.line(from, height + 5.0, from + 50.0, height + 5.0, 0.3);
    }
    draw(&mut Pen { surface: &mut surface }, card);
    surface.pop();
    surface.pop();
    surface.finish();
    page.finish();
    document.finish().map_err(|error| PdfError::Writer(format!("{error:?}")))
}

fn draw(pen: &mut Pen<'_, '_>, card: &Card) {
    let request = FitRequest::default();
    let (width, height) = (card.panel.card.width_mm, card.panel.card.height_mm);
    let inner = width - 2.0 * request.margin;
    let one_line = |face: &Type, text: &str, size: f64| size.min(inner / face.width(text).max(1e-6));
    let title = HEAD.shown(&card.text.title);
    let subtitle = TEXT.shown(&card.text.subtitle);
    let (title_size, subtitle_size) = (one_line(&HEAD, &title, 4.8), one_line(&TEXT, &subtitle, 2.9));
    pen.text(&HEAD, &title, request.margin, request.margin + 4.4, title_size, INK);
    pen.text(&TEXT, &subtitle, request.margin, request.margin + 8.9, subtitle_size, SOFT);

    let mut shown = card.clone();
    for cell in &mut shown.cells {
        cell.text = TEXT.shown(&cell.text);
    }
    let fitted = fit_card(&shown, &request, &|text| TEXT.width(text));
    for cell in &fitted.cells {
        draw_cell(pen, &request, cell, fitted.type_mm, fitted.leading_mm, card.panel.columns == Columns::One);
    }
    for (n, line) in card.text.foot.iter().enumerate() {
        let line = TEXT.shown(line);
        let size = one_line(&TEXT, &line, 2.3);
        pen.text(&TEXT, &line, request.margin, height - request.margin - request.foot + 4.2 + 3.2 * n as f64, size, INK);
    }
}

fn draw_cell(pen: &mut Pen<'_, '_>, request: &FitRequest, fitted: &FittedCell, size: f64, leading: f64, one_column: bool) {
    let FittedCell { cell, x, y, width, height, .. } = fitted;
    if cell.kind != CellKind::Proven {
        pen.fill(*x, *y, *width, *height, TINT);
    }
    pen.frame(*x, *y, *width, *height, 0.2, INK, false);
    let color = if cell.kind == CellKind::Proven { INK } else { SOFT };
    let block = leading * fitted.lines.len() as f64;
    let mut base = y + (height - block) / 2.0 + size * 0.88;
    for line in &fitted.lines {
        pen.text(&TEXT, line, fitted.text_x, base, size, color);
        base += leading;
    }
    let middle = y + height / 2.0 + size * 0.36;
    let number_size = (size * 1.1).min((request.number_ems * size - request.pad) / HEAD.width(&cell.number).max(1e-6));
    let number_width = HEAD.width(&cell.number) * number_size;
    let amps_width = TEXT.width(&cell.amps) * size;
    let outward = cell.side == Side::Left && !one_column;
    let (number_x, amps_x) = if outward {
        (x + width - number_width - request.pad, x + request.pad)
    } else {
        (x + request.pad, x + width - amps_width - request.pad)
    };
    pen.text(&HEAD, &cell.number, number_x, middle, number_size, INK);
    pen.text(&TEXT, &cell.amps, amps_x, middle, size, SOFT);
}
