//! Copies of everything: one file each, made while the program runs, kept in a folder beside the data file.
//!
//! One is made before tables are brought up to date, one a day on which something changed, one before another is brought
//! back, and whenever the photographer asks.

use super::change::ChangeError;
use super::tables::{MIGRATIONS, OpenError, migrate, said_once, single};
use super::{PATIENCE, Store, beside, discard, folder_of_copies, sync_folder};
use serde::Serialize;
use sqlx::sqlite::{SqliteConnectOptions, SqliteRow};
use sqlx::{ConnectOptions, Connection, Row, SqliteConnection};
use std::fs::File;
use std::io::ErrorKind;
use std::path::{Path, PathBuf};
use std::time::Duration;
use tempfile::TempDir;
use thiserror::Error;

/// Daily copies that are kept.
const DAYS: usize = 7;
/// How often it is looked whether the day has changed.
const HOURLY: Duration = Duration::from_secs(3600);
/// Titles that are listed of what is inside.
const MOST_TITLES: i64 = 200;
const ENDING: &str = ".sqlite";
const LOOKED_AT: &str = "look";

/// Why a copy was made.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Why {
    /// Once a day.
    Daily,
    /// Before a new version of the program brought the tables up to date.
    Update,
    /// Before another copy was brought back.
    Return,
    /// The photographer asked.
    Asked,
    /// It came from elsewhere.
    Brought,
}

impl Why {
    const ALL: [Self; 5] = [Self::Daily, Self::Update, Self::Return, Self::Asked, Self::Brought];

    fn word(self) -> &'static str {
        match self {
            Self::Daily => "daily",
            Self::Update => "before-update",
            Self::Return => "before-return",
            Self::Asked => "asked",
            Self::Brought => "brought",
        }
    }
}

/// A copy in the folder.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct Copy {
    /// Its file name.
    pub name: String,
    /// Why it was made.
    pub why: Why,
    /// When, in this machine's own time.
    pub made_at: String,
    /// Its size.
    pub bytes: u64,
}

/// What is inside a copy or a data file.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct Inside {
    /// Shots, the first two hundred.
    pub shots: Vec<InsideShot>,
    /// How many there are.
    pub shot_count: i64,
    /// Things of the kit.
    pub thing_count: i64,
    /// Versions of all of them.
    pub version_count: i64,
    /// When anything last changed, UTC.
    pub changed_at: Option<String>,
    /// What is damaged in it, in sentences.
    pub damage: Vec<String>,
    /// Shots that are in the data file now and not in it, by title.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    #[schema(required = false)]
    pub lacks: Vec<String>,
}

/// How a shot of a copy stands against the one in the data file now.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stands {
    /// It is the same.
    Same,
    /// It has been changed since, or is older there.
    Differs,
    /// It is not there any more.
    Gone,
}

/// A shot in a copy.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct InsideShot {
    /// Its identity.
    pub id: String,
    /// Its title.
    pub title: String,
    /// When it last changed, UTC.
    pub changed_at: String,
    /// How it stands against now, where that was asked.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub now: Option<Stands>,
}

/// Why a copy was not made, read or brought back. The data file is as it was.
#[derive(Debug, Error)]
pub enum CopyError {
    /// A file is there already.
    #[error("{0} is there already. It was left as it is; choose another name.")]
    Taken(PathBuf),
    /// The system refuses.
    #[error("{path} cannot be written: {reason}. Nothing was changed.")]
    Unwritable {
        /// The file.
        path: PathBuf,
        /// What the system says.
        reason: std::io::Error,
    },
    /// No room.
    #[error("there is no room left for {0}. Nothing was changed; make room and try again.")]
    Full(PathBuf),
    /// No such copy.
    #[error("there is no copy named {0}.")]
    Missing(String),
    /// It cannot be read.
    #[error("this cannot be brought back: {0} Nothing was changed.")]
    Unusable(String),
    /// The database failed.
    #[error(transparent)]
    Change(#[from] ChangeError),
}

impl From<sqlx::Error> for CopyError {
    fn from(error: sqlx::Error) -> Self {
        Self::Change(error.into())
    }
}

/// Copies in the folder, latest first.
pub fn list(data: &Path) -> Vec<Copy> {
    let Ok(entries) = std::fs::read_dir(folder_of_copies(data)) else { return Vec::new() };
    let mut copies: Vec<Copy> = entries
        .flatten()
        .filter_map(|entry| {
            let name = entry.file_name().into_string().ok()?;
            let (made, why) = read_name(&name)?;
            Some(Copy { made_at: made, why, bytes: entry.metadata().ok()?.len(), name })
        })
        .collect();
    copies.sort_by(|a, b| b.name.cmp(&a.name));
    copies
}

/// `2026-11-26T10-11-12-daily.sqlite` as a time and a reason.
fn read_name(name: &str) -> Option<(String, Why)> {
    let stem = name.strip_suffix(ENDING)?;
    let (made, word) = (stem.get(..19)?, stem.get(20..)?);
    let why = Why::ALL.into_iter().find(|why| word == why.word() || word.starts_with(&format!("{}-", why.word())))?;
    let (day, time) = made.split_once('T')?;
    Some((format!("{day}T{}", time.replace('-', ":")), why))
}

/// Writes everything into a new file, which then is whole and synced.
///
/// # Errors
/// See [`CopyError`].
pub async fn write(store: &Store, target: &Path) -> Result<(), CopyError> {
    write_from(&mut *store.reader().await?, target).await
}

/// The same of a data file that another program may have open.
///
/// # Errors
/// See [`CopyError`].
pub async fn write_beside(data: &Path, target: &Path) -> Result<(), CopyError> {
    let options = SqliteConnectOptions::new().filename(data).read_only(true).busy_timeout(PATIENCE);
    let mut connection = match options.connect().await {
        Ok(connection) => connection,
        Err(error) => return Err(unusable(format!("{}: {}.", data.display(), said_once(&error)))),
    };
    if !is_ours(&mut connection).await {
        return Err(not_ours(data));
    }
    let written = write_from(&mut connection, target).await;
    discard(connection).await;
    written
}

async fn write_from(connection: &mut SqliteConnection, target: &Path) -> Result<(), CopyError> {
    let unwritable = |reason: std::io::Error| match reason.kind() {
        ErrorKind::StorageFull => CopyError::Full(target.to_owned()),
        ErrorKind::AlreadyExists => CopyError::Taken(target.to_owned()),
        _ => CopyError::Unwritable { path: target.to_owned(), reason },
    };
    if target.exists() {
        return Err(CopyError::Taken(target.to_owned()));
    }
    let folder = target.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."));
    // A folder beside the target, so that its name is free and what is half done is gone with it.
    let room = tempfile::Builder::new().prefix(".copy-").tempdir_in(folder).map_err(unwritable)?;
    let half = room.path().join("half");
    let into = sqlx::query("VACUUM INTO ?").bind(half.to_string_lossy().into_owned());
    into.execute(connection).await.map_err(|error| match super::primary_code(&error) {
        Some(13) => CopyError::Full(target.to_owned()),
        Some(14) => CopyError::Unwritable { path: target.to_owned(), reason: std::io::Error::other(said_once(&error)) },
        _ => error.into(),
    })?;
    File::open(&half).and_then(|file| file.sync_all()).map_err(unwritable)?;
    let whole = tempfile::TempPath::try_from_path(&half).map_err(unwritable)?;
    whole.persist_noclobber(target).map_err(|error| unwritable(error.error))?;
    sync_folder(target);
    Ok(())
}

/// Makes a copy in the folder.
///
/// # Errors
/// See [`CopyError`].
pub async fn keep(store: &Store, why: Why) -> Result<Copy, CopyError> {
    keep_from(store.path(), &mut *store.reader().await?, why).await
}

async fn keep_from(data: &Path, connection: &mut SqliteConnection, why: Why) -> Result<Copy, CopyError> {
    let target = free_name(data, connection, why).await?;
    write_from(connection, &target).await?;
    let name = target.file_name().unwrap_or_default().to_string_lossy().into_owned();
    list(data).into_iter().find(|copy| copy.name == name).ok_or(CopyError::Missing(name))
}

/// A name in the folder that nothing has, with the time of now.
async fn free_name(data: &Path, connection: &mut SqliteConnection, why: Why) -> Result<PathBuf, CopyError> {
    let folder = folder_of_copies(data);
    std::fs::create_dir_all(&folder).map_err(|reason| CopyError::Unwritable { path: folder.clone(), reason })?;
    let now: String =
        sqlx::query_scalar("SELECT strftime('%Y-%m-%dT%H-%M-%S', 'now', 'localtime')").fetch_one(connection).await?;
    let stem = format!("{now}-{}", why.word());
    let further = (2_u32..).map(|count| format!("{stem}-{count}{ENDING}"));
    let names = std::iter::once(format!("{stem}{ENDING}")).chain(further);
    Ok(names.map(|name| folder.join(name)).find(|path| !path.exists()).unwrap_or_default())
}

/// Whether the tables are of an earlier version.
pub(super) async fn wants_migration(connection: &mut SqliteConnection) -> Result<bool, sqlx::Error> {
    let latest: Result<Option<i64>, _> =
        sqlx::query_scalar("SELECT max(version) FROM _sqlx_migrations").fetch_one(connection).await;
    let ours = MIGRATIONS.iter().map(|migration| migration.version).max();
    match latest {
        Ok(latest) => Ok(latest < ours),
        // A file without tables yet, left by an earlier version that was killed: there is nothing to copy.
        Err(sqlx::Error::Database(error)) if error.message().contains("no such table") => Ok(false),
        Err(other) => Err(other),
    }
}

/// Keeps the file as it was before its tables are brought up to date.
pub(super) async fn keep_before_migration(data: &Path, connection: &mut SqliteConnection) -> Result<(), sqlx::Error> {
    match keep_from(data, connection, Why::Update).await {
        Ok(_) => Ok(()),
        Err(CopyError::Change(ChangeError::Database(error))) => Err(error),
        Err(other) => Err(sqlx::Error::Protocol(format!("no copy could be made before the update: {other}"))),
    }
}

/// Makes the copy of the day, and again on every day that the program runs into.
pub async fn keep_daily(store: Store) {
    let mut hours = tokio::time::interval(HOURLY);
    loop {
        hours.tick().await;
        if let Err(error) = daily(&store).await {
            tracing::warn!(%error, "the copy of the day was not made");
        }
    }
}

/// Makes the copy of the day where there is none and something has changed since the last; the oldest goes.
///
/// # Errors
/// See [`CopyError`].
pub async fn daily(store: &Store) -> Result<Option<Copy>, CopyError> {
    let copies: Vec<Copy> = list(store.path()).into_iter().filter(|copy| copy.why == Why::Daily).collect();
    let mut connection = store.reader().await?;
    let today: String = sqlx::query_scalar("SELECT date('now', 'localtime')").fetch_one(&mut *connection).await?;
    if let Some(last) = copies.first() {
        let same = || async {
            let mut copy = single(&folder_of_copies(store.path()).join(&last.name)).await.ok()?;
            let state = state(&mut copy).await.ok();
            discard(copy).await;
            state
        };
        if last.made_at.starts_with(&today) || same().await == Some(state(&mut connection).await?) {
            return Ok(None);
        }
    }
    let made = keep_from(store.path(), &mut connection, Why::Daily).await?;
    for old in copies.iter().skip(DAYS - 1) {
        let _ = std::fs::remove_file(folder_of_copies(store.path()).join(&old.name));
    }
    Ok(Some(made))
}

/// What differs when anything was changed.
async fn state(connection: &mut SqliteConnection) -> Result<String, sqlx::Error> {
    sqlx::query_scalar(
        "SELECT printf('%d %d %d %d %d', (SELECT max(id) FROM revision), (SELECT count(name) FROM revision),
                (SELECT sum(version) FROM document), (SELECT count(*) FROM document),
                (SELECT count(removed_at) FROM document))",
    )
    .fetch_one(connection)
    .await
}

/// A copy in the folder by its name.
///
/// # Errors
/// [`CopyError::Missing`]: names are looked up, never put together into a path.
pub fn find(data: &Path, name: &str) -> Result<PathBuf, CopyError> {
    let found = list(data).into_iter().find(|copy| copy.name == name);
    found.map(|copy| folder_of_copies(data).join(copy.name)).ok_or_else(|| CopyError::Missing(name.to_owned()))
}

/// What is inside a data file or a copy of one, which is not touched.
///
/// # Errors
/// [`CopyError::Unusable`] when it is not a data file of ours.
pub async fn look(copy: &Path) -> Result<Inside, CopyError> {
    let (room, mut connection) = readable(copy).await?;
    let inside = inside(&mut connection).await;
    discard(connection).await;
    drop(room);
    inside
}

fn unusable(reason: impl Into<String>) -> CopyError {
    CopyError::Unusable(reason.into())
}

fn not_ours(copy: &Path) -> CopyError {
    unusable(format!("{} is not a Dash Pebble data file.", copy.display()))
}

/// A copy of its own, with the log where there is one: a look changes nothing.
fn laid_out(copy: &Path) -> Result<TempDir, CopyError> {
    let no_room = |error: std::io::Error| unusable(format!("there is no room to look at it ({error})."));
    let room = tempfile::tempdir().map_err(no_room)?;
    let own = room.path().join(LOOKED_AT);
    std::fs::copy(copy, &own).map_err(|error| unusable(format!("{} cannot be read ({error}).", copy.display())))?;
    let log = beside(copy, "-wal");
    if log.exists() {
        std::fs::copy(&log, beside(&own, "-wal")).map_err(no_room)?;
    }
    Ok(room)
}

/// Whether a connection is to a file of ours, without a look at its mark.
async fn is_ours(connection: &mut SqliteConnection) -> bool {
    let tables = "SELECT count(*) FROM sqlite_schema WHERE name IN ('_sqlx_migrations', 'revision')";
    sqlx::query_scalar::<_, i64>(tables).fetch_one(connection).await.is_ok_and(|tables| tables == 2)
}

/// The same, against what is in the data file now.
///
/// # Errors
/// As [`look`], and those of the database.
pub async fn look_beside(store: &Store, copy: &Path) -> Result<Inside, CopyError> {
    let mut there = look(copy).await?;
    let here = inside(&mut *store.reader().await?).await?;
    for shot in &mut there.shots {
        let now = here.shots.iter().find(|now| now.id == shot.id);
        shot.now = Some(match now {
            Some(now) if now.changed_at == shot.changed_at => Stands::Same,
            Some(_) => Stands::Differs,
            None => Stands::Gone,
        });
    }
    let lacking = here.shots.into_iter().filter(|now| there.shots.iter().all(|shot| shot.id != now.id));
    there.lacks = lacking.map(|now| now.title).collect();
    Ok(there)
}

/// Everything that a file of ours has inside, as a connection that may be read.
async fn readable(copy: &Path) -> Result<(TempDir, SqliteConnection), CopyError> {
    let room = laid_out(copy)?;
    let Ok(mut connection) = single(&room.path().join(LOOKED_AT)).await else { return Err(not_ours(copy)) };
    if !is_ours(&mut connection).await {
        return Err(not_ours(copy));
    }
    match migrate(copy, &mut connection).await {
        Ok(()) => Ok((room, connection)),
        Err(OpenError::Newer(_)) => Err(unusable("it was written by a later version of Dash Pebble.")),
        Err(other) => Err(unusable(other.to_string())),
    }
}

async fn inside(connection: &mut SqliteConnection) -> Result<Inside, CopyError> {
    let damage: Vec<String> = sqlx::query_scalar("PRAGMA quick_check(5)").fetch_all(&mut *connection).await?;
    let text = |row: &SqliteRow, column: &str| {
        let bytes: Vec<u8> = row.try_get(column).unwrap_or_default();
        String::from_utf8_lossy(&bytes).into_owned()
    };
    let rows = sqlx::query(
        "SELECT CAST(id AS BLOB) AS id,
                CAST(CASE WHEN json_valid(body) THEN body ->> '$.title' ELSE id END AS BLOB) AS title,
                CAST(changed_at AS BLOB) AS changed_at
         FROM standing WHERE is_shot ORDER BY place_in_list LIMIT ?",
    )
    .bind(MOST_TITLES)
    .fetch_all(&mut *connection)
    .await?;
    let shots = rows
        .iter()
        .map(|row| InsideShot {
            id: text(row, "id"),
            title: text(row, "title"),
            changed_at: text(row, "changed_at"),
            now: None,
        })
        .collect();
    let (shot_count, thing_count): (i64, i64) =
        sqlx::query_as("SELECT count(*) FILTER (WHERE is_shot), count(*) FILTER (WHERE NOT is_shot) FROM standing")
            .fetch_one(&mut *connection)
            .await?;
    let version_count = sqlx::query_scalar("SELECT count(*) FROM revision").fetch_one(&mut *connection).await?;
    let changed_at = sqlx::query_scalar("SELECT max(changed_at) FROM document").fetch_one(connection).await?;
    Ok(Inside {
        shots,
        shot_count,
        thing_count,
        version_count,
        changed_at,
        damage: damage.into_iter().filter(|line| line != "ok").collect(),
        lacks: Vec::new(),
    })
}

/// Puts everything back to what a copy has. What is there now is kept as a copy first, which is what is returned.
///
/// Versions go on counting, so that a window which still shows what was there cannot write over what came back.
///
/// # Errors
/// See [`CopyError`].
pub async fn bring_back(store: &Store, copy: &Path) -> Result<Copy, CopyError> {
    let (room, mut from) = readable(copy).await?;
    let damage = inside(&mut from).await?.damage;
    if let Some(first) = damage.first() {
        return Err(CopyError::Unusable(format!(
            "it is damaged ({first}). `dash-pebble rescue` saves what can be read of it."
        )));
    }
    let kept = keep(store, Why::Return).await?;
    let mut change = store.change().await?;
    let versions: Vec<(String, i64)> =
        sqlx::query_as("SELECT id, version FROM document").fetch_all(&mut *change).await?;
    let versions: std::collections::HashMap<String, i64> = versions.into_iter().collect();
    sqlx::query("PRAGMA defer_foreign_keys = ON").execute(&mut *change).await?;
    for table in ["DELETE FROM document", "DELETE FROM revision"] {
        sqlx::query(table).execute(&mut *change).await?;
    }
    let mut after = i64::MIN;
    loop {
        let rows = sqlx::query(
            "SELECT id, document_id, parent, body, made_at, name FROM revision WHERE id > ? ORDER BY id LIMIT 500",
        )
        .bind(after)
        .fetch_all(&mut from)
        .await?;
        let Some(last) = rows.last() else { break };
        after = last.try_get("id")?;
        for row in &rows {
            sqlx::query(
                "INSERT INTO revision (id, document_id, parent, body, made_at, name) VALUES (?, ?, ?, ?, ?, ?)",
            )
            .bind(row.try_get::<i64, _>("id")?)
            .bind(row.try_get::<String, _>("document_id")?)
            .bind(row.try_get::<Option<i64>, _>("parent")?)
            .bind(row.try_get::<String, _>("body")?)
            .bind(row.try_get::<String, _>("made_at")?)
            .bind(row.try_get::<Option<String>, _>("name")?)
            .execute(&mut *change)
            .await?;
        }
    }
    let rows =
        sqlx::query("SELECT id, kind, version, head, place_in_list, removed_at, changed_at, retired_at FROM document")
            .fetch_all(&mut from)
            .await?;
    for row in &rows {
        let id: String = row.try_get("id")?;
        let version = row.try_get::<i64, _>("version")?.max(versions.get(&id).copied().unwrap_or(0)) + 1;
        sqlx::query(
            "INSERT INTO document (id, kind, version, head, place_in_list, removed_at, changed_at, retired_at)
             VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(&id)
        .bind(row.try_get::<String, _>("kind")?)
        .bind(version)
        .bind(row.try_get::<i64, _>("head")?)
        .bind(row.try_get::<i64, _>("place_in_list")?)
        .bind(row.try_get::<Option<String>, _>("removed_at")?)
        .bind(row.try_get::<String, _>("changed_at")?)
        .bind(row.try_get::<Option<String>, _>("retired_at")?)
        .execute(&mut *change)
        .await?;
    }
    change.commit().await?;
    let _ = from.close().await;
    drop(room);
    Ok(kept)
}

/// Puts a file from elsewhere among the copies, once it was seen to be one.
///
/// # Errors
/// See [`CopyError`].
pub async fn take_in(store: &Store, file: &Path) -> Result<Copy, CopyError> {
    look(file).await?;
    let target = free_name(store.path(), &mut *store.reader().await?, Why::Brought).await?;
    let unwritable = |reason: std::io::Error| CopyError::Unwritable { path: target.clone(), reason };
    std::fs::copy(file, &target).map_err(|reason| {
        let _ = std::fs::remove_file(&target);
        unwritable(reason)
    })?;
    File::open(&target).and_then(|file| file.sync_all()).map_err(unwritable)?;
    let name = target.file_name().unwrap_or_default().to_string_lossy().into_owned();
    list(store.path()).into_iter().find(|copy| copy.name == name).ok_or(CopyError::Missing(name))
}
