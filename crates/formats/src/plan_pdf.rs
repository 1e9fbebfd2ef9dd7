//! Laid-out sheets as PDF, one page each.

use krilla::Document;
use krilla::geom::Transform;
use krilla::metadata::Metadata;
use krilla::page::PageSettings;

use crate::PdfError;
use crate::fonts::{HEAD, TEXT};
use crate::pen::{INK, PT, Pen, TINT};
use crate::plan_sheet::{Fill, Mark, PlanSheet};

const WHITE: (u8, u8, u8) = (255, 255, 255);

/// Draws the sheets. `title` goes into the document's properties.
pub fn plan_pdf(title: &str, sheets: &[PlanSheet]) -> Result<Vec<u8>, PdfError> {
    let mut document = Document::new();
    document.set_metadata(Metadata::new().title(title.to_owned()).language("en".into()));
    for sheet in sheets {
        let (width, height) = sheet.size;
        let settings = PageSettings::from_wh(width as f32 * PT, height as f32 * PT)
            .ok_or_else(|| PdfError::Writer("the page has no size".into()))?;
        let mut page = document.start_page_with(settings);
        let mut surface = page.surface();
        surface.push_transform(&Transform::from_scale(PT, PT));
        let mut pen = Pen { surface: &mut surface };
        for mark in &sheet.marks {
            match mark {
                Mark::Path { points, closed, ink } => {
                    pen.path(points, *closed, color(ink.fill), ink.weight as f32, ink.dashed);
                }
                Mark::Circle { at, radius, ink } => pen.circle(*at, *radius, color(ink.fill), ink.weight as f32),
                Mark::Text { at, text, size, bold, middle, white } => {
                    let face = if *bold { &HEAD } else { &TEXT };
                    let x = if *middle { at.0 - face.width(text) * size / 2.0 } else { at.0 };
                    pen.text(face, text, x, at.1, *size, if *white { WHITE } else { INK });
                }
            }
        }
        surface.pop();
        surface.finish();
        page.finish();
    }
    document.finish().map_err(|error| PdfError::Writer(format!("{error:?}")))
}

fn color(fill: Fill) -> Option<(u8, u8, u8)> {
    match fill {
        Fill::None => None,
        Fill::Ink => Some(INK),
        Fill::Paper => Some(WHITE),
        Fill::Tint => Some(TINT),
    }
}
