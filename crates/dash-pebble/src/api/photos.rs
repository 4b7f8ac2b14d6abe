//! Pictures of places, read and ready to be drawn behind a subject.

use super::App;
use super::problem::ApiError;
use crate::store::pictures;
use pebble_core::Plan;
use pebble_picture::Photo;
use std::collections::VecDeque;
use std::sync::{Arc, Mutex};

/// Pictures that are kept ready.
const READY: usize = 2;

/// A picture by its identity.
type Ready = (String, Arc<Photo>);

/// Pictures that were read lately.
#[derive(Clone, Default)]
pub struct Photos(Arc<Mutex<VecDeque<Ready>>>);

/// The picture that a plan stands before. One that is not here, as in a shot that came without it, leaves the drawn place.
///
/// # Errors
/// Those of the store.
pub async fn behind(app: &App, plan: &Plan) -> Result<Option<Arc<Photo>>, ApiError> {
    let Some(own) = &plan.stage.composition.picture else { return Ok(None) };
    let known = app
        .photos
        .0
        .lock()
        .ok()
        .and_then(|ready| ready.iter().find(|(id, _)| *id == own.id).map(|(_, photo)| Arc::clone(photo)));
    if known.is_some() {
        return Ok(known);
    }
    let Some(bytes) = pictures::read(&app.store, &own.id).await? else { return Ok(None) };
    let read = tokio::task::spawn_blocking(move || Photo::read(&bytes)).await;
    let read = read.map_err(|error| ApiError::Internal(format!("the picture was not read: {error}")))?;
    // One that was kept and cannot be read any more hides no shot.
    let Ok(photo) = read.map(Arc::new) else { return Ok(None) };
    if let Ok(mut ready) = app.photos.0.lock() {
        ready.truncate(READY - 1);
        ready.push_front((own.id.clone(), Arc::clone(&photo)));
    }
    Ok(Some(photo))
}
