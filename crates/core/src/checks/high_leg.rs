//! Rule high-leg: a one-pole breaker on the high leg gives 208 V to neutral: no 120 V load there.
//!
//! Source: NEC 110.15 and 408.3(E), from memory. Example: a one-pole breaker in the second row of a high-leg
//! panel.

use super::Found;
use super::{Checked, Rule, Severity, Source};
use crate::model::{Leg, Service, legs_of};

pub(super) const RULE: Rule = Rule {
    code: "high-leg",
    severity: Severity::Danger,
    why: "208 V destroys what is made for 120 V and can set it on fire.",
    source: Source::Nec("110.15 and 408.3(E)"),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in checked.breakers().filter(|(panel, _)| panel.service == Service::HighLeg) {
        if legs_of(panel, &breaker.at) == [Leg::B] {
            found.breaker(
                breaker,
                "One-pole breaker on the high leg: 208 V to neutral.".into(),
                "Leave it off and call an electrician. Which leg is the high one was taken from its usual place, the middle.",
            );
        }
    }
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
}
