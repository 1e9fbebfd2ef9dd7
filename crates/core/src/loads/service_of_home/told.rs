//! Figures of the service calculation that somebody puts in place of what the facts say, with their reasons.

use std::collections::BTreeMap;

use crate::loads::service::{Cooking, CookingKind, Dryer, Dwelling, Fixed, Heat, HeatKind, Vehicle};
use crate::model::{FigureTold, Load, ServiceFigure};
use crate::study::Study;

/// The figures that are sums of plates.
pub(super) const OF_PLATES: [ServiceFigure; 5] =
    [ServiceFigure::Cooking, ServiceFigure::Dryers, ServiceFigure::Fixed, ServiceFigure::HeatingCooling, ServiceFigure::Vehicle];

/// A figure that somebody put in place of the facts', and what these say.
pub(super) fn in_place(value: &str, reason: &str, by_facts: &str) -> String {
    format!("{value}: {reason}; in place of {by_facts}")
}

/// These figures in the same proportions, with another sum.
fn with_sum(figures: &mut [&mut i64], sum: i64) {
    let before: i64 = figures.iter().map(|figure| **figure).sum();
    let mut left = sum;
    let last = figures.len().saturating_sub(1);
    for (nth, figure) in figures.iter_mut().enumerate() {
        let share = if nth == last { left } else { (**figure * sum + before / 2) / before.max(1) };
        **figure = share;
        left -= share;
    }
}

/// Puts a sum of plates in place of what the loads' plates come to; each of these keeps its share of it, so that how many there are
/// still counts.
pub(super) fn put_in_place(
    d: &mut Dwelling,
    from: &mut BTreeMap<&'static str, String>,
    figure: ServiceFigure,
    told: &FigureTold,
) {
    let value = i64::from(told.value);
    let (key, mut of): (&'static str, Vec<&mut i64>) = match figure {
        ServiceFigure::Cooking => ("cooking", d.cooking.iter_mut().map(|one| &mut one.w).collect()),
        ServiceFigure::Dryers => ("dryer", d.dryers.iter_mut().map(|one| &mut one.w).collect()),
        ServiceFigure::Fixed => ("fixed", d.fixed.iter_mut().map(|one| &mut one.va).collect()),
        ServiceFigure::Vehicle => ("ev", d.ev.iter_mut().map(|one| &mut one.va).collect()),
        _ => {
            let heat = Some(&mut d.heat.w).filter(|watts| **watts > 0);
            let cool = d.cool.iter_mut().map(|one| &mut one.va);
            let pump = d.heat_pump.iter_mut().flat_map(|pump| [&mut pump.va, &mut pump.supplement_w]);
            ("hvac", heat.into_iter().chain(cool).chain(pump).collect())
        }
    };
    let by_facts = from.get(key).cloned().unwrap_or_else(|| "nothing".into());
    if of.iter().any(|figure| **figure > 0) {
        with_sum(&mut of, value);
    } else if value > 0 {
        match figure {
            ServiceFigure::Cooking => d.cooking.push(Cooking { kind: CookingKind::Range, w: value }),
            ServiceFigure::Dryers => d.dryers.push(Dryer { w: value }),
            ServiceFigure::Vehicle => d.ev = Some(Vehicle { va: value, managed_va: None }),
            ServiceFigure::Fixed => d.fixed.push(Fixed {
                name: figure.words().into(),
                va: value,
                volts: 240,
                fastened: true,
                motor: false,
                ca_full: false,
            }),
            _ => d.heat = Heat { kind: HeatKind::Zones, w: value, zones: 1 },
        }
    }
    if value == 0 {
        match figure {
            ServiceFigure::Cooking => d.cooking.clear(),
            ServiceFigure::Dryers => d.dryers.clear(),
            ServiceFigure::Fixed => d.fixed.clear(),
            ServiceFigure::Vehicle => d.ev = None,
            _ => (d.heat, d.heat_pump) = (Heat::default(), None),
        }
        if figure == ServiceFigure::HeatingCooling {
            d.cool.clear();
        }
    }
    from.insert(key, in_place(&format!("{} {}", told.value, figure.unit()), &told.reason, &by_facts));
}

/// The figure in which a load of the sheet counts.
pub(super) fn figure_of_load(load: &Load) -> ServiceFigure {
    match load.like().map_or("", |like| like.class) {
        "range" => ServiceFigure::Cooking,
        "dryer" => ServiceFigure::Dryers,
        "vehicle" => ServiceFigure::Vehicle,
        "heat" | "cooling" => ServiceFigure::HeatingCooling,
        _ => ServiceFigure::Fixed,
    }
}

/// What was put in place of a figure, whichever fact says so.
pub(super) fn told_of(home: &Study, figure: ServiceFigure) -> Option<FigureTold> {
    let old = home.loads().service().and_then(|told| {
        let value = match figure {
            ServiceFigure::Area => told.area_ft2,
            ServiceFigure::KitchenCircuits => told.kitchen_circuits.map(u32::from),
            ServiceFigure::LaundryCircuits => told.laundry_circuits.map(u32::from),
            _ => None,
        };
        value.map(|value| FigureTold { value, reason: told.reason.clone() })
    });
    home.loads().figure(figure).cloned().or(old)
}

/// The figure of which a line of a sheet is made, where it is made of one.
pub(super) fn figure_of(key: &str) -> Option<ServiceFigure> {
    Some(match key {
        "lighting" | "basic" => ServiceFigure::Area,
        "small_appliance" => ServiceFigure::KitchenCircuits,
        "laundry" => ServiceFigure::LaundryCircuits,
        "range" | "cooking" => ServiceFigure::Cooking,
        "dryer" => ServiceFigure::Dryers,
        // Canada's sheet counts them in two lines, each with its share of the sum.
        "fixed" | "full" | "other" => ServiceFigure::Fixed,
        "hvac" | "hvac_in_general" | "zones_in_other" => ServiceFigure::HeatingCooling,
        "ev" => ServiceFigure::Vehicle,
        _ => return None,
    })
}
