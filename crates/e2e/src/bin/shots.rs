//! Takes every picture of `docs/screenshots/` from the demo home.

use std::path::Path;

use anyhow::Result;
use thirtyfour::By;
use wayfinder_e2e::screens::Panel;
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
        for (path, ready) in [
            ("", "h1"),
            ("/panel", "[data-testid=fingerpost]"),
            ("/house", "[data-testid=points]"),
            ("/directory", "[data-testid=card]"),
            ("/logbook", "[data-testid=logbook]"),
        ] {
            let address = if path.is_empty() { site.address.clone() } else { format!("{}{HOME}{path}", site.address) };
            page.goto(&address).await?;
            page.find(By::Css(ready.to_owned())).await?;
            let name = path.trim_start_matches('/');
            let name = if name.is_empty() { "homes" } else { name };
            if name == "panel" && size == "desk" {
                Panel(page).select("Breaker 12").await?;
                page.driver.execute("document.activeElement.blur(); window.scrollTo(0, 0)", vec![]).await?;
            }
            take(page, folder, &format!("{name}-{size}")).await?;
        }
    }
    for (page, size) in [(&desk, "desk"), (&phone, "phone")] {
        page.goto(&format!("{}{HOME}/trace", site.address)).await?;
        page.test_id("panel-side").await?;
        if size == "desk" {
            take(page, folder, "trace-off-desk").await?;
            page.press("Done, it is off").await?;
            page.find(By::Css("[data-step=look]")).await?;
            page.keys("d").await?;
            page.find(By::Css("[data-point] [aria-pressed=true]")).await?;
            page.keys("l").await?;
            page.find(By::XPath("(//*[@aria-pressed='true'])[2]")).await?;
        }
        page.scheme("dark").await?;
        take(page, folder, &format!("trace-{size}-dark")).await?;
        page.scheme("light").await?;
        take(page, folder, &format!("trace-{size}")).await?;
    }
    desk.close().await?;
    phone.close().await
}

async fn take(page: &Page, folder: &Path, name: &str) -> Result<()> {
    page.driver.execute("await document.fonts.ready", vec![]).await?;
    tokio::time::sleep(std::time::Duration::from_millis(250)).await; // a picture, not a test: ripples end
    page.picture(&folder.join(format!("{name}.png"))).await?;
    println!("{name}.png");
    Ok(())
}
