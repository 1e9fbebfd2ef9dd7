//! What each circuit carries, and how that stands against its breaker and its wire.

use std::collections::BTreeMap;

use serde::Serialize;

use super::diagnose::{BreakerDiagnosis, diagnose_breaker};
use super::diagnose_heat::{HeatDiagnosis, diagnose_heat};
use super::draws::{Drawn, End, LoadLine, TakenFrom, drawn, groups};
use super::drop::{Drop, Run, voltage_drop};
use super::notes::{LoadNote, notes, required};
use super::peak::{Group, may_not_run_together, peak};
use super::trip_window::{TripWindow, trip_window};
use crate::model::{
    Amps, Breaker, BreakerId, LoadId, Moment, PointId, Reading, ReadingOf, Season, Volts, ampacity, legs_of, listed,
};
use crate::study::Study;
use crate::trace::on_breaker;
use crate::walking::cable_run;
use crate::wording::wording;

/// How a circuit stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stands {
    /// Nothing is entered for it.
    Nothing,
    /// Below 80 % of what it may carry.
    Room,
    /// 80 % and more.
    Near,
    /// More than it may carry.
    Over,
    /// It is likely to be carried, and what is not known can make it too much: it counts as the higher.
    TooClose,
}

/// Loads that may not run together.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct NotTogether {
    /// The breaker.
    pub breaker: BreakerId,
    /// `11`: as it is said anywhere in the home.
    pub number: String,
    /// The loads.
    pub loads: Vec<LoadId>,
    /// `kettle and toaster`.
    pub words: String,
    /// Their sum, in amperes.
    pub amps: f64,
    /// What the breaker carries.
    pub of: f64,
    /// Hours in which they meet, a year; by chance, as if each ran by itself.
    pub hours_a_year: f64,
}

/// A reading of the whole circuit.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct CircuitReading {
    /// In amperes, the highest of its poles at that reading.
    pub amps: f64,
    /// When.
    pub at: Moment,
    /// By whom.
    pub by: String,
    /// With what: `clamp`.
    pub with: String,
    /// What ran.
    pub running: Vec<String>,
    /// That was switched on for the reading, so that it is not what the circuit usually carries.
    pub arranged: bool,
}

/// What happens at a current, for the picture of the latest times.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct AtAmps {
    /// The current.
    pub amps: f64,
    /// What the breaker does.
    pub window: TripWindow,
    /// The same in words.
    pub words: String,
}

/// The latest times of this breaker, as steps.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, utoipa::ToSchema)]
pub struct TripSteps {
    /// Up to here it holds, in amperes.
    pub holds: f64,
    /// From here on it must have tripped after `minutes_135`.
    pub amps_135: f64,
    /// In minutes.
    pub minutes_135: u32,
    /// From here on it must have tripped after `minutes_200`.
    pub amps_200: f64,
    /// In minutes.
    pub minutes_200: u32,
}

/// One circuit: what is on it, what that comes to, how it stands.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct CircuitLoads {
    /// The breaker.
    pub breaker: BreakerId,
    /// `11`, `G3`: as it is said anywhere in the home.
    pub number: String,
    /// What it feeds as far as proven, else what the card claims; empty where neither is known.
    pub about: String,
    /// Whether that is only what the card claims.
    pub only_claimed: bool,
    /// How many points are proven on it.
    pub proven: usize,
    /// How many more may be on it.
    pub possible: usize,
    /// The panel that it feeds; what that carries counts on its heavier leg.
    pub feeds: Option<String>,
    /// The breaker, in amperes.
    pub breaker_amps: f64,
    /// The wire, in amperes, where it was read.
    pub wire_amps: Option<f64>,
    /// `12 AWG copper`.
    pub wire: Option<String>,
    /// The smaller of breaker and wire.
    pub limit: f64,
    /// Exceeded at most one hour in a hundred, in the worse season, and never less than its largest load.
    pub expected: f64,
    /// The same of the busiest hour of the day.
    pub busiest: f64,
    /// Which hour that is, 0 to 23.
    pub busiest_hour: usize,
    /// Everything at one time.
    pub connected: f64,
    /// What is expected, with what runs three hours or more at 125 %.
    pub counted: f64,
    /// The least and the most that `counted` can be, by what is not known.
    pub between: [f64; 2],
    /// The last reading of the whole circuit.
    pub measured: Option<CircuitReading>,
    /// `counted`, or what was measured where that is more, in percent of the limit.
    pub percent: f64,
    /// How it stands.
    pub stands: Stands,
    /// All of this in one or two sentences.
    pub sentence: String,
    /// The load whose reading would settle whether it is too much, where that is open.
    pub read_next: Option<String>,
    /// What is on it.
    pub loads: Vec<LoadLine>,
    /// Points proven on it of which nobody has said what is there.
    pub without_load: Vec<PointId>,
    /// What may not run together, the likeliest first.
    pub not_together: Vec<NotTogether>,
    /// More sets than are told.
    pub more_sets: bool,
    /// A reading that does not agree with what is entered, as a question.
    pub disagrees: Option<String>,
    /// What a rule says of its loads.
    pub notes: Vec<LoadNote>,
    /// What volts at its breaker say, where they were read.
    pub diagnosis: Option<BreakerDiagnosis>,
    /// What its last thermal picture says.
    pub heat: Option<HeatDiagnosis>,
    /// What its run loses, to the point farthest by the plan.
    pub drop: Option<RunDrop>,
    /// The latest times of its breaker.
    pub steps: Option<TripSteps>,
}

/// What the run to a point loses.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct RunDrop {
    /// To which point.
    pub to: String,
    /// The run by the plan, in millimeters; an estimate.
    pub run_mm: i32,
    /// At this current, in amperes.
    pub at_amps: f64,
    /// What is lost.
    #[serde(flatten)]
    pub drop: Drop,
}

/// The loads of a home, circuit by circuit.
pub(super) struct OnCircuits<'a> {
    by_breaker: BTreeMap<&'a BreakerId, Vec<Drawn<'a>>>,
    /// Loads at points of which nobody knows the breaker.
    pub(super) elsewhere: Vec<Drawn<'a>>,
}

impl<'a> OnCircuits<'a> {
    pub(super) fn of(home: &'a Study) -> Self {
        let mut breaker_of: BTreeMap<&PointId, &BreakerId> = BTreeMap::new();
        for breaker in home.panels().breakers() {
            breaker_of.extend(on_breaker(home, &breaker.id).proven.iter().map(|point| (point, &breaker.id)));
        }
        let mut circuits = Self { by_breaker: BTreeMap::new(), elsewhere: Vec::new() };
        for load in home.loads().all() {
            let drawn = drawn(home, load);
            match breaker_of.get(&load.point) {
                Some(breaker) => circuits.by_breaker.entry(*breaker).or_default().push(drawn),
                None => circuits.elsewhere.push(drawn),
            }
        }
        for (breaker, all) in &mut circuits.by_breaker {
            narrow_by_readings(home, breaker, all);
        }
        circuits
    }

    pub(super) fn on(&self, breaker: &BreakerId) -> &[Drawn<'a>] {
        self.by_breaker.get(breaker).map_or(&[], Vec::as_slice)
    }
}

/// What may run on a shared circuit beside what is entered, in amperes (our estimate).
pub(super) const UNLISTED: f64 = 1.0;

/// What a reading of a circuit says of its loads together: which ran, and amperes at least and at most.
struct TogetherRead {
    /// Places in the list of its loads.
    ran: Vec<usize>,
    /// What was read, as on the display.
    words: String,
    amps: [f64; 2],
}

/// Whether these two never run at one time: as somebody said, or because each has a season of its own.
pub(super) fn never_together(a: &Drawn<'_>, b: &Drawn<'_>) -> bool {
    let in_one_season = SEASONS.into_iter().any(|season| a.runs_in(season) && b.runs_in(season));
    a.load.never_with.contains(&b.load.id) || b.load.never_with.contains(&a.load.id) || !in_one_season
}

/// By how much currents of these power factors may come to less together than added up: they do not peak at one moment. The sum is at
/// least the cosine of half the widest angle between them times what they add up to (arithmetic of phasors).
fn least_together(factors: impl Iterator<Item = [f64; 2]>) -> f64 {
    let angles = factors.fold([f64::INFINITY, 0.0_f64], |[least, most], [low, high]| {
        [least.min(high.clamp(-1.0, 1.0).acos()), most.max(low.clamp(-1.0, 1.0).acos())]
    });
    ((angles[1] - angles[0]).max(0.0) / 2.0).cos()
}

/// The readings of a circuit for which its loads were switched on; what else is written down as running may have run or not. On a
/// breaker of several poles nobody knows on which a load of 120 V is. Loads that never run together did not all run.
fn together_read(home: &Study, breaker: &BreakerId, all: &[Drawn<'_>]) -> Vec<TogetherRead> {
    let mut found = Vec::new();
    let one_pole = home.panels().breaker(breaker).is_some_and(|breaker| breaker.poles() == 1);
    if !one_pole && all.iter().any(|drawn| drawn.line.volts != 240) {
        return found;
    }
    for reading in home.loads().readings() {
        if !reading.arranged
            || reading.running.is_empty()
            || !matches!(&reading.of, ReadingOf::Circuit { breaker: of, .. } if of == breaker)
        {
            continue;
        }
        let at = |load: &LoadId| all.iter().position(|drawn| drawn.load.id == *load && drawn.load.described <= reading.nth);
        // A load that was described anew since, or moved away, makes the sum one of other things.
        let Some(ran) = reading.running.iter().map(at).collect::<Option<Vec<usize>>>() else { continue };
        if ran.iter().any(|a| ran.iter().any(|b| a != b && never_together(&all[*a], &all[*b]))) {
            continue;
        }
        let share = reading.with.share_off();
        let amps = match reading.value.amps_or_watts() {
            (Some(amps), _) => {
                let together = least_together(ran.iter().map(|at| all[*at].factor));
                [amps * (1.0 - share), amps * (1.0 + share) / together]
            }
            (None, watts) => {
                // Watts are amperes by the power factor of whatever ran.
                let factor = |end: usize, better: fn(f64, f64) -> f64| ran.iter().map(|at| all[*at].factor[end]).reduce(better);
                let volts = f64::from(ran.first().map_or(120, |at| all[*at].line.volts));
                let off = reading.value.watts_off();
                let at = |off: f64, factor: Option<f64>| (watts.unwrap_or(0.0) + off).max(0.0) / (volts * factor.unwrap_or(1.0));
                [at(-off, factor(1, f64::max)) * (1.0 - share), at(off, factor(0, f64::min)) * (1.0 + share)]
            }
        };
        found.push(TogetherRead { ran, words: reading.value.words(), amps });
    }
    found
}

/// What was read with all that is entered running, in amperes at most, and what does not agree in it.
pub(super) fn whole_read(home: &Study, breaker: &BreakerId, all: &[Drawn<'_>]) -> (Option<f64>, Option<String>) {
    let mut most = None;
    let mut disagrees = None;
    for read in together_read(home, breaker, all).into_iter().filter(|read| read.ran.len() == all.len()) {
        let sum = |end: fn(&LoadLine) -> f64| read.ran.iter().map(|at| end(&all[*at].line)).sum::<f64>();
        let (lows, highs) = (sum(|line| line.low), sum(|line| line.high));
        let words = &read.words;
        (most, disagrees) = if highs + UNLISTED < read.amps[0] {
            let said = format!(
                "{words} were read with all that is listed running, which takes {highs:.1} A at most. What else runs on it?"
            );
            (None, Some(said))
        } else if lows > read.amps[1] {
            let said = format!(
                "{words} were read with all that is listed running, which takes {lows:.1} A at least. Did all of it run?"
            );
            (None, Some(said))
        } else {
            (Some(read.amps[1]), None)
        };
    }
    (most, disagrees)
}

/// A sum that was read bounds each of its parts: none takes more than the sum less the least of the others, or less than the sum
/// less the most of the others and of what is not entered. A part that was read itself stays as it was read.
fn narrow_by_readings(home: &Study, breaker: &BreakerId, all: &mut [Drawn<'_>]) {
    let read: Vec<(Vec<usize>, [f64; 2])> =
        together_read(home, breaker, all).into_iter().map(|read| (read.ran, read.amps)).collect();
    for (ran, [least, most]) in read {
        let sum = |all: &[Drawn<'_>], end: fn(&LoadLine) -> f64| ran.iter().map(|at| end(&all[*at].line)).sum::<f64>();
        let (lows, highs) = (sum(all, |line| line.low), sum(all, |line| line.high));
        // Parts that cannot make the sum: something else ran, or one of them is not what it is said to be. Then it bounds nothing.
        if lows > most || highs + UNLISTED < least {
            continue;
        }
        for at in &ran {
            let line = &mut all[*at].line;
            if matches!(line.taken_from, TakenFrom::Reading { .. }) {
                continue;
            }
            let high = line.high.min(most - (lows - line.low));
            let low = line.low.max(least - UNLISTED - (highs - line.high));
            if low <= high {
                line.low = low;
                line.high = high;
                line.amps = line.amps.clamp(low, high);
            }
        }
    }
}

/// Peaks of groups in the worse season.
#[derive(Clone, Copy, Default)]
pub(super) struct Sums {
    pub(super) expected: i64,
    pub(super) busiest: i64,
    pub(super) busiest_hour: usize,
    pub(super) connected: i64,
    /// A quarter of what runs three hours or more, as far as it is expected at all.
    pub(super) quarter: i64,
}

impl Sums {
    pub(super) const fn counted(self) -> i64 {
        self.expected + self.quarter
    }
}

pub(super) const SEASONS: [Season; 2] = [Season::Heat, Season::Cool];

fn of_season(groups: &[Group], continuous: i64) -> Sums {
    let peak = peak(groups);
    // A load that runs for minutes a day is below one hour in a hundred by itself, and runs all the same.
    let largest = groups.iter().map(Group::most_x100).max().unwrap_or(0);
    let expected = peak.expected_x100.max(largest);
    Sums {
        expected,
        busiest: peak.busiest_x100.max(expected),
        busiest_hour: peak.busiest_hour,
        connected: peak.connected_x100,
        quarter: continuous.min(expected) / 4,
    }
}

/// What these loads come to on one hot.
pub(super) fn sums(all: &[Drawn<'_>], end: End) -> Sums {
    let season = |season: Season| {
        let continuous = all.iter().filter(|drawn| drawn.line.continuous && drawn.runs_in(season));
        of_season(&groups(all, season, end), continuous.map(|drawn| drawn.amps_x100(end)).sum())
    };
    SEASONS.map(season).into_iter().max_by_key(|sums| (sums.counted(), sums.connected)).unwrap_or_default()
}

/// What a feeder carries on its heavier leg: the loads of the panels behind it, leg by leg.
fn fed_sums(home: &Study, on: &OnCircuits<'_>, feeder: &BreakerId, end: End) -> Sums {
    let season = |season: Season| {
        let legs = fed_groups(home, on, feeder, (season, end), 0);
        let each = legs.into_iter().map(|(groups, continuous)| of_season(&groups, continuous));
        each.max_by_key(|sums| (sums.counted(), sums.connected)).unwrap_or_default()
    };
    SEASONS.map(season).into_iter().max_by_key(|sums| (sums.counted(), sums.connected)).unwrap_or_default()
}

/// Panels behind panels, as deep as anybody builds them.
const DEEPEST: usize = 8;

/// For each leg of what a breaker feeds: its groups, and what of them runs three hours or more.
fn fed_groups(
    home: &Study,
    on: &OnCircuits<'_>,
    feeder: &BreakerId,
    (season, end): (Season, End),
    depth: usize,
) -> Vec<(Vec<Group>, i64)> {
    let mut legs = vec![(Vec::new(), 0_i64); 3];
    for panel in home.panels().panels_on(feeder).filter(|_| depth < DEEPEST) {
        for breaker in home.panels().breakers_of(&panel.id) {
            let at: Vec<usize> = legs_of(panel, &breaker.at).into_iter().map(|leg| leg as usize).collect();
            let own = on.on(&breaker.id);
            let continuous: i64 =
                own.iter().filter(|drawn| drawn.line.continuous && drawn.runs_in(season)).map(|drawn| drawn.amps_x100(end)).sum();
            for leg in &at {
                // A load of 240 V is on both; one of 120 V on a two-pole is counted on both, because nobody knows on which it is.
                legs[*leg].0.extend(groups(own, season, end));
                legs[*leg].1 += continuous;
            }
            let behind = fed_groups(home, on, &breaker.id, (season, end), depth + 1);
            for (pole, (more, continuous)) in behind.into_iter().enumerate().take(at.len()) {
                legs[at[pole]].0.extend(more);
                legs[at[pole]].1 += continuous;
            }
        }
    }
    legs
}

fn amps(x100: i64) -> f64 {
    x100 as f64 / 100.0
}

/// `16.3 A`.
pub(super) fn said(amps: f64) -> String {
    format!("{:.1} A", amps)
}

fn last_reading(home: &Study, breaker: &BreakerId) -> Option<CircuitReading> {
    let of_it = |reading: &&Reading| matches!(&reading.of, ReadingOf::Circuit { breaker: of, .. } if of == breaker);
    let amps = |reading: &Reading| reading.value.amps_or_watts().0;
    let last = home.loads().readings().iter().rev().filter(of_it).find(|reading| amps(reading).is_some())?;
    // Poles that were read one after the other, within ten minutes, are one reading.
    let together = home.loads().readings().iter().filter(of_it);
    let together = together
        .filter(|reading| reading.arranged == last.arranged && (reading.at.unix_ms() - last.at.unix_ms()).abs() <= 600_000);
    let highest = together.filter_map(amps).fold(0.0, f64::max);
    let name = |load: &LoadId| home.loads().load(load).map(|load| load.name.clone());
    Some(CircuitReading {
        amps: highest,
        at: last.at,
        by: last.by.clone(),
        with: last.with.word().into(),
        running: last.running.iter().filter_map(name).collect(),
        arranged: last.arranged,
    })
}

/// What a reading says that the circuit usually carries, in amperes; 0 where what ran was switched on for it.
pub(super) fn usual_reading(read: Option<&CircuitReading>) -> f64 {
    read.filter(|read| !read.arranged).map_or(0.0, |read| read.amps)
}

const fn band(percent: f64) -> Stands {
    if percent > 100.0 {
        Stands::Over
    } else if percent >= 80.0 {
        Stands::Near
    } else {
        Stands::Room
    }
}

struct Circuits(Vec<CircuitLoads>);

/// Every circuit, in the order of the panels.
pub fn circuits(home: &Study) -> &[CircuitLoads] {
    let work_out = || {
        let on = OnCircuits::of(home);
        let of_panel = home.panels().all().flat_map(|panel| {
            let mut breakers: Vec<&Breaker> = home.panels().breakers_of(&panel.id).collect();
            breakers.sort_by_key(|breaker| breaker.at.first().map(|slot| (slot.space, slot.half)));
            breakers
        });
        Circuits(of_panel.map(|breaker| circuit(home, &on, breaker)).collect())
    };
    &home.once(work_out).0
}

fn circuit(home: &Study, on: &OnCircuits<'_>, breaker: &Breaker) -> CircuitLoads {
    let number = home.panels().number(&breaker.id);
    let all = on.on(&breaker.id);
    let known = on_breaker(home, &breaker.id);
    let feeds = home.panels().panels_on(&breaker.id).next().map(|panel| panel.name.clone());
    let at = |end: End| {
        let own = sums(all, end);
        let fed = if feeds.is_some() { fed_sums(home, on, &breaker.id, end) } else { Sums::default() };
        // A breaker feeds points or a panel; where it does both, both count.
        Sums {
            expected: own.expected + fed.expected,
            busiest: own.busiest + fed.busiest,
            busiest_hour: if fed.busiest > own.busiest { fed.busiest_hour } else { own.busiest_hour },
            connected: own.connected + fed.connected,
            quarter: own.quarter + fed.quarter,
        }
    };
    let (likely, low, mut high) = (at(End::Likely), at(End::Low), at(End::High));
    let (whole, disagrees) = whole_read(home, &breaker.id, all);
    if let Some(most) = whole.filter(|_| feeds.is_none()).map(|amps| (amps * 100.0).ceil() as i64) {
        // Never more than was read with everything on.
        high.expected = high.expected.min(most.max(likely.expected));
    }
    let wire_amps = breaker.wire.map(|wire| ampacity(wire, home.edition()).value()).filter(|amps| *amps > 0.0);
    let breaker_amps = breaker.amps.value();
    let limit = wire_amps.map_or(breaker_amps, |wire| wire.min(breaker_amps));
    let measured = last_reading(home, &breaker.id);
    let usual = usual_reading(measured.as_ref());
    let percent_of = |counted: f64| 100.0 * usual.max(counted) / limit;
    let counted = amps(likely.counted());
    let between = [amps(low.counted()).min(counted), amps(high.counted()).max(counted)];
    let percent = percent_of(counted);
    let anything = likely.connected > 0 || high.connected > 0 || measured.is_some();
    // Whether it is too much is what has to be settled; how near it comes is told by what is likely.
    let over = between.map(|counted| percent_of(counted) > 100.0);
    let stands = if !anything {
        Stands::Nothing
    } else if over[1] && percent <= 100.0 {
        Stands::TooClose
    } else {
        band(percent)
    };
    let claim = breaker.claim.clone().unwrap_or_default();
    let worded = wording(home, &breaker.id);
    let loads: Vec<(i64, [f64; 24])> = all.iter().map(|drawn| (drawn.amps_x100(End::Likely), drawn.hours)).collect();
    let never = |a: usize, b: usize| never_together(&all[a], &all[b]);
    let limit_x100 = (limit * 100.0).round() as i64;
    let (sets, more_sets) = may_not_run_together(&loads, limit_x100, &never);
    let not_together = sets.into_iter().map(|set| {
        let names: Vec<&str> = set.loads.iter().map(|at| all[*at].line.name.as_str()).collect();
        NotTogether {
            breaker: breaker.id.clone(),
            number: number.clone(),
            loads: set.loads.iter().map(|at| all[*at].load.id.clone()).collect(),
            words: listed(&names),
            amps: amps(set.sum_x100),
            of: limit,
            hours_a_year: set.meet * 24.0 * 365.0,
        }
    });
    let widest = all.iter().max_by(|a, b| (a.line.high - a.line.low).total_cmp(&(b.line.high - b.line.low)));
    let with_load: Vec<&PointId> = all.iter().map(|drawn| &drawn.load.point).collect();
    let mut circuit = CircuitLoads {
        breaker: breaker.id.clone(),
        about: if worded.is_empty() { claim } else { worded.clone() },
        only_claimed: worded.is_empty(),
        proven: known.proven.len(),
        possible: known.possible,
        feeds,
        breaker_amps,
        wire_amps,
        wire: breaker.wire.map(crate::model::Wire::words),
        limit,
        expected: amps(likely.expected),
        busiest: amps(likely.busiest),
        busiest_hour: likely.busiest_hour,
        connected: amps(likely.connected),
        counted,
        between,
        measured,
        percent,
        stands,
        sentence: String::new(),
        read_next: widest.filter(|_| over[0] != over[1]).map(|drawn| drawn.line.name.clone()),
        without_load: known.proven.iter().filter(|point| !with_load.contains(point)).cloned().collect(),
        not_together: not_together.collect(),
        more_sets,
        disagrees,
        notes: notes(home, breaker, all).into_iter().chain(required(home, breaker)).collect(),
        diagnosis: diagnose_breaker(home, breaker),
        heat: diagnose_heat(home, breaker),
        drop: run_drop(home, breaker, all),
        steps: steps(breaker.amps),
        loads: all.iter().map(|drawn| drawn.line.clone()).collect(),
        number,
    };
    circuit.sentence = sentence(&circuit);
    circuit
}

fn sentence(circuit: &CircuitLoads) -> String {
    let CircuitLoads { expected, counted, limit, connected, .. } = circuit;
    let of =
        if circuit.wire_amps.is_some_and(|wire| wire < circuit.breaker_amps) { "what its wire may carry" } else { "its breaker" };
    let limit_said = said(*limit);
    let all_on = |amps: f64| format!("All on at once, {}: {}", said(amps), lower_first(&what_happens(circuit, amps).1));
    let unprotected = || if *expected > *limit { wire_words(circuit, *expected) } else { String::new() };
    let head = match circuit.stands {
        Stands::Nothing if circuit.proven > 0 => return "Nobody has said yet what is on it.".into(),
        Stands::Nothing => return "Nothing is known to be on it.".into(),
        Stands::Over if expected > limit => {
            format!("{} expected, which is more than {of}, {limit_said}.{}", said(*expected), unprotected())
        }
        Stands::Over if counted > limit => {
            format!(
                "{} expected; what runs three hours or more counts 125 %, which makes {} on {limit_said}.",
                said(*expected),
                said(*counted)
            )
        }
        Stands::Over => format!(
            "{} were read, which is more than {of}, {limit_said}.",
            said(circuit.measured.as_ref().map_or(0.0, |read| read.amps))
        ),
        Stands::Near if counted > expected => format!(
            "{} expected; what runs three hours or more counts 125 %, which makes {} of {limit_said}.",
            said(*expected),
            said(*counted)
        ),
        Stands::Near => format!("{} expected of {limit_said}: 80 % or more of {of}.", said(*expected)),
        Stands::TooClose => format!(
            "Too close to call: between {} and {} of {limit_said}, so it counts as the higher.",
            said(circuit.between[0]),
            said(circuit.between[1])
        ),
        Stands::Room => format!("{} expected of {limit_said}.", said(*expected)),
    };
    if connected > expected { format!("{head} {}", all_on(*connected)) } else { head }
}

/// What the breaker does at this current, and in words, with what its wire says to that.
fn what_happens(circuit: &CircuitLoads, amps: f64) -> (TripWindow, String) {
    let window = trip_window(Amps::new(circuit.breaker_amps), Amps::new(amps));
    (window, format!("{window}{}", wire_words(circuit, amps)))
}

/// A breaker that is larger than its wire holds what the wire may not carry.
fn wire_words(circuit: &CircuitLoads, amps: f64) -> String {
    match circuit.wire_amps {
        Some(wire) if wire < circuit.breaker_amps && amps > wire => {
            format!(" Its wire may carry only {}, and the breaker does not protect it: switch loads off.", said(wire))
        }
        _ => String::new(),
    }
}

fn lower_first(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or_else(String::new, |first| first.to_lowercase().chain(chars).collect())
}

fn run_drop(home: &Study, breaker: &Breaker, all: &[Drawn<'_>]) -> Option<RunDrop> {
    let wire = breaker.wire?;
    let points = &on_breaker(home, &breaker.id).proven;
    let runs = points.iter().filter_map(|point| Some((point, cable_run(home, &breaker.panel, point)?.length)));
    let (point, run) = runs.max_by_key(|(_, run)| *run)?;
    let of_point = home.house().point(point)?;
    let on_two_hots = of_point.volts == Volts::new(240);
    let carries = amps(sums(all, End::Likely).expected).min(breaker.amps.value());
    if carries <= 0.0 {
        return None;
    }
    let volts = if on_two_hots { 240.0 } else { 120.0 };
    let drop = voltage_drop(wire, Run::TwoWire, Amps::new(carries), run, volts)?;
    Some(RunDrop { to: home.house().place(point), run_mm: run.millimeters(), at_amps: carries, drop })
}

fn steps(rating: Amps) -> Option<TripSteps> {
    let at = |times: f64| match trip_window(rating, Amps::new(rating.value() * times)) {
        TripWindow::TripsWithin { minutes } => Some(minutes),
        _ => None,
    };
    let rating = rating.value();
    Some(TripSteps {
        holds: rating,
        amps_135: rating * 1.35,
        minutes_135: at(1.35)?,
        amps_200: rating * 2.0,
        minutes_200: at(2.0)?,
    })
}

/// What these loads of a circuit take while they run, and what its breaker does then.
pub fn while_running(home: &Study, breaker: &BreakerId, running: &[LoadId]) -> Option<AtAmps> {
    let circuit = circuits(home).iter().find(|circuit| circuit.breaker == *breaker)?;
    let hundredths = |line: &LoadLine| (line.amps * 100.0).round() as i64;
    let sum: i64 = circuit.loads.iter().filter(|line| running.contains(&line.load)).map(hundredths).sum();
    let (window, words) = what_happens(circuit, amps(sum));
    Some(AtAmps { amps: amps(sum), window, words })
}

/// Where a load could go, and what that changes.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct LoadCouldGo {
    /// To the circuit of this breaker.
    pub breaker: BreakerId,
    /// `3`.
    pub number: String,
    /// What it feeds.
    pub about: String,
    /// In percent of its limit now.
    pub percent_now: f64,
    /// And with the load.
    pub percent_then: f64,
    /// What is expected there then, in amperes.
    pub expected_then: f64,
    /// With what there it may not run at one time, the likeliest first: `kettle`, `iron and fan`.
    pub not_with: Vec<String>,
}

/// So many sets that may not run together are told of a circuit.
const SETS_TOLD: usize = 3;

/// The smallest sets of `others` with which `moved` is more than the limit.
fn not_with(moved: &Drawn<'_>, others: &[Drawn<'_>], limit: f64) -> Vec<String> {
    let all: Vec<&Drawn<'_>> = std::iter::once(moved).chain(others).collect();
    let loads: Vec<(i64, [f64; 24])> = all.iter().map(|drawn| (drawn.amps_x100(End::Likely), drawn.hours)).collect();
    let never = |a: usize, b: usize| never_together(all[a], all[b]);
    let (sets, _) = may_not_run_together(&loads, (limit * 100.0).round() as i64, &never);
    let with_it = sets.into_iter().filter(|set| set.loads.contains(&0));
    let names = with_it.map(|set| {
        let names: Vec<&str> = set.loads.iter().filter(|at| **at != 0).map(|at| all[*at].line.name.as_str()).collect();
        listed(&names)
    });
    names.filter(|names| !names.is_empty()).take(SETS_TOLD).collect()
}

/// What changes if one load moves to another circuit.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct LoadMoves {
    /// The load.
    pub load: LoadId,
    /// `space heater`.
    pub name: String,
    /// What is expected on its own circuit without it, in amperes.
    pub expected_without: f64,
    /// In percent of its limit.
    pub percent_without: f64,
    /// Other circuits of its voltage, the lightest first.
    pub to: Vec<LoadCouldGo>,
}

/// What changes if this load moves; `None` where nobody knows its circuit.
pub fn load_moves(home: &Study, load: &LoadId) -> Option<LoadMoves> {
    let own = circuits(home).iter().find(|circuit| circuit.loads.iter().any(|line| line.load == *load))?;
    let on = OnCircuits::of(home);
    let moved = home.loads().load(load)?;
    let without: Vec<Drawn<'_>> = home
        .loads()
        .all()
        .filter(|other| own.loads.iter().any(|line| line.load == other.id) && other.id != *load)
        .map(|load| drawn(home, load))
        .collect();
    let remains = sums(&without, End::Likely);
    let poles = home.panels().breaker(&own.breaker)?.poles();
    let others = circuits(home).iter().filter(|circuit| {
        let breaker = home.panels().breaker(&circuit.breaker);
        circuit.breaker != own.breaker
            && circuit.feeds.is_none()
            && circuit.proven > 0
            && breaker.is_some_and(|breaker| breaker.poles() == poles && !breaker.details.back_fed_main)
    });
    let mut to: Vec<LoadCouldGo> = others
        .map(|circuit| {
            let there: Vec<Drawn<'_>> = on.on(&circuit.breaker).iter().map(|other| drawn(home, other.load)).collect();
            let not_with = not_with(&drawn(home, moved), &there, circuit.limit);
            let then = sums(&there.into_iter().chain([drawn(home, moved)]).collect::<Vec<_>>(), End::Likely);
            LoadCouldGo {
                breaker: circuit.breaker.clone(),
                number: circuit.number.clone(),
                about: circuit.about.clone(),
                percent_now: circuit.percent,
                percent_then: (100.0 * amps(then.counted()) / circuit.limit).max(circuit.percent),
                expected_then: amps(then.expected),
                not_with,
            }
        })
        .collect();
    to.sort_by(|a, b| a.percent_then.total_cmp(&b.percent_then));
    Some(LoadMoves {
        load: load.clone(),
        name: moved.name.clone(),
        expected_without: amps(remains.expected),
        percent_without: 100.0 * amps(remains.counted()) / own.limit,
        to,
    })
}
