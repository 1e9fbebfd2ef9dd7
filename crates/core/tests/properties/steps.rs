//! The step that is told, at any moment of any logbook: its words, its buttons, what is to be switched, and what a helper is
//! offered of it.

use std::collections::BTreeSet;

use super::{draft, written};
use proptest::prelude::*;
use wayfinder_core::*;
use wayfinder_fixture::any::any_fact;

fn config() -> ProptestConfig {
    ProptestConfig { cases: 500, failure_persistence: None, ..ProptestConfig::default() }
}

/// What is wrong with a sentence as somebody would read it.
fn odd(words: &str) -> Option<&'static str> {
    let first = words.chars().next()?;
    [
        (first.is_lowercase(), "begins with a small letter"),
        (words.contains("  ") || words.trim() != words, "has spaces that nobody typed"),
        (words.contains(" .") || words.contains(" ,") || words.contains("..") || words.contains("()"), "has a word left out"),
        (words.contains(" 1 points") || words.contains(" 1 breakers"), "counts one as many"),
    ]
    .into_iter()
    .find_map(|(is, what)| is.then_some(what))
}

fn buttons(card: &StepCard) -> impl Iterator<Item = &StepAct> {
    card.main.iter().chain(&card.acts).chain(&card.choices).chain(&card.instead)
}

fn facts(act: &StepAct) -> &[Fact] {
    match &act.does {
        Does::Record { facts, .. } => facts,
        Does::Open { .. } => &[],
    }
}

/// Everything that a card has to hold, whoever reads it.
fn holds(card: &StepCard, home: &Study, book: &Logbook) {
    let told = format!("{card:?}");
    assert!(!card.title.is_empty() && !card.over.is_empty(), "{told}");
    for words in [&card.title, &card.over].into_iter().chain(&card.cautions).chain(buttons(card).map(|act| &act.words)) {
        // A name may be typed in any way; the frame of a sentence may not.
        let named = home.house().points().any(|point| words.contains(&point.name));
        assert!(named || odd(words).is_none(), "“{words}” {:?}", odd(words));
    }
    let mut words: Vec<&str> = buttons(card).map(|act| act.words.as_str()).collect();
    words.sort_unstable();
    assert!(words.windows(2).all(|two| two[0] != two[1]), "two buttons say the same: {words:?}");
    for switch in &card.switches {
        for handle in &switch.handles {
            let breaker = home.panels().breaker(&handle.breaker).unwrap();
            let off = home.switchings().off().contains(&handle.breaker);
            match switch.to {
                State::Off => assert!(!off && !breaker.must_stay_on(), "{} is asked off: {breaker:?}", handle.number),
                State::On => {
                    let off_first = card.switches[0].to == State::Off && card.switches[0].handles.contains(handle);
                    assert!(off || off_first, "{} is on already", handle.number);
                }
                State::Tripped => panic!("nobody is asked to trip {}", handle.number),
            }
            assert_eq!(handle.number, home.panels().number(&handle.breaker));
        }
    }
    for act in buttons(card) {
        let drafts: Vec<Draft> = facts(act)
            .iter()
            .enumerate()
            .map(|(n, fact)| Draft { id: format!("button{n}").parse().unwrap(), ..draft(1_000, fact.clone()) })
            .collect();
        if !drafts.is_empty() {
            let taken = book.admit(&drafts);
            assert!(taken.is_ok(), "“{}” is refused: {}\n{drafts:?}", act.words, taken.err().unwrap());
        }
    }
}

proptest! {
    #![proptest_config(config())]

    #[test]
    fn every_step_can_be_read_and_every_button_is_taken(facts in prop::collection::vec(any_fact(), 0..70)) {
        let book = written(facts);
        let home = Study::from(&book);
        let view = trace_view(&home, home.setup());
        holds(&view.panel, &home, &book);
        holds(&view.walk, &home, &book);
        prop_assert_eq!((view.panel.side, view.walk.side), (StepSide::Panel, StepSide::Walk));
        for clock in dark_clocks(&home) {
            holds(&clock.card, &home, &book);
            prop_assert!(clock.card.main.is_some(), "a clock says what ends it: {:?}", clock.card);
        }
        // Nobody is told to leave the main alone, or to switch on again, while it has to go off.
        if matches!(view.next, NextStep::Stop { .. }) {
            prop_assert!(view.panel.weight == Weight::Alarm && view.panel.switches.is_empty());
            prop_assert!(dark_clocks(&home).is_empty());
        } else {
            prop_assert!(view.panel.weight != Weight::Alarm && view.walk.weight != Weight::Alarm);
        }
        let rooms = view.next.rooms().unwrap_or_default();
        prop_assert_eq!(rooms.iter().map(|room| &room.room).collect::<BTreeSet<_>>().len(), rooms.len(), "a room is walked once");
    }

    #[test]
    fn a_helper_reads_the_owners_step_without_what_a_helper_may_not_write(facts in prop::collection::vec(any_fact(), 0..60)) {
        let book = written(facts);
        let home = Study::from(&book);
        let owner = trace_view(&home, home.setup());
        for (side, whole) in [(StepSide::Panel, &owner.panel), (StepSide::Walk, &owner.walk)] {
            let helper = helper_view(&home, side, &[], "Ada");
            holds(&helper.card, &home, &book);
            prop_assert_eq!(helper.seq, owner.seq);
            for act in buttons(&helper.card) {
                prop_assert!(facts_are_a_helpers(act), "{:?}", act);
            }
            if helper.card.title == whole.title {
                for act in buttons(&helper.card) {
                    prop_assert!(buttons(whole).any(|own| own == act), "the owner is not offered {:?}", act);
                }
                prop_assert_eq!(&helper.card.switches, &whole.switches);
            }
            // A helper does not mend what stopped the trace; the owner is told.
            let stopped = matches!(owner.next, NextStep::Stop { .. });
            // Worded for whoever reads it, and never fewer.
            let minded = helper.card.title != whole.title || helper.card.cautions.len() >= whole.cautions.len();
            prop_assert!(stopped || (minded && helper.cautions == owner.cautions), "{:?}", helper.card);
            prop_assert!(!stopped || helper.card.cautions.iter().any(|caution| caution.contains("owner")), "{:?}", helper.card);
        }
    }

    #[test]
    fn those_who_walk_share_the_rooms(facts in prop::collection::vec(any_fact(), 0..60)) {
        let home = Study::from(&written(facts));
        let names = ["Ada".to_owned(), "Ben".to_owned()];
        let all = helper_view(&home, StepSide::Walk, &names[..1], "Ada").rooms;
        let shares: Vec<Vec<RoomId>> = names
            .iter()
            .map(|own| helper_view(&home, StepSide::Walk, &names, own).rooms.into_iter().map(|room| room.room).collect())
            .collect();
        for share in &shares {
            let known: BTreeSet<_> = share.iter().collect();
            prop_assert_eq!(known.len(), share.len(), "a room twice");
            prop_assert!(share.iter().all(|room| all.iter().any(|known| known.room == *room)), "a room that nobody has to see");
        }
        let left = |room: &RoomToWalk| room.points.iter().any(|point| point.seen.is_none() && !point.skipped);
        if all.iter().filter(|room| left(room)).count() > 1 {
            prop_assert_ne!(&shares[0][0], &shares[1][0], "two who walk begin in two rooms");
        }
    }

    #[test]
    fn a_clock_runs_from_the_first_that_went_off_of_those_it_names(facts in prop::collection::vec(any_fact(), 0..60), minutes in 2..600_u16) {
        let mut book = written(facts);
        let Some(point) = book.home().house().points().next().cloned() else { return Ok(()) };
        let details = PointDetails { dark_minutes: Some(minutes), ..point.details.clone() };
        let told = PointPlaced { details, ..PointPlaced::from(&point) };
        if let Ok(outcome) = book.admit(&[draft(2_000, told.into())]) {
            book.commit(outcome);
        }
        let home = Study::from(&book);
        for clock in dark_clocks(&home) {
            prop_assert_eq!(clock.until.unix_ms() - clock.since.unix_ms(), i64::from(clock.minutes) * 60_000);
            let off = home.switchings().off();
            prop_assert!(!clock.breakers.is_empty() && clock.breakers.iter().all(|breaker| off.contains(breaker)));
            // The last line that switched one of these off and was not undone.
            let went_off = clock.breakers.iter().map(|breaker| last_switched_off(&book, breaker)).min().unwrap();
            prop_assert_eq!(clock.since, went_off);
            // Whatever may feed it is on again when all that is named is.
            prop_assert!(clock.card.switches.iter().flat_map(|switch| &switch.handles).map(|handle| &handle.breaker).eq(&clock.breakers));
        }
    }
}

fn facts_are_a_helpers(act: &StepAct) -> bool {
    !facts(act).is_empty() && facts(act).iter().all(|fact| fact.may_be_written_by_a_helper(|_| false))
}

/// Read off the lines, without the program's own switchings: when this breaker went off for the last time.
fn last_switched_off(book: &Logbook, breaker: &BreakerId) -> Moment {
    let mut since = None;
    // The line that moved it last.
    let mut moved = None;
    for line in book.lines().filter(|line| !book.is_struck(&line.entry.id)) {
        match &line.entry.fact {
            Fact::BreakerSwitched(switched) if switched.breaker == *breaker && since.is_some() == (switched.to == State::On) => {
                since = (switched.to != State::On).then_some(line.entry.at);
                moved = Some(&line.entry.id);
            }
            // Told that it was another handle, it stands again as before, from that line on.
            Fact::WrongHandle(wrong) if moved == Some(&wrong.line) => {
                since = since.is_none().then_some(line.entry.at);
                moved = None;
            }
            _ => {}
        }
    }
    since.unwrap()
}
