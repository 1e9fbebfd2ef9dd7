use std::net::Ipv4Addr;
use std::time::{Duration, Instant};

use anyhow::Result;
use tempfile::TempDir;
use tokio::net::TcpListener;
use tokio::sync::oneshot;
use tokio::task::JoinHandle;
use wayfinder_server::{Desk, Setup, serve};

/// The program on a free port of this machine, with a data folder of its own.
pub struct Site {
    /// `http://127.0.0.1:PORT`.
    pub address: String,
    bound: std::net::SocketAddr,
    folder: TempDir,
    running: Option<(oneshot::Sender<()>, JoinHandle<()>)>,
}

impl Site {
    /// Starts without a home.
    pub async fn empty() -> Result<Self> {
        Self::start(false).await
    }

    /// Starts with the demo home.
    pub async fn demo() -> Result<Self> {
        Self::start(true).await
    }

    async fn start(demo: bool) -> Result<Self> {
        let folder = tempfile::tempdir()?;
        let listener = TcpListener::bind("127.0.0.1:0").await?;
        let bound = listener.local_addr()?;
        let mut site = Self { address: format!("http://{bound}"), bound, folder, running: None };
        site.run(listener, demo)?;
        Ok(site)
    }

    fn run(&mut self, listener: TcpListener, demo: bool) -> Result<()> {
        let desk = self.open_desk()?;
        if demo {
            desk.set_up_demo()?;
        }
        let (stop, stopped) = oneshot::channel();
        let task = tokio::spawn(serve(
            listener,
            desk,
            Setup { demo, share_at: (Ipv4Addr::LOCALHOST, 0).into(), ..Setup::default() },
            async {
                let _ = stopped.await;
            },
        ));
        self.running = Some((stop, task));
        Ok(())
    }

    /// The data folder is free once the last connection of a stopped program has let go of it.
    fn open_desk(&self) -> Result<Desk> {
        let until = Instant::now() + Duration::from_secs(10);
        loop {
            match Desk::open(self.folder.path()) {
                Ok(desk) => return Ok(desk),
                Err(error) if Instant::now() > until => return Err(error.into()),
                Err(_) => std::thread::sleep(Duration::from_millis(20)),
            }
        }
    }

    /// Stops the program as SIGTERM would.
    pub async fn stop(&mut self) -> Result<()> {
        if let Some((stop, task)) = self.running.take() {
            let _ = stop.send(());
            tokio::time::timeout(Duration::from_secs(10), task).await??;
        }
        Ok(())
    }

    /// Alters a line of a home behind the program's back, as a failing disk or a wrong hand would, while it is stopped.
    pub async fn damage(&mut self, home: &str, line: u64) -> Result<()> {
        self.stop().await?;
        drop(self.open_desk()?);
        let database = rusqlite::Connection::open(self.folder.path().join("wayfinder.sqlite"))?;
        let done = database.execute("UPDATE lines SET body = body || ' ' WHERE home = ?1 AND seq = ?2", (home, line))?;
        anyhow::ensure!(done == 1, "there is no such line");
        drop(database);
        self.start_again().await
    }

    /// Starts it again on the same port with the same data.
    pub async fn start_again(&mut self) -> Result<()> {
        let listener = TcpListener::bind(self.bound).await?;
        self.run(listener, false)
    }
}
