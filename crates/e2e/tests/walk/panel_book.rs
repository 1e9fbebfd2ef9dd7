//! The panel book in a browser: cards and sheets taken in at one go, breakers moved, joined and paired in the
//! drawing, several panels, and what the checks say.

use anyhow::{Context, Result, ensure};
use thirtyfour::Key;
use wayfinder_e2e::screens::*;
use wayfinder_e2e::{Chrome, Page, Site, View};

async fn undo(page: &Page, shown: &str) -> Result<()> {
    page.press("Strike it out").await?;
    Panel(page).shows(&format!("{shown},")).await
}

pub(crate) async fn a_card_of_42_lines_is_typed_and_kept_at_one_go(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Homes(page).start(&site.address, "Quarry House").await?;
    let panel = Panel(page);
    panel.describe(42).await?;
    let mut card: Vec<String> = (1..=34).map(|n| format!("{n} {} room {n}", if n % 3 == 0 { 15 } else { 20 })).collect();
    card.extend(
        ["35a 15 bell", "35b 15 cellar", "36a 15 stair", "36b 15 attic", "37-39 30/2 dryer", "38-40 50/2 #6 range"]
            .map(String::from),
    );
    card.extend(["41 20 gfci porch", "42 20 afci loft"].map(String::from));
    ensure!(card.len() == 42);
    page.press("Type the card").await?;
    page.fill("The card", &card.join("\n")).await?;
    panel.wait_preview(42).await?;
    // The post is drawn as it would be, before anything is kept.
    panel.preview_shows("38-40").await?;
    page.press("Save 42 breakers").await?;
    page.dialog_closed().await?;
    panel.shows("Breaker 35b, 15 amps, leg B, on, tandem").await?;
    let spoken = panel.spoken().await?;
    ensure!(spoken.len() == 42 && spoken.iter().all(|s| s.starts_with("Breaker")), "{spoken:?}");
    Ok(())
}

pub(crate) async fn a_spreadsheet_is_taken_in_and_garbage_is_refused(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Homes(page).start(&site.address, "Quarry House").await?;
    Panel(page).describe(24).await?;
    let folder = tempfile::tempdir()?;
    let write = |name: &str, bytes: &[u8]| -> Result<std::path::PathBuf> {
        let path = folder.path().join(name);
        std::fs::write(&path, bytes)?;
        Ok(path)
    };
    page.press("Type the card").await?;
    let binary: Vec<u8> = (0..=255).cycle().take(9000).collect();
    let rows: String = (0..100_000).map(|n| format!("{n},20,hall\n")).collect();
    let large = vec![b'x'; 10 << 20];
    for (name, bytes, says) in [
        ("photo.csv", binary.as_slice(), "This is no spreadsheet"),
        ("long.csv", rows.as_bytes(), "more than 2000 rows"),
        ("large.csv", large.as_slice(), "larger than the 4 MB"),
        ("broken.xlsx", b"PK\x03\x04 broken", "This is no spreadsheet"),
    ] {
        page.give("Spreadsheet", &write(name, bytes)?).await?;
        page.form_says(says).await.context(name)?;
    }
    // Two columns of words: the guess takes both; the person corrects it.
    let sheet = "Panel A, 2nd floor;;;;\n\nCkt;Area;Load;Brkr;Type\n1;North;Kitchen;20A;GFCI\n\n5;South;Range;2P50;\n7;;;;\n9;East;Fridge;15;\n;;printed in May;;\n";
    page.give("Spreadsheet", &write("card.csv", sheet.as_bytes())?).await?;
    Panel(page).columns_say("printed in May").await?;
    let text = page.value("The card").await?;
    ensure!(text.contains("1 20 gfci North Kitchen") && text.contains("5-7 50/2 South Range"), "{text}");
    page.choose("Area", "not taken").await?;
    Panel(page).preview_says("“Fridge”").await?;
    page.press("Save 3 breakers").await?;
    page.dialog_closed().await?;
    Panel(page).shows("Breaker 5-7, 50 amps").await?;
    // Cells copied from a spreadsheet come with tabs between.
    page.press("Type the card").await?;
    page.field("The card").await?;
    Panel(page).paste("Ckt\tLoad\tAmps\n11\tPorch\t15\n13\tAttic\t20A\n").await?;
    Panel(page).preview_says("“Attic”").await?;
    page.press("Save 2 breakers").await?;
    page.dialog_closed().await?;
    // And out again, in each format.
    let home = page.driver.current_url().await?.path().split('/').nth(2).unwrap_or_default().to_owned();
    let panels: serde_json::Value = reqwest::get(format!("{}/api/homes/{home}/panels", site.address)).await?.json().await?;
    let panel = panels[0]["panel"]["id"].as_str().unwrap_or_default();
    for format in ["csv", "xlsx", "ods", "txt"] {
        let bytes = reqwest::get(format!("{}/api/homes/{home}/panels/{panel}/circuits/{format}", site.address)).await?;
        let bytes = bytes.error_for_status()?.bytes().await?;
        if format == "txt" {
            ensure!(
                bytes.starts_with(b"1 20 gfci Kitchen\n3 open\n5-7 50/2 Range\n9 15 Fridge\n11 15 Porch\n13 20 Attic\n"),
                "{bytes:?}"
            );
        } else {
            let rows = wayfinder_formats::read_rows(&bytes)?;
            ensure!(rows.iter().any(|row| row.iter().any(|cell| cell == "Fridge")), "{format}");
        }
    }
    Ok(())
}

pub(crate) async fn breakers_are_moved_split_joined_and_paired_in_the_drawing(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let home = Homes(page).start(&site.address, "Quarry House").await?;
    let panel = Panel(page);
    panel.describe(12).await?;
    panel.type_card("1 20 kitchen\n3 20 pantry\n2 15 hall\n4a 15 bell", "Save 4 breakers").await?;
    panel.shows("Breaker 3,").await?;
    // By keyboard: where it may go, and why not where it may not.
    panel.select("Breaker 1").await?;
    page.keys("m").await?;
    panel.move_says("here it sits now").await?;
    page.keys(&format!("{}", Key::Right + "")).await?;
    panel.move_says("Not 2. Space 2 is taken by breaker 2 “hall”").await?;
    page.keys(&format!("{}", Key::Enter + "")).await?;
    page.notice_says("taken by breaker 2").await?;
    page.keys(&format!("{}", Key::Left + "")).await?;
    for _ in 0..12 {
        page.keys(&format!("{}", Key::Down + "")).await?;
        if panel.would_move_to("5: leg A, 120 V").await? {
            break;
        }
    }
    panel.move_says("5: leg A, 120 V to neutral").await?;
    page.keys(&format!("{}", Key::Enter + "")).await?;
    panel.shows("Breaker 5, 20 amps, leg A").await?;
    panel.moved().await?;
    // With the mouse: picked up, carried to space 9, let go; struck out again.
    panel.carry("Breaker 5", "Space 9").await?;
    panel.shows("Breaker 9, 20 amps").await?;
    undo(page, "Breaker 5").await?;
    // A space is split, each act one line.
    panel.select("Breaker 2").await?;
    page.press("Split into a tandem").await?;
    panel.shows("Space 2b, open").await?;
    undo(page, "Breaker 2").await?;
    // Two circuits of one neutral, without a tie: the checks say so, and joining mends it.
    panel.select("Breaker 3").await?;
    page.choose_in_menu("Shares a neutral with", "5 kitchen").await?;
    Checks(page).find("shared-neutral-disconnect").await?;
    page.choose_in_menu("Join with", "5, by a handle tie").await?;
    panel.facts_say("handles tied").await?;
    panel.facts_say("its poles share a neutral").await?;
    Checks(page).find_nothing("shared-neutral-disconnect").await?;
    panel.shows("Breaker 3-5, 20 amps, legs A and B").await?;
    page.goto(&format!("{home}/logbook")).await?;
    LogbookScreen(page).says("Breaker 3 and breaker 5 are one: handles tied").await
}

pub(crate) async fn panels_behind_panels_and_what_the_checks_say(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    let home = format!("{}/h/juniper-lane", site.address);
    page.goto(&format!("{home}/panel")).await?;
    // The feeder leads to the other post, and that post back to it.
    Panel(page).select("Breaker 18-20").await?;
    page.press("Go to Greenhouse panel").await?;
    page.heading_says("Greenhouse panel, above the potting bench").await?;
    Panel(page).shows("Breaker 2-4, 30 amps, legs A and B, on, Greenhouse: heater").await?;
    page.press("18-20").await?;
    Panel(page).title_says("Feeds Greenhouse panel").await?;
    page.goto(&format!("{home}/directory/greenhouse-panel")).await?;
    Directory(page).card_says("fed from 18-20").await?;
    // A photo of its label is kept and shown; what is none is refused.
    let folder = tempfile::tempdir()?;
    let (png, other) = (folder.path().join("label.png"), folder.path().join("label.heic"));
    page.picture(&png).await?;
    std::fs::write(&other, b"no picture")?;
    page.goto(&format!("{home}/panel/greenhouse-panel")).await?;
    page.give("Photo", &other).await?;
    page.notice_says("cannot be shown as a photo").await?;
    page.give("Photo", &png).await?;
    Panel(page).wait_photo().await?;
    // Another panel behind the greenhouse's own.
    page.goto(&format!("{home}/panel/greenhouse-panel")).await?;
    page.choose_in_menu("More for this panel", "Another panel").await?;
    page.fill("Name", "Shed panel").await?;
    page.choose("Fed from", "G2-4 Greenhouse: heater").await?;
    page.press("Save").await?;
    page.heading_says("Shed panel").await?;
    page.says("Fed from breaker G2-4 of Greenhouse panel").await?;
    // The checks: set aside with a reason, mended, worded by another edition, printed.
    page.goto(&format!("{home}/checks")).await?;
    page.says("2 dangers").await?;
    let (checks, wire) = (Checks(page), "breaker-over-wire");
    page.press("Show them (4)").await?;
    checks.finding_says("protection-by-place", "Today's rule wants GFCI protection here").await?;
    checks.press(wire, "Set aside").await?;
    page.fill("Why is it set aside?", "the electrician comes on Friday").await?;
    page.press("Set it aside").await?;
    page.says("1 danger,").await?;
    checks.finding_says(wire, "the electrician comes on Friday (Owner)").await?;
    checks.press(wire, "Show it again").await?;
    page.says("2 dangers").await?;
    page.press("Done: A 15 A breaker is in its place").await?;
    checks.find_nothing(wire).await?;
    page.choose("Rules of", "Canada, CEC 2024").await?;
    page.says("What CEC 2024 says is not known here of these").await?;
    checks.find_nothing("protection-by-place").await?;
    checks.say("CEC 2024 has a section for this that is not known here").await?;
    let report = reqwest::get(format!("{}/api/homes/juniper-lane/findings.pdf?sheet=a4", site.address)).await?;
    ensure!(report.error_for_status()?.bytes().await?.starts_with(b"%PDF"));
    // From a finding to its blade.
    page.press("11").await?;
    Panel(page).facts_say("shares a neutral with 19").await?;
    Panel(page).wait_danger().await
}

pub(crate) async fn numbers_as_engraved_a_reading_and_a_gaping_space(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Homes(page).start(&site.address, "Quarry House").await?;
    page.press("Describe the panel").await?;
    page.choose_instead("Odd down the left", "Another way: as engraved").await?;
    page.fill("Left column from the top", "4 3 2 1").await?;
    page.fill("Right column from the top", "0 5 6 6").await?;
    page.press("Save").await?;
    page.field_says("Number 6 is engraved twice").await?;
    page.fill("Right column from the top", "0 5 6 7").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    let panel = Panel(page);
    panel.type_card("4-3 30/2 dryer\n5 20 hall", "Save 2 breakers").await?;
    panel.shows("Breaker 4-3, 30 amps, legs A and B").await?;
    // 0 V between the rows of 4 and 3: one leg, whatever the numbering says.
    page.choose_in_menu("More for this panel", "A reading between two spaces").await?;
    for (volts, says) in [("62", "neither one leg (0 V) nor two (240 V)"), ("0", "")] {
        page.fill("Space", "3").await?;
        page.fill("Read against space", "4").await?;
        page.fill("The meter shows, volts", volts).await?;
        page.press("Save").await?;
        if !says.is_empty() {
            page.form_says(says).await?;
        }
    }
    page.dialog_closed().await?;
    panel.shows("Breaker 4-3, 30 amps, legs A and A").await?;
    panel.select("Breaker 4-3").await?;
    panel.facts_say("0 V between its poles").await?;
    Checks(page).find("two-pole-one-leg").await?;
    panel.select("Space 6").await?;
    page.press("It is open, without a filler").await?;
    Checks(page).find("open-space").await?;
    page.press("Done: A filler is in").await?;
    panel.shows("Space 6, open, filler").await
}
