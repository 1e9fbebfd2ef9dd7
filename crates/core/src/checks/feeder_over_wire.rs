//! Rule feeder-over-wire: a feeder's breaker is no larger than its conductors allow. The 83 % of service
//! conductors is not for a sub-panel's feeder.
//!
//! Source: NEC 240.4, Table 310.16 and 215.3, from memory. Example: 60 A on 8 AWG copper.

use super::Found;
use super::{Checked, FOR_QUALIFIED, Rule, Severity, Source, placed_anew};
use crate::model::{Wire, largest_breaker};

pub(super) const RULE: Rule = Rule {
    code: "feeder-over-wire",
    severity: Severity::Danger,
    why: "The feeder carries everything behind it; it can overheat before its breaker trips.",
    source: Source::Nec("240.4 and Table 310.16"),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers().filter(|(_, b)| checked.is_feeder(b)) {
        let wires: Vec<Wire> = breaker
            .wire
            .into_iter()
            .chain(checked.home.panels().panels_on(&breaker.id).filter_map(|panel| panel.details.conductors))
            .collect();
        let Some(wire) = wires.into_iter().min_by(|a, b| largest_breaker(*a).value().total_cmp(&largest_breaker(*b).value()))
        else {
            continue;
        };
        let allowed = largest_breaker(wire);
        if breaker.amps > allowed {
            let message = format!(
                "{} feeder breaker on {}. The feeder is good for a {allowed} breaker at most.",
                breaker.amps,
                wire.words()
            );
            let remedy = format!("Have the breaker replaced by one of {allowed}, or the feeder by a larger one. {FOR_QUALIFIED}");
            found
                .breaker(breaker, message, remedy)
                .mended_by(format!("A {allowed} breaker is in its place"), vec![placed_anew(breaker, |b| b.amps = allowed)]);
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    #[test]
    fn fires_for_60_amps_on_8_awg_from_either_end() {
        let at_breaker = |size: &str| format!("panel 24\n18-20 60/2 #{size} shed > sub");
        assert_eq!(
            said("feeder-over-wire", &at_breaker("8")),
            ["18-20: 60 A feeder breaker on 8 AWG copper. The feeder is good for a 40 A breaker at most."]
        );
        assert!(said("feeder-over-wire", &at_breaker("6")).is_empty());
        assert!(said("breaker-over-wire", &at_breaker("8")).is_empty(), "said once");
        let at_panel =
            "panel 24\n18-20 60/2 shed\nsub Shed 8 18-20\nwith shed {\"details\": {\"conductors\": {\"gauge\": \"8\"}}}";
        assert_eq!(said("feeder-over-wire", at_panel).len(), 1);
        assert!(said("feeder-over-wire", "panel 24\n18-20 60/2 #8 oven").is_empty(), "that is no feeder");
        assert!(said_when_mended("feeder-over-wire", at_panel).is_empty());
    }
}
