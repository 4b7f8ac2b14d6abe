//! Pictures of places, kept with the shots that stand before them. They are never sent anywhere but to who asks for them.

use super::App;
use super::body::not_arrived;
use super::problem::{ApiError, Problem};
use crate::store::pictures;
use crate::store::shots::ShotError;
use axum::Json;
use axum::body::Bytes;
use axum::extract::State;
use axum::extract::rejection::BytesRejection;
use pebble_picture::reduced;
use serde::Serialize;
use sha2::{Digest, Sha256};

/// Most bytes of a picture.
pub const LARGEST_PICTURE: usize = 48 * 1024 * 1024;
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
    let id: String = Sha256::digest(&kept).iter().map(|byte| format!("{byte:02x}")).collect();
    pictures::keep(&app.store, &id, &kept).await.map_err(ShotError::from)?;
    Ok(Json(PictureKept { id }))
}
