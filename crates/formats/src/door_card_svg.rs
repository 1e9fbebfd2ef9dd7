//! The door card as an SVG drawing in millimeters.

use std::fmt::Write;

use wayfinder_core::{Card, CardTooSmall};

use crate::door_card_pdf::{CardColors, draw, fitted_card};
use crate::fonts::Type;
use crate::pen::Draws;

/// Draws the card at its true size; a millimeter is a unit of the drawing.
pub fn door_card_svg(card: &Card, colors: CardColors) -> Result<String, CardTooSmall> {
    let fitted = fitted_card(card, colors)?;
    let (width, height) = (card.panel.card.width_mm, card.panel.card.height_mm);
    let mut svg = Svg(format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{height}mm\" viewBox=\"0 0 {width} {height}\">\n\
         <title>{}: {}</title>\n<rect width=\"{width}\" height=\"{height}\" fill=\"#ffffff\"/>\n",
        escaped(&card.text.title),
        escaped(&card.text.subtitle)
    ));
    draw(&mut svg, card, &fitted, colors);
    Ok(svg.0 + "</svg>\n")
}

struct Svg(String);

impl Draws for Svg {
    /// With its length: whatever face the reader has, the text stays within its cell.
    fn text(&mut self, face: &Type, text: &str, x: f64, base: f64, size: f64, (r, g, b): (u8, u8, u8)) {
        if text.is_empty() {
            return;
        }
        let family =
            if face.is_head() { "Overpass, sans-serif\" font-weight=\"700" } else { "Atkinson Hyperlegible Next, sans-serif" };
        let long = face.width(text) * size;
        // Writing to a String cannot fail.
        let _ = writeln!(
            self.0,
            "<text x=\"{x:.3}\" y=\"{base:.3}\" font-size=\"{size:.3}\" font-family=\"{family}\" textLength=\"{long:.3}\" \
             lengthAdjust=\"spacingAndGlyphs\" fill=\"#{r:02x}{g:02x}{b:02x}\">{}</text>",
            escaped(text)
        );
    }

    fn fill(&mut self, x: f64, y: f64, width: f64, height: f64, (r, g, b): (u8, u8, u8)) {
        let _ = writeln!(
            self.0,
            "<rect x=\"{x:.3}\" y=\"{y:.3}\" width=\"{width:.3}\" height=\"{height:.3}\" fill=\"#{r:02x}{g:02x}{b:02x}\"/>"
        );
    }

    fn frame(&mut self, x: f64, y: f64, width: f64, height: f64, weight: f32, (r, g, b): (u8, u8, u8), dashed: bool) {
        let dash = if dashed { " stroke-dasharray=\"2 1.5\"" } else { "" };
        let _ = writeln!(
            self.0,
            "<rect x=\"{x:.3}\" y=\"{y:.3}\" width=\"{width:.3}\" height=\"{height:.3}\" fill=\"none\" \
             stroke=\"#{r:02x}{g:02x}{b:02x}\" stroke-width=\"{weight}\"{dash}/>"
        );
    }
}

fn escaped(text: &str) -> String {
    quick_xml::escape::escape(text).into_owned()
}
