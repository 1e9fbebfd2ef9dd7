//! Whether a breaker is good, by volts at it with its load on, and which reading to take next.
//!
//! Source: common practice and judgement. Read with 5 A or more: less than 0.1 V across a breaker is good, above 0.2 V it is bad. A bus
//! outside its band is a fault upstream (ANSI C84.1, from memory: range A below, 114 V of 120, 228 of 240, 197 of 208; range B above, 127,
//! 254 and 220 V). A bus that is high is a lost neutral as much as one that is low.

use serde::Serialize;

use crate::model::{Breaker, BreakerVolts, Panel, Service, legs_of};
use crate::study::Study;

/// What the readings say.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BreakerState {
    /// A reading is missing that decides.
    Open,
    /// Good.
    Good,
    /// Not good and not bad: read again in half a year.
    Watch,
    /// Bad: it is to be replaced.
    Bad,
    /// The fault is before the breaker.
    Upstream,
    /// The breaker gives what it should: the fault is behind it.
    Behind,
}

/// A breaker by its volts.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct BreakerDiagnosis {
    /// What the readings say.
    pub state: BreakerState,
    /// The same in a sentence.
    pub words: String,
    /// What to do, or to read next.
    pub next: String,
    /// What was read.
    pub volts: BreakerVolts,
}

/// Amperes that have to flow for a drop to say something.
const ENOUGH_AMPS: f64 = 5.0;
const GOOD_BELOW: f64 = 0.1;
const BAD_ABOVE: f64 = 0.2;
/// Two readings of 120 V one after the other differ by more than this only where something is wrong.
const BETWEEN_READINGS: f64 = 3.0;

/// Volts of this breaker, and the least and the most that its bus may have under load.
fn bands(panel: &Panel, breaker: &Breaker) -> (f64, f64, f64) {
    let hots = legs_of(panel, &breaker.at).len();
    match (hots, panel.service) {
        (1, _) => (120.0, 114.0, 127.0),
        (_, Service::TwoLegs208 | Service::ThreePhase) => (208.0, 197.0, 220.0),
        _ => (240.0, 228.0, 254.0),
    }
}

/// What the volts at a breaker say; `None` where none were read.
pub fn diagnose_breaker(home: &Study, breaker: &Breaker) -> Option<BreakerDiagnosis> {
    let volts = home.loads().breaker_volts(&breaker.id)?;
    let panel = home.panels().panel(&breaker.panel)?;
    let (nominal, least, most) = bands(panel, breaker);
    let said = |state, words: String, next: &str| Some(BreakerDiagnosis { state, words, next: next.into(), volts });
    let stop = "Stop here. Switch the main off where that is safe, and call an electrician and the utility: the fault is the feeder, \
                the main, the service or the supply. One leg high and the other low is a lost neutral, an emergency.";
    let replace = "Have it replaced by a type that the panel's label names, with the stab looked at: a pitted one condemns the space. \
                   Work for qualified people.";
    if let Some(bus) = volts.bus.filter(|bus| *bus < least || *bus > most) {
        return said(
            BreakerState::Upstream,
            format!("The bus reads {bus} V where {nominal} V belong, so it is not this breaker."),
            stop,
        );
    }
    if let Some((bus, output)) = volts.bus.zip(volts.output).filter(|(bus, output)| bus - output > BETWEEN_READINGS) {
        let words =
            format!("The bus reads {bus} V and the breaker's terminal {output} V with it on: the breaker loses the rest.");
        return said(BreakerState::Bad, words, replace);
    }
    let flows_enough = volts.amps.is_some_and(|amps| amps >= ENOUGH_AMPS);
    match volts.across {
        Some(across) if across > BAD_ABOVE && volts.amps.is_none_or(|amps| amps <= breaker.amps.value()) => {
            return said(
                BreakerState::Bad,
                format!("{across} V are lost across the breaker with it on: more than {BAD_ABOVE} V."),
                replace,
            );
        }
        Some(across) if flows_enough && across < GOOD_BELOW => {
            let words = format!("{across} V across it: the breaker is good.");
            return said(BreakerState::Good, words, "What does not work is behind it: a joint, a device or the load.");
        }
        Some(across) if flows_enough => {
            let words = format!("{across} V across it: between {GOOD_BELOW} and {BAD_ABOVE} V, neither good nor bad.");
            return said(BreakerState::Watch, words, "Feel for warmth with the cover on, and read it again in half a year.");
        }
        _ => {}
    }
    match (volts.bus, volts.output) {
        (None, _) => said(
            BreakerState::Open,
            "What the bus gives is not read.".into(),
            "Read the bus side first, hot to neutral, or between the two hots of a two-pole, with the load on.",
        ),
        (Some(_), None) => said(
            BreakerState::Open,
            "The bus is right.".into(),
            "Read the breaker's own terminal next, with the load on: a low-impedance meter is best.",
        ),
        (Some(_), Some(output)) if volts.across.is_none() => said(
            BreakerState::Behind,
            format!("The bus is right and the terminal reads {output} V: the breaker gives what it should."),
            "Where the load is dead all the same, the fault is behind it. To be sure of the breaker read across it with 5 A or more \
             flowing.",
        ),
        _ => said(
            BreakerState::Open,
            "Too little flowed for the reading across it to say something.".into(),
            "Switch on a load of 5 A or more, read the amperes, and read across the breaker again.",
        ),
    }
}
