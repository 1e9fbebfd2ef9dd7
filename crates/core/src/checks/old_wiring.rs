//! Rule old-wiring: aluminum branch wiring, cloth and knob-and-tube are for an electrician.
//!
//! Source: common practice, no published source. Aluminum feeders and large circuits are ordinary; 12 and
//! 10 AWG aluminum branch wiring is of about 1965 to 1973. Example: a 15 A circuit on 12 AWG aluminum.

use super::Found;
use super::{Checked, Rule, Severity, Source};
use crate::model::{Cable, Metal, WireGauge};

pub(super) const RULE: Rule = Rule {
    code: "old-wiring",
    severity: Severity::Fault,
    why: "Its joints loosen and heat, or its insulation crumbles when it is moved.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers() {
        let Some(wire) = breaker.wire else { continue };
        let what = match (wire.cable, wire.metal) {
            (Cable::KnobAndTube, _) => "Knob-and-tube wiring.",
            (Cable::Cloth, _) => "Old rubber and cloth insulation.",
            (_, Metal::Aluminum) if wire.gauge <= WireGauge::Awg10 => "Small aluminum branch wiring.",
            _ => continue,
        };
        found.breaker(
            breaker,
            what.into(),
            "Do not disturb its joints: stop here and call an electrician for any work on it. Heat or a smell: leave it off.",
        );
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_for_small_aluminum_cloth_and_knob_and_tube() {
        let cable = |cable: &str| {
            said("old-wiring", &format!("panel 12\n1 15 a\nset 1 {{\"wire\": {{\"gauge\": \"14\", \"cable\": \"{cable}\"}}}}"))
                .len()
        };
        assert_eq!((cable("cloth"), cable("knob_and_tube"), cable("nm"), cable("not_read")), (1, 1, 0, 0));
        assert_eq!(said("old-wiring", "panel 12\n1 15 #12al a"), ["1: Small aluminum branch wiring."]);
        assert!(said("old-wiring", "panel 12\n1-3 50/2 #4al range").is_empty());
    }
}
