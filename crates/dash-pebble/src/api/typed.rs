//! Figures as they are typed, read where all rules are.

use super::body::{Sendable, Sent};
use super::problem::{ApiError, Problem};
use axum::Json;
use pebble_core::quantity::said::{self, FigureKind};
use pebble_core::typed::{NotTyped, Typed, typed};
use pebble_core::{Plan, Shot};
use serde::{Deserialize, Serialize};

/// Something typed into a control.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct IntoStrip {
    /// The shot as it is.
    shot: Shot,
    /// The control, by its id.
    strip: String,
    /// The light it belongs to, where it belongs to one.
    #[serde(default)]
    light: Option<usize>,
    /// As typed.
    text: String,
}

impl Sendable for IntoStrip {
    const NAME: &'static str = "typed figure";
}

/// A figure typed anywhere.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Words {
    /// What it is of.
    kind: FigureKind,
    /// As typed.
    text: String,
}

impl Sendable for Words {
    const NAME: &'static str = "typed figure";
}

/// What was understood.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct Understood {
    /// In the unit of its kind.
    value: f64,
}

/// The notch that a typed figure asks for.
#[utoipa::path(post, path = "/api/strip", request_body = IntoStrip, responses(
    (status = 200, body = Typed), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn into_strip(body: Sent<IntoStrip>) -> Result<Json<Typed>, ApiError> {
    let IntoStrip { shot, strip, light, text } = body.0;
    let plan = Plan::try_from(&shot)?;
    typed(&plan, &strip, light, &text).map(Json).map_err(|why| refused(&text, &why))
}

fn refused(text: &str, why: &NotTyped) -> ApiError {
    ApiError::Typed { text: text.to_owned(), reason: why.to_string() }
}

/// A figure as it is said: `1/1900 s`, `6 ft 6`, `40 km/h`.
#[utoipa::path(post, path = "/api/said", request_body = Words, responses(
    (status = 200, body = Understood), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn figure(body: Sent<Words>) -> Result<Json<Understood>, ApiError> {
    let Words { kind, text } = body.0;
    let value = said::read(kind, &text).map_err(|why| refused(&text, &why.into()))?;
    Ok(Json(Understood { value }))
}
