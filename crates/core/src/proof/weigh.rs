//! A trace weighed line by line: what is believed and what is proven by it.

use super::belief::Belief;
use super::case::{Case, Costs, OffSet, PointClass};
use super::cause::single_cause;
use super::stories::{Ahead, Found, Stories, Told, Weight, own_mind};

#[cfg(test)]
mod tests;

/// How likely a breaker has to be for a proof.
pub(super) const SURE: f64 = 0.999;
/// How likely another breaker may be at the most for a proof, by causes that many points would share.
pub(super) const SHARED: f64 = 5e-4;
/// How far it is taken for possible that the belief is quite wrong: so much of it is spread evenly over all breakers.
const BLIND: f64 = 0.03;
/// Points times breakers beyond which what is believed comes from the proofs of the same room and kind alone.
const MOST_BELIEVED: usize = 20_000;

/// How a point came to be looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Way {
    /// It was gone to, or found anew.
    Anew,
    /// It was looked at again where somebody stood.
    InPlace,
    /// It was watched as this breaker was switched off.
    Watched(usize),
}

/// A single cause that was seen at a point.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Cause {
    pub(crate) breaker: usize,
    /// The lit look, by its mark.
    pub(crate) lit: usize,
    /// The dark look, by its mark.
    pub(crate) dark: usize,
}

/// A lit look.
#[derive(Debug, Clone, Copy)]
struct Lit {
    off: OffSet,
    moves: usize,
    mark: usize,
}

/// What a point showed.
#[derive(Debug, Clone, Default)]
struct Seen {
    /// Its lit looks that count, the last under each off-set.
    lit: Vec<Lit>,
    /// Single causes, the first of each breaker first.
    causes: Vec<Cause>,
    /// Every look that counts: what was off, dark or lit, its mark.
    looks: Vec<(OffSet, bool, usize)>,
    /// It was dark with everything on, and was not seen lit so since.
    out: bool,
    measured: bool,
    /// What singled its breaker out no longer does.
    anew: bool,
}

impl Seen {
    /// Whether every look from this one on was dark with the breaker off and lit with it on.
    fn agree_since(&self, mark: usize, breaker: usize) -> bool {
        let mut since = self.looks.iter().rev().take_while(|(_, _, then)| *then >= mark);
        since.all(|(off, dark, _)| off.has(breaker) == *dark)
    }
}

/// How a point stands by its lines.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Reading {
    /// How likely each breaker is.
    pub(crate) chance: Vec<f64>,
    /// How likely each is by causes that many points would share.
    pub(crate) shared: Vec<f64>,
}

impl Reading {
    /// Whether the breaker is likely enough for a proof.
    pub(crate) fn is_sure(&self, breaker: usize) -> bool {
        let shared: f64 = self.shared.iter().enumerate().filter(|(c, _)| *c != breaker).map(|(_, x)| x).sum();
        self.chance[breaker] >= SURE && shared <= SHARED
    }

    /// Whether it is sure that one of these feeds the point, whichever.
    pub(crate) fn is_among(&self, breakers: OffSet) -> bool {
        let sum = |of: &[f64], among: bool| -> f64 {
            of.iter().enumerate().filter(|(b, _)| breakers.has(*b) == among).map(|(_, x)| x).sum()
        };
        sum(&self.chance, true) >= SURE && sum(&self.shared, false) <= SHARED
    }

    /// How far it is from a proof, as logarithms of odds; nothing where it is one.
    fn short_of(&self, breaker: usize) -> f64 {
        let odds = |p: f64| (p / (1.0 - p).max(1e-300)).max(1e-12).ln();
        let shared: f64 = self.shared.iter().enumerate().filter(|(c, _)| *c != breaker).map(|(_, x)| x).sum();
        let of_chance = odds(SURE) - odds(self.chance[breaker]);
        let of_shared = (shared.max(1e-300) / SHARED).ln();
        of_chance.max(of_shared).max(0.0)
    }
}

/// A trace, weighed.
#[derive(Debug, Clone)]
pub(crate) struct Weigh {
    belief: Belief,
    stories: Stories,
    seen: Vec<Seen>,
    off: OffSet,
    /// How many handles were moved, and for each breaker how many when it moved last.
    moves: usize,
    last_move: Vec<usize>,
    /// By the proofs of the same room and kind alone.
    plain: bool,
    /// Points of which there are news since it was worked out what is proven.
    news: Vec<usize>,
}

impl Weigh {
    /// Nothing was looked at yet, and everything is on.
    pub(crate) fn new(case: &Case, alone: bool) -> Self {
        let own = |p: &super::CasePoint| own_mind(p.class == PointClass::Receptacle, p.by_itself);
        let own: Vec<f64> = case.points.iter().map(own).collect();
        let beside = case.beside.iter().map(|near| near.iter().copied().collect()).collect();
        Self {
            belief: Belief::new(case, alone),
            stories: Stories::new(&own, beside),
            seen: vec![Seen::default(); case.points.len()],
            off: OffSet::NONE,
            moves: 0,
            last_move: vec![0; case.breakers()],
            plain: case.points.len() * case.breakers() > MOST_BELIEVED,
            news: Vec::new(),
        }
    }

    /// What is believed.
    pub(crate) fn belief(&self) -> &Belief {
        &self.belief
    }

    /// What is off.
    pub(crate) fn off(&self) -> OffSet {
        self.off
    }

    /// Time passed.
    pub(crate) fn passed(&mut self, seconds: f64) {
        self.stories.passed(seconds);
    }

    /// A handle was moved; `off` is what is without power now. A feeder moves all that is behind it.
    pub(crate) fn switched(&mut self, off: OffSet) {
        let moved = self.off.differs(off);
        if moved.is_empty() {
            return;
        }
        self.moves += 1;
        for breaker in moved.iter() {
            self.last_move[breaker] = self.moves;
        }
        self.stories.moved(moved, !moved.and(off).is_empty());
        self.off = off;
    }

    /// A handle stood otherwise than was believed. What may have rested on that is open again.
    pub(crate) fn found(&mut self, case: &Case, breaker: usize, found: Found) {
        self.stories.found(breaker, found);
        self.stories.settle();
        for point in 0..self.seen.len() {
            let Some(on) = self.belief.proven(point).filter(|on| *on != breaker) else { continue };
            let reading = self.reading(case, point);
            if reading.chance[breaker] > SHARED && !reading.is_sure(on) {
                self.belief.open_again(point);
            }
        }
        for point in (0..self.seen.len()).filter(|p| !self.seen[*p].looks.is_empty()).collect::<Vec<_>>() {
            self.weigh_anew(point);
        }
        self.news.extend(0..self.seen.len());
    }

    /// A breaker was found tripped, and stands so; `off` is what is without power now.
    pub(crate) fn tripped(&mut self, case: &Case, breaker: usize, off: OffSet) {
        self.found(case, breaker, Found::Tripped);
        self.moves += 1;
        for moved in self.off.differs(off).iter() {
            self.last_move[moved] = self.moves;
        }
        self.off = off;
    }

    /// A tone sender at the point was heard at a breaker: a clue for what is asked next, no part of a proof.
    pub(crate) fn heard(&mut self, case: &Case, point: usize, breaker: usize, costs: &Costs) {
        self.belief.heard(case, point, breaker, costs);
    }

    /// A look at a point. `mark` names it; `by_volts`: a meter showed it.
    pub(crate) fn saw(&mut self, case: &Case, point: usize, dark: bool, way: Way, by_volts: bool, mark: usize) {
        let told = self.told(case, point, self.off, dark, way, by_volts);
        let known = self.belief.proven(point).ok_or_else(|| self.off.iter().map(|b| self.chance_of(case, point, b)).sum());
        if self.belief.proven(point).is_none() && !self.plain {
            self.belief.learn(point, self.off, dark);
        }
        self.stories.saw(point, self.off, told, known);
        // What a proven point shows is weighed when something speaks against its proof.
        if self.belief.proven(point).is_none() {
            self.weigh_anew(point);
        }
        let cause = if dark { self.single_causes(case, point, self.off).next() } else { None };
        let seen = &mut self.seen[point];
        if dark {
            seen.out |= self.off.is_empty();
        } else if self.off.is_empty() && std::mem::take(&mut seen.out) {
            // What made it dark with everything on has been mended; what it showed before says nothing sure.
            seen.lit.clear();
            seen.causes.clear();
        }
        seen.looks.push((self.off, dark, mark));
        seen.causes.retain(|cause| self.off.has(cause.breaker) == dark);
        if let Some((breaker, lit)) = cause {
            seen.causes.push(Cause { breaker, lit, dark: mark });
        }
        if !dark {
            seen.lit.retain(|lit| lit.off != self.off);
            seen.lit.push(Lit { off: self.off, moves: self.moves, mark });
        }
        let singled_out = |breaker| self.seen[point].causes.iter().any(|cause| cause.breaker == breaker);
        if self.belief.proven(point).is_some_and(|breaker| !singled_out(breaker)) {
            self.belief.open_again(point);
            self.weigh_anew(point);
        }
        self.news.push(point);
    }

    fn told(&self, case: &Case, point: usize, off: OffSet, dark: bool, way: Way, by_volts: bool) -> Told {
        let watched = match way {
            Way::Watched(breaker) => Some(case.beside[breaker].iter().copied().collect()),
            Way::Anew | Way::InPlace => None,
        };
        Told { dark, anew: way == Way::Anew, others_off: self.others_off(case, point, off), by_volts, watched }
    }

    /// Tells the belief how well the point's own lines fit each breaker.
    fn weigh_anew(&mut self, point: usize) {
        self.stories.keep(point);
        let weights = self.stories.weights(point);
        self.belief.weigh(point, weights.iter().map(|weight| weight.all));
    }

    /// The share of points that may be taken for this one whose breaker is believed to be among those that are off.
    fn others_off(&self, case: &Case, point: usize, off: OffSet) -> f64 {
        if off.is_empty() {
            return 0.0;
        }
        let own = &case.points[point];
        let dark = |p: usize| off.iter().map(|b| self.chance_of(case, p, b)).sum::<f64>();
        let mean = |points: &mut dyn Iterator<Item = usize>| {
            let (sum, count) = points.map(dark).fold((0.0, 0), |(sum, count), x| (sum + x, count + 1));
            (count > 0).then(|| sum / f64::from(count))
        };
        let others = || (0..case.points.len()).filter(|p| *p != point);
        mean(&mut others().filter(|p| case.points[*p].room == own.room && case.points[*p].class == own.class))
            .or_else(|| mean(&mut others().filter(|p| case.points[*p].class == own.class)))
            .unwrap_or(off.len() as f64 / case.breakers() as f64)
    }

    fn chance_of(&self, case: &Case, point: usize, breaker: usize) -> f64 {
        match (self.belief.proven(point), self.plain) {
            (Some(on), _) => f64::from(u8::from(on == breaker)),
            (None, true) => 1.0 / case.breakers() as f64,
            (None, false) => self.belief.of(point)[breaker],
        }
    }

    /// What is believed of a point without its own lines, as a proof counts it.
    pub(crate) fn prior(&self, case: &Case, point: usize) -> Vec<f64> {
        /// Of a breaker that is gone only so much is left.
        const GONE: f64 = 1e-3;
        let even = 1.0 / case.breakers() as f64;
        let mut prior: Vec<f64> = if self.plain {
            let own = &case.points[point];
            let mut found = vec![0.0; case.breakers()];
            let like = |p: &usize| *p != point && case.points[*p].room == own.room && case.points[*p].class == own.class;
            for breaker in (0..case.points.len()).filter(like).filter_map(|p| self.belief.proven(p)) {
                found[breaker] += 1.0;
            }
            let count: f64 = found.iter().sum();
            let told = if count > 0.0 { 0.8 * count / (count + 0.5) } else { 0.0 };
            found.iter().map(|n| told * n / count.max(1.0) + (1.0 - told) * even).collect()
        } else {
            self.belief.prior(point).iter().map(|x| (1.0 - BLIND) * x + BLIND * even).collect()
        };
        for breaker in case.gone.iter() {
            prior[breaker] *= GONE;
        }
        prior
    }

    /// How a point stands by its lines and by what is believed of it without them.
    pub(crate) fn reading(&self, case: &Case, point: usize) -> Reading {
        self.read(case, point, &self.stories.weights(point))
    }

    fn read(&self, case: &Case, point: usize, weights: &[Weight]) -> Reading {
        let prior = self.prior(case, point);
        let total: f64 = prior.iter().zip(weights).map(|(prior, weight)| prior * weight.all).sum();
        let share = |of: fn(&Weight) -> f64| -> Vec<f64> {
            prior.iter().zip(weights).map(|(prior, weight)| prior * of(weight) / total.max(1e-300)).collect()
        };
        Reading { chance: share(|weight| weight.all), shared: share(Weight::shared) }
    }

    /// How likely each cause is beside its breaker, over all breakers but the one the point is taken to be on.
    pub(crate) fn other_stories(&self, case: &Case, point: usize, on: usize) -> OtherStories {
        let weights = self.stories.weights(point);
        let prior = self.prior(case, point);
        let total: f64 = prior.iter().zip(&weights).map(|(prior, weight)| prior * weight.all).sum();
        let mut other = OtherStories::default();
        for (_, (prior, weight)) in prior.iter().zip(&weights).enumerate().filter(|(b, _)| *b != on) {
            let of = |x: f64| prior * x / total.max(1e-300);
            let fine = weight.all - weight.shared() - weight.own - weight.elsewhere - weight.still_on;
            for (sum, x) in [
                (&mut other.misread, fine),
                (&mut other.not_latched, weight.dead),
                (&mut other.tripped, weight.tripped),
                (&mut other.outage, weight.outage),
                (&mut other.by_itself, weight.own),
                (&mut other.wrong_point, weight.elsewhere),
                (&mut other.wrong_handle, weight.still_on),
            ] {
                *sum += of(x);
            }
        }
        other
    }

    /// The single causes that were seen at a point, as far as no look from the lit one on disagrees.
    pub(crate) fn causes(&self, point: usize) -> &[Cause] {
        &self.seen[point].causes
    }

    /// What showed the point's breaker no longer does: it is to be seen lit and dark anew.
    pub(crate) fn see_anew(&mut self, point: usize) {
        self.belief.open_again(point);
        self.seen[point].anew = true;
    }

    /// Whether one more look at the point, with these off and dark as it is said to be, would single this breaker out.
    pub(crate) fn would_single_out(&self, case: &Case, point: usize, breaker: usize, off: OffSet) -> bool {
        self.single_causes(case, point, off).any(|(single, _)| single == breaker)
    }

    /// What a dark look at the point with these off would single out, each with the mark of its lit look, the last one first.
    fn single_causes<'a>(&'a self, case: &'a Case, point: usize, off: OffSet) -> impl Iterator<Item = (usize, usize)> + 'a {
        let seen = &self.seen[point];
        let turned = self.off.differs(off);
        seen.lit.iter().rev().filter_map(move |lit| {
            let moved = lit.off.iter().filter(|b| self.last_move[*b] > lit.moves || turned.has(*b));
            let breaker = single_cause(&lit.off, &off, moved)?;
            (!case.leads_on.has(breaker) && seen.agree_since(lit.mark, breaker)).then_some((breaker, lit.mark))
        })
    }

    /// A single cause that lacks nothing but being likely enough, and is the likeliest.
    pub(crate) fn waits(&self, point: usize) -> Option<usize> {
        let is_open = self.belief.proven(point).is_none() && !self.seen[point].anew;
        if is_open { self.singled_out(point) } else { None }
    }

    /// The likeliest breaker of which a single cause was seen.
    pub(crate) fn singled_out(&self, point: usize) -> Option<usize> {
        let fits = self.seen[point].causes.iter().map(|cause| cause.breaker);
        fits.max_by(|a, b| self.belief.of(point)[*a].total_cmp(&self.belief.of(point)[*b]))
    }

    /// Works out what is believed, and what is proven now. Says which points are newly so.
    pub(crate) fn infer(&mut self, case: &Case) -> Vec<usize> {
        /// Below this belief nothing is looked at closer.
        const WORTH_READING: f64 = 0.9;
        let mut fresh = Vec::new();
        self.stories.settle();
        loop {
            // Where nothing is believed, only a point that was looked at, or whose like was proven, can stand otherwise.
            let mut news = std::mem::take(&mut self.news);
            if !self.plain {
                self.belief.infer(case);
                news = (0..self.seen.len()).collect();
            }
            news.sort_unstable();
            news.dedup();
            let before = fresh.len();
            for point in news {
                let Some(breaker) = self.waits(point) else { continue };
                if !self.plain && self.belief.of(point)[breaker] < WORTH_READING {
                    continue;
                }
                self.stories.keep(point);
                if self.reading(case, point).is_sure(breaker) {
                    self.belief.prove(point, breaker);
                    fresh.push(point);
                    let own = &case.points[point];
                    let like = |p: &usize| case.points[*p].room == own.room && case.points[*p].class == own.class;
                    self.news.extend((0..self.seen.len()).filter(like));
                }
            }
            if fresh.len() == before {
                return fresh;
            }
        }
    }

    /// The same, with every point read once more: at the end, what was said of others meanwhile may have made it sure.
    pub(crate) fn infer_all(&mut self, case: &Case) -> Vec<usize> {
        self.news.extend(0..self.seen.len());
        self.infer(case)
    }

    /// Works out what is believed by somebody alone or by a pair, and proves nothing.
    pub(crate) fn believe(&mut self, case: &Case, alone: bool) {
        self.belief.is_of(alone);
        self.belief.infer(case);
    }

    /// The referee's own crew, which knows the answer, has proven it.
    pub(crate) fn prove(&mut self, point: usize, breaker: usize) {
        self.belief.prove(point, breaker);
    }

    /// What may be behind the lines of a point beside its breaker being off.
    pub(crate) fn behind(&self, case: &Case, point: usize) -> Behind {
        let weights = self.stories.weights(point);
        let prior = self.prior(case, point);
        let total: f64 = prior.iter().zip(&weights).map(|(prior, weight)| prior * weight.all).sum::<f64>().max(1e-300);
        let mut behind = Behind::default();
        let mut most = 0.0;
        for (b, (prior, weight)) in prior.iter().zip(&weights).enumerate() {
            let out_of_order = prior * (weight.dead + weight.tripped) / total;
            behind.out_of_order += out_of_order;
            behind.outage += prior * weight.outage / total;
            behind.by_itself += prior * weight.own / total;
            if out_of_order > most {
                (most, behind.likeliest) = (out_of_order, b);
            }
        }
        behind
    }

    /// Whether it was found to go by itself, and is looked at by its voltage since.
    pub(crate) fn is_measured(&self, point: usize) -> bool {
        self.seen[point].measured
    }

    /// From now on it is looked at by its voltage.
    pub(crate) fn measure(&mut self, point: usize) {
        self.seen[point].measured = true;
    }

    /// How far one more look would bring a point to its proof on this breaker, if it shows what that says: 1 where it proves
    /// it, nothing where it hardly tells. `turn`: a handle is moved before it, as (what moves, off).
    pub(crate) fn progress(
        &self,
        case: &Case,
        point: usize,
        breaker: usize,
        off: OffSet,
        turn: Option<(OffSet, bool)>,
        in_place: bool,
    ) -> f64 {
        let way = if in_place { Way::InPlace } else { Way::Anew };
        let look = Ahead::Look(off, self.told(case, point, off, off.has(breaker), way, false));
        let ahead = turn.map(|(moved, off)| Ahead::Turn(moved, off)).into_iter().chain([look]);
        self.progress_by(case, point, breaker, ahead)
    }

    /// The same where it is seen lit, watched while this breaker is switched off and on, and goes out and comes back with it.
    pub(crate) fn progress_by_watching(&self, case: &Case, point: usize, breaker: usize, off: OffSet, in_place: bool) -> f64 {
        let one = OffSet::one(breaker);
        let told = |off, dark, way| Ahead::Look(off, self.told(case, point, off, dark, way, false));
        let ahead = [
            told(off, false, if in_place { Way::InPlace } else { Way::Anew }),
            Ahead::Turn(one, true),
            told(off.with(breaker), true, Way::Watched(breaker)),
            Ahead::Turn(one, false),
            told(off, false, Way::InPlace),
        ];
        self.progress_by(case, point, breaker, ahead)
    }

    fn progress_by(&self, case: &Case, point: usize, breaker: usize, ahead: impl IntoIterator<Item = Ahead>) -> f64 {
        /// Below this, in logarithms of odds, a look is not worth its way.
        const LEAST: f64 = 0.4;
        let short = self.reading(case, point).short_of(breaker);
        let then = self.read(case, point, &self.stories.foresee(point, ahead));
        let left = then.short_of(breaker);
        if left <= 0.0 {
            1.0
        } else if short - left < LEAST {
            0.0
        } else {
            0.5 * (short - left) / short
        }
    }
}

/// What may be behind the lines of a point, whichever breaker feeds it.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(crate) struct Behind {
    /// Its breaker carries no power though it should.
    pub(crate) out_of_order: f64,
    /// The breaker that this is likeliest of.
    pub(crate) likeliest: usize,
    /// The house has no power.
    pub(crate) outage: f64,
    /// The point goes by itself.
    pub(crate) by_itself: f64,
}

impl Behind {
    /// Whether it is so likely to go by itself that it is looked at by its voltage from now on.
    pub(crate) fn is_to_be_measured(&self) -> bool {
        const LIKELY: f64 = 0.3;
        self.by_itself > LIKELY
    }
}

/// What else than its breaker could explain the lines of a point, and how likely each is.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(crate) struct OtherStories {
    /// A slip of the eye.
    pub(crate) misread: f64,
    /// Another breaker that did not latch.
    pub(crate) not_latched: f64,
    /// Another breaker that tripped meanwhile.
    pub(crate) tripped: f64,
    /// An outage.
    pub(crate) outage: f64,
    /// It goes by itself.
    pub(crate) by_itself: f64,
    /// Another point was looked at.
    pub(crate) wrong_point: f64,
    /// Another handle was moved.
    pub(crate) wrong_handle: f64,
}
