//! A home goes from one running server to another while people write to it: nothing that was acknowledged is lost, and whoever has it
//! open is sent on.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod support;

use std::collections::BTreeSet;
use std::path::Path;
use std::process::Command;
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};

use futures_util::StreamExt;
use rcgen::{CertifiedKey, generate_simple_self_signed};
use serde_json::{Value, json};
use support::{Program, get, home_named, post, room};

const CLIENTS: usize = 8;

fn start(folder: &tempfile::TempDir) -> Program {
    let data = folder.path().to_str().unwrap();
    Program::start(&["serve", "--data", data, "--bind", "127.0.0.1:0", "--share-at", "127.0.0.1:0"])
}

async fn move_home(from: &str, to: &str, more: &[&str]) -> (bool, String, String) {
    move_trusting(Path::new(""), from, to, more).await
}

/// The same by somebody who knows that certificate and no other.
async fn move_trusting(certificate: &Path, from: &str, to: &str, more: &[&str]) -> (bool, String, String) {
    let certificate = certificate.to_owned();
    let arguments: Vec<String> =
        ["move", "hut", "--from", from, "--to", to].iter().chain(more).map(|argument| (*argument).to_owned()).collect();
    let out = tokio::task::spawn_blocking(move || {
        let program = env!("CARGO_BIN_EXE_wayfinder");
        let mut command = Command::new(program);
        command.args(arguments).env("WAYFINDER_PASSPHRASE", "three brass bells").env("SSL_CERT_FILE", certificate);
        command.output().unwrap()
    });
    let out = out.await.unwrap();
    let text = |bytes: Vec<u8>| String::from_utf8(bytes).unwrap();
    (out.status.success(), text(out.stdout), text(out.stderr))
}

async fn ids(address: &str) -> Vec<String> {
    let file = get(&format!("{address}/api/homes/hut/export")).await;
    file["lines"].as_array().unwrap().iter().map(|line| line["entry"]["id"].as_str().unwrap().to_owned()).collect()
}

async fn put_photo(address: &str, photo: &str) -> u16 {
    // The first bytes of a PNG.
    let bytes = [&[0x89, b'P', b'N', b'G', 0x0d, 0x0a, 0x1a, 0x0a][..], photo.as_bytes()].concat();
    let put = reqwest::Client::new().put(format!("{address}/api/homes/hut/photos/{photo}")).body(bytes).send().await.unwrap();
    put.status().as_u16()
}

/// Writes batches of two, one after the other, wherever the home is; gives the ids of those that were acknowledged, and where.
async fn write(client: usize, mut address: String, written: Arc<AtomicU64>, enough: Arc<AtomicU64>) -> Vec<(String, String)> {
    let mut acknowledged = Vec::new();
    for n in 0.. {
        let batch = [0, 1].map(|k| format!("c{client}-b{n}-{k}"));
        loop {
            let entries = batch.iter().map(|id| room(id, id, id)).collect();
            let (status, said) = post(&address, "hut", entries).await;
            match status {
                200 => break,
                410 => {
                    assert_eq!(said["code"], "moved", "{said}");
                    address = said["moved_to"].as_str().unwrap().to_owned();
                }
                _ => panic!("{status}: {said}"),
            }
        }
        acknowledged.extend(batch.map(|id| (id, address.clone())));
        if written.fetch_add(1, Ordering::SeqCst) >= enough.load(Ordering::SeqCst) {
            break;
        }
    }
    acknowledged
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_home_moves_while_people_write_to_it_and_nothing_acknowledged_is_lost() {
    let (here, there) = (tempfile::tempdir().unwrap(), tempfile::tempdir().unwrap());
    let (from, to) = (start(&here), start(&there));
    let door = {
        let body = json!({ "passphrase": "three brass bells" });
        let shared = reqwest::Client::new().post(format!("{}/api/sharing", to.address)).json(&body).send().await.unwrap();
        shared.json::<Value>().await.unwrap()["addresses"][0].as_str().unwrap().to_owned()
    };
    post(&from.address, "hut", vec![home_named("first", "Hut")]).await;
    assert_eq!(put_photo(&from.address, "p1").await, 204);
    let mut stream = reqwest::get(format!("{}/api/homes/hut/stream", from.address)).await.unwrap().bytes_stream();

    let (written, enough) = (Arc::new(AtomicU64::new(0)), Arc::new(AtomicU64::new(u64::MAX)));
    let writers: Vec<_> = (0..CLIENTS)
        .map(|client| tokio::spawn(write(client, from.address.clone(), Arc::clone(&written), Arc::clone(&enough))))
        .collect();
    while written.load(Ordering::SeqCst) < 40 {
        tokio::task::yield_now().await;
    }
    // Through the second door, by passphrase; people are sent on to the first one, where these writers may come in.
    let (ok, said, wrong) = move_home(&from.address, &door, &["--tell", &to.address]).await;
    assert!(ok && said.contains("1 photos are at") && said.contains(&format!("sent on to {}", to.address)), "{said}{wrong}");
    enough.store(written.load(Ordering::SeqCst) + 40, Ordering::SeqCst);
    let mut acknowledged = Vec::new();
    for writer in writers {
        acknowledged.extend(writer.await.unwrap());
    }
    let (before, after): (Vec<_>, Vec<_>) = acknowledged.into_iter().partition(|(_, address)| *address == from.address);
    assert!(before.len() >= 80 && after.len() >= 80, "both took lines: {} and {}", before.len(), after.len());
    let there_now = ids(&to.address).await;
    let set: BTreeSet<&String> = there_now.iter().collect();
    assert_eq!(set.len(), there_now.len(), "no line is there twice");
    for (id, address) in before.iter().chain(&after) {
        assert!(set.contains(id), "{id} was acknowledged at {address} and is not there");
    }
    assert_eq!(there_now.len(), 1 + before.len() + after.len(), "and nothing else is");
    let photo = reqwest::get(format!("{}/api/homes/hut/photos/p1", to.address)).await.unwrap();
    assert_eq!(photo.status(), 200);

    // Whoever listens is told, and finds where it is. Nothing more is written where it was.
    let last = format!("data: {}", 1 + before.len() + 1);
    let mut heard = String::new();
    while !heard.contains(&last) {
        heard.push_str(&String::from_utf8_lossy(&stream.next().await.unwrap().unwrap()));
    }
    let gone = reqwest::get(format!("{}/api/homes/hut", from.address)).await.unwrap();
    assert_eq!(gone.status(), 410);
    let gone: Value = gone.json().await.unwrap();
    assert_eq!((gone["code"].as_str(), gone["moved_to"].as_str()), (Some("moved"), Some(to.address.as_str())), "{gone}");
    assert_eq!(put_photo(&from.address, "p2").await, 410);
    let listed = get(&format!("{}/api/homes", from.address)).await;
    assert_eq!(listed["moved"], json!([{ "id": "hut", "name": "Hut", "to": to.address }]));
    assert_eq!(listed["homes"], json!([]));
    let (ok, _, wrong) = move_home(&from.address, &to.address, &[]).await;
    assert!(!ok && wrong.contains(&format!("This home has moved to {}", to.address)), "{wrong}");

    // It comes back the same way, with what it has grown by.
    let (ok, said, wrong) = move_home(&to.address, &from.address, &[]).await;
    assert!(ok, "{said}{wrong}");
    assert_eq!(ids(&from.address).await, there_now);
    assert_eq!(post(&from.address, "hut", vec![room("back", "back", "Back")]).await.0, 200);
    assert_eq!(post(&to.address, "hut", vec![room("not", "not", "Not")]).await.0, 410);
}

#[tokio::test]
async fn a_home_moves_through_an_encrypted_door_also_where_its_plain_address_is_named() {
    let (here, there) = (tempfile::tempdir().unwrap(), tempfile::tempdir().unwrap());
    let from = start(&here);
    post(&from.address, "hut", vec![home_named("first", "Hut")]).await;
    let file = |name: &str| there.path().join(name).to_str().unwrap().to_owned();
    let CertifiedKey { cert, signing_key } = generate_simple_self_signed(["localhost".to_owned()]).unwrap();
    std::fs::write(file("cert.pem"), cert.pem()).unwrap();
    std::fs::write(file("key.pem"), signing_key.serialize_pem()).unwrap();
    let (data, cert, key) = (file("data"), file("cert.pem"), file("key.pem"));
    let serve =
        ["serve", "--data", &data, "--bind", "127.0.0.1:0", "--share-at", "127.0.0.1:0", "--tls-cert", &cert, "--tls-key", &key];
    let to = Program::start(&serve);
    let body = json!({ "passphrase": "three brass bells" });
    let shared = reqwest::Client::new().post(format!("{}/api/sharing", to.address)).json(&body).send().await.unwrap();
    let shared: Value = shared.json().await.unwrap();
    let door = shared["addresses"][0].as_str().unwrap();
    assert!(door.starts_with("https://localhost:"), "{door}");
    let plain = door.replace("https:", "http:");
    let (ok, _, wrong) = move_home(&from.address, &plain, &[]).await;
    assert!(!ok && wrong.contains("does not answer"), "a certificate that nobody here knows: {wrong}");
    let (ok, said, wrong) = move_trusting(Path::new(&cert), &from.address, &plain, &[]).await;
    assert!(ok && said.contains(&format!("sent on to {door}")), "{said}{wrong}");
    assert_eq!(ids(&to.address).await, ["first"]);
}

#[tokio::test]
async fn a_home_that_cannot_be_taken_there_stays_in_use_where_it_is() {
    let (here, there) = (tempfile::tempdir().unwrap(), tempfile::tempdir().unwrap());
    let (from, mut to) = (start(&here), start(&there));
    post(&from.address, "hut", vec![home_named("first", "Hut")]).await;
    post(&to.address, "hut", vec![home_named("other", "Another hut")]).await;
    let works = async || post(&from.address, "hut", vec![home_named("first", "Hut")]).await.0 == 200;
    let (ok, _, wrong) = move_home(&from.address, &to.address, &[]).await;
    assert!(!ok && wrong.contains("with other lines") && works().await, "{wrong}");
    let (ok, _, wrong) = move_home(&from.address, &to.address.replace("http", "gopher"), &[]).await;
    assert!(!ok && works().await, "{wrong}");
    let (ok, _, wrong) = move_home(&from.address, &from.address.replace("127.0.0.1", "localhost"), &[]).await;
    assert!(!ok && wrong.contains("of the same server") && works().await, "{wrong}");
    // One that has grown since it was copied is not handed over, and whoever writes waits no longer than said.
    let hand = async |seq: u64, photos: usize, to: &str| {
        let body = json!({ "to": to, "seq": seq, "photos": photos });
        let answer =
            reqwest::Client::new().post(format!("{}/api/homes/hut/moved", from.address)).json(&body).send().await.unwrap();
        (answer.status().as_u16(), answer.json::<Value>().await.unwrap())
    };
    assert_eq!(hand(1, 0, "wayfinder.example").await.0, 422);
    assert_eq!(put_photo(&from.address, "p1").await, 204);
    let (status, said) = hand(1, 0, &to.address).await;
    assert_eq!((status, said["code"].as_str()), (409, Some("has_grown")));
    assert!(works().await, "held for a moment");
    to.child.kill().unwrap();
    to.child.wait().unwrap();
    let (ok, _, wrong) = move_home(&from.address, &to.address, &[]).await;
    assert!(!ok && wrong.contains("does not answer") && works().await, "{wrong}");
}
