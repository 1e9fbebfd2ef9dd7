//! Two legs: fewest wires as a table over what leg B carries.
//!
//! One table a panel: for each sum that leg B can come to, the fewest wires that bring it there. Singles fill it one by one, over the
//! net number that goes to B (spaces are limited) and, where tandems move, the listed spaces that singles free. A feeder brings in
//! the table of the panel that it feeds. How low the worst leg can come with k moves is then a search over the limit.

use std::collections::BTreeMap;

use super::Step;
use super::ready::{Choice, PanelChoice, Ready, ReadyPanel, share};

/// More moves than anybody would make: not reachable.
const NEVER: u8 = u8::MAX;

/// Fewest moves by what leg B carries, from none on.
type Row = Vec<u8>;

fn relax(into: &mut [u8], from: &[u8], cost: u8) {
    for (to, was) in into.iter_mut().zip(from) {
        *to = (*to).min(was.saturating_add(cost));
    }
}

/// `into[x] = min(into[x], from[x - shift] + cost)`, whatever falls outside left out.
fn relax_shifted(into: &mut [u8], from: &[u8], shift: i64, cost: u8) {
    let by = usize::try_from(shift.abs()).unwrap_or(usize::MAX);
    if shift >= 0 {
        if let Some(into) = into.get_mut(by..) {
            relax(into, from, cost);
        }
    } else if let Some(from) = from.get(by..) {
        relax(into, from, cost);
    }
}

/// How singles and groups of one panel can stand.
struct Singles {
    /// For each item, the table before it; the last is the table after all. `tables[i][n][c]` is a row over what B gains.
    tables: Vec<Vec<Row>>,
    items: Vec<Item>,
    /// Singles on B: the net number that went to B counts from minus this.
    on_b: usize,
    /// Counts of listed spaces that singles freed, 0 to `freed - 1`.
    freed: usize,
}

enum Item {
    Single { mover: usize, to_b: bool, frees: bool, amps: i64 },
    Turner { turner: usize, gains: Vec<(usize, i64, u8)> },
}

impl Singles {
    /// `side`: the leg whose listed spaces are counted as they come free, up to `most`.
    fn of(panel: &ReadyPanel, side: usize, most: usize, from: i64, width: usize) -> Self {
        let singles = panel.movers.iter().enumerate().filter(|(_, mover)| !mover.tandem);
        let mut items: Vec<Item> = singles
            .map(|(mover, single)| Item::Single {
                mover,
                to_b: single.leg == 0,
                frees: single.leg == side && single.listed && most > 0,
                amps: single.amps,
            })
            .collect();
        for (turner, group) in panel.turners.iter().enumerate() {
            let on_b = |order: &[usize]| -> i64 {
                order.iter().enumerate().filter(|(_, stands)| group.legs[**stands] == 1).map(|(hot, _)| group.amps[hot]).sum()
            };
            let now = on_b(&group.orders[0].order);
            let others = group.orders.iter().enumerate().skip(1);
            let gains = others.map(|(at, order)| (at, on_b(&order.order) - now, u8::try_from(order.cost).unwrap_or(NEVER)));
            items.push(Item::Turner { turner, gains: gains.collect() });
        }
        let count = |leg: usize| panel.movers.iter().filter(|mover| !mover.tandem && mover.leg == leg).count();
        let (on_a, on_b, freed) = (count(0), count(1), most + 1);
        let mut now = vec![vec![NEVER; width]; (on_a + on_b + 1) * freed];
        now[on_b * freed][usize::try_from(-from).unwrap_or(0)] = 0;
        let mut reached: Vec<bool> = (0..now.len()).map(|at| at == on_b * freed).collect();
        let mut tables = Vec::with_capacity(items.len() + 1);
        for item in &items {
            let mut next = now.clone();
            let mut also = Vec::new();
            for (at, row) in now.iter().enumerate().filter(|(at, _)| reached[*at]) {
                let (net, c) = (at / freed, at % freed);
                match item {
                    Item::Single { to_b, frees, amps, .. } => {
                        let net = if *to_b { net + 1 } else { net.wrapping_sub(1) };
                        let c = if *frees { (c + 1).min(most) } else { c };
                        let to = net.wrapping_mul(freed).wrapping_add(c);
                        if let Some(into) = next.get_mut(to) {
                            also.push(to);
                            relax_shifted(into, row, if *to_b { *amps } else { -amps }, 1);
                        }
                    }
                    Item::Turner { gains, .. } => {
                        for (_, gain, cost) in gains {
                            relax_shifted(&mut next[at], row, *gain, *cost);
                        }
                    }
                }
            }
            also.into_iter().for_each(|at| reached[at] = true);
            tables.push(std::mem::replace(&mut now, next));
        }
        tables.push(now);
        Self { tables, items, on_b, freed }
    }

    fn last(&self) -> &[Row] {
        &self.tables[self.tables.len() - 1]
    }

    /// Rows after all, with the net number that went to B and the listed spaces freed.
    fn rows(&self) -> impl Iterator<Item = (i64, usize, &Row)> {
        self.last().iter().enumerate().map(|(at, row)| (signed(at / self.freed) - signed(self.on_b), at % self.freed, row))
    }

    /// What was done to come to this place of the last table.
    fn choice(&self, net: i64, c: usize, x: usize, into: &mut PanelChoice) {
        let (mut at, mut x) = (unsigned(net + signed(self.on_b)) * self.freed + c, x);
        for (number, item) in self.items.iter().enumerate().rev() {
            let (before, value) = (&self.tables[number], self.tables[number + 1][at][x]);
            if before[at][x] == value {
                continue;
            }
            let came = |at: usize, shift: i64, cost: u8| {
                let from = signed(x) - shift;
                let was = usize::try_from(from).ok().and_then(|from| before.get(at)?.get(from));
                was.is_some_and(|was| was.saturating_add(cost) == value)
            };
            match item {
                Item::Single { mover, to_b, frees, amps } => {
                    let shift = if *to_b { *amps } else { -amps };
                    let (net, c) = (at / self.freed, at % self.freed);
                    let net = if *to_b { net.wrapping_sub(1) } else { net + 1 };
                    let before_c = if *frees { [c.checked_sub(1), (c + 1 == self.freed).then_some(c)] } else { [Some(c), None] };
                    let from = before_c.into_iter().flatten().map(|c| net.wrapping_mul(self.freed).wrapping_add(c));
                    let Some(from) = from.into_iter().find(|from| came(*from, shift, 1)) else { continue };
                    into.goes.push((*mover, usize::from(*to_b)));
                    (at, x) = (from, unsigned(signed(x) - shift));
                }
                Item::Turner { turner, gains } => {
                    let Some((order, gain, _)) = gains.iter().find(|(_, gain, cost)| came(at, *gain, *cost)) else { continue };
                    into.turned.push((*turner, *order));
                    x = unsigned(signed(x) - gain);
                }
            }
        }
    }
}

fn signed(count: usize) -> i64 {
    i64::try_from(count).unwrap_or(i64::MAX)
}

fn unsigned(count: i64) -> usize {
    usize::try_from(count).unwrap_or(0)
}

/// By the net number that goes to B and what B gains: what it costs, and which tandem goes to which leg.
type Tandems = BTreeMap<(i64, i64), (u8, Vec<(usize, usize)>)>;

/// How one panel's own units can stand, feeders left out.
struct Own {
    /// By what B carries.
    row: Row,
    /// What both legs carry together.
    total: i64,
    /// What B carries now.
    now: i64,
    /// What B gains at the first place of the singles' rows.
    from: i64,
    /// With listed spaces of A counted, and of B; one for both where no listed space can be short.
    singles: Vec<Singles>,
    /// Tandems that move: net number to B and what B gains, with what it costs and which.
    tandems: Tandems,
    open: [i64; 2],
    open_listed: [i64; 2],
    listed: [i64; 2],
}

impl Own {
    fn of(panel: &ReadyPanel) -> Self {
        let sum = |wanted: &dyn Fn(usize, bool) -> bool| -> i64 {
            panel.movers.iter().filter(|mover| wanted(mover.leg, mover.tandem)).map(|mover| mover.amps).sum()
        };
        let turned: i64 = panel.turners.iter().map(|turner| turner.amps.iter().sum::<i64>()).sum();
        let from = -sum(&|leg, tandem| leg == 1 && !tandem) - turned;
        let to = sum(&|leg, tandem| leg == 0 && !tandem) + turned;
        let width = unsigned(to - from) + 1;
        let tandems_on = |leg: usize| panel.movers.iter().filter(|mover| mover.tandem && mover.leg == leg).count();
        let short_at_most = |leg: usize| tandems_on(1 - leg).saturating_sub(panel.open[leg][1]);
        let counted = if short_at_most(0).max(short_at_most(1)) == 0 { 1 } else { 2 };
        let singles = (0..counted).map(|side| Singles::of(panel, side, short_at_most(side), from, width)).collect();
        let mut tandems: Tandems = BTreeMap::from([((0, 0), (0, Vec::new()))]);
        for (number, mover) in panel.movers.iter().enumerate().filter(|(_, mover)| mover.tandem) {
            let (step, gain) = if mover.leg == 0 { (1, mover.amps) } else { (-1, -mover.amps) };
            for ((net, gained), (cost, which)) in tandems.clone() {
                let moved = || which.iter().copied().chain([(number, 1 - mover.leg)]).collect();
                let slot = tandems.entry((net + step, gained + gain)).or_insert_with(|| (NEVER, Vec::new()));
                if cost.saturating_add(2) < slot.0 {
                    *slot = (cost.saturating_add(2), moved());
                }
            }
        }
        let legs: Vec<i64> = (0..2)
            .map(|leg| {
                let grouped = panel.turners.iter().flat_map(|turner| turner.legs.iter().zip(&turner.amps));
                panel.stays[leg]
                    + sum(&|on, _| on == leg)
                    + grouped.filter(|(on, _)| **on == leg).map(|(_, amps)| *amps).sum::<i64>()
            })
            .collect();
        let total = legs[0] + legs[1];
        let mut own = Self {
            row: vec![NEVER; unsigned(total) + 1],
            total,
            now: legs[1],
            from,
            singles,
            tandems,
            open: [0, 1].map(|leg| signed(panel.open[leg][0] + panel.open[leg][1])),
            open_listed: [0, 1].map(|leg| signed(panel.open[leg][1])),
            listed: [0, 1]
                .map(|leg| signed(panel.movers.iter().filter(|mover| mover.leg == leg && mover.listed && !mover.tandem).count())),
        };
        let nets: std::collections::BTreeSet<i64> = own.tandems.keys().map(|(net, _)| *net).collect();
        let mut row = std::mem::take(&mut own.row);
        for net in nets {
            let mut here = vec![NEVER; width];
            for (_, _, extra, singles) in own.ways(net) {
                relax(&mut here, singles, extra);
            }
            for ((_, gain), (cost, _)) in own.tandems.iter().filter(|((own, _), _)| *own == net) {
                relax_shifted(&mut row, &here, own.now + own.from + gain, *cost);
            }
        }
        own.row = row;
        own
    }

    fn counting(&self, side: usize) -> &Singles {
        &self.singles[side.min(self.singles.len() - 1)]
    }

    /// The rows of singles that leave room when so many tandems more go to B than leave it, with the wires that making room takes.
    fn ways(&self, tandems: i64) -> impl Iterator<Item = (i64, usize, u8, &Row)> {
        let side = usize::from(tandems > 0);
        let short = (tandems.abs() - self.open_listed[side]).max(0);
        self.counting(side).rows().filter_map(move |(net, c, row)| {
            let to_b = net + tandems;
            let extra = (short - signed(c)).max(0);
            let fits = -self.open[0] <= to_b && to_b <= self.open[1] && (extra == 0 || short <= self.listed[side]);
            fits.then_some((net, c, u8::try_from(extra).unwrap_or(NEVER), row))
        })
    }

    /// What to do so that B carries this.
    fn choice(&self, b: i64) -> PanelChoice {
        let value = self.row[unsigned(b)];
        let mut choice = PanelChoice::default();
        for ((tandems, gain), (cost, which)) in &self.tandems {
            let x = b - self.now - self.from - gain;
            for (net, c, extra, row) in self.ways(*tandems) {
                let here = usize::try_from(x).ok().and_then(|x| row.get(x)).copied().unwrap_or(NEVER);
                if here.saturating_add(extra).saturating_add(*cost) == value {
                    let side = usize::from(*tandems > 0);
                    self.counting(side).choice(net, c, unsigned(x), &mut choice);
                    choice.goes.extend(which);
                    return choice;
                }
            }
        }
        choice
    }
}

/// The panels with their own tables.
struct Tables<'a> {
    ready: &'a Ready,
    own: Vec<Own>,
    /// What both legs of each panel carry, with the panels that it feeds.
    totals: Vec<i64>,
}

impl<'a> Tables<'a> {
    fn of(ready: &'a Ready) -> Self {
        let own: Vec<Own> = ready.panels.iter().map(Own::of).collect();
        let mut totals = vec![0; own.len()];
        for at in &ready.order {
            totals[*at] = own[*at].total + ready.panels[*at].feeders.iter().map(|feeder| totals[feeder.feeds]).sum::<i64>();
        }
        Self { ready, own, totals }
    }

    /// The most that a leg of this panel may carry under this limit.
    fn most(&self, at: usize, limit: f64) -> i64 {
        let rating = self.ready.panels[at].rating_x10;
        let mut most = (limit * rating as f64).floor() as i64;
        while share(most + 1, rating) <= limit {
            most += 1;
        }
        while most >= 0 && share(most, rating) > limit {
            most -= 1;
        }
        most
    }

    /// For each panel, after each of its feeders, the fewest moves by what B carries, with no leg above the limit at the end.
    fn under(&self, limit: f64) -> Vec<Vec<Row>> {
        let mut all: Vec<Vec<Row>> = vec![Vec::new(); self.own.len()];
        for at in &self.ready.order {
            let panel = &self.ready.panels[*at];
            let mut stages = vec![self.own[*at].row.clone()];
            for (number, feeder) in panel.feeders.iter().enumerate() {
                let before = &stages[number];
                let mut after = vec![NEVER; before.len() + unsigned(self.totals[feeder.feeds])];
                for (carries, cost, _, _) in self.brought(*at, number, &all) {
                    relax_shifted(&mut after, before, carries, cost);
                }
                stages.push(after);
            }
            let (most, total) = (self.most(*at, limit), self.totals[*at]);
            if let Some(last) = stages.last_mut() {
                for (b, moves) in last.iter_mut().enumerate() {
                    if signed(b) > most || total - signed(b) > most {
                        *moves = NEVER;
                    }
                }
            }
            all[*at] = stages;
        }
        all
    }

    /// What a feeder can bring to leg B: amperes, moves, the order of its hots, and what leg B of the fed panel carries.
    fn brought<'b>(&'b self, at: usize, number: usize, all: &'b [Vec<Row>]) -> impl Iterator<Item = (i64, u8, usize, i64)> + 'b {
        let feeder = &self.ready.panels[at].feeders[number];
        let fed = all[feeder.feeds].last().map_or(&[] as &[u8], Vec::as_slice);
        fed.iter().enumerate().filter(|(_, moves)| **moves < NEVER).flat_map(move |(b, moves)| {
            let legs = [self.totals[feeder.feeds] - signed(b), signed(b)];
            feeder.orders.iter().enumerate().map(move |(at, order)| {
                let on_b = order.order.iter().enumerate().filter(|(_, stands)| feeder.legs[**stands] == 1);
                let carries = on_b.map(|(hot, _)| legs[hot]).sum();
                (carries, moves.saturating_add(u8::try_from(order.cost).unwrap_or(NEVER)), at, signed(b))
            })
        })
    }

    /// The panel that the service feeds: the last one, after all that it feeds.
    fn fewest(&self, limit: f64) -> Option<u8> {
        let all = self.under(limit);
        let fed = |at: &usize| self.ready.panels.iter().any(|panel| panel.feeders.iter().any(|feeder| feeder.feeds == *at));
        let roots = (0..all.len()).filter(|at| !fed(at));
        let each = roots.map(|at| all[at].last().and_then(|row| row.iter().min().copied()).unwrap_or(NEVER));
        let sum = each.fold(0_u8, u8::saturating_add);
        (sum < NEVER).then_some(sum)
    }

    fn choice(&self, limit: f64) -> Choice {
        let all = self.under(limit);
        let mut choice: Choice = vec![PanelChoice::default(); self.own.len()];
        let mut carries: Vec<Option<i64>> = vec![None; self.own.len()];
        for at in self.ready.order.iter().rev() {
            let stages = &all[*at];
            let last = stages.len() - 1;
            let best = || stages[last].iter().enumerate().min_by_key(|(_, moves)| **moves).map_or(0, |(b, _)| signed(b));
            let mut b = carries[*at].unwrap_or_else(best);
            let mut fed = Vec::new();
            for number in (0..last).rev() {
                let value = stages[number + 1][unsigned(b)];
                let came = self.brought(*at, number, &all).find(|(amps, moves, ..)| {
                    let before = usize::try_from(b - amps).ok().and_then(|before| stages[number].get(before));
                    before.is_some_and(|before| before.saturating_add(*moves) == value)
                });
                let Some((amps, _, order, of_fed)) = came else { continue };
                carries[self.ready.panels[*at].feeders[number].feeds] = Some(of_fed);
                if order > 0 {
                    fed.push((number, order));
                }
                b -= amps;
            }
            choice[*at] = PanelChoice { fed, ..self.own[*at].choice(b) };
        }
        choice
    }

    /// Every share that a leg of any panel could come to, the least first.
    fn limits(&self) -> Vec<f64> {
        let mut limits: Vec<f64> = Vec::new();
        for (panel, total) in self.ready.panels.iter().zip(&self.totals) {
            limits.extend((total / 2..=*total).map(|leg| share(leg, panel.rating_x10)));
        }
        limits.sort_by(f64::total_cmp);
        limits.dedup();
        limits
    }
}

/// Each improvement that more moves bring, from none on.
pub(super) fn steps(ready: &Ready) -> Vec<Step> {
    let tables = Tables::of(ready);
    let stay: Choice = vec![PanelChoice::default(); ready.panels.len()];
    let limits = tables.limits();
    let now = ready.ratio(&ready.legs_with(&stay));
    let mut best = limits.partition_point(|limit| *limit < now);
    let mut steps = vec![Step { moves: 0, choice: stay }];
    while best > 0 {
        let Some(moves) = tables.fewest(limits[best - 1]) else { break };
        // The least limit that so many moves reach.
        let (mut below, mut reached) = (0, best - 1);
        while below < reached {
            let middle = (below + reached) / 2;
            if tables.fewest(limits[middle]).is_some_and(|fewest| fewest <= moves) {
                reached = middle;
            } else {
                below = middle + 1;
            }
        }
        best = reached;
        steps.push(Step { moves: u32::from(moves), choice: tables.choice(limits[best]) });
    }
    steps
}
