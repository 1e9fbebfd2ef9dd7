//! Of a way that rests on what nobody has read: a plan that takes no more effort, and the least that has to be read for it.

use std::collections::BTreeSet;

use super::of_home::{Hope, Hopes, load_of, problem_of};
use super::one_way;
use super::problem::*;
use super::wish::HomeWish;
use crate::model::{Breaker, BreakerId, Panel};
use crate::study::Study;

/// How many steps each of these searches takes at most. One that stops short of its proof only asks for more to be read.
const MOST_STEPS: u64 = 5_000;

/// What a problem is made of.
pub(super) struct Asked<'a> {
    pub(super) home: &'a Study,
    pub(super) panel: &'a Panel,
    pub(super) wish: &'a HomeWish,
    /// Breakers that are not to be touched.
    pub(super) not: &'a [BreakerId],
}

impl Asked<'_> {
    /// The problem, with what is ruled out left as it is.
    pub(super) fn problem(&self, hopes: &Hopes) -> Result<Problem, String> {
        let mut problem = problem_of(self.home, self.panel, self.wish, hopes)?;
        for circuit in problem.circuits.iter_mut().filter(|circuit| self.not.iter().any(|id| id.as_str() == circuit.id)) {
            circuit.fixed = true;
        }
        Ok(problem)
    }

    /// The plan of this kind that needs the least to be read and takes no more than this one, with what it rests on; `asks`: what would
    /// have to be read for a plan.
    pub(super) fn leanest(&self, way: Way, hoped: &Found, asks: &dyn Fn(&Found, &Hopes) -> BTreeSet<Hope>) -> (Found, Hopes) {
        let (mut plan, mut hopes) = (hoped.clone(), Hopes::all());
        for hope in Hope::ALL {
            if !asks(&plan, &hopes).contains(&hope) {
                continue;
            }
            let fewer = hopes.but(hope);
            let without = self.problem(&fewer).ok();
            if let Some(found) = without.and_then(|problem| self.no_dearer(&problem, way, hoped)) {
                (plan, hopes) = (found, fewer);
            }
        }
        if asks(&plan, &hopes).contains(&Hope::Loads)
            && let Some((found, of)) = self.loads_that_decide(way, hoped, &hopes)
        {
            return (found, hopes.with_loads_of(of));
        }
        (plan, hopes)
    }

    fn no_dearer(&self, problem: &Problem, way: Way, hoped: &Found) -> Option<Found> {
        let Found::Plan { effort: most, .. } = hoped else { return None };
        let found = one_way(problem, way, MOST_STEPS).ok()?;
        let fits = matches!(&found, Found::Plan { effort, .. } if problem.weights.of(*effort) <= problem.weights.of(*most));
        fits.then_some(found)
    }

    /// The fewest circuits, the largest first, whose loads decide.
    fn loads_that_decide(&self, way: Way, hoped: &Found, hopes: &Hopes) -> Option<(Found, BTreeSet<BreakerId>)> {
        let width = |b: &Breaker| load_of(self.home, b, false) - load_of(self.home, b, true);
        let of_panel = self.home.panels().breakers_of(&self.panel.id);
        let mut open: Vec<(i64, BreakerId)> = of_panel.map(|b| (width(b) * b.poles() as i64, b.id.clone())).collect();
        open.retain(|(width, _)| *width > 0);
        open.sort_by(|a, b| b.0.cmp(&a.0).then_with(|| a.1.cmp(&b.1)));
        let with = |count: usize| {
            let of: BTreeSet<BreakerId> = open[..count].iter().map(|(_, id)| id.clone()).collect();
            let problem = self.problem(&hopes.with_loads_of(of.clone())).ok()?;
            Some((self.no_dearer(&problem, way, hoped)?, of))
        };
        let (mut from, mut to) = (0, open.len());
        let mut best = with(to)?;
        while from < to {
            let middle = usize::midpoint(from, to);
            match with(middle) {
                Some(found) => (best, to) = (found, middle),
                None => from = middle + 1,
            }
        }
        Some(best)
    }
}
