//! Rule high-leg: the high leg has 208 V to neutral: no load of 120 V there.
//!
//! Source: NEC 110.15 and 408.3(E), from memory. That is a breaker of one pole on it, and one of two poles whose load uses the neutral: a
//! face with one, a shared neutral, a 120 V point. Example: a one-pole breaker in the second row of a high-leg panel; a range there.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::model::{Breaker, Configuration, Leg, Point, Service, Volts, legs_of};

pub(super) const RULE: Rule = Rule {
    code: "high-leg",
    severity: Severity::Danger,
    why: "208 V destroys what is made for 120 V and can set it on fire.",
    source: Source::Code(Sections::nec("110.15 and 408.3(E)", InCanada::Holds)),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in checked.breakers().filter(|(panel, _)| panel.service == Service::HighLeg) {
        let legs = legs_of(panel, &breaker.at);
        if legs.len() > 1 && legs.contains(&Leg::B) {
            let Some(what) = uses_the_neutral(checked, breaker) else { continue };
            found.breaker(
                breaker,
                format!("One of its poles is on the high leg, and {what}: between that pole and the neutral are 208 V."),
                "Leave it off and call an electrician: what is made for 120 V between a hot and the neutral is destroyed.",
            );
        }
        if legs == [Leg::B] {
            found.breaker(
                breaker,
                "One-pole breaker on the high leg: 208 V to neutral.".into(),
                "Leave it off and call an electrician. Which leg is the high one was taken from its usual place, the middle.",
            );
        }
    }
}

/// What shows that the neutral is used on a breaker of several poles.
fn uses_the_neutral(checked: &Checked<'_>, breaker: &Breaker) -> Option<String> {
    if checked.home.panels().shared_neutral_of(&breaker.id).is_some() {
        return Some("its poles share a neutral".into());
    }
    let uses = |point: &Point| point.volts == Volts::new(120) || point.configuration.is_some_and(Configuration::has_neutral);
    checked.points_on(&breaker.id).find(|point| uses(point)).map(|point| format!("{} uses the neutral", point.name))
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_for_one_pole_in_the_middle_row_of_a_high_leg_panel_only() {
        let card = "1 20 a\n3 20 b\n5 20 c\n2-4 30/2 d";
        let high = format!("panel 12 three-phase\nwith main {{\"service\": \"high_leg\"}}\n{card}");
        assert_eq!(said("high-leg", &high), ["3: One-pole breaker on the high leg: 208 V to neutral."]);
        assert!(said("high-leg", &format!("panel 12 three-phase\n{card}")).is_empty());
    }

    #[test]
    fn fires_for_two_poles_where_the_neutral_is_used() {
        let house = |at: &str, face: &str| {
            let point = format!("room Hall\npoint Hall receptacle range\nrange is 240 V, face {face}\nproof range {at}");
            said("high-leg", &format!("panel 12\nmain is high-leg\n{at} 50/2 range\n{point}"))
        };
        assert_eq!(
            house("1-3", "14-50"),
            [
                "1-3: One of its poles is on the high leg, and range uses the neutral: between that pole and the neutral are 208 V."
            ]
        );
        assert!(house("1-3", "6-50").is_empty(), "two hots and no neutral");
        assert!(house("5-7", "14-50").is_empty(), "legs C and A");
        assert_eq!(said("high-leg", "panel 12\nmain is high-leg\n1-3 20/2 a\nshare 1-3").len(), 1);
    }
}
