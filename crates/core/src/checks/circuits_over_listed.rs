//! Rule circuits-over-listed: a panel holds no more circuits than it is listed for. A one-pole counts one, a
//! tandem two, a two-pole two, a three-pole three; the main does not count.
//!
//! Source: NEC 408.54, from memory; the count by poles is common practice. Example: 22 circuits in a panel
//! listed for 20.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};

pub(super) const RULE: Rule = Rule {
    code: "circuits-over-listed",
    severity: Severity::Fault,
    why: "The panel was tested with so many circuits and no more; the rest is heat and crowding.",
    source: Source::Code(Sections::nec("408.54", InCanada::Holds)),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all() {
        let Some(listed) = panel.details.circuits else { continue };
        let count: usize =
            checked.home.panels().breakers_of(&panel.id).filter(|b| !b.details.back_fed_main).map(|b| b.poles()).sum();
        if count > usize::from(listed) {
            found.panel(
                panel,
                format!("{count} circuits in a panel that is listed for {listed}."),
                format!("Combining light circuits or a sub-panel makes room. {FOR_QUALIFIED}"),
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn counts_poles_and_leaves_the_main_out() {
        let with = |listed: u8| {
            said(
                "circuits-over-listed",
                &format!(
                    "panel 12\nwith main {{\"details\": {{\"circuits\": {listed}}}}}\n1-3 60/2 main\n\
                     set 1-3 {{\"details\": {{\"back_fed_main\": true}}}}\n5a 15 a\n5b 15 b\n2-4 30/2 c\n6 20 d"
                ),
            )
        };
        assert_eq!(with(4), ["Main panel: 5 circuits in a panel that is listed for 4."]);
        assert!(with(5).is_empty());
    }
}
