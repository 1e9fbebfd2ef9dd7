//! The door card: worded from what is proven, laid out as the panel is, fitted by arithmetic; own words over it, and where they no
//! longer match.

mod card;
mod changed;
mod does;
mod drift;
mod fit_card;
mod hanging;
mod notes;
mod sheet;
mod stickers;
mod tests_due;

pub use card::{Card, CardCell, CardText, CellKind, Printed, card};
pub use drift::{Drift, drifts};
pub use fit_card::{CardFaces, CardTooSmall, FitRequest, FittedCard, FittedCell, FittedText, fit_card, wrapped};
pub use hanging::{HangingCard, WrongLine, hanging, to_hang};
pub use sheet::{DIRECTORY_COLUMNS, WordsProposed, WordsRead, directory_rows, read_words};
pub use stickers::{Sticker, stickers};
pub(crate) use tests_due::of_device;
pub use tests_due::{DeviceTest, tests_due};
