//! What a client is told when it cannot be done: one shape, `application/problem+json`.

use axum::Json;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use wayfinder_core::{EntryId, Refusal, RefusalCode};
use wayfinder_store::StoreError;

use crate::DeskError;
use crate::guard::sent_away;

/// A problem, as RFC 9457 has it, with what a form needs beside.
#[derive(Debug, serde::Serialize, utoipa::ToSchema)]
pub(crate) struct Problem {
    /// The HTTP status.
    pub(crate) status: u16,
    /// The kind, for programs: `occupied`, `unknown`, `too_large` …
    pub(crate) code: String,
    /// What is wrong, as a sentence.
    pub(crate) title: String,
    /// What was kept and what would be accepted.
    pub(crate) detail: String,
    /// The field at fault, if one is.
    pub(crate) field: Option<String>,
    /// The entry that was refused.
    pub(crate) entry: Option<EntryId>,
    /// Lines that stand in the way: strike them out together.
    pub(crate) lines: Vec<EntryId>,
    /// Where it is now, if it has gone to another server.
    pub(crate) moved_to: Option<String>,
}

impl Problem {
    pub(crate) fn new(status: StatusCode, code: &str, title: impl Into<String>, detail: impl Into<String>) -> Self {
        Self {
            status: status.as_u16(),
            code: code.into(),
            title: title.into(),
            detail: detail.into(),
            field: None,
            entry: None,
            lines: Vec::new(),
            moved_to: None,
        }
    }

    pub(crate) fn busy() -> Self {
        Self::new(
            StatusCode::SERVICE_UNAVAILABLE,
            "busy",
            "Too much is asked for at once.",
            "Nothing was changed. Wait ten seconds, then try again.",
        )
    }

    pub(crate) fn no_such_method() -> Self {
        Self::new(
            StatusCode::METHOD_NOT_ALLOWED,
            "method",
            "This address cannot be asked in that way.",
            "Nothing was changed. The addresses are described at /api/openapi.json.",
        )
    }

    pub(crate) fn not_found(what: &str) -> Self {
        Self::new(StatusCode::NOT_FOUND, "unknown", format!("There is no such {what}."), "Nothing was changed.")
    }
}

impl IntoResponse for Problem {
    fn into_response(self) -> Response {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let mut response = (status, Json(self)).into_response();
        response.headers_mut().insert(header::CONTENT_TYPE, HeaderValue::from_static("application/problem+json"));
        if status == StatusCode::SERVICE_UNAVAILABLE {
            response.headers_mut().insert(header::RETRY_AFTER, HeaderValue::from_static("10"));
        }
        response
    }
}

impl From<Refusal> for Problem {
    fn from(refusal: Refusal) -> Self {
        let status = match refusal.code {
            RefusalCode::LinesDepend | RefusalCode::OffSetChanged | RefusalCode::IdTaken => StatusCode::CONFLICT,
            _ => StatusCode::UNPROCESSABLE_ENTITY,
        };
        let code = serde_json::to_value(refusal.code).ok().and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default();
        Self {
            status: status.as_u16(),
            code,
            title: refusal.wrong,
            detail: format!("{} Nothing was recorded; all that was there is kept.", refusal.accepted),
            field: Some(refusal.field),
            entry: refusal.entry,
            lines: refusal.lines,
            moved_to: None,
        }
    }
}

impl From<DeskError> for Problem {
    fn from(error: DeskError) -> Self {
        let kept = "Nothing was changed.";
        match error {
            DeskError::Refused(refusal) => refusal.into(),
            DeskError::NoSuchHome => Self::not_found("home"),
            DeskError::Deleted => Self::new(
                StatusCode::GONE,
                "deleted",
                "This home was deleted.",
                "The owner can take it back on the page of homes, for 30 days.",
            ),
            DeskError::Moved(ref to) => Self {
                moved_to: Some(to.clone()),
                ..Self::new(
                    StatusCode::GONE,
                    "moved",
                    error.to_string(),
                    "Go on there. A helper needs a code of that place. What was not recorded yet has to be recorded there.",
                )
            },
            DeskError::HasGrown { .. } => Self::new(StatusCode::CONFLICT, "has_grown", error.to_string(), kept),
            DeskError::Damaged(damage) => Self::new(
                StatusCode::INTERNAL_SERVER_ERROR,
                "damaged",
                format!("This home is damaged: {damage}."),
                "The other homes work, and nothing more is written into this one. The page of homes says what can be done.",
            ),
            DeskError::NotToBeReadBack(_) => Self::new(
                StatusCode::INTERNAL_SERVER_ERROR,
                "not_to_be_read_back",
                error.to_string(),
                "Nothing was changed. Make a copy of the whole data folder with `wayfinder backup`.",
            ),
            DeskError::SentAway => sent_away(),
            DeskError::NotForHelpers => Self::new(
                StatusCode::FORBIDDEN,
                "not_for_helpers",
                error.to_string(),
                "Nothing was recorded. Tell the owner what you found.",
            ),
            DeskError::OtherTime => Self::new(
                StatusCode::FORBIDDEN,
                "other_time",
                error.to_string(),
                "Nothing was recorded. Look again and write it anew; set the clock of this device if it is wrong.",
            ),
            DeskError::HomeIsHere => Self::new(StatusCode::CONFLICT, "home_is_here", error.to_string(), kept),
            DeskError::Store(error) => error.as_ref().into(),
        }
    }
}

impl From<&StoreError> for Problem {
    fn from(error: &StoreError) -> Self {
        match error {
            StoreError::Full => {
                let said = "The disk is full.";
                Self::new(
                    StatusCode::INSUFFICIENT_STORAGE,
                    "disk_full",
                    said,
                    "Nothing was recorded and nothing was lost. Make room and try again.",
                )
            }
            StoreError::PhotoTaken { .. } => Self::new(
                StatusCode::CONFLICT,
                "id_taken",
                error.to_string(),
                "Give each photo an id of its own. Nothing was changed.",
            ),
            error => {
                tracing::error!(%error, "the store failed");
                internal()
            }
        }
    }
}

/// Our own fault: logged, not shown.
pub(crate) fn internal() -> Problem {
    Problem::new(
        StatusCode::INTERNAL_SERVER_ERROR,
        "internal",
        "Something went wrong in Wayfinder itself.",
        "What was recorded before is kept. Try again; the program's log says more.",
    )
}
