//! The program on the command line.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod support;

use std::process::Command;

use support::{Program, get};

fn wayfinder(arguments: &[&str]) -> (bool, String, String) {
    let out = Command::new(env!("CARGO_BIN_EXE_wayfinder")).args(arguments).output().unwrap();
    let text = |bytes: Vec<u8>| String::from_utf8(bytes).unwrap();
    (out.status.success(), text(out.stdout), text(out.stderr))
}

#[tokio::test]
async fn demo_export_import_and_check() {
    let folder = tempfile::tempdir().unwrap();
    let path = |name: &str| folder.path().join(name).to_str().unwrap().to_owned();
    let (demo, other, file) = (path("demo"), path("other"), path("home.json"));
    let program = Program::start(&["demo", "--data", &demo, "--bind", "127.0.0.1:0"]);
    let health = get(&format!("{}/api/health", program.address)).await;
    assert_eq!(health["demo"], true);
    let (ok, _, said) = wayfinder(&["export", "--data", &demo, "juniper-lane"]);
    assert!(!ok && said.contains("in use by another Wayfinder"), "{said}");
    // SIGTERM ends it cleanly.
    let pid = program.child.id().to_string();
    let mut program = program;
    assert!(Command::new("kill").args(["-TERM", &pid]).status().unwrap().success());
    assert!(program.child.wait().unwrap().success());

    assert!(wayfinder(&["export", "--data", &demo, "juniper-lane", "--out", &file]).0);
    let (ok, said, _) = wayfinder(&["import", "--data", &other, &file]);
    assert!(ok && said.contains("juniper-lane"), "{said}");
    let (_, again, _) = wayfinder(&["export", "--data", &other, "juniper-lane"]);
    assert_eq!(again, std::fs::read_to_string(&file).unwrap());

    let (ok, said, _) = wayfinder(&["check", "--data", &other]);
    assert!(ok && said.contains("database: sound") && said.contains("12: 20 A breaker on 14 AWG copper"), "{said}");
    let (_, json, _) = wayfinder(&["check", "--data", &other, "--json"]);
    let json: serde_json::Value = serde_json::from_str(&json).unwrap();
    assert_eq!(json["sound"], true);
    assert_eq!(json["homes"][0]["name"], "Juniper Lane Schoolhouse");
}

#[test]
fn what_cannot_be_done_is_said_in_a_sentence() {
    let folder = tempfile::tempdir().unwrap();
    let data = folder.path().to_str().unwrap();
    let file = folder.path().join("x.json");
    std::fs::write(&file, "{}").unwrap();
    for (arguments, says) in [
        (vec!["serve", "--data", data, "--bind", "0.0.0.0:0"], "loopback only"),
        (vec!["export", "--data", "/nowhere", "h"], "is no Wayfinder data folder"),
        (vec!["import", "--data", data, file.to_str().unwrap()], "no Wayfinder home file"),
        (vec!["export", "--data", data, "../x"], "an id has 1 to 64"),
    ] {
        let (ok, _, said) = wayfinder(&arguments);
        assert!(!ok && said.contains(says), "{arguments:?}: {said}");
    }
}
