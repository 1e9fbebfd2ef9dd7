//! Every view of the demo home and of a large one, asked for the first time after a line and again; and how folding grows.
//! Homes of 24 breakers with 100 points and 2 000 lines, and of 40 with 200. The large home: 6 panels with 250 breakers, 600 points in 40 rooms, 20 000 lines.
//!
//! Prints medians; asserts nothing about time. The reference of folding is reading the same lines as JSON in the same run.
#![allow(clippy::disallowed_methods)] // it measures time, which the core itself may not know

use std::hint::black_box;
use std::time::Instant;

use wayfinder_core::*;
use wayfinder_fixture::homes::{dark_once, demo, large, usual};

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
    ("door card", |home| {
        size(&card(home, &home.panels().all().next().expect("a panel").id, Printed { date: "2026-11-24", by: "" }))
    }),
    ("all of the overview", |home| size(&overview(&"home".parse().expect("an id"), home))),
];

/// The median of so many, in milliseconds.
fn median(times: usize, mut once: impl FnMut() -> f64) -> f64 {
    let mut all: Vec<f64> = (0..times).map(|_| once()).collect();
    all.sort_by(f64::total_cmp);
    all[times / 2]
}

/// Milliseconds of the work itself; what it made is thrown away after.
fn timed<T>(work: impl FnOnce() -> T) -> f64 {
    let begun = Instant::now();
    let made = black_box(work());
    let took = begun.elapsed().as_secs_f64() * 1000.0;
    drop(made);
    took
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
    let point = book.home().house().points().next().expect("a point").id.clone();
    let (id, at) = ("one-more".parse().expect("an id"), Moment::from_unix_ms(0));
    let fact = PointSeen { point, seen: Seen::Lit, since: None, anew: false }.into();
    let entry = [Draft { id, at, by: "walker".into(), instrument: None, version: Fact::VERSION, fact }];
    let taken = median(times, || timed(|| book.admit(&entry).expect("it is taken")));
    println!("  one more line taken: {taken:.3} ms");
    // What a screen waits for: each look goes on from the state before, which was asked about.
    let mut book = book.clone();
    let mut home = Study::from(&book);
    black_box(trace_view(&home, home.setup()));
    let points: Vec<PointId> = book.home().house().points().map(|point| point.id.clone()).collect();
    let (mut verdict_ms, mut step_ms) = (Vec::new(), Vec::new());
    for n in 0..41 {
        let id = format!("more-{n}").parse().expect("an id");
        let fact = PointSeen { point: points[n % points.len()].clone(), seen: Seen::Lit, since: None, anew: false }.into();
        let entry = Draft {
            id,
            at: Moment::from_unix_ms(i64::MAX / 2),
            by: "walker".into(),
            instrument: None,
            version: Fact::VERSION,
            fact,
        };
        let outcome = book.admit(&[entry]).expect("it is taken");
        book.commit(outcome);
        let next = Study::after(&home, &book);
        verdict_ms.push(timed(|| verdicts(&next).len()));
        step_ms.push(timed(|| size(&trace_view(&next, next.setup()))));
        home = next;
    }
    let middle = |mut all: Vec<f64>| median(all.len(), || all.pop().expect("as many"));
    println!("  a look more: its verdicts {:.2} ms, the step after {:.2} ms more", middle(verdict_ms), middle(step_ms));
}

fn main() {
    if std::env::args().any(|argument| argument == "--test") {
        return; // `cargo test` builds it; measuring is for `cargo xtask bench`
    }
    views("the demo home", &demo(), 20);
    views("24 breakers, 100 points", &Logbook::from_lines(usual(2_000)).expect("it folds"), 20);
    views("40 breakers, 200 points", &dark_once().book, 20);
    views("250 breakers, 600 points", &Logbook::from_lines(large(20_000)).expect("it folds"), 5);
    // The least of several: what else the machine does makes a run longer, never shorter.
    let least = |once: &dyn Fn() -> f64| (0..9).map(|_| once()).fold(f64::INFINITY, f64::min);
    let fold = |count: usize| {
        let lines = large(count);
        let text = serde_json::to_string(&lines).expect("JSON");
        let json = least(&|| timed(|| serde_json::from_str::<Vec<Line>>(&text).expect("JSON")));
        let folded = least(&|| {
            let lines = lines.clone();
            timed(|| Logbook::from_lines(lines).expect("it folds"))
        });
        println!("fold of {} lines: {folded:.1} ms; reading them as JSON {json:.1} ms", lines.len());
        (folded, json)
    };
    // Some thousand lines stay in the processor's cache, a hundred thousand do not: so a third size, and JSON beside them.
    let sizes = [10_000, 100_000, 300_000];
    let took = sizes.map(fold);
    for (two, times) in sizes.windows(2).zip(took.windows(2)) {
        let (folded, json) = (times[1].0 / times[0].0, times[1].1 / times[0].1);
        println!("{} lines take {folded:.1} times as long as {}; reading them as JSON {json:.1} times", two[1], two[0]);
    }
}
