//! One floor of the plan laid out on paper at a stated scale, with a legend: marks in millimeters of the paper, for
//! whatever draws them.

use wayfinder_core::{Bounds, OpeningKind, Plan, PlanFloor, Spot, Stroke, TagKind, Units, turned};

use crate::fonts::{HEAD, TEXT, Type};

/// Paper, lying on its long side.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Paper {
    /// 279.4 × 215.9 mm.
    Letter,
    /// 297 × 210 mm.
    A4,
    /// 431.8 × 279.4 mm.
    Tabloid,
    /// 420 × 297 mm.
    A3,
}

impl Paper {
    /// Width and height in millimeters.
    pub const fn size(self) -> (f64, f64) {
        match self {
            Self::Letter => (279.4, 215.9),
            Self::A4 => (297.0, 210.0),
            Self::Tabloid => (431.8, 279.4),
            Self::A3 => (420.0, 297.0),
        }
    }
}

/// What is to be printed.
#[derive(Debug, Clone)]
pub struct PlanRequest {
    /// The home's name.
    pub home: String,
    /// `2026-11-24`.
    pub date: String,
    /// On what.
    pub paper: Paper,
    /// 1 to so many; the largest that fits if `None`.
    pub scale: Option<u32>,
}

/// Why a plan cannot be laid out.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum PlanSheetError {
    /// Nothing is drawn on the floor.
    #[error("Nothing is drawn on {0} yet. Give a room its size first.")]
    Empty(String),
    /// The floor is larger than the paper at that scale.
    #[error("At 1:{scale} {floor} does not fit on this paper. 1:{fits} does, or take larger paper.")]
    TooLarge {
        /// The floor.
        floor: String,
        /// The scale that was asked for.
        scale: u32,
        /// The largest that fits.
        fits: u32,
    },
    /// Even the smallest scale does not fit.
    #[error("{0} is too large for any paper here. Take larger paper, or look whether a room lies far off.")]
    Immense(String),
}

/// How a mark is inked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Ink {
    /// Line width in mm; 0 for none.
    pub(crate) weight: f64,
    /// What fills it.
    pub(crate) fill: Fill,
    pub(crate) dashed: bool,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Fill {
    None,
    Ink,
    Paper,
    Tint,
}

/// A mark on the paper, in millimeters from its upper left corner.
#[derive(Debug, Clone)]
pub(crate) enum Mark {
    Path {
        points: Vec<(f64, f64)>,
        closed: bool,
        ink: Ink,
    },
    Circle {
        at: (f64, f64),
        radius: f64,
        ink: Ink,
    },
    /// Its middle on the base line.
    Text {
        at: (f64, f64),
        text: String,
        size: f64,
        bold: bool,
        middle: bool,
        white: bool,
    },
}

/// A laid-out sheet.
#[derive(Debug, Clone)]
pub struct PlanSheet {
    /// Its size in mm.
    pub size: (f64, f64),
    /// 1 to so many.
    pub scale: u32,
    /// Its title.
    pub title: String,
    pub(crate) marks: Vec<Mark>,
}

const MARGIN: f64 = 9.0;
const LEGEND: f64 = 52.0;
const FOOT: f64 = 20.0;
/// Round around the drawing, for symbols outside the walls.
const ROUND: f64 = 6.0;
/// A wall's line on paper, in mm.
pub const WALL_WEIGHT: f64 = 0.7;

const METRIC: [u32; 10] = [20, 25, 50, 75, 100, 125, 150, 200, 250, 500];
/// 1/2", 3/8", 1/4", 3/16", 1/8", 3/32", 1/16" and 1/32" to the foot.
const FEET: [u32; 8] = [24, 32, 48, 64, 96, 128, 192, 384];

fn line(weight: f64) -> Ink {
    Ink { weight, fill: Fill::None, dashed: false }
}

/// Lays a floor out.
pub fn plan_sheet(plan: &Plan, floor: &PlanFloor, request: &PlanRequest) -> Result<PlanSheet, PlanSheetError> {
    let bounds = Bounds::around(floor.rooms.iter().flat_map(|room| room.outline.corners().iter().copied()))
        .ok_or_else(|| PlanSheetError::Empty(floor.name.clone()))?;
    let (width, height) = request.paper.size();
    let (free_w, free_h) = (width - 2.0 * MARGIN - LEGEND - 2.0 * ROUND, height - 2.0 * MARGIN - FOOT - 2.0 * ROUND);
    let fits = |scale: u32| {
        f64::from(bounds.width) / f64::from(scale) <= free_w && f64::from(bounds.height) / f64::from(scale) <= free_h
    };
    let scales = if plan.units == Units::Metric { &METRIC[..] } else { &FEET[..] };
    let largest = scales.iter().copied().find(|s| fits(*s)).ok_or_else(|| PlanSheetError::Immense(floor.name.clone()))?;
    let scale = match request.scale {
        Some(scale) if scale > 0 && fits(scale) => scale,
        Some(scale) => {
            return Err(PlanSheetError::TooLarge { floor: floor.name.clone(), scale, fits: largest });
        }
        None => largest,
    };
    let shrink = 1.0 / f64::from(scale);
    // In the middle of the free part of the sheet.
    let left = MARGIN + ROUND + (free_w - f64::from(bounds.width) * shrink) / 2.0;
    let top = MARGIN + ROUND + (free_h - f64::from(bounds.height) * shrink) / 2.0;
    let on = |spot: Spot| (left + f64::from(spot.x - bounds.x) * shrink, top + f64::from(spot.y - bounds.y) * shrink);
    let mut marks = Vec::new();
    draw_floor(plan, floor, &on, shrink, &mut marks);
    legend(plan, floor, request, width, &mut marks);
    foot(plan, floor, request, scale, (width, height), &mut marks);
    Ok(PlanSheet { size: (width, height), scale, title: format!("{}, {}", request.home, floor.name), marks })
}

fn draw_floor(plan: &Plan, floor: &PlanFloor, on: &dyn Fn(Spot) -> (f64, f64), shrink: f64, marks: &mut Vec<Mark>) {
    for stretch in &floor.walls {
        marks.push(Mark::Path { points: vec![on(stretch.from), on(stretch.to)], closed: false, ink: line(WALL_WEIGHT) });
    }
    for opening in &floor.openings {
        let (from, to) = (opening.stretch.from, opening.stretch.to);
        match (opening.kind, opening.leaf) {
            (OpeningKind::Door, Some(leaf)) => {
                marks.push(Mark::Path { points: vec![on(from), on(leaf)], closed: false, ink: line(0.3) });
                marks.push(Mark::Path { points: swing(from, leaf, to, on), closed: false, ink: line(0.15) });
            }
            (OpeningKind::Window, _) => {
                let (dx, dy) = (f64::from(to.x - from.x), f64::from(to.y - from.y));
                let long = dx.hypot(dy).max(1.0);
                let side = |by: f64| Spot::at((-dy / long * by) as i32, (dx / long * by) as i32);
                let [a, b] = [side(55.0), side(-55.0)];
                let plus = |s: Spot, by: Spot| Spot::at(s.x + by.x, s.y + by.y);
                let corners = [plus(from, a), plus(to, a), plus(to, b), plus(from, b)];
                let ink = Ink { weight: 0.2, fill: Fill::Paper, dashed: false };
                marks.push(Mark::Path { points: corners.into_iter().map(on).collect(), closed: true, ink });
                marks.push(Mark::Path { points: vec![on(from), on(to)], closed: false, ink: line(0.2) });
            }
            _ => {
                let ink = Ink { weight: 0.2, fill: Fill::None, dashed: true };
                marks.push(Mark::Path { points: vec![on(from), on(to)], closed: false, ink });
            }
        }
    }
    for stairs in &floor.stairs {
        let treads = (0..6).map(|n| (n * 180 - 450, 400));
        for (y, half) in treads {
            let at = |x: i32| Spot::at(stairs.at.x + x, stairs.at.y + y);
            marks.push(Mark::Path { points: vec![on(at(-half)), on(at(half))], closed: false, ink: line(0.2) });
        }
        let (x, y) = on(Spot::at(stairs.at.x, stairs.at.y + 700));
        text(marks, (x, y), if stairs.up { "up" } else { "down" }, (200.0 * shrink).max(1.6), false);
    }
    for room in &floor.rooms {
        let (x, y) = on(room.label);
        let size = (230.0 * shrink).clamp(1.8, 4.5);
        text(marks, (x, y), &room.name, size, true);
        text(marks, (x, y + size * 1.15), &room.size, size * 0.75, false);
    }
    for panel in &floor.panels {
        let box_ = [Spot::at(-200, 0), Spot::at(200, 0), Spot::at(200, 140), Spot::at(-200, 140)];
        let points = box_.into_iter().map(|s| on(turned(s, panel.turn, panel.at))).collect();
        marks.push(Mark::Path { points, closed: true, ink: Ink { weight: 0.2, fill: Fill::Ink, dashed: false } });
        let (x, y) = on(turned(Spot::at(0, 330), panel.turn, panel.at));
        text(marks, (x, y), &panel.name, (170.0 * shrink).max(1.5), false);
    }
    for point in &floor.points {
        let drawing = plan.symbols.iter().find(|drawing| drawing.symbol == point.symbol);
        for stroke in drawing.iter().flat_map(|drawing| &drawing.strokes) {
            strike(stroke, point.turn, point.at, on, (shrink, floor.symbol_scale), marks);
        }
    }
    for point in &floor.points {
        let tag = &point.tag;
        let on_tag = |x: f64, y: f64| on(Spot::at(tag.at.x + x as i32, tag.at.y + y as i32));
        let (w, h) = (f64::from(tag.width) / 2.0, f64::from(floor.tag_height) / 2.0);
        marks.push(blade(w, h, tag.left, tag.kind, &on_tag));
        let size = 0.62 * f64::from(floor.tag_height) * shrink;
        let (x, y) = on_tag(if tag.left { 45.0 } else { -45.0 }, 0.0);
        let white = tag.kind == TagKind::Proven;
        marks.push(Mark::Text { at: (x, y + size * 0.36), text: HEAD.shown(&tag.text), size, bold: true, middle: true, white });
    }
}

/// The small blade: proven is filled with ink; all else is open, dashed where it is not known.
fn blade(w: f64, h: f64, left: bool, kind: TagKind, on: &dyn Fn(f64, f64) -> (f64, f64)) -> Mark {
    let side = if left { -1.0 } else { 1.0 };
    let corners = [(-w * side, -h), ((w - h * 0.7) * side, -h), (w * side, 0.0), ((w - h * 0.7) * side, h), (-w * side, h)];
    let fill = match kind {
        TagKind::Proven => Fill::Ink,
        TagKind::Out => Fill::Tint,
        TagKind::Likely | TagKind::Contradictory | TagKind::Open => Fill::Paper,
    };
    let ink = Ink { weight: 0.2, fill, dashed: matches!(kind, TagKind::Open | TagKind::Likely) };
    Mark::Path { points: corners.into_iter().map(|(x, y)| on(x, y)).collect(), closed: true, ink }
}

fn strike(
    stroke: &Stroke,
    turn: i32,
    at: Spot,
    on: &dyn Fn(Spot) -> (f64, f64),
    (shrink, scale): (f64, f64),
    marks: &mut Vec<Mark>,
) {
    let larger = |v: i32| (f64::from(v) * scale).round() as i32;
    let put = |spot: Spot| on(turned(Spot::at(larger(spot.x), larger(spot.y)), turn, at));
    match stroke {
        Stroke::Line { from, to } => {
            marks.push(Mark::Path { points: vec![put(*from), put(*to)], closed: false, ink: line(0.22) });
        }
        Stroke::Circle { at, radius, filled } => {
            let fill = if *filled { Fill::Ink } else { Fill::None };
            let ink = Ink { weight: 0.22, fill, dashed: false };
            marks.push(Mark::Circle { at: put(*at), radius: f64::from(*radius) * scale * shrink, ink });
        }
        Stroke::Letters { at, text: words, height } => {
            let size = f64::from(*height) * scale * shrink / 0.72;
            let (x, y) = put(*at);
            text(marks, (x, y + size * 0.36), words, size, true);
        }
    }
}

/// The quarter circle that a door's edge sweeps.
fn swing(hinge: Spot, leaf: Spot, shut: Spot, on: &dyn Fn(Spot) -> (f64, f64)) -> Vec<(f64, f64)> {
    let (hx, hy) = (f64::from(hinge.x), f64::from(hinge.y));
    let (ax, ay) = (f64::from(leaf.x) - hx, f64::from(leaf.y) - hy);
    let (bx, by) = (f64::from(shut.x) - hx, f64::from(shut.y) - hy);
    (0..=8)
        .map(|n| {
            let (sin, cos) = (f64::from(n) * std::f64::consts::FRAC_PI_2 / 8.0).sin_cos();
            on(Spot::at((hx + ax * cos + bx * sin).round() as i32, (hy + ay * cos + by * sin).round() as i32))
        })
        .collect()
}

fn text(marks: &mut Vec<Mark>, at: (f64, f64), words: &str, size: f64, bold: bool) {
    let face: &Type = if bold { &HEAD } else { &TEXT };
    marks.push(Mark::Text { at, text: face.shown(words), size, bold, middle: true, white: false });
}

fn left_text(marks: &mut Vec<Mark>, x: f64, y: f64, words: &str, size: f64, bold: bool) {
    let face: &Type = if bold { &HEAD } else { &TEXT };
    marks.push(Mark::Text { at: (x, y), text: face.shown(words), size, bold, middle: false, white: false });
}

fn legend(plan: &Plan, floor: &PlanFloor, request: &PlanRequest, width: f64, marks: &mut Vec<Mark>) {
    let x = width - MARGIN - LEGEND + 4.0;
    let mut y = MARGIN + 6.0;
    left_text(marks, x, y, &request.home, fitted(&request.home, 4.2, LEGEND - 6.0), true);
    y += 5.2;
    left_text(marks, x, y, &format!("{}, {}", floor.name, request.date), 3.2, false);
    y += 8.0;
    for drawing in plan.symbols.iter().filter(|d| floor.points.iter().any(|p| p.symbol == d.symbol)) {
        // At 1:50 whatever the plan's scale, so that every symbol can be told.
        let shrink = 1.0 / 50.0;
        let low = drawing.strokes.iter().any(|stroke| matches!(stroke, Stroke::Circle { at, .. } if at.y > 0))
            || drawing.strokes.iter().any(|stroke| matches!(stroke, Stroke::Letters { at, .. } if at.y > 100));
        let middle = if low { 150.0 * shrink } else { 0.0 };
        let on = move |spot: Spot| (x + 4.0 + f64::from(spot.x) * shrink, y - 1.0 - middle + f64::from(spot.y) * shrink);
        for stroke in &drawing.strokes {
            strike(stroke, 0, Spot::at(0, 0), &on, (shrink, 1.0), marks);
        }
        left_text(marks, x + 11.0, y, &drawing.words, 2.8, false);
        let lettered = drawing.strokes.iter().any(|stroke| matches!(stroke, Stroke::Letters { at, .. } if at.y > 200));
        y += if lettered { 10.0 } else { 7.6 };
    }
    for (kind, shown, words) in [
        (TagKind::Proven, "11", "proven on breaker 11"),
        (TagKind::Likely, "11 %", "likely: treat as live"),
        (TagKind::Open, "?", "not proven: treat as live"),
        (TagKind::Contradictory, "!?", "looks disagree"),
        (TagKind::Out, "dark", "dark with all on"),
    ] {
        if !floor.points.iter().any(|p| p.tag.kind == kind) {
            continue;
        }
        let (w, h) = (4.2, 2.3);
        let side = [(-w, -h), (w - 1.6, -h), (w, 0.0), (w - 1.6, h), (-w, h)];
        let fill = match kind {
            TagKind::Proven => Fill::Ink,
            TagKind::Out => Fill::Tint,
            _ => Fill::Paper,
        };
        let points = side.into_iter().map(|(dx, dy)| (x + 4.6 + dx, y - 1.0 + dy)).collect();
        let ink = Ink { weight: 0.2, fill, dashed: matches!(kind, TagKind::Open | TagKind::Likely) };
        marks.push(Mark::Path { points, closed: true, ink });
        marks.push(Mark::Text {
            at: (x + 4.0, y),
            text: HEAD.shown(shown),
            size: 2.8,
            bold: true,
            middle: true,
            white: kind == TagKind::Proven,
        });
        left_text(marks, x + 11.0, y, words, 2.8, false);
        y += 6.6;
    }
    let placed = floor.points.len();
    let proven_words = format!("{} of {} points shown have a proven number.", proven(floor), placed);
    y += 1.0;
    for words in [
        proven_words.as_str(),
        "“Proven” says which breaker feeds a point,",
        "never that it is safe to touch. Prove dead",
        "with a meter tested before and after.",
    ] {
        left_text(marks, x, y, words, fitted(words, 2.5, LEGEND - 5.0), false);
        y += 3.6;
    }
}

/// The size at which the words fit the width.
fn fitted(words: &str, size: f64, width: f64) -> f64 {
    let wide = TEXT.width(words).max(HEAD.width(words)) * size;
    if wide > width { size * width / wide } else { size }
}

fn proven(floor: &PlanFloor) -> usize {
    floor.points.iter().filter(|p| p.tag.kind == TagKind::Proven).count()
}

/// Scale in figures and as a bar.
fn foot(plan: &Plan, floor: &PlanFloor, request: &PlanRequest, scale: u32, (width, height): (f64, f64), marks: &mut Vec<Mark>) {
    let y = height - MARGIN - 4.0;
    let ink = Ink { weight: 0.25, fill: Fill::None, dashed: false };
    let frame = [(MARGIN, MARGIN), (width - MARGIN, MARGIN), (width - MARGIN, height - MARGIN), (MARGIN, height - MARGIN)];
    marks.push(Mark::Path { points: frame.to_vec(), closed: true, ink });
    let (step, name): (f64, fn(u32) -> String) = match plan.units {
        Units::Metric => (1000.0, |n| format!("{n} m")),
        Units::FeetInches => (1524.0, |n| format!("{}'", n * 5)),
    };
    let x = MARGIN + 6.0;
    let one = step / f64::from(scale);
    let parts = ((60.0 / one) as u32).clamp(1, 5);
    for n in 0..parts {
        let (from, to) = (x + f64::from(n) * one, x + f64::from(n + 1) * one);
        let fill = if n % 2 == 0 { Fill::Ink } else { Fill::Paper };
        let points = vec![(from, y - 6.0), (to, y - 6.0), (to, y - 4.6), (from, y - 4.6)];
        marks.push(Mark::Path { points, closed: true, ink: Ink { weight: 0.2, fill, dashed: false } });
        text(marks, (to, y - 7.0), &name(n + 1), 2.6, false);
    }
    text(marks, (x, y - 7.0), "0", 2.6, false);
    let words = format!(
        "Scale 1:{scale} when printed at full size. {}, {}. Inside measures; walls have no thickness.",
        floor.name, request.date
    );
    left_text(marks, x, y + 1.0, &words, 2.8, false);
}
