//! Rule slash-rating: a breaker marked 120/240 V is for legs of 120 V to ground alone.
//!
//! Source: NEC 240.85, from memory. On a high-leg service leg B has 208 V to ground: a breaker of several poles there is marked 240 V,
//! without a slash. Where the marking was not read, it is asked for. Example: a two-pole breaker marked 120/240 V in rows 1 and 2 of a
//! high-leg panel.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};
use crate::model::{Leg, Service, legs_of};

pub(super) const RULE: Rule = Rule {
    code: "slash-rating",
    severity: Severity::Fault,
    why: "A fault to ground on that leg is more than the breaker was tested to break.",
    source: Source::Code(Sections::nec("240.85", InCanada::Holds)),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in checked.breakers().filter(|(panel, b)| panel.service == Service::HighLeg && b.poles() > 1) {
        if !legs_of(panel, &breaker.at).contains(&Leg::B) {
            continue;
        }
        match breaker.details.slash_rated {
            Some(false) => {}
            Some(true) => {
                found.breaker(
                    breaker,
                    "Marked 120/240 V, and one of its poles is on the high leg, which has 208 V to ground.".into(),
                    format!("Have it replaced by one marked 240 V that the panel's label names. {FOR_QUALIFIED}"),
                );
            }
            None => {
                let finding = found.breaker(
                    breaker,
                    "One of its poles is on the high leg, which has 208 V to ground. Whether it is marked 240 V or 120/240 V was not \
                     read."
                        .into(),
                    "Read its marking and enter it: there it has to be 240 V.",
                );
                finding.severity = Severity::Note;
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{Severity, findings};
    use crate::fixture::written;

    fn of(service: &str, at: &str, more: &str) -> Vec<Severity> {
        let home = written(&format!("panel 12\nmain is {service}\n{at} 30/2 pump\n{more}")).home;
        findings(&home).iter().filter(|f| f.code == "slash-rating").map(|f| f.severity).collect()
    }

    #[test]
    fn fires_on_the_high_leg_alone() {
        assert_eq!(of("high-leg", "1-3", "1-3 is slash-rated"), [Severity::Fault]);
        assert_eq!(of("high-leg", "1-3", ""), [Severity::Note]);
        assert!(of("high-leg", "1-3", "1-3 is straight-rated").is_empty());
        assert!(of("high-leg", "5-7", "5-7 is slash-rated").is_empty(), "legs C and A");
        assert!(of("three-phase", "1-3", "1-3 is slash-rated").is_empty(), "120 V to ground on every leg");
        assert!(of("split-phase", "1-3", "1-3 is slash-rated").is_empty());
    }
}
