//! The order of floors: as said, else as their names tell.

use std::collections::BTreeMap;

use crate::logbook::Home;
use crate::model::Room;

/// The name for rooms that say no floor.
pub(crate) const NO_FLOOR: &str = "house";

/// The floor a room is on.
pub(crate) fn floor_of(room: &Room) -> &str {
    room.floor.as_deref().unwrap_or(NO_FLOOR)
}

/// Every floor that a room names, from the lowest up, with its level.
pub(crate) fn floors(home: &Home) -> Vec<(String, i8)> {
    let mut floors: BTreeMap<&str, (i8, usize)> = BTreeMap::new();
    for room in home.house().rooms() {
        let name = floor_of(room);
        let order = floors.len();
        floors.entry(name).or_insert_with(|| (level(home, name), order));
    }
    let mut sorted: Vec<(&str, (i8, usize))> = floors.into_iter().collect();
    sorted.sort_by_key(|(_, at)| *at);
    sorted.into_iter().map(|(name, (level, _))| (name.to_owned(), level)).collect()
}

/// The level of a floor: 0 is the ground.
pub(crate) fn level(home: &Home, floor: &str) -> i8 {
    home.plan().levels.get(floor).copied().unwrap_or_else(|| guessed(floor))
}

fn guessed(name: &str) -> i8 {
    let name = name.to_lowercase();
    let any = |words: &[&str]| words.iter().any(|word| name.contains(word));
    if any(&["cellar", "basement", "crawl", "below"]) {
        -1
    } else if any(&["attic", "third"]) {
        2
    } else if any(&["loft", "upper", "upstairs", "second", "top"]) {
        1
    } else {
        0
    }
}
