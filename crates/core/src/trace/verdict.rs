//! What is known of a point, from its looks.

use std::borrow::Cow;
use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use super::reset::not_reset;
use super::weighed::{Weighed, weighed};
use crate::logbook::{Instrument, Look};
use crate::model::{BreakerId, EntryId, Point, PointId, Seen};
use crate::proof::OffSet;
use crate::study::Study;

/// What is known of which breaker feeds a point.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "verdict", rename_all = "snake_case")]
pub enum Verdict {
    /// Fed by this breaker, by the rule of proof: a lit look and a later dark one differ by it alone, and nothing else that
    /// could explain the lines is likely.
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
    /// It is on one of these, which may never be off: no other breaker is likely any more, by the bounds of a proof. No proof.
    ByExclusion {
        /// The breakers.
        breakers: Vec<BreakerId>,
    },
    /// Not known yet.
    Open {
        /// The breakers that no look rules out.
        possible: Vec<BreakerId>,
        /// Seen lit with every breaker on.
        seen_lit: bool,
        /// A single cause was seen, and other stories fit its lines too well for a proof.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        unsure: Option<Unsure>,
        /// A GFCI behind which it may be, that was tripped between its lit look and its dark one and has not been seen to give
        /// power again: all that keeps it from being proven.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        unreset: Option<PointId>,
    },
}

/// A single cause that was seen and is not sure yet.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Unsure {
    /// The breaker.
    pub breaker: BreakerId,
    /// The lit look.
    pub lit: EntryId,
    /// The dark look.
    pub dark: EntryId,
}

impl Verdict {
    /// Nothing is known.
    pub(crate) const fn unknown() -> Self {
        Self::Open { possible: Vec::new(), seen_lit: false, unsure: None, unreset: None }
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
    let judge = || {
        let all = looks_that_count(home).into_iter().enumerate();
        all.map(|(place, (point, looks))| (point.clone(), judged(home, weighed(home), place, &looks))).collect()
    };
    &home.once(|| Verdicts(judge())).0
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
            Verdict::ByExclusion { breakers } => {
                for breaker in breakers {
                    all.entry(breaker).or_insert_with(fresh).possible += 1;
                }
            }
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

/// The looks that count at each point, in the order of entry.
fn looks_that_count(home: &Study) -> Vec<(&PointId, Vec<&Look>)> {
    let looks = by_point(looks_by_power(home));
    let own = |point| counted(home, looks.get(point).map_or(&[][..], Vec::as_slice));
    home.house().points().map(|point| (&point.id, own(&point.id))).collect()
}

/// How sure it is that a point was lit, and that it was dark, with just these breakers off.
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Sureness {
    pub(crate) lit: usize,
    pub(crate) dark: usize,
}

/// By every set of breakers that was off at a look that counts: a look counts one, a meter two. Where the point goes on and off by
/// itself, a meter alone counts.
pub(crate) fn sureness<'a>(home: &'a Study, point: &Point) -> BTreeMap<&'a BTreeSet<BreakerId>, Sureness> {
    let mut all: BTreeMap<&BTreeSet<BreakerId>, Sureness> = BTreeMap::new();
    for look in looks_at(home, &point.id) {
        let counts = match (look.instrument, point.details.goes_by) {
            (Some(Instrument::Meter), _) => 2,
            (_, Some(_)) => 0,
            _ => 1,
        };
        let sure = all.entry(&look.off).or_default();
        match look.seen {
            Seen::Lit => sure.lit += counts,
            Seen::Dark => sure.dark += counts,
        }
    }
    all
}

/// The looks that count at each point, by their place among the looks.
struct Counted(BTreeMap<PointId, Vec<usize>>);

/// The looks that count at one point.
fn looks_at<'a>(home: &'a Study, point: &PointId) -> impl Iterator<Item = &'a Look> {
    let by_point = || {
        let place = |look: &Look| look.place;
        looks_that_count(home).into_iter().map(|(point, looks)| (point.clone(), looks.into_iter().map(place).collect())).collect()
    };
    let places = home.once(|| Counted(by_point())).0.get(point).map_or(&[][..], Vec::as_slice);
    places.iter().map(|place| &looks_by_power(home)[*place])
}

fn judged(home: &Study, weighed: Option<&Weighed>, place: usize, counted: &[&Look]) -> Verdict {
    let mut unreset = None;
    let mut unsure = None;
    if let Some(weighed) = weighed {
        let proven = weighed.weigh.belief().proven(place);
        let on = proven
            .or_else(|| weighed.weigh.singled_out(place))
            .filter(|b| home.panels().breaker(&weighed.breakers[*b]).is_some());
        let look = |mark: usize| counted.iter().find(|look| look.place == mark);
        for cause in weighed.weigh.causes(place).iter().filter(|cause| Some(cause.breaker) == on) {
            let (Some(lit), Some(dark)) = (look(cause.lit), look(cause.dark)) else { continue };
            if let Some(trip) = not_reset(home, counted, lit, Some(dark)) {
                unreset = Some(trip.device.clone());
                continue;
            }
            let (breaker, lit, dark) = (weighed.breakers[cause.breaker].clone(), lit.line.clone(), dark.line.clone());
            if proven.is_some() {
                return Verdict::Proven { breaker, lit, dark };
            }
            unsure = Some(Unsure { breaker, lit, dark });
        }
        unreset = unreset.filter(|_| unsure.is_none());
    }
    let nothing_off = |seen: Seen| counted.iter().copied().filter(move |l| l.off.is_empty() && l.seen == seen);
    let (out, lit_all_on): (Vec<&Look>, Vec<&Look>) = (nothing_off(Seen::Dark).collect(), nothing_off(Seen::Lit).collect());
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
    if let Some(breakers) = weighed.and_then(|weighed| excluded(home, weighed, place)) {
        return Verdict::ByExclusion { breakers };
    }
    Verdict::Open {
        possible: home.panels().breakers().map(|b| &b.id).filter(|b| fits.contains(b)).cloned().collect(),
        seen_lit: !lit_all_on.is_empty(),
        unsure,
        unreset,
    }
}

/// The breakers that may never be off, where nothing else is likely any more, by the same bounds as a proof.
fn excluded(home: &Study, weighed: &Weighed, place: usize) -> Option<Vec<BreakerId>> {
    let kept_on = |b: &BreakerId| home.panels().breaker(b).is_some_and(|b| matches!(b.kept, Some((crate::model::Kept::On, _))));
    let never: OffSet = (0..weighed.breakers.len()).filter(|b| kept_on(&weighed.breakers[*b])).collect();
    let likely: f64 = never.iter().map(|b| weighed.weigh.belief().of(place)[b]).sum();
    // Where nothing is likely to be gained, nothing is worked out.
    if never.is_empty() || likely < 0.9 || !weighed.weigh.reading(&weighed.case, place).is_among(never) {
        return None;
    }
    Some(never.iter().map(|b| weighed.breakers[b].clone()).collect())
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
