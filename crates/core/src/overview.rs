//! The home at a glance, as every screen needs it.

use std::collections::BTreeMap;

use crate::{
    BreakerId, DarkClock, Edition, Finding, Home, HomeId, Point, PointId, Post, Room, Since, State, Verdict,
    checks::findings_from, panel::post::posts_from, position, sim::Recipe, trace::dark_clock::dark_clocks, verdicts,
};

/// A breaker that is off now.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct OffNow {
    /// Which.
    pub breaker: BreakerId,
    /// `5-7`, `G3`.
    pub number: String,
    /// Off or tripped.
    pub state: State,
    /// Off for good, not for this round.
    pub left_off: bool,
}

/// How far the trace is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Progress {
    /// All points.
    pub points: usize,
    /// Proven.
    pub proven: usize,
    /// Looks disagree.
    pub contradictory: usize,
    /// Dark with everything on.
    pub out: usize,
    /// Not known yet.
    pub open: usize,
}

impl Progress {
    pub(crate) fn of(known: &[(PointId, Verdict)]) -> Self {
        let count = |want: fn(&Verdict) -> bool| known.iter().filter(|(_, v)| want(v)).count();
        Self {
            points: known.len(),
            proven: count(|v| matches!(v, Verdict::Proven { .. })),
            contradictory: count(|v| matches!(v, Verdict::Contradictory { .. })),
            out: count(|v| matches!(v, Verdict::Out { .. })),
            open: count(|v| matches!(v, Verdict::Open { .. } | Verdict::ByExclusion { .. })),
        }
    }
}

/// A point with what is known of it.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct KnownPoint {
    /// The point.
    #[serde(flatten)]
    pub point: Point,
    /// What is known.
    pub known: Verdict,
}

/// The home as the screens draw it.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct HomeOverview {
    /// Its id.
    pub id: HomeId,
    /// Its name.
    pub name: String,
    /// The last line this follows from.
    pub seq: u64,
    /// Its panels as fingerposts, in the order of entry; empty before one is described.
    pub posts: Vec<Post>,
    /// The edition of the rules that findings are worded by.
    pub edition: Edition,
    /// Its rooms, in the order of entry.
    pub rooms: Vec<Room>,
    /// Its points, in the order of entry.
    pub points: Vec<KnownPoint>,
    /// What each switch switches.
    pub controls: BTreeMap<PointId, Vec<PointId>>,
    /// What each GFCI device protects downstream.
    pub protects: BTreeMap<PointId, Vec<PointId>>,
    /// What this home is drawn from, where it is a made-up one.
    pub practice: Option<Recipe>,
    /// GFCI devices that were tripped on purpose and not reset yet.
    pub tripped: Vec<PointId>,
    /// The last line that moved a handle: what a look is recorded under.
    pub last_turn: Since,
    /// What is off now, in the order of the panel.
    pub off_now: Vec<OffNow>,
    /// What may be without power only so long, and may be dark now; the first to run out first.
    pub clocks: Vec<DarkClock>,
    /// How far the trace is.
    pub progress: Progress,
    /// What is worth a look.
    pub findings: Vec<Finding>,
}

/// What is off now, in the order of the panels.
pub(crate) fn off_now(home: &Home) -> Vec<OffNow> {
    let off = |panel: &crate::Panel| {
        let mut here: Vec<&crate::Breaker> = home.breakers_of(&panel.id).filter(|b| b.state != State::On).collect();
        here.sort_by_key(|b| position(panel, b.at[0].space).map(|(side, row)| (side, row, b.at[0].half)));
        here
    };
    let off = home.panels().flat_map(off).map(|b| OffNow {
        breaker: b.id.clone(),
        number: home.number(&b.id),
        state: b.state,
        left_off: b.is_left_off(),
    });
    off.collect()
}

/// Works out the overview.
pub fn overview(id: &HomeId, seq: u64, home: &Home) -> HomeOverview {
    let known = verdicts(home);
    let posts = posts_from(home, known);
    HomeOverview {
        id: id.clone(),
        name: home.name().unwrap_or_default().to_owned(),
        seq,
        practice: home.practice(),
        tripped: home.tripped().cloned().collect(),
        last_turn: home.last_turn(),
        off_now: off_now(home),
        clocks: dark_clocks(home, known),
        rooms: home.rooms().cloned().collect(),
        progress: Progress::of(known),
        findings: findings_from(home, known),
        edition: home.edition(),
        controls: home.drawn().controls.clone(),
        protects: home.drawn().protects.clone(),
        points: home.points().cloned().zip(known).map(|(point, (_, known))| KnownPoint { point, known: known.clone() }).collect(),
        posts,
    }
}
