//! Figures of loads that are published, or that follow from published ones.

use serde_json::{Value, json};
use wayfinder_core::loads::drop::{Run, voltage_drop};
use wayfinder_core::loads::legs::{LegPanels, level};
use wayfinder_core::loads::peak::{Group, may_not_run_together, peak};
use wayfinder_core::loads::service::{Dwelling, Neutral, worksheets};
use wayfinder_core::loads::trip_window::{TripWindow, as_one_body, trip_window};
use wayfinder_core::{Amps, Appliance, Cable, Length, Metal, Terminals, Wire, WireGauge};

fn dwelling(more: Value) -> Dwelling {
    let mut all = json!({
        "edition": 2023, "area_ft2": 1500, "small_appliance_circuits": 2, "laundry_circuits": 1,
        "service": { "main_a": 100, "bus_a": 100, "conductor_a": 100, "meter_a": 200 },
    });
    all.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
    serde_json::from_value(all).unwrap()
}

/// NEC Annex D, Examples D1(a) and D1(b), from memory.
#[test]
fn annex_d1_standard() {
    let ranges = json!({ "cooking": [{ "kind": "range", "w": 12_000 }], "dryers": [{ "w": 5500 }] });
    let a = worksheets(&dwelling(ranges.clone())).standard;
    let Neutral::Reduced { va, amps, .. } = a.neutral else { panic!("{a:?}") };
    assert_eq!((a.sheet.total_va.value(), a.sheet.amps, va.value(), amps), (18_600.0, 78, 14_550.0, 61));
    // D1(b) adds coolers and motors and finds 99, 84 and 104 A line by line; balanced, which is what a sheet tells, 99 and a neutral of 77.
    let mut more = ranges;
    more.as_object_mut().unwrap().extend(
        json!({
            "cool": [{ "va": 1380, "volts": 240 }, { "va": 1380, "volts": 120 }],
            "fixed": [
                { "name": "disposer", "va": 920, "volts": 120, "fastened": true, "motor": true },
                { "name": "dishwasher", "va": 1200, "volts": 120, "fastened": true },
            ],
        })
        .as_object()
        .unwrap()
        .clone(),
    );
    let b = worksheets(&dwelling(more)).standard;
    let Neutral::Reduced { amps, .. } = b.neutral else { panic!("{b:?}") };
    assert_eq!((b.sheet.amps, amps), (99, 77));
}

/// NEC Annex D, Examples D2(a), D2(b) and D2(c), from memory.
#[test]
fn annex_d2_optional() {
    let a = worksheets(&dwelling(json!({
        "cooking": [{ "kind": "range", "w": 12_000 }], "dryers": [{ "w": 5000 }],
        "fixed": [
            { "name": "water heater", "va": 2500, "volts": 240, "fastened": true },
            { "name": "dishwasher", "va": 1200, "volts": 120, "fastened": true },
        ],
        "heat": { "kind": "zones", "w": 9000, "zones": 5 }, "cool": [{ "va": 1380, "volts": 240 }],
    })));
    assert_eq!((a.optional.sheet.total_va.value(), a.optional.sheet.amps), (21_480.0, 90));
    let Neutral::Reduced { va, amps, .. } = a.standard.neutral else { panic!("{a:?}") };
    assert_eq!((va.value(), amps), (15_400.0, 64));
    let b = worksheets(&dwelling(json!({
        "cooking": [{ "kind": "oven", "w": 4000 }, { "kind": "oven", "w": 4000 }, { "kind": "cooktop", "w": 5100 }],
        "dryers": [{ "w": 5000 }],
        "fixed": [
            { "name": "water heater", "va": 4500, "volts": 240, "fastened": true },
            { "name": "dishwasher", "va": 1200, "volts": 120, "fastened": true },
        ],
        "cool": vec![json!({ "va": 1680, "volts": 240 }); 6],
    })));
    assert_eq!((b.optional.sheet.total_va.value(), b.optional.sheet.amps), (29_200.0, 122));
    let c = worksheets(&dwelling(json!({
        "area_ft2": 2000,
        "cooking": [{ "kind": "range", "w": 12_000 }], "dryers": [{ "w": 5000 }],
        "fixed": [
            { "name": "water heater", "va": 4500, "volts": 240, "fastened": true },
            { "name": "dishwasher", "va": 1200, "volts": 120, "fastened": true },
        ],
        "heat_pump": { "va": 5760, "supplement_w": 15_000, "together": true },
    })));
    assert_eq!((c.optional.sheet.total_va.value().round(), c.optional.sheet.amps), (34_790.0, 145));
}

/// Worked out by hand from 220.82, 220.83, 220.87 and CEC 8-200 (constructed, not published).
#[test]
fn sheets_by_hand() {
    let with_charger = |ev: Value| {
        worksheets(&dwelling(json!({
            "area_ft2": 2000, "ev": ev,
            "cooking": [{ "kind": "range", "w": 12_000 }], "dryers": [{ "w": 5000 }],
            "fixed": [
                { "name": "water heater", "va": 4500, "volts": 240, "fastened": true },
                { "name": "dishwasher", "va": 1200, "volts": 120, "fastened": true },
            ],
            "cool": [{ "va": 5000, "volts": 240 }],
        })))
        .optional
    };
    let without = with_charger(Value::Null);
    assert_eq!((without.sheet.total_va.value(), without.sheet.amps), (24_280.0, 101));
    assert_eq!(with_charger(json!({ "va": 7680 })).sheet.amps, 114);
    let existing = worksheets(&dwelling(json!({
        "area_ft2": 1600, "added_hvac": true,
        "cooking": [{ "kind": "range", "w": 12_000 }], "dryers": [{ "w": 5000 }],
        "fixed": [
            { "name": "water heater", "va": 4500, "volts": 240, "fastened": true },
            { "name": "dishwasher", "va": 1200, "volts": 120, "fastened": true },
        ],
        "cool": [{ "va": 5000, "volts": 240 }],
    })))
    .existing;
    assert_eq!((existing.total_va.value(), existing.amps), (22_600.0, 94));
    // The heavier leg decides: its 52 A and 40 A more are refused on 100 A, though the mean of both legs would pass.
    let measured = |a: i64, b: i64| {
        let recording = json!({ "kind": "recording", "days": 30, "interval_min": 15, "leg_a_x10": [a], "leg_b_x10": [b] });
        worksheets(&dwelling(json!({ "measured": recording, "new_load_va": 9600 }))).measured.unwrap()
    };
    let found = measured(520, 280);
    assert_eq!((found.total_a, found.fits, found.valid), (105.0, Some(false), true));
    assert_eq!(measured(400, 400).fits, Some(true));
    let canada = |ev: Value| {
        worksheets(&dwelling(json!({
            "canada": { "ground_dm2": 11_000, "basement_dm2": 8000 }, "ev": ev,
            "cooking": [{ "kind": "range", "w": 12_000 }], "dryers": [{ "w": 5000 }],
            "fixed": [{ "name": "water heater", "va": 3000, "volts": 240, "fastened": true }],
            "cool": [{ "va": 4000, "volts": 240 }],
        })))
        .canada
    };
    let charged = canada(json!({ "va": 7680 }));
    assert_eq!((charged.sheet.total_va.value(), charged.sheet.amps, charged.governs), (25_680.0, 107, "a"));
    let least = canada(Value::Null);
    assert_eq!((least.sheet.total_va.value(), least.sheet.amps, least.governs), (24_000.0, 100, "b"));
    let cold = worksheets(&dwelling(json!({
        "canada": { "ground_dm2": 18_000 }, "heat": { "kind": "zones", "w": 12_000, "zones": 6 },
        "cooking": [{ "kind": "range", "w": 14_000 }], "dryers": [{ "w": 5000 }],
        "fixed": [{ "name": "water heater", "va": 4500, "volts": 240, "fastened": true }],
    })))
    .canada;
    assert_eq!((cold.sheet.total_va.value(), cold.sheet.amps), (26_675.0, 111));
}

/// NEC 705.12(B), worked out by hand: 200 A bus and main, then a 225 A bus.
#[test]
fn solar_on_a_bus() {
    let solar = |bus: i64, far_end: bool| {
        let more = json!({
            "service": { "main_a": 200, "bus_a": bus }, "solar": { "inverter_a_x10": 320, "far_end": far_end },
        });
        worksheets(&dwelling(more)).solar.unwrap()
    };
    assert_eq!((solar(200, true).ok, solar(200, true).most_inverter_a), (true, 32.0));
    assert_eq!((solar(225, true).most_inverter_a, solar(200, false).ok), (56.0, false));
}

/// Values of UL 489 from memory, at its borders.
#[test]
fn trip_windows() {
    let within = |rating: f64, load: f64| trip_window(Amps::new(rating), Amps::new(load));
    let minutes = |minutes| TripWindow::TripsWithin { minutes };
    assert_eq!(
        (within(15.0, 15.0), within(15.0, 20.2), within(15.0, 20.25)),
        (TripWindow::Holds, TripWindow::MayHold, minutes(60))
    );
    assert_eq!((within(30.0, 40.0), within(30.0, 40.5), within(30.0, 60.0)), (TripWindow::MayHold, minutes(60), minutes(2)));
    assert_eq!(
        (within(60.0, 81.0), within(200.0, 400.0), within(450.0, 900.0)),
        (minutes(120), minutes(10), TripWindow::NotPublished)
    );
    // The warming body, for likelihoods only (constructed).
    let seconds = |times: f64| as_one_body(Amps::new(20.0), Amps::new(20.0 * times)).unwrap().round();
    assert_eq!([1.4, 1.5, 1.75, 3.0].map(seconds), [524.0, 328.0, 178.0, 49.0]);
    assert_eq!(as_one_body(Amps::new(20.0), Amps::new(27.0)), None);
}

/// Voltage drops by NEC Chapter 9 Table 8, from memory, worked out by hand.
#[test]
fn voltage_drops() {
    let drop = |gauge, metal, run, amps: f64, feet: i32, volts: f64| {
        let wire = Wire { gauge, metal, terminals: Terminals::Unread, cable: Cable::NotRead };
        let drop = voltage_drop(wire, run, Amps::new(amps), Length::mm((f64::from(feet) * 304.8).round() as i32), volts).unwrap();
        ((drop.volts * 100.0).round() / 100.0, (drop.percent * 100.0).round() / 100.0)
    };
    use Metal::{Aluminum, Copper};
    use WireGauge::{Awg1x0, Awg6, Awg8, Awg10, Awg12, Awg14};
    assert_eq!(drop(Awg12, Copper, Run::TwoWire, 16.0, 100, 120.0), (6.34, 5.28));
    assert_eq!(drop(Awg14, Copper, Run::TwoWire, 12.0, 60, 120.0), (4.52, 3.77));
    assert_eq!(drop(Awg6, Copper, Run::TwoWire, 50.0, 150, 240.0), (7.37, 3.07));
    assert_eq!(drop(Awg1x0, Aluminum, Run::TwoWire, 100.0, 200, 240.0), (8.04, 3.35));
    assert_eq!(drop(Awg10, Copper, Run::TwoWire, 24.0, 120, 240.0), (7.14, 2.98));
    assert_eq!(drop(Awg8, Aluminum, Run::TwoWire, 40.0, 150, 240.0), (15.36, 6.4));
    assert_eq!(drop(Awg12, Copper, Run::BalancedThreeWire, 12.0, 100, 120.0), (2.38, 1.98));
}

/// What a neutral carries: the difference on opposite legs, a phasor sum on a wye (arithmetic).
#[test]
fn neutrals() {
    let neutral = |system: &str, legs: &[i64]| {
        let spaces: Vec<Value> =
            legs.iter().enumerate().map(|(leg, _)| json!({ "leg": leg, "unit": format!("u{leg}") })).collect();
        let units: Vec<Value> = legs
            .iter()
            .enumerate()
            .map(|(leg, amps)| json!({ "id": format!("u{leg}"), "kind": "fixed", "spaces": [leg], "amps_x10": [amps] }))
            .collect();
        let panel = json!({ "name": "m", "rating_a": 100, "legs": legs.len(), "spaces": spaces, "units": units });
        let panels: LegPanels = serde_json::from_value(json!({ "system": system, "panels": [panel] })).unwrap();
        level(&panels).unwrap().curve[0].neutral_a["m"]
    };
    assert_eq!(neutral("120/240", &[142, 95]), 4.7);
    assert_eq!(neutral("208Y/120", &[142, 95]), 12.5);
    assert_eq!(neutral("208Y/120", &[200, 150, 100]), 8.7);
    assert_eq!(neutral("208Y/120", &[200, 200]), 20.0);
}

/// The kitchen of the specification: kettle, toaster, microwave, coffee maker, refrigerator, by the library's figures.
#[test]
fn a_kitchen() {
    let all: Vec<&Appliance> =
        ["kettle", "toaster", "microwave", "coffee", "fridge"].map(|id| Appliance::named(id).unwrap()).into();
    let loads: Vec<(i64, [f64; 24])> = all.iter().map(|it| (it.amps_x100(it.watts), it.usage.hours())).collect();
    let groups: Vec<Group> = loads.iter().map(|(amps, hours)| Group::One(*amps, *hours)).collect();
    let kitchen = peak(&groups);
    assert_eq!((kitchen.expected_x100, kitchen.busiest_x100, kitchen.connected_x100), (1272, 2083, 4252));
    let (sets, more) = may_not_run_together(&loads, 2000, &|_, _| false);
    let mut said: Vec<(Vec<usize>, i64)> = sets
        .into_iter()
        .map(|set| {
            let mut loads = set.loads;
            loads.sort_unstable();
            (loads, set.sum_x100)
        })
        .collect();
    said.sort();
    let wanted = [(vec![0, 1], 2083), (vec![0, 2], 2522), (vec![0, 3, 4], 2147), (vec![1, 2], 2105), (vec![2, 3], 2022)];
    assert_eq!((said.as_slice(), more), (wanted.as_slice(), false));
}
