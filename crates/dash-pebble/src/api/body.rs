//! Reading documents, identities and versions out of requests.

use super::LARGEST_BODY;
use super::problem::ApiError;
use axum::body::Bytes;
use axum::extract::rejection::BytesRejection;
use axum::extract::{FromRequest, FromRequestParts, Path, Query, Request};
use axum::http::request::Parts;
use axum::http::{StatusCode, header};
use pebble_core::{Invalid, Plan, Shot};
use serde::de::DeserializeOwned;
use std::error::Error;

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
        let shot: Shot = Sent::from_request(request, state).await?.0;
        let plan = Plan::try_from(&shot)?;
        Ok(Self { shot, plan })
    }
}

/// What can be sent in a request body.
pub trait Sendable: DeserializeOwned {
    /// What to call it when it cannot be read.
    const NAME: &'static str;
    /// Most bytes of it.
    const LARGEST: usize = LARGEST_BODY;
}

impl Sendable for Shot {
    const NAME: &'static str = "shot";
}

/// Something in a request body, read and not yet checked.
pub struct Sent<T>(pub T);

impl<T: Sendable, S: Send + Sync> FromRequest<S> for Sent<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, ApiError> {
        // The router limits every body; what is too large fails here before it is held.
        let bytes = Bytes::from_request(request, state).await;
        read(&bytes.map_err(|error| not_arrived(&error, T::NAME, T::LARGEST))?).map(Self)
    }
}

/// Why a body did not arrive: too much of it, too slowly, or in pieces that are none.
pub fn not_arrived(error: &(dyn Error + 'static), what: &'static str, limit: usize) -> ApiError {
    let mut causes = std::iter::successors(Some(error), |error| (*error).source());
    causes
        .find_map(|cause| {
            let refused = cause.downcast_ref::<BytesRejection>().map(BytesRejection::status);
            if refused == Some(StatusCode::PAYLOAD_TOO_LARGE) || cause.is::<http_body_util::LengthLimitError>() {
                Some(ApiError::TooLarge { what, limit })
            } else if cause.is::<tower_http::timeout::TimeoutError>() {
                Some(ApiError::TooSlow { what })
            } else {
                None
            }
        })
        .unwrap_or(ApiError::BrokenBody { what })
}

/// Reads a document; a failure says where.
///
/// # Errors
/// [`ApiError::Unreadable`] with the path of the field and the reason.
pub fn read<T: Sendable>(bytes: &[u8]) -> Result<T, ApiError> {
    // Where in it one is costs more than reading it: what is wrong is read a second time, for that.
    // And whether it is text at all is asked once, not at every word of it.
    if let Ok(text) = std::str::from_utf8(bytes)
        && let Ok(read) = serde_json::from_str(text)
    {
        return Ok(read);
    }
    let mut reader = serde_json::Deserializer::from_slice(bytes);
    let read = serde_path_to_error::deserialize(&mut reader).map_err(|error| {
        let (path, reason) = (error.path().to_string(), error.inner().to_string());
        not_counted(&path, &reason).map_or_else(
            || ApiError::Unreadable {
                what: T::NAME,
                reason: if path == "." { reason.clone() } else { format!("{path}: {reason}") },
                path: path.clone(),
            },
            ApiError::Invalid,
        )
    })?;
    // A shot with something after it is two things, and only one of them would be kept.
    reader.end().map_err(|error| ApiError::Unreadable {
        what: T::NAME,
        path: String::new(),
        reason: error.to_string(),
    })?;
    Ok(read)
}

/// Half a thing, or less than none, where things are counted: said at its field.
fn not_counted(path: &str, reason: &str) -> Option<Invalid> {
    let counted =
        ["expected u32", "expected u16", "expected u8", "expected usize"].iter().any(|end| reason.contains(end));
    let given = reason.split('`').nth(1)?;
    let a_figure = counted && path != "." && given.parse::<f64>().is_ok();
    a_figure.then(|| Invalid::NotAllowed {
        field: path.to_owned(),
        given: given.to_owned(),
        allowed: "a whole number from 0 up".to_owned(),
    })
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

/// The id in an address.
pub struct Id(pub String);

impl<S: Send + Sync> FromRequestParts<S> for Id {
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
