//! How many wires a conduit takes.
//!
//! Source: NEC Chapter 9, Table 1 with its note 7, Table 4 (EMT) and Table 5 (THHN, THWN-2), from memory.

use super::wire::WireGauge;

/// A size of electrical metallic tubing, by its trade size.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[allow(missing_docs)]
pub enum Tubing {
    #[serde(rename = "1/2")]
    Half,
    #[serde(rename = "3/4")]
    ThreeQuarters,
    #[serde(rename = "1")]
    One,
    #[serde(rename = "1-1/4")]
    OneAndQuarter,
    #[serde(rename = "1-1/2")]
    OneAndHalf,
    #[serde(rename = "2")]
    Two,
}

impl Tubing {
    /// Every size, the smallest first.
    pub const ALL: [Self; 6] = [Self::Half, Self::ThreeQuarters, Self::One, Self::OneAndQuarter, Self::OneAndHalf, Self::Two];

    /// As it is sold: `3/4`.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Half => "1/2",
            Self::ThreeQuarters => "3/4",
            Self::One => "1",
            Self::OneAndQuarter => "1-1/4",
            Self::OneAndHalf => "1-1/2",
            Self::Two => "2",
        }
    }

    /// Its inside, in square inches.
    pub const fn inches2(self) -> f64 {
        match self {
            Self::Half => 0.304,
            Self::ThreeQuarters => 0.533,
            Self::One => 0.864,
            Self::OneAndQuarter => 1.496,
            Self::OneAndHalf => 2.036,
            Self::Two => 3.356,
        }
    }
}

/// Square inches of a THHN or THWN-2 wire, insulation and all; `None` above 4/0.
pub fn inches2_of_thhn(gauge: WireGauge) -> Option<f64> {
    use WireGauge::*;
    Some(match gauge {
        Awg14 => 0.0097,
        Awg12 => 0.0133,
        Awg10 => 0.0211,
        Awg8 => 0.0366,
        Awg6 => 0.0507,
        Awg4 => 0.0824,
        Awg3 => 0.0973,
        Awg2 => 0.1158,
        Awg1 => 0.1562,
        Awg1x0 => 0.1855,
        Awg2x0 => 0.2223,
        Awg3x0 => 0.2679,
        Awg4x0 => 0.3237,
        _ => return None,
    })
}

/// The share of the inside that so many wires may take.
pub const fn share_of_conduit(wires: u16) -> f64 {
    match wires {
        0 | 1 => 0.53,
        2 => 0.31,
        _ => 0.40,
    }
}

/// Whether these wires, grounds included, go into this tubing; `None` where one is larger than the table.
pub fn fits_tubing(tubing: Tubing, wires: &[(WireGauge, u16)]) -> Option<bool> {
    let mut area = 0.0;
    let mut count = 0;
    for (gauge, n) in wires {
        area += inches2_of_thhn(*gauge)? * f64::from(*n);
        count += n;
    }
    Some(area <= tubing.inches2() * share_of_conduit(count) + 1e-9)
}

/// The most wires of one size in this tubing; a last one of which 0.8 would go in counts (note 7).
pub fn most_in_tubing(tubing: Tubing, gauge: WireGauge) -> Option<u16> {
    let each = inches2_of_thhn(gauge)?;
    let by_share = |wires: u16| tubing.inches2() * share_of_conduit(wires) / each;
    let many = (by_share(3) + 0.2 + 1e-9).floor();
    Some(match many {
        3.0.. => many as u16,
        _ if by_share(2) >= 1.8 => 2,
        _ if by_share(1) >= 0.8 => 1,
        _ => 0,
    })
}
