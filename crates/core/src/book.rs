//! The home book: what is known of a home, as lists for paper. By circuit, by room, the equipment with its data plates, the tests that
//! come round, what is open.

use std::collections::BTreeMap;

use crate::directory::{DeviceTest, Printed, card, tests_due};
use crate::model::{Breaker, BreakerId, Draw, LoadPlate, Point, PointId, PointKind, Protection, Volts};
use crate::panel::panel_views;
use crate::study::Study;
use crate::trace::{EndsOpen, Progress, ends_open, likely, on_breaker, verdicts};
use crate::walking::floor_of;

/// A part of the book.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BookPart {
    /// What to mind before anything is touched.
    Safety,
    /// The card of each panel.
    Cards,
    /// The plan of each floor.
    Plans,
    /// The list by circuit.
    Circuits,
    /// The list by room.
    Rooms,
    /// The equipment with its data plates.
    Equipment,
    /// Tests that come round.
    Tests,
    /// What was found.
    Findings,
    /// What is open, and what to do about it.
    Open,
    /// What the marks mean.
    Legend,
}

impl BookPart {
    /// Every part, in the order of the book.
    pub const ALL: [Self; 10] = [
        Self::Safety,
        Self::Cards,
        Self::Plans,
        Self::Circuits,
        Self::Rooms,
        Self::Equipment,
        Self::Tests,
        Self::Findings,
        Self::Open,
        Self::Legend,
    ];

    /// Its name in addresses and on the command line: `circuits`.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Safety => "safety",
            Self::Cards => "cards",
            Self::Plans => "plans",
            Self::Circuits => "circuits",
            Self::Rooms => "rooms",
            Self::Equipment => "equipment",
            Self::Tests => "tests",
            Self::Findings => "findings",
            Self::Open => "open",
            Self::Legend => "legend",
        }
    }

    /// The part of this name.
    pub fn named(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|part| part.name() == name)
    }

    /// What stands over it.
    pub const fn title(self) -> &'static str {
        match self {
            Self::Safety => "Before you touch anything",
            Self::Cards => "Cards of the panels",
            Self::Plans => "Plans",
            Self::Circuits => "By circuit",
            Self::Rooms => "By room",
            Self::Equipment => "Equipment",
            Self::Tests => "Tests that come round",
            Self::Findings => "What was found",
            Self::Open => "What is open, and what to do about it",
            Self::Legend => "What the marks mean",
        }
    }
}

/// A line of the list by circuit.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct BookCircuit {
    /// `5-7`.
    pub number: String,
    /// `20 A GFCI, 12 AWG copper`; nothing for an open space.
    pub breaker: String,
    /// What stands on the card, and below it.
    pub words: String,
    /// What is proven on it, a line each: `Kitchen, counter: receptacle`.
    pub points: Vec<String>,
}

/// The circuits of a panel.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct BookPanel {
    /// Its name.
    pub name: String,
    /// Where it is and what its main is.
    pub about: String,
    /// Its lines, those of the left column first.
    pub circuits: Vec<BookCircuit>,
}

/// A line of the list by room.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct BookPoint {
    /// `counter`.
    pub name: String,
    /// `GFCI receptacle, 240 V`.
    pub what: String,
    /// `11`, `not proven, perhaps 13`.
    pub on: String,
    /// It is proven.
    pub proven: bool,
}

/// A room with its points.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct BookRoom {
    /// Its name.
    pub name: String,
    /// The floor.
    pub floor: String,
    /// Its points, in the order of entry.
    pub points: Vec<BookPoint>,
}

/// A line of the equipment schedule. What was not read is empty.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Equipment {
    /// `Kitchen, range`.
    pub name: String,
    /// `5-7, 40 A`; `not proven`.
    pub breaker: String,
    /// `240`.
    pub volts: String,
    /// `1`, `3`.
    pub phases: String,
    /// Minimum circuit ampacity of its plate, in amperes.
    pub minimum_ampacity: String,
    /// Largest fuse or breaker of its plate, in amperes.
    pub largest_breaker: String,
    /// `8 AWG copper`.
    pub wire: String,
    /// `yes`, `no`.
    pub neutral: String,
    /// `2 hots, neutral, ground`.
    pub conductors: String,
}

/// What the book holds beside the cards and plans.
#[derive(Debug, Clone, PartialEq)]
pub struct HomeBook {
    /// The home's name.
    pub title: String,
    /// The last line that it follows from.
    pub revision: u64,
    /// How far the trace is.
    pub progress: Progress,
    /// By circuit.
    pub panels: Vec<BookPanel>,
    /// By room.
    pub rooms: Vec<BookRoom>,
    /// Equipment.
    pub equipment: Vec<Equipment>,
    /// Tests that come round.
    pub tests: Vec<DeviceTest>,
    /// What is open, with the reason and what to do about it.
    pub open: Vec<EndsOpen>,
}

/// The lists of a home.
pub fn home_book(home: &Study) -> HomeBook {
    HomeBook {
        title: home.name().unwrap_or_default().to_owned(),
        revision: home.seq(),
        progress: Progress::of(verdicts(home)),
        panels: panel_views(home).iter().filter_map(|view| panel(home, view)).collect(),
        rooms: rooms(home),
        equipment: equipment(home),
        tests: tests_due(home),
        open: ends_open(home),
    }
}

fn panel(home: &Study, view: &crate::panel::PanelView) -> Option<BookPanel> {
    let card = card(home, &view.panel.id, Printed::default())?;
    let circuits = card.cells.into_iter().map(|cell| {
        let breaker = cell.breaker.as_ref().and_then(|id| home.panels().breaker(id));
        // The second part of a breaker only says with which it goes.
        let here = breaker.filter(|_| cell.own.is_some());
        let points = here.map(|breaker| &on_breaker(home, &breaker.id).proven).into_iter().flatten();
        let points =
            points.filter_map(|id| home.house().point(id)).map(|p| format!("{}: {}", home.house().place(&p.id), what(p)));
        let words: Vec<String> = std::iter::once(cell.text).chain(cell.notes).collect();
        BookCircuit {
            number: cell.number,
            breaker: here.map(breaker_in_words).unwrap_or_default(),
            words: words.join(". "),
            points: points.collect(),
        }
    });
    Some(BookPanel { name: view.panel.name.clone(), about: card.text.subtitle, circuits: circuits.collect() })
}

/// `20 A GFCI, 12 AWG copper`.
fn breaker_in_words(breaker: &Breaker) -> String {
    let protection = match breaker.protection {
        Protection::Standard => String::new(),
        other => format!(" {}", other.words()),
    };
    let wire = breaker.wire.map(|wire| format!(", {}", wire.words())).unwrap_or_default();
    format!("{}{protection}{wire}", breaker.amps)
}

/// `GFCI receptacle, 240 V`.
fn what(point: &Point) -> String {
    let gfci = if point.details.gfci { "GFCI " } else { "" };
    let volts = if point.volts == Volts::new(120) { "" } else { ", 240 V" };
    format!("{gfci}{}{volts}", point.kind.word())
}

/// The breaker of each proven point.
fn proven(home: &Study) -> BTreeMap<&PointId, &BreakerId> {
    verdicts(home).iter().filter_map(|(point, verdict)| Some((point, verdict.proven_on()?))).collect()
}

fn rooms(home: &Study) -> Vec<BookRoom> {
    let (proven, likely) = (proven(home), likely(home));
    let of = |point: &Point| {
        let on = proven.get(&point.id).copied();
        BookPoint {
            name: point.name.clone(),
            what: what(point),
            on: match (on, likely.get(&point.id)) {
                (Some(breaker), _) => home.panels().number(breaker),
                (None, Some(perhaps)) => format!("not proven, perhaps {}", home.panels().number(&perhaps.breaker)),
                (None, None) => "not proven".into(),
            },
            proven: on.is_some(),
        }
    };
    home.house()
        .rooms()
        .map(|room| BookRoom {
            name: room.name.clone(),
            floor: floor_of(room).to_owned(),
            points: home.house().points().filter(|point| point.room == room.id).map(of).collect(),
        })
        .collect()
}

/// What the breaker alone does not tell the wire of: everything on two hots, appliances, what has a data plate.
fn equipment(home: &Study) -> Vec<Equipment> {
    let mut all = Vec::new();
    let proven = proven(home);
    for point in home.house().points() {
        let plates: Vec<(String, LoadPlate)> = home
            .loads()
            .all()
            .filter(|load| load.point == point.id)
            .filter_map(|load| match load.draw {
                Draw::Plate(plate) => Some((load.name.clone(), plate)),
                _ => None,
            })
            .collect();
        let is_equipment = point.volts != Volts::new(120)
            || point.kind == PointKind::Appliance
            || point.plate.is_some()
            || plates.iter().any(|(_, plate)| plate.minimum_ampacity.is_some() || plate.largest_breaker.is_some());
        if is_equipment {
            let breaker = proven.get(&point.id).and_then(|id| home.panels().breaker(id));
            all.push(one(home, point, breaker, &plates));
        }
    }
    all
}

fn one(home: &Study, point: &Point, breaker: Option<&Breaker>, plates: &[(String, LoadPlate)]) -> Equipment {
    let plate = |of: fn(&LoadPlate) -> Option<f64>| plates.iter().find_map(|(_, plate)| of(plate));
    let least = point.plate.map(|plate| plate.minimum_ampacity.value()).or_else(|| plate(|plate| plate.minimum_ampacity));
    let most = point.plate.map(|plate| plate.maximum_breaker.value()).or_else(|| plate(|plate| plate.largest_breaker));
    let amps = |amps: Option<f64>| amps.map(|amps| format!("{} A", (amps * 100.0).round() / 100.0)).unwrap_or_default();
    let place = home.house().place(&point.id);
    let named = plates.first().map(|(name, _)| name).filter(|name| !place.to_lowercase().contains(&name.to_lowercase()));
    // As long as its breaker is not proven, nobody knows whether it is on two legs or on three.
    let (phases, hots) = match (breaker.map(Breaker::poles), point.volts == Volts::new(120)) {
        (Some(3), _) => ("3", "3 hots"),
        (_, true) => ("1", "1 hot"),
        (Some(_), false) => ("1", "2 hots"),
        (None, false) => ("", ""),
    };
    // Only a face that was read tells whether a neutral and a ground come to it.
    let face = point.configuration;
    let conductors = match face.filter(|_| !hots.is_empty()) {
        Some(face) if !face.has_ground() => format!("{hots}, neutral, no ground"),
        Some(face) if face.has_neutral() => format!("{hots}, neutral, ground"),
        Some(_) => format!("{hots}, ground"),
        None if hots.is_empty() => String::new(),
        None => format!("{hots}, others not read"),
    };
    Equipment {
        name: named.map_or_else(|| place.clone(), |name| format!("{place}: {name}")),
        breaker: breaker.map_or_else(|| "not proven".into(), |b| format!("{}, {}", home.panels().number(&b.id), b.amps)),
        volts: plate(|plate| plate.volts).map_or_else(|| point.volts.value().to_string(), |volts| format!("{volts}")),
        phases: phases.into(),
        minimum_ampacity: amps(least),
        largest_breaker: amps(most),
        wire: breaker.and_then(|breaker| breaker.wire).map(crate::model::Wire::words).unwrap_or_default(),
        neutral: face.map(|face| if face.has_neutral() { "yes" } else { "no" }).unwrap_or_default().into(),
        conductors,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    const HOUSE: &str = "panel 12\n1 20 #12 gfci kitchen\n5-7 40/2 #8 range\n2 15 hall\nroom Kitchen\nroom Hall on loft\n\
        point Kitchen receptacle counter\npoint Kitchen receptacle range\nrange is 240 V, face 14-50\npoint Hall light ceiling\n\
        point Kitchen appliance dishwasher\nproof counter 1\nproof range 5-7";

    #[test]
    fn the_lists_say_what_is_proven_and_what_is_not() {
        let book = home_book(&written(HOUSE).home);
        let circuits: Vec<String> = book.panels[0]
            .circuits
            .iter()
            .filter(|circuit| !circuit.breaker.is_empty())
            .map(|c| format!("{} | {} | {} | {}", c.number, c.breaker, c.words, c.points.join("; ")))
            .collect();
        assert_eq!(
            circuits,
            [
                "1 | 20 A GFCI, 12 AWG copper | Kitchen: receptacle. GFCI: reset here | Kitchen, counter: receptacle",
                "5-7 | 40 A, 8 AWG copper | Kitchen: range | Kitchen, range: receptacle, 240 V",
                "2 | 15 A | Not proven (old card: hall) | ",
            ]
        );
        let rooms: Vec<String> = book
            .rooms
            .iter()
            .flat_map(|room| {
                room.points.iter().map(move |p| format!("{}, {}: {} {} | {}", room.floor, room.name, p.name, p.what, p.on))
            })
            .collect();
        assert_eq!(
            rooms[..3],
            [
                "house, Kitchen: counter receptacle | 1",
                "house, Kitchen: range receptacle, 240 V | 5-7",
                "house, Kitchen: dishwasher appliance | not proven",
            ]
        );
        assert!(rooms[3].starts_with("loft, Hall: ceiling light | not proven"), "{rooms:?}");
        assert_eq!(book.open.len(), 2);
        assert!(book.open.iter().all(|open| !open.reason.is_empty() && !open.advice.is_empty()));
    }

    #[test]
    fn equipment_says_only_what_was_read() {
        let plate = r#"fact {"kind":"load_placed","load":"w","point":"dishwasher","name":"dishwasher","draw":{"from":"plate","minimum_ampacity":13.75,"largest_breaker":20}}"#;
        let book = home_book(&written(&format!("{HOUSE}\n{plate}")).home);
        let said: Vec<String> = book
            .equipment
            .iter()
            .map(|e| {
                [
                    &e.name,
                    &e.breaker,
                    &e.volts,
                    &e.phases,
                    &e.minimum_ampacity,
                    &e.largest_breaker,
                    &e.wire,
                    &e.neutral,
                    &e.conductors,
                ]
                .map(String::as_str)
                .join(" | ")
            })
            .collect();
        assert_eq!(
            said,
            [
                "Kitchen, range | 5-7, 40 A | 240 | 1 |  |  | 8 AWG copper | yes | 2 hots, neutral, ground",
                "Kitchen, dishwasher | not proven | 120 | 1 | 13.75 A | 20 A |  |  | 1 hot, others not read",
            ]
        );
    }
}
