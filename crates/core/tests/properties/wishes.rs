//! What is typed or tapped on the plan, in any house: what is proposed is taken by the logbook as it stands, says what it did, is
//! undone by striking it out, and asking writes nothing.

use super::{draft, written};
use proptest::prelude::*;
use wayfinder_core::*;
use wayfinder_fixture::any::{any_fact, id};

fn spot() -> impl Strategy<Value = Spot> {
    (-2000..9000_i32, -2000..9000_i32).prop_map(|(x, y)| Spot::at(x, y))
}

fn floor() -> impl Strategy<Value = String> {
    prop::sample::select(vec!["house", "loft", "cellar", "attic"]).prop_map(str::to_owned)
}

fn volts() -> impl Strategy<Value = Volts> {
    prop::sample::select(vec![Volts::new(120), Volts::new(240)])
}

/// A name as it may be typed: nothing, one that is there already, one of its own, something odd.
fn name() -> impl Strategy<Value = String> {
    prop_oneof![Just(String::new()), Just("light 0".to_owned()), Just("shelf".to_owned()), "[ -~]{0,12}"]
}

fn typed_rooms() -> impl Strategy<Value = String> {
    let line = prop_oneof![
        "[A-D] [1-9](\\.[0-9])? x [1-9](\\.[0-9])?",
        "[A-D] [1-9] x [1-9] (right of|left of|above|below) [A-D]",
        "[A-D] [1-9] x [1-9] less 1 x 1 top left",
        "[A-D] [0-9]{1,3}'[0-9]{1,2}\" x [0-9]{1,2}'",
        "(loft|cellar):",
        "[ -~]{0,16}",
    ];
    prop::collection::vec(line, 1..4).prop_map(|lines| lines.join("\n"))
}

fn any_wish() -> impl Strategy<Value = Wish> {
    let room = || (0..3_u8).prop_map(|n| id::<RoomId>("r", n));
    let point = || (0..4_u8).prop_map(|n| id::<PointId>("p", n));
    let kind = || prop::sample::select(vec![PointKind::Receptacle, PointKind::Light, PointKind::Switch, PointKind::Appliance]);
    let opening = || prop::sample::select(vec![OpeningKind::Door, OpeningKind::Passage, OpeningKind::Window]);
    prop_oneof![
        3 => (typed_rooms(), floor()).prop_map(|(text, floor)| Wish::TypeRooms {
            text,
            floor,
            beside: None,
            side: None,
            ids: (10..20).map(|n| id("r", n)).collect(),
        }),
        1 => (room(), spot()).prop_map(|(room, to)| Wish::MoveRoom { room, to }),
        1 => room().prop_map(|room| Wish::TurnRoom { room }),
        2 => (room(), kind(), volts(), name()).prop_map(|(room, point_kind, volts, name)| Wish::ListPoint {
            point: id("p", 9),
            room,
            point_kind,
            volts,
            details: PointDetails::default(),
            name,
        }),
        2 => (floor(), spot(), kind(), volts(), name()).prop_map(|(floor, at, point_kind, volts, name)| Wish::TapPoint {
            point: id("p", 9),
            floor,
            at,
            point_kind,
            volts,
            details: PointDetails::default(),
            name,
        }),
        2 => (point(), spot()).prop_map(|(point, to)| Wish::MovePoint { point, to }),
        1 => room().prop_map(|room| Wish::SpreadPoints { room }),
        1 => point().prop_map(|point| Wish::SplitReceptacle { point, other: id("p", 9) }),
        2 => (floor(), spot(), opening(), -50..3000_i32).prop_map(|(floor, at, opening_kind, width)| Wish::TapOpening {
            opening: id("o", 9),
            floor,
            at,
            opening_kind,
            width: Length::mm(width),
        }),
        1 => (room(), room(), 100..3000_i32).prop_map(|(room, to, width)| Wish::Door {
            opening: id("o", 9),
            room,
            to,
            width: Length::mm(width),
        }),
        1 => (room(), room()).prop_map(|(lower, upper)| Wish::Stairs { stairs: id("s", 9), lower, upper }),
        1 => (floor(), spot()).prop_map(|(floor, at)| Wish::TapPanel { panel: id("panel", 0), floor, at }),
    ]
}

fn drafts(facts: &[Fact]) -> Vec<Draft> {
    let draft = |(n, fact): (usize, &Fact)| Draft { id: format!("wish{n}").parse().unwrap(), ..draft(3_000, fact.clone()) };
    facts.iter().enumerate().map(draft).collect()
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 1500, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn what_is_proposed_is_taken_and_taken_back(facts in prop::collection::vec(any_fact(), 0..60), wish in any_wish()) {
        let mut book = written(facts);
        let before = book.home().clone();
        let proposal = match propose(&before, &wish) {
            Ok(proposal) => proposal,
            Err(refusal) => {
                prop_assert!(refusal.wrong.ends_with('.') && !refusal.accepted.is_empty(), "{:?}: {:?}", wish, refusal);
                return Ok(());
            }
        };
        let drafts = drafts(&proposal.facts);
        if drafts.is_empty() {
            let read_nothing = proposal.lines.iter().all(|line| line.misread.is_some());
            prop_assert!(read_nothing || proposal.said.is_empty() || !proposal.lines.is_empty(), "{:?}: {:?}", wish, proposal);
            return Ok(());
        }
        prop_assert!(!proposal.said.is_empty(), "{:?}", proposal);
        let taken = book.admit(&drafts);
        prop_assert!(taken.is_ok(), "{:?}\nproposed {:?}\nrefused: {:?}", wish, proposal.facts, taken.err());
        book.commit(taken.unwrap());
        // Asked once more of the home as it was, it says the same.
        prop_assert_eq!(propose(&before, &wish).unwrap(), proposal);
        // Every point and room is drawn or listed as not drawn, as before.
        let drawn = plan(&Study::from(&book)).clone();
        let shown = |floor: &PlanFloor| floor.points.len();
        prop_assert_eq!(drawn.floors.iter().map(shown).sum::<usize>() + drawn.not_placed.len(), book.home().house().points().count());
        // Struck out, all of it is as it was.
        let strike: Vec<Draft> = drafts
            .iter()
            .enumerate()
            .map(|(n, wished)| Draft {
                id: format!("back{n}").parse().unwrap(),
                ..draft(4_000, LineStruck { line: wished.id.clone() }.into())
            })
            .collect();
        let back = book.admit(&strike);
        prop_assert!(back.is_ok(), "{:?}", back.err());
        book.commit(back.unwrap());
        prop_assert!(*book.home() == before, "{:?} left something behind", wish);
    }

    #[test]
    fn a_point_that_is_tapped_stands_in_the_room_around_it(
        facts in prop::collection::vec(any_fact(), 0..40),
        at in spot(),
        kind in prop::sample::select(vec![PointKind::Receptacle, PointKind::Light]),
    ) {
        let mut book = written(facts);
        let (point, floor): (PointId, String) = (id("p", 9), "house".into());
        let details = PointDetails::default();
        let wish =
            Wish::TapPoint { point: point.clone(), floor, at, point_kind: kind, volts: Volts::new(120), details, name: String::new() };
        let Ok(proposal) = propose(book.home(), &wish) else { return Ok(()) };
        let outcome = book.admit(&drafts(&proposal.facts)).unwrap();
        book.commit(outcome);
        let home = Study::from(&book);
        let placed = home.house().point(&point).unwrap();
        prop_assert!(!placed.name.is_empty() && proposal.said.ends_with(&placed.name), "{} {}", proposal.said, placed.name);
        let outline = &home.plan().outlines[&placed.room];
        let around = Bounds::around(outline.corners().iter().copied()).unwrap();
        let inside = |v: i32, from: i32, long: i32| (from - 500..=from + long + 500).contains(&v);
        prop_assert!(inside(at.x, around.x, around.width) && inside(at.y, around.y, around.height), "{:?} in {:?}", at, around);
    }
}
