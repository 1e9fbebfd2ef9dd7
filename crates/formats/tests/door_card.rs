//! The door card as other programs read it: poppler's `pdfinfo`, `pdffonts` and `pdftotext`.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod poppler;

use poppler::{boxes, page_mm, pages, poppler, text};
use wayfinder_core::{Card, Printed, Study, card};
use wayfinder_formats::{CardColors, PdfError, Sheet, door_card_pdf, door_card_svg, fitted_card, read_home_file};

fn demo_card() -> Card {
    let (_, book) = read_home_file(include_bytes!("../../server/demo/juniper-lane.json")).unwrap();
    card(&Study::from(&book), &"main".parse().unwrap(), Printed { date: "2026-11-24", by: "Owner" }).unwrap()
}

#[test]
fn the_page_is_the_card_at_true_size_or_the_sheet() {
    let card = demo_card();
    for (sheet, width_mm, height_mm) in [(Sheet::Card, 130.0, 210.0), (Sheet::Letter, 215.9, 279.4), (Sheet::A4, 210.0, 297.0)] {
        let pdf = door_card_pdf(&card, sheet, CardColors::Load).unwrap();
        let (width, height) = page_mm(&pdf);
        assert!((width - width_mm).abs() < 0.05 && (height - height_mm).abs() < 0.05, "{sheet:?}: {width} by {height} mm");
        assert_eq!(pages(&pdf), 1);
    }
}

#[test]
fn every_word_of_the_card_is_in_it_within_the_page_and_the_fonts_are_embedded() {
    let card = demo_card();
    let pdf = door_card_pdf(&card, Sheet::Card, CardColors::Load).unwrap();
    let text = text(&pdf);
    for cell in &card.cells {
        assert!(text.contains(&cell.text), "“{}” of {} is not in: {text}", cell.text, cell.number);
        assert!(text.contains(&cell.number), "{}", cell.number);
    }
    for line in card.text.foot.iter().chain([&card.text.title, &card.text.subtitle]) {
        assert!(text.contains(line), "“{line}” is not in: {text}");
    }
    let words = boxes(&pdf);
    let within = |word: &poppler::Word| word.left > 0.0 && word.top > 0.0 && word.right < 130.0 && word.bottom < 210.0;
    assert!(words.len() > 60 && words.iter().all(within), "{words:?}");
    let fonts = poppler("pdffonts", &pdf, &[]);
    let rows: Vec<_> = fonts.lines().skip(2).collect();
    assert!(rows.len() == 2 && rows.iter().all(|row| row.contains(" yes yes ")), "{fonts}");
}

#[test]
fn a_card_larger_than_the_sheet_is_said_to_be_and_odd_letters_do_not_break_it() {
    let mut card = demo_card();
    card.panel.card.height_mm = 290.0;
    assert!(matches!(door_card_pdf(&card, Sheet::Letter, CardColors::Load), Err(PdfError::TooLarge(..))));
    card.panel.card.height_mm = 210.0;
    card.text.title = "Küche 客厅 \u{1F600}".into();
    let text = text(&door_card_pdf(&card, Sheet::Card, CardColors::Load).unwrap());
    assert!(text.contains("Küche ??"), "{text}");
}

/// Read by poppler, every word of a cell lies within the cell, whatever the colors.
#[test]
fn every_word_lies_in_its_cell() {
    let card = demo_card();
    for colors in [CardColors::Load, CardColors::Amps, CardColors::None] {
        let fitted = fitted_card(&card, colors).unwrap();
        let words = boxes(&door_card_pdf(&card, Sheet::Card, colors).unwrap());
        let mut within = 0;
        for cell in &fitted.cells {
            let here: Vec<&str> = words
                .iter()
                .filter(|word| word.left >= cell.x - 0.1 && word.right <= cell.x + cell.width + 0.1)
                .filter(|word| word.middle() > cell.y && word.middle() < cell.y + cell.height)
                .map(|word| word.text.as_str())
                .collect();
            for word in cell.lines.iter().flat_map(|line| line.split_whitespace()).chain([cell.cell.number.as_str()]) {
                assert!(here.contains(&word), "“{word}” of {} is not in its cell, only {here:?}", cell.cell.number);
                within += 1;
            }
        }
        assert!(within > 60, "{within}");
    }
}

#[test]
fn the_colors_are_explained_where_they_are_printed() {
    let card = demo_card();
    let text = |colors| text(&door_card_pdf(&card, Sheet::Card, colors).unwrap());
    assert!(text(CardColors::Load).contains("H heat") && text(CardColors::Load).contains("what the biggest load does"));
    assert!(!text(CardColors::Amps).contains("H heat"));
}

/// No word is ever cut: where they do not hold, there is no card, and it says what would help.
#[test]
fn far_too_long_wordings_are_refused_with_advice() {
    let mut card = demo_card();
    for cell in &mut card.cells {
        cell.text = format!("{} {}", cell.number, "Schoolroom: 14 receptacles, 9 lights; ".repeat(30));
    }
    let Err(PdfError::TooSmall(refused)) = door_card_pdf(&card, Sheet::Card, CardColors::Load) else { panic!("it is printed") };
    assert!(refused.wrong.contains("130 by 210 mm") && refused.advice.contains("has to be"), "{refused}");
    assert_eq!(refused.tightest.len(), 5);
}

/// Read as XML: true size, every text of every cell, each no longer than its place.
#[test]
fn the_drawing_is_xml_with_every_text_in_its_place() {
    let card = demo_card();
    let fitted = fitted_card(&card, CardColors::Load).unwrap();
    let svg = door_card_svg(&card, CardColors::Load).unwrap();
    let mut reader = quick_xml::Reader::from_str(&svg);
    // Left end, length and words of each.
    let mut texts: Vec<(f64, f64, String)> = Vec::new();
    let mut at = None;
    loop {
        match reader.read_event().unwrap() {
            quick_xml::events::Event::Start(tag) => {
                let of = |name: &str| -> Option<String> {
                    tag.attributes().flatten().find(|one| one.key.as_ref() == name).map(|one| one.value.into_owned())
                };
                if tag.name().as_ref() == "svg" {
                    assert_eq!((of("width").as_deref(), of("height").as_deref()), (Some("130mm"), Some("210mm")));
                }
                let number = |name| of(name).and_then(|text| text.parse::<f64>().ok());
                at = number("x").zip(number("textLength")).filter(|_| tag.name().as_ref() == "text");
            }
            quick_xml::events::Event::Text(text) => {
                if let Some((x, long)) = at.take() {
                    texts.push((x, long, quick_xml::escape::unescape(&text).unwrap().into_owned()));
                }
            }
            quick_xml::events::Event::Eof => break,
            _ => {}
        }
    }
    for cell in &fitted.cells {
        for line in &cell.lines {
            let here =
                texts.iter().find(|(x, _, text)| text == line && *x >= cell.text.0 - 0.01 && *x <= cell.text.0 + cell.text.1);
            let (x, long, _) = here.unwrap_or_else(|| panic!("“{line}” of {}", cell.cell.number));
            assert!(x + long <= cell.text.0 + cell.text.1 + 0.01, "“{line}” of {}", cell.cell.number);
        }
    }
}

/// What a reader of codes that is not ours finds on the card as poppler draws it, at so many dots to the inch.
fn code_on(pdf: &[u8], dots: u32) -> Option<String> {
    let folder = tempfile::tempdir().unwrap();
    let (path, picture) = (folder.path().join("card.pdf"), folder.path().join("card"));
    std::fs::write(&path, pdf).unwrap();
    let mut draw = std::process::Command::new("pdftoppm");
    draw.args(["-r", &dots.to_string(), "-gray", "-singlefile"]).arg(&path).arg(&picture);
    assert!(draw.status().unwrap().success());
    let pgm = std::fs::read(picture.with_extension("pgm")).unwrap();
    // `P5`, width and height, 255, then a byte for each dot.
    let mut head = pgm.splitn(4, |byte| *byte == b'\n');
    let (_, size, _, dots) = (head.next(), head.next().unwrap(), head.next(), head.next().unwrap());
    let size: Vec<usize> = std::str::from_utf8(size).unwrap().split(' ').map(|n| n.parse().unwrap()).collect();
    let mut seen = rqrr::PreparedImage::prepare_from_greyscale(size[0], size[1], |x, y| dots[y * size[0] + x]);
    seen.detect_grids().first().and_then(|grid| grid.decode().ok()).map(|(_, text)| text)
}

#[test]
fn the_code_of_a_lasting_address_is_read_from_the_printed_card_and_stands_clear_of_all_text() {
    let longest = format!("https://home.example/h/{}", "x".repeat(100 - "https://home.example/h/".len()));
    for address in ["https://home.example/h/mill", &longest] {
        let mut card = demo_card();
        card.address = Some(address.to_owned());
        for sheet in [Sheet::Card, Sheet::A4] {
            let pdf = door_card_pdf(&card, sheet, CardColors::Load).unwrap();
            assert_eq!(code_on(&pdf, 200).as_deref(), Some(address), "{sheet:?}");
        }
        let fitted = fitted_card(&card, CardColors::Load).unwrap();
        let (x, y, side) = fitted.code.unwrap();
        // No square below 0.35 mm, so that a camera at arm's length tells two apart: a figure of ours.
        assert!(side / 49.0 > 0.35 && y + side <= 210.0 - 4.0 + 1e-6 && x + side <= 130.0 - 4.0 + 1e-6);
        for word in boxes(&door_card_pdf(&card, Sheet::Card, CardColors::Load).unwrap()) {
            let apart = word.right < x || word.left > x + side || word.middle() < y || word.middle() > y + side;
            assert!(apart, "{word:?} lies on the code");
        }
        assert!(fitted.cells.iter().all(|cell| cell.y + cell.height <= y + 1e-6), "a line lies on the code");
    }
    assert_eq!(code_on(&door_card_pdf(&demo_card(), Sheet::Card, CardColors::Load).unwrap(), 200), None);
}
