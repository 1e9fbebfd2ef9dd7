//! Rule circuit-overloaded: more runs on a circuit than its breaker or its wire carries.
//!
//! Source: NEC 210.23, from memory: the load of a branch circuit does not exceed its rating. Graver where it was read, or where one load
//! alone is too much even at the least that it takes; a note where the sum is expected at times, because when things run is an estimate; a danger
//! where the wire may carry less than its breaker does, which then does not protect it.
//! Where what is not known decides, the rule is silent and the page of loads says "too close to call". Example: 22.4 A read by a clamp
//! on a 20 A circuit.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::loads::{CircuitLoads, circuits};
use crate::model::Amps;

pub(super) const RULE: Rule = Rule {
    code: "circuit-overloaded",
    severity: Severity::Fault,
    why: "A breaker that carries more than its rating runs hot and trips at the worst moment; it need not trip for hours, or at all.",
    source: Source::Code(Sections::nec("210.23", InCanada::Perhaps("8-104"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    if checked.home.loads().is_empty() {
        return;
    }
    for circuit in circuits(checked.home) {
        let Some(breaker) = checked.home.panels().breaker(&circuit.breaker) else { continue };
        if let Some((severity, message)) = too_much(circuit) {
            let remedy = "Run fewer of them at one time, or move one to a lighter circuit: the page of loads names it. Never a larger \
                          breaker.";
            found.breaker(breaker, message, remedy).severity = severity;
        }
    }
}

fn too_much(circuit: &CircuitLoads) -> Option<(Severity, String)> {
    let CircuitLoads { limit, breaker_amps, .. } = *circuit;
    let narrow = circuit.wire_amps.is_some_and(|wire| wire < breaker_amps);
    let (carries, danger) = if narrow { ("its wire may carry", Some(Severity::Danger)) } else { ("its breaker carries", None) };
    let limit_said = Amps::new(limit);
    if let Some(read) = circuit.measured.as_ref().filter(|read| !read.arranged && read.amps > limit) {
        let on = if circuit.feeds.is_some() { " on one leg" } else { "" };
        let message = format!("{} were read{on} by {}; {carries} {limit_said}.", Amps::new(read.amps), read.with);
        return Some((danger.unwrap_or(Severity::Fault), message));
    }
    // What a feeder is expected to carry is told leg by leg.
    if circuit.feeds.is_some() || circuit.expected <= limit {
        return None;
    }
    if let Some(one) = circuit.loads.iter().find(|load| load.count == 1 && load.low > limit) {
        let message = format!("The {} alone takes {}; {carries} {limit_said}.", one.name, Amps::new(one.amps));
        return Some((danger.unwrap_or(Severity::Fault), message));
    }
    let words = format!("{:.1} A are expected at times; {carries} {limit_said}.", circuit.expected);
    Some((danger.unwrap_or(Severity::Note), words))
}

#[cfg(test)]
mod tests {
    use crate::checks::{Severity, findings, said};
    use crate::fixture::written;

    const HOUSE: &str =
        "panel 12\n1 20 #12 kitchen\n2 15 #14 hall\nroom Kitchen\npoint Kitchen receptacle counter\nproof counter 1\n";

    fn of(acts: &str) -> Vec<(Severity, String)> {
        let home = written(&format!("{HOUSE}{acts}")).home;
        let ours = findings(&home).iter().filter(|finding| finding.code == "circuit-overloaded");
        ours.map(|finding| (finding.severity, finding.message.clone())).collect()
    }

    #[test]
    fn what_was_read_is_a_fault_and_what_is_expected_a_note() {
        assert_eq!(of("clamp 1 22.4"), [(Severity::Fault, "22.4 A were read by clamp; its breaker carries 20 A.".into())]);
        assert!(of("clamp 1 20").is_empty(), "exactly what it carries");
        assert!(of("load counter kettle").is_empty());
        let many = of("load counter space_heater\nload counter 2 x kettle");
        assert_eq!(many.len(), 1, "{many:?}");
        assert_eq!(many[0].0, Severity::Note);
        assert!(of("load counter unknown thing\nload counter kettle").is_empty(), "what nobody knows accuses nobody");
    }

    #[test]
    fn one_load_alone_that_is_too_much_is_a_fault() {
        assert_eq!(
            of("load counter plate 26 A: kiln"),
            [(Severity::Fault, "The kiln alone takes 26 A; its breaker carries 20 A.".into())]
        );
        assert_eq!(of("load counter plate 21 A: saw")[0].0, Severity::Note, "it may take less than its plate");
    }

    #[test]
    fn above_what_the_wire_may_carry_it_is_a_danger() {
        let house = "panel 12\n1 20 #14 kitchen\nclamp 1 17";
        let home = written(house).home;
        let ours = findings(&home).iter().find(|finding| finding.code == "circuit-overloaded").unwrap();
        assert_eq!(
            (ours.severity, ours.message.as_str()),
            (Severity::Danger, "17 A were read by clamp; its wire may carry 15 A.")
        );
    }

    /// "31 A on one leg of a 30 A feeder is overloaded" (common practice).
    #[test]
    fn the_heavier_leg_of_a_feeder_decides() {
        let fed = "panel 12\n1-3 30/2 #10 shed\nsub Shed 6 1-3\n";
        let said_of = |read: &str| said("circuit-overloaded", &format!("{fed}{read}"));
        assert!(said_of("clamp 1-3/1 30\nclamp 1-3/2 5").is_empty());
        assert_eq!(
            said_of("clamp 1-3/1 31\nclamp 1-3/2 5"),
            ["1-3: 31 A were read on one leg by clamp; its breaker carries 30 A."]
        );
    }
}
