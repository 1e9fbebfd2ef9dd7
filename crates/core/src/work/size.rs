//! The size of a new circuit: breaker, wire, ground, receptacle, each with its rule and where that stands.
//!
//! In: what the circuit feeds, the cable, its length and surroundings. Out: ratings in amperes, sizes, and a line for each rule. The
//! sections are from memory; local code and the inspector come first. What the Canadian code says of these matters is not known here,
//! and nothing is worked out by it.

use crate::loads::drop::{Drop, Run, voltage_drop};
use crate::model::{
    Amps, Cable, Configuration, DERATED_BY, Derated, Edition, InCanada, Insulation, Length, Metal, Sections, Terminals, Wire,
    WireGauge, ampacity, breakers_for, derated, equipment_ground, largest_breaker, motor_amps, motor_circuit,
    standard_at_or_above,
};

/// What a circuit is to feed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SizedLoad {
    /// So many amperes.
    Plain {
        /// In amperes.
        amps: f64,
        /// For three hours or more.
        continuous: bool,
    },
    /// A single-phase motor.
    Motor {
        /// In hundredths of a horsepower.
        hundredths_hp: u16,
    },
    /// A cooling unit or a heat pump, by its plate.
    Cooling {
        /// The minimum circuit ampacity.
        wire_at_least: f64,
        /// The maximum fuse or breaker.
        breaker_at_most: f64,
    },
    /// A household range.
    Range {
        /// By its plate.
        watts: f64,
    },
    /// A dryer.
    Dryer {
        /// By its plate.
        watts: f64,
    },
    /// A water heater with a tank.
    WaterHeater {
        /// By its plate.
        watts: f64,
    },
    /// Electric heat of a room.
    Heat {
        /// By its plate.
        watts: f64,
    },
    /// A vehicle charger.
    Charger {
        /// The current for which it is set.
        amps: f64,
    },
}

/// What is asked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SizeAsked {
    /// What the circuit feeds.
    pub load: SizedLoad,
    /// 120, 208 or 240 V.
    pub volts: f64,
    /// By a cord and a receptacle.
    pub cord: bool,
    /// Receptacles for whatever is plugged in.
    pub several_receptacles: bool,
    /// Whether the plate asks for a neutral.
    pub neutral: bool,
    /// Copper or aluminum.
    pub metal: Metal,
    /// The cable.
    pub cable: Cable,
    /// What the labels of the terminals say.
    pub terminals: Terminals,
    /// What the insulation is marked for.
    pub insulation: Insulation,
    /// How many wires that carry current lie together, its own among them.
    pub carrying: u16,
    /// The air around it at the warmest, in degrees Celsius.
    pub celsius: i16,
    /// From the panel, one way, where it is known.
    pub one_way: Option<Length>,
    /// The rules.
    pub edition: Edition,
}

/// A rule that made a size.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct SizeLine {
    /// `Breaker`, `Wire`, …
    pub what: &'static str,
    /// What it comes to.
    pub value: String,
    /// Why.
    pub why: String,
    /// Where that stands.
    pub source: String,
}

/// A circuit sized.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Sized {
    /// The breaker; for a motor or a cooling unit the largest that is allowed.
    pub breaker: Amps,
    /// The hots, and the neutral where there is one.
    pub wire: WireGauge,
    /// The ground.
    pub ground: WireGauge,
    /// What the wire may carry in its place.
    pub derated: Derated,
    /// What the run loses; `null` where its length is not known.
    pub drop: Option<Drop>,
    /// Receptacles that it may have, where it has a cord.
    pub receptacles: Vec<Configuration>,
    /// Rule by rule.
    pub lines: Vec<SizeLine>,
}

const NOT_KNOWN: InCanada = InCanada::NotKnown("how a circuit is sized");

/// What a circuit must carry, before breaker and wire are chosen.
struct Wanted {
    /// What it takes.
    takes: f64,
    /// What breaker and wire are chosen for.
    sized_for: f64,
    /// The breaker that its own rule names, in place of the one that follows.
    breaker: Option<f64>,
    /// The breaker is at least this.
    at_least: f64,
    why: String,
    by: Sections,
}

impl SizedLoad {
    fn wanted(self, volts: f64) -> Result<Wanted, String> {
        let plain = |takes: f64, times: f64, why: String, by: Sections| Wanted {
            takes,
            sized_for: takes * times,
            breaker: None,
            at_least: 15.0,
            why,
            by,
        };
        let nec = |section| Sections::nec(section, NOT_KNOWN);
        Ok(match self {
            Self::Plain { amps, continuous } => {
                let why = if continuous {
                    format!("{amps:.1} A for three hours or more count 125 %")
                } else {
                    format!("it takes {amps:.1} A")
                };
                plain(amps, if continuous { 1.25 } else { 1.0 }, why, nec("210.19(A)(1) and 210.20(A)"))
            }
            Self::Motor { hundredths_hp } => {
                let high = volts > 150.0;
                let known = motor_amps(hundredths_hp, high).and_then(motor_circuit);
                let circuit = known.ok_or_else(|| {
                    format!("no motor of {} hp is in the table for one phase", f64::from(hundredths_hp) / 100.0)
                })?;
                Wanted {
                    takes: circuit.current,
                    sized_for: circuit.wire_at_least,
                    breaker: Some(circuit.breaker_at_most),
                    at_least: 15.0,
                    why: format!(
                        "a motor that takes {} A by the table: wire 125 %, breaker at most 250 %; such a breaker guards \
                         against shorts alone, so the motor has its own overload protection",
                        circuit.current
                    ),
                    by: nec("430.22, 430.32 and 430.52"),
                }
            }
            Self::Cooling { wire_at_least, breaker_at_most } => {
                if breaker_at_most < wire_at_least {
                    return Err(
                        "The largest breaker of a plate is never less than its minimum ampacity: read both once more.".into()
                    );
                }
                let breaker = (15..=breaker_at_most as u16)
                    .rev()
                    .map(f64::from)
                    .find(|amps| standard_at_or_above(*amps) == Some(*amps as u16));
                Wanted {
                    takes: wire_at_least / 1.25,
                    sized_for: wire_at_least,
                    breaker: Some(breaker.ok_or("No breaker is as small as the plate asks for: read it once more.")?),
                    at_least: 15.0,
                    why: format!("by its plate: wire at least {wire_at_least} A, breaker at most {breaker_at_most} A"),
                    by: nec("440.4, 440.22 and 440.32"),
                }
            }
            Self::Range { watts } => {
                // Column C of Table 220.55 for one range: 8 kW up to 12 kW, 5 % more for each kilowatt above, or a part of it.
                let demand = match watts {
                    ..=8750.0 => watts,
                    ..=12_000.0 => 8000.0,
                    _ => 8000.0 * (1.0 + 0.05 * ((watts - 12_000.0) / 1000.0).ceil()),
                };
                Wanted {
                    at_least: if watts >= 8750.0 { 40.0 } else { 15.0 },
                    ..plain(
                        demand / volts,
                        1.0,
                        format!("a range of {watts:.0} W counts {demand:.0} W"),
                        nec("210.19(A)(3) and Table 220.55"),
                    )
                }
            }
            Self::Dryer { watts } => {
                let counted = watts.max(5000.0);
                plain(counted / volts, 1.0, format!("a dryer counts at least 5000 W; this one {counted:.0} W"), nec("220.54"))
            }
            Self::WaterHeater { watts } => plain(
                watts / volts,
                1.25,
                format!("a water heater with a tank, {watts:.0} W, counts as continuous: 125 %"),
                nec("422.13 and 422.10(A)"),
            ),
            Self::Heat { watts } => plain(
                watts / volts,
                1.25,
                format!("fixed heat of {watts:.0} W counts as continuous: 125 %"),
                Sections::moved(["424.3(B)", "424.4(B)", "424.4(B)"], NOT_KNOWN),
            ),
            Self::Charger { amps } => {
                plain(amps, 1.25, format!("a charger set to {amps:.0} A counts as continuous: 125 %"), nec("625.41 and 625.42"))
            }
        })
    }
}

/// Receptacles for this circuit. Those without a ground of their own are for existing circuits only (NEC 250.140), and a TT-30 is for
/// trailers; neither is offered.
fn receptacles_for(breaker: f64, volts: f64, neutral: bool) -> Vec<Configuration> {
    use Configuration::*;
    let fits = |face: &Configuration| {
        !matches!(face, N10x30 | N10x50 | Tt30)
            && (face.volts().value() > 150) == (volts > 150.0)
            && (face.volts().value() < 150 || face.has_neutral() == neutral)
            && breakers_for(*face, true).iter().any(|amps| f64::from(*amps) == breaker)
    };
    Configuration::ALL.into_iter().filter(fits).collect()
}

/// Sizes a circuit.
///
/// # Errors
/// A sentence: what is asked cannot be, is not in a table, or is for a code that is not known here.
pub fn size(asked: &SizeAsked) -> Result<Sized, String> {
    let edition = asked.edition;
    let cite = |by: Sections| by.cite(edition).unwrap_or_default();
    if edition.is_canadian() {
        return Err(format!("How {} sizes a circuit is not known here: ask an electrician or look it up.", edition.name()));
    }
    if !(100.0..=250.0).contains(&asked.volts) {
        return Err(format!("{} V is no voltage of a circuit in a home: give 120, 208 or 240 V.", asked.volts));
    }
    let wanted = asked.load.wanted(asked.volts)?;
    if !(wanted.takes > 0.0 && wanted.sized_for <= 400.0) {
        return Err(format!("{:.1} A is no load of a branch circuit in a home.", wanted.takes));
    }
    let too_large = || format!("No standard breaker for {:.0} A is known here.", wanted.sized_for);
    let mut breaker = match wanted.breaker {
        Some(breaker) => breaker,
        None => f64::from(standard_at_or_above(wanted.sized_for.max(wanted.at_least)).ok_or_else(too_large)?),
    };
    let mut receptacles = Vec::new();
    if asked.cord {
        // A single receptacle is rated for its circuit, so the breaker is the next one that has a receptacle.
        let next = (0..6).scan(breaker, |amps, _| {
            let this = *amps;
            *amps = f64::from(standard_at_or_above(this + 1.0)?);
            Some(this)
        });
        let found =
            next.map(|amps| (amps, receptacles_for(amps, asked.volts, asked.neutral))).find(|(_, faces)| !faces.is_empty());
        let (with_face, faces) = found.ok_or("No receptacle is made for that: it has to be wired in.")?;
        if wanted.breaker.is_some() && with_face != breaker {
            return Err(format!("No receptacle is made for a breaker of {breaker} A: it has to be wired in."));
        }
        (breaker, receptacles) = (with_face, faces);
    }
    let wire = |gauge| Wire { gauge, metal: asked.metal, terminals: asked.terminals, cable: asked.cable };
    let in_place = |gauge| derated(wire(gauge), asked.insulation, asked.carrying, asked.celsius, edition);
    let by_plate = matches!(asked.load, SizedLoad::Motor { .. });
    let carries = |gauge: &WireGauge| {
        let left = in_place(*gauge).amps;
        // The next standard breaker above what is left is allowed, but not where anything may be plugged in.
        let guards = if asked.several_receptacles { left } else { standard_at_or_above(left).map_or(0.0, f64::from) };
        ampacity(wire(*gauge), edition).value() >= wanted.sized_for - 1e-9
            && left >= wanted.takes - 1e-9
            && (by_plate || guards >= breaker && largest_breaker(wire(*gauge), edition).value() >= breaker)
    };
    let sizes: Vec<WireGauge> =
        WireGauge::all().filter(|(_, aluminum)| asked.metal == Metal::Copper || *aluminum).map(|(gauge, _)| gauge).collect();
    let least = sizes.iter().copied().find(carries).ok_or("No wire of the table carries that in this place.")?;
    let lost = |gauge: WireGauge| {
        asked.one_way.and_then(|length| voltage_drop(wire(gauge), Run::TwoWire, Amps::new(wanted.takes), length, asked.volts))
    };
    let chosen = match asked.one_way {
        None => least,
        Some(_) => sizes
            .iter()
            .copied()
            .filter(|gauge| *gauge >= least)
            .find(|gauge| lost(*gauge).is_some_and(|drop| drop.percent <= 3.0))
            .ok_or("No wire of the table keeps the voltage drop within 3 % over that length: ask an electrician.")?,
    };
    let no_ground = "No ground of the table goes with that breaker.";
    let ground = equipment_ground(breaker, asked.metal, wire(chosen), Some(least)).ok_or(no_ground)?;
    let drop = lost(chosen);
    let found = in_place(chosen);
    let nec = |section| Sections::nec(section, NOT_KNOWN);
    let line = |what, value: String, why: String, by| SizeLine { what, value, why, source: cite(by) };
    let at_most = if wanted.breaker.is_some() { " at most" } else { "" };
    let mut lines = vec![line("Breaker", format!("{breaker} A{at_most}"), wanted.why, wanted.by)];
    let least_words = wire(least).words();
    lines.push(line(
        "Wire",
        wire(chosen).words(),
        if chosen == least {
            format!("the first that carries {:.1} A and that this breaker guards", wanted.sized_for)
        } else {
            format!("{least_words} would carry it; thicker for the voltage drop")
        },
        nec("240.4 and Table 310.16"),
    ));
    let mut why = format!("{} A by its insulation", found.from);
    if found.heat != 1.0 {
        why += &format!(", × {} for {} °C", found.heat, asked.celsius);
    }
    if found.together != 1.0 {
        why += &format!(", × {} for {} wires that carry current", found.together, asked.carrying);
    }
    why += &format!("; never more than the {} A of cable and terminals", found.at_most);
    lines.push(line("In its place it carries", format!("{:.1} A", found.amps), why, DERATED_BY));
    if let Some(drop) = drop {
        let why = format!("at {:.1} A over the run; at most 3 % is recommended", wanted.takes);
        let value = format!("{:.1} V, {:.1} %", drop.volts, drop.percent);
        lines.push(line("Voltage drop", value, why, nec("210.19(A), informational note")));
    }
    let why = if chosen == least { "by the breaker" } else { "by the breaker, thicker as the hots are" };
    lines.push(line("Ground", Wire { gauge: ground, ..wire(chosen) }.words(), why.into(), nec("Table 250.122")));
    let hots = if asked.volts > 150.0 { 2 } else { 1 };
    let neutral = asked.neutral || hots == 1;
    let (value, why) = match (hots, neutral) {
        (1, _) => ("one hot, a neutral and a ground", "a circuit of 120 V"),
        (_, true) => ("two hots, a neutral and a ground", "the plate asks for a neutral"),
        _ => ("two hots and a ground", "nothing on it takes 120 V"),
    };
    lines.push(line("Conductors", value.into(), why.into(), nec("200.2 and 250.138")));
    if asked.cord {
        let faces: Vec<&str> = receptacles.iter().map(|face| face.name()).collect();
        let why = "a single receptacle is not below its circuit".to_owned();
        lines.push(line("Receptacle", faces.join(" or "), why, nec("210.21(B)")));
    }
    Ok(Sized { breaker: Amps::new(breaker), wire: chosen, ground, derated: found, drop, receptacles, lines })
}

/// What the space before a panel lacks, in inches.
///
/// Source: NEC 110.26(A), from memory: 36 in deep, 30 in wide, 6 ft 6 in high, to 150 V to ground.
pub fn working_space_lacks(deep: f64, wide: f64, high: f64) -> Vec<String> {
    [("deep", deep, 36.0), ("wide", wide, 30.0), ("high", high, 78.0)]
        .into_iter()
        .filter(|(_, is, least)| is < least)
        .map(|(what, is, least)| format!("The space before it is {is} in {what}; it has to be {least} in."))
        .collect()
}
