//! What is drawn of a home, as the logbook has it. Places within a room are kept from the corner of the box around
//! it, so a room that is moved takes them along.

use std::collections::BTreeMap;

use indexmap::IndexMap;

use super::{Outline, Spot, spot_on};
use crate::model::{Length, OpeningId, PanelId, PhotoId, PointId, RoomId, StairsId, Units};

/// What is in a wall.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OpeningKind {
    /// A door.
    Door,
    /// A way through without a door.
    Passage,
    /// A window.
    Window,
}

impl OpeningKind {
    /// In words, lower case.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Door => "door",
            Self::Passage => "passage",
            Self::Window => "window",
        }
    }
    /// Whether one can walk through.
    pub(crate) const fn is_way(self) -> bool {
        matches!(self, Self::Door | Self::Passage)
    }
}

/// A place in a picture, from its upper left corner.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pixel {
    /// To the right.
    pub x: f64,
    /// Down.
    pub y: f64,
}

/// A door, passage or window.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Opening {
    /// Its id.
    pub id: OpeningId,
    /// What it is.
    pub kind: OpeningKind,
    /// The room whose wall it was entered in.
    pub room: RoomId,
    /// Which wall.
    pub wall: usize,
    /// From the wall's first corner.
    pub from: Length,
    /// Its width.
    pub width: Length,
}

/// A straight stretch.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Stretch {
    /// One end.
    pub from: Spot,
    /// The other.
    pub to: Spot,
}

impl Opening {
    /// Where it is in the room's outline; `None` where its wall has become too short or is gone.
    pub(crate) fn stretch(&self, outline: &Outline) -> Option<Stretch> {
        if self.wall >= outline.corners().len() {
            return None;
        }
        let (a, b) = outline.wall(self.wall);
        let from = f64::from(self.from.millimeters());
        let to = from + f64::from(self.width.millimeters());
        (to <= a.to(b) + 10.0).then(|| Stretch { from: spot_on(a, b, from), to: spot_on(a, b, to) })
    }
}

/// Stairs between two rooms.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Stairs {
    /// Their id.
    pub id: StairsId,
    /// The lower room, and where in it.
    pub lower: (RoomId, Spot),
    /// The upper room, and where in it.
    pub upper: (RoomId, Spot),
}

/// A picture under a floor's plan.
#[derive(Debug, Clone, PartialEq)]
pub struct Backdrop {
    /// The photo.
    pub photo: PhotoId,
    /// Its size in pixels.
    pub size_px: (u32, u32),
    /// Millimeters in a pixel, from the one known length.
    pub mm_per_px: f64,
    /// Where its upper left corner lies.
    pub at: Spot,
}

/// Everything that is drawn.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Drawn {
    /// How lengths are typed and said.
    pub units: Units,
    /// The order of floors, where it was said.
    pub levels: BTreeMap<String, i8>,
    /// Rooms with their inside.
    pub outlines: BTreeMap<RoomId, Outline>,
    /// Doors, passages, windows.
    pub openings: IndexMap<OpeningId, Opening>,
    /// Stairs.
    pub stairs: IndexMap<StairsId, Stairs>,
    /// Where panels hang.
    pub panels: BTreeMap<PanelId, (RoomId, Spot)>,
    /// Where points are, within their rooms.
    pub points: BTreeMap<PointId, Spot>,
    /// What each switch switches.
    pub controls: BTreeMap<PointId, Vec<PointId>>,
    /// What each GFCI device protects downstream.
    pub protects: BTreeMap<PointId, Vec<PointId>>,
    /// A picture under each floor.
    pub backdrops: BTreeMap<String, Backdrop>,
}

impl Drawn {
    /// The corner of the box around a drawn room.
    pub(crate) fn corner(&self, room: &RoomId) -> Option<Spot> {
        self.outlines.get(room).map(|outline| outline.bounds().corner())
    }
    /// The switches that switch a point.
    pub fn switches_of<'a>(&'a self, point: &'a PointId) -> impl Iterator<Item = &'a PointId> {
        self.controls.iter().filter(move |(_, points)| points.contains(point)).map(|(switch, _)| switch)
    }
    /// The GFCI devices upstream of a point.
    pub fn gfcis_of<'a>(&'a self, point: &'a PointId) -> impl Iterator<Item = &'a PointId> {
        self.protects.iter().filter(move |(_, points)| points.contains(point)).map(|(device, _)| device)
    }
}
