//! Line by line: how likely each cause was as the trouble was told, and after each look.

use super::of_home::at_home;
use super::planner::Search;
use super::said::Words;
use super::view::{capital, cause_words, percent, seen_words};
use crate::model::TroubleId;
use crate::study::Study;

/// How the chances came about.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct TroubleWhy {
    /// The causes that are or were likely, the likeliest now first.
    pub causes: Vec<String>,
    /// What was told, then each look, in their order.
    pub lines: Vec<WhyLine>,
}

/// A line, with what is believed after it.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct WhyLine {
    /// What was told or seen.
    pub words: String,
    /// How likely each of the causes is then, in percent, in their order.
    pub percent: Vec<u8>,
}

/// A cause that was never this likely is left out.
const WORTH_TELLING: f64 = 0.05;
/// So many causes at most.
const CAUSES: usize = 6;

/// How the chances of a trouble came about; `None` where there is none of that id.
pub fn trouble_why(home: &Study, id: &TroubleId) -> Option<TroubleWhy> {
    let trouble = home.troubles().trouble(id)?;
    let at = at_home(home, trouble);
    let words = Words { home, at: &at };
    let mut search = Search::new(&at.case);
    let mut lines = vec![("As it was told, with how often each cause happens".to_owned(), by_words(&words, &search))];
    for (told, seen) in &trouble.looks {
        let looked = at.look(told).and_then(|look| Some((look, at.saw(look, &seen.saw)?)));
        let Some((look, saw)) = looked else { continue };
        search.see(look, saw);
        lines.push((seen_words(&words, told, seen), by_words(&words, &search)));
    }
    let mut causes: Vec<(String, f64, f64)> = Vec::new();
    for (n, (_, believed)) in lines.iter().enumerate() {
        for (cause, p) in believed {
            let now = if n + 1 == lines.len() { *p } else { 0.0 };
            match causes.iter_mut().find(|(known, ..)| known == cause) {
                Some(known) => *known = (known.0.clone(), known.1.max(*p), now),
                None => causes.push((cause.clone(), *p, now)),
            }
        }
    }
    causes.retain(|(_, most, _)| *most >= WORTH_TELLING);
    causes.sort_by(|a, b| b.2.total_cmp(&a.2).then(b.1.total_cmp(&a.1)));
    causes.truncate(CAUSES);
    let causes: Vec<String> = causes.into_iter().map(|(cause, ..)| cause).collect();
    let of = |believed: &[(String, f64)]| -> Vec<u8> {
        let share = |cause: &String| believed.iter().find(|(known, _)| known == cause).map_or(0.0, |(_, p)| *p);
        causes.iter().map(|cause| percent(share(cause))).collect()
    };
    let lines = lines.iter().map(|(words, believed)| WhyLine { words: words.clone(), percent: of(believed) }).collect();
    Some(TroubleWhy { causes, lines })
}

/// Causes as they are told apart to a reader.
fn by_words(words: &Words<'_>, search: &Search<'_>) -> Vec<(String, f64)> {
    let mut all: Vec<(String, f64)> = Vec::new();
    for (key, p) in search.belief.causes() {
        let cause = capital(&cause_words(words, key));
        match all.iter_mut().find(|(known, _)| *known == cause) {
            Some((_, sum)) => *sum += p,
            None => all.push((cause, p)),
        }
    }
    all
}
