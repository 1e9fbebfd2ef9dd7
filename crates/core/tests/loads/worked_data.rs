//! The engines of the loads against worked data: 40 dwellings, 40 panels to level, 20 networks, worked out by another program from
//! the formulas of the code (made-up houses, real arithmetic).

use serde_json::Value;
use wayfinder_core::loads::legs::{LegPanels, level};
use wayfinder_core::loads::network::{Network, solve};
use wayfinder_core::loads::service::{Dwelling, worksheets};

use crate::arranged::legal;

fn cases(text: &str) -> Vec<(String, Value, Value)> {
    let case = |line: &str| {
        let mut case: Value = serde_json::from_str(line).unwrap();
        let input = case["input"].take();
        (input["id"].as_str().unwrap().to_owned(), input, case["expect"].take())
    };
    text.lines().map(case).collect()
}

/// Compares what is expected with what came out; words (notes, names of equal limits) do not count.
fn differs(path: &str, wanted: &Value, got: &Value, within: f64, wrong: &mut Vec<String>) {
    match (wanted, got) {
        (Value::Object(wanted), _) => {
            for (key, value) in
                wanted.iter().filter(|(key, _)| !["note", "remarks", "limit", "rule", "why"].contains(&key.as_str()))
            {
                differs(&format!("{path}.{key}"), value, &got[key], within, wrong);
            }
        }
        (Value::Array(wanted), Value::Array(got)) if wanted.len() == got.len() => {
            for (at, (wanted, got)) in wanted.iter().zip(got).enumerate() {
                differs(&format!("{path}[{at}]"), wanted, got, within, wrong);
            }
        }
        (Value::Number(wanted), Value::Number(got)) => {
            if (wanted.as_f64().unwrap() - got.as_f64().unwrap()).abs() > within {
                wrong.push(format!("{path}: {wanted} wanted, {got}"));
            }
        }
        _ if wanted == got => {}
        _ => wrong.push(format!("{path}: {wanted} wanted, {got}")),
    }
}

#[test]
fn forty_dwellings_line_by_line() {
    let (mut wrong, mut looked_at) = (Vec::new(), 0);
    for (id, input, expect) in cases(include_str!("../data/dwellings.jsonl")) {
        let dwelling: Dwelling = serde_json::from_value(input).unwrap();
        let answer = serde_json::to_value(worksheets(&dwelling)).unwrap();
        differs(&id, &expect, &answer, 0.01, &mut wrong);
        for sheet in ["standard", "optional", "existing", "canada"] {
            let lines = answer[sheet]["lines"].as_array().unwrap();
            looked_at += lines.len();
            assert!(
                lines.iter().all(|line| line["key"].as_str().unwrap().ends_with("sum")
                    || line["key"] == "sum_a"
                    || !line["note"].is_null())
            );
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
    assert_eq!(looked_at, 440 + 400 + 404 + 320);
}

#[test]
fn forty_curves_of_levelling() {
    let (mut wrong, mut points) = (Vec::new(), 0);
    for (id, input, expect) in cases(include_str!("../data/legs.jsonl")) {
        let panels: LegPanels = serde_json::from_value(input.clone()).unwrap();
        let answer = serde_json::to_value(level(&panels).unwrap()).unwrap();
        differs(&format!("{id} verdict"), &expect["verdict"], &answer["verdict"], 0.0, &mut wrong);
        let (wanted, got) = (expect["curve"].as_array().unwrap(), answer["curve"].as_array().unwrap());
        if wanted.len() != got.len() {
            wrong.push(format!("{id}: {} points wanted, {}", wanted.len(), got.len()));
        }
        for (wanted, got) in wanted.iter().zip(got) {
            points += 1;
            let moves = wanted["moves"].as_u64().unwrap();
            differs(&format!("{id} {moves}"), &wanted["ratio"], &got["ratio"], 1e-6, &mut wrong);
            match legal(&input, &got["witness"], moves) {
                Ok(legs) => {
                    let ratings = panels.panels.iter().map(|panel| (&panel.name, panel.rating_a));
                    let shares =
                        ratings.flat_map(|(name, rating)| legs[name].iter().map(move |leg| *leg as f64 / 10.0 / rating as f64));
                    let ratio = shares.fold(0.0, f64::max);
                    if (ratio - got["ratio"].as_f64().unwrap()).abs() > 1e-9 || serde_json::json!(legs) != got["legs_x10"] {
                        wrong.push(format!("{id} {moves}: the arrangement gives {ratio} and {legs:?}, not {got}"));
                    }
                }
                Err(what) => wrong.push(format!("{id} {moves}: {what}")),
            }
            // As it stands, the arrangement is the same, so all of it has to agree.
            if moves == 0 {
                differs(&id, &wanted["legs_x10"], &got["legs_x10"], 0.0, &mut wrong);
                differs(&id, &wanted["neutral_a"], &got["neutral_a"], 0.05, &mut wrong);
            }
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
    assert_eq!(points, 210);
}

#[test]
fn twenty_networks() {
    let mut wrong = Vec::new();
    for (id, input, expect) in cases(include_str!("../data/networks.jsonl")) {
        let network: Network = serde_json::from_value(input).unwrap();
        let answer = solve(&network).unwrap();
        for (node, volts) in expect["volts"].as_object().unwrap() {
            let wanted = [volts[0].as_f64().unwrap(), volts[1].as_f64().unwrap()];
            let got = answer.volts[node];
            let off = (wanted[0] - got[0]).hypot(wanted[1] - got[1]);
            if off > 1e-3 * wanted[0].hypot(wanted[1]).max(1.0) {
                wrong.push(format!("{id} {node}: {wanted:?} wanted, {got:?}"));
            }
        }
        for (part, amps) in expect["amps"].as_object().unwrap() {
            let (wanted, got) = (amps.as_f64().unwrap(), answer.amps[part]);
            if (wanted - got).abs() > 1e-3 * wanted.max(0.01) {
                wrong.push(format!("{id} {part}: {wanted} A wanted, {got}"));
            }
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}
