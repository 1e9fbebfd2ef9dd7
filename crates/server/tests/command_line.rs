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

    let (ok, said, _) = wayfinder(&["loads", "--data", &other, "juniper-lane"]);
    assert!(
        ok && said.starts_with("One circuit comes to more than may be carried\n") && said.contains("not together:"),
        "{said}"
    );
    let (_, json, _) = wayfinder(&["loads", "--data", &other, "juniper-lane", "--json"]);
    let json: serde_json::Value = serde_json::from_str(&json).unwrap();
    assert_eq!((json["circuits"][0]["number"].as_str(), json["circuits"][0]["stands"].as_str()), (Some("11"), Some("over")));
    let (ok, said, _) = wayfinder(&["service", "--data", &other, "juniper-lane", "--method", "standard", "--new-va", "7200"]);
    assert!(ok && said.contains("NEC 2020, Article 220 Part III") && said.contains("with the new load"), "{said}");
    let pdf = folder.path().join("service.pdf");
    let (ok, said, _) =
        wayfinder(&["service", "--data", &other, "juniper-lane", "--method", "measured", "--pdf", pdf.to_str().unwrap()]);
    assert!(ok && said.contains("Written to") && std::fs::read(&pdf).unwrap().starts_with(b"%PDF"), "{said}");
    let work =
        |wish: &str, more: &[&str]| wayfinder(&[&["work", "--data", &other, "juniper-lane", "--wish", wish], more].concat());
    let (ok, said, _) = work("two free spaces side by side", &[]);
    assert!(ok && said.starts_with("Nothing has to be done: 2 open spaces side by side.\n"), "{said}");
    assert!(said.contains("stay live with the main off"), "{said}");
    let (_, json, _) = work("20 A circuit for the freezer", &["--json"]);
    let json: serde_json::Value = serde_json::from_str(&json).unwrap();
    assert_eq!((json["ways"][0]["name"].as_str(), json["ways"][0]["stands"].as_str()), (Some("An open space"), Some("read")));
    for (wish, more, says) in [
        ("more power", vec![], "Say for example"),
        ("GFCI for 11", vec![], "it shares its neutral with another breaker"),
        ("20 A circuit", vec!["--panel", "Attic"], "the home has no such panel"),
    ] {
        let (ok, _, said) = work(wish, &more);
        assert!(!ok && said.contains(says), "{wish}: {said}");
    }
    let (ok, said, _) = wayfinder(&["homes", "--data", &other]);
    assert!(ok && said.starts_with("juniper-lane\tJuniper Lane Schoolhouse\t") && said.contains("of 75 points proven"), "{said}");
    let (_, json, _) = wayfinder(&["homes", "--data", &other, "--json"]);
    let json: serde_json::Value = serde_json::from_str(&json).unwrap();
    assert_eq!((json[0]["id"].as_str(), json[0]["points"].as_u64()), (Some("juniper-lane"), Some(75)));
    let directory = |more: &[&str]| wayfinder(&[&["directory", "--data", &other], more].concat());
    let (ok, said, _) = directory(&["juniper lane schoolhouse", "--date", "2026-11-30", "--by", "Owner"]);
    assert!(ok && said.contains("    10   20  Kitchen: dishwasher\n") && said.contains("2026-11-30, Owner."), "{said}");
    for (format, begins) in [
        ("pdf", &b"%PDF"[..]),
        ("svg", b"<svg "),
        ("csv", b"Panel,Number,"),
        ("xlsx", b"PK"),
        ("ods", b"PK"),
        ("json", b"{"),
        ("dxf", b"  0"),
    ] {
        let file = folder.path().join(format!("directory.{format}"));
        let (ok, said, wrong) = directory(&["juniper-lane", "--as", format, "--out", file.to_str().unwrap()]);
        assert!(ok && said.starts_with("Written to "), "{format}: {said}{wrong}");
        let bytes = std::fs::read(&file).unwrap();
        assert!(bytes.starts_with(begins), "{format}: {:?}", &bytes[..8]);
    }
    let (_, json, _) = directory(&["juniper-lane", "--panel", "Greenhouse panel", "--json"]);
    let json: serde_json::Value = serde_json::from_str(&json).unwrap();
    assert_eq!(json["panel"]["name"], "Greenhouse panel");
    for (asked, says) in [
        (vec!["Barn"], "`wayfinder homes` lists them"),
        (vec!["juniper-lane", "--panel", "Attic"], "the home has no such panel"),
        (vec!["juniper-lane", "--as", "docx"], "[possible values: pdf, svg"),
        (vec!["juniper-lane", "--colors", "red"], "use load, amps or none"),
    ] {
        let (ok, _, said) = directory(&asked);
        assert!(!ok && said.contains(says), "{asked:?}: {said}");
    }
    let file = folder.path().join("book.pdf");
    let book =
        |more: &[&str]| wayfinder(&[&["book", "--data", &other, "juniper-lane", "--out", file.to_str().unwrap()], more].concat());
    let (ok, said, told) = book(&["--parts", "rooms,open", "--paper", "a4"]);
    assert!(ok && said.starts_with("Written to ") && told.contains("1 of 3: By room"), "{said}{told}");
    assert!(std::fs::read(&file).unwrap().starts_with(b"%PDF"));
    let (ok, _, said) = book(&["--parts", "attic"]);
    assert!(!ok && said.contains("use safety, cards"), "{said}");
    let (ok, _, said) = wayfinder(&["service", "--data", &other, "juniper-lane", "--method", "guess"]);
    assert!(!ok && said.contains("use standard, optional, existing, measured or canada"), "{said}");
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

#[test]
fn practice_is_scored_from_a_file_of_houses_the_same_every_time() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("houses.jsonl");
    let point = |room: usize, kind: &str, breaker: usize| serde_json::json!({ "room": room, "kind": kind, "name": "", "burnt_out": false, "breaker": breaker, "max_off_min": null });
    let label = serde_json::json!({ "says": "vague", "room": null, "kind": "light", "name": "" });
    let house = serde_json::json!({
        "format": "wayfinder-practice-house", "version": 1, "id": "hut", "rooms": ["hall", "kitchen"], "walk_s": [[0.0, 6.0], [6.0, 0.0]],
        "next_to": [[1], [0]], "panel_room": 0, "breakers": 3, "panel_neighbours": [[1], [0, 2], [1]], "must_stay_on": [],
        "labels": [label, label, label],
        "points": [point(0, "light", 0), point(0, "receptacle", 1), point(1, "light", 0), point(1, "receptacle", 2), point(1, "appliance", 2)]
    });
    std::fs::write(&path, format!("{house}\n")).unwrap();
    let score = |strategy: &str, more: &[&str]| {
        let mut command = Command::new(env!("CARGO_BIN_EXE_wayfinder"));
        command.args(["practice", "score", "--json", "--runs", "2", "--strategy", strategy, "--houses"]).arg(&path).args(more);
        let out = command.output().unwrap();
        assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
        serde_json::from_slice::<serde_json::Value>(&out.stdout).unwrap()
    };
    for strategy in ["one-at-a-time", "binary", "adaptive", "oracle"] {
        let told = score(strategy, &[]);
        let summary = &told["summary"];
        assert_eq!(told["houses"].as_array().unwrap().len(), 2);
        assert_eq!(
            (&summary["proven_points"], &summary["must_stay_on_violations"]),
            (&10.into(), &0.into()),
            "{strategy}: {told}"
        );
        assert_eq!(told["houses"], score(strategy, &[])["houses"], "the same seeds, the same rounds");
        let ratio = summary["ratio_to_oracle"].as_f64().unwrap();
        assert!(if strategy == "oracle" { ratio == 1.0 } else { ratio >= 1.0 }, "{strategy}: {ratio}");
    }
    // By hand: three breakers off and on (18 s), a word for each switching and at the end (4 x 4 s); looks of 3 x 2 s
    // and 2 x 8 s; and on foot from hall to kitchen and back twice at most.
    let minutes = score("oracle", &[])["summary"]["minutes_mean"].as_f64().unwrap();
    let at_least = (18.0 + 16.0 + 22.0 + 6.0) / 60.0;
    assert!((at_least..=at_least + 18.0 / 60.0 + 1e-9).contains(&minutes), "{minutes}");
    let alone = score("adaptive", &["--crew", "alone", "--instruments", "tester=1,lamps=2,tone", "--exchange", "0"]);
    assert_eq!(alone["summary"]["proven_points"], 10);
    for (arguments, says) in [
        (vec!["--instruments", "telepathy"], "none of tester=N"),
        (vec!["--strategy", "luck"], "one-at-a-time"),
        (vec!["--runs", "0"], "nothing to play"),
    ] {
        let mut command = Command::new(env!("CARGO_BIN_EXE_wayfinder"));
        let out = command.args(["practice", "score", "--houses"]).arg(&path).args(arguments).output().unwrap();
        assert!(!out.status.success() && String::from_utf8_lossy(&out.stderr).contains(says), "{says}");
    }
    std::fs::write(&path, "{\"format\":\"soup\"}\n").unwrap();
    let out = Command::new(env!("CARGO_BIN_EXE_wayfinder")).args(["practice", "score", "--houses"]).arg(&path).output().unwrap();
    assert!(String::from_utf8_lossy(&out.stderr).contains("line 1 is no practice house"));
}

#[test]
fn a_made_up_house_is_traced_without_a_screen_the_same_every_time() {
    let trace = |arguments: &[&str]| {
        let mut command = Command::new(env!("CARGO_BIN_EXE_wayfinder"));
        let out = command.args(["practice", "trace"]).args(arguments).output().unwrap();
        (
            out.status.success(),
            String::from_utf8_lossy(&out.stdout).into_owned(),
            String::from_utf8_lossy(&out.stderr).into_owned(),
        )
    };
    let small = ["--seed", "7", "--points", "20", "--level", "tricky", "--json"];
    let (done, told, said) = trace(&small);
    assert!(done, "{said}");
    assert_eq!(told, trace(&small).1);
    let told: serde_json::Value = serde_json::from_str(&told).unwrap();
    assert!(told["acts"].as_array().unwrap().iter().any(|act| act.as_str().unwrap().contains("switched off")));
    assert_eq!((&told["marks"]["wrong"], &told["marks"]["safety"]), (&0.into(), &serde_json::json!([])));
    let recipe = wayfinder_core::Recipe::to_trace(7, 20, wayfinder_core::Level::Tricky);
    let way = wayfinder_core::TraceSetup { method: wayfinder_core::Method::SeveralOff, ..Default::default() };
    let acts = wayfinder_core::sim::trace_through(recipe, way).unwrap().acts;
    assert_eq!(told["acts"], serde_json::json!(acts), "what the browser test holds the screen against");
    assert!(trace(&["--points", "12", "--school", "one_at_a_time"]).1.contains("by somebody who knows"));
    for (arguments, says) in [(["--points", "3"], "Give 8 to 150"), (["--level", "mean"], "plain, usual or tricky")] {
        let (done, _, said) = trace(&arguments);
        assert!(!done && said.contains(says), "{said}");
    }
}

#[test]
fn the_engines_of_the_loads_answer_files() {
    let data = format!("{}/../core/tests/data", env!("CARGO_MANIFEST_DIR"));
    for (engine, file, lines) in [("service", "dwellings", 40), ("legs", "legs", 40), ("network", "networks", 20)] {
        let file = format!("{data}/{file}.jsonl");
        let (ok, said, _) = wayfinder(&["practice", engine, "--file", &file, "--json"]);
        let answers: Vec<serde_json::Value> = said.lines().map(|line| serde_json::from_str(line).unwrap()).collect();
        assert!(ok && answers.len() == lines, "{engine}");
        let wanted = std::fs::read_to_string(&file).unwrap();
        for (answer, wanted) in answers.iter().zip(wanted.lines()) {
            let wanted: serde_json::Value = serde_json::from_str(wanted).unwrap();
            assert_eq!(answer["id"], wanted["input"]["id"]);
            assert!(answer["ms"].is_number());
            for key in wanted["expect"].as_object().unwrap().keys() {
                assert!(!answer["answer"][key].is_null() || wanted["expect"][key].is_null(), "{engine} {key}");
            }
        }
    }
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("cases.jsonl");
    std::fs::write(&file, "{\"input\":{\"id\":\"a\",\"edition\":2023,\"area_ft2\":-5}}\nnot a case\n\n").unwrap();
    let (ok, said, _) = wayfinder(&["practice", "service", "--file", file.to_str().unwrap(), "--json"]);
    let lines: Vec<&str> = said.lines().collect();
    assert!(!ok && lines.len() == 2, "{said}");
    assert!(
        lines[0].contains("-5 is no plate or area of a dwelling")
            && lines[1].contains("line 2")
            && lines[1].contains("this is no case")
    );
}

#[test]
fn ways_to_make_room_answer_a_file() {
    // A panel of four spaces, two of them open, and a wish for a two-pole; made by hand.
    let price = r#"{"standard":8,"gfci":50,"afci":45,"dual":55}"#;
    let costs = format!(
        r#"{{"open":[30,0,2],"new":[20,0,1],"gap":[0,0,0],"move":[0,0,1],"move_pole":[6,0,0],"splice":[6,3,1],"reland_pole":[4,0,0],"join":[12,3,3],"join_neutral":[6,1,0],"tap":[6,0,2],"take_out":[3,0,0],"sub":[240,180,6],"to_sub":[20,0,1],"to_sub_pole":[5,6,0],"manage":[10,0,1],"electrician":[120,450,1],"price":{{"single":{price},"double":{price},"tandem":25,"quad":45,"slim":25,"thin":10}}}}"#
    );
    let circuit = |id: &str, column: usize| {
        format!(
            r#"{{"id":"{id}","poles":1,"amps":15,"awg":14,"protection":"standard","class":"bath","load":[40],"at":{{"column":{column},"row":0,"shape":"full"}}}}"#
        )
    };
    let problem = format!(
        r#"{{"id":"hut","panel":{{"columns":[[1,3],[2,4]],"legs":["A","B"],"main_amps":60,"bus_amps":60,"listed_poles":4,"tandem_spaces":[],"slim":false,"label":{{"single":["standard"],"double":["standard"]}},"max_amps":{{}},"splice_room":4,"cross":2}},"circuits":[{},{}],"sub":null,"wish":{{"kind":"circuit","poles":2,"amps":20,"awg":12,"protection":"standard","load":[80,80],"class":"single"}},"costs":{costs},"weights":{{"minute":50,"money":100,"risk":800,"imbalance":2}},"max_touched":4}}"#,
        circuit("a", 0),
        circuit("b", 1)
    );
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("room.jsonl");
    std::fs::write(&file, format!("{{\"problem\":{problem},\"answer\":null}}\n{{\"problem\":{{}}}}\n")).unwrap();
    let (ok, said, _) = wayfinder(&["practice", "make-room", "--file", file.to_str().unwrap(), "--json"]);
    let lines: Vec<serde_json::Value> = said.lines().map(|line| serde_json::from_str(line).unwrap()).collect();
    assert!(!ok && lines.len() == 2 && lines[1]["error"].as_str().unwrap().contains("missing field"), "{said}");
    assert_eq!((lines[0]["id"].as_str(), lines[0]["ways"]["open"]["reason"].as_str()), (Some("hut"), Some("no_open_space")));
    // By hand: opened 3100, the new one 1000 and 800 with a breaker of 800, b moved 1100 to the other column at 2 spaces, which its slack
    // of none does not reach: a splice of 300, 300 and 800. Two legs: 80 and 80 beside 40 and 40, nothing apart.
    assert_eq!(lines[0]["best"], serde_json::json!({ "kind": "relocate", "cost": 8200 }));
    assert!(lines[0]["ms"].is_number());
    let (_, said, _) = wayfinder(&["practice", "make-room", "--file", file.to_str().unwrap()]);
    assert!(said.starts_with("hut: best relocate 8200; nothing: not_cord, open: no_open_space,"), "{said}");
}

#[test]
fn a_dark_point_is_asked_for_and_changes_are_listed() {
    let folder = tempfile::tempdir().unwrap();
    let path = |name: &str| folder.path().join(name).to_str().unwrap().to_owned();
    let (data, file) = (path("data"), path("home.json"));
    let written = wayfinder_fixture::written(
        "panel 8\n1 20 bath\nroom Bath\nroom Porch\npoint Bath gfci mirror\npoint Porch receptacle door\nprotects mirror: door",
    );
    let home = wayfinder_formats::write_home_file(&"test".parse().unwrap(), &written.book, Vec::new());
    std::fs::write(&file, home).unwrap();
    assert!(wayfinder(&["import", "--data", &data, &file]).0);
    let (ok, said, _) = wayfinder(&["trips", "--data", &data, "Test", "--dark", "Porch, door"]);
    assert!(ok && said.starts_with("Porch, door: dark\nA smell, heat, a buzz, water or a shock: stop here"), "{said}");
    assert!(said.contains("Bath, mirror: a GFCI has tripped") && said.contains("Next: First: is there any sign"), "{said}");
    let (_, said, _) = wayfinder(&["trips", "--data", &data, "test", "--dark", "door", "--dark", "mirror", "--json"]);
    let view: serde_json::Value = serde_json::from_str(&said).unwrap();
    assert_eq!((&view["told"][0], view["seen"].as_array().unwrap().len()), (&serde_json::json!("Bath, mirror: dark"), 0));
    let (ok, _, wrong) = wayfinder(&["trips", "--data", &data, "test", "--dark", "attic"]);
    assert!(!ok && wrong.contains("no point of this home is called “attic”"), "{wrong}");
    // Nothing was written by asking.
    let (_, said, _) = wayfinder(&["changes", "--data", &data, "test", "--since", "1970-01-01"]);
    let (changed, lines) = said.split_once("The lines since 1970-01-01:\n").unwrap();
    assert!(changed.contains("House: ") && changed.contains(" more: "), "{changed}");
    assert_eq!(lines.lines().count() as u64, written.book.seq(), "{said}");
    assert!(said.lines().last().unwrap().contains("tester: Bath, mirror"), "{said}");
    let (_, said, _) = wayfinder(&["changes", "--data", &data, "test", "--since", "2026-01-01"]);
    assert_eq!(said, "Nothing was written since 2026-01-01.\n");
    let (ok, _, wrong) = wayfinder(&["changes", "--data", &data, "test", "--since", "yesterday"]);
    assert!(!ok && wrong.contains("is no day; give one as 2026-11-24"), "{wrong}");
}

#[test]
fn faults_of_a_file_are_played() {
    let unpacked = |name: &str, packed: &[u8], folder: &std::path::Path| {
        let mut text = String::new();
        std::io::Read::read_to_string(&mut flate2::read::GzDecoder::new(packed), &mut text).unwrap();
        // Three faults are enough here; all of them are played in the core's tests.
        let text: Vec<&str> = text.lines().take(if name == "cases" { 3 } else { 99 }).collect();
        let file = folder.join(name);
        std::fs::write(&file, text.join("\n")).unwrap();
        file.to_str().unwrap().to_owned()
    };
    let folder = tempfile::tempdir().unwrap();
    let houses = unpacked("houses", include_bytes!("../../core/tests/data/faults-houses.jsonl.gz"), folder.path());
    let cases = unpacked("cases", include_bytes!("../../core/tests/data/faults.jsonl.gz"), folder.path());
    let play = |more: &[&str]| {
        wayfinder(&[&["practice", "faults", "--houses", houses.as_str(), "--cases", cases.as_str()], more].concat())
    };
    let (ok, said, _) = play(&["--strategy", "checklist", "--json"]);
    let lines: Vec<serde_json::Value> = said.lines().map(|line| serde_json::from_str(line).unwrap()).collect();
    assert!(ok && lines.len() == 4, "{said}");
    assert_eq!((&lines[0]["id"], &lines[0]["steps"][0]["do"]), (&serde_json::json!("fault-0"), &serde_json::json!("safety")));
    assert_eq!(lines[3]["summary"]["cases"], 3);
    let (_, said, _) = play(&[]);
    assert!(said.lines().last().unwrap().contains("of 3 right"), "{said}");
    let (ok, _, wrong) = play(&["--strategy", "guess"]);
    assert!(!ok && wrong.contains("give planner, checklist, random or oracle"), "{wrong}");
    std::fs::write(&cases, "{}").unwrap();
    let (ok, _, wrong) = play(&[]);
    assert!(!ok && wrong.contains("line 1 is no fault in a made-up house"), "{wrong}");
}
