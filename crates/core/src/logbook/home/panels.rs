//! Panels and their breakers as the logbook has them, and how facts about them change what is known.

use std::collections::{BTreeMap, BTreeSet};

use indexmap::IndexMap;

use super::bounds::{panel_details, shape, within};
use super::{short, unknown};
use crate::logbook::{FillerSeen, LegRead, PanelDescribed};
use crate::model::{
    Breaker, BreakerId, HungCard, Panel, PanelId, Photo, PostRow, Refusal, RefusalCode, Slot, Tandems, fits, numbers, position,
    so_many,
};

/// Every panel and breaker, in the order of entry.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Panels {
    pub(super) panels: IndexMap<PanelId, Panel>,
    pub(super) breakers: IndexMap<BreakerId, Breaker>,
    pub(super) shared_neutrals: Vec<Vec<BreakerId>>,
    photos: Vec<Photo>,
    hung: BTreeMap<PanelId, HungCard>,
    pub(super) fillers: BTreeMap<(PanelId, Slot), bool>,
}

impl Panels {
    /// Every panel, in the order of entry.
    pub fn all(&self) -> impl Iterator<Item = &Panel> {
        self.panels.values()
    }
    /// A panel.
    pub fn panel(&self, id: &PanelId) -> Option<&Panel> {
        self.panels.get(id)
    }
    /// The panels that a breaker feeds.
    pub fn panels_on<'a>(&'a self, breaker: &'a BreakerId) -> impl Iterator<Item = &'a Panel> {
        self.panels.values().filter(move |panel| panel.details.fed_by.as_ref() == Some(breaker))
    }
    /// Every breaker, in the order of entry.
    pub fn breakers(&self) -> impl Iterator<Item = &Breaker> {
        self.breakers.values()
    }
    /// The breakers of a panel, in the order of entry.
    pub fn breakers_of<'a>(&'a self, panel: &PanelId) -> impl Iterator<Item = &'a Breaker> + use<'a> {
        let panel = panel.clone();
        self.breakers.values().filter(move |b| b.panel == panel)
    }
    /// A breaker.
    pub fn breaker(&self, id: &BreakerId) -> Option<&Breaker> {
        self.breakers.get(id)
    }
    /// The card that hangs in a panel's door, as somebody said.
    pub fn hung(&self, panel: &PanelId) -> Option<&HungCard> {
        self.hung.get(panel)
    }
    pub(in crate::logbook) fn hang(&mut self, panel: &PanelId, card: Option<HungCard>) -> Result<(), Refusal> {
        self.known_panel(panel)?;
        match card {
            Some(card) => self.hung.insert(panel.clone(), card),
            None => self.hung.remove(panel),
        };
        Ok(())
    }
    /// The number of a breaker as said anywhere in the home, `5-7` or `G3`; a removed one is said to be so.
    pub fn number(&self, id: &BreakerId) -> String {
        self.breakers.get(id).map_or_else(
            || "a removed breaker".into(),
            |breaker| format!("{}{}", self.panels.get(&breaker.panel).map_or("", |p| p.tag.as_str()), breaker.number()),
        )
    }
    /// The breakers whose circuits share a neutral with this one's, itself among them.
    pub fn shared_neutral_of(&self, breaker: &BreakerId) -> Option<&Vec<BreakerId>> {
        self.shared_neutrals.iter().find(|group| group.contains(breaker))
    }
    /// Every group of circuits that share a neutral.
    pub fn shared_neutrals(&self) -> &[Vec<BreakerId>] {
        &self.shared_neutrals
    }
    /// Whether a filler closes an open space; `None`: nobody has looked.
    pub fn filler(&self, panel: &PanelId, at: Slot) -> Option<bool> {
        self.fillers.get(&(panel.clone(), at)).copied()
    }
    /// Every photo, in the order of entry.
    pub fn photos(&self) -> &[Photo] {
        &self.photos
    }
    /// No breaker feeds other breakers: what is off is all that is without power.
    pub(crate) fn none_leads_on(&self) -> bool {
        self.panels.values().all(|panel| panel.details.fed_by.is_none())
            && self.breakers.values().all(|breaker| !breaker.details.back_fed_main)
    }
    /// These breakers and every one behind them: what is without power when they are off.
    pub fn dead_behind(&self, off: &BTreeSet<BreakerId>) -> BTreeSet<BreakerId> {
        let mut dead = off.clone();
        let mut fresh: Vec<&BreakerId> = off.iter().collect();
        while let Some(breaker) = fresh.pop() {
            // Behind a feeder is its panel; behind a back-fed main everything else in its own.
            let own = self.breakers.get(breaker).filter(|b| b.details.back_fed_main).map(|b| &b.panel);
            let panels = self.panels_on(breaker).map(|panel| &panel.id).chain(own);
            for behind in panels.flat_map(|panel| self.breakers_of(panel)) {
                if dead.insert(behind.id.clone()) {
                    fresh.push(&behind.id);
                }
            }
        }
        dead
    }

    pub(in crate::logbook) fn known_breaker(&self, id: &BreakerId) -> Result<&Breaker, Refusal> {
        self.breakers.get(id).ok_or_else(|| {
            unknown("breaker", "There is no such breaker in the panel.", "Name a breaker that is entered on the Panel screen.")
        })
    }

    pub(in crate::logbook) fn breaker_mut(&mut self, id: &BreakerId) -> Result<&mut Breaker, Refusal> {
        self.known_breaker(id)?;
        self.breakers.get_mut(id).ok_or_else(|| unknown("breaker", "There is no such breaker in the panel.", ""))
    }

    /// Keeps a photo; one of the same id takes its place.
    pub(in crate::logbook) fn keep_photo(&mut self, photo: Photo) -> Result<(), Refusal> {
        self.known_panel(&photo.panel)?;
        if let Some(breaker) = &photo.breaker {
            self.known_breaker(breaker)?;
        }
        self.photos.retain(|other| other.id != photo.id);
        self.photos.push(photo);
        Ok(())
    }

    pub(in crate::logbook) fn describe(&mut self, f: &PanelDescribed) -> Result<(), Refusal> {
        short("name", &f.name, 1, 60)?;
        short("place", &f.place, 0, 60)?;
        shape(f)?;
        within("main", f.main, 10.0..=1200.0, "a main breaker")?;
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
                format!("The panel has spaces {}.", numbers(&panel)),
            ));
        }
        if let Some(before) = self.panels.get(&f.panel).filter(|before| before.service == f.service) {
            panel.legs_read = before.legs_read.iter().filter(|read| read.row < panel.rows()).copied().collect();
        }
        let mine: Vec<&Breaker> = self.breakers.values().filter(|b| b.panel == f.panel).collect();
        for breaker in &mine {
            let others = mine.iter().copied().filter(|b| b.id != breaker.id);
            fits(&panel, &breaker.at, others).map_err(|inner| {
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
                    format!("{wrong}: breaker {} is behind it.", fed_by.map(|chosen| self.number(chosen)).unwrap_or_default()),
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

    pub(in crate::logbook) fn remove(&mut self, id: &PanelId) -> Result<(), Refusal> {
        let panel = self.known_panel(id)?;
        let breakers = self.breakers_of(id).count();
        if breakers > 0 {
            return Err(Refusal::new(
                RefusalCode::StillNeeded,
                "panel",
                format!("{} still has {}.", panel.name, so_many(breakers, "breaker")),
                "Take its breakers out of the record first.",
            ));
        }
        self.panels.shift_remove(id);
        self.fillers.retain(|(panel, _), _| panel != id);
        self.photos.retain(|photo| &photo.panel != id);
        self.hung.remove(id);
        Ok(())
    }

    /// Works out the row's leg from the reading. Neither 0 nor the volts between legs is no answer but a fault.
    pub(in crate::logbook) fn read_leg(&mut self, f: &LegRead) -> Result<(), Refusal> {
        let panel = self.known_panel(&f.panel)?;
        let row_of = |space: u8, field: &str| {
            position(panel, space).map(|(_, row)| row).ok_or_else(|| {
                Refusal::new(
                    RefusalCode::NoSuchSpace,
                    field,
                    format!("{} has no space {space}.", panel.name),
                    format!("Give a number of {}.", numbers(panel)),
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

    pub(in crate::logbook) fn see_filler(&mut self, f: &FillerSeen) -> Result<(), Refusal> {
        let panel = self.known_panel(&f.panel)?;
        if position(panel, f.at.space).is_none() {
            return Err(Refusal::new(
                RefusalCode::NoSuchSpace,
                "at",
                format!("{} has no space {}.", panel.name, f.at.space),
                format!("Give a number of {}.", numbers(panel)),
            ));
        }
        self.fillers.insert((f.panel.clone(), f.at), f.filler);
        Ok(())
    }

    pub(in crate::logbook) fn known_panel(&self, id: &PanelId) -> Result<&Panel, Refusal> {
        self.panels.get(id).ok_or_else(|| unknown("panel", "There is no such panel.", "Describe the panel first."))
    }
}
