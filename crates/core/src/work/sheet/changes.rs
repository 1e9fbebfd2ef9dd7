//! What holds once a job is done: the facts that its last step writes, all in one line.

use super::panel_job::left_open;
use crate::logbook::{
    BreakerMoved, BreakerPlaced, BreakerRemoved, BreakerSwitched, Fact, FillerSeen, KnownJob, LabelClaimed, LoadPlaced,
    PanelDescribed, PointPlaced, PointsRewired,
};
use crate::model::{
    ACROSS, Amps, Breaker, BreakerDetails, BreakerId, Configuration, Draw, Job, JobMove, LoadPlate, NewOutlet, Panel,
    PanelDetails, PanelId, PointDetails, PointId, PointKind, Protection, Slot, State, Terminal, Volts, position,
};
use crate::study::Study;
use crate::trace::on_breaker;

/// The facts. Torques come from the readings of the sheet.
pub(crate) fn changes(home: &Study, job: &KnownJob) -> Vec<Fact> {
    match &job.work {
        Job::Reset { breaker } => {
            let was_on = home.panels().breaker(breaker).is_none_or(|b| b.state == State::On);
            if was_on { Vec::new() } else { vec![BreakerSwitched { breaker: breaker.clone(), to: State::On }.into()] }
        }
        Job::Point { .. } | Job::MakeUp { .. } => Vec::new(),
        Job::Panel { panel, moves } | Job::Done { panel, moves, .. } => {
            // Where an electrician worked nobody walked the outlets with the sheet in hand.
            let walked = matches!(job.work, Job::Panel { .. });
            of_moves(home, panel, moves, Some(job), walked)
        }
    }
}

/// The facts of these moves, as if they were done.
pub(crate) fn of_moves(home: &Study, panel: &PanelId, moves: &[JobMove], job: Option<&KnownJob>, walked: bool) -> Vec<Fact> {
    let Some(panel) = home.panels().panel(panel) else { return Vec::new() };
    let of = Of { home, panel, job, walked };
    // What goes out makes room for what comes in; what goes where another one was comes after it.
    let mut facts: Vec<Fact> = Vec::new();
    moves.iter().for_each(|one| of.first(one, &mut facts));
    of.moved(moves, &mut facts);
    moves.iter().for_each(|one| of.then(one, &mut facts));
    for slot in left_open(home, panel, moves) {
        facts.push(FillerSeen { panel: panel.id.clone(), at: slot, filler: true }.into());
    }
    if panel.details.splice_room.is_some() && moves.iter().any(|one| of.may_be_spliced(one)) {
        let details = PanelDetails { splice_room: None, ..panel.details.clone() };
        facts.push(PanelDescribed { details, ..PanelDescribed::from(panel) }.into());
    }
    facts
}

struct Of<'a> {
    home: &'a Study,
    panel: &'a Panel,
    job: Option<&'a KnownJob>,
    walked: bool,
}

impl Of<'_> {
    fn breaker(&self, id: &BreakerId) -> Option<&Breaker> {
        self.home.panels().breaker(id)
    }

    /// The torque that was read as it was tightened.
    fn torque(&self, at: &str) -> Option<f64> {
        let step = self.job?.steps.get(&format!("torque-{at}").to_lowercase())?;
        step.read.get("torque").copied().filter(|value| (1.0..=500.0).contains(value))
    }

    /// Whether it takes room for splices, so that what was read of that room holds no longer.
    fn may_be_spliced(&self, one: &JobMove) -> bool {
        match one {
            JobMove::Join { .. } => true,
            JobMove::Move { breaker, at } => self.breaker(breaker).is_none_or(|known| {
                let steps = spaces_between(self.panel, &known.at, at);
                steps.is_none_or(|steps| steps > known.details.slack.map_or(0, i64::from))
            }),
            _ => false,
        }
    }

    fn number(&self, at: &[Slot]) -> String {
        format!("{}{}", self.panel.tag, crate::model::number_of(at))
    }

    /// Breakers that come out, and the points that hang elsewhere.
    fn first(&self, one: &JobMove, facts: &mut Vec<Fact>) {
        let (JobMove::TakeOut { breaker } | JobMove::Join { breaker, .. } | JobMove::Tap { breaker, .. }) = one else { return };
        if self.breaker(breaker).is_none() {
            return;
        }
        if let JobMove::Join { to, .. } | JobMove::Tap { to, .. } = one {
            let points = on_breaker(self.home, breaker).proven.clone();
            if !points.is_empty() {
                self.rewired(points, to, facts);
            }
        }
        self.is_on(breaker, facts);
        facts.push(BreakerRemoved { breaker: breaker.clone() }.into());
    }

    /// Breakers that sit elsewhere afterwards. Where they change places with one another, nothing in between fits: the record takes
    /// them one after the other, so one goes by way of an open space.
    fn moved(&self, moves: &[JobMove], facts: &mut Vec<Fact>) {
        let gone: Vec<&BreakerId> = moves
            .iter()
            .filter(|one| matches!(one, JobMove::TakeOut { .. } | JobMove::Join { .. } | JobMove::Tap { .. }))
            .filter_map(JobMove::breaker)
            .collect();
        let mut now: Vec<(BreakerId, Vec<Slot>)> = self
            .home
            .panels()
            .breakers_of(&self.panel.id)
            .filter(|b| !gone.contains(&&b.id))
            .map(|b| (b.id.clone(), b.at.clone()))
            .collect();
        let mut open: Vec<(BreakerId, Vec<Slot>)> = moves
            .iter()
            .filter_map(|one| match one {
                JobMove::Move { breaker, at } | JobMove::TwoPole { breaker, at, .. } => Some((breaker.clone(), at.clone())),
                JobMove::OnePole { breaker, at, .. } => Some((breaker.clone(), vec![*at])),
                _ => None,
            })
            .collect();
        let free = |now: &[(BreakerId, Vec<Slot>)], but: Option<&BreakerId>, at: &[Slot]| {
            !now.iter().any(|(other, taken)| Some(other) != but && taken.iter().any(|a| at.iter().any(|b| a.overlaps(*b))))
        };
        let mut aside: Vec<BreakerId> = Vec::new();
        while !open.is_empty() {
            if let Some(n) = (0..open.len()).find(|n| free(&now, Some(&open[*n].0), &open[*n].1)) {
                let (id, at) = open.remove(n);
                now.iter_mut().filter(|(other, _)| *other == id).for_each(|(_, taken)| taken.clone_from(&at));
                facts.extend(self.placed(&id, &at, moves));
                continue;
            }
            // A breaker of one pole steps aside, once.
            let step = open.iter().find_map(|(id, _)| {
                let poles = self.breaker(id).map_or(1, Breaker::poles);
                let mut spots = self.panel.every_space().into_iter().map(|space| [Slot::whole(space)]);
                let spot = spots.find(|at| free(&now, None, at)).filter(|_| poles == 1 && !aside.contains(id))?;
                Some((id.clone(), spot.to_vec()))
            });
            let Some((id, at)) = step else {
                // It does not fit: written down, the record refuses it and with it the whole job.
                facts.extend(open.iter().map(|(id, at)| BreakerMoved { breaker: id.clone(), at: at.clone() }.into()));
                return;
            };
            now.iter_mut().filter(|(other, _)| *other == id).for_each(|(_, taken)| taken.clone_from(&at));
            aside.push(id.clone());
            facts.push(BreakerMoved { breaker: id, at }.into());
        }
    }

    /// The breaker at its new place.
    fn placed(&self, id: &BreakerId, at: &[Slot], moves: &[JobMove]) -> Option<Fact> {
        let known = self.breaker(id)?;
        let change = moves.iter().find(|one| one.breaker() == Some(id))?;
        let torque = self.torque(&self.number(at));
        let halves = |slots: &[Slot]| slots.iter().any(|slot| slot.half.is_some());
        let terminal = Terminal { torque_inlb: torque.or(known.details.terminal.torque_inlb), ..known.details.terminal };
        match change {
            // The breaker itself goes, with all that is known of it.
            JobMove::Move { .. } if halves(at) == halves(&known.at) => {
                let details = BreakerDetails { terminal, slack: None, ..known.details.clone() };
                if terminal == known.details.terminal {
                    return Some(BreakerMoved { breaker: id.clone(), at: at.to_vec() }.into());
                }
                Some(BreakerPlaced { at: at.to_vec(), details, ..BreakerPlaced::from(known) }.into())
            }
            // Another breaker: what was read on the old one says nothing of it.
            JobMove::Move { .. } => {
                Some(BreakerPlaced { at: at.to_vec(), details: self.fresh(known, torque), ..BreakerPlaced::from(known) }.into())
            }
            JobMove::TwoPole { amps, .. } | JobMove::OnePole { amps, .. } => {
                let details = self.fresh(known, torque);
                Some(
                    BreakerPlaced {
                        at: at.to_vec(),
                        amps: *amps,
                        protection: Protection::Standard,
                        details,
                        ..BreakerPlaced::from(known)
                    }
                    .into(),
                )
            }
            _ => None,
        }
    }

    /// A breaker that was recorded as off or tripped is on.
    fn is_on(&self, breaker: &BreakerId, facts: &mut Vec<Fact>) {
        if self.breaker(breaker).is_some_and(|known| known.state != State::On) {
            facts.push(BreakerSwitched { breaker: breaker.clone(), to: State::On }.into());
        }
    }

    /// The details of a new breaker on the same wires.
    fn fresh(&self, known: &Breaker, torque: Option<f64>) -> BreakerDetails {
        BreakerDetails {
            terminal: Terminal { under: known.details.terminal.under, listed: None, alike: None, torque_inlb: torque },
            neutral: known.details.neutral,
            feeds: known.details.feeds.clone(),
            ..BreakerDetails::default()
        }
    }

    fn then(&self, one: &JobMove, facts: &mut Vec<Fact>) {
        match one {
            JobMove::TakeOut { .. } | JobMove::Move { .. } => {}
            JobMove::Join { to, .. } => self.tightened(to, None, facts),
            JobMove::Tap { to, .. } => self.tightened(to, Some(2), facts),
            JobMove::Tighten { breaker } => self.tightened(breaker, None, facts),
            JobMove::Fill { at } => facts.push(FillerSeen { panel: self.panel.id.clone(), at: *at, filler: true }.into()),
            JobMove::Replace { breaker, amps, protection } => {
                let Some(known) = self.breaker(breaker) else { return };
                let details = BreakerDetails {
                    housing: known.details.housing,
                    tie: known.details.tie,
                    slack: known.details.slack,
                    ..self.fresh(known, self.torque(&self.number(&known.at)))
                };
                facts.push(BreakerPlaced { amps: *amps, protection: *protection, details, ..BreakerPlaced::from(known) }.into());
                self.is_on(breaker, facts);
            }
            JobMove::TwoPole { breaker, amps, .. } => self.outlet_changed(breaker, *amps, 240, facts),
            JobMove::OnePole { breaker, amps, .. } => self.outlet_changed(breaker, *amps, 120, facts),
            JobMove::New { breaker, at, amps, protection, what, wire, feeds, outlet, .. } => {
                let details = BreakerDetails {
                    feeds: feeds.clone(),
                    terminal: Terminal { under: Some(1), torque_inlb: self.torque(&self.number(at)), ..Terminal::default() },
                    ..BreakerDetails::default()
                };
                facts.push(
                    BreakerPlaced {
                        breaker: breaker.clone(),
                        panel: self.panel.id.clone(),
                        at: at.clone(),
                        amps: *amps,
                        protection: *protection,
                        wire: *wire,
                        details,
                    }
                    .into(),
                );
                match outlet {
                    Some(outlet) => self.new_outlet(outlet, breaker, *amps, at.len(), what, facts),
                    None if !what.is_empty() => facts.push(LabelClaimed { breaker: breaker.clone(), text: what.clone() }.into()),
                    None => {}
                }
            }
        }
    }

    fn tightened(&self, id: &BreakerId, under: Option<u8>, facts: &mut Vec<Fact>) {
        // As it is by what was done before: it may sit elsewhere now.
        let before = facts.iter().rev().find_map(|fact| match fact {
            Fact::BreakerPlaced(placed) if placed.breaker == *id => Some(placed.clone()),
            _ => None,
        });
        let Some(known) = before.or_else(|| self.breaker(id).map(BreakerPlaced::from)) else { return };
        let at = facts.iter().rev().find_map(|fact| match fact {
            Fact::BreakerMoved(moved) if moved.breaker == *id => Some(moved.at.clone()),
            Fact::BreakerPlaced(placed) if placed.breaker == *id => Some(placed.at.clone()),
            _ => None,
        });
        let at = at.unwrap_or_else(|| known.at.clone());
        let was = &known.details.terminal;
        let torque_inlb = self.torque(&self.number(&at)).or(was.torque_inlb);
        // Two go under it only where its marking was read as one for two of this size and metal.
        let terminal = match under {
            Some(under) => Terminal { under: Some(under), listed: was.listed.max(Some(under)), alike: Some(true), torque_inlb },
            None => Terminal { torque_inlb, ..*was },
        };
        if terminal != *was {
            // What a move took back of it stays so.
            let slack = if at == known.at { known.details.slack } else { None };
            let details = BreakerDetails { terminal, slack, ..known.details.clone() };
            facts.push(BreakerPlaced { at, details, ..known }.into());
        }
    }

    /// The one outlet of a circuit has another voltage and another face.
    fn outlet_changed(&self, breaker: &BreakerId, amps: Amps, volts: u16, facts: &mut Vec<Fact>) {
        let [point] = on_breaker(self.home, breaker).proven.as_slice() else { return };
        let Some(point) = self.home.house().point(point) else { return };
        facts.push(
            PointPlaced {
                volts: Volts::new(volts),
                configuration: face(amps, volts),
                only_one: true,
                ..PointPlaced::from(point)
            }
            .into(),
        );
        self.rewired(vec![point.id.clone()], breaker, facts);
    }

    fn new_outlet(&self, outlet: &NewOutlet, breaker: &BreakerId, amps: Amps, poles: usize, what: &str, facts: &mut Vec<Fact>) {
        let volts = if poles > 1 { 240 } else { 120 };
        let name = if what.trim().is_empty() { "new outlet" } else { what.trim() };
        facts.push(
            PointPlaced {
                point: outlet.point.clone(),
                room: outlet.room.clone(),
                point_kind: PointKind::Receptacle,
                name: name.to_owned(),
                volts: Volts::new(volts),
                configuration: None,
                only_one: true,
                plate: None,
                details: PointDetails::default(),
            }
            .into(),
        );
        if let Some(takes) = outlet.takes.filter(|takes| *takes > 0.0 && *takes <= amps.value())
            && let Ok(load) = outlet.point.as_str().parse()
        {
            facts.push(
                LoadPlaced {
                    load,
                    point: outlet.point.clone(),
                    name: name.to_owned(),
                    appliance: None,
                    count: 1,
                    draw: Draw::Plate(LoadPlate { volts: Some(f64::from(volts)), amps: Some(takes), ..LoadPlate::default() }),
                    continuous: None,
                    fastened: None,
                    usage: None,
                    with: None,
                    never_with: Vec::new(),
                }
                .into(),
            );
        }
        self.rewired(vec![outlet.point.clone()], breaker, facts);
    }

    /// Whoever walked the sheet saw the outlet go off with its breaker and come back, and left that on.
    fn rewired(&self, points: Vec<PointId>, breaker: &BreakerId, facts: &mut Vec<Fact>) {
        if self.walked {
            self.is_on(breaker, facts);
        }
        facts.push(PointsRewired { points, breaker: breaker.clone(), tested: self.walked }.into());
    }
}

/// By how many spaces further a wire has to reach to come from one place to the other; the other side of the panel counts as six.
fn spaces_between(panel: &Panel, from: &[Slot], to: &[Slot]) -> Option<i64> {
    let place = |slots: &[Slot]| slots.first().and_then(|slot| position(panel, slot.space));
    let ((side, row), (to_side, to_row)) = (place(from)?, place(to)?);
    Some((i64::from(row) - i64::from(to_row)).abs() + if side == to_side { 0 } else { ACROSS })
}

/// The face that fits a circuit of its own.
pub(crate) fn face(amps: Amps, volts: u16) -> Option<Configuration> {
    use Configuration as C;
    Some(match (volts, amps.value().round() as i64) {
        (240, ..=15) => C::N6x15,
        (240, ..=20) => C::N6x20,
        (240, ..=30) => C::N6x30,
        (240, ..=50) => C::N6x50,
        (120, ..=15) => C::N5x15,
        (120, ..=20) => C::N5x20,
        (120, ..=30) => C::N5x30,
        _ => return None,
    })
}
