//! What a description of a panel or a breaker may say: the bounds of each field, and why a value is outside.

use super::short;
use crate::logbook::PanelDescribed;
use crate::model::{
    Amps, BreakerDetails, Columns, Half, Housing, Numbering, PanelDetails, Refusal, RefusalCode, Slot, housing_of, number_of,
};

pub(super) fn shape(f: &PanelDescribed) -> Result<(), Refusal> {
    let refuse = |field: &str, wrong: String, accepted: &str| Err(Refusal::new(RefusalCode::OutOfRange, field, wrong, accepted));
    if !(2..=84).contains(&f.spaces) {
        return refuse("spaces", format!("The number of spaces cannot be {}.", f.spaces), "Give 2 to 84 spaces.");
    }
    if f.columns == Columns::One && f.spaces > 42 {
        return refuse(
            "spaces",
            format!("The number of spaces in a single column cannot be {}.", f.spaces),
            "Give up to 42 spaces for one column, or two columns.",
        );
    }
    let Numbering::AsEngraved { left, right } = &f.numbering else { return Ok(()) };
    if left.len() > 42 || right.len() > 42 || (f.columns == Columns::One) != right.is_empty() {
        return refuse(
            "numbering",
            "The engraved numbers do not fit the columns.".into(),
            "Give up to 42 numbers for each column from the top; 0 where the metal has no space.",
        );
    }
    let mut numbers: Vec<u8> = left.iter().chain(right).copied().filter(|n| *n > 0).collect();
    if numbers.len() != usize::from(f.spaces) {
        return refuse(
            "numbering",
            format!("{} numbers are engraved; the panel is said to have {} spaces.", numbers.len(), f.spaces),
            "Let both say the same.",
        );
    }
    numbers.sort_unstable();
    if let Some(twice) = numbers.windows(2).find(|pair| pair[0] == pair[1]) {
        return refuse("numbering", format!("Number {} is engraved twice.", twice[0]), "Each space has a number of its own.");
    }
    if numbers.last().is_some_and(|n| *n > 99) {
        return refuse("numbering", "A space has no number above 99.".into(), "Give numbers from 1 to 99.");
    }
    Ok(())
}

pub(super) fn within(field: &str, value: Option<Amps>, range: std::ops::RangeInclusive<f64>, what: &str) -> Result<(), Refusal> {
    match value.filter(|amps| !range.contains(&amps.value())) {
        None => Ok(()),
        Some(amps) => Err(Refusal::new(
            RefusalCode::OutOfRange,
            field,
            format!("{amps} cannot be right for {what}."),
            format!("Give {} to {} A, or leave it out.", range.start(), range.end()),
        )),
    }
}

pub(super) fn panel_details(details: &PanelDetails) -> Result<(), Refusal> {
    short("make", &details.make, 0, 60)?;
    short("series", &details.series, 0, 60)?;
    within("bus", details.bus, 10.0..=1200.0, "a bus")?;
    kiloamps(details.interrupting_ka)?;
    let refuse = |field: &str, wrong: &str, accepted: &str| Err(Refusal::new(RefusalCode::OutOfRange, field, wrong, accepted));
    if details.types.len() > 24 {
        return refuse("types", "The label names more than 24 breaker types.", "Name each type once.");
    }
    for name in &details.types {
        short("type", name, 1, 40)?;
    }
    if details.year.is_some_and(|year| !(1900..=2100).contains(&year)) {
        return refuse("year", "That year cannot be right.", "Give a year from 1900 to 2100, or leave it out.");
    }
    if details.circuits.is_some_and(|circuits| !(1..=168).contains(&circuits)) {
        return refuse("circuits", "So many circuits cannot be right for a panel.", "Give 1 to 168, or leave it out.");
    }
    if details.splice_room.is_some_and(|splices| splices > 20) {
        return refuse("splice_room", "So many splices cannot be right for a panel.", "Give 0 to 20, or leave it out.");
    }
    if details.sources.as_ref().is_some_and(|sources| sources.len() > 6) {
        return refuse("sources", "A source is named twice.", "Name each kind of source once.");
    }
    Ok(())
}

pub(super) fn breaker_details(details: &BreakerDetails) -> Result<(), Refusal> {
    short("type_name", &details.type_name, 0, 40)?;
    short("feeds", &details.feeds, 0, 60)?;
    kiloamps(details.interrupting_ka)?;
    let terminal = details.terminal;
    if [terminal.under, terminal.listed].into_iter().flatten().any(|count| !(1..=4).contains(&count)) {
        return Err(Refusal::new(
            RefusalCode::OutOfRange,
            "terminal",
            "So many conductors under one terminal cannot be right.",
            "Give 1 to 4, or leave it out.",
        ));
    }
    if details.slack.is_some_and(|spaces| spaces > 40) {
        return Err(Refusal::new(
            RefusalCode::OutOfRange,
            "slack",
            "A wire that reaches so much further cannot be right.",
            "Give the spaces by which it reaches further, 0 to 40, or leave it out.",
        ));
    }
    if terminal.torque_inlb.is_some_and(|torque| !(1.0..=600.0).contains(&torque)) {
        return Err(Refusal::new(
            RefusalCode::OutOfRange,
            "torque",
            "That torque cannot be right.",
            "Give the label's value in pound-inches, 1 to 600, or leave it out.",
        ));
    }
    Ok(())
}

fn kiloamps(value: Option<f64>) -> Result<(), Refusal> {
    match value.filter(|ka| !(1.0..=200.0).contains(ka)) {
        None => Ok(()),
        Some(ka) => Err(Refusal::new(
            RefusalCode::OutOfRange,
            "interrupting_ka",
            format!("{ka} kA cannot be right for an interrupting rating."),
            "Give kiloamperes, usually 10 or 22, or leave it out.",
        )),
    }
}

/// Whether the handles can share that housing in these spaces.
pub(super) fn housing_fits(at: &[Slot], housing: Option<Housing>) -> Result<(), Refusal> {
    let Some(housing) = housing else { return Ok(()) };
    let halves = at.iter().any(|slot| slot.half.is_some());
    let fits = match housing {
        Housing::Full => !halves,
        Housing::Tandem => halves && at.len() == 1,
        Housing::Quad => halves && !(at.len() == 2 && at[0].space == at[1].space),
        Housing::Slim => halves && !(at.len() == 2 && at[0].space != at[1].space && housing_outer(at)),
    };
    if fits {
        return Ok(());
    }
    Err(Refusal::new(
        RefusalCode::DoesNotFit,
        "housing",
        format!("A {} does not sit at {}.", housing_word(housing), number_of(at)),
        format!("There it would be a {}.", housing_word(housing_of(at))),
    ))
}

/// The outer handles of two spaces: only a quad has them on one tie.
fn housing_outer(at: &[Slot]) -> bool {
    at[0].half == Some(Half::Upper)
}

const fn housing_word(housing: Housing) -> &'static str {
    match housing {
        Housing::Full => "full-size breaker",
        Housing::Tandem => "tandem",
        Housing::Quad => "quad",
        Housing::Slim => "slim breaker",
    }
}
