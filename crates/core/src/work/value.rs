//! What the panel would be after a plan: what that costs, of which kind the plan is, and whether every rule holds.
//!
//! Cost depends on the states before and after alone, so nothing here knows the order of the moves.

use super::problem::*;
use super::setup::*;

/// A plan that keeps every rule.
#[derive(Debug, Clone)]
pub(super) struct Valued {
    pub(super) cost: i64,
    pub(super) effort: Effort,
    pub(super) way: Way,
    /// What stays in its half and is landed again on a new breaker.
    pub(super) relanded: Vec<usize>,
    pub(super) legs: [i64; 3],
    pub(super) spread: i64,
}

/// The one rule that a plan breaks; those before it hold.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum Trouble {
    /// Too much is changed, or too many splices: no further change mends that.
    Past,
    /// A guest or a host that may not be one.
    Combined,
    /// A guest does not reach its host.
    Reach(usize),
    /// Two tandems or quads in one place, or a handle that does not take what is in it, at this space.
    Body(usize),
    /// This leg carries too much.
    Legs(usize),
    /// The legs are too far apart.
    Apart,
    /// More poles than are listed.
    Poles,
    /// A leg of the sub-panel is full or carries too much.
    Sub,
}

/// Who is in which half after the plan, those over whole spaces apart.
struct Shared {
    halves: [usize; 2 * MOST_SPACES],
    /// Taken by what stands over whole spaces.
    whole: Halves,
}

impl Shared {
    /// Whether something stands over a whole one of so many spaces.
    fn is_whole(&self, space: usize, spaces: usize) -> bool {
        self.whole >> (2 * space) & ((1 << (2 * spaces)) - 1) != 0
    }
}

/// A tandem or quad after the plan.
#[derive(Debug, Clone, Copy)]
struct Group {
    quad: bool,
    space: usize,
    /// It came here with everybody in it.
    came: bool,
    kept: bool,
}

impl Setup<'_> {
    /// Where a circuit is after the plan, if it is on a breaker of this panel.
    pub(super) fn place(&self, seats: &[Seat], index: usize) -> Option<At> {
        match seats[index] {
            Seat::Home => self.units[index].home,
            Seat::At(at) => Some(at),
            _ => None,
        }
    }

    /// The breaker that is left behind at exactly this place and is of the wanted kind.
    fn left_behind(&self, seats: &[Seat], at: &At, wanted: (usize, i64, Guard)) -> bool {
        (0..self.existing).any(|i| {
            let unit = &self.units[i];
            let Some(home) = unit.home else { return false };
            if !home.same_place(at) || unit.home_breaker != wanted || seats[i] == Seat::Home {
                return false;
            }
            match seats[i] {
                // It took its breaker with it, unless that was to be replaced.
                Seat::At(to) => unit.replaced || !self.takes_its_breaker(&home, &to),
                _ => true,
            }
        })
    }

    /// Whether a circuit that moves from one place to the other brings its breaker.
    fn takes_its_breaker(&self, from: &At, to: &At) -> bool {
        match from.spot.shape {
            Shape::Full => to.spot.shape == Shape::Full,
            _ => false,
        }
    }

    /// Values the plan whose circuits end in these seats; none of them is pending.
    pub(super) fn value(&self, seats: &[Seat]) -> Result<Valued, Trouble> {
        let (costs, weights) = (&self.problem.costs, &self.problem.weights);
        let mut effort = [0i64; 3];
        let mut add = |what: Effort, times: i64| {
            for (sum, part) in effort.iter_mut().zip(what) {
                *sum += part * times;
            }
        };
        add(costs.open, 1);
        let (mut way, mut touched, mut splices) = (Way::Nothing, 0, 0);
        let mut legs = [0i64; 3];
        let mut poles = 0i64;
        // Who is in a half without being in the whole space.
        let mut halves = [usize::MAX; 2 * MOST_SPACES];
        let mut split = false;
        let mut whole: Halves = 0;
        for (index, seat) in seats.iter().enumerate() {
            let unit = &self.units[index];
            if !matches!(seat, Seat::Home | Seat::Out) && unit.role == Role::Existing {
                touched += 1;
            }
            match *seat {
                Seat::Home => {}
                Seat::Out if unit.role == Role::Existing => {
                    way = way.max(Way::Open);
                    add(costs.take_out, 1);
                }
                Seat::Out => {}
                Seat::Join(to) => {
                    way = way.max(Way::Join);
                    let host = &self.units[to];
                    let more = i64::from(host.guard != Guard::Standard);
                    add(costs.join, 1);
                    add(costs.join_neutral, more);
                    splices += 1 + more;
                }
                Seat::Tap(_) => {
                    way = way.max(Way::Tap);
                    add(costs.tap, 1);
                }
                Seat::Sub(_) => {
                    way = Way::Sub;
                    if unit.role == Role::New {
                        add(costs.new, 1);
                    } else {
                        add(costs.to_sub, 1);
                        add(costs.to_sub_pole, unit.poles as i64);
                        splices += unit.poles as i64;
                    }
                    add([0, self.whole_price(unit), 0], 1);
                }
                Seat::At(at) => match unit.role {
                    Role::New => {
                        way = way.max(Way::Open);
                        add(costs.new, 1);
                    }
                    Role::Gap => {
                        way = way.max(Way::Open);
                        add(costs.gap, 1);
                    }
                    Role::Feeder => {
                        add(costs.sub, 1);
                        way = Way::Sub;
                    }
                    Role::Existing => {
                        add(costs.moved, 1);
                        add(costs.move_pole, unit.poles as i64);
                        let longer = self.extended(unit, &at);
                        add(costs.splice, longer);
                        splices += longer;
                    }
                },
                Seat::Pending => return Err(Trouble::Past),
            }
            let Some(at) = self.place(seats, index) else { continue };
            for (sum, more) in legs.iter_mut().zip(self.on_legs(index, &at)) {
                *sum += more;
            }
            if at.spot.shape == Shape::Full {
                whole |= at.halves;
                if unit.role != Role::Gap && !unit.uncounted {
                    poles += unit.poles as i64;
                }
                if let Seat::At(_) = seat {
                    let in_place = unit.replaced && unit.home.is_some_and(|home| home.halves & at.halves == home.halves);
                    if unit.role == Role::Existing {
                        way = way.max(if in_place { Way::Open } else { Way::Relocate });
                    }
                    let brings =
                        unit.home.is_some_and(|home| !unit.replaced && home.spot.shape == Shape::Full) || unit.role == Role::Gap;
                    if !brings && !self.left_behind(seats, &at, (unit.poles, unit.amps, unit.guard)) {
                        add([0, self.whole_price(unit), 0], 1);
                    }
                }
            } else {
                split = true;
                let mut rest = at.halves;
                while rest != 0 {
                    halves[rest.trailing_zeros() as usize] = index;
                    rest &= rest - 1;
                }
            }
        }
        if touched > self.problem.max_touched || splices > self.problem.panel.splice_room {
            return Err(Trouble::Past);
        }
        self.combined(seats, &mut legs)?;
        self.in_the_sub_panel(seats, &mut legs)?;
        let mut relanded = Vec::new();
        if split {
            if self.problem.panel.slim {
                for (index, seat) in seats.iter().enumerate() {
                    let Some(at) = self.place(seats, index).filter(|at| at.spot.shape != Shape::Full) else { continue };
                    let unit = &self.units[index];
                    poles += if unit.uncounted { 0 } else { unit.poles as i64 };
                    if !matches!(seat, Seat::At(_)) {
                        continue;
                    }
                    let same =
                        !unit.replaced && unit.home.is_some_and(|home| half_form(home.spot.shape) == half_form(at.spot.shape));
                    let (newly, price) = match unit.poles {
                        2 => (Way::Slim, costs.price.slim),
                        _ => (Way::Tandem, costs.price.thin),
                    };
                    way = way.max(if same { Way::Relocate } else { newly });
                    if !same {
                        add([0, price, 0], 1);
                    }
                }
            } else {
                for group in self.groups(seats, &Shared { halves, whole })? {
                    poles += if group.quad { 4 } else { 2 };
                    let spaces = if group.quad { 2 } else { 1 };
                    if !group.came && !group.kept {
                        add([0, if group.quad { costs.price.quad } else { costs.price.tandem }, 0], 1);
                        let within: Halves = ((1u128 << (2 * spaces)) - 1) << (2 * group.space);
                        let form = if group.quad { "quad" } else { "tandem" };
                        if within & self.listed != within || !self.label(form, Guard::Standard) {
                            return Err(Trouble::Body(group.space));
                        }
                    }
                    let inside = &halves[2 * group.space..2 * (group.space + spaces)];
                    for (n, &index) in inside.iter().enumerate() {
                        // Who straddles is met twice.
                        if index == usize::MAX || inside[..n].contains(&index) {
                            continue;
                        }
                        let unit = &self.units[index];
                        match seats[index] {
                            Seat::Home if !group.kept && !group.came => {
                                if unit.fixed {
                                    return Err(Trouble::Body(group.space));
                                }
                                relanded.push(index);
                                add(costs.reland_pole, unit.poles as i64);
                            }
                            Seat::At(at) => {
                                let flipped = !unit.replaced && unit.home.is_some_and(|home| home.same_place(&at));
                                let newly = if group.quad { Way::Quad } else { Way::Tandem };
                                way = way.max(if group.came || flipped { Way::Relocate } else { newly });
                                let form = if group.quad { "quad" } else { "tandem" };
                                if unit.amps > self.most_amps(form) && !group.came && !group.kept {
                                    return Err(Trouble::Body(group.space));
                                }
                            }
                            _ => {}
                        }
                    }
                }
            }
        }
        if poles > self.problem.panel.listed_poles {
            return Err(Trouble::Poles);
        }
        let (heaviest, most) =
            legs[..self.legs].iter().copied().enumerate().max_by_key(|(n, sum)| (*sum, std::cmp::Reverse(*n))).unwrap_or((0, 0));
        if most > self.most_on_a_leg() {
            return Err(Trouble::Legs(heaviest));
        }
        let spread = self.spread(&legs);
        if self.max_diff.is_some_and(|diff| spread > diff) {
            return Err(Trouble::Apart);
        }
        Ok(Valued { cost: weights.of(effort) + weights.imbalance * spread, effort, way, relanded, legs, spread })
    }

    /// What a leg may carry after the plan, in tenths of an ampere.
    pub(super) fn most_on_a_leg(&self) -> i64 {
        if self.adds || self.level {
            self.limit
        } else {
            self.limit.max(self.before[..self.legs].iter().copied().max().unwrap_or(0))
        }
    }

    /// The price of its breaker over whole spaces.
    pub(super) fn whole_price(&self, unit: &Unit) -> i64 {
        let price = &self.problem.costs.price;
        let by = if unit.poles == 2 { &price.double } else { &price.single };
        by.get(unit.guard.key()).copied().unwrap_or(0)
    }

    /// Guests and hosts: the load goes to the host's leg.
    fn combined(&self, seats: &[Seat], legs: &mut [i64; 3]) -> Result<(), Trouble> {
        for (index, seat) in seats.iter().enumerate() {
            let (to, tap) = match *seat {
                Seat::Join(to) => (to, false),
                Seat::Tap(to) => (to, true),
                _ => continue,
            };
            let Some(at) = self.place(seats, to) else { return Err(Trouble::Combined) };
            let again =
                |(other, seat): (usize, &Seat)| other != index && matches!(*seat, Seat::Join(n) | Seat::Tap(n) if n == to);
            if seats.iter().enumerate().any(again) {
                return Err(Trouble::Combined);
            }
            if tap {
                if at.spot.shape != Shape::Full {
                    return Err(Trouble::Combined);
                }
                let reaches = self.units[index].home.is_some_and(|home| self.distance(&home, &at) <= self.units[index].slack);
                if !reaches {
                    return Err(Trouble::Reach(index));
                }
            }
            legs[self.leg[at.space]] += self.units[index].load[0];
        }
        Ok(())
    }

    fn in_the_sub_panel(&self, seats: &[Seat], legs: &mut [i64; 3]) -> Result<(), Trouble> {
        let (Some(feeder), Some(sub)) = (self.feeder, self.problem.sub) else { return Ok(()) };
        let Seat::At(at) = seats[feeder] else {
            return if seats.iter().any(|seat| matches!(seat, Seat::Sub(_))) { Err(Trouble::Sub) } else { Ok(()) };
        };
        let (mut spaces, mut load, mut any) = ([0i64; 2], [0i64; 2], false);
        for (index, seat) in seats.iter().enumerate() {
            let Seat::Sub(pole) = *seat else { continue };
            any = true;
            let unit = &self.units[index];
            for hot in 0..unit.poles {
                spaces[(pole + hot) % 2] += 1;
                load[(pole + hot) % 2] += unit.load[hot];
            }
        }
        if !any || spaces.iter().any(|n| *n > sub.spaces / 2) || load.iter().any(|n| *n > 8 * sub.feeder_amps) {
            return Err(Trouble::Sub);
        }
        for (leg, load) in load.into_iter().enumerate() {
            legs[self.leg[at.space + leg]] += load;
        }
        Ok(())
    }

    /// The tandems and quads after the plan.
    fn groups(&self, seats: &[Seat], shared: &Shared) -> Result<Vec<Group>, Trouble> {
        let spaces = self.spots.len();
        let split = |space: usize| {
            space < spaces && (shared.halves[2 * space] != usize::MAX || shared.halves[2 * space + 1] != usize::MAX)
        };
        // Which body stands over each space, by its topmost; a quad by a circuit that straddles.
        let mut quad_at = [false; MOST_SPACES + 1];
        for space in 0..spaces {
            for half in [2 * space, 2 * space + 1] {
                let index = shared.halves[half];
                if index != usize::MAX && self.units[index].poles == 2 {
                    let top = self.place(seats, index).map_or(space, |at| at.space);
                    quad_at[top] = true;
                }
            }
        }
        // Bodies that travel whole.
        let mut gone = [false; MOST_SPACES];
        let mut came: Vec<(usize, usize)> = Vec::new();
        for (number, body) in self.bodies.iter().enumerate() {
            if let Some(to) = self.travels(seats, body, shared) {
                gone[number] = true;
                came.push((to, number));
                if body.quad {
                    quad_at[to] = true;
                }
            }
        }
        // A quad at home that nobody straddles any more is kept while everyone in it fits.
        for (number, body) in self.bodies.iter().enumerate() {
            let beside = body.space > 0 && quad_at[body.space - 1] || quad_at[body.space] || quad_at[body.space + 1];
            let used = split(body.space) || split(body.space + 1);
            if body.quad && !gone[number] && !beside && used && self.fits(seats, body, shared) {
                quad_at[body.space] = true;
            }
        }
        let mut groups = Vec::new();
        let mut space = 0;
        while space < spaces {
            if quad_at[space] {
                if quad_at[space + 1] {
                    return Err(Trouble::Body(space));
                }
                groups.push(self.group(seats, shared, true, space, &gone, &came));
                space += 2;
            } else {
                if split(space) {
                    groups.push(self.group(seats, shared, false, space, &gone, &came));
                }
                space += 1;
            }
        }
        Ok(groups)
    }

    fn group(
        &self,
        seats: &[Seat],
        shared: &Shared,
        quad: bool,
        space: usize,
        gone: &[bool; MOST_SPACES],
        came: &[(usize, usize)],
    ) -> Group {
        let came = came.iter().any(|(to, body)| *to == space && self.bodies[*body].quad == quad);
        let kept = !came
            && self.bodies.iter().enumerate().any(|(number, body)| {
                body.space == space && body.quad == quad && !gone[number] && self.fits(seats, body, shared)
            });
        Group { quad, space, came, kept }
    }

    /// Whether everyone in the spaces of a body at home fits its handles.
    fn fits(&self, seats: &[Seat], body: &Body, shared: &Shared) -> bool {
        let fits = |(handle, amps): (usize, &i64)| {
            let index = shared.halves[2 * body.space + handle];
            if index == usize::MAX {
                return true;
            }
            let unit = &self.units[index];
            let tied = body.quad && if matches!(handle, 1 | 2) { body.inner_tied } else { body.outer_tied };
            let straddles_here = self.place(seats, index).is_some_and(|at| at.space == body.space);
            unit.amps == *amps && tied == (unit.poles == 2) && (unit.poles == 1 || straddles_here)
        };
        !shared.is_whole(body.space, body.amps.len() / 2) && body.amps.iter().enumerate().all(fits)
    }

    /// Where a body goes if all that is in it moves by the same step into the same halves, and nobody else is there.
    fn travels(&self, seats: &[Seat], body: &Body, shared: &Shared) -> Option<usize> {
        let mut to = None;
        for &member in &body.members {
            let home = self.units[member].home?;
            let Seat::At(at) = seats[member] else { return None };
            if at.spot.shape != home.spot.shape || self.units[member].replaced {
                return None;
            }
            let column = self.spots[body.space].0 as i64 + at.spot.column as i64 - home.spot.column as i64;
            let row = self.spots[body.space].1 as i64 + at.spot.row as i64 - home.spot.row as i64;
            let space = self.space(usize::try_from(column).ok()?, usize::try_from(row).ok()?)?;
            if space == body.space || to.is_some_and(|known| known != space) {
                return None;
            }
            to = Some(space);
        }
        let to = to?;
        let spaces = if body.quad { 2 } else { 1 };
        let inside = 2 * to..2 * (to + spaces);
        if inside.end > shared.halves.len() {
            return None;
        }
        let alone = !shared.is_whole(to, spaces);
        (alone && shared.halves[inside].iter().all(|index| *index == usize::MAX || body.members.contains(index))).then_some(to)
    }
}

/// Whether a half is of a thin breaker or of one that straddles two spaces.
fn half_form(shape: Shape) -> u8 {
    match shape {
        Shape::Full => 0,
        Shape::Upper | Shape::Lower => 1,
        Shape::Inner | Shape::Outer => 2,
    }
}
