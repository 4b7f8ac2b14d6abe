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

fn is_own(method: &Method, headers: &HeaderMap) -> bool {
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

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_own_names_and_own_pages_are_answered() {
        let cases = [
            ("own page reads", Method::GET, "127.0.0.1:8650", None, true),
            ("own page writes", Method::PUT, "localhost:8650", Some("http://localhost:8650"), true),
            ("a program writes", Method::POST, "[::1]:8650", None, true),
            ("another loopback address", Method::POST, "127.0.0.2:80", Some("http://127.0.0.2:80"), true),
            ("an address of the network", Method::GET, "192.168.1.7:8650", None, false),
            ("a name that looks like an address", Method::GET, "127.0.0.1.example:8650", None, false),
            ("another site writes", Method::POST, "127.0.0.1:8650", Some("http://example.com"), false),
            ("another port writes", Method::POST, "127.0.0.1:8650", Some("http://127.0.0.1:9999"), false),
            ("a hidden origin writes", Method::PUT, "127.0.0.1:8650", Some("null"), false),
            ("a rebound name reads", Method::GET, "elsewhere.example:8650", None, false),
            ("a name that only starts like ours", Method::GET, "localhost.example", None, false),
        ];
        for (name, method, host, origin, want) in cases {
            let mut headers = HeaderMap::new();
            headers.insert(header::HOST, host.parse().unwrap());
            if let Some(origin) = origin {
                headers.insert(header::ORIGIN, origin.parse().unwrap());
            }
            assert_eq!(is_own(&method, &headers), want, "{name}");
        }
        assert!(!is_own(&Method::GET, &HeaderMap::new()), "no name at all");
    }
}
