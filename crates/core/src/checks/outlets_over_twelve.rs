//! Rule outlets-over-twelve: in Canada a two-wire circuit has twelve outlets at most, unless what they draw is known.
//!
//! Source: CEC 8-304, from memory. Receptacles, lights, alarms and fans count one each; a note, since a known load of 80 % of the breaker
//! or less allows more. Not a rule of the United States. Example: fourteen lights and receptacles proven on one 15 A breaker.

use super::Found;
use super::{Checked, Rule, Sections, Severity, Source};
use crate::model::PointKind;

pub(super) const RULE: Rule = Rule {
    code: "outlets-over-twelve",
    severity: Severity::Note,
    why: "Each outlet counts one ampere where nobody has added up what is plugged in.",
    source: Source::Code(Sections::canada("8-304")),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers().filter(|(_, breaker)| breaker.poles() == 1 && breaker.amps.value() <= 20.0) {
        let is_outlet = |kind| matches!(kind, PointKind::Receptacle | PointKind::Light | PointKind::Alarm | PointKind::Fan);
        // The halves of one receptacle are one outlet.
        let outlets = checked.points_on(&breaker.id).filter(|p| is_outlet(p.kind) && p.details.half_of.is_none()).count();
        if outlets > 12 {
            found.breaker(
                breaker,
                format!("{outlets} outlets are proven on it, where twelve are the most unless their load is known."),
                "Add up what they draw: up to 80 % of the breaker, there may be more of them. Else put nothing more on it.",
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    fn with(edition: &str, count: usize) -> Vec<String> {
        let points: String = (1..=count).map(|n| format!("point Hall light l{n}\nproof l{n} 1\n")).collect();
        said("outlets-over-twelve", &format!("rules {edition}\npanel 12\n1 15 hall\nroom Hall\n{points}"))
    }

    #[test]
    fn fires_above_twelve_in_canada_alone() {
        assert_eq!(
            with("cec2021", 13),
            ["1: 13 outlets are proven on it, where twelve are the most unless their load is known."]
        );
        assert!(with("cec2024", 12).is_empty());
        assert!(with("nec2020", 13).is_empty());
    }
}
