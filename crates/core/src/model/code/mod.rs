//! Rule tables of the trade, as data with their source. Local codes and licensed practice come first.

mod edition;
mod place;
mod receptacle;
mod wire;

pub use edition::Edition;
pub(crate) use edition::{InCanada, Sections};
pub(crate) use place::Place;
pub use receptacle::{Configuration, breakers_for};
pub use wire::{Cable, Metal, Terminals, Wire, WireGauge, ampacity, is_standard, largest_breaker, largest_service};
