//! Whether the file at the path is still the one that was opened.
//!
//! Through an open connection a file can be written that nobody will ever find again: it was deleted, or another was put
//! in its place. Between two foldings of the log the file itself is not written, so that its length and time must be what
//! they were.

use super::beside;
use std::fs::Metadata;
use std::path::{Path, PathBuf};
use std::sync::{Mutex, PoisonError};
use std::time::SystemTime;
use thiserror::Error;

/// The data file is no longer the one that was opened.
#[derive(Clone, Debug, Error, PartialEq, Eq)]
pub enum Gone {
    /// Nothing is at its path.
    #[error("the data file {0} was deleted or moved while it was open")]
    Missing(PathBuf),
    /// Something else is.
    #[error("the data file {0} was replaced or written by another program while it was open")]
    Replaced(PathBuf),
}

/// What tells one file from another.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
struct Stamp {
    file: (u64, u64),
    length: u64,
    written: Option<SystemTime>,
}

impl Stamp {
    fn of(path: &Path) -> Option<Self> {
        std::fs::metadata(path).ok().map(|metadata| Self {
            file: identity(&metadata),
            length: metadata.len(),
            written: metadata.modified().ok(),
        })
    }
}

#[cfg(unix)]
fn identity(metadata: &Metadata) -> (u64, u64) {
    use std::os::unix::fs::MetadataExt;
    (metadata.dev(), metadata.ino())
}

/// Elsewhere an open file cannot be taken away.
#[cfg(not(unix))]
fn identity(_: &Metadata) -> (u64, u64) {
    (0, 0)
}

#[derive(Default)]
struct Seen {
    file: Option<Stamp>,
    log: Option<(u64, u64)>,
}

/// The file and its log as they were last seen by us.
pub(super) struct Watch {
    path: PathBuf,
    log: PathBuf,
    seen: Mutex<Seen>,
}

impl Watch {
    pub fn new(path: &Path) -> Self {
        let watch = Self { path: path.to_owned(), log: beside(path, "-wal"), seen: Mutex::default() };
        watch.look_again();
        watch
    }

    /// Takes what is there now for ours, after we wrote it.
    pub fn look_again(&self) {
        let log = std::fs::metadata(&self.log).ok().as_ref().map(identity);
        let mut seen = self.seen.lock().unwrap_or_else(PoisonError::into_inner);
        seen.log = log;
        // Another file in its place is never ours, even if it came while we wrote.
        let now = Stamp::of(&self.path);
        if seen.file.is_none() || now.map(|now| now.file) == seen.file.map(|seen| seen.file) {
            seen.file = now;
        }
    }

    /// # Errors
    /// [`Gone`] when the file is not the one that was opened, or was written by others.
    pub fn same(&self) -> Result<(), Gone> {
        let seen = self.seen.lock().unwrap_or_else(PoisonError::into_inner).file;
        match (Stamp::of(&self.path), seen) {
            (None, _) => Err(Gone::Missing(self.path.clone())),
            (now, seen) if now != seen => Err(Gone::Replaced(self.path.clone())),
            _ => Ok(()),
        }
    }

    /// Whether the log beside it is the one that is written.
    pub fn same_log(&self) -> bool {
        let seen = self.seen.lock().unwrap_or_else(PoisonError::into_inner).log;
        std::fs::metadata(&self.log).ok().as_ref().map(identity) == seen
    }

    /// Bytes of the log.
    pub fn log_length(&self) -> u64 {
        std::fs::metadata(&self.log).map_or(0, |metadata| metadata.len())
    }

    /// Cuts the log back to a length it had: what was written after it was refused and must not be found at the next
    /// start. SQLite holds no lock on the log itself, and what it knows of it ends before.
    pub fn cut_log(&self, length: u64) {
        let cut = std::fs::OpenOptions::new().write(true).open(&self.log).and_then(|log| {
            if log.metadata()?.len() > length {
                log.set_len(length)?;
            }
            log.sync_all()
        });
        if let Err(error) = cut {
            tracing::warn!(%error, "the log was not cut back");
        }
    }
}
