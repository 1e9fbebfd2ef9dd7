//! `wayfinder practice service|legs|network|make-room`: the engines on a file of cases, one JSON object a line.

use std::io::Write;
use std::path::Path;
use std::time::Instant;

use anyhow::{Context, Result};
use serde::Deserialize;
use serde::de::DeserializeOwned;
use serde_json::{Value, json};
use wayfinder_core::loads::{legs, network, service};
use wayfinder_core::work::{Problem, USUAL_STEPS, make_room};

/// Which engine.
#[derive(Clone, Copy)]
pub(crate) enum Engine {
    Service,
    Legs,
    Network,
    MakeRoom,
}

#[derive(Deserialize)]
struct Case {
    #[serde(alias = "problem")]
    input: Value,
}

/// Reads an input, and answers it; an error says what is wrong with it.
fn answer<Input: DeserializeOwned, Answer: serde::Serialize>(
    input: Value,
    engine: impl Fn(&Input) -> Result<Answer, String>,
) -> Result<(f64, Value), String> {
    let input: Input = serde_json::from_value(input).map_err(|error| error.to_string())?;
    let begun = Instant::now();
    let answer = engine(&input)?;
    let ms = begun.elapsed().as_secs_f64() * 1000.0;
    Ok((ms, serde_json::to_value(answer).map_err(|error| error.to_string())?))
}

/// Answers every line of the file with a line of its own; `false` where one could not be answered.
pub(crate) fn answer_file(engine: Engine, file: &Path, json: bool) -> Result<bool> {
    let text = std::fs::read_to_string(file).with_context(|| format!("{} cannot be read", file.display()))?;
    let mut out = std::io::stdout().lock();
    let mut all_answered = true;
    for (number, line) in text.lines().enumerate().filter(|(_, line)| !line.trim().is_empty()) {
        let read = serde_json::from_str::<Case>(line).map_err(|error| format!("this is no case: {error}"));
        let id = read.as_ref().ok().and_then(|case| case.input["id"].as_str().map(str::to_owned));
        let id = id.unwrap_or_else(|| format!("line {}", number + 1));
        let answered = read.and_then(|case| match engine {
            Engine::Service => answer(case.input, |dwelling: &service::Dwelling| {
                dwelling.refused()?;
                Ok(service::worksheets(dwelling))
            }),
            Engine::Legs => answer(case.input, legs::level),
            Engine::Network => answer(case.input, network::solve),
            Engine::MakeRoom => answer(case.input, |problem: &Problem| make_room(problem, USUAL_STEPS)),
        });
        match answered {
            Ok((ms, answer)) if json && matches!(engine, Engine::MakeRoom) => {
                writeln!(out, "{}", json!({ "id": id, "ms": ms, "best": answer["best"], "ways": answer["ways"] }))?;
            }
            Ok((ms, answer)) if json => writeln!(out, "{}", json!({ "id": id, "ms": ms, "answer": answer }))?,
            Ok((ms, answer)) => writeln!(out, "{id}: {} ({ms:.2} ms)", in_short(engine, &answer))?,
            Err(wrong) => {
                all_answered = false;
                if json {
                    writeln!(out, "{}", json!({ "id": id, "error": wrong }))?;
                } else {
                    writeln!(out, "{id}: {wrong}")?;
                }
            }
        }
    }
    Ok(all_answered)
}

fn in_short(engine: Engine, answer: &Value) -> String {
    match engine {
        Engine::Service => format!(
            "standard {} A, optional {} A, existing {} A, Canada {} A",
            answer["standard"]["amps"], answer["optional"]["amps"], answer["existing"]["amps"], answer["canada"]["amps"]
        ),
        Engine::Legs => {
            let curve = answer["curve"].as_array().map(Vec::as_slice).unwrap_or_default();
            let points: Vec<String> =
                curve.iter().map(|point| format!("{:.1} %", point["ratio"].as_f64().unwrap_or(0.0) * 100.0)).collect();
            format!(
                "{}; {}, {} moves",
                points.join(", "),
                answer["verdict"]["why"].as_str().unwrap_or_default(),
                answer["verdict"]["moves"]
            )
        }
        Engine::MakeRoom => {
            let found = |(way, found): (&String, &Value)| match (&found["cost"], &found["reason"]) {
                (Value::Number(cost), _) => format!("{way} {cost}"),
                (_, reason) => format!("{way}: {}", reason.as_str().unwrap_or_default()),
            };
            let ways: Vec<String> = answer["ways"].as_object().into_iter().flatten().map(found).collect();
            format!(
                "best {} {}; {}",
                answer["best"]["kind"].as_str().unwrap_or_default(),
                answer["best"]["cost"],
                ways.join(", ")
            )
        }
        Engine::Network => format!("{} nodes", answer["volts"].as_object().map_or(0, serde_json::Map::len)),
    }
}
