//! `wayfinder move`: a home goes to another running server, while people write to it.
//!
//! All of it is taken there, then the server it leaves is asked to hand it over. Where it has grown meanwhile that server says so and
//! lets whoever writes wait for a moment, and the home is taken once more, with the rest. So whatever was acknowledged is there before
//! anything is acknowledged there; and whatever breaks off before the end leaves the home in use where it was.

use anyhow::{Context, Result, bail, ensure};
use reqwest::header::{COOKIE, SET_COOKIE};
use reqwest::{Client, Method, RequestBuilder, Response, StatusCode};
use serde_json::{Value, json};
use wayfinder_core::HomeId;
use wayfinder_formats::read_home_file;

/// So often a home is taken again because it has grown.
const MOST_ROUNDS: usize = 20;
/// Where the passphrase stands, for whoever does not want to be asked.
const PASSPHRASE: &str = "WAYFINDER_PASSPHRASE";

/// A running server, with whoever asks in as its owner.
struct Server {
    address: String,
    http: Client,
    cookie: Option<String>,
}

impl Server {
    /// Comes in as the owner, by passphrase where the server wants one.
    async fn enter(address: &str) -> Result<Self> {
        let address = address.trim_end_matches('/').to_owned();
        let mut server = Self { address, http: Client::new(), cookie: None };
        let me = server.ask(Method::GET, "/api/me", |request| request).await?;
        // Where it showed the way to its encrypted address, all else goes there: a passphrase above all.
        server.address = me.url().origin().ascii_serialization();
        let me: Value = me.json().await.context(NOT_OURS)?;
        if me["role"] != "owner" {
            let passphrase = match std::env::var(PASSPHRASE) {
                Ok(passphrase) => passphrase,
                Err(_) => rpassword::prompt_password(format!("The owner's passphrase at {}: ", server.address))
                    .with_context(|| format!("the passphrase cannot be asked for here; set {PASSPHRASE}"))?,
            };
            let body = json!({ "passphrase": passphrase });
            let inside = server.ask(Method::POST, "/api/sign-in", |request| request.json(&body)).await?;
            let cookie = inside.headers().get(SET_COOKIE).and_then(|cookie| cookie.to_str().ok()?.split(';').next());
            server.cookie = Some(cookie.context(NOT_OURS)?.to_owned());
        }
        Ok(server)
    }

    async fn send(&self, method: Method, path: &str, with: impl FnOnce(RequestBuilder) -> RequestBuilder) -> Result<Response> {
        let mut request = with(self.http.request(method, format!("{}{path}", self.address)));
        if let Some(cookie) = &self.cookie {
            request = request.header(COOKIE, cookie);
        }
        request.send().await.with_context(|| format!("{} does not answer", self.address))
    }

    /// The same, where anything but success ends it.
    async fn ask(&self, method: Method, path: &str, with: impl FnOnce(RequestBuilder) -> RequestBuilder) -> Result<Response> {
        let answer = self.send(method, path, with).await?;
        if answer.status().is_success() { Ok(answer) } else { bail!("{} says: {}", self.address, said(answer).await) }
    }
}

const NOT_OURS: &str = "this is no Wayfinder";

async fn said(answer: Response) -> String {
    let status = answer.status();
    let problem: Value = answer.json().await.unwrap_or_default();
    match (problem["title"].as_str(), problem["detail"].as_str()) {
        (Some(title), Some(detail)) => format!("{title} {detail}"),
        _ => status.to_string(),
    }
}

/// Which run of the program answers there.
async fn run_of(server: &Server) -> Result<Value> {
    let health: Value = server.ask(Method::GET, "/api/health", |request| request).await?.json().await.context(NOT_OURS)?;
    Ok(health["run"].clone())
}

/// Takes a home from one running server to another. `told` is where people are sent on to.
pub(crate) async fn move_home(home: &HomeId, from: &str, to: &str, told: Option<&str>) -> Result<()> {
    let (here, there) = (Server::enter(from).await?, Server::enter(to).await?);
    ensure!(run_of(&here).await? != run_of(&there).await?, "both addresses are of the same server; nothing was moved");
    let told = told.unwrap_or(&there.address);
    for round in 1..=MOST_ROUNDS {
        let export = here.ask(Method::GET, &format!("/api/homes/{home}/export"), |request| request).await?;
        let bytes = export.bytes().await.context("the home broke off on its way")?;
        let (file, book) = read_home_file(&bytes).context("the home cannot be read")?;
        let (seq, photos) = (book.seq(), file.photos.len());
        let taken = there
            .ask(Method::POST, "/api/import", |request| request.header("content-type", "application/json").body(bytes))
            .await
            .context("it stays where it was")?;
        let taken: Value = taken.json().await.context(NOT_OURS)?;
        ensure!(taken["seq"] == seq, "{} took {} lines of {seq}; the home stays where it was", there.address, taken["seq"]);
        let body = json!({ "to": told, "seq": seq, "photos": photos });
        let handed = here.send(Method::POST, &format!("/api/homes/{home}/moved"), |request| request.json(&body)).await?;
        match handed.status() {
            StatusCode::OK => {
                println!("{home}: all of its {seq} lines and {photos} photos are at {}.", there.address);
                println!(
                    "At {} whoever has it open is sent on to {told}. It is kept there as it was, until it is deleted.",
                    here.address
                );
                return Ok(());
            }
            StatusCode::CONFLICT => eprintln!("{round}: it has grown meanwhile; the rest follows"),
            _ => bail!(
                "{} says: {} The home is in use there still. {} has a copy: run this again, or delete the copy.",
                here.address,
                said(handed).await,
                there.address
            ),
        }
    }
    bail!("people write faster than it can be taken; try again when fewer do. It is in use at {} still", here.address)
}
