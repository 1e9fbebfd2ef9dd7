//! The wording of one circuit: place, then kind and count, in the order the rooms were entered.

use crate::model::{BreakerId, Point, PointKind};
use crate::study::Study;
use crate::trace::on_breaker;

/// `Kitchen: 3 receptacles, dishwasher; Pantry: light`, from the points proven on the breaker; empty when
/// none is.
pub fn wording(home: &Study, breaker: &BreakerId) -> String {
    let proven: Vec<&Point> = on_breaker(home, breaker).proven.iter().filter_map(|id| home.house().point(id)).collect();
    let places: Vec<String> = home
        .house()
        .rooms()
        .filter_map(|room| {
            let here: Vec<&Point> = proven.iter().copied().filter(|p| p.room == room.id).collect();
            (!here.is_empty()).then(|| format!("{}: {}", room.name, kinds(&here)))
        })
        .collect();
    places.join("; ")
}

/// Receptacles, lights, appliances by name, fans, alarms; switches and boxes only where nothing else is known.
fn kinds(points: &[&Point]) -> String {
    let of = |kind| points.iter().filter(move |p| p.kind == kind);
    let counted = |kind: PointKind, several: &str| match of(kind).count() {
        0 => None,
        1 => Some(kind.word().to_owned()),
        n => Some(format!("{n} {several}")),
    };
    let mut words: Vec<String> = Vec::new();
    words.extend(counted(PointKind::Receptacle, "receptacles"));
    words.extend(counted(PointKind::Light, "lights"));
    words.extend(of(PointKind::Appliance).map(|p| lower_first(&p.name)));
    words.extend(counted(PointKind::Fan, "fans"));
    words.extend(counted(PointKind::Alarm, "alarms"));
    if words.is_empty() {
        words.extend(counted(PointKind::Switch, "switches"));
        words.extend(counted(PointKind::JunctionBox, "junction boxes"));
        words.extend(counted(PointKind::CappedCable, "capped cables"));
    }
    words.join(", ")
}

/// `Dishwasher` as it stands within a sentence; `TV` stays.
fn lower_first(name: &str) -> String {
    let mut chars = name.chars();
    match (chars.next(), chars.next()) {
        (Some(first), second) if second.is_none_or(|c| !c.is_uppercase()) => {
            first.to_lowercase().chain(name.chars().skip(1)).collect()
        }
        _ => name.to_owned(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    #[test]
    fn place_then_kind_and_count_and_only_what_is_proven() {
        let w = written(
            "panel 24\n1 20 kitchen\n3 15 rec\nroom Kitchen\nroom Pantry\npoint Kitchen light ceiling\npoint Kitchen receptacle left
             point Kitchen receptacle right\npoint Kitchen appliance Dishwasher\npoint Pantry light bulb\npoint Pantry switch door
             proof left 1\nproof right 1\nproof dishwasher 1\nproof door 1\nlit ceiling\nlit bulb\noff 1\nlit ceiling\non 1",
        );
        let b1 = w.home.panels().breakers().next().unwrap().id.clone();
        let b3 = w.home.panels().breakers().nth(1).unwrap().id.clone();
        assert_eq!(wording(&w.home, &b1), "Kitchen: 2 receptacles, dishwasher; Pantry: switch");
        assert_eq!(wording(&w.home, &b3), "");
    }
}
