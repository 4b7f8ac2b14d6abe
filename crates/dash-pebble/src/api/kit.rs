//! The kit: list, read, add, change, retire, delete, take in and give out.

use super::App;
use super::LARGEST_KIT;
use super::body::{Asked, Id, Seen, Sendable, Sent, not_arrived};
use super::json::Json;
use super::kept::ItemAnswer;
use super::problem::{ApiError, Problem};
use crate::demo;
use crate::formats::units_csv;
use crate::store::kit::{self, Imported, ItemError, Kept, Step, Use};
use axum::body::Bytes;
use axum::extract::State;
use axum::extract::rejection::BytesRejection;
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use pebble_core::Invalid;
use pebble_core::gear::{FlashUnit, Item, Kind, Kit};
use pebble_core::sheet;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;

impl Sendable for Item {
    const NAME: &'static str = "thing of the kit";
}

impl Sendable for Kit {
    const NAME: &'static str = "kit";
    const LARGEST: usize = LARGEST_KIT;
}

/// A thing in the list.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct ItemCard {
    /// Identity.
    pub id: String,
    /// Version.
    pub version: i64,
    /// Its kind.
    pub what: Kind,
    /// Maker and model.
    pub name: String,
    /// The figures that tell it from its neighbours.
    pub line: String,
    /// Whether it is no longer taken along.
    pub retired: bool,
    /// How many shots and units carry it.
    pub uses: i64,
}

/// The list.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct KitList {
    /// Things in order.
    pub items: Vec<ItemCard>,
    /// What could not be read, in sentences.
    pub unreadable: Vec<String>,
}

/// All things of the kit in short, retired ones among them.
#[utoipa::path(get, operation_id = "kit_shelf", path = "/api/kit/shelf", responses((status = 200, body = KitList)))]
pub async fn shelf(State(app): State<App>) -> Result<Json<KitList>, ApiError> {
    let uses = kit::use_counts(&app.store).await?;
    let kept = kit::all(&app.store).await?;
    // Hundreds of units take some milliseconds of computing: not on the threads that answer.
    let made = tokio::task::spawn_blocking(move || cards(kept, &uses)).await;
    Ok(Json(made.map_err(|error| ApiError::Internal(format!("the list was not made: {error}")))??))
}

fn cards(kept: Vec<Result<Kept, ItemError>>, uses: &HashMap<String, i64>) -> Result<KitList, ApiError> {
    let mut shelf = KitList { items: Vec::with_capacity(kept.len()), unreadable: Vec::new() };
    let mut readable = Vec::with_capacity(kept.len());
    for one in kept {
        match one {
            Ok(kept) => readable.push(kept),
            Err(ItemError::Database(error)) => return Err(error.into()),
            Err(other) => shelf.unreadable.push(other.to_string()),
        }
    }
    // Each line is computed by itself: every core of the machine takes its share.
    let cores = std::thread::available_parallelism().map_or(1, usize::from);
    let share = readable.len().div_ceil(cores).max(1);
    let lines: Vec<Result<String, Invalid>> = std::thread::scope(|scope| {
        let line_of = |part: &[Kept]| part.iter().map(|kept| sheet::line(&kept.thing)).collect::<Vec<_>>();
        let parts: Vec<_> = readable.chunks(share).map(|part| scope.spawn(move || line_of(part))).collect();
        parts.into_iter().flat_map(|part| part.join().unwrap_or_default()).collect()
    });
    if lines.len() != readable.len() {
        return Err(ApiError::Internal("the list was not made".to_owned()));
    }
    for (kept, line) in readable.into_iter().zip(lines) {
        shelf.items.push(ItemCard {
            what: kept.thing.kind(),
            name: kept.thing.name().to_owned(),
            line: line?,
            uses: uses.get(&kept.id).copied().unwrap_or(0),
            id: kept.id,
            version: kept.version,
            retired: kept.retired,
        });
    }
    Ok(shelf)
}

/// What can be chosen for a shot: everything that is not retired.
#[utoipa::path(get, operation_id = "kit_offered", path = "/api/kit", responses((status = 200, body = Kit)))]
pub async fn offered(State(app): State<App>) -> Result<Json<Kit>, ApiError> {
    Ok(Json(kit::offered(&app.store).await?))
}

/// An invented kit to start from.
#[utoipa::path(get, operation_id = "kit_sample", path = "/api/kit/sample", responses((status = 200, body = Kit)))]
pub async fn sample() -> Json<&'static Kit> {
    Json(&demo::KIT)
}

/// One thing.
#[utoipa::path(get, operation_id = "kit_read", path = "/api/kit/items/{id}", params(("id" = String, Path)), responses(
    (status = 200, body = ItemAnswer), (status = 404, body = Problem)))]
pub async fn read(State(app): State<App>, Id(id): Id) -> Result<ItemAnswer, ApiError> {
    Ok(kit::one(&app.store, &id).await?.into())
}

/// What carries a thing.
#[utoipa::path(get, operation_id = "kit_uses", path = "/api/kit/items/{id}/uses", params(("id" = String, Path)), responses((status = 200, body = Vec<Use>)))]
pub async fn uses(State(app): State<App>, Id(id): Id) -> Result<Json<Vec<Use>>, ApiError> {
    Ok(Json(kit::uses(&app.store, &id).await?))
}

/// Adds a thing. Without an id, or with one that something else has, it gets one made from its name.
#[utoipa::path(post, operation_id = "kit_add", path = "/api/kit/items", request_body = Item, responses(
    (status = 201, body = ItemAnswer), (status = 422, body = Problem)))]
pub async fn add(State(app): State<App>, Sent(item): Sent<Item>) -> Result<(StatusCode, ItemAnswer), ApiError> {
    let wanted = if item.id().is_empty() { units_csv::slug(item.name()) } else { item.id().to_owned() };
    // Checked under a stand-in when the name gives nothing, so that the name is what is refused.
    let item = item.with_id(if wanted.is_empty() { "thing" } else { &wanted });
    item.check()?;
    Ok((StatusCode::CREATED, kit::add(&app.store, &item).await?.into()))
}

/// Changes a thing at the version that was read.
#[utoipa::path(put, operation_id = "kit_replace", path = "/api/kit/items/{id}", params(("id" = String, Path), ("If-Match" = String, Header)),
    request_body = Item, responses((status = 200, body = ItemAnswer), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub async fn replace(
    State(app): State<App>,
    Id(id): Id,
    Seen(version): Seen,
    Sent(item): Sent<Item>,
) -> Result<ItemAnswer, ApiError> {
    item.check()?;
    let now: Kept = kit::one(&app.store, &id).await?;
    // A thing that changes its kind or identity would be another thing under every shot that carries it.
    if item.id() != id || item.kind() != now.thing.kind() {
        return Err(ApiError::Taken(item.id().to_owned()));
    }
    Ok(kit::replace(&app.store, &id, version, &item).await?.into())
}

/// Back to the revision before.
#[utoipa::path(post, operation_id = "kit_undo", path = "/api/kit/items/{id}/undo", params(("id" = String, Path), ("If-Match" = String, Header)),
    responses((status = 200, body = ItemAnswer), (status = 409, body = Problem)))]
pub async fn undo(State(app): State<App>, Id(id): Id, Seen(version): Seen) -> Result<ItemAnswer, ApiError> {
    Ok(kit::step(&app.store, &id, version, Step::Undo).await?.into())
}

/// Forward to the revision after.
#[utoipa::path(post, operation_id = "kit_redo", path = "/api/kit/items/{id}/redo", params(("id" = String, Path), ("If-Match" = String, Header)),
    responses((status = 200, body = ItemAnswer), (status = 409, body = Problem)))]
pub async fn redo(State(app): State<App>, Id(id): Id, Seen(version): Seen) -> Result<ItemAnswer, ApiError> {
    Ok(kit::step(&app.store, &id, version, Step::Redo).await?.into())
}

/// No longer taken along: not offered for new shots; those that carry it go on.
#[utoipa::path(post, operation_id = "kit_retire", path = "/api/kit/items/{id}/retire", params(("id" = String, Path), ("If-Match" = String, Header)),
    responses((status = 200, body = ItemAnswer), (status = 409, body = Problem)))]
pub async fn retire(State(app): State<App>, Id(id): Id, Seen(version): Seen) -> Result<ItemAnswer, ApiError> {
    Ok(kit::retire(&app.store, &id, version, true).await?.into())
}

/// Taken along again.
#[utoipa::path(post, operation_id = "kit_unretire", path = "/api/kit/items/{id}/unretire", params(("id" = String, Path), ("If-Match" = String, Header)),
    responses((status = 200, body = ItemAnswer), (status = 409, body = Problem)))]
pub async fn unretire(State(app): State<App>, Id(id): Id, Seen(version): Seen) -> Result<ItemAnswer, ApiError> {
    Ok(kit::retire(&app.store, &id, version, false).await?.into())
}

/// Deletes a thing that nothing carries.
#[utoipa::path(delete, operation_id = "kit_remove", path = "/api/kit/items/{id}", params(("id" = String, Path), ("If-Match" = String, Header)),
    responses((status = 204), (status = 409, body = Problem)))]
pub async fn remove(State(app): State<App>, Id(id): Id, Seen(version): Seen) -> Result<StatusCode, ApiError> {
    kit::remove::<Item>(&app.store, &id, version).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Brings a deleted thing back.
#[utoipa::path(post, operation_id = "kit_restore", path = "/api/kit/items/{id}/restore", params(("id" = String, Path)), responses(
    (status = 200, body = ItemAnswer), (status = 404, body = Problem)))]
pub async fn restore(State(app): State<App>, Id(id): Id) -> Result<ItemAnswer, ApiError> {
    Ok(kit::restore(&app.store, &id).await?.into())
}

fn download(media: &'static str, name: &str, text: String) -> Response {
    let disposition = format!("attachment; filename=\"{name}\"");
    ([(header::CONTENT_TYPE, media.to_owned()), (header::CONTENT_DISPOSITION, disposition)], text).into_response()
}

/// The whole kit as the open file.
#[utoipa::path(get, operation_id = "kit_export", path = "/api/kit/export", responses((status = 200, body = Kit)))]
pub async fn export(State(app): State<App>) -> Result<Response, ApiError> {
    let kit = kit::export(&app.store).await?;
    let text = serde_json::to_string_pretty(&kit).map_err(|error| ApiError::Internal(error.to_string()))?;
    Ok(download("application/json", "dash-pebble-kit.json", text))
}

/// Takes in a kit file, all or none.
#[utoipa::path(post, operation_id = "kit_import", path = "/api/kit/import", request_body = Kit, responses(
    (status = 200, body = Imported), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn import(State(app): State<App>, Sent(kit): Sent<Kit>) -> Result<Json<Imported>, ApiError> {
    let items = kit.into_items()?;
    Ok(Json(kit::import(&app.store, &items).await?))
}

/// Which units to write.
#[derive(Clone, Debug, Default, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct UnitsQuery {
    /// The identity of one; all when not said.
    id: Option<String>,
}

/// Units as a table, one row a power.
#[utoipa::path(get, operation_id = "kit_export_units", path = "/api/kit/units.csv", params(UnitsQuery), responses((status = 200, content_type = "text/csv")))]
pub async fn export_units(State(app): State<App>, Asked(query): Asked<UnitsQuery>) -> Result<Response, ApiError> {
    let units: Vec<FlashUnit> = units(&app)
        .await?
        .into_values()
        .map(|(unit, _)| unit)
        .filter(|unit| query.id.as_ref().is_none_or(|id| *id == unit.id))
        .collect();
    if let (Some(id), true) = (query.id, units.is_empty()) {
        return Err(ApiError::Missing { noun: "unit", id });
    }
    let text = units_csv::write(&units).map_err(|error| ApiError::Internal(error.to_string()))?;
    Ok(download("text/csv; charset=utf-8", "dash-pebble-units.csv", text))
}

/// Takes in a table of units, all or none.
#[utoipa::path(post, operation_id = "kit_import_units", path = "/api/kit/units.csv", request_body(content = String, content_type = "text/csv"), responses(
    (status = 200, body = Imported), (status = 422, body = Problem)))]
pub async fn import_units(
    State(app): State<App>,
    body: Result<Bytes, BytesRejection>,
) -> Result<Json<Imported>, ApiError> {
    let bytes = body.map_err(|error| not_arrived(&error, "table of units", Kit::LARGEST))?;
    let there = units(&app).await?;
    let retired: HashMap<String, bool> = there.iter().map(|(id, (_, retired))| (id.clone(), *retired)).collect();
    let own: HashMap<String, FlashUnit> = there.into_iter().map(|(id, (unit, _))| (id, unit)).collect();
    let units = units_csv::read(&bytes, &own).map_err(ApiError::WrongRows)?;
    let items: Vec<(Item, bool)> = units
        .into_iter()
        .map(|unit| {
            let away = retired.get(&unit.id).copied().unwrap_or(false);
            (Item::Unit(Box::new(unit)), away)
        })
        .collect();
    Ok(Json(kit::import(&app.store, &items).await?))
}

/// All units in the order of the list, and whether they are retired.
async fn units(app: &App) -> Result<indexmap::IndexMap<String, (FlashUnit, bool)>, ApiError> {
    let kept = kit::all(&app.store).await?.into_iter().filter_map(Result::ok);
    Ok(kept
        .filter_map(|kept| match kept.thing {
            Item::Unit(unit) => Some((kept.id, (*unit, kept.retired))),
            _ => None,
        })
        .collect())
}
