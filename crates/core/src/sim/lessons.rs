//! The lessons in their order, how each made-up house of one stands, and by its marks what to learn next.

use super::fault::fault_marks;
use super::lesson::measure_marks;
use super::practice::marks;
use super::work::work_marks;
use crate::logbook::Logbook;
use crate::model::{Lesson, Moment};
use crate::study::Study;
use crate::work::JobStands;

/// A lesson.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LessonName {
    /// How the power comes to the owner's own panel.
    Panel,
    /// The card of a made-up house, hung in its door.
    Card,
    /// Which breaker feeds what.
    Trace,
    /// What each circuit carries.
    Measure,
    /// Work in a panel, planned and done by its sheet.
    Plan,
    /// Why something is dark.
    Fault,
}

impl LessonName {
    /// In the order in which they are learnt.
    pub const ALL: [Self; 6] = [Self::Panel, Self::Card, Self::Trace, Self::Measure, Self::Plan, Self::Fault];

    /// What it is called.
    pub const fn title(self) -> &'static str {
        match self {
            Self::Panel => "Know your panel",
            Self::Card => "The card",
            Self::Trace => "Trace",
            Self::Measure => "Measure",
            Self::Plan => "Plan and do the work",
            Self::Fault => "Find the fault",
        }
    }

    /// What is learnt in it.
    pub const fn about(self) -> &'static str {
        match self {
            Self::Panel => {
                "How the power comes from the transformer to a point, and what stays live with the main off. In your own panel."
            }
            Self::Card => "In a made-up house that is traced: look through its card, print it, hang it in the door.",
            Self::Trace => "Find out which breaker feeds what, until nothing is open.",
            Self::Measure => "Find out what each circuit carries, with no more readings than decide it.",
            Self::Plan => "Choose a way to a wish and work through its sheet, and stop where something is wrong.",
            Self::Fault => "Find out why something is dark, and stop where there is danger.",
        }
    }
}

/// How far a lesson is in one house.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct LessonMark {
    /// The lesson.
    pub lesson: LessonName,
    /// It went to its end.
    pub done: bool,
    /// To its end, rightly, and with nothing that could have hurt somebody.
    pub good: bool,
    /// The marks in a sentence.
    pub said: String,
}

/// How the lessons of a made-up house stand; none of a real home.
pub fn lesson_marks(book: &Logbook, home: &Study, now: Moment) -> Vec<LessonMark> {
    let Some(recipe) = home.practice() else { return Vec::new() };
    let safe = |safety: &[String]| safety.first().cloned().unwrap_or_default();
    let mark = |lesson, done, good, said: String, safety: &[String]| LessonMark {
        lesson,
        done,
        good: done && good && safety.is_empty(),
        said: format!("{said} {}", safe(safety)).trim().to_owned(),
    };
    let mut all = Vec::new();
    if home.panels().all().any(|panel| home.panels().hung(&panel.id).is_some()) {
        all.push(mark(LessonName::Card, true, true, "A card hangs in its door.".into(), &[]));
    }
    match recipe.lesson {
        Lesson::Trace => all.extend(marks(book, home, false).map(|m| {
            let said = format!("{} of {} points proven in {:.0} minutes.", m.right + m.wrong, m.points, m.minutes);
            let done = m.handles > 0 && m.open == 0;
            mark(LessonName::Trace, done, m.wrong == 0, said, &m.safety)
        })),
        Lesson::Measure => all.extend(measure_marks(book, home, false).map(|m| {
            let said = format!("{} of {} circuits settled with {} readings.", m.settled, m.circuits, m.readings);
            let done = m.readings > 0 && (m.settled == m.circuits || m.fault_found == Some(true));
            mark(LessonName::Measure, done, m.wrong == 0 && m.fault_found != Some(false), said, &m.safety)
        })),
        Lesson::Work => all.extend(work_marks(book, home, now, false).map(|m| {
            let said = format!("{} of {} steps answered.", m.answered, m.steps);
            let done = matches!(m.stands, Some(JobStands::Done | JobStands::Stopped));
            mark(LessonName::Plan, done, m.stopped_rightly != Some(false), said, &m.safety)
        })),
        Lesson::Fault => all.extend(fault_marks(book, home, false).map(|m| {
            let said = match m.right {
                Some(true) => format!("Found in {:.1} minutes.", m.minutes),
                Some(false) => "What was named was not it.".into(),
                None => format!("{} looks so far.", m.looks),
            };
            mark(LessonName::Fault, m.over || m.right.is_some(), m.right == Some(true), said, &m.safety)
        })),
    }
    all
}

/// Which lesson comes next: the first that went nowhere well yet; none where all did.
pub fn next_lesson(marks: &[LessonMark], knows_the_panel: bool) -> Option<LessonName> {
    let good = |lesson: LessonName| match lesson {
        LessonName::Panel => knows_the_panel,
        _ => marks.iter().any(|mark| mark.lesson == lesson && mark.good),
    };
    LessonName::ALL.into_iter().find(|lesson| !good(*lesson))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_next_lesson_is_the_first_that_did_not_go_well() {
        let mark = |lesson, good| LessonMark { lesson, done: true, good, said: String::new() };
        assert_eq!(next_lesson(&[], false), Some(LessonName::Panel));
        assert_eq!(next_lesson(&[mark(LessonName::Trace, true)], true), Some(LessonName::Card));
        let mut all: Vec<LessonMark> = LessonName::ALL[1..].iter().map(|lesson| mark(*lesson, true)).collect();
        assert_eq!(next_lesson(&all, true), None);
        all[1].good = false;
        assert_eq!(next_lesson(&all, true), Some(LessonName::Trace), "it is over, and not well");
        all.push(mark(LessonName::Trace, true));
        assert_eq!(next_lesson(&all, true), None, "another try went well");
    }
}
