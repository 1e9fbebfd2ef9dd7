//! The findings as a report to print and hand to an electrician.

use krilla::Document;
use krilla::geom::Transform;
use krilla::metadata::Metadata;
use krilla::page::PageSettings;
use wayfinder_core::{Checks, Finding, Severity};

use crate::PdfError;
use crate::fonts::{HEAD, TEXT, Type};
use crate::pen::{HARM, INK, PT, Pen, SOFT, TINT};

const MARGIN: f64 = 16.0;
const FOOT: f64 = 14.0;

/// One line of the report, with its type, size and color.
struct Set {
    text: String,
    face: &'static Type,
    size: f64,
    color: (u8, u8, u8),
    indent: f64,
    before: f64,
    /// Stays on one page with the line that follows.
    keep: bool,
}

/// Lays the findings out on Letter or A4 paper (`width` and `height` in mm). `head` is the home's name, `about`
/// the line beneath it.
pub fn findings_pdf(head: &str, about: &str, checks: &Checks, width: f64, height: f64) -> Result<Vec<u8>, PdfError> {
    let inner = width - 2.0 * MARGIN;
    let mut lines = Vec::new();
    let mut set = |text: &str, face: &'static Type, size: f64, color, indent: f64, before: f64, keep: bool| {
        for (n, line) in wrapped(&face.shown(text), face, (inner - indent) / size).into_iter().enumerate() {
            lines.push(Set { text: line, face, size, color, indent, before: if n == 0 { before } else { 0.0 }, keep });
        }
    };
    set(head, &HEAD, 6.2, INK, 0.0, 0.0, true);
    set(about, &TEXT, 3.4, SOFT, 0.0, 1.0, true);
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
    draw(head, &pages(lines, height), width, height)
}

/// Breaks at words; a word that is too long alone is broken where it must be.
fn wrapped(text: &str, face: &Type, ems: f64) -> Vec<String> {
    let mut lines = vec![String::new()];
    for word in text.split_whitespace() {
        let current = lines.last_mut().unwrap_or_else(|| unreachable!("there is always a line"));
        let longer = if current.is_empty() { word.to_owned() } else { format!("{current} {word}") };
        if face.width(&longer) <= ems {
            *current = longer;
            continue;
        }
        if !current.is_empty() {
            lines.push(String::new());
        }
        for letter in word.chars() {
            let current = lines.last_mut().unwrap_or_else(|| unreachable!("there is always a line"));
            if face.width(current) + face.width(letter.encode_utf8(&mut [0; 4])) > ems && !current.is_empty() {
                lines.push(letter.to_string());
            } else {
                current.push(letter);
            }
        }
    }
    lines
}

/// Fills pages; a heading and a finding stay with what follows them.
fn pages(lines: Vec<Set>, height: f64) -> Vec<Vec<(f64, Set)>> {
    let bottom = height - MARGIN - FOOT;
    let mut pages: Vec<Vec<(f64, Set)>> = vec![Vec::new()];
    let mut y = MARGIN;
    let mut blocks: Vec<Vec<Set>> = Vec::new();
    let mut open = false;
    for line in lines {
        let keep = line.keep;
        match blocks.last_mut().filter(|_| open) {
            Some(block) => block.push(line),
            None => blocks.push(vec![line]),
        }
        open = keep;
    }
    for block in blocks {
        let needs: f64 = block.iter().map(|line| line.before + line.size * 1.32).sum();
        if y + needs > bottom && y > MARGIN && needs < bottom - MARGIN {
            pages.push(Vec::new());
            y = MARGIN;
        }
        for line in block {
            if y + line.before + line.size * 1.32 > bottom {
                pages.push(Vec::new());
                y = MARGIN;
            }
            y += line.before + line.size * 1.32;
            if let Some(page) = pages.last_mut() {
                page.push((y - line.size * 0.32, line));
            }
        }
    }
    pages
}

fn draw(head: &str, pages: &[Vec<(f64, Set)>], width: f64, height: f64) -> Result<Vec<u8>, PdfError> {
    let mut document = Document::new();
    document.set_metadata(Metadata::new().title(format!("{head}: findings")).language("en".into()));
    for (n, lines) in pages.iter().enumerate() {
        let settings = PageSettings::from_wh(width as f32 * PT, height as f32 * PT)
            .ok_or_else(|| PdfError::Writer("the page has no size".into()))?;
        let mut page = document.start_page_with(settings);
        let mut surface = page.surface();
        surface.push_transform(&Transform::from_scale(PT, PT));
        let mut pen = Pen { surface: &mut surface };
        for (base, line) in lines {
            pen.text(line.face, &line.text, MARGIN + line.indent, *base, line.size, line.color);
        }
        pen.fill(MARGIN, height - MARGIN - 6.0, width - 2.0 * MARGIN, 0.3, TINT);
        let foot = TEXT.shown(&format!("{head} - page {} of {}", n + 1, pages.len()));
        pen.text(&TEXT, &foot, MARGIN, height - MARGIN, 2.8, SOFT);
        surface.pop();
        surface.finish();
        page.finish();
    }
    document.finish().map_err(|error| PdfError::Writer(format!("{error:?}")))
}
