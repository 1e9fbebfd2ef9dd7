//! Handles moved: one list, in order, with what was off after each.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use super::Home;
use crate::logbook::{BreakerSwitched, Draft};
use crate::model::{BreakerId, EntryId, Moment, Refusal, RefusalCode, Since, State};

/// How far apart the clocks of two phones may be, in milliseconds. A look that is told of later counts only where no
/// handle moved within this time of it.
const CLOCKS_APART_MS: i64 = 10_000;

/// A breaker went on or off.
#[derive(Debug, Clone, PartialEq)]
pub struct Switching {
    /// The line that records it.
    pub line: EntryId,
    /// When.
    pub at: Moment,
    /// The breaker.
    pub breaker: BreakerId,
    /// Where it stands since.
    pub to: State,
    /// What was off or tripped after it.
    pub off: Arc<BTreeSet<BreakerId>>,
    /// Nobody moved it: an earlier line had named the wrong handle, and this one stands again as it stood before that.
    pub taken_back: bool,
}

/// Every switching, and how the breakers stand after the last.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Switchings {
    all: Vec<Switching>,
    off: Arc<BTreeSet<BreakerId>>,
    off_since: BTreeMap<BreakerId, Moment>,
}

impl Switchings {
    /// The last one was nobody's act: it takes back what an earlier line had named wrongly.
    pub(super) fn take_back(&mut self) {
        if let Some(last) = self.all.last_mut() {
            last.taken_back = true;
        }
    }
    /// Every time a breaker went on or off, in order. A look counts by how many of these were before it.
    pub fn all(&self) -> &[Switching] {
        &self.all
    }
    /// How many there were.
    pub fn count(&self) -> usize {
        self.all.len()
    }
    /// The breakers that are off or tripped now.
    pub fn off(&self) -> &Arc<BTreeSet<BreakerId>> {
        &self.off
    }
    /// When a breaker that is off went off.
    pub fn off_since(&self, breaker: &BreakerId) -> Option<Moment> {
        self.off_since.get(breaker).copied()
    }
    /// How far a screen has followed the switching that shows all of it: what a look is recorded under.
    pub fn last(&self) -> Since {
        self.all.last().map_or(Since::Start, |switching| Since::Move(switching.line.clone()))
    }
    /// What was off after so many switchings.
    pub(in crate::logbook) fn off_after(&self, count: usize) -> Arc<BTreeSet<BreakerId>> {
        if count == 0 { Arc::default() } else { Arc::clone(&self.all[count - 1].off) }
    }
}

impl Home {
    pub(in crate::logbook) fn switch_breaker(&mut self, f: &BreakerSwitched, entry: &Draft) -> Result<(), Refusal> {
        let breaker = self.panels.breaker_mut(&f.breaker)?;
        let was_on = breaker.state == State::On;
        breaker.state = f.to;
        // A breaker that is off and then trips, or is switched off twice, feeds nothing either way.
        if was_on == (f.to == State::On) {
            return Ok(());
        }
        self.trace.doubt_looks_after(entry.at);
        let switching = &mut *self.switchings;
        let mut off = (*switching.off).clone();
        if was_on {
            off.insert(f.breaker.clone());
            switching.off_since.insert(f.breaker.clone(), entry.at);
        } else {
            off.remove(&f.breaker);
            switching.off_since.remove(&f.breaker);
        }
        switching.off = Arc::new(off);
        let (line, breaker, off) = (entry.id.clone(), f.breaker.clone(), Arc::clone(&switching.off));
        switching.all.push(Switching { line, at: entry.at, breaker, to: f.to, off, taken_back: false });
        Ok(())
    }

    /// How many handles had moved when something was seen that is told of only now.
    pub(super) fn moves_when_seen(&self, since: Option<&Since>, at: Moment) -> Result<usize, Refusal> {
        let all = &self.switchings.all;
        let moves = match since {
            None => return Ok(all.len()),
            Some(Since::Start) => 0,
            Some(Since::Move(line)) => {
                let last = all.iter().rposition(|switching| &switching.line == line);
                last.ok_or_else(|| changed("The switching under which this was seen has been struck out."))? + 1
            }
        };
        if all[moves..].iter().all(|switching| switching.at.unix_ms() >= at.unix_ms() + CLOCKS_APART_MS) {
            return Ok(moves);
        }
        let now: Vec<_> = self.switchings.off.iter().map(|id| self.panels.number(id)).collect();
        Err(changed(&match now.as_slice() {
            [] => "Everything was switched on again before this was seen, or at about that time.".to_owned(),
            now => format!("The breakers changed before this was seen, or at about that time: off now is {}.", now.join(", ")),
        }))
    }
}

fn changed(wrong: &str) -> Refusal {
    Refusal::new(RefusalCode::OffSetChanged, "since", wrong, "Look again, with the breakers as they stand now.")
}
