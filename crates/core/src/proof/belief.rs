//! How likely each breaker is for each point, in one pass and closed form, from looks, tones and the old card.
//!
//! Points of one kind in one room mostly hang on one breaker; how far that is true of this house is learnt on the way
//! (`affinity`). Clues order the tests; they prove nothing. How well a point's own lines fit is told by [`super::stories`].
#![allow(clippy::needless_range_loop)] // rows and columns of several tables are read by the same numbers

use super::case::{Case, Costs, OffSet, OldLabel, PointClass};

/// A matrix of points by breakers.
#[derive(Debug, Clone, Default)]
pub(crate) struct Grid {
    width: usize,
    cells: Vec<f64>,
}

impl Grid {
    pub(crate) fn new(rows: usize, width: usize, value: f64) -> Self {
        Self { width, cells: vec![value; rows * width] }
    }
    pub(crate) fn row(&self, n: usize) -> &[f64] {
        &self.cells[n * self.width..(n + 1) * self.width]
    }
    pub(crate) fn row_mut(&mut self, n: usize) -> &mut [f64] {
        &mut self.cells[n * self.width..(n + 1) * self.width]
    }
}

/// The settings of the model, found by playing made-up houses; no source. A crew of one walks to the panel for every
/// switching, so that other clues pay.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Model {
    /// How many points a breaker with a label is taken to feed there.
    labelled: f64,
    /// The share of points that hang on their group's main breaker, at full affinity.
    together: f64,
    /// How much the word of each point of a group counts for its main breaker.
    damped: f64,
    /// How much breakers that feed many points also draw strays.
    strays: f64,
    /// How much points of one kind next door tell.
    next_door: f64,
    /// How much points of another kind in the room tell.
    same_room: f64,
    /// How much the old card counts against what the others tell.
    card: f64,
    /// How sharply a point must be known before it tells anything of others.
    sharpness: f64,
    /// How much fixed appliances keep off breakers that feed others.
    appliance_alone: f64,
}

/// How far the card is believed before anything was seen, and between what limits that moves, as logarithms of odds.
const CARD_START: f64 = 4.0;
const CARD_MOST: f64 = 4.0;
const CARD_LEAST: f64 = 6.0;

/// A circuit that the card names by one room often goes on into others, lights above all. How well such a label fits a point of its kind
/// in another room, where it fits one in that room at 1. Counted in made-up houses of two kinds; no source.
struct Spread {
    next_door: f64,
    elsewhere: f64,
}

const LIGHTS: Spread = Spread { next_door: 0.2, elsewhere: 0.06 };
const OUTLETS: Spread = Spread { next_door: 0.08, elsewhere: 0.035 };
/// The same for an appliance in that room, which may be plugged into its receptacles.
const PLUGGED_IN: f64 = 0.15;

impl Model {
    const PAIR: Self = Self {
        labelled: 3.5,
        together: 0.9,
        damped: 0.9,
        strays: 3.0,
        next_door: 0.03,
        same_room: 0.1,
        card: 2.0,
        sharpness: 3.0,
        appliance_alone: 0.0,
    };
    const ALONE: Self = Self {
        labelled: 5.0,
        together: 0.9,
        damped: 0.96,
        strays: 2.0,
        next_door: 0.1,
        same_room: 0.1,
        card: 2.0,
        sharpness: 1.5,
        appliance_alone: 0.7,
    };
}

/// Everything that is believed of a case.
#[derive(Debug, Clone)]
pub struct Belief {
    model: Model,
    groups: Vec<usize>,
    group_count: usize,
    /// By how well its own lines fit each breaker.
    likelihood: Grid,
    /// What a tone tracer said of it: a clue, kept apart.
    clues: Grid,
    base: Grid,
    /// What is believed of a point without its own lines.
    prior: Grid,
    pub(crate) posterior: Grid,
    proven: Vec<Option<usize>>,
    /// For each breaker whether its label was right of the first point proven on it.
    label_right: Vec<Option<bool>>,
    /// That first point.
    first: Vec<Option<usize>>,
    /// How many labels say no place, or nothing.
    vague: i32,
    affinity: f64,
    /// By how much what was seen speaks for the old card rather than for no card at all, as a logarithm.
    card: f64,
    stale_base: bool,
    fit: Vec<Vec<f64>>,
}

/// How well a label fits each point; 1 where it says exactly that.
fn fits(case: &Case, label: &OldLabel) -> Vec<f64> {
    case.points
        .iter()
        .map(|p| match label {
            OldLabel::Blank | OldLabel::Spare => 0.0,
            OldLabel::Room { room, class: PointClass::Appliance, name } => {
                let named = p.class == PointClass::Appliance && (name.is_empty() || p.name.eq_ignore_ascii_case(name));
                match (p.room == *room, named) {
                    (true, true) => 1.0,
                    (true, false) => 0.03,
                    (false, _) => 0.0,
                }
            }
            OldLabel::Room { room, class, .. } => {
                let next_door = case.next_to[*room].contains(&p.room);
                let spread = if *class == PointClass::Light { LIGHTS } else { OUTLETS };
                match (p.room == *room, p.class == *class) {
                    (true, true) => 1.0,
                    (true, false) if *class == PointClass::Receptacle && p.class == PointClass::Appliance => PLUGGED_IN,
                    (true, false) => 0.05,
                    (false, true) if next_door => spread.next_door,
                    (false, true) => spread.elsewhere,
                    (false, false) => 0.0,
                }
            }
            OldLabel::Place { room } if p.room == *room => 1.0,
            OldLabel::Place { room } if case.next_to[*room].contains(&p.room) => 0.1,
            OldLabel::Place { .. } => 0.0,
            OldLabel::Kind { class } => {
                if p.class == *class {
                    1.0
                } else {
                    0.1
                }
            }
        })
        .collect()
}

fn entropy(row: &[f64]) -> f64 {
    -row.iter().filter(|x| **x > 1e-12).map(|x| x * x.log2()).sum::<f64>()
}

fn normalize(row: &mut [f64]) {
    let sum: f64 = row.iter().sum();
    if sum > 0.0 && sum.is_finite() {
        row.iter_mut().for_each(|x| *x /= sum);
    } else {
        let even = 1.0 / row.len() as f64;
        row.fill(even);
    }
}

impl Belief {
    /// Nothing was looked at yet.
    pub fn new(case: &Case, alone: bool) -> Self {
        let (points, breakers) = (case.points.len(), case.breakers());
        let (groups, group_count) = case.groups();
        let mut belief = Self {
            model: if alone { Model::ALONE } else { Model::PAIR },
            groups,
            group_count,
            likelihood: Grid::new(points, breakers, 1.0),
            clues: Grid::new(points, breakers, 1.0),
            base: Grid::new(points, breakers, 0.0),
            prior: Grid::new(points, breakers, 1.0 / breakers.max(1) as f64),
            posterior: Grid::new(points, breakers, 0.0),
            proven: vec![None; points],
            label_right: vec![None; breakers],
            first: vec![None; breakers],
            vague: case.labels.iter().map(|label| i32::from(label.is_vague())).sum(),
            affinity: 0.0,
            card: 0.0,
            stale_base: true,
            fit: case.labels.iter().map(|label| fits(case, label)).collect(),
        };
        belief.infer(case);
        belief
    }

    /// By the settings of somebody alone, or of a pair.
    pub(super) fn is_of(&mut self, alone: bool) {
        self.model = if alone { Model::ALONE } else { Model::PAIR };
        self.stale_base = true;
    }

    /// How likely each breaker is for a point, by their places in the case; sums to 1.
    pub fn of(&self, point: usize) -> &[f64] {
        self.posterior.row(point)
    }
    /// The breaker a point was proven on.
    pub fn proven(&self, point: usize) -> Option<usize> {
        self.proven[point]
    }
    fn like(&self, point: usize, breaker: usize) -> f64 {
        self.likelihood.row(point)[breaker] * self.clues.row(point)[breaker]
    }
    pub(crate) fn group(&self, point: usize) -> usize {
        self.groups[point]
    }
    /// How far points of one room go together in this house, 0 to 1.
    pub fn affinity(&self) -> f64 {
        1.0 / (1.0 + (-(self.affinity + 2.0)).exp())
    }
    /// Bits that are open about a point.
    pub fn open_bits(&self, point: usize) -> f64 {
        entropy(self.of(point))
    }

    /// How likely each breaker is for a point without its own lines; sums to 1.
    pub(super) fn prior(&self, point: usize) -> &[f64] {
        self.prior.row(point)
    }

    /// A point is about to be seen with these breakers off: what was foreseen of it is held against what is seen.
    pub(super) fn learn(&mut self, point: usize, off: OffSet, dark: bool) {
        self.learn_affinity(point, off, dark);
    }

    /// How well its own lines fit each breaker.
    pub(super) fn weigh(&mut self, point: usize, weights: impl Iterator<Item = f64>) {
        let row = self.likelihood.row_mut(point);
        row.iter_mut().zip(weights).for_each(|(x, weight)| *x = weight);
        rescale(row);
    }

    /// A tone sender at a point was heard at a breaker.
    pub(crate) fn heard(&mut self, case: &Case, point: usize, at: usize, costs: &Costs) {
        let beside = &case.beside[at];
        let bleed = (1.0 - costs.tone_right) / beside.len().max(1) as f64;
        let row = self.clues.row_mut(point);
        for (b, x) in row.iter_mut().enumerate() {
            let p = if b == at {
                costs.tone_right
            } else if beside.contains(&b) {
                bleed
            } else {
                1e-3
            };
            *x *= p;
        }
        rescale(row);
    }

    /// A point is proven: what follows for the old card, and for the rest.
    pub(crate) fn prove(&mut self, point: usize, breaker: usize) {
        self.proven[point] = Some(breaker);
        if self.label_right[breaker].is_none() {
            let fit = self.fit[breaker][point];
            self.label_right[breaker] = Some(fit >= 0.15);
            self.first[breaker] = Some(point);
        }
        self.stale_base = true;
    }

    /// A proof holds no longer.
    pub(crate) fn open_again(&mut self, point: usize) {
        if let Some(breaker) = self.proven[point].take()
            && self.first[breaker] == Some(point)
        {
            (self.label_right[breaker], self.first[breaker]) = (None, None);
        }
        self.stale_base = true;
    }

    /// The chance of what was seen, once as it is believed and once as if rooms told nothing.
    fn learn_affinity(&mut self, point: usize, off: OffSet, dark: bool) {
        let breakers = self.posterior.width;
        let believed: f64 = off.iter().map(|b| self.of(point)[b]).sum();
        let (mut of_off, mut all) = (0.0, 0.0);
        for b in 0..breakers {
            let x = self.like(point, b) * (0.3 * self.base.row(point)[b] + 0.7 / breakers as f64);
            all += x;
            of_off += if off.has(b) { x } else { 0.0 };
        }
        let plain = if all > 0.0 { of_off / all } else { 0.5 };
        let chance = |m: f64| (if dark { m } else { 1.0 - m }).clamp(0.04, 0.96);
        self.affinity = (self.affinity + chance(believed).ln() - chance(plain).ln()).min(4.0);
        self.learn_card(point, off, dark);
    }

    /// The chance of what was seen by the card alone, and without one.
    fn learn_card(&mut self, point: usize, off: OffSet, dark: bool) {
        let breakers = self.posterior.width;
        let base = self.base.row(point);
        let share = |weight: &dyn Fn(usize) -> f64| {
            let all: f64 = (0..breakers).map(weight).sum();
            let of_off: f64 = off.iter().map(weight).sum();
            if all > 0.0 { of_off / all } else { 0.5 }
        };
        let by_card = share(&|b| self.like(point, b) * (0.7 * base[b] + 0.3 / breakers as f64));
        let without = share(&|b| self.like(point, b));
        let chance = |m: f64| (if dark { m } else { 1.0 - m }).clamp(0.04, 0.96);
        self.card = (self.card + chance(by_card).ln() - chance(without).ln()).clamp(-CARD_LEAST, CARD_MOST);
    }

    /// How far the old card is believed by what was seen, 0 to 1.
    pub fn card_trust(&self) -> f64 {
        1.0 / (1.0 + (-(self.card + CARD_START)).exp())
    }

    /// How likely the card is right throughout. One that names a place and a kind on every breaker that is in use was made
    /// with care: even odds before anything is proven. What is vague, and even more what is found wrong, speaks against it.
    pub(crate) fn card_whole(&self) -> f64 {
        let (hits, trials) = self.labels_tried();
        let odds = 1.25_f64.powi(hits) * 0.03_f64.powi(trials - hits) * 0.1_f64.powi(self.vague);
        odds / (1.0 + odds)
    }

    /// How many labels were right of the first point proven on their breaker, and of how many that is known.
    fn labels_tried(&self) -> (i32, i32) {
        self.label_right.iter().flatten().fold((0, 0), |(hits, trials), right| (hits + i32::from(*right), trials + 1))
    }

    fn trust(&self) -> f64 {
        let (hits, trials) = self.labels_tried();
        let whole = self.card_whole();
        whole * 0.995 + (1.0 - whole) * (f64::from(hits) + 4.0) / (f64::from(trials) + 5.0)
    }

    /// What the card, the poles and what is found already say of each point, before any look.
    fn weigh_labels(&mut self, case: &Case) {
        let (points, breakers) = (case.points.len(), case.breakers());
        let (trust, whole) = (self.trust(), self.card_whole());
        let found: Vec<bool> = (0..breakers).map(|b| self.proven.contains(&Some(b))).collect();
        for b in 0..breakers {
            let fit = &self.fit[b];
            let sum: f64 = fit.iter().sum();
            let (mut t, n) = match &case.labels[b] {
                OldLabel::Kind { .. } => (0.9, self.model.labelled),
                OldLabel::Room { class: PointClass::Appliance, .. } => (trust, 1.3),
                OldLabel::Room { .. } | OldLabel::Place { .. } => (trust, self.model.labelled),
                OldLabel::Blank | OldLabel::Spare => (0.0, 0.0),
            };
            if self.label_right[b] == Some(false) && !matches!(case.labels[b], OldLabel::Kind { .. }) {
                t = 0.02;
            }
            let mut plain = (1.0 - t) * 5.0 / points as f64;
            if case.labels[b] == OldLabel::Spare {
                plain = 0.3 / points as f64;
            }
            let mut by_label = if sum > 0.0 { t * n / sum } else { 0.0 };
            if found[b] {
                by_label *= 0.5 + 0.5 * whole;
                plain *= 0.02;
            }
            for p in 0..points {
                let poles = match (case.points[p].high, case.two_pole[b]) {
                    (true, true) | (false, false) => 1.0,
                    (true, false) => 0.02,
                    (false, true) => 0.05,
                };
                self.base.row_mut(p)[b] = (by_label * fit[p] + plain).max(1e-7) * poles;
            }
        }
        for p in 0..points {
            normalize(self.base.row_mut(p));
        }
        self.stale_base = false;
    }

    /// Works everything out anew.
    pub(crate) fn infer(&mut self, case: &Case) {
        if self.stale_base {
            self.weigh_labels(case);
        }
        let (points, breakers) = (case.points.len(), case.breakers());
        let f = self.affinity();
        let even = 1.0 / breakers as f64;
        let flat = f <= 0.5;
        let card = self.card_trust() * if flat { 0.5 } else { 1.0 };
        let base = |belief: &Self, p: usize, b: usize| card * belief.base.row(p)[b] + (1.0 - card) * even;
        // Each point on its own, and how much that tells.
        let mut own = Grid::new(points, breakers, 0.0);
        let mut tells = vec![0.0; points];
        for p in 0..points {
            if let Some(b) = self.proven[p] {
                own.row_mut(p)[b] = 1.0;
                tells[p] = 1.0;
                continue;
            }
            let before = entropy(self.base.row(p)).max(1e-9);
            let row = own.row_mut(p);
            for (b, x) in row.iter_mut().enumerate() {
                *x = self.like(p, b) * base(self, p, b);
            }
            normalize(row);
            tells[p] = (1.0 - entropy(row) / before).clamp(0.0, 1.0).powf(self.model.sharpness);
        }
        // What the others say of where this one may hang: by room and kind, by room, by next door, by the whole house.
        let classes = [PointClass::Receptacle, PointClass::Light, PointClass::Appliance];
        let class_of = |c: PointClass| classes.iter().position(|x| *x == c).unwrap_or(0);
        let mut by_group = Grid::new(self.group_count, breakers, 0.0);
        let mut by_room = Grid::new(case.rooms, breakers, 0.0);
        let mut by_room_class = Grid::new(case.rooms * 3, breakers, 0.0);
        let mut by_house = vec![0.0; breakers];
        for p in 0..points {
            if tells[p] <= 0.0 {
                continue;
            }
            let (g, r, c) = (self.groups[p], case.points[p].room, class_of(case.points[p].class));
            for b in 0..breakers {
                let x = tells[p] * own.row(p)[b];
                by_group.row_mut(g)[b] += x;
                by_room.row_mut(r)[b] += x;
                by_room_class.row_mut(r * 3 + c)[b] += x;
                by_house[b] += x;
            }
        }
        let mut ground = Grid::new(points, breakers, 0.0);
        for p in 0..points {
            let point = &case.points[p];
            let (g, r, c) = (self.groups[p], point.room, class_of(point.class));
            let row = ground.row_mut(p);
            for (b, x) in row.iter_mut().enumerate() {
                let mine = tells[p] * own.row(p)[b];
                let same = by_group.row(g)[b] - mine;
                let room = by_room.row(r)[b] - by_group.row(g)[b];
                let next: f64 = case.next_to[r].iter().map(|n| by_room_class.row(n * 3 + c)[b]).sum();
                let stray = self.model.strays / points as f64 * (by_house[b] - mine);
                let mut start = base(self, p, b);
                if point.class == PointClass::Appliance && self.model.appliance_alone > 0.0 {
                    start *= (1.0 + by_house[b]).powf(-self.model.appliance_alone);
                }
                *x = self.model.card * start + f * (same + self.model.next_door * next + self.model.same_room * room) + stray;
            }
            normalize(row);
        }
        // The main breaker of each group, by what its points say.
        let together = |p: usize| {
            let point = &case.points[p];
            if point.class == PointClass::Appliance || point.high { 0.0 } else { self.model.together * f }
        };
        let mut main = Grid::new(self.group_count, breakers, 0.0);
        let mut message = Grid::new(points, breakers, 0.0);
        let mut members: Vec<f64> = vec![0.0; self.group_count];
        for p in 0..points {
            let (g, s) = (self.groups[p], together(p));
            members[g] += 1.0;
            for b in 0..breakers {
                main.row_mut(g)[b] += base(self, p, b);
            }
            if s == 0.0 {
                continue;
            }
            let sure = self.proven[p];
            let like = |b: usize| match sure {
                Some(b0) if b0 == b => 1.0,
                Some(_) => 1e-6,
                None => self.like(p, b),
            };
            let elsewhere: f64 = (0..breakers).map(|b| ground.row(p)[b] * like(b)).sum();
            for b in 0..breakers {
                message.row_mut(p)[b] = self.model.damped * (s * like(b) + (1.0 - s) * elsewhere).max(1e-12).ln();
            }
        }
        for g in 0..self.group_count {
            for b in 0..breakers {
                let mean = main.row(g)[b] / members[g].max(1.0);
                main.row_mut(g)[b] = mean.max(1e-9).ln();
            }
        }
        for p in 0..points {
            for b in 0..breakers {
                main.row_mut(self.groups[p])[b] += message.row(p)[b];
            }
        }
        for p in 0..points {
            let (g, s) = (self.groups[p], together(p));
            let mut others: Vec<f64> = (0..breakers).map(|b| main.row(g)[b] - message.row(p)[b]).collect();
            let top = others.iter().copied().fold(f64::NEG_INFINITY, f64::max);
            others.iter_mut().for_each(|x| *x = (*x - top).exp());
            normalize(&mut others);
            let prior = self.prior.row_mut(p);
            for (b, x) in prior.iter_mut().enumerate() {
                *x = s * others[b] + (1.0 - s) * ground.row(p)[b];
            }
            normalize(prior);
            if let Some(b0) = self.proven[p] {
                let row = self.posterior.row_mut(p);
                row.fill(0.0);
                row[b0] = 1.0;
                continue;
            }
            for b in 0..breakers {
                self.posterior.row_mut(p)[b] = self.like(p, b) * self.prior.row(p)[b];
            }
            normalize(self.posterior.row_mut(p));
        }
    }
}

/// Keeps likelihoods away from nothing.
fn rescale(row: &mut [f64]) {
    let top = row.iter().copied().fold(0.0, f64::max);
    if top > 0.0 {
        row.iter_mut().for_each(|x| *x /= top);
    }
}
