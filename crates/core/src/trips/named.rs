//! The cause that is named: how sure, what cures it, what it may turn out to have been, and what is learnt with it.

use super::belief::Belief;
use super::cause::{Cause, Family, Key};
use super::cure::{Cure, cure};
use super::file::PowerBox;
use super::of_home::AtHome;
use super::planner::Named;
use super::said::Words;
use super::view::{CauseLine, box_words, capital, cause_words, percent};
use crate::logbook::{Fact, GfciProtects, KnownTrouble, PointFed};
use crate::model::{FedFrom, PointId, TroubleFound, TroubleLook, TroubleSaw};
use crate::study::Study;

/// What it is.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct NamedCause {
    /// As a sentence.
    pub words: String,
    /// In percent, 99 at most.
    pub percent: u8,
    /// How sure that is: `Found`, `Likely, and no more`, `Not found out; the likeliest`.
    pub how: String,
    /// What else it may be, where it is not sure.
    pub or: Option<CauseLine>,
    /// Who can settle it, where it is not sure; empty otherwise.
    pub settle: String,
    /// The boxes to be opened, the likeliest first.
    pub boxes: Vec<String>,
    /// What cures it.
    pub cure: Cure,
    /// What it may turn out to have been, each as it is recorded: more than one where only an opened box tells.
    pub found: Vec<FoundChoice>,
}

/// What it turned out to be.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct FoundChoice {
    /// As on the button.
    pub label: String,
    /// As it is recorded.
    pub found: TroubleFound,
    /// What follows from it and is recorded with it.
    pub also: Vec<Fact>,
    /// The same in words.
    pub learnt: String,
}

pub(super) fn name(home: &Study, at: &AtHome, trouble: &KnownTrouble, belief: &Belief<'_>, named: &Named) -> NamedCause {
    let words = Words { home, at };
    let sure = named.p >= SURE_ENOUGH;
    let family = named.key.cause.family();
    let other = |key: Key| if family == Family::Itself { key != named.key } else { key.cause.family() != family };
    let or = belief.causes().into_iter().find(|(key, _)| other(*key)).filter(|(_, p)| !sure && *p >= 0.02);
    NamedCause {
        words: match family {
            Family::Itself => capital(&cause_words(&words, named.key)),
            Family::BadJoint => "A joint makes bad contact".into(),
            Family::NoPowerPast => "Power reaches a box and does not leave it".into(),
        },
        percent: percent(named.p),
        how: match named.p {
            p if p >= SURE_ENOUGH => "Found".into(),
            p if p >= 0.5 => "Likely, and no more".into(),
            _ => "Not found out; the likeliest".into(),
        },
        or: or.map(|(key, p)| CauseLine { words: capital(&cause_words(&words, key)), percent: percent(p) }),
        settle: match family {
            _ if sure => String::new(),
            Family::Itself => "An electrician can settle it.".into(),
            _ => "An electrician can settle it, with a meter at the opened boxes.".into(),
        },
        boxes: named.boxes.iter().map(|b| capital(&box_words(&words, *b))).collect(),
        cure: cure(home, at, trouble, named),
        found: found(home, at, trouble, named),
    }
}

/// Below this a cause is likely, and no more.
const SURE_ENOUGH: f64 = 0.8;

/// What it may turn out to have been. Of a fault in a box nobody knows which it was before the box is open.
fn found(home: &Study, at: &AtHome, trouble: &KnownTrouble, named: &Named) -> Vec<FoundChoice> {
    let Key { cause, breaker, place } = named.key;
    let point = |p: usize| at.points.get(p).cloned().flatten();
    let breaker = breaker.and_then(|b| at.breakers.get(b).cloned().flatten());
    let choice = |label: String, cause: Cause, points: Vec<PointId>| FoundChoice {
        label,
        found: TroubleFound { cause, breaker: breaker.clone(), points },
        also: Vec::new(),
        learnt: String::new(),
    };
    let joint = |bad: &PowerBox| {
        let cause = if cause.family() == Family::NoPowerPast { Cause::OpenHot } else { cause };
        match bad {
            PowerBox::Panel => choice("A joint in the panel".into(), cause, Vec::new()),
            PowerBox::Point(p) => {
                let at_it = point(*p).map_or_else(|| "the place itself".into(), |id| home.house().place(&id));
                after_it(home, at, trouble, *p, choice(format!("A joint at {at_it}"), cause, point(*p).into_iter().collect()))
            }
        }
    };
    match cause.family() {
        Family::NoPowerPast => {
            let mut choices: Vec<FoundChoice> = named.boxes.iter().map(joint).collect();
            if named.boxes.contains(&PowerBox::Panel) {
                choices.push(choice("The breaker".into(), Cause::BreakerFailed, Vec::new()));
            }
            let gfcis = named.boxes.iter().filter_map(|b| match b {
                PowerBox::Point(p) if at.case.points[*p].gfci => point(*p),
                _ => None,
            });
            choices.extend(gfcis.map(|id| choice(format!("The GFCI at {}", home.house().place(&id)), Cause::GfciDead, vec![id])));
            choices
        }
        Family::BadJoint => named.boxes.iter().map(joint).collect(),
        Family::Itself => {
            let place = match cause {
                Cause::SwitchOff | Cause::Control => point(at.case.report.point),
                Cause::ShortLoad | Cause::GroundLoad | Cause::Inrush => None,
                _ => place.and_then(point),
            };
            let found = choice("That was it".into(), cause, place.iter().cloned().collect());
            match place.filter(|_| cause == Cause::GfciTripped) {
                Some(gfci) => vec![behind_it(home, at, trouble, &gfci, found)],
                None => vec![found],
            }
        }
    }
}

/// A GFCI whose RESET brought the point back protects it: that is recorded with the find.
fn behind_it(home: &Study, at: &AtHome, trouble: &KnownTrouble, gfci: &PointId, found: FoundChoice) -> FoundChoice {
    let brought_back = trouble.looks.iter().any(|(look, seen)| {
        matches!(look, TroubleLook::Gfci { point } if point == gfci) && seen.saw == TroubleSaw::Word("reset_works".into())
    });
    let known = home.plan().protects.get(gfci).cloned().unwrap_or_default();
    let Some(point) = at.points[at.case.report.point].clone().filter(|p| brought_back && p != gfci && !known.contains(p)) else {
        return found;
    };
    let learnt = format!("It protects {}.", home.house().place(&point));
    let points = known.into_iter().chain([point]).collect();
    FoundChoice { also: vec![GfciProtects { device: gfci.clone(), points }.into()], learnt, ..found }
}

/// With every point of the circuit seen and one of them dark, a bad joint at a lit one says what comes after it: the dark one.
fn after_it(home: &Study, at: &AtHome, trouble: &KnownTrouble, bad: usize, found: FoundChoice) -> FoundChoice {
    let reported = at.case.report.point;
    let on = |p: usize| at.case.map[p].breakers.first().filter(|(_, share)| *share >= 0.9).map(|(b, _)| *b);
    let circuit: Vec<usize> = (0..at.points.len()).filter(|p| on(*p).is_some() && on(*p) == on(reported)).collect();
    let lit = |p: usize| {
        let id = at.points[p].as_ref();
        id.is_some_and(|id| trouble.told.works.contains(id))
            || trouble.looks.iter().any(|(look, seen)| {
                matches!(look, TroubleLook::Point { point } if Some(point) == id) && seen.saw == TroubleSaw::Word("live".into())
            })
    };
    let all_seen = circuit.iter().all(|p| *p == reported || lit(*p));
    let (Some(dark), Some(before)) = (at.points[reported].clone(), at.points[bad].clone()) else { return found };
    if bad == reported || !all_seen || !circuit.contains(&bad) || home.troubles().fed_from(&dark).is_some() {
        return found;
    }
    let learnt = format!("{} comes after {}.", home.house().place(&dark), home.house().place(&before));
    FoundChoice { also: vec![PointFed { point: dark, from: Some(FedFrom::Point(before)) }.into()], learnt, ..found }
}
