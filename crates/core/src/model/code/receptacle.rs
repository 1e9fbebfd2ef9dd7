//! Receptacle configurations and the breakers that may feed them.
//!
//! Source: NEMA WD 6 for the configurations, NEC 210.21(B) and Table 210.21(B)(3) for the circuit; from memory.

use crate::model::Volts;

/// The face of a receptacle, by its published designation.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[allow(missing_docs)]
pub enum Configuration {
    #[serde(rename = "5-15")]
    N5x15,
    #[serde(rename = "5-20")]
    N5x20,
    #[serde(rename = "5-30")]
    N5x30,
    #[serde(rename = "6-15")]
    N6x15,
    #[serde(rename = "6-20")]
    N6x20,
    #[serde(rename = "6-30")]
    N6x30,
    #[serde(rename = "6-50")]
    N6x50,
    #[serde(rename = "10-30")]
    N10x30,
    #[serde(rename = "10-50")]
    N10x50,
    #[serde(rename = "14-30")]
    N14x30,
    #[serde(rename = "14-50")]
    N14x50,
    #[serde(rename = "14-60")]
    N14x60,
    #[serde(rename = "L5-30")]
    L5x30,
    #[serde(rename = "L14-30")]
    L14x30,
    /// 120 V, and dangerous when wired as 240 V.
    #[serde(rename = "TT-30")]
    Tt30,
}

impl Configuration {
    /// Every face, those of 120 V first.
    pub const ALL: [Self; 15] = {
        use Configuration::*;
        [N5x15, N5x20, N5x30, L5x30, Tt30, N6x15, N6x20, N6x30, N6x50, N10x30, N10x50, N14x30, N14x50, N14x60, L14x30]
    };

    /// `14-30`.
    pub const fn name(self) -> &'static str {
        self.row().0
    }
    /// Its rating in amperes.
    pub const fn amps(self) -> u16 {
        self.row().1
    }
    /// 120 V, or 240 V where it has two hot legs (208 V on a 208Y/120 V service).
    pub const fn volts(self) -> Volts {
        Volts::new(self.row().2)
    }

    /// Whether a neutral comes to it.
    pub const fn has_neutral(self) -> bool {
        !matches!(self, Self::N6x15 | Self::N6x20 | Self::N6x30 | Self::N6x50)
    }

    /// Whether a ground of its own comes to it.
    pub const fn has_ground(self) -> bool {
        !matches!(self, Self::N10x30 | Self::N10x50)
    }

    const fn row(self) -> (&'static str, u16, u16) {
        match self {
            Self::N5x15 => ("5-15", 15, 120),
            Self::N5x20 => ("5-20", 20, 120),
            Self::N5x30 => ("5-30", 30, 120),
            Self::N6x15 => ("6-15", 15, 240),
            Self::N6x20 => ("6-20", 20, 240),
            Self::N6x30 => ("6-30", 30, 240),
            Self::N6x50 => ("6-50", 50, 240),
            Self::N10x30 => ("10-30", 30, 240),
            Self::N10x50 => ("10-50", 50, 240),
            Self::N14x30 => ("14-30", 30, 240),
            Self::N14x50 => ("14-50", 50, 240),
            Self::N14x60 => ("14-60", 60, 240),
            Self::L5x30 => ("L5-30", 30, 120),
            Self::L14x30 => ("L14-30", 30, 240),
            Self::Tt30 => ("TT-30", 30, 120),
        }
    }
}

/// The breaker ratings that may feed a receptacle of this rating: 15 on 15 or 20 (15 alone when it is the
/// circuit's only, single one), 20 on 20, 30 on 30, 50 on 40 or 50, 60 on 60.
pub fn breakers_for(configuration: Configuration, only_one: bool) -> &'static [u16] {
    match configuration.amps() {
        15 if only_one => &[15],
        15 => &[15, 20],
        20 => &[20],
        30 => &[30],
        50 => &[40, 50],
        60 => &[60],
        _ => &[],
    }
}
