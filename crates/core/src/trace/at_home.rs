//! The search in a real home: the case as the logbook has it, and what is likely.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::OnceLock;

use super::next_step::may_be_switched;
use super::pace::pace;
use super::verdict::looks_by_power;
use super::{Verdict, verdicts};
use crate::logbook::Instrument;
use crate::model::{Breaker, BreakerId, EntryId, PointId, PointKind, RoomId, Seen, TraceSetup, Volts};
use crate::search::{Belief, Case, CasePoint, Costs, Crew, MOST_BREAKERS, OffSet, OldLabel, Place, PointClass, Search};
use crate::study::Study;
use crate::walking::walking;

/// The likeliest breaker of a point. It orders the tests and proves nothing.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Likely {
    /// The breaker.
    pub breaker: BreakerId,
    /// How likely, in percent; 99 at most.
    pub percent: u8,
}

struct LikelyOnes(BTreeMap<PointId, Likely>);

struct Searched(Option<AtHome>);

/// The home as the search sees it, traced as it is set; `None` where there is nothing to search, or more than can be.
pub(super) fn at_home(home: &Study) -> Option<&AtHome> {
    home.once(|| Searched(AtHome::of(home, verdicts(home), home.setup()))).0.as_ref()
}

/// A home as a case, with the ids behind its numbers.
pub(crate) struct AtHome {
    pub(crate) case: Case,
    pub(crate) breakers: Vec<BreakerId>,
    pub(crate) points: Vec<PointId>,
    pub(super) rooms: Vec<RoomId>,
    pub(super) proven: Vec<Option<usize>>,
    /// The dark look that proves it.
    pub(super) proof: Vec<Option<EntryId>>,
    /// For each point the breakers that no look rules out.
    pub(super) possible: Vec<OffSet>,
    /// Open, and for more than a breaker that may not have latched.
    pub(super) telling: Vec<bool>,
    pub(super) setup: TraceSetup,
    belief: OnceLock<Belief>,
}

/// A point that a single dark look may prove, by its place in the case.
pub(super) struct Once {
    pub(super) point: usize,
    /// The breaker, by its place.
    pub(super) breaker: usize,
    /// The look.
    pub(super) dark: EntryId,
}

/// How likely the breaker has to be for a single dark look to prove a point, the look itself counted.
const SURE: f64 = 0.998;

/// Those that are sure now are proven, and wait no longer.
fn prove_sure(belief: &mut Belief, waiting: &mut Vec<&Once>) -> Vec<usize> {
    let (sure, unsure): (Vec<&Once>, Vec<&Once>) = waiting.drain(..).partition(|o| belief.of(o.point)[o.breaker] >= SURE);
    for once in &sure {
        belief.prove(once.point, once.breaker);
    }
    *waiting = unsure;
    sure.into_iter().map(|once| once.point).collect()
}

/// The most breakers and points that are searched together.
const MOST_POINTS: usize = 600;

impl AtHome {
    /// The case; `None` where there is nothing to search, or more than can be.
    pub(crate) fn of(home: &Study, known: &[(PointId, Verdict)], setup: TraceSetup) -> Option<Self> {
        Self::among(home, known, setup, home.panels().breakers().filter(|b| !b.is_left_off()).collect())
    }

    /// The case with these breakers.
    pub(super) fn among(home: &Study, known: &[(PointId, Verdict)], setup: TraceSetup, breakers: Vec<&Breaker>) -> Option<Self> {
        let index: BTreeMap<&BreakerId, usize> = breakers.iter().enumerate().map(|(n, b)| (&b.id, n)).collect();
        let rooms: Vec<RoomId> = home.house().rooms().map(|room| room.id.clone()).collect();
        let seekable = |v: &Verdict| match v {
            Verdict::Proven { breaker, .. } => index.contains_key(breaker),
            // What no breaker that may be switched can feed is not to be found by switching.
            Verdict::Open { possible, .. } => possible
                .iter()
                .any(|b| index.contains_key(b) && home.panels().breaker(b).is_some_and(|b| may_be_switched(home, b))),
            Verdict::ByExclusion { .. } | Verdict::Contradictory { .. } | Verdict::Out { .. } => false,
        };
        let points: Vec<(&crate::model::Point, &Verdict)> = known
            .iter()
            .filter(|(_, v)| seekable(v))
            .filter_map(|(id, v)| home.house().point(id).map(|point| (point, v)))
            .collect();
        if breakers.is_empty() || points.is_empty() || breakers.len() > MOST_BREAKERS || points.len() > MOST_POINTS {
            return None;
        }
        let walk = walking(home);
        let seconds = |walks: &Vec<crate::walking::Walk>| walks.iter().map(|w| w.seconds).collect::<Vec<f64>>();
        // Most panels are one; from several, the first is where somebody stands.
        let panel_s = home
            .panels()
            .all()
            .next()
            .and_then(|panel| walk.from_panel.get(&panel.id))
            .map_or_else(|| vec![8.0; rooms.len()], seconds);
        let walk_s: Vec<Vec<f64>> = walk.between.iter().map(seconds).collect();
        let room_of = |id: &RoomId| rooms.iter().position(|room| room == id).unwrap_or(0);
        let next_to = (0..rooms.len())
            .map(|n| {
                // Next door is what one walks to in a few seconds; without a plan nothing is.
                let near = |m: &usize| *m != n && walk.between[n][*m].drawn && walk_s[n][*m] <= 5.0;
                (0..rooms.len()).filter(near).collect()
            })
            .collect();
        let beside = breakers
            .iter()
            .map(|b| {
                let near = |other: &&Breaker| {
                    other.id != b.id && other.panel == b.panel && {
                        let (a, c) = (i32::from(b.at[0].space), i32::from(other.at[0].space));
                        (a - c).abs() <= 2 && (a - c) % 2 == 0
                    }
                };
                breakers.iter().enumerate().filter(|(_, other)| near(other)).map(|(n, _)| n).collect()
            })
            .collect();
        // Several walk at the same time: to each way there is a like part for each.
        let shared = |seconds: f64| seconds / setup.looking();
        let case = Case {
            rooms: rooms.len(),
            walk_s: walk_s.into_iter().map(|row| row.into_iter().map(shared).collect()).collect(),
            panel_s: panel_s.into_iter().map(shared).collect(),
            next_to,
            beside,
            labels: breakers.iter().map(|b| label_of(home, b, &rooms)).collect(),
            two_pole: breakers.iter().map(|b| b.poles() > 1).collect(),
            stay_on: breakers.iter().enumerate().filter(|(_, b)| !may_be_switched(home, b)).map(|(n, _)| n).collect(),
            points: points
                .iter()
                .map(|(p, _)| CasePoint {
                    room: room_of(&p.room),
                    class: class_of(p.kind),
                    name: p.name.clone(),
                    high: p.volts == Volts::new(240),
                    max_dark_s: p.details.dark_minutes.map(|minutes| f64::from(minutes) * 60.0),
                })
                .collect(),
        };
        Some(Self {
            proven: points.iter().map(|(_, v)| v.proven_on().and_then(|b| index.get(b).copied())).collect(),
            proof: points
                .iter()
                .map(|(_, v)| match v {
                    Verdict::Proven { dark, .. } => Some(dark.clone()),
                    _ => None,
                })
                .collect(),
            possible: points
                .iter()
                .map(|(_, v)| match v {
                    Verdict::Open { possible, .. } => possible.iter().filter_map(|b| index.get(b).copied()).collect(),
                    _ => (0..breakers.len()).collect(),
                })
                .collect(),
            telling: points
                .iter()
                .map(|(_, v)| matches!(v, Verdict::Open { unlatched, unreset: None, .. } if unlatched.is_empty()))
                .collect(),
            points: points.iter().map(|(p, _)| p.id.clone()).collect(),
            setup,
            belief: OnceLock::new(),
            breakers: breakers.iter().map(|b| b.id.clone()).collect(),
            rooms,
            case,
        })
    }

    fn off_set<'b>(&self, off: impl Iterator<Item = &'b BreakerId>) -> OffSet {
        off.filter_map(|id| self.breakers.iter().position(|b| b == id)).collect()
    }

    /// What is believed by every look so far, in their order: how far rooms go together is learnt from what was foreseen of
    /// each look, so a point counts as proven only from its proof on. Looks are judged by what was without power.
    pub(super) fn belief(&self, home: &Study) -> &Belief {
        self.belief.get_or_init(|| self.believe(home))
    }

    fn believe(&self, home: &Study) -> Belief {
        let mut belief = self.by_looks(home, &[]).0;
        for (point, breaker) in home.trace().tones() {
            let p = self.points.iter().position(|p| p == point).filter(|p| self.proven[*p].is_none());
            if let Some((p, b)) = p.zip(self.breakers.iter().position(|b| b == breaker)) {
                belief.heard(&self.case, p, b, &Costs::default());
            }
        }
        // The verdict takes looks at their word until they disagree; so does what is asked next.
        for (p, possible) in self.possible.iter().enumerate() {
            belief.only(p, *possible);
        }
        belief.infer(&self.case);
        belief
    }

    /// What is believed by the looks and the card alone, and which of the points that a single dark look may prove are sure
    /// enough by it: each counts as proven from where that was so, as what is proven elsewhere later says nothing against
    /// it. With such points all is worked out anew only where that may be, else wherever what is off has changed.
    pub(super) fn by_looks(&self, home: &Study, once: &[Once]) -> (Belief, BTreeSet<usize>) {
        let lie = Costs::default().misread;
        let mut belief = Belief::new(&self.case, self.setup.alone);
        belief.infer(&self.case);
        let index: BTreeMap<&PointId, usize> = self.points.iter().enumerate().map(|(n, p)| (p, n)).collect();
        let mut sure = BTreeSet::new();
        let mut waiting: Vec<&Once> = Vec::new();
        let mut stale = once.is_empty();
        let mut under: Option<OffSet> = None;
        let mut seen_since = BTreeSet::new();
        for look in looks_by_power(home) {
            let Some(p) = index.get(&look.point).copied().filter(|p| belief.proven(*p).is_none()) else { continue };
            let off = self.off_set(look.off.iter());
            if stale && under != Some(off) {
                belief.infer(&self.case);
                sure.extend(prove_sure(&mut belief, &mut waiting));
                stale = once.is_empty();
                seen_since.clear();
            }
            under = Some(off);
            // How far rooms go together shows in what was foreseen of a look: of a second one nothing was.
            if seen_since.insert(p) || once.is_empty() {
                belief.saw(p, off, look.seen == Seen::Dark, lie);
            } else {
                belief.take_in(p, off, look.seen == Seen::Dark, lie);
            }
            if let Some(breaker) = self.proven[p].filter(|_| self.proof[p].as_ref() == Some(&look.line)) {
                belief.prove(p, breaker);
            }
            if let Some(dark) = once.iter().find(|o| o.point == p && o.dark == look.line) {
                waiting.push(dark);
                stale = true;
            }
        }
        for (p, on) in self.proven.iter().enumerate() {
            if let Some(breaker) = on.filter(|_| belief.proven(p).is_none()) {
                belief.prove(p, breaker);
            }
        }
        belief.infer(&self.case);
        sure.extend(prove_sure(&mut belief, &mut waiting));
        (belief, sure)
    }

    /// The search as it stands.
    pub(crate) fn search(&self, home: &Study) -> Search<'_> {
        let crew = Crew::from(self.setup);
        let mut search = Search::new(&self.case, crew, pace(home, self.setup));
        search.belief = self.belief(home).clone();
        if crew.plugs > 1 {
            // Testers stay where they were plugged in until the point is proven.
            let by_plug =
                |look: &&crate::logbook::Look| matches!(look.instrument, Some(Instrument::PlugInTester | Instrument::Lamp));
            for look in home.trace().looks().iter().filter(by_plug) {
                if let Some(p) = self.points.iter().position(|p| *p == look.point).filter(|p| self.proven[*p].is_none()) {
                    search.plug_in(p);
                }
            }
        }
        search.off = self.off_set(home.switchings().off().iter());
        for skip in home.trace().skips() {
            if let Some(p) = self.points.iter().position(|p| *p == skip.point) {
                search.passed_over.push((self.off_set(skip.off.iter()), p));
            }
        }
        // The clocks count by the times of the logbook, up to what was written last.
        let written = home.trace().looks().last().map(|look| look.at).into_iter();
        let until = written.chain(home.switchings().off().iter().filter_map(|b| home.switchings().off_since(b))).max();
        for (n, breaker) in self.breakers.iter().enumerate() {
            if let (Some(since), Some(until)) = (home.switchings().off_since(breaker), until) {
                search.off_for(n, (until.unix_ms() - since.unix_ms()) as f64 / 1000.0);
            }
        }
        let now = home.switchings().count();
        // A look that only shows that a breaker latched is not yet one for which these were switched off.
        let tells = |p: &PointId| self.points.iter().position(|q| q == p).is_some_and(|p| self.telling[p]);
        let seen_since = home.trace().looks().iter().rev().take_while(|look| look.moves == now).any(|look| tells(&look.point));
        search.fresh = !search.off.is_empty() && !seen_since;
        let looked = home.trace().looks().last().is_some_and(|look| look.moves == now);
        let last = home.trace().looks().last().and_then(|look| home.house().point(&look.point)).map(|point| &point.room);
        search.at = match last.and_then(|room| self.rooms.iter().position(|r| r == room)) {
            // Alone, whoever switched last stands at the panel.
            Some(room) if !crew.alone || looked => Place::Room(room),
            _ => Place::Panel,
        };
        search
    }

    /// The breakers of a set.
    pub(crate) fn ids(&self, set: OffSet) -> Vec<BreakerId> {
        set.iter().map(|b| self.breakers[b].clone()).collect()
    }
}

fn class_of(kind: PointKind) -> PointClass {
    match kind {
        PointKind::Receptacle | PointKind::CappedCable | PointKind::JunctionBox => PointClass::Receptacle,
        PointKind::Light | PointKind::Switch | PointKind::Fan => PointClass::Light,
        PointKind::Appliance | PointKind::Alarm => PointClass::Appliance,
    }
}

/// The old card's words as a clue: a room of the home, a kind, an appliance.
fn label_of(home: &Study, breaker: &Breaker, rooms: &[RoomId]) -> OldLabel {
    let Some(claim) = &breaker.claim else { return OldLabel::Blank };
    let claim = claim.to_lowercase();
    let words: Vec<&str> = claim.split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).collect();
    let any = |names: &[&str]| words.iter().any(|word| names.contains(word));
    if any(&["spare", "unused", "blank", "open", "empty"]) {
        return OldLabel::Spare;
    }
    let in_claim = |name: &str| {
        let parts: Vec<String> =
            name.to_lowercase().split(|c: char| !c.is_alphanumeric()).filter(|w| w.len() > 2).map(str::to_owned).collect();
        !parts.is_empty() && parts.iter().all(|part| words.contains(&part.as_str()))
    };
    let appliance =
        home.house().points().find(|p| matches!(p.kind, PointKind::Appliance | PointKind::Alarm) && in_claim(&p.name));
    if let Some(point) = appliance
        && let Some(room) = rooms.iter().position(|room| *room == point.room)
    {
        return OldLabel::Room { room, class: PointClass::Appliance, name: point.name.clone() };
    }
    let class = if any(&["light", "lights", "lighting", "lt", "lts", "lamp", "lamps"]) {
        Some(PointClass::Light)
    } else if any(&["rec", "recs", "receptacle", "receptacles", "outlet", "outlets", "plug", "plugs", "gfci"]) {
        Some(PointClass::Receptacle)
    } else {
        None
    };
    let room = home.house().rooms().position(|room| {
        let parts: Vec<String> = room.name.to_lowercase().split_whitespace().map(str::to_owned).collect();
        parts.iter().any(|part| part.len() > 2 && words.contains(&part.as_str()))
    });
    match (room, class) {
        (Some(room), Some(class)) => OldLabel::Room { room, class, name: String::new() },
        (Some(room), None) => OldLabel::Place { room },
        (None, Some(class)) => OldLabel::Kind { class },
        (None, None) => OldLabel::Blank,
    }
}

/// Below this nothing is called likely.
const LEAST_PERCENT: u8 = 60;

/// The likeliest breaker of every point that is open, where one is clearly likelier than the rest.
pub fn likely(home: &Study) -> &BTreeMap<PointId, Likely> {
    &home.once(|| LikelyOnes(likely_at(home, at_home(home)))).0
}

/// The same, where the case is at hand.
pub(crate) fn likely_at(home: &Study, at_home: Option<&AtHome>) -> BTreeMap<PointId, Likely> {
    let Some(at_home) = at_home else { return BTreeMap::new() };
    let belief = at_home.belief(home);
    let open = (0..at_home.points.len()).filter(|p| at_home.proven[*p].is_none());
    open.filter_map(|p| {
        let (b, chance) = belief.of(p).iter().enumerate().max_by(|a, b| a.1.total_cmp(b.1))?;
        let percent = (chance * 100.0).floor().min(99.0) as u8;
        (percent >= LEAST_PERCENT).then(|| (at_home.points[p].clone(), Likely { breaker: at_home.breakers[b].clone(), percent }))
    })
    .collect()
}
