//! Rule shared-neutral-one-leg: the hots of a shared neutral are on different legs.
//!
//! Source: NEC 210.4 and 100 (multiwire branch circuit), from memory. Example: a three-wire cable on breakers 10
//! and 14, both on leg A: the neutral carries the sum of both.

use super::Found;
use super::{Checked, FOR_QUALIFIED, Rule, Severity, Source, and};
use crate::logbook::{BreakerMoved, Fact};
use crate::model::{Breaker, Leg, Slot, legs_of};
use crate::panel::open_slots;

pub(super) const RULE: Rule = Rule {
    code: "shared-neutral-one-leg",
    severity: Severity::Danger,
    why: "The neutral carries the sum of both circuits and can burn without any breaker tripping.",
    source: Source::Nec("210.4"),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for group in checked.shared_neutrals() {
        let panel = checked.panel_of(group[0]);
        let legs: Vec<Leg> = group.iter().flat_map(|b| legs_of(panel, &b.at)).collect();
        let Some(double) = legs.iter().enumerate().find(|(n, leg)| legs[..*n].contains(leg)).map(|(_, leg)| *leg) else {
            continue;
        };
        let numbers: Vec<_> = group.iter().map(|b| checked.home.panels().number(&b.id)).collect();
        let total: f64 = group.iter().map(|b| b.amps.value() * b.poles() as f64).sum();
        let message = if group.len() == 1 {
            format!("The poles of {} share a neutral and are both on leg {double:?}: it can carry {total} A.", numbers[0])
        } else {
            format!("{} share a neutral and are both on leg {double:?}: the neutral can carry {total} A.", and(&numbers))
        };
        let finding = found.breaker(
            group[0],
            message,
            format!(
                "Leave one of them off until it is mended. Have one moved to a neighboring row, onto the other leg, with a tie \
                 between them. {FOR_QUALIFIED}"
            ),
        );
        if let [one, other] = group.as_slice()
            && let Some((moved, slot, leg)) = other_leg(checked, one, legs[1]).or_else(|| other_leg(checked, other, legs[0]))
        {
            finding.mended_by(
                format!("Breaker {} sits in {slot} now, on leg {leg:?}", checked.home.panels().number(&moved.id)),
                vec![Fact::BreakerMoved(BreakerMoved { breaker: moved.id.clone(), at: vec![slot] })],
            );
        }
    }
}

/// The open place nearest to where the breaker sits, on another leg than the one given.
fn other_leg<'a>(checked: &Checked<'_>, breaker: &'a Breaker, than: Leg) -> Option<(&'a Breaker, Slot, Leg)> {
    let here = breaker.at.first()?;
    let open = open_slots(checked.home, breaker, here.half).into_iter().filter(|(_, leg)| *leg != than);
    open.min_by_key(|(slot, _)| slot.space.abs_diff(here.space)).map(|(slot, leg)| (breaker, slot, leg))
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    #[test]
    fn fires_on_one_leg_and_stays_silent_on_two() {
        let one_leg = "panel 24\n10 20 a\n14 20 b\nshare 10 14";
        assert_eq!(
            said("shared-neutral-one-leg", one_leg),
            ["10: 10 and 14 share a neutral and are both on leg A: the neutral can carry 40 A."]
        );
        assert!(said("shared-neutral-one-leg", "panel 24\n10 20 a\n12 20 b\nshare 10 12").is_empty());
        assert!(said("shared-neutral-one-leg", "panel 24\n10 20 a\n14 20 b").is_empty());
        assert!(said_when_mended("shared-neutral-one-leg", one_leg).is_empty());
    }

    #[test]
    fn the_two_circuits_of_a_tandem_never_share_one() {
        assert_eq!(said("shared-neutral-one-leg", "panel 24\n4a 15 a\n4b 15 b\nshare 4a 4b").len(), 1);
        assert!(said("shared-neutral-one-leg", "panel 24\n4b 15 a\n6a 15 b\nshare 4b 6a").is_empty());
    }

    #[test]
    fn a_reading_that_overrides_the_numbering_counts() {
        assert_eq!(said("shared-neutral-one-leg", "panel 24\nread 3 1 0\n1-3 20/2 a\nshare 1-3").len(), 1);
    }
}
