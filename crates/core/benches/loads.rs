//! The engines of the loads: sheets, and the leveller against a solver of integer programs in the same run.
#![allow(missing_docs)]

use std::hint::black_box;

use criterion::{BatchSize, Criterion, criterion_group, criterion_main};
use good_lp::{Expression, ProblemVariables, Solution, SolverModel, constraint, microlp, variable};
use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use wayfinder_core::SurveyWish;
use wayfinder_core::loads::legs::{LegPanel, LegPanels, LegSpace, LegSystem, LegUnit, UnitKind, level};
use wayfinder_core::loads::peak::{Group, peak};
use wayfinder_core::loads::service::{Dwelling, worksheets};
use wayfinder_core::loads::{SurveyAsked, circuits};
use wayfinder_core::sim::{SurveyPlayed, survey_through};
use wayfinder_core::{Level, Recipe, Study, appliances, verdicts};
use wayfinder_fixture::written;

/// A panel of 42 spaces, singles and some open.
fn panel(seed: u64) -> LegPanel {
    let mut rng = Pcg64Mcg::seed_from_u64(seed);
    let mut spaces: Vec<LegSpace> =
        (0..42).map(|at| LegSpace { leg: (at / 2) % 2, tandem: false, unit: None, blocked: false }).collect();
    let mut units = Vec::new();
    for (at, space) in spaces.iter_mut().enumerate().filter(|(at, _)| at % 7 != 6) {
        let id = format!("u{at}");
        space.unit = Some(id.clone());
        let amps_x10 = vec![rng.random_range(5..250_i64)];
        units.push(LegUnit { id, kind: UnitKind::Single, spaces: vec![at], amps_x10, turn: false, feeds: None, load: None });
    }
    LegPanel { name: "m".into(), rating_a: 100, legs: 2, spaces, units }
}

/// The same question, the least greatest leg with so many wires, as an integer program.
fn by_integer_program(panel: &LegPanel, moves: u32) -> f64 {
    let mut variables = ProblemVariables::new();
    let greatest = variables.add(variable().min(0.0));
    let mut on_leg = vec![Expression::from(0.0); 2];
    let (mut wires, mut net) = (Expression::from(0.0), Expression::from(0.0));
    for unit in &panel.units {
        let (from, amps) = (panel.spaces[unit.spaces[0]].leg, unit.amps_x10[0] as f64);
        let goes = variables.add(variable().binary());
        on_leg[from] += amps - amps * goes;
        on_leg[1 - from] += amps * goes;
        wires += goes;
        net += if from == 0 { 1.0 } else { -1.0 } * goes;
    }
    let open = |leg: usize| panel.spaces.iter().filter(|space| space.leg == leg && space.unit.is_none()).count() as f64;
    let mut problem = variables.minimise(greatest).using(microlp);
    for leg in on_leg {
        problem = problem.with(constraint!(leg <= greatest));
    }
    problem = problem.with(constraint!(wires <= f64::from(moves)));
    problem = problem.with(constraint!(net.clone() <= open(1))).with(constraint!(net >= -open(0)));
    problem.solve().map_or(0.0, |solution| solution.value(greatest))
}

fn benches(c: &mut Criterion) {
    let dwelling = include_str!("../tests/data/dwellings.jsonl").lines().next().unwrap_or_default();
    let dwelling: serde_json::Value = serde_json::from_str(dwelling).unwrap_or_default();
    let dwelling: Dwelling = serde_json::from_value(dwelling["input"].clone()).unwrap_or_else(|error| panic!("{error}"));
    c.bench_function("loads/all worksheets of a dwelling", |b| b.iter(|| worksheets(black_box(&dwelling))));

    let mut group = c.benchmark_group("loads/legs");
    let panels: Vec<LegPanels> =
        (0..8).map(|seed| LegPanels { id: String::new(), system: LegSystem::SplitPhase, panels: vec![panel(seed)] }).collect();
    let mut next = 0;
    group.bench_function("42 spaces, the whole curve", |b| {
        b.iter(|| {
            next = (next + 1) % panels.len();
            level(black_box(&panels[next]))
        });
    });
    group.sample_size(10);
    group.bench_function("42 spaces, the whole curve, as integer programs", |b| {
        b.iter(|| {
            next = (next + 1) % panels.len();
            let curve = level(&panels[next]).map_or(0, |levelled| levelled.curve.len());
            let moves = 0..u32::try_from(curve).unwrap_or(0);
            moves.map(|moves| by_integer_program(black_box(&panels[next].panels[0]), moves)).sum::<f64>()
        });
    });
    group.finish();

    let loads: Vec<Group> = appliances().iter().map(|it| Group::One(it.amps_x100(it.watts), it.usage.hours())).collect();
    let mut group = c.benchmark_group("loads/peak");
    for count in [4, 10] {
        let mut from = 0;
        group.bench_function(format!("{count} loads"), |b| {
            b.iter(|| {
                from = (from + 7) % (loads.len() - count);
                peak(black_box(&loads[from..from + count]))
            });
        });
    }
    group.finish();
}

/// 252 circuits on three panels, a point proven on each, and four loads at each point.
fn a_large_home(c: &mut Criterion) {
    let mut acts = "panel 84\nroom Hall\nsub Barn 84\nsub Shed 84\n".to_owned();
    for (panel, tag) in [("", ""), ("barn: ", "B"), ("shed: ", "S")] {
        for n in 1..=84 {
            acts.push_str(&format!("{panel}{n} 20\npoint Hall receptacle p{tag}{n}\nproof p{tag}{n} {tag}{n}\n"));
            for appliance in appliances().iter().filter(|it| it.volts == 120).skip(n % 40).take(4) {
                acts.push_str(&format!("load p{tag}{n} {}\n", appliance.id));
            }
        }
    }
    let home = written(&acts);
    let on_circuits: usize = {
        verdicts(&home.home);
        circuits(&home.home).iter().map(|circuit| circuit.loads.len()).sum()
    };
    println!("{on_circuits} loads at points that are proven");
    c.bench_function("loads/1008 loads on 252 circuits, after the verdicts", |b| {
        b.iter_batched(
            || {
                let study = Study::after(&home.home, &home.book);
                verdicts(&study);
                study
            },
            |study| circuits(&study).len(),
            BatchSize::PerIteration,
        );
    });
}

/// Fifty made-up homes surveyed to the end; what came out is printed, because it is what the bar is about.
fn surveys(c: &mut Criterion) {
    for (name, wish) in [("every circuit", SurveyWish::Every), ("combine two", SurveyWish::CombineTwo)] {
        let asked = SurveyAsked::plain(wish);
        let play = |seed| survey_through(Recipe::to_trace(seed, 50, Level::Plain), &asked);
        let played: Vec<SurveyPlayed> = (0..50).filter_map(|seed| play(seed).ok()).collect();
        let sum = |of: fn(&SurveyPlayed) -> f64| played.iter().map(of).sum::<f64>();
        let decisions = sum(|one| one.decisions as f64).max(1.0);
        println!(
            "{name}: {} homes, {:.2} % wrong, {:.1} % open, {:.2} of reading every appliance",
            played.len(),
            100.0 * sum(|one| one.wrong as f64) / decisions,
            100.0 * sum(|one| one.open as f64) / decisions,
            sum(|one| one.minutes) / sum(|one| one.minutes_of_all).max(1.0)
        );
    }
    let mut group = c.benchmark_group("loads/survey");
    group.sample_size(10);
    let asked = SurveyAsked::plain(SurveyWish::Every);
    group.bench_function("a home of 50 points to its end", |b| {
        b.iter(|| survey_through(black_box(Recipe::to_trace(7, 50, Level::Plain)), &asked).map(|one| one.readings));
    });
    group.finish();
}

criterion_group!(all, benches, a_large_home, surveys);
criterion_main!(all);
