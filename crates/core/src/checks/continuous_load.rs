//! Rule continuous-load: what runs three hours or more counts 125 %, so it fills a breaker to 80 % at most.
//!
//! Source: NEC 210.20(A) and 422.13 (storage water heaters), from memory. A fault where it is so even at the least that the loads take,
//! a note else. Example: a charger of 40 A on a 40 A breaker, which wants one of 50 A and the wire for it.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};
use crate::loads::circuits;
use crate::model::Amps;

pub(super) const RULE: Rule = Rule {
    code: "continuous-load",
    severity: Severity::Fault,
    why: "A breaker that is nearly full for hours runs hot, ages, and trips below its rating.",
    source: Source::Code(Sections::nec("210.20(A) and 422.13", InCanada::Perhaps("8-104"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    if checked.home.loads().is_empty() {
        return;
    }
    for circuit in circuits(checked.home).iter().filter(|circuit| circuit.feeds.is_none()) {
        let Some(breaker) = checked.home.panels().breaker(&circuit.breaker) else { continue };
        // What is too much without the quarter is said by the rule circuit-overloaded.
        if circuit.expected > circuit.breaker_amps || circuit.counted <= circuit.breaker_amps {
            continue;
        }
        let names: Vec<String> = circuit.loads.iter().filter(|load| load.continuous).map(|load| load.name.clone()).collect();
        let message = format!(
            "{:.1} A are expected, and what runs three hours or more ({}) counts 125 %: {:.1} A on a {} breaker.",
            circuit.expected,
            super::and(&names),
            circuit.counted,
            Amps::new(circuit.breaker_amps)
        );
        let remedy = format!(
            "Take something else off the circuit. If one appliance alone makes it, set it to a lower current where it can be set, or \
             have breaker and wire made for it. {FOR_QUALIFIED}"
        );
        let severity = if circuit.between[0] > circuit.breaker_amps { Severity::Fault } else { Severity::Note };
        found.breaker(breaker, message, remedy).severity = severity;
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    fn charger(breaker: &str, plate: &str) -> Vec<String> {
        let point = r#"fact {"kind": "point_placed", "point": "car", "room": "garage", "point_kind": "appliance", "name": "Car", "volts": 240}"#;
        let load = format!("load car plate {plate}: charger\nwith-load car-charger {{\"continuous\": true}}");
        said("continuous-load", &format!("panel 12\n1-3 {breaker} charger\nroom Garage\n{point}\nproof car 1-3\n{load}"))
    }

    /// Vehicle chargers, common practice from NEC 625.41, from memory: 16→20, 24→30, 32→40, 40→50, 48→60, 80→100 A.
    #[test]
    fn a_charger_wants_the_breaker_that_the_table_has() {
        for (amps, least) in [(16, 20), (24, 30), (32, 40), (40, 50), (48, 60), (80, 100)] {
            assert!(charger(&format!("{least}/2"), &format!("{amps} A 240 V")).is_empty(), "{amps} A on {least} A");
            let small = charger(&format!("{}/2", amps), &format!("{amps} A 240 V"));
            assert_eq!(small.len(), 1, "{amps} A on {amps} A");
        }
        assert_eq!(
            charger("40/2", "40 A 240 V"),
            ["1-3: 40.0 A are expected, and what runs three hours or more (charger) counts 125 %: 50.0 A on a 40 A breaker."]
        );
    }

    /// NEC 422.13, from memory: 4500 W at 240 V is 18.75 A and counts 23.4 A: 25 or 30 A, not 20 A.
    #[test]
    fn a_storage_water_heater_of_4500_w_wants_25_a() {
        assert!(charger("25/2", "4500 W 240 V").is_empty());
        assert_eq!(charger("20/2", "4500 W 240 V").len(), 1);
    }
}
