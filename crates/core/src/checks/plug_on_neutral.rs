//! Rule plug-on-neutral: a breaker that plugs onto a neutral rail needs one.
//!
//! Source: NEC 110.3(B), from memory. Example: a plug-on neutral breaker in a panel without the rail.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};
use crate::model::NeutralLead;

pub(super) const RULE: Rule = Rule {
    code: "plug-on-neutral",
    severity: Severity::Fault,
    why: "Without its neutral the breaker does not sense a fault.",
    source: Source::Code(Sections::nec("110.3(B)", InCanada::Holds)),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in checked.breakers() {
        if breaker.details.neutral == Some(NeutralLead::PlugOn) && panel.details.plug_on_neutral == Some(false) {
            found.breaker(
                breaker,
                "Plug-on neutral breaker in a panel without a neutral rail.".into(),
                format!("Have it replaced by one with a pigtail that the label names. {FOR_QUALIFIED}"),
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_without_the_rail() {
        let with = |rail: &str, lead: &str| {
            let panel = format!("with main {{\"details\": {{\"plug_on_neutral\": {rail}}}}}");
            said("plug-on-neutral", &format!("panel 12\n{panel}\n1 20 gfci a\nset 1 {{\"details\": {{\"neutral\": {lead}}}}}"))
                .len()
        };
        assert_eq!(with("false", "\"plug_on\""), 1);
        assert_eq!((with("true", "\"plug_on\""), with("null", "\"plug_on\""), with("false", "\"pigtail\"")), (0, 0, 0));
    }
}
