//! A plan of the search as a job: what is done to each breaker, and the panel as it would be.

use super::problem::{Move, Shape};
use super::sheet::as_it_would_be;
use super::size_view::{KeptSize, kept_size};
use super::wish::HomeWish;
use crate::model::{Amps, BreakerId, Half, Job, JobMove, Leg, NewOutlet, Panel, PointId, Protection, Side, Slot, legs_of};
use crate::panel::{PanelView, panel_view};
use crate::study::Study;

impl From<super::problem::Guard> for Protection {
    fn from(guard: super::problem::Guard) -> Self {
        use super::problem::Guard;
        match guard {
            Guard::Standard => Self::Standard,
            Guard::Gfci => Self::Gfci,
            Guard::Afci => Self::Afci,
            Guard::Dual => Self::DualFunction,
        }
    }
}

/// The slots of a place.
fn slots(panel: &Panel, column: usize, row: usize, shape: Shape, poles: usize) -> Option<Vec<Slot>> {
    let has = |side: Side| (0..panel.rows()).any(|row| panel.space_at(side, row).is_some());
    let side = [Side::Left, Side::Right].into_iter().filter(|side| has(*side)).nth(column)?;
    let space = |row: usize| panel.space_at(side, u8::try_from(row).ok()?);
    let half = |row: usize, half: Half| Some(Slot { space: space(row)?, half: Some(half) });
    Some(match shape {
        Shape::Full => (0..poles).map(|n| space(row + n).map(Slot::whole)).collect::<Option<Vec<_>>>()?,
        Shape::Upper => vec![half(row, Half::Upper)?],
        Shape::Lower => vec![half(row, Half::Lower)?],
        Shape::Inner => vec![half(row, Half::Lower)?, half(row + 1, Half::Upper)?],
        Shape::Outer => vec![half(row, Half::Upper)?, half(row + 1, Half::Lower)?],
    })
}

/// An id for a breaker that is to come; nobody has it yet, nor one of these.
fn new_id(home: &Study, moves: &[JobMove]) -> Option<BreakerId> {
    (home.seq()..).find_map(|n| {
        let id: BreakerId = format!("new-{n}").parse().ok()?;
        let is_free = home.panels().breaker(&id).is_none() && moves.iter().all(|one| one.breaker() != Some(&id));
        is_free.then_some(id)
    })
}

/// The outlet at the end of a circuit that was sized for one in a room.
fn new_outlet(home: &Study, kept: &KeptSize<'_>) -> Option<NewOutlet> {
    let room = kept.asked.room.clone().filter(|id| home.house().room(id).is_some())?;
    if kept.asked.several_receptacles || kept.asked.point.is_some() {
        return None;
    }
    let point = (home.seq()..).find_map(|n| {
        let id: PointId = format!("new-{n}").parse().ok()?;
        home.house().point(&id).is_none().then_some(id)
    })?;
    Some(NewOutlet { point, room, takes: Some(kept.sized.takes) })
}

/// What is done to each breaker; `None` where the plan has something for which there is no sheet.
pub(super) fn job_moves(home: &Study, panel: &Panel, wish: &HomeWish, plan: &[Move], feeder_amps: i64) -> Option<Vec<JobMove>> {
    let known = |id: &str| home.panels().breakers_of(&panel.id).find(|breaker| breaker.id.as_str() == id);
    let mut moves: Vec<JobMove> = Vec::new();
    for change in plan {
        match change {
            Move::Open | Move::Close | Move::Lift { .. } | Move::Use { .. } | Move::Sub => {}
            Move::Call => return None,
            Move::ToSub { circuit, .. } if circuit == "new" => {}
            Move::ToSub { circuit, .. } => moves.push(JobMove::TakeOut { breaker: known(circuit)?.id.clone() }),
            Move::Land { circuit, column, row, shape, .. } if circuit == "feeder" => moves.push(JobMove::New {
                breaker: new_id(home, &moves)?,
                at: slots(panel, *column, *row, *shape, 2)?,
                amps: Amps::new(feeder_amps as f64),
                protection: Protection::Standard,
                what: String::new(),
                wire: None,
                neutral: true,
                feeds: "Sub-panel".into(),
                outlet: None,
            }),
            Move::TakeOut { circuit } => moves.push(JobMove::TakeOut { breaker: known(circuit)?.id.clone() }),
            Move::Join { circuit, to } => {
                moves.push(JobMove::Join { breaker: known(circuit)?.id.clone(), to: known(to)?.id.clone() });
            }
            Move::Tap { circuit, to } => {
                moves.push(JobMove::Tap { breaker: known(circuit)?.id.clone(), to: known(to)?.id.clone() });
            }
            Move::Reland { circuit } => {
                let breaker = known(circuit)?;
                moves.push(JobMove::Replace { breaker: breaker.id.clone(), amps: breaker.amps, protection: breaker.protection });
            }
            Move::Land { circuit, .. } if circuit == "gap" => {}
            Move::Land { circuit, column, row, shape, .. } if circuit == "new" => {
                let HomeWish::Circuit { what, poles, amps, protection, .. } = wish else { return None };
                let kept = kept_size(home, what, *poles, *amps);
                moves.push(JobMove::New {
                    breaker: new_id(home, &moves)?,
                    at: slots(panel, *column, *row, *shape, *poles)?,
                    amps: Amps::new(*amps as f64),
                    protection: (*protection).into(),
                    what: what.chars().take(60).collect(),
                    wire: kept.as_ref().map(KeptSize::wire),
                    neutral: *poles == 1 || kept.as_ref().is_some_and(|kept| kept.asked.has_neutral()),
                    feeds: String::new(),
                    outlet: kept.and_then(|kept| new_outlet(home, &kept)),
                });
            }
            Move::Land { circuit, column, row, shape, flip } => {
                let breaker = known(circuit)?;
                let id = breaker.id.clone();
                match wish {
                    HomeWish::Replace { breaker: wished, amps, two_pole: true, .. } if *wished == id => {
                        moves.push(JobMove::TwoPole {
                            breaker: id,
                            at: slots(panel, *column, *row, *shape, 2)?,
                            amps: amps.map_or(breaker.amps, |amps| Amps::new(amps as f64)),
                        })
                    }
                    HomeWish::Replace { breaker: wished, amps, protection, .. } if *wished == id => {
                        let at = slots(panel, *column, *row, *shape, breaker.poles())?;
                        // A new one elsewhere would be two things at once: no sheet.
                        if at != breaker.at {
                            return None;
                        }
                        moves.push(JobMove::Replace {
                            breaker: id,
                            amps: amps.map_or(breaker.amps, |amps| Amps::new(amps as f64)),
                            protection: protection.map_or(breaker.protection, Protection::from),
                        });
                    }
                    _ => {
                        let at = slots(panel, *column, *row, *shape, breaker.poles())?;
                        // Two hots that change places leave the breaker where it is.
                        if *flip || at == breaker.at {
                            return None;
                        }
                        moves.push(JobMove::Move { breaker: id, at });
                    }
                }
            }
        }
    }
    (!moves.is_empty()).then_some(moves)
}

/// The panel as it would be, and what each leg would carry.
pub(super) struct After {
    pub(super) panel: PanelView,
    pub(super) legs: String,
}

/// The panel after these moves; a new circuit takes so many amperes on its legs, where that is said.
pub(super) fn after(home: &Study, panel: &Panel, moves: &[JobMove], takes: Option<i64>) -> Option<After> {
    let study = Study::of(as_it_would_be(home, &panel.id, moves)?);
    let new: Vec<Leg> = moves
        .iter()
        .filter_map(|one| if let JobMove::New { at, .. } = one { Some(legs_of(panel, at)) } else { None })
        .flatten()
        .collect();
    let more = |leg: Leg| if new.contains(&leg) { takes.unwrap_or(0) as f64 } else { 0.0 };
    Some(After { legs: legs(&study, panel, more), panel: panel_view(&study, &panel.id)?.clone() })
}

/// What each leg is expected to carry: `A 61.3, B 47.9 of 100 A`; nothing where no load is known.
pub(super) fn legs(home: &Study, panel: &Panel, more: impl Fn(Leg) -> f64) -> String {
    let Some(known) = crate::loads::legs_of_panels(home).iter().find(|legs| legs.panel == panel.id) else { return String::new() };
    if known.legs.iter().all(|leg| leg.expected <= 0.0) {
        return String::new();
    }
    let legs: Vec<String> =
        known.legs.iter().map(|leg| format!("{} {:.1}", leg.leg.letter(), leg.expected + more(leg.leg))).collect();
    let of = known.rating.map_or_else(String::new, |rating| format!(" of {rating} A"));
    format!("{}{of}", legs.join(", "))
}

/// The job.
pub(super) fn job(panel: &Panel, moves: Vec<JobMove>) -> Job {
    Job::Panel { panel: panel.id.clone(), moves }
}
