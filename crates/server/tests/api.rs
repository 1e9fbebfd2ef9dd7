//! The routes, over real HTTP on loopback: what is taken, what is refused and how it is said.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod support;

use std::time::Duration;

use futures_util::StreamExt;
use serde_json::{Value, json};
use support::{Site, acts, acts_of, entry, get, home_named, post, room};
use wayfinder_core::{Draft, Method, Moment, PhotoOf, PhotoTaken, PointSeen, Seen, TraceSet, TraceSetup};

#[tokio::test]
async fn a_batch_is_all_or_nothing_and_harmless_to_send_again() {
    let site = Site::start(false).await;
    let batch = vec![home_named("a", "Hut"), room("b", "kitchen", "Kitchen")];
    assert_eq!(post(&site.address, "hut", batch.clone()).await, (200, json!({ "seq": 2, "new": 2 })));
    assert_eq!(post(&site.address, "hut", batch.clone()).await, (200, json!({ "seq": 2, "new": 0 })));
    let (status, problem) = post(&site.address, "hut", vec![room("c", "hall", "Hall"), room("d", "k2", "kitchen")]).await;
    assert_eq!(status, 422);
    assert_eq!(problem["code"], "occupied");
    assert_eq!(problem["entry"], "d");
    assert!(problem["detail"].as_str().unwrap().contains("Nothing was recorded"), "{problem}");
    let home = format!("{}/api/homes/hut", site.address);
    assert_eq!(get(&home).await["seq"], 2);
    assert_eq!(get(&format!("{home}/points")).await["rooms"].as_array().unwrap().len(), 1);
    let (status, problem) = post(&site.address, "hut", vec![home_named("b", "Other")]).await;
    assert_eq!((status, problem["code"].as_str()), (409, Some("id_taken")));
}

#[tokio::test]
async fn a_home_is_copied_archived_deleted_and_taken_back() {
    let site = Site::start(false).await;
    let house = acts_of("home Test\npanel 8\n1 20 kitchen\nroom Kitchen\npoint Kitchen receptacle counter");
    assert_eq!(post(&site.address, "hut", house).await.0, 200);
    let client = reqwest::Client::new();
    let homes = format!("{}/api/homes", site.address);
    let listed = || async {
        let all = get(&homes).await;
        let ids = |of: &str| all[of].as_array().unwrap().iter().map(|h| h["id"].as_str().unwrap().to_owned()).collect::<Vec<_>>();
        (ids("homes"), ids("deleted"), all)
    };
    let (.., all) = listed().await;
    assert_eq!(all["homes"][0]["worst"]["about"], "not_proven", "{all}");
    // A copy goes its own way.
    let copy = json!({ "home": "hut-2", "name": "Hut, as planned", "by": "Ann" });
    let copied = client.post(format!("{homes}/hut/copy")).json(&copy).send().await.unwrap();
    assert_eq!(copied.status(), 200);
    assert_eq!(client.post(format!("{homes}/hut/copy")).json(&copy).send().await.unwrap().status(), 409);
    let (hut, hut_2) = (get(&format!("{homes}/hut")).await, get(&format!("{homes}/hut-2")).await);
    assert_eq!((&hut["name"], &hut_2["name"]), (&json!("Test"), &json!("Hut, as planned")));
    assert_eq!(hut_2["seq"].as_u64(), hut["seq"].as_u64().map(|seq| seq + 1));
    // The archive comes last.
    let archived = client.put(format!("{homes}/hut-2/archived")).json(&json!({ "archived": true })).send().await.unwrap();
    assert_eq!(archived.status(), 200);
    let (ids, _, all) = listed().await;
    assert_eq!((ids, &all["homes"][1]["archived"]), (vec!["hut".into(), "hut-2".into()], &json!(true)));
    // Nobody reads or writes what is deleted, and a second one of that id is not made in its place.
    assert_eq!(client.delete(format!("{homes}/hut")).send().await.unwrap().status(), 200);
    assert_eq!(client.delete(format!("{homes}/hut")).send().await.unwrap().status(), 410);
    let gone = reqwest::get(format!("{homes}/hut/letter")).await.unwrap();
    assert_eq!(gone.status(), 410);
    assert!(gone.json::<Value>().await.unwrap()["detail"].as_str().unwrap().contains("take it back"));
    let (status, problem) = post(&site.address, "hut", vec![home_named("x", "Other hut")]).await;
    assert_eq!((status, &problem["code"]), (410, &json!("deleted")));
    let (ids, deleted, _) = listed().await;
    assert_eq!((ids, deleted), (vec!["hut-2".to_owned()], vec!["hut".to_owned()]));
    // It is back with every line.
    assert_eq!(client.post(format!("{homes}/hut/take-back")).send().await.unwrap().status(), 200);
    assert_eq!(get(&format!("{homes}/hut")).await, hut);
    assert_eq!(client.post(format!("{homes}/barn/take-back")).send().await.unwrap().status(), 404);
}

#[tokio::test]
async fn what_changed_is_told_since_a_moment_and_since_a_visit() {
    let site = Site::start(true).await;
    let home = format!("{}/api/homes/juniper-lane", site.address);
    let whole = get(&format!("{home}/changes")).await;
    assert_eq!((&whole["after"], &whole["since"]), (&json!(0), &Value::Null));
    let last = get(&format!("{home}/logbook?limit=1")).await;
    let (at, seq) = (last["lines"][0]["line"]["entry"]["at"].as_i64().unwrap(), last["total"].as_u64().unwrap());
    let none = get(&format!("{home}/changes?since={}", at + 1)).await;
    assert_eq!((&none["lines"], &none["said"]), (&json!(0), &json!([])));
    let by = last["lines"][0]["line"]["entry"]["by"].as_str().unwrap();
    let visit = get(&format!("{home}/changes?visit={by}")).await;
    assert!(visit["after"].as_u64().unwrap() <= seq, "{visit}");
    // The lines that are told of are those that the logbook gives for the same time.
    let since = at - 3_600_000;
    let changes = get(&format!("{home}/changes?since={since}")).await;
    let lines = get(&format!("{home}/logbook?after={}&limit=500", changes["after"])).await;
    assert_eq!(lines["wanted"], changes["lines"]);
    let counter = get(&format!("{home}/logbook?text=counter&topic=trace")).await;
    assert!(counter["wanted"].as_u64().unwrap() > 0 && counter["wanted"].as_u64() < Some(seq), "{counter}");
    assert_eq!(reqwest::get(format!("{home}/logbook?topic=weather")).await.unwrap().status(), 422);
}

#[tokio::test]
async fn the_plan_is_proposed_and_never_written_by_asking() {
    let site = Site::start(true).await;
    let plan = format!("{}/api/homes/juniper-lane/plan", site.address);
    let client = reqwest::Client::new();
    let before = get(&format!("{}/api/homes/juniper-lane", site.address)).await["seq"].clone();
    let ask = |wish: Value| {
        let sent = client.post(format!("{plan}/propose")).json(&wish).send();
        async {
            let answer = sent.await.unwrap();
            (answer.status().as_u16(), answer.json::<Value>().await.unwrap())
        }
    };
    let tap = |x: i32| {
        json!({ "wish": "tap_point", "point": "p", "floor": "ground floor", "at": { "x": x, "y": 100 }, "point_kind": "receptacle",
        "volts": 120, "details": { "outlets": "duplex", "half_of": null, "gfci": false, "outdoor": false, "weather_resistant": false }, "name": "" })
    };
    let (status, proposal) = ask(tap(8_000)).await;
    assert_eq!((status, proposal["said"].as_str()), (200, Some("Kitchen, north wall")));
    assert_eq!(proposal["facts"].as_array().unwrap().len(), 2);
    let (status, problem) = ask(tap(90_000)).await;
    assert_eq!((status, problem["title"].as_str()), (422, Some("No room is drawn there.")));
    assert!(problem["detail"].as_str().unwrap().contains("Nothing was recorded"));
    assert_eq!(ask(json!({ "wish": "fly" })).await.0, 422);
    for (path, status) in
        [("file/png", 404), ("file/pdf?paper=napkin", 422), ("file/svg?floor=attic", 404), ("file/pdf?date=soon", 422)]
    {
        assert_eq!(reqwest::get(format!("{plan}/{path}")).await.unwrap().status().as_u16(), status, "{path}");
    }
    let drawing = client.post(format!("{plan}/drawing?floor=loft")).body("no drawing").send().await.unwrap();
    assert_eq!(drawing.status().as_u16(), 422);
    assert!(drawing.json::<Value>().await.unwrap()["title"].as_str().unwrap().contains("no DXF drawing"));
    assert_eq!(get(&format!("{}/api/homes/juniper-lane", site.address)).await["seq"], before);
    let found = get(&format!("{}/api/homes/juniper-lane/find?q=greenhouse", site.address)).await;
    assert!(found.as_array().unwrap().iter().any(|f| f["found"] == "room" && f["name"] == "Greenhouse"), "{found}");
}

#[tokio::test]
async fn what_cannot_be_read_gets_a_sentence_and_not_our_insides() {
    let site = Site::start(true).await;
    let client = reqwest::Client::new();
    let entries = format!("{}/api/homes/juniper-lane/entries", site.address);
    let json = |body: &str| client.post(&entries).header("content-type", "application/json").body(body.to_owned());
    let raw = |id: &str, fact: Value| {
        json!({ "entries": [{ "id": id, "at": 0, "by": "tester", "version": 1, "fact": fact }] }).to_string()
    };
    let big = "x".repeat(100 << 20);
    for (request, status, says) in [
        (json("{"), 422, "cannot be read"),
        (json("{\"entries\": [], \"extra\": 1}"), 422, "unknown field `extra`"),
        (json("{\"entries\": []}"), 422, "1 to 1000 entries"),
        (json(&raw("../x", json!({ "kind": "home_described", "name": "n" }))), 422, "an id has 1 to 64"),
        (json(&raw("x", json!({ "kind": "point_seen", "point": "nowhere", "seen": "dark" }))), 422, "no such point"),
        (json(&raw("x", json!({ "kind": "point_seen", "point": "a", "seen": "dim" }))), 422, "unknown variant `dim`"),
        (client.post(&entries).body("hello"), 415, "not marked as JSON"),
        (json(&big), 413, "larger than the 1 MB"),
        (client.post(format!("{}/api/import", site.address)).body(big.clone()), 413, "larger than the 64 MB"),
        (client.post(format!("{}/api/import", site.address)).body("a,b\n1,2"), 422, "no Wayfinder home file"),
        (client.get(format!("{}/api/homes/nobody", site.address)), 404, "no such home"),
        (client.get(format!("{}/api/homes/%2e%2e%2fetc", site.address)), 404, "no such home"),
        (client.get(format!("{}/api/nothing", site.address)), 404, "no such address"),
        (client.get(format!("{}/api/homes/juniper-lane/directory.pdf?sheet=wall", site.address)), 422, "“wall” is no paper"),
        (client.get(format!("{}/api/homes/juniper-lane/directory.pdf?date=<b>", site.address)), 422, "is no date"),
        (
            client.post(format!("{}/api/homes/juniper-lane/panels/other/card", site.address)).json(&json!({ "text": "1 20 a" })),
            404,
            "no such panel",
        ),
    ] {
        let response = request.send().await.unwrap();
        assert_eq!(response.status().as_u16(), status, "{says}");
        assert_eq!(response.headers()["content-type"], "application/problem+json", "{says}");
        let problem: Value = response.json().await.unwrap();
        let said = format!("{} {}", problem["title"].as_str().unwrap(), problem["detail"].as_str().unwrap());
        assert!(said.contains(says), "{says}: {said}");
        for inside in ["SELECT", "INSERT", "sqlite", ".rs", "panicked", site.folder.path().to_str().unwrap()] {
            assert!(!problem.to_string().contains(inside), "{inside} leaks: {problem}");
        }
    }
    let known = get(&format!("{}/api/homes/juniper-lane/points", site.address)).await;
    assert_eq!(known["points"].as_array().unwrap().len(), 75);
}

#[tokio::test]
async fn an_address_asked_in_a_wrong_way_says_so() {
    let site = Site::start(false).await;
    let answer = reqwest::Client::new().patch(format!("{}/api/homes", site.address)).send().await.unwrap();
    assert_eq!(answer.status(), 405);
    assert_eq!(answer.headers()["content-type"], "application/problem+json");
    assert_eq!(answer.json::<Value>().await.unwrap()["code"], "method");
}

#[tokio::test]
async fn only_this_machine_and_only_its_own_pages() {
    let site = Site::start(false).await;
    let client = reqwest::Client::new();
    let health = format!("{}/api/health", site.address);
    for (host, status) in [
        ("evil.example", 421),
        ("localhost", 200),
        ("LOCALHOST.", 200),
        ("127.0.0.1:9", 200),
        ("[::1]:80", 200),
        ("[::1].evil.example", 421),
    ] {
        let response = client.get(&health).header("host", host).send().await.unwrap();
        assert_eq!(response.status().as_u16(), status, "{host}");
    }
    let entries = format!("{}/api/homes/hut/entries", site.address);
    let body = json!({ "entries": [home_named("a", "Hut")] });
    for (origin, status) in [("http://evil.example", 403), ("null", 403), (site.address.as_str(), 200)] {
        let response = client.post(&entries).header("origin", origin).json(&body).send().await.unwrap();
        assert_eq!(response.status().as_u16(), status, "{origin}");
    }
    // Nor is anything worked out for a page of another site, that asks by a picture's address.
    let methods = format!("{}/api/homes/hut/trace/methods", site.address);
    for (of, status) in [("cross-site", 403), ("same-site", 403), ("same-origin", 200), ("none", 200)] {
        let response = client.get(&methods).header("sec-fetch-site", of).send().await.unwrap();
        assert_eq!(response.status().as_u16(), status, "{of}");
    }
}

#[tokio::test]
async fn a_page_loads_nothing_from_elsewhere() {
    let site = Site::start(false).await;
    let response = reqwest::get(format!("{}/h/any/panel", site.address)).await.unwrap();
    let policy = response.headers()["content-security-policy"].to_str().unwrap().to_owned();
    assert!(policy.starts_with("default-src 'none'; script-src 'self'; style-src 'self' 'nonce-"), "{policy}");
    for never in ["unsafe", "http:", "https:", "*"] {
        assert!(!policy.contains(never), "{never} in {policy}");
    }
    let nonce = policy.split("'nonce-").nth(1).unwrap().split('\'').next().unwrap().to_owned();
    let html = response.text().await.unwrap();
    assert!(html.contains(&nonce) && !html.contains("__CSP_NONCE__"));
    let again = reqwest::get(format!("{}/h/any/panel", site.address)).await.unwrap();
    assert!(!again.headers()["content-security-policy"].to_str().unwrap().contains(&nonce), "the nonce is used twice");
    // What the service worker asks for is held against its own policy.
    let worker = reqwest::get(format!("{}/service-worker.js", site.address)).await.unwrap();
    let policy = "default-src 'none'; script-src 'self'; connect-src 'self'";
    assert_eq!(worker.headers()["content-security-policy"], policy);
    let manifest = reqwest::get(format!("{}/wayfinder.webmanifest", site.address)).await.unwrap();
    assert_eq!(manifest.headers()["content-type"], "application/manifest+json");
    let manifest: Value = manifest.json().await.unwrap();
    for icon in manifest["icons"].as_array().unwrap() {
        let picture = reqwest::get(format!("{}{}", site.address, icon["src"].as_str().unwrap())).await.unwrap();
        assert_eq!((picture.status().as_u16(), picture.headers()["content-type"].to_str().unwrap()), (200, "image/png"));
    }
    let api = reqwest::get(format!("{}/api/health", site.address)).await.unwrap();
    for (name, value) in [
        ("x-content-type-options", "nosniff"),
        ("referrer-policy", "no-referrer"),
        ("x-frame-options", "DENY"),
        ("cross-origin-resource-policy", "same-origin"),
        ("cache-control", "no-store"),
    ] {
        assert_eq!(api.headers()[name], value, "{name}");
    }
}

#[tokio::test]
async fn the_stream_tells_of_every_write_resumes_and_ends_with_the_program() {
    let mut site = Site::start(false).await;
    post(&site.address, "hut", vec![home_named("a", "Hut")]).await;
    let stream = reqwest::get(format!("{}/api/homes/hut/stream?after=1", site.address)).await.unwrap();
    let mut stream = stream.bytes_stream();
    post(&site.address, "hut", vec![room("b", "k", "Kitchen")]).await;
    let next = tokio::time::timeout(Duration::from_secs(5), stream.next()).await.unwrap().unwrap().unwrap();
    let text = String::from_utf8_lossy(&next).into_owned();
    assert!(text.contains("event: grown") && text.contains("data: 2"), "{text}");
    // One that was away hears at once that the logbook has grown.
    let resumed =
        reqwest::Client::new().get(format!("{}/api/homes/hut/stream", site.address)).header("last-event-id", "1").send();
    let mut resumed = resumed.await.unwrap().bytes_stream();
    let first = tokio::time::timeout(Duration::from_secs(5), resumed.next()).await.unwrap().unwrap().unwrap();
    assert!(String::from_utf8_lossy(&first).contains("data: 2"));
    // Open streams do not keep the program from stopping.
    site.stop.take().unwrap().send(()).unwrap();
    tokio::time::timeout(Duration::from_secs(10), &mut site.task).await.expect("it stops").unwrap();
    while let Ok(Some(Ok(_))) = tokio::time::timeout(Duration::from_secs(5), stream.next()).await {}
}

#[tokio::test]
async fn a_stream_that_is_read_late_comes_to_the_last_line() {
    let site = Site::start(false).await;
    assert_eq!(post(&site.address, "hut", vec![home_named("e", "Hut")]).await.0, 200);
    let stream = reqwest::get(format!("{}/api/homes/hut/stream", site.address)).await.unwrap();
    let mut stream = stream.bytes_stream();
    // Far more than are kept for a stream that does not read: of another home, and then of this one.
    for n in 0..400 {
        let home = if n < 390 { "mill" } else { "hut" };
        assert_eq!(post(&site.address, home, vec![home_named(&format!("n{n}"), &format!("Name {n}"))]).await.0, 200);
    }
    let last = get(&format!("{}/api/homes/hut", site.address)).await["seq"].as_u64().unwrap();
    let mut told = String::new();
    while !told.contains(&format!("data: {last}\n")) {
        let next = tokio::time::timeout(Duration::from_secs(60), stream.next()).await.expect("it was told nothing more");
        told.push_str(&String::from_utf8_lossy(&next.unwrap().unwrap()));
    }
}

#[tokio::test]
async fn a_look_under_other_breakers_is_refused_as_a_conflict() {
    let site = Site::start(true).await;
    let since = Some(serde_json::from_value(json!("start")).unwrap());
    let look = entry("look", PointSeen { point: "porch-lantern".parse().unwrap(), seen: Seen::Dark, since, anew: false });
    let late = Draft { at: Moment::from_unix_ms(1_900_000_000_000), ..look };
    let (status, problem) = post(&site.address, "juniper-lane", vec![late]).await;
    assert_eq!((status, problem["code"].as_str()), (409, Some("off_set_changed")));
    assert!(problem["title"].as_str().unwrap().contains("off now is 24"), "{problem}");
}

#[tokio::test]
async fn a_home_goes_out_and_comes_in_to_the_letter() {
    let from = Site::start(true).await;
    let to = Site::start(false).await;
    let export = |site: &Site| reqwest::get(format!("{}/api/homes/juniper-lane/export", site.address));
    let file = export(&from).await.unwrap().bytes().await.unwrap();
    let client = reqwest::Client::new();
    for _ in 0..2 {
        let response = client.post(format!("{}/api/import", to.address)).body(file.clone()).send().await.unwrap();
        assert_eq!(response.status().as_u16(), 200, "the same home again is harmless");
    }
    assert_eq!(export(&to).await.unwrap().bytes().await.unwrap(), file);
    post(&to.address, "juniper-lane", vec![room("extra", "attic", "Attic")]).await;
    let response = client.post(format!("{}/api/import", to.address)).body(file).send().await.unwrap();
    assert_eq!(response.status().as_u16(), 409, "a home that went on is not written over");
    // Resetting is for the demo only.
    assert_eq!(client.post(format!("{}/api/demo/reset", to.address)).send().await.unwrap().status().as_u16(), 404);
    assert_eq!(client.post(format!("{}/api/demo/reset", from.address)).send().await.unwrap().status().as_u16(), 200);
}

#[tokio::test]
async fn files_are_named_by_the_home() {
    let site = Site::start(false).await;
    let batch = acts_of("home Großmutters Hütte\npanel 12\n1 20 kitchen");
    assert_eq!(post(&site.address, "hut", batch).await.0, 200);
    let named = async |path: &str| {
        let answer = reqwest::get(format!("{}/api/homes/hut/{path}", site.address)).await.unwrap();
        assert_eq!(answer.status().as_u16(), 200, "{path}");
        answer.headers()["content-disposition"].to_str().unwrap().to_owned()
    };
    assert_eq!(
        named("export").await,
        "attachment; filename=\"Gro_mutters H_tte.wayfinder.json\"; filename*=UTF-8''Gro%C3%9Fmutters%20H%C3%BCtte.wayfinder.json"
    );
    assert!(named("directory.pdf").await.starts_with("inline; filename=\"Gro_mutters H_tte, door card, revision 4.pdf\""));
    assert!(named("panels/main/circuits/csv").await.starts_with("attachment; filename=\"Gro_mutters H_tte, Main panel.csv\""));
}

#[tokio::test]
async fn two_who_record_at_the_same_moment_both_count() {
    let site = Site::start(false).await;
    post(&site.address, "hut", vec![home_named("a", "Hut")]).await;
    let people: Vec<_> = (0..8)
        .map(|person| {
            let address = site.address.clone();
            tokio::spawn(async move {
                for n in 0..10 {
                    let name = format!("p{person}-{n}");
                    assert_eq!(post(&address, "hut", vec![room(&name, &name, &name)]).await.0, 200);
                }
            })
        })
        .collect();
    for person in people {
        person.await.unwrap();
    }
    let file = get(&format!("{}/api/homes/hut/export", site.address)).await;
    let seqs: Vec<u64> = file["lines"].as_array().unwrap().iter().map(|line| line["seq"].as_u64().unwrap()).collect();
    assert_eq!(seqs, (1..=81).collect::<Vec<_>>());
}

#[tokio::test]
async fn the_logbook_is_read_page_by_page_newest_first() {
    let site = Site::start(true).await;
    let mut before = String::new();
    let mut seen = Vec::new();
    loop {
        let page = get(&format!("{}/api/homes/juniper-lane/logbook?limit=300{before}", site.address)).await;
        seen.extend(page["lines"].as_array().unwrap().iter().map(|told| told["line"]["seq"].as_u64().unwrap()));
        match page["before"].as_u64() {
            Some(seq) => before = format!("&before={seq}"),
            None => break,
        }
    }
    let home = get(&format!("{}/api/homes/juniper-lane", site.address)).await;
    let all: Vec<u64> = (1..=home["seq"].as_u64().unwrap()).rev().collect();
    assert_eq!(seen, all);
}

#[tokio::test]
async fn the_files_sent_compressed_are_the_same_files() {
    let site = Site::start(false).await;
    let page = reqwest::get(&site.address).await.unwrap().text().await.unwrap();
    let script = page
        .split("src=\"")
        .nth(1)
        .and_then(|t| t.split('"').next())
        .expect("the page names its script; are the web files built?");
    let plain =
        reqwest::Client::builder().no_gzip().build().unwrap().get(format!("{}{script}", site.address)).send().await.unwrap();
    assert!(plain.headers().get("content-encoding").is_none());
    assert!(plain.headers()["cache-control"].to_str().unwrap().contains("immutable"));
    let raw = reqwest::Client::builder()
        .no_gzip()
        .build()
        .unwrap()
        .get(format!("{}{script}", site.address))
        .header("accept-encoding", "gzip")
        .send()
        .await
        .unwrap();
    assert_eq!(raw.headers()["content-encoding"], "gzip");
    let zipped = reqwest::get(format!("{}{script}", site.address)).await.unwrap().text().await.unwrap();
    assert_eq!(zipped, plain.text().await.unwrap());
}

#[test]
fn the_description_in_docs_is_the_one_of_the_code() {
    let path = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/openapi.json");
    let kept = std::fs::read_to_string(path).unwrap();
    assert!(
        kept == wayfinder_server::openapi_json(),
        "docs/openapi.json is not what the code says; `cargo xtask types` makes it anew"
    );
}

#[tokio::test]
async fn a_trace_is_asked_for_by_method_and_crew_and_a_running_clock_is_told() {
    let site = Site::start(true).await;
    let home = format!("{}/api/homes/juniper-lane", site.address);
    let usual = get(&format!("{home}/trace")).await;
    assert_eq!((&usual["setup"]["school"], &usual["setup"]["alone"]), (&json!("one_at_a_time"), &json!(false)));
    let minutes = |told: Value| told[0]["minutes"].as_f64().unwrap();
    // Asked for until it is worked out.
    let methods = async || loop {
        let told = get(&format!("{home}/trace/methods")).await;
        if told["methods"].is_array() {
            return told["methods"].clone();
        }
    };
    let pair = methods().await;
    assert_eq!(pair.as_array().unwrap().len(), 3, "without a tone tracer there are three");
    let alone =
        TraceSetup { method: Method::SeveralOff, alone: true, testers: 3, tone: true, phones: false, ..TraceSetup::default() };
    let set = |id: &str, setup: TraceSetup| vec![entry(id, TraceSet { setup })];
    assert_eq!(post(&site.address, "juniper-lane", set("way-1", alone)).await.0, 200);
    assert_eq!(get(&format!("{home}/trace")).await["setup"], json!(alone), "every screen traces so from now on");
    let one = methods().await;
    assert_eq!(one.as_array().unwrap().len(), 4);
    assert!(minutes(one) > minutes(pair), "alone everything is a walk to the panel");
    let none = TraceSetup { testers: 0, ..alone };
    let (status, problem) = post(&site.address, "juniper-lane", set("way-2", none)).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("testers")));
    assert_eq!(get(&home).await["clocks"], json!([]));
    let aquarium = "point Schoolroom appliance aquarium\ndark-at-most aquarium 30\noff 19";
    let mut batch = acts(&site.address, "juniper-lane", aquarium).await;
    batch.last_mut().unwrap().at = Moment::from_unix_ms(60_000);
    assert_eq!(post(&site.address, "juniper-lane", batch).await.0, 200);
    let clocks = &get(&home).await["clocks"];
    assert_eq!((&clocks[0]["point"], &clocks[0]["until"]), (&json!("aquarium"), &json!(31 * 60_000)));
    assert_eq!((&clocks[0]["breakers"], &clocks[0]["proven"]), (&json!(["breaker-19"]), &json!(false)));
}

#[tokio::test]
async fn a_sheet_is_read_within_bounds_and_nothing_is_written() {
    let site = Site::start(true).await;
    let client = reqwest::Client::new();
    let sheet = |query: &str, body: Vec<u8>| {
        client.post(format!("{}/api/homes/juniper-lane/panels/main/sheet{query}", site.address)).body(body).send()
    };
    let before = get(&format!("{}/api/homes/juniper-lane", site.address)).await["seq"].clone();
    let read: Value = sheet("", b"Ckt,Load,Amps\n21,Attic,15\n".to_vec()).await.unwrap().json().await.unwrap();
    assert_eq!((read["text"].as_str(), &read["columns"]), (Some("21 15 Attic\n"), &json!(["space", "label", "amps"])));
    let corrected = sheet("?columns=space,ignore,amps", b"Ckt,Load,Amps\n21,Attic,15\n".to_vec()).await.unwrap();
    assert_eq!(corrected.json::<Value>().await.unwrap()["text"], "21 15\n");
    for (query, body, status, says) in [
        ("?columns=space,pigs", b"1,2\n".to_vec(), 422, "“pigs” is nothing a column holds"),
        ("", vec![0, 1, 2, 3], 422, "no spreadsheet"),
        ("", vec![b'x'; 5 << 20], 413, "larger than the 4 MB"),
    ] {
        let response = sheet(query, body).await.unwrap();
        assert_eq!(response.status().as_u16(), status);
        let problem: Value = response.json().await.unwrap();
        assert!(problem["title"].as_str().unwrap().contains(says), "{problem}");
    }
    assert_eq!(get(&format!("{}/api/homes/juniper-lane", site.address)).await["seq"], before);
    for path in ["panels/nowhere/circuits/csv", "panels/main/circuits/exe", "breakers/nobody/moves", "directory?panel=nowhere"] {
        let response = reqwest::get(format!("{}/api/homes/juniper-lane/{path}", site.address)).await.unwrap();
        assert_eq!(response.status().as_u16(), 404, "{path}");
    }
}

#[tokio::test]
async fn photos_are_kept_checked_and_go_with_the_home() {
    let from = Site::start(true).await;
    let to = Site::start(false).await;
    let client = reqwest::Client::new();
    let address = |site: &Site, photo: &str| format!("{}/api/homes/juniper-lane/photos/{photo}", site.address);
    let png = b"\x89PNG\r\n\x1a\n and the rest".to_vec();
    let put = |photo: &str, body: Vec<u8>| client.put(address(&from, photo)).body(body).send();
    assert_eq!(put("p1", png.clone()).await.unwrap().status().as_u16(), 204);
    assert_eq!(put("p1", png.clone()).await.unwrap().status().as_u16(), 204, "the same again is harmless");
    assert_eq!(put("p1", [&png[..], b"x"].concat()).await.unwrap().status().as_u16(), 409);
    for (body, status, says) in [
        (b"<svg onload='alert(1)'/>".to_vec(), 422, "cannot be shown as a photo"),
        (vec![0xff; 9 << 20], 413, "larger than the 8 MB"),
    ] {
        let response = put("p2", body).await.unwrap();
        assert_eq!(response.status().as_u16(), status);
        assert!(response.text().await.unwrap().contains(says));
    }
    let of = PhotoOf::Label;
    let photo = PhotoTaken { photo: "p1".parse().unwrap(), panel: "main".parse().unwrap(), of, breaker: None };
    assert_eq!(post(&from.address, "juniper-lane", vec![entry("photo-line", photo)]).await.0, 200);
    let panels = get(&format!("{}/api/homes/juniper-lane/panels", from.address)).await;
    assert_eq!(panels[0]["photos"][0]["id"], "p1");
    let file = reqwest::get(format!("{}/api/homes/juniper-lane/export", from.address)).await.unwrap().bytes().await.unwrap();
    assert_eq!(client.post(format!("{}/api/import", to.address)).body(file).send().await.unwrap().status().as_u16(), 200);
    let shown = reqwest::get(address(&to, "p1")).await.unwrap();
    assert_eq!(shown.headers()["content-type"], "image/png");
    assert_eq!(shown.headers()["x-content-type-options"], "nosniff");
    assert_eq!(shown.bytes().await.unwrap(), png);
    assert_eq!(reqwest::get(address(&to, "p9")).await.unwrap().status().as_u16(), 404);
}

#[tokio::test]
async fn a_new_line_sends_a_screen_only_what_it_changed() {
    let site = Site::start(true).await;
    let home = format!("{}/api/homes/juniper-lane", site.address);
    let client = reqwest::Client::new();
    let ask = async |part: &str, has: Option<&str>| {
        let request = client.get(format!("{home}{part}"));
        let request = if let Some(tag) = has { request.header("if-none-match", tag) } else { request };
        let response = request.send().await.unwrap();
        let tag = response.headers()["etag"].to_str().unwrap().to_owned();
        assert_eq!(response.headers()["cache-control"], "private, no-cache", "asked again every time");
        (response.status().as_u16(), tag, response.bytes().await.unwrap().len())
    };
    let parts = ["", "/panels", "/points", "/checks", "/plan"];
    let mut tags = Vec::new();
    for part in parts {
        let (status, tag, length) = ask(part, None).await;
        assert!(status == 200 && length > 20, "{part}");
        assert_eq!(ask(part, Some(&tag)).await, (304, tag.clone(), 0), "{part}: it is there already");
        tags.push(tag);
    }
    assert_eq!(post(&site.address, "juniper-lane", vec![room("new-line", "new-room", "Boot room")]).await.0, 200);
    for (part, tag) in parts.iter().zip(&tags) {
        let (status, ..) = ask(part, Some(tag)).await;
        // A room changes neither the panels nor what is worth a look.
        assert_eq!(status, if ["/panels", "/checks"].contains(part) { 304 } else { 200 }, "{part}");
    }
}

#[tokio::test]
async fn many_who_write_to_one_home_at_once_are_each_taken_or_refused_and_leave_no_gap() {
    let site = Site::start(false).await;
    assert_eq!(post(&site.address, "hut", vec![home_named("first", "Hut")]).await.0, 200);
    let one = |n: usize| {
        let address = site.address.clone();
        tokio::spawn(async move {
            let batch = vec![room(&format!("e{n}"), &format!("r{n}"), &format!("Room {n}"))];
            let taken = post(&address, "hut", batch.clone()).await;
            // Sent again at once, it is the same line; a name that is taken is refused, whoever else is writing.
            let again = post(&address, "hut", batch).await;
            let twin = post(&address, "hut", vec![room(&format!("t{n}"), &format!("t{n}"), &format!("room {n}"))]).await;
            (taken, again, twin)
        })
    };
    for writing in (0..40).map(one).collect::<Vec<_>>() {
        let (taken, again, twin) = writing.await.unwrap();
        assert_eq!((taken.0, &taken.1["new"]), (200, &json!(1)), "{}", taken.1);
        assert_eq!((again.0, &again.1["new"]), (200, &json!(0)), "{}", again.1);
        assert_eq!((twin.0, &twin.1["code"]), (422, &json!("occupied")), "{}", twin.1);
    }
    let page = get(&format!("{}/api/homes/hut/logbook?limit=500", site.address)).await;
    let seqs: Vec<u64> = page["lines"].as_array().unwrap().iter().map(|told| told["line"]["seq"].as_u64().unwrap()).collect();
    assert_eq!(seqs, (1..=41).rev().collect::<Vec<_>>());
}

#[tokio::test]
async fn usage_is_read_within_bounds_and_nothing_is_written() {
    let site = Site::start(true).await;
    let client = reqwest::Client::new();
    let usage = |query: &str, body: Vec<u8>| {
        client.post(format!("{}/api/homes/juniper-lane/usage{query}", site.address)).body(body).send()
    };
    let before = get(&format!("{}/api/homes/juniper-lane", site.address)).await["seq"].clone();
    let quarter = |n: u32| format!("2026-01-14 {:02}:{:02},{}\n", n / 4, n % 4 * 15, if n == 73 { 2.46 } else { 0.075 });
    let table = format!("from,amount\n{}", (0..96).map(quarter).collect::<String>()).into_bytes();
    let read: Value = usage("?file=quarters.csv", table.clone()).await.unwrap().json().await.unwrap();
    assert_eq!((&read["fact"]["demand"]["peak"], &read["fact"]["file"]), (&json!(9840), &json!("quarters.csv")));
    assert_eq!((&read["columns"]["unit"], &read["columns"]["unit_is_said"]), (&json!("kwh"), &json!(false)));
    let as_kw: Value = usage("?unit=kw", table.clone()).await.unwrap().json().await.unwrap();
    assert_eq!(as_kw["fact"]["demand"]["peak"], json!(2460));
    for (query, body, status, says) in [
        ("?unit=joule", table, 422, "“joule” is no unit of usage"),
        ("", vec![0, 1, 2, 3], 422, "neither a CSV file nor usage XML"),
        ("", vec![b'x'; 49 << 20], 413, "larger than the 48 MB"),
    ] {
        let response = usage(query, body).await.unwrap();
        assert_eq!(response.status().as_u16(), status);
        let problem: Value = response.json().await.unwrap();
        assert!(problem["title"].as_str().unwrap().contains(says), "{problem}");
    }
    assert_eq!(get(&format!("{}/api/homes/juniper-lane", site.address)).await["seq"], before);
}

#[tokio::test]
async fn the_directory_goes_out_in_every_format_and_wrong_asks_are_said() {
    let site = Site::start(true).await;
    let home = format!("{}/api/homes/juniper-lane", site.address);
    let ask = async |part: &str| {
        let response = reqwest::get(format!("{home}/{part}")).await.unwrap();
        let name = response.headers().get("content-disposition").map_or("", |name| name.to_str().unwrap()).to_owned();
        (response.status().as_u16(), name, response.bytes().await.unwrap())
    };
    for format in ["csv", "xlsx", "ods", "json", "svg"] {
        let (status, name, bytes) = ask(&format!("directory/as/{format}")).await;
        assert_eq!(status, 200, "{format}");
        assert!(
            name.contains(&format!("Juniper Lane Schoolhouse, directory, revision 1055.{format}")) && bytes.len() > 300,
            "{name}"
        );
    }
    let sheet = "stickers.pdf?paper_width=210&paper_height=297&columns=3&rows=8&left=8&top=15&width=64&height=33&gap_x=1&gap_y=0";
    let (status, name, pdf) = ask(sheet).await;
    assert!(status == 200 && name.contains("stickers, revision 1055.pdf") && pdf.starts_with(b"%PDF"), "{name}");
    assert_eq!(ask("strips.pdf?sheet=a4&lines=1,5-7").await.0, 200);
    let (status, name, pdf) = ask("book.pdf?paper=a4&date=2026-12-01").await;
    assert!(status == 200 && name.contains("home book, revision 1055.pdf") && pdf.starts_with(b"%PDF"), "{name}");
    let (status, name, _) = ask("book.pdf?parts=rooms").await;
    assert!(status == 200 && name.contains("By room, revision 1055.pdf"), "{name}");
    // What is being made, line by line, and the book at the end.
    let (_, _, lines) = ask("book?parts=safety,tests").await;
    let lines: Vec<Value> = String::from_utf8_lossy(&lines).lines().map(|line| serde_json::from_str(line).unwrap()).collect();
    let making: Vec<&str> = lines.iter().filter_map(|line| line["making"].as_str()).collect();
    assert_eq!(making, ["Before you touch anything", "Tests that come round", "putting the pages together"]);
    assert!(lines.last().unwrap()["pdf"].as_str().unwrap().starts_with("JVBERi"), "%PDF in base64");
    let (_, _, tests) = ask("tests").await;
    let tests: Value = serde_json::from_slice(&tests).unwrap();
    assert!(tests["devices"].as_array().unwrap().len() > 5 && tests["months"]["buttons"] == 1, "{tests}");
    for (part, status, says) in [
        ("book?parts=rooms,attic", 422, "The book has no part “attic”."),
        ("book.pdf?paper=card", 422, "Use letter or a4."),
        ("directory/as/docx", 404, ""),
        ("directory?colors=red", 422, "Use load, amps or none."),
        ("directory.pdf?by=1234567890123456789012345678901234567890123456789012345678901", 422, "too long for a name"),
        ("strips.pdf?sheet=a4&lines=99", 422, "None of these lines is on the card."),
        (&format!("{sheet}&begin=99"), 422, "it cannot begin at number 99"),
        (&sheet.replace("columns=3", "columns=4"), 422, "outside the paper"),
    ] {
        let (told, _, body) = ask(part).await;
        assert_eq!(told, status, "{part}");
        assert!(String::from_utf8_lossy(&body).contains(says), "{part}: {}", String::from_utf8_lossy(&body));
    }
}
