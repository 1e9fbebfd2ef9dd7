//! A checker that knows only the definition of proven, to hold the verdicts against.

use std::collections::{BTreeMap, BTreeSet};

use wayfinder_core::*;

/// Knows only what no proof can do without: two looks at one point, lit and later dark, whose breakers that were off
/// differ by exactly one, the others off from the one look to the other, both since the point was last mended; every look from
/// that lit one on was dark with that breaker off and lit with it on; and every GFCI that was tripped in between, this point not
/// seen lit meanwhile, has shown that it was reset: it, or what was dark meanwhile, or this point was lit since. What was dark
/// while one was tripped counts not at all.
pub(crate) fn naively_singled_out(book: &Logbook) -> BTreeMap<PointId, BTreeSet<BreakerId>> {
    book.home().house().points().map(|p| (p.id.clone(), singled_out_at(book, &p.id))).collect()
}

/// Which point was seen, and whether it was lit.
pub(crate) fn seen_lit(fact: &Fact) -> Option<(&PointId, bool)> {
    match fact {
        Fact::PointSeen(f) => Some((&f.point, f.seen == Seen::Lit)),
        Fact::VoltsRead(f) if f.volts < 10.0 => Some((&f.point, false)),
        Fact::VoltsRead(f) if f.volts >= 100.0 => Some((&f.point, true)),
        _ => None,
    }
}

/// A line as the acts that it tells of: a point that is watched is seen lit, then with the breaker off, then with it on again; what is
/// wired to another breaker is watched, then seen once more, found anew; a job that ends is all that it changes.
pub(crate) fn acts(fact: &Fact) -> Vec<Fact> {
    let f = match fact {
        Fact::ChangeWatched(f) => f,
        Fact::JobEnded(f) => return f.changes.iter().flat_map(acts).collect(),
        Fact::PointsRewired(f) if f.tested && !f.points.is_empty() => {
            let watch = |point: &PointId| {
                let (point, breaker) = (point.clone(), f.breaker.clone());
                acts(&Fact::ChangeWatched(ChangeWatched { point, breaker, saw: Change::CameBack, since: None }))
            };
            let seen = |point: &PointId, seen, anew| Fact::from(PointSeen { point: point.clone(), seen, since: None, anew });
            let switched = |to| Fact::from(BreakerSwitched { breaker: f.breaker.clone(), to });
            let mut all = vec![fact.clone()];
            all.extend(f.points.iter().flat_map(watch));
            all.push(switched(State::Off));
            all.extend(f.points.iter().map(|point| seen(point, Seen::Dark, true)));
            all.push(switched(State::On));
            all.extend(f.points.iter().map(|point| seen(point, Seen::Lit, false)));
            return all;
        }
        _ => return vec![fact.clone()],
    };
    let seen = |seen| Fact::from(PointSeen { point: f.point.clone(), seen, since: None, anew: false });
    let switched = |to| Fact::from(BreakerSwitched { breaker: f.breaker.clone(), to });
    let (out, back) = match f.saw {
        Change::CameBack => (Seen::Dark, Seen::Lit),
        Change::StayedOut => (Seen::Dark, Seen::Dark),
        Change::StayedLit => (Seen::Lit, Seen::Lit),
    };
    vec![seen(Seen::Lit), switched(State::Off), seen(out), switched(State::On), seen(back)]
}

/// What one point was singled out on.
fn singled_out_at(book: &Logbook, point: &PointId) -> BTreeSet<BreakerId> {
    struct Look {
        nth: usize,
        lit: bool,
        off: BTreeSet<BreakerId>,
        moment: usize,
        at: i64,
    }
    // A breaker is without power when it is off, or when the breaker that feeds its panel is.
    fn dead(home: &Home, off: &BTreeSet<BreakerId>) -> BTreeSet<BreakerId> {
        let without = |breaker: &Breaker| {
            let mut at = Some(breaker);
            while let Some(b) = at {
                if off.contains(&b.id) {
                    return true;
                }
                at = home.panels().panel(&b.panel).and_then(|p| p.details.fed_by.as_ref()).and_then(|f| home.panels().breaker(f));
            }
            false
        };
        off.iter().cloned().chain(home.panels().breakers().filter(|b| without(b)).map(|b| b.id.clone())).collect()
    }
    struct Trip {
        device: PointId,
        nth: usize,
        reset: Option<usize>,
        seen: BTreeMap<PointId, bool>,
        /// When something showed that it was reset.
        power: Vec<usize>,
    }
    let mut trips: Vec<Trip> = Vec::new();
    let (mut off, mut history, mut looks) = (BTreeSet::new(), Vec::new(), Vec::<Look>::new());
    let mut moved: Vec<BreakerId> = Vec::new();
    let mut taken_out: BTreeSet<BreakerId> = BTreeSet::new();
    let mut handles: Vec<Option<EntryId>> = Vec::new();
    let (mut restart, mut last_lit) = (0, i64::MIN);
    let mut out = false;
    let mut lit_at: BTreeMap<PointId, usize> = BTreeMap::new();
    let lines = book.lines().filter(|line| !book.is_struck(&line.entry.id));
    for (line, fact) in lines.flat_map(|line| acts(&line.entry.fact).into_iter().map(move |fact| (line, fact))) {
        let nth = line.seq as usize;
        match &fact {
            Fact::BreakerRemoved(f) => drop(taken_out.insert(f.breaker.clone())),
            Fact::BreakersJoined(f) => drop(taken_out.insert(f.with.clone())),
            Fact::BreakerPlaced(f) => drop(taken_out.remove(&f.breaker)),
            _ => {}
        }
        if let Some((at, lit)) = seen_lit(&fact) {
            if lit {
                last_lit = line.entry.at.unix_ms();
                lit_at.insert(at.clone(), nth);
            }
            let mut is_tripped = false;
            for trip in &mut trips {
                if trip.reset.is_none() {
                    is_tripped = true;
                    trip.seen.insert(at.clone(), lit);
                } else if lit && (at == point || at == &trip.device || trip.seen.get(at) == Some(&false)) {
                    trip.power.push(nth);
                }
            }
            if at == point && (lit || !is_tripped) {
                if off.is_empty() {
                    if lit && out {
                        restart = looks.len();
                    }
                    out = !lit;
                }
                looks.push(Look { nth, lit, off: off.clone(), moment: history.len(), at: line.entry.at.unix_ms() });
            }
        }
        match &fact {
            Fact::DeviceWorked(f)
                if f.worked == Worked::Tripped && !trips.iter().any(|trip| trip.reset.is_none() && trip.device == f.device) =>
            {
                let (device, seen) = (f.device.clone(), BTreeMap::new());
                trips.push(Trip { device, nth, reset: None, seen, power: Vec::new() });
            }
            Fact::DeviceWorked(f) if f.worked == Worked::Reset => {
                for trip in trips.iter_mut().rev().filter(|trip| trip.device == f.device).take(1) {
                    trip.reset = Some(nth);
                }
            }
            Fact::DeviceWorked(f) if f.worked == Worked::FoundTripped => {
                let volts = |id: &PointId| book.home().house().point(id).map(|point| point.volts);
                if volts(point) == volts(&f.device) {
                    let own = looks.iter().filter(|look| look.lit).map(|look| look.nth).max();
                    let sure = own.max(lit_at.get(&f.device).copied()).unwrap_or(0);
                    let an_hour_ago = line.entry.at.unix_ms() - 3_600_000;
                    let kept = |look: &Look| look.lit || look.nth <= sure || look.at <= an_hour_ago;
                    restart = looks[..restart].iter().filter(|look| kept(look)).count();
                    looks.retain(kept);
                }
                let (device, reset) = (f.device.clone(), Some(nth));
                trips.push(Trip { device, nth, reset, seen: BTreeMap::new(), power: Vec::new() });
            }
            Fact::PointSkipped(f) => {
                for trip in trips.iter_mut().filter(|trip| trip.reset.is_none()) {
                    trip.seen.remove(&f.point);
                }
            }
            Fact::BreakerSwitched(f) => {
                let changed = if f.to == State::On { off.remove(&f.breaker) } else { off.insert(f.breaker.clone()) };
                if changed {
                    history.push(dead(book.home(), &off));
                    moved.push(f.breaker.clone());
                    handles.push(Some(line.entry.id.clone()));
                }
            }
            // It hangs on another circuit since: nothing before counts.
            Fact::PointsRewired(f) => {
                lit_at.retain(|lit, _| !f.points.contains(lit));
                if f.points.contains(point) {
                    looks.clear();
                    (restart, out) = (0, false);
                }
            }
            Fact::PowerBlinked(_) => {
                let sure = last_lit.min(line.entry.at.unix_ms() - 120_000);
                let kept = |look: &Look| look.lit || look.at <= sure;
                restart = looks[..restart].iter().filter(|look| kept(look)).count();
                looks.retain(kept);
            }
            Fact::WrongHandle(f) => {
                if let Some(nth) = handles.iter().position(|line| line.as_ref() == Some(&f.line)) {
                    let next = (nth + 1..moved.len()).find(|n| moved[*n] == moved[nth]).unwrap_or(usize::MAX);
                    let kept = |look: &Look| look.moment <= nth || look.moment > next;
                    restart = looks[..restart].iter().filter(|look| kept(look)).count();
                    looks.retain(kept);
                    // It never moved, and stands as before.
                    if next == usize::MAX && !taken_out.contains(&moved[nth]) {
                        let breaker = moved[nth].clone();
                        if !off.remove(&breaker) {
                            off.insert(breaker.clone());
                        }
                        history.push(dead(book.home(), &off));
                        moved.push(breaker);
                        handles.push(None);
                    }
                }
            }
            // Of two that become one, a look with one of them off says nothing about the other.
            Fact::BreakersJoined(f) if !looks.iter().any(|look| !look.lit && look.off.contains(&f.breaker)) => {
                for look in looks.iter_mut().filter(|look| look.lit && !look.off.contains(&f.with)) {
                    look.off.remove(&f.breaker);
                }
            }
            _ => {}
        }
    }
    for look in &mut looks {
        look.off = dead(book.home(), &look.off);
    }
    let mut looks = &looks[restart..];
    // Where only breakers that are gone fit what was seen, the count begins anew after them.
    let gone = |b: &&BreakerId| book.home().panels().breaker(b).is_none();
    for last in (0..looks.len()).rev() {
        if looks[last].off.iter().any(|b| gone(&b)) {
            let then = &looks[..=last];
            let heard_of: BTreeSet<&BreakerId> = then.iter().flat_map(|look| look.off.iter()).collect();
            let fit: Vec<_> =
                heard_of.into_iter().filter(|b| then.iter().all(|look| look.off.contains(*b) != look.lit)).collect();
            if then.iter().any(|look| !look.lit) && !fit.is_empty() && fit.iter().all(gone) {
                looks = &looks[last + 1..];
            }
            break;
        }
    }
    let mut singled_out = BTreeSet::new();
    for (n, lit) in looks.iter().enumerate().filter(|(_, look)| look.lit) {
        for dark in looks[n..].iter().filter(|look| !look.lit) {
            let more: Vec<_> = dark.off.difference(&lit.off).collect();
            let [breaker] = more.as_slice() else { continue };
            let stayed = history[lit.moment..dark.moment].iter().all(|then| lit.off.is_subset(then));
            let agrees = looks[n..].iter().all(|look| look.off.contains(*breaker) != look.lit);
            let reset = |trip: &Trip| {
                let told = |n: &usize| trip.reset.is_some_and(|reset| reset < *n) && *n < dark.nth;
                trip.seen.get(point) == Some(&true) || trip.power.iter().any(told)
            };
            let reset = trips.iter().filter(|trip| (lit.nth..dark.nth).contains(&trip.nth)).all(reset);
            let is_there = book.home().panels().breaker(breaker).is_some();
            if stayed && lit.off.is_subset(&dark.off) && agrees && reset && is_there {
                singled_out.insert((*breaker).clone());
            }
        }
    }
    singled_out
}
