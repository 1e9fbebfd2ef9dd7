//! `wayfinder practice faults`: faults in made-up houses, looked for and marked.

use std::io::Write;
use std::path::{Path, PathBuf};
use std::time::Instant;

use anyhow::{Context, Result, bail};
use wayfinder_core::trips::{FaultGame, FaultStrategy, play_fault, summary};

/// What is to be played.
#[derive(clap::Args)]
pub(crate) struct Faults {
    /// The houses, one JSON object a line.
    #[arg(long)]
    houses: PathBuf,
    /// The faults in them, one JSON object a line.
    #[arg(long)]
    cases: PathBuf,
    /// How they are looked for: planner, checklist, random or oracle.
    #[arg(long, value_parser = strategy, default_value = "planner")]
    strategy: FaultStrategy,
    /// One JSON object a fault, and one with the sums.
    #[arg(long)]
    json: bool,
}

fn strategy(text: &str) -> Result<FaultStrategy, String> {
    serde_json::from_value(text.into()).map_err(|_| "give planner, checklist, random or oracle".into())
}

/// Plays them all.
pub(crate) fn faults(asked: &Faults) -> Result<()> {
    let read = |path: &Path| std::fs::read_to_string(path).with_context(|| format!("{} cannot be read", path.display()));
    let games = FaultGame::read_all(&read(&asked.houses)?, &read(&asked.cases)?)?;
    if games.is_empty() {
        bail!("nothing to play: give at least one fault");
    }
    let begun = Instant::now();
    let mut clock = || begun.elapsed().as_secs_f64() * 1000.0;
    let mut decisions = Vec::new();
    let mut all = Vec::new();
    let mut out = std::io::stdout().lock();
    for game in &games {
        let played = play_fault(game, asked.strategy, &mut clock, &mut decisions);
        if asked.json {
            writeln!(out, "{}", serde_json::to_string(&played)?)?;
        } else {
            let what = played.cause.and_then(|c| serde_json::to_value(c).ok()).and_then(|c| c.as_str().map(str::to_owned));
            let what = what.unwrap_or_else(|| played.verdict.into()).replace('_', " ");
            let right = if played.right { "right" } else { "wrong" };
            writeln!(
                out,
                "{:12} {:5.1} min  {:3} looks  {right}  {what}, p {:.2}",
                played.id, played.minutes, played.acts, played.p
            )?;
        }
        all.push(played);
    }
    let sums = summary(&all, &mut decisions);
    if asked.json {
        writeln!(out, "{}", serde_json::json!({ "summary": sums }))?;
    } else {
        writeln!(
            out,
            "{} of {} right, {} wrong and sure, {} emergencies missed; mean {:.2} min, p90 {:.2}; {:.1} looks, {:.2} resets; decision p99 {:.1} ms",
            sums.right,
            sums.cases,
            sums.wrong_and_sure,
            sums.missed_emergencies,
            sums.minutes_mean,
            sums.minutes_p90,
            sums.looks_mean,
            sums.resets_mean,
            sums.decision_ms_p99
        )?;
    }
    Ok(())
}
