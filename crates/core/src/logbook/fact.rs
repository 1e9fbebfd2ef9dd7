//! The kinds of fact. To add one: a struct here, a variant of [`Fact`], an arm in `fold.rs` and in
//! `describe.rs`; the compiler names the places.

use crate::{
    Amps, BreakerDetails, BreakerId, CardSize, Columns, Configuration, Edition, EntryId, Length, Numbering, OpeningId,
    OpeningKind, PanelDetails, PanelId, PhotoId, PhotoOf, Pixel, Plate, PointDetails, PointId, PointKind, Protection, RoomId,
    Service, Slot, Spot, StairsId, State, Tie, Units, Volts, Way, Wire, sim::Recipe,
};

/// What was found out or done.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Fact {
    HomeDescribed(HomeDescribed),
    RulesChosen(RulesChosen),
    PanelDescribed(PanelDescribed),
    PanelRemoved(PanelRemoved),
    LegRead(LegRead),
    FillerSeen(FillerSeen),
    BreakerPlaced(BreakerPlaced),
    BreakerMoved(BreakerMoved),
    BreakersJoined(BreakersJoined),
    NeutralShared(NeutralShared),
    BreakerRemoved(BreakerRemoved),
    BreakerKept(BreakerKept),
    BreakerSwitched(BreakerSwitched),
    LabelClaimed(LabelClaimed),
    RoomPlaced(RoomPlaced),
    RoomRemoved(RoomRemoved),
    UnitsChosen(UnitsChosen),
    FloorPlaced(FloorPlaced),
    RoomDrawn(RoomDrawn),
    OpeningPlaced(OpeningPlaced),
    OpeningRemoved(OpeningRemoved),
    StairsPlaced(StairsPlaced),
    StairsRemoved(StairsRemoved),
    PanelStands(PanelStands),
    BackdropLaid(BackdropLaid),
    BackdropRemoved(BackdropRemoved),
    PointPlaced(PointPlaced),
    PointRemoved(PointRemoved),
    PointStands(PointStands),
    SwitchControls(SwitchControls),
    GfciProtects(GfciProtects),
    PointSeen(PointSeen),
    VoltsRead(VoltsRead),
    PointSkipped(PointSkipped),
    ToneHeard(ToneHeard),
    DeviceWorked(DeviceWorked),
    TraceSet(TraceSet),
    PracticeHouse(PracticeHouse),
    PhotoTaken(PhotoTaken),
    FindingSetAside(FindingSetAside),
    LineStruck(LineStruck),
    LineRestored(LineRestored),
}

impl Fact {
    /// The version of these shapes. A newer one in a file or store is refused, never guessed at.
    pub const VERSION: u16 = 6;

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

fn is_default<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

const fn yes() -> bool {
    true
}

facts! {
    /// The home is called so. A later one replaces an earlier one.
    HomeDescribed {
        /// `Juniper Lane Schoolhouse`.
        name: String,
    }
    /// Findings are worded by this edition of the rules.
    RulesChosen {
        /// Which.
        edition: Edition,
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
        /// What else is known of it.
        #[serde(default, skip_serializing_if = "is_default")]
        details: PanelDetails,
    }
    /// There is no such panel. Its breakers must be gone first.
    PanelRemoved {
        /// Which.
        panel: PanelId,
    }
    /// A voltage was read between the hot terminals of two spaces: 0 V is one leg, 240 (208) V is two.
    LegRead {
        /// In which panel.
        panel: PanelId,
        /// The space whose row is to be known.
        space: u8,
        /// The space it was read against.
        against: u8,
        /// What the meter showed.
        volts: Volts,
    }
    /// An open space, or half of one, was looked at: is there a filler?
    FillerSeen {
        /// In which panel.
        panel: PanelId,
        /// Where.
        #[schema(value_type = String)]
        at: Slot,
        /// Whether a filler closes it.
        filler: bool,
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
        /// What else is known of it.
        #[serde(default, skip_serializing_if = "is_default")]
        details: BreakerDetails,
    }
    /// The breaker sits elsewhere in its panel; all else stays.
    BreakerMoved {
        /// Which.
        breaker: BreakerId,
        /// Its poles from the top.
        at: Vec<Slot>,
    }
    /// Two one-pole breakers are one from now on: tied, or replaced by one of two poles.
    BreakersJoined {
        /// The one that stays and takes both places.
        breaker: BreakerId,
        /// The one that is no longer on its own.
        with: BreakerId,
        /// How they open together.
        #[serde(default)]
        tie: Tie,
    }
    /// These circuits share one neutral; a single breaker of several poles: its poles do.
    NeutralShared {
        /// One to three.
        breakers: Vec<BreakerId>,
        /// `false`: no longer.
        #[serde(default = "yes")]
        shared: bool,
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
    /// Lengths are typed and said so.
    UnitsChosen {
        /// How.
        units: Units,
    }
    /// Where a floor is in the order of floors; rooms name it.
    FloorPlaced {
        /// Its name, as the rooms have it.
        floor: String,
        /// 0 is the ground floor, below it -1, above it 1.
        level: i8,
    }
    /// The room is drawn so; without corners it is no longer drawn.
    RoomDrawn {
        /// Which.
        room: RoomId,
        /// The corners of its inside, in either sense, in millimeters on its floor.
        corners: Vec<Spot>,
    }
    /// There is a door, passage or window in a wall of a drawn room.
    OpeningPlaced {
        /// Which.
        opening: OpeningId,
        /// What it is.
        opening_kind: OpeningKind,
        /// In which room's wall; another room on the wall's other side needs no entry.
        room: RoomId,
        /// Which wall, from 0, in the order of the drawn corners.
        wall: u8,
        /// From the wall's first corner to the opening.
        from: Length,
        /// Its width.
        width: Length,
    }
    /// There is no such opening.
    OpeningRemoved {
        /// Which.
        opening: OpeningId,
    }
    /// Stairs lead from one room to another.
    StairsPlaced {
        /// Which.
        stairs: StairsId,
        /// The lower room.
        lower: RoomId,
        /// Where they begin, from the corner of the box around the lower room.
        lower_at: Spot,
        /// The upper room.
        upper: RoomId,
        /// Where they end, from the corner of the box around the upper room.
        upper_at: Spot,
    }
    /// There are no such stairs.
    StairsRemoved {
        /// Which.
        stairs: StairsId,
    }
    /// The panel hangs here.
    PanelStands {
        /// Which.
        panel: PanelId,
        /// In which room.
        room: RoomId,
        /// From the corner of the box around the room; the nearest wall takes it.
        at: Spot,
    }
    /// A photo or scan lies under the plan of a floor. A later one for the same floor replaces it.
    BackdropLaid {
        /// Which floor.
        floor: String,
        /// The photo, kept beside the logbook.
        photo: PhotoId,
        /// Its width in pixels.
        width_px: u32,
        /// Its height in pixels.
        height_px: u32,
        /// One end of a length that is known.
        a: Pixel,
        /// Its other end.
        b: Pixel,
        /// The length.
        length: Length,
        /// Where its upper left corner lies on the floor.
        at: Spot,
    }
    /// Nothing lies under the plan of the floor.
    BackdropRemoved {
        /// Which floor.
        floor: String,
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
        /// The face of a receptacle, where it was read.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        configuration: Option<Configuration>,
        /// A single receptacle, the only one on its circuit.
        #[serde(default, skip_serializing_if = "is_default")]
        only_one: bool,
        /// The data plate of a motor or cooling unit.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        plate: Option<Plate>,
        /// What else can be seen of it.
        #[serde(default, skip_serializing_if = "is_default")]
        details: PointDetails,
    }
    /// There is no such point.
    PointRemoved {
        /// Which.
        point: PointId,
    }
    /// Where the point is on the plan; without `at` it is no longer placed there.
    PointStands {
        /// Which.
        point: PointId,
        /// From the corner of the box around its room. Where a wall is near, the wall takes it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        at: Option<Spot>,
    }
    /// The switch switches these points, and no others. Two switches of one light: three-way.
    SwitchControls {
        /// Which switch.
        switch: PointId,
        /// What it switches.
        points: Vec<PointId>,
    }
    /// The GFCI device protects these points downstream, and no others.
    GfciProtects {
        /// Which device.
        device: PointId,
        /// What loses power when it trips.
        points: Vec<PointId>,
    }
    /// The point was looked at, with the breakers as they stood.
    PointSeen {
        /// Which.
        point: PointId,
        /// Lit or dark.
        seen: Seen,
        /// The switching that the observer's screen knew of; without it, as the logbook has it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        since: Option<Since>,
    }
    /// A meter was held to the point, with the breakers as they stood. What it shows says whether the point is lit, dark or
    /// neither; see [`crate::metered`].
    VoltsRead {
        /// Which.
        point: PointId,
        /// Volts from hot to neutral; at 240 V from hot to hot. 0 to 1000.
        volts: f64,
        /// The switching that the observer's screen knew of; without it, as the logbook has it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        since: Option<Since>,
    }
    /// The point could not be looked at, with the breakers as they stood.
    PointSkipped {
        /// Which.
        point: PointId,
        /// Why.
        #[serde(default)]
        reason: String,
        /// The switching that the observer's screen knew of; without it, as the logbook has it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        since: Option<Since>,
    }
    /// A tone sender plugged in at the point was heard loudest at this breaker. A clue, no proof.
    ToneHeard {
        /// Where it was plugged in; never at 240 V.
        point: PointId,
        /// Where it was loudest.
        breaker: BreakerId,
    }
    /// A device at a point was worked: something other than a breaker that makes points lit or dark.
    DeviceWorked {
        /// Which.
        device: PointId,
        /// How.
        worked: Worked,
    }
    /// It is traced so from now on, on every screen.
    TraceSet {
        /// How, by whom and with what.
        way: Way,
    }
    /// This home is a made-up house: its wiring is drawn from the recipe and known to nobody who traces it.
    PracticeHouse {
        /// What it is drawn from.
        recipe: Recipe,
    }
    /// A photo was taken; its bytes are kept beside the logbook.
    PhotoTaken {
        /// Which.
        photo: PhotoId,
        /// Of which panel.
        panel: PanelId,
        /// What it shows.
        of: PhotoOf,
    }
    /// A finding was looked at and is set aside; it comes back by itself when what it says changes.
    FindingSetAside {
        /// Its key.
        finding: String,
        /// What it said.
        message: String,
        /// Why it is set aside.
        #[serde(default)]
        reason: String,
        /// `false`: it counts again.
        #[serde(default = "yes")]
        aside: bool,
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

/// How far an observer's screen had followed the switching when something was seen.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Since {
    /// No handle had moved yet.
    Start,
    /// This line was the last that moved a handle.
    Move(EntryId),
}

/// What was done at a device.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Worked {
    /// A GFCI was tripped with its test button.
    Tripped,
    /// A GFCI was reset.
    Reset,
    /// A switch was switched on.
    SwitchedOn,
    /// A new lamp was put in.
    NewLamp,
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
