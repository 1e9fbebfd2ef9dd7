//! The home book as a PDF: at once, or with word of what is being made.

use std::convert::Infallible;

use axum::body::{Body, Bytes};
use axum::http::{HeaderValue, header};
use axum::response::{IntoResponse, Response};
use base64::Engine;
use tokio::sync::mpsc;
use tokio_stream::wrappers::ReceiverStream;
use wayfinder_core::{BookPart, Printed, Study};
use wayfinder_formats::{BookAsked, CardColors, PdfError, Sheet, home_book_pdf};

use super::directory::{by_of_text, colors_named};
use super::homes::{date_of_text, file, unfit, unwritten};
use crate::guard::Asked;
use crate::in_home::{HomePath, InHome};
use crate::problem::Problem;

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct BookPrinting {
    /// The parts by their names, with commas between: `safety`, `cards`, `plans`, `circuits`, `rooms`, `equipment`, `tests`,
    /// `findings`, `open`, `legend`; all of them if left out.
    parts: Option<String>,
    /// What to print on: `letter` or `a4`; Letter if left out.
    paper: Option<String>,
    /// By what the cards are colored: `load`, `amps` or `none`.
    colors: Option<String>,
    /// The date to print, as 2026-11-24; today (UTC) if left out.
    date: Option<String>,
    /// Who prints it.
    by: Option<String>,
}

/// What was asked, read.
struct Read {
    parts: Vec<BookPart>,
    paper: Sheet,
    colors: CardColors,
    date: String,
    by: String,
}

impl BookPrinting {
    fn read(self) -> Result<Read, Problem> {
        let parts = match self.parts.as_deref() {
            None => BookPart::ALL.to_vec(),
            Some(names) => names
                .split(',')
                .map(|name| {
                    let all = BookPart::ALL.map(BookPart::name).join(", ");
                    BookPart::named(name.trim())
                        .ok_or_else(|| unfit("parts", format!("The book has no part “{name}”."), &format!("It has {all}.")))
                })
                .collect::<Result<_, _>>()?,
        };
        let paper = match self.paper.as_deref() {
            None | Some("letter") => Sheet::Letter,
            Some("a4") => Sheet::A4,
            Some(other) => return Err(unfit("paper", format!("“{other}” is no paper for a book."), "Use letter or a4.")),
        };
        Ok(Read {
            parts,
            paper,
            colors: colors_named(self.colors.as_deref())?,
            date: date_of_text(self.date.as_deref())?,
            by: by_of_text(self.by.as_deref())?.to_owned(),
        })
    }
}

impl Read {
    fn pdf(&self, home: &Study, tell: &mut dyn FnMut(&str, usize, usize)) -> Result<Vec<u8>, PdfError> {
        let printed = Printed { date: &self.date, by: &self.by };
        let asked = BookAsked { parts: &self.parts, paper: self.paper, colors: self.colors, printed };
        home_book_pdf(home, &asked, tell)
    }

    /// `, home book, revision 57.pdf`.
    fn file_name(&self, revision: u64) -> String {
        let what = match self.parts.as_slice() {
            [part] => part.title(),
            _ => "home book",
        };
        format!(", {what}, revision {revision}.pdf")
    }
}

/// The home book, or some of its parts.
#[utoipa::path(get, path = "/api/homes/{home}/book.pdf", params(HomePath, BookPrinting), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn book_pdf(home: InHome, Asked(asked): Asked<BookPrinting>) -> Result<Response, Problem> {
    let read = asked.read()?;
    let disposition = home.saved_as("inline", &read.file_name(home.seq()));
    let pdf = home.ask(move |opened| read.pdf(&opened.study, &mut |_, _, _| {}).map_err(unwritten)).await?;
    Ok(file(pdf, "application/pdf", &disposition))
}

/// The same with word of what is being made: lines of JSON, `{"making": "By circuit", "done": 3, "of": 11}` for each piece, then
/// `{"pdf": "…"}` in base64, or `{"problem": "…"}`.
#[utoipa::path(get, path = "/api/homes/{home}/book", params(HomePath, BookPrinting), responses((status = 200, body = String, content_type = "application/x-ndjson"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn book(home: InHome, Asked(asked): Asked<BookPrinting>) -> Result<Response, Problem> {
    let read = asked.read()?;
    let (send, lines) = mpsc::channel::<Result<Bytes, Infallible>>(32);
    tokio::task::spawn_blocking(move || {
        let say = |line: serde_json::Value| drop(send.blocking_send(Ok(Bytes::from(format!("{line}\n")))));
        let mut tell = |making: &str, done: usize, of: usize| {
            say(serde_json::json!({ "making": making, "done": done, "of": of }));
        };
        let made = read.pdf(&home.opened.study, &mut tell);
        say(match made {
            Ok(pdf) => serde_json::json!({ "pdf": base64::engine::general_purpose::STANDARD.encode(pdf) }),
            Err(error) => {
                tracing::error!(%error, "no home book");
                serde_json::json!({ "problem": "The book could not be made. Nothing was changed." })
            }
        });
    });
    let mut response = Body::from_stream(ReceiverStream::new(lines)).into_response();
    response.headers_mut().insert(header::CONTENT_TYPE, HeaderValue::from_static("application/x-ndjson"));
    response.headers_mut().insert(header::CACHE_CONTROL, HeaderValue::from_static("private, no-store"));
    Ok(response)
}
