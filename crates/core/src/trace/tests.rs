use crate::logbook::fixture::{Written, written};
use crate::{BreakerId, LineRole, NextStep, Verdict, evidence, next_step, trace_view, verdict};

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
    known(w, point).proven_on().map(|b| w.home.number(b))
}

fn after(acts: &str) -> Written {
    written(&format!("{HOUSE}\n{}", acts.replace(", ", "\n")))
}

#[test]
fn proven_needs_a_lit_and_a_dark_look_that_differ_by_one_breaker() {
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
        assert_eq!(proven(&after(acts), "counter").as_deref(), on, "{acts}");
    }
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
    assert_eq!(proven(&w, "counter").as_deref(), Some("1"));
}

#[test]
fn a_breaker_taken_out_proves_nothing_any_more() {
    let mut w = after("lit counter, off 1, dark counter, on 1");
    w.act("take-out 1").unwrap();
    assert!(matches!(known(&w, "counter"), Verdict::Open { possible, .. } if possible.is_empty()));
}

#[test]
fn a_trace_goes_from_all_lit_round_by_round_to_done() {
    let mut w = written(HOUSE);
    w.act("must-stay-on 2").unwrap();
    let said = |w: &Written| match next_step(&w.home) {
        NextStep::SetUp { missing } => format!("enter {missing}"),
        NextStep::SeeAllLit { left, .. } => format!("see {left} lit"),
        NextStep::SwitchOff { breaker, candidates, .. } => format!("off {} for {candidates}", w.home.number(&breaker)),
        NextStep::Look { breaker, left, rooms } => {
            format!("look at {left} for {}, {} first", w.home.number(&breaker), rooms[0].name)
        }
        NextStep::SwitchOn { breakers, .. } => {
            format!("on {}", breakers.iter().map(|b: &BreakerId| w.home.number(b)).collect::<Vec<_>>().join(" "))
        }
        NextStep::SeeOneLitAgain { breaker, .. } => format!("see one of {} lit again", w.home.number(&breaker)),
        NextStep::Done { summary, .. } => summary,
    };
    for (expected, act) in [
        ("see 3 lit", "lit counter"),
        ("see 2 lit", "lit ceiling"),
        ("see 1 lit", "lit lantern"),
        ("off 1 for 3", "off 1"),
        ("look at 3 for 1, Kitchen first", "dark counter"),
        ("look at 2 for 1, Kitchen first", "lit ceiling"),
        ("look at 1 for 1, Kitchen first", "skip lantern"),
        ("on 1", "on 1"),
        ("see one of 1 lit again", "lit counter"),
        ("off 3 for 2", "off 3"),
        ("look at 2 for 3, Porch first", "dark lantern"),
        ("look at 1 for 3, Porch first", "lit ceiling"),
        ("on 3", "on 3"),
        ("see one of 3 lit again", "lit lantern"),
    ] {
        assert_eq!(said(&w), expected, "before {act}");
        w.act(act).unwrap();
    }
    assert_eq!(said(&w), "What is left: 1 not proven on any breaker that could be switched.");
    let view = trace_view(&w.home, w.book.seq());
    assert_eq!((view.progress.proven, view.progress.open, view.rounds_done), (2, 1, 2));
    assert!(view.to_switch.is_empty(), "the pump must stay on");
}

#[test]
fn two_off_at_once_are_brought_back_to_one() {
    let w = after("lit counter, lit ceiling, lit lantern, off 1, off 3");
    let NextStep::SwitchOn { breakers, why, .. } = next_step(&w.home) else { panic!() };
    assert_eq!(breakers.iter().map(|b| w.home.number(b)).collect::<Vec<_>>(), ["1"]);
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
