//! Every screen: axe-core, sizes, titles, keys; and the logbook.

use std::collections::HashSet;

use anyhow::{Context, Result, ensure};
use wayfinder_e2e::screens::*;
use wayfinder_e2e::{Chrome, Page, Site, View};

pub(crate) async fn every_screen_can_be_used_by_everybody(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    let home = format!("{}/h/juniper-lane", site.address);
    let mut found = Vec::new();
    let mut titles = HashSet::new();
    for path in std::iter::once("").chain(EVERY_SCREEN.map(|(path, _)| path)) {
        page.goto(&if path.is_empty() { site.address.clone() } else { format!("{home}{path}") }).await?;
        page.drawn(path).await?;
        found.extend(page.too_small().await?.into_iter().map(|v| format!("{path}: {v}")));
        let (title, heads) = (page.driver.title().await?, page.count("h1").await?);
        if !title.contains(" · Wayfinder") || !(titles.insert(title.clone()) | path.contains('?')) || heads != 1 {
            found.push(format!("{path}: {heads} main headings, title “{title}”"));
        }
        found.extend(violations(page, path).await?);
        if path == "/panel" {
            Panel(page).select("Breaker 12").await?;
            page.test_id("breaker-title").await?;
            found.extend(violations(page, "breaker").await?);
            page.press("Type the card").await?;
            page.field("The card").await?;
            found.extend(violations(page, "card").await?);
        }
        if path.starts_with("/panel/") {
            page.press("Describe the panel").await?;
            page.field("Name").await?;
            found.extend(violations(page, "describe").await?);
        }
        if path == "/more" {
            page.press("Find a room, a point, a number").await?;
            Find(page).letters("kitchen").await?;
            Find(page).something().await?;
            found.extend(violations(page, "find").await?);
        }
        if path == "/house/list" {
            House(page).open_point("").await?;
            page.test_id("because").await?;
            found.extend(violations(page, "evidence").await?);
        }
    }
    ensure!(found.is_empty(), "found:\n{}", found.join("\n"));
    Ok(())
}

/// What axe-core finds, in the light and in the dark.
async fn violations(page: &Page, at: &str) -> Result<Vec<String>> {
    let mut found: Vec<_> = page.accessibility().await?.into_iter().map(|v| format!("light {at}: {v}")).collect();
    page.scheme("dark").await?;
    page.wait_scheme("dark").await?;
    found.extend(page.too_faint().await?.into_iter().map(|v| format!("dark {at}: {v}")));
    page.scheme("light").await?;
    page.wait_scheme("light").await?;
    Ok(found)
}

pub(crate) async fn keys_go_everywhere(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    page.goto(&format!("{}/h/juniper-lane/panel", site.address)).await?;
    page.test_id("fingerpost").await?;
    // The first Tab offers the way past the bars.
    page.keys("\u{e004}").await?;
    ensure!(page.driver.active_element().await?.text().await? == "Skip to the content");
    page.keys("\u{e007}").await?;
    ensure!(page.driver.active_element().await?.id().await?.as_deref() == Some("main"));
    for (key, path) in [("gh", "/house"), ("gd", "/directory"), ("gl", "/logbook"), ("gt", "/trace"), ("gp", "/panel")] {
        page.keys(key).await?;
        page.drawn(path).await.context(key)?;
    }
    page.keys("?").await?;
    page.dialog_says("Go to Trace").await?;
    page.press("Close").await?;
    page.dialog_closed().await?;
    // Along the post, and to a number.
    Panel(page).select("Breaker 1").await?;
    page.keys("\u{e015}").await?; // arrow down
    Panel(page).facts_say("leg B").await?;
    page.keys("18").await?;
    Panel(page).facts_say("240 V between its poles").await
}

pub(crate) async fn the_logbook_strikes_out_and_back_in(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    let (directory, logbook) = (Directory(page), LogbookScreen(page));
    let home = format!("{}/h/juniper-lane", site.address);
    page.goto(&format!("{home}/directory")).await?;
    directory.line_says("10", "proven", "Kitchen: dishwasher").await?;
    page.goto(&format!("{home}/logbook")).await?;
    let line = logbook.line("Kitchen, dishwasher: dark").await?;
    page.press(&format!("Strike out line {line}")).await?;
    logbook.wait_struck(line, true).await?;
    page.goto(&format!("{home}/directory")).await?;
    directory.line_says("10", "not_proven", "Not proven (old card: dishwasher)").await?;
    page.goto(&format!("{home}/logbook")).await?;
    logbook.show(line).await?;
    page.press(&format!("Strike line {line} back in")).await?;
    logbook.wait_struck(line, false).await?;
    page.goto(&format!("{home}/directory")).await?;
    directory.line_says("10", "proven", "Kitchen: dishwasher").await?;
    // A line that others depend on goes only with them.
    page.goto(&format!("{home}/logbook")).await?;
    let panel = logbook.line("Panel: Greenhouse panel").await?;
    page.press(&format!("Strike out line {panel}")).await?;
    LogbookScreen(page).dependents_say("later lines depend on this").await?;
    page.press("Cancel").await
}
