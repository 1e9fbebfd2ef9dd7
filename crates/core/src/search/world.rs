//! What goes wrong in a house while it is traced, as the referee plays it.
//!
//! How often each fault comes is in [`crate::proof::rates`].

use rand::Rng;
use rand_pcg::Pcg64Mcg;

use super::{Case, OffSet, PointClass};
use crate::proof::rates;

/// How harsh a made-up house is to whoever traces it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct World {
    /// How often a breaker does not latch when it is switched on.
    pub not_latched: f64,
    /// How often a breaker trips as it is switched on.
    pub trips_at_once: f64,
    /// How often some breaker trips when another is switched.
    pub trips: f64,
    /// How much more often one trips that sits beside a breaker that goes off.
    pub trips_beside: f64,
    /// How many outages a trace has, on the average.
    pub outages: f64,
    /// It has one beside these, whenever.
    pub surely_an_outage: bool,
    /// The share of lights and appliances that go by themselves.
    pub own_lights: f64,
    /// The share of receptacles that do.
    pub own_receptacles: f64,
    /// Of these, the share that nobody has told of.
    pub own_unknown: f64,
    /// How often another handle is moved than is said.
    pub wrong_handle: f64,
    /// How often another point is looked at than is said.
    pub wrong_point: f64,
}

impl World {
    /// Nothing goes wrong but slips of the eye and a tone tracer's errors.
    pub const CALM: Self = Self {
        not_latched: 0.0,
        trips_at_once: 0.0,
        trips: 0.0,
        trips_beside: 0.0,
        outages: 0.0,
        surely_an_outage: false,
        own_lights: 0.0,
        own_receptacles: 0.0,
        own_unknown: 0.0,
        wrong_handle: 0.0,
        wrong_point: 0.0,
    };
    /// What the rule of proof expects.
    pub const HARSH: Self = Self {
        not_latched: rates::NOT_LATCHED,
        trips_at_once: rates::TRIPS_AT_ONCE,
        trips: rates::TRIPS,
        trips_beside: rates::TRIPS_BESIDE,
        outages: rates::OUTAGE,
        surely_an_outage: false,
        own_lights: rates::OWN_LIGHTS,
        own_receptacles: rates::OWN_RECEPTACLES,
        own_unknown: rates::UNKNOWN,
        wrong_handle: rates::WRONG_HANDLE,
        wrong_point: rates::WRONG_POINT,
    };

    /// Worlds by name: calm, harsh, and two in which one thing happens far more often than the rule expects.
    pub const NAMED: [(&'static str, Self); 4] = [
        ("calm", Self::CALM),
        ("harsh", Self::HARSH),
        ("outage", Self { surely_an_outage: true, ..Self::HARSH }),
        ("latching", Self { not_latched: 3.0 * rates::NOT_LATCHED, ..Self::HARSH }),
    ];

    /// Whether anything goes wrong here at all.
    pub fn is_calm(&self) -> bool {
        *self == Self::CALM
    }
}

/// How the house stands by itself, whatever is said of it.
#[derive(Debug, Clone)]
pub(super) struct Standing {
    world: World,
    /// Breakers that look on and carry no power.
    dead: OffSet,
    tripped: OffSet,
    /// Said to be off, and on; and those that were moved instead.
    still_on: Vec<(usize, Option<usize>)>,
    /// Points that go by themselves: whether lit just now, and at what time that was worked out.
    own: Vec<Option<(bool, f64)>>,
    /// When the one comes that is sure to, and when the last one ends.
    outage_at: f64,
    outage_until: f64,
    asked: f64,
}

impl Standing {
    /// Draws which points go by themselves. Gives, too, which of them the crew knows.
    pub(super) fn draw(world: World, case: &Case, rng: &mut Pcg64Mcg) -> (Self, Vec<bool>) {
        let mut known = vec![false; case.points.len()];
        let mut own = vec![None; case.points.len()];
        if !world.is_calm() {
            for (p, point) in case.points.iter().enumerate() {
                let share = if point.class == PointClass::Receptacle { world.own_receptacles } else { world.own_lights };
                if rng.random::<f64>() < share {
                    own[p] = Some((true, 0.0));
                    known[p] = rng.random::<f64>() >= world.own_unknown;
                }
            }
        }
        // At any moment of a trace that takes its usual time.
        let usual_s = 1.5 * rates::POINT_S * case.points.len() as f64;
        let outage_at = if world.surely_an_outage { usual_s * rng.random::<f64>() } else { f64::INFINITY };
        let standing = Self {
            world,
            dead: OffSet::NONE,
            tripped: OffSet::NONE,
            still_on: Vec::new(),
            own,
            outage_at,
            outage_until: f64::NEG_INFINITY,
            asked: 0.0,
        };
        (standing, known)
    }

    /// Whether the breaker carries no power, with these said to be off.
    pub(super) fn is_without_power(&self, said: OffSet, breaker: usize) -> bool {
        let instead = self.still_on.iter().any(|(_, instead)| *instead == Some(breaker));
        let still_on = self.still_on.iter().any(|(b, _)| *b == breaker);
        (said.has(breaker) && !still_on)
            || instead
            || self.dead.has(breaker)
            || self.tripped.has(breaker)
            || self.asked < self.outage_until
    }

    /// Time goes on to this moment.
    pub(super) fn until(&mut self, now_s: f64, points: usize, rng: &mut Pcg64Mcg) {
        let passed = now_s - self.asked;
        if self.world.outages > 0.0 && passed > 0.0 && self.asked >= self.outage_until {
            let rate = self.world.outages / (rates::POINT_S * points.max(1) as f64);
            if rng.random::<f64>() < 1.0 - (-rate * passed).exp() {
                self.outage_until = now_s - rates::OUTAGE_S * (1.0 - rng.random::<f64>()).ln();
            }
        }
        if (self.asked..now_s).contains(&self.outage_at) {
            self.outage_until = self.outage_at - rates::OUTAGE_S * (1.0 - rng.random::<f64>()).ln();
        }
        self.asked = now_s;
    }

    /// Whether a point that goes by itself is lit just now by that; `None` for others.
    pub(super) fn own(&mut self, point: usize, now_s: f64, rng: &mut Pcg64Mcg) -> Option<bool> {
        let (lit, then) = self.own[point]?;
        let changes = rng.random::<f64>() < 0.5 * (1.0 - (-(now_s - then) / rates::OWN_S).exp());
        self.own[point] = Some((lit != changes, now_s));
        Some(lit != changes)
    }

    /// A handle is moved. Gives what is found out at that: handles that stand otherwise, where somebody looks them over.
    pub(super) fn moved(&mut self, case: &Case, breaker: usize, off: bool, rng: &mut Pcg64Mcg) -> Vec<(usize, super::Found)> {
        if self.world.is_calm() {
            return Vec::new();
        }
        let mut found = Vec::new();
        // Whoever is at the panel sees what stands wrong half of the time, and puts it right.
        for tripped in self.tripped.iter() {
            if rng.random::<f64>() < 0.5 && tripped != breaker {
                self.tripped = self.tripped.without(tripped);
                found.push((tripped, super::Found::Tripped));
            }
        }
        let mut seen = Vec::new();
        self.still_on.retain(|(b, _)| {
            let noticed = *b != breaker && rng.random::<f64>() < 0.5;
            if noticed {
                seen.push((*b, super::Found::StillOn));
            }
            !noticed
        });
        found.extend(seen);
        for other in (0..case.breakers()).filter(|b| *b != breaker && !case.stay_on.has(*b)) {
            let beside = off && case.beside[breaker].contains(&other);
            let chance = self.world.trips / case.breakers() as f64 + if beside { self.world.trips_beside } else { 0.0 };
            if rng.random::<f64>() < chance {
                self.tripped = self.tripped.with(other);
            }
        }
        self.dead = self.dead.without(breaker);
        self.tripped = self.tripped.without(breaker);
        if off {
            if rng.random::<f64>() < self.world.wrong_handle {
                let beside = &case.beside[breaker];
                let other = (!beside.is_empty()).then(|| beside[rng.random_range(0..beside.len())]);
                self.still_on.push((breaker, other.filter(|b| !case.stay_on.has(*b))));
            }
        } else {
            self.still_on.retain(|(b, _)| *b != breaker);
            let chance = rng.random::<f64>();
            if chance < self.world.not_latched {
                self.dead = self.dead.with(breaker);
            } else if chance < self.world.not_latched + self.world.trips_at_once {
                self.tripped = self.tripped.with(breaker);
            }
        }
        found
    }

    /// Another point that is looked at by mistake: one of the same room and kind.
    pub(super) fn mistaken(&self, case: &Case, point: usize, rng: &mut Pcg64Mcg) -> Option<usize> {
        if self.world.wrong_point == 0.0 || rng.random::<f64>() >= self.world.wrong_point {
            return None;
        }
        let own = &case.points[point];
        let like = |p: &usize| *p != point && case.points[*p].room == own.room && case.points[*p].class == own.class;
        let others: Vec<usize> = (0..case.points.len()).filter(like).collect();
        (!others.is_empty()).then(|| others[rng.random_range(0..others.len())])
    }
}
