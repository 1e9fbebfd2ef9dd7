//! Rooms and points that were read from a drawing file, as the entries that would record them.

use super::propose;
use super::symbols::Symbol;
use crate::logbook::{Fact, Home, PointStands, RoomDrawn, RoomPlaced};
use crate::model::{Outlets, Outline, PointDetails, Room, RoomId, Spot, Volts};
use crate::plan::Wish;

/// Proposes a floor from a drawing: its rooms (name and inside), and its points (by the place of their room in the
/// list). A room of that name and floor that is not drawn yet is drawn; any other gets a name of its own. Gives the
/// entries and the home as it would be.
pub fn take_drawing(
    home: &Home,
    floor: &str,
    rooms: &[(String, Outline)],
    points: &[(usize, Symbol, Spot)],
    mut new_id: impl FnMut() -> String,
) -> (Vec<Fact>, Home) {
    let mut scratch = home.clone();
    let mut facts = Vec::new();
    let mut record = |scratch: &mut Home, fact: Fact| {
        // What the home refuses is not proposed either.
        if scratch.suppose(&fact).is_ok() {
            facts.push(fact);
        }
    };
    let mut ids: Vec<RoomId> = Vec::new();
    for (name, outline) in rooms {
        let waits = |room: &&Room| {
            room.name.eq_ignore_ascii_case(name)
                && crate::walking::floor_of(room) == floor
                && !scratch.plan().outlines.contains_key(&room.id)
        };
        let waiting: Option<RoomId> = scratch.house().rooms().find(waits).map(|room| room.id.clone());
        let id = match waiting {
            Some(id) => id,
            None => {
                let id: RoomId = new_id().parse().unwrap_or_else(|bad| panic!("{bad}; this is a bug"));
                let taken = |name: &str| scratch.house().rooms().any(|room| room.name.eq_ignore_ascii_case(name));
                let name = std::iter::once(name.clone())
                    .chain((2..).map(|n| format!("{name} {n}")))
                    .find(|name| !taken(name))
                    .unwrap_or_else(|| unreachable!("numbers do not end"));
                let placed = RoomPlaced { room: id.clone(), name, floor: Some(floor.to_owned()) };
                record(&mut scratch, Fact::RoomPlaced(placed));
                id
            }
        };
        let corners = outline.corners().to_vec();
        record(&mut scratch, Fact::RoomDrawn(RoomDrawn { room: id.clone(), corners }));
        ids.push(id);
    }
    for (room, symbol, at) in points {
        let Some(corner) = ids.get(*room).and_then(|id| scratch.plan().corner(id)) else { continue };
        let inside = scratch.plan().outlines.get(&ids[*room]).map(|outline| outline.nearest_wall(*at));
        let high = *symbol == Symbol::HighVoltageReceptacle;
        let wish = Wish::TapPoint {
            point: new_id().parse().unwrap_or_else(|bad| panic!("{bad}; this is a bug")),
            floor: floor.to_owned(),
            at: nudged_inside(&scratch, &ids[*room], *at, inside),
            point_kind: symbol.kind(),
            volts: Volts::new(if high { 240 } else { 120 }),
            details: details(*symbol),
            name: String::new(),
        };
        let Ok(proposal) = propose(&scratch, &wish) else { continue };
        for fact in proposal.facts {
            let fact = match fact {
                Fact::PointStands(stands) => Fact::PointStands(PointStands { at: Some(at.minus(corner)), ..stands }),
                other => other,
            };
            record(&mut scratch, fact);
        }
    }
    (facts, scratch)
}

/// A symbol on a wall between two rooms belongs to the one it was found in.
fn nudged_inside(home: &Home, room: &RoomId, at: Spot, wall: Option<(usize, f64, f64)>) -> Spot {
    let (Some(outline), Some((_, _, away))) = (home.plan().outlines.get(room), wall) else { return at };
    if away > 60.0 {
        return at;
    }
    let middle = outline.middle();
    let far = at.to(middle).max(1.0);
    let step = |from: i32, to: i32| from + (f64::from(to - from) * 80.0 / far).round() as i32;
    Spot::at(step(at.x, middle.x), step(at.y, middle.y))
}

fn details(symbol: Symbol) -> PointDetails {
    let outlets = match symbol {
        Symbol::SingleReceptacle => Outlets::Single,
        Symbol::QuadReceptacle => Outlets::Quad,
        _ => Outlets::Duplex,
    };
    let outdoor = symbol == Symbol::OutdoorReceptacle;
    PointDetails { outlets, gfci: symbol == Symbol::GfciReceptacle, outdoor, ..PointDetails::default() }
}
