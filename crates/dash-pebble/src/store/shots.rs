//! Shots and their revisions.

use pebble_core::{Invalid, Plan, Shot};
use sqlx::{SqliteConnection, SqlitePool};
use thiserror::Error;

/// A shot as it is kept.
#[derive(Clone, Debug)]
pub struct Kept {
    /// Identity.
    pub id: String,
    /// Raised by every change; the entity tag.
    pub version: i64,
    /// The shot.
    pub shot: Shot,
    /// When it last changed, UTC.
    pub changed_at: String,
    /// Whether there is an earlier revision.
    pub can_undo: bool,
    /// Whether there is a later one.
    pub can_redo: bool,
}

/// Why a shot cannot be read or written.
#[derive(Debug, Error)]
pub enum ShotError {
    /// No such shot.
    #[error("no shot has the id {0}")]
    Missing(String),
    /// Somebody else changed it first.
    #[error("the shot was changed elsewhere")]
    Conflict(Box<Kept>),
    /// Nothing to undo or redo.
    #[error("there is nothing to {0}")]
    NoStep(&'static str),
    /// What is kept can no longer be read.
    #[error("shot {id} cannot be read: {reason}")]
    Unreadable {
        /// Which.
        id: String,
        /// Why.
        reason: String,
    },
    /// The database failed.
    #[error(transparent)]
    Database(#[from] sqlx::Error),
}

/// One way along the chain of revisions.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// To the revision before.
    Undo,
    /// To the latest revision after.
    Redo,
}

struct Row {
    id: String,
    version: i64,
    body: String,
    changed_at: String,
    can_undo: bool,
    can_redo: bool,
}

impl TryFrom<Row> for Kept {
    type Error = ShotError;

    /// What was stored is checked again: a file may have been touched by other hands.
    fn try_from(row: Row) -> Result<Self, ShotError> {
        let unreadable = |reason: String| ShotError::Unreadable { id: row.id.clone(), reason };
        let shot: Shot = serde_json::from_str(&row.body).map_err(|error| unreadable(error.to_string()))?;
        Plan::try_from(&shot).map_err(|error: Invalid| unreadable(error.to_string()))?;
        Ok(Self {
            id: row.id,
            version: row.version,
            shot,
            changed_at: row.changed_at,
            can_undo: row.can_undo,
            can_redo: row.can_redo,
        })
    }
}

/// All shots in the order of the list.
///
/// # Errors
/// [`ShotError::Database`]. Shots that cannot be read are returned as errors beside the others.
pub async fn all(pool: &SqlitePool) -> Result<Vec<Result<Kept, ShotError>>, ShotError> {
    let rows = sqlx::query_as!(
        Row,
        r#"SELECT id, version, body, changed_at, can_undo AS "can_undo!: bool", can_redo AS "can_redo!: bool"
           FROM standing_shot ORDER BY place_in_list"#
    )
    .fetch_all(pool)
    .await?;
    Ok(rows.into_iter().map(Kept::try_from).collect())
}

/// One shot.
///
/// # Errors
/// [`ShotError::Missing`], [`ShotError::Unreadable`], [`ShotError::Database`].
pub async fn one(pool: &SqlitePool, id: &str) -> Result<Kept, ShotError> {
    read(&mut *pool.acquire().await?, id).await
}

async fn read(connection: &mut SqliteConnection, id: &str) -> Result<Kept, ShotError> {
    let row = sqlx::query_as!(
        Row,
        r#"SELECT id, version, body, changed_at, can_undo AS "can_undo!: bool", can_redo AS "can_redo!: bool"
           FROM standing_shot WHERE id = ?"#,
        id
    )
    .fetch_optional(connection)
    .await?;
    row.ok_or_else(|| ShotError::Missing(id.to_owned()))?.try_into()
}

/// Adds a shot at the end of the list.
///
/// # Errors
/// [`ShotError::Database`].
pub async fn add(pool: &SqlitePool, shot: &Shot) -> Result<Kept, ShotError> {
    let body = written(shot);
    let mut change = pool.begin().await?;
    let id =
        sqlx::query_scalar!(r#"SELECT lower(hex(randomblob(8))) AS "id!: String""#).fetch_one(&mut *change).await?;
    let head = insert_revision(&mut change, &id, None, &body).await?;
    sqlx::query!(
        "INSERT INTO shot (id, head, place_in_list, changed_at)
         VALUES (?, ?, (SELECT coalesce(max(place_in_list), 0) + 1 FROM shot), strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))",
        id,
        head
    )
    .execute(&mut *change)
    .await?;
    let kept = read(&mut change, &id).await?;
    change.commit().await?;
    Ok(kept)
}

/// Replaces a shot that is still at the version the caller has seen. The same body again changes nothing.
///
/// # Errors
/// [`ShotError::Conflict`] with the shot as it is now when it is at another version.
pub async fn replace(pool: &SqlitePool, id: &str, seen: i64, shot: &Shot) -> Result<Kept, ShotError> {
    let body = written(shot);
    let mut change = pool.begin().await?;
    let now = at_version(&mut change, id, seen).await?;
    if now.shot == *shot {
        return Ok(now);
    }
    let parent = head(&mut change, id).await?;
    let head = insert_revision(&mut change, id, Some(parent), &body).await?;
    move_head(&mut change, id, head).await?;
    let kept = read(&mut change, id).await?;
    change.commit().await?;
    Ok(kept)
}

/// Moves one step along the chain.
///
/// # Errors
/// [`ShotError::Conflict`] at another version, [`ShotError::NoStep`] at the chain's end.
pub async fn step(pool: &SqlitePool, id: &str, seen: i64, step: Step) -> Result<Kept, ShotError> {
    let mut change = pool.begin().await?;
    at_version(&mut change, id, seen).await?;
    let from = head(&mut change, id).await?;
    let to = match step {
        Step::Undo => {
            sqlx::query_scalar!("SELECT parent FROM revision WHERE id = ?", from).fetch_one(&mut *change).await?
        }
        Step::Redo => {
            sqlx::query_scalar!(r#"SELECT max(id) AS "id: i64" FROM revision WHERE parent = ?"#, from)
                .fetch_one(&mut *change)
                .await?
        }
    };
    let to = to.ok_or(ShotError::NoStep(if step == Step::Undo { "undo" } else { "redo" }))?;
    move_head(&mut change, id, to).await?;
    let kept = read(&mut change, id).await?;
    change.commit().await?;
    Ok(kept)
}

/// Takes a shot off the list. Its revisions stay in the file; [`restore`] brings it back.
///
/// # Errors
/// [`ShotError::Conflict`] at another version.
pub async fn remove(pool: &SqlitePool, id: &str, seen: i64) -> Result<(), ShotError> {
    let mut change = pool.begin().await?;
    at_version(&mut change, id, seen).await?;
    sqlx::query!("UPDATE shot SET removed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = ?", id)
        .execute(&mut *change)
        .await?;
    change.commit().await?;
    Ok(())
}

/// Brings a removed shot back.
///
/// # Errors
/// [`ShotError::Missing`] when there never was one.
pub async fn restore(pool: &SqlitePool, id: &str) -> Result<Kept, ShotError> {
    let mut change = pool.begin().await?;
    sqlx::query!("UPDATE shot SET removed_at = NULL WHERE id = ?", id).execute(&mut *change).await?;
    let kept = read(&mut change, id).await?;
    change.commit().await?;
    Ok(kept)
}

async fn at_version(connection: &mut SqliteConnection, id: &str, seen: i64) -> Result<Kept, ShotError> {
    let now = read(connection, id).await?;
    if now.version == seen { Ok(now) } else { Err(ShotError::Conflict(Box::new(now))) }
}

async fn head(connection: &mut SqliteConnection, id: &str) -> Result<i64, ShotError> {
    Ok(sqlx::query_scalar!("SELECT head FROM shot WHERE id = ?", id).fetch_one(connection).await?)
}

async fn insert_revision(
    connection: &mut SqliteConnection,
    id: &str,
    parent: Option<i64>,
    body: &str,
) -> Result<i64, ShotError> {
    let made = sqlx::query!(
        "INSERT INTO revision (shot_id, parent, body, made_at) VALUES (?, ?, ?, strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))",
        id,
        parent,
        body
    )
    .execute(connection)
    .await?;
    Ok(made.last_insert_rowid())
}

async fn move_head(connection: &mut SqliteConnection, id: &str, head: i64) -> Result<(), ShotError> {
    sqlx::query!(
        "UPDATE shot SET head = ?, version = version + 1, changed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = ?",
        head,
        id
    )
    .execute(connection)
    .await?;
    Ok(())
}

fn written(shot: &Shot) -> String {
    // A shot is plain data with text keys: writing it to a string has nothing that could fail.
    serde_json::to_string(shot).unwrap_or_default()
}
