//! What a meter would show anywhere in a house: voltages and currents of a network of sources, wires and loads.
//!
//! In: a [`Network`], volts, ohms and watts, effective values. Out: every node's voltage as a phasor against node `0`, and the
//! current through every part. Phasors at one frequency; a load is an impedance (`z`) or keeps its power (`p`), and below 70 % of its
//! voltage that, too, becomes an impedance, as electronics give up. What is open is left out of the list, never a huge resistance;
//! every node leaks a little to `0`, so that what floats has a voltage.

use std::collections::{BTreeMap, BTreeSet};

use nalgebra::{Complex, DMatrix, DVector};
use serde::{Deserialize, Serialize};

type C = Complex<f64>;

/// A voltage behind a resistance, from node `0`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Source {
    /// Its name.
    pub id: String,
    /// The node that it feeds.
    pub node: String,
    /// Volts without load.
    pub volts: f64,
    /// Its angle, in degrees.
    #[serde(default)]
    pub deg: f64,
    /// Ohms.
    pub r: f64,
    /// Ohms of reactance.
    #[serde(default)]
    pub x: f64,
}

/// A wire.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Branch {
    /// Its name.
    pub id: String,
    /// From.
    pub a: String,
    /// To.
    pub b: String,
    /// Ohms.
    pub r: f64,
    /// Ohms of reactance.
    #[serde(default)]
    pub x: f64,
}

/// How a load answers a voltage that is not its own.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum LoadKind {
    /// As an impedance.
    Z,
    /// It keeps its power.
    P,
}

/// What uses power.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct NetworkLoad {
    /// Its name.
    pub id: String,
    /// One end.
    pub a: String,
    /// The other.
    pub b: String,
    /// How it answers.
    pub kind: LoadKind,
    /// Watts at its own voltage.
    pub w: f64,
    /// Volt-amperes reactive at its own voltage, above 0 for a coil.
    #[serde(default)]
    pub var: f64,
    /// Its own voltage.
    pub vn: f64,
}

/// Sources, wires and loads.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Network {
    /// A name for it.
    #[serde(default)]
    pub id: String,
    /// What every node leaks to `0`, in siemens.
    #[serde(default = "leak")]
    pub leak_s: f64,
    /// Where power comes from.
    pub sources: Vec<Source>,
    /// Wires.
    #[serde(default)]
    pub branches: Vec<Branch>,
    /// Loads.
    #[serde(default)]
    pub loads: Vec<NetworkLoad>,
}

const fn leak() -> f64 {
    1e-9
}

/// What every node and part shows.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
pub struct NetworkAnswer {
    /// Volts against `0`, real and imaginary.
    pub volts: BTreeMap<String, [f64; 2]>,
    /// Amperes through each part.
    pub amps: BTreeMap<String, f64>,
}

impl NetworkAnswer {
    /// What a meter shows between two nodes; `0` is ground.
    pub fn between(&self, a: &str, b: &str) -> f64 {
        let at = |node: &str| self.volts.get(node).copied().unwrap_or_default();
        let ([ar, ai], [br, bi]) = (at(a), at(b));
        (ar - br).hypot(ai - bi)
    }
}

/// Below this share of its voltage a load that keeps its power becomes an impedance.
const GIVES_UP: f64 = 0.7;
/// Newton's method needs a handful of steps; more mean that there is no state near.
const STEPS: usize = 100;

struct Solver<'a> {
    network: &'a Network,
    nodes: Vec<&'a str>,
    /// Admittances of wires, sources, leaks and impedances.
    y: DMatrix<C>,
    /// What the sources push in.
    pushed: DVector<C>,
}

impl<'a> Solver<'a> {
    fn of(network: &'a Network) -> Result<Self, String> {
        let ends = network.branches.iter().flat_map(|branch| [&branch.a, &branch.b]);
        let ends = ends.chain(network.loads.iter().flat_map(|load| [&load.a, &load.b]));
        let ends = ends.chain(network.sources.iter().map(|source| &source.node));
        let nodes: BTreeSet<&str> = ends.map(String::as_str).filter(|node| *node != "0").collect();
        let nodes: Vec<&str> = nodes.into_iter().collect();
        let mut solver =
            Self { network, y: DMatrix::zeros(nodes.len(), nodes.len()), pushed: DVector::zeros(nodes.len()), nodes };
        for at in 0..solver.nodes.len() {
            solver.y[(at, at)] += C::new(network.leak_s, 0.0);
        }
        for source in &network.sources {
            let y = admittance(&source.id, source.r, source.x)?;
            let Some(at) = solver.at(&source.node) else { return Err(format!("source {} feeds node 0", source.id)) };
            solver.y[(at, at)] += y;
            solver.pushed[at] += y * C::from_polar(source.volts, source.deg.to_radians());
        }
        for branch in &network.branches {
            solver.join(&branch.a, &branch.b, admittance(&branch.id, branch.r, branch.x)?);
        }
        for load in &network.loads {
            if !(load.vn > 0.0 && load.w.is_finite() && load.var.is_finite()) {
                return Err(format!("load {} needs a voltage above 0 and finite watts", load.id));
            }
            if load.kind == LoadKind::Z {
                solver.join(&load.a, &load.b, own_power(load) / (load.vn * load.vn));
            }
        }
        Ok(solver)
    }

    fn at(&self, node: &str) -> Option<usize> {
        self.nodes.binary_search(&node).ok()
    }

    fn join(&mut self, a: &str, b: &str, y: C) {
        let (a, b) = (self.at(a), self.at(b));
        stamp(&mut self.y, a, b, y);
    }

    fn constant_power(&self) -> impl Iterator<Item = &'a NetworkLoad> {
        self.network.loads.iter().filter(|load| load.kind == LoadKind::P)
    }

    fn across(&self, volts: &DVector<C>, a: &str, b: &str) -> C {
        let of = |node: &str| self.at(node).map_or(C::default(), |at| volts[at]);
        of(a) - of(b)
    }

    /// What does not add up at each node.
    fn residual(&self, volts: &DVector<C>) -> DVector<C> {
        let mut left = &self.y * volts - &self.pushed;
        for load in self.constant_power() {
            let current = load_current(load, self.across(volts, &load.a, &load.b));
            if let Some(a) = self.at(&load.a) {
                left[a] += current;
            }
            if let Some(b) = self.at(&load.b) {
                left[b] -= current;
            }
        }
        left
    }

    /// Newton's step at these voltages, on real and imaginary parts.
    fn step(&self, volts: &DVector<C>, residual: &DVector<C>) -> Option<DVector<C>> {
        let count = self.nodes.len();
        let mut jacobian = DMatrix::<f64>::zeros(2 * count, 2 * count);
        for ((row, column), y) in self.y.iter().enumerate().map(|(at, y)| ((at % count, at / count), y)) {
            add_block(&mut jacobian, row, column, [[y.re, -y.im], [y.im, y.re]]);
        }
        for load in self.constant_power() {
            let block = load_slope(load, self.across(volts, &load.a, &load.b));
            let negative = block.map(|row| row.map(|value| -value));
            let (a, b) = (self.at(&load.a), self.at(&load.b));
            for (row, column, block) in [(a, a, block), (b, b, block), (a, b, negative), (b, a, negative)] {
                if let (Some(row), Some(column)) = (row, column) {
                    add_block(&mut jacobian, row, column, block);
                }
            }
        }
        let right = DVector::from_iterator(2 * count, residual.iter().flat_map(|left| [-left.re, -left.im]));
        let step = jacobian.lu().solve(&right)?;
        Some(DVector::from_iterator(count, (0..count).map(|at| C::new(step[2 * at], step[2 * at + 1]))))
    }

    fn solve(&self) -> Result<DVector<C>, String> {
        let no_state = || "the network has no state that can be found".to_owned();
        // Every load as an impedance: where the search for the others begins.
        let mut y = self.y.clone();
        for load in self.constant_power() {
            stamp(&mut y, self.at(&load.a), self.at(&load.b), own_power(load) / (load.vn * load.vn));
        }
        let mut volts = y.lu().solve(&self.pushed).ok_or_else(no_state)?;
        if self.constant_power().next().is_none() {
            return Ok(volts);
        }
        let mut residual = self.residual(&volts);
        for _ in 0..STEPS {
            let step = self.step(&volts, &residual).ok_or_else(no_state)?;
            // Half as far as long as it does not bring it nearer.
            let mut share = 1.0;
            let (next, left) = loop {
                let next = &volts + &step * C::new(share, 0.0);
                let left = self.residual(&next);
                if left.norm() < residual.norm() || share < 1e-3 {
                    break (next, left);
                }
                share /= 2.0;
            };
            let moved = step.iter().map(|step| step.norm()).fold(0.0, f64::max) * share;
            (volts, residual) = (next, left);
            if moved < 1e-9 {
                return Ok(volts);
            }
        }
        if residual.norm() < 1e-6 { Ok(volts) } else { Err(no_state()) }
    }
}

fn admittance(id: &str, r: f64, x: f64) -> Result<C, String> {
    let z = C::new(r, x);
    if z.norm() > 0.0 && z.norm().is_finite() { Ok(z.inv()) } else { Err(format!("{id} needs an impedance above 0")) }
}

fn own_power(load: &NetworkLoad) -> C {
    C::new(load.w, -load.var)
}

/// What a load that keeps its power draws at this voltage.
fn load_current(load: &NetworkLoad, volts: C) -> C {
    own_power(load) * volts / volts.norm_sqr().max((GIVES_UP * load.vn).powi(2))
}

/// How that current changes with the voltage: rows real and imaginary current, columns real and imaginary volts.
fn load_slope(load: &NetworkLoad, volts: C) -> [[f64; 2]; 2] {
    let (power, square, least) = (own_power(load), volts.norm_sqr(), (GIVES_UP * load.vn).powi(2));
    let slope = |direction: C| {
        if square <= least {
            power * direction / least
        } else {
            let along = 2.0 * (volts.conj() * direction).re;
            power * (direction / square - volts * along / (square * square))
        }
    };
    let (real, imaginary) = (slope(C::new(1.0, 0.0)), slope(C::new(0.0, 1.0)));
    [[real.re, imaginary.re], [real.im, imaginary.im]]
}

fn stamp(matrix: &mut DMatrix<C>, a: Option<usize>, b: Option<usize>, y: C) {
    for at in [a, b].into_iter().flatten() {
        matrix[(at, at)] += y;
    }
    if let (Some(a), Some(b)) = (a, b) {
        matrix[(a, b)] -= y;
        matrix[(b, a)] -= y;
    }
}

fn add_block(matrix: &mut DMatrix<f64>, row: usize, column: usize, block: [[f64; 2]; 2]) {
    for (i, values) in block.into_iter().enumerate() {
        for (j, value) in values.into_iter().enumerate() {
            matrix[(2 * row + i, 2 * column + j)] += value;
        }
    }
}

/// Solves the network; an error says what is wrong with it.
pub fn solve(network: &Network) -> Result<NetworkAnswer, String> {
    let solver = Solver::of(network)?;
    let volts = solver.solve()?;
    let mut answer = NetworkAnswer::default();
    for (node, volts) in solver.nodes.iter().zip(volts.iter()) {
        answer.volts.insert((*node).to_owned(), [volts.re, volts.im]);
    }
    for source in &network.sources {
        let emf = C::from_polar(source.volts, source.deg.to_radians());
        let amps = (emf - solver.across(&volts, &source.node, "0")) * admittance(&source.id, source.r, source.x)?;
        answer.amps.insert(source.id.clone(), amps.norm());
    }
    for branch in &network.branches {
        let amps = solver.across(&volts, &branch.a, &branch.b) * admittance(&branch.id, branch.r, branch.x)?;
        answer.amps.insert(branch.id.clone(), amps.norm());
    }
    for load in &network.loads {
        let across = solver.across(&volts, &load.a, &load.b);
        let amps = match load.kind {
            LoadKind::Z => own_power(load) * across / (load.vn * load.vn),
            LoadKind::P => load_current(load, across),
        };
        answer.amps.insert(load.id.clone(), amps.norm());
    }
    Ok(answer)
}
