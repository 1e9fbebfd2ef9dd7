//! The plan as screens and files get it: floors with rooms, walls, openings, symbols and tags.

use super::symbols::{Stroke, Symbol};
use crate::model::{
    Bounds, BreakerId, OpeningId, OpeningKind, Outline, PanelId, PhotoId, PointId, RoomId, Spot, StairsId, Stretch, Units,
};

/// How sure a tag is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TagKind {
    /// Proven.
    Proven,
    /// Likely, or by exclusion: no proof.
    Likely,
    /// Looks disagree.
    Contradictory,
    /// Dark with everything on.
    Out,
    /// Not known yet.
    Open,
}

/// A circuit's number as it stands beside a point.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PlanTag {
    /// What it says: `11`, `11 or 9?`, `?`.
    pub text: String,
    /// How sure it is.
    pub kind: TagKind,
    /// Its middle.
    pub at: Spot,
    /// Its width; its height is the floor's `tag_height`.
    pub width: i32,
    /// The blade points left: the tag stands left of its symbol.
    pub left: bool,
    /// The breaker, where it is proven.
    pub breaker: Option<BreakerId>,
}

/// A point on the plan.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PlanPoint {
    /// Which.
    pub point: PointId,
    /// Its room.
    pub room: RoomId,
    /// Where its symbol stands: on the wall, or where it hangs.
    pub at: Spot,
    /// By how many degrees the symbol is turned, clockwise.
    pub turn: i32,
    /// The middle of what is drawn.
    pub middle: Spot,
    /// How it is drawn.
    pub symbol: Symbol,
    /// Its number.
    pub tag: PlanTag,
    /// A spoken name: `Kitchen, counter, receptacle, proven on 11`.
    pub spoken: String,
}

/// A wall of a room, for whoever places something in it.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PlanWall {
    /// From corner.
    pub from: Spot,
    /// To corner.
    pub to: Spot,
    /// Its length in words.
    pub length: String,
}

/// A room as it is drawn.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct PlanRoom {
    /// Which.
    pub room: RoomId,
    /// Its name.
    pub name: String,
    /// Its corners.
    pub outline: Outline,
    /// The middle of its name.
    pub label: Spot,
    /// `4.2 × 3.6 m`, over all.
    pub size: String,
    /// In square meters.
    pub area_m2: f64,
    /// Its walls in order.
    pub walls: Vec<PlanWall>,
    /// Rooms on the same floor that share a wall with it, with the door between them if there is one.
    pub neighbors: Vec<Neighbor>,
}

/// A room on the other side of a wall.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Neighbor {
    /// Which.
    pub room: RoomId,
    /// One can walk through.
    pub way: bool,
}

/// A door, passage or window as it is drawn.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PlanOpening {
    /// Which.
    pub opening: OpeningId,
    /// What it is.
    pub kind: OpeningKind,
    /// The room it was entered in.
    pub room: RoomId,
    /// The room on the other side; outdoors if there is none.
    pub to: Option<RoomId>,
    /// Where it lies in the wall.
    pub stretch: Stretch,
    /// The end of a door's open leaf, drawn into its room.
    pub leaf: Option<Spot>,
    /// Its width in words.
    pub width: String,
}

/// Stairs as they are drawn on one floor.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PlanStairs {
    /// Which.
    pub stairs: StairsId,
    /// Their middle here.
    pub at: Spot,
    /// The room they are in here.
    pub room: RoomId,
    /// They lead up from here.
    pub up: bool,
    /// The room they lead to.
    pub to: RoomId,
}

/// A panel as it hangs.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PlanPanel {
    /// Which.
    pub panel: PanelId,
    /// Its name.
    pub name: String,
    /// Where, on its wall.
    pub at: Spot,
    /// By how many degrees it is turned.
    pub turn: i32,
}

/// A picture under a floor.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct PlanBackdrop {
    /// The photo.
    pub photo: PhotoId,
    /// Where it lies and how large it is, by its one known length.
    pub bounds: Bounds,
    /// Millimeters in a pixel.
    pub mm_per_px: f64,
}

/// One floor.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct PlanFloor {
    /// As the rooms have it.
    pub name: String,
    /// 0 is the ground floor.
    pub level: i8,
    /// The box around everything drawn on it; `None` when nothing is.
    pub bounds: Option<Bounds>,
    /// Its rooms.
    pub rooms: Vec<PlanRoom>,
    /// Every stretch of wall once.
    pub walls: Vec<Stretch>,
    /// Doors, passages, windows.
    pub openings: Vec<PlanOpening>,
    /// Stairs that begin or end here.
    pub stairs: Vec<PlanStairs>,
    /// Panels that hang here.
    pub panels: Vec<PlanPanel>,
    /// Points that are placed here.
    pub points: Vec<PlanPoint>,
    /// A picture underneath.
    pub backdrop: Option<PlanBackdrop>,
    /// How much larger than their strokes say symbols are drawn here: a wide house is looked at from further off.
    pub symbol_scale: f64,
    /// The height of a tag.
    pub tag_height: i32,
    /// Its points, placed or not.
    pub points_in_all: usize,
    /// Those without a proven number.
    pub without_number: usize,
}

/// Something about the plan that wants a look.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PlanNote {
    /// As a sentence, with what to do.
    pub words: String,
    /// On which floor.
    pub floor: String,
    /// The rooms it is about.
    pub rooms: Vec<RoomId>,
}

/// How a symbol is drawn.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct SymbolDrawing {
    /// Which.
    pub symbol: Symbol,
    /// As a legend has it.
    pub words: String,
    /// Its strokes.
    pub strokes: Vec<Stroke>,
}

/// The whole plan.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Plan {
    /// How lengths are typed and said.
    pub units: Units,
    /// Its floors, from the lowest up.
    pub floors: Vec<PlanFloor>,
    /// The symbols that are used.
    pub symbols: Vec<SymbolDrawing>,
    /// Rooms without a size.
    pub not_drawn: Vec<RoomId>,
    /// Points that have no place on the plan yet.
    pub not_placed: Vec<PointId>,
    /// Points without a proven circuit, floor by floor and room by room.
    pub without_number: Vec<PointId>,
    /// What wants a look.
    pub notes: Vec<PlanNote>,
}
