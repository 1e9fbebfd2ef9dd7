//! The kinds of fact. To add one: a struct here, a variant of [`Fact`], an arm in `fold.rs` and in
//! `describe.rs`; the compiler names the places.

use crate::{
    Amps, BreakerId, CardSize, Columns, EntryId, Numbering, PanelId, PointId, PointKind, Protection, RoomId, Service, Slot,
    State, Volts, Wire,
};

/// What was found out or done.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Fact {
    HomeDescribed(HomeDescribed),
    PanelDescribed(PanelDescribed),
    BreakerPlaced(BreakerPlaced),
    BreakerRemoved(BreakerRemoved),
    BreakerKept(BreakerKept),
    BreakerSwitched(BreakerSwitched),
    LabelClaimed(LabelClaimed),
    RoomPlaced(RoomPlaced),
    RoomRemoved(RoomRemoved),
    PointPlaced(PointPlaced),
    PointRemoved(PointRemoved),
    PointSeen(PointSeen),
    PointSkipped(PointSkipped),
    LineStruck(LineStruck),
    LineRestored(LineRestored),
}

impl Fact {
    /// The version of these shapes. A newer one in a file or store is refused, never guessed at.
    pub const VERSION: u16 = 1;

    /// Whether a line with this fact may be struck out. Striking out and restoring are themselves final;
    /// so is nothing else.
    pub const fn is_strikable(&self) -> bool {
        !matches!(self, Self::LineStruck(_) | Self::LineRestored(_))
    }
}

macro_rules! facts {
    ($($(#[$doc:meta])* $name:ident { $($(#[$field_doc:meta])* $field:ident : $type:ty),* $(,)? })*) => {$(
        $(#[$doc])*
        #[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
        #[serde(deny_unknown_fields)]
        pub struct $name { $($(#[$field_doc])* pub $field: $type),* }
    )*};
}

facts! {
    /// The home is called so. A later one replaces an earlier one.
    HomeDescribed {
        /// `Juniper Lane Schoolhouse`.
        name: String,
    }
    /// The panel is built so. A later one replaces an earlier one.
    PanelDescribed {
        /// Which panel.
        panel: PanelId,
        /// `Main panel`.
        name: String,
        /// `back hall`; may be empty.
        place: String,
        /// 2 to 84.
        spaces: u8,
        /// One or two columns.
        columns: Columns,
        /// As on the metal.
        numbering: Numbering,
        /// What comes in.
        service: Service,
        /// Rating of the main breaker, if there is one and it was read.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        main: Option<Amps>,
        /// The door card.
        card: CardSize,
    }
    /// A breaker sits here. A later one for the same breaker replaces the earlier (moved, corrected).
    BreakerPlaced {
        /// Which breaker.
        breaker: BreakerId,
        /// In which panel.
        panel: PanelId,
        /// Its poles from the top.
        at: Vec<Slot>,
        /// Its rating, 1 to 400 A.
        amps: Amps,
        /// Its kind.
        #[serde(default)]
        protection: Protection,
        /// The wire on it, if it was read.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        wire: Option<Wire>,
    }
    /// The breaker is no longer in the panel.
    BreakerRemoved {
        /// Which.
        breaker: BreakerId,
    }
    /// The breaker must stay on, or is left off; without `kept`, neither any more.
    BreakerKept {
        /// Which.
        breaker: BreakerId,
        /// How.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        kept: Option<Kept>,
        /// Why.
        #[serde(default)]
        reason: String,
    }
    /// The handle was moved, or moved by itself.
    BreakerSwitched {
        /// Which.
        breaker: BreakerId,
        /// Where it stands now.
        to: State,
    }
    /// The old card says this of the breaker. Empty: it says nothing.
    LabelClaimed {
        /// Which.
        breaker: BreakerId,
        /// As it reads.
        text: String,
    }
    /// There is a room, called so.
    RoomPlaced {
        /// Which.
        room: RoomId,
        /// `Kitchen`.
        name: String,
        /// `ground floor`.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        floor: Option<String>,
    }
    /// There is no such room. Its points must be gone first.
    RoomRemoved {
        /// Which.
        room: RoomId,
    }
    /// There is a point. A later one for the same point replaces the earlier.
    PointPlaced {
        /// Which.
        point: PointId,
        /// In which room.
        room: RoomId,
        /// What it is.
        point_kind: PointKind,
        /// Where in the room, or which appliance.
        name: String,
        /// 120 or 240.
        volts: Volts,
    }
    /// There is no such point.
    PointRemoved {
        /// Which.
        point: PointId,
    }
    /// The point was looked at, with the breakers as they stood.
    PointSeen {
        /// Which.
        point: PointId,
        /// Lit or dark.
        seen: Seen,
    }
    /// The point could not be looked at, with the breakers as they stood.
    PointSkipped {
        /// Which.
        point: PointId,
        /// Why.
        #[serde(default)]
        reason: String,
    }
    /// An earlier line does not count.
    LineStruck {
        /// Which line.
        line: EntryId,
    }
    /// A struck line counts again.
    LineRestored {
        /// Which line.
        line: EntryId,
    }
}

/// What a look showed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Seen {
    /// It has power.
    Lit,
    /// It has none.
    Dark,
}

/// How a breaker is kept.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Kept {
    /// Never to be switched off: a pump, a medical device, a running server.
    On,
    /// Left off: a spare, a fault that waits for an electrician.
    Off,
}
