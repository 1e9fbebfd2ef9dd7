//! Rule service-conductors: the main is no larger than the service conductors allow.
//!
//! Source: NEC 310.12 (83 % for the conductors that carry a whole dwelling) and Table 310.16, from memory. Not
//! for a sub-panel's feeder, and not for three-phase. Example: a 200 A main on 2/0 aluminum, which is good for
//! 150 A.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::model::{Service, largest_breaker, largest_service};

pub(super) const RULE: Rule = Rule {
    code: "service-conductors",
    severity: Severity::Danger,
    why: "The conductors ahead of the main can overheat, and nothing in the house trips for them.",
    source: Source::Code(Sections::moved(
        ["310.15(B)(7) and Table 310.15(B)(16)", "310.12 and Table 310.16", "310.12 and Table 310.16"],
        InCanada::NotKnown("the main against the service conductors"),
    )),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all().filter(|panel| panel.details.fed_by.is_none()) {
        let back_fed = checked.home.panels().breakers_of(&panel.id).find(|b| b.details.back_fed_main).map(|b| b.amps);
        let (Some(main), Some(wire)) = (panel.main.or(back_fed), panel.details.conductors) else { continue };
        let whole_dwelling = matches!(panel.service, Service::SplitPhase | Service::TwoLegs208);
        let by_table = largest_breaker(wire, checked.home.edition());
        let allowed = match largest_service(wire).filter(|_| whole_dwelling) {
            Some(service) if service > by_table => service,
            _ => by_table,
        };
        if main > allowed {
            found.panel(
                panel,
                format!("Main of {main} on service conductors of {}, which are good for {allowed}.", wire.words()),
                "Read the size and metal again. If it is so, call an electrician; the conductors stay live with the main off.",
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    fn with(main: u16, size: &str, metal: &str, service: &str) -> usize {
        said(
            "service-conductors",
            &format!(
                r#"panel 12
                with main {{"main": {main}, "service": "{service}", "details": {{"conductors": {{"gauge": "{size}", "metal": "{metal}"}}}}}}"#
            ),
        )
        .len()
    }

    /// NEC 310.12, from memory.
    #[test]
    fn fires_above_the_table_for_dwellings() {
        assert_eq!(with(200, "4/0", "aluminum", "split_phase"), 0);
        assert_eq!(with(200, "2/0", "copper", "split_phase"), 0);
        assert_eq!(with(200, "2/0", "aluminum", "split_phase"), 1);
        assert_eq!(with(100, "4", "copper", "split_phase"), 0);
        assert_eq!(with(125, "4", "copper", "split_phase"), 1);
        assert_eq!(with(60, "6", "copper", "split_phase"), 0, "below the table the ampacity decides");
        assert_eq!(with(200, "4/0", "copper", "three_phase"), 0);
        assert_eq!(with(200, "2/0", "copper", "three_phase"), 1, "83 % is not for three-phase");
    }

    #[test]
    fn a_sub_panel_is_not_judged_by_it() {
        let sub = "panel 12\n1-3 100/2 shed\nsub Shed 8 1-3\nwith shed {\"main\": 100, \"details\": {\"conductors\": {\"gauge\": \"4\"}}}";
        assert!(said("service-conductors", sub).is_empty());
        assert_eq!(said("feeder-over-wire", sub).len(), 1, "without the 83 %, 4 AWG copper is good for 70 A");
    }
}
