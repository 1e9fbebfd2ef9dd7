//! A panel of a home as a problem of the search, made from facts.
//!
//! What nobody has read is taken twice: once so that nothing rests on it, once as if it were read and good. A plan of the first is
//! sure; one of the second says what has to be read. Nothing is guessed: a circuit whose wire, points or loads are not known is not
//! combined with another by a sure plan, and a wire whose slack is not known reaches no other space.

use std::collections::{BTreeMap, BTreeSet};

use serde_json::json;

use super::costs::{HomeCosts, home_costs};
use super::problem::*;
use super::setup::wire_amps;
use super::wish::HomeWish;
use crate::loads::{circuits, legs_of_panels};
use crate::model::{
    ACROSS, Breaker, BreakerId, Cable, Half, Interior, Kept, Leg, Metal, Panel, Place, PointKind, Protection, Service, Side,
    State, Tandems, position,
};
use crate::study::Study;
use crate::trace::on_breaker;

impl From<Protection> for Guard {
    fn from(protection: Protection) -> Self {
        match protection {
            Protection::Standard => Self::Standard,
            Protection::Gfci => Self::Gfci,
            Protection::Afci => Self::Afci,
            Protection::DualFunction => Self::Dual,
        }
    }
}

impl Guard {
    pub(super) const ALL: [Self; 4] = [Self::Standard, Self::Gfci, Self::Afci, Self::Dual];
}

/// Something that may not be read, and is taken as if it were read and good.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub(super) enum Hope {
    /// What circuits carry.
    Loads,
    /// What else is on a breaker.
    Points,
    /// Room for splices.
    Splices,
    /// How far a wire reaches.
    Slack,
    /// How many wires are under a terminal.
    Under,
    /// Which wire is on a breaker.
    Wires,
    /// For how many circuits the panel is listed.
    Listed,
    /// What the new circuit takes.
    Takes,
    /// For how many wires a terminal is listed.
    Marking,
    /// Where tandems go.
    Tandems,
    /// Which breakers the label names.
    Label,
    /// That the label names quads: no line of the logbook says so yet.
    Quads,
    /// Where a sub-panel can hang, and that the service takes it.
    Sub,
}

impl Hope {
    /// All, those first that take the longest to read.
    pub(super) const ALL: [Self; 13] = [
        Self::Loads,
        Self::Points,
        Self::Splices,
        Self::Slack,
        Self::Under,
        Self::Wires,
        Self::Listed,
        Self::Takes,
        Self::Marking,
        Self::Tandems,
        Self::Label,
        Self::Quads,
        Self::Sub,
    ];
}

/// What is taken as if it were read and good. Nothing of it: a plan rests on nothing that is not read.
#[derive(Debug, Clone, Default, PartialEq)]
pub(super) struct Hopes {
    of: BTreeSet<Hope>,
    /// The circuits whose loads are hoped for, where not all are.
    loads_of: Option<BTreeSet<BreakerId>>,
}

impl Hopes {
    pub(super) fn all() -> Self {
        Self { of: Hope::ALL.into_iter().collect(), loads_of: None }
    }

    pub(super) fn has(&self, hope: Hope) -> bool {
        self.of.contains(&hope)
    }

    pub(super) fn but(&self, hope: Hope) -> Self {
        let mut fewer = self.clone();
        fewer.of.remove(&hope);
        fewer
    }

    /// With the loads of these circuits alone.
    pub(super) fn with_loads_of(&self, of: BTreeSet<BreakerId>) -> Self {
        Self { loads_of: Some(of), ..self.clone() }
    }

    pub(super) fn loads_of(&self, breaker: &BreakerId) -> bool {
        self.has(Hope::Loads) && self.loads_of.as_ref().is_none_or(|of| of.contains(breaker))
    }

    fn every_load(&self) -> bool {
        self.has(Hope::Loads) && self.loads_of.is_none()
    }
}

/// The panel's problem for a wish, or a sentence that says what has to be known before there is one.
pub(super) fn problem_of(home: &Study, panel: &Panel, wish: &HomeWish, hopes: &Hopes) -> Result<Problem, String> {
    let on_it: Vec<&Breaker> = home.panels().breakers_of(&panel.id).collect();
    let back_fed = on_it.iter().find(|b| b.details.back_fed_main);
    let details = &panel.details;
    let feeder = panel.details.fed_by.as_ref().and_then(|id| home.panels().breaker(id));
    // Whichever of them is the smallest guards the panel.
    let guards = [panel.main, back_fed.map(|b| b.amps), feeder.map(|b| b.amps)].into_iter().flatten();
    let main = guards.map(|amps| amps.value()).reduce(f64::min).ok_or_else(|| {
        format!("Read the main breaker of “{}” first: without it nothing is said about what the panel may carry.", panel.name)
    })?;
    // Bus and conductors, as far as they are read; the rating of the main stands for a bus that is not.
    let legs = legs_of_panels(home).iter().find(|legs| legs.panel == panel.id);
    let bus =
        panel.details.bus.map(|amps| amps.value()).into_iter().chain(legs.and_then(|legs| legs.rating)).fold(main, f64::min);
    let sides =
        [Side::Left, Side::Right].into_iter().filter(|side| (0..panel.rows()).any(|row| panel.space_at(*side, row).is_some()));
    let sides: Vec<Side> = sides.collect();
    let columns: Vec<Vec<serde_json::Value>> = sides
        .iter()
        .map(|side| {
            let name = |row| panel.space_at(*side, row).map_or_else(|| json!(format!("{side:?}{row}")), |space| json!(space));
            (0..panel.rows()).map(name).collect()
        })
        .collect();
    let mut circuits_of: Vec<CircuitOf> = Vec::new();
    let mut bodies: BTreeMap<(usize, usize), BodyOf> = BTreeMap::new();
    let spot = |space: u8| {
        let (side, row) = position(panel, space)?;
        Some((sides.iter().position(|s| *s == side)?, usize::from(row)))
    };
    for (column, side) in sides.iter().enumerate() {
        for row in (0..panel.rows()).filter(|row| panel.space_at(*side, *row).is_none()) {
            circuits_of.push(nothing_there(format!("no space {side:?} {row}"), column, usize::from(row)));
        }
    }
    for breaker in &on_it {
        let load = load_of(home, breaker, hopes.loads_of(&breaker.id));
        let hoped = |hope| hopes.has(hope);
        let fixed = left_alone(home, breaker).is_some();
        let slots: Vec<((usize, usize), Option<Half>)> =
            breaker.at.iter().filter_map(|slot| Some((spot(slot.space)?, slot.half))).collect();
        let plain = CircuitOf {
            id: breaker.id.to_string(),
            poles: 1,
            amps: breaker.amps.value().round() as i64,
            awg: awg_of(breaker, hoped(Hope::Wires)),
            protection: breaker.protection.into(),
            class: class_of(home, breaker, hoped(Hope::Points)),
            load: vec![load],
            // Lights may burn and heaters run for hours: a joined breaker keeps a fifth free.
            continuous: true,
            shared_neutral: false,
            fixed,
            conductors: breaker.details.terminal.under.map_or(if hoped(Hope::Under) { 1 } else { 2 }, i64::from),
            terminal: breaker.details.terminal.listed.map_or(if hoped(Hope::Marking) { 2 } else { 1 }, i64::from),
            slack: breaker.details.slack.map_or(if hoped(Hope::Slack) { 99 } else { 0 }, i64::from),
            outlets: outlets_of(home, breaker, hoped(Hope::Points)),
            at: Spot { column: 0, row: 0, shape: Shape::Full },
        };
        let shape = match slots[..] {
            [(at, None)] => Some((at, Shape::Full)),
            [(at, Some(Half::Upper))] => Some((at, Shape::Upper)),
            [(at, Some(Half::Lower))] => Some((at, Shape::Lower)),
            [(a, first), (b, second)] if a.0 == b.0 && a.1 + 1 == b.1 => match (first, second) {
                (None, None) => Some((a, Shape::Full)),
                (Some(Half::Lower), Some(Half::Upper)) => Some((a, Shape::Inner)),
                (Some(Half::Upper), Some(Half::Lower)) => Some((a, Shape::Outer)),
                _ => None,
            },
            _ => None,
        };
        match shape {
            Some(((column, row), shape)) => {
                let poles = slots.len();
                let shared = poles == 2 && home.panels().shared_neutral_of(&breaker.id).is_some();
                let at = Spot { column, row, shape };
                circuits_of.push(CircuitOf { poles, load: vec![load; poles], shared_neutral: shared, at, ..plain });
            }
            // Three poles, and whatever stands otherwise, stays as it is, pole by pole.
            None => circuits_of.extend(slots.iter().enumerate().map(|(pole, ((column, row), half))| CircuitOf {
                id: format!("{} pole {pole}", breaker.id),
                fixed: true,
                at: Spot {
                    column: *column,
                    row: *row,
                    shape: match half {
                        None => Shape::Full,
                        Some(Half::Upper) => Shape::Upper,
                        Some(Half::Lower) => Shape::Lower,
                    },
                },
                ..plain.clone()
            })),
        }
    }
    for circuit in circuits_of.iter().filter(|c| c.at.shape != Shape::Full) {
        // Each split space is a tandem; what straddles two of them, a quad.
        let Spot { column, row, shape } = circuit.at;
        let handle = usize::from(shape == Shape::Lower);
        if matches!(shape, Shape::Upper | Shape::Lower) {
            let body = bodies.entry((column, row)).or_insert_with(|| BodyOf {
                form: "tandem".into(),
                column,
                row,
                amps: vec![0, 0],
                ties: Vec::new(),
            });
            body.amps[handle] = circuit.amps;
        }
    }
    let straddles: Vec<(usize, usize)> = circuits_of
        .iter()
        .filter(|c| matches!(c.at.shape, Shape::Inner | Shape::Outer))
        .map(|c| (c.at.column, c.at.row))
        .collect();
    // A quad is left as it is: its handles are not read one by one.
    bodies.retain(|(column, row), _| !straddles.iter().any(|(c, r)| c == column && (r == row || r + 1 == *row)));
    for circuit in circuits_of.iter_mut().filter(|c| c.at.shape != Shape::Full) {
        let at = (circuit.at.column, circuit.at.row);
        circuit.fixed |= !bodies.contains_key(&at);
    }
    if hopes.every_load() {
        at_one_time(home, panel, &mut circuits_of);
    }
    let tandem_spaces = match &panel.details.tandems {
        Tandems::All => columns.iter().flatten().cloned().collect(),
        Tandems::In(spaces) => spaces.iter().map(|space| json!(space)).collect(),
        Tandems::NotRead if hopes.has(Hope::Tandems) => columns.iter().flatten().cloned().collect(),
        Tandems::NotRead | Tandems::None => Vec::new(),
    };
    let poles: i64 = on_it.iter().map(|breaker| breaker.poles() as i64).sum();
    let spaces = panel.every_space().len() as i64;
    let listed =
        panel.details.circuits.map(i64::from).unwrap_or(if hopes.has(Hope::Listed) { 2 * spaces } else { spaces.max(poles) });
    let mut label: BTreeMap<String, Vec<Guard>> = BTreeMap::new();
    for (form, of) in [("single", 1), ("double", 2)] {
        // What is in this panel already is taken for a type that its label names; the checks say where it is not.
        let named = |guard: &Guard| {
            hopes.has(Hope::Label)
                || *guard == Guard::Standard
                || on_it.iter().any(|b| b.poles() == of && Guard::from(b.protection) == *guard)
        };
        label.insert(form.into(), Guard::ALL.into_iter().filter(named).collect());
    }
    label.insert("tandem".into(), vec![Guard::Standard]);
    label.insert("quad".into(), if hopes.has(Hope::Quads) { vec![Guard::Standard] } else { Vec::new() });
    label.insert("slim".into(), Vec::new());
    let refer = match panel.details.interior {
        // On the high leg there are 208 V to neutral; which row is on it has to be metered.
        _ if panel.service == Service::HighLeg => vec![json!("high leg")],
        Interior::Breakers => Vec::new(),
        Interior::SplitBus => vec![json!("split bus")],
        Interior::Fuses => vec![json!("fuses")],
    };
    let HomeCosts { costs, weights, .. } = home_costs(home);
    Ok(Problem {
        id: panel.id.to_string(),
        panel: PanelOf {
            legs: (0..panel.rows()).map(|row| panel.leg_of_row(row).letter().to_owned()).collect(),
            columns,
            voltage: String::new(),
            main_amps: main.floor() as i64,
            bus_amps: bus.floor() as i64,
            listed_poles: listed,
            tandem_spaces,
            slim: false,
            label,
            // As they are sold; common practice.
            max_amps: [("tandem".to_owned(), 20), ("quad".to_owned(), 50), ("slim".to_owned(), 0)].into(),
            splice_room: details.splice_room.map_or(if hopes.has(Hope::Splices) { 8 } else { 0 }, i64::from),
            cross: ACROSS,
            refer,
        },
        circuits: circuits_of,
        bodies: bodies.into_values().collect(),
        sub: sub_panel(panel, wish).filter(|_| hopes.has(Hope::Sub)),
        wish: wish.of_problem(home, hopes)?,
        costs,
        weights,
        max_touched: 4,
    })
}

/// The breaker of the feeder of a sub-panel that is put in.
pub(super) const SUB_FEEDER_AMPS: i64 = 60;

/// The sub-panel that is looked at: of 8 spaces on a feeder of 60 A (common practice), where the main carries one and the wish is for
/// room. Where it hangs and whether the service takes it has to be read in any case.
fn sub_panel(panel: &Panel, wish: &HomeWish) -> Option<SubOf> {
    let room = matches!(wish, HomeWish::Circuit { amps: ..=50, .. } | HomeWish::Spaces { .. });
    let carries = panel.main.is_some_and(|main| main.value() >= 100.0);
    (room && carries).then_some(SubOf { spaces: 8, feeder_amps: SUB_FEEDER_AMPS })
}

/// Circuits do not reach their peaks at one time: brings their loads down to what the heavier leg carries at least.
fn at_one_time(home: &Study, panel: &Panel, circuits: &mut [CircuitOf]) {
    let mut sums: BTreeMap<Leg, i64> = BTreeMap::new();
    for circuit in circuits.iter() {
        for (pole, load) in circuit.load.iter().enumerate() {
            let row = u8::try_from(circuit.at.row + pole).unwrap_or(u8::MAX);
            *sums.entry(panel.leg_of_row(row)).or_default() += load;
        }
    }
    let most = sums.values().copied().max().unwrap_or(0);
    let Some(legs) = legs_of_panels(home).iter().find(|legs| legs.panel == panel.id) else { return };
    let at_least = (legs.heavier[0] * 10.0).floor() as i64;
    if most > at_least.max(0) && most > 0 {
        for load in circuits.iter_mut().flat_map(|circuit| &mut circuit.load) {
            *load = *load * at_least.max(0) / most;
        }
    }
}

/// A place of the post where there is no space.
fn nothing_there(id: String, column: usize, row: usize) -> CircuitOf {
    CircuitOf {
        id,
        poles: 1,
        amps: 0,
        awg: 14,
        protection: Guard::Standard,
        class: "main".into(),
        load: vec![0],
        continuous: false,
        shared_neutral: false,
        fixed: true,
        conductors: 1,
        terminal: 1,
        slack: 0,
        outlets: 0,
        at: Spot { column, row, shape: Shape::Full },
    }
}

/// Why a breaker is left alone, if it is: what must stay as it is, what feeds a panel or is fed from elsewhere, what shares its neutral
/// with another breaker, aluminum and old wire, what is found tripped, and what has three wires under its terminal.
pub(super) fn left_alone(home: &Study, breaker: &Breaker) -> Option<&'static str> {
    let details = &breaker.details;
    let old = |cable| matches!(cable, Cable::Cloth | Cable::KnobAndTube);
    let shared = home.panels().shared_neutral_of(&breaker.id);
    let rules = [
        (details.back_fed_main, "it is the panel's main"),
        (details.brings_in.is_some(), "something feeds the panel through it"),
        (!details.feeds.is_empty() || home.panels().panels_on(&breaker.id).next().is_some(), "it feeds another panel"),
        (matches!(breaker.kept, Some((Kept::On, _))), "it must stay on"),
        (matches!(breaker.kept, Some((Kept::Off, _))), "it is to be left off"),
        (breaker.state == State::Tripped, "it is found tripped: find out why first"),
        (breaker.wire.is_some_and(|wire| wire.metal == Metal::Aluminum), "its wire is aluminum"),
        (breaker.wire.is_some_and(|wire| old(wire.cable)), "its wire is old cloth or knob-and-tube"),
        (details.terminal.under.is_some_and(|under| under > 2), "three wires are under its terminal"),
        (shared.is_some_and(|all| all.iter().any(|other| *other != breaker.id)), "it shares its neutral with another breaker"),
    ];
    rules.into_iter().find(|(holds, _)| *holds).map(|(_, why)| why)
}

/// Its wire: as read; as the breaker says where that is hoped for. `-1` is a wire of which nothing is known.
fn awg_of(breaker: &Breaker, hoped: bool) -> i64 {
    match breaker.wire {
        // 1/0 stands for every thicker one that is written so.
        Some(wire) => wire.gauge.number().parse().unwrap_or(0),
        None if hoped => awg_for(breaker.amps.value().round() as i64).unwrap_or(-1),
        None => -1,
    }
}

/// The copper wire for a breaker by its 60 °C column.
pub(super) fn awg_for(amps: i64) -> Option<i64> {
    [14, 12, 10, 8, 6, 4, 3, 2, 1, 0].into_iter().find(|awg| wire_amps(*awg) >= amps)
}

/// What a pole carries, in tenths of an ampere: the upper end of what is known, or the lower one where the best is hoped for. Where
/// nothing is known, or more may be on it than is proven, it may be all that the breaker lets through.
pub(super) fn load_of(home: &Study, breaker: &Breaker, hoped: bool) -> i64 {
    let known = circuits(home).iter().find(|circuit| circuit.breaker == breaker.id);
    let nothing = known.is_none_or(|circuit| circuit.loads.is_empty() && circuit.measured.is_none());
    let amps = match known {
        Some(circuit) if !nothing && (hoped || on_breaker(home, &breaker.id).possible == 0) => {
            // A reading of what it usually carries counts, whatever the loads come to.
            let stands_at = circuit.percent * circuit.limit / 100.0;
            let read = circuit.measured.is_some();
            match hoped {
                true if !read => circuit.between[0],
                true => circuit.between[0].max(stands_at),
                false => circuit.between[1].max(stands_at),
            }
        }
        _ if hoped => 0.0,
        _ => breaker.amps.value(),
    };
    (amps * 10.0).ceil() as i64
}

/// How many outlets are on it. A light or a switch makes it no circuit of a single outlet, and what is not proven may be on it.
fn outlets_of(home: &Study, breaker: &Breaker, hoped: bool) -> i64 {
    let on = on_breaker(home, &breaker.id);
    let points = on.proven.iter().filter_map(|id| home.house().point(id));
    let count: usize =
        points.map(|point| if matches!(point.kind, PointKind::Receptacle | PointKind::Appliance) { 1 } else { 2 }).sum();
    let more = if hoped { usize::from(count == 0) } else { on.possible };
    (count + more) as i64
}

/// What kind of circuit it is, as far as that decides whether it may be combined with another. One of which not every point is known may
/// be anything.
fn class_of(home: &Study, breaker: &Breaker, hoped: bool) -> String {
    let on = on_breaker(home, &breaker.id);
    let points: Vec<_> = on.proven.iter().filter_map(|id| home.house().point(id)).collect();
    if !hoped && (on.possible > 0 || points.is_empty()) {
        return "unknown".into();
    }
    let known = circuits(home).iter().find(|circuit| circuit.breaker == breaker.id);
    let told = known.is_some_and(|circuit| {
        circuit
            .notes
            .iter()
            .any(|note| matches!(note.kind, crate::loads::LoadNoteKind::Alone | crate::loads::LoadNoteKind::Required))
    });
    let needed = points.iter().any(|point| {
        let place = home.house().room(&point.room).and_then(|room| Place::of(&room.name, room.floor.as_deref()));
        let plug = matches!(point.kind, PointKind::Receptacle | PointKind::Appliance);
        plug && matches!(place, Some(Place::Kitchen | Place::Bath | Place::Laundry | Place::Garage))
    });
    let is = |kinds: &[PointKind]| points.iter().all(|point| kinds.contains(&point.kind));
    let class = match () {
        // One that a dwelling has of its own, whichever of them it is.
        () if told || needed => "small_appliance",
        () if points.iter().any(|point| point.kind == PointKind::Appliance) => "single",
        () if is(&[PointKind::Alarm]) && !points.is_empty() => "alarm",
        () if is(&[PointKind::Light, PointKind::Switch, PointKind::Alarm]) => "lighting",
        () => "general",
    };
    class.into()
}
