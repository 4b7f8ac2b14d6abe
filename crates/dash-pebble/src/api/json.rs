//! Answers as JSON.

use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use serde::Serialize;

/// An answer as JSON. It is some thousand words, and goes through a buffer that most fit into.
pub struct Json<T>(pub T);

/// Bytes that most answers fit into.
const USUAL: usize = 16 << 10;

impl<T: Serialize> IntoResponse for Json<T> {
    fn into_response(self) -> Response {
        let mut text = Vec::with_capacity(USUAL);
        match serde_json::to_writer(&mut text, &self.0) {
            Ok(()) => ([(header::CONTENT_TYPE, HeaderValue::from_static("application/json"))], text).into_response(),
            // None of ours: text and numbers can always be written.
            Err(error) => {
                tracing::error!(%error, "an answer was not written");
                StatusCode::INTERNAL_SERVER_ERROR.into_response()
            }
        }
    }
}
