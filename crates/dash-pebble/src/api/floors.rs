//! The set on the floor, from above and from the side.

use super::body::{Sendable, Sent};
use super::problem::{ApiError, Problem};
use axum::Json;
use pebble_core::Shot;
use pebble_core::floor::{CarriedTo, FloorAnswer, FloorAsk, floor};
use serde::Deserialize;

/// What of the set is asked for.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FloorRequest {
    /// The shot.
    pub shot: Shot,
    /// A light that is carried somewhere first.
    #[serde(default)]
    pub carried: Option<CarriedTo>,
    /// Contours of this light alone; of all that are meant for the subject where none is named.
    #[serde(default)]
    pub light: Option<usize>,
    /// At this height over the floor.
    pub height_m: f64,
    /// Stands are judged in such a gust.
    #[serde(default)]
    pub gust_m_s: Option<f64>,
}

impl Sendable for FloorRequest {
    const NAME: &'static str = "set on the floor";
}

/// Where everything stands, how even the area is lit, and what the lens sees that it must not.
#[utoipa::path(post, operation_id = "floor", path = "/api/floor", request_body = FloorRequest, responses(
    (status = 200, body = FloorAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn stands(Sent(asked): Sent<FloorRequest>) -> Result<Json<FloorAnswer>, ApiError> {
    let FloorRequest { shot, carried, light, height_m, gust_m_s } = asked;
    Ok(Json(floor(&shot, carried.as_ref(), FloorAsk { light, height_m, gust_m_s })?))
}
