//! The survey: which reading to take next, and when to stop.
//!
//! What a load takes is an interval; a decision is settled when both of its ends agree, so only what can still change the decision is
//! read. In: a home and what is wished. Out: the next reading with what it costs, every decision with its two ends, what stays too
//! close to call. Minutes are settings (judgement), the rest follows from facts.

mod step;
mod wishes;

use serde::Serialize;

use self::step::{step_of, width_of};
pub(super) use self::wishes::may_be_joined;
use self::wishes::{add, combine_two, feeder};
use super::circuits::{
    CircuitLoads, OnCircuits, Stands, Sums, UNLISTED, circuits, never_together, sums, usual_reading, whole_read,
};
use super::diagnose_supply::diagnose_supply;
use super::draws::{Drawn, End, LoadLine, TakenFrom};
use crate::model::{BreakerId, LoadId, PointId, PointKind, ReadWith, ReadingOf, SurveyWish, so_many};
use crate::study::Study;

/// What a reading costs, in minutes.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct ReadingMinutes {
    /// One appliance by a meter that plugs in, or at a line splitter.
    pub plug_in: f64,
    /// One appliance by the utility's meter.
    pub utility_one: f64,
    /// A circuit by the utility's meter, before each of its loads.
    pub utility_circuit: f64,
    /// A circuit by a clamp, before each of its loads.
    pub clamp: f64,
    /// Each load that is switched on for a reading of its circuit.
    pub each_load: f64,
    /// Taking the cover off and putting it back, once.
    pub cover: f64,
}

impl Default for ReadingMinutes {
    fn default() -> Self {
        Self { plug_in: 3.0, utility_one: 4.0, utility_circuit: 4.0, clamp: 1.0, each_load: 1.0, cover: 12.0 }
    }
}

/// What is wished, and with which hands.
#[derive(Debug, Clone, PartialEq)]
pub struct SurveyAsked {
    /// What the readings are for.
    pub wish: SurveyWish,
    /// Qualified hands, with the cover off: the clamp may be asked for.
    pub clamp: bool,
    /// Loads that cannot be read.
    pub without_loads: Vec<LoadId>,
    /// Circuits that cannot be read as a whole.
    pub without_circuits: Vec<BreakerId>,
    /// What a reading costs.
    pub minutes: ReadingMinutes,
}

impl SurveyAsked {
    /// With the cover on, nothing left out, what a reading usually costs.
    pub fn plain(wish: SurveyWish) -> Self {
        Self { wish, clamp: false, without_loads: Vec::new(), without_circuits: Vec::new(), minutes: ReadingMinutes::default() }
    }
}

/// A decision with its two ends.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct SurveyDecision {
    /// The breaker, or the two that would be joined.
    pub breakers: Vec<BreakerId>,
    /// `11`, `9 and 13`.
    pub number: String,
    /// What it feeds.
    pub about: String,
    /// At least and at most, in amperes.
    pub between: [f64; 2],
    /// Of so many, in amperes.
    pub limit: f64,
    /// How it stands; `too_close` where it is not settled.
    pub stands: Stands,
    /// Both ends agree.
    pub settled: bool,
}

/// The next reading.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct SurveyStep {
    /// What is read.
    pub of: ReadingOf,
    /// With what.
    pub with: ReadWith,
    /// What to do, in one sentence.
    pub words: String,
    /// Why this one.
    pub why: String,
    /// What to mind.
    pub cautions: Vec<String>,
    /// The circuit that it is about.
    pub breaker: BreakerId,
    /// Its number.
    pub number: String,
    /// The load, where one is read.
    pub load: Option<LoadId>,
    /// Where that load is.
    pub point: Option<PointId>,
    /// At how many volts it runs.
    pub volts: Option<u16>,
    /// The loads that are to run.
    pub running: Vec<LoadId>,
    /// Their names, with where they are.
    pub names: Vec<String>,
    /// So many minutes.
    pub minutes: f64,
}

/// How a survey stands.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct SurveyView {
    /// In one sentence.
    pub title: String,
    /// The answer to the wish, where there is one.
    pub answer: Option<String>,
    /// The next reading; `null` where nothing more can settle anything.
    pub step: Option<SurveyStep>,
    /// Every decision, those that are not settled first.
    pub decisions: Vec<SurveyDecision>,
    /// Minutes that are left, as far as can be told.
    pub minutes_left: f64,
    /// Readings that do not agree with what is entered.
    pub questions: Vec<String>,
}

/// What can be read next, with what it may bring.
struct Candidate {
    /// `None`: the circuit with all its loads on.
    load: Option<usize>,
    with: ReadWith,
    minutes: f64,
    /// How likely it settles the circuit, 0 to 1.
    chance: f64,
}

/// In how many places of its interval a reading is supposed to come out.
const TRIED: usize = 5;
/// The widest loads of a circuit that are weighed.
const WIDEST: usize = 3;
/// A reading that settles so seldom is not asked for.
const HARDLY: f64 = 1e-9;

/// The band of what counts against a limit.
fn band(amps: f64, limit: f64) -> u8 {
    match 100.0 * amps / limit {
        percent if percent > 100.0 => 2,
        percent if percent >= 80.0 => 1,
        _ => 0,
    }
}

fn counted(sums: Sums) -> f64 {
    sums.counted() as f64 / 100.0
}

/// A circuit under survey.
struct Surveyed<'a> {
    circuit: &'a CircuitLoads,
    loads: &'a [Drawn<'a>],
    /// What may run on it that is not entered, in amperes at most.
    unlisted: f64,
    /// At most, by a reading with everything on.
    most: f64,
    /// Read with everything on that is entered.
    read_whole: bool,
}

impl<'a> Surveyed<'a> {
    fn of(home: &Study, circuit: &'a CircuitLoads, loads: &'a [Drawn<'a>]) -> Self {
        let whole = |reading: &&crate::model::Reading| {
            matches!(&reading.of, ReadingOf::Circuit { breaker, .. } if *breaker == circuit.breaker)
                && reading.arranged
                && !loads.is_empty()
                && loads.iter().all(|drawn| reading.running.contains(&drawn.load.id) && drawn.load.described <= reading.nth)
        };
        let read_whole = home.loads().readings().iter().any(|reading| whole(&reading));
        let shared = circuit.proven + circuit.possible > 1;
        let continuous: f64 = loads.iter().filter(|drawn| drawn.line.continuous).map(|drawn| drawn.line.high).sum();
        let most = whole_read(home, &circuit.breaker, loads).0.map_or(f64::INFINITY, |most| most + continuous / 4.0);
        let unlisted = match () {
            // Where nothing is entered a reading of one moment says only that it carries no less.
            () if loads.is_empty() => circuit.limit,
            () if shared => UNLISTED,
            () => 0.0,
        };
        Self { circuit, loads, unlisted, most, read_whole }
    }

    /// What counts, at least and at most.
    fn between(&self) -> [f64; 2] {
        let [low, high] = self.circuit.between;
        let read = usual_reading(self.circuit.measured.as_ref());
        // With everything on no more was read, so no more is expected.
        let high = (high + self.unlisted).min(self.most).max(low);
        [low.max(read), high.max(read)]
    }

    fn is_settled(&self) -> bool {
        let [low, high] = self.between();
        band(low, self.circuit.limit) == band(high, self.circuit.limit)
    }

    /// The ends with these loads in place of its own.
    fn ends(&self, loads: &[Drawn<'_>]) -> [f64; 2] {
        [counted(sums(loads, End::Low)), (counted(sums(loads, End::High)) + self.unlisted).min(self.most)]
    }

    /// How likely a reading of these loads, each with that, settles it.
    fn chance_of_loads(&self, which: &[(usize, ReadWith)], decides: &dyn Fn([f64; 2]) -> bool) -> f64 {
        let mut tried: Vec<Drawn<'_>> = self.loads.to_vec();
        let settling = (0..TRIED).filter(|n| {
            for (nth, (at, with)) in which.iter().enumerate() {
                let Drawn { line, factor, .. } = &self.loads[*at];
                // Another place of its interval for each, so that they are not all high at one time.
                let part = ((n + 2 * nth) % TRIED) as f64 + 0.5;
                let amps = line.low + (line.high - line.low) * part / TRIED as f64;
                // The utility's meter shows watts: amperes follow by the power factor.
                let [off, on] = if *with == ReadWith::PlugInMeter { [1.0, 1.0] } else { *factor };
                let likely = off.midpoint(on);
                tried[*at].line.low = amps * likely / on * (1.0 - with.share_off());
                tried[*at].line.high = amps * likely / off * (1.0 + with.share_off());
            }
            {
                let [low, high] = self.ends(&tried);
                decides([low, high.max(low)])
            }
        });
        settling.count() as f64 / TRIED as f64
    }

    /// How likely a reading with everything on settles it: never more is expected than runs with everything on.
    fn chance_of_whole(&self, decides: &dyn Fn([f64; 2]) -> bool) -> f64 {
        let sum = |end: fn(&LoadLine) -> f64| self.loads.iter().map(|drawn| end(&drawn.line)).sum::<f64>();
        let (lows, highs) = (sum(|line| line.low), sum(|line| line.high) + self.unlisted);
        let continuous: f64 = self.loads.iter().filter(|drawn| drawn.line.continuous).map(|drawn| drawn.line.high).sum();
        let settling = (0..TRIED).filter(|n| {
            let most = (lows + (highs - lows) * (*n as f64 + 0.5) / TRIED as f64) * (1.0 + ReadWith::Clamp.share_off());
            let mut tried: Vec<Drawn<'_>> = self.loads.to_vec();
            for drawn in &mut tried {
                drawn.line.high = drawn.line.high.min(most - (lows - drawn.line.low)).max(drawn.line.low);
            }
            let [low, high] = self.ends(&tried);
            decides([low, high.min(most + continuous / 4.0).max(low)])
        });
        settling.count() as f64 / TRIED as f64
    }

    /// Whether all its loads can be switched on for one reading: none excludes another, what they take is hardly more than may be
    /// carried, and one pole shows all of it.
    fn can_run_at_once(&self, home: &Study) -> bool {
        let apart = |a: &Drawn<'_>| self.loads.iter().any(|b| a.load.id != b.load.id && never_together(a, b));
        let one_pole = home.panels().breaker(&self.circuit.breaker).is_some_and(|breaker| breaker.poles() == 1);
        let sum: f64 = self.loads.iter().map(|drawn| drawn.line.amps).sum();
        !self.loads.is_empty()
            && sum <= self.circuit.limit
            && (one_pole || self.loads.iter().all(|drawn| drawn.line.volts == 240))
            && !self.loads.iter().any(apart)
    }

    fn is_read(&self, at: usize) -> bool {
        matches!(self.loads[at].line.taken_from, TakenFrom::Reading { .. })
    }

    /// What can be read of it, with what that may bring.
    fn candidates(&self, home: &Study, asked: &SurveyAsked, decides: &dyn Fn([f64; 2]) -> bool) -> Vec<Candidate> {
        let mut all = Vec::new();
        let count = self.loads.len() as f64;
        let may_be_off = home.panels().breaker(&self.circuit.breaker).is_some_and(|breaker| breaker.kept.is_none());
        let left_out = asked.without_circuits.contains(&self.circuit.breaker);
        if !self.read_whole && !left_out && self.can_run_at_once(home) && (asked.clamp || may_be_off) {
            let minutes = &asked.minutes;
            let (with, cost) = if asked.clamp {
                (ReadWith::Clamp, minutes.clamp + minutes.each_load * count)
            } else {
                (ReadWith::UtilityMeter, minutes.utility_circuit + minutes.each_load * count)
            };
            // A circuit of one load is read as that load.
            if count > 1.0 || asked.clamp {
                all.push(Candidate { load: None, with, minutes: cost, chance: self.chance_of_whole(decides) });
            }
        }
        let can_be_read = |at: &usize| !self.is_read(*at) && !asked.without_loads.contains(&self.loads[*at].load.id);
        let mut widest: Vec<usize> = (0..self.loads.len()).filter(can_be_read).collect();
        let width = |at: &usize| self.loads[*at].line.high - self.loads[*at].line.low;
        widest.sort_by(|a, b| width(b).total_cmp(&width(a)));
        let every: Vec<(usize, ReadWith, f64)> = widest
            .iter()
            .map(|at| {
                let (with, minutes) = self.with_what(home, *at, &asked.minutes);
                (*at, with, minutes)
            })
            .collect();
        for (at, with, minutes) in every.iter().take(WIDEST) {
            all.push(Candidate {
                load: Some(*at),
                with: *with,
                minutes: *minutes,
                chance: self.chance_of_loads(&[(*at, *with)], decides),
            });
        }
        // Where no one of them settles it, the widest together may: then the widest is begun with.
        let mut so_far: Vec<(usize, ReadWith)> = Vec::new();
        let mut minutes_so_far = 0.0;
        for (at, with, minutes) in &every {
            so_far.push((*at, *with));
            minutes_so_far += minutes;
            let chance = if so_far.len() > 1 { self.chance_of_loads(&so_far, decides) } else { 0.0 };
            if let Some(first) = all.iter_mut().find(|candidate| candidate.load == Some(every[0].0)) {
                first.chance = first.chance.max(chance * first.minutes / minutes_so_far);
            }
        }
        // What not even reading all of it could settle stays too close to call.
        all.retain(|candidate| candidate.chance > HARDLY);
        all
    }

    /// With what one load is read: what hangs on a cord of 120 V by a meter that plugs in, the rest by the utility's meter.
    fn with_what(&self, home: &Study, at: usize, minutes: &ReadingMinutes) -> (ReadWith, f64) {
        let line = &self.loads[at].line;
        let receptacle = home.house().point(&line.point).is_some_and(|point| point.kind == PointKind::Receptacle);
        if line.volts == 120 && receptacle && !line.fastened {
            (ReadWith::PlugInMeter, minutes.plug_in)
        } else {
            (ReadWith::UtilityMeter, minutes.utility_one)
        }
    }
}

/// The best for its minutes: likeliest to settle, then what narrows most.
fn best(mut all: Vec<Candidate>, widths: impl Fn(&Candidate) -> f64) -> Option<Candidate> {
    let worth = |candidate: &Candidate| candidate.chance / candidate.minutes.max(0.1);
    all.sort_by(|a, b| worth(b).total_cmp(&worth(a)).then(widths(b).total_cmp(&widths(a))));
    all.into_iter().next()
}

/// The survey of this home for this wish.
pub fn survey(home: &Study, asked: &SurveyAsked) -> SurveyView {
    if let Some(supply) = diagnose_supply(home).filter(|supply| supply.stop) {
        return SurveyView {
            title: supply.words,
            answer: Some(supply.next),
            step: None,
            decisions: Vec::new(),
            minutes_left: 0.0,
            questions: Vec::new(),
        };
    }
    let on = OnCircuits::of(home);
    let all: Vec<Surveyed<'_>> = circuits(home)
        .iter()
        .filter(|circuit| circuit.stands != Stands::Nothing)
        .map(|circuit| Surveyed::of(home, circuit, on.on(&circuit.breaker)))
        .collect();
    let mut view = match &asked.wish {
        SurveyWish::Every => every(home, asked, &all),
        SurveyWish::CombineTwo => combine_two(home, asked, &all),
        SurveyWish::Feeder { breaker } => feeder(home, asked, &on, breaker),
        SurveyWish::Add { breaker, amps } => add(home, asked, &all, breaker, *amps),
    };
    // The cover comes off once, before the first reading by clamp.
    if let Some(step) = view.step.as_mut().filter(|step| step.with == ReadWith::Clamp && !cover_is_off(home)) {
        step.minutes += asked.minutes.cover;
        view.minutes_left += asked.minutes.cover;
    }
    view.questions =
        all.iter().filter_map(|one| Some(format!("{}: {}", one.circuit.number, one.circuit.disagrees.as_ref()?))).collect();
    view
}

/// The last reading was by clamp: then the cover is off already.
fn cover_is_off(home: &Study) -> bool {
    home.loads().readings().last().is_some_and(|reading| reading.with == ReadWith::Clamp)
}

fn decision_of(one: &Surveyed<'_>) -> SurveyDecision {
    let settled = one.is_settled();
    let [low, high] = one.between();
    SurveyDecision {
        breakers: vec![one.circuit.breaker.clone()],
        number: one.circuit.number.clone(),
        about: one.circuit.about.clone(),
        between: [low, high],
        limit: one.circuit.limit,
        stands: if settled {
            [Stands::Room, Stands::Near, Stands::Over][usize::from(band(high, one.circuit.limit))]
        } else {
            Stands::TooClose
        },
        settled,
    }
}

fn every(home: &Study, asked: &SurveyAsked, all: &[Surveyed<'_>]) -> SurveyView {
    // What a feeder carries is settled by what is behind it.
    let own: Vec<&Surveyed<'_>> = all.iter().filter(|one| one.circuit.feeds.is_none()).collect();
    let mut decisions: Vec<SurveyDecision> = own.iter().map(|one| decision_of(one)).collect();
    let mut steps: Vec<(&Surveyed<'_>, Candidate)> = Vec::new();
    let mut minutes_left = 0.0;
    for one in own.iter().filter(|one| !one.is_settled()) {
        let limit = one.circuit.limit;
        let decides = |ends: [f64; 2]| band(ends[0], limit) == band(ends[1], limit);
        let candidates = one.candidates(home, asked, &decides);
        let Some(candidate) = best(candidates, |candidate| width_of(one, candidate)) else { continue };
        // Where no one reading settles it, several may: it goes on until nothing is left to read.
        minutes_left += candidate.minutes / candidate.chance.clamp(0.3, 1.0);
        steps.push((*one, candidate));
    }
    let worth = |step: &(&Surveyed<'_>, Candidate)| step.1.chance.max(HARDLY) / step.1.minutes.max(0.1);
    let step = steps.iter().max_by(|a, b| worth(a).total_cmp(&worth(b)));
    let step = step.map(|(one, candidate)| step_of(one, candidate, "how it stands"));
    let settled = decisions.iter().filter(|decision| decision.settled).count();
    let open = decisions.len() - settled;
    let title = match (decisions.len(), open, &step) {
        (0, ..) => "Nothing is entered yet that could be read".to_owned(),
        (_, 0, _) => "Every circuit is settled".to_owned(),
        (_, open, None) => format!(
            "{} too close to call: it counts as the higher",
            so_many(open, "circuit") + if open == 1 { " stays" } else { " stay" }
        ),
        (count, ..) => format!("{settled} of {} settled", so_many(count, "circuit")),
    };
    decisions.sort_by_key(|decision| decision.settled);
    let not_proven = own.iter().filter(|one| one.circuit.possible > 0).count();
    let answer = (not_proven > 0).then(|| {
        let on = if not_proven == 1 { "On 1 circuit".to_owned() } else { format!("On {not_proven} circuits") };
        format!("{on} there may be points that are not proven yet. They count for nothing here: trace them, too.")
    });
    SurveyView { title, answer, step, decisions, minutes_left, questions: Vec::new() }
}

/// What counts on the circuits of a decision in truth, in amperes, for whoever knows it: `amps` says what a load takes, `unlisted` what
/// else runs on a breaker. To mark a survey in a made-up house.
pub fn survey_truth(
    home: &Study,
    decision: &SurveyDecision,
    amps: &dyn Fn(&LoadId) -> Option<f64>,
    unlisted: &dyn Fn(&BreakerId) -> f64,
) -> f64 {
    let on = OnCircuits::of(home);
    let mut really: Vec<Drawn<'_>> = decision.breakers.iter().flat_map(|breaker| on.on(breaker).iter().cloned()).collect();
    for drawn in &mut really {
        drawn.line.amps = amps(&drawn.load.id).unwrap_or(drawn.line.amps);
    }
    counted(sums(&really, End::Likely)) + decision.breakers.iter().map(unlisted).sum::<f64>()
}

/// Whether what was decided is not so, by that truth.
pub fn survey_is_wrong(
    home: &Study,
    decision: &SurveyDecision,
    amps: &dyn Fn(&LoadId) -> Option<f64>,
    unlisted: &dyn Fn(&BreakerId) -> f64,
) -> bool {
    let amps = survey_truth(home, decision, amps, unlisted);
    match decision.breakers.len() {
        1 => {
            let claimed = match decision.stands {
                Stands::Over => 2,
                Stands::Near => 1,
                _ => 0,
            };
            band(amps, decision.limit) != claimed
        }
        _ => (decision.stands == Stands::Room) != (amps <= 0.8 * decision.limit),
    }
}
