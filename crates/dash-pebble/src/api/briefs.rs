//! From a few words to a shot: what there is to choose from, its pictures, and the shot that follows.

use super::App;
use super::body::{Asked, Sendable, Sent};
use super::json::Json;
use super::problem::{ApiError, Problem};
use super::searching::{stock_of, worked};
use super::studio::How;
use crate::demo;
use crate::store::{kit, preferences};
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use pebble_core::activities::{ALL, Activity};
use pebble_core::briefing::{Answers, Briefed, briefed};
use pebble_core::file::movement::Chances;
use pebble_core::file::stage::Place;
use pebble_core::matching::Going;
use pebble_core::shot::{Intent, Shot};
use pebble_core::speeds::{InFrame, SaidSpeed, SaidWhere, speed};
use pebble_core::{Invalid, Plan};
use pebble_picture::{Crop, Layers, Request};
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use std::sync::{LazyLock, Mutex};

/// Width of a picture of an activity.
const WIDTH: u32 = 168;
/// For how long a browser need not ask for it again.
const KEPT: &str = "private, max-age=86400";
/// The camera of the showroom covers so much of its distance: the width of a sensor over the focal length.
const WIDE: f64 = 36.0 / 37.0;

/// A part of an activity.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct ActivityPart {
    /// Its name.
    name: &'static str,
    /// What is usually wanted of it.
    intent: Intent,
    /// The slowest that is usual.
    slowest_m_s: f64,
    /// The fastest.
    fastest_m_s: f64,
    /// Where these figures come from.
    basis: &'static str,
}

/// Something that people do before a camera.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct ActivityCard {
    /// By which it is named.
    id: &'static str,
    /// As a photographer calls it.
    name: &'static str,
    /// Other words by which it is looked for.
    also: &'static str,
    /// Where it is usual.
    place: Place,
    /// How often it can usually be tried.
    chances: Chances,
    /// Its parts.
    parts: Vec<ActivityPart>,
}

/// What a shot can be of.
#[utoipa::path(get, operation_id = "activities", path = "/api/activities", responses((status = 200, body = Vec<ActivityCard>)))]
pub async fn list() -> Json<Vec<ActivityCard>> {
    let card = |activity: &'static Activity| ActivityCard {
        id: activity.id,
        name: activity.name,
        also: activity.also,
        place: activity.place,
        chances: activity.chances,
        parts: activity
            .parts
            .iter()
            .map(|part| ActivityPart {
                name: part.name,
                intent: part.intent,
                slowest_m_s: part.speed_m_s.0,
                fastest_m_s: part.speed_m_s.1,
                basis: part.basis,
            })
            .collect(),
    };
    Json(ALL.iter().map(card).collect())
}

/// Which one.
#[derive(Debug, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct OfActivity {
    /// By its name among the activities.
    #[param(example = "running")]
    activity: String,
}

/// Pictures that were drawn once: they are the same for everybody.
static DRAWN: LazyLock<Mutex<HashMap<&'static str, Vec<u8>>>> = LazyLock::new(Mutex::default);

/// A small picture of an activity.
#[utoipa::path(get, operation_id = "activity_picture", path = "/api/activities/picture", params(OfActivity), responses(
    (status = 200, content_type = "image/png"), (status = 422, body = Problem)))]
pub async fn picture(State(app): State<App>, Asked(query): Asked<OfActivity>) -> Result<Response, ApiError> {
    let activity = Activity::by_id(&query.activity).ok_or_else(|| Invalid::NotAllowed {
        field: "activity".to_owned(),
        given: query.activity.chars().take(40).collect(),
        allowed: "an activity of the list".to_owned(),
    })?;
    let known = DRAWN.lock().ok().and_then(|drawn| drawn.get(activity.id).cloned());
    let bytes = match known {
        Some(bytes) => bytes,
        None => {
            let request = Request { width: WIDTH, layers: Layers::Both, crop: Crop::WHOLE };
            let written = |picture: pebble_picture::Picture| {
                picture.to_png().map_err(|error| ApiError::Internal(format!("the picture was not written: {error}")))
            };
            let bytes = app.studio.draw((showroom(activity)?, None), (request, How::Aside), written).await?;
            if let Ok(mut drawn) = DRAWN.lock() {
                drawn.insert(activity.id, bytes.clone());
            }
            bytes
        }
    };
    Ok(([(header::CONTENT_TYPE, "image/png"), (header::CACHE_CONTROL, KEPT)], bytes).into_response())
}

/// An activity on grey paper, in the light in which all of them are shown.
fn showroom(activity: &Activity) -> Result<Plan, Invalid> {
    let mut shot = demo::SHOWROOM.clone();
    let mut composition = activity.composition(Place::PaperGrey);
    // Who stands by or behind has room before the paper.
    let deepest = composition.people.iter().map(|person| person.away_m).fold(0.0, f64::max);
    composition.things.iter_mut().for_each(|thing| thing.away_m = thing.away_m.min(0.6));
    shot.stage = Some(composition);
    shot.background.behind_m = 1.6 + deepest;
    // A little closer than the shot itself: at this size the room around it is of no use.
    shot.subject.distance_m = (activity.frame_m * 0.94 / WIDE).max(1.6);
    Plan::try_from(&shot)
}

impl Sendable for Answers {
    const NAME: &'static str = "list of answers";
}

/// The shot that follows from some answers: put together, matched with the kit, and judged.
#[utoipa::path(post, operation_id = "brief", path = "/api/brief", request_body = Answers, responses(
    (status = 200, body = Briefed), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn brief(State(app): State<App>, Sent(answers): Sent<Answers>) -> Result<Json<Briefed>, ApiError> {
    let kit = kit::offered(&app.store).await?;
    let preferred = preferences::read(&mut *app.store.reader().await?).await?;
    let blank = demo::blank();
    let basis = Shot {
        school: preferred.school.unwrap_or(blank.school),
        lengths: preferred.lengths,
        meter_c: preferred.meter_c,
        ..blank
    };
    let answered = worked(move |going: &Going| {
        let stock = stock_of(&kit)?;
        briefed(&answers, (&kit, &stock), &basis, going).map_err(ApiError::from)
    });
    let found = answered.await??;
    Ok(Json(found.ok_or_else(|| ApiError::Internal("the search was stopped".to_owned()))?))
}

/// A speed as it is said.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SpeedWords {
    /// As typed.
    text: String,
    /// The shot, for a length that was seen in a test frame of it.
    #[serde(default)]
    shot: Option<Box<Shot>>,
    /// Metres a second stand in the field: a bare number is of them.
    #[serde(default)]
    in_m_s: bool,
}

impl Sendable for SpeedWords {
    const NAME: &'static str = "speed";
}

/// How fast something is, from what people know: `sprint`, `12 km/h`, `jump 40 cm`, `100 m in 12 s`, `120 px at 1/60`.
#[utoipa::path(post, operation_id = "speed", path = "/api/speed", request_body = SpeedWords, responses(
    (status = 200, body = SaidSpeed), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn said_speed(Sent(words): Sent<SpeedWords>) -> Result<Json<SaidSpeed>, ApiError> {
    let frame = words.shot.map(|shot| Plan::try_from(&*shot).map(|plan| InFrame::of(&plan))).transpose()?;
    let found = speed(&words.text, SaidWhere { frame, in_m_s: words.in_m_s });
    found.map(Json).map_err(|why| ApiError::Typed { text: words.text.clone(), reason: why.to_string() })
}
