//! Shots that are handed over: the picture of its place goes along with each, and is kept by itself where it arrives.

use super::problem::ApiError;
use crate::store::shots::ShotError;
use crate::store::{Store, pictures};
use base64::Engine as _;
use base64::prelude::BASE64_STANDARD as STANDARD;
use pebble_core::Shot;
use pebble_picture::Photo;
use sha2::{Digest, Sha256};
use std::collections::HashSet;

/// Most bytes of a picture, and of shots with theirs.
pub const LARGEST_PICTURE: usize = 48 * 1024 * 1024;

/// The name of a picture: the SHA-256 of its bytes.
pub fn name_of(bytes: &[u8]) -> String {
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

/// The same for several that go in one file: a picture that more of them stand before is in it once.
pub async fn pack_all(store: &Store, shots: &mut [Shot]) -> Result<(), ApiError> {
    let mut packed = HashSet::new();
    for shot in shots {
        let picture = shot.stage.as_ref().and_then(|stage| stage.picture.as_ref());
        if picture.is_some_and(|picture| packed.insert(picture.id.clone())) {
            pack(store, shot).await?;
        }
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
