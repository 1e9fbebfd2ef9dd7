//! The steps that every job shares: making ready, switching off, proving dead, closing up, switching on.

use indexmap::IndexSet;

use super::steps::{Effect, Reading, Stage, Step, Steps, Want, dead, reading, torque};
use crate::model::{JobFound, MainAt, Panel, Service};
use crate::study::Study;

/// What switches a panel off, and what stays live in it then.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct SwitchedOff {
    /// `the main`, `the feeder breaker 5-7 in Main panel`.
    pub(crate) by: String,
    /// What stays live, as the red band says it.
    pub(crate) live: String,
}

/// What switches the panel off; or why no sheet is made for it.
pub(crate) fn switched_off(home: &Study, panel: &Panel) -> Result<SwitchedOff, String> {
    let mut off = main_or_feeder(home, panel)?;
    for breaker in home.panels().breakers_of(&panel.id) {
        if let Some(source) = breaker.details.brings_in {
            off.live.push_str(&format!(
                " And the wires on {}, until what comes in there is off itself: {}.",
                breaker.number(),
                source.word()
            ));
        }
    }
    Ok(off)
}

fn main_or_feeder(home: &Study, panel: &Panel) -> Result<SwitchedOff, String> {
    let details = &panel.details;
    let back_fed = home.panels().breakers_of(&panel.id).find(|breaker| breaker.details.back_fed_main);
    let feeder = details.fed_by.as_ref().and_then(|id| home.panels().breaker(id));
    let main = "the main".to_owned();
    if let Some(feeder) = feeder {
        let above = home.panels().panel(&feeder.panel).map_or("the panel that feeds it", |above| above.name.as_str());
        return Ok(SwitchedOff {
            by: format!("the feeder breaker {} in {above}", home.panels().number(&feeder.id)),
            live: format!("all of {above}. In here nothing should be, once the feeder is off: prove it."),
        });
    }
    if let Some(back_fed) = back_fed {
        return Ok(SwitchedOff {
            by: main,
            live: format!(
                "the wires on {} and its terminals, main off or not. Only what feeds the panel can switch them off.",
                back_fed.number()
            ),
        });
    }
    match details.main_at {
        MainAt::Outside | MainAt::Beside => Ok(SwitchedOff {
            by: "the disconnect before the panel".into(),
            live: "the meter and the wires up to the disconnect. In here nothing should be, once it is off: prove it.".into(),
        }),
        _ if panel.main.is_some() => Ok(SwitchedOff {
            by: main,
            live: "the lugs at the top and the wires from the meter, main off or not. Only the utility can switch them off."
                .into(),
        }),
        _ => Err(format!(
            "What switches “{}” off is not known: read its main, or say which breaker feeds it. Where there is neither, call an electrician.",
            panel.name
        )),
    }
}

const HURTS: &str = "Work in a panel is for qualified people. Where you are not sure, stop and call an electrician.";

/// Before anything is switched.
pub(crate) fn make_ready(steps: &mut Steps, home: &Study, panel: &Panel) {
    steps
        .tick(Stage::Ready, "permit", "A permit is asked for where the local code wants one.")
        .words("Read what it says of this work. Some places leave it to licensed people.")
        .caution(HURTS);
    let kept: Vec<String> = home
        .panels()
        .breakers_of(&panel.id)
        .filter(|breaker| breaker.must_stay_on())
        .map(|breaker| {
            let why = breaker.kept.as_ref().map_or("", |(_, why)| why.as_str());
            let number = home.panels().number(&breaker.id);
            if why.is_empty() { number } else { format!("{number} ({why})") }
        })
        .collect();
    let told = match kept.as_slice() {
        [] => "A freezer, a pump, a medical device, somebody at work.".to_owned(),
        _ => format!("These have to stay on: {}. See first that they may be off as long as this takes.", kept.join(", ")),
    };
    steps.tick(Stage::Ready, "told", "Whoever depends on the power is told.").words(told);
    steps
        .tick(Stage::Ready, "yourself", "A second person is in the house, and knows how to switch off and whom to call.")
        .words("No jewelry. Eye protection, a dry floor, rated gloves; a meter of CAT III 600 V with fused leads.");
    steps
        .choice(
            Stage::Ready,
            "sources",
            "Can anything else feed this panel: a generator, a battery, solar, a UPS?",
            &[
                ("none", "there is none", None),
                ("off", "each is off and locked", None),
                ("on", "one cannot be switched off", Some(JobFound::SecondFeed)),
            ],
        )
        .words(sources(panel))
        .does(Effect::SourcesOff);
}

fn sources(panel: &Panel) -> String {
    match &panel.details.sources {
        Some(sources) if !sources.is_empty() => {
            let named: Vec<&str> = sources.iter().map(|source| source.word()).collect();
            format!(
                "Recorded here: {}. A standby generator starts by itself when the main opens: put it to OFF.",
                named.join(", ")
            )
        }
        _ => "A standby generator starts by itself when the main opens.".into(),
    }
}

/// Switches the panel off, opens it and proves it dead.
pub(crate) fn switch_off(steps: &mut Steps, home: &Study, panel: &Panel, off: &SwitchedOff) {
    steps.tick(Stage::Dead, "loads", "Big loads are off, computers shut down.").at_the_point();
    let last: Vec<String> =
        home.panels().breakers_of(&panel.id).filter(|b| b.must_stay_on()).map(|b| home.panels().number(&b.id)).collect();
    let last = if last.is_empty() { String::new() } else { format!(" {} last.", last.join(", ")) };
    steps.tick(Stage::Dead, "branches", "Branch breakers off, one by one.").words(format!("Stand aside, face away.{last}"));
    steps
        .choice(
            Stage::Dead,
            "main-off",
            format!("Switch off {}, lock it, tag it.", off.by),
            &[
                ("off", "it is off, and stays off", None),
                ("stuck", "it does not move, or does not stay off", Some(JobFound::MainStuck)),
            ],
        )
        .words("Stand aside, face away, one hand.")
        .does(Effect::MainOff);
    steps
        .tick(Stage::Dead, "cover-off", "Take the cover off.")
        .words("Hold it while the last screw comes out, and pull it straight toward you.")
        .caution("What the red band names stays live. Keep hands and tools away from it for as long as the cover is off.")
        .does(Effect::CoverOff);
    steps
        .choice(
            Stage::Dead,
            "look",
            "Look, and smell: is anything wrong in there?",
            &[
                ("nothing", "nothing of this", None),
                ("burnt", "heat, burn marks or a smell", Some(JobFound::Burnt)),
                ("water", "water or rust", Some(JobFound::Water)),
                ("aluminum", "aluminum wire on a branch breaker", Some(JobFound::Aluminum)),
                ("old", "cloth, knob-and-tube or brittle wire", Some(JobFound::OldWire)),
            ],
        )
        .words("Touch nothing yet.")
        .does(Effect::LookedAt);
    prove_dead(steps, panel);
    steps
        .tick(Stage::Dead, "photo", "Photograph the open panel and the label.")
        .words("Tag every wire that will move with its number, hot and neutral together.");
}

fn prove_dead(steps: &mut Steps, panel: &Panel) {
    let hots: &[&str] = match panel.service {
        Service::ThreePhase | Service::HighLeg => &["A", "B", "C"],
        Service::OneLeg120 => &["A"],
        Service::SplitPhase | Service::TwoLegs208 => &["A", "B"],
    };
    let where_ = |name: &str| match name {
        "neutral" => "the neutral bar".to_owned(),
        "ground" => "the ground bar or the bare metal of the box".to_owned(),
        leg => format!("the bare bus of leg {leg}"),
    };
    let readings = dead(hots, true, |one, other| format!("One probe on {}, the other on {}.", where_(one), where_(other)));
    steps
        .readings(Stage::Dead, "dead", "Prove it dead.", readings)
        .words(
            "On the bus itself: the screw of a breaker that is off reads 0 V while the bus is live. With one meter, in this order; anything \
             between live and dead stops the job.",
        )
        .caution("It counts as live until every reading is in. A non-contact tester proves nothing.")
        .does(Effect::ProvenDead);
}

/// Torque and pull of the wires at a place, of these circuits by their numbers before the job.
pub(crate) fn tighten(steps: &mut Steps, at: &str, circuits: &[&str], label: Option<f64>) {
    let read = label.map_or_else(
        || "Read it on the breaker or the panel’s label: there is no usual figure.".to_owned(),
        |torque| format!("Its label is recorded with {torque} in-lb: read it once more."),
    );
    let step = steps
        .readings(
            Stage::Fit,
            &format!("torque-{at}"),
            format!("Tighten {at} to the torque of the label."),
            vec![torque("the label")],
        )
        .words(format!("{read} No insulation under the clamp."))
        .or_else("not-read", "the label gives none");
    step.effects.extend(circuits.iter().map(|circuit| Effect::Tightened((*circuit).to_owned())));
    let pull = steps.tick(Stage::Fit, &format!("pull-{at}"), format!("Pull at each wire of {at}: it holds."));
    pull.effects.extend(circuits.iter().map(|circuit| Effect::Pulled((*circuit).to_owned())));
}

/// Fillers, cover.
pub(crate) fn close(steps: &mut Steps) {
    steps
        .tick(Stage::Close, "fillers", "No open space is without a filler, no knock-out open.")
        .words("No wire is pinched, no tool left inside.")
        .does(Effect::Filled);
    steps.tick(Stage::Close, "cover-on", "Put the cover on.").words("Blunt screws.").does(Effect::CoverOn);
}

/// Power up, all that was not worked on.
pub(crate) fn power_up(steps: &mut Steps, home: &Study, panel: &Panel, off: &SwitchedOff, worked_on: &IndexSet<String>) {
    steps
        .tick(Stage::Test, "main-on", format!("Switch {} on, every branch breaker off.", off.by))
        .words("Stand aside, face away, one hand.")
        .does(Effect::MainOn);
    let stay: Vec<String> = home
        .panels()
        .breakers_of(&panel.id)
        .filter(|breaker| breaker.is_left_off() || breaker.state != crate::model::State::On)
        .map(|breaker| home.panels().number(&breaker.id))
        .filter(|number| !worked_on.contains(number))
        .collect();
    let not: Vec<String> = worked_on.iter().cloned().chain(stay).collect();
    let but = if not.is_empty() { String::new() } else { format!(" Not yet, or not at all: {}.", not.join(", ")) };
    steps
        .tick(Stage::Test, "others-on", "Switch the other branch breakers on, one by one.")
        .words(format!("One that trips stays off.{but}"))
        .does(Effect::On("the others".into()));
}

/// A circuit is switched on. `circuit`: by its number before the job.
pub(crate) fn switch_on(steps: &mut Steps, number: &str, circuit: &str) {
    steps
        .choice(
            Stage::Test,
            &format!("on-{number}"),
            format!("Switch {number} on."),
            &[("holds", "it holds", None), ("trips", "it trips", Some(JobFound::TripsAgain))],
        )
        .words("Stand aside, face away. If it trips, leave it off.")
        .does(Effect::On(circuit.to_owned()));
}

/// A circuit that was worked on: on, and read at its outlet. `circuit`: by its number before the job.
pub(crate) fn test_circuit<'a>(
    steps: &'a mut Steps,
    number: &str,
    circuit: &str,
    at: &str,
    readings: Vec<Reading>,
) -> &'a mut Step {
    switch_on(steps, number, circuit);
    steps
        .readings(Stage::Test, &format!("test-{number}"), format!("Read {number} {at}."), readings)
        .at_the_point()
        .does(Effect::Tested(circuit.to_owned()))
}

/// What may be said of a circuit that has lights alone, or an appliance without a plug.
pub(crate) fn or_runs(step: &mut Step) {
    step.or_else("runs", "there is no outlet to read: all that is on it works as it should");
}

/// At an outlet of 120 V.
pub(crate) fn outlet_120() -> Vec<Reading> {
    vec![
        reading("hot-neutral", "hot to neutral", "The narrow slot and the wide one.", Want::Single),
        reading("hot-ground", "hot to ground", "The narrow slot and the round hole.", Want::Single),
        reading("neutral-ground", "neutral to ground", "The wide slot and the round hole, with a load on.", Want::NeutralGround),
    ]
}

/// At an outlet of 240 V.
pub(crate) fn outlet_240(between: u16, neutral: bool) -> Vec<Reading> {
    let mut all = vec![
        reading("hot-hot", "hot to hot", "Both hots.", Want::Double(between)),
        reading("hot-1-ground", "first hot to ground", "One hot and ground.", Want::Single),
        reading("hot-2-ground", "second hot to ground", "The other hot and ground.", Want::Single),
    ];
    if neutral {
        all.push(reading("hot-1-neutral", "first hot to neutral", "One hot and neutral.", Want::Single));
        all.push(reading("hot-2-neutral", "second hot to neutral", "The other hot and neutral.", Want::Single));
    }
    all
}

/// The test button of what protects people.
pub(crate) fn test_button(steps: &mut Steps, number: &str) {
    steps
        .choice(
            Stage::Test,
            &format!("button-{number}"),
            format!("Press the test button of {number}: it trips. Then push it off and on again."),
            &[("trips", "it trips, and comes back", None), ("not", "it does not", Some(JobFound::NotAsSaid))],
        )
        .words("If it trips by itself later: look at the load first, then at the neutral, then at the breaker.");
}

pub(crate) fn card(steps: &mut Steps) {
    steps
        .tick(Stage::Test, "card", "Finish here: the record follows. Print the card again and put it on the door.")
        .does(Effect::Card);
}

/// What hangs on a breaker goes off and comes back with it, twice, found anew the second time: by that it is proven.
pub(crate) fn goes_with<'a>(steps: &'a mut Steps, number: &str, what: &str, words: &str) -> &'a mut Step {
    let choices = [("yes", "it does, all of it", None), ("not", "it does not, or not all", Some(JobFound::NotAsSaid))];
    steps
        .choice(
            Stage::Test,
            &format!("with-{number}"),
            format!("Switch {number} off and on: does {what} go off and come back with it?"),
            &choices,
        )
        .words(words)
        .at_the_point();
    steps
        .choice(Stage::Test, &format!("again-{number}"), format!("Once more with {number}, found anew."), &choices)
        .words("Leave the room, find it again by its name, and look as it goes off. A wrong outlet that is looked at twice fools whoever stays before it.")
        .at_the_point()
}
