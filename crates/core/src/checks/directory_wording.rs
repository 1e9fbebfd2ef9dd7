//! Rule directory-wording: every circuit's clear, evident and specific purpose, and nothing that
//! depends on who lives there.
//!
//! Source: NEC 408.4(A), from memory; which words are vague is common practice. Example: "general
//! lights" could be any; "Emma's room" is nobody's after the next move.

use super::Found;
use super::{Checked, FindingPlace, InCanada, Rule, Sections, Severity, Source};
use crate::logbook::{Fact, LabelClaimed};
use crate::wording::wording;

pub(super) const RULE: Rule = Rule {
    code: "directory-wording",
    severity: Severity::Note,
    why: "A card that could mean anything sends the hand to the wrong breaker.",
    source: Source::Code(Sections::nec("408.4(A)", InCanada::Perhaps("2-100"))),
    check,
};

/// Words that name no place and no load.
const VAGUE: &[&str] = &[
    "gen",
    "general",
    "misc",
    "miscellaneous",
    "various",
    "other",
    "others",
    "stuff",
    "things",
    "rest",
    "etc",
    "house",
    "power",
    "unknown",
    "plugs",
    "plug",
    "rec",
    "recs",
    "recept",
    "receptacle",
    "receptacles",
    "outlet",
    "outlets",
    "light",
    "lights",
    "lighting",
    "lts",
    "ltg",
    "switch",
    "switches",
    "circuit",
    "and",
    "the",
    "of",
    "more",
    "some",
    "all",
];

/// People, by what they are to somebody.
const PEOPLE: &[&str] = &[
    "mom",
    "mum",
    "moms",
    "dad",
    "dads",
    "mother",
    "father",
    "kid",
    "kids",
    "boy",
    "boys",
    "girl",
    "girls",
    "baby",
    "son",
    "daughter",
    "grandma",
    "grandpa",
    "granny",
    "grandmother",
    "grandfather",
    "tenant",
    "renter",
    "nanny",
];

/// What is wrong with a wording for the card; `None` when it is clear.
pub fn about_wording(text: &str) -> Option<String> {
    let words: Vec<String> = text
        .split(|c: char| !c.is_alphanumeric() && c != '\'' && c != '’')
        .filter(|w| !w.is_empty())
        .map(|w| w.replace('’', "'").to_lowercase())
        .collect();
    if words.is_empty() {
        return Some("says nothing".into());
    }
    if let Some(word) = words.iter().find(|w| w.ends_with("'s") || w.ends_with("s'") || PEOPLE.contains(&w.as_str())) {
        return Some(format!("“{word}” depends on who lives there; name the place"));
    }
    if words.iter().all(|w| VAGUE.contains(&w.as_str()) || w.chars().all(|c| c.is_ascii_digit())) {
        return Some("names no place and no load; say which room and what".into());
    }
    words
        .iter()
        .find(|w| ["gen", "general", "misc", "miscellaneous", "various", "etc", "stuff"].contains(&w.as_str()))
        .map(|word| format!("“{word}” could be anything; say which room and what"))
}

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let home = checked.home;
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
}

#[cfg(test)]
mod tests {
    use super::*;
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

    #[test]
    fn an_empty_wording_says_nothing() {
        assert!(about_wording(" - ").unwrap().contains("nothing"));
    }
}
