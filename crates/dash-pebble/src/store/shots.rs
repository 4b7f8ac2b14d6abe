//! Shots.

use super::Store;
use super::documents::{self, DocumentError};
use super::pictures;
use pebble_core::Shot;
use serde::Serialize;
use sqlx::SqliteConnection;

pub use super::documents::{Page, Step, all, count, one, page, remove, replace, restore, step};

/// A shot as it is kept.
pub type Kept = documents::Kept<Shot>;
/// Why a shot cannot be read or written.
pub type ShotError = DocumentError<Shot>;

/// Adds a shot at the end of the list, under a new identity.
///
/// # Errors
/// [`DocumentError::Database`].
pub async fn add(store: &Store, shot: &Shot) -> Result<Kept, ShotError> {
    let mut change = store.change().await?;
    let id = add_within(&mut change, shot).await?;
    let kept = documents::read(&mut change, &id).await?;
    change.commit().await?;
    Ok(kept)
}

/// Adds several shots at the end of the list, with pictures of their places, all or none.
///
/// # Errors
/// [`DocumentError::Database`].
pub async fn add_all(store: &Store, several: &[Shot], places: &[(String, Vec<u8>)]) -> Result<Vec<String>, ShotError> {
    let mut change = store.change().await?;
    for (id, bytes) in places {
        pictures::write(&mut change, id, bytes).await?;
    }
    let mut ids = Vec::with_capacity(several.len());
    for shot in several {
        ids.push(add_within(&mut change, shot).await?);
    }
    change.commit().await?;
    Ok(ids)
}

/// [`add`] as part of a larger change; returns the identity.
async fn add_within(connection: &mut SqliteConnection, shot: &Shot) -> Result<String, ShotError> {
    let id =
        sqlx::query_scalar!(r#"SELECT lower(hex(randomblob(8))) AS "id!: String""#).fetch_one(&mut *connection).await?;
    documents::insert(connection, &id, shot).await?;
    Ok(id)
}

/// Adds a shot under an identity of one's choice, or under another where that was ever taken.
///
/// # Errors
/// [`DocumentError::Database`].
pub async fn add_as(connection: &mut SqliteConnection, id: &str, shot: &Shot) -> Result<(), ShotError> {
    match documents::insert(&mut *connection, id, shot).await {
        Err(DocumentError::Taken(_)) => add_within(connection, shot).await.map(drop),
        other => other,
    }
}

/// What a shot is called.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct ShotName {
    /// Identity.
    pub id: String,
    /// Title.
    pub title: String,
    /// It is as it was begun: nothing of it was planned yet.
    pub untouched: bool,
}

/// The titles of all shots that can be read, in the order of the list; `blank` is what a new one is called.
///
/// # Errors
/// Those of the database.
pub async fn names(store: &Store, blank: &str) -> Result<Vec<ShotName>, sqlx::Error> {
    let rows = sqlx::query_as::<_, (Vec<u8>, Option<Vec<u8>>, i64)>(
        "SELECT CAST(id AS BLOB), CAST(CASE WHEN json_valid(body) THEN body ->> '$.title' END AS BLOB), version
         FROM standing WHERE is_shot ORDER BY place_in_list",
    )
    .fetch_all(&mut *store.reader().await?)
    .await?;
    let text = |bytes| String::from_utf8(bytes).ok();
    let named = |(id, title, version): (Vec<u8>, Option<Vec<u8>>, i64)| {
        let title = text(title?)?;
        Some(ShotName { id: text(id)?, untouched: version == 1 && title == blank, title })
    };
    Ok(rows.into_iter().filter_map(named).collect())
}

/// Whether something is kept under a name already, to begin from or to take lights from.
///
/// # Errors
/// Those of the database.
pub async fn is_kept(store: &Store, name: &str) -> Result<bool, sqlx::Error> {
    sqlx::query_scalar(
        "SELECT EXISTS (SELECT 1 FROM standing
         WHERE is_shot AND json_valid(body) AND body ->> '$.template' AND body ->> '$.title' = ?)",
    )
    .bind(name)
    .fetch_one(&mut *store.reader().await?)
    .await
}
