//! Shots.

use super::documents::{self, DocumentError};
use pebble_core::Shot;
use sqlx::SqlitePool;

pub use super::documents::{Step, all, one, remove, replace, restore, step};

/// A shot as it is kept.
pub type Kept = documents::Kept<Shot>;
/// Why a shot cannot be read or written.
pub type ShotError = DocumentError<Shot>;

/// Adds a shot at the end of the list, under a new identity.
///
/// # Errors
/// [`DocumentError::Database`].
pub async fn add(pool: &SqlitePool, shot: &Shot) -> Result<Kept, ShotError> {
    let id = documents::new_id(pool).await?;
    documents::add(pool, &id, shot).await
}
