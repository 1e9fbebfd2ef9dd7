//! What a circuit has in each room, and rooms joined to places.

use indexmap::IndexMap;

use super::called::{Called, called, lower_first};
use crate::model::{Point, PointKind, Room, RoomId, listed};
use crate::study::Study;

/// How much is said of where things are.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Told {
    /// The room.
    Room,
    /// Where in the room, too.
    WhereInIt,
}

/// What is in a room.
struct Here<'a> {
    room: &'a Room,
    name: String,
    /// By name, the biggest first.
    named: Vec<String>,
    /// The others, by kind.
    counted: Vec<(PointKind, Vec<String>)>,
    watts: f64,
}

/// One kind of thing, several of them.
const fn several(kind: PointKind) -> &'static str {
    match kind {
        PointKind::Receptacle => "receptacles",
        PointKind::Light => "lights",
        PointKind::Fan => "fans",
        PointKind::Alarm => "alarms",
        PointKind::Switch => "switches",
        PointKind::JunctionBox => "junction boxes",
        PointKind::CappedCable => "capped cables",
        PointKind::Appliance => "appliances",
    }
}

/// In this order; the last three only where nothing else is known.
const ORDER: [PointKind; 7] = [
    PointKind::Receptacle,
    PointKind::Light,
    PointKind::Fan,
    PointKind::Alarm,
    PointKind::Switch,
    PointKind::JunctionBox,
    PointKind::CappedCable,
];

impl<'a> Here<'a> {
    fn of(home: &Study, room: &'a Room, points: &[&Point], told: Told) -> Self {
        let all: Vec<(&Point, Called)> = points.iter().map(|point| (*point, called(home, point))).collect();
        let mut named: Vec<(f64, String)> = Vec::new();
        let mut counted: Vec<(PointKind, Vec<String>)> = Vec::new();
        for (point, known) in &all {
            match &known.name {
                Some(name) if known.always => named.push((known.watts, name.clone())),
                name => {
                    let entry = match counted.iter().position(|(kind, _)| *kind == point.kind) {
                        Some(at) => at,
                        None => {
                            counted.push((point.kind, Vec::new()));
                            counted.len() - 1
                        }
                    };
                    counted[entry].1.push(name.clone().unwrap_or_default());
                }
            }
        }
        named.sort_by(|a, b| b.0.total_cmp(&a.0));
        let works = |kind: &PointKind| !matches!(kind, PointKind::Switch | PointKind::JunctionBox | PointKind::CappedCable);
        if !named.is_empty() || counted.iter().any(|(kind, _)| works(kind)) {
            counted.retain(|(kind, _)| works(kind));
        }
        counted.sort_by_key(|(kind, _)| ORDER.iter().position(|known| known == kind));
        let watts = all.iter().map(|(_, known)| known.watts).fold(0.0, f64::max);
        let mut name = room.name.trim().to_owned();
        if told == Told::WhereInIt {
            let mut places: Vec<String> = all
                .iter()
                .filter(|(point, known)| known.name.is_none() && works(&point.kind) && !point.name.trim().is_empty())
                .map(|(point, _)| point.name.trim().replace(',', ""))
                .collect();
            places.dedup();
            if !places.is_empty() && places.len() <= 3 {
                name = format!("{name}, {}", listed(&places));
            }
        }
        Self { room, name, named: counted_up(named.into_iter().map(|(_, name)| name).collect()), counted, watts }
    }

    /// The kind and count of one that has nothing else. A name with a comma is not joined with another.
    fn single_kind(&self) -> Option<(PointKind, usize)> {
        if self.name.contains(',') {
            return None;
        }
        match (self.named.as_slice(), self.counted.as_slice()) {
            ([], [(kind, names)]) if names.len() != 1 || names[0].is_empty() => Some((*kind, names.len())),
            _ => None,
        }
    }

    fn things(&self) -> String {
        let mut words = self.named.clone();
        for (kind, names) in &self.counted {
            words.push(match names.as_slice() {
                [name] if !name.is_empty() => name.clone(),
                [_] => kind.word().to_owned(),
                all => format!("{} {}", all.len(), several(*kind)),
            });
        }
        words.join(", ")
    }
}

/// The same name several times is counted: `2 heaters`.
fn counted_up(names: Vec<String>) -> Vec<String> {
    let mut counts: IndexMap<String, usize> = IndexMap::new();
    for name in names {
        *counts.entry(name).or_default() += 1;
    }
    let said = |(name, count): (String, usize)| match count {
        1 => name,
        count if name.ends_with('s') => format!("{count} × {name}"),
        count => format!("{count} {name}s"),
    };
    counts.into_iter().map(said).collect()
}

/// The words of a circuit that feeds these points.
pub(super) fn words(home: &Study, points: &[&Point], told: Told) -> String {
    let mut by_room: IndexMap<&RoomId, Vec<&Point>> = IndexMap::new();
    for room in home.house().rooms() {
        let here: Vec<&Point> = points.iter().copied().filter(|point| point.room == room.id).collect();
        if !here.is_empty() {
            by_room.insert(&room.id, here);
        }
    }
    let mut rooms: Vec<Here<'_>> =
        by_room.iter().filter_map(|(id, points)| Some(Here::of(home, home.house().room(id)?, points, told))).collect();
    rooms.sort_by(|a, b| b.watts.total_cmp(&a.watts));
    let mut said: Vec<String> = Vec::new();
    let mut done: Vec<&RoomId> = Vec::new();
    for room in &rooms {
        if done.contains(&&room.room.id) {
            continue;
        }
        let alike: Vec<&Here<'_>> = match room.single_kind() {
            Some((kind, _)) => rooms.iter().filter(|other| other.single_kind().is_some_and(|(k, _)| k == kind)).collect(),
            None => vec![room],
        };
        done.extend(alike.iter().map(|other| &other.room.id));
        let first = said.is_empty();
        let names: Vec<String> = alike
            .iter()
            .enumerate()
            .map(|(n, other)| if first && n == 0 { other.name.clone() } else { lower_first(&other.name) })
            .collect();
        said.push(format!("{}: {}", names.join(", "), together(&alike)));
    }
    said.join("; ")
}

/// What is in rooms of one kind of thing each, or in one room.
fn together(rooms: &[&Here<'_>]) -> String {
    let counts: Vec<usize> = rooms.iter().filter_map(|room| room.single_kind()).map(|(_, count)| count).collect();
    let (Some((kind, count)), true) = (rooms[0].single_kind(), rooms.len() > 1) else { return rooms[0].things() };
    let alike = counts.iter().all(|other| *other == count);
    match (alike, count) {
        (true, 1) => format!("1 {} each", kind.word()),
        (true, count) => format!("{count} {} each", several(kind)),
        (false, _) => format!("{} {}", counts.iter().sum::<usize>(), several(kind)),
    }
}
