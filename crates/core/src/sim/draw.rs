//! A made-up house drawn from a recipe: what anybody who walks in can see, as facts, and the wiring behind the walls.
//!
//! The same recipe draws the same house, so nothing but the recipe is kept. The share of wrong labels, strays and quirks is
//! invented for practice; no source.

use std::collections::{BTreeMap, BTreeSet};

use rand::Rng;
use rand::seq::SliceRandom;
use rand_pcg::Pcg64Mcg;

use super::rooms::{Ground, Kind, ROOMS, Template};
use crate::logbook::{BreakerKept, BreakerPlaced, Fact, HomeDescribed, LabelClaimed, PanelDescribed, PointPlaced, PracticeHouse};
use crate::model::{
    Amps, BreakerId, CardSize, Columns, Kept, Numbering, PanelDetails, PanelId, PointDetails, PointId, PointKind, Service, Slot,
    Volts,
};
use crate::model::{Lesson, Level, Recipe};
use crate::search::{Feed, Wiring};

/// A house.
#[derive(Debug, Clone, PartialEq)]
pub struct MadeHouse {
    /// What anybody can see and read: the home, its panels with the old card, rooms, points.
    pub facts: Vec<Fact>,
    /// What nobody can.
    pub wiring: Wiring,
    /// Points that are there and were forgotten on the list.
    pub unlisted: Vec<PointPlaced>,
    /// Circuits that share a neutral.
    pub shared: Vec<[BreakerId; 2]>,
}

/// Shares of what goes wrong.
struct Odds {
    right_label: f64,
    stray: f64,
    burnt_out: f64,
    switched_off: f64,
    beside: f64,
}

const fn odds(level: Level) -> Odds {
    match level {
        Level::Plain => Odds { right_label: 1.0, stray: 0.0, burnt_out: 0.0, switched_off: 0.0, beside: 0.0 },
        Level::Usual => Odds { right_label: 0.75, stray: 0.06, burnt_out: 0.03, switched_off: 0.0, beside: 0.05 },
        Level::Tricky => Odds { right_label: 0.55, stray: 0.12, burnt_out: 0.04, switched_off: 0.05, beside: 0.12 },
    }
}

/// A circuit while the house is drawn.
struct Circuit {
    amps: f64,
    poles: u8,
    label: String,
    points: Vec<usize>,
    in_sub: bool,
    must_stay: bool,
    /// The circuit that shares its neutral: they sit one below the other.
    pair: Option<usize>,
}

impl Circuit {
    /// One pole, in the main panel, without a pair, free to be switched.
    fn new(amps: f64, label: impl Into<String>, points: Vec<usize>) -> Self {
        Self { amps, poles: 1, label: label.into(), points, in_sub: false, must_stay: false, pair: None }
    }
}

/// A point while the house is drawn.
struct Spot {
    placed: PointPlaced,
    kind: Kind,
    room: usize,
    feed: Feed,
    circuit: usize,
}

/// Draws a house.
pub fn draw(recipe: Recipe) -> MadeHouse {
    let level = match recipe.level {
        Level::Plain => 0,
        Level::Usual => 1,
        Level::Tricky => 2,
    };
    let seed = u128::from(recipe.seed) << 32 | u128::from(recipe.points) << 4 | level;
    let mut rng = Pcg64Mcg::new(seed << 1 | 1);
    let odds = odds(recipe.level);
    let rooms = pick_rooms(recipe.points.into(), &mut rng);
    let mut spots = spots(&rooms, usize::from(recipe.points), recipe.level);
    let mut circuits = wire(&rooms, &mut spots, recipe, &mut rng);
    strays(&mut spots, &mut circuits, &odds, &mut rng);
    quirks(&mut spots, &odds, &mut rng);
    let labels: Vec<String> = circuits.iter().map(|c| c.label.clone()).collect();
    for circuit in &mut circuits {
        if circuit.label.is_empty() || rng.random::<f64>() < odds.right_label || circuit.must_stay {
            continue;
        }
        circuit.label = match rng.random_range(0..4) {
            0 => String::new(),
            1 => "general".into(),
            2 if circuit.poles == 1 => "lights".into(),
            _ => labels[rng.random_range(0..labels.len())].clone(),
        };
    }
    let panels = seat(&circuits, &mut rng);
    for spot in &mut spots {
        super::mishaps::tell(recipe, &mut spot.placed);
    }
    let unlisted = forget(&mut spots, recipe.level, &mut rng);
    write(recipe, &rooms, &spots, &circuits, panels, unlisted, &odds, &mut rng)
}

fn pick_rooms(points: usize, rng: &mut Pcg64Mcg) -> Vec<&'static Template> {
    let mut order: Vec<&Template> = ROOMS.iter().collect();
    // Kitchen, hall and bath are always there; the rest comes as it likes.
    order[3..].shuffle(rng);
    let mut rooms = Vec::new();
    let mut count = 0;
    for room in order {
        if count >= points && rooms.len() >= 3 {
            break;
        }
        count += room.points.len();
        rooms.push(room);
    }
    rooms
}

fn slug(text: &str) -> String {
    text.to_lowercase().replace(|c: char| !c.is_ascii_alphanumeric(), "-")
}

fn id<T: std::str::FromStr>(text: &str) -> T {
    text.parse().unwrap_or_else(|_| panic!("“{text}” is no id; this is a bug"))
}

fn spots(rooms: &[&'static Template], most: usize, level: Level) -> Vec<Spot> {
    let mut spots = Vec::new();
    // One point of each room in turn, so that the last room is no emptier than the first.
    for turn in 0..rooms.iter().map(|r| r.points.len()).max().unwrap_or(0) {
        for (room, template) in rooms.iter().enumerate() {
            let Some((name, kind)) = template.points.get(turn) else { continue };
            if spots.len() == most {
                break;
            }
            let high = *kind == Kind::High;
            let point: PointId = id(&slug(&format!("{} {name}", template.name)));
            let details = PointDetails {
                gfci: *kind == Kind::Gfci && level != Level::Plain,
                outdoor: template.ground == Ground::Outside,
                dark_minutes: (*kind == Kind::Cold && level != Level::Plain).then_some(45),
                ..PointDetails::default()
            };
            spots.push(Spot {
                placed: PointPlaced {
                    point,
                    room: id(&slug(template.name)),
                    point_kind: match kind {
                        Kind::Receptacle | Kind::Gfci => PointKind::Receptacle,
                        Kind::Light => PointKind::Light,
                        Kind::Alarm => PointKind::Alarm,
                        Kind::Appliance | Kind::High | Kind::Cold | Kind::MustStay => PointKind::Appliance,
                    },
                    name: (*name).to_owned(),
                    volts: Volts::new(if high { 240 } else { 120 }),
                    configuration: None,
                    only_one: false,
                    plate: None,
                    details,
                },
                kind: *kind,
                room,
                feed: Feed { draws: kind.draws(), ..Feed::default() },
                circuit: usize::MAX,
            });
        }
    }
    spots.sort_by_key(|spot| spot.room);
    spots
}

/// Circuits as an electrician would run them: big and special things alone, receptacles by room or two, lights by two or
/// three rooms.
fn wire(rooms: &[&'static Template], spots: &mut [Spot], recipe: Recipe, rng: &mut Pcg64Mcg) -> Vec<Circuit> {
    let mut circuits: Vec<Circuit> = Vec::new();
    let tricky = recipe.level == Level::Tricky;
    // The last room that is no kitchen, hall or bath hangs on a panel of its own.
    let sub_room = (tricky && rooms.len() > 4).then(|| rooms.len() - 1);
    let room_points = |spots: &[Spot], room: usize, want: fn(Kind) -> bool| -> Vec<usize> {
        (0..spots.len()).filter(|p| spots[*p].room == room && want(spots[*p].kind)).collect()
    };
    for (p, spot) in spots.iter().enumerate() {
        let in_sub = Some(spot.room) == sub_room;
        match spot.kind {
            Kind::High => {
                let amps = if rng.random() { 30.0 } else { 40.0 };
                circuits.push(Circuit { poles: 2, in_sub, ..Circuit::new(amps, &spot.placed.name, vec![p]) });
            }
            Kind::Appliance | Kind::Cold if rng.random::<f64>() < 0.7 => {
                circuits.push(Circuit { in_sub, ..Circuit::new(20.0, &spot.placed.name, vec![p]) });
            }
            Kind::MustStay => {
                let must_stay = recipe.level != Level::Plain;
                circuits.push(Circuit { in_sub, must_stay, ..Circuit::new(15.0, &spot.placed.name, vec![p]) });
            }
            _ => {}
        }
    }
    let taken: BTreeSet<usize> = circuits.iter().flat_map(|c| c.points.iter().copied()).collect();
    let mut open: Option<(usize, usize)> = None;
    for (room, template) in rooms.iter().enumerate() {
        let in_sub = Some(room) == sub_room;
        let plugs: Vec<usize> =
            room_points(spots, room, |k| !matches!(k, Kind::Light | Kind::Alarm | Kind::High | Kind::MustStay))
                .into_iter()
                .filter(|p| !taken.contains(p))
                .collect();
        if plugs.is_empty() {
            continue;
        }
        let label = format!("{} rec", template.name.to_lowercase());
        if template.name == "Kitchen" && plugs.len() > 3 {
            // Two circuits over the counter; where the neutral is shared, they sit one below the other.
            let (a, b): (Vec<usize>, Vec<usize>) = plugs.iter().partition(|p| **p % 2 == 0);
            let first = circuits.len();
            for points in [a, b] {
                circuits.push(Circuit { in_sub, ..Circuit::new(20.0, &label, points) });
            }
            if recipe.level != Level::Plain {
                circuits[first].pair = Some(first + 1);
            }
            continue;
        }
        match open {
            Some((circuit, count))
                if count + plugs.len() <= 9 && circuits[circuit].in_sub == in_sub && rng.random::<f64>() < 0.5 =>
            {
                circuits[circuit].points.extend(&plugs);
                open = None;
            }
            _ => {
                let count = plugs.len();
                let amps = if rng.random::<f64>() < 0.5 { 20.0 } else { 15.0 };
                circuits.push(Circuit { in_sub, ..Circuit::new(amps, label, plugs) });
                open = Some((circuits.len() - 1, count));
            }
        }
    }
    let mut lights: Option<(usize, usize, usize)> = None;
    for (room, template) in rooms.iter().enumerate() {
        let in_sub = Some(room) == sub_room;
        let lamps = room_points(spots, room, |k| matches!(k, Kind::Light | Kind::Alarm));
        if lamps.is_empty() {
            continue;
        }
        match &mut lights {
            Some((circuit, rooms_on, most)) if *rooms_on < *most && circuits[*circuit].in_sub == in_sub => {
                circuits[*circuit].points.extend(&lamps);
                *rooms_on += 1;
            }
            _ => {
                let label = format!("{} lights", template.name.to_lowercase());
                circuits.push(Circuit { in_sub, ..Circuit::new(15.0, label, lamps) });
                lights = Some((circuits.len() - 1, 1, rng.random_range(2..4)));
            }
        }
    }
    if tricky {
        // One that leads to nothing that anybody finds.
        circuits.push(Circuit::new(15.0, "bell", Vec::new()));
    }
    for (n, circuit) in circuits.iter().enumerate() {
        for p in &circuit.points {
            spots[*p].circuit = n;
        }
    }
    circuits
}

/// Points that were added later, from whatever was near.
fn strays(spots: &mut [Spot], circuits: &mut [Circuit], odds: &Odds, rng: &mut Pcg64Mcg) {
    let shared: Vec<usize> = (0..circuits.len()).filter(|c| circuits[*c].points.len() > 1).collect();
    for (p, spot) in spots.iter_mut().enumerate() {
        let moves = !matches!(spot.kind, Kind::High | Kind::MustStay | Kind::Gfci);
        if moves && rng.random::<f64>() < odds.stray && !shared.is_empty() {
            let to = shared[rng.random_range(0..shared.len())];
            circuits[spot.circuit].points.retain(|other| *other != p);
            circuits[to].points.push(p);
            spot.circuit = to;
        }
    }
}

fn quirks(spots: &mut [Spot], odds: &Odds, rng: &mut Pcg64Mcg) {
    // What hangs behind a GFCI: receptacles of its circuit, after it.
    let devices: Vec<(usize, PointId)> =
        spots.iter().filter(|s| s.placed.details.gfci).map(|s| (s.circuit, s.placed.point.clone())).collect();
    for (circuit, device) in devices {
        for spot in spots.iter_mut().filter(|s| s.circuit == circuit) {
            let itself = spot.placed.point == device;
            if itself || (spot.kind == Kind::Receptacle && rng.random::<f64>() < 0.5) {
                spot.feed.behind.get_or_insert_with(|| device.clone());
            }
        }
    }
    for spot in spots.iter_mut().filter(|s| s.kind == Kind::Light) {
        spot.feed.burnt_out = rng.random::<f64>() < odds.burnt_out;
        spot.feed.switched_off = !spot.feed.burnt_out && rng.random::<f64>() < odds.switched_off;
    }
}

/// Where each circuit's breaker sits: the panel, its place.
struct Seats {
    at: Vec<(bool, Vec<Slot>)>,
    main_spaces: u8,
    sub: Option<(u8, Vec<Slot>)>,
}

fn seat(circuits: &[Circuit], rng: &mut Pcg64Mcg) -> Seats {
    let poles = |sub: bool| circuits.iter().filter(|c| c.in_sub == sub).map(|c| usize::from(c.poles)).sum::<usize>();
    let has_sub = poles(true) > 0;
    let size = |needs: usize| {
        [4u8, 8, 12, 16, 20, 24, 30, 32, 40, 42, 54, 60, 84].into_iter().find(|s| usize::from(*s) >= needs).unwrap_or(84)
    };
    let main_spaces = size(poles(false) + 2 + if has_sub { 2 } else { 0 });
    let sub_spaces = size(poles(true) + 2);
    let mut at = vec![(false, Vec::new()); circuits.len()];
    let mut feeder = Vec::new();
    for sub in [false, true] {
        let spaces = if sub { sub_spaces } else { main_spaces };
        let mut free: Vec<bool> = vec![true; usize::from(spaces) + 1];
        // Two by two below each other first.
        let mut twos: Vec<Option<usize>> = (0..circuits.len())
            .filter(|c| circuits[*c].in_sub == sub && (circuits[*c].poles == 2 || circuits[*c].pair.is_some()))
            .map(Some)
            .collect();
        if has_sub && !sub {
            twos.push(None);
        }
        twos.shuffle(rng);
        for two in twos {
            let starts: Vec<u8> =
                (1..=spaces.saturating_sub(2)).filter(|s| free[usize::from(*s)] && free[usize::from(*s) + 2]).collect();
            let from = starts[rng.random_range(0..starts.len().min(6))];
            free[usize::from(from)] = false;
            free[usize::from(from) + 2] = false;
            let both = vec![Slot::whole(from), Slot::whole(from + 2)];
            match two {
                None => feeder = both,
                Some(c) => match circuits[c].pair {
                    Some(other) => {
                        at[c] = (sub, vec![both[0]]);
                        at[other] = (sub, vec![both[1]]);
                    }
                    None => at[c] = (sub, both),
                },
            }
        }
        let mut ones: Vec<usize> = (0..circuits.len()).filter(|c| circuits[*c].in_sub == sub && at[*c].1.is_empty()).collect();
        ones.shuffle(rng);
        let mut left = (1..=spaces).filter(|s| free[usize::from(*s)]);
        for one in ones {
            if let Some(space) = left.next() {
                at[one] = (sub, vec![Slot::whole(space)]);
            }
        }
    }
    Seats { at, main_spaces, sub: has_sub.then_some((sub_spaces, feeder)) }
}

/// Points that the list has not got.
fn forget(spots: &mut Vec<Spot>, level: Level, rng: &mut Pcg64Mcg) -> Vec<Spot> {
    if level != Level::Tricky {
        return Vec::new();
    }
    let mut forgotten = Vec::new();
    for _ in 0..1 + spots.len() / 50 {
        let may: Vec<usize> = (0..spots.len()).filter(|p| spots[*p].kind == Kind::Receptacle).collect();
        if !may.is_empty() {
            forgotten.push(spots.remove(may[rng.random_range(0..may.len())]));
        }
    }
    forgotten
}

#[allow(clippy::too_many_arguments)]
fn write(
    recipe: Recipe,
    rooms: &[&'static Template],
    spots: &[Spot],
    circuits: &[Circuit],
    seats: Seats,
    forgotten: Vec<Spot>,
    odds: &Odds,
    rng: &mut Pcg64Mcg,
) -> MadeHouse {
    let breaker_id = |c: usize| -> BreakerId { id(&format!("b{}", c + 1)) };
    let panel = |name: &str, place: &str, spaces: u8, fed_by: Option<BreakerId>| {
        Fact::PanelDescribed(PanelDescribed {
            panel: id(&slug(name)),
            name: name.to_owned(),
            place: place.to_owned(),
            spaces,
            columns: Columns::Two,
            numbering: Numbering::OddEven,
            service: Service::SplitPhase,
            main: None,
            card: CardSize { width_mm: 140.0, height_mm: 220.0 },
            details: PanelDetails { fed_by, ..PanelDetails::default() },
        })
    };
    let mut facts = vec![
        Fact::HomeDescribed(HomeDescribed { name: name_of(recipe) }),
        Fact::PracticeHouse(PracticeHouse { recipe }),
        panel("Main panel", "hall", seats.main_spaces, None),
    ];
    let breaker = |breaker: BreakerId, panel: &str, at: &[Slot], amps: f64| {
        Fact::BreakerPlaced(BreakerPlaced {
            breaker,
            panel: id::<PanelId>(&slug(panel)),
            at: at.to_vec(),
            amps: Amps::new(amps),
            protection: crate::model::Protection::default(),
            wire: None,
            details: crate::model::BreakerDetails::default(),
        })
    };
    let feeder: BreakerId = id("feeder");
    if let Some((spaces, at)) = &seats.sub {
        facts.push(breaker(feeder.clone(), "Main panel", at, 60.0));
        facts.push(Fact::LabelClaimed(LabelClaimed { breaker: feeder.clone(), text: "sub".into() }));
        facts.push(panel("Sub-panel", &rooms[rooms.len() - 1].name.to_lowercase(), *spaces, Some(feeder)));
    }
    let mut order: Vec<usize> = (0..circuits.len()).collect();
    order.sort_by_key(|c| (seats.at[*c].0, seats.at[*c].1.first().map(|slot| slot.space)));
    for c in order {
        let (sub, at) = &seats.at[c];
        facts.push(breaker(breaker_id(c), if *sub { "Sub-panel" } else { "Main panel" }, at, circuits[c].amps));
        if !circuits[c].label.is_empty() {
            facts.push(Fact::LabelClaimed(LabelClaimed { breaker: breaker_id(c), text: circuits[c].label.clone() }));
        }
        if circuits[c].must_stay {
            let reason = format!("{}: never off", circuits[c].label);
            facts.push(Fact::BreakerKept(BreakerKept { breaker: breaker_id(c), kept: Some(Kept::On), reason }));
        }
    }
    facts.extend(super::rooms::drawn(rooms));
    facts.extend(spots.iter().map(|spot| Fact::PointPlaced(spot.placed.clone())));
    let lone: Vec<usize> = (0..circuits.len()).filter(|c| circuits[*c].poles == 1).collect();
    let feeds = spots.iter().chain(&forgotten).map(|spot| {
        let mut feed = spot.feed.clone();
        feed.breaker = Some(breaker_id(spot.circuit));
        if spot.kind == Kind::Receptacle && rng.random::<f64>() < odds.beside {
            feed.beside = Some(breaker_id(lone[rng.random_range(0..lone.len())])).filter(|b| feed.breaker.as_ref() != Some(b));
        }
        (spot.placed.point.clone(), feed)
    });
    let feeds: BTreeMap<PointId, Feed> = feeds.collect();
    // A GFCI with something behind it that tripped long ago.
    let tripped =
        feeds.values().filter_map(|feed| feed.behind.clone()).find(|_| recipe.level == Level::Tricky).into_iter().collect();
    let unlisted = forgotten.into_iter().map(|spot| spot.placed).collect();
    let pair = |c: usize| Some([breaker_id(c), breaker_id(circuits[c].pair?)]);
    let shared = (0..circuits.len()).filter_map(pair).collect();
    MadeHouse { facts, wiring: Wiring { feeds, tripped }, unlisted, shared }
}

/// `Made-up house 17`.
fn name_of(recipe: Recipe) -> String {
    let level = match recipe.level {
        Level::Plain => "plain",
        Level::Usual => "usual",
        Level::Tricky => "tricky",
    };
    let to_measure = match recipe.lesson {
        Lesson::Trace => "",
        Lesson::Measure => " to measure",
        Lesson::Work => " to work on",
        Lesson::Fault => " with a fault",
    };
    format!("Made-up house {}{to_measure}, {level}, {} points", recipe.seed, recipe.points)
}
