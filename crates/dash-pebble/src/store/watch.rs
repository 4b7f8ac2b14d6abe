//! Whether the file at the path is still the one that was opened.
//!
//! Through an open connection a file can be written that nobody will ever find again: it was deleted, or another was put
//! in its place. Between two foldings of the log the file itself is not written, so that its length and time must be what
//! they were.

use super::beside;
use std::fs::{File, Metadata};
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
    fn of(metadata: &Metadata) -> Self {
        Self { file: identity(metadata), length: metadata.len(), written: metadata.modified().ok() }
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
    /// The file itself, whatever is at the path: locked as long as it is open, so that no second program works in it.
    file: Mutex<Option<File>>,
    seen: Mutex<Seen>,
}

impl Watch {
    pub fn new(path: &Path, locked: File) -> Self {
        let watch = Self {
            path: path.to_owned(),
            log: beside(path, "-wal"),
            file: Mutex::new(Some(locked)),
            seen: Mutex::default(),
        };
        watch.look_again();
        watch.adopt_log();
        watch
    }

    /// Lets other programs in.
    pub fn let_go(&self) {
        self.file.lock().unwrap_or_else(PoisonError::into_inner).take();
    }

    /// Takes the log that is there now for the one that is written: after the connections were made, and never else, or a
    /// log that was taken away would be forgotten.
    pub fn adopt_log(&self) {
        let log = std::fs::metadata(&self.log).ok().as_ref().map(identity);
        self.seen.lock().unwrap_or_else(PoisonError::into_inner).log = log;
    }

    /// Remembers the file as it is now, after we wrote it. It is asked itself, not what is at the path by now.
    pub fn look_again(&self) {
        let file = self.file.lock().unwrap_or_else(PoisonError::into_inner);
        let now = file.as_ref().and_then(|file| file.metadata().ok());
        self.seen.lock().unwrap_or_else(PoisonError::into_inner).file = now.as_ref().map(Stamp::of);
    }

    /// # Errors
    /// [`Gone`] when the file is not the one that was opened, or was written by others.
    pub fn same(&self) -> Result<(), Gone> {
        let seen = self.seen.lock().unwrap_or_else(PoisonError::into_inner).file;
        match (std::fs::metadata(&self.path).ok().as_ref().map(Stamp::of), seen) {
            (None, _) => Err(Gone::Missing(self.path.clone())),
            (now, seen) if now != seen => Err(Gone::Replaced(self.path.clone())),
            _ => Ok(()),
        }
    }

    /// Whether the log beside it is the one that is written.
    pub fn same_log(&self) -> bool {
        let seen = self.seen.lock().unwrap_or_else(PoisonError::into_inner).log;
        let now = std::fs::metadata(&self.log).ok().as_ref().map(identity);
        now.is_some() && now == seen
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
