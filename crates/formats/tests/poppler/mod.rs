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

/// Paths of the first page of a PDF as poppler has them, in points of 1/72 inch: stroke width and the ends of straight lines.
pub(crate) fn lines_of(pdf: &[u8]) -> Vec<(f64, [f64; 4])> {
    let folder = tempfile::tempdir().unwrap();
    let (path, svg) = (folder.path().join("plan.pdf"), folder.path().join("plan.svg"));
    std::fs::write(&path, pdf).unwrap();
    let done =
        Command::new("pdftocairo").args(["-svg", "-noshrink", "-f", "1", "-l", "1"]).arg(&path).arg(&svg).status().unwrap();
    assert!(done.success());
    let svg = std::fs::read_to_string(&svg).unwrap();
    let attribute = |tag: &str, name: &str| {
        let rest = tag.split(&format!(" {name}=\"")).nth(1)?;
        rest.split('"').next().map(str::to_owned)
    };
    let mut lines = Vec::new();
    for tag in svg.split("<path").skip(1).map(|rest| rest.split("/>").next().unwrap()) {
        let style = attribute(tag, "style").unwrap_or_default();
        let width =
            style.split("stroke-width:").nth(1).and_then(|rest| rest.split(';').next()).and_then(|w| w.parse::<f64>().ok());
        let (Some(width), Some(d)) = (width, attribute(tag, "d")) else { continue };
        let matrix: Vec<f64> = match attribute(tag, "transform") {
            Some(matrix) => matrix
                .trim_start_matches("matrix(")
                .trim_end_matches(')')
                .split([',', ' '])
                .filter_map(|n| n.parse().ok())
                .collect(),
            None => vec![1.0, 0.0, 0.0, 1.0, 0.0, 0.0],
        };
        let numbers: Vec<f64> = d.split(|c: char| c.is_alphabetic() || c == ' ').filter_map(|n| n.parse().ok()).collect();
        if d.contains('C') || numbers.len() != 4 {
            continue;
        }
        let put = |x: f64, y: f64| (matrix[0] * x + matrix[2] * y + matrix[4], matrix[1] * x + matrix[3] * y + matrix[5]);
        let (a, b) = (put(numbers[0], numbers[1]), put(numbers[2], numbers[3]));
        lines.push((width * matrix[0].abs(), [a.0, a.1, b.0, b.1]));
    }
    lines
}
