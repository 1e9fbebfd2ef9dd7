//! Rule tamper-resistant: receptacles of 15 and 20 A in a dwelling are tamper-resistant by today's rule.
//!
//! Source: NEC 406.12, from memory; in Canada CEC 26-706 (?), from memory. Told once for the home, and only where somebody has begun to
//! record the marking. For work that is planned, never a fault of old work. Example: two of twelve receptacles are marked TR.

use super::Found;
use super::{Checked, FindingPlace, InCanada, Rule, Sections, Severity, Source};
use crate::model::{Point, PointKind, Volts};

pub(super) const RULE: Rule = Rule {
    code: "tamper-resistant",
    severity: Severity::Planned,
    why: "A child can push a key or a nail into one slot of an ordinary one.",
    source: Source::Code(Sections::nec("406.12", InCanada::Perhaps("26-706"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let ordinary = |p: &&Point| {
        p.kind == PointKind::Receptacle && p.volts == Volts::new(120) && p.configuration.is_none_or(|face| face.amps() <= 20)
    };
    let (marked, unmarked): (Vec<&Point>, Vec<&Point>) =
        checked.home.house().points().filter(ordinary).partition(|point| point.details.tamper_resistant);
    if marked.is_empty() || unmarked.is_empty() {
        return;
    }
    let all = marked.len() + unmarked.len();
    found.add(
        "home",
        "Receptacles".into(),
        FindingPlace::default(),
        format!("{} of {all} receptacles of 15 and 20 A are recorded as tamper-resistant.", marked.len()),
        "Nothing has to be done for it. One that is put in or replaced is a tamper-resistant one (marked TR).".into(),
    );
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn told_once_where_some_are_marked() {
        let house = |more: &str| {
            said(
                "tamper-resistant",
                &format!("room Hall\npoint Hall receptacle a\npoint Hall receptacle b\npoint Hall light c\n{more}"),
            )
        };
        assert!(house("").is_empty(), "nobody has looked");
        assert_eq!(
            house("a is tamper-resistant"),
            ["Receptacles: 1 of 2 receptacles of 15 and 20 A are recorded as tamper-resistant."]
        );
        assert!(house("a is tamper-resistant\nb is tamper-resistant").is_empty());
        assert!(house("a is tamper-resistant\nb is face TT-30").is_empty());
    }
}
