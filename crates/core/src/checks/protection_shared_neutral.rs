//! Rule protection-shared-neutral: a one-pole GFCI or AFCI breaker on a shared neutral sees the other
//! circuit's current as a fault; it takes a two-pole device.
//!
//! Source: NEC 110.3(B), from memory; that such pairs trip at once is common practice. Example: two one-pole
//! AFCI breakers on one three-wire cable.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};
use crate::model::{Protection, Tie};

pub(super) const RULE: Rule = Rule {
    code: "protection-shared-neutral",
    severity: Severity::Fault,
    why: "It trips at once, or somebody has parted the neutral to stop that.",
    source: Source::Code(Sections::nec("110.3(B)", InCanada::Holds)),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for group in checked.shared_neutrals() {
        for breaker in &group {
            let single = group.len() > 1 || breaker.details.tie == Tie::Handle;
            if single && breaker.protection != Protection::Standard {
                found.breaker(
                    breaker,
                    "Single GFCI or AFCI breaker on a shared neutral.".into(),
                    format!("The pair takes one two-pole device that the label names. {FOR_QUALIFIED}"),
                );
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_for_single_devices_and_not_for_a_two_pole_one() {
        assert_eq!(said("protection-shared-neutral", "panel 12\n1 20 afci a\n3 20 afci b\nshare 1 3").len(), 2);
        assert!(said("protection-shared-neutral", "panel 12\n1 20 afci a\n3 20 afci b").is_empty());
        assert!(said("protection-shared-neutral", "panel 12\n1 20 a\n3 20 b\nshare 1 3").is_empty());
        assert!(said("protection-shared-neutral", "panel 12\n1-3 20/2 gfci a\nshare 1-3").is_empty());
        assert_eq!(said("protection-shared-neutral", "panel 12\n1-3 20/2 tied gfci a\nshare 1-3").len(), 1);
    }
}
