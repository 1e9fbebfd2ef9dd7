//! Rule directory-doubled: two breakers with the same words cannot be told apart.
//!
//! Source: NEC 408.4(A), from memory. Example: 1 and 3 both say "kitchen".

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::model::Breaker;
use std::collections::BTreeMap;

pub(super) const RULE: Rule = Rule {
    code: "directory-doubled",
    severity: Severity::Note,
    why: "Whoever has to switch one off in a hurry switches off the other.",
    source: Source::Code(Sections::nec("408.4(A)", InCanada::Perhaps("2-100"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all() {
        let mut by_words: BTreeMap<String, Vec<&Breaker>> = BTreeMap::new();
        for breaker in checked.home.panels().breakers_of(&panel.id) {
            if let Some(claim) = &breaker.claim {
                by_words.entry(claim.to_lowercase()).or_default().push(breaker);
            }
        }
        for breakers in by_words.values().filter(|breakers| breakers.len() > 1) {
            let numbers: Vec<_> = breakers.iter().map(|b| checked.home.panels().number(&b.id)).collect();
            let words = breakers[0].claim.as_deref().unwrap_or_default();
            let message = format!("Old card: {} all say “{words}”.", super::and(&numbers))
                .replace(" all say", if numbers.len() == 2 { " both say" } else { " all say" });
            found.breaker(breakers[0], message, "Trace them; the new card says what each one feeds.");
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_once_for_each_wording_that_several_breakers_have() {
        let said_of = said("directory-doubled", "panel 12\n1 20 Kitchen\n3 20 kitchen\n5 15 Hall\n7 20 KITCHEN");
        assert_eq!(said_of, ["1: Old card: 1, 3 and 7 all say “Kitchen”."]);
        assert!(said("directory-doubled", "panel 12\n1 20 Kitchen north\n3 20 Kitchen south\n5 20\n7 20").is_empty());
        let two_panels = "panel 12\n1-3 30/2 shed\nsub Shed 4 1-3\n5 15 Fan\nshed: 1 15 Fan";
        assert!(said("directory-doubled", two_panels).is_empty(), "each panel has a card of its own");
    }
}
