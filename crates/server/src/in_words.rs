//! Loads and the service calculation as lines of text, for the command line.

use wayfinder_core::loads::{LoadsView, ServiceView};

/// A line a circuit, then what may not run together.
pub(crate) fn loads_in_words(view: &LoadsView) -> String {
    let mut text = format!("{}\n", view.title);
    for circuit in &view.circuits {
        text.push_str(&format!("{:>8}  {:4.0} %  {}: {}\n", circuit.number, circuit.percent, circuit.about, circuit.sentence));
    }
    for set in &view.not_together {
        text.push_str(&format!("{:>8}  not together: {}, {:.1} of {} A\n", set.number, set.words, set.amps, set.of));
    }
    text
}

/// The sheet as it is read: a line each, then what limits it.
pub(crate) fn sheet_in_words(view: &ServiceView) -> String {
    let mut text = format!("{}\n{}\n", view.title, view.source);
    for line in &view.lines {
        let then = line.with_new.map_or_else(String::new, |va| format!("{va:>12.1}"));
        text.push_str(&format!("{:<36}{:>12.1}{then}  {} {}\n", line.words, line.today, line.from, line.rule));
    }
    text.push_str(&format!("by {} V: {} A", view.volts, view.today_amps));
    text.push_str(&view.with_new_amps.map_or_else(String::new, |amps| format!(", with the new load {amps} A")));
    for limit in &view.limits {
        let amps = limit.amps.map_or_else(|| "not read".to_owned(), |amps| format!("{amps} A"));
        text.push_str(&format!("\n{}: {amps}", limit.words));
    }
    for unread in &view.unread {
        text.push_str(&format!("\nto be read: {unread}"));
    }
    text.push('\n');
    text
}
