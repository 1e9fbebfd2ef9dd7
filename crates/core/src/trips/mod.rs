//! Something is dark, flickers, or a breaker tripped: the likeliest cause and the next look, never before safety.
//!
//! On numbers alone: `case` (what is known), `cause`, `look` (what can be looked at), `chances` (what it shows), `order` (how joints follow
//! each other), `stories` and `report` (every cause that puts the point out, weighed by what was said), `belief` (weighed by what was
//! seen), `planner` (the next look, the cause named, the stop), `play` (made-up faults and their marks), `file`.

mod belief;
mod case;
mod cause;
mod chances;
mod checklist;
mod cure;
mod file;
mod hidden;
mod lesson;
mod look;
mod named;
mod of_home;
mod order;
mod overload;
mod planner;
mod play;
mod report;
mod said;
mod stop;
mod stories;
#[cfg(test)]
mod tests;
mod view;
mod why;

pub use belief::Belief;
pub use case::{
    BreakerHas, Extent, Onset, Order, PointMap, Report, State, SwitchKind, Symptom, Takes, TripBreaker, TripCase, TripLoad,
    TripPanel, TripPoint, TripSwitch,
};
pub use cause::{Cause, Family, Key};
pub use cure::{Cure, CureAct};
pub use file::{FaultFileError, FaultGame, PowerBox};
pub(crate) use lesson::{FaultDrawn, OpenNeutral, PRACTICE, told};
pub use lesson::{FaultMarks, FaultShown};
pub use look::{Look, NoLook, Saw, by_volts};
pub use named::{FoundChoice, NamedCause};
pub use planner::{Named, Next, Search};
pub use play::{FaultPlayed, FaultStep, FaultStrategy, FaultSummary, play_fault, summary};
pub use said::{HandleToName, LookMade, NextLook, TroubleAnswer};
pub use stop::{StopPage, ToCall};
pub use view::{
    CauseLine, FedPoint, RoadKind, RoadStop, TripHistory, TripsView, TroubleLine, TroubleView, open_troubles, trips_view,
    trouble_asked, trouble_view,
};
pub(crate) use view::{trouble_ended, trouble_title};
pub use why::{TroubleWhy, WhyLine, trouble_why};
