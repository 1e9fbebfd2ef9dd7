//! Rule test-failed: a GFCI, an AFCI or an alarm did not do what its test button asks of it.
//!
//! Source: common practice; makers print on the device to replace one that fails its test. Example: the GFCI at the bath mirror does not
//! trip. It is gone when a later test works.

use super::Found;
use super::{Checked, FOR_QUALIFIED, FindingPlace, Rule, Severity, Source};
use crate::directory::{of_device, tests_due};
use crate::model::TestWent;

pub(super) const RULE: Rule = Rule {
    code: "test-failed",
    severity: Severity::Danger,
    why: "Who relies on it is not protected.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for test in tests_due(checked.home) {
        let Some(went) = test.went.filter(|went| *went != TestWent::Works) else { continue };
        let message = match went {
            TestWent::NoReset => format!("This {} does not stay reset.", test.what),
            TestWent::Silent => "This alarm did not sound when it was tested.".into(),
            _ => format!("This {} did not trip when its button was pressed.", test.what),
        };
        // Without its watch for arcs a circuit is as most are; without that for current to ground somebody may be hurt.
        let is_afci = test.what == "AFCI breaker";
        let severity = if went == TestWent::NoReset || is_afci { Severity::Fault } else { Severity::Danger };
        let finding = match of_device(&test.device) {
            (Some(breaker), _) => {
                let Some(breaker) = checked.home.panels().breaker(breaker) else { continue };
                found.breaker(breaker, message, format!("{} {FOR_QUALIFIED}", test.todo))
            }
            (_, point) => {
                let place = FindingPlace { point: point.cloned(), ..FindingPlace::default() };
                let subject = point.map_or("", |point| point.as_str());
                found.add(subject, test.name, place, message, test.todo)
            }
        };
        finding.severity = severity;
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn what_failed_is_told_until_it_works() {
        let house = |more: &str| {
            said(
                "test-failed",
                &format!("panel 12\n1 20 gfci a\nroom Bath\npoint Bath gfci mirror\npoint Bath alarm smoke\n{more}"),
            )
        };
        assert!(house("").is_empty(), "a test that nobody has made is no fault");
        assert_eq!(house("tested 1 no_trip"), ["1: This GFCI breaker did not trip when its button was pressed."]);
        assert_eq!(house("tested mirror no_reset"), ["Bath, mirror: This GFCI receptacle does not stay reset."]);
        assert_eq!(house("tested smoke silent"), ["Bath, smoke: This alarm did not sound when it was tested."]);
        assert!(house("tested 1 no_trip\ntested 1 works\ntested mirror works").is_empty());
    }
}
