//! The kinds of fact. To add one: its struct and its [`Kind`] in the file of its family, and a row in the table below. A kind
//! that somebody does while tracing says what it is by [`Done`], too.
//!
//! The table makes the enum [`Fact`], what is asked of every kind, [`Fact::KINDS`], and the lists that the web needs; the
//! compiler names whatever a row leaves open. How a fact is written as JSON never changes: old logbooks keep opening.

mod breaker;
mod home;
mod house;
mod job;
mod loads;
mod panel;
mod plan;
mod strike;
mod trace;
mod trips;
mod upkeep;
mod work;

pub use breaker::*;
pub use home::*;
pub use house::*;
pub use job::*;
pub use loads::*;
pub use panel::*;
pub use plan::*;
pub use strike::*;
pub use trace::*;
pub use trips::*;
pub use upkeep::*;
pub use work::*;

use super::{Draft, Home, Names};
use crate::model::{BreakerId, EntryId, PointId, Refusal, State};

/// What every kind of fact knows of itself.
pub(crate) trait Kind {
    /// Takes it into the home, or refuses it and changes nothing.
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal>;
    /// Says what it records, in the names of today: `Schoolroom, south wall, left: dark`.
    fn words(&self, names: &Names<'_>) -> String;
}

/// What somebody did in a trace when this was written.
pub(crate) trait Done {
    /// The act.
    fn act(&self) -> Act<'_>;
}

/// What somebody did to write a fact: what it costs in minutes, and where they were.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Act<'a> {
    /// Nothing in the house: the record was completed or put right.
    Recorded,
    /// Moved a handle.
    Switched(&'a BreakerId, State),
    /// Looked at a point, by eye or with an instrument.
    Looked(&'a PointId),
    /// Watched a point while a breaker was switched off and on again.
    Watched(&'a PointId),
    /// Went to a point and could not look at it.
    PassedOver(&'a PointId),
    /// Plugged a tone sender in at a point and swept the panel.
    FollowedTone(&'a PointId),
    /// Worked a device at a point.
    Worked(&'a PointId),
}

/// Who may write a kind of fact.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Writer {
    /// The owner alone.
    Owner,
    /// A helper, too: what they saw and switched.
    Helper,
    /// A helper, too, about a line of their own.
    HelperAboutOwnLine,
}

/// What a line of the logbook is about, as somebody looks for it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Topic {
    /// The home, its rules, photos and prices.
    Home,
    /// Panels and breakers.
    Panel,
    /// Rooms, points and the plan.
    House,
    /// Looks and switching.
    Trace,
    /// Loads, readings and the service.
    Loads,
    /// Jobs and sizes.
    Work,
    /// Cards, stickers and tests.
    Cards,
    /// What was wrong, and what was found.
    Trouble,
    /// Lines struck out and restored.
    Struck,
}

impl Topic {
    /// All, in the order in which they are offered.
    pub const ALL: [Self; 9] =
        [Self::Trace, Self::Panel, Self::House, Self::Loads, Self::Work, Self::Trouble, Self::Cards, Self::Home, Self::Struck];

    /// As on the screen.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Home => "the home, its rules, photos, prices",
            Self::Panel => "panels and breakers",
            Self::House => "rooms, points, the plan",
            Self::Trace => "looks and switching",
            Self::Loads => "loads and readings",
            Self::Work => "jobs and sizes",
            Self::Cards => "cards and tests",
            Self::Trouble => "what was wrong",
            Self::Struck => "lines struck out",
        }
    }
}

macro_rules! kinds {
    (@act recorded $fact:ident) => { { let _ = $fact; Act::Recorded } };
    (@act $done:ident $fact:ident) => { Done::act($fact) };
    (@look look $tag:literal) => { Some($tag) };
    (@look $done:ident $tag:literal) => { None };
    ($($kind:ident $tag:literal $writer:ident $done:ident $topic:ident)*) => {
        /// What was found out or done.
        #[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
        #[serde(tag = "kind", rename_all = "snake_case")]
        #[allow(missing_docs)]
        pub enum Fact { $($kind($kind)),* }

        impl Fact {
            /// Every kind, as the JSON names it.
            pub const KINDS: &'static [&'static str] = &[$($tag),*];

            /// The kind, as the JSON names it.
            pub const fn kind(&self) -> &'static str {
                match self { $(Self::$kind(_) => $tag),* }
            }

            /// The kinds that are filed under a switching, by their field `since`.
            pub fn under_a_switching() -> Vec<&'static str> {
                [$(kinds!(@look $done $tag)),*].into_iter().flatten().collect()
            }

            fn own(&self) -> &dyn Kind {
                match self { $(Self::$kind(fact) => fact),* }
            }

            /// What somebody did to write it.
            pub(crate) fn act(&self) -> Act<'_> {
                match self { $(Self::$kind(fact) => kinds!(@act $done fact)),* }
            }

            /// What it is about.
            pub const fn topic(&self) -> Topic {
                match self { $(Self::$kind(_) => Topic::$topic),* }
            }

            const fn writer(&self) -> Writer {
                match self { $(Self::$kind(_) => Writer::$writer),* }
            }
        }

        $(impl From<$kind> for Fact {
            fn from(fact: $kind) -> Self { Self::$kind(fact) }
        })*
    };
}

// Kind, its name in the JSON, who may write it, what was done (`look` is an act that is filed under a switching), what it is about.
kinds! {
    HomeDescribed    "home_described"     Owner  recorded  Home
    RulesChosen      "rules_chosen"       Owner  recorded  Home
    PanelDescribed   "panel_described"    Owner  recorded  Panel
    PanelRemoved     "panel_removed"      Owner  recorded  Panel
    LegRead          "leg_read"           Owner  recorded  Panel
    FillerSeen       "filler_seen"        Owner  recorded  Panel
    BreakerPlaced    "breaker_placed"     Owner  recorded  Panel
    BreakerMoved     "breaker_moved"      Owner  recorded  Panel
    BreakersJoined   "breakers_joined"    Owner  recorded  Panel
    NeutralShared    "neutral_shared"     Owner  recorded  Panel
    BreakerRemoved   "breaker_removed"    Owner  recorded  Panel
    BreakerKept      "breaker_kept"       Owner  recorded  Panel
    BreakerSwitched  "breaker_switched"   Helper act       Trace
    LabelClaimed     "label_claimed"      Owner  recorded  Panel
    CircuitWorded    "circuit_worded"     Owner  recorded  Cards
    RoomPlaced       "room_placed"        Owner  recorded  House
    RoomRemoved      "room_removed"       Owner  recorded  House
    UnitsChosen      "units_chosen"       Owner  recorded  Home
    FloorPlaced      "floor_placed"       Owner  recorded  House
    RoomDrawn        "room_drawn"         Owner  recorded  House
    OpeningPlaced    "opening_placed"     Owner  recorded  House
    OpeningRemoved   "opening_removed"    Owner  recorded  House
    StairsPlaced     "stairs_placed"      Owner  recorded  House
    StairsRemoved    "stairs_removed"     Owner  recorded  House
    PanelStands      "panel_stands"       Owner  recorded  Panel
    BackdropLaid     "backdrop_laid"      Owner  recorded  House
    BackdropRemoved  "backdrop_removed"   Owner  recorded  House
    PointPlaced      "point_placed"       Owner  recorded  House
    PointRemoved     "point_removed"      Owner  recorded  House
    PointStands      "point_stands"       Owner  recorded  House
    SwitchControls   "switch_controls"    Owner  recorded  House
    GfciProtects     "gfci_protects"      Owner  recorded  House
    PointSeen        "point_seen"         Helper look      Trace
    VoltsRead        "volts_read"         Helper look      Trace
    ChangeWatched    "change_watched"     Helper look      Trace
    PointSkipped     "point_skipped"      Helper look      Trace
    ToneHeard        "tone_heard"         Helper act       Trace
    PowerBlinked     "power_blinked"      Helper recorded  Trace
    WrongHandle      "wrong_handle"       Owner  recorded  Trace
    DeviceWorked     "device_worked"      Owner  act       Trace
    LoadPlaced       "load_placed"        Owner  recorded  Loads
    LoadRemoved      "load_removed"       Owner  recorded  Loads
    ServiceTold      "service_told"       Owner  recorded  Loads
    ServiceFigureTold "service_figure_told" Owner  recorded  Loads
    HeatSeen         "heat_seen"          Owner  recorded  Loads
    SurveySet        "survey_set"         Owner  recorded  Loads
    UsageRead        "usage_read"         Owner  recorded  Loads
    BreakerVoltsRead "breaker_volts_read" Owner  recorded  Loads
    ReadingTaken     "reading_taken"      Helper recorded  Loads
    PointsRewired    "points_rewired"     Owner  recorded  Trace
    JobBegun         "job_begun"          Owner  recorded  Work
    JobAnswered      "job_answered"       Helper recorded  Work
    JobStopped       "job_stopped"        Helper recorded  Work
    JobEnded         "job_ended"          Owner  recorded  Work
    JobLeft          "job_left"           Owner  recorded  Work
    SizeKept         "size_kept"          Owner  recorded  Work
    SizeDropped      "size_dropped"       Owner  recorded  Work
    PricesSet        "prices_set"         Owner  recorded  Home
    TraceSet         "trace_set"          Owner  recorded  Trace
    PracticeHouse    "practice_house"     Owner  recorded  Home
    CardHung         "card_hung"          Owner  recorded  Cards
    StickersPrinted  "stickers_printed"   Owner  recorded  Cards
    DeviceTested     "device_tested"      Owner  recorded  Cards
    TestsSet         "tests_set"          Owner  recorded  Cards
    AddressGiven     "address_given"      Owner  recorded  Home
    TroubleTold      "trouble_told"       Owner  recorded  Trouble
    TroubleLooked    "trouble_looked"     Helper recorded  Trouble
    TroubleEnded     "trouble_ended"      Owner  recorded  Trouble
    TroubleMended    "trouble_mended"     Owner  recorded  Trouble
    NumbersKept      "numbers_kept"       Owner  recorded  Home
    PointFed         "point_fed"          Owner  recorded  House
    PhotoTaken       "photo_taken"        Owner  recorded  Home
    FindingSetAside  "finding_set_aside"  Owner  recorded  Home
    LineStruck       "line_struck"        HelperAboutOwnLine recorded  Struck
    LineRestored     "line_restored"      Owner  recorded  Struck
}

impl Fact {
    /// The version of these shapes. A newer one in a file or store is refused, never guessed at.
    pub const VERSION: u16 = 21;

    /// Whether a line with this fact may be struck out. Striking out and restoring are themselves final; so is nothing else.
    pub const fn is_strikable(&self) -> bool {
        self.strikes().is_none()
    }

    /// The line that it strikes out (`true`) or restores.
    pub(crate) const fn strikes(&self) -> Option<(&EntryId, bool)> {
        match self {
            Self::LineStruck(f) => Some((&f.line, true)),
            Self::LineRestored(f) => Some((&f.line, false)),
            _ => None,
        }
    }

    /// Whether a helper may write it: what they saw and switched, and their own lines struck out. `own_line`: whether a line
    /// is the helper's own.
    pub fn may_be_written_by_a_helper(&self, own_line: impl Fn(&EntryId) -> bool) -> bool {
        match self.writer() {
            Writer::Owner => false,
            Writer::Helper => true,
            Writer::HelperAboutOwnLine => self.strikes().is_some_and(|(line, _)| own_line(line)),
        }
    }

    pub(super) fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        self.own().fold(home, entry)
    }

    pub(super) fn words(&self, names: &Names<'_>) -> String {
        self.own().words(names)
    }
}

/// Declares facts: structs that are written as JSON and refuse fields they do not know.
macro_rules! facts {
    ($($(#[$doc:meta])* $name:ident { $($(#[$field_doc:meta])* $field:ident : $type:ty),* $(,)? })*) => {$(
        $(#[$doc])*
        #[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
        #[serde(deny_unknown_fields)]
        pub struct $name { $($(#[$field_doc])* pub $field: $type),* }
    )*};
}
use facts;

fn is_default<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

const fn yes() -> bool {
    true
}
