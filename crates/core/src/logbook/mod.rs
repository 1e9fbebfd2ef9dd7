//! The logbook: facts in order, never changed, only struck out; and the home they fold to.
//!
//! In: [`Draft`]s, written by people and instruments. Out: [`Line`]s with a sequence, and the
//! [`Home`] they add up to. Always holds: a batch applies whole or not at all; folding the same
//! lines gives the same home; a line that was struck out and restored leaves no trace in the home.

mod book;
mod describe;
mod entry;
mod fact;
#[cfg(test)]
pub(crate) mod fixture;
mod fold;
mod refusal;
#[cfg(test)]
mod tests;

pub use book::{Logbook, Outcome};
pub use describe::describe;
pub use entry::{Draft, Instrument, Line};
pub use fact::{
    BreakerKept, BreakerPlaced, BreakerRemoved, BreakerSwitched, Fact, HomeDescribed, Kept, LabelClaimed, LineRestored,
    LineStruck, PanelDescribed, PointPlaced, PointRemoved, PointSeen, PointSkipped, RoomPlaced, RoomRemoved, Seen,
};
pub use fold::{Home, Look};
pub use refusal::{Refusal, RefusalCode};
