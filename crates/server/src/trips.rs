//! `wayfinder trips` and `wayfinder changes`: what is wrong and where to look; what was written since a day.

use anyhow::{Result, bail};
use wayfinder_core::trips::{TroubleView, trouble_asked};
use wayfinder_core::{AlsoSeen, ChangedSince, InWords, Moment, Onset, Point, PointId, Symptom, Trouble, TroubleAt};
use wayfinder_server::Opened;

/// A point by its id, or by its place in words: `Porch, door`, or a part of it that fits one point alone.
fn point_named(opened: &Opened, wanted: &str) -> Result<PointId> {
    let study = &opened.study;
    let place = |point: &Point| study.house().place(&point.id);
    let fits = |holds: &dyn Fn(&Point) -> bool| -> Vec<PointId> {
        study.house().points().filter(|p| holds(p)).map(|p| p.id.clone()).collect()
    };
    let small = wanted.trim().to_lowercase();
    let mut found = fits(&|p| p.id.as_str() == wanted.trim() || place(p).to_lowercase() == small);
    if found.is_empty() {
        found = fits(&|p| place(p).to_lowercase().contains(&small));
    }
    match found.as_slice() {
        [one] => Ok(one.clone()),
        [] => bail!("no point of this home is called “{wanted}”; `wayfinder directory` names them"),
        several => {
            let names: Vec<String> = several.iter().take(5).map(|id| study.house().place(id)).collect();
            bail!("“{wanted}” fits {} points: {}; name one of them", several.len(), names.join("; "))
        }
    }
}

/// Says where the power may stop and which look comes next, for points that are dark; writes nothing.
pub(crate) fn trips(opened: &Opened, dark: &[String], json: bool) -> Result<()> {
    let points = dark.iter().map(|name| point_named(opened, name)).collect::<Result<Vec<_>>>()?;
    let Some((first, others)) = points.split_first() else { bail!("name at least one point that is dark") };
    let also = others.iter().map(|point| AlsoSeen { point: point.clone(), symptom: Symptom::Dark });
    let told = Trouble {
        at: TroubleAt::Point(first.clone()),
        symptom: Symptom::Dark,
        also: also.collect(),
        works: Vec::new(),
        extent: None,
        onset: Onset::Unknown,
        last_on: None,
        running: Vec::new(),
    };
    let view = trouble_asked(&opened.study, told)?;
    if json {
        println!("{}", serde_json::to_string_pretty(&view)?);
    } else {
        print!("{}", in_words(&view));
    }
    Ok(())
}

fn in_words(view: &TroubleView) -> String {
    let mut text = format!("{}\nA smell, heat, a buzz, water or a shock: stop here, and keep away from it.\n", view.title);
    text.push_str("The way its power comes, and where it may stop:\n");
    for stop in &view.road {
        text.push_str(&format!("{:>4} %  {}: {}\n", stop.percent, stop.place, stop.what));
    }
    for cause in view.causes.iter().take(5) {
        text.push_str(&format!("{:>4} %  {}\n", cause.percent, cause.words));
    }
    if let Some(next) = &view.next {
        text.push_str(&format!("Next: {}\n", next.title));
    }
    text
}

/// What is otherwise since a day (UTC), and every line since then, in words.
pub(crate) fn changes(opened: &Opened, since: &str, json: bool) -> Result<()> {
    let Some(from) = day(since) else { bail!("“{since}” is no day; give one as 2026-11-24") };
    let after = ChangedSince::Moment(Moment::from_unix_ms(from)).last_before(&opened.book);
    let changed = wayfinder_core::changes(&opened.book, &opened.study, after)?;
    let words = InWords::of(&opened.book);
    let lines = opened.book.lines().filter(|line| line.seq > after);
    if json {
        let all: Vec<_> = lines
            .map(|line| {
                serde_json::json!({
                    "seq": line.seq, "at": line.entry.at, "by": line.entry.by, "kind": line.entry.fact.kind(),
                    "topic": line.entry.fact.topic(), "struck": opened.book.is_struck(&line.entry.id), "words": words.line(line),
                })
            })
            .collect();
        println!("{}", serde_json::to_string_pretty(&serde_json::json!({ "changes": changed, "lines": all }))?);
        return Ok(());
    }
    if changed.lines == 0 {
        println!("Nothing was written since {since}.");
        return Ok(());
    }
    for said in &changed.said {
        println!("{}: {}", said.margin, said.words);
    }
    println!("The lines since {since}:");
    for line in lines {
        let struck = if opened.book.is_struck(&line.entry.id) { " (struck out)" } else { "" };
        println!("{:>6}  {}: {}{struck}", line.seq, line.entry.by, words.line(line));
    }
    Ok(())
}

/// The first moment of a day, in milliseconds since 1970 UTC.
fn day(text: &str) -> Option<i64> {
    let parts: Vec<i64> = text.split('-').map(|part| part.parse().ok()).collect::<Option<_>>()?;
    let &[year, month, day] = parts.as_slice() else { return None };
    let month = u8::try_from(month).ok().and_then(|month| time::Month::try_from(month).ok())?;
    let date = time::Date::from_calendar_date(i32::try_from(year).ok()?, month, u8::try_from(day).ok()?).ok()?;
    Some(date.midnight().assume_utc().unix_timestamp() * 1000)
}
