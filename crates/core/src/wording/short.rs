//! Shorter words, where a card has no room for the whole ones.

/// Whole words and how they are shortened, the longest first. A word that is not here is never shortened, and none is cut.
const SHORT: &[(&str, &str)] = &[
    ("refrigerator", "refrig."),
    ("receptacles", "recept."),
    ("dehumidifier", "dehumid."),
    ("receptacle", "recept."),
    ("dishwasher", "dishw."),
    ("schoolroom", "schoolrm."),
    ("greenhouse", "grnhouse"),
    ("compressor", "compr."),
    ("microwave", "microw."),
    ("basement", "bsmt."),
    ("bathroom", "bath"),
    ("workshop", "wkshop"),
    ("bedroom", "bedrm."),
    ("kitchen", "kitch."),
    ("laundry", "laund."),
    ("exhaust", "exh."),
    ("counter", "ctr."),
    ("garage", "gar."),
    ("living", "liv."),
    ("dining", "din."),
    ("heater", "htr."),
    ("office", "off."),
    ("lights", "lts."),
    ("light", "lt."),
    ("north", "N"),
    ("south", "S"),
    ("upper", "up."),
    ("lower", "low."),
    ("west", "W"),
    ("east", "E"),
];

/// The paragraphs themselves, then shorter ones, with one word more shortened each time; the longest words come first.
pub(crate) fn shorter(paragraphs: &[String]) -> Vec<Vec<String>> {
    let mut all = vec![paragraphs.to_vec()];
    for (whole, short) in SHORT {
        let last = &all[all.len() - 1];
        let of_one = |text: &String| text.split(' ').map(|word| shortened(word, whole, short)).collect::<Vec<_>>().join(" ");
        let next: Vec<String> = last.iter().map(of_one).collect();
        if next != *last {
            all.push(next);
        }
    }
    all
}

/// A word with its comma or colon.
fn shortened(word: &str, whole: &str, short: &str) -> String {
    let end = word.trim_end_matches([',', ';', ':']);
    if end.to_lowercase() != whole {
        return word.to_owned();
    }
    let begins_large = end.chars().next().is_some_and(char::is_uppercase);
    let mut letters = short.chars();
    let short = match letters.next() {
        Some(first) if begins_large => first.to_uppercase().chain(letters).collect(),
        _ => short.to_owned(),
    };
    format!("{short}{}", &word[end.len()..])
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_longest_words_are_shortened_first_and_none_is_cut() {
        let shorter = |text: &str| -> Vec<String> { super::shorter(&[text.to_owned()]).into_iter().flatten().collect() };
        let all = shorter("Kitchen: refrigerator, 2 receptacles; north bedroom: light");
        assert_eq!(all[1], "Kitchen: refrig., 2 receptacles; north bedroom: light");
        assert_eq!(all[2], "Kitchen: refrig., 2 recept.; north bedroom: light");
        assert_eq!(all.last().unwrap(), "Kitch.: refrig., 2 recept.; N bedrm.: lt.");
        assert_eq!(shorter("Observatory: dome"), ["Observatory: dome"], "what is not in the table stays whole");
        let lengths: Vec<usize> = SHORT.iter().map(|(whole, _)| whole.len()).collect();
        assert!(SHORT.iter().all(|(whole, short)| short.len() < whole.len()));
        assert!(lengths.windows(2).all(|two| two[0] + 1 >= two[1]), "the table stands by length: {lengths:?}");
    }
}
