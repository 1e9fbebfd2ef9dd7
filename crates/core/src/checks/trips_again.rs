//! Rule trips-again: a breaker or a GFCI was found tripped three times within thirty days.
//!
//! Source: common practice: what keeps tripping has a reason, and resetting it again hides the reason. Example: the third trip of 24 in a
//! month, the bath's GFCI every other week. It is gone when the last of three lies more than thirty days after the first.

use super::{Checked, FindingPlace, Found, Rule, Severity, Source};
use crate::model::Moment;

pub(super) const RULE: Rule = Rule {
    code: "trips-again",
    severity: Severity::Fault,
    why: "What keeps tripping has a reason: too much on it, a broken cord, damp, a joint that burns. Resetting it hides it.",
    source: Source::Practice,
    check,
};

/// So many times within so many milliseconds. Judgement.
const OFTEN: usize = 3;
const WITHIN_MS: i64 = 30 * 24 * 60 * 60 * 1000;

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers() {
        if let Some(recent) = often(&checked.home.trips_of(&breaker.id)) {
            found.breaker(
                breaker,
                format!("It was found tripped {recent} times within 30 days."),
                "Reset it no more before the reason is found: say in Trips what ran. Too much on it: move a load or give it a circuit \
                 of its own. Nothing ran: an electrician.",
            );
        }
    }
    for point in checked.home.house().points() {
        if let Some(recent) = often(&checked.home.trips_of_gfci(&point.id)) {
            let place = FindingPlace { point: Some(point.id.clone()), room: Some(point.room.clone()), ..FindingPlace::default() };
            found.add(
                point.id.as_str(),
                checked.home.house().place(&point.id),
                place,
                format!("Its GFCI was found tripped {recent} times within 30 days."),
                "Current leaves the circuit behind it. Unplug what it feeds and try one thing at a time; damp and worn cords are the \
                 usual reasons. It trips with nothing plugged in: leave it tripped and call an electrician."
                    .into(),
            );
        }
    }
}

/// How many times lately, where that is often.
fn often(times: &[Moment]) -> Option<usize> {
    let last = times.last()?;
    let recent = times.iter().filter(|at| last.unix_ms() - at.unix_ms() <= WITHIN_MS).count();
    (recent >= OFTEN).then_some(recent)
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

    #[test]
    fn a_gfci_counts_where_it_was_tripped_and_not_where_it_was_only_pressed() {
        let tried = |saw: &str| -> String {
            (0..3).map(|n| format!("trouble t{n} wall\nlooked t{n} gfci mirror {saw}\nover t{n}\n")).collect()
        };
        let house = |saw: &str| {
            let bath = "panel 12\n1 20 bath\nroom Bath\npoint Bath gfci mirror\npoint Bath receptacle wall";
            said("trips-again", &format!("{bath}\n{}", tried(saw)))
        };
        assert_eq!(house("reset_works"), ["Bath, mirror: Its GFCI was found tripped 3 times within 30 days."]);
        assert!(house("ok_live").is_empty());
    }
}
