//! Rule found-on-a-job: something was found while working that stopped the job.
//!
//! Source: common practice, no published source: heat, burn marks, water, aluminum or old wire, a second feed, a main that does not move,
//! a shock, readings that wander are for an electrician. Example: the job at breaker 7 stopped at burn marks. It is gone once what an
//! electrician did in that panel is recorded and done.

use super::{Checked, FindingPlace, Found, Rule, Severity, Source};
use crate::model::{Job, JobFound};

pub(super) const RULE: Rule = Rule {
    code: "found-on-a-job",
    severity: Severity::Danger,
    why: "What stops a job does not mend itself, and whoever comes next does not know of it.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let home = checked.home;
    let panel_of = |work: &Job| match work {
        Job::Panel { panel, .. } | Job::Done { panel, .. } | Job::MakeUp { panel, .. } => Some(panel.clone()),
        Job::Reset { breaker } => home.panels().breaker(breaker).map(|b| b.panel.clone()),
        Job::Point { .. } => None,
    };
    let jobs: Vec<_> = home.jobs().all().collect();
    for (n, job) in jobs.iter().enumerate() {
        let Some(stopped) = &job.stopped else { continue };
        let (what, note) = (stopped.found, stopped.note.as_str());
        let panel = panel_of(&job.work);
        // Whoever came after it has recorded what was done.
        let mended = |later: &&crate::logbook::KnownJob| {
            later.ended.is_some() && matches!(later.work, Job::Done { .. }) && panel_of(&later.work) == panel
        };
        if panel.is_some() && jobs[n + 1..].iter().any(mended) {
            continue;
        }
        let (breaker, point) = match &job.work {
            Job::Reset { breaker } => (Some(breaker.clone()), None),
            Job::Point { point, .. } => (None, Some(point.clone())),
            Job::Panel { moves, .. } | Job::Done { moves, .. } => (moves.iter().find_map(|one| one.breaker().cloned()), None),
            Job::MakeUp { .. } => (None, None),
        };
        let breaker = breaker.filter(|id| home.panels().breaker(id).is_some());
        let point = point.filter(|id| home.house().point(id).is_some());
        let about = breaker.as_ref().map_or_else(|| job.title.clone(), |id| home.panels().number(id));
        let place = FindingPlace {
            panel: panel.filter(|id| home.panels().panel(id).is_some()),
            breaker,
            point,
            ..FindingPlace::default()
        };
        let note = if note.is_empty() { String::new() } else { format!(": {note}") };
        let message = format!("The job “{}” stopped: {}{note}.", job.title, what.words());
        let finding = found.add(job.id.as_str(), about, place, message, what.call().into());
        finding.severity = match what {
            JobFound::Burnt | JobFound::Water | JobFound::SecondFeed | JobFound::MainStuck | JobFound::Shock => Severity::Danger,
            JobFound::Aluminum | JobFound::OldWire | JobFound::TripsAgain | JobFound::Wanders => Severity::Fault,
            JobFound::NotAsSaid | JobFound::Label => Severity::Note,
        };
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn it_stays_until_what_an_electrician_did_is_recorded() {
        let burnt = "panel 12\n1 20 a\n3 15 b\njob j1 main: replace 1 20\nstop-job j1 burnt the stab of 1";
        let message = "1: The job “Replace 1 by one of 20 A” stopped: heat, burn marks or a smell: the stab of 1.";
        assert_eq!(said("found-on-a-job", burnt), [message]);
        assert_eq!(said("found-on-a-job", &format!("{burnt}\nleave-job j1")).len(), 1, "giving it up mends nothing");
        let recorded = format!("{burnt}\njob j2 main by An electrician: move 1 5");
        assert_eq!(said("found-on-a-job", &recorded).len(), 1, "not done yet");
        assert_eq!(said("found-on-a-job", &format!("{recorded}\nend-job j2")).len(), 0);
        assert_eq!(said("found-on-a-job", &format!("{burnt}\nstrike 8")).len(), 0, "a slip");
    }
}
