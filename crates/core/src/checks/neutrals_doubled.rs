//! Rule neutrals-doubled: one neutral under each terminal of the bar.
//!
//! Source: NEC 408.41, from memory. Example: two white wires under one screw.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};
use crate::logbook::{Fact, PanelDescribed};

pub(super) const RULE: Rule = Rule {
    code: "neutrals-doubled",
    severity: Severity::Fault,
    why: "Loosening one for work opens the other, and its loads can see up to 240 V.",
    source: Source::Code(Sections::nec("408.41", InCanada::NotKnown("several neutrals under one terminal of the bar"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all() {
        let Some(count) = panel.details.neutrals_doubled.filter(|count| *count > 0) else { continue };
        let message = format!(
            "{count} {} of the neutral bar with more than one neutral.",
            if count == 1 { "terminal" } else { "terminals" }
        );
        let mut described = PanelDescribed::from(panel);
        described.details.neutrals_doubled = Some(0);
        found
            .panel(panel, message, format!("Have each put under a terminal of its own. {FOR_QUALIFIED}"))
            .mended_by("Each neutral has its own terminal now", vec![Fact::PanelDescribed(described)]);
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    #[test]
    fn fires_for_any_terminal_with_two() {
        let with = |n: &str| format!("panel 12\nwith main {{\"details\": {{\"neutrals_doubled\": {n}}}}}");
        assert_eq!(
            said("neutrals-doubled", &with("3")),
            ["Main panel: 3 terminals of the neutral bar with more than one neutral."]
        );
        assert!(said("neutrals-doubled", &with("0")).is_empty());
        assert!(said("neutrals-doubled", &with("null")).is_empty());
        assert!(said_when_mended("neutrals-doubled", &with("3")).is_empty());
    }
}
