//! What to mind at the moment when a breaker is switched, with the breaker that it concerns. Common practice; no source.

use super::verdict::on_breaker;
use crate::model::delicate::{BIG, COMPRESSORS, COMPUTERS, MONITORED, names, plainly};
use crate::model::{Breaker, BreakerId, PointId, PointKind, State};
use crate::study::Study;

const LIGHTS: [&str; 5] = ["light", "lights", "lighting", "lamp", "lamps"];
const STAIRS: [&str; 4] = ["stair", "stairs", "stairway", "landing"];
/// The least amperes of a two-pole breaker that is taken to feed one big load.
pub(super) const BIG_AMPS: f64 = 30.0;
/// A breaker that goes off after so long without one begins another trace.
const ANOTHER_TRACE_MS: i64 = 3 * 60 * 60 * 1000;

/// What is said of a breaker: its old card and own words, and the points that are proven on it, with their rooms.
fn said_of(home: &Study, breaker: &Breaker) -> String {
    let mut said = breaker.claim.clone().unwrap_or_default();
    for point in &on_breaker(home, &breaker.id).proven {
        if let Some(point) = home.house().point(point) {
            let room = home.house().room(&point.room).map_or("", |room| &room.name);
            said.push_str(&format!(" {} {room}", point.name));
        }
    }
    plainly(&said)
}

/// Whether no breaker has gone off in this trace yet.
fn is_the_first(home: &Study) -> bool {
    let off = home.switchings().all().iter().rev().find(|switching| switching.to == State::Off);
    let latest = home.trace().looks().last().map(|look| look.at.unix_ms());
    off.is_none_or(|off| latest.is_some_and(|latest| latest - off.at.unix_ms() > ANOTHER_TRACE_MS))
}

/// What to mind as these go off.
pub(super) fn as_they_go_off(home: &Study, off: &[BreakerId]) -> Vec<String> {
    let them = if off.len() > 1 { "them" } else { "it" };
    let check = format!("Check that no medical device, pump or server depends on {them}.");
    let mut cautions = vec![if is_the_first(home) { format!("Tell everybody in the house first. {check}") } else { check }];
    let breakers: Vec<(&Breaker, String)> =
        off.iter().filter_map(|b| home.panels().breaker(b)).map(|b| (b, said_of(home, b))).collect();
    let mut mind = |want: &dyn Fn(&Breaker, &str) -> bool, words: &str| {
        let numbers: Vec<String> =
            breakers.iter().filter(|(b, said)| want(b, said)).map(|(b, _)| home.panels().number(&b.id)).collect();
        if !numbers.is_empty() {
            cautions.push(format!("{}: {words}", numbers.join(", ")));
        }
    };
    mind(&|b, said| names(said, &BIG) || b.poles() > 1 && b.amps.value() >= BIG_AMPS, "switch the big load off at itself first.");
    mind(
        &|_, said| names(said, &COMPRESSORS),
        "a compressor may hang on it. Once off, give it five minutes before it comes on again.",
    );
    mind(&|b, said| names(said, &LIGHTS) || lights(home, b), "lights go dark. Have a torch in hand.");
    mind(&|_, said| names(said, &STAIRS), "the stairs may go dark. See that nobody is on them.");
    mind(&|_, said| names(said, &COMPUTERS), "save what is open on computers first.");
    mind(&|_, said| names(said, &MONITORED), "tell the company that watches the alarm, if one does.");
    cautions
}

/// Whether a light is proven on it.
fn lights(home: &Study, breaker: &Breaker) -> bool {
    let is_light = |p: &PointId| home.house().point(p).is_some_and(|p| p.kind == PointKind::Light);
    on_breaker(home, &breaker.id).proven.iter().any(is_light)
}

/// What to mind as these come on again.
pub(super) fn as_they_come_on(home: &Study, on: &[BreakerId]) -> Option<String> {
    let compressor = |b: &&BreakerId| home.panels().breaker(b).is_some_and(|b| names(&said_of(home, b), &COMPRESSORS));
    let numbers: Vec<String> = on.iter().filter(compressor).map(|b| home.panels().number(b)).collect();
    let wait = "a compressor may hang on it. Five minutes off before it comes on again.";
    (!numbers.is_empty()).then(|| format!("{}: {wait}", numbers.join(", ")))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    #[test]
    fn what_to_mind_stands_with_the_breaker_that_it_concerns_and_everybody_is_told_once() {
        let home = "panel 24\n1 20 kitchen\n3 15 stairs lights\n5 20 fridge\n6 15 range hood\n2-4 40/2\n7 15 office\n9 15 alarm\n11 15 porch
            room Hall\npoint Hall light lamp\n";
        let w = written(home);
        let said = |w: &crate::fixture::Written, number: &str| -> String {
            let breaker = w.home.panels().breakers().find(|b| w.home.panels().number(&b.id) == number).unwrap().id.clone();
            as_they_go_off(&w.home, &[breaker]).join(" ")
        };
        for (number, words) in [
            ("3", "torch"),
            ("3", "nobody is on them"),
            ("5", "five minutes"),
            ("2-4", "big load"),
            ("7", "save what is open"),
            ("9", "watches the alarm"),
        ] {
            assert!(said(&w, number).contains(words), "{number}: {}", said(&w, number));
            assert!(!said(&w, "1").contains(words), "{words}: nothing is known of it");
        }
        assert!(!said(&w, "6").contains("big load"), "a hood is no range");
        assert!(said(&w, "1").starts_with("Tell everybody"));
        let later = written(&format!("{home}lit lamp\noff 11\ndark lamp\non 11"));
        assert!(!said(&later, "1").contains("Tell everybody"), "it was told with the first");
        // What is proven speaks as well as the card.
        let proven = written(&format!("{home}proof lamp 11"));
        assert!(said(&proven, "11").contains("torch"), "{}", said(&proven, "11"));
        let fridge = w.home.panels().breakers().find(|b| b.claim.as_deref() == Some("fridge")).unwrap().id.clone();
        assert!(as_they_come_on(&w.home, &[fridge]).unwrap().starts_with("5: a compressor"));
    }
}
