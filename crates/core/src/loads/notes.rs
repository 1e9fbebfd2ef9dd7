//! What a rule says of the loads of one circuit.

use serde::Serialize;

use super::circuits::said;
use super::draws::Drawn;
use crate::logbook::Home;
use crate::model::{Breaker, BreakerId, Draw, Edition, LoadId, Place, Point, PointKind, Volts, ampacity};
use crate::study::Study;
use crate::trace::on_breaker;

/// What a remark is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LoadNoteKind {
    /// A load on a cord takes more than 80 % of a circuit that it shares.
    OverShare,
    /// A load that is fastened in place takes more than half of a circuit that it shares.
    FastenedOverHalf,
    /// It should be alone.
    Alone,
    /// Its plate allows a smaller breaker only.
    PlateBreaker,
    /// Its plate asks for a larger wire.
    PlateWire,
    /// It is one of the circuits that such a room has of its own by today's rule, with what else is on it.
    Required,
    /// How the sum was made.
    HowCounted,
}

/// A remark with what it rests on.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct LoadNote {
    /// What it is about.
    pub kind: LoadNoteKind,
    /// The load.
    pub load: Option<LoadId>,
    /// The remark.
    pub words: String,
    /// The section, or common practice.
    pub source: String,
}

impl LoadNote {
    /// As the source of what is common practice.
    pub const PRACTICE: &str = "common practice";
}

/// The section about single loads on a shared circuit moved with the 2023 edition.
const fn shared_circuit(edition: Edition) -> &'static str {
    match edition {
        Edition::Nec2017 | Edition::Nec2020 => "NEC 210.23(A), from memory",
        _ => "NEC 210.23(B), from memory",
    }
}

fn is_heating(drawn: &Drawn<'_>) -> bool {
    drawn.load.like().is_some_and(|like| like.class == "furnace")
}

fn is_sump_pump(drawn: &Drawn<'_>) -> bool {
    drawn.load.appliance.as_deref() == Some("sump_pump")
}

/// What is to be alone on its circuit: the heat of the house, and what keeps the water out.
pub(super) fn is_to_be_alone(drawn: &Drawn<'_>) -> bool {
    is_heating(drawn) || is_sump_pump(drawn)
}

/// The kind of place where a point is, as far as its room's name says; where meals are kept and eaten counts with the kitchen.
fn place_of(home: &Study, point: &Point) -> Option<Place> {
    let room = home.house().room(&point.room)?;
    let dining = ["dining", "pantry", "breakfast"].iter().any(|word| room.name.to_lowercase().contains(word));
    if dining { Some(Place::Kitchen) } else { Place::of(&room.name, room.floor.as_deref()) }
}

fn is_plug(point: &Point) -> bool {
    point.kind == PointKind::Receptacle && point.volts == Volts::new(120)
}

/// What is proven on a breaker beside what a circuit that such a place has of its own may serve: the receptacles of that kind of place; a
/// bath's also all that is in that one bath, a garage's also receptacles outdoors. Source: NEC 210.11(C), from memory.
pub(crate) fn beside_own<'a>(home: &'a Study, place: Place, breaker: &BreakerId) -> Vec<&'a Point> {
    let points: Vec<&Point> = on_breaker(home, breaker).proven.iter().filter_map(|point| home.house().point(point)).collect();
    if place == Place::Bath && points.windows(2).all(|two| two[0].room == two[1].room) {
        return Vec::new();
    }
    let outdoors = |point: &Point| place_of(home, point) == Some(Place::Outdoors) || point.details.outdoor;
    let fits =
        |point: &&Point| is_plug(point) && (place_of(home, point) == Some(place) || place == Place::Garage && outdoors(point));
    points.into_iter().filter(|point| !fits(point)).collect()
}

/// Whether this is one of the circuits that a kitchen, bath, laundry or garage has of its own by today's rule, and what else is on it.
/// For planned work, never a fault of old work. Source: NEC 210.11(C) and 210.52(B), from memory.
pub(super) fn required(home: &Study, breaker: &Breaker) -> Option<LoadNote> {
    if home.edition().is_canadian() || breaker.poles() != 1 {
        return None;
    }
    let known = on_breaker(home, &breaker.id);
    let points: Vec<&Point> = known.proven.iter().filter_map(|point| home.house().point(point)).collect();
    let plugs_of = |place: Place| points.iter().any(|point| is_plug(point) && place_of(home, point) == Some(place));
    let (place, room, wanted, source) = [
        (
            Place::Kitchen,
            "kitchen",
            "two circuits of 20 A for the receptacles of kitchen, dining room and pantry, and nothing else on them",
            "NEC 210.11(C)(1), from memory",
        ),
        (
            Place::Bath,
            "bath",
            "a circuit of 20 A for the receptacles of baths, or for all that is in one bath",
            "NEC 210.11(C)(3), from memory",
        ),
        (Place::Laundry, "laundry", "a circuit of 20 A for its receptacles alone", "NEC 210.11(C)(2), from memory"),
        (Place::Garage, "garage", "a circuit of 20 A for its receptacles and those outdoors", "NEC 210.11(C)(4), from memory"),
    ]
    .into_iter()
    .find(|(place, ..)| plugs_of(*place))?;
    // A refrigerator's own circuit may be of 15 A.
    if breaker.amps.value() < 20.0 && points.len() == 1 {
        return None;
    }
    let beside: Vec<String> = beside_own(home, place, &breaker.id).iter().map(|point| home.house().place(&point.id)).collect();
    let wait = " Nothing has to be done for it until work is planned there.";
    let is = match (beside.as_slice(), breaker.amps.value() == 20.0) {
        ([], true) if known.possible > 0 => {
            "By what is proven this one is such a circuit; points that are not proven may be on it, too.".to_owned()
        }
        ([], true) => "This one is such a circuit.".to_owned(),
        ([], false) => format!("This one has {}.{wait}", breaker.amps),
        ([one], _) => format!("On this one is also {one}.{wait}"),
        ([one, rest @ ..], _) => format!("On this one are also {one} and {} more.{wait}", rest.len()),
    };
    let words = format!("In a {room} today's rule wants {wanted}. {is}");
    Some(LoadNote { kind: LoadNoteKind::Required, load: None, words, source: source.into() })
}

/// Everything that a rule says of these loads on this breaker. Canada has rules of its own that are not known here.
pub(super) fn notes(home: &Home, breaker: &Breaker, all: &[Drawn<'_>]) -> Vec<LoadNote> {
    let mut notes = Vec::new();
    let mut note = |kind, load: Option<&LoadId>, words: String, source: &str| {
        notes.push(LoadNote { kind, load: load.cloned(), words, source: source.into() });
    };
    let rating = breaker.amps.value();
    let points: Vec<_> = all.iter().filter_map(|drawn| home.house().point(&drawn.load.point)).collect();
    let shared = all.len() > 1;
    let light_or_portable = all.iter().zip(&points).any(|(drawn, point)| point.kind == PointKind::Light || !drawn.line.fastened);
    for drawn in all {
        let each = drawn.line.amps / f64::from(drawn.line.count);
        let name = &drawn.line.name;
        let load = Some(&drawn.load.id);
        let canadian = home.edition().is_canadian();
        if !canadian && breaker.poles() == 1 && [15.0, 20.0].contains(&rating) {
            if shared && !drawn.line.fastened && each > 0.8 * rating {
                let words =
                    format!("The {name} takes {}, more than 80 % of the breaker, on a circuit that it shares.", said(each));
                note(LoadNoteKind::OverShare, load, words, shared_circuit(home.edition()));
            }
            if shared && drawn.line.fastened && drawn.line.amps > 0.5 * rating && light_or_portable {
                let words = format!(
                    "The {name} is fastened in place and takes {}, more than half of the breaker, with lights or plugs on the same circuit.",
                    said(drawn.line.amps)
                );
                note(LoadNoteKind::FastenedOverHalf, load, words, shared_circuit(home.edition()));
            }
        }
        if shared && is_heating(drawn) && !canadian {
            let words = format!("The {name} heats the house and should be alone on its circuit.");
            note(LoadNoteKind::Alone, load, words, "NEC 422.12, from memory");
        }
        if shared && is_sump_pump(drawn) {
            let words = format!("The {name} should be alone: what trips with it floods the cellar.");
            note(LoadNoteKind::Alone, load, words, LoadNote::PRACTICE);
        }
        if let Draw::Plate(plate) = drawn.load.draw {
            if let Some(largest) = plate.largest_breaker.filter(|largest| *largest < rating) {
                let words = format!("The plate of the {name} allows a breaker of {largest} A at most; this one has {rating} A.");
                note(LoadNoteKind::PlateBreaker, load, words, "its data plate; NEC 110.3(B), from memory");
            }
            let carries = breaker.wire.map(|wire| ampacity(wire, home.edition()).value());
            if let Some((least, carries)) = plate.minimum_ampacity.zip(carries).filter(|(least, carries)| carries < least) {
                let words =
                    format!("The plate of the {name} asks for a wire of {least} A at least; this one carries {carries} A.");
                note(LoadNoteKind::PlateWire, load, words, "its data plate; NEC 110.3(B), from memory");
            }
        }
    }
    if breaker.poles() > 1 && points.iter().any(|point| point.volts.value() == 120) {
        let words = "Outlets of 120 V are on this two-pole; on which of its hots is not known, so all count on one.".to_owned();
        note(LoadNoteKind::HowCounted, None, words, "arithmetic");
    }
    notes
}
