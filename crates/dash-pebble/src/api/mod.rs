//! The HTTP interface: one page of routes, and the layers around them.

pub mod body;
mod briefs;
mod contract;
pub mod copies;
mod files;
mod floors;
pub mod forecast;
pub mod guard;
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
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// A shot has a few kilobytes, a unit with all its recordings a few hundred.
pub const LARGEST_BODY: usize = 1024 * 1024;
/// A kit of thousands of things.
pub const LARGEST_KIT: usize = 16 * 1024 * 1024;

/// How long the next piece of a body may take.
const PIECE: Duration = Duration::from_secs(10);

/// Everything is served from here: no script, font, style or picture of another place is ever loaded.
const CONTENT_POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; font-src 'self'; \
     img-src 'self' data: blob:; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

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

#[derive(OpenApi)]
#[openapi(info(
    title = "Dash Pebble",
    description = "Plan a flash picture of a moving subject. Units are in the names: `_s` seconds, `_m` metres, `_px` pixels of the camera, `_stops` stops (more light is positive; `null` is no light)."
))]
struct Contract;

fn api() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Contract::openapi())
        .routes(routes!(shots::list, shots::add))
        .routes(routes!(shots::names))
        .routes(routes!(shots::read, shots::replace, shots::remove))
        .routes(routes!(shots::undo))
        .routes(routes!(shots::redo))
        .routes(routes!(shots::restore))
        .routes(routes!(versions::list))
        .routes(routes!(versions::read))
        .routes(routes!(versions::name))
        .routes(routes!(versions::back))
        .routes(routes!(shots::blank))
        .routes(routes!(briefs::list))
        .routes(routes!(briefs::picture))
        .routes(routes!(briefs::brief))
        .routes(routes!(briefs::said_speed))
        .routes(routes!(preferences::read, preferences::keep))
        .routes(routes!(picture::of_shot))
        .routes(routes!(picture::draw))
        .routes(routes!(stage::stands))
        .routes(routes!(floors::stands))
        .routes(routes!(floors::arrange))
        .routes(routes!(floors::even))
        .routes(routes!(floors::table))
        .routes(routes!(stage::choice))
        .routes(routes!(forecast::compute))
        .routes(routes!(forecast::bench))
        .routes(routes!(forecast::held))
        .routes(routes!(forecast::equivalents))
        .routes(routes!(forecast::daylight))
        .routes(routes!(forecast::sky))
        .routes(routes!(forecast::dragged))
        .routes(routes!(forecast::streak))
        .routes(routes!(forecast::in_time))
        .routes(routes!(forecast::pressed))
        .routes(routes!(forecast::grouped))
        .routes(routes!(forecast::balanced))
        .routes(routes!(forecast::metered))
        .routes(routes!(typed::into_strip))
        .routes(routes!(typed::figure))
        .routes(routes!(meters::reading))
        .routes(routes!(meters::keep))
        .routes(routes!(meters::reread_light))
        .routes(routes!(matching::search))
        .routes(routes!(matching::whole))
        .routes(routes!(matching::job))
        .routes(routes!(matching::apply))
        .routes(routes!(matching::explain))
        .routes(routes!(matching::table))
        .routes(routes!(copies::list, copies::make))
        .routes(routes!(copies::everything))
        .routes(routes!(copies::look))
        .routes(routes!(copies::bring_back))
        .routes(routes!(shots::fitted))
        .routes(routes!(files::one))
        .routes(routes!(files::several))
        .routes(routes!(shots::asks))
        .routes(routes!(kit::offered))
        .routes(routes!(kit::shelf))
        .routes(routes!(kit::sample))
        .routes(routes!(kit::add))
        .routes(routes!(kit::read, kit::replace, kit::remove))
        .routes(routes!(kit::uses))
        .routes(routes!(kit::undo))
        .routes(routes!(kit::redo))
        .routes(routes!(kit::retire))
        .routes(routes!(kit::unretire))
        .routes(routes!(kit::restore))
        .routes(routes!(kit::export))
        .routes(routes!(kit::export_units))
        .routes(routes!(units::sheet))
        .routes(routes!(units::rehearse))
        .merge(
            OpenApiRouter::new()
                .routes(routes!(kit::import))
                .routes(routes!(files::take_in))
                .routes(routes!(kit::import_units))
                .layer(DefaultBodyLimit::max(LARGEST_KIT)),
        )
        .merge(
            OpenApiRouter::new()
                .routes(routes!(pictures::keep))
                .layer(DefaultBodyLimit::max(pictures::LARGEST_PICTURE)),
        )
        // Read piece by piece under a limit of its own.
        .merge(
            OpenApiRouter::new()
                .routes(routes!(traces::read))
                .routes(routes!(copies::take_in))
                .layer(DefaultBodyLimit::disable()),
        )
}

/// The OpenAPI document of these handlers.
pub fn contract() -> serde_json::Value {
    let mut document = api().split_for_parts().1;
    document.info.version = "1".to_owned();
    contract::completed(&document)
}

/// A schema of the contract as a JSON Schema of its own: what a file of this kind may hold.
pub fn json_schema(of: &str) -> serde_json::Value {
    contract::json_schema(&contract(), of)
}

/// The whole server.
pub fn router(app: App) -> Router {
    let (routes, _) = api().split_for_parts();
    let document = contract().to_string();
    let fixed = |name: HeaderName, value: &'static str| {
        SetResponseHeaderLayer::overriding(name, HeaderValue::from_static(value))
    };
    routes
        .route(
            "/api/openapi.json",
            axum::routing::get(move || async move { ([(header::CONTENT_TYPE, "application/json")], document) }),
        )
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
