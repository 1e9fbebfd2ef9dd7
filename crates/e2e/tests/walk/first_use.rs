//! A first use from nothing, with every tap and key counted: the panel, a card of 20 lines, 8 rooms, 45 points, the whole trace by
//! a pair with a phone, the card, the home's file. The counts stand in docs/performance.md.

use std::collections::{BTreeMap, BTreeSet};

use anyhow::{Context, Result, bail, ensure};
use serde_json::Value;
use wayfinder_core::search::Costs;
use wayfinder_e2e::screens::*;
use wayfinder_e2e::{Chrome, Page, Site, View};

/// The card on the door, as it is typed. Invented.
const CARD: &str = "1 20 kitchen counter\n2 20 dining\n3 20 kitchen fridge\n4 15 bedroom 1\n5-7 50/2 range\n6 15 bedroom 2\n\
                    8 20 bath\n9-11 30/2 dryer\n10 15 study\n12 15 lights up\n13 20 washer\n14 15 lights down\n15 20 dishwasher\n\
                    16 15 alarms\n17-19 30/2 water heater\n18 20 garage\n20 15 furnace\n21 15 living\n22 15\n23 20 outside";

/// A kind of point, and what there is of it in a room.
type OfAKind = (&'static str, &'static [&'static str]);

/// Rooms, what is in them by kind, and the breaker that feeds each: the last word of a point. Invented.
const ROOMS: [(&str, &[OfAKind]); 8] = [
    (
        "Kitchen",
        &[
            ("Receptacle", &["left of sink 1", "right of sink 1", "island 1", "table 2"]),
            ("Light", &["ceiling 14", "over sink 14"]),
            ("Appliance", &["refrigerator 3", "dishwasher 15"]),
            ("240 V appliance", &["range 5-7"]),
        ],
    ),
    ("Dining room", &[("Receptacle", &["north wall 2", "south wall 2", "by the door 21"]), ("Light", &["table lamp 14"])]),
    (
        "Living room",
        &[("Receptacle", &["sofa 21", "window 21", "television 21", "corner 22"]), ("Light", &["ceiling 14", "stairs 12"])],
    ),
    (
        "Bedroom one",
        &[("Receptacle", &["bed left 4", "bed right 4", "desk 4"]), ("Light", &["ceiling 12"]), ("Alarm", &["smoke alarm 16"])],
    ),
    (
        "Bedroom two",
        &[("Receptacle", &["bed 6", "window 6", "closet 4"]), ("Light", &["ceiling 12"]), ("Alarm", &["smoke alarm 16"])],
    ),
    ("Bath", &[("Receptacle", &["basin 8"]), ("Light", &["mirror 12", "shower 12"]), ("Fan", &["exhaust 12"])]),
    ("Study", &[("Receptacle", &["desk 10", "shelf 10", "window 10", "printer 22"]), ("Light", &["ceiling 14", "reading 10"])]),
    (
        "Utility room",
        &[
            ("Receptacle", &["bench 18", "washer 13", "freezer 18"]),
            ("Light", &["ceiling 14"]),
            ("Appliance", &["furnace 20"]),
            ("240 V appliance", &["dryer 9-11"]),
        ],
    ),
];

/// More taps than this in the trace are a step back: 311 were counted before, 272 to 300 now. The clock of the logbook decides some
/// looks, so the count is not the same each time. A third fewer is the goal, and not met.
const MOST_TAPS: u64 = 340;

/// Counts what a person does: taps that hit something, and keys.
const COUNTER: &str = "
    for (const [kind, key] of [['click', 'taps'], ['keydown', 'keys']])
      addEventListener(kind, (event) => {
        if (!event.isTrusted || event.key === 'Control' || event.key === 'Shift') return;
        // What a press of Enter or a label passes on is no tap of its own.
        if (kind === 'click' && event.detail === 0) return;
        sessionStorage.setItem(key, Number(sessionStorage.getItem(key) ?? 0) + 1);
      }, true);";

/// Taps and keys since the last count.
pub(crate) struct Counter<'a> {
    page: &'a Page,
    before: (u64, u64),
}

impl<'a> Counter<'a> {
    pub(crate) async fn on(page: &'a Page) -> Result<Self> {
        page.on_every_page(COUNTER).await?;
        Ok(Self { page, before: (0, 0) })
    }

    pub(crate) async fn since(&mut self) -> Result<(u64, u64)> {
        let count = "return ['taps', 'keys'].map((name) => Number(sessionStorage.getItem(name) ?? 0))";
        let now: (u64, u64) = self.page.driver.execute(count, vec![]).await?.convert()?;
        let since = (now.0 - self.before.0, now.1 - self.before.1);
        self.before = now;
        Ok(since)
    }
}

pub(crate) async fn a_first_use_is_counted(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let mut site = Site::empty().await?;
    let mut counter = Counter::on(page).await?;
    let home = Homes(page).start(&site.address, "Alder Row").await?;
    let panel = Panel(page);
    panel.describe(24).await?;
    panel.type_card(CARD, "Save 20 breakers").await?;
    panel.shows("Breaker 17-19,").await?;
    let entered = counter.since().await?;

    page.goto(&format!("{home}/house/list")).await?;
    let house = House(page);
    let mut fed = BTreeMap::new();
    for (room, kinds) in ROOMS {
        house.add_room(room).await?;
        for (kind, points) in kinds {
            let names: Vec<&str> = points.iter().filter_map(|point| point.rsplit_once(' ')).map(|(name, _)| name).collect();
            house.add_points(kind, &names).await?;
            fed.extend(points.iter().filter_map(|p| p.rsplit_once(' ')).map(|(name, on)| ((room, name.to_owned()), on)));
        }
    }
    ensure!(fed.len() == 45, "{} points", fed.len());
    let listed = counter.since().await?;

    page.goto(&format!("{home}/trace")).await?;
    Trace(page).begin_quickest().await?;
    let ask = async || -> Result<Value> {
        let address = home.replace("/h/", "/api/homes/");
        Ok(reqwest::get(format!("{address}/trace")).await?.error_for_status()?.json().await?)
    };
    let numbers = breakers(&home).await?;
    let mut view = ask().await?;
    let mut acts = 0;
    while view["next"]["step"] != "done" {
        acts += 1;
        ensure!(acts < 400, "the trace does not end: {}", view["next"]);
        answer(page, &view, &fed, &numbers).await.with_context(|| format!("at {}", view["next"]["step"]))?;
        let seq = view["seq"].as_u64();
        page.wait_until("the act is written", async || {
            view = ask().await?;
            Ok(view["seq"].as_u64() > seq)
        })
        .await?;
        // The rest of a room is written by what each is looked at with, one after the other.
        page.all_is_sent().await?;
        view = ask().await?;
        Trace(page).wait_followed(view["seq"].as_u64().unwrap_or(0)).await?;
    }
    let proven = &view["progress"]["proven"];
    ensure!(*proven == 45, "{proven} of 45 proven: {}", view["next"]);
    let traced = counter.since().await?;

    page.goto(&format!("{home}/directory")).await?;
    let directory = Directory(page);
    directory.line_says("5-7", "proven", "Kitchen: range").await?;
    let card = directory.pdf().await?;
    let card = reqwest::get(format!("{}{card}", site.address)).await?.error_for_status()?.bytes().await?;
    ensure!(card.starts_with(b"%PDF"), "no card");
    page.can_be_used_by_everybody().await?;

    let took = minutes(&home).await?;
    println!(
        "first use, taps + keys: panel and card {} + {}, rooms and points {} + {}, trace {} + {}; {took:.0} minutes of switching and \
         looking by the reference costs, ways not counted",
        entered.0, entered.1, listed.0, listed.1, traced.0, traced.1
    );
    ensure!(traced.0 <= MOST_TAPS, "{} taps in the trace", traced.0);
    ensure!(traced.1 == 0, "{} keys in the trace", traced.1);
    site.stop().await
}

/// The number of each breaker by its id.
async fn breakers(home: &str) -> Result<BTreeMap<String, String>> {
    let address = home.replace("/h/", "/api/homes/");
    let all: Value = reqwest::get(format!("{address}/panels")).await?.error_for_status()?.json().await?;
    let mut numbers = BTreeMap::new();
    let panels = all.as_array().or_else(|| all["panels"].as_array()).into_iter().flatten();
    for place in panels.flat_map(|panel| panel["breakers"].as_array().into_iter().flatten()) {
        if let (Some(id), Some(tag)) = (place["breaker"].as_str(), place["tag"].as_str()) {
            numbers.insert(id.to_owned(), tag.to_owned());
        }
    }
    ensure!(!numbers.is_empty(), "no breakers");
    Ok(numbers)
}

/// Does what the screen asks, with as few taps as somebody would who has read it.
async fn answer(
    page: &Page,
    view: &Value,
    fed: &BTreeMap<(&str, String), &str>,
    numbers: &BTreeMap<String, String>,
) -> Result<()> {
    let off: BTreeSet<&str> =
        view["off"].as_array().into_iter().flatten().filter_map(|b| numbers.get(b.as_str()?)).map(String::as_str).collect();
    let is_dark = |room: &str, point: &str, off: &BTreeSet<&str>| -> bool {
        fed.iter().any(|((r, p), on)| *r == room && p == point && off.contains(on))
    };
    if let Some(rooms) = view["next"]["rooms"].as_array() {
        for room in rooms {
            let name = room["name"].as_str().unwrap_or_default();
            let points = room["points"].as_array().into_iter().flatten();
            let left: Vec<(&str, bool)> = points
                .filter(|p| p["seen"].is_null() && p["skipped"] != true)
                .filter_map(|p| p["name"].as_str())
                .map(|point| (point, is_dark(name, point, &off)))
                .collect();
            let Some((first, dark)) = left.first() else { continue };
            let said = if *dark { "dark" } else { "lit" };
            let rest = &view["walk"]["looking"][format!("rest_{said}")];
            if left.len() > 1 && left.iter().all(|(_, other)| other == dark) && *rest == true {
                return page.press(&format!("Rest {said} in {name}")).await;
            }
            Trace(page).wait_current(first).await?;
            return page.press(&said.to_uppercase()).await;
        }
    }
    match view["next"]["step"].as_str().unwrap_or_default() {
        "watch" => {
            let (at, number) =
                (view["next"]["place"].as_str().unwrap_or_default(), view["next"]["breaker"].as_str().unwrap_or_default());
            let (room, point) = at.split_once(", ").context("a place")?;
            let with = off.iter().copied().chain(numbers.get(number).map(String::as_str)).collect();
            let words = match (is_dark(room, point, &off), is_dark(room, point, &with)) {
                (true, _) => "It is dark already",
                (_, true) => "It went out, and came back",
                _ => "It stayed lit",
            };
            page.press(words).await
        }
        "switch_off" | "switch_on" | "switch_to" | "cycle" => {
            let main = view["panel"]["main"]["words"].as_str().context("a button")?;
            page.press(main).await
        }
        other => bail!("the trace asks to {other}"),
    }
}

/// Minutes of switching and looking, by the reference costs; ways are not counted, as nothing is drawn.
async fn minutes(home: &str) -> Result<f64> {
    let address = home.replace("/h/", "/api/homes/");
    let book: Value = reqwest::get(format!("{address}/export")).await?.error_for_status()?.json().await?;
    let costs = Costs::default();
    let mut seconds = 0.0;
    let mut switching = false;
    for line in book["lines"].as_array().context("lines")? {
        let entry = &line["entry"];
        let moves = entry["fact"]["kind"] == "breaker_switched";
        seconds += match entry["fact"]["kind"].as_str() {
            Some("breaker_switched") => costs.flip_s + if switching { 0.0 } else { costs.exchange_s },
            Some("point_seen") if entry["instrument"] == "plug_in_tester" => costs.plug_s,
            Some("point_seen") => costs.glance_s,
            Some("change_watched") => 2.0 * (costs.flip_s + costs.exchange_s) + costs.plug_s,
            _ => 0.0,
        };
        switching = moves;
    }
    Ok(seconds / 60.0)
}
