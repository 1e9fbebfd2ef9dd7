//! Rule volts-too-high: a meter showed more volts at a point than a service may have.
//!
//! Source: common practice; the limit is what ANSI C84.1, from memory, allows at most, and two percent for the meter.
//! Example: 148 V at a 120 V receptacle. It is gone when the same point reads right.

use super::Found;
use super::{Checked, FindingPlace, Rule, Severity, Source};
use crate::trace::too_much_read;

pub(super) const RULE: Rule = Rule {
    code: "volts-too-high",
    severity: Severity::Danger,
    why: "Where the neutral is lost, one leg goes high and the other low, with the load: things burn out and wires burn.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for metered in too_much_read(checked.home) {
        let Some(point) = checked.home.house().point(&metered.point) else { continue };
        let place = FindingPlace { point: Some(point.id.clone()), ..FindingPlace::default() };
        found.add(
            point.id.as_str(),
            point.name.clone(),
            place,
            format!("A meter showed {} V at {}, which is a {} V point.", metered.volts, point.name, point.volts.value()),
            "Turn the main off now, unplug what is plugged in, and call an electrician, or the utility if lamps are bright in one \
             part of the house and dim in another. Mistyped? Read it again."
                .into(),
        );
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_for_the_last_reading_only() {
        let house = "panel 12\n1 20 a\nroom Hall\npoint Hall receptacle wall\nvolts wall ";
        assert_eq!(
            said("volts-too-high", &format!("{house}148")),
            ["wall: A meter showed 148 V at wall, which is a 120 V point."]
        );
        assert!(said("volts-too-high", &format!("{house}148\nvolts wall 121")).is_empty());
        assert!(said("volts-too-high", &format!("{house}121")).is_empty());
        assert!(said("volts-too-high", &format!("{house}12")).is_empty(), "too little is another matter");
    }
}
