//! What a point is called on a card: its own name, or its kind, to be counted.

use crate::model::{Appliance, Draw, LoadDoes, Point, PointKind, Room, appliances};
use crate::study::Study;

/// Words that say where in a room something is, and nothing of what it is.
const WHERE: &[&str] = &[
    "north", "south", "east", "west", "left", "right", "middle", "center", "front", "rear", "back", "upper", "lower", "top",
    "bottom", "inner", "outer", "near", "far", "end", "side", "corner", "wall", "walls", "ceiling", "floor", "window", "windows",
    "counter", "island", "overhead", "main", "room", "first", "second", "third", "fourth", "other", "extra", "new", "old",
    "single", "double", "duplex", "a", "an", "the", "and", "no", "number",
];

/// Words with which a place begins: `by the mirror`.
const BESIDE: &[&str] =
    &["by", "near", "behind", "under", "over", "above", "below", "beside", "next", "at", "in", "on", "for", "between", "outside"];

/// Words for a kind of point.
const KINDS: &[&str] = &[
    "receptacle",
    "receptacles",
    "outlet",
    "outlets",
    "plug",
    "plugs",
    "socket",
    "light",
    "lights",
    "lamp",
    "lamps",
    "fixture",
    "switch",
];

/// What a receptacle is named after: machines that stay where they are.
const MACHINES: &[&str] = &[
    "boiler",
    "charger",
    "compactor",
    "compressor",
    "cooktop",
    "dehumidifier",
    "dishwasher",
    "disposal",
    "disposer",
    "dryer",
    "fan",
    "freezer",
    "fridge",
    "furnace",
    "heater",
    "hood",
    "humidifier",
    "kiln",
    "maker",
    "microwave",
    "modem",
    "opener",
    "oven",
    "pump",
    "range",
    "recorder",
    "refrigerator",
    "router",
    "sauna",
    "saw",
    "softener",
    "stove",
    "tub",
    "washer",
    "welder",
];

/// Machines of the library that stay where they are, though they have a plug.
const STAY: &[&str] = &[
    "fridge",
    "fridge_old",
    "freezer",
    "wine_cooler",
    "ice_maker",
    "microwave",
    "microwave_hood",
    "hood",
    "range_240",
    "oven",
    "bread_oven",
    "cooktop",
    "induction",
    "disposer",
    "dishwasher_heat",
    "dishwasher_wash",
    "compactor",
    "washer",
    "dryer",
    "dryer_hp",
    "dryer_gas",
    "sump_pump",
    "well_pump",
    "pool_pump",
    "recirc",
    "dehumidifier",
    "door_opener",
    "ev_12",
    "ev_32",
    "ev_48",
    "kiln",
    "table_saw",
    "welder",
    "sauna",
    "hot_tub",
    "furnace",
    "boiler",
    "central_vac",
    "ac_window_s",
    "ac_window_l",
    "minisplit",
    "server",
    "block_heater",
    "heat_tape",
];

/// Other places than rooms that a light is named after.
const PLACES: &[&str] = &[
    "attic", "basement", "cellar", "closet", "deck", "drive", "driveway", "entry", "garage", "garden", "gate", "hall", "landing",
    "pantry", "path", "patio", "porch", "shed", "stair", "stairs", "walk", "yard",
];

/// A point in the words of a card.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Called {
    /// What it is called, where it has a name of its own.
    pub(crate) name: Option<String>,
    /// Named even where several of its kind are in the room.
    pub(crate) always: bool,
    /// What it takes, in watts, as far as that is known: the biggest stands first.
    pub(crate) watts: f64,
    /// What it mostly does with the current, as far as that is known.
    pub(crate) does: Option<LoadDoes>,
}

/// `Dishwasher` as it stands within a sentence; `TV` stays.
pub(crate) fn lower_first(name: &str) -> String {
    let mut letters = name.chars();
    match (letters.next(), letters.next()) {
        (Some(first), second) if second.is_none_or(|letter| !letter.is_uppercase()) => {
            first.to_lowercase().chain(name.chars().skip(1)).collect()
        }
        _ => name.to_owned(),
    }
}

fn words(name: &str) -> Vec<String> {
    name.to_lowercase()
        .split(|c: char| !c.is_alphanumeric() && c != '\'' && c != '’')
        .filter(|w| !w.is_empty())
        .map(str::to_owned)
        .collect()
}

/// What a point is called.
pub(crate) fn called(home: &Study, point: &Point) -> Called {
    let stays: Vec<_> = home.loads().all().filter(|load| load.point == point.id).collect();
    let watts = stays.iter().map(|load| load_watts(&load.draw, load.like(), point) * f64::from(load.count)).sum::<f64>();
    let named: Vec<String> = stays
        .iter()
        .filter(|load| load.appliance.as_deref().is_some_and(|id| STAY.contains(&id)) || load.fastened == Some(true))
        .map(|load| lower_first(&load.name))
        .collect();
    let name = point.name.trim();
    let (own, always) = match point.kind {
        PointKind::Appliance => (Some(lower_first(without_where(name))), true),
        PointKind::Receptacle if !named.is_empty() => (Some(named.join(", ")), true),
        PointKind::Receptacle => (machine(name), true),
        PointKind::Light => light(home, point),
        PointKind::Fan | PointKind::Alarm => (kind_by_name(point), false),
        _ => (None, false),
    };
    let by_name = || own.as_deref().and_then(like).map_or(0.0, |appliance| appliance.watts);
    let plate = || point.plate.as_ref().map_or(0.0, |plate| plate.minimum_ampacity.value() * f64::from(point.volts.value()));
    let watts = if watts > 0.0 { watts } else { by_name().max(plate()) };
    // What has 240 V comes before what has 120 V where nothing else is known.
    let watts = if watts == 0.0 && point.volts.value() > 150 { 1.0 } else { watts };
    let biggest =
        stays.iter().max_by(|a, b| load_watts(&a.draw, a.like(), point).total_cmp(&load_watts(&b.draw, b.like(), point)));
    let by_load = || biggest.and_then(|load| load.like()).map(|appliance| appliance.does);
    let by_name = || own.as_deref().and_then(|name| like(name).map(|appliance| appliance.does).or_else(|| does_by_words(name)));
    let does = match point.kind {
        PointKind::Light => Some(LoadDoes::Light),
        PointKind::Fan => Some(LoadDoes::Motor),
        _ => by_load().or_else(by_name),
    };
    Called { name: own.filter(|name| !name.is_empty()), always, watts, does }
}

/// `heater` of “heater, left”: what stands behind a comma only says where it is.
fn without_where(name: &str) -> &str {
    match name.split_once(',') {
        Some((what, rest)) if words(rest).iter().all(|word| WHERE.contains(&word.as_str()) || is_number(word)) => what.trim(),
        _ => name,
    }
}

fn is_number(word: &str) -> bool {
    word.chars().all(|c| c.is_ascii_digit())
}

fn load_watts(draw: &Draw, like: Option<&Appliance>, point: &Point) -> f64 {
    match draw {
        Draw::Plate(plate) => {
            let volts = plate.volts.unwrap_or_else(|| f64::from(point.volts.value()));
            plate.watts.unwrap_or_else(|| plate.amps.unwrap_or(0.0) * volts)
        }
        _ => like.map_or(0.0, |appliance| appliance.watts),
    }
}

/// The appliance of the library that bears this name, or all of its words.
fn like(name: &str) -> Option<&'static Appliance> {
    let name = words(name);
    let all = || appliances().iter();
    let machine = name.last().is_some_and(|last| MACHINES.contains(&last.as_str()));
    all().find(|one| words(one.name) == name).or_else(|| {
        let holds = |one: &&Appliance| name.iter().all(|word| words(one.name).contains(word));
        all().find(holds).filter(|_| machine)
    })
}

/// What a machine does that is not in the library, by a word of its name.
fn does_by_words(name: &str) -> Option<LoadDoes> {
    const BY_WORD: &[(LoadDoes, &[&str])] = &[
        (LoadDoes::Heat, &["heat", "heater", "heating", "kiln", "oven", "stove", "radiator", "griddle", "warmer"]),
        (LoadDoes::Cool, &["cooler", "cooling", "freezer", "fridge", "icebox", "conditioner", "conditioning", "ac"]),
        (LoadDoes::Light, &["light", "lights", "lamp", "lamps", "lighting"]),
        (LoadDoes::Motor, &["pump", "fan", "motor", "opener", "blower", "saw", "compressor", "lift", "hoist", "mill"]),
    ];
    let all = words(name);
    BY_WORD.iter().find(|(_, known)| all.iter().any(|word| known.contains(&word.as_str()))).map(|(does, _)| *does)
}

/// `washer` of a receptacle named “Washer outlet”; nothing of one named “by the washer”.
fn machine(name: &str) -> Option<String> {
    let all = words(name);
    let rest: Vec<&String> = all.iter().filter(|word| !KINDS.contains(&word.as_str())).collect();
    let begins = all.first().is_some_and(|word| BESIDE.contains(&word.as_str()));
    let is_one = rest.last().is_some_and(|word| MACHINES.contains(&word.as_str()));
    (!begins && is_one && !name.contains(',')).then(|| rest.into_iter().cloned().collect::<Vec<_>>().join(" "))
}

/// `porch light`, `footlights`; nothing of a “ceiling light”. One that is named after another place is always named.
fn light(home: &Study, point: &Point) -> (Option<String>, bool) {
    let all = words(&point.name);
    let of_kind =
        |word: &str| ["light", "lights", "lamp", "lamps", "lantern", "sconce", "chandelier"].iter().any(|k| word.ends_with(k));
    let says_more = |word: &&String| {
        let word = word.as_str();
        !KINDS.contains(&word) && !WHERE.contains(&word) && !is_number(word)
    };
    let begins = all.first().is_some_and(|word| BESIDE.contains(&word.as_str()));
    let is_one = all.last().is_some_and(|word| of_kind(word)) && all.iter().any(|word| says_more(&word));
    if begins || !is_one || point.name.contains(',') {
        return (None, false);
    }
    let here = home.house().room(&point.room);
    let of_another = |room: &Room| {
        let own: Vec<String> = here.map_or_else(Vec::new, |here| words(&here.name));
        Some(&room.id) != here.map(|here| &here.id)
            && words(&room.name).iter().any(|word| all.contains(word) && !own.contains(word) && !WHERE.contains(&word.as_str()))
    };
    let own = here.map_or_else(Vec::new, |here| words(&here.name));
    let place = all.iter().any(|word| PLACES.contains(&word.as_str()) && !own.contains(word));
    (Some(lower_first(point.name.trim())), place || home.house().rooms().any(of_another))
}

/// `ceiling fan`, `smoke alarm`: a name that ends in the word of its kind.
fn kind_by_name(point: &Point) -> Option<String> {
    let all = words(&point.name);
    let kind = point.kind.word();
    (all.len() > 1 && all.last().is_some_and(|word| word == kind)).then(|| lower_first(point.name.trim()))
}
