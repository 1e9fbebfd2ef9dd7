//! The worked problems: each kind's cost and the best of all, every plan replayed by the rules.

use std::io::Read;

use flate2::read::GzDecoder;
use serde_json::Value;
use wayfinder_core::work::{Found, NoWay, Problem, USUAL_STEPS, Ways, make_room};

use crate::rules::{judge, made, wanted};

fn worked() -> String {
    let mut text = String::new();
    GzDecoder::new(&include_bytes!("../data/make-room.jsonl.gz")[..]).read_to_string(&mut text).unwrap();
    text
}

/// What does not fit together is said in a sentence, and nothing panics.
#[test]
fn bad_problems_are_refused_with_a_sentence() {
    let text = worked();
    let first: Value = serde_json::from_str::<Value>(text.lines().next().unwrap()).unwrap()["problem"].take();
    let changes: [(&str, Value, &str); 10] = [
        ("/circuits/0/poles", 3.into(), "has 3 poles"),
        ("/circuits/0/at/row", 11.into(), "stands outside the panel"),
        ("/circuits/1/at/row", 0.into(), "stands where another circuit is"),
        ("/circuits/0/at/shape", "upper".into(), "stands outside the panel"),
        ("/panel/columns", Value::Array(vec![]), "this one has 0"),
        ("/panel/legs", serde_json::json!(["A"]), "row 1 has no leg"),
        ("/wish", serde_json::json!({"kind": "spaces", "count": 0}), "not 0"),
        ("/wish/circuit", "c99".into(), "there is no circuit c99"),
        ("/costs/price/single", serde_json::json!({"standard": 8}), "no price of a breaker “gfci”"),
        ("/bodies", serde_json::json!([{"form": "tandem", "column": 0, "row": 0, "amps": [15]}]), "1 are given"),
    ];
    for (at, value, says) in changes {
        let mut problem = first.clone();
        *problem.pointer_mut(at).unwrap() = value;
        let problem: Problem = serde_json::from_value(problem).unwrap();
        let refused = make_room(&problem, USUAL_STEPS).expect_err(at);
        assert!(refused.contains(says), "{at}: {refused}");
    }
}

/// Where the steps run out it says so, and what a plan costs at least, and never names a wrong reason.
#[test]
fn a_search_that_stops_short_says_so() {
    let text = worked();
    let (mut short, mut bounded) = (0, 0);
    for line in text.lines() {
        let line: Value = serde_json::from_str(line).unwrap();
        let problem: Problem = serde_json::from_value(line["problem"].clone()).unwrap();
        let expected: Ways = serde_json::from_value(line["answer"].clone()).unwrap();
        let found = make_room(&problem, 40).unwrap();
        let best = found.best;
        assert!(best.cost >= expected.best.cost && best.at_least.unwrap_or(best.cost) <= expected.best.cost, "{}", problem.id);
        assert!((0.0..100.0).contains(&best.within_percent()));
        for (way, found) in found.ways {
            match (found, &expected.ways[&way]) {
                (Found::None { reason: NoWay::NotProven }, _) => short += 1,
                (Found::None { reason }, Found::None { reason: why }) => assert_eq!(reason, *why),
                (Found::Plan { cost, at_least: Some(least), .. }, Found::Plan { cost: best, .. }) => {
                    bounded += 1;
                    assert!(least <= *best && *best <= cost, "{} {way:?}: {least} {best} {cost}", problem.id);
                }
                (Found::Plan { cost, at_least: None, .. }, Found::Plan { cost: best, .. }) => assert_eq!(cost, *best),
                (found, expected) => panic!("{} {way:?}: {found:?} for {expected:?}", problem.id),
            }
        }
    }
    assert!(short > 3 && bounded > 30, "{short} {bounded}");
}

#[test]
fn every_worked_problem_has_its_cost_its_reason_and_a_plan_that_can_be_made() {
    let text = worked();
    let mut plans = 0;
    for line in text.lines() {
        let line: Value = serde_json::from_str(line).unwrap();
        let problem: Problem = serde_json::from_value(line["problem"].clone()).unwrap();
        let expected: Ways = serde_json::from_value(line["answer"].clone()).unwrap();
        let found = make_room(&problem, USUAL_STEPS).unwrap();
        assert_eq!(found.best, expected.best, "{}", problem.id);
        let all = wanted(&problem);
        for (way, expected) in &expected.ways {
            match (&found.ways[way], expected) {
                (Found::None { reason }, Found::None { reason: why }) => assert_eq!(reason, why, "{} {way:?}", problem.id),
                (Found::Plan { cost, moves, at_least, .. }, Found::Plan { cost: least, moves: given, .. }) => {
                    assert_eq!((cost, at_least), (least, &None), "{} {way:?}", problem.id);
                    for moves in [moves, given] {
                        if moves.len() < 2 {
                            continue;
                        }
                        plans += 1;
                        let ends = made(&all, moves).unwrap_or_else(|e| panic!("{} {way:?}: {e}", problem.id));
                        assert_eq!(judge(&problem, &all, &ends), Ok((*way, *cost)), "{} {way:?}", problem.id);
                    }
                }
                (found, expected) => panic!("{} {way:?}: {found:?} for {expected:?}", problem.id),
            }
        }
    }
    assert!(plans > 400, "{plans}");
}
