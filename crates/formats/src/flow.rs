//! Lines of text flowing over pages, for what is printed to be read: headings stay with what follows, figures stand at the right.

use krilla::Document;
use krilla::geom::Transform;
use krilla::metadata::Metadata;
use krilla::page::PageSettings;

use wayfinder_core::wrapped;

use crate::PdfError;
use crate::fonts::{TEXT, Type};
use crate::pen::{PT, Pen, SOFT, TINT};

const MARGIN: f64 = 16.0;
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
struct Set {
    text: String,
    /// What stands at the right of it: each ends so far before the right margin.
    figures: Vec<(String, f64)>,
    how: How,
}

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
            self.lines.push(Set { text: line, figures, how: How { before: if first { how.before } else { 0.0 }, ..how } });
        }
    }

    /// The pages, with `head` in the foot of each.
    pub(crate) fn pdf(self, head: &str, title: &str) -> Result<Vec<u8>, PdfError> {
        let (width, height) = (self.width, self.height);
        draw(head, title, &pages(self.lines, height), width, height)
    }
}

/// Fills pages; a heading and a finding stay with what follows them.
fn pages(lines: Vec<Set>, height: f64) -> Vec<Vec<(f64, Set)>> {
    let bottom = height - MARGIN - FOOT;
    let mut pages: Vec<Vec<(f64, Set)>> = vec![Vec::new()];
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

fn draw(head: &str, title: &str, pages: &[Vec<(f64, Set)>], width: f64, height: f64) -> Result<Vec<u8>, PdfError> {
    let mut document = Document::new();
    document.set_metadata(Metadata::new().title(title.to_owned()).language("en".into()));
    for (n, lines) in pages.iter().enumerate() {
        let settings = PageSettings::from_wh(width as f32 * PT, height as f32 * PT)
            .ok_or_else(|| PdfError::Writer("the page has no size".into()))?;
        let mut page = document.start_page_with(settings);
        let mut surface = page.surface();
        surface.push_transform(&Transform::from_scale(PT, PT));
        let mut pen = Pen { surface: &mut surface };
        for (base, line) in lines {
            let How { face, size, color, indent, .. } = line.how;
            pen.text(face, &line.text, MARGIN + indent, *base, size, color);
            for (figure, end) in &line.figures {
                pen.text(face, figure, width - MARGIN - end - face.width(figure) * size, *base, size, color);
            }
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
