//! Recordings of flashes, read as they arrive.

use super::body::{Asked, not_arrived};
use super::json::Json;
use super::problem::{ApiError, Problem};
use axum::body::Body;
use http_body_util::BodyExt;
use pebble_core::gear::Recording;
use pebble_core::trace::{Given, Reader, Reading, analyse, interval_of};
use serde::{Deserialize, Serialize};

/// Most bytes of one recording. Its samples are limited too; this ends a file that has none.
pub const LARGEST_TRACE: usize = 128 * 1024 * 1024;

/// A recording, read.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct TraceAnswer {
    /// What it says and how good it is.
    pub reading: Reading,
    /// What can be filed with a unit, once the power it was fired at is known (here 1); `null` when it is not good enough.
    pub recording: Option<Recording>,
}

/// What is known of a recording beside its text.
#[derive(Clone, Debug, Default, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct TraceQuery {
    /// From one sample to the next, `2 µs`, or how many there are a second, `48 kHz`; where the file does not say.
    interval: Option<String>,
    /// The channel that is wanted, counted from 1; the one with the best pulse when not said.
    channel: Option<usize>,
}

/// Reads the CSV of an oscilloscope or photodiode and finds its pulse.
#[utoipa::path(post, operation_id = "read_trace", path = "/api/traces", params(TraceQuery), request_body(content = String, content_type = "text/csv"), responses(
    (status = 200, body = TraceAnswer), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub async fn read(Asked(query): Asked<TraceQuery>, body: Body) -> Result<Json<TraceAnswer>, ApiError> {
    let mut body = body;
    let interval_s = match query.interval.as_deref().filter(|text| !text.is_empty()) {
        None => None,
        Some(text) => Some(interval_of(text).ok_or_else(|| ApiError::Typed {
            text: text.to_owned(),
            reason: format!("“{text}” says nothing of samples. 2 µs, 0.5 ms or 48 kHz would do."),
        })?),
    };
    let mut reader = Ok(Reader::given(Given { interval_s, channel: query.channel }));
    let mut seen = 0;
    while let Some(frame) = body.frame().await {
        let frame = frame.map_err(|error| not_arrived(&error, "recording", LARGEST_TRACE))?;
        let Ok(piece) = frame.into_data() else { continue };
        seen += piece.len();
        if seen > LARGEST_TRACE {
            return Err(ApiError::TooLarge { what: "recording", limit: LARGEST_TRACE });
        }
        // After a refusal the rest is let pass unread: who is still sending would not hear the answer.
        reader = reader.and_then(|mut reader: Reader| reader.push(&piece).map(|()| reader));
    }
    let reader = reader.map_err(ApiError::Trace)?;
    let read = tokio::task::spawn_blocking(move || reader.finish().map(analyse)).await;
    let reading = read
        .map_err(|error| ApiError::Internal(format!("the recording was not read: {error}")))?
        .map_err(ApiError::Trace)?;
    Ok(Json(TraceAnswer { recording: reading.recording(1.0), reading }))
}
