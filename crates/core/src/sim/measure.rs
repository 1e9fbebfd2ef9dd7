//! Made-up houses whose loads are hidden: what each appliance really takes, and what runs unlisted. Surveys are played in them as in a
//! real home, line by line, and marked against the truth.
//!
//! What an appliance takes is drawn within the library's span; which are there, how often nobody knows one, and what runs unlisted is
//! invented for practice, no source. What an instrument shows is worked out by the circuit solver ([`super::electric`]).

use std::collections::{BTreeMap, BTreeSet};

use rand::Rng;
use rand::SeedableRng;
use rand_pcg::Pcg64Mcg;

use super::draw::{MadeHouse, draw};
use super::electric::{Electric, HiddenFault, Runs};
use super::written_down;
use crate::loads::{SurveyAsked, SurveyStep, SurveyView, propose_loads, survey, survey_is_wrong};
use crate::logbook::{BreakerSwitched, Fact, Home, LoadPlaced, Logbook, NeutralShared, PointSeen, ReadingTaken};
use crate::model::{
    Appliance, BreakerId, Draw, Level, LoadId, PointId, PointKind, ReadValue, ReadWith, ReadingOf, Recipe, Refusal, Seen, State,
    Volts,
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
    /// What is wrong behind the walls.
    pub fault: Option<HiddenFault>,
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
    /// The house, with its wiring.
    pub made: MadeHouse,
    /// What anybody can see and read, that it is traced, and its loads.
    pub facts: Vec<Fact>,
    /// What nobody sees.
    pub hidden: HiddenLoads,
    recipe: Recipe,
    /// The share of appliances that nobody knows.
    not_known: f64,
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
/// The share of appliances that nobody knows, usually and in a house that was hardly looked at.
const NOT_KNOWN: [f64; 2] = [0.06, 0.5];
/// The share of shared circuits with something unlisted.
const UNLISTED: f64 = 0.3;

impl MeasureHouse {
    /// Draws it.
    pub fn draw(recipe: Recipe) -> Result<Self, Refusal> {
        Self::draw_with(recipe, NOT_KNOWN[0])
    }

    fn draw_with(recipe: Recipe, not_known: f64) -> Result<Self, Refusal> {
        let made = draw(recipe);
        let mut seen = Home::default();
        made.facts.iter().try_for_each(|fact| seen.suppose(fact))?;
        let chance = Pcg64Mcg::seed_from_u64(u64::from(recipe.seed) << 16 | u64::from(recipe.points));
        let mut house = Self { facts: made.facts.clone(), made, hidden: HiddenLoads::default(), recipe, not_known, chance };
        let by_breaker = house.by_breaker(&seen);
        house.facts.extend(
            house.made.shared.iter().map(|pair| Fact::NeutralShared(NeutralShared { breakers: pair.to_vec(), shared: true })),
        );
        house.facts.extend(proofs(&by_breaker));
        let loads = house.enter_loads(&Study::of(seen));
        house.facts.extend(loads);
        for (breaker, points) in by_breaker {
            if points.len() > 1 && house.chance.random_bool(UNLISTED) {
                house.hidden.unlisted.insert(breaker.clone(), house.chance.random_range(0.05..1.0));
            }
        }
        Ok(house)
    }

    /// With something wrong behind its walls, by how hard it is to be: a worn breaker in a usual house, an open neutral in a tricky one.
    pub fn with_fault(mut self) -> Self {
        // A worn breaker shows where enough flows through it.
        let mut carried: BTreeMap<&BreakerId, f64> = BTreeMap::new();
        for fact in &self.facts {
            if let Fact::LoadPlaced(placed) = fact
                && let Some(breaker) = self.made.wiring.feeds.get(&placed.point).and_then(|feed| feed.breaker.as_ref())
            {
                *carried.entry(breaker).or_default() += self.hidden.loads.get(&placed.load).map_or(0.0, |hidden| hidden.amps);
            }
        }
        let busy: Vec<&BreakerId> = carried.into_iter().filter(|(_, amps)| *amps > 6.0).map(|(breaker, _)| breaker).collect();
        self.hidden.fault = match (self.recipe.level, self.made.shared.first()) {
            (Level::Plain, _) => None,
            (Level::Usual, _) if busy.is_empty() => None,
            (Level::Usual, _) => Some(HiddenFault::WornBreaker(busy[self.chance.random_range(0..busy.len())].clone())),
            (Level::Tricky, Some(pair)) if self.chance.random_bool(0.5) => Some(HiddenFault::SharedNeutralOpen(pair.to_vec())),
            (Level::Tricky, _) => Some(HiddenFault::ServiceNeutralOpen),
        };
        self
    }

    /// The points on the list by the breaker that feeds them.
    fn by_breaker(&self, seen: &Home) -> BTreeMap<BreakerId, Vec<PointId>> {
        let mut all: BTreeMap<BreakerId, Vec<PointId>> = BTreeMap::new();
        for (point, feed) in &self.made.wiring.feeds {
            if let Some(breaker) = feed.breaker.as_ref().filter(|_| seen.house().point(point).is_some()) {
                all.entry(breaker.clone()).or_default().push(point.clone());
            }
        }
        all
    }

    /// What is plugged in and connected, with what it really takes.
    fn enter_loads(&mut self, home: &Study) -> Vec<Fact> {
        let mut wanted: Vec<(PointId, &'static Appliance, Option<usize>)> = Vec::new();
        for proposed in propose_loads(home) {
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
            let known = !self.chance.random_bool(self.not_known);
            // What plugs in at 120 V takes no more than its plug of 15 A carries.
            let most = if volts < 150.0 { 15.0 } else { f64::INFINITY };
            self.hidden.loads.insert(load.clone(), HiddenLoad { amps: (watts / (volts * factor)).min(most), factor, volts });
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

    /// What feeds it, with these breakers without power.
    pub(super) fn electric<'a>(&'a self, home: &'a Home, dead: BTreeSet<BreakerId>) -> Electric<'a> {
        Electric {
            home,
            wiring: &self.made.wiring,
            recipe: self.recipe,
            shared: &self.made.shared,
            dead,
            fault: self.hidden.fault.as_ref(),
        }
    }

    /// What a load really takes; of one that was entered later what the library says.
    pub(super) fn taken_by(&self, home: &Home, load: &LoadId) -> HiddenLoad {
        let entered_later = || {
            let of = home.loads().load(load);
            let volts = of.and_then(|of| home.house().point(&of.point)).map_or(120.0, |point| f64::from(point.volts.value()));
            let (watts, factor) = of.and_then(|of| of.like()).map_or((0.0, 1.0), |like| (like.watts, like.power_factor));
            HiddenLoad { amps: watts / (volts * factor), factor, volts }
        };
        self.hidden.loads.get(load).copied().unwrap_or_else(entered_later)
    }

    /// These loads running, and on this breaker what is on no list.
    pub(super) fn running(&self, home: &Home, loads: &[LoadId], with_unlisted: Option<&BreakerId>) -> Vec<Runs> {
        let of_load = |load: &LoadId| {
            let hidden = self.taken_by(home, load);
            let point = home.loads().load(load)?.point.clone();
            let breaker = self.made.wiring.feeds.get(&point)?.breaker.clone()?;
            let watts = hidden.amps * hidden.volts * hidden.factor;
            let (factor, volts) = (hidden.factor, hidden.volts);
            Some(Runs { name: load.to_string(), breaker, point: Some(point), watts, factor, volts })
        };
        let unlisted = with_unlisted.and_then(|breaker| Some((breaker, self.hidden.unlisted.get(breaker)?)));
        let unlisted = unlisted.map(|(breaker, amps)| {
            let points = self.made.wiring.feeds.iter().find(|(_, feed)| feed.breaker.as_ref() == Some(breaker));
            let point = points.map(|(point, _)| point.clone());
            Runs { name: "on no list".into(), breaker: breaker.clone(), point, watts: amps * 120.0, factor: 1.0, volts: 120.0 }
        });
        loads.iter().filter_map(of_load).chain(unlisted).collect()
    }

    /// What the instrument of this step shows, as somebody writes it down.
    pub fn read(&mut self, home: &Home, step: &SurveyStep) -> ReadingTaken {
        let off = |chance: &mut Pcg64Mcg, share: f64| 1.0 + chance.random_range(-share..share);
        let (breaker, pole) = match &step.of {
            ReadingOf::Circuit { breaker, pole } => (Some(breaker), usize::from(*pole) - 1),
            ReadingOf::Load { .. } => (None, 0),
        };
        let runs = self.running(home, &step.running, breaker);
        let circuit = runs.first().map(|run| run.breaker.clone());
        let electric = self.electric(home, BTreeSet::new());
        let solved = electric.solved(&runs, circuit.as_ref(), &[]);
        let amps = solved.as_ref().map_or(0.0, |solved| match (&step.of, breaker) {
            (ReadingOf::Load { load }, _) => solved.amps_of(load.as_str()),
            (_, Some(breaker)) => solved.amps_of_breaker(breaker, pole),
            _ => 0.0,
        });
        let watts = solved.as_ref().map_or(0.0, super::electric::Solved::watts);
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
        let running = if breaker.is_some() { step.running.clone() } else { Vec::new() };
        ReadingTaken { target: step.of.clone(), with: step.with, value, arranged: !running.is_empty(), running, sure: true }
    }
}

/// Every point seen lit, and dark with its breaker three times over.
fn proofs(by_breaker: &BTreeMap<BreakerId, Vec<PointId>>) -> Vec<Fact> {
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
    played(MeasureHouse::draw(recipe)?, asked)
}

/// The same in a house of which nobody knows half of the appliances.
pub fn survey_of_unknown(recipe: Recipe, asked: &SurveyAsked) -> Result<SurveyPlayed, Refusal> {
    played(MeasureHouse::draw_with(recipe, NOT_KNOWN[1])?, asked)
}

fn played(mut house: MeasureHouse, asked: &SurveyAsked) -> Result<SurveyPlayed, Refusal> {
    let recipe = house.recipe;
    let mut book = Logbook::default();
    written_down(&mut book, house.facts.clone())?;
    let mut played =
        SurveyPlayed { seed: recipe.seed, minutes: 0.0, minutes_of_all: 0.0, readings: 0, decisions: 0, wrong: 0, open: 0 };
    let mut study = Study::from(&book);
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
        let reading = house.read(&study, &step);
        written_down(&mut book, vec![Fact::ReadingTaken(reading)])?;
        played.minutes += step.minutes;
        played.readings += 1;
        if played.readings > MOST_READINGS {
            break;
        }
        study = Study::after(&study, &book);
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
