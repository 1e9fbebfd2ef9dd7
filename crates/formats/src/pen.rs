//! Drawing on a page in millimeters.

use krilla::color::rgb;
use krilla::geom::{PathBuilder, Point, Rect};
use krilla::num::NormalizedF32;
use krilla::paint::{Fill, Stroke, StrokeDash};
use krilla::surface::Surface;
use krilla::text::TextDirection;

use crate::fonts::Type;

/// Points in a millimeter.
pub(crate) const PT: f32 = 72.0 / 25.4;

pub(crate) const INK: (u8, u8, u8) = (29, 42, 46);
pub(crate) const SOFT: (u8, u8, u8) = (84, 96, 98);
pub(crate) const TINT: (u8, u8, u8) = (236, 232, 220);
pub(crate) const HARM: (u8, u8, u8) = (163, 21, 28);

/// What a card is drawn with: on a page, or into a drawing.
pub(crate) trait Draws {
    /// A text from its left end on its base line.
    fn text(&mut self, face: &Type, text: &str, x: f64, base: f64, size: f64, color: (u8, u8, u8));
    /// A rectangle of one color.
    fn fill(&mut self, x: f64, y: f64, width: f64, height: f64, color: (u8, u8, u8));
    /// The outline of a rectangle.
    #[allow(clippy::too_many_arguments)] // a place, and how it is drawn
    fn frame(&mut self, x: f64, y: f64, width: f64, height: f64, weight: f32, color: (u8, u8, u8), dashed: bool);
}

impl Draws for Pen<'_, '_> {
    fn text(&mut self, face: &Type, text: &str, x: f64, base: f64, size: f64, color: (u8, u8, u8)) {
        Self::text(self, face, text, x, base, size, color);
    }
    fn fill(&mut self, x: f64, y: f64, width: f64, height: f64, color: (u8, u8, u8)) {
        Self::fill(self, x, y, width, height, color);
    }
    fn frame(&mut self, x: f64, y: f64, width: f64, height: f64, weight: f32, color: (u8, u8, u8), dashed: bool) {
        Self::frame(self, x, y, width, height, weight, color, dashed);
    }
}

/// Draws in millimeters.
pub(crate) struct Pen<'a, 's> {
    pub(crate) surface: &'a mut Surface<'s>,
}

impl Pen<'_, '_> {
    pub(crate) fn text(&mut self, face: &Type, text: &str, x: f64, base: f64, size: f64, color: (u8, u8, u8)) {
        if text.is_empty() {
            return;
        }
        self.surface.set_stroke(None);
        self.surface.set_fill(Some(paint(color)));
        let at = Point::from_xy(x as f32, base as f32);
        self.surface.draw_text(at, face.font.clone(), size as f32, text, false, TextDirection::LeftToRight);
    }

    pub(crate) fn fill(&mut self, x: f64, y: f64, width: f64, height: f64, color: (u8, u8, u8)) {
        self.surface.set_stroke(None);
        self.surface.set_fill(Some(paint(color)));
        self.rect(x, y, width, height);
    }

    #[allow(clippy::too_many_arguments)]
    pub(crate) fn frame(&mut self, x: f64, y: f64, width: f64, height: f64, weight: f32, color: (u8, u8, u8), dashed: bool) {
        self.surface.set_fill(None);
        self.surface.set_stroke(Some(Stroke {
            paint: rgb::Color::new(color.0, color.1, color.2).into(),
            width: weight,
            dash: dashed.then(|| StrokeDash { array: vec![2.0, 1.5], offset: 0.0 }),
            ..Default::default()
        }));
        self.rect(x, y, width, height);
    }

    pub(crate) fn line(&mut self, x: f64, y: f64, to_x: f64, to_y: f64, weight: f32) {
        self.surface.set_fill(None);
        self.surface.set_stroke(Some(Stroke {
            paint: rgb::Color::new(INK.0, INK.1, INK.2).into(),
            width: weight,
            ..Default::default()
        }));
        let mut path = PathBuilder::new();
        path.move_to(x as f32, y as f32);
        path.line_to(to_x as f32, to_y as f32);
        if let Some(path) = path.finish() {
            self.surface.draw_path(&path);
        }
    }

    /// A path through these places, filled and drawn.
    pub(crate) fn path(&mut self, points: &[(f64, f64)], closed: bool, fill: Option<(u8, u8, u8)>, weight: f32, dashed: bool) {
        let mut path = PathBuilder::new();
        for (n, (x, y)) in points.iter().enumerate() {
            if n == 0 {
                path.move_to(*x as f32, *y as f32);
            } else {
                path.line_to(*x as f32, *y as f32);
            }
        }
        if closed {
            path.close();
        }
        self.inked(path, fill, weight, dashed);
    }

    /// A circle, as four curves.
    pub(crate) fn circle(&mut self, at: (f64, f64), radius: f64, fill: Option<(u8, u8, u8)>, weight: f32) {
        // The usual factor by which a cubic curve comes closest to a quarter circle.
        let (x, y, r, k) = (at.0 as f32, at.1 as f32, radius as f32, (radius * 0.552_284_75) as f32);
        let mut path = PathBuilder::new();
        path.move_to(x + r, y);
        path.cubic_to(x + r, y + k, x + k, y + r, x, y + r);
        path.cubic_to(x - k, y + r, x - r, y + k, x - r, y);
        path.cubic_to(x - r, y - k, x - k, y - r, x, y - r);
        path.cubic_to(x + k, y - r, x + r, y - k, x + r, y);
        path.close();
        self.inked(path, fill, weight, false);
    }

    fn inked(&mut self, path: PathBuilder, fill: Option<(u8, u8, u8)>, weight: f32, dashed: bool) {
        self.surface.set_fill(fill.map(paint));
        self.surface.set_stroke((weight > 0.0).then(|| Stroke {
            paint: rgb::Color::new(INK.0, INK.1, INK.2).into(),
            width: weight,
            dash: dashed.then(|| StrokeDash { array: vec![1.2, 0.8], offset: 0.0 }),
            ..Default::default()
        }));
        if let Some(path) = path.finish() {
            self.surface.draw_path(&path);
        }
    }

    pub(crate) fn rect(&mut self, x: f64, y: f64, width: f64, height: f64) {
        let mut path = PathBuilder::new();
        if let Some(rect) = Rect::from_xywh(x as f32, y as f32, width as f32, height as f32) {
            path.push_rect(rect);
        }
        if let Some(path) = path.finish() {
            self.surface.draw_path(&path);
        }
    }
}

fn paint(color: (u8, u8, u8)) -> Fill {
    Fill { paint: rgb::Color::new(color.0, color.1, color.2).into(), opacity: NormalizedF32::ONE, ..Default::default() }
}
