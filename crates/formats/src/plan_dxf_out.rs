//! A floor of the plan as a drawing file (DXF, in millimeters, y up the sheet as drawing programs have it).
//!
//! Layers: ROOMS (a closed polyline for the inside of each room), WALLS (stretches with gaps for doors), DOORS,
//! WINDOWS, STAIRS, PANELS, SYMBOLS (a block insert for each point), TAGS, TEXT (names and sizes of rooms). The same
//! file reads back as rooms and points.

use dxf::entities::{Circle, Entity, EntityType, Insert, Line, LwPolyline, Text};
use dxf::enums::{AcadVersion, HorizontalTextJustification, Units, VerticalTextJustification};
use dxf::tables::Layer;
use dxf::{Block, Drawing, LwPolylineVertex, Point};
use wayfinder_core::{OpeningKind, Plan, PlanFloor, Spot, Stroke};

/// Why the file could not be written.
#[derive(Debug, thiserror::Error)]
#[error("the drawing could not be written: {0}")]
pub struct DxfWriteError(String);

const LAYERS: [&str; 9] = ["ROOMS", "WALLS", "DOORS", "WINDOWS", "STAIRS", "PANELS", "SYMBOLS", "TAGS", "TEXT"];

fn at(spot: Spot) -> Point {
    Point::new(f64::from(spot.x), -f64::from(spot.y), 0.0)
}

fn on(layer: &str, specific: EntityType) -> Entity {
    let mut entity = Entity::new(specific);
    layer.clone_into(&mut entity.common.layer);
    entity
}

fn line(layer: &str, from: Spot, to: Spot) -> Entity {
    on(layer, EntityType::Line(Line::new(at(from), at(to))))
}

fn words(layer: &str, middle: Spot, height: f64, value: &str) -> Entity {
    let mut text = Text { text_height: height, value: value.to_owned(), ..Text::default() };
    text.location = at(middle);
    text.second_alignment_point = at(middle);
    text.horizontal_text_justification = HorizontalTextJustification::Center;
    text.vertical_text_justification = VerticalTextJustification::Middle;
    on(layer, EntityType::Text(text))
}

/// Writes one floor.
pub fn write_plan_dxf(plan: &Plan, floor: &PlanFloor) -> Result<Vec<u8>, DxfWriteError> {
    let mut drawing = Drawing::new();
    drawing.header.version = AcadVersion::R2010;
    drawing.header.default_drawing_units = Units::Millimeters;
    for name in LAYERS {
        drawing.add_layer(Layer { name: name.into(), ..Layer::default() });
    }
    for symbol in plan.symbols.iter().filter(|d| floor.points.iter().any(|p| p.symbol == d.symbol)) {
        let entities = symbol.strokes.iter().map(stroke).collect();
        drawing.add_block(Block { name: symbol.symbol.block().into(), layer: "0".into(), entities, ..Block::default() });
    }
    for room in &floor.rooms {
        let vertex = |corner: &Spot| LwPolylineVertex { x: f64::from(corner.x), y: -f64::from(corner.y), ..Default::default() };
        let mut outline = LwPolyline { vertices: room.outline.corners().iter().map(vertex).collect(), ..LwPolyline::default() };
        outline.set_is_closed(true);
        drawing.add_entity(on("ROOMS", EntityType::LwPolyline(outline)));
        drawing.add_entity(words("TEXT", room.label, 220.0, &room.name));
        drawing.add_entity(words("TEXT", Spot::at(room.label.x, room.label.y + 300), 150.0, &room.size));
    }
    for stretch in &floor.walls {
        drawing.add_entity(line("WALLS", stretch.from, stretch.to));
    }
    for opening in &floor.openings {
        let layer = if opening.kind == OpeningKind::Window { "WINDOWS" } else { "DOORS" };
        drawing.add_entity(line(layer, opening.stretch.from, opening.stretch.to));
        if let Some(leaf) = opening.leaf {
            drawing.add_entity(line(layer, opening.stretch.from, leaf));
        }
    }
    for stairs in &floor.stairs {
        for n in 0..6 {
            let y = stairs.at.y - 450 + n * 180;
            drawing.add_entity(line("STAIRS", Spot::at(stairs.at.x - 400, y), Spot::at(stairs.at.x + 400, y)));
        }
        let up = if stairs.up { "up" } else { "down" };
        drawing.add_entity(words("STAIRS", Spot::at(stairs.at.x, stairs.at.y + 650), 150.0, up));
    }
    for panel in &floor.panels {
        let corners = [Spot::at(-200, 0), Spot::at(200, 0), Spot::at(200, 140), Spot::at(-200, 140)];
        let corners = corners.map(|corner| wayfinder_core::turned(corner, panel.turn, panel.at));
        for n in 0..4 {
            drawing.add_entity(line("PANELS", corners[n], corners[(n + 1) % 4]));
        }
        let name = wayfinder_core::turned(Spot::at(0, 330), panel.turn, panel.at);
        drawing.add_entity(words("PANELS", name, 150.0, &panel.name));
    }
    for point in &floor.points {
        let insert = Insert {
            name: point.symbol.block().into(),
            location: at(point.at),
            // Clockwise on the sheet is clockwise in a drawing too, where angles count the other way.
            rotation: f64::from((360 - point.turn) % 360),
            x_scale_factor: floor.symbol_scale,
            y_scale_factor: floor.symbol_scale,
            ..Insert::default()
        };
        drawing.add_entity(on("SYMBOLS", EntityType::Insert(insert)));
        drawing.add_entity(words("TAGS", point.tag.at, 150.0 * floor.symbol_scale, &point.tag.text));
    }
    let mut bytes = Vec::new();
    drawing.save(&mut bytes).map_err(|error| DxfWriteError(error.to_string()))?;
    let text = String::from_utf8(bytes).map_err(|error| DxfWriteError(error.to_string()))?;
    Ok(each_with_its_own_handle(&text).into_bytes())
}

/// The drawing with what the crate `dxf` leaves out or writes twice: a handle of its own for the end of each block (it repeats that of
/// the block), and one for each table; and the next free one in the header. Code 440 (how transparent) is written as 0, which is
/// none of its values (DXF reference, common codes of entities), and is left out: then it is as the layer has it.
fn each_with_its_own_handle(text: &str) -> String {
    let lines: Vec<&str> = text.lines().collect();
    let pairs: Vec<(&str, &str)> = lines.chunks_exact(2).map(|pair| (pair[0].trim(), pair[1])).collect();
    let handle = |pair: &(&str, &str)| matches!(pair.0, "5" | "105").then(|| u64::from_str_radix(pair.1.trim(), 16).ok())?;
    let last = pairs.iter().filter_map(handle).max().unwrap_or(0);
    let mut next = last;
    let mut new = || {
        next += 1;
        format!("{next:X}")
    };
    let mut out: Vec<(&str, String)> = Vec::with_capacity(pairs.len());
    let (mut item, mut seed) = ("", None);
    for (n, (code, value)) in pairs.iter().enumerate() {
        if *code == "0" {
            item = value.trim();
        }
        match (*code, item) {
            ("440", _) => {}
            ("5", "ENDBLK") => out.push((code, new())),
            ("2", "TABLE") => {
                out.push((code, (*value).to_owned()));
                out.push(("5", new()));
                out.push(("330", "0".into()));
            }
            _ => {
                if n > 0 && pairs[n - 1] == ("9", "$HANDSEED") {
                    seed = Some(out.len());
                }
                out.push((code, (*value).to_owned()));
            }
        }
    }
    if let Some(seed) = seed {
        out[seed].1 = new();
    }
    out.iter().map(|(code, value)| format!("{code:>3}\r\n{value}\r\n")).collect()
}

fn stroke(stroke: &Stroke) -> Entity {
    match stroke {
        Stroke::Line { from, to } => line("0", *from, *to),
        Stroke::Circle { at: middle, radius, .. } => {
            on("0", EntityType::Circle(Circle { center: at(*middle), radius: f64::from(*radius), ..Circle::default() }))
        }
        Stroke::Letters { at, text, height } => words("0", *at, f64::from(*height), text),
    }
}
