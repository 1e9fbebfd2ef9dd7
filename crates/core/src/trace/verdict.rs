//! What is known of a point, from its looks.

use std::borrow::Cow;
use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use super::ask::doubtful;
use super::latched::Latched;
use super::reset::not_reset;
use crate::logbook::Look;
use crate::model::{Breaker, BreakerId, EntryId, Interior, PointId, Seen};
use crate::proof::{Off, single_cause};
use crate::study::Study;

/// What is known of which breaker feeds a point.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "verdict", rename_all = "snake_case")]
pub enum Verdict {
    /// Fed by this breaker: a lit look and a later dark one differ by it alone, and no look speaks against it.
    Proven {
        /// The breaker.
        breaker: BreakerId,
        /// The lit look.
        lit: EntryId,
        /// The dark look.
        dark: EntryId,
    },
    /// The looks cannot all be right for a point that one breaker feeds.
    Contradictory {
        /// What disagrees, as a sentence.
        because: String,
        /// The lines that disagree.
        lines: Vec<EntryId>,
    },
    /// Dark though every breaker is on: a switch, a lamp, a tripped GFCI, or no supply.
    Out {
        /// The look that showed it.
        line: EntryId,
    },
    /// Every other breaker was off while it stayed lit, and this one may never be off. No proof.
    ByExclusion {
        /// The breaker.
        breaker: BreakerId,
    },
    /// Not known yet.
    Open {
        /// The breakers that no look rules out.
        possible: Vec<BreakerId>,
        /// Seen lit with every breaker on.
        seen_lit: bool,
        /// Breakers that were switched on again between its lit look and its dark one and have not been seen to latch:
        /// all that keeps it from being proven.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        unlatched: Vec<BreakerId>,
        /// A GFCI behind which it may be, that was tripped between its lit look and its dark one and has not been seen to give
        /// power again: all that keeps it from being proven.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        unreset: Option<PointId>,
        /// The one look that would prove it: dark once, which may be a slip, and nothing else makes the breaker likely
        /// enough. All that keeps it from being proven is a second dark look.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        once: Option<EntryId>,
    },
}

impl Verdict {
    /// Nothing is known.
    pub(crate) const fn unknown() -> Self {
        Self::Open { possible: Vec::new(), seen_lit: false, unlatched: Vec::new(), unreset: None, once: None }
    }
    /// The breaker it is proven on.
    pub fn proven_on(&self) -> Option<&BreakerId> {
        match self {
            Self::Proven { breaker, .. } => Some(breaker),
            _ => None,
        }
    }
}

/// The verdict on one point.
pub fn verdict(home: &Study, point: &PointId) -> Verdict {
    let known = verdicts(home).iter().find(|(of, _)| of == point);
    known.map_or_else(Verdict::unknown, |(_, known)| known.clone())
}

struct Verdicts(Vec<(PointId, Verdict)>);

struct LooksByPower(Option<Vec<Look>>);

/// The looks with everything that was without power as off; see [`crate::Home::looks_by_power`].
pub(super) fn looks_by_power(home: &Study) -> &[Look] {
    let by_power = home.once(|| {
        LooksByPower(match home.home().looks_by_power() {
            Cow::Borrowed(_) => None,
            Cow::Owned(looks) => Some(looks),
        })
    });
    by_power.0.as_deref().unwrap_or(home.trace().looks())
}

/// The verdict on every point, in the order of entry.
pub fn verdicts(home: &Study) -> &[(PointId, Verdict)] {
    &home.once(|| Verdicts(Judge::new(home, &by_point(looks_by_power(home))).all())).0
}

/// What is known of each breaker, over all points.
pub(crate) struct OnBreaker {
    /// The points proven on it, in the order of entry.
    pub(crate) proven: Vec<PointId>,
    /// How many points that are not proven may be on it, as far as anybody knows.
    pub(crate) possible: usize,
}

struct ByBreaker(BTreeMap<BreakerId, OnBreaker>);

/// What is known of a breaker, over all points.
pub(crate) fn on_breaker<'a>(home: &'a Study, breaker: &BreakerId) -> &'a OnBreaker {
    const NOTHING: &OnBreaker = &OnBreaker { proven: Vec::new(), possible: 0 };
    home.once(|| ByBreaker(by_breaker(home))).0.get(breaker).unwrap_or(NOTHING)
}

fn by_breaker(home: &Study) -> BTreeMap<BreakerId, OnBreaker> {
    // Nothing is sure of a point whose looks disagree or that was dark with everything on: it may be on any.
    let anywhere = |(_, known): &&(PointId, Verdict)| matches!(known, Verdict::Contradictory { .. } | Verdict::Out { .. });
    let anywhere = verdicts(home).iter().filter(anywhere).count();
    let fresh = || OnBreaker { proven: Vec::new(), possible: anywhere };
    let mut all: BTreeMap<&BreakerId, OnBreaker> = home.panels().breakers().map(|breaker| (&breaker.id, fresh())).collect();
    for (point, verdict) in verdicts(home) {
        match verdict {
            Verdict::Proven { breaker, .. } => all.entry(breaker).or_insert_with(fresh).proven.push(point.clone()),
            Verdict::Open { possible, .. } => {
                for breaker in possible {
                    all.entry(breaker).or_insert_with(fresh).possible += 1;
                }
            }
            Verdict::ByExclusion { breaker } => all.entry(breaker).or_insert_with(fresh).possible += 1,
            Verdict::Contradictory { .. } | Verdict::Out { .. } => {}
        }
    }
    all.into_iter().map(|(breaker, on)| (breaker.clone(), on)).collect()
}

/// The looks at each point.
pub(super) fn by_point(looks: &[Look]) -> BTreeMap<&PointId, Vec<&Look>> {
    let mut of: BTreeMap<&PointId, Vec<&Look>> = BTreeMap::new();
    for look in looks {
        of.entry(&look.point).or_default().push(look);
    }
    of
}

/// All that is needed to judge the points of a home.
pub(super) struct Judge<'a> {
    home: &'a Study,
    /// Each point with its looks that count.
    counted: Vec<(&'a PointId, Vec<&'a Look>)>,
}

impl<'a> Judge<'a> {
    pub(super) fn new(home: &'a Study, looks: &BTreeMap<&PointId, Vec<&'a Look>>) -> Self {
        let own = |point| counted(home, looks.get(point).map_or(&[][..], Vec::as_slice));
        Self { home, counted: home.house().points().map(|point| (&point.id, own(&point.id))).collect() }
    }

    /// The verdict on every point. A point is proven by one dark look where everything else makes its breaker likely, too;
    /// else it may be a slip, and a second one is needed. What was proven with its help is then judged again.
    fn all(&self) -> Vec<(PointId, Verdict)> {
        let mut doubted = BTreeSet::new();
        let mut known = self.but_for(&doubted);
        loop {
            let once: Vec<usize> = (0..known.len()).filter(|n| self.is_once(*n, &known[*n].1)).collect();
            let fresh = doubtful(self.home, &known, &once);
            if fresh.is_empty() {
                return known;
            }
            let left = proven(&known) - fresh.len();
            doubted.extend(fresh);
            known = self.but_for(&doubted);
            // Nothing else hung on them: then what was believed of the others stands.
            if proven(&known) == left {
                return known;
            }
        }
    }

    /// Proven by a single dark look: others may fit, but without this one another breaker would, too.
    fn is_once(&self, n: usize, known: &Verdict) -> bool {
        let Some(breaker) = known.proven_on() else { return false };
        let (lit, dark): (Vec<&Look>, Vec<&Look>) = self.counted[n].1.iter().copied().partition(|look| look.seen == Seen::Lit);
        let singles_out =
            |dark: &&&Look| lit.iter().any(|lit| lit.place < dark.place && cause(self.home, lit, dark) == Some(breaker));
        dark.iter().filter(singles_out).take(2).count() == 1
    }

    /// The verdicts by looks alone, where a single dark look does not prove these points. Only a point that is proven shows
    /// that its breaker latched, and that may be what another proof waits for: so it is judged again until no more is
    /// proven.
    fn but_for(&self, doubted: &BTreeSet<usize>) -> Vec<(PointId, Verdict)> {
        let mut latched = Latched::new(self.home);
        let judge = |n: usize, latched: &Latched<'a>| {
            let (known, waits) = judge(self.home, &self.counted[n].1, latched);
            let known = match known {
                Verdict::Proven { breaker, dark, .. } if doubted.contains(&n) => {
                    let unlatched = Vec::new();
                    Verdict::Open { possible: vec![breaker], seen_lit: true, unlatched, unreset: None, once: Some(dark) }
                }
                known => known,
            };
            (known, waits)
        };
        let mut all: Vec<(Verdict, BTreeSet<BreakerId>)> = (0..self.counted.len()).map(|n| judge(n, &latched)).collect();
        let mut fresh: Vec<usize> = (0..all.len()).filter(|n| all[*n].0.proven_on().is_some()).collect();
        // What was proven last teaches of some breakers that they latched; only who waits for one of those is judged again.
        while !fresh.is_empty() {
            let mut taught: BTreeSet<&BreakerId> = BTreeSet::new();
            for n in &fresh {
                if let Some(breaker) = all[*n].0.proven_on().filter(|b| self.home.panels().breaker(b).is_some()) {
                    taught.extend(latched.learn(breaker, &self.counted[*n].1));
                }
            }
            let waits = |n: &usize| all[*n].0.proven_on().is_none() && all[*n].1.iter().any(|breaker| taught.contains(breaker));
            let again: Vec<usize> = (0..all.len()).filter(waits).collect();
            for n in &again {
                all[*n] = judge(*n, &latched);
            }
            fresh = again.into_iter().filter(|n| all[*n].0.proven_on().is_some()).collect();
        }
        self.counted.iter().zip(all).map(|((point, _), (known, _))| ((*point).clone(), known)).collect()
    }

    /// Which breakers were seen to latch, by what is proven.
    pub(super) fn latched(&self, known: &[(PointId, Verdict)]) -> Latched<'a> {
        let mut latched = Latched::new(self.home);
        for ((_, verdict), (_, looks)) in known.iter().zip(&self.counted) {
            if let Some(breaker) = verdict.proven_on().filter(|b| self.home.panels().breaker(b).is_some()) {
                latched.learn(breaker, looks);
            }
        }
        latched
    }
}

fn proven(known: &[(PointId, Verdict)]) -> usize {
    known.iter().filter(|(_, verdict)| verdict.proven_on().is_some()).count()
}

/// The looks that count. A point that was dark with everything on was dark for another cause than a
/// breaker (a switch, a lamp, a GFCI), and what it showed before says nothing sure; once it is seen lit
/// again with everything on, that cause has been mended and the count begins anew there. It also begins anew
/// after the last look with a breaker off that is no longer in the panel, where all before fits nothing but such
/// breakers: the wire is on another now.
pub(super) fn counted<'a>(home: &Study, looks: &[&'a Look]) -> Vec<&'a Look> {
    let looks = since_mended(looks);
    let gone = |b: &BreakerId| home.panels().breaker(b).is_none();
    let Some(last) = looks.iter().rposition(|look| look.off.iter().any(gone)) else { return looks };
    let (before, since) = looks.split_at(last + 1);
    let Some(dark) = before.iter().find(|look| look.seen == Seen::Dark) else { return looks };
    let mut fits = dark.off.iter().filter(|b| before.iter().all(|look| agrees(look, b))).peekable();
    if fits.peek().is_some() && fits.all(gone) { since.to_vec() } else { looks }
}

fn since_mended<'a>(looks: &[&'a Look]) -> Vec<&'a Look> {
    let mut from = 0;
    let mut was_out = false;
    for (n, look) in looks.iter().enumerate().filter(|(_, look)| look.off.is_empty()) {
        match look.seen {
            Seen::Dark => was_out = true,
            Seen::Lit if was_out => {
                from = n;
                was_out = false;
            }
            Seen::Lit => {}
        }
    }
    looks[from..].to_vec()
}

/// Whether a point fed by `breaker` alone would have looked so.
pub(super) fn agrees(look: &Look, breaker: &BreakerId) -> bool {
    look.off.contains(breaker) == (look.seen == Seen::Dark)
}

/// The verdict on a point with these looks, and the breakers that would have to be seen to have latched for it to be proven.
fn judge(home: &Study, counted: &[&Look], latched: &Latched) -> (Verdict, BTreeSet<BreakerId>) {
    let mut waits = BTreeSet::new();
    (judged(home, counted, latched, &mut waits), waits)
}

fn judged(home: &Study, counted: &[&Look], latched: &Latched, waits: &mut BTreeSet<BreakerId>) -> Verdict {
    let out: Vec<&Look> = counted.iter().copied().filter(|l| l.off.is_empty() && l.seen == Seen::Dark).collect();
    let lit_all_on: Vec<&Look> = counted.iter().copied().filter(|l| l.off.is_empty() && l.seen == Seen::Lit).collect();
    if let Some(dark) = out.last() {
        if lit_all_on.is_empty() {
            return Verdict::Out { line: dark.line.clone() };
        }
        return Verdict::Contradictory {
            because: "It was seen lit with everything on, and later dark with everything on. Something other than a \
                      breaker makes it dark: a switch, a lamp, a tripped GFCI, or a breaker that did not latch."
                .into(),
            lines: lit_all_on.iter().chain(&out).map(|look| look.line.clone()).collect(),
        };
    }
    let darks: Vec<&Look> = counted.iter().copied().filter(|l| l.seen == Seen::Dark).collect();
    let agrees_with_all = |b: &&BreakerId| counted.iter().all(|look| agrees(look, b));
    // What made it dark was off at every dark look, so the first one names all that come into question.
    let fits: BTreeSet<&BreakerId> = match darks.first() {
        Some(dark) => dark.off.iter().filter(agrees_with_all).collect(),
        None => {
            // Lit throughout: every breaker that was off at any of the looks is ruled out. Looks under one switching share it.
            let mut last = None;
            let fresh = counted.iter().filter(|look| last.replace(Arc::as_ptr(&look.off)) != Some(Arc::as_ptr(&look.off)));
            let ruled_out: BTreeSet<&BreakerId> = fresh.flat_map(|look| look.off.iter()).collect();
            home.panels().breakers().map(|b| &b.id).filter(|b| !ruled_out.contains(b)).collect()
        }
    };
    if !darks.is_empty() && fits.is_empty() {
        return contradiction(home, counted, &darks);
    }
    let (mut unlatched, mut unreset) = (Vec::new(), None);
    for (n, lit) in counted.iter().enumerate().filter(|(_, look)| look.seen == Seen::Lit) {
        for dark in counted[n..].iter().filter(|look| look.seen == Seen::Dark) {
            if let Some(breaker) = cause(home, lit, dark)
                && fits.contains(breaker)
                && home.panels().breaker(breaker).is_some_and(|b| !may_lead_on(home, b))
            {
                let doubt = latched.in_doubt(counted, (lit.moves, dark.moves), dark.place, &dark.off);
                unreset = not_reset(home, counted, lit, Some(dark)).map(|trip| trip.device.clone());
                if doubt.is_empty() && unreset.is_none() {
                    return Verdict::Proven { breaker: breaker.clone(), lit: lit.line.clone(), dark: dark.line.clone() };
                }
                waits.extend(doubt.iter().cloned());
                unlatched = doubt;
            }
        }
    }
    if darks.is_empty()
        && !lit_all_on.is_empty()
        && fits.len() == 1
        && let Some(only) = fits.first()
        && home.panels().breaker(only).is_some_and(|b| matches!(b.kept, Some((crate::model::Kept::On, _))))
    {
        return Verdict::ByExclusion { breaker: (*only).clone() };
    }
    Verdict::Open {
        possible: home.panels().breakers().map(|b| &b.id).filter(|b| fits.contains(b)).cloned().collect(),
        seen_lit: !lit_all_on.is_empty(),
        unlatched,
        unreset,
        once: None,
    }
}

/// In a split-bus panel a breaker of two poles may feed the lower half, whichever it is: switched off, it darkens
/// what other breakers feed, so it proves nothing.
fn may_lead_on(home: &Study, breaker: &Breaker) -> bool {
    breaker.poles() > 1 && home.panels().panel(&breaker.panel).is_some_and(|panel| panel.details.interior == Interior::SplitBus)
}

impl<'a> Off for &'a BTreeSet<BreakerId> {
    type Breaker = &'a BreakerId;
    fn has(&self, breaker: &'a BreakerId) -> bool {
        self.contains(breaker)
    }
    fn is_none(&self) -> bool {
        self.is_empty()
    }
    fn one_more_than(&self, there: &Self) -> Option<&'a BreakerId> {
        (self.len() == there.len() + 1 && there.is_subset(self)).then(|| self.difference(there).next())?
    }
}

/// The single cause of a dark look that came after a lit one.
fn cause<'a>(home: &'a Study, lit: &'a Look, dark: &'a Look) -> Option<&'a BreakerId> {
    let moved = home.switchings().all()[lit.moves..dark.moves].iter().map(|switching| &switching.breaker);
    single_cause(&&*lit.off, &&*dark.off, moved)
}

/// Which looks disagree, and how. A breaker that was off while the point was lit cannot have made it dark,
/// so it is left out where dark looks are compared.
fn contradiction(home: &Study, counted: &[&Look], darks: &[&Look]) -> Verdict {
    let words = |breakers: &mut dyn Iterator<Item = &BreakerId>| {
        let all: Vec<&BreakerId> = breakers.collect();
        // Of a feeder and what is behind it, the feeder was switched: it alone is named.
        let is_behind = |b: &BreakerId| {
            let feeder = home
                .panels()
                .breaker(b)
                .and_then(|b| home.panels().panel(&b.panel))
                .and_then(|panel| panel.details.fed_by.as_ref());
            feeder.is_some_and(|feeder| all.contains(&feeder))
        };
        match all.iter().filter(|b| !is_behind(b)).map(|b| home.panels().number(b)).collect::<Vec<_>>() {
            named if named.is_empty() => "nothing".to_owned(),
            named => named.join(", "),
        }
    };
    let ruled_out: BTreeSet<&BreakerId> =
        counted.iter().filter(|look| look.seen == Seen::Lit).flat_map(|look| look.off.iter()).collect();
    let blamed = |look: &Look| -> BTreeSet<BreakerId> { look.off.iter().filter(|b| !ruled_out.contains(b)).cloned().collect() };
    let mut lines: BTreeSet<usize> = BTreeSet::new();
    let mut because = None;
    for (n, a) in counted.iter().enumerate() {
        for (m, b) in counted.iter().enumerate() {
            let say = match (a.seen, b.seen) {
                (Seen::Dark, Seen::Lit) if a.off.is_subset(&b.off) => {
                    let (dark, lit) = (words(&mut a.off.iter()), words(&mut b.off.iter()));
                    format!("It was dark with {dark} off, but lit with {lit} off.")
                }
                (Seen::Dark, Seen::Dark) if n < m => {
                    let (first, second) = (blamed(a), blamed(b));
                    if first.is_empty() || second.is_empty() || !first.is_disjoint(&second) {
                        continue;
                    }
                    let (first, second) = (words(&mut first.iter()), words(&mut second.iter()));
                    format!(
                        "It was dark with {first} off, and dark with {second} off: one of the looks is wrong, or two breakers \
                         feed it."
                    )
                }
                _ => continue,
            };
            lines.extend([n, m]);
            because.get_or_insert(say);
        }
    }
    if because.is_none() {
        let off: BTreeSet<&BreakerId> = darks.iter().flat_map(|look| look.off.iter()).collect();
        lines = (0..counted.len())
            .filter(|n| counted[*n].seen == Seen::Dark || counted[*n].off.iter().any(|b| off.contains(b)))
            .collect();
    }
    Verdict::Contradictory {
        because: because
            .unwrap_or_else(|| "It was dark with breakers off, each of which was off another time while it was lit.".into()),
        lines: lines.into_iter().map(|n| counted[n].line.clone()).collect(),
    }
}
