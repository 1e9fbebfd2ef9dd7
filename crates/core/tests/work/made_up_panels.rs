//! The worked problems: each kind's cost and the best of all, every plan replayed by the rules.

use std::io::Read;

use flate2::read::GzDecoder;
use serde_json::Value;
use wayfinder_core::work::{Found, Problem, USUAL_STEPS, Ways, make_room};

use crate::rules::{judge, made, wanted};

#[test]
fn every_worked_problem_has_its_cost_its_reason_and_a_plan_that_can_be_made() {
    let mut text = String::new();
    GzDecoder::new(&include_bytes!("../data/make-room.jsonl.gz")[..]).read_to_string(&mut text).unwrap();
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
                (Found::Plan { cost, moves, at_least }, Found::Plan { cost: least, moves: given, .. }) => {
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
