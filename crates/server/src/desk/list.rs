//! The list of homes: what it says of each is kept beside the lines, so that it opens none; and the look for damage after the start.

use std::collections::BTreeMap;
use std::sync::{Arc, PoisonError};
use std::time::Duration;

use wayfinder_core::{Fact, HomeId, Moment};
use wayfinder_store::StoredHome;

use super::{DamagedHome, Desk, DeskError, Opened, lock};
use crate::summary::{Summary, build};

/// How long a list waits for homes that are still looked through for damage: a few are done by then.
const LOOKED_THROUGH_WITHIN: Duration = Duration::from_millis(40);
/// How long it waits where it does not know yet what to say of some, as after a new release.
const READ_WITHIN: Duration = Duration::from_millis(500);

/// Every home as the list has it.
#[derive(Debug, Default)]
pub(crate) struct Listed {
    /// Those that can be read, by id.
    pub(crate) sound: Vec<(StoredHome, Summary)>,
    /// Those that cannot, by id.
    pub(crate) damaged: Vec<DamagedHome>,
    /// Those that have gone to another server, what they were called, and where they are.
    pub(crate) moved: Vec<(HomeId, String, String)>,
    /// Those that were deleted, and what they were called.
    pub(crate) deleted: Vec<(HomeId, Moment, String)>,
    /// Those that are still to be read, and what they were called at first.
    pub(crate) being_read: Vec<(StoredHome, String)>,
    /// So many were not looked through for damage yet since the program started.
    pub(crate) unchecked: usize,
}

/// However looking through ends, nobody waits for it any more.
struct LookedThrough<'a>(&'a Desk);

impl Drop for LookedThrough<'_> {
    fn drop(&mut self) {
        *lock(&self.0.unchecked.0) = 0;
        self.0.unchecked.1.notify_all();
    }
}

impl Desk {
    /// Every home as the list has it. One that nobody has open is listed by what was worked out of it before, and opened only where
    /// there is no such thing.
    pub(crate) fn listed(&self) -> Result<Listed, DeskError> {
        let mut unchecked = self.still_looked_through(LOOKED_THROUGH_WITHIN);
        let mut kept = self.kept_summaries()?;
        let stored = self.store.homes()?;
        if unchecked > 0 && stored.iter().any(|home| !kept.contains_key(&home.id)) {
            unchecked = self.still_looked_through(READ_WITHIN);
            kept = self.kept_summaries()?;
        }
        let mut listed = Listed { unchecked, ..Listed::default() };
        let mut gone = self.store.moved()?;
        let mut made = Vec::new();
        for stored in stored {
            let before = kept.remove(&stored.id);
            let name = |before: Option<Summary>| match before {
                Some(before) => Ok::<_, DeskError>(before.name),
                None => Ok(self.read_up_to_damage(&stored.id)?.0.home().name().unwrap_or_default().to_owned()),
            };
            if let Some(at) = stored.deleted {
                listed.deleted.push((stored.id.clone(), at, name(before)?));
                continue;
            }
            if let Some(to) = gone.remove(&stored.id) {
                listed.moved.push((stored.id.clone(), name(before)?, to));
                continue;
            }
            let is_kept = before.is_some();
            let before = before.filter(|_| !lock(&self.suspect).contains(&stored.id));
            let summary = match (self.at_hand(&stored.id), before) {
                (Some(opened), _) => opened.summary().clone(),
                (None, Some(before)) => before,
                // It is read in its turn; whoever asked asks again.
                (None, None) if unchecked > 0 && !is_kept => {
                    let name = self.store.first_line(&stored.id)?.and_then(|line| match line.entry.fact {
                        Fact::HomeDescribed(described) => Some(described.name),
                        _ => None,
                    });
                    let name = name.unwrap_or_else(|| stored.id.to_string());
                    listed.being_read.push((stored, name));
                    continue;
                }
                (None, None) => match self.looked_at(&stored.id) {
                    Ok(opened) => opened.summary().clone(),
                    Err(DeskError::Damaged(damage)) => {
                        listed.damaged.push(self.damaged(stored, damage)?);
                        continue;
                    }
                    // It was deleted since the list was read, or has no line.
                    Err(DeskError::Deleted | DeskError::Moved(_) | DeskError::NoSuchHome) => continue,
                    Err(error) => return Err(error),
                },
            };
            if !is_kept {
                made.push((stored.id.clone(), summary.clone()));
            }
            listed.sound.push((stored, summary));
        }
        self.keep_summaries(made);
        Ok(listed)
    }

    /// How many homes are still looked through when none is left, or after so long.
    fn still_looked_through(&self, within: Duration) -> usize {
        let (unchecked, looked_through) = &self.unchecked;
        let waited = looked_through.wait_timeout_while(lock(unchecked), within, |left| *left > 0);
        *waited.unwrap_or_else(PoisonError::into_inner).0
    }

    fn kept_summaries(&self) -> Result<BTreeMap<HomeId, Summary>, DeskError> {
        let kept = self.store.summaries(build())?.into_iter();
        Ok(kept.filter_map(|(home, body)| Some((home, serde_json::from_str(&body).ok()?))).collect())
    }

    /// A summary that is not kept, as on a full disk, is worked out once more.
    fn keep_summaries(&self, made: Vec<(HomeId, Summary)>) {
        let text = |(home, summary): (HomeId, Summary)| Some((home, summary.seq, serde_json::to_string(&summary).ok()?));
        if let Err(error) = self.store.keep_summaries(build(), made.into_iter().filter_map(text).collect()) {
            tracing::warn!(%error, "what the list says of homes was not kept");
        }
    }

    /// A home, read for this once where nobody has it open.
    fn looked_at(&self, home: &HomeId) -> Result<Arc<Opened>, DeskError> {
        if let Some(opened) = self.at_hand(home) {
            return Ok(opened);
        }
        let (book, damage) = self.read_up_to_damage(home)?;
        if let Some(damage) = damage {
            lock(&self.suspect).insert(home.clone());
            return Err(DeskError::Damaged(damage));
        }
        lock(&self.suspect).remove(home);
        if book.seq() == 0 { Err(DeskError::NoSuchHome) } else { Ok(Arc::new(Opened::from(book))) }
    }

    /// Every home that is to be looked through for damage, now that the program starts.
    pub(crate) fn to_look_through(&self) -> Result<Vec<HomeId>, DeskError> {
        let homes = self.store.homes()?.into_iter().filter(|home| home.deleted.is_none());
        let homes: Vec<HomeId> = homes.map(|home| home.id).collect();
        *lock(&self.unchecked.0) = homes.len();
        Ok(homes)
    }

    /// Looks these homes through for damage, one after the other, and works out what the list says of those where that is not kept.
    pub(crate) fn look_through(&self, homes: Vec<HomeId>, go_on: impl Fn() -> bool) {
        let _done = LookedThrough(self);
        let kept = self.kept_summaries().unwrap_or_default();
        for home in homes.into_iter().take_while(|_| go_on()) {
            if self.at_hand(&home).is_some() {
                // It was read, and is as it was written.
            } else if !kept.contains_key(&home) {
                if let Ok(opened) = self.looked_at(&home) {
                    self.keep_summaries(vec![(home, opened.summary().clone())]);
                }
            } else if let Ok(Some(damage)) = self.store.damage(&home) {
                tracing::warn!(%damage, %home, "a home is damaged");
                lock(&self.suspect).insert(home);
            }
            let mut left = lock(&self.unchecked.0);
            *left = left.saturating_sub(1);
            self.unchecked.1.notify_all();
        }
    }
}

#[cfg(test)]
mod tests {
    use wayfinder_core::{Draft, HomeDescribed};

    use super::*;

    #[test]
    fn a_list_opens_no_home_of_which_it_knows_what_to_say() {
        let folder = tempfile::tempdir().unwrap_or_else(|error| panic!("{error}"));
        let home: HomeId = "hut".parse().unwrap_or_else(|_| panic!("no id"));
        let named = |id: &str, name: &str| Draft {
            id: id.parse().unwrap_or_else(|_| panic!("no id")),
            at: Moment::from_unix_ms(7),
            by: "Ann".into(),
            instrument: None,
            version: Fact::VERSION,
            fact: Fact::HomeDescribed(HomeDescribed { name: name.into() }),
        };
        let open = || Desk::open(folder.path()).unwrap_or_else(|error| panic!("{error}"));
        let says = |desk: &Desk| {
            let listed = desk.listed().unwrap_or_else(|error| panic!("{error}"));
            listed.sound.into_iter().map(|(_, summary)| (summary.name, summary.seq)).collect::<Vec<_>>()
        };
        let desk = open();
        assert!(desk.append(&home, vec![named("e1", "Hut")]).is_ok());
        assert_eq!(says(&desk), [("Hut".to_owned(), 1)]);
        drop(desk);
        let by_hand = |sql: &str| {
            let database = rusqlite::Connection::open(folder.path().join("wayfinder.sqlite"));
            assert!(database.and_then(|database| database.execute(sql, [])).is_ok_and(|changed| changed == 1), "{sql}");
        };
        by_hand("UPDATE summaries SET body = replace(body, 'Hut', 'As it was kept')");
        let desk = open();
        assert_eq!(says(&desk), [("As it was kept".to_owned(), 1)], "the home was not read");
        assert!(desk.at_hand(&home).is_none());
        assert!(desk.append(&home, vec![named("e2", "Mill")]).is_ok());
        assert_eq!(says(&desk), [("Mill".to_owned(), 2)]);
        drop(desk);
        by_hand("UPDATE summaries SET build = 'another'");
        by_hand("UPDATE lines SET body = replace(body, 'Mill', 'Till') WHERE seq = 2");
        let desk = open();
        let listed = desk.listed().unwrap_or_else(|error| panic!("{error}"));
        assert_eq!((listed.sound.len(), listed.damaged.len()), (0, 1), "a summary of another build says nothing");
        drop(desk);
        by_hand("UPDATE lines SET body = replace(body, 'Till', 'Mill') WHERE seq = 2");
        // As long as it is looked through, it is listed by its first name and not waited for.
        let desk = open();
        let homes = desk.to_look_through().unwrap_or_else(|error| panic!("{error}"));
        let listed = desk.listed().unwrap_or_else(|error| panic!("{error}"));
        let being_read: Vec<_> = listed.being_read.iter().map(|(home, name)| (home.id.as_str(), name.as_str())).collect();
        assert_eq!((being_read, listed.unchecked), (vec![("hut", "Hut")], 1));
        desk.look_through(homes, || true);
        assert_eq!(says(&desk), [("Mill".to_owned(), 2)]);
    }
}
