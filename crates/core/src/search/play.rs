//! A round in a house, by one of the schools.

use super::referee::Table;
use super::wiring::NumberedWiring;
use super::world;
use super::{Act, Case, CasePoint, Costs, Crew, OffSet, Place, Standing, World};
use super::{House, Played};
use crate::model::Method;
use rand_pcg::Pcg64Mcg;

/// How a house is traced.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Strategy {
    /// One breaker off after the other; every point that is open is looked at each time.
    OneAtATime,
    /// Half of the breakers off each round; then each point is proven on the breaker that fits.
    Binary,
    /// Point by point: the likeliest breaker alone off, then the next likeliest.
    LampAndHelper,
    /// The same, with a tone sender at each receptacle first.
    ToneTracer,
    /// The search.
    Adaptive,
    /// Knows the answer and only proves it: nothing honest is faster.
    Oracle,
}

impl From<Method> for Strategy {
    fn from(method: Method) -> Self {
        match method {
            Method::OneAtATime => Self::OneAtATime,
            Method::SeveralOff => Self::Adaptive,
            Method::LampAndHelper => Self::LampAndHelper,
            Method::ToneTracer => Self::ToneTracer,
        }
    }
}

/// Acts after which a round that does not end is given up.
const MOST_ACTS: usize = 4000;

/// A house to be played: what a crew sees of it, and the wiring that only the referee knows.
#[derive(Debug, Clone)]
pub struct Game {
    /// Its name.
    pub name: String,
    pub(crate) case: Case,
    pub(crate) wiring: NumberedWiring,
}

impl Game {
    /// What a crew sees, and the wiring by number.
    pub(crate) const fn new(name: String, case: Case, wiring: NumberedWiring) -> Self {
        Self { name, case, wiring }
    }
    /// How many points it has.
    pub fn points(&self) -> usize {
        self.case.points.len()
    }
}

impl From<&House> for Game {
    fn from(house: &House) -> Self {
        Self::new(house.id.clone(), house.case(), house.wiring())
    }
}

/// Plays a round. `clock_ms` gives milliseconds from any start; it measures decisions and changes nothing.
pub fn play(
    game: &Game,
    crew: Crew,
    costs: Costs,
    how: (Strategy, World),
    seed: u64,
    clock_ms: &mut dyn FnMut() -> f64,
) -> Played {
    let played = play_as(&game.case, &game.wiring, crew, costs, how, seed, clock_ms);
    Played { house: game.name.clone(), ..played }
}

/// The same for what a crew sees and a wiring that only the referee knows.
pub(crate) fn play_as(
    case: &Case,
    wiring: &NumberedWiring,
    crew: Crew,
    costs: Costs,
    (strategy, world): (Strategy, World),
    seed: u64,
    clock_ms: &mut dyn FnMut() -> f64,
) -> Played {
    let costs = if strategy == Strategy::Oracle { Costs { misread: 0.0, ..costs } } else { costs };
    // The one who knows the answer is fooled by nothing.
    let world = if strategy == Strategy::Oracle { World::CALM } else { world };
    let mut rng = Pcg64Mcg::new(u128::from(seed) << 1 | 1);
    let (house, known) = world::Standing::draw(world, case, &mut rng);
    let points = case.points.iter().zip(known).map(|(p, known)| CasePoint { by_itself: p.by_itself || known, ..p.clone() });
    let case = &Case { points: points.collect(), ..case.clone() };
    let mut table = Table::new(case, wiring, crew, costs, (house, rng));
    let may = case.may_be_off();
    match strategy {
        Strategy::OneAtATime => {
            one_at_a_time(&mut table, may);
            finish(&mut table);
        }
        Strategy::Binary => {
            binary(&mut table, may);
            one_at_a_time(&mut table, may);
            finish(&mut table);
        }
        Strategy::LampAndHelper => {
            hunt(&mut table, may, false);
            finish(&mut table);
        }
        Strategy::ToneTracer => {
            hunt(&mut table, may, true);
            finish(&mut table);
        }
        Strategy::Adaptive => adaptive(&mut table, clock_ms),
        Strategy::Oracle => oracle(&mut table, may),
    }
    table.end(seed)
}

fn open_points(table: &Table<'_>) -> Vec<usize> {
    (0..table.search.case.points.len()).filter(|p| table.search.standing(*p) == Standing::Open).collect()
}

/// Looks at these points with just these off, the nearest room first.
fn tour(table: &mut Table<'_>, off: OffSet, points: &[usize]) {
    let mut left: Vec<usize> = points.to_vec();
    while !left.is_empty() {
        let from = table.place();
        let rooms = left.iter().map(|p| table.search.case.points[*p].room);
        let room = rooms.min_by(|a, b| {
            let far = |room: usize| table.search.walk_s(from, Place::Room(room));
            far(*a).total_cmp(&far(*b)).then(a.cmp(b))
        });
        let Some(room) = room else { return };
        let here: Vec<usize> = left.iter().copied().filter(|p| table.search.case.points[*p].room == room).collect();
        table.enter(off, room, here.len());
        for p in &here {
            table.look(*p);
        }
        left.retain(|p| table.search.case.points[*p].room != room);
    }
}

fn one_at_a_time(table: &mut Table<'_>, may: OffSet) {
    for breaker in may.iter() {
        let open = open_points(table);
        if open.is_empty() {
            return;
        }
        tour(table, OffSet::one(breaker), &open);
    }
}

fn binary(table: &mut Table<'_>, may: OffSet) {
    let all: Vec<usize> = may.iter().collect();
    let rounds = usize::BITS - all.len().leading_zeros();
    for bit in 0..rounds {
        let off: OffSet = all.iter().enumerate().filter(|(n, _)| (n + 1) >> bit & 1 == 1).map(|(_, b)| *b).collect();
        let open = open_points(table);
        if !off.is_empty() {
            tour(table, off, &open);
        }
    }
    for breaker in all {
        let fits = |p: &usize| {
            let row = table.search.belief().of(*p);
            row.iter().enumerate().max_by(|a, b| a.1.total_cmp(b.1)).is_some_and(|(b, _)| b == breaker)
        };
        let points: Vec<usize> = open_points(table).into_iter().filter(fits).collect();
        if !points.is_empty() {
            tour(table, OffSet::one(breaker), &points);
        }
    }
}

/// The breaker that is likeliest for a point and was not tried with it.
fn likeliest(table: &Table<'_>, tried: &[OffSet], may: OffSet, point: usize) -> Option<usize> {
    let row = table.search.belief().of(point);
    may.iter().filter(|b| !tried[point].has(*b)).max_by(|a, b| row[*a].total_cmp(&row[*b]))
}

/// From one point to the nearest that is open, with its likeliest breaker off, until it is proven.
fn hunt(table: &mut Table<'_>, may: OffSet, tone: bool) {
    let mut heard = vec![false; table.search.case.points.len()];
    let mut radio = None;
    let mut tried = vec![OffSet::NONE; table.search.case.points.len()];
    for _ in 0..MOST_ACTS {
        let from = table.place();
        let walk = |p: &usize| table.search.walk_s(from, Place::Room(table.search.case.points[*p].room));
        let open: Vec<usize> = open_points(table).into_iter().filter(|p| tried[*p].and(may) != may).collect();
        let nearest = open.iter().copied().min_by(|a, b| walk(a).total_cmp(&walk(b)).then(a.cmp(b)));
        // A radio stays where it is until it has told.
        let Some(point) = radio.filter(|p| open.contains(p)).or(nearest) else { return };
        if tone && !heard[point] && table.takes_tone(point) {
            heard[point] = true;
            table.tone(point);
            continue;
        }
        let Some(breaker) = likeliest(table, &tried, may, point) else { return };
        let room = table.search.case.points[point].room;
        if !tone && table.by_ear() && table.takes_tone(point) {
            if radio != Some(point) {
                radio = Some(point);
                table.place_radio(point);
            }
            tried[point] = tried[point].with(breaker);
            if !table.hear(OffSet::one(breaker), point) {
                continue;
            }
        }
        let here: Vec<usize> = open_points(table)
            .into_iter()
            .filter(|p| table.search.case.points[*p].room == room && likeliest(table, &tried, may, *p) == Some(breaker))
            .collect();
        if here.is_empty() {
            continue;
        }
        table.enter(OffSet::one(breaker), room, here.len());
        for p in here {
            tried[p] = tried[p].with(breaker);
            table.look(p);
        }
    }
}

/// What went dark with one breaker and is not sure is seen lit with it on, then dark and lit once more.
fn finish(table: &mut Table<'_>) {
    const MOST_ROUNDS: usize = 3;
    for _ in 0..MOST_ROUNDS {
        tour(table, OffSet::NONE, &waiting_on(table, None));
        let breakers: OffSet = open_points(table).into_iter().filter_map(|p| table.search.waits(p)).collect();
        for breaker in breakers.iter() {
            tour(table, OffSet::one(breaker), &waiting_on(table, Some(breaker)));
        }
    }
    tour(table, OffSet::NONE, &waiting_on(table, None));
}

/// The points that went dark with a breaker, with this one where one is given, and are not sure.
fn waiting_on(table: &Table<'_>, breaker: Option<usize>) -> Vec<usize> {
    let waits = |p: &usize| table.search.waits(*p).is_some_and(|b| breaker.is_none_or(|breaker| breaker == b));
    open_points(table).into_iter().filter(waits).collect()
}

fn adaptive(table: &mut Table<'_>, clock_ms: &mut dyn FnMut() -> f64) {
    for _ in 0..MOST_ACTS {
        let begun = clock_ms();
        let act = table.search.next_act();
        table.decisions_ms.push(clock_ms() - begun);
        match act {
            Act::Done => return,
            Act::Tone { point } => table.tone(point),
            Act::Cycle { breaker } => table.cycle(breaker),
            Act::Watch { breaker, point } => table.watch(breaker, point),
            Act::Control { point } => {
                table.enter(table.search.off(), table.search.case.points[point].room, 1);
                table.look(point);
            }
            Act::Look { off, room, points } => {
                table.enter(off, room, points.len());
                for p in points {
                    if table.search.standing(p) == Standing::Open {
                        table.look(p);
                    }
                }
            }
        }
    }
}

/// Each breaker off once, each of its points looked at once, on a short way.
fn oracle(table: &mut Table<'_>, may: OffSet) {
    let mut left: Vec<(usize, Vec<usize>)> = may
        .iter()
        .map(|b| (b, (0..table.search.case.points.len()).filter(|p| table.breaker(*p) == Some(b)).collect()))
        .filter(|(_, points): &(usize, Vec<usize>)| !points.is_empty())
        .collect();
    while !left.is_empty() {
        let from = if table.crew_is_alone() { Place::Panel } else { table.place() };
        let walk = |points: &[usize]| {
            let (way, length) = shortest(table, from, points);
            (length, way)
        };
        let best = left.iter().enumerate().map(|(n, (_, points))| (n, walk(points))).min_by(|a, b| {
            // The nearest beginning; the whole way where that is the same.
            let first = |way: &[usize]| way.first().map_or(0.0, |room| table.search.walk_s(from, Place::Room(*room)));
            first(&a.1.1).total_cmp(&first(&b.1.1)).then(a.1.0.total_cmp(&b.1.0))
        });
        let Some((n, (_, way))) = best else { return };
        let (breaker, points) = left.swap_remove(n);
        for room in way {
            let here: Vec<usize> = points.iter().copied().filter(|p| table.search.case.points[*p].room == room).collect();
            table.enter(OffSet::one(breaker), room, here.len());
            for p in here {
                table.look_once(p, breaker);
            }
        }
    }
}

/// The shortest way through the rooms of these points: every order of up to seven rooms, else nearest first.
fn shortest(table: &Table<'_>, from: Place, points: &[usize]) -> (Vec<usize>, f64) {
    let mut rooms: Vec<usize> = points.iter().map(|p| table.search.case.points[*p].room).collect();
    rooms.sort_unstable();
    rooms.dedup();
    let walk = |a: Place, b: usize| table.search.walk_s(a, Place::Room(b));
    if rooms.len() > 7 {
        let (mut way, mut at, mut length) = (Vec::new(), from, 0.0);
        while let Some(n) = (0..rooms.len()).min_by(|a, b| walk(at, rooms[*a]).total_cmp(&walk(at, rooms[*b]))) {
            let room = rooms.swap_remove(n);
            length += walk(at, room);
            at = Place::Room(room);
            way.push(room);
        }
        return (way, length);
    }
    let mut best = (Vec::new(), f64::INFINITY);
    let mut stack: Vec<(Vec<usize>, f64)> = vec![(Vec::new(), 0.0)];
    while let Some((way, length)) = stack.pop() {
        if length >= best.1 {
            continue;
        }
        if way.len() == rooms.len() {
            best = (way, length);
            continue;
        }
        let at = way.last().map_or(from, |room| Place::Room(*room));
        for room in rooms.iter().filter(|room| !way.contains(room)) {
            let mut next = way.clone();
            next.push(*room);
            stack.push((next, length + walk(at, *room)));
        }
    }
    best
}
