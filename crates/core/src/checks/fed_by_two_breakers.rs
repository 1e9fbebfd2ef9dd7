//! Rule fed-by-two-breakers: one circuit has one breaker.
//!
//! Source: common practice, no published source. Told from the looks: a point that was lit with the one breaker alone off and with
//! another alone off, and dark with both. Each of the three was seen twice or read with a meter. Example: two circuits that were joined
//! in one box, on 3 and 7: with either of them off the outlet stays live.

use super::Found;
use super::{Checked, Rule, Severity, Source};
use crate::model::{Breaker, BreakerId, Point};
use crate::trace::sureness;

pub(super) const RULE: Rule = Rule {
    code: "fed-by-two-breakers",
    severity: Severity::Danger,
    why: "With one of the two off it stays live, and its wire can carry what both breakers let through.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for point in checked.home.house().points() {
        let Some((one, other)) = both(checked, point) else { continue };
        let number = |breaker: &Breaker| checked.home.panels().number(&breaker.id);
        let (a, b) = (number(one), number(other));
        let finding = found.breaker(
            one,
            format!("{} stays lit with {a} alone off and with {b} alone off, and is dark with both off: both feed it.", point.name),
            format!(
                "Leave {a} and {b} off, label both, and call an electrician: two circuits are joined somewhere. Open no box on either \
                 before both are off and it is read dead."
            ),
        );
        finding.key.push_str(&format!(":{}", point.id));
        finding.place.point = Some(point.id.clone());
    }
}

/// The two breakers that both have to be off.
fn both<'a>(checked: &Checked<'a>, point: &Point) -> Option<(&'a Breaker, &'a Breaker)> {
    let seen = sureness(checked.home, point);
    let stays_lit = |id: &BreakerId| {
        let alone = seen.iter().find(|(off, _)| off.len() == 1 && off.contains(id));
        alone.is_some_and(|(_, sure)| sure.lit >= 2 && sure.dark == 0)
    };
    let pairs = seen.iter().filter(|(off, sure)| off.len() == 2 && sure.dark >= 2 && sure.lit == 0);
    let mut pairs = pairs.filter_map(|(off, _)| off.first().zip(off.last()));
    let (a, b) = pairs.find(|(a, b)| stays_lit(a) && stays_lit(b))?;
    checked.home.panels().breaker(a).zip(checked.home.panels().breaker(b))
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    const HOUSE: &str = "panel 12\n3 20 a\n5 20 c\n7 20 b\nroom Hall\npoint Hall receptacle desk\nlit desk\n";

    #[test]
    fn fires_where_both_have_to_be_off() {
        let looks = "off 3\nlit desk\nlit desk\noff 7\ndark desk\ndark desk\non 3\nlit desk\nlit desk\non 7";
        assert_eq!(
            said("fed-by-two-breakers", &format!("{HOUSE}{looks}")),
            ["3: desk stays lit with 3 alone off and with 7 alone off, and is dark with both off: both feed it."]
        );
        let metered = "off 3\nvolts desk 120\noff 7\nvolts desk 0\non 3\nvolts desk 119\non 7";
        assert_eq!(said("fed-by-two-breakers", &format!("{HOUSE}{metered}")).len(), 1);
    }

    #[test]
    fn one_look_of_each_is_a_slip_as_likely() {
        let once = "off 3\nlit desk\noff 7\ndark desk\ndark desk\non 3\nlit desk\nlit desk\non 7";
        assert!(said("fed-by-two-breakers", &format!("{HOUSE}{once}")).is_empty());
        let usual = "off 3\nlit desk\nlit desk\noff 7\ndark desk\ndark desk\non 3\ndark desk\ndark desk";
        assert!(said("fed-by-two-breakers", &format!("{HOUSE}{usual}")).is_empty(), "7 alone feeds it");
    }
}
