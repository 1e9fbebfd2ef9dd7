//! The lines of a logbook in words, and what the things in them are called: a breaker by the number it had at that line, whatever has been
//! removed since by its last name, everything else as today.

use std::collections::BTreeMap;

use super::{Fact, Line, Logbook};
use crate::model::{BreakerId, EntryId, LoadId, Panel, PanelId, PointId, RoomId, SizeId, Slot, Units, number_of, position};

/// Says the lines of a logbook in words. Made once for as many lines as are to be said.
pub struct InWords<'a> {
    book: &'a Logbook,
    breakers: BTreeMap<&'a BreakerId, Vec<Stood>>,
    panels: BTreeMap<&'a PanelId, &'a str>,
    rooms: BTreeMap<&'a RoomId, &'a str>,
    points: BTreeMap<&'a PointId, (&'a RoomId, &'a str)>,
    loads: BTreeMap<&'a LoadId, &'a str>,
    sizes: BTreeMap<&'a SizeId, &'a str>,
}

/// Where a breaker stood from this line on.
struct Stood {
    from: u64,
    is_struck: bool,
    number: String,
    at: Vec<Slot>,
}

impl<'a> InWords<'a> {
    /// Reads the logbook for what things were called.
    pub fn of(book: &'a Logbook) -> Self {
        let mut words = Self {
            book,
            breakers: BTreeMap::new(),
            panels: BTreeMap::new(),
            rooms: BTreeMap::new(),
            points: BTreeMap::new(),
            loads: BTreeMap::new(),
            sizes: BTreeMap::new(),
        };
        let mut panel_of: BTreeMap<&BreakerId, &PanelId> = BTreeMap::new();
        // What a job changed is in one line.
        let facts = book.lines().flat_map(|line| match &line.entry.fact {
            Fact::JobEnded(f) => f.changes.iter().map(move |change| (line, change)).collect(),
            fact => vec![(line, fact)],
        });
        for (line, fact) in facts {
            match fact {
                Fact::PanelDescribed(f) => drop(words.panels.insert(&f.panel, &f.name)),
                Fact::RoomPlaced(f) => drop(words.rooms.insert(&f.room, &f.name)),
                Fact::PointPlaced(f) => drop(words.points.insert(&f.point, (&f.room, &f.name))),
                Fact::LoadPlaced(f) => drop(words.loads.insert(&f.load, &f.name)),
                Fact::SizeKept(f) => drop(words.sizes.insert(&f.size, &f.name)),
                Fact::BreakerPlaced(f) => {
                    panel_of.insert(&f.breaker, &f.panel);
                    words.stands(&f.breaker, line, f.at.clone(), panel_of.get(&f.breaker).copied());
                }
                Fact::BreakerMoved(f) => words.stands(&f.breaker, line, f.at.clone(), panel_of.get(&f.breaker).copied()),
                Fact::BreakersJoined(f) => {
                    let place = |id| words.stood(id, line.seq).map_or_else(Vec::new, |stood| stood.at.clone());
                    let at = [place(&f.breaker), place(&f.with)].concat();
                    words.stands(&f.breaker, line, at, panel_of.get(&f.breaker).copied());
                }
                _ => {}
            }
        }
        words
    }

    /// Says what the line records: `Schoolroom, south wall, left: dark`.
    pub fn line(&self, line: &Line) -> String {
        line.entry.fact.words(&Names { words: self, seq: line.seq })
    }

    /// Every point that is in the room, or was when it was placed last.
    pub(crate) fn points_ever_in(&self, room: &RoomId) -> impl Iterator<Item = &PointId> {
        self.points.iter().filter(move |(_, (of, _))| *of == room).map(|(point, _)| *point)
    }

    fn stands(&mut self, breaker: &'a BreakerId, line: &Line, mut at: Vec<Slot>, panel: Option<&PanelId>) {
        let panel = panel.and_then(|id| self.book.home().panels().panel(id));
        let row = |panel: &Panel, slot: &Slot| position(panel, slot.space);
        at.sort_by_key(|slot| (panel.and_then(|panel| row(panel, slot)), slot.space, slot.half));
        let number = format!("{}{}", panel.map_or("", |panel| panel.tag.as_str()), number_of(&at));
        let stood = Stood { from: line.seq, is_struck: self.book.is_struck(&line.entry.id), number, at };
        self.breakers.entry(breaker).or_default().push(stood);
    }

    /// Where the breaker stood before this line.
    fn stood(&self, breaker: &BreakerId, before: u64) -> Option<&Stood> {
        let all = self.breakers.get(breaker)?;
        all.iter().rev().find(|stood| stood.from < before && !stood.is_struck)
    }
}

/// What things are called in the line `seq`.
pub(crate) struct Names<'a> {
    words: &'a InWords<'a>,
    seq: u64,
}

impl Names<'_> {
    pub(super) fn units(&self) -> Units {
        self.words.book.home().plan().units
    }

    /// `Breaker 5-7`: also when it has been struck out or taken out since.
    pub(super) fn breaker(&self, id: &BreakerId) -> String {
        format!("Breaker {}", self.number(id))
    }

    /// `5-7`, `G3`: as it stood then.
    pub(super) fn number(&self, id: &BreakerId) -> String {
        let then = self.words.stood(id, self.seq + 1);
        // Placed later, or in lines that are all struck out.
        let ever =
            || self.words.breakers.get(id).and_then(|all| all.iter().find(|stood| !stood.is_struck).or_else(|| all.last()));
        then.or_else(ever).map_or_else(|| "unknown".into(), |stood| stood.number.clone())
    }

    /// The breaker by the number it had before this line.
    pub(super) fn breaker_before(&self, id: &BreakerId) -> String {
        self.words.stood(id, self.seq).map_or_else(|| self.breaker(id), |stood| format!("Breaker {}", stood.number))
    }

    /// What stands before the numbers of a panel's breakers.
    pub(super) fn tag(&self, id: &PanelId) -> String {
        self.words.book.home().panels().panel(id).map_or_else(String::new, |panel| panel.tag.clone())
    }

    pub(super) fn panel(&self, id: &PanelId) -> String {
        let today = self.words.book.home().panels().panel(id).map(|panel| panel.name.as_str());
        today.or_else(|| self.words.panels.get(id).copied()).unwrap_or("A panel").to_owned()
    }

    pub(super) fn room(&self, id: &RoomId) -> String {
        let today = self.words.book.home().house().room(id).map(|room| room.name.as_str());
        today.or_else(|| self.words.rooms.get(id).copied()).unwrap_or("a room").to_owned()
    }

    /// `Kitchen, counter, left`.
    pub(super) fn point(&self, id: &PointId) -> String {
        let today = self.words.book.home().house().point(id).map(|point| (&point.room, point.name.as_str()));
        let known = today.or_else(|| self.words.points.get(id).copied());
        known.map_or_else(|| "A point".into(), |(room, name)| format!("{}, {name}", self.room(room)))
    }

    /// A circuit that was sized, by what it is for.
    pub(super) fn size(&self, id: &SizeId) -> String {
        self.words.sizes.get(id).map_or_else(|| "a circuit".into(), |name| (*name).trim().to_owned())
    }

    /// `microwave (Kitchen, counter, left)`.
    pub(super) fn load(&self, id: &LoadId) -> String {
        let now = self.words.book.home().loads().load(id);
        let name = now.map(|load| load.name.as_str()).or_else(|| self.words.loads.get(id).copied()).unwrap_or("a load");
        now.map_or_else(|| name.to_owned(), |load| format!("{name} ({})", self.point(&load.point)))
    }

    pub(super) fn points(&self, ids: &[PointId]) -> String {
        match ids {
            [] => "nothing".into(),
            ids => ids.iter().map(|id| self.point(id)).collect::<Vec<_>>().join("; "),
        }
    }

    /// `Struck out line 7: Breaker 3 switched off`.
    pub(super) fn about_line(&self, act: &str, id: &EntryId) -> String {
        let line = self.words.book.line(id);
        line.map_or_else(|| act.to_owned(), |line| format!("{act} line {}: {}", line.seq, self.words.line(line)))
    }
}
