//! The homes of a data folder, and the directory of one as a file, for the command line.

use std::sync::Arc;

use anyhow::{Context, Result, bail};
use wayfinder_core::{BookPart, Panel, Printed, Study, card, plan, progress};
use wayfinder_formats::{BookAsked, CardColors, DirectoryFormat, Sheet, home_book_pdf, write_directory, write_plan_dxf};
use wayfinder_server::{Desk, Homes, Opened};

use crate::in_words::card_in_words;

/// A home by its id or by its name.
pub(crate) fn home_named(desk: &Desk, wanted: &str) -> Result<Arc<Opened>> {
    let Homes { sound: homes, damaged } = desk.homes()?;
    if let Some(damaged) =
        damaged.iter().find(|home| home.stored.id.as_str() == wanted || home.readable.home().name() == Some(wanted))
    {
        bail!("the home {wanted} is damaged: {}; `wayfinder check` says more", damaged.damage);
    }
    let by_id = homes.iter().find(|(id, _)| id.as_str() == wanted);
    let by_name = || -> Vec<_> {
        let named = |opened: &Opened| opened.study.name().is_some_and(|name| name.trim().eq_ignore_ascii_case(wanted.trim()));
        homes.iter().filter(|(_, opened)| named(opened)).collect()
    };
    match by_id.map_or_else(by_name, |home| vec![home]).as_slice() {
        [(_, opened)] => Ok(Arc::clone(opened)),
        [] => bail!("there is no home “{wanted}”; `wayfinder homes` lists them"),
        several => bail!("{} homes are called “{wanted}”; name one by its id, as `wayfinder homes` lists it", several.len()),
    }
}

/// Every home, a line each or as JSON.
pub(crate) fn homes(desk: &Desk, json: bool) -> Result<()> {
    let Homes { sound: homes, damaged } = desk.homes()?;
    if json {
        let damaged = damaged.iter().map(|home| {
            serde_json::json!({
                "id": home.stored.id, "name": home.readable.home().name(), "lines": home.readable.seq(),
                "damaged": home.damage.to_string(),
            })
        });
        let all: Vec<_> = homes
            .iter()
            .map(|(id, opened)| {
                let progress = progress(&opened.study);
                serde_json::json!({
                    "id": id, "name": opened.study.name(), "lines": opened.study.seq(),
                    "proven": progress.proven, "points": progress.points,
                })
            })
            .chain(damaged)
            .collect();
        println!("{}", serde_json::to_string_pretty(&all)?);
        return Ok(());
    }
    for (id, opened) in &homes {
        let progress = progress(&opened.study);
        println!("{id}\t{}\t{} of {} points proven", opened.study.name().unwrap_or_default(), progress.proven, progress.points);
    }
    for home in &damaged {
        println!("{}\t{}\tDAMAGED: {}", home.stored.id, home.readable.home().name().unwrap_or_default(), home.damage);
    }
    Ok(())
}

/// `load`, `amps` or `none`.
pub(crate) fn card_colors(text: &str) -> Result<CardColors, String> {
    CardColors::named(text).ok_or_else(|| "use load, amps or none".into())
}

/// The directory in a format, or a floor of the house plan with its circuit numbers (`dxf`); as text where no format is named.
pub(crate) fn directory(
    home: &Study,
    format: Option<&str>,
    (panel, floor): (Option<&str>, Option<&str>),
    printed: Printed<'_>,
    colors: CardColors,
) -> Result<Vec<u8>> {
    let meant = |known: &&Panel| panel.is_none_or(|name| known.name.eq_ignore_ascii_case(name));
    let panel = home.panels().all().find(meant).context("the home has no such panel")?;
    let Some(format) = format else {
        return Ok(card_in_words(&card(home, &panel.id, printed).context("the home has no such panel")?).into_bytes());
    };
    if let Some(format) = DirectoryFormat::named(format) {
        return Ok(write_directory(home, format, &panel.id, printed, colors)?);
    }
    let plan = plan(home);
    let drawn = plan.floors.iter().find(|known| floor.is_none_or(|name| known.name.eq_ignore_ascii_case(name)));
    Ok(write_plan_dxf(plan, drawn.context("the home has no such floor")?)?)
}

/// A part of the home book by its name.
pub(crate) fn book_part(text: &str) -> Result<BookPart, String> {
    BookPart::named(text).ok_or_else(|| format!("use {}", BookPart::ALL.map(BookPart::name).join(", ")))
}

/// The home book, all of it where no part is named; says on standard error what it is making.
pub(crate) fn book(home: &Study, parts: &[BookPart], paper: &str, printed: Printed<'_>, colors: CardColors) -> Result<Vec<u8>> {
    let parts = if parts.is_empty() { &BookPart::ALL } else { parts };
    let paper = if paper == "a4" { Sheet::A4 } else { Sheet::Letter };
    let mut tell = |making: &str, done: usize, of: usize| eprintln!("{} of {of}: {making}", done + 1);
    Ok(home_book_pdf(home, &BookAsked { parts, paper, colors, printed }, &mut tell)?)
}
