//! Append through HTTP with fsync, and the view of the demo home, each beside a reference of the same run:
//! the same lines written straight into the store, and the program's smallest answer.
//!
//! Prints medians and 99th percentiles; asserts nothing about time.

use std::time::Instant;

use serde_json::json;
use tokio::net::TcpListener;
use wayfinder_core::{Draft, Fact, HomeDescribed, HomeId, Line, Moment};
use wayfinder_server::{Desk, serve};
use wayfinder_store::Store;

const WRITES: usize = 400;
const READS: usize = 1000;

fn main() {
    if std::env::args().any(|argument| argument == "--test") {
        return; // `cargo test` builds it; measuring is for `cargo xtask bench`
    }
    let runtime = tokio::runtime::Runtime::new().expect("a runtime");
    runtime.block_on(measure());
}

async fn measure() {
    let reference = store_alone();
    say("reference: one line into the store, fsync", &reference, None);
    let folder = tempfile::tempdir().expect("a folder");
    let desk = Desk::open(folder.path()).expect("a desk");
    desk.set_up_demo().expect("the demo home");
    let listener = TcpListener::bind("127.0.0.1:0").await.expect("a port");
    let address = format!("http://{}", listener.local_addr().expect("its address"));
    let _serving = tokio::spawn(serve(listener, desk, true, std::future::pending()));
    // What so many clients and the program cost on this machine when nothing is worked out and nothing is written.
    let empty = at_once(50, |http, _| http.get(format!("{address}/api/health"))).await;
    say("reference: health, 50 at once", &empty, None);
    let mut alone = Vec::new();
    for (clients, homes) in [(1, 1), (10, 1), (50, 1), (50, 50)] {
        let begun = Instant::now();
        let times = append(&address, clients, homes).await;
        let each_second = times.len() as f64 / begun.elapsed().as_secs_f64();
        say(&format!("append one line through HTTP, {clients} at once on {homes} homes"), &times, Some(&reference));
        if clients == 1 {
            alone.clone_from(&times);
        }
        println!("  {each_second:.0} a second; p99 is {:.1} x the median of one client", at(&times, 0.99) / at(&alone, 0.5));
    }
    let http = reqwest::Client::new();
    let health = read(&http, &format!("{address}/api/health")).await;
    say("reference: health", &health, None);
    for path in ["", "/panels", "/points", "/checks", "/trace", "/directory", "/logbook", "/directory.pdf"] {
        let times = read(&http, &format!("{address}/api/homes/juniper-lane{path}")).await;
        say(&format!("demo home{path}"), &times, Some(&health));
    }
}

/// An entry that names the home.
fn named(id: String, name: String) -> Draft {
    let (id, fact) = (id.parse().expect("an id"), HomeDescribed { name }.into());
    Draft { id, at: Moment::from_unix_ms(0), by: "b".into(), instrument: None, version: Fact::VERSION, fact }
}

fn store_alone() -> Vec<f64> {
    let folder = tempfile::tempdir().expect("a folder");
    let store = Store::open(folder.path()).expect("a store");
    let home: HomeId = "hut".parse().expect("an id");
    (1..=WRITES as u64)
        .map(|seq| {
            let entry = named(format!("e{seq}"), "Hut".into());
            let begun = Instant::now();
            store.append(&home, vec![Line { seq, entry }]).expect("it appends");
            begun.elapsed().as_secs_f64() * 1000.0
        })
        .collect()
}

async fn append(address: &str, clients: usize, homes: usize) -> Vec<f64> {
    let home_of = |client: usize| format!("{address}/api/homes/bench-{clients}-{homes}-{}/entries", client % homes);
    let http = reqwest::Client::new();
    let batch = |id: String, name: String| json!({ "entries": [named(id, name)] });
    let first = batch("first".into(), "Bench".into());
    for home in 0..homes {
        http.post(home_of(home)).json(&first).send().await.expect("an answer");
    }
    at_once(clients, |http, (client, n)| http.post(home_of(client)).json(&batch(format!("c{client}-{n}"), format!("Bench {n}"))))
        .await
}

/// So many clients, each with a connection that it keeps, one request after the other. The first of each opens the connection and
/// is not counted. `request` is given the client and the number of its request.
async fn at_once(clients: usize, request: impl Fn(&reqwest::Client, (usize, usize)) -> reqwest::RequestBuilder) -> Vec<f64> {
    let tasks: Vec<_> = (0..clients)
        .map(|client| {
            let http = reqwest::Client::new();
            let requests: Vec<_> = (0..=WRITES.div_ceil(clients).max(100)).map(|n| request(&http, (client, n))).collect();
            tokio::spawn(async move {
                let mut times = Vec::new();
                for request in requests {
                    let begun = Instant::now();
                    let response = request.send().await.expect("an answer");
                    assert!(response.status().is_success());
                    response.bytes().await.expect("its body");
                    times.push(begun.elapsed().as_secs_f64() * 1000.0);
                }
                times.split_off(1)
            })
        })
        .collect();
    let mut all = Vec::new();
    for task in tasks {
        all.extend(task.await.expect("a client"));
    }
    all
}

async fn read(http: &reqwest::Client, url: &str) -> Vec<f64> {
    let count = if url.ends_with(".pdf") { READS / 10 } else { READS };
    let mut times = Vec::new();
    for _ in 0..count {
        let begun = Instant::now();
        http.get(url).send().await.expect("an answer").bytes().await.expect("its body");
        times.push(begun.elapsed().as_secs_f64() * 1000.0);
    }
    times
}

fn at(times: &[f64], share: f64) -> f64 {
    let mut sorted = times.to_vec();
    sorted.sort_by(f64::total_cmp);
    sorted[((sorted.len() as f64 * share) as usize).min(sorted.len() - 1)]
}

fn say(what: &str, times: &[f64], reference: Option<&[f64]>) {
    let (median, p99) = (at(times, 0.5), at(times, 0.99));
    let ratio = reference.map(|r| format!(", {:.1} x its reference", median / at(r, 0.5))).unwrap_or_default();
    println!("{what}: median {median:.2} ms, p99 {p99:.2} ms{ratio}");
}
