//! A trace with several breakers off at once, driven through the screen until every point is proven.

use anyhow::{Context, Result, bail, ensure};
use serde_json::Value;
use wayfinder_e2e::screens::Trace;
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

/// The hidden wiring: the breaker of each point.
const WIRING: [(&str, &str, &str); 10] = [
    ("Kitchen", "ceiling", "3"),
    ("Kitchen", "counter", "3"),
    ("Kitchen", "sink", "3"),
    ("Kitchen", "hood", "6"),
    ("Kitchen", "window", "3"),
    ("Hall", "stair", "1"),
    ("Hall", "door", "1"),
    ("Hall", "mirror", "8"),
    ("Hall", "bench", "1"),
    ("Hall", "coats", "1"),
];

async fn dark_house(site: &Site) -> Result<String> {
    let mut acts = "home Weir House\npanel 12\n".to_owned();
    for n in 1..=8 {
        acts += &format!("{n} 15\n");
    }
    acts += "room Kitchen\nroom Hall\n";
    for (room, name, _) in WIRING {
        acts += &format!("point {room} light {name}\n");
    }
    Somebody::new(site, "weir").act(0, &acts).await?;
    Ok(format!("{}/h/weir", site.address))
}

/// What the trace asks now: its step, the point it waits for, and the last line that it knows of.
async fn asked(page: &Page) -> Result<(String, String)> {
    let step = Trace(page).step().await?;
    let point = match step.as_str() {
        "see_all_lit" | "look_under" => Trace(page).current().await.unwrap_or_default(),
        _ => String::new(),
    };
    Ok((step, format!("{point} {:?} {}", page.off_now().await?, Trace(page).followed().await?)))
}

pub(crate) async fn several_off_at_once_until_every_point_is_proven(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let home = dark_house(&site).await?;
    page.goto(&format!("{home}/trace")).await?;
    Trace(page).begin().await?;
    page.press("Several off at once, the shortest").await?;
    page.press("Rest lit in Kitchen").await?;
    page.press("Rest lit in Hall").await?;
    page.press("What each would take").await?;
    Trace(page).methods_say("One breaker at a time: about").await?;
    let trace = Trace(page);
    let mut several = false;
    let mut looks = 0;
    for acts in 0.. {
        ensure!(acts < 200, "the trace does not end");
        let before = asked(page).await?;
        match before.0.as_str() {
            "switch_to" | "switch_on" | "cycle" => {
                trace.press_done().await?;
            }
            // Asked for where a look took long: an outage could have come between.
            "watch" => {
                let view: Value = reqwest::get(format!("{}/api/homes/weir/trace", site.address)).await?.json().await?;
                let said = |of: &str| view["next"][of].as_str().unwrap_or_default().to_owned();
                let (place, breaker) = (said("place"), said("breaker"));
                let point = place.split(", ").nth(1).context("a place")?;
                let (_, _, fed) = WIRING.iter().find(|(_, name, _)| *name == point).context("an unknown point")?;
                let is_off = page.off_now().await?.iter().any(|b| b == fed);
                let words = match (is_off, breaker.trim_start_matches('b') == *fed) {
                    (true, _) => "It is dark already",
                    (_, true) => "It went out, and came back",
                    _ => "It stayed lit",
                };
                page.press(words).await?;
            }
            "look_under" => {
                // The screen may have moved on since it was asked what is next.
                let Ok(point) = trace.current().await else {
                    page.wait_until("the screen asks for something else", async || Ok(asked(page).await? != before)).await?;
                    continue;
                };
                let off = page.off_now().await?;
                several |= off.len() > 1;
                let (_, _, fed) = WIRING.iter().find(|(_, name, _)| *name == point).context("an unknown point")?;
                looks += 1;
                trace.answer(&point, if off.iter().any(|b| b == fed) { "dark" } else { "lit" }).await?;
            }
            "done" => break,
            "see_all_lit" => {}
            other => bail!("the trace asks to {other}"),
        }
        // The screen follows; another answer is given only to what it asks then.
        page.wait_until("the screen asks for something else", async || Ok(asked(page).await? != before)).await?;
    }
    ensure!(several, "several were off at once");
    ensure!(looks < 8 * WIRING.len(), "fewer looks than one breaker at a time: {looks}");
    Trace(page).progress_says("10 of 10 proven").await?;
    page.off_now_says("ALL ON").await?;
    let view: Value = reqwest::get(format!("{}/api/homes/weir/points", site.address)).await?.json().await?;
    for point in view["points"].as_array().context("no points")? {
        let (_, _, fed) = WIRING.iter().find(|(_, name, _)| point["id"] == *name).context("an unknown point")?;
        ensure!(point["known"]["breaker"] == format!("b{fed}"), "{point}");
    }
    Ok(())
}
