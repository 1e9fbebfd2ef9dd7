//! Small panels as an electrician would write them down, each with every finding that is wanted of it and no other.
//!
//! A case is a heading, acts (see the crate `wayfinder_fixture`) and what is wanted: `= danger breaker-over-wire 12`, the severity, the
//! rule and what it is about; with ` by NEC 2017 240.4(D)` behind it, how its source begins; `= silence`. What is for planned work is
//! compared where the case lists some, or says `= nothing planned`. What is wanted is written from what the trade knows, not from what the
//! program says; the sentences that it says are kept in `snapshots/`, for a reader and for `docs/rules.md`.

use std::collections::BTreeSet;
use std::fmt::Write;

use wayfinder_core::{Finding, RULES, Severity, findings};
use wayfinder_fixture::written;

const FILES: [(&str, &str); 9] = [
    ("wire", include_str!("wire.txt")),
    ("panel", include_str!("panel.txt")),
    ("neutral", include_str!("neutral.txt")),
    ("points", include_str!("points.txt")),
    ("service", include_str!("service.txt")),
    ("card", include_str!("card.txt")),
    ("places", include_str!("places.txt")),
    ("loads", include_str!("loads.txt")),
    ("canada", include_str!("canada.txt")),
];

struct Case {
    name: String,
    acts: String,
    wanted: Vec<String>,
}

fn cases() -> Vec<Case> {
    let mut all: Vec<Case> = Vec::new();
    for (file, text) in FILES {
        let cases = text.lines().skip_while(|line| !line.starts_with("## ")).map(str::trim);
        for line in cases.filter(|line| !line.is_empty()) {
            if let Some(name) = line.strip_prefix("## ") {
                all.push(Case { name: format!("{file}: {name}"), acts: String::new(), wanted: Vec::new() });
            } else if let Some(case) = all.last_mut() {
                match line.strip_prefix("= ") {
                    Some(wanted) => case.wanted.push(wanted.to_owned()),
                    None => case.acts += &format!("{line}\n"),
                }
            }
        }
    }
    all
}

fn word(severity: Severity) -> &'static str {
    match severity {
        Severity::Danger => "danger",
        Severity::Fault => "fault",
        Severity::Note => "note",
        Severity::Planned => "planned",
    }
}

fn of_case(case: &Case) -> Vec<Finding> {
    let compares_planned = case.wanted.iter().any(|wanted| wanted.contains("planned"));
    let home = written(&case.acts).home;
    findings(&home).iter().filter(|finding| compares_planned || finding.severity != Severity::Planned).cloned().collect()
}

fn head(finding: &Finding) -> String {
    format!("{} {} {}", word(finding.severity), finding.code, finding.about)
}

#[test]
fn every_small_panel_has_its_findings_and_no_other() {
    let cases = cases();
    assert!(cases.len() >= 120, "{} cases", cases.len());
    let mut wrong = String::new();
    for case in &cases {
        assert!(!case.wanted.is_empty(), "{}: what is wanted is not said", case.name);
        let found = of_case(case);
        let mut left: Vec<&str> =
            case.wanted.iter().map(String::as_str).filter(|wanted| !matches!(*wanted, "silence" | "nothing planned")).collect();
        for finding in &found {
            let fits = |wanted: &&str| {
                let (wanted, by) = wanted.split_once(" by ").unwrap_or((wanted, ""));
                wanted == head(finding) && finding.source.starts_with(by)
            };
            match left.iter().position(fits) {
                Some(place) => drop(left.remove(place)),
                None => {
                    writeln!(wrong, "{}: not wanted: {} ({}) [{}]", case.name, head(finding), finding.message, finding.source)
                        .unwrap()
                }
            }
        }
        for wanted in left {
            writeln!(wrong, "{}: wanted and not there: {wanted}", case.name).unwrap();
        }
    }
    assert!(wrong.is_empty(), "\n{wrong}");
}

#[test]
fn every_rule_fires_in_one_of_them() {
    let fired: BTreeSet<String> = cases().iter().flat_map(of_case).map(|finding| finding.code).collect();
    let silent: Vec<&str> = RULES.iter().map(|rule| rule.code).filter(|code| !fired.contains(*code)).collect();
    assert_eq!(silent, [""; 0]);
}

/// The sentences that are shown, one a line; `docs/rules.md` shows the first of each rule.
#[test]
fn the_sentences_are_those_that_were_read() {
    let mut said = String::new();
    for case in cases() {
        writeln!(said, "## {}", case.name).unwrap();
        for finding in of_case(&case) {
            writeln!(said, "{}: {}", head(&finding), finding.message).unwrap();
        }
    }
    insta::assert_snapshot!("sentences", said);
}
