//! Rule two-hots-on-one-pole: a 240 V point is fed by two hots, so one pole of one leg cannot be all that feeds it.
//!
//! Source: common practice, no published source. Proven on a one-pole breaker, its volts are entered wrong, or a two-pole is
//! entered as two single ones, or a second
//! breaker without a tie feeds the other hot: then it is half live with this one off. Two poles inside one space give 0 V and
//! have a rule of their own. Example: a dryer of 240 V that is proven on breaker 5, 30 A, one pole.

use super::Found;
use super::hots_on_two_singles::two_singles;
use super::{Checked, Rule, Severity, Source};
use crate::model::Volts;

pub(super) const RULE: Rule = Rule {
    code: "two-hots-on-one-pole",
    severity: Severity::Danger,
    why: "With one of two hots off it looks dead and is not.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers().filter(|(_, breaker)| breaker.poles() == 1) {
        for point in checked.points_on(&breaker.id).filter(|point| point.volts > Volts::new(120)) {
            // Where the other breaker is known, the rule on two single ones says it.
            if two_singles(checked, point).is_some() {
                continue;
            }
            let finding = found.breaker(
                breaker,
                format!("{} is entered with 240 V and proven on a breaker of one pole, which is one hot only.", point.name),
                "Treat it as live. Is this breaker one with the next, with a common handle? Join them. Is it a 120 V point? Correct \
                 its volts. Else a second breaker without a tie may feed its other hot: leave both off, and have it read hot to hot \
                 and each hot to ground by somebody qualified.",
            );
            finding.key.push_str(&format!(":{}", point.id));
            finding.place.point = Some(point.id.clone());
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    fn proven(line: &str, volts: u16) -> Vec<String> {
        let number = line.split(' ').next().unwrap();
        let point = format!(
            r#"fact {{"kind": "point_placed", "point": "dryer", "room": "hall", "point_kind": "appliance", "name": "Dryer", "volts": {volts}}}"#
        );
        said(
            "two-hots-on-one-pole",
            &format!("panel 12\n{line} load\nroom Hall\n{point}\nlit dryer\noff {number}\ndark dryer\ndark dryer"),
        )
    }

    #[test]
    fn fires_for_240_volts_on_one_pole_only() {
        assert_eq!(
            proven("5 30", 240),
            ["5: Dryer is entered with 240 V and proven on a breaker of one pole, which is one hot only."]
        );
        assert!(proven("5-7 30/2", 240).is_empty());
        assert!(proven("5 30", 120).is_empty());
        let open = r#"panel 12
            5 30 load
            room Hall
            fact {"kind": "point_placed", "point": "dryer", "room": "hall", "point_kind": "appliance", "name": "Dryer", "volts": 240}
            lit dryer"#;
        assert!(said("two-hots-on-one-pole", open).is_empty(), "nothing is proven yet");
    }
}
