//! `cargo xtask <task>`: set up, demo, test, types, shots, bench. Each says what it is doing.

mod api;
mod bench;
mod dist;
mod rules;
mod tools;

use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::{Result, bail};
use tools::{capture, run, say};

const USAGE: &str = "cargo xtask <task>
  demo    install npm packages, build the web files and the program, start it with the demo home
  test    install what tests need, then run every check and every test
  types   write docs/openapi.json, docs/rules.md, web/src/api/generated/ anew from the code
  fuzz-api  hold the program against its own description, at length
  shots   take every picture of docs/screenshots/ from the demo home
  dist    make what is given out: executable, Debian package, licences, SHA-256
  bench   measure, and print what docs/performance.md records";

fn main() -> ExitCode {
    let task = std::env::args().nth(1).unwrap_or_default();
    let done = match task.as_str() {
        "demo" => demo(),
        "test" => test(),
        "types" => types(),
        "fuzz-api" => api::fuzz(),
        "shots" => shots(),
        "dist" => dist(),
        "bench" => bench(),
        _ => {
            eprintln!("{USAGE}");
            return ExitCode::FAILURE;
        }
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("\nxtask {task}: {error:#}");
            ExitCode::FAILURE
        }
    }
}

/// The workspace's folder.
pub(crate) fn root() -> PathBuf {
    let mut root = PathBuf::from(env!("CARGO_MANIFEST_DIR"));
    root.pop();
    root
}

fn demo() -> Result<()> {
    web_files()?;
    say("building the program (release)");
    run("cargo", &["build", "--release", "-p", "wayfinder-server"])?;
    say("starting with the demo home; Ctrl-C stops it");
    let program = root().join("target/release/wayfinder");
    run(&program.to_string_lossy(), &["demo", "--data", "target/demo-data"])
}

/// npm packages from the lock file, then the web files.
fn web_files() -> Result<()> {
    npm_packages()?;
    say("building the web files");
    tools::npm(&["run", "--silent", "build", "--", "--logLevel", "warn"])
}

fn npm_packages() -> Result<()> {
    let web = root().join("web");
    let installed = web.join("node_modules/.package-lock.json");
    let modified = |path: &std::path::Path| path.metadata().and_then(|m| m.modified()).ok();
    if modified(&installed).is_some_and(|at| modified(&web.join("package-lock.json")).is_some_and(|lock| lock <= at)) {
        return Ok(());
    }
    say("installing npm packages from the lock file");
    tools::npm(&["ci", "--no-fund", "--no-audit"])
}

fn test() -> Result<()> {
    tools::need_for_tests()?;
    npm_packages()?;
    say("format");
    run("cargo", &["fmt", "--all", "--check"])?;
    tools::npm(&["run", "--silent", "format:check"])?;
    say("web files: built, types and lint looked at, beside what follows");
    // What the tests run reads them as it runs, so its build waits for none of them.
    let web = tools::npm_beside(&["run", "--silent", "build-check-and-lint"])?;
    say("building the program and every test, clippy at it; its warnings are errors");
    let built = tools::cargo_with_clippy(&["test", "--workspace", "--all-targets", "--no-run"]);
    say("web files: what was found");
    let web = web.finished();
    built.and(web)?;
    say("drift: docs/openapi.json, the TypeScript types, docs/rules.md");
    drift()?;
    let api = api::beside()?;
    say("every test, browser tests among them");
    tools::cargo_with_clippy(&["test", "--workspace"])?;
    if let Some(api) = api {
        say("the program against its own description");
        api.finished()?;
    }
    say("all passed");
    Ok(())
}

/// What the program prints, as it was built last: `cargo run -p` would build it once more, with the features that it has when it is built
/// alone.
fn said_by_the_program(command: &str) -> Result<String> {
    let said = capture(&root().join("target/debug/wayfinder").to_string_lossy(), &[command])?;
    Ok(String::from_utf8(said)?)
}

/// The files that follow from the Rust types, made anew at the given places.
fn write_types(openapi: &str, typescript: &str, lists: &str) -> Result<()> {
    std::fs::write(root().join(openapi), said_by_the_program("openapi")?)?;
    std::fs::write(root().join(lists), said_by_the_program("lists")?)?;
    tools::npx(&["openapi-typescript", &format!("../{openapi}"), "-o", &format!("../{typescript}")])
}

fn types() -> Result<()> {
    npm_packages()?;
    say("docs/openapi.json, docs/rules.md, web/src/api/generated/");
    run("cargo", &["build", "--quiet", "--workspace", "--bins"])?;
    write_types("docs/openapi.json", "web/src/api/generated/types.ts", "web/src/api/generated/lists.ts")?;
    Ok(std::fs::write(root().join("docs/rules.md"), rules::document(&said_by_the_program("rules")?)?)?)
}

fn drift() -> Result<()> {
    write_types("target/openapi.json", "target/types.ts", "target/lists.ts")?;
    std::fs::write(root().join("target/rules.md"), rules::document(&said_by_the_program("rules")?)?)?;
    for (kept, now) in [
        ("docs/openapi.json", "target/openapi.json"),
        ("web/src/api/generated/types.ts", "target/types.ts"),
        ("web/src/api/generated/lists.ts", "target/lists.ts"),
        ("docs/rules.md", "target/rules.md"),
    ] {
        if std::fs::read(root().join(kept))? != std::fs::read(root().join(now))? {
            bail!("{kept} is not what the code says; run `cargo xtask types` and commit it");
        }
    }
    Ok(())
}

fn shots() -> Result<()> {
    tools::need_for_tests()?;
    web_files()?;
    say("taking pictures");
    run("cargo", &["run", "--quiet", "-p", "wayfinder-e2e", "--bin", "shots", "--", "docs/screenshots"])
}

fn dist() -> Result<()> {
    web_files()?;
    dist::dist()
}

fn bench() -> Result<()> {
    web_files()?;
    bench::all()
}
