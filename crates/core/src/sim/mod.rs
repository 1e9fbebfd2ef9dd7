//! Made-up houses whose wiring a referee knows, and crews that trace them: how the engine is measured.
//!
//! In: a [`House`] (the practice-house file), a crew, a strategy, a seed. Out: a [`Played`] round: how long it took,
//! what was proven, and whether anything that must not happen did. A crew sees only what [`House::case`] tells and what
//! its own looks show. [`draw`] makes houses from a recipe, which are traced in the real logbook: [`reading`] is what an
//! instrument shows there, [`marks`] how good the trace is. Where its loads are hidden, [`meter_shows`] and [`measure_marks`] are the same
//! for measuring; where it has a wish, [`job_shows`] and [`work_marks`] for work in a panel; where something is dark
//! in it, [`fault_shows`] and [`fault_marks`]. In the score everything was seen lit with everything on before the clock starts, for every strategy alike.

mod draw;
mod electric;
mod fault;
mod instruments;
mod lesson;
mod lessons;
mod measure;
mod mishaps;
mod practice;
mod rooms;
mod score;
mod work;

pub use draw::{MadeHouse, draw};
pub use electric::HiddenFault;
pub use fault::{FaultHouse, fault_marks, fault_shows, fault_told};
pub use instruments::{Reading, ToneAt};
pub use lesson::{
    MeasureMarks, MeasuredAt, MeasuredTruth, MeterShows, UtilityMeter, UtilityShows, measure_marks, meter_shows, utility_meter,
};
pub use lessons::{LessonMark, LessonName, lesson_marks, next_lesson};
pub use measure::{HiddenLoad, HiddenLoads, MeasureHouse, SurveyPlayed, survey_of_unknown, survey_through};
pub use practice::{HeldAt, MarkedPoint, Marks, Traced, game, marks, reading, trace_through};
pub use score::{Score, Summary, score};
pub use work::{JobShows, MarkedWay, WorkHouse, WorkMarks, job_shows, work_marks};

use crate::logbook::{Draft, Fact, Logbook};
use crate::model::{Moment, Refusal};

/// Writes these facts into the logbook of a made-up house, a second for each line.
fn written_down(book: &mut Logbook, facts: Vec<Fact>) -> Result<(), Refusal> {
    let drafts: Vec<Draft> = facts
        .into_iter()
        .zip(book.seq() + 1..)
        .map(|(fact, n)| Draft {
            id: format!("line-{n}").parse().unwrap_or_else(|_| panic!("no id; this is a bug")),
            at: Moment::from_unix_ms(n as i64 * 1000),
            by: "crew".into(),
            instrument: None,
            version: Fact::VERSION,
            fact,
        })
        .collect();
    let outcome = book.admit(&drafts)?;
    book.commit(outcome);
    Ok(())
}
