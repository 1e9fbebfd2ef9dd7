//! Rule hot-spot: in a thermal picture a breaker is warmer than a like one beside it that carries about as much.
//!
//! Source: common practice, from memory as tables of electrical maintenance testing have it: up to 3 °C between like parts is a note, 4 to
//! 15 °C a fault, more than 15 °C a danger. Example: breaker 7 at 61 °C, its neighbor at 34 °C. It is gone when a later picture shows it
//! even.

use super::Found;
use super::{Checked, Rule, Severity, Source};
use crate::loads::{HeatDegree, diagnose_heat};

pub(super) const RULE: Rule = Rule {
    code: "hot-spot",
    severity: Severity::Danger,
    why: "A loose screw or a worn contact heats under load, gets worse by the heat, and burns.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for breaker in checked.home.panels().breakers() {
        let Some(seen) = diagnose_heat(checked.home, breaker) else { continue };
        let severity = match seen.degree {
            HeatDegree::Even => continue,
            HeatDegree::Look => Severity::Note,
            HeatDegree::Fault => Severity::Fault,
            HeatDegree::AtOnce => Severity::Danger,
        };
        found.breaker(breaker, seen.words, seen.next).severity = severity;
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn warmer_than_a_like_one_is_told_by_how_much() {
        let of = |heat: &str| said("hot-spot", &format!("panel 12\n1 20 a\nheat 1 {heat}"));
        assert_eq!(of("61 34"), ["1: In a thermal picture 1 is 27 °C (49 °F) warmer than a like breaker beside it."]);
        assert!(of("40 34 4")[0].ends_with("at full load it is much warmer."), "{:?}", of("40 34 4"));
        assert_eq!(of("34.5 34").len(), 0);
        assert_eq!(of("61 34\nheat 1 35 35").len(), 0, "a later picture shows it even");
    }
}
