//! Rule open-space: an opening without a breaker is closed with a filler plate.
//!
//! Source: NEC 408.7, from memory. Example: a knocked-out space through which the bus can be touched.

use super::Found;
use super::{Checked, FindingPlace, InCanada, Rule, Sections, Severity, Source};
use crate::logbook::{Fact, FillerSeen};
use crate::model::{Half, Slot, position};

pub(super) const RULE: Rule = Rule {
    code: "open-space",
    severity: Severity::Fault,
    why: "Fingers, tools and mice reach live metal through it.",
    source: Source::Code(Sections::nec("408.7", InCanada::Holds)),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for panel in checked.home.panels().all() {
        for space in panel.every_space() {
            for half in [None, Some(Half::Upper), Some(Half::Lower)] {
                let at = Slot { space, half };
                if checked.home.panels().filler(&panel.id, at) != Some(false) || position(panel, space).is_none() {
                    continue;
                }
                let place =
                    FindingPlace { panel: Some(panel.id.clone()), space: Some(at.to_string()), ..FindingPlace::default() };
                let number = format!("{}{at}", panel.tag);
                found
                    .add(
                        &format!("{}:{at}", panel.id),
                        format!("Space {number}"),
                        place,
                        "Open, and nothing closes it.".into(),
                        "Put nothing into it. Close it with a filler plate made for this panel; with the main off it is a small job, and \
                         the line-side lugs stay live even then."
                            .into(),
                    )
                    .mended_by("A filler is in", vec![Fact::FillerSeen(FillerSeen { panel: panel.id.clone(), at, filler: true })]);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    #[test]
    fn fires_where_somebody_saw_no_filler() {
        let seen = |filler: bool| {
            format!(
                "panel 12\n1 20 a\nfact {{\"kind\": \"filler_seen\", \"panel\": \"main\", \"at\": \"4\", \"filler\": {filler}}}"
            )
        };
        assert_eq!(said("open-space", &seen(false)), ["Space 4: Open, and nothing closes it."]);
        assert!(said("open-space", &seen(true)).is_empty());
        assert!(said("open-space", "panel 12\n1 20 a").is_empty(), "nobody has looked");
        assert!(said("open-space", &format!("{}\n4 20 b", seen(false))).is_empty(), "a breaker closes it");
        assert!(said_when_mended("open-space", &seen(false)).is_empty());
    }
}
