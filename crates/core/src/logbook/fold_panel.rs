//! How the facts about panels and breakers change the home.

use super::bounds::{breaker_details, housing_fits, panel_details, shape, within};
use super::fold::{short, state_word, unknown};
use std::collections::BTreeSet;
use std::sync::Arc;

use super::{
    BreakerMoved, BreakerPlaced, BreakerRemoved, BreakersJoined, FillerSeen, Home, LegRead, NeutralShared, PanelDescribed,
    PanelRemoved, Refusal, RefusalCode, Seen,
};
use crate::panel::place;
use crate::{Breaker, BreakerId, Housing, Panel, PanelId, PointId, PostRow, Slot, State, Tandems, number_of, position};

impl Home {
    pub(super) fn describe_panel(&mut self, f: &PanelDescribed) -> Result<(), Refusal> {
        short("name", &f.name, 1, 60)?;
        short("place", &f.place, 0, 60)?;
        shape(f)?;
        within("main", f.main, 10.0..=1200.0, "A main breaker")?;
        if !(50.0..=400.0).contains(&f.card.width_mm) || !(50.0..=600.0).contains(&f.card.height_mm) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "card",
                format!("A door card of {} by {} mm cannot be printed.", f.card.width_mm, f.card.height_mm),
                "Give a width of 50 to 400 mm and a height of 50 to 600 mm.",
            ));
        }
        panel_details(&f.details)?;
        let name = f.name.trim().to_owned();
        if self.panels.values().any(|p| p.id != f.panel && p.name.eq_ignore_ascii_case(&name)) {
            return Err(Refusal::new(
                RefusalCode::Occupied,
                "name",
                format!("There is a panel called “{name}” already."),
                "Give this one a name of its own, like “Greenhouse panel”.",
            ));
        }
        self.feeder_is_upstream(&f.panel, f.details.fed_by.as_ref())?;
        let mut panel = Panel {
            id: f.panel.clone(),
            tag: self.tag_for(f, &name)?,
            name,
            place: f.place.trim().to_owned(),
            spaces: f.spaces,
            columns: f.columns,
            numbering: f.numbering.clone(),
            service: f.service,
            main: f.main,
            card: f.card,
            details: f.details.clone(),
            legs_read: Vec::new(),
        };
        if let Tandems::In(spaces) = &panel.details.tandems
            && let Some(space) = spaces.iter().find(|space| position(&panel, **space).is_none())
        {
            return Err(Refusal::new(
                RefusalCode::NoSuchSpace,
                "tandems",
                format!("There is no space {space} for a tandem."),
                format!("The panel has spaces {}.", place::numbers(&panel)),
            ));
        }
        if let Some(before) = self.panels.get(&f.panel).filter(|before| before.service == f.service) {
            panel.legs_read = before.legs_read.iter().filter(|read| read.row < panel.rows()).copied().collect();
        }
        let mine: Vec<&Breaker> = self.breakers.values().filter(|b| b.panel == f.panel).collect();
        for breaker in &mine {
            let others = mine.iter().copied().filter(|b| b.id != breaker.id);
            place::fits(&panel, &breaker.at, others).map_err(|inner| {
                Refusal::new(
                    RefusalCode::DoesNotFit,
                    "panel",
                    format!("Breaker {} would not fit the panel described so: {}", breaker.number(), inner.wrong),
                    format!("Move or take out breaker {} first.", breaker.number()),
                )
            })?;
        }
        self.panels.insert(f.panel.clone(), panel);
        Ok(())
    }

    /// A panel cannot hang on a breaker that it feeds itself, directly or through others.
    fn feeder_is_upstream(&self, panel: &PanelId, fed_by: Option<&BreakerId>) -> Result<(), Refusal> {
        let mut upstream = fed_by;
        let mut first = true;
        while let Some(feeder) = upstream {
            let Some(breaker) = self.breakers.get(feeder) else {
                return Err(unknown(
                    "fed_by",
                    "There is no such breaker to feed this panel.",
                    "Enter the feeder's breaker first.",
                ));
            };
            if &breaker.panel == panel {
                let wrong = if first { "A panel cannot be fed by its own breaker" } else { "This panel would feed itself" };
                return Err(Refusal::new(
                    RefusalCode::DoesNotFit,
                    "fed_by",
                    format!("{wrong}: breaker {} is behind it.", breaker.number()),
                    "Name a breaker of the panel upstream, or none for the panel where the service comes in.",
                ));
            }
            first = false;
            upstream = self.panels.get(&breaker.panel).and_then(|p| p.details.fed_by.as_ref());
        }
        Ok(())
    }

    /// What stands before the panel's numbers elsewhere: as given, else nothing for the first panel and the
    /// first letter of its name, with a digit where that is taken, for the others.
    fn tag_for(&self, f: &PanelDescribed, name: &str) -> Result<String, Refusal> {
        let taken = |tag: &str| self.panels.values().any(|p| p.id != f.panel && p.tag.eq_ignore_ascii_case(tag));
        if let Some(tag) = &f.details.tag {
            let fits = tag.is_empty() || tag.len() <= 3 && tag.chars().all(|c| c.is_ascii_alphabetic());
            if !fits || taken(tag) {
                return Err(Refusal::new(
                    RefusalCode::Occupied,
                    "tag",
                    format!("“{tag}” cannot stand before this panel's numbers."),
                    "Use one to three letters that no other panel has, like G.",
                ));
            }
            return Ok(tag.to_ascii_uppercase());
        }
        if self.panels.get_index_of(&f.panel).unwrap_or(self.panels.len()) == 0 && !taken("") {
            return Ok(String::new());
        }
        let letters: String = name.chars().filter(char::is_ascii_alphabetic).collect::<String>().to_ascii_uppercase();
        let candidates = (1..=3.min(letters.len())).map(|n| letters[..n].to_owned()).chain(('A'..='Z').map(String::from));
        Ok(candidates.into_iter().find(|tag| !taken(tag)).unwrap_or_else(|| "ZZ".into()))
    }

    pub(super) fn remove_panel(&mut self, f: &PanelRemoved) -> Result<(), Refusal> {
        let panel = self.known_panel(&f.panel)?;
        let breakers = self.breakers_of(&f.panel).count();
        if breakers > 0 {
            return Err(Refusal::new(
                RefusalCode::StillNeeded,
                "panel",
                format!("{} still has {breakers} {}.", panel.name, if breakers == 1 { "breaker" } else { "breakers" }),
                "Take its breakers out of the record first.",
            ));
        }
        self.panels.shift_remove(&f.panel);
        self.fillers.retain(|(panel, _), _| panel != &f.panel);
        self.photos.retain(|photo| photo.panel != f.panel);
        self.plan.panels.remove(&f.panel);
        Ok(())
    }

    /// Works out the row's leg from the reading. Neither 0 nor the volts between legs is no answer but a fault.
    pub(super) fn read_leg(&mut self, f: &LegRead) -> Result<(), Refusal> {
        let panel = self.known_panel(&f.panel)?;
        let row_of = |space: u8, field: &str| {
            position(panel, space).map(|(_, row)| row).ok_or_else(|| {
                Refusal::new(
                    RefusalCode::NoSuchSpace,
                    field,
                    format!("{} has no space {space}.", panel.name),
                    format!("Give a number of {}.", place::numbers(panel)),
                )
            })
        };
        let (row, against) = (row_of(f.space, "space")?, row_of(f.against, "against")?);
        let (here, there) = (panel.leg_of_row(row), panel.leg_of_row(against));
        let between = panel.service.volts_between_legs().value();
        let volts = f.volts.value();
        let leg = if volts <= 10 {
            there
        } else if between > 0 && volts.abs_diff(between) <= between / 10 {
            match panel.service.legs() {
                [a, b] => *if there == *a { b } else { a },
                _ if here != there => here,
                _ => {
                    return Err(Refusal::new(
                        RefusalCode::OutOfRange,
                        "against",
                        format!("{volts} V to space {} leaves two legs open.", f.against),
                        "Find a space to which it reads 0 V: that one is on the same leg.",
                    ));
                }
            }
        } else {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "volts",
                format!("{volts} V is neither one leg (0 V) nor two ({between} V)."),
                "If it reads so again, stop: something is wrong with a breaker, the bus or the supply. Call an electrician.",
            ));
        };
        let panel = self.panels.get_mut(&f.panel).unwrap_or_else(|| panic!("{} was there; this is a bug", f.panel));
        panel.legs_read.retain(|read| read.row != row);
        panel.legs_read.push(PostRow { row, leg });
        Ok(())
    }

    pub(super) fn see_filler(&mut self, f: &FillerSeen) -> Result<(), Refusal> {
        let panel = self.known_panel(&f.panel)?;
        if position(panel, f.at.space).is_none() {
            return Err(Refusal::new(
                RefusalCode::NoSuchSpace,
                "at",
                format!("{} has no space {}.", panel.name, f.at.space),
                format!("Give a number of {}.", place::numbers(panel)),
            ));
        }
        self.fillers.insert((f.panel.clone(), f.at), f.filler);
        Ok(())
    }

    pub(super) fn place_breaker(&mut self, f: &BreakerPlaced) -> Result<(), Refusal> {
        let panel = self.known_panel(&f.panel)?;
        if !(1.0..=400.0).contains(&f.amps.value()) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "amps",
                format!("A breaker of {} cannot be.", f.amps),
                "Give the rating on its handle, 1 to 400 A.",
            ));
        }
        breaker_details(&f.details)?;
        place::fits(panel, &f.at, self.breakers_of(&f.panel).filter(|b| b.id != f.breaker))?;
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
            state: before.map_or(State::On, |b| b.state),
            kept: before.and_then(|b| b.kept.clone()),
        };
        self.breakers.insert(f.breaker.clone(), breaker);
        self.space_taken(&f.panel, &f.at);
        self.drop_groups_that_cannot_be();
        Ok(())
    }

    pub(super) fn move_breaker(&mut self, f: &BreakerMoved) -> Result<(), Refusal> {
        let breaker = self.known_breaker(&f.breaker)?;
        let panel_id = breaker.panel.clone();
        if f.at.len() != breaker.poles() {
            return Err(Refusal::new(
                RefusalCode::DoesNotFit,
                "at",
                format!("Breaker {} has {} poles; {} names {}.", breaker.number(), breaker.poles(), number_of(&f.at), f.at.len()),
                "Name one space for each of its poles.",
            ));
        }
        place::fits(self.known_panel(&panel_id)?, &f.at, self.breakers_of(&panel_id).filter(|b| b.id != f.breaker))?;
        let breaker = self.breaker_mut(&f.breaker)?;
        breaker.at = f.at.clone();
        if housing_fits(&f.at, breaker.details.housing).is_err() {
            breaker.details.housing = None;
        }
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
                format!("{name} and {others_name} cannot be joined."),
                "Two one-pole breakers of one panel can.",
            );
        }
        if one.amps != other.amps || one.protection != other.protection {
            return refuse(
                RefusalCode::DoesNotFit,
                format!("{name} and {others_name} differ in amps or kind."),
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
        place::fits(panel, &at, self.breakers_of(&one.panel).filter(|b| b.id != one.id && b.id != other.id))?;
        Ok(at)
    }

    pub(super) fn join_breakers(&mut self, f: &BreakersJoined) -> Result<(), Refusal> {
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
        let kept = one.kept.clone().or_else(|| other.kept.clone());
        let shared = self.shared_neutral_of(&f.breaker).is_some_and(|group| group.contains(&f.with));
        let housing = at[0].half.is_some().then_some(match one.housing() {
            Housing::Tandem => Housing::Quad,
            housing => housing,
        });
        self.breakers.shift_remove(&f.with);
        self.looks_before_joining(&f.breaker, &f.with);
        let joined = self.breaker_mut(&f.breaker)?;
        joined.at = at;
        joined.claim = claim;
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

    /// A point that stayed lit with one of the two off may still be on the other: that look no longer speaks
    /// against the breaker they are now. Where the point has been dark with this one off, nothing is touched.
    fn looks_before_joining(&mut self, breaker: &BreakerId, with: &BreakerId) {
        let was_dark: BTreeSet<PointId> = self
            .looks
            .iter()
            .filter(|look| look.seen == Seen::Dark && look.off.contains(breaker))
            .map(|look| look.point.clone())
            .collect();
        for look in &mut self.looks {
            let one_of_two = look.off.contains(breaker) && !look.off.contains(with);
            if look.seen == Seen::Lit && one_of_two && !was_dark.contains(&look.point) {
                let mut off = (*look.off).clone();
                off.remove(breaker);
                look.off = Arc::new(off);
            }
        }
    }

    pub(super) fn remove_breaker(&mut self, f: &BreakerRemoved) -> Result<(), Refusal> {
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

    pub(super) fn share_neutral(&mut self, f: &NeutralShared) -> Result<(), Refusal> {
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

    pub(super) fn known_panel(&self, id: &PanelId) -> Result<&Panel, Refusal> {
        self.panels.get(id).ok_or_else(|| unknown("panel", "There is no such panel.", "Describe the panel first."))
    }
}

/// Two or three one-pole breakers of one panel, or one breaker of several poles.
fn may_share(group: &[&Breaker]) -> bool {
    match group {
        [one] => one.poles() > 1,
        [first, rest @ ..] => rest.len() <= 2 && group.iter().all(|b| b.poles() == 1 && b.panel == first.panel),
        [] => false,
    }
}
