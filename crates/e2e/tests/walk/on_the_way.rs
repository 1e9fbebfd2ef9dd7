//! What comes up on the way of a trace: a point that was forgotten, a breaker that cannot be off now, a GFCI tripped on
//! purpose, a tone.

use anyhow::{Context, Result, ensure};
use serde_json::{Value, json};
use thirtyfour::Key;
use wayfinder_e2e::screens::{House, LogbookScreen, Trace};
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

const BATH: &str =
    "home Weir Cottage\npanel 6\n1 15\n3 15\nroom Bath\npoint Bath gfci basin\npoint Bath receptacle mirror\nshare 1 3";

pub(crate) async fn what_comes_up_on_the_way_of_a_trace(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "weir").act(0, BATH).await?;
    let home = format!("{}/api/homes/weir", site.address);
    page.goto(&format!("{}/h/weir/trace", site.address)).await?;
    Trace(page).begin().await?;
    // A point that nobody listed.
    page.press("A point is missing here").await?;
    page.fill("Where in the room, or which appliance", "shaver").await?;
    page.press("Add this point").await?;
    let trace = Trace(page);
    trace.wait_point("shaver").await?;
    page.press("Rest lit in Bath").await?;
    trace.wait_step("switch_off").await?;
    ensure!(trace.blade().await? == "1", "the first of the panel");
    trace.caution_says("1 shares a neutral with 3, which stays on").await?;
    // It cannot be off now: another one is asked for, and it is taken back later.
    page.press("Can’t").await?;
    page.fill("Why", "somebody works there").await?;
    page.press("1 must stay on").await?;
    trace.blade_says("3").await?;
    trace.panel_says("somebody works there").await?;
    page.press("May be off: 1").await?;
    trace.blade_says("1").await?;
    // A GFCI tripped with its test button shows what hangs behind it, and says nothing of a breaker.
    page.goto(&format!("{}/h/weir/house/list", site.address)).await?;
    House(page).open_room("Bath").await?;
    House(page).open_point("basin").await?;
    page.press("Test pressed: it tripped").await?;
    page.press("Close").await?;
    page.goto(&format!("{}/h/weir/trace", site.address)).await?;
    trace.wait_step("see_downstream").await?;
    trace.instruction_says("basin is tripped on purpose").await?;
    page.can_be_used_by_everybody().await?;
    trace.answer_for("Bath, mirror", "Dark").await?;
    trace.wait_answered().await?;
    page.press("Done, it is reset").await?;
    // It is seen to give power again; and what it had made dark is seen lit first: only then can a breaker be what makes it
    // dark next.
    trace.wait_step("look_under").await?;
    trace.answer("basin", "lit").await?;
    trace.wait_step("see_all_lit").await?;
    // A meter shows something between, then something that no house may have, which was mistyped.
    let volts = async |volts: &str| -> Result<()> {
        trace.answer_for("Bath, mirror", "Volts").await?;
        page.fill("Volts, hot to neutral", volts).await?;
        page.press("Enter").await
    };
    volts("47,5").await?;
    trace.point_says("mirror", "47.5 V: neither lit nor dark, and not dead").await?;
    page.can_be_used_by_everybody().await?;
    volts("148").await?;
    trace.wait_step("stop").await?;
    trace.instruction_says("Stop. Turn the main OFF and call an electrician").await?;
    page.can_be_used_by_everybody().await?;
    ensure!(!page.words().await?.contains("leave the main alone"), "it is to go off");
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
    trace.walk_says("Plug the sender in: Bath").await?;
    trace.walk_says("never at 240 V").await?;
    page.can_be_used_by_everybody().await?;
    trace.press_at_panel("3").await?;
    trace.wait_step("switch_to").await?;
    trace.panel_says("3 is the likeliest for Bath").await
}

/// One light and one breaker, and a receptacle that nobody can reach.
const SHED: &str =
    "home Alder Shed\npanel 6\n1 15 shed\n3 15 bench\nroom Shed\npoint Shed light lamp\npoint Shed receptacle bench";

pub(crate) async fn what_ends_open_says_why_and_goes_on(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let mut somebody = Somebody::new(&site, "alder");
    somebody.act(60, SHED).await?;
    somebody.act(30, "dark lamp\nproof bench 3\noff 1\nlit bench\non 1\nlit bench").await?;
    page.goto(&format!("{}/h/alder/trace", site.address)).await?;
    let trace = Trace(page);
    trace.wait_step("done").await?;
    trace.left_open_says("Shed, lamp").await?;
    trace.left_open_says("Put in a lamp that is known to be good").await?;
    page.can_be_used_by_everybody().await?;
    page.press("It is lit now").await?;
    trace.wait_step("switch_off").await?;
    // The handle that moved was another one: what was seen under it does not count.
    somebody.act(0, "off 1\ndark lamp").await?;
    page.press("It was another handle").await?;
    page.notice_says("Noted").await?;
    page.off_now_says("ALL ON").await?;
    page.goto(&format!("{}/h/alder/logbook", site.address)).await?;
    LogbookScreen(page).line("It was another handle").await.map(drop)
}
