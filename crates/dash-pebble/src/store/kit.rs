//! The things of the kit.

use super::Store;
use super::documents::{self, DocumentError};
use super::preferences;
use super::shelf::Document;
use pebble_core::gear::{Item, Kit};
use serde::Serialize;
use sqlx::SqliteConnection;
use std::collections::HashSet;

pub use super::documents::{Step, Use, all, one, remove, replace, restore, retire, step, use_counts, uses};

/// A thing as it is kept.
pub type Kept = documents::Kept<Item>;
/// Why a thing cannot be read or written.
pub type ItemError = DocumentError<Item>;

/// What an import did.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct Imported {
    /// Things that were not there.
    pub added: usize,
    /// Things that were there with other figures; each has a new revision and can be undone.
    pub changed: usize,
    /// Things that were there just so.
    pub same: usize,
}

/// Adds a thing under an identity like its own that nothing has.
///
/// # Errors
/// [`DocumentError::Database`].
pub async fn add(store: &Store, item: &Item) -> Result<Kept, ItemError> {
    let mut change = store.change().await?;
    let id = free_id(&mut change, item.id()).await?;
    documents::insert(&mut change, &id, &item.clone().with_id(&id)).await?;
    let kept = documents::read(&mut change, &id).await?;
    change.commit().await?;
    Ok(kept)
}

/// An identity like the one wanted that nothing has, not even something deleted.
async fn free_id(connection: &mut SqliteConnection, wanted: &str) -> Result<String, sqlx::Error> {
    let stem: String = wanted.chars().take(56).collect();
    // What is looked for is the stem with a number: a long name is cut before it gets one.
    let like = format!("{stem}-%");
    let taken = sqlx::query_scalar!("SELECT id FROM document WHERE id = ? OR id LIKE ?", wanted, like);
    let taken: HashSet<String> = taken.fetch_all(connection).await?.into_iter().collect();
    let further = (2_u32..).map(|count| format!("{stem}-{count}"));
    Ok(std::iter::once(wanted.to_owned()).chain(further).find(|id| !taken.contains(id)).unwrap_or_default())
}

/// Takes in things, all or none: what is there under the same identity gets a new revision.
///
/// # Errors
/// [`DocumentError::Taken`] when an identity belongs to something of another kind, [`DocumentError::Database`].
pub async fn import(store: &Store, items: &[(Item, bool)]) -> Result<Imported, ItemError> {
    let mut change = store.change().await?;
    let done = import_within(&mut change, items).await?;
    change.commit().await?;
    Ok(done)
}

/// [`import`] as part of a larger change.
///
/// # Errors
/// Those of [`import`].
pub async fn import_within(connection: &mut SqliteConnection, items: &[(Item, bool)]) -> Result<Imported, ItemError> {
    let mut done = Imported::default();
    for (item, retired) in items {
        let id = item.id();
        let there = sqlx::query!(
            r#"SELECT document.kind, document.removed_at IS NOT NULL AS "removed!: bool",
                      document.retired_at IS NOT NULL AS "retired!: bool", CAST(revision.body AS BLOB) AS "body!: Vec<u8>"
               FROM document JOIN revision ON revision.id = document.head WHERE document.id = ?"#,
            id
        )
        .fetch_optional(&mut *connection)
        .await?;
        match there {
            None => {
                documents::insert(&mut *connection, id, item).await?;
                documents::set_retired(&mut *connection, id, *retired).await?;
                done.added += 1;
            }
            Some(there) if there.kind != Document::kind(item) => return Err(DocumentError::Taken(id.to_owned())),
            Some(there) => {
                let same = serde_json::from_slice::<Item>(&there.body).is_ok_and(|now| now == *item);
                if same && !there.removed && there.retired == *retired {
                    done.same += 1;
                    continue;
                }
                if !same {
                    documents::put(&mut *connection, id, item).await?;
                }
                if there.removed {
                    sqlx::query!("UPDATE document SET removed_at = NULL WHERE id = ?", id)
                        .execute(&mut *connection)
                        .await?;
                }
                documents::set_retired(&mut *connection, id, *retired).await?;
                if there.removed {
                    done.added += 1;
                } else {
                    done.changed += 1;
                }
            }
        }
    }
    Ok(done)
}

/// What can be chosen for a shot: everything that is taken along and can be read, power written as preferred on units that do
/// not say.
///
/// # Errors
/// Those of the database.
pub async fn offered(store: &Store) -> Result<Kit, ItemError> {
    let preferred = preferences::read(&mut *store.reader().await?).await?;
    let kept = all(store).await?.into_iter().filter_map(Result::ok).filter(|kept| !kept.retired);
    let mut kit = Kit::of(kept.map(|kept: Kept| kept.thing), Vec::new());
    for unit in &mut kit.units {
        unit.dial = unit.dial_or(preferred.dial);
    }
    Ok(kit)
}

/// The whole kit as the open file, retired things with it.
///
/// # Errors
/// [`DocumentError::Unreadable`] when a thing cannot be read, for half a kit is not one.
pub async fn export(store: &Store) -> Result<Kit, ItemError> {
    let kept = all(store).await?.into_iter().collect::<Result<Vec<Kept>, _>>()?;
    let retired = kept.iter().filter(|kept| kept.retired).map(|kept| kept.id.clone()).collect();
    Ok(Kit::of(kept.into_iter().map(|kept| kept.thing), retired))
}
