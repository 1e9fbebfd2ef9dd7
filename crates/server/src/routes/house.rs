//! Answers about the house: the plan and its files, edits proposed, a room walked, anything found.

use axum::Json;
use axum::extract::{Path, Query, State};
use axum::response::Response;
use wayfinder_core::{
    Fact, Found, Plan, PlanFloor, Proposal, RoomId, RoomWalk, SymbolDrawing, Wish, find as find_in, plan as plan_of,
    propose as propose_to, room_walk as walk_of, take_drawing,
};
use wayfinder_formats::{DxfError, Paper, PlanRequest, PlanSheet, plan_pdf, plan_sheet, plan_svg, read_plan_dxf, write_plan_dxf};

use super::homes::{book, date_of_text, file, unfit, unwritten};
use crate::App;
use crate::guard::{ENTRIES_LIMIT, JsonBody, RawBody, off_thread};
use crate::problem::{Problem, internal};

/// The largest drawing file that is taken.
const DRAWING_LIMIT: usize = 16 << 20;

/// The house plan as it is drawn, by the logbook's last line.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct PlanNow {
    /// The last line this follows from.
    seq: u64,
    #[serde(flatten)]
    plan: Plan,
}

/// The house plan as it is drawn.
#[utoipa::path(get, path = "/api/homes/{home}/plan", params(("home" = String, Path, description = "The id of the home")), responses((status = 200, body = PlanNow), (status = 404, body = Problem)))]
pub(crate) async fn plan(State(app): State<App>, Path(home): Path<String>) -> Result<Json<PlanNow>, Problem> {
    let (_, book) = book(&app, &home).await?;
    off_thread(move || Ok(Json(PlanNow { seq: book.seq(), plan: plan_of(book.home()) }))).await
}

/// Works out the entries for something typed or tapped on the plan. Writes nothing.
#[utoipa::path(post, path = "/api/homes/{home}/plan/propose", params(("home" = String, Path, description = "The id of the home")), request_body = Wish, responses((status = 200, body = Proposal), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn propose(
    State(app): State<App>,
    Path(home): Path<String>,
    JsonBody(wish): JsonBody<Wish, ENTRIES_LIMIT>,
) -> Result<Json<Proposal>, Problem> {
    let (_, book) = book(&app, &home).await?;
    off_thread(move || Ok(Json(propose_to(book.home(), &wish)?))).await
}

/// A room as it is walked: its points in order, the last look at each, where to go next.
#[utoipa::path(get, path = "/api/homes/{home}/rooms/{room}/walk", params(("home" = String, Path, description = "The id of the home"), ("room" = String, Path, description = "The id of the room")), responses((status = 200, body = RoomWalk), (status = 404, body = Problem)))]
pub(crate) async fn room_walk(
    State(app): State<App>,
    Path((home, room)): Path<(String, String)>,
) -> Result<Json<RoomWalk>, Problem> {
    let (_, book) = book(&app, &home).await?;
    let room: RoomId = room.parse().map_err(|_| Problem::not_found("room"))?;
    off_thread(move || walk_of(book.home(), &room).map(Json).ok_or_else(|| Problem::not_found("room"))).await
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Sought {
    /// A few letters, or a number.
    q: String,
}

/// Finds rooms, points, breakers and what the old card says, with what feeds what.
#[utoipa::path(get, path = "/api/homes/{home}/find", params(("home" = String, Path, description = "The id of the home"), Sought), responses((status = 200, body = [Found]), (status = 404, body = Problem)))]
pub(crate) async fn find(
    State(app): State<App>,
    Path(home): Path<String>,
    Query(sought): Query<Sought>,
) -> Result<Json<Vec<Found>>, Problem> {
    let (_, book) = book(&app, &home).await?;
    let text: String = sought.q.chars().take(100).collect();
    off_thread(move || Ok(Json(find_in(book.home(), &text)))).await
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Drawing {
    /// Which floor; for `pdf` every floor if left out, else the first.
    floor: Option<String>,
    /// 1 to so many; the largest that fits if left out.
    scale: Option<u32>,
    /// `letter`, `a4`, `tabloid` or `a3`; by the home's units if left out.
    paper: Option<String>,
    /// The date to print, as 2026-11-24; today (UTC) if left out.
    date: Option<String>,
}

/// The plan as a file: `pdf` and `svg` at a stated scale with legend and date, `dxf` in millimeters.
#[utoipa::path(get, path = "/api/homes/{home}/plan/file/{format}", params(("home" = String, Path, description = "The id of the home"), ("format" = String, Path, description = "pdf, svg or dxf"), Drawing), responses((status = 200, body = Vec<u8>, content_type = "application/octet-stream"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn plan_file(
    State(app): State<App>,
    Path((home, format)): Path<(String, String)>,
    Query(drawing): Query<Drawing>,
) -> Result<Response, Problem> {
    let (id, book) = book(&app, &home).await?;
    let date = date_of_text(drawing.date.as_deref())?;
    off_thread(move || {
        let plan = plan_of(book.home());
        let paper = match (drawing.paper.as_deref(), plan.units) {
            (Some("letter"), _) | (None, wayfinder_core::Units::FeetInches) => Paper::Letter,
            (Some("a4"), _) | (None, wayfinder_core::Units::Metric) => Paper::A4,
            (Some("tabloid"), _) => Paper::Tabloid,
            (Some("a3"), _) => Paper::A3,
            (Some(other), _) => {
                return Err(unfit("paper", format!("“{other}” is no paper."), "Use letter, a4, tabloid or a3."));
            }
        };
        let home = book.home().name().unwrap_or_default().to_owned();
        let request = PlanRequest { home: home.clone(), date, paper, scale: drawing.scale };
        let floors: Vec<&PlanFloor> = match &drawing.floor {
            Some(name) => plan.floors.iter().filter(|floor| &floor.name == name).collect(),
            None => plan.floors.iter().filter(|floor| !floor.rooms.is_empty()).collect(),
        };
        let Some(first) = floors.first().copied() else {
            return Err(match &drawing.floor {
                Some(_) => Problem::not_found("floor"),
                None => unfit("floor", "Nothing is drawn yet.".into(), "Give a room its size first."),
            });
        };
        let sheet = |floor: &PlanFloor| -> Result<PlanSheet, Problem> {
            plan_sheet(&plan, floor, &request).map_err(|error| unfit("scale", error.to_string(), ""))
        };
        let named = |extension: &str| format!("inline; filename=\"plan-{id}.{extension}\"");
        match format.as_str() {
            "pdf" => {
                let sheets = floors.iter().map(|floor| sheet(floor)).collect::<Result<Vec<_>, _>>()?;
                let pdf = plan_pdf(&format!("{home}: plan"), &sheets).map_err(unwritten)?;
                Ok(file(pdf, "application/pdf", &named("pdf")))
            }
            "svg" => Ok(file(plan_svg(&sheet(first)?).into_bytes(), "image/svg+xml", &named("svg"))),
            "dxf" => {
                let bytes = write_plan_dxf(&plan, first).map_err(|error| {
                    tracing::error!(%error, "no drawing");
                    internal()
                })?;
                let disposition = format!("attachment; filename=\"plan-{id}.dxf\"");
                Ok(file(bytes, "image/vnd.dxf", &disposition))
            }
            _ => Err(Problem::not_found("format")),
        }
    })
    .await
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Taking {
    /// The floor that the drawing shows.
    floor: String,
    /// How many millimeters the drawing's unit is, where the file says it wrongly.
    unit_mm: Option<f64>,
}

/// A drawing file as understood.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct DrawingRead {
    /// The unit of the drawing, in words.
    unit: String,
    /// How many rooms were found.
    rooms: usize,
    /// How many points were found.
    points: usize,
    /// What was left out and why.
    left_out: Vec<String>,
    /// The entries that would record it.
    facts: Vec<Fact>,
    /// The floor as it would be.
    preview: PlanFloor,
    /// The symbols that the preview uses.
    symbols: Vec<SymbolDrawing>,
    /// What would want a look.
    notes: Vec<String>,
}

/// Reads a drawing (DXF as text, up to 16 MB): closed polylines become rooms, blocks with known names points. Writes
/// nothing.
#[utoipa::path(post, path = "/api/homes/{home}/plan/drawing", params(("home" = String, Path, description = "The id of the home"), Taking), request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses((status = 200, body = DrawingRead), (status = 404, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn read_drawing(
    State(app): State<App>,
    Path(home): Path<String>,
    Query(taking): Query<Taking>,
    RawBody(bytes): RawBody<DRAWING_LIMIT>,
) -> Result<Json<DrawingRead>, Problem> {
    let (_, book) = book(&app, &home).await?;
    if taking.unit_mm.is_some_and(|mm| !(0.001..=100_000.0).contains(&mm)) {
        return Err(unfit("unit_mm", "A unit of that size cannot be.".into(), "Give millimeters, like 25.4 for inches."));
    }
    off_thread(move || {
        let read = read_plan_dxf(&bytes, taking.unit_mm).map_err(|error: DxfError| unfit("file", error.to_string(), ""))?;
        let rooms: Vec<_> = read.rooms.iter().map(|room| (room.name.clone(), room.outline.clone())).collect();
        let points: Vec<_> = read.points.iter().map(|point| (point.room, point.symbol, point.at)).collect();
        let new_id = || uuid::Uuid::new_v4().to_string();
        let (facts, home) = take_drawing(book.home(), taking.floor.trim(), &rooms, &points, new_id);
        let plan = plan_of(&home);
        let preview = plan.floors.into_iter().find(|floor| floor.name == taking.floor.trim());
        let preview = preview.ok_or_else(|| unfit("floor", "The floor has no name.".into(), "Name the floor."))?;
        Ok(Json(DrawingRead {
            unit: read.unit,
            rooms: rooms.len(),
            points: points.len(),
            left_out: read.left_out,
            facts,
            notes: plan.notes.into_iter().filter(|note| note.floor == preview.name).map(|note| note.words).collect(),
            preview,
            symbols: plan.symbols,
        }))
    })
    .await
}
