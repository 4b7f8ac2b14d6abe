//! Shots as files: one by itself, or several together; given out and taken in.

use super::App;
use super::body::{Asked, Id, Sendable, Sent};
use super::handed::{self, LARGEST_PICTURE};
use super::json::Json;
use super::problem::{ApiError, Problem};
use crate::formats::units_csv::slug;
use crate::store::shots;
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use pebble_core::{Plan, Shot};
use serde::{Deserialize, Deserializer, Serialize};

/// Name of the format of several shots.
pub const FORMAT: &str = "dash-pebble/shots";
/// Version of it.
const VERSION: u32 = 1;
/// Shots in one file.
const MOST: usize = 1000;

/// Several shots in one file.
#[derive(Debug, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShotsFile {
    /// `dash-pebble/shots`.
    pub format: String,
    /// Version of the format.
    pub version: u32,
    /// The shots.
    pub shots: Vec<Shot>,
}

/// What is taken in: several shots, or one.
#[derive(Debug, Serialize, utoipa::ToSchema)]
#[serde(untagged)]
pub enum ShotOrShots {
    /// Several.
    Several(ShotsFile),
    /// One.
    One(Box<Shot>),
}

impl<'de> Deserialize<'de> for ShotOrShots {
    /// Told apart by what they hold, so that what is wrong in either is said and not that it is neither.
    fn deserialize<D: Deserializer<'de>>(reader: D) -> Result<Self, D::Error> {
        let file = serde_json::Value::deserialize(reader)?;
        let several = file.get("shots").is_some();
        let read = if several {
            ShotsFile::deserialize(file).map(Self::Several)
        } else {
            Shot::deserialize(file).map(|shot| Self::One(Box::new(shot)))
        };
        read.map_err(serde::de::Error::custom)
    }
}

impl Sendable for ShotOrShots {
    const NAME: &'static str = "file of shots";
    const LARGEST: usize = LARGEST_PICTURE;
}

/// What came of taking in a file.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct TakenIn {
    /// Identities of the shots, in the order of the file.
    pub ids: Vec<String>,
}

/// Which shots are given out.
#[derive(Clone, Debug, Default, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct WhichQuery {
    /// Identities with commas between; all when not said.
    ids: Option<String>,
}

fn download<T: Serialize>(name: &str, what: &T) -> Result<Response, ApiError> {
    let text = serde_json::to_string_pretty(what).map_err(|error| ApiError::Internal(error.to_string()))?;
    // What is given out can be taken in again.
    if text.len() > LARGEST_PICTURE {
        let (size, most) = (text.len() >> 20, LARGEST_PICTURE >> 20);
        let reason = format!(
            "With the pictures of their places these shots are {size} MB, and at most {most} MB are taken in again: give out fewer at a time."
        );
        return Err(ApiError::Answer { field: "ids".to_owned(), reason });
    }
    let disposition = format!("attachment; filename=\"{name}.json\"");
    let headers = [(header::CONTENT_TYPE, "application/json".to_owned()), (header::CONTENT_DISPOSITION, disposition)];
    Ok((headers, text).into_response())
}

/// One shot as the open file.
#[utoipa::path(get, operation_id = "shot_file", path = "/api/shots/{id}/file", params(("id" = String, Path)), responses(
    (status = 200, body = Shot), (status = 404, body = Problem)))]
pub async fn one(State(app): State<App>, Id(id): Id) -> Result<Response, ApiError> {
    let mut shot = shots::one::<Shot>(&app.store, &id).await?.thing;
    handed::pack(&app.store, &mut shot).await?;
    let name = slug(&shot.title);
    download(if name.is_empty() { "shot" } else { &name }, &shot)
}

/// Several shots as one file.
#[utoipa::path(get, operation_id = "shots_file", path = "/api/shots.json", params(WhichQuery), responses(
    (status = 200, body = ShotsFile), (status = 404, body = Problem)))]
pub async fn several(State(app): State<App>, Asked(query): Asked<WhichQuery>) -> Result<Response, ApiError> {
    let mut given = Vec::new();
    match query.ids.filter(|ids| !ids.is_empty()) {
        None => given
            .extend(shots::all::<Shot>(&app.store).await?.into_iter().filter_map(Result::ok).map(|kept| kept.thing)),
        Some(ids) => {
            for id in ids.split(',') {
                given.push(shots::one::<Shot>(&app.store, id).await?.thing);
            }
        }
    }
    handed::pack_all(&app.store, &mut given).await?;
    download("dash-pebble-shots", &ShotsFile { format: FORMAT.to_owned(), version: VERSION, shots: given })
}

/// Takes in a file of one shot or of several, all or none; each is a new one.
#[utoipa::path(post, operation_id = "take_in_shots", path = "/api/shots/import", request_body = ShotOrShots, responses(
    (status = 200, body = TakenIn), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn take_in(State(app): State<App>, Sent(file): Sent<ShotOrShots>) -> Result<Json<TakenIn>, ApiError> {
    let mut several = match file {
        ShotOrShots::One(shot) => vec![*shot],
        ShotOrShots::Several(file) if file.format != FORMAT || file.version != VERSION => {
            let given = format!("{} {}", file.format, file.version);
            return Err(ApiError::Typed {
                reason: format!("“{given}” is no file of shots of this program: {FORMAT} {VERSION} is."),
                text: given,
            });
        }
        ShotOrShots::Several(file) => file.shots,
    };
    if several.len() > MOST {
        let text = format!("{} shots", several.len());
        return Err(ApiError::Typed { reason: format!("{text} are in it, and a file has at most {MOST}."), text });
    }
    let mut places = Vec::new();
    for shot in &mut several {
        places.extend(handed::unpack(shot).await?);
        Plan::try_from(&*shot)?;
    }
    Ok(Json(TakenIn { ids: shots::add_all(&app.store, &several, &places).await? }))
}
