//! The card that hangs in the door against what is known now: which of its lines are wrong.

use super::card::{CardCell, CellKind, DRIFTS, cells};
use super::changed::{Changed, changed};
use crate::logbook::CardHung;
use crate::model::{HungLine, Moment, Panel, PanelId, PointId};
use crate::study::Study;

/// A line of the hanging card that is wrong now.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct WrongLine {
    /// The number, as it stands on the card.
    pub number: String,
    /// What hangs there; empty where the card has no such line.
    pub hangs: String,
    /// What the card would say now; empty where there is no such number any more.
    pub now: String,
    /// Why, a sentence each.
    pub why: Vec<String>,
    /// It sends the hand to the wrong breaker: it was written of a point that is proven on another one now.
    pub misleads: bool,
}

/// The card that hangs in a panel's door.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct HangingCard {
    /// The panel.
    pub panel: PanelId,
    /// Its name.
    pub name: String,
    /// The revision printed on it.
    pub revision: u64,
    /// When it was hung.
    pub at: Moment,
    /// Who said so.
    pub by: String,
    /// Height of a row of it, in mm, where that is known.
    pub row_mm: Option<f64>,
    /// Its lines that are wrong now, those that mislead first.
    pub wrong: Vec<WrongLine>,
}

/// Every card that hangs, in the order of the panels.
pub fn hanging(home: &Study) -> &[HangingCard] {
    struct Hanging(Vec<HangingCard>);
    let all: &Hanging = home.once(|| Hanging(home.panels().all().filter_map(|panel| of(home, panel)).collect()));
    &all.0
}

/// The fact that the card of this panel, as it would print now, hangs in its door; how high its rows are, whoever prints it knows.
pub fn to_hang(home: &Study, panel: &PanelId) -> CardHung {
    let line = |cell: CardCell| HungLine {
        number: cell.number,
        text: cell.text,
        notes: cell.notes,
        proven: cell.own.map(|own| own.proven).unwrap_or_default(),
    };
    CardHung {
        panel: panel.clone(),
        revision: home.seq(),
        row_mm: None,
        lines: cells(home, panel).into_iter().map(line).collect(),
    }
}

fn of(home: &Study, panel: &Panel) -> Option<HangingCard> {
    let hung = home.panels().hung(&panel.id)?;
    let now = cells(home, &panel.id);
    let mut wrong: Vec<WrongLine> = Vec::new();
    for (n, line) in hung.lines.iter().enumerate() {
        // The outer handles of a quad have two lines of one number.
        let before = hung.lines[..n].iter().filter(|other| other.number == line.number).count();
        let today = now.iter().filter(|cell| cell.number == line.number).nth(before);
        wrong.extend(compared(home, panel, line, today));
    }
    for cell in now.iter().filter(|cell| cell.kind != CellKind::Open) {
        if hung.lines.iter().all(|old| old.number != cell.number) {
            wrong.push(WrongLine {
                number: cell.number.clone(),
                hangs: String::new(),
                now: plain(&cell.text).to_owned(),
                why: vec!["It is not on the card that hangs.".into()],
                misleads: false,
            });
        }
    }
    wrong.sort_by_key(|line| !line.misleads);
    Some(HangingCard {
        panel: panel.id.clone(),
        name: panel.name.clone(),
        revision: hung.revision,
        at: hung.at,
        by: hung.by.clone(),
        row_mm: hung.row_mm,
        wrong,
    })
}

/// The words of a line without the mark that they no longer match.
fn plain(text: &str) -> &str {
    text.strip_prefix(DRIFTS).unwrap_or(text)
}

fn compared(home: &Study, panel: &Panel, line: &HungLine, today: Option<&CardCell>) -> Option<WrongLine> {
    let now: &[PointId] = today.and_then(|cell| cell.own.as_ref()).map_or(&[], |own| &own.proven);
    let Changed { mut why, misleads } = changed(home, &line.proven, now);
    // What is worked out is as true as own words; own words that no longer match are not.
    let says = |cell: &CardCell| {
        let hangs = plain(&line.text);
        hangs == cell.worded || (hangs == plain(&cell.text) && !cell.drifts)
    };
    let reset = |cell: &CardCell| cell.notes == line.notes;
    if today.is_some_and(|today| says(today) && reset(today)) && !misleads {
        return None;
    }
    if today.is_none() {
        why.push(format!("{} has no {} any more.", panel.name, line.number));
    }
    let notes = |notes: &[String]| if notes.is_empty() { "nothing".into() } else { format!("“{}”", notes.join("; ")) };
    if let Some(today) = today.filter(|today| says(today) && !reset(today)) {
        why.push(format!("Below it stands {}; now it is {}.", notes(&line.notes), notes(&today.notes)));
    }
    // Own words that no longer match are no better than what hangs.
    let better = |cell: &CardCell| if cell.drifts { cell.worded.clone() } else { cell.text.clone() };
    Some(WrongLine {
        number: line.number.clone(),
        hangs: line.text.clone(),
        now: today.map(better).unwrap_or_default(),
        why,
        misleads,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{Written, written};

    const HOUSE: &str = "panel 8\n1 20 kitchen\n3 20 hall\nroom Kitchen\nroom Hall\npoint Kitchen receptacle counter
point Kitchen appliance refrigerator\npoint Hall light lantern\nproof counter 1\nproof refrigerator 1";

    fn hung() -> Written {
        let mut written = written(HOUSE);
        let fact = to_hang(&written.home, &"main".parse().unwrap());
        written.fact(fact.into()).unwrap();
        written
    }

    fn wrong(acts: &str) -> Vec<(String, String, bool)> {
        let mut written = hung();
        written.acts(acts);
        let [card] = hanging(&written.home) else { panic!("one hangs") };
        assert_eq!((card.revision, card.by.as_str()), (written_revision(), "tester"));
        card.wrong.iter().map(|line| (line.number.clone(), line.why.join(" "), line.misleads)).collect()
    }

    fn written_revision() -> u64 {
        written(HOUSE).book.seq()
    }

    #[test]
    fn the_card_that_hangs_is_right_until_something_changes() {
        assert!(wrong("").is_empty());
        assert!(wrong("point Kitchen receptacle sink").is_empty(), "nothing more is proven");
        assert!(wrong("own 1 Kitchen counter = counter").is_empty(), "what hangs is as true as the own words since");
        let more = wrong("proof lantern 3");
        let since = "Proven on it since: Hall, lantern.";
        assert_eq!(more, [("3".into(), since.into(), false)], "it says “not proven”, and more is known now");
        assert!(hanging(&written(HOUSE).home).is_empty(), "no card hangs before somebody says so");
    }

    #[test]
    fn a_moved_breaker_makes_its_line_mislead() {
        let moved = wrong("move 1 5");
        let why = "Kitchen, counter is proven on 5 now. Kitchen, refrigerator is proven on 5 now.";
        assert_eq!(moved[0], ("1".into(), why.into(), true));
        let since = "Proven on it since: Kitchen, counter; Kitchen, refrigerator.";
        assert_eq!(moved[1], ("5".into(), since.into(), false), "where “Unused” hangs");
        let two = wrong("take-out 3");
        assert_eq!(two.len(), 1, "{two:?}");
    }

    #[test]
    fn a_device_to_reset_is_part_of_the_line() {
        let device = wrong("set 1 {\"protection\": \"gfci\"}");
        assert_eq!(device, [("1".into(), "Below it stands nothing; now it is “GFCI: reset here”.".into(), false)]);
    }

    #[test]
    fn own_words_that_hang_are_wrong_once_they_no_longer_match() {
        let mut w = written(&format!("{HOUSE}\nown 1 Kitchen, north = counter refrigerator\npoint Kitchen receptacle sink"));
        let fact = to_hang(&w.home, &"main".parse().unwrap());
        w.fact(fact.into()).unwrap();
        assert!(hanging(&w.home)[0].wrong.is_empty());
        w.acts("proof sink 1");
        let [line] = &hanging(&w.home)[0].wrong[..] else { panic!("{:?}", hanging(&w.home)) };
        assert_eq!((line.hangs.as_str(), line.now.as_str()), ("Kitchen, north", "Kitchen: refrigerator, 2 receptacles"));
        assert_eq!(line.why, ["Proven on it since: Kitchen, sink."]);
        w.acts("own 1 Kitchen, north = counter refrigerator sink");
        assert!(hanging(&w.home)[0].wrong.is_empty(), "they were kept, knowing of the sink");
    }

    #[test]
    fn the_two_lines_of_a_quads_outer_handles_are_told_apart() {
        let mut w = written("panel 8\n1a-3b 30/2 quad dryer\n1b-3a 20/2 quad heater");
        let fact = to_hang(&w.home, &"main".parse().unwrap());
        assert_eq!(fact.lines.iter().filter(|line| line.number == "1a-3b").count(), 2, "{fact:?}");
        w.fact(fact.into()).unwrap();
        assert!(hanging(&w.home)[0].wrong.is_empty(), "{:?}", hanging(&w.home));
    }

    #[test]
    fn a_new_card_takes_the_place_of_the_old_one() {
        let mut written = hung();
        written.acts("move 1 5");
        let fact = to_hang(&written.home, &"main".parse().unwrap());
        written.fact(fact.into()).unwrap();
        assert!(hanging(&written.home)[0].wrong.is_empty());
        let gone = CardHung { panel: "main".parse().unwrap(), revision: 0, row_mm: None, lines: Vec::new() };
        written.fact(gone.into()).unwrap();
        assert!(hanging(&written.home).is_empty(), "no card hangs any more");
    }
}
