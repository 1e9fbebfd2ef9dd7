//! Sheets of stickers as another program reads them: poppler's `pdftotext` and `pdfinfo`.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod poppler;

use poppler::{boxes, pages};
use wayfinder_core::{Printed, Sticker, Study, card};
use wayfinder_formats::{CardColors, PdfError, Sheet, StickerSheet, fitted_card, read_home_file, stickers_pdf, strips_pdf};

const SHEET: StickerSheet =
    StickerSheet { paper: (215.9, 279.4), cells: (3, 10), margin: (5.0, 12.7), label: (66.0, 25.4), gap: (3.0, 0.0) };

fn some(count: usize) -> Vec<Sticker> {
    let sticker = |n: usize| Sticker {
        point: format!("p{n}").parse().unwrap(),
        at: format!("Room, {n}"),
        number: format!("{}-{}", n + 1, n + 3),
        place: "Main panel, left column, 6th down".into(),
        gfci: n.is_multiple_of(2),
        says: String::new(),
        changed: true,
    };
    (0..count).map(sticker).collect()
}

#[test]
fn every_sticker_stands_in_its_cell_beginning_where_asked() {
    let stickers = some(30);
    let pdf = stickers_pdf(&stickers, &SHEET, 6).unwrap();
    assert_eq!(pages(&pdf), 2, "24 on the first sheet, 6 on the second");
    let words = boxes(&pdf);
    for (n, sticker) in stickers.iter().enumerate() {
        let (page, cell) = ((n + 6) / 30, (n + 6) % 30);
        let (x, y) = SHEET.place(cell);
        let here: Vec<&str> = words
            .iter()
            .filter(|word| {
                word.page == page && word.left > x && word.right < x + 66.0 && word.middle() > y && word.middle() < y + 25.4
            })
            .map(|word| word.text.as_str())
            .collect();
        assert!(here.contains(&sticker.number.as_str()) && here.contains(&"column,"), "{n}: {here:?}");
        assert_eq!(here.contains(&"GFCI"), sticker.gfci, "{n}: {here:?}");
    }
    assert_eq!(words.iter().filter(|word| word.text == "column,").count(), 30, "nothing stands in the cells before the seventh");
}

#[test]
fn what_does_not_fit_is_said_and_not_printed() {
    let refused = |sheet: StickerSheet, begin: usize| match stickers_pdf(&some(3), &sheet, begin) {
        Err(PdfError::BadSheet(why)) => why,
        other => panic!("{:?}", other.map(|pdf| pdf.len())),
    };
    assert!(refused(StickerSheet { cells: (4, 10), ..SHEET }, 0).contains("outside the paper"));
    assert!(refused(StickerSheet { label: (12.0, 6.0), ..SHEET }, 0).contains("below 5 points"));
    assert!(refused(SHEET, 30).contains("30 labels"));
    assert!(refused(StickerSheet { gap: (f64::NAN, 0.0), ..SHEET }, 0).contains("0 to 200 mm"));
    assert!(refused(StickerSheet { cells: (0, 10), ..SHEET }, 0).contains("1 to 1000"));
}

/// A strip has the width and the height of the line it goes over, and its words.
#[test]
fn strips_stand_one_below_the_other_with_the_words_of_their_lines() {
    let (_, book) = read_home_file(include_bytes!("../../server/demo/juniper-lane.json")).unwrap();
    let card = card(&Study::from(&book), &"main".parse().unwrap(), Printed { date: "2026-11-30", by: "" }).unwrap();
    let on_card = fitted_card(&card, CardColors::Load).unwrap();
    let numbers: Vec<String> = ["1", "5-7", "24"].map(str::to_owned).to_vec();
    let pdf = strips_pdf(&card, Some(on_card.row_mm), &numbers, Sheet::A4, CardColors::Load).unwrap();
    let words = boxes(&pdf);
    let mut y = 28.0;
    for cell in on_card.cells.iter().filter(|cell| numbers.contains(&cell.cell.number)) {
        let here: Vec<&str> = words
            .iter()
            .filter(|word| word.middle() > y && word.middle() < y + cell.height && word.left >= 15.0)
            .map(|word| {
                assert!(word.right <= 15.0 + cell.width, "{word:?}");
                word.text.as_str()
            })
            .collect();
        for word in cell.lines.iter().flat_map(|line| line.split_whitespace()).chain([cell.cell.number.as_str()]) {
            assert!(here.contains(&word), "{word} of {} is not in {here:?}", cell.cell.number);
        }
        y += cell.height + 3.0;
    }
    assert_eq!(pages(&pdf), 1);
    let all: Vec<String> = card.cells.iter().map(|cell| cell.number.clone()).collect();
    let high = strips_pdf(&card, Some(30.0), &all, Sheet::Letter, CardColors::None).unwrap();
    let printed = boxes(&high);
    assert!(pages(&high) > 2 && all.iter().all(|number| printed.iter().any(|word| &word.text == number)), "{}", pages(&high));
}
