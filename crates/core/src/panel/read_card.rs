//! Reads a card as it is typed, one breaker a line, and proposes the facts that follow.
//!
//! A line is `number amps[/poles] [gfci|afci|dual] what the card says`: `1 20 kitchen`,
//! `5-7 50/2 range`, `14a 15 bell`, `9 20A gfci bath`, `21 open`. Blank lines and lines that begin
//! with `#` are passed over. A line that cannot be read says where and what would be; the others
//! stand. Nothing is written here: the caller records the proposed facts.

use super::{Breaker, Panel, Protection, Slot, number_of, place};
use crate::{Amps, BreakerId, BreakerPlaced, Fact, Home, LabelClaimed};

/// What became of one line.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct CardLine {
    /// From 1.
    pub line: usize,
    /// As typed.
    pub text: String,
    /// What it means.
    #[serde(flatten)]
    pub outcome: LabelOutcome,
}

/// What a typed line means.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "outcome", rename_all = "snake_case")]
pub enum LabelOutcome {
    /// Blank, a comment, or an open space: nothing to record.
    Nothing,
    /// A breaker: these facts record it (none when the logbook already says the same).
    Breaker {
        /// `5-7`.
        number: String,
        /// Its rating.
        amps: Amps,
        /// What the card says.
        label: String,
        /// Whether a breaker already sits exactly there and is only described anew.
        known: bool,
        /// To be recorded.
        facts: Vec<Fact>,
    },
    /// Not understood, or does not fit.
    Unclear {
        /// Where in the line, from 1.
        column: usize,
        /// What is wrong.
        wrong: String,
        /// What would be accepted.
        accepted: String,
    },
}

struct Parsed {
    at: Vec<Slot>,
    amps: Amps,
    protection: Protection,
    label: String,
}

enum Unread {
    Nothing,
    Unclear(usize, String, String),
}

/// Reads the whole card. `new_id` gives an id for each new breaker.
pub fn read_card(home: &Home, panel: &Panel, text: &str, mut new_id: impl FnMut() -> BreakerId) -> Vec<CardLine> {
    let mut placed: Vec<Breaker> = home.breakers_of(&panel.id).cloned().collect();
    let mut seen_here: Vec<BreakerId> = Vec::new();
    let mut lines = Vec::new();
    for (n, raw) in text.lines().enumerate() {
        let outcome = match parse(panel, raw) {
            Err(Unread::Nothing) => LabelOutcome::Nothing,
            Err(Unread::Unclear(column, wrong, accepted)) => LabelOutcome::Unclear { column, wrong, accepted },
            Ok(parsed) => propose(panel, parsed, &mut placed, &mut seen_here, &mut new_id),
        };
        lines.push(CardLine { line: n + 1, text: raw.to_owned(), outcome });
    }
    lines
}

fn propose(
    panel: &Panel,
    parsed: Parsed,
    placed: &mut Vec<Breaker>,
    seen_here: &mut Vec<BreakerId>,
    new_id: &mut impl FnMut() -> BreakerId,
) -> LabelOutcome {
    let number = number_of(&parsed.at);
    let known = placed.iter().position(|b| b.at == parsed.at);
    if let Some(twice) = known.map(|i| &placed[i].id).filter(|id| seen_here.contains(id)) {
        let _ = twice;
        return LabelOutcome::Unclear {
            column: 1,
            wrong: format!("{number} stands on this card twice."),
            accepted: "Keep one line for each breaker.".into(),
        };
    }
    if known.is_none()
        && let Err(refusal) = place::fits(panel, &parsed.at, placed.iter())
    {
        return LabelOutcome::Unclear { column: 1, wrong: refusal.wrong, accepted: refusal.accepted };
    }
    let before = known.map(|i| placed[i].clone());
    let id = before.as_ref().map_or_else(&mut *new_id, |b| b.id.clone());
    seen_here.push(id.clone());
    let mut facts = Vec::new();
    let same = before.as_ref().is_some_and(|b| b.amps == parsed.amps && b.protection == parsed.protection);
    if !same {
        facts.push(Fact::BreakerPlaced(BreakerPlaced {
            breaker: id.clone(),
            panel: panel.id.clone(),
            at: parsed.at.clone(),
            amps: parsed.amps,
            protection: parsed.protection,
            wire: before.as_ref().and_then(|b| b.wire),
        }));
    }
    let claim = (!parsed.label.is_empty()).then(|| parsed.label.clone());
    if claim.is_some() && before.as_ref().and_then(|b| b.claim.clone()) != claim {
        facts.push(Fact::LabelClaimed(LabelClaimed { breaker: id.clone(), text: parsed.label.clone() }));
    }
    if before.is_none() {
        placed.push(Breaker {
            id,
            panel: panel.id.clone(),
            at: parsed.at,
            amps: parsed.amps,
            protection: parsed.protection,
            wire: None,
            claim,
            state: Default::default(),
            kept: None,
        });
    }
    LabelOutcome::Breaker { number, amps: parsed.amps, label: parsed.label, known: known.is_some(), facts }
}

/// A word and the column (from 1, in characters) where it begins.
fn words(line: &str) -> Vec<(usize, &str)> {
    let mut words = Vec::new();
    let mut rest = line;
    let mut column = 1;
    while let Some(start) = rest.find(|c: char| !c.is_whitespace()) {
        column += rest[..start].chars().count();
        rest = &rest[start..];
        let end = rest.find(char::is_whitespace).unwrap_or(rest.len());
        words.push((column, &rest[..end]));
        column += rest[..end].chars().count();
        rest = &rest[end..];
    }
    words
}

fn parse(panel: &Panel, line: &str) -> Result<Parsed, Unread> {
    let unclear = |column: usize, wrong: String, accepted: &str| Err(Unread::Unclear(column, wrong, accepted.to_owned()));
    let words = words(line);
    let Some(&(first_column, first)) = words.first().filter(|(_, word)| !word.starts_with('#')) else {
        return Err(Unread::Nothing);
    };
    if line.chars().count() > 200 {
        return unclear(201, "This line is longer than 200 characters.".into(), "One breaker a line: 1 20 kitchen.");
    }
    let mut at = Vec::new();
    for part in first.split('-') {
        match part.parse::<Slot>() {
            Ok(slot) => at.push(slot),
            Err(_) => {
                return unclear(
                    first_column,
                    format!("A line begins with the space number; “{first}” is none."),
                    "Write the number, the amps and what the card says: 1 20 kitchen, 5-7 50/2 range, 14a 15 bell.",
                );
            }
        }
    }
    let Some(&(amps_column, amps_word)) = words.get(1) else {
        return unclear(
            first_column,
            format!("After the space number {first} the amps are missing."),
            "Write 1 20 kitchen, or 1 open for a space without a breaker.",
        );
    };
    if ["open", "blank", "empty"].contains(&amps_word.to_ascii_lowercase().as_str()) && words.len() == 2 {
        return Err(Unread::Nothing);
    }
    let (rating, poles) = match amps_word.split_once('/') {
        Some((rating, poles)) => (rating, Some(poles)),
        None => (amps_word, None),
    };
    let amps = rating.trim_end_matches(['a', 'A']).parse::<f64>().ok().filter(|a| (1.0..=400.0).contains(a));
    let Some(amps) = amps else {
        return unclear(
            amps_column,
            format!("After the space number {first} the amps are expected; “{amps_word}” is no rating."),
            &format!(
                "If {first} is the rating, put the space number before it: 1 {first} {}. Ratings are 1 to 400, two poles as 50/2.",
                words[1..].iter().map(|(_, word)| *word).collect::<Vec<_>>().join(" ")
            ),
        );
    };
    if let Some(poles) = poles {
        let Some(poles) = poles.parse::<usize>().ok().filter(|n| (1..=3).contains(n)) else {
            return unclear(
                amps_column,
                format!("After the stroke the number of poles is expected; “{amps_word}” has none."),
                "Write 50/2 for a two-pole breaker of 50 A.",
            );
        };
        if at.len() == 1 && poles > 1 && at[0].half.is_none() {
            let Some(down) = place::downward(panel, at[0].space, poles) else {
                return unclear(
                    first_column,
                    format!(
                        "A {poles}-pole breaker does not fit at space {first}: its column ends there or the panel has no such space."
                    ),
                    &format!("The panel has spaces 1 to {}; start higher up.", panel.spaces),
                );
            };
            at = down;
        } else if at.len() != poles {
            return unclear(
                amps_column,
                format!("{first} names {} spaces and {amps_word} says {poles} poles.", at.len()),
                "Let both say the same: 5-7 50/2 range.",
            );
        }
    }
    let mut rest = &words[2..];
    let protection = match rest.first().map(|(_, word)| word.to_ascii_lowercase()).as_deref() {
        Some("gfci") => Protection::Gfci,
        Some("afci") => Protection::Afci,
        Some("dual") => Protection::DualFunction,
        _ => Protection::Standard,
    };
    if protection != Protection::Standard {
        rest = &rest[1..];
    }
    let label = rest.iter().map(|(_, word)| *word).collect::<Vec<_>>().join(" ");
    Ok(Parsed { at, amps: Amps::new(amps), protection, label })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::logbook::fixture::{Written, written};

    fn read(text: &str) -> Vec<LabelOutcome> {
        let Written { home, .. } = written("panel 24");
        let mut n = 0;
        let panel = home.panel().unwrap().clone();
        read_card(&home, &panel, text, || {
            n += 1;
            format!("b{n}").parse().unwrap()
        })
        .into_iter()
        .map(|line| line.outcome)
        .collect()
    }

    fn wrong(outcome: &LabelOutcome) -> (usize, &str, &str) {
        match outcome {
            LabelOutcome::Unclear { column, wrong, accepted } => (*column, wrong, accepted),
            other => panic!("understood as {other:?}"),
        }
    }

    #[test]
    fn a_card_reads_as_it_is_typed() {
        let lines = read(
            "1 20 kitchen\n5-7 50/2 range\n\n# porch side\n14a 15 bell\n14b 15A cellar\n9 20a GFCI bath\n6 30/2 water heater\n21 open",
        );
        let numbers: Vec<_> = lines
            .iter()
            .filter_map(|l| match l {
                LabelOutcome::Breaker { number, amps, label, .. } => Some(format!("{number} {} {label}", amps.value())),
                _ => None,
            })
            .collect();
        assert_eq!(numbers, ["1 20 kitchen", "5-7 50 range", "14a 15 bell", "14b 15 cellar", "9 20 bath", "6-8 30 water heater"]);
    }

    #[test]
    fn a_line_without_a_space_number_says_what_to_write() {
        let lines = read("20 kitchn");
        let (column, said, accepted) = wrong(&lines[0]);
        assert_eq!(column, 4);
        assert!(said.contains("“kitchn” is no rating"), "{said}");
        assert!(accepted.contains("1 20 kitchn"), "{accepted}");
    }

    #[test]
    fn what_does_not_fit_is_said_with_what_would() {
        for (text, says, would) in [
            ("kitchen 20", "begins with the space number", "1 20 kitchen"),
            ("1", "amps are missing", "1 open"),
            ("25 20 attic", "no space 25", "1 to 24"),
            ("5-8 50/2 range", "neighbouring rows", "5-7"),
            ("5-7 50/3 range", "names 2 spaces", "5-7 50/2"),
            ("23 50/2 range", "does not fit at space 23", "1 to 24"),
            ("3 9000 sun", "no rating", "1 to 400"),
            ("3 50/x range", "number of poles", "50/2"),
        ] {
            let lines = read(text);
            let (_, said, accepted) = wrong(&lines[0]);
            assert!(said.contains(says), "{text}: {said}");
            assert!(accepted.contains(would), "{text}: {accepted}");
        }
        let lines = read("1 20 kitchen\n1 15 pantry\n3-5 30/2 dryer\n5 20 attic");
        assert!(wrong(&lines[1]).1.contains("twice"));
        assert!(wrong(&lines[3]).1.contains("taken by breaker 3-5"));
    }
}
