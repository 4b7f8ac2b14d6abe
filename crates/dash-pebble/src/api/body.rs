//! Reading shots and versions out of requests.

use super::problem::ApiError;
use axum::body::Bytes;
use axum::extract::{FromRequest, FromRequestParts, Path, Query, Request};
use axum::http::header;
use axum::http::request::Parts;
use pebble_core::{Plan, Shot};
use serde::de::DeserializeOwned;

/// A shot in a request body, read and checked.
pub struct Checked {
    /// As it was sent.
    pub shot: Shot,
    /// As the core understands it.
    pub plan: Plan,
}

impl<S: Send + Sync> FromRequest<S> for Checked {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, ApiError> {
        // The router limits every body; what is too large fails here before it is held.
        let bytes = Bytes::from_request(request, state).await.map_err(|_| ApiError::TooLarge)?;
        let shot = read_shot(&bytes)?;
        let plan = Plan::try_from(&shot)?;
        Ok(Self { shot, plan })
    }
}

/// Reads a shot; a failure says where.
///
/// # Errors
/// [`ApiError::Unreadable`] with the path of the field and the reason.
pub fn read_shot(bytes: &[u8]) -> Result<Shot, ApiError> {
    let mut reader = serde_json::Deserializer::from_slice(bytes);
    let shot = serde_path_to_error::deserialize(&mut reader).map_err(|error| ApiError::Unreadable {
        path: error.path().to_string(),
        reason: match error.path().to_string().as_str() {
            "." => error.inner().to_string(),
            path => format!("{path}: {}", error.inner()),
        },
    })?;
    // A shot with something after it is two things, and only one of them would be kept.
    reader.end().map_err(|error| ApiError::Unreadable { path: String::new(), reason: error.to_string() })?;
    Ok(shot)
}

/// What stands after the question mark of an address.
pub struct Asked<T>(pub T);

impl<T: DeserializeOwned, S: Send + Sync> FromRequestParts<S> for Asked<T> {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, ApiError> {
        let asked = Query::<T>::from_request_parts(parts, state).await;
        asked.map(|Query(asked)| Self(asked)).map_err(|error| ApiError::BadAddress(error.body_text()))
    }
}

/// The id of a shot in an address.
pub struct ShotId(pub String);

impl<S: Send + Sync> FromRequestParts<S> for ShotId {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, ApiError> {
        let id = Path::<String>::from_request_parts(parts, state).await;
        id.map(|Path(id)| Self(id)).map_err(|error| ApiError::BadAddress(error.body_text()))
    }
}

/// The version in `If-Match`.
pub struct Seen(pub i64);

impl<S: Send + Sync> FromRequestParts<S> for Seen {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, _: &S) -> Result<Self, ApiError> {
        let tag = parts.headers.get(header::IF_MATCH).and_then(|value| value.to_str().ok());
        tag.and_then(|tag| tag.trim().trim_matches('"').parse().ok()).map(Self).ok_or(ApiError::VersionMissing)
    }
}
