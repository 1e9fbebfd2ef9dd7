//! Many connections: what each costs in memory, what the owner notices of fifteen hundred bad ones, what a hundred who write and a
//! hundred who listen get, how a folder of a thousand homes starts and how a home of a hundred thousand lines answers. The program runs as a process of its own; each figure stands
//! beside a quiet one of the same run.
//!
//! Prints; asserts only that nothing was refused or missed.

use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

use futures_util::StreamExt;
use serde_json::{Value, json};
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::{TcpSocket, TcpStream};
use wayfinder_core::{Draft, Fact, HomeDescribed, Logbook, Moment};
use wayfinder_fixture::homes::usual;
use wayfinder_server::Desk;

struct Program {
    child: Child,
    address: String,
    started_ms: f64,
}

impl Program {
    /// Started with 1024 files, as a system usually has it.
    fn start(arguments: &[&str]) -> Self {
        let begun = Instant::now();
        let limited = "ulimit -n 1024; ulimit -Hn 4096; exec \"$0\" \"$@\"";
        let mut child = Command::new("sh")
            .args(["-c", limited, env!("CARGO_BIN_EXE_wayfinder")])
            .args(arguments)
            .stdout(Stdio::piped())
            .spawn()
            .expect("the program");
        let stdout = child.stdout.take().expect("what it says");
        let mut lines = BufReader::new(stdout).lines();
        let line = lines.next().expect("it says where it is").expect("in words");
        let started_ms = begun.elapsed().as_secs_f64() * 1000.0;
        let address = line.rsplit(' ').next().unwrap_or_default().to_owned();
        std::thread::spawn(move || lines.for_each(drop));
        Self { child, address, started_ms }
    }

    /// Resident memory, in kB.
    fn memory(&self) -> u64 {
        let status = std::fs::read_to_string(format!("/proc/{}/status", self.child.id())).expect("its status");
        let line = status.lines().find_map(|line| line.strip_prefix("VmRSS:")).expect("its memory");
        line.trim().trim_end_matches(" kB").trim().parse().expect("a number")
    }

    fn port(&self) -> std::net::SocketAddr {
        self.address.trim_start_matches("http://").parse().expect("an address")
    }
}

impl Drop for Program {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

fn main() {
    if std::env::args().any(|argument| argument == "--test") {
        return; // `cargo test` builds it; measuring is for `cargo xtask bench`
    }
    let limit = rustix::process::getrlimit(rustix::process::Resource::Nofile);
    let all = rustix::process::Rlimit { current: limit.maximum, ..limit };
    rustix::process::setrlimit(rustix::process::Resource::Nofile, all).expect("files");
    let runtime = tokio::runtime::Runtime::new().expect("a runtime");
    runtime.block_on(async {
        let parts = std::env::var("WAYFINDER_BENCH_PARTS").unwrap_or_default();
        let wanted = |part: &str| parts.is_empty() || parts.split(',').any(|named| named == part);
        if wanted("connections") {
            connections().await;
        }
        if wanted("strangers") {
            strangers().await;
        }
        if wanted("writers") {
            writers_and_listeners().await;
        }
        if wanted("homes") {
            many_homes().await;
        }
        if wanted("lines") {
            long_homes().await;
        }
    });
}

fn demo(data: &Path) -> Program {
    let data = data.to_str().expect("a path");
    Program::start(&["demo", "--data", data, "--bind", "127.0.0.1:0", "--share-at", "127.0.0.1:0"])
}

async fn ask(stream: &mut TcpStream, path: &str) {
    stream.write_all(format!("GET {path} HTTP/1.1\r\nhost: 127.0.0.1\r\n\r\n").as_bytes()).await.expect("it takes a question");
    let mut told = vec![0; 16384];
    let count = stream.read(&mut told).await.expect("an answer");
    assert!(told[..count].starts_with(b"HTTP/1.1 200"), "{path}");
}

async fn connections() {
    for (what, path, count) in [("idle connections", "/api/health", 600), ("streams", "/api/homes/juniper-lane/stream", 600)] {
        let folder = tempfile::tempdir().expect("a folder");
        let program = demo(folder.path());
        let mut warm = TcpStream::connect(program.port()).await.expect("a connection");
        ask(&mut warm, "/api/homes/juniper-lane").await;
        let before = program.memory();
        let mut held = Vec::new();
        for _ in 0..count {
            let mut stream = TcpStream::connect(program.port()).await.expect("a connection");
            ask(&mut stream, path).await;
            held.push(stream);
        }
        let with = program.memory();
        drop(held);
        tokio::time::sleep(Duration::from_secs(1)).await;
        let each = (with - before) as f64 / f64::from(count);
        println!(
            "{count} {what}: {:.1} MB more than the {:.1} MB before, {each:.1} kB each; after they went {:.1} MB more",
            (with - before) as f64 / 1024.0,
            before as f64 / 1024.0,
            program.memory().saturating_sub(before) as f64 / 1024.0
        );
    }
}

/// The owner's answers one after the other, each on a connection of its own.
async fn owners(address: &str) -> Vec<f64> {
    let mut times = Vec::new();
    for n in 0..600 {
        let path = ["/api/health", "/api/homes/juniper-lane", "/api/homes/juniper-lane/letter"][n % 3];
        let begun = Instant::now();
        let answer = reqwest::get(format!("{address}{path}")).await.expect("the first door refused the owner");
        assert_eq!(answer.status(), 200);
        answer.bytes().await.expect("its body");
        times.push(begun.elapsed().as_secs_f64() * 1000.0);
    }
    times
}

async fn strangers() {
    let folder = tempfile::tempdir().expect("a folder");
    let program = demo(folder.path());
    let http = reqwest::Client::new();
    let open = http.post(format!("{}/api/sharing", program.address)).json(&json!({ "passphrase": "three brass bells" }));
    let open: Value = open.send().await.expect("an answer").json().await.expect("JSON");
    let door = open["addresses"][0].as_str().expect("an address").trim_start_matches("http://").to_owned();
    let door: std::net::SocketAddr = door.parse().expect("an address");
    owners(&program.address).await;
    let quiet = owners(&program.address).await;
    let before = program.memory();
    // 1 500 bad ones, each begun anew as soon as it is shown out.
    let bad: Vec<_> = (0..1500_u32)
        .map(|n| {
            tokio::spawn(async move {
                loop {
                    let socket = TcpSocket::new_v4().expect("a socket");
                    let from = std::net::Ipv4Addr::new(127, 0, 1, (n / 50) as u8);
                    let connected = match socket.bind((from, 0).into()) {
                        Ok(()) => socket.connect(door).await,
                        Err(error) => Err(error),
                    };
                    if let Ok(mut stream) = connected {
                        let says: &[u8] = match n % 3 {
                            0 => b"",
                            1 => b"GET /api/me HTTP/1.1\r\nhost: ",
                            _ => b"POST /api/sign-in HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ncontent-length: 60\r\n\r\n{",
                        };
                        let _ = stream.write_all(says).await;
                        let mut told = [0; 512];
                        while stream.read(&mut told).await.is_ok_and(|count| count > 0) {}
                    }
                    // One that is refused comes again, though not without a pause: else this measures their own work.
                    tokio::time::sleep(Duration::from_millis(2000)).await;
                }
            })
        })
        .collect();
    tokio::time::sleep(Duration::from_secs(3)).await;
    let beside = owners(&program.address).await;
    println!(
        "1 500 bad connections at the second door: the owner's median {:.2} ms, p99 {:.2} ms; quiet {:.2} and {:.2} ms; p99 {:.1} x; {:.1} MB more",
        at(&beside, 0.5),
        at(&beside, 0.99),
        at(&quiet, 0.5),
        at(&quiet, 0.99),
        at(&beside, 0.99) / at(&quiet, 0.99),
        program.memory().saturating_sub(before) as f64 / 1024.0
    );
    bad.iter().for_each(tokio::task::JoinHandle::abort);
    // 500 who try to sign in at once.
    let before = program.memory();
    let tries: Vec<_> = (0..500)
        .map(|n| {
            let http = http.clone();
            tokio::spawn(async move {
                let body = json!({ "passphrase": format!("a guess, number {n}") });
                http.post(format!("http://{door}/api/sign-in")).json(&body).send().await.map(|answer| answer.status().as_u16())
            })
        })
        .collect();
    let mut most = 0;
    for one in tries {
        let _ = one.await;
        most = most.max(program.memory());
    }
    println!("500 sign-ins at once: at most {:.1} MB more", most.saturating_sub(before) as f64 / 1024.0);
}

fn entry(id: String, name: String) -> Draft {
    let (id, fact) = (id.parse().expect("an id"), HomeDescribed { name }.into());
    Draft { id, at: Moment::from_unix_ms(0), by: "b".into(), instrument: None, version: Fact::VERSION, fact }
}

/// A hundred clients write, each in a home of its own, and a hundred streams listen.
async fn writers_and_listeners() {
    let folder = tempfile::tempdir().expect("a folder");
    let program = demo(folder.path());
    let address = &program.address;
    let seconds = std::env::var("WAYFINDER_BENCH_SECONDS").ok().and_then(|s| s.parse().ok()).unwrap_or(60);
    let until = Instant::now() + Duration::from_secs(seconds);
    let http = reqwest::Client::new();
    let mut listeners = Vec::new();
    for n in 0..100 {
        let first = json!({ "entries": [entry("first".into(), format!("Home {n}"))] });
        let made = http.post(format!("{address}/api/homes/bench-{n}/entries")).json(&first).send().await.expect("an answer");
        assert_eq!(made.status(), 200);
        let stream = http.get(format!("{address}/api/homes/bench-{n}/stream")).send().await.expect("a stream");
        listeners.push(tokio::spawn(async move {
            let mut stream = stream.bytes_stream();
            let mut last = 0_u64;
            while let Some(Ok(bytes)) = stream.next().await {
                for line in String::from_utf8_lossy(&bytes).lines() {
                    if let Some(seq) = line.strip_prefix("data: ").and_then(|seq| seq.parse::<u64>().ok()) {
                        assert!(seq > last, "{seq} after {last}");
                        last = seq;
                    }
                }
                if last == u64::MAX {
                    break;
                }
            }
            last
        }));
    }
    let writers: Vec<_> = (0..100)
        .map(|n| {
            let url = format!("{address}/api/homes/bench-{n}/entries");
            let http = reqwest::Client::new();
            tokio::spawn(async move {
                let mut times = Vec::new();
                while Instant::now() < until {
                    let batch = json!({ "entries": [entry(format!("e{}", times.len()), format!("Home {n}, {}", times.len()))] });
                    let begun = Instant::now();
                    let answer = http.post(&url).json(&batch).send().await.expect("an answer");
                    assert_eq!(answer.status(), 200);
                    times.push(begun.elapsed().as_secs_f64() * 1000.0);
                }
                times
            })
        })
        .collect();
    let mut all = Vec::new();
    let mut written = Vec::new();
    for writer in writers {
        let times = writer.await.expect("a writer");
        written.push(times.len() as u64 + 1);
        all.extend(times);
    }
    tokio::time::sleep(Duration::from_millis(500)).await;
    drop(program);
    let mut heard = 0;
    for (listener, written) in listeners.into_iter().zip(written) {
        assert_eq!(listener.await.expect("a listener"), written, "the last line was heard");
        heard += written;
    }
    // The same lines straight into SQLite, in transactions of one line, on one thread.
    let raw = raw_sqlite(2000);
    println!(
        "100 clients append and 100 streams listen for {seconds} s: {:.0} lines a second, median {:.1} ms, p99 {:.1} ms, no error, {heard} lines heard of; \
         SQLite alone, one line a transaction: {:.0} a second; ratio {:.2}",
        all.len() as f64 / seconds as f64,
        at(&all, 0.5),
        at(&all, 0.99),
        raw,
        all.len() as f64 / seconds as f64 / raw
    );
}

/// Lines a second, each in a transaction of its own, on disk.
fn raw_sqlite(count: u32) -> f64 {
    let folder = tempfile::tempdir().expect("a folder");
    let connection = rusqlite::Connection::open(folder.path().join("raw.sqlite")).expect("a database");
    connection
        .execute_batch(
            "PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; CREATE TABLE lines (n INTEGER PRIMARY KEY, body TEXT)",
        )
        .expect("a table");
    let body = serde_json::to_string(&entry("e1".into(), "Home".into())).expect("JSON");
    let begun = Instant::now();
    for n in 0..count {
        connection.execute("INSERT INTO lines VALUES (?1, ?2)", (n, &body)).expect("a line");
    }
    f64::from(count) / begun.elapsed().as_secs_f64()
}

async fn many_homes() {
    let folder = tempfile::tempdir().expect("a folder");
    let program = demo(folder.path());
    let http = reqwest::Client::new();
    let home: Value = http
        .get(format!("{}/api/homes/tanyard-flat/export", program.address))
        .send()
        .await
        .expect("an answer")
        .json()
        .await
        .expect("a home");
    for n in 0..1000 {
        let mut copy = home.clone();
        copy["home"] = json!(format!("home-{n}"));
        let taken = http.post(format!("{}/api/import", program.address)).json(&copy).send().await.expect("an answer");
        assert_eq!(taken.status(), 200);
    }
    drop(program);
    let program = demo(folder.path());
    println!(
        "1 000 homes of {} lines: started in {:.0} ms, {:.1} MB",
        home["lines"].as_array().map_or(0, Vec::len),
        program.started_ms,
        program.memory() as f64 / 1024.0
    );
    for which in ["first", "second", "third"] {
        let begun = Instant::now();
        let list =
            http.get(format!("{}/api/homes", program.address)).send().await.expect("an answer").bytes().await.expect("a list");
        println!(
            "  the {which} list of them: {:.0} ms, {} kB; {:.1} MB of memory",
            begun.elapsed().as_secs_f64() * 1000.0,
            list.len() / 1024,
            program.memory() as f64 / 1024.0
        );
    }
}

/// A home of 24 breakers and 100 points, traced again and again until it has so many lines.
async fn long_homes() {
    for lines in [25_000, 50_000, 100_000] {
        let folder = tempfile::tempdir().expect("a folder");
        let home = "long".parse().expect("an id");
        let book = Logbook::from_lines(usual(lines)).expect("a logbook");
        let lines = book.seq();
        Desk::open(folder.path()).expect("a folder").replace(&home, book).expect("a home");
        let program = Program::start(&["serve", "--data", folder.path().to_str().expect("a path"), "--bind", "127.0.0.1:0"]);
        let at_home = format!("{}/api/homes/long", program.address);
        let http = reqwest::Client::new();
        let ask = async |path: &str| {
            let begun = Instant::now();
            let answer = http.get(format!("{at_home}{path}")).send().await.expect("an answer");
            assert_eq!(answer.status(), 200, "{path}");
            answer.bytes().await.expect("its body");
            begun.elapsed().as_secs_f64() * 1000.0
        };
        let list = Instant::now();
        reqwest::get(format!("{}/api/homes", program.address)).await.expect("a list").bytes().await.expect("its body");
        let list = list.elapsed().as_secs_f64() * 1000.0;
        let first = ask("").await;
        let verdicts = ask("/points").await;
        let mut appended = Vec::new();
        let mut views: Vec<(&str, Vec<f64>)> =
            ["", "/panels", "/points", "/trace", "/checks", "/letter"].map(|v| (v, Vec::new())).into();
        for n in 0..20 {
            let batch = json!({ "entries": [entry(format!("more-{n}"), format!("Long, {n}"))] });
            let begun = Instant::now();
            let answer = http.post(format!("{at_home}/entries")).json(&batch).send().await.expect("an answer");
            assert_eq!(answer.status(), 200);
            appended.push(begun.elapsed().as_secs_f64() * 1000.0);
            for (path, times) in &mut views {
                times.push(ask(path).await);
            }
        }
        print!(
            "a home of {lines} lines: first listed in {list:.0} ms, opened in {first:.0} ms, its points after {verdicts:.0} ms; a line: median {:.1} ms, then",
            at(&appended, 0.5)
        );
        for (path, times) in &views {
            print!(" {} {:.1} ms,", if path.is_empty() { "now" } else { &path[1..] }, at(times, 0.5));
        }
        println!(" {:.1} MB", program.memory() as f64 / 1024.0);
    }
}

fn at(times: &[f64], share: f64) -> f64 {
    let mut sorted = times.to_vec();
    sorted.sort_by(f64::total_cmp);
    sorted[((sorted.len() as f64 * share) as usize).min(sorted.len() - 1)]
}
