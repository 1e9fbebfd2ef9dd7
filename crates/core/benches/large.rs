//! Every view of the demo home and of a large one, asked for the first time after a line and again; and how folding grows.
//! The large home: 6 panels with 250 breakers, 600 points in 40 rooms, 20 000 lines.
//!
//! Prints medians; asserts nothing about time. The reference of folding is reading the same lines as JSON in the same run.
#![allow(clippy::disallowed_methods)] // it measures time, which the core itself may not know

use std::hint::black_box;
use std::time::Instant;

use wayfinder_core::{
    Line, Logbook, StepSide, Study, card, checks, evidence, helper_view, home_now, known_points, overview, panel_views, plan,
    room_walk, trace_view,
};

type View = (&'static str, fn(&Study) -> usize);

fn size(answer: &impl serde::Serialize) -> usize {
    serde_json::to_vec(answer).expect("JSON").len()
}

const VIEWS: &[View] = &[
    ("now", |home| size(&home_now(&"home".parse().expect("an id"), home))),
    ("panels", |home| size(&panel_views(home))),
    ("points", |home| size(&known_points(home))),
    ("checks", |home| size(&checks(home))),
    ("trace", |home| size(&trace_view(home, home.setup()))),
    ("a helper's step", |home| size(&helper_view(home, StepSide::Walk, &[], ""))),
    ("plan", |home| size(plan(home))),
    ("a room walked", |home| size(&room_walk(home, &home.house().rooms().next().expect("a room").id))),
    ("evidence at a point", |home| size(&evidence(home, &home.house().points().next().expect("a point").id))),
    ("door card", |home| size(&card(home, &home.panels().all().next().expect("a panel").id, "2026-11-24"))),
    ("all of the overview", |home| size(&overview(&"home".parse().expect("an id"), home))),
];

fn lines(facts: impl IntoIterator<Item = serde_json::Value>) -> Vec<Line> {
    let line = |(n, fact): (usize, serde_json::Value)| {
        let entry = serde_json::json!({ "id": format!("e{n}"), "at": n * 1000, "by": "walker", "version": 6, "fact": fact });
        serde_json::from_value(serde_json::json!({ "seq": n + 1, "entry": entry })).expect("a line")
    };
    facts.into_iter().enumerate().map(line).collect()
}

fn large(lines_in_all: usize) -> Vec<Line> {
    let mut facts = vec![serde_json::json!({ "kind": "home_described", "name": "Large" })];
    let mut breakers = Vec::new();
    for panel in 0..6 {
        let fed_by = (panel > 0).then(|| format!("b{}-41", panel - 1));
        facts.push(
            serde_json::json!({ "kind": "panel_described", "panel": format!("p{panel}"), "name": format!("Panel {panel}"),
            "place": "", "spaces": 42, "columns": "two", "numbering": "odd_even", "service": "split_phase",
            "card": { "width_mm": 130, "height_mm": 210 }, "details": { "fed_by": fed_by } }),
        );
        for space in (1..=42).take(250 - breakers.len()) {
            let id = format!("b{panel}-{space}");
            facts.push(serde_json::json!({ "kind": "breaker_placed", "breaker": id, "panel": format!("p{panel}"),
                "at": [space.to_string()], "amps": 15 }));
            breakers.push(id);
        }
    }
    for room in 0..40 {
        let (x, y) = (room % 8 * 4000, room / 8 * 3000);
        let corners =
            [(0, 0), (4000, 0), (4000, 3000), (0, 3000)].map(|(dx, dy)| serde_json::json!({ "x": x + dx, "y": y + dy }));
        facts.push(serde_json::json!({ "kind": "room_placed", "room": format!("r{room}"), "name": format!("Room {room}") }));
        facts.push(serde_json::json!({ "kind": "room_drawn", "room": format!("r{room}"), "corners": corners }));
        if room % 8 > 0 {
            facts.push(serde_json::json!({ "kind": "opening_placed", "opening": format!("o{room}"), "opening_kind": "door",
                "room": format!("r{room}"), "wall": 3, "from": 1000, "width": 800 }));
        }
    }
    for point in 0..600 {
        let (room, id) = (point % 40, format!("l{point}"));
        facts.push(
            serde_json::json!({ "kind": "point_placed", "point": id, "room": format!("r{room}"), "point_kind": "receptacle",
            "name": format!("outlet {point}"), "volts": 120 }),
        );
        facts.push(serde_json::json!({ "kind": "point_stands", "point": id, "at": { "x": 300 + point / 40 * 240, "y": 50 } }));
    }
    let see = |point: usize, seen: &str| serde_json::json!({ "kind": "point_seen", "point": format!("l{}", point % 600), "seen": seen });
    let switch = |breaker: usize, to: &str| serde_json::json!({ "kind": "breaker_switched", "breaker": breakers[breaker % 250], "to": to });
    facts.extend((0..600).map(|point| see(point, "lit")));
    // Breaker after breaker off and on, each with its two points dark and ten others seen lit.
    for round in 0.. {
        if facts.len() + 16 > lines_in_all {
            break;
        }
        let breaker = round % 250;
        facts.push(switch(breaker, "off"));
        for own in [2 * breaker, 2 * breaker + 1] {
            facts.extend([see(own, "dark"), see(own, "dark")]);
        }
        facts.extend((0..9).map(|n| see(2 * breaker + 7 + n, "lit")));
        facts.push(switch(breaker, "on"));
        facts.push(see(2 * breaker, "lit"));
    }
    lines(facts)
}

/// The median of so many, in milliseconds.
fn median(times: usize, mut once: impl FnMut() -> f64) -> f64 {
    let mut all: Vec<f64> = (0..times).map(|_| once()).collect();
    all.sort_by(f64::total_cmp);
    all[times / 2]
}

fn timed<T>(work: impl FnOnce() -> T) -> f64 {
    let begun = Instant::now();
    black_box(work());
    begun.elapsed().as_secs_f64() * 1000.0
}

fn views(what: &str, book: &Logbook, times: usize) {
    println!("{what}, {} lines", book.seq());
    for (name, view) in VIEWS {
        let first = median(times, || {
            let home = Study::from(book);
            timed(|| view(&home))
        });
        let home = Study::from(book);
        let bytes = view(&home);
        let again = median(times, || timed(|| view(&home)));
        println!("  {name}: first {first:.2} ms, again {again:.2} ms ({} kB)", bytes / 1000);
    }
    let home = Study::from(book);
    let all = timed(|| VIEWS.iter().map(|(_, view)| view(&home)).sum::<usize>());
    println!("  all of them after one line: {all:.2} ms");
    let entry = serde_json::json!({ "id": "one-more", "at": 0, "by": "walker", "version": 6,
        "fact": { "kind": "point_seen", "point": book.home().house().points().next().expect("a point").id, "seen": "lit" } });
    let entry = [serde_json::from_value(entry).expect("an entry")];
    let taken = median(times, || timed(|| book.admit(&entry).expect("it is taken")));
    println!("  one more line taken: {taken:.3} ms");
}

fn main() {
    if std::env::args().any(|argument| argument == "--test") {
        return; // `cargo test` builds it; measuring is for `cargo xtask bench`
    }
    let file: serde_json::Value =
        serde_json::from_str(include_str!("../../server/demo/juniper-lane.json")).expect("the demo home");
    let demo: Vec<Line> = serde_json::from_value(file["lines"].clone()).expect("its lines");
    views("the demo home", &Logbook::from_lines(demo).expect("it folds"), 20);
    views("250 breakers, 600 points", &Logbook::from_lines(large(20_000)).expect("it folds"), 5);
    let fold = |count: usize| {
        let lines = large(count);
        let (count, mut json) = (lines.len(), 0.0);
        let folded = median(5, || {
            let text = serde_json::to_string(&lines).expect("JSON");
            json = timed(|| serde_json::from_str::<Vec<Line>>(&text).expect("JSON"));
            let lines = lines.clone();
            timed(|| Logbook::from_lines(lines).expect("it folds"))
        });
        println!("fold of {count} lines: {folded:.1} ms; reading them as JSON {json:.1} ms");
        folded
    };
    let (small, big) = (fold(10_000), fold(100_000));
    println!("100 000 lines take {:.1} times as long as 10 000", big / small);
}
