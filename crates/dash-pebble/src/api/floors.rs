//! The set on the floor, from above and from the side.

use super::body::{Checked, Sendable, Sent};
use super::json::Json;
use super::problem::{ApiError, Problem};
use crate::formats::set_csv;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use pebble_core::Shot;
use pebble_core::floor::{
    ArrangedAnswer, CarriedTo, EvenAnswer, FloorAnswer, FloorAsk, LampTo, LightOf, TapedStand, arranged, evened, floor,
};
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
    /// A steady lamp that is carried somewhere first.
    #[serde(default)]
    pub lamp_carried: Option<LampTo>,
    /// Contours of this light alone; of all that are meant for the subject where none is named.
    #[serde(default)]
    pub light: Option<usize>,
    /// Contours of the steady light instead.
    #[serde(default)]
    pub ambient: bool,
    /// The light in hand, whose evenness is told, and what may be done about it.
    #[serde(default)]
    pub in_hand: usize,
    /// At this height over the floor.
    pub height_m: f64,
    /// Stands are judged in such a gust.
    #[serde(default)]
    pub gust_m_s: Option<f64>,
    /// How far it is between two places: right, away, up.
    #[serde(default)]
    pub measure: Option<[[f64; 3]; 2]>,
    /// A stand as it was taped.
    #[serde(default)]
    pub taped: Option<TapedStand>,
}

impl Sendable for FloorRequest {
    const NAME: &'static str = "set on the floor";
}

/// Where everything stands, how even the area is lit, and what the lens sees that it must not.
#[utoipa::path(post, operation_id = "floor", path = "/api/floor", request_body = FloorRequest, responses(
    (status = 200, body = FloorAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn stands(Sent(asked): Sent<FloorRequest>) -> Result<Json<FloorAnswer>, ApiError> {
    let FloorRequest { shot, carried, lamp_carried: lamp, light, ambient, in_hand, height_m, gust_m_s, measure, taped } =
        asked;
    let of = match light {
        _ if ambient => LightOf::Ambient,
        Some(light) => LightOf::One(light),
        None => LightOf::All,
    };
    Ok(Json(floor(&shot, carried.as_ref(), FloorAsk { lamp, of, in_hand, height_m, gust_m_s, measure, taped })?))
}

/// A shot, and the one whose lights are put on it.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ArrangeRequest {
    /// The shot.
    pub shot: Shot,
    /// Whose lights, as they stand there.
    pub like: Shot,
}

impl Sendable for ArrangeRequest {
    const NAME: &'static str = "arrangement";
}

/// The lights of another shot, fitted to this one's camera and room: out of its picture, and as bright on the subject as
/// there; with what of them could not stay as it was.
#[utoipa::path(post, operation_id = "arrange", path = "/api/floor/arranged", request_body = ArrangeRequest, responses(
    (status = 200, body = ArrangedAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn arrange(Sent(asked): Sent<ArrangeRequest>) -> Result<Json<ArrangedAnswer>, ApiError> {
    Ok(Json(arranged(&asked.shot, &asked.like)?))
}

/// Ways to light the area by all lights together, side by side.
#[utoipa::path(post, operation_id = "floor_even", path = "/api/floor/even", request_body = Shot, responses(
    (status = 200, body = EvenAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn even(body: Checked) -> Result<Json<EvenAnswer>, ApiError> {
    // Longer than others may be kept waiting.
    let found = tokio::task::spawn_blocking(move || evened(&body.shot)).await;
    Ok(Json(found.map_err(|stopped| ApiError::Internal(stopped.to_string()))??))
}

/// The table to rebuild a set by.
#[utoipa::path(post, operation_id = "floor_table", path = "/api/floor/table", request_body = Shot, responses(
    (status = 200, content_type = "text/csv"), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn table(body: Checked) -> Result<Response, ApiError> {
    let set = floor(&body.shot, None, FloorAsk::default())?;
    let table = set_csv::write(&set).map_err(ApiError::Internal)?;
    let name = format!("attachment; filename=\"{}\"", set_csv::FILE_NAME);
    Ok(([(header::CONTENT_TYPE, "text/csv; charset=utf-8".to_owned()), (header::CONTENT_DISPOSITION, name)], table)
        .into_response())
}
