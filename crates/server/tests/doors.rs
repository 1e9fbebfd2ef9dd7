//! The doors under strangers: whoever is silent or slow is shown out, so many are let in and no more, and the owner at the first
//! door notices nothing. What somebody began before they were sent away does not count.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod support;

use std::io;
use std::net::{Ipv4Addr, SocketAddr};
use std::time::Duration;

use serde_json::{Value, json};
use support::{Program, acts, get};
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::{TcpListener, TcpSocket, TcpStream};
use wayfinder_core::Draft;
use wayfinder_server::{Capacity, Desk, Patience, Setup, serve};

struct Shared {
    here: String,
    door: SocketAddr,
    _folder: tempfile::TempDir,
}

/// The demo home, shared, at doors that wait as long as is said.
async fn shared(patience: Patience, capacity: Capacity) -> Shared {
    let folder = tempfile::tempdir().unwrap();
    let desk = Desk::open(folder.path()).unwrap();
    desk.set_up_demo().unwrap();
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let here = format!("http://{}", listener.local_addr().unwrap());
    let setup = Setup { demo: true, share_at: (Ipv4Addr::LOCALHOST, 0).into(), patience, capacity, tls: None };
    tokio::spawn(serve(listener, desk, setup, std::future::pending()));
    let door = open(&here).await;
    Shared { here, door, _folder: folder }
}

async fn open(here: &str) -> SocketAddr {
    let open = send(&format!("{here}/api/sharing"), &json!({ "passphrase": "three brass bells" })).await;
    let open: Value = open.json().await.unwrap();
    open["addresses"][0].as_str().unwrap().strip_prefix("http://").unwrap().parse().unwrap()
}

async fn send(url: &str, body: &Value) -> reqwest::Response {
    reqwest::Client::new().post(url).json(body).send().await.unwrap()
}

/// A helper's cookie.
async fn helper(shared: &Shared, name: &str) -> String {
    let now = send(&format!("{}/api/sharing/invites", shared.here), &json!({ "home": "juniper-lane" })).await;
    let now: Value = now.json().await.unwrap();
    let body = json!({ "code": now["invites"][0]["code"], "name": name, "side": "walk" });
    let joined = send(&format!("http://{}/api/join", shared.door), &body).await;
    assert_eq!(joined.status(), 200);
    joined.headers()["set-cookie"].to_str().unwrap().split(';').next().unwrap().to_owned()
}

/// Connects from one of this machine's many loopback addresses.
async fn connect_from(last: u8, to: SocketAddr) -> TcpStream {
    let socket = TcpSocket::new_v4().unwrap();
    socket.bind((Ipv4Addr::new(127, 0, 0, last), 0).into()).unwrap();
    socket.connect(to).await.unwrap()
}

/// Everything that comes until the other side closes. That it closes at all is what is tested.
async fn to_the_end(stream: &mut TcpStream) -> String {
    let mut all = Vec::new();
    let read = tokio::time::timeout(Duration::from_secs(60), stream.read_to_end(&mut all)).await;
    // Closed with something of ours unread, it is a reset; that is an end, too.
    read.expect("it was not closed").map_or_else(|error| assert_eq!(error.kind(), io::ErrorKind::ConnectionReset), drop);
    String::from_utf8_lossy(&all).into_owned()
}

const IMPATIENT: Patience = Patience {
    head: Duration::from_millis(300),
    piece: Duration::from_millis(300),
    body: Duration::from_millis(900),
    unread: Duration::from_millis(300),
};
const WIDE: Capacity = Capacity { all: 1000, from_one: 1000 };

#[tokio::test]
async fn whoever_is_silent_or_slow_is_shown_out() {
    let shared = shared(IMPATIENT, WIDE).await;
    let mut silent = TcpStream::connect(shared.door).await.unwrap();
    assert_eq!(to_the_end(&mut silent).await, "");
    let mut half_a_head = TcpStream::connect(shared.door).await.unwrap();
    half_a_head.write_all(b"GET /api/health HTTP/1.1\r\nhost: x\r\n").await.unwrap();
    to_the_end(&mut half_a_head).await;
    // A letter at a time does not help, neither in the head
    let mut trickle = TcpStream::connect(shared.door).await.unwrap();
    trickle.write_all(b"GET /api/health HTTP/1.1\r\nhost: x\r\nx-long: ").await.unwrap();
    while trickle.write_all(b"a").await.is_ok() {
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
    // nor in the body: that is told so.
    let head = b"POST /api/join HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ncontent-length: 900\r\n\r\n";
    for pause in [50, 5000] {
        let (mut heard, mut says) = TcpStream::connect(shared.door).await.unwrap().into_split();
        says.write_all(head).await.unwrap();
        let slow = tokio::spawn(async move {
            while says.write_all(b" ").await.is_ok() {
                tokio::time::sleep(Duration::from_millis(pause)).await;
            }
        });
        let mut told = vec![0; 4096];
        let count = tokio::time::timeout(Duration::from_secs(60), heard.read(&mut told)).await.unwrap().unwrap();
        let told = String::from_utf8_lossy(&told[..count]).into_owned();
        assert!(told.starts_with("HTTP/1.1 408") && told.contains("too slowly"), "{told}");
        drop(heard);
        slow.abort();
    }
    // One that was answered and asks for nothing more.
    let mut idle = TcpStream::connect(shared.door).await.unwrap();
    idle.write_all(b"GET /api/me HTTP/1.1\r\nhost: x\r\n\r\n").await.unwrap();
    let answer = to_the_end(&mut idle).await;
    assert!(answer.starts_with("HTTP/1.1 200") && answer.contains("nobody"), "{answer}");
    // A head without end.
    let mut endless = TcpStream::connect(shared.door).await.unwrap();
    let _ = endless.write_all(format!("GET / HTTP/1.1\r\nx: {}", "a".repeat(200_000)).as_bytes()).await;
    assert!(to_the_end(&mut endless).await.starts_with("HTTP/1.1 431"));
}

#[tokio::test]
async fn who_does_not_read_an_answer_is_shown_out() {
    let shared = shared(IMPATIENT, WIDE).await;
    let cookie = helper(&shared, "Ada").await;
    let mut deaf = TcpStream::connect(shared.door).await.unwrap();
    let ask = format!("GET /assets/none HTTP/1.1\r\nhost: x\r\ncookie: {cookie}\r\n\r\n").repeat(200);
    // Asks and asks, and never reads: at some time the program does not read on either, and then it closes.
    let closed = async { while deaf.write_all(ask.as_bytes()).await.is_ok() {} };
    tokio::time::timeout(Duration::from_secs(60), closed).await.expect("it was not closed");
}

#[tokio::test]
async fn so_many_connections_are_taken_in_of_one_address_and_in_all() {
    let patience = Patience { head: Duration::from_secs(600), ..Patience::NETWORK };
    let shared = shared(patience, Capacity { all: 6, from_one: 4 }).await;
    let asked = async |stream: &mut TcpStream| {
        stream.write_all(b"GET /api/me HTTP/1.1\r\nhost: x\r\n\r\n").await.unwrap();
        let mut told = vec![0; 4096];
        let count = stream.read(&mut told).await.unwrap_or(0);
        String::from_utf8_lossy(&told[..count]).into_owned()
    };
    let mut first = Vec::new();
    for _ in 0..4 {
        let mut stream = connect_from(2, shared.door).await;
        assert!(asked(&mut stream).await.starts_with("HTTP/1.1 200"));
        first.push(stream);
    }
    // It is told so, unless its question crossed the answer on the way.
    let is_turned_away = |told: String| told.is_empty() || told.starts_with("HTTP/1.1 503") && told.contains("Wait ten seconds");
    assert!(is_turned_away(asked(&mut connect_from(2, shared.door).await).await));
    let mut heard = connect_from(2, shared.door).await;
    let told = to_the_end(&mut heard).await;
    let (head, body) = told.split_once("\r\n\r\n").unwrap();
    assert!(head.contains(&format!("content-length: {}", body.len())), "{head}");
    assert_eq!(serde_json::from_str::<Value>(body).unwrap()["code"], "busy");
    let mut others = Vec::new();
    for _ in 0..2 {
        let mut stream = connect_from(3, shared.door).await;
        assert!(asked(&mut stream).await.starts_with("HTTP/1.1 200"));
        others.push(stream);
    }
    assert!(is_turned_away(asked(&mut connect_from(4, shared.door).await).await));
    // Where one goes there is room for one.
    drop(others.pop());
    let mut tries = 0;
    while !asked(&mut connect_from(4, shared.door).await).await.starts_with("HTTP/1.1 200") {
        tries += 1;
        assert!(tries < 3000);
        tokio::time::sleep(Duration::from_millis(5)).await;
    }
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn fifteen_hundred_bad_connections_refuse_the_owner_nothing() {
    // This process holds the bad ones; the program has the files that a system usually gives.
    let limit = rustix::process::getrlimit(rustix::process::Resource::Nofile);
    let all = rustix::process::Rlimit { current: limit.maximum, ..limit };
    rustix::process::setrlimit(rustix::process::Resource::Nofile, all).unwrap();
    let bad = limit.maximum.map_or(1500, |files| files.saturating_sub(200).min(1500));
    let folder = tempfile::tempdir().unwrap();
    let program = Program::with_files(
        1024,
        &["demo", "--data", folder.path().to_str().unwrap(), "--bind", "127.0.0.1:0", "--share-at", "127.0.0.1:0"],
    );
    let door = open(&program.address).await;
    let mut held = Vec::new();
    for n in 0..bad {
        // Few may wait to be taken in, so these come in small groups.
        let mut stream = connect_from(2 + (n / 100) as u8, door).await;
        let says: &[u8] = match n % 3 {
            0 => b"",
            1 => b"GET /api/me HTTP/1.1\r\nhost: ",
            _ => b"POST /api/sign-in HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ncontent-length: 60\r\n\r\n{",
        };
        let _ = stream.write_all(says).await;
        held.push(stream);
        if n % 10 == 0 {
            // The owner, each time on a connection of their own.
            let health = reqwest::get(format!("{}/api/health", program.address)).await;
            assert_eq!(health.expect("the first door refused the owner").status(), 200, "with {n} bad connections");
        }
    }
    for path in ["homes", "homes/juniper-lane/letter", "homes/juniper-lane/trace", "sharing"] {
        let answer = reqwest::get(format!("{}/api/{path}", program.address)).await.unwrap();
        assert_eq!(answer.status(), 200, "{path}");
    }
    let written =
        support::post(&program.address, "juniper-lane", acts(&program.address, "juniper-lane", "lit porch-lantern").await).await;
    assert_eq!(written.0, 200, "the disk has its files, too");
    drop(held);
}

#[tokio::test]
async fn many_sign_ins_at_once_are_hashed_a_few_at_a_time_and_the_right_one_comes_in() {
    let shared = shared(Patience::NETWORK, WIDE).await;
    let url = format!("http://{}/api/sign-in", shared.door);
    let guesses: Vec<_> = (0..60)
        .map(|n| {
            let url = url.clone();
            tokio::spawn(async move { send(&url, &json!({ "passphrase": format!("a guess, number {n}") })).await })
        })
        .collect();
    let (mut wrong, mut told_to_wait) = (0, 0);
    for guess in guesses {
        let answer = guess.await.unwrap();
        match answer.status().as_u16() {
            403 => wrong += 1,
            429 => {
                assert!(answer.headers()["retry-after"].to_str().unwrap().parse::<u64>().unwrap() > 0);
                told_to_wait += 1;
            }
            status => panic!("{status}"),
        }
    }
    assert!((1..=6).contains(&wrong) && told_to_wait >= 50, "{wrong} were tried, {told_to_wait} told to wait");
    // From another phone.
    let mut phone = connect_from(9, shared.door).await;
    let body = r#"{"passphrase":"three brass bells"}"#;
    let ask = format!(
        "POST /api/sign-in HTTP/1.1\r\nhost: x\r\nconnection: close\r\ncontent-type: application/json\r\ncontent-length: {}\r\n\r\n{body}",
        body.len()
    );
    phone.write_all(ask.as_bytes()).await.unwrap();
    let told = to_the_end(&mut phone).await;
    assert!(told.starts_with("HTTP/1.1 200"), "{told}");
}

/// A request that is sent as far as its body's first half.
async fn half_sent(door: SocketAddr, path: &str, cookie: &str, body: &str) -> (TcpStream, String) {
    let mut stream = TcpStream::connect(door).await.unwrap();
    let head = format!(
        "POST {path} HTTP/1.1\r\nhost: x\r\ncookie: {cookie}\r\nconnection: close\r\ncontent-type: application/json\r\ncontent-length: {}\r\n\r\n",
        body.len()
    );
    let (now, later) = body.split_at(body.len() / 2);
    stream.write_all(head.as_bytes()).await.unwrap();
    stream.write_all(now.as_bytes()).await.unwrap();
    stream.flush().await.unwrap();
    // Until the program has read the head and looked who asks.
    tokio::time::sleep(Duration::from_millis(100)).await;
    (stream, later.to_owned())
}

#[tokio::test]
async fn what_was_half_sent_by_somebody_who_was_sent_away_is_not_written() {
    let shared = shared(Patience::NETWORK, WIDE).await;
    let cookie = helper(&shared, "Ada").await;
    let mut look = acts(&shared.here, "juniper-lane", "lit porch-lantern").await;
    look[0] = Draft { by: "Ada".into(), at: support::now(), ..look[0].clone() };
    let body = json!({ "entries": look }).to_string();
    let before = get(&format!("{}/api/homes/juniper-lane", shared.here)).await["seq"].clone();
    let (mut stream, later) = half_sent(shared.door, "/api/homes/juniper-lane/entries", &cookie, &body).await;
    let people = get(&format!("{}/api/sharing", shared.here)).await["people"].clone();
    let away = format!("{}/api/sharing/people/{}", shared.here, people[0]["id"].as_str().unwrap());
    assert_eq!(reqwest::Client::new().delete(away).send().await.unwrap().status(), 200);
    stream.write_all(later.as_bytes()).await.unwrap();
    let told = to_the_end(&mut stream).await;
    assert!(told.starts_with("HTTP/1.1 401") && told.contains("Nothing of this was recorded"), "{told}");
    assert_eq!(get(&format!("{}/api/homes/juniper-lane", shared.here)).await["seq"], before);
    // The same by somebody who is in is written.
    let cookie = helper(&shared, "Ada").await;
    let (mut stream, later) = half_sent(shared.door, "/api/homes/juniper-lane/entries", &cookie, &body).await;
    stream.write_all(later.as_bytes()).await.unwrap();
    assert!(to_the_end(&mut stream).await.starts_with("HTTP/1.1 200"));
}

#[tokio::test]
async fn a_sign_in_that_was_half_sent_when_the_door_was_closed_lets_nobody_in() {
    let shared = shared(Patience::NETWORK, WIDE).await;
    let body = json!({ "passphrase": "three brass bells" }).to_string();
    let (mut stream, later) = half_sent(shared.door, "/api/sign-in", "", &body).await;
    let closed = reqwest::Client::new().delete(format!("{}/api/sharing", shared.here)).send().await.unwrap();
    assert_eq!(closed.status(), 200);
    let _ = stream.write_all(later.as_bytes()).await;
    let told = to_the_end(&mut stream).await;
    assert!(told.is_empty() || told.starts_with("HTTP/1.1 401"), "{told}");
    // Nor is anybody in once it is opened again.
    open(&shared.here).await;
    assert_eq!(get(&format!("{}/api/sharing", shared.here)).await["people"], json!([]));
}
