//! Fits the card's text into its cells by arithmetic: the largest type at which every cell holds its
//! wording, found by bisection. Below a comfortable type, words are shortened by a table where a cell has no room for
//! the whole ones; below the smallest readable type a cell's wording is cut with an ellipsis and said to be cut.
//!
//! All lengths are millimetres. How wide a text runs is asked of the caller, who has the fonts.

use super::{Card, CardCell};
use crate::model::{Columns, Side};
use crate::wording::shorter;

/// What the card is fitted into, in millimetres.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FitRequest {
    /// Blank border of the card.
    pub margin: f64,
    /// Height of title and subtitle.
    pub head: f64,
    /// Height of the foot.
    pub foot: f64,
    /// Width of the number at the post side of a cell, in multiples of the type size.
    pub number_ems: f64,
    /// Width of the amps at the outer side, in multiples of the type size.
    pub amps_ems: f64,
    /// Width of the post between the columns.
    pub post: f64,
    /// Blank space around the text of a cell.
    pub pad: f64,
    /// Smallest and largest type size.
    pub type_mm: (f64, f64),
    /// At this type size and below, words may be shortened.
    pub shorten_mm: f64,
    /// Distance of base lines in multiples of the type size.
    pub leading: f64,
}

impl Default for FitRequest {
    fn default() -> Self {
        Self {
            margin: 4.0,
            head: 13.0,
            foot: 8.0,
            number_ems: 3.4,
            amps_ems: 1.7,
            post: 4.0,
            pad: 0.9,
            type_mm: (1.5, 4.2),
            // Seven points.
            shorten_mm: 2.47,
            leading: 1.16,
        }
    }
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
    /// Left edge of the text within the card.
    pub text_x: f64,
    /// Width of the text.
    pub text_width: f64,
    /// The text, broken.
    pub lines: Vec<String>,
    /// The wording did not fit and was cut.
    pub cut: bool,
}

/// The whole card, fitted.
#[derive(Debug, Clone, PartialEq)]
pub struct FittedCard {
    /// Type size.
    pub type_mm: f64,
    /// Distance of base lines.
    pub leading_mm: f64,
    /// Its cells.
    pub cells: Vec<FittedCell>,
}

/// Fits the card. `width_of` gives the width in mm of a text at a type size of 1 mm; it is asked once for
/// each word.
pub fn fit_card(card: &Card, request: &FitRequest, width_of: &dyn Fn(&str) -> f64) -> FittedCard {
    let texts: Vec<Vec<Text>> = card.cells.iter().map(|cell| measured(cell, width_of)).collect();
    let (least, most) = request.type_mm;
    let all_fit = |size: f64| place(card, &texts, request, size).is_some();
    let size = if all_fit(most) {
        most
    } else if !all_fit(least) {
        least
    } else {
        let (mut fits, mut fails) = (least, most);
        while fails - fits > 0.01 {
            let middle = f64::midpoint(fits, fails);
            if all_fit(middle) { fits = middle } else { fails = middle }
        }
        fits
    };
    let cells = place(card, &texts, request, size).unwrap_or_else(|| {
        let shortest = texts.iter().filter_map(|texts| texts.last());
        boxes(card, request, size)
            .into_iter()
            .zip(shortest)
            .map(|(cell, text)| cut(cell, text, request, size, width_of))
            .collect()
    });
    FittedCard { type_mm: size, leading_mm: size * request.leading, cells }
}

/// The text of a cell, then with one word more shortened each time.
fn measured(cell: &CardCell, width_of: &dyn Fn(&str) -> f64) -> Vec<Text> {
    shorter(&cell.text).iter().map(|text| Text::measured(text, width_of)).collect()
}

/// A text as words with their widths at a type size of 1 mm.
struct Text {
    words: Vec<(String, f64)>,
    space: f64,
}

impl Text {
    fn measured(text: &str, width_of: &dyn Fn(&str) -> f64) -> Self {
        let words = text.split_whitespace().map(|word| (word.to_owned(), width_of(word))).collect();
        Self { words, space: width_of(" ") }
    }

    /// Its first words; the last of them ends in an ellipsis.
    fn first(&self, count: usize, width_of: &dyn Fn(&str) -> f64) -> Self {
        let mut words = self.words[..count].to_vec();
        match words.last_mut() {
            Some((word, width)) => {
                word.push_str("...");
                *width = width_of(word);
            }
            None => words.push(("...".into(), width_of("..."))),
        }
        Self { words, space: self.space }
    }

    /// Breaks between words; `None` when a word alone is too long.
    fn broken(&self, ems: f64) -> Option<Vec<String>> {
        let mut lines: Vec<String> = Vec::new();
        let mut used = 0.0;
        for (word, width) in &self.words {
            if *width > ems {
                return None;
            }
            match lines.last_mut() {
                Some(line) if used + self.space + width <= ems => {
                    line.push(' ');
                    line.push_str(word);
                    used += self.space + width;
                }
                _ => {
                    lines.push(word.clone());
                    used = *width;
                }
            }
        }
        Some(lines)
    }
}

fn boxes(card: &Card, request: &FitRequest, size: f64) -> Vec<FittedCell> {
    let inner = card.panel.card.width_mm - 2.0 * request.margin;
    let one = card.panel.columns == Columns::One;
    let width = if one { inner } else { (inner - request.post) / 2.0 };
    let row = (card.panel.card.height_mm - 2.0 * request.margin - request.head - request.foot) / f64::from(card.rows.max(1));
    card.cells
        .iter()
        .map(|cell| {
            let left = cell.side == Side::Left;
            let x = if left { request.margin } else { request.margin + width + request.post };
            let (number, amps) = (request.number_ems * size, request.amps_ems * size);
            let y = request.margin + request.head + row / 2.0 * f64::from(cell.part.top);
            let height = row / 2.0 * f64::from(cell.part.height);
            let text_x = x + request.pad + if left && !one { amps } else { number };
            FittedCell {
                cell: cell.clone(),
                x,
                y,
                width,
                height,
                text_x,
                text_width: width - number - amps - 2.0 * request.pad,
                lines: Vec::new(),
                cut: false,
            }
        })
        .collect()
}

/// Every cell with its text broken, or `None` when one does not hold.
fn place(card: &Card, texts: &[Vec<Text>], request: &FitRequest, size: f64) -> Option<Vec<FittedCell>> {
    let mut cells = boxes(card, request, size);
    for (cell, texts) in cells.iter_mut().zip(texts) {
        let may_be = if size <= request.shorten_mm { &texts[..] } else { &texts[..1] };
        let room = lines_that_fit(cell.height, request, size);
        let ems = cell.text_width / size;
        cell.lines = may_be.iter().find_map(|text| text.broken(ems).filter(|lines| lines.len() <= room))?;
    }
    Some(cells)
}

fn lines_that_fit(height: f64, request: &FitRequest, size: f64) -> usize {
    (((height - request.pad.min(height * 0.1)) / (size * request.leading)).floor().max(0.0)) as usize
}

/// As many whole words as hold, then an ellipsis; of a first word that alone is too long, its first letters.
fn cut(mut cell: FittedCell, text: &Text, request: &FitRequest, size: f64, width_of: &dyn Fn(&str) -> f64) -> FittedCell {
    let ems = cell.text_width / size;
    let room = lines_that_fit(cell.height, request, size).max(1);
    let holds = |text: &Text| text.broken(ems).filter(|lines| lines.len() <= room);
    if let Some(lines) = holds(text) {
        cell.lines = lines;
        return cell;
    }
    cell.cut = true;
    let (mut holds_so_many, mut too_many) = (0, text.words.len() + 1);
    while too_many - holds_so_many > 1 {
        let middle = usize::midpoint(holds_so_many, too_many);
        if holds(&text.first(middle, width_of)).is_some() { holds_so_many = middle } else { too_many = middle }
    }
    cell.lines = if holds_so_many > 0 {
        holds(&text.first(holds_so_many, width_of)).unwrap_or_default()
    } else {
        let letters: Vec<char> = text.words.first().map(|(word, _)| word.chars().collect()).unwrap_or_default();
        let begun = |count: usize| format!("{}...", letters[..count].iter().collect::<String>());
        let count = (0..letters.len()).take_while(|count| width_of(&begun(*count)) <= ems).last().unwrap_or(0);
        vec![begun(count)]
    };
    cell
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::directory::card;
    use crate::fixture::written;

    /// Every letter half as wide as the type is high.
    fn half(text: &str) -> f64 {
        text.chars().count() as f64 * 0.5
    }

    fn card_of(text: &str) -> Card {
        card(&written(text).home, &"main".parse().unwrap(), "2026-11-24").unwrap()
    }

    #[test]
    fn every_text_stays_within_its_cell_and_the_type_is_the_largest_that_does() {
        let card = card_of(
            "panel 24\n1 20 kitchen counter north and south\n5-7 50/2 range\n14a 15 bell\n14b 15 cellar lights and the well pump",
        );
        let request = FitRequest::default();
        let fitted = fit_card(&card, &request, &half);
        for cell in &fitted.cells {
            assert!(!cell.cut);
            assert!(cell.lines.len() as f64 * fitted.leading_mm <= cell.height + 1e-9, "{cell:?}");
            assert!(cell.lines.iter().all(|line| half(line) * fitted.type_mm <= cell.text_width + 1e-9), "{cell:?}");
        }
        let texts: Vec<Vec<Text>> = card.cells.iter().map(|cell| measured(cell, &half)).collect();
        assert!(place(&card, &texts, &request, fitted.type_mm + 0.02).is_none(), "a larger type would fit too");
    }

    #[test]
    fn what_cannot_fit_is_cut_and_says_so() {
        let long = "x".repeat(100);
        let card = card_of(&format!("panel 84\n1 20 {long}\n3 20 attic"));
        let fitted = fit_card(&card, &FitRequest::default(), &half);
        let cell = &fitted.cells[0];
        assert!(cell.cut && cell.lines.last().unwrap().ends_with("..."), "{cell:?}");
        assert!(fitted.cells.iter().filter(|c| c.cut).count() == 1);
    }

    #[test]
    fn words_are_shortened_only_where_the_type_would_be_too_small() {
        let wide = card_of("panel 8\n1 20 kitchen counter receptacles");
        let shown = |card: &Card| fit_card(card, &FitRequest::default(), &half).cells[0].lines.join(" ");
        assert!(shown(&wide).contains("kitchen counter receptacles"), "{}", shown(&wide));
        let many = "receptacles of the counter and the refrigerator and the microwave and the dishwasher of the kitchen";
        let tight = card_of(&format!("panel 42\n1 20 {many}"));
        let fitted = fit_card(&tight, &FitRequest::default(), &half);
        let said = fitted.cells[0].lines.join(" ");
        assert!(said.contains("refrig.") && !fitted.cells[0].cut && fitted.type_mm <= 2.47, "{said} {}", fitted.type_mm);
    }

    #[test]
    fn cells_tile_the_card_without_overlap() {
        let card = card_of("panel 42\n5-7 50/2 range\n14a 15 bell");
        let fitted = fit_card(&card, &FitRequest::default(), &half);
        for (n, a) in fitted.cells.iter().enumerate() {
            for b in &fitted.cells[n + 1..] {
                let apart = a.x + a.width <= b.x + 1e-9
                    || b.x + b.width <= a.x + 1e-9
                    || a.y + a.height <= b.y + 1e-9
                    || b.y + b.height <= a.y + 1e-9;
                assert!(apart, "{} and {}", a.cell.number, b.cell.number);
            }
        }
    }
}
