//! Answers about a home.

use std::collections::BTreeSet;
use std::sync::Arc;

use axum::Json;
use axum::extract::{Path, State};
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use wayfinder_core::{
    BreakerId, ChangedSince, Changes, Checks, Evidence, HomeNow, InWords, KnownPoints, Letter, Line, LineFilter, LinesWanted,
    MethodMinutes, Moment, PanelView, PointId, RoomId, Topic, TraceView, changes, checks as checks_of, evidence as evidence_of,
    home_now, known_points, letter as letter_of, method_minutes_while, panel_views, trace_together,
};
use wayfinder_formats::{PdfError, Sheet, findings_pdf};

use crate::App;
use crate::guard::{Asked, FILE_LIMIT, off_thread};
use crate::in_home::{HomePath, InHome};
use crate::problem::{Problem, internal};
use crate::slow::{Question, SoFar};

/// The program, as it answers for itself.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct Health {
    /// Its version.
    version: String,
    /// It runs with the demo home, which can be reset.
    demo: bool,
    /// The id of the demo home.
    demo_home: String,
    /// Told anew at each start: two addresses with the same one are the same running program.
    run: String,
}

/// A line of the logbook with its words.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct WordedLine {
    /// The line.
    line: Line,
    /// What it records, in words.
    words: String,
    /// With what it was seen: `plug-in tester`.
    with: Option<String>,
    /// It is struck out now.
    struck: bool,
    /// It may be struck out or restored.
    strikable: bool,
}

/// A page of the logbook, newest first.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct LogbookPage {
    lines: Vec<WordedLine>,
    /// Lines in all.
    total: usize,
    /// How many of them are wanted.
    wanted: usize,
    /// Everybody who wrote a line, by name.
    people: Vec<String>,
    /// Ask for lines before this sequence for the next page; `null` at the end.
    before: Option<u64>,
}

/// Which lines are asked for; what is left out counts for all.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Paging {
    /// Only lines before this sequence.
    before: Option<u64>,
    /// How many, up to 500.
    limit: Option<usize>,
    /// Only lines after this sequence.
    after: Option<u64>,
    /// Only lines with these words, in any order.
    text: Option<String>,
    /// Only lines by this person.
    by: Option<String>,
    /// Only lines about this room or a point in it.
    room: Option<RoomId>,
    /// Only lines about this breaker or a point that is proven on it.
    breaker: Option<BreakerId>,
    /// Only lines about this.
    topic: Option<Topic>,
}

/// Since when: a moment, or somebody's last visit.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct ChangesSince {
    /// Since this moment, in milliseconds since 1970 UTC.
    since: Option<i64>,
    /// Or since the last visit of this person.
    visit: Option<String>,
    /// The clock of whoever asks, in milliseconds since 1970 UTC: it tells a visit that goes on from one that is over.
    now: Option<i64>,
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Printing {
    /// What to print on: `card` (its true size), `letter` or `a4`.
    pub(super) sheet: Option<String>,
    /// The date to print, as 2026-11-24; today (UTC) if left out.
    pub(super) date: Option<String>,
    /// Whose card; the first panel's if left out.
    pub(super) panel: Option<String>,
    /// By what the card is colored: `load` (what the biggest load does, with its letter), `amps` or `none`.
    pub(super) colors: Option<String>,
    /// Who prints it, as it stands on the card.
    pub(super) by: Option<String>,
}

/// The program answers.
#[utoipa::path(get, path = "/api/health", responses((status = 200, body = Health)))]
pub(crate) async fn health(State(app): State<App>) -> Json<Health> {
    Json(Health {
        version: env!("CARGO_PKG_VERSION").into(),
        demo: app.setup.demo,
        demo_home: crate::DEMO_HOME.into(),
        run: app.run.to_string(),
    })
}

/// What every screen shows of the home: what is off now, which clocks run, how far the trace is.
#[utoipa::path(get, path = "/api/homes/{home}", params(HomePath), responses((status = 200, body = HomeNow), (status = 404, body = Problem)))]
pub(crate) async fn now(home: InHome) -> Result<Response, Problem> {
    let id = home.id.clone();
    home.answer(move |opened| Ok(home_now(&id, &opened.study))).await
}

/// The front page of the home as a letter: what matters most first, each with one thing to do.
#[utoipa::path(get, path = "/api/homes/{home}/letter", params(HomePath), responses((status = 200, body = Letter), (status = 404, body = Problem)))]
pub(crate) async fn letter(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| Ok(letter_of(&opened.study))).await
}

/// Its panels as they hang there, in the order of entry.
#[utoipa::path(get, path = "/api/homes/{home}/panels", params(HomePath), responses((status = 200, body = [PanelView]), (status = 404, body = Problem)))]
pub(crate) async fn panels(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| Ok(panel_views(&opened.study).to_vec())).await
}

/// Its rooms and points, with what is known of each.
#[utoipa::path(get, path = "/api/homes/{home}/points", params(HomePath), responses((status = 200, body = KnownPoints), (status = 404, body = Problem)))]
pub(crate) async fn points(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| Ok(known_points(&opened.study))).await
}

/// What is worth a look, the gravest first.
#[utoipa::path(get, path = "/api/homes/{home}/checks", params(HomePath), responses((status = 200, body = Checks), (status = 404, body = Problem)))]
pub(crate) async fn checks(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| Ok(checks_of(&opened.study))).await
}

/// The logbook, newest first.
#[utoipa::path(get, path = "/api/homes/{home}/logbook", params(HomePath, Paging), responses((status = 200, body = LogbookPage), (status = 404, body = Problem)))]
pub(crate) async fn logbook(home: InHome, Asked(paging): Asked<Paging>) -> Result<Response, Problem> {
    let limit = paging.limit.unwrap_or(200).clamp(1, 500);
    home.answer(move |opened| {
        let book = &opened.book;
        let words = InWords::of(book);
        let wanted = LinesWanted {
            after: paging.after.unwrap_or_default(),
            text: paging.text.unwrap_or_default(),
            by: paging.by,
            room: paging.room,
            breaker: paging.breaker,
            topic: paging.topic,
        };
        let filter = LineFilter::of(book, &opened.study, &words, &wanted);
        let found: Vec<&Line> = if wanted == LinesWanted::default() {
            book.lines().rev().collect()
        } else {
            book.lines().rev().filter(|line| filter.wants(line)).collect()
        };
        let older = || found.iter().filter(|line| paging.before.is_none_or(|before| line.seq < before));
        let lines: Vec<WordedLine> = older()
            .take(limit)
            .map(|line| WordedLine {
                words: words.line(line),
                with: line.entry.instrument.map(|instrument| instrument.words().to_owned()),
                struck: book.is_struck(&line.entry.id),
                strikable: line.entry.fact.is_strikable(),
                line: (*line).clone(),
            })
            .collect();
        let before = older().nth(limit).and(lines.last()).map(|worded| worded.line.seq);
        let people: BTreeSet<&str> = book.lines().map(|line| line.entry.by.as_str()).collect();
        let people = people.into_iter().map(str::to_owned).collect();
        Ok(LogbookPage { total: book.lines().count(), wanted: found.len(), people, before, lines })
    })
    .await
}

/// What is otherwise than it was, since a moment or since somebody's last visit; since the first line where neither is said.
#[utoipa::path(get, path = "/api/homes/{home}/changes", params(HomePath, ChangesSince), responses((status = 200, body = Changes), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn changed(home: InHome, Asked(asked): Asked<ChangesSince>) -> Result<Response, Problem> {
    home.answer(move |opened| {
        let after = match (asked.since, asked.visit) {
            (Some(since), _) => ChangedSince::Moment(Moment::from_unix_ms(since)).last_before(&opened.book),
            (None, Some(by)) => {
                let now = Moment::from_unix_ms(asked.now.unwrap_or(i64::MAX));
                ChangedSince::Visit { by, now }.last_before(&opened.book)
            }
            (None, None) => 0,
        };
        Ok(changes(&opened.book, &opened.study, after)?)
    })
    .await
}

/// The trace: what to do next, and how far it is.
#[utoipa::path(get, path = "/api/homes/{home}/trace", params(HomePath), responses((status = 200, body = TraceView), (status = 404, body = Problem)))]
pub(crate) async fn trace(State(app): State<App>, home: InHome) -> Result<Response, Problem> {
    let walkers = app.sharing.walkers(&home.id);
    home.answer(move |opened| Ok(trace_together(&opened.study, opened.study.setup(), &walkers))).await
}

/// What each method would take, or how far that is worked out.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct MethodsSoFar {
    /// Each method with its minutes, once they are worked out; none where nothing is left to trace.
    methods: Option<Vec<MethodMinutes>>,
    /// So many parts are done
    done: usize,
    /// of so many; 0 where it has not begun.
    of: usize,
}

/// What each method would take for what is left, in minutes, for the crew and the instruments that are set. In a large home that takes
/// seconds to work out: ask again every second until the answer is there. It is worked out once for all who ask, and no longer
/// than somebody asks.
#[utoipa::path(get, path = "/api/homes/{home}/trace/methods", params(HomePath), responses((status = 200, body = MethodsSoFar), (status = 404, body = Problem)))]
pub(crate) async fn methods(State(app): State<App>, home: InHome) -> Result<Json<MethodsSoFar>, Problem> {
    let question = Question { home: home.id.clone(), what: "methods", seq: home.seq() };
    let opened = home.opened;
    let so_far = app.slow.ask(question, move |go_on| method_minutes_while(&opened.study, opened.study.setup(), go_on)).await?;
    Ok(Json(match so_far {
        SoFar::Answer(methods) => MethodsSoFar { methods: Some(methods.to_vec()), done: 1, of: 1 },
        SoFar::UnderWay { done, of } => MethodsSoFar { methods: None, done, of },
    }))
}

/// A point by its id.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct PointPath {
    /// The id of the point
    point: String,
}

/// Everything seen at a point, and what follows.
#[utoipa::path(get, path = "/api/homes/{home}/points/{point}/evidence", params(HomePath, PointPath), responses((status = 200, body = Evidence), (status = 404, body = Problem)))]
pub(crate) async fn evidence(home: InHome, Path(PointPath { point }): Path<PointPath>) -> Result<Response, Problem> {
    let point: PointId = point.parse().map_err(|_| Problem::not_found("point"))?;
    home.answer(move |opened| evidence_of(&opened.study, &point).ok_or_else(|| Problem::not_found("point"))).await
}

/// A whole home as a file: every line, every photo.
#[derive(utoipa::ToSchema)]
#[expect(dead_code, reason = "it describes the file, which the crate of the formats writes and reads")]
pub(crate) struct HomeFile {
    /// Always `wayfinder-home`.
    format: String,
    /// The version of the file's shape: 1 without photos, 2 with them.
    version: u32,
    /// The home's id.
    home: wayfinder_core::HomeId,
    /// Every line, in order.
    lines: Vec<wayfinder_core::Line>,
    /// Its photos; not there where it has none.
    photos: Option<Vec<PhotoInFile>>,
}

/// A photo in the file.
#[derive(utoipa::ToSchema)]
#[expect(dead_code, reason = "it describes the file, which the crate of the formats writes and reads")]
pub(crate) struct PhotoInFile {
    /// Its id.
    id: wayfinder_core::PhotoId,
    /// `image/jpeg`, `image/png` or `image/webp`.
    media: String,
    /// The bytes, as base64.
    base64: String,
}

/// For whom a home is written.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct ForWhom {
    /// For a new owner: whoever began the logbook keeps their name, everybody else is `Helper`, `Helper 2` and so on.
    #[serde(default)]
    without_names: bool,
}

/// The whole home as one file. One that is too large to be taken in again here is not written; the command line has no such bound.
#[utoipa::path(get, path = "/api/homes/{home}/export", params(HomePath, ForWhom), responses((status = 200, body = HomeFile, content_type = "application/json"), (status = 404, body = Problem), (status = 413, body = Problem)))]
pub(crate) async fn export(State(app): State<App>, home: InHome, Asked(for_whom): Asked<ForWhom>) -> Result<Response, Problem> {
    let (desk, id) = (Arc::clone(&app.desk), home.id.clone());
    let without_names = for_whom.without_names;
    let disposition = home.saved_as("attachment", ".wayfinder.json");
    let bytes = off_thread(move || Ok(desk.export(&id, without_names)?)).await?;
    can_be_taken_in(bytes.len())?;
    Ok(file(bytes, "application/json", &disposition))
}

/// A file that this program would not take in again is no copy of a home.
fn can_be_taken_in(bytes: usize) -> Result<(), Problem> {
    if bytes <= FILE_LIMIT {
        return Ok(());
    }
    Err(Problem::new(
        StatusCode::PAYLOAD_TOO_LARGE,
        "too_large",
        format!("The file of this home would have {} MB; at most {} MB are taken in again here.", bytes >> 20, FILE_LIMIT >> 20),
        "Nothing was written. At the machine itself `wayfinder export` writes it, and `wayfinder import` takes it in.",
    ))
}

/// Everything worth a look, as a report to print on `letter` or `a4`.
#[utoipa::path(get, path = "/api/homes/{home}/findings.pdf", params(HomePath, Printing), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn report(home: InHome, Asked(printing): Asked<Printing>) -> Result<Response, Problem> {
    let (width, height) = sheet_of(&printing)?.size_mm().or(Sheet::Letter.size_mm()).unwrap_or((215.9, 279.4));
    let date = date_of(&printing)?;
    let disposition = home.saved_as("inline", ", worth a look.pdf");
    let pdf = home
        .ask(move |opened| {
            let home = &opened.study;
            let panels: Vec<_> = home.panels().all().map(|panel| panel.name.as_str()).collect();
            let about = format!("{}. Revision {}, {date}. Worded by {}.", panels.join(", "), home.seq(), home.edition().name());
            findings_pdf(home.name().unwrap_or_default(), &about, &checks_of(home), width, height).map_err(unwritten)
        })
        .await?;
    Ok(file(pdf, "application/pdf", &disposition))
}

pub(super) fn unwritten(error: PdfError) -> Problem {
    match error {
        PdfError::TooLarge(..) | PdfError::BadSheet(_) => unfit("sheet", error.to_string(), ""),
        PdfError::TooSmall(small) => unfit("panel", small.wrong, &small.advice),
        error => {
            tracing::error!(%error, "no PDF");
            internal()
        }
    }
}

pub(super) fn sheet_of(printing: &Printing) -> Result<Sheet, Problem> {
    match printing.sheet.as_deref() {
        None | Some("card") => Ok(Sheet::Card),
        Some("letter") => Ok(Sheet::Letter),
        Some("a4") => Ok(Sheet::A4),
        Some(other) => Err(unfit("sheet", format!("“{other}” is no paper."), "Use card, letter or a4.")),
    }
}

pub(super) fn date_of(printing: &Printing) -> Result<String, Problem> {
    date_of_text(printing.date.as_deref())
}

/// The date to print; today (UTC) where none is said.
pub(super) fn date_of_text(date: Option<&str>) -> Result<String, Problem> {
    match date {
        None => Ok(time::OffsetDateTime::now_utc().date().to_string()),
        Some(date) if date.len() == 10 && date.bytes().all(|b| b.is_ascii_digit() || b == b'-') => Ok(date.to_owned()),
        Some(date) => Err(unfit("date", format!("“{date}” is no date."), "Write it as 2026-11-24.")),
    }
}

pub(super) fn unfit(field: &str, title: String, accepted: &str) -> Problem {
    let mut problem =
        Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "unfit", title, format!("{accepted} Nothing was changed.").trim());
    problem.field = Some(field.into());
    problem
}

pub(super) fn file(bytes: Vec<u8>, kind: &'static str, disposition: &str) -> Response {
    let mut response = bytes.into_response();
    response.headers_mut().insert(header::CONTENT_TYPE, HeaderValue::from_static(kind));
    if let Ok(value) = HeaderValue::from_str(disposition) {
        response.headers_mut().insert(header::CONTENT_DISPOSITION, value);
    }
    response
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_file_that_would_not_be_taken_in_again_is_not_written() {
        assert!(can_be_taken_in(FILE_LIMIT).is_ok());
        let refused = can_be_taken_in(FILE_LIMIT + 1).expect_err("it is too large");
        assert!(refused.title.contains("at most 64 MB") && refused.detail.contains("wayfinder export"));
    }
}
