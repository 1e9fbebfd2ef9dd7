//! The panel: its spaces, legs and breakers.
//!
//! In: a panel's description and its breakers. Out: where a space sits and on which leg
//! ([`legs_of`]), whether a breaker fits ([`place::fits`]), a typed card understood
//! ([`read_card`]), the fingerpost ([`post`]).
//! Always holds: no two breakers of a [`crate::Home`] share a space or half of one.

mod breaker;
mod details;
mod layout;
pub(crate) mod place;
pub(crate) mod places;
pub(crate) mod post;
mod read_card;
mod read_sheet;
mod slot;
mod write_card;

pub(crate) use breaker::housing_of;
pub use breaker::{Breaker, BreakerDetails, Housing, NeutralLead, Protection, State, Terminal, Tie};
pub use details::{Bond, Interior, MainAt, OtherSource, PanelDetails, Photo, PhotoOf, ServiceDisconnect, Tandems};
pub use layout::{
    CardSize, Columns, Leg, Numbering, Panel, PostRow, Service, Side, legs_of, place_in_words, position, volts_between,
};
pub use places::{Moves, Place, moves, places};
pub use post::{Blade, FeedsPanel, OpenSpace, Part, Post, SpaceSpot, post, posts};
pub use read_card::{CardLine, LabelOutcome, preview_card, read_card};
pub use read_sheet::{ColumnRole, PassedOver, SheetRead, read_sheet};
pub use slot::{Half, Slot, number_of};
pub use write_card::write_card;
