//! Takes every picture of `docs/screenshots/` from the demo home.

use std::path::Path;

use anyhow::Result;
use serde_json::{Value, json};
use thirtyfour::By;
use wayfinder_e2e::screens::{Panel, Trips, Work};
use wayfinder_e2e::{Chrome, Page, Site, View};

const HOME: &str = "/h/juniper-lane";

#[tokio::main]
async fn main() -> Result<()> {
    let folder = std::env::args().nth(1).unwrap_or_else(|| "docs/screenshots".into());
    let folder = Path::new(&folder);
    std::fs::create_dir_all(folder)?;
    let site = Site::demo().await?;
    let chrome = Chrome::start()?;
    let desk = chrome.open(View::Desk).await?;
    let phone = chrome.open(View::Phone).await?;
    for (page, size) in [(&desk, "desk"), (&phone, "phone")] {
        page.scheme("light").await?;
        for path in ["", "/panel", "/house", "/logbook"] {
            let address = if path.is_empty() { site.address.clone() } else { format!("{}{HOME}{path}", site.address) };
            page.goto(&address).await?;
            page.drawn(path).await?;
            let name = path.trim_start_matches('/');
            let name = if name.is_empty() { "homes" } else { name };
            if name == "house" && size == "desk" {
                page.goto(&format!("{address}?at=p:schoolroom-south-wall-left")).await?;
                page.test_id("point-facts").await?;
            }
            if name == "panel" && size == "desk" {
                Panel(page).select("Breaker 12").await?;
                page.driver.execute("document.activeElement.blur(); window.scrollTo(0, 0)", vec![]).await?;
            }
            if size == "desk" {
                take(page, folder, &format!("{name}-{size}")).await?;
            }
        }
    }
    phone.goto(&format!("{}{HOME}/house/walk/kitchen", site.address)).await?;
    phone.test_id("walk").await?;
    take(&phone, folder, "house-walk-phone").await?;
    for (page, path, name) in [
        (&desk, "/loads", "loads-desk"),
        (&phone, "/loads/circuit/breaker-11", "loads-circuit-phone"),
        (&desk, "/loads/service", "service-desk"),
        (&phone, "/loads/survey", "survey-phone"),
    ] {
        page.goto(&format!("{}{HOME}{path}", site.address)).await?;
        page.drawn(path).await?;
        take(page, folder, name).await?;
    }
    work(&site, &desk, &phone, folder).await?;
    for (path, name) in [("/h/juniper-lane/checks", "checks-desk"), ("/h/juniper-lane/overview", "overview-desk")] {
        desk.goto(&format!("{}{path}", site.address)).await?;
        desk.find(By::Css("[data-testid=letter] li, [data-testid=findings]")).await?;
        take(&desk, folder, name).await?;
    }
    for (page, size) in [(&desk, "desk"), (&phone, "phone")] {
        page.goto(&format!("{}{HOME}/trace", site.address)).await?;
        page.test_id("panel-side").await?;
        if size == "desk" {
            page.press("Done, it is off").await?;
            // A point that went dark with a breaker that is on again comes first.
            page.find(By::Css("[data-step=look_under]")).await?;
            page.keys("l").await?;
            page.find(By::Css("[data-step=look]")).await?;
            page.find(By::Css("[data-point] [aria-pressed=true]")).await?;
        }
        page.driver.execute("window.scrollTo(0, 0)", vec![]).await?;
        take(page, folder, &format!("trace-{size}")).await?;
    }
    phone.goto(&format!("{}{HOME}/trips?point=porch-by-the-door", site.address)).await?;
    phone.press("Find out why").await?;
    phone.press("None of these").await?;
    Trips(&phone).next_is("Press RESET").await?;
    phone.driver.execute("document.activeElement.blur(); window.scrollTo(0, 0)", vec![]).await?;
    take(&phone, folder, "trips-phone").await?;
    together(&site, &desk, &phone, folder).await?;
    desk.close().await?;
    phone.close().await
}

/// A wish and its ways; a job sheet on a phone, with the panel open and not yet proven dead.
async fn work(site: &Site, desk: &Page, phone: &Page, folder: &Path) -> Result<()> {
    let wish = "/work?wish=20+A+circuit+for+the+freezer+that+takes+8+A";
    desk.goto(&format!("{}{HOME}{wish}", site.address)).await?;
    desk.drawn(wish).await?;
    desk.press("Find ways").await?;
    desk.driver.execute("document.activeElement.blur(); window.scrollTo(0, 0)", vec![]).await?;
    take(desk, folder, "work-desk").await?;
    phone.goto(&format!("{}{HOME}/panel", site.address)).await?;
    Panel(phone).select("Breaker 17").await?;
    phone.press("Work on it").await?;
    phone.find(By::XPath("//*[@role='menuitem'][contains(., 'one of the same kind')]")).await?.click().await?;
    let job = Work(phone);
    job.until("dead").await?;
    job.read("121.4").await?;
    job.reading("A to neutral").await?;
    phone.scheme("dark").await?;
    take(phone, folder, "job-phone-dark").await?;
    phone.scheme("light").await
}

/// A made-up house: shared, seen by a helper, traced with the instruments on the screen, marked.
async fn together(site: &Site, desk: &Page, phone: &Page, folder: &Path) -> Result<()> {
    let recipe = json!({ "seed": 7, "points": 30, "level": "usual" });
    let client = reqwest::Client::new();
    let made: Value =
        client.post(format!("{}/api/practice", site.address)).json(&recipe).send().await?.error_for_status()?.json().await?;
    let home = made["home"].as_str().unwrap_or_default();
    desk.goto(&format!("{}/h/{home}/trace", site.address)).await?;
    desk.press("Share").await?;
    desk.fill("Your passphrase, as the owner", "three brass bells").await?;
    desk.press("Share on the home network").await?;
    let code = desk.test_id("code").await?.text().await?;
    desk.press("Close").await?;
    let sharing: Value = reqwest::get(format!("{}/api/sharing", site.address)).await?.json().await?;
    phone.goto(&format!("{}/join#{code}", sharing["addresses"][0].as_str().unwrap_or_default())).await?;
    phone.fill("Your name, for the logbook", "Ada").await?;
    phone.press("Come in").await?;
    phone.test_id("helper-step").await?;
    take(phone, folder, "helper-phone").await?;
    desk.goto(&format!("{}/h/{home}/practice", site.address)).await?;
    desk.press("I am done: show the wiring").await?;
    desk.find(By::XPath("//li[contains(., 'left open')]")).await?;
    take(desk, folder, "practice-desk").await?;
    directory(site, desk, folder).await
}

/// The card with own words, some of which no longer match, and the card that hangs.
async fn directory(site: &Site, desk: &Page, folder: &Path) -> Result<()> {
    let api = format!("{}/api{HOME}", site.address).replace("/h/", "/homes/");
    let view: serde_json::Value = reqwest::get(format!("{api}/directory")).await?.json().await?;
    let own = |number: &str, text: &str, like: &str| {
        let cells = view["card"]["cells"].as_array().map_or(&[][..], Vec::as_slice);
        let of = |number: &str| {
            cells.iter().find(|cell| cell["number"] == number).map_or(serde_json::Value::Null, |cell| cell["own"].clone())
        };
        let mut fact = of(number);
        fact["kind"] = "circuit_worded".into();
        fact["text"] = text.into();
        fact["proven"] = of(like).get("proven").cloned().unwrap_or_else(|| serde_json::json!([]));
        fact
    };
    let mut hung = view["to_hang"].clone();
    hung["kind"] = "card_hung".into();
    let facts = [
        hung,
        own("1", "Kitchen counter", "10"),
        own("9", "Fridge", "24"),
        own("10", "Dishwasher", "10"),
        own("24", "Gen. light", "24"),
    ];
    let version = wayfinder_core::Fact::VERSION;
    let entry = |(n, fact): (usize, &serde_json::Value)| serde_json::json!({ "id": format!("shown-{n}"), "at": 1_796_000_000_000_i64 + n as i64, "by": "Owner", "version": version, "fact": fact });
    let entries: Vec<_> = facts.iter().enumerate().map(entry).collect();
    let sent =
        reqwest::Client::new().post(format!("{api}/entries")).json(&serde_json::json!({ "entries": entries })).send().await?;
    sent.error_for_status()?;
    desk.goto(&format!("{}{HOME}/directory", site.address)).await?;
    desk.heading_says("3 lines are to be looked at").await?;
    take(desk, folder, "directory-desk").await
}

async fn take(page: &Page, folder: &Path, name: &str) -> Result<()> {
    page.driver.execute("await document.fonts.ready", vec![]).await?;
    tokio::time::sleep(std::time::Duration::from_millis(250)).await; // a picture, not a test: ripples end
    page.picture(&folder.join(format!("{name}.png"))).await?;
    println!("{name}.png");
    Ok(())
}
