//! Answers about one panel: a card or a sheet read, a sheet written, where a breaker may go.

use std::sync::Arc;

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::Response;
use wayfinder_core::{
    BreakerId, CardLine, ColumnRole, HomeId, Moves, Panel, PanelId, PanelView, PhotoId, SheetRead, moves as moves_of,
    preview_card, read_card as read, read_sheet as read_cells, write_card,
};
use wayfinder_formats::{SheetKind, photo_media, read_rows, write_sheet as write};
use wayfinder_store::StoredPhoto;

use super::homes::{file, unfit};
use crate::App;
use crate::desk::Opened;
use crate::guard::{Asked, ENTRIES_LIMIT, JsonBody, RawBody, off_thread};
use crate::in_home::{HomePath, InHome};
use crate::problem::{Problem, internal};

/// The largest sheet that is taken.
pub(super) const SHEET_LIMIT: usize = 4 << 20;
/// The most lines of a card that are read.
const MOST_LINES: usize = 500;

/// A card as typed.
#[derive(serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct TypedCard {
    /// One breaker a line: `1 20 kitchen`, `5-7 50/2 range`.
    text: String,
}

/// A card as understood.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct CardRead {
    /// Line by line.
    lines: Vec<CardLine>,
    /// The panel as it would be.
    panel: PanelView,
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Corrected {
    /// What each column holds, with commas between: `space,label,amps,ignore`. Guessed if left out.
    columns: Option<String>,
}

/// A panel by its id.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct PanelPath {
    /// The id of the panel
    panel: String,
}

/// A photo by its id.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct PhotoPath {
    /// The id of the home
    home: String,
    /// The id of the photo, made by the sender
    photo: String,
}

/// A breaker by its id.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct BreakerPath {
    /// The id of the breaker
    breaker: String,
}

/// In which format.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct SheetFormat {
    /// csv, xlsx, ods or txt
    format: String,
}

fn panel<'a>(opened: &'a Opened, id: &str) -> Result<&'a Panel, Problem> {
    let panel = id.parse::<PanelId>().ok().and_then(|id| opened.study.panels().panel(&id));
    panel.ok_or_else(|| Problem::not_found("panel"))
}

/// Reads a card as typed, proposes the facts that follow and shows the panel as it would be. Writes nothing.
#[utoipa::path(post, path = "/api/homes/{home}/panels/{panel}/card", params(HomePath, PanelPath), request_body = TypedCard, responses((status = 200, body = CardRead), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn read_card(
    home: InHome,
    Path(PanelPath { panel: id }): Path<PanelPath>,
    JsonBody(typed): JsonBody<TypedCard, ENTRIES_LIMIT>,
) -> Result<Json<CardRead>, Problem> {
    if typed.text.lines().count() > MOST_LINES {
        return Err(unfit(
            "text",
            format!("A card has at most 84 spaces; this text has more than {MOST_LINES} lines."),
            "Paste the card alone.",
        ));
    }
    home.ask(move |opened| {
        let panel = panel(opened, &id)?;
        let lines = read(&opened.study, panel, &typed.text, new_breaker_id);
        let view = preview_card(&opened.study, panel, &lines);
        Ok(Json(CardRead { lines, panel: view }))
    })
    .await
}

/// Reads a spreadsheet (CSV, XLSX or ODS, up to 4 MB and 2000 rows) of the panel: what its columns hold and the
/// card's text that follows. Writes nothing.
#[utoipa::path(post, path = "/api/homes/{home}/panels/{panel}/sheet", params(HomePath, PanelPath, Corrected), request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses((status = 200, body = SheetRead), (status = 404, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn read_sheet(
    home: InHome,
    Path(PanelPath { panel: id }): Path<PanelPath>,
    Asked(corrected): Asked<Corrected>,
    RawBody(bytes): RawBody<SHEET_LIMIT>,
) -> Result<Json<SheetRead>, Problem> {
    let columns = corrected.columns.map(|columns| columns.split(',').map(role).collect::<Result<Vec<_>, _>>()).transpose()?;
    home.ask(move |opened| {
        let panel = panel(opened, &id)?;
        let rows = read_rows(&bytes).map_err(|error| unfit("file", error.to_string(), ""))?;
        Ok(Json(read_cells(panel, &rows, columns.as_deref())))
    })
    .await
}

fn role(name: &str) -> Result<ColumnRole, Problem> {
    serde_json::from_value(name.trim().into()).map_err(|_| {
        unfit("columns", format!("“{name}” is nothing a column holds."), "Use space, amps, poles, label, kind, wire or ignore.")
    })
}

/// The panel's circuits as a file: `csv`, `xlsx`, `ods`, or `txt` as it is typed.
#[utoipa::path(get, path = "/api/homes/{home}/panels/{panel}/circuits/{format}", params(HomePath, PanelPath, SheetFormat), responses((status = 200, body = Vec<u8>, content_type = "application/octet-stream"), (status = 404, body = Problem)))]
pub(crate) async fn write_sheet(
    home: InHome,
    Path(PanelPath { panel: id }): Path<PanelPath>,
    Path(SheetFormat { format }): Path<SheetFormat>,
) -> Result<Response, Problem> {
    let kind = SheetKind::named(&format);
    let media = kind.map_or("text/plain; charset=utf-8", SheetKind::media);
    if kind.is_none() && format != "txt" {
        return Err(Problem::not_found("format"));
    }
    let panel_name = panel(&home.opened, &id)?.name.clone();
    let disposition = home.saved_as("attachment", &format!(", {panel_name}.{format}"));
    let bytes = home
        .ask(move |opened| {
            let panel = panel(opened, &id)?;
            let bytes = match kind {
                None => write_card(&opened.study, panel).into_bytes(),
                Some(kind) => write(&opened.study, panel, kind).map_err(|error| {
                    tracing::error!(%error, "no sheet");
                    internal()
                })?,
            };
            Ok(bytes)
        })
        .await?;
    Ok(file(bytes, media, &disposition))
}

/// Every place of its panel for a breaker, why it cannot go where it cannot, and with what it may be joined.
#[utoipa::path(get, path = "/api/homes/{home}/breakers/{breaker}/moves", params(HomePath, BreakerPath), responses((status = 200, body = Moves), (status = 404, body = Problem)))]
pub(crate) async fn moves(home: InHome, Path(BreakerPath { breaker }): Path<BreakerPath>) -> Result<Response, Problem> {
    let breaker: BreakerId = breaker.parse().map_err(|_| Problem::not_found("breaker"))?;
    home.answer(move |opened| moves_of(&opened.study, &breaker).ok_or_else(|| Problem::not_found("breaker"))).await
}

/// The largest photo that is taken.
const PHOTO_LIMIT: usize = 8 << 20;

/// Keeps a photo (JPEG, PNG or WebP, up to 8 MB) under an id that the sender makes; the same again is harmless.
/// What it shows is said by a line of the logbook.
#[utoipa::path(put, path = "/api/homes/{home}/photos/{photo}", params(PhotoPath), request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem), (status = 507, body = Problem)))]
pub(crate) async fn put_photo(
    State(app): State<App>,
    Path(PhotoPath { home, photo }): Path<PhotoPath>,
    RawBody(bytes): RawBody<PHOTO_LIMIT>,
) -> Result<StatusCode, Problem> {
    let home: HomeId = home.parse().map_err(|_| Problem::not_found("home"))?;
    let id: PhotoId = photo.parse().map_err(|_| Problem::not_found("photo"))?;
    let Some(media) = photo_media(&bytes) else {
        return Err(unfit("photo", "This file cannot be shown as a photo.".into(), "Save it as JPEG, PNG or WebP."));
    };
    app.holds.wait(&home).await;
    let desk = Arc::clone(&app.desk);
    off_thread(move || Ok(desk.put_photo(&home, StoredPhoto { id, media: media.into(), bytes: bytes.to_vec() })?)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// A photo.
#[utoipa::path(get, path = "/api/homes/{home}/photos/{photo}", params(PhotoPath), responses((status = 200, content((Vec<u8> = "image/jpeg"), (Vec<u8> = "image/png"), (Vec<u8> = "image/webp"))), (status = 404, body = Problem)))]
pub(crate) async fn photo(State(app): State<App>, Path(PhotoPath { home, photo }): Path<PhotoPath>) -> Result<Response, Problem> {
    let home: HomeId = home.parse().map_err(|_| Problem::not_found("home"))?;
    let id: PhotoId = photo.parse().map_err(|_| Problem::not_found("photo"))?;
    let desk = Arc::clone(&app.desk);
    let found = off_thread(move || Ok(desk.photo(&home, &id)?)).await?.ok_or_else(|| Problem::not_found("photo"))?;
    let media = photo_media(&found.bytes).unwrap_or("application/octet-stream");
    Ok(file(found.bytes, media, "inline"))
}

fn new_breaker_id() -> BreakerId {
    uuid::Uuid::new_v4().to_string().parse().expect("a UUID is an id; anything else is a bug")
}
