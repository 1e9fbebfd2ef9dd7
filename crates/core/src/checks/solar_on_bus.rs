//! Rule solar-on-bus: what an inverter adds and what the main lets in do not overload the bus.
//!
//! Source: NEC 705.12, from memory. 125 % of the inverter's output and the main together are no more than the bus; or no more than
//! 120 % of it, with the inverter's breaker at the far end from the main; or all breakers but the main together are no more than the bus
//! (that way is the installer's choice). Until the inverter's plate is read, its breaker stands for the 125 %: it is no smaller.
//! Example: a 200 A main on a 200 A bus takes a breaker of 40 A for an inverter of 32 A, at the far end.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source, and};
use crate::loads::{SolarOnPanel, solar_on_panel};
use crate::model::{Amps, Breaker, OtherSource};

pub(super) const RULE: Rule = Rule {
    code: "solar-on-bus",
    severity: Severity::Fault,
    why: "Fed from both ends, the bus can carry more than any breaker on it would let through.",
    source: Source::Code(Sections::moved(
        ["705.12(B)(2)(3)", "705.12(B)(3)", "705.12(B)"],
        InCanada::NotKnown("solar and batteries beside the main on one bus"),
    )),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all() {
        let Some(solar) = solar_on_panel(checked.home, panel).filter(|solar| !solar.is_allowed()) else { continue };
        let SolarOnPanel { sources, total, unread, .. } = &solar;
        let Some(first) = sources.first() else { continue };
        let (bus, main) = (Amps::new(solar.bus), Amps::new(solar.main));
        let most = solar.most();
        let numbers: Vec<String> = sources.iter().map(|b| checked.home.panels().number(&b.id)).collect();
        let total = Amps::new((total * 10.0).round() / 10.0);
        let comes_in = format!("{} comes in at {} beside a main of {main}.", first.what_comes_in(), and(&numbers));
        let most_amps = Amps::new(most);
        let (message, remedy) = if solar.is_within(most) {
            (
                format!("{comes_in} On a bus of {bus} that is allowed at the end away from the main alone."),
                "Ask the installer: a place at the far end of the bus or a smaller main are the usual ways.",
            )
        } else if *unread {
            (
                format!(
                    "{comes_in} A bus of {bus} takes {most_amps} together with 125 % of the inverter's output, and its plate was not read."
                ),
                "Read the inverter's plate and enter its output. The breaker may be larger than it has to be.",
            )
        } else {
            (
                format!(
                    "{comes_in} With 125 % of the inverter's output that is {total}; a bus of {bus} takes {most_amps} at most."
                ),
                "Ask the installer: a smaller main, a larger bus or a connection ahead of the main are the usual ways.",
            )
        };
        let finding = found.breaker(first, message, remedy);
        // The breaker may be larger than 125 % of the output.
        if *unread {
            finding.severity = Severity::Note;
        }
    }
}

impl Breaker {
    fn what_comes_in(&self) -> &'static str {
        if self.details.brings_in == Some(OtherSource::Battery) { "Battery power" } else { "Solar power" }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{Severity, findings};
    use crate::fixture::written;

    fn of(acts: &str) -> Vec<(Severity, String)> {
        let home = written(acts).home;
        findings(&home).iter().filter(|f| f.code == "solar-on-bus").map(|f| (f.severity, f.message.clone())).collect()
    }

    fn house(bus: u16, at: &str, amps: u16, inverter: u16) -> String {
        let read = if inverter == 0 { String::new() } else { format!(", inverter {inverter} A") };
        // Large enough breakers that their sum is no way out.
        let others = "1-3 100/2 shed\n5-7 100/2 barn\n9-11 100/2 shop\n";
        format!("panel 40\nmain is main 200 A, bus {bus} A\n{others}{at} {amps}/2 roof\n{at} is brings in solar{read}")
    }

    /// Constructed from NEC 705.12: a 200 A bus and main take a 40 A breaker (inverter 32 A), a 225 A bus 70 A (56 A).
    #[test]
    fn what_the_bus_takes_beside_a_main_of_200() {
        assert!(of(&house(200, "38-40", 40, 32)).is_empty());
        assert_eq!(of(&house(200, "38-40", 45, 33)).len(), 1);
        assert!(of(&house(225, "38-40", 70, 56)).is_empty());
        assert_eq!(of(&house(225, "38-40", 80, 60)).len(), 1);
        assert!(of(&house(250, "20-22", 40, 32)).is_empty(), "100 % of the bus: anywhere");
    }

    #[test]
    fn an_unread_plate_is_asked_for_and_a_breaker_in_the_middle_is_told() {
        assert_eq!(of(&house(200, "38-40", 50, 0))[0].0, Severity::Note);
        assert!(of(&house(200, "38-40", 40, 0)).is_empty(), "whatever the plate says");
        assert_eq!(of(&house(225, "20-22", 30, 0))[0].0, Severity::Note, "25 A or less might be anywhere");
        let middle = of(&house(200, "20-22", 40, 32));
        assert_eq!(middle[0].0, Severity::Fault);
        assert!(middle[0].1.contains("away from the main alone"), "{}", middle[0].1);
    }

    #[test]
    fn where_all_breakers_together_are_within_the_bus_it_is_right() {
        let few =
            "panel 40\nmain is main 200 A, bus 200 A\n1-3 50/2 range\n38-40 60/2 roof\n38-40 is brings in solar, inverter 48 A";
        assert!(of(few).is_empty());
        assert!(of(&few.replace(", inverter 48 A", "").replace("brings in solar", "10 kA")).is_empty(), "no source");
    }
}
