//! Made-up houses whose wiring a referee knows, and crews that trace them: how the engine is measured.
//!
//! In: a [`House`] (the practice-house file), a crew, a strategy, a seed. Out: a [`Played`] round: how long it took,
//! what was proven, and whether anything that must not happen did. A crew sees only what [`House::case`] tells and what
//! its own looks show. [`draw`] makes houses from a recipe, which are traced in the real logbook: [`reading`] is what an
//! instrument shows there, [`marks`] how good the trace is. In the score everything was seen lit with everything on before the clock starts, for every strategy alike.

mod draw;
mod instruments;
mod measure;
mod mishaps;
mod practice;
mod rooms;
mod score;

pub use draw::{MadeHouse, draw};
pub use instruments::{Reading, ToneAt};
pub use measure::{HiddenLoad, HiddenLoads, MeasureHouse, SurveyPlayed, survey_through};
pub use practice::{HeldAt, MarkedPoint, Marks, Traced, game, marks, reading, trace_through};
pub use score::{Score, Summary, score};
