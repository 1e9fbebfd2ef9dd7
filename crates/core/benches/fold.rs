//! Fold and views, each beside a reference of the same run: reading the same lines as JSON.

use std::hint::black_box;

use criterion::{BatchSize, Criterion, criterion_group, criterion_main};
use wayfinder_core::*;
use wayfinder_fixture::homes::{dark_once, demo, forty_rooms, much_to_find};
use wayfinder_fixture::written;

/// The demo home, walked on and on until it has so many lines.
fn lines(count: usize) -> Vec<Line> {
    let mut all: Vec<Line> = demo().lines().cloned().collect();
    let (point, breaker): (PointId, BreakerId) = ("porch-lantern".parse().expect("an id"), "breaker-16".parse().expect("an id"));
    for n in all.len()..count {
        let to = if n.is_multiple_of(40) { State::Off } else { State::On };
        let fact = match n.is_multiple_of(20) {
            true => BreakerSwitched { breaker: breaker.clone(), to }.into(),
            false => PointSeen { point: point.clone(), seen: Seen::Lit, since: None, anew: false }.into(),
        };
        let (id, at) = (format!("more-{n}").parse().expect("an id"), Moment::from_unix_ms(n as i64));
        let entry = Draft { id, at, by: "walker".into(), instrument: None, version: Fact::VERSION, fact };
        all.push(Line { seq: n as u64 + 1, entry });
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
    group.bench_function("card", |b| {
        b.iter(|| card(&Study::from(black_box(&demo)), &main, Printed { date: "2026-11-24", by: "" }))
    });
    let view = overview(&id, &Study::from(&demo));
    group.bench_function("reference: write the overview as JSON", |b| {
        b.iter(|| serde_json::to_string(black_box(&view)).expect("JSON"))
    });
    group.finish();
}

fn checks(c: &mut Criterion) {
    let book = much_to_find();
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

fn once(c: &mut Criterion) {
    let home = dark_once().book.home().clone();
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

fn drawn(c: &mut Criterion) {
    let home = written(&forty_rooms(10, true)).book.home().clone();
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
