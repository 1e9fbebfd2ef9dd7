//! A freezer that may be without power only so long: its clock on every screen, and the way back.

use std::time::{SystemTime, UNIX_EPOCH};

use anyhow::{Result, ensure};
use serde_json::{Value, json};
use thirtyfour::By;
use wayfinder_e2e::{Chrome, Page, Site, View};

async fn write(site: &Site, name: &str, minutes_ago: u64, facts: Vec<Value>) -> Result<()> {
    let now = SystemTime::now().duration_since(UNIX_EPOCH)?.as_millis() as u64;
    let at = now - minutes_ago * 60_000;
    let entry = |(n, fact): (usize, Value)| json!({ "id": format!("{name}{n}"), "at": at, "by": "x", "fact": fact });
    let entries: Vec<Value> = facts.into_iter().enumerate().map(entry).collect();
    let address = format!("{}/api/homes/shed/entries", site.address);
    reqwest::Client::new().post(address).json(&json!({ "entries": entries })).send().await?.error_for_status()?;
    Ok(())
}

pub(crate) async fn what_may_be_dark_only_so_long_is_brought_back(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let breaker = |n: u8| json!({ "kind": "breaker_placed", "breaker": format!("b{n}"), "panel": "main", "at": [n.to_string()], "amps": 15 });
    let house = vec![
        json!({ "kind": "home_described", "name": "Shed" }),
        json!({ "kind": "panel_described", "panel": "main", "name": "Main panel", "place": "hall", "spaces": 6, "columns": "two",
            "numbering": "odd_even", "service": "split_phase", "card": { "width_mm": 120, "height_mm": 200 } }),
        breaker(1),
        breaker(3),
        json!({ "kind": "room_placed", "room": "cellar", "name": "Cellar" }),
        json!({ "kind": "point_placed", "point": "freezer", "room": "cellar", "point_kind": "appliance", "name": "freezer", "volts": 120 }),
    ];
    write(&site, "house", 60, house).await?;
    // Its time is entered where the point is.
    page.goto(&format!("{}/h/shed/house/list", site.address)).await?;
    page.find(By::XPath("//nav[@aria-label='Rooms']//button[starts-with(normalize-space(.), 'Cellar')]")).await?.click().await?;
    page.press("Edit").await?;
    page.fill("freezer: without power at most, min", "1").await?;
    page.press("Save").await?;
    page.wait_text(By::Css("[data-testid=form-error]"), "How long it may be without power is 2 to 1440 minutes.").await?;
    page.fill("freezer: without power at most, min", "30").await?;
    page.press("Save").await?;
    page.wait_gone(By::Css("[data-testid=clock]")).await?;
    // A breaker that may feed it is off: the clock runs on every screen, also on this one.
    let off = |n: u8| json!({ "kind": "breaker_switched", "breaker": format!("b{n}"), "to": "off" });
    let on = |n: u8| json!({ "kind": "breaker_switched", "breaker": format!("b{n}"), "to": "on" });
    write(&site, "soon", 10, vec![off(1)]).await?;
    page.wait_text(By::Css("[data-testid=clock]"), "Freezer may be without power: 19:").await?;
    page.wait_text(By::Css("[data-testid=clock]"), "left of 30 min").await?;
    let seen = json!({ "kind": "point_seen", "point": "freezer", "seen": "lit" });
    write(&site, "lit", 0, vec![seen]).await?;
    page.wait_gone(By::Css("[data-testid=clock]")).await?;
    // Forgotten: off for half an hour, and it has not been seen lit with this one off.
    write(&site, "over", 31, vec![on(1), off(3)]).await?;
    page.goto(&format!("{}/h/shed/trace", site.address)).await?;
    let over = By::Css("[data-testid=clock-over]");
    page.wait_text(over.clone(), "Turn 3 ON again now").await?;
    page.wait_text(over.clone(), "Freezer: at most 30 min without power. Switch it on first.").await?;
    let refused = page.accessibility().await?;
    ensure!(refused.is_empty(), "{refused:?}");
    page.press("Done, it is on").await?;
    page.wait_gone(over).await?;
    page.wait_text(By::Css("[data-testid=off-now]"), "ALL ON").await
}
