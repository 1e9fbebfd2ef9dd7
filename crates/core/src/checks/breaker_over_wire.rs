//! Rule breaker-over-wire: a breaker larger than its wire lets the wire overheat before it trips.
//!
//! Source: NEC 240.4(D), Table 310.16, from memory; today's rule. Motors and cooling units go by their
//! plate instead. Example: a 20 A breaker on 14 AWG copper, which is good for 15 A.

use super::{Finding, Severity};
use crate::{Home, Metal, largest_breaker};

pub(super) fn check(home: &Home, found: &mut Vec<Finding>) {
    for breaker in home.breakers() {
        let Some(wire) = breaker.wire else { continue };
        let allowed = largest_breaker(wire);
        if breaker.amps <= allowed {
            continue;
        }
        let metal = if wire.metal == Metal::Copper { "copper" } else { "aluminum" };
        found.push(Finding {
            code: "breaker-over-wire".into(),
            severity: Severity::Danger,
            breaker: Some(breaker.id.clone()),
            about: breaker.number(),
            message: format!(
                "{} breaker on {} AWG {metal}. The wire is good for a {allowed} breaker at most.",
                breaker.amps,
                wire.gauge.number()
            ),
            remedy: format!(
                "Have the breaker replaced by one of {allowed} or less that the panel's label names. A motor or cooling unit \
                 may be an exception: its plate decides. Opening the panel is work for qualified people."
            ),
            source: "NEC 240.4(D) and Table 310.16, from memory; local code comes first".into(),
        });
    }
}

#[cfg(test)]
mod tests {
    use crate::logbook::fixture::written;
    use crate::{Draft, Fact, Wire, WireGauge, findings};

    fn with_wire(gauge: WireGauge) -> Vec<crate::Finding> {
        let mut w = written("panel 24\n12 20 darkroom");
        let mut draft: Draft =
            w.book.lines().map(|l| l.entry.clone()).find(|d| matches!(d.fact, Fact::BreakerPlaced(_))).unwrap();
        if let Fact::BreakerPlaced(f) = &mut draft.fact {
            f.wire = Some(Wire { gauge, metal: Default::default(), terminals: Default::default() });
        }
        draft.id = "again".parse().unwrap();
        let outcome = w.book.admit(&[draft], None).unwrap();
        w.book.commit(outcome);
        findings(w.book.home()).into_iter().filter(|f| f.code == "breaker-over-wire").collect()
    }

    #[test]
    fn fires_for_20_amps_on_14_and_stays_silent_on_12() {
        let found = with_wire(WireGauge::Awg14);
        assert_eq!(found.len(), 1);
        assert!(found[0].message.contains("15 A breaker at most"), "{}", found[0].message);
        assert_eq!(found[0].about, "12");
        assert!(with_wire(WireGauge::Awg12).is_empty());
        assert!(with_wire(WireGauge::Awg10).is_empty(), "a smaller breaker on a bigger wire is fine");
    }
}
