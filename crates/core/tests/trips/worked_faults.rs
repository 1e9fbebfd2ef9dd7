//! Sixty faults whose answers were drawn once (`faults.jsonl`): the figures that the search has to keep.

use wayfinder_core::trips::{FaultStrategy, FaultSummary, play_fault, summary};

use crate::games;

fn played(strategy: FaultStrategy) -> FaultSummary {
    let mut decisions = Vec::new();
    let all: Vec<_> = games().iter().map(|g| play_fault(g, strategy, &mut || 0.0, &mut decisions)).collect();
    summary(&all, &mut decisions)
}

/// The limits of the issue: 1.9 minutes, 50 right, 4 wrong and sure, 0.15 resets, no emergency missed.
#[test]
fn the_search_finds_them_in_less_time_than_a_list_and_than_chance() {
    let planner = played(FaultStrategy::Planner);
    assert_eq!(planner.cases, 60);
    assert!(planner.minutes_mean <= 1.9, "{planner:?}");
    assert!(planner.right >= 50, "{planner:?}");
    assert!(planner.wrong_and_sure <= 4, "{planner:?}");
    assert!(planner.resets_mean <= 0.15, "{planner:?}");
    assert_eq!(planner.missed_emergencies, 0, "{planner:?}");
    let checklist = played(FaultStrategy::Checklist);
    assert!(checklist.minutes_mean > planner.minutes_mean && checklist.right < planner.right, "{checklist:?}");
    let random = played(FaultStrategy::Random);
    assert!(random.minutes_mean > 1.3 * planner.minutes_mean, "{random:?}");
    assert_eq!(random.missed_emergencies, 0, "{random:?}");
}

/// The same lines are thought about in the same way.
#[test]
fn a_search_is_the_same_every_time() {
    for game in games().iter().take(4) {
        let once = play_fault(game, FaultStrategy::Planner, &mut || 0.0, &mut Vec::new());
        let again = play_fault(game, FaultStrategy::Planner, &mut || 0.0, &mut Vec::new());
        assert_eq!(once, again);
    }
}
