//! Every home on this machine, the most urgent first; copied, put away, deleted and taken back.

use std::sync::Arc;
use std::time::{SystemTime, UNIX_EPOCH};

use axum::Json;
use axum::extract::{Path, State};
use axum::http::Uri;
use wayfinder_core::{HomeId, Moment, Progress, Recipe};
use wayfinder_store::StoredHome;

use crate::App;
use crate::Desk;
use crate::desk::{Copy, DamagedHome, DeskError, Grown, KEPT_DAYS, Listed};
use crate::guard::{ENTRIES_LIMIT, JsonBody, off_thread};
use crate::holds::HELD_FOR;
use crate::in_home::HomePath;
use crate::problem::{Problem, internal};
use crate::routes::homes::unfit;
use crate::routes::write::Imported;
use crate::summary::{HomeWorst, Summary};

/// A home in the list.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct HomeInList {
    id: HomeId,
    name: String,
    /// Its panels, in words: `Main panel, 24 spaces`.
    panels: Vec<String>,
    progress: Progress,
    /// What it is drawn from, where it is a made-up house.
    practice: Option<Recipe>,
    /// The worst that is known of it; null in the archive and of made-up houses.
    worst: Option<HomeWorst>,
    /// It is in the archive.
    archived: bool,
    /// The last line of its logbook.
    seq: u64,
    /// When that was written.
    written: Option<Moment>,
}

/// A deleted home that can be taken back.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct DeletedHome {
    id: HomeId,
    name: String,
    /// When it was deleted.
    deleted: Moment,
    /// When it is gone for good.
    until: Moment,
}

/// A home that is not as it was written, and so is not opened. The others work.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct DamagedInList {
    id: HomeId,
    /// Its name, as far as that can be read.
    name: String,
    /// What is wrong, and at which line: `line 12 is missing`.
    what: String,
    /// So many of its lines can be read.
    readable: u64,
}

/// A home that was not read yet since the program started.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct BeingRead {
    id: HomeId,
    /// What it was called at first.
    name: String,
}

/// A home that has gone to another server. It is kept here as it was when it went.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct MovedInList {
    id: HomeId,
    name: String,
    /// The address at which it is used now.
    to: String,
}

/// Every home.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct AllHomes {
    /// The real ones first, the most urgent first; then the made-up houses; then the archive.
    homes: Vec<HomeInList>,
    /// What is damaged.
    damaged: Vec<DamagedInList>,
    /// What is still to be read, as after a new release: it can be opened, and is listed with the others soon.
    being_read: Vec<BeingRead>,
    /// What has gone to another server.
    moved: Vec<MovedInList>,
    /// What was deleted and can be taken back.
    deleted: Vec<DeletedHome>,
    /// So many homes were not looked through for damage yet since the program started; ask again while there are any.
    unchecked: usize,
}

fn now() -> Moment {
    let since = SystemTime::now().duration_since(UNIX_EPOCH).unwrap_or_default();
    Moment::from_unix_ms(i64::try_from(since.as_millis()).unwrap_or(i64::MAX))
}

/// Every home, the most urgent first.
#[utoipa::path(get, path = "/api/homes", responses((status = 200, body = AllHomes)))]
pub(crate) async fn list(State(app): State<App>) -> Result<Json<AllHomes>, Problem> {
    let desk = Arc::clone(&app.desk);
    let list = off_thread(move || {
        desk.clear_deleted(now())?;
        let Listed { sound, damaged, moved, deleted, being_read, unchecked } = desk.listed()?;
        let in_list = |(stored, summary): (StoredHome, Summary)| {
            let Summary { name, panels, progress, practice, worst, seq, written } = summary;
            let worst = worst.filter(|_| !stored.archived);
            HomeInList { id: stored.id, name, panels, progress, practice, worst, archived: stored.archived, seq, written }
        };
        let mut homes: Vec<HomeInList> = sound.into_iter().map(in_list).collect();
        let damaged = damaged.into_iter().map(|DamagedHome { stored, damage, readable }| DamagedInList {
            name: readable.home().name().map_or_else(|| stored.id.to_string(), str::to_owned),
            id: stored.id,
            what: damage.to_string(),
            readable: readable.seq(),
        });
        let damaged = damaged.collect();
        let being_read = being_read.into_iter().map(|(stored, name)| BeingRead { id: stored.id, name }).collect();
        let moved = moved.into_iter().map(|(id, name, to)| MovedInList { id, name, to }).collect();
        let deleted = deleted.into_iter().map(|(id, deleted, name)| DeletedHome {
            id,
            name,
            deleted,
            until: Moment::from_unix_ms(deleted.unix_ms() + KEPT_DAYS * 24 * 60 * 60 * 1000),
        });
        let deleted = deleted.collect();
        homes.sort_by_key(|home| {
            let urgency = home.worst.as_ref().map_or(u8::MAX, |worst| worst.about as u8);
            (home.archived, home.practice.is_some(), urgency, home.name.to_lowercase())
        });
        Ok(AllHomes { homes, damaged, being_read, moved, deleted, unchecked })
    });
    list.await.map(Json)
}

/// Where a home is put.
#[derive(serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct Archiving {
    /// In the archive, or out of it.
    archived: bool,
}

/// Puts a home into the archive, or takes it out. It can be read and written there as before.
#[utoipa::path(put, path = "/api/homes/{home}/archived", params(HomePath), request_body = Archiving, responses((status = 200, body = Imported), (status = 404, body = Problem), (status = 410, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn archive(
    State(app): State<App>,
    Path(home): Path<String>,
    JsonBody(body): JsonBody<Archiving, ENTRIES_LIMIT>,
) -> Result<Json<Imported>, Problem> {
    let id: HomeId = home.parse().map_err(|_| Problem::not_found("home"))?;
    let desk = Arc::clone(&app.desk);
    let put = off_thread(move || {
        desk.set_archived(&id, body.archived)?;
        Ok(Imported { seq: desk.lines_of(&id)?, home: id })
    });
    put.await.map(Json)
}

/// A copy that is wanted.
#[derive(serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct CopyWanted {
    /// The id of the copy, made by whoever asks.
    home: HomeId,
    /// Its name.
    name: String,
    /// Who copies, as the logbook has it.
    by: String,
}

/// Copies a home, its lines and photos, under another name. From then on each goes its own way.
#[utoipa::path(post, path = "/api/homes/{home}/copy", params(HomePath), request_body = CopyWanted, responses((status = 200, body = Imported), (status = 404, body = Problem), (status = 409, body = Problem), (status = 410, body = Problem), (status = 422, body = Problem), (status = 507, body = Problem)))]
pub(crate) async fn copy_home(
    State(app): State<App>,
    Path(home): Path<String>,
    JsonBody(wanted): JsonBody<CopyWanted, ENTRIES_LIMIT>,
) -> Result<Json<Imported>, Problem> {
    copied(app, &home, wanted, Desk::copy).await
}

/// Copies by one way or the other, and tells where the copy is.
async fn copied(
    app: App,
    home: &str,
    wanted: CopyWanted,
    copy: fn(&Desk, &HomeId, Copy) -> Result<(), DeskError>,
) -> Result<Json<Imported>, Problem> {
    let id: HomeId = home.parse().map_err(|_| Problem::not_found("home"))?;
    let desk = Arc::clone(&app.desk);
    let made = off_thread(move || {
        let CopyWanted { home: to, name, by } = wanted;
        copy(&desk, &id, Copy { to: to.clone(), name, by, at: now() })?;
        Ok(Imported { seq: desk.lines_of(&to)?, home: to })
    })
    .await?;
    let _ = app.grown.send(Grown { home: made.home.clone(), seq: made.seq });
    Ok(Json(made))
}

/// Copies what can be read of a damaged home, up to the first line that is not as it was written, with its photos, as a home of its
/// own. The damaged one stays as it is.
#[utoipa::path(post, path = "/api/homes/{home}/salvage", params(HomePath), request_body = CopyWanted, responses((status = 200, body = Imported), (status = 404, body = Problem), (status = 409, body = Problem), (status = 422, body = Problem), (status = 507, body = Problem)))]
pub(crate) async fn salvage(
    State(app): State<App>,
    Path(home): Path<String>,
    JsonBody(wanted): JsonBody<CopyWanted, ENTRIES_LIMIT>,
) -> Result<Json<Imported>, Problem> {
    copied(app, &home, wanted, Desk::salvage).await
}

/// Deletes a home. For 30 days it can be taken back; meanwhile nobody reads or writes it.
#[utoipa::path(delete, path = "/api/homes/{home}", params(HomePath), responses((status = 200, body = Imported), (status = 404, body = Problem), (status = 410, body = Problem)))]
pub(crate) async fn delete(State(app): State<App>, Path(home): Path<String>) -> Result<Json<Imported>, Problem> {
    let id: HomeId = home.parse().map_err(|_| Problem::not_found("home"))?;
    let (desk, gone) = (Arc::clone(&app.desk), id.clone());
    let seq = off_thread(move || {
        let seq = desk.lines_of(&gone)?;
        desk.delete(&gone, now())?;
        Ok(seq)
    })
    .await?;
    // Whoever has it open is told, and finds that it is deleted.
    let _ = app.grown.send(Grown { home: id.clone(), seq: seq + 1 });
    Ok(Json(Imported { home: id, seq }))
}

/// Takes back a home that was deleted, with every line it had.
#[utoipa::path(post, path = "/api/homes/{home}/take-back", params(HomePath), responses((status = 200, body = Imported), (status = 404, body = Problem)))]
pub(crate) async fn take_back(State(app): State<App>, Path(home): Path<String>) -> Result<Json<Imported>, Problem> {
    let id: HomeId = home.parse().map_err(|_| Problem::not_found("home"))?;
    let (desk, back) = (Arc::clone(&app.desk), id.clone());
    let seq = off_thread(move || {
        desk.take_back(&back)?;
        desk.lines_of(&back).map_err(Problem::from)
    })
    .await?;
    let _ = app.grown.send(Grown { home: id.clone(), seq });
    Ok(Json(Imported { home: id, seq }))
}

/// Where a home has gone, with all that it has here.
#[derive(serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct HandedOver {
    /// The address of the other server, as a browser opens it: `https://wayfinder.example:4760`.
    to: String,
    /// The last line that is there.
    seq: u64,
    /// How many photos are there.
    photos: usize,
}

/// An address as a browser opens it, without a path.
fn address(text: &str) -> Option<String> {
    let uri: Uri = text.parse().ok()?;
    let plain = matches!(uri.path(), "" | "/") && uri.query().is_none() && matches!(uri.scheme_str(), Some("http" | "https"));
    let authority = uri.authority().filter(|authority| !authority.as_str().contains('@'))?;
    plain.then(|| format!("{}://{authority}", uri.scheme_str().unwrap_or_default()))
}

/// Hands a home over to another server that has all of it: from then on it is used there, nothing more is written to it here, and
/// whoever has it open is sent on. One that has grown since is not handed over; whoever writes to it waits for ten seconds then, so
/// that the rest can follow. `wayfinder move` does all of it.
#[utoipa::path(post, path = "/api/homes/{home}/moved", params(HomePath), request_body = HandedOver, responses((status = 200, body = Imported), (status = 404, body = Problem), (status = 409, body = Problem), (status = 410, body = Problem), (status = 422, body = Problem), (status = 507, body = Problem)))]
pub(crate) async fn hand_over(
    State(app): State<App>,
    Path(home): Path<String>,
    JsonBody(HandedOver { to, seq, photos }): JsonBody<HandedOver, ENTRIES_LIMIT>,
) -> Result<Json<Imported>, Problem> {
    let id: HomeId = home.parse().map_err(|_| Problem::not_found("home"))?;
    let Some(to) = address(&to) else {
        return Err(unfit("to", "This is no address of a server.".into(), "Give it as https://wayfinder.example:4760."));
    };
    let (desk, home) = (Arc::clone(&app.desk), id.clone());
    let done = tokio::task::spawn_blocking(move || desk.hand_over(&home, to, seq, photos)).await.map_err(|_| internal())?;
    match done {
        Err(DeskError::HasGrown { .. }) => app.holds.hold(&id, HELD_FOR),
        _ => app.holds.end(&id),
    }
    done?;
    // Whoever has it open is told, and finds where it is.
    let _ = app.grown.send(Grown { home: id.clone(), seq: seq + 1 });
    Ok(Json(Imported { home: id, seq }))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_address_of_a_server_is_told_from_anything_else() {
        assert_eq!(address("https://wayfinder.example:4760/").as_deref(), Some("https://wayfinder.example:4760"));
        assert_eq!(address("http://10.0.0.7:4760").as_deref(), Some("http://10.0.0.7:4760"));
        for no in
            ["", "wayfinder.example", "javascript:alert(1)", "https://a@b.example", "ftp://b.example", "http://b.example/x?y"]
        {
            assert_eq!(address(no), None, "{no}");
        }
    }
}
