//! Answers about what is wrong now.

use axum::extract::Path;
use axum::response::Response;
use wayfinder_core::TroubleId;
use wayfinder_core::trips::{TripsView, TroubleView, TroubleWhy, trips_view, trouble_view, trouble_why};

use crate::in_home::{HomePath, InHome};
use crate::problem::Problem;

/// What is and was wrong, which breakers were found tripped, and whom to call.
#[utoipa::path(get, path = "/api/homes/{home}/trips", params(HomePath), responses((status = 200, body = TripsView), (status = 404, body = Problem)))]
pub(crate) async fn trips(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| Ok(trips_view(&opened.study))).await
}

/// A trouble by its id.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct TroublePath {
    /// The id of the trouble
    trouble: String,
}

/// One trouble as it stands: the road of its power, the next look, what it is, or the stop.
#[utoipa::path(get, path = "/api/homes/{home}/trips/{trouble}", params(HomePath, TroublePath), responses((status = 200, body = TroubleView), (status = 404, body = Problem)))]
pub(crate) async fn trouble(home: InHome, Path(TroublePath { trouble }): Path<TroublePath>) -> Result<Response, Problem> {
    let id: TroubleId = trouble.parse().map_err(|_| Problem::not_found("trouble"))?;
    home.answer(move |opened| trouble_view(&opened.study, &id).ok_or_else(|| Problem::not_found("trouble"))).await
}

/// How the chances of its causes came about, line by line.
#[utoipa::path(get, path = "/api/homes/{home}/trips/{trouble}/why", params(HomePath, TroublePath), responses((status = 200, body = TroubleWhy), (status = 404, body = Problem)))]
pub(crate) async fn trouble_explained(
    home: InHome,
    Path(TroublePath { trouble }): Path<TroublePath>,
) -> Result<Response, Problem> {
    let id: TroubleId = trouble.parse().map_err(|_| Problem::not_found("trouble"))?;
    home.answer(move |opened| trouble_why(&opened.study, &id).ok_or_else(|| Problem::not_found("trouble"))).await
}
