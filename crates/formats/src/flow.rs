//! Lines of text flowing over pages, for what is printed to be read: headings stay with what follows, figures stand at the right.

use wayfinder_core::wrapped;

use crate::PdfError;
use crate::fonts::{HEAD, TEXT, Type};
use crate::paged::{Drawn, Paged};
use crate::pen::{INK, Pen, SOFT, TINT};

pub(crate) const MARGIN: f64 = 16.0;
const FOOT: f64 = 14.0;

/// How a text is set.
#[derive(Clone, Copy)]
pub(crate) struct How {
    pub(crate) face: &'static Type,
    pub(crate) size: f64,
    pub(crate) color: (u8, u8, u8),
    pub(crate) indent: f64,
    pub(crate) before: f64,
    /// Stays on one page with what follows.
    pub(crate) keep: bool,
}

/// One line, with its type, size and color.
pub(crate) struct Set {
    text: String,
    /// What stands at the right of it: each ends so far before the right margin.
    figures: Vec<(String, f64)>,
    /// What stands at the left margin, before the indent.
    tag: String,
    /// The part of a book that it leads to.
    leads_to: Option<usize>,
    how: How,
}

/// A page: each line with its base line.
pub(crate) type TextPage = Vec<(f64, Set)>;

/// Text for pages of one size, in millimeters.
pub(crate) struct Flow {
    lines: Vec<Set>,
    width: f64,
    height: f64,
}

impl Flow {
    pub(crate) fn new(width: f64, height: f64) -> Self {
        Self { lines: Vec::new(), width, height }
    }

    /// A paragraph.
    pub(crate) fn set(&mut self, text: &str, how: How) {
        self.row(text, how, 0.0, &[]);
    }

    /// A paragraph with a number or the like at the left margin.
    pub(crate) fn tagged(&mut self, tag: &str, text: &str, how: How) {
        let at = self.lines.len();
        self.row(text, how, 0.0, &[]);
        if let Some(line) = self.lines.get_mut(at) {
            line.tag = HEAD.shown(tag);
        }
    }

    /// A paragraph that leads to a part of the book, with that part's page at the right.
    pub(crate) fn leading(&mut self, text: &str, how: How, page: &str, part: usize) {
        let at = self.lines.len();
        self.row(text, how, 16.0, &[(page, 0.0)]);
        for line in &mut self.lines[at..] {
            line.leads_to = Some(part);
        }
    }

    /// A paragraph that leaves `room` at the right, where figures stand beside its first line.
    pub(crate) fn row(&mut self, text: &str, how: How, room: f64, figures: &[(&str, f64)]) {
        let inner = self.width - 2.0 * MARGIN - how.indent - room;
        let mut lines = wrapped(&how.face.shown(text), inner / how.size, &|text| how.face.width(text));
        // Figures stand beside a line without words, too.
        if lines.is_empty() {
            lines.push(String::new());
        }
        for (n, line) in lines.into_iter().enumerate() {
            let first = n == 0;
            let figures = figures.iter().filter(|_| first).map(|(text, end)| (how.face.shown(text), *end)).collect();
            let how = How { before: if first { how.before } else { 0.0 }, ..how };
            self.lines.push(Set { text: line, figures, tag: String::new(), leads_to: None, how });
        }
    }

    /// The pages.
    pub(crate) fn pages(self) -> Vec<TextPage> {
        pages(self.lines, self.height)
    }

    /// The pages as a document of their own, with `head` in the foot of each.
    pub(crate) fn pdf(self, head: &str, title: &str) -> Result<Vec<u8>, PdfError> {
        let size = (self.width, self.height);
        let pages = self.pages();
        let mut paged = Paged::new(title);
        for (n, page) in pages.iter().enumerate() {
            let foot = format!("{head} - page {} of {}", n + 1, pages.len());
            paged.page(size, |pen| draw(pen, page, size, &foot))?;
        }
        paged.finish()
    }
}

/// Fills pages; a heading and a finding stay with what follows them.
fn pages(lines: Vec<Set>, height: f64) -> Vec<TextPage> {
    let bottom = height - MARGIN - FOOT;
    let mut pages: Vec<TextPage> = vec![Vec::new()];
    let mut y = MARGIN;
    let mut blocks: Vec<Vec<Set>> = Vec::new();
    let mut open = false;
    for line in lines {
        let keep = line.how.keep;
        match blocks.last_mut().filter(|_| open) {
            Some(block) => block.push(line),
            None => blocks.push(vec![line]),
        }
        open = keep;
    }
    for block in blocks {
        let needs: f64 = block.iter().map(|line| line.how.before + line.how.size * 1.32).sum();
        if y + needs > bottom && y > MARGIN && needs < bottom - MARGIN {
            pages.push(Vec::new());
            y = MARGIN;
        }
        for line in block {
            if y + line.how.before + line.how.size * 1.32 > bottom {
                pages.push(Vec::new());
                y = MARGIN;
            }
            y += line.how.before + line.how.size * 1.32;
            if let Some(page) = pages.last_mut() {
                page.push((y - line.how.size * 0.32, line));
            }
        }
    }
    pages
}

/// Draws a page; gives the places of lines that lead to a part: left, top, width, height, the part.
pub(crate) fn draw(pen: &mut Pen<'_, '_>, lines: &TextPage, (width, height): (f64, f64), foot: &str) -> Drawn {
    let mut leads = Vec::new();
    for (base, line) in lines {
        let How { face, size, color, indent, .. } = line.how;
        pen.text(&HEAD, &line.tag, MARGIN, *base, size, INK);
        pen.text(face, &line.text, MARGIN + indent, *base, size, color);
        for (figure, end) in &line.figures {
            pen.text(face, figure, width - MARGIN - end - face.width(figure) * size, *base, size, color);
        }
        if let Some(part) = line.leads_to {
            leads.push((MARGIN, base - size, width - 2.0 * MARGIN, size * 1.32, part));
        }
    }
    pen.fill(MARGIN, height - MARGIN - 6.0, width - 2.0 * MARGIN, 0.3, TINT);
    pen.text(&TEXT, &TEXT.shown(foot), MARGIN, height - MARGIN, 2.8, SOFT);
    leads
}
