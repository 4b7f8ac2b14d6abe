//! Figures as they are typed, read where all rules are.

use super::App;
use super::body::{Sendable, Sent};
use super::json::Json;
use super::problem::{ApiError, Problem};
use crate::store::preferences;
use axum::extract::State;
use pebble_core::quantity::Joules;
use pebble_core::quantity::dial::{DialStyle, PowerDial};
use pebble_core::quantity::said::{FigureKind, dial_time};
use pebble_core::typed::{self, NotTyped, Typed, typed};
use pebble_core::{Meter, Plan, Shot};
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
    /// The unit in which the field counts: a bare number is of it, and so is the answer. That of the kind when not said.
    #[serde(default)]
    unit: Option<String>,
    /// The dial it is typed on, for a power.
    #[serde(default)]
    dial: DialStyle,
    /// Energy at full power, where known, for a power in joules.
    #[serde(default)]
    energy_j: Option<f64>,
}

impl Sendable for Words {
    const NAME: &'static str = "typed figure";
}

/// What was understood.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct Understood {
    /// In the unit of its kind.
    value: f64,
    /// A time as a camera's dial writes it.
    #[serde(skip_serializing_if = "Option::is_none")]
    dial: Option<String>,
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
pub async fn figure(State(app): State<App>, body: Sent<Words>) -> Result<Json<Understood>, ApiError> {
    let Words { kind, text, unit, dial, energy_j } = body.0;
    let full = energy_j.filter(|energy| *energy > 0.0).map(Joules::from_joules);
    // What a meter read in f-numbers is so many lux by its constant.
    let meter = match kind {
        FigureKind::Lux => Meter::of(preferences::read(&mut *app.store.reader().await?).await?.meter_c)?,
        _ => Meter::default(),
    };
    let value = typed::figure(kind, unit.as_deref(), (PowerDial { style: dial, full }, meter), &text)
        .map_err(|why| refused(&text, &why.into()))?;
    let dial = if kind == FigureKind::Time { dial_time(&text).ok() } else { None };
    Ok(Json(Understood { value, dial }))
}
