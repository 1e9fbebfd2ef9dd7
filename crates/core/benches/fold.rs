//! Fold and views, each beside a reference of the same run: reading the same lines as JSON.

use std::hint::black_box;

use criterion::{BatchSize, Criterion, criterion_group, criterion_main};
use wayfinder_core::{Home, HomeId, Line, Logbook, Method, Study, card, findings, overview, plan, trace_view, verdicts, walking};

/// The demo home, walked on and on until it has so many lines.
fn lines(count: usize) -> Vec<Line> {
    let file: serde_json::Value =
        serde_json::from_str(include_str!("../../server/demo/juniper-lane.json")).expect("the demo home");
    let first: Vec<Line> = serde_json::from_value(file["lines"].clone()).expect("its lines");
    let look = |n: usize| {
        let kind = serde_json::json!({ "kind": "point_seen", "point": "porch-lantern", "seen": "lit" });
        let switch = serde_json::json!({ "kind": "breaker_switched", "breaker": "breaker-16", "to": if n.is_multiple_of(40) { "off" } else { "on" } });
        if n.is_multiple_of(20) { switch } else { kind }
    };
    let mut all = first;
    for n in all.len()..count {
        let line = serde_json::json!({ "seq": n + 1, "entry": { "id": format!("more-{n}"), "at": n, "by": "walker", "version": 1, "fact": look(n) } });
        all.push(serde_json::from_value(line).expect("a line"));
    }
    all
}

fn fold(c: &mut Criterion) {
    let lines = lines(10_000);
    let json = serde_json::to_string(&lines).expect("JSON");
    let mut group = c.benchmark_group("10 000 lines");
    group.sample_size(20);
    group.bench_function("fold", |b| b.iter(|| Logbook::from_lines(black_box(lines.clone())).expect("it folds")));
    group.bench_function("reference: read the same lines as JSON", |b| {
        b.iter(|| serde_json::from_str::<Vec<Line>>(black_box(&json)).expect("JSON"))
    });
    group.finish();

    let id: HomeId = "juniper-lane".parse().expect("an id");
    let demo = Logbook::from_lines(lines.into_iter().take(700)).expect("it folds");
    let mut group = c.benchmark_group("demo home");
    group.bench_function("overview", |b| b.iter(|| overview(&id, &Study::from(black_box(&demo)))));
    for (name, method) in [("trace view", Method::OneAtATime), ("trace view, several off", Method::SeveralOff)] {
        group.bench_function(name, |b| b.iter(|| trace_view(&Study::from(black_box(&demo)), method)));
    }
    let main = "main".parse().expect("an id");
    group.bench_function("card", |b| b.iter(|| card(&Study::from(black_box(&demo)), &main, "2026-11-24")));
    let view = overview(&id, &Study::from(&demo));
    group.bench_function("reference: write the overview as JSON", |b| {
        b.iter(|| serde_json::to_string(black_box(&view)).expect("JSON"))
    });
    group.finish();
}

/// A home of 6 panels and 250 circuits, one point proven on each, with something to find in every panel.
fn large_home() -> Logbook {
    let mut lines: Vec<serde_json::Value> = Vec::new();
    let mut tell = |fact: serde_json::Value| {
        let seq = lines.len() + 1;
        lines.push(serde_json::json!({ "seq": seq, "entry": { "id": format!("e{seq}"), "at": seq, "by": "x", "version": 2, "fact": fact } }));
    };
    tell(serde_json::json!({ "kind": "home_described", "name": "Large" }));
    tell(serde_json::json!({ "kind": "room_placed", "room": "hall", "name": "Hall" }));
    for panel in 0..6 {
        let fed_by = (panel > 0).then(|| format!("b{}-41", panel - 1));
        tell(
            serde_json::json!({ "kind": "panel_described", "panel": format!("p{panel}"), "name": format!("Panel {panel}"), "place": "",
            "spaces": 42, "columns": "two", "numbering": "odd_even", "service": "split_phase", "card": { "width_mm": 130, "height_mm": 210 },
            "details": { "fed_by": fed_by, "bus": 60, "main_at": "lugs", "tandems": "none", "circuits": 20, "types": ["A"], "bond": "joined" } }),
        );
        for space in 1..=42 {
            let b = format!("b{panel}-{space}");
            tell(
                serde_json::json!({ "kind": "breaker_placed", "breaker": b, "panel": format!("p{panel}"), "at": [space.to_string()],
                "amps": if space % 5 == 0 { 20 } else { 15 }, "wire": { "gauge": "14" }, "details": { "type_name": if space % 9 == 0 { "B" } else { "A" } } }),
            );
            tell(
                serde_json::json!({ "kind": "label_claimed", "breaker": b, "text": if space % 4 == 0 { "lights" } else { "hall south" } }),
            );
        }
        for (one, other) in [(2, 6), (8, 10)] {
            let pair = [format!("b{panel}-{one}"), format!("b{panel}-{other}")];
            tell(serde_json::json!({ "kind": "neutral_shared", "breakers": pair }));
        }
    }
    for n in 0..252 {
        let (point, b) = (format!("l{n}"), format!("b{}-{}", n / 42, n % 42 + 1));
        tell(
            serde_json::json!({ "kind": "point_placed", "point": point, "room": "hall", "point_kind": "light", "name": format!("lamp {n}"), "volts": 120 }),
        );
        tell(serde_json::json!({ "kind": "point_seen", "point": point, "seen": "lit" }));
        tell(serde_json::json!({ "kind": "breaker_switched", "breaker": b, "to": "off" }));
        for _ in 0..2 {
            tell(serde_json::json!({ "kind": "point_seen", "point": point, "seen": "dark" }));
        }
        tell(serde_json::json!({ "kind": "breaker_switched", "breaker": b, "to": "on" }));
    }
    let lines: Vec<Line> = lines.into_iter().map(|line| serde_json::from_value(line).expect("a line")).collect();
    Logbook::from_lines(lines).expect("it folds")
}

fn checks(c: &mut Criterion) {
    let book = large_home();
    let found = findings(&Study::from(&book)).to_vec();
    let mut group = c.benchmark_group(format!("6 panels, 252 circuits, {} findings", found.len()));
    let fresh = || Study::from(&book);
    group.bench_function("checks", |b| b.iter_batched_ref(fresh, |home| findings(home).len(), BatchSize::LargeInput));
    group.bench_function("of that, what is proven", |b| {
        b.iter_batched_ref(fresh, |home| verdicts(home).len(), BatchSize::LargeInput)
    });
    group.bench_function("reference: write the findings as JSON", |b| {
        b.iter(|| serde_json::to_string(black_box(&found)).expect("JSON"))
    });
    group.finish();
}

/// 20 rooms of 10 points on 40 breakers, each point dark with its breaker once: what may be believed has to be worked out.
fn looked_at_once() -> Home {
    let mut home = Home::default();
    let mut n = 0;
    let mut tell = |fact: serde_json::Value| {
        n += 1;
        let entry = serde_json::json!({ "id": format!("e{n}"), "at": n, "by": "x", "fact": fact });
        home.apply(&serde_json::from_value(entry).expect("an entry")).expect("it applies");
    };
    let see = |point: usize, seen: &str| serde_json::json!({ "kind": "point_seen", "point": format!("p{point}"), "seen": seen });
    tell(serde_json::json!({ "kind": "home_described", "name": "Once" }));
    tell(
        serde_json::json!({ "kind": "panel_described", "panel": "p", "name": "Panel", "place": "", "spaces": 42, "columns": "two",
        "numbering": "odd_even", "service": "split_phase", "card": { "width_mm": 130, "height_mm": 210 } }),
    );
    for b in 1..=40 {
        tell(
            serde_json::json!({ "kind": "breaker_placed", "breaker": format!("b{b}"), "panel": "p", "at": [b.to_string()], "amps": 15 }),
        );
    }
    for point in 0..200 {
        let room = format!("r{}", point / 10);
        if point % 10 == 0 {
            tell(serde_json::json!({ "kind": "room_placed", "room": room, "name": room }));
        }
        tell(
            serde_json::json!({ "kind": "point_placed", "point": format!("p{point}"), "room": room, "point_kind": "receptacle", "name": format!("{point}"), "volts": 120 }),
        );
        tell(see(point, "lit"));
    }
    for b in 1..=40 {
        tell(serde_json::json!({ "kind": "breaker_switched", "breaker": format!("b{b}"), "to": "off" }));
        for point in (b - 1) * 5..b * 5 {
            tell(see(point, "dark"));
        }
        tell(serde_json::json!({ "kind": "breaker_switched", "breaker": format!("b{b}"), "to": "on" }));
        for point in b * 5..200.min(b * 5 + 5) {
            tell(see(point, "lit"));
        }
    }
    home
}

fn once(c: &mut Criterion) {
    let home = looked_at_once();
    let study = Study::of(home.clone());
    let said = verdicts(&study);
    let proven = said.iter().filter(|(_, v)| v.proven_on().is_some()).count();
    let mut group = c.benchmark_group(format!("200 points on 40 breakers, dark once each, {proven} proven"));
    group.bench_function("what is proven", |b| {
        b.iter_batched_ref(|| Study::of(home.clone()), |home| verdicts(home).len(), BatchSize::LargeInput)
    });
    group.bench_function("reference: write it as JSON", |b| b.iter(|| serde_json::to_string(black_box(said)).expect("JSON")));
    group.finish();
}

/// 40 rooms in a grid, 10 points in each, doors between neighbors.
fn wide_house() -> Home {
    let mut home = Home::default();
    let mut n = 0;
    let mut tell = |fact: serde_json::Value| {
        n += 1;
        let entry = serde_json::json!({ "id": format!("e{n}"), "at": 0, "by": "x", "fact": fact });
        home.apply(&serde_json::from_value(entry).expect("an entry")).expect("it applies");
    };
    tell(serde_json::json!({ "kind": "home_described", "name": "Wide" }));
    for room in 0..40 {
        let (x, y) = (room % 8 * 4000, room / 8 * 3000);
        let corners: Vec<_> =
            [(0, 0), (4000, 0), (4000, 3000), (0, 3000)].map(|(dx, dy)| serde_json::json!({ "x": x + dx, "y": y + dy })).to_vec();
        tell(serde_json::json!({ "kind": "room_placed", "room": format!("r{room}"), "name": format!("Room {room}") }));
        tell(serde_json::json!({ "kind": "room_drawn", "room": format!("r{room}"), "corners": corners }));
        if room % 8 > 0 {
            tell(
                serde_json::json!({ "kind": "opening_placed", "opening": format!("o{room}"), "opening_kind": "door", "room": format!("r{room}"), "wall": 3, "from": 1000, "width": 800 }),
            );
        }
        for point in 0..10 {
            let id = format!("p{room}-{point}");
            tell(
                serde_json::json!({ "kind": "point_placed", "point": id, "room": format!("r{room}"), "point_kind": "receptacle", "name": format!("{point}"), "volts": 120 }),
            );
            tell(
                serde_json::json!({ "kind": "point_stands", "point": id, "at": { "x": 300 + point * 380, "y": if point % 2 == 0 { 50 } else { 2950 } } }),
            );
        }
    }
    home
}

fn drawn(c: &mut Criterion) {
    let home = wide_house();
    let drawing = plan(&Study::of(home.clone())).clone();
    let fresh = || Study::of(home.clone());
    let mut group = c.benchmark_group("plan of 40 rooms, 400 points");
    group.bench_function("plan", |b| b.iter_batched_ref(fresh, |home| plan(home).floors.len(), BatchSize::LargeInput));
    group.bench_function("walking times", |b| b.iter_batched_ref(fresh, |home| walking(home).rooms.len(), BatchSize::LargeInput));
    group.bench_function("reference: write the plan as JSON", |b| {
        b.iter(|| serde_json::to_string(black_box(&drawing)).expect("JSON"))
    });
    group.finish();
}

criterion_group!(benches, fold, checks, once, drawn);
criterion_main!(benches);
