//! Job sheets: what is done in a panel or at a point, step by step, with stops that only a reading or a named choice passes.
//!
//! In: a home and a job that was begun. Out: [`JobSheet`], with the step that is next, what stays live, what state the panel is left in,
//! and, once every step is passed, the facts that hold from then on. The steps follow from the job and the home alone (`panel_job`,
//! `other_jobs`, from the shared ones in `gates`); the answers are lines of the logbook.

mod changes;
mod gates;
mod other_jobs;
mod panel_fit;
mod panel_job;
mod panel_ready;
mod panel_test;
mod parts;
mod state;
mod steps;

pub use parts::PartLine;
pub(super) use parts::parts;
pub use steps::JobSide;
use steps::{Ask, Shows, Stage, Step};

use std::collections::BTreeSet;

use crate::checks::{Finding, Severity, findings};
use crate::logbook::{Fact, Home, JobAnswered, JobEnded, JobStep, JobStopped, KnownJob, LineStruck, StoppedJob};
use crate::model::{DEAD_HOLDS_MS, Job, JobAnswer, JobFound, JobId, Moment, PanelId};
use crate::panel::{PanelView, panel_view};
use crate::study::Study;

/// How a job stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JobStands {
    /// A step is next.
    Open,
    /// Something ended it on the way.
    Stopped,
    /// Every step is passed; the record has to follow.
    Ready,
    /// Done.
    Done,
    /// Given up.
    Left,
}

/// A choice of a step.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct JobChoice {
    /// Its name in the logbook.
    pub choice: String,
    /// As it is said.
    pub words: String,
    /// It ends the job.
    pub ends: bool,
    /// What is written for it.
    pub facts: Vec<Fact>,
}

/// A reading of a step.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct JobReading {
    /// Its name in the logbook.
    pub reading: String,
    /// `A to neutral`.
    pub name: String,
    /// Where the probes go.
    pub how: String,
    /// `V`, `in-lb`.
    pub unit: String,
    /// `about 0`.
    pub expect: String,
    /// What was read.
    pub value: Option<f64>,
}

/// What a step asks for.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "ask", rename_all = "snake_case")]
pub enum JobAsk {
    /// It is done.
    Tick {
        /// What is written for it.
        facts: Vec<Fact>,
    },
    /// One of these.
    Choice {
        /// The choices; those that end the job last.
        choices: Vec<JobChoice>,
    },
    /// All of these, in order.
    Readings {
        /// The readings.
        readings: Vec<JobReading>,
        /// What may be said instead of reading.
        instead: Option<JobChoice>,
        /// What is written where the meter will not settle; nothing where none is held.
        unsettled: Vec<Fact>,
    },
}

/// A step of a sheet.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct JobSheetStep {
    /// Its name in the logbook.
    pub step: String,
    /// From 1.
    pub number: usize,
    /// `Switch off and prove dead`.
    pub stage: String,
    /// Where it is done.
    pub side: JobSide,
    /// What to do.
    pub title: String,
    /// How.
    pub words: String,
    /// What hurts here.
    pub caution: String,
    /// The number of the stop, from 1; nothing where a tick passes it.
    pub stop: Option<usize>,
    /// What it asks for.
    pub ask: JobAsk,
    /// Passed.
    pub passed: bool,
    /// What was answered.
    pub said: String,
}

/// Why a job stopped, and what to do.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct JobStop {
    /// What.
    pub title: String,
    /// Whom to call and what not to touch.
    pub call: String,
    /// It stopped at this step, by its answer; nothing where it was reported.
    pub step: Option<String>,
    /// What was found, as the logbook names it.
    pub found: JobFound,
    /// What is written to answer that step anew; nothing where it was reported.
    pub again: Vec<Fact>,
    /// What is written to report it; nothing where it was.
    pub report: Vec<Fact>,
    /// What is written where it was reported by a slip.
    pub slip: Vec<Fact>,
}

/// A job sheet.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct JobSheet {
    /// The job.
    pub job: JobId,
    /// `Replace 17`.
    pub title: String,
    /// `Main panel, back hall`.
    pub place: String,
    /// When it was made.
    pub at: Moment,
    /// By whom.
    pub by: String,
    /// How it stands.
    pub stands: JobStands,
    /// What stays live the whole time.
    pub live: String,
    /// What is off by now: `MAIN`.
    pub off_now: Option<String>,
    /// Every step.
    pub steps: Vec<JobSheetStep>,
    /// Which is next, counted from 0.
    pub next: Option<usize>,
    /// Why it stopped.
    pub stop: Option<JobStop>,
    /// Why no sheet can be made of it (any more).
    pub refused: Option<String>,
    /// What state it leaves the panel in just now.
    pub left_as: Vec<String>,
    /// What is not known yet, and will have to be read on the way.
    pub not_known: Vec<String>,
    /// To take along.
    pub parts: Vec<PartLine>,
    /// To take along.
    pub tools: Vec<String>,
    /// What is written when it is done.
    pub ends: Option<Fact>,
    /// The panel as it would be.
    pub after: Option<PanelView>,
    /// The panel that it is about.
    pub panel: Option<PanelId>,
    /// When to stop and call an electrician.
    pub stop_and_call: &'static str,
}

/// A job in a list.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct JobLine {
    /// The job.
    pub job: JobId,
    /// `Replace 17`.
    pub title: String,
    /// How it stands.
    pub stands: JobStands,
    /// `step 9 of 22`, `stopped: water or rust`, `done`.
    pub words: String,
    /// When it was made.
    pub at: Moment,
}

const STOP_AND_CALL: &str = "Heat, burn marks, smell, water, rust; aluminum or cloth wire; a main that will not move; a breaker that trips again at \
                             once; a shock; readings that wander; anything that does not match this sheet.";

/// Every job, the open ones first, the newest on top.
pub fn jobs(home: &Study, now: Moment) -> Vec<JobLine> {
    let mut lines: Vec<JobLine> = home
        .jobs()
        .all()
        .rev()
        .map(|job| {
            let sheet = sheet_of(home, job, now);
            let words = match (sheet.stands, sheet.next) {
                (JobStands::Open, Some(next)) => format!("step {} of {}", next + 1, sheet.steps.len()),
                (JobStands::Open, None) => sheet.refused.unwrap_or_default(),
                (JobStands::Stopped, _) => sheet.stop.map_or_else(String::new, |stop| format!("stopped: {}", stop.found.words())),
                (JobStands::Ready, _) => "every step is passed: finish it".into(),
                (JobStands::Done, _) => "done".into(),
                (JobStands::Left, _) => "given up".into(),
            };
            JobLine { job: job.id.clone(), title: job.title.clone(), stands: sheet.stands, words, at: job.at }
        })
        .collect();
    lines.sort_by_key(|line| matches!(line.stands, JobStands::Done | JobStands::Left));
    lines
}

/// A job's sheet, as it stands now.
pub fn job_sheet(home: &Study, job: &JobId, now: Moment) -> Option<JobSheet> {
    home.jobs().job(job).map(|job| sheet_of(home, job, now))
}

/// Why no sheet is made for a job, if none is.
pub fn no_sheet(home: &Study, work: &Job) -> Option<String> {
    steps_of(home, work).err()
}

/// The home as it is once these things are done in a panel; nothing where that does not fit.
pub(super) fn as_it_would_be(home: &Study, panel: &PanelId, moves: &[crate::model::JobMove]) -> Option<Home> {
    let mut after = home.home().clone();
    // As when the sheet is walked: what changes its breaker is seen to go off and on with the new one.
    let facts = changes::of_moves(home, panel, moves, None, true);
    let last = home.trace().looks().iter().map(|look| look.at.unix_ms()).max().unwrap_or(0);
    let then = Moment::from_unix_ms(last + 3_600_000);
    facts.iter().try_for_each(|fact| after.suppose_at(fact, then)).ok()?;
    Some(after)
}

/// The first finding that would be there once these things are done, and is not now; words for a new card and advice on planned work
/// apart.
pub(super) fn brings_finding(home: &Study, panel: &PanelId, moves: &[crate::model::JobMove]) -> Option<String> {
    new_finding(home, as_it_would_be(home, panel, moves)?, &|severity| severity != Severity::Planned)
}

/// What would be worse than before once these things are done: the first new danger or fault, in its own words.
fn breaks(home: &Study, after: Home) -> Option<String> {
    let grave = |severity| matches!(severity, Severity::Danger | Severity::Fault);
    new_finding(home, after, &grave).map(|new| format!("Afterwards this would be so: {new}"))
}

fn new_finding(home: &Study, after: Home, counts: &dyn Fn(Severity) -> bool) -> Option<String> {
    let counts = |finding: &&Finding| counts(finding.severity) && !finding.code.starts_with("directory");
    let before: BTreeSet<&str> = findings(home).iter().filter(counts).map(|finding| finding.key.as_str()).collect();
    let after = Study::of(after);
    let new = findings(&after).iter().filter(counts).find(|finding| !before.contains(finding.key.as_str()))?;
    Some(format!("{}: {}", new.about, new.message))
}

struct Made {
    steps: Vec<Step>,
    live: String,
    /// What switches it off.
    by: String,
}

fn steps_of(home: &Study, work: &Job) -> Result<Made, String> {
    let panel = |id: &PanelId| home.panels().panel(id).ok_or("That panel is not in the record any more.");
    let (steps, live, by) = match work {
        Job::Reset { breaker } => {
            let (steps, live) = other_jobs::reset_steps(home, breaker)?;
            (steps, live, String::new())
        }
        Job::Point { point, work } => {
            let (steps, live) = other_jobs::point_steps(home, point, *work)?;
            (steps, live, "the circuit".into())
        }
        Job::MakeUp { panel: id, closed } => {
            let panel = panel(id)?;
            let (steps, live) = other_jobs::make_up_steps(home, panel, *closed)?;
            let by = gates::switched_off(home, panel).map_or_else(|_| String::new(), |off| off.by);
            (steps, live, by)
        }
        Job::Panel { panel: id, moves } => {
            let (steps, off) = panel_job::panel_steps(home, panel(id)?, moves)?;
            let after = as_it_would_be(home, id, moves).ok_or("This does not fit the panel as it is recorded.")?;
            if let Some(why) = breaks(home, after) {
                return Err(why);
            }
            (steps, off.live, off.by)
        }
        Job::Done { panel: id, moves, who } => {
            let (steps, live) = other_jobs::done_steps(home, panel(id)?, moves, who);
            if as_it_would_be(home, id, moves).is_none() {
                return Err("This does not fit the panel as it is recorded.".into());
            }
            (steps, live, String::new())
        }
    };
    Ok(Made { steps: steps.list, live, by })
}

/// How one step stands by what was answered.
enum StepStands {
    Open,
    Passed,
    Stopped(String, JobFound),
}

fn stands(step: &Step, answered: Option<&JobStep>) -> StepStands {
    let Some(answered) = answered else { return StepStands::Open };
    match &step.ask {
        Ask::Tick if answered.done => StepStands::Passed,
        Ask::Tick => StepStands::Open,
        Ask::Choice(choices) => match choices.iter().find(|choice| answered.chose.as_deref() == Some(choice.key)) {
            None => StepStands::Open,
            Some(choice) => match choice.ends {
                None => StepStands::Passed,
                Some(found) => StepStands::Stopped(choice.words.clone(), found),
            },
        },
        Ask::Readings { readings, instead } => {
            if instead.as_ref().is_some_and(|choice| answered.chose.as_deref() == Some(choice.key)) {
                return StepStands::Passed;
            }
            // In their order: a later one says nothing before those that come first.
            for reading in readings {
                let Some(value) = answered.read.get(&reading.key) else { return StepStands::Open };
                if let Shows::Stop(why, found) = reading.want.shows(*value) {
                    return StepStands::Stopped(format!("{}: {value} {}. {why}", reading.name, reading.unit), found);
                }
            }
            StepStands::Passed
        }
    }
}

fn sheet_of(home: &Study, job: &KnownJob, now: Moment) -> JobSheet {
    let panel = match &job.work {
        Job::Panel { panel, .. } | Job::Done { panel, .. } | Job::MakeUp { panel, .. } => Some(panel.clone()),
        Job::Reset { breaker } => home.panels().breaker(breaker).map(|b| b.panel.clone()),
        Job::Point { .. } => None,
    };
    let known = panel.as_ref().and_then(|id| home.panels().panel(id));
    let place = known.map_or_else(String::new, |panel| {
        if panel.place.is_empty() { panel.name.clone() } else { format!("{}, {}", panel.name, panel.place) }
    });
    let mut sheet = JobSheet {
        job: job.id.clone(),
        title: job.title.clone(),
        place,
        at: job.at,
        by: job.by.clone(),
        stands: JobStands::Open,
        live: String::new(),
        off_now: None,
        steps: Vec::new(),
        next: None,
        stop: None,
        refused: None,
        left_as: Vec::new(),
        not_known: Vec::new(),
        parts: Vec::new(),
        tools: Vec::new(),
        ends: None,
        after: None,
        panel,
        stop_and_call: STOP_AND_CALL,
    };
    if job.ended.is_some() {
        sheet.stands = JobStands::Done;
        return sheet;
    }
    if let Some(StoppedJob { found, note, line }) = &job.stopped {
        sheet.stands = JobStands::Stopped;
        let note = if note.is_empty() { String::new() } else { format!(" {note}") };
        sheet.stop = Some(JobStop {
            title: format!("Found: {}.{note}", found.words()),
            call: found.call().into(),
            step: None,
            found: *found,
            again: Vec::new(),
            report: Vec::new(),
            slip: vec![LineStruck { line: line.clone() }.into()],
        });
    }
    let made = match steps_of(home, &job.work) {
        Ok(made) => made,
        Err(why) => {
            sheet.refused = Some(why);
            if job.left.is_some() {
                sheet.stands = JobStands::Left;
            }
            return sheet;
        }
    };
    let old_proof = proof_is_old(&made.steps, job, now);
    let mut at = 0;
    for step in &made.steps {
        let answered = job.steps.get(&step.key);
        if old_proof && step.key == "dead" {
            break;
        }
        match stands(step, answered) {
            StepStands::Passed => at += 1,
            StepStands::Open => break,
            StepStands::Stopped(why, found) => {
                if sheet.stop.is_none() {
                    sheet.stands = JobStands::Stopped;
                    let anew = JobAnswered { job: job.id.clone(), step: step.key.clone(), answer: JobAnswer::Anew };
                    sheet.stop = Some(JobStop {
                        again: vec![anew.into()],
                        report: vec![stopped(&job.id, found, &why)],
                        slip: Vec::new(),
                        title: why,
                        call: found.call().into(),
                        step: Some(step.key.clone()),
                        found,
                    });
                }
                break;
            }
        }
    }
    let left = state::left_after(made.steps[..at].iter());
    sheet.left_as = left.words(&made.by, sheet.stop.as_ref().is_some_and(|stop| stop.found.is_grave()));
    if old_proof && at < made.steps.len() && made.steps[at].key == "dead" {
        sheet.left_as.push("More than two hours have passed since it was proven dead: read all of it again.".into());
    }
    sheet.off_now = left.is_off().then(|| made.by.trim_start_matches("the ").to_owned());
    let mut stops = 0;
    sheet.steps = made
        .steps
        .iter()
        .enumerate()
        .map(|(n, step)| {
            stops += usize::from(step.is_stop());
            let anew = old_proof && step.key == "dead" && n == at;
            said(&job.id, step, n, step.is_stop().then_some(stops), n < at, job.steps.get(&step.key).filter(|_| !anew))
        })
        .collect();
    if at == made.steps.len() && sheet.stands == JobStands::Open {
        sheet.stands = JobStands::Ready;
        sheet.ends = Some(JobEnded { job: job.id.clone(), changes: changes::changes(home, job) }.into());
    }
    sheet.next = (at < made.steps.len()).then_some(at);
    sheet.live = made.live;
    if let (Job::Panel { panel: id, moves }, Some(panel)) = (&job.work, known) {
        sheet.parts = parts::parts(home, panel, moves);
        sheet.after = as_it_would_be(home, id, moves).and_then(|after| panel_view(&Study::of(after), id).cloned());
        sheet.not_known = made
            .steps
            .iter()
            .filter(|step| step.key.starts_with("torque-") && !step.words.contains("is recorded"))
            .map(|step| step.title.trim_start_matches("Tighten ").trim_end_matches(" to the torque of the label.").to_owned())
            .collect::<Vec<_>>();
        if !sheet.not_known.is_empty() {
            sheet.not_known = vec![format!("The torque of the terminals of {}: read the label.", sheet.not_known.join(", "))];
        }
    }
    sheet.tools = match job.work {
        Job::Reset { .. } | Job::Done { .. } => Vec::new(),
        Job::Point { .. } => parts::tools(false),
        Job::Panel { .. } | Job::MakeUp { .. } => parts::tools(true),
    };
    if job.left.is_some() {
        (sheet.stands, sheet.next, sheet.ends) = (JobStands::Left, None, None);
    }
    sheet
}

/// Whether the proof of dead is older than it holds, with the work that needs it not at its end.
fn proof_is_old(steps: &[Step], job: &KnownJob, now: Moment) -> bool {
    let closed =
        steps.iter().filter(|step| step.stage == Stage::Close).all(|step| job.steps.get(&step.key).is_some_and(|said| said.done));
    let last = steps
        .iter()
        .filter(|step| matches!(step.stage, Stage::Dead | Stage::Fit | Stage::Close))
        .filter_map(|step| job.steps.get(&step.key).and_then(|said| said.at))
        .map(Moment::unix_ms)
        .max();
    let dead = job.steps.get("dead").and_then(|said| said.at).map(Moment::unix_ms);
    match (dead, last) {
        // Whoever goes on without a break keeps it; a break of that length between two answers has ended it for good.
        (Some(dead), Some(last)) if !closed => {
            let mut answered: Vec<i64> = steps
                .iter()
                .filter(|step| step.stage >= Stage::Dead)
                .filter_map(|step| job.steps.get(&step.key).and_then(|said| said.at))
                .map(Moment::unix_ms)
                .filter(|at| *at >= dead)
                .collect();
            answered.push(now.unix_ms().max(last));
            answered.sort_unstable();
            answered.windows(2).any(|pair| pair[1] - pair[0] > DEAD_HOLDS_MS)
        }
        _ => false,
    }
}

/// The fact that stops a job, with as much of what was said as it takes.
fn stopped(job: &JobId, found: JobFound, note: &str) -> Fact {
    JobStopped { job: job.clone(), found, note: note.chars().take(200).collect() }.into()
}

/// A step as it is shown.
fn said(job: &JobId, step: &Step, n: usize, stop: Option<usize>, passed: bool, answered: Option<&JobStep>) -> JobSheetStep {
    let chosen = answered.and_then(|said| said.chose.as_deref());
    let answered_by = |answer: JobAnswer| Fact::from(JobAnswered { job: job.clone(), step: step.key.clone(), answer });
    let choice = |choice: &steps::Choice| {
        let mut facts = vec![answered_by(JobAnswer::Chose { choice: choice.key.into() })];
        facts.extend(choice.ends.map(|found| stopped(job, found, &step.title)));
        JobChoice { choice: choice.key.into(), words: choice.words.clone(), ends: choice.ends.is_some(), facts }
    };
    let value = |key: &str| answered.and_then(|said| said.read.get(key).copied());
    let (ask, said) = match &step.ask {
        Ask::Tick => (
            JobAsk::Tick { facts: vec![answered_by(JobAnswer::Done)] },
            if answered.is_some_and(|said| said.done) { "done".to_owned() } else { String::new() },
        ),
        Ask::Choice(choices) => {
            let said = choices.iter().find(|one| chosen == Some(one.key)).map_or_else(String::new, |one| one.words.clone());
            (JobAsk::Choice { choices: choices.iter().map(choice).collect() }, said)
        }
        Ask::Readings { readings, instead } => {
            let read: Vec<String> = readings
                .iter()
                .filter_map(|one| value(&one.key).map(|value| format!("{} {value} {}", one.name, one.unit)))
                .collect();
            let instead_said = instead.as_ref().filter(|one| chosen == Some(one.key)).map(|one| one.words.clone());
            let readings: Vec<JobReading> = readings
                .iter()
                .map(|one| JobReading {
                    reading: one.key.clone(),
                    name: one.name.clone(),
                    how: one.how.clone(),
                    unit: one.unit.into(),
                    expect: one.want.words(),
                    value: value(&one.key),
                })
                .collect();
            let unsettled = match readings.iter().find(|one| one.value.is_none()) {
                Some(next) if next.unit == "V" => vec![stopped(job, JobFound::Wanders, &format!("{} {}", step.title, next.name))],
                _ => Vec::new(),
            };
            (
                JobAsk::Readings { readings, instead: instead.as_ref().map(choice), unsettled },
                instead_said.unwrap_or_else(|| read.join(", ")),
            )
        }
    };
    JobSheetStep {
        step: step.key.clone(),
        number: n + 1,
        stage: step.stage.words().into(),
        side: step.side,
        title: step.title.clone(),
        words: step.words.clone(),
        caution: step.caution.into(),
        stop,
        ask,
        passed,
        said,
    }
}

#[cfg(test)]
fn gates_readings(step: &Step) -> usize {
    if let Ask::Readings { readings, .. } = &step.ask { readings.len() } else { 0 }
}

#[cfg(test)]
mod tests;
