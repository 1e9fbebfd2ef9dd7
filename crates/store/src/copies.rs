//! Copies of a data folder: looked into, written while the program runs, put back.

use std::fs;
use std::io;
use std::path::{Path, PathBuf};
use std::time::Duration;

use rusqlite::backup::{Backup, StepResult};
use rusqlite::{Connection, OpenFlags};
use tempfile::TempDir;
use wayfinder_core::{HomeId, Line};

use crate::chain::{self, Damage};
use crate::{CHAINED_FROM, DATABASE, StoreError, StoredHome, StoredPhoto, all_homes, migrations, private_file, read_photo};

/// A data folder, or a copy of one, that is read and never written to: also while the program writes, and where nobody may write.
#[derive(Debug)]
pub struct ReadOnly {
    connection: Connection,
    chained: bool,
    _copied: Option<TempDir>,
}

/// A home in a copy.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Kept {
    /// The home.
    pub home: StoredHome,
    /// How many of its lines can be read.
    pub lines: u64,
    /// What is wrong with the next one.
    pub damage: Option<Damage>,
}

impl ReadOnly {
    /// Opens a data folder, or the file of a copy.
    pub fn open(from: &Path) -> Result<Self, StoreError> {
        let file = if from.is_dir() { from.join(DATABASE) } else { from.to_owned() };
        if !file.is_file() {
            return Err(StoreError::NotOurs(from.to_owned()));
        }
        let (connection, _copied) = match look_into(&file) {
            Ok(connection) => (connection, None),
            // SQLite has to write beside the file to see what is in its log. Where it may not, it looks into a copy.
            Err(_) => {
                let copied = copied(&file).map_err(|error| StoreError::folder(from, error))?;
                (look_into(&copied.path().join(DATABASE))?, Some(copied))
            }
        };
        let version: i64 = connection.pragma_query_value(None, "user_version", |row| row.get(0))?;
        if version == 0 {
            return Err(StoreError::NotOurs(from.to_owned()));
        }
        let newest = migrations().pending_migrations(&connection).unwrap_or(-1);
        if newest < 0 {
            return Err(StoreError::Newer(from.to_owned()));
        }
        Ok(Self { chained: version >= CHAINED_FROM, connection, _copied })
    }

    /// Every home, by id, also where the list of homes itself is damaged.
    pub fn homes(&self) -> Result<Vec<StoredHome>, StoreError> {
        all_homes(&self.connection).or_else(|_| {
            let mut statement = self.connection.prepare("SELECT DISTINCT home FROM lines")?;
            let ids = statement.query_map([], |row| row.get::<_, String>(0))?.map_while(Result::ok);
            let home = |id: String| Some(StoredHome { id: id.parse().ok()?, archived: false, deleted: None });
            let homes = ids.filter_map(home).collect();
            Ok(homes)
        })
    }

    /// The lines of a home up to the first that is not as it was written; and what is wrong with that one.
    pub fn lines_up_to_damage(&self, home: &HomeId) -> Result<(Vec<Line>, Option<Damage>), StoreError> {
        chain::read(&self.connection, home, self.chained)
    }

    /// The photos of a home that can be read.
    pub fn photos(&self, home: &HomeId) -> Vec<StoredPhoto> {
        let ids = || -> rusqlite::Result<Vec<String>> {
            let mut statement = self.connection.prepare("SELECT photo FROM photos WHERE home = ?1 ORDER BY photo")?;
            let ids = statement.query_map([home.as_str()], |row| row.get(0))?;
            Ok(ids.map_while(Result::ok).collect())
        };
        let ids = ids().unwrap_or_default().into_iter().filter_map(|id| id.parse().ok());
        ids.filter_map(|id| read_photo(&self.connection, home, &id).ok().flatten()).collect()
    }

    /// The settings that can be read.
    pub fn settings(&self) -> Vec<(String, String)> {
        let read = || -> rusqlite::Result<Vec<_>> {
            let mut statement = self.connection.prepare("SELECT name, value FROM settings")?;
            let rows = statement.query_map([], |row| Ok((row.get(0)?, row.get(1)?)))?;
            rows.collect()
        };
        read().unwrap_or_default()
    }

    /// What SQLite itself finds wrong with the file; nothing where it is sound.
    pub fn wrong_with_the_file(&self) -> Vec<String> {
        let found = || -> rusqlite::Result<Vec<String>> {
            let mut statement = self.connection.prepare("PRAGMA integrity_check(20)")?;
            let rows = statement.query_map([], |row| row.get(0))?;
            rows.collect()
        };
        match found() {
            Ok(said) if said == ["ok"] => Vec::new(),
            Ok(said) => said,
            Err(error) => vec![error.to_string()],
        }
    }

    /// Every home with what is wrong with it.
    pub fn check(&self) -> Result<Vec<Kept>, StoreError> {
        let check = |home: StoredHome| {
            let (lines, damage) = self.lines_up_to_damage(&home.id)?;
            Ok(Kept { lines: lines.len() as u64, damage, home })
        };
        self.homes()?.into_iter().map(check).collect()
    }
}

fn look_into(file: &Path) -> Result<Connection, StoreError> {
    let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let connection = Connection::open_with_flags(file, flags)?;
    connection.busy_timeout(Duration::from_secs(5))?;
    // Opening reads nothing yet.
    connection.query_row("SELECT count(*) FROM sqlite_schema", [], |row| row.get::<_, i64>(0))?;
    Ok(connection)
}

/// A copy of the file, and of its log, where this program may write.
fn copied(file: &Path) -> io::Result<TempDir> {
    let folder = tempfile::tempdir()?;
    fs::copy(file, folder.path().join(DATABASE))?;
    let log = beside(file, "-wal");
    if log.is_file() {
        fs::copy(log, folder.path().join(format!("{DATABASE}-wal")))?;
    }
    for copy in fs::read_dir(folder.path())? {
        private_file(&copy?.path())?;
    }
    Ok(folder)
}

fn beside(file: &Path, end: &str) -> PathBuf {
    let mut name = file.as_os_str().to_owned();
    name.push(end);
    name.into()
}

/// Writes a copy of a data folder into one file, as it is at one moment, also while the program writes there. The copy is looked
/// through before it gets its name; what that finds is given.
pub fn backup(folder: &Path, to: &Path) -> Result<Vec<Kept>, StoreError> {
    let from = ReadOnly::open(folder)?;
    if to.exists() {
        return Err(StoreError::IsThere(to.to_owned()));
    }
    let unfinished = beside(to, ".unfinished");
    let written = write_copy(&from.connection, &unfinished).and_then(|()| {
        let copy = ReadOnly::open(&unfinished)?;
        Ok((copy.wrong_with_the_file(), copy.check()?))
    });
    let named = written.and_then(|(wrong, kept)| {
        if let Some(first) = wrong.into_iter().next() {
            return Err(StoreError::FileDamaged(first));
        }
        put_in_place(&unfinished, to).map_err(|error| StoreError::folder(to, error))?;
        Ok(kept)
    });
    if named.is_err() {
        let _ = fs::remove_file(&unfinished);
    }
    named
}

fn write_copy(from: &Connection, file: &Path) -> Result<(), StoreError> {
    drop(private_file(file).map_err(|error| StoreError::folder(file, error))?);
    let mut copy = Connection::open(file)?;
    // In one step: whoever writes meanwhile writes into the log, and the copy is of the moment when it began.
    {
        let backup = Backup::new(from, &mut copy)?;
        let mut tries = 0;
        while backup.step(-1)? != StepResult::Done {
            tries += 1;
            if tries > 200 {
                return Err(StoreError::Busy);
            }
            std::thread::sleep(Duration::from_millis(50));
        }
    }
    // One file, with no log beside it.
    copy.pragma_update_and_check(None, "journal_mode", "DELETE", |_| Ok(()))?;
    Ok(())
}

/// Gives the finished file its name, on disk when this returns. A file that came there meanwhile is not written over.
fn put_in_place(unfinished: &Path, to: &Path) -> io::Result<()> {
    fs::File::open(unfinished)?.sync_all()?;
    fs::hard_link(unfinished, to).or_else(|error| match error.kind() {
        io::ErrorKind::AlreadyExists => Err(error),
        // Not every file system has links.
        _ => fs::rename(unfinished, to),
    })?;
    let _ = fs::remove_file(unfinished);
    if let Some(folder) = to.parent().filter(|folder| !folder.as_os_str().is_empty()) {
        fs::File::open(folder)?.sync_all()?;
    }
    Ok(())
}

/// Puts a copy that is sound into a folder that is empty or not there yet.
pub fn restore(copy: &Path, folder: &Path) -> Result<Vec<Kept>, StoreError> {
    let from = ReadOnly::open(copy)?;
    let kept = from.check()?;
    let wrong = from.wrong_with_the_file().into_iter().next();
    let wrong = wrong.or_else(|| {
        let damage = kept.iter().find_map(|kept| kept.damage.as_ref())?;
        Some(format!("home {}, {damage}", damage.home))
    });
    if let Some(wrong) = wrong {
        return Err(StoreError::CopyDamaged(copy.to_owned(), wrong));
    }
    let folder_error = |error| StoreError::folder(folder, error);
    if fs::read_dir(folder).is_ok_and(|mut there| there.next().is_some()) {
        return Err(StoreError::IsThere(folder.to_owned()));
    }
    crate::make_private_folder(folder).map_err(folder_error)?;
    let unfinished = folder.join("restored.unfinished");
    write_copy(&from.connection, &unfinished)?;
    put_in_place(&unfinished, &folder.join(DATABASE)).map_err(folder_error)?;
    Ok(kept)
}
