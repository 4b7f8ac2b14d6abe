//! What a search in the kit needs: what there is to choose from, and threads of its own that end with the request.

use super::problem::ApiError;
use crate::store::{Store, kit};
use pebble_core::matching::{Going, Stock};
use std::sync::Arc;

/// What is taken along of the kit.
///
/// # Errors
/// Those of the store; what cannot be read is passed over, for it could not be taken along either.
pub async fn stock(store: &Store) -> Result<Stock, ApiError> {
    stock_of(&kit::offered(store).await?)
}

/// The same of a kit that was read.
///
/// # Errors
/// [`ApiError::Invalid`] for a thing that cannot be.
pub fn stock_of(kit: &pebble_core::gear::Kit) -> Result<Stock, ApiError> {
    Ok(Stock::of_kit(kit)?)
}

/// Ends a search when it is dropped with the request it is for.
struct StopsWhenDropped(Arc<Going>);

impl Drop for StopsWhenDropped {
    fn drop(&mut self) {
        self.0.stop();
    }
}

/// Work on threads of its own, which ends when the request does.
///
/// # Errors
/// [`ApiError::Internal`] where it broke off.
pub async fn worked<T: Send + 'static>(work: impl FnOnce(&Going) -> T + Send + 'static) -> Result<T, ApiError> {
    let going = Arc::new(Going::default());
    let _stops = StopsWhenDropped(Arc::clone(&going));
    tokio::task::spawn_blocking(move || work(&going))
        .await
        .map_err(|error| ApiError::Internal(format!("the search was not done: {error}")))
}
