//! Every kind of fact can be written by an act of the text fixture, has words, and is drawn at random by the property tests.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::collections::BTreeMap;

use proptest::strategy::{Strategy, ValueTree};
use proptest::test_runner::TestRunner;
use wayfinder_core::{Fact, InWords};
use wayfinder_fixture::{any, written};

/// A home in which every kind of fact is written at least once.
const EVERYTHING: &str = "rules nec2023
    units metric
    method several_off
    panel 24
    1 20 kitchen
    3 20 counter
    2 15 hall
    5-7 50/2 range
    sub Shed 8 5-7
    with shed {\"details\": {\"fed_by\": null}}
    no-panel shed
    label 2 hall light
    share 1 3
    join 1 3
    move 2 4
    read 1 2 240
    filler 24
    photo door
    must-stay-on 5-7
    room Kitchen
    room Hall on house
    room Attic on loft
    no-room Attic
    room Loft on loft
    floor loft 1
    draw Kitchen 4 x 3
    draw Hall 4 x 2 below Kitchen
    draw loft: Loft 4 x 3
    door Hall Kitchen
    stairs Hall Loft
    no-door Hall Kitchen
    no-stairs Hall Loft
    hang Hall 0 500
    lay-picture loft
    no-picture loft
    point Kitchen gfci counter
    point Kitchen receptacle sink
    point Kitchen switch wall
    point Kitchen light ceiling
    point Kitchen light gone
    no-point gone
    stand counter 100 0
    switches wall: ceiling
    protects counter: sink
    lit counter
    volts sink 121
    watch counter 4 stayed lit
    skip ceiling
    tone sink 4
    own 4 Hall: lights and sink
    hung main
    sticker counter 4
    tested counter works
    tests 3 6
    address https://home.example/h/x
    trouble t1 counter
    looked t1 safety normal
    over t1 {\"cause\": \"gfci_dead\", \"points\": [\"counter\"]}
    mended t1
    call 555-0100 555-0101
    fed counter from panel
    load sink microwave
    usage 9840
    breaker-volts 4 {\"bus\": 121, \"output\": 62}
    load counter toaster
    no-load counter-toaster
    watts sink-microwave 1430
    clamp 4 7.5
    service {\"meter_amps\": 200}
    figure cooking 9000 by the inspector
    heat 4 61 34 8
    survey add 4 3
    job j1 main: tighten 4
    answer j1 permit done
    stop-job j1 water under the lugs
    leave-job j1 the roof leaks
    job j2 reset 4
    end-job j2
    size s1 Kiln {\"load\": {\"feeds\": \"plain\", \"amps\": 32}, \"volts\": 240, \"carrying\": 2, \"celsius\": 30}
    drop-size s1
    prices $ {\"one_pole\": 8}
    rewired counter 4
    blink
    press-test counter
    press-reset counter
    off 4
    wrong-handle 4
    on 4
    take-out 4
    set-aside directory-missing:main: it is clear
    made-up 7";

#[test]
fn every_kind_has_an_act_and_words() {
    let mut home = written(EVERYTHING);
    let last = home.book.seq();
    home.act(&format!("strike {last}")).unwrap();
    home.act(&format!("restore {last}")).unwrap();
    let mut words: BTreeMap<&str, Vec<String>> = BTreeMap::new();
    for line in home.book.lines() {
        words.entry(line.entry.fact.kind()).or_default().push(InWords::of(&home.book).line(line));
    }
    for kind in Fact::KINDS {
        let said = words.get(kind).unwrap_or_else(|| panic!("no act of the text fixture writes {kind}"));
        assert!(said.iter().all(|words| words.len() > 8 && !words.contains(kind)), "{kind}: {said:?}");
    }
}

#[test]
fn every_kind_is_drawn_at_random() {
    let mut runner = TestRunner::deterministic();
    let drawn: BTreeMap<&str, Fact> = any::KINDS
        .iter()
        .map(|(kind, often, draw)| {
            assert!(*often > 0, "{kind}");
            (*kind, draw().new_tree(&mut runner).unwrap().current())
        })
        .collect();
    for kind in Fact::KINDS {
        let fact = drawn.get(kind).unwrap_or_else(|| panic!("no generator for {kind}"));
        assert_eq!(fact.kind(), *kind);
        let json = serde_json::to_value(fact).unwrap();
        assert_eq!(json["kind"], *kind);
        assert_eq!(&serde_json::from_value::<Fact>(json).unwrap(), fact);
    }
    assert_eq!(any::KINDS.len(), Fact::KINDS.len());
}
