//! Rule back-fed-main: a breaker that is fed from its terminals stays live when it is pulled off its clip: it is held by a fastener.
//!
//! Source: NEC 408.36(D), from memory. That is a main in the spaces, and the breaker that a generator feeds; a listed solar or battery
//! inverter's need not be. Example: a two-pole breaker used as main, without its hold-down kit.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source, placed_anew};
use crate::model::Breaker;

pub(super) const RULE: Rule = Rule {
    code: "back-fed-main",
    severity: Severity::Fault,
    why: "Pulled loose, a back-fed breaker has live terminals in the open.",
    source: Source::Code(Sections::nec("408.36(D)", InCanada::NotKnown("back-fed breakers without a fastener"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let back_fed = |b: &Breaker| b.details.back_fed_main || b.brings_in_a_generator();
    for (_, breaker) in checked.breakers().filter(|(_, b)| back_fed(b) && b.details.fastened == Some(false)) {
        let what = if breaker.details.back_fed_main { "Back-fed main" } else { "Breaker that a generator feeds" };
        found
            .breaker(
                breaker,
                format!("{what}, and only its clip holds it. Today's rule asks for a fastener that needs a tool."),
                format!("Have the hold-down kit that the panel's label names put in. {FOR_QUALIFIED}"),
            )
            .mended_by("It is fastened now", vec![placed_anew(breaker, |b| b.details.fastened = Some(true))]);
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    #[test]
    fn fires_for_a_loose_main_only() {
        let main = |fastened: &str| {
            format!("panel 12\n1-3 60/2 main\nset 1-3 {{\"details\": {{\"back_fed_main\": true, \"fastened\": {fastened}}}}}")
        };
        assert_eq!(said("back-fed-main", &main("false")).len(), 1);
        assert!(said("back-fed-main", &main("true")).is_empty());
        assert!(said("back-fed-main", &main("null")).is_empty(), "nobody has looked");
        let source =
            |what: &str| said("back-fed-main", &format!("panel 12\n2-4 30/2 inlet\n2-4 is brings in {what}, not fastened"));
        assert_eq!(source("portable generator").len(), 1);
        assert!(source("solar").is_empty(), "a listed inverter's need not be");
        assert!(said("back-fed-main", "panel 12\n1-3 60/2 range\nset 1-3 {\"details\": {\"fastened\": false}}").is_empty());
        assert!(said_when_mended("back-fed-main", &main("false")).is_empty());
    }
}
