//! The circuit of a motor.
//!
//! Source: NEC Table 430.248 (single phase), 430.22 (wire: 125 % of the table's current) and 430.52 with its exception 1 (inverse-time
//! breaker: 250 %, the next standard rating above where that is none); from memory. The current is that of the table, not of the
//! plate (430.6); a plate of a sealed cooling unit goes by its own figures (440).

use super::wire::standard_at_or_above;

/// Horsepower, in hundredths; the current at 115 and at 230 V, in tenths of an ampere.
const SINGLE_PHASE: [(u16, u16, u16); 12] = [
    (17, 44, 22),
    (25, 58, 29),
    (33, 72, 36),
    (50, 98, 49),
    (75, 138, 69),
    (100, 160, 80),
    (150, 200, 100),
    (200, 240, 120),
    (300, 340, 170),
    (500, 560, 280),
    (750, 800, 400),
    (1000, 1000, 500),
];

/// The circuit of a motor, in amperes.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct MotorCircuit {
    /// The motor's current by the table.
    pub current: f64,
    /// The wire carries at least this.
    pub wire_at_least: f64,
    /// The breaker is at most this.
    pub breaker_at_most: f64,
}

/// The current of a single-phase motor of so many hundredths of a horsepower at 115 V or 230 V; `None` where the table has no such motor.
pub fn motor_amps(hundredths_hp: u16, high_voltage: bool) -> Option<f64> {
    let row = SINGLE_PHASE.iter().find(|row| row.0 == hundredths_hp)?;
    Some(f64::from(if high_voltage { row.2 } else { row.1 }) / 10.0)
}

/// The circuit of one motor that takes so many amperes by the table; `None` where no standard breaker is that large.
pub fn motor_circuit(current: f64) -> Option<MotorCircuit> {
    let breaker_at_most = f64::from(standard_at_or_above(current * 2.5)?);
    Some(MotorCircuit { current, wire_at_least: current * 1.25, breaker_at_most })
}
