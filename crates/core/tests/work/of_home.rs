//! Ways to a wish in homes: what is sure, what has to be read first, what is left alone. Homes are invented.

use proptest::prelude::*;
use wayfinder_core::work::{HomeWish, ReadPage, WayLine, WayStands, WorkView, read_wish, work_view};
use wayfinder_core::{BreakerId, Job, JobMove, Panel, Study};
use wayfinder_fixture::written;

/// A panel of eight spaces of which everything is read and every point proven.
const KNOWN: &str = "panel 8\nmain is main 100 A, bus 100 A, listed for 16\n1 20 #12 hall\n3 15 #14 porch\n2-4 30/2 #10 dryer\n\
                     room Hall\nroom Porch\nroom Laundry\npoint Hall receptacle wall\npoint Porch light ceiling\npoint Laundry appliance dryer\n\
                     dryer is 240 V\nproof wall 1\nproof ceiling 3\nproof dryer 2-4\n";

fn panel(home: &Study) -> &Panel {
    home.panels().all().next().unwrap()
}

fn asked(acts: &str, wish: &str) -> Result<WorkView, String> {
    let home = written(acts).home;
    let wish = read_wish(&home, panel(&home), wish)?;
    work_view(&home, panel(&home), &wish, &[], 200_000)
}

fn sure(view: &WorkView) -> Vec<&str> {
    view.ways.iter().filter(|way| way.stands == WayStands::Sure).map(|way| way.name).collect()
}

/// What has to be read first.
fn unread(way: &WayLine) -> Vec<&str> {
    way.unread.iter().map(|line| line.words.as_str()).collect()
}

#[test]
fn wishes_are_read_as_people_say_them() {
    let home = written(KNOWN).home;
    for (said, words) in [
        ("40 A two-pole for the kiln", "a new circuit: 40 A, two-pole for the kiln"),
        ("a 30a 240 V circuit for the heater that takes 20 A", "a new circuit: 30 A, two-pole for the heater"),
        ("20 A circuit", "a new circuit: 20 A, one-pole"),
        ("20 A GFCI for the porch", "a new circuit: 20 A, one-pole GFCI for the porch"),
        ("two free spaces side by side", "2 open spaces side by side"),
        ("an open space", "one open space"),
        ("20 A circuit for the space heater", "a new circuit: 20 A, one-pole for the space heater"),
        ("replace 3", "another breaker on 3, of the same kind"),
        ("Replace 1 with 15 A AFCI", "another breaker on 1, 15 A, AFCI"),
        ("GFCI for 1", "another breaker on 1, GFCI"),
        ("make 1 240 V", "another breaker on 1, 240 V in place of 120 V"),
        ("level the legs", "leveling the legs"),
    ] {
        assert_eq!(read_wish(&home, panel(&home), said).map(|wish| wish.words(&home)), Ok(words.to_owned()), "{said}");
    }
    let halves = written("panel 8\n5a 15 hall\n5b 20 porch\n").home;
    let said = |wish: &str| read_wish(&halves, panel(&halves), wish).map(|wish| wish.words(&halves));
    assert_eq!(said("replace 5a"), Ok("another breaker on 5a, of the same kind".into()));
    assert_eq!(said("replace 5b with 15a"), Ok("another breaker on 5b, 15 A".into()));
    for (said, why) in [
        ("", "was not understood"),
        ("more power", "Say for example"),
        ("replace 17", "has no breaker 17"),
        ("400 A for the barn", "10 to 100 A"),
        ("20 A circuit for the mill that takes 30 A", "between 1 A and the 20 A"),
        ("99 spaces", "one to eight"),
        ("replace 1 with 17 A", "no breaker of 17 A"),
    ] {
        let refused = read_wish(&home, panel(&home), said).unwrap_err();
        assert!(refused.contains(why), "{said}: {refused}");
    }
}

#[test]
fn what_is_read_makes_a_way_sure() {
    // All that the breakers let through, 65 A on the heavier leg, and 15 A more are 80 A of 100.
    let view = asked(KNOWN, "15 A circuit for the freezer").unwrap();
    assert_eq!(sure(&view), ["An open space", "An electrician"], "{view:?}");
    assert_eq!(view.title, "An open space makes room for a new circuit: 15 A, one-pole for the freezer.");
    assert!(view.ways[0].steps[1].starts_with("Land the new circuit at "), "{view:?}");
    // A larger one only if the loads are lighter than the breakers allow.
    let view = asked(KNOWN, "40 A two-pole for the kiln").unwrap();
    assert_eq!(sure(&view), ["An electrician"]);
    assert_eq!(view.ways[0].stands, WayStands::Read);
    // What it takes is read first: if that is little, the loads need not be known. If it is not, they decide.
    assert_eq!(unread(&view.ways[0]), ["what the new circuit takes, by its plate"], "{view:?}");
    assert_eq!(view.ways[0].unread[0].wish, "40 A two-pole for the kiln that takes ");
    let told = asked(KNOWN, "40 A two-pole for the kiln that takes 32 A").unwrap();
    assert!(unread(&told.ways[0]).iter().any(|line| line.contains("carr")), "{told:?}");
    assert!(!unread(&told.ways[0]).iter().any(|line| line.starts_with("what the new circuit takes")), "{told:?}");
    // Open spaces are there: nothing has to be done, and nothing needless is offered.
    let view = asked(KNOWN, "two spaces").unwrap();
    assert_eq!(sure(&view), ["Nothing has to be done", "An electrician"]);
    assert!(view.ways.iter().all(|way| way.stands != WayStands::Read), "{view:?}");
}

/// A load at a point of which nobody knows the breaker may be on any: then no circuit is known to carry less than its breaker lets through.
#[test]
fn what_is_not_proven_may_be_on_any_breaker() {
    let loads = "load wall led_60\nload ceiling led_60\nload dryer dryer\n";
    let smaller = |more: &str| {
        let view = asked(&format!("{KNOWN}{loads}{more}"), "replace 1 with 15 A").unwrap();
        view.ways.iter().find(|way| way.name == "In its own place").unwrap().clone()
    };
    assert_eq!(smaller("").stands, WayStands::Sure);
    let open = smaller("point Hall receptacle window\n");
    assert_eq!(open.stands, WayStands::Read);
    assert!(unread(&open).contains(&"what 1 carries"), "{open:?}");
}

#[test]
fn a_breaker_is_never_larger_than_its_wire_and_no_protection_is_lost() {
    let none = |acts: &str, wish: &str| {
        let view = asked(acts, wish).unwrap();
        assert_eq!(sure(&view), ["An electrician"], "{view:?}");
        assert!(view.ways.iter().all(|way| way.stands != WayStands::Read), "{view:?}");
        view.ways.iter().find(|way| way.name == "In its own place").unwrap().why_not.clone()
    };
    for larger in ["replace 3 with 20 A", "replace 1 with 30 A", "replace 2 with 40 A"] {
        assert!(asked(KNOWN, larger).unwrap_err().starts_with("A breaker is not made larger here"), "{larger}");
    }
    // One that is too large for its wire now is not put in again.
    let thin = format!("{KNOWN}set 1 {{\"wire\": {{\"gauge\": \"14\"}}}}\n");
    assert_eq!(none(&thin, "replace 1"), "the breaker would be too large for its wire");

    let home = written(KNOWN).home;
    assert!(read_wish(&home, panel(&home), "replace 6").is_err());

    // A light is no single outlet; nor is a circuit on which something else may be.
    assert!(none(KNOWN, "make 3 240 V").starts_with("it feeds more than a single outlet"));
    // One outlet alone, proven, with all else proven elsewhere, is.
    let view = asked(KNOWN, "make 1 240 V").unwrap();
    assert!(view.ways.iter().any(|way| way.stands != WayStands::No && way.name != "An electrician"), "{view:?}");
    assert!(view.cautions.iter().any(|caution| caution.contains("re-marked at both ends")), "{view:?}");
}

#[test]
fn what_is_not_to_be_touched_is_not() {
    for (acts, why) in [
        ("must-stay-on 1", "it must stay on"),
        ("set 1 {\"wire\": {\"gauge\": \"10\", \"metal\": \"aluminum\"}}", "its wire is aluminum"),
        ("tripped 1", "it is found tripped"),
    ] {
        let home = format!("{KNOWN}{acts}\n");
        let refused = asked(&home, "replace 1 with 15 A").unwrap_err();
        assert!(refused.contains(why) && refused.contains("electrician"), "{acts}: {refused}");
        for wish in ["40 A two-pole for the kiln", "three spaces", "15 A circuit"] {
            let view = asked(&home, wish).unwrap();
            for step in view.ways.iter().flat_map(|way| &way.steps) {
                assert!(!step.starts_with("Move 1 ") && !step.contains("Join 1 ") && !step.contains(" to 1:"), "{step}");
            }
        }
    }
    let unread = "panel 8\n1 20 hall\n";
    assert!(asked(unread, "15 A circuit").unwrap_err().contains("Read the main breaker"));
    let fuses = format!("{KNOWN}main is fuses\n");
    assert_eq!(sure(&asked(&fuses, "15 A circuit").unwrap()), ["An electrician"]);
}

/// The smallest of what guards a panel counts, and what feeds it is asked for: a panel with a main of 100 A behind a breaker of 30 A.
#[test]
fn a_panel_behind_another_carries_no_more_than_its_feeder() {
    let home = written(&format!("{KNOWN}5-7 30/2 #10 shed\nsub Shed 8 5-7\nwith shed {{\"main\": 100.0}}\n")).home;
    let shed = home.panels().all().find(|panel| panel.name == "Shed").unwrap();
    let of = |said: &str| work_view(&home, shed, &read_wish(&home, shed, said).unwrap(), &[], 20_000).unwrap();
    let small = of("15 A circuit that takes 5 A");
    assert_eq!(small.ways[0].stands, WayStands::Read, "{small:?}");
    assert!(unread(&small.ways[0]).contains(&"what the panel that feeds this one carries"), "{small:?}");
    let large = of("30 A circuit that takes 25 A");
    let open = large.ways.iter().find(|way| way.name == "An open space").unwrap();
    assert!(open.why_not.contains("more than 80 %") || open.why_not.contains("no space"), "{open:?}");
}

/// Whatever is wished for in the demo home, it is answered or refused in a sentence; every plan says what it rests on; nothing says that
/// anything is safe.
#[test]
fn every_wish_in_the_demo_home_is_answered() {
    let home = Study::from(&wayfinder_fixture::homes::demo());
    let (mut answered, mut refused) = (0, 0);
    for panel in home.panels().all() {
        let numbers: Vec<String> = home.panels().breakers_of(&panel.id).map(|breaker| breaker.number()).collect();
        let wishes = numbers.iter().flat_map(|n| [format!("replace {n}"), format!("GFCI for {n}"), format!("make {n} 240 V")]);
        for said in wishes.chain(["30 A two-pole", "20 A circuit", "three spaces", "level"].map(str::to_owned)) {
            let wish = read_wish(&home, panel, &said).unwrap();
            match work_view(&home, panel, &wish, &[], 20_000) {
                Err(why) => {
                    refused += 1;
                    assert!(why.ends_with('.'), "{said}: {why}");
                }
                Ok(view) => {
                    answered += 1;
                    assert!(!format!("{view:?}").contains(" safe"), "{view:?}");
                    assert!(view.cautions[0].contains("stay live with the main off"));
                    for way in &view.ways {
                        match way.stands {
                            WayStands::No => assert!(!way.why_not.is_empty() && way.steps.is_empty()),
                            WayStands::Read => assert!(!way.unread.is_empty(), "{said}: {way:?}"),
                            WayStands::Sure => assert!(way.unread.is_empty() && way.why_not.is_empty()),
                        }
                        if way.opens_panel {
                            assert!(way.steps[0].contains("dead proven"), "{way:?}");
                        }
                    }
                }
            }
        }
    }
    assert!(answered > 40 && refused > 10, "{answered} {refused}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    /// Whatever is typed is a wish or a sentence.
    #[test]
    fn any_words_are_a_wish_or_a_sentence(said in "[0-9a-zA-Z ,.\"-]{0,40}") {
        let home = written(KNOWN).home;
        match read_wish(&home, panel(&home), &said) {
            Ok(wish) => {
                let spaces = if let HomeWish::Spaces { count } = wish { count } else { 1 };
                prop_assert!((1..=8).contains(&spaces));
                if let Err(why) = work_view(&home, panel(&home), &wish, &[], 2_000) {
                    prop_assert!(why.ends_with('.'), "{}", why);
                }
            }
            Err(why) => prop_assert!(why.ends_with('.'), "{}", why),
        }
    }
}

#[test]
fn wishes_by_the_name_of_a_room_an_outlet_or_an_appliance_find_their_breaker() {
    let acts = format!("{KNOWN}room Shop\npoint Shop receptacle bench\nload wall microwave\n");
    let home = written(&acts).home;
    let said = |wish: &str| read_wish(&home, panel(&home), wish).map(|wish| wish.words(&home));
    assert_eq!(said("GFCI for the porch").as_deref(), Ok("another breaker on 3, GFCI"));
    assert_eq!(said("AFCI for the wall outlet").as_deref(), Ok("another breaker on 1, AFCI"));
    assert_eq!(said("make the ceiling light 240 V").as_deref(), Ok("another breaker on 3, 240 V in place of 120 V"));
    assert_eq!(said("GFCI for the microwave").as_deref(), Ok("another breaker on 1, GFCI"));
    // By what the library says that it takes: 120 V, one pole.
    assert_eq!(said("own circuit for the microwave").as_deref(), Ok("a new circuit: 20 A, one-pole for the microwave"));
    assert_eq!(said("own circuit for the saw").as_deref(), Ok("a new circuit: 20 A, one-pole for the saw"));
    assert_eq!(said("combine two light circuits").as_deref(), Ok("two circuits on one breaker"));
    assert!(said("GFCI for the shop").unwrap_err().contains("has not been proven yet"));
    assert!(said("GFCI for the attic").unwrap_err().contains("There is nothing called “attic” here"));
    let two = written(&format!("{KNOWN}point Hall light lamp\nproof lamp 3\n")).home;
    assert!(read_wish(&two, panel(&two), "GFCI for the hall").unwrap_err().contains("on 1 and 3: say which"));
}

#[test]
fn two_circuits_are_made_one_by_joining_alone_and_what_is_ruled_out_is_left() {
    let acts = "panel 8\nmain is main 100 A, bus 100 A, listed for 16\n1 15 #14 a\n3 15 #14 b\n5 15 #14 c\nroom Hall\n\
                point Hall light one\npoint Hall light two\npoint Hall light three\nproof one 1\nproof two 3\nproof three 5\n\
                load one led_60\nload two led_60\nload three led_60\n";
    let home = written(acts).home;
    let wish = read_wish(&home, panel(&home), "combine two circuits").unwrap();
    let ways = |not: &[BreakerId]| work_view(&home, panel(&home), &wish, not, 200_000).unwrap();
    let all = ways(&[]);
    let names: Vec<&str> = all.ways.iter().map(|way| way.name).collect();
    assert!(
        names
            .iter()
            .all(|name| ["Joining two circuits", "Two wires under a terminal listed for two", "An electrician"].contains(name)),
        "{names:?}"
    );
    let joined = all.ways.iter().find(|way| way.name == "Joining two circuits").unwrap();
    assert_ne!(joined.stands, WayStands::No, "{}", joined.why_not);
    let after = joined.after.as_ref().unwrap();
    assert_eq!(after.breakers.len(), 2, "one breaker less");
    // How many wires are under the terminals decides whether it is a way at all: that comes before a sheet.
    assert!(joined.job.is_none() && joined.no_sheet.contains("No job sheet yet"), "{}", joined.no_sheet);
    // Without one of the two it is the other pair; without all of them there is none.
    let touched = joined.touches[0].breaker.clone();
    let other = ways(std::slice::from_ref(&touched));
    let joined = other.ways.iter().find(|way| way.name == "Joining two circuits").unwrap();
    assert!(joined.touches.iter().all(|one| one.breaker != touched), "{:?}", joined.touches);
    let every: Vec<BreakerId> = home.panels().breakers().map(|breaker| breaker.id.clone()).collect();
    let none = ways(&every);
    assert!(none.ways.iter().filter(|way| way.name != "An electrician").all(|way| way.stands == WayStands::No));
}

#[test]
fn a_sheet_is_made_of_what_is_sure_and_of_what_the_sheet_itself_asks_for() {
    let way = |acts: &str, wish: &str| {
        let home = written(acts).home;
        let wish = read_wish(&home, panel(&home), wish).unwrap();
        let view = work_view(&home, panel(&home), &wish, &[], 200_000).unwrap();
        view.ways.into_iter().find(|way| way.name == "In its own place").unwrap()
    };
    // The label's word is a stop of the sheet.
    let read = way(KNOWN, "GFCI for 1");
    assert_eq!((read.stands, unread(&read)), (WayStands::Read, vec!["whether the label names such a breaker"]));
    let Some(Job::Panel { moves, .. }) = &read.job else { panic!("no sheet: {}", read.no_sheet) };
    assert!(matches!(moves.as_slice(), [JobMove::Replace { .. }]), "{moves:?}");
    // What it carries decides whether it is a way at all.
    let read = way(KNOWN, "replace 1 with 15 A");
    assert!(unread(&read).contains(&"what 1 carries"), "{:?}", read.unread);
    assert!(read.job.is_none() && read.no_sheet.contains("search again"), "{}", read.no_sheet);
    let sure = way(&format!("{KNOWN}load wall led_60\n"), "replace 1 with 15 A");
    assert_eq!(sure.stands, WayStands::Sure, "{:?}", sure.unread);
    assert!(sure.job.is_some(), "{}", sure.no_sheet);
}

/// A full panel in which nothing may be joined: a sub-panel makes room, and says what has to be known first. Where the wish is not for
/// room, or the main is small, none is looked at.
#[test]
fn a_sub_panel_makes_room_and_has_no_sheet_of_its_own() {
    let full: String = (1..=8).map(|n| format!("{n} 20 #12 machine {n}\n")).collect();
    let full = |main: u16| format!("panel 8\nmain is main {main} A, bus {main} A, listed for 8, tandems nowhere\n{full}");
    let view = asked(&full(200), "20 A circuit for the freezer that takes 5 A").unwrap();
    let sub = view.ways.iter().find(|way| way.name == "A sub-panel").unwrap();
    assert_eq!(sub.stands, WayStands::Read, "{sub:?}");
    let said = sub.steps.join("\n");
    assert!(said.contains("Land the feeder of the sub-panel at ") && said.contains("Hang the sub-panel"), "{said}");
    assert!(said.contains("Land the new circuit in the sub-panel.") || said.contains(" over to the sub-panel"), "{said}");
    assert!(unread(sub).iter().any(|one| one.contains("clear space before it")), "{:?}", sub.unread);
    assert!(unread(sub).iter().any(|one| one.contains("that the service takes it")), "{:?}", sub.unread);
    assert!(sub.job.is_none() && sub.no_sheet.contains("call an electrician"), "{}", sub.no_sheet);
    assert!(sub.parts.iter().any(|part| part.what.contains("Sub-panel of 8 spaces")) && sub.risks.contains("1 panel more"));
    let after = sub.after.as_ref().unwrap();
    assert!(after.breakers.iter().any(|blade| blade.amps.value() == 60.0 && blade.poles.len() == 2), "the feeder is in it");
    for (acts, wish) in [(full(60), "20 A circuit for the freezer that takes 5 A"), (full(200), "replace 1")] {
        let view = asked(&acts, wish).unwrap();
        let sub = view.ways.iter().find(|way| way.name == "A sub-panel").unwrap();
        assert_eq!(sub.stands, WayStands::No, "{wish}: {sub:?}");
    }
}

/// Two light circuits of which all is known but what is behind the cover: that alone is asked for, and once it is answered with what is
/// offered there is a sheet. Where the gutter has no room, there is no such way any more.
#[test]
fn what_is_answered_on_the_spot_makes_a_way_sure() {
    let acts = "panel 8\nmain is main 100 A, bus 100 A, listed for 16\n1 15 #14 a\n3 15 #14 b\nroom Hall\n\
                point Hall light one\npoint Hall light two\nproof one 1\nproof two 3\nload one led_60\nload two led_60\n";
    let mut home = written(acts);
    let joined = |home: &Study| {
        let wish = read_wish(home, panel(home), "combine two circuits").unwrap();
        let view = work_view(home, panel(home), &wish, &[], 200_000).unwrap();
        view.ways.into_iter().find(|way| way.name == "Joining two circuits").unwrap()
    };
    let asked = [
        "how many wires are under the terminal of 1",
        "how many wires are under the terminal of 3",
        "for how many splices the gutter, the room beside the breakers, has place",
    ];
    let mut sorted = joined(&home.home);
    sorted.unread.sort_by_key(|line| asked.iter().position(|words| *words == line.words));
    assert_eq!((sorted.stands, unread(&sorted)), (WayStands::Read, asked.to_vec()));
    for (n, answer) in ["one", "one", "for 2 splices"].into_iter().enumerate() {
        let now = joined(&home.home);
        assert_eq!((now.stands, now.unread.len()), (WayStands::Read, 3 - n), "{:?}", now.unread);
        assert!(now.job.is_none() && now.unread.iter().all(|line| line.cover_off));
        let line = now.unread.iter().find(|line| line.words == asked[n]).unwrap();
        let choice = line.choices.iter().find(|choice| choice.words == answer).unwrap();
        home.fact(choice.fact.clone()).unwrap();
    }
    let sure = joined(&home.home);
    assert_eq!((sure.stands, sure.unread.len()), (WayStands::Sure, 0));
    assert!(sure.job.is_some(), "{}", sure.no_sheet);
    home.acts("with main {\"details\": {\"splice_room\": 0}}\n");
    assert_eq!(joined(&home.home).stands, WayStands::No);
}

/// How far a wire reaches: up to there a breaker is moved with nothing to be spliced, and once it is moved nothing is known of it.
#[test]
fn a_breaker_is_moved_as_far_as_its_wire_is_known_to_reach() {
    // Open are 1 and 5; for two spaces side by side 3 has to go.
    let acts = "panel 6\nmain is main 100 A, bus 100 A, listed for 6, tandems nowhere\n3 15 #14 b\n2-4 30/2 #10 d\n6 15 #14 c\nroom Hall\n\
                point Hall light one\nproof one 3\nload one led_60\n";
    let way = |home: &Study| {
        let wish = read_wish(home, panel(home), "two spaces").unwrap();
        let view = work_view(home, panel(home), &wish, &[], 200_000).unwrap();
        view.ways.into_iter().find(|way| way.name == "Moving breakers").unwrap()
    };
    let mut home = written(acts);
    let read = way(&home.home);
    let slack = read.unread.iter().find(|line| line.words.starts_with("how far the wire of 3 reaches")).unwrap();
    let to = slack.choices.iter().find(|choice| choice.words.contains("further: to ")).unwrap();
    assert_eq!(to.words.split(" further").next(), Some("1 space"), "{to:?}");
    home.fact(to.fact.clone()).unwrap();
    let now = way(&home.home);
    assert!(unread(&now).iter().all(|words| words.contains(" carr")), "only loads are left: {:?}", now.unread);
    home.act("move 3 1").unwrap();
    assert!(home.home.panels().breakers().all(|breaker| breaker.details.slack.is_none()));
}

/// Of many circuits whose loads nobody knows, as many are asked for as decide, the largest first; the wish asks for its own figure.
#[test]
fn as_little_is_asked_as_decides() {
    let circuits = "1 20 #12 a\n3 20 #12 b\n5 15 #14 c\n7 15 #14 d\n2-4 50/2 #6 range\n6-8 30/2 #10 dryer\n";
    let acts = format!("panel 16\nmain is main 125 A, bus 125 A, listed for 32\n{circuits}");
    let view = asked(&acts, "30 A two-pole for the kiln that takes 24 A").unwrap();
    let open = view.ways.iter().find(|way| way.name == "An open space").unwrap();
    assert_eq!(unread(open), ["what 2-4 carries: its loads"], "{open:?}");
    assert_eq!(open.unread[0].page, Some(ReadPage::Loads));
    let view = asked(&acts, "30 A two-pole for the kiln").unwrap();
    let open = view.ways.iter().find(|way| way.name == "An open space").unwrap();
    let takes = open.unread.iter().find(|line| line.words.starts_with("what the new circuit takes"));
    assert!(takes.is_none_or(|line| line.wish == "30 A two-pole for the kiln that takes "), "{open:?}");
}

/// A sub-panel with open spaces is named beside the ways in the panel that is full.
#[test]
fn another_panel_with_an_open_space_is_named() {
    let full: String = (1..=8).filter(|n| ![5, 7].contains(n)).map(|n| format!("{n} 20 #12 machine {n}\n")).collect();
    let acts = format!(
        "panel 8\nmain is main 100 A, bus 100 A, listed for 8\n{full}5-7 40/2 #8 shed\nsub Shed 8 5-7\nwith shed {{\"main\": 40.0}}\n"
    );
    let view = asked(&acts, "20 A circuit for the freezer that takes 5 A").unwrap();
    assert_eq!(view.elsewhere.len(), 1, "{:?}", view.elsewhere);
    assert_eq!(view.elsewhere[0].words, "“Shed” has an open space for it.");
    assert!(asked(&acts, "replace 1").unwrap().elsewhere.is_empty());
}

/// A circuit that was sized under the name of the wish brings its wire and its outlet into the job.
#[test]
fn the_size_that_was_kept_is_the_size_of_the_new_circuit() {
    let size = r#"size s1 Kiln {"load":{"feeds":"plain","amps":32,"continuous":true},"volts":240,"carrying":2,"celsius":30,"room":"hall"}"#;
    let view = asked(
        &format!("{KNOWN}load wall led_60\nload ceiling led_60\nload dryer dryer\n{size}\n"),
        "40 A two-pole for the kiln that takes 32 A",
    )
    .unwrap();
    let open = view.ways.iter().find(|way| way.name == "An open space").unwrap();
    assert_eq!(open.stands, WayStands::Sure, "{:?}", open.unread);
    let Some(Job::Panel { moves, .. }) = &open.job else { panic!("no sheet: {}", open.no_sheet) };
    let [JobMove::New { wire: Some(wire), outlet: Some(outlet), neutral: false, .. }] = moves.as_slice() else {
        panic!("{moves:?}")
    };
    // 32 A for hours: 40 A by 8 AWG copper at 60 °C (NEC 210.20(A), 310.16, from memory).
    assert_eq!((wire.gauge.number(), outlet.room.as_str(), outlet.takes), ("8", "hall", Some(32.0)));
    assert!(open.parts.iter().any(|part| part.what.starts_with("Cable of 8 AWG copper")), "{:?}", open.parts);
    let other = asked(&format!("{KNOWN}{size}\n"), "30 A two-pole for the kiln").unwrap();
    let new = |view: &WorkView| view.ways.iter().filter_map(|way| way.job.clone()).collect::<Vec<_>>();
    assert!(!format!("{:?}", new(&other)).contains("wire: Some"), "another breaker is another size");
}
