//! What is decided for a wish: two circuits that may be joined, a feeder, something to be added.

use super::{
    Candidate, HARDLY, SurveyAsked, SurveyDecision, SurveyView, Surveyed, band, best, counted, decision_of, step_of, width_of,
};
use crate::loads::circuits::{CircuitLoads, OnCircuits, Stands, circuits, said, sums, usual_reading};
use crate::loads::draws::{Drawn, End};
use crate::loads::notes::is_to_be_alone;
use crate::model::{BreakerId, Place, PointId, PointKind, so_many};
use crate::study::Study;
use crate::trace::on_breaker;

/// Whether a circuit may be joined with another at all: one pole, no panel and no shared neutral on it, nothing that is to be alone, no
/// receptacle of a room that has circuits of its own by today's rule. What it carries is another matter.
pub(in crate::loads) fn may_be_joined(home: &Study, circuit: &CircuitLoads, loads: &[Drawn<'_>]) -> bool {
    let Some(breaker) = home.panels().breaker(&circuit.breaker) else { return false };
    let of_own_circuit = |point: &PointId| {
        let Some(point) = home.house().point(point).filter(|point| point.kind == PointKind::Receptacle) else { return false };
        let room = home.house().rooms().find(|room| room.id == point.room);
        let place = room.and_then(|room| Place::of(&room.name, room.floor.as_deref()));
        let name = room.map(|room| room.name.to_lowercase()).unwrap_or_default();
        matches!(place, Some(Place::Kitchen | Place::Bath | Place::Laundry | Place::Garage))
            || ["dining", "pantry"].iter().any(|word| name.contains(word))
    };
    breaker.poles() == 1
        && circuit.feeds.is_none()
        && !breaker.details.back_fed_main
        && home.panels().shared_neutral_of(&circuit.breaker).is_none()
        && !loads.is_empty()
        && !loads.iter().any(is_to_be_alone)
        && !on_breaker(home, &circuit.breaker).proven.iter().any(of_own_circuit)
}

/// How many of the lightest are weighed against one another.
const LIGHTEST: usize = 12;

pub(super) fn combine_two(home: &Study, asked: &SurveyAsked, all: &[Surveyed<'_>]) -> SurveyView {
    let mut light: Vec<&Surveyed<'_>> = all.iter().filter(|one| may_be_joined(home, one.circuit, one.loads)).collect();
    light.sort_by(|a, b| a.between()[0].total_cmp(&b.between()[0]));
    let more = light.len() > LIGHTEST;
    light.truncate(LIGHTEST);
    let panel = |one: &Surveyed<'_>| home.panels().breaker(&one.circuit.breaker).map(|breaker| breaker.panel.clone());
    let mut pairs: Vec<(SurveyDecision, [usize; 2])> = Vec::new();
    for (a, first) in light.iter().enumerate() {
        for (b, second) in light.iter().enumerate().skip(a + 1).filter(|(_, second)| panel(second) == panel(first)) {
            let both: Vec<Drawn<'_>> = first.loads.iter().chain(second.loads).cloned().collect();
            let limit = first.circuit.limit.min(second.circuit.limit);
            // What was read of both at one time with everything on adds up at most.
            let most = first.between()[1] + second.between()[1];
            let high = (counted(sums(&both, End::High)) + first.unlisted + second.unlisted).min(most);
            let low = counted(sums(&both, End::Low)).min(high);
            let fits = |amps: f64| amps <= 0.8 * limit;
            // A point that may be on one of them and is not proven could bring anything.
            let more_may_be = first.circuit.possible + second.circuit.possible > 0;
            let settled = fits(low) == fits(high) && !(fits(high) && more_may_be);
            let decision = SurveyDecision {
                breakers: vec![first.circuit.breaker.clone(), second.circuit.breaker.clone()],
                number: format!("{} and {}", first.circuit.number, second.circuit.number),
                about: format!("{}; {}", first.circuit.about, second.circuit.about),
                between: [low, high],
                limit,
                stands: if !settled {
                    Stands::TooClose
                } else if fits(high) {
                    Stands::Room
                } else {
                    Stands::Near
                },
                settled,
            };
            pairs.push((decision, [a, b]));
        }
    }
    pairs.sort_by(|(a, _), (b, _)| (a.between[0] / a.limit).total_cmp(&(b.between[0] / b.limit)));
    let found = pairs.iter().filter(|(pair, _)| pair.settled && pair.stands == Stands::Room);
    let found = found
        .min_by(|(a, _), (b, _)| (a.between[1] / a.limit).total_cmp(&(b.between[1] / b.limit)))
        .map(|(pair, _)| pair.clone());
    let open = pairs.iter().filter(|(pair, _)| !pair.settled).count();
    let mut step = None;
    if found.is_none() {
        // The pair that is lightest at best is read first; of it what is likeliest to settle the pair.
        let can_be_settled = |one: usize| light[one].circuit.possible == 0;
        for (pair, [a, b]) in pairs.iter().filter(|(pair, [a, b])| !pair.settled && can_be_settled(*a) && can_be_settled(*b)) {
            let candidates = [(*a, *b), (*b, *a)].into_iter().flat_map(|(own, other)| {
                let (one, other) = (light[own], light[other]);
                let decides = move |ends: [f64; 2]| {
                    let fits = |amps: f64| amps <= 0.8 * pair.limit;
                    // The other's own ends stand beside it: together at most their sum.
                    fits(ends[1] + other.between()[1]) || !fits(ends[0].max(other.between()[0]))
                };
                one.candidates(home, asked, &decides).into_iter().map(move |candidate| (one, candidate))
            });
            let best = candidates.max_by(|(one, a), (other, b)| {
                let worth =
                    |one: &Surveyed<'_>, c: &Candidate| (c.chance.max(HARDLY) * 1000.0 + width_of(one, c)) / c.minutes.max(0.1);
                worth(one, a).total_cmp(&worth(other, b))
            });
            if let Some((one, candidate)) = best {
                step = Some(step_of(one, &candidate, "which two may be joined"));
                break;
            }
        }
    }
    let answer = match (&found, &step) {
        (Some(pair), _) => Some(format!(
            "Together {} carry {} at most of {}, below 80 %.{} Wire, breaker type, protection and local code are still to be checked.",
            pair.number,
            said(pair.between[1]),
            said(pair.limit),
            nothing_entered(&light, pair)
        )),
        (None, None) if pairs.is_empty() => Some("There are no two circuits here that could be joined.".into()),
        (None, None) if open == 0 && !more => {
            Some("No two of these circuits may be joined: every pair comes to more than 80 %.".into())
        }
        (None, None) if light.iter().any(|one| one.circuit.possible > 0) => {
            Some("Trace first: points that are not proven yet may be on these circuits.".into())
        }
        (None, None) => Some("No two can be told to fit: what is left is too close to call.".into()),
        _ => None,
    };
    let minutes_left = step.as_ref().map_or(0.0, |step| step.minutes);
    let title = match (&found, &step) {
        (Some(pair), _) => format!("By what they carry, {} may be joined", pair.number),
        (None, Some(_)) => "Which two may be joined is not settled yet".into(),
        (None, None) => "No two that may be joined".into(),
    };
    let mut decisions: Vec<SurveyDecision> = pairs.into_iter().map(|(pair, _)| pair).collect();
    decisions.sort_by_key(|pair| (pair.stands != Stands::Room, pair.settled));
    decisions.truncate(LIGHTEST);
    SurveyView { title, answer, step, decisions, minutes_left, questions: Vec::new() }
}

/// What to see to at the points of a pair at which nothing is entered.
fn nothing_entered(light: &[&Surveyed<'_>], pair: &SurveyDecision) -> String {
    let of_pair = light.iter().filter(|one| pair.breakers.contains(&one.circuit.breaker));
    match of_pair.map(|one| one.circuit.without_load.len()).sum() {
        0 => String::new(),
        count => {
            format!(" At {} of theirs nothing is entered: see that nothing large is plugged in there.", so_many(count, "point"))
        }
    }
}

pub(super) fn feeder(home: &Study, asked: &SurveyAsked, on: &OnCircuits<'_>, breaker: &BreakerId) -> SurveyView {
    let nothing = |title: &str| SurveyView {
        title: title.into(),
        answer: None,
        step: None,
        decisions: Vec::new(),
        minutes_left: 0.0,
        questions: Vec::new(),
    };
    let Some(circuit) = circuits(home).iter().find(|circuit| circuit.breaker == *breaker && circuit.feeds.is_some()) else {
        return nothing("That breaker feeds no panel");
    };
    let read = usual_reading(circuit.measured.as_ref());
    let [low, high] = circuit.between.map(|amps| amps.max(read));
    let over = |amps: f64| amps > circuit.limit;
    let behind = circuits(home).iter().filter(|other| is_behind(home, breaker, &other.breaker, 0) && other.feeds.is_none());
    let behind: Vec<Surveyed<'_>> = behind.map(|other| Surveyed::of(home, other, on.on(&other.breaker))).collect();
    // What is not proven yet may be behind it, too: then nothing says that it is not too much.
    let trace_first = !over(high) && behind.iter().any(|one| one.circuit.possible > 0);
    let settled = over(low) == over(high) && !trace_first;
    let decision = SurveyDecision {
        breakers: vec![breaker.clone()],
        number: circuit.number.clone(),
        about: circuit.about.clone(),
        between: [low, high],
        limit: circuit.limit,
        stands: if !settled {
            Stands::TooClose
        } else if over(high) {
            Stands::Over
        } else if band(high, circuit.limit) == 1 {
            Stands::Near
        } else {
            Stands::Room
        },
        settled,
    };
    // The widest load behind it is read first; it is the one that can move the sum most.
    let mut widest: Option<(&Surveyed<'_>, Candidate, f64)> = None;
    for one in behind.iter().filter(|_| !settled && !trace_first) {
        for at in (0..one.loads.len()).filter(|at| !one.is_read(*at) && !asked.without_loads.contains(&one.loads[*at].load.id)) {
            let (with, minutes) = one.with_what(home, at, &asked.minutes);
            let width = one.loads[at].line.high - one.loads[at].line.low;
            let worth = width / minutes;
            if width > 0.0 && widest.as_ref().is_none_or(|(_, _, before)| worth > *before) {
                widest = Some((one, Candidate { load: Some(at), with, minutes, chance: 0.0 }, worth));
            }
        }
    }
    let step =
        widest.map(|(one, candidate, _)| step_of(one, &candidate, &format!("whether feeder {} is overloaded", circuit.number)));
    let number = &circuit.number;
    let (title, answer) = match (settled, over(high)) {
        _ if trace_first => (
            format!("Whether feeder {number} is overloaded: trace first"),
            Some("Points that are not proven yet may be behind it; what is known does not overload it.".into()),
        ),
        (true, true) => (
            format!("Feeder {number} is overloaded"),
            Some(format!("Its heavier leg comes to {} at least; {} may be carried.", said(low), said(circuit.limit))),
        ),
        (true, false) => (
            format!("Feeder {number} is not overloaded"),
            Some(format!("Its heavier leg comes to {} at most of {}.", said(high), said(circuit.limit))),
        ),
        (false, _) if step.is_none() => (
            format!("Feeder {number} is too close to call"),
            Some("It counts as overloaded until a clamp has read both legs in the worst hour.".into()),
        ),
        (false, _) => (format!("Whether feeder {number} is overloaded is not settled yet"), None),
    };
    let minutes_left = step.as_ref().map_or(0.0, |step| step.minutes);
    SurveyView { title, answer, step, decisions: vec![decision], minutes_left, questions: Vec::new() }
}

/// Whether a breaker is behind this feeder.
fn is_behind(home: &Study, feeder: &BreakerId, other: &BreakerId, depth: usize) -> bool {
    let fed_by = home.panels().breaker(other).and_then(|breaker| home.panels().panel(&breaker.panel)?.details.fed_by.clone());
    depth < 8 && fed_by.is_some_and(|by| by == *feeder || is_behind(home, feeder, &by, depth + 1))
}

pub(super) fn add(home: &Study, asked: &SurveyAsked, all: &[Surveyed<'_>], breaker: &BreakerId, amps: f64) -> SurveyView {
    let number = home.panels().number(breaker);
    let Some(one) = all.iter().find(|one| one.circuit.breaker == *breaker && one.circuit.feeds.is_none()) else {
        return SurveyView {
            title: format!("Nothing is entered on {number} yet"),
            answer: Some("Enter what is on it first.".into()),
            step: None,
            decisions: Vec::new(),
            minutes_left: 0.0,
            questions: Vec::new(),
        };
    };
    let limit = one.circuit.limit;
    let fits = |counted: f64| counted + amps <= limit;
    let decides = |ends: [f64; 2]| fits(ends[0]) == fits(ends[1]);
    let [low, high] = one.between();
    let trace_first = fits(high) && one.circuit.possible > 0;
    let settled = decides([low, high]) && !trace_first;
    let step = if settled || trace_first {
        None
    } else {
        best(one.candidates(home, asked, &decides), |candidate| width_of(one, candidate))
            .map(|candidate| step_of(one, &candidate, "whether it may be added"))
    };
    let decision = SurveyDecision {
        between: [low + amps, high + amps],
        stands: if !settled {
            Stands::TooClose
        } else if !fits(low) {
            Stands::Over
        } else if band(high + amps, limit) == 1 {
            Stands::Near
        } else {
            Stands::Room
        },
        settled,
        ..decision_of(one)
    };
    let (title, answer) = match (settled, fits(high)) {
        _ if trace_first => (
            format!("Whether {number} carries {} more: trace first", said(amps)),
            Some("Points that are not proven yet may be on it; what is known leaves room.".into()),
        ),
        (true, true) => (
            format!("{} more may be added to {number}", said(amps)),
            Some(format!(
                "It comes to {} at most of {} with it; what runs three hours or more is to be given as 125 %.{}",
                said(high + amps),
                said(limit),
                nothing_entered(&[one], &decision)
            )),
        ),
        (true, false) => (
            format!("{} more are too much for {number}", said(amps)),
            Some(format!("It comes to {} at least with it; {} may be carried.", said(low + amps), said(limit))),
        ),
        (false, _) if step.is_none() => {
            (format!("{} more on {number} are too close to call", said(amps)), Some("It counts as too much.".into()))
        }
        (false, _) => (format!("Whether {number} carries {} more is not settled yet", said(amps)), None),
    };
    let minutes_left = step.as_ref().map_or(0.0, |step| step.minutes);
    SurveyView { title, answer, step, decisions: vec![decision], minutes_left, questions: Vec::new() }
}
