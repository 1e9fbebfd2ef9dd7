//! Every single cause at every place that puts the reported point out, in drawn worlds, weighed by the report.
//!
//! A *world* says which breaker feeds each point and in which order the points of a circuit follow each other. A *scene* is how every
//! point then stands. A *story* is one cause in one scene.

use std::borrow::Cow;
use std::collections::{BTreeMap, BTreeSet};

use rand_pcg::Pcg64Mcg;

use super::case::{BreakerNo, Order, PointMap, PointNo, State, SwitchKind, Takes, TripCase};
use super::cause::{Cause, Key};
use super::file::PowerBox;
use super::order::{First, behind, draw_order, pick, way_to};
use super::overload::overload_ratio;
use super::report::{seen_chance, told_chance};

/// How many worlds are drawn.
const WORLDS: usize = 160;
/// At least so many for each breaker that may feed the reported point, and for each that hardly does.
const A_CANDIDATE: usize = 12;
const A_STRAY: usize = 3;
/// A GFCI receptacle feeds what comes after it so often; otherwise it protects itself alone.
const FEEDS_THROUGH: f64 = 0.85;

/// How every point stands.
pub(super) type Scene = Vec<State>;

/// One cause in one scene.
#[derive(Debug, Clone)]
pub(super) struct Story {
    /// The cause, by its number.
    pub(super) key: usize,
    /// The scene, by its number.
    pub(super) scene: usize,
    /// How likely beforehand, with the report.
    pub(super) before: f64,
    /// How likely with all looks.
    pub(super) now: f64,
    /// Where it is found.
    pub(super) boxes: Boxes,
    /// It follows from a drawn order of this circuit, which nobody knows.
    pub(super) drawn: Option<BreakerNo>,
}

/// The boxes in which a fault is found.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum Boxes {
    /// No matter of a box.
    None,
    /// This one.
    One(PowerBox),
    /// At one of the ends of a cable to this point: half each; at the panel a quarter. The cables are those of this number.
    Cable(usize, PointNo),
}

/// A world.
pub(super) struct World {
    /// The breaker of every point.
    pub(super) of: Vec<BreakerNo>,
    /// That of the reported one.
    pub(super) here: BreakerNo,
    /// How likely.
    pub(super) weight: f64,
}

/// Over how many places of the house the weight of a cause is shared.
#[derive(Debug, Clone)]
struct Shares {
    branches: f64,
    ground: f64,
    arc: f64,
    loads: f64,
    ground_loads: f64,
    motors: f64,
    gfcis: f64,
    lamps: f64,
    cutouts: f64,
    cords: f64,
    controls: f64,
    switches: f64,
    points: f64,
    feeders: f64,
    pairs: f64,
}

impl Shares {
    fn of(case: &TripCase) -> Self {
        let count = |n: usize| n.max(1) as f64;
        let branch = |holds: &dyn Fn(BreakerNo) -> bool| count(case.branches().filter(|b| holds(*b)).count());
        let load = |holds: &dyn Fn(usize) -> bool| count((0..case.loads.len()).filter(|l| holds(*l)).count());
        let behind_ground = |l: usize| likeliest(case, case.loads[l].point).is_some_and(|b| case.breakers[b].has.ground());
        let by_itself = case.switches.iter().filter(|s| s.kind.by_itself()).count();
        Self {
            branches: branch(&|_| true),
            ground: branch(&|b| case.breakers[b].has.ground()),
            arc: branch(&|b| case.breakers[b].has.arc()),
            loads: load(&|_| true),
            ground_loads: load(&behind_ground),
            motors: load(&|l| case.loads[l].motor),
            cutouts: load(&|l| case.loads[l].cutout),
            cords: load(&|l| case.loads[l].cord),
            gfcis: count(case.points.iter().filter(|p| p.gfci).count()),
            lamps: count(case.points.iter().filter(|p| p.takes == Takes::Light).count()),
            controls: count(by_itself),
            switches: count(case.switches.len() - by_itself),
            points: count(case.points.len()),
            feeders: count(case.breakers.iter().filter(|b| b.feeder).count()),
            pairs: count(case.shared_neutrals.len()),
        }
    }
}

/// The likeliest breaker of a point.
pub(super) fn likeliest(case: &TripCase, point: PointNo) -> Option<BreakerNo> {
    case.map[point].breakers.iter().max_by(|a, b| a.1.total_cmp(&b.1)).map(|(b, _)| *b)
}

/// All stories that were told.
#[derive(Debug, Clone)]
pub(super) struct Stories<'a> {
    pub(super) case: &'a TripCase,
    pub(super) keys: Vec<Key>,
    pub(super) scenes: Vec<Scene>,
    /// How likely what is reported is in each scene.
    reported: Vec<f64>,
    pub(super) all: Vec<Story>,
    /// The points that drawn worlds put on a breaker, with the weight of the world.
    pub(super) maps: BTreeMap<BreakerNo, Vec<(f64, BTreeSet<PointNo>)>>,
    /// The cables that may lead to a joint: from where (`None`: the panel), with their shares.
    pub(super) cables: Vec<Vec<(Option<PointNo>, f64)>>,
    shares: Shares,
    in_use: Vec<f64>,
    number: BTreeMap<Key, usize>,
}

impl<'a> Stories<'a> {
    /// Draws the worlds and tells every story in each.
    pub(super) fn of(case: &'a TripCase, rng: &mut Pcg64Mcg) -> Self {
        let mut stories = Self {
            case,
            keys: Vec::new(),
            scenes: Vec::new(),
            reported: Vec::new(),
            all: Vec::new(),
            maps: BTreeMap::new(),
            cables: Vec::new(),
            shares: Shares::of(case),
            in_use: case.in_use(),
            number: BTreeMap::new(),
        };
        for world in draw_worlds(case, rng) {
            stories.add(&world, rng);
        }
        stories
    }

    /// A scene in which everything is as it should be but for these.
    fn scene(&mut self, wrong: impl IntoIterator<Item = (PointNo, State)>) -> usize {
        let mut scene = vec![State::Live; self.case.points.len()];
        for (point, state) in wrong {
            scene[point] = state;
        }
        self.reported.push(seen_chance(self.case, &self.in_use, &scene));
        self.scenes.push(scene);
        self.scenes.len() - 1
    }

    /// A scene in which every point has power, and the thing at the reported one does not run.
    fn thing_itself(&mut self) -> usize {
        let scene = self.scene([]);
        let mut used = self.scenes[scene].clone();
        used[self.case.report.point] = State::Dark;
        self.reported[scene] = seen_chance(self.case, &self.in_use, &used);
        scene
    }

    /// Adds a story with its weight, weighed by the report.
    fn tell(&mut self, scene: usize, key: Key, weight: f64, boxes: Boxes, drawn: Option<BreakerNo>) {
        let before = weight * self.reported[scene] * told_chance(self.case, key);
        if before > 0.0 {
            let next = self.keys.len();
            let key = *self.number.entry(key).or_insert_with(|| {
                self.keys.push(key);
                next
            });
            self.all.push(Story { key, scene, before, now: before, boxes, drawn });
        }
    }

    fn add(&mut self, world: &World, rng: &mut Pcg64Mcg) {
        let case = self.case;
        let on_it: Vec<PointNo> = (0..case.points.len()).filter(|p| world.of[*p] == world.here).collect();
        self.breaker_off(world, &on_it);
        self.house(world);
        self.at_the_point(world);
        let point = case.report.point;
        for (gfci, feeds) in case.gfci_feeds.iter().filter(|(g, feeds)| **g == point || feeds.contains(&point)) {
            let scene = self.scene(feeds.iter().chain([gfci]).map(|p| (*p, State::Dark)));
            for cause in [Cause::GfciTripped, Cause::GfciDead] {
                let weight = world.weight * cause.per_100() / self.shares.gfcis;
                self.tell(scene, Key::place(cause, *gfci), weight, Boxes::One(PowerBox::Point(*gfci)), None);
            }
        }
        let known = case.orders.get(&world.here).filter(|order| order.contains_key(&point));
        let order: Order = known.map_or_else(|| draw_order(case, world.here, &on_it, rng), Clone::clone);
        let drawn = known.is_none().then_some(world.here);
        for joint in way_to(&order, point) {
            let dark = behind(&order, joint);
            self.along(&dark, &[(joint, vec![(order[&joint], world.weight)])], drawn, world.here);
        }
        self.maps.entry(world.here).or_default().push((world.weight, on_it.into_iter().collect()));
    }

    /// The circuit is without power, whatever for.
    fn breaker_off(&mut self, world: &World, on_it: &[PointNo]) {
        let (case, here, shares) = (self.case, world.here, self.shares.clone());
        let scene = self.scene(on_it.iter().map(|p| (*p, State::Dark)));
        let mut tell = |key: Key, share: f64, boxes: Boxes| {
            self.tell(scene, key, world.weight * key.cause.per_100() * share, boxes, None);
        };
        let at = |cause| Key::breaker(cause, here);
        let one = 1.0 / shares.branches;
        let ran = overload_ratio(case, here, &|p| world.of[p] == here);
        tell(at(Cause::Overload), one * ran, Boxes::None);
        tell(at(Cause::ShortWiring), one, Boxes::None);
        tell(at(Cause::OffOrNotLatched), one, Boxes::None);
        tell(at(Cause::BreakerFailed), one, Boxes::One(PowerBox::Panel));
        let has = case.breakers[here].has;
        if has.arc() {
            tell(at(Cause::Arc), 1.0 / shares.arc, Boxes::None);
        }
        if has.ground() {
            tell(at(Cause::GroundWiring), 1.0 / shares.ground, Boxes::None);
        }
        for (n, load) in case.loads.iter().enumerate().filter(|(_, l)| world.of[l.point] == here) {
            tell(Key::at(Cause::ShortLoad, here, n), 1.0 / shares.loads, Boxes::None);
            if has.ground() {
                tell(Key::at(Cause::GroundLoad, here, n), 1.0 / shares.ground_loads, Boxes::None);
            }
            if load.motor {
                tell(Key::at(Cause::Inrush, here, n), 1.0 / shares.motors, Boxes::None);
            }
        }
        for gfci in on_it.iter().filter(|p| case.points[**p].gfci) {
            tell(Key::at(Cause::Double, here, *gfci), 1.0 / shares.gfcis, Boxes::None);
        }
    }

    /// What concerns a panel, a leg or the whole house.
    fn house(&mut self, world: &World) {
        let (case, shares) = (self.case, self.shares.clone());
        let of = |p: PointNo| &case.breakers[world.of[p]];
        let points = 0..case.points.len();
        let all = self.scene(points.clone().map(|p| (p, State::Dark)));
        for cause in [Cause::Outage, Cause::MainOff] {
            self.tell(all, Key::house(cause), world.weight * cause.per_100(), Boxes::None, None);
        }
        // A leg that is lost leaves what is on both with half.
        let lost = |p: PointNo, leg_a: bool| match of(p).legs {
            (true, true) => State::Partial,
            (a, _) if a == leg_a => State::Dark,
            _ => State::Live,
        };
        // Without a neutral the legs share 240 V by what is on them.
        let moved = |p: PointNo, dim_a: bool| match of(p).legs {
            (true, true) => State::Live,
            (a, _) if a == dim_a => State::Dim,
            _ => State::Bright,
        };
        let out = case.report.point;
        for leg_a in [true, false] {
            if lost(out, leg_a) != State::Live {
                let scene = self.scene(points.clone().map(|p| (p, lost(p, leg_a))));
                let weight = world.weight * Cause::LostLeg.per_100() / 2.0;
                self.tell(scene, Key::house(Cause::LostLeg), weight, Boxes::None, None);
            }
            if moved(out, leg_a) != State::Live {
                let scene = self.scene(points.clone().map(|p| (p, moved(p, leg_a))));
                let weight = world.weight * Cause::LostNeutral.per_100() / 2.0;
                self.tell(scene, Key::house(Cause::LostNeutral), weight, Boxes::None, None);
            }
        }
        if let Some(feeder) = case.panels[of(out).panel].feeder {
            let panel = of(out).panel;
            let behind: Vec<PointNo> = points.filter(|p| of(*p).panel == panel).collect();
            let scene = self.scene(behind.iter().map(|p| (*p, State::Dark)));
            let weight = world.weight * Cause::FeederOff.per_100() / shares.feeders;
            self.tell(scene, Key::breaker(Cause::FeederOff, feeder), weight, Boxes::None, None);
            for leg_a in [true, false].into_iter().filter(|leg_a| lost(out, *leg_a) != State::Live) {
                let scene = self.scene(behind.iter().map(|p| (*p, lost(*p, leg_a))));
                let weight = world.weight * Cause::FeederLeg.per_100() / shares.feeders / 2.0;
                self.tell(scene, Key::breaker(Cause::FeederLeg, feeder), weight, Boxes::None, None);
            }
        }
        for (a, b) in case.shared_neutrals.iter().copied().filter(|(a, b)| [*a, *b].contains(&world.here)) {
            for (dim, bright) in [(a, b), (b, a)] {
                let state = |p: PointNo| match world.of[p] {
                    x if x == dim => Some((p, State::Dim)),
                    x if x == bright => Some((p, State::Bright)),
                    _ => None,
                };
                let scene = self.scene((0..case.points.len()).filter_map(state));
                let weight = world.weight * Cause::SharedNeutral.per_100() / shares.pairs / 2.0;
                self.tell(scene, Key::breaker(Cause::SharedNeutral, a), weight, Boxes::None, None);
            }
        }
    }

    /// What is at the point itself, or at the switch of it.
    fn at_the_point(&mut self, world: &World) {
        let (case, shares, point) = (self.case, self.shares.clone(), self.case.report.point);
        let alone = self.thing_itself();
        let mut own = |cause: Cause, share: f64| {
            self.tell(alone, Key::place(cause, point), world.weight * cause.per_100() / share, Boxes::None, None);
        };
        if case.points[point].takes == Takes::Light {
            own(Cause::Lamp, shares.lamps);
        }
        for load in case.loads.iter().filter(|l| l.point == point) {
            if load.cutout {
                own(Cause::Cutout, shares.cutouts);
            }
            if load.cord {
                own(Cause::Cord, shares.cords);
            }
        }
        for (n, switch) in case.switches.iter().enumerate().filter(|(_, s)| s.points.contains(&point)) {
            let state = if switch.kind == SwitchKind::Half { State::Half } else { State::Dark };
            let scene = self.scene(switch.points.iter().map(|p| (*p, state)));
            let (cause, share) =
                if switch.kind.by_itself() { (Cause::Control, shares.controls) } else { (Cause::SwitchOff, shares.switches) };
            self.tell(scene, Key::place(cause, n), world.weight * cause.per_100() / share, Boxes::None, None);
        }
    }

    /// A joint or a GFCI in front of these points: for each first of them the cables that could lead to it, with their weights.
    pub(super) fn along(&mut self, behind: &[PointNo], firsts: &[First], drawn: Option<BreakerNo>, here: BreakerNo) {
        let (case, shares, out) = (self.case, self.shares.clone(), self.case.report.point);
        let two_legs = case.breakers[here].legs == (true, true);
        let dark = self.scene(behind.iter().map(|p| (*p, State::Dark)));
        let open = self.scene(behind.iter().map(|p| (*p, State::OpenNeutral)));
        let loose = self.scene(behind.iter().map(|p| (*p, State::Flicker)));
        for (to, cables) in firsts {
            let to = *to;
            let weight: f64 = cables.iter().map(|(_, w)| w).sum();
            if weight <= 0.0 {
                continue;
            }
            self.cables.push(cables.iter().map(|(from, w)| (*from, w / weight)).collect());
            let boxes = Boxes::Cable(self.cables.len() - 1, to);
            let mut joint = |cause: Cause, scene: usize| {
                self.tell(scene, Key::at(cause, here, to), weight * cause.per_100() / shares.points, boxes, drawn);
            };
            joint(Cause::OpenHot, dark);
            joint(Cause::LooseJoint, loose);
            if !two_legs {
                joint(Cause::OpenNeutral, open);
            }
            if case.points[to].gfci && !case.gfci_feeds.contains_key(&to) {
                let mut gfci = |scene: usize, share: f64| {
                    for cause in [Cause::GfciTripped, Cause::GfciDead] {
                        let weight = weight * share * cause.per_100() / shares.gfcis;
                        self.tell(scene, Key::place(cause, to), weight, Boxes::One(PowerBox::Point(to)), drawn);
                    }
                };
                gfci(dark, FEEDS_THROUGH);
                if to == out {
                    let itself = self.scene([(to, State::Dark)]);
                    for cause in [Cause::GfciTripped, Cause::GfciDead] {
                        let weight = weight * (1.0 - FEEDS_THROUGH) * cause.per_100() / shares.gfcis;
                        self.tell(itself, Key::place(cause, to), weight, Boxes::One(PowerBox::Point(to)), drawn);
                    }
                }
            }
        }
    }

    /// What a joint before a point counts among the cables of a circuit, for drawing partings: all causes together.
    pub(super) fn joint_weight(&self, point: PointNo) -> f64 {
        let joints = Cause::OpenHot.per_100() + Cause::OpenNeutral.per_100() + Cause::LooseJoint.per_100();
        let gfci = if self.case.points[point].gfci {
            FEEDS_THROUGH * (Cause::GfciTripped.per_100() + Cause::GfciDead.per_100()) / self.shares.gfcis
        } else {
            0.0
        };
        joints / self.shares.points + gfci
    }

    /// Forgets what was told from drawn orders of these circuits.
    pub(super) fn forget_drawn(&mut self, breakers: &[BreakerNo]) {
        self.all.retain(|s| s.drawn.is_none_or(|b| !breakers.contains(&b)));
    }
}

/// Draws worlds: for each breaker that may feed the reported point enough, each counted by how likely that breaker is.
fn draw_worlds(case: &TripCase, rng: &mut Pcg64Mcg) -> Vec<World> {
    let map = &known_map(case, case.report.point);
    let branches: Vec<BreakerNo> = case.branches().collect();
    let named: Vec<(BreakerNo, f64)> = map.breakers.iter().copied().filter(|(_, p)| *p >= 0.01).collect();
    let others: Vec<BreakerNo> = branches.iter().copied().filter(|b| named.iter().all(|(n, _)| n != b)).collect();
    let total: f64 = named.iter().map(|(_, p)| p).sum::<f64>() + map.elsewhere;
    let stray = if others.is_empty() { 0.0 } else { map.elsewhere / others.len() as f64 };
    let left = WORLDS.saturating_sub(A_STRAY * others.len());
    let mut worlds = Vec::new();
    for (here, p, count) in named
        .iter()
        .map(|(b, p)| (*b, *p, ((*p / total * left as f64) as usize).max(A_CANDIDATE)))
        .chain(others.iter().map(|b| (*b, stray, A_STRAY)))
    {
        for _ in 0..count {
            let mut of: Vec<BreakerNo> = (0..case.points.len()).map(|q| draw_breaker(case, q, &branches, rng)).collect();
            of[case.report.point] = here;
            worlds.push(World { of, here, weight: p / total / count as f64 });
        }
    }
    worlds
}

/// Which breakers may feed a point. Who knows in which order a circuit runs knows what is on it.
fn known_map(case: &TripCase, point: PointNo) -> Cow<'_, PointMap> {
    let map = &case.map[point];
    let Some((breaker, _)) = case.orders.iter().find(|(_, order)| order.contains_key(&point)) else {
        return Cow::Borrowed(map);
    };
    let others = map.breakers.iter().filter(|(b, _)| b != breaker).map(|(b, p)| (*b, p * 0.02));
    Cow::Owned(PointMap { breakers: others.chain([(*breaker, 0.98)]).collect(), elsewhere: map.elsewhere.min(0.005) })
}

fn draw_breaker(case: &TripCase, point: PointNo, branches: &[BreakerNo], rng: &mut Pcg64Mcg) -> BreakerNo {
    let map = known_map(case, point);
    let weights = map.breakers.iter().map(|(_, p)| *p).chain([map.elsewhere]);
    let at = pick(weights, rng);
    match map.breakers.get(at) {
        Some((breaker, _)) => *breaker,
        None => branches[pick(branches.iter().map(|_| 1.0), rng)],
    }
}
