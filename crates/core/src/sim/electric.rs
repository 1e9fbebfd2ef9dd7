//! A made-up house as a network: what flows and what volts stand anywhere in it, with what runs now.
//!
//! In: the home, the wiring behind its walls, what runs, what is wrong. Out: the volts and amperes that the circuit solver
//! ([`crate::loads::network`]) finds. One circuit is drawn with its cables, those beside it as loads at their panel's bus. Sizes of
//! transformer, service and cables are invented for practice, like those of a usual house; no source.

use std::collections::{BTreeMap, BTreeSet};

use nalgebra::Complex;

use super::mishaps::chance;
use crate::loads::drop::ohms_per_1000_ft;
use crate::loads::network::{Branch, LoadKind, Network, NetworkAnswer, NetworkLoad, Source, solve};
use crate::logbook::Home;
use crate::model::{
    Breaker, BreakerId, Cable, Leg, Metal, Panel, PointId, Recipe, Service, Terminals, Volts, Wire, WireGauge, legs_of,
};
use crate::search::Wiring;

/// What is wrong behind the walls of a made-up house.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum HiddenFault {
    /// The contact of this breaker is worn: it loses volts under load.
    WornBreaker(BreakerId),
    /// The neutral of the service is open.
    ServiceNeutralOpen,
    /// The neutral that these circuits share is open on its way to the panel.
    SharedNeutralOpen(Vec<BreakerId>),
}

/// What runs at a point.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Runs {
    pub(super) name: String,
    pub(super) breaker: BreakerId,
    /// Where; `None`: right behind the breaker.
    pub(super) point: Option<PointId>,
    /// At its own voltage.
    pub(super) watts: f64,
    pub(super) factor: f64,
    pub(super) volts: f64,
}

/// What feeds a made-up house now.
pub(super) struct Electric<'a> {
    pub(super) home: &'a Home,
    pub(super) wiring: &'a Wiring,
    pub(super) recipe: Recipe,
    /// Circuits that share a neutral.
    pub(super) shared: &'a [[BreakerId; 2]],
    /// Without power, by their handles or by what feeds them.
    pub(super) dead: BTreeSet<BreakerId>,
    pub(super) fault: Option<&'a HiddenFault>,
}

/// The network of a house with one circuit in its cables.
pub(super) struct Solved {
    answer: NetworkAnswer,
    network: Network,
    /// The legs of the panels that the utility feeds.
    mains: Vec<(String, Vec<Leg>)>,
}

/// Volts of the transformer on each leg without load.
const SUPPLY: f64 = 121.0;
/// Ohms: transformer, a service conductor, a feeder conductor, ground rods, a good and a worn breaker.
const TRANSFORMER: (f64, f64) = (0.008, 0.012);
const SERVICE: f64 = 0.010;
const FEEDER: f64 = 0.018;
const GROUND_RODS: f64 = 25.0;
const GOOD: f64 = 0.002;
const WORN: f64 = 0.055;
/// Power factors from here on belong to what only heats: an impedance. The rest keeps its power.
const HEATS: f64 = 0.985;

fn node(panel: &Panel, leg: &str) -> String {
    format!("{}:{leg}", panel.id)
}

/// Volts and angle of a leg.
fn supply(service: Service, leg: Leg) -> (f64, f64) {
    match (service, leg) {
        (Service::SplitPhase, Leg::B) => (SUPPLY, 180.0),
        (Service::TwoLegs208 | Service::ThreePhase, Leg::B) => (SUPPLY, -120.0),
        (Service::ThreePhase, Leg::C) => (SUPPLY, 120.0),
        (Service::HighLeg, Leg::B) => (SUPPLY * 3.0_f64.sqrt(), 90.0),
        (Service::HighLeg, Leg::C) => (SUPPLY, 180.0),
        _ => (SUPPLY, 0.0),
    }
}

/// The usual copper wire behind so many amperes.
fn usual_wire(amps: f64) -> Wire {
    let gauge = match amps {
        amps if amps <= 15.0 => WireGauge::Awg14,
        amps if amps <= 20.0 => WireGauge::Awg12,
        amps if amps <= 30.0 => WireGauge::Awg10,
        amps if amps <= 40.0 => WireGauge::Awg8,
        _ => WireGauge::Awg6,
    };
    Wire { gauge, metal: Metal::Copper, terminals: Terminals::default(), cable: Cable::default() }
}

impl Electric<'_> {
    /// The circuits whose cables matter to this one: those that share its neutral, and itself.
    fn beside<'a>(&'a self, breaker: &'a BreakerId) -> Vec<&'a BreakerId> {
        match self.shared.iter().find(|pair| pair.contains(breaker)) {
            Some(pair) => pair.iter().collect(),
            None => vec![breaker],
        }
    }

    fn neutral_of(&self, breaker: &Breaker, panel: &Panel) -> String {
        match self.shared.iter().find(|pair| pair.contains(&breaker.id)) {
            Some(pair) => format!("neutral:{}", pair[0]),
            None => node(panel, "N"),
        }
    }

    /// Ohms of one conductor from the panel to the point: 6 to 27 m of it, drawn once for each point.
    fn cable(&self, breaker: &Breaker, point: &PointId) -> f64 {
        let feet = 20.0 + 70.0 * chance(self.recipe, "cable", point.as_str(), 0);
        let wire = breaker.wire.unwrap_or_else(|| usual_wire(breaker.amps.value()));
        ohms_per_1000_ft(wire).unwrap_or(1.0) * feet / 1000.0
    }

    /// Solves it with these loads on, one circuit in its cables and these points of it reached by a meter.
    pub(super) fn solved(&self, running: &[Runs], circuit: Option<&BreakerId>, reached: &[&PointId]) -> Option<Solved> {
        let mut network =
            Network { id: String::new(), leak_s: 1e-9, sources: Vec::new(), branches: Vec::new(), loads: Vec::new() };
        let mains = self.buses(&mut network);
        let in_cables: Vec<&BreakerId> = circuit.map(|breaker| self.beside(breaker)).unwrap_or_default();
        for breaker in &in_cables {
            self.circuit(&mut network, breaker, running, reached);
        }
        let neutral_open = matches!(self.fault, Some(HiddenFault::ServiceNeutralOpen | HiddenFault::SharedNeutralOpen(_)));
        for run in running {
            let Some((breaker, panel)) = self.with_panel(&run.breaker) else { continue };
            if self.dead.contains(&breaker.id) {
                continue;
            }
            let detail = in_cables.contains(&&run.breaker);
            let legs = legs_of(panel, &breaker.at);
            let between_hots = run.volts > 150.0 && legs.len() > 1;
            let hot = |pole: usize| match (&run.point, detail) {
                (Some(point), true) => format!("{point}:{pole}"),
                (None, true) => format!("{}:{pole}", breaker.id),
                _ => node(panel, legs.get(pole).or(legs.first()).copied().map_or("A", Leg::letter)),
            };
            let back = match (&run.point, detail) {
                _ if between_hots => hot(1),
                (Some(point), true) => format!("{point}:N"),
                (None, true) => self.neutral_of(breaker, panel),
                _ => node(panel, "N"),
            };
            // What keeps its power has several states where a neutral is open: there everything is an impedance.
            let kind = if run.factor >= HEATS || neutral_open { LoadKind::Z } else { LoadKind::P };
            network.loads.push(NetworkLoad {
                id: run.name.clone(),
                a: hot(0),
                b: back,
                kind,
                w: run.watts,
                var: run.watts * (1.0 / (run.factor * run.factor) - 1.0).max(0.0).sqrt(),
                vn: run.volts,
            });
        }
        let answer = solve(&network).ok()?;
        Some(Solved { answer, network, mains })
    }

    fn with_panel(&self, breaker: &BreakerId) -> Option<(&Breaker, &Panel)> {
        let breaker = self.home.panels().breaker(breaker)?;
        Some((breaker, self.home.panels().panel(&breaker.panel)?))
    }

    /// Utility, service and every panel's bus.
    fn buses(&self, network: &mut Network) -> Vec<(String, Vec<Leg>)> {
        let wire = |id: String, a: String, b: String, r: f64| Branch { id, a, b, r, x: 0.0 };
        let mut mains = Vec::new();
        for panel in self.home.panels().all() {
            let legs = panel.service.legs();
            let feeder = panel.details.fed_by.as_ref().and_then(|feeder| self.with_panel(feeder));
            if let Some((feeder, from)) = feeder {
                let fed = legs.iter().zip(legs_of(from, &feeder.at));
                for (leg, from_leg) in fed.filter(|_| !self.dead.contains(&feeder.id)) {
                    let (to, from) = (node(panel, (*leg).letter()), node(from, from_leg.letter()));
                    network.branches.push(wire(format!("feeder {to}"), from, to, FEEDER + GOOD));
                }
                network.branches.push(wire(format!("feeder {}:N", panel.id), node(from, "N"), node(panel, "N"), FEEDER));
                continue;
            }
            for leg in legs {
                let (volts, deg) = supply(panel.service, *leg);
                let (pole, bus) = (format!("utility {}", node(panel, (*leg).letter())), node(panel, (*leg).letter()));
                let (r, x) = TRANSFORMER;
                network.sources.push(Source { id: format!("source {bus}"), node: pole.clone(), volts, deg, r, x });
                network.branches.push(wire(format!("service {bus}"), pole, bus, SERVICE));
            }
            if self.fault != Some(&HiddenFault::ServiceNeutralOpen) {
                network.branches.push(wire(format!("service {}:N", panel.id), "0".into(), node(panel, "N"), SERVICE));
            }
            network.branches.push(wire(format!("rods {}", panel.id), "0".into(), node(panel, "N"), GROUND_RODS));
            mains.push((panel.id.to_string(), legs.to_vec()));
        }
        mains
    }

    /// A circuit in its cables: from the bus through the breaker to each point that something runs at or that a meter reaches.
    fn circuit(&self, network: &mut Network, breaker: &BreakerId, running: &[Runs], reached: &[&PointId]) {
        let Some((breaker, panel)) = self.with_panel(breaker) else { return };
        let neutral = self.neutral_of(breaker, panel);
        let worn = matches!(self.fault, Some(HiddenFault::WornBreaker(worn)) if *worn == breaker.id);
        let contact = if worn { WORN } else { GOOD };
        let legs = legs_of(panel, &breaker.at);
        let wire = |id: String, a: String, b: String, r: f64| Branch { id, a, b, r, x: 0.0 };
        for (pole, leg) in legs.iter().enumerate().filter(|_| !self.dead.contains(&breaker.id)) {
            let id = format!("{}:{pole}", breaker.id);
            network.branches.push(wire(id.clone(), node(panel, (*leg).letter()), id, contact));
        }
        let open = matches!(self.fault, Some(HiddenFault::SharedNeutralOpen(group)) if group.contains(&breaker.id));
        let own_branch = format!("way {neutral}");
        if neutral != node(panel, "N") && !open && !network.branches.iter().any(|branch| branch.id == own_branch) {
            network.branches.push(wire(own_branch, node(panel, "N"), neutral.clone(), 0.03));
        }
        let feeds_here =
            |point: &PointId| self.wiring.feeds.get(point).is_some_and(|feed| feed.breaker.as_ref() == Some(&breaker.id));
        let points: BTreeSet<&PointId> = running
            .iter()
            .filter(|run| run.breaker == breaker.id)
            .filter_map(|run| run.point.as_ref())
            .chain(reached.iter().copied().filter(|point| feeds_here(point)))
            .collect();
        for point in points {
            let ohms = self.cable(breaker, point);
            for pole in 0..legs.len() {
                let to = format!("{point}:{pole}");
                network.branches.push(wire(to.clone(), format!("{}:{pole}", breaker.id), to, ohms));
            }
            let to = format!("{point}:N");
            network.branches.push(wire(to.clone(), neutral.clone(), to, ohms));
        }
    }

    /// Volts at a point between hot and neutral, or between its two hots.
    pub(super) fn volts_at(&self, solved: &Solved, point: &PointId) -> f64 {
        let between_hots = self.home.house().point(point).is_some_and(|point| point.volts > Volts::new(120));
        solved.answer.between(&format!("{point}:0"), &format!("{point}:{}", if between_hots { "1" } else { "N" }))
    }

    /// Volts at a breaker: on the bus side, on its terminal, across it at the worse pole.
    pub(super) fn volts_at_breaker(&self, solved: &Solved, breaker: &BreakerId) -> Option<[f64; 3]> {
        let (breaker, panel) = self.with_panel(breaker)?;
        let legs = legs_of(panel, &breaker.at);
        let bus: Vec<String> = legs.iter().map(|leg| node(panel, (*leg).letter())).collect();
        let terminal: Vec<String> = (0..legs.len()).map(|pole| format!("{}:{pole}", breaker.id)).collect();
        let neutral = node(panel, "N");
        let between = |ends: &[String]| match ends {
            [one] => Some(solved.answer.between(one, &neutral)),
            [one, other, ..] => Some(solved.answer.between(one, other)),
            [] => None,
        };
        let across = bus.iter().zip(&terminal).map(|(bus, terminal)| solved.answer.between(bus, terminal)).fold(0.0, f64::max);
        Some([between(&bus)?, between(&terminal)?, across])
    }
}

impl Solved {
    /// Amperes through a pole of a breaker, counted from 0.
    pub(super) fn amps_of_breaker(&self, breaker: &BreakerId, pole: usize) -> f64 {
        self.answer.amps.get(&format!("{breaker}:{pole}")).copied().unwrap_or(0.0)
    }

    /// Amperes that one load takes.
    pub(super) fn amps_of(&self, load: &str) -> f64 {
        self.answer.amps.get(load).copied().unwrap_or(0.0)
    }

    /// Watts that the utility's meter counts.
    pub(super) fn watts(&self) -> f64 {
        let at = |node: &str| self.answer.volts.get(node).map_or(Complex::default(), |volts| Complex::new(volts[0], volts[1]));
        let ohms: BTreeMap<&str, f64> = self.network.branches.iter().map(|branch| (branch.id.as_str(), branch.r)).collect();
        let legs = self
            .mains
            .iter()
            .flat_map(|(panel, legs)| legs.iter().map(move |leg| (panel, format!("{panel}:{}", (*leg).letter()))));
        legs.map(|(panel, bus)| {
            let r = ohms.get(format!("service {bus}").as_str()).copied().unwrap_or(SERVICE);
            let current = (at(&format!("utility {bus}")) - at(&bus)) / r;
            ((at(&bus) - at(&format!("{panel}:N"))) * current.conj()).re
        })
        .sum()
    }
}
