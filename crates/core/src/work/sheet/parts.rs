//! Parts and tools, as a list to take along.

use crate::model::{JobMove, Protection};
use crate::study::Study;

/// A line of the list.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct PartLine {
    /// What.
    pub what: String,
    /// How many; 0 where that is not counted.
    pub count: usize,
}

/// The parts of work in a panel.
pub(crate) fn parts(home: &Study, panel: &crate::model::Panel, moves: &[JobMove]) -> Vec<PartLine> {
    let mut parts: indexmap::IndexMap<String, usize> = indexmap::IndexMap::new();
    let mut add = |what: String, count: usize| *parts.entry(what).or_default() += count;
    let mut bodies: Vec<u8> = Vec::new();
    let kind = |amps: f64, poles: usize, protection: Protection| {
        let guard = protection.words();
        let guard = if guard.is_empty() { String::new() } else { format!(" {guard}") };
        format!("{}{guard} breaker, {amps} A, of a type that the label names", if poles == 2 { "Two-pole" } else { "One-pole" })
    };
    for one in moves {
        match one {
            JobMove::TakeOut { .. } | JobMove::Tighten { .. } => {}
            JobMove::Move { breaker, at } => {
                let halves: Vec<u8> = at.iter().filter(|slot| slot.half.is_some()).map(|slot| slot.space).collect();
                let was_half = home.panels().breaker(breaker).is_some_and(|b| b.at.iter().any(|slot| slot.half.is_some()));
                if halves.iter().any(|space| !bodies.contains(space)) {
                    add("Tandem breaker, of a type that the label names".into(), 1);
                    bodies.extend(&halves);
                } else if halves.is_empty() && was_half {
                    let known = home.panels().breaker(breaker);
                    let (amps, poles, guard) =
                        known.map_or((0.0, 1, Protection::Standard), |b| (b.amps.value(), b.poles(), b.protection));
                    add(kind(amps, poles, guard), 1);
                }
                add("Connector and a length of wire, should the old one not reach".into(), at.len());
            }
            JobMove::Replace { breaker, amps, protection } => {
                let poles = home.panels().breaker(breaker).map_or(1, crate::model::Breaker::poles);
                add(kind(amps.value(), poles, *protection), 1);
            }
            JobMove::TwoPole { amps, .. } => {
                add(kind(amps.value(), 2, Protection::Standard), 1);
                add("Receptacle of 240 V, single".into(), 1);
                add("Tape to mark the white wire, any color but white, gray or green".into(), 1);
            }
            JobMove::OnePole { amps, .. } => {
                add(kind(amps.value(), 1, Protection::Standard), 1);
                add("Receptacle of 120 V, single".into(), 1);
            }
            JobMove::Join { .. } => {
                add("Connector listed for three wires of these sizes".into(), 1);
                add("Pigtail, 6 in or longer, of the thicker wire".into(), 1);
            }
            JobMove::Tap { .. } => {}
            JobMove::New { at, amps, protection, wire, .. } => {
                let halves: Vec<u8> = at.iter().filter(|slot| slot.half.is_some()).map(|slot| slot.space).collect();
                if halves.is_empty() {
                    add(kind(amps.value(), at.len(), *protection), 1);
                } else if halves.iter().any(|space| !bodies.contains(space)) {
                    add("Tandem breaker, of a type that the label names".into(), 1);
                    bodies.extend(halves);
                }
                let cable = wire.map_or_else(|| "Cable".to_owned(), |wire| format!("Cable of {}", wire.words()));
                add(format!("{cable}, outlet and box, as the size of the circuit says"), 0);
                add("Cable clamp".into(), 1);
            }
            JobMove::Fill { .. } => add("Filler, made for this panel".into(), 1),
        }
    }
    let open = super::panel_job::left_open(home, panel, moves).len();
    if open > 0 {
        add("Filler, made for this panel".into(), open);
    }
    parts.into_iter().map(|(what, count)| PartLine { what, count }).collect()
}

/// The tools.
pub(crate) fn tools(in_a_panel: bool) -> Vec<String> {
    let tools: &[&str] = if in_a_panel {
        &[
            "Meter, CAT III 600 V, fused leads",
            "A proving unit, or another live source to try it on",
            "Lock and tag",
            "Torque driver",
            "Rated gloves, eye protection",
            "Headlamp: the lights go out",
            "Tags and a pen",
        ]
    } else {
        &[
            "Meter, CAT III 600 V, fused leads",
            "A live source to try it on",
            "Lock and tag",
            "Screwdriver, or a torque driver",
            "Eye protection",
            "Headlamp",
        ]
    };
    tools.iter().map(|tool| (*tool).to_owned()).collect()
}
