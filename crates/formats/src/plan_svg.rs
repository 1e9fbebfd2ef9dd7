//! A laid-out sheet as SVG in millimeters.

use std::fmt::Write;

use crate::plan_sheet::{Fill, Mark, PlanSheet};

const INK: &str = "#1d2a2e";

/// Draws the sheet. A millimeter of the paper is a unit of the drawing.
pub fn plan_svg(sheet: &PlanSheet) -> String {
    let (width, height) = sheet.size;
    let mut svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{height}mm\" viewBox=\"0 0 {width} {height}\">\n\
         <title>{}, 1:{}</title>\n<rect width=\"{width}\" height=\"{height}\" fill=\"#ffffff\"/>\n",
        escaped(&sheet.title),
        sheet.scale
    );
    for mark in &sheet.marks {
        // Writing to a String cannot fail.
        let _ = match mark {
            Mark::Path { points, closed, ink } => {
                let d: Vec<String> = points.iter().map(|(x, y)| format!("{x:.3},{y:.3}")).collect();
                let end = if *closed { "Z" } else { "" };
                let dash = if ink.dashed { " stroke-dasharray=\"1.2 0.8\"" } else { "" };
                writeln!(
                    svg,
                    "<path d=\"M{}{end}\" fill=\"{}\" stroke=\"{INK}\" stroke-width=\"{}\"{dash}/>",
                    d.join("L"),
                    color(ink.fill),
                    ink.weight
                )
            }
            Mark::Circle { at, radius, ink } => writeln!(
                svg,
                "<circle cx=\"{:.3}\" cy=\"{:.3}\" r=\"{radius:.3}\" fill=\"{}\" stroke=\"{INK}\" stroke-width=\"{}\"/>",
                at.0,
                at.1,
                color(ink.fill),
                ink.weight
            ),
            Mark::Text { at, text, size, bold, middle, white } => writeln!(
                svg,
                "<text x=\"{:.3}\" y=\"{:.3}\" font-size=\"{size:.3}\" font-family=\"{}\" font-weight=\"{}\" text-anchor=\"{}\" fill=\"{}\">{}</text>",
                at.0,
                at.1,
                if *bold { "Overpass, sans-serif" } else { "Atkinson Hyperlegible Next, sans-serif" },
                if *bold { 700 } else { 400 },
                if *middle { "middle" } else { "start" },
                if *white { "#ffffff" } else { INK },
                escaped(text)
            ),
        };
    }
    svg.push_str("</svg>\n");
    svg
}

fn color(fill: Fill) -> &'static str {
    match fill {
        Fill::None => "none",
        Fill::Ink => INK,
        Fill::Paper => "#ffffff",
        Fill::Tint => "#ece8dc",
    }
}

fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;")
}
