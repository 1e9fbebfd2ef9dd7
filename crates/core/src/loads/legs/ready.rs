//! The same panels, as numbers that the search works on.

use super::{LegPanels, LegSystem, LegUnit, UnitKind};

/// A unit that may go to another leg.
pub(super) struct Mover {
    pub unit: usize,
    pub leg: usize,
    /// It sits in a space that takes a tandem.
    pub listed: bool,
    pub tandem: bool,
    pub amps: i64,
}

impl Mover {
    pub(super) const fn cost(&self) -> u32 {
        if self.tandem { 2 } else { 1 }
    }
}

/// A way in which the hots of a group stand: hot `i` where hot `order[i]` stood.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(super) struct Order {
    pub order: Vec<usize>,
    pub cost: u32,
}

/// A group whose hots may change places.
pub(super) struct Turner {
    pub unit: usize,
    pub legs: Vec<usize>,
    pub amps: Vec<i64>,
    /// As it stands comes first.
    pub orders: Vec<Order>,
}

/// A group that feeds another panel.
pub(super) struct Feeder {
    pub unit: usize,
    pub feeds: usize,
    pub legs: Vec<usize>,
    pub orders: Vec<Order>,
}

pub(super) struct ReadyPanel {
    pub rating_x10: i64,
    pub legs: usize,
    /// What stays on each leg.
    pub stays: Vec<i64>,
    pub movers: Vec<Mover>,
    pub turners: Vec<Turner>,
    pub feeders: Vec<Feeder>,
    /// Open spaces of each leg: those that take no tandem, those that do.
    pub open: Vec<[usize; 2]>,
}

/// What is chosen for one panel.
#[derive(Debug, Clone, Default)]
pub(super) struct PanelChoice {
    /// Which mover goes to which leg.
    pub goes: Vec<(usize, usize)>,
    /// Which order of each turner that is not as it stands.
    pub turned: Vec<(usize, usize)>,
    /// The same of feeders.
    pub fed: Vec<(usize, usize)>,
}

/// What is chosen, panel by panel.
pub(super) type Choice = Vec<PanelChoice>;

pub(super) struct Ready {
    pub panels: Vec<ReadyPanel>,
    /// Children before those that feed them.
    pub order: Vec<usize>,
}

impl Ready {
    pub(super) fn of(input: &LegPanels) -> Result<Self, String> {
        let count = input.panels.len();
        if count == 0 {
            return Err("there is no panel".into());
        }
        let panels = input.panels.iter().map(|panel| ready_panel(panel, count)).collect::<Result<Vec<_>, _>>()?;
        let mut fed = vec![0_usize; count];
        for feeder in panels.iter().flat_map(|panel| &panel.feeders) {
            fed[feeder.feeds] += 1;
            if panels[feeder.feeds].legs != feeder.legs.len() {
                return Err("a feeder has not as many hots as the panel that it feeds has legs".into());
            }
        }
        if fed.iter().any(|feeders| *feeders > 1) {
            return Err("a panel is fed by two feeders".into());
        }
        let order = children_first(&panels).ok_or("panels feed one another in a ring")?;
        Ok(Self { panels, order })
    }

    /// What every leg carries with this choice.
    pub(super) fn legs_with(&self, choice: &Choice) -> Vec<Vec<i64>> {
        let mut all: Vec<Vec<i64>> = self.panels.iter().map(|panel| vec![0; panel.legs]).collect();
        for at in &self.order {
            let (panel, chosen) = (&self.panels[*at], &choice[*at]);
            let mut legs = panel.stays.clone();
            for (number, mover) in panel.movers.iter().enumerate() {
                let to = chosen.goes.iter().find(|(moved, _)| *moved == number).map_or(mover.leg, |(_, to)| *to);
                legs[to] += mover.amps;
            }
            for (number, turner) in panel.turners.iter().enumerate() {
                let order = &turner.orders[picked(&chosen.turned, number)].order;
                for (hot, stands) in order.iter().enumerate() {
                    legs[turner.legs[*stands]] += turner.amps[hot];
                }
            }
            for (number, feeder) in panel.feeders.iter().enumerate() {
                let order = &feeder.orders[picked(&chosen.fed, number)].order;
                for (hot, stands) in order.iter().enumerate() {
                    legs[feeder.legs[*stands]] += all[feeder.feeds][hot];
                }
            }
            all[*at] = legs;
        }
        all
    }

    /// The worst leg by its rating.
    pub(super) fn ratio(&self, legs: &[Vec<i64>]) -> f64 {
        let each = self.panels.iter().zip(legs).flat_map(|(panel, legs)| legs.iter().map(|leg| share(*leg, panel.rating_x10)));
        each.fold(0.0, f64::max)
    }

    /// What each panel's neutral carries, in amperes to one place, loads taken as resistance.
    pub(super) fn neutrals(&self, input: &LegPanels, choice: &Choice) -> Vec<f64> {
        // The same sums without what no neutral carries.
        let mut only: Self = Self { panels: Vec::new(), order: self.order.clone() };
        for (panel, input) in self.panels.iter().zip(&input.panels) {
            let mut stays = panel.stays.clone();
            for unit in input.units.iter().filter(|unit| unit.load.as_deref() == Some("line-to-line")) {
                if matches!(unit.kind, UnitKind::Fixed) || unit.kind == UnitKind::Group && !unit.turn {
                    for (space, amps) in unit.spaces.iter().zip(&unit.amps_x10) {
                        stays[input.spaces[*space].leg] -= amps;
                    }
                }
            }
            only.panels.push(ReadyPanel {
                rating_x10: panel.rating_x10,
                legs: panel.legs,
                stays,
                movers: panel.movers.iter().map(|m| Mover { ..*m }).collect(),
                turners: panel
                    .turners
                    .iter()
                    .map(|turner| {
                        let line_to_line = input.units[turner.unit].load.as_deref() == Some("line-to-line");
                        let amps = if line_to_line { vec![0; turner.amps.len()] } else { turner.amps.clone() };
                        Turner { unit: turner.unit, legs: turner.legs.clone(), amps, orders: turner.orders.clone() }
                    })
                    .collect(),
                feeders: panel
                    .feeders
                    .iter()
                    .map(|f| Feeder { unit: f.unit, feeds: f.feeds, legs: f.legs.clone(), orders: f.orders.clone() })
                    .collect(),
                open: Vec::new(),
            });
        }
        only.legs_with(choice).iter().map(|legs| neutral(input.system, legs)).collect()
    }
}

/// The neutral of line-to-neutral loads at unity power factor: on opposite legs their difference, on a wye the sum of phasors
/// 120° apart. To a tenth of an ampere.
pub(in crate::loads) fn neutral(system: LegSystem, legs_x10: &[i64]) -> f64 {
    let square: i64 = match (system, legs_x10) {
        (LegSystem::SplitPhase, [a, b]) => (a - b) * (a - b),
        (_, [a, b]) => a * a + b * b - a * b,
        (_, [a, b, c]) => a * a + b * b + c * c - a * b - b * c - c * a,
        _ => 0,
    };
    (square as f64).sqrt().round() / 10.0
}

/// A leg by its rating; the division rounds correctly, so equal shares of different panels are equal numbers.
pub(super) fn share(leg_x10: i64, rating_x10: i64) -> f64 {
    leg_x10 as f64 / rating_x10 as f64
}

fn picked(chosen: &[(usize, usize)], number: usize) -> usize {
    chosen.iter().find(|(at, _)| *at == number).map_or(0, |(_, order)| *order)
}

fn children_first(panels: &[ReadyPanel]) -> Option<Vec<usize>> {
    let mut order = Vec::new();
    while order.len() < panels.len() {
        let ready = |at: &usize| !order.contains(at) && panels[*at].feeders.iter().all(|feeder| order.contains(&feeder.feeds));
        order.push((0..panels.len()).find(ready)?);
    }
    Some(order)
}

fn ready_panel(panel: &super::LegPanel, count: usize) -> Result<ReadyPanel, String> {
    let name = &panel.name;
    if panel.rating_a <= 0 || !(2..=3).contains(&panel.legs) {
        return Err(format!("panel {name} needs a rating above 0 and two or three legs"));
    }
    if panel.spaces.iter().any(|space| space.leg >= panel.legs) {
        return Err(format!("a space of panel {name} is on a leg that it has not"));
    }
    let mut ready = ReadyPanel {
        rating_x10: panel.rating_a * 10,
        legs: panel.legs,
        stays: vec![0; panel.legs],
        movers: Vec::new(),
        turners: Vec::new(),
        feeders: Vec::new(),
        open: vec![[0, 0]; panel.legs],
    };
    for space in panel.spaces.iter().filter(|space| space.unit.is_none() && !space.blocked) {
        ready.open[space.leg][usize::from(space.tandem)] += 1;
    }
    let mut amps_in_all = 0_i64;
    for (number, unit) in panel.units.iter().enumerate() {
        let wrong = |what: &str| format!("unit {} of panel {name} {what}", unit.id);
        let held = |space: &usize| panel.spaces.get(*space).is_some_and(|held| held.unit.as_ref() == Some(&unit.id));
        if unit.spaces.is_empty() || !unit.spaces.iter().all(held) {
            return Err(wrong("does not sit where its spaces say"));
        }
        if unit.amps_x10.iter().any(|amps| !(0..=20_000).contains(amps)) {
            return Err(wrong("carries less than nothing or more than 2000 A"));
        }
        amps_in_all += unit.amps_x10.iter().sum::<i64>();
        let legs: Vec<usize> = unit.spaces.iter().map(|space| panel.spaces[*space].leg).collect();
        let each_has_amps = unit.amps_x10.len() == unit.spaces.len();
        let orders = || orders(unit, &legs);
        match unit.kind {
            UnitKind::Single | UnitKind::Tandem if unit.spaces.len() != 1 => return Err(wrong("sits in more than one space")),
            UnitKind::Single | UnitKind::Tandem => ready.movers.push(Mover {
                unit: number,
                leg: legs[0],
                listed: panel.spaces[unit.spaces[0]].tandem,
                tandem: unit.kind == UnitKind::Tandem,
                amps: unit.amps_x10.iter().sum(),
            }),
            UnitKind::Fixed if unit.spaces.len() == 1 => ready.stays[legs[0]] += unit.amps_x10.iter().sum::<i64>(),
            UnitKind::Fixed | UnitKind::Group if !each_has_amps => return Err(wrong("has not as many amperes as spaces")),
            UnitKind::Group if unit.turn => {
                ready.turners.push(Turner { unit: number, amps: unit.amps_x10.clone(), orders: orders(), legs });
            }
            UnitKind::Fixed | UnitKind::Group => {
                legs.iter().zip(&unit.amps_x10).for_each(|(leg, amps)| ready.stays[*leg] += amps);
            }
            UnitKind::Feeder => {
                let feeds = unit.feeds.filter(|feeds| *feeds < count).ok_or_else(|| wrong("feeds no panel of these"))?;
                ready.feeders.push(Feeder { unit: number, feeds, orders: orders(), legs });
            }
        }
    }
    if amps_in_all > 100_000 {
        return Err(format!("panel {name} carries more than 10 000 A"));
    }
    Ok(ready)
}

/// Every order of a group's hots, as it stands first; those that put the same hots on the same legs for more wires are left out.
fn orders(unit: &LegUnit, legs: &[usize]) -> Vec<Order> {
    let count = unit.spaces.len();
    let as_it_stands: Vec<usize> = (0..count).collect();
    let mut all = vec![as_it_stands.clone()];
    if unit.turn {
        all = permutations(&as_it_stands);
        all.sort_by_key(|order| displaced(order));
    }
    let mut kept: Vec<Order> = Vec::new();
    for order in all {
        let on = |order: &[usize]| order.iter().map(|stands| legs[*stands]).collect::<Vec<_>>();
        if kept.iter().all(|earlier| on(&earlier.order) != on(&order)) {
            kept.push(Order { cost: displaced(&order), order });
        }
    }
    kept
}

fn displaced(order: &[usize]) -> u32 {
    order.iter().enumerate().map(|(at, from)| u32::from(at != *from)).sum()
}

fn permutations(of: &[usize]) -> Vec<Vec<usize>> {
    if of.len() <= 1 {
        return vec![of.to_vec()];
    }
    let mut all = Vec::new();
    for (at, first) in of.iter().enumerate() {
        let rest: Vec<usize> = of.iter().enumerate().filter(|(other, _)| *other != at).map(|(_, item)| *item).collect();
        for mut tail in permutations(&rest) {
            tail.insert(0, *first);
            all.push(tail);
        }
    }
    all
}
