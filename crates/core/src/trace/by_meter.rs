//! What a meter says in a trace: a reading between lit and dark has to be taken again under load; too many volts stop the trace.

use std::collections::BTreeMap;

use super::NextStep;
use super::next_step::Rounds;
use crate::logbook::Metered;
use crate::model::{PointId, meter};
use crate::study::Study;

impl Rounds<'_> {
    /// Volts that a meter showed at the point since a handle moved, neither lit nor dark.
    pub(super) fn between_now(&self, point: &PointId) -> Option<f64> {
        between(self.home, point).filter(|last| last.moves == self.home.switchings().count()).map(|last| last.volts)
    }

    /// A meter showed more volts than a circuit may have, and nothing at that point has shown since that it is mended.
    pub(super) fn stop(&self) -> Option<NextStep> {
        let metered = *too_much_read(self.home).first()?;
        Some(NextStep::Stop {
            point: metered.point.clone(),
            place: self.in_words(&metered.point),
            volts: metered.volts,
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
