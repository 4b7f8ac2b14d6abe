//! Match: which units of the kit can do it. A search runs on its own threads, is told as it goes, and ends when nobody
//! listens any more.

use super::App;
use super::body::{Sendable, Sent};
use super::json::Json;
use super::problem::{ApiError, Problem};
use super::searching::{stock, worked};
use crate::formats::match_csv;
use crate::store::shots;
use axum::body::Body;
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use pebble_core::matching::{
    self, ANSWER_FORMAT, Brief, Chain, CrewRow, Going, JobAnswer, MarkMap, MatchAnswer, Priority, Setup, Stock, Wish,
};
use pebble_core::{Invalid, Plan, Shot};
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use std::time::Duration;
use tokio::sync::mpsc;
use tokio_stream::wrappers::ReceiverStream;

/// How often a long search says how far it is.
const TELL_EVERY: Duration = Duration::from_millis(100);
/// More shots than a job has.
const MOST_SHOTS: usize = 200;

/// A question to the kit.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MatchRequest {
    /// The shot; what is asked beyond it is in its `wish`.
    pub shot: Shot,
    /// What counts first.
    #[serde(default)]
    pub priority: Priority,
}

impl Sendable for MatchRequest {
    const NAME: &'static str = "question to the kit";
}

/// What is told while a search goes on, one line of JSON each.
#[derive(Clone, Debug, Serialize, utoipa::ToSchema)]
#[serde(tag = "is", rename_all = "snake_case")]
pub enum MatchEvent {
    /// What is asked, all of it, and where every unit stands.
    Asked {
        /// The wish.
        wish: Box<Wish>,
        /// All units.
        map: MarkMap,
    },
    /// How far it is.
    Progress {
        /// Units done.
        done: usize,
        /// Units in all.
        of: usize,
        /// It is looking for what would have to give.
        nearest: bool,
    },
    /// Everything that was found; the last line.
    Found {
        /// The answer.
        answer: Box<MatchAnswer>,
    },
}

/// The whole answer; `None` when it was stopped. `tell` hears of what is known before the end.
///
/// # Errors
/// [`Invalid`] for a wish that cannot be.
pub fn answer(
    shot: &Shot,
    plan: &Plan,
    stock: &Stock,
    priority: Priority,
    going: &Going,
    tell: &dyn Fn(MatchEvent),
) -> Result<Option<MatchAnswer>, Invalid> {
    let mut brief = Brief::new(shot, plan)?;
    let wish = brief.bounds.said(plan);
    tell(MatchEvent::Asked { wish: Box::new(wish.clone()), map: matching::marks(&brief, stock) });
    let Some(found) = matching::find(&brief, stock, priority, going) else { return Ok(None) };
    let nearest = if found.is_empty() {
        tell(MatchEvent::Progress { done: 0, of: 0, nearest: true });
        let Some(nearest) = matching::nearest(&mut brief, stock, going) else { return Ok(None) };
        matching::nearest_rows(&brief, stock, &nearest)
    } else {
        Vec::new()
    };
    Ok(Some(MatchAnswer {
        format: ANSWER_FORMAT.to_owned(),
        version: 1,
        priority,
        wish,
        rows: matching::rows(&brief, stock, &found),
        ways: found.iter().map(|one| one.ways).sum(),
        nearest,
    }))
}

/// Work that is told as it goes, one line of JSON for each event; what it returns is the last line. Whoever stops reading
/// stops it.
fn told<E: Serialize + 'static>(
    progress: fn(usize, usize) -> E,
    work: impl FnOnce(&Going, &dyn Fn(E)) -> Option<E> + Send + 'static,
) -> Response {
    let (sender, receiver) = mpsc::channel::<Result<String, std::convert::Infallible>>(64);
    let going = Arc::new(Going::default());
    let (ear, seen) = (sender.clone(), Arc::clone(&going));
    let watching = tokio::spawn(async move {
        let mut tick = tokio::time::interval(TELL_EVERY);
        tick.tick().await;
        loop {
            tokio::select! {
                () = ear.closed() => return seen.stop(),
                _ = tick.tick() => {
                    let (done, of) = seen.progress();
                    // What is asked is told first; until then there is nothing to be far in.
                    if of == 0 {
                        continue;
                    }
                    let told = line(&progress(done, of));
                    if ear.send(Ok(told)).await.is_err() {
                        return seen.stop();
                    }
                }
            }
        }
    });
    let here = tokio::runtime::Handle::current();
    tokio::task::spawn_blocking(move || {
        let tell = |event| {
            if sender.blocking_send(Ok(line(&event))).is_err() {
                going.stop();
            }
        };
        let last = work(&going, &tell);
        // Nothing more is said of how far it is once the answer is: the watch has ended before that is told.
        watching.abort();
        drop(here.block_on(watching));
        last.map(tell);
    });
    ([(header::CONTENT_TYPE, "application/x-ndjson")], Body::from_stream(ReceiverStream::new(receiver))).into_response()
}

fn line(event: &impl Serialize) -> String {
    serde_json::to_string(event).unwrap_or_default() + "\n"
}

/// Which units can do it, told while it is searched: one line of JSON for each event. Whoever stops reading stops it.
#[utoipa::path(post, operation_id = "match_search", path = "/api/match", request_body = MatchRequest, responses(
    (status = 200, body = MatchEvent, content_type = "application/x-ndjson"),
    (status = 400, body = Problem), (status = 422, body = Problem)))]
pub async fn search(State(app): State<App>, Sent(asked): Sent<MatchRequest>) -> Result<Response, ApiError> {
    let plan = Plan::try_from(&asked.shot)?;
    // Refused before anything is told, so that a refusal is one.
    Brief::new(&asked.shot, &plan)?;
    let stock = stock(&app.store).await?;
    Ok(told(
        |done, of| MatchEvent::Progress { done, of, nearest: false },
        move |going, tell| {
            // The wish was checked above.
            let answer = answer(&asked.shot, &plan, &stock, asked.priority, going, tell).ok().flatten()?;
            Some(MatchEvent::Found { answer: Box::new(answer) })
        },
    ))
}

/// The same as a table.
#[utoipa::path(post, operation_id = "match_table", path = "/api/match/table", request_body = MatchRequest, responses(
    (status = 200, content_type = "text/csv"), (status = 422, body = Problem)))]
pub async fn table(State(app): State<App>, Sent(asked): Sent<MatchRequest>) -> Result<Response, ApiError> {
    let plan = Plan::try_from(&asked.shot)?;
    let stock = stock(&app.store).await?;
    let title = asked.shot.title.clone();
    let answered = worked(move |going| answer(&asked.shot, &plan, &stock, asked.priority, going, &|_| {})).await??;
    let answer = answered.ok_or_else(|| ApiError::Internal("the search was stopped".to_owned()))?;
    let table = match_csv::write(&title, &answer).map_err(ApiError::Internal)?;
    let name = format!("attachment; filename=\"{}\"", match_csv::FILE_NAME);
    Ok(([(header::CONTENT_TYPE, "text/csv; charset=utf-8".to_owned()), (header::CONTENT_DISPOSITION, name)], table)
        .into_response())
}

/// Whole shots: every light with a unit of the kit, none twice.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct CrewAnswer {
    /// Best first.
    pub rows: Vec<CrewRow>,
    /// Why there is none, or what to have beside.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub why: Option<String>,
}

/// Units for all lights of a shot at once.
#[utoipa::path(post, operation_id = "match_whole", path = "/api/match/whole", request_body = MatchRequest, responses(
    (status = 200, body = CrewAnswer), (status = 422, body = Problem)))]
pub async fn whole(State(app): State<App>, Sent(asked): Sent<MatchRequest>) -> Result<Json<CrewAnswer>, ApiError> {
    let plan = Plan::try_from(&asked.shot)?;
    let stock = stock(&app.store).await?;
    let answered = worked(move |going| {
        let brief = Brief::new(&asked.shot, &plan)?;
        let crews = matching::whole_shot(&brief, &stock, asked.priority, going).unwrap_or_default();
        let rows = matching::crew_rows(&brief, &stock, &crews);
        let why = if rows.is_empty() {
            let job = matching::whole_job(std::slice::from_ref(&asked.shot), &stock, going)?;
            job.and_then(|job| matching::why_not(job.shots.first()?))
        } else {
            None
        };
        Ok::<_, Invalid>(CrewAnswer { rows, why })
    });
    Ok(Json(answered.await??))
}

/// Some of the saved shots.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JobRequest {
    /// Their identities; none are all of them.
    pub shots: Vec<String>,
}

impl Sendable for JobRequest {
    const NAME: &'static str = "list of shots";
}

/// What is told while a job is worked out, one line of JSON each.
#[derive(Clone, Debug, Serialize, utoipa::ToSchema)]
#[serde(tag = "is", rename_all = "snake_case")]
pub enum JobEvent {
    /// How far it is.
    Progress {
        /// Units tried at a light.
        done: usize,
        /// As many as are known to come.
        of: usize,
    },
    /// Everything that was found; the last line.
    Found {
        /// The answer.
        answer: Box<JobAnswer>,
    },
}

/// What to take along for some shots, and what to hire, told while it is worked out. Whoever stops reading stops it.
#[utoipa::path(post, operation_id = "match_job", path = "/api/match/job", request_body = JobRequest, responses(
    (status = 200, body = JobEvent, content_type = "application/x-ndjson"), (status = 400, body = Problem),
    (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn job(State(app): State<App>, Sent(asked): Sent<JobRequest>) -> Result<Response, ApiError> {
    let count = if asked.shots.is_empty() {
        usize::try_from(shots::count::<Shot>(&app.store).await?).unwrap_or(usize::MAX)
    } else {
        asked.shots.len()
    };
    if count > MOST_SHOTS {
        let (field, given) = ("shots".to_owned(), format!("a list of {count}"));
        return Err(Invalid::NotAllowed { field, given, allowed: "a list of at most 200 shots".to_owned() }.into());
    }
    let stock = stock(&app.store).await?;
    let mut of_job = Vec::new();
    if asked.shots.is_empty() {
        // What cannot be read cannot be planned for; the list of shots says so.
        of_job.extend(shots::all::<Shot>(&app.store).await?.into_iter().flatten().map(|kept| kept.thing));
    }
    for id in &asked.shots {
        of_job.push(shots::one::<Shot>(&app.store, id).await?.thing);
    }
    // Refused before anything is told, so that a refusal is one.
    for shot in &of_job {
        Brief::new(shot, &Plan::try_from(shot)?)?;
    }
    Ok(told(
        |done, of| JobEvent::Progress { done, of },
        move |going, _| {
            let answer = matching::whole_job(&of_job, &stock, going).ok().flatten()?;
            Some(JobEvent::Found { answer: Box::new(answer) })
        },
    ))
}

/// A set-up for a shot.
#[derive(Debug, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ApplyRequest {
    /// The shot.
    pub shot: Shot,
    /// The set-up.
    pub setup: Setup,
}

impl Sendable for ApplyRequest {
    const NAME: &'static str = "set-up for a shot";
}

async fn applied(app: &App, asked: &ApplyRequest) -> Result<Shot, ApiError> {
    Ok(matching::applied(&asked.shot, &stock(&app.store).await?, &asked.setup)?)
}

/// The shot with a set-up in place; lights that it does not name follow the camera.
#[utoipa::path(post, operation_id = "match_apply", path = "/api/match/apply", request_body = ApplyRequest, responses(
    (status = 200, body = Shot), (status = 422, body = Problem)))]
pub async fn apply(State(app): State<App>, Sent(asked): Sent<ApplyRequest>) -> Result<Json<Shot>, ApiError> {
    Ok(Json(applied(&app, &asked).await?))
}

/// A set-up explained: from joules to pixels, step by step.
#[utoipa::path(post, operation_id = "match_explain", path = "/api/match/explain", request_body = ApplyRequest, responses(
    (status = 200, body = Vec<Chain>), (status = 422, body = Problem)))]
pub async fn explain(State(app): State<App>, Sent(asked): Sent<ApplyRequest>) -> Result<Json<Vec<Chain>>, ApiError> {
    let lights: Vec<usize> = asked.setup.lights.iter().map(|set| set.light).collect();
    Ok(Json(matching::chain(&applied(&app, &asked).await?, &lights)?))
}
