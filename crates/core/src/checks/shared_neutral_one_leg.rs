//! Rule shared-neutral-one-leg: the hots of a shared neutral are on different legs.
//!
//! Source: NEC 210.4 and 100 (multiwire branch circuit), from memory. Example: a three-wire cable on breakers 10
//! and 14, both on leg A: the neutral carries the sum of both.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source, and};
use crate::logbook::{BreakerMoved, Fact};
use crate::model::{Breaker, Leg, Slot, legs_of};
use crate::panel::open_slots;

pub(super) const RULE: Rule = Rule {
    code: "shared-neutral-one-leg",
    severity: Severity::Danger,
    why: "The neutral carries the sum of both circuits and can burn without any breaker tripping.",
    source: Source::Code(Sections::nec("210.4", InCanada::Holds)),
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
            && let Some((moved, slot, leg)) = beside(checked, one, other).or_else(|| beside(checked, other, one))
        {
            finding.mended_by(
                format!("Breaker {} sits in {slot} now, on leg {leg:?}", checked.home.panels().number(&moved.id)),
                vec![Fact::BreakerMoved(BreakerMoved { breaker: moved.id.clone(), at: vec![slot] })],
            );
        }
    }
}

/// An open place for the one breaker where a tie reaches the other, on another leg.
fn beside<'a>(checked: &Checked<'_>, one: &'a Breaker, other: &Breaker) -> Option<(&'a Breaker, Slot, Leg)> {
    let panel = checked.panel_of(other);
    let [leg_of_other] = legs_of(panel, &other.at)[..] else { return None };
    let half = one.at.first()?.half;
    open_slots(checked.home, one, half).into_iter().find_map(|(slot, leg)| {
        let mut moved = checked.home.home().clone();
        let to = BreakerMoved { breaker: one.id.clone(), at: vec![slot] };
        moved.suppose(&to.into()).ok()?;
        let tied = moved.panels().joined(&one.id, &other.id).is_ok();
        (tied && leg != leg_of_other).then_some((one, slot, leg))
    })
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

    #[test]
    fn what_is_proposed_is_where_a_tie_reaches_or_nothing_is() {
        let proposed = |acts: &str| {
            let home = crate::fixture::written(acts).home;
            let found = crate::checks::findings(&home).iter().find(|f| f.code == "shared-neutral-one-leg").cloned().unwrap();
            found.mend.map(|mend| mend.words)
        };
        assert_eq!(proposed("panel 24\n10 20 a\n14 20 b\nshare 10 14").as_deref(), Some("Breaker 10 sits in 12 now, on leg B"));
        // 12 is taken, and 8 and 16 would do; everything nearer than a tie reaches is full.
        assert_eq!(
            proposed("panel 24\n10 20 a\n12 15 c\n14 20 b\nshare 10 14").as_deref(),
            Some("Breaker 10 sits in 16 now, on leg B")
        );
        assert_eq!(proposed("panel 24\n8 15 d\n10 20 a\n12 15 c\n14 20 b\n16 15 e\nshare 10 14"), None);
    }
}
