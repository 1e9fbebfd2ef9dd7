//! Rule for-an-electrician: fuse boxes, split-bus panels and high-leg services are recorded and traced, and
//! work on them is an electrician's.
//!
//! Source: common practice, no published source. Example: a split-bus panel has no single main: its “lighting
//! main” kills only the lower half.

use super::Found;
use super::{Checked, Rule, Severity, Source};
use crate::model::{Interior, Service};

pub(super) const RULE: Rule = Rule {
    code: "for-an-electrician",
    severity: Severity::Fault,
    why: "What is safe in an ordinary panel is not safe here.",
    source: Source::Practice,
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all() {
        let said = match panel.details.interior {
            Interior::Fuses => {
                Some("Fuses instead of breakers. A fuse larger than its wire is the classic fault; pulling one is not a switch.")
            }
            Interior::SplitBus => Some(
                "Split bus: no single main. The one marked for lighting kills only part of it; the rest stays live. A breaker of \
                 two poles may be that one, so switching it off proves nothing about a point.",
            ),
            Interior::Breakers => None,
        };
        for message in said.into_iter().chain(
            (panel.service == Service::HighLeg)
                .then_some("High-leg service: leg B has 208 V to neutral. A 120 V load on it is destroyed."),
        ) {
            let finding = found.panel(
                panel,
                message.into(),
                "Trace it and keep its card; leave any work on it to an electrician, and ask about replacing it.",
            );
            finding.key.push_str(if message.starts_with("High") { ":service" } else { ":interior" });
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    #[test]
    fn fires_for_fuses_split_bus_and_high_leg() {
        let with = |json: &str| said("for-an-electrician", &format!("panel 12\nwith main {json}")).len();
        assert_eq!(with(r#"{"details": {"interior": "fuses"}}"#), 1);
        assert_eq!(with(r#"{"details": {"interior": "split_bus"}, "service": "high_leg"}"#), 2);
        assert_eq!(with(r#"{"service": "three_phase"}"#), 0);
        assert_eq!(with("{}"), 0);
    }
}
