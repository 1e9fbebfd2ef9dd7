//! The home at a glance, as every screen needs it.

use std::collections::BTreeMap;

use crate::checks::{Finding, findings};
use crate::model::{Edition, HomeId, Point, PointId, Recipe, Room, Since};
use crate::panel::{PanelView, panel_views};
use crate::study::Study;
use crate::trace::{DarkClock, OffNow, Progress, Verdict, dark_clocks, off_now, verdicts};

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
    pub posts: Vec<PanelView>,
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

/// Works out the overview.
pub fn overview(id: &HomeId, home: &Study) -> HomeOverview {
    let known = verdicts(home);
    let posts = panel_views(home).to_vec();
    HomeOverview {
        id: id.clone(),
        name: home.name().unwrap_or_default().to_owned(),
        seq: home.seq(),
        practice: home.practice(),
        tripped: home.trace().tripped().cloned().collect(),
        last_turn: home.switchings().last(),
        off_now: off_now(home),
        clocks: dark_clocks(home),
        rooms: home.house().rooms().cloned().collect(),
        progress: Progress::of(known),
        findings: findings(home).to_vec(),
        edition: home.edition(),
        controls: home.plan().controls.clone(),
        protects: home.plan().protects.clone(),
        points: home
            .house()
            .points()
            .cloned()
            .zip(known)
            .map(|(point, (_, known))| KnownPoint { point, known: known.clone() })
            .collect(),
        posts,
    }
}
