//! Stickers for cover plates: which breaker feeds what is behind them.

use crate::model::{PointId, PointKind, Protection, place_in_words};
use crate::study::Study;
use crate::trace::verdicts;

/// A sticker for one point.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Sticker {
    /// The point.
    pub point: PointId,
    /// `Kitchen, counter`: for whoever sticks it on; it is not printed.
    pub at: String,
    /// `11`, `G3`.
    pub number: String,
    /// `Main panel, left column, 6th down`.
    pub place: String,
    /// A GFCI protects it: where it is dark, that may have tripped.
    pub gfci: bool,
    /// All that stands on it, to be compared later.
    pub says: String,
    /// It was never printed, or says something else than when it was.
    pub changed: bool,
}

/// A sticker for each proven point with a cover plate, room by room.
pub fn stickers(home: &Study) -> Vec<Sticker> {
    let has_plate = |kind| {
        matches!(
            kind,
            PointKind::Receptacle | PointKind::Switch | PointKind::JunctionBox | PointKind::Appliance | PointKind::CappedCable
        )
    };
    let mut all: Vec<(usize, Sticker)> = Vec::new();
    for (id, verdict) in verdicts(home) {
        let Some(point) = home.house().point(id).filter(|point| has_plate(point.kind)) else { continue };
        let Some(breaker) = verdict.proven_on().and_then(|breaker| home.panels().breaker(breaker)) else { continue };
        let Some(panel) = home.panels().panel(&breaker.panel) else { continue };
        let by_breaker = matches!(breaker.protection, Protection::Gfci | Protection::DualFunction);
        let gfci = by_breaker || point.details.gfci || home.plan().gfcis_of(id).next().is_some();
        let (number, place) = (home.panels().number(&breaker.id), format!("{}, {}", panel.name, place_in_words(panel, breaker)));
        let says = format!("{number}{}: {place}", if gfci { " GFCI" } else { "" });
        let changed = home.house().sticker(id) != Some(says.as_str());
        let sticker = Sticker { point: id.clone(), at: home.house().place(id), number, place, gfci, says, changed };
        let room = home.house().rooms().position(|room| room.id == point.room).unwrap_or(usize::MAX);
        all.push((room, sticker));
    }
    all.sort_by_key(|(room, _)| *room);
    all.into_iter().map(|(_, sticker)| sticker).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;
    use crate::logbook::{StickerPrinted, StickersPrinted};

    #[test]
    fn every_plate_that_is_proven_has_one_and_only_changed_ones_are_printed_again() {
        let mut w = written(
            "panel 8\n1 20 a\n2 20 b\nroom Hall\nroom Bath\npoint Bath gfci mirror\npoint Hall receptacle door\npoint Hall light lamp
point Hall switch way\nproof mirror 2\nproof door 1\nproof lamp 1\nproof way 1",
        );
        let said = |w: &crate::fixture::Written, changed: bool| -> Vec<String> {
            let all = stickers(&w.home).into_iter().filter(|sticker| sticker.changed == changed);
            all.map(|sticker| format!("{} = {}", sticker.at, sticker.says)).collect()
        };
        let door = "Hall, door = 1: Main panel, left column, 1st down";
        let mirror = "Bath, mirror = 2 GFCI: Main panel, right column, 1st down";
        assert_eq!(said(&w, true), [door, "Hall, way = 1: Main panel, left column, 1st down", mirror], "none for the lamp");
        let printed = |sticker: &Sticker| StickerPrinted { point: sticker.point.clone(), says: sticker.says.clone() };
        let fact = StickersPrinted { stickers: stickers(&w.home).iter().map(printed).collect() };
        w.fact(fact.into()).unwrap();
        assert!(said(&w, true).is_empty());
        w.acts("move 2 4");
        assert_eq!(said(&w, true), ["Bath, mirror = 4 GFCI: Main panel, right column, 2nd down"]);
        assert_eq!(said(&w, false).len(), 2);
    }
}
