//! Rule directory-wording: every circuit's clear, evident and specific purpose, and nothing that
//! depends on who lives there.
//!
//! Source: NEC 408.4(A), from memory; which words are vague is common practice. Example: "general
//! lights" could be any; "Emma's room" is nobody's after the next move.

use super::Found;
use super::{Checked, FindingPlace, InCanada, Rule, Sections, Severity, Source};
use crate::logbook::{CircuitWorded, Fact, LabelClaimed};
use crate::wording::{about_people, about_wording, called, wording};

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
        // A load stands on the card only where it stays.
        let on_card = called(home, point).name;
        let of_people = |name: &str| about_people(name).map(|wrong| (name.to_owned(), wrong));
        let names = std::iter::once(point.name.as_str()).chain(on_card.as_deref());
        if let Some((name, wrong)) = names.into_iter().find_map(of_people) {
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
    fn own_words_are_read_and_names_that_are_printed_may_not_tell_of_people() {
        let said = |acts: &str| crate::checks::said("directory-wording", &format!("panel 24\nroom Hall\n{acts}"));
        let own = said("1 20 Hall\nown 1 Gen. light");
        assert_eq!(own.len(), 1, "{own:?}");
        assert!(own[0].contains("Own words “Gen. light”"), "{own:?}");
        assert!(crate::checks::said_when_mended("directory-wording", "panel 24\n1 20 Hall\nown 1 General").is_empty());
        let point = |name: &str| {
            let point = format!(
                "{{\"kind\":\"point_placed\",\"point\":\"p\",\"room\":\"hall\",\"point_kind\":\"receptacle\",\"name\":\"{name}\",\"volts\":120}}"
            );
            said(&format!("fact {point}")).len()
        };
        assert_eq!((point("Emma's desk"), point("desk")), (1, 0));
    }

    #[test]
    fn a_vague_label_is_mended_by_what_is_proven() {
        let acts = "panel 24\n1 15 gen. light\nroom Hall\npoint Hall light lamp\nlit lamp\noff 1\ndark lamp";
        assert!(crate::checks::said_when_mended("directory-wording", acts).is_empty());
    }
}
