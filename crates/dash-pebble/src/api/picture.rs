//! The simulated frame.

use super::App;
use super::body::{Asked, Checked, Id};
use super::photos::behind;
use super::problem::{ApiError, Problem};
use super::studio::How;
use crate::store::shots;
use axum::extract::State;
use axum::http::{HeaderMap, HeaderName, HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use pebble_core::quantity::bounds::Limits;
use pebble_core::{Plan, Shot};
use pebble_picture::{Crop, Layers, Picture, Request};
use serde::Deserialize;

const WIDTH: Limits = Limits { what: "picture width", unit: "px", min: 16.0, max: 2400.0 };
const EDGE: Limits = Limits { what: "crop edge", unit: "of the frame", min: -1.0, max: 1.0 };
const SIZE: Limits = Limits { what: "crop size", unit: "of the frame", min: 0.002, max: 1.0 };

/// Which light to show.
#[derive(Clone, Copy, Debug, Default, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Shown {
    /// Flash and steady light.
    #[default]
    Both,
    /// Flash alone.
    Flash,
    /// Steady light alone.
    Ambient,
}

/// What to draw.
#[derive(Clone, Copy, Debug, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct PictureQuery {
    /// Width in pixels, 16 to 2400.
    #[serde(default = "default_width")]
    width: f64,
    /// Which light.
    #[serde(default)]
    #[param(inline)]
    layers: Shown,
    /// Left edge of the crop, as a share of the frame.
    #[serde(default)]
    left: f64,
    /// Top edge of the crop.
    #[serde(default)]
    top: f64,
    /// Width of the crop.
    #[serde(default = "default_size")]
    size: f64,
    /// Rather soon than whole: who was not drawn before is drawn half as wide, and in nobody's shade.
    #[serde(default)]
    soon: bool,
}

fn default_width() -> f64 {
    960.0
}

fn default_size() -> f64 {
    1.0
}

impl TryFrom<PictureQuery> for Request {
    type Error = ApiError;

    fn try_from(query: PictureQuery) -> Result<Self, ApiError> {
        Ok(Self {
            width: WIDTH.check("width", query.width)? as u32,
            layers: match query.layers {
                Shown::Both => Layers::Both,
                Shown::Flash => Layers::Flash,
                Shown::Ambient => Layers::Ambient,
            },
            crop: Crop {
                left: EDGE.check("left", query.left)?,
                top: EDGE.check("top", query.top)?,
                size: SIZE.check("size", query.size)?,
            },
        })
    }
}

/// The frame of a shot that need not be saved: raw RGBA, or PNG when that is asked for.
#[utoipa::path(post, path = "/api/picture", params(PictureQuery), request_body = Shot, responses(
    (status = 200, content_type = "application/octet-stream", description = "RGBA rows from the top, or PNG"),
    (status = 422, body = Problem)))]
pub async fn draw(
    State(app): State<App>,
    Asked(query): Asked<PictureQuery>,
    headers: HeaderMap,
    body: Checked,
) -> Result<Response, ApiError> {
    let wants_png = headers.get(header::ACCEPT).is_some_and(|value| value.as_bytes().starts_with(b"image/png"));
    let how = if query.soon { How::Soon } else { How::Whole };
    let request = query.try_into()?;
    if wants_png {
        png(&app, body.plan, request).await
    } else {
        let photo = behind(&app, &body.plan).await?;
        Ok(raw(app.studio.draw((body.plan, photo), (request, how), Ok).await?))
    }
}

/// The frame of a saved shot as PNG.
#[utoipa::path(get, path = "/api/shots/{id}/picture", params(("id" = String, Path), PictureQuery), responses(
    (status = 200, content_type = "image/png"), (status = 304), (status = 404, body = Problem)))]
pub async fn of_shot(
    State(app): State<App>,
    Id(id): Id,
    Asked(query): Asked<PictureQuery>,
    headers: HeaderMap,
) -> Result<Response, ApiError> {
    let kept = shots::one(&app.store, &id).await?;
    let tag = format!("\"{}-{:?}\"", kept.version, query);
    if headers.get(header::IF_NONE_MATCH).is_some_and(|seen| seen.as_bytes() == tag.as_bytes()) {
        return Ok(StatusCode::NOT_MODIFIED.into_response());
    }
    let mut response = png(&app, Plan::try_from(&kept.thing)?, query.try_into()?).await?;
    if let Ok(tag) = HeaderValue::from_str(&tag) {
        response.headers_mut().insert(header::ETAG, tag);
    }
    Ok(response)
}

async fn png(app: &App, plan: Plan, request: Request) -> Result<Response, ApiError> {
    let written = |picture: Picture| {
        picture.to_png().map_err(|error| ApiError::Internal(format!("the picture was not written: {error}")))
    };
    let photo = behind(app, &plan).await?;
    let bytes = app.studio.draw((plan, photo), (request, How::Aside), written).await?;
    Ok(([(header::CONTENT_TYPE, "image/png")], bytes).into_response())
}

fn raw(picture: Picture) -> Response {
    let size = |name: &'static str, value: u32| (HeaderName::from_static(name), HeaderValue::from(value));
    let mut response = ([(header::CONTENT_TYPE, "application/octet-stream")], picture.rgba).into_response();
    response.headers_mut().extend([size("picture-width", picture.width), size("picture-height", picture.height)]);
    response
}
