//! Rooms from typed lines: `Kitchen 4.2 x 3.6`, `Pantry 2 x 3.6 left of Kitchen`; and where a room snaps to.

use super::measure::{Misread, has_cross, read_size};
use crate::logbook::{Fact, Home, RoomDrawn, RoomPlaced};
use crate::model::{Outline, Room, RoomId, Spot};
use crate::walking::floor_of;

/// On which side of its neighbor a room goes, on the sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RoomSide {
    /// To the right of it.
    Right,
    /// To the left of it.
    Left,
    /// Above it on the sheet.
    Above,
    /// Below it on the sheet.
    Below,
}

/// A typed line of the room list.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct RoomLine {
    /// As it was typed.
    pub text: String,
    /// What it means: `Kitchen, 4.2 × 3.6 m`.
    pub said: Option<String>,
    /// What is wrong with it, and with which part.
    pub misread: Option<Misread>,
    /// The entries that record it.
    pub facts: Vec<Fact>,
}

/// A line taken apart.
struct Typed<'a> {
    name: &'a str,
    outline: Option<Outline>,
    side: Option<RoomSide>,
    of: Option<RoomId>,
}

/// Reads typed lines, one room each; each goes beside the one before it unless it says where. `ids` gives an id for
/// each new room. The lines are worked out one after the other, as they would be recorded.
pub(crate) fn rooms(
    home: &Home,
    text: &str,
    floor: &str,
    beside: Option<(&RoomId, RoomSide)>,
    ids: &mut dyn Iterator<Item = RoomId>,
) -> Vec<RoomLine> {
    let mut scratch = home.clone();
    let mut floor = floor.to_owned();
    let mut last: Option<(RoomId, RoomSide)> = beside.map(|(room, side)| (room.clone(), side));
    let mut lines = Vec::new();
    for line in text.lines().map(str::trim).filter(|line| !line.is_empty()).take(200) {
        if let Some(name) = line.strip_suffix(':') {
            floor = name.trim().to_owned();
            last = None;
            lines.push(RoomLine { text: line.into(), said: Some(format!("Floor {floor}")), misread: None, facts: Vec::new() });
            continue;
        }
        let read = one(&scratch, line, &floor, last.as_ref(), ids);
        lines.push(match read {
            Ok((said, facts, room, side)) => match facts.iter().try_for_each(|fact| scratch.suppose(fact)) {
                Ok(()) => {
                    last = Some((room, side));
                    RoomLine { text: line.into(), said: Some(said), misread: None, facts }
                }
                Err(refusal) => {
                    let misread = Some(Misread::new(line, refusal.wrong));
                    RoomLine { text: line.into(), said: None, misread, facts: Vec::new() }
                }
            },
            Err(misread) => RoomLine { text: line.into(), said: None, misread: Some(misread), facts: Vec::new() },
        });
    }
    lines
}

type Placed = (String, Vec<Fact>, RoomId, RoomSide);

fn one(
    home: &Home,
    line: &str,
    floor: &str,
    last: Option<&(RoomId, RoomSide)>,
    ids: &mut dyn Iterator<Item = RoomId>,
) -> Result<Placed, Misread> {
    let typed = take_apart(home, line)?;
    let side = typed.side.or(last.map(|(_, side)| *side)).unwrap_or(RoomSide::Right);
    let beside = typed.of.as_ref().or(last.map(|(room, _)| room));
    let known = home.house().rooms().find(|room| room.name.eq_ignore_ascii_case(typed.name));
    let floor = match known {
        Some(room) => floor_of(room).to_owned(),
        None => beside
            .filter(|_| typed.of.is_some())
            .and_then(|room| home.house().room(room))
            .map_or_else(|| floor.to_owned(), |room| floor_of(room).to_owned()),
    };
    let mut facts = Vec::new();
    let room = match known {
        Some(room) => room.id.clone(),
        None => {
            let id = ids.next().ok_or_else(|| Misread::new(line, "There are too many rooms in this list."))?;
            let placed = RoomPlaced { room: id.clone(), name: typed.name.into(), floor: Some(floor.clone()) };
            facts.push(Fact::RoomPlaced(placed));
            id
        }
    };
    let mut said = typed.name.to_owned();
    if let Some(outline) = typed.outline {
        let at = beside_or_free(home, &outline, &room, &floor, beside, side);
        let outline = outline.moved(at);
        let bounds = outline.bounds();
        let units = home.plan().units;
        let length = |mm| crate::model::Length::mm(mm).said(units);
        said = format!("{said}, {} × {}", length(bounds.width), length(bounds.height));
        facts.push(Fact::RoomDrawn(RoomDrawn { room: room.clone(), corners: outline.corners().to_vec() }));
    } else if known.is_some() {
        return Err(Misread::new(line, format!("“{}” is there already. Write its size after it, like 4.2 x 3.6.", typed.name)));
    }
    Ok((said, facts, room, side))
}

/// Name, size, and `left of Kitchen`.
fn take_apart<'a>(home: &Home, line: &'a str) -> Result<Typed<'a>, Misread> {
    let low = line.to_ascii_lowercase();
    let mut rest = line;
    let (mut side, mut of) = (None, None);
    for (words, is) in
        [("right of ", RoomSide::Right), ("left of ", RoomSide::Left), ("above ", RoomSide::Above), ("below ", RoomSide::Below)]
    {
        if let Some(at) = low.find(&format!(" {words}")) {
            let name = line[at + 1 + words.len()..].trim();
            let room = home.house().rooms().find(|room| room.name.eq_ignore_ascii_case(name));
            let Some(room) = room else { return Err(Misread::new(name, format!("There is no room called “{name}”."))) };
            (side, of) = (Some(is), Some(room.id.clone()));
            rest = &line[..at];
            break;
        }
    }
    // The size begins at a word that begins with a digit and has a cross behind it: the first from which it can be read, so that
    // the number of “Bedroom 1” stays with its name.
    let units = home.plan().units;
    let begins: Vec<usize> = rest
        .char_indices()
        .filter(|(n, c)| (c.is_ascii_digit() || *c == '-') && (*n == 0 || rest[..*n].ends_with([' ', ','])))
        .map(|(n, _)| n)
        .filter(|n| has_cross(&rest[*n..]))
        .collect();
    let readable = begins.iter().copied().find(|n| read_size(&rest[*n..], units).is_ok());
    let begins = readable.or_else(|| begins.last().copied());
    let (name, size) = begins.map_or((rest, None), |n| (&rest[..n], Some(&rest[n..])));
    let name = name.trim().trim_end_matches(',').trim();
    if name.is_empty() {
        return Err(Misread::new(line, "The name of the room is missing. Write it before the size: Kitchen 4.2 x 3.6."));
    }
    if name.chars().count() > 60 {
        return Err(Misread::new(name, "The name of the room is too long."));
    }
    let outline = size.map(|size| read_size(size, units)).transpose()?;
    Ok(Typed { name, outline, side, of })
}

/// Where a new outline goes: against its neighbor where nothing overlaps, else in the nearest free place.
fn beside_or_free(home: &Home, outline: &Outline, room: &RoomId, floor: &str, beside: Option<&RoomId>, side: RoomSide) -> Spot {
    let others: Vec<(&Room, &Outline)> = on_floor(home, floor).filter(|(other, _)| other.id != *room).collect();
    if let Some(before) = home.plan().corner(room) {
        // Measured again: it stays where it is.
        return before;
    }
    let size = outline.bounds();
    let neighbor = beside.and_then(|id| others.iter().find(|(other, _)| other.id == *id)).or(others.last());
    let Some((_, neighbor)) = neighbor else { return Spot::at(0, 0) };
    let n = neighbor.bounds();
    let free = |at: &Spot| {
        let moved = outline.moved(*at);
        others.iter().all(|(_, other)| moved.overlap_m2(other) < 0.01)
    };
    // Along the side: flush with either end first, then against the edges of other rooms.
    let xs = |w: i32| {
        let edges = others.iter().flat_map(|(_, o)| [o.bounds().x, o.bounds().x + o.bounds().width]);
        let all = [n.x, n.x + n.width - w].into_iter().chain(edges.flat_map(move |x| [x, x - w]));
        all.filter(move |x| *x < n.x + n.width && x + w > n.x).collect::<Vec<_>>()
    };
    let ys = |h: i32| {
        let edges = others.iter().flat_map(|(_, o)| [o.bounds().y, o.bounds().y + o.bounds().height]);
        let all = [n.y, n.y + n.height - h].into_iter().chain(edges.flat_map(move |y| [y, y - h]));
        all.filter(move |y| *y < n.y + n.height && y + h > n.y).collect::<Vec<_>>()
    };
    let on = |side: RoomSide| -> Vec<Spot> {
        match side {
            RoomSide::Right => ys(size.height).into_iter().map(|y| Spot::at(n.x + n.width, y)).collect(),
            RoomSide::Left => ys(size.height).into_iter().map(|y| Spot::at(n.x - size.width, y)).collect(),
            RoomSide::Above => xs(size.width).into_iter().map(|x| Spot::at(x, n.y - size.height)).collect(),
            RoomSide::Below => xs(size.width).into_iter().map(|x| Spot::at(x, n.y + n.height)).collect(),
        }
    };
    let asked = on(side);
    let then = [RoomSide::Right, RoomSide::Below, RoomSide::Left, RoomSide::Above].into_iter().flat_map(on);
    if let Some(at) = asked.iter().copied().find(free).or_else(|| then.into_iter().find(|at| free(at))) {
        return at;
    }
    // Nothing fits around it: to the right of everything.
    let right = others.iter().map(|(_, o)| o.bounds().x + o.bounds().width).max().unwrap_or(0);
    Spot::at(right, n.y)
}

fn on_floor<'a>(home: &'a Home, floor: &'a str) -> impl Iterator<Item = (&'a Room, &'a Outline)> {
    let outlines = &home.plan().outlines;
    home.house()
        .rooms()
        .filter(move |room| floor_of(room) == floor)
        .filter_map(|room| outlines.get(&room.id).map(|outline| (room, outline)))
}

/// Where a room comes to rest when it is let go with its corner at `at`: its edges against those of other rooms that
/// are near, else on a grid of 5 cm.
pub(crate) fn snapped(home: &Home, room: &Room, outline: &Outline, at: Spot) -> Spot {
    const NEAR: i32 = 250;
    let size = outline.bounds();
    let (mut xs, mut ys) = (Vec::new(), Vec::new());
    for (_, other) in on_floor(home, floor_of(room)).filter(|(other, _)| other.id != room.id) {
        for corner in other.corners() {
            xs.extend([corner.x, corner.x - size.width]);
            ys.extend([corner.y, corner.y - size.height]);
        }
    }
    let nearest = |candidates: Vec<i32>, v: i32| {
        let best = candidates.into_iter().min_by_key(|c| (c - v).abs()).filter(|c| (c - v).abs() <= NEAR);
        best.unwrap_or((v + 25).div_euclid(50) * 50)
    };
    Spot::at(nearest(xs, at.x), nearest(ys, at.y))
}
