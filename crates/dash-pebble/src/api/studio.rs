//! Where pictures are drawn: as many at once as there are cores, the others wait their turn, and what nobody waits for any
//! more is put down.

use super::problem::ApiError;
use pebble_core::{Plan, outlook};
use pebble_picture::{Kept, Photo, Picture, Request, first_look, render_while};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use tokio::sync::{Semaphore, TryAcquireError};

/// Pictures that may wait. A page of shots asks for some dozens.
const MOST_WAITING: usize = 120;

/// How a frame is drawn.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum How {
    /// As it is asked for, leaving for the next what that may need again.
    Whole,
    /// Soon: a first look where it would take longer.
    Soon,
    /// One of many that are looked at once: it pushes nothing out that a hand at work needs again.
    Aside,
}

/// The drawing tables, and the room where one waits for them.
#[derive(Clone)]
pub struct Studio {
    tables: Arc<Semaphore>,
    room: Arc<Semaphore>,
    /// What pictures leave for each other.
    kept: Arc<Kept>,
}

impl Default for Studio {
    fn default() -> Self {
        let cores = std::thread::available_parallelism().map_or(1, usize::from);
        Self {
            tables: Arc::new(Semaphore::new(cores)),
            room: Arc::new(Semaphore::new(cores + MOST_WAITING)),
            kept: Arc::default(),
        }
    }
}

/// Puts a drawing down when the one who asked has gone.
struct Wanted(Arc<AtomicBool>);

impl Drop for Wanted {
    fn drop(&mut self) {
        self.0.store(false, Ordering::Relaxed);
    }
}

impl Studio {
    /// Draws a frame and does something with it, on threads of their own.
    ///
    /// # Errors
    /// [`ApiError::TooMany`] when too many are waiting, and what `then` says.
    pub async fn draw<T: Send + 'static>(
        &self,
        (plan, photo): (Plan, Option<Arc<Photo>>),
        (request, how): (Request, How),
        then: impl FnOnce(Picture) -> Result<T, ApiError> + Send + 'static,
    ) -> Result<T, ApiError> {
        let _place = self.room.try_acquire().map_err(|error| match error {
            TryAcquireError::NoPermits => ApiError::TooMany,
            TryAcquireError::Closed => ApiError::Internal("no pictures are drawn any more".to_owned()),
        })?;
        let table = Arc::clone(&self.tables).acquire_owned().await;
        let table = table.map_err(|_| ApiError::Internal("no pictures are drawn any more".to_owned()))?;
        let wanted = Wanted(Arc::new(AtomicBool::new(true)));
        let (seen, kept) = (Arc::clone(&wanted.0), Arc::clone(&self.kept));
        let drawn = tokio::task::spawn_blocking(move || {
            // The table is free when the drawing is done or put down, not when the one who asked goes away.
            let _table = table;
            let own = Kept::default();
            let kept = if how == How::Aside { &own } else { &*kept };
            let draws = if how == How::Soon { first_look } else { render_while };
            draws((&plan, &outlook(&plan)), &request, (photo.as_deref(), kept), &seen).map(then)
        });
        let drawn = drawn.await.map_err(|error| ApiError::Internal(format!("the picture was not drawn: {error}")))?;
        drawn.unwrap_or(Err(ApiError::TooMany))
    }
}
