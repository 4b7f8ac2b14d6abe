//! What a flash unit does, computed; it need not be saved.

use super::App;
use super::body::{Asked, Sendable, Sent};
use super::json::Json;
use super::problem::{ApiError, Problem};
use crate::store::preferences;
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use pebble_core::Meter;
use pebble_core::gear::FlashUnit;
use pebble_core::quantity::bounds;
use pebble_core::sheet::{self, Sheet};
use pebble_stand_ins::Recorder;
use serde::Deserialize;

impl Sendable for FlashUnit {
    const NAME: &'static str = "flash unit";
}

/// What the burst is asked at.
#[derive(Clone, Copy, Debug, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct SheetQuery {
    /// Flashes a second.
    #[serde(default = "one")]
    frames_per_second: f64,
}

fn one() -> f64 {
    1.0
}

/// Durations, pulse, energy, recycling and output of a unit at every step of its dial.
#[utoipa::path(post, path = "/api/units/sheet", params(SheetQuery), request_body = FlashUnit, responses(
    (status = 200, body = Sheet), (status = 422, body = Problem)))]
pub async fn sheet(
    State(app): State<App>,
    Asked(query): Asked<SheetQuery>,
    Sent(mut unit): Sent<FlashUnit>,
) -> Result<Json<Sheet>, ApiError> {
    let preferred = preferences::read(&mut *app.store.reader().await?).await?;
    unit.dial = unit.dial_or(preferred.dial);
    let meter = Meter::of(preferred.meter_c)?;
    let rate = bounds::FRAME_RATE.check("frames_per_second", query.frames_per_second)?;
    // Fitting a way through recordings takes some milliseconds of computing.
    let made = tokio::task::spawn_blocking(move || sheet::sheet_by(&unit, rate, meter)).await;
    Ok(Json(made.map_err(|error| ApiError::Internal(format!("the sheet was not made: {error}")))??))
}

/// What to rehearse.
#[derive(Clone, Copy, Debug, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct RehearsalQuery {
    /// Power fraction to fire at.
    power: f64,
}

/// A rehearsed unit is this much slower than its figures: a recording shall be seen to change something.
const OWN_PACE: f64 = 1.15;
const SAMPLES: usize = 12_000;

/// Fires a simulated flash before a simulated recorder: a file as a real one would export it. The simulated unit is a
/// little slower than the figures of the unit say, as many are.
#[utoipa::path(post, path = "/api/stand-ins/recording", params(RehearsalQuery), request_body = FlashUnit, responses(
    (status = 200, content_type = "text/csv"), (status = 422, body = Problem)))]
pub async fn rehearse(Asked(query): Asked<RehearsalQuery>, Sent(unit): Sent<FlashUnit>) -> Result<Response, ApiError> {
    // What was recorded before is no longer part of what is simulated, or every rehearsal would add to the last.
    let entered = FlashUnit { ignore_recordings: true, ..unit };
    let pulse = sheet::pulse(&entered, query.power)?.stretched(OWN_PACE);
    let recorder = Recorder { seed: (query.power * 4096.0).round() as u64, ..Recorder::set_for(&pulse, SAMPLES) };
    let mut text = Vec::new();
    recorder.record(&pulse, &mut text).map_err(|error| ApiError::Internal(error.to_string()))?;
    Ok(([(header::CONTENT_TYPE, "text/csv; charset=utf-8")], text).into_response())
}
