//! The steps of the jobs that open no live panel: a reset, work at a point, a new panel before it is put to use, what an electrician did.

use indexmap::IndexSet;

use super::gates::{
    card, close, make_ready, or_runs, outlet_120, outlet_240, power_up, switch_off, switch_on, switched_off, test_circuit,
    tighten,
};
use super::panel_fit::new_at;
use super::steps::{Effect, Stage, Steps, Want, dead, reading, torque};
use crate::model::{BreakerId, Configuration, JobFound, JobMove, Kept, Panel, Point, PointId, PointWork, Volts};
use crate::study::Study;
use crate::trace::{Verdict, on_breaker, verdict};

/// Names of points, at most so many.
fn named(home: &Study, points: &[PointId], most: usize) -> String {
    let name = |id: &PointId| {
        home.house()
            .point(id)
            .map_or_else(String::new, |point| format!("{}, {}", home.house().room_name(&point.room), point.name))
    };
    let mut names: Vec<String> = points.iter().take(most).map(name).collect();
    if points.len() > most {
        names.push(format!("{} more", points.len() - most));
    }
    names.join("; ")
}

/// A breaker that tripped: once.
pub(crate) fn reset_steps(home: &Study, breaker: &BreakerId) -> Result<(Steps, String), String> {
    let known = home.panels().breaker(breaker).ok_or("That breaker is not in the record any more.")?;
    if let Some((Kept::Off, why)) = &known.kept {
        return Err(format!(
            "{} is to be left off{}{why}.",
            home.panels().number(breaker),
            if why.is_empty() { "" } else { ": " }
        ));
    }
    let number = home.panels().number(breaker);
    let mut steps = Steps::default();
    steps
        .choice(
            Stage::Ready,
            "smell",
            "Is there a smell, heat, smoke, or water anywhere near: panel, outlets, what was running?",
            &[
                ("nothing", "nothing of this", None),
                ("burnt", "a smell, heat or burn marks", Some(JobFound::Burnt)),
                ("water", "water", Some(JobFound::Water)),
                ("shock", "somebody felt a shock", Some(JobFound::Shock)),
            ],
        )
        .words("Look before anything is switched.")
        .caution("With smoke or fire: leave, and call the fire service. Do not switch anything.");
    let on = on_breaker(home, breaker);
    let points = named(home, &on.proven, 8);
    let words = match (points.is_empty(), on.possible) {
        (true, _) => "The trace does not say yet what is on it: unplug whatever is dark.".to_owned(),
        (false, 0) => format!("On it: {points}."),
        (false, _) => format!("On it: {points}. More may be: whatever is dark."),
    };
    steps.tick(Stage::Ready, "unplug", format!("Unplug, or switch off, everything on {number}.")).words(words).at_the_point();
    steps
        .choice(
            Stage::Test,
            "reset",
            format!("Push {number} fully off, then on. Once."),
            &[
                ("holds", "it holds", None),
                ("at-once", "it trips at once", Some(JobFound::TripsAgain)),
                ("later", "it trips after a while, with nothing plugged in", Some(JobFound::TripsAgain)),
                ("loose", "it does not latch", Some(JobFound::NotAsSaid)),
            ],
        )
        .words("Stand aside, face away. At once with nothing plugged in: a short or a ground fault in the wiring. Never a second try, never a larger breaker.")
        .does(Effect::On(number.clone()));
    steps
        .choice(
            Stage::Test,
            "loads",
            "Plug things in again, one by one. What happens?",
            &[
                ("all", "all are on, and it holds", None),
                ("one", "it tripped as one of them came on: that one stays unplugged", Some(JobFound::TripsAgain)),
                ("sum", "it tripped when many ran together", None),
            ],
        )
        .words("Wait a minute between them. When many ran together it was an overload: something has to move to another circuit, or run at another time.")
        .at_the_point()
        .does(Effect::Tested(number));
    let live = "the whole panel. The cover stays on.".to_owned();
    Ok((steps, live))
}

/// A receptacle, switch or light.
pub(crate) fn point_steps(home: &Study, point: &PointId, work: PointWork) -> Result<(Steps, String), String> {
    let known = home.house().point(point).ok_or("That point is not in the record any more.")?;
    let name = format!("{}, {}", home.house().room_name(&known.room), known.name);
    let Verdict::Proven { breaker, .. } = verdict(home, point) else {
        return Err(format!("{name} is not proven yet: trace it first. Nobody opens a box of which the breaker is not known."));
    };
    // The halves of one receptacle on two breakers: one of them off leaves the box live.
    let is_half_of = |one: &Point, other: &PointId| one.details.half_of.as_ref() == Some(other);
    let mut halves = home.house().points().filter(|other| is_half_of(other, point) || is_half_of(known, &other.id));
    if halves.any(|half| verdict(home, &half.id).proven_on() != Some(&breaker)) {
        return Err(format!(
            "{name} is half of a receptacle whose other half is on another breaker, or not proven: that is for an electrician."
        ));
    }
    let number = home.panels().number(&breaker);
    let double = known.volts > Volts::new(120);
    let shared = home.panels().shared_neutral_of(&breaker).cloned();
    let mut steps = Steps::default();
    steps
        .tick(Stage::Ready, "yourself", "A second person is in the house, and knows how to switch off and whom to call.")
        .words("No jewelry, eye protection, a dry floor. Read what the local code leaves to licensed people.")
        .caution("Where you are not sure, stop and call an electrician.");
    let others: Vec<PointId> = on_breaker(home, &breaker).proven.iter().filter(|other| *other != point).cloned().collect();
    let dark = if others.is_empty() {
        "By the trace nothing else is on it.".to_owned()
    } else {
        format!("These go dark with it: {}.", named(home, &others, 8))
    };
    let kept = home.panels().breaker(&breaker).filter(|b| b.must_stay_on());
    let kept = kept.map_or_else(String::new, |b| {
        format!(" It has to stay on ({}): see first that it may be off.", b.kept.as_ref().map_or("", |(_, why)| why.as_str()))
    });
    steps.tick(Stage::Ready, "told", "Whoever depends on that circuit is told.").words(format!("{dark}{kept}"));
    let off = match shared.filter(|all| all.len() > 1) {
        Some(all) => {
            let all: Vec<String> = all.iter().map(|id| home.panels().number(id)).collect();
            format!("Switch off {} together, lock them, tag them: they share a neutral.", all.join(" and "))
        }
        None => format!("Switch {number} off, lock it, tag it."),
    };
    steps
        .choice(
            Stage::Dead,
            "circuit-off",
            off,
            &[("dark", "off, and it went dark", None), ("lit", "off, and it did not go dark", Some(JobFound::SecondFeed))],
        )
        .words(format!("Plug a lamp in, or switch it on, and look at {name} as it goes off."))
        .does(Effect::CircuitOff);
    steps
        .choice(
            Stage::Dead,
            "box-open",
            "Take the plate off and pull the device out by its ears. What is in the box?",
            &[
                ("fine", "copper in plastic, nothing scorched", None),
                ("burnt", "heat or burn marks", Some(JobFound::Burnt)),
                ("aluminum", "aluminum wire", Some(JobFound::Aluminum)),
                ("old", "cloth or brittle wire", Some(JobFound::OldWire)),
                ("water", "water or rust", Some(JobFound::Water)),
            ],
        )
        .words("Touch no metal yet.")
        .caution("It is proven for this point, not for its box: another circuit may be in it, and a neutral may be live.")
        .at_the_point()
        .does(Effect::BoxOpen)
        .does(Effect::LookedAt);
    // The box of a switch often has no neutral; a face of 240 V says whether there is one.
    let hots: &[&str] = match work {
        PointWork::Switch => &["feed", "switched wire"],
        _ if double => &["first hot", "second hot"],
        _ => &["hot"],
    };
    let has_neutral = |face: Configuration| ["10", "14", "L14"].contains(&face.name().split('-').next().unwrap_or_default());
    let neutral = match (work, double) {
        (PointWork::Switch, _) => false,
        (_, false) => true,
        (_, true) => known.configuration.is_some_and(has_neutral),
    };
    if double && known.configuration.is_none() && work == PointWork::Receptacle {
        return Err(format!("Read the face of {name} first: whether it has a neutral decides what is proven dead."));
    }
    let readings = dead(hots, neutral, |one, other| {
        format!("One probe on the {one}, the other on the {other}, at the screws of the device.")
    });
    steps
        .readings(Stage::Dead, "dead", "Prove it dead.", readings)
        .words(
            "With one meter, in this order; ground is the bare wire, or the metal of the box. Then the same between every other wire in the \
             box and ground.",
        )
        .caution("It counts as live until every reading is in. A non-contact tester proves nothing.")
        .at_the_point()
        .does(Effect::ProvenDead);
    steps
        .tick(Stage::Fit, "photo", "Photograph the wires, and tag them.")
        .words("With a receptacle: look whether the tab between its halves is broken out, and break it out of the new one too.")
        .at_the_point();
    steps
        .tick(Stage::Fit, "wires-off", format!("Take the wires off the old {}.", work.words()))
        .words("One at a time, each with its tag. What is spliced in the box stays spliced.")
        .at_the_point()
        .does(Effect::Lifted(number.clone()));
    let how = match work {
        PointWork::Receptacle if double => "Same face. Hots on brass, neutral on silver where there is one, ground on green.",
        PointWork::Receptacle => {
            "Hot on brass, neutral on silver, ground on green. 15 A on a circuit of 15, 15 or 20 A on one of 20; a GFCI or a tamper-resistant one where the place asks for it. With a GFCI: supply on LINE."
        }
        PointWork::Switch => {
            "The hot and what it switches, as they were; ground on green. Of a three-way, the odd screw takes the wire that it had."
        }
        PointWork::Light => "Black to black, white to white, ground to the metal. No more watts than it says; wire for its heat.",
    };
    steps
        .tick(Stage::Fit, "device", format!("Put the new {} in.", work.words()))
        .words(how)
        .at_the_point()
        .does(Effect::Landed(number.clone()));
    steps
        .readings(Stage::Fit, "torque", "Tighten its screws to what the device says.", vec![torque("the device")])
        .words("No insulation under a screw, no push-in holes where there are screws.")
        .or_else("not-read", "it says nothing")
        .at_the_point()
        .does(Effect::Tightened(number.clone()));
    steps.tick(Stage::Fit, "pull", "Pull at each wire: it holds.").at_the_point().does(Effect::Pulled(number.clone()));
    steps.tick(Stage::Close, "box-closed", "Fold the wires in, screw it down, plate on.").at_the_point().does(Effect::BoxClosed);
    switch_on(&mut steps, &number, &number);
    match work {
        PointWork::Receptacle => {
            let between = home
                .panels()
                .breaker(&breaker)
                .and_then(|b| home.panels().panel(&b.panel))
                .map_or(240, |p| p.service.volts_between_legs().value());
            let readings = if double { outlet_240(between, neutral) } else { outlet_120() };
            let step = steps
                .readings(Stage::Test, "test", "Read the new receptacle.", readings)
                .at_the_point()
                .does(Effect::Tested(number));
            if !double {
                // NEC 406.4(D)(2), from memory.
                step.or_else("no-ground", "there is no ground: a two-slot or a GFCI receptacle, marked so, and it works");
            }
        }
        PointWork::Switch | PointWork::Light => {
            steps
                .choice(
                    Stage::Test,
                    "test",
                    "Does it switch, from every switch of it?",
                    &[("works", "it does", None), ("not", "it does not", Some(JobFound::NotAsSaid))],
                )
                .words("A light: on and off. A three-way: both switches, in both positions of the other.")
                .at_the_point()
                .does(Effect::Tested(number));
        }
    }
    Ok((steps, "the panel, and every other circuit; another one may be in this box.".into()))
}

/// A new panel before it is put to use.
pub(crate) fn make_up_steps(home: &Study, panel: &Panel, closed: bool) -> Result<(Steps, String), String> {
    let mut steps = Steps::default();
    if !closed {
        steps
            .choice(
                Stage::Ready,
                "unfed",
                "Is nothing connected to its lugs?",
                &[("none", "nothing: no supply has come in yet", None), ("some", "something is", Some(JobFound::SecondFeed))],
            )
            .words("A panel that is fed is not made up by this sheet.")
            .caution("Where you are not sure, stop and call an electrician.");
        steps.tick(Stage::Ready, "permit", "The permit is given, and the inspector comes before the walls are closed.");
        for (key, title, words) in [
            (
                "knock-outs",
                "Knock-outs planned: what comes from above at the top, below at the bottom.",
                "No more cables to a clamp than it is listed for.",
            ),
            (
                "tags",
                "Each cable is tagged at both ends as it comes in: hot and neutral together, with what it is for.",
                "The tag is what the card is written from.",
            ),
            ("lengths", "Each wire is left long enough to reach the last space of either side.", "A breaker is moved one day."),
            (
                "grounds",
                "Grounds first: one to a screw, or as many as the bar’s label allows.",
                "In a sub-panel on a bar of their own, and no bond.",
            ),
            (
                "neutrals",
                "Then the neutrals: one to a screw, each beside its ground.",
                "A shared neutral is tagged with both of its hots.",
            ),
            (
                "hots",
                "Hots folded along the sides, marked, their ends covered.",
                "White wires that are hots are marked at both ends: any color but white, gray or green.",
            ),
            (
                "legs",
                "The circuits are spread over the legs: Loads says which goes where.",
                "Both hots of a shared neutral on different legs.",
            ),
            (
                "inspected",
                "The inspector has seen it before the walls are closed.",
                "Photograph everything: the walls hide it for good.",
            ),
        ] {
            steps.tick(Stage::Fit, key, title).words(words);
        }
        return Ok((
            steps,
            "nothing in here: no supply has come in yet. The panel that will feed it, and every other one, is.".into(),
        ));
    }
    let off = switched_off(home, panel)?;
    make_ready(&mut steps, home, panel);
    switch_off(&mut steps, home, panel, &off);
    let loose: Vec<Effect> =
        home.panels().breakers_of(&panel.id).map(|breaker| Effect::Lifted(new_at(&home.panels().number(&breaker.id)))).collect();
    steps
        .tick(Stage::Fit, "loose", "Every wire that goes to a breaker is there, tagged, and on none yet.")
        .words("One that has no tag is traced by continuity before it is landed.")
        .effects
        .extend(loose);
    let mut all: IndexSet<String> = IndexSet::new();
    for breaker in home.panels().breakers_of(&panel.id) {
        let number = home.panels().number(&breaker.id);
        steps
            .tick(
                Stage::Fit,
                &format!("in-{number}"),
                format!("{number} is in, its handle off, its wire landed as its tag says."),
            )
            .words("Only types that the label names.")
            .does(Effect::In(new_at(&number)))
            .does(Effect::Landed(new_at(&number)));
        tighten(&mut steps, &number, &[&new_at(&number)], breaker.details.terminal.torque_inlb);
        all.insert(number);
    }
    if all.is_empty() {
        return Err(format!("Enter the breakers of “{}” first: the sheet goes through them one by one.", panel.name));
    }
    steps
        .choice(
            Stage::Fit,
            "bars",
            "Neutrals and grounds are tightened, and stand as they should?",
            &[("yes", "yes", None), ("no", "no, or not sure", Some(JobFound::NotAsSaid))],
        )
        .words("At the service bonded, in a sub-panel apart. To the torque of the bar’s label.");
    close(&mut steps);
    power_up(&mut steps, home, panel, &off, &all);
    let between = panel.service.volts_between_legs().value();
    for breaker in home.panels().breakers_of(&panel.id) {
        let number = home.panels().number(&breaker.id);
        let readings = match breaker.poles() {
            1 => vec![
                reading("hot-neutral", "hot to neutral", "At one of its outlets.", Want::Single),
                reading("hot-ground", "hot to ground", "At the same outlet.", Want::Single),
            ],
            _ => vec![reading("hot-hot", "hot to hot", "At its outlet.", Want::Double(between))],
        };
        or_runs(test_circuit(&mut steps, &number, &new_at(&number), "at one of its outlets", readings));
    }
    card(&mut steps);
    Ok((steps, off.live))
}

/// What an electrician did: looked at, compared, recorded.
pub(crate) fn done_steps(home: &Study, panel: &Panel, moves: &[JobMove], who: &str) -> (Steps, String) {
    let mut steps = Steps::default();
    steps
        .tick(Stage::Ready, "told", format!("{who} has said what was done, or left a sheet."))
        .words("Keep the bill and the permit with the home’s papers.");
    let said = home.job_in_words(&crate::model::Job::Panel { panel: panel.id.clone(), moves: moves.to_vec() });
    steps
        .choice(
            Stage::Test,
            "compared",
            format!("Compare the panel, cover on, with this: {said}."),
            &[("so", "it is so", None), ("not", "it is not", Some(JobFound::NotAsSaid))],
        )
        .words("Handles, numbers, ratings, what is tied.");
    card(&mut steps);
    (steps, "the whole panel. The cover stays on.".into())
}
