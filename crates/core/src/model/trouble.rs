//! Something is wrong now: what is told of it, what is looked at, what was found.

use super::{BreakerId, LoadId, PanelId, PointId};

/// Where it was noticed.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TroubleAt {
    /// A point.
    Point(PointId),
    /// A breaker: its handle was found tripped.
    Breaker(BreakerId),
    /// Somewhere in the house: at nothing that is entered.
    Home,
}

/// What somebody sees who reports it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Symptom {
    /// It is dark, or does not run.
    Dark,
    /// It flickers.
    Flicker,
    /// It is dimmer than usual, or weak.
    Dim,
    /// It is brighter than usual.
    Bright,
}

impl Symptom {
    /// Behind the name of a point: `dark`.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Dark => "dark",
            Self::Flicker => "flickers",
            Self::Dim => "dim or weak",
            Self::Bright => "too bright",
        }
    }
}

/// How much of the house is affected, as it seems.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Extent {
    /// One thing.
    One,
    /// Several.
    Some,
    /// About half of the house.
    Half,
    /// All of it.
    All,
}

/// When it happened.
#[derive(
    Debug, Clone, Copy, Default, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize, utoipa::ToSchema,
)]
#[serde(rename_all = "snake_case")]
pub enum Onset {
    /// At once as something was switched on or plugged in.
    AtOnce,
    /// After something had run for minutes.
    Minutes,
    /// Nobody knows.
    #[default]
    Unknown,
}

/// A sign of danger: nothing is looked for any more.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DangerSign {
    /// It smells of burning, or there is smoke.
    Smell,
    /// A plate, a plug or the panel is hot.
    Heat,
    /// It buzzes or crackles.
    Buzz,
    /// Water is at it.
    Water,
    /// Somebody felt a shock.
    Shock,
}

impl DangerSign {
    /// All, in the order in which they are asked for.
    pub const ALL: [Self; 5] = [Self::Smell, Self::Heat, Self::Buzz, Self::Water, Self::Shock];

    /// `It smells of burning, or there is smoke`.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Smell => "It smells of burning, or there is smoke",
            Self::Heat => "A plate, a plug or the panel is hot",
            Self::Buzz => "It buzzes or crackles",
            Self::Water => "Water is at it",
            Self::Shock => "Somebody felt a shock",
        }
    }
}

impl DangerSign {
    /// The same within a sentence.
    pub fn within(self) -> String {
        let words = self.words();
        format!("{}{}", words[..1].to_lowercase(), &words[1..])
    }
}

/// Another point at which something is seen.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AlsoSeen {
    /// The point.
    pub point: PointId,
    /// What is seen.
    pub symptom: Symptom,
}

/// What is wrong, as it is told.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Trouble {
    /// Where it was noticed.
    pub at: TroubleAt,
    /// What is seen there.
    pub symptom: Symptom,
    /// What is seen elsewhere.
    #[serde(default)]
    pub also: Vec<AlsoSeen>,
    /// What works, as far as it was noticed.
    #[serde(default)]
    pub works: Vec<PointId>,
    /// How much is affected; left out: nobody has said.
    #[serde(default)]
    pub extent: Option<Extent>,
    /// When it happened.
    #[serde(default)]
    pub onset: Onset,
    /// The load that was switched on or plugged in last.
    #[serde(default)]
    pub last_on: Option<LoadId>,
    /// Loads that ran.
    #[serde(default)]
    pub running: Vec<LoadId>,
}

/// Something to look at or to do.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "look", rename_all = "snake_case")]
pub enum TroubleLook {
    /// Smell, heat, a buzz, water, a shock; lamps brighter or dimmer than usual.
    Safety,
    /// A point: a plug-in tester at an outlet, the lamp, what an appliance shows.
    Point {
        /// Which.
        point: PointId,
    },
    /// Volts at an outlet of 120 V.
    Volts {
        /// Which.
        point: PointId,
    },
    /// The tester at the outlet behind an appliance.
    Outlet {
        /// The appliance.
        point: PointId,
    },
    /// The handles of a panel.
    Handles {
        /// Which.
        panel: PanelId,
    },
    /// One handle, felt.
    Feel {
        /// Which.
        breaker: BreakerId,
    },
    /// The lamp on a breaker that says why it tripped.
    Indicator {
        /// Which.
        breaker: BreakerId,
    },
    /// A GFCI's RESET pressed, and the dark point looked at again.
    Gfci {
        /// The GFCI.
        point: PointId,
    },
    /// The switch of a point moved.
    Switch {
        /// The switch; left out: the one that switches this point, wherever it is.
        #[serde(default)]
        switch: Option<PointId>,
        /// The point.
        point: PointId,
    },
    /// A timer set, a daylight switch covered, a motion switch walked before.
    Control {
        /// What it switches.
        point: PointId,
    },
    /// A lamp that is known to work put in.
    Lamp {
        /// Where.
        point: PointId,
    },
    /// The appliance plugged into another outlet.
    Elsewhere {
        /// Where it was.
        point: PointId,
    },
    /// The appliance's own cut-out pushed in.
    Cutout {
        /// The appliance's point.
        point: PointId,
    },
    /// A cord and plug looked at.
    Cord {
        /// Whose.
        load: LoadId,
    },
    /// Everything on it unplugged, reset once, and the dark point looked at again.
    Reset {
        /// The breaker.
        breaker: BreakerId,
    },
    /// One load back on, after a reset that held.
    Add {
        /// Which.
        load: LoadId,
    },
    /// Whether the neighbors have light.
    Neighbors,
}

impl TroubleLook {
    /// The words that it may show, as they stand in the logbook.
    pub const fn may_show(&self) -> &'static [&'static str] {
        match self {
            Self::Safety => &["normal", "odd"],
            Self::Point { .. } | Self::Outlet { .. } => {
                &["live", "dark", "open_neutral", "dim", "bright", "flicker", "partial", "half"]
            }
            Self::Volts { .. } => &["0_hg120", "wander"],
            Self::Handles { .. } => &["none", "other"],
            Self::Feel { .. } => &["on", "off", "tripped"],
            Self::Indicator { .. } => &["none", "over", "arc", "ground"],
            Self::Gfci { .. } => &["ok_live", "reset_works", "reset_no_help", "clicks_dead", "wont_latch"],
            Self::Switch { .. } | Self::Control { .. } | Self::Lamp { .. } => &["lit", "stays_dark"],
            Self::Elsewhere { .. } | Self::Cutout { .. } => &["works", "dead"],
            Self::Cord { .. } => &["clean", "marks"],
            Self::Reset { .. } => &["holds_live", "holds_dead", "at_once", "later", "wont_latch"],
            Self::Add { .. } => &["holds", "trips"],
            Self::Neighbors => &["lit", "stays_dark"],
        }
    }
}

/// What a look showed.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TroubleSaw {
    /// One of the words that it may show.
    Word(String),
    /// This handle stands tripped.
    Tripped(BreakerId),
    /// This handle stands off.
    Off(BreakerId),
    /// Volts.
    Volts(f64),
    /// A sign of danger.
    Danger(DangerSign),
    /// It could not be told.
    CannotTell,
}

/// Why a point is out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Cause {
    /// More current than the breaker carries.
    Overload,
    /// A short in something that is plugged in or connected.
    ShortLoad,
    /// A short in the wiring.
    ShortWiring,
    /// Current to ground in a load.
    GroundLoad,
    /// Current to ground in the wiring.
    GroundWiring,
    /// An arc.
    Arc,
    /// The surge as a motor starts.
    Inrush,
    /// The breaker is off, or its handle is not pushed home.
    OffOrNotLatched,
    /// The breaker is on and gives no power.
    BreakerFailed,
    /// A GFCI receptacle has tripped.
    GfciTripped,
    /// A GFCI receptacle gives no power any more.
    GfciDead,
    /// A switch is off.
    SwitchOff,
    /// A timer, a daylight switch or a motion switch is off.
    Control,
    /// The lamp.
    Lamp,
    /// The appliance's own cut-out.
    Cutout,
    /// The appliance or its cord.
    Cord,
    /// The hot wire is open at a joint.
    OpenHot,
    /// The neutral is open at a joint.
    OpenNeutral,
    /// A joint is loose.
    LooseJoint,
    /// One leg of the service is lost.
    LostLeg,
    /// One leg of a feeder is lost.
    FeederLeg,
    /// The neutral of the service is open.
    LostNeutral,
    /// The neutral that two breakers share is open.
    SharedNeutral,
    /// The utility gives no power.
    Outage,
    /// The main is off.
    MainOff,
    /// What feeds the panel is off.
    FeederOff,
    /// The breaker and a GFCI behind it have both tripped.
    Double,
}

impl Cause {
    /// `too much current for the breaker`.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Overload => "more current than the breaker carries",
            Self::ShortLoad => "a short in something that is plugged in or connected",
            Self::ShortWiring => "a short in the wiring",
            Self::GroundLoad => "a ground fault in something that is plugged in or connected",
            Self::GroundWiring => "a ground fault in the wiring",
            Self::Arc => "an arc in a cord, an appliance or the wiring",
            Self::Inrush => "the surge of a motor as it starts",
            Self::OffOrNotLatched => "the breaker is off, or its handle is not pushed home",
            Self::BreakerFailed => "the breaker is on and gives no power",
            Self::GfciTripped => "a GFCI has tripped",
            Self::GfciDead => "a GFCI gives no power any more",
            Self::SwitchOff => "a switch is off",
            Self::Control => "a timer, daylight switch or motion switch is off",
            Self::Lamp => "the lamp is burnt out",
            Self::Cutout => "the appliance's own cut-out is out",
            Self::Cord => "the appliance or its cord is broken",
            Self::OpenHot => "the hot wire is open at a joint",
            Self::OpenNeutral => "the neutral is open at a joint",
            Self::LooseJoint => "a joint is loose",
            Self::LostLeg => "one leg of the service is lost",
            Self::FeederLeg => "one leg of a feeder is lost",
            Self::LostNeutral => "the neutral of the service is open",
            Self::SharedNeutral => "the neutral that two breakers share is open",
            Self::Outage => "the utility gives no power",
            Self::MainOff => "the main is off",
            Self::FeederOff => "what feeds the panel is off",
            Self::Double => "the breaker and a GFCI behind it have both tripped",
        }
    }
}

impl Cause {
    /// It stays until somebody mends it: what was found is not yet over.
    pub const fn needs_mending(self) -> bool {
        matches!(
            self,
            Self::ShortWiring
                | Self::GroundWiring
                | Self::Arc
                | Self::BreakerFailed
                | Self::GfciDead
                | Self::OpenHot
                | Self::OpenNeutral
                | Self::LooseJoint
                | Self::LostLeg
                | Self::FeederLeg
                | Self::LostNeutral
                | Self::SharedNeutral
        )
    }
}

/// What was found.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TroubleFound {
    /// The cause.
    pub cause: Cause,
    /// Its breaker, where that matters.
    #[serde(default)]
    pub breaker: Option<BreakerId>,
    /// The points in whose boxes it is or may be, the likeliest first.
    #[serde(default)]
    pub points: Vec<PointId>,
}

/// From where a point gets its power.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FedFrom {
    /// Straight from the panel: it is the first.
    Panel,
    /// From this point, which comes before it.
    Point(PointId),
}
