//! Documents as they are answered: with their version, and what can be done to it.

use super::json::Json;
use crate::store::documents::Kept;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use pebble_core::fit::Moved;
use pebble_core::gear::Item;
use pebble_core::{Shot, sheet};
use serde::Serialize;

/// A shot and where it stands.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct ShotAnswer {
    /// Identity.
    pub id: String,
    /// Version, also the entity tag.
    pub version: i64,
    /// When it last changed, UTC.
    pub changed_at: String,
    /// Whether there is an earlier revision.
    pub can_undo: bool,
    /// Whether there is a later one.
    pub can_redo: bool,
    /// The shot.
    pub shot: Shot,
    /// Settings that had to move because the kit has changed since it was saved.
    pub moved: Vec<Moved>,
}

impl From<Kept<Shot>> for ShotAnswer {
    fn from(kept: Kept<Shot>) -> Self {
        let Kept { id, version, thing, moved, changed_at, retired: _, can_undo, can_redo } = kept;
        Self { id, version, changed_at, can_undo, can_redo, shot: thing, moved }
    }
}

impl IntoResponse for ShotAnswer {
    fn into_response(self) -> Response {
        (entity_tag(self.version), Json(self)).into_response()
    }
}

/// A thing of the kit and where it stands.
#[derive(Debug, Serialize, utoipa::ToSchema)]
pub struct ItemAnswer {
    /// Identity.
    pub id: String,
    /// Version, also the entity tag.
    pub version: i64,
    /// When it last changed, UTC.
    pub changed_at: String,
    /// Whether it is no longer taken along.
    pub retired: bool,
    /// Whether there is an earlier revision.
    pub can_undo: bool,
    /// Whether there is a later one.
    pub can_redo: bool,
    /// The thing.
    pub thing: Item,
    /// The figures that tell it from its neighbours, in one line.
    pub line: String,
}

impl From<Kept<Item>> for ItemAnswer {
    fn from(kept: Kept<Item>) -> Self {
        let Kept { id, version, thing, moved: _, changed_at, retired, can_undo, can_redo } = kept;
        // What is kept was checked when it was read: its line can be said.
        let line = sheet::line(&thing).unwrap_or_default();
        Self { id, version, changed_at, retired, can_undo, can_redo, thing, line }
    }
}

impl IntoResponse for ItemAnswer {
    fn into_response(self) -> Response {
        (entity_tag(self.version), Json(self)).into_response()
    }
}

/// A version as the tag of an answer.
fn entity_tag(version: i64) -> [(header::HeaderName, String); 1] {
    [(header::ETAG, format!("\"{version}\""))]
}
