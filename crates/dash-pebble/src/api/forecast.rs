//! What will happen: forecast, findings and the notches of every control, for a shot that need not be saved.

use super::body::Checked;
use super::problem::{ApiError, Problem};
use axum::Json;
use pebble_core::findings::Finding;
use pebble_core::strips::Strip;
use pebble_core::{Forecast, Plan, Shot, findings, forecast, outlook, strips};
use serde::Serialize;

/// Name of the format that the command line writes.
pub const FORMAT: &str = "dash-pebble/forecast";

/// Everything computed for one shot.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct Answer {
    /// `dash-pebble/forecast`.
    pub format: String,
    /// Version of the format.
    pub version: u32,
    /// The numbers.
    pub forecast: Forecast,
    /// The judgement, worst first.
    pub findings: Vec<Finding>,
}

impl Answer {
    /// Computes a plan.
    pub fn of(plan: &Plan) -> Self {
        let outlook = outlook(plan);
        Self {
            format: FORMAT.to_owned(),
            version: 1,
            forecast: forecast::written(plan, &outlook),
            findings: findings::judge(plan, &outlook),
        }
    }
}

/// Forecast and findings.
#[utoipa::path(post, path = "/api/forecast", request_body = Shot, responses(
    (status = 200, body = Answer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn compute(body: Checked) -> Result<Json<Answer>, ApiError> {
    Ok(Json(Answer::of(&body.plan)))
}

/// What the Bench needs after every step of a control.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct BenchAnswer {
    /// The numbers.
    pub forecast: Forecast,
    /// The judgement, worst first.
    pub findings: Vec<Finding>,
    /// The notches of every control.
    pub strips: Vec<Strip>,
}

/// Forecast, findings and the notches of every control.
#[utoipa::path(post, path = "/api/bench", request_body = Shot, responses(
    (status = 200, body = BenchAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn bench(body: Checked) -> Result<Json<BenchAnswer>, ApiError> {
    let Answer { forecast, findings, .. } = Answer::of(&body.plan);
    Ok(Json(BenchAnswer { forecast, findings, strips: strips::strips(&body.plan) }))
}
