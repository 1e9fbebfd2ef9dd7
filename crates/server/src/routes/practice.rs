//! Made-up houses: drawn, looked at with instruments, marked.

use std::convert::Infallible;
use std::sync::Arc;
use std::time::{Duration, SystemTime, UNIX_EPOCH};

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::Response;
use axum::response::Sse;
use axum::response::sse::Event;
use futures_util::{Stream, StreamExt, stream};
use wayfinder_core::sim::{
    FaultHouse, HeldAt, JobShows, LessonMark, LessonName, Marks, MeasureHouse, MeasureMarks, MeasuredAt, MeterShows, Reading,
    UtilityShows, WorkHouse, WorkMarks, draw, fault_marks, fault_shows, job_shows, marks as mark,
    measure_marks as mark_measuring, meter_shows, next_lesson, reading as read, utility_meter, work_marks as mark_work,
};
use wayfinder_core::trips::{FaultMarks, FaultShown};
use wayfinder_core::{
    BreakerId, Draft, Fact, HomeId, Instrument, JobId, KnownPanel, Lesson, Level, LoadId, Moment, PointId, ReadWith, ReadingOf,
    Recipe, know_panels,
};

use crate::App;
use crate::desk::Grown;
use crate::guard::{Asked, ENTRIES_LIMIT, JsonBody, off_thread};
use crate::in_home::{HomePath, InHome};
use crate::problem::Problem;
use crate::routes::work::JobPath;
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
        let made = match recipe.lesson {
            Lesson::Trace => "made",
            Lesson::Measure => "measure",
            Lesson::Work => "work",
            Lesson::Fault => "fault",
        };
        // The same recipe again is another try at the same house.
        let names = (1..1000).map(|n| match n {
            1 => format!("{made}-{level}-{}-{}", recipe.points, recipe.seed),
            n => format!("{made}-{level}-{}-{}-{n}", recipe.points, recipe.seed),
        });
        let mut free = names.filter_map(|name| name.parse::<HomeId>().ok()).filter(|id| desk.home(id).is_err());
        let home = free.next().ok_or_else(crate::problem::internal)?;
        let facts = match recipe.lesson {
            Lesson::Trace => draw(recipe).facts,
            Lesson::Measure => MeasureHouse::draw(recipe)?.facts,
            Lesson::Work => WorkHouse::draw(recipe)?.facts,
            Lesson::Fault => FaultHouse::draw(recipe)?.facts,
        };
        let now = i64::try_from(since_1970().as_millis()).unwrap_or_default();
        // What is traced already was looked at a second after the other.
        let begun = now - 1000 * i64::try_from(facts.len()).unwrap_or_default();
        let drafts: Vec<Draft> = facts
            .into_iter()
            .enumerate()
            .filter_map(|(n, fact)| {
                let id = format!("drawn-{n}").parse().ok()?;
                let at = Moment::from_unix_ms(begun + 1000 * i64::try_from(n).unwrap_or_default());
                Some(Draft { id, at, by: "Wayfinder".into(), instrument: None, version: Fact::VERSION, fact })
            })
            .collect();
        let (_, opened) = desk.append(&home, drafts)?;
        Ok(Imported { seq: opened.book.seq(), home })
    })
    .await?;
    let _ = app.grown.send(Grown { home: made.home.clone(), seq: made.seq });
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

fn since_1970() -> Duration {
    SystemTime::now().duration_since(UNIX_EPOCH).unwrap_or_default()
}

/// Whether the owner knows the panel already: that is kept on the device.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Knowing {
    /// The questions about the panel were answered.
    #[serde(default)]
    panel: bool,
}

/// A lesson, and how it stands in the made-up houses that are here.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct LessonLine {
    lesson: LessonName,
    /// What it is called.
    title: String,
    /// What is learnt in it.
    about: String,
    /// It went to its end, and well, in one house at least.
    good: bool,
    /// It went to its end in one house at least.
    done: bool,
    /// How it went in the house where it went best; empty where it was not tried.
    said: String,
    /// That house.
    home: Option<HomeId>,
    /// It is the one to learn next.
    next: bool,
}

/// The lessons in their order, with what to learn next by the marks.
#[utoipa::path(get, path = "/api/practice/lessons", params(Knowing), responses((status = 200, body = [LessonLine]), (status = 422, body = Problem)))]
pub(crate) async fn lessons(State(app): State<App>, Asked(knowing): Asked<Knowing>) -> Result<Json<Vec<LessonLine>>, Problem> {
    let desk = Arc::clone(&app.desk);
    let lines = off_thread(move || {
        let now = Moment::from_unix_ms(i64::try_from(since_1970().as_millis()).unwrap_or_default());
        let mut all: Vec<(HomeId, LessonMark)> = Vec::new();
        let made_up = desk.listed()?.sound.into_iter().filter(|(_, summary)| summary.practice.is_some());
        for (home, opened) in made_up.filter_map(|(stored, _)| Some((stored.id.clone(), desk.home(&stored.id).ok()?))) {
            all.extend(opened.lessons(now).iter().map(|mark| (home.clone(), mark.clone())));
        }
        let marks: Vec<LessonMark> = all.iter().map(|(_, mark)| mark.clone()).collect();
        let next = next_lesson(&marks, knowing.panel);
        let line = |lesson: LessonName| {
            let best = all.iter().filter(|(_, mark)| mark.lesson == lesson).max_by_key(|(_, mark)| (mark.good, mark.done));
            LessonLine {
                lesson,
                title: lesson.title().into(),
                about: lesson.about().into(),
                good: best.is_some_and(|(_, mark)| mark.good) || lesson == LessonName::Panel && knowing.panel,
                done: best.is_some_and(|(_, mark)| mark.done) || lesson == LessonName::Panel && knowing.panel,
                said: best.map(|(_, mark)| mark.said.clone()).unwrap_or_default(),
                home: best.map(|(home, _)| home.clone()),
                next: next == Some(lesson),
            }
        };
        Ok(LessonName::ALL.into_iter().map(line).collect())
    });
    lines.await.map(Json)
}

/// How the power comes to each panel of the home, with a few questions.
#[utoipa::path(get, path = "/api/homes/{home}/practice/panel", params(HomePath), responses((status = 200, body = [KnownPanel]), (status = 404, body = Problem)))]
pub(crate) async fn own_panel(home: InHome) -> Result<Response, Problem> {
    home.answer(move |opened| Ok(know_panels(&opened.study))).await
}

fn no_fault_here() -> Problem {
    Problem::new(
        StatusCode::NOT_FOUND,
        "not_made_up",
        "This home is no made-up house with a fault.",
        "What is seen on the screen is for practice.",
    )
}

/// What is seen where the next look for the fault is made; null where nothing is looked for any more.
#[utoipa::path(get, path = "/api/homes/{home}/practice/fault", params(HomePath), responses((status = 200, body = Option<FaultShown>), (status = 404, body = Problem)))]
pub(crate) async fn fault_seen(home: InHome) -> Result<Response, Problem> {
    home.answer(move |opened| {
        let drawn_for_it = opened.study.practice().is_some_and(|recipe| recipe.lesson == Lesson::Fault);
        if drawn_for_it { Ok(fault_shows(&opened.study)) } else { Err(no_fault_here()) }
    })
    .await
}

/// How good the search for the fault is. What it was is shown once it is over, or where that is asked for.
#[utoipa::path(get, path = "/api/homes/{home}/practice/fault/marks", params(HomePath, Revealing), responses((status = 200, body = FaultMarks), (status = 404, body = Problem)))]
pub(crate) async fn fault_marked(home: InHome, Asked(asked): Asked<Revealing>) -> Result<Response, Problem> {
    home.answer(move |opened| fault_marks(&opened.book, &opened.study, asked.reveal).ok_or_else(no_fault_here)).await
}

fn not_to_be_measured() -> Problem {
    Problem::new(
        StatusCode::NOT_FOUND,
        "not_made_up",
        "This home is no made-up house to be measured.",
        "Instruments on the screen are for practice.",
    )
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Measuring {
    /// With what a load or a circuit is read; left out, volts are read.
    with: Option<ReadWith>,
    /// At which load.
    load: Option<LoadId>,
    /// Or at which breaker.
    breaker: Option<BreakerId>,
    /// At which of its poles, from 1.
    pole: Option<u8>,
    /// Or at which point.
    point: Option<PointId>,
    /// The loads that run, with commas between.
    #[serde(default)]
    running: String,
}

fn ids<T: std::str::FromStr>(listed: &str) -> Vec<T> {
    listed.split(',').filter_map(|id| id.parse().ok()).collect()
}

/// What a meter shows now in a made-up house that is to be measured.
#[utoipa::path(get, path = "/api/homes/{home}/practice/meter", params(HomePath, Measuring), responses((status = 200, body = MeterShows), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn meter(home: InHome, Asked(asked): Asked<Measuring>) -> Result<Response, Problem> {
    home.answer(move |opened| {
        if opened.study.practice().is_none_or(|recipe| recipe.lesson != Lesson::Measure) {
            return Err(not_to_be_measured());
        }
        let at = match (asked.load, asked.breaker, asked.point, asked.with) {
            (Some(load), None, None, Some(with)) => MeasuredAt::Of(ReadingOf::Load { load }, with),
            (None, Some(breaker), None, Some(with)) => {
                MeasuredAt::Of(ReadingOf::Circuit { breaker, pole: asked.pole.unwrap_or(1) }, with)
            }
            (None, Some(breaker), None, None) => MeasuredAt::Breaker(breaker),
            (None, None, Some(point), None) => MeasuredAt::Point(point),
            _ => {
                let wrong = "Say what is read and with what, or where volts are read.";
                return Err(Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "unknown", wrong, "Nothing was read."));
            }
        };
        meter_shows(&opened.study, &at, &ids(&asked.running)).ok_or_else(|| Problem::not_found("place to read at"))
    })
    .await
}

fn no_work() -> Problem {
    Problem::new(
        StatusCode::NOT_FOUND,
        "not_made_up",
        "This home is no made-up panel with a wish.",
        "Instruments on the screen are for practice.",
    )
}

/// What the step of a job that is next shows in a made-up panel.
#[utoipa::path(get, path = "/api/homes/{home}/practice/job/{job}", params(HomePath, JobPath), responses((status = 200, body = JobShows), (status = 404, body = Problem)))]
pub(crate) async fn at_the_job(home: InHome, Path(JobPath { job }): Path<JobPath>) -> Result<Response, Problem> {
    let job: JobId = job.parse().map_err(|_| Problem::not_found("job"))?;
    home.answer(move |opened| job_shows(&opened.study, &job, now()).ok_or_else(no_work)).await
}

/// How good the way and the steps in a made-up panel are.
#[utoipa::path(get, path = "/api/homes/{home}/practice/work", params(HomePath, Revealing), responses((status = 200, body = WorkMarks), (status = 404, body = Problem)))]
pub(crate) async fn work_done(home: InHome, Asked(asked): Asked<Revealing>) -> Result<Response, Problem> {
    home.answer(move |opened| mark_work(&opened.book, &opened.study, now(), asked.reveal).ok_or_else(no_work)).await
}

fn now() -> Moment {
    Moment::from_unix_ms(i64::try_from(since_1970().as_millis()).unwrap_or(i64::MAX))
}

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct AtTheMeter {
    /// The loads that run, with commas between.
    #[serde(default)]
    running: String,
    /// The breakers that are off, with commas between.
    #[serde(default)]
    off: String,
}

/// The utility's meter of a made-up house as server-sent events `shows`, one a second; their data are a [`UtilityShows`].
#[utoipa::path(get, path = "/api/homes/{home}/practice/utility", params(HomePath, AtTheMeter), responses((status = 200, content_type = "text/event-stream", body = UtilityShows), (status = 404, body = Problem)))]
pub(crate) async fn utility(
    home: InHome,
    State(app): State<App>,
    Asked(asked): Asked<AtTheMeter>,
) -> Result<Sse<impl Stream<Item = Result<Event, Infallible>>>, Problem> {
    let meter = home
        .ask(move |opened| utility_meter(&opened.study, &ids(&asked.running), &ids(&asked.off)).ok_or_else(not_to_be_measured))
        .await?;
    let begun = since_1970().as_secs();
    let ticks = tokio_stream::wrappers::IntervalStream::new(tokio::time::interval(Duration::from_secs(1)));
    let mut closing = app.closing.clone();
    let closed = async move {
        let _ = closing.wait_for(|closing| *closing).await;
    };
    let shows = ticks.zip(stream::iter(0..)).map(move |(_, second)| {
        let event = Event::default().event("shows").json_data(meter.shows(begun, second));
        Ok(event.unwrap_or_default())
    });
    Ok(Sse::new(shows.take_until(closed)))
}

/// How good the survey of a made-up house is.
#[utoipa::path(get, path = "/api/homes/{home}/practice/survey", params(HomePath, Revealing), responses((status = 200, body = MeasureMarks), (status = 404, body = Problem)))]
pub(crate) async fn measure_marks(home: InHome, Asked(asked): Asked<Revealing>) -> Result<Response, Problem> {
    home.answer(move |opened| mark_measuring(&opened.book, &opened.study, asked.reveal).ok_or_else(not_to_be_measured)).await
}
