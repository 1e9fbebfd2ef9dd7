//! The findings as a report to print and hand to an electrician.

use wayfinder_core::{Checks, Finding, Severity};

use crate::PdfError;
use crate::flow::{Flow, How};
use crate::fonts::{HEAD, TEXT, Type};
use crate::pen::{HARM, INK, SOFT};

/// Lays the findings out on Letter or A4 paper (`width` and `height` in mm). `head` is the home's name, `about`
/// the line beneath it.
pub fn findings_pdf(head: &str, about: &str, checks: &Checks, width: f64, height: f64) -> Result<Vec<u8>, PdfError> {
    let mut flow = Flow::new(width, height);
    let top = How { face: &HEAD, size: 6.2, color: INK, indent: 0.0, before: 0.0, keep: true };
    flow.set(head, top);
    flow.set(about, How { face: &TEXT, size: 3.4, color: SOFT, before: 1.0, ..top });
    set_findings(&mut flow, checks);
    flow.pdf(head, &format!("{head}: findings"))
}

/// What was found, the gravest first.
pub(crate) fn set_findings(flow: &mut Flow, checks: &Checks) {
    let mut set = |text: &str, face: &'static Type, size: f64, color, indent: f64, before: f64, keep: bool| {
        flow.set(text, How { face, size, color, indent, before, keep });
    };
    set(
        "What was found by the records of this home. Each is worded as today's rule; what held when the work was done is not \
         known here. Local codes and licensed practice come first. Line-side lugs stay live with the main off; prove dead with a \
         meter that was tested on a live source before and after. Heat, burn marks, a smell, water or rust: stop and call an \
         electrician.",
        &TEXT,
        3.1,
        INK,
        0.0,
        2.0,
        false,
    );
    let (open, aside): (Vec<&Finding>, Vec<&Finding>) = checks.findings.iter().partition(|finding| finding.aside.is_none());
    if open.is_empty() {
        set(
            "Nothing was found. That is no proof that all is well: only what was recorded was looked at.",
            &TEXT,
            3.6,
            INK,
            0.0,
            6.0,
            false,
        );
    }
    if !checks.not_judged.is_empty() {
        set(&checks.not_judged, &TEXT, 3.1, INK, 0.0, 2.0, false);
    }
    for severity in Severity::ALL {
        let mut here = open.iter().filter(|finding| finding.severity == severity).peekable();
        if here.peek().is_some() {
            let color = if severity == Severity::Danger { HARM } else { INK };
            set(severity.heading(), &HEAD, 4.6, color, 0.0, 6.0, true);
        }
        for finding in here {
            set(&format!("{}: {}", finding.about, finding.message), &HEAD, 3.5, INK, 0.0, 3.0, true);
            set(&finding.why, &TEXT, 3.2, INK, 4.0, 0.6, true);
            set(&format!("What to do: {}", finding.remedy), &TEXT, 3.2, INK, 4.0, 0.4, true);
            set(&format!("Source: {}", finding.source), &TEXT, 2.8, SOFT, 4.0, 0.4, false);
        }
    }
    if !aside.is_empty() {
        set("Looked at and set aside", &HEAD, 4.6, INK, 0.0, 6.0, true);
        for finding in aside {
            set(&format!("{}: {}", finding.about, finding.message), &TEXT, 3.2, INK, 0.0, 2.0, true);
            set(&format!("Reason: {}", finding.aside.as_deref().unwrap_or_default()), &TEXT, 3.2, SOFT, 4.0, 0.4, false);
        }
    }
}
