//! What can be saved from a damaged data folder.

use std::path::Path;

use wayfinder_core::HomeId;
use wayfinder_store::{Damage, ReadOnly, Store, StoreError};

use crate::desk::readable;

/// A home that was saved.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Salvaged {
    /// Its id.
    pub home: HomeId,
    /// How many of its lines were saved, from the first on.
    pub lines: u64,
    /// What is wrong with the next one; nothing where all were saved.
    pub damage: Option<Damage>,
}

/// Writes into a new data folder whatever can be read of a damaged one: every home that reads, and of each other one the lines up
/// to the damage. The damaged folder is only read.
pub fn salvage(from: &Path, to: &Path) -> Result<Vec<Salvaged>, StoreError> {
    let damaged = ReadOnly::open(from)?;
    if std::fs::read_dir(to).is_ok_and(|mut there| there.next().is_some()) {
        return Err(StoreError::IsThere(to.to_owned()));
    }
    let store = Store::open(to)?;
    for (name, value) in damaged.settings() {
        store.set_setting(&name, &value)?;
    }
    let mut saved = Vec::new();
    for home in damaged.homes()? {
        let (lines, damage) = damaged.lines_up_to_damage(&home.id)?;
        let (book, damage) = readable(&home.id, &lines, damage);
        if book.seq() > 0 {
            store.replace(&home.id, book.lines().cloned().collect(), damaged.photos(&home.id))?;
            store.set_archived(&home.id, home.archived)?;
            store.set_deleted(&home.id, home.deleted)?;
        }
        saved.push(Salvaged { home: home.id, lines: book.seq(), damage });
    }
    Ok(saved)
}
