//! What has become of the points that words on a card were written of.

use crate::model::{PointId, so_many};
use crate::study::Study;
use crate::trace::verdict;

/// What changed since, a sentence each.
pub(super) struct Changed {
    /// The sentences.
    pub(super) why: Vec<String>,
    /// One of the points is proven on another breaker now: whoever follows the words switches off the wrong one.
    pub(super) misleads: bool,
}

/// Compares the points that were proven when the words were written with those that are proven now.
pub(super) fn changed(home: &Study, then: &[PointId], now: &[PointId]) -> Changed {
    let (mut why, mut misleads) = (Vec::new(), false);
    let (mut no_longer, mut taken_out) = (Vec::new(), 0);
    for point in then.iter().filter(|point| !now.contains(point)) {
        if home.house().point(point).is_none() {
            taken_out += 1;
        } else if let Some(on) = verdict(home, point).proven_on() {
            misleads = true;
            why.push(format!("{} is proven on {} now.", home.house().place(point), home.panels().number(on)));
        } else {
            no_longer.push(home.house().place(point));
        }
    }
    if !no_longer.is_empty() {
        why.push(format!("No longer proven on it: {}.", some(&no_longer)));
    }
    if taken_out > 0 {
        why.push(format!("No longer in the record: {}.", so_many(taken_out, "point")));
    }
    let fresh: Vec<String> = now.iter().filter(|point| !then.contains(point)).map(|point| home.house().place(point)).collect();
    if !fresh.is_empty() {
        why.push(format!("Proven on it since: {}.", some(&fresh)));
    }
    Changed { why, misleads }
}

/// Three of them, and how many more.
fn some(names: &[String]) -> String {
    match names.len() {
        0..=4 => names.join("; "),
        all => format!("{}; and {} more", names[..3].join("; "), all - 3),
    }
}
