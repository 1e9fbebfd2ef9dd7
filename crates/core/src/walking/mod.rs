//! Ways through the house: from room to room over doors and stairs, and how long a cable between two places may be.
//!
//! A way goes straight from opening to opening inside each room, around inward corners where it must. A room that is
//! drawn without any door is taken to open on the neighbor with which it shares the longest wall; what is not
//! connected at all is guessed, and says so.

mod floors;

use std::collections::BTreeMap;

use petgraph::algo::dijkstra;
use petgraph::graph::{NodeIndex, UnGraph};

use crate::logbook::Home;
use crate::model::{Length, Outline, PanelId, PointId, RoomId, Spot, spot_on};
use crate::study::Study;
pub(crate) use floors::{floor_of, floors, level};

/// Walking speed in millimeters a second: 1.2 m/s along the plan. A setting of the trade's experience, no source.
const SPEED: f64 = 1200.0;
/// Seconds for a flight of stairs, beside the way to it and from it. The same.
const FLIGHT_S: f64 = 6.0;
/// How far a flight is counted as, so that the shortest way weighs stairs against doors.
const FLIGHT: f64 = FLIGHT_S * SPEED;
/// How far apart rooms are taken to be where nothing is drawn: two rooms' worth of walking.
const GUESSED: f64 = 8_000.0;

/// A way between two rooms.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Walk {
    /// Along the floor, in millimeters; a flight of stairs counts as what one walks in 6 s.
    pub millimeters: f64,
    /// At 1.2 m/s.
    pub seconds: f64,
    /// Along doors and stairs that are drawn; otherwise a guess.
    pub drawn: bool,
}

impl Walk {
    fn new(millimeters: f64, drawn: bool) -> Self {
        Self { millimeters, seconds: millimeters / SPEED, drawn }
    }
}

/// Every room to every other, and to every panel.
#[derive(Debug, Clone, PartialEq)]
pub struct Walking {
    /// In the order of the home's rooms.
    pub rooms: Vec<RoomId>,
    /// From room to room, from middle to middle; by the order of `rooms`.
    pub between: Vec<Vec<Walk>>,
    /// From each panel to the middle of each room.
    pub from_panel: BTreeMap<PanelId, Vec<Walk>>,
}

struct Net<'a> {
    graph: UnGraph<(), f64>,
    /// The nodes in each drawn room, with their places.
    inside: BTreeMap<&'a RoomId, Vec<(NodeIndex, Spot)>>,
}

impl<'a> Net<'a> {
    /// A node in a room.
    fn node(&mut self, room: &'a RoomId, at: Spot) -> NodeIndex {
        let node = self.graph.add_node(());
        self.inside.entry(room).or_default().push((node, at));
        node
    }
}

/// The ways through the house.
pub fn walking(home: &Study) -> &Walking {
    home.once(|| work_out(home))
}

fn work_out(home: &Home) -> Walking {
    let drawn = home.plan();
    let rooms: Vec<RoomId> = home.house().rooms().map(|room| room.id.clone()).collect();
    let outlines: Vec<(&RoomId, &Outline, &str)> = home
        .house()
        .rooms()
        .filter_map(|room| drawn.outlines.get(&room.id).map(|outline| (&room.id, outline, floor_of(room))))
        .collect();
    let mut net = Net { graph: UnGraph::new_undirected(), inside: BTreeMap::new() };
    let middles: BTreeMap<&RoomId, NodeIndex> =
        outlines.iter().map(|(room, outline, _)| (*room, net.node(room, outline.middle()))).collect();
    for (room, outline, _) in &outlines {
        for corner in outline.inward_corners() {
            net.node(room, corner);
        }
    }
    let mut open: Vec<&RoomId> = Vec::new();
    for opening in drawn.openings.values().filter(|o| o.kind.is_way()) {
        let Some((room, outline, floor)) = outlines.iter().find(|(room, _, _)| **room == opening.room) else { continue };
        let Some(stretch) = opening.stretch(outline) else { continue };
        let middle = spot_on(stretch.from, stretch.to, stretch.from.to(stretch.to) / 2.0);
        let touches = |outline: &Outline| outline.nearest_wall(middle).2 <= crate::model::TOUCHING;
        let other = outlines.iter().find(|(other, outline, f)| other != room && f == floor && touches(outline));
        if let Some((other, others, _)) = other {
            join(&mut net, (room, outline), (other, others), middle);
            open.extend([*room, *other]);
        }
    }
    for stairs in drawn.stairs.values() {
        let ends = [&stairs.lower, &stairs.upper].map(|(room, at)| {
            let (id, outline, _) = outlines.iter().find(|(id, _, _)| *id == room)?;
            Some((*id, outline.bounds().corner().plus(*at)))
        });
        if let [Some((lower, from)), Some((upper, to))] = ends {
            let (from, to) = (net.node(lower, from), net.node(upper, to));
            net.graph.add_edge(from, to, FLIGHT);
            open.extend([lower, upper]);
        }
    }
    // A room without any way opens on the neighbor with the longest wall in common.
    for (room, outline, floor) in outlines.iter().filter(|(room, _, _)| !open.contains(room)) {
        let neighbors = outlines.iter().filter(|(other, _, f)| other != room && f == floor);
        let shared = neighbors.flat_map(|other| outline.shared(other.1).into_iter().map(move |(_, a, b)| (other, a, b)));
        if let Some(((other, others, _), a, b)) = shared.max_by(|x, y| x.1.to(x.2).total_cmp(&y.1.to(y.2))) {
            let middle = spot_on(a, b, a.to(b) / 2.0);
            join(&mut net, (room, outline), (other, others), middle);
        }
    }
    let mut panels: BTreeMap<&PanelId, (NodeIndex, &RoomId)> = BTreeMap::new();
    for (panel, (room, at)) in &drawn.panels {
        if let Some((room, outline, _)) = outlines.iter().find(|(id, _, _)| *id == room)
            && let Some((spot, _)) = outline.against(outline.bounds().corner().plus(*at), f64::INFINITY)
        {
            panels.insert(panel, (net.node(room, spot), room));
        }
    }
    for (room, nodes) in &net.inside {
        let Some((_, outline, _)) = outlines.iter().find(|(id, _, _)| id == room) else { continue };
        for (n, (a, from)) in nodes.iter().enumerate() {
            for (b, to) in &nodes[n + 1..] {
                if outline.sees(*from, *to) {
                    net.graph.add_edge(*a, *b, from.to(*to));
                }
            }
        }
    }
    let level_of = |room: &RoomId| home.house().room(room).map_or(0, |room| level(home, floor_of(room)));
    let guess = |from: &RoomId, to: &RoomId| {
        let floors = f64::from((level_of(from) - level_of(to)).abs());
        let ends = (drawn.outlines.get(from), drawn.outlines.get(to));
        let flat = match ends {
            (Some(a), Some(b)) => a.middle().to(b.middle()) * 1.3,
            _ => GUESSED,
        };
        Walk::new(flat + floors * FLIGHT, false)
    };
    let from_here = |start: Option<NodeIndex>, room: &RoomId| -> Vec<Walk> {
        let ways = start.map(|node| dijkstra(&net.graph, node, None, |edge| *edge.weight()));
        let to = |other: &RoomId| {
            let there = middles.get(other)?;
            ways.as_ref()?.get(there).map(|far| Walk::new(*far, true))
        };
        rooms.iter().map(|other| to(other).unwrap_or_else(|| guess(room, other))).collect()
    };
    let between: Vec<Vec<Walk>> = rooms
        .iter()
        .enumerate()
        .map(|(n, room)| {
            let mut walks = from_here(middles.get(room).copied(), room);
            walks[n] = Walk::new(0.0, true);
            walks
        })
        .collect();
    let from_panel = home
        .panels()
        .all()
        .map(|panel| {
            let walks = match panels.get(&panel.id) {
                Some((node, room)) => from_here(Some(*node), room),
                None => rooms.iter().map(|room| Walk::new(GUESSED + f64::from(level_of(room).abs()) * FLIGHT, false)).collect(),
            };
            (panel.id.clone(), walks)
        })
        .collect();
    Walking { rooms, between, from_panel }
}

fn join<'a>(net: &mut Net<'a>, one: (&'a RoomId, &Outline), other: (&'a RoomId, &Outline), middle: Spot) {
    // The opening lies in both walls; each room has its own nearest place to it.
    let own = |outline: &Outline| {
        let (wall, along, _) = outline.nearest_wall(middle);
        let (a, b) = outline.wall(wall);
        spot_on(a, b, along)
    };
    let (here, there) = (own(one.1), own(other.1));
    let (a, b) = (net.node(one.0, here), net.node(other.0, there));
    net.graph.add_edge(a, b, here.to(there));
}

/// An estimate of the cable between a panel and a point.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct CableRun {
    /// Its length.
    pub length: Length,
}

/// Height of a story, floor to floor; a panel's top and a device's height above the floor; what is left over at the
/// ends. Common practice, no source.
const STORY: i32 = 2700;
const PANEL_TOP: i32 = 1700;
const CEILING: i32 = 2400;
const ENDS: i32 = 600;

/// How long a cable from the panel to the point may be: up to the ceiling, along the walls' directions, down again,
/// and a story for each floor between. `None` where either has no place on the plan. An estimate for sizing only: the
/// real run goes where the builder took it.
pub fn cable_run(home: &Home, panel: &PanelId, point: &PointId) -> Option<CableRun> {
    let known = home.house().point(point)?;
    let to = home.plan().corner(&known.room)?.plus(*home.plan().points.get(point)?);
    let down = match known.kind {
        crate::model::PointKind::Light | crate::model::PointKind::Fan | crate::model::PointKind::Alarm => 0,
        crate::model::PointKind::Switch => CEILING - 1200,
        _ => CEILING - 400,
    };
    run(home, panel, &known.room, to, down)
}

/// The same to the farthest corner of a room, for what is not there yet.
pub fn cable_run_into(home: &Home, panel: &PanelId, room: &RoomId) -> Option<CableRun> {
    let corners = home.plan().outlines.get(room)?.corners();
    let runs = corners.iter().filter_map(|corner| run(home, panel, room, *corner, CEILING - 400));
    runs.max_by_key(|run| run.length)
}

fn run(home: &Home, panel: &PanelId, to_room: &RoomId, to: Spot, down: i32) -> Option<CableRun> {
    let (room, at) = home.plan().panels.get(panel)?;
    let from = home.plan().corner(room)?.plus(*at);
    let level_of = |room: &RoomId| home.house().room(room).map_or(0, |room| i32::from(level(home, floor_of(room))));
    let floors = (level_of(room) - level_of(to_room)).abs();
    let flat = (from.x - to.x).abs() + (from.y - to.y).abs();
    Some(CableRun { length: Length::mm(CEILING - PANEL_TOP + flat + floors * STORY + down + ENDS) })
}
