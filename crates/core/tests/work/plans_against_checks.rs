//! A sure plan, once it is done, makes no finding that was not there: over all the small panels with which the checks are tested.

use std::collections::BTreeSet;

use wayfinder_core::work::{HomeWish, WayLine, WayStands, read_wish, work_view};
use wayfinder_core::{Severity, Study, findings};
use wayfinder_fixture::{Written, written};

const FILES: [&str; 8] = [
    include_str!("../small_panels/wire.txt"),
    include_str!("../small_panels/panel.txt"),
    include_str!("../small_panels/neutral.txt"),
    include_str!("../small_panels/points.txt"),
    include_str!("../small_panels/service.txt"),
    include_str!("../small_panels/places.txt"),
    include_str!("../small_panels/loads.txt"),
    include_str!("../small_panels/canada.txt"),
];

/// The acts of every small panel.
fn homes() -> Vec<String> {
    let cases = FILES.iter().flat_map(|text| text.split("\n## ").skip(1));
    let acts = |case: &str| -> String {
        case.lines().skip(1).filter(|line| !line.starts_with("= ")).map(|line| format!("{line}\n")).collect()
    };
    cases.map(acts).collect()
}

/// What is found now; words for a new card and advice on planned work apart.
fn found(home: &Study) -> BTreeSet<String> {
    let counts = |code: &str, severity: Severity| !code.starts_with("directory") && severity != Severity::Planned;
    findings(home).iter().filter(|one| counts(&one.code, one.severity)).map(|one| one.key.clone()).collect()
}

/// Does what the steps say; `None` where one of them is more than a landing.
fn done(acts: &str, wish: &HomeWish, way: &WayLine) -> Option<Written> {
    let mut home = written(acts);
    for step in &way.steps {
        let step = step.trim_end_matches('.');
        if let Some(at) = step.strip_prefix("Land the new circuit at ") {
            let HomeWish::Circuit { poles, amps, .. } = wish else { return None };
            let awg = [(15, 14), (20, 12), (30, 10), (40, 8), (55, 6)].into_iter().find(|(most, _)| amps <= most)?.1;
            let of = if *poles == 2 { format!("{amps}/2") } else { amps.to_string() };
            home.acts(&format!("{at} {of} #{awg} freezer"));
        } else if let Some(at) = step.strip_prefix("Put the new breaker in at ") {
            let HomeWish::Replace { amps, protection, .. } = wish else { return None };
            if protection.is_some() {
                home.acts(&format!("set {at} {{\"protection\": \"gfci\"}}"));
            }
            if let Some(amps) = amps {
                home.acts(&format!("set {at} {{\"amps\": {amps}.0}}"));
            }
        } else if let Some((from, to)) = step.strip_prefix("Move ").and_then(|rest| rest.split_once(" to ")) {
            // Two hots that are exchanged leave the breaker where it is.
            if !to.contains(',') {
                home.acts(&format!("move {from} {to}"));
            }
        } else if !step.starts_with("Main off") && !step.starts_with("Cover on") {
            return None;
        }
    }
    Some(home)
}

#[test]
fn a_sure_plan_makes_no_finding() {
    let (mut plans, mut homes_asked) = (0, 0);
    for acts in homes() {
        // The main has to be known before anything is said.
        let rated = format!("{acts}with main {{\"main\": 200.0}}\n");
        let Ok(home) = std::panic::catch_unwind(|| written(&rated)) else { continue };
        let Some(panel) = home.home.panels().all().next().cloned() else { continue };
        homes_asked += 1;
        let before = found(&home.home);
        let numbers: Vec<String> = home.home.panels().breakers_of(&panel.id).map(|breaker| breaker.number()).collect();
        let wishes =
            numbers.iter().flat_map(|n| ["replace @", "replace @ with 15 A", "GFCI for @"].map(|wish| wish.replace('@', n)));
        let wishes: Vec<String> = wishes
            .chain(["15 A circuit", "20 A circuit that takes 5 A", "30 A two-pole that takes 10 A"].map(str::to_owned))
            .collect();
        for said in wishes {
            let Ok(wish) = read_wish(&home.home, &panel, &said) else { continue };
            let Ok(view) = work_view(&home.home, &panel, &wish, &[], 20_000) else { continue };
            for way in view.ways.iter().filter(|way| way.stands == WayStands::Sure && way.opens_panel) {
                let Some(after) = done(&rated, &wish, way) else { continue };
                plans += 1;
                let new: Vec<String> = found(&after.home).difference(&before).cloned().collect();
                assert!(new.is_empty(), "“{said}” by {way:?} makes {new:?} in\n{rated}");
            }
        }
    }
    assert!(plans > 100 && homes_asked > 100, "{plans} plans in {homes_asked} homes");
}
