//! The next reading in words.

use super::{Candidate, SurveyStep, Surveyed};
use crate::loads::circuits::{CircuitLoads, said};
use crate::loads::draws::Drawn;
use crate::model::{LoadId, ReadWith, ReadingOf};

pub(super) fn width_of(one: &Surveyed<'_>, candidate: &Candidate) -> f64 {
    let width = |drawn: &Drawn<'_>| drawn.line.high - drawn.line.low;
    candidate
        .load
        .map_or_else(|| one.loads.iter().map(width).sum::<f64>() / one.loads.len().max(1) as f64, |at| width(&one.loads[at]))
}

pub(super) fn step_of(one: &Surveyed<'_>, candidate: &Candidate, about: &str) -> SurveyStep {
    let CircuitLoads { number, breaker, limit, .. } = one.circuit;
    let [low, high] = one.between();
    let why = format!("{number} comes to between {} and {} of {}; this may settle {about}.", said(low), said(high), said(*limit));
    let running: Vec<LoadId> = one.loads.iter().map(|drawn| drawn.load.id.clone()).collect();
    let name = |at: usize| format!("{}, {}", one.loads[at].line.name, one.loads[at].line.place);
    match candidate.load {
        Some(at) => {
            let line = &one.loads[at].line;
            let words = match candidate.with {
                ReadWith::PlugInMeter => format!("Read the {} at {} with a plug-in meter while it runs.", line.name, line.place),
                _ => format!(
                    "Read the {} at {} by the utility's meter: the display before it is switched on, and again while it runs.",
                    line.name, line.place
                ),
            };
            SurveyStep {
                of: ReadingOf::Load { load: line.load.clone() },
                with: candidate.with,
                words,
                why,
                cautions: cautions(candidate.with, line.motor),
                breaker: breaker.clone(),
                number: number.clone(),
                load: Some(line.load.clone()),
                point: Some(line.point.clone()),
                volts: Some(line.volts),
                running: vec![line.load.clone()],
                names: vec![name(at)],
                minutes: candidate.minutes,
            }
        }
        None => {
            let all =
                if one.loads.len() == 1 { "its load on".to_owned() } else { format!("all {} of its loads on", one.loads.len()) };
            let words = match candidate.with {
                ReadWith::Clamp => format!("Clamp the hot of {number} with {all}."),
                _ => format!(
                    "Read circuit {number} by the utility's meter: the display with its breaker off, and again with it on and {all}."
                ),
            };
            let mut cautions = cautions(candidate.with, false);
            if candidate.with == ReadWith::UtilityMeter {
                cautions.push("Switch loads off before the breaker. What must not lose power is told first.".into());
            }
            let sum: f64 = one.loads.iter().map(|drawn| drawn.line.high).sum();
            if sum > *limit {
                cautions.push(format!(
                    "All together may come to {}: the breaker may trip. Leave what must not stop out, and say what ran.",
                    said(sum)
                ));
            }
            SurveyStep {
                of: ReadingOf::Circuit { breaker: breaker.clone(), pole: 1 },
                with: candidate.with,
                words,
                why,
                cautions,
                breaker: breaker.clone(),
                number: number.clone(),
                load: None,
                point: None,
                volts: None,
                running,
                names: (0..one.loads.len()).map(name).collect(),
                minutes: candidate.minutes,
            }
        }
    }
}

fn cautions(with: ReadWith, motor: bool) -> Vec<String> {
    let mut said = Vec::new();
    match with {
        ReadWith::Clamp => said.push(
            "For qualified people: the cover is off, and the line-side lugs stay live with the main off. Eye protection, dry floor, \
             round one hot only."
                .to_owned(),
        ),
        ReadWith::UtilityMeter => {
            said.push("Nothing else may be switched between the two looks: wait until refrigerator, pump and heat are at rest.".to_owned());
        }
        ReadWith::PlugInMeter | ReadWith::LineSplitter => {}
    }
    if motor {
        said.push("A motor takes less than full load while it idles: read it at its work.".to_owned());
    }
    said
}
