//! A document made page by page, each drawn in millimeters.

use krilla::Document;
use krilla::annotation::{Annotation, LinkAnnotation, Target};
use krilla::destination::XyzDestination;
use krilla::geom::{Point, Rect, Transform};
use krilla::metadata::Metadata;
use krilla::outline::{Outline, OutlineNode};
use krilla::page::PageSettings;

use crate::PdfError;
use crate::pen::{PT, Pen};

/// Places of a page that lead to a part, in mm: left, top, width, height, the part.
pub(crate) type Drawn = Vec<(f64, f64, f64, f64, usize)>;

/// The document.
pub(crate) struct Paged {
    document: Document,
    /// The page on which each part begins, where the document has parts.
    begins: Vec<usize>,
}

impl Paged {
    pub(crate) fn new(title: &str) -> Self {
        let mut document = Document::new();
        document.set_metadata(Metadata::new().title(title.to_owned()).language("en".into()));
        Self { document, begins: Vec::new() }
    }

    /// With parts that lines lead to and that readers list: each with its name and the page that it begins on, counted from 0.
    pub(crate) fn with_parts(title: &str, parts: &[(String, usize)]) -> Self {
        let mut paged = Self::new(title);
        let mut outline = Outline::new();
        for (name, page) in parts {
            outline.push_child(OutlineNode::new(name.clone(), top_of(*page)));
        }
        paged.document.set_outline(outline);
        paged.begins = parts.iter().map(|(_, page)| *page).collect();
        paged
    }

    /// A page of this size in mm.
    pub(crate) fn page(
        &mut self,
        (width, height): (f64, f64),
        draw: impl FnOnce(&mut Pen<'_, '_>) -> Drawn,
    ) -> Result<(), PdfError> {
        let settings = PageSettings::from_wh(width as f32 * PT, height as f32 * PT)
            .ok_or_else(|| PdfError::Writer("the page has no size".into()))?;
        let mut page = self.document.start_page_with(settings);
        let mut surface = page.surface();
        surface.push_transform(&Transform::from_scale(PT, PT));
        let leads = draw(&mut Pen { surface: &mut surface });
        surface.pop();
        surface.finish();
        for (x, y, width, height, part) in leads {
            let (left, top) = (x as f32 * PT, y as f32 * PT);
            let place = Rect::from_xywh(left, top, width as f32 * PT, height as f32 * PT);
            if let (Some(place), Some(begins)) = (place, self.begins.get(part)) {
                let target = Target::Destination(top_of(*begins).into());
                page.add_annotation(Annotation::new_link(LinkAnnotation::new(place, target), None));
            }
        }
        page.finish();
        Ok(())
    }

    pub(crate) fn finish(self) -> Result<Vec<u8>, PdfError> {
        self.document.finish().map_err(|error| PdfError::Writer(format!("{error:?}")))
    }
}

fn top_of(page: usize) -> XyzDestination {
    XyzDestination::new(page, Point::from_xy(0.0, 0.0))
}
