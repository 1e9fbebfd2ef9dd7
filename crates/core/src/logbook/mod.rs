//! The logbook: facts in order, never changed, only struck out; and the home they fold to.
//!
//! In: [`Draft`]s, written by people and instruments. Out: [`Line`]s with a sequence, and the
//! [`Home`] they add up to. Always holds: a batch applies whole or not at all; folding the same
//! lines gives the same home; a line that was struck out and restored leaves no trace in the home.

mod book;
mod entry;
mod facts;
mod home;
mod names;
#[cfg(test)]
mod tests;

pub use book::{Logbook, Outcome};
pub use entry::{Draft, Instrument, Line};
pub(crate) use facts::Act;
pub use facts::*;
pub use home::{
    Aside, Doubt, Home, House, JobStep, Jobs, KeptSize, KnownJob, KnownTrouble, Loads, Look, Panels, Planning, PriceList,
    SeenAtTrouble, SeenHeat, StoppedJob, Switching, Switchings, Trace, Troubles, Upkeep,
};
pub(crate) use home::{Metered, Trip, Watched, saw_in_words};
pub use names::InWords;
pub(crate) use names::Names;
