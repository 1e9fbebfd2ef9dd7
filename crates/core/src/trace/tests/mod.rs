//! What is asked for and what is proven, told as acts; `search` has the belief and traces with several off.

mod search;

use crate::fixture::{Written, line, written};
use crate::logbook::{DeviceWorked, Draft, Fact, PointSeen, VoltsRead};
use crate::model::{BreakerId, Method, Moment, Seen, Worked};
use crate::study::Study;
use crate::trace::{LineRole, NextStep, Verdict, evidence, next_step, trace_view, verdict};

const HOUSE: &str = "panel 24
    1 20 kitchen
    3 15 rec
    2 15 pump
    room Porch
    room Kitchen
    point Kitchen receptacle counter
    point Kitchen light ceiling
    point Porch light lantern";

fn known(w: &Written, point: &str) -> Verdict {
    verdict(&w.home, &point.parse().unwrap())
}

fn proven(w: &Written, point: &str) -> Option<String> {
    known(w, point).proven_on().map(|b| w.home.panels().number(b))
}

/// The breaker that the point is proven on, or would be if that were sure.
fn singled_out(w: &Written, point: &str) -> Option<String> {
    let known = known(w, point);
    let unsure = match &known {
        Verdict::Open { unsure: Some(unsure), .. } => Some(&unsure.breaker),
        _ => None,
    };
    known.proven_on().or(unsure).map(|b| w.home.panels().number(b))
}

fn after(acts: &str) -> Written {
    written(&format!("{HOUSE}\n{}", acts.replace(", ", "\n")))
}

#[test]
fn a_single_cause_is_a_lit_and_a_dark_look_that_differ_by_one_breaker() {
    for (acts, on) in [
        ("lit counter, off 1, dark counter", Some("1")),
        ("off 1, dark counter", None),
        ("lit counter, off 1, lit counter", None),
        ("off 1, dark counter, on 1, lit counter", None),
        ("off 1, dark counter, on 1, lit counter, off 1, dark counter", Some("1")),
        ("lit counter, off 1, off 3, dark counter", None),
        ("off 3, lit counter, off 1, dark counter", Some("1")),
        ("off 3, lit counter, on 3, off 1, dark counter", None),
        ("off 3, lit counter, on 3, off 3, off 1, dark counter", None),
        ("tripped 3, lit counter, off 2, lit counter, on 2, off 1, dark counter", Some("1")),
    ] {
        assert_eq!(singled_out(&after(acts), "counter").as_deref(), on, "{acts}");
    }
}

#[test]
fn one_dark_look_proves_only_where_all_else_makes_the_breaker_likely() {
    // Twelve breakers, a card that says nothing: a slip at one of the others looks just so.
    let breakers: String = (1..=12).map(|n| format!("{n} 20\n")).collect();
    let names = ["window", "door", "desk", "shelf"];
    let points: String = names.iter().map(|n| format!("point Study receptacle {n}\n")).collect();
    let lit: String = names.iter().map(|n| format!("lit {n}\n")).collect();
    let house = format!("panel 12\n{breakers}room Study\n{points}{lit}off 5\ndark window");
    let mut w = written(&house);
    let known = |w: &Written| names.map(|n| proven(w, n).is_some());
    let dark = w.book.lines().last().unwrap().entry.id.clone();
    let Verdict::Open { possible, unsure: Some(unsure), .. } = self::known(&w, "window") else {
        panic!("{:?}", self::known(&w, "window"))
    };
    assert_eq!(possible.iter().map(|b| w.home.panels().number(b)).collect::<Vec<_>>(), ["5"]);
    assert_eq!(unsure.dark, dark);
    // What is next is to look there again.
    let NextStep::LookUnder { rooms, left: 1, .. } = trace_view(&w.home, Method::SeveralOff).next else { panic!() };
    assert!(rooms[0].points[0].again && rooms[0].points[0].name == "window");
    w.act("dark window").unwrap();
    assert_eq!(known(&w), [false; 4], "nothing else makes 5 likely: it is to come back with 5, too");
    // Its neighbors are dark with the same breaker: each vouches for the others.
    for act in ["dark door", "dark desk", "dark shelf", "on 5", "lit shelf", "lit window"] {
        w.act(act).unwrap();
    }
    println!("{:?}", known(&w));
    // And if it was one, the second look says so.
    let slip = written(&format!("{house}\nlit window"));
    assert!(matches!(self::known(&slip, "window"), Verdict::Contradictory { .. }));
}

#[test]
fn a_contradiction_is_named_with_the_lines_that_disagree() {
    for (acts, says) in [
        ("lit counter, off 1, dark counter, on 1, off 3, dark counter", "dark with 1 off, and dark with 3 off"),
        ("lit counter, off 1, dark counter, lit counter", "dark with 1 off, but lit with 1 off"),
        ("lit counter, off 1, dark counter, off 3, lit counter", "but lit with"),
        ("tripped 2, lit counter, off 1, dark counter, on 1, off 3, dark counter", "dark with 1 off, and dark with 3 off"),
        ("lit counter, off 1, dark counter, on 1, dark counter", "later dark with everything on"),
    ] {
        let w = after(acts);
        let Verdict::Contradictory { because, lines } = known(&w, "counter") else {
            panic!("{acts}: {:?}", known(&w, "counter"))
        };
        assert!(because.contains(says), "{acts}: {because}");
        assert!(lines.len() >= 2, "{acts}: {lines:?}");
        let shown = evidence(&w.home, &"counter".parse().unwrap()).unwrap();
        let disagree: Vec<_> = shown.lines.iter().filter(|l| l.role == LineRole::Disagrees).map(|l| l.line.clone()).collect();
        assert_eq!(disagree, lines, "{acts}");
    }
}

#[test]
fn dark_with_everything_on_tells_nothing_until_it_is_mended() {
    let mut w = after("dark counter, off 1, dark counter, on 1");
    assert!(matches!(known(&w, "counter"), Verdict::Out { .. }));
    w.act("lit counter").unwrap();
    assert!(matches!(known(&w, "counter"), Verdict::Open { .. }), "what was seen while it was out proves nothing");
    w.act("off 1").unwrap();
    w.act("dark counter").unwrap();
    assert_eq!(singled_out(&w, "counter").as_deref(), Some("1"));
}

#[test]
fn a_breaker_taken_out_proves_nothing_any_more() {
    let mut w = after("lit counter, off 1, dark counter, on 1");
    w.act("take-out 1").unwrap();
    let left: Vec<_> = w.home.panels().breakers().map(|b| b.id.clone()).collect();
    assert!(matches!(known(&w, "counter"), Verdict::Open { possible, .. } if possible == left), "its wire may be on any of them");
}

#[test]
fn a_trace_goes_from_all_lit_round_by_round_to_done() {
    let mut w = written(HOUSE);
    w.act("must-stay-on 2").unwrap();
    let said = |w: &Written| match trace_view(&w.home, Method::OneAtATime).next {
        NextStep::LookUnder { left, .. } => format!("look at {left} once more"),
        NextStep::SetUp { missing } => format!("enter {missing}"),
        NextStep::SeeAllLit { left, .. } => format!("see {left} lit"),
        NextStep::SwitchOff { breaker, candidates, .. } => format!("off {} for {candidates}", w.home.panels().number(&breaker)),
        NextStep::Look { breaker, left, rooms } => {
            format!("look at {left} for {}, {} first", w.home.panels().number(&breaker), rooms[0].name)
        }
        NextStep::SwitchOn { breakers, .. } => {
            format!("on {}", breakers.iter().map(|b: &BreakerId| w.home.panels().number(b)).collect::<Vec<_>>().join(" "))
        }
        NextStep::SeeOneLitAgain { breaker, .. } => format!("see one of {} lit again", w.home.panels().number(&breaker)),
        NextStep::Done { summary, .. } => summary,
        other => format!("{other:?}"),
    };
    for (expected, act) in [
        ("see 3 lit", "lit counter"),
        ("see 2 lit", "lit ceiling"),
        ("see 1 lit", "lit lantern"),
        ("off 1 for 3", "off 1"),
        ("look at 3 for 1, Kitchen first", "dark counter"),
        ("look at 1 once more", "dark counter"),
        ("look at 2 for 1, Kitchen first", "lit ceiling"),
        ("look at 1 for 1, Kitchen first", "skip lantern"),
        ("on 1", "on 1"),
        ("look at 1 once more", "lit counter"),
        ("off 3 for 2", "off 3"),
        ("look at 2 for 3, Porch first", "dark lantern"),
        ("look at 1 for 3, Porch first", "dark lantern"),
        ("look at 1 for 3, Porch first", "lit ceiling"),
        ("on 3", "on 3"),
        ("look at 1 once more", "lit lantern"),
    ] {
        assert_eq!(said(&w), expected, "before {act}");
        w.act(act).unwrap();
    }
    assert_eq!(said(&w), "What is left: 1 not proven on any breaker that could be switched.");
    let view = trace_view(&w.home, Method::default());
    assert_eq!((view.progress.proven, view.progress.open, view.rounds_done), (2, 1, 2));
    assert!(view.to_switch.is_empty(), "the pump must stay on");
}

#[test]
fn two_off_at_once_are_brought_back_to_one() {
    let w = after("lit counter, lit ceiling, lit lantern, off 1, off 3");
    let NextStep::SwitchOn { breakers, why, .. } = next_step(&w.home) else { panic!() };
    assert_eq!(breakers.iter().map(|b| w.home.panels().number(b)).collect::<Vec<_>>(), ["1"]);
    assert!(why.contains("1 and 3 are off together"), "{why}");
}

#[test]
fn a_tripped_breaker_is_worked_around() {
    let w = after("lit counter, lit ceiling, lit lantern, tripped 3");
    let NextStep::SeeAllLit { left, left_off, .. } = next_step(&w.home) else { panic!("{:?}", next_step(&w.home)) };
    assert_eq!((left, left_off), (3, vec!["3".to_owned()]));
}

#[test]
fn an_empty_home_is_told_what_to_enter_first() {
    for (house, first) in [("", "panel"), ("panel 24", "breakers"), ("panel 24\n1 20 kitchen", "points")] {
        assert_eq!(next_step(&written(house).home), NextStep::SetUp { missing: first.into() });
    }
}

const SHED: &str = "panel 24\n1 20 hall\n18-20 60/2 shed\nsub Shed 8 18-20\nshed: 1 15 light\nshed: 3 15 pump\nroom Shed
point Shed light lamp\npoint Shed receptacle bench\nlit lamp\nlit bench\n";

#[test]
fn a_feeder_off_darkens_what_is_behind_it_and_proves_nothing_about_it() {
    let w = written(&format!("{SHED}off 18-20\ndark lamp\ndark bench\non 18-20"));
    let Verdict::Open { possible, .. } = verdict(&w.home, &"lamp".parse().unwrap()) else { panic!("proven on a feeder") };
    let numbers: Vec<_> = possible.iter().map(|b| w.home.panels().number(b)).collect();
    assert_eq!(numbers, ["18-20", "S1", "S3"]);
}

#[test]
fn behind_a_feeder_the_sub_panels_own_breaker_is_the_proof() {
    let w = written(&format!("{SHED}off 18-20\ndark lamp\non 18-20\nproof lamp S1\noff S1\nlit bench\non S1"));
    let proven = verdict(&w.home, &"lamp".parse().unwrap());
    assert_eq!(proven.proven_on().map(|b| w.home.panels().number(b)), Some("S1".into()));
    // Lit with its feeder off, it is not behind it.
    let w = written(&format!("{SHED}off 18-20\nlit lamp\non 18-20\noff S1\ndark lamp\non S1"));
    assert!(matches!(verdict(&w.home, &"lamp".parse().unwrap()), Verdict::Contradictory { .. }));
}

#[test]
fn a_sub_panel_entered_later_takes_a_proof_on_its_feeder_back() {
    let before = "panel 24\n18-20 60/2 shed\nroom Shed\npoint Shed light lamp\nproof lamp 18-20";
    let mut w = written(before);
    assert!(verdict(&w.home, &"lamp".parse().unwrap()).proven_on().is_some());
    for act in ["sub Shed 8 18-20", "shed: 1 15 light"] {
        w.act(act).unwrap();
    }
    assert_eq!(verdict(&w.home, &"lamp".parse().unwrap()).proven_on(), None, "it is behind S1, or a breaker not entered yet");
}

#[test]
fn a_feeder_and_a_back_fed_main_are_not_switched_in_a_trace() {
    let mut w = written(&format!("{SHED}5-7 60/2 main\nset 5-7 {{\"details\": {{\"back_fed_main\": true}}}}"));
    let offered = |w: &Written| {
        let view = trace_view(&w.home, Method::default());
        view.to_switch.iter().map(|b| w.home.panels().number(b)).collect::<Vec<_>>()
    };
    assert_eq!(offered(&w), ["1", "S1", "S3"]);
    w.act("off 18-20").unwrap();
    assert_eq!(offered(&w), ["1"], "behind a feeder that is off nothing is learnt");
}

#[test]
fn a_back_fed_main_off_proves_nothing_about_what_it_darkens() {
    let house = "panel 12\n1-3 60/2 main\nset 1-3 {\"details\": {\"back_fed_main\": true}}\n5 15 hall\nroom Hall\npoint Hall light lamp\nlit lamp\n";
    let proven = |acts: &str| {
        let home = written(&format!("{house}{acts}")).home;
        verdict(&home, &"lamp".parse().unwrap()).proven_on().map(|b| home.panels().number(b))
    };
    assert_eq!(proven("off 1-3\ndark lamp\non 1-3"), None);
    assert_eq!(proven("off 1-3\ndark lamp\non 1-3\nlit lamp\noff 5\ndark lamp"), Some("5".into()));
}

#[test]
fn in_a_split_bus_panel_a_two_pole_breaker_is_neither_a_proof_nor_proposed() {
    let house = "panel 12\nwith main {\"details\": {\"interior\": \"split_bus\"}}\n1-3 60/2 lighting\n5 15 hall\nroom Hall
                 point Hall light lamp\nlit lamp\noff 1-3\ndark lamp\non 1-3\nlit lamp";
    let mut w = written(house);
    assert_eq!(verdict(&w.home, &"lamp".parse().unwrap()).proven_on(), None);
    assert!(trace_view(&w.home, Method::default()).to_switch.iter().all(|b| w.home.panels().number(b) != "1-3"));
    w.act("off 5").unwrap();
    w.act("lit lamp").unwrap();
    assert!(verdict(&w.home, &"lamp".parse().unwrap()).proven_on().is_none());
}

#[test]
fn what_was_on_a_breaker_that_is_gone_is_counted_anew() {
    let house =
        "panel 12\n1 15 a\n3 15 b\nroom Hall\npoint Hall light lamp\nlit lamp\noff 1\nlit lamp\non 1\noff 3\ndark lamp\non 3\n";
    let mut w = written(&format!("{house}take-out 3"));
    let Verdict::Open { possible, .. } = verdict(&w.home, &"lamp".parse().unwrap()) else { panic!("on a breaker that is gone") };
    assert_eq!(possible.iter().map(|b| w.home.panels().number(b)).collect::<Vec<_>>(), ["1"], "its wire is on another now");
    for act in ["lit lamp", "off 1", "dark lamp"] {
        w.act(act).unwrap();
    }
    assert_eq!(verdict(&w.home, &"lamp".parse().unwrap()).proven_on().map(|b| w.home.panels().number(b)), Some("1".into()));
}

#[test]
fn joined_breakers_are_traced_anew_and_no_contradiction_is_smoothed_over() {
    let house = "panel 12\n1 15 a\n3 15 b\nroom Hall\npoint Hall light lamp\npoint Hall light lantern\nlit lamp\nlit lantern\n";
    let known = |w: &Written, point: &str| verdict(&w.home, &point.parse().unwrap());
    // The lamp is on 3, the lantern on 1: joined, the one that stays keeps its proof, the other is open.
    let acts = "proof lantern 1\noff 1\nlit lamp\non 1\nproof lamp 3\noff 3\nlit lantern\non 3\njoin 1 3";
    let mut w = written(&format!("{house}{acts}"));
    assert!(known(&w, "lantern").proven_on().is_some());
    let Verdict::Open { possible, .. } = known(&w, "lamp") else { panic!("{:?}", known(&w, "lamp")) };
    assert_eq!(possible.len(), 1);
    w.act("proof lamp 1-3").unwrap();
    assert_eq!(known(&w, "lamp").proven_on().map(|b| w.home.panels().number(b)), Some("1-3".into()));
    assert!(known(&w, "lantern").proven_on().is_some());
    // Lit with 1 off and then dark with 1 off: the looks disagree, joined or not.
    let w = written(&format!("{house}off 1\nlit lamp\ndark lamp\non 1\njoin 1 3"));
    assert!(matches!(known(&w, "lamp"), Verdict::Contradictory { .. }));
}

#[test]
fn a_breaker_that_may_not_have_latched_is_a_story_until_it_is_seen_to_carry_power() {
    let told = |acts: &str| -> Vec<String> { evidence(&after(acts).home, &"counter".parse().unwrap()).unwrap().stories };
    // Nobody has looked whether 2 carries power again: it may be what keeps the counter dark.
    let doubtful = "lit counter, lit ceiling, lit lantern, off 2, on 2, off 1, dark counter, dark counter";
    assert!(told(doubtful)[..2].iter().any(|story| story.contains("had not latched")), "{:?}", told(doubtful));
    assert_eq!((proven(&after(doubtful), "counter"), singled_out(&after(doubtful), "counter")), (None, Some("1".into())));
    // With 1 on again it is lit: it was not that.
    let back = "lit counter, off 2, on 2, off 1, dark counter, dark counter, on 1, lit counter";
    assert!(!told(back)[0].contains("had not latched"), "{:?}", told(back));
}

#[test]
fn what_was_dark_while_the_power_was_out_is_open_again_and_what_was_proven_before_stays() {
    let w = after("proof lantern 2, lit counter, lit ceiling, off 1, dark counter, dark ceiling");
    assert_eq!(singled_out(&w, "counter").as_deref(), Some("1"));
    let mut w = w;
    w.act("blink").unwrap();
    assert_eq!((singled_out(&w, "counter"), singled_out(&w, "ceiling")), (None, None));
    let shown = evidence(&w.home, &"counter".parse().unwrap()).unwrap();
    assert!(shown.lines.iter().any(|line| line.seen == Some(Seen::Dark) && line.role == LineRole::Doubted), "{shown:?}");
    let long_ago = after(
        "proof counter 1, proof counter 1, proof ceiling 2, proof ceiling 2, proof lantern 3, proof lantern 3, proof \
                          ceiling 2, proof lantern 3, proof ceiling 2, blink",
    );
    assert_eq!(proven(&long_ago, "counter").as_deref(), Some("1"), "two minutes ago is sure");
    // Struck out, everything counts as before.
    w.act(&format!("strike {}", w.book.seq())).unwrap();
    assert_eq!(singled_out(&w, "counter").as_deref(), Some("1"));
}

#[test]
fn a_point_that_is_watched_is_seen_lit_then_out_and_back_by_one_line() {
    let mut w = after("lit counter, watch counter 1");
    assert_eq!(singled_out(&w, "counter").as_deref(), Some("1"));
    assert!(w.home.switchings().off().is_empty() && w.home.switchings().count() == 2, "1 is on again");
    let shown = |w: &Written| evidence(&w.home, &"counter".parse().unwrap()).unwrap();
    let told: Vec<_> = shown(&w).lines.iter().map(|line| (line.seen.unwrap(), line.change, line.off.join(" "))).collect();
    assert_eq!(told, [(Seen::Lit, None, String::new()), (Seen::Dark, Some("went out, and came back"), "1".to_owned())]);
    // Neither an outage nor a breaker that tripped meanwhile does that; a plain dark look leaves more open.
    let open = |acts: &str| -> f64 {
        let w = after(acts);
        let weighed = crate::trace::weighed::weighed(&w.home).unwrap();
        let one = w.home.panels().breakers().find(|b| w.home.panels().number(&b.id) == "1").unwrap();
        let (p, b) = weighed.numbers(&"counter".parse().unwrap(), &one.id).unwrap();
        1.0 - weighed.weigh.reading(&weighed.case, p).chance[b]
    };
    assert!(open("lit counter, watch counter 1") < open("lit counter, off 1, dark counter, on 1, lit counter"));
    // It was another handle: what went out with it does not count.
    w.act("wrong-handle 1").unwrap();
    assert_eq!(singled_out(&w, "counter"), None);
    assert!(shown(&w).lines.iter().any(|line| line.change.is_some() && line.role == LineRole::Doubted), "{:?}", shown(&w));
    // Lit all the while, it is on another one; out for good, its breaker may not have latched.
    let stayed = after("lit counter, watch counter 1 stayed lit");
    let Verdict::Open { possible, .. } = known(&stayed, "counter") else { panic!() };
    assert_eq!(possible.iter().map(|b| stayed.home.panels().number(b)).collect::<Vec<_>>(), ["3", "2"]);
    let out = after("lit counter, lit ceiling, lit lantern, watch counter 1 stayed out");
    assert!(matches!(next_step(&out.home), NextStep::Cycle { .. }), "{:?}", next_step(&out.home));
    // Struck out, nothing of it is left.
    let mut struck = after("lit counter, watch counter 1");
    struck.act(&format!("strike {}", struck.book.seq())).unwrap();
    assert_eq!((struck.home.switchings().count(), singled_out(&struck, "counter")), (0, None));
    // With the breaker off there is nothing to watch.
    assert!(after("off 1").act("watch counter 1").unwrap_err().wrong.contains("1 is off"));
}

#[test]
fn what_rested_on_a_wrong_handle_is_open_again_and_what_was_proven_otherwise_stays() {
    // Told after the fact that it was not 1 that was switched off the first time.
    let mut w = after("proof lantern 2, lit counter, lit ceiling, off 1, dark counter, dark counter");
    assert_eq!(singled_out(&w, "counter").as_deref(), Some("1"));
    w.act("wrong-handle 1").unwrap();
    assert!(w.home.switchings().off().is_empty(), "1 never moved: what is seen now is not filed under it");
    assert!(w.act("wrong-handle 1").is_err(), "told twice");
    assert_eq!(singled_out(&w, "counter"), None);
    assert_eq!(proven(&w, "lantern").as_deref(), Some("2"), "that was another handle");
    let shown = evidence(&w.home, &"counter".parse().unwrap()).unwrap();
    let why = |line: &crate::trace::EvidenceLine| line.not_counted == Some("another handle was moved than was said");
    assert_eq!(shown.lines.iter().filter(|line| why(line)).count(), 2, "{shown:?}");
    w.acts("proof counter 1");
    assert_eq!(proven(&w, "counter").as_deref(), Some("1"));
}

#[test]
fn what_rested_on_looks_while_a_breaker_was_tripped_is_open_again() {
    // Three points dark with 1; then 3 is found tripped, which nobody had seen: these may be on 3.
    let house = "lit counter, lit ceiling, lit lantern, proof lantern 2, proof ceiling 3";
    let w = after(&format!("{house}, proof counter 1, tripped 3"));
    assert_eq!(proven(&w, "counter").as_deref(), Some("1"), "it came back with 1 in between, so it was not 3");
    // Beside three that are proven on 1, a fourth is proven by its dark looks; then 3 is found tripped, which may be why.
    let study = "panel 12\n1 20\n3 20\n5 20\n7 20\nroom Study\npoint Study receptacle a\npoint Study receptacle b\npoint Study receptacle c\n\
                 point Study receptacle d\nproof a 1\nproof b 1\nproof c 1\nlit d\noff 1\ndark d\ndark d\ndark d\n";
    let told = |acts: &str| proven(&written(&format!("{study}{acts}")), "d");
    assert_eq!(told("").as_deref(), Some("1"));
    assert_eq!(told("tripped 3"), None, "it may be on 3");
    assert_eq!(told("on 1\nlit d\ntripped 3").as_deref(), Some("1"), "it came back with 1, so it was not 3");
}

#[test]
fn a_point_that_is_added_late_is_asked_for_with_its_likeliest_breaker_first() {
    let mut w =
        written("panel 12\n1 20\n3 20\n5 20\n7 20\nroom Hall\nroom Study\npoint Hall receptacle a\npoint Hall receptacle b");
    w.acts("point Study receptacle c\npoint Study receptacle d\npoint Hall light e\nproof a 1\nproof b 1\nproof e 3\nproof c 5\nproof d 7");
    assert!(matches!(trace_view(&w.home, Method::OneAtATime).next, NextStep::Done { .. }));
    w.acts("room Den\npoint Hall receptacle late\nlit late");
    let step = trace_view(&w.home, Method::OneAtATime).next;
    let NextStep::SwitchOff { breaker, why, .. } = step else { panic!("{step:?}") };
    assert_eq!(w.home.panels().number(&breaker), "1", "the other receptacles of the hall are on it");
    assert!(why.starts_with("It is the likeliest one"), "{why}");
}

#[test]
fn has_it_a_test_button_is_asked_once_where_one_is_usual() {
    let mut w = written(
        "panel 12\n1 20\nroom Bath\nroom Hall\npoint Bath receptacle basin\npoint Bath light mirror\npoint Hall receptacle wall",
    );
    let asked = |w: &Written| -> Vec<(String, Vec<Fact>)> {
        let NextStep::SeeAllLit { rooms, .. } = trace_view(&w.home, Method::OneAtATime).next else {
            panic!("not the first step")
        };
        let points = rooms.into_iter().flat_map(|room| room.points);
        points.filter(|point| !point.test_button.is_empty()).map(|point| (point.name, point.test_button)).collect()
    };
    let [(name, facts)] = &asked(&w)[..] else { panic!("{:?}", asked(&w)) };
    assert_eq!(name, "basin");
    w.act(&format!("fact {}", serde_json::to_string(&facts[0]).unwrap())).unwrap();
    assert!(w.home.house().point(&"basin".parse().unwrap()).unwrap().details.gfci);
    assert_eq!(asked(&w), []);
}

#[test]
fn a_gfci_that_is_found_tripped_opens_what_was_dark_since_it_was_lit() {
    let house =
        "panel 12\n1 20\n3 20\nroom Bath\npoint Bath gfci basin\npoint Bath receptacle mirror\npoint Bath receptacle tub\n";
    let looks = "lit basin\nlit mirror\nlit tub\nproof tub 3\noff 1\ndark mirror\ndark mirror\ndark mirror\n";
    let w = written(&format!("{house}{looks}"));
    assert_eq!(singled_out(&w, "mirror").as_deref(), Some("1"));
    let mut w = written(&format!("{house}{looks}found-tripped basin"));
    assert_eq!(singled_out(&w, "mirror"), None, "it may have been dark behind the basin");
    assert_eq!(proven(&w, "tub").as_deref(), Some("3"), "lit since, it is not behind it");
    // Found so long after, it says nothing about that trace.
    let mut later = written(&format!("{house}{looks}"));
    let fact = DeviceWorked { device: "basin".parse().unwrap(), worked: Worked::FoundTripped };
    let at = Moment::from_unix_ms(10_000_000);
    let (id, by) = ("late".parse().unwrap(), "tester".into());
    let draft = Draft { id, at, by, instrument: None, version: Fact::VERSION, fact: fact.into() };
    let outcome = later.book.admit(&[draft]).unwrap();
    later.book.commit(outcome);
    assert_eq!(singled_out(&Written::on(later.book), "mirror").as_deref(), Some("1"));
    // Dark with 1 off once more is no proof before something shows that the reset took.
    w.acts("dark mirror\ndark mirror\ndark mirror");
    assert_eq!(proven(&w, "mirror"), None);
    w.acts("on 1\nlit basin\nlit mirror\nproof mirror 1");
    assert_eq!(proven(&w, "mirror").as_deref(), Some("1"));
}

#[test]
fn behind_a_gfci_that_was_tripped_nothing_is_proven_until_it_gave_power_again() {
    let start = "point Kitchen gfci sink, lit counter, lit ceiling, lit sink";
    // Nobody looked at the counter meanwhile: it may be behind the sink's GFCI, and that may not have been reset.
    for (acts, on) in [
        ("press-test sink, press-reset sink", None),
        ("press-test sink", None),
        ("press-test sink, press-reset sink, lit counter", Some("1")),
        ("press-test sink, press-reset sink, lit sink", Some("1")),
        ("press-test sink, dark ceiling, press-reset sink, lit ceiling", Some("1")),
        ("press-test sink, lit counter, press-reset sink", Some("1")),
        // Not behind it, so it tells nothing of it; nor does what was seen before it was reset.
        ("press-test sink, lit ceiling, press-reset sink, lit ceiling", None),
        ("press-test sink, press-reset sink, press-test sink, press-reset sink", None),
        ("press-test sink, press-reset sink, lit sink, press-test sink, press-reset sink", None),
    ] {
        let acts = format!("{start}, {acts}, off 1, dark counter, dark counter, lit sink");
        let w = after(&acts);
        assert_eq!(singled_out(&w, "counter").as_deref(), on, "{acts}");
        if on.is_none() && acts.contains("reset") {
            let because = evidence(&w.home, &"counter".parse().unwrap()).unwrap().because;
            assert!(because.contains("the GFCI sink had been tripped in between"), "{because}");
        }
    }
    // A proof from before stands.
    let w = after(&format!("{start}, proof counter 1, press-test sink"));
    assert_eq!(proven(&w, "counter").as_deref(), Some("1"));
}

#[test]
fn after_a_gfci_was_reset_it_is_to_be_seen_lit_once_and_then_what_was_seen_before_counts_on() {
    let mut w =
        after("point Kitchen gfci sink, lit counter, lit ceiling, lit lantern, lit sink, press-test sink, press-reset sink");
    for school in [Method::OneAtATime, Method::SeveralOff, Method::LampAndHelper] {
        let NextStep::LookUnder { rooms, left: 1, why, .. } = trace_view(&w.home, school).next else { panic!("{school:?}") };
        assert!(why.contains("tripped and reset") && rooms[0].points[0].name == "sink" && rooms[0].points[0].seen.is_none());
    }
    let mut passed_over = after(
        "point Kitchen gfci sink, lit counter, lit ceiling, lit lantern, lit sink, press-test sink, press-reset sink, skip sink",
    );
    // Passed over, each point is seen lit anew before its breaker goes off.
    let next = trace_view(&passed_over.home, Method::OneAtATime).next;
    let NextStep::SeeAllLit { left, .. } = &next else { panic!("{next:?}") };
    assert_eq!(*left, 3, "all but the one passed over");
    passed_over.act("lit sink").unwrap();
    w.act("lit sink").unwrap();
    for w in [w, passed_over] {
        assert!(matches!(trace_view(&w.home, Method::OneAtATime).next, NextStep::SwitchOff { .. }));
    }
}

#[test]
fn a_gfci_that_is_gone_from_the_list_is_not_asked_for_and_still_doubted() {
    let start = "point Kitchen gfci sink, lit counter, lit ceiling, lit lantern, lit sink, press-test sink, press-reset sink, no-point sink";
    let w = after(start);
    let NextStep::SeeAllLit { left: 3, .. } = trace_view(&w.home, Method::OneAtATime).next else { panic!() };
    assert_eq!(proven(&after(&format!("{start}, off 1, dark counter, dark counter")), "counter"), None);
    assert_eq!(proven(&after(&format!("{start}, proof counter 1")), "counter").as_deref(), Some("1"));
}

#[test]
fn a_meter_says_lit_or_dark_or_neither_and_what_is_neither_proves_nothing() {
    let told_after = |acts: &str| singled_out(&after(acts), "counter");
    assert_eq!(told_after("volts counter 121.3, off 1, volts counter 0.2").as_deref(), Some("1"));
    assert_eq!(told_after("volts counter 121.3, off 1, volts counter 47.5, volts counter 47.5"), None);
    assert_eq!(told_after("volts counter 47.5, off 1, dark counter, dark counter"), None, "it was never seen lit");
    let shown = |w: &Written| {
        let step = trace_view(&w.home, Method::OneAtATime).next;
        let NextStep::Look { rooms, .. } = step else { panic!("{step:?}") };
        let point = rooms.into_iter().flat_map(|room| room.points).find(|p| p.name == "counter").unwrap();
        (point.seen, point.between)
    };
    // It is asked for again, and said why, until something that loads it says lit or dark or a handle moves.
    let mut w = after("lit counter, lit ceiling, lit lantern, off 1, volts counter 47.5");
    assert_eq!(shown(&w), (None, Some(47.5)));
    let looked = evidence(&w.home, &"counter".parse().unwrap()).unwrap();
    assert!(looked.because.contains("47.5 V with 1 off: neither lit nor dark"), "{}", looked.because);
    let lines: Vec<_> = looked.lines.iter().map(|l| (l.seen, l.volts, l.role)).collect();
    assert_eq!(lines, [(Some(Seen::Lit), None, LineRole::Agrees), (None, Some(47.5), LineRole::Between)]);
    w.act("dark counter").unwrap();
    let NextStep::LookUnder { rooms, .. } = trace_view(&w.home, Method::OneAtATime).next else { panic!() };
    assert!(rooms[0].points[0].again && rooms[0].points[0].between.is_none());
    let looked = evidence(&w.home, &"counter".parse().unwrap()).unwrap();
    assert!(!looked.because.contains("neither"), "{}", looked.because);
    for volts in ["-1", "1001", "NaN"] {
        assert_eq!(w.act(&format!("volts counter {volts}")).unwrap_err().field, "volts");
    }
}

#[test]
fn where_a_tester_was_left_plugged_in_is_said_until_they_run_out() {
    let mut w = after("point Kitchen receptacle sink, point Porch receptacle step");
    for (n, point) in ["counter", "sink", "step"].into_iter().enumerate() {
        let like = w.book.lines().last().unwrap().entry.clone();
        let seen = crate::logbook::PointSeen { point: point.parse().unwrap(), seen: Seen::Lit, since: None, anew: false };
        let instrument = Some(crate::logbook::Instrument::PlugInTester);
        let draft =
            crate::logbook::Draft { id: line(600 + n as u64), fact: crate::logbook::Fact::PointSeen(seen), instrument, ..like };
        let outcome = w.book.admit(&[draft]).unwrap();
        w.book.commit(outcome);
        w.home = Study::from(&w.book);
    }
    let plugged = |testers| {
        let way = crate::model::TraceSetup { testers, ..crate::model::TraceSetup::from(Method::SeveralOff) };
        let NextStep::SeeAllLit { rooms, .. } = trace_view(&w.home, way).next else { panic!() };
        let points = rooms.into_iter().flat_map(|room| room.points).filter(|point| point.plugged);
        points.map(|point| point.name).collect::<Vec<_>>()
    };
    assert_eq!(plugged(1), [""; 0], "the one tester is carried along");
    assert_eq!(plugged(4), ["step", "counter", "sink"], "by room, as they are listed");
    assert_eq!(plugged(3).len(), 2, "one is carried");
}

#[test]
fn more_volts_than_a_circuit_may_have_stop_the_trace_until_it_reads_right() {
    for school in [Method::OneAtATime, Method::SeveralOff, Method::LampAndHelper] {
        let mut w = after("lit counter, lit ceiling, volts lantern 148.2");
        let next = |w: &Written| trace_view(&w.home, school).next;
        let NextStep::Stop { place, volts, line, .. } = next(&w) else { panic!("{:?}", next(&w)) };
        assert_eq!((place.as_str(), volts, &line), ("Porch, lantern", 148.2, &w.book.lines().last().unwrap().entry.id));
        w.act("lit lantern").unwrap();
        assert!(matches!(next(&w), NextStep::Stop { .. }), "a lamp tells nothing of the volts");
        let mut mistyped = after("lit counter, lit ceiling, lit lantern, volts lantern 148.2");
        mistyped.act(&format!("strike {}", mistyped.book.seq())).unwrap();
        w.act("volts lantern 119").unwrap();
        for w in [w, mistyped] {
            assert!(!matches!(next(&w), NextStep::Stop { .. }));
        }
    }
}

#[test]
fn one_outlet_high_and_another_low_stop_the_trace_until_one_of_them_reads_right() {
    for (acts, stops) in [
        ("volts counter 103, volts lantern 128", true),
        // One rises while the other falls.
        ("volts counter 120, volts lantern 120, volts counter 114, volts lantern 125.5", true),
        ("volts counter 103, volts lantern 128, volts lantern 121", false),
        ("volts counter 116, volts lantern 124", false),
        ("volts counter 120, volts lantern 120, volts counter 114, volts lantern 114", false),
        ("volts counter 128, off 1, volts lantern 40", false),
    ] {
        let w = after(&format!("lit counter, lit ceiling, {acts}"));
        let next = trace_view(&w.home, Method::OneAtATime).next;
        let NextStep::Stop { why, .. } = &next else {
            assert!(!stops, "{acts}: {next:?}");
            continue;
        };
        assert!(stops && why.contains("with everything on"), "{acts}: {why}");
    }
}

#[test]
fn readings_of_different_days_are_not_compared() {
    let mut w = after("lit counter, lit ceiling, volts counter 103");
    let last = w.book.lines().last().unwrap().entry.clone();
    let read = VoltsRead { point: "lantern".parse().unwrap(), volts: 128.0, since: None };
    let at = Moment::from_unix_ms(last.at.unix_ms() + 24 * 60 * 60 * 1000);
    let outcome = w.book.admit(&[Draft { id: line(900), at, fact: read.into(), ..last }]).unwrap();
    w.book.commit(outcome);
    let next = trace_view(&Study::from(&w.book), Method::OneAtATime).next;
    assert!(!matches!(next, NextStep::Stop { .. }), "{next:?}");
}

#[test]
fn at_the_end_a_breaker_on_which_nothing_was_found_is_named_with_places_to_look_at() {
    let all = "proof counter 1, proof ceiling 1, proof lantern 1";
    let said = |acts: &str| match trace_view(&after(acts).home, Method::OneAtATime).next {
        NextStep::Done { summary, .. } => summary,
        other => panic!("{other:?}"),
    };
    assert_eq!(said(all), "Every point is proven.", "3 was never off: nothing is known of it");
    let tried = said(&format!("{all}, off 3, lit counter, on 3"));
    assert!(tried.starts_with("Every point is proven. Nothing was found on 3. Look outdoors"), "{tried}");
}

#[test]
fn a_gfci_that_is_taken_off_the_list_while_it_is_tripped_leaves_no_dead_end_and_no_wrong_proof() {
    let start = "panel 12\n1 15 a\n3 15 b\nroom Bath\npoint Bath gfci basin\npoint Bath receptacle mirror\nlit basin\nlit mirror\npress-test basin\nno-point basin";
    let w = written(start);
    assert!(
        !matches!(trace_view(&w.home, Method::OneAtATime).next, NextStep::SeeDownstream { .. }),
        "{:?}",
        trace_view(&w.home, Method::OneAtATime).next
    );
    // Nobody has seen the mirror lit since: it may be dark for the GFCI, whatever goes off.
    let off = written(&format!("{start}\noff 1\ndark mirror\ndark mirror"));
    assert_eq!(proven(&off, "mirror"), None);
    let seen = written(&format!("{start}\nproof mirror 1"));
    assert_eq!(proven(&seen, "mirror").as_deref(), Some("1"));
}

#[test]
fn a_gfci_that_is_entered_as_something_else_while_it_is_tripped_can_still_be_reset() {
    let plain =
        r#"fact {"kind":"point_placed","point":"basin","room":"bath","point_kind":"receptacle","name":"basin","volts":120}"#;
    let mut w = written(&format!(
        "panel 12\n1 15 a\nroom Bath\npoint Bath gfci basin\npoint Bath receptacle mirror\nlit basin\npress-test basin\ndark mirror\n{plain}"
    ));
    assert!(
        matches!(trace_view(&w.home, Method::OneAtATime).next, NextStep::SeeDownstream { .. }),
        "{:?}",
        trace_view(&w.home, Method::OneAtATime).next
    );
    w.act("press-reset basin").unwrap();
    assert!(!matches!(trace_view(&w.home, Method::OneAtATime).next, NextStep::SeeDownstream { .. }));
    assert!(w.act("press-test basin").is_err(), "it is none now");
}

#[test]
fn of_what_goes_by_itself_the_step_says_how_it_is_looked_at() {
    let mut w =
        written("panel 6\n1 20\n3 15\nroom Hall\npoint Hall light lamp\npoint Hall alarm smoke\npoint Hall light plain\n");
    w.act("goes-by lamp motion_sensor").unwrap();
    let NextStep::SeeAllLit { rooms, .. } = next_step(&w.home) else { panic!() };
    let how = |name: &str| rooms[0].points.iter().find(|p| p.name == name).unwrap().how.clone().unwrap_or_default();
    assert!(how("lamp").starts_with("Has a motion sensor"), "{}", how("lamp"));
    assert!(how("smoke").contains("mains lamp"), "{}", how("smoke"));
    assert_eq!(how("plain"), "");
}

#[test]
fn a_tap_twice_within_a_second_counts_once() {
    let chances = |ms_between: &[i64]| {
        let mut w = after("lit counter, off 1");
        let mut at = w.book.lines().last().unwrap().entry.at.unix_ms() + 5_000;
        for (n, ms) in std::iter::once(&0).chain(ms_between).enumerate() {
            at += ms;
            let like = w.book.lines().last().unwrap().entry.clone();
            let seen = PointSeen { point: "counter".parse().unwrap(), seen: Seen::Dark, since: None, anew: false };
            let (id, at) = (line(900 + n as u64), Moment::from_unix_ms(at));
            let outcome = w.book.admit(&[Draft { id, at, fact: seen.into(), ..like }]).unwrap();
            w.book.commit(outcome);
        }
        evidence(&Study::from(&w.book), &"counter".parse().unwrap()).unwrap().stories
    };
    assert_eq!(chances(&[]), chances(&[300]), "the same tap twice is one look");
    assert_ne!(chances(&[]), chances(&[2_000]), "a second look is one");
}

#[test]
fn a_point_whose_looks_fit_one_that_goes_by_itself_is_to_be_measured_or_stopped_first() {
    // A minute goes by between the looks, and it is now lit, now dark, whatever is off.
    let minute = "lit lantern, ".repeat(60);
    let looks = |point: &str, seen: [&str; 7]| -> String {
        let round = |(n, seen): (usize, &&str)| {
            let off = n / 2 % 2 + 1;
            format!("{minute}off {off}, {seen} {point}, on {off}, ")
        };
        format!("lit counter, lit ceiling, {}off 3", seen.iter().enumerate().map(round).collect::<String>())
    };
    let asked = |acts: &str, point: &str| {
        let view = trace_view(&after(acts).home, Method::OneAtATime);
        let rooms = view.next.rooms().unwrap_or_else(|| panic!("{:?}", view.next)).to_vec();
        let asked = rooms.into_iter().flat_map(|room| room.points).find(|asked| asked.name == point).unwrap();
        (asked.measure, asked.how.unwrap_or_default())
    };
    let by_itself = ["dark", "lit", "dark", "lit", "lit", "dark", "lit"];
    let (measure, how) = asked(&looks("counter", by_itself), "counter");
    assert!(measure && how.contains("Read its volts"), "{how}");
    let (measure, how) = asked(&looks("ceiling", by_itself), "ceiling");
    assert!(!measure && how.contains("Stop that first"), "a light has no place for probes: {how}");
    // What goes out with one breaker alone does not, nor does a single slip.
    for seen in [["dark", "dark", "lit", "lit", "dark", "dark", "lit"], ["dark", "dark", "lit", "lit", "lit", "dark", "lit"]] {
        let view = trace_view(&after(&looks("counter", seen)).home, Method::OneAtATime);
        let mut points = view.next.rooms().into_iter().flatten().flat_map(|room| &room.points);
        assert!(points.all(|point| !point.measure), "{:?}", view.next);
    }
}

#[test]
fn of_two_poles_one_big_thing_is_looked_at_first_and_others_only_where_it_stays_lit() {
    let house = "panel 24\n1 20 kitchen rec\n3 20 kitchen lights\n2-4 40/2 range\n6-8 30/2\n5 20\n7 20\n9 20\n11 20\n13 20\n15 20\n17 20\n19 20\nroom Kitchen\npoint Kitchen receptacle counter\n\
                 point Kitchen light ceiling\npoint Kitchen appliance range\nrange is 240 V\nlit counter\nlit ceiling\nlit range";
    let mut w = written(house);
    let NextStep::SwitchOff { breaker, why, .. } = next_step(&w.home) else { panic!("{:?}", next_step(&w.home)) };
    assert_eq!(w.home.panels().number(&breaker), "2-4", "before 1, which stands first");
    assert!(why.contains("one 240 V appliance goes out with it"), "{why}");
    let asked = |w: &Written| -> Vec<String> {
        let next = next_step(&w.home);
        let points = next.rooms().into_iter().flatten().flat_map(|room| &room.points);
        points.filter(|point| point.seen.is_none()).map(|point| point.name.clone()).collect()
    };
    w.act("off 2-4").unwrap();
    assert_eq!(asked(&w), ["range"]);
    let mut lit = written(&format!("{house}\noff 2-4\nlit range"));
    assert_eq!(asked(&lit), ["counter", "ceiling"], "it feeds something else");
    lit.acts("lit counter\nlit ceiling");
    assert!(matches!(next_step(&lit.home), NextStep::SwitchOn { .. }));
    w.act("dark range").unwrap();
    for _ in 0..3 {
        if asked(&w) == ["range"] {
            w.act("dark range").unwrap();
        }
    }
    assert!(matches!(next_step(&w.home), NextStep::SwitchOn { .. }), "nobody walks on for it: {:?}", next_step(&w.home));
}

#[test]
fn what_goes_off_for_a_moment_has_the_cautions_of_what_goes_off() {
    let out = after("share 1 3, lit counter, lit ceiling, lit lantern, watch counter 1 stayed out");
    let view = trace_view(&out.home, Method::OneAtATime);
    assert!(matches!(view.next, NextStep::Cycle { .. }), "{:?}", view.next);
    assert!(view.cautions.iter().any(|caution| caution.starts_with("1 shares a neutral with 3")), "{:?}", view.cautions);
}

#[test]
fn where_everything_is_dark_with_one_breaker_nothing_is_proven_until_something_is_lit() {
    let rooms = ["Kitchen", "Bath", "Study", "Attic", "Cellar", "Hall"];
    let each = || rooms.iter().flat_map(|room| ["left", "right", "window"].map(|n| format!("{}-{n}", room.to_lowercase())));
    let mut house = String::from("panel 12\n");
    for (n, room) in rooms.iter().enumerate() {
        house.push_str(&format!("{} 20 {room} rec\n", n + 1));
    }
    for room in rooms {
        house.push_str(&format!("room {room}\n"));
        for name in ["left", "right", "window"] {
            house.push_str(&format!("point {room} receptacle {}-{name}\n", room.to_lowercase()));
        }
    }
    house.push_str(&each().map(|point| format!("lit {point}\n")).collect::<String>());
    house.push_str("off 1\n");
    let kitchen = "dark kitchen-left\ndark kitchen-left\ndark kitchen-right\ndark kitchen-right\n";
    // The kitchen is dark with 1, as the card says, and nothing else.
    let alone = written(&format!("{house}{kitchen}lit bath-left\n"));
    assert_eq!(proven(&alone, "kitchen-left").as_deref(), Some("1"));
    // The rest of the house is dark, too. It hardly hangs on 1, so the house may have no power.
    let rest: String = each().skip(3).map(|point| format!("dark {point}\n")).collect();
    let dark = written(&format!("{house}{rest}{kitchen}"));
    let stories = evidence(&dark.home, &"kitchen-left".parse().unwrap()).unwrap().stories;
    assert_eq!(proven(&dark, "kitchen-left"), None, "{stories:?}");
    assert!(stories[0].starts_with("The house had no power"), "{stories:?}");
}
