//! The equipment ground of a circuit.
//!
//! Source: NEC Table 250.122 and 250.122(A) and (B), from memory; the areas of the sizes are those of NEC Chapter 9 Table 8.

use super::wire::{Metal, Wire, WireGauge};

/// Up to a breaker of so many amperes: the ground of copper and of aluminum.
const GROUND: [(u16, WireGauge, WireGauge); 10] = {
    use WireGauge::*;
    [
        (15, Awg14, Awg12),
        (20, Awg12, Awg10),
        (60, Awg10, Awg8),
        (100, Awg8, Awg6),
        (200, Awg6, Awg4),
        (300, Awg4, Awg2),
        (400, Awg3, Awg1),
        (500, Awg2, Awg1x0),
        (600, Awg1, Awg2x0),
        (800, Awg1x0, Awg3x0),
    ]
};

/// The area of a size, in circular mils.
pub const fn circular_mils(gauge: WireGauge) -> u32 {
    use WireGauge::*;
    match gauge {
        Awg14 => 4_110,
        Awg12 => 6_530,
        Awg10 => 10_380,
        Awg8 => 16_510,
        Awg6 => 26_240,
        Awg4 => 41_740,
        Awg3 => 52_620,
        Awg2 => 66_360,
        Awg1 => 83_690,
        Awg1x0 => 105_600,
        Awg2x0 => 133_100,
        Awg3x0 => 167_800,
        Awg4x0 => 211_600,
        Kcmil250 => 250_000,
        Kcmil300 => 300_000,
        Kcmil350 => 350_000,
        Kcmil400 => 400_000,
        Kcmil500 => 500_000,
        Kcmil600 => 600_000,
    }
}

/// The ground that goes with a breaker of so many amperes. Where the hots are thicker than they have to be (`would_do`, for the voltage
/// drop), the ground grows with them. It need not be thicker than the hots. `None` above 800 A.
pub fn equipment_ground(breaker: f64, metal: Metal, hots: Wire, would_do: Option<WireGauge>) -> Option<WireGauge> {
    let row = GROUND.iter().find(|(amps, ..)| breaker <= f64::from(*amps))?;
    let by_table = if metal == Metal::Copper { row.1 } else { row.2 };
    let mut ground = by_table;
    if let Some(least) = would_do.filter(|least| hots.gauge > *least) {
        let wanted = f64::from(circular_mils(by_table)) * f64::from(circular_mils(hots.gauge)) / f64::from(circular_mils(least));
        ground = WireGauge::all().map(|(gauge, _)| gauge).find(|gauge| f64::from(circular_mils(*gauge)) >= wanted - 0.5)?;
    }
    // Of the same metal, it is never thicker than the hots.
    Some(if metal == hots.metal { ground.min(hots.gauge) } else { ground })
}
