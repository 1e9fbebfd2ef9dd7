//! The Wayfinder program: thin routes over the core, a live stream, the web files.
//!
//! A request is parsed, the core is asked, the answer goes out. [`serve`] runs on a listener that the
//! caller bound (port 0 in tests) until `shutdown` resolves; open streams are ended then.

mod assets;
mod demo;
mod desk;
mod doors;
mod guard;
mod holds;
mod in_home;
mod names;
mod problem;
mod routes;
mod salvage;
mod sharing;
mod slow;
mod summary;
mod tls;

pub use demo::DEMO_HOME;
pub use desk::{DamagedHome, Desk, DeskError, Homes, Opened, readable};
pub use doors::{Capacity, Patience, SLOWEST};
pub use routes::openapi_json;
pub use salvage::{Salvaged, salvage};
pub use tls::{Tls, TlsError};

use std::future::Future;
use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::sync::Arc;
use std::time::Duration;

use tokio::net::TcpListener;
use tokio::sync::{broadcast, watch};

use crate::desk::Grown;

use crate::holds::Holds;
use crate::sharing::{At, Door, Sharing};
use crate::slow::Slow;

/// What every route shares.
#[derive(Clone)]
pub struct App {
    desk: Arc<Desk>,
    grown: broadcast::Sender<Grown>,
    closing: watch::Receiver<bool>,
    sharing: Arc<Sharing>,
    slow: Arc<Slow>,
    holds: Arc<Holds>,
    setup: Setup,
    /// Which run of the program this is.
    run: uuid::Uuid,
}

/// How the program is set up.
#[derive(Debug, Clone)]
pub struct Setup {
    /// The demo home may be reset.
    pub demo: bool,
    /// Where it listens for the home network, once the owner opens it to that.
    pub share_at: SocketAddr,
    /// How long it waits for whoever is connected from there.
    pub patience: Patience,
    /// How many connections it takes in from there.
    pub capacity: Capacity,
    /// What it shows there to encrypt; nothing is encrypted without it.
    pub tls: Option<Tls>,
}

impl Default for Setup {
    fn default() -> Self {
        let capacity = Capacity::of_files(USUAL_FILES);
        Self { demo: false, share_at: SHARE_AT, patience: Patience::NETWORK, capacity, tls: None }
    }
}

impl From<bool> for Setup {
    fn from(demo: bool) -> Self {
        Self { demo, ..Self::default() }
    }
}

/// The commit of which a released program was made; `development` of any other.
pub const COMMIT: &str = env!("WAYFINDER_COMMIT");

/// How many files a program may usually have open.
const USUAL_FILES: usize = 1024;

/// Every address of this machine.
pub const SHARE_AT: SocketAddr = SocketAddr::new(IpAddr::V4(Ipv4Addr::UNSPECIFIED), 4760);

/// How long an open request may take to end after the signal.
const DEADLINE: Duration = Duration::from_secs(3);

/// Serves until `shutdown` resolves. The home network reaches it only after the owner has opened a second door.
pub async fn serve(
    listener: TcpListener,
    desk: Desk,
    setup: impl Into<Setup>,
    shutdown: impl Future<Output = ()> + Send + 'static,
) {
    let (close, closing) = watch::channel(false);
    let (grown, _) = broadcast::channel(256);
    let (sharing, slow, holds) = (Arc::default(), Arc::default(), Arc::default());
    let app = App { desk: Arc::new(desk), grown, closing, sharing, slow, holds, setup: setup.into(), run: uuid::Uuid::new_v4() };
    let looking_through = look_through(&app);
    let router = routes::router(app, Door::Here);
    let closed = async {
        shutdown.await;
        let _ = close.send(true);
    };
    doors::answer(listener, router, (Patience::HERE, Capacity::HERE), None, DEADLINE, closed).await;
    let _ = looking_through.await;
}

/// Looks every home through for damage, beside whatever is asked.
fn look_through(app: &App) -> tokio::task::JoinHandle<()> {
    let (desk, closing) = (Arc::clone(&app.desk), app.closing.clone());
    let homes = desk.to_look_through().unwrap_or_default();
    tokio::task::spawn_blocking(move || desk.look_through(homes, || !*closing.borrow()))
}

/// Why the second door was not opened.
#[derive(Debug, thiserror::Error)]
pub(crate) enum DoorError {
    /// Its address cannot be listened on.
    #[error("{0} cannot be listened on: {1}.")]
    Address(SocketAddr, std::io::Error),
    /// Its certificate cannot be used.
    #[error(transparent)]
    Tls(#[from] TlsError),
}

/// Opens the second door: listens for the home network until the owner closes it or the program ends.
pub(crate) async fn open_door(app: &App) -> Result<(), DoorError> {
    let shown = app.setup.tls.as_ref().map(Tls::load).transpose()?;
    let address = |error| DoorError::Address(app.setup.share_at, error);
    let listener = TcpListener::bind(app.setup.share_at).await.map_err(address)?;
    let at = listener.local_addr().map_err(address)?;
    let named = shown.as_ref().map(|shown| shown.addresses(at));
    let (opening, mut closed) = app.sharing.opened(At { socket: at, named });
    let mut closing = app.closing.clone();
    let router = routes::router(app.clone(), Door::Network { opening });
    let limits = (app.setup.patience, app.setup.capacity);
    let acceptor = shown.map(|shown| shown.acceptor);
    tokio::spawn(async move {
        let closed = async {
            tokio::select! {
                _ = closed.wait_for(|closed| *closed) => {}
                _ = closing.wait_for(|closing| *closing) => {}
            }
        };
        doors::answer(listener, router, limits, acceptor, doors::FAREWELL, closed).await;
    });
    Ok(())
}
