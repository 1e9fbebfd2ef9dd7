//! Whether a breaker that was switched on again has latched. A handle that looks on and is not keeps its circuit dark:
//! a point on it would seem to go dark with the next breaker that is switched off, and be proven there wrongly.
//!
//! A breaker is seen to have latched by a lit look at a point that is proven on it, after it was switched on. For one
//! point it is enough that this point was seen lit since, or is lit while the breaker is off. A look that comes after the
//! dark one shows nothing: somebody may have pushed the handle home meanwhile.

use std::collections::{BTreeMap, BTreeSet};

use crate::{BreakerId, Home, Look, Seen};

/// Which breakers were seen to carry power, and when.
pub(super) struct Latched<'a> {
    home: &'a Home,
    /// For each breaker that moved, the lit looks at points that are proven on it: [`Look::moves`] and [`Look::nth`].
    lit: BTreeMap<&'a BreakerId, Vec<(usize, usize)>>,
}

impl<'a> Latched<'a> {
    /// `proven`: points proven on a breaker, with their looks that count.
    pub(super) fn of<'b>(home: &'a Home, proven: impl Iterator<Item = (&'a BreakerId, &'b [&'b Look])>) -> Self {
        let mut lit_on: BTreeMap<&BreakerId, Vec<(usize, usize)>> = BTreeMap::new();
        for (breaker, looks) in proven {
            let lit = looks.iter().filter(|look| look.seen == Seen::Lit).map(|look| (look.moves, look.nth));
            lit_on.entry(breaker).or_default().extend(lit);
        }
        // What is lit behind a feeder shows that the feeder carries power, too.
        let moved: BTreeSet<&BreakerId> = home.switched().iter().collect();
        let seen_through = |breaker: &BreakerId| {
            let behind = home.dead_behind(&BTreeSet::from([breaker.clone()]));
            lit_on.iter().filter(|(on, _)| behind.contains(**on)).flat_map(|(_, looks)| looks.iter().copied()).collect()
        };
        Self { home, lit: moved.into_iter().map(|breaker| (breaker, seen_through(breaker))).collect() }
    }

    /// Whether a point proven on the breaker was seen lit since its last move before `moves`, before the look `nth`.
    pub(super) fn was_seen(&self, breaker: &BreakerId, (moves, nth): (usize, usize)) -> bool {
        let Some(moved) = self.last_move(breaker, moves) else { return true };
        self.lit.get(breaker).is_some_and(|looks| looks.iter().any(|look| moved < look.0 && look.1 < nth))
    }

    fn last_move(&self, breaker: &BreakerId, moves: usize) -> Option<usize> {
        self.home.switched()[..moves].iter().rposition(|b| b == breaker)
    }

    /// The breakers that moved between two moments, are on at the second, and may not have latched as far as a point with
    /// these looks could tell before its look `nth`.
    pub(super) fn in_doubt(
        &self,
        looks: &[&Look],
        (from, to): (usize, usize),
        nth: usize,
        off: &BTreeSet<BreakerId>,
    ) -> Vec<BreakerId> {
        let between: BTreeSet<&BreakerId> = self.home.switched()[from..to].iter().filter(|b| !off.contains(*b)).collect();
        let cleared = |breaker: &BreakerId| {
            let lit_since = |look: &Look| look.nth < nth && self.last_move(breaker, to).is_some_and(|moved| moved < look.moves);
            self.was_seen(breaker, (to, nth))
                || looks.iter().any(|look| look.seen == Seen::Lit && (look.off.contains(breaker) || lit_since(look)))
        };
        between.into_iter().filter(|b| !cleared(b)).cloned().collect()
    }
}
