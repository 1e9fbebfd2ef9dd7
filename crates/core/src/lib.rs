//! The trade, without an interface: what a panel, a circuit and a point are, what was found out about
//! them, and what follows from it.
//!
//! **In** go facts ([`Fact`]), one line of the [`Logbook`] each, never changed, only struck out.
//! **Out** come answers, worked out afresh by plain functions over the folded [`Home`]: the panel
//! ([`panel_view`]), what is proven about a point ([`verdict`]), the next step of a trace ([`next_step`]),
//! the wording of the door card ([`card`]), what is worth a look ([`findings`]).
//!
//! What it does *not* do: no files, no network, no clock, no randomness (ids and times are passed in),
//! no HTML, no PDF. `clippy.toml` beside this crate enforces the first part.
//!
//! Modules stand below in their order: each may use those above it and none below; a test reads the imports
//! (`tests/direction.rs`). Open `logbook/` first: everything after it reads what it folds. Invariants that must always hold:
//! - `Home` changes only through [`Home::apply`]; a refused entry changes nothing.
//! - The same lines always fold to the same home.
//! - A point is [`Verdict::Proven`] only by two looks that differ by exactly one breaker, and only if everything else that could
//!   explain the lines is unlikely.

mod model;

mod logbook;

mod study;

mod proof;

pub mod search;

mod walking;

mod trace;

mod wording;

mod panel;

mod plan;

mod directory;

mod find;

pub mod loads;

mod checks;

pub mod work;

pub mod trips;

mod book;

mod overview;

mod letter;

mod changes;

mod know_panel;

mod lists;

pub mod sim;

#[cfg(test)]
extern crate self as wayfinder_core;
// The fixture is a crate of its own for everybody else; the tests in here need it with their own types.
#[cfg(test)]
#[path = "../../fixture/src/acts/mod.rs"]
#[allow(unreachable_pub, dead_code)]
mod fixture;

pub use book::{BookCircuit, BookPanel, BookPart, BookPoint, BookRoom, Equipment, HomeBook, home_book};
pub use changes::{ChangeSaid, ChangedSince, Changes, LineFilter, LinesWanted, Wrote, changes};
pub use checks::{Finding, FindingPlace, FindingWish, Mend, RULES, Rule, Severity, findings};
pub use directory::{
    Card, CardCell, CardFaces, CardText, CardTooSmall, CellKind, DIRECTORY_COLUMNS, DeviceTest, Drift, FitRequest, FittedCard,
    FittedCell, FittedText, HangingCard, Printed, Sticker, WordsProposed, WordsRead, WrongLine, card, directory_rows, drifts,
    fit_card, hanging, read_words, stickers, tests_due, to_hang, wrapped,
};
pub use find::{DarkPoint, Found, FoundKind, find};
pub use know_panel::{KnownPanel, PanelQuestion, PowerPlace, know_panels};
pub use letter::{Letter, LetterAbout, LetterLine, LetterMark, LetterPiece, letter};
pub use lists::{Lists, lists};
pub use loads::read_plate;
pub use logbook::*;
pub use model::*;
pub use overview::{
    Checks, HomeNow, HomeOverview, Known, KnownPoint, KnownPoints, checks, home_now, known_points, overview, progress,
};
pub use panel::{
    AlsoFed, BreakerView, CardLine, ColumnRole, FeedsPanel, LabelOutcome, Moves, OpenSpace, PanelView, Part, PassedOver, Place,
    SheetRead, SpaceSpot, moves, panel_view, panel_views, places, preview_card, read_card, read_sheet, write_card,
};
pub use plan::{
    Misread, Neighbor, NextRoom, Plan, PlanBackdrop, PlanFloor, PlanNote, PlanOpening, PlanPanel, PlanPoint, PlanRoom,
    PlanStairs, PlanTag, PlanWall, Proposal, RoomLine, RoomSide, RoomWalk, Stroke, Symbol, SymbolDrawing, TagKind, WalkPoint,
    Wish, plan, propose, read_length, read_size, room_walk, take_drawing, turned,
};
pub use study::Study;
pub use trace::{
    DarkClock, Does, EndsOpen, Evidence, EvidenceLine, Handle, HelperView, LastSeen, Likely, LineRole, Looking, MethodMinutes,
    NextStep, OffNow, PointToSee, Progress, RoomToWalk, Screen, StepAct, StepCard, StepSide, Switch, TraceView, Unsure, Verdict,
    Weight, dark_clocks, ends_open, evidence, helper_view, last_seen, likely, method_minutes, method_minutes_while, next_step,
    off_now, trace_together, trace_view, verdict, verdicts,
};
pub use walking::{CableRun, Walk, Walking, cable_run, cable_run_into, walking};
pub use wording::{about_wording, wording};
