//! The largest breaker for a wire.
//!
//! Source: NEC 240.4(D) for 14, 12 and 10 AWG copper (12 and 10 AWG aluminum), NEC Table 310.16 for the
//! ampacities, NEC 240.6 for the standard ratings, NEC 240.4(B) for the next size up: all from memory.
//! The product keeps a table of breakers; here it is worked out from ampacities and standard ratings.

use wayfinder_core::{Metal, Terminals, Wire, WireGauge, largest_breaker};

/// NEC 240.6, from memory, up to what a branch circuit of these sizes needs.
const STANDARD: [u16; 19] = [15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225];

/// NEC Table 310.16, from memory: gauge, copper at 60 and 75 °C, aluminum at 60 and 75 °C.
const AMPACITY: [(WireGauge, u16, u16, u16, u16); 6] = [
    (WireGauge::Awg8, 40, 50, 35, 40),
    (WireGauge::Awg6, 55, 65, 40, 50),
    (WireGauge::Awg4, 70, 85, 55, 65),
    (WireGauge::Awg3, 85, 100, 65, 75),
    (WireGauge::Awg2, 95, 115, 75, 90),
    (WireGauge::Awg1, 110, 130, 85, 100),
];

fn next_size_up(ampacity: u16) -> u16 {
    *STANDARD.iter().find(|rating| **rating >= ampacity).unwrap()
}

fn allowed(gauge: WireGauge, metal: Metal, terminals: Terminals) -> u16 {
    largest_breaker(Wire { gauge, metal, terminals }).value() as u16
}

#[test]
fn from_8_awg_up_the_next_standard_rating_above_the_ampacity() {
    for (gauge, cu60, cu75, al60, al75) in AMPACITY {
        for (metal, terminals, ampacity) in [
            (Metal::Copper, Terminals::Unread, cu60),
            (Metal::Copper, Terminals::Read75C, cu75),
            (Metal::Aluminum, Terminals::Unread, al60),
            (Metal::Aluminum, Terminals::Read75C, al75),
        ] {
            assert_eq!(allowed(gauge, metal, terminals), next_size_up(ampacity), "{gauge:?} {metal:?} {terminals:?}");
        }
    }
}

#[test]
fn small_wire_is_held_to_15_20_and_30_whatever_its_terminals() {
    // NEC 240.4(D)(3), (5), (7): copper 14 15 A, 12 20 A, 10 30 A; (4), (6): aluminum 12 15 A, 10 25 A. From memory.
    for terminals in [Terminals::Unread, Terminals::Read75C] {
        for (gauge, copper, aluminum) in [(WireGauge::Awg14, 15, 0), (WireGauge::Awg12, 20, 15), (WireGauge::Awg10, 30, 25)] {
            assert_eq!(allowed(gauge, Metal::Copper, terminals), copper, "{gauge:?}");
            assert_eq!(allowed(gauge, Metal::Aluminum, terminals), aluminum, "{gauge:?}");
        }
    }
}
