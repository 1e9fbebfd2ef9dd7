//! The program as a process of its own, and the program on a port of this process.
#![allow(dead_code, unreachable_pub)]

use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};

use serde_json::{Value, json};
use tokio::net::TcpListener;
use tokio::sync::oneshot;
use wayfinder_core::{Draft, Fact, HomeDescribed, Line, Logbook, Moment, RoomPlaced};
use wayfinder_fixture::Written;
use wayfinder_server::{Desk, serve};

/// The program, started as a user starts it.
pub struct Program {
    pub child: Child,
    pub address: String,
}

impl Program {
    pub fn serve(data: &Path) -> Self {
        Self::start(&["serve", "--data", data.to_str().unwrap(), "--bind", "127.0.0.1:0"])
    }

    pub fn start(arguments: &[&str]) -> Self {
        Self::run(Command::new(env!("CARGO_BIN_EXE_wayfinder")).args(arguments))
    }

    /// Started where it may have so many files open.
    pub fn with_files(files: u32, arguments: &[&str]) -> Self {
        let limited = format!("ulimit -n {files} && exec \"$0\" \"$@\"");
        Self::run(Command::new("sh").args(["-c", &limited, env!("CARGO_BIN_EXE_wayfinder")]).args(arguments))
    }

    fn run(command: &mut Command) -> Self {
        let mut child = command.stdout(Stdio::piped()).stderr(Stdio::inherit()).spawn().unwrap();
        let stdout = child.stdout.take().unwrap();
        let mut lines = BufReader::new(stdout).lines();
        let line = lines.next().expect("the program says where it is").unwrap();
        let address = line.rsplit(' ').next().unwrap().to_owned();
        std::thread::spawn(move || lines.for_each(drop));
        Self { child, address }
    }
}

impl Drop for Program {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

/// The program on a port of this process, with a data folder of its own.
pub struct Site {
    pub address: String,
    pub folder: tempfile::TempDir,
    pub stop: Option<oneshot::Sender<()>>,
    pub task: tokio::task::JoinHandle<()>,
}

impl Site {
    pub async fn start(demo: bool) -> Self {
        let folder = tempfile::tempdir().unwrap();
        let desk = Desk::open(folder.path()).unwrap();
        if demo {
            desk.set_up_demo().unwrap();
        }
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = format!("http://{}", listener.local_addr().unwrap());
        let (stop, stopped) = oneshot::channel::<()>();
        let task = tokio::spawn(serve(listener, desk, demo, async {
            let _ = stopped.await;
        }));
        Self { address, folder, stop: Some(stop), task }
    }
}

/// The time as it is.
pub fn now() -> Moment {
    let since = std::time::SystemTime::now().duration_since(std::time::UNIX_EPOCH).unwrap();
    Moment::from_unix_ms(i64::try_from(since.as_millis()).unwrap())
}

/// An entry as a client writes it.
pub fn entry(id: &str, fact: impl Into<Fact>) -> Draft {
    let (id, at) = (id.parse().unwrap(), Moment::from_unix_ms(1_790_000_000_000));
    Draft { id, at, by: "tester".into(), instrument: None, version: Fact::VERSION, fact: fact.into() }
}

pub fn home_named(id: &str, name: &str) -> Draft {
    entry(id, HomeDescribed { name: name.into() })
}

pub fn room(id: &str, room: &str, name: &str) -> Draft {
    entry(id, RoomPlaced { room: room.parse().unwrap(), name: name.into(), floor: None })
}

/// What acts write that begin a home.
pub fn acts_of(acts: &str) -> Vec<Draft> {
    let mut written = Written::on(Logbook::default());
    written.acts(acts);
    written.since(0)
}

/// What acts (`off 19`) would write next in a home, as its logbook stands.
pub async fn acts(address: &str, home: &str, acts: &str) -> Vec<Draft> {
    let file = get(&format!("{address}/api/homes/{home}/export")).await;
    let lines: Vec<Line> = serde_json::from_value(file["lines"].clone()).unwrap();
    let mut written = Written::on(Logbook::from_lines(lines).unwrap());
    let before = written.book.seq();
    written.acts(acts);
    written.since(before)
}

pub async fn post(address: &str, home: &str, entries: Vec<Draft>) -> (u16, Value) {
    let client = reqwest::Client::new();
    let body = json!({ "entries": entries });
    let response = client.post(format!("{address}/api/homes/{home}/entries")).json(&body).send().await.unwrap();
    let status = response.status().as_u16();
    (status, response.json().await.unwrap())
}

pub async fn get(url: &str) -> Value {
    reqwest::get(url).await.unwrap().json().await.unwrap()
}
