//! Changing the data file: one at a time, whole or not at all, and seen to be so.
//!
//! SQLite ends a transaction by itself when a disk is full, and what believes itself inside one then saves nothing. So
//! every change says `BEGIN IMMEDIATE` and `COMMIT` in so many words, which the database refuses outside and inside of a
//! transaction; a connection that failed at either is never used again.

use super::watch::Gone;
use super::{PATIENCE, Store, discard};
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqliteSynchronous};
use sqlx::{ConnectOptions, SqliteConnection};
use std::ops::{Deref, DerefMut};
use std::path::Path;
use std::sync::Arc;
use thiserror::Error;
use tokio::sync::OwnedMutexGuard;

/// Why a change was not made.
#[derive(Debug, Error)]
pub enum ChangeError {
    /// It would have gone into a file that nobody finds again.
    #[error(transparent)]
    Gone(#[from] Gone),
    /// The database refused it.
    #[error(transparent)]
    Database(#[from] sqlx::Error),
}

/// The place of the one who writes.
pub(super) struct Desk {
    options: SqliteConnectOptions,
    connection: Option<SqliteConnection>,
}

impl Desk {
    pub fn new(path: &Path) -> Self {
        let options = SqliteConnectOptions::new()
            .filename(path)
            .create_if_missing(false)
            .foreign_keys(true)
            .busy_timeout(PATIENCE)
            .journal_mode(SqliteJournalMode::Wal)
            // The log is folded in by us alone, so that the file itself is not written in between.
            .pragma("wal_autocheckpoint", "0")
            .synchronous(SqliteSynchronous::Full);
        Self { options, connection: None }
    }

    /// The connection, made anew where there is none.
    pub async fn connection(&mut self) -> Result<&mut SqliteConnection, sqlx::Error> {
        let connection = match self.connection.take() {
            Some(connection) => connection,
            None => self.options.connect().await?,
        };
        Ok(self.connection.insert(connection))
    }

    pub async fn close(&mut self) {
        if let Some(connection) = self.connection.take() {
            discard(connection).await;
        }
    }

    async fn begin(&mut self) -> Result<(), sqlx::Error> {
        let begun = run(self.connection().await?, "BEGIN IMMEDIATE").await;
        if begun.is_err() {
            self.close().await;
        }
        begun
    }
}

async fn run(connection: &mut SqliteConnection, statement: &'static str) -> Result<(), sqlx::Error> {
    sqlx::query(statement).execute(connection).await.map(drop)
}

/// A change that is being made. Dropped before [`Change::commit`], it is taken back.
pub struct Change {
    desk: Option<OwnedMutexGuard<Desk>>,
    connection: Option<SqliteConnection>,
    store: Store,
    /// Length of the log before it.
    log_length: u64,
}

impl Store {
    /// Begins a change; others wait.
    ///
    /// # Errors
    /// [`Gone`] when the file is no longer the one that was opened, else those of the database.
    pub async fn change(&self) -> Result<Change, ChangeError> {
        let mut desk = Arc::clone(&self.0.desk).lock_owned().await;
        self.0.watch.same()?;
        if !self.0.watch.same_log() {
            self.heal(&mut desk).await?;
        }
        desk.begin().await?;
        let log_length = self.0.watch.log_length();
        let connection = desk.connection.take();
        Ok(Change { desk: Some(desk), connection, store: self.clone(), log_length })
    }
}

impl Change {
    /// Makes it last. When this returns without an error, it has.
    ///
    /// # Errors
    /// Nothing of it is in the file then, and nothing of it will be at the next start: those of the database, or
    /// [`Gone`] when the file was taken away meanwhile.
    pub async fn commit(mut self) -> Result<(), ChangeError> {
        let (Some(mut desk), Some(mut connection)) = (self.desk.take(), self.connection.take()) else {
            return Ok(());
        };
        let watch = &self.store.0.watch;
        if let Err(error) = run(&mut connection, "COMMIT").await {
            // The database may have written all of it before the disk failed; it must not come back.
            watch.cut_log(self.log_length);
            discard(connection).await;
            // Folding the log in may make the room that was missing.
            self.store.0.changed.notify_one();
            return Err(error.into());
        }
        desk.connection = Some(connection);
        watch.same()?;
        if !watch.same_log() {
            self.store.heal(&mut desk).await?;
        }
        self.store.0.changed.notify_one();
        Ok(())
    }
}

impl Drop for Change {
    fn drop(&mut self) {
        let (Some(mut desk), Some(mut connection)) = (self.desk.take(), self.connection.take()) else { return };
        let (store, log_length) = (self.store.clone(), self.log_length);
        // Whoever asked has gone or was refused: it is taken back before the next one begins. A database that has taken
        // it back already refuses to do so again, and its connection is not trusted any more.
        tokio::spawn(async move {
            match run(&mut connection, "ROLLBACK").await {
                Ok(()) => desk.connection = Some(connection),
                Err(_) => {
                    store.0.watch.cut_log(log_length);
                    discard(connection).await;
                }
            }
        });
    }
}

impl Deref for Change {
    type Target = SqliteConnection;

    fn deref(&self) -> &SqliteConnection {
        self.connection.as_ref().expect("a change has its connection until it is over")
    }
}

impl DerefMut for Change {
    fn deref_mut(&mut self) -> &mut SqliteConnection {
        self.connection.as_mut().expect("a change has its connection until it is over")
    }
}
