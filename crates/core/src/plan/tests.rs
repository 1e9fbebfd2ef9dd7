//! The plan as it follows from what was typed and tapped.

use super::*;
use crate::fixture::{Written, written};
use crate::logbook::Fact;
use crate::model::*;
use crate::study::Study;
use crate::walking::{cable_run, walking};

fn id<T: std::str::FromStr>(text: &str) -> T
where
    T::Err: std::fmt::Debug,
{
    text.parse().unwrap()
}

/// Kitchen 4 x 3 with a pantry 2 x 3 at its right and a hall 6 x 1.5 below both; a loft over the kitchen.
fn house() -> Written {
    written(
        "panel 24\n1 20 kitchen\n3 15 rec\ndraw Kitchen 4 x 3\ndraw Pantry 2 x 3 right of Kitchen\ndraw Hall 6 x 1.5 below Kitchen
         draw loft: Loft 4 x 3\ndoor Kitchen Pantry\ndoor Kitchen Hall\nstairs Hall Loft
         point Kitchen receptacle counter\npoint Kitchen light ceiling\npoint Pantry light bulb\npoint Hall receptacle low
         stand counter 1000 100\nstand ceiling 2000 1500",
    )
}

fn the_floor<'a>(plan: &'a Plan, name: &str) -> &'a PlanFloor {
    plan.floors.iter().find(|floor| floor.name == name).unwrap()
}

#[test]
fn rooms_go_beside_one_another_and_walls_between_them_are_drawn_once() {
    let w = house();
    let plan = plan(&w.home);
    let floor = the_floor(plan, "house");
    let corner = |name: &str| floor.rooms.iter().find(|r| r.name == name).unwrap().outline.corners()[0];
    assert_eq!([corner("Kitchen"), corner("Pantry"), corner("Hall")], [Spot::at(0, 0), Spot::at(4000, 0), Spot::at(0, 3000)]);
    assert_eq!(floor.bounds, Some(Bounds { x: 0, y: 0, width: 6000, height: 4500 }));
    let total: f64 = floor.walls.iter().map(|s| s.from.to(s.to)).sum();
    // Around 21 m, 3 m between kitchen and pantry, 6 m above the hall, less two doors of 0.8 m.
    assert!((total - (21_000.0 + 3_000.0 + 6_000.0 - 1_600.0)).abs() < 2.0, "{total}");
    let kitchen = &floor.rooms[0];
    assert_eq!(kitchen.size, "4.0 × 3.0 m");
    let names: Vec<_> = kitchen.neighbors.iter().map(|n| (n.room.as_str(), n.way)).collect();
    assert_eq!(names, [("pantry", true), ("hall", true)]);
    assert_eq!(plan.floors.iter().map(|f| (f.name.as_str(), f.level)).collect::<Vec<_>>(), [("house", 0), ("loft", 1)]);
}

#[test]
fn points_lean_on_their_wall_and_no_symbol_is_without_a_tag() {
    let w = house();
    let plan = plan(&w.home);
    let floor = the_floor(plan, "house");
    let counter = floor.points.iter().find(|p| p.point.as_str() == "counter").unwrap();
    assert_eq!((counter.at, counter.turn, counter.symbol), (Spot::at(1000, 0), 0, Symbol::DuplexReceptacle));
    assert!(counter.middle.y > 0, "it is drawn into the room");
    assert_eq!((counter.tag.text.as_str(), counter.tag.kind), ("1 or 3?", TagKind::Open));
    assert_eq!(counter.spoken, "Kitchen, counter, receptacle, not proven, 1 or 3?");
    let ceiling = floor.points.iter().find(|p| p.point.as_str() == "ceiling").unwrap();
    assert_eq!((ceiling.at, ceiling.symbol), (Spot::at(2000, 1500), Symbol::Light));
    assert_eq!(plan.not_placed.iter().map(|p| p.as_str()).collect::<Vec<_>>(), ["bulb", "low"]);
    assert_eq!(plan.without_number.len(), 4);
}

#[test]
fn a_moved_room_takes_its_points_doors_and_panel_along() {
    let mut w = house();
    w.act(r#"fact {"kind":"panel_stands","panel":"main","room":"kitchen","at":{"x":3900,"y":1500}}"#).unwrap();
    let before = plan(&w.home).clone();
    let moved = propose(&w.home, &Wish::MoveRoom { room: id("kitchen"), to: Spot::at(-10_010, 20) }).unwrap();
    let Fact::RoomDrawn(drawn) = &moved.facts[0] else { panic!("{moved:?}") };
    assert_eq!(drawn.corners[0], Spot::at(-10_000, 0), "onto the grid, and level with the other rooms");
    w.act(&format!("fact {}", serde_json::to_string(&moved.facts[0]).unwrap())).unwrap();
    let after = plan(&w.home);
    let at = |plan: &Plan| {
        let floor = the_floor(plan, "house");
        (floor.points[0].at.x, floor.openings.len(), floor.panels[0].at.x)
    };
    assert_eq!(at(&before), (1000, 2, 4000));
    assert_eq!(at(after), (-9000, 2, -6000));
    assert_eq!(the_floor(after, "house").openings[0].to, None, "its door leads nowhere now");
}

#[test]
fn rooms_that_overlap_and_doors_that_no_longer_fit_are_kept_and_explained() {
    let mut w = house();
    w.act(r#"fact {"kind":"room_drawn","room":"pantry","corners":[{"x":3500,"y":0},{"x":5500,"y":0},{"x":5500,"y":3000},{"x":3500,"y":3000}]}"#)
        .unwrap();
    let notes = plan(&w.home).notes.clone();
    assert_eq!(notes.len(), 1, "{notes:?}");
    assert!(notes[0].words.starts_with("Kitchen and Pantry overlap by 1.50 m². Both are kept"), "{notes:?}");
    w.act(r#"fact {"kind":"room_drawn","room":"kitchen","corners":[{"x":0,"y":0},{"x":900,"y":0},{"x":900,"y":700},{"x":0,"y":700}]}"#)
        .unwrap();
    let notes = plan(&w.home).notes.clone();
    assert!(notes.iter().any(|n| n.words.starts_with("A door of Kitchen no longer fits its wall")), "{notes:?}");
}

#[test]
fn a_list_of_rooms_is_read_line_by_line_with_what_is_wrong_where() {
    let w = house();
    let text = "Bath 2.4 x 1.8 right of Pantry\nStudy 4,2x-1\nLoft 5 x 3\nNook 2x2 left of Nowhere\ncellar:\nWorkshop 5 x 4 less 1 x 1\n3 x 3\nPorch";
    let ids: Vec<RoomId> = (0..9).map(|n| id(&format!("new-{n}"))).collect();
    let wish = Wish::TypeRooms { text: text.into(), floor: "house".into(), beside: None, side: None, ids };
    let lines = propose(&w.home, &wish).unwrap().lines;
    let said: Vec<_> = lines.iter().map(|l| l.said.as_deref().unwrap_or("-")).collect();
    assert_eq!(
        said,
        ["Bath, 2.4 m × 1.8 m", "-", "Loft, 5.0 m × 3.0 m", "-", "Floor cellar", "Workshop, 5.0 m × 4.0 m", "-", "Porch"]
    );
    let wrong: Vec<_> = lines.iter().filter_map(|l| l.misread.as_ref()).map(|m| (m.part.as_str(), m.wrong.as_str())).collect();
    assert_eq!(wrong[0], ("-1", "“-1” is below zero."));
    assert_eq!(wrong[1].0, "Nowhere");
    assert!(wrong[2].1.contains("name of the room is missing"));
    let Fact::RoomDrawn(bath) = &lines[0].facts[1] else { panic!("{lines:?}") };
    assert_eq!(bath.corners[0], Spot::at(6000, 0));
    let Fact::RoomDrawn(loft) = &lines[2].facts[0] else { panic!("{lines:?}") };
    assert_eq!((loft.corners.len(), loft.corners[0]), (4, Spot::at(0, 0)), "measured again, it stays where it is");
}

#[test]
fn a_room_keeps_the_number_that_belongs_to_its_name() {
    for (text, name, size) in [
        ("Bedroom 1 12'6\" x 11'", "Bedroom 1", (3810, 3353)),
        ("Bedroom 1 4.2 x 3.6", "Bedroom 1", (4200, 3600)),
        ("Room 99 13 x 12 ft", "Room 99", (3962, 3658)),
        ("Unit 2 12 feet by 11 feet", "Unit 2", (3658, 3353)),
        ("Den 12 by 11 ft", "Den", (3658, 3353)),
        ("Bath 2.2 x 2.4", "Bath", (2200, 2400)),
    ] {
        let mut w = written("");
        w.act(&format!("draw house: {text}")).unwrap_or_else(|refusal| panic!("{text}: {refusal}"));
        let drawn = plan(&w.home).floors.iter().flat_map(|floor| &floor.rooms).next().unwrap().clone();
        let bounds = drawn.outline.bounds();
        assert_eq!((drawn.name.as_str(), (bounds.width, bounds.height)), (name, size), "{text}");
    }
    let home = written("").home;
    let wish = Wish::TypeRooms {
        text: "Bedroom 1 12 ft x 3.6".into(),
        floor: "house".into(),
        beside: None,
        side: None,
        ids: vec![id("bedroom")],
    };
    let misread = propose(&home, &wish).unwrap().lines[0].misread.clone().unwrap();
    assert!(misread.wrong.contains("“12 ft” says its unit and “3.6” does not"), "{misread:?}");
}

#[test]
fn a_tap_makes_a_point_with_a_name_of_its_own() {
    let mut w = house();
    let mut tap = |n: u8, x, y, kind| {
        let wish = Wish::TapPoint {
            point: id(&format!("tap-{n}")),
            floor: "house".into(),
            at: Spot::at(x, y),
            point_kind: kind,
            volts: Volts::new(120),
            details: crate::model::PointDetails::default(),
            name: String::new(),
        };
        let proposal = propose(&w.home, &wish).map_err(|refusal| refusal.wrong)?;
        for fact in &proposal.facts {
            w.act(&format!("fact {}", serde_json::to_string(fact).unwrap())).unwrap();
        }
        Ok::<String, String>(proposal.said)
    };
    let receptacle = PointKind::Receptacle;
    assert_eq!(tap(1, 3000, 150, receptacle).unwrap(), "Kitchen, north wall");
    assert_eq!(tap(2, 3500, -200, receptacle).unwrap(), "Kitchen, north wall 2", "just outside counts");
    assert_eq!(tap(3, 3900, 1500, receptacle).unwrap(), "Kitchen, east wall");
    assert_eq!(tap(4, 2000, 2950, receptacle).unwrap(), "Kitchen, south wall");
    assert_eq!(tap(5, 100, 1500, receptacle).unwrap(), "Kitchen, west wall");
    assert_eq!(tap(6, 2500, 1500, PointKind::Light).unwrap(), "Kitchen, ceiling 2");
    assert_eq!(tap(7, 20_000, 0, receptacle).unwrap_err(), "No room is drawn there.");
}

#[test]
fn a_listed_point_is_numbered_where_it_has_no_name_and_counted_on_where_the_room_has_it() {
    let mut w = house();
    let mut list = |n: u8, room: &str, name: &str| {
        let (point, room) = (id(&format!("listed-{n}")), id(room));
        let details = PointDetails::default();
        let wish = Wish::ListPoint {
            point,
            room,
            point_kind: PointKind::Receptacle,
            volts: Volts::new(120),
            details,
            name: name.into(),
        };
        let proposal = propose(&w.home, &wish).map_err(|refusal| refusal.wrong)?;
        for fact in &proposal.facts {
            w.act(&format!("fact {}", serde_json::to_string(fact).unwrap())).unwrap();
        }
        Ok::<String, String>(proposal.said)
    };
    assert_eq!(list(1, "kitchen", " ").unwrap(), "Kitchen, receptacle 1");
    assert_eq!(list(2, "kitchen", "").unwrap(), "Kitchen, receptacle 2");
    assert_eq!(list(3, "kitchen", "Counter").unwrap(), "Kitchen, Counter 2");
    assert_eq!(list(4, "kitchen", "ceiling").unwrap(), "Kitchen, ceiling", "a light of that name is another thing");
    assert_eq!(list(5, "hall", "counter").unwrap(), "Hall, counter");
    assert_eq!(list(6, "nowhere", "").unwrap_err(), "There is no such room.");
}

#[test]
fn a_split_receptacle_is_two_points_in_one_device() {
    let mut w = house();
    let wish = Wish::SplitReceptacle { point: id("counter"), other: id("counter-b") };
    for fact in propose(&w.home, &wish).unwrap().facts {
        w.act(&format!("fact {}", serde_json::to_string(&fact).unwrap())).unwrap();
    }
    let plan = plan(&w.home);
    let symbols: Vec<_> =
        the_floor(plan, "house").points.iter().filter(|p| p.point.as_str().starts_with("counter")).map(|p| p.symbol).collect();
    assert_eq!(symbols, [Symbol::SplitReceptacle; 2]);
    let light = r#"fact {"kind":"point_placed","point":"x","room":"kitchen","point_kind":"light","name":"x","volts":120,"details":{"half_of":"counter"}}"#;
    assert!(w.act(light).unwrap_err().wrong.contains("Only two receptacles"));
}

#[test]
fn switches_and_gfcis_know_what_is_downstream() {
    let mut w = house();
    for act in [
        "point Kitchen switch by the door",
        "point Hall switch other end",
        "point Kitchen gfci sink",
        "stand by the door 100 1000",
        "stand other end 100 700",
        r#"fact {"kind":"switch_controls","switch":"by-the-door","points":["ceiling"]}"#,
        r#"fact {"kind":"switch_controls","switch":"other-end","points":["ceiling"]}"#,
        r#"fact {"kind":"gfci_protects","device":"sink","points":["counter"]}"#,
    ] {
        w.act(act).unwrap_or_else(|refusal| panic!("{act}: {refusal}"));
    }
    let plan = plan(&w.home);
    let floor = the_floor(plan, "house");
    let symbol = |point: &str| floor.points.iter().find(|p| p.point.as_str() == point).unwrap().symbol;
    assert_eq!(symbol("by-the-door"), Symbol::ThreeWaySwitch, "two switches of one light");
    let counter = &crate::find(&w.home, "counter")[0];
    assert!(counter.feed.ends_with("Also goes dark when the GFCI trips at Kitchen, sink."), "{}", counter.feed);
    for (act, says) in [
        (r#"fact {"kind":"switch_controls","switch":"counter","points":["ceiling"]}"#, "is no switch"),
        (r#"fact {"kind":"gfci_protects","device":"counter","points":["ceiling"]}"#, "not recorded as a GFCI"),
        (r#"fact {"kind":"gfci_protects","device":"sink","points":["sink"]}"#, "downstream of itself"),
    ] {
        assert!(w.act(act).unwrap_err().wrong.contains(says), "{act}");
    }
    w.act("no-point ceiling").unwrap();
    assert_eq!(w.home.plan().controls.len(), 0, "nothing is left to switch");
}

#[test]
fn openings_and_backdrops_that_cannot_be_are_refused() {
    let mut w = house();
    let opening = |wall: u8, from: i32, width: i32| {
        format!(
            r#"fact {{"kind":"opening_placed","opening":"o","opening_kind":"window","room":"kitchen","wall":{wall},"from":{from},"width":{width}}}"#
        )
    };
    w.act(&opening(0, 100, 900)).unwrap();
    for (act, says) in
        [(opening(4, 0, 900), "no wall 4"), (opening(0, 3500, 900), "does not fit"), (opening(0, 0, 50), "does not fit")]
    {
        assert!(w.act(&act).unwrap_err().wrong.contains(says), "{act}");
    }
    let backdrop = |bx: f64, length: i32| {
        format!(
            r#"fact {{"kind":"backdrop_laid","floor":"house","photo":"p","width_px":1000,"height_px":800,"a":{{"x":100,"y":100}},"b":{{"x":{bx},"y":100}},"length":{length},"at":{{"x":0,"y":0}}}}"#
        )
    };
    w.act(&backdrop(500.0, 4000)).unwrap();
    let laid = plan(&w.home);
    // 400 px are 4 m: 10 mm to the pixel.
    assert_eq!(the_floor(laid, "house").backdrop.as_ref().unwrap().bounds, Bounds { x: 0, y: 0, width: 10_000, height: 8_000 });
    for (act, says) in [
        (backdrop(1500.0, 4000), "do not lie in the picture"),
        (backdrop(105.0, 4000), "too short"),
        (backdrop(110.0, 9000), "400 m"),
    ] {
        assert!(w.act(&act).unwrap_err().wrong.contains(says), "{act}");
    }
}

#[test]
fn ways_lead_through_doors_and_over_stairs() {
    let w = house();
    let ways = walking(&w.home);
    let seconds = |from: &str, to: &str| {
        let n = |room: &str| ways.rooms.iter().position(|r| r.as_str() == room).unwrap();
        ways.between[n(from)][n(to)]
    };
    // Kitchen's middle to the door in the middle of the shared wall is 2 m; from there to the pantry's middle 1 m.
    assert!((seconds("kitchen", "pantry").seconds - 3.0 / 1.2).abs() < 1e-6);
    // Down 1.5 m through the door and 0.75 m on, a little to the side: the hall's middle is 1 m to the right.
    let flat = 1500.0 + (750.0_f64).hypot(1000.0);
    assert!((seconds("kitchen", "hall").millimeters - flat).abs() < 1.0);
    // The stairs begin 0.6 m below the hall's middle and end 0.6 m below the loft's.
    assert!((seconds("hall", "loft").seconds - (1.2 / 1.2 + 6.0)).abs() < 1e-6, "{:?}", seconds("hall", "loft"));
    assert!(seconds("hall", "loft").drawn);
}

#[test]
fn without_doors_or_a_plan_distances_are_guesses_that_say_so() {
    let w = written("panel 4\nroom Kitchen\nroom Hall\ndraw Bath 2 x 2\ndraw Bed 4 x 3 right of Bath");
    let ways = walking(&w.home);
    assert!(!ways.between[0][1].drawn && ways.between[0][1].seconds > 0.0);
    assert!(ways.between[2][3].drawn, "rooms that share a wall are taken to open on one another");
}

#[test]
fn a_room_is_walked_along_its_walls_from_the_door() {
    let mut w = house();
    for act in [
        "point Kitchen receptacle east",
        "point Kitchen receptacle south",
        "point Kitchen receptacle west",
        "stand south 1000 2900",
        "stand west 100 1500",
        "stand east 3900 2500",
    ] {
        w.act(act).unwrap();
    }
    let walk = room_walk(&w.home, &id("kitchen")).unwrap();
    let order: Vec<_> = walk.points.iter().map(|p| p.point.as_str()).collect();
    // The first door is in the east wall at 1.1 to 1.9 m: clockwise from there.
    assert_eq!(order, ["east", "south", "west", "counter", "ceiling"]);
    assert_eq!(walk.next[0].name, "Hall", "the nearest room first");
    w.act("lit counter").unwrap();
    let last = room_walk(&w.home, &id("kitchen")).unwrap().points[3].last.clone().unwrap();
    assert_eq!((last.seen, last.off.len()), (crate::model::Seen::Lit, 0));
}

#[test]
fn a_cable_goes_up_along_and_down() {
    let mut w = house();
    w.act(r#"fact {"kind":"panel_stands","panel":"main","room":"hall","at":{"x":0,"y":0}}"#).unwrap();
    let run = |point: &str| cable_run(&w.home, &id("main"), &id(point)).map(|run| run.length);
    // 0.7 m up, 1 + 2.9 m along, 2 m down, 0.6 m at the ends; the hall's corner is at 0, 3 m.
    assert_eq!(run("counter"), Some(Length::mm(700 + 1000 + 2900 + 2000 + 600)));
    assert_eq!(run("ceiling"), Some(Length::mm(700 + 2000 + 1500 + 600)));
    assert_eq!(run("bulb"), None, "it has no place yet");
}

#[test]
fn lengths_are_said_in_the_units_of_the_home() {
    let mut w = house();
    w.act(r#"fact {"kind":"units_chosen","units":"feet_inches"}"#).unwrap();
    let plan = plan(&w.home);
    assert_eq!(plan.units, Units::FeetInches);
    assert_eq!(the_floor(plan, "house").rooms[0].size, "13'1½\" × 9'10\"");
}

fn wish(w: &mut Written, wish: &Wish) -> Result<String, String> {
    let proposal = propose(&w.home, wish).map_err(|refusal| refusal.wrong)?;
    for fact in &proposal.facts {
        w.act(&format!("fact {}", serde_json::to_string(fact).unwrap())).unwrap_or_else(|refusal| panic!("{fact:?}: {refusal}"));
    }
    Ok(proposal.said)
}

#[test]
fn a_point_carried_into_another_room_belongs_there_and_keeps_its_looks() {
    let mut w = house();
    w.act("lit counter").unwrap();
    w.act("point Pantry receptacle counter 9").unwrap();
    let said = wish(&mut w, &Wish::MovePoint { point: id("counter"), to: Spot::at(5000, 100) }).unwrap();
    assert_eq!(said, "Pantry, counter placed");
    let point = w.home.house().point(&id("counter")).unwrap();
    assert_eq!(point.room.as_str(), "pantry");
    assert_eq!(crate::trace::last_seen(&w.home, &id("counter")).unwrap().seen, crate::model::Seen::Lit);
    let plan = plan(&w.home);
    let drawn = the_floor(plan, "house").points.iter().find(|p| p.point.as_str() == "counter").unwrap();
    assert_eq!((drawn.at, drawn.room.as_str()), (Spot::at(5000, 0), "pantry"));
    let nowhere = Wish::MovePoint { point: id("counter"), to: Spot::at(50_000, 100) };
    assert_eq!(wish(&mut w, &nowhere).unwrap_err(), "No room is drawn there.");
}

#[test]
fn a_room_is_turned_by_a_quarter_and_four_quarters_are_none() {
    let mut w = house();
    let before = w.home.plan().outlines[&id("pantry")].clone();
    let turn = Wish::TurnRoom { room: id("pantry") };
    wish(&mut w, &turn).unwrap();
    let turned = &w.home.plan().outlines[&id("pantry")];
    let bounds = Bounds::around(turned.corners().iter().copied()).unwrap();
    assert_eq!((bounds.width, bounds.height), (3000, 2000));
    for _ in 0..3 {
        wish(&mut w, &turn).unwrap();
    }
    let after = &w.home.plan().outlines[&id("pantry")];
    assert!(before.corners().iter().all(|corner| after.corners().contains(corner)), "{after:?}");
}

#[test]
fn points_without_a_place_are_spread_and_none_is_moved_twice() {
    let mut w = house();
    for n in 0..5 {
        w.act(&format!("point Pantry receptacle outlet{n}")).unwrap();
    }
    let spread = Wish::SpreadPoints { room: id("pantry") };
    assert!(wish(&mut w, &spread).unwrap().starts_with("6 points of Pantry placed roughly"));
    let drawn = plan(&w.home);
    let floor = the_floor(drawn, "house");
    let mut places: Vec<Spot> = floor.points.iter().filter(|p| p.room.as_str() == "pantry").map(|p| p.at).collect();
    places.sort();
    places.dedup();
    assert_eq!(places.len(), 6, "each has a place of its own");
    assert_eq!(wish(&mut w, &spread).unwrap_err(), "Every point of Pantry has its place.");
}

#[test]
fn openings_go_into_the_nearest_wall_and_doors_only_between_rooms_that_meet() {
    let mut w = house();
    let window = |at: Spot, width: i32| Wish::TapOpening {
        opening: id("w"),
        floor: "house".into(),
        at,
        opening_kind: OpeningKind::Window,
        width: Length::mm(width),
    };
    assert_eq!(wish(&mut w, &window(Spot::at(1500, -100), 1000)).unwrap(), "Window in Kitchen");
    let drawn = plan(&w.home);
    let opening = the_floor(drawn, "house").openings.iter().find(|o| o.kind == OpeningKind::Window).unwrap();
    assert_eq!((opening.stretch.from, opening.stretch.to, opening.to.as_ref()), (Spot::at(1000, 0), Spot::at(2000, 0), None));
    assert!(wish(&mut w, &window(Spot::at(1500, -2000), 1000)).unwrap_err().starts_with("No wall is near"));
    assert!(wish(&mut w, &window(Spot::at(0, 3500), 2000)).unwrap_err().contains("shorter than the window"));
    let door = |to: &str| Wish::Door { opening: id("d9"), room: id("kitchen"), to: id(to), width: Length::mm(800) };
    assert_eq!(wish(&mut w, &door("loft")).unwrap_err(), "Kitchen and Loft share no wall.");
    let stairs = Wish::Stairs { stairs: id("s9"), lower: id("kitchen"), upper: id("loft") };
    assert_eq!(wish(&mut w, &stairs).unwrap(), "Stairs from Kitchen up to Loft");
    let drawn = plan(&w.home);
    let ends = |floor: &str| {
        the_floor(drawn, floor).stairs.iter().filter(|s| s.stairs.as_str() == "s9").map(|s| s.up).collect::<Vec<_>>()
    };
    assert_eq!((ends("house"), ends("loft")), (vec![true], vec![false]));
    let panel = Wish::TapPanel { panel: id("main"), floor: "house".into(), at: Spot::at(200, 4000) };
    assert_eq!(wish(&mut w, &panel).unwrap(), "The panel hangs in Hall");
}

#[test]
fn tags_stand_clear_of_one_another_wherever_there_is_room() {
    let mut w = written("panel 4\ndraw Hall 8 x 5");
    for n in 0..12 {
        w.act(&format!("point Hall receptacle r{n}")).unwrap();
        w.act(&format!("stand r{n} {} {}", 600 + n % 6 * 1300, if n < 6 { 0 } else { 5000 })).unwrap();
    }
    let drawn = plan(&w.home);
    let floor = &drawn.floors[0];
    let half = floor.tag_height / 2;
    for (n, a) in floor.points.iter().enumerate() {
        for b in &floor.points[n + 1..] {
            let apart =
                (a.tag.at.x - b.tag.at.x).abs() >= (a.tag.width + b.tag.width) / 2 || (a.tag.at.y - b.tag.at.y).abs() >= 2 * half;
            assert!(apart, "{} and {}", a.point, b.point);
        }
        assert!((a.tag.at.x - a.middle.x).abs() + (a.tag.at.y - a.middle.y).abs() < 1200, "a tag stays beside its symbol");
        assert_eq!(a.tag.left, a.tag.at.x < a.middle.x, "its blade points away from the symbol");
    }
}

#[test]
fn a_drawing_fills_rooms_that_wait_and_names_others_apart() {
    let mut w = written("panel 4\nroom Kitchen\ndraw Hall 3 x 3");
    let square =
        |x: i32| Outline::new(vec![Spot::at(x, 0), Spot::at(x + 3000, 0), Spot::at(x + 3000, 3000), Spot::at(x, 3000)]).unwrap();
    let rooms = [("Kitchen".to_owned(), square(5000)), ("Hall".to_owned(), square(9000))];
    let points = [
        (0, Symbol::GfciReceptacle, Spot::at(5100, 1000)),
        (1, Symbol::HighVoltageReceptacle, Spot::at(9500, 0)),
        (7, Symbol::Light, Spot::at(0, 0)),
    ];
    let mut n = 0;
    let (facts, home) = take_drawing(&w.home, "house", &rooms, &points, || {
        n += 1;
        format!("new-{n}")
    });
    let names: Vec<&str> = home.house().rooms().map(|room| room.name.as_str()).collect();
    assert_eq!(names, ["Kitchen", "Hall", "Hall 2"], "the waiting kitchen is drawn, the second hall gets a name of its own");
    let taken: Vec<_> = home.house().points().map(|p| (p.kind, p.volts.value(), p.details.gfci)).collect();
    assert_eq!(
        taken,
        [(PointKind::Receptacle, 120, true), (PointKind::Receptacle, 240, false)],
        "what is in no room is left out"
    );
    for fact in facts {
        w.act(&format!("fact {}", serde_json::to_string(&fact).unwrap())).unwrap();
    }
    assert_eq!(plan(&w.home).floors, plan(&Study::of(home)).floors);
}
