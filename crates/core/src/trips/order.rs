//! In which order the points of a circuit follow each other, where nobody knows: drawn chains at first, and how likely each parting
//! of a circuit into what has power and what has none is, over all ways in which its cables could run.
//!
//! Source of the parting: the matrix-tree theorem (Kirchhoff 1847): the spanning trees of a graph, each counted by the product of
//! its weights, are a determinant of its Laplacian.

use rand::Rng;
use rand_pcg::Pcg64Mcg;

use super::case::{BreakerNo, Order, PointNo, TripCase};

/// How fast the likelihood of a cable falls with its length: seconds of walking.
const CABLE_S: f64 = 3.0;
/// The next joint follows the last one so often; otherwise it branches off from any.
const FOLLOWS: f64 = 0.8;

/// A point that may come first after a joint, with the cables that could lead there: from where (`None`: the panel), how likely.
pub(super) type First = (PointNo, Vec<(Option<PointNo>, f64)>);

/// Draws an order of the points of a circuit.
pub(super) fn draw_order(case: &TripCase, breaker: BreakerNo, members: &[PointNo], rng: &mut Pcg64Mcg) -> Order {
    let mut order = Order::new();
    let mut left: Vec<PointNo> = members.to_vec();
    let mut placed: Vec<PointNo> = Vec::with_capacity(members.len());
    let panel = case.panel_room(breaker);
    while !left.is_empty() {
        let from = match placed.last() {
            None => None,
            Some(last) if rng.random_bool(FOLLOWS) => Some(*last),
            Some(_) => Some(placed[rng.random_range(0..placed.len())]),
        };
        let weight = |p: PointNo| match from {
            None => (-case.walk_s[panel][case.points[p].room] / 5.0).exp(),
            Some(from) => (-case.cable(from, p) / CABLE_S).exp(),
        };
        let next = left.remove(pick(left.iter().map(|p| weight(*p)), rng));
        order.insert(next, from);
        placed.push(next);
    }
    order
}

/// Draws a place in a list by weight.
pub(super) fn pick(weights: impl Iterator<Item = f64> + Clone, rng: &mut Pcg64Mcg) -> usize {
    let total: f64 = weights.clone().sum();
    let mut left = rng.random::<f64>() * total;
    let mut last = 0;
    for (at, weight) in weights.enumerate() {
        last = at;
        left -= weight;
        if left < 0.0 {
            break;
        }
    }
    last
}

/// What lies behind a joint: the point and all that is fed through it.
pub(super) fn behind(order: &Order, joint: PointNo) -> Vec<PointNo> {
    let through = |point: PointNo| {
        let mut at = Some(point);
        let mut steps = 0;
        while let Some(now) = at {
            if now == joint {
                return true;
            }
            at = order.get(&now).copied().flatten();
            steps += 1;
            if steps > order.len() {
                return false;
            }
        }
        false
    };
    order.keys().copied().filter(|p| through(*p)).collect()
}

/// The joints on the way from the panel to a point, the point's own last.
pub(super) fn way_to(order: &Order, point: PointNo) -> Vec<PointNo> {
    let mut way = Vec::new();
    let mut at = order.contains_key(&point).then_some(point);
    while let Some(now) = at {
        if way.contains(&now) {
            break;
        }
        way.push(now);
        at = order.get(&now).copied().flatten();
    }
    way.reverse();
    way
}

/// The cables that could be, with their weights, between the points of a circuit and from its panel.
pub(super) struct Cables {
    /// The points, in the order of the numbers below.
    pub(super) members: Vec<PointNo>,
    between: Vec<Vec<f64>>,
    from_panel: Vec<f64>,
    ln_all: f64,
}

impl Cables {
    /// The cables of a circuit with these points.
    pub(super) fn of(case: &TripCase, breaker: BreakerNo, members: Vec<PointNo>) -> Self {
        let panel = case.panel_room(breaker);
        let between = members
            .iter()
            .map(|a| members.iter().map(|b| if a == b { 0.0 } else { (-case.cable(*a, *b) / CABLE_S).exp() }).collect())
            .collect();
        let from_panel = members.iter().map(|p| 0.05 * (-case.walk_s[panel][case.points[*p].room] / 8.0).exp()).collect();
        let mut cables = Self { members, between, from_panel, ln_all: 0.0 };
        cables.ln_all = cables.ln_trees(&vec![false; cables.members.len()], false);
        cables
    }

    /// The logarithm of the sum over all trees of the points that are (or are not) dark; the lit ones with the panel.
    fn ln_trees(&self, dark: &[bool], of_dark: bool) -> f64 {
        let nodes: Vec<usize> = (0..dark.len()).filter(|i| dark[*i] == of_dark).collect();
        // The row of one dark point is left out, as that of the panel is among the lit.
        let rows = if of_dark { &nodes[nodes.len().min(1)..] } else { &nodes[..] };
        let n = rows.len();
        let mut m = vec![0.0; n * n];
        for (r, i) in rows.iter().enumerate() {
            let mut sum = if of_dark { 0.0 } else { self.from_panel[*i] };
            for j in &nodes {
                sum += self.between[*i][*j];
            }
            for (c, j) in rows.iter().enumerate() {
                m[r * n + c] = if r == c { sum } else { -self.between[*i][*j] };
            }
        }
        ln_determinant(&mut m, n)
    }

    /// How likely it is, over all ways of wiring, that exactly these points lie behind one joint: for each point that may come
    /// first after it the cables that could lead there, from where (`None`: the panel) and how likely.
    pub(super) fn partings(&self, dark: &[bool]) -> Vec<First> {
        let scale = (self.ln_trees(dark, false) + self.ln_trees(dark, true) - self.ln_all).exp();
        let lit = || (0..dark.len()).filter(|u| !dark[*u]);
        let cables = |v: usize| {
            let panel = [(None, scale * self.from_panel[v])];
            panel.into_iter().chain(lit().map(|u| (Some(self.members[u]), scale * self.between[u][v]))).collect()
        };
        (0..dark.len()).filter(|v| dark[*v]).map(|v| (self.members[v], cables(v))).collect()
    }

    /// The same with one weight a point for the joint before it: the sum over all cables, as a logarithm.
    pub(super) fn ln_chance(&self, dark: &[bool], weight: &[f64]) -> f64 {
        let mut edges = 0.0;
        for v in (0..dark.len()).filter(|v| dark[*v]) {
            let in_front: f64 = (0..dark.len()).filter(|u| !dark[*u]).map(|u| self.between[u][v]).sum();
            edges += weight[v] * (self.from_panel[v] + in_front);
        }
        self.ln_trees(dark, false) + self.ln_trees(dark, true) - self.ln_all + edges.ln()
    }
}

/// The logarithm of the determinant of a symmetric positive matrix, which is overwritten; of none it is 0.
fn ln_determinant(m: &mut [f64], n: usize) -> f64 {
    let mut ln = 0.0;
    for k in 0..n {
        let pivot = m[k * n + k];
        if pivot <= 0.0 {
            return f64::NEG_INFINITY;
        }
        ln += pivot.ln();
        for i in k + 1..n {
            let factor = m[i * n + k] / pivot;
            if factor != 0.0 {
                for j in k + 1..n {
                    m[i * n + j] -= factor * m[k * n + j];
                }
            }
        }
    }
    ln
}
