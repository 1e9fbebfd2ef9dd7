//! Rule neutral-ground: neutral and ground are joined at the service disconnect and only there. Which device
//! that is is asked, never inferred.
//!
//! Source: NEC 250.24, 250.142 and 250.32, from memory. Example: a bonding screw in a sub-panel. This program
//! never offers a mend: wrong either way is dangerous, and it is an electrician's.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::model::{Bond, ServiceDisconnect};

pub(super) const RULE: Rule = Rule {
    code: "neutral-ground",
    severity: Severity::Danger,
    why: "Joined twice, metal carries current; joined nowhere, a fault does not trip a breaker and metal stays live.",
    source: Source::Code(Sections::nec("250.24, 250.142 and 250.32", InCanada::Perhaps("10-210"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all() {
        let details = &panel.details;
        let Some(bond) = details.bond else { continue };
        let behind = details.fed_by.is_some() || details.service_disconnect == Some(ServiceDisconnect::Ahead);
        let (severity, message, remedy) = match (bond, behind, details.service_disconnect) {
            (Bond::Joined, true, _) if details.three_wire_feeder => (
                Severity::Note,
                "Neutral and ground are joined, on an old three-wire feeder. An exception may allow that; it is recorded, not judged.",
                "Ask an electrician when the feeder is next worked on.",
            ),
            (Bond::Joined, true, _) => (
                Severity::Danger,
                "Neutral and ground are joined in a panel behind the service disconnect. There they must be apart.",
                "Touch nothing, and call an electrician.",
            ),
            (Bond::Apart, false, Some(ServiceDisconnect::Here)) => (
                Severity::Danger,
                "The service disconnect is in this panel, and neutral and ground are not joined in it.",
                "Touch nothing, and call an electrician.",
            ),
            (_, false, None) => (
                Severity::Note,
                "How neutral and ground stand was recorded, but not which device is the service disconnect: nothing follows yet.",
                "Look outside: is there a disconnect, and what is it marked? Ask an electrician if in doubt. Do not infer it from “main”.",
            ),
            _ => continue,
        };
        found.panel(panel, message.into(), remedy).severity = severity;
    }
}

#[cfg(test)]
mod tests {
    use super::Severity;
    use crate::checks::findings;
    use crate::fixture::written;

    fn of(acts: &str) -> Vec<(Severity, bool)> {
        let home = written(acts).home;
        findings(&home).iter().filter(|f| f.code == "neutral-ground").map(|f| (f.severity, f.mend.is_some())).collect()
    }

    #[test]
    fn joined_where_apart_and_joined_nowhere_are_dangers_without_a_mend() {
        let main = |json: &str| of(&format!("panel 12\nwith main {{\"details\": {json}}}"));
        let danger = [(Severity::Danger, false)];
        assert_eq!(main(r#"{"bond": "joined", "service_disconnect": "ahead"}"#), danger);
        assert_eq!(main(r#"{"bond": "apart", "service_disconnect": "here"}"#), danger);
        assert!(main(r#"{"bond": "joined", "service_disconnect": "here"}"#).is_empty());
        assert!(main(r#"{"bond": "apart", "service_disconnect": "ahead"}"#).is_empty());
        assert_eq!(main(r#"{"bond": "joined"}"#), [(Severity::Note, false)], "asked, not inferred");
        assert!(main("{}").is_empty());
    }

    #[test]
    fn a_sub_panel_keeps_them_apart_but_an_old_three_wire_feeder_is_not_judged() {
        let sub = |json: &str| of(&format!("panel 12\n1-3 60/2 shed\nsub Shed 8 1-3\nwith shed {{\"details\": {json}}}"));
        assert_eq!(sub(r#"{"bond": "joined"}"#), [(Severity::Danger, false)]);
        assert!(sub(r#"{"bond": "apart"}"#).is_empty());
        assert_eq!(sub(r#"{"bond": "joined", "three_wire_feeder": true}"#), [(Severity::Note, false)]);
    }
}
