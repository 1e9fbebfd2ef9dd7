//! Voltage drop over a run of wire.
//!
//! Source: NEC Chapter 9 Table 8 at 75 °C, stranded, from memory; 3 % on a branch and 5 % in all are recommended by an informational
//! note of NEC 210.19 and are a rule in Canada (CEC 8-102).

use serde::Serialize;

use crate::model::{Amps, Length, Metal, Wire, WireGauge};

/// The circuit that drops.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Run {
    /// Out on one wire and back on another.
    TwoWire,
    /// Three phases, balanced.
    ThreePhase,
    /// Two hots and a shared neutral that carries nothing: one way only.
    BalancedThreeWire,
}

/// What a run loses.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, utoipa::ToSchema)]
pub struct Drop {
    /// In volts.
    pub volts: f64,
    /// In percent of the circuit's voltage.
    pub percent: f64,
}

/// Ohms of 1000 ft, copper and aluminum; 0 where there is none.
#[allow(clippy::approx_constant)] // 3.14 is the resistance of 14 AWG
const OHMS: [(WireGauge, f64, f64); 18] = {
    use WireGauge::*;
    [
        (Awg14, 3.14, 0.0),
        (Awg12, 1.98, 3.25),
        (Awg10, 1.24, 2.04),
        (Awg8, 0.778, 1.28),
        (Awg6, 0.491, 0.808),
        (Awg4, 0.308, 0.508),
        (Awg3, 0.245, 0.403),
        (Awg2, 0.194, 0.319),
        (Awg1, 0.154, 0.253),
        (Awg1x0, 0.122, 0.201),
        (Awg2x0, 0.0967, 0.159),
        (Awg3x0, 0.0766, 0.126),
        (Awg4x0, 0.0608, 0.100),
        (Kcmil250, 0.0515, 0.0847),
        (Kcmil300, 0.0429, 0.0707),
        (Kcmil350, 0.0367, 0.0605),
        (Kcmil400, 0.0321, 0.0529),
        (Kcmil500, 0.0258, 0.0424),
    ]
};

/// Ohms of 1000 ft of one conductor; `None` where the table has none.
pub fn ohms_per_1000_ft(wire: Wire) -> Option<f64> {
    let row = OHMS.iter().find(|(gauge, ..)| *gauge == wire.gauge)?;
    let ohms = if wire.metal == Metal::Copper { row.1 } else { row.2 };
    (ohms > 0.0).then_some(ohms)
}

/// What this current loses over this run, one way, at this voltage.
pub fn voltage_drop(wire: Wire, run: Run, amps: Amps, one_way: Length, volts: f64) -> Option<Drop> {
    let feet = f64::from(one_way.millimeters()) / 304.8;
    let ways = match run {
        Run::TwoWire => 2.0,
        Run::ThreePhase => 3.0_f64.sqrt(),
        Run::BalancedThreeWire => 1.0,
    };
    let lost = ways * amps.value() * ohms_per_1000_ft(wire)? * feet / 1000.0;
    Some(Drop { volts: lost, percent: 100.0 * lost / volts })
}
