//! The web files are built into the program; their folder must exist, even before they are built.

fn main() {
    let dist = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/dist");
    if let Err(error) = std::fs::create_dir_all(dist) {
        println!("cargo::error=web/dist cannot be made: {error}");
    }
    println!("cargo::rerun-if-changed=build.rs");
    // Without optimization the program reads them from the folder as it runs: what is in it changes nothing that is built.
    if std::env::var("PROFILE").is_ok_and(|profile| profile == "release") {
        println!("cargo::rerun-if-changed={dist}");
    }
}
