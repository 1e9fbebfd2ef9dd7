//! The lesson “find the fault”: a made-up house, traced, with a hidden fault that is told of in Trips. What each look shows and how good
//! the search was.
//!
//! In: a home that was drawn for it. Out: what is seen at the look that comes next; the marks. Which faults come is drawn from the search's
//! own stories; volts come from the circuit solver ([`super::electric`]), with everything running that is plugged in.

use std::collections::BTreeSet;

use super::electric::{Electric, HiddenFault};
use super::measure::MeasureHouse;
use super::written_down;
use crate::logbook::{Fact, Home, Logbook};
use crate::model::{BreakerId, Lesson, LoadId, PointId, Recipe, Refusal, RefusalCode, TroubleId};
use crate::study::Study;
use crate::trips::{FaultDrawn, FaultMarks, FaultShown, OpenNeutral, PRACTICE, told, trouble_view};

/// A made-up house with a fault in it.
pub struct FaultHouse {
    /// What is recorded of it, the trouble last.
    pub facts: Vec<Fact>,
    measure: MeasureHouse,
    drawn: FaultDrawn,
}

/// The trouble that is told of in such a house.
pub fn fault_told() -> TroubleId {
    PRACTICE.parse().unwrap_or_else(|_| panic!("no id; this is a bug"))
}

impl FaultHouse {
    /// Draws it.
    ///
    /// # Errors
    /// No fault of that level fits the house: another house number is to be taken.
    pub fn draw(recipe: Recipe) -> Result<Self, Refusal> {
        let measure = MeasureHouse::draw(recipe)?;
        let mut book = Logbook::default();
        written_down(&mut book, measure.facts.clone())?;
        let home = Study::from(&book);
        let none = || {
            let wrong = "No fault like that fits into this house.".to_owned();
            Refusal::new(RefusalCode::OutOfRange, "seed", wrong, "Take another house number, or more points.")
        };
        let drawn = {
            let volts = |point: &PointId, open: &OpenNeutral| volts(&measure, &home, point, open);
            FaultDrawn::draw(&home, recipe.level, u64::from(recipe.seed), &volts).ok_or_else(none)?
        };
        let mut facts = measure.facts.clone();
        facts.push(told(&fault_told(), &drawn.told));
        Ok(Self { facts, measure, drawn })
    }

    fn of(home: &Study) -> Option<Self> {
        let recipe = home.practice().filter(|recipe| recipe.lesson == Lesson::Fault)?;
        Self::draw(recipe).ok()
    }
}

/// Volts between hot and neutral at a point of 120 V, with everything on that is plugged in or connected.
fn volts(measure: &MeasureHouse, home: &Home, point: &PointId, open: &OpenNeutral) -> Option<f64> {
    let breaker: &BreakerId = measure.made.wiring.feeds.get(point)?.breaker.as_ref()?;
    let fault = match open {
        OpenNeutral::No => None,
        OpenNeutral::Service => Some(HiddenFault::ServiceNeutralOpen),
        OpenNeutral::Shared(breakers) => Some(HiddenFault::SharedNeutralOpen(breakers.clone())),
    };
    let loads: Vec<LoadId> = home.loads().all().map(|load| load.id.clone()).collect();
    let electric = Electric { fault: fault.as_ref(), ..measure.electric(home, BTreeSet::new()) };
    let runs = measure.running(home, &loads, None);
    let solved = electric.solved(&runs, Some(breaker), &[point])?;
    Some(electric.volts_at(&solved, point))
}

/// What is seen at the look that comes next; `None` where the home was not drawn for this lesson, or nothing is looked for.
pub fn fault_shows(home: &Study) -> Option<FaultShown> {
    let house = FaultHouse::of(home)?;
    let trouble = home.troubles().trouble(&fault_told())?;
    let view = trouble_view(home, &trouble.id)?;
    if view.named.as_ref().is_some_and(|named| !named.boxes.is_empty()) {
        return Some(house.drawn.opened(home, trouble));
    }
    let next = view.next?;
    let volts = |point: &PointId, open: &OpenNeutral| volts(&house.measure, home, point, open);
    house.drawn.shown(home, trouble, &next, &volts)
}

/// The marks; `None` where the home was not drawn for this lesson. `reveal` shows what was wrong.
pub fn fault_marks(book: &Logbook, home: &Study, reveal: bool) -> Option<FaultMarks> {
    let house = FaultHouse::of(home)?;
    let trouble = home.troubles().trouble(&fault_told())?;
    let volts = |point: &PointId, open: &OpenNeutral| volts(&house.measure, home, point, open);
    Some(house.drawn.marks(book, home, trouble, &volts, reveal))
}
