//! Loads, the service calculation, the ways to a wish and a panel's card as lines of text, for the command line.

use wayfinder_core::Card;
use wayfinder_core::loads::{LoadsView, ServiceView};
use wayfinder_core::work::{WayStands, WorkView};

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

/// Every way: those there are with their steps and what has to be read first, then why not the others.
pub(crate) fn ways_in_words(view: &WorkView) -> String {
    let mut text = format!("{}\n{}\n", view.title, view.panel);
    for way in &view.ways {
        let minutes = way.minutes.map_or_else(String::new, |minutes| format!(", about {minutes} minutes"));
        let within = way.within_percent.map_or_else(String::new, |percent| format!(", within {percent:.0} % of the cheapest"));
        match way.stands {
            WayStands::Sure => text.push_str(&format!("\n{}{minutes}{within}\n", way.name)),
            WayStands::Read => text.push_str(&format!("\n{}, if what is read allows it{minutes}{within}\n", way.name)),
            WayStands::No => text.push_str(&format!("\n{}: no, {}\n", way.name, way.why_not)),
        }
        for unread in &way.unread {
            text.push_str(&format!("  to be read: {}\n", unread.words));
        }
        for step in &way.steps {
            text.push_str(&format!("  {step}\n"));
        }
    }
    for other in &view.elsewhere {
        text.push_str(&format!("\n{}\n", other.words));
    }
    for caution in &view.cautions {
        text.push_str(&format!("\n{caution}\n"));
    }
    text
}

/// A panel's card as text: number, amps, words, and what stands below them.
pub(crate) fn card_in_words(card: &Card) -> String {
    let mut said = format!("{}\n{}\n\n", card.text.title, card.text.subtitle);
    for cell in &card.cells {
        let notes: String = cell.notes.iter().map(|note| format!(" [{note}]")).collect();
        said.push_str(&format!("{:>6} {:>4}  {}{notes}\n", cell.number, cell.amps, cell.text));
    }
    said.push('\n');
    for line in &card.text.foot {
        said.push_str(line);
        said.push('\n');
    }
    said
}
