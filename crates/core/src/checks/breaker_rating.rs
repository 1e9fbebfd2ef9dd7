//! Rule breaker-rating: breakers are made in standard ratings; another number is a slip of the pen or a
//! misread handle.
//!
//! Source: NEC 240.6, from memory. Example: a 23 A breaker.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::model::is_standard;

pub(super) const RULE: Rule = Rule {
    code: "breaker-rating",
    severity: Severity::Note,
    why: "What is worked out from a misread rating is wrong too.",
    source: Source::Code(Sections::nec("240.6", InCanada::Section("Table 13"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers().filter(|(_, b)| !is_standard(b.amps, checked.home.edition())) {
        let message = format!("{} is not a standard rating.", breaker.amps);
        found.breaker(breaker, message, "Read the handle again and correct the record.");
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_for_23_amps_and_for_10_before_2023() {
        assert_eq!(said("breaker-rating", "panel 12\n1 23 attic"), ["1: 23 A is not a standard rating."]);
        assert!(said("breaker-rating", "panel 12\n1 15 attic\n3 20 hall\n5-7 50/2 range\n2-4 125/2 shed").is_empty());
        assert_eq!(said("breaker-rating", "panel 12\n1 10 attic lights").len(), 1);
        let later = "panel 12\n1 10 attic lights\nfact {\"kind\": \"rules_chosen\", \"edition\": \"nec2023\"}";
        assert!(said("breaker-rating", later).is_empty());
    }
}
