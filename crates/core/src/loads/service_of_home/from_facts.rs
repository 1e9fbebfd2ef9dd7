//! The dwelling of the service calculation in numbers, each taken from facts, with from what it comes.

use std::collections::BTreeMap;

use geo::{Area, BooleanOps, Buffer, MultiPolygon};

use super::told::{OF_PLATES, figure_of_load, in_place, put_in_place};
use super::{NewLoad, NewLoadKind};
use crate::loads::demand_view::has_solar;
use crate::loads::draws::{Drawn, drawn};
use crate::loads::panels::carried_by;
use crate::loads::service::{
    CanadianArea, Cooking, CookingKind, Cooler, Dryer, Dwelling, Fixed, Heat, HeatKind, HeatPump, Limits, Measured,
    ServiceSystem, Solar, Vehicle,
};
use crate::model::{Breaker, Draw, Edition, Panel, Place, PointKind, Service, ServiceFigure};
use crate::study::Study;
use crate::trace::on_breaker;
use crate::walking::{floor_of, level};

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
pub(super) fn service_panel(home: &Study) -> Option<&Panel> {
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
pub(super) struct FromFacts {
    pub(super) dwelling: Dwelling,
    pub(super) from: BTreeMap<&'static str, String>,
    pub(super) unread: Vec<String>,
    /// Of these, the limits of the service.
    pub(super) limits_unread: Vec<String>,
    /// Loads that count by the library and not by a plate.
    pub(super) by_library: usize,
    /// Why this sheet is not for such a service; empty where it is.
    pub(super) not_for: &'static str,
}

pub(super) fn from_facts(home: &Study) -> FromFacts {
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

pub(super) fn with_new(dwelling: &Dwelling, new: NewLoad) -> Dwelling {
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

/// What a household's power factor is taken as, in hundredths, where only energy was measured (our estimate, on the careful side).
pub(super) const FACTOR_X100: i64 = 90;

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
