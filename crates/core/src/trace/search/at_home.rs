//! The search in a real home: the case as the logbook has it, what is likely, and what each school would take.

use std::cell::OnceCell;
use std::collections::{BTreeMap, BTreeSet};

use rand::Rng;
use rand_pcg::Pcg64Mcg;

use super::case::{Case, CasePoint, Crew, OffSet, OldLabel, PointClass};
use super::pace::pace;
use super::{Act, Belief, Place, Search};
use crate::plan::walking;
use crate::sim::{House, HouseLabel, HousePoint, Strategy, play_as};
use crate::trace::next_step::may_be_switched;
use crate::{
    Breaker, BreakerId, EntryId, Home, Instrument, PointId, PointKind, Refusal, RefusalCode, RoomId, Seen, Verdict, Volts,
};

/// The likeliest breaker of a point. It orders the tests and proves nothing.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Likely {
    /// Which.
    pub breaker: BreakerId,
    /// How likely, in percent; 99 at most.
    pub percent: u8,
}

/// What a way of tracing is expected to take from here.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct SchoolMinutes {
    /// Which way.
    pub school: School,
    /// Minutes for what is left.
    pub minutes: f64,
}

/// A way of tracing.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum School {
    /// One breaker off after the other.
    #[default]
    OneAtATime,
    /// Several off at once where that tells more: the shortest way that still proves each point alone.
    SeveralOff,
    /// A lamp is left at one point, and whoever is at the panel tries breaker after breaker until it goes dark.
    LampAndHelper,
    /// A tone sender at a point is followed to the panel; the breaker it is loudest at is tried first.
    ToneTracer,
}

impl School {
    /// Every school.
    pub const ALL: [Self; 4] = [Self::OneAtATime, Self::LampAndHelper, Self::ToneTracer, Self::SeveralOff];

    const fn strategy(self) -> Strategy {
        match self {
            Self::OneAtATime => Strategy::OneAtATime,
            Self::SeveralOff => Strategy::Adaptive,
            Self::LampAndHelper => Strategy::LampAndHelper,
            Self::ToneTracer => Strategy::ToneTracer,
        }
    }
}

/// How it is traced, by whom and with what.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Way {
    /// Which way.
    pub school: School,
    /// One person does it all; else one stands at the panel and others walk.
    pub alone: bool,
    /// Plug-in testers and lamps together, 1 to 20: all but one can be left plugged in.
    pub testers: u8,
    /// A tone sender and its receiver are there.
    pub tone: bool,
    /// The people talk through phones that show each their step, rather than by shouting.
    pub phones: bool,
}

impl Default for Way {
    fn default() -> Self {
        Self { school: School::default(), alone: false, testers: 1, tone: false, phones: false }
    }
}

impl From<School> for Way {
    fn from(school: School) -> Self {
        Self { school, ..Self::default() }
    }
}

impl Way {
    /// Who that is, for the search.
    pub fn crew(self) -> Crew {
        Crew { alone: self.alone, plugs: usize::from(self.testers), tone: self.tone }
    }

    /// Refuses what cannot be.
    pub(crate) fn admit(self) -> Result<(), Refusal> {
        if (1..=20).contains(&self.testers) {
            return Ok(());
        }
        let wrong = format!("{} testers and lamps cannot be used.", self.testers);
        Err(Refusal::new(RefusalCode::OutOfRange, "testers", wrong, "Give 1 to 20."))
    }

    /// `several off at once, by one person, with 3 testers`.
    pub fn in_words(self) -> String {
        let school = match self.school {
            School::OneAtATime => "one breaker at a time",
            School::SeveralOff => "several off at once",
            School::LampAndHelper => "with a lamp and a helper",
            School::ToneTracer => "by tone tracer",
        };
        let crew = if self.alone { "one person" } else { "two or more" };
        let testers = if self.testers == 1 { "a tester".to_owned() } else { format!("{} testers and lamps", self.testers) };
        format!(
            "{school}, by {crew}, with {testers}{}{}",
            if self.tone { " and a tone tracer" } else { "" },
            if self.phones { ", a phone each" } else { "" }
        )
    }
}

/// A home as a case, with the ids behind its numbers.
pub(crate) struct AtHome {
    pub(crate) case: Case,
    pub(crate) breakers: Vec<BreakerId>,
    pub(crate) points: Vec<PointId>,
    rooms: Vec<RoomId>,
    proven: Vec<Option<usize>>,
    /// The dark look that proves it.
    proof: Vec<Option<EntryId>>,
    /// For each point the breakers that no look rules out.
    possible: Vec<OffSet>,
    /// Open, and for more than a breaker that may not have latched.
    telling: Vec<bool>,
    way: Way,
    belief: OnceCell<Belief>,
}

/// The most breakers and points that are searched together.
const MOST_POINTS: usize = 600;

impl AtHome {
    /// The case; `None` where there is nothing to search, or more than can be.
    pub(crate) fn of(home: &Home, known: &[(PointId, Verdict)], way: Way) -> Option<Self> {
        let left_off = |b: &&Breaker| b.is_left_off();
        let breakers: Vec<&Breaker> = home.breakers().filter(|b| !left_off(b)).collect();
        let index: BTreeMap<&BreakerId, usize> = breakers.iter().enumerate().map(|(n, b)| (&b.id, n)).collect();
        let rooms: Vec<RoomId> = home.rooms().map(|room| room.id.clone()).collect();
        let seekable = |v: &Verdict| match v {
            Verdict::Proven { breaker, .. } => index.contains_key(breaker),
            // What no breaker that may be switched can feed is not to be found by switching.
            Verdict::Open { possible, .. } => {
                possible.iter().any(|b| index.contains_key(b) && home.breaker(b).is_some_and(|b| may_be_switched(home, b)))
            }
            Verdict::ByExclusion { .. } | Verdict::Contradictory { .. } | Verdict::Out { .. } => false,
        };
        let points: Vec<(&crate::Point, &Verdict)> =
            known.iter().filter(|(_, v)| seekable(v)).filter_map(|(id, v)| home.point(id).map(|point| (point, v))).collect();
        if breakers.is_empty() || points.is_empty() || breakers.len() > super::MOST_BREAKERS || points.len() > MOST_POINTS {
            return None;
        }
        let walk = walking(home);
        let seconds = |walks: &Vec<crate::Walk>| walks.iter().map(|w| w.seconds).collect::<Vec<f64>>();
        // Most panels are one; from several, the first is where somebody stands.
        let panel_s =
            home.panels().next().and_then(|panel| walk.from_panel.get(&panel.id)).map_or_else(|| vec![8.0; rooms.len()], seconds);
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
        let case = Case {
            rooms: rooms.len(),
            walk_s,
            panel_s,
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
            telling: points.iter().map(|(_, v)| matches!(v, Verdict::Open { unlatched, .. } if unlatched.is_empty())).collect(),
            points: points.iter().map(|(p, _)| p.id.clone()).collect(),
            way,
            belief: OnceCell::new(),
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
    fn belief(&self, home: &Home) -> &Belief {
        self.belief.get_or_init(|| self.believe(home))
    }

    fn believe(&self, home: &Home) -> Belief {
        let (costs, crew) = (pace(home, self.way), self.way.crew());
        let mut belief = Belief::new(&self.case, crew.alone);
        belief.infer(&self.case);
        let index: BTreeMap<&PointId, usize> = self.points.iter().enumerate().map(|(n, p)| (p, n)).collect();
        let mut under: Option<OffSet> = None;
        for look in home.looks_by_power().iter() {
            let Some(p) = index.get(&look.point).copied().filter(|p| belief.proven(*p).is_none()) else { continue };
            let off = self.off_set(look.off.iter());
            if under != Some(off) {
                belief.infer(&self.case);
                under = Some(off);
            }
            belief.saw(p, off, look.seen == Seen::Dark, costs.misread);
            if let Some(breaker) = self.proven[p].filter(|_| self.proof[p].as_ref() == Some(&look.line)) {
                belief.prove(p, breaker);
            }
        }
        for (p, on) in self.proven.iter().enumerate() {
            if let Some(breaker) = on.filter(|_| belief.proven(p).is_none()) {
                belief.prove(p, breaker);
            }
        }
        for (point, breaker) in home.tones() {
            let heard = index.get(point).zip(self.breakers.iter().position(|b| b == breaker));
            if let Some((p, b)) = heard.filter(|(p, _)| self.proven[**p].is_none()) {
                belief.heard(&self.case, *p, b, &costs);
            }
        }
        // The verdict takes looks at their word until they disagree; so does what is asked next.
        for (p, possible) in self.possible.iter().enumerate() {
            belief.only(p, *possible);
        }
        belief.infer(&self.case);
        belief
    }

    /// The search as it stands.
    pub(crate) fn search(&self, home: &Home) -> Search<'_> {
        let crew = self.way.crew();
        let mut search = Search::new(&self.case, crew, pace(home, self.way));
        search.belief = self.belief(home).clone();
        if crew.plugs > 1 {
            // Testers stay where they were plugged in until the point is proven.
            let by_plug = |look: &&crate::Look| matches!(look.instrument, Some(Instrument::PlugInTester | Instrument::Lamp));
            for look in home.looks().iter().filter(by_plug) {
                if let Some(p) = self.points.iter().position(|p| *p == look.point).filter(|p| self.proven[*p].is_none()) {
                    search.plug_in(p);
                }
            }
        }
        search.off = self.off_set(home.off().iter());
        for skip in home.skips() {
            if let Some(p) = self.points.iter().position(|p| *p == skip.point) {
                search.passed_over.push((self.off_set(skip.off.iter()), p));
            }
        }
        // The clocks count by the times of the logbook, up to what was written last.
        let written = home.looks().last().map(|look| look.at).into_iter();
        let until = written.chain(home.off().iter().filter_map(|b| home.off_since(b))).max();
        for (n, breaker) in self.breakers.iter().enumerate() {
            if let (Some(since), Some(until)) = (home.off_since(breaker), until) {
                search.off_for(n, (until.unix_ms() - since.unix_ms()) as f64 / 1000.0);
            }
        }
        let now = home.switched().len();
        // A look that only shows that a breaker latched is not yet one for which these were switched off.
        let tells = |p: &PointId| self.points.iter().position(|q| q == p).is_some_and(|p| self.telling[p]);
        let seen_since = home.looks().iter().rev().take_while(|look| look.moves == now).any(|look| tells(&look.point));
        search.fresh = !search.off.is_empty() && !seen_since;
        let looked = home.looks().last().is_some_and(|look| look.moves == now);
        let last = home.looks().last().and_then(|look| home.point(&look.point)).map(|point| &point.room);
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
fn label_of(home: &Home, breaker: &Breaker, rooms: &[RoomId]) -> OldLabel {
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
    let appliance = home.points().find(|p| matches!(p.kind, PointKind::Appliance | PointKind::Alarm) && in_claim(&p.name));
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
    let room = home.rooms().position(|room| {
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
pub fn likely(home: &Home, known: &[(PointId, Verdict)]) -> BTreeMap<PointId, Likely> {
    likely_at(home, AtHome::of(home, known, home.way()).as_ref())
}

/// The same, where the case is at hand.
pub(crate) fn likely_at(home: &Home, at_home: Option<&AtHome>) -> BTreeMap<PointId, Likely> {
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

/// What each school would take for what is left, by playing it on wirings drawn from what is believed. The same
/// logbook gives the same answer.
pub fn schools(home: &Home, known: &[(PointId, Verdict)], way: Way) -> Vec<SchoolMinutes> {
    const SAMPLES: u64 = 3;
    let Some(at_home) = AtHome::of(home, known, way) else { return Vec::new() };
    let belief = at_home.belief(home);
    let costs = pace(home, way);
    let open: Vec<usize> = (0..at_home.points.len()).filter(|p| at_home.proven[*p].is_none()).collect();
    if open.is_empty() {
        return Vec::new();
    }
    let may = at_home.case.may_be_off();
    let case = Case { points: open.iter().map(|p| at_home.case.points[*p].clone()).collect(), ..at_home.case.clone() };
    let mut rng = Pcg64Mcg::new(7);
    let taught: Vec<School> = School::ALL.into_iter().filter(|s| *s != School::ToneTracer || way.tone).collect();
    let mut minutes = vec![0.0; taught.len()];
    for sample in 0..SAMPLES {
        let points = open
            .iter()
            .map(|p| {
                // Only what can be proven takes time: drawn among the breakers that may be off.
                let row = belief.of(*p);
                let total: f64 = may.iter().map(|b| row[b]).sum();
                let mut left = rng.random::<f64>() * total;
                let drawn = may.iter().find(|b| {
                    left -= row[*b];
                    left <= 0.0
                });
                HousePoint {
                    room: at_home.case.points[*p].room,
                    kind: at_home.case.points[*p].class,
                    name: String::new(),
                    burnt_out: false,
                    breaker: drawn.or_else(|| may.iter().next()).unwrap_or(0),
                    max_off_min: at_home.case.points[*p].max_dark_s.map(|s| s / 60.0),
                }
            })
            .collect();
        let house = house_of(&case, points);
        for (n, school) in taught.iter().enumerate() {
            minutes[n] += play_as(&house, &case, way.crew(), costs, school.strategy(), sample, &mut || 0.0).minutes;
        }
    }
    taught
        .into_iter()
        .zip(minutes)
        .map(|(school, total)| SchoolMinutes { school, minutes: (total / SAMPLES as f64 * 10.0).round() / 10.0 })
        .collect()
}

/// A house for the referee: what the crew sees, and a wiring.
fn house_of(case: &Case, points: Vec<HousePoint>) -> House {
    let blank = HouseLabel { says: String::new(), room: None, kind: None, name: String::new() };
    House {
        format: "wayfinder-practice-house".into(),
        version: 1,
        id: "here".into(),
        rooms: vec![String::new(); case.rooms],
        walk_s: case.walk_s.clone(),
        next_to: case.next_to.clone(),
        panel_room: 0,
        breakers: case.breakers(),
        panel_neighbours: case.beside.clone(),
        must_stay_on: case.stay_on.iter().collect(),
        labels: vec![blank; case.breakers()],
        points,
    }
}

/// Minutes that a way of tracing takes in the score, were the home wired so. `None` where there is nothing to prove.
/// `fed`: the breaker of each point, as far as one feeds it.
pub(crate) fn minutes_by(home: &Home, way: Way, fed: &BTreeMap<PointId, BreakerId>, strategy: Strategy) -> Option<f64> {
    let open = |id: &PointId| {
        (
            id.clone(),
            Verdict::Open { possible: home.breakers().map(|b| b.id.clone()).collect(), seen_lit: true, unlatched: Vec::new() },
        )
    };
    let known: Vec<(PointId, Verdict)> = home.points().map(|p| open(&p.id)).collect();
    let at_home = AtHome::of(home, &known, way)?;
    let mut points = Vec::new();
    let mut seen = Vec::new();
    for (p, id) in at_home.points.iter().enumerate() {
        let Some(breaker) = fed.get(id).and_then(|b| at_home.breakers.iter().position(|other| other == b)) else { continue };
        let case = &at_home.case.points[p];
        points.push(HousePoint {
            room: case.room,
            kind: case.class,
            name: String::new(),
            burnt_out: false,
            breaker,
            max_off_min: None,
        });
        seen.push(CasePoint { max_dark_s: None, ..case.clone() });
    }
    let case = Case { points: seen, ..at_home.case.clone() };
    let house = house_of(&case, points);
    Some(play_as(&house, &case, way.crew(), pace(home, way), strategy, 0, &mut || 0.0).minutes)
}

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

/// For each open point its breakers, the likeliest first; and the walk to it from where somebody looked last.
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
    let mut hunted: Vec<Hunted> = open
        .map(|p| {
            let row = search.belief.of(p);
            let mut order: Vec<usize> = may.iter().filter(|b| at_home.possible[p].has(*b)).collect();
            order.sort_by(|a, b| row[*b].total_cmp(&row[*a]));
            let case = &at_home.case.points[p];
            Hunted {
                point: at_home.points[p].clone(),
                walk_s: search.walk_s(search.at, Place::Room(case.room)),
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
        p.zip(b).is_some_and(|(p, b)| belief.of(p)[b] >= super::SURE)
    };
    fresh.into_iter().filter(|(point, breaker)| !sure(point, breaker)).map(|(point, _)| point.clone()).collect()
}
