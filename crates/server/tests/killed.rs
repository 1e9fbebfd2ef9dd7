//! What was acknowledged is there after `kill -9`, and no batch is there by half.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod support;

use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};

use serde_json::json;
use support::{Program, get, home_named, post, room};

/// How often it is killed; `WAYFINDER_KILLS=1000` for more.
fn times() -> u64 {
    std::env::var("WAYFINDER_KILLS").map_or(100, |times| times.parse().unwrap())
}
const CLIENTS: u64 = 4;

/// Another home after a hundred kills: reading ever longer ones at each start would take most of the time.
fn home_of(time: u64) -> String {
    format!("hut-{}", time / 100)
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn every_acknowledged_entry_survives_a_hundred_kills_in_the_middle_of_a_burst() {
    let folder = tempfile::tempdir().unwrap();
    let acknowledged = Arc::new(AtomicU64::new(0));
    let mut kept: BTreeMap<String, bool> = BTreeMap::new();
    let times = times();
    for time in 0..times {
        let mut program = Program::serve(folder.path());
        post(&program.address, &home_of(time), vec![home_named("start", "Hut")]).await;
        let enough = acknowledged.load(Ordering::SeqCst) + 6 + time % 5;
        let clients: Vec<_> = (0..CLIENTS)
            .map(|client| tokio::spawn(burst(program.address.clone(), time, client, Arc::clone(&acknowledged))))
            .collect();
        while acknowledged.load(Ordering::SeqCst) < enough {
            tokio::task::yield_now().await;
        }
        program.child.kill().unwrap(); // SIGKILL
        program.child.wait().unwrap();
        for client in clients {
            kept.extend(client.await.unwrap());
        }
    }
    let program = Program::serve(folder.path());
    let mut there: BTreeSet<String> = BTreeSet::new();
    for home in (0..times).step_by(100).map(home_of) {
        let export = get(&format!("{}/api/homes/{home}/export", program.address)).await;
        there.extend(export["lines"].as_array().unwrap().iter().map(|line| line["entry"]["id"].as_str().unwrap().to_owned()));
    }
    let mut in_doubt = 0;
    for (batch, sure) in &kept {
        let found = (0..3).filter(|n| there.contains(&format!("{batch}-{n}"))).count();
        assert!(found == 0 || found == 3, "{batch} is there by half: {found} of 3");
        assert!(!sure || found == 3, "{batch} was acknowledged and is gone");
        in_doubt += usize::from(!sure);
    }
    let sure = kept.values().filter(|sure| **sure).count();
    assert!(sure as u64 >= times * 6, "{sure} batches were acknowledged, {in_doubt} were cut off");
    assert!(in_doubt > 0, "no batch was under way when the program was killed");
}

/// Sends batches of three until the program is gone; says of each whether it was acknowledged.
async fn burst(address: String, time: u64, client: u64, acknowledged: Arc<AtomicU64>) -> Vec<(String, bool)> {
    let http = reqwest::Client::new();
    let mut sent = Vec::new();
    for n in 0.. {
        let batch = format!("t{time}-c{client}-b{n}");
        let entries: Vec<_> =
            (0..3).map(|k| room(&format!("{batch}-{k}"), &format!("{batch}-{k}"), &format!("{batch}-{k}"))).collect();
        let url = format!("{address}/api/homes/{}/entries", home_of(time));
        let call = http.post(url).json(&json!({ "entries": entries })).send();
        let done = matches!(call.await, Ok(response) if response.status().is_success());
        sent.push((batch, done));
        if !done {
            break;
        }
        acknowledged.fetch_add(1, Ordering::SeqCst);
    }
    sent
}
