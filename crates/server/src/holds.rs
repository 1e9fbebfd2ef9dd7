//! Homes that are just being handed over: whoever writes to one waits for a moment, so that the last lines can follow.

use std::collections::BTreeMap;
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use tokio::sync::Notify;
use tokio::time::Instant;
use wayfinder_core::HomeId;

/// How long whoever writes waits at most, unless the home is held once more.
pub(crate) const HELD_FOR: Duration = Duration::from_secs(10);

/// The homes that are held, and until when.
#[derive(Debug, Default)]
pub(crate) struct Holds {
    until: Mutex<BTreeMap<HomeId, Instant>>,
    ended: Notify,
}

impl Holds {
    fn lock(&self) -> MutexGuard<'_, BTreeMap<HomeId, Instant>> {
        self.until.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Holds a home for so long from now on.
    pub(crate) fn hold(&self, home: &HomeId, time: Duration) {
        self.lock().insert(home.clone(), Instant::now() + time);
    }

    /// Whoever waits goes on.
    pub(crate) fn end(&self, home: &HomeId) {
        self.lock().remove(home);
        self.ended.notify_waiters();
    }

    /// Waits as long as the home is held.
    pub(crate) async fn wait(&self, home: &HomeId) {
        loop {
            let ended = self.ended.notified();
            let Some(until) = self.lock().get(home).copied().filter(|until| *until > Instant::now()) else { return };
            let _ = tokio::time::timeout_at(until, ended).await;
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::sync::Arc;

    #[tokio::test]
    async fn whoever_writes_to_a_home_that_is_held_waits_until_it_is_handed_over_or_the_time_is_up() {
        let holds = Arc::new(Holds::default());
        let (hut, mill): (HomeId, HomeId) = ("hut".parse().unwrap(), "mill".parse().unwrap());
        holds.hold(&hut, Duration::from_millis(20));
        holds.wait(&mill).await;
        // Nobody comes back for it.
        holds.wait(&hut).await;
        holds.hold(&hut, Duration::from_secs(3600));
        let waits = {
            let (holds, hut) = (Arc::clone(&holds), hut.clone());
            tokio::spawn(async move { holds.wait(&hut).await })
        };
        for _ in 0..100 {
            tokio::task::yield_now().await;
        }
        assert!(!waits.is_finished());
        holds.wait(&mill).await;
        holds.end(&hut);
        waits.await.unwrap();
    }
}
