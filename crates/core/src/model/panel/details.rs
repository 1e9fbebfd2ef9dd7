//! What the label, the metal and a look at the box tell of a panel beyond its spaces. Everything here may
//! be unread; nothing is inferred from the rest.

use crate::model::{Amps, BreakerId, EntryId, Moment, PanelId, PhotoId, Wire};

/// What sits on the bus.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Interior {
    /// Breakers, with one main or none.
    #[default]
    Breakers,
    /// Breakers without a single main: several handles together switch it off.
    SplitBus,
    /// Fuses.
    Fuses,
}

/// Where the breaker sits that switches the whole panel.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MainAt {
    /// Nobody has looked.
    #[default]
    NotRead,
    /// In this panel.
    Inside,
    /// In a cabinet beside it.
    Beside,
    /// Outdoors.
    Outside,
    /// Main-lug: there is none but the feeder breaker, if any.
    Lugs,
}

/// Which device is the service disconnect: asked, never inferred from “main”.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ServiceDisconnect {
    /// It is in this panel.
    Here,
    /// A device ahead of this panel is it.
    Ahead,
}

/// How neutral and ground stand in this panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Bond {
    /// Joined by a screw, a strap or a common bar.
    Joined,
    /// Apart.
    Apart,
}

/// What can feed the panel beside the utility.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OtherSource {
    /// Starts by itself when the main opens.
    StandbyGenerator,
    /// Plugged in by hand, with an interlock or an inlet.
    PortableGenerator,
    /// A battery.
    Battery,
    /// Solar.
    Solar,
    /// A transfer switch.
    TransferSwitch,
    /// A second service.
    SecondService,
}

impl OtherSource {
    /// In words, lower case.
    pub const fn word(self) -> &'static str {
        match self {
            Self::StandbyGenerator => "standby generator",
            Self::PortableGenerator => "portable generator",
            Self::Battery => "battery",
            Self::Solar => "solar",
            Self::TransferSwitch => "transfer switch",
            Self::SecondService => "second service",
        }
    }
}

/// Which spaces take tandem breakers, by the label.
#[derive(Debug, Clone, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Tandems {
    /// The label was not read.
    #[default]
    NotRead,
    /// None does.
    None,
    /// Every one does.
    All,
    /// These do.
    In(Vec<u8>),
}

/// What a photo shows.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PhotoOf {
    /// The panel's label.
    Label,
    /// The inside of the door.
    Door,
    /// The old card.
    Card,
    /// The new card in its place.
    NewCard,
    /// The panel as it hangs.
    Panel,
    /// One breaker and its wire.
    Breaker,
    /// How warm one breaker is.
    Heat,
}

impl PhotoOf {
    /// In words: `label`.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Label => "label",
            Self::Door => "door",
            Self::Card => "old card",
            Self::NewCard => "new card",
            Self::Panel => "panel",
            Self::Breaker => "breaker",
            Self::Heat => "thermal picture",
        }
    }
}

/// A photo of a panel.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Photo {
    /// Its id.
    pub id: PhotoId,
    /// Of which panel.
    pub panel: PanelId,
    /// What it shows.
    pub of: PhotoOf,
    /// The breaker that it shows.
    pub breaker: Option<BreakerId>,
    /// The line that says so, to strike it out.
    pub line: EntryId,
    /// When it was taken.
    pub at: Moment,
}

/// What is known of a panel beyond its spaces.
#[derive(Debug, Clone, Default, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct PanelDetails {
    /// What sits on the bus.
    pub interior: Interior,
    /// The breaker of another panel that feeds this one.
    pub fed_by: Option<BreakerId>,
    /// What stands before the numbers of its circuits elsewhere: `G` for `G3`. Worked out where it is left out.
    pub tag: Option<String>,
    /// Where its main breaker is.
    pub main_at: MainAt,
    /// Rating of the bus, 10 to 1200 A.
    pub bus: Option<Amps>,
    /// Where the service disconnect is.
    pub service_disconnect: Option<ServiceDisconnect>,
    /// How neutral and ground stand.
    pub bond: Option<Bond>,
    /// An old feeder of three wires to another building, which may keep its bond: recorded, not judged.
    pub three_wire_feeder: bool,
    /// Whether the grounds have a bar of their own.
    pub ground_bar: Option<bool>,
    /// What else can feed it; an empty list: nothing else; `null`: nobody has asked.
    pub sources: Option<Vec<OtherSource>>,
    /// The breaker types the label names, as printed.
    pub types: Vec<String>,
    /// The interrupting rating the label asks for, in kA.
    pub interrupting_ka: Option<f64>,
    /// Where tandems go.
    pub tandems: Tandems,
    /// Whether the bus or rail is notched where tandems fit.
    pub notched: Option<bool>,
    /// How many circuits it is listed for.
    pub circuits: Option<u8>,
    /// For how many splices there is room beside the breakers, 0 to 20.
    pub splice_room: Option<u8>,
    /// Whether it has a rail for plug-on neutrals.
    pub plug_on_neutral: Option<bool>,
    /// Terminals of the neutral bar seen with more than one neutral.
    pub neutrals_doubled: Option<u8>,
    /// Its service or feeder conductors.
    pub conductors: Option<Wire>,
    /// Maker, as printed.
    pub make: String,
    /// Series or catalog number, as printed.
    pub series: String,
    /// Year of make.
    pub year: Option<u16>,
}
