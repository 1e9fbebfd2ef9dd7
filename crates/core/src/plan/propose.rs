//! What a person typed or tapped, as the entries that would record it. Nothing is written here.

use super::propose_room::{RoomLine, RoomSide, rooms, snapped};
use super::read_length;
use super::view::reach;
use crate::logbook::{
    BackdropLaid, Fact, GfciProtects, Home, OpeningPlaced, PanelStands, PointPlaced, PointStands, RoomDrawn, StairsPlaced,
};
use crate::model::{
    Bounds, Length, OpeningId, OpeningKind, Outline, PanelId, PhotoId, Pixel, Point, PointDetails, PointId, PointKind, Refusal,
    RefusalCode, Room, RoomId, Spot, StairsId, Volts, so_many, spot_on,
};
use crate::walking::floor_of;

/// What is wished for.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "wish", rename_all = "snake_case")]
pub enum Wish {
    /// Rooms typed as a list, one a line.
    TypeRooms {
        /// The list.
        text: String,
        /// The floor they are on, where a line `loft:` does not say another.
        floor: String,
        /// The first goes beside this room.
        beside: Option<RoomId>,
        /// On this side.
        side: Option<RoomSide>,
        /// Ids for new rooms.
        ids: Vec<RoomId>,
    },
    /// A room is let go with the corner of its box here.
    MoveRoom {
        /// Which.
        room: RoomId,
        /// Where.
        to: Spot,
    },
    /// A room is turned by a quarter, clockwise.
    TurnRoom {
        /// Which.
        room: RoomId,
    },
    /// A new point on the list of a room, without a place on the plan.
    ListPoint {
        /// Its id.
        point: PointId,
        /// The room.
        room: RoomId,
        /// What it is.
        point_kind: PointKind,
        /// 120 or 240.
        volts: Volts,
        /// What else is known of it.
        #[serde(default)]
        details: PointDetails,
        /// Its name; numbered where it is empty, counted on where the room has it already.
        name: String,
    },
    /// A new point where the plan was tapped.
    TapPoint {
        /// Its id.
        point: PointId,
        /// On which floor.
        floor: String,
        /// Where.
        at: Spot,
        /// What it is.
        point_kind: PointKind,
        /// 120 or 240.
        volts: Volts,
        /// What else is known of it.
        details: PointDetails,
        /// Its name; worked out from the wall where it is empty.
        name: String,
    },
    /// A point is placed or moved here.
    MovePoint {
        /// Which.
        point: PointId,
        /// Where on its room's floor.
        to: Spot,
    },
    /// All points of a room that have no place yet, spread along its walls and its ceiling.
    SpreadPoints {
        /// Which room.
        room: RoomId,
    },
    /// The other half of a duplex, as a point of its own.
    SplitReceptacle {
        /// The half that is there.
        point: PointId,
        /// The id of the other.
        other: PointId,
    },
    /// A door, passage or window at the nearest wall.
    TapOpening {
        /// Its id.
        opening: OpeningId,
        /// On which floor.
        floor: String,
        /// Where.
        at: Spot,
        /// What it is.
        opening_kind: OpeningKind,
        /// Its width.
        width: Length,
    },
    /// A door in the middle of the wall between two rooms.
    Door {
        /// Its id.
        opening: OpeningId,
        /// One room.
        room: RoomId,
        /// The other.
        to: RoomId,
        /// Its width.
        width: Length,
    },
    /// Stairs from a room up or down to another, in the middle of both.
    Stairs {
        /// Their id.
        stairs: StairsId,
        /// The lower room.
        lower: RoomId,
        /// The upper room.
        upper: RoomId,
    },
    /// A picture goes under a floor, its scale given by two places in it and the length between them.
    LayBackdrop {
        /// The picture, kept beside the logbook.
        photo: PhotoId,
        /// Under which floor.
        floor: String,
        /// Its width in pixels.
        width_px: u32,
        /// Its height in pixels.
        height_px: u32,
        /// One end of the known length.
        a: Pixel,
        /// Its other end.
        b: Pixel,
        /// The length as it was typed.
        length: String,
    },
    /// The panel hangs where the plan was tapped.
    TapPanel {
        /// Which.
        panel: PanelId,
        /// On which floor.
        floor: String,
        /// Where.
        at: Spot,
    },
}

/// What would be recorded.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Proposal {
    /// The entries.
    pub facts: Vec<Fact>,
    /// What they do, in words.
    pub said: String,
    /// Of typed rooms: line by line.
    pub lines: Vec<RoomLine>,
}

/// Works out the entries for a wish, or says what stands in the way. What the logbook would refuse is not proposed.
pub fn propose(home: &Home, wish: &Wish) -> Result<Proposal, Refusal> {
    let proposal = worked_out(home, wish)?;
    let mut then = home.clone();
    proposal.facts.iter().try_for_each(|fact| then.suppose(fact))?;
    Ok(proposal)
}

fn worked_out(home: &Home, wish: &Wish) -> Result<Proposal, Refusal> {
    let plain = |said: String, facts: Vec<Fact>| Ok(Proposal { facts, said, lines: Vec::new() });
    match wish {
        Wish::TypeRooms { text, floor, beside, side, ids } => {
            let beside = beside.as_ref().map(|room| (room, side.unwrap_or(RoomSide::Right)));
            let lines = rooms(home, text, floor, beside, &mut ids.iter().cloned());
            let facts: Vec<Fact> = lines.iter().flat_map(|line| line.facts.clone()).collect();
            let said = lines.iter().filter_map(|line| line.said.clone()).collect::<Vec<_>>().join("; ");
            Ok(Proposal { facts, said, lines })
        }
        Wish::MoveRoom { room, to } => {
            let (known, outline) = drawn_room(home, room)?;
            let to = snapped(home, known, outline, *to);
            let moved = outline.moved(to.minus(outline.bounds().corner()));
            let corners = moved.corners().to_vec();
            plain(format!("{} moved", known.name), vec![Fact::RoomDrawn(RoomDrawn { room: room.clone(), corners })])
        }
        Wish::TurnRoom { room } => {
            let (known, outline) = drawn_room(home, room)?;
            let bounds = outline.bounds();
            // (x, y) within the box becomes (height - y, x): a quarter turn clockwise about the box's corner.
            let turned = |s: &Spot| Spot::at(bounds.x + bounds.height - (s.y - bounds.y), bounds.y + (s.x - bounds.x));
            let corners = outline.corners().iter().map(turned).collect();
            plain(format!("{} turned", known.name), vec![Fact::RoomDrawn(RoomDrawn { room: room.clone(), corners })])
        }
        Wish::ListPoint { point, room, point_kind, volts, details, name } => {
            let known = home.house().room(room).ok_or_else(|| no_place("There is no such room.", "Choose one of the list."))?;
            let name = match name.trim() {
                "" => free_name(home, room, *point_kind, &format!("{} 1", point_kind.word())),
                name => free_name(home, room, *point_kind, name),
            };
            let placed = new_point(point, room, *point_kind, name.clone(), *volts, details.clone());
            plain(format!("{}, {name}", known.name), vec![placed])
        }
        Wish::TapPoint { point, floor, at, point_kind, volts, details, name } => {
            let (room, outline) = room_at(home, floor, *at)?;
            let name = match name.trim() {
                "" => name_at(home, room, outline, *point_kind, *at),
                name => free_name(home, &room.id, *point_kind, name),
            };
            let placed = new_point(point, &room.id, *point_kind, name.clone(), *volts, details.clone());
            let stands = PointStands { point: point.clone(), at: Some(at.minus(outline.bounds().corner())) };
            plain(format!("{}, {name}", room.name), vec![placed, Fact::PointStands(stands)])
        }
        Wish::MovePoint { point, to } => {
            let known = known_point(home, point)?;
            let (room, outline) = drawn_room(home, &known.room)?;
            let (target, others) = match room_at(home, floor_of(room), *to) {
                Ok((other, its)) if other.id != room.id && !outline.holds(*to) => (other, its),
                Ok(_) => (room, outline),
                Err(refusal) => return Err(refusal),
            };
            let mut facts = Vec::new();
            if target.id != room.id {
                let mut placed = PointPlaced::from(known);
                placed.room = target.id.clone();
                placed.name = free_name(home, &target.id, known.kind, &known.name);
                facts.push(Fact::PointPlaced(placed));
            }
            let at = Some(to.minus(others.bounds().corner()));
            facts.push(Fact::PointStands(PointStands { point: point.clone(), at }));
            plain(format!("{}, {} placed", target.name, known.name), facts)
        }
        Wish::SpreadPoints { room } => spread(home, room),
        Wish::SplitReceptacle { point, other } => {
            let known = known_point(home, point)?;
            let is_half = |p: &Point| p.id == *point && p.details.half_of.is_some() || p.details.half_of.as_ref() == Some(point);
            if known.kind != PointKind::Receptacle || home.house().points().any(is_half) {
                return Err(no_place("Only a whole receptacle has two halves.", "Choose a receptacle that is not split yet."));
            }
            let mut placed = PointPlaced::from(known);
            placed.point = other.clone();
            placed.name = free_name(home, &known.room, known.kind, &lengthened(&known.name, ", other half"));
            placed.details = PointDetails { half_of: Some(point.clone()), ..known.details.clone() };
            let mut facts = vec![Fact::PointPlaced(placed)];
            if let Some(at) = home.plan().points.get(point) {
                let beside = Spot::at(at.x + 320, at.y);
                facts.push(Fact::PointStands(PointStands { point: other.clone(), at: Some(beside) }));
            }
            let upstream: Vec<Fact> = home
                .plan()
                .gfcis_of(point)
                .map(|device| {
                    let mut points = home.plan().protects.get(device).cloned().unwrap_or_default();
                    points.push(other.clone());
                    Fact::GfciProtects(GfciProtects { device: device.clone(), points })
                })
                .collect();
            facts.extend(upstream);
            plain(format!("{}: its halves are two points now", known.name), facts)
        }
        Wish::TapOpening { opening, floor, at, opening_kind, width } => {
            let near = drawn_on(home, floor)
                .map(|(room, outline)| (room, outline, outline.nearest_wall(*at)))
                .min_by(|a, b| a.2.2.total_cmp(&b.2.2));
            let Some((room, outline, (wall, along, _))) = near.filter(|(_, _, (_, _, away))| *away <= 800.0) else {
                return Err(no_place("No wall is near there.", "Tap on a wall of a room that is drawn."));
            };
            let placed = in_wall(home, opening, room, outline, wall, along, *opening_kind, *width)?;
            plain(format!("{} in {}", capital(opening_kind.word()), room.name), vec![placed])
        }
        Wish::Door { opening, room, to, width } => {
            let (known, outline) = drawn_room(home, room)?;
            let (other, others) = drawn_room(home, to)?;
            let shared = outline.shared(others);
            let longest = shared.iter().max_by(|a, b| a.1.to(a.2).total_cmp(&b.1.to(b.2)));
            let Some((wall, from, end)) = longest.filter(|_| floor_of(known) == floor_of(other)) else {
                return Err(no_place(
                    &format!("{} and {} share no wall.", known.name, other.name),
                    "Move them together first, or use stairs between floors.",
                ));
            };
            let (a, b) = outline.wall(*wall);
            let along = crate::model::along(a, b, spot_on(*from, *end, from.to(*end) / 2.0));
            let width = Length::mm(width.millimeters().min(from.to(*end) as i32));
            let placed = in_wall(home, opening, known, outline, *wall, along, OpeningKind::Door, width)?;
            plain(format!("Door between {} and {}", known.name, other.name), vec![placed])
        }
        Wish::Stairs { stairs, lower, upper } => {
            let ((below, from), (above, to)) = (drawn_room(home, lower)?, drawn_room(home, upper)?);
            let at = |outline: &Outline| outline.middle().minus(outline.bounds().corner()).plus(Spot::at(0, 600));
            let inside = |outline: &Outline, at: Spot| {
                if outline.holds(outline.bounds().corner().plus(at)) { at } else { at.minus(Spot::at(0, 600)) }
            };
            let placed = StairsPlaced {
                stairs: stairs.clone(),
                lower: lower.clone(),
                lower_at: inside(from, at(from)),
                upper: upper.clone(),
                upper_at: inside(to, at(to)),
            };
            plain(format!("Stairs from {} up to {}", below.name, above.name), vec![Fact::StairsPlaced(placed)])
        }
        Wish::LayBackdrop { photo, floor, width_px, height_px, a, b, length } => {
            let length = read_length(length, home.plan().units).map_err(|misread| {
                Refusal::new(RefusalCode::OutOfRange, "length", misread.wrong, "Type it as the tape reads.")
            })?;
            // Its corner comes to the corner of what is drawn, from where it can be laid anew.
            let corners = drawn_on(home, floor).flat_map(|(_, outline)| outline.corners().iter().copied());
            let at = Bounds::around(corners).map_or(Spot::at(0, 0), |bounds| bounds.corner());
            let laid = BackdropLaid {
                floor: floor.clone(),
                photo: photo.clone(),
                width_px: *width_px,
                height_px: *height_px,
                a: *a,
                b: *b,
                length,
                at,
            };
            plain("The picture lies underneath".into(), vec![Fact::BackdropLaid(laid)])
        }
        Wish::TapPanel { panel, floor, at } => {
            let (room, outline) = room_at(home, floor, *at)?;
            let stands = PanelStands { panel: panel.clone(), room: room.id.clone(), at: at.minus(outline.bounds().corner()) };
            plain(format!("The panel hangs in {}", room.name), vec![Fact::PanelStands(stands)])
        }
    }
}

#[allow(clippy::too_many_arguments)]
fn in_wall(
    home: &Home,
    opening: &OpeningId,
    room: &Room,
    outline: &Outline,
    wall: usize,
    along: f64,
    kind: OpeningKind,
    width: Length,
) -> Result<Fact, Refusal> {
    let (a, b) = outline.wall(wall);
    let length = a.to(b) as i32;
    let wide = width.millimeters();
    if wide > length {
        return Err(no_place(
            &format!("The wall is {} long, shorter than the {}.", Length::mm(length).said(home.plan().units), kind.word()),
            "Give a smaller width.",
        ));
    }
    let from = (along as i32 - wide / 2).clamp(0, length - wide);
    Ok(Fact::OpeningPlaced(OpeningPlaced {
        opening: opening.clone(),
        opening_kind: kind,
        room: room.id.clone(),
        wall: u8::try_from(wall).unwrap_or_else(|_| unreachable!("a room has at most 40 walls")),
        from: Length::mm(from),
        width,
    }))
}

/// So many characters a name has at most, as the logbook takes it.
const LONGEST_NAME: usize = 60;

fn no_place(wrong: &str, accepted: &str) -> Refusal {
    Refusal::new(RefusalCode::DoesNotFit, "at", wrong, accepted)
}

fn known_point<'a>(home: &'a Home, point: &PointId) -> Result<&'a Point, Refusal> {
    home.house()
        .point(point)
        .ok_or_else(|| Refusal::new(RefusalCode::Unknown, "point", "There is no such point.", "Name one of the house."))
}

fn drawn_room<'a>(home: &'a Home, room: &RoomId) -> Result<(&'a Room, &'a Outline), Refusal> {
    let known = home
        .house()
        .room(room)
        .ok_or_else(|| Refusal::new(RefusalCode::Unknown, "room", "There is no such room.", "Name a room of the house."))?;
    let outline = home.plan().outlines.get(room);
    let outline = outline.ok_or_else(|| no_place(&format!("{} is not drawn yet.", known.name), "Give its size first."))?;
    Ok((known, outline))
}

fn drawn_on<'a>(home: &'a Home, floor: &'a str) -> impl Iterator<Item = (&'a Room, &'a Outline)> {
    home.house()
        .rooms()
        .filter(move |room| floor_of(room) == floor)
        .filter_map(|room| home.plan().outlines.get(&room.id).map(|outline| (room, outline)))
}

/// The room at a place; a place just outside a wall counts to the room inside.
fn room_at<'a>(home: &'a Home, floor: &'a str, at: Spot) -> Result<(&'a Room, &'a Outline), Refusal> {
    let inside = drawn_on(home, floor).find(|(_, outline)| outline.holds(at));
    let near = || {
        let all = drawn_on(home, floor).map(|(room, outline)| (room, outline, outline.nearest_wall(at).2));
        all.min_by(|a, b| a.2.total_cmp(&b.2)).filter(|(_, _, away)| *away <= 400.0).map(|(room, outline, _)| (room, outline))
    };
    inside.or_else(near).ok_or_else(|| no_place("No room is drawn there.", "Tap inside a room, or draw the room first."))
}

/// `north wall 2`, `ceiling`: by the wall that is near, up on the sheet being north.
fn name_at(home: &Home, room: &Room, outline: &Outline, kind: PointKind, at: Spot) -> String {
    let base = match outline.against(at, reach(kind)) {
        Some((_, turn)) => match (turn + 45).rem_euclid(360) / 90 {
            0 => "north wall",
            1 => "east wall",
            2 => "south wall",
            _ => "west wall",
        },
        None => match kind {
            PointKind::Light | PointKind::Fan => "ceiling",
            other => other.word(),
        },
    };
    free_name(home, &room.id, kind, base)
}

/// A point of which nothing was read yet.
fn new_point(id: &PointId, room: &RoomId, kind: PointKind, name: String, volts: Volts, details: PointDetails) -> Fact {
    Fact::PointPlaced(PointPlaced {
        point: id.clone(),
        room: room.clone(),
        point_kind: kind,
        name,
        volts,
        configuration: None,
        only_one: false,
        plate: None,
        details,
    })
}

/// The name, or the name counted on until no point of the kind in the room has it.
pub(crate) fn free_name(home: &Home, room: &RoomId, kind: PointKind, wanted: &str) -> String {
    let taken =
        |name: &str| home.house().points().any(|p| p.room == *room && p.kind == kind && p.name.eq_ignore_ascii_case(name));
    let wanted = wanted.trim();
    if !taken(wanted) {
        return wanted.to_owned();
    }
    let base = wanted.trim_end_matches(|c: char| c.is_ascii_digit()).trim_end();
    (2..)
        .map(|n| lengthened(base, &format!(" {n}")))
        .find(|name| !taken(name))
        .unwrap_or_else(|| unreachable!("numbers do not end"))
}

/// The name with something behind it, cut before that where both are longer than a name may be.
fn lengthened(name: &str, behind: &str) -> String {
    let room = LONGEST_NAME - behind.chars().count();
    let kept: String = name.chars().take(room).collect();
    format!("{}{behind}", kept.trim_end())
}

/// Wall points evenly along the walls from the upper left corner; the rest in a row through the middle.
fn spread(home: &Home, room: &RoomId) -> Result<Proposal, Refusal> {
    let (known, outline) = drawn_room(home, room)?;
    let corner = outline.bounds().corner();
    let bare = home.house().points().filter(|p| p.room == *room && !home.plan().points.contains_key(&p.id));
    let (wall, hung): (Vec<_>, Vec<_>) = bare.partition(|p| matches!(p.kind, PointKind::Receptacle | PointKind::Switch));
    let around: f64 = outline.walls().map(|(a, b)| a.to(b)).sum();
    let mut facts = Vec::new();
    for (n, point) in wall.iter().enumerate() {
        let mut along = around * (n as f64 + 0.5) / wall.len() as f64;
        let at = outline.walls().find_map(|(a, b)| {
            let length = a.to(b);
            if along <= length {
                return Some(spot_on(a, b, along));
            }
            along -= length;
            None
        });
        let at = at.unwrap_or_else(|| outline.middle());
        facts.push(Fact::PointStands(PointStands { point: point.id.clone(), at: Some(at.minus(corner)) }));
    }
    let middle = outline.middle();
    let step = 700.min(outline.bounds().width / (hung.len() as i32 + 1));
    for (n, point) in hung.iter().enumerate() {
        let x = middle.x + step * (2 * n as i32 - (hung.len() as i32 - 1)) / 2;
        let at = if outline.holds(Spot::at(x, middle.y + 450)) { Spot::at(x, middle.y + 450) } else { middle };
        facts.push(Fact::PointStands(PointStands { point: point.id.clone(), at: Some(at.minus(corner)) }));
    }
    if facts.is_empty() {
        return Err(no_place(&format!("Every point of {} has its place.", known.name), "Move them by dragging."));
    }
    let said = format!("{} of {} placed roughly: drag each to where it is", so_many(facts.len(), "point"), known.name);
    Ok(Proposal { facts, said, lines: Vec::new() })
}

fn capital(word: &str) -> String {
    let mut chars = word.chars();
    chars.next().map_or_else(String::new, |first| first.to_uppercase().chain(chars).collect())
}
