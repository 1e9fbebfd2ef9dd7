//! How likely a report is, given how the points stand and why.

use super::case::{Extent, PointNo, State, Symptom, TripCase};
use super::cause::{Cause, Key};

/// How likely it is that just this is seen, with the points in these states.
pub(super) fn seen_chance(case: &TripCase, in_use: &[f64], scene: &[State]) -> f64 {
    let report = &case.report;
    let seen = |point: PointNo| scene[point];
    let mut chance = symptom(report.symptom, seen(report.point));
    for (point, what) in &report.also {
        chance *= symptom(*what, seen(*point));
    }
    for point in &report.lit {
        chance *= works(seen(*point));
    }
    // Of all that is out, this point is the one that somebody noticed.
    let (mut affected, mut whole) = (0.0, 0.0);
    for (point, share) in in_use.iter().enumerate() {
        whole += share;
        if seen(point) != State::Live {
            affected += share;
        }
    }
    let n = affected.max(1.0);
    chance /= n;
    if let Some(said) = report.extent {
        chance *= extent(said, n, if whole > 0.0 { affected / whole } else { 0.0 });
    }
    chance
}

/// How likely what else is told is with this cause: when it came, what was switched on last, the handle.
pub(super) fn told_chance(case: &TripCase, key: Key) -> f64 {
    key.cause.came(case.report.onset) * switched_last(case, key) * handle(case, key)
}

fn symptom(said: Symptom, is: State) -> f64 {
    match (said, is) {
        (Symptom::Dark, State::Dark | State::OpenNeutral) => 1.0,
        (Symptom::Dark, State::Half) => 0.97,
        (Symptom::Dark, State::Partial) => 0.4,
        (Symptom::Dark, State::Flicker) => 0.18,
        (Symptom::Dark, State::Dim | State::Bright) => 0.1,
        (Symptom::Flicker, State::Flicker) => 0.8,
        (Symptom::Flicker, State::Dim | State::Bright) => 0.15,
        (Symptom::Dim, State::Dim) | (Symptom::Bright, State::Bright) => 0.74,
        (Symptom::Dim, State::Partial) => 0.4,
        (Symptom::Dim, State::Flicker) => 0.03,
        (_, State::Live) => 0.003,
        _ => 0.01,
    }
}

fn works(is: State) -> f64 {
    match is {
        State::Live => 0.97,
        State::Flicker => 0.3,
        State::Dim | State::Bright => 0.15,
        State::Half | State::Partial => 0.2,
        State::Dark | State::OpenNeutral => 0.02,
    }
}

/// How much of the house seems affected: one step off in eight of a hundred.
fn extent(said: Extent, n: f64, share: f64) -> f64 {
    let one = (1.0 - n).exp();
    let over = |limit: f64| 1.0 / (1.0 + (-(share - limit) / 0.03).exp());
    let all = over(0.88);
    let half = over(0.27) * (1.0 - over(0.75));
    let some = (1.0 - all - half).max(0.0);
    let rest = 1.0 - one;
    let true_ones = [one, rest * some, rest * half, rest * all];
    let at = said as usize;
    let beside = |i: Option<usize>| i.and_then(|i| true_ones.get(i)).copied().unwrap_or(0.0);
    0.92f64.mul_add(true_ones[at], 0.04 * (beside(at.checked_sub(1)) + beside(Some(at + 1)))) + 1e-4
}

/// What was switched on last is what it was, if a load tripped the breaker.
fn switched_last(case: &TripCase, key: Key) -> f64 {
    let nobody_says = 0.65;
    let any = (1.0 - nobody_says) / case.loads.len().max(1) as f64;
    let said = case.report.just_switched;
    let by_chance = if said.is_some() { any } else { nobody_says };
    let culprit = match key.cause {
        Cause::ShortLoad | Cause::GroundLoad => 0.65,
        Cause::Inrush => 0.8,
        _ => return by_chance,
    };
    let is = f64::from(u8::from(said.is_some() && said == key.place));
    culprit * is + (1.0 - culprit) * by_chance
}

/// A handle that is said to be tripped.
fn handle(case: &TripCase, key: Key) -> f64 {
    match case.report.tripped_handle {
        None if key.cause.trips() => 0.8,
        None => 1.0,
        Some(said) if key.cause.trips() && key.breaker == Some(said) => 0.2,
        Some(_) => 0.0005,
    }
}
