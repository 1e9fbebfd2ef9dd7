//! Jobs from the first step to the record that follows. Homes are invented; what has to be read and in which order is trade.md, common
//! practice.

use std::collections::BTreeSet;

use super::walked::{goes_on, id, sheet, take};
use wayfinder_core::work::{JobAsk, JobSheet, JobStands, job_sheet, jobs};
use wayfinder_core::{
    Fact, JobAnswer, JobAnswered, JobFound, Moment, PointId, Printed, Severity, Slot, State, Study, Verdict, Volts, card,
    findings, verdict,
};
use wayfinder_fixture::{Written, written};

const HOME: &str = "
    panel 12
    main is main 100 A, bus 100 A, listed for 24
    1 20 #12 hall
    3 15 #14 porch
    2-4 30/2 #10 dryer
    5 15 #14 lights
    7 15 #14 loft
    9 20 #12 bench
    6 20 #12 spare
    room Hall
    room Shop
    room Loft
    point Hall receptacle wall
    point Hall light ceiling
    point Loft light lamp
    point Shop receptacle bench
    proof wall 1
    proof ceiling 5
    proof lamp 7
    proof bench 9";

fn begun(job: &str) -> Written {
    let mut home = written(HOME);
    home.act(&format!("job j1 {job}")).unwrap();
    home
}

fn at(text: &str) -> Vec<Slot> {
    text.split('-').map(|slot| slot.parse().unwrap()).collect()
}

/// Walks the sheet to its end and writes what follows.
fn walked(job: &str) -> Written {
    let mut home = begun(job);
    while goes_on(&mut home) {}
    let sheet = sheet(&home);
    assert_eq!(sheet.stands, JobStands::Ready, "{job}: {:?} {:?}", sheet.stop, sheet.refused);
    take(&mut home, sheet.ends.unwrap());
    home
}

fn proven_on(home: &Study, point: &str) -> Option<String> {
    let point: PointId = point.parse().unwrap();
    match verdict(home, &point) {
        Verdict::Proven { breaker, .. } => Some(home.panels().number(&breaker)),
        other => {
            println!("{point}: {other:?} {:#?}", wayfinder_core::evidence(home, &point).unwrap().stories);
            None
        }
    }
}

fn grave(home: &Study) -> BTreeSet<String> {
    let counts = |one: &&wayfinder_core::Finding| one.severity != Severity::Planned && !one.code.starts_with("directory");
    findings(home).iter().filter(counts).map(|one| one.key.clone()).collect()
}

#[test]
fn the_panel_the_points_and_the_card_follow_a_job_and_one_stroke_takes_it_back() {
    for (job, numbers) in [
        ("main: move 3 10", vec!["1", "10", "2-4", "5", "6", "7", "9"]),
        ("main: join 5 7", vec!["1", "2-4", "3", "6", "7", "9"]),
        ("main: tap 5 7", vec!["1", "2-4", "3", "6", "7", "9"]),
        ("main: move 5 8a; move 7 8b", vec!["1", "2-4", "3", "6", "8a", "8b", "9"]),
        ("main: new 10-12 40 kiln in shop", vec!["1", "10-12", "2-4", "3", "5", "6", "7", "9"]),
        ("main: two-pole 9 8-10 20", vec!["1", "2-4", "3", "5", "6", "7", "8-10"]),
        ("main: take-out 6", vec!["1", "2-4", "3", "5", "7", "9"]),
        ("main: move 1 3; move 3 1", vec!["1", "2-4", "3", "5", "6", "7", "9"]),
        ("main: tighten 1; fill 12", vec!["1", "2-4", "3", "5", "6", "7", "9"]),
        ("main by An electrician: move 3 10", vec!["1", "10", "2-4", "5", "6", "7", "9"]),
    ] {
        let before = begun(job);
        let home = walked(job);
        let now: BTreeSet<String> = home.home.panels().breakers().map(|b| b.number()).collect();
        assert_eq!(now, numbers.iter().map(|n| (*n).to_owned()).collect(), "{job}");
        let cells: BTreeSet<String> = card(&home.home, &"main".parse().unwrap(), Printed::default())
            .unwrap()
            .cells
            .iter()
            .map(|c| c.number.clone())
            .collect();
        assert!(numbers.iter().all(|number| cells.contains(*number)), "{job}: the card {cells:?}");
        assert_eq!(sheet(&home).stands, JobStands::Done, "{job}");
        assert!(grave(&home.home).is_subset(&grave(&before.home)), "{job}: {:?}", grave(&home.home));
        // One line, struck out.
        let mut home = home;
        let last = home.book.seq();
        home.act(&format!("strike {last}")).unwrap();
        let names = |home: &Study| home.panels().breakers().map(|b| (b.id.clone(), b.at.clone())).collect::<BTreeSet<_>>();
        assert_eq!(names(&home.home), names(&before.home), "{job}");
        assert_eq!(proven_on(&home.home, "ceiling"), Some("5".into()), "{job}");
    }
}

#[test]
fn points_hang_where_the_sheet_has_shown_it() {
    let home = walked("main: join 5 7").home;
    assert_eq!(proven_on(&home, "ceiling").as_deref(), Some("7"), "seen to go off and on with 7");
    assert_eq!(proven_on(&home, "lamp").as_deref(), Some("7"));
    let home = walked("main: two-pole 9 8-10 20").home;
    let bench = home.house().point(&"bench".parse().unwrap()).unwrap();
    assert_eq!((bench.volts, bench.configuration.map(|face| face.name()), bench.only_one), (Volts::new(240), Some("6-20"), true));
    assert_eq!(proven_on(&home, "bench").as_deref(), Some("8-10"));
    let home = walked("main: new 10-12 40 kiln in shop").home;
    assert_eq!(proven_on(&home, "kiln").as_deref(), Some("10-12"));
    let again = walked("main: move 3 10");
    assert_eq!(again.home.panels().filler(&"main".parse().unwrap(), at("3")[0]), Some(true));
    // What an electrician did nobody has walked: the trace asks for it.
    let home = walked("main by An electrician: join 5 7").home;
    assert_eq!(proven_on(&home, "ceiling"), None);
}

#[test]
fn the_torque_that_was_read_is_kept_and_what_the_label_does_not_give_is_left_open() {
    let torque = |home: &Study, number: &str| {
        home.panels().breakers().find(|b| b.number() == number).unwrap().details.terminal.torque_inlb
    };
    assert_eq!(torque(&walked("main: move 3 10").home, "10"), Some(25.0));
    let mut home = begun("main: tighten 1");
    until(&mut home, "torque-1");
    home.act("answer j1 torque-1 = not-read").unwrap();
    while goes_on(&mut home) {}
    let ends = sheet(&home).ends.unwrap();
    take(&mut home, ends);
    assert_eq!(torque(&home.home, "1"), None);
}

/// Brings a job to a step.
fn until(home: &mut Written, step: &str) {
    while sheet(home).next.is_none_or(|next| sheet(home).steps[next].step != step) {
        assert!(goes_on(home), "{step} never comes");
    }
}

#[test]
fn a_bad_reading_stops_the_job_and_all_are_taken_anew() {
    let mut home = begun("main: replace 1 20");
    until(&mut home, "dead");
    home.acts("answer j1 dead live 121\nanswer j1 dead a-neutral 47");
    let stopped = sheet(&home);
    assert_eq!(stopped.stands, JobStands::Stopped);
    let stop = stopped.stop.clone().unwrap();
    assert_eq!((stop.found, stop.step.as_deref()), (JobFound::Wanders, Some("dead")));
    assert!(stopped.left_as.iter().any(|line| line.contains("stays off until an electrician")), "{:?}", stopped.left_as);
    assert!(!stopped.left_as.iter().any(|line| line.contains("may be switched on")), "{:?}", stopped.left_as);
    assert!(stop.title.contains("neither dead nor live") && stop.call.contains("electrician"), "{stop:?}");
    assert!(!goes_on(&mut home), "nothing else is asked for");
    // Later readings do not go round it.
    home.acts("answer j1 dead b-neutral 0.1\nanswer j1 dead live-again 121");
    assert_eq!(sheet(&home).stands, JobStands::Stopped);
    home.act("answer j1 dead anew").unwrap();
    let again = sheet(&home);
    assert_eq!(again.stands, JobStands::Open);
    let JobAsk::Readings { readings, .. } = &again.steps[again.next.unwrap()].ask else { panic!() };
    assert!(readings.iter().all(|one| one.value.is_none()), "from the live source on");
    // A meter that fails at the end proves nothing.
    for (reading, value) in [
        ("live", 121.0),
        ("a-neutral", 0.1),
        ("b-neutral", 0.1),
        ("a-b", 0.0),
        ("a-ground", 0.0),
        ("b-ground", 0.0),
        ("neutral-ground", 0.0),
        ("live-again", 4.0),
    ] {
        home.act(&format!("answer j1 dead {reading} {value}")).unwrap();
    }
    assert_eq!(sheet(&home).stands, JobStands::Stopped);
}

#[test]
fn what_is_found_on_the_way_stops_the_job_names_whom_to_call_and_is_a_finding() {
    let mut home = begun("main: replace 1 20");
    until(&mut home, "look");
    home.act("answer j1 look = burnt").unwrap();
    let stop = sheet(&home).stop.unwrap();
    assert_eq!(stop.found, JobFound::Burnt);
    home.act("answer j1 look = nothing").unwrap();
    assert_eq!(sheet(&home).stands, JobStands::Open, "a slip is put right");
    let mut home = begun("main: replace 1 20");
    until(&mut home, "lift-1");
    home.act("stop-job j1 aluminum behind 1").unwrap();
    let stopped = sheet(&home);
    assert_eq!(stopped.stands, JobStands::Stopped);
    assert!(stopped.stop.unwrap().title.contains("aluminum branch wire. behind 1"));
    assert!(findings(&home.home).iter().any(|one| one.code == "found-on-a-job" && one.message.contains("aluminum")));
    let ends = format!("end-job j1 {}", serde_json::json!([]));
    assert!(home.act(&ends).unwrap_err().wrong.contains("stopped"), "it cannot be finished");
}

#[test]
fn a_sheet_says_what_state_the_panel_is_in() {
    let mut home = begun("main: replace 1 20");
    assert_eq!(sheet(&home).left_as, Vec::<String>::new());
    until(&mut home, "in-1");
    let left = sheet(&home).left_as;
    assert!(left[0].starts_with("Off and locked: the main"), "{left:?}");
    assert!(left.iter().any(|line| line.contains("Wires on no terminal: 1")), "{left:?}");
    assert!(left.iter().any(|line| line.contains("1 stays off")), "{left:?}");
    until(&mut home, "pull-1");
    assert!(sheet(&home).left_as.iter().any(|line| line.contains("Not tightened and pulled at yet: 1")));
    until(&mut home, "test-1");
    assert_eq!(sheet(&home).left_as, ["Not read yet: 1. Off until then."]);
}

#[test]
fn after_a_long_break_it_is_proven_dead_again() {
    let mut home = begun("main: replace 1 20");
    until(&mut home, "out-1");
    let last = home.book.lines().next_back().unwrap().entry.at.unix_ms();
    let asked = |hours: f64| job_sheet(&home.home, &id(), Moment::from_unix_ms(last + (hours * 3_600_000.0) as i64)).unwrap();
    let step = |sheet: &JobSheet| sheet.steps[sheet.next.unwrap()].step.clone();
    assert_eq!(step(&asked(1.9)), "out-1");
    let later = asked(2.1);
    assert_eq!(step(&later), "dead");
    assert!(later.left_as.iter().any(|line| line.contains("two hours")), "{:?}", later.left_as);
    let JobAsk::Readings { readings, .. } = &later.steps[later.next.unwrap()].ask else { panic!() };
    assert!(readings.iter().all(|one| one.value.is_none()));
    // One new reading is not all of them: those of before the break are gone with it.
    let at = Moment::from_unix_ms(last + 3 * 3_600_000);
    let live = JobAnswer::Read { reading: "live".into(), value: 121.0 };
    home.fact_at(at, JobAnswered { job: id(), step: "dead".into(), answer: live }.into()).unwrap();
    let again = job_sheet(&home.home, &id(), at).unwrap();
    assert_eq!(step(&again), "dead");
    let JobAsk::Readings { readings, .. } = &again.steps[again.next.unwrap()].ask else { panic!() };
    assert_eq!(readings.iter().filter(|one| one.value.is_some()).count(), 1);
}

#[test]
fn jobs_are_listed_the_open_ones_first() {
    let mut home = walked("main: fill 12");
    home.acts("job j2 reset 3\njob j3 main: tighten 1\nleave-job j3 no time");
    let now = home.book.lines().next_back().unwrap().entry.at;
    let listed: Vec<(String, String)> = jobs(&home.home, now).into_iter().map(|job| (job.title, job.words)).collect();
    let expected = [("Reset 3", "step 1 of 4"), ("Tighten 1", "given up"), ("A filler in 12", "done")];
    assert_eq!(listed, expected.map(|(title, words)| (title.to_owned(), words.to_owned())));
}

#[test]
fn no_sheet_is_made_for_what_is_for_an_electrician() {
    for (acts, job, why) in [
        ("main is fuses", "main: replace 1 20", "Fuses are for an electrician"),
        ("main is split-bus", "main: replace 1 20", "A split bus is for an electrician"),
        ("set 1 {\"wire\": {\"gauge\": \"12\", \"metal\": \"aluminum\", \"cable\": \"nm\"}}", "main: replace 1 20", "aluminum"),
        ("must-stay-on 1", "main: join 1 5", "it must stay on"),
        ("set 5 {\"protection\": \"afci\"}", "main: join 5 7", "guards with AFCI"),
        ("set 5 {\"protection\": \"gfci\"}", "main: replace 5 15", "that would be lost"),
        ("with main {\"main\": null}", "main: replace 1 20", "What switches"),
        ("point Hall receptacle new", "point new receptacle", "trace it first"),
        ("label 1 hall", "main: replace 1 30", "larger breaker"),
        ("label 1 hall", "main: move 1 9", "does not fit"),
        ("set 5 {\"details\": {\"terminal\": {\"under\": 2, \"listed\": 2}}}", "main: move 5 8a", "half of a tandem takes one"),
        // Joined to a breaker that moves too, a wire would have two names on one sheet.
        ("label 1 hall", "main: move 5 12; join 7 5", "make two jobs of it"),
        // What would be a danger afterwards: both hots of a shared neutral in one space, and so on one leg.
        ("share 5 7", "main: move 5 8a; move 7 8b", "Afterwards this would be so"),
        (
            r#"fact {"kind": "point_placed", "point": "low", "room": "hall", "point_kind": "receptacle", "name": "low", "volts": 120, "details": {"half_of": "wall"}}"#,
            "point wall receptacle",
            "half of a receptacle",
        ),
        ("point Shop receptacle welder\nwelder is 240 V\nproof welder 2-4", "point welder receptacle", "Read the face"),
    ] {
        let mut home = written(HOME);
        home.acts(&format!("{acts}\njob j1 {job}"));
        let why_not = sheet(&home).refused.unwrap_or_default();
        assert!(why_not.contains(why), "{acts}, {job}: {why_not}");
        assert!(sheet(&home).ends.is_none(), "{acts}, {job}");
    }
}

/// The record may have a breaker as off that the sheet switches on at its end.
#[test]
fn a_breaker_that_was_off_in_the_record_is_on_after_its_job() {
    for (off, job, number) in
        [("5", "main: join 7 5", "5"), ("9", "main: two-pole 9 8-10 20", "8-10"), ("1", "main: replace 1 20", "1")]
    {
        let mut home = written(HOME);
        home.acts(&format!("off {off}\njob j1 {job}"));
        while goes_on(&mut home) {}
        let ends = sheet(&home).ends.unwrap_or_else(|| panic!("{job}: {:?}", sheet(&home).stop));
        take(&mut home, ends);
        let breaker = home.home.panels().breakers().find(|b| b.number() == number).unwrap();
        assert_eq!(breaker.state, State::On, "{job}");
    }
}

/// A circuit of lights has no outlet to read; a box may have no ground.
#[test]
fn what_cannot_be_read_is_said_and_not_made_up() {
    for (job, step) in [("main: join 5 7", "test-7"), ("point wall receptacle", "test")] {
        let mut home = begun(job);
        until(&mut home, step);
        let at = sheet(&home);
        let JobAsk::Readings { instead: Some(instead), .. } = &at.steps[at.next.unwrap()].ask else { panic!("{job}") };
        instead.facts.iter().for_each(|fact| take(&mut home, fact.clone()));
        assert_ne!(sheet(&home).next, at.next, "{job}");
    }
}

/// A note that is too long would keep a job from being stopped.
#[test]
fn every_choice_and_stop_of_every_step_is_taken_by_the_logbook() {
    for job in ["main: replace 1 20 gfci; join 5 7; new 10-12 40 kiln in shop", "point wall receptacle", "reset 3"] {
        let mut home = begun(job);
        loop {
            let at = sheet(&home);
            let Some(next) = at.next.filter(|_| at.stands == JobStands::Open) else { break };
            let facts: Vec<Vec<Fact>> = match &at.steps[next].ask {
                JobAsk::Tick { facts } => vec![facts.clone()],
                JobAsk::Choice { choices } => choices.iter().map(|one| one.facts.clone()).collect(),
                JobAsk::Readings { instead, unsettled, .. } => {
                    instead.iter().map(|one| one.facts.clone()).chain([unsettled.clone()]).collect()
                }
            };
            for facts in facts {
                let mut tried = Written::on(home.book.clone());
                facts.into_iter().for_each(|fact| take(&mut tried, fact));
            }
            goes_on(&mut home);
        }
    }
}

#[test]
fn a_reset_is_once_and_what_trips_again_stays_off() {
    let mut home = written(HOME);
    home.acts("tripped 3\njob j1 reset 3");
    while goes_on(&mut home) {}
    let ends = sheet(&home).ends.unwrap();
    take(&mut home, ends);
    let state = |home: &Study| home.panels().breakers().find(|b| b.number() == "3").unwrap().state;
    assert_eq!(state(&home.home), State::On);
    let mut home = written(HOME);
    home.acts("tripped 3\njob j1 reset 3");
    until(&mut home, "reset");
    home.act("answer j1 reset = at-once").unwrap();
    let sheet = sheet(&home);
    assert_eq!((sheet.stands, sheet.stop.unwrap().found), (JobStands::Stopped, JobFound::TripsAgain));
    assert_eq!(state(&home.home), State::Tripped);
}
