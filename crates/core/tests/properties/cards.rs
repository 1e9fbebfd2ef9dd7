//! The door card of any panel at any size: nothing overlaps, nothing is lost, and no larger type would do.

use super::written;
use proptest::prelude::*;
use wayfinder_core::*;
use wayfinder_fixture::any::{any_fact, id};

/// Letters of different widths, as a face has them.
fn wide(text: &str) -> f64 {
    text.chars().map(|c| if "il. ".contains(c) { 0.25 } else { 0.55 }).sum()
}

const FACES: CardFaces<'_> = CardFaces { head: &wide, text: &wide };

/// How many lines the words take at this width, filled from the left; `None` where one alone is too wide.
fn lines(text: &str, ems: f64) -> Option<usize> {
    let (mut count, mut used) = (0, f64::INFINITY);
    for word in text.split_whitespace() {
        if wide(word) > ems {
            return None;
        }
        used += wide(" ") + wide(word);
        if used > ems {
            count += 1;
            used = wide(word);
        }
    }
    Some(count)
}

fn apart(a: (f64, f64), b: (f64, f64)) -> bool {
    a.0 + a.1 <= b.0 + 1e-6 || b.0 + b.1 <= a.0 + 1e-6
}

/// Every cell is there, in its place, with all its words.
fn nothing_is_lost_or_overlaps(card: &Card, fitted: &FittedCard, request: &FitRequest) {
    let size = fitted.type_mm;
    let (width, height) = (card.panel.card.width_mm, card.panel.card.height_mm);
    assert!(size >= request.type_mm.0 - 1e-6 && size <= request.type_mm.1);
    assert_eq!(fitted.cells.len(), card.cells.len());
    for (cell, of) in fitted.cells.iter().zip(&card.cells) {
        let inside = |from: f64, wide: f64| from >= cell.x - 1e-6 && from + wide <= cell.x + cell.width + 1e-6;
        let parts = [cell.letter, cell.number, cell.text, cell.amps];
        assert!(parts.iter().all(|(from, wide)| *wide >= 0.0 && inside(*from, *wide)), "{cell:?}");
        assert!(parts.iter().enumerate().all(|(n, a)| parts[n + 1..].iter().all(|b| apart(*a, *b))), "{cell:?}");
        assert!(cell.lines.iter().all(|line| wide(line) * size <= cell.text.1 + 1e-6), "{cell:?}");
        assert!(cell.lines.len() as f64 * fitted.leading_mm <= cell.height + 1e-6, "{cell:?}");
        assert!(wide(&of.number) * request.number * size <= cell.number.1 + 1e-6 && wide(&of.amps) * size <= cell.amps.1 + 1e-6);
        assert!(cell.y + cell.height <= fitted.foot_y + 1e-6 && cell.x >= 0.0 && cell.x + cell.width <= width + 1e-6);
        let words = |text: &str| text.split_whitespace().map(str::to_owned).collect::<Vec<_>>();
        let (said, notes) = (words(&cell.lines[..cell.worded].join(" ")), words(&cell.lines[cell.worded..].join(" ")));
        let (wanted, noted) = (words(&of.text), words(&of.notes.join(" ")));
        assert_eq!((said.len(), notes.len()), (wanted.len(), noted.len()), "{cell:?}");
        if size > request.shorten_mm {
            assert_eq!((said, notes), (wanted, noted));
        }
    }
    for (n, a) in fitted.cells.iter().enumerate() {
        for b in &fitted.cells[n + 1..] {
            let over = apart((a.x, a.width), (b.x, b.width)) || apart((a.y, a.height), (b.y, b.height));
            assert!(over, "{} and {}", a.cell.number, b.cell.number);
        }
    }
    let foot = fitted.foot_y + fitted.foot.lines.len() as f64 * fitted.foot.size * 1.25;
    assert!(foot <= height, "the foot ends at {foot} of {height} mm");
    assert_eq!(fitted.code.is_some(), card.address.is_some());
    let beside = fitted.code.map_or(width - request.margin, |(x, y, side)| {
        assert!(x >= request.margin && x + side <= width - request.margin + 1e-6, "the code leaves the card at the side");
        assert!(y >= fitted.foot_y - 1e-6 && y + side <= height - request.margin + 1e-6, "the code leaves the foot");
        x
    });
    let at_foot = |line: &String| wide(line) * fitted.foot.size <= beside - request.margin + 1e-6;
    assert!(fitted.foot.lines.iter().all(at_foot));
    let said: String = fitted.foot.lines.join(" ").split_whitespace().collect();
    assert_eq!(said, card.text.foot.join(" ").split_whitespace().collect::<String>());
}

/// A type larger by a thousandth would not fit: a text would have more lines than its cell holds, or a word too wide.
fn no_larger_type_would_do(card: &Card, fitted: &FittedCard, request: &FitRequest) {
    let larger = fitted.type_mm * 1.001;
    if larger > request.type_mm.1 || fitted.type_mm <= request.shorten_mm {
        return;
    }
    let bursts = |cell: &FittedCell| {
        let beside = (cell.letter.1 + cell.number.1 + cell.amps.1) / fitted.type_mm;
        let ems = (cell.width - 4.0 * request.pad) / larger - beside;
        let all = std::iter::once(&cell.cell.text).chain(&cell.cell.notes).map(|text| lines(text, ems));
        let high = cell.height - request.pad.min(cell.height * 0.1);
        all.sum::<Option<usize>>().is_none_or(|count| count.max(1) as f64 * request.leading * larger > high)
    };
    assert!(fitted.cells.iter().any(bursts), "{} would do: {:?}", larger, card.panel.card);
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn a_fitted_card_loses_nothing_and_could_not_be_larger(
        facts in prop::collection::vec(any_fact(), 0..40),
        own in prop::collection::vec((0..5_u8, "([a-z]{1,9} ){0,8}[a-z]{1,9}"), 0..4),
        (width, height) in (50.0..400.0_f64, 50.0..600.0_f64),
        letter in prop::sample::select(vec![0.0, 1.5]),
        address in prop::option::of(Just("https://home.example/h/mill".to_owned())),
    ) {
        let own = own.into_iter().map(|(n, text)| {
            Fact::from(CircuitWorded { breaker: id("b", n), text, proven: Vec::new(), feeds: Vec::new() })
        });
        let book = written(facts.into_iter().chain(own).collect());
        let home = Study::from(&book);
        for panel in home.panels().all() {
            let mut card = card(&home, &panel.id, Printed { date: "2026-11-30", by: "Owner" }).unwrap();
            card.panel.card = CardSize { width_mm: width, height_mm: height };
            card.address.clone_from(&address);
            let request = FitRequest { letter, ..FitRequest::default() };
            match fit_card(&card, &request, FACES) {
                Ok(fitted) => {
                    nothing_is_lost_or_overlaps(&card, &fitted, &request);
                    no_larger_type_would_do(&card, &fitted, &request);
                }
                Err(refused) => {
                    prop_assert!(!refused.tightest.is_empty() && refused.wrong.ends_with('.') && refused.advice.ends_with('.'));
                    let high = refused.advice.split("has to be ").nth(1).map(|rest| rest.split(' ').next().unwrap());
                    if let Some(high) = high {
                        card.panel.card.height_mm = high.parse().unwrap();
                        prop_assert!(card.panel.card.height_mm > height);
                        prop_assert!(fit_card(&card, &request, FACES).is_ok(), "{refused}");
                    }
                }
            }
        }
    }
}
