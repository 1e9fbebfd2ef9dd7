//! Rule hots-on-two-singles: what two hots feed opens with one handle, by a tie or a two-pole breaker.
//!
//! Source: NEC 240.15(B), from memory. Told from the looks: a point of 240 V that went dark with the one single breaker alone off,
//! and with another alone off. Each of the two was seen twice or read with a meter; where the point goes on and off by itself, only a
//! meter counts. Example: a wall heater on 5 and 7, two breakers of one pole without a tie.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};
use crate::logbook::{BreakersJoined, Fact};
use crate::model::{Breaker, Point, Tie, Volts, legs_of, volts_between};
use crate::trace::sureness;

pub(super) const RULE: Rule = Rule {
    code: "hots-on-two-singles",
    severity: Severity::Danger,
    why: "With one of the two off it does not run, and half of it is still live for the hand that opens it.",
    source: Source::Code(Sections::nec("240.15(B)", InCanada::Perhaps("14-302"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for point in checked.home.house().points().filter(|point| point.volts > Volts::new(120)) {
        let Some((one, other)) = two_singles(checked, point) else { continue };
        let number = |breaker: &Breaker| checked.home.panels().number(&breaker.id);
        let finding = found.breaker(
            one,
            format!(
                "{} went dark with {} alone off and with {} alone off: its two hots are on two breakers of one pole without a tie.",
                point.name,
                number(one),
                number(other)
            ),
            format!(
                "Switch off both, and read it dead hot to hot and each hot to ground, before it is opened. Have a listed handle tie \
                 or a two-pole breaker put in. {FOR_QUALIFIED}"
            ),
        );
        finding.key.push_str(&format!(":{}", point.id));
        finding.place.point = Some(point.id.clone());
        let panel = checked.panel_of(one);
        let tied = checked.home.panels().joined(&one.id, &other.id);
        if tied.is_ok_and(|at| volts_between(panel.service, &legs_of(panel, &at)).value() > 120) {
            let joined = BreakersJoined { breaker: one.id.clone(), with: other.id.clone(), tie: Tie::Handle };
            finding.mended_by("Their handles are tied now", vec![Fact::BreakersJoined(joined)]);
        }
    }
}

/// The two single breakers, each of which alone made the point dark.
pub(super) fn two_singles<'a>(checked: &Checked<'a>, point: &Point) -> Option<(&'a Breaker, &'a Breaker)> {
    let seen = sureness(checked.home, point);
    let is_lit = seen.iter().any(|(off, sure)| off.is_empty() && sure.lit > 0);
    let alone = seen.iter().filter(|(off, sure)| off.len() == 1 && sure.dark >= 2).filter_map(|(off, _)| off.first());
    let mut dark = alone.filter_map(|id| checked.home.panels().breaker(id)).filter(|breaker| breaker.poles() == 1);
    let pair = dark.next().zip(dark.next());
    pair.filter(|_| is_lit && dark.next().is_none())
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    const HEATER: &str =
        "panel 12\n5 20 a\n7 20 b\n9 20 c\nroom Hall\npoint Hall appliance heater\nheater is 240 V\nlit heater\n";

    #[test]
    fn fires_where_either_of_two_makes_it_dark() {
        let either = "off 5\ndark heater\ndark heater\non 5\noff 7\ndark heater\ndark heater\non 7";
        let house = format!("{HEATER}{either}");
        assert_eq!(
            said("hots-on-two-singles", &house),
            [
                "5: heater went dark with 5 alone off and with 7 alone off: its two hots are on two breakers of one pole without a tie."
            ]
        );
        assert!(said("two-hots-on-one-pole", &house).is_empty(), "said once");
        assert!(said_when_mended("hots-on-two-singles", &house).is_empty());
        let metered = format!("{HEATER}off 5\nvolts heater 0\non 5\noff 7\nvolts heater 0\non 7");
        assert_eq!(said("hots-on-two-singles", &metered).len(), 1);
        let cycles = format!("{HEATER}goes-by heater thermostat\n{either}");
        assert!(said("hots-on-two-singles", &cycles).is_empty(), "it may have been off by itself");
        assert!(said("hots-on-two-singles", &house.replace("240 V", "120 V")).is_empty());
    }

    #[test]
    fn one_slip_is_not_enough() {
        let once = format!("{HEATER}off 5\ndark heater\ndark heater\non 5\noff 7\ndark heater\non 7");
        assert!(said("hots-on-two-singles", &once).is_empty());
        let together = format!("{HEATER}off 5\noff 7\ndark heater\ndark heater");
        assert!(said("hots-on-two-singles", &together).is_empty());
    }
}
