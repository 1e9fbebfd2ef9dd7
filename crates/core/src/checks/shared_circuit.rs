//! Rule large-load-on-shared-circuit: one load that takes most of a circuit that other things share.
//!
//! Source: NEC 210.23(A), in the edition of 2023 (B), from memory: one load on a cord at most 80 % of a 15 or 20 A circuit; what is
//! fastened in place at most half of it where lights or other outlets share it. A fault where a fastened load is over half by a plate or
//! a reading; a note where the library says so, and for what hangs on a cord. Example: a microwave put in place of a hood on the circuit
//! of the lights.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::loads::{LoadNoteKind, TakenFrom, circuits};

pub(super) const RULE: Rule = Rule {
    code: "large-load-on-shared-circuit",
    severity: Severity::Fault,
    why: "With that load running there is little left for the rest, and the circuit trips.",
    source: Source::Code(Sections::moved(
        ["210.23(A)", "210.23(A)", "210.23(B)"],
        InCanada::NotKnown("how much of a shared circuit one load may take"),
    )),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    if checked.home.loads().is_empty() {
        return;
    }
    for circuit in circuits(checked.home) {
        let Some(breaker) = checked.home.panels().breaker(&circuit.breaker) else { continue };
        for note in &circuit.notes {
            let fastened = match note.kind {
                // Where the sum is too much already, that is said.
                LoadNoteKind::OverShare if circuit.expected > circuit.limit => continue,
                LoadNoteKind::OverShare => false,
                LoadNoteKind::FastenedOverHalf => true,
                _ => continue,
            };
            let Some(line) = circuit.loads.iter().find(|line| Some(&line.load) == note.load.as_ref()) else { continue };
            let known = matches!(line.taken_from, TakenFrom::Plate | TakenFrom::Reading { .. });
            let remedy = if known {
                "Move it to a circuit of its own, or to one with little on it: the page of loads says what changes."
            } else {
                "Read its data plate first. If it is so, move it to a circuit of its own, or to one with little on it."
            };
            let finding = found.breaker(breaker, note.words.clone(), remedy);
            finding.severity = if fastened && known { Severity::Fault } else { Severity::Note };
            finding.key.push_str(&format!(":{}", line.load));
            finding.place.point = Some(line.point.clone());
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{Severity, findings};
    use crate::fixture::written;

    fn of(breaker: &str, acts: &str) -> Vec<(Severity, String)> {
        let point = r#"fact {"kind": "point_placed", "point": "over", "room": "kitchen", "point_kind": "appliance", "name": "Over the range", "volts": 120}"#;
        let house = format!(
            "panel 12\n1 {breaker} kitchen\nroom Kitchen\npoint Kitchen light lamp\n{point}\nproof lamp 1\nproof over 1\n"
        );
        let home = written(&format!("{house}{acts}")).home;
        let ours = findings(&home).iter().filter(|finding| finding.code == "large-load-on-shared-circuit");
        ours.map(|finding| (finding.severity, finding.message.clone())).collect()
    }

    #[test]
    fn a_fastened_load_over_half_with_lights_on_the_circuit() {
        let lamp = "load lamp room_lights\n";
        let by_plate = of("15", &format!("{lamp}load over plate 12 A: oven"));
        let words = "The oven is fastened in place and takes 12.0 A, more than half of the breaker, with lights or plugs on the same circuit.";
        assert_eq!(by_plate, [(Severity::Fault, words.to_owned())]);
        assert!(of("15", "load over plate 12 A: oven").is_empty(), "nothing else is entered on it");
        assert!(of("15", &format!("{lamp}load over plate 7 A: oven")).is_empty());
        assert!(of("20", &format!("{lamp}load over plate 10 A: oven")).is_empty(), "half is allowed");
        assert!(of("15", &format!("rules cec2021\n{lamp}load over plate 12 A: oven")).is_empty());
    }
}
