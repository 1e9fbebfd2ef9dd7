//! Rule directory-wording: every circuit's clear, evident and specific purpose, and nothing that
//! depends on who lives there.
//!
//! Source: NEC 408.4(A), from memory; which words are vague is common practice. Example: "general
//! lights" could be any; "Emma's room" is nobody's after the next move.

use super::{Finding, Severity};
use crate::Home;

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

pub(super) fn check(home: &Home, found: &mut Vec<Finding>) {
    let mut note = |breaker, about: String, message: String, remedy: &str| {
        found.push(Finding {
            code: "directory-wording".into(),
            severity: Severity::Note,
            breaker,
            about,
            message,
            remedy: remedy.into(),
            source: "NEC 408.4(A), from memory; local code comes first".into(),
        });
    };
    for breaker in home.breakers() {
        if let Some(claim) = &breaker.claim
            && let Some(wrong) = about_wording(claim)
        {
            note(
                Some(breaker.id.clone()),
                breaker.number(),
                format!("Old card “{claim}”: {wrong}."),
                "Trace the circuit; the new card is worded from what is proven.",
            );
        }
    }
    for room in home.rooms() {
        if let Some(wrong) = about_wording(&room.name) {
            note(
                None,
                format!("Room “{}”", room.name),
                format!("{wrong}."),
                "Rename the room on the House screen: it is printed on the card.",
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{findings, logbook::fixture::written};

    #[test]
    fn fires_on_old_labels_and_room_names_and_only_there() {
        let w = written("panel 24\n1 15 gen. light\n2 20 Kitchen counter\nroom Emma's room\nroom Kitchen");
        let found: Vec<_> = findings(&w.home).into_iter().map(|f| f.about).collect();
        assert_eq!(found, ["1", "Room “Emma's room”"]);
    }

    #[test]
    fn an_empty_wording_says_nothing() {
        assert!(about_wording(" - ").unwrap().contains("nothing"));
    }
}
