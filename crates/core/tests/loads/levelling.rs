//! The leveller against every arrangement of small panels, and against a solver of integer programs on large ones.

use std::collections::BTreeMap;

use good_lp::{Expression, ProblemVariables, Solution, SolverModel, Variable, constraint, microlp, variable};
use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use serde_json::{Value, json};
use wayfinder_core::loads::legs::{LegPanel, LegPanels, LegSpace, LegSystem, LegUnit, UnitKind, level};

use crate::arranged::legal;

fn unit(id: String, kind: UnitKind, spaces: Vec<usize>, amps_x10: Vec<i64>) -> LegUnit {
    LegUnit { id, kind, spaces, amps_x10, turn: false, feeds: None, load: None }
}

/// A panel of so many spaces drawn at random, some open.
fn panel(rng: &mut Pcg64Mcg, name: &str, spaces: usize, legs: usize) -> LegPanel {
    let mut all: Vec<LegSpace> = (0..spaces)
        .map(|at| LegSpace { leg: (at / 2) % legs, tandem: rng.random_bool(0.4), unit: None, blocked: rng.random_bool(0.05) })
        .collect();
    let mut units = Vec::new();
    for at in 0..spaces {
        if all[at].unit.is_some() || all[at].blocked || rng.random_bool(0.2) {
            continue;
        }
        let id = format!("{name}{at}");
        let amps = |rng: &mut Pcg64Mcg| rng.random_range(0..250_i64);
        let pair = at + 2 < spaces && all[at + 2].unit.is_none() && !all[at + 2].blocked;
        let made = match rng.random_range(0..10) {
            0 | 1 if pair => LegUnit {
                turn: rng.random_bool(0.7),
                ..unit(id.clone(), UnitKind::Group, vec![at, at + 2], vec![amps(rng), amps(rng)])
            },
            2 if pair => unit(id.clone(), UnitKind::Fixed, vec![at, at + 2], vec![150, 150]),
            3 => unit(id.clone(), UnitKind::Fixed, vec![at], vec![amps(rng)]),
            4 | 5 if all[at].tandem => unit(id.clone(), UnitKind::Tandem, vec![at], vec![amps(rng), amps(rng)]),
            _ => unit(id.clone(), UnitKind::Single, vec![at], vec![amps(rng)]),
        };
        for at in &made.spaces {
            all[*at].unit = Some(id.clone());
        }
        units.push(made);
    }
    LegPanel { name: name.into(), rating_a: [30, 40, 60, 100][rng.random_range(0..4)], legs, spaces: all, units }
}

/// Makes the last unit that may turn, or that stays in two spaces, a feeder of a second panel.
fn with_a_second(rng: &mut Pcg64Mcg, mut main: LegPanel, spaces: usize) -> LegPanels {
    let mut panels = Vec::new();
    if let Some(pair) = main.units.iter_mut().rfind(|unit| unit.spaces.len() == 2) {
        *pair =
            LegUnit { kind: UnitKind::Feeder, amps_x10: Vec::new(), feeds: Some(1), turn: rng.random_bool(0.5), ..pair.clone() };
        panels.push(panel(rng, "s", spaces, 2));
    }
    panels.insert(0, main);
    LegPanels { id: String::new(), system: LegSystem::SplitPhase, panels }
}

/// The least that the worst leg can come to, for each number of wires: every unit into every space where it may sit.
fn every_arrangement(input: &Value) -> Vec<f64> {
    fn go(
        input: &Value,
        units: &[(usize, &Value)],
        witness: &mut BTreeMap<String, Vec<u64>>,
        taken: &mut Vec<(usize, u64)>,
        best: &mut Vec<f64>,
        wires: usize,
    ) {
        let Some(((panel, unit), rest)) = units.split_first() else {
            // The other check of the same arrangement counts the wires again.
            if let Ok(legs) = legal(input, &json!(witness), u64::try_from(wires).unwrap()) {
                let shares = input["panels"].as_array().unwrap().iter().flat_map(|panel| {
                    let rating = panel["rating_a"].as_f64().unwrap();
                    legs[panel["name"].as_str().unwrap()].iter().map(move |leg| *leg as f64 / (10.0 * rating))
                });
                let ratio = shares.fold(0.0, f64::max);
                best[wires] = best[wires].min(ratio);
            }
            return;
        };
        let was: Vec<u64> = unit["spaces"].as_array().unwrap().iter().map(|at| at.as_u64().unwrap()).collect();
        let kind = unit["kind"].as_str().unwrap();
        let spaces = input["panels"][panel]["spaces"].as_array().unwrap();
        let mut ways = vec![was.clone()];
        match kind {
            "single" | "tandem" => {
                let may = |at: &u64| spaces[usize::try_from(*at).unwrap()]["blocked"] != true && !was.contains(at);
                ways.extend((0..u64::try_from(spaces.len()).unwrap()).filter(may).map(|at| vec![at]));
            }
            "group" | "feeder" if unit["turn"] == true => ways.push(was.iter().rev().copied().collect()),
            _ => {}
        }
        for way in ways {
            if way.iter().any(|at| taken.contains(&(*panel, *at))) {
                continue;
            }
            let moved = was.iter().zip(&way).filter(|(was, is)| was != is).count();
            taken.extend(way.iter().map(|at| (*panel, *at)));
            let id = unit["id"].as_str().unwrap().to_owned();
            let count = way.len();
            if moved > 0 {
                witness.insert(id.clone(), way);
            }
            go(input, rest, witness, taken, best, wires + if kind == "tandem" { 2 * moved } else { moved });
            witness.remove(&id);
            taken.truncate(taken.len() - count);
        }
    }
    let panels = input["panels"].as_array().unwrap();
    // Units that cannot move hold their spaces, whatever is tried.
    let mut units: Vec<(usize, &Value)> = panels
        .iter()
        .enumerate()
        .flat_map(|(at, panel)| panel["units"].as_array().unwrap().iter().map(move |unit| (at, unit)))
        .collect();
    units.sort_by_key(|(_, unit)| unit["kind"] != "fixed");
    let mut best = vec![f64::INFINITY; 3 * units.len() + 3];
    go(input, &units, &mut BTreeMap::new(), &mut Vec::new(), &mut best, 0);
    for at in 1..best.len() {
        best[at] = best[at].min(best[at - 1]);
    }
    best
}

#[test]
fn every_arrangement_of_200_small_panels() {
    let mut rng = Pcg64Mcg::seed_from_u64(14);
    let (mut gained, mut tandems, mut fed, mut on_three) = (0, 0, 0, 0);
    for round in 0..200 {
        let legs = if round % 5 == 0 { 3 } else { 2 };
        let main = panel(&mut rng, "m", if legs == 3 { 7 } else { 6 }, legs);
        let panels = match round % 4 {
            1 if legs == 2 => with_a_second(&mut rng, main, 3),
            _ => LegPanels { id: String::new(), system: LegSystem::SplitPhase, panels: vec![main] },
        };
        let input = serde_json::to_value(&panels).unwrap();
        let best = every_arrangement(&input);
        let answer = level(&panels).unwrap();
        for (moves, best) in best.iter().enumerate() {
            let point = answer.curve.get(moves).unwrap_or_else(|| answer.curve.last().unwrap());
            assert!((point.ratio - best).abs() < 1e-9, "round {round}, {moves} moves: {} and {best}: {input}", point.ratio);
            let witness = serde_json::to_value(&point.witness).unwrap();
            let legs =
                legal(&input, &witness, u64::from(point.moves)).unwrap_or_else(|wrong| panic!("round {round}: {wrong}: {input}"));
            assert_eq!(legs, point.legs_x10, "round {round}");
        }
        gained += usize::from(answer.curve.len() > 1);
        tandems += usize::from(answer.curve.iter().any(|point| {
            let moved = |unit: &&LegUnit| unit.kind == UnitKind::Tandem && point.witness.contains_key(&unit.id);
            panels.panels.iter().any(|panel| panel.units.iter().any(|unit| moved(&unit)))
        }));
        fed += usize::from(panels.panels.len() > 1);
        on_three += usize::from(legs == 3);
    }
    assert!(gained > 120 && tandems > 5 && fed > 20 && on_three == 40, "{gained} {tandems} {fed} {on_three}");
}

/// The same question as an integer program: the least greatest leg of one panel with at most so many wires.
fn by_integer_program(panel: &LegPanel, moves: u32) -> f64 {
    let mut variables = ProblemVariables::new();
    let greatest = variables.add(variable().min(0.0));
    let mut on_leg: Vec<Expression> = vec![Expression::from(0.0); 2];
    let mut wires = Expression::from(0.0);
    let mut net = Expression::from(0.0);
    for unit in &panel.units {
        let leg = |at: usize| panel.spaces[unit.spaces[at]].leg;
        let amps = |at: usize| unit.amps_x10[at] as f64;
        let mut goes = || -> Variable { variables.add(variable().binary()) };
        match unit.kind {
            UnitKind::Single => {
                let goes = goes();
                let from = leg(0);
                on_leg[from] += amps(0) - amps(0) * goes;
                on_leg[1 - from] += amps(0) * goes;
                wires += goes;
                net += if from == 0 { 1.0 } else { -1.0 } * goes;
            }
            UnitKind::Group if unit.turn => {
                let turns = goes();
                for hot in 0..2 {
                    on_leg[leg(hot)] += amps(hot) - amps(hot) * turns;
                    on_leg[leg(1 - hot)] += amps(hot) * turns;
                }
                wires += 2.0 * turns;
            }
            _ => (0..unit.spaces.len()).for_each(|hot| on_leg[leg(hot)] += amps(hot)),
        }
    }
    let open = |leg: usize| {
        panel.spaces.iter().filter(|space| space.leg == leg && space.unit.is_none() && !space.blocked).count() as f64
    };
    let mut problem = variables.minimise(greatest).using(microlp);
    for leg in on_leg {
        problem = problem.with(constraint!(leg <= greatest));
    }
    problem = problem.with(constraint!(wires <= f64::from(moves)));
    problem = problem.with(constraint!(net.clone() <= open(1))).with(constraint!(net >= -open(0)));
    problem.solve().unwrap().value(greatest)
}

#[test]
fn panels_of_42_spaces_as_integer_programs() {
    let mut rng = Pcg64Mcg::seed_from_u64(42);
    for round in 0..4 {
        let mut panel = panel(&mut rng, "m", 42, 2);
        // The program above knows no tandems.
        for unit in panel.units.iter_mut().filter(|unit| unit.kind == UnitKind::Tandem) {
            unit.kind = UnitKind::Fixed;
            unit.amps_x10 = vec![unit.amps_x10.iter().sum()];
        }
        let panels = LegPanels { id: String::new(), system: LegSystem::SplitPhase, panels: vec![panel] };
        let curve = level(&panels).unwrap().curve;
        for moves in 0..4 {
            let point = curve.get(moves).unwrap_or_else(|| curve.last().unwrap());
            let wanted = by_integer_program(&panels.panels[0], u32::try_from(moves).unwrap());
            let got = point.ratio * 10.0 * panels.panels[0].rating_a as f64;
            assert!((wanted - got).abs() < 0.01, "round {round}, {moves} moves: {wanted} and {got}");
        }
    }
}

#[test]
fn what_cannot_be_is_said() {
    let mut rng = Pcg64Mcg::seed_from_u64(1);
    let panels = LegPanels { id: String::new(), system: LegSystem::SplitPhase, panels: vec![panel(&mut rng, "m", 6, 2)] };
    let wrong = |change: &dyn Fn(&mut LegPanel)| {
        let mut panels = panels.clone();
        change(&mut panels.panels[0]);
        level(&panels).unwrap_err()
    };
    assert_eq!(wrong(&|panel| panel.rating_a = 0), "panel m needs a rating above 0 and two or three legs");
    assert_eq!(wrong(&|panel| panel.spaces[1].leg = 2), "a space of panel m is on a leg that it has not");
    assert!(wrong(&|panel| panel.units[0].spaces = vec![99]).ends_with("does not sit where its spaces say"));
    assert!(wrong(&|panel| panel.units[0].amps_x10 = vec![-1]).ends_with("carries less than nothing or more than 2000 A"));
    let ring = |panel: &mut LegPanel| {
        panel.units[0] = LegUnit { kind: UnitKind::Feeder, feeds: Some(0), ..panel.units[0].clone() };
        let at = panel.units[0].spaces[0];
        let other = panel.spaces.iter().position(|space| space.leg != panel.spaces[at].leg && space.unit.is_none());
        panel.units[0].spaces.truncate(1);
        if let Some(other) = other {
            panel.spaces[other].unit = Some(panel.units[0].id.clone());
            panel.units[0].spaces.push(other);
        }
    };
    let said = wrong(&ring);
    assert!(said.contains("ring") || said.contains("as many hots"), "{said}");
}
