//! Pictures of places: bytes by their own name. One that is kept twice is kept once.

use super::Store;
use super::change::ChangeError;
use sqlx::SqliteConnection;

/// The bytes of a picture; nothing where none is kept under this name.
///
/// # Errors
/// Those of the database.
pub async fn read(store: &Store, id: &str) -> Result<Option<Vec<u8>>, sqlx::Error> {
    sqlx::query_scalar("SELECT bytes FROM picture WHERE id = ?")
        .bind(id)
        .fetch_optional(&mut *store.reader().await?)
        .await
}

/// Keeps a picture.
///
/// # Errors
/// [`ChangeError`].
pub async fn keep(store: &Store, id: &str, bytes: &[u8]) -> Result<(), ChangeError> {
    let mut change = store.change().await?;
    write(&mut change, id, bytes).await?;
    change.commit().await?;
    Ok(())
}

/// All that are kept, for a file that takes them over.
pub(super) async fn all(connection: &mut SqliteConnection) -> Result<Vec<(String, Vec<u8>)>, sqlx::Error> {
    sqlx::query_as("SELECT id, bytes FROM picture").fetch_all(connection).await
}

/// The same as part of a larger change.
pub(super) async fn write(connection: &mut SqliteConnection, id: &str, bytes: &[u8]) -> Result<(), sqlx::Error> {
    sqlx::query("INSERT INTO picture (id, bytes) VALUES (?, ?) ON CONFLICT (id) DO NOTHING")
        .bind(id)
        .bind(bytes)
        .execute(connection)
        .await
        .map(drop)
}
