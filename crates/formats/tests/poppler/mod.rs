//! What is printed, as poppler reads it: words with their boxes in millimeters, pages, fonts.
#![allow(dead_code)] // each test file uses some of it

use std::process::Command;

/// The answer of one of poppler's tools about a PDF.
pub(crate) fn poppler(tool: &str, pdf: &[u8], arguments: &[&str]) -> String {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("printed.pdf");
    std::fs::write(&path, pdf).unwrap();
    let mut command = Command::new(tool);
    command.args(arguments).arg(&path);
    if tool == "pdftotext" {
        command.arg("-");
    }
    let out = command.output().unwrap_or_else(|error| panic!("{tool}: {error}; `cargo xtask test` installs poppler-utils"));
    assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
    String::from_utf8(out.stdout).unwrap()
}

/// A word where it is printed, in mm from the upper left corner of its page.
#[derive(Debug)]
pub(crate) struct Word {
    pub(crate) page: usize,
    pub(crate) text: String,
    pub(crate) left: f64,
    pub(crate) top: f64,
    pub(crate) right: f64,
    pub(crate) bottom: f64,
}

impl Word {
    /// A box of poppler is as high as the face, accents and all: its middle tells the line.
    pub(crate) fn middle(&self) -> f64 {
        f64::midpoint(self.top, self.bottom)
    }
}

/// Every word.
pub(crate) fn boxes(pdf: &[u8]) -> Vec<Word> {
    let mut page = 0;
    let mut words = Vec::new();
    for line in poppler("pdftotext", pdf, &["-bbox"]).lines() {
        if line.contains("</page>") {
            page += 1;
        }
        if !line.contains("<word ") {
            continue;
        }
        let of = |name: &str| -> f64 {
            let after = line.split(&format!("{name}=\"")).nth(1).unwrap();
            after.split('"').next().unwrap().parse::<f64>().unwrap() / 72.0 * 25.4
        };
        let text = line.split_once('>').unwrap().1.split("</word>").next().unwrap().replace("&amp;", "&");
        words.push(Word { page, text, left: of("xMin"), top: of("yMin"), right: of("xMax"), bottom: of("yMax") });
    }
    words
}

/// How many pages there are.
pub(crate) fn pages(pdf: &[u8]) -> usize {
    let info = poppler("pdfinfo", pdf, &[]);
    info.lines().find_map(|line| line.strip_prefix("Pages:")).unwrap().trim().parse().unwrap()
}

/// Width and height of the first page, in mm.
pub(crate) fn page_mm(pdf: &[u8]) -> (f64, f64) {
    let info = poppler("pdfinfo", pdf, &[]);
    let size = info.lines().find_map(|line| line.strip_prefix("Page size:")).unwrap().trim().to_owned();
    // 1 inch is 25.4 mm and 72 points, by definition.
    let mut mm = size.split(' ').filter_map(|word| word.parse::<f64>().ok()).map(|points| points / 72.0 * 25.4);
    (mm.next().unwrap(), mm.next().unwrap())
}

/// All text in the order of reading, one blank between two words.
pub(crate) fn text(pdf: &[u8]) -> String {
    poppler("pdftotext", pdf, &["-raw"]).split_whitespace().collect::<Vec<_>>().join(" ")
}
