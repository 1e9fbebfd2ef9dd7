//! Two browsers trace a made-up house together to its end, one of them cut off for a while; a third without the code gets
//! nothing, and guessing is slowed down.

use std::time::Instant;

use anyhow::{Context, Result, bail, ensure};
use serde_json::{Value, json};
use thirtyfour::By;
use wayfinder_core::{Level, Recipe};
use wayfinder_e2e::screens::{Loads, Practice, Trace, Trips, said};
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

use crate::practice_house::made_up;

/// The owner shares from the desk; gives the address of the second door and a code.
pub(crate) async fn share(owner: &Page, site: &Site) -> Result<(String, String)> {
    owner.press("Share").await?;
    owner.fill("Your passphrase, as the owner", "short").await?;
    owner.press("Share on the home network").await?;
    owner.dialog_says("A passphrase has 12 to 128 characters").await?;
    owner.fill("Your passphrase, as the owner", "three brass bells").await?;
    owner.press("Share on the home network").await?;
    let code = owner.test_id("code").await?.text().await?;
    let sharing: Value = reqwest::get(format!("{}/api/sharing", site.address)).await?.json().await?;
    let address = sharing["addresses"][0].as_str().context("an address")?.to_owned();
    owner.can_be_used_by_everybody().await?;
    owner.press("Close").await?;
    Ok((address, code))
}

/// The helper reads the instrument on their phone and answers for the current point.
async fn look(helper: &Page) -> Result<()> {
    let shown = Practice(helper).read(Practice(helper).instrument_for_current().await?).await?;
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
    let home = made_up(&site, Recipe::to_trace(2, 12, Level::Plain)).await?;
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
    helper.can_be_used_by_everybody().await?;
    helper.press("Come in").await?;
    owner.people_say("With Ada").await?;
    let (mut cut_off, mut stale, mut took) = (false, false, Vec::new());
    for acts in 0.. {
        ensure!(acts < MOST_ACTS, "the trace does not end");
        let step = Trace(owner).step().await?;
        match step.as_str() {
            "see_all_lit" | "look" | "look_under" | "see_one_lit_again" => {
                owner
                    .wait_until("the helper is asked to look", async || Ok(Trace(helper).helper_does().await? == "look"))
                    .await?;
                if step == "look" && !cut_off {
                    // Cut off: what is recorded meanwhile is kept, also over a reload, and sent once.
                    cut_off = true;
                    let before = lines(site, home).await?.len();
                    let shown = Practice(helper).read(Practice(helper).instrument_for_current().await?).await?;
                    helper.offline(true).await?;
                    // It was seen eleven seconds ago, by the phone's clock; nothing is heard of the program's meanwhile.
                    helper
                        .driver
                        .execute("window.realNow = Date.now; Date.now = () => window.realNow() - 11000;", vec![])
                        .await?;
                    helper.press(said(&shown)?).await?;
                    helper.outbox_says("Not sent yet: 1 line").await?;
                    helper.driver.execute("Date.now = window.realNow;", vec![]).await?;
                    ensure!(lines(site, home).await?.len() == before, "nothing can have come through");
                    // Some seconds later the owner has switched on again: it was seen before that.
                    owner.press("It is on again").await?;
                    owner.off_now_says("ALL ON").await?;
                    let switched = lines(site, home).await?.len();
                    helper.offline(false).await?;
                    owner
                        .wait_until("the look that waited is sent", async || Ok(lines(site, home).await?.len() == switched + 1))
                        .await?;
                    helper.all_is_sent().await?;
                    helper.driver.refresh().await?;
                    owner
                        .wait_until("the helper's phone is back", async || Trace(helper).helper_does().await.map(|_| true))
                        .await?;
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
                let before = Trace(owner).followed().await?;
                look(helper).await?;
                let pressed = Instant::now();
                owner.wait_until("the owner's screen follows", async || Ok(Trace(owner).followed().await? != before)).await?;
                took.push(pressed.elapsed().as_millis());
                owner
                    .wait_until(
                        "and the helper's",
                        async || Ok(Trace(helper).followed().await? == Trace(owner).followed().await?),
                    )
                    .await?;
            }
            "switch_off" | "switch_on" => {
                let before = owner.off_now().await?;
                owner.wait_until("the helper waits", async || Ok(Trace(helper).helper_does().await? == "quiet")).await?;
                owner.press(if step == "switch_off" { "Done, it is off" } else { "Done, it is on" }).await?;
                owner
                    .wait_until("what is off changes on both", async || {
                        let now = owner.off_now().await?;
                        Ok(now != before && helper.off_now().await? == now)
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
    Trace(owner).progress_says("12 of 12 proven").await?;
    Trace(helper).instruction_says("Nothing more to look at").await?;
    // Sent away: the phone shows the way in, and nothing of the home.
    owner.press("With Ada").await?;
    owner.press("Send away").await?;
    helper.shut_out().await?;
    let text = helper.words().await?;
    ensure!(!text.contains("Made-up house"), "{text}");
    Ok(())
}

pub(crate) async fn without_the_code_nothing_is_shown_and_guessing_is_slowed_down(
    chrome: &Chrome,
    owner: &Page,
    _: View,
) -> Result<()> {
    let site = Site::empty().await?;
    let home = made_up(&site, Recipe::to_trace(5, 10, Level::Plain)).await?;
    owner.goto(&format!("{}/h/{home}/trace", site.address)).await?;
    let (address, code) = share(owner, &site).await?;
    let stranger = chrome.open(View::Phone).await?;
    let done = async {
        stranger.goto(&format!("{address}/h/{home}/trace")).await?;
        stranger.shut_out().await?;
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
            stranger.way_in_says("This code cannot be used.").await?;
            // The next answer is another one.
            stranger.driver.refresh().await?;
        }
        // Now also the right one has to wait.
        stranger.fill("Code from the owner’s screen", &code).await?;
        stranger.fill("Your name, for the logbook", "Eve").await?;
        stranger.press("Come in").await?;
        stranger.way_in_says("Too many wrong tries. Wait ").await?;
        // Ended: nobody answers at the second door.
        owner.press("Shared").await?;
        owner.press("End sharing and send everybody away").await?;
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

/// Two survey a home: one stands at the meter, the other at the loads, on the same reading.
pub(crate) async fn two_take_a_survey(chrome: &Chrome, owner: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let house = "home Weir House\npanel 12\n1 15 schoolroom\n3-5 30/2 dryer\nroom Schoolroom\npoint Schoolroom receptacle window\n\
                 point Schoolroom appliance dryer\ndryer is 240 V\nproof window 1\nproof dryer 3-5\nload window space_heater";
    Somebody::new(&site, "weir").act(0, house).await?;
    owner.goto(&format!("{}/h/weir/loads/survey", site.address)).await?;
    let (address, code) = share(owner, &site).await?;
    let helper = chrome.open(View::Phone).await?;
    let done = async {
        helper.goto(&format!("{address}/join#{code}")).await?;
        helper.fill("Your name, for the logbook", "Ada").await?;
        helper.press("Come in").await?;
        owner.people_say("With Ada").await?;
        owner.press("With somebody else who is in").await?;
        Loads(owner).side_says("Wait. The other reads the portable heater at Schoolroom, window").await?;
        // Whoever walks reads, and the owner sees it at once.
        Loads(&helper).side_says("Read the portable heater at Schoolroom, window").await?;
        helper.can_be_used_by_everybody().await?;
        helper.press("Write the reading down").await?;
        helper.fill("It shows while it runs, A", "8.1").await?;
        helper.press("Save").await?;
        Loads(&helper).side_says("Nothing more has to be read.").await?;
        Loads(owner).survey_says("Every circuit is settled").await?;
        owner.can_be_used_by_everybody().await?;
        owner.press("End it for everybody").await?;
        helper.wait_gone(By::Css("[data-testid=survey-side]")).await?;
        let written = lines(&site, "weir").await?;
        let by_plug = |line: &&Value| line["words"].as_str().is_some_and(|words| words.ends_with("8.1 A by plug-in meter"));
        let read = written.iter().find(by_plug).context("a reading")?;
        ensure!(read["line"]["entry"]["by"] == "Ada", "{read}");
        anyhow::Ok(())
    }
    .await;
    if done.is_err() {
        helper.leave_behind("survey_helper").await;
    }
    helper.close().await?;
    done
}

/// Two look for a fault: one at the dark outlet, the other at the desk; both phones are in step, and a sign of danger covers both.
pub(crate) async fn two_look_for_a_fault(chrome: &Chrome, owner: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let house = "home Weir House\npanel 8\n1 20 bath\nroom Bath\nroom Porch\npoint Bath gfci mirror\npoint Porch receptacle door\n\
                 protects mirror: door\nproof mirror 1\nproof door 1\ntrouble t1 door";
    Somebody::new(&site, "weir").act(0, house).await?;
    owner.goto(&format!("{}/h/weir/trips/t1", site.address)).await?;
    let (address, code) = share(owner, &site).await?;
    let helper = chrome.open(View::Phone).await?;
    let done = async {
        helper.goto(&format!("{address}/join#{code}")).await?;
        helper.fill("Your name, for the logbook", "Ada").await?;
        helper.press("Come in").await?;
        Trips(&helper).next_is("is there any sign of danger?").await?;
        owner.press("None of these").await?;
        Trips(&helper).next_is("Press RESET: Bath, mirror").await?;
        helper.can_be_used_by_everybody().await?;
        helper.press("It does not stay in").await?;
        Trips(owner).seen("does not stay in").await?;
        // The next look is at the panel: it buzzes, and whoever stands there says so. Then nobody is sent to a handle.
        helper.press("More: a sign of danger").await?;
        helper.press("It buzzes or crackles").await?;
        Trips(&helper).stop_says("Do not touch the panel").await?;
        Trips(owner).stop_says("Do not touch the panel").await?;
        let written = lines(&site, "weir").await?;
        let buzz = |line: &&Value| line["words"].as_str().is_some_and(|words| words.ends_with("it buzzes or crackles"));
        let told = written.iter().find(buzz).context("the sign")?;
        ensure!(told["line"]["entry"]["by"] == "Ada", "{told}");
        anyhow::Ok(())
    }
    .await;
    if done.is_err() {
        helper.leave_behind("fault_helper").await;
    }
    helper.close().await?;
    done
}
