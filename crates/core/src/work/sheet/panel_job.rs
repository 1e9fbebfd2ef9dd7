//! The steps of work in an open panel, put together from what is done to each breaker.

use indexmap::IndexSet;

use super::gates::{SwitchedOff, card, close, make_ready, power_up, switch_off, switched_off};
use super::steps::Steps;
use crate::model::{Breaker, BreakerId, Interior, JobMove, Panel, PointId, Protection, Service, Slot, State, number_of};
use crate::study::Study;
use crate::trace::on_breaker;
use crate::work::of_home::left_alone;
use crate::work::problem::Guard;

/// Why a sheet is not made for this, if it is not.
pub(crate) fn why_not(home: &Study, panel: &Panel, moves: &[JobMove]) -> Option<String> {
    let an_electrician = |what: &str| Some(format!("{what} for an electrician: no sheet is made here."));
    match panel.details.interior {
        Interior::Fuses => return an_electrician("Fuses are"),
        Interior::SplitBus => return an_electrician("A split bus is"),
        Interior::Breakers => {}
    }
    if panel.service == Service::HighLeg {
        return an_electrician("A panel with a high leg is");
    }
    // Joined to a breaker that moves too, a wire would have two names on one sheet.
    let hosts = moves.iter().filter_map(|one| match one {
        JobMove::Join { to, .. } | JobMove::Tap { to, .. } => Some(to),
        _ => None,
    });
    for host in hosts {
        if moves.iter().any(|one| one.breaker() == Some(host)) {
            let number = home.panels().number(host);
            return Some(format!(
                "Two things are done to {number} here: make two jobs of it, what is done to {number} itself first, then search again."
            ));
        }
    }
    moves.iter().find_map(|one| {
        let id = match one {
            JobMove::New { .. } | JobMove::Fill { .. } => return None,
            JobMove::Join { breaker, to } | JobMove::Tap { breaker, to } => {
                return [breaker, to].into_iter().find_map(|id| of_one(home, panel, id, one));
            }
            one => one.breaker()?,
        };
        of_one(home, panel, id, one)
    })
}

fn of_one(home: &Study, panel: &Panel, id: &BreakerId, one: &JobMove) -> Option<String> {
    let Some(breaker) = home.panels().breaker(id) else {
        return Some("A breaker of this sheet is not in the record any more.".into());
    };
    let number = home.panels().number(id);
    if breaker.panel != panel.id {
        return Some(format!("{number} is in another panel."));
    }
    if breaker.poles() > 2 {
        return Some(format!("{number} has three poles: that is for an electrician."));
    }
    if let JobMove::Move { at, .. } = one
        && at.iter().any(|slot| slot.half.is_some())
        && breaker.details.terminal.under.is_some_and(|under| under > 1)
    {
        return Some(format!(
            "{number} has more than one wire under its terminal, and half of a tandem takes one. Ask an electrician."
        ));
    }
    let guards = |protection: Protection| Guard::from(protection).covers(Guard::from(breaker.protection));
    let keeps = match one {
        JobMove::Replace { protection, .. } => guards(*protection),
        JobMove::TwoPole { .. } | JobMove::OnePole { .. } => guards(Protection::Standard),
        JobMove::Move { at, .. } => at.iter().all(|slot| slot.half.is_none()) || guards(Protection::Standard),
        JobMove::Join { to, .. } | JobMove::Tap { to, .. } => {
            home.panels().breaker(to).is_none_or(|host| guards(host.protection))
        }
        _ => true,
    };
    if !keeps {
        return Some(format!("{number} guards with {}: that would be lost.", breaker.protection.words()));
    }
    // Tightening changes nothing; what is found tripped is what is replaced; of a shared neutral both may move, with a reading after.
    let fine = match one {
        JobMove::Tighten { .. } => breaker.details.brings_in.is_none() && !breaker.details.back_fed_main && !is_old(breaker),
        JobMove::Replace { .. } if breaker.state == State::Tripped => {
            left_alone(home, breaker) == Some("it is found tripped: find out why first")
        }
        JobMove::Replace { amps, .. } if amps.value() > breaker.amps.value() => {
            return Some(format!(
                "A larger breaker on {number} needs a wire, splices and outlets that allow it: that is for an electrician."
            ));
        }
        JobMove::Move { .. } => left_alone(home, breaker).is_none_or(|why| why == "it shares its neutral with another breaker"),
        _ => false,
    };
    if fine {
        return None;
    }
    left_alone(home, breaker).map(|why| format!("{number} is left as it is: {why}. Ask an electrician."))
}

fn is_old(breaker: &Breaker) -> bool {
    use crate::model::{Cable, Metal};
    breaker.wire.is_some_and(|wire| wire.metal == Metal::Aluminum || matches!(wire.cable, Cable::Cloth | Cable::KnobAndTube))
}

/// The whole sheet.
pub(crate) fn panel_steps(home: &Study, panel: &Panel, moves: &[JobMove]) -> Result<(Steps, SwitchedOff), String> {
    if let Some(why) = why_not(home, panel, moves) {
        return Err(why);
    }
    let off = switched_off(home, panel)?;
    let mut work = Work { home, panel, steps: Steps::default() };
    make_ready(&mut work.steps, home, panel);
    for one in moves {
        work.ready(one);
    }
    switch_off(&mut work.steps, home, panel, &off);
    let groups = in_order(home, moves);
    for group in &groups {
        work.fit(group);
    }
    for free in left_open(home, panel, moves) {
        let at = work.at(&[free]);
        work.filler(&at);
    }
    close(&mut work.steps);
    // By the numbers of before and of after.
    let of_before = moves.iter().filter_map(JobMove::breaker).filter(|id| work.breaker(id).is_some()).map(|id| work.number(id));
    let worked_on: IndexSet<String> = moves.iter().filter_map(|one| work.number_after(one)).chain(of_before).collect();
    power_up(&mut work.steps, home, panel, &off, &worked_on);
    for one in moves {
        work.test(one);
    }
    card(&mut work.steps);
    Ok((work.steps, off))
}

/// The spaces, or halves, that a job leaves without a breaker.
pub(crate) fn left_open(home: &Study, panel: &Panel, moves: &[JobMove]) -> Vec<Slot> {
    let mut freed: Vec<Slot> = Vec::new();
    let mut taken: Vec<Slot> = Vec::new();
    for one in moves {
        let was = one.breaker().and_then(|id| home.panels().breaker(id)).map_or(&[][..], |b| b.at.as_slice());
        match one {
            JobMove::TakeOut { .. } | JobMove::Join { .. } | JobMove::Tap { .. } => freed.extend(was),
            JobMove::Move { at, .. } | JobMove::TwoPole { at, .. } => {
                freed.extend(was);
                taken.extend(at);
            }
            JobMove::OnePole { at, .. } => {
                freed.extend(was);
                taken.push(*at);
            }
            JobMove::New { at, .. } => taken.extend(at),
            JobMove::Fill { at } => taken.push(*at),
            JobMove::Replace { .. } | JobMove::Tighten { .. } => {}
        }
    }
    let stays: Vec<Slot> = home
        .panels()
        .breakers_of(&panel.id)
        .filter(|b| {
            !moves
                .iter()
                .any(|one| one.breaker() == Some(&b.id) && !matches!(one, JobMove::Replace { .. } | JobMove::Tighten { .. }))
        })
        .flat_map(|b| b.at.clone())
        .collect();
    freed.retain(|slot| !taken.iter().chain(&stays).any(|other| other.overlaps(*slot)));
    freed
}

/// The breakers in the order in which they are done: what goes where another one was comes after that one; what goes into one tandem
/// goes together.
fn in_order<'a>(home: &Study, moves: &'a [JobMove]) -> Vec<Vec<&'a JobMove>> {
    let target = |one: &JobMove| -> Vec<Slot> {
        match one {
            JobMove::Move { at, .. } | JobMove::TwoPole { at, .. } | JobMove::New { at, .. } => at.clone(),
            JobMove::OnePole { at, .. } => vec![*at],
            _ => Vec::new(),
        }
    };
    let source = |one: &JobMove| -> Vec<Slot> {
        let leaves = matches!(
            one,
            JobMove::Move { .. }
                | JobMove::TwoPole { .. }
                | JobMove::OnePole { .. }
                | JobMove::TakeOut { .. }
                | JobMove::Join { .. }
                | JobMove::Tap { .. }
        );
        one.breaker().filter(|_| leaves).and_then(|id| home.panels().breaker(id)).map_or_else(Vec::new, |b| b.at.clone())
    };
    let same_space = |one: &[Slot], other: &[Slot]| {
        one.iter().any(|a| a.half.is_some() && other.iter().any(|b| b.half.is_some() && a.space == b.space))
    };
    let overlap = |one: &[Slot], other: &[Slot]| one.iter().any(|a| other.iter().any(|b| a.overlaps(*b)));
    let mut groups: Vec<Vec<&JobMove>> = Vec::new();
    for one in moves {
        match groups.iter_mut().find(|group| group.iter().any(|other| same_space(&target(one), &target(other)))) {
            Some(group) => group.push(one),
            None => groups.push(vec![one]),
        }
    }
    let mut done: Vec<Vec<&JobMove>> = Vec::new();
    while !groups.is_empty() {
        let waits = |n: usize| {
            let targets: Vec<Slot> = groups[n].iter().flat_map(|one| target(one)).collect();
            groups.iter().enumerate().any(|(m, other)| m != n && other.iter().any(|one| overlap(&targets, &source(one))))
        };
        match (0..groups.len()).find(|n| !waits(*n)) {
            Some(n) => done.push(groups.remove(n)),
            // They change places with one another: all at once.
            None => done.push(groups.drain(..).flatten().collect()),
        }
    }
    done
}

pub(super) struct Work<'a> {
    pub(super) home: &'a Study,
    pub(super) panel: &'a Panel,
    pub(super) steps: Steps,
}

impl Work<'_> {
    pub(super) fn number(&self, id: &BreakerId) -> String {
        self.home.panels().number(id)
    }

    pub(super) fn breaker(&self, id: &BreakerId) -> Option<&Breaker> {
        self.home.panels().breaker(id)
    }

    pub(super) fn at(&self, slots: &[Slot]) -> String {
        format!("{}{}", self.panel.tag, number_of(slots))
    }

    /// The number that the circuit has afterwards; nothing where none is left.
    pub(super) fn number_after(&self, one: &JobMove) -> Option<String> {
        Some(match one {
            JobMove::TakeOut { .. } | JobMove::Fill { .. } => return None,
            JobMove::Move { at, .. } | JobMove::TwoPole { at, .. } | JobMove::New { at, .. } => self.at(at),
            JobMove::OnePole { at, .. } => self.at(&[*at]),
            JobMove::Replace { breaker, .. } | JobMove::Tighten { breaker } => self.number(breaker),
            JobMove::Join { to, .. } | JobMove::Tap { to, .. } => self.number(to),
        })
    }

    pub(super) fn on(&self, id: &BreakerId) -> Vec<PointId> {
        on_breaker(self.home, id).proven.clone()
    }

    /// `Kitchen, counter`.
    pub(super) fn point(&self, id: &PointId) -> String {
        self.home
            .house()
            .point(id)
            .map_or_else(|| "an outlet".into(), |point| format!("{}, {}", self.home.house().room_name(&point.room), point.name))
    }

    /// Where a circuit is read: `at one of its outlets, for example Kitchen, counter`.
    pub(super) fn where_read(&self, id: &BreakerId) -> String {
        self.on(id)
            .first()
            .map_or_else(|| "at one of its outlets".into(), |point| format!("at one of its outlets: {}", self.point(point)))
    }

    /// What a kind of breaker is called.
    pub(super) fn kind(amps: f64, poles: usize, protection: Protection) -> String {
        let guard = protection.words();
        let guard = if guard.is_empty() { String::new() } else { format!(" {guard}") };
        let pole = if poles == 2 { "two-pole" } else { "one-pole" };
        format!("{pole}{guard} breaker of {amps} A")
    }
}
