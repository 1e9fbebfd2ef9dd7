//! The loads of homes that are told in a few lines.

use super::*;
use crate::fixture::written;
use crate::model::BreakerId;
use crate::study::Study;

/// A kitchen and a schoolroom, each on a breaker of its own, everything proven.
const HOME: &str = "panel 12
    1 20 kitchen
    3 15 #14 schoolroom
    5-7 50/2 #6 oven
    2 15 spare
    room Kitchen
    room Schoolroom
    point Kitchen receptacle left
    point Kitchen receptacle right
    point Kitchen appliance oven
    oven is 240 V
    point Schoolroom receptacle window
    point Schoolroom receptacle stage
    proof left 1
    proof right 1
    proof window 3
    proof stage 3
    proof oven 5-7";

fn on<'a>(home: &'a Study, number: &str) -> &'a CircuitLoads {
    circuits(home).iter().find(|circuit| circuit.number == number).unwrap()
}

fn with(acts: &str) -> Study {
    written(&format!("{HOME}\n{acts}")).home
}

#[test]
fn a_circuit_is_said_in_a_sentence() {
    let said = |acts: &str, number: &str| on(&with(acts), number).sentence.clone();
    assert_eq!(said("", "1"), "Nobody has said yet what is on it.");
    assert_eq!(said("", "2"), "Nothing is known to be on it.");
    assert_eq!(said("load left kettle", "1"), "12.5 A expected of 20.0 A.");
    assert_eq!(
        said("load left kettle\nload right toaster", "1"),
        "12.5 A expected of 20.0 A. All on at once, 20.8 A: the breaker may trip, and it may hold for ever."
    );
    assert_eq!(
        said("load window space_heater\nload stage space_heater", "3"),
        "25.0 A expected, which is more than its breaker, 15.0 A."
    );
    assert_eq!(
        said("load oven plate 240 V 9600 W: bread oven\nwith-load oven-oven {\"continuous\": true}", "5-7"),
        "40.0 A expected; what runs three hours or more counts 125 %, which makes 50.0 A of 50.0 A."
    );
}

#[test]
fn a_reading_goes_before_the_plate_and_the_plate_before_the_library() {
    let amps = |acts: &str| on(&with(acts), "1").loads[0].amps;
    assert_eq!(amps("load left microwave"), 12.72);
    assert_eq!(amps("load left microwave\nwith-load left-microwave {\"draw\": {\"from\": \"plate\", \"watts\": 1500}}"), 13.16);
    assert_eq!(amps("load left microwave\nwatts left-microwave 1140"), 10.0);
    // The utility's meter: 7.2 Wh a turn, 2 turns in 72 s before, 12 after: 200 W before, 1200 W after.
    let turns = r#"load left toaster
        fact {"kind":"reading_taken","target":{"of":"load","load":"left-toaster"},"with":"utility_meter","value":{"unit":"meter_turns","wh_each":7.2,"before":{"count":2,"seconds":259.2},"after":{"count":12,"seconds":259.2}}}"#;
    assert_eq!(amps(turns), 8.33);
    assert_eq!(amps("load left 2 x toaster"), 16.67);
}

#[test]
fn what_is_not_known_is_an_interval_and_never_nothing() {
    let home = with("load window unknown dehumidifier");
    let circuit = on(&home, "3");
    let line = &circuit.loads[0];
    assert_eq!((line.low, line.high, line.taken_from.clone()), (0.0, 12.0, TakenFrom::NotKnown));
    assert!(circuit.connected > 0.0 && circuit.between == [0.0, 12.0]);
    // With a heater beside it what it takes decides.
    let always = r#"{"usage": {"minutes": 60, "uses_per_day": 24, "when": ["any"]}}"#;
    let home = with(&format!(
        "load window unknown dehumidifier\nload stage plate 1000 W: heater
         with-load window-dehumidifier {always}\nwith-load stage-heater {always}"
    ));
    let close = on(&home, "3");
    assert_eq!((close.stands, close.read_next.as_deref()), (Stands::TooClose, Some("dehumidifier")));
    assert!(close.sentence.starts_with("Too close to call: between "), "{}", close.sentence);
}

#[test]
fn what_runs_together_is_one_and_what_excludes_one_another_never_adds_up() {
    let together = with(
        "load left furnace\nload right ac_blower\nwith-load right-ac-blower {\"usage\": {\"minutes\": 12, \"uses_per_day\": 36, \"when\": [\"any\"]}, \"with\": \"left-furnace\"}",
    );
    assert_eq!(together.loads().all().count(), 2);
    let apart = with(
        "load left dishwasher_heat\nload left dishwasher_wash
         with-load left-dishwasher-wash {\"never_with\": [\"left-dishwasher-heat\"]}",
    );
    let circuit = on(&apart, "1");
    assert_eq!((circuit.connected, circuit.not_together.len()), (10.0, 0));
}

#[test]
fn ticking_what_runs_tells_the_latest_time() {
    let home = with("load window space_heater\nload stage space_heater");
    let breaker = &on(&home, "3").breaker;
    let at = |loads: &[&str]| {
        let loads: Vec<_> = loads.iter().map(|load| load.parse().unwrap()).collect();
        let at = while_running(&home, breaker, &loads).unwrap();
        (at.amps, at.words)
    };
    assert_eq!(at(&["window-space-heater"]), (12.5, "The breaker holds this.".into()));
    let both = at(&["window-space-heater", "stage-space-heater"]);
    assert_eq!(both, (25.0, "The breaker must have tripped within an hour; it may trip much sooner.".into()));
    assert!(while_running(&home, &"gone".parse::<BreakerId>().unwrap(), &[]).is_none());
}

#[test]
fn a_load_moves_to_the_lightest_circuit_first() {
    let home = with("load window space_heater\nload stage space_heater\nload left kettle");
    let moves = load_moves(&home, &"stage-space-heater".parse().unwrap()).unwrap();
    assert_eq!((moves.expected_without, moves.to.len()), (12.5, 1));
    assert_eq!((moves.to[0].number.as_str(), moves.to[0].expected_then), ("1", 12.5));
    assert!(load_moves(&home, &"gone".parse().unwrap()).is_none());
}

#[test]
fn rules_speak_of_single_loads_on_shared_circuits() {
    let notes = |acts: &str, number: &str| -> Vec<String> {
        on(&with(acts), number).notes.iter().map(|note| note.words.clone()).collect()
    };
    assert!(notes("load window space_heater", "3").is_empty(), "alone on it");
    let shared = notes("load window space_heater\nload stage tv", "3");
    assert_eq!(shared, ["The portable heater takes 12.5 A, more than 80 % of the breaker, on a circuit that it shares."]);
    let plate = notes("load oven plate min 40 A max 40 A 240 V: oven", "5-7");
    assert_eq!(plate, ["The plate of the oven allows a breaker of 40 A at most; this one has 50 A."]);
    let furnace = notes("load left furnace\nload right tv", "1");
    assert_eq!(furnace, ["The gas furnace blower heats the house and should be alone on its circuit."]);
    assert!(notes("rules cec2024\nload window space_heater\nload stage tv", "3").is_empty(), "Canada's rule is not known here");
}

/// Common practice: the heavier leg alone decides a two-pole feeder. 31 A on one leg of a 30 A feeder is overloaded.
#[test]
fn the_heavier_leg_of_a_feeder_decides() {
    let home = written(
        "panel 12\n5-7 30/2 #10 shed\n1 20 kitchen\nsub Shed 6 5-7\nshed: 1 20 left\nshed: 5 20 right\nshed: 3 20 other
         room Shed\npoint Shed receptacle one\npoint Shed receptacle two\npoint Shed receptacle three
         proof one S1\nproof two S5\nproof three S3
         load one plate 16 A: heater\nload two plate 15 A: saw\nload three plate 5 A: lamp
         with-load one-heater {\"usage\": {\"minutes\": 60, \"uses_per_day\": 24, \"when\": [\"any\"]}}
         with-load two-saw {\"usage\": {\"minutes\": 60, \"uses_per_day\": 24, \"when\": [\"any\"]}}
         with-load three-lamp {\"usage\": {\"minutes\": 60, \"uses_per_day\": 24, \"when\": [\"any\"]}}",
    )
    .home;
    let feeder = circuits(&home).iter().find(|circuit| circuit.number == "5-7").unwrap();
    assert_eq!((feeder.expected, feeder.stands, feeder.feeds.as_deref()), (31.0, Stands::Over, Some("Shed")));
    let shed = legs_view(&home).panels.into_iter().find(|panel| panel.name == "Shed").unwrap();
    assert_eq!(shed.legs.iter().map(|leg| leg.expected).collect::<Vec<_>>(), [31.0, 5.0]);
    assert_eq!((shed.rating, shed.rating_is, shed.neutral), (Some(30.0), "feeder breaker", 26.0));
    assert_eq!(
        shed.sentence,
        "Leg A: 31.0 A expected, the feeder breaker carries 30 A: it is overloaded, though 30 A on each leg could be carried."
    );
    assert_eq!(format!("{:?}", shed.new_load_on), "B");
}
