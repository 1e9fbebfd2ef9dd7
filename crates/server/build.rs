//! The web files are built into the program; their folder must exist, even before they are built. A released program says of which
//! commit it was made.

use std::env;
use std::process::Command;

fn main() {
    let dist = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/dist");
    if let Err(error) = std::fs::create_dir_all(dist) {
        println!("cargo::error=web/dist cannot be made: {error}");
    }
    println!("cargo::rerun-if-changed=build.rs");
    // Without optimization the program reads the web files from the folder as it runs, and is built anew many times a commit: neither
    // what is in the folder nor the commit changes anything that is built.
    let released = env::var("PROFILE").is_ok_and(|profile| profile == "release");
    if released {
        println!("cargo::rerun-if-changed={dist}");
    }
    println!("cargo::rustc-env=WAYFINDER_COMMIT={}", if released { commit() } else { "development".into() });
}

/// The commit of this tree, marked where files differ from it. Outside a repository, whoever builds names it (`WAYFINDER_COMMIT`).
fn commit() -> String {
    println!("cargo::rerun-if-env-changed=WAYFINDER_COMMIT");
    let git = |arguments: &[&str]| {
        let said = Command::new("git").args(arguments).output().ok().filter(|said| said.status.success())?;
        Some(String::from_utf8_lossy(&said.stdout).trim().to_owned())
    };
    if let Ok(named) = env::var("WAYFINDER_COMMIT") {
        return named;
    }
    if let Some(head) = git(&["rev-parse", "--git-path", "logs/HEAD"]) {
        println!("cargo::rerun-if-changed={head}");
    }
    let Some(commit) = git(&["rev-parse", "--short=12", "HEAD"]) else { return "unknown".into() };
    let changed = git(&["status", "--porcelain", "--untracked-files=no"]).is_none_or(|files| !files.is_empty());
    if changed { format!("{commit}-changed") } else { commit }
}
