//! How many wires a box takes.
//!
//! Source: NEC 314.16(B) and Table 314.16(B), from memory. From 2020 on grounds above four count a quarter each; before, all of them
//! together count one.

use super::Edition;
use super::wire::WireGauge;

/// Cubic inches for a wire of this size; `None` above 6 AWG, whose boxes go by other rules.
pub fn inches3_per_wire(gauge: WireGauge) -> Option<f64> {
    use WireGauge::*;
    Some(match gauge {
        Awg14 => 2.0,
        Awg12 => 2.25,
        Awg10 => 2.5,
        Awg8 => 3.0,
        Awg6 => 5.0,
        _ => return None,
    })
}

/// What is in a box.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct InBox {
    /// Wires that end or are spliced in it or pass through, size by size: hots, travelers and neutrals, without grounds and pigtails.
    pub wires: Vec<(WireGauge, u16)>,
    /// Grounds, size by size.
    pub grounds: Vec<(WireGauge, u16)>,
    /// Clamps inside it, however many.
    pub clamps: bool,
    /// Studs and hickeys, each kind once.
    pub fittings: u16,
    /// Devices, each with the largest wire on it.
    pub devices: Vec<WireGauge>,
}

/// The cubic inches that a box must have at least; `None` where a wire is larger than the table.
pub fn box_fill(inside: &InBox, edition: Edition) -> Option<f64> {
    let mut sum = 0.0;
    for (gauge, count) in &inside.wires {
        sum += inches3_per_wire(*gauge)? * f64::from(*count);
    }
    let largest = inside.wires.iter().chain(&inside.grounds).filter(|(_, count)| *count > 0).map(|(gauge, _)| *gauge).max();
    if let Some(largest) = largest {
        let each = inches3_per_wire(largest)?;
        sum += each * f64::from(u16::from(inside.clamps) + inside.fittings);
    }
    let grounds: u16 = inside.grounds.iter().map(|(_, count)| *count).sum();
    if let Some((thickest, _)) = inside.grounds.iter().filter(|(_, count)| *count > 0).max_by_key(|(gauge, _)| *gauge) {
        let above_four = if edition == Edition::Nec2017 { 0 } else { grounds.saturating_sub(4) };
        sum += inches3_per_wire(*thickest)? * (1.0 + 0.25 * f64::from(above_four));
    }
    for gauge in &inside.devices {
        sum += 2.0 * inches3_per_wire(*gauge)?;
    }
    Some(sum)
}
