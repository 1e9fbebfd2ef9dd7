//! Two circuits never read the same: the one with fewer points says more of where they are, then both, then they are numbered.

use indexmap::IndexMap;

use super::places::{Told, words};
use crate::model::{BreakerId, Point};
use crate::study::Study;

/// The words of each circuit, all different.
pub(super) fn all(home: &Study, circuits: Vec<(BreakerId, Vec<&Point>)>) -> IndexMap<BreakerId, String> {
    let mut said: IndexMap<BreakerId, String> =
        circuits.iter().map(|(id, points)| (id.clone(), words(home, points, Told::Room))).collect();
    // First the one of the fewest points, then all that still read the same.
    for everyone in [false, true] {
        for group in alike(&said) {
            let points = |at: usize| circuits[at].1.len();
            let longest = group.iter().copied().max_by_key(|at| (points(*at), std::cmp::Reverse(*at)));
            for at in group {
                if everyone || Some(at) != longest {
                    let (id, points) = &circuits[at];
                    said.insert(id.clone(), words(home, points, Told::WhereInIt));
                }
            }
        }
    }
    for group in alike(&said) {
        let of = group.len();
        for (n, at) in group.into_iter().enumerate() {
            let (_, text) = said.get_index_mut(at).unwrap_or_else(|| unreachable!("it is one of them"));
            text.push_str(&format!(", {} of {of}", n + 1));
        }
    }
    said
}

/// Those that read the same, group by group.
fn alike(said: &IndexMap<BreakerId, String>) -> Vec<Vec<usize>> {
    let mut groups: IndexMap<String, Vec<usize>> = IndexMap::new();
    for (at, text) in said.values().enumerate() {
        groups.entry(text.to_lowercase()).or_default().push(at);
    }
    groups.into_values().filter(|group| group.len() > 1).collect()
}
