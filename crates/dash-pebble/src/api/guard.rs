//! Who may ask: only this machine's own pages, under its own names.

use super::problem::ApiError;
use axum::extract::Request;
use axum::http::{HeaderMap, Method, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};

/// Refuses requests under a strange name (DNS rebinding) and changes asked for by pages of other sites.
pub async fn only_own(request: Request, next: Next) -> Response {
    if is_own(request.method(), request.headers()) {
        next.run(request).await
    } else {
        ApiError::Stranger.into_response()
    }
}

/// Whether a request comes from our own pages or from a program on this machine: by its `Host`, and by its `Origin` when it
/// writes.
pub fn is_own(method: &Method, headers: &HeaderMap) -> bool {
    let text = |name: header::HeaderName| headers.get(name).and_then(|value| value.to_str().ok());
    let Some(host) = text(header::HOST) else { return false };
    let name = host
        .rsplit_once(':')
        .filter(|(_, port)| port.chars().all(|c| c.is_ascii_digit()))
        .map_or(host, |(name, _)| name);
    let address = name.trim_start_matches('[').trim_end_matches(']').parse::<std::net::IpAddr>();
    if name != "localhost" && !address.is_ok_and(|address| address.is_loopback()) {
        return false;
    }
    if matches!(*method, Method::GET | Method::HEAD) {
        return true;
    }
    // Programs send no origin; browsers always do with a change.
    text(header::ORIGIN).is_none_or(|origin| origin == format!("http://{host}"))
}
