//! One room as somebody walks it: its points in order along the walls from the door, the last look at each, and where
//! to go next.

use super::shown::PlanTag;
use super::view::{plan, reach};
use crate::model::{PointId, PointKind, RoomId, along};
use crate::study::Study;
use crate::trace::{LastSeen, last_seen, verdicts};
use crate::walking::walking;

/// A point on the way.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct WalkPoint {
    /// Which.
    pub point: PointId,
    /// Its name.
    pub name: String,
    /// What it is.
    pub kind: PointKind,
    /// 120 or 240.
    pub volts: crate::model::Volts,
    /// The last look at it.
    pub last: Option<LastSeen>,
    /// Its tag on the plan, where it is placed.
    pub tag: Option<PlanTag>,
}

/// A room one can go to from here.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct NextRoom {
    /// Which.
    pub room: RoomId,
    /// Its name.
    pub name: String,
    /// Seconds to its middle.
    pub seconds: f64,
    /// Points in it without a proven number.
    pub without_number: usize,
}

/// A room and its points in walking order.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct RoomWalk {
    /// Which.
    pub room: RoomId,
    /// Its name.
    pub name: String,
    /// Its floor.
    pub floor: String,
    /// Its points, along the walls clockwise from the door, then what hangs in the middle; points without a place
    /// on the plan come last.
    pub points: Vec<WalkPoint>,
    /// The nearest rooms first.
    pub next: Vec<NextRoom>,
}

/// Works out the walk through a room; `None` when there is no such room.
pub fn room_walk(home: &Study, id: &RoomId) -> Option<RoomWalk> {
    let room = home.house().room(id)?;
    let known = verdicts(home);
    let plan = plan(home);
    let tags: Vec<_> = plan.floors.iter().flat_map(|floor| &floor.points).collect();
    let proven = |point: &PointId| known.iter().any(|(p, v)| p == point && v.proven_on().is_some());
    let mut points: Vec<(f64, WalkPoint)> = home
        .house()
        .points()
        .filter(|p| p.room == *id)
        .map(|p| {
            let order = place_on_round(home, id, &p.id, p.kind);
            let last = last_seen(home, &p.id);
            let tag = tags.iter().find(|t| t.point == p.id).map(|t| t.tag.clone());
            (order, WalkPoint { point: p.id.clone(), name: p.name.clone(), kind: p.kind, volts: p.volts, last, tag })
        })
        .collect();
    points.sort_by(|a, b| a.0.total_cmp(&b.0));
    let ways = walking(home);
    let here = ways.rooms.iter().position(|r| r == id)?;
    let mut next: Vec<NextRoom> = home
        .house()
        .rooms()
        .enumerate()
        .filter(|(n, _)| *n != here)
        .map(|(n, other)| NextRoom {
            room: other.id.clone(),
            name: other.name.clone(),
            seconds: (ways.between[here][n].seconds * 10.0).round() / 10.0,
            without_number: home.house().points().filter(|p| p.room == other.id && !proven(&p.id)).count(),
        })
        .collect();
    next.sort_by(|a, b| a.seconds.total_cmp(&b.seconds));
    Some(RoomWalk {
        room: id.clone(),
        name: room.name.clone(),
        floor: crate::walking::floor_of(room).to_owned(),
        points: points.into_iter().map(|(_, point)| point).collect(),
        next,
    })
}

/// How far along the round from the door a point is; what hangs in the middle after all walls.
fn place_on_round(home: &Study, room: &RoomId, point: &PointId, kind: PointKind) -> f64 {
    const UNPLACED: f64 = 2e9;
    const HUNG: f64 = 1e9;
    let drawn = home.plan();
    let (Some(outline), Some(within)) = (drawn.outlines.get(room), drawn.points.get(point)) else { return UNPLACED };
    let spot = outline.bounds().corner().plus(*within);
    let round = |wall: usize, on: f64| outline.walls().take(wall).map(|(a, b)| a.to(b)).sum::<f64>() + on;
    let total = round(outline.corners().len(), 0.0);
    let door = drawn
        .openings
        .values()
        .filter(|o| o.kind.is_way() && o.room == *room && o.wall < outline.corners().len())
        .map(|o| round(o.wall, f64::from(o.from.millimeters())))
        .next()
        .unwrap_or(0.0);
    match outline.against(spot, reach(kind).max(400.0)) {
        Some((at, _)) => {
            let (wall, _, _) = outline.nearest_wall(at);
            let (a, b) = outline.wall(wall);
            (round(wall, along(a, b, at)) - door).rem_euclid(total)
        }
        None => HUNG + f64::from(within.x) + f64::from(within.y),
    }
}
