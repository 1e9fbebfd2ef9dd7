//! Answers about loads: circuits ranked, one circuit while some of its loads run, where a load could go, a plate as it was typed.

use axum::Json;
use axum::extract::Path;
use axum::response::Response;
use wayfinder_core::loads::{
    AtAmps, LoadMoves, LoadsView, NewLoad, NewLoadKind, ServiceMethod, ServiceView, SurveyAsked, SurveySide, SurveyView,
    load_moves, loads_view, service_view, survey as survey_of, survey_side, usual_method, while_running,
};
use wayfinder_core::{BreakerId, LoadId, LoadPlate, StepSide, SurveyWish, read_plate as plate_of};
use wayfinder_formats::{Sheet, service_pdf};

use super::homes::{Printing, date_of, file, sheet_of, unfit, unwritten};
use crate::guard::Asked;
use crate::in_home::{HomePath, InHome};
use crate::problem::Problem;

/// The loads of the home: its circuits nearest their limit first, what may not run together, what could be entered next.
#[utoipa::path(get, path = "/api/homes/{home}/loads", params(HomePath), responses((status = 200, body = LoadsView), (status = 404, body = Problem)))]
pub(crate) async fn loads(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| Ok(loads_view(&opened.study))).await
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Running {
    /// The breaker.
    breaker: String,
    /// The loads that run, with commas between.
    #[serde(default)]
    loads: String,
}

/// What these loads of a circuit take while they run, and what its breaker does then.
#[utoipa::path(get, path = "/api/homes/{home}/loads/running", params(HomePath, Running), responses((status = 200, body = AtAmps), (status = 404, body = Problem)))]
pub(crate) async fn loads_running(home: InHome, Asked(asked): Asked<Running>) -> Result<Response, Problem> {
    let breaker: BreakerId = asked.breaker.parse().map_err(|_| Problem::not_found("breaker"))?;
    let loads: Vec<LoadId> = asked.loads.split(',').filter_map(|id| id.parse().ok()).collect();
    home.answer(move |opened| while_running(&opened.study, &breaker, &loads).ok_or_else(|| Problem::not_found("breaker"))).await
}

/// A load by its id.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Path)]
pub(crate) struct LoadPath {
    /// The id of the load
    load: String,
}

/// What changes if a load moves to another circuit.
#[utoipa::path(get, path = "/api/homes/{home}/loads/{load}/moves", params(HomePath, LoadPath), responses((status = 200, body = LoadMoves), (status = 404, body = Problem)))]
pub(crate) async fn where_load_could_go(home: InHome, Path(LoadPath { load }): Path<LoadPath>) -> Result<Response, Problem> {
    let load: LoadId = load.parse().map_err(|_| Problem::not_found("load"))?;
    home.answer(move |opened| load_moves(&opened.study, &load).ok_or_else(|| Problem::not_found("load"))).await
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct ServiceAsked {
    /// By which method; left out, the usual one.
    method: Option<ServiceMethod>,
    /// A load to be added, in volt-amperes.
    new_va: Option<u32>,
    /// What it is; left out, an appliance that is fastened in place.
    new_kind: Option<NewLoadKind>,
    /// 120 or 240; left out, 240.
    new_volts: Option<u16>,
}

impl ServiceAsked {
    fn new_load(&self) -> Option<NewLoad> {
        self.new_va.filter(|va| (1..=100_000).contains(va)).map(|va| NewLoad {
            kind: self.new_kind.unwrap_or(NewLoadKind::Fixed),
            va: i64::from(va),
            volts: if self.new_volts == Some(120) { 120 } else { 240 },
        })
    }
}

/// The service calculation, line by line, today and with a new load.
#[utoipa::path(get, path = "/api/homes/{home}/service", params(HomePath, ServiceAsked), responses((status = 200, body = ServiceView), (status = 404, body = Problem)))]
pub(crate) async fn service(home: InHome, Asked(asked): Asked<ServiceAsked>) -> Result<Response, Problem> {
    let new = asked.new_load();
    home.answer(move |opened| {
        let method = asked.method.unwrap_or_else(|| usual_method(&opened.study));
        Ok(service_view(&opened.study, method, new))
    })
    .await
}

/// The service calculation as a sheet to print on `letter` or `a4`.
#[utoipa::path(get, path = "/api/homes/{home}/service.pdf", params(HomePath, ServiceAsked, Printing), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn service_sheet(
    home: InHome,
    Asked(asked): Asked<ServiceAsked>,
    Asked(printing): Asked<Printing>,
) -> Result<Response, Problem> {
    let (width, height) = sheet_of(&printing)?.size_mm().or(Sheet::Letter.size_mm()).unwrap_or((215.9, 279.4));
    let date = date_of(&printing)?;
    let disposition = home.saved_as("inline", ", service.pdf");
    let new = asked.new_load();
    let pdf = home
        .ask(move |opened| {
            let home = &opened.study;
            let method = asked.method.unwrap_or_else(|| usual_method(home));
            let about = format!("Service calculation. Revision {}, {date}. No permit; local code comes first.", home.seq());
            let view = service_view(home, method, new);
            service_pdf(home.name().unwrap_or_default(), &about, &view, width, height).map_err(unwritten)
        })
        .await?;
    Ok(file(pdf, "application/pdf", &disposition))
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct SurveyQuery {
    /// What the readings are for: `every`, `combine_two`, `feeder` or `add`; left out, every circuit.
    wish: Option<String>,
    /// The breaker of a feeder, or that to which something is added.
    breaker: Option<String>,
    /// What is added, in amperes.
    amps: Option<f64>,
    /// Qualified hands, with the cover off.
    #[serde(default)]
    clamp: bool,
    /// Loads and breakers that cannot be read, with commas between.
    #[serde(default)]
    without: String,
}

/// What each does for the next reading of a survey by two.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct SurveyTogether {
    /// At the panel, or before the utility's meter; `null`: there is no such survey.
    panel: Option<SurveySide>,
    /// At the loads.
    walk: Option<SurveySide>,
}

/// What each does for the next reading of the survey that everybody who is in takes part in.
#[utoipa::path(get, path = "/api/homes/{home}/survey/together", params(HomePath), responses((status = 200, body = SurveyTogether), (status = 404, body = Problem)))]
pub(crate) async fn survey_together(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| {
        let side = |side| survey_side(&opened.study, side);
        Ok(SurveyTogether { panel: side(StepSide::Panel), walk: side(StepSide::Walk) })
    })
    .await
}

/// The next reading to take for what is wished, and how every decision stands.
#[utoipa::path(get, path = "/api/homes/{home}/survey", params(HomePath, SurveyQuery), responses((status = 200, body = SurveyView), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn survey(home: InHome, Asked(asked): Asked<SurveyQuery>) -> Result<Response, Problem> {
    let breaker = || -> Result<BreakerId, Problem> {
        asked.breaker.as_deref().unwrap_or_default().parse().map_err(|_| Problem::not_found("breaker"))
    };
    let wish = match asked.wish.as_deref().unwrap_or("every") {
        "every" => SurveyWish::Every,
        "combine_two" => SurveyWish::CombineTwo,
        "feeder" => SurveyWish::Feeder { breaker: breaker()? },
        "add" => {
            let amps = asked.amps.filter(|amps| (0.1..=400.0).contains(amps));
            let amps = amps.ok_or_else(|| unfit("amps", "That is nothing to be added.".into(), "Give 0.1 to 400 A."))?;
            SurveyWish::Add { breaker: breaker()?, amps }
        }
        other => {
            return Err(unfit("wish", format!("“{other}” is no wish."), "Use every, combine_two, feeder or add."));
        }
    };
    let asked = SurveyAsked {
        clamp: asked.clamp,
        without_loads: asked.without.split(',').filter_map(|id| id.parse().ok()).collect(),
        without_circuits: asked.without.split(',').filter_map(|id| id.parse().ok()).collect(),
        ..SurveyAsked::plain(wish)
    };
    home.answer(move |opened| Ok(survey_of(&opened.study, &asked))).await
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Typed {
    /// As it was typed: `1450 W`, `12 A 240 V`.
    text: String,
}

/// Reads what was typed from a data plate. Writes nothing.
#[utoipa::path(get, path = "/api/plate", params(Typed), responses((status = 200, body = LoadPlate), (status = 422, body = Problem)))]
pub(crate) async fn read_plate(Asked(typed): Asked<Typed>) -> Result<Json<LoadPlate>, Problem> {
    Ok(Json(plate_of(&typed.text)?))
}
