//! The doors: listening, and how long and how many connections may stay.
//!
//! A connection that sends nothing, or the head of its request a letter at a time, is closed after a while; so is one that does not
//! read its answer. Strangers reach the second door, so there only so many connections are taken in, in all and from one address;
//! files are left over for the first door, the disk and the web files. Bodies have their own time, in [`crate::guard`].

use std::collections::BTreeMap;
use std::future::Future;
use std::io::{self, Write};
use std::net::{IpAddr, SocketAddr};
use std::pin::pin;
use std::sync::{Arc, LazyLock, Mutex, PoisonError};
use std::time::Duration;

use axum::Router;
use axum::body::Body;
use axum::extract::ConnectInfo;
use axum::http::uri::Authority;
use axum::http::{HeaderMap, StatusCode, Uri, header};
use axum::response::{IntoResponse, Redirect, Response};
use hyper::body::Incoming;
use hyper::server::conn::http1;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::service::TowerToHyperService;
use tokio::io::{AsyncRead, AsyncWrite};
use tokio::net::{TcpListener, TcpStream};
use tokio::sync::watch;
use tokio::task::JoinSet;
use tokio_io_timeout::TimeoutStream;
use tokio_rustls::TlsAcceptor;
use tower::ServiceExt;

use crate::problem::Problem;

/// How long a door waits for whoever is connected.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Patience {
    /// For the whole head of a request, and for the next request on a connection that is kept open.
    pub head: Duration,
    /// For the next piece of a body.
    pub piece: Duration,
    /// For a whole body. What comes at [`SLOWEST`] or faster may take longer.
    pub body: Duration,
    /// For an answer to be read on.
    pub unread: Duration,
}

/// So many bytes a second of a body earn it more time: a photo over a poor wireless network comes through.
pub const SLOWEST: usize = 16 << 10;

impl Patience {
    /// At the first door, where only programs on this machine come in.
    pub(crate) const HERE: Self = Self { head: Duration::from_secs(120), ..Self::NETWORK };
    /// At the second door.
    pub const NETWORK: Self = Self {
        head: Duration::from_secs(20),
        piece: Duration::from_secs(15),
        body: Duration::from_secs(30),
        unread: Duration::from_secs(30),
    };
}

/// How many connections a door takes in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Capacity {
    /// In all.
    pub all: usize,
    /// From one address. A phone opens about six.
    pub from_one: usize,
}

impl Capacity {
    /// At the first door: whoever is on this machine may use all of it.
    pub(crate) const HERE: Self = Self { all: usize::MAX, from_one: usize::MAX };

    /// At the second door, with so many files that the program may have open: a quarter of them, at most 512.
    pub fn of_files(files: usize) -> Self {
        Self { all: (files / 4).clamp(16, 512), from_one: 64 }
    }
}

/// The largest head of a request, and the largest piece of a body that is held at once.
const HEAD_AND_PIECE: usize = 64 << 10;

/// How long those at the second door who are being answered have to hear it, once it is closed.
pub(crate) const FAREWELL: Duration = Duration::from_secs(2);

/// What a connection hears that is one too many.
static TOO_MANY: LazyLock<String> = LazyLock::new(|| {
    let problem = Problem::busy();
    let json = serde_json::to_string(&problem).unwrap_or_default();
    format!(
        "HTTP/1.1 503 Service Unavailable\r\ncontent-type: application/problem+json\r\nretry-after: 10\r\nconnection: close\r\n\
         content-length: {}\r\n\r\n{json}",
        json.len()
    )
});

/// The connections of each address.
#[derive(Debug, Default)]
struct Counted(Mutex<BTreeMap<IpAddr, usize>>);

/// One connection, as long as it is counted.
struct Counts {
    counted: Arc<Counted>,
    from: IpAddr,
}

impl Counted {
    fn take(self: &Arc<Self>, from: IpAddr, capacity: Capacity) -> Option<Counts> {
        let mut by_address = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let all: usize = by_address.values().sum();
        let own = by_address.get(&from).copied().unwrap_or(0);
        if all >= capacity.all || own >= capacity.from_one {
            return None;
        }
        by_address.insert(from, own + 1);
        Some(Counts { counted: Arc::clone(self), from })
    }
}

impl Drop for Counts {
    fn drop(&mut self) {
        let mut by_address = self.counted.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(own) = by_address.get_mut(&self.from) {
            *own -= 1;
            if *own == 0 {
                by_address.remove(&self.from);
            }
        }
    }
}

/// Answers at a door until `closed`; then whoever is being answered has `farewell` to hear it, and every connection ends.
pub(crate) async fn answer(
    listener: TcpListener,
    router: Router,
    (patience, capacity): (Patience, Capacity),
    tls: Option<TlsAcceptor>,
    farewell: Duration,
    closed: impl Future<Output = ()>,
) {
    let counted = Arc::new(Counted::default());
    let (ending, ended) = watch::channel(false);
    let mut connections = JoinSet::new();
    let mut closed = pin!(closed);
    loop {
        let accepted = tokio::select! {
            accepted = listener.accept() => accepted,
            Some(_) = connections.join_next() => continue,
            () = &mut closed => break,
        };
        let (stream, from) = match accepted {
            Ok(accepted) => accepted,
            Err(error) => {
                wait_after(&error).await;
                continue;
            }
        };
        let from = SocketAddr::new(from.ip().to_canonical(), from.port());
        match counted.take(from.ip(), capacity) {
            Some(counts) => {
                let (router, tls, ended) = (router.clone(), tls.clone(), ended.clone());
                connections.spawn(async move {
                    welcome(stream, router, from, patience, tls, ended).await;
                    drop(counts);
                });
            }
            // Encrypted, it would be read as nonsense; that the connection ends is understood.
            None if tls.is_some() => drop(stream),
            None => turn_away(stream),
        }
    }
    drop(listener);
    let _ = ending.send(true);
    let all = async { while connections.join_next().await.is_some() {} };
    let _ = tokio::time::timeout(farewell, all).await;
    // What is left is ended with the set.
}

/// A connection that broke off before it was taken in is nothing; anything else, such as no file left, passes after a while.
async fn wait_after(error: &io::Error) {
    use io::ErrorKind::{ConnectionAborted, ConnectionRefused, ConnectionReset, Interrupted};
    if !matches!(error.kind(), ConnectionAborted | ConnectionRefused | ConnectionReset | Interrupted) {
        tracing::warn!(%error, "a connection could not be taken in");
        tokio::time::sleep(Duration::from_millis(200)).await;
    }
}

/// Says so as far as it can be said at once, and closes.
fn turn_away(stream: TcpStream) {
    if let Ok(mut stream) = stream.into_std() {
        let _ = stream.write(TOO_MANY.as_bytes());
    }
}

/// What a conversation in TLS begins with (RFC 8446, section 5.1: a record of the type “handshake”).
const HANDSHAKE: u8 = 22;

/// Takes in one connection, as long as it encrypts where this door does. One that does not is shown the address that does.
async fn welcome(
    stream: TcpStream,
    router: Router,
    from: SocketAddr,
    patience: Patience,
    tls: Option<TlsAcceptor>,
    ended: watch::Receiver<bool>,
) {
    let _ = stream.set_nodelay(true);
    let mut first = [0];
    let encrypts = match &tls {
        None => false,
        Some(_) => match tokio::time::timeout(patience.head, stream.peek(&mut first)).await {
            Ok(Ok(1)) => first[0] == HANDSHAKE,
            _ => return,
        },
    };
    let mut patient = TimeoutStream::new(stream);
    patient.set_write_timeout(Some(patience.unread));
    let patient = Box::pin(patient);
    match tls {
        None => converse(patient, router, from, patience, ended).await,
        Some(_) if !encrypts => converse(patient, Router::new().fallback(encrypted_instead), from, patience, ended).await,
        Some(tls) => {
            if let Ok(Ok(stream)) = tokio::time::timeout(patience.head, tls.accept(patient)).await {
                converse(stream, router, from, patience, ended).await;
            }
        }
    }
}

/// The same address, encrypted.
async fn encrypted_instead(headers: HeaderMap, uri: Uri) -> Response {
    let host = headers.get(header::HOST).and_then(|host| host.to_str().ok()).and_then(|host| host.parse::<Authority>().ok());
    let path = uri.path_and_query().map_or("/", |path| path.as_str());
    match host {
        Some(host) => Redirect::temporary(&format!("https://{host}{path}")).into_response(),
        None => (StatusCode::BAD_REQUEST, "Open this address with https:// before it.").into_response(),
    }
}

/// Answers one connection, request after request.
async fn converse<S>(stream: S, router: Router, from: SocketAddr, patience: Patience, mut ended: watch::Receiver<bool>)
where
    S: AsyncRead + AsyncWrite + Unpin + Send + 'static,
{
    let service = router.map_request(move |mut request: hyper::Request<Incoming>| {
        request.extensions_mut().insert(ConnectInfo(from));
        request.map(Body::new)
    });
    let connection = http1::Builder::new()
        .timer(TokioTimer::new())
        .header_read_timeout(patience.head)
        .max_buf_size(HEAD_AND_PIECE)
        .serve_connection(TokioIo::new(stream), TowerToHyperService::new(service));
    let mut connection = pin!(connection);
    // An error here is the other side's: it broke off, or sent no HTTP, or was too slow.
    tokio::select! {
        _ = &mut connection => return,
        _ = ended.wait_for(|ended| *ended) => connection.as_mut().graceful_shutdown(),
    }
    let _ = connection.await;
}
