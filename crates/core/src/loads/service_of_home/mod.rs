//! The service calculation of a home: each line taken from facts, today and with a new load side by side.

mod from_facts;
mod told;

use serde::Serialize;

use self::from_facts::{FACTOR_X100, FromFacts, from_facts, service_panel, with_new};
use self::told::{figure_of, told_of};
use super::demand_view::has_solar;
use super::interval;
use super::panels::{LegLoad, legs_of_panels};
use super::service::{self, Dwelling, Line, Neutral, Sheet, Va, existing, measured, optional, standard};
use super::solar_bus::solar_on_panel;
use crate::logbook::ServiceTold;
use crate::model::{Amps, Demand, FigureTold, ServiceFigure, so_many};
use crate::study::Study;

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
