//! The panel written as the text that [`super::read_card`] reads: one breaker a line.

use crate::logbook::Home;
use crate::model::{Breaker, Cable, Housing, Metal, Panel, Protection, Tie};

/// The card as text, left column from the top, then the right; what the old card says stands behind each.
pub fn write_card(home: &Home, panel: &Panel) -> String {
    let mut text = String::new();
    for space in panel.every_space() {
        let mut here: Vec<&Breaker> = home.panels().breakers_of(&panel.id).filter(|b| b.at[0].space == space).collect();
        here.sort_by_key(|b| b.at[0]);
        for breaker in &here {
            text.push_str(&line(home, breaker));
            text.push('\n');
        }
        if !home.panels().breakers_of(&panel.id).any(|b| b.at.iter().any(|slot| slot.space == space)) {
            text.push_str(&format!("{space} open\n"));
        }
    }
    text
}

fn line(home: &Home, breaker: &Breaker) -> String {
    let mut words = vec![breaker.number()];
    let amps = breaker.amps.value();
    words.push(if breaker.poles() > 1 { format!("{amps}/{}", breaker.poles()) } else { amps.to_string() });
    match breaker.housing() {
        Housing::Quad => words.push("quad".into()),
        Housing::Slim => words.push("slim".into()),
        Housing::Full | Housing::Tandem => {}
    }
    if breaker.poles() > 1 && breaker.details.tie == Tie::Handle {
        words.push("tied".into());
    }
    match breaker.protection {
        Protection::Standard => {}
        Protection::Gfci => words.push("gfci".into()),
        Protection::Afci => words.push("afci".into()),
        Protection::DualFunction => words.push("dual".into()),
    }
    if let Some(wire) = breaker.wire.filter(|w| w.cable == Cable::NotRead) {
        let metal = if wire.metal == Metal::Aluminum { "al" } else { "" };
        words.push(format!("#{}{metal}", wire.gauge.number()));
    }
    if let Some(claim) = &breaker.claim {
        words.push(claim.clone());
    }
    if let Some(fed) = home.panels().panels_on(&breaker.id).next() {
        words.push(format!("> {}", fed.name));
    } else if !breaker.details.feeds.is_empty() {
        words.push(format!("> {}", breaker.details.feeds));
    }
    words.join(" ")
}
