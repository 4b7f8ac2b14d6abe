//! Errors on the wire: RFC 9457 problem details. Status and code of every failure stand in this one place.

use super::shots::ShotAnswer;
use crate::store::primary_code;
use crate::store::shots::ShotError;
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use pebble_core::Invalid;
use serde::Serialize;

/// A problem as it is sent.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct Problem {
    /// A stable name, as a relative reference.
    #[serde(rename = "type")]
    pub kind: String,
    /// The same in words.
    pub title: String,
    /// HTTP status.
    pub status: u16,
    /// What happened, what is safe, what to do.
    pub detail: String,
    /// The field at fault, as a path in the shot.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub field: Option<String>,
    /// The value given.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub value: Option<String>,
    /// What would have been allowed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub allowed: Option<String>,
    /// After a conflict: the shot as it is now.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub current: Option<Box<ShotAnswer>>,
}

/// Everything that can go wrong with a request.
#[derive(Debug)]
pub enum ApiError {
    /// A figure that cannot be.
    Invalid(Invalid),
    /// Not JSON, or not of the right shape.
    Unreadable {
        /// Where, as a path in the shot.
        path: String,
        /// Why.
        reason: String,
    },
    /// A body over the limit.
    TooLarge,
    /// A request that says nothing of the version it has seen.
    VersionMissing,
    /// The store.
    Shot(ShotError),
    /// A picture could not be encoded or a task died.
    Internal(String),
    /// No such address.
    NotFound,
    /// An address that cannot be read, and why.
    BadAddress(String),
    /// An address that does not take this method.
    WrongMethod,
    /// A page of another site, or a name that is not ours, asks.
    Stranger,
}

impl From<Invalid> for ApiError {
    fn from(error: Invalid) -> Self {
        Self::Invalid(error)
    }
}

impl From<ShotError> for ApiError {
    fn from(error: ShotError) -> Self {
        Self::Shot(error)
    }
}

impl ApiError {
    fn problem(self) -> Problem {
        let plain = |status: StatusCode, kind: &str, title: &str, detail: String| Problem {
            kind: format!("/problems/{kind}"),
            title: title.to_owned(),
            status: status.as_u16(),
            detail,
            field: None,
            value: None,
            allowed: None,
            current: None,
        };
        match self {
            Self::Invalid(error) => Problem {
                field: Some(error.field().to_owned()),
                value: Some(error.given()),
                allowed: Some(error.allowed()),
                ..plain(
                    StatusCode::UNPROCESSABLE_ENTITY,
                    "invalid-value",
                    "A value cannot be",
                    format!("{error}. Nothing was changed."),
                )
            },
            Self::Unreadable { path, reason } => Problem {
                field: (!path.is_empty() && path != ".").then_some(path),
                ..plain(
                    StatusCode::BAD_REQUEST,
                    "unreadable",
                    "This is not a shot",
                    format!("The shot cannot be read: {reason}. Nothing was changed."),
                )
            },
            Self::TooLarge => plain(
                StatusCode::PAYLOAD_TOO_LARGE,
                "too-large",
                "Too large for a shot",
                "More than a megabyte was sent; a shot has a few kilobytes. Nothing was changed.".to_owned(),
            ),
            Self::VersionMissing => plain(
                StatusCode::PRECONDITION_REQUIRED,
                "version-missing",
                "Which version?",
                "Send If-Match with the version that was read, such as \"3\". Nothing was changed.".to_owned(),
            ),
            Self::Shot(ShotError::Missing(id)) => plain(
                StatusCode::NOT_FOUND,
                "no-such-shot",
                "No such shot",
                format!("No shot has the id {id}. It may have been removed."),
            ),
            Self::Shot(ShotError::Conflict(current)) => Problem {
                current: Some(Box::new(ShotAnswer::from(*current))),
                ..plain(
                    StatusCode::CONFLICT,
                    "changed-elsewhere",
                    "The shot was changed elsewhere",
                    "It is at another version than yours, perhaps from another window. Both are safe: keep one of them."
                        .to_owned(),
                )
            },
            Self::Shot(ShotError::NoStep(step)) => {
                plain(StatusCode::CONFLICT, "no-step", "No further step", format!("There is nothing to {step}."))
            }
            Self::Shot(ShotError::Database(error)) if primary_code(&error) == Some(13) => plain(
                StatusCode::INSUFFICIENT_STORAGE,
                "disk-full",
                "The disk is full",
                "The change was not saved; what was saved before is safe. Make room and try again.".to_owned(),
            ),
            Self::Shot(error @ (ShotError::Unreadable { .. } | ShotError::Database(_))) => {
                tracing::error!(%error, "store");
                plain(
                    StatusCode::INTERNAL_SERVER_ERROR,
                    "store",
                    "The data file did not answer",
                    format!("{error}. What was saved before is safe."),
                )
            }
            Self::Internal(reason) => {
                tracing::error!(reason, "internal");
                plain(StatusCode::INTERNAL_SERVER_ERROR, "internal", "Something failed here", reason)
            }
            Self::BadAddress(reason) => plain(
                StatusCode::BAD_REQUEST,
                "bad-address",
                "The address cannot be read",
                format!("{reason}. Nothing was changed."),
            ),
            Self::WrongMethod => plain(
                StatusCode::METHOD_NOT_ALLOWED,
                "wrong-method",
                "Not done this way",
                "This address does not take that method; /api/openapi.json says which it takes. Nothing was changed."
                    .to_owned(),
            ),
            Self::NotFound => {
                plain(StatusCode::NOT_FOUND, "not-found", "Nothing here", "This address has nothing.".to_owned())
            }
            Self::Stranger => plain(
                StatusCode::FORBIDDEN,
                "stranger",
                "Not from here",
                "Dash Pebble answers only to its own pages on this machine.".to_owned(),
            ),
        }
    }
}

impl IntoResponse for ApiError {
    fn into_response(self) -> Response {
        let problem = self.problem();
        let status = StatusCode::from_u16(problem.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let body = serde_json::to_string(&problem).unwrap_or_default();
        (status, [(header::CONTENT_TYPE, "application/problem+json")], body).into_response()
    }
}
