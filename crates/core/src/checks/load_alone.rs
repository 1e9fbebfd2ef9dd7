//! Rule load-alone: a furnace, and a pump that keeps the water out, are alone on their circuit.
//!
//! Source: NEC 422.12 for central heating equipment, from memory; the pump is common practice. Example: a furnace on the circuit of the
//! workshop's outlets, where a tool trips the heat.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};
use crate::loads::{LoadNote, LoadNoteKind, circuits};

pub(super) const RULE: Rule = Rule {
    code: "load-alone",
    severity: Severity::Fault,
    why: "What trips the circuit stops it, too, and nobody may notice until pipes freeze or the cellar floods.",
    source: Source::Code(Sections::nec("422.12", InCanada::NotKnown("which equipment is alone on its circuit"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    if checked.home.loads().is_empty() {
        return;
    }
    for circuit in circuits(checked.home) {
        let Some(breaker) = checked.home.panels().breaker(&circuit.breaker) else { continue };
        for note in circuit.notes.iter().filter(|note| note.kind == LoadNoteKind::Alone) {
            let remedy = format!("Move what else is on it, or have a circuit put in for it. {FOR_QUALIFIED}");
            let by_practice = note.source == LoadNote::PRACTICE;
            let finding = found.breaker(breaker, note.words.clone(), remedy);
            if by_practice {
                finding.severity = Severity::Note;
                finding.source = Source::Practice.cite(checked.home.edition()).unwrap_or_default();
            }
            finding.key.extend(note.load.iter().map(|load| format!(":{load}")));
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{Severity, findings};
    use crate::fixture::written;

    fn of(acts: &str) -> Vec<(Severity, String)> {
        let house = "panel 12\n1 15 #14 cellar\nroom Cellar\npoint Cellar receptacle wall\npoint Cellar receptacle pit\nproof wall 1\nproof pit 1\n";
        let home = written(&format!("{house}{acts}")).home;
        let ours = findings(&home).iter().filter(|finding| finding.code == "load-alone");
        ours.map(|finding| (finding.severity, finding.message.clone())).collect()
    }

    #[test]
    fn fires_only_where_something_else_is_entered_on_the_circuit() {
        let furnace = of("load pit furnace\nload wall tv");
        assert_eq!(furnace.len(), 1, "{furnace:?}");
        assert_eq!(furnace[0].0, Severity::Fault);
        assert!(of("load pit furnace").is_empty());
        let pump = of("load pit sump_pump\nload wall tv");
        assert_eq!((pump.len(), pump[0].0), (1, Severity::Note));
        assert!(of("load pit tv\nload wall kettle").is_empty());
    }
}
