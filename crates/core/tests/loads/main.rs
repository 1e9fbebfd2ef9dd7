//! The engines of the loads, each against something that is not its own: worked data, exhaustive search, a solver of integer
//! programs, a circuit simulator, plain simulation.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod arranged;
mod circuits;
mod levelling;
mod peaks;
mod worked_data;
