//! The door card as a one-page PDF: at its true size, or laid on a sheet with cutting lines.

use krilla::geom::Transform;
use qrcode::{Color, EcLevel, QrCode};
use wayfinder_core::{
    Card, CardCell, CardFaces, CardSize, CardTooSmall, CellKind, Columns, FitRequest, FittedCard, FittedCell, LoadDoes, fit_card,
};

use crate::fonts::{HEAD, TEXT};
use crate::paged::Paged;
use crate::pen::{Draws, INK, Pen, SOFT, TINT};

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

    /// Whether a card of this size fits on it, with its cutting lines and what is said below them.
    pub fn holds(self, card: CardSize) -> bool {
        self.size_mm().is_none_or(|(width, height)| card.width_mm <= width - 16.0 && card.height_mm <= height - 28.0)
    }
}

/// By what the lines of the card are colored.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub enum CardColors {
    /// By what the biggest load does, with its letter.
    #[default]
    Load,
    /// By the amps of the breaker.
    Amps,
    /// By nothing.
    None,
}

impl CardColors {
    /// The ways by their names: `load`, `amps`, `none`.
    pub fn named(name: &str) -> Option<Self> {
        Some(match name {
            "load" => Self::Load,
            "amps" => Self::Amps,
            "none" => Self::None,
            _ => return None,
        })
    }
}

/// Why no PDF was made.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum PdfError {
    /// The card is larger than the sheet.
    #[error("The card of {0} by {1} mm does not fit on this paper. Print it at card size, or make the card smaller.")]
    TooLarge(f64, f64),
    /// The letters would be too small to be read.
    #[error(transparent)]
    TooSmall(CardTooSmall),
    /// There is no such sheet of labels, or the letters on it would be too small.
    #[error("{0}")]
    BadSheet(String),
    /// The writer failed: a bug.
    #[error("The PDF could not be written: {0}")]
    Writer(String),
}

/// The card fitted in the faces that it is printed in.
pub fn fitted_card(card: &Card, colors: CardColors) -> Result<FittedCard, CardTooSmall> {
    fitted(card, request(colors), colors)
}

fn fitted(card: &Card, request: FitRequest, colors: CardColors) -> Result<FittedCard, CardTooSmall> {
    let mut shown = card.clone();
    for cell in &mut shown.cells {
        cell.text = TEXT.shown(&cell.text);
        cell.notes = cell.notes.iter().map(|note| TEXT.shown(note)).collect();
    }
    shown.text.title = HEAD.shown(&shown.text.title);
    shown.text.subtitle = TEXT.shown(&shown.text.subtitle);
    if colors == CardColors::Load
        && let Some(legend) = legend(card)
    {
        let caution = shown.text.foot.len().saturating_sub(1);
        shown.text.foot.insert(caution, legend);
    }
    shown.text.foot = shown.text.foot.iter().map(|line| TEXT.shown(line)).collect();
    let faces = CardFaces { head: &|text| HEAD.width(text), text: &|text| TEXT.width(text) };
    fit_card(&shown, &request, faces)
}

fn request(colors: CardColors) -> FitRequest {
    let letter = if colors == CardColors::None { 0.0 } else { 1.5 };
    FitRequest { letter, ..FitRequest::default() }
}

/// `Letter and color: what the biggest load does. H heat, L light.`: the letters that are on it.
fn legend(card: &Card) -> Option<String> {
    let used = |does: &LoadDoes| card.cells.iter().any(|cell| cell.does == Some(*does));
    let named: Vec<String> = LoadDoes::ALL
        .into_iter()
        .filter(used)
        .map(|does| {
            let (letter, word) = does.letter();
            format!("{letter} {word}")
        })
        .collect();
    (!named.is_empty()).then(|| format!("Letter and color, what the biggest load does: {}.", named.join(", ")))
}

/// Draws the card.
pub fn door_card_pdf(card: &Card, sheet: Sheet, colors: CardColors) -> Result<Vec<u8>, PdfError> {
    let fitted = fitted_card(card, colors).map_err(PdfError::TooSmall)?;
    let (width, height) = (card.panel.card.width_mm, card.panel.card.height_mm);
    if !sheet.holds(card.panel.card) {
        return Err(PdfError::TooLarge(width, height));
    }
    let mut paged = Paged::new(&format!("{}: {}", card.text.title, card.text.subtitle));
    paged.page(sheet.size_mm().unwrap_or((width, height)), |pen| {
        draw_on(pen, card, &fitted, sheet, colors);
        Vec::new()
    })?;
    paged.finish()
}

/// The card on its sheet: with lines to cut along where the sheet is larger.
pub(crate) fn draw_on(pen: &mut Pen<'_, '_>, card: &Card, fitted: &FittedCard, sheet: Sheet, colors: CardColors) {
    let (width, height) = (card.panel.card.width_mm, card.panel.card.height_mm);
    let (left, top) = sheet.size_mm().map_or((0.0, 0.0), |(page_width, _)| ((page_width - width) / 2.0, 12.0));
    pen.surface.push_transform(&Transform::from_translate(left as f32, top as f32));
    if sheet != Sheet::Card {
        pen.frame(0.0, 0.0, width, height, 0.15, INK, true);
        let said = "Print at 100 %, cut along the dashed line. This line is 50 mm long:";
        pen.text(&TEXT, said, 0.0, height + 6.0, 2.8, INK);
        let from = TEXT.width(said) * 2.8 + 2.0;
        pen.line(from, height + 5.0, from + 50.0, height + 5.0, 0.3);
    }
    draw(pen, card, fitted, colors);
    pen.surface.pop();
}

/// Strips that go over single lines of a card that hangs already, at the height of its rows: `lines` are their numbers. They stand one
/// below the other on the paper, with lines to cut along.
pub fn strips_pdf(
    card: &Card,
    row_mm: Option<f64>,
    lines: &[String],
    sheet: Sheet,
    colors: CardColors,
) -> Result<Vec<u8>, PdfError> {
    let fitted = fitted(card, FitRequest { row: row_mm, ..request(colors) }, colors).map_err(PdfError::TooSmall)?;
    let (page_width, page_height) = sheet.size_mm().unwrap_or((215.9, 279.4));
    let strips: Vec<&FittedCell> = fitted.cells.iter().filter(|cell| lines.contains(&cell.cell.number)).collect();
    let (left, top, bottom) = (15.0, 28.0, page_height - 15.0);
    if let Some(strip) = strips.iter().find(|strip| strip.width > page_width - 2.0 * left || strip.height > bottom - top) {
        let (width, height) = (strip.width, strip.height);
        return Err(PdfError::BadSheet(format!("A strip of {width:.0} by {height:.0} mm does not fit on this paper.")));
    }
    let mut pages: Vec<Vec<(&FittedCell, f64)>> = vec![Vec::new()];
    let mut y = top;
    for strip in strips {
        if y + strip.height > bottom {
            pages.push(Vec::new());
            y = top;
        }
        if let Some(page) = pages.last_mut() {
            page.push((strip, y));
        }
        y += strip.height + 3.0;
    }
    let mut paged = Paged::new(&format!("{}: strips for the card", card.text.title));
    let about =
        TEXT.shown(&format!("{}, {}. Cut out and stick over the line of the same number.", card.text.title, card.panel.name));
    for strips in &pages {
        paged.page((page_width, page_height), |pen| {
            pen.text(&TEXT, &about, left, 12.0, 2.8_f64.min((page_width - 2.0 * left) / TEXT.width(&about)), INK);
            let said = "Print at 100 %. This line is 50 mm long:";
            pen.text(&TEXT, said, left, 18.0, 2.8, INK);
            let from = left + TEXT.width(said) * 2.8 + 2.0;
            pen.line(from, 17.0, from + 50.0, 17.0, 0.3);
            for (strip, y) in strips {
                pen.surface.push_transform(&Transform::from_translate((left - strip.x) as f32, (y - strip.y) as f32));
                draw_cell(pen, &request(colors), strip, &fitted, card.panel.columns == Columns::One, colors);
                pen.surface.pop();
            }
            Vec::new()
        })?;
    }
    paged.finish()
}

pub(crate) fn draw(pen: &mut impl Draws, card: &Card, fitted: &FittedCard, colors: CardColors) {
    let request = request(colors);
    let mut y = request.margin;
    for (face, text, color) in [(&*HEAD, &fitted.title, INK), (&*TEXT, &fitted.subtitle, SOFT)] {
        for line in &text.lines {
            pen.text(face, line, request.margin, y + text.size * 0.95, text.size, color);
            y += text.size * 1.25;
        }
    }
    for cell in &fitted.cells {
        draw_cell(pen, &request, cell, fitted, card.panel.columns == Columns::One, colors);
    }
    let mut base = fitted.foot_y + 1.5 + fitted.foot.size * 0.95;
    for line in &fitted.foot.lines {
        pen.text(&TEXT, line, request.margin, base, fitted.foot.size, INK);
        base += fitted.foot.size * 1.25;
    }
    if let (Some(address), Some((x, y, side))) = (&card.address, fitted.code) {
        draw_code(pen, address, x, y, side);
    }
}

/// The squares of the code of an address, a row of them in as few pieces as there are, with four squares left blank around it.
fn draw_code(pen: &mut impl Draws, address: &str, x: f64, y: f64, side: f64) {
    // An address that a home has taken always fits into a code.
    let Ok(code) = QrCode::with_error_correction_level(address, EcLevel::M) else { return };
    let wide = code.width();
    let square = side / (wide + 8) as f64;
    let colors = code.to_colors();
    for (row, squares) in colors.chunks(wide).enumerate() {
        let mut from = 0;
        for run in squares.chunk_by(|a, b| a == b) {
            if run[0] == Color::Dark {
                let (left, top) = (x + (from + 4) as f64 * square, y + (row + 4) as f64 * square);
                // A hair higher, so that no white line is left between two rows.
                pen.fill(left, top, run.len() as f64 * square, square * 1.02, (0, 0, 0));
            }
            from += run.len();
        }
    }
}

fn draw_cell(
    pen: &mut impl Draws,
    request: &FitRequest,
    fitted: &FittedCell,
    card: &FittedCard,
    one_column: bool,
    colors: CardColors,
) {
    let FittedCell { cell, x, y, width, height, .. } = fitted;
    let size = card.type_mm;
    if cell.kind != CellKind::Proven {
        pen.fill(*x, *y, *width, *height, TINT);
    }
    let letter = cell.does.filter(|_| colors == CardColors::Load).map(LoadDoes::letter);
    if let Some(tint) = tint(cell, colors) {
        pen.fill(fitted.letter.0, *y, fitted.letter.1, *height, tint);
        pen.frame(fitted.letter.0, *y, fitted.letter.1, *height, 0.12, INK, false);
    }
    pen.frame(*x, *y, *width, *height, 0.2, INK, false);
    // In the left column of two all leans on the post.
    let outward = fitted.text.0 < fitted.number.0 && !one_column;
    let block = card.leading_mm * fitted.lines.len() as f64;
    let mut base = y + (height - block) / 2.0 + size * 0.88;
    for (n, line) in fitted.lines.iter().enumerate() {
        let color = if cell.kind == CellKind::Proven && n < fitted.worded { INK } else { SOFT };
        let x = if outward { fitted.text.0 + fitted.text.1 - TEXT.width(line) * size } else { fitted.text.0 };
        pen.text(&TEXT, line, x, base, size, color);
        base += card.leading_mm;
    }
    let middle = y + height / 2.0 + size * 0.36;
    let number_size = size * request.number;
    // Numbers stand against the post, amps against the outer edge.
    let number_width = HEAD.width(&cell.number) * number_size;
    let number_x = if outward { fitted.number.0 + fitted.number.1 - number_width } else { fitted.number.0 };
    let amps_x = if outward { fitted.amps.0 } else { fitted.amps.0 + fitted.amps.1 - TEXT.width(&cell.amps) * size };
    pen.text(&HEAD, &cell.number, number_x, middle, number_size, INK);
    pen.text(&TEXT, &cell.amps, amps_x, middle, size, SOFT);
    if let Some((letter, _)) = letter {
        let at = fitted.letter.0 + (fitted.letter.1 - HEAD.width(letter) * size) / 2.0;
        pen.text(&HEAD, letter, at, middle, size, INK);
    }
}

/// The color of the box beside the post: pale, so that letters stand on it, and apart in gray, too.
fn tint(cell: &CardCell, colors: CardColors) -> Option<(u8, u8, u8)> {
    match colors {
        CardColors::None => None,
        CardColors::Load => cell.does.map(|does| match does {
            LoadDoes::Heat => (0xeb, 0xb8, 0x9c),
            LoadDoes::Cool => (0xb9, 0xd4, 0xe0),
            LoadDoes::Light => (0xf3, 0xdc, 0x92),
            LoadDoes::Motor => (0xcd, 0xc4, 0xe2),
            LoadDoes::Other => (0xd5, 0xdb, 0xbd),
        }),
        CardColors::Amps => cell.amps.parse::<f64>().ok().map(|amps| match amps {
            amps if amps <= 15.0 => (0xfb, 0xf1, 0xcf),
            amps if amps <= 20.0 => (0xf0, 0xd9, 0x9b),
            amps if amps <= 30.0 => (0xe3, 0xb9, 0x84),
            amps if amps <= 50.0 => (0xd0, 0x98, 0x7e),
            _ => (0xb8, 0x82, 0x8c),
        }),
    }
}
