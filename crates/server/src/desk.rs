//! The desk: the store and the opened homes. Every write goes through [`Desk::append`].
//!
//! Each home has a lock of its own, which only whoever writes to it holds; what is asked of a home is read from what was
//! published last, so reading never waits for writing. Several who write to one home at once are taken together: the first
//! to get the lock takes everybody's batches, one after the other, and they go to disk as one; those of several homes go to
//! disk together in the store. Nothing is published or acknowledged before it is on disk.

mod list;

use std::collections::{BTreeMap, BTreeSet};
use std::path::Path;
use std::sync::{Arc, Condvar, Mutex, MutexGuard, OnceLock, PoisonError, mpsc};

use wayfinder_core::sim::{LessonMark, lesson_marks};
use wayfinder_core::{Draft, Fact, HomeDescribed, HomeId, Line, Logbook, Moment, PhotoId, Refusal, Study};
use wayfinder_formats::{HomeFile, PhotoInFile, read_home_file, without_helpers_names, write_home_file};
use wayfinder_store::{Damage, DamageKind, Store, StoreError, StoredHome, StoredPhoto};

pub(crate) use self::list::Listed;
use crate::summary::Summary;

/// For so many days a deleted home can be taken back.
pub(crate) const KEPT_DAYS: i64 = 30;

/// Why the desk could not do it.
#[derive(Debug, Clone, thiserror::Error)]
#[non_exhaustive]
pub enum DeskError {
    /// The core refused an entry.
    #[error(transparent)]
    Refused(#[from] Refusal),
    /// The store failed.
    #[error(transparent)]
    Store(Arc<StoreError>),
    /// There is no such home.
    #[error("There is no such home.")]
    NoSuchHome,
    /// It is not as it was written.
    #[error("This home is damaged: {0}.")]
    Damaged(Damage),
    /// It could not be taken in again from the file that was to be written.
    #[error("The file of this home could not be imported again, so it was not written: {0}")]
    NotToBeReadBack(String),
    /// It was deleted and can still be taken back.
    #[error("This home was deleted. The owner can take it back on the page of homes, for 30 days.")]
    Deleted,
    /// It has gone to another server.
    #[error("This home has moved to {0}.")]
    Moved(String),
    /// It has grown since it was copied.
    #[error("This home has grown since: it has {seq} lines and {photos} photos now.")]
    HasGrown {
        /// Its last line.
        seq: u64,
        /// How many photos it has.
        photos: usize,
    },
    /// Whoever sent it was sent away before it was written.
    #[error("You are not in any more.")]
    SentAway,
    /// A helper wrote what is not for helpers.
    #[error("A helper writes what they saw and switched, under their own name.")]
    NotForHelpers,
    /// A helper wrote of a time when they were not here.
    #[error("This is of a time when you were not here.")]
    OtherTime,
    /// A home of that id is there already, with other lines.
    #[error("This home is here already, with other lines. Import it into an empty data folder.")]
    HomeIsHere,
}

impl From<StoreError> for DeskError {
    fn from(error: StoreError) -> Self {
        match error {
            StoreError::Damaged(damage) => Self::Damaged(damage),
            error => Self::Store(Arc::new(error)),
        }
    }
}

/// A home that cannot be opened, with what can be read of it.
#[derive(Debug)]
pub struct DamagedHome {
    /// How it is kept.
    pub stored: StoredHome,
    /// What is wrong, and at which line.
    pub damage: Damage,
    /// What its lines add up to, up to that one.
    pub readable: Logbook,
}

/// As many of the stored lines as add up to a home; what is wrong with the next one.
pub fn readable(home: &HomeId, lines: &[Line], damage: Option<Damage>) -> (Logbook, Option<Damage>) {
    let (book, refusal) = Logbook::up_to_refusal(lines);
    let does_not_follow = |why: Refusal| {
        let line = book.seq() + 1;
        Damage { home: home.clone(), line, kind: DamageKind::DoesNotFollow(line, why.wrong) }
    };
    let damage = refusal.map(does_not_follow).or(damage);
    (book, damage)
}

/// Every home that is not deleted.
#[derive(Debug, Default)]
pub struct Homes {
    /// Those that can be read, by id.
    pub sound: Vec<(HomeId, Arc<Opened>)>,
    /// Those that cannot, by id.
    pub damaged: Vec<DamagedHome>,
}

/// A logbook has grown.
#[derive(Debug, Clone)]
pub(crate) struct Grown {
    pub(crate) home: HomeId,
    pub(crate) seq: u64,
}

/// A home as it was published last: its logbook, and what follows from it.
#[derive(Debug)]
pub struct Opened {
    /// The lines.
    pub book: Logbook,
    /// What follows from them, each answer worked out once.
    pub study: Study,
    /// How the lessons of a made-up house stand; it takes a while to work out and is asked for of every house at once.
    lessons: OnceLock<Vec<LessonMark>>,
    /// What the list says of it.
    summary: OnceLock<Summary>,
}

impl Opened {
    fn new(book: Logbook, study: Study) -> Self {
        Self { book, study, lessons: OnceLock::new(), summary: OnceLock::new() }
    }

    /// What the list says of it.
    pub(crate) fn summary(&self) -> &Summary {
        self.summary.get_or_init(|| Summary::of(self))
    }

    /// How the lessons of a made-up house stand as of its last line.
    pub(crate) fn lessons(&self, now: Moment) -> &[LessonMark] {
        self.lessons.get_or_init(|| lesson_marks(&self.book, &self.study, now))
    }
}

impl From<Logbook> for Opened {
    fn from(book: Logbook) -> Self {
        let study = Study::from(&book);
        Self::new(book, study)
    }
}

/// A copy that is wanted: under which id and name, by whom, when.
#[derive(Debug)]
pub(crate) struct Copy {
    pub(crate) to: HomeId,
    pub(crate) name: String,
    pub(crate) by: String,
    pub(crate) at: Moment,
}

/// What became of a batch: the new lines, and the home with them.
type Appended = Result<(Vec<Line>, Arc<Opened>), DeskError>;

/// Whether a batch may be written, asked when the home's lock is held.
type May = Box<dyn Fn(&Logbook, &[Draft]) -> Result<(), DeskError> + Send>;

/// A batch that waits for whoever has the lock of its home.
struct Waiting {
    batch: Vec<Draft>,
    may: May,
    answer: mpsc::SyncSender<Appended>,
}

/// A home at the desk. An id that nobody wrote to is not kept: asking for made-up homes must not fill memory.
#[derive(Default)]
struct AtDesk {
    /// Held by whoever writes to the home, or opens it.
    writing: Mutex<()>,
    waiting: Mutex<Vec<Waiting>>,
    published: Mutex<Option<Arc<Opened>>>,
}

impl AtDesk {
    fn at_hand(&self) -> Option<Arc<Opened>> {
        lock(&self.published).clone()
    }
}

/// The store with the opened homes.
pub struct Desk {
    store: Store,
    homes: Mutex<BTreeMap<HomeId, Arc<AtDesk>>>,
    /// Those that were found damaged, and may have been mended or replaced since.
    suspect: Mutex<BTreeSet<HomeId>>,
    /// So many homes are still to be looked through since the program started.
    unchecked: (Mutex<usize>, Condvar),
}

/// What is guarded is only ever replaced as a whole, so a panic under the lock, our own bug, leaves it as it was.
fn lock<T>(mutex: &Mutex<T>) -> MutexGuard<'_, T> {
    mutex.lock().unwrap_or_else(PoisonError::into_inner)
}

/// A home that is damaged, or has moved, can be put away and deleted like any other.
fn whatever_became_of_it(home: Result<(), DeskError>) -> Result<(), DeskError> {
    match home {
        Err(DeskError::Damaged(_) | DeskError::Moved(_)) => Ok(()),
        home => home,
    }
}

impl Desk {
    /// Opens a data folder.
    pub fn open(folder: &Path) -> Result<Self, StoreError> {
        Ok(Self {
            store: Store::open(folder)?,
            homes: Mutex::default(),
            suspect: Mutex::default(),
            unchecked: Default::default(),
        })
    }

    fn at_desk(&self, home: &HomeId) -> Arc<AtDesk> {
        Arc::clone(lock(&self.homes).entry(home.clone()).or_default())
    }

    /// Takes a home off the desk that turned out to have no line.
    fn forget(&self, home: &HomeId) {
        let mut homes = lock(&self.homes);
        let empty = |at: &Arc<AtDesk>| lock(&at.published).is_none() && Arc::strong_count(at) == 1;
        if homes.get(home).is_some_and(empty) {
            homes.remove(home);
        }
    }

    /// The home as it was published last, read from the store where nobody has opened it yet. The caller holds its lock.
    fn published(&self, home: &HomeId, at: &AtDesk) -> Result<Option<Arc<Opened>>, DeskError> {
        if let Some(opened) = at.at_hand() {
            return Ok(Some(opened));
        }
        if self.store.deleted(home)?.is_some() {
            return Err(DeskError::Deleted);
        }
        if let Some(to) = self.store.moved_to(home)? {
            return Err(DeskError::Moved(to));
        }
        let (book, damage) = self.read_up_to_damage(home)?;
        if book.seq() == 0 && damage.is_none() {
            return Ok(None);
        }
        if let Some(damage) = damage {
            lock(&self.suspect).insert(home.clone());
            return Err(DeskError::Damaged(damage));
        }
        let opened = Arc::new(Opened::from(book));
        *lock(&at.published) = Some(Arc::clone(&opened));
        Ok(Some(opened))
    }

    /// The home, where somebody has opened it already: without reading or waiting.
    pub(crate) fn at_hand(&self, home: &HomeId) -> Option<Arc<Opened>> {
        lock(&self.homes).get(home).cloned()?.at_hand()
    }

    /// A home.
    pub fn home(&self, home: &HomeId) -> Result<Arc<Opened>, DeskError> {
        if let Some(opened) = self.at_hand(home) {
            return Ok(opened);
        }
        let at = self.at_desk(home);
        let opened = {
            let _writing = lock(&at.writing);
            self.published(home, &at)?
        };
        drop(at);
        opened.ok_or_else(|| {
            self.forget(home);
            DeskError::NoSuchHome
        })
    }

    fn read_up_to_damage(&self, home: &HomeId) -> Result<(Logbook, Option<Damage>), DeskError> {
        let (lines, damage) = self.store.lines_up_to_damage(home)?;
        Ok(readable(home, &lines, damage))
    }

    /// Every home that is not deleted. One that is damaged hides no other.
    pub fn homes(&self) -> Result<Homes, DeskError> {
        let mut homes = Homes::default();
        for stored in self.store.homes()?.into_iter().filter(|home| home.deleted.is_none()) {
            match self.home(&stored.id) {
                Ok(opened) => homes.sound.push((stored.id, opened)),
                Err(DeskError::Damaged(damage)) => homes.damaged.push(self.damaged(stored, damage)?),
                // It has gone, or was deleted since the list was read, or has no line.
                Err(DeskError::Deleted | DeskError::Moved(_) | DeskError::NoSuchHome) => {}
                Err(error) => return Err(error),
            }
        }
        Ok(homes)
    }

    /// A damaged home with what can be read of it.
    pub(crate) fn damaged(&self, stored: StoredHome, damage: Damage) -> Result<DamagedHome, DeskError> {
        let (readable, found) = self.read_up_to_damage(&stored.id)?;
        Ok(DamagedHome { stored, damage: found.unwrap_or(damage), readable })
    }

    /// How many lines of a home can be read, whatever became of it.
    pub(crate) fn lines_of(&self, home: &HomeId) -> Result<u64, DeskError> {
        let (book, damage) = self.read_up_to_damage(home)?;
        if book.seq() == 0 && damage.is_none() { Err(DeskError::NoSuchHome) } else { Ok(book.seq()) }
    }

    /// Puts a home into the archive, or takes it out.
    pub(crate) fn set_archived(&self, home: &HomeId, archived: bool) -> Result<(), DeskError> {
        whatever_became_of_it(self.home(home).map(drop))?;
        Ok(self.store.set_archived(home, archived)?)
    }

    /// Deletes a home. It can be taken back for [`KEPT_DAYS`]; nobody reads or writes it meanwhile.
    pub fn delete(&self, home: &HomeId, at: Moment) -> Result<(), DeskError> {
        let at_desk = self.at_desk(home);
        let _writing = lock(&at_desk.writing);
        whatever_became_of_it(self.published(home, &at_desk).and_then(|home| home.map(drop).ok_or(DeskError::NoSuchHome)))?;
        self.store.set_deleted(home, Some(at))?;
        *lock(&at_desk.published) = None;
        Ok(())
    }

    /// Takes back a home that was deleted. One that is there already stays as it is.
    pub fn take_back(&self, home: &HomeId) -> Result<(), DeskError> {
        let at_desk = self.at_desk(home);
        {
            let _writing = lock(&at_desk.writing);
            self.store.set_deleted(home, None)?;
        }
        drop(at_desk);
        whatever_became_of_it(self.home(home).map(drop))
    }

    /// Removes for good what was deleted so many days before `now`.
    pub(crate) fn clear_deleted(&self, now: Moment) -> Result<(), DeskError> {
        let kept = KEPT_DAYS * 24 * 60 * 60 * 1000;
        Ok(self.store.clear_deleted(Moment::from_unix_ms(now.unix_ms().saturating_sub(kept)))?)
    }

    /// Copies a home, photos and all, under another id and name. Its logbook goes on from there by itself.
    pub(crate) fn copy(&self, from: &HomeId, copy: Copy) -> Result<(), DeskError> {
        let opened = self.home(from)?;
        self.put_copy(opened.book.clone(), self.store.photos(from)?, copy)
    }

    /// Copies what can be read of a damaged home, up to the first line that is not as it was written, under another id and name. The
    /// damaged one stays as it is.
    pub(crate) fn salvage(&self, from: &HomeId, copy: Copy) -> Result<(), DeskError> {
        let (book, _) = self.read_up_to_damage(from)?;
        if book.seq() == 0 {
            return Err(DeskError::NoSuchHome);
        }
        self.put_copy(book, self.store.photos(from).unwrap_or_default(), copy)
    }

    fn put_copy(&self, mut book: Logbook, photos: Vec<StoredPhoto>, copy: Copy) -> Result<(), DeskError> {
        let Copy { to, name, by, at } = copy;
        let id = format!("copied-{}", book.seq() + 1).parse().map_err(|_| DeskError::NoSuchHome)?;
        let fact = Fact::HomeDescribed(HomeDescribed { name });
        let outcome = book.admit(&[Draft { id, at, by, instrument: None, version: Fact::VERSION, fact }])?;
        book.commit(outcome);
        let at_desk = self.at_desk(&to);
        let _writing = lock(&at_desk.writing);
        if self.published(&to, &at_desk)?.is_some() {
            return Err(DeskError::HomeIsHere);
        }
        self.put(&to, &at_desk, book, photos)
    }

    /// Takes a batch, all or nothing; on disk when this returns. Gives the new lines, and the home with them.
    pub fn append(&self, home: &HomeId, batch: Vec<Draft>) -> Appended {
        self.append_if(home, batch, |_, _| Ok(()))
    }

    /// The same, where whoever writes may: that is asked under the lock of the home, of its logbook as it is then.
    pub(crate) fn append_if(
        &self,
        home: &HomeId,
        batch: Vec<Draft>,
        may: impl Fn(&Logbook, &[Draft]) -> Result<(), DeskError> + Send + 'static,
    ) -> Appended {
        let at = self.at_desk(home);
        let (answer, answered) = mpsc::sync_channel(1);
        lock(&at.waiting).push(Waiting { batch, may: Box::new(may), answer });
        {
            let _writing = lock(&at.writing);
            // Somebody before may have taken this batch along; then nothing waits, or only what came later.
            let waiting = std::mem::take(&mut *lock(&at.waiting));
            if !waiting.is_empty() {
                self.append_all(home, &at, waiting);
            }
        }
        let appended = answered.recv().unwrap_or_else(|_| panic!("a batch was left without an answer; this is a bug"));
        drop(at);
        if appended.is_err() {
            self.forget(home);
        }
        appended
    }

    /// Takes these batches one after the other, each all or nothing, and writes what was taken as one. The caller holds the
    /// lock of the home.
    fn append_all(&self, home: &HomeId, at: &AtDesk, waiting: Vec<Waiting>) {
        let before = match self.published(home, at) {
            Ok(before) => before,
            Err(error) => {
                for Waiting { answer, .. } in waiting {
                    let _ = answer.send(Err(error.clone()));
                }
                return;
            }
        };
        let mut book = before.as_ref().map_or_else(Logbook::default, |opened| opened.book.clone());
        let mut taken = Vec::new();
        for Waiting { batch, may, answer } in waiting {
            match may(&book, &batch).and_then(|()| Ok(book.admit(&batch)?)) {
                Ok(outcome) => {
                    taken.push((outcome.new.clone(), answer));
                    book.commit(outcome);
                }
                Err(refused) => drop(answer.send(Err(refused))),
            }
        }
        let lines: Vec<Line> = taken.iter().flat_map(|(new, _)| new.iter().cloned()).collect();
        let opened = match (self.store.append(home, lines), before) {
            (Err(error), _) => Err(DeskError::from(error)),
            // A resend of what is there already changes nothing, and what follows from it is known.
            (Ok(()), Some(before)) if before.book.seq() == book.seq() => Ok(before),
            (Ok(()), Some(before)) => {
                let study = Study::after(&before.study, &book);
                Ok(Arc::new(Opened::new(book, study)))
            }
            (Ok(()), None) => Ok(Arc::new(Opened::from(book))),
        };
        if let Ok(opened) = &opened
            && opened.book.seq() > 0
        {
            *lock(&at.published) = Some(Arc::clone(opened));
        }
        for (new, answer) in taken {
            let _ = answer.send(opened.clone().map(|opened| (new, opened)));
        }
    }

    /// Keeps a photo of a home that is there.
    pub fn put_photo(&self, home: &HomeId, photo: StoredPhoto) -> Result<(), DeskError> {
        self.home(home)?;
        let at = self.at_desk(home);
        let _writing = lock(&at.writing);
        self.published(home, &at)?;
        Ok(self.store.put_photo(home, photo)?)
    }

    /// Hands a home over to the server at that address, where all of it is: so many lines and photos. From then on nothing more is
    /// written to it here. One that has grown since stays.
    pub(crate) fn hand_over(&self, home: &HomeId, to: String, seq: u64, photos: usize) -> Result<(), DeskError> {
        let at = self.at_desk(home);
        let _writing = lock(&at.writing);
        let here = self.published(home, &at)?.ok_or(DeskError::NoSuchHome)?;
        let there = (here.book.seq(), self.store.photo_count(home)?);
        if there != (seq, photos) {
            return Err(DeskError::HasGrown { seq: there.0, photos: there.1 });
        }
        self.store.set_moved(home, to)?;
        *lock(&at.published) = None;
        Ok(())
    }

    /// A photo of a home.
    pub fn photo(&self, home: &HomeId, photo: &PhotoId) -> Result<Option<StoredPhoto>, DeskError> {
        Ok(self.store.photo(home, photo)?)
    }

    /// The whole home as one file, photos and all; without the names of helpers for whoever gets the home.
    pub fn export(&self, home: &HomeId, without_names: bool) -> Result<Vec<u8>, DeskError> {
        let opened = self.home(home)?;
        let book = if without_names { without_helpers_names(&opened.book)? } else { opened.book.clone() };
        let photos = self.store.photos(home)?;
        let photos = photos.into_iter().map(|photo| PhotoInFile::new(photo.id, photo.media, &photo.bytes)).collect();
        let bytes = write_home_file(home, &book, photos);
        read_home_file(&bytes).map_err(|error| DeskError::NotToBeReadBack(error.to_string()))?;
        Ok(bytes)
    }

    /// Takes in a whole home. The same home again is harmless; one that has grown elsewhere goes on here from there, also one that had
    /// gone from here; one that differs is refused.
    pub fn import(&self, file: &HomeFile, book: Logbook) -> Result<(), DeskError> {
        let stored = |photo: &PhotoInFile| {
            photo.bytes().map(|bytes| StoredPhoto { id: photo.id.clone(), media: photo.media.clone(), bytes })
        };
        let photos: Vec<StoredPhoto> = file.photos.iter().filter_map(stored).collect();
        let at = self.at_desk(&file.home);
        let _writing = lock(&at.writing);
        let here = match self.published(&file.home, &at) {
            Err(DeskError::Moved(_)) => self.read_up_to_damage(&file.home)?.0,
            here => match here? {
                Some(here) => here.book.clone(),
                None => return self.put(&file.home, &at, book, photos),
            },
        };
        let known = usize::try_from(here.seq()).unwrap_or(usize::MAX);
        if !here.lines().eq(book.lines().take(known)) {
            return Err(DeskError::HomeIsHere);
        }
        self.store.come_back(&file.home, book.lines().skip(known).cloned().collect(), photos)?;
        *lock(&at.published) = Some(Arc::new(Opened::from(book)));
        Ok(())
    }

    /// Puts a logbook in the place of whatever the home had.
    pub fn replace(&self, home: &HomeId, book: Logbook) -> Result<(), DeskError> {
        let at = self.at_desk(home);
        let _writing = lock(&at.writing);
        self.put(home, &at, book, Vec::new())
    }

    fn put(&self, home: &HomeId, at: &AtDesk, book: Logbook, photos: Vec<StoredPhoto>) -> Result<(), DeskError> {
        self.store.replace(home, book.lines().cloned().collect(), photos)?;
        *lock(&at.published) = Some(Arc::new(Opened::from(book)));
        Ok(())
    }

    /// A setting of this installation.
    pub(crate) fn setting(&self, name: &str) -> Result<Option<String>, DeskError> {
        Ok(self.store.setting(name)?)
    }

    /// Keeps a setting of this installation.
    pub(crate) fn set_setting(&self, name: &str, value: &str) -> Result<(), DeskError> {
        Ok(self.store.set_setting(name, value)?)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_deleted_home_can_be_taken_back_for_thirty_days() {
        let folder = tempfile::tempdir().unwrap_or_else(|error| panic!("{error}"));
        let desk = Desk::open(folder.path()).unwrap_or_else(|error| panic!("{error}"));
        let home: HomeId = "hut".parse().unwrap_or_else(|_| panic!("no id"));
        let draft = Draft {
            id: "e1".parse().unwrap_or_else(|_| panic!("no id")),
            at: Moment::from_unix_ms(0),
            by: "Ann".into(),
            instrument: None,
            version: Fact::VERSION,
            fact: Fact::HomeDescribed(HomeDescribed { name: "Hut".into() }),
        };
        assert!(desk.append(&home, vec![draft]).is_ok());
        let days = |days: i64| Moment::from_unix_ms(days * 86_400_000);
        for (now, is_back) in [(days(130), true), (Moment::from_unix_ms(days(130).unix_ms() + 1), false)] {
            assert!(desk.delete(&home, days(100)).is_ok());
            assert!(matches!(desk.home(&home), Err(DeskError::Deleted)));
            assert!(desk.clear_deleted(now).is_ok());
            assert_eq!(desk.take_back(&home).is_ok(), is_back);
        }
    }

    #[test]
    fn who_was_sent_away_while_their_batch_waited_for_the_home_writes_nothing() {
        let folder = tempfile::tempdir().unwrap_or_else(|error| panic!("{error}"));
        let desk = Desk::open(folder.path()).unwrap_or_else(|error| panic!("{error}"));
        let home: HomeId = "hut".parse().unwrap_or_else(|_| panic!("no id"));
        let draft = |id: &str| Draft {
            id: id.parse().unwrap_or_else(|_| panic!("no id")),
            at: Moment::from_unix_ms(0),
            by: "Ann".into(),
            instrument: None,
            version: Fact::VERSION,
            fact: Fact::HomeDescribed(HomeDescribed { name: format!("Hut, {id}") }),
        };
        assert!(desk.append(&home, vec![draft("e1")]).is_ok());
        let is_in = Arc::new(std::sync::atomic::AtomicBool::new(true));
        let at = desk.at_desk(&home);
        std::thread::scope(|scope| {
            let writing = lock(&at.writing);
            let asked = Arc::clone(&is_in);
            let may = move |_: &Logbook, _: &[Draft]| {
                if asked.load(std::sync::atomic::Ordering::SeqCst) { Ok(()) } else { Err(DeskError::SentAway) }
            };
            let waits = scope.spawn(|| desk.append_if(&home, vec![draft("e2")], may));
            while lock(&at.waiting).is_empty() {
                std::thread::yield_now();
            }
            is_in.store(false, std::sync::atomic::Ordering::SeqCst);
            drop(writing);
            assert!(matches!(waits.join(), Ok(Err(DeskError::SentAway))));
        });
        assert!(desk.home(&home).is_ok_and(|opened| opened.book.seq() == 1));
    }
}
