//! Fits the card's text into its cells by arithmetic, not by trial: the largest type at which every cell holds its wording and its
//! notes, the same for all cells.
//!
//! A text of several words breaks anew only where a width of the room, counted in type sizes, passes that of a run of its words. For each
//! such width the lines are counted and the size follows from width and height; the largest of these is exact. Below a comfortable type,
//! words are shortened by a table where a cell has no room for the whole ones. Below the smallest type that can be read at a panel there
//! is no card: [`CardTooSmall`] says what would help. No word is ever cut.
//!
//! All lengths are millimetres. How wide a text runs is asked of the caller, who has the fonts.

use super::{Card, CardCell};
use crate::model::{Columns, Side};
use crate::wording::shorter;

/// A point of type in millimetres.
const POINT: f64 = 25.4 / 72.0;

/// What the card is fitted into, in millimetres.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FitRequest {
    /// Blank border of the card.
    pub margin: f64,
    /// Side of the code of the home's address, with the blank border that cameras need; only where there is an address.
    pub code: f64,
    /// Type of the title, where it fits on one line.
    pub title: f64,
    /// Type of the line below it, and smallest type of the title.
    pub subtitle: f64,
    /// Type of the lines at the foot.
    pub foot: f64,
    /// The number, in multiples of the type size.
    pub number: f64,
    /// Width of the letter of the load beside the post, in multiples of the type size; 0: none.
    pub letter: f64,
    /// Width of the post between the columns.
    pub post: f64,
    /// Blank space around each text of a cell.
    pub pad: f64,
    /// Smallest and largest type size.
    pub type_mm: (f64, f64),
    /// At this type size and below, words may be shortened.
    pub shorten_mm: f64,
    /// Distance of base lines in multiples of the type size.
    pub leading: f64,
    /// Height of a row; `None`: what the card leaves. A strip over a line of a card that hangs has that card's.
    pub row: Option<f64>,
}

impl Default for FitRequest {
    fn default() -> Self {
        Self {
            margin: 4.0,
            code: 20.0,
            title: 4.8,
            subtitle: 2.9,
            foot: 2.1,
            number: 1.1,
            letter: 1.5,
            post: 3.0,
            pad: 0.8,
            type_mm: (5.0 * POINT, 4.2),
            shorten_mm: 7.0 * POINT,
            leading: 1.16,
            row: None,
        }
    }
}

/// How wide a text runs at a type size of 1 mm.
#[derive(Clone, Copy)]
pub struct CardFaces<'a> {
    /// Numbers and the title.
    pub head: &'a dyn Fn(&str) -> f64,
    /// All else.
    pub text: &'a dyn Fn(&str) -> f64,
}

/// A text broken into lines, with its type size.
#[derive(Debug, Clone, PartialEq)]
pub struct FittedText {
    /// Its lines.
    pub lines: Vec<String>,
    /// Its type size.
    pub size: f64,
}

/// A cell with its place and broken lines.
#[derive(Debug, Clone, PartialEq)]
pub struct FittedCell {
    /// What it shows.
    pub cell: CardCell,
    /// Left edge, from the left of the card.
    pub x: f64,
    /// Top edge, from the top of the card.
    pub y: f64,
    /// Width.
    pub width: f64,
    /// Height.
    pub height: f64,
    /// Left edge and width of the letter's box.
    pub letter: (f64, f64),
    /// Left edge and width of the number's place.
    pub number: (f64, f64),
    /// Left edge and width of the place for the amps.
    pub amps: (f64, f64),
    /// Left edge and width of the text.
    pub text: (f64, f64),
    /// The text, broken.
    pub lines: Vec<String>,
    /// How many of the lines are its wording; the others are notes.
    pub worded: usize,
}

/// The whole card, fitted.
#[derive(Debug, Clone, PartialEq)]
pub struct FittedCard {
    /// Type size.
    pub type_mm: f64,
    /// Distance of base lines.
    pub leading_mm: f64,
    /// Height of a row.
    pub row_mm: f64,
    /// The title, from the upper margin down.
    pub title: FittedText,
    /// The line below it.
    pub subtitle: FittedText,
    /// Its cells.
    pub cells: Vec<FittedCell>,
    /// The foot: it begins at [`Self::foot_y`].
    pub foot: FittedText,
    /// Upper edge of the foot.
    pub foot_y: f64,
    /// Left and upper edge of the code at the right of the foot, and its side with the blank border around it.
    pub code: Option<(f64, f64, f64)>,
}

impl FittedCard {
    /// The type size in points.
    pub fn type_pt(&self) -> f64 {
        self.type_mm / POINT
    }
}

/// Why there is no card of this size.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema, thiserror::Error)]
#[error("{wrong} {advice}")]
pub struct CardTooSmall {
    /// What is wrong.
    pub wrong: String,
    /// What would help.
    pub advice: String,
    /// The lines that ask for the most, by their numbers.
    pub tightest: Vec<String>,
}

/// Fits the card, or says why it cannot be.
pub fn fit_card(card: &Card, request: &FitRequest, faces: CardFaces<'_>) -> Result<FittedCard, CardTooSmall> {
    let (least, most) = request.type_mm;
    let inner = card.panel.card.width_mm - 2.0 * request.margin;
    let around = Around::of(card, request, faces, inner);
    let texts: Vec<Vec<Paragraphs>> = card.cells.iter().map(|cell| measured(cell, faces.text)).collect();
    let fixed = Fixed::of(card, request, faces);
    let room = |row: f64, cell: &CardCell| Room {
        width: fixed.width - 4.0 * request.pad,
        beside: fixed.number + fixed.amps + request.letter,
        height: high(row / 2.0 * f64::from(cell.part.height), request),
        leading: request.leading,
    };
    let left = card.panel.card.height_mm - 2.0 * request.margin - around.head - around.foot;
    let row = request.row.unwrap_or(left / f64::from(card.rows.max(1)));
    let largest: Vec<f64> = card
        .cells
        .iter()
        .zip(&texts)
        .map(|(cell, texts)| {
            let room = room(row, cell);
            let whole = room.largest(&texts[0]);
            if whole > request.shorten_mm {
                return whole;
            }
            texts[1..].iter().map(|text| room.largest(text).min(request.shorten_mm)).fold(whole, f64::max)
        })
        .collect();
    let size = largest.iter().copied().fold(most, f64::min);
    // Numbers that went through arithmetic: a hair below is the size itself.
    if size < least - 1e-9 {
        return Err(too_small(card, request, &around, &texts, &largest, &room));
    }
    let size = size.min(most) * (1.0 - 1e-9);
    let cells = card
        .cells
        .iter()
        .zip(&texts)
        .map(|(cell, texts)| {
            let may_be = if size <= request.shorten_mm { &texts[..] } else { &texts[..1] };
            let (lines, worded) = may_be
                .iter()
                .find_map(|text| room(row, cell).broken(text, size))
                .unwrap_or_else(|| unreachable!("it was measured"));
            fixed.placed(card, request, cell, (around.head + request.margin, row), size, lines, worded)
        })
        .collect();
    let foot_y = card.panel.card.height_mm - request.margin - around.foot;
    let code = card.address.as_ref().map(|_| {
        let right = card.panel.card.width_mm - request.margin;
        (right - request.code, foot_y + around.foot - request.code, request.code)
    });
    let Around { title, subtitle, foot_text: foot, .. } = around;
    Ok(FittedCard { type_mm: size, leading_mm: size * request.leading, row_mm: row, title, subtitle, cells, foot, foot_y, code })
}

/// What of a cell's height its text may fill.
fn high(height: f64, request: &FitRequest) -> f64 {
    height - request.pad.min(height * 0.1)
}

/// Title, subtitle and foot, and how high they are.
struct Around {
    title: FittedText,
    subtitle: FittedText,
    foot_text: FittedText,
    head: f64,
    foot: f64,
}

impl Around {
    fn of(card: &Card, request: &FitRequest, faces: CardFaces<'_>, inner: f64) -> Self {
        let wide = (faces.head)(&card.text.title);
        let size = (inner / wide.max(1e-6)).clamp(request.subtitle, request.title);
        let set = |text: &str, size: f64, width_of| FittedText { lines: wrapped(text, inner / size, width_of), size };
        let title = set(&card.text.title, size, faces.head);
        let subtitle = set(&card.text.subtitle, request.subtitle, faces.text);
        let code = if card.address.is_some() { request.code } else { 0.0 };
        let beside = if code > 0.0 { inner - code - request.pad } else { inner };
        let foot = card.text.foot.iter().flat_map(|line| wrapped(line, beside / request.foot, faces.text)).collect();
        let foot_text = FittedText { lines: foot, size: request.foot };
        let high = |text: &FittedText| text.lines.len() as f64 * text.size * 1.25;
        let head = high(&title) + high(&subtitle) + 1.5;
        let foot = (high(&foot_text) + 1.5).max(code);
        Self { head, foot, title, subtitle, foot_text }
    }
}

/// A text in lines of this width, counted in type sizes: broken between words; a word that alone is too long is broken between letters,
/// since names of homes and panels may be anything.
pub fn wrapped(text: &str, ems: f64, width_of: &dyn Fn(&str) -> f64) -> Vec<String> {
    let mut lines: Vec<String> = Vec::new();
    let space = width_of(" ");
    let mut used = f64::INFINITY;
    for word in text.split_whitespace() {
        let wide = width_of(word);
        used += space + wide;
        match lines.last_mut().filter(|_| used <= ems) {
            Some(line) => {
                line.push(' ');
                line.push_str(word);
            }
            None if wide <= ems => {
                lines.push(word.to_owned());
                used = wide;
            }
            None => {
                let mut part = String::new();
                for letter in word.chars() {
                    let longer = format!("{part}{letter}");
                    if !part.is_empty() && width_of(&longer) > ems {
                        lines.push(std::mem::take(&mut part));
                    }
                    part.push(letter);
                }
                used = width_of(&part);
                lines.push(part);
            }
        }
    }
    lines
}

/// What is the same for all cells: their width in mm, and the places of number and amps in multiples of the type size.
struct Fixed {
    width: f64,
    number: f64,
    amps: f64,
    one: bool,
}

impl Fixed {
    fn of(card: &Card, request: &FitRequest, faces: CardFaces<'_>) -> Self {
        let inner = card.panel.card.width_mm - 2.0 * request.margin;
        let one = card.panel.columns == Columns::One;
        let widest = |width: &dyn Fn(&CardCell) -> f64| card.cells.iter().map(width).fold(0.0, f64::max);
        Self {
            width: if one { inner } else { (inner - request.post) / 2.0 },
            number: widest(&|cell| (faces.head)(&cell.number)) * request.number,
            amps: widest(&|cell| (faces.text)(&cell.amps)),
            one,
        }
    }

    /// From the post outward: letter, number, text, amps.
    #[allow(clippy::too_many_arguments)] // a place is what all of these make it
    fn placed(
        &self,
        card: &Card,
        request: &FitRequest,
        cell: &CardCell,
        (top, row): (f64, f64),
        size: f64,
        lines: Vec<String>,
        worded: usize,
    ) -> FittedCell {
        let left = cell.side == Side::Left;
        let x = if left { request.margin } else { card.panel.card.width_mm - request.margin - self.width };
        let pad = request.pad;
        let (letter, number, amps) = (request.letter * size, self.number * size, self.amps * size);
        let text = self.width - letter - number - amps - 4.0 * pad;
        // From the outer edge where it is the left column of two, from the left edge elsewhere.
        let place =
            |from: f64, width: f64| if left && !self.one { (x + self.width - from - width, width) } else { (x + from, width) };
        FittedCell {
            cell: cell.clone(),
            x,
            y: top + row / 2.0 * f64::from(cell.part.top),
            width: self.width,
            height: row / 2.0 * f64::from(cell.part.height),
            letter: place(0.0, letter),
            number: place(letter + pad, number),
            text: place(letter + number + 2.0 * pad, text),
            amps: place(letter + number + text + 3.0 * pad, amps),
            lines,
            worded,
        }
    }
}

/// A text in words with their widths at a type size of 1 mm: the wording, then each note.
struct Paragraphs {
    all: Vec<Vec<(String, f64)>>,
    space: f64,
}

/// The text of a cell, then with one word more shortened each time.
fn measured(cell: &CardCell, width_of: &dyn Fn(&str) -> f64) -> Vec<Paragraphs> {
    let whole: Vec<String> = std::iter::once(cell.text.clone()).chain(cell.notes.iter().cloned()).collect();
    let words = |text: &String| text.split_whitespace().map(|word| (word.to_owned(), width_of(word))).collect();
    let space = width_of(" ");
    shorter(&whole).iter().map(|texts| Paragraphs { all: texts.iter().map(words).collect(), space }).collect()
}

impl Paragraphs {
    /// Every width at which a line may break anew: those of all runs of words, the widest first.
    fn widths(&self) -> Vec<f64> {
        let mut all = Vec::new();
        for words in &self.all {
            for from in 0..words.len() {
                let mut wide = -self.space;
                for (_, width) in &words[from..] {
                    wide += self.space + width;
                    all.push(wide);
                }
            }
        }
        all.sort_by(|a, b| b.total_cmp(a));
        all.dedup();
        all
    }

    /// How many lines there are at this width; `None` where a word alone is too wide.
    fn lines(&self, ems: f64) -> Option<usize> {
        let mut lines = 0;
        for words in &self.all {
            let mut used = f64::INFINITY;
            for (_, width) in words {
                if *width > ems + 1e-9 {
                    return None;
                }
                used += self.space + width;
                if used > ems + 1e-9 {
                    lines += 1;
                    used = *width;
                }
            }
        }
        Some(lines)
    }
}

/// The room of a cell: its width and height in mm, what stands beside the text in multiples of the type size.
struct Room {
    width: f64,
    beside: f64,
    height: f64,
    leading: f64,
}

impl Room {
    /// The largest type at which the text holds; 0 where there is none.
    fn largest(&self, text: &Paragraphs) -> f64 {
        let mut best: f64 = 0.0;
        for ems in text.widths() {
            let by_width = self.width / (ems + self.beside);
            let Some(lines) = text.lines(ems) else { break };
            let by_height = self.height / (lines.max(1) as f64 * self.leading);
            best = best.max(by_width.min(by_height));
            // Narrower lines are only more of them.
            if by_height <= best && by_height < by_width {
                break;
            }
        }
        if text.all.iter().all(Vec::is_empty) {
            best = (self.height / self.leading).min(self.width / self.beside.max(1e-6));
        }
        best.max(0.0)
    }

    /// Its lines at this type, and how many of them are the wording; `None` where they do not hold.
    fn broken(&self, text: &Paragraphs, size: f64) -> Option<(Vec<String>, usize)> {
        let ems = self.width / size - self.beside;
        let count = text.lines(ems)?;
        if count as f64 * self.leading * size > self.height + 1e-9 {
            return None;
        }
        let (mut lines, mut worded): (Vec<String>, usize) = (Vec::new(), 0);
        for (n, words) in text.all.iter().enumerate() {
            let mut used = f64::INFINITY;
            for (word, width) in words {
                used += text.space + width;
                match lines.last_mut() {
                    Some(line) if used <= ems + 1e-9 => {
                        line.push(' ');
                        line.push_str(word);
                    }
                    _ => {
                        lines.push(word.clone());
                        used = *width;
                    }
                }
            }
            if n == 0 {
                worded = lines.len();
            }
        }
        Some((lines, worded))
    }

    /// How high the cell has to be at this type; `None` where a word is too wide.
    fn height_needed(&self, text: &Paragraphs, size: f64) -> Option<f64> {
        Some(text.lines(self.width / size - self.beside)?.max(1) as f64 * self.leading * size)
    }
}

/// What would help: how high the card had to be at its width, or which lines have a word that is too long.
fn too_small(
    card: &Card,
    request: &FitRequest,
    around: &Around,
    texts: &[Vec<Paragraphs>],
    largest: &[f64],
    room: &dyn Fn(f64, &CardCell) -> Room,
) -> CardTooSmall {
    let least = request.type_mm.0;
    let mut tight: Vec<(f64, &CardCell)> =
        largest.iter().zip(&card.cells).filter(|(size, _)| **size < least).map(|(size, cell)| (*size, cell)).collect();
    tight.sort_by(|a, b| a.0.total_cmp(&b.0));
    let tightest: Vec<String> = tight.iter().take(5).map(|(_, cell)| cell.number.clone()).collect();
    // The height that a row must have for each cell, at the smallest type and with every word as short as it may be.
    let row = |(cell, texts): (&CardCell, &Vec<Paragraphs>)| -> Option<f64> {
        let needed = room(1.0, cell).height_needed(texts.last()?, least)?;
        // The blank space takes a tenth of a low cell and no more than `pad` of a high one.
        let with_pad = (needed / 0.9).min(needed + request.pad);
        Some(with_pad * 2.0 / f64::from(cell.part.height))
    };
    let rows: Option<Vec<f64>> = card.cells.iter().zip(texts).map(row).collect();
    let (width, height) = (card.panel.card.width_mm, card.panel.card.height_mm);
    let lines = crate::model::listed(&tightest);
    let advice = match rows {
        Some(rows) => {
            let row = rows.into_iter().fold(0.0, f64::max);
            let needed = (row * f64::from(card.rows) + around.head + around.foot + 2.0 * request.margin).ceil();
            format!(
                "At this width it has to be {needed} mm high. Give the true size of the door, write shorter own words for {lines}, or \
                 write the directory out as a sheet and hang that beside the panel."
            )
        }
        None => format!(
            "A word does not fit beside its number. Make the card wider, write shorter own words for {lines}, or write the directory out \
             as a sheet and hang that beside the panel."
        ),
    };
    CardTooSmall {
        wrong: format!("A card of {width} by {height} mm would need letters below 5 points, which nobody reads at a panel."),
        advice,
        tightest,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::directory::{Printed, card};
    use crate::fixture::written;

    /// Every letter half as wide as the type is high.
    fn half(text: &str) -> f64 {
        text.chars().count() as f64 * 0.5
    }

    const FACES: CardFaces<'_> = CardFaces { head: &half, text: &half };

    fn card_of(text: &str) -> Card {
        card(&written(text).home, &"main".parse().unwrap(), Printed { date: "2026-11-24", by: "" }).unwrap()
    }

    fn fitted(card: &Card) -> FittedCard {
        fit_card(card, &FitRequest::default(), FACES).unwrap()
    }

    #[test]
    fn the_size_is_what_the_arithmetic_gives() {
        // One cell of 20 letters without a blank: its width alone decides. The card is 120 mm wide, 112 mm inside, two columns beside a post of 3 mm.
        let card = card_of("panel 2\n1 20 x");
        let mut card = card;
        card.cells[0].text = "x".repeat(60);
        // Letter 1.5, number 1 letter at 1.1, amps 2 letters, text 60 letters, each half an em; four pads of 0.8 mm.
        let expected = ((112.0 - 3.0) / 2.0 - 4.0 * 0.8) / (1.5 + 0.55 + 1.0 + 30.0);
        assert!(expected < 5.0 * POINT, "{expected}");
        let refused = fit_card(&card, &FitRequest::default(), FACES).unwrap_err();
        assert!(refused.advice.contains("wider") && refused.tightest == ["1"], "{refused}");
        card.cells[0].text = "x".repeat(30);
        let expected = ((112.0 - 3.0) / 2.0 - 4.0 * 0.8) / (1.5 + 0.55 + 1.0 + 15.0);
        assert!((fitted(&card).type_mm - expected).abs() < 1e-6, "{} {expected}", fitted(&card).type_mm);
    }

    #[test]
    fn a_card_too_low_says_how_high_it_has_to_be_and_that_height_is_right() {
        let many = "receptacles of the counter and the refrigerator and the microwave and the dishwasher of the kitchen";
        let mut card = card_of(&format!("panel 84\n1 20 {many}\n4 20 {many}"));
        card.panel.card.height_mm = 120.0;
        let refused = fit_card(&card, &FitRequest::default(), FACES).unwrap_err();
        assert!(refused.wrong.contains("below 5 points"), "{refused}");
        let asked: f64 = refused.advice.split("has to be ").nth(1).unwrap().split(' ').next().unwrap().parse().unwrap();
        card.panel.card.height_mm = asked;
        assert!(fitted(&card).type_pt() >= 5.0 - 1e-6);
        card.panel.card.height_mm = asked - 1.5;
        assert!(fit_card(&card, &FitRequest::default(), FACES).is_err(), "{asked} mm is more than it takes");
    }

    #[test]
    fn words_are_shortened_only_where_the_type_would_be_too_small() {
        let wide = card_of("panel 8\n1 20 kitchen counter receptacles");
        let shown = |card: &Card| fitted(card).cells[0].lines.join(" ");
        assert!(shown(&wide).contains("kitchen counter receptacles"), "{}", shown(&wide));
        let many = "receptacles of the counter and the refrigerator and the microwave and the dishwasher of the kitchen";
        let tight = card_of(&format!("panel 42\n1 20 {many}"));
        assert!(shown(&tight).contains("refrig.") && fitted(&tight).type_mm <= 2.47, "{}", shown(&tight));
    }

    #[test]
    fn no_larger_type_holds_where_words_are_shortened_either() {
        let many = "receptacles of the counter and the refrigerator and the microwave and the dishwasher of the kitchen";
        for spaces in [42, 48] {
            let card = card_of(&format!("panel {spaces}\n1 20 {many}\n4 20 {many}"));
            let request = FitRequest::default();
            let fitted = fitted(&card);
            assert!(fitted.type_mm <= request.shorten_mm, "{spaces} spaces leave room: {}", fitted.type_mm);
            let larger = fitted.type_mm * 1.001;
            let fixed = Fixed::of(&card, &request, FACES);
            let holds = |cell: &CardCell| {
                let room = Room {
                    width: fixed.width - 4.0 * request.pad,
                    beside: fixed.number + fixed.amps + request.letter,
                    height: high(fitted.row_mm / 2.0 * f64::from(cell.part.height), &request),
                    leading: request.leading,
                };
                let texts = measured(cell, &half);
                let may_be = if larger <= request.shorten_mm { &texts[..] } else { &texts[..1] };
                may_be.iter().any(|text| room.broken(text, larger).is_some())
            };
            assert!(!card.cells.iter().all(holds), "{larger} would do with {spaces} spaces");
        }
    }

    #[test]
    fn long_names_of_home_and_panel_are_wrapped() {
        let mut card = card_of("panel 8\n1 20 attic");
        card.text.title = "The old schoolhouse at the end of the lane behind the orchard ".repeat(2);
        card.text.subtitle = "x".repeat(300);
        let fitted = fitted(&card);
        for (text, size) in [(&fitted.title, fitted.title.size), (&fitted.subtitle, fitted.subtitle.size)] {
            assert!(text.lines.len() > 1 && text.lines.iter().all(|line| half(line) * size <= 112.0), "{text:?}");
        }
        assert_eq!(fitted.subtitle.lines.concat().len(), 300, "nothing is lost");
    }
}
