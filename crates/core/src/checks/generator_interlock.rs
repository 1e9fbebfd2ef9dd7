//! Rule generator-interlock: a generator and the main are never on together.
//!
//! Source: NEC 702.5, from memory. Where nobody has looked for an interlock it is asked for. Example: a 30 A breaker that an inlet
//! outside feeds, without a slide between it and the main.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source, placed_anew};

pub(super) const RULE: Rule = Rule {
    code: "generator-interlock",
    severity: Severity::Danger,
    why: "It feeds the street: it can kill whoever repairs the line, and is destroyed when the power returns.",
    source: Source::Code(Sections::nec("702.5", InCanada::Perhaps("14-612"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers().filter(|(_, breaker)| breaker.brings_in_a_generator()) {
        let interlocked = vec![placed_anew(breaker, |b| b.details.interlocked = Some(true))];
        match breaker.details.interlocked {
            Some(true) => {}
            Some(false) => found
                .breaker(
                    breaker,
                    "A generator feeds the panel through it, and nothing keeps it and the main from being on together.".into(),
                    "Plug no generator in. Have an interlock that is listed for this panel, or a transfer switch, put in by an \
                     electrician.",
                )
                .mended_by("An interlock is in now", interlocked),
            None => {
                let finding = found.breaker(
                    breaker,
                    "A generator feeds the panel through it. Whether an interlock keeps it and the main from being on together is \
                     not recorded."
                        .into(),
                    "Look before the generator is next plugged in: with an interlock, one of the two handles cannot move while the \
                     other is on.",
                );
                finding.severity = Severity::Note;
                finding.mended_by("There is an interlock", interlocked);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{Severity, findings, said_when_mended};
    use crate::fixture::written;

    fn of(more: &str) -> Vec<Severity> {
        let home = written(&format!("panel 12\n2-4 30/2 inlet\n2-4 is {more}")).home;
        findings(&home).iter().filter(|f| f.code == "generator-interlock").map(|f| f.severity).collect()
    }

    #[test]
    fn fires_without_an_interlock_and_asks_where_nobody_looked() {
        assert_eq!(of("brings in portable generator, not interlocked"), [Severity::Danger]);
        assert_eq!(of("brings in standby generator"), [Severity::Note]);
        assert!(of("brings in portable generator, interlocked").is_empty());
        assert!(of("brings in solar, not interlocked").is_empty());
        assert!(of("10 kA").is_empty());
        let open = "panel 12\n2-4 30/2 inlet\n2-4 is brings in portable generator, not interlocked";
        assert!(said_when_mended("generator-interlock", open).is_empty());
    }
}
