//! The logbook itself: takes batches, strikes lines out, and keeps the folded home beside them.

use std::collections::BTreeSet;
use std::sync::Arc;

use indexmap::IndexMap;

use super::{Draft, Home, Line};
use crate::model::{EntryId, Refusal, RefusalCode};

/// The lines of one home, and what they add up to.
#[derive(Debug, Clone, Default)]
pub struct Logbook {
    lines: IndexMap<EntryId, Arc<Line>>,
    struck: BTreeSet<EntryId>,
    home: Arc<Home>,
}

/// What a batch would do: the new lines (without those that were there already) and the logbook after.
#[derive(Debug)]
pub struct Outcome {
    /// The lines to be stored.
    pub new: Vec<Line>,
    /// The home after them.
    home: Home,
    struck: BTreeSet<EntryId>,
}

impl Logbook {
    /// Folds stored lines, which must be in order of `seq`.
    pub fn from_lines(lines: impl IntoIterator<Item = Line>) -> Result<Self, Refusal> {
        let mut book = Self::default();
        let lines = lines.into_iter();
        book.lines.reserve(lines.size_hint().0);
        for line in lines {
            book.lines.insert(line.entry.id.clone(), Arc::new(line));
        }
        book.struck = struck(book.lines.values().map(|line| &line.entry));
        book.home = Arc::new(fold(book.lines.values().map(|line| &line.entry), &book.struck)?);
        Ok(book)
    }

    /// Folds as many of these lines as add up to a home, from the first one on, and says why the next one does not.
    pub fn up_to_refusal(lines: &[Line]) -> (Self, Option<Refusal>) {
        let fold = |count: usize| Self::from_lines(lines[..count].iter().cloned());
        let (mut good, mut bad) = (0, lines.len() + 1);
        let (mut book, mut refusal) = (Self::default(), None);
        // All of them at first, which is how it nearly always is; then halved.
        let mut next = lines.len();
        while bad - good > 1 {
            match fold(next) {
                Ok(folded) => (good, book) = (next, folded),
                Err(why) => (bad, refusal) = (next, Some(why)),
            }
            next = usize::midpoint(good, bad);
        }
        (book, refusal)
    }

    /// The home the lines add up to.
    pub fn home(&self) -> &Home {
        &self.home
    }

    pub(crate) fn shared_home(&self) -> Arc<Home> {
        Arc::clone(&self.home)
    }

    /// Every line, in order.
    pub fn lines(&self) -> impl DoubleEndedIterator<Item = &Line> {
        self.lines.values().map(|line| &**line)
    }

    /// A line.
    pub fn line(&self, id: &EntryId) -> Option<&Line> {
        self.lines.get(id).map(|line| &**line)
    }

    /// Whether the line is struck out now.
    pub fn is_struck(&self, id: &EntryId) -> bool {
        self.struck.contains(id)
    }

    /// The last sequence; 0 for an empty logbook.
    pub fn seq(&self) -> u64 {
        self.lines.last().map_or(0, |(_, line)| line.seq)
    }

    /// Works out what a batch would do, all or nothing. Writes nothing: store the new lines, then
    /// [`Logbook::commit`].
    pub fn admit(&self, batch: &[Draft]) -> Result<Outcome, Refusal> {
        let mut new: IndexMap<&EntryId, &Draft> = IndexMap::new();
        for draft in batch {
            let known = self.lines.get(&draft.id).map(|line| &line.entry);
            match known.or_else(|| new.get(&draft.id).copied()) {
                Some(entry) if entry == draft => {}
                Some(_) => {
                    let mut refusal = Refusal::new(
                        RefusalCode::IdTaken,
                        "id",
                        "Another entry has this id already.",
                        "Give each entry an id of its own; a resend must be the same to the letter.",
                    );
                    refusal.entry = Some(draft.id.clone());
                    return Err(refusal);
                }
                None => {
                    new.insert(&draft.id, draft);
                }
            }
        }
        let fresh: Vec<&Draft> = new.into_values().collect();
        let strikes = !fresh.iter().all(|d| d.fact.is_strikable());
        let (home, struck) = if strikes { self.admit_strikes(&fresh)? } else { (self.admit_plain(&fresh)?, self.struck.clone()) };
        let new = fresh.into_iter().zip(self.seq() + 1..).map(|(entry, seq)| Line { seq, entry: entry.clone() }).collect();
        Ok(Outcome { new, home, struck })
    }

    /// Takes over what [`Logbook::admit`] worked out, once it is stored.
    pub fn commit(&mut self, outcome: Outcome) {
        for line in outcome.new {
            self.lines.insert(line.entry.id.clone(), Arc::new(line));
        }
        self.home = Arc::new(outcome.home);
        self.struck = outcome.struck;
    }

    fn admit_plain(&self, fresh: &[&Draft]) -> Result<Home, Refusal> {
        let mut home = (*self.home).clone();
        for draft in fresh {
            home.apply(draft)?;
        }
        Ok(home)
    }

    /// Folds everything anew. When later lines no longer apply, names all of them, so that they can be
    /// struck out together.
    fn admit_strikes(&self, fresh: &[&Draft]) -> Result<(Home, BTreeSet<EntryId>), Refusal> {
        let mut struck = self.struck.clone();
        for draft in fresh {
            let Some((target, strike)) = draft.fact.strikes() else { continue };
            let refuse = |code, wrong: &str, accepted: &str| {
                let mut refusal = Refusal::new(code, "line", wrong, accepted);
                refusal.entry = Some(draft.id.clone());
                Err(refusal)
            };
            let Some(line) = self.lines.get(target) else {
                return refuse(
                    RefusalCode::Unknown,
                    "There is no such line in the logbook.",
                    "Name a line that is written there.",
                );
            };
            if !line.entry.fact.is_strikable() {
                return refuse(
                    RefusalCode::OutOfRange,
                    "A line that strikes out or restores another cannot itself be struck out.",
                    "Strike out or restore the line it speaks of.",
                );
            }
            if strike {
                struck.insert(target.clone())
            } else {
                struck.remove(target)
            };
        }
        let old = self.lines.values().map(|line| &line.entry);
        let mut home = Home::default();
        let mut depend = Vec::new();
        let mut first = None;
        for entry in old.filter(|entry| !struck.contains(&entry.id)) {
            if let Err(refusal) = home.apply(entry) {
                depend.push(entry.id.clone());
                first.get_or_insert(refusal);
            }
        }
        if let Some(first) = first {
            let (verb, them) = if depend.len() == 1 { ("line depends", "it") } else { ("lines depend", "them") };
            let mut refusal = Refusal::new(
                RefusalCode::LinesDepend,
                "line",
                format!("{} later {verb} on this: {}", depend.len(), first.wrong),
                format!("Strike {them} out with it, or leave it."),
            );
            refusal.lines = depend;
            return Err(refusal);
        }
        for draft in fresh {
            home.apply(draft)?;
        }
        Ok((home, struck))
    }
}

/// Which lines are struck out at the end: the last word on each counts.
fn struck<'a>(entries: impl Iterator<Item = &'a Draft>) -> BTreeSet<EntryId> {
    let mut struck = BTreeSet::new();
    for entry in entries {
        match entry.fact.strikes() {
            Some((line, true)) => struck.insert(line.clone()),
            Some((line, false)) => struck.remove(line),
            None => false,
        };
    }
    struck
}

fn fold<'a>(entries: impl Iterator<Item = &'a Draft>, struck: &BTreeSet<EntryId>) -> Result<Home, Refusal> {
    let mut home = Home::default();
    for entry in entries.filter(|entry| !struck.contains(&entry.id)) {
        home.apply(entry)?;
    }
    Ok(home)
}
