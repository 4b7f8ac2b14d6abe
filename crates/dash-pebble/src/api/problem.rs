//! Errors on the wire: RFC 9457 problem details. Status and code of every failure stand in this one place.

use super::kept::{ItemAnswer, ShotAnswer};
use crate::formats::units_csv::WrongRow;
use crate::store::copies::CopyError;
use crate::store::documents::{DocumentError, Kept, Use};
use crate::store::shelf::Document;
use crate::store::{ChangeError, Gone, primary_code};
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use pebble_core::briefing::NoShot;
use pebble_core::gear::Item;
use pebble_core::quantity::said::MOST_SIGNS;
use pebble_core::trace::TraceError;
use pebble_core::{Invalid, Shot};
use serde::Serialize;

/// A problem as it is sent.
#[derive(Debug, Default, Serialize, utoipa::ToSchema)]
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
    /// The field at fault, as a path in what was sent.
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
    /// After a conflict: the thing of the kit as it is now.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub current_item: Option<Box<ItemAnswer>>,
    /// What carries a thing that was to be deleted.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    #[schema(required = false)]
    pub used_by: Vec<Use>,
    /// Rows of a table that cannot be.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    #[schema(required = false)]
    pub rows: Vec<WrongRow>,
}

/// A document as it is now, for whoever changed an older version of it.
#[derive(Debug)]
pub enum Current {
    /// A shot.
    Shot(Box<ShotAnswer>),
    /// A thing of the kit.
    Item(Box<ItemAnswer>),
}

/// Documents that can be sent along with a conflict.
pub trait Answerable: Document {
    /// As it is sent.
    fn current(kept: Kept<Self>) -> Current;
}

impl Answerable for Shot {
    fn current(kept: Kept<Self>) -> Current {
        Current::Shot(Box::new(kept.into()))
    }
}

impl Answerable for Item {
    fn current(kept: Kept<Self>) -> Current {
        Current::Item(Box::new(kept.into()))
    }
}

/// Everything that can go wrong with a request.
#[derive(Debug)]
pub enum ApiError {
    /// A figure that cannot be.
    Invalid(Invalid),
    /// A typed text that is no figure, or more than one.
    Typed {
        /// As typed.
        text: String,
        /// In a sentence.
        reason: String,
    },
    /// An answer of the brief that cannot be.
    Answer {
        /// Which.
        field: String,
        /// In a sentence.
        reason: String,
    },
    /// A reading so far off that its reason is asked for.
    FarReading {
        /// As typed.
        text: String,
        /// In a sentence.
        reason: String,
    },
    /// Not JSON, or not of the right shape.
    Unreadable {
        /// What it should have been.
        what: &'static str,
        /// Where, as a path in it.
        path: String,
        /// Why.
        reason: String,
    },
    /// A body over the limit.
    TooLarge {
        /// What was sent.
        what: &'static str,
        /// The limit in bytes.
        limit: usize,
    },
    /// A request that says nothing of the version it has seen.
    VersionMissing,
    /// No such document.
    Missing {
        /// What was looked for.
        noun: &'static str,
        /// The identity.
        id: String,
    },
    /// Somebody else changed it first.
    Conflict(Current),
    /// Nothing to undo or redo.
    NoStep(&'static str),
    /// A thing that others carry.
    InUse(Vec<Use>),
    /// An identity that something else has.
    Taken(String),
    /// The store.
    Store(String),
    /// No room.
    DiskFull,
    /// The data file was taken away while it was open.
    FileGone(Gone),
    /// A place in the data file that is broken.
    Damaged(String),
    /// Another program holds the data file for a moment.
    Busy,
    /// A copy that cannot be made, read or brought back.
    Copy(CopyError),
    /// More is being drawn than this machine can.
    TooMany,
    /// A body that does not arrive.
    TooSlow {
        /// What was being sent.
        what: &'static str,
    },
    /// A body that arrived broken.
    BrokenBody {
        /// What was being sent.
        what: &'static str,
    },
    /// Rows of a table that cannot be.
    WrongRows(Vec<WrongRow>),
    /// Not a recording.
    Trace(TraceError),
    /// Not a picture, in its own sentence.
    NotAPicture(String),
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

impl From<NoShot> for ApiError {
    fn from(why: NoShot) -> Self {
        match why {
            NoShot::Invalid(invalid) => Self::Invalid(invalid),
            why => Self::Answer { field: why.field().to_owned(), reason: why.to_string() },
        }
    }
}

impl From<Invalid> for ApiError {
    fn from(error: Invalid) -> Self {
        Self::Invalid(error)
    }
}

impl From<sqlx::Error> for ApiError {
    fn from(error: sqlx::Error) -> Self {
        match primary_code(&error) {
            Some(5 | 6) => Self::Busy,
            Some(11 | 26) => Self::Damaged(error.to_string()),
            Some(13) => Self::DiskFull,
            _ => Self::Store(error.to_string()),
        }
    }
}

impl<T: Answerable> From<DocumentError<T>> for ApiError {
    fn from(error: DocumentError<T>) -> Self {
        match error {
            DocumentError::Missing { noun, id } => Self::Missing { noun, id },
            DocumentError::Conflict(kept) => Self::Conflict(T::current(*kept)),
            DocumentError::NoStep(step) => Self::NoStep(step),
            DocumentError::InUse(uses) => Self::InUse(uses),
            DocumentError::Taken(id) => Self::Taken(id),
            unreadable @ DocumentError::Unreadable { .. } => Self::Store(unreadable.to_string()),
            DocumentError::Gone(gone) => Self::FileGone(gone),
            DocumentError::Database(error) => error.into(),
        }
    }
}

impl From<CopyError> for ApiError {
    fn from(error: CopyError) -> Self {
        match error {
            CopyError::Change(ChangeError::Gone(gone)) => Self::FileGone(gone),
            CopyError::Change(ChangeError::Database(error)) => error.into(),
            CopyError::Full(_) => Self::DiskFull,
            CopyError::Missing(name) => Self::Missing { noun: "copy", id: name },
            other => Self::Copy(other),
        }
    }
}

impl ApiError {
    fn problem(self) -> Problem {
        let plain = |status: StatusCode, kind: &str, title: &str, detail: String| Problem {
            kind: format!("/problems/{kind}"),
            title: title.to_owned(),
            status: status.as_u16(),
            detail,
            ..Problem::default()
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
            Self::Typed { text, reason } => Problem {
                field: Some("text".to_owned()),
                value: Some(text.chars().take(MOST_SIGNS).collect()),
                ..plain(StatusCode::UNPROCESSABLE_ENTITY, "unclear-figure", "That cannot be read", reason)
            },
            Self::Answer { field, reason } => {
                let said = plain(StatusCode::UNPROCESSABLE_ENTITY, "unclear-answer", "That cannot be", reason);
                Problem { field: Some(field), ..said }
            }
            Self::FarReading { text, reason } => Problem {
                field: Some("because".to_owned()),
                value: Some(text.chars().take(MOST_SIGNS).collect()),
                ..plain(StatusCode::UNPROCESSABLE_ENTITY, "far-reading", "Why is it so far off?", reason)
            },
            Self::Unreadable { what, path, reason } => Problem {
                field: (!path.is_empty() && path != ".").then_some(path),
                ..plain(
                    StatusCode::BAD_REQUEST,
                    "unreadable",
                    &format!("This is not a {what}"),
                    format!("The {what} cannot be read: {reason}. Nothing was changed."),
                )
            },
            Self::TooLarge { what, limit } => plain(
                StatusCode::PAYLOAD_TOO_LARGE,
                "too-large",
                &format!("Too large for a {what}"),
                format!("More than {} MB was sent; a {what} has less. Nothing was changed.", limit / (1024 * 1024)),
            ),
            Self::VersionMissing => plain(
                StatusCode::PRECONDITION_REQUIRED,
                "version-missing",
                "Which version?",
                "Send If-Match with the version that was read, such as \"3\". Nothing was changed.".to_owned(),
            ),
            Self::Missing { noun, id } => plain(
                StatusCode::NOT_FOUND,
                if noun == Shot::NOUN { "no-such-shot" } else { "no-such-thing" },
                &format!("No such {noun}"),
                format!("No {noun} has the id {id}. It may have been removed."),
            ),
            Self::Conflict(current) => {
                let (current, current_item) = match current {
                    Current::Shot(shot) => (Some(shot), None),
                    Current::Item(item) => (None, Some(item)),
                };
                let noun = if current.is_some() { "shot" } else { "thing" };
                Problem {
                    current,
                    current_item,
                    ..plain(
                        StatusCode::CONFLICT,
                        "changed-elsewhere",
                        &format!("The {noun} was changed elsewhere"),
                        "It is at another version than yours, perhaps from another window. Both are safe: keep one of \
                         them."
                            .to_owned(),
                    )
                }
            }
            Self::NoStep(step) => {
                plain(StatusCode::CONFLICT, "no-step", "No further step", format!("There is nothing to {step}."))
            }
            Self::InUse(used_by) => {
                let names: Vec<&str> = used_by.iter().map(|one| one.name.as_str()).collect();
                Problem {
                    detail: format!(
                        "It is used by {}. Nothing was changed; retire it instead, and they go on.",
                        names.join(", ")
                    ),
                    used_by,
                    ..plain(StatusCode::CONFLICT, "in-use", "Still in use", String::new())
                }
            }
            Self::Taken(id) => Problem {
                field: Some("id".to_owned()),
                ..plain(
                    StatusCode::CONFLICT,
                    "id-taken",
                    "The id is taken",
                    format!("Something else has the id {id}. Nothing was changed; choose another."),
                )
            },
            Self::DiskFull => plain(
                StatusCode::INSUFFICIENT_STORAGE,
                "disk-full",
                "The disk is full",
                "The change was not saved; what was saved before is safe. Make room and try again.".to_owned(),
            ),
            Self::Store(error) => {
                tracing::error!(%error, "store");
                plain(
                    StatusCode::INTERNAL_SERVER_ERROR,
                    "store",
                    "The data file did not answer",
                    format!("{error}. What was saved before is safe."),
                )
            }
            Self::FileGone(gone) => plain(
                StatusCode::INTERNAL_SERVER_ERROR,
                "file-gone",
                "The data file is not there any more",
                format!(
                    "{gone}. Nothing more is saved into it. Take a copy of everything now, which still works, or put \
                     the file back where it was and start Dash Pebble again."
                ),
            ),
            Self::Damaged(error) => {
                tracing::error!(%error, "damage");
                plain(
                    StatusCode::INTERNAL_SERVER_ERROR,
                    "damaged",
                    "The data file is damaged here",
                    format!(
                        "{error}. Everything that can be read still works. `dash-pebble rescue` saves it into a new \
                         file, and earlier copies are beside the data file."
                    ),
                )
            }
            Self::Busy => plain(
                StatusCode::SERVICE_UNAVAILABLE,
                "busy",
                "The data file is busy",
                "Another program is working in it. Nothing was changed; try again in a moment.".to_owned(),
            ),
            Self::Copy(error) => {
                plain(StatusCode::UNPROCESSABLE_ENTITY, "no-copy", "This did not work with the copy", error.to_string())
            }
            Self::TooMany => plain(
                StatusCode::SERVICE_UNAVAILABLE,
                "too-many",
                "Too many pictures at once",
                "More pictures are waiting than can be drawn soon. Everything else goes on; ask again in a second."
                    .to_owned(),
            ),
            Self::TooSlow { what } => plain(
                StatusCode::REQUEST_TIMEOUT,
                "too-slow",
                &format!("The {what} did not arrive"),
                format!("The {what} stopped arriving half way. Nothing was changed; send it again."),
            ),
            Self::NotAPicture(why) => {
                plain(StatusCode::UNPROCESSABLE_ENTITY, "not-a-picture", "Not a picture", why.clone())
            }
            Self::BrokenBody { what } => plain(
                StatusCode::BAD_REQUEST,
                "broken-body",
                &format!("The {what} arrived broken"),
                format!("The {what} did not arrive as one piece. Nothing was changed; send it again."),
            ),
            Self::WrongRows(rows) => {
                let first = rows.first().map_or_else(String::new, |row| {
                    format!("Line {}, column {} ({}): {}. ", row.line, row.column, row.heading, row.sentence)
                });
                Problem {
                    rows,
                    ..plain(
                        StatusCode::UNPROCESSABLE_ENTITY,
                        "wrong-rows",
                        "The table has rows that cannot be",
                        format!("{first}Nothing was taken in."),
                    )
                }
            }
            Self::Trace(error @ TraceError::NoInterval) => Problem {
                field: Some("interval".to_owned()),
                ..plain(
                    StatusCode::UNPROCESSABLE_ENTITY,
                    "no-interval",
                    "How far apart are its samples?",
                    format!("It can be used once one thing is known: {error}."),
                )
            },
            Self::Trace(error) => plain(
                StatusCode::UNPROCESSABLE_ENTITY,
                "no-recording",
                "This is no recording of a flash",
                format!("It cannot be used: {error}. Nothing was changed."),
            ),
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
        let mut response = (status, [(header::CONTENT_TYPE, "application/problem+json")], body).into_response();
        if status == StatusCode::SERVICE_UNAVAILABLE {
            response.headers_mut().insert(header::RETRY_AFTER, HeaderValue::from_static("1"));
        }
        response
    }
}
