//! Where a breaker may go: every place of its panel with the reason why not.

use crate::logbook::Home;
use crate::model::{
    Breaker, BreakerId, Half, Leg, Panel, Service, Slot, Volts, fits, legs_of, number_of, position, volts_between,
};

/// A place for a breaker's poles.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Place {
    /// Its slots from the top.
    #[schema(value_type = Vec<String>)]
    pub at: Vec<Slot>,
    /// `5-7`.
    pub number: String,
    /// The legs it would have.
    pub legs: Vec<Leg>,
    /// Volts between its poles there, or to neutral for one pole.
    pub volts: Volts,
    /// The breaker sits there now.
    pub here: bool,
    /// Why it cannot go there; `null` where it can.
    pub why_not: Option<String>,
}

/// What can be done with a breaker where it sits.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Moves {
    /// Every place of its panel.
    pub places: Vec<Place>,
    /// Breakers with which it could be joined to one of two poles.
    pub joins: Vec<BreakerId>,
}

/// Where a breaker may go and with what it may be joined. `None` when there is no such breaker.
pub fn moves(home: &Home, breaker: &BreakerId) -> Option<Moves> {
    let panel = &home.panels().breaker(breaker)?.panel;
    let joins =
        home.panels().breakers_of(panel).map(|b| &b.id).filter(|other| home.panels().joined(breaker, other).is_ok()).cloned();
    Some(Moves { places: places(home, breaker)?, joins: joins.collect() })
}

/// Every place of its panel that has the breaker's shape; for a one-pole breaker both halves of each space
/// too. `None` when there is no such breaker.
pub fn places(home: &Home, breaker: &BreakerId) -> Option<Vec<Place>> {
    let breaker = home.panels().breaker(breaker)?;
    let panel = home.panels().panel(&breaker.panel)?;
    let others: Vec<&Breaker> = home.panels().breakers_of(&panel.id).filter(|b| b.id != breaker.id).collect();
    let mut all = Vec::new();
    for space in panel.every_space() {
        for at in shaped(panel, breaker, space) {
            let legs = legs_of(panel, &at);
            let refused = fits(panel, &at, others.iter().copied()).err();
            all.push(Place {
                number: number_of(&at),
                volts: volts_between(panel.service, &legs),
                legs,
                here: at == breaker.at,
                why_not: refused.map(|refusal| refusal.wrong),
                at,
            });
        }
    }
    Some(all)
}

/// The slots of this kind (whole, or one half) that a one-pole breaker could take beside its own, each with its
/// leg. The high leg of a high-leg service is for none of them: it gives 208 V to neutral. The reasons why not are not asked for
/// here: the checks look at many.
pub(crate) fn open_slots(home: &Home, breaker: &Breaker, half: Option<Half>) -> Vec<(Slot, Leg)> {
    let Some(panel) = home.panels().panel(&breaker.panel) else { return Vec::new() };
    let taken: Vec<Slot> =
        home.panels().breakers_of(&panel.id).filter(|b| b.id != breaker.id).flat_map(|b| b.at.iter().copied()).collect();
    let slots = panel.every_space().into_iter().map(|space| Slot { space, half });
    slots
        .filter(|slot| !taken.iter().any(|other| other.overlaps(*slot)) && !breaker.at.contains(slot))
        .filter_map(|slot| position(panel, slot.space).map(|(_, row)| (slot, panel.leg_of_row(row))))
        .filter(|(_, leg)| panel.service != Service::HighLeg || *leg != Leg::B)
        .collect()
}

/// The slots of this breaker's shape that begin in `space`.
fn shaped(panel: &Panel, breaker: &Breaker, space: u8) -> Vec<Vec<Slot>> {
    let half = |half| Slot { space, half: Some(half) };
    if breaker.poles() == 1 {
        return vec![vec![Slot::whole(space)], vec![half(Half::Upper)], vec![half(Half::Lower)]];
    }
    let rows =
        |at: &[Slot]| -> Option<Vec<u8>> { at.iter().map(|slot| position(panel, slot.space).map(|(_, row)| row)).collect() };
    let Some(now) = rows(&breaker.at) else { return Vec::new() };
    let Some((side, row)) = position(panel, space) else { return Vec::new() };
    let there: Option<Vec<Slot>> = breaker
        .at
        .iter()
        .zip(&now)
        .map(|(slot, r)| panel.space_at(side, row + (r - now[0])).map(|space| Slot { space, half: slot.half }))
        .collect();
    there.into_iter().collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    fn open_for(text: &str, number: &str) -> Vec<String> {
        let home = written(text).home;
        let id = home.panels().breakers().find(|b| b.number() == number).unwrap().id.clone();
        places(&home, &id).unwrap().into_iter().filter(|p| p.why_not.is_none()).map(|p| p.number).collect()
    }

    #[test]
    fn a_breaker_may_go_exactly_where_the_logbook_would_take_it() {
        let card = "panel 8\n1 20 a\n3-5 30 b\n2 15 c\n4a 15 d";
        assert_eq!(open_for(card, "3-5"), ["3-5", "5-7", "6-8"]);
        assert_eq!(open_for(card, "4a"), ["7", "7a", "7b", "4", "4a", "4b", "6", "6a", "6b", "8", "8a", "8b"]);
        for number in ["1", "3-5", "4a"] {
            let home = written(card).home;
            let id = home.panels().breakers().find(|b| b.number() == number).unwrap().id.clone();
            for place in places(&home, &id).unwrap() {
                let taken = written(card).act(&format!("move {number} {}", place.number));
                assert_eq!(taken.is_ok(), place.why_not.is_none(), "{number} to {}: {taken:?}", place.number);
            }
        }
    }

    #[test]
    fn it_joins_what_sits_beside_it_and_is_alike() {
        let home = written("panel 8\n1 20 a\n3 20 b\n5 15 c\n7 20 d\n2a 15 e\n2b 15 f\n4a 15 g\n4b 15 h").home;
        let joins = |number: &str| {
            let id = &home.panels().breakers().find(|b| b.number() == number).unwrap().id;
            moves(&home, id).unwrap().joins.iter().map(|b| home.panels().number(b)).collect::<Vec<_>>()
        };
        assert_eq!(joins("1"), ["3"]);
        assert!(joins("7").is_empty(), "5 beside it has other amps");
        assert_eq!(joins("2b"), ["2a", "4a"]);
        assert_eq!(joins("2a"), ["2b", "4b"]);
    }

    #[test]
    fn a_place_that_is_not_allowed_says_why() {
        let home = written("panel 8\n1 20 kitchen\n3 15 hall").home;
        let id = home.panels().breakers().nth(1).unwrap().id.clone();
        let places = places(&home, &id).unwrap();
        let first = places.iter().find(|p| p.number == "1").unwrap();
        assert!(first.why_not.as_deref().unwrap().contains("taken by breaker 1 “kitchen”"), "{first:?}");
        assert!(places.iter().find(|p| p.here).is_some_and(|p| p.number == "3"));
    }
}
