//! The program as a process of its own, and the program on a port of this process.
#![allow(dead_code, unreachable_pub)]

use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};

use serde_json::{Value, json};

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
        let mut child = Command::new(env!("CARGO_BIN_EXE_wayfinder"))
            .args(arguments)
            .stdout(Stdio::piped())
            .stderr(Stdio::inherit())
            .spawn()
            .unwrap();
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

/// An entry as a client writes it.
pub fn entry(id: &str, fact: Value) -> Value {
    json!({ "id": id, "at": 1_790_000_000_000_i64, "by": "tester", "version": 1, "fact": fact })
}

pub fn home_named(id: &str, name: &str) -> Value {
    entry(id, json!({ "kind": "home_described", "name": name }))
}

pub fn room(id: &str, room: &str, name: &str) -> Value {
    entry(id, json!({ "kind": "room_placed", "room": room, "name": name }))
}

pub async fn post(address: &str, home: &str, entries: Vec<Value>) -> (u16, Value) {
    let client = reqwest::Client::new();
    let body = json!({ "entries": entries });
    let response = client.post(format!("{address}/api/homes/{home}/entries")).json(&body).send().await.unwrap();
    let status = response.status().as_u16();
    (status, response.json().await.unwrap())
}

pub async fn get(url: &str) -> Value {
    reqwest::get(url).await.unwrap().json().await.unwrap()
}
