//! Rule breaker-by-volts: volts at a breaker with its load on say that it is bad, or that what feeds it is.
//!
//! Source: common practice: with 5 A or more flowing a breaker loses less than 0.1 V, above 0.2 V it is bad; the bus keeps within its band.
//! Example: 121 V on the bus and 62 V on the breaker's terminal with the load on.

use super::Found;
use super::{Checked, Rule, Severity, Source};
use crate::loads::{BreakerState, diagnose_breaker};

pub(super) const RULE: Rule = Rule {
    code: "breaker-by-volts",
    severity: Severity::Danger,
    why: "A contact that loses volts gets hot, in the breaker or where it sits on the bus.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers() {
        let Some(said) = diagnose_breaker(checked.home, breaker) else { continue };
        let severity = match said.state {
            BreakerState::Bad | BreakerState::Upstream => Severity::Danger,
            BreakerState::Watch => Severity::Note,
            BreakerState::Open | BreakerState::Good | BreakerState::Behind => continue,
        };
        found.breaker(breaker, said.words, said.next).severity = severity;
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{Severity, findings};
    use crate::fixture::written;

    fn of(acts: &str) -> Vec<(Severity, String)> {
        let home = written(&format!("panel 12\n1 20 a\n3-5 30/2 b\n{acts}")).home;
        let ours = findings(&home).iter().filter(|finding| finding.code == "breaker-by-volts");
        ours.map(|finding| (finding.severity, finding.message.clone())).collect()
    }

    /// Common practice: bus right and output far off, say 62 V: suspect the breaker; bus low, too: upstream; less than 0.1 V across it
    /// with 5 A or more: good.
    #[test]
    fn the_breaker_or_what_feeds_it() {
        let bad = of(r#"breaker-volts 1 {"bus": 121, "output": 62}"#);
        let words = "The bus reads 121 V and the breaker's terminal 62 V with it on: the breaker loses the rest.";
        assert_eq!(bad, [(Severity::Danger, words.to_owned())]);
        let upstream = of(r#"breaker-volts 1 {"bus": 108, "output": 60}"#);
        assert!(upstream[0].1.contains("so it is not this breaker"), "{upstream:?}");
        assert_eq!(of(r#"breaker-volts 3-5 {"bus": 226}"#).len(), 1, "below 228 V");
        assert_eq!(of(r#"breaker-volts 1 {"bus": 139, "output": 139}"#).len(), 1, "a lost neutral makes one leg high");
        assert_eq!(of(r#"breaker-volts 1 {"across": 0.31, "amps": 8}"#)[0].0, Severity::Danger);
        assert_eq!(of(r#"breaker-volts 1 {"across": 0.15, "amps": 8}"#)[0].0, Severity::Note);
        for fine in [
            r#"breaker-volts 1 {"across": 0.05, "amps": 8}"#,
            r#"breaker-volts 1 {"across": 0.15, "amps": 1}"#,
            r#"breaker-volts 1 {"bus": 121, "output": 120}"#,
            r#"breaker-volts 3-5 {"bus": 240, "output": 239}"#,
        ] {
            assert!(of(fine).is_empty(), "{fine}: {:?}", of(fine));
        }
    }
}
