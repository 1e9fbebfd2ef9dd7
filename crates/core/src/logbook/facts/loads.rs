//! Facts about loads: what uses power at a point, and what was read of it.

use super::{Kind, facts, is_default};
use crate::logbook::{Draft, Home, Names};
use crate::model::{
    BreakerId, BreakerVolts, Demand, Draw, Heat, Load, LoadId, PhotoId, PointId, ReadValue, ReadWith, ReadingOf, Refusal,
    ServiceFigure, SurveyWish, Usage,
};

const fn one() -> u16 {
    1
}

fn is_one(count: &u16) -> bool {
    *count == 1
}

facts! {
    /// There is a load at a point. A later one for the same load replaces the earlier.
    LoadPlaced {
        /// The load.
        load: LoadId,
        /// Where it is plugged in or connected.
        point: PointId,
        /// `microwave`.
        name: String,
        /// The appliance of the library that it is like.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        appliance: Option<String>,
        /// How many alike, 1 to 50.
        #[serde(default = "one", skip_serializing_if = "is_one")]
        count: u16,
        /// How it is known what it takes.
        #[serde(default, skip_serializing_if = "is_default")]
        draw: Draw,
        /// Whether it runs for three hours or more; `null`: as the library has it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        continuous: Option<bool>,
        /// Whether it is fastened in place; `null`: by the kind of its point.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        fastened: Option<bool>,
        /// How often and when; `null`: as the library has it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        usage: Option<Usage>,
        /// It runs whenever that one runs.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        with: Option<LoadId>,
        /// It never runs at one time with these.
        #[serde(default, skip_serializing_if = "is_default")]
        never_with: Vec<LoadId>,
    }
    /// There is no such load.
    LoadRemoved {
        /// The load.
        load: LoadId,
    }
    /// What the service calculation cannot take from the rest, or what somebody puts in its place. A later one replaces the earlier.
    ServiceTold {
        /// The area by outside dimensions, in square feet, in place of the plan's.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        area_ft2: Option<u32>,
        /// 20 A circuits of kitchen, dining room and pantry, in place of those that are proven.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        kitchen_circuits: Option<u8>,
        /// 20 A circuits of the laundry, in place of those that are proven.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        laundry_circuits: Option<u8>,
        /// The meter base, as its label says, in amperes.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        meter_amps: Option<u16>,
        /// Heating and cooling can run at one time.
        #[serde(default, skip_serializing_if = "is_default")]
        heat_cool_together: bool,
        /// Why the plan's or the panel's figures do not do.
        #[serde(default, skip_serializing_if = "is_default")]
        reason: String,
    }
    /// A figure of the service calculation in place of what the facts say. A later one replaces the earlier.
    ServiceFigureTold {
        /// Which.
        figure: ServiceFigure,
        /// So much; `null`: what the facts say counts again.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        value: Option<u32>,
        /// Why.
        #[serde(default, skip_serializing_if = "is_default")]
        reason: String,
    }
    /// A thermal picture showed how warm a breaker is. A later one replaces the earlier.
    HeatSeen {
        /// The breaker.
        breaker: BreakerId,
        /// How warm.
        heat: Heat,
        /// The loads that ran.
        #[serde(default, skip_serializing_if = "is_default")]
        running: Vec<LoadId>,
        /// The picture; a line of its own says that it was taken.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        photo: Option<PhotoId>,
    }
    /// Readings are taken for a wish, by everybody who is in; a later one replaces the earlier.
    SurveySet {
        /// What they are for; `null`: the survey is over.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        wish: Option<SurveyWish>,
        /// Qualified hands, with the cover off.
        #[serde(default, skip_serializing_if = "is_default")]
        clamp: bool,
    }
    /// The utility's interval data were read. A later reading replaces the earlier.
    UsageRead {
        /// The file's name.
        #[serde(default, skip_serializing_if = "is_default")]
        file: String,
        /// The demand that they show.
        demand: Demand,
    }
    /// Volts were read at a breaker with its load on. A later reading replaces the earlier.
    BreakerVoltsRead {
        /// The breaker.
        breaker: BreakerId,
        /// What was read.
        volts: BreakerVolts,
    }
    /// Something was read of a load or a circuit.
    ReadingTaken {
        /// What it is of.
        target: ReadingOf,
        /// With what.
        with: ReadWith,
        /// What was read.
        value: ReadValue,
        /// The loads that ran.
        #[serde(default, skip_serializing_if = "is_default")]
        running: Vec<LoadId>,
        /// What ran was switched on for the reading: it says what these take, not what the circuit usually carries.
        #[serde(default, skip_serializing_if = "is_default")]
        arranged: bool,
        /// Looked at twice: it is far more than the breaker would carry.
        #[serde(default, skip_serializing_if = "is_default")]
        sure: bool,
    }
}

/// The fact that describes the load as it is known.
impl From<&Load> for LoadPlaced {
    fn from(load: &Load) -> Self {
        Self {
            load: load.id.clone(),
            point: load.point.clone(),
            name: load.name.clone(),
            appliance: load.appliance.clone(),
            count: load.count,
            draw: load.draw,
            continuous: load.continuous,
            fastened: load.fastened,
            usage: load.usage.clone(),
            with: load.with.clone(),
            never_with: load.never_with.clone(),
        }
    }
}

impl Kind for LoadPlaced {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.place_load(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let times = if self.count == 1 { String::new() } else { format!("{} × ", self.count) };
        let takes = match self.draw {
            Draw::Library => "by the library",
            Draw::Plate(_) => "by its plate",
            Draw::NotKnown => "not known what it takes",
        };
        format!("Load at {}: {times}{}, {takes}", names.point(&self.point), self.name)
    }
}

impl Kind for LoadRemoved {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.remove_load(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("Load removed: {}", names.load(&self.load))
    }
}

impl Kind for ServiceTold {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.tell_service(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        let mut said: Vec<String> = Vec::new();
        said.extend(self.area_ft2.map(|area| format!("{area} ft²")));
        said.extend(self.kitchen_circuits.map(|count| format!("kitchen circuits: {count}")));
        said.extend(self.laundry_circuits.map(|count| format!("laundry circuits: {count}")));
        said.extend(self.meter_amps.map(|amps| format!("meter base {amps} A")));
        if self.heat_cool_together {
            said.push("heating and cooling at one time".into());
        }
        if !self.reason.trim().is_empty() {
            said.push(self.reason.trim().to_owned());
        }
        let said = if said.is_empty() { "by the plan and the panel".into() } else { said.join("; ") };
        format!("Service calculation: {said}")
    }
}

impl Kind for ServiceFigureTold {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.tell_service_figure(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        let (figure, unit) = (self.figure.words(), self.figure.unit());
        match self.value {
            Some(value) => format!("Service calculation, {figure}: {}; {}", format!("{value} {unit}").trim(), self.reason.trim()),
            None => format!("Service calculation, {figure}: by the facts"),
        }
    }
}

impl Kind for HeatSeen {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.see_heat(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let Heat { hottest_c, like_c, amps } = self.heat;
        let amps = amps.map_or_else(String::new, |amps| format!(", with {amps} A"));
        format!("{}: {hottest_c} °C in a thermal picture, a like one {like_c} °C{amps}", names.breaker(&self.breaker))
    }
}

impl Kind for SurveySet {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.set_survey(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let how = if self.clamp { ", by clamp" } else { "" };
        match &self.wish {
            None => "Survey: over".into(),
            Some(SurveyWish::Every) => format!("Survey of every circuit{how}"),
            Some(SurveyWish::CombineTwo) => format!("Survey for two circuits that may be joined{how}"),
            Some(SurveyWish::Feeder { breaker }) => format!("Survey of feeder {}{how}", names.breaker(breaker).to_lowercase()),
            Some(SurveyWish::Add { breaker, amps }) => {
                format!("Survey for {amps} A more on {}{how}", names.breaker(breaker).to_lowercase())
            }
        }
    }
}

impl Kind for UsageRead {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.read_usage(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("Usage data of {}: highest {}", crate::model::so_many(self.demand.days(), "day"), self.demand.peak_words())
    }
}

impl Kind for BreakerVoltsRead {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.read_breaker_volts(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let BreakerVolts { bus, output, across, amps } = self.volts;
        let mut said: Vec<String> = Vec::new();
        said.extend(bus.map(|volts| format!("bus {volts} V")));
        said.extend(output.map(|volts| format!("terminal {volts} V")));
        said.extend(across.map(|volts| format!("across it {volts} V")));
        said.extend(amps.map(|amps| format!("at {amps} A")));
        format!("{}: {}", names.breaker(&self.breaker), said.join(", "))
    }
}

impl Kind for ReadingTaken {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.take_reading(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let of = match &self.target {
            ReadingOf::Load { load } => names.load(load),
            ReadingOf::Circuit { breaker, pole: 1 } => names.breaker(breaker),
            ReadingOf::Circuit { breaker, pole } => format!("{}, pole {pole}", names.breaker(breaker)),
        };
        let ran: Vec<String> = self.running.iter().map(|load| names.load(load)).collect();
        let with = if ran.is_empty() { String::new() } else { format!("; running: {}", ran.join(", ")) };
        format!("{of}: {} by {}{with}", self.value.words(), self.with.word())
    }
}
