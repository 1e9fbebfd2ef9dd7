//! Rule main-above-bus: what protects the bus is rated no higher than it.
//!
//! Source: NEC 408.36, from memory. Example: a 150 A main on a 125 A bus; a 60 A feeder breaker on a 50 A
//! sub-panel without a main.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};

pub(super) const RULE: Rule = Rule {
    code: "main-above-bus",
    severity: Severity::Danger,
    why: "The bus can overheat before anything trips.",
    source: Source::Code(Sections::nec("408.36", InCanada::Holds)),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all() {
        let Some(bus) = panel.details.bus else { continue };
        let feeder = panel.details.fed_by.as_ref().and_then(|id| checked.home.panels().breaker(id));
        let back_fed = checked.home.panels().breakers_of(&panel.id).find(|b| b.details.back_fed_main);
        let main = panel.main.map(|amps| (amps, "Main".to_owned()));
        let back_fed = back_fed.map(|b| (b.amps, format!("Back-fed main {}", checked.home.panels().number(&b.id))));
        let feeder = feeder.map(|b| (b.amps, format!("Feeder breaker {}", checked.home.panels().number(&b.id))));
        // Any one of them that is small enough protects it.
        let Some((amps, what)) =
            [main, back_fed, feeder].into_iter().flatten().min_by(|a, b| a.0.value().total_cmp(&b.0.value()))
        else {
            continue;
        };
        if amps > bus {
            found.panel(
                panel,
                format!("{what} of {amps} on a bus of {bus}."),
                "Read both labels again. If it is so, call an electrician; until then keep the load well below the bus rating.",
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_when_nothing_small_enough_protects_the_bus() {
        let main = |main: u16, bus: u16| {
            said("main-above-bus", &format!("panel 12\nwith main {{\"main\": {main}, \"details\": {{\"bus\": {bus}}}}}"))
        };
        assert_eq!(main(150, 125), ["Main panel: Main of 150 A on a bus of 125 A."]);
        assert!(main(125, 125).is_empty() && main(100, 125).is_empty());
        let sub = |sub: &str| said("main-above-bus", &format!("panel 12\n1-3 60/2 shed\nsub Shed 8 1-3\nwith shed {sub}"));
        assert_eq!(sub(r#"{"details": {"bus": 50}}"#), ["Shed: Feeder breaker 1-3 of 60 A on a bus of 50 A."]);
        assert!(sub(r#"{"details": {"bus": 100}, "main": 125}"#).is_empty(), "the 60 A feeder protects it");
        assert!(sub(r#"{"details": {"bus": 50}, "main": 50}"#).is_empty(), "its own main protects it");
        assert!(said("main-above-bus", "panel 12").is_empty());
    }
}
