//! The demo home: a logbook fixture that ships with the program.

use wayfinder_core::{HomeId, Logbook};
use wayfinder_formats::read_home_file;

const JUNIPER_LANE: &[u8] = include_bytes!("../demo/juniper-lane.json");

/// The id of the demo home.
pub const DEMO_HOME: &str = "juniper-lane";

/// The demo home as shipped.
pub(crate) fn juniper_lane() -> (HomeId, Logbook) {
    let (file, book) = read_home_file(JUNIPER_LANE).unwrap_or_else(|error| panic!("the demo home: {error}; this is a bug"));
    (file.home, book)
}

impl crate::Desk {
    /// Puts the demo home in, unless it is there.
    pub fn set_up_demo(&self) -> Result<(), crate::DeskError> {
        let (home, book) = juniper_lane();
        match self.book(&home) {
            Ok(_) => Ok(()),
            Err(crate::DeskError::NoSuchHome) => self.replace(&home, book),
            Err(error) => Err(error),
        }
    }

    /// Puts the demo home back as shipped.
    pub fn reset_demo(&self) -> Result<HomeId, crate::DeskError> {
        let (home, book) = juniper_lane();
        self.replace(&home, book)?;
        Ok(home)
    }
}
