//! The search: for one kind of way the cheapest plan, by branch and bound over what the panel could be afterwards.
//!
//! What has to be landed is tried in its places by rising cost; what stands there is sent away and has to find another place. Once
//! everything has one, the plan is valued; a rule that it breaks says which further changes can mend it, and only those are tried.
//! A finished plan is changed further only where that can repay itself: by evener legs, by a tandem that travels whole, or by one less that is bought.

mod bounds;

use indexmap::IndexSet;

use super::choices::Choice;
use super::problem::*;
use super::setup::*;
use super::value::{Trouble, Valued};

/// What was found for one kind.
#[derive(Debug, Clone)]
pub(super) struct Cheapest {
    pub(super) seats: Vec<Seat>,
    pub(super) valued: Valued,
}

/// How the search for one kind ended.
#[derive(Debug)]
pub(super) enum Ended {
    /// With the cheapest plan, or with one and what any plan of the kind costs at least where the search had to stop.
    Found { plan: Cheapest, at_least: Option<i64> },
    /// There is none.
    None,
    /// Too many poles, whatever is done.
    Poles,
    /// The search had to stop, and no plan was found; any plan of the kind costs at least this.
    Unknown(i64),
}

/// Above the least that a plan of the kind can cost: how far the search looks, step by step.
const CEILINGS: [i64; 5] = [1500, 4000, 9000, 20_000, i64::MAX / 4];

/// A plan in the making.
#[derive(Debug, Clone, Copy)]
struct Node {
    /// Taken by what is settled.
    settled: Halves,
    /// Taken by what is still at home.
    home: Halves,
    /// Of what is settled.
    cost: i64,
    pending: u128,
    touched: usize,
    splices: i64,
    buys: u64,
    /// A move of the kind is among what is settled, or may turn out to be.
    of_kind: bool,
    /// Something goes to the sub-panel.
    to_sub: bool,
    hash: u128,
}

pub(super) struct Search<'a> {
    setup: &'a Setup<'a>,
    choices: &'a [Vec<Choice>],
    way: Way,
    seats: Vec<Seat>,
    /// Circuit by circuit: the guest on its breaker, and whether it is under the terminal.
    guests: Vec<Option<(usize, bool)>>,
    /// The least that each circuit costs if it has to move; with a move of the kind; to the sub-panel.
    least: Vec<i64>,
    least_of_kind: Vec<i64>,
    least_to_sub: Vec<i64>,
    /// The fewest halves that each circuit takes if it has to move.
    fewest: Vec<u32>,
    body_of_space: i64,
    /// A plan has to be cheaper than this.
    below: i64,
    best: Option<Cheapest>,
    seen: IndexSet<u128>,
    steps: u64,
    most_steps: u64,
}

fn mixed(mut x: u64) -> u64 {
    x = x.wrapping_add(0x9E37_79B9_7F4A_7C15);
    x = (x ^ (x >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
    x = (x ^ (x >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
    x ^ (x >> 31)
}

/// The mark of a circuit with a choice, or of one that is pending.
fn mark(unit: usize, choice: usize) -> u128 {
    let seed = ((unit as u64) << 32) | choice as u64;
    u128::from(mixed(seed)) << 64 | u128::from(mixed(!seed))
}

const PENDING: usize = 0xFFFF_FFFF;
const OUT: usize = 0xFFFF_FFFE;
const NEVER: i64 = i64::MAX / 8;

fn bits(mut set: u128) -> impl Iterator<Item = usize> {
    std::iter::from_fn(move || {
        (set != 0).then(|| {
            let bit = set.trailing_zeros() as usize;
            set &= set - 1;
            bit
        })
    })
}

impl<'a> Search<'a> {
    /// Looks for the cheapest plan of a kind, at most so many steps.
    pub(super) fn run(setup: &'a Setup<'a>, choices: &'a [Vec<Choice>], way: Way, most_steps: u64) -> Ended {
        let fits = |choice: &&Choice| choice.ways.0 <= way;
        let least = |list: &[Choice], also: &dyn Fn(&Choice) -> bool| {
            list.iter().filter(fits).filter(|c| also(c)).map(|c| c.cost).min().unwrap_or(NEVER)
        };
        let price = &setup.problem.costs.price;
        let quads = way >= Way::Quad && setup.label("quad", Guard::Standard);
        let a_body = if quads { (2 * price.tandem).min(price.quad) } else { 2 * price.tandem };
        let mut search = Self {
            setup,
            choices,
            way,
            seats: vec![Seat::Home; setup.units.len()],
            guests: vec![None; setup.units.len()],
            least: choices.iter().map(|list| least(list, &|_| true)).collect(),
            least_of_kind: choices.iter().map(|list| least(list, &|c| c.ways.0 <= way && way <= c.ways.1)).collect(),
            least_to_sub: choices.iter().map(|list| least(list, &|c| matches!(c.seat, Seat::Sub(_)))).collect(),
            fewest: choices
                .iter()
                .map(|list| list.iter().filter(fits).map(|c| c.halves.count_ones()).min().unwrap_or(2))
                .collect(),
            body_of_space: setup.problem.weights.of([0, a_body, 0]) / 2,
            below: 0,
            best: None,
            seen: IndexSet::new(),
            steps: 0,
            most_steps,
        };
        let root = search.root();
        if search.too_many_poles(&root) {
            return Ended::Poles;
        }
        let bound = search.bound(&root);
        if bound >= NEVER {
            return Ended::None;
        }
        let mut at_least = bound;
        for ceiling in CEILINGS {
            search.below = bound.saturating_add(ceiling).saturating_add(1);
            search.seen.clear();
            search.step(root);
            let proven = search.steps <= search.most_steps;
            if let Some(plan) = search.best.take() {
                return Ended::Found { plan, at_least: (!proven).then_some(at_least) };
            }
            if !proven {
                return search.any_plan(root, at_least);
            }
            at_least = search.below;
        }
        Ended::None
    }

    /// The steps have run out before a plan was found: any plan is better than none, and it is said how far from the best it may be.
    fn any_plan(mut self, root: Node, at_least: i64) -> Ended {
        self.steps = 0;
        self.below = NEVER;
        self.seen.clear();
        self.step(root);
        match self.best.take() {
            Some(plan) => Ended::Found { plan, at_least: Some(at_least) },
            None => Ended::Unknown(at_least),
        }
    }

    fn root(&mut self) -> Node {
        let setup = self.setup;
        let mut node = Node {
            settled: 0,
            home: 0,
            cost: setup.problem.weights.of(setup.problem.costs.open),
            pending: 0,
            touched: 0,
            splices: 0,
            buys: 0,
            of_kind: false,
            to_sub: self.way != Way::Sub,
            hash: 0,
        };
        for (index, unit) in setup.units.iter().enumerate() {
            let pending = match unit.role {
                Role::Existing => unit.replaced,
                Role::Feeder => self.way == Way::Sub,
                Role::New | Role::Gap => true,
            };
            if pending {
                self.seats[index] = Seat::Pending;
                node.pending |= 1 << index;
                node.hash ^= mark(index, PENDING);
                node.touched += usize::from(unit.role == Role::Existing);
            } else if let Some(home) = unit.home {
                node.home |= home.halves;
            } else {
                self.seats[index] = Seat::Out;
            }
        }
        node
    }

    fn step(&mut self, node: Node) {
        self.steps += 1;
        if self.steps > self.most_steps || self.bound(&node) >= self.below || !self.seen.insert(node.hash) {
            return;
        }
        if self.hopeless(&node) || self.too_many_poles(&node) {
            return;
        }
        if node.pending != 0 {
            self.land(node);
            return;
        }
        let trouble = self.setup.value(&self.seats);
        let valued = match trouble {
            Ok(valued) => valued,
            Err(trouble) => {
                if !node.of_kind {
                    self.of_kind(node);
                } else {
                    self.mend(node, trouble);
                }
                return;
            }
        };
        if valued.way < self.way {
            self.of_kind(node);
            return;
        }
        if valued.way > self.way {
            self.bodies_apart(node, None);
            return;
        }
        if valued.cost < self.below {
            self.below = valued.cost;
            self.best = Some(Cheapest { seats: self.seats.clone(), valued: valued.clone() });
        }
        self.improve(node, &valued);
    }

    /// The next of what is pending, in each of its places.
    fn land(&mut self, node: Node) {
        let first = |index: &usize| match self.setup.units[*index].role {
            Role::Feeder => 0,
            Role::Gap => 1,
            Role::New => 2,
            Role::Existing if self.setup.units[*index].replaced => 3,
            Role::Existing => 6 - self.setup.units[*index].poles,
        };
        let Some(index) = bits(node.pending).min_by_key(first) else { return };
        self.branch(node, |_, unit, _| unit == index, index..index + 1);
    }

    /// Further changes that bring a move of the kind.
    fn of_kind(&mut self, node: Node) {
        let way = self.way;
        self.branch(node, |_, _, choice| choice.ways.0 <= way && way <= choice.ways.1, 0..self.setup.existing);
    }

    /// Circuits in halves that leave them.
    fn bodies_apart(&mut self, node: Node, around: Option<usize>) {
        let near: Halves = match around {
            Some(space) => {
                let from = 2 * space.saturating_sub(1);
                0xFF_u128.checked_shl(from as u32).unwrap_or(0)
            }
            None => Halves::MAX,
        };
        let serves = |search: &Self, unit: usize, _: &Choice| {
            search.setup.units[unit].home.is_some_and(|home| home.spot.shape != Shape::Full && home.halves & near != 0)
        };
        self.branch(node, serves, 0..self.setup.existing);
    }

    /// Further changes that can mend what is wrong.
    fn mend(&mut self, node: Node, trouble: Trouble) {
        let all = 0..self.setup.existing;
        match trouble {
            Trouble::Past | Trouble::Combined => {}
            Trouble::Body(space) => self.bodies_apart(node, Some(space)),
            Trouble::Reach(guest) => {
                let (Seat::Tap(host), Some(home)) = (self.seats[guest], self.setup.units[guest].home) else { return };
                let slack = self.setup.units[guest].slack;
                let serves = |search: &Self, unit: usize, choice: &Choice| {
                    unit == host && matches!(choice.seat, Seat::At(at) if search.setup.distance(&home, &at) <= slack)
                };
                self.branch(node, serves, host..host + 1);
            }
            Trouble::Poles => {
                let serves = |search: &Self, unit: usize, choice: &Choice| {
                    let from_half = search.setup.units[unit].home.is_some_and(|home| home.spot.shape != Shape::Full);
                    from_half || !matches!(choice.seat, Seat::At(at) if at.spot.shape == Shape::Full)
                };
                self.branch(node, serves, all);
            }
            Trouble::Sub => {
                if !node.to_sub {
                    self.branch(node, |_, _, choice| matches!(choice.seat, Seat::Sub(_)), all);
                }
            }
            Trouble::Legs(leg) => {
                let serves = |search: &Self, unit: usize, choice: &Choice| {
                    let (before, after) = search.legs_of(unit, choice);
                    after[leg] < before[leg]
                };
                self.branch(node, serves, all);
            }
            Trouble::Apart => {
                let legs = self.legs_now();
                self.branch(node, |search, unit, choice| search.evens(&legs, unit, choice), all);
            }
        }
    }

    /// What a finished plan may gain by one change more: evener legs, or a tandem that travels whole.
    fn improve(&mut self, node: Node, valued: &Valued) {
        let gain = self.setup.problem.weights.imbalance * valued.spread;
        // The legs can come to nothing apart at best; then the plan costs this much less, and a change more.
        let without = valued.cost - gain;
        let legs = valued.legs;
        let (weights, costs) = (&self.setup.problem.weights, &self.setup.problem.costs);
        let body_gain = weights.of([0, costs.price.quad.max(costs.price.tandem), 0]) + 2 * weights.of(costs.reland_pole);
        let cheapest =
            self.least.iter().enumerate().filter(|(i, _)| self.seats[*i] == Seat::Home).map(|(_, c)| *c).min().unwrap_or(NEVER);
        if gain > 0 && without + cheapest < self.below {
            let below = self.below;
            self.branch(
                node,
                |search, unit, choice| without + choice.cost < below && search.evens(&legs, unit, choice),
                0..self.setup.existing,
            );
        }
        if self.setup.bodies.is_empty() || valued.cost - body_gain - gain + cheapest >= self.below {
            return;
        }
        // What is landed again because its quad was broken up needs no tandem where it leaves its half, too.
        let relanded = valued.relanded.clone();
        let mates = |search: &Self, unit: usize, choice: &Choice| {
            let setup = search.setup;
            if relanded.contains(&unit) {
                return true;
            }
            let (Some(body), Some(home), Seat::At(to)) = (setup.units[unit].body, setup.units[unit].home, choice.seat) else {
                return false;
            };
            home.spot.shape == to.spot.shape
                && setup.bodies[body].members.iter().any(|&mate| {
                    let (Some(was), Seat::At(is)) = (setup.units[mate].home, search.seats[mate]) else { return false };
                    mate != unit
                        && is.spot.shape == was.spot.shape
                        && is.space as i64 - was.space as i64 == to.space as i64 - home.space as i64
                })
        };
        self.branch(node, mates, 0..self.setup.existing);
    }

    /// Tries every choice that serves, by rising cost, of these circuits that are still at home or pending.
    fn branch(&mut self, node: Node, serves: impl Fn(&Self, usize, &Choice) -> bool, among: std::ops::Range<usize>) {
        let max_touched = self.setup.problem.max_touched;
        let mut tries: Vec<(i64, u32, u32)> = Vec::new();
        let waiting: i64 = bits(node.pending).map(|index| self.least[index]).sum();
        let so_far = node.cost + i64::from(node.buys.count_ones()) * self.body_of_space + waiting;
        let legs_now = self.legs_now();
        let most = self.setup.most_on_a_leg();
        let mut looked_at = 0;
        for unit in among {
            let pending = match self.seats[unit] {
                Seat::Pending => true,
                Seat::Home => false,
                _ => continue,
            };
            if !pending && !self.setup.units[unit].spare && node.touched >= max_touched {
                continue;
            }
            let so_far = if pending { so_far - self.least[unit] } else { so_far };
            for (number, choice) in self.choices[unit].iter().enumerate() {
                if so_far + choice.cost >= self.below {
                    // Those after it cost no less.
                    break;
                }
                looked_at += 1;
                if choice.ways.0 > self.way || choice.halves & node.settled != 0 || !self.seat_is_open(unit, choice) {
                    continue;
                }
                if !serves(self, unit, choice) {
                    continue;
                }
                if let Some(after) = self.after(&node, unit, number, pending) {
                    let bound = after.cost
                        + i64::from(after.buys.count_ones()) * self.body_of_space
                        + bits(after.pending).map(|index| self.least[index]).sum::<i64>();
                    // The last touch: the legs are as they will be.
                    let last = after.pending == 0 && after.touched >= max_touched;
                    if bound < self.below && !(last && self.legs_fail(&legs_now, most, unit, choice, pending)) {
                        tries.push((bound, unit as u32, number as u32));
                    }
                }
            }
        }
        // Looking at a choice is work, too.
        self.steps += looked_at / 64;
        tries.sort_unstable();
        for (bound, unit, number) in tries {
            if bound >= self.below || self.steps > self.most_steps {
                return;
            }
            let (unit, number) = (unit as usize, number as usize);
            let pending = self.seats[unit] == Seat::Pending;
            let Some(after) = self.after(&node, unit, number, pending) else { continue };
            let choice = &self.choices[unit][number];
            let was = self.seats[unit];
            let mut sent_away: [usize; 16] = [usize::MAX; 16];
            let mut count = 0;
            if choice.halves & node.home != 0 {
                for half in bits(choice.halves & node.home) {
                    let other = self.setup.in_half[half];
                    if other != unit && self.seats[other] == Seat::Home {
                        sent_away[count] = other;
                        count += 1;
                        self.seats[other] = if self.setup.units[other].spare { Seat::Out } else { Seat::Pending };
                    }
                }
            }
            self.seats[unit] = choice.seat;
            let guest = match choice.seat {
                Seat::Join(host) => Some((host, false)),
                Seat::Tap(host) => Some((host, true)),
                _ => None,
            };
            if let Some((host, tap)) = guest {
                self.guests[host] = Some((unit, tap));
            }
            self.step(after);
            if let Some((host, _)) = guest {
                self.guests[host] = None;
            }
            self.seats[unit] = was;
            for other in &sent_away[..count] {
                self.seats[*other] = Seat::Home;
            }
        }
    }

    /// Whether guests and hosts allow it.
    fn seat_is_open(&self, unit: usize, choice: &Choice) -> bool {
        if let Some((_, tap)) = self.guests[unit]
            && !matches!(choice.seat, Seat::At(at) if !tap || at.spot.shape == Shape::Full)
        {
            return false;
        }
        match choice.seat {
            Seat::Join(host) | Seat::Tap(host) => {
                let tap = matches!(choice.seat, Seat::Tap(_));
                self.guests[host].is_none()
                    && match self.seats[host] {
                        Seat::Home | Seat::Pending => true,
                        Seat::At(at) => !tap || at.spot.shape == Shape::Full,
                        _ => false,
                    }
            }
            Seat::Sub(_) => self.setup.feeder.is_some_and(|feeder| self.seats[feeder] != Seat::Out),
            _ => true,
        }
    }

    /// The node after a choice; `None` where it would send away what may not be touched, or touch too much.
    fn after(&self, node: &Node, unit: usize, number: usize, pending: bool) -> Option<Node> {
        let setup = self.setup;
        let choice = &self.choices[unit][number];
        let mut after = *node;
        let own = setup.units[unit].home.map_or(0, |home| home.halves);
        if pending {
            after.pending &= !(1 << unit);
            after.hash ^= mark(unit, PENDING);
        } else {
            after.home &= !own;
            after.touched += usize::from(!setup.units[unit].spare);
        }
        after.hash ^= mark(unit, if choice.seat == Seat::Out { OUT } else { number });
        after.settled |= choice.halves;
        after.cost += choice.cost;
        after.buys |= choice.buys;
        after.splices += choice.splices;
        after.of_kind |= choice.ways.0 <= self.way && self.way <= choice.ways.1;
        after.to_sub |= matches!(choice.seat, Seat::Sub(_));
        while let Some(half) = bits(choice.halves & after.home).next() {
            let other = setup.in_half[half];
            let sent = &setup.units[other];
            if sent.fixed || sent.uncounted {
                return None;
            }
            after.home &= !sent.home.map_or(0, |home| home.halves);
            if sent.spare {
                after.cost += setup.problem.weights.of(setup.problem.costs.take_out);
                after.hash ^= mark(other, OUT);
            } else {
                after.pending |= 1 << other;
                after.touched += 1;
                after.hash ^= mark(other, PENDING);
            }
        }
        (after.touched <= setup.problem.max_touched && after.splices <= setup.problem.panel.splice_room).then_some(after)
    }
}
