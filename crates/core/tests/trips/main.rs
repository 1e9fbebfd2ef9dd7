//! The search for a fault on made-up houses with proven answers, and its rules of safety.
#![allow(clippy::unwrap_used)]

mod in_a_home;
mod lesson;
mod stops;
mod worked_faults;

use std::io::Read;

use flate2::read::GzDecoder;
use wayfinder_core::trips::FaultGame;

/// The worked faults: `data/faults.jsonl` with their houses.
fn games() -> Vec<FaultGame> {
    let text = |packed: &[u8]| {
        let mut text = String::new();
        GzDecoder::new(packed).read_to_string(&mut text).unwrap();
        text
    };
    let houses = text(include_bytes!("../data/faults-houses.jsonl.gz"));
    let faults = text(include_bytes!("../data/faults.jsonl.gz"));
    FaultGame::read_all(&houses, &faults).unwrap()
}
