//! What is known of a point, from its looks.

use std::collections::{BTreeMap, BTreeSet};

use crate::{BreakerId, EntryId, Home, Look, PointId, Seen};

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
    /// Not known yet.
    Open {
        /// The breakers that no look rules out.
        possible: Vec<BreakerId>,
        /// Seen lit with every breaker on.
        seen_lit: bool,
    },
}

impl Verdict {
    /// The breaker it is proven on.
    pub fn proven_on(&self) -> Option<&BreakerId> {
        match self {
            Self::Proven { breaker, .. } => Some(breaker),
            _ => None,
        }
    }
}

/// The verdict on one point.
pub fn verdict(home: &Home, point: &PointId) -> Verdict {
    let looks: Vec<&Look> = home.looks().iter().filter(|look| &look.point == point).collect();
    judge(home, &looks)
}

/// The verdict on every point, in the order of entry.
pub fn verdicts(home: &Home) -> Vec<(PointId, Verdict)> {
    let mut looks: BTreeMap<&PointId, Vec<&Look>> = BTreeMap::new();
    for look in home.looks() {
        looks.entry(&look.point).or_default().push(look);
    }
    home.points().map(|point| (point.id.clone(), judge(home, looks.get(&point.id).map_or(&[][..], Vec::as_slice)))).collect()
}

/// The looks that count. A point that was dark with everything on was dark for another cause than a
/// breaker (a switch, a lamp, a GFCI), and what it showed before says nothing sure; once it is seen lit
/// again with everything on, that cause has been mended and the count begins anew there.
pub(super) fn counted<'a>(looks: &[&'a Look]) -> Vec<&'a Look> {
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

fn judge(home: &Home, looks: &[&Look]) -> Verdict {
    let counted = counted(looks);
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
    let heard_of: BTreeSet<&BreakerId> =
        home.breakers().map(|b| &b.id).chain(counted.iter().flat_map(|look| look.off.iter())).collect();
    let fits: BTreeSet<&BreakerId> = heard_of.into_iter().filter(|b| counted.iter().all(|look| agrees(look, b))).collect();
    if !darks.is_empty() && fits.is_empty() {
        return contradiction(home, &counted, &darks);
    }
    for (n, lit) in counted.iter().enumerate().filter(|(_, look)| look.seen == Seen::Lit) {
        for dark in counted[n..].iter().filter(|look| look.seen == Seen::Dark) {
            if let Some(breaker) = single_cause(home, lit, dark)
                && fits.contains(breaker)
                && home.breaker(breaker).is_some()
            {
                return Verdict::Proven { breaker: breaker.clone(), lit: lit.line.clone(), dark: dark.line.clone() };
            }
        }
    }
    Verdict::Open {
        possible: home.breakers().map(|b| &b.id).filter(|b| fits.contains(b)).cloned().collect(),
        seen_lit: !lit_all_on.is_empty(),
    }
}

/// The one breaker by which a lit look and a later dark one differ, if the rest of what was off stayed off
/// in between.
fn single_cause<'a>(home: &Home, lit: &'a Look, dark: &'a Look) -> Option<&'a BreakerId> {
    if dark.off.len() != lit.off.len() + 1 || !lit.off.is_subset(&dark.off) {
        return None;
    }
    let between = &home.switched()[lit.moves..dark.moves];
    if between.iter().any(|moved| lit.off.contains(moved)) {
        return None;
    }
    dark.off.difference(&lit.off).next()
}

/// Which looks disagree, and how. A breaker that was off while the point was lit cannot have made it dark,
/// so it is left out where dark looks are compared.
fn contradiction(home: &Home, counted: &[&Look], darks: &[&Look]) -> Verdict {
    let words = |breakers: &mut dyn Iterator<Item = &BreakerId>| match breakers.map(|b| home.number(b)).collect::<Vec<_>>() {
        all if all.is_empty() => "nothing".to_owned(),
        all => all.join(", "),
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
