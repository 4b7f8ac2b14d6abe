//! Shots: list, read, add, change, undo, remove.

use super::App;
use super::body::{Asked, Checked, Id, Seen, Sent};
use super::handed;
use super::json::Json;
use super::kept::ShotAnswer;
use super::problem::{ApiError, Problem};
use crate::demo;
use crate::store::preferences;
use crate::store::shots::{self, Kept, Page, ShotError, ShotName, Step};
use axum::extract::State;
use axum::http::StatusCode;
use pebble_core::fit::{Moved, fit};
use pebble_core::guides::{Guide, guides};
use pebble_core::{Plan, Shot, findings, outlook};
use serde::{Deserialize, Serialize};

/// A shot in the list.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct ShotCard {
    /// Identity.
    pub id: String,
    /// Version.
    pub version: i64,
    /// Title.
    pub title: String,
    /// Place.
    pub place: String,
    /// When it last changed, UTC.
    pub changed_at: String,
    /// Findings that miss the intent.
    pub trouble: usize,
    /// Findings worth knowing.
    pub watch: usize,
    /// The working exposure as written.
    pub exposure: String,
    /// Names of the parts with their intents.
    pub parts: Vec<PartTag>,
    /// Whether new shots are begun from it.
    pub template: bool,
}

/// A part on a card.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct PartTag {
    /// Its name.
    pub name: String,
    /// What it shall look like.
    pub intent: pebble_core::shot::Intent,
}

/// A part of the list.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct ShotList {
    /// Shots in order.
    pub shots: Vec<ShotCard>,
    /// What could not be read, in sentences.
    pub unreadable: Vec<String>,
    /// How many there are in all.
    pub count: i64,
}

/// Which part of the list.
#[derive(Clone, Debug, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct ListQuery {
    /// So many are passed over.
    #[serde(default)]
    #[param(minimum = 0)]
    skip: u32,
    /// At most so many; 60 when not said, never more than 200.
    #[serde(default = "a_page")]
    #[param(minimum = 0)]
    most: u32,
    /// Only those with all of these words in title, place or parts.
    #[serde(default)]
    #[param(required = false)]
    find: String,
    /// Only those that new shots are begun from.
    #[serde(default)]
    #[param(required = false)]
    templates: bool,
    /// By what they are sorted; as they were made when not said.
    #[serde(default)]
    #[param(inline)]
    sort: SortBy,
}

/// Orders of the list.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SortBy {
    /// As they were made.
    #[default]
    Made,
    /// The one that was worked on last first.
    Changed,
    /// By title.
    Title,
    /// By place, then title.
    Place,
}

/// Shots of a page when nobody says how many.
const PAGE: u32 = 60;
/// Shots of the longest page: each is forecast.
const LONGEST_PAGE: u32 = 200;

fn a_page() -> u32 {
    PAGE
}

/// Shots in the order of the list, some at a time.
#[utoipa::path(get, path = "/api/shots", params(ListQuery), responses((status = 200, body = ShotList)))]
pub async fn list(State(app): State<App>, Asked(query): Asked<ListQuery>) -> Result<Json<ShotList>, ApiError> {
    let page = Page { skip: query.skip.into(), most: query.most.min(LONGEST_PAGE).into() };
    let (kept, count) = if query.find.trim().is_empty() && query.sort == SortBy::Made && !query.templates {
        (shots::page(&app.store, page).await?, shots::count::<Shot>(&app.store).await?)
    } else {
        found(shots::all(&app.store).await?, &query, page)
    };
    // Every card is a forecast: not on the threads that answer.
    let made = tokio::task::spawn_blocking(move || cards(kept, count)).await;
    Ok(Json(made.map_err(|error| ApiError::Internal(format!("the list was not made: {error}")))??))
}

/// The shots that are looked for, in the order that is asked for, and how many there are of them. What cannot be read has no
/// words and no place: it stands on the whole list.
fn found(all: Vec<Result<Kept, ShotError>>, query: &ListQuery, page: Page) -> (Vec<Result<Kept, ShotError>>, i64) {
    let wanted: Vec<String> = query.find.to_lowercase().split_whitespace().map(str::to_owned).collect();
    let has = |kept: &Kept| {
        let parts = kept.thing.parts.iter().map(|part| part.name.as_str());
        let words: Vec<&str> = [kept.thing.title.as_str(), &kept.thing.place].into_iter().chain(parts).collect();
        let words = words.join(" ").to_lowercase();
        (kept.thing.template || !query.templates) && wanted.iter().all(|word| words.contains(word.as_str()))
    };
    let mut kept: Vec<Kept> = all.into_iter().filter_map(Result::ok).filter(has).collect();
    let title = |kept: &Kept| kept.thing.title.to_lowercase();
    match query.sort {
        SortBy::Made => {}
        SortBy::Changed => kept.sort_by(|a, b| b.changed_at.cmp(&a.changed_at)),
        SortBy::Title => kept.sort_by_cached_key(title),
        SortBy::Place => kept.sort_by_cached_key(|kept| (kept.thing.place.to_lowercase(), title(kept))),
    }
    let count = kept.len() as i64;
    let (skip, most) = (page.skip.max(0) as usize, page.most.max(0) as usize);
    (kept.into_iter().skip(skip).take(most).map(Ok).collect(), count)
}

fn cards(kept: Vec<Result<Kept, ShotError>>, count: i64) -> Result<ShotList, ApiError> {
    let mut list = ShotList { shots: Vec::with_capacity(kept.len()), unreadable: Vec::new(), count };
    for one in kept {
        match one {
            Ok(kept) => list.shots.push(card(kept)?),
            Err(ShotError::Database(error)) => return Err(ShotError::Database(error).into()),
            Err(other) => list.unreadable.push(other.to_string()),
        }
    }
    Ok(list)
}

/// The titles of all shots in the order of the list.
#[utoipa::path(get, path = "/api/shots/names", responses((status = 200, body = Vec<ShotName>)))]
pub async fn names(State(app): State<App>) -> Result<Json<Vec<ShotName>>, ApiError> {
    Ok(Json(shots::names(&app.store, &demo::blank().title).await?))
}

fn card(kept: Kept) -> Result<ShotCard, ApiError> {
    let plan = Plan::try_from(&kept.thing)?;
    let (trouble, watch) = findings::count(&plan, &outlook(&plan));
    let (set, grid) = (&plan.settings, plan.body.grid);
    Ok(ShotCard {
        id: kept.id,
        version: kept.version,
        title: kept.thing.title,
        place: kept.thing.place,
        template: kept.thing.template,
        changed_at: kept.changed_at,
        trouble,
        watch,
        exposure: format!("{} · f/{} · ISO {}", set.shutter.label(grid), set.aperture.label(grid), set.iso.label(grid)),
        parts: plan.parts.iter().map(|part| PartTag { name: part.name.clone(), intent: part.intent }).collect(),
    })
}

/// One shot.
#[utoipa::path(get, path = "/api/shots/{id}", params(("id" = String, Path)), responses(
    (status = 200, body = ShotAnswer), (status = 404, body = Problem)))]
pub async fn read(State(app): State<App>, Id(id): Id) -> Result<ShotAnswer, ApiError> {
    Ok(shots::one(&app.store, &id).await?.into())
}

/// Adds a shot.
#[utoipa::path(post, path = "/api/shots", request_body = Shot, responses(
    (status = 201, body = ShotAnswer), (status = 422, body = Problem)))]
pub async fn add(State(app): State<App>, body: Checked) -> Result<(StatusCode, ShotAnswer), ApiError> {
    // Two of one name could not be told apart where one is chosen.
    if body.shot.template && shots::is_kept(&app.store, &body.shot.title).await.map_err(ShotError::from)? {
        return Err(ApiError::Answer {
            field: "title".to_owned(),
            reason: "There is one of that name: say another. Nothing was changed.".to_owned(),
        });
    }
    let shot = handed::received(&app.store, body.shot).await?;
    Ok((StatusCode::CREATED, shots::add(&app.store, &shot).await?.into()))
}

/// What a new shot starts from.
#[utoipa::path(get, path = "/api/blank", responses((status = 200, body = Shot)))]
pub async fn blank(State(app): State<App>) -> Result<Json<Shot>, ApiError> {
    let preferred = preferences::read(&mut *app.store.reader().await?).await?;
    let blank = demo::blank();
    Ok(Json(Shot {
        school: preferred.school.unwrap_or(blank.school),
        lengths: preferred.lengths,
        meter_c: preferred.meter_c,
        ..blank
    }))
}

/// Changes a shot at the version that was read.
#[utoipa::path(put, path = "/api/shots/{id}", params(("id" = String, Path), ("If-Match" = String, Header)),
    request_body = Shot, responses((status = 200, body = ShotAnswer), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub async fn replace(
    State(app): State<App>,
    Id(id): Id,
    Seen(version): Seen,
    body: Checked,
) -> Result<ShotAnswer, ApiError> {
    let shot = handed::received(&app.store, body.shot).await?;
    Ok(shots::replace(&app.store, &id, version, &shot).await?.into())
}

/// Back to the revision before.
#[utoipa::path(post, path = "/api/shots/{id}/undo", params(("id" = String, Path), ("If-Match" = String, Header)),
    responses((status = 200, body = ShotAnswer), (status = 409, body = Problem)))]
pub async fn undo(State(app): State<App>, Id(id): Id, Seen(version): Seen) -> Result<ShotAnswer, ApiError> {
    Ok(shots::step(&app.store, &id, version, Step::Undo).await?.into())
}

/// Forward to the revision after.
#[utoipa::path(post, path = "/api/shots/{id}/redo", params(("id" = String, Path), ("If-Match" = String, Header)),
    responses((status = 200, body = ShotAnswer), (status = 409, body = Problem)))]
pub async fn redo(State(app): State<App>, Id(id): Id, Seen(version): Seen) -> Result<ShotAnswer, ApiError> {
    Ok(shots::step(&app.store, &id, version, Step::Redo).await?.into())
}

/// Takes a shot off the list.
#[utoipa::path(delete, path = "/api/shots/{id}", params(("id" = String, Path), ("If-Match" = String, Header)),
    responses((status = 204), (status = 409, body = Problem)))]
pub async fn remove(State(app): State<App>, Id(id): Id, Seen(version): Seen) -> Result<StatusCode, ApiError> {
    shots::remove::<Shot>(&app.store, &id, version).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Brings a removed shot back.
#[utoipa::path(post, path = "/api/shots/{id}/restore", params(("id" = String, Path)), responses(
    (status = 200, body = ShotAnswer), (status = 404, body = Problem)))]
pub async fn restore(State(app): State<App>, Id(id): Id) -> Result<ShotAnswer, ApiError> {
    Ok(shots::restore(&app.store, &id).await?.into())
}

/// A shot within its own gear.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct Fitted {
    /// The shot.
    pub shot: Shot,
    /// What had to move for it.
    pub moved: Vec<Moved>,
}

/// Brings settings within the camera, lens and unit of a shot; what fits stays.
#[utoipa::path(post, path = "/api/fit", request_body = Shot, responses(
    (status = 200, body = Fitted), (status = 422, body = Problem)))]
pub async fn fitted(Sent(shot): Sent<Shot>) -> Result<Json<Fitted>, ApiError> {
    let (shot, moved) = fit(&shot)?;
    Ok(Json(Fitted { shot, moved }))
}

/// Pulse times that a shot asks of a flash.
#[utoipa::path(get, path = "/api/shots/{id}/guides", params(("id" = String, Path)), responses(
    (status = 200, body = Vec<Guide>), (status = 404, body = Problem)))]
pub async fn asks(State(app): State<App>, Id(id): Id) -> Result<Json<Vec<Guide>>, ApiError> {
    Ok(Json(guides(&Plan::try_from(&shots::one(&app.store, &id).await?.thing)?)))
}
