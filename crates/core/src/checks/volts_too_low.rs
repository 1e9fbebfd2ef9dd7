//! Rule volts-too-low: with everything on a meter showed fewer volts at an outlet than it may come down to, or one outlet high and
//! another low.
//!
//! Source: common practice; 108 and 126 V are ANSI C84.1 range A, from memory, with the drop of the wires in the house. Example:
//! 103 V at a 120 V receptacle with everything on. It is gone when the same point reads right.

use super::Found;
use super::{Checked, FindingPlace, Rule, Severity, Source};
use crate::loads::diagnose_supply;
use crate::trace::{legs_apart, too_little_read};

pub(super) const RULE: Rule = Rule {
    code: "volts-too-low",
    severity: Severity::Danger,
    why: "A loose joint drops volts and gets hot; where the neutral is lost, one leg goes low and the other high.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let home = checked.home;
    let what_next = diagnose_supply(home).map_or_else(
        || {
            "Read it again, and at another outlet. If one is high and one low, or lamps are bright here and dim there, turn the main \
             off and call an electrician and the utility. If only this one is low, switch its breaker off: a joint may be hot."
                .to_owned()
        },
        |supply| format!("{} {}", supply.words, supply.next),
    );
    let mut low: Vec<_> = too_little_read(home);
    low.extend(legs_apart(home).map(|apart| apart.low));
    low.sort_by(|a, b| a.point.cmp(&b.point));
    low.dedup_by(|a, b| a.point == b.point);
    for metered in low {
        let Some(point) = home.house().point(&metered.point) else { continue };
        let place = FindingPlace { point: Some(point.id.clone()), ..FindingPlace::default() };
        let other = legs_apart(home).filter(|apart| apart.low.point == metered.point);
        let other = other.and_then(|apart| Some((home.house().point(&apart.high.point)?, apart.high.volts)));
        let other = other.map_or_else(String::new, |(point, volts)| format!(", and {volts} V at {}", point.name));
        found.add(
            point.id.as_str(),
            point.name.clone(),
            place,
            format!("With everything on, a meter showed {} V at {}{other}.", metered.volts, point.name),
            what_next.clone(),
        );
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_below_108_v_with_everything_on() {
        let house = "panel 12\n1 20 a\nroom Hall\npoint Hall receptacle wall\npoint Hall receptacle desk\n";
        let said = |acts: &str| said("volts-too-low", &format!("{house}{acts}"));
        assert_eq!(said("volts wall 103"), ["wall: With everything on, a meter showed 103 V at wall."]);
        assert_eq!(
            said("volts wall 103\nvolts desk 127"),
            ["wall: With everything on, a meter showed 103 V at wall, and 127 V at desk."]
        );
        assert_eq!(
            said("volts wall 119\nvolts desk 119\nvolts wall 112\nvolts desk 125"),
            ["wall: With everything on, a meter showed 112 V at wall, and 125 V at desk."]
        );
        for fine in [
            "volts wall 108",
            "volts wall 103\nvolts wall 119",
            "off 1\nvolts wall 40",
            "volts wall 3",
            "volts wall 113\nvolts desk 125",
        ] {
            assert!(said(fine).is_empty(), "{fine}: {:?}", said(fine));
        }
    }
}
