//! The one way in.

use std::ops::RangeInclusive;
use std::sync::Arc;
use std::time::{Duration, SystemTime, UNIX_EPOCH};

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use wayfinder_core::{Draft, EntryId, HomeId, Logbook};
use wayfinder_formats::{HomeFileError, read_home_file};

use crate::App;
use crate::desk::{DeskError, Grown};
use crate::guard::{ENTRIES_LIMIT, FILE_LIMIT, JsonBody, RawBody, Visit, off_thread};
use crate::in_home::HomePath;
use crate::problem::Problem;
use crate::sharing::{Session, Sharing, Who};

/// A batch of entries: all are taken or none.
#[derive(serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct Batch {
    entries: Vec<Draft>,
}

/// What became of a batch.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct Taken {
    /// The logbook's last sequence after it.
    seq: u64,
    /// How many lines were new; entries that were there already are not written again.
    new: usize,
}

/// Where an imported home is.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct Imported {
    pub(crate) home: HomeId,
    pub(crate) seq: u64,
}

/// Writes entries into the logbook: all or none, on disk when answered, harmless to send again. The first
/// entry of a new id names the home and so makes it.
#[utoipa::path(post, path = "/api/homes/{home}/entries", params(HomePath), request_body = Batch, responses((status = 200, body = Taken), (status = 403, body = Problem), (status = 409, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem), (status = 507, body = Problem)))]
pub(crate) async fn entries(
    State(app): State<App>,
    Path(home): Path<String>,
    visit: Visit,
    JsonBody(batch): JsonBody<Batch, ENTRIES_LIMIT>,
) -> Result<Json<Taken>, Problem> {
    let id: HomeId = home.parse().map_err(|_| Problem::not_found("home"))?;
    if batch.entries.is_empty() || batch.entries.len() > 1000 {
        return Err(Problem::new(
            StatusCode::UNPROCESSABLE_ENTITY,
            "out_of_range",
            format!("A batch has 1 to 1000 entries; this one has {}.", batch.entries.len()),
            "Nothing was recorded.",
        ));
    }
    app.holds.wait(&id).await;
    let (desk, sharing) = (Arc::clone(&app.desk), Arc::clone(&app.sharing));
    let home = id.clone();
    let taken = off_thread(move || {
        let token = visit.token.clone();
        let session = Arc::clone(&sharing);
        let may = move |book: &Logbook, batch: &[Draft]| may_write(&visit, &session, book, batch);
        let (new, opened) = desk.append_if(&home, batch.entries, may)?;
        if let Some(token) = token {
            sharing.wrote(&token, new.iter().map(|line| line.entry.id.clone()));
        }
        Ok(Taken { seq: opened.book.seq(), new: new.len() })
    })
    .await?;
    if taken.new > 0 {
        let _ = app.grown.send(Grown { home: id, seq: taken.seq });
    }
    Ok(Json(taken))
}

/// How far the clock of a helper's phone may be from the program's. The phone sets itself by the program's answers.
const CLOCKS_APART: Duration = Duration::from_secs(120);

/// Whether this may be written by whoever asks. It is asked when the home's own lock is held, so that nothing of somebody who was
/// sent away meanwhile is written. A helper writes what they saw and switched, under their own name, of the
/// time since they came in; and strikes out what they wrote themselves since then.
fn may_write(visit: &Visit, sharing: &Sharing, book: &Logbook, batch: &[Draft]) -> Result<(), DeskError> {
    if !visit.still(sharing) {
        return Err(DeskError::SentAway);
    }
    let Who::Helper(helper) = &visit.who else { return Ok(()) };
    let session = visit.token.as_deref().and_then(|token| sharing.session(token)).ok_or(DeskError::SentAway)?;
    let own = |id: &EntryId| session.wrote.contains(id);
    if batch.iter().any(|draft| draft.by != helper.name || !draft.fact.may_be_written_by_a_helper(own)) {
        return Err(DeskError::NotForHelpers);
    }
    let theirs = times_of(&session, unix_ms(SystemTime::now()));
    // What is there already may be sent again by whoever came in anew.
    if batch.iter().any(|draft| !theirs.contains(&draft.at.unix_ms()) && book.line(&draft.id).is_none()) {
        return Err(DeskError::OtherTime);
    }
    Ok(())
}

/// The times that a session's lines may bear. Its begin is the earlier one of two clocks: the machine may have slept since, or its
/// clock may have been set.
fn times_of(session: &Session, now: i64) -> RangeInclusive<i64> {
    let ms = |time: Duration| i64::try_from(time.as_millis()).unwrap_or(i64::MAX);
    let begun = unix_ms(session.came).min(now.saturating_sub(ms(session.since)));
    begun.saturating_sub(ms(CLOCKS_APART))..=now.saturating_add(ms(CLOCKS_APART))
}

fn unix_ms(time: SystemTime) -> i64 {
    let since = time.duration_since(UNIX_EPOCH).unwrap_or_default();
    i64::try_from(since.as_millis()).unwrap_or(i64::MAX)
}

/// Takes in a whole home from its file.
#[utoipa::path(post, path = "/api/import", request_body(content = super::homes::HomeFile, content_type = "application/json"), responses((status = 200, body = Imported), (status = 409, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn import(State(app): State<App>, RawBody(bytes): RawBody<FILE_LIMIT>) -> Result<Json<Imported>, Problem> {
    let desk = Arc::clone(&app.desk);
    let imported = off_thread(move || {
        let (file, book) = read_home_file(&bytes).map_err(|error| {
            let code = if matches!(error, HomeFileError::Newer(_)) { "newer_version" } else { "no_home_file" };
            Problem::new(
                StatusCode::UNPROCESSABLE_ENTITY,
                code,
                error.to_string(),
                "The homes that were here are kept as they are.",
            )
        })?;
        let seq = book.seq();
        desk.import(&file, book)?;
        Ok(Imported { home: file.home, seq })
    })
    .await?;
    let _ = app.grown.send(Grown { home: imported.home.clone(), seq: imported.seq });
    Ok(Json(imported))
}

/// Puts the demo homes back as shipped. Only where the program was started as a demo.
#[utoipa::path(post, path = "/api/demo/reset", responses((status = 200, body = [Imported]), (status = 404, body = Problem)))]
pub(crate) async fn reset_demo(State(app): State<App>) -> Result<Json<Vec<Imported>>, Problem> {
    if !app.setup.demo {
        return Err(Problem::not_found("demo"));
    }
    let desk = Arc::clone(&app.desk);
    let reset: Vec<Imported> = off_thread(move || {
        let homes = desk.reset_demo()?;
        homes.into_iter().map(|home| Ok(Imported { seq: desk.home(&home)?.book.seq(), home })).collect()
    })
    .await?;
    for Imported { home, seq } in &reset {
        let _ = app.grown.send(Grown { home: home.clone(), seq: *seq });
    }
    Ok(Json(reset))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_sessions_lines_are_of_its_time_also_where_the_machine_slept_or_its_clock_was_set() {
        const MINUTE: i64 = 60_000;
        let came = 1_790_000_000_000;
        // Minutes by the clock that stands still in sleep, and by the clock on the wall; the first minute that counts.
        for (awake, wall, first) in [(30, 30, 0), (10, 30, 0), (30, -30, -60), (30, 600, 0)] {
            let session = Session {
                since: Duration::from_secs(awake * 60),
                came: UNIX_EPOCH + Duration::from_millis(came as u64),
                wrote: std::collections::BTreeSet::new(),
            };
            let times = times_of(&session, came + wall * MINUTE);
            assert!(times.contains(&(came + first * MINUTE)), "{awake} {wall}");
            assert!(!times.contains(&(came + (first - 3) * MINUTE)), "{awake} {wall}: before they came");
            assert!(!times.contains(&(came + (wall + 3) * MINUTE)), "{awake} {wall}: not yet");
        }
    }
}
