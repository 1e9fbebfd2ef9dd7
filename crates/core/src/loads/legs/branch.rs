//! Three legs: branch and bound, with one more move allowed at a time.
//!
//! It works for two legs as well; the tests hold the table against it.

use super::Step;
use super::place::room_on_leg;
use super::ready::{Choice, PanelChoice, Ready, share};

/// Something that may change.
enum Item {
    Mover { panel: usize, mover: usize },
    Turner { panel: usize, turner: usize },
    Feeder { panel: usize, feeder: usize },
}

struct Search<'a> {
    ready: &'a Ready,
    /// The largest first.
    items: Vec<Item>,
    /// No arrangement is better than the mean of the legs.
    mean: f64,
    best: f64,
    found: Option<Choice>,
}

impl Search<'_> {
    /// Tries everything from `item` on with so many moves left.
    fn go(&mut self, item: usize, left: u32, legs: &mut Vec<Vec<i64>>, choice: &mut Choice) {
        if self.best <= self.mean || self.cannot_improve(item, left, legs) {
            return;
        }
        let Some(next) = self.items.get(item) else {
            self.at_the_end(left, choice);
            return;
        };
        match *next {
            Item::Mover { panel, mover } => {
                let ready = self.ready;
                let what = &ready.panels[panel].movers[mover];
                for leg in (0..ready.panels[panel].legs).filter(|leg| *leg != what.leg && what.cost() <= left) {
                    legs[panel][what.leg] -= what.amps;
                    legs[panel][leg] += what.amps;
                    choice[panel].goes.push((mover, leg));
                    self.go(item + 1, left - what.cost(), legs, choice);
                    choice[panel].goes.pop();
                    legs[panel][leg] -= what.amps;
                    legs[panel][what.leg] += what.amps;
                }
            }
            Item::Turner { panel, turner } => {
                let ready = self.ready;
                let what = &ready.panels[panel].turners[turner];
                for (number, order) in what.orders.iter().enumerate().skip(1).filter(|(_, order)| order.cost <= left) {
                    let before = legs[panel].clone();
                    for (hot, stands) in order.order.iter().enumerate() {
                        legs[panel][what.legs[hot]] -= what.amps[hot];
                        legs[panel][what.legs[*stands]] += what.amps[hot];
                    }
                    choice[panel].turned.push((turner, number));
                    self.go(item + 1, left - order.cost, legs, choice);
                    choice[panel].turned.pop();
                    legs[panel] = before;
                }
            }
            Item::Feeder { panel, feeder } => {
                let ready = self.ready;
                let what = &ready.panels[panel].feeders[feeder];
                for (number, order) in what.orders.iter().enumerate().skip(1).filter(|(_, order)| order.cost <= left) {
                    choice[panel].fed.push((feeder, number));
                    self.go(item + 1, left - order.cost, legs, choice);
                    choice[panel].fed.pop();
                }
            }
        }
        self.go(item + 1, left, legs, choice);
    }

    /// Whether no way on from here beats the best: a panel that feeds none has its legs known but for what still may leave them.
    fn cannot_improve(&self, item: usize, left: u32, legs: &[Vec<i64>]) -> bool {
        self.ready.panels.iter().enumerate().filter(|(_, panel)| panel.feeders.is_empty()).any(|(at, panel)| {
            (0..panel.legs).any(|leg| {
                let mut may_leave: Vec<i64> = Vec::new();
                for next in &self.items[item.min(self.items.len())..] {
                    match *next {
                        Item::Mover { panel: own, mover } if own == at && panel.movers[mover].leg == leg => {
                            may_leave.push(panel.movers[mover].amps);
                        }
                        Item::Turner { panel: own, turner } if own == at => {
                            let what = &panel.turners[turner];
                            let here = what.legs.iter().zip(&what.amps).filter(|(on, _)| **on == leg);
                            may_leave.extend(here.map(|(_, amps)| *amps));
                        }
                        _ => {}
                    }
                }
                may_leave.sort_unstable_by(|a, b| b.cmp(a));
                let leaves: i64 = may_leave.iter().take(usize::try_from(left).unwrap_or(usize::MAX)).sum();
                share(legs[at][leg] - leaves, panel.rating_x10) >= self.best
            })
        })
    }

    fn at_the_end(&mut self, left: u32, choice: &Choice) {
        let mut more = 0;
        for (panel, chosen) in self.ready.panels.iter().zip(choice) {
            for leg in 0..panel.legs {
                match room_on_leg(panel, &chosen.goes, leg) {
                    Some(extra) => more += extra,
                    None => return,
                }
            }
        }
        let ratio = self.ready.ratio(&self.ready.legs_with(choice));
        if more <= left && ratio < self.best {
            self.best = ratio;
            self.found = Some(choice.clone());
        }
    }
}

/// Each improvement that more moves bring, from none on.
pub(super) fn steps(ready: &Ready) -> Vec<Step> {
    let stay: Choice = vec![PanelChoice::default(); ready.panels.len()];
    let now = ready.legs_with(&stay);
    let mut items: Vec<(i64, Item)> = Vec::new();
    for (at, panel) in ready.panels.iter().enumerate() {
        items.extend(panel.movers.iter().enumerate().map(|(mover, what)| (what.amps, Item::Mover { panel: at, mover })));
        items.extend(
            panel.turners.iter().enumerate().map(|(turner, what)| (what.amps.iter().sum(), Item::Turner { panel: at, turner })),
        );
        items.extend((0..panel.feeders.len()).map(|feeder| (i64::MAX, Item::Feeder { panel: at, feeder })));
    }
    items.sort_by_key(|(amps, _)| std::cmp::Reverse(*amps));
    let items: Vec<Item> = items.into_iter().map(|(_, item)| item).collect();
    let means = ready.panels.iter().zip(&now).map(|(panel, legs)| {
        let (sum, count) = (legs.iter().sum::<i64>(), i64::try_from(panel.legs).unwrap_or(2));
        let stays = panel.stays.iter().max().copied().unwrap_or(0);
        share(((sum + count - 1) / count).max(stays), panel.rating_x10)
    });
    let mean = means.fold(0.0, f64::max);
    let most = ready.panels.iter().map(|panel| {
        let movers: u32 = panel.movers.iter().map(super::ready::Mover::cost).sum();
        let turned = panel.turners.iter().flat_map(|turner| turner.orders.iter().map(|order| order.cost).max());
        let fed = panel.feeders.iter().flat_map(|feeder| feeder.orders.iter().map(|order| order.cost).max());
        movers + turned.sum::<u32>() + fed.sum::<u32>()
    });
    let most: u32 = most.sum();
    let mut search = Search { ready, items, mean, best: ready.ratio(&now), found: None };
    // The best of all first: the curve ends where it is reached.
    let start = search.best;
    search.go(0, most, &mut now.clone(), &mut stay.clone());
    let best_of_all = search.best;
    search.best = start;
    let mut steps = vec![Step { moves: 0, choice: stay.clone() }];
    for moves in 1..=most {
        if search.best <= best_of_all {
            break;
        }
        search.found = None;
        search.go(0, moves, &mut now.clone(), &mut stay.clone());
        if let Some(choice) = search.found.take() {
            steps.push(Step { moves, choice });
        }
    }
    steps
}
