//! Tracing through the screen: two windows, a lost connection, a slip, a contradiction.

use std::time::{Duration, Instant};

use anyhow::{Result, ensure};
use wayfinder_e2e::screens::*;
use wayfinder_e2e::{Chrome, Page, Site, View};

use crate::first_home::small_home;

pub(crate) async fn two_windows_stay_in_step(chrome: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    let address = format!("{}/h/juniper-lane/trace", site.address);
    let walker = chrome.open(View::Phone).await?;
    for window in [page, &walker] {
        window.goto(&address).await?;
        Trace(window).wait_step("switch_off").await?;
    }
    let asked = format!("OFF: {}", Trace(page).blade().await?);
    page.press("Done, it is off").await?;
    page.off_now_says(&asked).await?;
    // The bar on the other phone follows within half a second of the line being written.
    let written = Instant::now();
    walker.off_now_says(&asked).await?;
    let late = written.elapsed();
    ensure!(late < Duration::from_millis(500), "the other window followed after {late:?}");
    Trace(&walker).walk_says("Lit or dark?").await?;
    let point = Trace(&walker).next_point().await?;
    Trace(&walker).answer(&point, "dark").await?;
    Trace(page).wait_answered().await?;
    walker.close().await
}

pub(crate) async fn what_is_recorded_without_an_answer_is_sent_later_once(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let mut site = Site::empty().await?;
    let home = small_home(page, &site).await?;
    page.goto(&format!("{home}/trace")).await?;
    let trace = Trace(page);
    trace.begin().await?;
    trace.wait_current("counter").await?;
    site.stop().await?;
    page.stale_says("may be old, also which breakers are off").await?;
    trace.answer("counter", "lit").await?;
    page.outbox_says("Not sent yet: 1 line").await?;
    trace.wait_current("ceiling").await?;
    trace.answer("ceiling", "lit").await?;
    page.outbox_says("Not sent yet: 2 lines").await?;
    site.start_again().await?;
    page.all_is_sent().await?;
    page.goto(&format!("{home}/logbook")).await?;
    for words in ["Kitchen, counter: lit", "Kitchen, ceiling: lit"] {
        let lines = LogbookScreen(page).count(words).await?;
        ensure!(lines == 1, "{words} stands there {lines} times");
    }
    site.stop().await
}

pub(crate) async fn a_contradiction_is_shown_with_its_lines(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    page.goto(&format!("{}/h/juniper-lane/trace", site.address)).await?;
    Trace(page).contradiction_says("dark with 3 off, and dark with 10 off").await?;
    page.press_with("Back hall, by the panel").await?;
    let trace = Trace(page);
    let disagree = trace.disagreeing().await?;
    ensure!(disagree == 2, "{disagree} lines are said to disagree");
    // It may be that its halves hang on two breakers.
    page.button_with("Enter its other half").await?;
    // Striking one of them out leaves one dark look, and what else could explain it.
    trace.strike_disagreeing().await?;
    page.evidence_says("Seen lit, and dark with 10 off").await?;
    page.stories_say("A look was misread").await?;
    // On another copy of the home its other half is entered: both are traced anew.
    let site = Site::demo().await?;
    page.goto(&format!("{}/h/juniper-lane/trace", site.address)).await?;
    page.press_with("Back hall, by the panel").await?;
    page.press_with("Enter its other half").await?;
    trace.no_contradiction().await?;
    page.goto(&format!("{}/h/juniper-lane/house", site.address)).await?;
    page.says("by the panel, other half").await
}

pub(crate) async fn a_trace_goes_on_whatever_the_crew_does(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let home = small_home(page, &site).await?;
    // A lamp that goes by itself is told as such, and the trace says how to look at it.
    page.goto(&format!("{home}/house/list")).await?;
    House(page).open_room("Hall").await?;
    page.press("Edit").await?;
    page.choose("Also worked by", "a motion sensor").await?;
    page.press("Save").await?;
    page.goto(&format!("{home}/trace")).await?;
    let trace = Trace(page);
    trace.begin().await?;
    trace.point_says("lantern", "Has a motion sensor").await?;
    // All lit at once, room by room.
    page.press("Rest lit in Kitchen").await?;
    trace.wait_current("lantern").await?;
    // A room told at one go is struck out at one go.
    trace.wait_last("Kitchen", "2 lit").await?;
    page.keys("u").await?;
    trace.wait_current("counter").await?;
    page.press("Rest lit in Kitchen").await?;
    trace.wait_current("lantern").await?;
    // A slip is struck out with a key, and corrected by the other answer.
    trace.answer("lantern", "dark").await?;
    trace.wait_last("Hall, lantern", "dark").await?;
    page.keys("u").await?;
    trace.wait_current("lantern").await?;
    trace.answer("lantern", "lit").await?;
    trace.wait_step("switch_off").await?;
    // 1 must stay on: the next one is proposed, and 1 never again.
    ensure!(trace.blade().await? == "1");
    page.press("Can’t").await?;
    page.fill("Why", "the fish tank").await?;
    page.press("1 must stay on").await?;
    Trace(page).panel_says("the fish tank").await?;
    Trace(page).blade_says("5-7").await?;
    // Another one than proposed is switched off: the trace goes along.
    page.press("Can’t").await?;
    page.press("2 is off").await?;
    Trace(page).instruction_says("Leave 2 OFF").await?;
    trace.wait_current("counter").await?;
    page.press("Rest dark in Kitchen").await?;
    trace.wait_last("Kitchen", "2 dark").await?;
    page.keys("u").await?;
    trace.wait_current("counter").await?;
    trace.answer("counter", "dark").await?;
    page.says("Dark with one breaker, not sure yet").await?;
    page.keys("u").await?;
    trace.wait_current("counter").await?;
    trace.answer("counter", "lit").await?;
    Trace(page).progress_says("0 of 3 proven").await?;
    // Enough seen: on again before the round is done.
    page.press("It is on again").await?;
    page.off_now_says("ALL ON").await?;
    page.goto(&format!("{home}/logbook")).await?;
    let struck = LogbookScreen(page).struck().await?;
    ensure!(struck.len() == 6 && struck[0].contains("Kitchen, counter: dark"), "{struck:?}");
    Ok(())
}

pub(crate) async fn what_waits_outlives_a_reload(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let mut site = Site::empty().await?;
    let home = small_home(page, &site).await?;
    page.goto(&format!("{home}/trace")).await?;
    let trace = Trace(page);
    trace.begin().await?;
    trace.wait_current("counter").await?;
    site.stop().await?;
    trace.answer("counter", "lit").await?;
    page.outbox_says("Not sent yet: 1 line").await?;
    // The page is gone, the line is not.
    page.goto("about:blank").await?;
    site.start_again().await?;
    page.goto(&format!("{home}/logbook")).await?;
    LogbookScreen(page).line("Kitchen, counter: lit").await?;
    site.stop().await
}
