//! Answers about the house: the plan and its files, edits proposed, a room walked, anything found.

use axum::Json;
use axum::extract::Path;
use axum::response::Response;
use wayfinder_core::{
    Fact, Found, Plan, PlanFloor, Proposal, RoomId, RoomWalk, Study, SymbolDrawing, Wish, find as find_in, plan as plan_of,
    propose as propose_to, room_walk as walk_of, take_drawing,
};
use wayfinder_formats::{DxfError, Paper, PlanRequest, PlanSheet, plan_pdf, plan_sheet, plan_svg, read_plan_dxf, write_plan_dxf};

use super::homes::{date_of_text, file, unfit, unwritten};
use crate::guard::{Asked, ENTRIES_LIMIT, JsonBody, RawBody};
use crate::in_home::{HomePath, InHome};
use crate::problem::{Problem, internal};

/// The largest drawing file that is taken.
const DRAWING_LIMIT: usize = 16 << 20;

/// The house plan as it is drawn, by the logbook's last line: what a screen has written since is not drawn yet.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct PlanNow {
    /// The last line this follows from.
    seq: u64,
    #[serde(flatten)]
    plan: Plan,
}

/// The house plan as it is drawn.
#[utoipa::path(get, path = "/api/homes/{home}/plan", params(HomePath), responses((status = 200, body = PlanNow), (status = 404, body = Problem)))]
pub(crate) async fn plan(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| Ok(PlanNow { seq: opened.book.seq(), plan: plan_of(&opened.study).clone() })).await
}

/// Works out the entries for something typed or tapped on the plan. Writes nothing.
#[utoipa::path(post, path = "/api/homes/{home}/plan/propose", params(HomePath), request_body = Wish, responses((status = 200, body = Proposal), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn propose(home: InHome, JsonBody(wish): JsonBody<Wish, ENTRIES_LIMIT>) -> Result<Json<Proposal>, Problem> {
    home.ask(move |opened| Ok(Json(propose_to(&opened.study, &wish)?))).await
}

/// A room by its id.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct RoomPath {
    /// The id of the room
    room: String,
}

/// A room as it is walked: its points in order, the last look at each, where to go next.
#[utoipa::path(get, path = "/api/homes/{home}/rooms/{room}/walk", params(HomePath, RoomPath), responses((status = 200, body = RoomWalk), (status = 404, body = Problem)))]
pub(crate) async fn room_walk(home: InHome, Path(RoomPath { room }): Path<RoomPath>) -> Result<Response, Problem> {
    let room: RoomId = room.parse().map_err(|_| Problem::not_found("room"))?;
    home.answer(move |opened| walk_of(&opened.study, &room).ok_or_else(|| Problem::not_found("room"))).await
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Sought {
    /// A few letters, or a number.
    q: String,
}

/// Finds rooms, points, breakers and what the old card says, with what feeds what.
#[utoipa::path(get, path = "/api/homes/{home}/find", params(HomePath, Sought), responses((status = 200, body = [Found]), (status = 404, body = Problem)))]
pub(crate) async fn find(home: InHome, Asked(sought): Asked<Sought>) -> Result<Response, Problem> {
    let text: String = sought.q.chars().take(100).collect();
    home.answer(move |opened| Ok(find_in(&opened.study, &text))).await
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

/// In which format.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct PlanFormat {
    /// pdf, svg or dxf
    format: String,
}

/// The plan as a file: `pdf` and `svg` at a stated scale with legend and date, `dxf` in millimeters.
#[utoipa::path(get, path = "/api/homes/{home}/plan/file/{format}", params(HomePath, PlanFormat, Drawing), responses((status = 200, body = Vec<u8>, content_type = "application/octet-stream"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn plan_file(
    home: InHome,
    Path(PlanFormat { format }): Path<PlanFormat>,
    Asked(drawing): Asked<Drawing>,
) -> Result<Response, Problem> {
    let how = if format == "dxf" { "attachment" } else { "inline" };
    let disposition = home.saved_as(how, &format!(", plan.{format}"));
    let date = date_of_text(drawing.date.as_deref())?;
    home.ask(move |opened| {
        let plan = plan_of(&opened.study);
        let paper = match (drawing.paper.as_deref(), plan.units) {
            (Some("letter"), _) | (None, wayfinder_core::Units::FeetInches) => Paper::Letter,
            (Some("a4"), _) | (None, wayfinder_core::Units::Metric) => Paper::A4,
            (Some("tabloid"), _) => Paper::Tabloid,
            (Some("a3"), _) => Paper::A3,
            (Some(other), _) => {
                return Err(unfit("paper", format!("“{other}” is no paper."), "Use letter, a4, tabloid or a3."));
            }
        };
        let home = opened.study.name().unwrap_or_default().to_owned();
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
            plan_sheet(plan, floor, &request).map_err(|error| unfit("scale", error.to_string(), ""))
        };
        match format.as_str() {
            "pdf" => {
                let sheets = floors.iter().map(|floor| sheet(floor)).collect::<Result<Vec<_>, _>>()?;
                let pdf = plan_pdf(&format!("{home}: plan"), &sheets).map_err(unwritten)?;
                Ok(file(pdf, "application/pdf", &disposition))
            }
            "svg" => Ok(file(plan_svg(&sheet(first)?).into_bytes(), "image/svg+xml", &disposition)),
            "dxf" => {
                let bytes = write_plan_dxf(plan, first).map_err(|error| {
                    tracing::error!(%error, "no drawing");
                    internal()
                })?;
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
#[utoipa::path(post, path = "/api/homes/{home}/plan/drawing", params(HomePath, Taking), request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses((status = 200, body = DrawingRead), (status = 404, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn read_drawing(
    home: InHome,
    Asked(taking): Asked<Taking>,
    RawBody(bytes): RawBody<DRAWING_LIMIT>,
) -> Result<Json<DrawingRead>, Problem> {
    if taking.unit_mm.is_some_and(|mm| !(0.001..=100_000.0).contains(&mm)) {
        return Err(unfit("unit_mm", "A drawing has no unit of that size.".into(), "Give millimeters, like 25.4 for inches."));
    }
    home.ask(move |opened| {
        let read = read_plan_dxf(&bytes, taking.unit_mm).map_err(|error: DxfError| unfit("file", error.to_string(), ""))?;
        let rooms: Vec<_> = read.rooms.iter().map(|room| (room.name.clone(), room.outline.clone())).collect();
        let points: Vec<_> = read.points.iter().map(|point| (point.room, point.symbol, point.at)).collect();
        let new_id = || uuid::Uuid::new_v4().to_string();
        let (facts, home) = take_drawing(&opened.study, taking.floor.trim(), &rooms, &points, new_id);
        let home = Study::of(home);
        let plan = plan_of(&home).clone();
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
