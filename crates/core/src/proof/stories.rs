//! How well the lines fit each story "this breaker feeds this point", with what else may have gone on at the time.
//!
//! For each point and each breaker eight numbers are kept, one for each thing that may be so at the moment: all is as it
//! seems, or one cause fools whoever looks. A line moves and weighs them. Most of what a line says is the same for all
//! points; it is kept once, in the list of lines, and a point's numbers take it in when they are asked for.
//!
//! How often each thing happens is in [`super::rates`].

use super::case::OffSet;
use super::rates::{
    CHANGE_MISREAD, GLANCED, MISREAD, NOT_LATCHED, OUTAGE, OUTAGE_S, OWN_LIGHTS, OWN_RECEPTACLES, OWN_S, POINT_S, TRIPS,
    TRIPS_AT_ONCE, TRIPS_BESIDE, UNKNOWN, WRONG_HANDLE, WRONG_POINT,
};

/// A trace of fewer points is taken to be as long as one of so many.
const FEWEST_POINTS: usize = 24;
/// How often somebody looks over the handles when one is moved, and would have told of one that stands wrong.
const OVERLOOKED: f64 = 0.5;
/// How often a handle that is found to stand wrong went there by itself just then, and not at some switching before.
const FOUND_JUST_THEN: f64 = 1e-3;
/// How much a look that shows power speaks for a breaker being dead, tripped, or for an outage.
const SEEN_POWER: f64 = 0.005;
/// The most that one dark look at a proven point may speak for a cause that many points share.
const MOST_SHARED: f64 = 20.0;
/// The most that one at a point that is not proven may speak for an outage.
const MOST_BY_OPEN: f64 = 5.0;

/// How likely what is seen of a point goes by itself. Where it is known to, one glance proves nothing; a meter does.
pub(super) const fn own_mind(is_receptacle: bool, known: bool) -> f64 {
    if known {
        GLANCED
    } else if is_receptacle {
        UNKNOWN * OWN_RECEPTACLES
    } else {
        UNKNOWN * OWN_LIGHTS
    }
}

/// A handle that stood otherwise than was believed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Found {
    /// Off or tripped, though it should have been on.
    Tripped,
    /// On, though it should have been off.
    StillOn,
}

/// The eight numbers of a point and a breaker.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(super) struct Cell {
    /// Everything is as it seems.
    fine: f64,
    /// The breaker did not latch.
    dead: f64,
    /// The breaker is off by itself; its handle shows it.
    tripped: f64,
    /// The house has no power.
    outage: f64,
    /// The point goes by itself and is lit just now.
    own_lit: f64,
    /// The point goes by itself and is dark just now.
    own_dark: f64,
    /// Another point is looked at.
    elsewhere: f64,
    /// The breaker is said to be off and is not.
    still_on: f64,
}

impl Cell {
    const fn new(own: f64) -> Self {
        Self { fine: 1.0 - own, own_lit: own, dead: 0.0, tripped: 0.0, outage: 0.0, own_dark: 0.0, elsewhere: 0.0, still_on: 0.0 }
    }
    fn sum(&self) -> f64 {
        self.fine + self.shared() + self.own_lit + self.own_dark + self.elsewhere + self.still_on
    }
    /// The causes that many points would share.
    fn shared(&self) -> f64 {
        self.dead + self.tripped + self.outage
    }
    fn scale(&mut self, by: f64) {
        for x in self.each() {
            *x *= by;
        }
    }
    const fn each(&mut self) -> [&mut f64; 8] {
        [
            &mut self.fine,
            &mut self.dead,
            &mut self.tripped,
            &mut self.outage,
            &mut self.own_lit,
            &mut self.own_dark,
            &mut self.elsewhere,
            &mut self.still_on,
        ]
    }
}

/// What a look at the point itself shows, and how.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Told {
    /// It was dark.
    pub(super) dark: bool,
    /// The point was found anew: another visit to the room, the tester moved. Else it was looked at again in place.
    pub(super) anew: bool,
    /// The share of other points, taken for this one by mistake, whose breaker is believed to be off.
    pub(super) others_off: f64,
    /// A meter showed it: what goes by itself shows its voltage, whatever it does.
    pub(super) by_volts: bool,
    /// It was watched as a breaker was switched off: the breakers beside that one, of which one may have been moved instead.
    pub(super) watched: Option<OffSet>,
}

/// What may come next at a point.
#[derive(Debug, Clone, Copy)]
pub(super) enum Ahead {
    /// These lose power, or get it.
    Turn(OffSet, bool),
    /// A look with these off.
    Look(OffSet, Told),
}

/// A look, as far as it concerns all points but its own: its time, and what it says of the power of the house and of one breaker.
#[derive(Debug, Clone, Copy)]
struct Line {
    seconds: f64,
    outage: f64,
    /// The breaker of a proven point, by how much this speaks for its being dead or tripped, and for its being still on.
    on: Option<(usize, f64, f64)>,
}

/// A handle was moved, or found moved: what closes a window.
#[derive(Debug, Clone, Copy)]
enum Turn {
    /// Everything that lost or got power with it.
    Moved { breakers: OffSet, off: bool },
    /// A handle stood otherwise.
    Found { breaker: usize, found: Found },
}

/// Some lines in a row, taken together. Between two turns a breaker's numbers only mix fine with outage, the same for all.
#[derive(Debug, Clone)]
struct Span {
    /// How much of fine and of outage comes to fine; then to outage.
    mix: [f64; 4],
    seconds: f64,
    on: Vec<(usize, f64, f64)>,
}

impl Span {
    fn of(lines: &[Line], rate: f64) -> Self {
        let mut span = Self { mix: [1.0, 0.0, 0.0, 1.0], seconds: 0.0, on: Vec::new() };
        for line in lines {
            if line.seconds > 0.0 {
                let over = rate + 1.0 / OUTAGE_S;
                let gone = 1.0 - (-over * line.seconds).exp();
                let (begins, ends) = (rate / over * gone, gone / (OUTAGE_S * over));
                let [ff, fo, of, oo] = span.mix;
                span.mix = [
                    (1.0 - begins) * ff + ends * of,
                    (1.0 - begins) * fo + ends * oo,
                    begins * ff + (1.0 - ends) * of,
                    begins * fo + (1.0 - ends) * oo,
                ];
                span.seconds += line.seconds;
            }
            span.mix[2] *= line.outage;
            span.mix[3] *= line.outage;
            if let Some((breaker, dead, still)) = line.on {
                match span.on.iter_mut().find(|(b, _, _)| *b == breaker) {
                    Some((_, d, s)) => (*d, *s) = (*d * dead, *s * still),
                    None => span.on.push((breaker, dead, still)),
                }
            }
        }
        span
    }

    fn pass(&self, cells: &mut [Cell]) {
        let [ff, fo, of, oo] = self.mix;
        let swap = 0.5 * (1.0 - (-self.seconds / OWN_S).exp());
        for cell in cells.iter_mut() {
            (cell.fine, cell.outage) = (ff * cell.fine + fo * cell.outage, of * cell.fine + oo * cell.outage);
            let (lit, dark) = (cell.own_lit, cell.own_dark);
            (cell.own_lit, cell.own_dark) = (lit + swap * (dark - lit), dark + swap * (lit - dark));
        }
        for (breaker, dead, still) in &self.on {
            let cell = &mut cells[*breaker];
            cell.dead *= dead;
            cell.tripped *= dead;
            cell.still_on *= still;
        }
    }
}

/// What was looked at between two turns.
#[derive(Debug, Clone)]
struct Window {
    lines: Vec<Line>,
    /// All of them together, once it is closed.
    whole: Option<(Span, Turn)>,
}

impl Window {
    const fn new() -> Self {
        Self { lines: Vec::new(), whole: None }
    }
}

/// A look at the point itself: which line it is, what was off, what it told.
#[derive(Debug, Clone, Copy)]
struct Own {
    window: usize,
    line: usize,
    off: OffSet,
    told: Told,
}

/// A point's numbers, and how far they have taken in the lines.
#[derive(Debug, Clone)]
struct Row {
    cells: Vec<Cell>,
    window: usize,
    line: usize,
    /// Its own looks that are not taken in yet.
    own: Vec<Own>,
}

impl Row {
    fn new(breakers: usize, own: f64) -> Self {
        Self { cells: vec![Cell::new(own); breakers], window: 0, line: 0, own: Vec::new() }
    }
}

/// The numbers of every point.
#[derive(Debug, Clone)]
pub(super) struct Stories {
    rate: f64,
    beside: Vec<OffSet>,
    rows: Vec<Row>,
    /// How likely each point goes by itself, by its place in `nobody`.
    own: Vec<usize>,
    /// A point that is never looked at, one for each such likelihood: what is news about a breaker is no news about a point.
    nobody: Vec<(f64, Row)>,
    windows: Vec<Window>,
    /// Seconds since the last line.
    pending: f64,
}

impl Stories {
    /// `own`: for each point how likely it goes by itself; `beside`: for each breaker those beside it.
    pub(super) fn new(own: &[f64], beside: Vec<OffSet>) -> Self {
        let breakers = beside.len();
        let mut nobody: Vec<(f64, Row)> = vec![(0.0, Row::new(breakers, 0.0))];
        let places = own.iter().map(|own| {
            nobody.iter().position(|(other, _)| other == own).unwrap_or_else(|| {
                nobody.push((*own, Row::new(breakers, *own)));
                nobody.len() - 1
            })
        });
        let places: Vec<usize> = places.collect();
        let long = own.len().max(FEWEST_POINTS) as f64;
        Self {
            rate: OUTAGE / (POINT_S * long),
            beside,
            rows: own.iter().map(|own| Row::new(breakers, *own)).collect(),
            own: places,
            nobody,
            windows: vec![Window::new()],
            pending: 0.0,
        }
    }

    fn now(&self) -> usize {
        self.windows.len() - 1
    }

    fn turned(&self, cells: &mut [Cell], turn: Turn) {
        let each = TRIPS / cells.len() as f64;
        for (c, cell) in cells.iter_mut().enumerate() {
            match turn {
                Turn::Moved { breakers, off } => {
                    cell.tripped *= OVERLOOKED;
                    cell.still_on *= OVERLOOKED;
                    if !breakers.has(c) {
                        let beside = off && !self.beside[c].and(breakers).is_empty();
                        let trips = cell.fine * (each + if beside { TRIPS_BESIDE } else { 0.0 });
                        cell.fine -= trips;
                        cell.tripped += trips;
                    } else if off {
                        let was = cell.fine + cell.dead + cell.tripped;
                        (cell.fine, cell.dead, cell.tripped) = (was * (1.0 - WRONG_HANDLE), 0.0, 0.0);
                        cell.still_on += was * WRONG_HANDLE;
                    } else {
                        let was = cell.fine + cell.still_on;
                        cell.dead += was * NOT_LATCHED;
                        cell.tripped += was * TRIPS_AT_ONCE;
                        (cell.fine, cell.still_on) = (was * (1.0 - NOT_LATCHED - TRIPS_AT_ONCE), 0.0);
                    }
                }
                Turn::Found { breaker, found } if breaker == c => {
                    // It may have gone at a moment when nobody moved a handle, too, just before it was found.
                    let kept = if found == Found::Tripped { cell.tripped } else { cell.still_on } + FOUND_JUST_THEN * cell.fine;
                    *cell = Cell { fine: kept * (1.0 - NOT_LATCHED), dead: kept * NOT_LATCHED, ..Cell::default() };
                }
                Turn::Found { .. } => {}
            }
        }
    }

    /// Takes the lines before this one into a row.
    fn goes_to(&self, row: &mut Row, window: usize, line: usize) {
        while row.window < window {
            let passed = &self.windows[row.window];
            let Some((whole, turn)) = &passed.whole else { break };
            if row.line == 0 {
                whole.pass(&mut row.cells);
            } else {
                Span::of(&passed.lines[row.line..], self.rate).pass(&mut row.cells);
            }
            self.turned(&mut row.cells, *turn);
            (row.window, row.line) = (row.window + 1, 0);
        }
        if row.line < line {
            Span::of(&self.windows[row.window].lines[row.line..line], self.rate).pass(&mut row.cells);
            row.line = line;
        }
    }

    /// Takes all lines so far into a row.
    fn catch_up(&self, row: &mut Row) {
        for own in std::mem::take(&mut row.own) {
            self.goes_to(row, own.window, own.line);
            // Of this line the point takes in its time, and what it told; what it says to others is nothing to it.
            let seconds = self.windows[own.window].lines[own.line].seconds;
            Span::of(&[Line { seconds, outage: 1.0, on: None }], self.rate).pass(&mut row.cells);
            emit(&mut row.cells, own.off, own.told);
            row.line = own.line + 1;
            let top = row.cells.iter().map(Cell::sum).fold(0.0, f64::max);
            if top > 0.0 && top < 1e-30 {
                row.cells.iter_mut().for_each(|cell| cell.scale(1.0 / top));
            }
        }
        let now = self.now();
        self.goes_to(row, now, self.windows[now].lines.len());
    }

    /// A row as it is after all lines so far.
    fn taken_in(&self, row: &Row) -> Row {
        let mut row = row.clone();
        self.catch_up(&mut row);
        row
    }

    /// Keeps a point's numbers as they are after all lines so far, so that they are not worked out again.
    pub(super) fn keep(&mut self, point: usize) {
        let mut row = std::mem::replace(&mut self.rows[point], Row { cells: Vec::new(), window: 0, line: 0, own: Vec::new() });
        self.catch_up(&mut row);
        self.rows[point] = row;
    }

    fn close(&mut self, turn: Turn) {
        let rate = self.rate;
        self.write_time();
        if let Some(last) = self.windows.last_mut() {
            last.whole = Some((Span::of(&last.lines, rate), turn));
        }
        self.windows.push(Window::new());
    }

    /// Time passed.
    pub(super) fn passed(&mut self, seconds: f64) {
        self.pending += seconds.max(0.0);
    }

    fn write_time(&mut self) {
        let seconds = std::mem::take(&mut self.pending);
        if let Some(last) = self.windows.last_mut() {
            last.lines.push(Line { seconds, outage: 1.0, on: None });
        }
    }

    /// A handle was moved: these lost power with it, or got it.
    pub(super) fn moved(&mut self, breakers: OffSet, off: bool) {
        self.close(Turn::Moved { breakers, off });
    }

    /// A handle stood otherwise than was believed.
    pub(super) fn found(&mut self, breaker: usize, found: Found) {
        self.close(Turn::Found { breaker, found });
    }

    /// A look at a point with these off. `known`: the breaker that the point is proven on, or how likely it is on what is off.
    pub(super) fn saw(&mut self, point: usize, off: OffSet, told: Told, known: Result<usize, f64>) {
        self.write_time();
        let (outage, on) = self.for_others(off, told.dark, known);
        let window = self.now();
        let lines = &mut self.windows[window].lines;
        if let Some(line) = lines.last_mut() {
            (line.outage, line.on) = (outage, on);
        }
        self.rows[point].own.push(Own { window, line: lines.len() - 1, off, told });
    }

    /// What a look says of points other than its own. Points that are not proven say nothing of a breaker, as points of one
    /// room would share the error; dark though they are hardly on what is off, they speak for an outage.
    fn for_others(&self, off: OffSet, dark: bool, known: Result<usize, f64>) -> (f64, Option<(usize, f64, f64)>) {
        let outage = if dark { 1.0 } else { SEEN_POWER };
        match known.ok() {
            None if dark => {
                let by_all_else = known.err().unwrap_or(1.0) + MISREAD + WRONG_POINT;
                (((1.0 - MISREAD) / by_all_else).clamp(1.0, MOST_BY_OPEN), None)
            }
            Some(b) if dark && off.has(b) => (outage, Some((b, 1.0, SEEN_POWER))),
            Some(b) if dark => {
                let held = self.out_of_order(b);
                let speaks = ((1.0 - MISREAD) / (MISREAD + 0.008 + held)).min(MOST_SHARED);
                (speaks, Some((b, speaks, 1.0)))
            }
            Some(b) if !off.has(b) => (outage, Some((b, SEEN_POWER, 1.0))),
            _ => (outage, None),
        }
    }

    /// How well the lines fit each breaker for a point, news about the breakers themselves taken out; and of that the part by
    /// causes that many points would share.
    pub(super) fn weights(&self, point: usize) -> Vec<Weight> {
        let row = self.taken_in(&self.rows[point]);
        let nobody = self.taken_in(&self.nobody[self.own[point]].1);
        weighed(&row.cells, &nobody.cells)
    }

    /// The same after what may come next.
    pub(super) fn foresee(&self, point: usize, ahead: impl IntoIterator<Item = Ahead>) -> Vec<Weight> {
        let mut row = self.taken_in(&self.rows[point]);
        let mut nobody = self.taken_in(&self.nobody[self.own[point]].1);
        for next in ahead {
            match next {
                Ahead::Turn(breakers, off) => {
                    self.turned(&mut row.cells, Turn::Moved { breakers, off });
                    self.turned(&mut nobody.cells, Turn::Moved { breakers, off });
                }
                Ahead::Look(off, told) => emit(&mut row.cells, off, told),
            }
        }
        weighed(&row.cells, &nobody.cells)
    }

    /// How likely a breaker that feeds an unknown point is dead or tripped by now.
    fn out_of_order(&self, breaker: usize) -> f64 {
        let nobody = self.taken_in(&self.nobody[0].1).cells[breaker];
        (nobody.dead + nobody.tripped) / nobody.sum().max(1e-300)
    }

    /// Brings the numbers that belong to no point up to the last line, so that they are not worked out again and again.
    pub(super) fn settle(&mut self) {
        let mut nobody = std::mem::take(&mut self.nobody);
        for (_, row) in &mut nobody {
            self.catch_up(row);
        }
        self.nobody = nobody;
    }
}

/// How well the lines fit one breaker for a point.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Weight {
    pub(super) all: f64,
    /// By a breaker that did not latch.
    pub(super) dead: f64,
    /// By a breaker that tripped.
    pub(super) tripped: f64,
    /// By an outage.
    pub(super) outage: f64,
    /// By a point that goes by itself.
    pub(super) own: f64,
    /// By another point having been looked at.
    pub(super) elsewhere: f64,
    /// By another handle having been moved.
    pub(super) still_on: f64,
}

impl Weight {
    /// The causes that many points would share.
    pub(super) fn shared(&self) -> f64 {
        self.dead + self.tripped + self.outage
    }
}

fn weighed(cells: &[Cell], nobody: &[Cell]) -> Vec<Weight> {
    let each = cells.iter().zip(nobody).map(|(cell, nobody)| {
        let by = nobody.sum().max(1e-300);
        Weight {
            all: cell.sum() / by,
            dead: cell.dead / by,
            tripped: cell.tripped / by,
            outage: cell.outage / by,
            own: (cell.own_lit + cell.own_dark) / by,
            elsewhere: cell.elsewhere / by,
            still_on: cell.still_on / by,
        }
    });
    each.collect()
}

/// The point's numbers after a look at it.
fn emit(cells: &mut [Cell], off: OffSet, told: Told) {
    // That nothing changed may be overlooked as easily as any look is misread.
    let slip = if told.dark && told.watched.is_some() { CHANGE_MISREAD } else { MISREAD };
    let seen = |dark: f64| {
        let fits = if told.dark { dark } else { 1.0 - dark };
        fits * (1.0 - slip) + (1.0 - fits) * slip
    };
    let (lit, dark, mixed) = (seen(0.0), seen(1.0), seen(told.others_off));
    for (c, cell) in cells.iter_mut().enumerate() {
        if told.anew {
            let here = cell.fine + cell.elsewhere;
            (cell.fine, cell.elsewhere) = (here * (1.0 - WRONG_POINT), here * WRONG_POINT);
        }
        if told.by_volts {
            cell.fine += cell.own_lit + cell.own_dark;
            (cell.own_lit, cell.own_dark) = (0.0, 0.0);
        }
        // Moved instead of the one beside it, it went out and came back all the same.
        let instead = told.dark && told.watched.is_some_and(|beside| beside.has(c));
        let as_switched = match (off.has(c), instead) {
            (true, _) => dark,
            (false, true) => lit.max(TRIPS_BESIDE),
            (false, false) => lit,
        };
        cell.fine *= as_switched;
        cell.own_lit *= as_switched;
        cell.dead *= dark;
        cell.tripped *= dark;
        cell.outage *= dark;
        cell.own_dark *= dark;
        cell.still_on *= lit;
        cell.elsewhere *= mixed;
    }
}
