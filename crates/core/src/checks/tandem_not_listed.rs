//! Rule tandem-not-listed: tandems go only where the panel's label lists them, and only of the kind that fits:
//! hooked ones into notched spaces, those without a hook as replacements in old panels without notches.
//!
//! Source: NEC 110.3(B), from memory; notch and hook are common practice. Example: a tandem in space 4 of a
//! panel whose label lists 13 to 24.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};
use crate::logbook::{BreakerMoved, Fact};
use crate::model::{Breaker, Half, Housing, Slot, Tandems};
use crate::panel::open_slots;

pub(super) const RULE: Rule = Rule {
    code: "tandem-not-listed",
    severity: Severity::Fault,
    why: "Forced or filed to fit, it grips badly, and the panel's listing is void.",
    source: Source::Code(Sections::nec("110.3(B)", InCanada::Holds)),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in
        checked.breakers().filter(|(_, b)| matches!(b.housing(), Housing::Tandem | Housing::Quad) || slim_pair(b))
    {
        let halves = checked
            .home
            .panels()
            .breakers_of(&panel.id)
            .flat_map(|b| &b.at)
            .filter(|slot| slot.space == breaker.at[0].space)
            .count();
        if breaker.at.len() == 1 && halves > 1 && breaker.at[0].half == Some(Half::Lower) {
            continue; // said once, of the upper handle
        }
        let listed = |slot: &Slot| match &panel.details.tandems {
            Tandems::NotRead | Tandems::All => true,
            Tandems::None => false,
            Tandems::In(spaces) => spaces.contains(&slot.space),
        };
        let message = if let Some(slot) = breaker.at.iter().find(|slot| !listed(slot)) {
            let what = if slim_pair(breaker) { "Half-height two-pole" } else { "Tandem" };
            match &panel.details.tandems {
                Tandems::In(spaces) => format!(
                    "{what} in space {}; the label lists them in {} only.",
                    slot.space,
                    super::and(&spaces.iter().map(u8::to_string).collect::<Vec<_>>())
                ),
                _ => format!("{what} in space {}; the label lists none for this panel.", slot.space),
            }
        } else {
            match (breaker.details.hooked, panel.details.notched) {
                (Some(false), Some(true)) => "A tandem without a hook in a notched panel: that kind is for old panels.".into(),
                (Some(true), Some(false)) => "A tandem with a hook in a panel without notches: it cannot sit right.".into(),
                _ => continue,
            }
        };
        let finding = found.breaker(
            breaker,
            message,
            format!("Combine light circuits, move one to an open space, or add a sub-panel instead. {FOR_QUALIFIED}"),
        );
        if let Some((words, facts)) = two_singles(checked, breaker) {
            finding.mended_by(words, facts);
        }
    }
}

/// A slim two-pole that straddles two spaces needs the same permission as a tandem in each.
fn slim_pair(breaker: &Breaker) -> bool {
    breaker.housing() == Housing::Slim && breaker.poles() > 1 && breaker.at.windows(2).any(|two| two[0].space != two[1].space)
}

/// A single breaker in an open space for one of its handles, and one in its own space for the other. One that shares a neutral
/// stays beside its partner, where a tie reaches; a handle of a two-pole stays, too.
fn two_singles(checked: &Checked<'_>, breaker: &Breaker) -> Option<(String, Vec<Fact>)> {
    let panels = checked.home.panels();
    let space = breaker.at[0].space;
    let here: Vec<&Breaker> =
        panels.breakers_of(&breaker.panel).filter(|b| b.at.iter().any(|slot| slot.space == space)).collect();
    if here.iter().any(|b| b.poles() > 1 || panels.shared_neutral_of(&b.id).is_some()) {
        return None;
    }
    let moved = |b: &Breaker, slot: Slot| Fact::from(BreakerMoved { breaker: b.id.clone(), at: vec![slot] });
    let Some(other) = here.into_iter().find(|b| b.id != breaker.id) else {
        return Some((format!("It sits in space {space} as a single breaker now"), vec![moved(breaker, Slot::whole(space))]));
    };
    let (slot, _) = open_slots(checked.home, breaker, None).into_iter().find(|(slot, _)| slot.space != space)?;
    let words = format!("{} sits in space {slot} and {} in {space} as single breakers now", breaker.number(), other.number());
    Some((words, vec![moved(breaker, slot), moved(other, Slot::whole(space))]))
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    fn with(details: &str, more: &str) -> Vec<String> {
        said("tandem-not-listed", &format!("panel 24\nwith main {{\"details\": {details}}}\n4a 15 a\n4b 15 b\n{more}"))
    }

    #[test]
    fn fires_where_the_label_does_not_list_it_and_says_it_once() {
        assert_eq!(with(r#"{"tandems": "none"}"#, ""), ["4a: Tandem in space 4; the label lists none for this panel."]);
        assert_eq!(
            with(r#"{"tandems": {"in": [22, 24]}}"#, ""),
            ["4a: Tandem in space 4; the label lists them in 22 and 24 only."]
        );
        assert!(with(r#"{"tandems": {"in": [4]}}"#, "").is_empty());
        assert!(with(r#"{"tandems": "all"}"#, "").is_empty());
        assert!(with("{}", "").is_empty(), "the label was not read");
        assert_eq!(with(r#"{"tandems": {"in": [4, 6]}}"#, "6b-8a 30/2 quad c").len(), 1, "a quad reaches into 8");
    }

    #[test]
    fn fires_for_the_wrong_kind() {
        let hook = |hooked: bool, notched: bool| {
            let set = format!("set 4a {{\"details\": {{\"hooked\": {hooked}}}}}");
            with(&format!("{{\"tandems\": \"all\", \"notched\": {notched}}}"), &set).len()
        };
        assert_eq!((hook(false, true), hook(true, false), hook(true, true), hook(false, false)), (1, 1, 0, 0));
    }

    #[test]
    fn one_that_shares_a_neutral_is_not_told_to_move_away() {
        let proposed = |more: &str| {
            let acts =
                format!("panel 24\nwith main {{\"details\": {{\"tandems\": \"none\"}}}}\n4a 15 a\n4b 15 b\n6a 15 c\n{more}");
            let home = crate::fixture::written(&acts).home;
            crate::checks::findings(&home).iter().find(|f| f.code == "tandem-not-listed").unwrap().mend.is_some()
        };
        assert!(proposed(""));
        assert!(!proposed("share 4a 6a"));
    }

    #[test]
    fn a_half_height_two_pole_needs_the_same_permission() {
        let slim = |tandems: &str| {
            said(
                "tandem-not-listed",
                &format!("panel 24\nwith main {{\"details\": {{\"tandems\": {tandems}}}}}\n4b-6a 30/2 slim heater"),
            )
        };
        assert_eq!(slim("\"none\""), ["4b-6a: Half-height two-pole in space 4; the label lists none for this panel."]);
        assert_eq!(slim(r#"{"in": [4]}"#), ["4b-6a: Half-height two-pole in space 6; the label lists them in 4 only."]);
        assert!(slim(r#"{"in": [4, 6]}"#).is_empty());
        assert!(slim("\"all\"").is_empty());
        assert!(slim("\"not_read\"").is_empty());
    }
}
