//! What stands before every route: who may ask, how much they may send, what a page may load.

use std::panic;

use axum::body::{Body, Bytes};
use axum::extract::{FromRequest, Request};
use axum::http::{HeaderMap, HeaderValue, Method, StatusCode, Uri, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use futures_util::StreamExt;
use serde::de::DeserializeOwned;

use crate::problem::{Problem, internal};

/// The largest batch of entries.
pub(crate) const ENTRIES_LIMIT: usize = 1 << 20;
/// The largest home file.
pub(crate) const FILE_LIMIT: usize = 64 << 20;
/// How much of a body that is too large is read and thrown away, so that the client hears the answer.
const DISCARD_LIMIT: usize = 256 << 20;

/// Refuses requests that were not meant for this server: a name that is not this machine's (DNS
/// rebinding), or a page of another origin that writes.
pub(crate) async fn only_this_machine(request: Request, next: Next) -> Response {
    let host = request.headers().get(header::HOST).and_then(|h| h.to_str().ok()).map(str::to_owned);
    let Some(host) = host.filter(|host| is_loopback(host)) else {
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
    next.run(request).await
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
