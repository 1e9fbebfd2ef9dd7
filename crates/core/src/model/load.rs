//! What is plugged in or connected at a point, and readings of it.

use crate::model::{Amps, Appliance, BreakerId, EntryId, LoadId, Moment, PointId, Usage};

/// What a data plate says.
#[derive(Debug, Clone, Copy, Default, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct LoadPlate {
    /// Its voltage.
    pub volts: Option<f64>,
    /// Amperes.
    pub amps: Option<f64>,
    /// Watts, or volt-amperes.
    pub watts: Option<f64>,
    /// Minimum circuit ampacity.
    pub minimum_ampacity: Option<f64>,
    /// Largest fuse or breaker.
    pub largest_breaker: Option<f64>,
}

/// How it is known what a load takes.
#[derive(Debug, Clone, Copy, Default, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "from", rename_all = "snake_case")]
pub enum Draw {
    /// By the library's figure for such an appliance.
    #[default]
    Library,
    /// By its data plate.
    Plate(LoadPlate),
    /// Nobody knows: it counts as an interval, never as nothing.
    NotKnown,
}

/// A load: what uses power at a point.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Load {
    /// Its id.
    pub id: LoadId,
    /// Where it is.
    pub point: PointId,
    /// `microwave`.
    pub name: String,
    /// The appliance of the library that it is like.
    pub appliance: Option<String>,
    /// How many alike.
    pub count: u16,
    /// How it is known what it takes.
    pub draw: Draw,
    /// Whether it runs for three hours or more; where nobody said, as the library has it.
    pub continuous: Option<bool>,
    /// Whether it is fastened in place; where nobody said, as its point is an appliance or a receptacle.
    pub fastened: Option<bool>,
    /// How often and when; where nobody said, as the library has it.
    pub usage: Option<Usage>,
    /// It runs whenever that one runs.
    pub with: Option<LoadId>,
    /// It never runs at one time with these.
    pub never_with: Vec<LoadId>,
    /// Which word on loads it was, counted from 0, when it became what it is: an earlier reading was of something else.
    #[serde(skip)]
    pub(crate) described: u32,
}

impl Load {
    /// The appliance of the library that it is like.
    pub fn like(&self) -> Option<&'static Appliance> {
        self.appliance.as_deref().and_then(Appliance::named)
    }
}

/// With what a reading was taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ReadWith {
    /// A clamp round one hot in the open panel: for qualified hands.
    Clamp,
    /// A clamp on a line splitter at an outlet.
    LineSplitter,
    /// A power meter that plugs in.
    PlugInMeter,
    /// The utility's meter, before and after.
    UtilityMeter,
}

impl ReadWith {
    /// How far its reading may be off, as a share of it (common practice: instruments of a household).
    pub const fn share_off(self) -> f64 {
        match self {
            Self::Clamp | Self::LineSplitter => 0.03,
            Self::PlugInMeter => 0.02,
            Self::UtilityMeter => 0.01,
        }
    }

    /// In words, lower case.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Clamp => "clamp",
            Self::LineSplitter => "line splitter",
            Self::PlugInMeter => "plug-in meter",
            Self::UtilityMeter => "utility meter",
        }
    }
}

/// What a reading is of.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "of", rename_all = "snake_case")]
pub enum ReadingOf {
    /// One load, with nothing else that is switched meanwhile.
    Load {
        /// The load.
        load: LoadId,
    },
    /// One hot of a circuit.
    Circuit {
        /// The breaker.
        breaker: BreakerId,
        /// Which of its poles, from 1.
        #[serde(default = "first_pole")]
        pole: u8,
    },
}

const fn first_pole() -> u8 {
    1
}

/// Turns of the disk, or flashes, in so many seconds.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Turns {
    /// How many.
    pub count: f64,
    /// In how many seconds.
    pub seconds: f64,
}

impl Turns {
    fn watts(self, wh_each: f64) -> f64 {
        3600.0 * wh_each * self.count / self.seconds
    }
}

/// What was read.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "unit", rename_all = "snake_case")]
pub enum ReadValue {
    /// Amperes.
    Amps {
        /// So many.
        amps: f64,
    },
    /// Watts.
    Watts {
        /// So many.
        watts: f64,
    },
    /// What the utility's meter showed before and after it was switched on.
    MeterKw {
        /// Kilowatts before.
        before: f64,
        /// Kilowatts after.
        after: f64,
    },
    /// Turns or flashes of the utility's meter before and after.
    MeterTurns {
        /// Watt-hours of one turn or flash, from the meter's face.
        wh_each: f64,
        /// Before.
        before: Turns,
        /// After.
        after: Turns,
    },
}

impl ReadValue {
    /// Amperes, or watts; exactly one of the two.
    pub fn amps_or_watts(self) -> (Option<f64>, Option<f64>) {
        match self {
            Self::Amps { amps } => (Some(amps), None),
            Self::Watts { watts } => (None, Some(watts)),
            Self::MeterKw { before, after } => (None, Some((after - before) * 1000.0)),
            Self::MeterTurns { wh_each, before, after } => (None, Some(after.watts(wh_each) - before.watts(wh_each))),
        }
    }

    /// How far the watts may be off by what the display and the count can show, in watts: two looks at a display of hundredths of a
    /// kilowatt, or one turn more or less each time (arithmetic).
    pub fn watts_off(self) -> f64 {
        match self {
            Self::Amps { .. } | Self::Watts { .. } => 0.0,
            Self::MeterKw { .. } => 10.0,
            Self::MeterTurns { wh_each, before, after } => {
                let one = |turns: Turns| Turns { count: 1.0, ..turns }.watts(wh_each);
                one(before) + one(after)
            }
        }
    }

    /// `12.4 A`, `1450 W`.
    pub fn words(self) -> String {
        match self.amps_or_watts() {
            (Some(amps), _) => Amps::new((amps * 100.0).round() / 100.0).to_string(),
            (_, watts) => format!("{} W", watts.unwrap_or(0.0).round()),
        }
    }
}

/// What the readings are for.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "wish", rename_all = "snake_case")]
pub enum SurveyWish {
    /// How every circuit stands.
    Every,
    /// Two circuits that may be joined on one breaker.
    CombineTwo,
    /// Whether this feeder is overloaded.
    Feeder {
        /// Its breaker.
        breaker: BreakerId,
    },
    /// Whether so much may be added to this circuit.
    Add {
        /// Its breaker.
        breaker: BreakerId,
        /// In amperes.
        amps: f64,
    },
}

/// How warm a breaker was in a thermal picture, beside a like one with a like load.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Heat {
    /// Its hottest place, in degrees Celsius.
    pub hottest_c: f64,
    /// A like breaker or wire beside it that carries about as much, in degrees Celsius.
    pub like_c: f64,
    /// What flowed meanwhile, in amperes, where it was read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub amps: Option<f64>,
}

impl Heat {
    /// How much warmer it is than the like one, in degrees Celsius.
    pub fn above(self) -> f64 {
        self.hottest_c - self.like_c
    }
}

/// A figure of the service calculation that somebody may put in place of what the facts say.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ServiceFigure {
    /// The area by outside dimensions, in square feet.
    Area,
    /// 20 A circuits of kitchen, dining room and pantry.
    KitchenCircuits,
    /// 20 A circuits of the laundry.
    LaundryCircuits,
    /// Cooking, the plates in all, in watts.
    Cooking,
    /// Dryers, the plates in all, in watts.
    Dryers,
    /// Fixed appliances, the plates in all, in volt-amperes.
    Fixed,
    /// Heating and cooling, the plates in all, in volt-amperes.
    HeatingCooling,
    /// Vehicle chargers, in volt-amperes.
    Vehicle,
}

impl ServiceFigure {
    /// In words, lower case.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Area => "area",
            Self::KitchenCircuits => "kitchen circuits",
            Self::LaundryCircuits => "laundry circuits",
            Self::Cooking => "cooking",
            Self::Dryers => "dryers",
            Self::Fixed => "fixed appliances",
            Self::HeatingCooling => "heating and cooling",
            Self::Vehicle => "vehicle charger",
        }
    }

    /// Its unit; empty for a count.
    pub const fn unit(self) -> &'static str {
        match self {
            Self::Area => "ft²",
            Self::KitchenCircuits | Self::LaundryCircuits => "",
            Self::Cooking | Self::Dryers => "W",
            Self::Fixed | Self::HeatingCooling | Self::Vehicle => "VA",
        }
    }

    /// The least and the most that it can be.
    pub const fn bounds(self) -> (u32, u32) {
        match self {
            Self::Area => (100, 100_000),
            Self::KitchenCircuits | Self::LaundryCircuits => (0, 20),
            _ => (0, 200_000),
        }
    }
}

/// A figure that stands in place of what the facts say, and why.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct FigureTold {
    /// So much.
    pub value: u32,
    /// Why.
    pub reason: String,
}

/// Volts at a breaker, read at one time with its load on; between its hot and neutral, or between its two hots.
#[derive(Debug, Clone, Copy, Default, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct BreakerVolts {
    /// On the bus side.
    pub bus: Option<f64>,
    /// On its own terminal.
    pub output: Option<f64>,
    /// From the one to the other across the breaker, at the worse of its poles.
    pub across: Option<f64>,
    /// What flowed meanwhile, in amperes.
    pub amps: Option<f64>,
}

/// A reading.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Reading {
    /// The line that says so.
    pub line: EntryId,
    /// What it is of.
    pub of: ReadingOf,
    /// With what.
    pub with: ReadWith,
    /// What was read.
    pub value: ReadValue,
    /// The loads that ran.
    pub running: Vec<LoadId>,
    /// What ran was switched on for the reading.
    pub arranged: bool,
    /// By whom.
    pub by: String,
    /// When.
    pub at: Moment,
    /// Which word on loads it is, counted from 0.
    #[serde(skip)]
    pub(crate) nth: u32,
}
