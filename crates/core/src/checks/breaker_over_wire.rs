//! Rule breaker-over-wire: a breaker larger than its wire lets the wire overheat before it trips.
//!
//! Source: NEC 240.4(D), Table 310.16, from memory. Motors and cooling units go by their plate instead
//! (rule data-plate), feeders have a rule of their own. Example: a 20 A breaker on 14 AWG copper, which is
//! good for 15 A.

use super::Found;
use super::{Checked, FOR_QUALIFIED, Rule, Severity, Source, placed_anew};
use crate::model::largest_breaker;

pub(super) const RULE: Rule = Rule {
    code: "breaker-over-wire",
    severity: Severity::Danger,
    why: "The wire can overheat in the wall before the breaker trips.",
    source: Source::Nec("240.4(D) and Table 310.16"),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (_, breaker) in checked.breakers() {
        let Some(wire) = breaker.wire else { continue };
        let allowed = largest_breaker(wire);
        let has_plate = || checked.points_on(&breaker.id).any(|point| point.plate.is_some());
        if breaker.amps <= allowed || breaker.details.back_fed_main || checked.is_feeder(breaker) || has_plate() {
            continue;
        }
        let finding = found.breaker(
            breaker,
            format!("{} breaker on {}. The wire is good for a {allowed} breaker at most.", breaker.amps, wire.words()),
            format!(
                "Have the breaker replaced by one of {allowed} or less that the panel's label names. A motor or cooling unit may \
                 be an exception: its plate decides. {FOR_QUALIFIED}"
            ),
        );
        if allowed.value() > 0.0 {
            finding.mended_by(format!("A {allowed} breaker is in its place"), vec![placed_anew(breaker, |b| b.amps = allowed)]);
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    fn on(line: &str) -> Vec<String> {
        said("breaker-over-wire", &format!("panel 24\n{line} darkroom"))
    }

    #[test]
    fn fires_for_20_amps_on_14_and_stays_silent_on_12() {
        assert_eq!(on("12 20 #14"), ["12: 20 A breaker on 14 AWG copper. The wire is good for a 15 A breaker at most."]);
        assert!(on("12 20 #12").is_empty());
        assert!(on("12 20 #10").is_empty(), "a smaller breaker on a bigger wire is fine");
        assert!(on("12 20").is_empty(), "nobody has read the wire");
        assert_eq!(on("12 20 #12al").len(), 1);
        assert!(said_when_mended("breaker-over-wire", "panel 24\n12 20 #14 darkroom").is_empty());
    }

    #[test]
    fn the_75_degree_column_counts_only_where_both_labels_were_read_and_never_for_nm_cable() {
        let eight = |terminals: &str, cable: &str| {
            let wire =
                format!(r#"{{"wire": {{"gauge": "8", "metal": "copper", "terminals": "{terminals}", "cable": "{cable}"}}}}"#);
            said("breaker-over-wire", &format!("panel 24\n5-7 50/2 range\nset 5-7 {wire}")).len()
        };
        assert_eq!(eight("unread", "conduit"), 1);
        assert_eq!(eight("read_75c", "conduit"), 0);
        assert_eq!(eight("read_75c", "nm"), 1);
    }
}
