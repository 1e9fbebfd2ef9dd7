//! What is said on the card, in a search, on the bar of what is off and on the panel, held against the verdicts and the lines by
//! somebody who reads only those.

use std::collections::{BTreeMap, BTreeSet};

use super::written;
use proptest::prelude::*;
use wayfinder_core::*;
use wayfinder_fixture::any::any_fact;

fn facts() -> impl Strategy<Value = Vec<Fact>> {
    prop::collection::vec(any_fact(), 0..70)
}

/// The points that may lose power with a breaker, as far as anybody knows.
fn may_be_on(home: &Study, breaker: &BreakerId) -> usize {
    let may = |verdict: &Verdict| match verdict {
        Verdict::Proven { breaker: on, .. } => on == breaker,
        Verdict::ByExclusion { breakers } => breakers.contains(breaker),
        Verdict::Open { possible, .. } => possible.contains(breaker),
        Verdict::Contradictory { .. } | Verdict::Out { .. } => true,
    };
    verdicts(home).iter().filter(|(_, verdict)| may(verdict)).count()
}

fn proven_on(home: &Study, breakers: &BTreeSet<BreakerId>) -> BTreeSet<PointId> {
    let on = |verdict: &Verdict| verdict.proven_on().is_some_and(|breaker| breakers.contains(breaker));
    verdicts(home).iter().filter(|(_, verdict)| on(verdict)).map(|(point, _)| point.clone()).collect()
}

/// Everything that is without power when this breaker is off, read off the panels alone.
fn dead_with(home: &Study, breaker: &BreakerId) -> BTreeSet<BreakerId> {
    let mut dead = BTreeSet::from([breaker.clone()]);
    loop {
        let behind: BTreeSet<BreakerId> = home
            .panels()
            .breakers()
            .filter(|known| {
                let panel = home.panels().panel(&known.panel).unwrap();
                let main_is_off = home
                    .panels()
                    .breakers()
                    .any(|main| main.panel == known.panel && main.details.back_fed_main && dead.contains(&main.id));
                main_is_off || panel.details.fed_by.as_ref().is_some_and(|feeder| dead.contains(feeder))
            })
            .map(|known| known.id.clone())
            .collect();
        let before = dead.len();
        dead.extend(behind);
        if dead.len() == before {
            return dead;
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 500, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn the_card_says_proven_only_of_what_is_and_nothing_found_only_where_nothing_can_be(facts in facts()) {
        let home = Study::from(&written(facts));
        let (points, sure) = (verdicts(&home).len(), verdicts(&home).iter().filter(|(_, v)| v.proven_on().is_some()).count());
        for panel in home.panels().all() {
            let card = card(&home, &panel.id, Printed::default()).unwrap();
            let share = format!("{sure} of {points} points proven.");
            prop_assert!(card.text.foot.iter().any(|line| line.starts_with(&share)), "{:?}", card.text);
            let shown: BTreeSet<&BreakerId> = card.cells.iter().filter_map(|cell| cell.breaker.as_ref()).collect();
            let there: BTreeSet<&BreakerId> =
                home.panels().breakers().filter(|breaker| breaker.panel == panel.id).map(|breaker| &breaker.id).collect();
            prop_assert_eq!(shown, there, "every breaker of the panel is on its card, and no other");
            for cell in &card.cells {
                let Some(breaker) = &cell.breaker else {
                    prop_assert_eq!(cell.kind, CellKind::Open);
                    continue;
                };
                prop_assert_eq!(&cell.number, &home.panels().breaker(breaker).unwrap().number());
                let proven = proven_on(&home, &BTreeSet::from([breaker.clone()]));
                let leads_on = home.panels().panels_on(breaker).next().is_some()
                    || home.panels().breaker(breaker).unwrap().details.back_fed_main;
                match cell.kind {
                    CellKind::Proven => prop_assert!(leads_on || !proven.is_empty(), "{:?}", cell),
                    CellKind::NotProven => prop_assert!(!leads_on && proven.is_empty(), "{:?}", cell),
                    CellKind::NothingFound => prop_assert_eq!(may_be_on(&home, breaker), 0, "{:?}", cell),
                    CellKind::Open => prop_assert!(false, "{:?} is a breaker", cell),
                }
            }
        }
    }

    #[test]
    fn what_goes_dark_together_is_found_from_each_side(facts in facts(), text in "[a-z0-9 ]{0,6}|light|room|240 v") {
        let home = Study::from(&written(facts));
        let found = find(&home, &text);
        prop_assert!(found.len() <= 40 && (!text.trim().is_empty() || found.is_empty()));
        let mut with: BTreeMap<PointId, BTreeSet<PointId>> = BTreeMap::new();
        let named: Vec<String> = home.house().points().map(|point| point.name.clone()).collect();
        let breakers: Vec<String> = home.panels().breakers().map(|breaker| home.panels().number(&breaker.id)).collect();
        for found in named.iter().chain(&breakers).flat_map(|words| find(&home, words)).chain(found) {
            let dark: BTreeSet<PointId> = found.dark_with.iter().map(|dark| dark.point.clone()).collect();
            prop_assert_eq!(dark.len(), found.dark_with.len(), "none is listed twice");
            match &found.kind {
                FoundKind::Breaker { breaker, .. } => {
                    prop_assert_eq!(&dark, &proven_on(&home, &dead_with(&home, breaker)), "with {}", found.name);
                }
                FoundKind::Point { point, .. } => {
                    prop_assert!(!dark.contains(point), "it is said to go dark with itself");
                    with.insert(point.clone(), dark);
                }
                FoundKind::Room { .. } => {}
            }
        }
        for (point, dark) in &with {
            let mine = verdict(&home, point).proven_on().cloned();
            for other in dark {
                let theirs = verdict(&home, other).proven_on().cloned().unwrap();
                prop_assert!(dead_with(&home, mine.as_ref().unwrap()).contains(&theirs), "{} with {}", point, other);
            }
        }
    }

    #[test]
    fn what_is_off_is_what_the_handles_say_and_the_bar_names_every_one(facts in facts()) {
        let book = written(facts);
        let home = Study::from(&book);
        let handles: BTreeMap<&BreakerId, State> = home.panels().breakers().map(|b| (&b.id, b.state)).collect();
        let not_on: BTreeSet<&BreakerId> = handles.iter().filter(|(_, state)| **state != State::On).map(|(id, _)| *id).collect();
        let bar = off_now(&home);
        prop_assert_eq!(bar.iter().map(|off| &off.breaker).collect::<BTreeSet<_>>(), not_on.clone());
        prop_assert_eq!(home.switchings().off().iter().collect::<BTreeSet<_>>(), not_on);
        // A line told of a handle last says where it is, unless another act moved it since.
        for off in &bar {
            prop_assert_eq!(off.state, handles[&off.breaker]);
            prop_assert_eq!(&off.number, &home.panels().number(&off.breaker));
        }
        let now = home_now(&"hut".parse().unwrap(), &home);
        prop_assert_eq!(now.off_now.len(), bar.len());
        prop_assert_eq!(now.seq, book.seq());
    }

    #[test]
    fn power_is_gone_behind_what_is_off_and_nowhere_else(facts in facts()) {
        let home = Study::from(&written(facts));
        for breaker in home.panels().breakers() {
            let dead = home.panels().dead_behind(&BTreeSet::from([breaker.id.clone()]));
            prop_assert_eq!(&dead, &dead_with(&home, &breaker.id), "behind {}", home.panels().number(&breaker.id));
        }
    }
}
