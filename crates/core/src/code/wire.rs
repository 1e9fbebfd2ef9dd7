//! The largest breaker for a wire.
//!
//! Source: NEC 240.4(D), Table 310.16 and 240.6, from memory; today's rule, local code comes first.
//! Motors and cooling units go by their plate instead (NEC 240.4(G)); this table does not know them.

use crate::Amps;

/// Copper or aluminum.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Metal {
    /// Copper.
    #[default]
    Copper,
    /// Aluminum.
    Aluminum,
}

/// The temperature for which wire and terminals are both marked.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Terminals {
    /// Not read, or NM cable: the 60 °C column.
    #[default]
    Unread,
    /// 75 °C read from both labels.
    #[serde(rename = "read_75c")]
    Read75C,
}

/// Wire size, AWG.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[allow(missing_docs)]
pub enum WireGauge {
    #[serde(rename = "14")]
    Awg14,
    #[serde(rename = "12")]
    Awg12,
    #[serde(rename = "10")]
    Awg10,
    #[serde(rename = "8")]
    Awg8,
    #[serde(rename = "6")]
    Awg6,
    #[serde(rename = "4")]
    Awg4,
    #[serde(rename = "3")]
    Awg3,
    #[serde(rename = "2")]
    Awg2,
    #[serde(rename = "1")]
    Awg1,
}

impl WireGauge {
    /// The number as it is said: 14, 12 …
    pub const fn number(self) -> u8 {
        match self {
            Self::Awg14 => 14,
            Self::Awg12 => 12,
            Self::Awg10 => 10,
            Self::Awg8 => 8,
            Self::Awg6 => 6,
            Self::Awg4 => 4,
            Self::Awg3 => 3,
            Self::Awg2 => 2,
            Self::Awg1 => 1,
        }
    }
}

/// The wire on a breaker, as read from the cable.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Wire {
    /// Size.
    pub gauge: WireGauge,
    /// Metal.
    #[serde(default)]
    pub metal: Metal,
    /// What the labels say of heat.
    #[serde(default)]
    pub terminals: Terminals,
}

/// The largest standard breaker for this wire. 14 AWG aluminum is not made for branch circuits; it is
/// given the rating of nothing, 0 A, so that any breaker is too large for it.
pub fn largest_breaker(wire: Wire) -> Amps {
    use WireGauge::*;
    let hot = wire.terminals == Terminals::Read75C;
    let amps: u16 = match (wire.metal, wire.gauge) {
        (Metal::Copper, Awg14) => 15,
        (Metal::Copper, Awg12) => 20,
        (Metal::Copper, Awg10) => 30,
        (Metal::Copper, Awg8) => {
            if hot {
                50
            } else {
                40
            }
        }
        (Metal::Copper, Awg6) => {
            if hot {
                70
            } else {
                60
            }
        }
        (Metal::Copper, Awg4) => {
            if hot {
                90
            } else {
                70
            }
        }
        (Metal::Copper, Awg3) => {
            if hot {
                100
            } else {
                90
            }
        }
        (Metal::Copper, Awg2) => {
            if hot {
                125
            } else {
                100
            }
        }
        (Metal::Copper, Awg1) => {
            if hot {
                150
            } else {
                110
            }
        }
        (Metal::Aluminum, Awg14) => 0,
        (Metal::Aluminum, Awg12) => 15,
        (Metal::Aluminum, Awg10) => 25,
        (Metal::Aluminum, Awg8) => {
            if hot {
                40
            } else {
                35
            }
        }
        (Metal::Aluminum, Awg6) => {
            if hot {
                50
            } else {
                40
            }
        }
        (Metal::Aluminum, Awg4) => {
            if hot {
                70
            } else {
                60
            }
        }
        (Metal::Aluminum, Awg3) => {
            if hot {
                80
            } else {
                70
            }
        }
        (Metal::Aluminum, Awg2) => {
            if hot {
                90
            } else {
                80
            }
        }
        (Metal::Aluminum, Awg1) => {
            if hot {
                100
            } else {
                90
            }
        }
    };
    Amps::new(f64::from(amps))
}
