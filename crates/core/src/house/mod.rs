//! What is out there: rooms and the points in them.

use crate::{PointId, RoomId, Volts};

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
        }
    }
}

/// A point: where a circuit can be seen to be lit or dark.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
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
}
