//! The data file: one SQLite database, opened only when it is ours and nobody else has it.
//!
//! One connection writes ([`change`]), several read. What was answered as saved has been committed, synced, and seen to be
//! in the file that stands at the path.

mod change;
pub mod check;
pub mod copies;
pub mod documents;
pub mod kit;
mod opening;
pub mod pictures;
pub mod preferences;
pub mod rescue;
pub mod shelf;
pub mod shots;
mod tables;
pub mod versions;
mod watch;

pub use change::{Change, ChangeError};
pub use opening::{Filled, Filling, open, open_filled};
pub use tables::OpenError;
pub use watch::Gone;

use change::Desk;
use sqlx::pool::PoolConnection;
use sqlx::sqlite::{SqliteConnectOptions, SqlitePool, SqlitePoolOptions};
use sqlx::{Connection, Sqlite, SqliteConnection};
use std::fs::File;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::time::Duration;
use tokio::sync::{Mutex, Notify, RwLock};
use watch::Watch;

/// How long another program may hold the file before it counts as taken.
const PATIENCE: Duration = Duration::from_secs(1);
/// Connections that read. More than cores only wait for each other.
const READERS: u32 = 4;
/// After so long without a change the log is folded into the file: whoever copies the file then has everything.
const QUIET: Duration = Duration::from_secs(2);
/// How often a log that was taken away is tried to be folded in, each time with the database's own patience.
const HEALING_TRIES: u32 = 5;
/// A log longer than this is folded in at once.
const LONG_LOG: u64 = 4 * 1024 * 1024;

/// An open data file. Clones are the same file.
#[derive(Clone)]
pub struct Store(Arc<Inner>);

struct Inner {
    path: PathBuf,
    /// Replaced as a whole when the connections have to be made anew.
    readers: RwLock<SqlitePool>,
    desk: Arc<Mutex<Desk>>,
    watch: Watch,
    /// Says that something was changed.
    changed: Notify,
    /// What the look at the start found damaged.
    damage: Option<String>,
}

impl Store {
    /// Where it is.
    pub fn path(&self) -> &Path {
        &self.0.path
    }

    /// What was found damaged when it was opened, in the words of the database.
    pub fn damage(&self) -> Option<&str> {
        self.0.damage.as_deref()
    }

    /// A connection that reads.
    ///
    /// # Errors
    /// Those of the database.
    pub async fn reader(&self) -> Result<PoolConnection<Sqlite>, sqlx::Error> {
        let pool = self.0.readers.read().await.clone();
        pool.acquire().await
    }

    /// Folds the log into the file now.
    ///
    /// # Errors
    /// [`Gone`] when the file is no longer the one that was opened, else those of the database.
    pub async fn fold(&self) -> Result<(), ChangeError> {
        let mut desk = self.0.desk.lock().await;
        self.fold_at(&mut desk).await
    }

    async fn fold_at(&self, desk: &mut Desk) -> Result<(), ChangeError> {
        self.0.watch.same()?;
        let connection = desk.connection().await?;
        fold(connection).await?;
        self.0.watch.look_again();
        Ok(())
    }

    /// Folds the log in whenever nothing was changed for a while, until the program ends.
    pub async fn keep_folded(self) {
        loop {
            self.0.changed.notified().await;
            while self.0.watch.log_length() < LONG_LOG {
                if tokio::time::timeout(QUIET, self.0.changed.notified()).await.is_err() {
                    break;
                }
            }
            // What fails now (no room, a file that was taken away) is tried again after the next change, which says so.
            if let Err(error) = self.fold().await {
                tracing::warn!(%error, "the log was not folded in");
            }
        }
    }

    /// Folds the log in and closes the file.
    pub async fn close(&self) {
        if let Err(error) = self.fold().await {
            tracing::warn!(%error, "the log was not folded in");
        }
        self.0.readers.read().await.close().await;
        self.0.desk.lock().await.close().await;
        self.0.watch.let_go();
    }

    /// The log was taken away under us. What is in it is still to be had through the connections that are open: it is
    /// folded into the file, and then all connections are made anew.
    async fn heal(&self, desk: &mut Desk) -> Result<(), ChangeError> {
        // A copy that is being made reads the log for a while: it is waited for.
        let mut folded = self.fold_at(desk).await;
        for _ in 0..HEALING_TRIES {
            match folded {
                Err(ChangeError::Database(_)) => folded = self.fold_at(desk).await,
                _ => break,
            }
        }
        folded?;
        let mut readers = self.0.readers.write().await;
        readers.close().await;
        desk.close().await;
        desk.connection().await?;
        *readers = reading(&self.0.path).await?;
        self.0.watch.look_again();
        self.0.watch.adopt_log();
        Ok(())
    }
}

/// Connections that read.
async fn reading(path: &Path) -> Result<SqlitePool, sqlx::Error> {
    let options = SqliteConnectOptions::new().filename(path).read_only(true).busy_timeout(PATIENCE);
    let pool = SqlitePoolOptions::new().max_connections(READERS).idle_timeout(None).max_lifetime(None);
    let pool = pool.connect_with(options).await?;
    // All of them now, and the log with them, which is opened by the first question: one that came later would look for a
    // log that may have been taken away.
    let mut all = Vec::new();
    for _ in 0..READERS {
        let mut one = pool.acquire().await?;
        sqlx::query("SELECT count(*) FROM sqlite_schema").fetch_one(&mut *one).await?;
        all.push(one);
    }
    drop(all);
    Ok(pool)
}

/// Moves what is in the log into the file, and leaves the log empty.
async fn fold(connection: &mut SqliteConnection) -> Result<(), sqlx::Error> {
    let (busy, _, _): (i64, i64, i64) =
        sqlx::query_as("PRAGMA wal_checkpoint(TRUNCATE)").fetch_one(&mut *connection).await?;
    if busy == 0 { Ok(()) } else { Err(sqlx::Error::Protocol("somebody is still reading the log".to_owned())) }
}

/// SQLite's primary result code (5 busy, 6 locked, 8 read-only, 11 damaged, 13 full, 26 not a database), out of an
/// extended one.
pub fn primary_code(error: &sqlx::Error) -> Option<u32> {
    let sqlx::Error::Database(database) = error else { return None };
    database.code()?.parse::<u32>().ok().map(|extended| extended & 0xff)
}

/// The folder of a data file's copies.
pub fn folder_of_copies(data: &Path) -> PathBuf {
    beside(data, "-copies")
}

/// A file beside another: its name with an ending.
fn beside(path: &Path, ending: &str) -> PathBuf {
    let mut name = path.file_name().unwrap_or_default().to_owned();
    name.push(ending);
    path.with_file_name(name)
}

/// Makes a new name in a folder last through a power cut. Where folders cannot be synced, the system does it by itself.
fn sync_folder(of: &Path) {
    let folder = of.parent().filter(|parent| !parent.as_os_str().is_empty()).unwrap_or(Path::new("."));
    if let Ok(folder) = File::open(folder) {
        let _ = folder.sync_all();
    }
}

/// Closes a connection that may be in any state.
async fn discard(connection: SqliteConnection) {
    let _ = connection.close().await;
}
