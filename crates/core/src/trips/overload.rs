//! How likely a breaker has tripped by what ran on it.

use super::case::{BreakerNo, Onset, PointNo, TripCase};

/// How much likelier the reported trip is if it was an overload of this breaker than for a trip of any kind, by the loads at
/// these points: those that are said to have run count in full, the others by how often they run.
pub(super) fn overload_ratio(case: &TripCase, breaker: BreakerNo, on: &dyn Fn(PointNo) -> bool) -> f64 {
    let rated = &case.breakers[breaker];
    let volts = if rated.legs.0 && rated.legs.1 { 240.0 } else { 120.0 };
    let (mut mean, mut variance) = (0.0, 0.0);
    for (n, load) in case.loads.iter().enumerate().filter(|(_, l)| on(l.point)) {
        let share = load.watts / volts / rated.amps;
        if case.report.running.contains(&n) || case.report.just_switched == Some(n) {
            mean += share;
        } else {
            let runs = 0.22 * load.in_use + 0.01;
            mean += runs * share;
            variance += runs * (1.0 - runs) * share * share;
        }
    }
    let spread = variance.sqrt().max(0.06);
    // Up to which share of its rating, and how often it trips there: in the end, and at once.
    const BANDS: [(f64, f64, f64); 5] =
        [(0.95, 0.004, 0.001), (1.1, 0.2, 0.01), (1.35, 0.5, 0.03), (2.2, 1.0, 0.05), (f64::INFINITY, 1.0, 0.5)];
    let (mut below, mut ratio) = (0.0, 0.0);
    for (up_to, in_the_end, at_once) in BANDS {
        let here = normal_below((up_to - mean) / spread);
        let trips = if case.report.onset == Onset::AtOnce { at_once } else { in_the_end };
        ratio += (here - below) * trips;
        below = here;
    }
    (ratio / 0.10).max(1e-4)
}

/// The share of a normal distribution below `z`. Source: Abramowitz and Stegun, 7.1.26, from memory; to 1e-7.
fn normal_below(z: f64) -> f64 {
    if z == f64::INFINITY {
        return 1.0;
    }
    let x = z.abs() / std::f64::consts::SQRT_2;
    let t = 1.0 / 0.327_591_1_f64.mul_add(x, 1.0);
    let poly = t * (0.254_829_592 + t * (-0.284_496_736 + t * (1.421_413_741 + t * (-1.453_152_027 + t * 1.061_405_429))));
    let erf = 1.0 - poly * (-x * x).exp();
    if z >= 0.0 { f64::midpoint(1.0, erf) } else { f64::midpoint(1.0, -erf) }
}
