//! What a form offers to choose from, and what else the web files have to know of the core. They are generated into
//! TypeScript, so nothing stands there twice.

use crate::logbook::Fact;
use crate::model::{Configuration, Edition, Metal, WireGauge};

/// A choice: its value in the JSON, and its words.
type Choice = (serde_json::Value, String);

/// Everything that is generated into `web/src/api/lists.ts`.
#[derive(Debug, serde::Serialize)]
#[serde(rename_all = "camelCase")]
pub struct Lists {
    /// The version of the facts that this program writes.
    fact_version: u16,
    /// Every kind of fact.
    fact_kinds: &'static [&'static str],
    /// Kinds that are filed under a switching, by their field `since`.
    under_a_switching: Vec<&'static str>,
    /// The editions of the rules.
    editions: Vec<Choice>,
    /// The faces of receptacles of 120 V.
    faces120: Vec<Configuration>,
    /// The faces of receptacles of 240 V.
    faces240: Vec<Configuration>,
    /// Sizes of wire with their metal: `12 copper`, and as it is read, `12 AWG copper`.
    wires: Vec<(String, String)>,
}

/// Puts the lists together.
pub fn lists() -> Lists {
    let faces = |volts| Configuration::ALL.into_iter().filter(|face| face.volts().value() == volts).collect();
    let wire = |metal: Metal| {
        let made = WireGauge::all().filter(move |(_, aluminum)| metal == Metal::Copper || *aluminum);
        let name = if metal == Metal::Copper { "copper" } else { "aluminum" };
        made.map(move |(gauge, _)| (format!("{} {name}", gauge.number()), format!("{} {name}", gauge.words())))
    };
    Lists {
        fact_version: Fact::VERSION,
        fact_kinds: Fact::KINDS,
        under_a_switching: Fact::under_a_switching(),
        editions: Edition::ALL.into_iter().map(|edition| (serde_json::json!(edition), edition.words())).collect(),
        faces120: faces(120),
        faces240: faces(240),
        wires: wire(Metal::Copper).chain(wire(Metal::Aluminum)).collect(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_face_has_its_volts_and_no_aluminum_is_thinner_than_12_awg() {
        let lists = lists();
        assert_eq!(lists.faces120.len() + lists.faces240.len(), Configuration::ALL.len());
        let thin = |name: &str| lists.wires.iter().any(|(value, _)| value == name);
        assert!(thin("14 copper") && thin("12 aluminum") && !thin("14 aluminum"));
        assert_eq!(lists.under_a_switching, ["point_seen", "volts_read", "point_skipped"]);
        assert!(lists.wires.contains(&("250 copper".into(), "250 kcmil copper".into())));
    }
}
