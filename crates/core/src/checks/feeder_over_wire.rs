//! Rule feeder-over-wire: a feeder's breaker is no larger than its conductors allow. The 83 % of service
//! conductors is only for a feeder that carries the whole load of one dwelling, never for a sub-panel's.
//!
//! Source: NEC 240.4, 110.14(C)(1), 310.12, Table 310.16 and 215.3, from memory. Where only the 60 °C column says no and nobody
//! has read the marks for 75 °C, it is a note to read them. Example: 60 A on 10 AWG copper.

use super::Found;
use super::breaker_over_wire::read_the_marks;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source, placed_anew};
use crate::model::{Breaker, Service, ServiceDisconnect, Wire, largest_breaker, largest_service};

pub(super) const RULE: Rule = Rule {
    code: "feeder-over-wire",
    severity: Severity::Danger,
    why: "The feeder carries everything behind it; it can overheat before its breaker trips.",
    source: Source::Code(Sections::moved(
        ["240.4 and Table 310.15(B)(16)", "240.4 and Table 310.16", "240.4 and Table 310.16"],
        InCanada::Section("14-104 and Tables 2, 4 and 13"),
    )),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let edition = checked.home.edition();
    let good_for = |wire: Wire| largest_breaker(wire, edition);
    for (_, breaker) in checked.breakers().filter(|(_, b)| checked.is_feeder(b)) {
        let wires: Vec<Wire> = breaker
            .wire
            .into_iter()
            .chain(checked.home.panels().panels_on(&breaker.id).filter_map(|panel| panel.details.conductors))
            .collect();
        let Some(wire) = wires.into_iter().min_by(|a, b| good_for(*a).value().total_cmp(&good_for(*b).value())) else {
            continue;
        };
        let allowed = match largest_service(wire).filter(|_| carries_the_dwelling(checked, breaker)) {
            Some(whole) if whole > good_for(wire) => whole,
            _ => good_for(wire),
        };
        if breaker.amps <= allowed {
            continue;
        }
        if wire.if_read(edition).is_some_and(|read| breaker.amps <= good_for(read)) {
            let finding = read_the_marks(breaker, wire, allowed, found);
            // Where the size was read at the panel behind it, the marks are entered there.
            if breaker.wire == Some(wire) {
                let read = placed_anew(breaker, |b| b.wire = wire.if_read(edition));
                finding.mended_by("75 °C is read from both", vec![read]);
            }
            continue;
        }
        let message =
            format!("{} feeder breaker on {}. The feeder is good for a {allowed} breaker at most.", breaker.amps, wire.words());
        let remedy = format!("Have the breaker replaced by one of {allowed}, or the feeder by a larger one. {FOR_QUALIFIED}");
        let finding = found.breaker(breaker, message, remedy);
        if allowed.value() > 0.0 {
            finding.mended_by(format!("A {allowed} breaker is in its place"), vec![placed_anew(breaker, |b| b.amps = allowed)]);
        }
    }
}

/// Everything in the house is behind it: it is the only breaker of a panel that is said to hold the service disconnect, as
/// outside the house.
fn carries_the_dwelling(checked: &Checked<'_>, feeder: &Breaker) -> bool {
    let panel = checked.panel_of(feeder);
    let others = checked.home.panels().breakers_of(&panel.id).filter(|b| b.id != feeder.id && !b.details.back_fed_main);
    panel.details.service_disconnect == Some(ServiceDisconnect::Here)
        && matches!(panel.service, Service::SplitPhase | Service::TwoLegs208)
        && others.count() == 0
}

#[cfg(test)]
mod tests {
    use crate::checks::{Severity, findings, said, said_when_mended};
    use crate::fixture::written;

    #[test]
    fn fires_for_60_amps_on_10_awg_from_either_end() {
        let at_breaker = |size: &str| format!("panel 24\n18-20 60/2 #{size} shed > sub\n1 15 hall");
        assert_eq!(
            said("feeder-over-wire", &at_breaker("10")),
            ["18-20: 60 A feeder breaker on 10 AWG copper. The feeder is good for a 30 A breaker at most."]
        );
        assert!(said("feeder-over-wire", &at_breaker("6")).is_empty());
        assert!(said("breaker-over-wire", &at_breaker("10")).is_empty(), "said once");
        let at_panel = "panel 24\n1 15 hall\n18-20 60/2 shed\nsub Shed 8 18-20\nwith shed {\"details\": {\"conductors\": {\"gauge\": \"10\"}}}";
        assert_eq!(said("feeder-over-wire", at_panel).len(), 1);
        assert!(said("feeder-over-wire", "panel 24\n18-20 60/2 #10 oven").is_empty(), "that is no feeder");
        assert!(said_when_mended("feeder-over-wire", at_panel).is_empty());
    }

    #[test]
    fn where_only_60_degrees_say_no_the_marks_are_asked_for() {
        let house = "panel 24\n1 15 hall\n18-20 50/2 #8 shed > sub";
        let home = written(house).home;
        let found = findings(&home).iter().find(|f| f.code == "feeder-over-wire").unwrap();
        assert_eq!(found.severity, Severity::Note);
        assert!(found.message.contains("right only where the wire and the terminals at both ends are marked 75 °C"));
        assert!(said_when_mended("feeder-over-wire", house).is_empty());
        let grave = said("feeder-over-wire", &house.replace("50/2", "70/2"));
        assert_eq!(grave, ["18-20: 70 A feeder breaker on 8 AWG copper. The feeder is good for a 40 A breaker at most."]);
    }

    /// NEC 310.12, from memory.
    #[test]
    fn a_feeder_that_carries_the_whole_dwelling_may_have_83_percent() {
        let outside = |more: &str| {
            let here = r#"with main {"details": {"service_disconnect": "here"}}"#;
            let wire = r#"with house {"details": {"conductors": {"gauge": "1/0"}}}"#;
            format!("panel 4\n{here}\n1-3 175/2 house\n{more}sub House 24 1-3\n{wire}")
        };
        assert!(said("feeder-over-wire", &outside("")).is_empty());
        assert_eq!(said("feeder-over-wire", &outside("2 20 porch\n")).len(), 1, "something else is fed beside it");
        let unsaid = outside("").replace("\"here\"", "null");
        assert_eq!(said("feeder-over-wire", &unsaid).len(), 1, "nobody has said where the service disconnect is");
    }
}
