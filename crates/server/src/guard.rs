//! What stands before every route: who may ask, how much they may send, what a page may load.

use std::panic;
use std::time::{Duration, Instant};

use axum::body::{Body, Bytes};
use axum::extract::{FromRequest, FromRequestParts, Query, Request, State};
use axum::http::request::Parts;
use axum::http::uri::Authority;
use axum::http::{HeaderMap, HeaderValue, Method, StatusCode, Uri, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use futures_util::StreamExt;
use serde::de::DeserializeOwned;

use crate::App;
use crate::doors::{Patience, SLOWEST};
use crate::problem::{Problem, internal};
use crate::sharing::{Door, Sharing, Who, token};

/// The largest body of somebody who wants to come in.
pub(crate) const COMING_IN_LIMIT: usize = 16 << 10;
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
    let Some(host) = host.filter(|host| door != Door::Here || is_loopback(host)) else {
        return Problem::new(
            StatusCode::MISDIRECTED_REQUEST,
            "wrong_host",
            "This server answers only under localhost or 127.0.0.1.",
            "Open it under the address that it printed at start.",
        )
        .into_response();
    };
    if is_api(request.uri().path()) && !same_origin(request.headers(), &host) {
        return Problem::new(
            StatusCode::FORBIDDEN,
            "other_origin",
            "A page of another site asked for something here.",
            "Nothing was changed and nothing was told.",
        )
        .into_response();
    }
    let token = token(request.headers()).map(str::to_owned);
    let who = match door {
        Door::Here => Who::Owner,
        Door::Network { .. } => app.sharing.who(token.as_deref()),
    };
    if !may_ask(&who, request.method(), request.uri().path()) {
        let (status, code, detail) = match who {
            Who::Nobody => (StatusCode::UNAUTHORIZED, "not_in", "Come in with the owner's code or passphrase first."),
            _ => (StatusCode::FORBIDDEN, "not_for_helpers", "A helper sees their own next step; the owner sees the rest."),
        };
        let refused = Problem::new(status, code, "This is not shown to you.", detail).into_response();
        return if who == Who::Nobody && token.is_some() { forgotten(refused) } else { refused };
    }
    request.extensions_mut().insert(Visit { door, who, token });
    next.run(request).await
}

/// An answer to somebody who is not in any more: their browser forgets what it has kept of answers before (W3C, Clear Site Data).
pub(crate) fn forgotten(mut response: Response) -> Response {
    response.headers_mut().insert("clear-site-data", HeaderValue::from_static("\"cache\""));
    response
}

/// A request's asker, as they stood at the door when its head came.
#[derive(Debug, Clone)]
pub(crate) struct Visit {
    pub(crate) door: Door,
    pub(crate) who: Who,
    pub(crate) token: Option<String>,
}

impl Visit {
    /// Whether they are still who they were: the door was not closed since, and they were not sent away.
    pub(crate) fn still(&self, sharing: &Sharing) -> bool {
        match self.door {
            Door::Here => true,
            Door::Network { opening } => sharing.is_open_since(opening) && sharing.who(self.token.as_deref()) == self.who,
        }
    }
}

impl<S: Send + Sync> FromRequestParts<S> for Visit {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, _: &S) -> Result<Self, Problem> {
        parts.extensions.get().cloned().ok_or_else(internal)
    }
}

/// Whoever was sent away while they were sending.
pub(crate) fn sent_away() -> Problem {
    Problem::new(
        StatusCode::UNAUTHORIZED,
        "not_in",
        "You are not in any more.",
        "Nothing of this was recorded. Come in with the owner's code or passphrase first.",
    )
}

/// What each may ask for. The web files are the program itself and hold nothing of a home.
fn may_ask(who: &Who, method: &Method, path: &str) -> bool {
    let open = ["/api/health", "/api/me", "/api/join", "/api/sign-in", "/api/leave"];
    if !is_api(path) || open.contains(&path) {
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
    let Ok(authority) = host.parse::<Authority>() else { return false };
    let name = authority.host().trim_end_matches('.').to_ascii_lowercase();
    let only_host_and_port = authority.host().len() == host.len() || authority.port().is_some();
    only_host_and_port && !host.contains('@') && ["localhost", "127.0.0.1", "[::1]"].contains(&name.as_str())
}

fn is_api(path: &str) -> bool {
    path == "/api" || path.starts_with("/api/")
}

/// Whether a page of this very program asks, or no page at all. A browser says which site a page is of (Fetch Metadata, a W3C working
/// draft that browsers follow), also where it sends no origin: so another site's page cannot set work going by a picture's address.
fn same_origin(headers: &HeaderMap, host: &str) -> bool {
    let site = headers.get("sec-fetch-site").map(HeaderValue::as_bytes);
    let own_site = site.is_none_or(|site| site == b"same-origin" || site == b"none");
    let own_origin = headers.get(header::ORIGIN).is_none_or(|origin| {
        origin
            .to_str()
            .is_ok_and(|origin| origin.parse::<Uri>().is_ok_and(|uri| uri.authority().is_some_and(|a| a.as_str() == host)))
    });
    own_site && own_origin
}

/// A body that was read within a limit, and within the time that is given for it.
async fn read(body: Body, limit: usize, patience: Patience) -> Result<Bytes, Problem> {
    let mut stream = body.into_data_stream();
    let mut kept = Vec::new();
    let mut total = 0;
    let begun = Instant::now();
    loop {
        let earned = Duration::from_secs((total / SLOWEST) as u64);
        let left = (patience.body + earned).saturating_sub(begun.elapsed());
        let Ok(chunk) = tokio::time::timeout(left.min(patience.piece), stream.next()).await else {
            return Err(Problem::new(
                StatusCode::REQUEST_TIMEOUT,
                "too_slow",
                "What was sent came too slowly.",
                "Nothing was recorded; send it again.",
            ));
        };
        let Some(chunk) = chunk else { break };
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
            format!("What was sent is larger than the {} that are taken here.", size(limit)),
            "Nothing was recorded. Send less at a time.",
        ));
    }
    Ok(kept.into())
}

fn size(bytes: usize) -> String {
    if bytes < 1 << 20 { format!("{} kB", bytes >> 10) } else { format!("{} MB", bytes >> 20) }
}

/// A raw body of at most `LIMIT` bytes. Whoever was sent away before it was whole is not heard.
pub(crate) struct RawBody<const LIMIT: usize>(pub(crate) Bytes);

impl<const LIMIT: usize> FromRequest<App> for RawBody<LIMIT> {
    type Rejection = Problem;

    async fn from_request(request: Request, app: &App) -> Result<Self, Problem> {
        let visit: Visit = request.extensions().get().cloned().ok_or_else(internal)?;
        let patience = if visit.door == Door::Here { Patience::HERE } else { app.setup.patience };
        let bytes = read(request.into_body(), LIMIT, patience).await?;
        if visit.still(&app.sharing) { Ok(Self(bytes)) } else { Err(sent_away()) }
    }
}

/// A JSON body of at most `LIMIT` bytes.
pub(crate) struct JsonBody<T, const LIMIT: usize>(pub(crate) T);

impl<T: DeserializeOwned, const LIMIT: usize> FromRequest<App> for JsonBody<T, LIMIT> {
    type Rejection = Problem;

    async fn from_request(request: Request, app: &App) -> Result<Self, Problem> {
        let json = request
            .headers()
            .get(header::CONTENT_TYPE)
            .and_then(|t| t.to_str().ok())
            .is_some_and(|t| t.starts_with("application/json"));
        let RawBody(bytes) = RawBody::<LIMIT>::from_request(request, app).await?;
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
    headers.insert("cross-origin-resource-policy", HeaderValue::from_static("same-origin"));
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

    #[test]
    fn a_page_of_another_site_is_told_from_our_own() {
        let asks = |pairs: &[(&'static str, &str)]| {
            let mut headers = HeaderMap::new();
            for (name, value) in pairs {
                headers.insert(*name, HeaderValue::from_str(value).unwrap());
            }
            same_origin(&headers, "127.0.0.1:4750")
        };
        assert!(asks(&[]), "a program that is no browser");
        assert!(asks(&[("sec-fetch-site", "none")]), "an address that was typed");
        assert!(asks(&[("sec-fetch-site", "same-origin"), ("origin", "http://127.0.0.1:4750")]));
        for foreign in [
            &[("sec-fetch-site", "cross-site")][..],
            &[("sec-fetch-site", "same-site")],
            &[("origin", "http://127.0.0.1:4751")],
            &[("origin", "null")],
            &[("sec-fetch-site", "same-origin"), ("origin", "http://evil.example")],
        ] {
            assert!(!asks(foreign), "{foreign:?}");
        }
    }

    #[test]
    fn this_machine_is_known_by_its_names_and_no_other_name_is() {
        for host in [
            "localhost",
            "LOCALHOST",
            "localhost.",
            "localhost:80",
            "Localhost.:4750",
            "127.0.0.1",
            "127.0.0.1:9",
            "[::1]",
            "[::1]:80",
        ] {
            assert!(is_loopback(host), "{host}");
        }
        for host in [
            "",
            "[::1].evil.example",
            "[::1]evil.example",
            "localhost.evil.example",
            "127.0.0.1.evil.example",
            "::1",
            "[::2]",
            "localhost:80:80",
            "evil@localhost",
            "localhost/",
            "localhost evil.example",
            "10.0.0.7",
            "[::1",
            "localhost:port",
        ] {
            assert!(!is_loopback(host), "{host}");
        }
    }

    #[test]
    fn a_size_is_said_in_its_own_unit() {
        assert_eq!((size(COMING_IN_LIMIT), size(FILE_LIMIT)), ("16 kB".into(), "64 MB".into()));
    }
}
