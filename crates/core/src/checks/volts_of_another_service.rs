//! Rule volts-of-another-service: a 240 V point reads what the other kind of service has.
//!
//! Source: common practice; 197 to 218 V and 228 to 252 V are ANSI C84.1 range A, from memory. Example: 207 V at a range in a home
//! whose panel is entered as 120/240 V.

use super::Found;
use super::{Checked, FindingPlace, Rule, Severity, Source};
use crate::model::{Service, Volts, meter};

pub(super) const RULE: Rule = Rule {
    code: "volts-of-another-service",
    severity: Severity::Note,
    why: "What the neutral carries, what a heater gives and which breakers fit all follow from how the panel is fed.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let home = checked.home;
    let between = |service: Service| match service {
        Service::SplitPhase | Service::HighLeg => Some(240),
        Service::TwoLegs208 | Service::ThreePhase => Some(208),
        Service::OneLeg120 => None,
    };
    let mut all = home.panels().all().map(|panel| between(panel.service));
    // Where panels are fed in several ways, a reading does not tell which of them is wrong.
    let Some(legs) = all.next().flatten().filter(|first| all.all(|other| other == Some(*first))) else { return };
    for point in home.house().points().filter(|point| point.volts == Volts::new(240)) {
        let Some(last) = home.trace().metered().iter().rfind(|metered| metered.point == point.id) else { continue };
        if !meter::is_of_another_service(last.volts, Volts::new(legs)) {
            continue;
        }
        let place = FindingPlace { point: Some(point.id.clone()), ..FindingPlace::default() };
        let reads = if legs == 240 { "208Y/120" } else { "120/240" };
        found.add(
            point.id.as_str(),
            point.name.clone(),
            place,
            format!("A meter showed {} V at {}; the panel is entered with {legs} V between its legs.", last.volts, point.name),
            format!("Read from leg to leg at another 240 V point. If it is about the same, the service is {reads} V: correct it under Panel."),
        );
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_where_a_reading_between_two_hots_is_that_of_the_other_service() {
        let house = r#"panel 12
            1-3 50/2 range
            room Hall
            fact {"kind": "point_placed", "point": "range", "room": "hall", "point_kind": "appliance", "name": "range", "volts": 240}
            "#;
        let said = |acts: &str| said("volts-of-another-service", &format!("{house}{acts}"));
        let with = r#"with main {"service":"two_legs_208"}"#;
        assert_eq!(
            said("volts range 207"),
            ["range: A meter showed 207 V at range; the panel is entered with 240 V between its legs."]
        );
        assert_eq!(
            said(&format!("{with}\nvolts range 241")),
            ["range: A meter showed 241 V at range; the panel is entered with 208 V between its legs."]
        );
        for fine in ["volts range 239".to_owned(), "volts range 120".to_owned(), format!("{with}\nvolts range 206")] {
            assert!(said(&fine).is_empty(), "{fine}: {:?}", said(&fine));
        }
    }
}
