//! Works the plan out: where every wall, symbol, tag and name stands.

use std::collections::BTreeMap;

use super::shown::{
    Neighbor, Plan, PlanBackdrop, PlanFloor, PlanNote, PlanOpening, PlanPanel, PlanPoint, PlanRoom, PlanStairs, PlanTag,
    PlanWall, SymbolDrawing, TagKind,
};
use super::symbols::{RADIUS, Symbol, turned};
use super::tags::{Box2, TAG_HEIGHT, place, tag_width};
use super::walls::{on_line, walls};
use crate::model::{
    Backdrop, Bounds, Length, OpeningKind, Outline, Point, PointId, PointKind, RoomId, Spot, Stretch, Units, Volts,
};
use crate::study::Study;
use crate::trace::{Likely, Verdict, likely, verdicts};
use crate::walking::{floor_of, floors};

/// The plan as it is drawn.
pub fn plan(home: &Study) -> &Plan {
    home.once(|| draw(home))
}

fn draw(home: &Study) -> Plan {
    let likely = likely(home);
    let known: BTreeMap<&PointId, &Verdict> = verdicts(home).iter().map(|(point, verdict)| (point, verdict)).collect();
    let mut notes = Vec::new();
    let floors: Vec<PlanFloor> =
        floors(home).into_iter().map(|(name, level)| floor(home, &known, likely, name, level, &mut notes)).collect();
    let mut used: Vec<Symbol> = floors.iter().flat_map(|floor| floor.points.iter().map(|p| p.symbol)).collect();
    used.sort();
    used.dedup();
    let drawing = |symbol: Symbol| SymbolDrawing { symbol, words: symbol.words().into(), strokes: symbol.strokes() };
    let drawn = home.plan();
    let placed: Vec<&PointId> = floors.iter().flat_map(|floor| floor.points.iter().map(|p| &p.point)).collect();
    let without = floors.iter().flat_map(|floor| {
        let rooms = home.house().rooms().filter(|room| floor_of(room) == floor.name);
        rooms.flat_map(|room| home.house().points().filter(move |p| p.room == room.id)).filter(|p| !is_proven(&known, &p.id))
    });
    Plan {
        units: drawn.units,
        symbols: used.into_iter().map(drawing).collect(),
        not_drawn: home.house().rooms().map(|r| &r.id).filter(|id| !drawn.outlines.contains_key(*id)).cloned().collect(),
        not_placed: home.house().points().map(|p| &p.id).filter(|id| !placed.contains(id)).cloned().collect(),
        without_number: without.map(|p| p.id.clone()).collect(),
        floors,
        notes,
    }
}

fn is_proven(known: &BTreeMap<&PointId, &Verdict>, point: &PointId) -> bool {
    known.get(point).is_some_and(|verdict| verdict.proven_on().is_some())
}

fn floor(
    home: &Study,
    known: &BTreeMap<&PointId, &Verdict>,
    likely: &BTreeMap<PointId, Likely>,
    name: String,
    level: i8,
    notes: &mut Vec<PlanNote>,
) -> PlanFloor {
    let drawn = home.plan();
    let here: Vec<(&crate::model::Room, &Outline)> = home
        .house()
        .rooms()
        .filter(|room| floor_of(room) == name)
        .filter_map(|room| drawn.outlines.get(&room.id).map(|outline| (room, outline)))
        .collect();
    for (n, (room, outline)) in here.iter().enumerate() {
        for (other, others) in &here[n + 1..] {
            let shared = outline.overlap_m2(others);
            if shared >= 0.01 {
                notes.push(PlanNote {
                    words: format!(
                        "{} and {} overlap by {shared:.2} m². Both are kept as they are; move one, or measure again.",
                        room.name, other.name
                    ),
                    floor: name.clone(),
                    rooms: vec![room.id.clone(), other.id.clone()],
                });
            }
        }
    }
    let openings = openings(home, &here, &name, notes);
    let cuts: Vec<(OpeningKind, Stretch)> = openings.iter().map(|o| (o.kind, o.stretch)).collect();
    let walls = walls(here.iter().map(|(_, outline)| *outline), &cuts);
    let mut rooms: Vec<PlanRoom> = here
        .iter()
        .map(|(room, outline)| PlanRoom {
            room: room.id.clone(),
            name: room.name.clone(),
            label: outline.middle(),
            size: size(outline, drawn.units),
            area_m2: (outline.area_m2() * 100.0).round() / 100.0,
            walls: outline
                .walls()
                .map(|(from, to)| PlanWall { from, to, length: Length::mm(from.to(to).round() as i32).said(drawn.units) })
                .collect(),
            neighbors: neighbors(&here, &openings, &room.id, outline),
            outline: (*outline).clone(),
        })
        .collect();
    let panels: Vec<PlanPanel> = drawn
        .panels
        .iter()
        .filter_map(|(id, (room, at))| {
            let (_, outline) = here.iter().find(|(r, _)| r.id == *room)?;
            let (at, turn) = outline.against(outline.bounds().corner().plus(*at), f64::INFINITY)?;
            let panel = home.panels().panel(id)?;
            Some(PlanPanel { panel: id.clone(), name: panel.name.clone(), at, turn })
        })
        .collect();
    let scale = symbol_scale(&here);
    let scaled = |mm: i32| (f64::from(mm) * scale).round() as i32;
    let mut points = points(home, known, likely, &here, scale);
    let stairs = stairs(home, &here);
    let in_the_way: Vec<Box2> = points
        .iter()
        .map(|p| Box2::around(p.middle, scaled(2 * RADIUS + 160), scaled(2 * RADIUS + 160)))
        .chain(stairs.iter().map(|s| Box2::around(Spot::at(s.at.x, s.at.y + 100), 950, 1400)))
        .chain(panels.iter().map(|p| Box2::around(turned(Spot::at(0, 200), p.turn, p.at), 700, 500)))
        .chain(openings.iter().filter_map(|o| {
            let leaf = o.leaf?;
            let middle = Spot::at((o.stretch.to.x + leaf.x) / 2, (o.stretch.to.y + leaf.y) / 2);
            Some(Box2::around(middle, 900, 900))
        }))
        .collect();
    for room in &mut rooms {
        room.label = name_spot(&room.outline, scaled(name_width(&room.name)), scale, &in_the_way);
    }
    let bodies: Vec<(Spot, i32, i32)> = points.iter().map(|p| (p.middle, scaled(2 * RADIUS + 60), p.tag.width)).collect();
    let names: Vec<Box2> = rooms
        .iter()
        .map(|r| Box2::around(Spot::at(r.label.x, r.label.y + 60), scaled(name_width(&r.name)), scaled(420)))
        .chain(panels.iter().map(|p| Box2::around(turned(Spot::at(0, 150), p.turn, p.at), 420, 420)))
        .collect();
    for (point, at) in points.iter_mut().zip(place(&bodies, scaled(TAG_HEIGHT), &names, &walls)) {
        point.tag.left = at.x < point.middle.x;
        point.tag.at = at;
    }
    let mine: Vec<&Point> =
        home.house().points().filter(|p| home.house().room(&p.room).is_some_and(|room| floor_of(room) == name)).collect();
    let backdrop = drawn.backdrops.get(&name).map(backdrop);
    let spots = here.iter().flat_map(|(_, outline)| outline.corners().iter().copied()).chain(
        backdrop.iter().flat_map(|b| [b.bounds.corner(), b.bounds.corner().plus(Spot::at(b.bounds.width, b.bounds.height))]),
    );
    PlanFloor {
        bounds: Bounds::around(spots),
        stairs,
        symbol_scale: scale,
        tag_height: scaled(TAG_HEIGHT),
        points_in_all: mine.len(),
        without_number: mine.iter().filter(|p| !is_proven(known, &p.id)).count(),
        name,
        level,
        rooms,
        walls,
        openings,
        panels,
        points,
        backdrop,
    }
}

/// How wide a room's name and size are drawn, in millimeters of the plan.
fn name_width(name: &str) -> i32 {
    130 * name.chars().count().max(9) as i32
}

/// Where a room's name stands: near its middle, clear of what is in the way, within its walls.
fn name_spot(outline: &Outline, width: i32, scale: f64, in_the_way: &[Box2]) -> Spot {
    const STEPS: i32 = 10;
    let (bounds, middle) = (outline.bounds(), outline.middle());
    let spots = (1..STEPS).flat_map(|i| (1..STEPS).map(move |j| (i, j)));
    let spots = spots.map(|(i, j)| Spot::at(bounds.x + bounds.width / STEPS * i, bounds.y + bounds.height / STEPS * j));
    let high = |mm: i32| (f64::from(mm) * scale) as i32;
    let center = Spot::at(bounds.x + bounds.width / 2, bounds.y + bounds.height / 2);
    let reach = Box2::around(center, bounds.width + 2 * width, bounds.height + 4 * high(520));
    let near: Vec<&Box2> = in_the_way.iter().filter(|other| reach.overlap(other) > 0.0).collect();
    let cost = |spot: Spot| {
        let body = Box2::around(Spot::at(spot.x, spot.y + high(60)), width, high(520));
        let covered: f64 = near.iter().map(|other| body.overlap(other)).sum();
        let (above, below) = (-high(230), high(330));
        let corners = [(-width / 2, above), (width / 2, above), (-width / 2, below), (width / 2, below)];
        let outside = corners.iter().filter(|(dx, dy)| !outline.holds(spot.plus(Spot::at(*dx, *dy)))).count();
        covered + outside as f64 * 300_000.0 + spot.to(middle) * 40.0
    };
    let costed = std::iter::once(middle).chain(spots).map(|spot| (cost(spot), spot));
    costed.min_by(|a, b| a.0.total_cmp(&b.0)).map_or(middle, |(_, spot)| spot)
}

/// `4.2 × 3.6 m`, over all.
fn size(outline: &Outline, units: Units) -> String {
    let bounds = outline.bounds();
    let (w, d) = (Length::mm(bounds.width).said(units), Length::mm(bounds.height).said(units));
    match units {
        Units::Metric => format!("{} × {d}", w.trim_end_matches(" m")),
        Units::FeetInches => format!("{w} × {d}"),
    }
}

fn backdrop(laid: &Backdrop) -> PlanBackdrop {
    let scaled = |px: u32| (f64::from(px) * laid.mm_per_px).round() as i32;
    PlanBackdrop {
        photo: laid.photo.clone(),
        bounds: Bounds { x: laid.at.x, y: laid.at.y, width: scaled(laid.size_px.0), height: scaled(laid.size_px.1) },
        mm_per_px: laid.mm_per_px,
    }
}

fn openings(home: &Study, here: &[(&crate::model::Room, &Outline)], floor: &str, notes: &mut Vec<PlanNote>) -> Vec<PlanOpening> {
    let mut all = Vec::new();
    for opening in home.plan().openings.values() {
        let Some((room, outline)) = here.iter().find(|(room, _)| room.id == opening.room) else { continue };
        let Some(stretch) = opening.stretch(outline) else {
            notes.push(PlanNote {
                words: format!(
                    "A {} of {} no longer fits its wall, which was drawn anew. Place it again, or take it out.",
                    opening.kind.word(),
                    room.name
                ),
                floor: floor.to_owned(),
                rooms: vec![room.id.clone()],
            });
            continue;
        };
        let width = stretch.from.to(stretch.to);
        // The leaf opens into the room it was entered in: a quarter turn from the hinge, to the wall's right.
        let leaf = (opening.kind == OpeningKind::Door).then(|| {
            let (dx, dy) = (stretch.to.x - stretch.from.x, stretch.to.y - stretch.from.y);
            stretch.from.plus(Spot::at(-dy, dx))
        });
        all.push(PlanOpening {
            opening: opening.id.clone(),
            kind: opening.kind,
            room: opening.room.clone(),
            to: other_side(here, &opening.room, stretch),
            stretch,
            leaf,
            width: Length::mm(width.round() as i32).said(home.plan().units),
        });
    }
    all
}

/// The room on the other side of a stretch of wall.
fn other_side(here: &[(&crate::model::Room, &Outline)], room: &RoomId, stretch: Stretch) -> Option<RoomId> {
    let middle = Spot::at((stretch.from.x + stretch.to.x) / 2, (stretch.from.y + stretch.to.y) / 2);
    let touches = |outline: &Outline| {
        let (wall, _, away) = outline.nearest_wall(middle);
        let (a, b) = outline.wall(wall);
        away <= crate::model::TOUCHING && on_line(a, b, stretch)
    };
    here.iter().find(|(other, outline)| other.id != *room && touches(outline)).map(|(other, _)| other.id.clone())
}

fn neighbors(
    here: &[(&crate::model::Room, &Outline)],
    openings: &[PlanOpening],
    room: &RoomId,
    outline: &Outline,
) -> Vec<Neighbor> {
    let way = |other: &RoomId| {
        openings
            .iter()
            .filter(|o| o.kind.is_way())
            .any(|o| (&o.room == room && o.to.as_ref() == Some(other)) || (&o.room == other && o.to.as_ref() == Some(room)))
    };
    here.iter()
        .filter(|(other, others)| other.id != *room && !outline.shared(others).is_empty())
        .map(|(other, _)| Neighbor { room: other.id.clone(), way: way(&other.id) })
        .collect()
}

fn stairs(home: &Study, here: &[(&crate::model::Room, &Outline)]) -> Vec<PlanStairs> {
    let mut all = Vec::new();
    for stairs in home.plan().stairs.values() {
        for (from, to, up) in [(&stairs.lower, &stairs.upper, true), (&stairs.upper, &stairs.lower, false)] {
            if let Some((_, outline)) = here.iter().find(|(room, _)| room.id == from.0) {
                let at = outline.bounds().corner().plus(from.1);
                all.push(PlanStairs { stairs: stairs.id.clone(), at, room: from.0.clone(), up, to: to.0.clone() });
            }
        }
    }
    all
}

/// How near a wall must be to take a point of this kind.
pub(crate) const fn reach(kind: PointKind) -> f64 {
    match kind {
        PointKind::Receptacle | PointKind::Switch => 600.0,
        PointKind::Light => 200.0,
        _ => 0.0,
    }
}

/// Symbols are drawn as they are on a floor of up to 12 m, and larger, up to 1.4 times, on wider ones.
fn symbol_scale(here: &[(&crate::model::Room, &Outline)]) -> f64 {
    let bounds = Bounds::around(here.iter().flat_map(|(_, outline)| outline.corners().iter().copied()));
    let wide = bounds.map_or(0.0, |b| f64::from(b.width).max(f64::from(b.height) * 1.5));
    ((wide / 12_000.0).clamp(1.0, 1.4) * 20.0).round() / 20.0
}

fn points(
    home: &Study,
    known: &BTreeMap<&PointId, &Verdict>,
    likely: &BTreeMap<PointId, Likely>,
    here: &[(&crate::model::Room, &Outline)],
    scale: f64,
) -> Vec<PlanPoint> {
    let drawn = home.plan();
    let three_way = |switch: &PointId| {
        let mut lamps = drawn.controls.get(switch).into_iter().flatten();
        lamps.any(|lamp| drawn.switches_of(lamp).any(|other| other != switch))
    };
    let split = |id: &PointId| home.house().points().any(|p| p.details.half_of.as_ref() == Some(id));
    let open = Verdict::unknown();
    let mut all = Vec::new();
    for (room, outline) in here {
        for point in home.house().points().filter(|p| p.room == room.id) {
            let Some(within) = drawn.points.get(&point.id) else { continue };
            let spot = outline.bounds().corner().plus(*within);
            let leaning = outline.against(spot, reach(point.kind));
            let symbol = Symbol::of(point, leaning.is_some(), three_way(&point.id), split(&point.id));
            let (at, turn) = leaning.filter(|_| symbol.leans()).unwrap_or((spot, 0));
            let verdict = known.get(&point.id).copied().unwrap_or(&open);
            let (text, kind) = match (tag_of(home, verdict), likely.get(&point.id)) {
                ((_, TagKind::Open), Some(likely)) => {
                    (format!("{} {} %", home.panels().number(&likely.breaker), likely.percent), TagKind::Likely)
                }
                (told, _) => told,
            };
            all.push(PlanPoint {
                point: point.id.clone(),
                room: room.id.clone(),
                at,
                turn,
                middle: turned(Spot::at(0, (f64::from(symbol.middle().y) * scale) as i32), turn, at),
                symbol,
                spoken: format!("{}, {}, {}, {}", room.name, point.name, spoken_kind(point), spoken_tag(&text, kind)),
                tag: PlanTag {
                    width: (f64::from(tag_width(&text)) * scale) as i32,
                    text,
                    kind,
                    at,
                    left: false,
                    breaker: verdict.proven_on().cloned(),
                },
            });
        }
    }
    all
}

fn spoken_kind(point: &Point) -> String {
    let volts = if point.volts == Volts::new(240) { ", 240 volts" } else { "" };
    format!("{}{volts}", point.kind.word())
}

fn spoken_tag(text: &str, kind: TagKind) -> String {
    match kind {
        TagKind::Proven => format!("proven on {text}"),
        TagKind::Likely => format!("likely {text}, not proven"),
        TagKind::Contradictory => "looks disagree".into(),
        TagKind::Out => "dark with everything on".into(),
        TagKind::Open if text == "?" => "not known yet".into(),
        TagKind::Open => format!("not proven, {text}"),
    }
}

/// What a tag says of a verdict.
pub(crate) fn tag_of(home: &Study, verdict: &Verdict) -> (String, TagKind) {
    match verdict {
        Verdict::Proven { breaker, .. } => (home.panels().number(breaker), TagKind::Proven),
        Verdict::Contradictory { .. } => ("!?".into(), TagKind::Contradictory),
        Verdict::Out { .. } => ("dark".into(), TagKind::Out),
        Verdict::ByExclusion { breakers } => {
            let numbers: Vec<String> = breakers.iter().map(|b| home.panels().number(b)).collect();
            (format!("{} excl.", numbers.join(" or ")), TagKind::Likely)
        }
        Verdict::Open { possible, .. } => {
            let text = match possible.as_slice() {
                [one] => format!("{}?", home.panels().number(one)),
                [one, other] => format!("{} or {}?", home.panels().number(one), home.panels().number(other)),
                _ => "?".into(),
            };
            (text, TagKind::Open)
        }
    }
}
