//! Facts about other lines: struck out, and back in. They change nothing themselves; the logbook leaves the struck line out
//! when it folds.

use super::{Kind, facts};
use crate::logbook::{Draft, Home, Names};
use crate::model::{EntryId, Refusal};

facts! {
    /// An earlier line does not count.
    LineStruck {
        /// The line.
        line: EntryId,
    }
    /// A struck line counts again.
    LineRestored {
        /// The line.
        line: EntryId,
    }
}

impl Kind for LineStruck {
    fn fold(&self, _: &mut Home, _: &Draft) -> Result<(), Refusal> {
        Ok(())
    }
    fn words(&self, names: &Names<'_>) -> String {
        names.about_line("Struck out", &self.line)
    }
}

impl Kind for LineRestored {
    fn fold(&self, _: &mut Home, _: &Draft) -> Result<(), Refusal> {
        Ok(())
    }
    fn words(&self, names: &Names<'_>) -> String {
        names.about_line("Restored", &self.line)
    }
}
