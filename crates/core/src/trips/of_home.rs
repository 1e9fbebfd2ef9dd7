//! A home and what is wrong in it as a case of numbers, with the ids behind them. What nobody has entered is there all the same: a
//! light has a switch somewhere, an outlet something that is plugged in, a home a panel and a breaker.

use std::collections::BTreeMap;

use super::case::{
    BreakerHas, BreakerNo, Order, PointMap, PointNo, Report, SwitchKind, Takes, TripBreaker, TripCase, TripLoad, TripPanel,
    TripPoint, TripSwitch,
};
use super::look::{Look, Saw, by_volts};
use crate::loads::drawn;
use crate::logbook::KnownTrouble;
use crate::model::{
    BreakerId, FedFrom, GoesBy, Leg, LoadDoes, LoadId, PanelId, Point, PointId, PointKind, Protection, Spot, TroubleAt,
    TroubleLook, TroubleSaw, Volts, legs_of,
};
use crate::study::Study;
use crate::trace::{believed, verdicts};
use crate::walking::walking;

/// The home as the search sees it.
pub(super) struct AtHome {
    pub(super) case: TripCase,
    pub(super) points: Vec<Option<PointId>>,
    pub(super) breakers: Vec<Option<BreakerId>>,
    pub(super) panels: Vec<Option<PanelId>>,
    pub(super) loads: Vec<Option<LoadId>>,
    pub(super) switches: Vec<Option<PointId>>,
}

/// How far it is to a room of which nothing is drawn, in seconds. The trade's experience, no source.
const GUESSED_S: f64 = 6.0;
/// What is plugged in at an outlet of which nothing is entered.
const SOMETHING_WATTS: f64 = 100.0;

/// The home with its trouble. What is there no more is somewhere in the house.
pub(super) fn at_home(home: &Study, trouble: &KnownTrouble) -> AtHome {
    let told = &trouble.told;
    let rooms: Vec<_> = home.house().rooms().map(|room| room.id.clone()).collect();
    let mut points: Vec<Option<PointId>> = home.house().points().map(|p| Some(p.id.clone())).collect();
    let number = |id: &PointId, points: &[Option<PointId>]| points.iter().position(|p| p.as_ref() == Some(id));
    let panels: Vec<Option<PanelId>> = home.panels().all().map(|p| Some(p.id.clone())).collect();
    let breakers: Vec<Option<BreakerId>> = home.panels().breakers().map(|b| Some(b.id.clone())).collect();
    let breaker_no = |id: &BreakerId| breakers.iter().position(|b| b.as_ref() == Some(id));
    let on_it = |b: &BreakerId| {
        verdicts(home).iter().find(|(_, verdict)| verdict.proven_on() == Some(b)).and_then(|(p, _)| number(p, &points))
    };
    let (reported, tripped) = match &told.at {
        TroubleAt::Point(point) => (number(point, &points).unwrap_or(points.len()), None),
        TroubleAt::Home => (points.len(), None),
        // Of a tripped breaker of which nothing is traced: something is on it.
        TroubleAt::Breaker(breaker) => (on_it(breaker).unwrap_or(points.len()), breaker_no(breaker)),
    };
    let stands_for = reported == points.len();
    if stands_for {
        points.push(None);
    }
    let known: Vec<Option<&Point>> = points.iter().map(|id| home.house().point(id.as_ref()?)).collect();
    let room_of = |point: Option<&Point>| point.and_then(|p| rooms.iter().position(|r| *r == p.room)).unwrap_or(0);

    // Rooms, and one more place a panel, for a panel may stand anywhere.
    let (count, first_panel) = (rooms.len().max(1), rooms.len().max(1));
    let places = count + panels.len().max(1);
    let mut walk_s = vec![vec![GUESSED_S; places]; places];
    let ways = walking(home);
    for (a, row) in ways.between.iter().enumerate() {
        for (b, way) in row.iter().enumerate() {
            walk_s[a][b] = way.seconds;
        }
    }
    for (n, panel) in panels.iter().enumerate() {
        let from = panel.as_ref().and_then(|id| ways.from_panel.get(id));
        for (room, way) in from.into_iter().flatten().enumerate() {
            walk_s[first_panel + n][room] = way.seconds;
            walk_s[room][first_panel + n] = way.seconds;
        }
    }
    (0..places).for_each(|n| walk_s[n][n] = 0.0);

    let case_points: Vec<TripPoint> = known
        .iter()
        .map(|point| TripPoint {
            room: room_of(*point),
            takes: point.map_or(Takes::Receptacle, takes),
            ring: point.map_or(0, |p| ring(home, p)),
            gfci: point.is_some_and(|p| p.details.gfci),
            has_outlet: point.is_some_and(|p| p.kind == PointKind::Appliance && p.configuration.is_some()),
            blind: point.is_none_or(|p| !can_be_seen(p.kind)),
        })
        .collect();
    let case_breakers = case_breakers(home, &breakers, &panels);
    let case_panels: Vec<TripPanel> = panels
        .iter()
        .enumerate()
        .map(|(n, id)| TripPanel {
            room: first_panel + n,
            feeder: id.as_ref().and_then(|id| home.panels().panel(id)?.details.fed_by.as_ref()).and_then(&breaker_no),
        })
        .collect();
    let (case_loads, loads) = case_loads(home, &points, reported);
    let (switches, switch_ids) = switches(home, &points, &known, &case_points, reported, room_of(known[reported]));
    let load_no = |id: &LoadId| loads.iter().position(|l| l.as_ref() == Some(id));
    let mut map = maps(home, &points, &breakers);
    if let Some(tripped) = tripped.filter(|_| stands_for) {
        map[reported] = PointMap { breakers: vec![(tripped, 1.0)], elsewhere: 0.0 };
    }
    let orders = orders(home, &points, &map, reported);
    let protects = &home.plan().protects;
    let gfci_feeds = protects
        .iter()
        .filter_map(|(gfci, feeds)| Some((number(gfci, &points)?, feeds)))
        .map(|(gfci, feeds)| (gfci, feeds.iter().filter_map(|p| number(p, &points)).collect()))
        .collect();
    let case = TripCase {
        ring_n: vec![RING; places],
        points: case_points,
        breakers: if case_breakers.is_empty() { vec![ANY_BREAKER] } else { case_breakers },
        panels: if case_panels.is_empty() { vec![TripPanel { room: first_panel, feeder: None }] } else { case_panels },
        switches,
        loads: case_loads,
        shared_neutrals: pairs(home, &breakers),
        map,
        orders,
        gfci_feeds,
        has_meter: true,
        report: Report {
            point: reported,
            symptom: told.symptom,
            also: told.also.iter().filter_map(|a| Some((number(&a.point, &points)?, a.symptom))).collect(),
            lit: told.works.iter().filter_map(|p| number(p, &points)).filter(|p| *p != reported).collect(),
            extent: told.extent,
            onset: told.onset,
            just_switched: told.last_on.as_ref().and_then(&load_no),
            running: told.running.iter().filter_map(&load_no).collect(),
            tripped_handle: tripped,
        },
        start_room: room_of(known[reported]),
        seed: trouble.id.as_str().bytes().fold(0xcbf2_9ce4_8422_2325, |h, b| (h ^ u64::from(b)).wrapping_mul(0x100_0000_01b3)),
        walk_s,
    };
    AtHome {
        case,
        points,
        breakers: if breakers.is_empty() { vec![None] } else { breakers },
        panels: if panels.is_empty() { vec![None] } else { panels },
        loads,
        switches: switch_ids,
    }
}

/// Where nothing is entered: one breaker, whatever it is.
const ANY_BREAKER: TripBreaker =
    TripBreaker { amps: 20.0, has: BreakerHas::Standard, legs: (true, false), panel: 0, feeder: false };
/// So many places are counted around a room.
const RING: usize = 24;

const fn can_be_seen(kind: PointKind) -> bool {
    !matches!(kind, PointKind::Switch | PointKind::JunctionBox | PointKind::CappedCable)
}

fn takes(point: &Point) -> Takes {
    let on_both = point.volts == Volts::new(240);
    match point.kind {
        _ if on_both => Takes::Appliance240,
        PointKind::Receptacle | PointKind::CappedCable | PointKind::JunctionBox => Takes::Receptacle,
        PointKind::Light => Takes::Light,
        PointKind::Switch | PointKind::Appliance | PointKind::Alarm | PointKind::Fan => Takes::Appliance,
    }
}

/// The place along the walls: by the direction from the middle of the room; where nothing is drawn, by the order of entry.
fn ring(home: &Study, point: &Point) -> usize {
    let drawn = home.plan();
    if let (Some(outline), Some(standing)) = (drawn.outlines.get(&point.room), drawn.points.get(&point.id)) {
        let bounds = outline.bounds();
        let at: Spot = bounds.corner().plus(*standing);
        let middle = outline.middle();
        let angle = f64::from(at.y - middle.y).atan2(f64::from(at.x - middle.x));
        return ((angle / std::f64::consts::TAU + 0.5) * RING as f64) as usize % RING;
    }
    home.house().points().filter(|p| p.room == point.room).position(|p| p.id == point.id).unwrap_or(0) * 2 % RING
}

fn case_breakers(home: &Study, ids: &[Option<BreakerId>], panels: &[Option<PanelId>]) -> Vec<TripBreaker> {
    let one = |id: &Option<BreakerId>| {
        let breaker = home.panels().breaker(id.as_ref()?)?;
        let panel = home.panels().panel(&breaker.panel)?;
        let legs = legs_of(panel, &breaker.at);
        let on = |leg: Leg| legs.contains(&leg);
        Some(TripBreaker {
            amps: breaker.amps.value().max(1.0),
            has: match breaker.protection {
                Protection::Standard => BreakerHas::Standard,
                Protection::Gfci => BreakerHas::Gfci,
                Protection::Afci => BreakerHas::Afci,
                Protection::DualFunction => BreakerHas::Dual,
            },
            // Of three legs the third goes with neither: where the neutral is lost it moves with the second.
            legs: (on(Leg::A), on(Leg::B) || on(Leg::C)),
            panel: panels.iter().position(|p| p.as_ref() == Some(&breaker.panel)).unwrap_or(0),
            feeder: home.panels().panels_on(&breaker.id).next().is_some(),
        })
    };
    ids.iter().map(|id| one(id).unwrap_or(ANY_BREAKER)).collect()
}

fn case_loads(home: &Study, points: &[Option<PointId>], reported: PointNo) -> (Vec<TripLoad>, Vec<Option<LoadId>>) {
    let (mut loads, mut ids) = (Vec::new(), Vec::new());
    for load in home.loads().all() {
        let Some(point) = points.iter().position(|p| p.as_ref() == Some(&load.point)) else { continue };
        let line = drawn(home, load).line;
        let heats = load.like().is_some_and(|like| like.does == LoadDoes::Heat && like.volts == 120);
        loads.push(TripLoad {
            point,
            watts: line.watts * f64::from(line.count),
            in_use: line.hours_a_day.map_or(0.3, |hours| (hours / 24.0).clamp(0.02, 1.0)),
            motor: line.motor,
            // What heats and what turns has a cut-out that is pushed in again, often enough. Common practice, no source.
            cutout: heats || line.motor,
            cord: !line.fastened,
        });
        ids.push(Some(load.id.clone()));
    }
    let at_it = |p: PointNo| points[p].as_ref().and_then(|id| home.house().point(id));
    let plain = at_it(reported).is_some_and(|p| matches!(p.kind, PointKind::Receptacle | PointKind::Appliance | PointKind::Fan));
    if plain && loads.iter().all(|l| l.point != reported) {
        let is_outlet = at_it(reported).is_some_and(|p| p.kind == PointKind::Receptacle);
        loads.push(TripLoad {
            point: reported,
            watts: SOMETHING_WATTS,
            in_use: 0.4,
            motor: false,
            cutout: !is_outlet,
            cord: true,
        });
        ids.push(None);
    }
    (loads, ids)
}

/// Switches that are known, and where none is known the one that the reported light or fan must have.
fn switches(
    home: &Study,
    points: &[Option<PointId>],
    known: &[Option<&Point>],
    of: &[TripPoint],
    reported: PointNo,
    room: usize,
) -> (Vec<TripSwitch>, Vec<Option<PointId>>) {
    let number = |id: &PointId| points.iter().position(|p| p.as_ref() == Some(id));
    let (mut switches, mut ids) = (Vec::new(), Vec::new());
    let by = |p: PointNo| known[p].and_then(|p| p.details.goes_by);
    for (switch, controls) in &home.plan().controls {
        let controls: Vec<PointNo> = controls.iter().filter_map(&number).collect();
        let Some(at) = number(switch).filter(|_| !controls.is_empty()) else { continue };
        let kind = match controls.iter().find_map(|p| by(*p)) {
            Some(GoesBy::Timer) => SwitchKind::Timer,
            Some(GoesBy::LightSensor) => SwitchKind::Photocell,
            Some(GoesBy::MotionSensor) => SwitchKind::Motion,
            _ if controls.iter().all(|p| of[*p].takes == Takes::Receptacle) => SwitchKind::Half,
            Some(GoesBy::TwoSwitches) => SwitchKind::Threeway,
            _ => SwitchKind::Single,
        };
        switches.push(TripSwitch { room: of[at].room, kind, points: controls });
        ids.push(points[at].clone());
    }
    let is_switched = known[reported].is_some_and(|p| matches!(p.kind, PointKind::Light | PointKind::Fan));
    if is_switched && switches.iter().all(|s: &TripSwitch| !s.points.contains(&reported)) {
        let kind = match by(reported) {
            Some(GoesBy::Timer) => SwitchKind::Timer,
            Some(GoesBy::LightSensor) => SwitchKind::Photocell,
            Some(GoesBy::MotionSensor) => SwitchKind::Motion,
            _ => SwitchKind::Single,
        };
        switches.push(TripSwitch { room, kind, points: vec![reported] });
        ids.push(None);
    }
    (switches, ids)
}

/// Which breakers may feed each point: what is proven, what is believed, any.
fn maps(home: &Study, points: &[Option<PointId>], breakers: &[Option<BreakerId>]) -> Vec<PointMap> {
    let number = |id: &BreakerId| breakers.iter().position(|b| b.as_ref() == Some(id));
    let mut proven: BTreeMap<&PointId, &BreakerId> = BTreeMap::new();
    for (point, verdict) in verdicts(home) {
        if let Some(breaker) = verdict.proven_on() {
            proven.insert(point, breaker);
        }
    }
    let believed = believed(home);
    let any = |elsewhere: f64| PointMap { breakers: Vec::new(), elsewhere };
    points
        .iter()
        .map(|point| {
            let Some(point) = point else { return any(1.0) };
            if let Some(b) = proven.get(point).and_then(|b| number(b)) {
                return PointMap { breakers: vec![(b, 0.995)], elsewhere: 0.005 };
            }
            let Some(row) = believed.get(point) else { return any(1.0) };
            let mut named: Vec<(BreakerNo, f64)> = row
                .iter()
                .filter(|(_, p)| *p >= 0.02)
                .filter_map(|(b, p)| Some((number(b)?, *p)))
                .filter(|(b, _)| breakers[*b].as_ref().is_some_and(|b| home.panels().panels_on(b).next().is_none()))
                .collect();
            named.sort_by(|a, b| b.1.total_cmp(&a.1));
            named.truncate(8);
            let sum: f64 = named.iter().map(|(_, p)| p).sum();
            let likely = named.first().is_some_and(|(_, p)| *p >= 0.6);
            PointMap { breakers: named, elsewhere: (1.0 - sum).max(if likely { 0.02 } else { 0.05 }) }
        })
        .collect()
}

/// The order of the reported point's circuit, where somebody told it from the panel to the point.
fn orders(home: &Study, points: &[Option<PointId>], map: &[PointMap], reported: PointNo) -> BTreeMap<BreakerNo, Order> {
    let number = |id: &PointId| points.iter().position(|p| p.as_ref() == Some(id));
    let fed = |p: PointNo| points[p].as_ref().and_then(|id| home.troubles().fed_from(id));
    let reaches = |p: PointNo| {
        let (mut at, mut steps) = (p, 0);
        loop {
            match fed(at) {
                Some(FedFrom::Panel) => return true,
                Some(FedFrom::Point(before)) if steps < points.len() => match number(before) {
                    Some(next) => at = next,
                    None => return false,
                },
                _ => return false,
            }
            steps += 1;
        }
    };
    let Some((breaker, _)) = map[reported].breakers.first().filter(|(_, p)| *p >= 0.9) else { return BTreeMap::new() };
    if !reaches(reported) {
        return BTreeMap::new();
    }
    let of_it = (0..points.len()).filter(|p| map[*p].breakers.first().is_some_and(|(b, _)| b == breaker));
    let order: Order = of_it
        .filter(|p| reaches(*p))
        .map(|p| {
            let before = match fed(p) {
                Some(FedFrom::Point(before)) => number(before),
                _ => None,
            };
            (p, before)
        })
        .collect();
    BTreeMap::from([(*breaker, order)])
}

fn pairs(home: &Study, breakers: &[Option<BreakerId>]) -> Vec<(BreakerNo, BreakerNo)> {
    let number = |id: &BreakerId| breakers.iter().position(|b| b.as_ref() == Some(id));
    let mut pairs = Vec::new();
    for group in home.panels().shared_neutrals() {
        let group: Vec<BreakerNo> = group.iter().filter_map(number).collect();
        for (n, a) in group.iter().enumerate() {
            pairs.extend(group[n + 1..].iter().map(|b| (*a, *b)));
        }
    }
    pairs
}

impl AtHome {
    fn point(&self, id: &PointId) -> Option<PointNo> {
        self.points.iter().position(|p| p.as_ref() == Some(id))
    }
    fn breaker(&self, id: &BreakerId) -> Option<BreakerNo> {
        self.breakers.iter().position(|b| b.as_ref() == Some(id))
    }

    /// A look of the logbook as one of numbers; `None` where it is at something that is there no more.
    pub(super) fn look(&self, look: &TroubleLook) -> Option<Look> {
        let load = |id: &LoadId| self.loads.iter().position(|l| l.as_ref() == Some(id));
        Some(match look {
            TroubleLook::Safety => Look::Safety,
            TroubleLook::Point { point } => Look::Point(self.point(point)?),
            TroubleLook::Volts { point } => Look::Meter(self.point(point)?),
            TroubleLook::Outlet { point } => Look::Outlet(self.point(point)?),
            TroubleLook::Handles { panel } => Look::Handles(self.panels.iter().position(|p| p.as_ref() == Some(panel))?),
            TroubleLook::Feel { breaker } => Look::Feel(self.breaker(breaker)?),
            TroubleLook::Indicator { breaker } => Look::Indicator(self.breaker(breaker)?),
            TroubleLook::Gfci { point } => Look::Gfci(self.point(point)?),
            TroubleLook::Switch { switch, point } => Look::Toggle(self.switch_of(switch.as_ref(), point)?),
            TroubleLook::Control { point } => Look::Control(self.switch_of(None, point)?),
            TroubleLook::Lamp { point } => Look::Lamp(self.point(point)?),
            TroubleLook::Elsewhere { point } => Look::Elsewhere(self.point(point)?),
            TroubleLook::Cutout { point } => Look::Cutout(self.point(point)?),
            TroubleLook::Cord { load: id } => Look::Inspect(load(id)?),
            TroubleLook::Reset { breaker } => Look::Reset(self.breaker(breaker)?),
            TroubleLook::Add { load: id } => Look::Add(load(id)?),
            TroubleLook::Neighbors => Look::Neighbors,
        })
    }

    fn switch_of(&self, switch: Option<&PointId>, point: &PointId) -> Option<usize> {
        let point = self.point(point)?;
        (0..self.switches.len()).find(|s| {
            self.case.switches[*s].points.contains(&point) && (switch.is_none() || self.switches[*s].as_ref() == switch)
        })
    }

    /// A look of numbers as one of the logbook; `None` where nothing of the home stands behind it.
    pub(super) fn as_told(&self, look: Look) -> Option<TroubleLook> {
        let point = |p: PointNo| self.points.get(p).cloned().flatten();
        let breaker = |b: BreakerNo| self.breakers.get(b).cloned().flatten();
        let of_switch = |s: usize| self.case.switches[s].points.iter().find(|p| **p == self.case.report.point).copied();
        Some(match look {
            Look::Safety => TroubleLook::Safety,
            Look::Neighbors => TroubleLook::Neighbors,
            Look::Point(p) => TroubleLook::Point { point: point(p)? },
            Look::Meter(p) => TroubleLook::Volts { point: point(p)? },
            Look::Outlet(p) => TroubleLook::Outlet { point: point(p)? },
            Look::Handles(n) => TroubleLook::Handles { panel: self.panels.get(n).cloned().flatten()? },
            Look::Feel(b) => TroubleLook::Feel { breaker: breaker(b)? },
            Look::Indicator(b) => TroubleLook::Indicator { breaker: breaker(b)? },
            Look::Gfci(p) => TroubleLook::Gfci { point: point(p)? },
            Look::Toggle(s) => TroubleLook::Switch { switch: self.switches[s].clone(), point: point(of_switch(s)?)? },
            Look::Control(s) => TroubleLook::Control { point: point(of_switch(s)?)? },
            Look::Lamp(p) => TroubleLook::Lamp { point: point(p)? },
            Look::Elsewhere(p) => TroubleLook::Elsewhere { point: point(p)? },
            Look::Cutout(p) => TroubleLook::Cutout { point: point(p)? },
            Look::Inspect(l) => TroubleLook::Cord { load: self.loads.get(l).cloned().flatten()? },
            Look::Add(l) => TroubleLook::Add { load: self.loads.get(l).cloned().flatten()? },
            Look::Reset(b) => TroubleLook::Reset { breaker: breaker(b)? },
        })
    }

    /// What a look showed, in numbers.
    pub(super) fn saw(&self, look: Look, saw: &TroubleSaw) -> Option<Saw> {
        Some(match saw {
            TroubleSaw::Danger(_) => Saw::Danger,
            TroubleSaw::CannotTell => Saw::CannotTell,
            TroubleSaw::Volts(volts) => by_volts(*volts),
            TroubleSaw::Tripped(b) => Saw::Tripped(self.breaker(b)?),
            TroubleSaw::Off(b) => Saw::Off(self.breaker(b)?),
            TroubleSaw::Word(word) => Saw::read(look, word)?,
        })
    }
}
