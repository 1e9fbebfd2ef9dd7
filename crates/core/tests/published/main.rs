//! The main job against something outside the project: one file per source, the source named above each
//! value, "common practice" or "from memory" where that is so.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod breaker_against_wire;
mod directory_rule;
mod kinds_by_space;
mod legs_by_space;
mod loads;
mod receptacle_on_circuit;
mod sizing;
