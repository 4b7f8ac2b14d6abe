//! The tables of a data file: how they are brought up to date, and why a file cannot be used.

use super::{PATIENCE, folder_of_copies, primary_code};
use sqlx::migrate::{MigrateError, Migrator};
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode};
use sqlx::{ConnectOptions, SqliteConnection};
use std::path::{Path, PathBuf};
use thiserror::Error;

pub(super) static MIGRATIONS: Migrator = sqlx::migrate!();

/// Why a data file cannot be used. It is as it was in each case.
#[derive(Debug, Error)]
pub enum OpenError {
    /// Not the name of a file.
    #[error("{given} is not the name of a file: {why}. Nothing was changed; name one such as season.dashpebble.")]
    NotAName {
        /// What was given.
        given: String,
        /// Why it cannot be one.
        why: &'static str,
    },
    /// Where a new file is made there is something else.
    #[error("{0} is in the way: a new data file is made there first. It was left as it is; move it, or name another.")]
    InTheWay(PathBuf),
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
    #[error("{path} cannot be opened: {reason}. Nothing was changed.")]
    Unreachable {
        /// The file.
        path: PathBuf,
        /// What the system says.
        reason: std::io::Error,
    },
    /// Written by a later version.
    #[error("{0} was written by a later version of Dash Pebble. Nothing was changed; use that version.")]
    Newer(PathBuf),
    /// Too much of it is broken.
    #[error(
        "{path} is damaged: {reason}. It was left as it is. `dash-pebble rescue {path} NEW` saves what can be read, and \
         earlier copies are in {}.", folder_of_copies(path).display()
    )]
    Damaged {
        /// The file.
        path: PathBuf,
        /// What the database says.
        reason: String,
    },
    /// Anything else of the database.
    #[error("{path} cannot be opened: {reason}.")]
    Database {
        /// The file.
        path: PathBuf,
        /// What the database says.
        reason: String,
    },
}

/// Brings the tables up to date.
pub(super) async fn migrate(path: &Path, connection: &mut SqliteConnection) -> Result<(), OpenError> {
    match MIGRATIONS.run_direct(None, connection, false).await {
        Ok(()) => Ok(()),
        Err(MigrateError::VersionMissing(_)) => Err(OpenError::Newer(path.to_owned())),
        Err(MigrateError::Execute(source)) => Err(describe(path, source)),
        Err(MigrateError::ExecuteMigration(source, _)) => Err(describe(path, source)),
        Err(other) => Err(OpenError::Database { path: path.to_owned(), reason: other.to_string() }),
    }
}

/// What the database says, as what a user can do about it.
pub(super) fn describe(path: &Path, source: sqlx::Error) -> OpenError {
    let path = path.to_owned();
    match primary_code(&source) {
        Some(5 | 6) => OpenError::Locked(path),
        Some(8) => OpenError::ReadOnly(path),
        Some(11) => OpenError::Damaged { path, reason: said_once(&source) },
        Some(13) => OpenError::Full(path),
        Some(26) => OpenError::NotOurs(path),
        _ => OpenError::Database { path, reason: said_once(&source) },
    }
}

/// What the database itself says, without the words around it.
pub(super) fn said_once(source: &sqlx::Error) -> String {
    match source {
        sqlx::Error::Database(database) => database.message().to_owned(),
        other => other.to_string(),
    }
}

/// A copy opened to be read or brought up to date, in the journal mode that leaves one file.
pub(super) async fn single(path: &Path) -> Result<SqliteConnection, sqlx::Error> {
    let options = SqliteConnectOptions::new().filename(path).busy_timeout(PATIENCE).foreign_keys(false);
    options.journal_mode(SqliteJournalMode::Delete).connect().await
}
