//! The directory as a sheet, and own words that somebody wrote into it.

use super::card::{CardCell, CellKind, cells};
use crate::logbook::Fact;
use crate::model::BreakerId;
use crate::panel::PassedOver;
use crate::study::Study;
use crate::wording::about_wording;

/// The headings of the sheet.
pub const DIRECTORY_COLUMNS: [&str; 8] = ["Panel", "Number", "Amps", "Worked out", "Own words", "Below it", "Load", "Known"];

/// Every line of every card, a row each.
pub fn directory_rows(home: &Study) -> Vec<[String; 8]> {
    let rows = home.panels().all().flat_map(|panel| cells(home, &panel.id).into_iter().map(move |cell| (panel, cell)));
    // The second part of a breaker only says with which it goes.
    let rows = rows.filter(|(_, cell)| cell.own.is_some() || cell.kind == CellKind::Open);
    rows.map(|(panel, cell)| {
        [
            panel.name.clone(),
            cell.number.clone(),
            cell.amps.clone(),
            cell.worded.clone(),
            cell.own.as_ref().map(|own| own.text.clone()).unwrap_or_default(),
            cell.notes.join("; "),
            cell.does.map(|does| does.letter().1.to_owned()).unwrap_or_default(),
            known(&cell),
        ]
    })
    .collect()
}

fn known(cell: &CardCell) -> String {
    let known = match cell.kind {
        CellKind::Proven => "proven",
        CellKind::NotProven => "not proven",
        CellKind::NothingFound => "nothing known is on it",
        CellKind::Open => "unused",
    };
    if cell.drifts { format!("{known}; the own words no longer match") } else { known.to_owned() }
}

/// Own words that a sheet proposes for a circuit.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct WordsProposed {
    /// The row of the sheet, from 1.
    pub row: usize,
    /// The breaker.
    pub breaker: BreakerId,
    /// `24`, `G3`.
    pub tag: String,
    /// What the card says now.
    pub before: String,
    /// What it would say.
    pub after: String,
    /// What is wrong with the words, where something is.
    pub wrong: Option<String>,
    /// The line that writes them.
    pub fact: Fact,
}

/// What a sheet of own words comes to.
#[derive(Debug, Clone, Default, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct WordsRead {
    /// What it would change, row by row.
    pub proposed: Vec<WordsProposed>,
    /// Rows that say what the card says already.
    pub unchanged: usize,
    /// Rows that gave nothing, without the blank ones.
    pub passed_over: Vec<PassedOver>,
}

/// Reads own words out of a sheet with the columns Number and Own words, and Panel where there are several. Writes nothing.
pub fn read_words(home: &Study, rows: &[Vec<String>]) -> Result<WordsRead, String> {
    let column = |row: &[String], name: &str| row.iter().position(|cell| cell.trim().eq_ignore_ascii_case(name));
    let [panel_column, number_column, _, _, words_column, ..] = DIRECTORY_COLUMNS;
    let heading = rows.iter().position(|row| column(row, number_column).is_some() && column(row, words_column).is_some());
    let Some(heading) = heading else {
        return Err(format!(
            "No row has the headings {number_column} and {words_column}. Write the sheet out of the Directory, and change its column \
             {words_column}."
        ));
    };
    let at = |name: &str| column(&rows[heading], name);
    let (panel_at, number_at, words_at) = (at(panel_column), at(number_column), at(words_column));
    let cell = |row: &[String], at: Option<usize>| at.and_then(|at| row.get(at)).map_or("", |cell| cell.trim()).to_owned();
    let mut read = WordsRead::default();
    let mut seen: Vec<BreakerId> = Vec::new();
    for (n, row) in rows.iter().enumerate().skip(heading + 1).filter(|(_, row)| row.iter().any(|cell| !cell.trim().is_empty())) {
        let (panel, number, words) = (cell(row, panel_at), cell(row, number_at), cell(row, words_at));
        let words = words.split_whitespace().collect::<Vec<_>>().join(" ");
        match proposed(home, n + 1, (&panel, &number), words) {
            Ok(Some(one)) if seen.contains(&one.breaker) => {
                let why = format!("{} stands in the sheet twice; the first row counts.", one.tag);
                read.passed_over.push(PassedOver { row: n + 1, why });
            }
            Ok(Some(one)) if one.before == one.after => {
                seen.push(one.breaker);
                read.unchanged += 1;
            }
            Ok(Some(one)) => {
                seen.push(one.breaker.clone());
                read.proposed.push(one);
            }
            Ok(None) => read.unchanged += 1,
            Err(why) => read.passed_over.push(PassedOver { row: n + 1, why }),
        }
    }
    Ok(read)
}

/// What a row proposes; nothing at an open space without words.
fn proposed(home: &Study, row: usize, (panel, number): (&str, &str), words: String) -> Result<Option<WordsProposed>, String> {
    let meant = |known: &&crate::model::Panel| panel.is_empty() || known.name.trim().eq_ignore_ascii_case(panel);
    let panels: Vec<_> = home.panels().all().filter(meant).collect();
    let on = match panels.as_slice() {
        [one] => one,
        [] => return Err(format!("There is no panel “{panel}”.")),
        _ => return Err("Several panels could be meant: name one in the column Panel.".into()),
    };
    let cells = cells(home, &on.id);
    let Some(cell) = cells.iter().find(|cell| cell.number.eq_ignore_ascii_case(number)) else {
        return Err(format!("{} has no “{number}”.", on.name));
    };
    let Some(own) = &cell.own else {
        return if words.is_empty() { Ok(None) } else { Err(format!("No breaker sits at {number} of {}.", on.name)) };
    };
    let count = words.chars().count();
    if count > 120 {
        return Err(format!("The words have {count} characters; a line takes 120."));
    }
    let (before, after) = (own.text.clone(), words.clone());
    let shown = |own: &str| if own.is_empty() { cell.worded.clone() } else { own.to_owned() };
    // Who leaves in what is worked out writes no own words.
    let words = if before.is_empty() && words == cell.worded { String::new() } else { after };
    Ok(Some(WordsProposed {
        row,
        breaker: own.breaker.clone(),
        tag: home.panels().number(&own.breaker),
        before: shown(&before),
        after: shown(&words),
        wrong: if words.is_empty() { None } else { about_wording(&words) },
        fact: crate::logbook::CircuitWorded { text: words, ..own.clone() }.into(),
    }))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    const HOUSE: &str = "panel 8\n1 20 kitchen\n3 20 hall\n5-7 40/2 shed\nsub Shed 4 5-7\nshed: 1 15 lamp\nroom Kitchen
point Kitchen receptacle counter\nproof counter 1\nown 3 Doorbell";

    fn sheet(rows: &[&str]) -> Vec<Vec<String>> {
        rows.iter().map(|row| row.split('|').map(str::to_owned).collect()).collect()
    }

    #[test]
    fn what_goes_out_comes_back_and_changes_nothing() {
        let home = written(HOUSE).home;
        let rows = directory_rows(&home);
        assert_eq!(rows[0], ["Main panel", "1", "20", "Kitchen: receptacle", "", "", "receptacles and others", "proven"]);
        let all: Vec<Vec<String>> =
            std::iter::once(DIRECTORY_COLUMNS.map(str::to_owned).to_vec()).chain(rows.iter().map(|row| row.to_vec())).collect();
        let read = read_words(&home, &all).unwrap();
        assert!(read.proposed.is_empty() && read.passed_over.is_empty(), "{read:?}");
        assert_eq!(read.unchanged, rows.len());
    }

    #[test]
    fn changed_words_are_proposed_and_what_cannot_be_is_said() {
        let home = written(HOUSE).home;
        let read = read_words(
            &home,
            &sheet(&[
                "My card||",
                "Panel|Number|Own words",
                "main panel|1|Kitchen,  counter",
                "Main panel|3|",
                "Shed|1|General",
                "Shed|9|Lamp",
                "Barn|1|x",
                "Main panel|2|Lamp",
                "|1|Kitchen",
                "Main panel|1|again",
                "||",
            ]),
        )
        .unwrap();
        let said: Vec<_> = read.proposed.iter().map(|one| (one.tag.as_str(), one.before.as_str(), one.after.as_str())).collect();
        let worked_out = "Spare: nothing known is on it (old card: hall)";
        assert_eq!(
            said,
            [
                ("1", "Kitchen: receptacle", "Kitchen, counter"),
                ("3", "Doorbell", worked_out),
                ("S1", "Spare: nothing known is on it (old card: lamp)", "General")
            ]
        );
        assert!(read.proposed[2].wrong.is_some());
        let passed: Vec<_> = read.passed_over.iter().map(|one| (one.row, one.why.as_str())).collect();
        assert_eq!(passed[0], (6, "Shed has no “9”."));
        assert_eq!(passed[1], (7, "There is no panel “Barn”."));
        assert_eq!(passed[2], (8, "No breaker sits at 2 of Main panel."));
        assert!(passed[3].1.contains("Several panels") && passed[4].1.contains("twice"), "{passed:?}");
        assert!(read_words(&home, &sheet(&["a|b", "1|2"])).unwrap_err().contains("headings Number and Own words"));
    }
}
