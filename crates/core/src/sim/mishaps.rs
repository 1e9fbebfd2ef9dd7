//! What goes wrong in a made-up house while it is traced: breakers that do not latch or trip, another handle than was meant, an
//! outage, points that go by themselves, another point than was meant. It follows from the recipe and the lines alone: the same
//! lines, the same mishaps. How often each comes is in [`crate::proof::rates`]; in a plain house nothing does.

use std::collections::{BTreeMap, BTreeSet};

use crate::logbook::{Home, PointPlaced};
use crate::model::{Breaker, BreakerId, GoesBy, Level, Point, PointId, PointKind, Recipe, State};
use crate::proof::rates;

/// Seconds from one look to the next, as far as outages and points that go by themselves count them.
const LOOK_S: f64 = 8.0;

/// Bytes mixed into one number: FNV-1a, public domain.
pub(super) fn mixed(start: u64, bytes: impl IntoIterator<Item = u8>) -> u64 {
    let mix = |mix: u64, byte| (mix ^ u64::from(byte)).wrapping_mul(0x0100_0000_01b3);
    bytes.into_iter().fold(0xcbf2_9ce4_8422_2325 ^ start, mix)
}

/// A number from 0 to 1 that these words and counts alone decide.
pub(super) fn chance(recipe: Recipe, what: &str, about: &str, nth: usize) -> f64 {
    let start = u64::from(recipe.seed) << 16 ^ u64::from(recipe.points);
    let words = what.bytes().chain([0]).chain(about.bytes()).chain([0]).chain(nth.to_le_bytes());
    // The last steps of SplitMix64, public domain: what differs in the last byte alone is far apart, too.
    let mut mix = mixed(start, words);
    mix = (mix ^ mix >> 30).wrapping_mul(0xbf58_476d_1ce4_e5b9);
    mix = (mix ^ mix >> 27).wrapping_mul(0x94d0_49bb_1331_11eb);
    ((mix ^ mix >> 31) >> 11) as f64 / (1_u64 << 53) as f64
}

/// Whether a point of a made-up house goes by itself, and whether its owner knows.
fn own_mind(recipe: Recipe, point: &PointId, kind: PointKind) -> Option<bool> {
    if recipe.level == Level::Plain {
        return None;
    }
    let share = if kind == PointKind::Receptacle { rates::OWN_RECEPTACLES } else { rates::OWN_LIGHTS };
    let usual = matches!(kind, PointKind::Receptacle | PointKind::Light | PointKind::Appliance | PointKind::Fan);
    (usual && chance(recipe, "own mind", point.as_str(), 0) < share)
        .then(|| chance(recipe, "known", point.as_str(), 0) >= rates::UNKNOWN)
}

/// Tells of points of which the owner knows that they go by themselves.
pub(super) fn tell(recipe: Recipe, placed: &mut PointPlaced) {
    if own_mind(recipe, &placed.point, placed.point_kind) == Some(true) {
        let usual = GoesBy::usual_at(placed.point_kind).iter().copied();
        placed.details.goes_by = usual.filter(|by| !by.shows_its_power()).find(|by| *by != GoesBy::LightSensor);
    }
}

/// How the handles and the supply of a made-up house stand, whatever the lines say.
#[derive(Debug, Clone, Default, PartialEq)]
pub(super) struct Mishaps {
    recipe: Option<Recipe>,
    /// On by their handles, without power.
    dead: BTreeSet<BreakerId>,
    /// Tripped by themselves; their handles show it.
    pub(super) tripped: BTreeSet<BreakerId>,
    /// Said to be off, and on; with what was moved instead.
    pub(super) still_on: BTreeMap<BreakerId, Option<BreakerId>>,
    outage: bool,
    looks: usize,
    /// How often each handle was moved.
    times: BTreeMap<BreakerId, usize>,
}

impl Mishaps {
    /// By the lines of the home.
    pub(super) fn after(home: &Home) -> Self {
        let Some(recipe) = home.practice().filter(|recipe| recipe.level != Level::Plain) else { return Self::default() };
        let mut all = Self { recipe: Some(recipe), looks: home.trace().written(), ..Self::default() };
        let breakers: Vec<&Breaker> = home.panels().breakers().collect();
        for moved in home.switchings().all() {
            all.move_handle(recipe, &breakers, &moved.breaker, moved.to, moved.taken_back);
        }
        all.outage = is_outage(recipe, home.house().points().count(), all.looks);
        all
    }

    /// The same after one more handle is moved.
    pub(super) fn then(&self, home: &Home, moved: &BreakerId, to: State) -> Self {
        let mut then = self.clone();
        if let Some(recipe) = self.recipe {
            then.move_handle(recipe, &home.panels().breakers().collect::<Vec<_>>(), moved, to, false);
        }
        then
    }

    fn move_handle(&mut self, recipe: Recipe, breakers: &[&Breaker], moved: &BreakerId, to: State, taken_back: bool) {
        let nth = self.times.entry(moved.clone()).or_default();
        *nth += 1;
        let nth = *nth;
        self.dead.remove(moved);
        self.tripped.remove(moved);
        self.still_on.remove(moved);
        if taken_back || to == State::Tripped {
            return;
        }
        let Some(own) = breakers.iter().find(|b| b.id == *moved) else { return };
        let comes = |what: &str| chance(recipe, what, moved.as_str(), nth);
        let others = || breakers.iter().filter(|b| b.id != *moved && !b.must_stay_on());
        for other in others() {
            let beside = if to == State::Off && own.is_beside(other) { rates::TRIPS_BESIDE } else { 0.0 };
            if comes(&format!("trips {}", other.id)) < rates::TRIPS / breakers.len() as f64 + beside {
                self.tripped.insert(other.id.clone());
            }
        }
        if to == State::Off {
            if comes("wrong handle") < rates::WRONG_HANDLE {
                let beside: Vec<&BreakerId> = others().filter(|b| own.is_beside(b)).map(|b| &b.id).collect();
                let which = (comes("which instead") * beside.len() as f64) as usize;
                self.still_on.insert(moved.clone(), beside.get(which).copied().cloned());
            }
        } else {
            let latches = comes("latches");
            if latches < rates::NOT_LATCHED {
                self.dead.insert(moved.clone());
            } else if latches < rates::NOT_LATCHED + rates::TRIPS_AT_ONCE {
                self.tripped.insert(moved.clone());
            }
        }
    }

    /// The breakers that carry no power by themselves, with these said to be off.
    pub(super) fn off(&self, said: &BTreeSet<BreakerId>) -> BTreeSet<BreakerId> {
        let said = said.iter().filter(|b| !self.still_on.contains_key(*b));
        said.chain(self.still_on.values().flatten()).chain(&self.dead).chain(&self.tripped).cloned().collect()
    }

    /// Whether the whole house has no power.
    pub(super) const fn is_outage(&self) -> bool {
        self.outage
    }

    /// Whether the point is dark by itself just now. What its owner knows of is stopped while it is looked at.
    pub(super) fn is_dark_by_itself(&self, point: &Point) -> bool {
        let Some(recipe) = self.recipe else { return false };
        if own_mind(recipe, &point.id, point.kind).is_none() || point.details.goes_by.is_some() {
            return false;
        }
        let changes = 0.5 * (1.0 - (-LOOK_S / rates::OWN_S).exp());
        (0..self.looks).filter(|nth| chance(recipe, "goes by itself", point.id.as_str(), *nth) < changes).count() % 2 == 1
    }

    /// The point that is looked at by mistake where this one is meant: another of its room and kind.
    pub(super) fn instead_of<'a>(&self, home: &'a Home, point: &Point, times: usize) -> Option<&'a Point> {
        let recipe = self.recipe?;
        if chance(recipe, "wrong point", point.id.as_str(), times) >= rates::WRONG_POINT {
            return None;
        }
        let like = |p: &&Point| p.id != point.id && p.room == point.room && p.kind == point.kind && p.volts == point.volts;
        let others: Vec<&Point> = home.house().points().filter(like).collect();
        let which = (chance(recipe, "which point", point.id.as_str(), times) * others.len() as f64) as usize;
        others.get(which).copied()
    }

    /// Whether somebody at the panel, who has moved so many handles, notices what stands wrong: half of the time.
    pub(super) fn is_noticed(&self, moved: usize) -> bool {
        const NOTICED: f64 = 0.5;
        self.recipe.is_some_and(|recipe| chance(recipe, "notices", "", moved) < NOTICED)
    }
}

/// Whether an outage, which may begin at any look, is not over yet.
fn is_outage(recipe: Recipe, points: usize, looks: usize) -> bool {
    let begins = 1.0 - (-rates::OUTAGE * LOOK_S / (rates::POINT_S * points.max(1) as f64)).exp();
    let ends = 1.0 - (-LOOK_S / rates::OUTAGE_S).exp();
    (0..looks).fold(false, |out, nth| {
        let chance = |what| chance(recipe, what, "", nth);
        if out { chance("outage ends") >= ends } else { chance("outage begins") < begins }
    })
}
