//! Rule breaker-type: only breakers of a type that the panel's label names belong in it.
//!
//! Source: NEC 110.3(B), from memory; that it is the most common real violation is common practice.
//! Example: the label names `KB` and `KB-T`, the breaker is an `HX`.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};

pub(super) const RULE: Rule = Rule {
    code: "breaker-type",
    severity: Severity::Fault,
    why: "A breaker that seems to fit may grip the bus badly, run hot or not trip.",
    source: Source::Code(Sections::nec("110.3(B)", InCanada::Holds)),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in checked.breakers() {
        let kind = breaker.details.type_name.trim();
        let types = &panel.details.types;
        if kind.is_empty() || types.is_empty() || types.iter().any(|named| named.trim().eq_ignore_ascii_case(kind)) {
            continue;
        }
        found.breaker(
            breaker,
            format!("Breaker of type {kind}; the panel's label names {}.", super::and(types)),
            format!("Read both labels again. If it is so, have it replaced by a type that the label names. {FOR_QUALIFIED}"),
        );
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_for_a_type_the_label_does_not_name() {
        let typed = |kind: &str, types: &str| {
            said(
                "breaker-type",
                &format!(
                    "panel 12\nwith main {{\"details\": {{\"types\": {types}}}}}\n1 20 attic\nset 1 {{\"details\": {{\"type_name\": \"{kind}\"}}}}"
                ),
            )
        };
        assert_eq!(typed("HX", r#"["KB", "KB-T"]"#), ["1: Breaker of type HX; the panel's label names KB and KB-T."]);
        assert!(typed("kb", r#"["KB", "KB-T"]"#).is_empty());
        assert!(typed("HX", "[]").is_empty(), "the label was not read");
        assert!(typed("", r#"["KB"]"#).is_empty(), "the breaker was not read");
    }
}
