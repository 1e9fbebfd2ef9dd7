//! The page that covers everything: what to switch off, what not to touch, whom to call.

use super::case::State;
use super::look::{Look, Saw};
use super::of_home::AtHome;
use super::planner::Search;
use super::said::Words;
use crate::logbook::KnownTrouble;
use crate::model::{DangerSign, EntryId, TroubleLook, TroubleSaw};
use crate::study::Study;
use crate::trace::verdict;

/// The stop.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct StopPage {
    /// What to do now: `Switch the main off now`.
    pub title: String,
    /// Why.
    pub why: Vec<String>,
    /// Where the main is: `Main panel, 125 A`; empty where the main is not to be touched.
    pub main: String,
    /// What to do, in order.
    pub steps: Vec<String>,
    /// What not to do.
    pub never: Vec<String>,
    /// Whom to call, in order.
    pub call: Vec<ToCall>,
    /// The line that led here, to be struck out where it was a slip.
    pub line: Option<EntryId>,
}

/// Somebody to call.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct ToCall {
    /// `The utility`.
    pub who: String,
    /// Digits to dial; empty: no number is kept.
    pub number: String,
}

/// The stop of this trouble.
pub(super) fn stop_page(home: &Study, at: &AtHome, search: &Search<'_>, trouble: &KnownTrouble) -> StopPage {
    let sign = trouble.signs.last();
    let page = match sign.map(|(_, seen)| &seen.saw) {
        Some(TroubleSaw::Danger(sign)) => by_sign(home, at, trouble, *sign),
        _ => by_volts(home, at, search, trouble),
    };
    let line = sign.map(|(_, seen)| seen).or_else(|| trouble.looks.values().last()).map(|seen| seen.line.clone());
    StopPage { line, ..page }
}

fn main(home: &Study) -> String {
    let first = home.panels().all().find(|panel| panel.details.fed_by.is_none());
    match first.and_then(|panel| panel.main.map(|amps| (panel, amps))) {
        Some((panel, amps)) => format!("{}, {} A", panel.name, amps.value()),
        None => "in the first panel after the meter".into(),
    }
}

/// Whom to call, with the numbers that are kept.
pub(super) fn call(home: &Study, who: &[&str]) -> Vec<ToCall> {
    let number = |who: &str| match who {
        "The utility" => home.troubles().utility().to_owned(),
        "An electrician" => home.troubles().electrician().to_owned(),
        _ => String::new(),
    };
    who.iter().map(|who| ToCall { who: (*who).into(), number: number(who) }).collect()
}

fn own(lines: &[&str]) -> Vec<String> {
    lines.iter().map(|l| (*l).to_owned()).collect()
}

/// What is to be switched off for a point.
struct ToSwitchOff {
    /// `breaker 9`, `its breaker`, `the main`.
    name: String,
    /// The same as a step.
    step: String,
}

/// Its breaker where that is proven; else the word says that it is not known, and the main is named beside it.
fn to_switch_off(home: &Study, at: &AtHome) -> ToSwitchOff {
    let words = Words { home, at };
    let point = at.points[at.case.report.point].as_ref();
    let proven = point.and_then(|id| verdict(home, id).proven_on().cloned());
    let tripped = at.case.report.tripped_handle.and_then(|b| at.breakers.get(b).cloned().flatten());
    let likely = super::stories::likeliest(&at.case, at.case.report.point);
    match (proven.or(tripped), likely) {
        (Some(id), _) => {
            let name = format!("breaker {}", home.panels().number(&id));
            let step = format!("Switch {name} off. It goes on all the same: switch the main off.");
            ToSwitchOff { name, step }
        }
        (None, Some(b)) => ToSwitchOff {
            name: "its breaker".into(),
            step: format!("Likely it is {}; that is not proven. Not sure, or it goes on: switch the main off.", words.breaker(b)),
        },
        (None, None) => {
            ToSwitchOff { name: "the main".into(), step: "Nobody knows which breaker feeds it: switch the main off.".into() }
        }
    }
}

/// It smells, is hot, buzzes, is wet, gave a shock.
fn by_sign(home: &Study, at: &AtHome, trouble: &KnownTrouble, sign: DangerSign) -> StopPage {
    let at_the_panel = trouble.signs.iter().any(|(look, seen)| {
        matches!(seen.saw, TroubleSaw::Danger(_))
            && matches!(
                look,
                TroubleLook::Handles { .. }
                    | TroubleLook::Feel { .. }
                    | TroubleLook::Indicator { .. }
                    | TroubleLook::Reset { .. }
            )
    });
    let off = to_switch_off(home, at);
    let said = format!("{}.", sign.words());
    match sign {
        DangerSign::Water | DangerSign::Shock => StopPage {
            title: "Keep away from it".into(),
            why: vec![said],
            main: String::new(),
            steps: own(&[
                "Keep everybody away, and out of the water.",
                "Switch off only where you stand dry and reach the handle with a dry hand.",
                "Somebody hurt: call for help first, and touch nobody who may still touch a live part.",
            ]),
            never: own(&["Touch no wet plug, plate or appliance.", "Reset nothing until an electrician has looked."]),
            call: call(home, &["An electrician"]),
            line: None,
        },
        _ if at_the_panel => StopPage {
            title: "Do not touch the panel".into(),
            why: vec![said],
            main: String::new(),
            steps: own(&["Stand back and keep others away.", "Smoke or fire: everybody out, and call the fire service."]),
            never: own(&["Move no handle, open no cover.", "No water on it."]),
            call: call(home, &["The fire service, if there is smoke or fire", "The utility", "An electrician"]),
            line: None,
        },
        _ => StopPage {
            title: format!("Switch {} off, if you reach it safely", off.name),
            why: vec![said],
            main: main(home),
            steps: vec![
                "If it comes from the panel itself: do not touch it. Keep everybody away, and call.".into(),
                off.step,
                "Unplug only what is neither hot nor smoking.".into(),
                "Smoke or fire: everybody out, and call the fire service.".into(),
                "Leave it off until an electrician has found the place.".into(),
            ],
            never: own(&["Switch nothing on again.", "Open nothing, and put no water on it."]),
            call: call(home, &["The fire service, if there is smoke or fire", "An electrician"]),
            line: None,
        },
    }
}

/// The neutral is lost: some get too much and some too little.
fn by_volts(home: &Study, at: &AtHome, search: &Search<'_>, trouble: &KnownTrouble) -> StopPage {
    let shared = search.belief.sum(|k| k.cause == super::cause::Cause::SharedNeutral);
    let service = search.belief.sum(|k| k.cause == super::cause::Cause::LostNeutral);
    let words = Words { home, at };
    let mut why: Vec<String> = Vec::new();
    let signs = trouble.signs.iter().map(|(look, seen)| (look, seen));
    let read: Vec<String> = signs
        .chain(&trouble.looks)
        .filter_map(|(look, seen)| match (look, &seen.saw) {
            (TroubleLook::Volts { point }, TroubleSaw::Volts(volts)) => {
                Some(format!("{volts} V at {}", home.house().place(point)))
            }
            _ => None,
        })
        .collect();
    if !read.is_empty() {
        why.push(format!("Read: {}.", crate::model::listed(&read)));
    }
    for (look, saw) in search.belief.seen() {
        if let (Look::Point(p), Saw::Shows(state @ (State::Dim | State::Bright))) = (look, saw) {
            let how = if *state == State::Dim { "dimmer" } else { "brighter" };
            why.push(format!("{}: {how} than usual.", words.point(*p)));
        }
    }
    let pair = search.belief.causes().into_iter().find(|(k, _)| k.cause == super::cause::Cause::SharedNeutral);
    // Everybody who shares it: each of them may get too much.
    let group: Option<Vec<String>> = pair.and_then(|(k, _)| k.breaker).map(|first| {
        let others = at.case.shared_neutrals.iter().filter(|(a, _)| *a == first).map(|(_, b)| *b);
        let mut all: Vec<usize> = others.chain([first]).collect();
        all.sort_unstable();
        all.dedup();
        all.into_iter().filter_map(|b| words.number(b)).collect()
    });
    if let Some(numbers) = group.filter(|numbers| shared > service && numbers.len() > 1) {
        let why_first = "The neutral that these breakers share may be open. Some outlets get too much and some too little; anything \
                         plugged in can burn.";
        why.insert(0, why_first.into());
        return StopPage {
            title: format!("Switch {} off now", crate::model::listed(&numbers)),
            why,
            main: main(home),
            steps: own(&[
                "Dry hands, stand aside, all of them off. Not sure which: the main off.",
                "Unplug what hangs on them.",
                "Leave them off until an electrician has mended the neutral.",
            ]),
            never: own(&["Plug nothing in to try it.", "Open no box: the wires may be hot."]),
            call: call(home, &["An electrician"]),
            line: None,
        };
    }
    why.insert(0, "The neutral may be lost. Some outlets get too much and some too little; anything plugged in can burn.".into());
    StopPage {
        title: "Switch the main off now".into(),
        why,
        main: main(home),
        steps: own(&[
            "Dry hands, stand aside, main off.",
            "Unplug what you can reach.",
            "Call the utility, then an electrician. The utility mends its side; leave the main off until it says so.",
        ]),
        never: own(&[
            "Do not touch the panel if it is hot, wet or humming: then go away from it and call.",
            "With the main off the parts before it stay live.",
        ]),
        call: call(home, &["The utility", "An electrician"]),
        line: None,
    }
}
