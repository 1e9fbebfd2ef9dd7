//! The panel: its spaces, legs and breakers.
//!
//! In: a panel's description and its breakers. Out: where a space sits and on which leg
//! ([`legs_of`]), whether a breaker fits ([`place::fits`]), a typed card understood
//! ([`read_card`]), the fingerpost ([`post`]).
//! Always holds: no two breakers of a [`crate::Home`] share a space or half of one.

mod breaker;
mod layout;
pub(crate) mod place;
pub(crate) mod post;
mod read_card;
mod slot;

pub use breaker::{Breaker, Protection, State};
pub use layout::{CardSize, Columns, Leg, Numbering, Panel, Service, Side, legs_of, place_in_words, position, volts_between};
pub use post::{Blade, OpenSpace, Post, PostRow, post};
pub use read_card::{CardLine, LabelOutcome, read_card};
pub use slot::{Half, Slot, number_of};
