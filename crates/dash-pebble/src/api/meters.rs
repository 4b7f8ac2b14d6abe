//! Readings of a flash meter: taken into a shot, and kept with the unit that was read.

use super::App;
use super::body::{Id, Sendable, Sent};
use super::json::Json;
use super::kept::ItemAnswer;
use super::problem::{ApiError, Problem};
use crate::store::kit;
use axum::extract::State;
use pebble_core::Shot;
use pebble_core::gear::{Item, UnitReading};
use pebble_core::meters::{MeterReading, MeterTaken, NotMetered, ReadAs, metered, reread};
use pebble_core::shot::Reading;
use serde::Deserialize;

/// A shot, and what a meter has read in its set.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeterRequest {
    /// The shot.
    shot: Shot,
    /// What was read.
    reading: MeterReading,
}

impl Sendable for MeterRequest {
    const NAME: &'static str = "meter reading";
}

impl Sendable for UnitReading {
    const NAME: &'static str = "reading of a unit";
}

/// Takes a reading into a shot: how far its light is off counts from then on.
#[utoipa::path(post, path = "/api/meter", request_body = MeterRequest, responses(
    (status = 200, body = MeterTaken), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn reading(Sent(asked): Sent<MeterRequest>) -> Result<Json<MeterTaken>, ApiError> {
    let MeterRequest { shot, reading } = asked;
    metered(&shot, &reading).map(Json).map_err(|why| match why {
        NotMetered::Invalid(invalid) => ApiError::Invalid(invalid),
        why @ NotMetered::Far { .. } => ApiError::FarReading { text: reading.read, reason: why.to_string() },
        why => ApiError::Typed { text: reading.read, reason: why.to_string() },
    })
}

/// A shot whose steady light shall be read in another way.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RereadRequest {
    /// The shot.
    shot: Shot,
    /// That on the background, and not on the subject.
    #[serde(default)]
    background: bool,
    /// The way.
    form: ReadAs,
}

impl Sendable for RereadRequest {
    const NAME: &'static str = "light to be read otherwise";
}

/// The same steady light in another way of reading.
#[utoipa::path(post, path = "/api/reread", request_body = RereadRequest, responses(
    (status = 200, body = Reading), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn reread_light(Sent(asked): Sent<RereadRequest>) -> Result<Json<Reading>, ApiError> {
    Ok(Json(reread(&asked.shot, asked.background, asked.form)?))
}

/// Keeps a reading with a unit, after those it has.
#[utoipa::path(post, operation_id = "kit_reading", path = "/api/kit/items/{id}/readings", params(("id" = String, Path)),
    request_body = UnitReading, responses((status = 200, body = ItemAnswer), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn keep(
    State(app): State<App>,
    Id(id): Id,
    Sent(reading): Sent<UnitReading>,
) -> Result<ItemAnswer, ApiError> {
    loop {
        let now = kit::one(&app.store, &id).await?;
        let Item::Unit(mut unit) = now.thing else { return Err(ApiError::Missing { noun: "unit", id }) };
        // The latest behind the same thing counts; those before it stay to be looked at.
        for earlier in unit.readings.iter_mut().filter(|one| one.modifier == reading.modifier) {
            earlier.counts &= !reading.counts;
        }
        unit.readings.push(reading.clone());
        let item = Item::Unit(unit);
        item.check()?;
        match kit::replace(&app.store, &id, now.version, &item).await {
            // Somebody was quicker: it goes on top of theirs.
            Err(kit::ItemError::Conflict(_)) => {}
            done => return Ok(done?.into()),
        }
    }
}
