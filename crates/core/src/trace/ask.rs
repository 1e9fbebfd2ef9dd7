//! What the steps of a trace ask of the search: what is next, what is left, where a tester is, what is not sure yet.

use std::collections::{BTreeMap, BTreeSet};

use super::at_home::{AtHome, Once};
use crate::model::{BreakerId, PointId, TraceSetup};
use crate::search::{Act, Place, PointClass};
use crate::study::Study;
use crate::trace::Verdict;

/// What the search says is next, in the ids of the home.
pub(crate) enum Asked {
    /// Have just these off, to look at these points then.
    Off(Vec<BreakerId>, Vec<PointId>),
    /// Look at these with what is off now.
    Look(Vec<PointId>),
    /// Plug the tone sender in there and find where it is loudest.
    Tone(PointId),
    /// Nothing more can be proven.
    Nothing,
}

/// What to do next with several off. `left_out`: not to be looked at; `seen_now`: looked at under what is off now.
pub(crate) fn ask(
    home: &Study,
    at_home: Option<&AtHome>,
    left_out: &dyn Fn(&PointId) -> bool,
    seen_now: &dyn Fn(&PointId) -> bool,
) -> Asked {
    let Some(at_home) = at_home else { return Asked::Nothing };
    let mut search = at_home.search(home);
    search.left_out = at_home.points.iter().map(left_out).collect();
    search.seen_now = at_home.points.iter().map(seen_now).collect();
    search.take_up_round();
    match search.next_act() {
        Act::Done => Asked::Nothing,
        Act::Tone { point } => Asked::Tone(at_home.points[point].clone()),
        Act::Look { off, points, .. } if off == search.off() => {
            Asked::Look(points.iter().map(|p| at_home.points[*p].clone()).collect())
        }
        Act::Look { off, points, .. } => {
            Asked::Off(at_home.ids(off), points.iter().map(|p| at_home.points[*p].clone()).collect())
        }
    }
}

/// For each open point its breakers, the likeliest first; and the walk to it from where somebody is, or a radio was last.
pub(crate) struct Hunted {
    /// Which point.
    pub(crate) point: PointId,
    /// Seconds to its room.
    pub(crate) walk_s: f64,
    /// The breakers that may be switched and may feed it.
    pub(crate) breakers: Vec<BreakerId>,
    /// A tone sender may be plugged in there.
    pub(crate) takes_tone: bool,
}

/// What is left for somebody who goes from point to point, the nearest first.
pub(crate) fn hunted(home: &Study, at_home: Option<&AtHome>) -> Vec<Hunted> {
    let Some(at_home) = at_home else { return Vec::new() };
    let search = at_home.search(home);
    let may = at_home.case.may_be_off();
    let open = (0..at_home.points.len()).filter(|p| at_home.proven[*p].is_none());
    // By ear, whoever switched stands at the panel, but it is the radio that is carried on from where it was.
    let last = home.trace().looks().last().filter(|_| at_home.setup.by_ear()).and_then(|look| home.house().point(&look.point));
    let from = last.and_then(|p| at_home.rooms.iter().position(|room| *room == p.room)).map_or(search.at, Place::Room);
    let mut hunted: Vec<Hunted> = open
        .map(|p| {
            let row = search.belief.of(p);
            let mut order: Vec<usize> = may.iter().filter(|b| at_home.possible[p].has(*b)).collect();
            order.sort_by(|a, b| row[*b].total_cmp(&row[*a]));
            let case = &at_home.case.points[p];
            Hunted {
                point: at_home.points[p].clone(),
                walk_s: search.walk_s(from, Place::Room(case.room)),
                breakers: order.into_iter().map(|b| at_home.breakers[b].clone()).collect(),
                takes_tone: case.class == PointClass::Receptacle && !case.high,
            }
        })
        .collect();
    hunted.sort_by(|a, b| a.walk_s.total_cmp(&b.walk_s));
    hunted
}

/// Receptacles in which a tester is left plugged in, as the search counts on it: a glance is enough there.
pub(crate) fn plugged(home: &Study, at_home: Option<&AtHome>) -> BTreeSet<PointId> {
    let Some(at_home) = at_home.filter(|at_home| at_home.setup.testers > 1) else { return BTreeSet::new() };
    let search = at_home.search(home);
    at_home.points.iter().enumerate().filter(|(p, _)| search.plugged[*p]).map(|(_, id)| id.clone()).collect()
}

/// Of these points, each proven by a single dark look: those of which that is not sure. All are taken as open together, so
/// that no single look vouches for another's proof as if it were one itself.
pub(crate) fn doubtful(home: &Study, known: &[(PointId, Verdict)], once: &[usize]) -> Vec<usize> {
    if once.is_empty() {
        return Vec::new();
    }
    let mut open = known.to_vec();
    for n in once {
        let possible = home.panels().breakers().map(|b| b.id.clone()).collect();
        open[*n].1 = Verdict::Open { possible, seen_lit: true, unlatched: Vec::new(), unreset: None, once: None };
    }
    // More than is searched together: then nothing vouches for a single look.
    let Some(at_home) = AtHome::among(home, &open, TraceSetup::default(), home.panels().breakers().collect()) else {
        return once.to_vec();
    };
    let places: BTreeMap<&PointId, usize> = at_home.points.iter().enumerate().map(|(p, point)| (point, p)).collect();
    let look = |n: &usize| {
        let (point, Verdict::Proven { breaker, dark, .. }) = &known[*n] else { return None };
        let breaker = at_home.breakers.iter().position(|b| b == breaker)?;
        Some(Once { point: *places.get(point)?, breaker, dark: dark.clone() })
    };
    let looks: Vec<Once> = once.iter().filter_map(look).collect();
    let (_, sure) = at_home.by_looks(home, &looks);
    once.iter().copied().filter(|n| places.get(&known[*n].0).is_none_or(|p| !sure.contains(p))).collect()
}
