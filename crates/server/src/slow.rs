//! Answers that take seconds to work out. Each is worked out once for all who ask the same, one after the other, and only as long
//! as somebody asks: whoever wants it asks again every second or so and is told how far it is.

use std::any::Any;
use std::collections::BTreeMap;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

use tokio::sync::{Notify, Semaphore};
use wayfinder_core::HomeId;

use crate::guard::off_thread;
use crate::problem::{Problem, internal};

/// So many answers are worked out at once; a program on two cores has one left for everything else.
const AT_ONCE: usize = 1;
/// So many are kept and waited for; more are asked to come again.
const MOST: usize = 24;

/// What is asked for: of which home, as of which line, and what.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) struct Question {
    pub(crate) home: HomeId,
    pub(crate) what: &'static str,
    pub(crate) seq: u64,
}

/// How far an answer is.
#[derive(Debug)]
pub(crate) enum SoFar<T> {
    Answer(Arc<T>),
    /// So many parts of so many are done; of 0 where it has not begun.
    UnderWay {
        done: usize,
        of: usize,
    },
}

/// Told how many parts of how many are done; says whether to go on.
pub(crate) type GoOn<'a> = &'a mut dyn FnMut(usize, usize) -> bool;

/// An answer that is worked out or was.
struct Work {
    done: AtomicUsize,
    of: AtomicUsize,
    asked: Mutex<Instant>,
    answer: Mutex<Option<Result<Arc<dyn Any + Send + Sync>, ()>>>,
    changed: Notify,
}

/// The answers that are worked out or were lately.
pub(crate) struct Slow {
    work: Mutex<BTreeMap<Question, Arc<Work>>>,
    turns: Arc<Semaphore>,
    /// How long somebody who asks is kept waiting for the end, before they are told how far it is.
    patience: Duration,
    /// Nobody has asked for so long: nobody wants it any more.
    given_up_after: Duration,
}

impl Default for Slow {
    fn default() -> Self {
        Self::new(Duration::from_millis(800), Duration::from_secs(5))
    }
}

fn lock<T>(mutex: &Mutex<T>) -> MutexGuard<'_, T> {
    mutex.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Slow {
    fn new(patience: Duration, given_up_after: Duration) -> Self {
        Self { work: Mutex::default(), turns: Arc::new(Semaphore::new(AT_ONCE)), patience, given_up_after }
    }

    /// The answer, or how far it is. `work_out` is begun where nobody has begun it; it gives nothing where it was told to stop.
    pub(crate) async fn ask<T: Send + Sync + 'static>(
        &self,
        question: Question,
        work_out: impl FnOnce(GoOn<'_>) -> Option<T> + Send + 'static,
    ) -> Result<SoFar<T>, Problem> {
        let work = self.begun(question, work_out)?;
        let finished = async {
            loop {
                let changed = work.changed.notified();
                if let Some(answer) = lock(&work.answer).clone() {
                    return answer;
                }
                changed.await;
            }
        };
        match tokio::time::timeout(self.patience, finished).await {
            Ok(Ok(answer)) => Ok(SoFar::Answer(answer.downcast().map_err(|_| internal())?)),
            Ok(Err(())) => Err(internal()),
            Err(_) => {
                let (done, of) = (work.done.load(Ordering::Relaxed), work.of.load(Ordering::Relaxed));
                Ok(SoFar::UnderWay { done, of })
            }
        }
    }

    /// The work on a question, begun where it was not.
    fn begun<T: Send + Sync + 'static>(
        &self,
        question: Question,
        work_out: impl FnOnce(GoOn<'_>) -> Option<T> + Send + 'static,
    ) -> Result<Arc<Work>, Problem> {
        let mut all = lock(&self.work);
        // What nobody wants any more, and what is of an earlier line of this home.
        let given_up_after = self.given_up_after;
        all.retain(|other, work| {
            let earlier = other.home == question.home && other.what == question.what && other.seq != question.seq;
            !earlier && lock(&work.asked).elapsed() < given_up_after * 12
        });
        if let Some(work) = all.get(&question).filter(|work| !matches!(*lock(&work.answer), Some(Err(())))) {
            *lock(&work.asked) = Instant::now();
            return Ok(Arc::clone(work));
        }
        if all.len() >= MOST {
            return Err(Problem::busy());
        }
        let work = Arc::new(Work {
            done: AtomicUsize::new(0),
            of: AtomicUsize::new(0),
            asked: Mutex::new(Instant::now()),
            answer: Mutex::default(),
            changed: Notify::new(),
        });
        all.insert(question, Arc::clone(&work));
        let (turns, known) = (Arc::clone(&self.turns), Arc::clone(&work));
        tokio::spawn(async move {
            let Ok(_turn) = turns.acquire().await else { return };
            let told = Arc::clone(&work);
            let worked_out = off_thread(move || {
                let mut go_on = |done, of| {
                    told.done.store(done, Ordering::Relaxed);
                    told.of.store(of, Ordering::Relaxed);
                    lock(&told.asked).elapsed() < given_up_after
                };
                Ok(if go_on(0, 0) { work_out(&mut go_on) } else { None })
            })
            .await;
            // Stopped or failed: whoever asks again begins it anew.
            let answer = worked_out.ok().flatten().map(|answer| Arc::new(answer) as Arc<dyn Any + Send + Sync>).ok_or(());
            *lock(&work.answer) = Some(answer);
            work.changed.notify_waiters();
        });
        Ok(known)
    }
}

#[cfg(test)]
mod tests {
    use std::sync::mpsc;

    use super::*;

    fn question(seq: u64) -> Question {
        Question { home: "hut".parse().unwrap_or_else(|_| panic!("no id")), what: "test", seq }
    }

    async fn ask(slow: &Slow, seq: u64, work: impl FnOnce(GoOn<'_>) -> Option<u32> + Send + 'static) -> SoFar<u32> {
        slow.ask(question(seq), work).await.unwrap_or_else(|_| panic!("refused"))
    }

    #[tokio::test]
    async fn equal_questions_share_the_work_and_are_told_how_far_it_is() {
        let slow = Slow::new(Duration::from_millis(20), Duration::from_secs(600));
        let (go, wait) = mpsc::channel::<()>();
        let begun = Arc::new(AtomicUsize::new(0));
        let counted = Arc::clone(&begun);
        let first = ask(&slow, 1, move |go_on| {
            counted.fetch_add(1, Ordering::SeqCst);
            assert!(go_on(3, 12));
            wait.recv().ok()?;
            Some(42)
        })
        .await;
        assert!(matches!(first, SoFar::UnderWay { .. }));
        let counted = Arc::clone(&begun);
        let again = move || {
            let counted = Arc::clone(&counted);
            move |_: GoOn<'_>| {
                counted.fetch_add(1, Ordering::SeqCst);
                Some(7)
            }
        };
        loop {
            match ask(&slow, 1, again()).await {
                SoFar::UnderWay { done: 3, of: 12 } => break,
                SoFar::UnderWay { .. } => {}
                SoFar::Answer(answer) => panic!("{answer} came from nowhere"),
            }
        }
        // Another question waits for its turn.
        assert!(matches!(slow.ask(question(1).other(), |_| Some(1_u32)).await, Ok(SoFar::UnderWay { done: 0, of: 0 })));
        assert!(go.send(()).is_ok());
        loop {
            if let SoFar::Answer(answer) = ask(&slow, 1, again()).await {
                assert_eq!(*answer, 42);
                break;
            }
        }
        assert_eq!(begun.load(Ordering::SeqCst), 1, "worked out once");
        // Of a later line it is worked out anew.
        loop {
            if let SoFar::Answer(answer) = ask(&slow, 2, again()).await {
                assert_eq!(*answer, 7);
                break;
            }
        }
    }

    impl Question {
        fn other(self) -> Self {
            Self { what: "another", ..self }
        }
    }

    #[tokio::test]
    async fn work_that_nobody_waits_for_ends() {
        let slow = Slow::new(Duration::from_millis(1), Duration::from_millis(50));
        let (ended, end) = tokio::sync::oneshot::channel();
        let first = ask(&slow, 1, move |go_on| {
            // Without end, unless it is told to stop.
            while go_on(1, 2) {
                std::thread::sleep(Duration::from_millis(1));
            }
            let _ = ended.send(());
            None
        })
        .await;
        assert!(matches!(first, SoFar::UnderWay { .. }));
        assert!(end.await.is_ok());
        // Whoever asks after that begins it anew.
        loop {
            match slow.ask(question(1), |_| Some(5_u32)).await {
                Ok(SoFar::Answer(answer)) => {
                    assert_eq!(*answer, 5);
                    break;
                }
                _ => tokio::task::yield_now().await,
            }
        }
    }

    #[tokio::test]
    async fn so_many_are_waited_for_and_more_are_asked_to_come_again() {
        let slow = Slow::new(Duration::from_millis(1), Duration::from_secs(600));
        let (go, wait) = mpsc::channel::<()>();
        let home =
            |n: usize| Question { home: format!("hut-{n}").parse().unwrap_or_else(|_| panic!("no id")), what: "test", seq: 1 };
        let mut wait = Some(wait);
        for n in 0..MOST {
            let wait = wait.take();
            let asked = slow.ask(home(n), move |_| wait.map_or(Some(0), |wait| wait.recv().ok().map(|()| 0))).await;
            assert!(asked.is_ok());
        }
        assert!(slow.ask(home(MOST), |_| Some(0)).await.is_err());
        drop(go);
    }
}
