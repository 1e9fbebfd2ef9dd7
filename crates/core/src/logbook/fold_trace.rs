//! What a trace writes: handles moved, looks, tones, devices worked.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use super::seen::{Look, Metered, Skip, Trip, Turn};
use super::{
    BreakerSwitched, DeviceWorked, Draft, Home, PointSeen, PointSkipped, PracticeHouse, Refusal, RefusalCode, Seen, Since,
    ToneHeard, VoltsRead, Worked,
};
use crate::{BreakerId, EntryId, Moment, PointId, State, Volts, metered};

/// How far apart the clocks of two phones may be, in milliseconds. A look that is told of later counts only where no
/// handle moved within this time of it.
const CLOCKS_APART_MS: i64 = 10_000;

impl Home {
    /// What the observer's screen knew of the switching: the last line that moved a handle.
    pub fn last_turn(&self) -> Since {
        self.turns.last().map_or(Since::Start, |turn| Since::Move(turn.line.clone()))
    }

    pub(super) fn switch_breaker(&mut self, f: &BreakerSwitched, entry: &Draft) -> Result<(), Refusal> {
        let breaker = self.breaker_mut(&f.breaker)?;
        let was_on = breaker.state == State::On;
        breaker.state = f.to;
        // A breaker that is off and then trips, or is switched off twice, feeds nothing either way.
        if was_on == (f.to == State::On) {
            return Ok(());
        }
        self.doubt_looks_after(entry.at);
        self.switched.push(f.breaker.clone());
        let mut off = (*self.off).clone();
        if was_on {
            off.insert(f.breaker.clone());
            self.off_since.insert(f.breaker.clone(), entry.at);
        } else {
            off.remove(&f.breaker);
            self.off_since.remove(&f.breaker);
        }
        self.off = Arc::new(off);
        self.turns.push(Turn { line: entry.id.clone(), at: entry.at, off: Arc::clone(&self.off) });
        Ok(())
    }

    /// A handle that moved at `at` is told of only now: what was seen later than that was filed under the wrong switching.
    /// It counts no more; it has to be looked at again.
    fn doubt_looks_after(&mut self, at: Moment) {
        for metered in self.metered.iter_mut().filter(|metered| metered.at > at) {
            metered.doubted = true;
        }
        if !self.looks.iter().any(|look| look.at > at) {
            return;
        }
        let (doubted, kept) = std::mem::take(&mut self.looks).into_iter().partition(|look| look.at > at);
        self.looks = kept;
        self.doubted.extend::<Vec<Look>>(doubted);
        self.number_looks(0);
    }

    fn number_looks(&mut self, from: usize) {
        for (nth, look) in self.looks.iter_mut().enumerate().skip(from) {
            look.nth = nth;
        }
    }

    /// How many handles had moved when something was seen that was told of only now.
    fn moves_when_seen(&self, since: Option<&Since>, at: Moment) -> Result<usize, Refusal> {
        let moves = match since {
            None => return Ok(self.turns.len()),
            Some(Since::Start) => 0,
            Some(Since::Move(line)) => {
                let turn = self.turns.iter().rposition(|turn| &turn.line == line);
                turn.ok_or_else(|| changed("The switching under which this was seen has been struck out."))? + 1
            }
        };
        if self.turns[moves..].iter().all(|turn| turn.at.unix_ms() >= at.unix_ms() + CLOCKS_APART_MS) {
            return Ok(moves);
        }
        let now: Vec<_> = self.off().iter().map(|id| self.number(id)).collect();
        Err(changed(&match now.as_slice() {
            [] => "Everything was switched on again before this was seen, or at about that time.".to_owned(),
            now => format!("The breakers changed before this was seen, or at about that time: off now is {}.", now.join(", ")),
        }))
    }

    pub(super) fn see_point(&mut self, f: &PointSeen, entry: &Draft) -> Result<(), Refusal> {
        self.known_point(&f.point)?;
        let moves = self.moves_when_seen(f.since.as_ref(), entry.at)?;
        if self.tripped().next().is_some() {
            self.show_tripped(&f.point, Some((f.seen, entry.id.clone())));
            if f.seen == Seen::Dark {
                // Dark with a GFCI tripped on purpose: which of the two darkened it cannot be told. What showed it lit before
                // proves nothing from here on: it may stay dark for a GFCI that was not reset, whatever is switched off.
                let lit = |look: &Look| look.point == f.point && look.seen == Seen::Lit;
                let (before, kept) = std::mem::take(&mut self.looks).into_iter().partition(lit);
                self.looks = kept;
                self.doubted.extend::<Vec<Look>>(before);
                self.number_looks(0);
                return Ok(());
            }
        }
        let place = self.looks.partition_point(|look| look.moves <= moves);
        let off = self.off_after(moves);
        let look = Look {
            line: entry.id.clone(),
            at: entry.at,
            by: entry.by.clone(),
            instrument: entry.instrument,
            point: f.point.clone(),
            seen: f.seen,
            off,
            moves,
            nth: place,
            told: self.told(),
        };
        self.looks.insert(place, look);
        self.number_looks(place + 1);
        Ok(())
    }

    pub(super) fn read_volts(&mut self, f: &VoltsRead, entry: &Draft) -> Result<(), Refusal> {
        let nominal = self.known_point(&f.point)?.volts;
        if !(0.0..=1000.0).contains(&f.volts) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "volts",
                format!("{} V is no reading at a point of a house.", f.volts),
                "0 to 1000 V, as the meter shows it.",
            ));
        }
        let (seen, told) = (metered::shows(f.volts, nominal), self.told());
        let (moves, doubted) = match self.moves_when_seen(f.since.as_ref(), entry.at) {
            Ok(moves) => (moves, false),
            // A hazard is never turned away for what was off then; as a look it does not count.
            Err(_) if metered::is_too_much(f.volts, nominal) => (self.turns.len(), true),
            Err(refusal) => return Err(refusal),
        };
        if let Some(seen) = seen.filter(|_| !doubted) {
            self.see_point(&PointSeen { point: f.point.clone(), seen, since: f.since.clone() }, entry)?;
        }
        self.metered.push(Metered {
            line: entry.id.clone(),
            at: entry.at,
            by: entry.by.clone(),
            point: f.point.clone(),
            volts: f.volts,
            seen,
            off: self.off_after(moves),
            moves,
            told,
            doubted,
        });
        Ok(())
    }

    /// What was off after so many moves.
    fn off_after(&self, moves: usize) -> Arc<BTreeSet<BreakerId>> {
        if moves == 0 { Arc::default() } else { Arc::clone(&self.turns[moves - 1].off) }
    }

    pub(super) fn skip_point(&mut self, f: &PointSkipped, entry: &Draft) -> Result<(), Refusal> {
        super::fold::short("reason", &f.reason, 0, 120)?;
        self.known_point(&f.point)?;
        let moves = self.moves_when_seen(f.since.as_ref(), entry.at)?;
        let off = self.off_after(moves);
        self.show_tripped(&f.point, None);
        self.skips.push(Skip { point: f.point.clone(), off, moves });
        self.skips.sort_by_key(|skip| skip.moves);
        Ok(())
    }

    pub(super) fn hear_tone(&mut self, f: &ToneHeard) -> Result<(), Refusal> {
        self.known_breaker(&f.breaker)?;
        if self.known_point(&f.point)?.volts == Volts::new(240) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "point",
                "A plug-in tone sender never goes on 240 V.",
                "Trace this point by switching its breaker off.",
            ));
        }
        self.tones.push((f.point.clone(), f.breaker.clone()));
        Ok(())
    }

    /// How many looks have been told of.
    fn told(&self) -> usize {
        self.looks.len() + self.doubted.len()
    }

    fn show_tripped(&mut self, point: &PointId, seen: Option<(Seen, EntryId)>) {
        for trip in self.trips.iter_mut().filter(|trip| trip.reset.is_none()) {
            trip.seen.insert(point.clone(), seen.clone());
        }
    }

    pub(super) fn work_device(&mut self, f: &DeviceWorked, entry: &Draft) -> Result<(), Refusal> {
        let device = self.known_point(&f.device)?;
        match f.worked {
            Worked::Tripped | Worked::Reset if !device.details.gfci => {
                return Err(Refusal::new(
                    RefusalCode::OutOfRange,
                    "device",
                    format!("{} is not entered as a GFCI device.", device.name),
                    "Say so at the point first: it has test and reset buttons.",
                ));
            }
            Worked::Tripped if self.tripped().any(|device| device == &f.device) => {}
            Worked::Tripped => {
                let (device, told) = (f.device.clone(), self.told());
                self.trips.push(Trip { device, told, reset: None, seen: BTreeMap::new() });
            }
            Worked::Reset => {
                let reset = Some((entry.at, self.told()));
                if let Some(trip) = self.trips.iter_mut().rfind(|trip| trip.device == f.device) {
                    trip.reset = reset;
                }
            }
            Worked::SwitchedOn | Worked::NewLamp => {}
        }
        self.worked.push((f.device.clone(), f.worked));
        Ok(())
    }

    pub(super) fn is_made_up(&mut self, f: &PracticeHouse) -> Result<(), Refusal> {
        f.recipe.admit()?;
        self.practice = Some(f.recipe);
        Ok(())
    }
}

fn changed(wrong: &str) -> Refusal {
    Refusal::new(RefusalCode::OffSetChanged, "since", wrong, "Look again, with the breakers as they stand now.")
}
