//! What is out there: rooms and the points in them.

use crate::model::{Amps, Configuration, GoesBy, PointId, RoomId, Volts};

/// A room, or any place with points in it.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Room {
    /// Its id.
    pub id: RoomId,
    /// `Kitchen`.
    pub name: String,
    /// The floor it is on, as the owner says it.
    pub floor: Option<String>,
}

/// What kind of point.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PointKind {
    /// An outlet for plugs.
    Receptacle,
    /// A luminaire.
    Light,
    /// A switch.
    Switch,
    /// A fixed appliance.
    Appliance,
    /// A hard-wired smoke or other alarm.
    Alarm,
    /// A ceiling or exhaust fan without a lamp.
    Fan,
    /// A box with splices and no device.
    JunctionBox,
    /// A cable that ends in a capped box.
    CappedCable,
}

impl PointKind {
    /// The trade's word, lower case.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Receptacle => "receptacle",
            Self::Light => "light",
            Self::Switch => "switch",
            Self::Appliance => "appliance",
            Self::Alarm => "alarm",
            Self::Fan => "fan",
            Self::JunctionBox => "junction box",
            Self::CappedCable => "capped cable",
        }
    }
}

/// How many plugs a receptacle box takes.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Outlets {
    /// One.
    Single,
    /// Two, one above the other.
    #[default]
    Duplex,
    /// Four in a double box.
    Quad,
}

/// What can be seen of a point beyond its kind.
#[derive(Debug, Clone, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct PointDetails {
    /// How many plugs a receptacle takes.
    pub outlets: Outlets,
    /// This is the other half of a duplex whose halves may be on two circuits: the point that is the first half.
    pub half_of: Option<PointId>,
    /// The device has a GFCI with its own test and reset buttons.
    pub gfci: bool,
    /// Outdoors or in another wet place.
    pub outdoor: bool,
    /// Marked weather-resistant.
    pub weather_resistant: bool,
    /// Marked tamper-resistant.
    pub tamper_resistant: bool,
    /// What hangs on it may be without power for so many minutes at most: a freezer, an aquarium.
    pub dark_minutes: Option<u16>,
    /// What makes it go on and off by itself, or keeps it alive without its breaker.
    pub goes_by: Option<GoesBy>,
}

/// The data plate of a motor or cooling unit: what it says goes before the table of wires.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Plate {
    /// Minimum circuit ampacity: the wire carries at least this.
    pub minimum_ampacity: Amps,
    /// Maximum fuse or breaker.
    pub maximum_breaker: Amps,
}

/// A point: where a circuit can be seen to be lit or dark.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Point {
    /// Its id.
    pub id: PointId,
    /// The room it is in.
    pub room: RoomId,
    /// What kind.
    pub kind: PointKind,
    /// Where in the room, or which appliance: `south wall, left`, `dishwasher`.
    pub name: String,
    /// 120, or 240 for a point on two legs.
    pub volts: Volts,
    /// The face of a receptacle, where it was read.
    pub configuration: Option<Configuration>,
    /// A single receptacle, the only one on its circuit.
    pub only_one: bool,
    /// The data plate, where it was read.
    pub plate: Option<Plate>,
    /// What else can be seen of it.
    pub details: PointDetails,
}
