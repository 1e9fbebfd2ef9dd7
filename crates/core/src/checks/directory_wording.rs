//! Rule directory-wording: every circuit's clear, evident and specific purpose, and nothing that
//! depends on who lives there.
//!
//! Source: NEC 408.4(A), from memory; which words are vague is common practice. Example: "general
//! lights" could be any; "Emma's room" is nobody's after the next move.

use super::Found;
use super::{Checked, FindingPlace, InCanada, Rule, Sections, Severity, Source};
use crate::logbook::{CircuitWorded, Fact, LabelClaimed};
use crate::wording::{about_people, about_wording, wording};

pub(super) const RULE: Rule = Rule {
    code: "directory-wording",
    severity: Severity::Note,
    why: "A card that could mean anything sends the hand to the wrong breaker.",
    source: Source::Code(Sections::nec("408.4(A)", InCanada::Perhaps("2-100"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let home = checked.home;
    for breaker in home.panels().breakers() {
        let Some((own, wrong)) = breaker.own.as_ref().and_then(|own| Some((&own.text, about_wording(&own.text)?))) else {
            continue;
        };
        let finding = found.own_words(
            breaker,
            format!("Own words “{own}”: {wrong}."),
            "Write others on the Directory screen, or take those that are worked out.",
        );
        let none = CircuitWorded { breaker: breaker.id.clone(), text: String::new(), proven: Vec::new(), feeds: Vec::new() };
        finding.mended_by("The card says what is worked out", vec![none.into()]);
    }
    for breaker in home.panels().breakers() {
        let Some(claim) = &breaker.claim else { continue };
        let Some(wrong) = about_wording(claim) else { continue };
        let proven = wording(home, &breaker.id);
        let finding = found.breaker(
            breaker,
            format!("Old card “{claim}”: {wrong}."),
            if proven.is_empty() {
                "Trace the circuit; the new card is worded from what is proven.".into()
            } else {
                format!("The new card says “{proven}”.")
            },
        );
        let text: String = proven.chars().take(120).collect();
        if !text.is_empty() && about_wording(&text).is_none() {
            let fact = Fact::LabelClaimed(LabelClaimed { breaker: breaker.id.clone(), text });
            finding.mended_by("The new card hangs in the door", vec![fact]);
        }
    }
    for room in home.house().rooms() {
        if let Some(wrong) = about_wording(&room.name) {
            found.add(
                room.id.as_str(),
                format!("Room “{}”", room.name),
                FindingPlace::default(),
                format!("{wrong}."),
                "Rename the room on the House screen: it is printed on the card.".into(),
            );
        }
    }
    // Names of points and loads may be vague, since their room stands before them; of people they may not speak.
    for point in home.house().points() {
        let loads = home.loads().all().filter(|load| load.point == point.id).map(|load| load.name.as_str());
        let of_people = |name: &str| about_people(name).map(|wrong| (name.to_owned(), wrong));
        if let Some((name, wrong)) = std::iter::once(point.name.as_str()).chain(loads).find_map(of_people) {
            found.add(
                point.id.as_str(),
                format!("“{name}”"),
                FindingPlace { point: Some(point.id.clone()), ..FindingPlace::default() },
                format!("{wrong}."),
                "Give it another name: it may be printed on the card and on the plan.".into(),
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::findings;
    use crate::fixture::written;

    #[test]
    fn fires_on_old_labels_and_room_names_and_only_there() {
        let w = written("panel 24\n1 15 gen. light\n2 20 Kitchen counter\nroom Emma's room\nroom Kitchen");
        let found: Vec<_> =
            findings(&w.home).iter().filter(|f| f.code == "directory-wording").map(|f| f.about.as_str()).collect();
        assert_eq!(found, ["1", "Room “Emma's room”"]);
    }

    #[test]
    fn a_vague_label_is_mended_by_what_is_proven() {
        let acts = "panel 24\n1 15 gen. light\nroom Hall\npoint Hall light lamp\nlit lamp\noff 1\ndark lamp";
        assert!(crate::checks::said_when_mended("directory-wording", acts).is_empty());
    }
}
