//! What a trace leaves: looks, readings, tones, devices worked, points passed over; and how such facts change it.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use super::{Home, short, unknown};
use crate::logbook::{
    BreakerSwitched, ChangeWatched, DeviceWorked, Draft, Instrument, PointSeen, PointSkipped, PowerBlinked, ToneHeard, VoltsRead,
    WrongHandle,
};
use crate::model::{BreakerId, Change, EntryId, Moment, PointId, Refusal, RefusalCode, Seen, State, Volts, Worked, meter};

/// A look at a point, with the breakers as they stood.
#[derive(Debug, Clone, PartialEq)]
pub struct Look {
    /// The line that records it.
    pub line: EntryId,
    /// When.
    pub at: Moment,
    /// Who looked, by name.
    pub by: Arc<str>,
    /// With what.
    pub instrument: Option<Instrument>,
    /// The point.
    pub point: PointId,
    /// What it showed.
    pub seen: Seen,
    /// The breakers that were off or tripped.
    pub off: Arc<BTreeSet<BreakerId>>,
    /// How many times a handle had moved before this look: an index into [`crate::logbook::Switchings::all`].
    pub moves: usize,
    /// Its place among the looks, which are in order of when they were seen.
    pub place: usize,
    /// How many looks had been written before this one.
    pub(crate) written: usize,
    /// The point was found anew for it.
    pub(crate) anew: bool,
    /// It is the second or third look of a point that was watched as a breaker was switched off and on again.
    pub(crate) watched: Option<Watched>,
}

/// The second or third look at a point that is watched; the first, which shows it lit, is like any other.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Watched {
    /// What the point did.
    pub(crate) saw: Change,
    /// With the breaker on again, and not while it was off.
    pub(crate) is_back: bool,
}

/// Why a look does not count any more.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Doubt {
    /// A handle that had moved before it was reported only afterwards.
    ReportedLate,
    /// A GFCI was tripped on purpose meanwhile.
    TrippedGfci,
    /// The house had no power for a moment.
    PowerBlinked,
    /// Another handle was moved than was said.
    WrongHandle,
    /// The point hangs on another circuit since.
    Rewired,
}

impl Doubt {
    /// As it stands behind the look: `the power had blinked`.
    pub const fn words(self) -> &'static str {
        match self {
            Self::ReportedLate => "a breaker change was reported late",
            Self::TrippedGfci => "a tripped GFCI made it dark",
            Self::PowerBlinked => "the power had blinked",
            Self::WrongHandle => "another handle was moved than was said",
            Self::Rewired => "the point was wired to another circuit afterwards",
        }
    }
}

/// What a meter showed at a point, with the breakers as they stood.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Metered {
    pub(crate) line: EntryId,
    pub(crate) at: Moment,
    pub(crate) by: String,
    pub(crate) point: PointId,
    pub(crate) volts: f64,
    /// What that says; `None`: neither lit nor dark.
    pub(crate) seen: Option<Seen>,
    pub(crate) off: Arc<BTreeSet<BreakerId>>,
    pub(crate) moves: usize,
    /// How many looks had been written before.
    pub(crate) written: usize,
    /// A breaker change before it was reported late: not counted.
    pub(crate) doubted: bool,
}

/// A GFCI that was tripped on purpose.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Trip {
    pub(crate) device: PointId,
    /// How many looks had been written before.
    pub(crate) written: usize,
    /// When it was reset, and how many looks had been written by then.
    pub(crate) reset: Option<(Moment, usize)>,
    /// What points showed meanwhile; `None` where one was passed over.
    pub(crate) seen: BTreeMap<PointId, Option<(Seen, EntryId)>>,
}

impl Trip {
    /// Whether a point was seen so while it was tripped.
    pub(crate) fn showed(&self, point: &PointId, seen: Seen) -> bool {
        matches!(self.seen.get(point), Some(Some((showed, _))) if *showed == seen)
    }
}

/// A point that was passed over, with the breakers as they stood.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Skip {
    pub(crate) point: PointId,
    pub(crate) off: Arc<BTreeSet<BreakerId>>,
    pub(crate) moves: usize,
}

/// Everything that a trace left.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Trace {
    looks: Vec<Look>,
    doubted: Vec<(Look, Doubt)>,
    metered: Vec<Metered>,
    skips: Vec<Skip>,
    tones: Vec<(PointId, BreakerId)>,
    worked: Vec<(PointId, Worked)>,
    found_tripped: Vec<(PointId, Moment)>,
    trips: Vec<Trip>,
    /// No look or reading that counts is later than this.
    latest: Option<Moment>,
}

impl Trace {
    /// Every look, in the order in which they were seen.
    pub fn looks(&self) -> &[Look] {
        &self.looks
    }
    /// Looks that do not count: a breaker change before them was reported late, a tripped GFCI darkened the point, or the
    /// house had no power.
    pub fn doubted(&self) -> &[(Look, Doubt)] {
        &self.doubted
    }
    /// What a meter showed, in the order of the logbook.
    pub(crate) fn metered(&self) -> &[Metered] {
        &self.metered
    }
    /// Points that were passed over, in the order in which that was.
    pub(crate) fn skips(&self) -> &[Skip] {
        &self.skips
    }
    /// Tones heard, in order: where the sender was plugged in and at which breaker it was loudest.
    pub fn tones(&self) -> &[(PointId, BreakerId)] {
        &self.tones
    }
    /// GFCIs that were found tripped, with the time.
    pub(crate) fn found_tripped(&self) -> &[(PointId, Moment)] {
        &self.found_tripped
    }

    /// What was worked at devices, in order.
    pub fn worked(&self) -> &[(PointId, Worked)] {
        &self.worked
    }
    /// Every time a GFCI was tripped on purpose, in order.
    pub(crate) fn trips(&self) -> &[Trip] {
        &self.trips
    }
    /// GFCI devices that were tripped on purpose and not reset yet.
    pub fn tripped(&self) -> impl Iterator<Item = &PointId> {
        self.trips.iter().filter(|trip| trip.reset.is_none()).map(|trip| &trip.device)
    }

    /// How many looks have been written.
    pub(crate) fn written(&self) -> usize {
        self.looks.len() + self.doubted.len()
    }

    /// A handle that moved at `at` is reported only now: what was seen later than that was filed under the wrong switching.
    /// It counts no more; it has to be looked at again.
    pub(super) fn doubt_looks_after(&mut self, at: Moment) {
        if self.latest.is_none_or(|latest| latest <= at) {
            return;
        }
        for metered in self.metered.iter_mut().filter(|metered| metered.at > at) {
            metered.doubted = true;
        }
        self.doubt(Doubt::ReportedLate, |look| look.at > at);
        self.latest = Some(at);
    }

    /// Looks that count no more.
    fn doubt(&mut self, why: Doubt, which: impl FnMut(&Look) -> bool) {
        let (doubted, kept): (Vec<Look>, _) = std::mem::take(&mut self.looks).into_iter().partition(which);
        self.looks = kept;
        self.doubted.extend(doubted.into_iter().map(|look| (look, why)));
        self.number_looks(0);
    }

    /// No look at these points, and no reading of them, counts any more.
    pub(in crate::logbook) fn doubt_points(&mut self, why: Doubt, points: &[PointId]) {
        for metered in self.metered.iter_mut().filter(|metered| points.contains(&metered.point)) {
            metered.doubted = true;
        }
        self.doubt(why, |look| points.contains(&look.point));
    }

    /// What may be behind the device, and was dark since both were last seen lit, may have been so for the device alone. What was seen
    /// in another trace, more than an hour ago, is not touched.
    fn doubt_since_lit(&mut self, device: &PointId, found: Moment, may_be_behind: impl Fn(&PointId) -> bool) {
        let mut lit: BTreeMap<PointId, usize> = BTreeMap::new();
        for look in self.looks.iter().filter(|look| look.seen == Seen::Lit) {
            let last = lit.entry(look.point.clone()).or_default();
            *last = look.written.max(*last);
        }
        let since = |point: &PointId| lit.get(point).copied().max(lit.get(device).copied());
        const A_TRACE_MS: i64 = 3_600_000;
        let dark = |point: &PointId, at: Moment, written: usize| {
            let lately = at.unix_ms() > found.unix_ms() - A_TRACE_MS;
            lately && may_be_behind(point) && since(point).is_none_or(|lit| written > lit)
        };
        for metered in self.metered.iter_mut().filter(|m| m.seen == Some(Seen::Dark) && dark(&m.point, m.at, m.written)) {
            metered.doubted = true;
        }
        self.doubt(Doubt::TrippedGfci, |look| look.seen == Seen::Dark && dark(&look.point, look.at, look.written));
    }

    /// A name as text that is shared: mostly the one who looked last looks again.
    fn signed(&self, by: &str) -> Arc<str> {
        let last = self.looks.last().filter(|look| &*look.by == by);
        last.map_or_else(|| by.into(), |look| Arc::clone(&look.by))
    }

    fn number_looks(&mut self, from: usize) {
        for (place, look) in self.looks.iter_mut().enumerate().skip(from) {
            look.place = place;
        }
    }

    fn is_seen_at(&mut self, at: Moment) {
        self.latest = self.latest.max(Some(at));
    }

    /// A GFCI that is tripped is no longer on the list: nobody can say that it was reset. It counts as reset from now on, so that
    /// what may be behind it has to be seen lit again before it proves anything.
    pub(in crate::logbook) fn device_gone(&mut self, device: &PointId) {
        let (at, written) = (self.latest.unwrap_or(Moment::from_unix_ms(0)), self.written());
        for trip in self.trips.iter_mut().filter(|trip| trip.device == *device && trip.reset.is_none()) {
            trip.reset = Some((at, written));
        }
    }

    fn show_tripped(&mut self, point: &PointId, seen: Option<(Seen, EntryId)>) {
        for trip in self.trips.iter_mut().filter(|trip| trip.reset.is_none()) {
            trip.seen.insert(point.clone(), seen.clone());
        }
    }

    /// Two breakers are one from now on. A point that stayed lit with one of the two off may still be on the other: that
    /// look no longer speaks against the breaker they are now. Where the point has been dark with this one off, nothing is
    /// touched.
    pub(in crate::logbook) fn breakers_joined(&mut self, breaker: &BreakerId, with: &BreakerId) {
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
}

impl Home {
    pub(in crate::logbook) fn see_point(&mut self, f: &PointSeen, entry: &Draft) -> Result<(), Refusal> {
        self.look_at(f, None, entry)
    }

    /// Seen lit, then with the breaker off, then with it on again.
    pub(in crate::logbook) fn watch_change(&mut self, f: &ChangeWatched, entry: &Draft) -> Result<(), Refusal> {
        let breaker = self.panels.known_breaker(&f.breaker)?;
        if breaker.state != State::On {
            let number = self.panels.number(&f.breaker);
            return Err(Refusal::new(
                RefusalCode::OffSetChanged,
                "breaker",
                format!("{number} is off: nothing can be watched going out with it."),
                "Say first that it is on again, or look whether the point is lit or dark.",
            ));
        }
        self.house.known_point(&f.point)?;
        if self.moves_when_seen(f.since.as_ref(), entry.at)? != self.switchings.count() {
            return Err(Refusal::new(
                RefusalCode::OffSetChanged,
                "since",
                "The breakers changed after this was watched, and before it was told.",
                "Watch it once more, with the breakers as they stand now.",
            ));
        }
        let look = |seen| PointSeen { point: f.point.clone(), seen, since: None, anew: false };
        let turned = |to| BreakerSwitched { breaker: f.breaker.clone(), to };
        let (out, back) = f.saw.seen();
        self.see_point(&look(Seen::Lit), entry)?;
        self.switch_breaker(&turned(State::Off), entry)?;
        self.look_at(&look(out), Some(Watched { saw: f.saw, is_back: false }), entry)?;
        self.switch_breaker(&turned(State::On), entry)?;
        self.look_at(&look(back), Some(Watched { saw: f.saw, is_back: true }), entry)
    }

    fn look_at(&mut self, f: &PointSeen, watched: Option<Watched>, entry: &Draft) -> Result<(), Refusal> {
        self.house.known_point(&f.point)?;
        let moves = self.moves_when_seen(f.since.as_ref(), entry.at)?;
        let trace = &mut *self.trace;
        if trace.tripped().next().is_some() {
            trace.show_tripped(&f.point, Some((f.seen, entry.id.clone())));
            if f.seen == Seen::Dark {
                // Dark with a GFCI tripped on purpose: which of the two darkened it cannot be told. What showed it lit before
                // proves nothing from here on: it may stay dark for a GFCI that was not reset, whatever is switched off.
                trace.doubt(Doubt::TrippedGfci, |look| look.point == f.point && look.seen == Seen::Lit);
                return Ok(());
            }
        }
        let place = trace.looks.partition_point(|look| look.moves <= moves);
        let look = Look {
            line: entry.id.clone(),
            at: entry.at,
            by: trace.signed(&entry.by),
            instrument: entry.instrument,
            point: f.point.clone(),
            seen: f.seen,
            off: self.switchings.off_after(moves),
            moves,
            place,
            written: trace.written(),
            anew: f.anew,
            watched,
        };
        trace.looks.insert(place, look);
        trace.number_looks(place + 1);
        trace.is_seen_at(entry.at);
        Ok(())
    }

    pub(in crate::logbook) fn read_volts(&mut self, f: &VoltsRead, entry: &Draft) -> Result<(), Refusal> {
        let nominal = self.house.known_point(&f.point)?.volts;
        if !(0.0..=1000.0).contains(&f.volts) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "volts",
                format!("{} V is no reading at a point of a house.", f.volts),
                "0 to 1000 V, as the meter shows it.",
            ));
        }
        let (seen, written) = (meter::shows(f.volts, nominal), self.trace.written());
        let (moves, doubted) = match self.moves_when_seen(f.since.as_ref(), entry.at) {
            Ok(moves) => (moves, false),
            // A hazard is never turned away for what was off then; as a look it does not count.
            Err(_) if meter::is_too_much(f.volts, nominal) => (self.switchings.count(), true),
            Err(refusal) => return Err(refusal),
        };
        if let Some(seen) = seen.filter(|_| !doubted) {
            let by_meter = Draft { instrument: Some(Instrument::Meter), ..entry.clone() };
            self.see_point(&PointSeen { point: f.point.clone(), seen, since: f.since.clone(), anew: false }, &by_meter)?;
        }
        self.trace.metered.push(Metered {
            line: entry.id.clone(),
            at: entry.at,
            by: entry.by.clone(),
            point: f.point.clone(),
            volts: f.volts,
            seen,
            off: self.switchings.off_after(moves),
            moves,
            written,
            doubted,
        });
        self.trace.is_seen_at(entry.at);
        Ok(())
    }

    pub(in crate::logbook) fn skip_point(&mut self, f: &PointSkipped, entry: &Draft) -> Result<(), Refusal> {
        short("reason", &f.reason, 0, 120)?;
        self.house.known_point(&f.point)?;
        let moves = self.moves_when_seen(f.since.as_ref(), entry.at)?;
        self.trace.show_tripped(&f.point, None);
        let place = self.trace.skips.partition_point(|skip| skip.moves <= moves);
        self.trace.skips.insert(place, Skip { point: f.point.clone(), off: self.switchings.off_after(moves), moves });
        Ok(())
    }

    /// The house was without power just now: what was dark since the last moment that is still sure may have been so for that.
    /// Sure is the last lit look; and as it takes a moment to say so, not less than two minutes ago.
    pub(in crate::logbook) fn power_blinked(&mut self, f: &PowerBlinked, at: Moment) -> Result<(), Refusal> {
        short("note", &f.note, 0, 120)?;
        const TOLD_WITHIN_MS: i64 = 120_000;
        let lit = self.trace.looks.iter().rfind(|look| look.seen == Seen::Lit && look.at <= at);
        let lit = lit.map_or(i64::MIN, |look| look.at.unix_ms());
        let sure = lit.min(at.unix_ms() - TOLD_WITHIN_MS);
        let dark_then =
            |look_at: Moment, seen: Option<Seen>| seen == Some(Seen::Dark) && look_at.unix_ms() > sure && look_at <= at;
        for metered in self.trace.metered.iter_mut().filter(|metered| dark_then(metered.at, metered.seen)) {
            metered.doubted = true;
        }
        self.trace.doubt(Doubt::PowerBlinked, |look| dark_then(look.at, Some(look.seen)));
        Ok(())
    }

    /// The handle of that line was another one: what was seen from then until it is next said to move was filed under the wrong
    /// switching. Where it was not said to move since, it stands again as before that line, so that what is seen from now on is not
    /// filed so, too.
    pub(in crate::logbook) fn wrong_handle(&mut self, f: &WrongHandle, entry: &Draft) -> Result<(), Refusal> {
        let all = self.switchings.all();
        let Some(moved) = all.iter().position(|switching| switching.line == f.line && !switching.taken_back) else {
            return Err(unknown("line", "That line moved no handle.", "Name a line that switched a breaker off or on."));
        };
        let next = all.iter().skip(moved + 1).position(|next| next.breaker == all[moved].breaker);
        let until = next.map_or(usize::MAX, |next| moved + 1 + next);
        let under = moved + 1..=until;
        let back = if all[moved].to == State::On { State::Off } else { State::On };
        let still_stands = next.is_none().then(|| BreakerSwitched { breaker: all[moved].breaker.clone(), to: back });
        for metered in self.trace.metered.iter_mut().filter(|metered| under.contains(&metered.moves)) {
            metered.doubted = true;
        }
        self.trace.doubt(Doubt::WrongHandle, |look| under.contains(&look.moves));
        if let Some(back) = still_stands.filter(|back| self.panels.breaker(&back.breaker).is_some()) {
            self.switch_breaker(&back, entry)?;
            self.switchings.take_back();
        }
        Ok(())
    }

    pub(in crate::logbook) fn hear_tone(&mut self, f: &ToneHeard) -> Result<(), Refusal> {
        self.panels.known_breaker(&f.breaker)?;
        if self.house.known_point(&f.point)?.volts == Volts::new(240) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "point",
                "A plug-in tone sender never goes on 240 V.",
                "Trace this point by switching its breaker off.",
            ));
        }
        self.trace.tones.push((f.point.clone(), f.breaker.clone()));
        Ok(())
    }

    pub(in crate::logbook) fn work_device(&mut self, f: &DeviceWorked, entry: &Draft) -> Result<(), Refusal> {
        let device = self.house.known_point(&f.device)?;
        let trace = &mut *self.trace;
        let written = trace.written();
        match f.worked {
            // One that is recorded as tripped can be reset whatever it is entered as since.
            Worked::Tripped | Worked::Reset | Worked::FoundTripped
                if !device.details.gfci && !trace.tripped().any(|device| device == &f.device) =>
            {
                return Err(Refusal::new(
                    RefusalCode::OutOfRange,
                    "device",
                    format!("{} is not entered as a GFCI device.", device.name),
                    "Say so at the point first: it has test and reset buttons.",
                ));
            }
            Worked::Tripped if trace.tripped().any(|device| device == &f.device) => {}
            Worked::Tripped => {
                trace.trips.push(Trip { device: f.device.clone(), written, reset: None, seen: BTreeMap::new() });
            }
            Worked::Reset => {
                if let Some(trip) = trace.trips.iter_mut().rfind(|trip| trip.device == f.device) {
                    trip.reset = Some((entry.at, written));
                }
            }
            Worked::FoundTripped => {
                trace.found_tripped.push((f.device.clone(), entry.at));
                let volts_of = |point: &PointId| self.house.point(point).map(|point| point.volts);
                trace.doubt_since_lit(&f.device, entry.at, |point| volts_of(point) == Some(device.volts));
                // Nor is it sure that it gives power again, until something shows it.
                let reset = Some((entry.at, written));
                trace.trips.push(Trip { device: f.device.clone(), written, reset, seen: BTreeMap::new() });
            }
            Worked::SwitchedOn | Worked::NewLamp => {}
        }
        trace.worked.push((f.device.clone(), f.worked));
        Ok(())
    }
}
