//! Rule directory-missing: every circuit has its purpose on the card; “unknown” is honest and not enough.
//!
//! Source: NEC 408.4(A), from memory. Example: a breaker without a word, on which nothing is proven yet.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};

pub(super) const RULE: Rule = Rule {
    code: "directory-missing",
    severity: Severity::Note,
    why: "Nobody knows what goes dark, or what stays live.",
    source: Source::Code(Sections::nec("408.4(A)", InCanada::Perhaps("2-100"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all() {
        let unnamed: Vec<_> = checked
            .home
            .panels()
            .breakers_of(&panel.id)
            .filter(|b| b.claim.is_none() && !b.details.back_fed_main && !checked.is_feeder(b))
            .filter(|b| checked.points_on(&b.id).next().is_none())
            .map(|b| checked.home.panels().number(&b.id))
            .collect();
        if !unnamed.is_empty() {
            let verb = if unnamed.len() == 1 { "has" } else { "have" };
            found.panel(
                panel,
                format!("{} {verb} no words on the card, and nothing is proven there.", super::and(&unnamed)),
                "Trace them; a breaker that feeds nothing is marked as a spare.",
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_for_breakers_without_words_on_which_nothing_is_proven() {
        let card = "panel 12\n1 20 Kitchen\n3 20\n5 15\n2-4 30/2 > shed";
        assert_eq!(
            said("directory-missing", card),
            ["Main panel: 3 and 5 have no words on the card, and nothing is proven there."]
        );
        let traced = format!("{card}\nroom Hall\npoint Hall light lamp\nproof lamp 3");
        assert_eq!(said("directory-missing", &traced).len(), 1);
        assert!(said("directory-missing", &traced)[0].starts_with("Main panel: 5 has no words"));
        assert!(said("directory-missing", "panel 12\n1 20 Kitchen").is_empty());
    }
}
