//! The plan's files as other programs read them: DXF by ezdxf, PDF by poppler, SVG by an XML reader; and drawings of
//! another program read here.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod poppler;

use std::path::{Path, PathBuf};
use std::process::Command;

use poppler::lines_of;
use serde_json::Value;
use wayfinder_core::{Plan, PlanFloor, Spot, Study, Symbol, plan, take_drawing};
use wayfinder_fixture::written;
use wayfinder_formats::{
    DxfError, Paper, PlanRequest, PlanSheetError, plan_pdf, plan_sheet, plan_svg, read_home_file, read_plan_dxf, write_plan_dxf,
};

fn demo() -> Plan {
    let (_, book) = read_home_file(include_bytes!("../../server/demo/juniper-lane.json")).unwrap();
    plan(&Study::from(&book)).clone()
}

fn ground(plan: &Plan) -> &PlanFloor {
    plan.floors.iter().find(|floor| floor.name == "ground floor").unwrap()
}

fn request(paper: Paper, scale: Option<u32>) -> PlanRequest {
    PlanRequest { home: "Juniper Lane Schoolhouse".into(), date: "2026-11-24".into(), paper, scale }
}

fn reference(act: &str, path: &Path) -> String {
    let manifest = Path::new(env!("CARGO_MANIFEST_DIR"));
    let packages: PathBuf = manifest.join("../../target/python");
    assert!(packages.join("ezdxf").is_dir(), "ezdxf is missing; `cargo xtask test` fetches it into target/python");
    let out = Command::new("python3")
        .env("PYTHONPATH", packages)
        .arg(manifest.join("tests/reference/plan_dxf.py"))
        .arg(act)
        .arg(path)
        .output()
        .unwrap();
    assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
    String::from_utf8(out.stdout).unwrap()
}

#[test]
fn an_independent_reader_finds_the_rooms_the_walls_and_every_symbol_in_our_drawing() {
    let plan = demo();
    let floor = ground(&plan);
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("plan.dxf");
    std::fs::write(&path, write_plan_dxf(&plan, floor).unwrap()).unwrap();
    let read: Value = serde_json::from_str(&reference("read", &path)).unwrap();
    // Read by others without a warning, and nothing that their audit mends.
    for found in ["errors", "warnings", "doubled"] {
        assert_eq!(read[found], serde_json::json!([]), "{found}");
    }
    assert_eq!(read["units"], 4, "millimeters");
    for layer in ["ROOMS", "WALLS", "DOORS", "WINDOWS", "STAIRS", "PANELS", "SYMBOLS", "TAGS", "TEXT"] {
        assert!(read["layers"].as_array().unwrap().contains(&layer.into()), "{layer}: {}", read["layers"]);
    }
    let rooms = read["rooms"].as_array().unwrap();
    assert_eq!(rooms.len(), floor.rooms.len());
    for (found, room) in rooms.iter().zip(&floor.rooms) {
        assert_eq!((found["closed"].as_bool(), found["layer"].as_str()), (Some(true), Some("ROOMS")));
        assert_eq!(found["corners"], room.outline.corners().len());
        assert!((found["area"].as_f64().unwrap() / 1e6 - room.outline.area_m2()).abs() < 1e-6, "{}", room.name);
    }
    let walls: f64 = floor.walls.iter().map(|s| f64::from(s.from.x - s.to.x).hypot(f64::from(s.from.y - s.to.y))).sum();
    assert!((read["walls"].as_f64().unwrap() - walls).abs() < 0.01);
    let inserts = read["inserts"].as_array().unwrap();
    assert_eq!(inserts.len(), floor.points.len());
    for (found, point) in inserts.iter().zip(&floor.points) {
        assert_eq!(found["name"], point.symbol.block());
        assert_eq!((found["x"].as_f64(), found["y"].as_f64()), (Some(f64::from(point.at.x)), Some(-f64::from(point.at.y))));
        assert_eq!(found["turn"].as_f64().unwrap() as i32, (360 - point.turn) % 360);
    }
    let texts = read["texts"].as_array().unwrap();
    let tags: Vec<&str> = texts.iter().filter(|t| t["layer"] == "TAGS").filter_map(|t| t["text"].as_str()).collect();
    assert_eq!(tags, floor.points.iter().map(|p| p.tag.text.as_str()).collect::<Vec<_>>());
    assert!(texts.iter().any(|t| t["layer"] == "TEXT" && t["text"] == "Kitchen"));
}

#[test]
fn our_own_drawing_reads_back_as_the_same_rooms_and_points() {
    let plan = demo();
    let floor = ground(&plan);
    let read = read_plan_dxf(&write_plan_dxf(&plan, floor).unwrap(), None).unwrap();
    assert_eq!((read.unit.as_str(), read.left_out.len()), ("millimeters", 0));
    let mut names: Vec<&str> = read.rooms.iter().map(|r| r.name.as_str()).collect();
    let mut drawn: Vec<&str> = floor.rooms.iter().map(|r| r.name.as_str()).collect();
    names.sort_unstable();
    drawn.sort_unstable();
    assert_eq!(names, drawn);
    assert_eq!(read.points.len(), floor.points.len());
    // Taken into an empty home, everything stands where it stood, but for the plan's corner.
    let mut count = 0;
    let rooms: Vec<_> = read.rooms.iter().map(|r| (r.name.clone(), r.outline.clone())).collect();
    let points: Vec<_> = read.points.iter().map(|p| (p.room, p.symbol, p.at)).collect();
    let new_id = || {
        count += 1;
        format!("n{count}")
    };
    let (facts, home) = take_drawing(&written("home Empty").book.home().clone(), "ground floor", &rooms, &points, new_id);
    assert_eq!(facts.len(), 2 * (rooms.len() + points.len()));
    let again = wayfinder_core::plan(&Study::of(home)).clone();
    let mine = ground(&again);
    let corner = floor.bounds.unwrap();
    let sorted = |floor: &PlanFloor, by: Spot| {
        let mut all: Vec<_> = floor.points.iter().map(|p| (p.at.x - by.x, p.at.y - by.y, p.turn, p.symbol)).collect();
        all.sort();
        all
    };
    let (before, after) = (sorted(floor, Spot::at(corner.x, corner.y)), sorted(mine, Spot::at(0, 0)));
    let moved = before.iter().zip(&after).filter(|(a, b)| a != b).collect::<Vec<_>>();
    // Two switches of one light, and the halves of a device, are facts of their own that a drawing does not hold.
    assert!(moved.iter().all(|(a, _)| a.3 == Symbol::ThreeWaySwitch), "{moved:?}");
}

#[test]
fn a_drawing_of_another_program_in_inches_far_from_the_origin_is_read() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("other.dxf");
    reference("write", &path);
    let read = read_plan_dxf(&std::fs::read(&path).unwrap(), None).unwrap();
    assert_eq!(read.unit, "inches");
    let rooms: Vec<(&str, f64, usize)> =
        read.rooms.iter().map(|r| (r.name.as_str(), r.outline.area_m2(), r.outline.corners().len())).collect();
    // 25.4 mm to the inch, by definition: 165 x 142 in; 120 x 120 in less 48 x 36 in.
    let inch2 = 0.0254_f64 * 0.0254;
    assert_eq!(rooms.len(), 2);
    assert_eq!((rooms[0].0, rooms[0].2), ("KITCHEN", 4));
    assert!((rooms[0].1 - 165.0 * 142.0 * inch2).abs() < 0.01, "{rooms:?}");
    assert_eq!((rooms[1].0, rooms[1].2), ("Pantry", 6));
    assert!((rooms[1].1 - (120.0 * 120.0 - 48.0 * 36.0) * inch2).abs() < 0.01, "{rooms:?}");
    let kinds: Vec<_> = read.points.iter().map(|p| (p.room, p.symbol)).collect();
    assert_eq!(kinds, [(0, Symbol::DuplexReceptacle), (0, Symbol::Light)]);
    assert_eq!(read.left_out, ["1 blocks have names that mean no point here.", "1 points lie in no room."]);
    let feet = read_plan_dxf(&std::fs::read(&path).unwrap(), Some(12.7)).unwrap();
    assert!((feet.rooms[0].outline.area_m2() - rooms[0].1 / 4.0).abs() < 0.01, "the unit can be corrected");
}

#[test]
fn what_is_no_drawing_is_refused_with_a_sentence_and_nothing_grows_without_end() {
    let pair = |code: i32, value: &str| format!("{code}\n{value}\n");
    let head = pair(0, "SECTION") + &pair(2, "ENTITIES");
    let tail = pair(0, "ENDSEC") + &pair(0, "EOF");
    assert_eq!(read_plan_dxf(b"AutoC\0D Binary", None), Err(DxfError::Binary));
    assert_eq!(read_plan_dxf(b"\x89PNG\r\n\x1a\n", None), Err(DxfError::NoDrawing));
    assert_eq!(read_plan_dxf(b"", None), Err(DxfError::NoDrawing));
    assert_eq!(read_plan_dxf((head.clone() + &tail).as_bytes(), None), Err(DxfError::NoRooms));
    assert_eq!(read_plan_dxf(&vec![b'0'; 17 << 20], None), Err(DxfError::TooLarge));
    // Two and a half million lines of nothing.
    let long = head.clone() + &pair(999, "x").repeat(1_250_000) + &tail;
    assert_eq!(read_plan_dxf(long.as_bytes(), None), Err(DxfError::TooLarge));
    // A polyline that says it has two billion corners, numbers that are none, and one that breaks off.
    for body in ["0\nLWPOLYLINE\n90\n2000000000\n70\n1\n10\n0\n20\n0\n", "0\nLWPOLYLINE\n10\nNaN\n20\ninf\n", "0\nLINE\n10"] {
        let error = read_plan_dxf((head.clone() + body).as_bytes(), None).unwrap_err();
        assert!(matches!(error, DxfError::Damaged(_) | DxfError::NoRooms), "{error}");
    }
    // Blocks within blocks, each ten of the one before, a billion in all: blocks are not taken apart.
    let mut blocks = pair(0, "SECTION") + &pair(2, "BLOCKS");
    for n in 0..10 {
        blocks += &(pair(0, "BLOCK") + &pair(2, &format!("B{n}")));
        blocks += &(pair(0, "INSERT") + &pair(2, &format!("B{}", n - 1))).repeat(10);
        blocks += &pair(0, "ENDBLK");
    }
    blocks += &pair(0, "ENDSEC");
    let square = "0\nLWPOLYLINE\n90\n4\n70\n1\n10\n0\n20\n0\n10\n4\n20\n0\n10\n4\n20\n4\n10\n0\n20\n4\n";
    let insert = pair(0, "INSERT") + &pair(2, "B9") + &pair(70, "30000") + &pair(71, "30000");
    let read = read_plan_dxf((blocks + &head + square + &insert + &tail).as_bytes(), None).unwrap();
    assert_eq!((read.rooms.len(), read.points.len()), (1, 0));
    assert!((read.rooms[0].outline.area_m2() - 16.0).abs() < 1e-9, "4 x 4 without a unit are meters");
    // 300 rooms: the first hundred are taken, and the rest is said.
    let many: String = (0..300)
        .map(|n| {
            square.replace("10\n0\n", &format!("10\n{}\n", n % 20 * 5)).replace("10\n4\n", &format!("10\n{}\n", n % 20 * 5 + 4))
        })
        .collect();
    let read = read_plan_dxf((head + &many + &tail).as_bytes(), None).unwrap();
    assert_eq!(read.rooms.len(), 100);
    assert_eq!(read.left_out, ["200 rooms are more than are read at once."]);
}

#[test]
fn a_wall_measured_on_the_page_has_the_length_that_the_scale_says() {
    let plan = demo();
    let floor = ground(&plan);
    for (paper, scale) in [(Paper::A3, 75), (Paper::A4, 100), (Paper::Letter, 150)] {
        let sheet = plan_sheet(&plan, floor, &request(paper, Some(scale))).unwrap();
        let pdf = plan_pdf("Plan", std::slice::from_ref(&sheet)).unwrap();
        let mm = |points: f64| points * 25.4 / 72.0;
        let walls: Vec<f64> = lines_of(&pdf)
            .into_iter()
            .filter(|(width, _)| (mm(*width) - wayfinder_formats::WALL_WEIGHT).abs() < 0.01)
            .map(|(_, [x1, y1, x2, y2])| mm((x1 - x2).hypot(y1 - y2)) * f64::from(scale))
            .collect();
        assert_eq!(walls.len(), floor.walls.len());
        for (measured, wall) in walls.iter().zip(&floor.walls) {
            let true_length = f64::from(wall.from.x - wall.to.x).hypot(f64::from(wall.from.y - wall.to.y));
            // Poppler writes coordinates to a hundredth of a point.
            assert!((measured - true_length).abs() < 0.02 * f64::from(scale), "{measured} for {true_length} at 1:{scale}");
        }
    }
}

#[test]
fn the_largest_scale_that_fits_is_taken_and_one_that_does_not_says_which_would() {
    let plan = demo();
    let floor = ground(&plan);
    let sheet = plan_sheet(&plan, floor, &request(Paper::A4, None)).unwrap();
    assert_eq!(sheet.scale, 100, "19.4 m of house on 21.5 cm of free paper");
    let error = plan_sheet(&plan, floor, &request(Paper::A4, Some(50))).unwrap_err();
    assert_eq!(error.to_string(), "At 1:50 ground floor does not fit on this paper. 1:100 does, or take larger paper.");
    let empty = PlanFloor { rooms: Vec::new(), ..floor.clone() };
    assert!(matches!(plan_sheet(&plan, &empty, &request(Paper::A4, None)), Err(PlanSheetError::Empty(_))));
}

#[test]
fn the_sheet_names_scale_date_legend_and_what_proven_means_in_pdf_and_svg() {
    let plan = demo();
    let sheets: Vec<_> =
        plan.floors.iter().map(|floor| plan_sheet(&plan, floor, &request(Paper::Letter, None)).unwrap()).collect();
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("plan.pdf");
    std::fs::write(&path, plan_pdf("Plan", &sheets).unwrap()).unwrap();
    let text = Command::new("pdftotext").arg(&path).arg("-").output().unwrap().stdout;
    let text = String::from_utf8(text).unwrap().split_whitespace().collect::<Vec<_>>().join(" ");
    let svg = plan_svg(&sheets[1]);
    for words in ["Scale 1:100 when printed", "2026-11-24", "duplex receptacle", "Schoolroom", "never that it is safe to touch"] {
        assert!(text.contains(words), "{words} is not in:\n{text}");
        assert!(svg.contains(words), "{words}");
    }
    let pages = Command::new("pdfinfo").arg(&path).output().unwrap().stdout;
    assert!(String::from_utf8(pages).unwrap().contains("Pages:           3"));
    // Well-formed, and as large as the paper.
    let mut reader = quick_xml::Reader::from_str(&svg);
    let mut marks = 0;
    loop {
        match reader.read_event().unwrap() {
            quick_xml::events::Event::Eof => break,
            quick_xml::events::Event::Empty(_) => marks += 1,
            _ => {}
        }
    }
    assert!(marks > 300 && svg.contains("width=\"279.4mm\""), "{marks}");
}
