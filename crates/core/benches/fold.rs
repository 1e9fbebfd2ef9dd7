//! Fold and views, each beside a reference of the same run: reading the same lines as JSON.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use wayfinder_core::{HomeId, Line, Logbook, card, overview, trace_view};

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
    group.bench_function("overview", |b| b.iter(|| overview(&id, demo.seq(), black_box(demo.home()))));
    group.bench_function("trace view", |b| b.iter(|| trace_view(black_box(demo.home()), demo.seq())));
    group.bench_function("card", |b| b.iter(|| card(black_box(demo.home()), demo.seq(), "2026-11-24")));
    let view = overview(&id, demo.seq(), demo.home());
    group.bench_function("reference: write the overview as JSON", |b| {
        b.iter(|| serde_json::to_string(black_box(&view)).expect("JSON"))
    });
    group.finish();
}

criterion_group!(benches, fold);
criterion_main!(benches);
