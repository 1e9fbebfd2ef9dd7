//! Own words on the card that no longer match what is known.
//!
//! With own words stands what was proven on the circuit when they were written. Once that is not what is proven now, the words are to
//! be looked at: they may say that something is here which has its power from elsewhere.

use super::changed::{Changed, changed};
use crate::logbook::{CircuitWorded, Fact};
use crate::model::{Breaker, BreakerId, PanelId, listed};
use crate::study::Study;
use crate::trace::on_breaker;
use crate::wording::about_wording;

/// A line of the card whose own words are to be looked at.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Drift {
    /// The breaker.
    pub breaker: BreakerId,
    /// Its panel.
    pub panel: PanelId,
    /// `24`, `G3`.
    pub tag: String,
    /// The own words.
    pub own: String,
    /// What the card says without them.
    pub worded: String,
    /// Why they are to be looked at, a sentence each.
    pub why: Vec<String>,
    /// They were written of something that is proven on another breaker now: whoever follows them switches off the wrong one.
    pub misleads: bool,
    /// Drops the own words.
    pub take: Fact,
    /// Keeps them, knowing what is known now; `null` where the words themselves are at fault.
    pub keep: Option<Fact>,
}

/// The own words that no longer match, those that mislead first.
pub fn drifts(home: &Study) -> &[Drift] {
    struct Drifts(Vec<Drift>);
    let all: &Drifts = home.once(|| {
        let mut all: Vec<Drift> = home.panels().breakers().filter_map(|breaker| drift(home, breaker)).collect();
        all.sort_by_key(|drift| !drift.misleads);
        Drifts(all)
    });
    &all.0
}

/// The fact that writes own words over a circuit as it is known now.
pub(super) fn written_now(home: &Study, breaker: &BreakerId, text: &str) -> CircuitWorded {
    CircuitWorded {
        breaker: breaker.clone(),
        text: text.to_owned(),
        proven: on_breaker(home, breaker).proven.clone(),
        feeds: home.panels().panels_on(breaker).map(|panel| panel.id.clone()).collect(),
    }
}

fn drift(home: &Study, breaker: &Breaker) -> Option<Drift> {
    let own = breaker.own.as_ref()?;
    let now = written_now(home, &breaker.id, &own.text);
    let Changed { mut why, misleads } = changed(home, &own.proven, &now.proven);
    if now.feeds != own.feeds {
        let named: Vec<&str> = home.panels().panels_on(&breaker.id).map(|panel| panel.name.as_str()).collect();
        why.push(match named.as_slice() {
            [] => "It no longer feeds a panel.".into(),
            named => format!("It feeds {} now.", listed(named)),
        });
    }
    let keep = (!why.is_empty()).then(|| now.into());
    let at_fault = about_wording(&own.text);
    if let Some(wrong) = &at_fault {
        why.push(if wrong.starts_with('“') { format!("{wrong}.") } else { format!("“{}” {wrong}.", own.text) });
    }
    if why.is_empty() {
        return None;
    }
    Some(Drift {
        breaker: breaker.id.clone(),
        panel: breaker.panel.clone(),
        tag: home.panels().number(&breaker.id),
        own: own.text.clone(),
        worded: super::card::worded(home, &breaker.panel, &breaker.id),
        why,
        misleads,
        take: CircuitWorded { breaker: breaker.id.clone(), text: String::new(), proven: Vec::new(), feeds: Vec::new() }.into(),
        keep,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    const HOUSE: &str =
        "panel 8\n1 20 kitchen\n3 20 gen. light\n5 20 spare\nroom Kitchen\nroom Hall\npoint Kitchen receptacle counter
point Kitchen appliance refrigerator\npoint Hall light lantern\nproof counter 1\nproof refrigerator 1";

    fn of(more: &str) -> Vec<(String, Vec<String>, bool)> {
        let home = written(&format!("{HOUSE}\n{more}")).home;
        drifts(&home).iter().map(|drift| (format!("{}: {}", drift.tag, drift.own), drift.why.clone(), drift.misleads)).collect()
    }

    #[test]
    fn words_written_of_what_is_proven_stand_until_more_is_proven() {
        assert!(of("own 1 Kitchen counter = counter refrigerator").is_empty());
        let since = of("own 1 Kitchen counter = counter");
        assert_eq!(since, [("1: Kitchen counter".into(), vec!["Proven on it since: Kitchen, refrigerator.".into()], false)]);
        assert!(of("own 5 Attic fan").is_empty(), "nothing was proven then and nothing is now");
    }

    #[test]
    fn what_is_proven_elsewhere_misleads_and_comes_first() {
        let all = of("own 1 Kitchen counter = counter\nown 3 Kitchen fridge, hall = refrigerator lantern");
        let fridge = vec!["Kitchen, refrigerator is proven on 1 now.".into(), "No longer proven on it: Hall, lantern.".into()];
        assert_eq!(all[0], ("3: Kitchen fridge, hall".into(), fridge, true));
        assert_eq!(all.len(), 2);
        let gone = of("own 3 Hall = lantern\nno-point lantern");
        assert_eq!(gone[0].1, ["No longer in the record: 1 point."]);
    }

    #[test]
    fn vague_words_are_told_and_cannot_be_kept() {
        let home = written(&format!("{HOUSE}\nown 3 General")).home;
        let [drift] = drifts(&home) else { panic!("{:?}", drifts(&home)) };
        assert!(drift.keep.is_none() && drift.why[0].contains("General"), "{drift:?}");
        let feeder = written("panel 8\n5-7 40/2 shed\nown 5-7 To the barn\nsub Shed 8 5-7").home;
        assert_eq!(drifts(&feeder)[0].why, ["It feeds Shed now."]);
    }

    #[test]
    fn both_answers_end_it_and_the_card_follows() {
        for keeps in [true, false] {
            let mut written = written(&format!("{HOUSE}\nown 1 Kitchen counter = counter"));
            let drift = drifts(&written.home)[0].clone();
            let fact = if keeps { drift.keep.clone().unwrap() } else { drift.take.clone() };
            written.fact(fact).unwrap();
            assert!(drifts(&written.home).is_empty());
            let own = written.home.panels().breaker(&drift.breaker).unwrap().own.clone();
            assert_eq!(own.map(|own| own.text), keeps.then(|| "Kitchen counter".to_owned()));
        }
    }
}
