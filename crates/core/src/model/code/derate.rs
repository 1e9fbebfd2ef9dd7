//! What a wire may carry where it is warm, or where several that carry current lie together.
//!
//! Source: NEC 310.15(B) and (C) (2017: 310.15(B)(2) and (3)), Table 310.16 at 90 °C, 334.80 and 110.14(C); from memory. The correction
//! starts from the column of the insulation; what it leaves is never more than the column of cable and terminals. Below 30 °C nothing
//! is gained here.

use super::wire::{Metal, Wire, WireGauge, ampacity};
use super::{Edition, InCanada, Sections};

/// The temperature for which the insulation is marked.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Insulation {
    /// Not read, or an old one.
    #[default]
    C60,
    C75,
    /// THHN, XHHW-2, and the wires within NM-B cable.
    C90,
}

/// Copper and aluminum at 90 °C.
const AT_90: [(WireGauge, u16, u16); 19] = {
    use WireGauge::*;
    [
        (Awg14, 25, 0),
        (Awg12, 30, 25),
        (Awg10, 40, 35),
        (Awg8, 55, 45),
        (Awg6, 75, 55),
        (Awg4, 95, 75),
        (Awg3, 115, 85),
        (Awg2, 130, 100),
        (Awg1, 145, 115),
        (Awg1x0, 170, 135),
        (Awg2x0, 195, 150),
        (Awg3x0, 225, 175),
        (Awg4x0, 260, 205),
        (Kcmil250, 290, 230),
        (Kcmil300, 320, 260),
        (Kcmil350, 350, 280),
        (Kcmil400, 380, 305),
        (Kcmil500, 430, 350),
        (Kcmil600, 475, 385),
    ]
};

/// Up to this many degrees Celsius: the factors for insulation of 60, 75 and 90 °C; 0 where it must not be.
const HEAT: [(i16, [f64; 3]); 11] = [
    (30, [1.0, 1.0, 1.0]),
    (35, [0.91, 0.94, 0.96]),
    (40, [0.82, 0.88, 0.91]),
    (45, [0.71, 0.82, 0.87]),
    (50, [0.58, 0.75, 0.82]),
    (55, [0.41, 0.67, 0.76]),
    (60, [0.0, 0.58, 0.71]),
    (65, [0.0, 0.47, 0.65]),
    (70, [0.0, 0.33, 0.58]),
    (75, [0.0, 0.0, 0.50]),
    (80, [0.0, 0.0, 0.41]),
];

/// Up to so many wires that carry current: the factor.
const TOGETHER: [(u16, f64); 7] = [(3, 1.0), (6, 0.8), (9, 0.7), (20, 0.5), (30, 0.45), (40, 0.4), (u16::MAX, 0.35)];

/// What a wire may carry in its place.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Derated {
    /// The column of its insulation, in amperes.
    pub from: f64,
    /// For the heat.
    pub heat: f64,
    /// For how many lie together.
    pub together: f64,
    /// The column of cable and terminals, in amperes, above which it never counts.
    pub at_most: f64,
    /// What is left, in amperes.
    pub amps: f64,
}

/// What a wire may carry among so many that carry current, at this temperature of the air in degrees Celsius. Aluminum of 14 AWG is not
/// made; it carries nothing.
pub fn derated(wire: Wire, insulation: Insulation, carrying: u16, celsius: i16, edition: Edition) -> Derated {
    let column = match insulation {
        Insulation::C60 => 0,
        Insulation::C75 => 1,
        Insulation::C90 => 2,
    };
    let from = match insulation {
        Insulation::C60 => f64::from(wire.amps_at(false)),
        Insulation::C75 => f64::from(wire.amps_at(true)),
        Insulation::C90 => {
            let row = AT_90.iter().find(|row| row.0 == wire.gauge).map_or((0, 0), |row| (row.1, row.2));
            f64::from(if wire.metal == Metal::Copper { row.0 } else { row.1 })
        }
    };
    let heat = HEAT.iter().find(|(upto, _)| celsius <= *upto).map_or(0.0, |(_, factors)| factors[column]);
    let together = TOGETHER.iter().find(|(upto, _)| carrying <= *upto).map_or(0.0, |(_, factor)| *factor);
    let at_most = ampacity(wire, edition).value();
    Derated { from, heat, together, at_most, amps: (from * heat * together).min(at_most) }
}

/// Where the correction stands.
pub(crate) const DERATED_BY: Sections =
    Sections::moved(["310.15(B)", "310.15(B) and (C)", "310.15(B) and (C)"], InCanada::Perhaps("4-004 and Tables 5A and 5C"));
