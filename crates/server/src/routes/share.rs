//! Sharing on the home network: who is in, who may come in; and a helper's own step.

use std::collections::BTreeMap;
use std::net::SocketAddr;
use std::sync::Arc;

use axum::Json;
use axum::extract::{ConnectInfo, Path, State};
use axum::http::{HeaderMap, HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use qrcode::{Color, QrCode};
use wayfinder_core::{HelperView, HomeId, StepSide, helper_view};

use crate::guard::{COMING_IN_LIMIT, JsonBody, Visit, forgotten, off_thread};
use crate::in_home::{HomePath, InHome};
use crate::names::{look_alike, wrong_with};
use crate::problem::Problem;
use crate::sharing::{COOKIE, Door, Refused, Who, hashed, token};
use crate::{App, DoorError};

/// Where the hash of the owner's passphrase is kept.
const PASSPHRASE: &str = "passphrase";
/// After so many seconds somebody may try again who came while too many others signed in.
const SHORT_WAIT: u64 = 5;

/// Who asks, as the program knows them.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct Me {
    /// `owner`, `helper` or `nobody`.
    role: &'static str,
    /// At the machine itself.
    here: bool,
    /// A helper's name.
    name: Option<String>,
    /// A helper's home.
    home: Option<HomeId>,
    /// Where a helper stands.
    side: Option<StepSide>,
}

/// A code that a helper can use once.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct OpenInvite {
    /// As it is said: `ABCD-2345`.
    code: String,
    /// For which home.
    home: HomeId,
    /// The address with the code in it.
    url: Option<String>,
    /// The address as a QR code: an SVG path of unit squares.
    qr: Option<QrPath>,
    /// How long it can be used.
    seconds_left: u64,
}

/// A QR code to draw.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct QrPath {
    /// Squares in a row, without a border.
    size: usize,
    /// The `d` of an SVG path.
    d: String,
}

/// Somebody who is in.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct PersonIn {
    /// To send them away by.
    id: String,
    /// `owner` or `helper`.
    role: &'static str,
    name: Option<String>,
    home: Option<HomeId>,
    side: Option<StepSide>,
    /// When they last asked for anything.
    seconds_ago: u64,
}

/// Sharing as it is now.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub(crate) struct SharingNow {
    /// The second door is open.
    open: bool,
    /// Where it is reached.
    addresses: Vec<String>,
    /// What goes through it is encrypted, or will be once it is open.
    encrypted: bool,
    /// The owner has set a passphrase.
    has_passphrase: bool,
    invites: Vec<OpenInvite>,
    people: Vec<PersonIn>,
}

/// Opens the second door.
#[derive(serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct OpenDoor {
    /// The owner's passphrase, 12 to 128 characters; not needed where one was set before.
    #[serde(default)]
    passphrase: Option<String>,
}

/// Asks for a code.
#[derive(serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct NewInvite {
    /// The home that is traced.
    home: HomeId,
}

/// Comes in with a code.
#[derive(serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct Joining {
    code: String,
    /// What the lines are signed with, 1 to 40 characters.
    name: String,
    side: StepSide,
}

/// Comes in with the passphrase.
#[derive(serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct SigningIn {
    passphrase: String,
}

/// A cookie that came over an encrypted connection goes over no other.
fn with_cookie(app: &App, token: &str, most_s: u32, body: impl IntoResponse) -> Response {
    let mut response = body.into_response();
    let secure = if app.sharing.is_encrypted() { "; Secure" } else { "" };
    let cookie = format!("{COOKIE}={token}; Path=/; HttpOnly; SameSite=Strict; Max-Age={most_s}{secure}");
    if let Ok(cookie) = HeaderValue::from_str(&cookie) {
        response.headers_mut().insert(header::SET_COOKIE, cookie);
    }
    response
}

fn refused(refused: Refused) -> Response {
    let kept = "Nothing was changed.";
    let problem = |status, code: &str, title: &str, detail: String| Problem::new(status, code, title, detail).into_response();
    match refused {
        Refused::Code => problem(
            StatusCode::FORBIDDEN,
            "wrong_code",
            "This code cannot be used.",
            "It is mistyped, used, or older than ten minutes. Ask the owner for a new one.".into(),
        ),
        Refused::Passphrase => problem(StatusCode::FORBIDDEN, "wrong_passphrase", "This is not the passphrase.", kept.into()),
        Refused::NameTaken => problem(
            StatusCode::CONFLICT,
            "name_taken",
            "Somebody of that name is here, or of one that looks like it; or the owner writes under it.",
            "Choose another name.".into(),
        ),
        Refused::Closed => problem(
            StatusCode::UNAUTHORIZED,
            "not_in",
            "Wayfinder is not shared any more.",
            "Ask the owner to share it again.".into(),
        ),
        Refused::Wait(seconds) => {
            let mut response = problem(
                StatusCode::TOO_MANY_REQUESTS,
                "wait",
                "Too many wrong tries.",
                format!("Wait {seconds} seconds, then try again."),
            );
            response.headers_mut().insert(header::RETRY_AFTER, HeaderValue::from(seconds));
            response
        }
    }
}

fn me_of(who: &Who, door: Door) -> Me {
    let (role, helper) = match who {
        Who::Owner => ("owner", None),
        Who::Helper(helper) => ("helper", Some(helper)),
        Who::Nobody => ("nobody", None),
    };
    Me {
        role,
        here: door == Door::Here,
        name: helper.map(|h| h.name.clone()),
        home: helper.map(|h| h.home.clone()),
        side: helper.map(|h| h.side),
    }
}

/// Who one is here.
#[utoipa::path(get, path = "/api/me", responses((status = 200, body = Me)))]
pub(crate) async fn me(visit: Visit) -> Json<Me> {
    Json(me_of(&visit.who, visit.door))
}

/// Which opening of the door somebody stands at; at this machine itself nobody needs to come in.
fn opening(visit: &Visit) -> Result<u64, Problem> {
    match visit.door {
        Door::Network { opening } => Ok(opening),
        Door::Here => Err(Problem::new(
            StatusCode::CONFLICT,
            "here",
            "At this machine you are in already, as the owner.",
            "Come in at an address of the home network.",
        )),
    }
}

/// Comes in as a helper of one home.
#[utoipa::path(post, path = "/api/join", request_body = Joining, responses((status = 200, body = Me), (status = 401, body = Problem), (status = 403, body = Problem), (status = 409, body = Problem), (status = 422, body = Problem), (status = 429, body = Problem)))]
pub(crate) async fn join(
    State(app): State<App>,
    visit: Visit,
    ConnectInfo(from): ConnectInfo<SocketAddr>,
    JsonBody(joining): JsonBody<Joining, COMING_IN_LIMIT>,
) -> Result<Response, Problem> {
    let at = opening(&visit)?;
    let name = joining.name.trim();
    if let Some(wrong) = wrong_with(name) {
        let problem = Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "bad_text", wrong, "Your lines are signed with it.");
        return Err(Problem { field: Some("name".into()), ..problem });
    }
    // Whoever wrote what only an owner writes keeps their name: no helper signs with it, nor with one that looks like another's.
    let home = match app.sharing.home_of(from.ip(), &joining.code) {
        Ok(home) => home,
        Err(why) => return Ok(refused(why)),
    };
    if let Some(home) = home
        && is_anothers(&app, &home, name).await?
    {
        return Ok(refused(Refused::NameTaken));
    }
    Ok(match app.sharing.join(at, from.ip(), &joining.code, name, joining.side) {
        Ok(token) => {
            let who = app.sharing.who(Some(&token));
            with_cookie(&app, &token, 12 * 3600, Json(me_of(&who, visit.door)))
        }
        Err(why) => refused(why),
    })
}

/// Whether this name can be taken for one under which somebody wrote in the home what only an owner writes, or looks like that
/// of a helper without being it: a helper who comes again has the name of last time.
async fn is_anothers(app: &App, home: &HomeId, name: &str) -> Result<bool, Problem> {
    let (desk, home, name) = (Arc::clone(&app.desk), home.clone(), name.to_owned());
    off_thread(move || {
        let opened = desk.home(&home)?;
        let mut owns: BTreeMap<&str, bool> = BTreeMap::new();
        for line in opened.book.lines() {
            *owns.entry(line.entry.by.as_str()).or_default() |= !line.entry.fact.may_be_written_by_a_helper(|_| true);
        }
        Ok(owns.into_iter().any(|(by, owns)| look_alike(by, &name) && (owns || by != name)))
    })
    .await
}

/// Comes in as the owner.
#[utoipa::path(post, path = "/api/sign-in", request_body = SigningIn, responses((status = 200, body = Me), (status = 401, body = Problem), (status = 403, body = Problem), (status = 409, body = Problem), (status = 422, body = Problem), (status = 429, body = Problem)))]
pub(crate) async fn sign_in(
    State(app): State<App>,
    visit: Visit,
    ConnectInfo(from): ConnectInfo<SocketAddr>,
    JsonBody(signing): JsonBody<SigningIn, COMING_IN_LIMIT>,
) -> Result<Response, Problem> {
    let at = opening(&visit)?;
    let Some(turn) = app.sharing.turn_to_hash().await else { return Ok(refused(Refused::Wait(SHORT_WAIT))) };
    let desk = Arc::clone(&app.desk);
    let sharing = Arc::clone(&app.sharing);
    let come_in = off_thread(move || {
        desk.setting(PASSPHRASE)?;
        Ok(sharing.sign_in(at, from.ip(), &signing.passphrase, || desk.setting(PASSPHRASE).ok().flatten()))
    });
    let come_in = come_in.await?;
    drop(turn);
    Ok(match come_in {
        Ok(token) => with_cookie(&app, &token, 12 * 3600, Json(me_of(&Who::Owner, visit.door))),
        Err(why) => refused(why),
    })
}

/// Goes away again.
#[utoipa::path(post, path = "/api/leave", responses((status = 204)))]
pub(crate) async fn leave(State(app): State<App>, headers: HeaderMap) -> Response {
    if let Some(token) = token(&headers) {
        app.sharing.leave(token);
    }
    forgotten(with_cookie(&app, "", 0, StatusCode::NO_CONTENT))
}

async fn now(app: &App) -> Result<Json<SharingNow>, Problem> {
    let desk = Arc::clone(&app.desk);
    let has_passphrase = off_thread(move || Ok(desk.setting(PASSPHRASE)?.is_some())).await?;
    let addresses = app.sharing.addresses();
    let invites = app.sharing.invites().into_iter().map(|invite| {
        let url = addresses.first().map(|at| format!("{at}/join#{}", invite.code));
        OpenInvite {
            code: format!("{}-{}", &invite.code[..4], &invite.code[4..]),
            qr: url.as_deref().and_then(qr),
            url,
            seconds_left: invite.seconds_left(),
            home: invite.home,
        }
    });
    let people = app.sharing.people().into_iter().map(|person| {
        let Me { role, name, home, side, .. } = me_of(&person.who, Door::Network { opening: 0 });
        PersonIn { role, name, home, side, seconds_ago: person.seen_seconds_ago(), id: person.id }
    });
    Ok(Json(SharingNow {
        open: app.sharing.is_open(),
        encrypted: app.setup.tls.is_some(),
        has_passphrase,
        invites: invites.collect(),
        people: people.collect(),
        addresses,
    }))
}

/// The code of an address.
pub(super) fn qr(url: &str) -> Option<QrPath> {
    let code = QrCode::new(url).ok()?;
    let size = code.width();
    let dark = code.to_colors().into_iter().enumerate().filter(|(_, color)| *color == Color::Dark);
    let d = dark.map(|(n, _)| format!("M{} {}h1v1h-1z", n % size, n / size)).collect();
    Some(QrPath { size, d })
}

/// Sharing as it is now.
#[utoipa::path(get, path = "/api/sharing", responses((status = 200, body = SharingNow)))]
pub(crate) async fn sharing(State(app): State<App>) -> Result<Json<SharingNow>, Problem> {
    now(&app).await
}

/// Opens the second door: the home network reaches the program until it is closed or the program ends.
#[utoipa::path(post, path = "/api/sharing", request_body = OpenDoor, responses((status = 200, body = SharingNow), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn open(
    State(app): State<App>,
    visit: Visit,
    JsonBody(asked): JsonBody<OpenDoor, COMING_IN_LIMIT>,
) -> Result<Json<SharingNow>, Problem> {
    let wrong = |title: &str| {
        Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "passphrase", title, "The home network does not reach Wayfinder yet.")
    };
    let desk = Arc::clone(&app.desk);
    let is_new = asked.passphrase.is_some();
    off_thread(move || {
        match asked.passphrase {
            Some(passphrase) if !(12..=128).contains(&passphrase.chars().count()) => {
                return Err(wrong("A passphrase has 12 to 128 characters: a few words that nobody guesses."));
            }
            Some(passphrase) => {
                let hash = hashed(&passphrase).ok_or_else(crate::problem::internal)?;
                desk.set_setting(PASSPHRASE, &hash)?;
            }
            None if desk.setting(PASSPHRASE)?.is_none() => return Err(wrong("Set a passphrase first.")),
            None => {}
        }
        Ok(())
    })
    .await?;
    if is_new {
        app.sharing.send_owners_away(visit.token.as_deref());
    }
    if !app.sharing.is_open() {
        crate::open_door(&app).await.map_err(|error| {
            let (code, what_to_do) = match &error {
                DoorError::Address(..) => ("address", "Start the program with another --share-at. Nothing was opened."),
                DoorError::Tls(_) => ("certificate", "Put it right, then share again. Nothing was opened."),
            };
            Problem::new(StatusCode::CONFLICT, code, error.to_string(), what_to_do)
        })?;
    }
    now(&app).await
}

/// Closes the second door and sends everybody away.
#[utoipa::path(delete, path = "/api/sharing", responses((status = 200, body = SharingNow)))]
pub(crate) async fn close(State(app): State<App>) -> Result<Json<SharingNow>, Problem> {
    app.sharing.close();
    now(&app).await
}

/// Makes a code for one helper.
#[utoipa::path(post, path = "/api/sharing/invites", request_body = NewInvite, responses((status = 200, body = SharingNow), (status = 404, body = Problem), (status = 409, body = Problem)))]
pub(crate) async fn invite(
    State(app): State<App>,
    JsonBody(asked): JsonBody<NewInvite, COMING_IN_LIMIT>,
) -> Result<Json<SharingNow>, Problem> {
    let (desk, home) = (Arc::clone(&app.desk), asked.home.clone());
    let home = off_thread(move || desk.home(&home).map(|_| home).map_err(Problem::from)).await?;
    if !app.sharing.is_open() {
        let said = "The home network does not reach Wayfinder yet.";
        return Err(Problem::new(StatusCode::CONFLICT, "closed", said, "Share it first."));
    }
    app.sharing.invite(home);
    now(&app).await
}

/// Sends somebody away.
#[utoipa::path(delete, path = "/api/sharing/people/{id}", params(("id" = String, Path, description = "Who")), responses((status = 200, body = SharingNow), (status = 404, body = Problem)))]
pub(crate) async fn send_away(State(app): State<App>, Path(id): Path<String>) -> Result<Json<SharingNow>, Problem> {
    if !app.sharing.send_away(&id) {
        return Err(Problem::not_found("person here"));
    }
    now(&app).await
}

/// A helper's own next step.
#[utoipa::path(get, path = "/api/homes/{home}/helper", params(HomePath), responses((status = 200, body = HelperView), (status = 404, body = Problem)))]
pub(crate) async fn helper(State(app): State<App>, home: InHome, visit: Visit) -> Result<Response, Problem> {
    let (side, name) = match visit.who {
        Who::Helper(helper) => (helper.side, helper.name),
        Who::Owner | Who::Nobody => (StepSide::Walk, String::new()),
    };
    let walkers = app.sharing.walkers(&home.id);
    home.answer(move |opened| Ok(helper_view(&opened.study, side, &walkers, &name))).await
}
