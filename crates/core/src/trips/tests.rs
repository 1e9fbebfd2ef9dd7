//! The belief beside plain counting: every cause in every map and order of a small house, written out once more from `trips.md`.

use std::collections::BTreeMap;

use super::belief::Belief;
use super::case::{
    BreakerHas, Extent, Onset, Order, PointMap, Report, State, SwitchKind, Symptom, Takes, TripBreaker, TripCase, TripLoad,
    TripPanel, TripPoint, TripSwitch,
};
use super::cause::{Cause, Key};
use super::look::{Look, Saw};
use super::overload::overload_ratio;
use super::report::{seen_chance, told_chance};

/// Four points on circuit 0 (an outlet reported dark, a light, a GFCI, an outlet), a light on 1, an outlet on 2.
fn house() -> TripCase {
    let point = |room, takes, ring, gfci| TripPoint { room, takes, ring, gfci, has_outlet: false, blind: false };
    let breaker = |amps: f64, has, legs| TripBreaker { amps, has, legs, panel: 0, feeder: false };
    let map = |b: usize| PointMap { breakers: vec![(b, 1.0)], elsewhere: 0.0 };
    TripCase {
        walk_s: vec![vec![0.0, 6.0], vec![6.0, 0.0]],
        ring_n: vec![6, 6],
        points: vec![
            point(0, Takes::Receptacle, 0, false),
            point(0, Takes::Light, 2, false),
            point(1, Takes::Receptacle, 1, true),
            point(1, Takes::Receptacle, 4, false),
            point(1, Takes::Light, 5, false),
            point(0, Takes::Receptacle, 3, false),
        ],
        breakers: vec![
            breaker(20.0, BreakerHas::Dual, (true, false)),
            breaker(15.0, BreakerHas::Afci, (false, true)),
            breaker(20.0, BreakerHas::Standard, (false, true)),
        ],
        panels: vec![TripPanel { room: 1, feeder: None }],
        switches: vec![
            TripSwitch { room: 0, kind: SwitchKind::Half, points: vec![0] },
            TripSwitch { room: 0, kind: SwitchKind::Single, points: vec![1] },
        ],
        loads: vec![
            TripLoad { point: 0, watts: 1500.0, in_use: 0.1, motor: false, cutout: true, cord: true },
            TripLoad { point: 3, watts: 700.0, in_use: 0.2, motor: true, cutout: false, cord: true },
            TripLoad { point: 5, watts: 60.0, in_use: 0.4, motor: false, cutout: false, cord: true },
        ],
        shared_neutrals: vec![(0, 2)],
        map: vec![map(0), map(0), map(0), map(0), map(1), map(2)],
        orders: BTreeMap::new(),
        gfci_feeds: BTreeMap::new(),
        has_meter: true,
        report: Report {
            point: 0,
            symptom: Symptom::Dark,
            also: vec![],
            lit: vec![4],
            extent: Some(Extent::Some),
            onset: Onset::Minutes,
            just_switched: Some(0),
            running: vec![0, 1],
            tripped_handle: None,
        },
        start_room: 0,
        seed: 5,
    }
}

type Weights = BTreeMap<Key, f64>;

/// Every cause in one map and one order: the weights of `trips.md` over their places, the states as the words say.
fn count(case: &TripCase, of: &[usize], order: &Order, weight: f64, looks: &[(Look, Saw)], into: &mut Weights) {
    let out = case.report.point;
    let here = of[out];
    let all = 0..of.len();
    let mut add = |key: Key, share: f64, states: &dyn Fn(usize) -> State, itself: bool| {
        let scene: Vec<State> = all.clone().map(states).collect();
        let mut used = scene.clone();
        if itself {
            used[out] = State::Dark;
        }
        let mut p = weight * share * seen_chance(case, &case.in_use(), &used) * told_chance(case, key);
        for (look, saw) in looks {
            p *= look.chance(case, *saw, key, look.site().map_or(State::Live, |q| scene[q]));
        }
        *into.entry(key).or_default() += p;
    };
    let branches = case.breakers.len() as f64;
    let dark = |q: usize| if of[q] == here { State::Dark } else { State::Live };
    let ratio = overload_ratio(case, here, &|q| of[q] == here);
    add(Key::breaker(Cause::Overload, here), 14.0 / branches * ratio, &dark, false);
    add(Key::breaker(Cause::ShortWiring, here), 1.0 / branches, &dark, false);
    add(Key::breaker(Cause::OffOrNotLatched, here), 3.0 / branches, &dark, false);
    add(Key::breaker(Cause::BreakerFailed, here), 1.5 / branches, &dark, false);
    let has = case.breakers[here].has;
    if has.arc() {
        add(Key::breaker(Cause::Arc, here), 3.5 / 2.0, &dark, false);
    }
    if has.ground() {
        add(Key::breaker(Cause::GroundWiring, here), 0.7, &dark, false);
    }
    for (n, load) in case.loads.iter().enumerate().filter(|(_, l)| of[l.point] == here) {
        add(Key::at(Cause::ShortLoad, here, n), 1.0, &dark, false);
        if has.ground() {
            add(Key::at(Cause::GroundLoad, here, n), 1.5 / 2.0, &dark, false);
        }
        if load.motor {
            add(Key::at(Cause::Inrush, here, n), 2.0, &dark, false);
        }
    }
    if of[2] == here {
        add(Key::at(Cause::Double, here, 2), 1.5, &dark, false);
    }
    add(Key::house(Cause::Outage), 5.0, &|_| State::Dark, false);
    add(Key::house(Cause::MainOff), 1.0, &|_| State::Dark, false);
    let leg_a = |q: usize| case.breakers[of[q]].legs.0;
    let my_leg = leg_a(out);
    let lost = |q: usize| if leg_a(q) == my_leg { State::Dark } else { State::Live };
    add(Key::house(Cause::LostLeg), 1.5 / 2.0, &lost, false);
    for dim_a in [true, false] {
        let moved = |q: usize| if leg_a(q) == dim_a { State::Dim } else { State::Bright };
        add(Key::house(Cause::LostNeutral), 1.5 / 2.0, &moved, false);
    }
    if here == 0 || here == 2 {
        for dim in [0, 2] {
            let moved = |q: usize| match of[q] {
                b if b == dim => State::Dim,
                0 | 2 => State::Bright,
                _ => State::Live,
            };
            add(Key::breaker(Cause::SharedNeutral, 0), 1.0 / 2.0, &moved, false);
        }
    }
    add(Key::place(Cause::SwitchOff, 0), 6.0 / 2.0, &|q| if q == 0 { State::Half } else { State::Live }, false);
    add(Key::place(Cause::Cutout, 0), 4.0, &|_| State::Live, true);
    add(Key::place(Cause::Cord, 0), 4.0 / 3.0, &|_| State::Live, true);
    // Each joint with the reported point behind it.
    for joint in order.keys().copied() {
        let behind = |q: usize| {
            let mut at = Some(q);
            while let Some(now) = at {
                if now == joint {
                    return order.contains_key(&q);
                }
                at = order.get(&now).copied().flatten();
            }
            false
        };
        if !behind(out) {
            continue;
        }
        let joints = case.points.len() as f64;
        for (cause, per_100, state) in [
            (Cause::OpenHot, 7.0, State::Dark),
            (Cause::OpenNeutral, 3.0, State::OpenNeutral),
            (Cause::LooseJoint, 4.0, State::Flicker),
        ] {
            let states = |q: usize| if behind(q) { state } else { State::Live };
            add(Key::at(cause, here, joint), per_100 / joints, &states, false);
        }
        if joint == 2 {
            for (cause, per_100) in [(Cause::GfciTripped, 16.0), (Cause::GfciDead, 3.0)] {
                let states = |q: usize| if behind(q) { State::Dark } else { State::Live };
                add(Key::place(cause, 2), per_100 * 0.85, &states, false);
            }
        }
    }
}

fn close(case: &TripCase, counted: &Weights, looks: &[(Look, Saw)], within: f64) {
    let mut belief = Belief::new(case);
    for (look, saw) in looks {
        belief.see(*look, *saw);
    }
    let all: f64 = counted.values().sum();
    let believed: BTreeMap<Key, f64> = belief.causes().into_iter().collect();
    for key in counted.keys().chain(believed.keys()) {
        let (counted, believed) = (counted.get(key).unwrap_or(&0.0) / all, believed.get(key).unwrap_or(&0.0));
        assert!((counted - believed).abs() <= within, "{key:?}: {counted} counted, {believed} believed");
    }
}

const LOOKS: [&[(Look, Saw)]; 4] = [
    &[],
    &[(Look::Point(1), Saw::Shows(State::Live))],
    &[(Look::Handles(0), Saw::None), (Look::Point(3), Saw::Shows(State::Dark))],
    &[(Look::Gfci(2), Saw::OkLive), (Look::Point(0), Saw::Shows(State::OpenNeutral)), (Look::Toggle(0), Saw::StaysDark)],
];

/// One map and one order: to the last digit.
#[test]
fn with_map_and_order_known_the_belief_is_exact() {
    let mut case = house();
    let of = [0, 0, 0, 0, 1, 2];
    let order: Order = BTreeMap::from([(2, None), (0, Some(2)), (1, Some(0)), (3, Some(2))]);
    case.orders.insert(0, order.clone());
    for looks in LOOKS {
        let mut counted = Weights::new();
        count(&case, &of, &order, 1.0, looks, &mut counted);
        close(&case, &counted, looks, 1e-9);
    }
}

/// Several maps: each of them counted, against drawn ones.
#[test]
fn over_maps_the_belief_is_within_two_hundredths() {
    let mut case = house();
    let may = |of: &[(usize, f64)]| PointMap { breakers: of.to_vec(), elsewhere: 0.0 };
    case.map[1] = may(&[(0, 0.8), (1, 0.2)]);
    case.map[3] = may(&[(0, 0.6), (2, 0.4)]);
    case.map[5] = may(&[(2, 0.9), (1, 0.1)]);
    // The order is told by the numbers alone, so that each map has one: the panel, then each point in its turn.
    for looks in LOOKS {
        let mut counted = Weights::new();
        for (b1, p1) in &case.map[1].breakers {
            for (b3, p3) in &case.map[3].breakers {
                for (b5, p5) in &case.map[5].breakers {
                    let of = [0, *b1, 0, *b3, 1, *b5];
                    let order: Order = BTreeMap::from([(2, None), (0, Some(2))]);
                    count(&case, &of, &order, p1 * p3 * p5, looks, &mut counted);
                }
            }
        }
        let mut known = case.clone();
        known.orders.insert(0, BTreeMap::from([(2, None), (0, Some(2))]));
        close(&known, &counted, looks, 0.02);
    }
}

/// No order known: after three looks each way of running the cables counts by its weight (here every tree is counted one by one).
#[test]
fn without_an_order_every_tree_counts() {
    let case = house();
    let of = [0, 0, 0, 0, 1, 2];
    let looks =
        [(Look::Point(1), Saw::Shows(State::Live)), (Look::Point(3), Saw::Shows(State::Dark)), (Look::Feel(0), Saw::IsOn)];
    let mut trees: Vec<(Order, f64)> = Vec::new();
    // A number in base 5 says of each of the four points what is before it: the panel or a point.
    for n in 0..5usize.pow(4) {
        let before = |p: usize| (n / 5usize.pow(p as u32) % 5).checked_sub(1);
        let order: Order = (0..4).map(|p| (p, before(p))).collect();
        let mut weight = 1.0;
        for p in 0..4 {
            let (mut at, mut steps) = (Some(p), 0);
            while let Some(now) = at {
                at = before(now);
                steps += 1;
                if steps > 4 {
                    weight = 0.0;
                    break;
                }
            }
            weight *= match before(p) {
                None => 0.05 * (-case.walk_s[1][case.points[p].room] / 8.0).exp(),
                Some(q) => (-case.cable(p, q) / 3.0).exp(),
            };
        }
        if weight > 0.0 {
            trees.push((order, weight));
        }
    }
    assert_eq!(trees.len(), 125, "Cayley: trees of five nodes");
    let all: f64 = trees.iter().map(|(_, w)| w).sum();
    let mut counted = Weights::new();
    for (order, weight) in &trees {
        count(&case, &of, order, weight / all, &looks, &mut counted);
    }
    close(&case, &counted, &looks, 1e-9);
}
