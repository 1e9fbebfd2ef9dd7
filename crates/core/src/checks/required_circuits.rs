//! Rule required-circuits: the circuits that a kitchen, bath, laundry and garage have of their own by today's rule.
//!
//! Source: NEC 210.11(C), from memory. Two of 20 A for the receptacles of a kitchen; one of 20 A for those of the baths, of a laundry and of a
//! garage, which serve nothing else: a bath's may serve all that is in that one bath, a garage's the receptacles outdoors. Told only where
//! every receptacle of the room is proven. For work that is planned, never a fault of old work. Example: a kitchen whose receptacles are all
//! on one 15 A breaker.

use std::collections::BTreeMap;

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source, and};
use crate::loads::beside_own;
use crate::model::{Breaker, BreakerId, Place, Point, PointKind, Volts};

pub(super) const RULE: Rule = Rule {
    code: "required-circuits",
    severity: Severity::Planned,
    why: "What is plugged in there draws much at one time; shared with other rooms it trips, or their outlets with it.",
    source: Source::Code(Sections::nec(
        "210.11(C)",
        InCanada::NotKnown("which circuits a kitchen, bath, laundry and garage have of their own"),
    )),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for room in checked.home.house().rooms() {
        let Some(place) = Place::of(&room.name, room.floor.as_deref()) else { continue };
        let plugs = |p: &&Point| p.room == room.id && p.kind == PointKind::Receptacle && p.volts == Volts::new(120);
        let receptacles: Vec<&Point> = checked.home.house().points().filter(plugs).collect();
        let breakers: Vec<&Breaker> = receptacles.iter().filter_map(|point| checked.breaker_of(point)).collect();
        if receptacles.is_empty() || breakers.len() < receptacles.len() {
            continue;
        }
        let mut distinct: BTreeMap<&BreakerId, &Breaker> = BTreeMap::new();
        distinct.extend(breakers.iter().map(|breaker| (&breaker.id, *breaker)));
        let of_20: Vec<&Breaker> = distinct.values().copied().filter(|breaker| breaker.amps.value() == 20.0).collect();
        let own = |breaker: &&Breaker| beside_own(checked.home, place, &breaker.id).is_empty();
        let wanted = match place {
            Place::Kitchen if of_20.len() < 2 => "two circuits of 20 A for its receptacles",
            Place::Bath if !of_20.iter().any(own) => {
                "a circuit of 20 A for its receptacles that serves nothing but baths, or nothing but this one"
            }
            Place::Laundry if !of_20.iter().any(own) => "a circuit of 20 A for its receptacles alone",
            Place::Garage if !of_20.iter().any(own) => "a circuit of 20 A for its receptacles and those outdoors",
            _ => continue,
        };
        let on = |breaker: &&Breaker| format!("{} ({})", checked.home.panels().number(&breaker.id), breaker.amps);
        let are_on: Vec<String> = distinct.values().map(on).collect();
        found.room(
            room,
            format!("Its receptacles are on {}. Today's rule wants {wanted}.", and(&are_on)),
            "Nothing has to be done for it. When a circuit is added or a kitchen, bath, laundry or garage rewired, plan for it.",
        );
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    fn house(acts: &str) -> Vec<String> {
        let rooms = "room Kitchen\nroom Bath\nroom Upper bath\nroom Laundry\nroom Garage\nroom Porch\nroom Hall\n";
        said("required-circuits", &format!("panel 12\n1 20 a\n3 20 b\n5 15 c\n{rooms}{acts}"))
    }

    #[test]
    fn a_kitchen_has_two_of_20_amperes() {
        let kitchen = "point Kitchen receptacle left\npoint Kitchen receptacle right\n";
        let one = house(&format!("{kitchen}proof left 5\nproof right 5"));
        assert_eq!(
            one,
            ["Kitchen: Its receptacles are on 5 (15 A). Today's rule wants two circuits of 20 A for its receptacles."]
        );
        assert!(house(&format!("{kitchen}proof left 1\nproof right 3")).is_empty());
        assert_eq!(house(&format!("{kitchen}proof left 1\nproof right 1")).len(), 1);
        assert!(house(&format!("{kitchen}proof left 1")).is_empty(), "one is not proven yet");
    }

    #[test]
    fn a_bath_has_one_for_itself_or_for_all_baths() {
        let bath = "point Bath receptacle sink\npoint Bath light mirror\nproof sink 1\n";
        assert!(house(&format!("{bath}proof mirror 1")).is_empty(), "all that is in this one bath");
        assert!(house(&format!("{bath}proof mirror 5")).is_empty());
        let upper = "point Upper-bath receptacle basin\nproof basin 1\n";
        assert!(house(&format!("{bath}{upper}proof mirror 5")).is_empty(), "the receptacles of both baths");
        assert_eq!(house(&format!("{bath}{upper}proof mirror 1")).len(), 2, "and a light of one of them");
        assert_eq!(house(&format!("{bath}point Hall receptacle stair\nproof stair 1")).len(), 1);
    }

    #[test]
    fn a_laundry_and_a_garage_have_theirs() {
        let laundry = "point Laundry receptacle washer\n";
        assert!(house(&format!("{laundry}proof washer 3")).is_empty());
        assert_eq!(house(&format!("{laundry}proof washer 3\npoint Hall light lamp\nproof lamp 3")).len(), 1);
        assert_eq!(house(&format!("{laundry}proof washer 5")).len(), 1, "of 15 A");
        let garage = "point Garage receptacle bench\nproof bench 3\n";
        assert!(house(&format!("{garage}point Porch receptacle step\nproof step 3")).is_empty());
        assert_eq!(house(&format!("{garage}point Garage light lamp\nproof lamp 3")).len(), 1);
    }
}
