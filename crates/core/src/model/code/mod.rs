//! Rule tables of the trade, as data with their source. Local codes and licensed practice come first.

mod box_fill;
mod conduit;
mod derate;
mod edition;
mod ground;
mod motor;
mod place;
mod receptacle;
mod wire;

pub use box_fill::{InBox, box_fill, inches3_per_wire};
pub use conduit::{Tubing, fits_tubing, inches2_of_thhn, most_in_tubing, share_of_conduit};
pub(crate) use derate::DERATED_BY;
pub use derate::{Derated, Insulation, derated};
pub use edition::Edition;
pub(crate) use edition::{InCanada, Sections};
pub use ground::{circular_mils, equipment_ground};
pub use motor::{MotorCircuit, motor_amps, motor_circuit};
pub(crate) use place::{Outlet, Place};
pub use receptacle::{Configuration, breakers_for};
pub(crate) use wire::standard_at_or_above;
pub use wire::{Cable, Metal, Terminals, Wire, WireGauge, ampacity, is_standard, largest_breaker, largest_service};
