//! A spreadsheet of a panel turned into the text of its card.
//!
//! In: rows of cells as text. Out: a guess of what each column holds (to be corrected by a person), the
//! card's text for [`super::read_card`], and what was passed over and why. Two tables side by side, as cards
//! are often laid out, are read as two. Nothing is written here.

use crate::model::{Panel, Slot, downward, number_of};

/// What a column holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ColumnRole {
    /// Nothing that is taken.
    Ignore,
    /// The space numbers.
    Space,
    /// The rating, perhaps with the poles: `20`, `20A`, `2P50`, `50/2`.
    Amps,
    /// The number of poles.
    Poles,
    /// What the card says.
    Label,
    /// GFCI, AFCI, dual function, tandem.
    Kind,
    /// The wire size.
    Wire,
}

/// A row that gave nothing, and why.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PassedOver {
    /// The row of the sheet, from 1.
    pub row: usize,
    /// Why.
    pub why: String,
}

/// A sheet as it was understood.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct SheetRead {
    /// What each column holds, as guessed or as corrected.
    pub columns: Vec<ColumnRole>,
    /// The row of the headings, from 1.
    pub heading: Option<usize>,
    /// The headings, or `A`, `B` … where there are none.
    pub names: Vec<String>,
    /// The first rows as they are, to compare.
    pub sample: Vec<Vec<String>>,
    /// The card's text, one breaker a line.
    pub text: String,
    /// Rows that gave nothing, without the blank ones.
    pub passed_over: Vec<PassedOver>,
}

/// Reads the rows. `columns` corrects the guess.
pub fn read_sheet(panel: &Panel, rows: &[Vec<String>], columns: Option<&[ColumnRole]>) -> SheetRead {
    let width = rows.iter().map(Vec::len).max().unwrap_or(0);
    let heading = heading_row(rows);
    let guess = guess(rows, heading, width);
    let columns: Vec<ColumnRole> = match columns {
        Some(columns) => (0..width).map(|n| columns.get(n).copied().unwrap_or(ColumnRole::Ignore)).collect(),
        None => guess,
    };
    let names = (0..width)
        .map(|n| match heading.and_then(|row| rows[row].get(n)).map(|name| name.trim()).filter(|name| !name.is_empty()) {
            Some(name) => name.chars().take(40).collect(),
            None => column_letter(n),
        })
        .collect();
    let mut text = String::new();
    let mut passed_over = Vec::new();
    let mut covered: Vec<Slot> = Vec::new();
    let first = heading.map_or(0, |row| row + 1);
    // A table on the left and one on the right are read one after the other, as the card is.
    let groups = groups(&columns);
    for group in &groups {
        for (n, row) in rows.iter().enumerate().skip(first) {
            match line(panel, group, row, &mut covered) {
                Ok(Some(line)) => {
                    text.push_str(&line);
                    text.push('\n');
                }
                Ok(None) => {}
                Err(why) => passed_over.push(PassedOver { row: n + 1, why }),
            }
        }
    }
    if groups.is_empty() {
        passed_over.push(PassedOver { row: 1, why: "No column is marked as the space numbers: say which one it is.".into() });
    }
    let sample = rows.iter().skip(first).filter(|row| row.iter().any(|cell| !cell.trim().is_empty())).take(4).cloned().collect();
    SheetRead { columns, heading: heading.map(|row| row + 1), names, sample, text, passed_over }
}

/// `A`, `Z`, `AA`.
fn column_letter(mut n: usize) -> String {
    let mut letters = String::new();
    loop {
        letters.insert(0, char::from(b'A' + (n % 26) as u8));
        if n < 26 {
            return letters;
        }
        n = n / 26 - 1;
    }
}

/// The columns of one table: by role. What the card says may stand in several.
#[derive(Debug, Default, Clone)]
struct Group {
    space: Option<usize>,
    amps: Option<usize>,
    poles: Option<usize>,
    label: Vec<usize>,
    kind: Option<usize>,
    wire: Option<usize>,
}

impl Group {
    /// Takes a column in; `false` where this table has one for that already.
    fn takes(&mut self, role: ColumnRole, column: usize, several_words: bool) -> bool {
        let field = match role {
            ColumnRole::Ignore => return true,
            ColumnRole::Label if self.label.is_empty() || several_words => {
                self.label.push(column);
                return true;
            }
            ColumnRole::Label => return false,
            ColumnRole::Space => &mut self.space,
            ColumnRole::Amps => &mut self.amps,
            ColumnRole::Poles => &mut self.poles,
            ColumnRole::Kind => &mut self.kind,
            ColumnRole::Wire => &mut self.wire,
        };
        let free = field.is_none();
        field.get_or_insert(column);
        free
    }
}

/// Where the space numbers stand twice there are two tables side by side: a role that comes again begins the
/// next. In a single table the first column of a role counts, and all words.
fn groups(columns: &[ColumnRole]) -> Vec<Group> {
    let single = columns.iter().filter(|role| **role == ColumnRole::Space).count() < 2;
    let mut all = vec![Group::default()];
    for (n, role) in columns.iter().enumerate() {
        let taken = all.last_mut().is_some_and(|group| group.takes(*role, n, single));
        if !taken && !single {
            let mut next = Group::default();
            next.takes(*role, n, false);
            all.push(next);
        }
    }
    all.retain(|group| group.space.is_some());
    all
}

/// The row among the first ten that names the most columns, if it names two.
fn heading_row(rows: &[Vec<String>]) -> Option<usize> {
    let named = |row: &Vec<String>| row.iter().filter(|cell| named_role(cell).is_some()).count();
    let best = rows.iter().take(10).enumerate().max_by_key(|(n, row)| (named(row), usize::MAX - n))?;
    (named(best.1) >= 2).then_some(best.0)
}

/// What a heading says its column holds.
fn named_role(heading: &str) -> Option<ColumnRole> {
    let words: Vec<String> =
        heading.to_lowercase().split(|c: char| !c.is_alphanumeric() && c != '#').map(str::to_owned).collect();
    let has = |names: &[&str]| words.iter().any(|word| names.contains(&word.as_str()));
    if heading.chars().count() > 40 || heading.trim().is_empty() {
        None
    } else if has(&[
        "description",
        "desc",
        "load",
        "serves",
        "served",
        "feeds",
        "label",
        "use",
        "name",
        "location",
        "area",
        "for",
    ]) {
        Some(ColumnRole::Label)
    } else if has(&["pole", "poles", "p"]) {
        Some(ColumnRole::Poles)
    } else if has(&["wire", "awg", "conductor", "gauge"]) {
        Some(ColumnRole::Wire)
    } else if has(&["amps", "amp", "a", "rating", "trip", "size", "ocpd"]) {
        Some(ColumnRole::Amps)
    } else if has(&["kind", "type", "gfci", "afci", "protection"]) {
        Some(ColumnRole::Kind)
    } else if has(&["space", "spaces", "circuit", "ckt", "cct", "cir", "no", "number", "#", "pos", "position", "breaker", "slot"])
    {
        Some(ColumnRole::Space)
    } else {
        None
    }
}

/// Headings decide where there are any; else what most cells look like.
fn guess(rows: &[Vec<String>], heading: Option<usize>, width: usize) -> Vec<ColumnRole> {
    let mut columns = vec![ColumnRole::Ignore; width];
    if let Some(row) = heading {
        for (n, cell) in rows[row].iter().enumerate() {
            columns[n] = named_role(cell).unwrap_or(ColumnRole::Ignore);
        }
    }
    let body: Vec<&Vec<String>> = rows.iter().skip(heading.map_or(0, |row| row + 1)).collect();
    let share = |n: usize, looks: &dyn Fn(&str) -> bool| {
        let cells: Vec<&str> = body.iter().filter_map(|row| row.get(n)).map(|c| c.trim()).filter(|c| !c.is_empty()).collect();
        if cells.len() < 2 { 0.0 } else { cells.iter().filter(|c| looks(c)).count() as f64 / cells.len() as f64 }
    };
    let distinct = |n: usize| {
        let mut cells: Vec<&str> = body.iter().filter_map(|row| row.get(n)).map(|c| c.trim()).filter(|c| !c.is_empty()).collect();
        let all = cells.len();
        cells.sort_unstable();
        cells.dedup();
        all > 1 && cells.len() == all
    };
    if !columns.contains(&ColumnRole::Space) {
        for n in (0..width).filter(|n| columns[*n] == ColumnRole::Ignore).collect::<Vec<_>>() {
            if distinct(n) && share(n, &|c| !spaces(c).is_empty()) > 0.8 {
                columns[n] = ColumnRole::Space;
            }
        }
    }
    for (role, looks) in [
        (ColumnRole::Amps, &(|c: &str| rating(c).is_some_and(|(amps, _)| amps >= 10.0)) as &dyn Fn(&str) -> bool),
        (ColumnRole::Label, &(|c: &str| c.chars().filter(|c| c.is_alphabetic()).count() >= 3)),
    ] {
        if !columns.contains(&role) {
            for n in (0..width).filter(|n| columns[*n] == ColumnRole::Ignore).collect::<Vec<_>>() {
                if share(n, looks) > 0.6 {
                    columns[n] = role;
                }
            }
        }
    }
    columns
}

/// One row of one table as a line of the card; `None` for a blank one or the second row of a two-pole.
fn line(panel: &Panel, group: &Group, row: &[String], covered: &mut Vec<Slot>) -> Result<Option<String>, String> {
    let cell = |n: Option<usize>| n.and_then(|n| row.get(n)).map_or("", |cell| cell.trim());
    let numbers = cell(group.space);
    let words: Vec<&str> = group.label.iter().map(|n| cell(Some(*n))).filter(|words| !words.is_empty()).collect();
    let (amps_cell, label) = (cell(group.amps), one_line(&words.join(" ")));
    if numbers.is_empty() && amps_cell.is_empty() && label.is_empty() {
        return Ok(None);
    }
    let mut at = spaces(numbers);
    if at.is_empty() {
        let cells: Vec<&str> = [numbers, amps_cell, label.as_str()].into_iter().filter(|c| !c.is_empty()).collect();
        return Err(format!("“{}” has no space number.", cells.join(" | ").chars().take(60).collect::<String>()));
    }
    let open = ["", "open", "blank", "empty", "-", "—"].contains(&label.to_lowercase().as_str());
    if amps_cell.chars().all(|c| !c.is_ascii_digit()) && (open || label == "\"") {
        // The second row of a two-pole is often left blank, or repeats a mark.
        let second = at.iter().all(|slot| covered.iter().any(|taken| taken.overlaps(*slot)));
        return Ok((!second && at.len() == 1).then(|| format!("{} open", at[0])));
    }
    let Some((amps, in_rating)) = rating(amps_cell) else {
        return Ok(Some(format!("{} {amps_cell} {label}", number_of(&at)).trim_end().to_owned()));
    };
    let poles = cell(group.poles).trim_end_matches(['p', 'P']).trim().parse::<usize>().ok().or(in_rating).unwrap_or(at.len());
    if at.iter().all(|slot| covered.contains(slot)) && (poles > 1 || label.is_empty()) {
        return Ok(None); // the lower space of a two-pole that repeats its rating
    }
    if poles > 1 && at.len() == 1 && at[0].half.is_none() {
        at = downward(panel, at[0].space, poles).unwrap_or(at);
    }
    covered.extend(&at);
    let mut words = vec![number_of(&at), if poles > 1 { format!("{amps}/{poles}") } else { amps.to_string() }];
    let kind = format!("{} {}", cell(group.kind), amps_cell).to_lowercase();
    let has = |names: &[&str]| names.iter().any(|name| kind.contains(name));
    let (ground, arc) = (has(&["gfci", "gfi", "ground"]), has(&["afci", "arc"]));
    if has(&["dual"]) || ground && arc {
        words.push("dual".into());
    } else if ground {
        words.push("gfci".into());
    } else if arc {
        words.push("afci".into());
    }
    for word in ["quad", "slim", "tied"] {
        if has(&[word]) {
            words.push(word.into());
        }
    }
    words.extend(wire(cell(group.wire)));
    words.push(label);
    Ok(Some(words.join(" ").trim_end().to_owned()))
}

/// Words that would be read as something else at the head of a label are kept apart from it.
fn one_line(cell: &str) -> String {
    cell.split_whitespace().collect::<Vec<_>>().join(" ").chars().filter(|c| !c.is_control()).take(120).collect()
}

/// `5`, `5.0`, `5-7`, `5,7`, `5/7`, `14A`, `#5`, `5 & 7`.
fn spaces(cell: &str) -> Vec<Slot> {
    let cell = cell.trim().trim_start_matches('#').trim();
    let cell = cell.strip_suffix(".0").unwrap_or(cell);
    let parts: Vec<&str> = cell.split(['-', ',', '/', '&', '+', '–']).map(str::trim).collect();
    let slots: Option<Vec<Slot>> = parts.iter().map(|part| part.parse().ok()).collect();
    slots.filter(|slots| slots.len() <= 3 && slots.iter().all(|slot| slot.space <= 99)).unwrap_or_default()
}

/// Amps, and poles where they stand with them: `20`, `20A`, `20 amp`, `2P50`, `50A/2P`, `50/2`, `2P-50A`.
fn rating(cell: &str) -> Option<(f64, Option<usize>)> {
    let text: String = cell.to_lowercase().chars().filter(|c| !c.is_whitespace()).collect();
    let text = text.strip_suffix(".0").unwrap_or(&text);
    if text.starts_with('=') {
        return None; // a formula as text
    }
    let numbers: Vec<(f64, &str)> = text
        .split_inclusive(|c: char| !c.is_ascii_digit() && c != '.')
        .filter_map(|part| {
            let digits = part.trim_end_matches(|c: char| !c.is_ascii_digit());
            digits.parse().ok().map(|number| (number, &part[digits.len()..]))
        })
        .collect();
    let poles = |n: f64| (1.0..=3.0).contains(&n).then_some(n as usize);
    match numbers.as_slice() {
        [(amps, mark)] if *mark != "p" => Some((*amps, None)),
        [(count, "p"), (amps, _)] => Some((*amps, Some(poles(*count)?))),
        [(amps, _), (count, _)] if poles(*count).is_some() => Some((*amps, poles(*count))),
        _ => None,
    }
    .filter(|(amps, _)| (1.0..=400.0).contains(amps))
}

/// `12`, `#12`, `12 AWG`, `12/2`, `4 AL` as the card writes it.
fn wire(cell: &str) -> Option<String> {
    let text = cell.trim().trim_start_matches('#').trim().to_lowercase();
    let size: String = text.chars().take_while(char::is_ascii_digit).collect();
    let large = ["1/0", "2/0", "3/0", "4/0"].into_iter().find(|size| text.starts_with(size));
    let size = large.map_or(size, str::to_owned);
    crate::model::WireGauge::named(&size).map(|_| format!("#{size}{}", if text.contains("al") { "al" } else { "" }))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    fn rows(text: &str) -> Vec<Vec<String>> {
        text.lines().map(|line| line.split('|').map(|cell| cell.trim().to_owned()).collect()).collect()
    }

    fn read(text: &str) -> SheetRead {
        let home = written("panel 24").home;
        read_sheet(home.panels().all().next().unwrap(), &rows(text), None)
    }

    #[test]
    fn headings_blank_rows_and_ratings_with_poles() {
        let sheet = read(
            "Panel schedule | | |\n | | |\nCkt | Description | Breaker size | Type\n1 | Kitchen | 20A | GFCI\n\n5 | Range | 2P50 |
             7 | | |\n9.0 | Fridge | 15 | \n11 | | | \n | printed in May | | ",
        );
        use ColumnRole::{Amps, Kind, Label, Space};
        assert_eq!(sheet.columns, [Space, Label, Amps, Kind]);
        assert_eq!(sheet.heading, Some(3));
        assert_eq!(sheet.text, "1 20 gfci Kitchen\n5-7 50/2 Range\n9 15 Fridge\n11 open\n");
        assert_eq!(sheet.passed_over, [PassedOver { row: 10, why: "“printed in May” has no space number.".into() }]);
    }

    #[test]
    fn two_tables_side_by_side_are_two() {
        let sheet = read("No | Load | Amps | Amps | Load | No\n1 | Hall | 15 | 20 | Bath | 2\n3-5 | Dryer | 30 | 15 | Loft | 4");
        assert_eq!(sheet.text, "1 15 Hall\n3-5 30/2 Dryer\n2 20 Bath\n4 15 Loft\n");
    }

    #[test]
    fn without_headings_the_cells_tell_and_a_correction_counts() {
        let both = read("Ckt | Area | Load | Brkr\n1 | North | Kitchen | 20\n3 | | Hall | 15");
        assert_eq!(both.text, "1 20 North Kitchen\n3 15 Hall\n");
        let sheet = read("1 | 20 | Kitchen counter\n2 | 20 | Bath\n3 | 15 | Hall lights\n4 | 15 | Porch");
        use ColumnRole::{Amps, Ignore, Label, Space};
        assert_eq!(sheet.columns, [Space, Amps, Label]);
        assert_eq!(sheet.names, ["A", "B", "C"]);
        let home = written("panel 24").home;
        let corrected = read_sheet(
            home.panels().all().next().unwrap(),
            &rows("x | 1 | 20 | Kitchen | Oven\ny | 2 | 15 | Hall | Bell"),
            Some(&[Ignore, Space, Amps, Ignore, Label]),
        );
        assert_eq!(corrected.text, "1 20 Oven\n2 15 Bell\n");
    }

    #[test]
    fn a_two_pole_that_is_repeated_is_one_breaker_and_a_rating_that_cannot_be_read_is_left_to_the_card() {
        let sheet = read("Ckt | Amps | Poles | Load\n1 | 30 | 2 | Dryer\n3 | 30 | 2 | Dryer\n5 | lots | 1 | Attic");
        assert_eq!(sheet.text, "1-3 30/2 Dryer\n5 lots Attic\n");
    }

    #[test]
    fn ratings_as_people_write_them() {
        for (cell, amps, poles) in [
            ("20", 20.0, None),
            ("20.0", 20.0, None),
            ("20A", 20.0, None),
            ("20 amp", 20.0, None),
            ("2P50", 50.0, Some(2)),
            ("2P-50A", 50.0, Some(2)),
            ("50/2", 50.0, Some(2)),
            ("50A 2P", 50.0, Some(2)),
            ("1P 15", 15.0, Some(1)),
            ("20A GFCI", 20.0, None),
        ] {
            assert_eq!(rating(cell), Some((amps, poles)), "{cell}");
        }
        for cell in ["", "2P", "lots", "0", "9000", "=A1+3", "1-2-3"] {
            assert_eq!(rating(cell), None, "{cell}");
        }
    }
}
