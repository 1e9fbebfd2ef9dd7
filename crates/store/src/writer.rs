//! The one that writes. SQLite has one writer at a time, and each transaction waits for the disk; so whatever waits to be
//! written goes into one transaction, each piece all or none by a savepoint of its own.
//!
//! Always holds: nothing is answered before it is on disk, and a piece that fails takes no other with it.

use std::sync::mpsc;
use std::thread;

use rusqlite::{Connection, TransactionBehavior};

use crate::StoreError;

/// The most pieces that share a transaction: enough for every client that waits, and an end for the first of them.
const MOST_TOGETHER: usize = 256;

/// A piece of writing. It may be done more than once, where a transaction has to be taken back.
trait Piece: Send {
    fn write(&mut self, connection: &Connection) -> Result<(), StoreError>;
    fn answer(self: Box<Self>, result: Result<(), StoreError>);
    /// Alone in its transaction, or outside any.
    fn together(&self) -> bool;
}

struct Work<F> {
    work: F,
    answer: mpsc::SyncSender<Result<(), StoreError>>,
    together: bool,
}

impl<F: FnMut(&Connection) -> Result<(), StoreError> + Send> Piece for Work<F> {
    fn write(&mut self, connection: &Connection) -> Result<(), StoreError> {
        (self.work)(connection)
    }
    fn answer(self: Box<Self>, result: Result<(), StoreError>) {
        // Whoever asked may be gone; what was written stays written.
        let _ = self.answer.send(result);
    }
    fn together(&self) -> bool {
        self.together
    }
}

/// The thread that writes, and the way to it.
#[derive(Debug)]
pub(crate) struct Writer {
    pieces: Option<mpsc::Sender<Box<dyn Piece>>>,
    thread: Option<thread::JoinHandle<()>>,
}

impl Writer {
    pub(crate) fn start(mut connection: Connection) -> Self {
        let (pieces, waiting) = mpsc::channel::<Box<dyn Piece>>();
        let thread = thread::spawn(move || {
            while let Ok(first) = waiting.recv() {
                let mut group = vec![first];
                group.extend(waiting.try_iter().take(MOST_TOGETHER - 1));
                write_group(&mut connection, group);
            }
        });
        Self { pieces: Some(pieces), thread: Some(thread) }
    }

    /// Writes in a transaction, all or none; on disk when this returns.
    pub(crate) fn write(
        &self,
        work: impl FnMut(&Connection) -> Result<(), StoreError> + Send + 'static,
    ) -> Result<(), StoreError> {
        self.send(work, true)
    }

    /// Does something to the connection outside any transaction.
    #[cfg(test)]
    pub(crate) fn alone(
        &self,
        work: impl FnMut(&Connection) -> Result<(), StoreError> + Send + 'static,
    ) -> Result<(), StoreError> {
        self.send(work, false)
    }

    fn send(
        &self,
        work: impl FnMut(&Connection) -> Result<(), StoreError> + Send + 'static,
        together: bool,
    ) -> Result<(), StoreError> {
        let (answer, answered) = mpsc::sync_channel(1);
        let pieces = self.pieces.as_ref().expect("the writer runs as long as the store; anything else is a bug");
        pieces.send(Box::new(Work { work, answer, together })).map_err(|_| StoreError::Stopped)?;
        answered.recv().map_err(|_| StoreError::Stopped)?
    }
}

impl Drop for Writer {
    fn drop(&mut self) {
        // Whatever waits is written first; the folder is free once the connection is closed.
        drop(self.pieces.take());
        if let Some(thread) = self.thread.take() {
            let _ = thread.join();
        }
    }
}

/// Writes what waits in one transaction. Where that as a whole cannot be, each is tried in one of its own, so that a large
/// one on a full disk takes no small one with it.
fn write_group(connection: &mut Connection, mut group: Vec<Box<dyn Piece>>) {
    if group.len() > 1
        && group.iter().all(|piece| piece.together())
        && let Ok(results) = together(connection, &mut group)
    {
        for (piece, result) in group.into_iter().zip(results) {
            piece.answer(result);
        }
        return;
    }
    for mut piece in group {
        let result = if piece.together() { alone(connection, &mut piece) } else { piece.write(connection) };
        piece.answer(result);
    }
}

fn alone(connection: &mut Connection, piece: &mut Box<dyn Piece>) -> Result<(), StoreError> {
    let transaction = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
    piece.write(&transaction)?;
    Ok(transaction.commit()?)
}

/// One transaction for all. An error means that nothing at all was written.
fn together(connection: &mut Connection, group: &mut [Box<dyn Piece>]) -> Result<Vec<Result<(), StoreError>>, StoreError> {
    let mut transaction = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
    let mut results = Vec::with_capacity(group.len());
    for piece in group {
        let savepoint = transaction.savepoint()?;
        let result = piece.write(&savepoint);
        // A full disk may end the whole transaction, whatever was written in it before.
        if savepoint.is_autocommit() {
            return Err(StoreError::Full);
        }
        match result {
            Ok(()) => savepoint.commit()?,
            Err(_) => drop(savepoint), // taken back
        }
        results.push(result);
    }
    transaction.commit()?;
    Ok(results)
}
