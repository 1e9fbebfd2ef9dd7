//! The home book as other programs read it: poppler's `pdfinfo`, `pdffonts`, `pdftotext` and `pdftohtml`.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod poppler;

use poppler::{boxes, lines_of, pages, poppler, text};
use wayfinder_core::{BookPart, Printed, Study, card, ends_open, findings, panel_views};
use wayfinder_formats::{BookAsked, CardColors, Sheet, home_book_pdf, read_home_file};

fn demo() -> Study {
    let (_, book) = read_home_file(include_bytes!("../../server/demo/juniper-lane.json")).unwrap();
    Study::from(&book)
}

fn book_of(home: &Study, parts: &[BookPart], paper: Sheet) -> Vec<u8> {
    let printed = Printed { date: "2026-12-01", by: "Owner" };
    let asked = BookAsked { parts, paper, colors: CardColors::Load, printed };
    home_book_pdf(home, &asked, &mut |_, _, _| {}).unwrap()
}

/// The text of one page, counted from 1.
fn page_text(pdf: &[u8], page: usize) -> String {
    let (page, raw) = (page.to_string(), "-raw");
    poppler("pdftotext", pdf, &["-f", &page, "-l", &page, raw]).split_whitespace().collect::<Vec<_>>().join(" ")
}

#[test]
fn the_contents_lead_to_the_pages_that_they_name() {
    let home = demo();
    let pdf = book_of(&home, &BookPart::ALL, Sheet::Letter);
    let contents = poppler("pdftotext", &pdf, &["-f", "2", "-l", "2", "-layout"]);
    assert!(contents.contains("Contents"), "{contents}");
    let named: Vec<(String, usize)> = contents
        .lines()
        .filter_map(|line| {
            let (title, page) = line.trim().rsplit_once("  ")?;
            Some((title.trim().to_owned(), page.trim().parse().ok()?))
        })
        .collect();
    let mut expected: Vec<String> = vec!["Before you touch anything".into()];
    expected.extend(panel_views(&home).iter().map(|view| format!("Card: {}", view.panel.name)));
    assert!(named.len() >= 12 && expected.iter().all(|title| named.iter().any(|(known, _)| known == title)), "{named:?}");
    for (title, page) in &named {
        let there = page_text(&pdf, *page);
        // A card and a plan name the panel and the floor; all else has its title on top.
        let (kind, rest) = title.split_once(": ").unwrap_or(("", title));
        let wanted = match kind {
            "Card" | "Plan" => rest.split(',').next().unwrap(),
            _ => title,
        };
        assert!(there.contains(wanted), "page {page} has no “{wanted}”: {there}");
    }
    assert!(named.windows(2).all(|pair| pair[0].1 < pair[1].1), "{named:?}");
    let last = pages(&pdf);
    assert!(page_text(&pdf, last).ends_with(&format!("page {last} of {last}")), "{}", page_text(&pdf, last));
    // Links and the list of parts that a reader shows beside the pages.
    let html = poppler("pdftohtml", &pdf, &["-stdout", "-i", "-q"]);
    for (title, page) in &named {
        assert!(html.contains(&format!("#{page}\"")), "nothing leads to page {page} ({title})");
    }
    let fonts = poppler("pdffonts", &pdf, &[]);
    assert!(fonts.lines().skip(2).all(|row| row.contains(" yes yes ")), "{fonts}");
}

#[test]
fn nothing_is_left_out_and_nothing_leaves_its_page() {
    let home = demo();
    let pdf = book_of(&home, &BookPart::ALL, Sheet::A4);
    let all = text(&pdf);
    for view in panel_views(&home) {
        for cell in card(&home, &view.panel.id, Printed::default()).unwrap().cells {
            assert!(all.contains(&cell.text), "“{}” of {} is not in the book", cell.text, cell.number);
        }
    }
    for point in home.house().points() {
        assert!(all.contains(&point.name), "{} is not in the book", point.name);
    }
    for finding in findings(&home) {
        let message = finding.message.split_whitespace().take(4).collect::<Vec<_>>().join(" ");
        assert!(all.contains(&message), "“{message}” is not in the book");
    }
    let open = ends_open(&home);
    assert!(!open.is_empty() && open.iter().all(|open| all.contains(&open.name)));
    for word in boxes(&pdf) {
        // A4, standing or lying.
        let within = word.left > 3.0 && word.top > 1.0 && word.right < 295.0 && word.bottom < 296.0;
        assert!(within, "{word:?} leaves its page");
    }
}

#[test]
fn each_part_stands_alone_without_cover() {
    let home = demo();
    for part in BookPart::ALL {
        let pdf = book_of(&home, &[part], Sheet::Letter);
        let all = text(&pdf);
        assert!(!all.contains("Contents"), "{part:?}");
        let title = if matches!(part, BookPart::Cards | BookPart::Plans) { "Juniper Lane" } else { part.title() };
        assert!(all.contains(title) && all.contains(", revision "), "{part:?}: {all}");
    }
}

#[test]
fn a_home_without_anything_has_a_book_that_says_so() {
    let home = wayfinder_fixture::written("home Weir Cottage").home;
    let mut told = Vec::new();
    let asked = BookAsked {
        parts: &BookPart::ALL,
        paper: Sheet::Letter,
        colors: CardColors::None,
        printed: Printed { date: "2026-12-01", by: "" },
    };
    let pdf = home_book_pdf(&home, &asked, &mut |making, done, of| told.push((making.to_owned(), done, of))).unwrap();
    let all = text(&pdf);
    for said in ["No room is entered yet.", "No equipment is entered yet.", "No device with a test button is recorded."] {
        assert!(all.contains(said), "{said}: {all}");
    }
    assert!(told.len() == 11 && told.iter().enumerate().all(|(n, (_, done, of))| *done == n && *of == 11), "{told:?}");
}

/// The scale that the contents name, measured in the page's own coordinates: every wall of the first floor drawn.
#[test]
fn a_plan_in_the_book_is_to_the_scale_that_the_contents_name() {
    let home = demo();
    let plan = wayfinder_core::plan(&home);
    let floor = plan.floors.iter().find(|floor| !floor.walls.is_empty()).unwrap();
    let contents = page_text(&book_of(&home, &[BookPart::Plans, BookPart::Legend], Sheet::A4), 2);
    let named = contents.split(&format!("Plan: {}, 1:", floor.name)).nth(1).unwrap();
    let scale: f64 = named.split(' ').next().unwrap().parse().unwrap();
    let mm = |points: f64| points * 25.4 / 72.0;
    let walls: Vec<f64> = lines_of(&book_of(&home, &[BookPart::Plans], Sheet::A4))
        .into_iter()
        .filter(|(width, _)| (mm(*width) - wayfinder_formats::WALL_WEIGHT).abs() < 0.01)
        .map(|(_, [x1, y1, x2, y2])| mm((x1 - x2).hypot(y1 - y2)) * scale)
        .collect();
    assert_eq!(walls.len(), floor.walls.len());
    for (measured, wall) in walls.iter().zip(&floor.walls) {
        let in_house = f64::from(wall.from.x - wall.to.x).hypot(f64::from(wall.from.y - wall.to.y));
        // Poppler writes coordinates to a hundredth of a point.
        assert!((measured - in_house).abs() < 0.02 * scale, "{measured} for {in_house} at 1:{scale}");
    }
}
