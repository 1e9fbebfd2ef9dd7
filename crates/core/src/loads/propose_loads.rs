//! What may be at a point, by its kind and name: a list to start from, never a fact.

use serde::Serialize;

use crate::model::{Appliance, Point, PointId, PointKind, Volts};
use crate::study::Study;

/// A load that may be there.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct ProposedLoad {
    /// The point.
    pub point: PointId,
    /// `Kitchen, dishwasher`.
    pub place: String,
    /// The appliance of the library.
    pub appliance: &'static str,
    /// Its name there.
    pub name: &'static str,
    /// It never runs with the one proposed before it at the same point.
    pub never_with_previous: bool,
}

/// Words in a point's name, with the appliances of the library that they speak of. The first that fits counts, so longer names stand
/// before those that are parts of them.
const NAMED: &[(&str, &[&str])] = &[
    ("dishwasher", &["dishwasher_heat", "dishwasher_wash"]),
    ("bread oven", &["bread_oven"]),
    ("toaster oven", &["toaster_oven"]),
    ("microwave", &["microwave"]),
    ("range hood", &["hood"]),
    ("hood", &["hood"]),
    ("induction", &["induction"]),
    ("cooktop", &["cooktop"]),
    ("range", &["range_typ"]),
    ("stove", &["range_typ"]),
    ("oven", &["oven"]),
    ("refrigerator", &["fridge"]),
    ("fridge", &["fridge"]),
    ("freezer", &["freezer"]),
    ("disposer", &["disposer"]),
    ("disposal", &["disposer"]),
    ("compactor", &["compactor"]),
    ("coffee", &["coffee"]),
    ("kettle", &["kettle"]),
    ("toaster", &["toaster"]),
    ("washing machine", &["washer"]),
    ("washer", &["washer"]),
    ("dryer", &["dryer"]),
    ("tankless", &["tankless"]),
    ("water heater", &["tank_4500"]),
    ("furnace", &["furnace"]),
    ("boiler", &["boiler"]),
    ("air handler", &["ac_blower"]),
    ("heat pump", &["hp_3ton"]),
    ("air conditioner", &["ac_3ton"]),
    ("condenser", &["ac_3ton"]),
    ("ductless", &["minisplit"]),
    ("baseboard", &["baseboard_1000"]),
    ("wall heater", &["bath_heater"]),
    ("towel", &["towel_rail"]),
    ("dehumidifier", &["dehumidifier"]),
    ("humidifier", &["humidifier"]),
    ("well pump", &["well_pump"]),
    ("sump", &["sump_pump"]),
    ("pool pump", &["pool_pump"]),
    ("hot tub", &["hot_tub"]),
    ("spa", &["hot_tub"]),
    ("sauna", &["sauna"]),
    ("charger", &["ev_32"]),
    ("vehicle", &["ev_32"]),
    ("kiln", &["kiln"]),
    ("welder", &["welder"]),
    ("table saw", &["table_saw"]),
    ("saw", &["table_saw"]),
    ("air compressor", &["compressor_air"]),
    ("compressor", &["compressor_air"]),
    ("door opener", &["door_opener"]),
    ("central vacuum", &["central_vac"]),
    ("printer", &["laser_printer"]),
    ("computer", &["computer"]),
    ("projector", &["tv"]),
    ("television", &["tv"]),
    ("tv", &["tv"]),
    ("router", &["router"]),
    ("server", &["server"]),
    ("aquarium", &["aquarium"]),
    ("grow", &["grow_light"]),
    ("heat cable", &["heat_tape"]),
    ("heat tape", &["heat_tape"]),
    ("ceiling fan", &["fan_ceiling"]),
    ("attic fan", &["fan_attic"]),
    ("bath fan", &["fan_bath"]),
];

fn by_name(point: &Point) -> Option<&'static [&'static str]> {
    let name = point.name.to_lowercase();
    let words: Vec<&str> = name.split(|c: char| !c.is_alphanumeric()).collect();
    let speaks_of = |what: &str| {
        let parts: Vec<&str> = what.split(' ').collect();
        words.windows(parts.len()).any(|window| window == parts)
    };
    NAMED.iter().find(|(what, _)| speaks_of(what)).map(|(_, appliances)| *appliances)
}

fn by_kind(point: &Point) -> &'static [&'static str] {
    match point.kind {
        PointKind::Light => &["led_60"],
        PointKind::Fan => &["fan_bath"],
        _ => &[],
    }
}

/// What may be at each point at which nothing has been entered.
pub fn propose_loads(home: &Study) -> Vec<ProposedLoad> {
    let mut proposed = Vec::new();
    for point in home.house().points().filter(|point| home.loads().at(&point.id).next().is_none()) {
        let ids = by_name(point).unwrap_or_else(|| by_kind(point));
        let fits = |appliance: &&Appliance| (appliance.volts == 240) == (point.volts == Volts::new(240));
        let all = ids.iter().filter_map(|id| Appliance::named(id)).filter(fits);
        for (number, appliance) in all.enumerate() {
            proposed.push(ProposedLoad {
                point: point.id.clone(),
                place: home.house().place(&point.id),
                appliance: appliance.id,
                name: appliance.name,
                // A dishwasher heats or washes.
                never_with_previous: number > 0,
            });
        }
    }
    proposed
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    #[test]
    fn names_and_kinds_tell_what_may_be_there() {
        let home = written(
            "room Kitchen\npoint Kitchen appliance dishwasher\npoint Kitchen receptacle counter, left\npoint Kitchen light ceiling
             point Kitchen receptacle toaster oven\npoint Kitchen appliance range\npoint Kitchen appliance arrangement
             range is 240 V\npoint Kitchen fan wall\nload counter--left microwave",
        )
        .home;
        let said: Vec<(&str, &str)> =
            propose_loads(&home).iter().map(|load| (load.place.clone().leak() as &str, load.appliance)).collect();
        let wanted = [
            ("Kitchen, dishwasher", "dishwasher_heat"),
            ("Kitchen, dishwasher", "dishwasher_wash"),
            ("Kitchen, ceiling", "led_60"),
            ("Kitchen, toaster oven", "toaster_oven"),
            ("Kitchen, range", "range_typ"),
            ("Kitchen, wall", "fan_bath"),
        ];
        assert_eq!(said, wanted);
    }

    #[test]
    fn every_word_names_appliances_of_the_library() {
        for (what, appliances) in NAMED {
            assert!(appliances.iter().all(|id| Appliance::named(id).is_some()), "{what}");
        }
    }
}
