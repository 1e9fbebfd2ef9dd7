//! What is kept, on the command line and over HTTP: one damaged home hides no other, copies are written while the program runs and
//! come back the same, and what can be read of a damaged folder is saved.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod support;

use std::path::Path;
use std::process::Command;

use rusqlite::Connection;
use serde_json::{Value, json};
use support::{Program, acts, get, home_named, post, room};

fn wayfinder(arguments: &[&str]) -> (bool, String, String) {
    let out = Command::new(env!("CARGO_BIN_EXE_wayfinder")).args(arguments).output().unwrap();
    let text = |bytes: Vec<u8>| String::from_utf8(bytes).unwrap();
    (out.status.success(), text(out.stdout), text(out.stderr))
}

fn stop(mut program: Program) {
    assert!(Command::new("kill").args(["-TERM", &program.child.id().to_string()]).status().unwrap().success());
    program.child.wait().unwrap();
}

/// A folder with the demo homes and a small one of three lines.
async fn folder() -> tempfile::TempDir {
    let folder = tempfile::tempdir().unwrap();
    let data = folder.path().join("data");
    let program = Program::start(&["demo", "--data", data.to_str().unwrap(), "--bind", "127.0.0.1:0"]);
    let batch = vec![home_named("e1", "Hut"), room("e2", "r1", "Kitchen"), room("e3", "r2", "Hall")];
    assert_eq!(post(&program.address, "hut", batch).await.0, 200);
    // From now on what the list says of each is kept.
    assert_eq!(listed(&program.address).await["homes"].as_array().unwrap().len(), 3);
    stop(program);
    folder
}

/// The list of homes, once each was looked through.
async fn listed(address: &str) -> Value {
    loop {
        let all = get(&format!("{address}/api/homes")).await;
        if all["unchecked"] == 0 {
            return all;
        }
    }
}

fn by_hand(data: &Path, sql: &str) {
    Connection::open(data.join("wayfinder.sqlite")).unwrap().execute_batch(sql).unwrap();
}

#[tokio::test]
async fn a_damaged_home_is_listed_with_what_is_wrong_the_others_work_and_what_reads_is_saved() {
    let folder = folder().await;
    let data = folder.path().join("data");
    by_hand(&data, "UPDATE lines SET body = replace(body, 'Kitchen', 'Chicken') WHERE home = 'hut' AND seq = 2");
    // One of the demo's own, too: it is left as it is until the demo is reset.
    by_hand(&data, "DELETE FROM lines WHERE home = 'tanyard-flat' AND seq = 7");
    let (ok, said, _) = wayfinder(&["check", "--data", data.to_str().unwrap()]);
    assert!(
        !ok && said.contains("hut “Hut”: DAMAGED, line 2 is not as it was written") && said.contains("1 lines can be read"),
        "{said}"
    );
    let (_, said, _) = wayfinder(&["check", "--json", "--data", data.to_str().unwrap()]);
    let checked: Value = serde_json::from_str(&said).unwrap();
    assert_eq!(
        (&checked["sound"], &checked["damaged"][0]["id"], &checked["damaged"][0]["line"]),
        (&json!(false), &json!("hut"), &json!(2))
    );
    assert_eq!((checked["homes"].as_array().unwrap().len(), checked["damaged"].as_array().unwrap().len()), (1, 2));
    let (ok, said, _) = wayfinder(&["homes", "--data", data.to_str().unwrap()]);
    assert!(ok && said.contains("hut\tHut\tDAMAGED") && said.contains("juniper-lane\t"), "{said}");

    let program = Program::start(&["demo", "--data", data.to_str().unwrap(), "--bind", "127.0.0.1:0"]);
    let at = &program.address;
    let all = listed(at).await;
    assert_eq!((all["homes"].as_array().unwrap().len(), all["damaged"].as_array().unwrap().len()), (1, 2));
    assert_eq!(
        all["damaged"][0],
        json!({ "id": "hut", "name": "Hut", "what": "line 2 is not as it was written", "readable": 1 })
    );
    let reset = reqwest::Client::new().post(format!("{at}/api/demo/reset")).send().await.unwrap();
    assert_eq!(reset.status(), 200);
    assert_eq!(get(&format!("{at}/api/homes")).await["damaged"].as_array().unwrap().len(), 1);
    let refused = reqwest::get(format!("{at}/api/homes/hut")).await.unwrap();
    assert_eq!(refused.status(), 500);
    let refused: Value = refused.json().await.unwrap();
    assert_eq!(
        (refused["code"].as_str(), refused["title"].as_str()),
        (Some("damaged"), Some("This home is damaged: line 2 is not as it was written."))
    );
    let (status, refused) = post(at, "hut", vec![room("e4", "r3", "Porch")]).await;
    assert_eq!((status, refused["code"].as_str()), (500, Some("damaged")), "nothing more is written into it");
    let look = acts(at, "juniper-lane", "lit porch-lantern").await;
    assert_eq!(post(at, "juniper-lane", look).await.0, 200, "the others work");
    let body = json!({ "home": "hut-saved", "name": "Hut, saved", "by": "Ann" });
    let saved = reqwest::Client::new().post(format!("{at}/api/homes/hut/salvage")).json(&body).send().await.unwrap();
    assert_eq!(saved.json::<Value>().await.unwrap(), json!({ "home": "hut-saved", "seq": 2 }));
    assert_eq!(get(&format!("{at}/api/homes/hut-saved")).await["name"], "Hut, saved");
    // The damaged one is deleted like any other.
    assert_eq!(reqwest::Client::new().delete(format!("{at}/api/homes/hut")).send().await.unwrap().status(), 200);
    let all = get(&format!("{at}/api/homes")).await;
    assert_eq!((&all["damaged"], all["deleted"][0]["name"].as_str()), (&json!([]), Some("Hut")));
    stop(program);
}

#[tokio::test]
async fn a_copy_is_written_while_the_program_writes_and_put_back_it_is_the_same() {
    let folder = folder().await;
    let path = |name: &str| folder.path().join(name).to_str().unwrap().to_owned();
    let (data, copy, back) = (path("data"), path("copy.sqlite"), path("back"));
    let program = Program::serve(Path::new(&data));
    let writing = {
        let address = program.address.clone();
        tokio::spawn(async move {
            for n in 0..40 {
                let batch = vec![
                    room(&format!("a{n}"), &format!("a{n}"), &format!("Room a{n}")),
                    room(&format!("b{n}"), &format!("b{n}"), &format!("Room b{n}")),
                ];
                assert_eq!(post(&address, "hut", batch).await.0, 200);
            }
        })
    };
    let (ok, said, wrong) = wayfinder(&["backup", "--data", &data, "--out", &copy]);
    assert!(ok && said.contains("juniper-lane: 1055 lines") && said.contains("Written to"), "{said}{wrong}");
    let (ok, said, _) = wayfinder(&["check", "--data", &data]);
    assert!(ok && said.starts_with("database: sound"), "also while it runs: {said}");
    let (ok, said, _) = wayfinder(&["check", "--data", &copy]);
    assert!(ok && said.starts_with("database: sound"), "{said}");
    writing.await.unwrap();
    let before = get(&format!("{}/api/homes/hut/export", program.address)).await;
    let whole = get(&format!("{}/api/homes/juniper-lane/export", program.address)).await;
    stop(program);
    let (ok, _, wrong) = wayfinder(&["backup", "--data", &data, "--out", &copy]);
    assert!(!ok && wrong.contains("is there already"), "{wrong}");
    let (ok, _, wrong) = wayfinder(&["restore", &copy, "--data", &data]);
    assert!(!ok && wrong.contains("is there already"), "{wrong}");
    let (ok, said, wrong) = wayfinder(&["restore", &copy, "--data", &back]);
    assert!(ok && said.contains(&format!("Put back into {back}")), "{said}{wrong}");
    let program = Program::serve(Path::new(&back));
    assert_eq!(get(&format!("{}/api/homes/juniper-lane/export", program.address)).await, whole);
    let lines = get(&format!("{}/api/homes/hut/export", program.address)).await["lines"].as_array().unwrap().clone();
    assert!(lines.len() >= 3 && lines.len() % 2 == 1, "no half batch: {}", lines.len());
    assert_eq!(lines[..], before["lines"].as_array().unwrap()[..lines.len()], "the first lines of what was written");
    stop(program);
}

#[tokio::test]
async fn what_can_be_read_of_a_damaged_folder_is_saved_into_a_new_one() {
    let folder = folder().await;
    let path = |name: &str| folder.path().join(name).to_str().unwrap().to_owned();
    let (data, saved) = (path("data"), path("saved"));
    by_hand(Path::new(&data), "DELETE FROM lines WHERE home = 'hut' AND seq = 3");
    let (ok, said, _) = wayfinder(&["salvage", "--data", &data, "--to", &saved]);
    assert!(!ok, "it was not all of it");
    assert!(said.contains("hut: 2 lines; the last lines are gone: 3 were written, 2 are there"), "{said}");
    assert!(said.contains("juniper-lane: all of its 1055 lines"), "{said}");
    let (ok, said, _) = wayfinder(&["check", "--data", &saved]);
    assert!(ok && said.contains("hut “Hut”: 2 lines"), "{said}");
    let (ok, _, wrong) = wayfinder(&["salvage", "--data", &data, "--to", &saved]);
    assert!(!ok && wrong.contains("is there already"), "{wrong}");
    // A file that is no database at all.
    std::fs::write(folder.path().join("letter"), "a letter to my aunt ".repeat(400)).unwrap();
    let (ok, _, wrong) = wayfinder(&["salvage", "--data", &path("letter"), "--to", &path("nothing")]);
    assert!(!ok && wrong.contains("The database is damaged"), "{wrong}");
}

#[tokio::test]
async fn a_home_that_could_not_be_taken_in_again_is_not_written_as_if_it_could() {
    let folder = folder().await;
    let data = folder.path().join("data");
    let program = Program::serve(&data);
    let photo = format!("{}/api/homes/hut/photos/p1", program.address);
    let bytes = b"\x89PNG\r\n\x1a\nand so on".to_vec();
    assert_eq!(reqwest::Client::new().put(&photo).body(bytes).send().await.unwrap().status(), 204);
    stop(program);
    by_hand(&data, "UPDATE photos SET bytes = x'00'");
    let out = folder.path().join("hut.json");
    let (ok, _, said) = wayfinder(&["export", "--data", data.to_str().unwrap(), "hut", "--out", out.to_str().unwrap()]);
    assert!(!ok && said.contains("could not be imported again, so it was not written"), "{said}");
    assert!(!out.exists());
    let program = Program::serve(&data);
    let answer = reqwest::get(format!("{}/api/homes/hut/export", program.address)).await.unwrap();
    assert_eq!(answer.status(), 500);
    assert_eq!(answer.json::<Value>().await.unwrap()["code"], "not_to_be_read_back");
    stop(program);
}
