//! `docs/rules.md` from the headers of the rules, how the program cites each, and what it says of the small panels.

use std::collections::BTreeMap;
use std::fmt::Write;

use anyhow::{Context, Result, bail};

use crate::root;

/// Every rule as one document. `cited`: what the program prints of each rule and edition, with tabs between. A rule without a header, with
/// another code than its header says, that is not registered or that no small panel shows, is an error.
pub(crate) fn document(cited: &str) -> Result<String> {
    let folder = root().join("crates/core/src/checks");
    let registry = std::fs::read_to_string(folder.join("mod.rs"))?;
    let sentences =
        std::fs::read_to_string(root().join("crates/core/tests/small_panels/snapshots/small_panels__sentences.snap"))?;
    let mut rules = BTreeMap::new();
    for entry in std::fs::read_dir(&folder)? {
        let path = entry?.path();
        let name = path.file_stem().unwrap_or_default().to_string_lossy().into_owned();
        if name == "mod" {
            continue;
        }
        let source = std::fs::read_to_string(&path)?;
        let header: Vec<&str> = source.lines().take_while(|line| line.starts_with("//!")).map(|line| line[3..].trim()).collect();
        let head = header.join("\n");
        let code = head.strip_prefix("Rule ").and_then(|rest| rest.split_once(':')).map(|(code, _)| code.to_owned());
        let code = code.with_context(|| format!("{name}.rs does not begin with “//! Rule its-code: …”"))?;
        if !source.contains(&format!("code: \"{code}\"")) {
            bail!("{name}.rs calls its rule something else than its header, {code}");
        }
        if !registry.contains(&format!("    {name}::RULE,")) {
            bail!("{name}.rs is not registered in RULES of checks/mod.rs");
        }
        if !head.contains("Source: ") {
            bail!("{name}.rs names no source");
        }
        let severity = source.split("severity: Severity::").nth(1).and_then(|rest| rest.split(',').next()).unwrap_or_default();
        let said =
            said(&sentences, &code).with_context(|| format!("no small panel in crates/core/tests/small_panels shows {code}"))?;
        let mut text = String::new();
        writeln!(text, "*{severity}.* {}", capital(head[5 + code.len() + 1..].trim()))?;
        writeln!(text, "\nShown: {said}\n\nCited: {}.", sources(cited, &code))?;
        rules.insert(code, text);
    }
    let mut document = format!(
        "# Rules\n\nMade by `cargo xtask types` from the headers in `crates/core/src/checks/`, from what the program cites and from what it\n\
         says of the small panels in `crates/core/tests/small_panels/`; do not edit. {} rules. Each finding is worded as today's rule of\n\
         the chosen edition; local codes and licensed practice come first. Values are from memory where they say so. The sum of branch\n\
         breakers is never warned about. *Planned* is no fault: today's rule for the place, for work that is planned. Where the Canadian\n\
         rule is not known here, nothing is said, and the page of findings says so.\n",
        rules.len()
    );
    for (code, text) in rules {
        write!(document, "\n## {code}\n\n{text}")?;
    }
    Ok(document)
}

/// The first sentence that a small panel shows of the rule, with what it is about.
fn said(sentences: &str, code: &str) -> Option<String> {
    let of = |line: &str| {
        let (severity, rest) = line.split_once(' ')?;
        let said = rest.strip_prefix(code)?.strip_prefix(' ')?;
        (!severity.starts_with('#')).then(|| format!("“{said}”"))
    };
    sentences.lines().find_map(of)
}

/// How it is cited, editions that are cited alike together.
fn sources(cited: &str, code: &str) -> String {
    let mut by_source: Vec<(String, Vec<&str>)> = Vec::new();
    for line in cited.lines() {
        let mut fields = line.split('\t');
        let (Some(of), Some(edition), Some(source)) = (fields.next(), fields.next(), fields.next()) else { continue };
        if of != code {
            continue;
        }
        let source = source.strip_prefix(edition).unwrap_or(source).trim().replace("; local code comes first", "");
        match by_source.iter_mut().find(|(known, _)| *known == source) {
            Some((_, editions)) => editions.push(edition),
            None => by_source.push((source, vec![edition])),
        }
    }
    let one = |(source, editions): &(String, Vec<&str>)| format!("{}: {source}", editions.join(", "));
    by_source.iter().map(one).collect::<Vec<_>>().join("; ")
}

fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map(|first| first.to_uppercase().collect::<String>() + letters.as_str()).unwrap_or_default()
}
