//! Running other programs, and installing those that tests need.

use std::ffi::OsStr;
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};

use anyhow::{Context, Result, bail};

use crate::root;

/// Says what is being done.
pub(crate) fn say(what: &str) {
    println!("\n== {what}");
}

/// Runs a program in the workspace's folder; its failure is ours.
pub(crate) fn run(program: &str, arguments: &[&str]) -> Result<()> {
    run_in(&root(), Command::new(program), program, arguments)
}

/// Runs npm in `web/`.
pub(crate) fn npm(arguments: &[&str]) -> Result<()> {
    run_in(&root().join("web"), Command::new("npm"), "npm", arguments)
}

/// Something that runs beside other work, its output kept until it is asked for: a build waits often enough for one thing that a second
/// core has time for another.
pub(crate) struct Beside {
    child: Child,
    said: PathBuf,
    what: String,
}

/// Runs npm in `web/` beside what follows.
pub(crate) fn npm_beside(arguments: &[&str]) -> Result<Beside> {
    let said = root().join("target/beside.log");
    std::fs::create_dir_all(root().join("target"))?;
    let log = std::fs::File::create(&said)?;
    let child = Command::new("npm")
        .args(arguments)
        .current_dir(root().join("web"))
        .stdin(Stdio::null())
        .stdout(log.try_clone()?)
        .stderr(log)
        .spawn()
        .context("npm does not start; is it installed?")?;
    Ok(Beside { child, said, what: format!("npm {}", arguments.join(" ")) })
}

impl Beside {
    /// Waits for it, prints what it said; its failure is ours.
    pub(crate) fn finished(mut self) -> Result<()> {
        let status = self.child.wait()?;
        print!("{}", std::fs::read_to_string(&self.said)?);
        if !status.success() {
            bail!("{} failed", self.what);
        }
        Ok(())
    }
}

/// Runs a program of the npm packages in `web/`.
pub(crate) fn npx(arguments: &[&str]) -> Result<()> {
    let mut all = vec!["exec", "--offline", "--"];
    all.extend(arguments);
    run_in(&root().join("web"), Command::new("npm"), "npm", &all)
}

/// Runs cargo with clippy in place of the compiler for our own crates, so that they are built and looked at in one go: `cargo clippy`
/// would read every dependency once more, which takes as long as half of the build. Warnings are errors.
pub(crate) fn cargo_with_clippy(arguments: &[&str]) -> Result<()> {
    let mut cargo = Command::new("cargo");
    // The searches and the belief are tested over thousands of made-up homes: what the core takes longer to build is won back many times.
    cargo.args(["--config", "profile.dev.package.wayfinder-core.opt-level=1"]);
    // How `cargo clippy` itself hands its arguments on.
    cargo.env("RUSTC_WORKSPACE_WRAPPER", "clippy-driver").env("CLIPPY_ARGS", "-D__CLIPPY_HACKERY__warnings__CLIPPY_HACKERY__");
    run_in(&root(), cargo, "cargo", arguments)
}

fn run_in(folder: &Path, mut command: Command, program: &str, arguments: &[&str]) -> Result<()> {
    let status = command
        .args(arguments)
        .current_dir(folder)
        .status()
        .with_context(|| format!("{program} does not start; is it installed?"))?;
    if !status.success() {
        bail!("{program} {} failed", arguments.join(" "));
    }
    Ok(())
}

/// What a program prints.
pub(crate) fn capture(program: &str, arguments: &[&str]) -> Result<Vec<u8>> {
    let out = Command::new(program)
        .args(arguments)
        .current_dir(root())
        .stderr(Stdio::inherit())
        .output()
        .with_context(|| format!("{program} does not start; is it installed?"))?;
    if !out.status.success() {
        bail!("{program} {} failed", arguments.join(" "));
    }
    Ok(out.stdout)
}

/// Programs that tests need, and the Debian packages that hold them.
const NEEDED: [(&str, &str); 7] = [
    ("chromium", "chromium"),
    ("chromedriver", "chromium-driver"),
    ("pdfinfo", "poppler-utils"),
    ("pdftotext", "poppler-utils"),
    ("python3", "python3"),
    ("pip3", "python3-pip"),
    ("ngspice", "ngspice"),
];

/// Python packages that tests hold our answers against, in `target/python`: a drawing library, one of sheets, and graphs and
/// geometry for the walking times.
const REFERENCES: [&str; 4] = ["ezdxf==1.4.5", "networkx==3.6.1", "openpyxl==3.1.5", "shapely==2.2.0"];

/// Installs what is missing through apt where that may be done; else says what to install.
pub(crate) fn need_for_tests() -> Result<()> {
    need_programs()?;
    need_references()
}

/// Fetches the reference packages, unless these very ones are there.
fn need_references() -> Result<()> {
    let folder = root().join("target/python");
    let stamp = folder.join("fetched.txt");
    let wanted = REFERENCES.join("\n");
    if std::fs::read_to_string(&stamp).is_ok_and(|there| there == wanted) {
        return Ok(());
    }
    say("fetching Python packages for reference checks");
    let target = folder.to_string_lossy().into_owned();
    let mut install = vec!["-m", "pip", "install", "--quiet", "--disable-pip-version-check", "--upgrade", "--target", &target];
    install.extend(REFERENCES);
    run("python3", &install)?;
    Ok(std::fs::write(stamp, wanted)?)
}

fn need_programs() -> Result<()> {
    let mut missing: Vec<&str> = NEEDED.iter().filter(|(program, _)| !is_there(program)).map(|(_, package)| *package).collect();
    missing.dedup();
    if missing.is_empty() {
        return Ok(());
    }
    let packages = missing.join(" ");
    let user = capture("id", &["-u"]).unwrap_or_default();
    if !is_there("apt-get") || user.trim_ascii() != b"0" {
        bail!("tests need {packages}. Install them, on Debian: sudo apt-get install {packages}");
    }
    say(&format!("installing {packages} through apt"));
    run("apt-get", &["update", "-qq"])?;
    let mut install = vec!["DEBIAN_FRONTEND=noninteractive", "apt-get", "install", "-y", "-qq", "--no-install-recommends"];
    install.extend(&missing);
    run("env", &install)
}

fn is_there(program: impl AsRef<OsStr>) -> bool {
    let path = std::env::var_os("PATH").unwrap_or_default();
    std::env::split_paths(&path).any(|folder| folder.join(program.as_ref()).is_file())
}
