//! The door card: worded from what is proven, laid out as the panel is, fitted by arithmetic.

mod card;
mod fit_card;

pub use card::{Card, CardCell, CardText, CellKind, card};
pub use fit_card::{FitRequest, FittedCard, FittedCell, fit_card};
