//! Rule leg-overloaded: the heavier leg of a panel is expected to carry more than its feeder, its main or its bus.
//!
//! Source: NEC 215.3 and 230.90(A), from memory. The heavier leg alone decides: 31 A on one leg of a 30 A feeder is too much though 60 A
//! could be carried on both together. By what is expected at times, so a note; what a clamp read on the feeder is told by the rule
//! circuit-overloaded. Example: a shed panel on 30 A whose heater and saw are on one leg.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::loads::legs_of_panels;

pub(super) const RULE: Rule = Rule {
    code: "leg-overloaded",
    severity: Severity::Note,
    why: "One pole carries too much while the other has room: it runs hot and trips both.",
    source: Source::Code(Sections::nec("215.3 and 230.90(A)", InCanada::Perhaps("8-104"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    if checked.home.loads().is_empty() {
        return;
    }
    for legs in legs_of_panels(checked.home) {
        let heaviest = legs.legs.iter().map(|leg| leg.expected).fold(0.0, f64::max);
        let Some(panel) = checked.home.panels().panel(&legs.panel) else { continue };
        if legs.rating.is_some_and(|rating| heaviest > rating) {
            let remedy = "Read both legs at one time, in the season when it is worst. If it is so, run fewer loads at one time, or have \
                          circuits moved to the other leg: the page of loads says which.";
            found.panel(panel, legs.sentence.clone(), remedy);
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn one_leg_of_a_30_a_feeder() {
        let shed = |second: &str| {
            let acts = format!(
                "panel 12\n1-3 30/2 #10 shed\nsub Shed 6 1-3\nshed: 1 20 #12 bench\nshed: {second} 20 #12 wall\nroom Shed\n\
                 point Shed receptacle bench\npoint Shed receptacle wall\nproof bench S1\nproof wall S{second}\n\
                 load bench plate 17 A: heater\nload wall plate 16 A: stove\n\
                 with-load bench-heater {{\"usage\": {{\"minutes\": 60, \"uses_per_day\": 24, \"when\": [\"any\"]}}}}\n\
                 with-load wall-stove {{\"usage\": {{\"minutes\": 60, \"uses_per_day\": 24, \"when\": [\"any\"]}}}}"
            );
            said("leg-overloaded", &acts)
        };
        let same = shed("5");
        assert_eq!(same.len(), 1, "{same:?}");
        assert!(same[0].contains("33.0 A expected") && same[0].contains("overloaded"), "{same:?}");
        assert!(shed("3").is_empty(), "one on each leg");
    }
}
