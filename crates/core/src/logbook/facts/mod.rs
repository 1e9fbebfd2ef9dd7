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

macro_rules! kinds {
    (@act recorded $fact:ident) => { { let _ = $fact; Act::Recorded } };
    (@act $done:ident $fact:ident) => { Done::act($fact) };
    (@look look $tag:literal) => { Some($tag) };
    (@look $done:ident $tag:literal) => { None };
    ($($kind:ident $tag:literal $writer:ident $done:ident)*) => {
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

            const fn writer(&self) -> Writer {
                match self { $(Self::$kind(_) => Writer::$writer),* }
            }
        }

        $(impl From<$kind> for Fact {
            fn from(fact: $kind) -> Self { Self::$kind(fact) }
        })*
    };
}

// Kind, its name in the JSON, who may write it, and what was done: `look` is an act that is filed under a switching.
kinds! {
    HomeDescribed    "home_described"    Owner  recorded
    RulesChosen      "rules_chosen"      Owner  recorded
    PanelDescribed   "panel_described"   Owner  recorded
    PanelRemoved     "panel_removed"     Owner  recorded
    LegRead          "leg_read"          Owner  recorded
    FillerSeen       "filler_seen"       Owner  recorded
    BreakerPlaced    "breaker_placed"    Owner  recorded
    BreakerMoved     "breaker_moved"     Owner  recorded
    BreakersJoined   "breakers_joined"   Owner  recorded
    NeutralShared    "neutral_shared"    Owner  recorded
    BreakerRemoved   "breaker_removed"   Owner  recorded
    BreakerKept      "breaker_kept"      Owner  recorded
    BreakerSwitched  "breaker_switched"  Helper act
    LabelClaimed     "label_claimed"     Owner  recorded
    CircuitWorded    "circuit_worded"    Owner  recorded
    RoomPlaced       "room_placed"       Owner  recorded
    RoomRemoved      "room_removed"      Owner  recorded
    UnitsChosen      "units_chosen"      Owner  recorded
    FloorPlaced      "floor_placed"      Owner  recorded
    RoomDrawn        "room_drawn"        Owner  recorded
    OpeningPlaced    "opening_placed"    Owner  recorded
    OpeningRemoved   "opening_removed"   Owner  recorded
    StairsPlaced     "stairs_placed"     Owner  recorded
    StairsRemoved    "stairs_removed"    Owner  recorded
    PanelStands      "panel_stands"      Owner  recorded
    BackdropLaid     "backdrop_laid"     Owner  recorded
    BackdropRemoved  "backdrop_removed"  Owner  recorded
    PointPlaced      "point_placed"      Owner  recorded
    PointRemoved     "point_removed"     Owner  recorded
    PointStands      "point_stands"      Owner  recorded
    SwitchControls   "switch_controls"   Owner  recorded
    GfciProtects     "gfci_protects"     Owner  recorded
    PointSeen        "point_seen"        Helper look
    VoltsRead        "volts_read"        Helper look
    ChangeWatched    "change_watched"    Helper look
    PointSkipped     "point_skipped"     Helper look
    ToneHeard        "tone_heard"        Helper act
    PowerBlinked     "power_blinked"     Helper recorded
    WrongHandle      "wrong_handle"      Owner  recorded
    DeviceWorked     "device_worked"     Owner  act
    LoadPlaced       "load_placed"       Owner  recorded
    LoadRemoved      "load_removed"      Owner  recorded
    ServiceTold      "service_told"      Owner  recorded
    ServiceFigureTold "service_figure_told" Owner recorded
    HeatSeen         "heat_seen"         Owner  recorded
    SurveySet        "survey_set"        Owner  recorded
    UsageRead        "usage_read"        Owner  recorded
    BreakerVoltsRead "breaker_volts_read" Owner recorded
    ReadingTaken     "reading_taken"     Helper recorded
    PointsRewired    "points_rewired"    Owner  recorded
    JobBegun         "job_begun"         Owner  recorded
    JobAnswered      "job_answered"      Helper recorded
    JobStopped       "job_stopped"       Helper recorded
    JobEnded         "job_ended"         Owner  recorded
    JobLeft          "job_left"          Owner  recorded
    SizeKept         "size_kept"         Owner  recorded
    SizeDropped      "size_dropped"      Owner  recorded
    PricesSet        "prices_set"        Owner  recorded
    TraceSet         "trace_set"         Owner  recorded
    PracticeHouse    "practice_house"    Owner  recorded
    CardHung         "card_hung"         Owner  recorded
    StickersPrinted  "stickers_printed"  Owner  recorded
    DeviceTested     "device_tested"     Owner  recorded
    TestsSet         "tests_set"         Owner  recorded
    AddressGiven     "address_given"     Owner  recorded
    TroubleTold      "trouble_told"      Owner  recorded
    TroubleLooked    "trouble_looked"    Helper recorded
    TroubleEnded     "trouble_ended"     Owner  recorded
    TroubleMended    "trouble_mended"    Owner  recorded
    NumbersKept      "numbers_kept"      Owner  recorded
    PointFed         "point_fed"         Owner  recorded
    PhotoTaken       "photo_taken"       Owner  recorded
    FindingSetAside  "finding_set_aside" Owner  recorded
    LineStruck       "line_struck"       HelperAboutOwnLine  recorded
    LineRestored     "line_restored"     Owner  recorded
}

impl Fact {
    /// The version of these shapes. A newer one in a file or store is refused, never guessed at.
    pub const VERSION: u16 = 20;

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
