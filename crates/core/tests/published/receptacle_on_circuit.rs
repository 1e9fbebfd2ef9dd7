//! Which breaker may feed which receptacle, and at what volts.
//!
//! Source: NEC 210.21(B)(1) (a single receptacle on a circuit of its own is rated for no less than the circuit) and Table
//! 210.21(B)(3) (several receptacles), NEMA WD 6 for the configurations (first number: 5 is 125 V, 6 and 10 and 14 are 250 V or
//! 125/250 V; second number: amperes): all from memory. That TT-30 is 120 V though it looks like a 240 V one is common practice.

use wayfinder_core::{Configuration, breakers_for};

/// Table 210.21(B)(3), from memory: the circuit's rating, and the receptacles that may be on it.
const CIRCUITS: [(u16, &[u16]); 6] = [(15, &[15]), (20, &[15, 20]), (30, &[30]), (40, &[40, 50]), (50, &[50]), (60, &[60])];

#[test]
fn several_receptacles_of_a_rating_are_on_the_circuits_of_the_table() {
    for face in Configuration::ALL {
        let table: Vec<u16> =
            CIRCUITS.iter().filter(|(_, receptacles)| receptacles.contains(&face.amps())).map(|(circuit, _)| *circuit).collect();
        assert_eq!(breakers_for(face, false), table, "{}", face.name());
    }
}

#[test]
fn a_single_one_on_a_circuit_of_its_own_is_rated_for_no_less_than_the_circuit() {
    for face in Configuration::ALL {
        let allowed = breakers_for(face, true);
        assert!(!allowed.is_empty(), "{}", face.name());
        for breaker in allowed {
            assert!(*breaker <= face.amps(), "{} on {breaker} A", face.name());
            assert!(
                breakers_for(face, false).contains(breaker),
                "{}: alone it may not be on more than among others",
                face.name()
            );
        }
    }
}

#[test]
fn the_designation_says_volts_and_amperes() {
    for face in Configuration::ALL {
        let (kind, amps) = face.name().rsplit_once('-').unwrap();
        assert_eq!(face.amps(), amps.parse::<u16>().unwrap(), "{}", face.name());
        let volts = match kind.trim_start_matches('L') {
            "5" | "TT" => 120,
            "6" | "10" | "14" => 240,
            other => panic!("{other}"),
        };
        assert_eq!(face.volts().value(), volts, "{}", face.name());
    }
    let mut names: Vec<&str> = Configuration::ALL.iter().map(|face| face.name()).collect();
    names.sort_unstable();
    names.dedup();
    assert_eq!(names.len(), Configuration::ALL.len(), "no face stands there twice");
}
