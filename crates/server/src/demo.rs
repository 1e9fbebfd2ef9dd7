//! The demo homes: logbook fixtures that ship with the program.

use wayfinder_core::{HomeId, Logbook};
use wayfinder_formats::read_home_file;

const JUNIPER_LANE: &[u8] = include_bytes!("../demo/juniper-lane.json");
const TANYARD_FLAT: &[u8] = include_bytes!("../demo/tanyard-flat.json");

/// The id of the first demo home.
pub const DEMO_HOME: &str = "juniper-lane";

/// The demo homes as shipped.
fn demo_homes() -> impl Iterator<Item = (HomeId, Logbook)> {
    [JUNIPER_LANE, TANYARD_FLAT].into_iter().map(|bytes| {
        let (file, book) = read_home_file(bytes).unwrap_or_else(|error| panic!("a demo home: {error}; this is a bug"));
        (file.home, book)
    })
}

impl crate::Desk {
    /// Puts the demo homes in, each unless it is there.
    pub fn set_up_demo(&self) -> Result<(), crate::DeskError> {
        for (home, book) in demo_homes() {
            match self.home(&home) {
                // One that was deleted stays so until it is taken back or the demo is reset; so does one that is damaged.
                Ok(_) | Err(crate::DeskError::Deleted | crate::DeskError::Damaged(_)) => {}
                Err(crate::DeskError::NoSuchHome) => self.replace(&home, book)?,
                Err(error) => return Err(error),
            }
        }
        Ok(())
    }

    /// Puts the demo homes back as shipped.
    pub fn reset_demo(&self) -> Result<Vec<HomeId>, crate::DeskError> {
        let homes: Vec<_> = demo_homes().collect();
        homes
            .into_iter()
            .map(|(home, book)| {
                self.replace(&home, book)?;
                Ok(home)
            })
            .collect()
    }
}
