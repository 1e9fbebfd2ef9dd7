//! Whether a breaker fits where somebody wants to put it, and if not, why and where it would.

use super::{Breaker, Panel, Service, Slot, number_of, position};
use crate::logbook::{Refusal, RefusalCode};

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
                    format!("{} has spaces 1 to {}; there is no space {}.", panel.name, panel.spaces, slot.space),
                    format!("Give a number from 1 to {}, or change the number of spaces of the panel.", panel.spaces),
                );
            }
        }
    }
    if at.len() > 1 {
        if at.iter().any(|slot| slot.half.is_some()) {
            return refuse(
                RefusalCode::DoesNotFit,
                format!("{number}: a breaker with more than one pole takes whole spaces, not halves."),
                "Name whole spaces, or enter each half as a one-pole breaker.".into(),
            );
        }
        let neighbours = places.windows(2).all(|pair| pair[0].0 == pair[1].0 && pair[0].1 + 1 == pair[1].1);
        if !neighbours {
            let would = downward(panel, at[0].space, at.len());
            return refuse(
                RefusalCode::DoesNotFit,
                format!("{number}: the poles of one breaker sit in neighbouring rows of one column."),
                match would {
                    Some(slots) => format!("From space {} down it would be {}.", at[0].space, number_of(&slots)),
                    None => format!("Space {} is the last of its column: start one space higher.", at[0].space),
                },
            );
        }
        if at.len() == 3 && panel.service != Service::ThreePhase {
            return refuse(
                RefusalCode::DoesNotFit,
                format!("{number}: a three-pole breaker belongs in a three-phase panel; this one has two legs."),
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

/// The slots of a breaker with `poles` poles whose top pole is in `space`, if the column is long enough.
pub(crate) fn downward(panel: &Panel, space: u8, poles: usize) -> Option<Vec<Slot>> {
    let (side, row) = position(panel, space)?;
    (0..poles as u8).map(|n| panel.space_at(side, row + n).map(Slot::whole)).collect()
}
