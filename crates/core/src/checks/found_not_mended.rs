//! Rule found-not-mended: what was found to be wrong stays so until it is mended.
//!
//! Source: common practice: a joint that failed once gets hot; an open neutral puts wrong volts on what is plugged in; a GFCI that is dead
//! protects nobody. Example: the hot wire was open at a joint in the den; nobody has said that it is mended.

use super::Found;
use super::{Checked, FOR_QUALIFIED, FindingPlace, Rule, Severity, Source};
use crate::model::Cause;

pub(super) const RULE: Rule = Rule {
    code: "found-not-mended",
    severity: Severity::Danger,
    why: "What failed once fails again, and a joint that fails gets hot.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let home = checked.home;
    for trouble in home.troubles().all() {
        let Some(what) = trouble.to_be_mended() else { continue };
        let message = format!("Found, and not yet mended: {}.", what.cause.words());
        let remedy = format!("Say under Trips when it is mended. {FOR_QUALIFIED}");
        let known = what.points.iter().find(|point| home.house().point(point).is_some());
        let breaker = what.breaker.as_ref().and_then(|id| home.panels().breaker(id));
        let (about, place) = match (known, breaker) {
            (Some(point), _) => {
                (home.house().place(point), FindingPlace { point: Some(point.clone()), ..FindingPlace::default() })
            }
            (None, Some(breaker)) => {
                let (panel, id) = (Some(breaker.panel.clone()), Some(breaker.id.clone()));
                (home.panels().number(&breaker.id), FindingPlace { panel, breaker: id, ..FindingPlace::default() })
            }
            (None, None) => ("The house".into(), FindingPlace::default()),
        };
        let finding = found.add(trouble.id.as_str(), about, place, message, remedy);
        // It gives no power or no protection, and burns nothing.
        if matches!(what.cause, Cause::BreakerFailed | Cause::GfciDead | Cause::LostLeg | Cause::FeederLeg) {
            finding.severity = Severity::Fault;
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn what_was_found_is_told_until_it_is_mended() {
        let house = |more: &str| {
            said("found-not-mended", &format!("panel 12\n1 20 a\nroom Den\npoint Den receptacle wall\ntrouble t1 wall\n{more}"))
        };
        let joint = r#"over t1 {"cause": "open_hot", "points": ["wall"]}"#;
        assert!(house("").is_empty() && house("over t1").is_empty());
        assert!(house(r#"over t1 {"cause": "lamp", "points": ["wall"]}"#).is_empty(), "it is over with the new lamp");
        assert_eq!(house(joint), ["Den, wall: Found, and not yet mended: the hot wire is open at a joint."]);
        assert!(house(&format!("{joint}\nmended t1")).is_empty());
    }
}
