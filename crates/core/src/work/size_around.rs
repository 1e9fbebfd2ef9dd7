//! What goes with a circuit beside breaker and wire: protection, disconnect, tubing, box, the space before the panel.
//!
//! The sections are from memory; local code and the inspector come first.

use super::size::{Lines, NOT_KNOWN, SizedWhere};
use crate::model::{
    Cable, Edition, InBox, Outlet, Place, Sections, SizeAsked, SizeOf, SizedLoad, Tubing, WireGauge, box_fill, fits_tubing,
};

/// Adds the lines: `breaker` in amperes, `wires` the hots and the ground. Says whether a GFCI and an AFCI are wanted.
pub(super) fn around(
    asked: &SizeAsked,
    runs: SizedWhere,
    breaker: f64,
    wires: (WireGauge, WireGauge),
    lines: &mut Lines<'_>,
) -> (bool, bool) {
    let nec = |section| Sections::nec(section, NOT_KNOWN);
    let (wants, why, by) = protection(asked, runs, breaker);
    let value = match wants {
        None => "not known",
        Some((true, true)) => "GFCI and AFCI (one breaker can do both)",
        Some((true, false)) => "GFCI",
        Some((false, true)) => "AFCI",
        Some((false, false)) => "none by this rule",
    };
    lines.push(SizeOf::Protection, value, why, by);
    if let Some((value, why, section)) = disconnect(asked, breaker) {
        lines.push(SizeOf::Disconnect, value, why, nec(section));
    }
    let (wire, ground) = wires;
    let together = asked.hots() + u16::from(asked.has_neutral());
    if matches!(asked.cable, Cable::Conduit | Cable::NotRead) {
        let each = [(wire, together), (ground, 1)];
        let smallest = Tubing::ALL.into_iter().find(|tubing| fits_tubing(*tubing, &each) == Some(true));
        let value = smallest.map_or_else(|| "larger than 2 in".into(), |tubing| format!("{} in", tubing.name()));
        let why = format!(
            "{together} of {} and a ground of {}, THHN or THWN-2, fill at most 40 % of it; with other circuits in it, larger",
            wire.words(),
            ground.words()
        );
        lines.push(SizeOf::Tubing, value, why, nec("Chapter 9, Tables 1, 4 and 5"));
    }
    if asked.cord || asked.several_receptacles {
        let cables = if asked.several_receptacles { 2 } else { 1 };
        // A receptacle of 30 A or more is wider than a box of one gang, and counts twice for each of its two gangs (314.16(B)(4)).
        let gangs = if breaker >= 30.0 { 2 } else { 1 };
        let inside = InBox {
            wires: vec![(wire, together * cables)],
            grounds: vec![(ground, cables)],
            clamps: true,
            fittings: 0,
            devices: vec![wire; gangs],
        };
        let (value, why) = match box_fill(&inside, runs.edition) {
            Some(inches3) => (
                format!("{inches3} in³ at least"),
                format!(
                    "{} of {}, {} counted once, clamps inside once, the device twice{}",
                    together * cables,
                    wire.words(),
                    if cables == 1 { "the ground" } else { "the grounds" },
                    if gangs == 2 { " for each of its two gangs" } else { "" }
                ),
            ),
            None => ("by its label".into(), format!("wires as thick as {} are not in the table of boxes", wire.words())),
        };
        lines.push(SizeOf::Box, value, why, nec("314.16(B)"));
    }
    if let Some(space) = asked.space {
        let inches = |length: crate::model::Length| f64::from(length.millimeters()) / 25.4;
        let lacks = working_space_lacks(inches(space.deep), inches(space.wide), inches(space.high));
        let value = if lacks.is_empty() { "enough".to_owned() } else { lacks.join(" ") };
        lines.push(SizeOf::WorkingSpace, value, "36 in deep, 30 in wide and 6 ft 6 in high, kept clear", nec("110.26(A)"));
    }
    wants.unwrap_or_default()
}

/// Whether a GFCI and an AFCI are wanted by where it ends and what it feeds; why, and where that stands. `None`: not known.
fn protection(asked: &SizeAsked, runs: SizedWhere, breaker: f64) -> (Option<(bool, bool)>, String, Sections) {
    let by = Sections::moved(
        ["210.8(A) and 210.12(A)", "210.8(A) and (F) and 210.12(A)", "210.8(A), (D) and (F) and 210.12(B)"],
        NOT_KNOWN,
    );
    let receptacle = asked.cord || asked.several_receptacles;
    if receptacle && matches!(asked.load, SizedLoad::Charger { .. }) {
        let why = "a receptacle for a vehicle charger, wherever it is";
        return (Some((true, false)), why.into(), Sections::nec("625.54", NOT_KNOWN));
    }
    // From 2023 ranges and dryers have one wherever they are, with a cord or wired in.
    if runs.edition == Edition::Nec2023 && matches!(asked.load, SizedLoad::Range { .. } | SizedLoad::Dryer { .. }) {
        return (Some((true, false)), "a range or a dryer, wherever it is".into(), by);
    }
    let Some(place) = runs.place else {
        let why = "it goes by the room that the circuit ends in: say which, by a name that tells what it is for";
        return (None, why.into(), by);
    };
    let outlet = Outlet { receptacle, at_120: asked.hots() == 1, outdoor: place == Place::Outdoors };
    // What is wired in has one, too, up to 50 A: outdoors from 2020, in a garage from 2023.
    let wired_in = match runs.edition {
        Edition::Nec2023 => matches!(place, Place::Outdoors | Place::Garage),
        Edition::Nec2020 => place == Place::Outdoors,
        _ => false,
    };
    // Before 2023 those of a kitchen serve its counter; that of a range does not.
    let at_a_counter = !matches!(asked.load, SizedLoad::Range { .. });
    let by_place = place.wants_gfci(outlet, runs.edition) && (place != Place::Kitchen || at_a_counter);
    let gfci = by_place || wired_in && breaker <= 50.0;
    let mut why = format!("the circuit ends in {}", place.words());
    if gfci && place == Place::Kitchen && runs.edition != Edition::Nec2023 {
        why += "; for a receptacle that serves the counter";
    }
    if receptacle && !gfci {
        why += "; a receptacle within 6 ft of a sink has a GFCI wherever it is";
    }
    (Some((gfci, place.wants_afci(outlet) && breaker <= 20.0)), why, by)
}

/// What it can be switched off by where somebody works at it.
fn disconnect(asked: &SizeAsked, breaker: f64) -> Option<(String, String, &'static str)> {
    let in_sight = "In sight is: to be seen from there and no more than 50 ft away.";
    let plug = |section| Some(("its plug".to_owned(), "where it can be reached and pulled".to_owned(), section));
    let lockable = |section| {
        let value = "the breaker, where it is in sight of it or can be locked off; else a switch in sight".to_owned();
        Some((value, in_sight.to_owned(), section))
    };
    let must_be_in_sight =
        |section, why: &str| Some(("a switch in sight of it".to_owned(), format!("{why} {in_sight}"), section));
    match asked.load {
        SizedLoad::Cooling { .. } if !asked.cord => {
            must_be_in_sight("440.14", "A unit outdoors has one that can be reached, beside it and not behind it.")
        }
        SizedLoad::Cooling { .. } => plug("440.13"),
        SizedLoad::Motor { .. } if !asked.cord => must_be_in_sight("430.102(B)", "Of the motor and of what it drives."),
        SizedLoad::Motor { .. } => plug("430.109(F)"),
        SizedLoad::Heat { .. } if !asked.cord => lockable("424.19"),
        SizedLoad::Charger { .. } if breaker > 60.0 => must_be_in_sight("625.43", "A charger on more than 60 A."),
        SizedLoad::Charger { .. } => None,
        SizedLoad::Plain { .. } if asked.several_receptacles => None,
        _ if asked.cord => plug("422.33"),
        _ => lockable("422.31(B)"),
    }
}

/// What the space before a panel lacks, in inches.
///
/// Source: NEC 110.26(A), from memory: 36 in deep, 30 in wide, 6 ft 6 in high, to 150 V to ground.
pub fn working_space_lacks(deep: f64, wide: f64, high: f64) -> Vec<String> {
    [("deep", deep, 36.0), ("wide", wide, 30.0), ("high", high, 78.0)]
        .into_iter()
        .filter(|(_, is, least)| is < least)
        .map(|(what, is, least)| format!("It is {is:.0} in {what} and has to be {least} in."))
        .collect()
}
