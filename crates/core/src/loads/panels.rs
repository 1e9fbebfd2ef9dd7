//! What each leg of each panel carries, and whether moving breakers to the other leg is worth it.

use std::collections::BTreeMap;

use serde::Serialize;

use super::circuits::{CircuitLoads, OnCircuits, SEASONS, circuits, said};
use super::draws::{Drawn, End, groups};
use super::legs::{LegPanel, LegPanels, LegSpace, LegSystem, LegUnit, LevelDo, Levelled, UnitKind, level, neutral};
use super::peak::{Group, Peak, peak};
use crate::model::{
    Breaker, BreakerId, Interior, Leg, Panel, PanelId, ReadingOf, Season, Service, Tandems, Volts, Wire, ampacity,
    largest_service, legs_of, position,
};
use crate::study::Study;

/// One leg.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct LegLoad {
    /// Which.
    pub leg: Leg,
    /// Exceeded at most one hour in a hundred, in the worse season, in amperes.
    pub expected: f64,
    /// Everything on it at one time.
    pub connected: f64,
}

/// What to do about the legs of a panel and those behind it.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct LevelAdvice {
    /// Whether it is worth it.
    #[serde(rename = "do")]
    pub act: LevelDo,
    /// By readings taken at one time; otherwise by what is expected.
    pub by_readings: bool,
    /// In one or two sentences.
    pub words: String,
    /// Which breaker goes where, with that.
    pub moves: Vec<String>,
    /// The same, for the picture of the post.
    pub marks: Vec<LevelMark>,
    /// The worst leg in percent of its rating, with at most 0, 1, 2 … wires moved.
    pub curve: Vec<f64>,
}

/// A breaker that would go to another space.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct LevelMark {
    /// In which panel.
    pub panel: PanelId,
    /// The breaker.
    pub breaker: BreakerId,
    /// Its number.
    pub number: String,
    /// To which spaces; its own where its hots change places.
    pub to: Vec<u8>,
    /// In words.
    pub words: String,
}

/// What the legs of a panel carry.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct PanelLegs {
    /// The panel.
    pub panel: PanelId,
    /// Its name.
    pub name: String,
    /// What a leg may carry, in amperes: the least of main or feeder breaker, bus and conductors, as far as they are read.
    pub rating: Option<f64>,
    /// What that is: `main breaker`, `bus`, `feeder breaker`, `feeder wire`.
    pub rating_is: &'static str,
    /// Its legs.
    pub legs: Vec<LegLoad>,
    /// The heavier leg: at least and at most, in amperes.
    pub heavier: [f64; 2],
    /// What the neutral carries of what is expected, loads taken as resistance, in amperes.
    pub neutral: f64,
    /// How it stands, in one sentence.
    pub sentence: String,
    /// On the lightest leg a new 120 V load belongs.
    pub new_load_on: Leg,
}

/// The legs of the home.
#[derive(Debug, Clone, Default, PartialEq, Serialize, utoipa::ToSchema)]
pub struct LegsView {
    /// Panel by panel, in the order of entry.
    pub panels: Vec<PanelLegs>,
    /// Loads at points of which nobody knows the breaker: they are on a leg, and not counted here.
    pub not_counted: usize,
    /// Whether levelling is worth it; `null` where something that decides is not read.
    pub advice: Option<LevelAdvice>,
}

/// A service whose legs can be told apart here.
fn is_analysed(panel: &Panel) -> bool {
    let known = matches!(panel.service, Service::SplitPhase | Service::TwoLegs208 | Service::ThreePhase);
    known && panel.details.interior == Interior::Breakers
}

/// The loads on each leg of a panel, those behind its feeders with them.
fn on_legs<'a, 'b>(home: &Study, on: &'b OnCircuits<'a>, panel: &Panel, depth: usize) -> Vec<Vec<&'b Drawn<'a>>> {
    let mut legs: Vec<Vec<&Drawn<'_>>> = vec![Vec::new(); 3];
    if depth > 8 {
        return legs;
    }
    for breaker in home.panels().breakers_of(&panel.id).filter(|breaker| !breaker.details.back_fed_main) {
        let at: Vec<usize> = legs_of(panel, &breaker.at).into_iter().map(|leg| leg as usize).collect();
        for drawn in on.on(&breaker.id) {
            // A load of 120 V on a two-pole is on one of its hots, nobody knows which: it counts on both.
            at.iter().for_each(|leg| legs[*leg].push(drawn));
        }
        for fed in home.panels().panels_on(&breaker.id) {
            for (pole, more) in on_legs(home, on, fed, depth + 1).into_iter().enumerate().take(at.len()) {
                legs[at[pole]].extend(more);
            }
        }
    }
    legs
}

/// The peak of these loads in tenths of an ampere, which is as fine as many loads need.
fn peak_of(loads: &[&Drawn<'_>], season: Season) -> Peak {
    let coarse = |group: Group| match group {
        Group::One(amps, hours) => Group::One((amps + 5) / 10, hours),
        Group::OneOf(each) => Group::OneOf(each.into_iter().map(|(amps, hours)| ((amps + 5) / 10, hours)).collect()),
    };
    let all: Vec<Group> = groups(loads.iter().copied(), season, End::Likely).into_iter().map(coarse).collect();
    peak(&all)
}

fn tenths(amps_x10: i64) -> f64 {
    amps_x10 as f64 / 10.0
}

/// What the conductors of a panel may carry: for a whole dwelling of two legs by the table of services, else their ampacity.
pub(super) fn carried_by(home: &Study, panel: &Panel, conductors: Wire) -> f64 {
    let whole_dwelling = panel.details.fed_by.is_none() && matches!(panel.service, Service::SplitPhase | Service::TwoLegs208);
    let by_table = largest_service(conductors).filter(|_| whole_dwelling);
    by_table.unwrap_or_else(|| ampacity(conductors, home.edition())).value()
}

fn rating_of(home: &Study, panel: &Panel) -> (Option<f64>, &'static str) {
    let feeder = panel.details.fed_by.as_ref().and_then(|id| home.panels().breaker(id));
    let wire = |wire| ampacity(wire, home.edition()).value();
    let limits = [
        (feeder.map(|breaker| breaker.amps.value()), "feeder breaker"),
        (feeder.and_then(|breaker| breaker.wire).map(wire), "feeder wire"),
        (panel.main.map(|main| main.value()), "main breaker"),
        (panel.details.bus.map(|bus| bus.value()), "bus"),
        (panel.details.conductors.map(|conductors| carried_by(home, panel, conductors)), "conductors"),
    ];
    let read = limits.into_iter().filter_map(|(amps, what)| Some((amps?, what)));
    read.min_by(|a, b| a.0.total_cmp(&b.0)).map_or((None, ""), |(amps, what)| (Some(amps), what))
}

fn panel_legs(home: &Study, on: &OnCircuits<'_>, panel: &Panel) -> Option<PanelLegs> {
    let count = panel.service.legs().len();
    let loads = on_legs(home, on, panel, 0);
    if loads.iter().all(Vec::is_empty) {
        return None;
    }
    let all = [Leg::A, Leg::B, Leg::C];
    let by_season = SEASONS.map(|season| {
        let peaks: Vec<Peak> = loads[..count].iter().map(|loads| peak_of(loads, season)).collect();
        let most = peaks.iter().map(|peak| peak.expected_x100).max().unwrap_or(0);
        (most, peaks)
    });
    let (least, peaks) = by_season.into_iter().max_by_key(|(most, _)| *most)?;
    // The heavier leg is above x at most as often as one of them is.
    let above = |x: i64| peaks.iter().map(|peak| peak.day.above(x)).sum::<f64>();
    let highest = peaks.iter().map(|peak| peak.connected_x100).max().unwrap_or(0);
    let (mut from, mut to) = (least, highest.max(least));
    while from < to {
        let middle = (from + to) / 2;
        if above(middle) <= 0.01 + 1e-12 { to = middle } else { from = middle + 1 }
    }
    let legs: Vec<LegLoad> = peaks
        .iter()
        .zip(all)
        .map(|(peak, leg)| LegLoad { leg, expected: tenths(peak.expected_x100), connected: tenths(peak.connected_x100) })
        .collect();
    let carries: Vec<i64> = peaks.iter().map(|peak| peak.expected_x100).collect();
    let system = if panel.service == Service::SplitPhase { LegSystem::SplitPhase } else { LegSystem::Wye };
    let (rating, rating_is) = rating_of(home, panel);
    let heavier = [tenths(least), tenths(to)];
    let heaviest = legs.iter().max_by(|a, b| a.expected.total_cmp(&b.expected))?;
    let lightest = legs.iter().min_by(|a, b| a.expected.total_cmp(&b.expected))?;
    let name = |leg: Leg| format!("{leg:?}");
    let on_leg = format!("Leg {}: {} expected", name(heaviest.leg), said(heaviest.expected));
    let sentence = match rating {
        None => format!("{on_leg}. Its rating is not read, so nothing is said about it."),
        Some(rating) => {
            let percent = (100.0 * heaviest.expected / rating).round();
            let state = if heaviest.expected > rating {
                format!("it is overloaded, though {rating} A on each leg could be carried")
            } else {
                format!("{percent} % of it")
            };
            format!("{on_leg}, the {rating_is} carries {rating} A: {state}.")
        }
    };
    let new_load_on = lightest.leg;
    Some(PanelLegs {
        panel: panel.id.clone(),
        name: panel.name.clone(),
        rating,
        rating_is,
        heavier,
        neutral: neutral(system, &carries),
        sentence,
        new_load_on,
        legs,
    })
}

struct Legs {
    panels: Vec<PanelLegs>,
    not_counted: usize,
}

fn legs(home: &Study) -> &Legs {
    home.once(|| {
        let on = OnCircuits::of(home);
        let analysed = home.panels().all().filter(|panel| is_analysed(panel));
        Legs { panels: analysed.filter_map(|panel| panel_legs(home, &on, panel)).collect(), not_counted: on.elsewhere.len() }
    })
}

/// What each leg of each panel carries.
pub fn legs_of_panels(home: &Study) -> &[PanelLegs] {
    &legs(home).panels
}

/// What each leg of each panel carries, and whether levelling is worth it.
pub fn legs_view(home: &Study) -> LegsView {
    let analysed: Vec<&Panel> = home.panels().all().filter(|panel| is_analysed(panel)).collect();
    let Legs { panels, not_counted } = legs(home);
    let all_are = analysed.len() == home.panels().all().count() && !panels.is_empty();
    LegsView { advice: if all_are { advice(home, &analysed) } else { None }, not_counted: *not_counted, panels: panels.clone() }
}

/// Readings count as taken at one time within these milliseconds.
const AT_ONE_TIME: i64 = 2 * 3_600_000;
/// A circuit below this needs no reading to be left where it is, in amperes.
const SMALL: f64 = 1.0;

/// What each hot of a breaker carries, in tenths of an ampere: by the readings of one time, else what is expected on its circuit.
fn carried(home: &Study, circuit: Option<&CircuitLoads>, breaker: &Breaker, since: i64) -> (Vec<i64>, bool) {
    let of_pole = |pole: usize| {
        home.loads().readings().iter().rev().filter(|reading| !reading.arranged && reading.at.unix_ms() >= since).find_map(
            |reading| match &reading.of {
                ReadingOf::Circuit { breaker: of, pole: read } if *of == breaker.id && usize::from(*read) == pole + 1 => {
                    reading.value.amps_or_watts().0
                }
                _ => None,
            },
        )
    };
    let expected = circuit.map_or(0.0, |circuit| circuit.expected);
    let tenths = |amps: f64| (amps * 10.0).round() as i64;
    let read: Vec<Option<f64>> = (0..breaker.poles()).map(of_pole).collect();
    let known = read.iter().all(Option::is_some) || expected < SMALL;
    (read.into_iter().map(|read| tenths(read.unwrap_or(expected))).collect(), known)
}

/// The panels as the leveller takes them, and whether all amperes are readings of one time.
fn as_leg_panels(home: &Study, analysed: &[&Panel]) -> Option<(LegPanels, bool)> {
    let last = home.loads().readings().iter().map(|reading| reading.at.unix_ms()).max();
    let since = last.map_or(i64::MAX, |last| last - AT_ONE_TIME);
    let by_breaker: BTreeMap<&BreakerId, &CircuitLoads> =
        circuits(home).iter().map(|circuit| (&circuit.breaker, circuit)).collect();
    let mut all_read = last.is_some();
    let mut panels = Vec::new();
    // The panel that the service feeds stands first, each fed panel after its feeder's.
    let mut order: Vec<&Panel> = analysed.to_vec();
    order.sort_by_key(|panel| panel.details.fed_by.is_some());
    for panel in &order {
        let rating = rating_of(home, panel).0?;
        let numbers = panel.every_space();
        let leg = |space: u8| position(panel, space).map_or(0, |(_, row)| panel.leg_of_row(row) as usize);
        let takes = |space: u8| match &panel.details.tandems {
            Tandems::All => true,
            Tandems::In(listed) => listed.contains(&space),
            Tandems::None | Tandems::NotRead => false,
        };
        let mut spaces: Vec<LegSpace> = numbers
            .iter()
            .map(|space| LegSpace { leg: leg(*space), tandem: takes(*space), unit: None, blocked: false })
            .collect();
        let at = |space: u8| numbers.iter().position(|number| *number == space);
        let mut units: Vec<LegUnit> = Vec::new();
        let mut done: Vec<&BreakerId> = Vec::new();
        for breaker in home.panels().breakers_of(&panel.id) {
            if done.contains(&&breaker.id) {
                continue;
            }
            let (amps, known) = carried(home, by_breaker.get(&breaker.id).copied(), breaker, since);
            let halves = breaker.at.iter().any(|slot| slot.half.is_some());
            let feeds = order.iter().position(|fed| fed.details.fed_by.as_ref() == Some(&breaker.id));
            // A feeder carries what the panel behind it does, breaker by breaker.
            all_read &= known || feeds.is_some();
            let shared = home.panels().shared_neutral_of(&breaker.id);
            // What shares a space or a neutral is one unit.
            let group: Vec<&Breaker> = home
                .panels()
                .breakers_of(&panel.id)
                .filter(|other| {
                    let beside = halves && other.at.iter().any(|slot| breaker.at.iter().any(|own| own.space == slot.space));
                    other.id == breaker.id || beside || shared.is_some_and(|shared| shared.contains(&other.id))
                })
                .collect();
            done.extend(group.iter().map(|other| &other.id));
            let held: Vec<usize> = group.iter().flat_map(|other| &other.at).filter_map(|slot| at(slot.space)).collect();
            let id = breaker.id.to_string();
            let unit = |kind, spaces: Vec<usize>, amps_x10| LegUnit {
                id: id.clone(),
                kind,
                spaces,
                amps_x10,
                turn: false,
                feeds: None,
                load: None,
            };
            let all_amps: Vec<i64> = group
                .iter()
                .flat_map(|other| {
                    let (amps, known) = carried(home, by_breaker.get(&other.id).copied(), other, since);
                    all_read &= known || feeds.is_some();
                    amps
                })
                .collect();
            let distinct: std::collections::BTreeSet<usize> = held.iter().copied().collect();
            let on_240 = by_breaker
                .get(&breaker.id)
                .is_some_and(|circuit| circuit.loads.iter().any(|line| Volts::new(line.volts) == Volts::new(240)));
            let legs: std::collections::BTreeSet<usize> = distinct.iter().map(|at| spaces[*at].leg).collect();
            let made = if let Some(feeds) = feeds {
                // Its poles in the order of the legs of the panel that it feeds.
                LegUnit { feeds: Some(feeds), turn: true, ..unit(UnitKind::Feeder, held.clone(), Vec::new()) }
            } else if breaker.details.back_fed_main {
                unit(UnitKind::Fixed, held.clone(), vec![0; held.len()])
            } else if group.len() == 1 && breaker.poles() == 1 && !halves {
                unit(UnitKind::Single, held.clone(), amps)
            } else if halves && distinct.len() == 1 && group.iter().all(|other| other.poles() == 1) && shared.is_none() {
                unit(UnitKind::Tandem, distinct.iter().copied().collect(), all_amps)
            } else if !halves && distinct.len() == held.len() && legs.len() > 1 {
                let load = on_240.then(|| "line-to-line".to_owned());
                LegUnit { turn: !on_240, load, ..unit(UnitKind::Group, held.clone(), all_amps) }
            } else {
                // Quads and what else is built in one piece stay; each space counts what sits in it.
                let mut by_space: BTreeMap<usize, i64> = BTreeMap::new();
                for (space, amps) in held.iter().zip(&all_amps) {
                    *by_space.entry(*space).or_default() += amps;
                }
                unit(UnitKind::Fixed, by_space.keys().copied().collect(), by_space.values().copied().collect())
            };
            for space in &made.spaces {
                spaces[*space].unit = Some(id.clone());
            }
            units.push(made);
        }
        panels.push(LegPanel {
            name: panel.id.to_string(),
            rating_a: rating.floor() as i64,
            legs: panel.service.legs().len(),
            spaces,
            units,
        });
    }
    let wye = analysed.first().is_some_and(|panel| panel.service != Service::SplitPhase);
    let system = if wye { LegSystem::Wye } else { LegSystem::SplitPhase };
    Some((LegPanels { id: String::new(), system, panels }, all_read))
}

/// Three legs are searched, not tabled; beyond so many movable units that takes too long to do for a screen.
const MOST_ON_THREE: usize = 14;

fn advice(home: &Study, analysed: &[&Panel]) -> Option<LevelAdvice> {
    let (panels, by_readings) = as_leg_panels(home, analysed)?;
    let movable = |panel: &LegPanel| panel.units.iter().filter(|unit| unit.kind != UnitKind::Fixed).count();
    if panels.panels.iter().any(|panel| panel.legs == 3 && movable(panel) > MOST_ON_THREE) {
        return None;
    }
    let levelled = level(&panels).ok()?;
    let curve: Vec<f64> = levelled.curve.iter().map(|point| 100.0 * point.ratio).collect();
    let verdict = levelled.verdict;
    let percent = |at: usize| format!("{:.0} %", curve.get(at).or(curve.last()).copied().unwrap_or(0.0));
    let basis =
        if by_readings { "By the readings of one time" } else { "Should every circuit reach what is expected at one time," };
    let moves = usize::try_from(verdict.moves).unwrap_or(0);
    let words = match verdict.act {
        LevelDo::Leave if verdict.why == "nothing to gain" => {
            format!(
                "{basis} the worst leg comes to {} of its rating, and no move makes it less. Leave the breakers where they are.",
                percent(0)
            )
        }
        LevelDo::Leave => {
            format!("{basis} the worst leg comes to {} of its rating. Leave the breakers where they are.", percent(0))
        }
        LevelDo::Level => {
            let wires = if moves == 1 { "one wire".to_owned() } else { format!("{moves} wires") };
            let first = format!(
                "{basis} the worst leg comes to {} of its rating; with {wires} moved, to {}.",
                percent(0),
                percent(moves)
            );
            if by_readings {
                format!(
                    "{first} Only where the wires reach. It is work in the open panel: main off, proven dead, or an electrician."
                )
            } else {
                format!(
                    "{first} That is no reason to open a panel: how far they meet, only amperes tell that were read at one time, on \
                     every circuit of 1 A and more, within two hours."
                )
            }
        }
    };
    // What is expected circuit by circuit seldom meets, and may weigh the legs otherwise than they are: only readings move breakers.
    let marks = if verdict.act == LevelDo::Level && by_readings { marks_of(home, &panels, &levelled, moves) } else { Vec::new() };
    let moves = marks.iter().map(|mark| mark.words.clone()).collect();
    Some(LevelAdvice { act: verdict.act, by_readings, words, moves, marks, curve })
}

fn marks_of(home: &Study, panels: &LegPanels, levelled: &Levelled, moves: usize) -> Vec<LevelMark> {
    let Some(point) = levelled.curve.get(moves) else { return Vec::new() };
    let mut marks = Vec::new();
    for panel in &panels.panels {
        let Some(of) = home.panels().all().find(|known| known.id.to_string() == panel.name) else { continue };
        let numbers = of.every_space();
        for unit in &panel.units {
            let Some(to) = point.witness.get(&unit.id) else { continue };
            let Some(breaker) = home.panels().breakers().find(|breaker| breaker.id.to_string() == unit.id) else { continue };
            let number = home.panels().number(&breaker.id);
            let space = |at: &usize| numbers.get(*at).map_or_else(String::new, u8::to_string);
            let words = match unit.kind {
                UnitKind::Single | UnitKind::Tandem => {
                    format!("{number} to space {}", to.first().map_or_else(String::new, space))
                }
                _ => format!("the hots of {number} change places"),
            };
            let to = to.iter().filter_map(|at| numbers.get(*at).copied()).collect();
            marks.push(LevelMark { panel: of.id.clone(), breaker: breaker.id.clone(), number, to, words });
        }
    }
    marks
}
