//! The service calculation of a home: each line taken from facts, today and with a new load side by side.

use std::collections::BTreeMap;

use geo::{Area, BooleanOps, Buffer, MultiPolygon};
use serde::Serialize;

use super::demand_view::has_solar;
use super::draws::{Drawn, drawn};
use super::interval;
use super::panels::{LegLoad, carried_by, legs_of_panels};
use super::service::{
    CanadianArea, Cooking, CookingKind, Cooler, Dryer, Dwelling, Fixed, Heat, HeatKind, HeatPump, Limits, Line, Measured,
    Neutral, ServiceSystem, Solar, Va, Vehicle, existing, measured, optional, standard,
};
use super::solar_bus::solar_on_panel;
use super::{service, service::Sheet};
use crate::logbook::ServiceTold;
use crate::model::{Amps, Breaker, Demand, Draw, Edition, FigureTold, Panel, Place, PointKind, Service, ServiceFigure, so_many};
use crate::study::Study;
use crate::trace::on_breaker;
use crate::walking::{floor_of, level};

/// A way of calculating.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ServiceMethod {
    /// NEC Article 220 Part III.
    Standard,
    /// NEC 220.82.
    Optional,
    /// NEC 220.83.
    Existing,
    /// CEC 8-200.
    Canada,
    /// NEC 220.87, by what the utility's data show.
    Measured,
}

impl ServiceMethod {
    /// Every method.
    pub const ALL: [Self; 5] = [Self::Existing, Self::Measured, Self::Standard, Self::Optional, Self::Canada];

    /// In words: `existing dwelling`.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Standard => "standard",
            Self::Optional => "optional",
            Self::Existing => "existing dwelling",
            Self::Canada => "Canada",
            Self::Measured => "measured demand",
        }
    }

    /// The section, from memory.
    const fn section(self) -> &'static str {
        match self {
            Self::Standard => "Article 220 Part III",
            Self::Optional => "220.82",
            Self::Existing => "220.83",
            Self::Canada => "CEC 8-200",
            Self::Measured => "220.87",
        }
    }
}

/// What kind of load is to be added.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NewLoadKind {
    /// An appliance that is fastened in place.
    Fixed,
    /// A vehicle charger.
    Vehicle,
    /// A range, an oven or a top.
    Cooking,
    /// A dryer.
    Dryer,
    /// Electric heat in rooms.
    Heat,
    /// A cooler.
    Cooler,
}

/// A load to be added.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct NewLoad {
    /// What it is.
    pub kind: NewLoadKind,
    /// In volt-amperes.
    pub va: i64,
    /// 120 or 240.
    pub volts: i64,
}

/// A line of the sheet.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct ServiceLine {
    /// What it is: `Lighting and outlets`.
    pub words: String,
    /// From what: `1460 ft² by the plan`.
    pub from: String,
    /// The section and the rule; empty for a sum.
    pub rule: String,
    /// In volt-amperes, today.
    pub today: f64,
    /// With the new load.
    pub with_new: Option<f64>,
    /// A sum of the lines above it.
    pub is_sum: bool,
    /// The figure that may be put in place of what the facts say.
    pub figure: Option<ServiceFigure>,
    /// The unit of that figure; empty for a count.
    pub unit: &'static str,
    /// What was put in place, and why.
    pub told: Option<FigureTold>,
}

/// What limits the service.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct ServiceLimit {
    /// `main breaker`.
    pub words: &'static str,
    /// In amperes; `null` where nobody has read it.
    pub amps: Option<i64>,
    /// What is left today.
    pub left_today: Option<i64>,
    /// What is left with the new load.
    pub left_with_new: Option<i64>,
    /// It is the least of those that are read.
    pub is_least: bool,
}

/// A method that can be chosen.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct MethodChoice {
    /// The method.
    pub method: ServiceMethod,
    /// Its words.
    pub words: &'static str,
}

/// Solar or a battery beside the main, by the 120 % rule.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct SolarSaid {
    /// In a sentence or two.
    pub words: String,
    /// Whether the bus takes it.
    pub is_allowed: bool,
    /// The section, from memory.
    pub source: &'static str,
}

/// The sheet of a home.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct ServiceView {
    /// What it comes to, as a sentence.
    pub title: String,
    /// The method.
    pub method: ServiceMethod,
    /// Each method with its words.
    pub methods: Vec<MethodChoice>,
    /// `NEC 2020, 220.83, from memory`.
    pub source: String,
    /// Whether the method is for a service like this.
    pub applies: bool,
    /// Why it is not; empty where it is.
    pub not_for: String,
    /// Its lines.
    pub lines: Vec<ServiceLine>,
    /// Leg to leg.
    pub volts: i64,
    /// Today, in whole amperes.
    pub today_amps: i64,
    /// With the new load.
    pub with_new_amps: Option<i64>,
    /// What the neutral carries today, by the standard method, in whole amperes; `null` where the method has no word on it.
    pub neutral_amps: Option<i64>,
    /// What each leg of the service's panel is expected to carry, where loads are proven on circuits.
    pub legs: Vec<LegLoad>,
    /// What limits it.
    pub limits: Vec<ServiceLimit>,
    /// What has to be read before there is a verdict.
    pub unread: Vec<String>,
    /// What comes in beside the main, against the bus; `null` where nothing does.
    pub solar: Option<SolarSaid>,
    /// What the sheet does not show.
    pub remarks: Vec<String>,
    /// What was told for it, to be recorded again with something changed.
    pub told: Option<ServiceTold>,
}

/// A quarter of a meter of outside wall, where only the inside is drawn (our estimate), in millimeters.
const WALL: f64 = 250.0;

/// What is not counted as living area: garages, and what lies under the open sky or a porch roof.
fn is_lived_in(name: &str) -> bool {
    !matches!(Place::of(name, None), Some(Place::Garage | Place::Outdoors | Place::CrawlSpace))
}

/// Areas of the floors in square meters, by level: inside the walls, and with them.
fn areas(home: &Study) -> BTreeMap<i8, (f64, f64)> {
    let mut by_level: BTreeMap<i8, (f64, MultiPolygon<f64>)> = BTreeMap::new();
    for room in home.house().rooms().filter(|room| is_lived_in(&room.name)) {
        let Some(outline) = home.plan().outlines.get(&room.id) else { continue };
        let slot = by_level.entry(level(home, floor_of(room))).or_insert_with(|| (0.0, MultiPolygon::new(Vec::new())));
        slot.0 += outline.area_m2();
        slot.1 = slot.1.union(&outline.polygon().buffer(WALL));
    }
    by_level.into_iter().map(|(level, (inside, outside))| (level, (inside, outside.unsigned_area() / 1e6))).collect()
}

const FT2_PER_M2: f64 = 10.763_910_4;

/// The panel that the service feeds.
fn service_panel(home: &Study) -> Option<&Panel> {
    home.panels().all().find(|panel| panel.details.fed_by.is_none())
}

/// 20 A one-poles with a receptacle proven on them in such a room.
fn circuits_of(home: &Study, words: &[&str]) -> Vec<String> {
    let in_such = |breaker: &&Breaker| {
        on_breaker(home, &breaker.id).proven.iter().filter_map(|point| home.house().point(point)).any(|point| {
            let room = home.house().room_name(&point.room).to_lowercase();
            point.kind == PointKind::Receptacle && words.iter().any(|word| room.contains(word))
        })
    };
    let twenty = home.panels().breakers().filter(|breaker| breaker.poles() == 1 && breaker.amps.value() == 20.0);
    twenty.filter(in_such).map(|breaker| home.panels().number(&breaker.id)).collect()
}

/// A dwelling in the numbers of the sheets, and from what each line comes.
struct FromFacts {
    dwelling: Dwelling,
    from: BTreeMap<&'static str, String>,
    unread: Vec<String>,
    /// Of these, the limits of the service.
    limits_unread: Vec<String>,
    /// Loads that count by the library and not by a plate.
    by_library: usize,
    /// Why this sheet is not for such a service; empty where it is.
    not_for: &'static str,
}

fn from_facts(home: &Study) -> FromFacts {
    let told = home.loads().service();
    let mut from: BTreeMap<&'static str, String> = BTreeMap::new();
    let mut unread: Vec<String> = Vec::new();
    let areas = areas(home);
    let outside: f64 = areas.values().map(|(_, outside)| outside).sum();
    let by_plan = (outside * FT2_PER_M2).round() as i64;
    let reason = told.map(|told| told.reason.trim()).unwrap_or_default();
    let figure = |figure: ServiceFigure, of_old: Option<u32>| -> Option<(i64, &str)> {
        let told = home.loads().figure(figure).map(|told| (told.value, told.reason.as_str()));
        told.or(of_old.map(|value| (value, reason))).map(|(value, reason)| (i64::from(value), reason))
    };
    let area_told = figure(ServiceFigure::Area, told.and_then(|told| told.area_ft2)).map(|(area, _)| area);
    let by_the_plan = format!("{by_plan} ft² by the plan and 0.25 m of wall");
    let area_ft2 = match figure(ServiceFigure::Area, told.and_then(|told| told.area_ft2)) {
        Some((area, reason)) => {
            from.insert("lighting", in_place(&format!("{area} ft²"), reason, &by_the_plan));
            area
        }
        None => {
            from.insert("lighting", by_the_plan);
            if by_plan == 0 {
                unread.push("the area: draw the rooms, or give it".into());
            }
            by_plan
        }
    };
    let circuits = |told: Option<(i64, &str)>, words: &[&str]| {
        let numbers = circuits_of(home, words);
        let said = if numbers.is_empty() { "none proven".into() } else { numbers.join(", ") };
        let by_facts = format!("20 A circuits: {said}");
        match told {
            Some((count, reason)) => (count, in_place(&count.to_string(), reason, &by_facts)),
            None => (i64::try_from(numbers.len()).unwrap_or(0), by_facts),
        }
    };
    let kitchen_told = figure(ServiceFigure::KitchenCircuits, told.and_then(|told| told.kitchen_circuits).map(u32::from));
    let (kitchen, said) = circuits(kitchen_told, &["kitchen", "dining", "pantry"]);
    from.insert("small_appliance", said);
    let laundry_told = figure(ServiceFigure::LaundryCircuits, told.and_then(|told| told.laundry_circuits).map(u32::from));
    let (laundry, said) = circuits(laundry_told, &["laundry", "utility"]);
    from.insert("laundry", said);

    let panel = service_panel(home);
    let not_for = if home.panels().all().filter(|panel| panel.details.fed_by.is_none()).count() > 1 {
        "Two panels are fed by no breaker. Say what feeds each, or have an electrician calculate two services."
    } else {
        match panel.map(|panel| panel.service) {
            None | Some(Service::SplitPhase | Service::TwoLegs208) => "",
            Some(Service::ThreePhase) => "A three-phase service is not calculated here. Have an electrician do it.",
            Some(Service::HighLeg | Service::OneLeg120) => {
                "A service of this kind is not calculated here. Have an electrician do it."
            }
        }
    };
    let wire = panel.and_then(|panel| panel.details.conductors);
    let whole = |amps: f64| amps.floor() as i64;
    let service = Limits {
        main_a: panel.and_then(|panel| panel.main).map(|main| whole(main.value())),
        bus_a: panel.and_then(|panel| panel.details.bus).map(|bus| whole(bus.value())),
        conductor_a: panel.zip(wire).map(|(panel, wire)| whole(carried_by(home, panel, wire))),
        meter_a: told.and_then(|told| told.meter_amps).map(i64::from),
    };
    let mut limits_unread = Vec::new();
    for (limit, what) in [
        (service.main_a, "the main breaker: its handle"),
        (service.bus_a, "the bus: the panel's label"),
        (service.conductor_a, "the service conductors: their print"),
        (service.meter_a, "the meter base: its label"),
    ] {
        if limit.is_none() {
            limits_unread.push(what.to_owned());
        }
    }
    unread.extend(limits_unread.iter().cloned());
    let square_dm = |levels: &dyn Fn(i8) -> bool| {
        areas.iter().filter(|(level, _)| levels(**level)).map(|(_, (inside, _))| (inside * 100.0).round() as i64).sum()
    };
    let mut dwelling = Dwelling {
        id: String::new(),
        edition: match home.edition() {
            Edition::Nec2017 => 2017,
            Edition::Nec2020 => 2020,
            _ => 2023,
        },
        system: match panel.map(|panel| panel.service) {
            Some(Service::TwoLegs208 | Service::ThreePhase) => ServiceSystem::Wye,
            _ => ServiceSystem::SplitPhase,
        },
        service,
        area_ft2,
        small_appliance_circuits: kitchen,
        laundry_circuits: laundry,
        cooking: Vec::new(),
        dryers: Vec::new(),
        fixed: Vec::new(),
        heat: Heat::default(),
        cool: Vec::new(),
        heat_pump: None,
        ev: None,
        heat_cool_together: told.is_some_and(|told| told.heat_cool_together),
        added_hvac: false,
        new_load_va: 0,
        measured: measured_of(home),
        solar: None::<Solar>,
        canada: match area_told {
            // What somebody gives is the area by their code's own rule.
            Some(area) => {
                CanadianArea { ground_dm2: (area as f64 / FT2_PER_M2 * 100.0).round() as i64, upper_dm2: 0, basement_dm2: 0 }
            }
            None => CanadianArea {
                ground_dm2: square_dm(&|level| level == 0),
                upper_dm2: square_dm(&|level| level > 0),
                basement_dm2: square_dm(&|level| level < 0),
            },
        },
    };
    // Of loads that exclude one another at one point, a dishwasher's heating and washing, the largest counts.
    let takes = |id: &crate::model::LoadId| home.loads().load(id).map_or(0.0, |load| drawn(home, load).line.amps);
    let excluded = |load: &crate::model::Load| {
        home.loads().at(&load.point).any(|other| {
            let apart = other.never_with.contains(&load.id) || load.never_with.contains(&other.id);
            apart && takes(&other.id) > takes(&load.id)
        })
    };
    for load in home.loads().all().filter(|load| !excluded(load)) {
        count(&mut dwelling, &mut from, &drawn(home, load));
    }
    for of_plates in OF_PLATES {
        if let Some(told) = home.loads().figure(of_plates) {
            put_in_place(&mut dwelling, &mut from, of_plates, told);
        }
    }
    let on_the_sheet = |point: &&crate::model::Point| point.kind == PointKind::Appliance || point.volts.value() == 240;
    for point in home.house().points().filter(on_the_sheet) {
        let at = || home.loads().at(&point.id);
        let by_plate = |load: &crate::model::Load| match load.draw {
            Draw::Plate(_) => true,
            Draw::NotKnown => false,
            Draw::Library => load.like().is_some_and(|like| like.class != "range"),
        };
        let place = home.house().place(&point.id);
        if at().next().is_none() {
            unread.push(format!("what is at {place}: nothing is entered"));
        }
        let is_told = |load: &crate::model::Load| home.loads().figure(figure_of_load(load)).is_some();
        unread.extend(
            at().filter(|load| !by_plate(load) && !is_told(load))
                .map(|load| format!("the plate of the {} at {place}", load.name)),
        );
    }
    let by_library = home.loads().all().filter(|load| load.draw == Draw::Library && drawn(home, load).line.fastened).count();
    FromFacts { dwelling, from, unread, limits_unread, by_library, not_for }
}

/// The figures that are sums of plates.
const OF_PLATES: [ServiceFigure; 5] =
    [ServiceFigure::Cooking, ServiceFigure::Dryers, ServiceFigure::Fixed, ServiceFigure::HeatingCooling, ServiceFigure::Vehicle];

/// A figure that somebody put in place of the facts', and what these say.
fn in_place(value: &str, reason: &str, by_facts: &str) -> String {
    format!("{value}: {reason}; in place of {by_facts}")
}

/// These figures in the same proportions, with another sum.
fn with_sum(figures: &mut [&mut i64], sum: i64) {
    let before: i64 = figures.iter().map(|figure| **figure).sum();
    let mut left = sum;
    let last = figures.len().saturating_sub(1);
    for (nth, figure) in figures.iter_mut().enumerate() {
        let share = if nth == last { left } else { (**figure * sum + before / 2) / before.max(1) };
        **figure = share;
        left -= share;
    }
}

/// Puts a sum of plates in place of what the loads' plates come to; each of these keeps its share of it, so that how many there are
/// still counts.
fn put_in_place(d: &mut Dwelling, from: &mut BTreeMap<&'static str, String>, figure: ServiceFigure, told: &FigureTold) {
    let value = i64::from(told.value);
    let (key, mut of): (&'static str, Vec<&mut i64>) = match figure {
        ServiceFigure::Cooking => ("cooking", d.cooking.iter_mut().map(|one| &mut one.w).collect()),
        ServiceFigure::Dryers => ("dryer", d.dryers.iter_mut().map(|one| &mut one.w).collect()),
        ServiceFigure::Fixed => ("fixed", d.fixed.iter_mut().map(|one| &mut one.va).collect()),
        ServiceFigure::Vehicle => ("ev", d.ev.iter_mut().map(|one| &mut one.va).collect()),
        _ => {
            let heat = Some(&mut d.heat.w).filter(|watts| **watts > 0);
            let cool = d.cool.iter_mut().map(|one| &mut one.va);
            let pump = d.heat_pump.iter_mut().flat_map(|pump| [&mut pump.va, &mut pump.supplement_w]);
            ("hvac", heat.into_iter().chain(cool).chain(pump).collect())
        }
    };
    let by_facts = from.get(key).cloned().unwrap_or_else(|| "nothing".into());
    if of.iter().any(|figure| **figure > 0) {
        with_sum(&mut of, value);
    } else if value > 0 {
        match figure {
            ServiceFigure::Cooking => d.cooking.push(Cooking { kind: CookingKind::Range, w: value }),
            ServiceFigure::Dryers => d.dryers.push(Dryer { w: value }),
            ServiceFigure::Vehicle => d.ev = Some(Vehicle { va: value, managed_va: None }),
            ServiceFigure::Fixed => d.fixed.push(Fixed {
                name: figure.words().into(),
                va: value,
                volts: 240,
                fastened: true,
                motor: false,
                ca_full: false,
            }),
            _ => d.heat = Heat { kind: HeatKind::Zones, w: value, zones: 1 },
        }
    }
    if value == 0 {
        match figure {
            ServiceFigure::Cooking => d.cooking.clear(),
            ServiceFigure::Dryers => d.dryers.clear(),
            ServiceFigure::Fixed => d.fixed.clear(),
            ServiceFigure::Vehicle => d.ev = None,
            _ => (d.heat, d.heat_pump) = (Heat::default(), None),
        }
        if figure == ServiceFigure::HeatingCooling {
            d.cool.clear();
        }
    }
    from.insert(key, in_place(&format!("{} {}", told.value, figure.unit()), &told.reason, &by_facts));
}

/// The figure in which a load of the sheet counts.
fn figure_of_load(load: &crate::model::Load) -> ServiceFigure {
    match load.like().map_or("", |like| like.class) {
        "range" => ServiceFigure::Cooking,
        "dryer" => ServiceFigure::Dryers,
        "vehicle" => ServiceFigure::Vehicle,
        "heat" | "cooling" => ServiceFigure::HeatingCooling,
        _ => ServiceFigure::Fixed,
    }
}

/// What was put in place of a figure, whichever fact says so.
fn told_of(home: &Study, figure: ServiceFigure) -> Option<FigureTold> {
    let old = home.loads().service().and_then(|told| {
        let value = match figure {
            ServiceFigure::Area => told.area_ft2,
            ServiceFigure::KitchenCircuits => told.kitchen_circuits.map(u32::from),
            ServiceFigure::LaundryCircuits => told.laundry_circuits.map(u32::from),
            _ => None,
        };
        value.map(|value| FigureTold { value, reason: told.reason.clone() })
    });
    home.loads().figure(figure).cloned().or(old)
}

/// The figure of which a line of a sheet is made, where it is made of one.
fn figure_of(key: &str) -> Option<ServiceFigure> {
    Some(match key {
        "lighting" | "basic" => ServiceFigure::Area,
        "small_appliance" => ServiceFigure::KitchenCircuits,
        "laundry" => ServiceFigure::LaundryCircuits,
        "range" | "cooking" => ServiceFigure::Cooking,
        "dryer" => ServiceFigure::Dryers,
        "fixed" => ServiceFigure::Fixed,
        "hvac" | "hvac_in_general" | "zones_in_other" => ServiceFigure::HeatingCooling,
        "ev" => ServiceFigure::Vehicle,
        _ => return None,
    })
}

/// Counts one load in the line where it belongs. What hangs on a cord is in the general lines already.
fn count(d: &mut Dwelling, from: &mut BTreeMap<&'static str, String>, drawn: &Drawn<'_>) {
    let line = &drawn.line;
    let each = drawn.plate_va.round() as i64;
    let volts = i64::from(line.volts);
    let like = drawn.load.like();
    let class = like.map_or("", |like| like.class);
    let id = like.map_or("", |like| like.id);
    let mut said = |key: &'static str| {
        let text = from.entry(key).or_default();
        if !text.is_empty() {
            text.push_str(", ");
        }
        text.push_str(&format!("{} {each}", line.name));
    };
    match class {
        "range" => {
            let kind = match id {
                "oven" | "bread_oven" => CookingKind::Oven,
                "cooktop" | "induction" => CookingKind::Cooktop,
                _ => CookingKind::Range,
            };
            d.cooking.push(Cooking { kind, w: each });
            said("cooking");
        }
        "dryer" => {
            d.dryers.push(Dryer { w: each });
            said("dryer");
        }
        "vehicle" if volts == 240 => {
            let before = d.ev.map_or(0, |ev| ev.va);
            d.ev = Some(Vehicle { va: before + each, managed_va: None });
            said("ev");
        }
        "heat" if id == "hp_strip" => {
            let pump = d.heat_pump.unwrap_or(HeatPump { va: 0, supplement_w: 0, together: true });
            d.heat_pump = Some(HeatPump { supplement_w: pump.supplement_w + each, ..pump });
            said("hvac");
        }
        "heat" => {
            let zones = if id == "furnace_el" { 0 } else { u32::from(line.count) };
            // Room heaters beside central heat count as it does, which is the more.
            let central = id == "furnace_el" || d.heat.kind == HeatKind::Central;
            let kind = if central { HeatKind::Central } else { HeatKind::Zones };
            d.heat = Heat { kind, w: d.heat.w + each, zones: d.heat.zones + zones };
            said("hvac");
        }
        "cooling" if id == "hp_3ton" => {
            let pump = d.heat_pump.unwrap_or(HeatPump { va: 0, supplement_w: 0, together: true });
            d.heat_pump = Some(HeatPump { va: pump.va + each, ..pump });
            said("hvac");
        }
        "cooling" => {
            d.cool.push(Cooler { va: each, volts });
            said("hvac");
        }
        // The general lines are about 120 V outlets: what runs on two hots counts by its plate, with a cord or without.
        _ if (line.fastened || volts == 240) && class != "lighting" => {
            let ca_full = matches!(id, "tankless" | "hot_tub");
            d.fixed.push(Fixed { name: line.name.clone(), va: each, volts, fastened: true, motor: line.motor, ca_full });
            said("fixed");
        }
        _ => {}
    }
}

fn with_new(dwelling: &Dwelling, new: NewLoad) -> Dwelling {
    let mut d = dwelling.clone();
    d.new_load_va = new.va;
    match new.kind {
        NewLoadKind::Fixed => d.fixed.push(Fixed {
            name: "new load".into(),
            va: new.va,
            volts: new.volts,
            fastened: true,
            motor: false,
            ca_full: false,
        }),
        NewLoadKind::Vehicle => {
            let before = d.ev.map_or(0, |ev| ev.va);
            d.ev = Some(Vehicle { va: before + new.va, managed_va: None });
        }
        NewLoadKind::Cooking => d.cooking.push(Cooking { kind: CookingKind::Range, w: new.va }),
        NewLoadKind::Dryer => d.dryers.push(Dryer { w: new.va }),
        NewLoadKind::Heat => {
            d.heat = Heat { kind: HeatKind::Zones, w: d.heat.w + new.va, zones: d.heat.zones + 1 };
            d.added_hvac = true;
        }
        NewLoadKind::Cooler => {
            d.cool.push(Cooler { va: new.va, volts: new.volts });
            d.added_hvac = true;
        }
    }
    d
}

fn sheet_of(d: &Dwelling, method: ServiceMethod) -> (Sheet, bool) {
    match method {
        ServiceMethod::Standard => (standard(d).sheet, true),
        ServiceMethod::Optional => {
            let optional = optional(d);
            (optional.sheet, optional.applies)
        }
        ServiceMethod::Existing => (existing(d), true),
        ServiceMethod::Canada => (service::canada(d).sheet, true),
        ServiceMethod::Measured => (measured_sheet(d), d.measured.is_some()),
    }
}

/// What a household's power factor is taken as, in hundredths, where only energy was measured (our estimate, on the careful side).
const FACTOR_X100: i64 = 90;

/// The demand of the utility's data as the calculation takes it.
fn measured_of(home: &Study) -> Option<Measured> {
    let demand = &home.loads().usage()?.demand;
    Some(Measured::YearPeak {
        // Rounded up: never less than was measured.
        kw_x100: i64::from(demand.peak.div_ceil(10)),
        pf_x100: FACTOR_X100,
        interval_min: u32::from(demand.minutes),
        net_metered: demand.netted || has_solar(home),
    })
}

/// The measured demand as a sheet: what was measured, a quarter more, the new load.
fn measured_sheet(d: &Dwelling) -> Sheet {
    let Some(found) = measured(d) else {
        return Sheet { lines: Vec::new(), total_va: Va::ZERO, amps_exact: 0.0, amps: 0 };
    };
    let va = |amps: f64| Va::new((amps * d.system.volts() as f64).round() as i64);
    let line = |key, amps: f64, note: &'static str| Line { key, va: va(amps), note: note.into() };
    let mut lines = vec![
        line("highest_demand", found.demand_a, "220.87"),
        line("demand_times_1_25", found.times_1_25, "220.87: 125 % of it"),
    ];
    if d.new_load_va > 0 {
        lines.push(line("new_load", found.new_load_a, ""));
    }
    // The figure that is not rounded is compared: a part of an ampere above the limit does not fit.
    Sheet { lines, total_va: va(found.total_a), amps_exact: found.total_a, amps: (found.total_a - 1e-9).ceil() as i64 }
}

/// Why the code does not take this measurement (NEC 220.87, from memory): what is wanted in its place.
fn not_a_measurement(demand: &Demand, solar: bool) -> Vec<String> {
    let mut why = Vec::new();
    if demand.minutes > 15 {
        why.push(format!("readings of 15 minutes: those of {} minutes hide the peaks", demand.minutes));
    }
    if demand.netted || solar {
        why.push("a recording without solar: what was made in the house hides load".into());
    }
    if !demand.is_a_year() {
        why.push(format!("a whole year: there are {} days", demand.days()));
    }
    why
}

/// What a line is, and whether it is a sum of those above it.
fn line_words(key: &str) -> (&'static str, bool) {
    match key {
        "lighting" => ("Lighting and outlets", false),
        "small_appliance" => ("Kitchen circuits", false),
        "laundry" => ("Laundry circuits", false),
        "general_sum" => ("Sum", true),
        "general_net" => ("After the general demand", true),
        "range" => ("Cooking", false),
        "cooking" => ("Cooking", false),
        "dryer" => ("Dryers", false),
        "fixed" => ("Fixed appliances", false),
        "ev" => ("Vehicle charger", false),
        "hvac" => ("Heating or cooling", false),
        "hvac_in_general" => ("Heating or cooling", false),
        "zones_in_other" => ("Room heaters", false),
        "largest_motor_25" => ("A quarter of the largest motor", false),
        "other_sum" => ("Sum", true),
        "other_net" => ("After the demand", true),
        "basic" => ("Basic load", false),
        "full" => ("Tankless heater, pool, spa", false),
        "other" => ("Other loads over 1500 W", false),
        "sum_a" => ("Sum", true),
        "highest_demand" => ("The highest demand of the year", false),
        "demand_times_1_25" => ("A quarter more", true),
        "new_load" => ("The new load", false),
        "least_b" => ("The least for a dwelling of this size", true),
        _ => ("", false),
    }
}

/// Solar or a battery on the panel that the service feeds. Canada has a rule of its own, which is not known here.
fn solar_said(home: &Study) -> Option<SolarSaid> {
    if home.edition().is_canadian() {
        return None;
    }
    let solar = solar_on_panel(home, service_panel(home)?)?;
    let numbers: Vec<String> = solar.sources.iter().map(|breaker| home.panels().number(&breaker.id)).collect();
    let amps = |amps: f64| Amps::new((amps * 10.0).round() / 10.0);
    let of = if solar.unread { "its breaker, as the inverter's plate is not read," } else { "125 % of the inverter" };
    let place = if solar.far { "at the end away from the main" } else { "not at the end away from the main" };
    let words = format!(
        "What comes in at {}, {place}: {of} and the main of {} come to {}. A bus of {} takes {} at the far end, else {}{}",
        numbers.join(", "),
        amps(solar.main),
        amps(solar.total),
        amps(solar.bus),
        amps(solar.most()),
        amps(solar.bus),
        if solar.is_allowed() { ": it is allowed." } else { ": it is not allowed so." }
    );
    Some(SolarSaid { words, is_allowed: solar.is_allowed(), source: "NEC 705.12, from memory" })
}

/// The method that is meant where none is said: an existing dwelling, by the home's code.
pub fn usual_method(home: &Study) -> ServiceMethod {
    if home.edition().is_canadian() { ServiceMethod::Canada } else { ServiceMethod::Existing }
}

/// The service calculation of the home by this method, today and with a new load.
pub fn service_view(home: &Study, method: ServiceMethod, new: Option<NewLoad>) -> ServiceView {
    let FromFacts { dwelling, mut from, mut unread, limits_unread, by_library, not_for } = from_facts(home);
    let by_measurement = method == ServiceMethod::Measured;
    if by_measurement {
        // Neither area nor plates count in it.
        unread = limits_unread;
        match home.loads().usage() {
            None => unread.push("the utility's interval data: read its file on the page of usage data".into()),
            Some(read) => {
                let factor = FACTOR_X100 as f64 / 100.0;
                from.insert("highest_demand", format!("{}, power factor taken as {factor:.2}", read.demand.peak_words()));
                unread.extend(not_a_measurement(&read.demand, has_solar(home)));
            }
        }
    }
    // With heating or cooling added the sheet of an existing dwelling has other lines, so that today's is made the same way.
    let then = new.map(|new| with_new(&dwelling, new));
    let mut now = dwelling.clone();
    now.added_hvac = then.as_ref().is_some_and(|then| then.added_hvac);
    let (today, applies) = sheet_of(&now, method);
    let then = then.map(|then| sheet_of(&then, method).0);
    let words_from = |line: &Line| {
        let key = match line.key {
            "range" => "cooking",
            "basic" => "lighting",
            "hvac_in_general" | "zones_in_other" => "hvac",
            key => key,
        };
        from.get(key).cloned().unwrap_or_default()
    };
    let lines = today.lines.iter().map(|line| {
        let (words, is_sum) = line_words(line.key);
        let new_line = then.as_ref().and_then(|then| then.lines.iter().find(|other| other.key == line.key));
        ServiceLine {
            words: words.into(),
            from: words_from(line),
            rule: line.note.to_string(),
            today: line.va.value(),
            with_new: new_line.map(|line| line.va.value()),
            is_sum,
            figure: figure_of(line.key),
            unit: figure_of(line.key).map_or("", ServiceFigure::unit),
            told: figure_of(line.key).and_then(|figure| told_of(home, figure)),
        }
    });
    let lines: Vec<ServiceLine> = lines.collect();
    let with_new_amps = then.as_ref().map(|then| then.amps);
    let least = dwelling.service.least();
    let limits = [
        ("meter base", dwelling.service.meter_a),
        ("main breaker", dwelling.service.main_a),
        ("bus", dwelling.service.bus_a),
        ("service conductors", dwelling.service.conductor_a),
    ]
    .map(|(words, amps)| ServiceLimit {
        words,
        amps,
        left_today: amps.map(|amps| amps - today.amps),
        left_with_new: amps.zip(with_new_amps).map(|(amps, then)| amps - then),
        is_least: amps.is_some() && amps == least.map(|(_, amps)| amps),
    });
    let verdict_is_open = !unread.is_empty();
    let comes_to = with_new_amps.unwrap_or(today.amps);
    let with = if new.is_some() { "With the new load the" } else { "The" };
    let title = match least {
        _ if !not_for.is_empty() => "This sheet is not for a service of this kind".to_owned(),
        None => format!("{with} service comes to {comes_to} A; nothing that limits it is read"),
        Some((_, most)) if comes_to > most => format!("{with} service comes to {comes_to} A, more than {most} A"),
        Some((_, most)) if verdict_is_open => {
            format!("{with} service comes to {comes_to} A by what is known; whether {most} A is enough has still to be read")
        }
        // Within 5 % of a rating an electrician is asked (common practice).
        Some((_, most)) if comes_to * 100 > most * 95 => {
            format!("{with} service comes to {comes_to} A of {most} A: so near that an electrician is asked")
        }
        Some((_, most)) => format!("{with} service comes to {comes_to} A of {most} A"),
    };
    let neutral_amps = match method {
        ServiceMethod::Canada | ServiceMethod::Measured => None,
        // The neutral goes by the standard method, whatever the lines go by.
        _ => Some(match standard(&now).neutral {
            Neutral::Reduced { amps, .. } | Neutral::AsTheLines { amps, .. } => amps,
        }),
    };
    let legs = service_panel(home).and_then(|panel| legs_of_panels(home).iter().find(|legs| legs.panel == panel.id));
    let mut remarks = vec![
        "Both legs are taken alike; where large 120 V loads sit on one leg, that leg carries more.".to_owned(),
        "Local code comes first; this is no permit.".to_owned(),
    ];
    if let Some(read) = home.loads().usage().filter(|_| by_measurement) {
        remarks.splice(..1, interval::caveats(&read.demand, has_solar(home)));
    }
    if by_library > 0 && !by_measurement {
        let words = format!("{} of the library, not of a plate: read the plates.", so_many(by_library, "figure"));
        remarks.insert(0, words);
    }
    if home.loads().all().count() == 0 && !by_measurement {
        remarks.insert(0, "No load is entered yet, so only the general lines count.".into());
    }
    ServiceView {
        title,
        method,
        methods: ServiceMethod::ALL.map(|method| MethodChoice { method, words: method.words() }).into(),
        source: match method {
            ServiceMethod::Canada => format!("{}, from memory", method.section()),
            _ => format!("NEC {}, {}, from memory", dwelling.edition, method.section()),
        },
        applies: applies && not_for.is_empty(),
        not_for: match (not_for, applies) {
            ("", false) if by_measurement => "Read the utility's interval data first.".into(),
            ("", false) => "This method is only for a service of 100 A and more.".into(),
            (why, _) => why.into(),
        },
        lines,
        volts: dwelling.system.volts(),
        today_amps: today.amps,
        with_new_amps,
        neutral_amps,
        legs: legs.map(|legs| legs.legs.clone()).unwrap_or_default(),
        limits: limits.into(),
        unread,
        solar: solar_said(home),
        remarks,
        told: home.loads().service().cloned(),
    }
}
