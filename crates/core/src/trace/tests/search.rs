//! The belief against exact enumeration, the search in a home, and what must never happen.

use crate::fixture::{Written, written};
use crate::model::Method;
use crate::proof::{Way, Weigh};
use crate::search::*;
use crate::trace::{NextStep, TraceView, Verdict, trace_view, verdicts};

const PAIR: Crew = Crew { alone: false, plugs: 1, tone: false, radio: false };

/// Three breakers, two rooms, five points, no card.
fn small(labels: Vec<OldLabel>) -> Case {
    let point = |room, class| CasePoint {
        room,
        class,
        name: String::new(),
        high: false,
        max_dark_s: None,
        by_itself: false,
        delicate: false,
    };
    Case {
        rooms: 2,
        walk_s: vec![vec![0.0, 4.0], vec![4.0, 0.0]],
        panel_s: vec![5.0, 7.0],
        next_to: vec![vec![1], vec![0]],
        beside: vec![vec![1], vec![0, 2], vec![1]],
        two_pole: vec![false; labels.len()],
        labels,
        stay_on: OffSet::NONE,
        leads_on: OffSet::NONE,
        gone: OffSet::NONE,
        delicate: OffSet::NONE,
        points: vec![
            point(0, PointClass::Receptacle),
            point(0, PointClass::Receptacle),
            point(0, PointClass::Light),
            point(1, PointClass::Receptacle),
            point(1, PointClass::Appliance),
        ],
    }
}

#[test]
fn a_circuit_that_is_named_by_one_room_is_likely_for_its_kind_in_others_too() {
    let lights = OldLabel::Room { room: 0, class: PointClass::Light, name: String::new() };
    let chances = |next_to: Vec<Vec<usize>>| {
        let mut case = Case { next_to, ..small(vec![lights.clone(), OldLabel::Blank, OldLabel::Blank]) };
        case.points[3].class = PointClass::Light;
        let belief = Belief::new(&case, false);
        (belief.of(3)[0], belief.of(4)[0])
    };
    let (next_door, _) = chances(vec![vec![1], vec![0]]);
    let (elsewhere, of_another_kind) = chances(vec![vec![], vec![]]);
    assert!(next_door > elsewhere && elsewhere > of_another_kind, "{next_door}, {elsewhere}, {of_another_kind}");
}

/// Every assignment of points to breakers, weighed by what a house is taken to be: each group has a main breaker,
/// any equally likely, and each of its points hangs on that with `together` and anywhere else evenly. Written anew, from
/// those words alone.
fn enumerated(case: &Case, together: f64, looks: &[(usize, OffSet, bool)]) -> Vec<Vec<f64>> {
    let (points, breakers) = (case.points.len(), case.breakers());
    let group = |p: usize| {
        (case.points[p].room, case.points[p].class, if case.points[p].class == PointClass::Appliance { p } else { 99 })
    };
    let mut weights = vec![vec![0.0; breakers]; points];
    for code in 0..breakers.pow(points as u32) {
        let on: Vec<usize> = (0..points).map(|p| code / breakers.pow(p as u32) % breakers).collect();
        let mut weight = 1.0;
        let mut seen = Vec::new();
        for p in 0..points {
            if seen.contains(&group(p)) {
                continue;
            }
            seen.push(group(p));
            let members: Vec<usize> = (0..points).filter(|q| group(*q) == group(p)).collect();
            let s = if case.points[p].class == PointClass::Appliance { 0.0 } else { together };
            weight *= (0..breakers)
                .map(|main| {
                    members
                        .iter()
                        .map(|q| if on[*q] == main { s + (1.0 - s) / breakers as f64 } else { (1.0 - s) / breakers as f64 })
                        .product::<f64>()
                })
                .sum::<f64>();
        }
        for (p, off, dark) in looks {
            weight *= if off.has(on[*p]) == *dark { 0.995 } else { 0.005 };
        }
        for p in 0..points {
            weights[p][on[p]] += weight;
        }
    }
    for row in &mut weights {
        let sum: f64 = row.iter().sum();
        row.iter_mut().for_each(|x| *x /= sum);
    }
    weights
}

#[test]
fn the_belief_of_a_small_house_agrees_with_every_assignment_enumerated() {
    let set = |breakers: &[usize]| breakers.iter().copied().collect::<OffSet>();
    for looks in [
        vec![],
        vec![(0, set(&[0]), false)],
        vec![(0, set(&[0]), true)],
        vec![(0, set(&[0, 1]), true), (1, set(&[0, 1]), true)],
        vec![(0, set(&[0, 1]), true), (0, set(&[0]), false), (3, set(&[2]), false), (4, set(&[2]), true)],
        vec![(0, set(&[1]), true), (1, set(&[1]), false), (2, set(&[2]), true)],
    ] {
        let case = small(vec![OldLabel::Blank; 3]);
        let mut search = Search::new(&case, PAIR, Costs::default());
        for (p, off, dark) in &looks {
            search.weigh.switched(*off);
            search.weigh.saw(&case, *p, *dark, Way::Anew, false, 0);
        }
        search.weigh.infer(&case);
        let exact = enumerated(&case, 0.9 * search.belief().affinity(), &looks);
        for (p, row) in exact.iter().enumerate() {
            let best = |row: &[f64]| row.iter().copied().fold(0.0, f64::max);
            for (b, x) in row.iter().enumerate() {
                // One pass is not exact: what neighbors tell is damped, and rooms also tell a little across kinds.
                let off_by = (search.belief().of(p)[b] - x).abs();
                assert!(off_by < 0.15, "{looks:?} point {p} breaker {b}: {:?} against {row:?}", search.belief().of(p));
                // Where a point was looked at itself, what is nearly sure is nearly sure in both.
                if best(row) > 0.99 && looks.iter().any(|(q, _, _)| *q == p) {
                    // An appliance may go by itself, which is no part of what is enumerated.
                    assert!(off_by < 0.04, "{looks:?} point {p}: {:?} against {row:?}", search.belief().of(p));
                }
            }
        }
    }
}

#[test]
fn a_card_that_names_a_room_draws_its_points_and_one_that_was_wrong_no_longer_does() {
    let room = |room, class| OldLabel::Room { room, class, name: String::new() };
    let case = small(vec![room(0, PointClass::Receptacle), room(1, PointClass::Receptacle), OldLabel::Spare]);
    let mut search = Search::new(&case, PAIR, Costs::default());
    assert!(search.belief().of(0)[0] > 0.7 && search.belief().of(3)[1] > 0.7);
    assert!((0..5).all(|p| search.belief().of(p)[2] < 0.2), "a spare draws nothing");
    search.weigh.prove(4, 0);
    search.weigh.believe(&case, false);
    assert!(search.belief().of(0)[0] < 0.5, "the label was wrong of the first point that was proven on it");
}

#[test]
fn one_look_is_one_cause_only_where_nothing_else_moved() {
    let case = small(vec![OldLabel::Blank; 3]);
    let mut search = Search::new(&case, PAIR, Costs::default());
    search.switched(OffSet::one(0).with(1));
    search.saw(0, false);
    search.switched(OffSet::one(0).with(1).with(2));
    // Lit with 0 and 1 off, dark with 2 off besides: a single cause, and all others were ruled out before.
    search.saw(0, true);
    assert_eq!(search.weigh.causes(0).iter().map(|cause| cause.breaker).collect::<Vec<_>>(), [2]);
    search.switched(OffSet::one(0).with(1));
    search.saw(1, false);
    search.switched(OffSet::one(1));
    search.switched(OffSet::one(0).with(1).with(2));
    search.saw(1, true);
    assert!(search.weigh.causes(1).is_empty(), "0 was on in between");
}

fn house(seed: u64) -> House {
    // A made-up house of 12 breakers and 30 points, wired by a plain generator from the seed.
    let mut state = seed.wrapping_mul(0x9E37_79B9_7F4A_7C15) | 1;
    let mut roll = |n: usize| {
        state ^= state << 13;
        state ^= state >> 7;
        state ^= state << 17;
        (state >> 20) as usize % n
    };
    let rooms = 6;
    let points: Vec<serde_json::Value> = (0..30)
        .map(|p| {
            let room = p % rooms;
            let kind = ["receptacle", "receptacle", "light", "appliance"][roll(4)];
            let breaker = if roll(10) < 7 { room * 2 + usize::from(kind == "light") } else { roll(12) };
            let clock = if p == 5 { serde_json::json!(12.0) } else { serde_json::Value::Null };
            serde_json::json!({ "room": room, "kind": kind, "name": "", "burnt_out": roll(50) == 0, "breaker": breaker, "max_off_min": clock })
        })
        .collect();
    let walk: Vec<Vec<f64>> = (0..rooms).map(|a| (0..rooms).map(|b| 4.0 * (a as f64 - b as f64).abs()).collect()).collect();
    let beside: Vec<Vec<usize>> = (0..12usize).map(|b| (0..12).filter(|o| b.abs_diff(*o) == 1).collect()).collect();
    let labels: Vec<serde_json::Value> = (0..12)
        .map(|_| match roll(3) {
            0 => serde_json::json!({ "says": "vague", "room": null, "kind": "light", "name": "" }),
            _ => serde_json::json!({ "says": "room", "room": roll(rooms), "kind": "receptacle", "name": "" }),
        })
        .collect();
    serde_json::from_value(serde_json::json!({
        "format": "wayfinder-practice-house", "version": 1, "id": format!("test-{seed}"), "rooms": vec!["room"; rooms], "walk_s": walk,
        "next_to": (0..rooms).map(|r| vec![(r + 1) % rooms, (r + rooms - 1) % rooms]).collect::<Vec<_>>(), "panel_room": 0, "breakers": 12,
        "panel_neighbours": beside, "must_stay_on": [3], "labels": labels, "points": points
    }))
    .unwrap()
}

#[test]
fn nothing_that_must_stay_on_is_ever_off_and_no_clock_runs_out_in_any_strategy() {
    for seed in 0..6 {
        let house = house(seed);
        for strategy in [Strategy::OneAtATime, Strategy::Binary, Strategy::Adaptive, Strategy::Oracle] {
            for (crew, exchange_s) in
                [(PAIR, 4.0), (Crew { alone: true, plugs: 8, tone: true, ..PAIR }, 4.0), (Crew { plugs: 8, ..PAIR }, 1.0)]
            {
                let costs = Costs { exchange_s, ..Costs::default() };
                for world in [World::CALM, World::HARSH] {
                    let played = || play(&Game::from(&house), crew, costs, (strategy, world), seed, &mut || 0.0);
                    let once = played();
                    assert_eq!(once.must_stay_on_violations, 0, "{strategy:?}");
                    // A breaker that tripped and that nobody has seen is nobody's fault.
                    assert!(once.clock_overrun_min == 0.0 || world == World::HARSH, "{strategy:?}: {once:?}");
                    assert_eq!(once.proven + once.by_exclusion + once.open, 30);
                    assert_eq!(once, played(), "the same seed, the same round");
                }
            }
        }
    }
}

#[test]
fn without_misreadings_everything_that_may_be_off_is_proven_and_rightly() {
    for seed in 20..26 {
        let house = house(seed);
        let costs = Costs { misread: 1e-9, ..Costs::default() };
        let played = play(&Game::from(&house), PAIR, costs, (Strategy::Adaptive, World::CALM), seed, &mut || 0.0);
        let on_three = house.points.iter().filter(|p| p.breaker == 3).count();
        assert_eq!((played.proven, played.wrong_proofs, played.wrong_exclusions), (30 - on_three, 0, 0), "{played:?}");
    }
}

#[test]
fn what_should_not_go_off_and_on_within_seconds_is_never_watched() {
    let mut watched = 0;
    for seed in 0..30 {
        let house = house(seed);
        let mut case = house.case();
        // Every third breaker and point is delicate.
        case.delicate = (0..case.breakers()).step_by(3).collect();
        case.points.iter_mut().step_by(3).for_each(|point| point.delicate = true);
        let mut search = Search::new(&case, PAIR, Costs::default());
        for _ in 0..120 {
            match search.next_act() {
                Act::Look { off, room, points } => {
                    search.switched(off);
                    search.went(Place::Room(room));
                    for p in points {
                        search.passed(8.0);
                        // Now and then one is misread, so that there is something to make sure.
                        search.saw(p, off.has(house.points[p].breaker) != (p % 7 == 0 && off.len() > 2));
                    }
                }
                Act::Watch { breaker, point } => {
                    watched += 1;
                    let likely = |p: &usize| case.points[*p].delicate && search.belief().of(*p)[breaker] > 0.3;
                    assert!(!case.delicate.has(breaker) && !search.off().has(breaker) && !case.stay_on.has(breaker));
                    assert_eq!((0..case.points.len()).find(likely), None, "{seed}: {breaker} for {point}");
                    search.saw(point, false);
                    search.watched(point, breaker, house.points[point].breaker == breaker, true);
                }
                Act::Cycle { breaker } => search.cycled(breaker),
                Act::Control { point } => drop(search.saw(point, search.off().has(house.points[point].breaker))),
                Act::Tone { .. } => panic!("there is no tracer"),
                Act::Done => break,
            }
        }
    }
    assert!(watched > 5, "{watched}");
}

/// A point on breaker 1 whose first look with that off was misread as lit: what the search asks of it from then on.
#[test]
fn after_a_slip_a_point_is_seen_lit_before_its_breaker_is_switched_off_once_more() {
    let case = small(vec![OldLabel::Blank; 3]);
    let wiring = [1, 0, 0, 2, 2];
    let mut search = Search::new(&case, PAIR, Costs::default());
    for (off, dark) in [(OffSet::one(1), false), (OffSet::one(0), false), (OffSet::one(2), false), (OffSet::one(1), true)] {
        search.switched(off);
        search.saw(0, dark);
    }
    assert!(search.waits(0).is_none(), "it was lit with 1 off since it was lit with everything on");
    let mut asked = Vec::new();
    for _ in 0..60 {
        let Act::Look { off, room, points } = search.next_act() else { break };
        search.passed(10.0);
        search.switched(off);
        search.went(Place::Room(room));
        for p in points {
            search.saw(p, off.has(wiring[p]));
            if p == 0 {
                asked.push(off.has(1));
            }
        }
    }
    assert_eq!(search.standing(0), Standing::Proven(1), "{asked:?}");
    assert!(asked.len() <= 5 && asked.windows(2).any(|two| two == [false, true]), "{asked:?}");
}

fn view(w: &Written) -> TraceView {
    trace_view(&w.home, Method::SeveralOff)
}

fn view_of(w: &Written, alone: bool) -> TraceView {
    trace_view(&w.home, crate::model::TraceSetup { method: Method::SeveralOff, alone, ..crate::model::TraceSetup::default() })
}

/// Eight breakers, two rooms with four points each; the card says nothing.
fn home() -> Written {
    home_with("light")
}

fn home_with(kind: &str) -> Written {
    let mut text = String::from("panel 24\n");
    for n in 1..=8 {
        text += &format!("{n} 15\n");
    }
    text += "room Kitchen\nroom Hall\n";
    for n in 0..8 {
        text += &format!("point {} {kind} p{n}\n", if n < 4 { "Kitchen" } else { "Hall" });
    }
    written(&text)
}

#[test]
fn in_a_home_the_search_asks_until_every_point_is_proven_whatever_the_wiring() {
    for (wiring, alone) in [
        ([1, 1, 1, 2, 3, 3, 4, 5], false),
        ([8, 8, 8, 8, 1, 1, 1, 1], false),
        ([1, 2, 3, 4, 5, 6, 7, 8], false),
        ([1, 1, 1, 2, 3, 3, 4, 5], true),
    ] {
        let mut w = home();
        let mut off: Vec<usize> = Vec::new();
        for acts in 0.. {
            assert!(acts < 300, "the trace does not end");
            let number = |id: &crate::model::BreakerId| w.home.panels().number(id).parse::<usize>().unwrap();
            match view_of(&w, alone).next {
                NextStep::SeeAllLit { rooms, .. } | NextStep::LookUnder { rooms, .. } => {
                    let point = rooms.iter().flat_map(|r| &r.points).find(|p| p.seen.is_none() && !p.skipped).unwrap();
                    let n: usize = point.name[1..].parse().unwrap();
                    let seen = if off.contains(&wiring[n]) { "dark" } else { "lit" };
                    let act = format!("{seen} p{n}");
                    w.act(&act).unwrap();
                }
                NextStep::SwitchTo { off: more, on, why } => {
                    assert!(!why.is_empty());
                    assert!(!more.is_empty() || !on.is_empty(), "nothing to switch");
                    let (more, on): (Vec<usize>, Vec<usize>) =
                        (more.iter().map(number).collect(), on.iter().map(number).collect());
                    for n in on {
                        w.act(&format!("on {n}")).unwrap();
                        off.retain(|b| *b != n);
                    }
                    for n in more {
                        w.act(&format!("off {n}")).unwrap();
                        off.push(n);
                    }
                }
                NextStep::SwitchOn { breakers, .. } => {
                    for n in breakers.iter().map(number).collect::<Vec<_>>() {
                        w.act(&format!("on {n}")).unwrap();
                        off.retain(|b| *b != n);
                    }
                }
                NextStep::Cycle { breaker, .. } => {
                    let n = number(&breaker);
                    w.act(&format!("off {n}")).unwrap();
                    w.act(&format!("on {n}")).unwrap();
                }
                NextStep::Done { .. } => break,
                other => panic!("{other:?}"),
            }
        }
        assert!(off.is_empty(), "everything is on at the end");
        for (p, known) in verdicts(&w.home) {
            let n: usize = p.as_str()[1..].parse().unwrap();
            assert_eq!(known.proven_on().map(|b| w.home.panels().number(b)), Some(wiring[n].to_string()), "{p}");
        }
    }
}

#[test]
fn a_breaker_that_must_stay_on_is_never_asked_off_and_its_points_are_known_by_exclusion_only() {
    let mut w = home();
    w.act("must-stay-on 2").unwrap();
    for n in 0..8 {
        w.act(&format!("lit p{n}")).unwrap();
    }
    // Twice each: one lit look may be a slip, or another handle was moved.
    for b in [1, 3, 4, 5, 6, 7, 8, 1, 3, 4, 5, 6, 7, 8] {
        assert!(
            !matches!(view(&w).next, NextStep::SwitchTo { ref off, .. } if off.iter().any(|b| w.home.panels().number(b) == "2"))
        );
        w.act(&format!("off {b}")).unwrap();
        w.act("lit p0").unwrap();
        w.act("lit p1").unwrap();
        w.act(&format!("on {b}")).unwrap();
    }
    let known = verdicts(&w.home);
    assert!(
        matches!(&known[0].1, Verdict::ByExclusion { breakers } if breakers.iter().map(|b| w.home.panels().number(b)).eq(["2"])),
        "{:?}",
        known[0].1
    );
    assert_eq!(known[0].1.proven_on(), None, "and never printed as proven");
    let evidence = crate::trace::evidence(&w.home, &known[0].0).unwrap();
    assert!(evidence.because.contains("no proof"), "{}", evidence.because);
}

#[test]
fn what_is_likely_is_told_in_percent_and_schools_say_what_they_would_take() {
    let mut w = home();
    for n in 0..8 {
        w.act(&format!("lit p{n}")).unwrap();
    }
    w.act("off 1").unwrap();
    for n in 0..3 {
        w.act(&format!("dark p{n}")).unwrap();
    }
    w.act("off 5").unwrap();
    w.act("dark p3").unwrap();
    w.act("on 5").unwrap();
    w.act("on 1").unwrap();
    let view = view(&w);
    let p3 = "p3".parse().unwrap();
    let likely = view.likely.get(&p3).expect("on 1 or 5, and the rest of its room hangs on 1");
    assert_eq!(w.home.panels().number(&likely.breaker), "1");
    assert!((60..=99).contains(&likely.percent));
    let is_proven = |p: &str| crate::trace::verdict(&w.home, &p.parse().unwrap()).proven_on().is_some();
    let told = |p: &str| view.likely.contains_key(&p.parse().unwrap());
    assert!((0..8).map(|n| format!("p{n}")).all(|p| !(is_proven(&p) && told(&p))), "what is proven is not likely, it is proven");
    let minutes = crate::trace::method_minutes(&w.home, crate::model::TraceSetup::default());
    assert!(minutes.len() == 3 && minutes.iter().all(|s| s.minutes > 0.0), "{minutes:?}");
    assert_eq!(
        minutes,
        crate::trace::method_minutes(&w.home, crate::model::TraceSetup::default()),
        "the same logbook, the same answer"
    );
    let alone =
        crate::trace::method_minutes(&w.home, crate::model::TraceSetup { alone: true, ..crate::model::TraceSetup::default() });
    assert!(alone.iter().zip(&minutes).all(|(alone, pair)| alone.minutes > pair.minutes), "walking to the panel takes longer");
}

#[test]
fn a_radio_heard_at_the_panel_saves_one_person_the_walks() {
    let alone = Crew { alone: true, ..PAIR };
    let costs = Costs { misread: 0.0, ..Costs::default() };
    for seed in 1..4 {
        let house = house(seed);
        let minutes = |crew| {
            let played = play(&Game::from(&house), crew, costs, (Strategy::LampAndHelper, World::CALM), seed, &mut || 0.0);
            assert_eq!((played.wrong_proofs, played.must_stay_on_violations, played.clock_overrun_min), (0, 0, 0.0));
            (played.minutes, played.proven)
        };
        let (by_eye, by_ear) = (minutes(alone), minutes(Crew { radio: true, ..alone }));
        assert!(by_ear.0 < by_eye.0 && by_ear.1 == by_eye.1, "{by_ear:?} {by_eye:?}");
        assert_eq!(minutes(PAIR), minutes(Crew { radio: true, ..PAIR }), "two need no radio");
    }
}

#[test]
fn by_ear_the_radio_stays_at_its_point_until_its_breaker_is_found() {
    let mut w = home_with("receptacle");
    for n in 0..8 {
        w.act(&format!("lit p{n}")).unwrap();
    }
    let way = crate::model::TraceSetup { alone: true, radio: true, ..Method::LampAndHelper.into() };
    let mut at: Option<crate::model::PointId> = None;
    for round in 0..3 {
        let NextStep::SwitchTo { off, on, why } = trace_view(&w.home, way).next else { panic!("round {round}") };
        assert_eq!(why.starts_with("First plug the radio in at"), round == 0, "{why}");
        for (act, breakers) in [("on", on), ("off", off)] {
            for breaker in breakers {
                let number = w.home.panels().number(&breaker);
                w.act(&format!("{act} {number}")).unwrap();
            }
        }
        let NextStep::LookUnder { rooms, left, why, .. } = trace_view(&w.home, way).next else { panic!("round {round}") };
        assert!(left == 1 && why.contains("Stay at the panel and listen"), "{why}");
        let point = rooms[0].points[0].point.clone();
        assert_eq!(at.get_or_insert(point.clone()), &point, "the radio is not carried on before it has told");
        w.act(&format!("lit {point}")).unwrap();
    }
}

#[test]
fn what_may_be_dark_only_so_long_is_asked_on_before_its_clock_runs_out() {
    for clock in [false, true] {
        let mut w = home();
        if clock {
            w.act("dark-at-most p0 2").unwrap();
        }
        for n in 0..8 {
            w.act(&format!("lit p{n}")).unwrap();
        }
        w.act("off 1").unwrap();
        // A second a line: nearly a minute and a half passes with 1 off, which may feed p0.
        for _ in 0..85 {
            w.act("lit p7").unwrap();
        }
        let on_again = match view(&w).next {
            NextStep::LookUnder { .. } => false,
            NextStep::SwitchTo { on, .. } | NextStep::SwitchOn { breakers: on, .. } => {
                on.iter().map(|b| w.home.panels().number(b)).collect::<Vec<_>>() == ["1"]
            }
            other => panic!("{other:?}"),
        };
        assert_eq!(on_again, clock);
    }
}

#[test]
fn an_old_card_is_believed_less_after_looks_that_it_did_not_foretell_and_more_after_those_it_did() {
    let label = |room| OldLabel::Room { room, class: PointClass::Receptacle, name: String::new() };
    let case = small(vec![label(0), label(1), OldLabel::Blank]);
    let trust = |dark: bool| {
        let mut weigh = Weigh::new(&case, false);
        let before = weigh.belief().card_trust();
        weigh.switched(OffSet::one(0));
        for point in [0, 1] {
            weigh.saw(&case, point, dark, Way::Anew, false, 0);
            weigh.infer(&case);
        }
        weigh.belief().card_trust() - before
    };
    assert!(trust(false) < -0.005, "lit with the breaker off that is said to feed them: {}", trust(false));
    assert!(trust(true) > 0.0, "{}", trust(true));
    // A card that says nothing is neither right nor wrong.
    let blank = small(vec![OldLabel::Blank; 3]);
    let mut weigh = Weigh::new(&blank, false);
    let before = weigh.belief().card_trust();
    weigh.switched(OffSet::one(0));
    weigh.saw(&blank, 0, false, Way::Anew, false, 0);
    assert!((weigh.belief().card_trust() - before).abs() < 1e-9);
}

#[test]
fn a_card_that_says_where_and_what_of_everything_may_be_right_throughout_until_one_label_is_wrong() {
    let label = |room, class| OldLabel::Room { room, class, name: String::new() };
    let full = small(vec![label(0, PointClass::Receptacle), label(1, PointClass::Receptacle), OldLabel::Spare]);
    let mut belief = Belief::new(&full, false);
    let first = belief.card_whole();
    assert!((first - 0.5).abs() < 1e-9, "even odds before anything is proven: {first}");
    belief.prove(0, 0);
    let right = belief.card_whole();
    assert!(right > first);
    belief.prove(2, 1);
    assert!(belief.card_whole() < 0.05, "a light in the other room: {}", belief.card_whole());
    for vague in [OldLabel::Blank, OldLabel::Kind { class: PointClass::Receptacle }, OldLabel::Place { room: 1 }] {
        let loose = small(vec![label(0, PointClass::Receptacle), vague, OldLabel::Spare]);
        assert!(Belief::new(&loose, false).card_whole() < 0.1);
    }
}

#[test]
fn where_rooms_tell_nothing_half_is_switched_off_and_what_has_a_clock_is_never_dark_too_long() {
    let mut house = house(3);
    for (n, point) in house.points.iter_mut().enumerate() {
        // Fifteen receptacles a room, as if one breaker fed them, and none beside its own kind.
        (point.room, point.kind) = (n % 2, PointClass::Receptacle);
        point.breaker = n * 5 % 12;
        point.burnt_out = false;
    }
    let case = house.case();
    let clocked = case.points.iter().position(|p| p.max_dark_s.is_some()).unwrap();
    let (mut halves, mut dark_since): (usize, Option<f64>) = (0, None);
    let mut search = Search::new(&case, PAIR, Costs::default());
    for _ in 0..400 {
        let Act::Look { off, room, points } = search.next_act() else { break };
        halves += usize::from(search.in_binary && off.len() >= 4);
        search.switched(off);
        search.went(Place::Room(room));
        for p in points {
            search.saw(p, off.has(house.points[p].breaker));
            search.passed(8.0);
        }
        search.passed(10.0);
        let now = search.now_s;
        let since = *dark_since.get_or_insert(now);
        if off.has(house.points[clocked].breaker) {
            assert!(now - since <= case.points[clocked].max_dark_s.unwrap(), "dark for {} s", now - since);
        } else {
            dark_since = None;
        }
    }
    assert!(halves > 0, "no round with half of them off");
}
