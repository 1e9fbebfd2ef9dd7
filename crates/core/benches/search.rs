//! A decision and a belief update for 42 breakers and 200 points, beside a reference of the same run.

use std::hint::black_box;

use criterion::{BatchSize, Criterion, criterion_group, criterion_main};
use wayfinder_core::search::{Case, CasePoint, Costs, Crew, OffSet, OldLabel, PointClass, Search};

/// 42 breakers, 200 points in 14 rooms; every third breaker with a room on the card.
fn wide() -> Case {
    let rooms = 14;
    let walk = |a: usize, b: usize| 3.0 * a.abs_diff(b) as f64;
    let class = |p: usize| [PointClass::Receptacle, PointClass::Receptacle, PointClass::Light, PointClass::Appliance][p % 4];
    Case {
        rooms,
        walk_s: (0..rooms).map(|a| (0..rooms).map(|b| walk(a, b)).collect()).collect(),
        panel_s: (0..rooms).map(|r| walk(3, r)).collect(),
        next_to: (0..rooms).map(|r| (0..rooms).filter(|o: &usize| o.abs_diff(r) == 1).collect()).collect(),
        beside: (0..42usize).map(|b| (0..42).filter(|o: &usize| o.abs_diff(b) == 1).collect()).collect(),
        labels: (0..42)
            .map(|b| match b % 3 {
                0 => OldLabel::Room { room: b % rooms, class: PointClass::Receptacle, name: String::new() },
                1 => OldLabel::Kind { class: PointClass::Light },
                _ => OldLabel::Blank,
            })
            .collect(),
        two_pole: vec![false; 42],
        stay_on: OffSet::one(7),
        leads_on: OffSet::NONE,
        gone: OffSet::NONE,
        delicate: OffSet::NONE,
        points: (0..200)
            .map(|p| CasePoint {
                room: p % rooms,
                class: class(p / rooms),
                name: String::new(),
                high: false,
                max_dark_s: None,
                by_itself: false,
                delicate: false,
            })
            .collect(),
    }
}

fn search(c: &mut Criterion) {
    let case = wide();
    let mut begun = Search::new(&case, Crew { alone: false, plugs: 1, tone: false, radio: false }, Costs::default());
    // Somewhat on: half of the points seen under some sets.
    for n in 0..6 {
        begun.switched((0..42).filter(|b| b % 7 == n && *b != 7).collect());
        for p in (0..200).filter(|p| p % 12 == n) {
            begun.saw(p, p % 5 == 0);
        }
    }
    let mut group = c.benchmark_group("42 breakers, 200 points");
    group.bench_function("a decision", |b| {
        b.iter_batched(|| begun.clone(), |mut search| black_box(search.next_act()), BatchSize::SmallInput);
    });
    group.bench_function("a look and the belief after it", |b| {
        b.iter_batched(|| begun.clone(), |mut search| black_box(search.saw(199, false)), BatchSize::SmallInput);
    });
    group.bench_function("reference: one pass over a 200 x 42 table of logarithms", |b| {
        let table: Vec<f64> = (0..200 * 42).map(|n| f64::from(n) + 1.0).collect();
        b.iter(|| black_box(&table).iter().map(|x| x.ln()).sum::<f64>());
    });
    group.finish();
}

criterion_group!(benches, search);
criterion_main!(benches);
