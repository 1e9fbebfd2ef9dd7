//! Rule slim-pair: two slim poles inside one space are on one leg: 0 V between them. To give 240 V a slim
//! two-pole straddles the lower half of one space and the upper half of the next.
//!
//! Source: common practice, no published source. Example: a slim two-pole at 4a-4b.

use super::Found;
use super::{Checked, FOR_QUALIFIED, Rule, Severity, Source};

pub(super) const RULE: Rule = Rule {
    code: "slim-pair",
    severity: Severity::Fault,
    why: "A 240 V load on it does not run, and on a shared neutral the neutral carries the sum.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in checked.breakers() {
        if let [first, second] = breaker.at.as_slice()
            && first.space == second.space
            && panel.service.legs().len() > 1
        {
            found.breaker(
                breaker,
                "Both slim poles are in one space, on one leg: 0 V between them.".into(),
                format!(
                    "A two-pole straddles the lower half of one space and the upper half of the next, in an interior made for it. \
                     {FOR_QUALIFIED}"
                ),
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_inside_one_space_and_not_across_two() {
        assert_eq!(said("slim-pair", "panel 12\n4a-4b 30/2 heater").len(), 1);
        assert!(said("slim-pair", "panel 12\n4b-6a 30/2 slim heater").is_empty());
        assert!(said("slim-pair", "panel 12\n4a 15 a\n4b 15 b").is_empty(), "two circuits of a tandem");
    }
}
