//! The utility's interval data: a file is read and shown before anything is recorded.

use axum::Json;
use axum::response::Response;
use utoipa::ToSchema;
use wayfinder_core::loads::{DemandSaid, DemandView, demand_said, demand_view, has_solar};
use wayfinder_core::{Fact, UsageRead};
use wayfinder_formats::{MOST_USAGE_BYTES, UsageChoices, UsageFile, UsageUnit, read_usage};

use super::homes::unfit;
use crate::guard::{Asked, RawBody};
use crate::in_home::{HomePath, InHome};
use crate::problem::Problem;

/// What the utility's data say of the home.
#[utoipa::path(get, path = "/api/homes/{home}/usage", params(HomePath), responses((status = 200, body = DemandView), (status = 404, body = Problem)))]
pub(crate) async fn usage(home: InHome) -> Result<Response, Problem> {
    home.answer(|opened| Ok(demand_view(&opened.study))).await
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct UsageAsked {
    /// The file's name.
    #[serde(default)]
    file: String,
    /// The column of the figures, from 0; left out, as guessed.
    value: Option<usize>,
    /// Their unit, `kwh`, `wh`, `kw` or `w`; left out, as the table says or kilowatt-hours.
    unit: Option<String>,
    /// The meter, where the table has several.
    meter: Option<String>,
}

/// A column of a table of usage.
#[derive(serde::Serialize, ToSchema)]
pub(crate) struct UsageColumnRead {
    /// Counted from 0.
    at: usize,
    /// What stands over it.
    name: String,
    /// Its first cells.
    first: Vec<String>,
    /// It can be read as figures.
    figures: bool,
}

/// The columns of a table of usage, and what was taken.
#[derive(serde::Serialize, ToSchema)]
pub(crate) struct UsageColumnsRead {
    /// All of them.
    all: Vec<UsageColumnRead>,
    /// Those of the time.
    time: Vec<usize>,
    /// That of the figures.
    value: usize,
    /// Their unit: `kwh`, `wh`, `kw` or `w`.
    unit: String,
    /// The table says the unit; else it is a guess.
    unit_is_said: bool,
    /// The meters in it, where there are several.
    meters: Vec<String>,
    /// The meter that was taken.
    meter: Option<String>,
}

/// A row as it was read.
#[derive(serde::Serialize, ToSchema)]
pub(crate) struct UsageRow {
    /// When it begins.
    at: String,
    /// Minutes.
    minutes: u16,
    /// The mean, in kilowatts.
    kw: f64,
}

/// What a file of usage says. Nothing is recorded yet.
#[derive(serde::Serialize, ToSchema)]
pub(crate) struct UsagePreview {
    /// The columns; `null` where it is usage XML.
    columns: Option<UsageColumnsRead>,
    /// The first rows as read.
    first: Vec<UsageRow>,
    /// What was done with the file.
    remarks: Vec<String>,
    /// What it says.
    said: DemandSaid,
    /// To be recorded.
    fact: Fact,
}

const UNITS: [(&str, UsageUnit); 4] =
    [("kwh", UsageUnit::Kwh), ("wh", UsageUnit::Wh), ("kw", UsageUnit::Kw), ("w", UsageUnit::W)];

/// Reads interval data (CSV, or the open usage XML, up to 48 MB): what its columns hold and the demand that follows. Writes nothing.
#[utoipa::path(post, path = "/api/homes/{home}/usage", params(HomePath, UsageAsked), request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses((status = 200, body = UsagePreview), (status = 404, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn read_usage_file(
    home: InHome,
    Asked(asked): Asked<UsageAsked>,
    RawBody(bytes): RawBody<MOST_USAGE_BYTES>,
) -> Result<Json<UsagePreview>, Problem> {
    let unit = match asked.unit.as_deref() {
        None => None,
        Some(named) => match UNITS.into_iter().find(|(name, _)| *name == named) {
            Some((_, unit)) => Some(unit),
            None => return Err(unfit("unit", format!("“{named}” is no unit of usage."), "Use kwh, wh, kw or w.")),
        },
    };
    let choices = UsageChoices { value: asked.value, unit, meter: asked.meter };
    home.ask(move |opened| {
        let file = read_usage(&bytes, &choices).map_err(|error| unfit("file", error.to_string(), ""))?;
        Ok(Json(preview(asked.file, file, has_solar(&opened.study))))
    })
    .await
}

fn preview(name: String, file: UsageFile, solar: bool) -> UsagePreview {
    let columns = file.columns.map(|columns| UsageColumnsRead {
        all: columns
            .all
            .into_iter()
            .enumerate()
            .map(|(at, column)| UsageColumnRead { at, name: column.name, first: column.first, figures: column.figures })
            .collect(),
        time: columns.time,
        value: columns.value,
        unit: UNITS.into_iter().find(|(_, unit)| *unit == columns.unit).map(|(name, _)| name.to_owned()).unwrap_or_default(),
        unit_is_said: columns.unit_is_said,
        meters: if columns.meters.len() > 1 { columns.meters } else { Vec::new() },
        meter: columns.meter,
    });
    UsagePreview {
        columns,
        first: file.first.into_iter().map(|row| UsageRow { at: row.at, minutes: row.minutes, kw: row.kw }).collect(),
        remarks: file.read.remarks,
        said: demand_said(&file.read.demand, solar),
        fact: UsageRead { file: name.chars().take(200).collect(), demand: file.read.demand }.into(),
    }
}
