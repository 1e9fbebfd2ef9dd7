//! The lesson “measure”: what meters show in a made-up house whose loads are hidden, and how good its survey is.
//!
//! In: a home that was drawn for it, and what is held where. Out: what the instrument shows, by the circuit solver and with the
//! errors that such things have; the marks. Errors and what runs beside are invented for practice, no source.

use serde::Serialize;

use super::electric::{Electric, HiddenFault, Runs};
use super::measure::{MeasureHouse, survey_through};
use super::mishaps::chance;
use crate::loads::trip_window::{TripWindow, trip_window};
use crate::loads::{BreakerState, ReadingMinutes, Stands, SurveyAsked, diagnose_breaker, survey, survey_is_wrong};
use crate::logbook::{Fact, Home, Logbook};
use crate::model::{
    Amps, BreakerId, BreakerVolts, Lesson, LoadId, PointId, ReadWith, Reading, ReadingOf, Recipe, SurveyWish, Volts, so_many,
};
use crate::study::Study;
use crate::trace::{legs_apart, too_much_read};

/// What is measured.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum MeasuredAt {
    /// A load or a circuit, with that.
    Of(ReadingOf, ReadWith),
    /// Volts at a point.
    Point(PointId),
    /// Volts at a breaker, with its loads on.
    Breaker(BreakerId),
}

/// What a meter shows.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct MeterShows {
    /// In words: `7.85 A`.
    pub words: String,
    /// Amperes.
    pub amps: Option<f64>,
    /// Watts.
    pub watts: Option<f64>,
    /// Volts.
    pub volts: Option<f64>,
    /// Volts at a breaker.
    pub at_breaker: Option<BreakerVolts>,
    /// What to mind.
    pub caution: Option<String>,
}

/// What the utility's meter shows at a moment.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, utoipa::ToSchema)]
pub struct UtilityShows {
    /// Seconds since one began to look.
    pub second: u32,
    /// Kilowatts on its display.
    pub kw: f64,
    /// Flashes of its lamp since one began to look, one for each watt-hour.
    pub flashes: u32,
}

/// The utility's meter of a made-up house, with what runs in it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct UtilityMeter {
    recipe: Recipe,
    watts: f64,
}

/// Something that switches by itself takes so many watts, for so many seconds of so many.
const COMES_AND_GOES: (f64, u64, u64) = (140.0, 240, 600);

impl UtilityMeter {
    /// Watts at this second.
    fn watts_at(&self, second: u64) -> f64 {
        let (watts, on, of) = COMES_AND_GOES;
        let begun = (chance(self.recipe, "comes and goes", "", 0) * of as f64) as u64;
        let comes = if (second + begun) % of < on { watts } else { 0.0 };
        let wanders = 6.0 * (chance(self.recipe, "wanders", "", second as usize) - 0.5);
        self.watts + comes + wanders
    }

    /// What it shows so many seconds after one began to look, of a clock that runs on.
    pub fn shows(&self, begun: u64, second: u32) -> UtilityShows {
        let joules: f64 = (0..u64::from(second)).map(|at| self.watts_at(begun + at)).sum();
        let kw = (self.watts_at(begun + u64::from(second)) / 10.0).round() / 100.0;
        UtilityShows { second, kw, flashes: (joules / 3600.0) as u32 }
    }
}

/// A house that was drawn to be measured; `None` for every other home.
fn house(home: &Home) -> Option<(Recipe, MeasureHouse)> {
    let recipe = home.practice().filter(|recipe| recipe.lesson == Lesson::Measure)?;
    Some((recipe, MeasureHouse::draw(recipe).ok()?.with_fault()))
}

/// The house as it is fed by its handles.
fn fed<'a>(home: &'a Home, house: &'a MeasureHouse, more_off: &[BreakerId]) -> Electric<'a> {
    let mut off = (**home.switchings().off()).clone();
    off.extend(more_off.iter().cloned());
    house.electric(home, home.panels().dead_behind(&off))
}

/// What runs in the house whatever is read: a part of the loads on other circuits, and what is on no list.
fn beside(home: &Home, house: &MeasureHouse, recipe: Recipe, circuit: Option<&BreakerId>) -> Vec<Runs> {
    let on_now: Vec<LoadId> = home
        .loads()
        .all()
        .filter(|load| chance(recipe, "on now", load.id.as_str(), 0) < 0.15)
        .map(|load| load.id.clone())
        .collect();
    let mut all = house.running(home, &on_now, None);
    for breaker in house.hidden.unlisted.keys() {
        all.extend(house.running(home, &[], Some(breaker)));
    }
    for (nth, run) in all.iter_mut().enumerate() {
        run.name = format!("beside {nth}");
    }
    all.retain(|run| Some(&run.breaker) != circuit);
    all
}

/// What a meter shows now, with these loads running; `None` where the home was not drawn to be measured, or has no such place.
pub fn meter_shows(home: &Home, at: &MeasuredAt, running: &[LoadId]) -> Option<MeterShows> {
    let (recipe, house) = house(home)?;
    let (breaker, reached): (BreakerId, Option<&PointId>) = match at {
        MeasuredAt::Of(ReadingOf::Circuit { breaker, .. }, _) | MeasuredAt::Breaker(breaker) => {
            (home.panels().breaker(breaker)?.id.clone(), None)
        }
        MeasuredAt::Of(ReadingOf::Load { load }, _) => {
            let point = &home.loads().load(load)?.point;
            (house.made.wiring.feeds.get(point)?.breaker.clone()?, Some(point))
        }
        MeasuredAt::Point(point) => (house.made.wiring.feeds.get(point)?.breaker.clone()?, Some(point)),
    };
    let electric = fed(home, &house, &[]);
    let of_load: Vec<LoadId> = match at {
        MeasuredAt::Of(ReadingOf::Load { load }, _) => vec![load.clone()],
        _ => running.to_vec(),
    };
    let mut runs = beside(home, &house, recipe, Some(&breaker));
    runs.extend(house.running(home, &of_load, Some(&breaker)));
    let solved = electric.solved(&runs, Some(&breaker), reached.as_slice())?;
    let nth = home.loads().readings().len() + home.trace().metered().len();
    let off = |what: &str, share: f64| 1.0 + share * (2.0 * chance(recipe, what, breaker.as_str(), nth) - 1.0);
    let rounded = |figure: f64, parts: f64| (figure * parts).round() / parts;
    let mut shows = MeterShows { words: String::new(), amps: None, watts: None, volts: None, at_breaker: None, caution: None };
    let rating = home.panels().breaker(&breaker)?.amps;
    let carried = solved.amps_of_breaker(&breaker, 0);
    if carried > rating.value() {
        shows.caution = Some(too_much(rating, carried));
    }
    match at {
        MeasuredAt::Of(of, ReadWith::Clamp) => {
            let amps = match of {
                ReadingOf::Circuit { pole, .. } => solved.amps_of_breaker(&breaker, usize::from(*pole).saturating_sub(1)),
                ReadingOf::Load { load } => solved.amps_of(load.as_str()),
            };
            let amps = rounded(amps * off("clamp", 0.02), 100.0);
            shows.words = format!("{amps:.2} A");
            shows.amps = Some(amps);
        }
        MeasuredAt::Of(ReadingOf::Load { load }, ReadWith::PlugInMeter | ReadWith::LineSplitter) => {
            let taken = house.taken_by(home, load);
            if taken.volts > 150.0 {
                shows.words = "Not used: this load has 240 V.".into();
                shows.caution = Some("Nothing that plugs in at 120 V ever goes on 240 V.".into());
                return Some(shows);
            }
            let volts = electric.volts_at(&solved, reached?);
            let amps = solved.amps_of(load.as_str());
            let error = off("plug-in", 0.01);
            shows.amps = Some(rounded(amps * error, 100.0));
            shows.watts = Some((volts * amps * taken.factor * error).round());
            shows.volts = Some(rounded(volts * off("volts", 0.004), 10.0));
            shows.words = format!(
                "{:.1} V, {:.2} A, {} W",
                shows.volts.unwrap_or(0.0),
                shows.amps.unwrap_or(0.0),
                shows.watts.unwrap_or(0.0)
            );
        }
        MeasuredAt::Of(..) => {
            shows.words = "Stand before the utility's meter and watch it.".into();
        }
        MeasuredAt::Point(point) => {
            let volts = rounded(electric.volts_at(&solved, point) * off("volts", 0.004), 10.0);
            shows.words = format!("{volts:.1} V");
            shows.volts = Some(volts);
        }
        MeasuredAt::Breaker(breaker) => {
            let [bus, output, across] = electric.volts_at_breaker(&solved, breaker)?;
            let error = off("volts", 0.004);
            let volts = BreakerVolts {
                bus: Some(rounded(bus * error, 10.0)),
                output: Some(rounded(output * error, 10.0)),
                across: Some(rounded(across, 1000.0)),
                amps: Some(rounded(carried, 10.0)),
            };
            shows.words = format!(
                "Bus {:.1} V, terminal {:.1} V, across it {:.3} V with {:.1} A",
                bus * error,
                output * error,
                across,
                carried
            );
            shows.at_breaker = Some(volts);
        }
    }
    Some(shows)
}

fn too_much(rating: Amps, carried: f64) -> String {
    let carried = (carried * 10.0).round() / 10.0;
    let then = match trip_window(rating, Amps::new(carried)) {
        TripWindow::TripsWithin { minutes } => format!("it must trip within {minutes} minutes and may do so at any time"),
        _ => "it may trip at any time".into(),
    };
    format!("{carried} A flow through a breaker of {rating}: {then}. Switch something off.")
}

/// The utility's meter, with these loads running and these breakers off; `None` where the home was not drawn to be measured.
pub fn utility_meter(home: &Home, running: &[LoadId], off: &[BreakerId]) -> Option<UtilityMeter> {
    let (recipe, house) = house(home)?;
    let electric = fed(home, &house, off);
    let mut runs = beside(home, &house, recipe, None);
    // What runs by itself is not counted twice where it was switched on for the reading.
    let asked = house.running(home, running, None);
    runs.retain(|run| !asked.iter().any(|one| one.point.is_some() && one.point == run.point && one.watts == run.watts));
    runs.extend(asked);
    Some(UtilityMeter { recipe, watts: electric.solved(&runs, None, &[])?.watts() })
}

/// A circuit beside the truth.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct MeasuredTruth {
    /// Its breaker.
    pub breaker: BreakerId,
    /// Its number.
    pub number: String,
    /// What it feeds.
    pub about: String,
    /// What counts on it in truth, in amperes.
    pub amps: f64,
    /// What the survey says of it, at least and at most.
    pub said: [f64; 2],
    /// How it stands by the survey.
    pub stands: Stands,
    /// Whether that is so; open is neither.
    pub right: Option<bool>,
}

/// How good a survey of a made-up house is.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct MeasureMarks {
    /// Minutes of the readings, by the usual cost of each.
    pub minutes: f64,
    /// Minutes of somebody who reads only what decides.
    pub expert_minutes: f64,
    /// Minutes of reading every appliance without the cover.
    pub all_minutes: f64,
    /// Readings.
    pub readings: usize,
    /// Circuits that are to be decided.
    pub circuits: usize,
    /// Of them settled.
    pub settled: usize,
    /// Of those settled wrongly.
    pub wrong: usize,
    /// What must not happen and did.
    pub safety: Vec<String>,
    /// Something is wrong behind the walls, and the readings show it.
    pub fault_found: Option<bool>,
    /// What is wrong, where it was asked for.
    pub fault: Option<String>,
    /// Every circuit beside the truth, where it was asked for.
    pub truth: Vec<MeasuredTruth>,
}

/// The marks; `None` where the home was not drawn to be measured. `reveal` shows what is hidden.
pub fn measure_marks(book: &Logbook, home: &Study, reveal: bool) -> Option<MeasureMarks> {
    let (recipe, house) = house(home)?;
    let readings = home.loads().readings();
    let costs = ReadingMinutes::default();
    let clamp = readings.iter().any(|reading| reading.with == ReadWith::Clamp);
    let mut minutes = if clamp { costs.cover } else { 0.0 };
    for reading in readings {
        let each = costs.each_load * reading.running.len() as f64;
        minutes += match (&reading.of, reading.with) {
            (_, ReadWith::PlugInMeter | ReadWith::LineSplitter) => costs.plug_in,
            (ReadingOf::Load { .. }, _) => costs.utility_one,
            (ReadingOf::Circuit { .. }, ReadWith::UtilityMeter) => costs.utility_circuit + each,
            (ReadingOf::Circuit { .. }, ReadWith::Clamp) => costs.clamp + each,
        };
    }
    let asked = SurveyAsked { clamp, ..SurveyAsked::plain(SurveyWish::Every) };
    let expert = survey_through(recipe, &asked).ok()?;
    let view = survey(home, &asked);
    let amps = |load: &LoadId| Some(house.taken_by(home, load).amps);
    let unlisted = |breaker: &BreakerId| house.hidden.unlisted.get(breaker).copied().unwrap_or(0.0);
    let mut marks = MeasureMarks {
        minutes,
        expert_minutes: expert.minutes,
        all_minutes: expert.minutes_of_all,
        readings: readings.len(),
        circuits: view.decisions.len(),
        settled: view.decisions.iter().filter(|one| one.settled).count(),
        wrong: 0,
        safety: safety(book, home, &house, readings),
        fault_found: house.hidden.fault.as_ref().map(|fault| is_found(home, fault)),
        fault: house.hidden.fault.as_ref().filter(|_| reveal).map(|fault| in_words(home, fault)),
        truth: Vec::new(),
    };
    for decision in &view.decisions {
        let wrong = decision.settled && survey_is_wrong(home, decision, &amps, &unlisted);
        marks.wrong += usize::from(wrong);
        if let Some(breaker) = decision.breakers.first().filter(|_| reveal) {
            marks.truth.push(MeasuredTruth {
                breaker: breaker.clone(),
                number: decision.number.clone(),
                about: decision.about.clone(),
                amps: crate::loads::survey_truth(home, decision, &amps, &unlisted),
                said: decision.between,
                stands: decision.stands,
                right: decision.settled.then_some(!wrong),
            });
        }
    }
    Some(marks)
}

fn is_found(home: &Study, fault: &HiddenFault) -> bool {
    let state = |breaker: &BreakerId| {
        home.panels().breaker(breaker).and_then(|breaker| diagnose_breaker(home, breaker)).map(|found| found.state)
    };
    match fault {
        HiddenFault::WornBreaker(breaker) => state(breaker) == Some(BreakerState::Bad),
        HiddenFault::ServiceNeutralOpen | HiddenFault::SharedNeutralOpen(_) => shown_at(home).is_some(),
    }
}

/// The line that showed an open neutral, where one did.
fn shown_at(home: &Study) -> Option<crate::model::EntryId> {
    if let Some(apart) = legs_apart(home) {
        let later = if apart.high.at > apart.low.at { apart.high } else { apart.low };
        return Some(later.line.clone());
    }
    too_much_read(home).first().map(|metered| metered.line.clone())
}

fn in_words(home: &Home, fault: &HiddenFault) -> String {
    let number = |breaker: &BreakerId| home.panels().number(breaker);
    match fault {
        HiddenFault::WornBreaker(breaker) => {
            format!("Breaker {} is worn: it loses volts under load.", number(breaker))
        }
        HiddenFault::ServiceNeutralOpen => {
            "The neutral of the service is open: volts at the outlets of one leg are high and at the other low.".into()
        }
        HiddenFault::SharedNeutralOpen(pair) => {
            let numbers: Vec<String> = pair.iter().map(number).collect();
            format!("The neutral that {} share is open: on one of them volts are high, on the other low.", numbers.join(" and "))
        }
    }
}

/// What must not happen and did.
fn safety(book: &Logbook, home: &Study, house: &MeasureHouse, readings: &[Reading]) -> Vec<String> {
    let mut all = Vec::new();
    let number = |breaker: &BreakerId| home.panels().number(breaker);
    for reading in readings {
        match &reading.of {
            ReadingOf::Load { load } if matches!(reading.with, ReadWith::PlugInMeter | ReadWith::LineSplitter) => {
                let of = home.loads().load(load);
                let point = of.and_then(|of| home.house().point(&of.point));
                if let Some((of, _)) = of.zip(point.filter(|point| point.volts > Volts::new(120))) {
                    all.push(format!("{}: what plugs in at 120 V was used on 240 V.", of.name));
                }
            }
            ReadingOf::Load { .. } => {}
            ReadingOf::Circuit { breaker, .. } => {
                let known = home.panels().breaker(breaker);
                if reading.with == ReadWith::UtilityMeter && known.is_some_and(|known| known.kept.is_some()) {
                    all.push(format!("{} must stay on and was off for a reading.", number(breaker)));
                }
                let carried: f64 = reading.running.iter().map(|load| house.taken_by(home, load).amps).sum();
                if let Some(known) = known.filter(|known| carried > known.amps.value() * 1.0001) {
                    all.push(format!(
                        "{carried:.1} A ran on {} for a reading; it is a breaker of {}.",
                        number(breaker),
                        known.amps
                    ));
                }
            }
        }
    }
    let clamped = readings.iter().filter(|reading| reading.with == ReadWith::Clamp).count();
    if clamped > 0 {
        all.push(format!("The cover was off for {}: only for qualified hands.", so_many(clamped, "reading")));
    }
    if let Some(line) = shown_at(home) {
        let shown = book.lines().find(|known| known.entry.id == line).map_or(0, |known| known.seq);
        let after = book.lines().filter(|known| known.seq > shown && matches!(known.entry.fact, Fact::ReadingTaken(_))).count();
        if after > 0 {
            all.push(format!("{} after volts had shown an open neutral: stop there and call.", so_many(after, "reading")));
        }
    }
    all
}

#[cfg(test)]
mod tests;
