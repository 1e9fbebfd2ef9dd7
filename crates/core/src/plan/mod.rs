//! The house plan: rooms to scale, what is in their walls, where points stand, and the ways between them.
//!
//! In: the folded home, with what is [`Drawn`]. Out: the plan as it is drawn ([`plan`]), the walking times
//! ([`walking`]), the order in which a room's points are passed ([`room_walk`]), and edits proposed as facts for what
//! a person typed or tapped ([`propose`]). Lengths are whole millimeters, x to the right, y down the sheet; up is
//! called north. Rooms are drawn by their inside measures; walls have no thickness.

mod drawn;
pub(crate) mod floors;
mod geometry;
mod measure;
mod propose;
mod propose_room;
mod room_walk;
mod shown;
mod symbols;
mod tags;
mod take_drawing;
#[cfg(test)]
mod tests;
mod view;
mod walking;
mod walls;

pub use drawn::{Backdrop, Drawn, Opening, OpeningKind, Pixel, Stairs};
pub use geometry::{Bounds, Outline, Spot};
pub use measure::{Misread, read_length, read_size};
pub use propose::{Proposal, Wish, propose};
pub use propose_room::{RoomLine, RoomSide};
pub use room_walk::{NextRoom, RoomWalk, WalkPoint, room_walk};
pub use shown::{
    Neighbor, Plan, PlanBackdrop, PlanFloor, PlanNote, PlanOpening, PlanPanel, PlanPoint, PlanRoom, PlanStairs, PlanTag,
    PlanWall, SymbolDrawing, TagKind,
};
pub use symbols::{Stroke, Symbol, turned};
pub use take_drawing::take_drawing;
pub use view::plan;
pub(crate) use view::tag_of;
pub use walking::{CableRun, Walk, Walking, cable_run, walking};
pub use walls::Stretch;
