//! Opening a data file, or making a new one.
//!
//! A new file is made aside, complete with mark, tables and what it shall hold, synced, and only then put in its place:
//! killed at any moment there is a whole file or none.

use super::change::Desk;
use super::tables::{OpenError, describe, migrate};
use super::watch::Watch;
use super::{Inner, PATIENCE, Store, beside, check, copies, discard, fold, reading, sync_folder};
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqliteSynchronous};
use sqlx::{ConnectOptions, SqliteConnection};
use std::fs::{File, TryLockError};
use std::io::{ErrorKind, Read};
use std::path::Path;
use std::pin::Pin;
use std::sync::Arc;
use std::time::{Duration, Instant};
use tokio::sync::{Mutex, Notify, RwLock};

/// `application_id` of the file header: "DPbl".
const APPLICATION_ID: u32 = 0x4450_626C;
/// Offset of it in a SQLite header (SQLite file format, 1.3).
const APPLICATION_ID_AT: usize = 68;
const SQLITE_MAGIC: &[u8; 16] = b"SQLite format 3\0";
/// How often a lock that another holds is tried again.
const LOOK_EVERY: Duration = Duration::from_millis(20);
/// A file without a mark that is larger than this is not looked into: it would have to be copied for that.
const MOST_TO_LOOK_INTO: u64 = 1 << 30;

/// Content that is being put into a file, as part of the change that makes it.
pub type Filled<'c> = Pin<Box<dyn Future<Output = Result<(), Box<dyn std::error::Error + Send + Sync>>> + Send + 'c>>;

/// Puts content into a file that has none yet.
pub type Filling = for<'c> fn(&'c mut SqliteConnection) -> Filled<'c>;

/// Opens or creates a data file and brings its tables up to date.
///
/// # Errors
/// See [`OpenError`].
pub async fn open(path: &Path) -> Result<Store, OpenError> {
    opened(path, None).await
}

/// The same; what has nothing in it yet is filled, all or nothing.
///
/// # Errors
/// See [`OpenError`].
pub async fn open_filled(path: &Path, filling: Filling) -> Result<Store, OpenError> {
    opened(path, Some(filling)).await
}

async fn opened(path: &Path, filling: Option<Filling>) -> Result<Store, OpenError> {
    named(path)?;
    let failed = |source: sqlx::Error| describe(path, source);
    let found = inspect(path).await?;
    let lock = match found {
        Found::Nothing => make(path, filling).await?,
        Found::Ours | Found::Unmarked => locked(path)?,
    };
    let mut desk = Desk::new(path);
    let connection = desk.connection().await.map_err(failed)?;
    if found == Found::Unmarked {
        sqlx::query(sqlx::AssertSqlSafe(format!("PRAGMA application_id = {APPLICATION_ID}")))
            .execute(&mut *connection)
            .await
            .map_err(failed)?;
    }
    if found != Found::Nothing && copies::wants_migration(connection).await.map_err(failed)? {
        copies::keep_before_migration(path, connection).await.map_err(failed)?;
    }
    migrate(path, connection).await?;
    fold(connection).await.map_err(failed)?;
    let readers = reading(path).await.map_err(failed)?;
    let damage = check::glance(&readers).await;
    let store = Store(Arc::new(Inner {
        path: path.to_owned(),
        readers: RwLock::new(readers),
        desk: Arc::new(Mutex::new(desk)),
        watch: Watch::new(path, lock),
        changed: Notify::new(),
        damage,
    }));
    if let (Some(filling), true) = (filling, found != Found::Nothing) {
        let broken = |reason: String| OpenError::Database { path: path.to_owned(), reason };
        let mut change = store.change().await.map_err(|error| broken(error.to_string()))?;
        filling(&mut change).await.map_err(|error| broken(error.to_string()))?;
        change.commit().await.map_err(|error| broken(error.to_string()))?;
    }
    Ok(store)
}

/// Refuses what the database would take for something else than the name of a file.
fn named(path: &Path) -> Result<(), OpenError> {
    let text = path.to_string_lossy();
    let why = if text.is_empty() {
        "it is empty"
    } else if text.starts_with(':') {
        "a name that begins with a colon means the memory"
    } else if text.starts_with("file:") || text.contains("://") {
        "it is an address"
    } else if text.ends_with(['/', '\\']) || path.is_dir() {
        "it is a folder"
    } else if text.contains('\0') {
        "it has a zero in it"
    } else if path.file_name().is_none() {
        "it is a folder"
    } else {
        return Ok(());
    };
    Err(OpenError::NotAName { given: text.into_owned(), why })
}

/// What stands at the path of a data file.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Found {
    /// No file, or an empty one.
    Nothing,
    /// A file of ours.
    Ours,
    /// A file of ours that lost its mark.
    Unmarked,
}

/// Looks at the file before any database code may touch it.
async fn inspect(path: &Path) -> Result<Found, OpenError> {
    let unreachable = |reason| OpenError::Unreachable { path: path.to_owned(), reason };
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
    if header.is_empty() {
        // A file that was created and never written is as good as none.
        return if metadata.permissions().readonly() {
            Err(OpenError::ReadOnly(path.to_owned()))
        } else {
            Ok(Found::Nothing)
        };
    }
    let id = header.get(APPLICATION_ID_AT..APPLICATION_ID_AT + 4);
    let marked = id == Some(&APPLICATION_ID.to_be_bytes());
    if !header.starts_with(SQLITE_MAGIC) || !(marked || id == Some(&[0; 4]) && has_our_tables(path).await) {
        return Err(OpenError::NotOurs(path.to_owned()));
    }
    if metadata.permissions().readonly() {
        return Err(OpenError::ReadOnly(path.to_owned()));
    }
    Ok(if marked { Found::Ours } else { Found::Unmarked })
}

/// Whether a file without a mark is ours all the same: an earlier version could be killed while it signed a new file, and
/// the mark was taken back at the next start. A copy is looked into, so that a stranger's file is not touched.
async fn has_our_tables(path: &Path) -> bool {
    let log = beside(path, "-wal");
    let size = |path: &Path| std::fs::metadata(path).map_or(0, |metadata| metadata.len());
    if size(path) + size(&log) > MOST_TO_LOOK_INTO {
        return false;
    }
    let Ok(folder) = tempfile::tempdir() else { return false };
    let copy = folder.path().join("copy");
    if std::fs::copy(path, &copy).is_err() || (log.exists() && std::fs::copy(&log, beside(&copy, "-wal")).is_err()) {
        return false;
    }
    let Ok(mut connection) = SqliteConnectOptions::new().filename(&copy).connect().await else { return false };
    let tables = "SELECT count(*) FROM sqlite_schema WHERE name IN ('_sqlx_migrations', 'revision', 'standing')";
    let found: Result<i64, _> = sqlx::query_scalar(tables).fetch_one(&mut connection).await;
    let first = "SELECT count(*) FROM _sqlx_migrations WHERE version = 1 AND description = 'shots'";
    let ours: Result<i64, _> = sqlx::query_scalar(first).fetch_one(&mut connection).await;
    discard(connection).await;
    matches!((found, ours), (Ok(2..), Ok(1)))
}

/// Keeps other programs of ours out.
fn locked(path: &Path) -> Result<File, OpenError> {
    let unreachable = |reason| OpenError::Unreachable { path: path.to_owned(), reason };
    let file = File::open(path).map_err(unreachable)?;
    keep_others_out(&file, path)?;
    Ok(file)
}

fn keep_others_out(file: &File, path: &Path) -> Result<(), OpenError> {
    // One that is ending, or a child that is being started, may hold it for a moment.
    let begun = Instant::now();
    let mut locked = file.try_lock();
    while matches!(locked, Err(TryLockError::WouldBlock)) && begun.elapsed() < PATIENCE {
        std::thread::sleep(LOOK_EVERY);
        locked = file.try_lock();
    }
    match locked {
        Ok(()) => Ok(()),
        Err(TryLockError::WouldBlock) => Err(OpenError::Locked(path.to_owned())),
        // Some disks of the network have no locks of this kind; the database's own still hold.
        Err(TryLockError::Error(error)) if error.kind() == ErrorKind::Unsupported => Ok(()),
        Err(TryLockError::Error(reason)) => Err(OpenError::Unreachable { path: path.to_owned(), reason }),
    }
}

/// Makes a new file aside and puts it in its place. What is returned keeps it locked.
async fn make(path: &Path, filling: Option<Filling>) -> Result<File, OpenError> {
    let unreachable = |reason: std::io::Error| match reason.kind() {
        ErrorKind::StorageFull => OpenError::Full(path.to_owned()),
        ErrorKind::AlreadyExists => OpenError::Locked(path.to_owned()),
        _ => OpenError::Unreachable { path: path.to_owned(), reason },
    };
    let aside = beside(path, ".new");
    if is_in_the_way(&aside) {
        return Err(OpenError::InTheWay(aside));
    }
    // Left by a program that was killed, or being made by one that runs: the lock tells.
    let file = File::options().create(true).truncate(false).write(true).open(&aside).map_err(unreachable)?;
    keep_others_out(&file, path)?;
    let drop_aside = tempfile::TempPath::try_from_path(&aside).map_err(unreachable)?;
    file.set_len(0).map_err(unreachable)?;
    let _ = std::fs::remove_file(beside(&aside, "-journal"));
    build(&aside, filling).await.map_err(|error| renamed(error, path))?;
    file.sync_all().map_err(unreachable)?;
    // A log or journal of a file that is no more would be played into the new one.
    for ending in ["-wal", "-journal", "-shm"] {
        put_away(&beside(path, ending)).map_err(unreachable)?;
    }
    let empty = std::fs::metadata(path).is_ok_and(|metadata| metadata.len() == 0);
    let placed = if empty { drop_aside.persist(path) } else { drop_aside.persist_noclobber(path) };
    placed.map_err(|error| unreachable(error.error))?;
    sync_folder(path);
    Ok(file)
}

/// Whether something that we did not make stands where a new file is made.
fn is_in_the_way(aside: &Path) -> bool {
    let Ok(metadata) = std::fs::symlink_metadata(aside) else { return false };
    let mut begins = [0; SQLITE_MAGIC.len()];
    let read = File::open(aside).and_then(|mut file| file.read_exact(&mut begins));
    // What a power cut left of one of ours may be all zeros.
    let ours = read.is_ok() && (begins == *SQLITE_MAGIC || begins == [0; SQLITE_MAGIC.len()]);
    !metadata.is_file() || (metadata.len() > 0 && !ours)
}

/// A new file with everything it shall have.
async fn build(path: &Path, filling: Option<Filling>) -> Result<(), OpenError> {
    let failed = |source: sqlx::Error| describe(path, source);
    let mut connection = SqliteConnectOptions::new()
        .filename(path)
        .journal_mode(SqliteJournalMode::Delete)
        .synchronous(SqliteSynchronous::Full)
        .foreign_keys(true)
        .pragma("application_id", APPLICATION_ID.to_string())
        .connect()
        .await
        .map_err(failed)?;
    migrate(path, &mut connection).await?;
    if let Some(filling) = filling {
        let broken = |error: Box<dyn std::error::Error + Send + Sync>| match error.downcast::<sqlx::Error>() {
            Ok(source) => describe(path, *source),
            Err(other) => OpenError::Database { path: path.to_owned(), reason: other.to_string() },
        };
        sqlx::query("BEGIN").execute(&mut connection).await.map_err(failed)?;
        filling(&mut connection).await.map_err(broken)?;
        sqlx::query("COMMIT").execute(&mut connection).await.map_err(failed)?;
    }
    discard(connection).await;
    Ok(())
}

/// A leftover of another file is not destroyed: who knows what is in it.
fn put_away(leftover: &Path) -> std::io::Result<()> {
    match std::fs::metadata(leftover) {
        Ok(metadata) if metadata.len() > 0 => {
            let kept = (1..).map(|count| beside(leftover, &format!(".left-{count}"))).find(|path| !path.exists());
            std::fs::rename(leftover, kept.unwrap_or_default())
        }
        Ok(_) => std::fs::remove_file(leftover),
        Err(_) => Ok(()),
    }
}

/// The same failure, of the file that was to be made and not of the one it is made in.
fn renamed(error: OpenError, path: &Path) -> OpenError {
    match error {
        OpenError::Full(_) => OpenError::Full(path.to_owned()),
        OpenError::Locked(_) => OpenError::Locked(path.to_owned()),
        OpenError::Database { reason, .. } => OpenError::Database { path: path.to_owned(), reason },
        other => other,
    }
}
