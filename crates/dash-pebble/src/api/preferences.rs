//! How a photographer writes and reads figures, and what new shots begin with.

use super::App;
use super::body::{Sendable, Sent};
use super::json::Json;
use super::problem::{ApiError, Problem};
use crate::store::preferences;
use crate::store::shots::ShotError;
use axum::extract::State;
use pebble_core::preferences::Preferences;

impl Sendable for Preferences {
    const NAME: &'static str = "set of preferences";
}

/// What is preferred.
#[utoipa::path(get, operation_id = "preferences", path = "/api/preferences", responses((status = 200, body = Preferences)))]
pub async fn read(State(app): State<App>) -> Result<Json<Preferences>, ApiError> {
    Ok(Json(preferences::read(&mut *app.store.reader().await?).await?))
}

/// Keeps what is preferred; shots are written so from now on.
#[utoipa::path(put, operation_id = "keep_preferences", path = "/api/preferences", request_body = Preferences,
    responses((status = 200, body = Preferences), (status = 422, body = Problem)))]
pub async fn keep(State(app): State<App>, Sent(wanted): Sent<Preferences>) -> Result<Json<Preferences>, ApiError> {
    wanted.check()?;
    preferences::keep(&app.store, &wanted).await.map_err(ShotError::from)?;
    Ok(Json(wanted))
}
