//! Any sequence of entries either applies or is refused, and never panics; the fold is deterministic; struck
//! out and back in restores; "proven" is what a naive reading of its definition says.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod answers;
mod cards;
mod crew;
mod loads;
mod mends;
mod naive;
mod steps;
mod wishes;

use std::collections::BTreeSet;

use proptest::prelude::*;
use wayfinder_core::*;
use wayfinder_fixture::any::{any_fact, breaker_of, id, panel_of, point_of};

use crate::naive::{acts, naively_singled_out, seen_lit};

pub(crate) fn draft(n: usize, fact: Fact) -> Draft {
    Draft {
        id: format!("e{n}").parse().unwrap(),
        at: Moment::from_unix_ms(n as i64 * 1000),
        by: "x".into(),
        instrument: None,
        version: Fact::VERSION,
        fact,
    }
}

/// A small home to begin with, then whatever comes; what is refused is left out.
pub(crate) fn written(facts: Vec<Fact>) -> Logbook {
    let room = |n| Fact::RoomPlaced(RoomPlaced { room: id("r", n), name: format!("Room {n}"), floor: None });
    let point = |n: u8| Fact::PointPlaced(point_of(n, n % 2));
    let breaker = |n: u8| Fact::BreakerPlaced(breaker_of(n, 0));
    let panel = Fact::PanelDescribed(panel_of(0, 12));
    let start = [
        Fact::HomeDescribed(HomeDescribed { name: "Hut".into() }),
        panel,
        breaker(0),
        breaker(1),
        breaker(2),
        room(0),
        room(1),
        point(0),
        point(1),
        point(2),
    ];
    let mut book = Logbook::default();
    for (n, fact) in start.into_iter().chain(facts).enumerate() {
        let draft = draft(n, fact);
        // The home is changed as a whole or not at all, whatever refuses the entry.
        let mut home = book.home().clone();
        let applied = home.apply(&draft);
        match book.admit(&[draft]) {
            Ok(outcome) => book.commit(outcome),
            Err(refusal) => {
                assert!(refusal.wrong.ends_with('.') && !refusal.accepted.is_empty(), "{refusal:?}");
                assert!(applied.is_ok() || &home == book.home(), "a refusal changed something: {refusal:?}");
            }
        }
    }
    book
}

/// What a trace mostly writes.
fn seen_or_switched() -> impl Strategy<Value = Fact> {
    let seen = (0..3_u8, any::<bool>()).prop_map(|(n, dark)| {
        let seen = if dark { Seen::Dark } else { Seen::Lit };
        Fact::PointSeen(PointSeen { point: id("p", n), seen, since: None, anew: false })
    });
    let switched = (0..3_u8, any::<bool>()).prop_map(|(n, off)| {
        let (breaker, to) = (id("b", n), if off { State::Off } else { State::On });
        Fact::BreakerSwitched(BreakerSwitched { breaker, to })
    });
    prop_oneof![seen, switched]
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 600, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn entries_apply_or_are_refused_and_every_answer_stands(facts in prop::collection::vec(any_fact(), 0..60)) {
        let book = written(facts);
        let home = &Study::from(&book);
        let drawn = plan(home);
        prop_assert_eq!(drawn.not_drawn.len() + drawn.floors.iter().map(|f| f.rooms.len()).sum::<usize>(), home.house().rooms().count());
        prop_assert_eq!(drawn.not_placed.len() + drawn.floors.iter().map(|f| f.points.len()).sum::<usize>(), home.house().points().count());
        let ways = walking(home);
        prop_assert!(ways.between.iter().flatten().chain(ways.from_panel.values().flatten()).all(|w| w.seconds.is_finite() && w.seconds >= 0.0));
        for room in home.house().rooms() {
            prop_assert_eq!(room_walk(home, &room.id).unwrap().points.len(), home.house().points().filter(|p| p.room == room.id).count());
        }
        let view = overview(&"hut".parse().unwrap(), home);
        prop_assert_eq!(view.points.points.len(), home.house().points().count());
        let progress = view.now.progress;
        prop_assert_eq!(progress.points, progress.proven + progress.contradictory + progress.out + progress.open);
        let _ = (next_step(home), trace_view(home, Method::default()), findings(home));
        for panel in home.panels().all() {
            let _ = (card(home, &panel.id, Printed::default()), panel_view(home, &panel.id), write_card(home, panel));
        }
        for breaker in home.panels().breakers() {
            for place in places(home, &breaker.id).unwrap_or_default() {
                let moved = Fact::BreakerMoved(BreakerMoved { breaker: breaker.id.clone(), at: place.at });
                let taken = book.admit(&[Draft { id: "move".parse().unwrap(), ..draft(0, moved) }]);
                assert_eq!(taken.is_ok(), place.why_not.is_none(), "{} to {}: {taken:?}", breaker.number(), place.number);
            }
        }
        for finding in findings(home) {
            let Some(mend) = &finding.mend else { continue };
            let drafts: Vec<Draft> = mend.facts.clone().into_iter().enumerate().map(|(n, fact)| Draft { id: format!("mend{n}").parse().unwrap(), ..draft(0, fact) }).collect();
            prop_assert!(book.admit(&drafts).is_ok(), "{} offers what the logbook refuses: {:?}", finding.key, book.admit(&drafts).err());
        }
        for point in home.house().points() {
            prop_assert!(evidence(home, &point.id).is_some());
        }
        for line in book.lines() {
            prop_assert!(!InWords::of(&book).line(line).is_empty());
        }
    }

    #[test]
    fn the_fold_is_deterministic_and_a_logbook_opens_as_it_was(facts in prop::collection::vec(any_fact(), 0..60)) {
        let book = written(facts);
        let lines: Vec<Line> = book.lines().cloned().collect();
        let text = serde_json::to_string(&lines).unwrap();
        let again: Vec<Line> = serde_json::from_str(&text).unwrap();
        prop_assert_eq!(&again, &lines);
        let opened = Logbook::from_lines(again).unwrap();
        prop_assert_eq!(opened.home(), book.home());
        prop_assert_eq!(serde_json::to_string(&opened.lines().collect::<Vec<_>>()).unwrap(), text);
    }

    #[test]
    fn struck_out_and_back_in_restores(facts in prop::collection::vec(any_fact(), 0..40), which in any::<prop::sample::Index>()) {
        let mut book = written(facts);
        let candidates: Vec<EntryId> = book.lines().filter(|l| l.entry.fact.is_strikable() && !book.is_struck(&l.entry.id)).map(|l| l.entry.id.clone()).collect();
        let line = candidates[which.index(candidates.len())].clone();
        let before = book.home().clone();
        let strike = |line: &EntryId, n| draft(n, Fact::LineStruck(LineStruck { line: line.clone() }));
        let lines: Vec<EntryId> = match book.admit(&[strike(&line, 9000)]) {
            Ok(_) => vec![line],
            Err(refusal) => std::iter::once(line).chain(refusal.lines).collect(),
        };
        let batch: Vec<Draft> = lines.iter().zip(9000..).map(|(line, n)| strike(line, n)).collect();
        // A line may be one that no other line can be without: the home's name.
        if let Ok(outcome) = book.admit(&batch) {
            book.commit(outcome);
            let back: Vec<Draft> = lines.iter().zip(9900..).map(|(line, n)| draft(n, Fact::LineRestored(LineRestored { line: line.clone() }))).collect();
            let outcome = book.admit(&back).unwrap();
            book.commit(outcome);
            prop_assert_eq!(book.home(), &before);
        }
    }

    #[test]
    fn a_state_that_goes_on_from_the_one_before_is_as_one_worked_out_from_the_first_line(
        facts in prop::collection::vec(prop_oneof![any_fact(), seen_or_switched()], 0..60),
        struck in prop::collection::vec(any::<prop::sample::Index>(), 3),
    ) {
        let mut book = written(Vec::new());
        let mut home = Study::from(&book);
        let mut next = |fact: Fact, n: usize| {
            let Ok(outcome) = book.admit(&[draft(n, fact)]) else { return (true, book.clone()) };
            book.commit(outcome);
            home = Study::after(&home, &book);
            let anew = Study::from(&book);
            // Not after every line: what the one before did not work out is handed on from before that.
            let same = n.is_multiple_of(3)
                || verdicts(&home) == verdicts(&anew) && trace_view(&home, Method::SeveralOff) == trace_view(&anew, Method::SeveralOff);
            (same, book.clone())
        };
        for (n, fact) in facts.into_iter().enumerate() {
            prop_assert!(next(fact, 100 + n).0);
        }
        for (n, which) in struck.into_iter().enumerate() {
            let (_, book) = next(Fact::HomeDescribed(HomeDescribed { name: "Hut".into() }), 8000 + n);
            let looks: Vec<EntryId> = book.lines().filter(|l| matches!(l.entry.fact, Fact::PointSeen(_)) && !book.is_struck(&l.entry.id)).map(|l| l.entry.id.clone()).collect();
            if !looks.is_empty() {
                let strike = Fact::LineStruck(LineStruck { line: looks[which.index(looks.len())].clone() });
                prop_assert!(next(strike, 9001 + 3 * n).0);
            }
        }
    }

    /// What a proof cannot do without. That nothing else is likely is checked beside the rule itself.
    #[test]
    fn nothing_is_proven_without_a_single_cause_that_no_last_look_speaks_against(facts in prop::collection::vec(any_fact(), 0..80)) {
        let book = written(facts);
        let all = naively_singled_out(&book);
        let home = &Study::from(&book);
        for point in home.house().points() {
            let known = verdict(home, &point.id);
            if let Verdict::Open { unsure: Some(unsure), .. } = &known {
                let dark = |l: &&Line| acts(&l.entry.fact).iter().any(|act| seen_lit(act) == Some((&point.id, false)));
                prop_assert!(book.lines().filter(dark).any(|l| l.entry.id == unsure.dark), "the look is one of its own");
            }
            let proven: BTreeSet<BreakerId> = known.proven_on().cloned().into_iter().collect();
            prop_assert!(proven.is_subset(&all[&point.id]), "{}: {:?}", point.id, known);
        }
    }

    #[test]
    fn any_text_is_a_card_or_is_told_why_not(text in "(?s).{0,80}|([0-9]{1,2}(-[0-9]{1,2})?[ab]? [0-9]{1,3}(/[0-4])? [a-z]{0,5}\n){0,8}") {
        let book = written(Vec::new());
        let panel = book.home().panels().all().next().unwrap().clone();
        let mut n = 0;
        let lines = read_card(book.home(), &panel, &text, || { n += 1; format!("new{n}").parse().unwrap() });
        prop_assert_eq!(lines.len(), text.lines().count());
        // What is proposed is also accepted, unless a text in it is too long.
        let facts: Vec<Fact> = lines.into_iter().filter_map(|l| match l.outcome { wayfinder_core::LabelOutcome::Breaker { facts, .. } => Some(facts), _ => None }).flatten().collect();
        if facts.iter().all(|f| !matches!(f, Fact::LabelClaimed(f) if f.text.chars().count() > 120 || f.text.chars().any(char::is_control))) {
            let batch: Vec<Draft> = facts.into_iter().zip(500..).map(|(f, n)| draft(n, f)).collect();
            prop_assert!(batch.is_empty() || book.admit(&batch).is_ok());
        }
    }
}
