//! The second door over real HTTP on loopback: who gets in, what a helper may ask and write, and how they are sent away.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod support;

use std::net::Ipv4Addr;
use std::time::Duration;

use futures_util::StreamExt;
use reqwest::{Client, Response};
use serde_json::{Value, json};
use support::{acts, entry, get, home_named, post};
use tokio::net::TcpListener;
use wayfinder_core::{Draft, Fact, LineStruck, Moment};
use wayfinder_server::{Desk, Setup, serve};

struct Site {
    here: String,
    _folder: tempfile::TempDir,
}

async fn site() -> Site {
    let folder = tempfile::tempdir().unwrap();
    let desk = Desk::open(folder.path()).unwrap();
    desk.set_up_demo().unwrap();
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let here = format!("http://{}", listener.local_addr().unwrap());
    let setup = Setup { demo: true, share_at: (Ipv4Addr::LOCALHOST, 0).into(), ..Setup::default() };
    tokio::spawn(serve(listener, desk, setup, std::future::pending()));
    Site { here, _folder: folder }
}

async fn send(url: String, cookie: &str, body: &Value) -> Response {
    Client::new().post(url).header("cookie", cookie).json(body).send().await.unwrap()
}

/// Shares, and gives the address of the second door with a code for the demo home.
async fn share(site: &Site) -> (String, String) {
    let open = send(format!("{}/api/sharing", site.here), "", &json!({ "passphrase": "three brass bells" })).await;
    assert_eq!(open.status(), 200);
    let now: Value =
        send(format!("{}/api/sharing/invites", site.here), "", &json!({ "home": "juniper-lane" })).await.json().await.unwrap();
    let (address, code) = (now["addresses"][0].as_str().unwrap(), now["invites"][0]["code"].as_str().unwrap());
    assert!(now["invites"][0]["qr"]["d"].as_str().unwrap().starts_with('M'));
    assert_eq!(now["invites"][0]["url"], format!("{address}/join#{}", code.replace('-', "")));
    (address.to_owned(), code.to_owned())
}

fn cookie_of(response: &Response) -> String {
    let set = response.headers()["set-cookie"].to_str().unwrap();
    assert!(set.contains("HttpOnly") && set.contains("SameSite=Strict"), "{set}");
    set.split(';').next().unwrap().to_owned()
}

async fn join(address: &str, code: &str, name: &str) -> (Response, String) {
    let joined = send(format!("{address}/api/join"), "", &json!({ "code": code, "name": name, "side": "walk" })).await;
    assert_eq!(joined.status(), 200, "{name}");
    let cookie = cookie_of(&joined);
    (joined, cookie)
}

async fn status(url: String, cookie: &str) -> u16 {
    Client::new().get(url).header("cookie", cookie).send().await.unwrap().status().as_u16()
}

#[tokio::test]
async fn the_network_reaches_nothing_until_the_owner_shares_and_then_only_with_a_code() {
    let site = site().await;
    let before = get(&format!("{}/api/sharing", site.here)).await;
    assert_eq!((&before["open"], &before["has_passphrase"], &before["addresses"]), (&json!(false), &json!(false), &json!([])));
    for (body, says) in [(json!({}), "Set a passphrase first."), (json!({ "passphrase": "short" }), "12 to 128 characters")] {
        let refused = send(format!("{}/api/sharing", site.here), "", &body).await;
        assert_eq!(refused.status(), 422);
        assert!(refused.text().await.unwrap().contains(says));
    }
    let early = send(format!("{}/api/sharing/invites", site.here), "", &json!({ "home": "juniper-lane" })).await;
    assert_eq!(early.status(), 409);
    let (address, code) = share(&site).await;
    for path in
        ["homes", "homes/juniper-lane", "homes/juniper-lane/helper", "homes/juniper-lane/stream", "sharing", "openapi.json"]
    {
        assert_eq!(status(format!("{address}/api/{path}"), "").await, 401, "{path}");
    }
    let wrong =
        send(format!("{address}/api/homes/hut/entries"), "wayfinder=made-up", &json!({ "entries": [home_named("a", "Hut")] }))
            .await;
    assert_eq!(wrong.status(), 401);
    assert_eq!(status(format!("{address}/"), "").await, 200, "the program itself is no secret");
    assert_eq!(get(&format!("{address}/api/me")).await["role"], "nobody");
    // Nobody signs with the name of whoever wrote the home's plan.
    let plan = get(&format!("{}/api/homes/juniper-lane/logbook?limit=500", site.here)).await;
    let owner =
        plan["lines"].as_array().unwrap().iter().find(|line| line["line"]["entry"]["fact"]["kind"] == "point_placed").unwrap();
    let forged = json!({ "code": code, "name": owner["line"]["entry"]["by"], "side": "walk" });
    assert_eq!(send(format!("{address}/api/join"), "", &forged).await.status(), 409);
    let (joined, cookie) = join(&address, &code, "Ada").await;
    let me: Value = joined.json().await.unwrap();
    assert_eq!((&me["role"], &me["name"], &me["home"]), (&json!("helper"), &json!("Ada"), &json!("juniper-lane")));
    assert_eq!(status(format!("{address}/api/homes/juniper-lane/helper"), &cookie).await, 200);
    for path in [
        "homes",
        "homes/juniper-lane",
        "homes/juniper-lane/logbook",
        "homes/juniper-lane/export",
        "homes/tanyard-flat/helper",
        "sharing",
    ] {
        assert_eq!(status(format!("{address}/api/{path}"), &cookie).await, 403, "{path}");
    }
    // The cookie counts for nothing at a door that is closed.
    let closed = Client::new().delete(format!("{}/api/sharing", site.here)).send().await.unwrap();
    assert_eq!(closed.status(), 200);
    let mut gone = false;
    for _ in 0..200 {
        gone = Client::new().get(format!("{address}/api/me")).send().await.is_err();
        if gone {
            break;
        }
        tokio::time::sleep(Duration::from_millis(10)).await;
    }
    assert!(gone, "nobody listens there any more");
    // The passphrase stays set.
    let again = send(format!("{}/api/sharing", site.here), "", &json!({})).await;
    assert_eq!(again.status(), 200);
}

#[tokio::test]
async fn a_helper_writes_looks_under_their_own_name_and_nothing_else() {
    let site = site().await;
    let (address, code) = share(&site).await;
    let (_, cookie) = join(&address, &code, "Ada").await;
    let now = support::now();
    let write_at = async |id: &str, by: &str, at: Moment, fact: &Fact| {
        let entry = Draft { by: by.into(), at, ..entry(id, fact.clone()) };
        let answer = send(format!("{address}/api/homes/juniper-lane/entries"), &cookie, &json!({ "entries": [entry] })).await;
        (answer.status().as_u16(), answer.json::<Value>().await.unwrap())
    };
    let write = async |id: &str, by: &str, fact: &Fact| write_at(id, by, now, fact).await;
    // What acts would write, as a helper's phone could send it.
    let fact = async |act: &str| acts(&site.here, "juniper-lane", act).await.remove(0).fact;
    let look = fact("lit porch-lantern").await;
    let (taken, told) = write("look-1", "Ada", &look).await;
    assert_eq!((taken, &told["new"]), (200, &json!(1)));
    assert_eq!(write("look-1", "Ada", &look).await.1["new"], 0, "sent again, written once");
    let first = get(&format!("{}/api/homes/juniper-lane/export", site.here)).await["lines"][0]["entry"]["id"].clone();
    let strike = |line: &Value| LineStruck { line: line.as_str().unwrap().parse().unwrap() }.into();
    for (by, fact) in [
        ("Owner", look.clone()),
        ("Ada", fact("room Attic").await),
        ("Ada", fact("must-stay-on 1").await),
        ("Ada", fact("label 1 mine").await),
        ("Ada", strike(&first)),
    ] {
        let (status, problem) = write("other", by, &fact).await;
        assert_eq!((status, problem["code"].as_str()), (403, Some("not_for_helpers")), "{fact:?}");
    }
    // Of a time when they were not here, before or after.
    for ms in [now.unix_ms() - 3_600_000, now.unix_ms() + 3_600_000, 0] {
        let (status, problem) = write_at("other", "Ada", Moment::from_unix_ms(ms), &look).await;
        assert_eq!((status, problem["code"].as_str()), (403, Some("other_time")), "{ms}");
    }
    // What the owner wrote under the helper's name is not the helper's line.
    let forged = Draft { by: "Ada".into(), ..entry("forged", look.clone()) };
    assert_eq!(post(&site.here, "juniper-lane", vec![forged]).await.0, 200);
    let (status, problem) = write("other", "Ada", &strike(&json!("forged"))).await;
    assert_eq!((status, problem["code"].as_str()), (403, Some("not_for_helpers")), "a name is no proof");
    assert_eq!(write("undo", "Ada", &strike(&json!("look-1"))).await.0, 200, "their own line");
    assert_eq!(write("undo", "Ada", &strike(&json!("look-1"))).await.1["new"], 0, "sent again");
    // A page of another site cannot write in their name.
    let answer = Client::new()
        .post(format!("{address}/api/homes/juniper-lane/entries"))
        .header("cookie", &cookie)
        .header("origin", "http://elsewhere.example")
        .json(&json!({ "entries": [] }))
        .send()
        .await
        .unwrap();
    assert_eq!(answer.status(), 403);
}

#[tokio::test]
async fn a_name_that_looks_like_anothers_is_refused_and_one_that_comes_again_is_not() {
    let site = site().await;
    let (address, code) = share(&site).await;
    let (_, ada) = join(&address, &code, "Ada").await;
    let invited: Value =
        send(format!("{}/api/sharing/invites", site.here), "", &json!({ "home": "juniper-lane" })).await.json().await.unwrap();
    let code = invited["invites"][0]["code"].as_str().unwrap();
    let owner = get(&format!("{}/api/homes/juniper-lane/export", site.here)).await["lines"][0]["entry"]["by"].clone();
    let owner = owner.as_str().unwrap();
    for (name, status) in [
        ("A\u{200b}da", 422),
        ("\u{202e}adA", 422),
        ("Аda", 422),
        ("", 422),
        ("ada", 409),
        ("Ada", 409),
        ("0wner", 409),
        (owner, 409),
        (&owner.to_uppercase(), 409),
    ] {
        let answer = send(format!("{address}/api/join"), "", &json!({ "code": code, "name": name, "side": "walk" })).await;
        assert_eq!(answer.status(), status, "{name:?}");
        let told: Value = answer.json().await.unwrap();
        assert!(told["title"].as_str().is_some_and(|title| title.ends_with('.')), "{told}");
    }
    // Ada goes, and comes in again by another code: the line of last time is not hers any more.
    let look = acts(&site.here, "juniper-lane", "lit porch-lantern").await.remove(0).fact;
    let now = support::now();
    let draft = |id: &str, fact: Fact| Draft { by: "Ada".into(), at: now, ..entry(id, fact) };
    let write = async |cookie: &str, entries: Vec<Draft>| {
        send(format!("{address}/api/homes/juniper-lane/entries"), cookie, &json!({ "entries": entries })).await.status().as_u16()
    };
    let look = draft("look-1", look);
    assert_eq!(write(&ada, vec![look.clone()]).await, 200);
    assert_eq!(send(format!("{address}/api/leave"), &ada, &json!({})).await.status(), 204);
    let (_, again) = join(&address, code, "Ada").await;
    assert_eq!(write(&again, vec![look.clone()]).await, 200, "sent again it is harmless");
    let strike = draft("undo", LineStruck { line: "look-1".parse().unwrap() }.into());
    assert_eq!(write(&again, vec![strike.clone()]).await, 403);
    assert_eq!(write(&again, vec![look, strike]).await, 403, "nor sent together with it");
}

#[tokio::test]
async fn a_new_passphrase_sends_away_whoever_came_in_by_the_old_one() {
    let site = site().await;
    let (address, code) = share(&site).await;
    let (_, ada) = join(&address, &code, "Ada").await;
    let inside = send(format!("{address}/api/sign-in"), "", &json!({ "passphrase": "three brass bells" })).await;
    let owner = cookie_of(&inside);
    assert_eq!(status(format!("{address}/api/homes"), &owner).await, 200);
    let new = send(format!("{}/api/sharing", site.here), "", &json!({ "passphrase": "four brass bells" })).await;
    assert_eq!(new.status(), 200);
    assert_eq!(status(format!("{address}/api/homes"), &owner).await, 401);
    assert_eq!(status(format!("{address}/api/homes/juniper-lane/helper"), &ada).await, 200, "a helper came in by a code");
    let old = send(format!("{address}/api/sign-in"), "", &json!({ "passphrase": "three brass bells" })).await;
    assert_eq!(old.status(), 403);
}

#[tokio::test]
async fn two_helpers_who_walk_are_sent_to_two_rooms_and_the_owner_sees_who_is_where() {
    let site = site().await;
    let (address, code) = share(&site).await;
    let trace = format!("{}/api/homes/juniper-lane/trace", site.here);
    let off = acts(&site.here, "juniper-lane", "off 19").await;
    assert_eq!(post(&site.here, "juniper-lane", off).await.0, 200);
    let (_, ada) = join(&address, &code, "Ada").await;
    let invited: Value =
        send(format!("{}/api/sharing/invites", site.here), "", &json!({ "home": "juniper-lane" })).await.json().await.unwrap();
    let (_, ben) = join(&address, invited["invites"][0]["code"].as_str().unwrap(), "Ben").await;
    let mut rooms = Vec::new();
    for cookie in [&ada, &ben] {
        let asked = Client::new().get(format!("{address}/api/homes/juniper-lane/helper")).header("cookie", cookie).send().await;
        let view: Value = asked.unwrap().json().await.unwrap();
        assert_eq!(view["card"]["title"], "Lit or dark?", "{view}");
        rooms.push(view["rooms"][0]["room"].clone());
    }
    assert_ne!(rooms[0], rooms[1]);
    let owner = get(&trace).await;
    for (room, name) in rooms.iter().zip(["Ada", "Ben"]) {
        let listed = owner["next"]["rooms"].as_array().unwrap().iter().find(|r| r["room"] == *room).unwrap();
        assert_eq!(listed["who"], json!([name]));
    }
}

#[tokio::test]
async fn whoever_is_sent_away_hears_nothing_more_and_the_owner_comes_in_by_passphrase() {
    let site = site().await;
    let (address, code) = share(&site).await;
    let (_, cookie) = join(&address, &code, "Ada").await;
    let stream =
        Client::new().get(format!("{address}/api/homes/juniper-lane/stream")).header("cookie", &cookie).send().await.unwrap();
    let mut stream = stream.bytes_stream();
    assert!(tokio::time::timeout(Duration::from_secs(5), stream.next()).await.unwrap().is_some(), "where the logbook is");
    let people = get(&format!("{}/api/sharing", site.here)).await["people"].clone();
    assert_eq!((people[0]["name"].as_str(), people[0]["side"].as_str()), (Some("Ada"), Some("walk")));
    let id = people[0]["id"].as_str().unwrap();
    let gone = Client::new().delete(format!("{}/api/sharing/people/{id}", site.here)).send().await.unwrap();
    assert_eq!(gone.status(), 200);
    while let Some(Ok(_)) = tokio::time::timeout(Duration::from_secs(5), stream.next()).await.expect("the stream ends") {}
    assert_eq!(status(format!("{address}/api/homes/juniper-lane/helper"), &cookie).await, 401);
    let sign_in = async |passphrase: &str| send(format!("{address}/api/sign-in"), "", &json!({ "passphrase": passphrase })).await;
    assert_eq!(sign_in("three brass balls").await.status(), 403);
    let inside = sign_in("three brass bells").await;
    assert_eq!(inside.status(), 200);
    let owner = cookie_of(&inside);
    assert_eq!(status(format!("{address}/api/homes/juniper-lane/logbook"), &owner).await, 200);
    let left = send(format!("{address}/api/leave"), &owner, &json!({})).await;
    let refused = send(format!("{address}/api/homes/juniper-lane/copy"), &owner, &json!({})).await;
    // Either way their browser forgets what it has kept.
    for (answer, status) in [(left, 204), (refused, 401)] {
        assert_eq!((answer.status().as_u16(), answer.headers()["clear-site-data"].to_str().unwrap()), (status, "\"cache\""));
    }
    assert_eq!(status(format!("{address}/api/homes/juniper-lane/logbook"), &owner).await, 401);
    for _ in 0..5 {
        assert_eq!(sign_in("a guess of mine").await.status(), 403);
    }
    let slowed = sign_in("three brass bells").await;
    assert_eq!(slowed.status(), 429);
    assert!(slowed.headers()["retry-after"].to_str().unwrap().parse::<u64>().unwrap() > 20);
}
