//! Documents and their revisions: what shots and the things of the kit have in common.
//!
//! A document is a chain of revisions with a head. Undo and redo move the head; every move raises the version.

use super::shelf::{Document, Shelf};
use super::{ChangeError, Gone, Store, primary_code};
use pebble_core::fit::Moved;
use serde::Serialize;
use sqlx::SqliteConnection;
use std::collections::BTreeSet;
use thiserror::Error;

/// A document as it is kept.
#[derive(Clone, Debug)]
pub struct Kept<T> {
    /// Identity.
    pub id: String,
    /// Raised by every change; the entity tag.
    pub version: i64,
    /// The document, with the kit's figures of today.
    pub thing: T,
    /// What had to move because the kit has changed since it was saved.
    pub moved: Vec<Moved>,
    /// When it last changed, UTC.
    pub changed_at: String,
    /// Whether it is no longer offered.
    pub retired: bool,
    /// Whether there is an earlier revision.
    pub can_undo: bool,
    /// Whether there is a later one.
    pub can_redo: bool,
}

/// Something that carries a thing of the kit.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct Use {
    /// Its identity.
    pub id: String,
    /// Its title or name.
    pub name: String,
    /// Whether it is a shot; else it is a unit.
    pub is_shot: bool,
}

/// Why a document cannot be read or written.
#[derive(Debug, Error)]
pub enum DocumentError<T> {
    /// No such document.
    #[error("no {noun} has the id {id}")]
    Missing {
        /// What was looked for.
        noun: &'static str,
        /// The identity.
        id: String,
    },
    /// Somebody else changed it first.
    #[error("it was changed elsewhere")]
    Conflict(Box<Kept<T>>),
    /// Nothing to undo or redo.
    #[error("there is nothing to {0}")]
    NoStep(&'static str),
    /// It is carried by others.
    #[error("it is in use")]
    InUse(Vec<Use>),
    /// The identity is taken.
    #[error("the id {0} is taken by something else")]
    Taken(String),
    /// What is kept can no longer be read.
    #[error("{id} cannot be read: {reason}")]
    Unreadable {
        /// Which.
        id: String,
        /// Why.
        reason: String,
    },
    /// The file was taken away.
    #[error(transparent)]
    Gone(#[from] Gone),
    /// The database failed.
    #[error(transparent)]
    Database(#[from] sqlx::Error),
}

impl<T> From<ChangeError> for DocumentError<T> {
    fn from(error: ChangeError) -> Self {
        match error {
            ChangeError::Gone(gone) => Self::Gone(gone),
            ChangeError::Database(error) => Self::Database(error),
        }
    }
}

/// One way along the chain of revisions.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// To the revision before.
    Undo,
    /// To the latest revision after.
    Redo,
}

/// A document as it stands. Texts are read as bytes: one flipped bit makes a text that cannot be read as one, and would
/// spoil the answer about all others.
struct StoredDocument {
    id: Vec<u8>,
    version: i64,
    body: Vec<u8>,
    changed_at: Vec<u8>,
    retired: bool,
    can_undo: bool,
    can_redo: bool,
}

/// Which of the list.
#[derive(Clone, Copy, Debug)]
pub struct Page {
    /// So many are passed over.
    pub skip: i64,
    /// At most so many are returned.
    pub most: i64,
}

impl Page {
    /// All of it.
    pub const ALL: Self = Self { skip: 0, most: i64::MAX };
}

/// What is read of a list: documents, and in place of those that cannot be read why.
pub type Listed<T> = Vec<Result<Kept<T>, DocumentError<T>>>;

/// All documents in the order of the list.
///
/// # Errors
/// [`DocumentError::Database`]. What cannot be read is returned as an error beside the others.
pub async fn all<T: Document>(store: &Store) -> Result<Listed<T>, DocumentError<T>> {
    page(store, Page::ALL).await
}

/// Some documents in the order of the list.
///
/// # Errors
/// [`DocumentError::Database`]. What cannot be read is returned as an error beside the others.
pub async fn page<T: Document>(store: &Store, page: Page) -> Result<Listed<T>, DocumentError<T>> {
    let mut connection = store.reader().await?;
    let rows = sqlx::query_as!(
        StoredDocument,
        r#"SELECT CAST(id AS BLOB) AS "id!: Vec<u8>", version, CAST(body AS BLOB) AS "body!: Vec<u8>",
                  CAST(changed_at AS BLOB) AS "changed_at!: Vec<u8>", retired AS "retired!: bool",
                  can_undo AS "can_undo!: bool", can_redo AS "can_redo!: bool"
           FROM standing WHERE is_shot = ? ORDER BY place_in_list LIMIT ? OFFSET ?"#,
        T::IS_SHOT,
        page.most,
        page.skip
    )
    .fetch_all(&mut *connection)
    .await;
    match rows {
        Ok(rows) => settled(&mut connection, rows).await,
        Err(error) if is_damage(&error) => one_by_one(&mut connection, page).await,
        Err(error) => Err(error.into()),
    }
}

/// How many there are.
///
/// # Errors
/// Those of the database.
pub async fn count<T: Document>(store: &Store) -> Result<i64, sqlx::Error> {
    sqlx::query_scalar!("SELECT count(*) FROM document WHERE (kind = 'shot') = ? AND removed_at IS NULL", T::IS_SHOT)
        .fetch_one(&mut *store.reader().await?)
        .await
}

/// Pages of the file that are broken: 11, or content that cannot be what it says.
fn is_damage(error: &sqlx::Error) -> bool {
    primary_code(error) == Some(11)
}

/// The list where a page of the file is broken: what is on it is named, the others are shown.
async fn one_by_one<T: Document>(connection: &mut SqliteConnection, page: Page) -> Result<Listed<T>, DocumentError<T>> {
    let ids = sqlx::query_scalar!(
        r#"SELECT CAST(id AS BLOB) AS "id!: Vec<u8>" FROM document WHERE (kind = 'shot') = ? AND removed_at IS NULL
           ORDER BY place_in_list LIMIT ? OFFSET ?"#,
        T::IS_SHOT,
        page.most,
        page.skip
    )
    .fetch_all(&mut *connection)
    .await?;
    let mut list = Vec::with_capacity(ids.len());
    for id in ids {
        let id = String::from_utf8_lossy(&id).into_owned();
        list.push(match read(&mut *connection, &id).await {
            Err(DocumentError::Database(error)) => Err(DocumentError::Unreadable { id, reason: error.to_string() }),
            // Its head is gone.
            Err(DocumentError::Missing { .. }) => {
                Err(DocumentError::Unreadable { id, reason: "its last version is not there".to_owned() })
            }
            other => other,
        });
    }
    Ok(list)
}

/// One document.
///
/// # Errors
/// [`DocumentError::Missing`], [`DocumentError::Unreadable`], [`DocumentError::Database`].
pub async fn one<T: Document>(store: &Store, id: &str) -> Result<Kept<T>, DocumentError<T>> {
    read(&mut *store.reader().await?, id).await
}

pub(super) async fn read<T: Document>(
    connection: &mut SqliteConnection,
    id: &str,
) -> Result<Kept<T>, DocumentError<T>> {
    let row = sqlx::query_as!(
        StoredDocument,
        r#"SELECT CAST(id AS BLOB) AS "id!: Vec<u8>", version, CAST(body AS BLOB) AS "body!: Vec<u8>",
                  CAST(changed_at AS BLOB) AS "changed_at!: Vec<u8>", retired AS "retired!: bool",
                  can_undo AS "can_undo!: bool", can_redo AS "can_redo!: bool"
           FROM standing WHERE id = ? AND is_shot = ?"#,
        id,
        T::IS_SHOT
    )
    .fetch_optional(&mut *connection)
    .await?;
    let row = row.ok_or_else(|| DocumentError::Missing { noun: T::NOUN, id: id.to_owned() })?;
    let mut kept = settled(connection, vec![row]).await?;
    kept.pop().unwrap_or_else(|| Err(DocumentError::Missing { noun: T::NOUN, id: id.to_owned() }))
}

/// Rows as documents with the kit's figures of today.
async fn settled<T: Document>(
    connection: &mut SqliteConnection,
    rows: Vec<StoredDocument>,
) -> Result<Vec<Result<Kept<T>, DocumentError<T>>>, DocumentError<T>> {
    let read: Vec<(StoredDocument, Result<T, String>)> = rows
        .into_iter()
        .map(|row| {
            let thing = serde_json::from_slice(&row.body).map_err(|error| error.to_string());
            (row, thing)
        })
        .collect();
    let ids: BTreeSet<&str> =
        read.iter().filter_map(|(_, thing)| thing.as_ref().ok()).flat_map(Document::carries).collect();
    let shelf = Shelf::load(connection, &ids).await?;
    Ok(read
        .into_iter()
        .map(|(row, thing)| {
            let id = String::from_utf8_lossy(&row.id).into_owned();
            let unreadable = |reason: String| DocumentError::Unreadable { id: called(&row), reason };
            let settled = thing.and_then(|thing: T| thing.brought_up(&shelf).map_err(|error| error.to_string()));
            let (thing, mut moved) = settled.map_err(unreadable)?;
            moved.extend(T::carried_over(&row.body));
            Ok(Kept {
                id,
                version: row.version,
                thing,
                moved,
                changed_at: String::from_utf8_lossy(&row.changed_at).into_owned(),
                retired: row.retired,
                can_undo: row.can_undo,
                can_redo: row.can_redo,
            })
        })
        .collect())
}

/// What a photographer knows a document by, as far as it can be made out.
fn called(row: &StoredDocument) -> String {
    let id = String::from_utf8_lossy(&row.id);
    let body: serde_json::Value = serde_json::from_str(&String::from_utf8_lossy(&row.body)).unwrap_or_default();
    let name = body["title"].as_str().or_else(|| body["item"]["name"].as_str());
    name.map_or_else(|| id.to_string(), |name| format!("{name} ({id})"))
}

/// Adds a document at the end of the list, as part of a larger change.
///
/// # Errors
/// [`DocumentError::Taken`], [`DocumentError::Database`].
pub async fn insert<T: Document>(
    connection: &mut SqliteConnection,
    id: &str,
    thing: &T,
) -> Result<(), DocumentError<T>> {
    let taken =
        sqlx::query_scalar!("SELECT id FROM document WHERE id = ?", id).fetch_optional(&mut *connection).await?;
    if taken.is_some() {
        return Err(DocumentError::Taken(id.to_owned()));
    }
    let head = insert_revision(&mut *connection, id, None, &written(thing)).await?;
    let kind = thing.kind();
    sqlx::query!(
        "INSERT INTO document (id, kind, head, place_in_list, changed_at)
         VALUES (?, ?, ?, (SELECT coalesce(max(place_in_list), 0) + 1 FROM document), strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))",
        id,
        kind,
        head
    )
    .execute(connection)
    .await?;
    Ok(())
}

/// Replaces a document that is still at the version the caller has seen. The same again changes nothing.
///
/// # Errors
/// [`DocumentError::Conflict`] with the document as it is now when it is at another version.
pub async fn replace<T: Document>(store: &Store, id: &str, seen: i64, thing: &T) -> Result<Kept<T>, DocumentError<T>> {
    let now = at_version(&mut *store.reader().await?, id, seen).await?;
    if now.thing == *thing {
        return Ok(now);
    }
    let body = written(thing);
    // Others wait while this is being done: only what has to be is done here.
    let mut change = store.change().await?;
    let still = sqlx::query!("SELECT version, head FROM document WHERE id = ? AND removed_at IS NULL", id);
    let parent = match still.fetch_optional(&mut *change).await? {
        Some(still) if still.version == seen => still.head,
        _ => {
            at_version::<T>(&mut change, id, seen).await?;
            head(&mut change, id).await?
        }
    };
    let changed_at = put_body(&mut change, id, parent, &body).await?;
    change.commit().await?;
    let row = StoredDocument {
        id: id.as_bytes().to_vec(),
        version: seen + 1,
        body: body.into_bytes(),
        changed_at: changed_at.into_bytes(),
        retired: now.retired,
        can_undo: true,
        can_redo: false,
    };
    let mut kept = settled(&mut *store.reader().await?, vec![row]).await?;
    kept.pop().unwrap_or_else(|| Err(DocumentError::Missing { noun: T::NOUN, id: id.to_owned() }))
}

/// Puts a new revision on a document as part of a larger change.
///
/// # Errors
/// [`DocumentError::Database`].
pub async fn put<T: Document>(connection: &mut SqliteConnection, id: &str, thing: &T) -> Result<(), DocumentError<T>> {
    let parent = head(&mut *connection, id).await?;
    put_body(connection, id, parent, &written(thing)).await?;
    Ok(())
}

/// [`put`] of what is written already; returns the moment.
async fn put_body(connection: &mut SqliteConnection, id: &str, parent: i64, body: &str) -> Result<String, sqlx::Error> {
    let head = insert_revision(&mut *connection, id, Some(parent), body).await?;
    let changed_at = move_head(&mut *connection, id, head).await?;
    if head % THINNED_EVERY == 0 {
        thin(connection, id).await?;
    }
    Ok(changed_at)
}

/// Moves one step along the chain.
///
/// # Errors
/// [`DocumentError::Conflict`] at another version, [`DocumentError::NoStep`] at the chain's end.
pub async fn step<T: Document>(store: &Store, id: &str, seen: i64, step: Step) -> Result<Kept<T>, DocumentError<T>> {
    let mut change = store.change().await?;
    at_version::<T>(&mut change, id, seen).await?;
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
    let to = to.ok_or(DocumentError::NoStep(if step == Step::Undo { "undo" } else { "redo" }))?;
    move_head(&mut change, id, to).await?;
    let kept = read(&mut change, id).await?;
    change.commit().await?;
    Ok(kept)
}

/// Takes a document off the list. Its revisions stay in the file; [`restore`] brings it back.
///
/// # Errors
/// [`DocumentError::Conflict`] at another version, [`DocumentError::InUse`] while something carries it.
pub async fn remove<T: Document>(store: &Store, id: &str, seen: i64) -> Result<(), DocumentError<T>> {
    let mut change = store.change().await?;
    at_version::<T>(&mut change, id, seen).await?;
    let uses = uses_within(&mut change, id).await?;
    if !uses.is_empty() {
        return Err(DocumentError::InUse(uses));
    }
    sqlx::query!("UPDATE document SET removed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = ?", id)
        .execute(&mut *change)
        .await?;
    change.commit().await?;
    Ok(())
}

/// Brings a removed document back.
///
/// # Errors
/// [`DocumentError::Missing`] when there never was one.
pub async fn restore<T: Document>(store: &Store, id: &str) -> Result<Kept<T>, DocumentError<T>> {
    let mut change = store.change().await?;
    sqlx::query!("UPDATE document SET removed_at = NULL WHERE id = ? AND (kind = 'shot') = ?", id, T::IS_SHOT)
        .execute(&mut *change)
        .await?;
    let kept = read(&mut change, id).await?;
    change.commit().await?;
    Ok(kept)
}

/// Takes a thing out of what is offered, or back in. What carries it goes on.
///
/// # Errors
/// [`DocumentError::Conflict`] at another version.
pub async fn retire<T: Document>(
    store: &Store,
    id: &str,
    seen: i64,
    retired: bool,
) -> Result<Kept<T>, DocumentError<T>> {
    let mut change = store.change().await?;
    at_version::<T>(&mut change, id, seen).await?;
    set_retired(&mut change, id, retired).await?;
    let kept = read(&mut change, id).await?;
    change.commit().await?;
    Ok(kept)
}

/// [`retire`] as part of a larger change.
///
/// # Errors
/// Those of the database.
pub async fn set_retired(connection: &mut SqliteConnection, id: &str, retired: bool) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "UPDATE document SET retired_at = CASE WHEN ? THEN strftime('%Y-%m-%dT%H:%M:%fZ', 'now') END,
                version = version + 1 WHERE id = ? AND (retired_at IS NOT NULL) <> ?",
        retired,
        id,
        retired
    )
    .execute(connection)
    .await?;
    Ok(())
}

/// What carries a thing of the kit.
///
/// # Errors
/// Those of the database.
pub async fn uses(store: &Store, id: &str) -> Result<Vec<Use>, sqlx::Error> {
    uses_within(&mut *store.reader().await?, id).await
}

async fn uses_within(connection: &mut SqliteConnection, id: &str) -> Result<Vec<Use>, sqlx::Error> {
    sqlx::query_as!(
        Use,
        r#"SELECT DISTINCT by_id AS "id!: String", by_name AS "name!: String", by_shot AS "is_shot!: bool"
           FROM carried WHERE item_id = ? ORDER BY place_in_list"#,
        id
    )
    .fetch_all(connection)
    .await
}

/// How often each thing of the kit is carried.
///
/// # Errors
/// Those of the database.
pub async fn use_counts(store: &Store) -> Result<std::collections::HashMap<String, i64>, sqlx::Error> {
    let rows = sqlx::query!(
        r#"SELECT item_id AS "item_id!: String", count(DISTINCT by_id) AS "uses!: i64" FROM carried GROUP BY item_id"#
    )
    .fetch_all(&mut *store.reader().await?)
    .await?;
    Ok(rows.into_iter().map(|row| (row.item_id, row.uses)).collect())
}

async fn at_version<T: Document>(
    connection: &mut SqliteConnection,
    id: &str,
    seen: i64,
) -> Result<Kept<T>, DocumentError<T>> {
    let now = read(connection, id).await?;
    if now.version == seen { Ok(now) } else { Err(DocumentError::Conflict(Box::new(now))) }
}

async fn head(connection: &mut SqliteConnection, id: &str) -> Result<i64, sqlx::Error> {
    sqlx::query_scalar!("SELECT head FROM document WHERE id = ?", id).fetch_one(connection).await
}

/// Versions without a name that are kept of a document.
const MOST_UNNAMED: i64 = 200;
/// Not every change looks for old ones: this many versions come to a file between two looks.
const THINNED_EVERY: i64 = 8;
/// Versions thinned in one change, so that a long history of an earlier version goes little by little.
const THINNED_AT_ONCE: i64 = 40;

/// Drops the oldest versions beyond the last two hundred that have no name; those with names stay, and so does the one
/// that counts. What was made from a dropped one now follows the one before it.
async fn thin(connection: &mut SqliteConnection, id: &str) -> Result<(), sqlx::Error> {
    let last = sqlx::query_scalar!(
        r#"SELECT id AS "id!" FROM revision WHERE document_id = ? AND name IS NULL ORDER BY id DESC LIMIT 1 OFFSET ?"#,
        id,
        MOST_UNNAMED
    )
    .fetch_optional(&mut *connection)
    .await?;
    let Some(last) = last else { return Ok(()) };
    let old = sqlx::query!(
        r#"SELECT revision.id AS "id!", parent FROM revision JOIN document ON document.id = document_id
           WHERE document_id = ? AND name IS NULL AND revision.id <= ? AND revision.id <> head
           ORDER BY revision.id LIMIT ?"#,
        id,
        last,
        THINNED_AT_ONCE
    )
    .fetch_all(&mut *connection)
    .await?;
    for one in old {
        // The one before may have gone a moment ago.
        sqlx::query!(
            "UPDATE revision SET parent = (SELECT parent FROM revision WHERE id = ?1) WHERE parent = ?1",
            one.id
        )
        .execute(&mut *connection)
        .await?;
        sqlx::query!("DELETE FROM revision WHERE id = ?", one.id).execute(&mut *connection).await?;
    }
    Ok(())
}

async fn insert_revision(
    connection: &mut SqliteConnection,
    id: &str,
    parent: Option<i64>,
    body: &str,
) -> Result<i64, sqlx::Error> {
    let made = sqlx::query!(
        "INSERT INTO revision (document_id, parent, body, made_at)
         VALUES (?, ?, ?, strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))",
        id,
        parent,
        body
    )
    .execute(connection)
    .await?;
    Ok(made.last_insert_rowid())
}

/// Moves the head and returns the moment.
async fn move_head(connection: &mut SqliteConnection, id: &str, head: i64) -> Result<String, sqlx::Error> {
    sqlx::query_scalar!(
        "UPDATE document SET head = ?, version = version + 1, changed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now')
         WHERE id = ? RETURNING changed_at",
        head,
        id
    )
    .fetch_one(connection)
    .await
}

fn written<T: Serialize>(thing: &T) -> String {
    // Documents are plain data with text keys: writing them to a string has nothing that could fail.
    serde_json::to_string(thing).unwrap_or_default()
}
