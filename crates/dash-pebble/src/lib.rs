//! The program around the core: command line, HTTP interface, data file, web application.

pub mod api;
pub mod cli;
pub mod demo;
pub mod formats;
pub mod store;

use api::App;
use std::future::Future;
use tokio::net::TcpListener;

/// Serves until `shutdown` is ready. The listener is the caller's, so that tests can have one of their own.
///
/// # Errors
/// Those of the listener.
pub async fn launch(
    app: App,
    listener: TcpListener,
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> std::io::Result<()> {
    let pool = app.pool.clone();
    axum::serve(listener, api::router(app)).with_graceful_shutdown(shutdown).await?;
    // Closing folds the write-ahead log into the file, so that it can be copied as one.
    pool.close().await;
    Ok(())
}
