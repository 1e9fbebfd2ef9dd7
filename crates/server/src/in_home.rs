//! A home that a request asks about. What is asked of it is worked out, and written as JSON, off the async threads.

use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::Arc;

use axum::extract::{FromRequestParts, RawPathParams};
use axum::http::request::Parts;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use percent_encoding::{AsciiSet, NON_ALPHANUMERIC, utf8_percent_encode};
use wayfinder_core::HomeId;

use crate::App;
use crate::desk::Opened;
use crate::guard::off_thread;
use crate::problem::{Problem, internal};

/// What is written with its number in the name of a file; letters, digits and these stand as they are.
const AS_IT_IS: &AsciiSet = &NON_ALPHANUMERIC.remove(b'.').remove(b'-').remove(b'_');

/// The path parameter of every route under `/api/homes/{home}`.
#[derive(utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct HomePath {
    /// The id of the home
    #[expect(dead_code, reason = "it describes the parameter, which InHome reads")]
    home: String,
}

/// The home that the path names, as it was published last.
pub(crate) struct InHome {
    pub(crate) id: HomeId,
    pub(crate) opened: Arc<Opened>,
    /// What the asker has already.
    has: Option<HeaderValue>,
}

impl FromRequestParts<App> for InHome {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        let params = RawPathParams::from_request_parts(parts, app).await.map_err(|_| Problem::not_found("home"))?;
        let named = params.iter().find(|(name, _)| *name == "home").map(|(_, home)| home.parse::<HomeId>());
        let Some(Ok(id)) = named else { return Err(Problem::not_found("home")) };
        let opened = match app.desk.at_hand(&id) {
            Some(opened) => opened,
            None => {
                let (desk, id) = (Arc::clone(&app.desk), id.clone());
                off_thread(move || Ok(desk.home(&id)?)).await?
            }
        };
        Ok(Self { id, opened, has: parts.headers.get(header::IF_NONE_MATCH).cloned() })
    }
}

impl InHome {
    /// The last line, which is at hand without working anything out.
    pub(crate) fn seq(&self) -> u64 {
        self.opened.book.seq()
    }

    /// `Content-Disposition` of a file that is named by the home: `Mill Cottage, door card.pdf`. `how`: `inline` or `attachment`.
    pub(crate) fn saved_as(&self, how: &str, rest: &str) -> String {
        let name = format!("{}{rest}", self.opened.study.name().unwrap_or(self.id.as_str()));
        // In plain letters for old readers, and as it is (RFC 6266, RFC 8187) for all others.
        let plain: String =
            name.chars().map(|c| if c.is_ascii_alphanumeric() || " .,-_".contains(c) { c } else { '_' }).collect();
        let whole = utf8_percent_encode(&name, AS_IT_IS);
        format!("{how}; filename=\"{plain}\"; filename*=UTF-8''{whole}")
    }

    /// Works something out.
    pub(crate) async fn ask<T: Send + 'static>(
        self,
        work_out: impl FnOnce(&Opened) -> Result<T, Problem> + Send + 'static,
    ) -> Result<T, Problem> {
        off_thread(move || work_out(&self.opened)).await
    }

    /// Works out an answer and writes it as JSON, with a tag of what it says: whoever has that already is told so and is sent
    /// nothing else. So a new line sends a screen only what the line changed.
    pub(crate) async fn answer<T: serde::Serialize>(
        self,
        work_out: impl FnOnce(&Opened) -> Result<T, Problem> + Send + 'static,
    ) -> Result<Response, Problem> {
        off_thread(move || {
            let json = serde_json::to_vec(&work_out(&self.opened)?).map_err(|error| {
                tracing::error!(%error, "an answer is no JSON");
                internal()
            })?;
            let mut hasher = DefaultHasher::new();
            json.hash(&mut hasher);
            // Weak: it may be compressed on its way.
            let tag = HeaderValue::from_str(&format!("W/\"{:016x}\"", hasher.finish())).map_err(|_| internal())?;
            let mut response = match self.has {
                Some(has) if has == tag => StatusCode::NOT_MODIFIED.into_response(),
                _ => ([(header::CONTENT_TYPE, HeaderValue::from_static("application/json"))], json).into_response(),
            };
            response.headers_mut().insert(header::ETAG, tag);
            response.headers_mut().insert(header::CACHE_CONTROL, HeaderValue::from_static("private, no-cache"));
            Ok(response)
        })
        .await
    }
}
