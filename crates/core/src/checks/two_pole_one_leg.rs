//! Rule two-pole-one-leg: the poles of a two- or three-pole breaker are on different legs.
//!
//! Source: common practice, no published source. By the numbering this cannot be; a reading shows it. Example:
//! a two-pole at 1-3 in an interior whose first two rows are one leg.

use super::Found;
use super::{Checked, FOR_QUALIFIED, Rule, Severity, Source};
use crate::logbook::{BreakerMoved, Fact};
use crate::model::{legs_of, volts_between};
use crate::panel::places;

pub(super) const RULE: Rule = Rule {
    code: "two-pole-one-leg",
    severity: Severity::Fault,
    why: "There are 0 V between its poles: a 240 V load does not run, and a shared neutral carries the sum.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in checked.breakers().filter(|(panel, b)| b.poles() > 1 && panel.service.legs().len() > 1) {
        let legs = legs_of(panel, &breaker.at);
        let in_one_space = breaker.at.windows(2).any(|pair| pair[0].space == pair[1].space);
        if in_one_space || volts_between(panel.service, &legs).value() > 0 {
            continue;
        }
        let finding = found.breaker(
            breaker,
            format!("Two of its poles are on leg {:?}: 0 V between them.", legs[0]),
            format!("Have it moved to rows of different legs. {FOR_QUALIFIED}"),
        );
        if let Some(place) =
            places(checked.home, &breaker.id).into_iter().flatten().find(|p| p.why_not.is_none() && p.volts.value() > 120)
        {
            finding.mended_by(
                format!("It sits in {} now", place.number),
                vec![Fact::BreakerMoved(BreakerMoved { breaker: breaker.id.clone(), at: place.at })],
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    #[test]
    fn fires_where_a_reading_puts_both_poles_on_one_leg() {
        let odd = "panel 12\nread 3 1 0\n1-3 30/2 heater";
        assert_eq!(said("two-pole-one-leg", odd), ["1-3: Two of its poles are on leg A: 0 V between them."]);
        assert!(said("two-pole-one-leg", "panel 12\n1-3 30/2 heater\n2b-4a 20/2 slim pump").is_empty());
        assert!(said("two-pole-one-leg", "panel 12 three-phase\n1-3-5 30/3 heater").is_empty());
        assert!(said_when_mended("two-pole-one-leg", odd).is_empty());
    }
}
