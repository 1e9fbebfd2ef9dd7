//! What the trade talks about, as plain data: ids and units, panels and their breakers, rooms and points, what is drawn of
//! a house, the rule tables, how somebody traces, and why something is refused.
//!
//! Nothing here knows the logbook. A value can tell what follows from itself alone (the leg of a space, the ampacity of a
//! wire); what follows from a whole home is an answer and has a module of its own.

mod appliance;
mod code;
pub(crate) mod delicate;
mod demand;
mod goes_by;
mod house;
mod ids;
mod job;
mod load;
pub(crate) mod meter;
mod panel;
mod plan;
mod price;
mod recipe;
mod refusal;
mod sizing;
mod tracing;
mod trouble;
mod units;
mod upkeep;

pub use appliance::{Appliance, DayPart, FigureFrom, LoadDoes, Season, Usage, appliances};
pub use code::{
    Cable, Configuration, Derated, Edition, InBox, Insulation, Metal, MotorCircuit, Terminals, Tubing, Wire, WireGauge, ampacity,
    box_fill, breakers_for, circular_mils, derated, equipment_ground, fits_tubing, inches2_of_thhn, inches3_per_wire,
    is_standard, largest_breaker, largest_service, most_in_tubing, motor_amps, motor_circuit, share_of_conduit,
};
pub(crate) use code::{DERATED_BY, InCanada, Outlet, Place, Sections, standard_at_or_above};
pub use demand::Demand;
pub use goes_by::GoesBy;
pub use house::{Outlets, Plate, Point, PointDetails, PointKind, Room};
pub use ids::{
    BadId, BreakerId, EntryId, HomeId, JobId, LoadId, OpeningId, PanelId, PhotoId, PointId, RoomId, SizeId, StairsId, TroubleId,
};
pub(crate) use job::{DEAD_HOLDS_MS, JobNames};
pub use job::{Job, JobAnswer, JobFound, JobMove, NewOutlet, PointWork};
pub use load::{
    BreakerVolts, Draw, FigureTold, Heat, Load, LoadPlate, ReadValue, ReadWith, Reading, ReadingOf, ServiceFigure, SurveyWish,
    Turns,
};
pub(crate) use panel::{ACROSS, downward, fits, housing_of, numbers, state_word};
pub use panel::{
    Bond, Breaker, BreakerDetails, CardSize, Columns, Half, Housing, HungCard, HungLine, Interior, Kept, Leg, MainAt,
    NeutralLead, Numbering, OtherSource, OwnWords, Panel, PanelDetails, Photo, PhotoOf, PostRow, Protection, Service,
    ServiceDisconnect, Side, Slot, State, Tandems, Terminal, Tie, legs_of, number_of, place_in_words, position, volts_between,
};
pub use plan::{Backdrop, Bounds, Drawn, Opening, OpeningKind, Outline, Pixel, Spot, Stairs, Stretch};
pub(crate) use plan::{TOUCHING, along, off_line, spot_on};
pub use price::PriceOf;
pub use recipe::{Lesson, Level, Recipe};
pub use refusal::{Refusal, RefusalCode};
pub use sizing::{ClearSpace, InspectorSaid, SizeAsked, SizeOf, SizedLoad};
pub use tracing::{Change, Method, Seen, Since, TraceSetup, Worked};
pub use trouble::*;
pub use units::{Amps, Length, Moment, Units, Volts};
pub(crate) use units::{listed, so_many};
pub use upkeep::{TestMonths, TestWent, TestedDevice};
