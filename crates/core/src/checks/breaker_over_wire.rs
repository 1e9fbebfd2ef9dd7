//! Rule breaker-over-wire: a breaker larger than its wire lets the wire overheat before it trips.
//!
//! Source: NEC 240.4(D), 110.14(C)(1), Table 310.16, from memory. Where only the 60 °C column says no and nobody has read the
//! marks for 75 °C, it is a note to read them. Excused only where every point proven on it is a cooling unit with a plate (rule
//! data-plate; NEC 240.4(G)); a plain motor goes by NEC 430, which is not judged here. Feeders have a rule of their own. Example:
//! a 20 A breaker on 14 AWG copper, which is good for 15 A.

use super::Found;
use super::{Checked, FOR_QUALIFIED, Finding, InCanada, Rule, Sections, Severity, Source, placed_anew};
use crate::model::{Amps, Breaker, Draw, Load, Point, Wire, largest_breaker};

pub(super) const RULE: Rule = Rule {
    code: "breaker-over-wire",
    severity: Severity::Danger,
    why: "The wire can overheat in the wall before the breaker trips.",
    source: Source::Code(Sections::moved(
        ["240.4(D) and Table 310.15(B)(16)", "240.4(D) and Table 310.16", "240.4(D) and Table 310.16"],
        InCanada::Section("14-104 and Tables 2, 4 and 13"),
    )),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let edition = checked.home.edition();
    for (_, breaker) in checked.breakers() {
        let Some(wire) = breaker.wire else { continue };
        let allowed = largest_breaker(wire, edition);
        if breaker.amps <= allowed || breaker.details.back_fed_main || checked.is_feeder(breaker) {
            continue;
        }
        // One plate on a circuit that feeds other things, too, excuses nothing.
        let mut points = checked.points_on(&breaker.id).peekable();
        if points.peek().is_some() && points.all(|point| has_plate(checked, point)) {
            continue;
        }
        if wire.if_read(edition).is_some_and(|read| breaker.amps <= largest_breaker(read, edition)) {
            let read = placed_anew(breaker, |b| b.wire = wire.if_read(edition));
            read_the_marks(breaker, wire, allowed, found).mended_by("75 °C is read from both", vec![read]);
            continue;
        }
        let finding = found.breaker(
            breaker,
            format!("{} breaker on {}. The wire is good for a {allowed} breaker at most.", breaker.amps, wire.words()),
            format!(
                "Have the breaker replaced by one of {allowed} or less that the panel's label names. Is a motor alone on it, a well \
                 pump or a saw? A larger breaker may be right for that: ask an electrician. {FOR_QUALIFIED}"
            ),
        );
        if allowed.value() > 0.0 {
            finding.mended_by(format!("A {allowed} breaker is in its place"), vec![placed_anew(breaker, |b| b.amps = allowed)]);
        }
    }
}

/// Whether a plate says which wire and which breaker it wants: the point's own, or that of each load at it.
fn has_plate(checked: &Checked<'_>, point: &Point) -> bool {
    let says_both = |load: &Load| match load.draw {
        Draw::Plate(plate) => plate.minimum_ampacity.is_some() && plate.largest_breaker.is_some(),
        Draw::Library | Draw::NotKnown => false,
    };
    let mut loads = checked.home.loads().at(&point.id).peekable();
    point.plate.is_some() || (loads.peek().is_some() && loads.all(says_both))
}

/// Right at 75 °C and too large at 60 °C: the marks decide, and nobody has read them.
pub(super) fn read_the_marks<'f>(breaker: &Breaker, wire: Wire, allowed: Amps, found: &'f mut Found<'_>) -> &'f mut Finding {
    let finding = found.breaker(
        breaker,
        format!(
            "{} breaker on {}: right only where the wire and the terminals at both ends are marked 75 °C. Not marked, the wire is \
             good for a {allowed} breaker.",
            breaker.amps,
            wire.words()
        ),
        format!(
            "Most are marked today. Look at the cable's print and at the labels of panel and equipment, and enter what they say.{} \
             {FOR_QUALIFIED}",
            if found.home.edition().is_canadian() { "" } else { " NM cable is never good for more than its 60 °C column." }
        ),
    );
    finding.severity = Severity::Note;
    finding
}

#[cfg(test)]
mod tests {
    use crate::checks::{Severity, findings, said, said_when_mended};
    use crate::fixture::written;

    fn on(line: &str) -> Vec<String> {
        said("breaker-over-wire", &format!("panel 24\n{line} darkroom"))
    }

    #[test]
    fn fires_for_20_amps_on_14_and_stays_silent_on_12() {
        assert_eq!(on("12 20 #14"), ["12: 20 A breaker on 14 AWG copper. The wire is good for a 15 A breaker at most."]);
        assert!(on("12 20 #12").is_empty());
        assert!(on("12 20 #10").is_empty(), "a smaller breaker on a bigger wire is fine");
        assert!(on("12 20").is_empty(), "nobody has read the wire");
        assert_eq!(on("12 20 #12al").len(), 1);
        assert!(said_when_mended("breaker-over-wire", "panel 24\n12 20 #14 darkroom").is_empty());
    }

    /// NEC 110.14(C)(1), from memory: passes at 75 °C and fails at 60 °C is for the label to say.
    #[test]
    fn where_only_60_degrees_say_no_the_marks_are_asked_for() {
        let grave = |line: &str, wire: &str| -> Vec<Severity> {
            let home =
                written(&format!("panel 24\n{line} load\nset {} {{\"wire\": {{{wire}}}}}", line.split(' ').next().unwrap())).home;
            findings(&home).iter().filter(|f| f.code == "breaker-over-wire").map(|f| f.severity).collect()
        };
        let of = |gauge: &str, cable: &str, terminals: &str| {
            format!(r#""gauge": "{gauge}", "cable": "{cable}", "terminals": "{terminals}""#)
        };
        for (line, wire, expected) in [
            ("5-7 50/2", of("8", "not_read", "unread"), vec![Severity::Note]),
            ("5-7 50/2", of("8", "conduit", "unread"), vec![Severity::Note]),
            ("5-7 50/2", of("8", "conduit", "read_75c"), vec![]),
            ("5-7 50/2", of("8", "nm", "unread"), vec![Severity::Danger]),
            ("5-7 50/2", of("8", "nm", "read_75c"), vec![Severity::Danger]),
            ("5-7 50/2", of("8", "uf", "unread"), vec![Severity::Danger]),
            ("5-7 60/2", of("8", "conduit", "unread"), vec![Severity::Danger]),
            // Small wire has its rating whatever is marked.
            ("1 20", of("14", "conduit", "unread"), vec![Severity::Danger]),
            ("1 30", of("12", "conduit", "read_75c"), vec![Severity::Danger]),
            // Over 100 A the terminals are for 75 °C without reading.
            ("5-7 125/2", of("2", "not_read", "unread"), vec![]),
            ("5-7 100/2", of("3", "not_read", "unread"), vec![Severity::Note]),
            ("5-7 200/2", of("3/0", "se", "unread"), vec![]),
        ] {
            assert_eq!(grave(line, &wire), expected, "{line} on {wire}");
        }
    }

    #[test]
    fn a_plate_excuses_it_only_where_every_point_on_it_has_one() {
        let plate = r#", "plate": {"minimum_ampacity": 18, "maximum_breaker": 30}"#;
        let unit = |name: &str, kind: &str, plate: &str| {
            format!(
                r#"fact {{"kind": "point_placed", "point": "{name}", "room": "hall", "point_kind": "{kind}", "name": "{name}", "volts": 120{plate}}}"#
            )
        };
        let house = |points: &[(&str, &str, &str)]| {
            let mut acts = "panel 12\n1 30 #12 cooler\nroom Hall\n".to_owned();
            for (name, kind, plate) in points {
                acts += &format!("{}\nlit {name}\n", unit(name, kind, plate));
            }
            acts += "off 1\n";
            for (name, ..) in points {
                acts += &format!("dark {name}\ndark {name}\n");
            }
            said("breaker-over-wire", &acts).len()
        };
        assert_eq!(house(&[("cooler", "appliance", plate)]), 0);
        assert_eq!(house(&[("cooler", "appliance", plate), ("other", "appliance", plate)]), 0);
        assert_eq!(house(&[("cooler", "appliance", plate), ("plug", "receptacle", "")]), 1, "the receptacle's wire can burn");
        assert_eq!(house(&[("cooler", "appliance", plate), ("lamp", "light", "")]), 1);
        assert_eq!(house(&[("plug", "receptacle", "")]), 1);
    }
}
