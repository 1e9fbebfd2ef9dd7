//! Open formats in and out: the home file (JSON) and the door card (PDF).
//!
//! Bytes in, bytes out: no files are opened here. What the card says and where it stands is worked out
//! by the core; this crate draws it.

mod door_card_pdf;
mod fonts;
mod home_file;

pub use door_card_pdf::{PdfError, Sheet, door_card_pdf};
pub use home_file::{HomeFile, HomeFileError, read_home_file, write_home_file};
