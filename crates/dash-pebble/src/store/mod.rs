//! The data file: one SQLite database, opened only when it is ours and nobody else has it.

pub mod documents;
pub mod kit;
pub mod shelf;
pub mod shots;
pub mod versions;

use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqliteLockingMode, SqlitePoolOptions, SqliteSynchronous};
use sqlx::{ConnectOptions, Connection, SqlitePool};
use std::fs::File;
use std::io::{ErrorKind, Read};
use std::path::{Path, PathBuf};
use std::time::Duration;
use thiserror::Error;

/// `application_id` of the file header: "DPbl".
const APPLICATION_ID: u32 = 0x4450_626C;
/// Offset of it in a SQLite header (SQLite file format, 1.3).
const APPLICATION_ID_AT: usize = 68;
const SQLITE_MAGIC: &[u8; 16] = b"SQLite format 3\0";
/// How long another program may hold the file before it counts as taken.
const PATIENCE: Duration = Duration::from_secs(1);

/// Why a data file cannot be used. The file is untouched in each case.
#[derive(Debug, Error)]
pub enum OpenError {
    /// Some other kind of file.
    #[error("{0} is not a Dash Pebble data file. It was left as it is; name another with --data.")]
    NotOurs(PathBuf),
    /// No right to write.
    #[error(
        "{0} cannot be written: it is read-only. Nothing was changed; make it writable or name another with --data."
    )]
    ReadOnly(PathBuf),
    /// Another program has it.
    #[error(
        "{0} is in use by another program, perhaps another Dash Pebble. Nothing was changed; close that one first."
    )]
    Locked(PathBuf),
    /// No room.
    #[error("there is no room left on the disk for {0}. Nothing was changed; make room and start again.")]
    Full(PathBuf),
    /// The folder is missing or closed.
    #[error("{path} cannot be opened: {source}. Nothing was changed.")]
    Unreachable {
        /// The file.
        path: PathBuf,
        /// What the system says.
        source: std::io::Error,
    },
    /// Written by a later version.
    #[error("{0} was written by a later version of Dash Pebble. Nothing was changed; use that version.")]
    Newer(PathBuf),
    /// Anything else of the database.
    #[error("{path} cannot be opened: {source}. Nothing was changed.")]
    Database {
        /// The file.
        path: PathBuf,
        /// What the database says.
        source: sqlx::Error,
    },
}

/// Opens or creates a data file and brings its tables up to date.
///
/// # Errors
/// See [`OpenError`].
pub async fn open(path: &Path) -> Result<SqlitePool, OpenError> {
    if inspect(path)? == Found::Nothing {
        sign(path).await.map_err(|source| describe(path, source))?;
    }
    let options = SqliteConnectOptions::new()
        .filename(path)
        .create_if_missing(true)
        .foreign_keys(true)
        .busy_timeout(PATIENCE)
        // One program at a time: two that undo each other would both be right and both lose work.
        .locking_mode(SqliteLockingMode::Exclusive)
        .journal_mode(SqliteJournalMode::Wal)
        .synchronous(SqliteSynchronous::Full);
    let failed = |source: sqlx::Error| describe(path, source);
    // An exclusive file has one connection; a photographer's own machine needs no more.
    let pool = SqlitePoolOptions::new().max_connections(1).connect_with(options).await.map_err(failed)?;
    match sqlx::migrate!().run(&pool).await {
        Ok(()) => Ok(pool),
        Err(sqlx::migrate::MigrateError::VersionMissing(_)) => Err(OpenError::Newer(path.to_owned())),
        Err(sqlx::migrate::MigrateError::Execute(source)) => Err(failed(source)),
        Err(other) => Err(failed(sqlx::Error::Migrate(Box::new(other)))),
    }
}

/// What stands at the path of a data file.
#[derive(PartialEq, Eq)]
enum Found {
    /// No file, or an empty one.
    Nothing,
    /// A file of ours.
    Ours,
}

/// Marks a new file as ours. This is written straight into it: in write-ahead mode the mark could still be in the log
/// when the program is killed, and the file would be refused as a stranger's.
async fn sign(path: &Path) -> Result<(), sqlx::Error> {
    let connection = SqliteConnectOptions::new()
        .filename(path)
        .create_if_missing(true)
        .journal_mode(SqliteJournalMode::Delete)
        .synchronous(SqliteSynchronous::Full)
        .pragma("application_id", APPLICATION_ID.to_string())
        .connect()
        .await?;
    connection.close().await
}

/// Looks at the file before any database code may touch it.
fn inspect(path: &Path) -> Result<Found, OpenError> {
    let unreachable = |source| OpenError::Unreachable { path: path.to_owned(), source };
    let metadata = match std::fs::metadata(path) {
        Ok(metadata) => metadata,
        Err(error) if error.kind() == ErrorKind::NotFound => return Ok(Found::Nothing),
        Err(error) => return Err(unreachable(error)),
    };
    if !metadata.is_file() {
        return Err(OpenError::NotOurs(path.to_owned()));
    }
    let mut header = Vec::with_capacity(100);
    File::open(path).map_err(unreachable)?.take(100).read_to_end(&mut header).map_err(unreachable)?;
    let id = header.get(APPLICATION_ID_AT..APPLICATION_ID_AT + 4);
    // A file that was created and never written is as good as none.
    if !header.is_empty() && (!header.starts_with(SQLITE_MAGIC) || id != Some(&APPLICATION_ID.to_be_bytes())) {
        return Err(OpenError::NotOurs(path.to_owned()));
    }
    if metadata.permissions().readonly() {
        return Err(OpenError::ReadOnly(path.to_owned()));
    }
    Ok(if header.is_empty() { Found::Nothing } else { Found::Ours })
}

fn describe(path: &Path, source: sqlx::Error) -> OpenError {
    let path = path.to_owned();
    match primary_code(&source) {
        Some(5 | 6) => OpenError::Locked(path),
        Some(8) => OpenError::ReadOnly(path),
        Some(13) => OpenError::Full(path),
        Some(26) => OpenError::NotOurs(path),
        _ => OpenError::Database { path, source },
    }
}

/// SQLite's primary result code (5 busy, 6 locked, 8 read-only, 13 full, 26 not a database), out of an extended one.
pub fn primary_code(error: &sqlx::Error) -> Option<u32> {
    let sqlx::Error::Database(database) = error else { return None };
    database.code()?.parse::<u32>().ok().map(|extended| extended & 0xff)
}
