//! Answers about work: the ways to a wish, and job sheets.

use std::time::{SystemTime, UNIX_EPOCH};

use axum::Json;
use axum::extract::Path;
use axum::response::Response;
use wayfinder_core::work::{
    JobLine, JobSheet, KeptSizeLine, PricesRead, SizeView, USUAL_STEPS, WorkView, job_sheet, jobs as jobs_of, kept_sizes,
    no_sheet, price_rows, read_prices, read_wish, size_view, work_view,
};
use wayfinder_core::{BreakerId, Job, JobId, Moment, SizeAsked, Units};
use wayfinder_formats::{read_rows, write_csv};

use super::homes::{file, unfit};
use super::panels::SHEET_LIMIT;
use crate::guard::{Asked, ENTRIES_LIMIT, JsonBody, RawBody};
use crate::in_home::{HomePath, InHome};
use crate::problem::{Problem, internal};

fn now() -> Moment {
    let since = SystemTime::now().duration_since(UNIX_EPOCH).unwrap_or_default();
    Moment::from_unix_ms(i64::try_from(since.as_millis()).unwrap_or(i64::MAX))
}

fn not_a_wish(why: String) -> Problem {
    unfit("wish", why, "")
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct WorkAsked {
    /// The wish, as people say it: `40 A two-pole for the kiln`.
    wish: String,
    /// In which panel, by its id; left out, the first.
    #[serde(default)]
    panel: String,
    /// Breakers that are not to be touched, by id, with commas between.
    #[serde(default)]
    not: String,
}

/// The ways to a wish, the best first, each with the panel as it would be, and why not the others.
#[utoipa::path(get, path = "/api/homes/{home}/work", params(HomePath, WorkAsked), responses((status = 200, body = WorkView), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn work(home: InHome, Asked(asked): Asked<WorkAsked>) -> Result<Response, Problem> {
    home.answer(move |opened| {
        let study = &opened.study;
        let mut panels = study.panels().all();
        let panel = panels.find(|panel| asked.panel.is_empty() || panel.id.as_str() == asked.panel);
        let panel = panel.ok_or_else(|| Problem::not_found("panel"))?;
        let not: Vec<BreakerId> = asked.not.split(',').filter_map(|id| id.parse().ok()).collect();
        let wish = read_wish(study, panel, &asked.wish).map_err(not_a_wish)?;
        work_view(study, panel, &wish, &not, USUAL_STEPS).map_err(not_a_wish)
    })
    .await
}

/// Every job of the home, the open ones first.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct JobsView {
    jobs: Vec<JobLine>,
}

/// The jobs of the home.
#[utoipa::path(get, path = "/api/homes/{home}/jobs", params(HomePath), responses((status = 200, body = JobsView), (status = 404, body = Problem)))]
pub(crate) async fn jobs(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| Ok(JobsView { jobs: jobs_of(&opened.study, now()) })).await
}

/// A job by its id.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct JobPath {
    /// The id of the job
    pub(super) job: String,
}

/// A job sheet as it stands: every step, which is next, what stays live, what state the panel is left in.
#[utoipa::path(get, path = "/api/homes/{home}/jobs/{job}", params(HomePath, JobPath), responses((status = 200, body = JobSheet), (status = 404, body = Problem)))]
pub(crate) async fn job(home: InHome, Path(JobPath { job }): Path<JobPath>) -> Result<Response, Problem> {
    let job: JobId = job.parse().map_err(|_| Problem::not_found("job"))?;
    home.answer(move |opened| job_sheet(&opened.study, &job, now()).ok_or_else(|| Problem::not_found("job"))).await
}

/// Whether a sheet can be made of a job.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct SheetTried {
    /// What it is called.
    title: String,
    /// Why none can be made; empty where one can.
    why_not: String,
}

/// Whether a sheet can be made of a job, before it is begun.
#[utoipa::path(post, path = "/api/homes/{home}/jobs/try", params(HomePath), request_body = Job, responses((status = 200, body = SheetTried), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn try_job(home: InHome, JsonBody(job): JsonBody<Job, ENTRIES_LIMIT>) -> Result<Response, Problem> {
    home.answer(move |opened| {
        let study = &opened.study;
        Ok(SheetTried { title: study.job_in_words(&job), why_not: no_sheet(study, &job).unwrap_or_default() })
    })
    .await
}

/// A circuit that is to be sized.
#[derive(serde::Deserialize, utoipa::ToSchema)]
pub(crate) struct SizeWanted {
    /// What it is for; may be empty.
    #[serde(default)]
    name: String,
    /// What is asked.
    asked: SizeAsked,
}

/// The size of a new circuit: breaker, wire and what goes with them, rule by rule.
#[utoipa::path(post, path = "/api/homes/{home}/sizes/try", params(HomePath), request_body = SizeWanted, responses((status = 200, body = SizeView), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn try_size(home: InHome, JsonBody(wanted): JsonBody<SizeWanted, ENTRIES_LIMIT>) -> Result<Response, Problem> {
    home.answer(move |opened| size_view(&opened.study, &wanted.name, &wanted.asked).map_err(|why| unfit("asked", why, ""))).await
}

/// The circuits that were sized and kept.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct SizesView {
    sizes: Vec<KeptSizeLine>,
    /// How lengths are typed and said in this home.
    units: Units,
}

/// The circuits that were sized and kept, the last one first.
#[utoipa::path(get, path = "/api/homes/{home}/sizes", params(HomePath), responses((status = 200, body = SizesView), (status = 404, body = Problem)))]
pub(crate) async fn sizes(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| Ok(SizesView { sizes: kept_sizes(&opened.study), units: opened.study.plan().units })).await
}

/// The owner's price list as CSV, with what has no price yet as an empty line.
#[utoipa::path(get, path = "/api/homes/{home}/prices", params(HomePath), responses((status = 200, body = Vec<u8>, content_type = "text/csv"), (status = 404, body = Problem)))]
pub(crate) async fn prices(home: InHome) -> Result<Response, Problem> {
    let disposition = home.saved_as("attachment", ", prices.csv");
    let bytes = home
        .ask(|opened| {
            write_csv(price_rows(&opened.study)).map_err(|error| {
                tracing::error!(%error, "no price list");
                internal()
            })
        })
        .await?;
    Ok(file(bytes, "text/csv; charset=utf-8", &disposition))
}

/// Reads a price list (CSV, XLSX or ODS, up to 4 MB). Writes nothing.
#[utoipa::path(post, path = "/api/homes/{home}/prices/read", params(HomePath), request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses((status = 200, body = PricesRead), (status = 404, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn read_price_list(home: InHome, RawBody(bytes): RawBody<SHEET_LIMIT>) -> Result<Json<PricesRead>, Problem> {
    home.ask(move |_| {
        let not_read = |why: String| unfit("file", why, "");
        let rows = read_rows(&bytes).map_err(|error| not_read(error.to_string()))?;
        read_prices(&rows).map(Json).map_err(not_read)
    })
    .await
}
