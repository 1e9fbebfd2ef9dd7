//! The house plan as it is drawn ([`plan`]), the order in which a room's points are passed ([`room_walk`]), and edits
//! proposed as facts for what a person typed or tapped ([`propose`]).

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
mod walls;

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
