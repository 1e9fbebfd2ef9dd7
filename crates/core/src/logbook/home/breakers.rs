//! How facts about breakers change what is known of the panels.

use super::Panels;
use super::bounds::{breaker_details, housing_fits};
use crate::logbook::{BreakerMoved, BreakerPlaced, BreakerRemoved, BreakersJoined, NeutralShared};
use crate::model::{
    Breaker, BreakerId, Housing, OwnWords, PanelId, PointId, Refusal, RefusalCode, Slot, State, fits, number_of, position,
    so_many, state_word,
};

impl Panels {
    pub(in crate::logbook) fn place_breaker(&mut self, f: &BreakerPlaced) -> Result<(), Refusal> {
        let panel = self.known_panel(&f.panel)?;
        if !(1.0..=400.0).contains(&f.amps.value()) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "amps",
                format!("{} cannot be right for a breaker.", f.amps),
                "Give the rating on its handle, 1 to 400 A.",
            ));
        }
        breaker_details(&f.details)?;
        fits(panel, &f.at, self.breakers_of(&f.panel).filter(|b| b.id != f.breaker))?;
        housing_fits(&f.at, f.details.housing)?;
        let mut upstream = Some(panel);
        while let Some(above) = upstream {
            if above.details.fed_by.as_ref() == Some(&f.breaker) {
                return Err(Refusal::new(
                    RefusalCode::DoesNotFit,
                    "panel",
                    format!("This breaker feeds {}, so it cannot sit in it or behind it.", above.name),
                    "Put it into the panel upstream.",
                ));
            }
            upstream = above.details.fed_by.as_ref().and_then(|b| self.breakers.get(b)).and_then(|b| self.panels.get(&b.panel));
        }
        if f.details.back_fed_main
            && let Some(other) = self.breakers_of(&f.panel).find(|b| b.id != f.breaker && b.details.back_fed_main)
        {
            return Err(Refusal::new(
                RefusalCode::Occupied,
                "details",
                format!("Breaker {} is recorded as the back-fed main already.", other.number()),
                "A panel has one main.",
            ));
        }
        let before = self.breakers.get(&f.breaker);
        let breaker = Breaker {
            id: f.breaker.clone(),
            panel: f.panel.clone(),
            at: f.at.clone(),
            amps: f.amps,
            protection: f.protection,
            wire: f.wire,
            details: f.details.clone(),
            claim: before.and_then(|b| b.claim.clone()),
            own: before.and_then(|b| b.own.clone()),
            state: before.map_or(State::On, |b| b.state),
            kept: before.and_then(|b| b.kept.clone()),
        };
        self.breakers.insert(f.breaker.clone(), breaker);
        self.space_taken(&f.panel, &f.at);
        self.drop_groups_that_cannot_be();
        Ok(())
    }

    pub(in crate::logbook) fn move_breaker(&mut self, f: &BreakerMoved) -> Result<(), Refusal> {
        let breaker = self.known_breaker(&f.breaker)?;
        let panel_id = breaker.panel.clone();
        if f.at.len() != breaker.poles() {
            return Err(Refusal::new(
                RefusalCode::DoesNotFit,
                "at",
                format!(
                    "Breaker {} has {}; {} names {}.",
                    breaker.number(),
                    so_many(breaker.poles(), "pole"),
                    number_of(&f.at),
                    f.at.len()
                ),
                "Name one space for each of its poles.",
            ));
        }
        fits(self.known_panel(&panel_id)?, &f.at, self.breakers_of(&panel_id).filter(|b| b.id != f.breaker))?;
        let breaker = self.breaker_mut(&f.breaker)?;
        breaker.at = f.at.clone();
        if housing_fits(&f.at, breaker.details.housing).is_err() {
            breaker.details.housing = None;
        }
        // How far its wires reach was said of the place where it was.
        breaker.details.slack = None;
        self.space_taken(&panel_id, &f.at);
        Ok(())
    }

    /// The poles of the breaker that two would be if they were joined, or why they cannot be.
    pub(crate) fn joined(&self, one: &BreakerId, other: &BreakerId) -> Result<Vec<Slot>, Refusal> {
        let (one, other) = (self.known_breaker(one)?, self.known_breaker(other)?);
        let (name, others_name) = (one.number(), other.number());
        let refuse = |code, wrong: String, accepted: &str| Err(Refusal::new(code, "with", wrong, accepted));
        if one.id == other.id || one.panel != other.panel || one.poles() != 1 || other.poles() != 1 {
            return refuse(
                RefusalCode::DoesNotFit,
                format!("Breakers {name} and {others_name} cannot be joined."),
                "Two one-pole breakers of one panel can.",
            );
        }
        if one.amps != other.amps || one.protection != other.protection {
            return refuse(
                RefusalCode::DoesNotFit,
                format!("Breakers {name} and {others_name} differ in amps or kind."),
                "Correct their ratings first; the poles of one breaker are alike.",
            );
        }
        if let Some(off) = [one, other].into_iter().find(|b| b.state != State::On) {
            return refuse(
                RefusalCode::StillNeeded,
                format!("Breaker {} is recorded as {}.", off.number(), state_word(off.state)),
                "Record both as on first.",
            );
        }
        if let Some(fed) = self.panels_on(&other.id).next() {
            return refuse(
                RefusalCode::StillNeeded,
                format!("Breaker {others_name} feeds {}.", fed.name),
                "Keep the breaker that feeds the panel, and join the other to it.",
            );
        }
        let panel = self.known_panel(&one.panel)?;
        let mut at = vec![one.at[0], other.at[0]];
        at.sort_by_key(|slot| (position(panel, slot.space), slot.half));
        fits(panel, &at, self.breakers_of(&one.panel).filter(|b| b.id != one.id && b.id != other.id))?;
        Ok(at)
    }

    pub(in crate::logbook) fn join_breakers(&mut self, f: &BreakersJoined) -> Result<(), Refusal> {
        let at = self.joined(&f.breaker, &f.with)?;
        let (one, other) = (self.known_breaker(&f.breaker)?, self.known_breaker(&f.with)?);
        let claim = match (&one.claim, &other.claim) {
            (Some(a), Some(b)) if a != b => Some(format!("{a} / {b}").chars().take(120).collect()),
            (a, b) => a.clone().or_else(|| b.clone()),
        };
        let wire = match (one.wire, other.wire) {
            (Some(a), Some(b)) => Some(if a.gauge <= b.gauge { a } else { b }),
            (a, b) => a.or(b),
        };
        let own = both_own(one.own.as_ref(), other.own.as_ref());
        let kept = one.kept.clone().or_else(|| other.kept.clone());
        let shared = self.shared_neutral_of(&f.breaker).is_some_and(|group| group.contains(&f.with));
        let housing = at[0].half.is_some().then_some(match one.housing() {
            Housing::Tandem => Housing::Quad,
            housing => housing,
        });
        self.breakers.shift_remove(&f.with);
        let joined = self.breaker_mut(&f.breaker)?;
        joined.at = at;
        joined.claim = claim;
        joined.own = own;
        joined.wire = wire;
        joined.kept = kept;
        joined.details.tie = f.tie;
        joined.details.housing = housing;
        self.shared_neutrals.retain(|group| !group.contains(&f.breaker) && !group.contains(&f.with));
        if shared {
            self.shared_neutrals.push(vec![f.breaker.clone()]);
        }
        Ok(())
    }

    pub(in crate::logbook) fn remove_breaker(&mut self, f: &BreakerRemoved) -> Result<(), Refusal> {
        let breaker = self.known_breaker(&f.breaker)?;
        if breaker.state != State::On {
            return Err(Refusal::new(
                RefusalCode::StillNeeded,
                "breaker",
                format!("Breaker {} is recorded as {}.", breaker.number(), state_word(breaker.state)),
                "Record it as on first; then it can be taken out of the record.",
            ));
        }
        if let Some(fed) = self.panels_on(&f.breaker).next() {
            return Err(Refusal::new(
                RefusalCode::StillNeeded,
                "breaker",
                format!("Breaker {} feeds {}.", breaker.number(), fed.name),
                format!("Say first what feeds {} instead.", fed.name),
            ));
        }
        self.breakers.shift_remove(&f.breaker);
        self.drop_groups_that_cannot_be();
        Ok(())
    }

    pub(in crate::logbook) fn share_neutral(&mut self, f: &NeutralShared) -> Result<(), Refusal> {
        let group: Vec<&Breaker> = f.breakers.iter().map(|id| self.known_breaker(id)).collect::<Result<_, _>>()?;
        let distinct = group.iter().enumerate().all(|(n, b)| group[..n].iter().all(|other| other.id != b.id));
        if f.shared && (!distinct || !may_share(&group)) {
            return Err(Refusal::new(
                RefusalCode::DoesNotFit,
                "breakers",
                "These circuits cannot share one neutral.",
                "Name two or three one-pole breakers of one panel, or one breaker of two or three poles.",
            ));
        }
        self.shared_neutrals.retain(|old| !old.iter().any(|id| f.breakers.contains(id)));
        if f.shared {
            self.shared_neutrals.push(f.breakers.clone());
        }
        Ok(())
    }

    /// A space that takes a breaker has no filler any more.
    fn space_taken(&mut self, panel: &PanelId, at: &[Slot]) {
        self.fillers.retain(|(of, slot), _| of != panel || !at.iter().any(|taken| taken.overlaps(*slot)));
    }

    fn drop_groups_that_cannot_be(&mut self) {
        let breakers = &self.breakers;
        self.shared_neutrals.retain(|group| {
            let all: Option<Vec<&Breaker>> = group.iter().map(|id| breakers.get(id)).collect();
            all.is_some_and(|group| may_share(&group))
        });
    }
}

/// Two or three one-pole breakers of one panel, or one breaker of several poles.
/// The own words of two breakers that are one now: both, where they hold together, and what was known of each.
fn both_own(one: Option<&OwnWords>, other: Option<&OwnWords>) -> Option<OwnWords> {
    let (Some(one), Some(other)) = (one, other) else { return one.or(other).cloned() };
    let both = format!("{}; {}", one.text, other.text);
    let text = if one.text == other.text || both.chars().count() > 120 { one.text.clone() } else { both };
    let joined = |a: &[PointId], b: &[PointId]| a.iter().chain(b).cloned().collect();
    let feeds = one.feeds.iter().chain(&other.feeds).cloned().collect();
    // Words that were dropped for want of room are to be looked at: only the first's points were known to these.
    let known = if text.len() > one.text.len() || one.text == other.text { &other.proven[..] } else { &[] };
    Some(OwnWords { text, proven: joined(&one.proven, known), feeds })
}

fn may_share(group: &[&Breaker]) -> bool {
    match group {
        [one] => one.poles() > 1,
        [first, rest @ ..] => rest.len() <= 2 && group.iter().all(|b| b.poles() == 1 && b.panel == first.panel),
        [] => false,
    }
}
