//! How often things go wrong while a house is traced: what the rule of proof believes, and what made-up houses do.
//!
//! The kinds are those that electricians name; the rates are invented for made-up houses, no source. In a real house they are
//! others, so what follows from them is a best case.

/// How often a look is read wrong.
pub(crate) const MISREAD: f64 = 0.005;
/// How often somebody who waits for it to go out and to come back as it is called takes another breaker's change for it.
pub(crate) const CHANGE_MISREAD: f64 = 2e-4;
/// How often the look is at another point than is said.
pub(crate) const WRONG_POINT: f64 = 0.003;
/// How often another handle is moved than is said, so that this one stays on.
pub(crate) const WRONG_HANDLE: f64 = 0.003;
/// How often a breaker does not latch when it is switched on.
pub(crate) const NOT_LATCHED: f64 = 0.01;
/// How often a breaker trips when it is switched on.
pub(crate) const TRIPS_AT_ONCE: f64 = 0.003;
/// How often some breaker trips when another is switched.
pub(crate) const TRIPS: f64 = 0.005;
/// How much more often one trips that sits beside a breaker that goes off.
pub(crate) const TRIPS_BESIDE: f64 = 0.0015;
/// How often a trace has an outage.
pub(crate) const OUTAGE: f64 = 0.03;
/// Seconds of a trace for each point.
pub(crate) const POINT_S: f64 = 27.0;
/// How long an outage lasts on the average, in seconds.
pub(crate) const OUTAGE_S: f64 = 330.0;
/// How long a point that goes by itself stays lit or dark, in seconds, is twice this on the average.
pub(crate) const OWN_S: f64 = 100.0;
/// How often a point that is known to go by itself is taken as seen by a plain glance all the same. Judgement, no source.
pub(crate) const GLANCED: f64 = 0.3;
/// The share of points with a mind of their own that nobody has told.
pub(crate) const UNKNOWN: f64 = 0.3;
/// The share of lights and appliances with a mind of their own.
pub(crate) const OWN_LIGHTS: f64 = 0.06;
/// The share of receptacles with one.
pub(crate) const OWN_RECEPTACLES: f64 = 0.012;
