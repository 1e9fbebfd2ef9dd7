//! A home from nothing to the printed card, and what is wrong or corrected on the way.

use std::process::Command;

use anyhow::{Context, Result, bail, ensure};
use wayfinder_e2e::screens::*;
use wayfinder_e2e::{Chrome, Page, Site, View};

/// A small home: two breakers, two rooms, three points.
pub(crate) async fn small_home(page: &Page, site: &Site) -> Result<String> {
    let home = Homes(page).start(&site.address, "Mill Cottage").await?;
    let panel = Panel(page);
    panel.describe(12).await?;
    panel.type_card("1 20 kitchen\n2 15 rec\n5-7 50/2 range", "Save 3 breakers").await?;
    Panel(page).shows("Breaker 5-7,").await?;
    page.goto(&format!("{home}/house/list")).await?;
    let house = House(page);
    house.add_room("Kitchen").await?;
    house.add_points("Receptacle", &["counter"]).await?;
    house.add_points("Light", &["ceiling"]).await?;
    house.add_room("Hall").await?;
    house.add_points("Light", &["lantern"]).await?;
    Ok(home)
}

pub(crate) async fn from_an_empty_home_to_the_printed_card(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let mut site = Site::empty().await?;
    // 1 Panel: typed as the card reads, and one more into an open space.
    let home = small_home(page, &site).await?;
    page.goto(&format!("{home}/panel")).await?;
    Panel(page).select("Space 3").await?;
    page.fill("Amps", "15").await?;
    page.fill("What the old card says", "porch").await?;
    page.press("Put the breaker in").await?;
    Panel(page).facts_say("leg B").await?;
    let spoken = Panel(page).spoken().await?;
    ensure!(spoken.iter().any(|s| s.starts_with("Breaker 5-7, 50 amps, legs A and B, on")), "{spoken:?}");
    // 2 House: repeat last counts on.
    page.goto(&format!("{home}/house/list")).await?;
    let house = House(page);
    house.add_room("Porch").await?;
    house.add_points("Receptacle", &["by the door"]).await?;
    page.press("Repeat last").await?;
    house.wait_points(2).await?;
    House(page).points_say("by the door 2").await?;
    // 3 Trace: everything lit, then a breaker at a time.
    page.goto(&format!("{home}/trace")).await?;
    let trace = Trace(page);
    // Asked once, before the first step.
    page.says("who traces, and with what?").await?;
    page.can_be_used_by_everybody().await?;
    trace.begin().await?;
    let points = ["counter", "ceiling", "lantern", "by the door", "by the door 2"];
    trace.wait_step("see_all_lit").await?;
    page.off_now_says("ALL ON").await?;
    for point in points {
        trace.wait_current(point).await?;
        trace.answer(point, "lit").await?;
    }
    trace.wait_step("switch_off").await?;
    ensure!(trace.blade().await? == "1", "asked for {}", trace.blade().await?);
    trace.done("Done, it is off").await?;
    page.off_now_says("OFF: 1").await?;
    trace.wait_current("counter").await?;
    // Whatever is asked is done, with the porch passed over, until the rest is proven.
    for acts in 0.. {
        ensure!(acts < 80, "the rest is not proven");
        let before = asked(page).await?;
        if trace.progress().await?.starts_with("3 of 5 proven") {
            break;
        }
        match before.0.as_str() {
            "switch_off" => trace.done("Done, it is off").await?,
            "switch_on" => trace.done("Done, it is on").await?,
            "look" | "look_under" | "see_one_lit_again" => {
                let off = page.off_now().await?;
                // The screen may have moved on since it was asked what is next.
                let Ok(point) = trace.current().await else {
                    page.wait_until("the screen asks for something else", async || Ok(asked(page).await? != before)).await?;
                    continue;
                };
                let fed = match point.as_str() {
                    "counter" | "ceiling" => "1",
                    "lantern" => "3",
                    _ => "",
                };
                let dark = if off.iter().any(|b| b == fed) { "dark" } else { "lit" };
                trace.answer(&point, if fed.is_empty() { "skip" } else { dark }).await?;
            }
            other => bail!("the trace asks to {other}"),
        }
        page.wait_until("the screen asks for something else", async || Ok(asked(page).await? != before)).await?;
    }
    if !page.off_now().await?.is_empty() {
        trace.wait_step("switch_on").await?;
        trace.done("Done, it is on").await?;
    }
    page.off_now_says("ALL ON").await?;
    // 4 Directory: worded from what is proven, the rest marked.
    page.goto(&format!("{home}/directory")).await?;
    let directory = Directory(page);
    directory.line_says("1", "proven", "Kitchen: receptacle, light").await?;
    directory.line_says("3", "proven", "Hall: lantern").await?;
    directory.line_says("2", "not_proven", "Not proven (old card: rec)").await?;
    let link = directory.pdf().await?;
    check_pdf(&format!("{}{link}", site.address)).await?;
    // 5 Nothing is lost when the program is restarted.
    site.stop().await?;
    site.start_again().await?;
    page.goto(&format!("{home}/trace")).await?;
    Trace(page).progress_says("3 of 5 proven").await?;
    site.stop().await
}

/// What the trace asks now: its step, the point it waits for, what is off, how far it is.
async fn asked(page: &Page) -> Result<(String, String)> {
    let trace = Trace(page);
    let step = trace.step().await?;
    let point = match step.as_str() {
        "look" | "look_under" | "see_one_lit_again" => trace.current().await.unwrap_or_default(),
        _ => String::new(),
    };
    let followed = trace.followed().await.unwrap_or_default();
    Ok((step, format!("{point} {:?} {followed}", page.off_now().await?)))
}

/// The page is the card's true size, the text is in it, the fonts are embedded: as poppler reads it.
pub(crate) async fn check_pdf(address: &str) -> Result<()> {
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
        ["Mill Cottage", "Kitchen: receptacle, light", "Hall: lantern", "Not proven", "3 of 5 points proven", "5-7", "Unused"]
    {
        ensure!(text.contains(words), "{words} is not in:\n{text}");
    }
    let fonts = String::from_utf8(Command::new("pdffonts").arg(&path).output()?.stdout)?;
    let rows: Vec<_> = fonts.lines().skip(2).collect();
    ensure!(rows.len() == 2 && rows.iter().all(|row| row.contains(" yes yes ")), "fonts are not embedded:\n{fonts}");
    Ok(())
}

pub(crate) async fn what_is_wrong_is_said_and_loses_nothing(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    page.goto(&site.address).await?;
    let folder = tempfile::tempdir()?;
    for (name, bytes, says) in [
        ("photo.json", &b"\x89PNG\r\n\x1a\n"[..], "no Wayfinder home file"),
        ("newer.json", br#"{"format":"wayfinder-home","version":7}"#, "Use a newer Wayfinder"),
    ] {
        let path = folder.path().join(name);
        std::fs::write(&path, bytes)?;
        Homes(page).give(&path).await?;
        Homes(page).problem_says(says).await.context(name)?;
    }
    let home = Homes(page).start(&site.address, "Mill Cottage").await?;
    let panel = Panel(page);
    panel.describe(12).await?;
    // Good lines are kept, the others stay in the field with what is wrong.
    page.press("Type the card").await?;
    page.fill("The card", "1 20 kitchen\n20 kitchn\n11 50/2 range\n1 15 again\n99 20 attic").await?;
    for says in ["“kitchn” is no rating", "does not fit at space 11", "stands on this card twice", "no space 99"] {
        Panel(page).preview_says(says).await?;
    }
    page.press("Save 1 breaker").await?;
    // The line that stood there twice now describes anew what was kept.
    Panel(page).card_says("3 lines are not understood").await?;
    ensure!(page.value("The card").await?.starts_with("20 kitchn\n"), "the good line stays");
    // Closed by a slip, left by the way back, loaded again: what was typed is still there, until it is discarded.
    page.keys("\u{e00c}").await?;
    page.dialog_closed().await?;
    page.press("Describe the panel").await?;
    page.fill("Where it hangs", "back hall, behind the door").await?;
    page.driver.back().await?;
    page.driver.forward().await?;
    page.driver.refresh().await?;
    page.press("Describe the panel").await?;
    page.kept_says("It is not saved yet").await?;
    let place = page.value("Where it hangs").await?;
    ensure!(place == "back hall, behind the door", "{place}");
    page.press("Discard").await?;
    let place = page.value("Where it hangs").await?;
    ensure!(place == "back hall", "{place}");
    page.press("Cancel").await?;
    page.dialog_closed().await?;
    page.press("Type the card").await?;
    page.kept_says("It is not saved yet").await?;
    ensure!(page.value("The card").await?.starts_with("20 kitchn\n"), "what was typed is kept");
    page.press("Cancel").await?;
    page.dialog_closed().await?;
    page.press("Type the card").await?;
    ensure!(page.value("The card").await?.is_empty(), "cancelled is discarded");
    page.press("Cancel").await?;
    page.dialog_closed().await?;
    // An occupied space and a two-pole that does not fit, from the form.
    panel.select("Space 3").await?;
    for (at, says) in [
        ("1", "Space 1 is taken by breaker 1 “kitchen”"),
        ("3-4", "From space 3 down it would be 3-5"),
        ("40", "there is no space 40"),
    ] {
        page.fill("Space", at).await?;
        page.press("Put the breaker in").await?;
        page.form_says(says).await?;
        page.form_says("Nothing was recorded").await?;
    }
    // A panel that would lose a breaker.
    page.press("Describe the panel").await?;
    page.fill("Spaces", "1").await?;
    page.press("Save").await?;
    page.form_says("2 to 84").await?;
    page.goto(&format!("{home}/logbook")).await?;
    page.says("4 lines").await?;
    page.goto(&format!("{}/h/nobody/panel", site.address)).await?;
    page.says("There is no such home").await
}

pub(crate) async fn another_size_of_panel_and_numbering(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Homes(page).start(&site.address, "Weir House").await?;
    let panel = Panel(page);
    panel.describe(84).await?;
    page.press("Describe the panel").await?;
    page.choose_instead("Odd down the left", "Straight down the left, then down the right").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    panel.type_card("41 15 attic\n1-2 40/2 dryer\n43 20 shed", "Save 3 breakers").await?;
    Panel(page).shows("Breaker 43,").await?;
    let spoken = panel.spoken().await?;
    ensure!(spoken.len() == 3 + 80, "{} blades and open spaces", spoken.len());
    ensure!(spoken.iter().any(|s| s.starts_with("Breaker 1-2, 40 amps, legs A and B")), "{spoken:?}");
    ensure!(spoken.iter().any(|s| s.starts_with("Breaker 43, 20 amps, leg A,")), "{spoken:?}");
    Ok(())
}

pub(crate) async fn rooms_and_points_are_corrected(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let home = small_home(page, &site).await?;
    page.goto(&format!("{home}/house/list")).await?;
    House(page).open_room("Kitchen").await?;
    page.press("Edit").await?;
    // A room with points is not removed.
    page.press("Remove room").await?;
    page.press("Yes, remove room").await?;
    page.notice_says("Kitchen still has 2 points").await?;
    page.fill("Name of the room", "Galley").await?;
    page.press("Rename").await?;
    House(page).rooms_say("Galley").await?;
    // A point is, once that was asked, and is back with one tap.
    page.press("Remove ceiling").await?;
    page.press("Keep it").await?;
    page.press("Remove ceiling").await?;
    page.press("Yes, remove").await?;
    House(page).wait_points(1).await?;
    page.press("Strike it out").await?;
    House(page).wait_points(2).await?;
    page.press("Remove ceiling").await?;
    page.press("Yes, remove").await?;
    House(page).wait_points(1).await?;
    page.press("Done editing").await?;
    // A 240 V point comes with its warning.
    page.press("Appliance").await?;
    page.tick("240 V").await?;
    page.says("never goes on 240 V").await?;
    page.fill("Which appliance", "range").await?;
    page.keys("\u{e007}").await?;
    House(page).points_say("240 V").await
}

pub(crate) async fn a_home_goes_out_and_comes_in_through_the_screen(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let from = Site::demo().await?;
    let to = Site::empty().await?;
    let file = reqwest::get(format!("{}/api/homes/juniper-lane/export", from.address)).await?.bytes().await?;
    let folder = tempfile::tempdir()?;
    let path = folder.path().join("home.json");
    std::fs::write(&path, file)?;
    page.goto(&to.address).await?;
    Homes(page).give(&path).await?;
    page.test_id("fingerpost").await?;
    page.says("31 of 75 points proven").await?;
    // The colors that were chosen stay.
    page.press("Settings").await?;
    page.press("Colors: dark, for cellars").await?;
    page.goto(&to.address).await?;
    page.wait_scheme("dark").await?;
    page.says("Juniper Lane Schoolhouse").await
}
