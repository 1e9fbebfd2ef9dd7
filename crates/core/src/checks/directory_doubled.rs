//! Rule directory-doubled: two breakers with the same words cannot be told apart.
//!
//! Source: NEC 408.4(A), from memory. Example: 1 and 3 both say "kitchen".

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::model::Breaker;
use crate::wording::wording;
use std::collections::BTreeMap;

pub(super) const RULE: Rule = Rule {
    code: "directory-doubled",
    severity: Severity::Note,
    why: "Whoever has to switch one off in a hurry switches off the other.",
    source: Source::Code(Sections::nec("408.4(A)", InCanada::Perhaps("2-100"))),
    check,
};

/// Words that several circuits may have: nothing is behind them.
const PLAIN: &[&str] = &["spare", "unused", "unknown", "not used", "empty", "space"];

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
        // Words worked out always differ; own words may say what stands elsewhere already.
        let mut on_card: BTreeMap<String, Vec<&Breaker>> = BTreeMap::new();
        for breaker in checked.home.panels().breakers_of(&panel.id) {
            let own = breaker.own.as_ref().map(|own| own.text.clone());
            let words = own.unwrap_or_else(|| wording(checked.home, &breaker.id)).to_lowercase();
            if !words.is_empty() && !PLAIN.contains(&words.as_str()) {
                on_card.entry(words).or_default().push(breaker);
            }
        }
        for breakers in on_card.values().filter(|breakers| breakers.len() > 1) {
            let Some(worded) = breakers.iter().find(|breaker| breaker.own.is_some()) else { continue };
            let numbers: Vec<_> = breakers.iter().map(|b| checked.home.panels().number(&b.id)).collect();
            let words = worded.own.as_ref().map_or("", |own| own.text.as_str());
            found.own_words(
                worded,
                format!("On the card {} say the same: “{words}”.", super::and(&numbers)),
                "Write on the Directory screen where each of them is, or take the words that are worked out.",
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn own_words_may_not_say_what_another_line_says() {
        let acts = "panel 12\n1 20 a\n3 20 b\n5 20 c\n7 20 d\nroom Hall\npoint Hall receptacle door\nproof door 3";
        let said_of = |own: &str| said("directory-doubled", &format!("{acts}\n{own}"));
        assert_eq!(said_of("own 1 Hall: Receptacle").len(), 1, "3 says so, worked out");
        assert_eq!(said_of("own 1 Shed\nown 5 shed").len(), 1);
        assert!(said_of("own 1 Shed\nown 5 Shed, north\nown 7 Spare").is_empty());
    }

    #[test]
    fn fires_once_for_each_wording_that_several_breakers_have() {
        let said_of = said("directory-doubled", "panel 12\n1 20 Kitchen\n3 20 kitchen\n5 15 Hall\n7 20 KITCHEN");
        assert_eq!(said_of, ["1: Old card: 1, 3 and 7 all say “Kitchen”."]);
        assert!(said("directory-doubled", "panel 12\n1 20 Kitchen north\n3 20 Kitchen south\n5 20\n7 20").is_empty());
        let two_panels = "panel 12\n1-3 30/2 shed\nsub Shed 4 1-3\n5 15 Fan\nshed: 1 15 Fan";
        assert!(said("directory-doubled", two_panels).is_empty(), "each panel has a card of its own");
    }
}
