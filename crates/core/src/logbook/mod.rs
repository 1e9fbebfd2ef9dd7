//! The logbook: facts in order, never changed, only struck out; and the home they fold to.
//!
//! In: [`Draft`]s, written by people and instruments. Out: [`Line`]s with a sequence, and the
//! [`Home`] they add up to. Always holds: a batch applies whole or not at all; folding the same
//! lines gives the same home; a line that was struck out and restored leaves no trace in the home.

mod book;
mod bounds;
mod describe;
mod entry;
mod fact;
mod fold;
mod fold_house;
mod fold_panel;
mod fold_trace;
mod refusal;
mod seen;
#[cfg(test)]
mod tests;

#[cfg(test)]
pub(crate) use tests::fixture;

pub use book::{Logbook, Outcome};
pub use describe::describe;
pub use entry::{Draft, Instrument, Line};
pub use fact::{
    BackdropLaid, BackdropRemoved, BreakerKept, BreakerMoved, BreakerPlaced, BreakerRemoved, BreakerSwitched, BreakersJoined,
    DeviceWorked, Fact, FillerSeen, FindingSetAside, FloorPlaced, GfciProtects, HomeDescribed, Kept, LabelClaimed, LegRead,
    LineRestored, LineStruck, NeutralShared, OpeningPlaced, OpeningRemoved, PanelDescribed, PanelRemoved, PanelStands,
    PhotoTaken, PointPlaced, PointRemoved, PointSeen, PointSkipped, PointStands, PracticeHouse, RoomDrawn, RoomPlaced,
    RoomRemoved, RulesChosen, Seen, Since, StairsPlaced, StairsRemoved, SwitchControls, ToneHeard, TraceSet, UnitsChosen,
    VoltsRead, Worked,
};
pub use fold::{Aside, Home};
pub use refusal::{Refusal, RefusalCode};
pub use seen::Look;
pub(crate) use seen::{Metered, Trip};
