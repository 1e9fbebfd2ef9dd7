//! The largest breaker for a wire.
//!
//! Source: NEC 240.4(D) for 14, 12 and 10 AWG copper (12 and 10 AWG aluminum), NEC Table 310.16 for the
//! ampacities, NEC 240.6 for the standard ratings, NEC 240.4(B) for the next size up: all from memory.
//! The product keeps a table of breakers; here it is worked out from ampacities and standard ratings.

use wayfinder_core::{Cable, Edition, Metal, Terminals, Wire, WireGauge, ampacity, largest_breaker, largest_service};

/// NEC 240.6, from memory, up to what a branch circuit of these sizes needs.
const STANDARD: [u16; 25] =
    [15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225, 250, 300, 350, 400, 450, 500];

/// NEC Table 310.16, from memory: gauge, copper at 60 and 75 °C, aluminum at 60 and 75 °C.
const AMPACITY: [(WireGauge, u16, u16, u16, u16); 16] = [
    (WireGauge::Awg8, 40, 50, 35, 40),
    (WireGauge::Awg6, 55, 65, 40, 50),
    (WireGauge::Awg4, 70, 85, 55, 65),
    (WireGauge::Awg3, 85, 100, 65, 75),
    (WireGauge::Awg2, 95, 115, 75, 90),
    (WireGauge::Awg1, 110, 130, 85, 100),
    (WireGauge::Awg1x0, 125, 150, 100, 120),
    (WireGauge::Awg2x0, 145, 175, 115, 135),
    (WireGauge::Awg3x0, 165, 200, 130, 155),
    (WireGauge::Awg4x0, 195, 230, 150, 180),
    (WireGauge::Kcmil250, 215, 255, 170, 205),
    (WireGauge::Kcmil300, 240, 285, 195, 230),
    (WireGauge::Kcmil350, 260, 310, 210, 250),
    (WireGauge::Kcmil400, 280, 335, 225, 270),
    (WireGauge::Kcmil500, 320, 380, 260, 310),
    (WireGauge::Kcmil600, 350, 420, 285, 340),
];

fn next_size_up(ampacity: u16) -> u16 {
    *STANDARD.iter().find(|rating| **rating >= ampacity).unwrap()
}

fn allowed(gauge: WireGauge, metal: Metal, terminals: Terminals) -> u16 {
    largest_breaker(Wire { gauge, metal, terminals, cable: Cable::NotRead }, Edition::Nec2020).value() as u16
}

/// NEC 110.14(C)(1), from memory: terminals of circuits over 100 A, and those for conductors larger than 1 AWG, are for 75 °C
/// conductors; up to that they are for 60 °C unless marked.
#[test]
fn from_8_awg_up_the_next_standard_rating_above_the_ampacity_of_its_terminals() {
    for (gauge, cu60, cu75, al60, al75) in AMPACITY {
        for (metal, at_60, at_75) in [(Metal::Copper, cu60, cu75), (Metal::Aluminum, al60, al75)] {
            assert_eq!(allowed(gauge, metal, Terminals::Read75C), next_size_up(at_75), "{gauge:?} {metal:?}, read");
            let unread = if gauge > WireGauge::Awg1 || next_size_up(at_75) > 100 { at_75 } else { at_60 };
            assert_eq!(allowed(gauge, metal, Terminals::Unread), next_size_up(unread), "{gauge:?} {metal:?}, not read");
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

#[test]
fn the_75_degree_column_is_given_where_both_labels_were_read_and_above_1_awg() {
    for (gauge, cu60, cu75, al60, al75) in AMPACITY {
        let carries =
            |metal, terminals, cable| ampacity(Wire { gauge, metal, terminals, cable }, Edition::Nec2020).value() as u16;
        let large = gauge > WireGauge::Awg1;
        assert_eq!(carries(Metal::Copper, Terminals::Unread, Cable::Conduit), if large { cu75 } else { cu60 }, "{gauge:?}");
        assert_eq!(carries(Metal::Copper, Terminals::Read75C, Cable::Conduit), cu75, "{gauge:?}");
        assert_eq!(carries(Metal::Aluminum, Terminals::Unread, Cable::Se), if large { al75 } else { al60 }, "{gauge:?}");
        assert_eq!(carries(Metal::Aluminum, Terminals::Read75C, Cable::Se), al75, "{gauge:?}");
        // NEC 334.80 and 340.80, from memory: NM and UF cable stay in the 60 °C column whatever their terminals say.
        for cable in [Cable::Nm, Cable::Uf] {
            assert_eq!(carries(Metal::Copper, Terminals::Read75C, cable), cu60, "{gauge:?} {cable:?}");
        }
    }
}

/// NEC 310.12, from memory: copper and aluminum for each rating. Worked out here as the code words it: the
/// smallest conductor whose 75 °C ampacity is at least 83 % of the rating.
#[test]
fn service_conductors_carry_83_percent_of_the_rating() {
    for rating in [100_u16, 110, 125, 150, 175, 200, 225, 250, 300, 350, 400] {
        for metal in [Metal::Copper, Metal::Aluminum] {
            let enough = |row: &&(WireGauge, u16, u16, u16, u16)| {
                let carries = if metal == Metal::Copper { row.2 } else { row.4 };
                f64::from(carries) >= 0.83 * f64::from(rating)
            };
            let Some((gauge, ..)) = AMPACITY.iter().find(enough) else { continue };
            let wire = |gauge| Wire { gauge, metal, terminals: Terminals::Unread, cable: Cable::NotRead };
            let allowed = |gauge| largest_service(wire(gauge)).map_or(0, |amps| amps.value() as u16);
            assert!(allowed(*gauge) >= rating, "{gauge:?} {metal:?} for {rating} A: {}", allowed(*gauge));
            let smaller = AMPACITY.iter().rev().map(|row| row.0).find(|g| g < gauge);
            assert!(
                smaller.is_none_or(|g| allowed(g) < rating),
                "one size below {gauge:?} {metal:?} is not enough for {rating} A"
            );
        }
    }
}
