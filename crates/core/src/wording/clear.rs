//! Whether words on a card are clear: NEC 408.4(A) asks for each circuit's clear, evident and specific purpose and for nothing that
//! depends on who lives there (from memory); which words are vague is common practice.

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

/// Rooms that are for everybody, though their name stands in the genitive.
const FOR_ALL: &[&str] = &[
    "men's",
    "women's",
    "ladies'",
    "gentlemen's",
    "boys'",
    "girls'",
    "guests'",
    "visitors'",
    "staff's",
    "butler's",
    "janitor's",
];

fn words(text: &str) -> Vec<String> {
    text.split(|c: char| !c.is_alphanumeric() && c != '\'' && c != '’')
        .filter(|w| !w.is_empty())
        .map(|w| w.replace('’', "'").to_lowercase())
        .collect()
}

/// Whether it speaks of the people who live there; `None` where it does not.
pub(crate) fn about_people(text: &str) -> Option<String> {
    let of_somebody = |word: &&String| {
        let genitive = word.ends_with("'s") || word.ends_with("s'");
        (genitive && !FOR_ALL.contains(&word.as_str())) || PEOPLE.contains(&word.as_str())
    };
    let all = words(text);
    all.iter().find(of_somebody).map(|word| format!("“{word}” depends on who lives there; name the place"))
}

/// What is wrong with a wording for the card; `None` when it is clear.
pub fn about_wording(text: &str) -> Option<String> {
    let words = words(text);
    if words.is_empty() {
        return Some("says nothing".into());
    }
    if let Some(wrong) = about_people(text) {
        return Some(wrong);
    }
    if words.iter().all(|w| VAGUE.contains(&w.as_str()) || w.chars().all(|c| c.is_ascii_digit())) {
        return Some("names no place and no load; say which room and what".into());
    }
    words
        .iter()
        .find(|w| ["gen", "general", "misc", "miscellaneous", "various", "etc", "stuff"].contains(&w.as_str()))
        .map(|word| format!("“{word}” could be anything; say which room and what"))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_empty_wording_says_nothing() {
        assert!(about_wording(" - ").unwrap().contains("nothing"));
    }

    #[test]
    fn people_are_not_named_and_rooms_for_everybody_are() {
        for text in ["Emma's desk", "dad’s shed", "Baby monitor", "Tenants' cellar"] {
            assert!(about_people(text).is_some(), "{text}");
        }
        for text in ["Men's room", "Ladies’ room", "Glass shelf", "Butler's pantry", "Bus stop"] {
            assert!(about_people(text).is_none(), "{text}");
        }
    }
}
