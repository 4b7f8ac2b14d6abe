//! The HTTP interface: one page of routes, and the layers around them.

pub mod body;
mod briefs;
mod contract;
pub mod copies;
mod files;
mod floors;
pub mod forecast;
pub mod guard;
mod handed;
mod json;
pub mod kept;
mod kit;
pub mod matching;
mod meters;
mod photos;
pub mod picture;
mod pictures;
mod preferences;
pub mod problem;
mod pulses;
mod ranges;
mod routes;
pub mod searching;
pub mod shots;
mod stage;
mod studio;
pub mod traces;
mod typed;
pub mod units;
pub mod versions;
mod web;

use crate::store::Store;
use axum::Router;
use axum::extract::DefaultBodyLimit;
use axum::http::{HeaderName, HeaderValue, header};
use photos::Photos;
use pulses::PulseShelf;
use std::time::Duration;
use studio::Studio;
use tower_http::set_header::SetResponseHeaderLayer;
use tower_http::timeout::RequestBodyTimeoutLayer;
use utoipa::OpenApi;

/// A shot has a few kilobytes, a unit with all its recordings a few hundred.
pub const LARGEST_BODY: usize = 1024 * 1024;
/// A kit of thousands of things.
pub const LARGEST_KIT: usize = 16 * 1024 * 1024;

/// How long the next piece of a body may take.
const PIECE: Duration = Duration::from_secs(10);

/// Everything is served from here: no script, font, style or picture of another place is ever loaded.
const CONTENT_POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; font-src 'self'; \
     img-src 'self' data: blob:; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

/// What the contract says of itself.
const ABOUT: &str = "Plan a flash picture of a moving subject. Units are in the names: `_s` seconds, `_m` metres, `_px` pixels \
     of the camera, `_stops` stops (more light is positive; `null` is no light).";

/// What handlers share.
#[derive(Clone)]
pub struct App {
    /// The data file.
    pub store: Store,
    /// Where pictures are drawn.
    studio: Studio,
    /// Pictures of places that were read lately.
    photos: Photos,
    /// Of the shots at hand.
    pulses: PulseShelf,
}

impl App {
    /// On a data file.
    pub fn new(store: Store) -> Self {
        Self { store, studio: Studio::default(), photos: Photos::default(), pulses: PulseShelf::default() }
    }
}

routes::handlers! {
    /// What is asked with a shot, a thing of the kit, or nothing.
    usual {
        briefs::list, briefs::picture, briefs::brief, briefs::said_speed,
        copies::list, copies::make, copies::everything, copies::look, copies::bring_back,
        files::one, files::several,
        floors::stands, floors::arrange, floors::even, floors::table,
        forecast::compute, forecast::bench, forecast::held, forecast::equivalents, forecast::daylight, forecast::sky,
        forecast::dragged, forecast::streak, forecast::in_time, forecast::pressed, forecast::grouped,
        forecast::balanced, forecast::metered,
        kit::offered, kit::shelf, kit::sample, kit::add, kit::read, kit::replace, kit::remove, kit::uses, kit::undo,
        kit::redo, kit::retire, kit::unretire, kit::restore, kit::export, kit::export_units,
        matching::search, matching::whole, matching::job, matching::apply, matching::explain, matching::table,
        meters::reading, meters::keep, meters::reread_light,
        picture::of_shot, picture::draw,
        preferences::read, preferences::keep,
        shots::list, shots::add, shots::names, shots::read, shots::replace, shots::remove, shots::undo, shots::redo,
        shots::restore, shots::blank, shots::fitted, shots::asks,
        stage::stands, stage::choice,
        typed::into_strip, typed::figure,
        units::sheet, units::rehearse,
        versions::list, versions::read, versions::name, versions::back,
    }
    /// What takes in many of them.
    kits {
        kit::import,
        kit::import_units,
    }
    /// What takes in pictures of places, by themselves or with shots.
    photos {
        pictures::keep,
        files::take_in,
    }
    /// Read piece by piece under a limit of its own.
    streams {
        traces::read,
        copies::take_in,
    }
}

fn api() -> Router<App> {
    usual()
        .merge(kits().layer(DefaultBodyLimit::max(LARGEST_KIT)))
        .merge(photos().layer(DefaultBodyLimit::max(handed::LARGEST_PICTURE)))
        .merge(streams().layer(DefaultBodyLimit::disable()))
}

/// The OpenAPI document of these handlers.
pub fn contract() -> serde_json::Value {
    let mut document = Contract::openapi();
    document.info.title = "Dash Pebble".to_owned();
    document.info.version = "1".to_owned();
    document.info.description = Some(ABOUT.to_owned());
    contract::completed(&document)
}

/// A schema of the contract as a JSON Schema of its own: what a file of this kind may hold.
pub fn json_schema(of: &str) -> serde_json::Value {
    contract::json_schema(&contract(), of)
}

/// The whole server.
pub fn router(app: App) -> Router {
    let fixed = |name: HeaderName, value: &'static str| {
        SetResponseHeaderLayer::overriding(name, HeaderValue::from_static(value))
    };
    api()
        .route("/api/openapi.json", axum::routing::get(contract::read))
        .method_not_allowed_fallback(|| async { problem::ApiError::WrongMethod })
        .fallback(web::serve)
        .layer(DefaultBodyLimit::max(LARGEST_BODY))
        .layer(RequestBodyTimeoutLayer::new(PIECE))
        .layer(axum::middleware::from_fn(guard::only_own))
        .layer(fixed(header::CONTENT_SECURITY_POLICY, CONTENT_POLICY))
        .layer(fixed(header::X_CONTENT_TYPE_OPTIONS, "nosniff"))
        .layer(fixed(header::REFERRER_POLICY, "no-referrer"))
        .with_state(app)
}
