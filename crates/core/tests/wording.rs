//! How circuits are worded: every block of `data/wordings.txt` is a home, every line of it a circuit with the words that are wanted.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::collections::BTreeSet;
use std::fmt::Write as _;

use wayfinder_core::{PanelId, Printed, card, panel_view};
use wayfinder_fixture::written;

/// The acts of a block, and the words wanted, circuit by circuit.
fn read(block: &str) -> (String, Vec<String>) {
    let (mut acts, mut wanted, mut rooms) = (String::from("panel 42\n"), Vec::new(), Vec::<String>::new());
    let (mut proofs, mut point) = (String::new(), 0);
    for line in block.lines().filter(|line| !line.trim_start().starts_with('#')) {
        if let Some(room) = line.strip_prefix("room ") {
            writeln!(acts, "fact {{\"kind\":\"room_placed\",\"room\":\"r{}\",\"name\":\"{room}\"}}", rooms.len()).unwrap();
            rooms.push(room.trim().to_owned());
        } else if let Some(words) = line.strip_prefix("circuit ") {
            wanted.push(words.to_owned());
            writeln!(acts, "{} 20 circuit {}", wanted.len(), wanted.len()).unwrap();
        } else if !line.trim().is_empty() {
            let parts: Vec<&str> = line.split(" / ").map(str::trim).collect();
            let room = rooms.iter().position(|room| room == parts[0]).unwrap_or_else(|| panic!("{line}"));
            point += 1;
            writeln!(
                acts,
                "fact {{\"kind\":\"point_placed\",\"point\":\"p{point}\",\"room\":\"r{room}\",\"point_kind\":\"{}\",\"name\":\"{}\",\"volts\":120}}",
                parts[1], parts[2]
            )
            .unwrap();
            for load in parts.get(3).iter().flat_map(|loads| loads.split(',')) {
                writeln!(acts, "load p{point} {load}").unwrap();
            }
            writeln!(proofs, "proof p{point} {}", wanted.len()).unwrap();
        }
    }
    (acts + &proofs, wanted)
}

#[test]
fn circuits_are_worded_as_wanted() {
    let text = include_str!("data/wordings.txt");
    let (mut seen, mut wrong) = (0, Vec::new());
    for block in text.split("\n\n").skip(1) {
        let (acts, wanted) = read(block);
        let home = written(&acts).home;
        let main: PanelId = "main".parse().unwrap();
        let view = panel_view(&home, &main).unwrap();
        for (n, wanted) in wanted.iter().enumerate() {
            let number = (n + 1).to_string();
            let said = &view.breakers.iter().find(|breaker| breaker.number == number).unwrap().wording;
            seen += 1;
            if said != wanted {
                wrong.push(format!("wanted {wanted}\n   got {said}"));
            }
        }
        let words: BTreeSet<&String> = view.breakers.iter().map(|breaker| &breaker.wording).collect();
        assert_eq!(words.len(), wanted.len(), "two circuits read the same");
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    assert!(seen >= 60, "only {seen} circuits");
}

/// Where nothing is proven the card says why, each in its own word: unknown is not spare, spare is not unused.
#[test]
fn what_is_not_proven_has_a_word_of_its_own() {
    let said = |acts: &str| -> Vec<String> {
        let home = written(acts).home;
        let card = card(&home, &"main".parse().unwrap(), Printed { date: "2026-11-30", by: "" }).unwrap();
        card.cells.into_iter().map(|cell| cell.text).collect()
    };
    assert_eq!(said("panel 4\n1 20"), ["Unknown", "Unused", "Unused", "Unused"], "no point is entered yet");
    let looked = "panel 4\n1 20\n3 20\nroom Hall\npoint Hall light one\npoint Hall light two\nproof one 1\n";
    assert_eq!(said(looked)[1], "Not proven", "the other light may be on it");
    let all = "panel 4\n1 20\n3 20\nroom Hall\npoint Hall light one\nproof one 1\n";
    assert!(said(all)[1].starts_with("Spare: nothing known is on it"), "{:?}", said(all));
    let fed = "panel 8\n5-7 40/2 shed\nsub Shed 8 5-7\n";
    assert!(said(fed).contains(&"Feeds Shed, 8 spaces".to_owned()), "{:?}", said(fed));
}
