//! Rule interrupting-rating: a breaker can break at least the fault current that the panel's label asks for.
//!
//! Source: NEC 110.9, from memory. Example: a 10 kA breaker in a panel marked 22 kA.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};

pub(super) const RULE: Rule = Rule {
    code: "interrupting-rating",
    severity: Severity::Fault,
    why: "In a dead short a breaker of a lower rating can burst.",
    source: Source::Code(Sections::nec("110.9", InCanada::Section("14-012"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in checked.breakers() {
        if let (Some(asked), Some(has)) = (panel.details.interrupting_ka, breaker.details.interrupting_ka)
            && has < asked
        {
            found.breaker(
                breaker,
                format!("Breaker of {has} kA in a panel whose label asks for {asked} kA."),
                format!("Read both again; a series rating on the label may allow it. Else have it replaced. {FOR_QUALIFIED}"),
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_below_the_label() {
        let with = |has: &str| {
            said(
                "interrupting-rating",
                &format!(
                    "panel 12\nwith main {{\"details\": {{\"interrupting_ka\": 22}}}}\n1 20 a\nset 1 {{\"details\": {{\"interrupting_ka\": {has}}}}}"
                ),
            )
        };
        assert_eq!(with("10"), ["1: Breaker of 10 kA in a panel whose label asks for 22 kA."]);
        assert!(with("22").is_empty() && with("65").is_empty() && with("null").is_empty());
    }
}
