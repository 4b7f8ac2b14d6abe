//! Earlier versions of a document: all its revisions, the ones with names among them.

use super::Store;
use super::documents::{self, DocumentError};
use super::shelf::{Document, Shelf};
use serde::Serialize;
use std::collections::{BTreeSet, HashMap};

/// Versions that are listed, beside all that have names.
const MOST: i64 = 100;

/// A version in the list.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct Version {
    /// Its number in the file.
    pub revision: i64,
    /// When it was made, UTC.
    pub made_at: String,
    /// What the photographer calls it.
    pub name: Option<String>,
    /// Whether it is the one that counts.
    pub is_now: bool,
}

/// The versions of a document, latest first.
///
/// # Errors
/// Those of the database.
pub async fn all(store: &Store, id: &str) -> Result<Vec<Version>, sqlx::Error> {
    sqlx::query_as!(
        Version,
        r#"SELECT revision.id AS "revision!", revision.made_at, revision.name, revision.id = document.head AS "is_now!: bool"
           FROM revision JOIN document ON document.id = revision.document_id
           WHERE document.id = ?1 AND (revision.name IS NOT NULL OR revision.id = document.head OR revision.id IN
               (SELECT id FROM revision WHERE document_id = ?1 ORDER BY id DESC LIMIT ?2))
           ORDER BY revision.id DESC"#,
        id,
        MOST
    )
    .fetch_all(&mut *store.reader().await?)
    .await
}

/// What the listed versions hold, and when in seconds each was made, by their numbers.
///
/// # Errors
/// Those of the database.
pub async fn bodies(store: &Store, id: &str, listed: &[Version]) -> Result<HashMap<i64, (Vec<u8>, i64)>, sqlx::Error> {
    let numbers: Vec<i64> = listed.iter().map(|one| one.revision).collect();
    let numbers = serde_json::to_string(&numbers).unwrap_or_default();
    let rows = sqlx::query_as::<_, (i64, Vec<u8>, Option<i64>)>(
        "SELECT id, CAST(body AS BLOB), unixepoch(made_at) FROM revision
         WHERE document_id = ? AND id IN (SELECT value FROM json_each(?))",
    )
    .bind(id)
    .bind(numbers)
    .fetch_all(&mut *store.reader().await?)
    .await?;
    Ok(rows.into_iter().map(|(revision, body, made)| (revision, (body, made.unwrap_or_default()))).collect())
}

/// One version, with the kit's figures of today.
///
/// # Errors
/// [`DocumentError::Missing`], [`DocumentError::Unreadable`], [`DocumentError::Database`].
pub async fn one<T: Document>(store: &Store, id: &str, revision: i64) -> Result<T, DocumentError<T>> {
    let mut connection = store.reader().await?;
    let body = sqlx::query_scalar!(
        r#"SELECT CAST(body AS BLOB) AS "body!: Vec<u8>" FROM revision WHERE id = ? AND document_id = ?"#,
        revision,
        id
    )
    .fetch_optional(&mut *connection)
    .await?;
    let named = || format!("{id}, version {revision}");
    let body = body.ok_or_else(|| DocumentError::Missing { noun: "version", id: named() })?;
    let unreadable = |reason: String| DocumentError::Unreadable { id: named(), reason };
    let thing: T = serde_json::from_slice(&body).map_err(|error| unreadable(error.to_string()))?;
    let shelf = Shelf::load(&mut connection, &thing.carries().into_iter().collect::<BTreeSet<_>>()).await?;
    thing.brought_up(&shelf).map(|(thing, _)| thing).map_err(|error| unreadable(error.to_string()))
}

/// Gives a version a name, or takes it away.
///
/// # Errors
/// [`DocumentError::Missing`], [`DocumentError::Database`].
pub async fn call<T: Document>(
    store: &Store,
    id: &str,
    revision: i64,
    name: Option<&str>,
) -> Result<(), DocumentError<T>> {
    let mut change = store.change().await?;
    let done = sqlx::query!("UPDATE revision SET name = ? WHERE id = ? AND document_id = ?", name, revision, id)
        .execute(&mut *change)
        .await?;
    if done.rows_affected() == 0 {
        return Err(DocumentError::Missing { noun: "version", id: format!("{id}, version {revision}") });
    }
    Ok(change.commit().await?)
}

/// Puts an earlier version on top of what counts now; nothing between is lost.
///
/// # Errors
/// [`DocumentError::Conflict`] at another version than the one seen, and those of [`one`].
pub async fn bring_back<T: Document>(
    store: &Store,
    id: &str,
    seen: i64,
    revision: i64,
) -> Result<documents::Kept<T>, DocumentError<T>> {
    let thing = one(store, id, revision).await?;
    documents::replace(store, id, seen, &thing).await
}
