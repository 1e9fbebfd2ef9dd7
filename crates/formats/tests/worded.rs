//! What the program says of the demo home, word for word: every finding, and every line of the cards. A change of wording shows
//! here as a change, and is read once more.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::fmt::Write;

use wayfinder_core::{Printed, Study, card, findings};
use wayfinder_formats::read_home_file;

fn juniper_lane() -> Study {
    let file = include_bytes!("../../server/demo/juniper-lane.json");
    Study::from(&read_home_file(file).unwrap().1)
}

#[test]
fn the_findings_of_the_demo_home_read_so() {
    let mut text = String::new();
    for finding in findings(&juniper_lane()) {
        let aside = finding.aside.as_ref().map_or(String::new(), |why| format!(" (set aside: {why})"));
        writeln!(text, "{:?} {}: {}{aside}", finding.severity, finding.about, finding.message).unwrap();
        writeln!(text, "  why: {}\n  do: {}\n  from: {}", finding.why, finding.remedy, finding.source).unwrap();
        if let Some(mend) = &finding.mend {
            writeln!(text, "  button: {}", mend.words).unwrap();
        }
    }
    insta::assert_snapshot!(text);
}

#[test]
fn the_cards_of_the_demo_home_read_so() {
    let home = juniper_lane();
    let mut text = String::new();
    let panels: Vec<_> = home.panels().all().map(|panel| panel.id.clone()).collect();
    for panel in &panels {
        let card = card(&home, panel, Printed { date: "2026-11-29", by: "" }).unwrap();
        writeln!(text, "# {} | {}", card.text.title, card.text.subtitle).unwrap();
        for cell in &card.cells {
            writeln!(text, "{:>5} {:>3} {:?}: {}", cell.number, cell.amps, cell.kind, cell.text).unwrap();
        }
        writeln!(text, "{}\n", card.text.foot.join(" | ")).unwrap();
    }
    insta::assert_snapshot!(text);
}
