//! What will happen: forecast, findings and the notches of every control, for a shot that need not be saved.

use super::App;
use super::body::{Checked, Sendable, Sent};
use super::json::Json;
use super::problem::{ApiError, Problem};
use crate::store::preferences;
use axum::extract::State;
use pebble_core::balance::{BalanceAnswer, BalanceWish, balance};
use pebble_core::cautions::{Caution, cautions};
use pebble_core::daylight::{Sky, SkyDay, Way, day, ways};
use pebble_core::drag::{self, DragAnswer, DragWish, StreakReading};
use pebble_core::findings::Finding;
use pebble_core::groups::{GroupAnswer, groups};
use pebble_core::hold::{self, Equivalent, Followed, Gave, Held, Turned};
use pebble_core::lanes::{LanesAnswer, ReactionSaid, lanes, reaction};
use pebble_core::metering::{MeteringAnswer, biases};
use pebble_core::outlook::{Pulses, outlook_with};
use pebble_core::shot::Tone;
use pebble_core::strips::Strip;
use pebble_core::{Forecast, Meter, Plan, Shot, findings, forecast, strips};
use serde::{Deserialize, Serialize};

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
        Self::with(plan, &mut Pulses::kept())
    }

    /// The same with pulses that were solved before.
    fn with(plan: &Plan, pulses: &mut Pulses) -> Self {
        let outlook = outlook_with(plan, pulses);
        Self {
            format: FORMAT.to_owned(),
            version: 4,
            forecast: forecast::written_with(plan, &outlook, pulses),
            findings: findings::judge_with(plan, &outlook, pulses),
        }
    }
}

/// Forecast and findings.
#[utoipa::path(post, path = "/api/forecast", request_body = Shot, responses(
    (status = 200, body = Answer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn compute(State(app): State<App>, body: Checked) -> Result<Json<Answer>, ApiError> {
    Ok(Json(app.pulses.with(&body.plan, |pulses| Answer::with(&body.plan, pulses))))
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
    /// What can hurt someone, where the plan calls for it.
    pub cautions: Vec<Caution>,
}

/// Forecast, findings and the notches of every control.
#[utoipa::path(post, path = "/api/bench", request_body = Shot, responses(
    (status = 200, body = BenchAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn bench(State(app): State<App>, body: Checked) -> Result<Json<BenchAnswer>, ApiError> {
    let Answer { forecast, findings, .. } = app.pulses.with(&body.plan, |pulses| Answer::with(&body.plan, pulses));
    Ok(Json(BenchAnswer {
        forecast,
        findings,
        strips: strips::strips(&body.plan),
        cautions: cautions(&body.shot, &body.plan),
    }))
}

/// A look to hold.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HoldRequest {
    /// The shot whose look is held.
    pub base: Shot,
    /// The shot as it is now, after something was turned; what is held is in its `hold`.
    pub shot: Shot,
    /// The control that was turned, which stays as it is.
    #[serde(default)]
    pub turned: Option<Held>,
    /// The light it was turned on, by its place in the list; the first when not said.
    #[serde(default)]
    pub light: Option<usize>,
}

impl Sendable for HoldRequest {
    const NAME: &'static str = "look to hold";
}

/// What holding it takes.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct HoldAnswer {
    /// Controls that follow, to be put into the shot.
    pub followed: Vec<Followed>,
    /// What could not be held.
    pub gave: Vec<Gave>,
}

/// Holds a look: brings the shot back to what its base looks like, with the smallest moves.
#[utoipa::path(post, path = "/api/hold", request_body = HoldRequest, responses(
    (status = 200, body = HoldAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn held(Sent(asked): Sent<HoldRequest>) -> Result<Json<HoldAnswer>, ApiError> {
    let (base, now) = (Plan::try_from(&asked.base)?, Plan::try_from(&asked.shot)?);
    let turned = asked.turned.map(|control| Turned { control, light: asked.light.unwrap_or(0) });
    let pebble_core::hold::Answer { followed, gave, .. } = hold::hold(&base, &now, &asked.shot.hold, turned);
    Ok(Json(HoldAnswer { followed, gave }))
}

/// Other settings with the same light, one an aperture.
#[utoipa::path(post, path = "/api/equivalents", request_body = Shot, responses(
    (status = 200, body = Vec<Equivalent>), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn equivalents(body: Checked) -> Json<Vec<Equivalent>> {
    Json(hold::equivalents(&body.plan, &body.shot.hold))
}

/// The three ways to keep a bright sky down, side by side.
#[utoipa::path(post, path = "/api/daylight", request_body = Shot, responses(
    (status = 200, body = Vec<Way>), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn daylight(body: Checked) -> Json<Vec<Way>> {
    Json(ways(&body.plan))
}

/// A streak to be drawn on a shot.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DragRequest {
    /// The shot.
    pub shot: Shot,
    /// What shall be drawn.
    pub wish: DragWish,
}

impl Sendable for DragRequest {
    const NAME: &'static str = "streak to draw";
}

impl Sendable for StreakReading {
    const NAME: &'static str = "streak as it was seen";
}

/// Settings for a streak of a length and a steady light of a brightness.
#[utoipa::path(post, path = "/api/drag", request_body = DragRequest, responses(
    (status = 200, body = DragAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn dragged(Sent(asked): Sent<DragRequest>) -> Result<Json<DragAnswer>, ApiError> {
    Ok(Json(drag::roads(&Plan::try_from(&asked.shot)?, &asked.wish)?))
}

/// A lamp known by its streak.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct LampLuminance {
    /// Its luminance.
    pub luminance_cd_m2: f64,
}

/// How bright a lamp is, from one streak in a test frame.
#[utoipa::path(post, path = "/api/streak", request_body = StreakReading, responses(
    (status = 200, body = LampLuminance), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn streak(State(app): State<App>, Sent(seen): Sent<StreakReading>) -> Result<Json<LampLuminance>, ApiError> {
    let meter = Meter::of(preferences::read(&mut *app.store.reader().await?).await?.meter_c)?;
    let luminance_cd_m2 = drag::luminance_of_streak(&seen, meter)?.as_candelas_per_square_metre();
    Ok(Json(LampLuminance { luminance_cd_m2 }))
}

/// A shot, and which of its lights shall be as bright as which.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BalanceRequest {
    /// The shot.
    pub shot: Shot,
    /// What is wanted.
    pub wish: BalanceWish,
}

impl Sendable for BalanceRequest {
    const NAME: &'static str = "question about two lights";
}

/// What has to be turned so that one light is as bright as another, or so many stops under it.
#[utoipa::path(post, path = "/api/balance", request_body = BalanceRequest, responses(
    (status = 200, body = BalanceAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn balanced(Sent(asked): Sent<BalanceRequest>) -> Result<Json<BalanceAnswer>, ApiError> {
    Ok(Json(balance(&Plan::try_from(&asked.shot)?, &asked.wish)?))
}

/// What depth of field for each group of the shot costs, on camera and lights.
#[utoipa::path(post, path = "/api/groups", request_body = Shot, responses(
    (status = 200, body = Vec<GroupAnswer>), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn grouped(body: Checked) -> Result<Json<Vec<GroupAnswer>>, ApiError> {
    Ok(Json(groups(&body.plan, &body.shot.groups)?))
}

/// Tones of the frame now and next.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeteringRequest {
    /// Now.
    pub tones: Vec<Tone>,
    /// When the next group stands there; may be empty.
    pub next: Vec<Tone>,
}

impl Sendable for MeteringRequest {
    const NAME: &'static str = "list of tones";
}

impl Sendable for Sky {
    const NAME: &'static str = "place and time under the sky";
}

/// What to dial in against automatic flash.
#[utoipa::path(post, path = "/api/metering", request_body = MeteringRequest, responses(
    (status = 200, body = MeteringAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn metered(Sent(asked): Sent<MeteringRequest>) -> Result<Json<MeteringAnswer>, ApiError> {
    Ok(Json(biases(&asked.tones, &asked.next)?))
}

/// Light over a day from place, date and clouds: a forecast, never a reading.
#[utoipa::path(post, path = "/api/sky", request_body = Sky, responses(
    (status = 200, body = SkyDay), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn sky(Sent(sky): Sent<Sky>) -> Result<Json<SkyDay>, ApiError> {
    Ok(Json(day(&sky)?))
}

/// A shot against time.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LanesRequest {
    /// The shot.
    pub shot: Shot,
    /// The moment that is looked at, on the movement's clock; the first flash where none is said.
    #[serde(default)]
    pub at_s: Option<f64>,
}

impl Sendable for LanesRequest {
    const NAME: &'static str = "moment of a shot";
}

/// Movement against time: where the shutter opens and each flash fires in what happens.
#[utoipa::path(post, operation_id = "lanes", path = "/api/lanes", request_body = LanesRequest, responses(
    (status = 200, body = LanesAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn in_time(Sent(asked): Sent<LanesRequest>) -> Result<Json<LanesAnswer>, ApiError> {
    Ok(Json(lanes(&Plan::try_from(&asked.shot)?, asked.at_s)?))
}

/// Presses after a sight.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Presses {
    /// How long each took.
    pub presses_s: Vec<f64>,
}

impl Sendable for Presses {
    const NAME: &'static str = "list of presses";
}

/// How somebody presses: in the middle, and how far off.
#[utoipa::path(post, operation_id = "reaction", path = "/api/reaction", request_body = Presses, responses(
    (status = 200, body = ReactionSaid), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn pressed(Sent(asked): Sent<Presses>) -> Result<Json<ReactionSaid>, ApiError> {
    Ok(Json(reaction(&asked.presses_s)?))
}
