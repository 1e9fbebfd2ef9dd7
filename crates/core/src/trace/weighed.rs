//! A home's lines weighed one after the other, in the order of their times. A state of the home goes on from what the one before
//! kept, so that a line more costs a line, and one struck out the lines after it.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use super::at_home::case_of;
use super::reset::not_reset;
use super::verdict::{counted, looks_by_power};
use crate::logbook::{Instrument, Look, Watched};
use crate::model::{BreakerId, Moment, PointId, RoomId, Seen, State};
use crate::proof::{Case, Cause, Costs, MOST_BREAKERS, OffSet, Way, Weigh};
use crate::study::Study;

struct WeighedOnce(Option<Weighed>);

/// The home with its lines weighed; `None` where there is nothing to weigh, or more than can be.
pub(super) fn weighed(home: &Study) -> Option<&Weighed> {
    home.once(|| WeighedOnce(Weighed::of(home))).0.as_ref()
}

/// A home by numbers, and its trace weighed line by line.
pub(super) struct Weighed {
    pub(super) case: Case,
    /// The breakers by number; those that are gone stand at the end.
    pub(super) breakers: Vec<BreakerId>,
    pub(super) points: Vec<PointId>,
    pub(super) rooms: Vec<RoomId>,
    pub(super) weigh: Weigh,
}

impl Weighed {
    fn of(home: &Study) -> Option<Self> {
        let looks = looks_by_power(home);
        let breakers = breakers_of(home, looks);
        let points: Vec<PointId> = home.house().points().map(|p| p.id.clone()).collect();
        if breakers.is_empty() || points.is_empty() || breakers.len() > MOST_BREAKERS {
            return None;
        }
        let rooms: Vec<RoomId> = home.house().rooms().map(|room| room.id.clone()).collect();
        let case = case_of(home, &breakers, &rooms, home.setup());
        let lines = lines(home, looks, &breakers, &points);
        let kept = Arc::new(Kept::after(home.before::<Kept>().as_deref(), case, lines));
        let weigh = kept.now().weigh.clone();
        home.hand_on(Arc::clone(&kept));
        let mut weighed = Self { case: kept.case.clone(), breakers, points, rooms, weigh };
        weighed.weigh.infer_all(&weighed.case);
        if !home.trace().trips().is_empty() {
            weighed.behind_a_trip(home, looks);
        }
        Some(weighed)
    }

    /// What rests on a GFCI that was tripped meanwhile, and was not seen to give power again, is to be seen anew.
    fn behind_a_trip(&mut self, home: &Study, looks: &[Look]) {
        let all = super::verdict::by_point(looks);
        for (p, point) in self.points.iter().enumerate() {
            let own = counted(home, all.get(point).map_or(&[][..], Vec::as_slice));
            let look = |mark: usize| own.iter().find(|look| look.place == mark);
            let holds = |cause: &Cause| {
                look(cause.lit).zip(look(cause.dark)).is_some_and(|(lit, dark)| not_reset(home, &own, lit, Some(dark)).is_none())
            };
            if self.weigh.belief().proven(p).is_some() && !self.weigh.causes(p).iter().any(holds) {
                self.weigh.see_anew(p);
            }
        }
    }

    /// The number of a breaker.
    pub(super) fn breaker(&self, breaker: &BreakerId) -> Option<usize> {
        self.breakers.iter().position(|b| b == breaker)
    }

    /// The numbers of a point and a breaker.
    pub(super) fn numbers(&self, point: &PointId, breaker: &BreakerId) -> Option<(usize, usize)> {
        self.points.iter().position(|p| p == point).zip(self.breaker(breaker))
    }
}

/// A line of the logbook as the rule takes it, with the seconds since the one before.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Taken {
    /// A look.
    Saw { seconds: f64, point: usize, dark: bool, way: Way, by_volts: bool, mark: usize },
    /// A handle was moved: what was without power then.
    Moved { seconds: f64, off: OffSet },
    /// A breaker was found tripped: what was without power then.
    Tripped { seconds: f64, breaker: usize, off: OffSet },
}

/// The lines that count, by number.
fn lines(home: &Study, looks: &[Look], breakers: &[BreakerId], points: &[PointId]) -> Vec<Taken> {
    let number: BTreeMap<&BreakerId, usize> = breakers.iter().enumerate().map(|(n, b)| (b, n)).collect();
    let places: BTreeMap<&PointId, usize> = points.iter().enumerate().map(|(n, p)| (p, n)).collect();
    let off_set = |off: &BTreeSet<BreakerId>| -> OffSet { off.iter().filter_map(|b| number.get(b).copied()).collect() };
    let counts = counts(home, looks);
    let leads_on = !home.panels().none_leads_on();
    let (costs, mut clock) = (Costs::default(), Clock { then: None, made_up: home.practice().is_some() });
    let mut last_looks: BTreeMap<&str, &Look> = BTreeMap::new();
    let mut taken = Vec::with_capacity(looks.len());
    let mut left = looks.iter().peekable();
    let switchings = home.switchings().all();
    for moves in 0..=switchings.len() {
        while let Some(look) = left.next_if(|look| look.moves == moves) {
            let last = last_looks.insert(&look.by, look).filter(|last| last.point == look.point);
            // A made-up house is walked through in no time.
            if !clock.made_up && last.is_some_and(|last| is_tapped_twice(last, look)) {
                continue;
            }
            let moved = look.moves.checked_sub(1).and_then(|last| number.get(&switchings[last].breaker));
            let way = match (look.watched, moved) {
                (Some(Watched { is_back: false, .. }), Some(breaker)) => Way::Watched(*breaker),
                (Some(_), _) => Way::InPlace,
                (None, _) if last.is_some() && !look.anew => Way::InPlace,
                (None, _) => Way::Anew,
            };
            let Some(point) = places.get(&look.point).copied().filter(|_| counts[look.place]) else { continue };
            taken.push(Taken::Saw {
                seconds: clock.goes_to(look.at, if look.watched.is_some() { costs.glance_s } else { costs.plug_s }),
                point,
                dark: look.seen == Seen::Dark,
                way,
                by_volts: look.instrument == Some(Instrument::Meter),
                mark: look.place,
            });
        }
        let Some(switching) = switchings.get(moves) else { break };
        let seconds = clock.goes_to(switching.at, costs.flip_s);
        let off = if leads_on { off_set(&home.panels().dead_behind(&switching.off)) } else { off_set(&switching.off) };
        taken.push(match number.get(&switching.breaker) {
            Some(breaker) if switching.to == State::Tripped => Taken::Tripped { seconds, breaker: *breaker, off },
            _ => Taken::Moved { seconds, off },
        });
    }
    taken
}

/// Whether the second of two looks in a row is the same tap twice: nobody looks again within a second.
fn is_tapped_twice(first: &Look, second: &Look) -> bool {
    const MS: u64 = 1000;
    second.seen == first.seen && second.moves == first.moves && second.at.unix_ms().abs_diff(first.at.unix_ms()) < MS
}

/// The time of the lines as it goes on. A made-up house is walked through in no time, so there each line takes what it would.
struct Clock {
    then: Option<Moment>,
    made_up: bool,
}

impl Clock {
    /// Seconds to a line of this moment, which takes so many as a rule. Clocks of several phones may stand a little apart.
    fn goes_to(&mut self, at: Moment, as_a_rule_s: f64) -> f64 {
        let since = self.then.map_or(0.0, |then| (at.unix_ms() - then.unix_ms()).max(0) as f64 / 1000.0);
        self.then = Some(self.then.map_or(at, |then| then.max(at)));
        if self.made_up { as_a_rule_s } else { since }
    }
}

/// The trace after some of its lines.
#[derive(Debug, Clone)]
struct AfterLines {
    weigh: Weigh,
    /// A handle moved since it was worked out what is believed.
    stale: bool,
}

impl AfterLines {
    fn take(&mut self, case: &Case, line: Taken) {
        match line {
            Taken::Saw { seconds, point, dark, way, by_volts, mark } => {
                self.weigh.passed(seconds);
                if std::mem::take(&mut self.stale) {
                    self.weigh.infer(case);
                }
                self.weigh.saw(case, point, dark, way, by_volts, mark);
                if self.weigh.waits(point).is_some() {
                    self.weigh.infer(case);
                }
            }
            Taken::Moved { seconds, off } => {
                self.weigh.passed(seconds);
                self.weigh.switched(off);
                self.stale = true;
            }
            Taken::Tripped { seconds, breaker, off } => {
                self.weigh.passed(seconds);
                self.weigh.tripped(case, breaker, off);
                self.stale = true;
            }
        }
    }
}

/// How much farther back each state is kept than the next one: a line more goes on from the last state, a line struck out from
/// one that is at most so many times farther back than it.
const FARTHER: usize = 8;

/// The trace of one state of a home, kept for the next: after all of its lines, and after fewer.
#[derive(Debug)]
struct Kept {
    case: Case,
    lines: Vec<Taken>,
    /// By how many lines they have taken in, fewest first; the last has all.
    states: Vec<(usize, Arc<AfterLines>)>,
}

impl Kept {
    /// Goes on from what the state before kept, as far as its lines are the same; else from the first line.
    fn after(before: Option<&Self>, case: Case, lines: Vec<Taken>) -> Self {
        let before = before.filter(|before| before.case == case);
        let same = before.map_or(0, |before| before.lines.iter().zip(&lines).take_while(|(a, b)| a == b).count());
        let mut states: Vec<(usize, Arc<AfterLines>)> =
            before.map_or(&[][..], |before| &before.states).iter().filter(|(count, _)| *count <= same).cloned().collect();
        // Whoever traces, and a tone tracer's word, change nothing of what is proven.
        let begun = || AfterLines { weigh: Weigh::new(&case, false), stale: true };
        let (mut count, mut state) =
            states.last().map_or_else(|| (0, begun()), |(count, state)| (*count, AfterLines::clone(state)));
        while count < lines.len() {
            state.take(&case, lines[count]);
            count += 1;
            if is_kept(lines.len() - count) {
                states.push((count, Arc::new(state.clone())));
            }
        }
        if states.last().is_none_or(|(last, _)| *last < count) {
            states.push((count, Arc::new(state)));
        }
        let mut kept: Vec<(usize, Arc<AfterLines>)> = Vec::new();
        // The newest first; of those at about the same distance the farthest.
        for (count, state) in states.into_iter().rev() {
            let class = |count: usize| (lines.len() - count).checked_ilog(FARTHER);
            match kept.last_mut() {
                Some(last) if class(last.0) == class(count) => *last = (count, state),
                _ => kept.push((count, state)),
            }
        }
        kept.reverse();
        Self { case, lines, states: kept }
    }

    fn now(&self) -> &AfterLines {
        // There is one at least: the last has all lines.
        &self.states[self.states.len() - 1].1
    }
}

/// Whether the state is kept that lacks so many lines.
fn is_kept(lacks: usize) -> bool {
    lacks == 0 || lacks.checked_ilog(FARTHER).is_some_and(|n| FARTHER.pow(n) == lacks)
}

/// For each look, by its place, whether it counts: where a breaker is gone, what showed only that does no more.
fn counts(home: &Study, looks: &[Look]) -> Vec<bool> {
    let mut counts = vec![true; looks.len()];
    let gone = |look: &&Look| look.off.iter().any(|b| home.panels().breaker(b).is_none());
    if !looks.iter().any(|look| gone(&look)) {
        return counts;
    }
    for own in super::verdict::by_point(looks).into_values() {
        let kept = counted(home, &own);
        let from = kept.first().map_or(usize::MAX, |look| look.place);
        // Only a breaker that is gone cuts off what was before; a mend is weighed by itself.
        if own.iter().any(gone) {
            own.iter().filter(|look| look.place < from).for_each(|look| counts[look.place] = false);
        }
    }
    counts
}

/// Every breaker; then those that are gone and were off at a look.
fn breakers_of(home: &Study, looks: &[Look]) -> Vec<BreakerId> {
    let mut breakers: Vec<BreakerId> = home.panels().breakers().map(|b| b.id.clone()).collect();
    let mut gone: std::collections::BTreeSet<&BreakerId> = std::collections::BTreeSet::new();
    let mut last: Option<&Look> = None;
    for look in looks {
        if !last.is_some_and(|last| std::sync::Arc::ptr_eq(&last.off, &look.off)) {
            gone.extend(look.off.iter().filter(|b| home.panels().breaker(b).is_none()));
        }
        last = Some(look);
    }
    breakers.extend(gone.into_iter().cloned());
    breakers
}
