//! The home as the proof and the search see it: breakers, points and rooms by number, and what is likely.

use std::collections::BTreeMap;
use std::sync::OnceLock;

use super::at_the_handle::BIG_AMPS;
use super::finish::MOST_LOOKS;
use super::next_step::may_be_switched;
use super::pace::pace;
use super::weighed::weighed;
use super::{Verdict, verdicts};
use crate::logbook::{Instrument, Look};
use crate::model::delicate::is_delicate;
use crate::model::{Breaker, BreakerId, Interior, PointId, PointKind, RoomId, State, TraceSetup, Volts};
use crate::proof::{Case, CasePoint, Costs, Crew, OffSet, OldLabel, PointClass, Weigh};
use crate::search::{Place, Search};
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

/// In a split-bus panel a breaker of two poles may feed the lower half, whichever it is: switched off, it darkens
/// what other breakers feed, so it proves nothing.
fn may_lead_on(home: &Study, breaker: &Breaker) -> bool {
    breaker.poles() > 1 && home.panels().panel(&breaker.panel).is_some_and(|panel| panel.details.interior == Interior::SplitBus)
}

pub(super) fn case_of(home: &Study, ids: &[BreakerId], rooms: &[RoomId], setup: TraceSetup) -> Case {
    let walk = walking(home);
    let seconds = |walks: &Vec<crate::walking::Walk>| walks.iter().map(|w| w.seconds).collect::<Vec<f64>>();
    // Most panels are one; from several, the first is where somebody stands.
    let first = home.panels().all().next();
    let panel_s = first.and_then(|panel| walk.from_panel.get(&panel.id)).map_or_else(|| vec![8.0; rooms.len()], seconds);
    let walk_s: Vec<Vec<f64>> = walk.between.iter().map(seconds).collect();
    let next_to = (0..rooms.len())
        .map(|n| {
            // Next door is what one walks to in a few seconds; without a plan nothing is.
            let near = |m: &usize| *m != n && walk.between[n][*m].drawn && walk_s[n][*m] <= 5.0;
            (0..rooms.len()).filter(near).collect()
        })
        .collect();
    let breakers: Vec<Option<&Breaker>> = ids.iter().map(|id| home.panels().breaker(id)).collect();
    let beside = |own: Option<&Breaker>| -> Vec<usize> {
        let Some(own) = own else { return Vec::new() };
        breakers.iter().enumerate().filter(|(_, other)| other.is_some_and(|other| own.is_beside(other))).map(|(n, _)| n).collect()
    };
    let which = |want: &dyn Fn(&Breaker) -> bool| -> OffSet {
        breakers.iter().enumerate().filter(|(_, b)| b.is_none_or(want)).map(|(n, _)| n).collect()
    };
    // Several walk at the same time: to each way there is a like part for each.
    let shared = |seconds: f64| seconds / setup.looking();
    let room_of = |id: &RoomId| rooms.iter().position(|room| room == id).unwrap_or(0);
    Case {
        rooms: rooms.len(),
        walk_s: walk_s.into_iter().map(|row| row.into_iter().map(shared).collect()).collect(),
        panel_s: panel_s.into_iter().map(shared).collect(),
        next_to,
        beside: breakers.iter().map(|b| beside(*b)).collect(),
        labels: breakers.iter().map(|b| b.map_or(OldLabel::Spare, |b| label_of(home, b, rooms))).collect(),
        two_pole: breakers.iter().map(|b| b.is_some_and(|b| b.poles() > 1)).collect(),
        stay_on: which(&|b| b.is_left_off() || !may_be_switched(home, b)),
        leads_on: which(&|b| may_lead_on(home, b)),
        gone: which(&|_| false),
        delicate: which(&|b| (b.poles() > 1 && b.amps.value() >= BIG_AMPS) || b.claim.as_deref().is_some_and(is_delicate)),
        points: home
            .house()
            .points()
            .map(|p| CasePoint {
                room: room_of(&p.room),
                class: class_of(p.kind),
                name: p.name.clone(),
                high: p.volts == Volts::new(240),
                max_dark_s: p.details.dark_minutes.map(|minutes| f64::from(minutes) * 60.0),
                by_itself: p.details.goes_by.is_some_and(|by| !by.shows_its_power()),
                // What may be dark only so long is mostly cooled, or a machine that runs.
                delicate: p.details.dark_minutes.is_some() || is_delicate(&p.name),
            })
            .collect(),
    }
}

/// The home as the search sees it, traced as it is set; `None` where there is nothing to search, or more than can be.
pub(super) fn at_home(home: &Study) -> Option<&AtHome> {
    home.once(|| Searched(AtHome::of(home, home.setup()))).0.as_ref()
}

/// A home as a case, with the ids behind its numbers.
pub(crate) struct AtHome {
    pub(crate) case: Case,
    pub(crate) breakers: Vec<BreakerId>,
    pub(crate) points: Vec<PointId>,
    pub(super) rooms: Vec<RoomId>,
    pub(super) setup: TraceSetup,
    weigh: OnceLock<Weigh>,
}

impl AtHome {
    /// The home as a crew with this setup searches it.
    pub(crate) fn of(home: &Study, setup: TraceSetup) -> Option<Self> {
        /// The most points times breakers that are searched together.
        const MOST: usize = 80_000;
        let weighed = weighed(home)?;
        if weighed.points.len() * weighed.breakers.len() > MOST {
            return None;
        }
        Some(Self {
            case: case_of(home, &weighed.breakers, &weighed.rooms, setup),
            breakers: weighed.breakers.clone(),
            points: weighed.points.clone(),
            rooms: weighed.rooms.clone(),
            setup,
            weigh: OnceLock::new(),
        })
    }

    fn off_set<'b>(&self, off: impl Iterator<Item = &'b BreakerId>) -> OffSet {
        off.filter_map(|id| self.breakers.iter().position(|b| b == id)).collect()
    }

    /// What the lines say, and what is believed by this crew with what a tone tracer told it.
    pub(super) fn weigh(&self, home: &Study) -> &Weigh {
        self.weigh.get_or_init(|| {
            let Some(weighed) = weighed(home) else { return Weigh::new(&self.case, self.setup.alone) };
            let mut weigh = weighed.weigh.clone();
            for (point, breaker) in home.trace().tones() {
                let p = self.points.iter().position(|p| p == point);
                if let Some((p, b)) = p.zip(self.breakers.iter().position(|b| b == breaker)) {
                    weigh.heard(&self.case, p, b, &Costs::default());
                }
            }
            weigh.believe(&self.case, self.setup.alone);
            weigh
        })
    }

    /// Whether switching can still tell something of a point, as it is known.
    pub(super) fn is_sought(&self, home: &Study, point: usize, known: &Verdict) -> bool {
        if home.trace().looks().iter().filter(|look| look.point == self.points[point]).take(MOST_LOOKS).count() == MOST_LOOKS {
            return false;
        }
        match known {
            Verdict::Open { possible, .. } if !possible.is_empty() => {
                possible.iter().any(|b| self.breakers.iter().position(|id| id == b).is_some_and(|b| !self.case.stay_on.has(b)))
            }
            // Lit with every breaker off once: one of these looks may have been a slip, at the likeliest of them.
            Verdict::Open { .. } => {
                let row = self.weigh(home).belief().of(point);
                let likeliest = (0..row.len()).max_by(|a, b| row[*a].total_cmp(&row[*b]));
                likeliest.is_some_and(|b| {
                    let id = &self.breakers[b];
                    let own = home.trace().looks().iter().filter(|look| look.point == self.points[point]);
                    !self.case.stay_on.has(b) && own.filter(|look| look.off.contains(id)).take(2).count() < 2
                })
            }
            Verdict::Contradictory { .. } => true,
            Verdict::Proven { .. } | Verdict::ByExclusion { .. } | Verdict::Out { .. } => false,
        }
    }

    /// The search as it stands.
    pub(crate) fn search(&self, home: &Study) -> Search<'_> {
        let crew = Crew::from(self.setup);
        let mut search = Search::with(&self.case, crew, pace(home, self.setup), self.weigh(home).clone());
        let known = verdicts(home);
        search.left_out = known.iter().enumerate().map(|(p, (_, known))| !self.is_sought(home, p, known)).collect();
        let proven = |p: usize| known[p].1.proven_on().is_some();
        if crew.plugs > 1 {
            // Testers stay where they were plugged in until the point is proven.
            let by_plug = |look: &&Look| matches!(look.instrument, Some(Instrument::PlugInTester | Instrument::Lamp));
            for look in home.trace().looks().iter().filter(by_plug) {
                if let Some(p) = self.points.iter().position(|p| *p == look.point).filter(|p| !proven(*p)) {
                    search.plug_in(p);
                }
            }
        }
        let left_off = |b: &&BreakerId| home.panels().breaker(b).is_some_and(Breaker::is_left_off);
        search.left_off = self.off_set(home.switchings().off().iter().filter(left_off));
        search.off = self.off_set(home.switchings().off().iter().filter(|b| !left_off(b)));
        for skip in home.trace().skips() {
            if let Some(p) = self.points.iter().position(|p| *p == skip.point) {
                search.passed_over.push((self.off_set(skip.off.iter()).but(search.left_off), p));
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
        let looked_now = || home.trace().looks().iter().rev().take_while(|look| look.moves == now);
        search.fresh = !search.off.is_empty() && looked_now().next().is_none();
        let numbers: Vec<usize> =
            home.trace().looks().iter().filter_map(|look| self.points.iter().position(|p| *p == look.point)).collect();
        let in_window = looked_now().filter_map(|look| self.points.iter().position(|p| *p == look.point)).collect();
        search.take_up(&numbers, in_window, self.cycled(home));
        search.watched = self.watched(home);
        let last = home.trace().looks().last().and_then(|look| home.house().point(&look.point)).map(|point| &point.room);
        search.at = match last.and_then(|room| self.rooms.iter().position(|r| r == room)) {
            // Alone, whoever switched last stands at the panel.
            Some(room) if !crew.alone || looked_now().next().is_some() => Place::Room(room),
            _ => Place::Panel,
        };
        search
    }

    /// The points that were watched, each with the breaker that was moved.
    fn watched(&self, home: &Study) -> Vec<(usize, usize)> {
        let all = home.switchings().all();
        let out = home.trace().looks().iter().filter(|look| look.watched.is_some_and(|watched| !watched.is_back));
        let numbers = out.filter_map(|look| {
            let moved = &all[look.moves - 1].breaker;
            self.points.iter().position(|p| *p == look.point).zip(self.breakers.iter().position(|b| b == moved))
        });
        numbers.collect()
    }

    /// The breakers that were pushed off and on again with nothing looked at in between.
    fn cycled(&self, home: &Study) -> Vec<usize> {
        let all = home.switchings().all();
        let pairs = all.windows(2).enumerate().filter(|(n, pair)| {
            let between = home.trace().looks().partition_point(|look| look.moves <= *n + 1)
                > home.trace().looks().partition_point(|look| look.moves <= *n);
            pair[0].breaker == pair[1].breaker && pair[1].to == State::On && !between
        });
        pairs.filter_map(|(_, pair)| self.breakers.iter().position(|b| *b == pair[0].breaker)).collect()
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

/// How likely each breaker feeds each point, as it is believed by everything that was seen; nothing where nothing is searched.
pub(crate) fn believed(home: &Study) -> BTreeMap<PointId, Vec<(BreakerId, f64)>> {
    let Some(at_home) = at_home(home) else { return BTreeMap::new() };
    let belief = at_home.weigh(home).belief();
    let of = |p: usize| at_home.breakers.iter().cloned().zip(belief.of(p).iter().copied()).collect();
    at_home.points.iter().enumerate().map(|(p, id)| (id.clone(), of(p))).collect()
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
    let belief = at_home.weigh(home).belief();
    let known = verdicts(home).iter().enumerate();
    let open =
        known.filter(|(_, (_, known))| matches!(known, Verdict::Open { .. } | Verdict::Contradictory { .. })).map(|(p, _)| p);
    open.filter_map(|p| {
        let (b, chance) = belief.of(p).iter().enumerate().max_by(|a, b| a.1.total_cmp(b.1))?;
        let percent = (chance * 100.0).floor().min(99.0) as u8;
        let is_there = home.panels().breaker(&at_home.breakers[b]).is_some();
        (percent >= LEAST_PERCENT && is_there)
            .then(|| (at_home.points[p].clone(), Likely { breaker: at_home.breakers[b].clone(), percent }))
    })
    .collect()
}
