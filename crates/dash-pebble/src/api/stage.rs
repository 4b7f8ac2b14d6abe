//! What stands in the frame: where, and pictures of what could.

use super::App;
use super::body::{Asked, Checked};
use super::json::Json;
use super::problem::{ApiError, Problem};
use super::studio::How;
use crate::demo;
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use pebble_core::file::stage::{Build, Composition, Finish, Hair, Outfit, Person, Place, Pose, Prop, Thing};
use pebble_core::shot::Reading;
use pebble_core::staging::{StageAnswer, staging};
use pebble_core::{Plan, Shot};
use pebble_picture::{Crop, Layers, Request};
use serde::Deserialize;
use std::collections::HashMap;
use std::sync::{LazyLock, Mutex};

/// Width of a picture to choose from.
const WIDTH: u32 = 184;
/// For how long a browser need not ask for it again.
const KEPT: &str = "private, max-age=86400";

/// What stands in the frame of a shot that need not be saved, and where.
#[utoipa::path(post, path = "/api/stage", request_body = Shot, responses(
    (status = 200, body = StageAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn stands(body: Checked) -> Json<StageAnswer> {
    Json(staging(&body.plan, body.shot.stage.is_some()))
}

/// What to show.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct ChoiceQuery {
    /// A pose.
    #[param(inline)]
    pose: Option<Pose>,
    /// A place.
    #[param(inline)]
    place: Option<Place>,
    /// Something held, worn, ridden, or that stands about.
    #[param(inline)]
    prop: Option<Prop>,
    /// What is worn.
    #[param(inline)]
    outfit: Option<Outfit>,
    /// Hair.
    #[param(inline)]
    hair: Option<Hair>,
    /// How a person is built.
    #[param(inline)]
    build: Option<Build>,
}

/// Pictures that were drawn once: they are the same for everybody.
static DRAWN: LazyLock<Mutex<HashMap<ChoiceQuery, Vec<u8>>>> = LazyLock::new(Mutex::default);

/// A small picture of what could stand in the frame, to choose from.
#[utoipa::path(get, path = "/api/stage/choice", params(ChoiceQuery), responses(
    (status = 200, content_type = "image/png"), (status = 422, body = Problem)))]
pub async fn choice(State(app): State<App>, Asked(query): Asked<ChoiceQuery>) -> Result<Response, ApiError> {
    let known = DRAWN.lock().ok().and_then(|drawn| drawn.get(&query).cloned());
    let bytes = match known {
        Some(bytes) => bytes,
        None => {
            let (plan, crop) = set_up(query)?;
            let request = Request { width: WIDTH, layers: Layers::Both, crop };
            let written = |picture: pebble_picture::Picture| {
                picture.to_png().map_err(|error| ApiError::Internal(format!("the picture was not written: {error}")))
            };
            let bytes = app.studio.draw((plan, None), (request, How::Aside), written).await?;
            if let Ok(mut drawn) = DRAWN.lock() {
                drawn.insert(query, bytes.clone());
            }
            bytes
        }
    };
    Ok(([(header::CONTENT_TYPE, "image/png"), (header::CACHE_CONTROL, KEPT)], bytes).into_response())
}

/// The set in which things are shown: a person on grey paper under a key and two rims.
fn set_up(query: ChoiceQuery) -> Result<(Plan, Crop), ApiError> {
    let mut shot = demo::SHOWROOM.clone();
    let person = Person {
        hair: query.hair.unwrap_or(Hair::Tied),
        outfit: query.outfit.unwrap_or_default(),
        build: query.build.unwrap_or_default(),
        skin: 0.3,
        cloth_hue_deg: Some(14.0),
        finish: Finish::Matt,
        with: query.prop.into_iter().filter(|prop| !stands_alone(*prop)).collect(),
        ..Person::new(query.pose.or(query.prop.map(usual_pose)).unwrap_or(Pose::Stand))
    };
    let thing = |what| Thing { what, right_m: 0.0, away_m: 0.0, up_m: 0.0, size: 1.0, turned_deg: 0.0 };
    let things = query.prop.filter(|prop| stands_alone(*prop)).map(thing).into_iter().collect();
    let alone = query.prop.is_some_and(stands_alone);
    let mut people = if alone || query.place.is_some() { Vec::new() } else { vec![person.clone()] };
    if query.place.is_some() {
        people.push(Person { pose: Pose::Stand, ..person });
    }
    let (camera_height_m, aim_height_m) = (1.2, 1.15);
    let place = query.place.unwrap_or(Place::PaperGrey);
    shot.stage =
        Some(Composition { place, camera_height_m, aim_height_m, upright: None, people, things, picture: None });
    if let Some(place) = query.place {
        // Places are shown in their own light.
        shot.subject.distance_m = 5.2;
        shot.background.behind_m = if place.is_outdoors() { 24.0 } else { 4.0 };
        shot.ambient.subject = Reading::Lux { lux: 2800.0 };
        shot.ambient.background = Reading::Lux { lux: 2800.0 };
        shot.lights.iter_mut().for_each(|light| light.on = false);
    }
    let close = query.hair.is_some();
    let crop = if close { Crop { left: 0.42, top: 0.16, size: 0.16 } } else { Crop::WHOLE };
    Ok((Plan::try_from(&shot)?, crop))
}

/// What is not held, worn or ridden.
const fn stands_alone(prop: Prop) -> bool {
    matches!(
        prop,
        Prop::LongRopes
            | Prop::Chair
            | Prop::Holds
            | Prop::Water
            | Prop::Drops
            | Prop::Powder
            | Prop::Confetti
            | Prop::Net
            | Prop::Lectern
            | Prop::Card
            | Prop::Sphere
    )
}

/// How a body is held that has it.
const fn usual_pose(prop: Prop) -> Pose {
    match prop {
        Prop::Ball => Pose::Catch,
        Prop::Racket => Pose::Forehand,
        Prop::SmallBall => Pose::Throw,
        Prop::Bat => Pose::Swing,
        Prop::Blade => Pose::Fence,
        Prop::Bar => Pose::Lift,
        Prop::Rope => Pose::RopeJump,
        Prop::Hoop => Pose::Spin,
        Prop::Ribbon => Pose::Arabesque,
        Prop::Board => Pose::Board,
        Prop::Inlines => Pose::Skate,
        Prop::Rollers => Pose::Roll,
        Prop::Bicycle => Pose::Ride,
        Prop::SmallBicycle => Pose::RideStanding,
        Prop::Wheelchair => Pose::PushWheels,
        Prop::Microphone => Pose::Speak,
        Prop::Medal => Pose::Portrait,
        Prop::Silks => Pose::Hang,
        Prop::Oars => Pose::Row,
        Prop::Gloves => Pose::Guard,
        Prop::Scarf => Pose::Walk,
        _ => Pose::Stand,
    }
}
