//! A problem made ready for the search: spaces numbered through, halves as bits, circuits with what may become of each.

use super::problem::*;
use crate::model::{Cable, Edition, Metal, Terminals, Wire, WireGauge, ampacity};

/// A set of halves: bit `2 s` is the upper half of space `s`, bit `2 s + 1` the lower one.
pub(super) type Halves = u128;

/// The most spaces of which a set of halves can be kept.
pub(super) const MOST_SPACES: usize = 64;

/// The most circuits: beside them a new one, open spaces and a feeder still have their bits.
const MOST_CIRCUITS: usize = 120;

/// What stands for a circuit in the search.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Role {
    /// It is on the panel.
    Existing,
    /// The new circuit of the wish.
    New,
    /// Open spaces, held free.
    Gap,
    /// The feeder of a sub-panel.
    Feeder,
}

/// A circuit as numbers.
#[derive(Debug, Clone)]
pub(super) struct Unit {
    pub(super) role: Role,
    pub(super) poles: usize,
    pub(super) amps: i64,
    pub(super) wire_amps: i64,
    pub(super) guard: Guard,
    pub(super) load: [i64; 2],
    pub(super) continuous: bool,
    pub(super) shared_neutral: bool,
    pub(super) fixed: bool,
    pub(super) spare: bool,
    /// Its breaker is no pole of the listing: the main.
    pub(super) uncounted: bool,
    /// Lighting, general or alarm.
    pub(super) may_combine: bool,
    pub(super) general: bool,
    pub(super) conductors: i64,
    pub(super) terminal: i64,
    pub(super) awg: i64,
    pub(super) slack: i64,
    /// The circuit that the wish replaces.
    pub(super) replaced: bool,
    /// Where it is, with the breaker that is there.
    pub(super) home: Option<At>,
    pub(super) home_breaker: (usize, i64, Guard),
    /// The tandem or quad in which it is.
    pub(super) body: Option<usize>,
}

impl Unit {
    /// Its load for the breaker, in hundredths of a tenth of an ampere.
    pub(super) fn demand(&self) -> i64 {
        self.load[0].max(self.load[1]) * if self.continuous { 125 } else { 100 }
    }

    /// Whether it may be combined with another at all.
    pub(super) fn combines(&self) -> bool {
        self.role == Role::Existing
            && self.poles == 1
            && self.may_combine
            && !self.fixed
            && !self.shared_neutral
            && !self.replaced
            && self.conductors < 2
    }
}

/// A place of a breaker: its halves and what they mean.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct At {
    pub(super) spot: Spot,
    /// Its topmost space.
    pub(super) space: usize,
    pub(super) halves: Halves,
    pub(super) flip: bool,
}

impl At {
    /// In which place it is, whichever way round its hots are.
    pub(super) fn same_place(&self, other: &Self) -> bool {
        self.halves == other.halves
    }
}

/// What becomes of a circuit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum Seat {
    /// Nothing.
    Home,
    At(At),
    Join(usize),
    Tap(usize),
    /// In the sub-panel, with its first hot on this leg of the feeder.
    Sub(usize),
    /// A spare that is taken out.
    Out,
    /// Not settled yet.
    Pending,
}

/// A tandem or quad that is there.
#[derive(Debug, Clone)]
pub(super) struct Body {
    pub(super) quad: bool,
    pub(super) space: usize,
    pub(super) amps: Vec<i64>,
    pub(super) inner_tied: bool,
    pub(super) outer_tied: bool,
    pub(super) members: Vec<usize>,
}

/// The problem made ready.
#[derive(Debug)]
pub(super) struct Setup<'a> {
    pub(super) problem: &'a Problem,
    pub(super) units: Vec<Unit>,
    /// How many of the units are on the panel.
    pub(super) existing: usize,
    pub(super) new: Option<usize>,
    pub(super) gap: Option<usize>,
    pub(super) feeder: Option<usize>,
    pub(super) bodies: Vec<Body>,
    /// The leg of each space, by number.
    pub(super) leg: Vec<usize>,
    /// Column and row of each space.
    pub(super) spots: Vec<(usize, usize)>,
    pub(super) legs: usize,
    /// Which circuit is in each half now.
    pub(super) in_half: Vec<usize>,
    /// The halves of spaces that take tandems.
    pub(super) listed: Halves,
    /// 80 % of the lesser of main and bus, in tenths of an ampere.
    pub(super) limit: i64,
    /// What each leg carries now.
    pub(super) before: [i64; 3],
    /// The wish brings load.
    pub(super) adds: bool,
    pub(super) level: bool,
    pub(super) max_diff: Option<i64>,
}

/// The limit of a copper wire by its 60 °C column; 0 is 1/0, and a wire that is not in the table carries nothing.
pub(super) fn wire_amps(awg: i64) -> i64 {
    let number = if awg == 0 { "1/0".to_owned() } else { awg.to_string() };
    WireGauge::named(&number).map_or(0, |gauge| {
        let wire = Wire { gauge, metal: Metal::Copper, terminals: Terminals::Unread, cable: Cable::Nm };
        ampacity(wire, Edition::default()).value() as i64
    })
}

/// Circuits that a dwelling must have of their own (NEC 210.11(C), from memory).
pub(super) fn is_required(class: &str) -> bool {
    matches!(class, "small_appliance" | "laundry" | "bath" | "garage")
}

fn pair(load: &[i64]) -> [i64; 2] {
    [load.first().copied().unwrap_or(0), load.get(1).copied().unwrap_or(0)]
}

impl<'a> Setup<'a> {
    pub(super) fn of(problem: &'a Problem) -> Result<Self, String> {
        let panel = &problem.panel;
        let mut spots = Vec::new();
        let mut names: Vec<&serde_json::Value> = Vec::new();
        for (column, rows) in panel.columns.iter().enumerate() {
            for (row, name) in rows.iter().enumerate() {
                spots.push((column, row));
                names.push(name);
            }
        }
        if spots.is_empty() || spots.len() > MOST_SPACES {
            return Err(format!("a panel has 1 to {MOST_SPACES} spaces; this one has {}", spots.len()));
        }
        let price = &problem.costs.price;
        for guard in [Guard::Standard, Guard::Gfci, Guard::Afci, Guard::Dual] {
            if [&price.single, &price.double].iter().any(|by| !by.contains_key(guard.key())) {
                return Err(format!("the costs name no price of a breaker “{}” of one and of two poles", guard.key()));
            }
        }
        if problem.circuits.len() > MOST_CIRCUITS {
            return Err(format!("a panel has at most {MOST_CIRCUITS} circuits here; this one has {}", problem.circuits.len()));
        }
        let mut known: Vec<&str> = Vec::new();
        for name in &panel.legs {
            if !known.contains(&name.as_str()) {
                known.push(name);
            }
        }
        if known.is_empty() || known.len() > 3 {
            return Err(format!("a panel has 1 to 3 legs; this one has {}", known.len()));
        }
        let mut leg = Vec::new();
        for (_, row) in &spots {
            let name = panel.legs.get(*row).ok_or_else(|| format!("row {row} has no leg"))?;
            leg.push(known.iter().position(|k| k == name).unwrap_or(0));
        }
        let mut listed = 0;
        for (space, name) in names.iter().enumerate() {
            if panel.tandem_spaces.contains(name) {
                listed |= 0b11 << (2 * space);
            }
        }
        let mut setup = Self {
            problem,
            units: Vec::new(),
            existing: problem.circuits.len(),
            new: None,
            gap: None,
            feeder: None,
            bodies: Vec::new(),
            legs: known.len(),
            leg,
            spots,
            in_half: vec![usize::MAX; 2 * MOST_SPACES],
            listed,
            limit: 8 * panel.main_amps.min(panel.bus_amps),
            before: [0; 3],
            adds: false,
            level: matches!(&problem.wish, WishOf::Level { .. }),
            max_diff: match &problem.wish {
                WishOf::Level { max_diff } => *max_diff,
                _ => None,
            },
        };
        let mut taken: Halves = 0;
        for circuit in &problem.circuits {
            if !(1..=2).contains(&circuit.poles) {
                return Err(format!("{} has {} poles; here a circuit has one or two", circuit.id, circuit.poles));
            }
            let home = setup
                .at(circuit.at.column, circuit.at.row, circuit.at.shape, circuit.poles)
                .ok_or_else(|| format!("{} stands outside the panel", circuit.id))?;
            if taken & home.halves != 0 {
                return Err(format!("{} stands where another circuit is", circuit.id));
            }
            taken |= home.halves;
            for half in 0..2 * MOST_SPACES {
                if home.halves >> half & 1 == 1 {
                    setup.in_half[half] = setup.units.len();
                }
            }
            setup.units.push(Unit {
                role: Role::Existing,
                poles: circuit.poles,
                amps: circuit.amps,
                wire_amps: wire_amps(circuit.awg),
                guard: circuit.protection,
                load: pair(&circuit.load),
                continuous: circuit.continuous,
                shared_neutral: circuit.shared_neutral,
                fixed: circuit.fixed,
                spare: circuit.class == "spare",
                uncounted: circuit.class == "main",
                may_combine: matches!(circuit.class.as_str(), "lighting" | "general" | "alarm"),
                general: circuit.class == "general",
                conductors: circuit.conductors,
                terminal: circuit.terminal,
                awg: circuit.awg,
                slack: circuit.slack,
                replaced: false,
                home: Some(home),
                home_breaker: (circuit.poles, circuit.amps, circuit.protection),
                body: None,
            });
        }
        for index in 0..setup.existing {
            setup.add_to_before(index);
        }
        if problem.bodies.len() > setup.spots.len() {
            return Err("there are more tandems and quads than spaces".to_owned());
        }
        for body in &problem.bodies {
            let quad = body.form == "quad";
            let spaces = if quad { 2 } else { 1 };
            let space = setup.space(body.column, body.row).ok_or("a tandem stands outside the panel")?;
            setup.space(body.column, body.row + spaces - 1).ok_or("a quad stands outside the panel")?;
            if body.amps.len() != 2 * spaces {
                return Err(format!("a {} has {} handles; {} are given", body.form, 2 * spaces, body.amps.len()));
            }
            let within: Halves = ((1u128 << (2 * spaces)) - 1) << (2 * space);
            let members: Vec<usize> = (0..setup.existing)
                .filter(|&i| setup.units[i].home.is_some_and(|h| h.spot.shape != Shape::Full && h.halves & within != 0))
                .collect();
            for &member in &members {
                setup.units[member].body = Some(setup.bodies.len());
            }
            setup.bodies.push(Body {
                quad,
                space,
                amps: body.amps.clone(),
                inner_tied: body.ties.contains(&Shape::Inner),
                outer_tied: body.ties.contains(&Shape::Outer),
                members,
            });
        }
        let total = |units: &[Unit]| -> i64 { units.iter().map(|unit| unit.load[..unit.poles.min(2)].iter().sum::<i64>()).sum() };
        let before = total(&setup.units);
        setup.wish(&problem.wish)?;
        setup.adds = total(&setup.units) > before;
        Ok(setup)
    }

    fn wish(&mut self, wish: &WishOf) -> Result<(), String> {
        let blank = Unit {
            role: Role::New,
            poles: 1,
            amps: 0,
            wire_amps: 0,
            guard: Guard::Standard,
            load: [0; 2],
            continuous: false,
            shared_neutral: false,
            fixed: false,
            spare: false,
            uncounted: false,
            may_combine: false,
            general: false,
            conductors: 1,
            terminal: 1,
            awg: 0,
            slack: 0,
            replaced: false,
            home: None,
            home_breaker: (0, 0, Guard::Standard),
            body: None,
        };
        match wish {
            WishOf::Circuit { poles, amps, awg, protection, load, continuous, .. }
            | WishOf::Own { poles, amps, awg, protection, load, continuous, .. } => {
                if !(1..=2).contains(poles) {
                    return Err(format!("a new circuit has one or two poles, not {poles}"));
                }
                self.new = Some(self.units.len());
                self.units.push(Unit {
                    poles: *poles,
                    amps: *amps,
                    wire_amps: wire_amps(*awg),
                    awg: *awg,
                    guard: *protection,
                    load: pair(load),
                    continuous: *continuous,
                    ..blank.clone()
                });
                if let WishOf::Own { circuit, load, .. } = wish {
                    let from = self.named(circuit)?;
                    let part = pair(load);
                    for (pole, part) in part.iter().enumerate() {
                        self.units[from].load[pole] = (self.units[from].load[pole] - part).max(0);
                    }
                }
            }
            WishOf::Spaces { count } => {
                if !(1..=8).contains(count) {
                    return Err(format!("one to eight open spaces can be wished for, not {count}"));
                }
                self.gap = Some(self.units.len());
                self.units.push(Unit { role: Role::Gap, poles: *count, ..blank.clone() });
            }
            WishOf::Replace { circuit, poles, amps, protection, load } => {
                let index = self.named(circuit)?;
                if !(1..=2).contains(poles) {
                    return Err(format!("a breaker here has one or two poles, not {poles}"));
                }
                let unit = &mut self.units[index];
                (unit.poles, unit.amps, unit.guard, unit.replaced) = (*poles, *amps, *protection, true);
                if !load.is_empty() {
                    unit.load = pair(load);
                }
            }
            WishOf::Level { .. } => {}
        }
        if let Some(sub) = self.problem.sub {
            self.feeder = Some(self.units.len());
            self.units.push(Unit { role: Role::Feeder, poles: 2, amps: sub.feeder_amps, ..blank });
        }
        Ok(())
    }

    fn named(&self, id: &str) -> Result<usize, String> {
        self.problem.circuits.iter().position(|c| c.id == id).ok_or_else(|| format!("there is no circuit {id}"))
    }

    /// The number of a space.
    pub(super) fn space(&self, column: usize, row: usize) -> Option<usize> {
        self.spots.iter().position(|at| *at == (column, row))
    }

    /// A place of so many poles; `None` where it is outside the panel or would take one leg twice.
    pub(super) fn at(&self, column: usize, row: usize, shape: Shape, poles: usize) -> Option<At> {
        let space = self.space(column, row)?;
        let last = match shape {
            Shape::Full => row + poles - 1,
            Shape::Upper | Shape::Lower if poles == 1 => row,
            Shape::Inner | Shape::Outer if poles == 2 => row + 1,
            _ => return None,
        };
        self.space(column, last)?;
        let halves: Halves = match shape {
            Shape::Full => ((1u128 << (2 * poles - 1) << 1) - 1) << (2 * space),
            Shape::Upper => 0b01 << (2 * space),
            Shape::Lower => 0b10 << (2 * space),
            Shape::Inner => 0b0110 << (2 * space),
            Shape::Outer => 0b1001 << (2 * space),
        };
        Some(At { spot: Spot { column, row, shape }, space, halves, flip: false })
    }

    /// By how many spaces a wire reaches from one place to another.
    pub(super) fn distance(&self, from: &At, to: &At) -> i64 {
        let rows = (from.spot.row as i64 - to.spot.row as i64).abs();
        rows + if from.spot.column == to.spot.column { 0 } else { self.problem.panel.cross }
    }

    /// How many conductors have to be extended for a circuit to reach a place.
    pub(super) fn extended(&self, unit: &Unit, to: &At) -> i64 {
        match &unit.home {
            Some(home) if self.distance(home, to) > unit.slack => unit.poles as i64 + i64::from(unit.guard != Guard::Standard),
            _ => 0,
        }
    }

    /// What a seat puts on the legs, leg by leg.
    pub(super) fn on_legs(&self, index: usize, at: &At) -> [i64; 3] {
        let unit = &self.units[index];
        let mut legs = [0; 3];
        if unit.role == Role::Gap {
            return legs;
        }
        let [first, second] = if at.flip { [unit.load[1], unit.load[0]] } else { unit.load };
        legs[self.leg[at.space]] += first;
        if unit.poles == 2 && at.space + 1 < self.leg.len() {
            legs[self.leg[at.space + 1]] += second;
        }
        legs
    }

    fn add_to_before(&mut self, index: usize) {
        if let Some(home) = self.units[index].home {
            let legs = self.on_legs(index, &home);
            for (sum, more) in self.before.iter_mut().zip(legs) {
                *sum += more;
            }
        }
    }

    /// Between the heaviest and the lightest leg.
    pub(super) fn spread(&self, legs: &[i64; 3]) -> i64 {
        let legs = &legs[..self.legs];
        legs.iter().max().unwrap_or(&0) - legs.iter().min().unwrap_or(&0)
    }

    pub(super) fn id(&self, index: usize) -> String {
        match self.units[index].role {
            Role::Existing => self.problem.circuits[index].id.clone(),
            Role::New => "new".to_owned(),
            Role::Gap => "gap".to_owned(),
            Role::Feeder => "feeder".to_owned(),
        }
    }

    /// Whether the label names this protection for this form.
    pub(super) fn label(&self, form: &str, guard: Guard) -> bool {
        self.problem.panel.label.get(form).is_some_and(|named| named.contains(&guard))
    }

    pub(super) fn most_amps(&self, form: &str) -> i64 {
        self.problem.panel.max_amps.get(form).copied().unwrap_or(0)
    }
}
