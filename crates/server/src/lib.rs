//! The Wayfinder program: thin routes over the core, a live stream, the web files.
//!
//! A request is parsed, the core is asked, the answer goes out. [`serve`] runs on a listener that the
//! caller bound (port 0 in tests) until `shutdown` resolves; open streams are ended then.

mod assets;
mod demo;
mod desk;
mod guard;
mod problem;
mod routes;

pub use demo::DEMO_HOME;
pub use desk::{Desk, DeskError};
pub use routes::openapi_json;

use std::future::{Future, IntoFuture};
use std::sync::Arc;
use std::time::Duration;

use tokio::net::TcpListener;
use tokio::sync::{broadcast, watch};

use crate::desk::Moved;

/// What every route shares.
#[derive(Clone)]
pub struct App {
    desk: Arc<Desk>,
    moved: broadcast::Sender<Moved>,
    closing: watch::Receiver<bool>,
    demo: bool,
}

/// How long an open request may take to end after the signal.
const DEADLINE: Duration = Duration::from_secs(3);

/// Serves until `shutdown` resolves. `demo` allows the demo home to be reset.
pub async fn serve(
    listener: TcpListener,
    desk: Desk,
    demo: bool,
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> std::io::Result<()> {
    let (close, closing) = watch::channel(false);
    let (moved, _) = broadcast::channel(256);
    let app = App { desk: Arc::new(desk), moved, closing: closing.clone(), demo };
    let router = routes::router(app);
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
