//! Made-up houses whose loads are hidden: what each appliance really takes, and what runs unlisted. Surveys are played in them as in a
//! real home, line by line, and marked against the truth.
//!
//! What an appliance takes is drawn within the library's span; which are there, how often nobody knows one, and what runs unlisted is
//! invented for practice, no source.

use std::collections::BTreeMap;

use rand::Rng;
use rand::SeedableRng;
use rand_pcg::Pcg64Mcg;

use super::draw::draw;
use super::written_down;
use crate::loads::{SurveyAsked, SurveyStep, SurveyView, propose_loads, survey, survey_is_wrong};
use crate::logbook::{BreakerSwitched, Fact, LoadPlaced, Logbook, PointSeen, ReadingTaken};
use crate::model::{
    Appliance, BreakerId, Draw, LoadId, PointId, PointKind, ReadValue, ReadWith, ReadingOf, Recipe, Refusal, Seen, State, Volts,
};
use crate::study::Study;
use crate::trace::verdicts;

/// What nobody sees of the loads.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct HiddenLoads {
    /// What each takes, in amperes, and its power factor.
    pub loads: BTreeMap<LoadId, HiddenLoad>,
    /// What runs on a breaker and is on no list, in amperes.
    pub unlisted: BTreeMap<BreakerId, f64>,
}

/// What one load really takes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HiddenLoad {
    /// In amperes, all alike together.
    pub amps: f64,
    /// Its power factor.
    pub factor: f64,
    /// At how many volts.
    pub volts: f64,
}

/// A made-up house, traced, its loads entered as anybody would: by the library, and some not known.
#[derive(Debug)]
pub struct MeasureHouse {
    /// The logbook so far.
    pub book: Logbook,
    /// What nobody sees.
    pub hidden: HiddenLoads,
    chance: Pcg64Mcg,
}

const IN_KITCHEN: [&str; 9] =
    ["kettle", "toaster", "coffee", "microwave", "air_fryer", "slow_cooker", "toaster_oven", "blender", "griddle"];
const IN_BATH: [&str; 2] = ["hair_dryer", "curler"];
const ELSEWHERE: [&str; 12] = [
    "tv",
    "computer",
    "laptop",
    "vacuum",
    "iron",
    "space_heater",
    "fan_portable",
    "audio",
    "router",
    "dehumidifier",
    "laser_printer",
    "electric_blanket",
];
/// The share of appliances that nobody knows.
const NOT_KNOWN: f64 = 0.06;
/// The share of shared circuits with something unlisted.
const UNLISTED: f64 = 0.3;

impl MeasureHouse {
    /// Draws it, traced to the end.
    pub fn draw(recipe: Recipe) -> Result<Self, Refusal> {
        let made = draw(recipe);
        let mut book = Logbook::default();
        written_down(&mut book, made.facts.clone())?;
        let mut by_breaker: BTreeMap<&BreakerId, Vec<&PointId>> = BTreeMap::new();
        for (point, feed) in &made.wiring.feeds {
            let listed = book.home().house().point(point).is_some();
            if let Some(breaker) = feed.breaker.as_ref().filter(|_| listed) {
                by_breaker.entry(breaker).or_default().push(point);
            }
        }
        written_down(&mut book, proofs(&by_breaker))?;
        let mut house = Self {
            book,
            hidden: HiddenLoads::default(),
            chance: Pcg64Mcg::seed_from_u64(u64::from(recipe.seed) << 16 | u64::from(recipe.points)),
        };
        let facts = house.enter_loads();
        written_down(&mut house.book, facts)?;
        for (breaker, points) in by_breaker {
            if points.len() > 1 && house.chance.random_bool(UNLISTED) {
                house.hidden.unlisted.insert(breaker.clone(), house.chance.random_range(0.05..1.0));
            }
        }
        Ok(house)
    }

    /// What is plugged in and connected, with what it really takes.
    fn enter_loads(&mut self) -> Vec<Fact> {
        let home = Study::from(&self.book);
        let mut wanted: Vec<(PointId, &'static Appliance, Option<usize>)> = Vec::new();
        for proposed in propose_loads(&home) {
            let before = proposed.never_with_previous.then(|| wanted.len().saturating_sub(1));
            wanted.extend(Appliance::named(proposed.appliance).map(|like| (proposed.point, like, before)));
        }
        for point in home.house().points().filter(|point| point.kind == PointKind::Receptacle && point.volts == Volts::new(120)) {
            let room = home.house().room_name(&point.room).to_lowercase();
            let list: &[&'static str] = match () {
                () if room.contains("kitchen") => &IN_KITCHEN,
                () if room.contains("bath") => &IN_BATH,
                () => &ELSEWHERE,
            };
            for _ in 0..[0, 1, 1, 2][self.chance.random_range(0..4)] {
                let named = list[self.chance.random_range(0..list.len())];
                wanted.extend(Appliance::named(named).map(|like| (point.id.clone(), like, None)));
            }
        }
        let mut facts = Vec::new();
        for (number, (point, like, never)) in wanted.into_iter().enumerate() {
            let load: LoadId = format!("load-{number}").parse().unwrap_or_else(|_| panic!("no id; this is a bug"));
            let volts = f64::from(home.house().point(&point).map_or(120, |point| point.volts.value()));
            // What only heats has the factor 1.
            let factor = if like.power_factor >= 0.99 {
                1.0
            } else {
                (like.power_factor + self.chance.random_range(-0.05..0.05)).clamp(0.6, 1.0)
            };
            let watts = self.chance.random_range(like.watts_low..=like.watts_high);
            let known = !self.chance.random_bool(NOT_KNOWN);
            self.hidden.loads.insert(load.clone(), HiddenLoad { amps: watts / (volts * factor), factor, volts });
            let never: Option<LoadId> = never.and_then(|before| format!("load-{before}").parse().ok());
            facts.push(Fact::LoadPlaced(LoadPlaced {
                load,
                point,
                name: like.name.to_owned(),
                appliance: known.then(|| like.id.to_owned()),
                count: 1,
                draw: if known { Draw::Library } else { Draw::NotKnown },
                continuous: None,
                fastened: None,
                usage: (!known).then(|| like.usage.clone()),
                with: None,
                never_with: never.into_iter().collect(),
            }));
        }
        facts
    }

    /// What the instrument of this step shows, as somebody writes it down.
    pub fn read(&mut self, step: &SurveyStep) -> ReadingTaken {
        let off = |chance: &mut Pcg64Mcg, share: f64| 1.0 + chance.random_range(-share..share);
        let mut running: Vec<LoadId> = step.running.clone();
        // Currents of different power factors do not peak at one moment: they add up as phasors.
        let (mut with_volts, mut behind, mut watts) = (0.0, 0.0, 0.0);
        for load in &running {
            let hidden = self.hidden.loads.get(load).copied().unwrap_or(HiddenLoad { amps: 0.0, factor: 1.0, volts: 120.0 });
            with_volts += hidden.amps * hidden.factor;
            behind += hidden.amps * (1.0 - hidden.factor * hidden.factor).max(0.0).sqrt();
            watts += hidden.amps * hidden.volts * hidden.factor;
        }
        if let ReadingOf::Circuit { breaker, .. } = &step.of {
            let more = self.hidden.unlisted.get(breaker).copied().unwrap_or(0.0);
            with_volts += more;
            watts += more * 120.0;
        } else {
            running.clear();
        }
        let amps = f64::hypot(with_volts, behind);
        let hundredths = |figure: f64| (figure * 100.0).round() / 100.0;
        let value = match step.with {
            ReadWith::Clamp => ReadValue::Amps { amps: hundredths(amps * off(&mut self.chance, 0.02)) },
            ReadWith::PlugInMeter | ReadWith::LineSplitter => {
                ReadValue::Amps { amps: hundredths(amps * off(&mut self.chance, 0.01)) }
            }
            ReadWith::UtilityMeter => {
                let before = self.chance.random_range(0.2..0.9);
                let after = before + watts / 1000.0 * off(&mut self.chance, 0.005);
                ReadValue::MeterKw { before: hundredths(before), after: hundredths(after).max(hundredths(before)) }
            }
        };
        ReadingTaken { target: step.of.clone(), with: step.with, value, arranged: !running.is_empty(), running, sure: true }
    }

    /// Writes a reading down.
    pub fn write(&mut self, reading: ReadingTaken) -> Result<(), Refusal> {
        written_down(&mut self.book, vec![Fact::ReadingTaken(reading)])
    }
}

/// Every point seen lit, and dark with its breaker three times over.
fn proofs(by_breaker: &BTreeMap<&BreakerId, Vec<&PointId>>) -> Vec<Fact> {
    let look = |point: &PointId, seen| Fact::PointSeen(PointSeen { point: point.clone(), seen, since: None, anew: true });
    let switch = |breaker: &BreakerId, to| Fact::BreakerSwitched(BreakerSwitched { breaker: breaker.clone(), to });
    let mut facts: Vec<Fact> = by_breaker.values().flatten().map(|point| look(point, Seen::Lit)).collect();
    for (breaker, points) in by_breaker {
        for _ in 0..3 {
            facts.push(switch(breaker, State::Off));
            facts.extend(points.iter().flat_map(|point| [look(point, Seen::Dark), look(point, Seen::Dark)]));
            facts.push(switch(breaker, State::On));
            facts.extend(points.iter().map(|point| look(point, Seen::Lit)));
        }
    }
    facts
}

/// A survey that was played to its end.
#[derive(Debug, Clone, PartialEq, serde::Serialize)]
pub struct SurveyPlayed {
    /// The house.
    pub seed: u32,
    /// Minutes that it took.
    pub minutes: f64,
    /// Minutes of reading every appliance without the cover.
    pub minutes_of_all: f64,
    /// Readings.
    pub readings: usize,
    /// Decisions.
    pub decisions: usize,
    /// Of them settled, and wrong by the truth.
    pub wrong: usize,
    /// Of them too close to call.
    pub open: usize,
}

/// More readings than any house needs.
const MOST_READINGS: usize = 2000;

/// Draws a house and surveys it to the end, doing as it is asked.
pub fn survey_through(recipe: Recipe, asked: &SurveyAsked) -> Result<SurveyPlayed, Refusal> {
    let mut house = MeasureHouse::draw(recipe)?;
    let mut played =
        SurveyPlayed { seed: recipe.seed, minutes: 0.0, minutes_of_all: 0.0, readings: 0, decisions: 0, wrong: 0, open: 0 };
    let mut study = Study::from(&house.book);
    let begun = survey(&study, asked);
    // For two that are to be joined, what stands against it is reading every circuit that may be one of them.
    let candidates: std::collections::BTreeSet<&BreakerId> = begun.decisions.iter().flat_map(|one| &one.breakers).collect();
    let on_candidate = |point: &PointId| {
        verdicts(&study)
            .iter()
            .any(|(known, verdict)| known == point && verdict.proven_on().is_some_and(|breaker| candidates.contains(breaker)))
    };
    for load in study.loads().all() {
        if on_candidate(&load.point) {
            let point = study.house().point(&load.point);
            let plugs_in = point.is_some_and(|point| point.kind == PointKind::Receptacle && point.volts == Volts::new(120));
            played.minutes_of_all += if plugs_in { asked.minutes.plug_in } else { asked.minutes.utility_one };
        }
    }
    let mut view: SurveyView = begun;
    while let Some(step) = view.step.take() {
        let reading = house.read(&step);
        house.write(reading)?;
        played.minutes += step.minutes;
        played.readings += 1;
        if played.readings > MOST_READINGS {
            break;
        }
        study = Study::after(&study, &house.book);
        view = survey(&study, asked);
    }
    let amps = |load: &LoadId| house.hidden.loads.get(load).map(|hidden| hidden.amps);
    let unlisted = |breaker: &BreakerId| house.hidden.unlisted.get(breaker).copied().unwrap_or(0.0);
    for decision in &view.decisions {
        played.decisions += 1;
        if !decision.settled {
            played.open += 1;
        } else if survey_is_wrong(&study, decision, &amps, &unlisted) {
            played.wrong += 1;
        }
    }
    Ok(played)
}
