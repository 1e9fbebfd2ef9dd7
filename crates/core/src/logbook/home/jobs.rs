//! Jobs as the logbook has them: what was set out to be done, each answer with who gave it and when, and how it ended.

use indexmap::IndexMap;

use super::trace::Doubt;
use super::{Home, refuse, short, unknown};
use crate::logbook::{
    BreakerSwitched, ChangeWatched, Draft, Fact, JobAnswered, JobBegun, JobEnded, JobLeft, JobStopped, PointSeen, PointsRewired,
};
use crate::model::{
    Change, DEAD_HOLDS_MS, EntryId, Job, JobAnswer, JobFound, JobId, JobMove, JobNames, Moment, PointId, Refusal, RefusalCode,
    Seen, State,
};

/// What was answered to one step.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct JobStep {
    /// It is done.
    pub done: bool,
    /// The choice that was named.
    pub chose: Option<String>,
    /// The readings, by name, in the order in which they were taken.
    pub read: IndexMap<String, f64>,
    /// When it was answered last.
    pub at: Option<Moment>,
    /// By whom.
    pub by: String,
}

/// What ended a job on the way.
#[derive(Debug, Clone, PartialEq)]
pub struct StoppedJob {
    /// What was found.
    pub found: JobFound,
    /// What was said of it.
    pub note: String,
    /// The line that says so.
    pub line: EntryId,
}

/// A job.
#[derive(Debug, Clone, PartialEq)]
pub struct KnownJob {
    /// Its id.
    pub id: JobId,
    /// What is to be done.
    pub work: Job,
    /// The same in words, by the numbers of then.
    pub title: String,
    /// When its sheet was made.
    pub at: Moment,
    /// By whom.
    pub by: String,
    /// The answers, by step.
    pub steps: IndexMap<String, JobStep>,
    /// What ended it on the way.
    pub stopped: Option<StoppedJob>,
    /// When it was done.
    pub ended: Option<Moment>,
    /// Why it was given up.
    pub left: Option<String>,
}

impl KnownJob {
    /// Neither done nor given up.
    pub const fn is_open(&self) -> bool {
        self.ended.is_none() && self.left.is_none()
    }
}

/// Every job, in the order of entry.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Jobs {
    jobs: IndexMap<JobId, KnownJob>,
}

impl Jobs {
    /// Every job, in the order of entry.
    pub fn all(&self) -> impl DoubleEndedIterator<Item = &KnownJob> {
        self.jobs.values()
    }
    /// A job.
    pub fn job(&self, id: &JobId) -> Option<&KnownJob> {
        self.jobs.get(id)
    }

    fn open(&mut self, id: &JobId) -> Result<&mut KnownJob, Refusal> {
        let job = self.jobs.get_mut(id).ok_or_else(|| unknown("job", "There is no such job.", "Name a job that was begun."))?;
        if job.is_open() {
            return Ok(job);
        }
        refuse(RefusalCode::StillNeeded, "job", "This job is over.", "Make a new job sheet; what was recorded stays.")
    }
}

/// The most that is done by one sheet: whoever wants more makes two.
const MOST_MOVES: usize = 24;

impl Home {
    pub(in crate::logbook) fn begin_job(&mut self, f: &JobBegun, entry: &Draft) -> Result<(), Refusal> {
        if self.jobs.jobs.contains_key(&f.job) {
            return refuse(RefusalCode::IdTaken, "job", "There is a job of that id already.", "Give the new one another id.");
        }
        match &f.work {
            Job::Reset { breaker } => drop(self.panels.known_breaker(breaker)?),
            Job::Point { point, .. } => drop(self.house.known_point(point)?),
            Job::MakeUp { panel, .. } => drop(self.panels.known_panel(panel)?),
            Job::Panel { panel, moves } | Job::Done { panel, moves, .. } => {
                self.panels.known_panel(panel)?;
                if moves.is_empty() || moves.len() > MOST_MOVES {
                    return refuse(
                        RefusalCode::OutOfRange,
                        "moves",
                        format!("A sheet of {} is none.", crate::model::so_many(moves.len(), "thing to do")),
                        "Give 1 to 24 things to do.",
                    );
                }
                for one in moves {
                    match one {
                        JobMove::New { what, feeds, breaker, outlet, .. } => {
                            short("what", what, 0, 60)?;
                            short("feeds", feeds, 0, 60)?;
                            if let Some(outlet) = outlet {
                                self.house.known_room(&outlet.room)?;
                            }
                            if self.panels.breaker(breaker).is_some() {
                                return refuse(
                                    RefusalCode::IdTaken,
                                    "breaker",
                                    "There is a breaker of that id already.",
                                    "Give the new one another id.",
                                );
                            }
                        }
                        JobMove::Join { breaker, to } | JobMove::Tap { breaker, to } => {
                            self.panels.known_breaker(breaker)?;
                            self.panels.known_breaker(to)?;
                        }
                        other => {
                            if let Some(breaker) = other.breaker() {
                                self.panels.known_breaker(breaker)?;
                            }
                        }
                    }
                }
                if let Job::Done { who, .. } = &f.work {
                    short("who", who, 1, 80)?;
                }
            }
        }
        let job = KnownJob {
            id: f.job.clone(),
            work: f.work.clone(),
            title: self.job_in_words(&f.work),
            at: entry.at,
            by: entry.by.clone(),
            steps: IndexMap::new(),
            stopped: None,
            ended: None,
            left: None,
        };
        self.jobs.jobs.insert(f.job.clone(), job);
        Ok(())
    }

    /// A job in words, by the numbers of today.
    pub fn job_in_words(&self, work: &Job) -> String {
        let point = |id: &PointId| {
            self.house
                .point(id)
                .map_or_else(|| "a point".into(), |point| format!("{}, {}", self.house.room_name(&point.room), point.name))
        };
        work.words(&JobNames {
            number: &|id| self.panels.number(id),
            point: &point,
            panel: &|id| self.panels.panel(id).map_or_else(|| "a panel".into(), |panel| panel.name.clone()),
            tag: &|id| self.panels.panel(id).map_or_else(String::new, |panel| panel.tag.clone()),
        })
    }

    pub(in crate::logbook) fn answer_job(&mut self, f: &JobAnswered, entry: &Draft) -> Result<(), Refusal> {
        short("step", &f.step, 1, 60)?;
        match &f.answer {
            JobAnswer::Chose { choice } => short("choice", choice, 1, 60)?,
            JobAnswer::Read { reading, value } => {
                short("reading", reading, 1, 60)?;
                if !(0.0..=100_000.0).contains(value) {
                    return refuse(
                        RefusalCode::OutOfRange,
                        "value",
                        format!("{value} is no reading."),
                        "Give what the meter shows, 0 or more.",
                    );
                }
            }
            JobAnswer::Done | JobAnswer::Anew => {}
        }
        let step = self.jobs.open(&f.job)?.steps.entry(f.step.clone()).or_default();
        // Readings are of one go: after a long break the first of them begins anew.
        let broke_off = |at: Moment| entry.at.unix_ms() - at.unix_ms() > DEAD_HOLDS_MS;
        if matches!(f.answer, JobAnswer::Read { .. }) && step.at.is_some_and(broke_off) {
            step.read.clear();
        }
        (step.at, step.by) = (Some(entry.at), entry.by.clone());
        match &f.answer {
            JobAnswer::Done => step.done = true,
            JobAnswer::Chose { choice } => step.chose = Some(choice.clone()),
            JobAnswer::Read { reading, value } => drop(step.read.insert(reading.clone(), *value)),
            JobAnswer::Anew => *step = JobStep { at: step.at, by: entry.by.clone(), ..JobStep::default() },
        }
        Ok(())
    }

    pub(in crate::logbook) fn stop_job(&mut self, f: &JobStopped, entry: &Draft) -> Result<(), Refusal> {
        short("note", &f.note, 0, 200)?;
        let stopped = StoppedJob { found: f.found, note: f.note.trim().to_owned(), line: entry.id.clone() };
        self.jobs.open(&f.job)?.stopped = Some(stopped);
        Ok(())
    }

    pub(in crate::logbook) fn leave_job(&mut self, f: &JobLeft) -> Result<(), Refusal> {
        short("reason", &f.reason, 0, 200)?;
        self.jobs.open(&f.job)?.left = Some(f.reason.trim().to_owned());
        Ok(())
    }

    /// Takes every change, or none.
    pub(in crate::logbook) fn end_job(&mut self, f: &JobEnded, entry: &Draft) -> Result<(), Refusal> {
        let mut after = self.clone();
        let job = after.jobs.open(&f.job)?;
        if let Some(stopped) = &job.stopped {
            return refuse(
                RefusalCode::StillNeeded,
                "job",
                format!("This job was stopped: {}.", stopped.found.words()),
                "Strike that line out first if it was a mistake.",
            );
        }
        job.ended = Some(entry.at);
        for change in &f.changes {
            if !may_follow(change) {
                return refuse(
                    RefusalCode::NotYet,
                    "changes",
                    "A job changes panels, breakers, points and loads, and nothing else.",
                    "Write that as a line of its own.",
                );
            }
            change.fold(&mut after, entry)?;
        }
        *self = after;
        Ok(())
    }

    pub(in crate::logbook) fn rewire_points(&mut self, f: &PointsRewired, entry: &Draft) -> Result<(), Refusal> {
        self.panels.known_breaker(&f.breaker)?;
        let mut after = self.clone();
        for point in &f.points {
            after.house.known_point(point)?;
        }
        after.trace.doubt_points(Doubt::Rewired, &f.points);
        if f.tested && !f.points.is_empty() {
            for point in &f.points {
                let (point, breaker) = (point.clone(), f.breaker.clone());
                after.watch_change(&ChangeWatched { point, breaker, saw: Change::CameBack, since: None }, entry)?;
            }
            // Then once more, each point found anew, as the sheet asks.
            let turned = |to| BreakerSwitched { breaker: f.breaker.clone(), to };
            after.switch_breaker(&turned(State::Off), entry)?;
            for point in &f.points {
                after.see_point(&PointSeen { point: point.clone(), seen: Seen::Dark, since: None, anew: true }, entry)?;
            }
            after.switch_breaker(&turned(State::On), entry)?;
            for point in &f.points {
                after.see_point(&PointSeen { point: point.clone(), seen: Seen::Lit, since: None, anew: false }, entry)?;
            }
        }
        *self = after;
        Ok(())
    }
}

/// Whether a job may bring this about.
const fn may_follow(change: &Fact) -> bool {
    matches!(
        change,
        Fact::PanelDescribed(_)
            | Fact::BreakerPlaced(_)
            | Fact::BreakerMoved(_)
            | Fact::BreakerRemoved(_)
            | Fact::BreakersJoined(_)
            | Fact::BreakerSwitched(_)
            | Fact::NeutralShared(_)
            | Fact::FillerSeen(_)
            | Fact::LabelClaimed(_)
            | Fact::PointPlaced(_)
            | Fact::PointsRewired(_)
            | Fact::LoadPlaced(_)
    )
}
