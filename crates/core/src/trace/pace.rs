//! What acts cost: the reference costs, until the crew's own pace is known from the times of its lines.

use std::collections::BTreeMap;

use crate::logbook::{Instrument, Look};
use crate::model::TraceSetup;
use crate::search::Costs;
use crate::study::Study;

/// So many times seen, a pace counts.
const ENOUGH: usize = 8;
/// A pause, not a pace, in seconds.
const PAUSE_S: f64 = 90.0;

/// The costs of this crew in this home. A made-up house is walked through in no time, so its crew keeps the reference.
pub(crate) fn pace(home: &Study, setup: TraceSetup) -> Costs {
    let given = Costs { exchange_s: if setup.phones { 1.0 } else { 4.0 }, ..Costs::default() };
    // Several who walk look at the same time; at best, each takes a like part.
    let each = |costs: Costs| Costs {
        plug_s: costs.plug_s / setup.looking(),
        glance_s: costs.glance_s / setup.looking(),
        burnt_s: costs.burnt_s / setup.looking(),
        ..costs
    };
    if home.practice().is_some() {
        return each(given);
    }
    let between = |plug: bool| {
        let looks = home.trace().looks();
        let took = |pair: &[&Look]| -> Option<f64> {
            let (a, b) = (pair[0], pair[1]);
            let room = |look: &Look| home.house().point(&look.point).map(|p| &p.room);
            let same = a.moves == b.moves && room(a) == room(b) && a.point != b.point;
            let plugged = matches!(b.instrument, Some(Instrument::PlugInTester));
            (same && plugged == plug).then(|| (b.at.unix_ms() - a.at.unix_ms()) as f64 / 1000.0)
        };
        // Each at their own pace.
        let mut by: BTreeMap<&str, Vec<&Look>> = BTreeMap::new();
        for look in looks {
            by.entry(&look.by).or_default().push(look);
        }
        middle(by.values().flat_map(|own| own.windows(2).filter_map(took)))
    };
    each(Costs {
        plug_s: between(true).map_or(given.plug_s, |s| s.clamp(2.0, 60.0)),
        glance_s: between(false).map_or(given.glance_s, |s| s.clamp(1.0, 30.0)),
        ..given
    })
}

/// The median, where there are enough that are no pause and not written at one go.
fn middle(seconds: impl Iterator<Item = f64>) -> Option<f64> {
    let mut real: Vec<f64> = seconds.filter(|s| (0.5..PAUSE_S).contains(s)).collect();
    real.sort_by(f64::total_cmp);
    (real.len() >= ENOUGH).then(|| real[real.len() / 2])
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    #[test]
    fn a_slow_crew_costs_more_and_a_few_looks_are_no_pace() {
        // Lines of the fixture are a second apart.
        let few = written("panel 6\n1 20 a\nroom Hall\npoint Hall light lamp\npoint Hall light other\nlit lamp\nlit other");
        assert_eq!(pace(&few.home, TraceSetup::default()), Costs::default());
        let mut text = "panel 6\n1 20 a\nroom Hall\npoint Hall light lamp\npoint Hall light other\n".to_owned();
        text.push_str(&"lit lamp\nlit other\n".repeat(6));
        let own = pace(&written(&text).home, TraceSetup { phones: true, ..TraceSetup::default() });
        assert_eq!((own.glance_s, own.plug_s, own.exchange_s), (1.0, 8.0, 1.0));
        let three = pace(&written(&text).home, TraceSetup { walkers: 3, ..TraceSetup::default() });
        assert_eq!((three.glance_s * 3.0, three.plug_s * 3.0, three.exchange_s), (1.0, 8.0, 4.0), "three look at once");
        assert_eq!(middle([4.0; 7].into_iter()), None);
        assert_eq!(middle([4.0, 4.0, 4.0, 5.0, 5.0, 5.0, 6.0, 6.0, 600.0, 0.0].into_iter()), Some(5.0));
    }
}
