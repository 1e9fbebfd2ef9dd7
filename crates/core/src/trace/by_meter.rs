//! What a meter says in a trace: a reading between lit and dark has to be taken again under load; too many volts stop the trace.

use std::collections::BTreeMap;

use super::NextStep;
use super::next_step::Rounds;
use crate::logbook::Metered;
use crate::model::{BreakerId, PointId, Volts, meter};
use crate::study::Study;

impl Rounds<'_> {
    /// Volts that a meter showed at the point since a handle moved, neither lit nor dark.
    pub(super) fn between_now(&self, point: &PointId) -> Option<f64> {
        between(self.home, point).filter(|last| last.moves == self.home.switchings().count()).map(|last| last.volts)
    }

    /// A meter showed what a lost neutral shows, and nothing at that point has shown since that it is mended.
    pub(super) fn stop(&self) -> Option<NextStep> {
        let read = |metered: &Metered| format!("{} read {} V", self.in_words(&metered.point), metered.volts);
        let (metered, why) = match (too_much_read(self.home).first(), legs_apart(self.home)) {
            (Some(metered), _) => (*metered, format!("{}, more than it may have.", read(metered))),
            (None, Some(apart)) => (apart.low, format!("{} and {}, with everything on.", read(apart.high), read(apart.low))),
            (None, None) => return None,
        };
        Some(NextStep::Stop {
            point: metered.point.clone(),
            place: self.in_words(&metered.point),
            volts: metered.volts,
            why,
            line: metered.line.clone(),
        })
    }
}

/// What a meter showed last at a point, where that was neither lit nor dark and the point was not looked at since.
pub(crate) fn between<'a>(home: &'a Study, point: &PointId) -> Option<&'a Metered> {
    let last = home.trace().metered().iter().rfind(|metered| &metered.point == point)?;
    let seen_since = || home.trace().looks().iter().any(|look| &look.point == point && look.written >= last.written);
    (last.seen.is_none() && !last.doubted && !seen_since()).then_some(last)
}

/// The last readings at points, where those are too much: nothing there has shown since that it is mended.
pub(crate) fn too_much_read(home: &Study) -> Vec<&Metered> {
    let mut last: BTreeMap<&PointId, &Metered> = BTreeMap::new();
    last.extend(home.trace().metered().iter().map(|metered| (&metered.point, metered)));
    last.retain(|point, metered| home.house().point(point).is_some_and(|point| meter::is_too_much(metered.volts, point.volts)));
    last.into_values().collect()
}

/// The readings at 120 V points with everything on.
fn all_on(home: &Study) -> impl Iterator<Item = &Metered> {
    let left_off = |b: &BreakerId| home.panels().breaker(b).is_some_and(|b| b.is_left_off());
    let with_all_on = move |metered: &&Metered| !metered.doubted && metered.off.iter().all(left_off);
    let low = |metered: &&Metered| home.house().point(&metered.point).is_some_and(|point| point.volts == Volts::new(120));
    home.trace().metered().iter().filter(with_all_on).filter(low)
}

/// The last reading with everything on at every 120 V point, dark ones among them.
pub(crate) fn last_read_all_on(home: &Study) -> Vec<&Metered> {
    let mut last: BTreeMap<&PointId, &Metered> = BTreeMap::new();
    last.extend(all_on(home).map(|metered| (&metered.point, metered)));
    last.into_values().collect()
}

/// The readings at 120 V points with everything on, as far as they show any supply.
fn read_all_on(home: &Study) -> BTreeMap<&PointId, Vec<&Metered>> {
    let mut all: BTreeMap<&PointId, Vec<&Metered>> = BTreeMap::new();
    let supplied = |metered: &&Metered| meter::shows(metered.volts, Volts::new(120)) != Some(crate::model::Seen::Dark);
    for metered in all_on(home).filter(supplied) {
        all.entry(&metered.point).or_default().push(metered);
    }
    all
}

/// Two outlets that show what a lost neutral does.
pub(crate) struct LegsApart<'a> {
    pub(crate) high: &'a Metered,
    pub(crate) low: &'a Metered,
}

/// One outlet high and another low with everything on; or one that rose while the other fell.
pub(crate) fn legs_apart(home: &Study) -> Option<LegsApart<'_>> {
    /// Volts that are no mere wandering of the supply, and within what time readings that are compared were taken. Judgement.
    const MOVED: f64 = 5.0;
    const TOGETHER_MS: i64 = 60 * 60 * 1000;
    let read = read_all_on(home);
    let last: Vec<&Metered> = read.values().filter_map(|all| all.last().copied()).collect();
    let by_volts = |a: &&&Metered, b: &&&Metered| a.volts.total_cmp(&b.volts);
    let together = |a: &Metered, b: &Metered| (a.at.unix_ms() - b.at.unix_ms()).abs() <= TOGETHER_MS;
    let (high, low) = (*last.iter().max_by(by_volts)?, *last.iter().min_by(by_volts)?);
    if high.volts > meter::HIGH && low.volts < meter::LOW && together(high, low) {
        return Some(LegsApart { high, low });
    }
    let moved = |up: bool| {
        read.values().find_map(|all| {
            let [.., before, now] = all.as_slice() else { return None };
            let by = (now.volts - before.volts) * if up { 1.0 } else { -1.0 };
            (by >= MOVED && together(before, now)).then_some(*now)
        })
    };
    let (high, low) = (moved(true)?, moved(false)?);
    together(high, low).then_some(LegsApart { high, low })
}

/// The last readings with everything on that are below what an outlet may come down to.
pub(crate) fn too_little_read(home: &Study) -> Vec<&Metered> {
    read_all_on(home).into_values().filter_map(|all| all.last().copied()).filter(|last| last.volts < meter::LOW).collect()
}

/// What a reading between lit and dark means, where that was the last word on a point.
pub(super) fn between_in_words(home: &Study, point: &PointId) -> Option<String> {
    let last = between(home, point)?;
    let off: Vec<String> = last.off.iter().map(|b| home.panels().number(b)).collect();
    let with = if off.is_empty() { "everything on".to_owned() } else { format!("{} off", off.join(", ")) };
    Some(format!(
        "A meter showed {} V with {with}: neither lit nor dark. It may stray over from a wire beside it, come through a shared \
         neutral, or be a second feed. Look again with a load on it, a lamp or a plug-in tester; until then treat it as live.",
        last.volts
    ))
}
