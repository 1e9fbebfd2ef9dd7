//! Many rounds, and what they come to.

use crate::search::{Costs, Crew, Game, Played, Strategy, World, play};

/// Means over all rounds.
#[derive(Debug, Clone, PartialEq, serde::Serialize)]
pub struct Summary {
    /// Minutes, mean.
    pub minutes_mean: f64,
    /// Minutes, 90th percentile.
    pub minutes_p90: f64,
    /// Minutes of the oracle on the same houses at the same costs, mean.
    pub oracle_minutes_mean: f64,
    /// The ratio of these means.
    pub ratio_to_oracle: f64,
    /// Looks, mean.
    pub looks_mean: f64,
    /// Points proven, in all.
    pub proven_points: usize,
    /// Of them on another breaker than theirs.
    pub wrong_proofs: usize,
    /// Points known by exclusion.
    pub by_exclusion: usize,
    /// Of them wrong.
    pub wrong_exclusions: usize,
    /// Points that stayed open.
    pub open_points: usize,
    /// How often a breaker that must stay on was off.
    pub must_stay_on_violations: usize,
    /// By how much a clock was overrun at most, in minutes.
    pub clock_overrun_min: f64,
    /// Milliseconds of a decision, 99th percentile.
    pub decision_ms_p99: f64,
}

/// What `practice score` prints.
#[derive(Debug, Clone, PartialEq, serde::Serialize)]
pub struct Score {
    /// One entry a house and run.
    pub houses: Vec<Played>,
    /// What they come to.
    pub summary: Summary,
}

/// The value below which this share of them lies.
fn percentile(values: &mut [f64], share: f64) -> f64 {
    values.sort_by(f64::total_cmp);
    let n = (values.len() as f64 * share).ceil() as usize;
    values.get(n.saturating_sub(1)).copied().unwrap_or(0.0)
}

/// Plays every house so many times, each run with a seed of its own.
pub fn score(
    houses: &[Game],
    crew: Crew,
    costs: Costs,
    strategy: Strategy,
    world: World,
    runs: u64,
    clock_ms: &mut dyn FnMut() -> f64,
) -> Score {
    let mut played = Vec::new();
    let mut oracle = 0.0;
    for (n, house) in houses.iter().enumerate() {
        oracle += play(house, crew, costs, (Strategy::Oracle, World::CALM), 0, &mut || 0.0).minutes;
        for run in 0..runs {
            played.push(play(house, crew, costs, (strategy, world), n as u64 * 1000 + run, clock_ms));
        }
    }
    let rounds = played.len().max(1) as f64;
    let sum = |get: fn(&Played) -> usize| played.iter().map(get).sum::<usize>();
    let mut minutes: Vec<f64> = played.iter().map(|p| p.minutes).collect();
    let mut decisions: Vec<f64> = played.iter().flat_map(|p| p.decisions_ms.iter().copied()).collect();
    let minutes_mean = minutes.iter().sum::<f64>() / rounds;
    let oracle_minutes_mean = oracle / houses.len().max(1) as f64;
    let summary = Summary {
        minutes_mean,
        minutes_p90: percentile(&mut minutes, 0.9),
        oracle_minutes_mean,
        ratio_to_oracle: minutes_mean / oracle_minutes_mean.max(1e-9),
        looks_mean: sum(|p| p.looks) as f64 / rounds,
        proven_points: sum(|p| p.proven),
        wrong_proofs: sum(|p| p.wrong_proofs),
        by_exclusion: sum(|p| p.by_exclusion),
        wrong_exclusions: sum(|p| p.wrong_exclusions),
        open_points: sum(|p| p.open),
        must_stay_on_violations: sum(|p| p.must_stay_on_violations),
        clock_overrun_min: played.iter().map(|p| p.clock_overrun_min).fold(0.0, f64::max),
        decision_ms_p99: percentile(&mut decisions, 0.99),
    };
    Score { houses: played, summary }
}
