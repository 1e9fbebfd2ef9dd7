//! The search against every plan there is, on small panels drawn at random.

use std::collections::{BTreeMap, BTreeSet};

use rand::seq::IndexedRandom;
use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use serde_json::{Value, json};
use wayfinder_core::work::{Found, NoWay, Problem, Shape, USUAL_STEPS, Way, make_room};

use crate::rules::{End, Half, Wanted, halves, judge, made, wanted};

/// Every end that a circuit could have, sensible or not; what is not allowed is left to the rules.
fn ends_of(problem: &Problem, all: &BTreeMap<String, Wanted>, id: &str) -> Vec<End> {
    let it = &all[id];
    let mut ends = Vec::new();
    match id {
        "feeder" => ends.push(End::Out),
        _ if !it.replaced && it.home.is_some() => ends.push(End::Home),
        _ => {}
    }
    if it.fixed {
        return ends;
    }
    if it.class == "spare" {
        ends.push(End::Out);
        return ends;
    }
    for (column, rows) in problem.panel.columns.iter().enumerate() {
        for row in 0..rows.len() {
            let shapes = match it.poles {
                1 => vec![Shape::Full, Shape::Upper, Shape::Lower],
                2 => vec![Shape::Full, Shape::Inner, Shape::Outer],
                _ => vec![Shape::Full],
            };
            for shape in shapes.into_iter().filter(|s| *s == Shape::Full || !matches!(id, "gap" | "feeder")) {
                for flip in [false, true] {
                    if !flip || it.poles == 2 && it.load[0] != it.load[1] && id != "gap" {
                        ends.push(End::At { column, row, shape, flip });
                    }
                }
            }
        }
    }
    if problem.sub.is_some() && !matches!(id, "gap" | "feeder") && it.conductors < 2 {
        ends.extend([End::Sub(0), End::Sub(1)]);
    }
    let joins = |w: &Wanted| {
        w.home.is_some()
            && w.poles == 1
            && ["lighting", "general", "alarm"].contains(&w.class.as_str())
            && !w.fixed
            && !w.replaced
    };
    if joins(it) {
        for (host, _) in all.iter().filter(|(host, w)| *host != id && joins(w)) {
            ends.push(End::Join(host.clone()));
            ends.push(End::Tap(host.clone()));
        }
    }
    ends
}

/// What may become of a circuit, with the halves that it then takes.
type Ends = Vec<(End, BTreeSet<Half>)>;

struct Every<'a> {
    problem: &'a Problem,
    all: &'a BTreeMap<String, Wanted>,
    ids: Vec<(&'a str, Ends)>,
    cheapest: BTreeMap<Way, i64>,
    judged: usize,
}

impl Every<'_> {
    fn go(&mut self, n: usize, taken: &BTreeSet<Half>, touched: usize, ends: &mut BTreeMap<String, End>) {
        let Some((id, choices)) = self.ids.get(n).cloned() else {
            self.judged += 1;
            if let Ok((way, cost)) = judge(self.problem, self.all, ends) {
                let best = self.cheapest.entry(way).or_insert(cost);
                *best = cost.min(*best);
            }
            return;
        };
        for (end, takes) in choices {
            let it = &self.all[id];
            let more = usize::from(end != End::Home && it.home.is_some() && it.class != "spare");
            if touched + more > self.problem.max_touched || !takes.is_disjoint(taken) {
                continue;
            }
            let together: BTreeSet<Half> = taken.union(&takes).copied().collect();
            ends.insert(id.to_owned(), end);
            self.go(n + 1, &together, touched + more, ends);
            ends.remove(id);
        }
    }
}

/// The cheapest plan of each kind, found by trying all; and how many were tried.
pub(crate) fn cheapest(problem: &Problem) -> (BTreeMap<Way, i64>, usize) {
    let all = wanted(problem);
    let ids = all
        .iter()
        .map(|(id, it)| {
            let ends = ends_of(problem, &all, id).into_iter().map(|end| {
                let takes = match &end {
                    End::Home => it.home.map(|(c, r, s)| halves(c, r, s, it.home_poles)).unwrap_or_default(),
                    End::At { column, row, shape, .. } => halves(*column, *row, *shape, it.poles),
                    _ => BTreeSet::new(),
                };
                (end, takes)
            });
            let inside = |takes: &BTreeSet<Half>| takes.iter().all(|(c, r, _)| *r < problem.panel.columns[*c].len());
            (id.as_str(), ends.filter(|(_, takes)| inside(takes)).collect())
        })
        .collect();
    let mut every = Every { problem, all: &all, ids, cheapest: BTreeMap::new(), judged: 0 };
    every.go(0, &BTreeSet::new(), 0, &mut BTreeMap::new());
    (every.cheapest, every.judged)
}

/// A small panel with a wish, drawn at random.
pub(crate) fn drawn(seed: u64, most_spaces: usize) -> Problem {
    let mut rng = Pcg64Mcg::seed_from_u64(seed);
    let columns = rng.random_range(1..=2usize);
    let rows = rng.random_range(2..=(most_spaces / columns));
    let three = rng.random_bool(0.25);
    let slim = rng.random_bool(0.25);
    let names: Vec<Vec<usize>> = (0..columns).map(|c| (0..rows).map(|r| 1 + r * columns + c).collect()).collect();
    let legs: Vec<&str> = (0..rows).map(|r| ["A", "B", "C"][r % if three { 3 } else { 2 }]).collect();
    let tandem: Vec<usize> = names.iter().flatten().copied().filter(|_| rng.random_bool(0.6)).collect();
    let guards = |rng: &mut Pcg64Mcg, all: &[&'static str]| -> Vec<&'static str> {
        let some = all.iter().copied().filter(|_| rng.random_bool(0.5));
        std::iter::once("standard").chain(some).collect()
    };
    let single = guards(&mut rng, &["gfci", "afci", "dual"]);
    let double = guards(&mut rng, &["gfci"]);
    let some = |rng: &mut Pcg64Mcg, often: f64| if rng.random_bool(often) { vec!["standard"] } else { vec![] };
    let (tandems, quads, slims) = (some(&mut rng, 0.8), some(&mut rng, 0.6), some(&mut rng, 0.7));
    let (mut circuits, mut bodies): (Vec<Value>, Vec<Value>) = (Vec::new(), Vec::new());
    let circuit = |rng: &mut Pcg64Mcg, n: usize, poles: usize, half: bool, at: Value| -> Value {
        let amps = if poles == 2 { *[20, 30, 40].choose(rng).unwrap() } else { *[15, 20].choose(rng).unwrap() };
        let class = if poles == 2 {
            *["dryer", "general"].choose(rng).unwrap()
        } else {
            *["lighting", "general", "alarm", "bath", "furnace", "spare"].choose(rng).unwrap()
        };
        let class = if half && class == "spare" { "lighting" } else { class };
        let shared = poles == 2 && class == "general";
        let load = |rng: &mut Pcg64Mcg| if class == "spare" { 0 } else { rng.random_range(0..amps * 5) };
        let first = load(rng);
        let second = if shared { load(rng) } else { first };
        json!({
            "id": format!("c{n:02}"), "poles": poles, "amps": amps,
            "awg": match amps { 15 if rng.random_bool(0.7) => 14, 15 | 20 => 12, 30 => 10, _ => 8 },
            "protection": if half || rng.random_bool(0.7) || class == "spare" { "standard" } else if poles == 2 { "gfci" } else {
                ["gfci", "afci", "dual"].choose(rng).unwrap() },
            "class": class, "load": if poles == 2 { vec![first, second] } else { vec![first] },
            "continuous": rng.random_bool(0.2), "shared_neutral": shared,
            "fixed": class != "spare" && rng.random_bool(0.12), "conductors": if !half && poles == 1 && rng.random_bool(0.1) { 2 } else { 1 },
            "terminal": rng.random_range(1..=2), "slack": rng.random_range(0..6), "outlets": rng.random_range(1..3), "at": at,
        })
    };
    for (column, of_column) in names.iter().enumerate() {
        let mut row = 0;
        while row < rows {
            let name = of_column[row];
            let at = |row: usize, shape: &str| json!({"column": column, "row": row, "shape": shape});
            let n = circuits.len();
            let splits = tandem.contains(&name) && !tandems.is_empty();
            let next = row + 1 < rows;
            match rng.random_range(0..10) {
                0 | 1 => {}
                2 | 3 if next => {
                    circuits.push(circuit(&mut rng, n, 2, false, at(row, "full")));
                    row += 1;
                }
                4 | 5 if splits => {
                    circuits.push(circuit(&mut rng, n, 1, true, at(row, "upper")));
                    circuits.push(circuit(&mut rng, n + 1, 1, true, at(row, "lower")));
                    if !slim {
                        let amps: Vec<Value> = circuits[n..].iter().map(|c| c["amps"].clone()).collect();
                        bodies.push(json!({"form": "tandem", "column": column, "row": row, "amps": amps}));
                    }
                }
                6 if next && !slim && !quads.is_empty() && tandem.contains(&of_column[row + 1]) && splits => {
                    let from = circuits.len();
                    circuits.push(circuit(&mut rng, n, 1, true, at(row, "upper")));
                    circuits.push(circuit(&mut rng, n + 1, 2, true, at(row, "inner")));
                    circuits.push(circuit(&mut rng, n + 2, 1, true, at(row + 1, "lower")));
                    let amps = |k: usize| circuits[from + k]["amps"].clone();
                    let amps = [amps(0), amps(1), amps(1), amps(2)];
                    bodies.push(json!({"form": "quad", "column": column, "row": row, "amps": amps, "ties": ["inner"]}));
                    row += 1;
                }
                6 if next && slim && !slims.is_empty() && tandem.contains(&of_column[row + 1]) && splits => {
                    circuits.push(circuit(&mut rng, n, 2, true, at(row, "inner")));
                    row += 1;
                }
                _ => circuits.push(circuit(&mut rng, n, 1, false, at(row, "full"))),
            }
            row += 1;
        }
    }
    let ones: Vec<Value> = circuits.iter().filter(|c| c["poles"] == 1 && c["class"] != "spare").cloned().collect();
    let amps = *[15, 20].choose(&mut rng).unwrap();
    let load = rng.random_range(0..80);
    let guard = *["standard", "standard", "gfci", "afci"].choose(&mut rng).unwrap();
    let wish = match (rng.random_range(0..8), ones.choose(&mut rng)) {
        (0, _) => json!({"kind": "spaces", "count": rng.random_range(1..=2)}),
        (1, _) => {
            json!({"kind": "level", "max_diff": if rng.random_bool(0.4) { json!(rng.random_range(10..90)) } else { Value::Null }})
        }
        (2, Some(c)) => json!({"kind": "own", "circuit": c["id"], "load": [load], "continuous": false, "amps": amps,
            "awg": 12, "protection": guard, "class": "single", "poles": 1}),
        (3, Some(c)) => json!({"kind": "replace", "circuit": c["id"], "poles": 1, "amps": c["amps"],
            "protection": if c["protection"] == "standard" { "gfci" } else { "dual" }, "load": c["load"]}),
        (4, Some(c)) => json!({"kind": "replace", "circuit": c["id"], "poles": 2, "amps": 15,
            "protection": c["protection"], "load": [60, 60]}),
        (5, _) => json!({"kind": "circuit", "poles": 2, "amps": 30, "awg": 10, "protection": "standard", "load": [load, load],
            "continuous": false, "class": "single", "cord": false}),
        _ => json!({"kind": "circuit", "poles": 1, "amps": amps, "awg": 12, "protection": guard, "load": [load],
            "continuous": false, "class": "general", "cord": false}),
    };
    let max_touched = rng.random_range(
        1..=match circuits.len() {
            0..=3 => 3,
            4..=5 => 2,
            _ => 1,
        },
    );
    let poles: usize = circuits.iter().map(|c| c["poles"].as_u64().unwrap() as usize).sum();
    let sub = rng.random_bool(0.25).then(|| json!({"spaces": rng.random_range(1..=3) * 2, "feeder_amps": 40}));
    let costs = json!({"open": [30, 0, 2], "new": [20, 0, 1], "gap": [0, 0, 0], "move": [0, 0, 1], "move_pole": [6, 0, 0],
        "splice": [6, 3, 1], "reland_pole": [4, 0, 0], "join": [12, 3, 3], "join_neutral": [6, 1, 0], "tap": [6, 0, 2],
        "take_out": [3, 0, 0], "sub": [240, 180, 6], "to_sub": [20, 0, 1], "to_sub_pole": [5, 6, 0], "manage": [10, 0, 1],
        "electrician": [120, 450, 1], "price": {"single": {"standard": 8, "gfci": 50, "afci": 45, "dual": 55},
        "double": {"standard": 18, "gfci": 110, "afci": 110, "dual": 120}, "tandem": 25, "quad": 45, "slim": 25, "thin": 10}});
    serde_json::from_value(json!({
        "id": format!("drawn-{seed}"),
        "panel": {"columns": names, "legs": legs, "voltage": "", "main_amps": *[30, 40, 60, 100].choose(&mut rng).unwrap(), "bus_amps": 100,
            "listed_poles": poles + rng.random_range(0..4), "tandem_spaces": tandem, "slim": slim,
            "label": {"single": single, "double": double, "tandem": tandems, "quad": if slim { vec![] } else { quads },
                "slim": if slim { slims } else { vec![] }},
            "max_amps": {"tandem": 20, "quad": 50, "slim": 50}, "splice_room": rng.random_range(0..6), "cross": 2, "refer": []},
        "circuits": circuits, "bodies": bodies, "sub": sub, "wish": wish, "costs": costs,
        "weights": {"minute": 50, "money": 100, "risk": 800, "imbalance": *[2, 6, 20].choose(&mut rng).unwrap()},
        "max_touched": max_touched,
    }))
    .unwrap()
}

/// Compares one panel; says what differs.
pub(crate) fn compare(problem: &Problem) -> Result<usize, String> {
    let found = make_room(problem, USUAL_STEPS).unwrap();
    let told_before = |reason: &NoWay| {
        use NoWay::*;
        matches!(reason, Refer | Fixed | BreakerBelowLoad | BreakerAboveWire | ProtectionLost | NotSingleOutlet)
    };
    if matches!(&found.ways[&Way::Open], Found::None { reason } if told_before(reason)) {
        return Ok(0);
    }
    let (cheapest, judged) = cheapest(problem);
    for way in Way::ALL {
        if matches!(way, Way::Nothing | Way::Electrician) {
            continue;
        }
        match (&found.ways[&way], cheapest.get(&way)) {
            (Found::None { reason }, None) if *reason != NoWay::NotProven => {}
            (Found::Plan { cost, moves, at_least: None, .. }, Some(least)) if cost == least => {
                let all = wanted(problem);
                let ends = made(&all, moves).map_err(|e| format!("{way:?}: {e}: {moves:?}"))?;
                let judged = judge(problem, &all, &ends).map_err(|e| format!("{way:?}: {e}: {moves:?}"))?;
                if judged != (way, *cost) {
                    return Err(format!("{way:?} {cost}: the rules say {judged:?} of {moves:?}"));
                }
            }
            (got, least) => return Err(format!("{way:?}: found {got:?}, every plan: {least:?}")),
        }
    }
    Ok(judged)
}

#[test]
fn the_search_finds_what_trying_every_plan_finds() {
    let mut judged = 0;
    for seed in 0..300 {
        let problem = drawn(seed, if seed % 10 == 0 { 8 } else { 4 + (seed % 2) as usize });
        judged +=
            compare(&problem).unwrap_or_else(|e| panic!("{}: {e}\n{}", problem.id, serde_json::to_string(&problem).unwrap()));
    }
    assert!(judged > 100_000, "{judged}");
}
