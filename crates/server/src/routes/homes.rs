//! Answers about a home.

use std::sync::Arc;

use axum::Json;
use axum::extract::{Path, Query, State};
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use wayfinder_core::{
    Card, Evidence, HomeId, HomeOverview, Line, Logbook, MethodMinutes, PanelId, PointId, Progress, TraceView, card, describe,
    findings, method_minutes, overview as look_over, sim::Recipe, trace_together,
};
use wayfinder_formats::{PdfError, Sheet, door_card_pdf, findings_pdf};

use crate::App;
use crate::guard::off_thread;
use crate::problem::{Problem, internal};

/// The program, as it answers for itself.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct Health {
    /// Its version.
    version: String,
    /// It runs with the demo home, which can be reset.
    demo: bool,
    /// The id of the demo home.
    demo_home: String,
}

/// A home in the list.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct HomeInList {
    id: HomeId,
    name: String,
    /// Its panels, in words: `Main panel, 24 spaces`.
    panels: Vec<String>,
    progress: Progress,
    /// What it is drawn from, where it is a made-up house.
    practice: Option<Recipe>,
}

/// A line of the logbook with its words.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct ToldLine {
    /// The line.
    line: Line,
    /// What it records, in words.
    words: String,
    /// It is struck out now.
    struck: bool,
    /// It may be struck out or restored.
    strikable: bool,
}

/// A page of the logbook, newest first.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct LogbookPage {
    lines: Vec<ToldLine>,
    /// Lines in all.
    total: usize,
    /// Ask for lines before this sequence for the next page; `null` at the end.
    before: Option<u64>,
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Paging {
    /// Only lines before this sequence.
    before: Option<u64>,
    /// How many, up to 500.
    limit: Option<usize>,
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Printing {
    /// What to print on: `card` (its true size), `letter` or `a4`.
    sheet: Option<String>,
    /// The date to print, as 2026-11-24; today (UTC) if left out.
    date: Option<String>,
    /// Whose card; the first panel's if left out.
    panel: Option<String>,
}

pub(crate) async fn book(app: &App, home: &str) -> Result<(HomeId, Arc<Logbook>), Problem> {
    let id: HomeId = home.parse().map_err(|_| Problem::not_found("home"))?;
    let desk = Arc::clone(&app.desk);
    off_thread(move || desk.book(&id).map(|book| (id, book)).map_err(Problem::from)).await
}

/// The program answers.
#[utoipa::path(get, path = "/api/health", responses((status = 200, body = Health)))]
pub(crate) async fn health(State(app): State<App>) -> Json<Health> {
    Json(Health { version: env!("CARGO_PKG_VERSION").into(), demo: app.demo, demo_home: crate::DEMO_HOME.into() })
}

/// Every home.
#[utoipa::path(get, path = "/api/homes", responses((status = 200, body = [HomeInList])))]
pub(crate) async fn list(State(app): State<App>) -> Result<Json<Vec<HomeInList>>, Problem> {
    let desk = Arc::clone(&app.desk);
    let books = off_thread(move || desk.books().map_err(Problem::from)).await?;
    let list = books.into_iter().map(|(id, book)| {
        let view = look_over(&id, book.seq(), book.home());
        let panels = view.posts.iter().map(|post| format!("{}, {} spaces", post.panel.name, post.panel.spaces)).collect();
        HomeInList { id, name: view.name, panels, progress: view.progress, practice: view.practice }
    });
    Ok(Json(list.collect()))
}

/// The home as the screens draw it.
#[utoipa::path(get, path = "/api/homes/{home}", params(("home" = String, Path, description = "The id of the home")), responses((status = 200, body = HomeOverview), (status = 404, body = Problem)))]
pub(crate) async fn overview(State(app): State<App>, Path(home): Path<String>) -> Result<Json<HomeOverview>, Problem> {
    let (id, book) = book(&app, &home).await?;
    Ok(Json(look_over(&id, book.seq(), book.home())))
}

/// The logbook, newest first.
#[utoipa::path(get, path = "/api/homes/{home}/logbook", params(("home" = String, Path, description = "The id of the home"), Paging), responses((status = 200, body = LogbookPage), (status = 404, body = Problem)))]
pub(crate) async fn logbook(
    State(app): State<App>,
    Path(home): Path<String>,
    Query(paging): Query<Paging>,
) -> Result<Json<LogbookPage>, Problem> {
    let (_, book) = book(&app, &home).await?;
    let limit = paging.limit.unwrap_or(200).clamp(1, 500);
    let lines: Vec<ToldLine> = book
        .lines()
        .rev()
        .filter(|line| paging.before.is_none_or(|before| line.seq < before))
        .take(limit)
        .map(|line| ToldLine {
            words: describe(&book, line),
            struck: book.is_struck(&line.entry.id),
            strikable: line.entry.fact.is_strikable(),
            line: line.clone(),
        })
        .collect();
    let before = lines.last().map(|told| told.line.seq).filter(|seq| *seq > 1);
    Ok(Json(LogbookPage { total: book.lines().count(), before, lines }))
}

/// The trace: what to do next, and how far it is.
#[utoipa::path(get, path = "/api/homes/{home}/trace", params(("home" = String, Path, description = "The id of the home")), responses((status = 200, body = TraceView), (status = 404, body = Problem)))]
pub(crate) async fn trace(State(app): State<App>, Path(home): Path<String>) -> Result<Json<TraceView>, Problem> {
    let (id, book) = book(&app, &home).await?;
    let walkers = app.sharing.walkers(&id);
    off_thread(move || Ok(Json(trace_together(book.home(), book.seq(), book.home().setup(), &walkers)))).await
}

/// What each way of tracing would take for what is left, in minutes, for the crew and the instruments that are set.
#[utoipa::path(get, path = "/api/homes/{home}/trace/schools", params(("home" = String, Path, description = "The id of the home")), responses((status = 200, body = [MethodMinutes]), (status = 404, body = Problem)))]
pub(crate) async fn schools(State(app): State<App>, Path(home): Path<String>) -> Result<Json<Vec<MethodMinutes>>, Problem> {
    let (_, book) = book(&app, &home).await?;
    off_thread(move || Ok(Json(method_minutes(book.home(), book.home().setup())))).await
}

/// Everything seen at a point, and what follows.
#[utoipa::path(get, path = "/api/homes/{home}/points/{point}/evidence", params(("home" = String, Path, description = "The id of the home"), ("point" = String, Path, description = "The id of the point")), responses((status = 200, body = Evidence), (status = 404, body = Problem)))]
pub(crate) async fn evidence(
    State(app): State<App>,
    Path((home, point)): Path<(String, String)>,
) -> Result<Json<Evidence>, Problem> {
    let (_, book) = book(&app, &home).await?;
    let point: PointId = point.parse().map_err(|_| Problem::not_found("point"))?;
    wayfinder_core::evidence(book.home(), &point).map(Json).ok_or_else(|| Problem::not_found("point"))
}

/// The door card, worded from what is proven.
#[utoipa::path(get, path = "/api/homes/{home}/directory", params(("home" = String, Path, description = "The id of the home"), Printing), responses((status = 200, body = Card), (status = 404, body = Problem)))]
pub(crate) async fn directory(
    State(app): State<App>,
    Path(home): Path<String>,
    Query(printing): Query<Printing>,
) -> Result<Json<Card>, Problem> {
    let (_, book) = book(&app, &home).await?;
    card_of(&book, &printing).map(Json)
}

/// The door card as a one-page PDF.
#[utoipa::path(get, path = "/api/homes/{home}/directory.pdf", params(("home" = String, Path, description = "The id of the home"), Printing), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn directory_pdf(
    State(app): State<App>,
    Path(home): Path<String>,
    Query(printing): Query<Printing>,
) -> Result<Response, Problem> {
    let (id, book) = book(&app, &home).await?;
    let sheet = sheet_of(&printing)?;
    let card = card_of(&book, &printing)?;
    let pdf = off_thread(move || door_card_pdf(&card, sheet).map_err(unwritten)).await?;
    Ok(file(pdf, "application/pdf", &format!("inline; filename=\"door-card-{id}.pdf\"")))
}

/// The whole home as one file.
#[utoipa::path(get, path = "/api/homes/{home}/export", params(("home" = String, Path, description = "The id of the home")), responses((status = 200, body = Vec<u8>, content_type = "application/json"), (status = 404, body = Problem)))]
pub(crate) async fn export(State(app): State<App>, Path(home): Path<String>) -> Result<Response, Problem> {
    let (id, _) = book(&app, &home).await?;
    let (desk, of) = (Arc::clone(&app.desk), id.clone());
    let bytes = off_thread(move || Ok(desk.export(&of)?)).await?;
    Ok(file(bytes, "application/json", &format!("attachment; filename=\"{id}.wayfinder.json\"")))
}

/// Everything worth a look, as a report to print on `letter` or `a4`.
#[utoipa::path(get, path = "/api/homes/{home}/findings.pdf", params(("home" = String, Path, description = "The id of the home"), Printing), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn report(
    State(app): State<App>,
    Path(home): Path<String>,
    Query(printing): Query<Printing>,
) -> Result<Response, Problem> {
    let (id, book) = book(&app, &home).await?;
    let (width, height) = sheet_of(&printing)?.size_mm().or(Sheet::Letter.size_mm()).unwrap_or((215.9, 279.4));
    let date = date_of(&printing)?;
    let pdf = off_thread(move || {
        let home = book.home();
        let panels: Vec<_> = home.panels().all().map(|panel| panel.name.as_str()).collect();
        let about = format!("{}. Revision {}, {date}. Worded by {}.", panels.join(", "), book.seq(), home.edition().name());
        findings_pdf(home.name().unwrap_or_default(), &about, &findings(home), width, height).map_err(unwritten)
    })
    .await?;
    Ok(file(pdf, "application/pdf", &format!("inline; filename=\"findings-{id}.pdf\"")))
}

pub(super) fn unwritten(error: PdfError) -> Problem {
    match error {
        PdfError::TooLarge(..) => unfit("sheet", error.to_string(), ""),
        error => {
            tracing::error!(%error, "no PDF");
            internal()
        }
    }
}

fn sheet_of(printing: &Printing) -> Result<Sheet, Problem> {
    match printing.sheet.as_deref() {
        None | Some("card") => Ok(Sheet::Card),
        Some("letter") => Ok(Sheet::Letter),
        Some("a4") => Ok(Sheet::A4),
        Some(other) => Err(unfit("sheet", format!("“{other}” is no paper."), "Use card, letter or a4.")),
    }
}

fn date_of(printing: &Printing) -> Result<String, Problem> {
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

fn card_of(book: &Logbook, printing: &Printing) -> Result<Card, Problem> {
    let date = date_of(printing)?;
    let panel = match &printing.panel {
        Some(panel) => panel.parse::<PanelId>().ok(),
        None => book.home().panels().all().next().map(|panel| panel.id.clone()),
    };
    panel.and_then(|panel| card(book.home(), &panel, book.seq(), &date)).ok_or_else(|| Problem::not_found("panel"))
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
