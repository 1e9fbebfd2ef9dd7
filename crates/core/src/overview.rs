//! The home at a glance, in the parts in which screens need it: what is going on now, its panels, its points, what is worth a
//! look.

use std::collections::BTreeMap;

use crate::checks::{Finding, findings, not_judged};
use crate::directory::{hanging, tests_due};
use crate::model::{BreakerId, Edition, HomeId, Moment, Point, PointId, Recipe, Room, Since};
use crate::panel::{PanelView, panel_views};
use crate::study::Study;
use crate::trace::{DarkClock, OffNow, Progress, Verdict, dark_clocks, off_now, verdicts};

/// So many breakers that may feed a point are named; more are only counted.
const NAMED: usize = 3;

/// What is known of which breaker feeds a point, as the screens tell it.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "verdict", rename_all = "snake_case")]
pub enum Known {
    /// Fed by this breaker; which looks prove it, the evidence says.
    Proven {
        /// The breaker.
        breaker: BreakerId,
    },
    /// The looks cannot all be right for a point that one breaker feeds.
    Contradictory {
        /// What disagrees, as a sentence.
        because: String,
    },
    /// Dark though every breaker is on: a switch, a lamp, a tripped GFCI, or no supply.
    Out,
    /// It is on one of these, which may never be off: no other breaker is likely any more. No proof.
    ByExclusion {
        /// The breakers.
        breakers: Vec<BreakerId>,
    },
    /// Not known yet.
    Open {
        /// The breakers that no look rules out, where they are three at most.
        possible: Vec<BreakerId>,
        /// How many breakers no look rules out.
        candidates: usize,
        /// It went dark with one breaker alone, and other stories fit its lines too well for a proof.
        unsure: bool,
    },
}

impl From<&Verdict> for Known {
    fn from(verdict: &Verdict) -> Self {
        match verdict {
            Verdict::Proven { breaker, .. } => Self::Proven { breaker: breaker.clone() },
            Verdict::Contradictory { because, .. } => Self::Contradictory { because: because.clone() },
            Verdict::Out { .. } => Self::Out,
            Verdict::ByExclusion { breakers } => Self::ByExclusion { breakers: breakers.clone() },
            Verdict::Open { possible, unsure, .. } => Self::Open {
                possible: if possible.len() <= NAMED { possible.clone() } else { Vec::new() },
                candidates: possible.len(),
                unsure: unsure.is_some(),
            },
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
    pub known: Known,
}

/// What every screen shows of a home.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct HomeNow {
    /// Its id.
    pub id: HomeId,
    /// Its name.
    pub name: String,
    /// The last line this follows from.
    pub seq: u64,
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
    /// Lines of the cards in the doors that are wrong now.
    pub card_lines_wrong: usize,
    /// Those of them that send the hand to the wrong breaker.
    pub card_lines_mislead: usize,
    /// Devices with a test button that were never tested, as far as is recorded, or failed.
    pub tests_open: usize,
    /// When the test of each other one comes round, the first to come first.
    pub tests_due: Vec<Moment>,
}

/// Rooms and points with what is known of them.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct KnownPoints {
    /// Its rooms, in the order of entry.
    pub rooms: Vec<Room>,
    /// Its points, in the order of entry.
    pub points: Vec<KnownPoint>,
    /// What each switch switches.
    pub controls: BTreeMap<PointId, Vec<PointId>>,
    /// What each GFCI device protects downstream.
    pub protects: BTreeMap<PointId, Vec<PointId>>,
}

/// What is worth a look.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Checks {
    /// The edition of the rules that findings are worded by.
    pub edition: Edition,
    /// What is not judged because the chosen edition's rule on it is not known here: a sentence, or nothing.
    pub not_judged: String,
    /// The gravest first; what was set aside at the end.
    pub findings: Vec<Finding>,
}

/// The home in all its parts, for programs that want it whole.
#[derive(Debug, Clone, PartialEq, serde::Serialize)]
pub struct HomeOverview {
    /// What is going on now.
    #[serde(flatten)]
    pub now: HomeNow,
    /// Its panels, in the order of entry.
    pub panels: Vec<PanelView>,
    /// Its rooms and points.
    #[serde(flatten)]
    pub points: KnownPoints,
    /// What is worth a look.
    #[serde(flatten)]
    pub checks: Checks,
}

/// How far the trace is.
pub fn progress(home: &Study) -> Progress {
    Progress::of(verdicts(home))
}

/// What every screen shows of a home.
pub fn home_now(id: &HomeId, home: &Study) -> HomeNow {
    let (tested, untested): (Vec<_>, Vec<_>) = tests_due(home).into_iter().map(|test| test.due).partition(Option::is_some);
    let mut due: Vec<Moment> = tested.into_iter().flatten().collect();
    due.sort_unstable();
    HomeNow {
        id: id.clone(),
        name: home.name().unwrap_or_default().to_owned(),
        seq: home.seq(),
        practice: home.practice(),
        tripped: home.trace().tripped().cloned().collect(),
        last_turn: home.switchings().last(),
        off_now: off_now(home),
        clocks: dark_clocks(home),
        progress: progress(home),
        card_lines_wrong: hanging(home).iter().map(|card| card.wrong.len()).sum(),
        card_lines_mislead: hanging(home).iter().flat_map(|card| &card.wrong).filter(|line| line.misleads).count(),
        tests_open: untested.len(),
        tests_due: due,
    }
}

/// Its rooms and points, with what is known of each.
pub fn known_points(home: &Study) -> KnownPoints {
    let points = home.house().points().cloned().zip(verdicts(home));
    KnownPoints {
        rooms: home.house().rooms().cloned().collect(),
        points: points.map(|(point, (_, verdict))| KnownPoint { point, known: verdict.into() }).collect(),
        controls: home.plan().controls.clone(),
        protects: home.plan().protects.clone(),
    }
}

/// What is worth a look, and by which edition it is worded.
pub fn checks(home: &Study) -> Checks {
    Checks { edition: home.edition(), not_judged: not_judged(home), findings: findings(home).to_vec() }
}

/// The home in all its parts.
pub fn overview(id: &HomeId, home: &Study) -> HomeOverview {
    HomeOverview { now: home_now(id, home), panels: panel_views(home).to_vec(), points: known_points(home), checks: checks(home) }
}
