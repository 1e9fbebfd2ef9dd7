//! The files of made-up houses and faults: one JSON object a line. What only the referee may see stays in [`Hidden`] and the answers.

use std::collections::BTreeMap;

use serde::Deserialize;

use super::case::{
    BreakerHas, BreakerNo, Extent, Onset, Order, PointMap, PointNo, Report, SwitchKind, Symptom, Takes, TripBreaker, TripCase,
    TripLoad, TripPanel, TripPoint, TripSwitch,
};
use super::cause::Cause;

/// A made-up house.
#[derive(Debug, Clone, Deserialize)]
pub(super) struct TripHouse {
    format: String,
    version: u16,
    /// Its name.
    pub id: String,
    walk_s: Vec<Vec<f64>>,
    ring_n: Vec<usize>,
    panels: Vec<FilePanel>,
    breakers: Vec<FileBreaker>,
    points: Vec<FilePoint>,
    switches: Vec<FileSwitch>,
    loads: Vec<FileLoad>,
    shared_neutrals: Vec<(BreakerNo, BreakerNo)>,
    wiring: BTreeMap<BreakerNo, BTreeMap<PointNo, i64>>,
}

#[derive(Debug, Clone, Deserialize)]
struct FilePanel {
    room: usize,
    feeder: Option<BreakerNo>,
}

#[derive(Debug, Clone, Deserialize)]
struct FileBreaker {
    amps: f64,
    kind: BreakerHas,
    legs: String,
    panel: usize,
    role: String,
}

#[derive(Debug, Clone, Deserialize)]
struct FilePoint {
    room: usize,
    kind: Takes,
    #[serde(default)]
    name: String,
    ring: usize,
    gfci: bool,
}

#[derive(Debug, Clone, Deserialize)]
struct FileSwitch {
    room: usize,
    kind: SwitchKind,
    points: Vec<PointNo>,
}

#[derive(Debug, Clone, Deserialize)]
struct FileLoad {
    point: PointNo,
    name: String,
    watts: f64,
    #[serde(rename = "use")]
    in_use: f64,
}

/// A fault in one of the houses.
#[derive(Debug, Clone, Deserialize)]
pub struct FaultCase {
    format: String,
    version: u16,
    /// Its name.
    pub id: String,
    seed: u64,
    house: String,
    extra_loads: Vec<FileLoad>,
    map: Vec<FileMap>,
    order_known: Vec<BreakerNo>,
    report: FileReport,
    start_room: usize,
    /// What each look shows, by its kind and number.
    pub(super) answers: BTreeMap<String, Answered>,
    /// What changes once a reset or a press was made.
    pub(super) after: BTreeMap<String, BTreeMap<String, String>>,
    /// What is the matter.
    pub(super) hidden: Hidden,
}

/// The answers of one kind of look: by number, or the one for the house.
#[derive(Debug, Clone, Deserialize)]
#[serde(untagged)]
pub(super) enum Answered {
    /// By number.
    Each(BTreeMap<String, String>),
    /// For the house.
    One(String),
}

#[derive(Debug, Clone, Deserialize)]
struct FileMap {
    status: String,
    breakers: Vec<(BreakerNo, f64)>,
}

#[derive(Debug, Clone, Deserialize)]
struct FileReport {
    point: PointNo,
    symptom: Symptom,
    also: Vec<FileAlso>,
    lit: Vec<PointNo>,
    extent: Extent,
    onset: Onset,
    just_switched: Option<usize>,
    running: Vec<usize>,
    tripped_handle: Option<BreakerNo>,
}

#[derive(Debug, Clone, Deserialize)]
struct FileAlso {
    point: PointNo,
    symptom: Symptom,
}

/// What is the matter, which only the referee sees.
#[derive(Debug, Clone, Deserialize)]
pub(super) struct Hidden {
    /// The cause.
    pub(super) cause: Cause,
    /// Its breaker; below zero: none.
    breaker: i64,
    /// Where: a load, a switch, a point; for a joint the two points on its sides, the first below zero for the panel.
    #[serde(default)]
    place: Option<FilePlace>,
    /// The box that holds the bad joint.
    #[serde(default)]
    bad_box: Option<FileBox>,
    /// A sign of danger.
    pub(super) danger: Option<Danger>,
    /// Volts out of bounds, or a sign of danger.
    pub(super) emergency: bool,
}

#[derive(Debug, Clone, Deserialize)]
#[serde(untagged)]
enum FilePlace {
    One(usize),
    Joint(#[allow(dead_code, reason = "the lit side of the joint")] i64, usize),
}

#[derive(Debug, Clone, Deserialize)]
#[serde(untagged)]
enum FileBox {
    Point(PointNo),
    Named(#[allow(dead_code, reason = "`panel`")] String),
}

/// A smell, heat, a buzz, water or a shock.
#[derive(Debug, Clone, Deserialize)]
pub(super) struct Danger {
    /// In which room.
    pub(super) room: usize,
    /// It is told when asked.
    pub(super) told: bool,
    /// Whoever comes into the room notices it.
    pub(super) seen: bool,
}

/// A box along the road of the power.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum PowerBox {
    /// The panel: the breaker and its terminals.
    Panel,
    /// The box of a point.
    Point(PointNo),
}

impl Hidden {
    /// Its breaker.
    pub(super) fn breaker(&self) -> Option<BreakerNo> {
        usize::try_from(self.breaker).ok()
    }
    /// Its place: a load, a switch, a point, the point after the joint.
    pub(super) fn place(&self) -> Option<usize> {
        match self.place {
            Some(FilePlace::One(place) | FilePlace::Joint(_, place)) => Some(place),
            None => None,
        }
    }
    /// The box in which it is found.
    pub(super) fn bad_box(&self) -> Option<PowerBox> {
        match (&self.bad_box, self.cause) {
            (Some(FileBox::Point(point)), _) => Some(PowerBox::Point(*point)),
            (Some(FileBox::Named(_)), _) | (None, Cause::BreakerFailed) => Some(PowerBox::Panel),
            (None, Cause::GfciDead) => self.place().map(PowerBox::Point),
            (None, _) => None,
        }
    }
}

/// Why a line is none of them.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum FaultFileError {
    /// No JSON of that shape.
    #[error("line {line} is no {what}: {error}")]
    Shape {
        /// Which line, from 1.
        line: usize,
        /// What it should be.
        what: &'static str,
        /// Why.
        error: serde_json::Error,
    },
    /// Its numbers do not fit together.
    #[error("the {what} on line {line} does not fit together: {why}")]
    Odd {
        /// Which line, from 1.
        line: usize,
        /// What it should be.
        what: &'static str,
        /// Why.
        why: &'static str,
    },
}

/// A house with a fault: what is believed of it and was reported, and what only the referee knows.
#[derive(Debug, Clone)]
pub struct FaultGame {
    /// The fault.
    pub fault: FaultCase,
    /// What is known.
    pub case: TripCase,
}

/// Loads that run by a motor.
const MOTORS: [&str; 14] = [
    "fridge",
    "freezer",
    "vacuum",
    "power tool",
    "disposer",
    "sump",
    "air conditioner",
    "washer",
    "door",
    "furnace",
    "dishwasher",
    "range hood",
    "dryer",
    "hair dryer",
];
/// Loads with a cut-out of their own.
const CUTOUTS: [&str; 5] = ["furnace", "water heater", "space heater", "disposer", "hair dryer"];
/// Appliances that hang on an outlet.
const ON_AN_OUTLET: [&str; 7] = ["dishwasher", "disposer", "fridge", "microwave", "door", "washer", "sump"];

impl FaultGame {
    /// Reads a file of houses and one of faults in them.
    pub fn read_all(houses: &str, faults: &str) -> Result<Vec<Self>, FaultFileError> {
        const HOUSE: &str = "made-up house";
        const FAULT: &str = "fault in a made-up house";
        let mut known: BTreeMap<String, TripHouse> = BTreeMap::new();
        for (line, text) in lines(houses) {
            let house: TripHouse =
                serde_json::from_str(text).map_err(|error| FaultFileError::Shape { line, what: HOUSE, error })?;
            if let Some(why) = house.fault() {
                return Err(FaultFileError::Odd { line, what: HOUSE, why });
            }
            known.insert(house.id.clone(), house);
        }
        lines(faults)
            .map(|(line, text)| {
                let fault: FaultCase =
                    serde_json::from_str(text).map_err(|error| FaultFileError::Shape { line, what: FAULT, error })?;
                let house = known.get(&fault.house).ok_or(FaultFileError::Odd {
                    line,
                    what: FAULT,
                    why: "its house is not in the file of houses",
                })?;
                if let Some(why) = fault.fault(house) {
                    return Err(FaultFileError::Odd { line, what: FAULT, why });
                }
                Ok(Self { case: fault.case(house), fault })
            })
            .collect()
    }
}

fn lines(text: &str) -> impl Iterator<Item = (usize, &str)> {
    text.lines().enumerate().filter(|(_, line)| !line.trim().is_empty()).map(|(n, line)| (n + 1, line))
}

impl TripHouse {
    fn fault(&self) -> Option<&'static str> {
        let (rooms, points, breakers, panels) = (self.walk_s.len(), self.points.len(), self.breakers.len(), self.panels.len());
        let checks = [
            (self.format == "wayfinder-trip-house" && self.version == 1, "its format or version is another"),
            (rooms > 0 && self.walk_s.iter().all(|row| row.len() == rooms), "walk_s is not square"),
            (self.walk_s.iter().flatten().all(|s| s.is_finite() && *s >= 0.0), "a walk takes no time that can be"),
            (self.ring_n.len() == rooms, "ring_n is of another length"),
            (panels > 0 && self.panels.iter().all(|p| p.room < rooms), "a panel is in no room"),
            (self.panels.iter().filter_map(|p| p.feeder).all(|b| b < breakers), "a panel is fed by no breaker"),
            (breakers > 0 && self.breakers.iter().all(|b| b.panel < panels), "a breaker is in no panel"),
            (self.breakers.iter().all(|b| b.amps.is_finite() && b.amps > 0.0), "a breaker has no rating"),
            (self.points.iter().all(|p| p.room < rooms), "a point is in no room"),
            (self.switches.iter().all(|s| s.room < rooms && s.points.iter().all(|p| *p < points)), "a switch is nowhere"),
            (self.loads.iter().all(|l| l.fits(points)), "a load does not fit"),
            (self.shared_neutrals.iter().all(|(a, b)| *a < breakers && *b < breakers), "a shared neutral is of no breaker"),
            (self.wiring.iter().all(|(b, order)| *b < breakers && is_tree(order, points)), "its wiring is no tree"),
        ];
        checks.into_iter().find(|(holds, _)| !holds).map(|(_, why)| why)
    }
}

/// Every point comes from the panel, over points that come from it, too.
fn is_tree(order: &BTreeMap<PointNo, i64>, points: usize) -> bool {
    order.keys().all(|point| {
        let mut at = *point as i64;
        for _ in 0..=order.len() {
            match usize::try_from(at) {
                Err(_) => return true,
                Ok(now) if now < points => match order.get(&now) {
                    Some(before) => at = *before,
                    None => return false,
                },
                Ok(_) => return false,
            }
        }
        false
    })
}

impl FileLoad {
    fn fits(&self, points: usize) -> bool {
        self.point < points && self.watts.is_finite() && self.watts >= 0.0 && (0.0..=1.0).contains(&self.in_use)
    }
}

impl FaultCase {
    fn fault(&self, house: &TripHouse) -> Option<&'static str> {
        let (points, breakers) = (house.points.len(), house.breakers.len());
        let loads = house.loads.len() + self.extra_loads.len();
        let report = &self.report;
        let seen = report.also.iter().map(|a| a.point).chain(report.lit.iter().copied()).chain([report.point]);
        let checks = [
            (self.format == "wayfinder-fault-case" && self.version == 1, "its format or version is another"),
            (self.extra_loads.iter().all(|l| l.fits(points)), "a load does not fit"),
            (self.map.len() == points, "its map is of another length"),
            (
                self.map.iter().flat_map(|m| &m.breakers).all(|(b, p)| *b < breakers && (0.0..=1.0).contains(p)),
                "its map names no breaker",
            ),
            (self.map.iter().all(|m| !m.breakers.is_empty()), "a point of its map has no breaker"),
            (self.order_known.iter().all(|b| house.wiring.contains_key(b)), "an order is known of no circuit"),
            (seen.into_iter().all(|p| p < points), "its report names no point"),
            (report.running.iter().chain(&report.just_switched).all(|l| *l < loads), "its report names no load"),
            (report.tripped_handle.is_none_or(|b| b < breakers), "its report names no breaker"),
            (self.start_room < house.walk_s.len(), "it starts in no room"),
        ];
        checks.into_iter().find(|(holds, _)| !holds).map(|(_, why)| why)
    }

    fn case(&self, house: &TripHouse) -> TripCase {
        let point = |p: &FilePoint| TripPoint {
            room: p.room,
            takes: p.kind,
            ring: p.ring,
            gfci: p.gfci,
            has_outlet: p.kind == Takes::Appliance && ON_AN_OUTLET.contains(&p.name.as_str()),
            blind: false,
        };
        let points: Vec<TripPoint> = house.points.iter().map(point).collect();
        let load = |l: &FileLoad| TripLoad {
            point: l.point,
            watts: l.watts,
            in_use: l.in_use,
            motor: MOTORS.contains(&l.name.as_str()),
            cutout: CUTOUTS.contains(&l.name.as_str()),
            cord: points[l.point].takes == Takes::Receptacle || points[l.point].has_outlet,
        };
        let breaker = |b: &FileBreaker| TripBreaker {
            amps: b.amps,
            has: b.kind,
            legs: (b.legs.contains('A'), b.legs.contains('B')),
            panel: b.panel,
            feeder: b.role == "feeder",
        };
        let map = |m: &FileMap| PointMap {
            breakers: m.breakers.clone(),
            elsewhere: match m.status.as_str() {
                "proven" => 0.005,
                "likely" => 0.02,
                _ => 0.05,
            },
        };
        let order = |b: &BreakerNo| -> (BreakerNo, Order) {
            (*b, house.wiring[b].iter().map(|(point, before)| (*point, usize::try_from(*before).ok())).collect())
        };
        let report = &self.report;
        TripCase {
            walk_s: house.walk_s.clone(),
            ring_n: house.ring_n.clone(),
            breakers: house.breakers.iter().map(breaker).collect(),
            panels: house.panels.iter().map(|p| TripPanel { room: p.room, feeder: p.feeder }).collect(),
            switches: house
                .switches
                .iter()
                .map(|s| TripSwitch { room: s.room, kind: s.kind, points: s.points.clone() })
                .collect(),
            loads: house.loads.iter().chain(&self.extra_loads).map(load).collect(),
            shared_neutrals: house.shared_neutrals.clone(),
            map: self.map.iter().map(map).collect(),
            orders: self.order_known.iter().map(order).collect(),
            gfci_feeds: BTreeMap::new(),
            has_meter: true,
            report: Report {
                point: report.point,
                symptom: report.symptom,
                also: report.also.iter().map(|a| (a.point, a.symptom)).collect(),
                lit: report.lit.clone(),
                extent: Some(report.extent),
                onset: report.onset,
                just_switched: report.just_switched,
                running: report.running.clone(),
                tripped_handle: report.tripped_handle,
            },
            start_room: self.start_room,
            seed: self.seed,
            points,
        }
    }
}
