//! Loads of random homes, held against somebody who adds up by himself.

use std::collections::BTreeSet;

use super::written;
use proptest::prelude::*;
use wayfinder_core::loads::{Stands, circuits, loads_view, while_running};
use wayfinder_core::*;
use wayfinder_fixture::any::{any_fact, id};

/// Facts of every kind, with loads and what proves points among them.
fn facts() -> impl Strategy<Value = Vec<Fact>> {
    let proof = (0..3_u8, 0..3_u8).prop_map(|(point, breaker)| {
        let seen = |seen| Fact::PointSeen(PointSeen { point: id("p", point), seen, since: None, anew: false });
        let switched = |to| Fact::BreakerSwitched(BreakerSwitched { breaker: id("b", breaker), to });
        vec![seen(Seen::Lit), switched(State::Off), seen(Seen::Dark), switched(State::On), seen(Seen::Lit)]
    });
    let load = (0..9_u8, 0..4_u8, prop::sample::select(vec!["kettle", "space_heater", "fridge", "led_60", "microwave"]));
    let load = load.prop_map(|(load, point, appliance)| {
        vec![Fact::LoadPlaced(LoadPlaced {
            load: id("l", load),
            point: id("p", point),
            name: appliance.into(),
            appliance: Some(appliance.into()),
            count: 1,
            draw: Draw::Library,
            continuous: None,
            fastened: None,
            usage: None,
            with: None,
            never_with: Vec::new(),
        })]
    });
    let any = any_fact().prop_map(|fact| vec![fact]);
    prop::collection::vec(prop_oneof![2 => proof, 4 => load, 3 => any], 0..40).prop_map(|facts| facts.concat())
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn every_load_is_in_one_place_and_sums_are_in_order(facts in facts()) {
        let home = Study::from(&written(facts));
        let view = loads_view(&home);
        let mut told: Vec<&LoadId> = view.circuits.iter().flat_map(|circuit| &circuit.loads).map(|line| &line.load).collect();
        told.extend(view.elsewhere.iter().map(|line| &line.load));
        let each: BTreeSet<&LoadId> = told.iter().copied().collect();
        prop_assert_eq!(told.len(), each.len(), "a load is told twice");
        prop_assert_eq!(each, home.loads().all().map(|load| &load.id).collect::<BTreeSet<_>>());
        for circuit in &view.circuits {
            for line in &circuit.loads {
                let on = verdict(&home, &line.point);
                prop_assert_eq!(on.proven_on(), Some(&circuit.breaker), "only what is proven on it counts on it");
                prop_assert!(line.low <= line.amps && line.amps <= line.high && line.high > 0.0, "{:?}", line);
            }
            prop_assert!(circuit.expected <= circuit.connected + 0.005 && circuit.expected <= circuit.busiest + 0.005);
            prop_assert!(circuit.between[0] <= circuit.counted && circuit.counted <= circuit.between[1]);
            prop_assert!(circuit.limit > 0.0 && circuit.limit <= circuit.breaker_amps);
            prop_assert!(circuit.sentence.ends_with('.'), "{}", circuit.sentence);
            prop_assert_eq!(circuit.stands == Stands::Over, circuit.stands != Stands::TooClose && circuit.percent > 100.0);
            let all: Vec<LoadId> = circuit.loads.iter().map(|line| line.load.clone()).collect();
            let at_once = while_running(&home, &circuit.breaker, &all).unwrap().amps;
            prop_assert!((at_once - circuit.loads.iter().map(|line| line.amps).sum::<f64>()).abs() < 0.005);
        }
        prop_assert_eq!(view.circuits.len(), home.panels().breakers().count());
    }

    #[test]
    fn what_may_not_run_together_is_every_smallest_set_above_the_limit(facts in facts()) {
        let home = Study::from(&written(facts));
        for circuit in circuits(&home).iter().filter(|circuit| circuit.loads.len() <= 8) {
            let amps: Vec<i64> = circuit.loads.iter().map(|line| (line.amps * 100.0).round() as i64).collect();
            let limit = (circuit.limit * 100.0).round() as i64;
            let never = |a: usize, b: usize| {
                let (a, b) = (&circuit.loads[a], &circuit.loads[b]);
                let seasons = [a.season, b.season];
                a.stated.never_with.contains(&b.load)
                    || b.stated.never_with.contains(&a.load)
                    || seasons.contains(&Season::Heat) && seasons.contains(&Season::Cool)
            };
            let members = |set: usize| (0..amps.len()).filter(move |at| set & (1 << at) != 0);
            let sum = |set: usize| members(set).map(|at| amps[at]).sum::<i64>();
            let can_be = |set: usize| members(set).all(|a| members(set).all(|b| a == b || !never(a, b)));
            let smallest = |set: &usize| sum(*set) > limit && members(*set).all(|at| sum(*set & !(1 << at)) <= limit || amps[at] == 0);
            let wanted: BTreeSet<BTreeSet<&LoadId>> = (0..1_usize << amps.len())
                .filter(|set| smallest(set) && can_be(*set) && members(*set).all(|at| amps[at] > 0))
                .map(|set| members(set).map(|at| &circuit.loads[at].load).collect())
                .collect();
            let told: BTreeSet<BTreeSet<&LoadId>> = circuit.not_together.iter().map(|set| set.loads.iter().collect()).collect();
            prop_assert_eq!(told, wanted);
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 120, failure_persistence: None, ..ProptestConfig::default() })]

    /// Whatever the loads really take, a reading of some of them together never rules the truth out.
    #[test]
    fn a_sum_that_was_read_never_rules_the_truth_out(
        parts in prop::collection::vec((prop::sample::select(vec!["kettle", "microwave", "led_60", "box"]), 0.0..1.0_f64, prop::bool::ANY, 0.0..1.0_f64), 1..5),
        off in -1.0..1.0_f64,
        unlisted in 0.0..1.0_f64,
    ) {
        let mut acts = "panel 12\n1 20 kitchen\nroom Kitchen\npoint Kitchen receptacle counter\nproof counter 1\n".to_owned();
        let named = |at: usize| format!("l{at}");
        for (at, (appliance, ..)) in parts.iter().enumerate() {
            let (draw, like) = if *appliance == "box" { (r#"{"from":"not_known"}"#, "null".to_owned()) } else { (r#"{"from":"library"}"#, format!("\"{appliance}\"")) };
            acts += &format!("fact {{\"kind\":\"load_placed\",\"load\":\"{}\",\"point\":\"counter\",\"name\":\"{appliance}\",\"appliance\":{like},\"draw\":{draw}}}\n", named(at));
        }
        let before = wayfinder_fixture::written(&acts).home;
        let lines = |home: &Study| circuits(home).iter().find(|circuit| circuit.number == "1").map(|circuit| circuit.loads.clone()).unwrap_or_default();
        let truth: Vec<f64> = lines(&before).iter().zip(&parts).map(|(line, (_, part, ..))| line.low + (line.high - line.low) * part).collect();
        let ran: Vec<usize> = (0..parts.len()).filter(|at| parts[*at].2).collect();
        prop_assume!(!ran.is_empty());
        // A clamp sees the sum of phasors: what only heats is in step with the volts, a motor is behind.
        let factor = |at: usize| match parts[at] {
            ("box", .., free) => 0.6 + 0.4 * free,
            (appliance, ..) => Appliance::named(appliance).map_or(1.0, |like| like.power_factor),
        };
        let (with_volts, behind) = ran.iter().fold((unlisted, 0.0), |(with_volts, behind), at| {
            let factor: f64 = factor(*at);
            (with_volts + truth[*at] * factor, behind + truth[*at] * (1.0 - factor * factor).sqrt())
        });
        let sum = f64::hypot(with_volts, behind);
        let read = sum * (1.0 + off * 0.029);
        prop_assume!(read < 40.0);
        let running: Vec<String> = ran.iter().map(|at| format!("\"{}\"", named(*at))).collect();
        acts += &format!(
            "fact {{\"kind\":\"reading_taken\",\"target\":{{\"of\":\"circuit\",\"breaker\":\"b1\"}},\"with\":\"clamp\",\"value\":{{\"unit\":\"amps\",\"amps\":{read}}},\"running\":[{}],\"arranged\":true}}",
            running.join(",")
        );
        let after = wayfinder_fixture::written(&acts).home;
        for (line, truth) in lines(&after).iter().zip(&truth) {
            // Hundredths are rounded on the way.
            prop_assert!(line.low <= truth + 0.03 && truth - 0.03 <= line.high, "{truth}: {line:?}");
            prop_assert!(line.low <= line.amps && line.amps <= line.high);
        }
    }
}
