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
//! - A point is [`Verdict::Proven`] only by two looks that differ by exactly one breaker, and only if a slip is unlikely.

mod checks;
mod code;
mod directory;
mod find;
mod house;
mod ids;
mod logbook;
mod memo;
mod metered;
mod overview;
mod panel;
mod plan;
pub mod sim;
mod trace;
mod units;

pub use checks::{Finding, FindingPlace, Mend, RULES, Rule, Severity, about_wording, findings};
pub use code::{
    Cable, Configuration, Edition, Metal, Terminals, Wire, WireGauge, ampacity, breakers_for, is_standard, largest_breaker,
    largest_service,
};
pub use directory::{Card, CardCell, CardText, CellKind, FitRequest, FittedCard, FittedCell, card, fit_card, wording};
pub use find::{DarkPoint, Found, FoundKind, find};
pub use house::{Outlets, Plate, Point, PointDetails, PointKind, Room};
pub use ids::{BadId, BreakerId, EntryId, HomeId, OpeningId, PanelId, PhotoId, PointId, RoomId, StairsId};
pub use logbook::{
    Aside, BackdropLaid, BackdropRemoved, BreakerKept, BreakerMoved, BreakerPlaced, BreakerRemoved, BreakerSwitched,
    BreakersJoined, DeviceWorked, Draft, Fact, FillerSeen, FindingSetAside, FloorPlaced, GfciProtects, Home, HomeDescribed,
    Instrument, Kept, LabelClaimed, LegRead, Line, LineRestored, LineStruck, Logbook, Look, NeutralShared, OpeningPlaced,
    OpeningRemoved, Outcome, PanelDescribed, PanelRemoved, PanelStands, PhotoTaken, PointPlaced, PointRemoved, PointSeen,
    PointSkipped, PointStands, PracticeHouse, Refusal, RefusalCode, RoomDrawn, RoomPlaced, RoomRemoved, RulesChosen, Seen, Since,
    StairsPlaced, StairsRemoved, SwitchControls, ToneHeard, TraceSet, UnitsChosen, VoltsRead, Worked, describe,
};
pub use overview::{HomeOverview, KnownPoint, OffNow, Progress, overview};
pub use panel::{
    Blade, Bond, Breaker, BreakerDetails, CardLine, CardSize, ColumnRole, Columns, FeedsPanel, Half, Housing, Interior,
    LabelOutcome, Leg, MainAt, Moves, NeutralLead, Numbering, OpenSpace, OtherSource, Panel, PanelDetails, Part, PassedOver,
    Photo, PhotoOf, Place, Post, PostRow, Protection, Service, ServiceDisconnect, SheetRead, Side, Slot, SpaceSpot, State,
    Tandems, Terminal, Tie, legs_of, moves, number_of, place_in_words, places, position, post, posts, preview_card, read_card,
    read_sheet, volts_between, write_card,
};
pub use plan::{
    Backdrop, Bounds, CableRun, Drawn, Misread, Neighbor, NextRoom, Opening, OpeningKind, Outline, Pixel, Plan, PlanBackdrop,
    PlanFloor, PlanNote, PlanOpening, PlanPanel, PlanPoint, PlanRoom, PlanStairs, PlanTag, PlanWall, Proposal, RoomLine,
    RoomSide, RoomWalk, Spot, Stairs, Stretch, Stroke, Symbol, SymbolDrawing, TagKind, Walk, WalkPoint, Walking, Wish, cable_run,
    plan, propose, read_length, read_size, room_walk, take_drawing, turned, walking,
};
pub use trace::search;
pub use trace::search::{Likely, School, SchoolMinutes, Way};
pub use trace::{
    DarkClock, Evidence, EvidenceLine, Handle, HelperSide, HelperStep, HelperView, LastSeen, LineRole, NextStep, PointToSee,
    RoomToWalk, TraceView, Verdict, evidence, helper_may_write, helper_view, last_seen, next_step, school_minutes,
    trace_together, trace_view, verdict, verdicts,
};
pub use units::{Amps, Length, Moment, Units, Volts};
