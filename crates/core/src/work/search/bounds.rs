//! What can be said of a plan in the making without going on: the least it costs, and whether it can still keep the rules.

use super::{NEVER, Node, Search, bits};
use crate::work::choices::Choice;
use crate::work::problem::Way;
use crate::work::setup::{Role, Seat};

impl Search<'_> {
    /// The least that a plan from here on costs.
    pub(super) fn bound(&self, node: &Node) -> i64 {
        let mut cost = node.cost + i64::from(node.buys.count_ones()) * self.body_of_space;
        for index in bits(node.pending) {
            cost += self.least[index];
        }
        if cost >= NEVER {
            return NEVER;
        }
        let spare_touch = node.touched < self.setup.problem.max_touched;
        let cheapest = |least: &[i64]| {
            let mut more = NEVER;
            for (index, seat) in self.seats.iter().enumerate() {
                match seat {
                    Seat::Pending if least[index] < NEVER => more = more.min(least[index] - self.least[index]),
                    Seat::Home if spare_touch || self.setup.units[index].spare => more = more.min(least[index]),
                    _ => {}
                }
            }
            more
        };
        let mut more = 0;
        if !node.of_kind {
            more = cheapest(&self.least_of_kind);
        }
        if !node.to_sub {
            more = more.max(cheapest(&self.least_to_sub));
        }
        cost + more
    }

    /// Whether more poles are left than are listed, whatever else is done.
    pub(super) fn too_many_poles(&self, node: &Node) -> bool {
        let mut poles = 0i64;
        for (index, seat) in self.seats.iter().enumerate() {
            let unit = &self.setup.units[index];
            let counts = match seat {
                Seat::Home => !unit.spare,
                Seat::At(_) => true,
                Seat::Pending => self.fewest[index] > 0,
                _ => false,
            };
            if counts && !unit.uncounted && unit.role != Role::Gap {
                poles += unit.poles as i64;
            }
        }
        let left = (self.setup.problem.max_touched - node.touched.min(self.setup.problem.max_touched)) as i64;
        let saved = match self.way {
            Way::Sub => 2,
            Way::Tap | Way::Join => 1,
            _ => 0,
        };
        poles - left * saved > self.setup.problem.panel.listed_poles
    }

    /// Whether what is pending finds no room, or a leg stays too heavy, whatever else is done.
    pub(super) fn hopeless(&self, node: &Node) -> bool {
        let setup = self.setup;
        let left = setup.problem.max_touched - node.touched;
        let (mut need, mut spares) = (0u32, 0u32);
        let mut saved = [0u32; 8];
        let mut legs = [0i64; 3];
        let mut lightened = [[0i64; 8]; 3];
        let keep = |most: &mut [i64; 8], what: i64| {
            let mut what = what;
            for kept in most.iter_mut() {
                if what > *kept {
                    std::mem::swap(kept, &mut what);
                }
            }
        };
        for (index, seat) in self.seats.iter().enumerate() {
            let unit = &setup.units[index];
            let at = match seat {
                Seat::Pending => {
                    need += self.fewest[index];
                    continue;
                }
                Seat::Home => match unit.home {
                    Some(home) => home,
                    None => continue,
                },
                Seat::At(at) => *at,
                _ => continue,
            };
            let mut on = setup.on_legs(index, &at);
            if let Some((guest, _)) = self.guests[index] {
                on[setup.leg[at.space]] += setup.units[guest].load[0];
            }
            for (sum, more) in legs.iter_mut().zip(on) {
                *sum += more;
            }
            if *seat == Seat::Home && !unit.fixed && !unit.uncounted {
                if unit.spare {
                    spares += at.halves.count_ones();
                } else {
                    let mut less = at.halves.count_ones().saturating_sub(self.fewest[index]);
                    for kept in &mut saved {
                        if less > *kept {
                            std::mem::swap(kept, &mut less);
                        }
                    }
                    for (leg, on) in on.iter().enumerate() {
                        keep(&mut lightened[leg], *on);
                    }
                }
            }
        }
        let all = 2 * setup.spots.len() as u32;
        let free = all - (node.settled | node.home).count_ones();
        let left = left.min(8);
        if need > free + spares + saved[..left].iter().sum::<u32>() {
            return true;
        }
        let most = setup.most_on_a_leg();
        if (0..setup.legs).any(|leg| legs[leg] - lightened[leg][..left].iter().sum::<i64>() > most) {
            return true;
        }
        node.pending == 0 && setup.legs == 2 && !self.can_even_out(self.legs_now(), left)
    }

    /// Whether two legs come within what is allowed by so many changes, wherever these find room.
    pub(super) fn can_even_out(&self, legs: [i64; 3], left: usize) -> bool {
        let setup = self.setup;
        let apart = legs[0] - legs[1];
        let within = setup.max_diff.unwrap_or(i64::MAX).min(2 * setup.most_on_a_leg() - legs[0] - legs[1]);
        if apart.abs() <= within {
            return true;
        }
        // By how much each circuit at home can bring the legs nearer to each other: its load goes over to the other leg.
        let mut shifts: Vec<i64> = Vec::new();
        for (index, seat) in self.seats.iter().enumerate() {
            let unit = &setup.units[index];
            let (Seat::Home, Some(home)) = (seat, unit.home) else { continue };
            if unit.fixed || unit.uncounted || unit.spare {
                continue;
            }
            let mut on = setup.on_legs(index, &home);
            if let Some((guest, _)) = self.guests[index] {
                on[setup.leg[home.space]] += setup.units[guest].load[0];
            }
            let shift = 2 * (on[0] - on[1]);
            if shift != 0 {
                shifts.push(shift);
            }
        }
        let reached = |shift: i64| (apart - shift).abs() <= within;
        match left {
            0 => false,
            1 => shifts.iter().any(|shift| reached(*shift)),
            2 => {
                shifts.sort_unstable();
                let pair = |first: &i64| {
                    // The second has to lie between these two; a circuit is no pair with itself, but that only lets more through.
                    let (from, to) = (apart - within - first, apart + within - first);
                    shifts.get(shifts.partition_point(|shift| *shift < from)).is_some_and(|shift| *shift <= to)
                };
                shifts.iter().any(|shift| reached(*shift) || pair(shift))
            }
            _ => true,
        }
    }

    /// What a circuit with its guest puts on the legs now, and what after the choice.
    pub(super) fn legs_of(&self, unit: usize, choice: &Choice) -> ([i64; 3], [i64; 3]) {
        let setup = self.setup;
        let guest = self.guests[unit].map_or(0, |(guest, _)| setup.units[guest].load[0]);
        let mut before = [0; 3];
        if let Some(home) = setup.units[unit].home {
            before = setup.on_legs(unit, &home);
            before[setup.leg[home.space]] += guest;
        }
        let mut after = choice.legs;
        match choice.seat {
            Seat::At(at) => after[setup.leg[at.space]] += guest,
            Seat::Join(host) | Seat::Tap(host) => {
                if let Some(at) = setup.place(&self.seats, host) {
                    after[setup.leg[at.space]] += setup.units[unit].load[0];
                }
            }
            Seat::Sub(pole) => {
                if let Some(Seat::At(at)) = setup.feeder.map(|feeder| self.seats[feeder]) {
                    for hot in 0..setup.units[unit].poles {
                        after[setup.leg[at.space + (pole + hot) % 2]] += setup.units[unit].load[hot];
                    }
                }
            }
            _ => {}
        }
        (before, after)
    }

    pub(super) fn legs_now(&self) -> [i64; 3] {
        let setup = self.setup;
        let mut legs = [0; 3];
        for index in 0..self.seats.len() {
            let Some(at) = setup.place(&self.seats, index) else { continue };
            let mut on = setup.on_legs(index, &at);
            if let Some((guest, _)) = self.guests[index] {
                on[setup.leg[at.space]] += setup.units[guest].load[0];
            }
            for (sum, more) in legs.iter_mut().zip(on) {
                *sum += more;
            }
        }
        if let Some(Seat::At(at)) = setup.feeder.map(|feeder| self.seats[feeder]) {
            for (index, seat) in self.seats.iter().enumerate() {
                if let Seat::Sub(pole) = seat {
                    for hot in 0..setup.units[index].poles {
                        legs[setup.leg[at.space + (pole + hot) % 2]] += setup.units[index].load[hot];
                    }
                }
            }
        }
        legs
    }

    /// Whether a change lightens the heaviest leg or loads the lightest: evener legs need at least one that does.
    pub(super) fn evens(&self, legs: &[i64; 3], unit: usize, choice: &Choice) -> bool {
        let (before, after) = self.legs_of(unit, choice);
        let count = self.setup.legs;
        let most = legs[..count].iter().max().copied().unwrap_or(0);
        let least = legs[..count].iter().min().copied().unwrap_or(0);
        let heaviest = (0..count).find(|leg| legs[*leg] == most).unwrap_or(0);
        let lightest = (0..count).find(|leg| legs[*leg] == least).unwrap_or(0);
        after[heaviest] < before[heaviest] || after[lightest] > before[lightest]
    }

    /// Whether the legs break a rule once this choice is made and nothing else changes.
    pub(super) fn legs_fail(&self, now: &[i64; 3], most: i64, unit: usize, choice: &Choice, pending: bool) -> bool {
        let (before, after) = self.legs_of(unit, choice);
        let mut legs = *now;
        for leg in 0..self.setup.legs {
            legs[leg] += after[leg] - if pending { 0 } else { before[leg] };
        }
        legs[..self.setup.legs].iter().any(|sum| *sum > most)
            || self.setup.max_diff.is_some_and(|diff| self.setup.spread(&legs) > diff)
    }
}
