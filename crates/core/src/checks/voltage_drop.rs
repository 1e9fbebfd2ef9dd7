//! Rule voltage-drop: the run to a point is so long that its wire takes more than 3 % of the volts at what is expected.
//!
//! Source: the informational note to NEC 210.19(A), a recommendation, from memory; CEC 8-102, a rule. The run is an estimate by the
//! plan, so it is a note. Example: 16 A over 100 ft of 12 AWG at 120 V lose 5.3 %.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};
use crate::loads::circuits;
use crate::model::{Amps, Length};

pub(super) const RULE: Rule = Rule {
    code: "voltage-drop",
    severity: Severity::Note,
    why: "What the wire takes is lost as heat; motors run hot and lights dim when something starts.",
    source: Source::Code(Sections::nec("210.19(A), informational note", InCanada::Section("8-102"))),
    check,
};

/// What a branch may lose, in percent.
const BRANCH: f64 = 3.0;

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    if checked.home.loads().is_empty() {
        return;
    }
    for circuit in circuits(checked.home) {
        let Some(breaker) = checked.home.panels().breaker(&circuit.breaker) else { continue };
        let Some(lost) = circuit.drop.as_ref().filter(|lost| lost.drop.percent > BRANCH) else { continue };
        let message = format!(
            "{} to {} lose about {:.1} V of {:.0} V, {:.1} %; 3 % is recommended for a branch circuit.",
            Amps::new((lost.at_amps * 10.0).round() / 10.0),
            lost.to,
            lost.drop.volts,
            100.0 * lost.drop.volts / lost.drop.percent,
            lost.drop.percent
        );
        let run = Length::mm(lost.run_mm);
        let remedy = format!(
            "The run of {} is an estimate by the plan. Read the volts there with the load on and off; if they fall by more than 3 %, a \
             heavier wire or a shorter run is wanted. {FOR_QUALIFIED}",
            run.said(checked.home.plan().units)
        );
        found.breaker(breaker, message, remedy);
    }
}
