//! Rule back-fed-main: a main that is fed through its clip stays live on the clip's side when it is pulled.
//!
//! Source: NEC 408.36(D), from memory. Example: a two-pole breaker used as main, without its hold-down kit.

use super::Found;
use super::{Checked, FOR_QUALIFIED, Rule, Severity, Source, placed_anew};

pub(super) const RULE: Rule = Rule {
    code: "back-fed-main",
    severity: Severity::Fault,
    why: "Pulled loose, a back-fed breaker has live terminals in the open.",
    source: Source::Nec("408.36(D)"),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers().filter(|(_, b)| b.details.back_fed_main && b.details.fastened == Some(false)) {
        found
            .breaker(
                breaker,
                "Back-fed main that only its clip holds. Today's rule asks for a fastener that needs a tool.".into(),
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
        assert!(said("back-fed-main", "panel 12\n1-3 60/2 range\nset 1-3 {\"details\": {\"fastened\": false}}").is_empty());
        assert!(said_when_mended("back-fed-main", &main("false")).is_empty());
    }
}
