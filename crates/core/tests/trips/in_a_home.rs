//! The search in homes that acts have written: what is said, what is asked next, where it ends.

use wayfinder_core::trips::{RoadKind, TroubleView, trips_view, trouble_view, trouble_why};
use wayfinder_core::{Cause, TroubleLook, TroubleSaw};
use wayfinder_fixture::{Written, written};

/// A bath whose GFCI protects the porch outlet; both proven on breaker 1.
const PORCH: &str = "panel 8
    main is main 100 A
    1 20 bath
    2 15 hall
    room Bath
    room Porch
    room Hall
    point Bath gfci mirror
    point Porch receptacle door
    point Hall light ceiling
    protects mirror: door
    proof mirror 1
    proof door 1
    proof ceiling 2
    call 555-0100 555-0101";

fn view(home: &Written) -> TroubleView {
    trouble_view(&home.home, &"t1".parse().unwrap()).unwrap()
}

fn after(acts: &str) -> Written {
    let mut home = written(PORCH);
    home.acts(acts);
    home
}

/// Follows the program with a house in which this look shows that, and everything else is as it should be.
fn follow(home: &mut Written, show: &dyn Fn(&TroubleLook) -> Option<TroubleSaw>) -> TroubleView {
    for _ in 0..30 {
        let now = view(home);
        let Some(next) = now.next.clone() else { return now };
        let usual = next.answers.iter().find(|a| a.usual).map(|a| a.saw.clone());
        let saw = show(&next.look).or(usual).unwrap_or(TroubleSaw::Volts(120.0));
        let fact = wayfinder_core::TroubleLooked { trouble: "t1".parse().unwrap(), at: next.look, saw };
        home.fact(fact.into()).unwrap();
    }
    panic!("it never ends: {:?}", view(home));
}

fn word(word: &str) -> Option<TroubleSaw> {
    Some(TroubleSaw::Word(word.into()))
}

#[test]
fn a_dark_outlet_behind_a_tripped_gfci_in_another_room() {
    let mut home = after("trouble t1 door");
    let first = view(&home);
    assert_eq!(first.title, "Porch, door: dark");
    assert_eq!(first.next.as_ref().map(|n| &n.look), Some(&TroubleLook::Safety), "signs of danger are asked for first");
    let gfci = first.road.iter().find(|stop| stop.kind == RoadKind::Gfci).unwrap();
    assert!(gfci.place == "Bath, mirror" && gfci.percent > 30, "{gfci:?}");
    let end = follow(&mut home, &|look| match look {
        TroubleLook::Gfci { .. } => word("reset_works"),
        TroubleLook::Point { point } if point.as_str() == "door" => word("dark"),
        TroubleLook::Neighbors => word("lit"),
        _ => None,
    });
    let named = end.named.unwrap();
    assert_eq!((named.found[0].found.cause, named.found[0].found.points.len()), (Cause::GfciTripped, 1), "{named:?}");
    assert!(named.percent >= 95 && named.how == "Found" && named.or.is_none() && !named.cure.electrician, "{named:?}");
    home.acts("over t1 {\"cause\": \"gfci_tripped\", \"points\": [\"mirror\"]}");
    assert_eq!(view(&home).over.as_deref(), Some("A GFCI has tripped: Bath, mirror"));
    assert!(trips_view(&home.home).troubles[0].over);
}

#[test]
fn a_sign_of_danger_ends_it_wherever_it_is_told() {
    for acts in [
        "trouble t1 door\nlooked t1 safety danger smell",
        "trouble t1 door\nlooked t1 safety normal\nlooked t1 point door danger smell",
    ] {
        let view = view(&after(acts));
        let stop = view.stop.unwrap_or_else(|| panic!("{acts} does not stop"));
        assert!(stop.title.starts_with("Switch breaker 1 off"), "{stop:?}");
        assert!(view.next.is_none() && view.named.is_none());
        assert_eq!(stop.call.last().map(|c| c.number.as_str()), Some("555-0101"));
    }
    // Where the breaker is not proven nobody is told that it is that one.
    let open =
        written("panel 8\n1 20 bath\nroom Bath\npoint Bath receptacle wall\ntrouble t1 wall\nlooked t1 safety danger heat");
    let stop = view(&open).stop.unwrap();
    assert_eq!(stop.title, "Switch its breaker off, if you reach it safely");
    assert!(stop.steps[0].starts_with("If it comes from the panel itself: do not touch it."), "{stop:?}");
    assert!(stop.steps[1].contains("switch the main off"), "{stop:?}");
    let wet = view(&after("trouble t1 door\nlooked t1 safety danger water")).stop.unwrap();
    assert_eq!(wet.title, "Keep away from it");
    let at_the_panel = view(&after("trouble t1 door\nlooked t1 safety normal\nlooked t1 handles main danger heat")).stop.unwrap();
    assert_eq!(at_the_panel.title, "Do not touch the panel", "nobody is sent to a handle of a hot panel");
    assert!(at_the_panel.steps.iter().all(|s| !s.contains("Switch")), "{at_the_panel:?}");
}

/// No later look takes the place of a sign, at the same thing or at another, by the same phone or another, nor does it go with the point.
#[test]
fn a_sign_stands_until_its_line_is_struck_out() {
    let mut home = after("trouble t1 door\nlooked t1 safety danger smell");
    let line = home.book.seq();
    home.acts("looked t1 safety normal\nlooked t1 point door live\nlooked t1 neighbors lit\ntrouble t1 door");
    assert!(view(&home).stop.is_some(), "{:?}", view(&home).next);
    home.acts("no-point door");
    let stop = view(&home).stop.unwrap();
    assert_eq!(stop.title, "Switch the main off, if you reach it safely", "nobody knows where it was");
    home.acts(&format!("strike {line}"));
    assert!(view(&home).stop.is_none());
    // Volts as well: another reading at the same outlet does not undo the first.
    let mut home = after("trouble t1 door\nlooked t1 safety normal\nlooked t1 volts door 138");
    home.acts("looked t1 volts door 121");
    assert_eq!(view(&home).stop.unwrap().title, "Switch the main off now");
}

/// A long way with a heavy load comes down to 104 V, and the service may rarely give 127 V: neither is a lost neutral.
#[test]
fn volts_within_what_a_service_gives_stop_nobody() {
    for volts in [104, 110, 127] {
        let now = view(&after(&format!("trouble t1 door\nlooked t1 safety normal\nlooked t1 volts door {volts}")));
        assert!(now.stop.is_none(), "{volts} V: {:?}", now.stop);
    }
}

#[test]
fn too_many_volts_switch_the_main_off() {
    let view = view(&after("trouble t1 door\nlooked t1 safety normal\nlooked t1 volts door 138"));
    let stop = view.stop.unwrap();
    assert_eq!(stop.title, "Switch the main off now");
    assert_eq!(stop.main, "Main panel, 100 A");
    assert!(stop.why.iter().any(|why| why == "Read: 138 V at Porch, door."), "{stop:?}");
    assert_eq!((stop.call[0].who.as_str(), stop.call[0].number.as_str()), ("The utility", "555-0100"));
}

/// A shared neutral that opens concerns every breaker that shares it, and no other.
#[test]
fn an_open_shared_neutral_names_those_who_share_it() {
    let mut home = written(
        "panel 8\n1 20 a\n3 20 b\n2 20 c\nshare 1 3\nroom Den\npoint Den light one\npoint Den light two\npoint Den light three\n\
         proof one 1\nproof two 3\nproof three 2\ntrouble t1 one {\"symptom\": \"bright\", \"extent\": \"some\"}\nlooked t1 safety odd",
    );
    home.acts("looked t1 point two dim\nlooked t1 point three live\nlooked t1 point one bright");
    let stop = view(&home).stop.unwrap();
    assert_eq!(stop.title, "Switch 1 and 3 off now", "{stop:?}");
    assert_eq!(stop.call.len(), 1, "the utility has nothing to mend here: {stop:?}");
}

#[test]
fn a_home_of_which_nothing_is_traced_is_helped_all_the_same() {
    for house in [
        "room Hall\npoint Hall receptacle door",
        "panel 4\nroom Hall\npoint Hall light door",
        "panel 4\n1 20\nroom Hall\npoint Hall receptacle door",
    ] {
        let mut home = written(&format!("{house}\ntrouble t1 door"));
        let end = follow(&mut home, &|look| match look {
            TroubleLook::Point { .. } => word("dark"),
            TroubleLook::Switch { .. } | TroubleLook::Lamp { .. } | TroubleLook::Control { .. } => word("stays_dark"),
            TroubleLook::Feel { .. } => word("tripped"),
            TroubleLook::Elsewhere { .. } => word("works"),
            TroubleLook::Cutout { .. } => word("dead"),
            TroubleLook::Neighbors => word("lit"),
            _ => None,
        });
        assert!(end.named.is_some(), "{house}: {end:?}");
    }
}

#[test]
fn a_breaker_found_tripped_while_two_heaters_ran_is_an_overload() {
    let mut home = written(
        "panel 8\n1 15 den\n2 20 hall\nroom Den\nroom Hall\npoint Den receptacle wall\npoint Den receptacle desk\n\
         point Hall receptacle door\nproof wall 1\nproof desk 1\nproof door 2\nload wall space_heater\nload desk space_heater",
    );
    let loads: Vec<String> = home.home.loads().all().map(|l| l.id.to_string()).collect();
    let running = serde_json::to_string(&loads).unwrap();
    home.acts(&format!("trouble t1 1 {{\"running\": {running}, \"onset\": \"minutes\"}}"));
    let end = follow(&mut home, &|look| match look {
        TroubleLook::Point { .. } => word("dark"),
        TroubleLook::Reset { .. } => word("holds_live"),
        TroubleLook::Neighbors => word("lit"),
        TroubleLook::Cutout { .. } => word("dead"),
        _ => None,
    });
    let named = end.named.unwrap();
    assert_eq!(named.found[0].found.cause, Cause::Overload, "{named:?}");
    // Twice 1500 W on 15 A.
    let sum = &named.cure.steps[0];
    assert!(sum.starts_with("What ran takes 25.0 A; breaker 1 carries 15 A."), "{sum}");
    assert!(named.cure.acts.iter().any(|act| act.wish.starts_with("own circuit for the")), "{named:?}");
    let tripped = trips_view(&home.home).tripped;
    assert_eq!((tripped[0].number.as_str(), tripped[0].times.len()), ("1", 1));
}

/// Once a reset holds, handles and points say no more why it was dark: nothing of them is asked.
#[test]
fn after_a_reset_that_holds_only_loads_go_back_on() {
    let mut home = written("panel 8\n1 15 den\n2 20 hall\ntrouble t1 1");
    let end = follow(&mut home, &|look| match look {
        TroubleLook::Reset { .. } => word("holds_live"),
        _ => None,
    });
    let looks: Vec<&str> = end.seen.iter().rev().map(|one| one.words.as_str()).collect();
    let reset = looks.iter().position(|words| words.starts_with("Reset breaker 1, once: holds")).unwrap();
    assert!(looks[reset + 1..].iter().all(|words| words.contains("back on")), "{looks:?}");
    assert!(end.named.is_some());
}

/// Where the order of a circuit was told from the panel on, a joint is looked for where it is: between the last point with power and the
/// first without.
#[test]
fn a_told_order_places_the_joint() {
    let mut home = written(
        "panel 8\n1 20 den\n2 20 hall\nroom Den\npoint Den receptacle first\npoint Den receptacle second\npoint Den receptacle third\n\
         point Den receptacle last\nproof first 1\nproof second 1\nproof third 1\nproof last 1\nfed first from panel\n\
         fed second from first\nfed third from second\nfed last from third\ntrouble t1 last",
    );
    home.acts("looked t1 safety normal\nlooked t1 point last dark\nlooked t1 feel 1 on\nlooked t1 point third dark");
    home.acts("looked t1 point second live\nlooked t1 point first live");
    let now = view(&home);
    let named = now.named.unwrap_or_else(|| panic!("{:?}", now.next));
    let mut first: Vec<&str> = named.boxes[..2].iter().map(String::as_str).collect();
    first.sort_unstable();
    assert_eq!(first, ["Den, second", "Den, third"], "{named:?}");
    assert!(named.cure.electrician, "{named:?}");
    // Which of them it was is told by whoever opens the box; the panel is none of the three here.
    let labels: Vec<&str> = named.found.iter().map(|choice| choice.label.as_str()).collect();
    assert!(labels.contains(&"A joint at Den, second") && labels.contains(&"A joint at Den, third"), "{labels:?}");
}

/// What is found teaches: a GFCI that brought a point back protects it, and a bad joint at a lit point, with the whole circuit seen, says
/// what comes after it.
#[test]
fn what_is_found_is_learnt_from() {
    let mut home = written(
        "panel 8\n1 20 bath\n2 15 den\nroom Bath\nroom Porch\npoint Bath gfci mirror\npoint Porch receptacle door\nproof mirror 1\n\
         proof door 1\ntrouble t1 door\nlooked t1 safety normal\nlooked t1 gfci mirror reset_works",
    );
    let named = view(&home).named.unwrap();
    assert_eq!(named.found[0].learnt, "It protects Porch, door.");
    for fact in named.found[0].also.clone() {
        home.fact(fact).unwrap();
    }
    assert_eq!(home.home.plan().protects.values().flatten().map(|p| p.as_str()).collect::<Vec<_>>(), ["door"]);
    assert_eq!(view(&home).named.unwrap().found[0].learnt, "", "it is known now");

    let mut home = written(
        "panel 8\n1 20 den\n2 20 hall\nroom Den\npoint Den receptacle first\npoint Den receptacle last\nproof first 1\nproof last 1\n\
         trouble t1 last",
    );
    let end = follow(&mut home, &|look| match look {
        TroubleLook::Safety => word("normal"),
        TroubleLook::Point { point } if point.as_str() == "first" => word("live"),
        TroubleLook::Point { .. } => word("dark"),
        TroubleLook::Volts { .. } => Some(TroubleSaw::Volts(0.0)),
        TroubleLook::Feel { .. } => word("on"),
        TroubleLook::Handles { .. } => word("none"),
        _ => None,
    });
    let named = end.named.unwrap();
    let of = |label: &str| named.found.iter().find(|choice| choice.label == label).unwrap_or_else(|| panic!("{named:#?}"));
    assert_eq!(of("A joint at Den, first").learnt, "Den, last comes after Den, first.");
    assert_eq!(of("A joint at Den, last").learnt, "", "from which side it is fed nobody knows");
    home.fact(of("A joint at Den, first").also[0].clone()).unwrap();
}

/// The last line of the explanation says what the page says, and the first what was believed before any look.
#[test]
fn every_chance_can_be_followed_line_by_line() {
    let mut home = after("trouble t1 door\nlooked t1 safety normal");
    let why = trouble_why(&home.home, &"t1".parse().unwrap()).unwrap();
    let gfci = why.causes.iter().position(|cause| cause == "Bath, mirror: a GFCI has tripped").unwrap();
    assert_eq!(why.lines.len(), 2);
    home.acts("looked t1 gfci mirror ok_live\nlooked t1 point door dark");
    let why = trouble_why(&home.home, &"t1".parse().unwrap()).unwrap();
    assert_eq!(why.lines.len(), 4);
    let now = view(&home);
    for (cause, percent) in why.causes.iter().zip(&why.lines[3].percent) {
        let said = now.causes.iter().find(|line| line.words == *cause).map_or(0, |line| line.percent);
        assert_eq!(*percent, said, "{cause}");
    }
    let of_gfci = why.causes.iter().position(|cause| cause == "Bath, mirror: a GFCI has tripped").unwrap();
    let course: Vec<u8> = why.lines.iter().map(|line| line.percent[of_gfci]).collect();
    assert!(course[1] > 30 && course[2] < 10, "its RESET was pressed and it was not tripped: {course:?}");
    assert!(gfci == 0, "the likeliest first");
}

/// Every answer that a screen offers is taken by the logbook, whatever was answered before, and after a sign there is only the stop.
#[test]
fn every_answer_that_is_offered_can_be_written() {
    let mut offered = 0;
    for round in 0..12_usize {
        let mut home = after("trouble t1 door");
        for step in 0..10_usize {
            let now = view(&home);
            let Some(next) = now.next else { break };
            let at = (round * 7 + step * 3) % (next.answers.len() + 2).max(1);
            let saw = match next.answers.get(at) {
                Some(answer) => answer.saw.clone(),
                None if next.volts => TroubleSaw::Volts(121.0),
                None if !next.handles.is_empty() => TroubleSaw::Tripped(next.handles[0].breaker.clone()),
                None => TroubleSaw::CannotTell,
            };
            let danger = matches!(saw, TroubleSaw::Danger(_));
            let fact = wayfinder_core::TroubleLooked { trouble: "t1".parse().unwrap(), at: next.look.clone(), saw };
            home.fact(fact.into()).unwrap_or_else(|refusal| panic!("{}: {refusal}", next.title));
            offered += 1;
            if danger {
                assert!(view(&home).stop.is_some());
            }
        }
    }
    assert!(offered > 30, "{offered}");
}

/// Two heaters on one circuit, and no other that has room for one: nobody is sent to overload that one.
#[test]
fn a_load_is_never_sent_where_there_is_no_room() {
    let house = |other: &str| {
        let mut home = written(&format!(
            "panel 8\n1 15 den\n2 15 hall\nroom Den\nroom Hall\npoint Den receptacle wall\npoint Den receptacle desk\n\
             point Hall receptacle door\nproof wall 1\nproof desk 1\nproof door 2\nload wall toaster\nload desk kettle\n{other}"
        ));
        let on_it = |id: &wayfinder_core::PointId| id.as_str() != "door";
        let loads: Vec<String> = home.home.loads().all().filter(|l| on_it(&l.point)).map(|l| l.id.to_string()).collect();
        let running = serde_json::to_string(&loads).unwrap();
        home.acts(&format!("trouble t1 1 {{\"running\": {running}, \"onset\": \"minutes\"}}\nlooked t1 safety normal"));
        view(&home).named.unwrap().cure.steps
    };
    let free = house("");
    assert!(free.iter().any(|step| step.contains("on circuit 2 ") && step.ends_with("of its limit.")), "{free:?}");
    assert!(free.contains(&"Never together on 1: kettle and toaster.".to_owned()), "{free:?}");
    // With a kettle there, too: only as long as the two do not run at one time.
    let busy = house("load door kettle");
    let condition = "as long as it does not run there together with: kettle.";
    assert!(busy.iter().all(|step| !step.contains("on circuit 2") || step.ends_with(condition)), "{busy:?}");
    // A heater runs for hours: there is no room beside it.
    let full = house("load door space_heater\nload door kettle");
    assert!(full.iter().all(|step| !step.contains("on circuit 2")), "{full:?}");
}
