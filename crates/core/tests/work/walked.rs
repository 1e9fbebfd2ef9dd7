//! A job sheet answered step by step, as if all were well.

use wayfinder_core::work::{JobAsk, JobSheet, JobStands, job_sheet};
use wayfinder_core::{Fact, JobAnswer, JobAnswered, JobId};
use wayfinder_fixture::Written;

pub(super) fn id() -> JobId {
    "j1".parse().unwrap()
}

/// The sheet right after the last line.
pub(super) fn sheet(home: &Written) -> JobSheet {
    let now = home.book.lines().next_back().unwrap().entry.at;
    job_sheet(&home.home, &id(), now).unwrap()
}

/// What somebody reads there if all is well.
pub(super) fn as_expected(expect: &str) -> f64 {
    match expect {
        "about 0" | "under 2" => 0.3,
        "about 240" => 243.0,
        "as its label says" => 25.0,
        "about 120" | "about 120 or 240" => 121.4,
        other => panic!("what is {other}?"),
    }
}

/// Answers the next step as if all were well; `false` where there is none.
pub(super) fn goes_on(home: &mut Written) -> bool {
    let sheet = sheet(home);
    let Some(next) = sheet.next.filter(|_| sheet.stands == JobStands::Open) else { return false };
    let step = &sheet.steps[next];
    let answers: Vec<JobAnswer> = match &step.ask {
        JobAsk::Tick { .. } => vec![JobAnswer::Done],
        JobAsk::Choice { choices } => {
            vec![JobAnswer::Chose { choice: choices.iter().find(|one| !one.ends).unwrap().choice.clone() }]
        }
        JobAsk::Readings { readings, .. } => readings
            .iter()
            .filter(|one| one.value.is_none())
            .map(|one| JobAnswer::Read { reading: one.reading.clone(), value: as_expected(&one.expect) })
            .collect(),
    };
    for answer in answers {
        take(home, JobAnswered { job: id(), step: step.step.clone(), answer }.into());
    }
    true
}

pub(super) fn take(home: &mut Written, fact: Fact) {
    home.fact(fact).unwrap_or_else(|refusal| panic!("{refusal}"));
}
