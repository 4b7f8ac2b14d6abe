//! Earlier versions of a shot: listed, named, compared, brought back.

use super::App;
use super::body::{Asked, Seen, Sendable, Sent};
use super::json::Json;
use super::kept::ShotAnswer;
use super::problem::{ApiError, Problem};
use crate::store::shots;
use crate::store::versions::{self, Version};
use axum::extract::{Path, State};
use axum::http::StatusCode;
use pebble_core::compare::{Difference, compare, in_short};
use pebble_core::{Invalid, Plan, Shot};
use serde::{Deserialize, Serialize};
use std::collections::HashMap;

/// Longest name of a version.
const LONGEST_NAME: usize = 80;

/// Versions made within so many seconds of each other belong to one turn of work.
const ONE_TURN_S: i64 = 60;

/// A version, and what it changed.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct VersionSaid {
    /// The version.
    #[serde(flatten)]
    pub version: Version,
    /// What changed against the one before, in a few words; nothing of the first.
    pub said: Option<String>,
    /// Whether a later one within a minute stands for it.
    pub folds: bool,
}

/// A version beside another.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct Compared {
    /// The version.
    pub shot: Shot,
    /// What it is laid beside.
    pub beside: Shot,
    /// What differs, the version first.
    pub differences: Vec<Difference>,
}

/// A name for a version.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct VersionName {
    /// The name; none takes it away.
    pub name: Option<String>,
}

impl Sendable for VersionName {
    const NAME: &'static str = "name of a version";
}

type Which = Result<Path<(String, i64)>, axum::extract::rejection::PathRejection>;

fn which(path: Which) -> Result<(String, i64), ApiError> {
    path.map(|Path(which)| which).map_err(|error| ApiError::BadAddress(error.body_text()))
}

/// Versions of a shot, latest first: the last hundred, and all that have names.
#[utoipa::path(get, operation_id = "versions", path = "/api/shots/{id}/versions", params(("id" = String, Path)), responses(
    (status = 200, body = Vec<VersionSaid>), (status = 404, body = Problem)))]
pub async fn list(
    State(app): State<App>,
    super::body::Id(id): super::body::Id,
) -> Result<Json<Vec<VersionSaid>>, ApiError> {
    shots::one::<Shot>(&app.store, &id).await?;
    let listed = versions::all(&app.store, &id).await?;
    let bodies = versions::bodies(&app.store, &id, &listed).await?;
    // A hundred plans take some milliseconds: not on the threads that answer.
    let said = tokio::task::spawn_blocking(move || said(listed, &bodies)).await;
    Ok(Json(said.map_err(|error| ApiError::Internal(format!("the list was not made: {error}")))?))
}

/// What each changed against the one it is shown after.
fn said(listed: Vec<Version>, bodies: &HashMap<i64, (Vec<u8>, i64)>) -> Vec<VersionSaid> {
    let read = |version: &Version| {
        let shot: Shot = serde_json::from_slice(&bodies.get(&version.revision)?.0).ok()?;
        let plan = Plan::try_from(&shot).ok()?;
        Some((shot, plan))
    };
    let made = |version: &Version| bodies.get(&version.revision).map_or(0, |(_, made)| *made);
    let last = listed.len().saturating_sub(1);
    let folds: Vec<bool> = { listed.iter().enumerate() }
        .map(|(at, version)| {
            let soon = at > 0 && made(&listed[at - 1]) - made(version) < ONE_TURN_S;
            soon && at < last && version.name.is_none() && !version.is_now
        })
        .collect();
    let plans: Vec<Option<(Shot, Plan)>> = listed.iter().map(read).collect();
    let said: Vec<Option<String>> = (0..listed.len())
        .map(|at| {
            // One that folds is told from its neighbour, one that stands for others from the next that stands.
            let before = (at + 1..listed.len()).find(|older| folds[at] || !folds[*older])?;
            let ((shot, plan), (older, older_plan)) = plans[at].as_ref().zip(plans[before].as_ref())?;
            Some(in_short((older, older_plan), (shot, plan)))
        })
        .collect();
    { listed.into_iter().zip(said).zip(folds) }
        .map(|((version, said), folds)| VersionSaid { version, said, folds })
        .collect()
}

/// What a version is laid beside.
#[derive(Debug, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct BesideQuery {
    /// Another version; the one that counts when not said.
    beside: Option<i64>,
}

/// One version beside another, or beside the one that counts.
#[utoipa::path(get, operation_id = "version", path = "/api/shots/{id}/versions/{revision}",
    params(("id" = String, Path), ("revision" = i64, Path), BesideQuery),
    responses((status = 200, body = Compared), (status = 404, body = Problem)))]
pub async fn read(
    State(app): State<App>,
    path: Which,
    Asked(query): Asked<BesideQuery>,
) -> Result<Json<Compared>, ApiError> {
    let (id, revision) = which(path)?;
    let beside: Shot = match query.beside {
        Some(other) => versions::one(&app.store, &id, other).await?,
        None => shots::one::<Shot>(&app.store, &id).await?.thing,
    };
    let shot: Shot = versions::one(&app.store, &id, revision).await?;
    let (before, after) = (Plan::try_from(&shot)?, Plan::try_from(&beside)?);
    let differences = compare((&shot, &before), (&beside, &after));
    Ok(Json(Compared { shot, beside, differences }))
}

/// Gives a version a name, or takes it away.
#[utoipa::path(put, operation_id = "name_version", path = "/api/shots/{id}/versions/{revision}/name",
    params(("id" = String, Path), ("revision" = i64, Path)), request_body = VersionName,
    responses((status = 204), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn name(State(app): State<App>, path: Which, Sent(body): Sent<VersionName>) -> Result<StatusCode, ApiError> {
    let (id, revision) = which(path)?;
    let name = body.name.as_deref().map(str::trim).filter(|name| !name.is_empty());
    if let Some(long) = name.filter(|name| name.chars().count() > LONGEST_NAME) {
        let (field, given) = ("name".to_owned(), long.chars().take(40).collect());
        return Err(Invalid::NotAllowed { field, given, allowed: "at most 80 characters".to_owned() }.into());
    }
    versions::call::<Shot>(&app.store, &id, revision, name).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Puts an earlier version on top; what counted until now stays among the versions.
#[utoipa::path(post, operation_id = "bring_back", path = "/api/shots/{id}/versions/{revision}/back",
    params(("id" = String, Path), ("revision" = i64, Path), ("If-Match" = String, Header)),
    responses((status = 200, body = ShotAnswer), (status = 404, body = Problem), (status = 409, body = Problem)))]
pub async fn back(State(app): State<App>, path: Which, Seen(version): Seen) -> Result<ShotAnswer, ApiError> {
    let (id, revision) = which(path)?;
    Ok(versions::bring_back::<Shot>(&app.store, &id, version, revision).await?.into())
}
