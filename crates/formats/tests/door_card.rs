//! The door card as other programs read it: poppler's `pdfinfo`, `pdffonts` and `pdftotext`.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::process::Command;

use wayfinder_core::{Card, Study, card};
use wayfinder_formats::{PdfError, Sheet, door_card_pdf, read_home_file};

fn demo_card() -> Card {
    let (_, book) = read_home_file(include_bytes!("../../server/demo/juniper-lane.json")).unwrap();
    card(&Study::from(&book), &"main".parse().unwrap(), "2026-11-24").unwrap()
}

fn poppler(tool: &str, pdf: &[u8], arguments: &[&str]) -> String {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("card.pdf");
    std::fs::write(&path, pdf).unwrap();
    let mut command = Command::new(tool);
    command.args(arguments).arg(&path);
    if tool == "pdftotext" {
        command.arg("-");
    }
    let out = command.output().unwrap_or_else(|error| panic!("{tool}: {error}; `cargo xtask test` installs poppler-utils"));
    assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
    String::from_utf8(out.stdout).unwrap()
}

#[test]
fn the_page_is_the_card_at_true_size_or_the_sheet() {
    let card = demo_card();
    for (sheet, width_mm, height_mm) in [(Sheet::Card, 130.0, 210.0), (Sheet::Letter, 215.9, 279.4), (Sheet::A4, 210.0, 297.0)] {
        let info = poppler("pdfinfo", &door_card_pdf(&card, sheet).unwrap(), &[]);
        let size = info.lines().find_map(|l| l.strip_prefix("Page size:")).unwrap().trim();
        let mut points = size.split(' ').filter_map(|word| word.parse::<f64>().ok());
        // 1 inch is 25.4 mm and 72 points, by definition.
        for mm in [width_mm, height_mm] {
            let printed = points.next().unwrap() / 72.0 * 25.4;
            assert!((printed - mm).abs() < 0.05, "{sheet:?}: {printed} mm for {mm} mm");
        }
        assert!(info.contains("Pages:           1"), "{info}");
    }
}

#[test]
fn every_word_of_the_card_is_in_it_within_the_page_and_the_fonts_are_embedded() {
    let card = demo_card();
    let pdf = door_card_pdf(&card, Sheet::Card).unwrap();
    let text = poppler("pdftotext", &pdf, &["-raw"]).split_whitespace().collect::<Vec<_>>().join(" ");
    for cell in &card.cells {
        assert!(text.contains(&cell.text), "“{}” of {} is not in: {text}", cell.text, cell.number);
        assert!(text.contains(&cell.number), "{}", cell.number);
    }
    for line in card.text.foot.iter().chain([&card.text.title, &card.text.subtitle]) {
        assert!(text.contains(line), "“{line}” is not in: {text}");
    }
    assert!(words_within_the_page(&pdf) > 60);
    let fonts = poppler("pdffonts", &pdf, &[]);
    let rows: Vec<_> = fonts.lines().skip(2).collect();
    assert!(rows.len() == 2 && rows.iter().all(|row| row.contains(" yes yes ")), "{fonts}");
}

#[test]
fn a_card_larger_than_the_sheet_is_said_to_be_and_odd_letters_do_not_break_it() {
    let mut card = demo_card();
    card.panel.card.height_mm = 290.0;
    assert!(matches!(door_card_pdf(&card, Sheet::Letter), Err(PdfError::TooLarge(..))));
    card.panel.card.height_mm = 210.0;
    card.text.title = "Küche 客厅 \u{1F600}".into();
    let text = poppler("pdftotext", &door_card_pdf(&card, Sheet::Card).unwrap(), &[]);
    assert!(text.contains("Küche ??"), "{text}");
}

/// Every word's box lies on the page of 130 by 210 mm; how many words there are.
fn words_within_the_page(pdf: &[u8]) -> usize {
    let boxes = poppler("pdftotext", pdf, &["-bbox"]);
    let edge = |word: &str, name: &str| -> f64 {
        let after = word.split(&format!("{name}=\"")).nth(1).unwrap();
        after.split('"').next().unwrap().parse().unwrap()
    };
    let words: Vec<&str> = boxes.lines().filter(|line| line.contains("<word ")).collect();
    for word in &words {
        assert!(edge(word, "xMin") > 0.0 && edge(word, "yMin") > 0.0, "{word}");
        assert!(edge(word, "xMax") < 130.0 / 25.4 * 72.0 && edge(word, "yMax") < 210.0 / 25.4 * 72.0, "{word}");
    }
    words.len()
}

#[test]
fn far_too_long_wordings_are_cut_visibly_and_stay_on_the_one_page() {
    let mut card = demo_card();
    for cell in &mut card.cells {
        cell.text = format!("{} {}", cell.number, "Schoolroom: 14 receptacles, 9 lights; ".repeat(30));
    }
    let pdf = door_card_pdf(&card, Sheet::Card).unwrap();
    assert!(poppler("pdfinfo", &pdf, &[]).contains("Pages:           1"));
    assert!(words_within_the_page(&pdf) > 300);
    let text = poppler("pdftotext", &pdf, &["-raw"]);
    assert!(text.matches("...").count() >= card.cells.len() - 5, "the cut is not to be seen:\n{text}");
}
