//! The routes: parse, ask the core, answer.

mod all_homes;
mod book;
mod description;
mod directory;
mod homes;
mod house;
mod loads;
mod panels;
mod practice;
mod share;
mod stream;
mod trips;
mod usage;
mod work;
mod write;

use axum::Router;
use axum::body::Bytes;
use axum::http::header;
use axum::middleware;
use tower_http::CompressionLevel;
use tower_http::compression::CompressionLayer;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::problem::Problem;
use crate::sharing::Door;
use crate::{App, assets, guard};

#[derive(OpenApi)]
#[openapi(
    info(
        title = "Wayfinder",
        description = "A home's panel traced: one way in (the logbook), answers derived. Amps are amperes, times are \
                   milliseconds since 1970 UTC, lengths are millimeters.",
        license(name = "MIT OR Apache-2.0", identifier = "MIT OR Apache-2.0")
    ),
    components(schemas(wayfinder_core::loads::NewLoadKind, wayfinder_core::Topic))
)]
struct Api;

fn api() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Api::openapi())
        .routes(routes!(homes::health))
        .routes(routes!(all_homes::list))
        .routes(routes!(all_homes::archive))
        .routes(routes!(all_homes::copy_home))
        .routes(routes!(all_homes::salvage))
        .routes(routes!(all_homes::take_back))
        .routes(routes!(all_homes::hand_over))
        .routes(routes!(homes::now, all_homes::delete))
        .routes(routes!(homes::changed))
        .routes(routes!(homes::letter))
        .routes(routes!(homes::panels))
        .routes(routes!(homes::points))
        .routes(routes!(homes::checks))
        .routes(routes!(homes::logbook))
        .routes(routes!(homes::trace))
        .routes(routes!(homes::methods))
        .routes(routes!(homes::evidence))
        .routes(routes!(directory::directory))
        .routes(routes!(directory::directory_pdf))
        .routes(routes!(directory::directory_as))
        .routes(routes!(directory::words_sheet))
        .routes(routes!(book::book_pdf))
        .routes(routes!(book::book))
        .routes(routes!(directory::tests))
        .routes(routes!(directory::sticker_list))
        .routes(routes!(directory::sticker_sheets))
        .routes(routes!(directory::strips))
        .routes(routes!(homes::export))
        .routes(routes!(homes::report))
        .routes(routes!(house::plan))
        .routes(routes!(house::propose))
        .routes(routes!(house::plan_file))
        .routes(routes!(house::read_drawing))
        .routes(routes!(house::room_walk))
        .routes(routes!(house::find))
        .routes(routes!(loads::loads))
        .routes(routes!(loads::service))
        .routes(routes!(loads::loads_running))
        .routes(routes!(loads::where_load_could_go))
        .routes(routes!(loads::service_sheet))
        .routes(routes!(loads::survey))
        .routes(routes!(loads::survey_together))
        .routes(routes!(loads::read_plate))
        .routes(routes!(trips::trips))
        .routes(routes!(trips::trouble))
        .routes(routes!(trips::trouble_explained))
        .routes(routes!(work::work))
        .routes(routes!(work::jobs))
        .routes(routes!(work::job))
        .routes(routes!(work::try_job))
        .routes(routes!(work::prices))
        .routes(routes!(work::read_price_list))
        .routes(routes!(work::try_size))
        .routes(routes!(work::sizes))
        .routes(routes!(usage::usage, usage::read_usage_file))
        .routes(routes!(panels::read_card))
        .routes(routes!(panels::read_sheet))
        .routes(routes!(panels::write_sheet))
        .routes(routes!(panels::moves))
        .routes(routes!(panels::put_photo, panels::photo))
        .routes(routes!(stream::stream))
        .routes(routes!(write::entries))
        .routes(routes!(write::import))
        .routes(routes!(write::reset_demo))
        .routes(routes!(practice::make))
        .routes(routes!(practice::reading))
        .routes(routes!(practice::marks))
        .routes(routes!(practice::lessons))
        .routes(routes!(practice::own_panel))
        .routes(routes!(practice::fault_seen))
        .routes(routes!(practice::fault_marked))
        .routes(routes!(practice::meter))
        .routes(routes!(practice::utility))
        .routes(routes!(practice::measure_marks))
        .routes(routes!(practice::at_the_job))
        .routes(routes!(practice::work_done))
        .routes(routes!(share::me))
        .routes(routes!(share::join))
        .routes(routes!(share::sign_in))
        .routes(routes!(share::leave))
        .routes(routes!(share::sharing, share::open, share::close))
        .routes(routes!(share::invite))
        .routes(routes!(share::send_away))
        .routes(routes!(share::helper))
}

pub(crate) fn router(app: App, door: Door) -> Router {
    let (router, openapi) = api().split_for_parts();
    // Written once and shared: a router is copied for every connection, and the description is large.
    let json = Bytes::from(description::complete(&openapi).to_string());
    let told = move || {
        let json = json.clone();
        async move { ([(header::CONTENT_TYPE, "application/json")], json) }
    };
    router
        .route("/api/openapi.json", axum::routing::get(told))
        .fallback(axum::routing::get(assets::web))
        .method_not_allowed_fallback(async || Problem::no_such_method())
        .layer(CompressionLayer::new().quality(CompressionLevel::Fastest))
        .layer(middleware::from_fn_with_state((app.clone(), door), guard::at_the_door))
        .layer(middleware::from_fn(guard::harden))
        .with_state(app)
}

/// The OpenAPI description, as `docs/openapi.json` keeps it.
pub fn openapi_json() -> String {
    let (_, openapi) = api().split_for_parts();
    let mut text =
        serde_json::to_string_pretty(&description::complete(&openapi)).expect("the description is JSON; anything else is a bug");
    text.push('\n');
    text
}
