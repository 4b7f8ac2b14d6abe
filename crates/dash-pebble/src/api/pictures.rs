//! Pictures of places, kept with the shots that stand before them. They are never sent anywhere but to who asks for them.

use super::App;
use super::body::not_arrived;
use super::handed::{LARGEST_PICTURE, name_of};
use super::json::Json;
use super::problem::{ApiError, Problem};
use crate::store::pictures;
use crate::store::shots::ShotError;
use axum::body::Bytes;
use axum::extract::State;
use axum::extract::rejection::BytesRejection;
use pebble_picture::reduced;
use serde::Serialize;

/// Under which name a picture is kept.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct PictureKept {
    /// Its identity, for a composition.
    pub id: String,
}

/// Keeps a picture of a place: JPEG or PNG, of at most 40 megapixels.
#[utoipa::path(post, operation_id = "keep_picture", path = "/api/stage/pictures", request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = 200, body = PictureKept), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub async fn keep(State(app): State<App>, body: Result<Bytes, BytesRejection>) -> Result<Json<PictureKept>, ApiError> {
    let bytes = body.map_err(|error| not_arrived(&error, "picture", LARGEST_PICTURE))?;
    let kept = tokio::task::spawn_blocking(move || reduced(&bytes)).await;
    let kept = kept
        .map_err(|error| ApiError::Internal(format!("the picture was not read: {error}")))?
        .map_err(|why| ApiError::NotAPicture(why.to_string()))?;
    let id = name_of(&kept);
    pictures::keep(&app.store, &id, &kept).await.map_err(ShotError::from)?;
    Ok(Json(PictureKept { id }))
}
