//! The report of findings, read back with poppler.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::process::Command;

use wayfinder_core::loads::{NewLoad, NewLoadKind, ServiceMethod, service_view};
use wayfinder_core::{Checks, Edition, Finding, FindingPlace, Severity, Study};
use wayfinder_formats::{findings_pdf, service_pdf};

fn finding(n: usize, severity: Severity, aside: Option<&str>) -> Finding {
    Finding {
        key: format!("k{n}"),
        code: "some-rule".into(),
        severity,
        place: FindingPlace::default(),
        about: format!("Breaker {n}"),
        message: "Message with a few words that go on for a while, so that it has to be broken over two lines at least.".into(),
        why: "Why it matters.".into(),
        remedy: "What can be done about it.".into(),
        source: "NEC 2020 240.4(D), from memory; local code comes first".into(),
        mend: None,
        wish: None,
        aside: aside.map(str::to_owned),
    }
}

fn of(findings: Vec<Finding>) -> Checks {
    Checks { edition: Edition::default(), not_judged: String::new(), findings }
}

fn text_of(pdf: &[u8]) -> String {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("report.pdf");
    std::fs::write(&file, pdf).unwrap();
    let out = Command::new("pdftotext").arg("-layout").arg(&file).arg("-").output().unwrap();
    assert!(out.status.success());
    String::from_utf8(out.stdout).unwrap()
}

#[test]
fn every_finding_stands_in_it_with_its_source_and_pages_are_numbered() {
    let mut all: Vec<Finding> =
        (1..=30).map(|n| finding(n, if n < 3 { Severity::Danger } else { Severity::Fault }, None)).collect();
    all.push(finding(32, Severity::Planned, None));
    all.push(finding(31, Severity::Note, Some("seen by the electrician (Ann)")));
    let text = text_of(&findings_pdf("Hut", "Main panel. Revision 7, 2026-11-24. NEC 2020.", &of(all), 215.9, 279.4).unwrap());
    for n in 1..=32 {
        assert!(text.contains(&format!("Breaker {n}:")), "{n}");
    }
    assert_eq!(text.matches("Source: NEC 2020 240.4(D)").count(), 31);
    assert!(text.contains("Today's rule by place, for planned work"));
    assert!(text.contains("seen by the electrician (Ann)"));
    assert!(text.contains("Local codes and licensed practice come first"));
    let pages = text.matches("page 1 of").count() + text.matches("- page").count() - 1;
    assert!(pages >= 3 && text.contains(&format!("page {pages} of {pages}")), "{pages} pages\n{text}");
}

#[test]
fn without_findings_it_does_not_say_that_all_is_well() {
    let text = text_of(&findings_pdf("Hut", "", &of(Vec::new()), 210.0, 297.0).unwrap());
    assert!(text.contains("That is no proof that all is well"), "{text}");
}

#[test]
fn a_word_that_is_wider_than_the_page_is_broken() {
    let mut long = finding(1, Severity::Fault, None);
    long.message = "x".repeat(400);
    let text = text_of(&findings_pdf("Hut", "", &of(vec![long]), 210.0, 297.0).unwrap());
    assert_eq!(text.matches('x').count(), 400 + text.matches("ex").count());
}

#[test]
fn it_says_what_is_not_judged() {
    let checks = Checks { not_judged: "What CEC 2021 says is not known here of these: a, b.".into(), ..of(Vec::new()) };
    assert!(text_of(&findings_pdf("Hut", "", &checks, 210.0, 297.0).unwrap()).contains("What CEC 2021 says is not known here"));
}

/// Every line of the screen's sheet stands on the printed one, with its figures today and with the new load.
#[test]
fn the_service_calculation_is_printed_line_by_line() {
    let home = Study::from(&wayfinder_fixture::homes::demo());
    let new = NewLoad { kind: NewLoadKind::Vehicle, va: 7200, volts: 240 };
    for method in ServiceMethod::ALL {
        let view = service_view(&home, method, Some(new));
        let text = text_of(&service_pdf("Hut", "Service calculation.", &view, 215.9, 279.4).unwrap());
        let one_line = text.split_whitespace().collect::<Vec<_>>().join(" ");
        assert!(one_line.contains(&view.title) && one_line.contains(&view.source), "{text}");
        for line in &view.lines {
            assert!(one_line.contains(&line.words), "{}: {text}", line.words);
            let figure = line.today.round().to_string();
            assert!(one_line.replace(' ', "").contains(&figure), "{figure}: {text}");
        }
        assert!(one_line.contains(&format!("{} A {} A", view.today_amps, view.with_new_amps.unwrap())), "{text}");
        for unread in &view.unread {
            assert!(one_line.contains(unread.as_str()), "{unread}: {text}");
        }
    }
}

/// What comes in beside the main stands on the printed sheet in the words of the screen's, with its source.
#[test]
fn solar_against_the_bus_is_printed() {
    let acts = "panel 40\nmain is main 200 A, bus 200 A\n38-40 40/2 solar\n38-40 is brings in solar, inverter 32 A\n";
    let home = wayfinder_fixture::written(acts).home;
    let view = service_view(&home, ServiceMethod::Standard, None);
    let solar = view.solar.as_ref().expect("solar comes in on this panel");
    let text = text_of(&service_pdf("Hut", "Service calculation.", &view, 215.9, 279.4).unwrap());
    let one_line = text.split_whitespace().collect::<Vec<_>>().join(" ");
    assert!(one_line.contains("What comes in beside the main"), "{text}");
    assert!(one_line.contains(&format!("{} ({})", solar.words, solar.source)), "{text}");
}
