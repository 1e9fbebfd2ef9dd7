//! One state of a home, and what follows from it, each answer worked out once.
//!
//! In: a folded [`Home`]. Out: the same home, as every answer takes it. An answer that others need, or that is asked for
//! again and again, keeps itself here with [`Study::once`]; so whoever asks first waits for it and nobody works it out
//! twice. A study never changes: the next line of the logbook makes a new one. What would be long to work out from the first line
//! is handed on to it ([`Study::after`]).

use std::any::{Any, TypeId};
use std::collections::BTreeMap;
use std::ops::Deref;
use std::sync::{Arc, Mutex, MutexGuard, OnceLock, PoisonError};

use elsa::sync::FrozenMap;

use crate::logbook::{Home, Logbook};

type Slot = OnceLock<Box<dyn Any + Send + Sync>>;

type Handed = BTreeMap<TypeId, Arc<dyn Any + Send + Sync>>;

/// A home as it is asked about. All that is folded can be read from it as from the [`Home`].
pub struct Study {
    home: Arc<Home>,
    seq: u64,
    answers: FrozenMap<TypeId, Box<Slot>>,
    handed: Mutex<Handed>,
}

impl Study {
    /// Studies a home that no logbook holds: one that would be. Its sequence is 0.
    pub fn of(home: Home) -> Self {
        Self::at(Arc::new(home), 0)
    }

    fn at(home: Arc<Home>, seq: u64) -> Self {
        Self { home, seq, answers: FrozenMap::new(), handed: Mutex::default() }
    }

    /// Studies what a logbook has come to, with what the state before has kept for it. Every answer is the same as without.
    pub fn after(before: &Self, book: &Logbook) -> Self {
        let study = Self::from(book);
        *study.handed() = before.handed().clone();
        study
    }

    fn handed(&self) -> MutexGuard<'_, Handed> {
        // It is only ever replaced as a whole.
        self.handed.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// What the state before has kept of this type, or one before that.
    pub(crate) fn before<T: Any + Send + Sync>(&self) -> Option<Arc<T>> {
        self.handed().get(&TypeId::of::<T>()).cloned().and_then(|kept| kept.downcast().ok())
    }

    /// Keeps this for the next state.
    pub(crate) fn hand_on<T: Any + Send + Sync>(&self, kept: Arc<T>) {
        self.handed().insert(TypeId::of::<T>(), kept);
    }

    /// The last line that it follows from.
    pub fn seq(&self) -> u64 {
        self.seq
    }

    /// The home as folded.
    pub fn home(&self) -> &Home {
        &self.home
    }

    /// The answer of this type, worked out when it is first asked for. `work_out` may ask for other answers, not for its own.
    pub(crate) fn once<T: Any + Send + Sync>(&self, work_out: impl FnOnce() -> T) -> &T {
        let slot = match self.answers.get(&TypeId::of::<T>()) {
            Some(slot) => slot,
            None => self.answers.insert(TypeId::of::<T>(), Box::default()),
        };
        let answer = slot.get_or_init(|| Box::new(work_out()));
        answer.downcast_ref().unwrap_or_else(|| panic!("an answer of another type in this slot; this is a bug"))
    }
}

impl From<&Logbook> for Study {
    fn from(book: &Logbook) -> Self {
        Self::at(book.shared_home(), book.seq())
    }
}

impl Deref for Study {
    type Target = Home;
    fn deref(&self) -> &Home {
        &self.home
    }
}

impl std::fmt::Debug for Study {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Study").field("home", &self.home).field("seq", &self.seq).finish_non_exhaustive()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    struct One(u8);
    struct Two(u8);

    #[test]
    fn an_answer_is_worked_out_once_and_may_ask_for_another() {
        let study = Study::of(Home::default());
        let two = || study.once(|| Two(study.once(|| One(1)).0 + 1)).0;
        assert_eq!((two(), study.once(|| One(7)).0, study.once(|| Two(7)).0), (2, 1, 2));
        assert_eq!(Study::of(Home::default()).once(|| One(7)).0, 7, "another state, another answer");
    }
}
