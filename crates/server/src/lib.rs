//! The Wayfinder program: thin routes over the core, a live stream, the web files.
//!
//! A request is parsed, the core is asked, the answer goes out. [`serve`] runs on a listener that the
//! caller bound (port 0 in tests) until `shutdown` resolves; open streams are ended then.

mod assets;
mod demo;
mod desk;
mod guard;
mod in_home;
mod problem;
mod routes;
mod sharing;

pub use demo::DEMO_HOME;
pub use desk::{Desk, DeskError, Opened};
pub use routes::openapi_json;

use std::future::{Future, IntoFuture};
use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::sync::Arc;
use std::time::Duration;

use tokio::net::TcpListener;
use tokio::sync::{broadcast, watch};

use crate::desk::Moved;

use crate::sharing::{Door, Sharing};

/// What every route shares.
#[derive(Clone)]
pub struct App {
    desk: Arc<Desk>,
    moved: broadcast::Sender<Moved>,
    closing: watch::Receiver<bool>,
    sharing: Arc<Sharing>,
    share_at: SocketAddr,
    demo: bool,
}

/// How the program is set up.
#[derive(Debug, Clone, Copy)]
pub struct Setup {
    /// The demo home may be reset.
    pub demo: bool,
    /// Where it listens for the home network, once the owner opens it to that.
    pub share_at: SocketAddr,
}

impl From<bool> for Setup {
    fn from(demo: bool) -> Self {
        Self { demo, share_at: SHARE_AT }
    }
}

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
) -> std::io::Result<()> {
    let (close, closing) = watch::channel(false);
    let (moved, _) = broadcast::channel(256);
    let Setup { demo, share_at } = setup.into();
    let sharing = Arc::new(Sharing::default());
    let app = App { desk: Arc::new(desk), moved, closing: closing.clone(), sharing, share_at, demo };
    let router = routes::router(app, Door::Here);
    let mut deadline = closing.clone();
    let signal = async move {
        shutdown.await;
        let _ = close.send(true);
    };
    let serving = axum::serve(listener, router).with_graceful_shutdown(signal);
    tokio::select! {
        done = serving.into_future() => done,
        () = async {
            let _ = deadline.wait_for(|closing| *closing).await;
            tokio::time::sleep(DEADLINE).await;
        } => Ok(()),
    }
}

/// Opens the second door: listens for the home network until the owner closes it or the program ends.
pub(crate) async fn open_door(app: &App) -> std::io::Result<()> {
    let listener = TcpListener::bind(app.share_at).await?;
    let mut closed = app.sharing.opened(listener.local_addr()?);
    let mut closing = app.closing.clone();
    let router = routes::router(app.clone(), Door::Network).into_make_service_with_connect_info::<SocketAddr>();
    tokio::spawn(async move {
        let serving = axum::serve(listener, router);
        tokio::select! {
            done = serving.into_future() => drop(done),
            _ = closed.wait_for(|closed| *closed) => {}
            _ = closing.wait_for(|closing| *closing) => {}
        }
    });
    Ok(())
}
