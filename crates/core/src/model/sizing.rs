//! What is asked of the size of a new circuit, and what an inspector says of it.

use super::{Cable, Insulation, Length, Metal, PanelId, PointId, Refusal, RefusalCode, RoomId, Terminals, Volts};

/// What a circuit is to feed.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "feeds", rename_all = "snake_case", deny_unknown_fields)]
pub enum SizedLoad {
    /// So many amperes.
    Plain {
        /// In amperes.
        amps: f64,
        /// For three hours or more.
        #[serde(default)]
        continuous: bool,
    },
    /// A single-phase motor.
    Motor {
        /// In hundredths of a horsepower.
        hundredths_hp: u16,
    },
    /// A cooling unit or a heat pump, by its plate.
    Cooling {
        /// The minimum circuit ampacity.
        wire_at_least: f64,
        /// The maximum fuse or breaker.
        breaker_at_most: f64,
    },
    /// A household range.
    Range {
        /// By its plate.
        watts: f64,
    },
    /// A dryer.
    Dryer {
        /// By its plate.
        watts: f64,
    },
    /// A water heater with a tank.
    WaterHeater {
        /// By its plate.
        watts: f64,
    },
    /// Electric heat of a room.
    Heat {
        /// By its plate.
        watts: f64,
    },
    /// A vehicle charger.
    Charger {
        /// The current for which it is set.
        amps: f64,
    },
}

/// What is sized.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum SizeOf {
    Breaker,
    Wire,
    InItsPlace,
    VoltageDrop,
    Ground,
    Conductors,
    Receptacle,
    Protection,
    Disconnect,
    Tubing,
    Box,
    WorkingSpace,
}

impl SizeOf {
    /// As it stands before its line.
    pub const fn title(self) -> &'static str {
        match self {
            Self::Breaker => "Breaker",
            Self::Wire => "Wire",
            Self::InItsPlace => "In its place it carries",
            Self::VoltageDrop => "Voltage drop",
            Self::Ground => "Ground",
            Self::Conductors => "Conductors",
            Self::Receptacle => "Receptacle",
            Self::Protection => "GFCI and AFCI",
            Self::Disconnect => "Disconnect",
            Self::Tubing => "In metal tubing",
            Self::Box => "Box of the outlet",
            Self::WorkingSpace => "Space before the panel",
        }
    }
}

/// What an inspector says in place of a rule.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct InspectorSaid {
    /// Of what.
    pub of: SizeOf,
    /// What it is to be: `35`, `8`, `a lock on the breaker`.
    pub value: String,
    /// Why, and who said it.
    pub why: String,
}

/// The clear space before a panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct ClearSpace {
    pub deep: Length,
    pub wide: Length,
    pub high: Length,
}

/// A circuit that is to be sized.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SizeAsked {
    /// What the circuit feeds.
    pub load: SizedLoad,
    /// 120, 208 or 240 V.
    pub volts: Volts,
    /// By a cord and a receptacle.
    #[serde(default)]
    pub cord: bool,
    /// Receptacles for whatever is plugged in.
    #[serde(default)]
    pub several_receptacles: bool,
    /// Whether the plate asks for a neutral.
    #[serde(default)]
    pub neutral: bool,
    /// Copper or aluminum.
    #[serde(default)]
    pub metal: Metal,
    /// The cable.
    #[serde(default)]
    pub cable: Cable,
    /// What the labels of the terminals say.
    #[serde(default)]
    pub terminals: Terminals,
    /// What the insulation is marked for.
    #[serde(default)]
    pub insulation: Insulation,
    /// How many wires that carry current lie together, its own among them.
    pub carrying: u16,
    /// The air around it at the warmest, in degrees Celsius.
    pub celsius: i16,
    /// From the panel, one way, where it was measured.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub one_way: Option<Length>,
    /// The panel that it starts at.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub panel: Option<PanelId>,
    /// The room that it ends in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub room: Option<RoomId>,
    /// The point that it ends at, where there is one already.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub point: Option<PointId>,
    /// The space before the panel, where it was measured.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub space: Option<ClearSpace>,
    /// What an inspector says in place of a rule.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub said: Vec<InspectorSaid>,
}

impl SizeAsked {
    /// How many hots it has.
    pub const fn hots(&self) -> u16 {
        if self.volts.value() > 150 { 2 } else { 1 }
    }

    /// Whether a neutral goes with it.
    pub const fn has_neutral(&self) -> bool {
        self.neutral || self.hots() == 1
    }

    /// Whether every number is one that can be meant.
    pub(crate) fn in_bounds(&self) -> Result<(), Refusal> {
        let refuse = |field, why: String, cure: &str| Err(Refusal::new(RefusalCode::OutOfRange, field, why, cure));
        if ![120, 208, 240].contains(&self.volts.value()) {
            return refuse(
                "volts",
                format!("{} V is no voltage of a circuit in a home.", self.volts.value()),
                "Give 120, 208 or 240 V.",
            );
        }
        let figures: &[f64] = match &self.load {
            SizedLoad::Plain { amps, .. } | SizedLoad::Charger { amps } => &[*amps],
            SizedLoad::Motor { hundredths_hp } => &[f64::from(*hundredths_hp)],
            SizedLoad::Cooling { wire_at_least, breaker_at_most } => &[*wire_at_least, *breaker_at_most],
            SizedLoad::Range { watts }
            | SizedLoad::Dryer { watts }
            | SizedLoad::WaterHeater { watts }
            | SizedLoad::Heat { watts } => &[*watts],
        };
        if let Some(odd) = figures.iter().find(|x| !(**x > 0.0 && **x <= 100_000.0)) {
            return refuse("load", format!("{odd} is no load of a circuit."), "Give what the plate says.");
        }
        if !(1..=60).contains(&self.carrying) {
            return refuse("carrying", format!("{} wires together is out of the table.", self.carrying), "Give 1 to 60.");
        }
        if !(-40..=80).contains(&self.celsius) {
            return refuse("celsius", format!("{} °C is out of the table.", self.celsius), "Give -40 to 80 °C.");
        }
        let lengths =
            self.one_way.into_iter().chain(self.space.into_iter().flat_map(|space| [space.deep, space.wide, space.high]));
        if let Some(odd) = lengths.into_iter().find(|length| !(1..=1_000_000).contains(&length.millimeters())) {
            return refuse("one_way", format!("{} mm is no length here.", odd.millimeters()), "Give up to 1 km.");
        }
        if self.said.len() > 12 {
            return refuse("said", "That is more than there is to say.".into(), "Give one saying for each line.");
        }
        for said in &self.said {
            let (value, why) = (said.value.trim().chars().count(), said.why.trim().chars().count());
            if !(1..=60).contains(&value) || !(1..=200).contains(&why) {
                return refuse(
                    "said",
                    "What an inspector says has a value of 1 to 60 letters and a reason of 1 to 200.".into(),
                    "Write down what was said and why.",
                );
            }
        }
        Ok(())
    }
}
