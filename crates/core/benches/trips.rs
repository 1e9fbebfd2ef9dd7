//! The search for a fault in a house of some 250 points: every decision of ten faults, played to the end.
#![allow(missing_docs, clippy::unwrap_used, clippy::disallowed_methods)] // a bench looks at the clock

use std::hint::black_box;
use std::io::Read;
use std::time::Instant;

use criterion::{Criterion, criterion_group, criterion_main};
use flate2::read::GzDecoder;
use wayfinder_core::trips::{Belief, FaultGame, FaultStrategy, PointMap, play_fault};

fn text(packed: &[u8]) -> String {
    let mut text = String::new();
    GzDecoder::new(packed).read_to_string(&mut text).unwrap();
    text
}

/// The same house once more beside it: twice the points, breakers, loads and switches; the fault stays where it is.
fn doubled(mut game: FaultGame) -> FaultGame {
    let case = &mut game.case;
    let (points, breakers) = (case.points.len(), case.breakers.len());
    case.points.extend(case.points.clone());
    case.breakers.extend(case.breakers.clone());
    let moved = |map: &PointMap| PointMap {
        breakers: map.breakers.iter().map(|(b, p)| (b + breakers, *p)).collect(),
        elsewhere: map.elsewhere,
    };
    case.map.extend(case.map.iter().map(moved).collect::<Vec<_>>());
    for mut load in case.loads.clone() {
        load.point += points;
        case.loads.push(load);
    }
    for mut switch in case.switches.clone() {
        switch.points.iter_mut().for_each(|p| *p += points);
        case.switches.push(switch);
    }
    game
}

fn benches(c: &mut Criterion) {
    let houses = text(include_bytes!("../tests/data/faults-houses.jsonl.gz"));
    let faults = text(include_bytes!("../tests/data/faults.jsonl.gz"));
    let games = FaultGame::read_all(&houses, &faults).unwrap();
    let large: Vec<FaultGame> = games.iter().filter(|g| g.case.points.len() >= 120).take(10).cloned().map(doubled).collect();
    let points: usize = large.iter().map(|g| g.case.points.len()).sum::<usize>() / large.len();
    let begun = Instant::now();
    let mut decisions = Vec::new();
    for game in &large {
        play_fault(game, FaultStrategy::Planner, &mut || begun.elapsed().as_secs_f64() * 1000.0, &mut decisions);
    }
    decisions.sort_by(f64::total_cmp);
    let at = |share: f64| decisions[((decisions.len() as f64 * share).ceil() as usize).clamp(1, decisions.len()) - 1];
    let report = (0..10)
        .map(|n| {
            let begun = Instant::now();
            black_box(Belief::new(&large[n % large.len()].case));
            begun.elapsed().as_secs_f64() * 1000.0
        })
        .fold(f64::INFINITY, f64::min);
    println!(
        "a fault among {points} points: {} decisions, median {:.1} ms, p99 {:.1} ms; the report alone weighed {report:.1} ms, ratio {:.1}",
        decisions.len(),
        at(0.5),
        at(0.99),
        at(0.99) / report
    );
    c.bench_function("the report weighed, some 250 points", |b| b.iter(|| Belief::new(black_box(&large[0].case))));
}

criterion_group!(all, benches);
criterion_main!(all);
