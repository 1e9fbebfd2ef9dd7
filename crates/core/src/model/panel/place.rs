//! Whether a breaker fits where somebody wants to put it, and if not, why and where it would.

use super::{Breaker, Half, Panel, Service, Slot, number_of, position};
use crate::model::{Refusal, RefusalCode};

/// Accepts the place or says what is wrong with it. `others` are the breakers of the same panel
/// without the one to be placed.
pub(crate) fn fits<'a>(panel: &Panel, at: &[Slot], others: impl Iterator<Item = &'a Breaker>) -> Result<(), Refusal> {
    let refuse = |code, wrong: String, accepted: String| Err(Refusal::new(code, "at", wrong, accepted));
    let number = number_of(at);
    if !(1..=3).contains(&at.len()) {
        return refuse(
            RefusalCode::DoesNotFit,
            format!("A breaker has one, two or three poles; this one was given {}.", at.len()),
            "Name one space for each pole, like 5 or 5-7.".into(),
        );
    }
    let mut places = Vec::new();
    for slot in at {
        match position(panel, slot.space) {
            Some(place) => places.push(place),
            None => {
                return refuse(
                    RefusalCode::NoSuchSpace,
                    format!("{} has spaces {}; there is no space {}.", panel.name, numbers(panel), slot.space),
                    "Give a number that is engraved there, or describe the panel anew.".into(),
                );
            }
        }
    }
    if at.len() > 1 {
        let below = places.windows(2).all(|pair| pair[0].0 == pair[1].0 && pair[0].1 + 1 == pair[1].1);
        let (upper, lower) = (Some(Half::Upper), Some(Half::Lower));
        match at.iter().map(|slot| slot.half).collect::<Vec<_>>().as_slice() {
            halves if halves.iter().all(Option::is_none) => {
                if !below {
                    let would = downward(panel, at[0].space, at.len());
                    return refuse(
                        RefusalCode::DoesNotFit,
                        format!("{number}: the poles of one breaker sit in neighboring rows of one column."),
                        match would {
                            Some(slots) => format!("From space {} down it would be {}.", at[0].space, number_of(&slots)),
                            None => format!("Space {} is the last of its column: start one space higher.", at[0].space),
                        },
                    );
                }
            }
            // The two middle or the two outer handles of a quad, a slim pair across two spaces, a slim pair in one.
            [first, second] if below && [(lower, upper), (upper, lower)].contains(&(*first, *second)) => {}
            [first, second] if at[0].space == at[1].space && (*first, *second) == (upper, lower) => {}
            _ => {
                let space = at[0].space;
                let next = downward(panel, space, 2).map_or(space, |slots| slots[1].space);
                return refuse(
                    RefusalCode::DoesNotFit,
                    format!("{number}: no breaker is made with poles there."),
                    format!(
                        "Two poles in halves sit as {space}b-{next}a (slim, or the middle of a quad), {space}a-{next}b (outside of a \
                         quad) or {space}a-{space}b (slim, on one leg); others take whole spaces."
                    ),
                );
            }
        }
        if at.len() == 3 && !matches!(panel.service, Service::ThreePhase | Service::HighLeg) {
            return refuse(
                RefusalCode::DoesNotFit,
                format!("{number}: a three-pole breaker belongs in a three-phase panel; this one has fewer legs."),
                "Enter a two-pole breaker, or set the panel's service to three-phase.".into(),
            );
        }
    }
    for other in others {
        if let Some((slot, _)) = at
            .iter()
            .flat_map(|mine| other.at.iter().map(move |theirs| (mine, theirs)))
            .find(|(mine, theirs)| mine.overlaps(**theirs))
        {
            let label = other.claim.as_deref().map(|text| format!(" “{text}”")).unwrap_or_default();
            return refuse(
                RefusalCode::Occupied,
                format!("Space {slot} is taken by breaker {}{label} ({}).", other.number(), other.amps),
                format!("Choose an open space, or take out breaker {} first.", other.number()),
            );
        }
    }
    Ok(())
}

/// `1 to 24`, or the engraved numbers one by one.
pub(crate) fn numbers(panel: &Panel) -> String {
    let mut all = panel.every_space();
    all.sort_unstable();
    match (all.first(), all.last()) {
        (Some(first), Some(last)) if usize::from(last - first) + 1 == all.len() => format!("{first} to {last}"),
        _ => all.iter().map(u8::to_string).collect::<Vec<_>>().join(", "),
    }
}

/// The slots of a breaker with `poles` poles whose top pole is in `space`, if the column is long enough.
pub(crate) fn downward(panel: &Panel, space: u8, poles: usize) -> Option<Vec<Slot>> {
    let (side, row) = position(panel, space)?;
    (0..poles as u8).map(|n| panel.space_at(side, row + n).map(Slot::whole)).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    /// Where a two-pole may sit, written out as it is seen: the space below in the same column.
    #[test]
    fn a_two_pole_fits_exactly_with_the_space_below_it() {
        for (text, below) in [("panel 12", 2_u8), ("panel 12 straight", 1), ("panel 12 one-column", 1)] {
            let home = written(text).home;
            let panel = home.panels().all().next().unwrap();
            let ends = if text.contains("one-column") {
                vec![12]
            } else if below == 2 {
                vec![11, 12]
            } else {
                vec![6, 12]
            };
            for first in 1..=12_u8 {
                for second in 1..=12_u8 {
                    let fits = fits(panel, &[Slot::whole(first), Slot::whole(second)], std::iter::empty()).is_ok();
                    let may = second == first + below && !ends.contains(&first);
                    assert_eq!(fits, may, "{text}: {first}-{second}");
                }
            }
        }
    }

    #[test]
    fn what_does_not_fit_says_why() {
        let home = written("panel 12\n1 20 a\n14 15 b".replace("14 15 b", "4a 15 b").as_str()).home;
        let panel = home.panels().all().next().unwrap();
        let slots = |text: &str| text.split('-').map(|s| s.parse().unwrap()).collect::<Vec<Slot>>();
        for (at, says) in [
            ("13", "spaces 1 to 12"),
            ("1", "taken by breaker 1 “a”"),
            ("4", "taken by breaker 4a"),
            ("2-4", "taken by breaker 4a"),
            ("9a-11a", "no breaker is made with poles there"),
            ("9b-9a", "9b-11a"),
            ("5-7-9", "belongs in a three-phase panel"),
            ("5-6", "From space 5 down it would be 5-7"),
            ("12-10", "start one space higher"),
            ("1-3-5-7", "one, two or three poles"),
        ] {
            let refusal = fits(panel, &slots(at), home.panels().breakers()).expect_err(at);
            assert!(refusal.to_string().contains(says), "{at}: {refusal}");
        }
        assert!(fits(panel, &slots("4b"), home.panels().breakers()).is_ok());
        let three = written("panel 12 three-phase").home;
        assert!(fits(three.panels().all().next().unwrap(), &slots("5-7-9"), std::iter::empty()).is_ok());
    }
}
