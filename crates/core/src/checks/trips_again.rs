//! Rule trips-again: a breaker was found tripped three times within thirty days.
//!
//! Source: common practice: a breaker that keeps tripping has a reason, and resetting it again wears it and hides the reason. Example: the
//! third trip of 24 in a month. It is gone when the last of three lies more than thirty days after the first.

use super::Found;
use super::{Checked, Rule, Severity, Source};

pub(super) const RULE: Rule = Rule {
    code: "trips-again",
    severity: Severity::Fault,
    why: "A breaker that keeps tripping has a reason: too much on it, a broken cord, a joint that burns. Resetting it hides it.",
    source: Source::Practice,
    check,
};

/// So many times within so many milliseconds. Judgement.
const OFTEN: usize = 3;
const WITHIN_MS: i64 = 30 * 24 * 60 * 60 * 1000;

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers() {
        let times = checked.home.trips_of(&breaker.id);
        let Some(last) = times.last() else { continue };
        let recent = times.iter().filter(|at| last.unix_ms() - at.unix_ms() <= WITHIN_MS).count();
        if recent >= OFTEN {
            found.breaker(
                breaker,
                format!("It was found tripped {recent} times within 30 days."),
                "Reset it no more before the reason is found: say in Trips what ran. Too much on it: move a load or give it a circuit \
                 of its own. Nothing ran: an electrician.",
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn the_third_trip_in_a_month_is_told() {
        let trips = |n: usize| -> String { (0..n).map(|n| format!("trouble t{n} 1\nover t{n}\n")).collect() };
        let house = |n: usize| said("trips-again", &format!("panel 12\n1 20 a\n3 20 b\n{}", trips(n)));
        assert!(house(2).is_empty());
        assert_eq!(house(3), ["1: It was found tripped 3 times within 30 days."]);
    }
}
