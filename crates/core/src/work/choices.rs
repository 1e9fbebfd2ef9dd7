//! What may become of each circuit: every seat it can take, what that costs at least, and of which kinds it can be.

use super::problem::*;
use super::setup::*;

/// A seat that a circuit can take.
#[derive(Debug, Clone)]
pub(super) struct Choice {
    pub(super) seat: Seat,
    /// The halves it takes.
    pub(super) halves: Halves,
    /// What it costs at least, its tandem or quad apart.
    pub(super) cost: i64,
    /// The spaces for which a tandem or a quad has to be bought, whatever else is done.
    pub(super) buys: u64,
    /// The kinds of which the move can be, from the first to the last.
    pub(super) ways: (Way, Way),
    pub(super) splices: i64,
    /// What it puts on the legs; a guest and what goes to the sub-panel put it where the host and the feeder are.
    pub(super) legs: [i64; 3],
}

impl Setup<'_> {
    /// All seats of all circuits but the ones they have.
    pub(super) fn choices(&self) -> Vec<Vec<Choice>> {
        (0..self.units.len()).map(|index| self.choices_of(index)).collect()
    }

    fn choices_of(&self, index: usize) -> Vec<Choice> {
        let unit = &self.units[index];
        let (costs, weights) = (&self.problem.costs, &self.problem.weights);
        let mut choices = Vec::new();
        if unit.fixed || unit.uncounted {
            return choices;
        }
        let plain = |seat, cost, way, splices| Choice { seat, halves: 0, cost, buys: 0, ways: (way, way), splices, legs: [0; 3] };
        if unit.spare {
            choices.push(plain(Seat::Out, weights.of(costs.take_out), Way::Open, 0));
            return choices;
        }
        for (column, rows) in self.problem.panel.columns.iter().enumerate() {
            for row in 0..rows.len() {
                for shape in [Shape::Full, Shape::Upper, Shape::Lower, Shape::Inner, Shape::Outer] {
                    let Some(at) = self.at(column, row, shape, unit.poles) else { continue };
                    if !self.takes(unit, &at) {
                        continue;
                    }
                    let differ = unit.role != Role::Gap && unit.poles == 2 && unit.load[0] != unit.load[1];
                    for flip in [false, true] {
                        let same = unit.home.is_some_and(|home| home.same_place(&at)) && !unit.replaced;
                        if flip && !differ || !flip && same {
                            continue;
                        }
                        choices.push(self.landing(index, At { flip, ..at }));
                    }
                }
            }
        }
        if self.feeder.is_some() && matches!(unit.role, Role::Existing | Role::New) && unit.conductors < 2 {
            let price = weights.of([0, self.whole_price(unit), 0]);
            let (cost, splices) = match unit.role {
                Role::New => (weights.of(costs.new) + price, 0),
                _ => {
                    let poles = weights.of(costs.to_sub_pole) * unit.poles as i64;
                    (weights.of(costs.to_sub) + poles + price, unit.poles as i64)
                }
            };
            let turns = if unit.poles == 2 && unit.load[0] == unit.load[1] { 1 } else { 2 };
            choices.extend((0..turns).map(|pole| plain(Seat::Sub(pole), cost, Way::Sub, splices)));
        }
        for host in 0..self.existing {
            if host == index || !self.may_host(unit, &self.units[host]) {
                continue;
            }
            let more = i64::from(self.units[host].guard != Guard::Standard);
            let cost = weights.of(costs.join) + weights.of(costs.join_neutral) * more;
            choices.push(plain(Seat::Join(host), cost, Way::Join, 1 + more));
            if self.may_tap(unit, &self.units[host]) {
                choices.push(plain(Seat::Tap(host), weights.of(costs.tap), Way::Tap, 0));
            }
        }
        choices.sort_by_key(|choice| choice.cost);
        choices
    }

    /// Whether two circuits may be combined on the host's breaker by a splice.
    pub(super) fn may_host(&self, guest: &Unit, host: &Unit) -> bool {
        guest.combines()
            && host.combines()
            && host.amps <= guest.wire_amps.min(host.wire_amps)
            && guest.demand() + host.demand() <= host.amps * 1000
            && host.guard.covers(guest.guard)
    }

    /// Whether the guest may go under the host's terminal, where the two may be combined at all.
    pub(super) fn may_tap(&self, guest: &Unit, host: &Unit) -> bool {
        host.terminal >= 2
            && host.awg == guest.awg
            && host.guard == Guard::Standard
            && host.home.is_some_and(|home| home.spot.shape == Shape::Full)
    }

    /// Whether a breaker of this circuit may stand in this place, by label, listing and legs.
    fn takes(&self, unit: &Unit, at: &At) -> bool {
        if unit.role == Role::Gap {
            return at.spot.shape == Shape::Full;
        }
        if unit.poles == 2 && self.leg[at.space] == self.leg[at.space + 1] {
            return false;
        }
        let slim = self.problem.panel.slim;
        let spaces: Halves = (if unit.poles == 2 { 0b1111 } else { 0b11 }) << (2 * at.space);
        let listed = self.listed & spaces == spaces;
        let plain = unit.guard == Guard::Standard;
        match at.spot.shape {
            Shape::Full => {
                let brings = unit.home.is_some_and(|home| !unit.replaced && home.spot.shape == Shape::Full);
                brings || self.label(if unit.poles == 2 { "double" } else { "single" }, unit.guard)
            }
            _ if unit.conductors >= 2 || !listed || unit.role == Role::Feeder => false,
            Shape::Upper | Shape::Lower if slim => self.label("tandem", unit.guard) && unit.amps <= self.most_amps("tandem"),
            Shape::Upper | Shape::Lower => {
                let tandem = self.label("tandem", Guard::Standard) && unit.amps <= self.most_amps("tandem");
                let quad = self.label("quad", Guard::Standard) && unit.amps <= self.most_amps("quad");
                plain && (tandem || quad)
            }
            Shape::Inner if slim => self.label("slim", unit.guard) && unit.amps <= self.most_amps("slim"),
            Shape::Inner | Shape::Outer => {
                !slim && plain && self.label("quad", Guard::Standard) && unit.amps <= self.most_amps("quad")
            }
        }
    }

    fn landing(&self, index: usize, at: At) -> Choice {
        let unit = &self.units[index];
        let (costs, weights) = (&self.problem.costs, &self.problem.weights);
        let splices = if unit.role == Role::Existing { self.extended(unit, &at) } else { 0 };
        let mut cost = match unit.role {
            Role::New => weights.of(costs.new),
            Role::Gap => weights.of(costs.gap),
            Role::Feeder => weights.of(costs.sub),
            Role::Existing => {
                weights.of(costs.moved) + weights.of(costs.move_pole) * unit.poles as i64 + weights.of(costs.splice) * splices
            }
        };
        let existing = unit.role == Role::Existing;
        let same_place = !unit.replaced && unit.home.is_some_and(|home| home.same_place(&at));
        // Somebody may leave a breaker here that does.
        let may_be_left = self.units[..self.existing].iter().any(|other| {
            other.home.is_some_and(|home| home.same_place(&at)) && other.home_breaker == (unit.poles, unit.amps, unit.guard)
        });
        let mut buys = 0;
        let ways = if at.spot.shape == Shape::Full {
            let brings = unit.home.is_some_and(|home| !unit.replaced && home.spot.shape == Shape::Full) || unit.role == Role::Gap;
            if !brings && !may_be_left {
                cost += weights.of([0, self.whole_price(unit), 0]);
            }
            let in_place = unit.replaced && unit.home.is_some_and(|home| home.halves & at.halves == home.halves);
            let way = match unit.role {
                Role::Feeder => Way::Sub,
                Role::Existing if !in_place => Way::Relocate,
                _ => Way::Open,
            };
            (way, way)
        } else if self.problem.panel.slim {
            let same = !unit.replaced
                && unit.home.is_some_and(|home| {
                    home.spot.shape != Shape::Full && (home.spot.shape == Shape::Inner) == (at.spot.shape == Shape::Inner)
                });
            if !same {
                let price = if unit.poles == 2 { costs.price.slim } else { costs.price.thin };
                cost += weights.of([0, price, 0]);
            }
            let newly = if unit.poles == 2 { Way::Slim } else { Way::Tandem };
            let way = if same { Way::Relocate } else { newly };
            (way, way)
        } else {
            let travels = existing
                && !unit.replaced
                && unit.body.is_some()
                && unit.home.is_some_and(|home| home.spot.shape == at.spot.shape);
            let kept = self.bodies.iter().any(|body| {
                let spaces = if body.quad { 2 } else { 1 };
                (body.space..body.space + spaces).contains(&at.space)
                    && (unit.poles == 1 || body.quad && body.space == at.space)
                    && body.amps.contains(&unit.amps)
            });
            if !travels && !kept {
                let spaces: u64 = if unit.poles == 2 { 0b11 } else { 0b1 };
                buys = spaces << at.space;
            }
            let first = match () {
                () if same_place || travels => Way::Relocate,
                () if unit.poles == 2 => Way::Quad,
                () => Way::Tandem,
            };
            // A one-pole circuit makes a quad only where one is; otherwise the one that straddles beside it does.
            let quad = unit.poles == 2 || self.bodies.iter().any(|b| b.quad && (b.space..b.space + 2).contains(&at.space));
            (first, if quad { Way::Quad } else { Way::Tandem })
        };
        Choice { seat: Seat::At(at), halves: at.halves, cost, buys, ways, splices, legs: self.on_legs(index, &at) }
    }
}
