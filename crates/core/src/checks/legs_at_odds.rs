//! Rule legs-at-odds: a row whose leg was read differs from what the numbering tells.
//!
//! Source: common practice, no published source: in most panels legs alternate down the rows; some small,
//! split-bus or side-mounted interiors do not. Example: 0 V between spaces 1 and 3.

use super::Found;
use super::{Checked, Rule, Severity, Source};
use crate::model::Side;

pub(super) const RULE: Rule = Rule {
    code: "legs-at-odds",
    severity: Severity::Note,
    why: "The reading counts. If it was a slip, legs and voltages here are wrong.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all() {
        for read in panel.legs_read.iter().filter(|read| panel.leg_by_formula(read.row) != read.leg) {
            let spaces: Vec<_> = [Side::Left, Side::Right]
                .into_iter()
                .filter_map(|side| panel.space_at(side, read.row))
                .map(|space| format!("{}{space}", panel.tag))
                .collect();
            let finding = found.panel(
                panel,
                format!(
                    "{}: read as leg {:?}; by the numbering it would be leg {:?}.",
                    super::and(&spaces),
                    read.leg,
                    panel.leg_by_formula(read.row)
                ),
                "If the interior is an unusual one, set this aside. Else read again: 240 V between two terminals is two legs, 0 V \
                 is one.",
            );
            finding.key.push_str(&format!(":{}", read.row));
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_where_the_reading_differs() {
        assert_eq!(
            said("legs-at-odds", "panel 12\nread 3 1 0"),
            ["Main panel: 3 and 4: read as leg A; by the numbering it would be leg B."]
        );
        assert!(said("legs-at-odds", "panel 12\nread 3 1 240\nread 5 1 0").is_empty());
    }
}
