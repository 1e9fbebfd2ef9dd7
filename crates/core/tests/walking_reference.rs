//! Walking distances of 200 made-up houses against shapely and networkx (`reference/walks.py`), which know only
//! corners, doors and stairs.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::io::Write;
use std::path::Path;
use std::process::{Command, Stdio};

use proptest::prelude::*;
use proptest::strategy::ValueTree;
use proptest::test_runner::{Config, RngAlgorithm, TestRng, TestRunner};
use serde_json::{Value, json};
use wayfinder_core::*;
use wayfinder_fixture::written;

/// A house: floors of rooms in a grid of columns and rows, some L-shaped, doors along a tree and some more.
#[derive(Debug, Clone)]
struct House {
    columns: Vec<i32>,
    rows: Vec<i32>,
    floors: usize,
    /// For each cell, whether a corner is cut off and by how much.
    cuts: Vec<Option<(u8, i32, i32)>>,
    /// For each wall between neighbors, how far along its door is and whether it has one beyond the tree.
    doors: Vec<(f64, bool)>,
}

fn house() -> impl Strategy<Value = House> {
    let sizes = |n| prop::collection::vec((24..80_i32).prop_map(|v| v * 100), n);
    let cut = prop::option::weighted(0.4, (0..4_u8, 3..9_i32, 3..9_i32));
    (sizes(2..5), sizes(1..4), 1..3_usize).prop_flat_map(move |(columns, rows, floors)| {
        let cells = columns.len() * rows.len() * floors;
        let door = (0.1..0.9_f64, prop::bool::weighted(0.3));
        (prop::collection::vec(cut.clone(), cells), prop::collection::vec(door, cells * 2)).prop_map(move |(cuts, doors)| House {
            columns: columns.clone(),
            rows: rows.clone(),
            floors,
            cuts,
            doors,
        })
    })
}

/// Builds the house through the logbook, and says it anew for the reference.
fn build(house: &House) -> (Study, Value) {
    let mut written = written("");
    let (across, down) = (house.columns.len(), house.rows.len());
    let name = |floor: usize, row: usize, column: usize| format!("r{floor}-{row}-{column}");
    let edges = |sizes: &[i32], k: usize| sizes[..k].iter().sum::<i32>();
    let mut cell = 0;
    for floor in 0..house.floors {
        for row in 0..down {
            for column in 0..across {
                let (x, y) = (edges(&house.columns, column), edges(&house.rows, row));
                let (w, h) = (house.columns[column], house.rows[row]);
                // Cut corners stay clear of the middle third of each wall, where doors are.
                let corners = match house.cuts[cell] {
                    None => vec![(0, 0), (w, 0), (w, h), (0, h)],
                    Some((corner, a, b)) => {
                        let (a, b) = (w * a / 30, h * b / 30);
                        match corner {
                            0 => vec![(a, 0), (w, 0), (w, h), (0, h), (0, b), (a, b)],
                            1 => vec![(0, 0), (w - a, 0), (w - a, b), (w, b), (w, h), (0, h)],
                            2 => vec![(0, 0), (w, 0), (w, h - b), (w - a, h - b), (w - a, h), (0, h)],
                            _ => vec![(0, 0), (w, 0), (w, h), (a, h), (a, h - b), (0, h - b)],
                        }
                    }
                };
                cell += 1;
                let corners: Vec<String> = corners.iter().map(|(cx, cy)| format!("{} {}", x + cx, y + cy)).collect();
                let id = name(floor, row, column);
                written.acts(&format!("room {id} on floor {floor}\noutline {id} {}", corners.join(", ")));
            }
        }
        written.acts(&format!("floor floor {floor} {floor}"));
    }
    // Doors: a tree first (each room on the one left of it, or above), then some more.
    let mut doors = house.doors.iter();
    let mut said = Vec::new();
    for floor in 0..house.floors {
        for row in 0..down {
            for column in 0..across {
                for (beside, needed) in [(column > 0, true), (row > 0, column == 0)] {
                    let (along, more) = *doors.next().unwrap();
                    if !beside || !(needed || more) {
                        continue;
                    }
                    let vertical = needed && column > 0;
                    let other = if vertical { name(floor, row, column - 1) } else { name(floor, row - 1, column) };
                    let (x, y) = (edges(&house.columns, column), edges(&house.rows, row));
                    let (w, h) = (house.columns[column], house.rows[row]);
                    // Within the middle 40 % of the wall, which no cut corner reaches.
                    let on = |long: i32| (f64::from(long) * (0.3 + 0.4 * along)).round() as i32;
                    let place = if vertical { (x, y + on(h)) } else { (x + on(w), y) };
                    let id = name(floor, row, column);
                    let outline = &written.book.home().plan().outlines[&id.parse().unwrap()];
                    let walls: Vec<_> = outline.walls().collect();
                    let between = |a: i32, b: i32, v: i32| (a.min(b)..=a.max(b)).contains(&v);
                    let found = walls.iter().enumerate().find_map(|(k, (a, b))| {
                        let here = between(a.x, b.x, place.0) && between(a.y, b.y, place.1);
                        here.then(|| (k, (place.0 - a.x).abs() + (place.1 - a.y).abs()))
                    });
                    let (wall, from) = found.unwrap();
                    written.acts(&format!("opening d{} {id} {wall} {} 300", said.len(), from - 150));
                    said.push(json!([id, other, [place.0, place.1]]));
                }
            }
        }
    }
    let mut stairs = Vec::new();
    for floor in 1..house.floors {
        let (lower, upper) = (name(floor - 1, 0, 0), name(floor, 0, across - 1));
        let at = |room: &str| {
            let outline = &written.book.home().plan().outlines[&room.parse().unwrap()];
            let box_ = Bounds::around(outline.corners().iter().copied()).unwrap();
            (box_, [box_.x + box_.width / 2, box_.y + box_.height / 2])
        };
        let ((a, from), (b, to)) = (at(&lower), at(&upper));
        let flight = format!("{lower} {} {} {upper} {} {}", a.width / 2, a.height / 2, b.width / 2, b.height / 2);
        written.acts(&format!("flight s{floor} {flight}"));
        // A flight counts as what one walks in 6 s at 1.2 m/s.
        stairs.push(json!([lower, from, upper, to, 7200.0]));
    }
    let home = written.home;
    let drawn = plan(&home);
    let rooms: Vec<Value> = drawn
        .floors
        .iter()
        .flat_map(|floor| &floor.rooms)
        .map(|room| {
            let corners: Vec<_> = room.outline.corners().iter().map(|c| [c.x, c.y]).collect();
            let middle = room.outline.middle();
            json!({ "name": room.room, "corners": corners, "middle": [middle.x, middle.y] })
        })
        .collect();
    let ways = walking(&home);
    let mut told = Vec::new();
    for (a, from) in ways.rooms.iter().enumerate() {
        for (b, to) in ways.rooms.iter().enumerate().skip(a + 1) {
            assert!(ways.between[a][b].drawn, "{from} to {to}");
            assert!((ways.between[a][b].millimeters - ways.between[b][a].millimeters).abs() < 1e-6);
            assert!((ways.between[a][b].seconds - ways.between[a][b].millimeters / 1200.0).abs() < 1e-9);
            told.push(json!([from, to, ways.between[a][b].millimeters]));
        }
    }
    let telling = json!({ "rooms": rooms, "doors": said, "stairs": stairs, "ways": told });
    (home, telling)
}

#[test]
fn shortest_ways_of_200_houses_equal_those_of_networkx_and_shapely() {
    let packages = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../target/python");
    assert!(packages.join("networkx").is_dir(), "networkx is missing; `cargo xtask test` fetches it into target/python");
    let rng = TestRng::from_seed(RngAlgorithm::ChaCha, &[7; 32]);
    let mut runner = TestRunner::new_with_rng(Config::default(), rng);
    let mut child = Command::new("python3")
        .env("PYTHONPATH", packages)
        .arg(Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/reference/walks.py"))
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let mut lines = String::new();
    for _ in 0..200 {
        let house = house().new_tree(&mut runner).unwrap().current();
        lines += &build(&house).1.to_string();
        lines.push('\n');
    }
    child.stdin.take().unwrap().write_all(lines.as_bytes()).unwrap();
    let out = child.wait_with_output().unwrap();
    assert!(out.status.success());
    let found: Value = serde_json::from_slice(&out.stdout).unwrap();
    assert!(found["pairs"].as_u64().unwrap() > 5_000, "{found}");
    // Half a millimeter for places rounded to whole ones.
    assert!(found["worst_mm"].as_f64().unwrap() < 3.0, "{found}");
}
