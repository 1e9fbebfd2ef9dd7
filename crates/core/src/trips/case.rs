//! What the search for a fault knows of a house, on numbers alone: points, breakers, switches and loads are their places in lists.

use std::collections::BTreeMap;

pub use crate::model::{Extent, Onset, Symptom};

/// A place in the list of points.
pub(super) type PointNo = usize;
/// A place in the list of breakers.
pub(super) type BreakerNo = usize;

/// What kind of thing takes the power.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize)]
#[serde(rename_all = "lowercase")]
pub enum Takes {
    /// An outlet: it is looked at with a plug-in tester.
    Receptacle,
    /// A light.
    Light,
    /// An appliance on 120 V that shows by itself whether it has power.
    Appliance,
    /// An appliance on both legs.
    Appliance240,
}

/// How a point stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize)]
#[serde(rename_all = "snake_case")]
#[repr(u8)]
pub enum State {
    /// As it should.
    Live,
    /// Without power.
    Dark,
    /// Hot and without its neutral: dark, and still dangerous.
    OpenNeutral,
    /// Too low.
    Dim,
    /// Too high.
    Bright,
    /// It comes and goes.
    Flicker,
    /// An appliance of 240 V with one leg.
    Partial,
    /// One half of an outlet is dead.
    Half,
}

/// How many states there are.
pub(super) const STATES: usize = 8;

impl State {
    /// All, in their order.
    pub(super) const ALL: [Self; STATES] =
        [Self::Live, Self::Dark, Self::OpenNeutral, Self::Dim, Self::Bright, Self::Flicker, Self::Partial, Self::Half];
}

/// A point.
#[derive(Debug, Clone, PartialEq)]
pub struct TripPoint {
    /// Its room.
    pub room: usize,
    /// What it is.
    pub takes: Takes,
    /// Its place along the walls of its room, counted around.
    pub ring: usize,
    /// It is a GFCI receptacle.
    pub gfci: bool,
    /// An appliance that hangs on an outlet behind it, where a tester can be plugged in instead.
    pub has_outlet: bool,
    /// A place along the circuit at which nothing can be seen: a switch box, a junction box.
    pub blind: bool,
}

/// What a breaker does beside switching off at too much current.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Default, serde::Serialize, serde::Deserialize)]
#[serde(rename_all = "lowercase")]
pub enum BreakerHas {
    /// Nothing.
    #[default]
    Standard,
    /// It watches for ground faults.
    Gfci,
    /// It watches for arcs.
    Afci,
    /// Both.
    Dual,
}

impl BreakerHas {
    /// It watches for ground faults.
    pub const fn ground(self) -> bool {
        matches!(self, Self::Gfci | Self::Dual)
    }
    /// It watches for arcs.
    pub const fn arc(self) -> bool {
        matches!(self, Self::Afci | Self::Dual)
    }
    /// It may have a lamp that says why it tripped.
    pub const fn indicator(self) -> bool {
        !matches!(self, Self::Standard)
    }
}

/// A breaker.
#[derive(Debug, Clone, PartialEq)]
pub struct TripBreaker {
    /// Amperes.
    pub amps: f64,
    /// What it watches for.
    pub has: BreakerHas,
    /// It is on leg A, on leg B, on both.
    pub legs: (bool, bool),
    /// Its panel.
    pub panel: usize,
    /// It feeds another panel.
    pub feeder: bool,
}

/// A panel: its room, and the breaker that feeds it.
#[derive(Debug, Clone, PartialEq)]
pub struct TripPanel {
    /// Its room.
    pub room: usize,
    /// What feeds it.
    pub feeder: Option<BreakerNo>,
}

/// What switches points.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize)]
#[serde(rename_all = "lowercase")]
pub enum SwitchKind {
    /// One switch.
    Single,
    /// Two that work together.
    Threeway,
    /// It switches one half of an outlet.
    Half,
    /// A clock.
    Timer,
    /// It switches by the daylight.
    Photocell,
    /// It switches by movement.
    Motion,
}

impl SwitchKind {
    /// It switches by itself.
    pub const fn by_itself(self) -> bool {
        matches!(self, Self::Timer | Self::Photocell | Self::Motion)
    }
}

/// A switch with what it switches.
#[derive(Debug, Clone, PartialEq)]
pub struct TripSwitch {
    /// Its room.
    pub room: usize,
    /// What it is.
    pub kind: SwitchKind,
    /// What it switches.
    pub points: Vec<PointNo>,
}

/// Something that takes current.
#[derive(Debug, Clone, PartialEq)]
pub struct TripLoad {
    /// Where.
    pub point: PointNo,
    /// Watts.
    pub watts: f64,
    /// The share of the time that it runs.
    pub in_use: f64,
    /// It has a motor.
    pub motor: bool,
    /// It has a cut-out of its own that is pushed in again.
    pub cutout: bool,
    /// It has a cord and plug.
    pub cord: bool,
}

/// What is wrong, as it is reported.
#[derive(Debug, Clone, PartialEq)]
pub struct Report {
    /// Where it was noticed.
    pub point: PointNo,
    /// What is seen there.
    pub symptom: Symptom,
    /// What is seen elsewhere.
    pub also: Vec<(PointNo, Symptom)>,
    /// What works, as far as it was noticed.
    pub lit: Vec<PointNo>,
    /// How much is affected; `None`: nobody has said.
    pub extent: Option<Extent>,
    /// When it happened.
    pub onset: Onset,
    /// The load that was switched on or plugged in last.
    pub just_switched: Option<usize>,
    /// Loads that ran.
    pub running: Vec<usize>,
    /// The breaker whose handle was seen tripped.
    pub tripped_handle: Option<BreakerNo>,
}

/// How the joints of a circuit follow each other: for each point the one before it, `None` the panel.
pub type Order = BTreeMap<PointNo, Option<PointNo>>;

/// A house, what is believed of it and what was reported.
#[derive(Debug, Clone, PartialEq)]
pub struct TripCase {
    /// Seconds from room to room.
    pub walk_s: Vec<Vec<f64>>,
    /// How many places there are along the walls of each room.
    pub ring_n: Vec<usize>,
    /// The points.
    pub points: Vec<TripPoint>,
    /// The breakers.
    pub breakers: Vec<TripBreaker>,
    /// The panels.
    pub panels: Vec<TripPanel>,
    /// The switches.
    pub switches: Vec<TripSwitch>,
    /// The loads.
    pub loads: Vec<TripLoad>,
    /// Pairs of breakers with one neutral.
    pub shared_neutrals: Vec<(BreakerNo, BreakerNo)>,
    /// For each point which breakers may feed it, and how likely.
    pub map: Vec<PointMap>,
    /// Circuits whose order is known.
    pub orders: BTreeMap<BreakerNo, Order>,
    /// What is protected by each GFCI receptacle of which that is known, beside itself.
    pub gfci_feeds: BTreeMap<PointNo, Vec<PointNo>>,
    /// Somebody has a meter at hand and knows how to use it.
    pub has_meter: bool,
    /// What was reported.
    pub report: Report,
    /// The room in which the looking begins.
    pub start_room: usize,
    /// What the random draws begin from: the same case is always thought about in the same way.
    pub seed: u64,
}

/// Which breakers may feed a point.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct PointMap {
    /// How likely each is.
    pub breakers: Vec<(BreakerNo, f64)>,
    /// What is kept for all breakers that are not named, so that a wrong map is found out.
    pub elsewhere: f64,
}

impl TripCase {
    /// Branch breakers, which may feed points.
    pub(super) fn branches(&self) -> impl Iterator<Item = BreakerNo> + '_ {
        (0..self.breakers.len()).filter(|b| !self.breakers[*b].feeder)
    }

    /// The room of the panel that holds a breaker.
    pub(super) fn panel_room(&self, breaker: BreakerNo) -> usize {
        self.panels[self.breakers[breaker].panel].room
    }

    /// How far a cable is thought to run between two points, as seconds of walking: along the walls within a room, farther to
    /// another room and to another kind.
    pub(super) fn cable(&self, a: PointNo, b: PointNo) -> f64 {
        let (p, q) = (&self.points[a], &self.points[b]);
        let mut way = self.walk_s[p.room][q.room];
        if p.room == q.room {
            let around = self.ring_n[p.room].max(1);
            let apart = p.ring.abs_diff(q.ring) % around;
            way += 1.2 * apart.min(around - apart) as f64;
        } else {
            way += 2.0;
        }
        if p.takes != q.takes {
            way += 1.5;
        }
        way
    }

    /// How likely a point is in use at any time.
    pub(super) fn in_use(&self) -> Vec<f64> {
        let mut share: Vec<f64> = self.points.iter().map(|p| if p.takes == Takes::Light { 0.4 } else { 0.0 }).collect();
        for load in &self.loads {
            share[load.point] += load.in_use;
        }
        share
    }
}
