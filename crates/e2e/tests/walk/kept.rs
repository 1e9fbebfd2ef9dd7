//! What a device keeps: a page that is loaded again while the program does not answer, and nothing after somebody went.

use anyhow::{Result, ensure};
use serde_json::json;
use thirtyfour::By;
use wayfinder_core::{Level, Recipe};
use wayfinder_e2e::screens::{LogbookScreen, Trace};
use wayfinder_e2e::{Chrome, Page, Site, View};

use crate::first_home::small_home;
use crate::practice_house::made_up;
use crate::together::share;

/// Waits until the device has kept an answer whose address ends so.
async fn keeps(page: &Page, end: &str) -> Result<()> {
    let kept = "const [end, done] = arguments;
        (async () => {
            if (navigator.serviceWorker.controller === null || !(await caches.has('wayfinder-state'))) return false;
            const all = await (await caches.open('wayfinder-state')).keys();
            return all.some((request) => new URL(request.url).pathname.endsWith(end));
        })().then(done);";
    page.wait_until(&format!("the device keeps {end}"), async || {
        Ok(page.driver.execute_async(kept, vec![json!(end)]).await?.convert::<bool>()?)
    })
    .await
}

/// Whether the device keeps an answer whose address begins so.
pub(crate) async fn keeps_any(page: &Page, begin: &str) -> Result<bool> {
    let kept = "const [begin, done] = arguments;
        (async () => (await (await caches.open('wayfinder-state')).keys()).some((request) =>
            new URL(request.url).pathname.startsWith(begin)))().then(done);";
    Ok(page.driver.execute_async(kept, vec![json!(begin)]).await?.convert::<bool>()?)
}

/// How many answers the device keeps.
async fn kept(page: &Page) -> Result<u64> {
    let count = "const [done] = arguments;
        (async () => (await caches.has('wayfinder-state')) ? (await (await caches.open('wayfinder-state')).keys()).length : 0)()
            .then(done);";
    Ok(page.driver.execute_async(count, vec![]).await?.convert::<u64>()?)
}

pub(crate) async fn a_page_loaded_again_without_the_program_shows_how_things_stood(
    _: &Chrome,
    page: &Page,
    _: View,
) -> Result<()> {
    let mut site = Site::empty().await?;
    let home = small_home(page, &site).await?;
    page.goto(&format!("{}/", site.address)).await?;
    keeps(page, "/api/homes").await?;
    page.goto(&format!("{home}/trace")).await?;
    let trace = Trace(page);
    trace.begin().await?;
    trace.wait_current("counter").await?;
    let off = page.off_now().await?;
    for answer in ["/api/me", "/trace", "/panels", "/points"] {
        keeps(page, answer).await?;
    }
    site.stop().await?;
    page.driver.refresh().await?;
    page.stale_says("what is shown may be old, also which breakers are off. It is from").await?;
    trace.wait_current("counter").await?;
    ensure!(page.off_now().await? == off, "what was off is shown");
    page.can_be_used_by_everybody().await?;
    trace.answer("counter", "lit").await?;
    page.outbox_says("Not sent yet: 1 line").await?;
    page.driver.refresh().await?;
    page.outbox_says("Not sent yet: 1 line").await?;
    page.stale_says("It is from").await?;
    // The list of homes says so, too.
    page.goto(&format!("{}/", site.address)).await?;
    page.stale_says("It is from").await?;
    page.says("Mill Cottage").await?;
    site.start_again().await?;
    page.all_is_sent().await?;
    page.goto(&format!("{home}/logbook")).await?;
    let lines = LogbookScreen(page).count("Kitchen, counter: lit").await?;
    ensure!(lines == 1, "it stands there {lines} times");
    site.stop().await
}

pub(crate) async fn nothing_is_kept_of_whoever_went(chrome: &Chrome, owner: &Page, _: View) -> Result<()> {
    let mut site = Site::empty().await?;
    let home = made_up(&site, Recipe::to_trace(2, 12, Level::Plain)).await?;
    owner.goto(&format!("{}/h/{home}/trace", site.address)).await?;
    let (address, code) = share(owner, &site).await?;
    let helper = chrome.open(View::Phone).await?;
    let done = async {
        let come_in = async |code: &str, name: &str| {
            helper.goto(&format!("{address}/join#{code}")).await?;
            helper.driver.refresh().await?;
            helper.fill("Your name, for the logbook", name).await?;
            helper.press("Come in").await?;
            owner.people_say(&format!("With {name}")).await?;
            keeps(&helper, "/helper").await
        };
        come_in(&code, "Ada").await?;
        helper.press("Leave").await?;
        helper.named("button", "Come in").await?;
        ensure!(kept(&helper).await? == 0, "of somebody who left");
        // The owner sends somebody away.
        owner.test_id("people").await?.click().await?;
        owner.press("Make a code for a helper").await?;
        let code = owner.test_id("code").await?.text().await?;
        owner.press("Close").await?;
        come_in(&code, "Bo").await?;
        owner.test_id("people").await?.click().await?;
        owner.press("Send away").await?;
        helper.named("button", "Come in").await?;
        helper.wait_until("nothing is kept of somebody who was sent away", async || Ok(kept(&helper).await? == 0)).await?;
        // The owner goes away from another device as well.
        helper.fill("Owner’s passphrase", "three brass bells").await?;
        helper.press("Sign in").await?;
        helper.goto(&format!("{address}/h/{home}/more")).await?;
        keeps(&helper, "/points").await?;
        helper.press("Sign out").await?;
        helper.named("button", "Come in").await?;
        ensure!(kept(&helper).await? == 0, "of an owner who signed out");
        // Nor is it found once the program is gone.
        site.stop().await?;
        helper.driver.refresh().await?;
        helper.wait_text(By::Css("body"), "Wayfinder does not answer").await
    };
    let done = done.await;
    if done.is_err() {
        helper.leave_behind("kept_helper").await;
    }
    helper.close().await?;
    done
}
