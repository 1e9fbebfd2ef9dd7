//! `docs/rules.md` from the headers of the rules.

use std::fmt::Write;

use anyhow::{Context, Result, bail};

use crate::root;

/// Every rule's header as one document. A rule without a header, with another code than its header says, or
/// that is not registered, is an error.
pub(crate) fn document() -> Result<String> {
    let folder = root().join("crates/core/src/checks");
    let registry = std::fs::read_to_string(folder.join("mod.rs"))?;
    let mut rules = Vec::new();
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
        let text = head[5 + code.len() + 1..].trim().to_owned();
        rules.push((code, severity.to_owned(), text));
    }
    rules.sort();
    let mut document = format!(
        "# Rules\n\nMade from the headers in `crates/core/src/checks/` by `cargo xtask types`; do not edit. {} rules. Each finding is\n\
         worded as today's rule of the chosen edition; local codes and licensed practice come first. Values are from memory\n\
         where they say so. The sum of branch breakers is never warned about.\n",
        rules.len()
    );
    for (code, severity, text) in rules {
        let mut letters = text.chars();
        let text = letters.next().map(|first| first.to_uppercase().collect::<String>() + letters.as_str()).unwrap_or_default();
        write!(document, "\n## {code}\n\n*{severity}.* {text}\n")?;
    }
    Ok(document)
}
