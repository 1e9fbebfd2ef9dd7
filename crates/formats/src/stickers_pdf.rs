//! Stickers for cover plates on sheets of any size, and strips that go over single lines of a card that hangs.

use wayfinder_core::Sticker;

use crate::PdfError;
use crate::fonts::{HEAD, TEXT};
use crate::paged::Paged;
use crate::pen::{INK, Pen};

/// Letters smaller than this are not printed: five points.
const LEAST: f64 = 5.0 * 25.4 / 72.0;

/// A sheet of labels, all lengths in mm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StickerSheet {
    /// Width and height of the paper.
    pub paper: (f64, f64),
    /// Labels side by side, and one below the other.
    pub cells: (usize, usize),
    /// From the left and from the upper edge of the paper to the first label.
    pub margin: (f64, f64),
    /// Width and height of a label.
    pub label: (f64, f64),
    /// Between two labels side by side, and one below the other.
    pub gap: (f64, f64),
}

impl StickerSheet {
    /// Where the label of this number stands on its sheet, from the left and from above; numbers go by rows from 0.
    pub fn place(&self, cell: usize) -> (f64, f64) {
        let (columns, _) = self.cells;
        let step = |n: usize, margin: f64, size: f64, gap: f64| margin + n as f64 * (size + gap);
        (
            step(cell % columns, self.margin.0, self.label.0, self.gap.0),
            step(cell / columns, self.margin.1, self.label.1, self.gap.1),
        )
    }

    /// How many labels are on a sheet.
    pub const fn count(&self) -> usize {
        self.cells.0 * self.cells.1
    }

    /// Why there is no such sheet.
    fn admit(&self) -> Result<(), PdfError> {
        let wrong = |text: String| Err(PdfError::BadSheet(text));
        let lengths = [self.paper.0, self.paper.1, self.label.0, self.label.1];
        if lengths.iter().any(|mm| !(5.0..=500.0).contains(mm)) {
            return wrong("Paper and labels are 5 to 500 mm wide and high.".into());
        }
        if [self.margin.0, self.margin.1, self.gap.0, self.gap.1].iter().any(|mm| !(0.0..=200.0).contains(mm)) {
            return wrong("Margins and gaps are 0 to 200 mm.".into());
        }
        if self.cells.0 == 0 || self.cells.1 == 0 || self.count() > 1000 {
            return wrong("A sheet has 1 to 1000 labels.".into());
        }
        let (x, y) = self.place(self.count() - 1);
        let (right, bottom) = (x + self.label.0, y + self.label.1);
        if right > self.paper.0 + 0.05 || bottom > self.paper.1 + 0.05 {
            return wrong(format!(
                "The last label would end {right:.1} mm from the left and {bottom:.1} mm from above, outside the paper of {} by {} mm.",
                self.paper.0, self.paper.1
            ));
        }
        Ok(())
    }
}

/// The stickers on as many sheets as they take, the first at the cell `begin` of the first sheet, counted from 0.
pub fn stickers_pdf(stickers: &[Sticker], sheet: &StickerSheet, begin: usize) -> Result<Vec<u8>, PdfError> {
    sheet.admit()?;
    if begin >= sheet.count() {
        return Err(PdfError::BadSheet(format!(
            "The sheet has {} labels; it cannot begin at number {}.",
            sheet.count(),
            begin + 1
        )));
    }
    let set = Set::of(stickers, sheet)?;
    let mut paged = Paged::new("Stickers for cover plates");
    let pages = (begin + stickers.len()).div_ceil(sheet.count()).max(1);
    for page in 0..pages {
        paged.page(sheet.paper, |pen| {
            for cell in 0..sheet.count() {
                let at = (page * sheet.count() + cell).checked_sub(begin);
                if let Some(sticker) = at.and_then(|n| stickers.get(n)) {
                    set.draw(pen, sticker, sheet, sheet.place(cell));
                }
            }
            Vec::new()
        })?;
    }
    paged.finish()
}

/// The type sizes, the same on every sticker.
struct Set {
    number: f64,
    place: f64,
    mark: f64,
    /// In so many lines the place is said.
    lines: usize,
}

const PAD: f64 = 1.5;

impl Set {
    fn of(stickers: &[Sticker], sheet: &StickerSheet) -> Result<Self, PdfError> {
        let (width, height) = (sheet.label.0 - 2.0 * PAD, sheet.label.1 - 2.0 * PAD);
        let widest = |width: &dyn Fn(&Sticker) -> f64| stickers.iter().map(width).fold(0.01, f64::max);
        let mark = (0.16 * height).clamp(LEAST.min(height), 3.0);
        let beside = if stickers.iter().any(|sticker| sticker.gfci) { HEAD.width("GFCI") * mark + PAD } else { 0.0 };
        let number = (0.52 * height).min((width - beside) / widest(&|sticker| HEAD.width(&sticker.number)));
        let of_lines = |lines: usize| {
            let widest = widest(&|sticker| {
                broken(&TEXT.shown(&sticker.place), lines).iter().map(|line| TEXT.width(line)).fold(0.0, f64::max)
            });
            (0.42 * height / (lines as f64 * 1.15)).min(width / widest).min(3.2)
        };
        let lines = (1..=3).max_by(|a, b| of_lines(*a).total_cmp(&of_lines(*b))).unwrap_or(1);
        let place = of_lines(lines);
        if place < LEAST || number < LEAST || mark < LEAST - 1e-9 {
            return Err(PdfError::BadSheet(format!(
                "On labels of {} by {} mm the letters would be below 5 points. Use larger labels, or a shorter name for the panel.",
                sheet.label.0, sheet.label.1
            )));
        }
        Ok(Self { number, place, mark, lines })
    }

    fn draw(&self, pen: &mut Pen<'_, '_>, sticker: &Sticker, sheet: &StickerSheet, (x, y): (f64, f64)) {
        let height = sheet.label.1;
        let lines = broken(&TEXT.shown(&sticker.place), self.lines);
        let block = self.number + lines.len() as f64 * self.place * 1.15;
        let top = y + (height - block) / 2.0;
        pen.text(&HEAD, &sticker.number, x + PAD, top + self.number * 0.82, self.number, INK);
        if sticker.gfci {
            let at = x + sheet.label.0 - PAD - HEAD.width("GFCI") * self.mark;
            pen.text(&HEAD, "GFCI", at, top + self.mark * 0.9, self.mark, INK);
        }
        for (n, line) in lines.iter().enumerate() {
            let base = top + self.number + (n as f64 + 0.85) * self.place * 1.15;
            pen.text(&TEXT, line, x + PAD, base, self.place, INK);
        }
    }
}

/// Into so many lines at most, as even as words allow.
fn broken(text: &str, lines: usize) -> Vec<String> {
    let words: Vec<&str> = text.split_whitespace().collect();
    let wide = TEXT.width(text) / lines as f64;
    let mut all: Vec<String> = Vec::new();
    for word in words {
        let left = lines - all.len().min(lines);
        match all.last_mut() {
            Some(line) if left == 0 || TEXT.width(line) + TEXT.width(word) / 2.0 < wide => {
                line.push(' ');
                line.push_str(word);
            }
            _ => all.push(word.to_owned()),
        }
    }
    all
}
