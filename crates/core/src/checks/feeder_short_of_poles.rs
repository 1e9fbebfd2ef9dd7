//! Rule feeder-short-of-poles: a panel has as many legs as its feeder has poles.
//!
//! Source: common practice, no published source. Example: a shed panel described as split-phase on a one-pole feeder breaker:
//! both of its legs are one, its two-poles give 0 V, and a shared neutral in it carries the sum. Points that are proven on the
//! feeder itself are a note: something branches off before the panel.

use super::Found;
use super::{Checked, Rule, Severity, Source};

pub(super) const RULE: Rule = Rule {
    code: "feeder-short-of-poles",
    severity: Severity::Fault,
    why: "What is said of its legs, volts and shared neutrals is wrong then, and a neutral can be overloaded unnoticed.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, feeder) in checked.breakers() {
        for panel in checked.home.panels().panels_on(&feeder.id) {
            let legs = panel.service.legs().len();
            if feeder.poles() < legs {
                let poles = if feeder.poles() == 1 { "one pole".to_owned() } else { format!("{} poles", feeder.poles()) };
                let number = checked.home.panels().number(&feeder.id);
                found.breaker(
                    feeder,
                    format!("{} is described with {legs} legs, and its feeder {number} has {poles}.", panel.name),
                    "Count the hot wires that come in. If there are fewer, describe the panel so; its 240 V breakers and shared \
                     neutrals are then to be looked at by an electrician.",
                );
            }
            let beside: Vec<String> = checked.points_on(&feeder.id).map(|point| point.name.clone()).collect();
            if !beside.is_empty() && feeder.poles() == 1 {
                let finding = found.breaker(
                    feeder,
                    format!("It feeds {}, and {} directly, too.", panel.name, super::and(&beside)),
                    "Find where the cable branches off. What is not behind the panel is usually on a breaker of its own.",
                );
                finding.severity = Severity::Note;
                finding.key.push_str(":beside");
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    fn with(line: &str, service: &str, more: &str) -> Vec<String> {
        let number = line.split(' ').next().unwrap();
        let acts = format!("panel 12\n{line} shed\nsub Shed 6 {number}\nwith shed {{\"service\": \"{service}\"}}\n{more}");
        said("feeder-short-of-poles", &acts)
    }

    #[test]
    fn fires_for_two_legs_on_one_pole_and_not_where_they_match() {
        assert_eq!(with("1 20", "split_phase", ""), ["1: Shed is described with 2 legs, and its feeder 1 has one pole."]);
        assert!(with("1 20", "one_leg_120", "").is_empty());
        assert!(with("1-3 60/2", "split_phase", "").is_empty());
        assert_eq!(with("1-3 60/2", "three_phase", ""), ["1-3: Shed is described with 3 legs, and its feeder 1-3 has 2 poles."]);
    }

    #[test]
    fn a_receptacle_on_the_feeder_itself_is_a_note() {
        let proven = "room Shed\npoint Shed receptacle door\nlit door\noff 1\ndark door\ndark door";
        assert_eq!(with("1 20", "one_leg_120", proven), ["1: It feeds Shed, and door directly, too."]);
    }
}
