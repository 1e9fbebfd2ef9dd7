//! How the power comes to the owner's own panel, place by place, and a few questions that ask it back: the first lesson.
//!
//! Everything is said by what is recorded of the panel; what nobody has read is said to be not read and is not asked. What stays live with
//! the main off, and where neutral and ground meet, is common practice: lugs ahead of the main are live, neutral and ground meet at the
//! service disconnect alone (NEC 250.24, 250.142, from memory). Volts and currents are arithmetic of the service.

use crate::model::{Bond, Breaker, BreakerId, Leg, MainAt, Panel, PanelId, Service, ServiceDisconnect, legs_of, listed, so_many};
use crate::study::Study;
use crate::trace::verdicts;

/// One place on the way of the power.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PowerPlace {
    /// `Meter`.
    pub name: String,
    /// What it is here, in sentences.
    pub words: String,
    /// Whether it is live with the main off; null where nobody has read enough.
    pub live: Option<bool>,
    /// The same in words; empty where nobody has read enough.
    pub stays: String,
}

/// A question about the panel.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PanelQuestion {
    /// The question.
    pub ask: String,
    /// What may be answered.
    pub choices: Vec<String>,
    /// Which of them is right, counted from 0.
    pub right: usize,
    /// Why.
    pub why: String,
}

/// A panel to be known.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct KnownPanel {
    /// The panel.
    pub panel: PanelId,
    /// What it is called.
    pub name: String,
    /// From the transformer to a point.
    pub road: Vec<PowerPlace>,
    /// What is asked back.
    pub questions: Vec<PanelQuestion>,
}

/// Every panel of the home, to be known.
pub fn know_panels(home: &Study) -> Vec<KnownPanel> {
    home.panels()
        .all()
        .map(|panel| KnownPanel {
            panel: panel.id.clone(),
            name: panel.name.clone(),
            road: road(home, panel),
            questions: questions(home, panel),
        })
        .collect()
}

fn place(name: &str, words: impl Into<String>, live: Option<bool>) -> PowerPlace {
    let stays = match live {
        Some(true) => "Live with the main off",
        Some(false) => {
            "Without power with the main off. What is to be touched is proven dead with a meter, tried before and after."
        }
        None => "",
    };
    PowerPlace { name: name.into(), words: words.into(), live, stays: stays.into() }
}

/// Volts between two hots of the panel.
const fn between(service: Service) -> &'static str {
    match service {
        Service::SplitPhase | Service::HighLeg => "240 V",
        Service::TwoLegs208 | Service::ThreePhase => "208 V",
        Service::OneLeg120 => "no second hot",
    }
}

fn comes_in(service: Service) -> &'static str {
    match service {
        Service::SplitPhase => "Two hot legs, A and B, and a neutral: 120 V from each leg to the neutral, 240 V between the two.",
        Service::TwoLegs208 => "Two hot legs of three, and a neutral: 120 V from each to the neutral, 208 V between the two.",
        Service::ThreePhase => "Three hot legs and a neutral: 120 V from each to the neutral, 208 V between any two.",
        Service::HighLeg => {
            "Three hot legs and a neutral, of which B is the high leg: 208 V to the neutral. Work on it is an electrician's."
        }
        Service::OneLeg120 => "One hot leg and a neutral: 120 V.",
    }
}

fn feeder<'a>(home: &'a Study, panel: &Panel) -> Option<&'a Breaker> {
    home.panels().breaker(panel.details.fed_by.as_ref()?)
}

fn road(home: &Study, panel: &Panel) -> Vec<PowerPlace> {
    let mut road = Vec::new();
    if let Some(feeder) = feeder(home, panel) {
        let number = home.panels().number(&feeder.id);
        let from = home.panels().panel(&feeder.panel).map_or("another panel", |from| from.name.as_str());
        let words = format!(
            "Breaker {number} in {from} feeds this panel. Switched off there, everything here is without power, unless something else feeds it."
        );
        road.push(place("Feeder breaker", words, None));
    } else {
        road.push(place("Transformer", format!("The utility's. {}", comes_in(panel.service)), Some(true)));
        road.push(place("Meter", "The utility's, too, with its seal: nobody else opens it.", Some(true)));
    }
    road.push(main(home, panel));
    let rows = |leg: Leg| -> Vec<String> {
        let on = |breaker: &&Breaker| legs_of(panel, &breaker.at).contains(&leg);
        let mut numbers: Vec<String> =
            home.panels().breakers_of(&panel.id).filter(on).map(|b| home.panels().number(&b.id)).collect();
        let more = numbers.len().saturating_sub(NAMED);
        if more > 0 {
            numbers.truncate(NAMED);
            numbers.push(format!("{more} more"));
        }
        numbers
    };
    let legs: Vec<String> = panel
        .service
        .legs()
        .iter()
        .filter(|leg| !rows(**leg).is_empty())
        .map(|leg| format!("leg {} feeds {}", leg.letter(), listed(&rows(*leg))))
        .collect();
    // What else feeds it keeps it live with the main off.
    let nothing_else = panel.details.sources.as_ref().is_some_and(Vec::is_empty);
    let off = feeder(home, panel).is_none() && panel.details.main_at == MainAt::Inside && nothing_else;
    let bus = if legs.is_empty() {
        "The bars that the breakers clip on to.".into()
    } else {
        let change = if legs.len() > 1 { " From row to row the leg changes." } else { "" };
        format!("The bars that the breakers clip on to: {}.{change}", legs.join("; "))
    };
    let else_fed = match &panel.details.sources {
        None => " Ask whether anything else feeds it: a generator, solar, a battery. That keeps it live with the main off.",
        Some(sources) if sources.is_empty() => "",
        Some(_) => " More than the utility feeds this panel: with the main off it may still be live. See what, in Panel.",
    };
    let bus = format!("{bus}{else_fed}");
    road.push(place("Bus", bus, off.then_some(false)));
    road.push(neutral(panel));
    let count = home.panels().breakers_of(&panel.id).count();
    let wide = home.panels().breakers_of(&panel.id).filter(|b| b.poles() > 1).count();
    let blades = format!(
        "{} sit on it, {}. Each switches the hot wire of its circuit off, never the neutral.",
        so_many(count, "breaker"),
        if wide == 1 { "one of them on both legs".to_owned() } else { format!("{wide} of them on two legs or more") }
    );
    road.push(place("Blade", blades, off.then_some(false)));
    let proven = verdicts(home).iter().find_map(|(point, verdict)| {
        let breaker = home.panels().breaker(verdict.proven_on()?).filter(|b| b.panel == panel.id)?;
        Some((home.house().place(point), home.panels().number(&breaker.id)))
    });
    let point = match proven {
        Some((point, number)) => {
            format!("{point}: from the blade of {number} through its hot wire, and back through its neutral.")
        }
        None => "No point is proven on this panel yet: trace one, and its way stands here.".into(),
    };
    road.push(place("Point", point, None));
    road
}

/// So many numbers are named of a leg.
const NAMED: usize = 4;

fn main(home: &Study, panel: &Panel) -> PowerPlace {
    let rated = panel.main.map_or_else(String::new, |amps| format!(", {amps}"));
    match panel.details.main_at {
        MainAt::Inside => {
            let lugs = match feeder(home, panel) {
                Some(_) => "The lugs ahead of it stay live as long as the feeder breaker is on.",
                None => "The lugs ahead of it, where the service wires come in, stay live: only the utility switches those off.",
            };
            let place = place("Main", format!("In this panel{rated}. It switches the bus below it off. {lugs}"), Some(true));
            PowerPlace { stays: "The lugs ahead of it: live with the main off".into(), ..place }
        }
        MainAt::Beside | MainAt::Outside => {
            let at = if panel.details.main_at == MainAt::Beside { "In a cabinet beside this panel" } else { "Outdoors" };
            place("Main", format!("{at}{rated}. It switches this panel off, and stays live itself on its line side."), Some(true))
        }
        MainAt::Lugs => place("Main", "None: main lugs. It goes off with what feeds it.", None),
        MainAt::NotRead => place(
            "Main",
            "Nobody has read where it is. Find it before anything else: it is the way to switch everything off.",
            None,
        ),
    }
}

fn neutral(panel: &Panel) -> PowerPlace {
    let words = match (panel.details.bond, panel.details.service_disconnect) {
        (Some(Bond::Joined), _) if panel.details.three_wire_feeder => {
            "Neutral and ground are joined here, behind an old feeder of three wires. Whether that may stay, an electrician says."
        }
        (Some(Bond::Joined), Some(ServiceDisconnect::Here)) => {
            "Neutral and ground meet here, at the service disconnect: the one place where they may."
        }
        (Some(Bond::Joined), Some(ServiceDisconnect::Ahead)) => {
            "Neutral and ground are joined here, though the service disconnect is ahead of this panel: the findings say more."
        }
        (Some(Bond::Joined), None) => {
            "Neutral and ground are joined here. That is right only where the service disconnect is in this panel."
        }
        (Some(Bond::Apart), _) => "Neutral and ground are apart here; they meet ahead of this panel, at the service disconnect.",
        (None, _) => {
            "Nobody has read whether neutral and ground meet here. They meet in one place only: at the service disconnect."
        }
    };
    place("Neutral and ground", words, None)
}

fn question(ask: String, choices: &[&str], right: usize, why: impl Into<String>) -> PanelQuestion {
    PanelQuestion { ask, choices: choices.iter().map(|c| (*c).to_owned()).collect(), right, why: why.into() }
}

fn questions(home: &Study, panel: &Panel) -> Vec<PanelQuestion> {
    let mut all = Vec::new();
    let breakers: Vec<&Breaker> = home.panels().breakers_of(&panel.id).collect();
    let number = |id: &BreakerId| home.panels().number(id);
    let choices = ["nothing", "the lugs ahead of the main", "every breaker"];
    let utility_alone = panel.details.sources.as_ref().is_none_or(Vec::is_empty);
    if panel.details.main_at == MainAt::Inside && feeder(home, panel).is_none() && utility_alone {
        let why = "The wires from the meter end at those lugs. No breaker in the house switches them off: keep the cover on.";
        all.push(question(format!("The main of {} is off. What in it is live all the same?", panel.name), &choices, 1, why));
    }
    if let Some(feeder) = feeder(home, panel).filter(|_| utility_alone) {
        let n = number(&feeder.id);
        let why = "Behind a feeder that is off, nothing has power, whatever its own handles say.";
        let ask = format!(
            "Breaker {n}, the feeder of {}, is off, and nothing else feeds that panel. Which breakers in it feed anything?",
            panel.name
        );
        all.push(question(ask, &["none", "those that are on", "those of two legs"], 0, why));
    }
    if let [first, .., last] = breakers.as_slice()
        && panel.service.legs().len() == 2
    {
        for breaker in [first, last] {
            let legs = legs_of(panel, &breaker.at);
            let right = match legs.as_slice() {
                [Leg::A] => 0,
                [Leg::B] => 1,
                _ => 2,
            };
            let why = "Legs change row by row down the panel; what moves together over two rows is on both.";
            all.push(question(format!("On which leg is {}?", number(&breaker.id)), &["A", "B", "both"], right, why));
        }
    }
    // From the high leg it is not 120 V to the neutral: that panel is an electrician's.
    let high_leg = panel.service == Service::HighLeg;
    if let Some(wide) = breakers.iter().find(|b| !high_leg && legs_of(panel, &b.at).len() == 2) {
        let volts = between(panel.service);
        let right = usize::from(volts == "208 V") + 2 * usize::from(volts == "240 V");
        let why = "From each terminal to the neutral it is 120 V; the two are not in step, and more stands between them.";
        let ask = format!("How many volts stand between the two terminals of {}?", number(&wide.id));
        all.push(question(ask, &["120 V", "208 V", "240 V"], right, why));
    }
    // Only of two legs that are opposite does one current take away from the other.
    let single: Vec<&&Breaker> = breakers.iter().filter(|b| b.poles() == 1).collect();
    if let [a, b, ..] = single.as_slice()
        && panel.service == Service::SplitPhase
    {
        let same = legs_of(panel, &a.at) == legs_of(panel, &b.at);
        let ask = format!("If {} and {} shared one neutral, what would it carry?", number(&a.id), number(&b.id));
        let why = if same {
            "They are on one leg: it adds up, and no breaker guards the neutral. Two like these never share one."
        } else {
            "They are on different legs: one takes away from the other. To share a neutral they need a common trip or tied handles, too."
        };
        all.push(question(ask, &["the sum of both", "the difference"], usize::from(!same), why));
    }
    if panel.details.bond.is_some() && panel.details.service_disconnect.is_some() && !panel.details.three_wire_feeder {
        let here = panel.details.service_disconnect == Some(ServiceDisconnect::Here);
        let why = "They meet at the service disconnect alone. Joined anywhere else, bare wire and metal carry current.";
        let ask = format!("May neutral and ground meet in {}?", panel.name);
        all.push(question(ask, &["yes, here", "no, ahead of it"], usize::from(!here), why));
    }
    all
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    fn asked<'a>(panel: &'a KnownPanel, words: &str) -> &'a str {
        let question = panel.questions.iter().find(|q| q.ask.contains(words)).unwrap_or_else(|| panic!("{words}: {panel:#?}"));
        &question.choices[question.right]
    }

    #[test]
    fn the_lugs_ahead_of_the_main_stay_live_and_legs_change_row_by_row() {
        let home =
            written("panel 8\nmain is main 100 A, with its main inside\n1 20 kitchen\n3 20 hall\n2 15 den\n5-7 30/2 range").home;
        let panel = &know_panels(&home)[0];
        assert_eq!(asked(panel, "is off. What in it is live"), "the lugs ahead of the main");
        assert_eq!(asked(panel, "On which leg is 1"), "A");
        assert_eq!(asked(panel, "terminals of 5-7"), "240 V");
        assert_eq!(asked(panel, "If 1 and 3 shared"), "the difference", "one below the other");
    }

    #[test]
    fn a_high_leg_is_not_taught_as_if_it_were_120_volts() {
        let home = written("panel 12\nmain is high-leg, with its main inside\n1 20 a\n3 20 b\n2-4 30/2 c").home;
        let panel = &know_panels(&home)[0];
        assert!(panel.questions.iter().all(|q| !q.ask.contains("volts") && !q.ask.contains("shared")), "{panel:#?}");
        let home = written("panel 12\nmain is three-phase, with its main inside\n1 20 a\n3 20 b\n2-4 30/2 c").home;
        let panel = &know_panels(&home)[0];
        assert_eq!(asked(panel, "terminals of 2-4"), "208 V");
        assert!(panel.questions.iter().all(|q| !q.ask.contains("shared")), "legs of three phases do not cancel");
    }

    #[test]
    fn what_nobody_has_read_is_not_asked() {
        let home = written("panel 8\n1 20 kitchen").home;
        let panel = &know_panels(&home)[0];
        assert!(panel.questions.iter().all(|q| !q.ask.contains("live all the same") && !q.ask.contains("neutral and ground")));
        assert!(panel.road.iter().any(|p| p.words.contains("Nobody has read where it is") && p.live.is_none()));
    }

    #[test]
    fn behind_a_feeder_that_is_off_nothing_has_power() {
        let home = written("panel 8\n1 20 kitchen\n2-4 60/2 shed\nsub Shed 8 2-4").home;
        let panels = know_panels(&home);
        assert_eq!(asked(&panels[1], "the feeder of Shed"), "none");
        assert!(panels[1].road[0].words.starts_with("Breaker 2-4 in "), "{panels:#?}");
    }
}
