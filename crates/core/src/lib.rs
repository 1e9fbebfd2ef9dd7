//! The trade, without an interface: what a panel, a circuit and a point are, what was found out about
//! them, and what follows from it.
//!
//! **In** go facts ([`Fact`]), one line of the [`Logbook`] each, never changed, only struck out.
//! **Out** come answers, worked out afresh by plain functions over the folded [`Home`]: the fingerpost
//! ([`post`]), what is proven about a point ([`verdict`]), the next step of a trace ([`next_step`]),
//! the wording of the door card ([`card`]), what is worth a look ([`findings`]).
//!
//! What it does *not* do: no files, no network, no clock, no randomness (ids and times are passed in),
//! no HTML, no PDF. `clippy.toml` beside this crate enforces the first part.
//!
//! Open `logbook/` first: everything else reads what it folds. Invariants that must always hold:
//! - `Home` changes only through [`Home::apply`]; a refused entry changes nothing.
//! - The same lines always fold to the same home.
//! - A point is [`Verdict::Proven`] only by two looks that differ by exactly one breaker.

mod checks;
mod code;
mod directory;
mod house;
mod ids;
mod logbook;
mod overview;
mod panel;
mod trace;
mod units;

pub use checks::{Finding, Severity, about_wording, findings};
pub use code::{Metal, Terminals, Wire, WireGauge, largest_breaker};
pub use directory::{Card, CardCell, CardText, CellKind, FitRequest, FittedCard, FittedCell, card, fit_card, wording};
pub use house::{Point, PointKind, Room};
pub use ids::{BadId, BreakerId, EntryId, HomeId, PanelId, PointId, RoomId};
pub use logbook::{
    BreakerKept, BreakerPlaced, BreakerRemoved, BreakerSwitched, Draft, Fact, Home, HomeDescribed, Instrument, Kept,
    LabelClaimed, Line, LineRestored, LineStruck, Logbook, Look, Outcome, PanelDescribed, PointPlaced, PointRemoved, PointSeen,
    PointSkipped, Refusal, RefusalCode, RoomPlaced, RoomRemoved, Seen, describe,
};
pub use overview::{HomeOverview, KnownPoint, OffNow, Progress, overview};
pub use panel::{
    Blade, Breaker, CardLine, CardSize, Columns, Half, LabelOutcome, Leg, Numbering, OpenSpace, Panel, Post, PostRow, Protection,
    Service, Side, Slot, State, legs_of, number_of, place_in_words, position, post, read_card, volts_between,
};
pub use trace::{
    Evidence, EvidenceLine, LineRole, NextStep, PointToSee, RoomToWalk, TraceView, Verdict, evidence, next_step, trace_view,
    verdict, verdicts,
};
pub use units::{Amps, Moment, Volts};
