//! Pictures of places, kept with the shots that stand before them. They are never sent anywhere but to who asks for them.

use super::App;
use super::body::not_arrived;
use super::json::Json;
use super::problem::{ApiError, Problem};
use crate::store::shots::ShotError;
use crate::store::{Store, pictures};
use axum::body::Bytes;
use axum::extract::State;
use axum::extract::rejection::BytesRejection;
use base64::Engine as _;
use base64::prelude::BASE64_STANDARD as STANDARD;
use pebble_core::Shot;
use pebble_picture::{Photo, reduced};
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
    let id = name_of(&kept);
    pictures::keep(&app.store, &id, &kept).await.map_err(ShotError::from)?;
    Ok(Json(PictureKept { id }))
}

/// The name of a picture: the SHA-256 of its bytes.
fn name_of(bytes: &[u8]) -> String {
    Sha256::digest(bytes).iter().map(|byte| format!("{byte:02x}")).collect()
}

/// Puts the kept picture of its place into a shot that is handed over.
pub async fn pack(store: &Store, shot: &mut Shot) -> Result<(), ApiError> {
    if let Some(picture) = shot.stage.as_mut().and_then(|stage| stage.picture.as_mut())
        && let Some(bytes) = pictures::read(store, &picture.id).await.map_err(ShotError::from)?
    {
        picture.jpeg_base64 = Some(STANDARD.encode(bytes));
    }
    Ok(())
}

/// A shot that was sent, with the picture of its place kept by itself.
pub async fn received(store: &Store, mut shot: Shot) -> Result<Shot, ApiError> {
    if let Some((id, bytes)) = unpack(&mut shot).await? {
        pictures::keep(store, &id, &bytes).await.map_err(ShotError::from)?;
    }
    Ok(shot)
}

/// Takes the picture of its place out of a shot that was handed over, to be kept by itself: its name and bytes.
pub async fn unpack(shot: &mut Shot) -> Result<Option<(String, Vec<u8>)>, ApiError> {
    let Some(picture) = shot.stage.as_mut().and_then(|stage| stage.picture.as_mut()) else { return Ok(None) };
    let Some(text) = picture.jpeg_base64.take() else { return Ok(None) };
    let spoiled =
        |why: &str| ApiError::NotAPicture(format!("The picture in “{}” {why}. Nothing was changed.", shot.title));
    let bytes = STANDARD.decode(text).map_err(|_| spoiled("is no Base64"))?;
    if name_of(&bytes) != picture.id {
        return Err(spoiled("is not the one that the shot names"));
    }
    // What is kept is drawn later: what cannot be is refused here.
    let (read, bytes) = tokio::task::spawn_blocking(move || (Photo::read(&bytes).map(drop), bytes))
        .await
        .map_err(|error| ApiError::Internal(format!("the picture was not read: {error}")))?;
    read.map_err(|why| ApiError::NotAPicture(why.to_string()))?;
    Ok(Some((picture.id.clone(), bytes)))
}
