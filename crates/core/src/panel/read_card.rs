//! Reads a card as it is typed, one breaker a line, and proposes the facts that follow.
//!
//! A line is `number amps[/poles] [words] what the card says [> panel]`: `1 20 kitchen`,
//! `5-7 50/2 range`, `14a 15 bell`, `9 20A gfci bath`, `18-20 60/2 greenhouse > sub`, `21 open`. The words
//! are `gfci`, `afci`, `dual`; `quad`, `slim`, `tied`; a wire as `#12` or `#4al`. Blank lines and lines that
//! begin with `#` are passed over. Also understood, as cards are written: `3/5 50 range`, `3,5 50A range`, `1: 20 kitchen`,
//! `1 20 amp kitchen`, and the amps at the end where they are named so: `1 Kitchen outlets 20A`. A line that cannot be read says where and what would be; the others
//! stand. Nothing is written here: the caller records the proposed facts.

use crate::logbook::{BreakerPlaced, Fact, Home, LabelClaimed, PanelDescribed};
use crate::model::{
    Amps, Breaker, BreakerId, Cable, Housing, Metal, Panel, Protection, Slot, Terminals, Tie, Wire, WireGauge, downward, fits,
    number_of, numbers, so_many,
};
use crate::study::Study;

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
    housing: Option<Housing>,
    tie: Option<Tie>,
    wire: Option<Wire>,
    label: String,
    feeds: Option<String>,
}

enum Unread {
    Nothing,
    Unclear(usize, String, String),
}

/// Reads the whole card. `new_id` gives an id for each new breaker.
pub fn read_card(home: &Home, panel: &Panel, text: &str, mut new_id: impl FnMut() -> BreakerId) -> Vec<CardLine> {
    let mut placed: Vec<Breaker> = home.panels().breakers_of(&panel.id).cloned().collect();
    let mut seen_here: Vec<BreakerId> = Vec::new();
    let mut lines = Vec::new();
    for (n, raw) in text.lines().enumerate() {
        let outcome = match parse(panel, raw) {
            Err(Unread::Nothing) => LabelOutcome::Nothing,
            Err(Unread::Unclear(column, wrong, accepted)) => LabelOutcome::Unclear { column, wrong, accepted },
            Ok(parsed) => propose(home, panel, parsed, &mut placed, &mut seen_here, &mut new_id),
        };
        lines.push(CardLine { line: n + 1, text: raw.to_owned(), outcome });
    }
    lines
}

fn propose(
    home: &Home,
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
        && let Err(refusal) = fits(panel, &parsed.at, placed.iter())
    {
        return LabelOutcome::Unclear { column: 1, wrong: refusal.wrong, accepted: refusal.accepted };
    }
    let before = known.map(|i| placed[i].clone());
    let id = before.as_ref().map_or_else(&mut *new_id, |b| b.id.clone());
    seen_here.push(id.clone());
    let mut details = before.as_ref().map(|b| b.details.clone()).unwrap_or_default();
    details.housing = parsed.housing.or(details.housing);
    details.tie = parsed.tie.unwrap_or(details.tie);
    let fed = parsed.feeds.as_deref().and_then(|name| panel_named(home, panel, name));
    if let (Some(name), None) = (&parsed.feeds, fed) {
        details.feeds.clone_from(name);
    }
    let fact = BreakerPlaced {
        breaker: id.clone(),
        panel: panel.id.clone(),
        at: parsed.at.clone(),
        amps: parsed.amps,
        protection: parsed.protection,
        wire: parsed.wire.or_else(|| before.as_ref().and_then(|b| b.wire)),
        details,
    };
    let mut facts = Vec::new();
    let same = before.as_ref().is_some_and(|b| {
        b.amps == fact.amps && b.protection == fact.protection && b.wire == fact.wire && b.details == fact.details
    });
    let claim = (!parsed.label.is_empty()).then(|| parsed.label.clone());
    if before.is_none() {
        placed.push(Breaker {
            id: id.clone(),
            panel: panel.id.clone(),
            at: parsed.at,
            amps: parsed.amps,
            protection: parsed.protection,
            wire: fact.wire,
            details: fact.details.clone(),
            claim: claim.clone(),
            state: Default::default(),
            own: None,
            kept: None,
        });
    }
    if !same {
        facts.push(Fact::BreakerPlaced(fact));
    }
    if claim.is_some() && before.as_ref().and_then(|b| b.claim.clone()) != claim {
        facts.push(Fact::LabelClaimed(LabelClaimed { breaker: id.clone(), text: parsed.label.clone() }));
    }
    if let Some(fed) = fed.filter(|fed| fed.details.fed_by.as_ref() != Some(&id)) {
        let mut described = PanelDescribed::from(fed);
        described.details.fed_by = Some(id);
        facts.push(Fact::PanelDescribed(described));
    }
    LabelOutcome::Breaker { number, amps: parsed.amps, label: parsed.label, known: known.is_some(), facts }
}

/// The other panel of that name or tag; `sub` is the only other one.
fn panel_named<'a>(home: &'a Home, here: &Panel, name: &str) -> Option<&'a Panel> {
    let others: Vec<&Panel> = home.panels().all().filter(|p| p.id != here.id).collect();
    let said = |p: &&&Panel| p.name.eq_ignore_ascii_case(name) || p.tag.eq_ignore_ascii_case(name);
    match (others.iter().find(said), others.as_slice()) {
        (Some(panel), _) => Some(panel),
        (None, [one]) if ["sub", "sub-panel", "subpanel"].contains(&name.to_ascii_lowercase().as_str()) => Some(one),
        _ => None,
    }
}

/// The panel as it would be drawn if what was read were recorded.
pub fn preview_card(home: &Home, panel: &Panel, lines: &[CardLine]) -> super::PanelView {
    let mut then = home.clone();
    for line in lines {
        let LabelOutcome::Breaker { facts, .. } = &line.outcome else { continue };
        for fact in facts {
            // What could not be recorded is not drawn either; its line says why when it is recorded.
            let _ = then.suppose(fact);
        }
    }
    let then = Study::of(then);
    super::view::panel_view(&then, &panel.id).cloned().unwrap_or_else(|| panic!("no panel {:?}; this is a bug", panel.id))
}

/// `2 pole`, `two-pole`, `2P`: several poles in words, and where.
fn poles_in_words(words: &[(usize, &str)]) -> Option<(usize, String)> {
    const WHOLE: [&str; 8] = ["2-pole", "3-pole", "two-pole", "three-pole", "double-pole", "2p", "3p", "2pole"];
    let is = |all: &[&str], word: &str| all.contains(&word.to_ascii_lowercase().as_str());
    words.iter().enumerate().find_map(|(n, (column, word))| {
        if is(&WHOLE, word) {
            return Some((*column, (*word).to_owned()));
        }
        let (_, next) = words.get(n + 1).filter(|(_, next)| is(&["pole", "poles"], next))?;
        is(&["2", "3", "two", "three", "double"], word).then(|| (*column, format!("{word} {next}")))
    })
}

/// `20A`, `50/2A`: a rating that says so itself.
fn is_amps(word: &str) -> bool {
    word.strip_suffix(['a', 'A']).is_some_and(|rating| rating.starts_with(|c: char| c.is_ascii_digit()) && is_rating(rating))
}

fn is_rating(word: &str) -> bool {
    word.split('/').all(|part| part.parse::<f64>().is_ok())
}

/// The words with the number freed of what stands behind it (`1:`, `1.`), and the amps second: they may stand at the end where
/// they are named as amps, and the word for them is left out.
fn amps_second(mut words: Vec<(usize, &str)>) -> Vec<(usize, &str)> {
    let is_unit = |word: &str| ["a", "amp", "amps", "ampere", "amperes"].contains(&word.to_ascii_lowercase().as_str());
    if let Some((_, first)) = words.first_mut() {
        *first = first.trim_end_matches([':', '.', ')', ',']);
    }
    let unit_at = |words: &[(usize, &str)], n: usize| words.get(n + 1).is_some_and(|(_, word)| is_unit(word));
    if words.get(1).is_some_and(|(_, word)| !is_rating(word) && !is_amps(word)) {
        let named = |n: &usize| is_amps(words[*n].1) || (is_rating(words[*n].1) && unit_at(&words, *n));
        if let Some(last) = (2..words.len()).rev().find(named) {
            let amps = words.remove(last);
            words.insert(1, amps);
            if let Some((_, before)) = words.get_mut(last) {
                *before = before.trim_end_matches([',', ';', ':']);
            }
            if words.get(last + 1).is_some_and(|(_, word)| is_unit(word)) && !is_amps(amps.1) {
                words.remove(last + 1);
            }
            return words;
        }
    }
    // `1 20 a`: with nothing behind it, the card may call the circuit so.
    let letter = words.get(2).is_some_and(|(_, word)| word.len() == 1) && words.len() == 3;
    if words.get(1).is_some_and(|(_, word)| is_rating(word)) && unit_at(&words, 1) && !letter {
        words.remove(2);
    }
    words
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
    let words = amps_second(words(line));
    let Some(&(first_column, first)) = words.first().filter(|(_, word)| !word.starts_with('#')) else {
        return Err(Unread::Nothing);
    };
    if line.chars().count() > 200 {
        return unclear(201, "This line is longer than 200 characters.".into(), "One breaker a line: 1 20 kitchen.");
    }
    let mut at = Vec::new();
    for part in first.split(['-', '/', ',']) {
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
    let (rating, poles) = match amps_word.trim_end_matches(['a', 'A']).split_once('/') {
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
            let Some(down) = downward(panel, at[0].space, poles) else {
                return unclear(
                    first_column,
                    format!(
                        "A {poles}-pole breaker does not fit at space {first}: its column ends there or the panel has no such space."
                    ),
                    &format!("The panel has spaces {}; start higher up.", numbers(panel)),
                );
            };
            at = down;
        } else if at.len() != poles {
            return unclear(
                amps_column,
                format!("{first} names {} and {amps_word} says {}.", so_many(at.len(), "space"), so_many(poles, "pole")),
                "Let both say the same: 5-7 50/2 range.",
            );
        }
    }
    let mut parsed = Parsed {
        at,
        amps: Amps::new(amps),
        protection: Protection::Standard,
        housing: None,
        tie: None,
        wire: None,
        label: String::new(),
        feeds: None,
    };
    let mut rest = &words[2..];
    while let Some((column, word)) = rest.first() {
        match word.to_ascii_lowercase().as_str() {
            "gfci" => parsed.protection = Protection::Gfci,
            "afci" => parsed.protection = Protection::Afci,
            "dual" => parsed.protection = Protection::DualFunction,
            "quad" => parsed.housing = Some(Housing::Quad),
            "slim" => parsed.housing = Some(Housing::Slim),
            "tied" => parsed.tie = Some(Tie::Handle),
            wire if wire.len() > 1 && wire.starts_with('#') => match read_wire(&wire[1..]) {
                Some(wire) => parsed.wire = Some(wire),
                None => {
                    return unclear(
                        *column,
                        format!("“{word}” is no wire size."),
                        "Write #14, #12, #10, #8, #6, #4, #3, #2, #1, #1/0 to #4/0, #250 to #600; #4al for aluminum.",
                    );
                }
            },
            _ => break,
        }
        rest = &rest[1..];
    }
    if let Some((column, said)) = poles_in_words(rest).filter(|_| parsed.at.len() == 1) {
        return unclear(
            column,
            format!("{first} names one space and “{said}” several poles."),
            "Name every space, 5-7 30 dryer, or the poles behind the amps: 5 30/2 dryer.",
        );
    }
    let halves = parsed.at.iter().any(|slot| slot.half.is_some());
    if parsed.housing.is_some() && !halves {
        return unclear(
            first_column,
            format!("{first} names whole spaces; quad and slim handles sit in halves."),
            "Write the halves: 2b-4a for the middle of a quad or a slim pair, 2a-4b for the outside of a quad.",
        );
    }
    if parsed.tie.is_some() && parsed.at.len() < 2 {
        return unclear(first_column, format!("{first} has one pole; there is nothing to tie."), "Write 5-7 20/2 tied lights.");
    }
    if let Some(arrow) = rest.iter().position(|(_, word)| *word == ">") {
        let name = rest[arrow + 1..].iter().map(|(_, word)| *word).collect::<Vec<_>>().join(" ");
        if name.is_empty() {
            return unclear(rest[arrow].0, "After > the panel it feeds is missing.".into(), "Write 18-20 60/2 greenhouse > sub.");
        }
        parsed.feeds = Some(name);
        rest = &rest[..arrow];
    }
    parsed.label = rest.iter().map(|(_, word)| *word).collect::<Vec<_>>().join(" ");
    Ok(parsed)
}

/// `12`, `4al`, `2/0cu`.
fn read_wire(text: &str) -> Option<Wire> {
    let (size, metal) = match text.strip_suffix("al") {
        Some(size) => (size, Metal::Aluminum),
        None => (text.strip_suffix("cu").unwrap_or(text), Metal::Copper),
    };
    WireGauge::named(size).map(|gauge| Wire { gauge, metal, terminals: Terminals::Unread, cable: Cable::NotRead })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{Written, written};

    fn read(text: &str) -> Vec<LabelOutcome> {
        let Written { home, .. } = written("panel 24");
        let mut n = 0;
        let panel = home.panels().all().next().unwrap().clone();
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
    fn a_card_is_read_as_people_write_it() {
        for (line, reads) in [
            ("3/5 50 range", "3-5 50 range"),
            ("3,5 50A range", "3-5 50 range"),
            ("3-5 50/2 range", "3-5 50 range"),
            ("1: 20 kitchen", "1 20 kitchen"),
            ("1. 20 kitchen", "1 20 kitchen"),
            ("1) 20A kitchen", "1 20 kitchen"),
            ("1 20 amp kitchen", "1 20 kitchen"),
            ("1 20 A kitchen", "1 20 kitchen"),
            ("1 20 a", "1 20 a"),
            ("1 20 a/c", "1 20 a/c"),
            ("1 Kitchen outlets 20A", "1 20 Kitchen outlets"),
            ("1 Kitchen outlets 20 amps", "1 20 Kitchen outlets"),
            ("1: Kitchen outlets, 20A", "1 20 Kitchen outlets"),
            ("2,4 Range 50A", "2-4 50 Range"),
            ("7 Dryer 30/2A", "7-9 30 Dryer"),
            ("1 gfci bath 20A", "1 20 bath"),
        ] {
            let lines = read(line);
            let LabelOutcome::Breaker { number, amps, label, .. } = &lines[0] else { panic!("{line}: {lines:?}") };
            assert_eq!(format!("{number} {} {label}", amps.value()), reads, "{line}");
        }
        // Several poles in words, with one space: it would be half a breaker.
        for line in ["1 Dryer 30 amp 2 pole", "1 30 two-pole dryer", "1 30 2P dryer"] {
            assert!(matches!(&read(line)[0], LabelOutcome::Unclear { wrong, .. } if wrong.contains("several poles")), "{line}");
        }
        assert!(matches!(&read("5-7 30 2-pole dryer")[0], LabelOutcome::Breaker { .. }));
        // A number without its unit may be part of the name: it is asked, not guessed.
        for line in ["1 Bedroom 2", "1 Kitchen outlets 20", "20 kitchen", "1 20A"] {
            let lines = read(line);
            let asked = matches!(&lines[0], LabelOutcome::Unclear { .. });
            assert_eq!(asked, line != "1 20A", "{line}: {lines:?}");
        }
    }

    #[test]
    fn what_a_card_reads_it_also_writes() {
        let text = "1 20 kitchen\n3a 15 bell\n3b 15 gfci porch\n5-7 50/2 #6 range\n9 open\n11-13 20/2 tied pantry / hall\n15 open
17 open\n19 open\n21 open\n23 open\n2a-4b 30/2 quad dryer\n2b-4a 20/2 quad heater\n6b-8a 20/2 slim pump\n10-12 60/2 #4al shed > sub
14 open\n16 open\n18 open\n20 open\n22 open\n24 open\n";
        let w = written(&format!("panel 24\n{}", text.replace("open", "open\n")));
        let panel = w.home.panels().all().next().unwrap();
        assert_eq!(crate::panel::write_card(&w.home, panel), text);
        let again = read_card(&w.home, panel, text, || panic!("nothing is new"));
        let facts = again.iter().map(|line| match &line.outcome {
            LabelOutcome::Breaker { facts, .. } => facts.len(),
            LabelOutcome::Nothing => 0,
            LabelOutcome::Unclear { wrong, .. } => panic!("{}: {wrong}", line.text),
        });
        assert_eq!(facts.sum::<usize>(), 0);
    }

    #[test]
    fn a_feeder_line_hangs_the_other_panel_on_its_breaker() {
        let mut w = written("panel 24\nsub greenhouse 8");
        w.act("18-20 60/2 greenhouse > sub").unwrap();
        let feeder = w.home.panels().breakers().next().unwrap();
        assert_eq!(w.home.panels().panels_on(&feeder.id).map(|p| p.name.as_str()).collect::<Vec<_>>(), ["greenhouse"]);
        let preview = read_card(&w.home, w.home.panels().all().next().unwrap(), "1 20 attic", || "n".parse().unwrap());
        let post = preview_card(&w.home, w.home.panels().all().next().unwrap(), &preview);
        assert_eq!(post.breakers.iter().map(|b| b.number.as_str()).collect::<Vec<_>>(), ["1", "18-20"]);
        assert_eq!(w.home.panels().breakers().count(), 1, "a preview records nothing");
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
            ("25 20 attic", "no space 25", "engraved there"),
            ("3 20 #13 attic", "no wire size", "#12"),
            ("3 20 quad attic", "names whole spaces", "2b-4a"),
            ("3 20 tied attic", "nothing to tie", "5-7"),
            ("3 20 attic >", "panel it feeds is missing", "> sub"),
            ("3b-5b 20/2 attic", "no breaker is made", "3b-5a"),
            ("5-8 50/2 range", "neighboring rows", "5-7"),
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
