//! A panel as it hangs there: spaces and legs, breakers and where they fit, what its label tells.
//! Always holds: no two breakers of a home share a space or half of one.

mod breaker;
mod details;
mod hung;
mod layout;
mod place;
mod slot;

pub(crate) use breaker::{ACROSS, housing_of, state_word};
pub use breaker::{Breaker, BreakerDetails, Housing, Kept, NeutralLead, OwnWords, Protection, State, Terminal, Tie};
pub use details::{Bond, Interior, MainAt, OtherSource, PanelDetails, Photo, PhotoOf, ServiceDisconnect, Tandems};
pub use hung::{HungCard, HungLine};
pub use layout::{
    CardSize, Columns, Leg, Numbering, Panel, PostRow, Service, Side, legs_of, place_in_words, position, volts_between,
};
pub(crate) use place::{downward, fits, numbers};
pub use slot::{Half, Slot, number_of};
