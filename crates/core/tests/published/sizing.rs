//! The size of a circuit, a box, a conduit and a ground.
//!
//! Sources, each from memory: NEC 2020 310.15 and 310.16 (derating), 334.80 (NM cable), 314.16 (boxes), Chapter 9 and Annex C Table C.1
//! (conduit), 250.122 (ground), 430.22, 430.52 and Table 430.248 (motors), 440.4 (cooling units), 210.19, 210.20, 210.21(B), 240.4, 422.13,
//! 625.41 (breaker and wire), 110.26 (space before a panel). Figures marked as computed follow from these by hand.

use wayfinder_core::work::{SizeLine, Sized, SizedWhere, size as sized, working_space_lacks};
use wayfinder_core::{
    Cable, Configuration, Edition, InBox, InspectorSaid, Insulation, Length, Metal, SizeAsked, SizeOf, SizedLoad, Terminals,
    Tubing, Volts, Wire, WireGauge, box_fill, derated, equipment_ground, most_in_tubing, motor_circuit,
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
        volts: Volts::new(240),
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
        panel: None,
        room: None,
        point: None,
        space: None,
        said: Vec::new(),
    }
}

/// By NEC 2020, with the run and the room unknown.
fn size(asked: &SizeAsked) -> Result<Sized, String> {
    sized(asked, SizedWhere::new(asked.one_way, None, Edition::Nec2020))
}

fn line(sized: &Sized, of: SizeOf) -> &SizeLine {
    sized.lines.iter().find(|line| line.of == of).unwrap_or_else(|| panic!("no line of {of:?}"))
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
    let kitchen = SizeAsked {
        volts: Volts::new(120),
        several_receptacles: true,
        ..asked(SizedLoad::Plain { amps: 20.0, continuous: false })
    };
    assert_eq!(of(kitchen.clone()), (20.0, Awg12, Awg12));
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
    let heavy = SizeAsked { load: SizedLoad::Plain { amps: 150.0, continuous: false }, ..far(3_000.0) };
    assert!(size(&heavy).unwrap_err().contains("ask an electrician"));
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
    let canada = sized(&asked(SizedLoad::Charger { amps: 32.0 }), SizedWhere::new(None, None, Edition::Cec2021));
    assert!(canada.unwrap_err().contains("is not known here"));
}

#[test]
fn the_space_before_a_panel() {
    assert!(working_space_lacks(36.0, 30.0, 78.0).is_empty());
    assert_eq!(working_space_lacks(30.0, 30.0, 70.0).len(), 2);
}

/// NEC 314.16(B), from memory: a 14-50 box with three wires of 6 AWG, grounds counted once, clamps once, the device twice for each of its
/// two gangs, by the sizes of Table 314.16(B): 3 × 5 + 2.5 + 5 + 2 × 10. Two cables of 12 AWG at a receptacle: 4 × 2.25 + 2.25 + 2.25 + 4.5. Chapter 9: three of
/// 6 AWG (0.0507 in²) and 10 AWG (0.0211) take 0.173 of the 0.213 in² that 40 % of 3/4 in EMT are.
#[test]
fn the_box_and_the_tubing() {
    let range = SizeAsked {
        cord: true,
        neutral: true,
        cable: Cable::Conduit,
        terminals: Terminals::Read75C,
        ..asked(SizedLoad::Plain { amps: 50.0, continuous: false })
    };
    let found = size(&range).unwrap();
    assert_eq!((found.breaker.value(), found.wire, found.ground), (50.0, WireGauge::Awg8, WireGauge::Awg10));
    let thicker = SizeAsked { terminals: Terminals::Unread, ..range };
    let found = size(&thicker).unwrap();
    assert_eq!(found.wire, WireGauge::Awg6);
    assert_eq!(line(&found, SizeOf::Box).value, "42.5 in³ at least");
    assert_eq!(line(&found, SizeOf::Tubing).value, "3/4 in");
    let several = SizeAsked {
        volts: Volts::new(120),
        several_receptacles: true,
        ..asked(SizedLoad::Plain { amps: 20.0, continuous: false })
    };
    assert_eq!(line(&size(&several).unwrap(), SizeOf::Box).value, "18 in³ at least");
}

/// NEC 210.8, 210.12, 625.54, from memory: by where the circuit ends.
#[test]
fn protection_goes_by_the_place() {
    let plain =
        |volts| SizeAsked { volts: Volts::new(volts), cord: true, ..asked(SizedLoad::Plain { amps: 16.0, continuous: false }) };
    let charger = SizedLoad::Charger { amps: 24.0 };
    let range = || SizeAsked { cord: true, neutral: true, ..asked(SizedLoad::Range { watts: 12_000.0 }) };
    for (what, room, edition, says) in [
        (plain(120), Some("Garage"), Edition::Nec2020, "GFCI"),
        (plain(240), Some("Garage"), Edition::Nec2017, "none by this rule"),
        (plain(240), Some("Garage"), Edition::Nec2020, "GFCI"),
        (plain(120), Some("Laundry"), Edition::Nec2020, "GFCI and AFCI (one breaker can do both)"),
        (plain(120), Some("Bedroom"), Edition::Nec2020, "AFCI"),
        (plain(240), Some("Bedroom"), Edition::Nec2020, "none by this rule"),
        (plain(120), Some("Workroom"), Edition::Nec2020, "not known"),
        (plain(120), None, Edition::Nec2020, "not known"),
        (SizeAsked { cord: true, ..asked(charger) }, None, Edition::Nec2020, "GFCI"),
        (asked(charger), Some("Garage"), Edition::Nec2020, "none by this rule"),
        (asked(SizedLoad::Cooling { wire_at_least: 18.0, breaker_at_most: 30.0 }), Some("Yard"), Edition::Nec2020, "GFCI"),
        (
            asked(SizedLoad::Cooling { wire_at_least: 18.0, breaker_at_most: 30.0 }),
            Some("Yard"),
            Edition::Nec2017,
            "none by this rule",
        ),
        (SizeAsked { cord: true, neutral: true, ..asked(SizedLoad::Dryer { watts: 5000.0 }) }, None, Edition::Nec2023, "GFCI"),
        (range(), Some("Kitchen"), Edition::Nec2020, "none by this rule"),
        (range(), Some("Kitchen"), Edition::Nec2023, "GFCI"),
        (asked(SizedLoad::Heat { watts: 4000.0 }), Some("Garage"), Edition::Nec2020, "none by this rule"),
        (asked(SizedLoad::Heat { watts: 4000.0 }), Some("Garage"), Edition::Nec2023, "GFCI"),
    ] {
        let found = sized(&what, SizedWhere::new(None, room, edition)).unwrap();
        assert_eq!(line(&found, SizeOf::Protection).value, says, "{what:?} {room:?} {edition:?}");
    }
}

/// NEC 422.31, 422.33, 424.19, 430.102(B), 440.14, 625.43, from memory: what it can be switched off by.
#[test]
fn a_disconnect_by_what_it_feeds() {
    let motor = SizedLoad::Motor { hundredths_hp: 100 };
    for (what, says, section) in [
        (asked(SizedLoad::Cooling { wire_at_least: 18.0, breaker_at_most: 30.0 }), "a switch in sight of it", "440.14"),
        (asked(motor), "a switch in sight of it", "430.102(B)"),
        (asked(SizedLoad::WaterHeater { watts: 4500.0 }), "can be locked off", "422.31(B)"),
        (asked(SizedLoad::Heat { watts: 2000.0 }), "can be locked off", "424.19"),
        (SizeAsked { cord: true, neutral: true, ..asked(SizedLoad::Dryer { watts: 5000.0 }) }, "its plug", "422.33"),
        (asked(SizedLoad::Charger { amps: 64.0 }), "a switch in sight of it", "625.43"),
    ] {
        let found = size(&what).unwrap();
        let line = line(&found, SizeOf::Disconnect);
        assert!(line.value.contains(says) && line.source.contains(section), "{line:?}");
    }
    let small = size(&asked(SizedLoad::Charger { amps: 32.0 })).unwrap();
    assert!(small.lines.iter().all(|line| line.of != SizeOf::Disconnect), "up to 60 A none is asked for");
}

/// What the inspector says holds for all that follows from it, keeps the rule beside it, and is cautioned where it allows more.
#[test]
fn as_the_inspector_says() {
    let say = |of, value: &str| InspectorSaid { of, value: value.into(), why: "said at the rough-in".into() };
    let with = |said: Vec<InspectorSaid>| size(&SizeAsked { said, ..asked(SizedLoad::Charger { amps: 32.0 }) });
    let larger = with(vec![say(SizeOf::Wire, "6 AWG")]).unwrap();
    assert_eq!((larger.wire, larger.ground), (WireGauge::Awg6, WireGauge::Awg8), "the ground grows with the hots");
    assert!(larger.cautions.is_empty(), "{:?}", larger.cautions);
    let wire = line(&larger, SizeOf::Wire);
    assert_eq!((wire.value.as_str(), wire.said.as_ref().unwrap().value.as_str()), ("8 AWG copper", "6 AWG copper"));
    let fifty = with(vec![say(SizeOf::Breaker, "50 A")]).unwrap();
    assert_eq!((fifty.breaker.value(), fifty.wire), (50.0, WireGauge::Awg6), "the wire follows from the breaker");
    assert!(fifty.cautions[0].contains("larger than the 40 A"), "{:?}", fifty.cautions);
    let thin = with(vec![say(SizeOf::Wire, "10"), say(SizeOf::Ground, "12")]).unwrap();
    assert!(thin.cautions[0].contains("30.0 A") && thin.cautions[1].contains("thinner than the table"), "{:?}", thin.cautions);
    for (of, value) in [(SizeOf::Breaker, "large"), (SizeOf::Wire, "9"), (SizeOf::Ground, "bare"), (SizeOf::Receptacle, "16-3")] {
        assert!(with(vec![say(of, value)]).unwrap_err().contains("as the inspector says"), "{value}");
    }
    let words = with(vec![say(SizeOf::Disconnect, "a lock on the breaker")]).unwrap();
    assert!(words.cautions.is_empty());
}
