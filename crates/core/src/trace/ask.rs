//! What the steps of a trace ask of the search: what is next, what is left, where a tester is, what is not sure yet.

use std::collections::BTreeSet;

use super::at_home::AtHome;
use crate::model::{BreakerId, PointId};
use crate::search::{Act, Place, PointClass};
use crate::study::Study;
use crate::trace::{Verdict, verdicts};

/// What the search says is next, in the ids of the home.
pub(crate) enum Asked {
    /// Have just these off, to look at these points then.
    Off(Vec<BreakerId>, Vec<PointId>),
    /// Look at these with what is off now.
    Look(Vec<PointId>),
    /// Plug the tone sender in there and find where it is loudest.
    Tone(PointId),
    /// Push it fully off and on: it may look on and carry no power.
    Cycle(BreakerId),
    /// Watch this point, which is lit, while the breaker is switched off and on again.
    Watch(BreakerId, PointId),
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
    for (p, point) in at_home.points.iter().enumerate() {
        search.left_out[p] |= left_out(point);
    }
    search.seen_now = at_home.points.iter().map(seen_now).collect();
    search.take_up_round();
    match search.next_act() {
        Act::Done => Asked::Nothing,
        Act::Control { point } => Asked::Look(vec![at_home.points[point].clone()]),
        Act::Cycle { breaker } => Asked::Cycle(at_home.breakers[breaker].clone()),
        Act::Watch { breaker, point } => Asked::Watch(at_home.breakers[breaker].clone(), at_home.points[point].clone()),
        Act::Tone { point } => Asked::Tone(at_home.points[point].clone()),
        Act::Look { off, points, .. } if off == search.off() => {
            Asked::Look(points.iter().map(|p| at_home.points[*p].clone()).collect())
        }
        Act::Look { off, points, .. } => {
            Asked::Off(at_home.ids(off), points.iter().map(|p| at_home.points[*p].clone()).collect())
        }
    }
}

/// A breaker that may look on and carry no power, as what was looked at last shows.
pub(crate) fn suspected(home: &Study, at_home: Option<&AtHome>) -> Option<BreakerId> {
    let at_home = at_home?;
    at_home.search(home).suspected().map(|b| at_home.breakers[b].clone())
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
    let known = verdicts(home);
    let open = (0..at_home.points.len()).filter(|p| at_home.is_sought(home, *p, &known[*p].1));
    // By ear, whoever switched stands at the panel, but it is the radio that is carried on from where it was.
    let last = home.trace().looks().last().filter(|_| at_home.setup.by_ear()).and_then(|look| home.house().point(&look.point));
    let from = last.and_then(|p| at_home.rooms.iter().position(|room| *room == p.room)).map_or(search.at, Place::Room);
    let mut hunted: Vec<Hunted> = open
        .map(|p| {
            let row = search.belief().of(p);
            let mut order: Vec<usize> = may.iter().filter(|b| may_be_on(&known[p].1, &at_home.breakers[*b])).collect();
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

/// Whether it comes into question for a point, as that is known.
fn may_be_on(known: &Verdict, breaker: &BreakerId) -> bool {
    match known {
        Verdict::Open { possible, .. } => possible.is_empty() || possible.contains(breaker),
        _ => true,
    }
}

/// Receptacles in which a tester is left plugged in, as the search counts on it: a glance is enough there.
pub(crate) fn plugged(home: &Study, at_home: Option<&AtHome>) -> BTreeSet<PointId> {
    let Some(at_home) = at_home.filter(|at_home| at_home.setup.testers > 1) else { return BTreeSet::new() };
    let search = at_home.search(home);
    at_home.points.iter().enumerate().filter(|(p, _)| search.plugged[*p]).map(|(_, id)| id.clone()).collect()
}
