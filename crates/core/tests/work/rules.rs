//! The rules of a plan, written once more from their description alone, as plainly as they can be: what a plan costs, of which kind
//! it is and whether it may be done; and whether its moves can be made one after the other. It shares nothing with the search but the
//! format of the files.

use std::collections::{BTreeMap, BTreeSet};

use wayfinder_core::work::{Guard, Move, Problem, Shape, Way, WishOf};

/// A half of a space: column, row, and whether it is the lower one.
pub(crate) type Half = (usize, usize, bool);

#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) enum End {
    Home,
    At { column: usize, row: usize, shape: Shape, flip: bool },
    Join(String),
    Tap(String),
    Sub(usize),
    Out,
}

/// A circuit as the wish wants it.
#[derive(Debug, Clone)]
pub(crate) struct Wanted {
    pub(crate) poles: usize,
    pub(crate) amps: i64,
    pub(crate) awg: i64,
    pub(crate) guard: Guard,
    pub(crate) class: String,
    pub(crate) load: Vec<i64>,
    pub(crate) continuous: bool,
    pub(crate) shared: bool,
    pub(crate) fixed: bool,
    pub(crate) conductors: i64,
    pub(crate) terminal: i64,
    pub(crate) slack: i64,
    pub(crate) replaced: bool,
    pub(crate) home: Option<(usize, usize, Shape)>,
    pub(crate) home_poles: usize,
    pub(crate) home_amps: i64,
    pub(crate) home_guard: Guard,
}

pub(crate) fn halves(column: usize, row: usize, shape: Shape, poles: usize) -> BTreeSet<Half> {
    match shape {
        Shape::Full => (0..poles).flat_map(|n| [(column, row + n, false), (column, row + n, true)]).collect(),
        Shape::Upper => [(column, row, false)].into(),
        Shape::Lower => [(column, row, true)].into(),
        Shape::Inner => [(column, row, true), (column, row + 1, false)].into(),
        Shape::Outer => [(column, row, false), (column, row + 1, true)].into(),
    }
}

/// All that takes part: the circuits of the panel, and `new`, `gap` and `feeder` where there are such.
pub(crate) fn wanted(problem: &Problem) -> BTreeMap<String, Wanted> {
    let mut all = BTreeMap::new();
    for c in &problem.circuits {
        all.insert(
            c.id.clone(),
            Wanted {
                poles: c.poles,
                amps: c.amps,
                awg: c.awg,
                guard: c.protection,
                class: c.class.clone(),
                load: c.load.clone(),
                continuous: c.continuous,
                shared: c.shared_neutral,
                fixed: c.fixed,
                conductors: c.conductors,
                terminal: c.terminal,
                slack: c.slack,
                replaced: false,
                home: Some((c.at.column, c.at.row, c.at.shape)),
                home_poles: c.poles,
                home_amps: c.amps,
                home_guard: c.protection,
            },
        );
    }
    let other = |poles: usize, amps: i64, awg: i64, guard: Guard, load: Vec<i64>, continuous: bool, class: &str| Wanted {
        poles,
        amps,
        awg,
        guard,
        class: class.to_owned(),
        load,
        continuous,
        shared: false,
        fixed: false,
        conductors: 1,
        terminal: 1,
        slack: 0,
        replaced: false,
        home: None,
        home_poles: 0,
        home_amps: 0,
        home_guard: Guard::Standard,
    };
    match &problem.wish {
        WishOf::Circuit { poles, amps, awg, protection, load, continuous, class, .. } => {
            all.insert("new".into(), other(*poles, *amps, *awg, *protection, load.clone(), *continuous, class));
        }
        WishOf::Own { circuit, load, continuous, amps, awg, protection, class, poles } => {
            all.insert("new".into(), other(*poles, *amps, *awg, *protection, load.clone(), *continuous, class));
            let from = all.get_mut(circuit).unwrap();
            for (left, part) in from.load.iter_mut().zip(load) {
                *left = (*left - part).max(0);
            }
        }
        WishOf::Spaces { count } => {
            all.insert("gap".into(), other(*count, 0, 0, Guard::Standard, vec![0; *count], false, "gap"));
        }
        WishOf::Replace { circuit, poles, amps, protection, load } => {
            let it = all.get_mut(circuit).unwrap();
            (it.poles, it.amps, it.guard, it.replaced) = (*poles, *amps, *protection, true);
            if !load.is_empty() {
                it.load = load.clone();
            }
        }
        WishOf::Level { .. } => {}
    }
    if let Some(sub) = problem.sub {
        all.insert("feeder".into(), other(2, sub.feeder_amps, 0, Guard::Standard, vec![0, 0], false, "feeder"));
    }
    all
}

fn wire(awg: i64) -> i64 {
    [(14, 15), (12, 20), (10, 30), (8, 40), (6, 55), (4, 70), (3, 85), (2, 95), (1, 110), (0, 125)]
        .into_iter()
        .find(|(size, _)| *size == awg)
        .map_or(0, |(_, amps)| amps)
}

fn demand_hundredths(w: &Wanted) -> i64 {
    w.load.iter().max().unwrap() * if w.continuous { 125 } else { 100 }
}

fn covers(host: Guard, guest: Guard) -> bool {
    match guest {
        Guard::Standard => true,
        Guard::Gfci => matches!(host, Guard::Gfci | Guard::Dual),
        Guard::Afci => matches!(host, Guard::Afci | Guard::Dual),
        Guard::Dual => host == Guard::Dual,
    }
}

fn key(guard: Guard) -> &'static str {
    match guard {
        Guard::Standard => "standard",
        Guard::Gfci => "gfci",
        Guard::Afci => "afci",
        Guard::Dual => "dual",
    }
}

fn must(holds: bool, rule: &str) -> Result<(), String> {
    if holds { Ok(()) } else { Err(rule.to_owned()) }
}

/// The panel after a plan, judged: its kind and what it costs.
pub(crate) fn judge(
    problem: &Problem,
    all: &BTreeMap<String, Wanted>,
    ends: &BTreeMap<String, End>,
) -> Result<(Way, i64), String> {
    let (panel, costs) = (&problem.panel, &problem.costs);
    let rows = |column: usize| panel.columns.get(column).map_or(0, Vec::len);
    let leg = |row: usize| panel.legs[row].as_str();
    let named = |form: &str, guard: Guard| panel.label.get(form).is_some_and(|l| l.contains(&guard));
    let most = |form: &str| panel.max_amps.get(form).copied().unwrap_or(0);
    let listed = |column: usize, row: usize| panel.tandem_spaces.contains(&panel.columns[column][row]);
    let (mut minutes, mut money, mut risk) = (costs.open[0], costs.open[1], costs.open[2]);
    let mut spend = |effort: [i64; 3], times: i64| {
        minutes += effort[0] * times;
        money += effort[1] * times;
        risk += effort[2] * times;
    };
    let mut kinds: BTreeSet<Way> = BTreeSet::new();
    let end = |id: &str| ends.get(id).unwrap_or(&End::Home);
    // Where everything stands.
    let place = |id: &str| match end(id) {
        End::Home => all[id].home.map(|(c, r, s)| (c, r, s, false, all[id].home_poles)),
        End::At { column, row, shape, flip } => Some((*column, *row, *shape, *flip, all[id].poles)),
        _ => None,
    };
    let mut owner: BTreeMap<Half, &str> = BTreeMap::new();
    for id in all.keys() {
        let Some((column, row, shape, _, poles)) = place(id) else { continue };
        for half in halves(column, row, shape, poles) {
            must(half.0 < panel.columns.len() && half.1 < rows(half.0), "outside the panel")?;
            must(owner.insert(half, id).is_none(), "two in one half")?;
        }
    }
    // Who moves, and who may.
    let mut touched = 0;
    let mut splices = 0;
    for (id, it) in all {
        let moved = *end(id) != End::Home;
        must(!it.fixed && it.class != "main" || !moved, "a fixed circuit is touched")?;
        must(it.class != "spare" || matches!(end(id), End::Home | End::Out), "a spare is used")?;
        must(it.class == "spare" || it.home.is_none() || *end(id) != End::Out, "a circuit is taken out")?;
        must(!it.replaced || moved, "the breaker is not replaced")?;
        if it.home.is_some() && moved && it.class != "spare" {
            touched += 1;
        }
        if it.class == "spare" && moved {
            spend(costs.take_out, 1);
            kinds.insert(Way::Open);
        }
        must(
            it.conductors < 2 || it.class == "spare" || matches!(end(id), End::Home | End::At { shape: Shape::Full, .. }),
            "two conductors keep to whole spaces",
        )?;
    }
    must(touched <= problem.max_touched as i64, "too much is touched")?;
    // What goes under another's breaker.
    let mut guests: BTreeMap<&str, &str> = BTreeMap::new();
    let mut extra_legs: BTreeMap<&str, i64> = BTreeMap::new();
    for (id, it) in all {
        let (host_id, tap) = match end(id) {
            End::Join(host) => (host.as_str(), false),
            End::Tap(host) => (host.as_str(), true),
            _ => continue,
        };
        let host = &all[host_id];
        for one in [it, host] {
            must(one.poles == 1 && one.home.is_some(), "joined with what is no one-pole circuit of the panel")?;
            must(["lighting", "alarm", "general"].contains(&one.class.as_str()), "a circuit that must stand alone is joined")?;
            must(!one.fixed && !one.shared && !one.replaced && one.conductors < 2, "one that is not to be joined")?;
        }
        must(host.amps <= wire(it.awg).min(wire(host.awg)), "the host's breaker is above a wire")?;
        must(demand_hundredths(it) + demand_hundredths(host) <= host.amps * 1000, "more than the host's breaker")?;
        must(covers(host.guard, it.guard), "protection is lost")?;
        must(guests.insert(host_id, id).is_none(), "two guests")?;
        let (column, row, shape, ..) = place(host_id).ok_or("the host has left the panel")?;
        *extra_legs.entry(leg(row)).or_default() += it.load[0];
        if tap {
            must(
                host.terminal >= 2 && host.awg == it.awg && host.guard == Guard::Standard,
                "the terminal is not listed for both",
            )?;
            must(shape == Shape::Full && host.home.unwrap().2 == Shape::Full, "the host of a tap is in a half")?;
            let (from_column, from_row, _) = it.home.unwrap();
            let distance = from_row.abs_diff(row) as i64 + if from_column == column { 0 } else { panel.cross };
            must(distance <= it.slack, "the guest does not reach")?;
            spend(costs.tap, 1);
            kinds.insert(Way::Tap);
        } else {
            spend(costs.join, 1);
            splices += 1;
            if host.guard != Guard::Standard {
                spend(costs.join_neutral, 1);
                splices += 1;
            }
            kinds.insert(Way::Join);
        }
    }
    // The sub-panel.
    let in_sub: Vec<(&String, usize)> =
        all.keys().filter_map(|id| if let End::Sub(pole) = end(id) { Some((id, *pole)) } else { None }).collect();
    let whole = |it: &Wanted| {
        let price = if it.poles == 2 { &costs.price.double } else { &costs.price.single };
        price[key(it.guard)]
    };
    match ends.get("feeder") {
        Some(End::At { row, .. }) => {
            let sub = problem.sub.unwrap();
            must(!in_sub.is_empty(), "an empty sub-panel")?;
            spend(costs.sub, 1);
            kinds.insert(Way::Sub);
            let (mut spaces, mut load) = ([0; 2], [0; 2]);
            for (id, pole) in &in_sub {
                let it = &all[*id];
                for hot in 0..it.poles {
                    spaces[(pole + hot) % 2] += 1;
                    load[(pole + hot) % 2] += it.load[hot];
                }
                if it.home.is_some() {
                    spend(costs.to_sub, 1);
                    spend(costs.to_sub_pole, it.poles as i64);
                    splices += it.poles as i64;
                } else {
                    spend(costs.new, 1);
                }
                spend([0, whole(it), 0], 1);
            }
            for n in 0..2 {
                must(2 * spaces[n] <= sub.spaces, "the sub-panel is full")?;
                must(load[n] * 100 <= 80 * sub.feeder_amps * 10, "the feeder carries too much")?;
                *extra_legs.entry(leg(row + n)).or_default() += load[n];
            }
        }
        _ => must(in_sub.is_empty(), "a sub-panel without a feeder")?,
    }
    // What is landed: wires, and breakers over whole spaces.
    let brings =
        |it: &Wanted, to: Shape| !it.replaced && it.home.is_some_and(|(.., was)| was == Shape::Full) && to == Shape::Full;
    for (id, it) in all {
        let End::At { column, row, shape, flip } = end(id) else { continue };
        if id == "gap" {
            must(*shape == Shape::Full, "an open space is whole")?;
            spend(costs.gap, 1);
            kinds.insert(Way::Open);
            continue;
        }
        if it.poles == 2 {
            must(leg(*row) != leg(row + 1), "two poles on one leg")?;
        }
        must(!flip || it.load[0] != it.load[1], "hots exchanged for nothing")?;
        match (&it.home, id.as_str()) {
            (Some((from_column, from_row, was)), _) => {
                let same = (from_column, from_row, was) == (column, row, shape);
                must(!same || *flip || it.replaced, "a circuit is moved to where it is")?;
                spend(costs.moved, 1);
                spend(costs.move_pole, it.poles as i64);
                let distance = from_row.abs_diff(*row) as i64 + if from_column == column { 0 } else { panel.cross };
                if distance > it.slack {
                    let longer = it.poles as i64 + i64::from(it.guard != Guard::Standard);
                    spend(costs.splice, longer);
                    splices += longer;
                }
            }
            (None, "feeder") => must(*shape == Shape::Full, "a feeder stands over whole spaces")?,
            (None, _) => {
                spend(costs.new, 1);
                kinds.insert(Way::Open);
            }
        }
        if *shape == Shape::Full {
            if it.home.is_some() {
                let own = it.home.map(|(c, r, s)| halves(c, r, s, it.home_poles)).unwrap();
                let in_place = it.replaced && own.is_subset(&halves(*column, *row, *shape, it.poles));
                kinds.insert(if in_place { Way::Open } else { Way::Relocate });
            }
            if brings(it, *shape) {
                continue;
            }
            must(named(if it.poles == 2 { "double" } else { "single" }, it.guard), "the label does not name it")?;
            // A breaker that is left behind at exactly this place.
            let left = all.iter().any(|(other, o)| {
                let gone = match end(other) {
                    End::Home => false,
                    End::At { shape, .. } => !brings(o, *shape),
                    _ => true,
                };
                gone && o.home.is_some_and(|(c, r, s)| {
                    s == Shape::Full && halves(c, r, s, o.home_poles) == halves(*column, *row, *shape, it.poles)
                }) && (o.home_amps, o.home_guard) == (it.amps, it.guard)
            });
            if !left {
                spend([0, whole(it), 0], 1);
            }
        }
    }
    // Breakers that share a space.
    let mut poles: i64 = 0;
    for (id, it) in all {
        if let Some((.., shape, _, n)) = place(id)
            && shape == Shape::Full
            && id != "gap"
            && it.class != "main"
        {
            poles += n as i64;
        }
    }
    let split: BTreeSet<(usize, usize)> = all
        .keys()
        .filter_map(|id| place(id))
        .filter(|(_, _, shape, ..)| *shape != Shape::Full)
        .flat_map(|(c, r, s, _, n)| halves(c, r, s, n))
        .map(|(c, r, _)| (c, r))
        .collect();
    for id in all.keys() {
        if let End::At { column, row, shape, .. } = end(id)
            && *shape != Shape::Full
        {
            for (c, r, _) in halves(*column, *row, *shape, all[id].poles) {
                must(listed(c, r), "a space that takes no tandem is split")?;
            }
        }
    }
    if panel.slim {
        for (id, it) in all {
            let Some((.., shape, _, n)) = place(id).filter(|(.., shape, _, _)| *shape != Shape::Full) else { continue };
            must(shape != Shape::Outer, "no such slim breaker")?;
            poles += n as i64;
            if *end(id) == End::Home {
                continue;
            }
            let form = if n == 2 { "slim" } else { "tandem" };
            must(named(form, it.guard) && it.amps <= most(form), "the label does not name it")?;
            let same = it.home.is_some_and(|(.., was)| was != Shape::Full && (was == Shape::Inner) == (shape == Shape::Inner));
            if same && !it.replaced {
                kinds.insert(Way::Relocate);
            } else {
                spend([0, if n == 2 { costs.price.slim } else { costs.price.thin }, 0], 1);
                kinds.insert(if n == 2 { Way::Slim } else { Way::Tandem });
            }
        }
    } else {
        let within = |column: usize, row: usize, quad: bool| -> Vec<Half> {
            let n = if quad { 2 } else { 1 };
            (row..row + n).flat_map(|r| [(column, r, false), (column, r, true)]).collect()
        };
        // Bodies that travel with all that is in them.
        let mut gone: BTreeSet<usize> = BTreeSet::new();
        let mut arrived: BTreeMap<(usize, usize), usize> = BTreeMap::new();
        for (number, body) in problem.bodies.iter().enumerate() {
            let quad = body.form == "quad";
            let inside = within(body.column, body.row, quad);
            let members: Vec<(&String, &Wanted)> = all
                .iter()
                .filter(|(_, it)| {
                    it.home.is_some_and(|(c, r, s)| {
                        s != Shape::Full && halves(c, r, s, it.home_poles).iter().all(|half| inside.contains(half))
                    })
                })
                .collect();
            let steps: BTreeSet<Option<(i64, i64)>> = members
                .iter()
                .map(|(id, it)| match (end(id), it.home) {
                    (End::At { column, row, shape, .. }, Some((c, r, s))) if s == *shape && !it.replaced => {
                        Some((*column as i64 - c as i64, *row as i64 - r as i64))
                    }
                    _ => None,
                })
                .collect();
            let steps: Vec<_> = steps.into_iter().collect();
            if let [Some((columns, rows))] = steps[..]
                && (columns, rows) != (0, 0)
                && body.row as i64 + rows >= 0
            {
                let to = ((body.column as i64 + columns) as usize, (body.row as i64 + rows) as usize);
                let there = within(to.0, to.1, quad);
                if there.iter().all(|half| owner.get(half).is_none_or(|id| members.iter().any(|(m, _)| m == id))) {
                    gone.insert(number);
                    arrived.insert(to, number);
                }
            }
        }
        let fits = |number: usize| {
            let body = &problem.bodies[number];
            let quad = body.form == "quad";
            within(body.column, body.row, quad).iter().zip(&body.amps).enumerate().all(|(n, (half, amps))| {
                let Some(id) = owner.get(half) else { return true };
                let tie = if n == 1 || n == 2 { Shape::Inner } else { Shape::Outer };
                let tied = quad && body.ties.contains(&tie);
                let (column, row, shape, ..) = place(id).unwrap();
                let straddles = all[*id].poles == 2;
                all[*id].amps == *amps
                    && tied == straddles
                    && (!straddles || (column, row, shape) == (body.column, body.row, tie))
            })
        };
        let mut quads: BTreeSet<(usize, usize)> = all
            .keys()
            .filter_map(|id| place(id))
            .filter(|(_, _, shape, ..)| matches!(shape, Shape::Inner | Shape::Outer))
            .map(|(c, r, ..)| (c, r))
            .collect();
        quads.extend(arrived.iter().filter(|(_, n)| problem.bodies[**n].form == "quad").map(|(to, _)| *to));
        let straddled = quads.clone();
        for (number, body) in problem.bodies.iter().enumerate() {
            let at = (body.column, body.row);
            let near = [Some(at), Some((at.0, at.1 + 1)), at.1.checked_sub(1).map(|r| (at.0, r))];
            let used = split.contains(&at) || split.contains(&(at.0, at.1 + 1));
            if body.form == "quad"
                && !gone.contains(&number)
                && used
                && near.into_iter().flatten().all(|n| !straddled.contains(&n))
                && fits(number)
            {
                quads.insert(at);
            }
        }
        let mut bodies: Vec<((usize, usize), bool)> = quads.iter().map(|at| (*at, true)).collect();
        for (c, r) in &quads {
            must(!quads.contains(&(*c, r + 1)), "two quads in one space")?;
        }
        for (c, r) in &split {
            let in_quad = quads.contains(&(*c, *r)) || *r > 0 && quads.contains(&(*c, r - 1));
            if !in_quad {
                bodies.push(((*c, *r), false));
            }
        }
        for ((column, row), quad) in bodies {
            let form = if quad { "quad" } else { "tandem" };
            poles += if quad { 4 } else { 2 };
            let inside = within(column, row, quad);
            let who: BTreeSet<&str> = inside.iter().filter_map(|half| owner.get(half).copied()).collect();
            let came = arrived.get(&(column, row)).is_some_and(|n| (problem.bodies[*n].form == "quad") == quad);
            let kept = !came
                && (0..problem.bodies.len()).any(|n| {
                    let body = &problem.bodies[n];
                    (body.column, body.row, body.form == "quad") == (column, row, quad) && !gone.contains(&n) && fits(n)
                });
            if !came && !kept {
                must(named(form, Guard::Standard), "the label does not name it")?;
                for half in &inside {
                    must(listed(half.0, half.1), "a space that takes no tandem is split")?;
                }
                spend([0, if quad { costs.price.quad } else { costs.price.tandem }, 0], 1);
            }
            for id in who {
                let it = &all[id];
                match end(id) {
                    End::Home => {
                        if !came && !kept {
                            must(!it.fixed, "a fixed circuit is landed again")?;
                            spend(costs.reland_pole, it.poles as i64);
                        }
                    }
                    _ => {
                        must(it.guard == Guard::Standard, "a handle guards against nothing more")?;
                        must(came || kept || it.amps <= most(form), "no such tandem or quad")?;
                        let (c, r, s, ..) = place(id).unwrap();
                        let in_place = !it.replaced && it.home == Some((c, r, s));
                        kinds.insert(match () {
                            () if came || in_place => Way::Relocate,
                            () if quad => Way::Quad,
                            () => Way::Tandem,
                        });
                    }
                }
            }
        }
    }
    must(poles <= panel.listed_poles, "more poles than listed")?;
    must(splices <= panel.splice_room, "more splices than the gutter takes")?;
    // The legs.
    let sums = |now: bool| {
        let mut sums: BTreeMap<&str, i64> = panel.legs.iter().map(|name| (name.as_str(), 0)).collect();
        for c in problem.circuits.iter().filter(|_| now) {
            for (n, load) in c.load.iter().enumerate() {
                *sums.get_mut(leg(c.at.row + n)).unwrap() += load;
            }
        }
        for (id, it) in all.iter().filter(|(id, _)| !now && *id != "gap") {
            let Some((_, row, _, flip, n)) = place(id) else { continue };
            for pole in 0..n {
                let load = if flip { it.load[n - 1 - pole] } else { it.load[pole] };
                *sums.get_mut(leg(row + pole)).unwrap() += load;
            }
        }
        sums
    };
    let mut after = sums(false);
    for (name, load) in extra_legs {
        *after.get_mut(name).unwrap() += load;
    }
    let heaviest = *after.values().max().unwrap();
    let spread = heaviest - after.values().min().unwrap();
    let within_80 = heaviest * 100 <= 80 * 10 * panel.main_amps.min(panel.bus_amps);
    let all_loads = |now: bool| sums(now).values().sum::<i64>();
    let in_sub: i64 = all.iter().filter(|(id, _)| matches!(end(id), End::Sub(_))).flat_map(|(_, it)| &it.load).sum();
    let as_guest: i64 =
        all.iter().filter(|(id, _)| matches!(end(id), End::Join(_) | End::Tap(_))).flat_map(|(_, it)| &it.load).sum();
    let no_load_added = !matches!(problem.wish, WishOf::Level { .. }) && all_loads(false) + in_sub + as_guest <= all_loads(true);
    must(within_80 || no_load_added && heaviest <= *sums(true).values().max().unwrap(), "a leg carries too much")?;
    if let WishOf::Level { max_diff: Some(diff) } = problem.wish {
        must(spread <= diff, "the legs are too far apart")?;
    }
    for needed in ["new", "gap"] {
        must(!all.contains_key(needed) || *end(needed) != End::Home && *end(needed) != End::Out, "the wish is not met")?;
    }
    let way = kinds.last().copied().ok_or("nothing is done")?;
    let w = &problem.weights;
    Ok((way, minutes * w.minute + money * w.money + risk * w.risk + spread * w.imbalance))
}

/// Makes the moves one after the other, as somebody at the panel would; what they lead to.
pub(crate) fn made(all: &BTreeMap<String, Wanted>, moves: &[Move]) -> Result<BTreeMap<String, End>, String> {
    must(moves.first() == Some(&Move::Open) && moves.last() == Some(&Move::Close), "the panel is opened first and closed last")?;
    let mut now: BTreeMap<String, BTreeSet<Half>> =
        all.iter().filter_map(|(id, it)| it.home.map(|(c, r, s)| (id.clone(), halves(c, r, s, it.home_poles)))).collect();
    let mut ends: BTreeMap<String, End> = BTreeMap::new();
    let mut lifted: BTreeSet<String> = BTreeSet::new();
    let mut sub = false;
    for change in &moves[1..moves.len() - 1] {
        match change {
            Move::TakeOut { circuit } => {
                now.remove(circuit).ok_or("nothing to take out")?;
                ends.insert(circuit.clone(), End::Out);
            }
            Move::Lift { circuit } => {
                now.remove(circuit).ok_or("nothing to lift")?;
                lifted.insert(circuit.clone());
            }
            Move::Land { circuit, column, row, shape, flip } => {
                let it = all.get(circuit).ok_or("no such circuit")?;
                let wants = halves(*column, *row, *shape, it.poles);
                let free = now.iter().all(|(id, taken)| id == circuit || taken.is_disjoint(&wants));
                must(free, "landed where somebody is")?;
                must(!ends.contains_key(circuit), "changed twice")?;
                now.insert(circuit.clone(), wants);
                lifted.remove(circuit);
                ends.insert(circuit.clone(), End::At { column: *column, row: *row, shape: *shape, flip: *flip });
            }
            Move::Reland { circuit } => must(!ends.contains_key(circuit), "landed again after it moved")?,
            Move::Join { circuit, to } | Move::Tap { circuit, to } => {
                must(now.contains_key(to) && !ends.contains_key(circuit), "the host is not landed")?;
                now.remove(circuit);
                lifted.remove(circuit);
                let end = if matches!(change, Move::Join { .. }) { End::Join(to.clone()) } else { End::Tap(to.clone()) };
                ends.insert(circuit.clone(), end);
            }
            Move::Sub => {
                must(ends.contains_key("feeder"), "no feeder")?;
                sub = true;
            }
            Move::ToSub { circuit, pole } => {
                must(sub && !ends.contains_key(circuit), "no sub-panel yet")?;
                now.remove(circuit);
                lifted.remove(circuit);
                ends.insert(circuit.clone(), End::Sub(*pole));
            }
            Move::Open | Move::Close | Move::Use { .. } | Move::Call => return Err(format!("{change:?} within a plan")),
        }
    }
    must(lifted.is_empty(), "a circuit is left lifted")?;
    if all.contains_key("feeder") && !ends.contains_key("feeder") {
        ends.insert("feeder".into(), End::Out);
    }
    Ok(ends)
}
