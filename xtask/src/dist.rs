//! `cargo xtask dist`: what is given out. One stripped executable, a Debian package with a unit for systemd, the licences of all that is
//! in it, and the SHA-256 of each.

use std::fs;
use std::path::Path;
use std::process::Command;

use anyhow::{Context, Result, bail, ensure};

use crate::root;
use crate::tools::{capture, run, say};

/// The tools that pack and check, their versions, and what more to build of them; kept in `target/tools`.
const TOOLS: [(&str, &str, &[&str]); 3] =
    [("cargo-deny", "0.20.2", &[]), ("cargo-about", "0.9.3", &["--features", "cli"]), ("cargo-deb", "3.8.0", &[])];

const PACKAGE: [&str; 2] = ["-p", "wayfinder-server"];

pub(crate) fn dist() -> Result<()> {
    let folder = root().join("target/dist");
    let _ = fs::remove_dir_all(&folder);
    fs::create_dir_all(&folder)?;
    say("tools that pack and check");
    TOOLS.iter().try_for_each(|(name, version, more)| install(name, version, more))?;
    say("licences and sources of dependencies");
    tool("cargo-deny", &["--all-features", "check", "--hide-inclusion-graph", "licenses", "bans", "sources"])?;
    advisories()?;
    say("the program");
    run("cargo", &[&["build", "--release", "--locked"][..], &PACKAGE].concat())?;
    let program = root().join("target/release/wayfinder");
    fs::copy(&program, folder.join("wayfinder"))?;
    println!("{}", String::from_utf8_lossy(&capture(&program.to_string_lossy(), &["--version"])?).trim());
    say("licences, as a file");
    licences(&folder.join("LICENSES.txt"))?;
    say("the Debian package");
    let out = folder.to_string_lossy().into_owned();
    tool("cargo-deb", &[&PACKAGE[..], &["--no-build", "--no-strip", "--output", &out]].concat())?;
    say("SHA-256");
    let mut names: Vec<String> =
        fs::read_dir(&folder)?.filter_map(|file| Some(file.ok()?.file_name().to_string_lossy().into_owned())).collect();
    names.sort();
    ensure!(names.iter().any(|name| name.ends_with(".deb")), "there is no package");
    let sums = Command::new("sha256sum").args(&names).current_dir(&folder).output().context("sha256sum does not start")?;
    ensure!(sums.status.success(), "sha256sum failed");
    fs::write(folder.join("SHA256SUMS"), &sums.stdout)?;
    print!("{}", String::from_utf8_lossy(&sums.stdout));
    println!("\nAll of it is in {}", folder.display());
    Ok(())
}

fn install(name: &str, version: &str, more: &[&str]) -> Result<()> {
    let folder = root().join("target/tools");
    let there = folder.join("bin").join(name);
    let stamp = folder.join(format!("{name}-{version}"));
    if there.is_file() && stamp.is_file() {
        return Ok(());
    }
    println!("fetching and building {name} {version}");
    let into = folder.to_string_lossy();
    run("cargo", &[&["install", "--quiet", "--locked", "--root", &into, "--version", version, name], more].concat())?;
    Ok(fs::write(stamp, "")?)
}

/// Runs one of the tools as cargo would.
fn tool(name: &str, arguments: &[&str]) -> Result<()> {
    run(&root().join("target/tools/bin").join(name).to_string_lossy(), arguments)
}

/// Known holes in dependencies. Their list is fetched from outside the registries; where it cannot be had, that is said and nothing fails.
fn advisories() -> Result<()> {
    let deny = root().join("target/tools/bin/cargo-deny");
    let out = Command::new(deny).args(["check", "--hide-inclusion-graph", "advisories"]).current_dir(root()).output()?;
    let said = String::from_utf8_lossy(&out.stderr).into_owned();
    if out.status.success() {
        println!("no known hole in a dependency");
        return Ok(());
    }
    if said.contains("advisory database") && !said.contains("error[") {
        println!("NOTE: the list of known holes could not be had here, so dependencies were not held against it.");
        return Ok(());
    }
    bail!("{said}");
}

/// The texts of the licences of every crate and npm package that is in the program.
fn licences(to: &Path) -> Result<()> {
    let about = root().join("target/tools/bin/cargo-about").to_string_lossy().into_owned();
    let manifest = "crates/server/Cargo.toml";
    let arguments =
        ["generate", "--locked", "--offline", "--fail", "-c", "packaging/about.toml", "-m", manifest, "packaging/about.hbs"];
    let mut all = capture(&about, &arguments)?;
    for web in ["licenses.md", "licenses-of-the-worker.md"] {
        all.extend(b"\n\n");
        all.extend(fs::read(root().join("web/dist").join(web)).context("the web files were built without their licences")?);
    }
    all.extend(b"\n\n");
    for font in fs::read_dir(root().join("crates/formats/fonts"))? {
        let font = font?.path();
        if font.extension().is_some_and(|end| end == "txt") {
            all.extend(fs::read(font)?);
        }
    }
    Ok(fs::write(to, all)?)
}
