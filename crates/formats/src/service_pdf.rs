//! The service calculation as a sheet to print: line by line with its source, what limits it, what is still to be read.

use wayfinder_core::loads::ServiceView;

use crate::PdfError;
use crate::flow::{Flow, How};
use crate::fonts::{HEAD, TEXT};
use crate::pen::{INK, SOFT};

/// Where the figures of today and those with the new load end, before the right margin, in millimeters.
const TODAY: f64 = 28.0;
const WITH_NEW: f64 = 0.0;
/// What the figures need.
const FIGURES: f64 = 54.0;

fn va(figure: f64) -> String {
    let whole = figure.round() as i64;
    let digits = whole.to_string();
    // 23 450: a thin gap before the last three, as the screen has it.
    match digits.len() {
        4.. => format!("{} {}", &digits[..digits.len() - 3], &digits[digits.len() - 3..]),
        _ => digits,
    }
}

/// Lays the sheet out on Letter or A4 paper (`width` and `height` in mm). `head` is the home's name, `about` the line beneath it.
pub fn service_pdf(head: &str, about: &str, view: &ServiceView, width: f64, height: f64) -> Result<Vec<u8>, PdfError> {
    let mut flow = Flow::new(width, height);
    let text = How { face: &TEXT, size: 3.3, color: INK, indent: 0.0, before: 1.2, keep: false };
    let strong = How { face: &HEAD, ..text };
    let small = How { size: 2.8, color: SOFT, indent: 6.0, before: 0.2, ..text };
    flow.set(head, How { size: 6.2, before: 0.0, keep: true, ..strong });
    flow.set(about, How { size: 3.4, color: SOFT, before: 1.0, keep: true, ..text });
    flow.set(&format!("{}.", view.title), How { size: 4.6, before: 4.0, keep: true, ..strong });
    flow.set(&view.source, How { color: SOFT, ..text });
    if !view.not_for.is_empty() {
        flow.set(&view.not_for, strong);
    }
    let then = view.with_new_amps.is_some();
    let heads: &[(&str, f64)] =
        if then { &[("today, VA", TODAY), ("with it, VA", WITH_NEW)] } else { &[("today, VA", WITH_NEW)] };
    flow.row("", How { before: 4.0, color: SOFT, keep: true, ..text }, FIGURES, heads);
    for (number, line) in view.lines.iter().enumerate() {
        let (today, new) = (va(line.today), line.with_new.map(va).unwrap_or_default());
        let figures: &[(&str, f64)] = if then { &[(&today, TODAY), (&new, WITH_NEW)] } else { &[(&today, WITH_NEW)] };
        let how = if line.is_sum { strong } else { text };
        let from =
            [line.from.as_str(), line.rule.as_str()].into_iter().filter(|part| !part.is_empty()).collect::<Vec<_>>().join("; ");
        flow.row(&format!("{}  {}", number + 1, line.words), How { keep: !from.is_empty(), ..how }, FIGURES, figures);
        if !from.is_empty() {
            flow.row(&from, small, FIGURES, &[]);
        }
    }
    let (today, new) = (format!("{} A", view.today_amps), view.with_new_amps.map(|amps| format!("{amps} A")).unwrap_or_default());
    let figures: &[(&str, f64)] = if then { &[(&today, TODAY), (&new, WITH_NEW)] } else { &[(&today, WITH_NEW)] };
    flow.row(&format!("By {} V", view.volts), How { size: 4.2, before: 3.0, ..strong }, FIGURES, figures);
    if let Some(neutral) = view.neutral_amps {
        flow.set(&format!("The neutral: {neutral} A today, by the standard method."), text);
    }
    for leg in &view.legs {
        flow.set(
            &format!(
                "Leg {:?}: {:.1} A expected by its circuits, {:.1} A with everything on.",
                leg.leg, leg.expected, leg.connected
            ),
            text,
        );
    }
    flow.set("What is left is the least of these", How { size: 4.2, before: 5.0, keep: true, ..strong });
    for limit in &view.limits {
        let amps = limit.amps.map_or_else(|| "not read".to_owned(), |amps| format!("{amps} A"));
        let left = limit.left_with_new.or(limit.left_today).map_or_else(String::new, |left| match left {
            0.. => format!(", leaves {left} A"),
            _ => format!(", {} A too little", -left),
        });
        let least = if limit.is_least { " (the least)" } else { "" };
        flow.set(&format!("{}{least}: {amps}{left}", limit.words), text);
    }
    if !view.unread.is_empty() {
        flow.set(
            "Still to be read; without these nothing is said about what is left",
            How { size: 4.2, before: 5.0, keep: true, ..strong },
        );
        for unread in &view.unread {
            flow.set(unread, How { indent: 4.0, ..text });
        }
    }
    if let Some(solar) = &view.solar {
        flow.set("What comes in beside the main", How { size: 4.2, before: 5.0, keep: true, ..strong });
        flow.set(&format!("{} ({})", solar.words, solar.source), text);
    }
    for remark in &view.remarks {
        flow.set(remark, How { before: 2.0, color: SOFT, ..text });
    }
    flow.pdf(head, &format!("{head}: service calculation"))
}
