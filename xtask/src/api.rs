//! The program held against its own description by schemathesis (PyPI), which makes requests from it: no 5xx, no status and no content
//! type that is not described, no answer of another shape, nothing accepted that the description refuses.

use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};

use anyhow::{Context, Result, bail};

use crate::root;
use crate::tools::{run, say};

const SCHEMATHESIS: &str = "schemathesis==4.32.5";

/// How much is tried.
#[derive(Clone, Copy)]
enum HowMuch {
    /// A few requests of each kind, beside the tests.
    Bounded,
    /// As long as it takes.
    Full,
}

/// A run of schemathesis against a program of its own.
pub(crate) struct Run {
    program: Child,
    schemathesis: Option<Child>,
    data: std::path::PathBuf,
}

impl Drop for Run {
    fn drop(&mut self) {
        for child in [self.schemathesis.as_mut(), Some(&mut self.program)].into_iter().flatten() {
            let _ = child.kill();
            let _ = child.wait();
        }
        let _ = std::fs::remove_dir_all(&self.data);
    }
}

/// Fetches schemathesis, unless this very one is there.
fn fetch() -> Result<()> {
    let folder = root().join("target/schemathesis");
    let stamp = folder.join("fetched.txt");
    if std::fs::read_to_string(&stamp).is_ok_and(|there| there == SCHEMATHESIS) {
        return Ok(());
    }
    say("fetching schemathesis");
    let target = folder.to_string_lossy().into_owned();
    let install =
        ["-m", "pip", "install", "--quiet", "--disable-pip-version-check", "--upgrade", "--target", &target, SCHEMATHESIS];
    run("python3", &install)?;
    Ok(std::fs::write(stamp, SCHEMATHESIS)?)
}

/// The bounded run beside the tests; none, with a word, where schemathesis cannot be fetched.
pub(crate) fn beside() -> Result<Option<Run>> {
    if let Err(error) = fetch() {
        println!("schemathesis is left out, since it cannot be fetched: {error:#}. Later: cargo xtask fuzz-api");
        return Ok(None);
    }
    start(HowMuch::Bounded).map(Some)
}

/// Starts it; the program as it was built last, with the demo homes in a folder of its own.
fn start(how_much: HowMuch) -> Result<Run> {
    let data = root().join("target/fuzz-api-data");
    let _ = std::fs::remove_dir_all(&data);
    let program = root().join("target/debug/wayfinder");
    let mut program = Command::new(program)
        .args(["demo", "--bind", "127.0.0.1:0", "--share-at", "127.0.0.1:0", "--data"])
        .arg(&data)
        .stdout(Stdio::piped())
        .spawn()
        .context("the program does not start")?;
    let said = program.stdout.take().context("the program says nothing")?;
    let mut run = Run { program, schemathesis: None, data };
    let mut line = String::new();
    let mut said = BufReader::new(said);
    said.read_line(&mut line)?;
    let address =
        line.trim().rsplit(' ').next().filter(|at| at.starts_with("http")).context("the program does not say where it is")?;
    let (phases, examples) = match how_much {
        HowMuch::Bounded => ("fuzzing", "5"),
        HowMuch::Full => ("examples,coverage,fuzzing", "30"),
    };
    let log = root().join("target/fuzz-api.log");
    let out = std::fs::File::create(&log)?;
    let schemathesis = Command::new("python3")
        .env("PYTHONPATH", root().join("target/schemathesis"))
        .args(["-c", "from schemathesis.cli import schemathesis; schemathesis()", "--config-file"])
        .arg(root().join("xtask/schemathesis.toml"))
        .args(["run", &format!("{address}/api/openapi.json"), "--phases", phases, "--max-examples", examples])
        // A stream has no end; which requests are made is the same each time.
        .args(["--exclude-path-regex", "stream$", "--seed", "7", "--no-color"])
        .stdout(out.try_clone()?)
        .stderr(out)
        .current_dir(root().join("target"))
        .spawn()
        .context("python3 does not start")?;
    // Nothing more is said, and what is said is read, so that the program never waits for it.
    std::thread::spawn(move || said.lines().for_each(drop));
    run.schemathesis = Some(schemathesis);
    Ok(run)
}

impl Run {
    /// Waits for its end, and says what it found where it found anything.
    pub(crate) fn finished(mut self) -> Result<()> {
        let Some(mut schemathesis) = self.schemathesis.take() else { return Ok(()) };
        let passed = schemathesis.wait()?.success();
        let log = std::fs::read_to_string(root().join("target/fuzz-api.log")).unwrap_or_default();
        if !passed {
            println!("{log}");
            bail!("the program does not do what docs/openapi.json says");
        }
        let cases = log.lines().find(|line| line.contains("generated,")).unwrap_or_default();
        println!("schemathesis: {}", cases.trim());
        Ok(())
    }
}

/// The full run.
pub(crate) fn fuzz() -> Result<()> {
    fetch()?;
    run("cargo", &["build", "--quiet", "--workspace", "--bins"])?;
    say("requests made from the description; the log is target/fuzz-api.log");
    start(HowMuch::Full)?.finished()
}
