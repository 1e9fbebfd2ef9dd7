//! Two browsers trace a made-up house together to its end, one of them cut off for a while; a third without the code gets
//! nothing, and guessing is slowed down.

use std::time::Instant;

use anyhow::{Context, Result, bail, ensure};
use serde_json::{Value, json};
use thirtyfour::By;
use wayfinder_core::{Level, Recipe};
use wayfinder_e2e::screens::Trace;
use wayfinder_e2e::{Chrome, Page, Site, View};

use crate::practice_house::{instrument_for_current, made_up, read, said};

/// The owner shares from the desk; gives the address of the second door and a code.
async fn share(owner: &Page, site: &Site) -> Result<(String, String)> {
    owner.press("Share").await?;
    owner.fill("Your passphrase, as the owner", "short").await?;
    owner.press("Share on the home network").await?;
    owner.wait_text(By::Css("[role=dialog]"), "A passphrase has 10 to 200 characters").await?;
    owner.fill("Your passphrase, as the owner", "three brass bells").await?;
    owner.press("Share on the home network").await?;
    let code = owner.test_id("code").await?.text().await?;
    let sharing: Value = reqwest::get(format!("{}/api/sharing", site.address)).await?.json().await?;
    let address = sharing["addresses"][0].as_str().context("an address")?.to_owned();
    let refused = owner.accessibility().await?;
    ensure!(refused.is_empty(), "{refused:?}");
    owner.press("Close").await?;
    Ok((address, code))
}

async fn doing(helper: &Page) -> Result<String> {
    let step = helper.test_id("helper-step").await?;
    Ok(step.attr("data-do").await?.unwrap_or_default())
}

/// The helper reads the instrument on their phone and answers for the current point.
async fn look(helper: &Page) -> Result<()> {
    let shown = read(helper, instrument_for_current(helper).await?).await?;
    helper.press(said(&shown)?).await
}

async fn lines(site: &Site, home: &str) -> Result<Vec<Value>> {
    let page: Value = reqwest::get(format!("{}/api/homes/{home}/logbook?limit=500", site.address)).await?.json().await?;
    let mut lines = page["lines"].as_array().context("lines")?.clone();
    lines.reverse();
    Ok(lines)
}

/// Acts after which a trace of a dozen points does not end.
const MOST_ACTS: usize = 400;

pub(crate) async fn two_browsers_trace_a_house_together_to_the_end(chrome: &Chrome, owner: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let home = made_up(&site, Recipe { seed: 2, points: 12, level: Level::Plain }).await?;
    owner.goto(&format!("{}/h/{home}/trace", site.address)).await?;
    let (address, code) = share(owner, &site).await?;
    let helper = chrome.open(View::Phone).await?;
    let done = trace_together(&site, &home, owner, &helper, (&address, &code)).await;
    if done.is_err() {
        helper.leave_behind("together_helper").await;
    }
    helper.close().await?;
    done
}

async fn trace_together(site: &Site, home: &str, owner: &Page, helper: &Page, (address, code): (&str, &str)) -> Result<()> {
    helper.goto(&format!("{address}/join#{code}")).await?;
    helper.fill("Your name, for the logbook", "Ada").await?;
    let refused = helper.accessibility().await?;
    ensure!(refused.is_empty(), "{refused:?}");
    helper.press("Come in").await?;
    owner.wait_text(By::Css("[data-testid=people]"), "With Ada").await?;
    let (mut cut_off, mut stale, mut took) = (false, false, Vec::new());
    for acts in 0.. {
        ensure!(acts < MOST_ACTS, "the trace does not end");
        let step = Trace(owner).step().await?;
        match step.as_str() {
            "see_all_lit" | "look" | "look_under" | "see_one_lit_again" => {
                owner.wait_until("the helper is asked to look", async || Ok(doing(helper).await? == "look")).await?;
                if step == "look" && !cut_off {
                    // Cut off: what is recorded meanwhile is kept, also over a reload, and sent once.
                    cut_off = true;
                    let before = lines(site, home).await?.len();
                    let shown = read(helper, instrument_for_current(helper).await?).await?;
                    helper.offline(true).await?;
                    // It was seen eleven seconds ago, by the phone's clock; nothing is heard of the program's meanwhile.
                    helper
                        .driver
                        .execute("window.realNow = Date.now; Date.now = () => window.realNow() - 11000;", vec![])
                        .await?;
                    helper.press(said(&shown)?).await?;
                    helper.wait_text(By::Css("[data-testid=outbox]"), "Not sent yet: 1 line").await?;
                    helper.driver.execute("Date.now = window.realNow;", vec![]).await?;
                    ensure!(lines(site, home).await?.len() == before, "nothing can have come through");
                    // Some seconds later the owner has switched on again: it was seen before that.
                    owner.press("It is on again").await?;
                    owner.wait_text(By::Css("[data-testid=off-now]"), "ALL ON").await?;
                    let switched = lines(site, home).await?.len();
                    helper.offline(false).await?;
                    owner
                        .wait_until("the look that waited is sent", async || Ok(lines(site, home).await?.len() == switched + 1))
                        .await?;
                    helper.wait_gone(By::Css("[data-testid=outbox]")).await?;
                    helper.driver.refresh().await?;
                    owner.wait_until("the helper's phone is back", async || doing(helper).await.map(|_| true)).await?;
                    let late = lines(site, home).await?;
                    ensure!(late.len() == switched + 1, "sent once");
                    let entry = &late[switched]["line"]["entry"];
                    ensure!(entry["by"] == "Ada" && entry["fact"]["kind"] == "point_seen", "{entry}");
                    let point = entry["fact"]["point"].as_str().context("a point")?;
                    let told: Value =
                        reqwest::get(format!("{}/api/homes/{home}/points/{point}/evidence", site.address)).await?.json().await?;
                    let looks = told["lines"].as_array().context("looks")?;
                    let look = looks.iter().find(|look| look["line"] == entry["id"]).context("the look that waited")?;
                    ensure!(look["off"].as_array().is_some_and(|off| off.len() == 1), "filed under what was off then: {look}");
                    stale = true;
                    continue;
                }
                let seq_of = async || -> Result<String> {
                    let side = owner.test_id("panel-side").await?;
                    Ok(side.attr("data-seq").await?.unwrap_or_default())
                };
                let before = seq_of().await?;
                look(helper).await?;
                let pressed = Instant::now();
                owner.wait_until("the owner's screen follows", async || Ok(seq_of().await? != before)).await?;
                took.push(pressed.elapsed().as_millis());
                owner
                    .wait_until("and the helper's", async || {
                        let step = helper.test_id("helper-step").await?;
                        Ok(step.attr("data-seq").await?.unwrap_or_default() == seq_of().await?)
                    })
                    .await?;
            }
            "switch_off" | "switch_on" => {
                let before = owner.test_id("off-now").await?.attr("data-off").await?.unwrap_or_default();
                owner.wait_until("the helper waits", async || Ok(doing(helper).await? == "quiet")).await?;
                owner.press(if step == "switch_off" { "Done, it is off" } else { "Done, it is on" }).await?;
                owner
                    .wait_until("what is off changes on both", async || {
                        let now = owner.test_id("off-now").await?.attr("data-off").await?.unwrap_or_default();
                        Ok(now != before && helper.test_id("off-now").await?.attr("data-off").await?.unwrap_or_default() == now)
                    })
                    .await?;
            }
            "done" => break,
            other => bail!("the trace asks to {other}"),
        }
    }
    ensure!(cut_off && stale, "the helper was cut off on the way");
    took.sort_unstable();
    let (middle, late) = (took[took.len() / 2], took[took.len() * 95 / 100]);
    eprintln!("from one phone to the other: median {middle} ms, 95th percentile {late} ms of {}", took.len());
    owner.wait_text(By::Css("[data-testid=progress]"), "12 of 12 proven").await?;
    helper.wait_text(By::Css("[data-testid=instruction]"), "Nothing more to look at").await?;
    // Sent away: the phone shows the way in, and nothing of the home.
    owner.press("With Ada").await?;
    owner.press("Send away").await?;
    helper.find(By::XPath("//h2[contains(., 'Help with a trace')]")).await?;
    let text = helper.find(By::Css("body")).await?.text().await?;
    ensure!(!text.contains("Made-up house"), "{text}");
    Ok(())
}

pub(crate) async fn without_the_code_nothing_is_shown_and_guessing_is_slowed_down(
    chrome: &Chrome,
    owner: &Page,
    _: View,
) -> Result<()> {
    let site = Site::empty().await?;
    let home = made_up(&site, Recipe { seed: 5, points: 10, level: Level::Plain }).await?;
    owner.goto(&format!("{}/h/{home}/trace", site.address)).await?;
    let (address, code) = share(owner, &site).await?;
    let stranger = chrome.open(View::Phone).await?;
    let done = async {
        stranger.goto(&format!("{address}/h/{home}/trace")).await?;
        stranger.find(By::XPath("//h2[contains(., 'Help with a trace')]")).await?;
        let http = reqwest::Client::new();
        for path in [
            "homes".to_owned(),
            format!("homes/{home}"),
            format!("homes/{home}/helper"),
            format!("homes/{home}/stream"),
            format!("homes/{home}/export"),
            "sharing".to_owned(),
        ] {
            let answer = http.get(format!("{address}/api/{path}")).send().await?;
            ensure!(answer.status() == 401, "{path}: {}", answer.status());
            let text = answer.text().await?;
            ensure!(!text.contains("Made-up"), "{path}: {text}");
        }
        let body = json!({ "entries": [] });
        let written = http.post(format!("{address}/api/homes/{home}/entries")).json(&body).send().await?;
        ensure!(written.status() == 401, "{}", written.status());
        for _ in 0..5 {
            stranger.fill("Code from the owner’s screen", "WRNG-CDES").await?;
            stranger.fill("Your name, for the logbook", "Eve").await?;
            stranger.press("Come in").await?;
            stranger.wait_text(By::Css("[data-testid=come-in-problem]"), "This code cannot be used.").await?;
            // The next answer is another one.
            stranger.driver.refresh().await?;
        }
        // Now also the right one has to wait.
        stranger.fill("Code from the owner’s screen", &code).await?;
        stranger.fill("Your name, for the logbook", "Eve").await?;
        stranger.press("Come in").await?;
        stranger.wait_text(By::Css("[data-testid=come-in-problem]"), "Too many wrong tries. Wait ").await?;
        // Ended: nobody answers at the second door.
        owner.press("Shared").await?;
        owner.press("End sharing, send everybody away").await?;
        owner.named("button", "Share on the home network").await?;
        owner.wait_until("the second door is closed", async || Ok(reqwest::get(format!("{address}/api/me")).await.is_err())).await
    };
    let done = done.await;
    if done.is_err() {
        stranger.leave_behind("stranger").await;
    }
    stranger.close().await?;
    done
}
