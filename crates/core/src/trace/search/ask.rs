//! What the steps of a trace ask of the search: what is next, what is left, where a tester is, what is not sure yet.

use std::collections::BTreeSet;

use super::at_home::AtHome;
use super::case::PointClass;
use super::{Act, Place, Way};
use crate::{BreakerId, EntryId, Home, PointId, Seen, Verdict};

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

/// What to do next with several off. `aside`: not to be looked at; `told`: looked at under what is off now.
pub(crate) fn ask(
    home: &Home,
    at_home: Option<&AtHome>,
    aside: &dyn Fn(&PointId) -> bool,
    told: &dyn Fn(&PointId) -> bool,
) -> Asked {
    let Some(at_home) = at_home else { return Asked::Nothing };
    let mut search = at_home.search(home);
    search.aside = at_home.points.iter().map(aside).collect();
    search.told = at_home.points.iter().map(told).collect();
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
pub(crate) fn hunted(home: &Home, at_home: Option<&AtHome>) -> Vec<Hunted> {
    let Some(at_home) = at_home else { return Vec::new() };
    let search = at_home.search(home);
    let may = at_home.case.may_be_off();
    let open = (0..at_home.points.len()).filter(|p| at_home.proven[*p].is_none());
    // By ear, whoever switched stands at the panel, but it is the radio that is carried on from where it was.
    let last = home.looks().last().filter(|_| at_home.way.by_ear()).and_then(|look| home.point(&look.point));
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
pub(crate) fn plugged(home: &Home, at_home: Option<&AtHome>) -> BTreeSet<PointId> {
    let Some(at_home) = at_home.filter(|at_home| at_home.way.testers > 1) else { return BTreeSet::new() };
    let search = at_home.search(home);
    at_home.points.iter().enumerate().filter(|(p, _)| search.plugged[*p]).map(|(_, id)| id.clone()).collect()
}

/// Points that were proven by a single dark look since the last handle moved, and of which that is not yet sure: the look
/// may have been a slip. One more look at the same place costs seconds.
pub(crate) fn unsure(home: &Home, known: &[(PointId, Verdict)], way: Way) -> Vec<PointId> {
    let now = home.switched().len();
    let looks = home.looks();
    let fresh = |dark: &EntryId| looks.iter().rev().take_while(|look| look.moves == now).any(|look| &look.line == dark);
    let once = |point: &PointId, breaker: &BreakerId| {
        let darks = looks.iter().filter(|l| &l.point == point && l.seen == Seen::Dark && l.off.contains(breaker));
        darks.take(2).count() < 2
    };
    let fresh: Vec<(&PointId, &BreakerId)> = known
        .iter()
        .filter_map(|(point, verdict)| match verdict {
            Verdict::Proven { breaker, dark, .. } if fresh(dark) && once(point, breaker) => Some((point, breaker)),
            _ => None,
        })
        .collect();
    if fresh.is_empty() {
        return Vec::new();
    }
    // As if it were open still: what does all else say of it, with what was seen of it?
    let open: Vec<(PointId, Verdict)> = known
        .iter()
        .map(|(point, verdict)| {
            let possible = || home.breakers().map(|b| b.id.clone()).collect();
            match fresh.iter().any(|(p, _)| *p == point) {
                true => (point.clone(), Verdict::Open { possible: possible(), seen_lit: true, unlatched: Vec::new() }),
                false => (point.clone(), verdict.clone()),
            }
        })
        .collect();
    let all = || fresh.iter().map(|(point, _)| (*point).clone()).collect();
    // More than is searched together: then nothing vouches for a single look.
    let Some(at_home) = AtHome::of(home, &open, way) else { return all() };
    let belief = at_home.belief(home);
    let sure = |point: &PointId, breaker: &BreakerId| {
        let p = at_home.points.iter().position(|p| p == point);
        let b = at_home.breakers.iter().position(|b| b == breaker);
        p.zip(b).is_some_and(|(p, b)| belief.is_sure(p, b))
    };
    fresh.into_iter().filter(|(point, breaker)| !sure(point, breaker)).map(|(point, _)| point.clone()).collect()
}
