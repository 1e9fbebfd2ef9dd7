//! Work on a panel: ways to make room for what somebody wishes.
//!
//! [`make_room`] takes a [`Problem`] (a panel, its circuits, a wish) and gives, for each kind of [`Way`], the cheapest plan or the one
//! reason why there is none, and the best of all. Loads are in tenths of an ampere, costs in hundredths of a point; what a minute, a
//! unit of money and a risk count is part of the problem. The costs are guesses, open to everybody's own.
//!
//! [`work_view`] makes the problem of a panel of a home from facts (`of_home`) for a wish as people say it (`wish`), and says the ways
//! in words (`said`).
//!
//! [`size`] sizes a new circuit: breaker, wire, ground and receptacle, rule by rule.
//!
//! What a plan costs depends on the panel before and after alone (`value`), so the search (`search`) runs over what the panel could
//! be afterwards, and the order of the moves is made at the end (`moves`).

mod as_job;
mod choices;
mod costs;
mod leanest;
mod moves;
mod of_home;
mod problem;
mod reasons;
mod said;
mod search;
mod setup;
mod sheet;
mod size;
mod size_around;
mod size_view;
mod to_read;
mod value;
mod way_words;
mod wish;

use std::collections::BTreeMap;

pub use costs::{PricesRead, price_rows, read_prices};
pub use problem::*;
pub use said::{Elsewhere, Touched, WayLine, WayStands, WorkView, work_view};
use search::{Ended, Search};
use setup::Setup;
pub use sheet::{
    JobAsk, JobChoice, JobLine, JobReading, JobSheet, JobSheetStep, JobSide, JobStands, JobStop, PartLine, job_sheet, jobs,
    no_sheet,
};
pub use size::{SizeLine, Sized, SizedWhere, size};
pub use size_around::working_space_lacks;
pub use size_view::{KeptSizeLine, SizeView, kept_sizes, size_view};
pub use to_read::{ReadChoice, ReadPage, ToRead};
use value::Valued;
pub use wish::{HomeWish, WISHES, read_wish};

/// How many steps the search takes for one kind of way before it stops: some seconds.
pub const USUAL_STEPS: u64 = 2_000_000;

/// For each kind of way the cheapest plan or why there is none, and the best of all. A plan that stops short of its proof, after so many
/// steps of the search for its kind, says what any plan of the kind costs at least.
///
/// # Errors
/// A sentence about what does not fit together in the problem: a circuit outside the panel or where another one is, and the like.
pub fn make_room(problem: &Problem, most_steps: u64) -> Result<Ways, String> {
    let setup = Setup::of(problem)?;
    let choices = setup.choices();
    let mut ways = BTreeMap::new();
    // What is not proven costs at least this.
    let mut open: Option<i64> = None;
    for way in Way::ALL {
        let (found, at_least) = found(&setup, &choices, way, most_steps);
        open = open.into_iter().chain(at_least).min();
        ways.insert(way, found);
    }
    let plans = ways.iter().filter_map(|(way, found)| match found {
        Found::Plan { cost, .. } => Some(Best { kind: *way, cost: *cost, at_least: open.filter(|least| least < cost) }),
        Found::None { .. } => None,
    });
    let best = plans.min_by_key(|best| (best.cost, best.kind)).ok_or("an electrician can always be called")?;
    Ok(Ways { id: problem.id.clone(), best, ways })
}

/// The cheapest plan of one kind, or why there is none.
fn one_way(problem: &Problem, way: Way, most_steps: u64) -> Result<Found, String> {
    let setup = Setup::of(problem)?;
    let choices = setup.choices();
    Ok(found(&setup, &choices, way, most_steps).0)
}

/// The cheapest plan of one kind, or why there is none; and what any plan of it costs at least, where the search stopped short of its proof.
fn found(setup: &Setup<'_>, choices: &[Vec<choices::Choice>], way: Way, most_steps: u64) -> (Found, Option<i64>) {
    let problem = setup.problem;
    match way {
        Way::Nothing => return (nothing(setup), None),
        Way::Electrician => {
            let cost = problem.weights.of(problem.costs.electrician) + problem.weights.imbalance * setup.spread(&setup.before);
            return (Found::Plan { cost, moves: vec![Move::Call], effort: problem.costs.electrician, at_least: None }, None);
        }
        _ => {}
    }
    let none = |reason| (Found::None { reason }, None);
    if let Some(reason) = setup.refused().or_else(|| setup.out_of_the_question(way)) {
        return none(reason);
    }
    match Search::run(setup, choices, way, most_steps) {
        Ended::Found { plan, at_least } => {
            let Valued { cost, effort, .. } = plan.valued;
            (Found::Plan { cost, moves: setup.moves(&plan), effort, at_least }, at_least)
        }
        Ended::None if way == Way::Open => none(NoWay::NoOpenSpace),
        Ended::None => none(NoWay::NoRoom),
        Ended::Poles => none(NoWay::ListedPoles),
        Ended::Unknown(at_least) => (Found::None { reason: NoWay::NotProven }, Some(at_least)),
    }
}

/// Doing nothing, or nothing but using what is there.
fn nothing(setup: &Setup<'_>) -> Found {
    let problem = setup.problem;
    match setup.nothing() {
        Err(reason) => Found::None { reason },
        Ok((used, spread)) => {
            let effort = if used.is_some() { problem.costs.manage } else { [0; 3] };
            let moves = used.map(|host| Move::Use { circuit: setup.id(host) }).into_iter().collect();
            Found::Plan { cost: problem.weights.of(effort) + problem.weights.imbalance * spread, moves, effort, at_least: None }
        }
    }
}
