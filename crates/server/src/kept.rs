//! What is kept: checked, copied, put back, saved from a damaged folder.

use std::path::Path;
use std::process::ExitCode;

use anyhow::Result;
use wayfinder_core::{Study, findings, overview, progress};
use wayfinder_server::{Salvaged, salvage as save};
use wayfinder_store::{Damage, Kept, ReadOnly};

/// Checks a data folder or a copy, home by home.
pub(crate) fn check(data: &Path, json: bool) -> Result<ExitCode> {
    let kept = ReadOnly::open(data)?;
    let wrong = kept.wrong_with_the_file();
    let (mut sound, mut damaged) = (Vec::new(), Vec::new());
    for home in kept.homes()?.into_iter().filter(|home| home.deleted.is_none()) {
        let (lines, damage) = kept.lines_up_to_damage(&home.id)?;
        let (book, damage) = wayfinder_server::readable(&home.id, &lines, damage);
        match damage {
            None => sound.push((home.id, Study::from(&book))),
            Some(damage) => damaged.push((damage, book)),
        }
    }
    let all_well = wrong.is_empty() && damaged.is_empty();
    if json {
        let homes: Vec<_> = sound.iter().map(|(id, study)| overview(id, study)).collect();
        let damaged: Vec<_> = damaged
            .iter()
            .map(|(damage, book)| {
                serde_json::json!({
                    "id": damage.home, "name": book.home().name(), "line": damage.line, "what": damage.to_string(),
                    "readable": book.seq(),
                })
            })
            .collect();
        let said = serde_json::json!({ "sound": all_well, "file": wrong, "homes": homes, "damaged": damaged });
        println!("{}", serde_json::to_string_pretty(&said)?);
    } else {
        match wrong.first() {
            None => println!("database: {}", if all_well { "sound" } else { "its file is sound" }),
            Some(wrong) => println!("database: DAMAGED. SQLite says: {wrong}"),
        }
        for (damage, book) in &damaged {
            println!("{} “{}”: DAMAGED, {damage}", damage.home, book.home().name().unwrap_or_default());
            println!("  {} lines can be read.", book.seq());
        }
        for (id, home) in &sound {
            let (name, progress) = (home.name().unwrap_or_default(), progress(home));
            println!("{id} “{name}”: {} lines, {} of {} points proven", home.seq(), progress.proven, progress.points);
            for finding in findings(home) {
                println!("  {}: {} ({})", finding.about, finding.message, finding.source);
            }
        }
        if !all_well {
            println!("Put back a copy with `wayfinder restore`, or save what can be read with `wayfinder salvage`.");
        }
    }
    Ok(if all_well { ExitCode::SUCCESS } else { ExitCode::FAILURE })
}

fn say(kept: &[Kept]) {
    for Kept { home, lines, damage } in kept {
        match damage {
            None => println!("{}: {lines} lines", home.id),
            Some(damage) => println!("{}: {lines} lines can be read; DAMAGED, {damage}", home.id),
        }
    }
}

/// Writes a copy.
pub(crate) fn backup(data: &Path, out: &Path) -> Result<()> {
    say(&wayfinder_store::backup(data, out)?);
    println!("Written to {}. Keep it on another disk.", out.display());
    Ok(())
}

/// Puts a copy back.
pub(crate) fn restore(file: &Path, data: &Path) -> Result<()> {
    say(&wayfinder_store::restore(file, data)?);
    println!("Put back into {}. Start it with: wayfinder serve --data {}", data.display(), data.display());
    Ok(())
}

/// Saves what can be read.
pub(crate) fn salvage(data: &Path, to: &Path) -> Result<ExitCode> {
    let saved = save(data, to)?;
    let mut whole = true;
    for Salvaged { home, lines, damage } in &saved {
        whole &= damage.is_none();
        match damage {
            None => println!("{home}: all of its {lines} lines"),
            Some(Damage { kind, .. }) => println!("{home}: {lines} lines; {kind}"),
        }
    }
    println!("Saved to {}. {} is left as it was.", to.display(), data.display());
    Ok(if whole { ExitCode::SUCCESS } else { ExitCode::FAILURE })
}
