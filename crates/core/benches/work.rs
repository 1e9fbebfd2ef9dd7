//! Ways to make room: the worked problems one by one, and beside trying every plan of small panels in the same run.
#![allow(missing_docs, clippy::unwrap_used, clippy::disallowed_methods)] // a bench looks at the clock

use std::hint::black_box;
use std::io::Read;
use std::time::Instant;

use criterion::{Criterion, criterion_group, criterion_main};
use flate2::read::GzDecoder;
use wayfinder_core::work::{Problem, USUAL_STEPS, make_room};

#[path = "../tests/work/every_plan.rs"]
#[allow(dead_code, unused_imports)]
mod every_plan;
#[path = "../tests/work/rules.rs"]
#[allow(dead_code)]
mod rules;

fn worked() -> Vec<Problem> {
    let mut text = String::new();
    GzDecoder::new(&include_bytes!("../tests/data/make-room.jsonl.gz")[..]).read_to_string(&mut text).unwrap();
    let problem = |line: &str| {
        let line: serde_json::Value = serde_json::from_str(line).unwrap();
        serde_json::from_value(line["problem"].clone()).unwrap()
    };
    text.lines().map(problem).collect()
}

fn benches(c: &mut Criterion) {
    let problems = worked();
    let mut times: Vec<(f64, &str)> = problems
        .iter()
        .map(|problem| {
            let runs = (0..5).map(|_| {
                let begun = Instant::now();
                black_box(make_room(black_box(problem), USUAL_STEPS)).ok();
                begun.elapsed().as_secs_f64() * 1000.0
            });
            (runs.fold(f64::INFINITY, f64::min), problem.id.as_str())
        })
        .collect();
    times.sort_by(|a, b| a.0.total_cmp(&b.0));
    let (longest, which) = times[times.len() - 1];
    println!(
        "ways to make room: median {:.1} ms, longest {longest:.1} ms ({which}) of {}",
        times[times.len() / 2].0,
        times.len()
    );
    c.bench_function("ways to make room, all 60 problems", |b| {
        b.iter(|| problems.iter().filter_map(|problem| make_room(black_box(problem), USUAL_STEPS).ok()).count());
    });
    // Trying every plan: small panels only, for it grows with the fourth power of the places.
    let small: Vec<Problem> = (0..20).map(|seed| every_plan::drawn(seed * 6, 8)).collect();
    let timed = |all: &dyn Fn(&Problem)| {
        let begun = Instant::now();
        small.iter().for_each(all);
        begun.elapsed().as_secs_f64()
    };
    let every = timed(&|problem| drop(black_box(every_plan::cheapest(problem))));
    let searched = timed(&|problem| drop(black_box(make_room(problem, USUAL_STEPS))));
    println!("trying every plan of 20 panels of at most 8 spaces takes {:.0} times as long as the search", every / searched);
}

criterion_group! { name = all; config = Criterion::default().sample_size(10); targets = benches }
criterion_main!(all);
