//! Wires: what they carry and the largest breaker for them.
//!
//! Source: NEC 240.4(D), 110.14(C)(1), Table 310.16, 240.6 and 310.12, and CEC 14-104, 4-006 and Tables 2, 4 and 13, from memory;
//! today's rule, local code comes first.
//! Motors and cooling units go by their plate instead (NEC 240.4(G)); this table does not know them.

use super::Edition;
use crate::model::Amps;

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
    /// Not read: the 60 °C column up to 1 AWG and 100 A, the 75 °C column above.
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
    #[serde(rename = "1/0")]
    Awg1x0,
    #[serde(rename = "2/0")]
    Awg2x0,
    #[serde(rename = "3/0")]
    Awg3x0,
    #[serde(rename = "4/0")]
    Awg4x0,
    #[serde(rename = "250")]
    Kcmil250,
    #[serde(rename = "300")]
    Kcmil300,
    #[serde(rename = "350")]
    Kcmil350,
    #[serde(rename = "400")]
    Kcmil400,
    #[serde(rename = "500")]
    Kcmil500,
    #[serde(rename = "600")]
    Kcmil600,
}

/// Size, copper at 60 and 75 °C, aluminum at 60 and 75 °C, in amperes; 0 where it is not made for this use.
///
/// Source: NEC Table 310.16 (2017: Table 310.15(B)(16)) and, with the same figures since 2012, CEC Tables 2 and 4; from memory.
const AMPACITY: [(WireGauge, &str, [u16; 4]); 19] = {
    use WireGauge::*;
    [
        (Awg14, "14", [15, 20, 0, 0]),
        (Awg12, "12", [20, 25, 15, 20]),
        (Awg10, "10", [30, 35, 25, 30]),
        (Awg8, "8", [40, 50, 35, 40]),
        (Awg6, "6", [55, 65, 40, 50]),
        (Awg4, "4", [70, 85, 55, 65]),
        (Awg3, "3", [85, 100, 65, 75]),
        (Awg2, "2", [95, 115, 75, 90]),
        (Awg1, "1", [110, 130, 85, 100]),
        (Awg1x0, "1/0", [125, 150, 100, 120]),
        (Awg2x0, "2/0", [145, 175, 115, 135]),
        (Awg3x0, "3/0", [165, 200, 130, 155]),
        (Awg4x0, "4/0", [195, 230, 150, 180]),
        (Kcmil250, "250", [215, 255, 170, 205]),
        (Kcmil300, "300", [240, 285, 195, 230]),
        (Kcmil350, "350", [260, 310, 210, 250]),
        (Kcmil400, "400", [280, 335, 225, 270]),
        (Kcmil500, "500", [320, 380, 260, 310]),
        (Kcmil600, "600", [350, 420, 285, 340]),
    ]
};

impl WireGauge {
    /// Every size, the thinnest first, and whether it is made of aluminum for this use, too.
    pub fn all() -> impl Iterator<Item = (Self, bool)> {
        AMPACITY.iter().map(|(gauge, _, amps)| (*gauge, amps[2] > 0))
    }

    /// As it is said: `14`, `4/0`, `250`.
    pub fn number(self) -> &'static str {
        self.row().1
    }

    /// As it is read: `14 AWG`, `250 kcmil`.
    pub fn words(self) -> String {
        format!("{} {}", self.number(), if self >= Self::Kcmil250 { "kcmil" } else { "AWG" })
    }

    /// The size of that number, if there is one.
    pub fn named(number: &str) -> Option<Self> {
        AMPACITY.iter().find(|row| row.1 == number).map(|row| row.0)
    }

    fn row(self) -> &'static (Self, &'static str, [u16; 4]) {
        AMPACITY.iter().find(|row| row.0 == self).unwrap_or_else(|| panic!("no row for {self:?}; this is a bug"))
    }
}

/// The cable or wiring method, as far as it can be told.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Cable {
    /// Not looked at.
    #[default]
    NotRead,
    /// Nonmetallic-sheathed cable: always the 60 °C column.
    Nm,
    /// Armored or metal-clad.
    Armored,
    /// Single conductors in conduit.
    Conduit,
    /// Service-entrance cable.
    Se,
    /// Underground feeder cable: always the 60 °C column.
    Uf,
    /// Old rubber and cloth.
    Cloth,
    /// Knob-and-tube.
    KnobAndTube,
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
    /// The cable.
    #[serde(default)]
    pub cable: Cable,
}

impl Wire {
    /// `12 AWG copper`.
    pub fn words(self) -> String {
        format!("{} {}", self.gauge.words(), if self.metal == Metal::Copper { "copper" } else { "aluminum" })
    }
}

/// Standard ratings of breakers and fuses. Source: NEC 240.6, from memory.
const STANDARD: [u16; 28] = [
    15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225, 250, 300, 350, 400, 450, 500, 600, 700,
    800,
];

/// The smallest standard rating that is no less; `None` above the largest.
pub(crate) fn standard_at_or_above(amps: f64) -> Option<u16> {
    STANDARD.iter().copied().find(|rating| f64::from(*rating) >= amps - 1e-9)
}

/// Whether there is such a rating. 10 A is one from NEC 2023 on; for Canada that is not known, so it is taken for one.
pub fn is_standard(amps: Amps, edition: Edition) -> bool {
    STANDARD.iter().any(|rating| f64::from(*rating) == amps.value())
        || amps.value() == 10.0 && (edition == Edition::Nec2023 || edition.is_canadian())
}

impl Wire {
    /// Whether this cable is held to the 60 °C column whatever its terminals say: in the United States NM (NEC 334.80) and UF
    /// (340.80), both from memory; old cloth and knob-and-tube by common practice. Canadian nonmetallic cable is probably not (less
    /// than sure): its marks are asked for.
    const fn stays_at_60(self, edition: Edition) -> bool {
        match self.cable {
            Cable::Nm | Cable::Uf => !edition.is_canadian(),
            Cable::Cloth | Cable::KnobAndTube => true,
            Cable::NotRead | Cable::Armored | Cable::Conduit | Cable::Se => false,
        }
    }

    /// The table's figure in the 60 °C or the 75 °C column, whatever cable and terminals are.
    pub(super) fn amps_at(self, hot: bool) -> u16 {
        self.column(hot)
    }

    fn column(self, hot: bool) -> u16 {
        let (cool, hot_one) = if self.metal == Metal::Copper { (0, 1) } else { (2, 3) };
        self.gauge.row().2[if hot { hot_one } else { cool }]
    }

    /// The same wire as it would be with 75 °C read from both labels; `None` where nothing can be read that would change it.
    pub(crate) fn if_read(self, edition: Edition) -> Option<Self> {
        (self.terminals == Terminals::Unread && !self.stays_at_60(edition))
            .then_some(Self { terminals: Terminals::Read75C, ..self })
    }
}

/// What a wire may carry. The 75 °C column where both labels were read, and for conductors larger than 1 AWG (NEC
/// 110.14(C)(1), from memory); never for a cable that stays at 60 °C.
pub fn ampacity(wire: Wire, edition: Edition) -> Amps {
    let hot = wire.terminals == Terminals::Read75C || wire.gauge > WireGauge::Awg1;
    Amps::new(f64::from(wire.column(hot && !wire.stays_at_60(edition))))
}

/// The largest standard breaker for this wire: the small sizes as the code fixes them, the others the
/// standard rating at or next above the ampacity. A circuit over 100 A has the 75 °C column without reading. 14 AWG aluminum is
/// not made for branch circuits; it is given the rating of nothing, 0 A, so that any breaker is too large for it.
pub fn largest_breaker(wire: Wire, edition: Edition) -> Amps {
    use WireGauge::*;
    let at_or_above = |carries: f64| standard_at_or_above(carries).unwrap_or(0);
    let amps = match (wire.metal, wire.gauge) {
        (Metal::Copper, Awg14) => 15,
        (Metal::Copper, Awg12) => 20,
        (Metal::Copper, Awg10) => 30,
        (Metal::Aluminum, Awg14) => 0,
        (Metal::Aluminum, Awg12) => 15,
        (Metal::Aluminum, Awg10) => 25,
        _ => {
            let over_100 = at_or_above(f64::from(wire.column(!wire.stays_at_60(edition))));
            at_or_above(ampacity(wire, edition).value()).max(if over_100 > 100 { over_100 } else { 0 })
        }
    };
    Amps::new(f64::from(amps))
}

/// The largest main for these service conductors (or a feeder that carries the whole load of one
/// dwelling); `None` where the table has no row for them.
///
/// Source: NEC 310.12 (83 %), from memory.
pub fn largest_service(wire: Wire) -> Option<Amps> {
    use WireGauge::*;
    const TABLE: [(u16, WireGauge, WireGauge); 11] = [
        (100, Awg4, Awg2),
        (110, Awg3, Awg1),
        (125, Awg2, Awg1x0),
        (150, Awg1, Awg2x0),
        (175, Awg1x0, Awg3x0),
        (200, Awg2x0, Awg4x0),
        (225, Awg3x0, Kcmil250),
        (250, Awg4x0, Kcmil300),
        (300, Kcmil250, Kcmil350),
        (350, Kcmil350, Kcmil500),
        (400, Kcmil400, Kcmil600),
    ];
    TABLE
        .iter()
        .rfind(|(_, copper, aluminum)| match wire.metal {
            Metal::Copper => wire.gauge >= *copper,
            Metal::Aluminum => wire.gauge >= *aluminum,
        })
        .map(|(amps, ..)| Amps::new(f64::from(*amps)))
}
