//! Laid-out sheets as PDF, one page each.

use crate::PdfError;
use crate::fonts::{HEAD, TEXT};
use crate::paged::Paged;
use crate::pen::{INK, Pen, TINT};
use crate::plan_sheet::{Fill, Mark, PlanSheet};

const WHITE: (u8, u8, u8) = (255, 255, 255);

/// Draws the sheets. `title` goes into the document's properties.
pub fn plan_pdf(title: &str, sheets: &[PlanSheet]) -> Result<Vec<u8>, PdfError> {
    let mut paged = Paged::new(title);
    for sheet in sheets {
        paged.page(sheet.size, |pen| {
            draw_plan(pen, sheet);
            Vec::new()
        })?;
    }
    paged.finish()
}

pub(crate) fn draw_plan(pen: &mut Pen<'_, '_>, sheet: &PlanSheet) {
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
}

fn color(fill: Fill) -> Option<(u8, u8, u8)> {
    match fill {
        Fill::None => None,
        Fill::Ink => Some(INK),
        Fill::Paper => Some(WHITE),
        Fill::Tint => Some(TINT),
    }
}
