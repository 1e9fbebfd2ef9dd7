//! The first walk in a browser: from an empty home to the printed card, at a desk and on a phone; what goes
//! wrong on the way; two people on one home; and axe-core on every screen.

mod dark_clock;
mod house_plan;
mod on_the_way;
mod panel_book;
mod practice_house;
mod several_off;
mod together;

use std::collections::HashSet;
use std::future::Future;
use std::pin::Pin;
use std::process::{Command, ExitCode};
use std::sync::Arc;
use std::time::{Duration, Instant};

use anyhow::{Context, Result, ensure};
use libtest_mimic::{Arguments, Failed, Trial};
use thirtyfour::By;
use tokio::runtime::Runtime;
use tokio::sync::RwLock;
use wayfinder_e2e::screens::{Homes, House, LogbookScreen, Panel, Trace};
use wayfinder_e2e::{Chrome, Page, Site, View};

use dark_clock::what_may_be_dark_only_so_long_is_brought_back;
use house_plan::{
    a_ten_room_house_is_drawn_in_few_taps, anything_is_found_with_what_goes_dark, rooms_doors_and_points_are_kept_in_the_drawing,
    the_plan_goes_out_and_comes_in,
};
use on_the_way::what_comes_up_on_the_way_of_a_trace;
use panel_book::{
    a_card_of_42_lines_is_typed_and_kept_at_one_go, a_spreadsheet_is_taken_in_and_garbage_is_refused,
    breakers_are_moved_split_joined_and_paired_in_the_drawing, numbers_as_engraved_a_reading_and_a_gaping_space,
    panels_behind_panels_and_what_the_checks_say,
};

use practice_house::{instruments_warn_and_another_try_is_another_home, sixty_points_on_a_phone_as_without_a_screen};
use several_off::several_off_at_once_until_every_point_is_proven;
use together::{two_browsers_trace_a_house_together_to_the_end, without_the_code_nothing_is_shown_and_guessing_is_slowed_down};

/// The longest that a walk may take; most take seconds.
const LONGEST: Duration = Duration::from_secs(1200);

type Walk = for<'a> fn(&'a Chrome, &'a Page, View) -> Pin<Box<dyn Future<Output = Result<()>> + 'a>>;

macro_rules! walks {
    ($($name:ident),* $(,)?) => {
        [$((stringify!($name), (|chrome, page, view| Box::pin($name(chrome, page, view))) as Walk)),*]
    };
}

fn main() -> ExitCode {
    let mut arguments = Arguments::from_args();
    arguments.test_threads = Some(2);
    let runtime = Arc::new(Runtime::new().expect("a runtime"));
    let chrome = if arguments.list { None } else { Some(Arc::new(Chrome::start().expect("chromedriver"))) };
    let mut trials = Vec::new();
    for (name, walk) in walks![
        from_an_empty_home_to_the_printed_card,
        what_is_wrong_is_said_and_loses_nothing,
        every_screen_can_be_used_by_everybody,
        the_logbook_strikes_out_and_back_in,
    ] {
        for view in [View::Desk, View::Phone] {
            trials.push(trial(&runtime, chrome.as_ref(), format!("{name}_{view:?}").to_lowercase(), walk, view));
        }
    }
    for (name, walk) in walks![
        two_windows_stay_in_step,
        what_is_recorded_without_an_answer_is_sent_later_once,
        a_contradiction_is_shown_with_its_lines,
        keys_go_everywhere,
        another_size_of_panel_and_numbering,
        a_trace_goes_on_whatever_the_crew_does,
        what_waits_outlives_a_reload,
        rooms_and_points_are_corrected,
        a_home_goes_out_and_comes_in_through_the_screen,
        a_card_of_42_lines_is_typed_and_kept_at_one_go,
        a_spreadsheet_is_taken_in_and_garbage_is_refused,
        breakers_are_moved_split_joined_and_paired_in_the_drawing,
        panels_behind_panels_and_what_the_checks_say,
        numbers_as_engraved_a_reading_and_a_gaping_space,
        rooms_doors_and_points_are_kept_in_the_drawing,
        the_plan_goes_out_and_comes_in,
        anything_is_found_with_what_goes_dark,
        several_off_at_once_until_every_point_is_proven,
        what_may_be_dark_only_so_long_is_brought_back,
        what_comes_up_on_the_way_of_a_trace,
        instruments_warn_and_another_try_is_another_home,
        two_browsers_trace_a_house_together_to_the_end,
        without_the_code_nothing_is_shown_and_guessing_is_slowed_down,
    ] {
        trials.push(trial(&runtime, chrome.as_ref(), name.to_owned(), walk, View::Desk));
    }
    for (name, walk) in walks![a_ten_room_house_is_drawn_in_few_taps, sixty_points_on_a_phone_as_without_a_screen] {
        trials.push(trial(&runtime, chrome.as_ref(), name.to_owned(), walk, View::Phone));
    }
    let conclusion = libtest_mimic::run(&arguments, trials);
    drop(chrome);
    conclusion.exit_code()
}

/// Walks that hold the screen to a time, or play for minutes: nothing else runs beside them.
const ALONE: [&str; 3] =
    ["two_windows_stay_in_step", "two_browsers_trace_a_house_together_to_the_end", "sixty_points_on_a_phone_as_without_a_screen"];

/// Held by every walk: as a reader, or as the only one.
static QUIET: RwLock<()> = RwLock::const_new(());

fn trial(runtime: &Arc<Runtime>, chrome: Option<&Arc<Chrome>>, name: String, walk: Walk, view: View) -> Trial {
    let (runtime, chrome, told) = (Arc::clone(runtime), chrome.cloned(), name.clone());
    Trial::test(name, move || {
        let chrome = chrome.ok_or("no browser")?;
        runtime.block_on(async {
            let (_alone, _among_others) = match ALONE.contains(&told.as_str()) {
                true => (Some(QUIET.write().await), None),
                false => (None, Some(QUIET.read().await)),
            };
            let page = chrome.open(view).await.map_err(failed)?;
            let done = tokio::time::timeout(LONGEST, walk(&chrome, &page, view)).await;
            let done = done.unwrap_or_else(|_| Err(anyhow::anyhow!("longer than {} s", LONGEST.as_secs())));
            if done.is_err()
                && let Some(path) = page.leave_behind(&told).await
            {
                eprintln!("{told}: see {}", path.display());
            }
            page.close().await.map_err(failed)?;
            done.map_err(failed)
        })
    })
}

fn failed(error: anyhow::Error) -> Failed {
    format!("{error:#}").into()
}

/// A small home: two breakers, two rooms, three points.
async fn small_home(page: &Page, site: &Site) -> Result<String> {
    let home = Homes(page).start(&site.address, "Mill Cottage").await?;
    let panel = Panel(page);
    panel.describe(12).await?;
    panel.type_card("1 20 kitchen\n2 15 rec\n5-7 50/2 range", "Save 3 breakers").await?;
    page.find(By::Css("[aria-label^='Breaker 5-7,']")).await?;
    page.goto(&format!("{home}/house/list")).await?;
    let house = House(page);
    house.add_room("Kitchen").await?;
    house.add_points("Receptacle", &["counter"]).await?;
    house.add_points("Light", &["ceiling"]).await?;
    house.add_room("Hall").await?;
    house.add_points("Light", &["lantern"]).await?;
    Ok(home)
}

async fn from_an_empty_home_to_the_printed_card(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let mut site = Site::empty().await?;
    // 1 Panel: typed as the card reads, and one more into an open space.
    let home = small_home(page, &site).await?;
    page.goto(&format!("{home}/panel")).await?;
    Panel(page).select("Space 3").await?;
    page.fill("Amps", "15").await?;
    page.fill("What the old card says", "porch").await?;
    page.press("Put the breaker in").await?;
    page.wait_text(By::Css("[data-testid=breaker-facts]"), "leg B").await?;
    let spoken = Panel(page).spoken().await?;
    ensure!(spoken.iter().any(|s| s.starts_with("Breaker 5-7, 50 amps, legs A and B, on")), "{spoken:?}");
    // 2 House: repeat last counts on.
    page.goto(&format!("{home}/house/list")).await?;
    let house = House(page);
    house.add_room("Porch").await?;
    house.add_points("Receptacle", &["by the door"]).await?;
    page.press("Repeat last").await?;
    house.wait_points(2).await?;
    page.wait_text(By::Css("[data-testid=points]"), "by the door 2").await?;
    // 3 Trace: everything lit, then a breaker at a time.
    page.goto(&format!("{home}/trace")).await?;
    let trace = Trace(page);
    let points = ["counter", "ceiling", "lantern", "by the door", "by the door 2"];
    let feeds = [("1", "counter"), ("1", "ceiling"), ("3", "lantern"), ("2", "by the door")];
    trace.wait_step("see_all_lit").await?;
    page.wait_text(By::Css("[data-testid=off-now]"), "ALL ON").await?;
    for point in points {
        wait_current(page, &trace, point).await?;
        trace.answer(point, "lit").await?;
    }
    let mut proven = 0;
    for breaker in ["1", "3"] {
        trace.wait_step("switch_off").await?;
        ensure!(trace.blade().await? == breaker, "asked for {}", trace.blade().await?);
        trace.done("Done, it is off").await?;
        page.wait_text(By::Css("[data-testid=off-now]"), &format!("OFF: {breaker}")).await?;
        // The old card's word for 3 is "porch": that room comes first.
        let order = if breaker == "3" { ["by the door", "by the door 2", "counter", "ceiling", "lantern"] } else { points };
        for point in order {
            if feeds.iter().any(|(b, p)| *p == point && (*b == "1") && breaker != "1") {
                continue; // proven before
            }
            wait_current(page, &trace, point).await?;
            let dark = feeds.contains(&(breaker, point));
            trace
                .answer(
                    point,
                    if dark {
                        "dark"
                    } else if point == "by the door 2" {
                        "skip"
                    } else {
                        "lit"
                    },
                )
                .await?;
            proven += usize::from(dark);
        }
        trace.wait_step("switch_on").await?;
        trace.done("Done, it is on").await?;
        page.wait_text(By::Css("[data-testid=off-now]"), "ALL ON").await?;
        trace.wait_step("see_one_lit_again").await?;
        let again = trace.current().await?;
        trace.answer(&again, "lit").await?;
        page.wait_text(By::Css("[data-testid=progress]"), &format!("{proven} of 5 proven")).await?;
    }
    // 4 Directory: worded from what is proven, the rest marked.
    page.goto(&format!("{home}/directory")).await?;
    page.wait_text(By::Css("[data-number='1'][data-kind=proven]"), "Kitchen: receptacle, light").await?;
    page.wait_text(By::Css("[data-number='3'][data-kind=proven]"), "Hall: light").await?;
    page.wait_text(By::Css("[data-number='2'][data-kind=not_proven]"), "Not proven (old card: rec)").await?;
    let link = page.named("button", "PDF, true size of the card").await?.attr("href").await?.context("no link")?;
    check_pdf(&format!("{}{link}", site.address)).await?;
    // 5 Nothing is lost when the program is restarted.
    site.stop().await?;
    site.start_again().await?;
    page.goto(&format!("{home}/trace")).await?;
    page.wait_text(By::Css("[data-testid=progress]"), "3 of 5 proven").await?;
    site.stop().await
}

async fn wait_current(page: &Page, trace: &Trace<'_>, point: &str) -> Result<()> {
    page.wait_until(&format!("{point} is asked for"), async || Ok(trace.current().await? == point)).await
}

/// The page is the card's true size, the text is in it, the fonts are embedded: as poppler reads it.
async fn check_pdf(address: &str) -> Result<()> {
    let pdf = reqwest::get(address).await?.error_for_status()?.bytes().await?;
    let folder = tempfile::tempdir()?;
    let path = folder.path().join("card.pdf");
    std::fs::write(&path, &pdf)?;
    let info = String::from_utf8(Command::new("pdfinfo").arg(&path).output()?.stdout)?;
    // 130 x 210 mm in points of 1/72 inch.
    ensure!(info.contains("Page size:       368.504 x 595.276 pts"), "{info}");
    ensure!(info.contains("Pages:           1"), "{info}");
    let text = Command::new("pdftotext").arg("-raw").arg(&path).arg("-").output().context("pdftotext")?;
    let text = String::from_utf8(text.stdout)?.split_whitespace().collect::<Vec<_>>().join(" ");
    for words in
        ["Mill Cottage", "Kitchen: receptacle, light", "Hall: light", "Not proven", "3 of 5 points proven", "5-7", "Open space"]
    {
        ensure!(text.contains(words), "{words} is not in:\n{text}");
    }
    let fonts = String::from_utf8(Command::new("pdffonts").arg(&path).output()?.stdout)?;
    let rows: Vec<_> = fonts.lines().skip(2).collect();
    ensure!(rows.len() == 2 && rows.iter().all(|row| row.contains(" yes yes ")), "fonts are not embedded:\n{fonts}");
    Ok(())
}

async fn what_is_wrong_is_said_and_loses_nothing(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    page.goto(&site.address).await?;
    let folder = tempfile::tempdir()?;
    for (name, bytes, says) in [
        ("photo.json", &b"\x89PNG\r\n\x1a\n"[..], "no Wayfinder home file"),
        ("newer.json", br#"{"format":"wayfinder-home","version":7}"#, "Use a newer Wayfinder"),
    ] {
        let path = folder.path().join(name);
        std::fs::write(&path, bytes)?;
        let said = Homes(page).refused_file(&path).await?;
        page.wait_text(By::Css("[data-testid=import-problem]"), says).await.with_context(|| said)?;
    }
    let home = Homes(page).start(&site.address, "Mill Cottage").await?;
    let panel = Panel(page);
    panel.describe(12).await?;
    // Good lines are kept, the others stay in the field with what is wrong.
    page.press("Type the card").await?;
    page.fill("The card", "1 20 kitchen\n20 kitchn\n11 50/2 range\n1 15 again\n99 20 attic").await?;
    for says in ["“kitchn” is no rating", "does not fit at space 11", "stands on this card twice", "no space 99"] {
        page.wait_text(By::Css("[data-testid=card-preview]"), says).await?;
    }
    page.press("Save 1 breaker").await?;
    // The line that stood there twice now describes anew what was kept.
    page.wait_text(By::Css("[aria-labelledby=card-title]"), "3 lines are not understood").await?;
    let field = page.field("The card").await?;
    ensure!(field.prop("value").await?.unwrap_or_default().starts_with("20 kitchn\n"), "the good line stays");
    // Closed by a slip, left by the way back, loaded again: what was typed is still there, until it is discarded.
    page.keys("\u{e00c}").await?;
    page.wait_gone(By::Css("[role=dialog]")).await?;
    page.press("Describe the panel").await?;
    page.fill("Where it hangs", "back hall, behind the door").await?;
    page.driver.back().await?;
    page.driver.forward().await?;
    page.driver.refresh().await?;
    page.press("Describe the panel").await?;
    page.wait_text(By::Css("[data-testid=kept]"), "It is not saved yet").await?;
    let place = page.field("Where it hangs").await?.prop("value").await?.unwrap_or_default();
    ensure!(place == "back hall, behind the door", "{place}");
    page.press("Discard").await?;
    let place = page.field("Where it hangs").await?.prop("value").await?.unwrap_or_default();
    ensure!(place == "back hall", "{place}");
    page.press("Cancel").await?;
    page.wait_gone(By::Css("[role=dialog]")).await?;
    page.press("Type the card").await?;
    page.wait_text(By::Css("[data-testid=kept]"), "It is not saved yet").await?;
    let field = page.field("The card").await?;
    ensure!(field.prop("value").await?.unwrap_or_default().starts_with("20 kitchn\n"), "what was typed is kept");
    page.press("Cancel").await?;
    page.wait_gone(By::Css("[role=dialog]")).await?;
    page.press("Type the card").await?;
    ensure!(page.field("The card").await?.prop("value").await?.unwrap_or_default().is_empty(), "cancelled is discarded");
    page.press("Cancel").await?;
    page.wait_gone(By::Css("[role=dialog]")).await?;
    // An occupied space and a two-pole that does not fit, from the form.
    panel.select("Space 3").await?;
    for (at, says) in [
        ("1", "Space 1 is taken by breaker 1 “kitchen”"),
        ("3-4", "From space 3 down it would be 3-5"),
        ("40", "there is no space 40"),
    ] {
        page.fill("Space", at).await?;
        page.press("Put the breaker in").await?;
        page.wait_text(By::Css("form [data-testid=form-error]"), says).await?;
        page.wait_text(By::Css("form [data-testid=form-error]"), "Nothing was recorded").await?;
    }
    // A panel that would lose a breaker.
    page.press("Describe the panel").await?;
    page.fill("Spaces", "1").await?;
    page.press("Save").await?;
    page.wait_text(By::Css("[role=dialog] [data-testid=form-error]"), "2 to 84").await?;
    page.goto(&format!("{home}/logbook")).await?;
    page.wait_text(By::Css("main"), "4 lines").await?;
    page.goto(&format!("{}/h/nobody/panel", site.address)).await?;
    page.wait_text(By::Css("main"), "There is no such home").await
}

async fn every_screen_can_be_used_by_everybody(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    let home = format!("{}/h/juniper-lane", site.address);
    let mut found = Vec::new();
    let mut titles = HashSet::new();
    for scheme in ["light", "dark"] {
        page.scheme(scheme).await?;
        for (path, ready) in [
            ("", "h1"),
            ("/panel", "[data-testid=fingerpost]"),
            ("/panel/greenhouse-panel?at=s:7", "[data-testid=fingerpost]"),
            ("/checks", "[data-testid=findings]"),
            ("/house", "[data-testid=plan]"),
            ("/house?at=p:kitchen-counter-by-the-sink", "[data-testid=point-facts]"),
            ("/house?at=r:kitchen", "[data-testid=room-facts]"),
            ("/house/walk/kitchen", "[data-testid=walk]"),
            ("/house/list", "[data-testid=points]"),
            ("/trace", "[data-testid=panel-side]"),
            ("/directory", "[data-testid=card]"),
            ("/logbook", "[data-testid=logbook] li"),
            ("/practice", "h1"),
            ("/more", "nav[aria-label='Other workspaces']"),
        ] {
            page.goto(&if path.is_empty() { site.address.clone() } else { format!("{home}{path}") }).await?;
            page.find(By::Css(ready)).await?;
            if scheme == "light" {
                found.extend(page.too_small().await?.into_iter().map(|v| format!("{path}: {v}")));
                let (title, heads) = (page.driver.title().await?, page.count("h1").await?);
                if !title.contains(" · Wayfinder") || !(titles.insert(title.clone()) | path.contains('?')) || heads != 1 {
                    found.push(format!("{path}: {heads} main headings, title “{title}”"));
                }
            }
            found.extend(page.accessibility().await?.into_iter().map(|v| format!("{scheme} {path}: {v}")));
            if path == "/panel" {
                Panel(page).select("Breaker 12").await?;
                page.test_id("breaker-title").await?;
                found.extend(page.accessibility().await?.into_iter().map(|v| format!("{scheme} breaker: {v}")));
                page.press("Type the card").await?;
                page.field("The card").await?;
                found.extend(page.accessibility().await?.into_iter().map(|v| format!("{scheme} card: {v}")));
            }
            if path.starts_with("/panel/") {
                page.press("Describe the panel").await?;
                page.field("Name").await?;
                found.extend(page.accessibility().await?.into_iter().map(|v| format!("{scheme} describe: {v}")));
            }
            if path == "/more" {
                page.press("Find a room, a point, a number").await?;
                page.fill("A few letters or a number", "kitchen").await?;
                page.find(By::Css("[data-testid=found] li")).await?;
                found.extend(page.accessibility().await?.into_iter().map(|v| format!("{scheme} find: {v}")));
            }
            if path == "/house/list" {
                page.find(By::Css("[data-testid=points] button")).await?.click().await?;
                page.test_id("because").await?;
                found.extend(page.accessibility().await?.into_iter().map(|v| format!("{scheme} evidence: {v}")));
            }
        }
    }
    ensure!(found.is_empty(), "found:\n{}", found.join("\n"));
    Ok(())
}

async fn the_logbook_strikes_out_and_back_in(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    let home = format!("{}/h/juniper-lane", site.address);
    page.goto(&format!("{home}/directory")).await?;
    page.wait_text(By::Css("[data-number='10']"), "Kitchen: dishwasher").await?;
    page.goto(&format!("{home}/logbook")).await?;
    let logbook = LogbookScreen(page);
    let line = logbook.line("Kitchen, dishwasher: dark").await?;
    page.press(&format!("Strike out line {line}")).await?;
    logbook.wait_struck(line, true).await?;
    page.goto(&format!("{home}/directory")).await?;
    page.wait_text(By::Css("[data-number='10']"), "Not proven (old card: dishwasher)").await?;
    page.goto(&format!("{home}/logbook")).await?;
    logbook.show(line).await?;
    page.press(&format!("Strike line {line} back in")).await?;
    logbook.wait_struck(line, false).await?;
    page.goto(&format!("{home}/directory")).await?;
    page.wait_text(By::Css("[data-number='10']"), "Kitchen: dishwasher").await?;
    // A line that others depend on goes only with them.
    page.goto(&format!("{home}/logbook")).await?;
    loop {
        if let Ok(line) = page.driver.find(By::XPath("//li[contains(., 'Room: Greenhouse')]")).await {
            let seq = line.attr("data-seq").await?.unwrap_or_default();
            page.press(&format!("Strike out line {seq}")).await?;
            break;
        }
        page.press("Older lines").await?;
        tokio::time::sleep(Duration::from_millis(60)).await;
    }
    page.wait_text(By::Css("[aria-labelledby=depend-title]"), "later lines depend on this").await?;
    page.press("Cancel").await
}

async fn two_windows_stay_in_step(chrome: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    let address = format!("{}/h/juniper-lane/trace", site.address);
    let walker = chrome.open(View::Phone).await?;
    for window in [page, &walker] {
        window.goto(&address).await?;
        Trace(window).wait_step("switch_off").await?;
    }
    page.press("Done, it is off").await?;
    page.wait_text(By::Css("[data-testid=off-now]"), "OFF: 19").await?;
    // The bar on the other phone follows within half a second of the line being written.
    let written = Instant::now();
    walker.wait_text(By::Css("[data-testid=off-now]"), "OFF: 19").await?;
    let late = written.elapsed();
    ensure!(late < Duration::from_millis(500), "the other window followed after {late:?}");
    Trace(&walker).wait_step("look").await?;
    let point = Trace(&walker).current().await?;
    Trace(&walker).answer(&point, "dark").await?;
    page.find(By::Css("[data-point] [aria-pressed=true]")).await?;
    walker.close().await
}

async fn what_is_recorded_without_an_answer_is_sent_later_once(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let mut site = Site::empty().await?;
    let home = small_home(page, &site).await?;
    page.goto(&format!("{home}/trace")).await?;
    let trace = Trace(page);
    wait_current(page, &trace, "counter").await?;
    site.stop().await?;
    page.wait_text(By::Css("[data-testid=stale]"), "may be old, also which breakers are off").await?;
    trace.answer("counter", "lit").await?;
    page.wait_text(By::Css("[data-testid=outbox]"), "Not sent yet: 1 line").await?;
    wait_current(page, &trace, "ceiling").await?;
    trace.answer("ceiling", "lit").await?;
    page.wait_text(By::Css("[data-testid=outbox]"), "Not sent yet: 2 lines").await?;
    site.start_again().await?;
    page.wait_gone(By::Css("[data-testid=outbox]")).await?;
    page.wait_gone(By::Css("[data-testid=stale]")).await?;
    page.goto(&format!("{home}/logbook")).await?;
    page.find(By::Css("[data-testid=logbook] li")).await?;
    for words in ["Kitchen, counter: lit", "Kitchen, ceiling: lit"] {
        let lines = page.driver.find_all(By::XPath(format!("//li[contains(., '{words}')]"))).await?;
        ensure!(lines.len() == 1, "{words} stands there {} times", lines.len());
    }
    site.stop().await
}

async fn a_contradiction_is_shown_with_its_lines(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    page.goto(&format!("{}/h/juniper-lane/trace", site.address)).await?;
    page.wait_text(By::Css("[data-testid=contradiction]"), "dark with 3 off, and dark with 10 off").await?;
    page.find(By::XPath("//button[contains(., 'Back hall, by the panel')]")).await?.click().await?;
    page.test_id("because").await?;
    let disagree = page.count("tr[data-role=disagrees]").await?;
    ensure!(disagree == 2, "{disagree} lines are said to disagree");
    // It may be that its halves hang on two breakers.
    page.find(By::XPath("//button[contains(., 'Enter its other half')]")).await?;
    // Striking one of them out leaves one dark look, and one may be a slip.
    page.find(By::XPath("(//tr[@data-role='disagrees'])[1]//button")).await?.click().await?;
    page.wait_gone(By::Css("tr[data-role=disagrees]")).await?;
    page.wait_text(By::Css("[data-testid=because]"), "Seen lit, and dark once with 10 off").await?;
    // On another copy of the home its other half is entered: both are traced anew.
    let site = Site::demo().await?;
    page.goto(&format!("{}/h/juniper-lane/trace", site.address)).await?;
    page.find(By::XPath("//button[contains(., 'Back hall, by the panel')]")).await?.click().await?;
    page.find(By::XPath("//button[contains(., 'Enter its other half')]")).await?.click().await?;
    page.wait_gone(By::Css("[data-testid=contradiction]")).await?;
    page.goto(&format!("{}/h/juniper-lane/house", site.address)).await?;
    page.wait_text(By::Css("main"), "by the panel, other half").await
}

async fn keys_go_everywhere(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    page.goto(&format!("{}/h/juniper-lane/panel", site.address)).await?;
    page.test_id("fingerpost").await?;
    // The first Tab offers the way past the bars.
    page.keys("\u{e004}").await?;
    ensure!(page.driver.active_element().await?.text().await? == "Skip to the content");
    page.keys("\u{e007}").await?;
    ensure!(page.driver.active_element().await?.id().await?.as_deref() == Some("main"));
    for (key, ready) in [
        ("gh", "[data-testid=plan]"),
        ("gd", "[data-testid=card]"),
        ("gl", "[data-testid=logbook]"),
        ("gt", "[data-testid=panel-side]"),
        ("gp", "[data-testid=fingerpost]"),
    ] {
        page.keys(key).await?;
        page.find(By::Css(ready)).await.with_context(|| key.to_owned())?;
    }
    page.keys("?").await?;
    page.wait_text(By::Css("[role=dialog]"), "Go to Trace").await?;
    page.press("Close").await?;
    page.wait_gone(By::Css("[role=dialog]")).await?;
    // Along the post, and to a number.
    Panel(page).select("Breaker 1").await?;
    page.keys("\u{e015}").await?; // arrow down
    page.wait_text(By::Css("[data-testid=breaker-facts]"), "leg B").await?;
    page.keys("18").await?;
    page.wait_text(By::Css("[data-testid=breaker-facts]"), "240 V between its poles").await
}

async fn another_size_of_panel_and_numbering(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Homes(page).start(&site.address, "Weir House").await?;
    let panel = Panel(page);
    panel.describe(84).await?;
    page.press("Describe the panel").await?;
    page.find(By::XPath("//*[@role='combobox'][contains(., 'Odd down the left')]")).await?.click().await?;
    page.press("Straight down the left, then down the right").await?;
    page.press("Save").await?;
    page.wait_gone(By::Css("[role=dialog]")).await?;
    panel.type_card("41 15 attic\n1-2 40/2 dryer\n43 20 shed", "Save 3 breakers").await?;
    page.find(By::Css("[aria-label^='Breaker 43,']")).await?;
    let spoken = panel.spoken().await?;
    ensure!(spoken.len() == 3 + 80, "{} blades and open spaces", spoken.len());
    ensure!(spoken.iter().any(|s| s.starts_with("Breaker 1-2, 40 amps, legs A and B")), "{spoken:?}");
    ensure!(spoken.iter().any(|s| s.starts_with("Breaker 43, 20 amps, leg A,")), "{spoken:?}");
    Ok(())
}

async fn a_trace_goes_on_whatever_the_crew_does(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let home = small_home(page, &site).await?;
    page.goto(&format!("{home}/trace")).await?;
    let trace = Trace(page);
    // All lit at once, room by room.
    page.press("Rest lit in Kitchen").await?;
    wait_current(page, &trace, "lantern").await?;
    // A slip is struck out with a key, and corrected by the other answer.
    trace.answer("lantern", "dark").await?;
    page.find(By::XPath("//button[starts-with(normalize-space(.), 'Strike out: Hall, lantern, dark')]")).await?;
    page.keys("u").await?;
    wait_current(page, &trace, "lantern").await?;
    trace.answer("lantern", "lit").await?;
    trace.wait_step("switch_off").await?;
    // 1 must stay on: the next one is proposed, and 1 never again.
    ensure!(trace.blade().await? == "1");
    page.press("Can’t").await?;
    page.fill("Why", "the fish tank").await?;
    page.press("1 must stay on").await?;
    page.wait_text(By::Css("[data-testid=panel-side]"), "the fish tank").await?;
    page.wait_text(By::Css("[data-testid=big-blade]"), "5-7").await?;
    // Another one than proposed is switched off: the trace goes along.
    page.press("Can’t").await?;
    page.press("2 is off").await?;
    page.wait_text(By::Css("[data-testid=instruction]"), "Leave 2 OFF").await?;
    wait_current(page, &trace, "counter").await?;
    trace.answer("counter", "dark").await?;
    page.wait_text(By::Css("[data-testid=progress]"), "1 of 3 proven").await?;
    // The answer is changed: the first line is struck out, nothing is proven any more.
    page.find(By::XPath("//*[@data-point='counter']//button[normalize-space(.)='Lit']")).await?.click().await?;
    page.wait_text(By::Css("[data-testid=progress]"), "0 of 3 proven").await?;
    // Enough seen: on again before the round is done.
    page.press("It is on again").await?;
    page.wait_text(By::Css("[data-testid=off-now]"), "ALL ON").await?;
    page.goto(&format!("{home}/logbook")).await?;
    let struck = page.find(By::Css("li[data-struck=true]")).await?.text().await?;
    ensure!(struck.contains("Kitchen, counter: dark"), "{struck}");
    ensure!(page.count("li[data-struck=true]").await? == 2);
    Ok(())
}

async fn what_waits_outlives_a_reload(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let mut site = Site::empty().await?;
    let home = small_home(page, &site).await?;
    page.goto(&format!("{home}/trace")).await?;
    let trace = Trace(page);
    wait_current(page, &trace, "counter").await?;
    site.stop().await?;
    trace.answer("counter", "lit").await?;
    page.wait_text(By::Css("[data-testid=outbox]"), "Not sent yet: 1 line").await?;
    // The page is gone, the line is not.
    page.goto("about:blank").await?;
    site.start_again().await?;
    page.goto(&format!("{home}/logbook")).await?;
    page.find(By::XPath("//li[contains(., 'Kitchen, counter: lit')]")).await?;
    site.stop().await
}

async fn rooms_and_points_are_corrected(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let home = small_home(page, &site).await?;
    page.goto(&format!("{home}/house/list")).await?;
    page.find(By::XPath("//nav[@aria-label='Rooms']//button[starts-with(normalize-space(.), 'Kitchen')]")).await?.click().await?;
    page.press("Edit").await?;
    // A room with points is not removed.
    page.press("Remove room").await?;
    page.wait_text(By::Css("[data-testid=notice]"), "Kitchen still has 2 points").await?;
    page.fill("Name of the room", "Galley").await?;
    page.press("Rename").await?;
    page.wait_text(By::Css("nav[aria-label=Rooms]"), "Galley").await?;
    page.press("Remove ceiling").await?;
    House(page).wait_points(1).await?;
    page.wait_gone(By::Css("[data-testid=points] > li:nth-of-type(2)")).await?;
    page.press("Done editing").await?;
    // A 240 V point comes with its warning.
    page.press("Appliance").await?;
    page.find(By::Css("input[type=checkbox]")).await?.click().await?;
    page.wait_text(By::Css("main"), "never goes on 240 V").await?;
    page.fill("Which appliance", "range").await?;
    page.keys("\u{e007}").await?;
    page.wait_text(By::Css("[data-testid=points]"), "240 V").await
}

async fn a_home_goes_out_and_comes_in_through_the_screen(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let from = Site::demo().await?;
    let to = Site::empty().await?;
    let file = reqwest::get(format!("{}/api/homes/juniper-lane/export", from.address)).await?.bytes().await?;
    let folder = tempfile::tempdir()?;
    let path = folder.path().join("home.json");
    std::fs::write(&path, file)?;
    page.goto(&to.address).await?;
    page.find(By::Css("input[type=file]")).await?.send_keys(path.display().to_string()).await?;
    page.test_id("fingerpost").await?;
    page.wait_text(By::Css("main"), "32 of 75 points proven").await?;
    // The colors that were chosen stay.
    page.press("Settings").await?;
    page.press("Colors: dark, for cellars").await?;
    page.goto(&to.address).await?;
    page.find(By::Css("html[data-scheme=dark]")).await?;
    page.wait_text(By::Css("main"), "Juniper Lane Schoolhouse").await
}
