//! What stands under the words of a circuit: where to reset what has tripped, and with which circuits it shares a neutral.

use crate::model::{Point, PointId, Protection};
use crate::panel::BreakerView;
use crate::study::Study;

/// The notes of a circuit, each a line of its own.
pub(super) fn notes(home: &Study, breaker: &BreakerView, points: &[&Point]) -> Vec<String> {
    let mut notes = Vec::new();
    if breaker.protection != Protection::Standard {
        notes.push(format!("{}: reset here", breaker.protection.words()));
    }
    let mut devices: Vec<&PointId> = Vec::new();
    for point in points {
        let own = point.details.gfci.then_some(&point.id);
        for device in own.into_iter().chain(home.plan().gfcis_of(&point.id)) {
            if !devices.contains(&device) {
                devices.push(device);
            }
        }
    }
    if !devices.is_empty() {
        let places: Vec<String> = devices.into_iter().map(|device| home.house().place(device)).collect();
        notes.push(format!("GFCI: reset at {}", places.join("; ")));
    }
    let others: Vec<String> = breaker
        .shares_neutral_with
        .iter()
        .filter(|other| **other != breaker.breaker)
        .filter_map(|other| home.panels().breaker(other))
        .map(crate::model::Breaker::number)
        .collect();
    if !others.is_empty() {
        notes.push(format!("Neutral shared with {}", crate::model::listed(&others)));
    }
    notes
}
