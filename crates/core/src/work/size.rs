//! The size of a new circuit: breaker, wire, ground, receptacle, each with its rule and where that stands.
//!
//! In: what the circuit feeds, the cable, its length and surroundings, and what an inspector said in place of a rule. Out: ratings in
//! amperes, sizes, and a line for each rule; what the inspector said holds for every line after it. The sections are from memory; local
//! code and the inspector come first. What the Canadian code says of these matters is not known here, and nothing is worked out by it.

use super::size_around::around;
use crate::loads::drop::{Drop, Run, voltage_drop};
use crate::model::{
    Amps, Configuration, DERATED_BY, Derated, Edition, InCanada, InspectorSaid, Length, Metal, Place, Sections, SizeAsked,
    SizeOf, SizedLoad, Wire, WireGauge, ampacity, breakers_for, derated, equipment_ground, is_standard, largest_breaker,
    motor_amps, motor_circuit, standard_at_or_above,
};

/// What one rule comes to.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct SizeLine {
    /// What it is about.
    pub of: SizeOf,
    /// The same in words.
    pub title: &'static str,
    /// What it comes to by the rule.
    pub value: String,
    /// Why.
    pub why: String,
    /// Where that stands.
    pub source: String,
    /// What holds in its place, as the inspector says.
    pub said: Option<InspectorSaid>,
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
    /// What the load takes, in amperes.
    pub takes: f64,
    /// Whether today's rule wants a GFCI and an AFCI, as far as the place is known.
    pub wants_gfci: bool,
    #[allow(missing_docs)]
    pub wants_afci: bool,
    /// What the wire may carry in its place.
    pub derated: Derated,
    /// What the run loses; `null` where its length is not known.
    pub drop: Option<Drop>,
    /// Receptacles that it may have, where it has a cord.
    pub receptacles: Vec<Configuration>,
    /// Rule by rule.
    pub lines: Vec<SizeLine>,
    /// Where what the inspector says allows more than the rule.
    pub cautions: Vec<String>,
}

impl Sized {
    /// `40 A, 8 AWG copper, ground 10 AWG`.
    pub(super) fn words(&self, asked: &SizeAsked) -> String {
        let wire = Wire { gauge: self.wire, metal: asked.metal, terminals: asked.terminals, cable: asked.cable };
        format!("{}, {}, ground {}", self.breaker, wire.words(), self.ground.words())
    }
}

/// Where the circuit runs and ends, as far as it is known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SizedWhere {
    /// From the panel, one way.
    pub(super) one_way: Option<Length>,
    /// The kind of place that it ends in.
    pub(super) place: Option<Place>,
    /// By these rules.
    pub(super) edition: Edition,
}

impl SizedWhere {
    /// So far from the panel, one way; into a room of this name, by which the kind of place is known.
    pub fn new(one_way: Option<Length>, room: Option<&str>, edition: Edition) -> Self {
        Self { one_way, place: room.and_then(|room| Place::of(room, None)), edition }
    }
}

pub(super) const NOT_KNOWN: InCanada = InCanada::NotKnown("how a circuit is sized");

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

/// The lines of a circuit, each with what the inspector said of it.
pub(super) struct Lines<'a> {
    asked: &'a SizeAsked,
    edition: Edition,
    lines: Vec<SizeLine>,
}

impl Lines<'_> {
    /// Says the inspector's value as the rule's is said.
    fn says(&mut self, of: SizeOf, value: String) {
        let said = self.lines.iter_mut().filter(|line| line.of == of).filter_map(|line| line.said.as_mut());
        said.for_each(|said| said.value.clone_from(&value));
    }

    /// One more.
    pub(super) fn push(&mut self, of: SizeOf, value: impl Into<String>, why: impl Into<String>, by: Sections) {
        let said = self.asked.said.iter().rev().find(|said| said.of == of).cloned();
        let source = by.cite(self.edition).unwrap_or_default();
        self.lines.push(SizeLine { of, title: of.title(), value: value.into(), why: why.into(), source, said });
    }
}

/// What the inspector said of a size, read.
fn said<T>(asked: &SizeAsked, of: SizeOf, read: impl Fn(&str) -> Option<T>, what: &str) -> Result<Option<T>, String> {
    let Some(said) = asked.said.iter().rev().find(|said| said.of == of) else { return Ok(None) };
    let value = said.value.trim();
    let read =
        read(value).ok_or_else(|| format!("{}, as the inspector says: \u{201c}{value}\u{201d} is not {what}.", of.title()))?;
    Ok(Some(read))
}

/// `8`, `8 AWG`, `250 kcmil`.
fn read_gauge(text: &str) -> Option<WireGauge> {
    WireGauge::named(text.split_whitespace().next()?.trim_start_matches('#'))
}

/// `40`, `40 A`.
fn read_amps(text: &str) -> Option<f64> {
    let amps = text.trim_end_matches(['A', 'a', ' ']).parse::<f64>().ok()?;
    (1.0..=400.0).contains(&amps).then_some(amps)
}

/// `14-50`.
fn read_face(text: &str) -> Option<Configuration> {
    Configuration::ALL.into_iter().find(|face| face.name().eq_ignore_ascii_case(text))
}

/// Sizes a circuit.
///
/// # Errors
/// A sentence: what is asked cannot be, is not in a table, or is for a code that is not known here.
pub fn size(asked: &SizeAsked, runs: SizedWhere) -> Result<Sized, String> {
    let edition = runs.edition;
    if edition.is_canadian() {
        return Err(format!("How {} sizes a circuit is not known here: ask an electrician or look it up.", edition.name()));
    }
    asked.in_bounds().map_err(|refusal| refusal.to_string())?;
    let volts = f64::from(asked.volts.value());
    let wanted = asked.load.wanted(volts)?;
    if !(wanted.takes > 0.0 && wanted.sized_for <= 400.0) {
        return Err(format!("{:.1} A is no load of a branch circuit in a home.", wanted.takes));
    }
    let mut cautions = Vec::new();
    let too_large = || format!("No standard breaker for {:.0} A is known here.", wanted.sized_for);
    let mut by_rule = match wanted.breaker {
        Some(breaker) => breaker,
        None => f64::from(standard_at_or_above(wanted.sized_for.max(wanted.at_least)).ok_or_else(too_large)?),
    };
    let told_face = said(asked, SizeOf::Receptacle, read_face, "a face that is known here, such as 14-50")?;
    let told_breaker = said(asked, SizeOf::Breaker, read_amps, "a rating in amperes")?;
    if asked.cord {
        // A single receptacle is rated for its circuit, so the breaker is the next one that has a receptacle; that of a plate stays.
        let most = if wanted.breaker.is_some() { 1 } else { 6 };
        let mut next = std::iter::successors(Some(by_rule), |amps| standard_at_or_above(amps + 1.0).map(f64::from)).take(most);
        match next.find(|amps| !receptacles_for(*amps, volts, asked.neutral).is_empty()) {
            Some(with_face) => by_rule = with_face,
            None if told_breaker.is_some() || told_face.is_some() => {}
            None => return Err(format!("No receptacle is made for a breaker of {by_rule} A: it has to be wired in.")),
        }
    }
    let breaker = told_breaker.unwrap_or(by_rule);
    if !is_standard(Amps::new(breaker), edition) {
        cautions.push(format!("{breaker} A is no standard rating of a breaker."));
    }
    if breaker > by_rule {
        cautions.push(format!("A breaker of {breaker} A is larger than the {by_rule} A of the rule."));
    }
    if breaker < wanted.takes {
        cautions.push(format!("A breaker of {breaker} A trips: the load takes {:.1} A.", wanted.takes));
    }
    let receptacles = match (asked.cord, told_face) {
        (false, _) => Vec::new(),
        (true, Some(face)) => vec![face],
        (true, None) => receptacles_for(breaker, volts, asked.neutral),
    };
    if let Some(face) =
        told_face.filter(|face| asked.cord && !breakers_for(*face, true).iter().any(|amps| f64::from(*amps) == breaker))
    {
        cautions.push(format!("A receptacle {} does not go with a breaker of {breaker} A by the rule.", face.name()));
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
        runs.one_way.and_then(|length| voltage_drop(wire(gauge), Run::TwoWire, Amps::new(wanted.takes), length, volts))
    };
    let wire_by_rule = match runs.one_way {
        None => least,
        Some(_) => sizes
            .iter()
            .copied()
            .filter(|gauge| *gauge >= least)
            .find(|gauge| lost(*gauge).is_some_and(|drop| drop.percent <= 3.0))
            .ok_or("No wire of the table keeps the voltage drop within 3 % over that length: ask an electrician.")?,
    };
    let chosen = said(asked, SizeOf::Wire, read_gauge, "a size of wire, such as 8 or 4/0")?.unwrap_or(wire_by_rule);
    let found = in_place(chosen);
    if !carries(&chosen) {
        cautions.push(format!(
            "{} is thinner than the rule allows for this breaker and load: by the table it carries {:.1} A in its place.",
            wire(chosen).words(),
            found.amps
        ));
    }
    let no_ground = "No ground of the table goes with that breaker.";
    let ground_by_rule = equipment_ground(breaker, asked.metal, wire(chosen), Some(least.min(chosen))).ok_or(no_ground)?;
    let ground = said(asked, SizeOf::Ground, read_gauge, "a size of wire, such as 8 or 4/0")?.unwrap_or(ground_by_rule);
    if ground < ground_by_rule {
        cautions.push(format!("A ground of {} is thinner than the table asks for.", ground.words()));
    }
    let drop = lost(chosen);
    let nec = |section| Sections::nec(section, NOT_KNOWN);
    let mut lines = Lines { asked, edition, lines: Vec::new() };
    let at_most = if wanted.breaker.is_some() { " at most" } else { "" };
    lines.push(SizeOf::Breaker, format!("{by_rule} A{at_most}"), wanted.why, wanted.by);
    lines.push(
        SizeOf::Wire,
        wire(wire_by_rule).words(),
        if wire_by_rule == least {
            format!("the first that carries {:.1} A and that this breaker guards", wanted.sized_for)
        } else {
            format!("{} would carry it; thicker for the voltage drop", wire(least).words())
        },
        nec("240.4 and Table 310.16"),
    );
    let mut why = format!("{} A by its insulation", found.from);
    if found.heat != 1.0 {
        why += &format!(", × {} for {} °C", found.heat, asked.celsius);
    }
    if found.together != 1.0 {
        why += &format!(", × {} for {} wires that carry current", found.together, asked.carrying);
    }
    why += &format!("; never more than the {} A of cable and terminals", found.at_most);
    lines.push(SizeOf::InItsPlace, format!("{:.1} A", found.amps), why, DERATED_BY);
    if let Some(drop) = drop {
        let why = format!("at {:.1} A over the run; at most 3 % is recommended", wanted.takes);
        let value = format!("{:.1} V, {:.1} %", drop.volts, drop.percent);
        lines.push(SizeOf::VoltageDrop, value, why, nec("210.19(A), informational note"));
    }
    let why = if chosen <= least { "by the breaker" } else { "by the breaker, thicker as the hots are" };
    lines.push(SizeOf::Ground, Wire { gauge: ground_by_rule, ..wire(chosen) }.words(), why, nec("Table 250.122"));
    let (value, why) = match (asked.hots(), asked.has_neutral()) {
        (1, _) => ("one hot, a neutral and a ground", "a circuit of 120 V"),
        (_, true) => ("two hots, a neutral and a ground", "the plate asks for a neutral"),
        _ => ("two hots and a ground", "nothing on it takes 120 V"),
    };
    lines.push(SizeOf::Conductors, value, why, nec("200.2 and 250.138"));
    if asked.cord {
        let faces: Vec<&str> = receptacles_for(breaker, volts, asked.neutral).iter().map(|face| face.name()).collect();
        let none = "none is made for this breaker";
        let value = if faces.is_empty() { none.into() } else { faces.join(" or ") };
        lines.push(SizeOf::Receptacle, value, "a single receptacle is not below its circuit", nec("210.21(B)"));
    }
    lines.says(SizeOf::Breaker, format!("{breaker} A"));
    lines.says(SizeOf::Wire, wire(chosen).words());
    lines.says(SizeOf::Ground, Wire { gauge: ground, ..wire(chosen) }.words());
    let (wants_gfci, wants_afci) = around(asked, runs, breaker, (chosen, ground), &mut lines);
    if !cautions.is_empty() {
        cautions.push("What the inspector says comes first: keep it in writing.".into());
    }
    Ok(Sized {
        breaker: Amps::new(breaker),
        wire: chosen,
        ground,
        takes: wanted.takes,
        wants_gfci,
        wants_afci,
        derated: found,
        drop,
        receptacles,
        lines: lines.lines,
        cautions,
    })
}
