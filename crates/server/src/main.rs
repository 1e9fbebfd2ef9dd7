//! `wayfinder`: the program.

use std::io::{Read, Write};
use std::net::SocketAddr;
use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::{Context, Result, bail};
use clap::{Parser, Subcommand};
use tokio::net::TcpListener;
use wayfinder_core::{HomeId, findings, overview};
use wayfinder_formats::{read_home_file, write_home_file};
use wayfinder_server::{Desk, openapi_json, serve};

/// Trace which breaker feeds what, and keep the panel's card right.
#[derive(Parser)]
#[command(version)]
struct Args {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Start with the demo home, in a data folder of its own.
    Demo {
        /// The data folder; by default `wayfinder-demo` among this user's data.
        #[arg(long)]
        data: Option<PathBuf>,
        /// The address to listen on; loopback only.
        #[arg(long, default_value = "127.0.0.1:4750")]
        bind: SocketAddr,
        /// Put the demo home back as shipped.
        #[arg(long)]
        reset: bool,
    },
    /// Start with your own homes.
    Serve {
        /// The data folder; it is made if it is not there.
        #[arg(long)]
        data: PathBuf,
        /// The address to listen on; loopback only.
        #[arg(long, default_value = "127.0.0.1:4751")]
        bind: SocketAddr,
    },
    /// Write a whole home as one JSON file.
    Export {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The home's id.
        home: HomeId,
        /// The file; standard output if left out.
        #[arg(long)]
        out: Option<PathBuf>,
    },
    /// Take in a whole home from its JSON file.
    Import {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The file, or - for standard input.
        file: PathBuf,
    },
    /// Check the data folder, and say of each home what is worth a look.
    Check {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// As JSON.
        #[arg(long)]
        json: bool,
    },
    /// Print the OpenAPI description.
    Openapi,
}

fn main() -> ExitCode {
    tracing_subscriber::fmt()
        .with_env_filter(tracing_subscriber::EnvFilter::try_from_default_env().unwrap_or_else(|_| "warn".into()))
        .with_writer(std::io::stderr)
        .init();
    match run(Args::parse().command) {
        Ok(code) => code,
        Err(error) => {
            eprintln!("wayfinder: {error:#}");
            ExitCode::FAILURE
        }
    }
}

fn run(command: Command) -> Result<ExitCode> {
    match command {
        Command::Demo { data, bind, reset } => {
            let data = match data {
                Some(data) => data,
                None => dirs::data_dir().context("this user has no data folder; name one with --data")?.join("wayfinder-demo"),
            };
            let desk = Desk::open(&data)?;
            desk.set_up_demo()?;
            if reset {
                desk.reset_demo()?;
            }
            listen(desk, bind, true)?;
        }
        Command::Serve { data, bind } => listen(Desk::open(&data)?, bind, false)?,
        Command::Export { data, home, out } => {
            let book = existing(data)?.book(&home)?;
            let bytes = write_home_file(&home, &book);
            match out {
                Some(path) => std::fs::write(&path, bytes).with_context(|| format!("{} cannot be written", path.display()))?,
                None => std::io::stdout().write_all(&bytes)?,
            }
        }
        Command::Import { data, file } => {
            let mut bytes = Vec::new();
            if file.as_os_str() == "-" {
                std::io::stdin().read_to_end(&mut bytes)?;
            } else {
                bytes = std::fs::read(&file).with_context(|| format!("{} cannot be read", file.display()))?;
            }
            let (read, book) = read_home_file(&bytes)?;
            let lines = book.seq();
            Desk::open(&data)?.import(&read.home, book)?;
            println!("{}: {lines} lines", read.home);
        }
        Command::Check { data, json } => return check(&existing(data)?, json),
        Command::Openapi => print!("{}", openapi_json()),
    }
    Ok(ExitCode::SUCCESS)
}

/// A data folder that is there: reading commands make none.
fn existing(data: PathBuf) -> Result<Desk> {
    if !data.join("wayfinder.sqlite").is_file() {
        bail!("{} is no Wayfinder data folder", data.display());
    }
    Ok(Desk::open(&data)?)
}

fn check(desk: &Desk, json: bool) -> Result<ExitCode> {
    let sound = desk.check()?;
    let books = desk.books()?;
    if json {
        let homes: Vec<_> = books.iter().map(|(id, book)| overview(id, book.seq(), book.home())).collect();
        println!("{}", serde_json::to_string_pretty(&serde_json::json!({ "sound": sound, "homes": homes }))?);
    } else {
        println!("database: {}", if sound { "sound" } else { "DAMAGED; restore a copy" });
        for (id, book) in &books {
            let view = overview(id, book.seq(), book.home());
            println!(
                "{id} “{}”: {} lines, {} of {} points proven",
                view.name, view.seq, view.progress.proven, view.progress.points
            );
            for finding in findings(book.home()) {
                println!("  {}: {} ({})", finding.about, finding.message, finding.source);
            }
        }
    }
    Ok(if sound { ExitCode::SUCCESS } else { ExitCode::FAILURE })
}

fn listen(desk: Desk, bind: SocketAddr, demo: bool) -> Result<()> {
    if !bind.ip().is_loopback() {
        bail!("{bind} is not this machine alone. This version listens on loopback only: 127.0.0.1 or [::1].");
    }
    let runtime = tokio::runtime::Builder::new_multi_thread().enable_all().build()?;
    runtime.block_on(async {
        let listener = TcpListener::bind(bind)
            .await
            .with_context(|| format!("{bind} cannot be listened on; another program may have it. Choose another with --bind"))?;
        println!("Wayfinder is at http://{}", listener.local_addr()?);
        std::io::stdout().flush()?;
        serve(listener, desk, demo, stop_signal()).await?;
        println!("Stopped. Everything recorded is kept.");
        Ok(())
    })
}

async fn stop_signal() {
    let terminate = async {
        match tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate()) {
            Ok(mut signal) => {
                signal.recv().await;
            }
            Err(error) => {
                tracing::warn!(%error, "no SIGTERM here");
                std::future::pending::<()>().await;
            }
        }
    };
    tokio::select! {
        _ = tokio::signal::ctrl_c() => {}
        () = terminate => {}
    }
}
