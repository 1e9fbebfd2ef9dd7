//! What things are called in a line of the logbook, in the names of today; and the line in words.

use super::{Fact, Line, Logbook};
use crate::model::{BreakerId, EntryId, PanelId, PointId, RoomId, Units, number_of};

/// Says what the line records, in the names of today: `Schoolroom, south wall, left: dark`.
pub fn describe(book: &Logbook, line: &Line) -> String {
    line.entry.fact.words(&Names { book, seq: line.seq })
}

/// The names of today, for the words of the line `seq`. What is gone is said to be so.
pub(crate) struct Names<'a> {
    book: &'a Logbook,
    seq: u64,
}

impl Names<'_> {
    pub(super) fn units(&self) -> Units {
        self.book.home().plan().units
    }

    /// `Breaker 5-7`: also when it has been struck out or taken out since.
    pub(super) fn breaker(&self, id: &BreakerId) -> String {
        format!("Breaker {}", self.number(id))
    }

    /// `5-7`, `G3`.
    pub(super) fn number(&self, id: &BreakerId) -> String {
        let panels = self.book.home().panels();
        match panels.breaker(id) {
            Some(_) => panels.number(id),
            None => self.number_before(id, u64::MAX).unwrap_or_else(|| "unknown".into()),
        }
    }

    /// The breaker by the number it had before this line.
    pub(super) fn breaker_before(&self, id: &BreakerId) -> String {
        self.number_before(id, self.seq).map_or_else(|| self.breaker(id), |number| format!("Breaker {number}"))
    }

    fn number_before(&self, id: &BreakerId, seq: u64) -> Option<String> {
        let book = self.book;
        let placed_in = book.lines().rev().find_map(|line| match &line.entry.fact {
            Fact::BreakerPlaced(f) if &f.breaker == id => Some(&f.panel),
            _ => None,
        });
        let tag = placed_in.map_or_else(String::new, |panel| self.tag(panel));
        let counts = |line: &&Line| line.seq < seq && !book.is_struck(&line.entry.id);
        book.lines().rev().filter(counts).find_map(|line| match &line.entry.fact {
            Fact::BreakerPlaced(f) if &f.breaker == id => Some(format!("{tag}{}", number_of(&f.at))),
            Fact::BreakerMoved(f) if &f.breaker == id => Some(format!("{tag}{}", number_of(&f.at))),
            _ => None,
        })
    }

    /// What stands before the numbers of a panel's breakers.
    pub(super) fn tag(&self, id: &PanelId) -> String {
        self.book.home().panels().panel(id).map_or_else(String::new, |panel| panel.tag.clone())
    }

    pub(super) fn panel(&self, id: &PanelId) -> String {
        self.book.home().panels().panel(id).map_or_else(|| "A removed panel".into(), |panel| panel.name.clone())
    }

    pub(super) fn room(&self, id: &RoomId) -> String {
        self.book.home().house().room_name(id).to_owned()
    }

    /// `Kitchen, counter, left`.
    pub(super) fn point(&self, id: &PointId) -> String {
        self.book.home().house().place(id)
    }

    pub(super) fn points(&self, ids: &[PointId]) -> String {
        match ids {
            [] => "nothing".into(),
            ids => ids.iter().map(|id| self.point(id)).collect::<Vec<_>>().join("; "),
        }
    }

    /// `Struck out line 7: Breaker 3 switched off`.
    pub(super) fn about_line(&self, act: &str, id: &EntryId) -> String {
        let book = self.book;
        book.line(id).map_or_else(|| act.to_owned(), |line| format!("{act} line {}: {}", line.seq, describe(book, line)))
    }
}
