//! What is believed to be the matter, after the report and after every look.

use std::collections::{BTreeMap, BTreeSet};

use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;

use super::case::{BreakerNo, PointNo, STATES, State, TripCase};
use super::cause::{Cause, Family, Key};
use super::file::PowerBox;
use super::look::{Look, Saw};
use super::order::Cables;
use super::stories::{Boxes, Stories, Story};

/// A circuit is parted if its joints are so likely together.
const PARTED: f64 = 0.01;
/// Circuits up to so many points are parted in every way there is; larger ones by drawing.
const PARTED_WHOLE: usize = 10;
/// How often every label of a larger circuit is drawn anew: on one map, and on each of several.
const SWEEPS: usize = 40;
const SWEEPS_A_MAP: usize = 12;
/// So many maps at most are parted for one breaker.
const MAPS: usize = 8;
/// Of all stories together, a share below which one moves no decision.
const ALL_BUT_RULED_OUT: f64 = 1e-7;
/// Partings are kept down to this share of the likeliest: e to the -9.
const KEPT: f64 = 9.0;

/// Everything that is believed.
#[derive(Debug, Clone)]
pub struct Belief<'a> {
    case: &'a TripCase,
    stories: Stories<'a>,
    seen: Vec<(Look, Saw)>,
    /// How likely each cause is, by its number.
    by_key: Vec<f64>,
    total: f64,
    /// The stories that are not all but ruled out, by their numbers: what a look may tell is reckoned over these alone.
    alive: Vec<usize>,
}

impl<'a> Belief<'a> {
    /// What is believed after the report alone.
    pub fn new(case: &'a TripCase) -> Self {
        let mut rng = Pcg64Mcg::seed_from_u64(case.seed ^ 0x7472_6970);
        let stories = Stories::of(case, &mut rng);
        let mut belief = Self { case, stories, seen: Vec::new(), by_key: Vec::new(), total: 0.0, alive: Vec::new() };
        belief.sum_up();
        belief
    }

    /// The looks so far.
    pub fn seen(&self) -> &[(Look, Saw)] {
        &self.seen
    }

    /// The causes with how likely each is, the likeliest first.
    pub fn causes(&self) -> Vec<(Key, f64)> {
        let mut causes: Vec<(Key, f64)> = self.keys().iter().copied().zip(self.by_key.iter().copied()).collect();
        causes.sort_by(|a, b| b.1.total_cmp(&a.1).then_with(|| a.0.cmp(&b.0)));
        causes
    }

    /// How likely any is for which this holds.
    pub fn sum(&self, holds: impl Fn(Key) -> bool) -> f64 {
        self.keys().iter().zip(&self.by_key).filter(|(k, _)| holds(**k)).map(|(_, p)| p).sum()
    }

    /// How likely the volts are out of bounds.
    pub fn emergency(&self) -> f64 {
        self.sum(|k| k.cause.emergency())
    }

    /// How likely the fault of a family is in each box, the likeliest first.
    pub fn boxes(&self, family: Family) -> Vec<(PowerBox, f64)> {
        self.boxes_where(&|key| key.cause.family() == family)
    }

    fn boxes_where(&self, holds: &dyn Fn(Key) -> bool) -> Vec<(PowerBox, f64)> {
        let mut boxes: BTreeMap<PowerBox, f64> = BTreeMap::new();
        for story in self.stories.all.iter().filter(|s| holds(self.keys()[s.key])) {
            let p = story.now / self.total;
            let mut at = |place: PowerBox, share: f64| *boxes.entry(place).or_default() += share * p;
            match story.boxes {
                Boxes::None => {}
                Boxes::One(place) => at(place, 1.0),
                Boxes::Cable(cables, to) => {
                    for (from, share) in &self.stories.cables[cables] {
                        let at_from = if from.is_some() { 0.5 } else { 0.25 };
                        at(from.map_or(PowerBox::Panel, PowerBox::Point), share * at_from);
                        at(PowerBox::Point(to), share * (1.0 - at_from));
                    }
                }
            }
        }
        let mut boxes: Vec<_> = boxes.into_iter().collect();
        boxes.sort_by(|a, b| b.1.total_cmp(&a.1).then_with(|| a.0.cmp(&b.0)));
        boxes
    }

    /// The same for joints alone, without a failed breaker and a dead GFCI.
    pub(super) fn boxes_of_joints(&self, family: Family) -> Vec<(PowerBox, f64)> {
        self.boxes_where(&|key| key.cause.family() == family && key.cause.joint())
    }

    /// How likely each point stands as it should not.
    pub fn affected(&self) -> Vec<f64> {
        let mut weight = vec![0.0; self.stories.scenes.len()];
        for story in self.alive.iter().map(|at| &self.stories.all[*at]) {
            weight[story.scene] += story.now / self.total;
        }
        let mut affected = vec![0.0; self.case.points.len()];
        for (scene, weight) in self.stories.scenes.iter().zip(&weight).filter(|(_, w)| **w > 0.0) {
            for at in (0..scene.len()).filter(|at| scene[*at] != State::Live) {
                affected[at] += weight;
            }
        }
        affected
    }

    /// How likely each cause goes with each state of a point: by cause, then by state.
    pub(super) fn by_state(&self, point: Option<PointNo>) -> Vec<[f64; STATES]> {
        let mut table = vec![[0.0; STATES]; self.keys().len()];
        for story in self.alive.iter().map(|at| &self.stories.all[*at]) {
            let state = point.map_or(State::Live, |p| self.stories.scenes[story.scene][p]);
            table[story.key][state as usize] += story.now / self.total;
        }
        table
    }

    /// All causes, by their numbers.
    pub(super) fn keys(&self) -> &[Key] {
        &self.stories.keys
    }

    /// Takes a look into account.
    pub fn see(&mut self, look: Look, saw: Saw) {
        self.seen.push((look, saw));
        let n = self.seen.iter().filter(|(l, _)| *l != Look::Safety).count();
        if n == 3 || n == 4 || (n > 4 && (n - 4).is_multiple_of(6)) {
            self.part();
            for at in 0..self.stories.all.len() {
                let story = &self.stories.all[at];
                let chance: f64 = self.seen.iter().map(|(look, saw)| self.chance(story, *look, *saw)).product();
                self.stories.all[at].now = story.before * chance;
            }
        } else {
            for at in 0..self.stories.all.len() {
                let chance = self.chance(&self.stories.all[at], look, saw);
                self.stories.all[at].now *= chance;
            }
        }
        self.sum_up();
    }

    fn chance(&self, story: &Story, look: Look, saw: Saw) -> f64 {
        if saw == Saw::CannotTell && look != Look::Neighbors {
            return 1.0;
        }
        let state = look.site().map_or(State::Live, |p| self.stories.scenes[story.scene][p]);
        look.chance(self.case, saw, self.keys()[story.key], state)
    }

    fn sum_up(&mut self) {
        self.total = self.stories.all.iter().map(|s| s.now).sum::<f64>().max(f64::MIN_POSITIVE);
        let least = self.total * ALL_BUT_RULED_OUT;
        self.alive = (0..self.stories.all.len()).filter(|at| self.stories.all[*at].now >= least).collect();
        self.by_key = vec![0.0; self.stories.keys.len()];
        for story in &self.stories.all {
            self.by_key[story.key] += story.now / self.total;
        }
    }

    /// Puts all partings of a circuit in the place of drawn orders, of which by now hardly one fits what was seen.
    fn part(&mut self) {
        let mut rng = Pcg64Mcg::seed_from_u64(self.case.seed ^ self.seen.len() as u64);
        let known = |b: BreakerNo| self.case.orders.get(&b).is_some_and(|o| o.contains_key(&self.case.report.point));
        // A breaker that hardly feeds the reported point keeps its drawn orders.
        let mut likely: BTreeMap<BreakerNo, f64> = BTreeMap::new();
        for story in &self.stories.all {
            if let Some(drawn) = story.drawn {
                *likely.entry(drawn).or_default() += story.now / self.total;
            }
        }
        let named = |b: BreakerNo| self.case.map[self.case.report.point].breakers.iter().any(|(n, p)| *n == b && *p >= 0.2);
        let breakers: Vec<BreakerNo> =
            likely.into_iter().filter(|(b, p)| !known(*b) && (*p >= PARTED || named(*b))).map(|(b, _)| b).collect();
        self.stories.forget_drawn(&breakers);
        for breaker in breakers {
            let maps = self.likely_maps(breaker);
            let several = maps.len() > 1;
            for (weight, members) in maps {
                self.part_circuit(breaker, weight, &members, if several { SWEEPS_A_MAP } else { SWEEPS }, &mut rng);
            }
        }
    }

    /// The likeliest maps of a circuit among those that were drawn, with the weight of all of them shared among them.
    fn likely_maps(&self, breaker: BreakerNo) -> Vec<(f64, BTreeSet<PointNo>)> {
        let mut maps: BTreeMap<&BTreeSet<PointNo>, f64> = BTreeMap::new();
        let drawn = &self.stories.maps[&breaker];
        let all: f64 = drawn.iter().map(|(weight, _)| weight).sum();
        for (weight, members) in drawn {
            *maps.entry(members).or_default() += weight;
        }
        let mut maps: Vec<(f64, BTreeSet<PointNo>)> = maps.into_iter().map(|(m, w)| (w, m.clone())).collect();
        maps.sort_by(|a, b| b.0.total_cmp(&a.0));
        maps.truncate(MAPS);
        let kept: f64 = maps.iter().map(|(weight, _)| weight).sum();
        for (weight, _) in &mut maps {
            *weight *= all / kept;
        }
        maps
    }

    fn part_circuit(&mut self, breaker: BreakerNo, weight: f64, members: &BTreeSet<PointNo>, sweeps: usize, rng: &mut Pcg64Mcg) {
        let cables = Cables::of(self.case, breaker, members.iter().copied().collect());
        let n = cables.members.len();
        let Some(out) = cables.members.iter().position(|p| *p == self.case.report.point) else { return };
        let joint: Vec<f64> = cables.members.iter().map(|p| self.stories.joint_weight(*p)).collect();
        // What each label of a point is worth by what was seen at it and said of it.
        let worth: Vec<[f64; 2]> = cables.members.iter().map(|p| self.worth(*p)).collect();
        let value = |dark: &[bool]| {
            let seen: f64 = dark.iter().zip(&worth).map(|(d, w)| w[usize::from(*d)]).sum();
            seen + cables.ln_chance(dark, &joint)
        };
        let mut found: BTreeMap<Vec<bool>, f64> = BTreeMap::new();
        if n <= PARTED_WHOLE {
            for bits in 0u32..1 << n {
                let dark: Vec<bool> = (0..n).map(|i| bits & (1 << i) != 0).collect();
                if dark[out] {
                    found.insert(dark.clone(), value(&dark));
                }
            }
        } else {
            let mut dark: Vec<bool> = (0..n).map(|i| i == out || worth[i][1] > worth[i][0]).collect();
            let mut here = value(&dark);
            found.insert(dark.clone(), here);
            for _ in 0..sweeps {
                for i in (0..n).filter(|i| *i != out) {
                    dark[i] = !dark[i];
                    let there = *found.entry(dark.clone()).or_insert_with(|| value(&dark));
                    if rng.random::<f64>() < 1.0 / (1.0 + (here - there).exp()) {
                        here = there;
                    } else {
                        dark[i] = !dark[i];
                    }
                }
            }
        }
        let best = found.values().copied().fold(f64::NEG_INFINITY, f64::max);
        for (dark, _) in found.into_iter().filter(|(_, v)| *v > best - KEPT) {
            let behind: Vec<PointNo> = cables.members.iter().zip(&dark).filter(|(_, d)| **d).map(|(p, _)| *p).collect();
            let mut firsts = cables.partings(&dark);
            firsts.iter_mut().flat_map(|(_, from)| from).for_each(|(_, p)| *p *= weight);
            self.stories.along(&behind, &firsts, Some(breaker), breaker);
        }
    }

    /// The logarithms of what was seen at a point and said of it, with power and without.
    fn worth(&self, point: PointNo) -> [f64; 2] {
        let key = Key::place(Cause::OpenHot, point);
        let mut ln = [0.0; 2];
        for (at, state) in [State::Live, State::Dark].into_iter().enumerate() {
            for (look, saw) in self.seen.iter().filter(|(l, _)| l.site() == Some(point)) {
                if *saw != Saw::CannotTell {
                    let open = look.chance(self.case, *saw, key, State::OpenNeutral);
                    let dark = look.chance(self.case, *saw, key, state);
                    ln[at] += if state == State::Dark { dark.max(0.4 * open) } else { dark }.ln();
                }
            }
            if self.case.report.lit.contains(&point) {
                ln[at] += if state == State::Live { 0.97f64 } else { 0.02 }.ln();
            }
            if self.case.report.also.iter().any(|(p, _)| *p == point) {
                ln[at] += if state == State::Live { 0.003f64 } else { 1.0 }.ln();
            }
        }
        ln
    }
}
