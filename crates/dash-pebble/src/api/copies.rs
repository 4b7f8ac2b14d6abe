//! Copies of everything: made, looked into, brought back, given out and taken in.

use super::App;
use super::body::{Id, not_arrived};
use super::json::Json;
use super::problem::{ApiError, Problem};
use crate::store::copies::{self, Copy, CopyError, Inside, Why};
use crate::store::folder_of_copies;
use axum::body::Body;
use axum::extract::State;
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use http_body_util::BodyExt;
use serde::Serialize;
use std::io::{ErrorKind, Write};
use tokio_util::io::ReaderStream;

/// Most bytes of a copy that is taken in.
const LARGEST_COPY: usize = 2 * 1024 * 1024 * 1024 - 1;
const MEDIA: &str = "application/vnd.sqlite3";

/// The data file and its copies.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct CopyList {
    /// Where the data file is.
    pub data_file: String,
    /// Where its copies are.
    pub folder: String,
    /// What was found damaged in it when it was opened.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub damage: Option<String>,
    /// The copies, latest first.
    pub copies: Vec<Copy>,
}

/// The data file and its copies, latest first.
#[utoipa::path(get, operation_id = "copy_list", path = "/api/copies", responses((status = 200, body = CopyList)))]
pub async fn list(State(app): State<App>) -> Json<CopyList> {
    let data = app.store.path();
    Json(CopyList {
        data_file: data.display().to_string(),
        folder: folder_of_copies(data).display().to_string(),
        damage: app.store.damage().map(str::to_owned),
        copies: copies::list(data),
    })
}

/// Makes a copy in the folder now.
#[utoipa::path(post, operation_id = "copy_make", path = "/api/copies", responses(
    (status = 201, body = Copy), (status = 507, body = Problem)))]
pub async fn make(State(app): State<App>) -> Result<(StatusCode, Json<Copy>), ApiError> {
    Ok((StatusCode::CREATED, Json(copies::keep(&app.store, Why::Asked).await?)))
}

/// A copy of everything, as one file to take away.
#[utoipa::path(get, operation_id = "copy_everything", path = "/api/copy", responses(
    (status = 200, content_type = "application/vnd.sqlite3"), (status = 507, body = Problem)))]
pub async fn everything(State(app): State<App>) -> Result<Response, ApiError> {
    let internal = |error: std::io::Error| match error.kind() {
        ErrorKind::StorageFull => ApiError::DiskFull,
        _ => ApiError::Internal(format!("the copy was not made: {error}")),
    };
    let room = tempfile::tempdir().map_err(internal)?;
    let path = room.path().join("everything");
    copies::write(&app.store, &path).await?;
    let file = tokio::fs::File::open(&path).await.map_err(internal)?;
    let length = file.metadata().await.map_err(internal)?.len();
    // The name goes with the folder; what is open can be read to its end.
    drop(room);
    let headers = [
        (header::CONTENT_TYPE, MEDIA.to_owned()),
        (header::CONTENT_LENGTH, length.to_string()),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"dash-pebble-copy.sqlite\"".to_owned()),
    ];
    Ok((headers, Body::from_stream(ReaderStream::new(file))).into_response())
}

/// What is inside a copy.
#[utoipa::path(get, operation_id = "copy_look", path = "/api/copies/{id}", params(("id" = String, Path)), responses(
    (status = 200, body = Inside), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn look(State(app): State<App>, Id(name): Id) -> Result<Json<Inside>, ApiError> {
    Ok(Json(copies::look_beside(&app.store, &copies::find(app.store.path(), &name)?).await?))
}

/// Puts everything back to what a copy has; answers with the copy that was made of what was there before.
#[utoipa::path(post, operation_id = "copy_bring_back", path = "/api/copies/{id}/bring-back", params(("id" = String, Path)),
    responses((status = 200, body = Copy), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn bring_back(State(app): State<App>, Id(name): Id) -> Result<Json<Copy>, ApiError> {
    let copy = copies::find(app.store.path(), &name)?;
    Ok(Json(copies::bring_back(&app.store, &copy).await?))
}

/// Puts a copy from elsewhere among the others, to be looked into and brought back.
#[utoipa::path(post, operation_id = "copy_take_in", path = "/api/copies/brought",
    request_body(content = Vec<u8>, content_type = "application/vnd.sqlite3"), responses(
    (status = 201, body = Copy), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub async fn take_in(State(app): State<App>, body: Body) -> Result<(StatusCode, Json<Copy>), ApiError> {
    let mut body = body;
    let no_room = |error: std::io::Error| match error.kind() {
        ErrorKind::StorageFull => ApiError::DiskFull,
        _ => ApiError::Internal(format!("the copy was not kept: {error}")),
    };
    let mut file = tempfile::NamedTempFile::new().map_err(no_room)?;
    let mut seen = 0;
    while let Some(frame) = body.frame().await {
        let frame = frame.map_err(|error| not_arrived(&error, "copy", LARGEST_COPY))?;
        let Ok(piece) = frame.into_data() else { continue };
        seen += piece.len();
        if seen > LARGEST_COPY {
            return Err(ApiError::TooLarge { what: "copy", limit: LARGEST_COPY });
        }
        file.write_all(&piece).map_err(no_room)?;
    }
    if seen == 0 {
        return Err(CopyError::Unusable("nothing was sent.".to_owned()).into());
    }
    Ok((StatusCode::CREATED, Json(copies::take_in(&app.store, file.path()).await?)))
}
