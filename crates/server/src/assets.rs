//! The web files, built into the program. Any path that is no file is the page itself: its router knows
//! what to show.

use axum::http::{HeaderMap, HeaderValue, StatusCode, Uri, header};
use axum::response::{Html, IntoResponse, Response};

use crate::problem::Problem;

#[derive(rust_embed::RustEmbed)]
#[folder = "../../web/dist"]
struct Web;

const SERVICE_WORKER: &str = "service-worker.js";
const NONCE: &str = "__CSP_NONCE__";

pub(crate) async fn web(uri: Uri, headers: HeaderMap) -> Response {
    let path = uri.path().trim_start_matches('/');
    if path == "api" || path.starts_with("api/") {
        return Problem::not_found("address").into_response();
    }
    if path.is_empty() || !path.contains('.') || path == "index.html" {
        return page();
    }
    let zipped = headers
        .get(header::ACCEPT_ENCODING)
        .and_then(|value| value.to_str().ok())
        .filter(|value| value.contains("gzip"))
        .and_then(|_| Web::get(&format!("{path}.gz")));
    let is_zipped = zipped.is_some();
    let Some(file) = zipped.or_else(|| Web::get(path)) else {
        return (StatusCode::NOT_FOUND, "There is no such file.").into_response();
    };
    let mut response = file.data.into_response();
    let mime = mime_guess::from_path(path).first_or_octet_stream();
    let headers = response.headers_mut();
    headers.insert(header::VARY, HeaderValue::from_static("accept-encoding"));
    if let Ok(mime) = HeaderValue::from_str(mime.as_ref()) {
        headers.insert(header::CONTENT_TYPE, mime);
    }
    if is_zipped {
        headers.insert(header::CONTENT_ENCODING, HeaderValue::from_static("gzip"));
    }
    if path == SERVICE_WORKER {
        // What it asks for is held against its own policy, not that of a page.
        let policy = HeaderValue::from_static("default-src 'none'; script-src 'self'; connect-src 'self'");
        headers.insert(header::CONTENT_SECURITY_POLICY, policy);
    }
    if path.starts_with("assets/") {
        headers.insert(header::CACHE_CONTROL, HeaderValue::from_static("public, max-age=31536000, immutable"));
    }
    response
}

/// The page, with a nonce of its own for the styles that the components put in.
fn page() -> Response {
    let Some(file) = Web::get("index.html") else {
        let said = "The web files are not built in. Build them with `cargo xtask demo`, or with `npm run build` in web/.";
        return (StatusCode::SERVICE_UNAVAILABLE, said).into_response();
    };
    let nonce = uuid::Uuid::new_v4().simple().to_string();
    let html = String::from_utf8_lossy(&file.data).replace(NONCE, &nonce);
    let policy = format!(
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; font-src 'self'; img-src 'self' data: blob:; \
         connect-src 'self'; worker-src 'self'; manifest-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
    );
    let mut response = Html(html).into_response();
    if let Ok(policy) = HeaderValue::from_str(&policy) {
        response.headers_mut().insert(header::CONTENT_SECURITY_POLICY, policy);
    }
    response
}
