//! The size of a circuit, a box, a conduit and a ground.
//!
//! Sources, each from memory: NEC 2020 310.15 and 310.16 (derating), 334.80 (NM cable), 314.16 (boxes), Chapter 9 and Annex C Table C.1
//! (conduit), 250.122 (ground), 430.22, 430.52 and Table 430.248 (motors), 440.4 (cooling units), 210.19, 210.20, 210.21(B), 240.4, 422.13,
//! 625.41 (breaker and wire), 110.26 (space before a panel). Figures marked as computed follow from these by hand.

use wayfinder_core::work::{SizeAsked, SizedLoad, size, working_space_lacks};
use wayfinder_core::{
    Cable, Configuration, Edition, InBox, Insulation, Length, Metal, Terminals, Tubing, Wire, WireGauge, box_fill, derated,
    equipment_ground, most_in_tubing, motor_circuit,
};

fn copper(gauge: WireGauge, cable: Cable) -> Wire {
    Wire { gauge, metal: Metal::Copper, terminals: Terminals::Unread, cable }
}

/// Computed: 12 AWG THHN, 9 wires that carry current, 38 °C: 30 × 0.91 × 0.70 = 19.1 A. Two 12-2 NM together, 4 wires: 24 A, held to the
/// 20 A of the 60 °C column; five of them: 15 A.
#[test]
fn heat_and_company() {
    let at =
        |cable, wires, celsius| derated(copper(WireGauge::Awg12, cable), Insulation::C90, wires, celsius, Edition::Nec2020).amps;
    assert!((at(Cable::Conduit, 9, 38) - 19.11).abs() < 0.001);
    assert_eq!(at(Cable::Nm, 4, 25), 20.0);
    assert_eq!(at(Cable::Nm, 10, 30), 15.0);
    // Old insulation in a hot attic must not carry anything.
    let old = derated(copper(WireGauge::Awg12, Cable::Cloth), Insulation::C60, 2, 58, Edition::Nec2020);
    assert_eq!(old.amps, 0.0);
    // Hotter or more of them never carries more; colder is no gain.
    for wires in 1..50 {
        for celsius in -20..90 {
            assert!(at(Cable::Conduit, wires, celsius) >= at(Cable::Conduit, wires + 1, celsius));
            assert!(at(Cable::Conduit, wires, celsius) >= at(Cable::Conduit, wires, celsius + 1));
        }
    }
    assert_eq!(at(Cable::Conduit, 2, -20), at(Cable::Conduit, 3, 30));
}

/// Computed from NEC 314.16(B): two 12-2, a receptacle, clamps 18.0 in³; three 14-2, a switch, clamps 20.0; six grounds of 14 AWG 3.0.
#[test]
fn boxes() {
    use WireGauge::*;
    let two = InBox { wires: vec![(Awg12, 4)], grounds: vec![(Awg12, 2)], clamps: true, fittings: 0, devices: vec![Awg12] };
    assert_eq!(box_fill(&two, Edition::Nec2020), Some(18.0));
    let three = InBox { wires: vec![(Awg14, 6)], grounds: vec![(Awg14, 3)], clamps: true, fittings: 0, devices: vec![Awg14] };
    assert_eq!(box_fill(&three, Edition::Nec2020), Some(20.0));
    let grounds = InBox { grounds: vec![(Awg14, 6)], ..InBox::default() };
    assert_eq!(box_fill(&grounds, Edition::Nec2020), Some(3.0));
    assert_eq!(box_fill(&grounds, Edition::Nec2017), Some(2.0), "before 2020 all grounds count one");
    assert_eq!(box_fill(&InBox { wires: vec![(Awg4, 2)], ..InBox::default() }, Edition::Nec2020), None);
}

/// Annex C, Table C.1: the most THHN in metallic tubing.
#[test]
fn wires_in_tubing() {
    use WireGauge::*;
    let table = [
        (Tubing::Half, [12, 9, 5, 3, 2, 1]),
        (Tubing::ThreeQuarters, [22, 16, 10, 6, 4, 2]),
        (Tubing::One, [35, 26, 16, 9, 7, 4]),
        (Tubing::OneAndQuarter, [61, 45, 28, 16, 12, 7]),
        (Tubing::OneAndHalf, [84, 61, 38, 22, 16, 10]),
        (Tubing::Two, [138, 101, 63, 36, 26, 16]),
    ];
    for (tubing, most) in table {
        for (gauge, most) in [Awg14, Awg12, Awg10, Awg8, Awg6, Awg4].into_iter().zip(most) {
            assert_eq!(most_in_tubing(tubing, gauge), Some(most), "{tubing:?} {gauge:?}");
        }
    }
}

/// Table 250.122 for copper and aluminum, and 250.122(B): it grows with the hots. Computed: 20 A on 10 in place of 12 AWG: the ground is
/// 6530 × 10 380 / 6530, that is 10 AWG.
#[test]
fn grounds() {
    use WireGauge::*;
    let table: [(f64, WireGauge, WireGauge); 7] = [
        (15.0, Awg14, Awg12),
        (20.0, Awg12, Awg10),
        (30.0, Awg10, Awg8),
        (60.0, Awg10, Awg8),
        (100.0, Awg8, Awg6),
        (200.0, Awg6, Awg4),
        (400.0, Awg3, Awg1),
    ];
    for (amps, of_copper, of_aluminum) in table {
        let hots = copper(Kcmil500, Cable::Conduit);
        assert_eq!(equipment_ground(amps, Metal::Copper, hots, None), Some(of_copper));
        assert_eq!(equipment_ground(amps, Metal::Aluminum, hots, None), Some(of_aluminum));
    }
    let hots = copper(Awg10, Cable::Nm);
    assert_eq!(equipment_ground(20.0, Metal::Copper, hots, Some(Awg12)), Some(Awg10));
    assert_eq!(
        equipment_ground(60.0, Metal::Copper, copper(Awg12, Cable::Conduit), None),
        Some(Awg12),
        "not thicker than the hots"
    );
    assert_eq!(equipment_ground(1000.0, Metal::Copper, hots, None), None);
}

/// Table 430.248: 1 hp at 230 V takes 8 A: wire 10 A, breaker 20 A; 5 hp 28 A: wire 35 A, breaker 70 A.
#[test]
fn motors() {
    let one = motor_circuit(8.0).unwrap();
    assert_eq!((one.wire_at_least, one.breaker_at_most), (10.0, 20.0));
    let five = motor_circuit(28.0).unwrap();
    assert_eq!((five.wire_at_least, five.breaker_at_most), (35.0, 70.0));
}

fn asked(load: SizedLoad) -> SizeAsked {
    SizeAsked {
        load,
        volts: 240.0,
        cord: false,
        several_receptacles: false,
        neutral: false,
        metal: Metal::Copper,
        cable: Cable::Nm,
        terminals: Terminals::Unread,
        insulation: Insulation::C90,
        carrying: 2,
        celsius: 30,
        one_way: None,
        edition: Edition::Nec2020,
    }
}

/// Usual circuits (common practice) with the rules behind them: dryer 30 A on 10 AWG, range 40 A on 8, water heater of 4500 W on 10,
/// charger of 32 A on a breaker of 40 A and 8 AWG, of 48 A on 60 A and, in NM cable, 4 AWG, for the 55 A of 6 AWG are less than 60.
#[test]
fn usual_circuits() {
    use WireGauge::*;
    let cord = |load, neutral| SizeAsked { cord: true, neutral, ..asked(load) };
    let of = |asked: SizeAsked| {
        let sized = size(&asked).unwrap();
        (sized.breaker.value(), sized.wire, sized.ground)
    };
    assert_eq!(of(cord(SizedLoad::Dryer { watts: 5000.0 }, true)), (30.0, Awg10, Awg10));
    assert_eq!(of(cord(SizedLoad::Range { watts: 12_000.0 }, true)), (40.0, Awg8, Awg10));
    assert_eq!(of(asked(SizedLoad::WaterHeater { watts: 4500.0 })), (25.0, Awg10, Awg10));
    assert_eq!(of(asked(SizedLoad::Charger { amps: 32.0 })), (40.0, Awg8, Awg10));
    assert_eq!(of(asked(SizedLoad::Charger { amps: 48.0 })), (60.0, Awg4, Awg10));
    let sized = size(&cord(SizedLoad::Dryer { watts: 5000.0 }, true)).unwrap();
    assert_eq!(sized.receptacles, [Configuration::N14x30, Configuration::L14x30]);
    let sized = size(&cord(SizedLoad::Plain { amps: 16.0, continuous: true }, false)).unwrap();
    assert_eq!((sized.breaker.value(), sized.receptacles), (20.0, vec![Configuration::N6x20]));
    // 120 V with receptacles for whatever is plugged in.
    let kitchen =
        SizeAsked { volts: 120.0, several_receptacles: true, ..asked(SizedLoad::Plain { amps: 20.0, continuous: false }) };
    assert_eq!(of(kitchen), (20.0, Awg12, Awg12));
    assert!(size(&kitchen).unwrap().lines.iter().any(|line| line.value == "one hot, a neutral and a ground"));
}

/// A cooling unit of 12 A minimum and 20 A maximum: a two-pole of 20 A, 12 AWG. A plate is never answered with a larger breaker.
#[test]
fn a_plate_wins() {
    let sized = size(&asked(SizedLoad::Cooling { wire_at_least: 12.0, breaker_at_most: 20.0 })).unwrap();
    assert_eq!((sized.breaker.value(), sized.wire), (20.0, WireGauge::Awg12));
    for most in 15..100 {
        let sized = size(&asked(SizedLoad::Cooling { wire_at_least: 12.0, breaker_at_most: f64::from(most) })).unwrap();
        assert!(sized.breaker.value() <= f64::from(most));
    }
    assert!(size(&asked(SizedLoad::Cooling { wire_at_least: 30.0, breaker_at_most: 20.0 })).unwrap_err().contains("once more"));
}

/// Computed by Chapter 9 Table 8: 24 A over 120 ft at 240 V on 10 AWG lose 7.14 V, 2.98 %; a tenth longer wants 8 AWG and a thicker
/// ground.
#[test]
fn long_runs() {
    let far = |feet: f64| SizeAsked {
        one_way: Some(Length::mm((feet * 304.8).round() as i32)),
        ..asked(SizedLoad::Plain { amps: 24.0, continuous: false })
    };
    let near = size(&far(120.0)).unwrap();
    let drop = near.drop.unwrap();
    assert!((drop.volts - 7.14).abs() < 0.01 && (drop.percent - 2.98).abs() < 0.01, "{drop:?}");
    assert_eq!((near.wire, near.ground), (WireGauge::Awg10, WireGauge::Awg10));
    let longer = size(&far(132.0)).unwrap();
    assert_eq!((longer.wire, longer.ground), (WireGauge::Awg8, WireGauge::Awg8));
    assert!(size(&far(100_000.0)).unwrap_err().contains("ask an electrician"));
}

/// No answer breaks a rule of its own: the wire carries the load in its place, the breaker guards it, and more load is never answered
/// with less.
#[test]
fn what_is_sized_holds() {
    let mut before = (0.0, WireGauge::Awg14);
    for tenths in 1..1600 {
        let load = SizedLoad::Plain { amps: f64::from(tenths) / 10.0, continuous: true };
        let Ok(sized) = size(&SizeAsked { carrying: 6, celsius: 40, ..asked(load) }) else { continue };
        assert!(sized.derated.amps >= f64::from(tenths) / 10.0, "{tenths}");
        assert!(sized.breaker.value() * 10.0 >= 1.25 * f64::from(tenths));
        assert!(sized.breaker.value() >= before.0 && sized.wire >= before.1, "{tenths}");
        assert!(sized.lines.iter().all(|line| line.source.starts_with("NEC 2020 ")), "{:?}", sized.lines);
        before = (sized.breaker.value(), sized.wire);
    }
    assert!(before.1 > WireGauge::Awg1, "{before:?}");
    let canada = SizeAsked { edition: Edition::Cec2021, ..asked(SizedLoad::Charger { amps: 32.0 }) };
    assert!(size(&canada).unwrap_err().contains("is not known here"));
}

#[test]
fn the_space_before_a_panel() {
    assert!(working_space_lacks(36.0, 30.0, 78.0).is_empty());
    assert_eq!(working_space_lacks(30.0, 30.0, 70.0).len(), 2);
}
