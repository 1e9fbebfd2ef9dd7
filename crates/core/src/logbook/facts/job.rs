//! Facts about jobs: what somebody set out to do, each answer on the way, and how it ended.

use super::{Fact, Kind, facts, is_default};
use crate::logbook::{Draft, Home, Names};
use crate::model::{BreakerId, Job, JobAnswer, JobFound, JobId, JobNames, PointId, Refusal};

facts! {
    /// A job sheet was made.
    JobBegun {
        /// The job.
        job: JobId,
        /// What is to be done.
        work: Job,
    }
    /// A step of a job sheet was answered. A later answer to the same thing replaces the earlier.
    JobAnswered {
        /// The job.
        job: JobId,
        /// The step, by its name in the sheet.
        step: String,
        /// What was answered.
        answer: JobAnswer,
    }
    /// Something was found on the way that ends the job here.
    JobStopped {
        /// The job.
        job: JobId,
        /// What.
        found: JobFound,
        /// Where, and what else is to be said.
        #[serde(default, skip_serializing_if = "is_default")]
        note: String,
    }
    /// The job is done: all that it changed, at once.
    JobEnded {
        /// The job.
        job: JobId,
        /// What holds from now on, in order.
        #[serde(default, skip_serializing_if = "is_default")]
        #[schema(no_recursion)]
        changes: Vec<Fact>,
    }
    /// The job was given up, and changed nothing.
    JobLeft {
        /// The job.
        job: JobId,
        /// Why.
        #[serde(default, skip_serializing_if = "is_default")]
        reason: String,
    }
    /// Points hang on another circuit from now on: looks at them until now do not count any more.
    PointsRewired {
        /// Which.
        points: Vec<PointId>,
        /// The breaker on which they are now.
        breaker: BreakerId,
        /// Each was seen to go off with that breaker and to come back with it, then once more, found anew.
        #[serde(default, skip_serializing_if = "is_default")]
        tested: bool,
    }
}

/// What a job is about, in the names of then.
fn about(work: &Job, names: &Names<'_>) -> String {
    work.words(&JobNames {
        number: &|id| names.number(id),
        point: &|id| names.point(id),
        panel: &|id| names.panel(id),
        tag: &|id| names.tag(id),
    })
}

impl Kind for JobBegun {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.begin_job(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("Job begun: {}", about(&self.work, names))
    }
}

impl Kind for JobAnswered {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.answer_job(self, entry)
    }
    fn words(&self, _: &Names<'_>) -> String {
        let step = self.step.replace(['-', '_'], " ");
        match &self.answer {
            JobAnswer::Done => format!("Job, {step}: done"),
            JobAnswer::Chose { choice } => format!("Job, {step}: {}", choice.replace(['-', '_'], " ")),
            JobAnswer::Read { reading, value } => format!("Job, {step}: {} {value}", reading.replace(['-', '_'], " ")),
            JobAnswer::Anew => format!("Job, {step}: to be read anew"),
        }
    }
}

impl Kind for JobStopped {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.stop_job(self, entry)
    }
    fn words(&self, _: &Names<'_>) -> String {
        let note = self.note.trim();
        if note.is_empty() {
            format!("Job stopped: {}", self.found.words())
        } else {
            format!("Job stopped: {}; {note}", self.found.words())
        }
    }
}

impl Kind for JobEnded {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.end_job(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let said: Vec<String> = self.changes.iter().map(|change| change.words(names)).collect();
        if said.is_empty() { "Job done: nothing in the record changes".into() } else { format!("Job done: {}", said.join("; ")) }
    }
}

impl Kind for JobLeft {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.leave_job(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        let reason = self.reason.trim();
        if reason.is_empty() { "Job given up".into() } else { format!("Job given up: {reason}") }
    }
}

impl Kind for PointsRewired {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.rewire_points(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let tested = if self.tested { ", each seen twice to go off and on with it" } else { "" };
        format!("{}: on {} now{tested}", names.points(&self.points), names.breaker(&self.breaker).to_lowercase())
    }
}
