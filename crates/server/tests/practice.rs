//! Made-up houses over HTTP: the same recipe gives the same house, the wiring stays hidden until it is asked for, and instruments
//! show something only in a made-up house.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod support;

use std::collections::BTreeSet;

use serde_json::{Value, json};
use support::{Site, acts, get, post};

async fn made(site: &Site, recipe: Value) -> (u16, Value) {
    let sent = reqwest::Client::new().post(format!("{}/api/practice", site.address)).json(&recipe).send().await.unwrap();
    (sent.status().as_u16(), sent.json().await.unwrap())
}

fn recipe() -> Value {
    json!({ "seed": 3, "points": 14, "level": "usual" })
}

#[tokio::test]
async fn the_same_recipe_is_another_try_at_the_same_house() {
    let site = Site::start(false).await;
    let mut lists = Vec::new();
    for name in ["made-usual-14-3", "made-usual-14-3-2", "made-usual-14-3-3"] {
        let (status, told) = made(&site, recipe()).await;
        assert_eq!((status, told["home"].as_str()), (200, Some(name)));
        let points = get(&format!("{}/api/homes/{name}/points", site.address)).await;
        lists.push(points["points"].clone());
    }
    assert_eq!((&lists[0], &lists[0]), (&lists[1], &lists[2]));
    let (_, other) = made(&site, json!({ "seed": 4, "points": 14, "level": "usual" })).await;
    let other = get(&format!("{}/api/homes/{}/points", site.address, other["home"].as_str().unwrap())).await;
    assert_ne!(other["points"], lists[0]);
    for (points, says) in [(3, "8 to 150"), (5000, "8 to 150")] {
        let (status, problem) = made(&site, json!({ "seed": 1, "points": points, "level": "usual" })).await;
        assert_eq!(status, 422);
        assert!(problem["detail"].as_str().unwrap().contains(says), "{problem}");
    }
    assert_eq!(made(&site, json!({ "seed": 1, "points": 14, "level": "mean" })).await.0, 422);
}

#[tokio::test]
async fn the_wiring_is_told_only_to_whoever_asks_for_it() {
    let site = Site::start(false).await;
    let (_, told) = made(&site, recipe()).await;
    let home = format!("{}/api/homes/{}", site.address, told["home"].as_str().unwrap());
    let wiring = |marks: &Value| marks["truth"].as_array().map_or(0, Vec::len);
    let hidden = get(&format!("{home}/practice")).await;
    let shown = get(&format!("{home}/practice?reveal=true")).await;
    assert_eq!(wiring(&hidden), 0, "{hidden}");
    assert!(wiring(&shown) >= 14, "{shown}");
    assert_eq!((&hidden["right"], &hidden["wrong"]), (&json!(0), &json!(0)));
    // Neither the logbook nor what goes out as a file holds it: the recipe alone does.
    let file = get(&format!("{home}/export")).await;
    let kinds: BTreeSet<&str> =
        file["lines"].as_array().unwrap().iter().map(|line| line["entry"]["fact"]["kind"].as_str().unwrap()).collect();
    assert!(kinds.contains("practice_house"));
    for seen in ["point_seen", "volts_read", "breaker_switched"] {
        assert!(!kinds.contains(seen), "{seen} is written though nobody did anything");
    }
}

#[tokio::test]
async fn instruments_follow_the_handles_and_write_nothing() {
    let site = Site::start(true).await;
    let (_, told) = made(&site, recipe()).await;
    let name = told["home"].as_str().unwrap();
    let home = format!("{}/api/homes/{name}", site.address);
    let before = get(&home).await["seq"].clone();
    let marks = get(&format!("{home}/practice?reveal=true")).await;
    let points = get(&format!("{home}/points")).await;
    // A light of 120 V, with the number of the breaker that feeds it.
    let light = marks["truth"].as_array().unwrap().iter().find_map(|told| {
        let point = points["points"].as_array()?.iter().find(|point| point["id"] == told["point"])?;
        (point["kind"] == "light" && point["volts"] == 120)
            .then(|| (point["id"].as_str().unwrap(), told["truth"].as_str().unwrap()))
    });
    let (light, number) = light.expect("a light in the house");
    let eye = async || get(&format!("{home}/practice/reading?instrument=eye&point={light}")).await;
    let lit = eye().await;
    assert_eq!(eye().await, lit, "asked again, it shows the same");
    assert_eq!(get(&home).await["seq"], before, "looking writes nothing");
    assert_eq!(post(&site.address, name, acts(&site.address, name, &format!("off {number}")).await).await.0, 200);
    let dark = eye().await;
    assert_ne!(lit["words"], dark["words"], "with {number} off: {dark}");
    // The handles, and what a point does while its breaker is switched off and on again.
    let handles = get(&format!("{home}/practice/reading?instrument=eye&handles=true")).await;
    assert_eq!(handles["words"], "Every handle stands as the logbook says.");
    let panels = get(&format!("{home}/panels")).await;
    let find = |want: &dyn Fn(&serde_json::Value) -> bool| -> String {
        let all = panels.as_array().unwrap().iter().flat_map(|panel| panel["breakers"].as_array().unwrap());
        all.into_iter().find(|breaker| want(breaker)).unwrap()["breaker"].as_str().unwrap().to_owned()
    };
    let (own, other) = (find(&|b| b["number"] == number), find(&|b| b["number"] != number && b["volts"] == 120));
    assert_eq!(post(&site.address, name, acts(&site.address, name, &format!("on {number}")).await).await.0, 200);
    let watched = async |breaker| get(&format!("{home}/practice/reading?instrument=eye&point={light}&breaker={breaker}")).await;
    assert_eq!(watched(own).await["words"], "It went out, and came back.");
    assert_eq!(watched(other).await["words"], "It stayed lit.");
    // Without a made-up house there is nothing to read, and a point has to be there.
    let demo = format!("{}/api/homes/juniper-lane/practice", site.address);
    for (address, status, says) in [
        (format!("{demo}/reading?instrument=eye&point=porch-lantern"), 404, "no made-up house"),
        (demo, 404, "no made-up house"),
        (format!("{home}/practice/reading?instrument=eye&point=nowhere"), 404, "no such point or breaker"),
        (format!("{home}/practice/reading?instrument=eye"), 422, "at which point"),
        (format!("{home}/practice/reading?instrument=luck&point={light}"), 422, "What is asked for cannot be read: "),
    ] {
        let answer = reqwest::get(&address).await.unwrap();
        assert_eq!(answer.status().as_u16(), status, "{address}");
        let problem = answer.text().await.unwrap();
        assert!(problem.contains(says), "{address}: {problem}");
    }
}

#[tokio::test]
async fn a_house_to_measure_shows_its_meters_and_hides_what_its_loads_take() {
    let site = Site::start(false).await;
    let recipe = json!({ "seed": 3, "points": 24, "level": "usual", "lesson": "measure" });
    let (status, told) = made(&site, recipe).await;
    assert_eq!((status, told["home"].as_str()), (200, Some("measure-usual-24-3")));
    let home = format!("{}/api/homes/measure-usual-24-3", site.address);
    let loads = get(&format!("{home}/loads")).await;
    let load = loads["circuits"][0]["loads"][0]["load"].as_str().unwrap().to_owned();
    let shown = get(&format!("{home}/practice/meter?with=clamp&load={load}")).await;
    assert!(shown["amps"].as_f64().is_some_and(|amps| amps > 0.0), "{shown}");
    let hidden = get(&format!("{home}/practice/survey")).await;
    assert_eq!((hidden["truth"].as_array().map(Vec::len), &hidden["fault"]), (Some(0), &Value::Null));
    assert!(get(&format!("{home}/practice/survey?reveal=true")).await["truth"].as_array().is_some_and(|truth| !truth.is_empty()));
    // The utility's meter goes on by itself: two words of it, each with kilowatts.
    let mut stream = reqwest::get(format!("{home}/practice/utility?running={load}")).await.unwrap();
    let mut said = String::new();
    while said.matches("\"kw\":").count() < 2 {
        said.push_str(&String::from_utf8_lossy(&stream.chunk().await.unwrap().unwrap()));
    }
    assert!(said.starts_with("event: shows"), "{said}");
    let status = |path: String| async move { reqwest::get(path).await.unwrap().status().as_u16() };
    assert_eq!(status(format!("{home}/practice/meter?with=clamp")).await, 422, "held nowhere");
    assert_eq!(status(format!("{home}/practice/meter?point=nowhere")).await, 404);
    // A house that is to be traced has none of it.
    let (_, traced) = made(&site, self::recipe()).await;
    let traced = format!("{}/api/homes/{}", site.address, traced["home"].as_str().unwrap());
    for path in ["meter?with=clamp&breaker=b1", "utility", "survey"] {
        assert_eq!(status(format!("{traced}/practice/{path}")).await, 404, "{path}");
    }
}
