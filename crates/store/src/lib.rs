//! The logbooks of every home in one SQLite file.
//!
//! Lines in, lines out; what they mean is the core's affair. Always holds: what [`Store::append`] takes is written all or
//! none, on disk (`synchronous=FULL`) before it returns; sequences of a home have no gaps, and a chain over its lines (`chain.rs`)
//! shows what is missing or was altered. Several that append at once go to disk together (`writer.rs`).
//! One process writes in a data folder at a time: a lock file beside the database sees to it. [`ReadOnly`] reads beside it.

mod chain;
mod copies;
mod writer;

pub use chain::{Damage, DamageKind};
pub use copies::{Kept, ReadOnly, backup, restore};

use std::collections::BTreeMap;
use std::fs::{self, File, TryLockError};
use std::io;
use std::path::{Path, PathBuf};
use std::sync::Mutex;
use std::time::Duration;

use rusqlite::{Connection, ErrorCode, OptionalExtension, params};
use rusqlite_migration::{M, Migrations};
use wayfinder_core::{HomeId, Line, Moment, PhotoId};

use crate::writer::Writer;

/// What can go wrong with the data folder.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum StoreError {
    /// The disk is full.
    #[error("The disk is full. Nothing was written and nothing was lost; make room and try again.")]
    Full,
    /// Another process has the folder.
    #[error("The data folder {0} is in use by another Wayfinder. Stop that one first, or choose another folder.")]
    InUse(PathBuf),
    /// The database was written by a newer program.
    #[error("The data folder {0} was written by a newer Wayfinder. Use that one; nothing was changed.")]
    Newer(PathBuf),
    /// Somebody else appended first.
    #[error("The logbook of {home} has moved on: line {seq} is there already.")]
    Conflict {
        /// Which home.
        home: HomeId,
        /// The sequence that was to be written.
        seq: u64,
    },
    /// A home is not as it was written.
    #[error("The home {} is damaged: {}.", .0.home, .0)]
    Damaged(#[from] Damage),
    /// The database itself is.
    #[error(
        "The database is damaged; SQLite says: {0}. Put back a copy with `wayfinder restore`, or save what can be read with `wayfinder salvage`."
    )]
    FileDamaged(String),
    /// Somebody held the database for ten seconds.
    #[error("The database is held by another program. Nothing was written; try again.")]
    Busy,
    /// There is something where a copy was to go.
    #[error("{0} is there already. Nothing was written; name another.")]
    IsThere(PathBuf),
    /// Not a data folder, or not a copy of one.
    #[error("{0} is no Wayfinder data folder and no copy of one.")]
    NotOurs(PathBuf),
    /// A copy with damage is not put in the place of anything.
    #[error("The copy {0} is damaged, so nothing was put back: {1}. Save what can be read of it with `wayfinder salvage`.")]
    CopyDamaged(PathBuf, String),
    /// The folder cannot be made or opened.
    #[error("The data folder {0} cannot be used: {1}")]
    Folder(PathBuf, std::io::Error),
    /// Another photo has this id.
    #[error("Another photo has the id {photo} already.")]
    PhotoTaken {
        /// The id.
        photo: PhotoId,
    },
    /// The thread that writes is gone.
    #[error("The database is not written to any more. Start Wayfinder again; what was acknowledged is kept.")]
    Stopped,
    /// Anything else the database says.
    #[error("The database failed: {0}")]
    Database(#[source] rusqlite::Error),
}

impl StoreError {
    fn folder(path: &Path, error: io::Error) -> Self {
        match error.kind() {
            io::ErrorKind::StorageFull | io::ErrorKind::QuotaExceeded => Self::Full,
            _ => Self::Folder(path.to_owned(), error),
        }
    }
}

impl From<rusqlite::Error> for StoreError {
    fn from(error: rusqlite::Error) -> Self {
        match error.sqlite_error_code() {
            Some(ErrorCode::DiskFull) => Self::Full,
            // There is no room for the file by which readers and the writer find each other in the log.
            _ if error.sqlite_error().is_some_and(|error| error.extended_code == rusqlite::ffi::SQLITE_IOERR_SHMSIZE) => {
                Self::Full
            }
            Some(ErrorCode::DatabaseCorrupt | ErrorCode::NotADatabase) => Self::FileDamaged(error.to_string()),
            _ => Self::Database(error),
        }
    }
}

/// A photo as it is kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct StoredPhoto {
    /// Its id, made by whoever sent it.
    pub id: PhotoId,
    /// `image/jpeg`, `image/png` or `image/webp`.
    pub media: String,
    /// The file.
    pub bytes: Vec<u8>,
}

/// A home as the folder keeps it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct StoredHome {
    /// Its id.
    pub id: HomeId,
    /// It is in the archive.
    pub archived: bool,
    /// When it was deleted. Its lines and photos are kept until [`Store::clear_deleted`].
    pub deleted: Option<Moment>,
}

/// An open data folder. Whoever reads does not wait for whoever writes.
#[derive(Debug)]
pub struct Store {
    reader: Mutex<Connection>,
    writer: Writer,
    _lock: File,
}

impl Store {
    /// Opens the folder, makes it if it is not there, and brings the database up to date.
    pub fn open(folder: &Path) -> Result<Self, StoreError> {
        let folder_error = |error| StoreError::folder(folder, error);
        make_private_folder(folder).map_err(folder_error)?;
        let lock = private_file(&folder.join("wayfinder.lock")).map_err(folder_error)?;
        match lock.try_lock() {
            Ok(()) => {}
            Err(TryLockError::WouldBlock) => return Err(StoreError::InUse(folder.to_owned())),
            Err(TryLockError::Error(error)) => return Err(folder_error(error)),
        }
        let database = folder.join(DATABASE);
        // SQLite gives its log the rights of the database, so what was made by an older program is made private here, too.
        private_file(&database).map_err(folder_error)?;
        let connect = || -> Result<Connection, StoreError> {
            let connection = Connection::open(&database)?;
            connection.busy_timeout(Duration::from_secs(5))?;
            connection.pragma_update_and_check(None, "journal_mode", "WAL", |_| Ok(()))?;
            connection.pragma_update(None, "synchronous", "FULL")?;
            connection.pragma_update(None, "foreign_keys", "ON")?;
            Ok(connection)
        };
        let mut connection = connect()?;
        migrations().to_latest(&mut connection).map_err(|error| match error {
            rusqlite_migration::Error::MigrationDefinition(rusqlite_migration::MigrationDefinitionError::DatabaseTooFarAhead) => {
                StoreError::Newer(folder.to_owned())
            }
            rusqlite_migration::Error::RusqliteError { err, .. } => err.into(),
            other => StoreError::Database(rusqlite::Error::ToSqlConversionFailure(Box::new(other))),
        })?;
        Ok(Self { reader: Mutex::new(connect()?), writer: Writer::start(connection), _lock: lock })
    }

    fn read<T>(&self, read: impl FnOnce(&Connection) -> Result<T, StoreError>) -> Result<T, StoreError> {
        // Reading changes nothing, so whatever panicked while it read left the connection as it was.
        read(&self.reader.lock().unwrap_or_else(std::sync::PoisonError::into_inner))
    }

    /// Every home, by id, those in the archive and the deleted ones with them.
    pub fn homes(&self) -> Result<Vec<StoredHome>, StoreError> {
        self.read(all_homes)
    }

    /// When this home was deleted; none where it was not, or is not here.
    pub fn deleted(&self, home: &HomeId) -> Result<Option<Moment>, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached("SELECT deleted FROM homes WHERE id = ?1")?;
            let at: Option<Option<i64>> = statement.query_row([home.as_str()], |row| row.get(0)).optional()?;
            Ok(at.flatten().map(Moment::from_unix_ms))
        })
    }

    /// Where a home has gone; none where it is used here.
    pub fn moved_to(&self, home: &HomeId) -> Result<Option<String>, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached("SELECT moved FROM homes WHERE id = ?1")?;
            Ok(statement.query_row([home.as_str()], |row| row.get(0)).optional()?.flatten())
        })
    }

    /// Every home that has gone, and where.
    pub fn moved(&self) -> Result<BTreeMap<HomeId, String>, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached("SELECT id, moved FROM homes WHERE moved IS NOT NULL")?;
            let rows = statement.query_map([], |row| Ok((row.get::<_, String>(0)?, row.get::<_, String>(1)?)))?;
            let rows = rows.collect::<Result<Vec<_>, _>>()?.into_iter();
            Ok(rows.filter_map(|(home, to)| Some((home.parse().ok()?, to))).collect())
        })
    }

    /// Remembers where a home has gone.
    pub fn set_moved(&self, home: &HomeId, to: String) -> Result<(), StoreError> {
        let home = home.clone();
        self.writer.write(move |connection| {
            connection.execute("UPDATE homes SET moved = ?2 WHERE id = ?1", params![home.as_str(), to])?;
            Ok(())
        })
    }

    /// Takes in what a home has grown by elsewhere, all or nothing; from then on it is used here.
    pub fn come_back(&self, home: &HomeId, more: Vec<Line>, photos: Vec<StoredPhoto>) -> Result<(), StoreError> {
        let home = home.clone();
        self.writer.write(move |connection| {
            insert(connection, &home, &more)?;
            photos.iter().try_for_each(|photo| insert_photo(connection, &home, photo))?;
            connection.execute("UPDATE homes SET moved = NULL WHERE id = ?1", [home.as_str()])?;
            Ok(())
        })
    }

    /// Puts a home into the archive, or takes it out.
    pub fn set_archived(&self, home: &HomeId, archived: bool) -> Result<(), StoreError> {
        let home = home.clone();
        self.writer.write(move |connection| {
            connection.execute("UPDATE homes SET archived = ?2 WHERE id = ?1", params![home.as_str(), archived])?;
            Ok(())
        })
    }

    /// Deletes a home at that moment, or takes it back. Nothing of it is lost yet.
    pub fn set_deleted(&self, home: &HomeId, at: Option<Moment>) -> Result<(), StoreError> {
        let home = home.clone();
        self.writer.write(move |connection| {
            let at = at.map(Moment::unix_ms);
            connection.execute("UPDATE homes SET deleted = ?2 WHERE id = ?1", params![home.as_str(), at])?;
            Ok(())
        })
    }

    /// Removes for good what was deleted before that moment.
    pub fn clear_deleted(&self, before: Moment) -> Result<(), StoreError> {
        self.writer.write(move |connection| {
            connection.execute("DELETE FROM homes WHERE deleted < ?1", [before.unix_ms()])?;
            Ok(())
        })
    }

    /// The lines of a home, in order; none for a home that is not there.
    pub fn lines(&self, home: &HomeId) -> Result<Vec<Line>, StoreError> {
        match self.lines_up_to_damage(home)? {
            (lines, None) => Ok(lines),
            (_, Some(damage)) => Err(damage.into()),
        }
    }

    /// The lines of a home, in order, up to the first that is not as it was written; and what is wrong with that one.
    pub fn lines_up_to_damage(&self, home: &HomeId) -> Result<(Vec<Line>, Option<Damage>), StoreError> {
        self.read(|connection| chain::read(connection, home, true))
    }

    /// The first line of a home, as far as it can be read.
    pub fn first_line(&self, home: &HomeId) -> Result<Option<Line>, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached("SELECT body FROM lines WHERE home = ?1 AND seq = 1")?;
            let body: Option<String> = statement.query_row([home.as_str()], |row| row.get(0)).optional()?;
            Ok(body.and_then(|body| Some(Line { seq: 1, entry: serde_json::from_str(&body).ok()? })))
        })
    }

    /// What is wrong with the lines of a home, by the chain alone: quicker than [`Store::lines`], and what they say is not looked at.
    pub fn damage(&self, home: &HomeId) -> Result<Option<Damage>, StoreError> {
        self.read(|connection| chain::check(connection, home))
    }

    /// What programs of this build worked out of homes as they still are.
    pub fn summaries(&self, build: &str) -> Result<BTreeMap<HomeId, String>, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached(
                "SELECT home, body FROM summaries JOIN homes ON homes.id = home WHERE seq = homes.lines AND build = ?1",
            )?;
            let rows = statement.query_map([build], |row| Ok((row.get::<_, String>(0)?, row.get::<_, String>(1)?)))?;
            let rows = rows.collect::<Result<Vec<_>, _>>()?.into_iter();
            Ok(rows.filter_map(|(home, body)| Some((home.parse().ok()?, body))).collect())
        })
    }

    /// Keeps what a program of this build worked out of homes as they are at those lines. It follows from the lines, so losing it loses
    /// nothing.
    pub fn keep_summaries(&self, build: &str, made: Vec<(HomeId, u64, String)>) -> Result<(), StoreError> {
        if made.is_empty() {
            return Ok(());
        }
        let build = build.to_owned();
        self.writer.write(move |connection| {
            let mut keep = connection.prepare_cached(
                "INSERT OR REPLACE INTO summaries (home, seq, build, body) SELECT id, ?2, ?3, ?4 FROM homes WHERE id = ?1",
            )?;
            made.iter().try_for_each(|(home, seq, body)| Ok(keep.execute(params![home.as_str(), seq, build, body]).map(drop)?))
        })
    }

    /// Adds lines, all or none. They are on disk when this returns; what others append meanwhile goes to disk with them.
    pub fn append(&self, home: &HomeId, lines: Vec<Line>) -> Result<(), StoreError> {
        if lines.is_empty() {
            return Ok(());
        }
        let home = home.clone();
        self.writer.write(move |connection| insert(connection, &home, &lines))
    }

    /// Puts these lines and photos in the place of a home (a demo that is reset, a home taken in), all or nothing.
    pub fn replace(&self, home: &HomeId, lines: Vec<Line>, photos: Vec<StoredPhoto>) -> Result<(), StoreError> {
        let home = home.clone();
        self.writer.write(move |connection| {
            connection.execute("DELETE FROM homes WHERE id = ?1", [home.as_str()])?;
            insert(connection, &home, &lines)?;
            photos.iter().try_for_each(|photo| insert_photo(connection, &home, photo))
        })
    }

    /// Keeps a photo. The same one again is harmless; another one under an id that is taken is refused.
    pub fn put_photo(&self, home: &HomeId, photo: StoredPhoto) -> Result<(), StoreError> {
        let home = home.clone();
        self.writer.write(move |connection| insert_photo(connection, &home, &photo))
    }

    /// A photo; `None` when there is none of that id.
    pub fn photo(&self, home: &HomeId, photo: &PhotoId) -> Result<Option<StoredPhoto>, StoreError> {
        self.read(|connection| read_photo(connection, home, photo))
    }

    /// How many photos a home has.
    pub fn photo_count(&self, home: &HomeId) -> Result<usize, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached("SELECT count(*) FROM photos WHERE home = ?1")?;
            Ok(statement.query_row([home.as_str()], |row| row.get(0))?)
        })
    }

    /// Every photo of a home.
    pub fn photos(&self, home: &HomeId) -> Result<Vec<StoredPhoto>, StoreError> {
        self.read(|connection| all_photos(connection, home))
    }

    /// A setting of this installation.
    pub fn setting(&self, name: &str) -> Result<Option<String>, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached("SELECT value FROM settings WHERE name = ?1")?;
            Ok(statement.query_row([name], |row| row.get(0)).optional()?)
        })
    }

    /// Keeps a setting of this installation; a later one replaces it.
    pub fn set_setting(&self, name: &str, value: &str) -> Result<(), StoreError> {
        let (name, value) = (name.to_owned(), value.to_owned());
        self.writer.write(move |connection| {
            connection.execute("INSERT OR REPLACE INTO settings (name, value) VALUES (?1, ?2)", [&name, &value])?;
            Ok(())
        })
    }
}

/// The file in a data folder that holds everything.
pub(crate) const DATABASE: &str = "wayfinder.sqlite";

/// Makes the folder, for this user alone. One that is there already keeps its rights: others may have been given theirs on purpose.
fn make_private_folder(folder: &Path) -> io::Result<()> {
    if folder.is_dir() {
        return Ok(());
    }
    let mut builder = fs::DirBuilder::new();
    builder.recursive(true);
    #[cfg(unix)]
    std::os::unix::fs::DirBuilderExt::mode(&mut builder, 0o700);
    builder.create(folder)
}

/// Opens a file for writing, and makes it where it is not there; nobody but this user can read it.
pub(crate) fn private_file(path: &Path) -> io::Result<File> {
    let mut options = File::options();
    options.read(true).write(true).create(true).truncate(false);
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut options, 0o600);
    let file = options.open(path)?;
    #[cfg(unix)]
    {
        use std::os::unix::fs::PermissionsExt;
        // Where the file is another user's, they have to see to it.
        let _ = file.set_permissions(fs::Permissions::from_mode(0o600));
    }
    Ok(file)
}

fn all_homes(connection: &Connection) -> Result<Vec<StoredHome>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT id, archived, deleted FROM homes ORDER BY id")?;
    let rows =
        statement.query_map([], |row| Ok((row.get::<_, String>(0)?, row.get::<_, bool>(1)?, row.get::<_, Option<i64>>(2)?)))?;
    let homes = rows.collect::<Result<Vec<_>, _>>()?.into_iter();
    let home = |(id, archived, deleted): (String, bool, Option<i64>)| {
        Some(StoredHome { id: id.parse().ok()?, archived, deleted: deleted.map(Moment::from_unix_ms) })
    };
    Ok(homes.filter_map(home).collect())
}

fn insert(connection: &Connection, home: &HomeId, lines: &[Line]) -> Result<(), StoreError> {
    connection.execute("INSERT OR IGNORE INTO homes (id) VALUES (?1)", [home.as_str()])?;
    chain::extend(connection, home, lines)
}

fn all_photos(connection: &Connection, home: &HomeId) -> Result<Vec<StoredPhoto>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT photo FROM photos WHERE home = ?1 ORDER BY photo")?;
    let ids = statement.query_map([home.as_str()], |row| row.get::<_, String>(0))?.collect::<Result<Vec<_>, _>>()?;
    let ids = ids.into_iter().filter_map(|id| id.parse().ok());
    ids.filter_map(|id| read_photo(connection, home, &id).transpose()).collect()
}

fn insert_photo(connection: &Connection, home: &HomeId, photo: &StoredPhoto) -> Result<(), StoreError> {
    match read_photo(connection, home, &photo.id)? {
        Some(known) if known == *photo => Ok(()),
        Some(_) => Err(StoreError::PhotoTaken { photo: photo.id.clone() }),
        None => {
            let row = params![home.as_str(), photo.id.as_str(), photo.media, photo.bytes];
            connection.execute("INSERT INTO photos (home, photo, media, bytes) VALUES (?1, ?2, ?3, ?4)", row)?;
            Ok(())
        }
    }
}

fn read_photo(connection: &Connection, home: &HomeId, photo: &PhotoId) -> Result<Option<StoredPhoto>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT media, bytes FROM photos WHERE home = ?1 AND photo = ?2")?;
    let found = statement.query_row([home.as_str(), photo.as_str()], |row| {
        Ok(StoredPhoto { id: photo.clone(), media: row.get(0)?, bytes: row.get(1)? })
    });
    Ok(found.optional()?)
}

fn migrations() -> Migrations<'static> {
    Migrations::new(vec![
        M::up(include_str!("migrations/1.sql")),
        M::up(include_str!("migrations/2.sql")),
        M::up(include_str!("migrations/3.sql")),
        M::up(include_str!("migrations/4.sql")),
        M::up_with_hook(include_str!("migrations/5.sql"), |transaction: &rusqlite::Transaction<'_>| {
            Ok(chain::make(transaction)?)
        }),
        M::up(include_str!("migrations/6.sql")),
    ])
}

/// From this version of the database on, lines carry a chain.
pub(crate) const CHAINED_FROM: i64 = 5;

#[cfg(test)]
mod tests {
    use super::*;
    use wayfinder_core::{Draft, Fact, HomeDescribed};

    fn line(seq: u64) -> Line {
        line_named(seq, "Hut")
    }

    fn line_named(seq: u64, name: &str) -> Line {
        Line {
            seq,
            entry: Draft {
                id: format!("e{seq}").parse().unwrap(),
                at: Moment::from_unix_ms(0),
                by: "o".into(),
                instrument: None,
                version: 1,
                fact: Fact::HomeDescribed(HomeDescribed { name: name.into() }),
            },
        }
    }

    fn home() -> HomeId {
        "hut".parse().unwrap()
    }

    #[test]
    fn a_photo_is_kept_once_and_goes_with_its_home() {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(folder.path()).unwrap();
        let photo = StoredPhoto { id: "p1".parse().unwrap(), media: "image/png".into(), bytes: vec![1, 2, 3] };
        assert!(store.put_photo(&home(), photo.clone()).is_err(), "there is no such home");
        store.append(&home(), vec![line(1)]).unwrap();
        store.put_photo(&home(), photo.clone()).unwrap();
        store.put_photo(&home(), photo.clone()).unwrap();
        let other = StoredPhoto { bytes: vec![9], ..photo.clone() };
        assert!(matches!(store.put_photo(&home(), other.clone()), Err(StoreError::PhotoTaken { .. })));
        assert_eq!(store.photos(&home()).unwrap(), std::slice::from_ref(&photo));
        store.replace(&home(), vec![line(1)], vec![other.clone()]).unwrap();
        assert_eq!(store.photo(&home(), &photo.id).unwrap(), Some(other));
    }

    #[test]
    fn a_deleted_home_keeps_its_lines_until_it_is_cleared() {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(folder.path()).unwrap();
        store.append(&home(), vec![line(1)]).unwrap();
        let photo = StoredPhoto { id: "p1".parse().unwrap(), media: "image/png".into(), bytes: vec![1] };
        store.put_photo(&home(), photo).unwrap();
        store.set_archived(&home(), true).unwrap();
        let at = Moment::from_unix_ms(1_000);
        store.set_deleted(&home(), Some(at)).unwrap();
        drop(store);
        let store = Store::open(folder.path()).unwrap();
        assert_eq!(store.homes().unwrap(), [StoredHome { id: home(), archived: true, deleted: Some(at) }]);
        store.clear_deleted(at).unwrap();
        assert_eq!((store.deleted(&home()).unwrap(), store.lines(&home()).unwrap().len()), (Some(at), 1), "not before its time");
        store.set_deleted(&home(), None).unwrap();
        store.clear_deleted(Moment::from_unix_ms(i64::MAX)).unwrap();
        assert_eq!(store.lines(&home()).unwrap(), [line(1)], "taken back");
        store.set_deleted(&home(), Some(at)).unwrap();
        store.clear_deleted(Moment::from_unix_ms(1_001)).unwrap();
        assert_eq!(
            (store.homes().unwrap(), store.lines(&home()).unwrap(), store.photos(&home()).unwrap()),
            (vec![], vec![], vec![])
        );
    }

    #[test]
    fn a_setting_is_kept_and_replaced() {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(folder.path()).unwrap();
        assert_eq!(store.setting("passphrase").unwrap(), None);
        for value in ["one", "two"] {
            store.set_setting("passphrase", value).unwrap();
        }
        drop(store);
        assert_eq!(Store::open(folder.path()).unwrap().setting("passphrase").unwrap().as_deref(), Some("two"));
    }

    #[test]
    fn a_summary_counts_for_its_build_and_its_line_alone() {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(folder.path()).unwrap();
        store.append(&home(), vec![line(1)]).unwrap();
        let none: HomeId = "none".parse().unwrap();
        store.keep_summaries("one", vec![(home(), 1, "a hut".into()), (none, 1, "of no home".into())]).unwrap();
        let kept = |build: &str| store.summaries(build).unwrap().into_values().collect::<Vec<_>>();
        assert_eq!((kept("one"), kept("two")), (vec!["a hut".to_owned()], vec![]));
        store.append(&home(), vec![line(2)]).unwrap();
        assert_eq!(kept("one"), [""; 0], "the home has grown");
        store.keep_summaries("one", vec![(home(), 2, "a bigger hut".into())]).unwrap();
        store.replace(&home(), vec![line(1), line_named(2, "Mill")], vec![]).unwrap();
        assert_eq!(kept("one"), [""; 0], "it is another home");
    }

    #[test]
    fn the_migrations_are_sound() {
        migrations().validate().unwrap();
    }

    #[test]
    fn what_was_appended_is_there_after_reopening() {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(folder.path()).unwrap();
        store.append(&home(), vec![line(1), line(2)]).unwrap();
        store.append(&home(), vec![line(3)]).unwrap();
        drop(store);
        let store = Store::open(folder.path()).unwrap();
        assert_eq!(store.lines(&home()).unwrap(), [line(1), line(2), line(3)]);
        assert_eq!(store.homes().unwrap(), [StoredHome { id: home(), archived: false, deleted: None }]);
        drop(store);
        assert_eq!(ReadOnly::open(folder.path()).unwrap().wrong_with_the_file(), Vec::<String>::new());
    }

    #[test]
    fn a_batch_that_does_not_follow_writes_nothing() {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(folder.path()).unwrap();
        store.append(&home(), vec![line(1)]).unwrap();
        assert!(matches!(store.append(&home(), vec![line(2), line(4)]), Err(StoreError::Conflict { seq: 4, .. })));
        assert!(matches!(store.append(&home(), vec![line(1)]), Err(StoreError::Conflict { seq: 1, .. })));
        assert_eq!(store.lines(&home()).unwrap().len(), 1);
    }

    #[test]
    fn a_folder_in_use_is_said_to_be() {
        let folder = tempfile::tempdir().unwrap();
        let _first = Store::open(folder.path()).unwrap();
        assert!(matches!(Store::open(folder.path()), Err(StoreError::InUse(_))));
    }

    #[test]
    fn a_newer_database_is_left_alone() {
        let folder = tempfile::tempdir().unwrap();
        drop(Store::open(folder.path()).unwrap());
        let connection = Connection::open(folder.path().join("wayfinder.sqlite")).unwrap();
        connection.pragma_update(None, "user_version", 99).unwrap();
        drop(connection);
        assert!(matches!(Store::open(folder.path()), Err(StoreError::Newer(_))));
    }

    #[test]
    fn a_full_disk_is_called_so_however_it_shows() {
        let code = |extended_code| rusqlite::Error::SqliteFailure(rusqlite::ffi::Error::new(extended_code), None);
        for error in [code(rusqlite::ffi::SQLITE_FULL).into(), code(rusqlite::ffi::SQLITE_IOERR_SHMSIZE).into()] {
            assert!(matches!(error, StoreError::Full), "{error}");
        }
        let path = Path::new("folder");
        assert!(matches!(StoreError::folder(path, io::ErrorKind::StorageFull.into()), StoreError::Full));
        assert!(matches!(StoreError::folder(path, io::ErrorKind::PermissionDenied.into()), StoreError::Folder(..)));
    }

    #[test]
    fn a_full_disk_loses_nothing_and_says_so() {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(folder.path()).unwrap();
        store.append(&home(), vec![line(1)]).unwrap();
        let pages: u32 = store.read(|c| Ok(c.query_row("PRAGMA page_count", [], |row| row.get(0))?)).unwrap();
        store.writer.alone(move |c| Ok(c.pragma_update(None, "max_page_count", pages)?)).unwrap();
        let long = "x".repeat(20_000);
        assert!(matches!(store.append(&home(), vec![line(2), line_named(3, &long)]), Err(StoreError::Full)));
        assert_eq!(store.lines(&home()).unwrap(), [line(1)]);
        store.writer.alone(move |c| Ok(c.pragma_update(None, "max_page_count", 1_000_000)?)).unwrap();
        store.append(&home(), vec![line(2)]).unwrap();
        assert_eq!(store.lines(&home()).unwrap().len(), 2);
    }

    #[test]
    fn many_that_append_at_once_are_each_taken_or_refused_for_their_own() {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(folder.path()).unwrap();
        let hut = |n: usize| -> HomeId { format!("hut-{n}").parse().unwrap() };
        let store = &store;
        std::thread::scope(|scope| {
            for n in 0..40 {
                scope.spawn(move || {
                    for seq in 1..=5 {
                        store.append(&hut(n), vec![line(seq)]).unwrap();
                        // Does not follow: it is refused, and takes nobody else's lines with it.
                        let gap = store.append(&hut(n), vec![line(seq + 1), line(seq + 9)]);
                        assert!(matches!(gap, Err(StoreError::Conflict { .. })), "{gap:?}");
                    }
                });
            }
        });
        for n in 0..40 {
            assert_eq!(store.lines(&hut(n)).unwrap(), (1..=5).map(line).collect::<Vec<_>>());
        }
    }
}
