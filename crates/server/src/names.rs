//! The names that people sign with: what is no name, and which look like one another.
//!
//! Which letters look alike is that of Unicode Technical Standard 39 (its table of confusables, by the crate `unicode-security`);
//! what stands in a name unseen is by its general category (`unicode-properties`).

use unicode_normalization::UnicodeNormalization;
use unicode_properties::{GeneralCategoryGroup, UnicodeGeneralCategory};
use unicode_security::{MixedScript, confusable_detection::skeleton};

/// The longest name.
const LONGEST: usize = 40;

/// What is wrong with a name, as a sentence.
pub(crate) fn wrong_with(name: &str) -> Option<&'static str> {
    let unseen = |c: char| {
        matches!(c.general_category_group(), GeneralCategoryGroup::Other)
            || matches!(c.general_category_group(), GeneralCategoryGroup::Separator) && c != ' '
            // Letters that are drawn as nothing: the fillers of Hangul, and the selectors of a variant.
            || matches!(c, '\u{115f}' | '\u{1160}' | '\u{3164}' | '\u{ffa0}' | '\u{fe00}'..='\u{fe0f}' | '\u{e0100}'..='\u{e01ef}')
    };
    if name.is_empty() || name.chars().count() > LONGEST {
        Some("Give a name of 1 to 40 characters.")
    } else if name.chars().any(unseen) {
        Some("There is a character in this name that is not seen. Type the name anew.")
    } else if !name.chars().any(char::is_alphanumeric) {
        Some("Give a name with at least one letter.")
    } else if !name.is_single_script() {
        Some("This name mixes letters of several scripts. Type it in one.")
    } else {
        None
    }
}

/// As a name is seen from afar: what looks alike is the same, upper and lower case too.
fn seen(name: &str) -> String {
    // Case before and after: a capital may look like a letter whose small form does not.
    let lower: String = name.nfkc().flat_map(char::to_lowercase).filter(|c| !c.is_whitespace()).collect();
    skeleton(&skeleton(&lower).flat_map(char::to_lowercase).collect::<String>()).collect()
}

/// Whether one name can be taken for the other.
pub(crate) fn look_alike(one: &str, other: &str) -> bool {
    seen(one) == seen(other) || skeleton(one).eq(skeleton(other))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_name_that_can_be_taken_for_another_is_known() {
        for name in ["owner", "OWNER", "Owner", "0wner", "оwner", "ow\u{0578}er", "ＯＷＮＥＲ", "o w n e r"] {
            assert!(look_alike("owner", name), "{name}");
        }
        for (one, other) in [("Ada", "Ida"), ("Ann", "Anna"), ("Bo", "Ben"), ("José", "Jose"), ("Ольга", "Олег")] {
            assert!(!look_alike(one, other), "{one} {other}");
        }
        assert!(look_alike("Bill", "BiII"), "capital i for l");
        assert!(look_alike("Marnie", "Mamie"), "rn for m");
    }

    #[test]
    fn a_name_is_of_letters_that_are_seen_in_one_script() {
        for name in ["Ada", "José", "O'Neill-Smith", "Ольга", "李小龍", "佐藤 さくら", "Ada 2", "Ł", "محمد"] {
            assert_eq!(wrong_with(name), None, "{name}");
        }
        for name in
            ["", "A\u{200b}da", "\u{202e}adA", "A\u{0}", "\u{3164}", "Ada\u{2028}", "...", "Аda", "Ad\u{fe0f}a", "Ad\u{e0041}a"]
        {
            assert!(wrong_with(name).is_some(), "{name:?}");
        }
        assert!(wrong_with(&"x".repeat(41)).is_some() && wrong_with(&"x".repeat(40)).is_none());
    }
}
