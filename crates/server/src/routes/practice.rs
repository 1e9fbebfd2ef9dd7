//! Made-up houses: drawn, looked at with instruments, marked.

use std::sync::Arc;

use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::Response;
use wayfinder_core::sim::{HeldAt, Marks, Reading, draw, marks as mark, reading as read};
use wayfinder_core::{BreakerId, Draft, Fact, HomeId, Instrument, Level, Moment, PointId, Recipe};

use crate::App;
use crate::desk::Moved;
use crate::guard::{Asked, ENTRIES_LIMIT, JsonBody, off_thread};
use crate::in_home::{HomePath, InHome};
use crate::problem::Problem;
use crate::routes::write::Imported;

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Held {
    /// Which instrument.
    instrument: Instrument,
    /// At which point.
    point: Option<PointId>,
    /// Or around the conductor of which breaker; with a point, that is watched while the breaker is switched off and on again.
    breaker: Option<BreakerId>,
    /// Or at none: the handles are looked over.
    #[serde(default)]
    handles: bool,
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Revealing {
    /// With the wiring beside what was found.
    #[serde(default)]
    reveal: bool,
}

fn not_made_up() -> Problem {
    Problem::new(
        StatusCode::NOT_FOUND,
        "not_made_up",
        "This home is no made-up house.",
        "Instruments on the screen are for practice.",
    )
}

/// Draws a made-up house as a home of its own.
#[utoipa::path(post, path = "/api/practice", request_body = Recipe, responses((status = 200, body = Imported), (status = 422, body = Problem)))]
pub(crate) async fn make(
    State(app): State<App>,
    JsonBody(recipe): JsonBody<Recipe, ENTRIES_LIMIT>,
) -> Result<Json<Imported>, Problem> {
    let desk = Arc::clone(&app.desk);
    let made = off_thread(move || {
        recipe.admit()?;
        let level = match recipe.level {
            Level::Plain => "plain",
            Level::Usual => "usual",
            Level::Tricky => "tricky",
        };
        // The same recipe again is another try at the same house.
        let names = (1..1000).map(|n| match n {
            1 => format!("made-{level}-{}-{}", recipe.points, recipe.seed),
            n => format!("made-{level}-{}-{}-{n}", recipe.points, recipe.seed),
        });
        let mut free = names.filter_map(|name| name.parse::<HomeId>().ok()).filter(|id| desk.home(id).is_err());
        let home = free.next().ok_or_else(crate::problem::internal)?;
        let now = std::time::SystemTime::now().duration_since(std::time::UNIX_EPOCH).map_or(0, |d| d.as_millis() as i64);
        let drafts: Vec<Draft> = draw(recipe)
            .facts
            .into_iter()
            .enumerate()
            .filter_map(|(n, fact)| {
                let id = format!("drawn-{n}").parse().ok()?;
                let at = Moment::from_unix_ms(now);
                Some(Draft { id, at, by: "Wayfinder".into(), instrument: None, version: Fact::VERSION, fact })
            })
            .collect();
        let (_, opened) = desk.append(&home, drafts)?;
        Ok(Imported { seq: opened.book.seq(), home })
    })
    .await?;
    let _ = app.moved.send(Moved { home: made.home.clone(), seq: made.seq });
    Ok(Json(made))
}

/// What an instrument shows now in a made-up house.
#[utoipa::path(get, path = "/api/homes/{home}/practice/reading", params(HomePath, Held), responses((status = 200, body = Reading), (status = 404, body = Problem)))]
pub(crate) async fn reading(home: InHome, Asked(held): Asked<Held>) -> Result<Response, Problem> {
    home.answer(move |opened| {
        if opened.study.practice().is_none() {
            return Err(not_made_up());
        }
        let at = match (held.point, held.breaker) {
            (Some(point), None) => HeldAt::Point(point),
            (Some(point), Some(breaker)) => HeldAt::Watching(point, breaker),
            (None, None) if held.handles => HeldAt::Handles,
            (None, Some(breaker)) => HeldAt::Breaker(breaker),
            _ => {
                let wrong = "Say at which point, or around which breaker's conductor.";
                return Err(Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "unknown", wrong, "Nothing was read."));
            }
        };
        read(&opened.study, held.instrument, &at).ok_or_else(|| Problem::not_found("point or breaker"))
    })
    .await
}

/// How good the trace of a made-up house is.
#[utoipa::path(get, path = "/api/homes/{home}/practice", params(HomePath, Revealing), responses((status = 200, body = Marks), (status = 404, body = Problem)))]
pub(crate) async fn marks(home: InHome, Asked(asked): Asked<Revealing>) -> Result<Response, Problem> {
    home.answer(move |opened| mark(&opened.book, &opened.study, asked.reveal).ok_or_else(not_made_up)).await
}
