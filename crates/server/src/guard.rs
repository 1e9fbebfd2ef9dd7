//! What stands before every route: who may ask, how much they may send, what a page may load.

use std::panic;

use axum::body::{Body, Bytes};
use axum::extract::{FromRequest, FromRequestParts, Query, Request, State};
use axum::http::request::Parts;
use axum::http::{HeaderMap, HeaderValue, Method, StatusCode, Uri, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use futures_util::StreamExt;
use serde::de::DeserializeOwned;

use crate::App;
use crate::problem::{Problem, internal};
use crate::sharing::{Door, Who, token};

/// The largest batch of entries.
pub(crate) const ENTRIES_LIMIT: usize = 1 << 20;
/// The largest home file.
pub(crate) const FILE_LIMIT: usize = 64 << 20;
/// How much of a body that is too large is read and thrown away, so that the client hears the answer.
const DISCARD_LIMIT: usize = 256 << 20;

/// Refuses requests that were not meant for this server: at the first door a name that is not this machine's (DNS
/// rebinding); at both a page of another origin that writes. At the second door nobody gets further than they may.
pub(crate) async fn at_the_door(State((app, door)): State<(App, Door)>, mut request: Request, next: Next) -> Response {
    let host = request.headers().get(header::HOST).and_then(|h| h.to_str().ok()).map(str::to_owned);
    let Some(host) = host.filter(|host| door == Door::Network || is_loopback(host)) else {
        return Problem::new(
            StatusCode::MISDIRECTED_REQUEST,
            "wrong_host",
            "This server answers only under localhost or 127.0.0.1.",
            "Open it under the address that it printed at start.",
        )
        .into_response();
    };
    let writes = !matches!(*request.method(), Method::GET | Method::HEAD | Method::OPTIONS);
    if writes && !same_origin(request.headers(), &host) {
        return Problem::new(
            StatusCode::FORBIDDEN,
            "other_origin",
            "A page of another site tried to write here.",
            "Nothing was changed.",
        )
        .into_response();
    }
    let who = match door {
        Door::Here => Who::Owner,
        Door::Network => app.sharing.who(token(request.headers())),
    };
    if !may_ask(&who, request.method(), request.uri().path()) {
        let (status, code, detail) = match who {
            Who::Nobody => (StatusCode::UNAUTHORIZED, "not_in", "Come in with the owner's code or passphrase first."),
            _ => (StatusCode::FORBIDDEN, "not_for_helpers", "A helper sees their own next step; the owner sees the rest."),
        };
        return Problem::new(status, code, "This is not shown to you.", detail).into_response();
    }
    request.extensions_mut().insert(who);
    request.extensions_mut().insert(door);
    next.run(request).await
}

/// What each may ask for. The web files are the program itself and hold nothing of a home.
fn may_ask(who: &Who, method: &Method, path: &str) -> bool {
    let open = ["/api/health", "/api/me", "/api/join", "/api/sign-in", "/api/leave"];
    if path != "/api" && !path.starts_with("/api/") || open.contains(&path) {
        return true;
    }
    match who {
        Who::Owner => true,
        Who::Nobody => false,
        Who::Helper(helper) => {
            let own = path.strip_prefix("/api/homes/").and_then(|rest| rest.strip_prefix(helper.home.as_str()));
            match own {
                Some("/helper" | "/stream" | "/survey/together" | "/practice/reading") => method == Method::GET,
                // One at the panel, one at the outlet: both see the sheet.
                Some(path)
                    if ["/jobs", "/trips"]
                        .iter()
                        .any(|of| path == *of || path.strip_prefix(of).is_some_and(|rest| rest.starts_with('/'))) =>
                {
                    method == Method::GET
                }
                Some("/entries") => method == Method::POST,
                _ => false,
            }
        }
    }
}

fn is_loopback(host: &str) -> bool {
    let name = match host.strip_prefix('[') {
        Some(v6) => v6.split(']').next().unwrap_or_default(),
        None => host.rsplit_once(':').map_or(host, |(name, _)| name),
    };
    ["localhost", "127.0.0.1", "::1"].contains(&name)
}

fn same_origin(headers: &HeaderMap, host: &str) -> bool {
    match headers.get(header::ORIGIN) {
        None => true,
        Some(origin) => origin
            .to_str()
            .is_ok_and(|origin| origin.parse::<Uri>().is_ok_and(|uri| uri.authority().is_some_and(|a| a.as_str() == host))),
    }
}

/// A body that was read within a limit.
async fn read(body: Body, limit: usize) -> Result<Bytes, Problem> {
    let mut stream = body.into_data_stream();
    let mut kept = Vec::new();
    let mut total = 0;
    while let Some(chunk) = stream.next().await {
        let chunk = chunk.map_err(|_| {
            Problem::new(
                StatusCode::BAD_REQUEST,
                "cut_off",
                "The connection broke off while sending.",
                "Nothing was recorded; send it again.",
            )
        })?;
        total += chunk.len();
        if total > DISCARD_LIMIT {
            break;
        }
        if total <= limit {
            kept.extend_from_slice(&chunk);
        } else {
            kept = Vec::new();
        }
    }
    if total > limit {
        return Err(Problem::new(
            StatusCode::PAYLOAD_TOO_LARGE,
            "too_large",
            format!("What was sent is larger than the {} MB that are taken here.", limit >> 20),
            "Nothing was recorded. Send less at a time.",
        ));
    }
    Ok(kept.into())
}

/// A JSON body of at most `LIMIT` bytes.
pub(crate) struct JsonBody<T, const LIMIT: usize>(pub(crate) T);

impl<S: Sync, T: DeserializeOwned, const LIMIT: usize> FromRequest<S> for JsonBody<T, LIMIT> {
    type Rejection = Problem;

    async fn from_request(request: Request, _: &S) -> Result<Self, Problem> {
        let json = request
            .headers()
            .get(header::CONTENT_TYPE)
            .and_then(|t| t.to_str().ok())
            .is_some_and(|t| t.starts_with("application/json"));
        let bytes = read(request.into_body(), LIMIT).await?;
        if !json {
            return Err(Problem::new(
                StatusCode::UNSUPPORTED_MEDIA_TYPE,
                "not_json",
                "What was sent is not marked as JSON.",
                "Nothing was recorded. Send it with content type application/json.",
            ));
        }
        serde_json::from_slice(&bytes).map(Self).map_err(|error| {
            Problem::new(
                StatusCode::UNPROCESSABLE_ENTITY,
                "not_understood",
                format!("What was sent cannot be read: {error}."),
                "Nothing was recorded. The shapes are described at /api/openapi.json.",
            )
        })
    }
}

/// What stands after the question mark of the address.
pub(crate) struct Asked<T>(pub(crate) T);

impl<S: Send + Sync, T: DeserializeOwned> FromRequestParts<S> for Asked<T> {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, _: &S) -> Result<Self, Problem> {
        Query::try_from_uri(&parts.uri).map(|Query(asked)| Self(asked)).map_err(|error| {
            let why = std::error::Error::source(&error).map_or_else(|| error.to_string(), ToString::to_string);
            Problem::new(
                StatusCode::UNPROCESSABLE_ENTITY,
                "not_understood",
                format!("What is asked for cannot be read: {why}."),
                "The addresses are described at /api/openapi.json.",
            )
        })
    }
}

/// A raw body of at most `LIMIT` bytes.
pub(crate) struct RawBody<const LIMIT: usize>(pub(crate) Bytes);

impl<S: Sync, const LIMIT: usize> FromRequest<S> for RawBody<LIMIT> {
    type Rejection = Problem;

    async fn from_request(request: Request, _: &S) -> Result<Self, Problem> {
        read(request.into_body(), LIMIT).await.map(Self)
    }
}

/// Runs what blocks (the store, a fold) off the async threads. A panic in it is our bug: logged, answered.
pub(crate) async fn off_thread<T: Send + 'static>(
    work: impl FnOnce() -> Result<T, Problem> + Send + 'static,
) -> Result<T, Problem> {
    tokio::task::spawn_blocking(move || panic::catch_unwind(panic::AssertUnwindSafe(work)))
        .await
        .map_err(|_| internal())?
        .unwrap_or_else(|_| Err(internal()))
}

/// Headers of every answer.
pub(crate) async fn harden(request: Request, next: Next) -> Response {
    let mut response = next.run(request).await;
    let headers = response.headers_mut();
    headers
        .entry(header::CONTENT_SECURITY_POLICY)
        .or_insert(HeaderValue::from_static("default-src 'none'; frame-ancestors 'none'"));
    headers.insert(header::X_CONTENT_TYPE_OPTIONS, HeaderValue::from_static("nosniff"));
    headers.insert(header::REFERRER_POLICY, HeaderValue::from_static("no-referrer"));
    headers.insert(header::X_FRAME_OPTIONS, HeaderValue::from_static("DENY"));
    headers.entry(header::CACHE_CONTROL).or_insert(HeaderValue::from_static("no-store"));
    response
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sharing::Helper;
    use wayfinder_core::StepSide;

    #[test]
    fn a_helper_reaches_their_own_step_and_nothing_else_and_nobody_reaches_a_home() {
        let helper = Who::Helper(Helper { home: "hut".parse().unwrap(), name: "Ada".into(), side: StepSide::Walk });
        for (method, path, may) in [
            (Method::GET, "/api/homes/hut/helper", true),
            (Method::GET, "/api/homes/hut/stream", true),
            (Method::POST, "/api/homes/hut/entries", true),
            (Method::GET, "/api/homes/hut", false),
            (Method::GET, "/api/homes/hut/practice/reading", true),
            (Method::GET, "/api/homes/hut/practice", false),
            (Method::GET, "/api/homes/hut/survey/together", true),
            (Method::GET, "/api/homes/hut/survey", false),
            (Method::GET, "/api/homes/hut/logbook", false),
            (Method::GET, "/api/homes/hut/export", false),
            (Method::GET, "/api/homes/hut/trace", false),
            (Method::GET, "/api/homes/hut2/helper", false),
            (Method::GET, "/api/homes/other/helper", false),
            (Method::GET, "/api/homes", false),
            (Method::GET, "/api/homes/hut/helper/../logbook", false),
            (Method::GET, "/api/homes/hut%2Flogbook", false),
            (Method::DELETE, "/api/sharing", false),
            (Method::POST, "/api/import", false),
            (Method::GET, "/api/openapi.json", false),
            (Method::GET, "/api/me", true),
            (Method::GET, "/join", true),
            (Method::GET, "/assets/index.js", true),
        ] {
            assert_eq!(may_ask(&helper, &method, path), may, "{method} {path}");
            let anybody = path.starts_with("/api/me") || !path.starts_with("/api");
            assert_eq!(may_ask(&Who::Nobody, &method, path), anybody, "nobody: {method} {path}");
            assert!(may_ask(&Who::Owner, &method, path));
        }
    }
}
