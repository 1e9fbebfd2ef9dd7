//! The circuit solver against a circuit simulator, ngspice, on 50 networks drawn at random.
#![allow(clippy::disallowed_methods)] // it runs another program, which the core itself may not

use std::fmt::Write as _;
use std::io::Write as _;
use std::process::{Command, Stdio};

use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use wayfinder_core::loads::network::{Branch, LoadKind, Network, NetworkAnswer, NetworkLoad, Source, solve};

/// A service and so many circuits, each a chain of outlets; now and then a wire is missing, the neutral of the service too.
fn drawn(rng: &mut Pcg64Mcg) -> Network {
    let wye = rng.random_bool(0.3);
    let mut network = Network { id: String::new(), leak_s: 1e-9, sources: Vec::new(), branches: Vec::new(), loads: Vec::new() };
    let ohms = |rng: &mut Pcg64Mcg| rng.random_range(0.005..0.2_f64);
    for (leg, deg) in [("A", 0.0), ("B", if wye { -120.0 } else { 180.0 })] {
        network.sources.push(Source { id: format!("t{leg}"), node: format!("x{leg}"), volts: 120.0, deg, r: 0.02, x: 0.017 });
        network.branches.push(Branch {
            id: format!("s{leg}"),
            a: format!("x{leg}"),
            b: format!("m{leg}"),
            r: ohms(rng),
            x: 0.003,
        });
    }
    let neutral_open = rng.random_bool(0.2);
    if !neutral_open {
        network.branches.push(Branch { id: "sN".into(), a: "0".into(), b: "mN".into(), r: ohms(rng), x: 0.003 });
    }
    for circuit in 0..rng.random_range(2..8) {
        let leg = if rng.random_bool(0.5) { "A" } else { "B" };
        let (mut hot, mut neutral) = (format!("m{leg}"), "mN".to_owned());
        for outlet in 0..rng.random_range(1..5) {
            let (next_hot, next_neutral) = (format!("c{circuit}h{outlet}"), format!("c{circuit}n{outlet}"));
            for (from, to) in [(&hot, &next_hot), (&neutral, &next_neutral)] {
                if rng.random_bool(0.97) {
                    network.branches.push(Branch { id: format!("w{to}"), a: from.clone(), b: to.clone(), r: ohms(rng), x: 0.0 });
                }
            }
            let w = rng.random_range(5.0..1500.0_f64);
            // With an open neutral loads that keep their power have several states; impedances have one.
            let kind = if rng.random_bool(0.4) && !neutral_open { LoadKind::P } else { LoadKind::Z };
            let var = if rng.random_bool(0.5) { w * rng.random_range(0.1..1.0_f64) } else { 0.0 };
            network.loads.push(NetworkLoad {
                id: format!("d{to}", to = next_hot),
                a: next_hot.clone(),
                b: next_neutral.clone(),
                kind,
                w,
                var,
                vn: 120.0,
            });
            (hot, neutral) = (next_hot, next_neutral);
        }
    }
    network
}

/// The same network for the simulator. What keeps its power stands as the impedance that it has at our answer.
fn netlist(network: &Network, answer: &NetworkAnswer) -> (String, Vec<String>) {
    let omega = 2.0 * std::f64::consts::PI * 60.0;
    let nodes: Vec<String> = answer.volts.keys().cloned().collect();
    let name = |node: &str| if node == "0" { "0".to_owned() } else { node.to_lowercase() };
    let mut text = String::from("a network\n");
    let series = |text: &mut String, id: &str, a: &str, b: &str, r: f64, x: f64| {
        if x == 0.0 {
            writeln!(text, "R{id} {a} {b} {r:e}").unwrap();
        } else {
            writeln!(text, "R{id} {a} q{id} {r:e}\nL{id} q{id} {b} {:e}", x / omega).unwrap();
        }
    };
    for source in &network.sources {
        writeln!(text, "V{id} v{id} 0 AC {} {}", source.volts, source.deg, id = source.id).unwrap();
        series(&mut text, &source.id, &format!("v{}", source.id), &name(&source.node), source.r, source.x);
    }
    for branch in &network.branches {
        series(&mut text, &branch.id, &name(&branch.a), &name(&branch.b), branch.r, branch.x);
    }
    for load in &network.loads {
        let square = match load.kind {
            LoadKind::Z => load.vn * load.vn,
            LoadKind::P => answer.between(&load.a, &load.b).powi(2).max((0.7 * load.vn).powi(2)),
        };
        let (a, b) = (name(&load.a), name(&load.b));
        writeln!(text, "R{} {a} {b} {:e}", load.id, square / load.w).unwrap();
        if load.var != 0.0 {
            writeln!(text, "L{} {a} {b} {:e}", load.id, square / load.var / omega).unwrap();
        }
    }
    for node in &nodes {
        writeln!(text, "Rleak{node} {} 0 {:e}", name(node), 1.0 / network.leak_s).unwrap();
    }
    text.push_str(".control\nset numdgt=12\nac lin 1 60 60\n");
    for node in &nodes {
        writeln!(text, "print v({})", name(node)).unwrap();
    }
    text.push_str("quit\n.endc\n.end\n");
    (text, nodes)
}

fn simulated(netlist: &str, count: usize) -> Vec<[f64; 2]> {
    let mut simulator =
        Command::new("ngspice").arg("-b").stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::null()).spawn().unwrap();
    simulator.stdin.take().unwrap().write_all(netlist.as_bytes()).unwrap();
    let said = simulator.wait_with_output().unwrap();
    let said = String::from_utf8_lossy(&said.stdout).into_owned();
    let volts = said.lines().filter(|line| line.starts_with("v(")).map(|line| {
        let (real, imaginary) = line.split_once('=').unwrap().1.split_once(',').unwrap();
        [real.trim().parse().unwrap(), imaginary.trim().parse().unwrap()]
    });
    let volts: Vec<[f64; 2]> = volts.collect();
    assert_eq!(volts.len(), count, "{said}\n{netlist}");
    volts
}

#[test]
fn fifty_networks_as_a_circuit_simulator_has_them() {
    let mut rng = Pcg64Mcg::seed_from_u64(50);
    let (mut of_power, mut nodes_in_all) = (0, 0);
    for round in 0..50 {
        let network = drawn(&mut rng);
        let answer = solve(&network).unwrap();
        let (netlist, nodes) = netlist(&network, &answer);
        for (node, wanted) in nodes.iter().zip(simulated(&netlist, nodes.len())) {
            let got = answer.volts[node];
            let off = (wanted[0] - got[0]).hypot(wanted[1] - got[1]);
            let size = wanted[0].hypot(wanted[1]).max(1.0);
            assert!(off <= 1e-3 * size, "round {round}, {node}: {wanted:?} and {got:?}");
            nodes_in_all += 1;
        }
        for load in network.loads.iter().filter(|load| load.kind == LoadKind::P) {
            let (volts, amps) = (answer.between(&load.a, &load.b), answer.amps[&load.id]);
            if volts > 0.7 * load.vn {
                of_power += 1;
                assert!((volts * amps - load.w.hypot(load.var)).abs() < 0.01, "round {round}, {}: {volts} V, {amps} A", load.id);
            }
        }
    }
    assert!(of_power > 50 && nodes_in_all > 500, "{of_power} {nodes_in_all}");
}

/// A lost neutral with two loads, each an impedance: 240 V share themselves by resistance.
#[test]
fn a_lost_neutral() {
    // NEC-free arithmetic, and the two pairs that the trade's facts name: 1200 against 100 W, 1500 against 60 W.
    for (watts, volts) in [([1200.0, 100.0], [18.46, 221.54]), ([1500.0, 60.0], [9.23, 230.77])] {
        let source =
            |id: &str, node: &str, deg: f64| Source { id: id.into(), node: node.into(), volts: 120.0, deg, r: 1e-6, x: 0.0 };
        let load = |id: &str, leg: &str, w: f64| NetworkLoad {
            id: id.into(),
            a: leg.into(),
            b: "n".into(),
            kind: LoadKind::Z,
            w,
            var: 0.0,
            vn: 120.0,
        };
        let network = Network {
            id: String::new(),
            leak_s: 1e-9,
            sources: vec![source("ta", "a", 0.0), source("tb", "b", 180.0)],
            branches: Vec::new(),
            loads: vec![load("one", "a", watts[0]), load("two", "b", watts[1])],
        };
        let answer = solve(&network).unwrap();
        assert!((answer.between("a", "n") - volts[0]).abs() < 0.01 && (answer.between("b", "n") - volts[1]).abs() < 0.01);
    }
}

#[test]
fn what_cannot_be_is_said() {
    let text = r#"{"sources":[{"id":"t","node":"a","volts":120,"r":0}],"loads":[]}"#;
    let network: Network = serde_json::from_str(text).unwrap();
    assert_eq!(solve(&network).unwrap_err(), "t needs an impedance above 0");
    let text = r#"{"sources":[{"id":"t","node":"0","volts":120,"r":1}],"loads":[]}"#;
    let network: Network = serde_json::from_str(text).unwrap();
    assert_eq!(solve(&network).unwrap_err(), "source t feeds node 0");
}
