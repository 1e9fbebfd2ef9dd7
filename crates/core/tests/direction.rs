//! The modules of the core stand in one order, that of `lib.rs`: each may use those before it and none after it.
#![allow(clippy::unwrap_used, clippy::disallowed_methods)] // it reads the sources, which the core itself may not

use std::path::{Path, PathBuf};

fn sources(folder: &Path, found: &mut Vec<PathBuf>) {
    for entry in std::fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            sources(&path, found);
        } else if path.extension().is_some_and(|e| e == "rs") {
            found.push(path);
        }
    }
}

/// What a source names of the crate: the word after each `crate::`, with those of a list in braces.
fn named(source: &str) -> Vec<String> {
    let mut named = Vec::new();
    for (at, _) in source.match_indices("crate::") {
        let rest = &source[at + "crate::".len()..];
        let before = source[..at].chars().next_back();
        if before.is_some_and(|c| c.is_alphanumeric() || c == '_' || c == '$') {
            continue;
        }
        let word: String = rest.chars().take_while(|c| c.is_alphanumeric() || *c == '_').collect();
        named.push(if rest.starts_with('{') { "{".into() } else { word });
    }
    named
}

/// The source without its tests, which may use anything, and without its comments.
fn code(source: &str) -> String {
    let code = source.split("#[cfg(test)]").next().unwrap();
    code.lines().filter(|line| !line.trim_start().starts_with("//")).collect::<Vec<_>>().join("\n")
}

#[test]
fn modules_use_only_what_stands_before_them() {
    let src = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let lib = std::fs::read_to_string(src.join("lib.rs")).unwrap();
    let code_of_lib = code(&lib);
    fn declared(line: &str) -> Option<&str> {
        line.strip_prefix("pub ").unwrap_or(line).strip_prefix("mod ")?.strip_suffix(';')
    }
    let modules: Vec<&str> = code_of_lib.lines().filter_map(declared).collect();
    assert!(modules.len() > 10 && modules[0] == "model" && modules.last() == Some(&"sim"), "{modules:?}");
    let mut files = Vec::new();
    sources(&src, &mut files);
    let mut wrong = Vec::new();
    let mut looked_at = 0;
    for file in files {
        let path = file.strip_prefix(&src).unwrap();
        let name = path.components().next().unwrap().as_os_str().to_str().unwrap().trim_end_matches(".rs");
        if name == "lib" || path.to_str().unwrap().contains("tests") {
            continue;
        }
        let own = modules.iter().position(|m| *m == name).unwrap_or_else(|| panic!("{name} is no module of lib.rs"));
        for word in named(&code(&std::fs::read_to_string(&file).unwrap())) {
            looked_at += 1;
            match modules.iter().position(|m| *m == word) {
                Some(other) if other <= own => {}
                Some(_) => wrong.push(format!("{} uses {word}, which stands after {name}", path.display())),
                // A name from the top of the crate hides where it comes from.
                None => wrong.push(format!("{} imports crate::{word}: name its module", path.display())),
            }
        }
    }
    assert!(looked_at > 200, "only {looked_at} imports were found");
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn the_reader_of_imports_sees_them() {
    let source = "use crate::{Home};\nuse crate::model::{Amps};\n// crate::no\nfn f() -> crate::trace::Verdict {}\n#[cfg(test)]\nuse crate::sim;";
    assert_eq!(named(&code(source)), ["{", "model", "trace"]);
}
