//! Rule protection-by-place: where today's rule wants GFCI and AFCI protection, and weather-resistant receptacles, by the room.
//!
//! Source: NEC 210.8(A), 210.12 and 406.9, from memory. GFCI: every receptacle of a bath, garage, crawl space, basement, laundry and
//! outdoors, and those that serve the counter of a kitchen (from 2023 every one there); of 240 V from 2020 on. AFCI: every 120 V point of a
//! kitchen, laundry and the rooms that people live and sleep in. Which place a room is follows from its name. It is for work that is
//! planned, never a fault of old work. Protected is what has a device of its own, is behind one, or is proven on such a breaker. Example: a
//! bath whose receptacle has no GFCI that is recorded.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::model::{Outlet, Place, Point, PointKind, Protection, Room, Volts};

pub(super) const RULE: Rule = Rule {
    code: "protection-by-place",
    severity: Severity::Planned,
    why: "A shock or a fire starts where water, ground or worn cords are; old work may stay until it is changed.",
    source: Source::Code(Sections::moved(
        ["210.8(A), 210.12(A) and 406.9", "210.8(A), 210.12(A) and 406.9", "210.8(A), 210.12(B) and 406.9"],
        InCanada::NotKnown("where GFCI and AFCI protection and weather-resistant receptacles are wanted"),
    )),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for room in checked.home.house().rooms() {
        let Some(place) = Place::of(&room.name, room.floor.as_deref()) else { continue };
        let edition = checked.home.edition();
        let here: Vec<&Point> = checked.home.house().points().filter(|point| point.room == room.id).collect();
        let weather = |p: &Point| p.kind == PointKind::Receptacle && outdoors(p, place);
        let said: Vec<String> = [
            lacking("GFCI protection", &here, |p| place.wants_gfci(outlet(p), edition), |p| checked.has_gfci(p)),
            lacking("AFCI protection", &here, |p| wants_afci(place, p), |p| checked.has_afci(p)),
            lacking("weather-resistant receptacles", &here, weather, |p| p.details.weather_resistant),
        ]
        .into_iter()
        .flatten()
        .collect();
        if !said.is_empty() {
            found.room(room, said.join(" "), advice(room, place));
        }
    }
}

/// `Today's rule wants GFCI protection here; it is not on record for basin; tub.`
fn lacking(what: &str, here: &[&Point], wants: impl Fn(&Point) -> bool, has: impl Fn(&Point) -> bool) -> Option<String> {
    let wanted: Vec<&Point> = here.iter().copied().filter(|point| wants(point)).collect();
    let without: Vec<&str> = wanted.iter().filter(|point| !has(point)).map(|point| point.name.as_str()).collect();
    let which = match without.len() {
        0 => return None,
        all if all == wanted.len() && all > 3 => format!("any of {all} points"),
        // Names have commas of their own.
        _ => without.join("; "),
    };
    Some(format!(
        "Today's rule wants {what} here; {} not on record for {which}.",
        if what.ends_with('s') { "they are" } else { "it is" }
    ))
}

/// The point as the rules for a place take it.
fn outlet(point: &Point) -> Outlet {
    Outlet {
        receptacle: point.kind == PointKind::Receptacle,
        at_120: point.volts == Volts::new(120),
        outdoor: point.details.outdoor,
    }
}

fn wants_afci(place: Place, point: &Point) -> bool {
    let wired_in = matches!(point.kind, PointKind::Appliance | PointKind::JunctionBox | PointKind::CappedCable);
    place.wants_afci(outlet(point)) && !wired_in
}

fn outdoors(point: &Point, place: Place) -> bool {
    place == Place::Outdoors || point.details.outdoor
}

fn advice(room: &Room, place: Place) -> String {
    let kitchen = if place == Place::Kitchen {
        " For GFCI it is about the receptacles that serve the counter; from 2023, all."
    } else {
        ""
    };
    format!(
        "Nothing has to be done for it. Where a receptacle in {} is replaced or a circuit extended, ask what your local code wants \
         then; a GFCI or AFCI breaker, or a device at the first receptacle, are the usual ways.{kitchen}",
        room.name
    )
}

impl Checked<'_> {
    fn on_a_breaker_of(&self, point: &Point, kinds: [Protection; 2]) -> bool {
        self.breaker_of(point).is_some_and(|breaker| kinds.contains(&breaker.protection))
    }

    fn has_gfci(&self, point: &Point) -> bool {
        let behind = self.home.plan().protects.values().any(|points| points.contains(&point.id));
        point.details.gfci || behind || self.on_a_breaker_of(point, [Protection::Gfci, Protection::DualFunction])
    }

    fn has_afci(&self, point: &Point) -> bool {
        self.on_a_breaker_of(point, [Protection::Afci, Protection::DualFunction])
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    fn house(room: &str, more: &str) -> Vec<String> {
        let point = format!("room {room}\npoint {room} receptacle wall\npoint {room} light ceiling");
        said("protection-by-place", &format!("panel 12\n1 20 a\n3 20 gfci b\n5 15 afci c\n7 20 dual d\n{point}\n{more}"))
    }

    #[test]
    fn tells_what_is_wanted_in_a_room_and_not_recorded_there() {
        assert_eq!(house("Bath", ""), ["Bath: Today's rule wants GFCI protection here; it is not on record for wall."]);
        assert!(house("Bath", "wall is gfci").is_empty());
        assert!(house("Bath", "proof wall 3").is_empty());
        assert_eq!(house("Bath", "proof wall 1").len(), 1);
        assert_eq!(
            house("Bedroom", ""),
            ["Bedroom: Today's rule wants AFCI protection here; it is not on record for wall; ceiling."]
        );
        assert!(house("Bedroom", "proof wall 5\nproof ceiling 7").is_empty());
        assert!(house("Classroom", "").is_empty(), "the rules name no such place");
        assert_eq!(
            house("Porch", ""),
            [
                "Porch: Today's rule wants GFCI protection here; it is not on record for wall. Today's rule wants weather-resistant receptacles here; they are not on record for wall."
            ]
        );
        assert!(house("Porch", "wall is weather-resistant, gfci").is_empty());
    }

    #[test]
    fn one_behind_a_device_has_its_protection() {
        let garage = "room Garage\npoint Garage gfci first\npoint Garage receptacle second\n";
        let of = |more: &str| said("protection-by-place", &format!("panel 12\n1 20 a\n{garage}{more}"));
        assert_eq!(of("").len(), 1);
        assert!(of("protects first: second").is_empty());
    }

    /// NEC 210.8(A), from memory: of 125 to 250 V from 2020 on, of 125 V before.
    #[test]
    fn by_edition_and_not_in_canada() {
        let dryer = |edition: &str| {
            let acts = format!(
                "rules {edition}\npanel 12\n1-3 30/2 dryer\nroom Laundry\npoint Laundry receptacle dryer\ndryer is 240 V"
            );
            said("protection-by-place", &acts).len()
        };
        assert_eq!((dryer("nec2017"), dryer("nec2020"), dryer("nec2023"), dryer("cec2021")), (0, 1, 1, 0));
    }
}
