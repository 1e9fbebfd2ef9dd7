//! The desk: the store and the folded logbooks, one lock around both. Every write goes through
//! [`Desk::append`].

use std::collections::BTreeMap;
use std::path::Path;
use std::sync::{Arc, Mutex, MutexGuard};

use wayfinder_core::{Draft, HomeId, Line, Logbook, PhotoId, Refusal};
use wayfinder_formats::{HomeFile, PhotoInFile, write_home_file};
use wayfinder_store::{Store, StoreError, StoredPhoto};

/// Why the desk could not do it.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum DeskError {
    /// The core refused an entry.
    #[error(transparent)]
    Refused(#[from] Refusal),
    /// The store failed.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// There is no such home.
    #[error("There is no such home.")]
    NoSuchHome,
    /// A home of that id is there already, with other lines.
    #[error("This home is here already, with other lines. Import it into an empty data folder.")]
    HomeIsHere,
}

/// A logbook has grown.
#[derive(Debug, Clone)]
pub(crate) struct Moved {
    pub(crate) home: HomeId,
    pub(crate) seq: u64,
}

/// The store with its folded logbooks.
pub struct Desk {
    inner: Mutex<Inner>,
}

struct Inner {
    store: Store,
    books: BTreeMap<HomeId, Arc<Logbook>>,
}

impl Desk {
    /// Opens a data folder.
    pub fn open(folder: &Path) -> Result<Self, StoreError> {
        Ok(Self { inner: Mutex::new(Inner { store: Store::open(folder)?, books: BTreeMap::new() }) })
    }

    fn lock(&self) -> MutexGuard<'_, Inner> {
        // A panic under the lock is our own bug; the inner state changes only after the store has written.
        self.inner.lock().unwrap_or_else(std::sync::PoisonError::into_inner)
    }

    /// The logbook of a home.
    pub fn book(&self, home: &HomeId) -> Result<Arc<Logbook>, DeskError> {
        let book = self.lock().book(home)?;
        if book.seq() == 0 { Err(DeskError::NoSuchHome) } else { Ok(book) }
    }

    /// Every home with its logbook.
    pub fn books(&self) -> Result<Vec<(HomeId, Arc<Logbook>)>, DeskError> {
        let mut inner = self.lock();
        let homes = inner.store.homes()?;
        homes.into_iter().map(|home| Ok((home.clone(), inner.book(&home)?))).collect()
    }

    /// Takes a batch, all or nothing; on disk when this returns. Gives the new lines.
    pub fn append(&self, home: &HomeId, batch: &[Draft]) -> Result<(Vec<Line>, Arc<Logbook>), DeskError> {
        let mut inner = self.lock();
        let book = inner.book(home)?;
        let outcome = book.admit(batch)?;
        let new = outcome.new.clone();
        inner.store.append(home, &new)?;
        drop(book);
        let book = inner.books.entry(home.clone()).or_default();
        Arc::make_mut(book).commit(outcome);
        Ok((new, Arc::clone(book)))
    }

    /// Keeps a photo of a home that is there.
    pub fn put_photo(&self, home: &HomeId, photo: &StoredPhoto) -> Result<(), DeskError> {
        self.book(home)?;
        Ok(self.lock().store.put_photo(home, photo)?)
    }

    /// A photo of a home.
    pub fn photo(&self, home: &HomeId, photo: &PhotoId) -> Result<Option<StoredPhoto>, DeskError> {
        Ok(self.lock().store.photo(home, photo)?)
    }

    /// The whole home as one file, photos and all.
    pub fn export(&self, home: &HomeId) -> Result<Vec<u8>, DeskError> {
        let book = self.book(home)?;
        let photos = self.lock().store.photos(home)?;
        let photos = photos.into_iter().map(|photo| PhotoInFile::new(photo.id, photo.media, &photo.bytes)).collect();
        Ok(write_home_file(home, &book, photos))
    }

    /// Takes in a whole home. The same home again is harmless; one that differs is refused.
    pub fn import(&self, file: &HomeFile, book: Logbook) -> Result<(), DeskError> {
        let home = &file.home;
        let stored = |photo: &PhotoInFile| {
            photo.bytes().map(|bytes| StoredPhoto { id: photo.id.clone(), media: photo.media.clone(), bytes })
        };
        let photos: Vec<StoredPhoto> = file.photos.iter().filter_map(stored).collect();
        let mut inner = self.lock();
        let here = inner.book(home)?;
        if here.seq() > 0 {
            return if here.lines().eq(book.lines()) { Ok(()) } else { Err(DeskError::HomeIsHere) };
        }
        inner.put(home, book, &photos)
    }

    /// Puts a logbook in the place of whatever the home had.
    pub fn replace(&self, home: &HomeId, book: Logbook) -> Result<(), DeskError> {
        self.lock().put(home, book, &[])
    }

    /// A setting of this installation.
    pub(crate) fn setting(&self, name: &str) -> Result<Option<String>, DeskError> {
        Ok(self.lock().store.setting(name)?)
    }

    /// Keeps a setting of this installation.
    pub(crate) fn set_setting(&self, name: &str, value: &str) -> Result<(), DeskError> {
        Ok(self.lock().store.set_setting(name, value)?)
    }

    /// Whether the database is sound.
    pub fn check(&self) -> Result<bool, DeskError> {
        Ok(self.lock().store.check()?)
    }
}

impl Inner {
    fn book(&mut self, home: &HomeId) -> Result<Arc<Logbook>, DeskError> {
        if let Some(book) = self.books.get(home) {
            return Ok(Arc::clone(book));
        }
        let book = Arc::new(Logbook::from_lines(self.store.lines(home)?)?);
        if book.seq() > 0 {
            // An id nobody wrote to is not kept: asking for made-up homes must not fill memory.
            self.books.insert(home.clone(), Arc::clone(&book));
        }
        Ok(book)
    }

    fn put(&mut self, home: &HomeId, book: Logbook, photos: &[StoredPhoto]) -> Result<(), DeskError> {
        let lines: Vec<Line> = book.lines().cloned().collect();
        self.store.replace(home, &lines, photos)?;
        self.books.insert(home.clone(), Arc::new(book));
        Ok(())
    }
}
