//! Everything that the logbook refuses, act by act: what is said against it, and what would be accepted. A refused act writes no
//! line and changes nothing.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use wayfinder_core::*;
use wayfinder_fixture::{Written, written};

const HOUSE: &str = r#"panel 12
    1 20 kitchen
    3 20 pantry
    5-7 50/2 range
    2 15 hall
    4 15 cellar
    6 30 workshop
    sub Shed 6 6
    shed: 1 15 lamp
    room Kitchen
    room Hall
    room Attic on loft
    point Kitchen receptacle counter
    point Kitchen gfci sink
    point Kitchen light ceiling
    point Hall switch wall
    point Hall receptacle door
    outline Kitchen 0 0, 4000 0, 4000 3000, 0 3000
    outline Hall 4000 0, 6000 0, 6000 3000, 4000 3000"#;

/// The refusal of an act that must be refused, with nothing changed by it.
fn refused(home: &mut Written, act: &str) -> Refusal {
    let (lines, before) = (home.book.seq(), home.home.home().clone());
    let refusal = home.act(act).expect_err(act);
    assert_eq!(home.book.seq(), lines, "{act} was refused and wrote a line");
    assert_eq!(*home.home, before, "{act} was refused and changed the home");
    refusal
}

/// Plays the acts that come first, one after `;`, and holds what the last is told against the two sentences.
fn all_are_refused(house: &str, acts: &[(&str, RefusalCode, &str, &str)]) {
    for (acts, code, wrong, accepted) in acts {
        let mut home = written(house);
        let mut acts: Vec<&str> = acts.split("; ").collect();
        let last = acts.pop().unwrap();
        acts.iter().for_each(|act| home.act(act).unwrap_or_else(|refusal| panic!("{act}: {refusal}")));
        let refusal = refused(&mut home, last);
        assert_eq!((refusal.code, refusal.wrong.as_str(), refusal.accepted.as_str()), (*code, *wrong, *accepted), "{last}");
        assert!(!refusal.field.is_empty() && refusal.entry.is_some(), "{last}: {refusal:?}");
    }
}

use RefusalCode::{BadText, DoesNotFit, NoSuchSpace, Occupied, OutOfRange, StillNeeded, Unknown};

#[test]
fn a_panel_that_no_box_can_be() {
    let panel = |details: &str| format!("with main {details}");
    let odd = [
        (panel(r#"{"spaces":1}"#), OutOfRange, "The number of spaces cannot be 1.", "Give 2 to 84 spaces."),
        (
            panel(r#"{"columns":"one","spaces":60}"#),
            OutOfRange,
            "The number of spaces in a single column cannot be 60.",
            "Give up to 42 spaces for one column, or two columns.",
        ),
        (
            panel(r#"{"main":2000}"#),
            OutOfRange,
            "2000 A cannot be right for a main breaker.",
            "Give 10 to 1200 A, or leave it out.",
        ),
        (panel(r#"{"details":{"bus":5}}"#), OutOfRange, "5 A cannot be right for a bus.", "Give 10 to 1200 A, or leave it out."),
        (
            panel(r#"{"details":{"year":1850}}"#),
            OutOfRange,
            "That year cannot be right.",
            "Give a year from 1900 to 2100, or leave it out.",
        ),
        (
            panel(r#"{"details":{"circuits":200}}"#),
            OutOfRange,
            "So many circuits cannot be right for a panel.",
            "Give 1 to 168, or leave it out.",
        ),
        (
            panel(r#"{"details":{"sources":["solar","solar","solar","solar","solar","solar","solar"]}}"#),
            OutOfRange,
            "A source is named twice.",
            "Name each kind of source once.",
        ),
        (
            panel(r#"{"card":{"width_mm":10.0,"height_mm":200.0}}"#),
            OutOfRange,
            "A door card of 10 by 200 mm cannot be printed.",
            "Give a width of 50 to 400 mm and a height of 50 to 600 mm.",
        ),
        (
            panel(r#"{"numbering":{"as_engraved":{"left":[1,2,3,4,5,6],"right":[7,8,9,10,11,11]}}}"#),
            OutOfRange,
            "Number 11 is engraved twice.",
            "Each space has a number of its own.",
        ),
        (
            panel(r#"{"numbering":{"as_engraved":{"left":[1,2,3],"right":[4,5,6]}}}"#),
            OutOfRange,
            "6 numbers are engraved; the panel is said to have 12 spaces.",
            "Let both say the same.",
        ),
        (
            panel(r#"{"spaces":4}"#),
            DoesNotFit,
            "Breaker 5-7 would not fit the panel described so: Main panel has spaces 1 to 4; there is no space 5.",
            "Move or take out breaker 5-7 first.",
        ),
        (
            r#"with shed {"name":"Main panel"}"#.into(),
            Occupied,
            "There is a panel called “Main panel” already.",
            "Give this one a name of its own, like “Greenhouse panel”.",
        ),
        ("no-panel shed".into(), StillNeeded, "Shed still has 1 breaker.", "Take its breakers out of the record first."),
        ("no-panel barn".into(), Unknown, "There is no such panel.", "Describe the panel first."),
    ];
    let engraved = |left: &str, right: &str, spaces: u8| {
        panel(&format!(r#"{{"spaces":{spaces},"numbering":{{"as_engraved":{{"left":{left},"right":{right}}}}}}}"#))
    };
    let more = [
        (
            panel(r#"{"details":{"tandems":{"in":[4,40]}}}"#),
            NoSuchSpace,
            "There is no space 40 for a tandem.",
            "The panel has spaces 1 to 12.",
        ),
        (
            panel(r#"{"details":{"tag":"ABCD"}}"#),
            Occupied,
            "“ABCD” cannot stand before this panel's numbers.",
            "Use one to three letters that no other panel has, like G.",
        ),
        (
            panel(r#"{"details":{"tag":"7"}}"#),
            Occupied,
            "“7” cannot stand before this panel's numbers.",
            "Use one to three letters that no other panel has, like G.",
        ),
        (panel(r#"{"details":{"types":[""]}}"#), BadText, "The type is missing.", "Write 1 to 40 characters on one line."),
        (
            panel(r#"{"details":{"fed_by":"nobody"}}"#),
            Unknown,
            "There is no such breaker to feed this panel.",
            "Enter the feeder's breaker first.",
        ),
        (
            panel(r#"{"details":{"fed_by":"b1"}}"#),
            DoesNotFit,
            "A panel cannot be fed by its own breaker: breaker 1 is behind it.",
            "Name a breaker of the panel upstream, or none for the panel where the service comes in.",
        ),
        (
            panel(r#"{"details":{"fed_by":"bS1"}}"#),
            DoesNotFit,
            "This panel would feed itself: breaker S1 is behind it.",
            "Name a breaker of the panel upstream, or none for the panel where the service comes in.",
        ),
        (
            engraved("[1, 2, 3, 4]", "[]", 4),
            OutOfRange,
            "The engraved numbers do not fit the columns.",
            "Give up to 42 numbers for each column from the top; 0 where the metal has no space.",
        ),
        (engraved("[1, 2]", "[3, 120]", 4), OutOfRange, "A space has no number above 99.", "Give numbers from 1 to 99."),
    ];
    let odd: Vec<_> =
        odd.iter().chain(&more).map(|(act, code, wrong, accepted)| (act.as_str(), *code, *wrong, *accepted)).collect();
    all_are_refused(HOUSE, &odd);
}

#[test]
fn a_breaker_where_it_cannot_be() {
    all_are_refused(
        HOUSE,
        &[
            (
                r#"set 1 {"amps":900}"#,
                OutOfRange,
                "900 A cannot be right for a breaker.",
                "Give the rating on its handle, 1 to 400 A.",
            ),
            ("move 1 9-11", DoesNotFit, "Breaker 1 has 1 pole; 9-11 names 2.", "Name one space for each of its poles."),
            (
                "join 1 2",
                DoesNotFit,
                "Breakers 1 and 2 differ in amps or kind.",
                "Correct their ratings first; the poles of one breaker are alike.",
            ),
            ("off 3; join 1 3", StillNeeded, "Breaker 3 is recorded as off.", "Record both as on first."),
            ("take-out 6", StillNeeded, "Breaker 6 feeds Shed.", "Say first what feeds Shed instead."),
            (
                "off 2; take-out 2",
                StillNeeded,
                "Breaker 2 is recorded as off.",
                "Record it as on first; then it can be taken out of the record.",
            ),
            (
                "share 1 5-7",
                DoesNotFit,
                "These circuits cannot share one neutral.",
                "Name two or three one-pole breakers of one panel, or one breaker of two or three poles.",
            ),
            (
                "off 2; must-stay-on 2",
                StillNeeded,
                "Breaker 2 is off now, so it cannot be said to stay on.",
                "Switch it on first.",
            ),
            ("wrong-handle 1", Unknown, "That line moved no handle.", "Name a line that switched a breaker off or on."),
            ("off 9", Unknown, "There is no such breaker in the panel.", "Name a breaker that is entered on the Panel screen."),
            ("filler 40", NoSuchSpace, "Main panel has no space 40.", "Give a number of 1 to 12."),
            ("read 1 40 0", NoSuchSpace, "Main panel has no space 40.", "Give a number of 1 to 12."),
            (
                "read 1 3 62",
                OutOfRange,
                "62 V is neither one leg (0 V) nor two (240 V).",
                "If it reads so again, stop: something is wrong with a breaker, the bus or the supply. Call an electrician.",
            ),
            (
                r#"set 1 {"details":{"interrupting_ka":900}}"#,
                OutOfRange,
                "900 kA cannot be right for an interrupting rating.",
                "Give kiloamperes, usually 10 or 22, or leave it out.",
            ),
            (
                r#"set 1 {"details":{"terminal":{"torque_inlb":9000}}}"#,
                OutOfRange,
                "That torque cannot be right.",
                "Give the label's value in pound-inches, 1 to 600, or leave it out.",
            ),
            (
                r#"set 1 {"details":{"terminal":{"under":40}}}"#,
                OutOfRange,
                "So many conductors under one terminal cannot be right.",
                "Give 1 to 4, or leave it out.",
            ),
        ],
    );
}

#[test]
fn rooms_and_points_that_cannot_be() {
    let face = r#"fact {"kind":"point_placed","point":"dryer","room":"hall","point_kind":"receptacle","name":"dryer","volts":120,"configuration":"14-30"}"#;
    let volts = r#"fact {"kind":"point_placed","point":"odd","room":"hall","point_kind":"light","name":"odd","volts":400}"#;
    let plate = r#"fact {"kind":"point_placed","point":"ac","room":"hall","point_kind":"appliance","name":"ac","volts":240,"plate":{"minimum_ampacity":0.2,"maximum_breaker":900}}"#;
    let half = r#"fact {"kind":"point_placed","point":"half","room":"hall","point_kind":"receptacle","name":"half","volts":120,"details":{"half_of":"counter"}}"#;
    all_are_refused(
        HOUSE,
        &[
            (
                "fact {\"kind\":\"room_placed\",\"room\":\"other\",\"name\":\"kitchen\"}",
                Occupied,
                "There is a room called “kitchen” already.",
                "Give this one a name of its own, like “Bath, upstairs”.",
            ),
            ("no-room Kitchen", StillNeeded, "Kitchen still has 3 points.", "Move or remove its points first."),
            ("no-room Cellar", Unknown, "There is no such room.", "Name a room that is entered on the House screen."),
            (
                "off 1; watch counter 1",
                RefusalCode::OffSetChanged,
                "1 is off: nothing can be watched going out with it.",
                "Say first that it is on again, or look whether the point is lit or dark.",
            ),
            ("watch attic 1", Unknown, "There is no such point.", "Name a point that is entered on the House screen."),
            ("dark attic", Unknown, "There is no such point.", "Name a point that is entered on the House screen."),
            (
                "fact {\"kind\":\"point_placed\",\"point\":\"twin\",\"room\":\"kitchen\",\"point_kind\":\"light\",\"name\":\"Ceiling\",\"volts\":120}",
                Occupied,
                "This room has a light called “Ceiling” already.",
                "Say where it is, like “south wall, left”, so that the two can be told apart.",
            ),
            (
                volts,
                OutOfRange,
                "A point has 120 or 240 volts, not 400.",
                "Use 240 for any point on two hot legs, 208 V ones too.",
            ),
            (
                face,
                OutOfRange,
                "A 14-30 receptacle has 240 volts, not 120.",
                "Read the face again, or correct the volts. TT-30 is 120 V and dangerous when wired as 240.",
            ),
            (
                plate,
                OutOfRange,
                "These amperes cannot be right for a data plate.",
                "Give the minimum circuit ampacity and the maximum fuse or breaker, 1 to 400 A each.",
            ),
            (
                half,
                DoesNotFit,
                "Only two receptacles of one room are halves of one device.",
                "Name the first half: a receptacle here that is no half of another.",
            ),
            (
                "dark-at-most counter 1",
                OutOfRange,
                "How long it may be without power is 2 to 1440 minutes.",
                "Give minutes, or nothing; what may never be off hangs on a breaker that must stay on.",
            ),
            ("switches counter: ceiling", DoesNotFit, "counter is no switch.", "Name a switch and the points that it switches."),
            ("switches wall: wall", DoesNotFit, "It cannot be downstream of itself.", "Leave it out of its own list."),
            (
                "protects counter: ceiling",
                DoesNotFit,
                "counter is not recorded as a GFCI device.",
                "Say first that it has a GFCI with its own buttons.",
            ),
            (
                "press-test counter",
                OutOfRange,
                "counter is not entered as a GFCI device.",
                "Say so at the point first: it has test and reset buttons.",
            ),
        ],
    );
}

#[test]
fn a_plan_that_nobody_can_walk() {
    all_are_refused(
        HOUSE,
        &[
            (
                "outline Attic 0 0, 4000 3000, 4000 0, 0 3000",
                OutOfRange,
                "The walls of the room cross each other.",
                "Draw it as it is, from corner to corner.",
            ),
            (
                "outline Attic 0 0, 4000 0",
                OutOfRange,
                "A room has 3 to 40 corners; this one has 0.",
                "Draw it as it is, from corner to corner.",
            ),
            (
                "outline Attic 0 0, 300 0, 300 300, 0 300",
                OutOfRange,
                "The room would be smaller than 0.2 m².",
                "Draw it as it is, from corner to corner.",
            ),
            (
                "outline Attic 0 0, 900000 0, 900000 3000, 0 3000",
                OutOfRange,
                "A room lies within 200 m of the plan's origin.",
                "Draw it as it is, from corner to corner.",
            ),
            ("opening d Kitchen 9 100 800", OutOfRange, "The room has 4 walls; there is no wall 9.", "Count its walls from 0."),
            (
                "opening d Kitchen 0 3800 800",
                DoesNotFit,
                "A door of 0.8 m does not fit there.",
                "The wall is 4.0 m long; an opening is at least 20 cm wide.",
            ),
            (
                "units feet_inches; opening d Kitchen 0 3800 800",
                DoesNotFit,
                "A door of 2'7½\" does not fit there.",
                "The wall is 13'1½\" long; an opening is at least 20 cm wide.",
            ),
            ("opening d Attic 0 100 800", Unknown, "Attic is not drawn yet.", "Give its size first."),
            (
                "flight s Kitchen 100 100 Kitchen 200 200",
                DoesNotFit,
                "Stairs do not lead from Kitchen to itself.",
                "Name the room below and the room above.",
            ),
            ("floor roof 60", OutOfRange, "Level 60 cannot be right for a floor.", "Give -5 to 20; 0 is the ground floor."),
            ("hang Hall 900000 0", OutOfRange, "This place is more than 200 m away.", "Give a place on the plan."),
            ("stand counter 900000 0", OutOfRange, "This place is more than 200 m away.", "Give a place on the plan."),
        ],
    );
}

#[test]
fn looks_and_readings_that_say_nothing() {
    all_are_refused(
        HOUSE,
        &[
            ("volts counter -5", OutOfRange, "-5 V is no reading at a point of a house.", "0 to 1000 V, as the meter shows it."),
            (
                "volts counter 4000",
                OutOfRange,
                "4000 V is no reading at a point of a house.",
                "0 to 1000 V, as the meter shows it.",
            ),
            (
                r#"fact {"kind":"point_placed","point":"range","room":"kitchen","point_kind":"appliance","name":"range","volts":240}; tone range 5-7"#,
                OutOfRange,
                "A plug-in tone sender never goes on 240 V.",
                "Trace this point by switching its breaker off.",
            ),
            ("strike 99", Unknown, "There is no such line in the logbook.", "Name a line that is written there."),
        ],
    );
}

#[test]
fn names_that_cannot_be_shown() {
    let long = "x".repeat(61);
    for (name, wrong) in [
        ("", "The name is missing."),
        ("   ", "The name is missing."),
        (long.as_str(), "The name has 61 characters, which is too long."),
        ("a\nb", "The name has a line break or a character that cannot be shown."),
        ("a\u{7}b", "The name has a line break or a character that cannot be shown."),
    ] {
        let mut home = written(HOUSE);
        let fact = serde_json::json!({ "kind": "room_placed", "room": "new", "name": name });
        let refusal = refused(&mut home, &format!("fact {fact}"));
        assert_eq!((refusal.code, refusal.wrong.as_str()), (BadText, wrong), "{name:?}");
        assert_eq!(refusal.field, "name");
        assert_eq!(refusal.accepted, "Write 1 to 60 characters on one line.");
    }
}

#[test]
fn a_line_that_others_need_names_them_and_goes_with_them() {
    let mut home = written(HOUSE);
    for act in ["lit counter", "off 1", "dark counter"] {
        home.act(act).unwrap();
    }
    // Line 3 puts breaker 1 in; line 4 is what the card says of it.
    let refusal = refused(&mut home, "strike 3");
    assert_eq!(refusal.code, RefusalCode::LinesDepend);
    let needed: Vec<u64> = refusal.lines.iter().map(|id| home.book.line(id).unwrap().seq).collect();
    let off = home.book.seq() - 1;
    assert_eq!(needed, [4, off], "its label and its switching; a look names no breaker");
    assert_eq!(refusal.accepted, "Strike them out with it, or leave it.");
    home.act(&format!("strike 3 4 {off}")).unwrap();
    assert_eq!(home.home.panels().breakers().count(), 6);
}

#[test]
fn loads_and_readings_that_cannot_be() {
    let placed = |more: &str| format!(r#"fact {{"kind":"load_placed","load":"l","point":"counter","name":"kettle"{more}}}"#);
    let read = |more: &str| format!(r#"load counter kettle; fact {{"kind":"reading_taken",{more}}}"#);
    // A demand that is right but for one field.
    let usage = |wrong: &str| {
        let right = [r#""first_day": "2026-01-01""#, r#""minutes": 15"#, r#""peak": 900"#];
        let field = wrong.split(':').next().unwrap();
        let kept: Vec<&str> = right.into_iter().filter(|right| !right.starts_with(field)).chain([wrong]).collect();
        let hours = vec!["40"; 24].join(",");
        let rest = format!(
            r#""daily":[900],"hours":[{hours}],"peak_at":"2026-01-01T18:15","base":40,"kwh":1,"missing":0,"netted":false"#
        );
        format!(r#"fact {{"kind":"usage_read","demand":{{{},{rest}}}}}"#, kept.join(","))
    };
    let of_kettle = r#""target":{"of":"load","load":"counter-kettle"},"with":"utility_meter","#;
    let acts = [
        (
            placed(r#","appliance":"teapot""#),
            Unknown,
            "The library has no such appliance.",
            "Choose one from the list, or give the plate's figures.",
        ),
        (placed(r#","count":0,"appliance":"kettle""#), OutOfRange, "There cannot be 0 alike.", "Give 1 to 50."),
        (
            placed(""),
            DoesNotFit,
            "The library's figure is not known: no appliance of the library was chosen.",
            "Choose one, give the plate's figures, or say that it is not known.",
        ),
        (
            placed(r#","draw":{"from":"plate","volts":0,"amps":5}"#),
            OutOfRange,
            "0 V cannot be right for a data plate here.",
            "Give 100 to 260 V, or leave the volts out.",
        ),
        (
            placed(r#","draw":{"from":"plate","amps":900}"#),
            OutOfRange,
            "900 A cannot be right for a data plate.",
            "Give 0.01 to 400 A.",
        ),
        (
            placed(r#","draw":{"from":"plate","volts":120}"#),
            OutOfRange,
            "The plate says neither amperes nor watts.",
            "Give one of the two, or say that it is not known.",
        ),
        (
            placed(r#","draw":{"from":"plate","volts":240,"amps":12}"#),
            DoesNotFit,
            "kettle does not run at a point of 120 V.",
            "Read the plate again, or correct the volts of the point.",
        ),
        (
            placed(r#","appliance":"kettle","usage":{"minutes":900,"uses_per_day":3,"when":["any"]}"#),
            OutOfRange,
            "A day has 1440 minutes.",
            "Give minutes each time and times a day that fit into a day, and at least one part of the day.",
        ),
        (
            placed(r#","appliance":"kettle","with":"gone""#),
            Unknown,
            "There is no such load.",
            "Name a load that is entered on the Loads screen.",
        ),
        ("no-load gone".into(), Unknown, "There is no such load.", "Name a load that is entered on the Loads screen."),
        (
            r#"service {"area_ft2": 1200}"#.into(),
            BadText,
            "A figure in place of the plan's or the panel's needs a reason.",
            "Write how it is known, like “measured outside with a tape”.",
        ),
        (
            r#"service {"area_ft2": 12, "reason": "x"}"#.into(),
            OutOfRange,
            "12 ft² is no dwelling.",
            "Give 100 to 100 000 square feet.",
        ),
        (
            r#"service {"kitchen_circuits": 30, "reason": "x"}"#.into(),
            OutOfRange,
            "30 such circuits are not in a dwelling.",
            "Give 0 to 20.",
        ),
        (
            r#"service {"meter_amps": 5}"#.into(),
            OutOfRange,
            "5 A cannot be right for a meter base.",
            "Give 30 to 1200 A, as its label says.",
        ),
        (
            usage(r#""peak": 700"#),
            OutOfRange,
            "700 W cannot be the highest demand of these days.",
            "Read the utility's file again on the page of usage data.",
        ),
        (
            usage(r#""first_day": "yesterday""#),
            OutOfRange,
            "“yesterday” or “2026-01-01T18:15” is no date.",
            "Read the utility's file again on the page of usage data.",
        ),
        (
            usage(r#""minutes": 1440"#),
            OutOfRange,
            "Intervals of 1440 minutes show no demand.",
            "Read the utility's file again on the page of usage data.",
        ),
        ("figure area 12 measured".into(), OutOfRange, "12 ft² cannot be the area of a dwelling.", "Give 100 to 100000 ft²."),
        (
            "figure cooking 9000".into(),
            BadText,
            "A figure in place of what the facts say needs a reason.",
            "Write how it is known, like “measured outside with a tape”.",
        ),
        (
            "job j2 main: join 4 99".into(),
            Unknown,
            "There is no such breaker in the panel.",
            "Name a breaker that is entered on the Panel screen.",
        ),
        ("answer j9 permit done".into(), Unknown, "There is no such job.", "Name a job that was begun."),
        (
            r#"size s1 Kiln {"load":{"feeds":"plain","amps":0},"volts":240,"carrying":2,"celsius":30}"#.into(),
            OutOfRange,
            "0 is no load of a circuit.",
            "Give what the plate says.",
        ),
        (
            r#"size s1 Kiln {"load":{"feeds":"charger","amps":32},"volts":480,"carrying":2,"celsius":30}"#.into(),
            OutOfRange,
            "480 V is no voltage of a circuit in a home.",
            "Give 120, 208 or 240 V.",
        ),
        (
            r#"size s1 Kiln {"load":{"feeds":"charger","amps":32},"volts":240,"carrying":2,"celsius":30,"said":[{"of":"wire","value":"6","why":""}]}"#
                .into(),
            OutOfRange,
            "What an inspector says has a value of 1 to 60 letters and a reason of 1 to 200.",
            "Write down what was said and why.",
        ),
        ("drop-size s9".into(), Unknown, "No circuit of that id is kept.", "Name one that is."),
        (
            r#"prices $ {"tandem": -1}"#.into(),
            OutOfRange,
            "-1 is no price of a tandem.",
            "Give 0 to 100 000.",
        ),
        ("survey add 4 0".into(), OutOfRange, "That is nothing to be added.", "Give 0.1 to 400 A."),
        ("heat 4 900 30".into(), OutOfRange, "900 °C cannot be the heat of a breaker.", "Give -40 to 600 °C."),
        (
            "heat 4 30 34".into(),
            DoesNotFit,
            "The hottest place is colder than the like one beside it.",
            "Give the hottest place of this breaker, and a like one beside it that carries about as much.",
        ),
        ("heat 4 40 34 4000".into(), OutOfRange, "4000 A cannot flow through a household breaker.", "Give 0 to 400 A."),
        ("breaker-volts 4 {}".into(), OutOfRange, "No volts are given.", "Give at least one of the readings."),
        (
            r#"breaker-volts 4 {"bus": 480}"#.into(),
            OutOfRange,
            "480 V cannot be read at a household breaker.",
            "Give 0 to 300 V.",
        ),
        (
            r#"breaker-volts 4 {"across": 0.1, "amps": 4000}"#.into(),
            OutOfRange,
            "4000 A cannot flow through a household breaker.",
            "Give 0 to 400 A.",
        ),
        (
            read(&format!(r#"{of_kettle}"value":{{"unit":"amps","amps":400}}"#)),
            OutOfRange,
            "400 A is hardly what one load takes.",
            "Read it again: the range of the meter, and that it is amperes and not watts.",
        ),
        (
            "clamp 4 400".into(),
            OutOfRange,
            "400 A on a breaker of 15 A is hardly right: it would trip within minutes.",
            "Read it again. If it is so, say that you are sure, and switch loads off.",
        ),
        ("clamp 4/2 3".into(), DoesNotFit, "Breaker 4 has no pole 2.", "Count its poles from the top, from 1."),
        ("clamp 4 -3".into(), OutOfRange, "-3 A cannot be read on a household circuit.", "Give 0 to 1200 A."),
        (
            read(&format!(r#"{of_kettle}"value":{{"unit":"meter_kw","before":2.5,"after":1.5}}"#)),
            OutOfRange,
            "-1000 W cannot be what it takes.",
            "After it is switched on the meter shows more than before, by at most 50 kW.",
        ),
        (
            read(&format!(
                r#"{of_kettle}"value":{{"unit":"meter_turns","wh_each":0,"before":{{"count":1,"seconds":9}},"after":{{"count":4,"seconds":9}}}}"#
            )),
            OutOfRange,
            "This is no count of turns or flashes.",
            "Give what one is in watt-hours, from the meter's face, and how many came in how many seconds, before and after.",
        ),
    ];
    let acts: Vec<_> = acts.iter().map(|(act, code, wrong, accepted)| (act.as_str(), *code, *wrong, *accepted)).collect();
    all_are_refused(HOUSE, &acts);
    // Read twice, it is taken.
    let mut home = written(HOUSE);
    home.act(r#"fact {"kind":"reading_taken","target":{"of":"circuit","breaker":"missing"},"with":"clamp","value":{"unit":"amps","amps":31}}"#)
        .unwrap_err();
    let breaker = home.home.panels().breakers().find(|breaker| breaker.number() == "4").unwrap().id.clone();
    let sure = format!(
        r#"fact {{"kind":"reading_taken","target":{{"of":"circuit","breaker":"{breaker}"}},"with":"clamp","value":{{"unit":"amps","amps":400}},"sure":true}}"#
    );
    home.act(&sure).unwrap();
    assert_eq!(home.home.loads().readings().len(), 1);
}

#[test]
fn words_cards_and_stickers_that_are_no_such_thing() {
    let long = format!("own 1 {}", "x".repeat(121));
    let card =
        |line: &str, more: &str| format!(r#"fact {{"kind":"card_hung","panel":"main","revision":1{more},"lines":[{line}]}}"#);
    let line = r#"{"number":"1","text":"Kitchen"}"#;
    let many = card(&vec![line; 169].join(","), "");
    let low = card(line, r#","row_mm":0.5"#);
    let elsewhere = r#"fact {"kind":"card_hung","panel":"barn","revision":1,"lines":[]}"#;
    let none = r#"fact {"kind":"stickers_printed","stickers":[]}"#;
    let told = [
        (long.as_str(), BadText, "The text has 121 characters, which is too long.", "Write 0 to 120 characters on one line."),
        (many.as_str(), OutOfRange, "A card of 169 lines is longer than any panel.", "Up to 168 are taken."),
        (low.as_str(), OutOfRange, "A row of 0.5 mm cannot be right for a card.", "1 to 300 mm is taken."),
        (elsewhere, Unknown, "There is no such panel.", "Describe the panel first."),
        (none, OutOfRange, "0 stickers cannot be printed at once.", "1 to 2000 are taken."),
    ];
    all_are_refused(HOUSE, &told);
}

#[test]
fn tests_and_addresses_that_cannot_be() {
    let long = format!("address https://home.example/{}", "x".repeat(90));
    let house = format!("{HOUSE}\nroom Bath\npoint Bath gfci mirror\npoint Bath alarm smoke\npoint Bath light vanity");
    let no_button = "Record a GFCI or AFCI breaker, a GFCI receptacle or an alarm as such first.";
    let no_page = "Copy it from the browser's address bar: it begins with https:// or http:// and holds no blank.";
    let own = "Open the home network first (Share), and give the address that a phone in the house uses.";
    let shorter = "Give one of at most 100, so that the code on a card stays large enough for a camera.";
    let told = [
        ("tested vanity works", DoesNotFit, "Bath, vanity has no test button.", no_button),
        ("tested 1 works", DoesNotFit, "Breaker 1 has no test button.", no_button),
        ("tested smoke no_trip", DoesNotFit, "An alarm does not trip.", "Say whether it sounded."),
        ("tested mirror silent", DoesNotFit, "Only an alarm sounds.", "Say whether it tripped, and whether it stayed reset."),
        ("tests 0 1", OutOfRange, "Tests cannot come round every 0 months.", "Give 1 to 12 months."),
        ("tests 1 13", OutOfRange, "Tests cannot come round every 13 months.", "Give 1 to 12 months."),
        ("address javascript:alert(1)", OutOfRange, "That is not the address of a page.", no_page),
        ("address https://", OutOfRange, "That is not the address of a page.", no_page),
        ("address https://home.example/my house", OutOfRange, "That is not the address of a page.", no_page),
        ("address http://localhost:4750/h/x", DoesNotFit, "This address works on this machine alone.", own),
        ("address http://127.0.0.1:4750/h/x", DoesNotFit, "This address works on this machine alone.", own),
        ("address http://[::1]:4750/h/x", DoesNotFit, "This address works on this machine alone.", own),
        (long.as_str(), OutOfRange, "The address has 111 letters.", shorter),
    ];
    all_are_refused(&house, &told);
}

#[test]
fn troubles_that_cannot_be() {
    let odd = [
        (
            "trouble t2 door {\"works\": [\"nowhere\"]}",
            Unknown,
            "There is no such point.",
            "Name a point that is entered on the House screen.",
        ),
        ("looked t9 safety normal", Unknown, "Nothing of that id is wrong.", "Say first what is wrong."),
        ("looked t1 safety tripped 1", DoesNotFit, "This look cannot show that.", "Give one of the answers to this look."),
        ("looked t1 point door holds", DoesNotFit, "This look cannot show that.", "Give one of the answers to this look."),
        (
            "looked t1 volts range 120",
            DoesNotFit,
            "Volts are read here at outlets of 120 V alone.",
            "Look whether the appliance works, or read its volts in a trace.",
        ),
        ("looked t1 volts door 5000", OutOfRange, "5000 V cannot be read at an outlet.", "Give 0 to 1000 V."),
        ("looked t0 safety normal", StillNeeded, "This is over.", "Say anew what is wrong; what was recorded stays."),
        (
            "mended t0",
            DoesNotFit,
            "There is nothing to mend.",
            "Say first what was found; what works again by itself is over as it is.",
        ),
        ("trouble t0 door", StillNeeded, "This is over.", "Say it under a new id."),
        (
            "call 911x",
            OutOfRange,
            "That is not a number to call.",
            "Give digits, with + - ( ) . / or blanks between them; at most 30 in all.",
        ),
        (
            "fed door from hall",
            DoesNotFit,
            "A point cannot be fed from what is fed from it.",
            "Name the point that comes before it on the way from the panel.",
        ),
    ];
    let house = "panel 8\n1 20\nroom Hall\npoint Hall receptacle door\npoint Hall receptacle hall\npoint Hall appliance range\nrange is 240 V\nfed hall from door\n\
                 trouble t0 door\nover t0\ntrouble t1 door";
    all_are_refused(house, &odd);
}
