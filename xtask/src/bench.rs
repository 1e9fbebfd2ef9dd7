//! What `docs/performance.md` records: each figure beside a reference of the same run.

use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::process::{Command, Stdio};
use std::time::Instant;

use anyhow::{Context, Result};

use crate::root;
use crate::tools::{run, say};

pub(crate) fn all() -> Result<()> {
    say("the machine");
    let cpu = std::fs::read_to_string("/proc/cpuinfo").unwrap_or_default();
    let model = cpu.lines().find_map(|l| l.strip_prefix("model name")).unwrap_or_default().trim_start_matches([' ', '\t', ':']);
    println!("{model}, {} cores", std::thread::available_parallelism()?);
    say("initial JavaScript, gzip");
    initial_javascript()?;
    say("the program: start to first answer, memory with the demo home");
    run("cargo", &["build", "--release", "-p", "wayfinder-server"])?;
    start_and_memory()?;
    say("browser: a breaker moved, from the key to the screen");
    run("cargo", &["run", "--release", "--quiet", "-p", "wayfinder-e2e", "--bin", "pace"])?;
    say("core: fold, views and checks");
    run("cargo", &["bench", "-p", "wayfinder-core", "--bench", "fold"])?;
    say("core: every view of the demo home and of a large one, first and again; how folding grows");
    run("cargo", &["bench", "-p", "wayfinder-core", "--bench", "large"])?;
    say("core: a decision of the search");
    run("cargo", &["bench", "-p", "wayfinder-core", "--bench", "search"])?;
    say("core: sheets, legs, peaks and surveys of loads");
    run("cargo", &["bench", "-p", "wayfinder-core", "--bench", "loads"])?;
    say("core: ways to make room, beside trying every plan");
    run("cargo", &["bench", "-p", "wayfinder-core", "--bench", "work"])?;
    say("a year of usage data, a card of 84 spaces");
    run("cargo", &["bench", "-p", "wayfinder-formats", "--bench", "usage"])?;
    say("HTTP: append with fsync, view of the demo home");
    run("cargo", &["bench", "-p", "wayfinder-server", "--bench", "http"])?;
    say("many connections, strangers, many homes");
    run("cargo", &["bench", "-p", "wayfinder-server", "--bench", "doors"])?;
    say("a thousand kills in the middle of a burst");
    run("env", &["WAYFINDER_KILLS=1000", "cargo", "test", "--release", "-p", "wayfinder-server", "--test", "killed"])
}

/// The scripts that the page and its first screen load: what index.html names, and the panel's own.
fn initial_javascript() -> Result<()> {
    let assets = root().join("web/dist/assets");
    let mut total = 0;
    for entry in std::fs::read_dir(assets)? {
        let path = entry?.path();
        let name = path.file_name().unwrap_or_default().to_string_lossy().into_owned();
        let other_screen = ["House", "Plan", "Walk", "Trace", "Directory", "Logbook", "Homes", "Checks"]
            .iter()
            .any(|screen| name.starts_with(&format!("{screen}Page")));
        let when_asked = name.starts_with("FindDialog");
        if name.ends_with(".js.gz") && !other_screen && !when_asked {
            total += path.metadata()?.len();
        }
    }
    println!("{:.0} kB for the panel, everything it shares included (bar: 250 kB)", total as f64 / 1000.0);
    Ok(())
}

fn start_and_memory() -> Result<()> {
    let data = root().join("target/bench-data");
    let _ = std::fs::remove_dir_all(&data);
    let mut starts = Vec::new();
    for round in 0..6 {
        let begun = Instant::now();
        let mut program = Command::new(root().join("target/release/wayfinder"))
            .args(["demo", "--bind", "127.0.0.1:0", "--data"])
            .arg(&data)
            .stdout(Stdio::piped())
            .spawn()?;
        let stdout = program.stdout.take().context("no output")?;
        let line = BufReader::new(stdout).lines().next().context("no address")??;
        let address = line.rsplit("http://").next().unwrap_or_default().to_owned();
        let get = |path: &str| get(&address, path);
        get("/api/homes/juniper-lane")?;
        starts.push(begun.elapsed().as_secs_f64() * 1000.0);
        if round == 5 {
            for path in
                ["/", "/api/homes/juniper-lane/trace", "/api/homes/juniper-lane/logbook", "/api/homes/juniper-lane/directory.pdf"]
            {
                get(path)?;
            }
            let status = std::fs::read_to_string(format!("/proc/{}/status", program.id()))?;
            let resident = status.lines().find(|l| l.starts_with("VmRSS")).unwrap_or_default();
            let peak = status.lines().find(|l| l.starts_with("VmHWM")).unwrap_or_default();
            println!("memory with the demo home, after every view and a PDF: {resident}, {peak} (bar: 60 MB)");
        }
        program.kill()?;
        program.wait()?;
    }
    starts.sort_by(f64::total_cmp);
    println!("start to first answer, median {:.0} ms, most {:.0} ms of 6 (bar: 500 ms)", starts[3], starts[5]);
    Ok(())
}

/// One plain request, answered in full.
fn get(address: &str, path: &str) -> Result<Vec<u8>> {
    let mut stream = TcpStream::connect(address)?;
    write!(stream, "GET {path} HTTP/1.1\r\nHost: {address}\r\nConnection: close\r\n\r\n")?;
    let mut answer = Vec::new();
    stream.read_to_end(&mut answer)?;
    anyhow::ensure!(answer.starts_with(b"HTTP/1.1 200"), "{path}: {}", String::from_utf8_lossy(&answer[..answer.len().min(200)]));
    Ok(answer)
}
