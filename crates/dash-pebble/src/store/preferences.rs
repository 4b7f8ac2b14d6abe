//! What is preferred: one row of the data file. What cannot be read counts as nothing preferred.

use super::Store;
use super::change::ChangeError;
use pebble_core::preferences::Preferences;
use sqlx::SqliteConnection;

/// What is preferred.
///
/// # Errors
/// Those of the database.
pub async fn read(connection: &mut SqliteConnection) -> Result<Preferences, sqlx::Error> {
    let body: Option<Vec<u8>> =
        sqlx::query_scalar("SELECT CAST(body AS BLOB) FROM preference").fetch_optional(connection).await?;
    let read = body.and_then(|body| serde_json::from_slice::<Preferences>(&body).ok());
    Ok(read.filter(|preferences| preferences.check().is_ok()).unwrap_or_default())
}

/// Keeps what is preferred.
///
/// # Errors
/// [`ChangeError`].
pub async fn keep(store: &Store, preferences: &Preferences) -> Result<(), ChangeError> {
    let mut change = store.change().await?;
    write(&mut change, preferences).await?;
    change.commit().await?;
    Ok(())
}

/// The same as part of a larger change.
pub(super) async fn write(connection: &mut SqliteConnection, preferences: &Preferences) -> Result<(), sqlx::Error> {
    sqlx::query("INSERT INTO preference (one, body) VALUES (1, ?) ON CONFLICT (one) DO UPDATE SET body = excluded.body")
        .bind(serde_json::to_string(preferences).unwrap_or_default())
        .execute(connection)
        .await
        .map(drop)
}
