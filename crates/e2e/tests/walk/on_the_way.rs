//! What comes up on the way of a trace: a point that was forgotten, a breaker that cannot be off now, a GFCI tripped on
//! purpose, a tone.

use anyhow::{Context, Result, ensure};
use serde_json::{Value, json};
use thirtyfour::{By, Key};
use wayfinder_e2e::screens::Trace;
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

const BATH: &str =
    "home Weir Cottage\npanel 6\n1 15\n3 15\nroom Bath\npoint Bath gfci basin\npoint Bath receptacle mirror\nshare 1 3";

pub(crate) async fn what_comes_up_on_the_way_of_a_trace(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "weir").act(0, BATH).await?;
    let home = format!("{}/api/homes/weir", site.address);
    page.goto(&format!("{}/h/weir/trace", site.address)).await?;
    // A point that nobody listed.
    page.press("A point is missing here").await?;
    page.fill("Where in the room, or which appliance", "shaver").await?;
    page.press("Add this point").await?;
    page.find(By::Css("[data-point=shaver]")).await?;
    page.press("Rest lit in Bath").await?;
    let trace = Trace(page);
    trace.wait_step("switch_off").await?;
    ensure!(trace.blade().await? == "1", "the first of the panel");
    page.wait_text(By::Css("[data-testid=caution]"), "1 shares a neutral with 3, which stays on").await?;
    // It cannot be off now: another one is asked for, and it is taken back later.
    page.press("Can’t").await?;
    page.fill("Why", "somebody works there").await?;
    page.press("1 must stay on").await?;
    page.wait_text(By::Css("[data-testid=big-blade]"), "3").await?;
    page.wait_text(By::Css("[data-testid=panel-side]"), "somebody works there").await?;
    page.press("May be off: 1").await?;
    page.wait_text(By::Css("[data-testid=big-blade]"), "1").await?;
    // A GFCI tripped with its test button shows what hangs behind it, and says nothing of a breaker.
    page.goto(&format!("{}/h/weir/house/list", site.address)).await?;
    page.find(By::XPath("//nav[@aria-label='Rooms']//button[starts-with(normalize-space(.), 'Bath')]")).await?.click().await?;
    page.find(By::XPath("//*[@data-testid='points']//button[contains(., 'basin')]")).await?.click().await?;
    page.press("Test pressed: it tripped").await?;
    page.press("Close").await?;
    page.goto(&format!("{}/h/weir/trace", site.address)).await?;
    trace.wait_step("see_downstream").await?;
    page.wait_text(By::Css("[data-testid=instruction]"), "basin is tripped on purpose").await?;
    let refused = page.accessibility().await?;
    ensure!(refused.is_empty(), "{refused:?}");
    page.find(By::XPath("//*[@aria-label='Bath, mirror']/button[normalize-space(.)='Dark']")).await?.click().await?;
    page.find(By::XPath("//*[@aria-label='Bath, mirror']/button[@aria-pressed='true']")).await?;
    page.press("Done, it is reset").await?;
    // It is seen to give power again; and what it had made dark is seen lit first: only then can a breaker be what makes it
    // dark next.
    trace.wait_step("look_under").await?;
    trace.answer("basin", "lit").await?;
    trace.wait_step("see_all_lit").await?;
    // A meter shows something between, then something that no house may have, which was mistyped.
    let volts = async |volts: &str| -> Result<()> {
        page.find(By::XPath("//*[@aria-label='Bath, mirror']/button[normalize-space(.)='Volts']")).await?.click().await?;
        page.fill("Volts, hot to neutral", volts).await?;
        page.press("Enter").await
    };
    volts("47,5").await?;
    page.wait_text(By::Css("[data-point=mirror]"), "47.5 V: neither lit nor dark, and not dead").await?;
    let refused = page.accessibility().await?;
    ensure!(refused.is_empty(), "{refused:?}");
    volts("148").await?;
    trace.wait_step("stop").await?;
    page.wait_text(By::Css("[data-testid=instruction]"), "Stop. Turn the main OFF and call an electrician").await?;
    let refused = page.accessibility().await?;
    ensure!(refused.is_empty(), "{refused:?}");
    ensure!(!page.find(By::Css("main")).await?.text().await?.contains("leave the main alone"), "it is to go off");
    page.press("It was mistyped").await?;
    trace.wait_step("see_all_lit").await?;
    // Once more, with nothing but keys.
    page.keys("v").await?;
    page.driver.active_element().await?.send_keys("121.3" + Key::Enter).await?;
    trace.wait_step("switch_off").await?;
    let view: Value = reqwest::get(format!("{home}/points")).await?.json().await?;
    ensure!(view["protects"] == json!({ "basin": ["mirror"] }), "{}", view["protects"]);
    let mirror = view["points"].as_array().context("points")?.iter().find(|p| p["id"] == "mirror").context("a mirror")?;
    ensure!(mirror["known"]["verdict"] == "open", "{mirror}");
    // A tone decides which breaker is tried first.
    page.press("There is a tone sender and receiver").await?;
    page.press("Tone tracer first, then the breaker").await?;
    trace.wait_step("follow_tone").await?;
    page.wait_text(By::Css("[data-step-card=walk]"), "Plug the sender in: Bath").await?;
    page.wait_text(By::Css("[data-step-card=walk]"), "never at 240 V").await?;
    let refused = page.accessibility().await?;
    ensure!(refused.is_empty(), "{refused:?}");
    page.find(By::XPath("//*[@data-step-card='panel']//button[normalize-space(.)='3']")).await?.click().await?;
    trace.wait_step("switch_to").await?;
    page.wait_text(By::Css("[data-testid=panel-side]"), "3 is the likeliest for Bath").await
}
