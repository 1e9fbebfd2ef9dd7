//! The wording of the circuits: place, then things by name, then kind and count.
//!
//! `Kitchen: refrigerator, microwave, 2 receptacles; pantry: light`. The biggest load stands first, rooms with the same few things are
//! one place, and no two circuits read the same. Only what is proven is worded.
//!
//! What a point is called stands in [`called`], what a room comes to and how rooms are joined in [`places`], what is done where two
//! circuits read the same in [`apart`], the abbreviations in [`short`].

mod apart;
mod called;
mod clear;
mod places;
mod short;

use indexmap::IndexMap;

pub(crate) use called::called;
pub(crate) use clear::about_people;
pub use clear::about_wording;
pub(crate) use short::shorter;

use crate::model::{BreakerId, Point};
use crate::study::Study;
use crate::trace::on_breaker;

/// The words of a circuit, from the points proven on its breaker; empty where none is.
pub fn wording(home: &Study, breaker: &BreakerId) -> String {
    wordings(home).get(breaker).cloned().unwrap_or_default()
}

/// The words of every circuit on which something is proven.
fn wordings(home: &Study) -> &IndexMap<BreakerId, String> {
    struct Wordings(IndexMap<BreakerId, String>);
    let all: &Wordings = home.once(|| {
        let proven = |breaker: &BreakerId| -> Vec<&Point> {
            on_breaker(home, breaker).proven.iter().filter_map(|id| home.house().point(id)).collect()
        };
        let circuits = home.panels().breakers().map(|breaker| (breaker.id.clone(), proven(&breaker.id)));
        Wordings(apart::all(home, circuits.filter(|(_, points)| !points.is_empty()).collect()))
    });
    &all.0
}
