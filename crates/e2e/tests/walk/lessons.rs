//! The lessons: know your panel, and find the fault.

use anyhow::{Result, ensure};
use thirtyfour::By;
use wayfinder_e2e::screens::{Practice, Trips};
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

pub(crate) async fn the_own_panel_is_asked_back(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let house = "home Weir House\npanel 8\nmain is main 100 A, with its main inside\n1 20 kitchen\n3 20 hall\n5-7 30/2 range";
    Somebody::new(&site, "weir").act(0, house).await?;
    let practice = Practice(page);
    page.goto(&format!("{}/h/weir/practice", site.address)).await?;
    practice.lessons_say("Know your panel · not tried").await?;
    page.can_be_used_by_everybody().await?;
    page.press("Next: Know your panel").await?;
    practice.way_says("Live with the main off").await?;
    page.can_be_used_by_everybody().await?;
    // A wrong answer says why, and the lesson is not learnt with it.
    practice.asks("The main of Main panel is off. What in it is live all the same?").await?;
    page.press("nothing").await?;
    page.says("No: the lugs ahead of the main. The wires from the meter end at those lugs.").await?;
    for first in [false, true] {
        for (n, answer) in ["the lugs ahead of the main", "A", "both", "240 V", "the difference"].into_iter().enumerate() {
            if first || n > 0 {
                page.press(answer).await?;
                page.says("Right:").await?;
            }
            page.press("Go on").await?;
        }
        if !first {
            page.says("4 of 5 right").await?;
            page.press("Once more").await?;
        }
    }
    page.says("You know your panel").await?;
    page.press("To the lessons").await?;
    practice.lessons_say("Know your panel · done well").await?;
    // The next one leads to where a house for it is made: one that is traced already.
    page.press("Next: The card").await?;
    page.says("It is traced already, and its loads are entered by the library.").await
}

/// The buttons of the next look, by what the screen shows.
async fn answer(page: &Page) -> Result<()> {
    let shown = page.test_id("display").await?.text().await?;
    let label = shown.trim_end_matches('.');
    if let Some(volts) = label.strip_suffix(" V from the short slot to the long one") {
        page.fill("Volts", volts).await?;
        return page.keys("\u{e007}").await;
    }
    if let Some(rest) = label.strip_prefix("The handle of ") {
        let number = rest.split(' ').next().unwrap_or_default();
        page.choose("Handle", number).await?;
        let how = if rest.ends_with("stands off") { "is off" } else { "stands tripped" };
        return page.press(&format!("{number} {how}")).await;
    }
    if label == "It cannot be told" { page.press("Cannot tell: another look").await } else { page.press(label).await }
}

pub(crate) async fn a_fault_is_found_in_a_made_up_house(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let practice = Practice(page);
    page.goto(&site.address).await?;
    page.choose("To practice", "find the fault: something is dark, and why").await?;
    page.choose("How hard", "Plain").await?;
    page.fill("Points", "12").await?;
    page.fill("House number", "3").await?;
    page.press("Make this house").await?;
    page.test_id("display").await?;
    page.can_be_used_by_everybody().await?;
    for look in 0.. {
        ensure!(look < 30, "no end of looks");
        let title = page.test_id("instruction").await?.text().await?;
        answer(page).await?;
        page.wait_until("the next look, or a name for it", async || {
            if !page.driver.find_all(By::Css("[data-testid=named]")).await?.is_empty() {
                return Ok(true);
            }
            let now = page.driver.find_all(By::Css("[data-testid=instruction]")).await?;
            let Some(now) = now.first() else { return Ok(false) };
            Ok(now.text().await.is_ok_and(|now| now != title))
        })
        .await?;
        if !page.driver.find_all(By::Css("[data-testid=named]")).await?.is_empty() {
            break;
        }
    }
    page.press("That was it").await?;
    Trips(page).over("").await?;
    page.press("Your marks").await?;
    practice.marks_say("Every answer is what was shown.").await?;
    practice.marks_say("Nothing that could have hurt somebody.").await?;
    practice.marks_say("That was it.").await?;
    practice.marks_say("It was").await?;
    practice.lessons_say("Find the fault · done well").await
}
