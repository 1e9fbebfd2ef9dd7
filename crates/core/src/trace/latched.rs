//! Whether a breaker that was switched on again has latched. A handle that looks on and is not keeps its circuit dark:
//! a point on it would seem to go dark with the next breaker that is switched off, and be proven there wrongly.
//!
//! A breaker is seen to have latched by a lit look at a point that is proven on it, after it was switched on. For one
//! point it is enough that this point was seen lit since, or is lit while the breaker is off. A look that comes after the
//! dark one shows nothing: somebody may have pushed the handle home meanwhile.

use std::collections::{BTreeMap, BTreeSet};

use crate::logbook::{Look, Switching};
use crate::model::{BreakerId, Seen};
use crate::study::Study;

/// Which breakers were seen to carry power, and when.
pub(super) struct Latched<'a> {
    /// The breakers that moved, by number, and the other way round.
    breakers: Vec<&'a BreakerId>,
    numbers: BTreeMap<&'a BreakerId, usize>,
    /// [`Home::switched`] by number.
    switched: Vec<usize>,
    /// For each, where it moved.
    moved: Vec<Vec<usize>>,
    /// For each, the lit looks at points that are proven on it, by [`Look::moves`], each with the least [`Look::place`] of those
    /// from it on.
    lit: Vec<Vec<(usize, usize)>>,
    /// The breakers that feed others, each with all that is behind it.
    leading: Vec<(usize, BTreeSet<BreakerId>)>,
}

impl<'a> Latched<'a> {
    /// Nothing is proven yet.
    pub(super) fn new(home: &'a Study) -> Self {
        let mut latched = Self {
            breakers: Vec::new(),
            numbers: BTreeMap::new(),
            switched: Vec::with_capacity(home.switchings().count()),
            moved: Vec::new(),
            lit: Vec::new(),
            leading: Vec::new(),
        };
        for (at, Switching { breaker, .. }) in home.switchings().all().iter().enumerate() {
            let number = *latched.numbers.entry(breaker).or_insert_with(|| {
                latched.breakers.push(breaker);
                latched.moved.push(Vec::new());
                latched.breakers.len() - 1
            });
            latched.switched.push(number);
            latched.moved[number].push(at);
        }
        latched.lit = vec![Vec::new(); latched.breakers.len()];
        let panels = home.panels();
        for (number, breaker) in latched.breakers.iter().enumerate() {
            let leads_on =
                panels.panels_on(breaker).next().is_some() || panels.breaker(breaker).is_some_and(|b| b.details.back_fed_main);
            if leads_on {
                latched.leading.push((number, panels.dead_behind(&BTreeSet::from([(*breaker).clone()]))));
            }
        }
        latched
    }

    /// Takes in that a point with these looks is proven on a breaker: what is lit there shows that it carries power, and every
    /// feeder that it is behind. Gives the breakers of which more is known now.
    pub(super) fn learn(&mut self, breaker: &BreakerId, looks: &[&Look]) -> Vec<&'a BreakerId> {
        let lit: Vec<(usize, usize)> =
            looks.iter().filter(|look| look.seen == Seen::Lit).map(|look| (look.moves, look.place)).collect();
        let behind = self.leading.iter().filter(|(_, behind)| behind.contains(breaker)).map(|(number, _)| *number);
        let mut taught: Vec<usize> = behind.chain(self.numbers.get(breaker).copied()).collect();
        taught.sort_unstable();
        taught.dedup();
        for number in &taught {
            let known = &mut self.lit[*number];
            known.extend(&lit);
            known.sort_unstable();
            let mut least = usize::MAX;
            for (_, place) in known.iter_mut().rev() {
                least = least.min(*place);
                *place = least;
            }
        }
        taught.into_iter().map(|number| self.breakers[number]).collect()
    }

    /// Where it moved last before `moves`.
    fn last_move(&self, number: usize, moves: usize) -> Option<usize> {
        let moved = &self.moved[number];
        moved[..moved.partition_point(|at| *at < moves)].last().copied()
    }

    /// Whether a point that is proven on it was seen lit after this move and before the look `place`.
    fn seen(&self, number: usize, moved: usize, place: usize) -> bool {
        let lit = &self.lit[number];
        lit.get(lit.partition_point(|look| look.0 <= moved)).is_some_and(|look| look.1 < place)
    }

    /// The breakers that moved between two moments, are on at the second, and may not have latched as far as a point with
    /// these looks could tell before its look `place`.
    pub(super) fn in_doubt(
        &self,
        looks: &[&Look],
        (from, to): (usize, usize),
        place: usize,
        off: &BTreeSet<BreakerId>,
    ) -> Vec<BreakerId> {
        let mut asked = vec![false; self.breakers.len()];
        for number in off.iter().filter_map(|b| self.numbers.get(b)) {
            asked[*number] = true;
        }
        let lit = || looks.iter().filter(|look| look.seen == Seen::Lit);
        // The point itself was lit with it off, or lit since it moved.
        let mut off_while_lit = vec![false; self.breakers.len()];
        for number in lit().flat_map(|look| look.off.iter()).filter_map(|b| self.numbers.get(b)) {
            off_while_lit[*number] = true;
        }
        let last_lit = lit().filter(|look| look.place < place).map(|look| look.moves).max();
        let mut doubt = Vec::new();
        for number in &self.switched[from..to] {
            if std::mem::replace(&mut asked[*number], true) || off_while_lit[*number] {
                continue;
            }
            let Some(moved) = self.last_move(*number, to) else { continue };
            if last_lit.is_none_or(|lit| lit <= moved) && !self.seen(*number, moved, place) {
                doubt.push(self.breakers[*number].clone());
            }
        }
        doubt.sort();
        doubt
    }
}
