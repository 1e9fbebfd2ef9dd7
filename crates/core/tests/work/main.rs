//! Ways to make room: the worked problems, and every plan of small panels, by rules written once more.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod every_plan;
mod jobs;
mod of_home;
mod plans_against_checks;
mod random_homes;
mod rules;
mod walked;
mod worked_problems;
