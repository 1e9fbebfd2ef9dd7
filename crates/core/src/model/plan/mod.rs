//! What is drawn of a house. Lengths are whole millimeters, x to the right, y down the sheet; up is called north. Rooms are
//! drawn by their inside measures; walls have no thickness.

mod drawn;
mod geometry;

pub use drawn::{Backdrop, Drawn, Opening, OpeningKind, Pixel, Stairs, Stretch};
pub use geometry::{Bounds, Outline, Spot};
pub(crate) use geometry::{TOUCHING, along, off_line, spot_on};
