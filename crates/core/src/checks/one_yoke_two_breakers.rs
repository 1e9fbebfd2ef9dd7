//! Rule one-yoke-two-breakers: the halves of one receptacle that hang on two breakers open together, by a tie or a
//! two-pole breaker.
//!
//! Source: NEC 210.7, from memory. Example: a counter receptacle without the tab between its halves, one on breaker 1 and
//! one on 3. Only halves that are proven are judged.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};

pub(super) const RULE: Rule = Rule {
    code: "one-yoke-two-breakers",
    severity: Severity::Fault,
    why: "With one breaker off, half of the box is still live for the hand that opens it.",
    source: Source::Code(Sections::nec("210.7", InCanada::Perhaps("14-302"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    if checked.home.house().points().all(|point| point.details.half_of.is_none()) {
        return;
    }
    for (breaker, point) in checked.breakers().flat_map(|(_, breaker)| checked.points_on(&breaker.id).map(move |p| (breaker, p)))
    {
        let Some(first) = &point.details.half_of else { continue };
        let other = checked.breakers().map(|(_, other)| other).find(|other| checked.points_on(&other.id).any(|p| &p.id == first));
        let Some(other) = other.filter(|other| other.id != breaker.id) else { continue };
        // The rule on shared neutrals says it then.
        if checked.home.panels().shared_neutral_of(&breaker.id).is_some_and(|group| group.contains(&other.id)) {
            continue;
        }
        let (one, two) = (checked.home.panels().number(&other.id), checked.home.panels().number(&breaker.id));
        let name = checked.home.house().point(first).map_or("", |first| first.name.as_str());
        let finding = found.breaker(
            breaker,
            format!(
                "The halves of {name} are on {one} and {two}, which can be switched off one by one. Today's rule wants one common \
                 disconnect."
            ),
            format!(
                "Switch off both before the box is opened. A cable with two hots and one neutral is the usual way to feed it: if \
                 so, say that {one} and {two} share a neutral. Have a listed handle tie or a two-pole breaker put in. {FOR_QUALIFIED}"
            ),
        );
        finding.key.push_str(&format!(":{}", point.id));
        finding.place.point = Some(point.id.clone());
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_for_halves_on_two_breakers_and_not_for_one() {
        let half = r#"fact {"kind": "point_placed", "point": "low", "room": "hall", "point_kind": "receptacle", "name": "low", "volts": 120, "details": {"half_of": "wall"}}"#;
        let house = format!("panel 12\n1 20 a\n3 20 b\nroom Hall\npoint Hall receptacle wall\n{half}\nproof wall 1\n");
        let one_by_one = format!("{house}proof low 3\n");
        assert_eq!(
            said("one-yoke-two-breakers", &one_by_one),
            [
                "3: The halves of wall are on 1 and 3, which can be switched off one by one. Today's rule wants one common disconnect."
            ]
        );
        assert!(said("one-yoke-two-breakers", &format!("{house}proof low 1")).is_empty(), "one breaker feeds both");
        assert!(said("one-yoke-two-breakers", &format!("{one_by_one}share 1 3")).is_empty());
        assert!(said("one-yoke-two-breakers", &house).is_empty(), "the other half is not proven");
    }
}
