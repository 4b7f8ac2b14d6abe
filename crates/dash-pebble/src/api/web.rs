//! The web application's files, compiled in and compressed.

use super::problem::ApiError;
use axum::http::{HeaderMap, Method, StatusCode, Uri, header};
use axum::response::{IntoResponse, Response};
use std::borrow::Cow;
use std::io::Read;

#[derive(rust_embed::RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct Files;

/// A file of the application, or its page for any address that the application itself knows.
pub async fn serve(method: Method, uri: Uri, headers: HeaderMap) -> Response {
    let path = uri.path().trim_start_matches('/');
    if path.starts_with("api/") {
        return ApiError::NotFound.into_response();
    }
    if !matches!(method, Method::GET | Method::HEAD) {
        return ApiError::WrongMethod.into_response();
    }
    let accepted = headers.get(header::ACCEPT_ENCODING).and_then(|value| value.to_str().ok()).unwrap_or_default();
    // Names of assets carry a hash of their content, so a browser may keep them for good.
    let asset = path.starts_with("assets/");
    let name = if asset || path.contains('.') { path } else { "index.html" };
    let keep = if asset { "public, max-age=31536000, immutable" } else { "no-cache" };
    match file(name, accepted) {
        Some((bytes, encoding)) => {
            let kind = kind_of(name);
            let told = [(header::CONTENT_TYPE, kind), (header::CACHE_CONTROL, keep), (header::VARY, "accept-encoding")];
            let mut response = (told, bytes).into_response();
            if let Some(encoding) = encoding {
                response.headers_mut().insert(header::CONTENT_ENCODING, header::HeaderValue::from_static(encoding));
            }
            response
        }
        None if name == "index.html" => (
            StatusCode::SERVICE_UNAVAILABLE,
            "This program was built without its web files. Build it with `make demo` or `make build`.",
        )
            .into_response(),
        None => ApiError::NotFound.into_response(),
    }
}

/// Whether an encoding is among those that are accepted.
fn accepts(accepted: &str, encoding: &str) -> bool {
    accepted.split(',').any(|one| {
        let (name, quality) = one.trim().split_once(';').unwrap_or((one.trim(), ""));
        name.trim() == encoding && !matches!(quality.trim(), "q=0" | "q=0.0" | "q=0.00" | "q=0.000")
    })
}

/// Text files are kept compressed only, in two ways, the smaller first; whoever can read neither gets them unpacked.
fn file(name: &str, accepted: &str) -> Option<(Cow<'static, [u8]>, Option<&'static str>)> {
    for (encoding, ending) in [("br", "br"), ("gzip", "gz")] {
        if accepts(accepted, encoding)
            && let Some(packed) = Files::get(&format!("{name}.{ending}"))
        {
            return Some((packed.data, Some(encoding)));
        }
    }
    if let Some(packed) = Files::get(&format!("{name}.gz")) {
        let mut plain = Vec::new();
        flate2::read::GzDecoder::new(packed.data.as_ref()).read_to_end(&mut plain).ok()?;
        return Some((plain.into(), None));
    }
    Files::get(name).map(|file| (file.data, None))
}

fn kind_of(name: &str) -> &'static str {
    match name.rsplit_once('.').map(|(_, ending)| ending) {
        Some("html") => "text/html; charset=utf-8",
        Some("js") => "text/javascript; charset=utf-8",
        Some("css") => "text/css; charset=utf-8",
        Some("svg") => "image/svg+xml",
        Some("woff2") => "font/woff2",
        Some("png") => "image/png",
        _ => "application/octet-stream",
    }
}
