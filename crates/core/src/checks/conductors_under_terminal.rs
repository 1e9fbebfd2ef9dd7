//! Rule conductors-under-terminal: one conductor under a terminal unless it is marked for two, and then of
//! the same size and metal.
//!
//! Source: NEC 110.14(A), from memory. Example: two hots under a breaker's screw that is not marked for two.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source, placed_anew};

pub(super) const RULE: Rule = Rule {
    code: "conductors-under-terminal",
    severity: Severity::Fault,
    why: "The smaller or softer conductor is not clamped; a loose one burns.",
    source: Source::Code(Sections::nec("110.14(A)", InCanada::Holds)),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers() {
        let terminal = breaker.details.terminal;
        let Some(under) = terminal.under else { continue };
        let message = match terminal.listed {
            None if under > 1 => {
                format!("{under} conductors under a terminal whose marking was not read: one, unless marked for more.")
            }
            Some(listed) if under > listed => format!("{under} conductors under a terminal that is marked for {listed}."),
            _ if under > 1 && terminal.alike == Some(false) => {
                "Conductors of two sizes or metals under one terminal; it wants the same size and metal.".into()
            }
            _ => continue,
        };
        let one = vec![placed_anew(breaker, |b| b.details.terminal.under = Some(1))];
        found
            .breaker(breaker, message, format!("Have them joined with a splice and one pigtail to the breaker. {FOR_QUALIFIED}"))
            .mended_by("One pigtail is under the terminal now", one);
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    #[test]
    fn fires_above_the_listing_and_for_unlike_conductors() {
        let acts = |terminal: &str| format!("panel 12\n1 20 attic\nset 1 {{\"details\": {{\"terminal\": {terminal}}}}}");
        let with = |terminal: &str| said("conductors-under-terminal", &acts(terminal));
        assert_eq!(with(r#"{"under": 2, "listed": 1}"#), ["1: 2 conductors under a terminal that is marked for 1."]);
        assert_eq!(with(r#"{"under": 2}"#).len(), 1, "without a marking one");
        assert_eq!(with(r#"{"under": 2, "listed": 2, "alike": false}"#).len(), 1);
        assert!(with(r#"{"under": 2, "listed": 2, "alike": true}"#).is_empty());
        assert!(with(r#"{"under": 1, "listed": 2, "alike": false}"#).is_empty());
        assert!(with("{}").is_empty());
        assert!(said_when_mended("conductors-under-terminal", &acts(r#"{"under": 3, "listed": 2}"#)).is_empty());
    }
}
