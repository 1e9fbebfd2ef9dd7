//! Made-up houses whose wiring a referee knows, and crews that trace them: how the engine is measured.
//!
//! In: a [`House`] (the practice-house file), a crew, a strategy, a seed. Out: a [`Played`] round: how long it took,
//! what was proven, and whether anything that must not happen did. A crew sees only what [`House::case`] tells and what
//! its own looks show. Everything was seen lit with everything on before the clock starts, for every strategy alike.

mod house;
mod play;
mod referee;
mod score;

pub use house::{House, HouseError, HouseLabel, HousePoint};
pub(crate) use play::play_as;
pub use play::{Strategy, play};
pub use referee::Played;
pub use score::{Score, Summary, score};
