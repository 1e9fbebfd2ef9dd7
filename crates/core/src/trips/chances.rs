//! How likely each answer of a look is, given the cause and how the point stands. The rates are judgement (`trips.md`), as for tracing;
//! where that is blank they are filled in here, by judgement as well.

use super::case::{BreakerNo, PointNo, State, Takes, TripCase};
use super::cause::{Cause, Key};
use super::look::Saw;

pub(super) fn pick(saw: Saw, of: &[(Saw, f64)]) -> f64 {
    of.iter().find(|(s, _)| *s == saw).map_or(1e-4, |(_, p)| *p)
}

/// It shows `yes` at that rate where it is the cause, and the other thing otherwise.
pub(super) fn works_if(is: bool, rate: f64, saw: Saw, yes: Saw) -> f64 {
    let says_yes = if is { rate } else { 0.012 };
    if saw == yes { says_yes } else { 1.0 - says_yes }
}

/// How likely a look at a thing in this state shows that.
pub(super) fn shown(takes: Takes, is: State, saw: Saw) -> f64 {
    use State::{Bright, Dark, Dim, Flicker, Half, Live, OpenNeutral, Partial};
    let Saw::Shows(seen) = saw else { return 1e-4 };
    let table: &[(State, f64)] = match (takes, is) {
        (Takes::Receptacle, Live) => &[(Live, 0.98), (Dark, 0.012)],
        (Takes::Light, Live) => &[(Live, 0.97), (Dark, 0.025)],
        (_, Live) => &[(Live, 0.97), (Dark, 0.02)],
        (_, Dark) => &[(Dark, 0.98), (Live, 0.012)],
        (Takes::Receptacle, OpenNeutral) => &[(OpenNeutral, 0.82), (Dark, 0.17)],
        (_, OpenNeutral) => &[(Dark, 0.98), (Live, 0.012)],
        (Takes::Receptacle, Dim) => &[(Live, 0.69), (Dim, 0.28), (Dark, 0.02)],
        (Takes::Receptacle, Bright) => &[(Live, 0.69), (Bright, 0.28), (Dark, 0.02)],
        (Takes::Light, Dim) => &[(Dim, 0.75), (Live, 0.22), (Dark, 0.02)],
        (Takes::Light, Bright) => &[(Bright, 0.75), (Live, 0.18), (Dark, 0.06)],
        (_, Dim) => &[(Live, 0.65), (Dim, 0.22), (Dark, 0.12)],
        (_, Bright) => &[(Live, 0.65), (Bright, 0.22), (Dark, 0.12)],
        (Takes::Receptacle, Flicker) => &[(Live, 0.55), (Flicker, 0.35), (Dark, 0.09)],
        (_, Flicker) => &[(Flicker, 0.55), (Live, 0.35), (Dark, 0.09)],
        (_, Partial) => &[(Partial, 0.8), (Dark, 0.15), (Live, 0.04)],
        (_, Half) => &[(Half, 0.9), (Dark, 0.06), (Live, 0.03)],
    };
    table.iter().find(|(s, _)| *s == seen).map_or(0.002, |(_, p)| *p)
}

pub(super) fn volts(key: Key, is: State, saw: Saw) -> f64 {
    let ghost = if key.cause == Cause::OpenHot { 0.34 } else { 0.09 };
    let table: &[(Saw, f64)] = match is {
        State::Live | State::Half | State::Partial => &[(Saw::V120, 0.97)],
        State::Dark => &[(Saw::Ghost, ghost), (Saw::V0, 0.97 - ghost), (Saw::V120, 0.01)],
        State::OpenNeutral => &[(Saw::V0Hg120, 0.9), (Saw::Ghost, 0.05), (Saw::V0, 0.04)],
        State::Dim => &[(Saw::Low, 0.93), (Saw::Ghost, 0.04), (Saw::V120, 0.02)],
        State::Bright => &[(Saw::High, 0.97), (Saw::V120, 0.02)],
        State::Flicker => &[(Saw::Wander, 0.5), (Saw::V120, 0.35), (Saw::Low, 0.1)],
    };
    table.iter().find(|(s, _)| *s == saw).map_or(0.005, |(_, p)| *p)
}

pub(super) fn handles(case: &TripCase, panel: usize, key: Key, saw: Saw) -> f64 {
    let here = |b: BreakerNo| case.breakers[b].panel == panel;
    let (right, rate) = match (key.cause, key.breaker) {
        (cause, Some(b)) if cause.trips() && here(b) => (Saw::Tripped(b), 0.9),
        (Cause::OffOrNotLatched, Some(b)) if here(b) => (Saw::Off(b), 0.8),
        (Cause::FeederOff, Some(b)) if here(b) => (Saw::Off(b), 0.93),
        (Cause::MainOff, _) if case.panels[panel].feeder.is_none() => (Saw::Other, 0.97),
        _ => (Saw::None, 0.985),
    };
    if saw == right {
        rate
    } else {
        match saw {
            Saw::None => 1.0 - rate,
            Saw::Other => 0.01,
            _ => 0.0005,
        }
    }
}

pub(super) fn indicator(key: Key, breaker: BreakerNo, saw: Saw) -> f64 {
    let (says, rate) = match key.cause {
        _ if key.breaker != Some(breaker) => (Saw::None, 0.98),
        Cause::Arc => (Saw::Arc, 0.65),
        Cause::GroundLoad | Cause::GroundWiring => (Saw::Ground, 0.65),
        Cause::Overload | Cause::ShortLoad | Cause::ShortWiring | Cause::Inrush => (Saw::Over, 0.52),
        _ => (Saw::None, 0.98),
    };
    if saw == says {
        rate
    } else if saw == Saw::None {
        1.0 - rate - 0.015
    } else {
        0.0075
    }
}

pub(super) fn gfci(key: Key, point: PointNo, is: State, saw: Saw) -> f64 {
    let table: &[(Saw, f64)] = if key == Key::place(Cause::GfciTripped, point) {
        &[(Saw::ResetWorks, 0.87), (Saw::WontLatch, 0.08), (Saw::ResetNoHelp, 0.02), (Saw::ClicksDead, 0.02)]
    } else if key == Key::place(Cause::GfciDead, point) {
        &[(Saw::WontLatch, 0.83), (Saw::ClicksDead, 0.14), (Saw::ResetNoHelp, 0.02)]
    } else {
        match is {
            State::Dark | State::OpenNeutral => &[(Saw::WontLatch, 0.44), (Saw::ClicksDead, 0.54), (Saw::ResetNoHelp, 0.01)],
            _ => &[(Saw::OkLive, 0.96), (Saw::ResetNoHelp, 0.03)],
        }
    };
    table.iter().find(|(s, _)| *s == saw).map_or(0.004, |(_, p)| *p)
}

pub(super) fn reset(key: Key, breaker: BreakerNo, saw: Saw) -> f64 {
    let table: &[(Saw, f64)] = match key.cause {
        _ if key.breaker != Some(breaker) => &[(Saw::HoldsDead, 0.975)],
        Cause::Overload | Cause::ShortLoad | Cause::GroundLoad => &[(Saw::HoldsLive, 0.95), (Saw::AtOnce, 0.02)],
        Cause::Inrush | Cause::OffOrNotLatched => &[(Saw::HoldsLive, 0.97)],
        Cause::Arc => &[(Saw::HoldsLive, 0.75), (Saw::AtOnce, 0.1), (Saw::Later, 0.13)],
        Cause::ShortWiring => &[(Saw::AtOnce, 0.93), (Saw::WontLatch, 0.03), (Saw::Later, 0.02)],
        Cause::GroundWiring => &[(Saw::AtOnce, 0.85), (Saw::Later, 0.1), (Saw::HoldsLive, 0.03)],
        Cause::BreakerFailed => &[(Saw::HoldsDead, 0.5), (Saw::WontLatch, 0.45)],
        Cause::Double => &[(Saw::HoldsDead, 0.97)],
        _ => &[(Saw::HoldsDead, 0.975)],
    };
    table.iter().find(|(s, _)| *s == saw).map_or(0.006, |(_, p)| *p)
}
