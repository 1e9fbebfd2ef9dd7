//! Rooms and points from a drawing file (DXF as text): closed polylines are rooms, texts inside them their names,
//! blocks with known names are points. Only what is needed is kept, blocks are not taken apart, and everything is
//! bounded, so a file that would grow without end stays small here.

use dxf::Drawing;
use dxf::entities::{Entity, EntityType};
use dxf::enums::Units;
use wayfinder_core::{Outline, PointKind, Spot, Symbol, turned};

/// The most bytes that are read.
const MOST_BYTES: usize = 16 << 20;
/// The most lines of the file, two to a value.
const MOST_LINES: usize = 2_000_000;
/// The most rooms and points that are taken: two entries each, and a batch has at most 1000.
const MOST_ROOMS: usize = 100;
const MOST_POINTS: usize = 400;

/// Why a file could not be read.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum DxfError {
    /// Bytes that are no text.
    #[error("This is a binary drawing file or no drawing at all. Save it as DXF in text form (ASCII).")]
    Binary,
    /// It does not begin as a drawing does.
    #[error("This is no DXF drawing. Save it as DXF in text form (ASCII).")]
    NoDrawing,
    /// Too large.
    #[error("This drawing is too large: up to 16 MB and a million values are read. Keep only the floor that is wanted.")]
    TooLarge,
    /// It breaks off or is damaged.
    #[error("This drawing is damaged or breaks off: {0}.")]
    Damaged(String),
    /// No closed polylines.
    #[error("No rooms were found. Rooms are closed polylines around their inside; this drawing has none.")]
    NoRooms,
}

/// A room that was found.
#[derive(Debug, Clone, PartialEq, serde::Serialize)]
pub struct DxfRoom {
    /// The text inside it; `Room 3` where there is none.
    pub name: String,
    /// Its inside, in millimeters, y down the sheet.
    pub outline: Outline,
}

/// A point that was found.
#[derive(Debug, Clone, PartialEq, serde::Serialize)]
pub struct DxfPoint {
    /// Which room it is in, by its place in the list.
    pub room: usize,
    /// What the block means.
    pub symbol: Symbol,
    /// What it is.
    pub kind: PointKind,
    /// Where.
    pub at: Spot,
}

/// What a drawing holds.
#[derive(Debug, Clone, Default, PartialEq, serde::Serialize)]
pub struct DxfRead {
    /// The unit of the drawing, in words.
    pub unit: String,
    /// Its rooms, from the upper left.
    pub rooms: Vec<DxfRoom>,
    /// Its points.
    pub points: Vec<DxfPoint>,
    /// What was left out and why, as sentences.
    pub left_out: Vec<String>,
}

/// Reads a drawing. `unit_mm`: how many millimeters its unit is; as the file says if `None`.
pub fn read_plan_dxf(bytes: &[u8], unit_mm: Option<f64>) -> Result<DxfRead, DxfError> {
    sound(bytes)?;
    // The reader is not ours; whatever it makes of a damaged file must not take the program along.
    let loaded = std::panic::catch_unwind(|| Drawing::load(&mut std::io::Cursor::new(bytes)));
    let drawing = match loaded {
        Ok(Ok(drawing)) => drawing,
        Ok(Err(error)) => return Err(DxfError::Damaged(format!("{error}").trim_end_matches('.').to_owned())),
        Err(_) => return Err(DxfError::Damaged("its values contradict each other".into())),
    };
    let (unit_mm, unit) = match unit_mm {
        Some(mm) => (mm, format!("{mm} mm")),
        None => unit_of(&drawing),
    };
    let mut left_out = Vec::new();
    let Some((mut rooms, origin)) = rooms(&drawing, unit_mm, &mut left_out) else { return Err(DxfError::NoRooms) };
    // The upper left corner of it all comes to 0, 0.
    let corners = || rooms.iter().flat_map(|room| room.outline.corners());
    let (x, y) = (corners().map(|c| c.x).min().unwrap_or(0), corners().map(|c| c.y).min().unwrap_or(0));
    for room in &mut rooms {
        let moved = room.outline.corners().iter().map(|c| Spot::at(c.x - x, c.y - y)).collect();
        room.outline = Outline::new(moved).unwrap_or_else(|why| unreachable!("it was one before: {why}"));
    }
    rooms.sort_by_key(|room| room.outline.corners().iter().map(|c| (c.y, c.x)).min());
    let to_spot = |px: f64, py: f64| {
        // What lies further off than any plan reaches is in no room.
        let near = |v: f64, from: f64| (v * unit_mm - from).clamp(-1e9, 1e9).round() as i32;
        Spot::at(near(px, origin.0) - x, near(-py, origin.1) - y)
    };
    name_rooms(&drawing, &mut rooms, &to_spot);
    let points = points(&drawing, &rooms, &to_spot, &mut left_out);
    Ok(DxfRead { unit, rooms, points, left_out })
}

/// Text, of a size that is read, that begins as a drawing does.
fn sound(bytes: &[u8]) -> Result<(), DxfError> {
    if bytes.len() > MOST_BYTES {
        return Err(DxfError::TooLarge);
    }
    if bytes.iter().take(4096).any(|b| *b == 0) {
        return Err(DxfError::Binary);
    }
    let mut lines = bytes.split(|b| *b == b'\n').map(<[u8]>::trim_ascii);
    let code = lines.next().unwrap_or_default();
    let code = code.strip_prefix(b"\xef\xbb\xbf").unwrap_or(code);
    let value = lines.next().unwrap_or_default();
    let begins = (code == b"0" && value == b"SECTION") || code == b"999";
    if !begins {
        return Err(DxfError::NoDrawing);
    }
    if lines.count() > MOST_LINES {
        return Err(DxfError::TooLarge);
    }
    Ok(())
}

fn unit_of(drawing: &Drawing) -> (f64, String) {
    match drawing.header.default_drawing_units {
        Units::Inches => (25.4, "inches".into()),
        Units::Feet => (304.8, "feet".into()),
        Units::Centimeters => (10.0, "centimeters".into()),
        Units::Meters => (1000.0, "meters".into()),
        Units::Millimeters => (1.0, "millimeters".into()),
        _ => {
            // Nothing is said: a house is some ten meters wide, so its numbers tell.
            let wide = extent(drawing);
            if wide > 2000.0 {
                (1.0, "millimeters, by the size of its numbers".into())
            } else if wide > 150.0 {
                (25.4, "inches, by the size of its numbers".into())
            } else {
                (1000.0, "meters, by the size of its numbers".into())
            }
        }
    }
}

fn extent(drawing: &Drawing) -> f64 {
    let all: Vec<(f64, f64)> = drawing.entities().filter_map(corners).flatten().collect();
    let span = |get: fn(&(f64, f64)) -> f64| {
        let most = all.iter().map(get).fold(f64::NEG_INFINITY, f64::max);
        let least = all.iter().map(get).fold(f64::INFINITY, f64::min);
        most - least
    };
    span(|c| c.0).max(span(|c| c.1))
}

/// The corners of a closed polyline.
fn corners(entity: &Entity) -> Option<Vec<(f64, f64)>> {
    let (corners, closed): (Vec<(f64, f64)>, bool) = match &entity.specific {
        EntityType::LwPolyline(line) => (line.vertices.iter().map(|v| (v.x, v.y)).collect(), line.is_closed()),
        EntityType::Polyline(line) => (line.vertices().map(|v| (v.location.x, v.location.y)).collect(), line.is_closed()),
        _ => return None,
    };
    let ends_meet = corners.len() > 3 && corners.first() == corners.last();
    (closed || ends_meet).then_some(corners)
}

/// The rooms, from the first corner of the first of them, and where that lies in the drawing, in millimeters.
fn rooms(drawing: &Drawing, unit_mm: f64, left_out: &mut Vec<String>) -> Option<(Vec<DxfRoom>, (f64, f64))> {
    let mut rooms = Vec::new();
    let mut origin: Option<(f64, f64)> = None;
    let (mut odd, mut far, mut many) = (0, 0, 0);
    for corners in drawing.entities().filter_map(corners) {
        let scaled: Vec<(f64, f64)> = corners.iter().map(|(x, y)| (x * unit_mm, -y * unit_mm)).collect();
        if !(3..=60).contains(&scaled.len()) || scaled.iter().any(|(x, y)| !x.is_finite() || !y.is_finite()) {
            odd += 1;
            continue;
        }
        // Measured from its own first corner: a drawing may lie far from its origin.
        let (own_x, own_y) = scaled[0];
        let from = |(x0, y0): (f64, f64)| {
            let to = |v: f64, from: f64| (v - from).clamp(-1e9, 1e9).round() as i32;
            Outline::new(scaled.iter().map(|(x, y)| Spot::at(to(*x, x0), to(*y, y0))).collect())
        };
        if from((own_x, own_y)).is_err() {
            odd += 1;
            continue;
        }
        match from(*origin.get_or_insert((own_x, own_y))) {
            Ok(_) if rooms.len() >= MOST_ROOMS => many += 1,
            Ok(outline) => rooms.push(DxfRoom { name: String::new(), outline }),
            Err(_) => far += 1,
        }
    }
    for (count, why) in [
        (odd, "closed polylines are no rooms: too small, too large, or their sides cross"),
        (far, "rooms lie more than 200 m from the first"),
        (many, "rooms are more than are read at once"),
    ] {
        if count > 0 {
            left_out.push(format!("{count} {why}."));
        }
    }
    origin.map(|origin| (rooms, origin))
}

/// The largest text inside a room that is no size and no number is its name.
fn name_rooms(drawing: &Drawing, rooms: &mut [DxfRoom], to_spot: &dyn Fn(f64, f64) -> Spot) {
    let mut texts: Vec<(f64, String, Spot)> = drawing
        .entities()
        .filter(|entity| !["TAGS", "PANELS", "STAIRS"].contains(&entity.common.layer.as_str()))
        .filter_map(|entity| match &entity.specific {
            EntityType::Text(text) => {
                let centered = text.second_alignment_point.x != 0.0 || text.second_alignment_point.y != 0.0;
                let at = if centered { &text.second_alignment_point } else { &text.location };
                Some((text.text_height, text.value.clone(), to_spot(at.x, at.y)))
            }
            EntityType::MText(text) => {
                let at = &text.insertion_point;
                Some((text.initial_text_height, plain(&text.text), to_spot(at.x, at.y)))
            }
            _ => None,
        })
        .filter(|(_, value, _)| value.chars().filter(|c| c.is_alphabetic()).count() >= 3)
        .filter(|(_, value, _)| wayfinder_core::read_size(value, wayfinder_core::Units::Metric).is_err())
        .collect();
    texts.sort_by(|a, b| b.0.total_cmp(&a.0));
    let mut taken: Vec<String> = Vec::new();
    let count = rooms.len();
    for (n, room) in rooms.iter_mut().enumerate() {
        let inside = texts.iter().find(|(_, _, at)| holds(&room.outline, *at));
        let wanted: String = match inside {
            Some((_, value, _)) => value.chars().filter(|c| !c.is_control()).take(50).collect::<String>().trim().to_owned(),
            None => format!("Room {}", n + 1),
        };
        let free = |name: &String| !taken.iter().any(|t| t.eq_ignore_ascii_case(name));
        let name = if free(&wanted) {
            wanted
        } else {
            (2..=count + 1).map(|k| format!("{wanted} {k}")).find(free).unwrap_or_else(|| format!("Room {}", n + 1))
        };
        taken.push(name.clone());
        room.name = name;
    }
}

/// A text without its format codes.
fn plain(text: &str) -> String {
    let first = text.split("\\P").next().unwrap_or_default();
    let mut plain = String::new();
    let mut chars = first.chars();
    while let Some(c) = chars.next() {
        match c {
            '{' | '}' => {}
            '\\' => {
                // `\fArial;`: up to the semicolon.
                chars.by_ref().find(|c| *c == ';');
            }
            c => plain.push(c),
        }
    }
    plain
}

fn holds(outline: &Outline, at: Spot) -> bool {
    let mut inside = false;
    for (a, b) in outline.walls() {
        if (a.y > at.y) != (b.y > at.y) {
            let x = f64::from(a.x) + f64::from(at.y - a.y) / f64::from(b.y - a.y) * f64::from(b.x - a.x);
            inside ^= f64::from(at.x) < x;
        }
    }
    inside
}

fn points(drawing: &Drawing, rooms: &[DxfRoom], to_spot: &dyn Fn(f64, f64) -> Spot, left_out: &mut Vec<String>) -> Vec<DxfPoint> {
    let mut points = Vec::new();
    let (mut unknown, mut outside, mut many) = (0, 0, 0);
    for entity in drawing.entities() {
        let EntityType::Insert(insert) = &entity.specific else { continue };
        let Some(symbol) = Symbol::of_block(&insert.name) else {
            unknown += 1;
            continue;
        };
        let at = to_spot(insert.location.x, insert.location.y);
        // A symbol on a wall is drawn into its room; one of another drawing is looked for all around.
        let turn = (360.0 - insert.rotation.rem_euclid(360.0)).round() as i32;
        let into_room = turned(Spot::at(0, 150), turn, at);
        let around = [(0, 150), (0, -150), (150, 0), (-150, 0)].map(|(dx, dy)| Spot::at(at.x + dx, at.y + dy));
        let mut places = [into_room, at].into_iter().chain(around);
        let room = places.find_map(|place| rooms.iter().position(|room| holds(&room.outline, place)));
        match room {
            Some(_) if points.len() >= MOST_POINTS => many += 1,
            Some(room) => points.push(DxfPoint { room, symbol, kind: symbol.kind(), at }),
            None => outside += 1,
        }
    }
    for (count, why) in [
        (unknown, "blocks have names that mean no point here"),
        (outside, "points lie in no room"),
        (many, "points are more than are read at once"),
    ] {
        if count > 0 {
            left_out.push(format!("{count} {why}."));
        }
    }
    points
}
