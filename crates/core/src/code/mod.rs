//! Rule tables of the trade, as data with their source. Local codes and licensed practice come first.

mod wire;

pub use wire::{Metal, Terminals, Wire, WireGauge, largest_breaker};
