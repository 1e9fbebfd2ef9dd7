//! Rule shared-neutral-disconnect: the circuits of one shared neutral open together, by a tie or a two-pole
//! breaker.
//!
//! Source: NEC 210.4(B), from memory; older work was allowed without. Example: a three-wire cable on breakers 1
//! and 3 without a tie.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source, and};
use crate::logbook::{BreakersJoined, Fact};
use crate::model::{Tie, legs_of, volts_between};

pub(super) const RULE: Rule = Rule {
    code: "shared-neutral-disconnect",
    severity: Severity::Fault,
    why: "With one breaker off, the neutral still carries the other circuit: it becomes live when it is lifted.",
    source: Source::Code(Sections::nec(
        "210.4(B)",
        InCanada::NotKnown("whether the circuits of a shared neutral must open together"),
    )),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for group in checked.shared_neutrals().filter(|group| group.len() > 1) {
        let numbers: Vec<_> = group.iter().map(|b| checked.home.panels().number(&b.id)).collect();
        let finding = found.breaker(
            group[0],
            format!("{} share a neutral and can be switched off one by one. Today's rule wants one common disconnect.", and(&numbers)),
            format!(
                "Switch off both before any work on either. Have a listed handle tie or a two-pole breaker put in, on neighboring \
                 rows. {FOR_QUALIFIED}"
            ),
        );
        let panel = checked.panel_of(group[0]);
        if let [one, other] = group.as_slice() {
            let joined = checked.home.panels().joined(&one.id, &other.id);
            if joined.is_ok_and(|at| volts_between(panel.service, &legs_of(panel, &at)).value() > 120) {
                finding.mended_by(
                    "Their handles are tied now",
                    vec![Fact::BreakersJoined(BreakersJoined {
                        breaker: one.id.clone(),
                        with: other.id.clone(),
                        tie: Tie::Handle,
                    })],
                );
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    #[test]
    fn fires_for_two_handles_and_not_for_one() {
        let pair = "panel 12\n1 20 a\n3 20 b\nshare 1 3";
        assert_eq!(said("shared-neutral-disconnect", pair).len(), 1);
        assert!(said("shared-neutral-disconnect", &format!("{pair}\njoin 1 3")).is_empty());
        assert!(said("shared-neutral-disconnect", "panel 12\n1-3 20/2 a\nshare 1-3").is_empty());
        assert!(said("shared-neutral-disconnect", "panel 12\n1 20 a\n3 20 b").is_empty());
        assert!(said_when_mended("shared-neutral-disconnect", pair).is_empty());
    }

    #[test]
    fn across_two_tandems_the_neighboring_halves_may_be_tied() {
        let across = |one: &str, other: &str| {
            let acts = format!("panel 12\n2a 15 a\n2b 15 b\n4a 15 c\n4b 15 d\nshare {one} {other}");
            let home = crate::fixture::written(&acts).home;
            crate::checks::findings(&home).iter().find(|f| f.code == "shared-neutral-disconnect").unwrap().mend.is_some()
        };
        assert!(across("2b", "4a"));
        assert!(!across("2a", "4a"), "no tie is made for these");
        assert!(!across("2a", "2b"), "one leg");
    }
}
