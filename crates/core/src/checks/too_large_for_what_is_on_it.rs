//! Rule too-large-for-what-is-on-it: lights and ordinary receptacles are made for circuits of 15 and 20 A.
//!
//! Source: NEC 210.21(A) and 210.23, from memory: lampholders on circuits over 20 A are of the heavy-duty type, and those
//! circuits serve fixed lighting only outside dwellings; a receptacle on 30 A or more has a face of its own. Where the face was not
//! read, it is a note to read it. Only points that are proven on the breaker are judged. Example: a porch light proven on a 30 A
//! breaker.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source};
use crate::model::{PointKind, Volts};

pub(super) const RULE: Rule = Rule {
    code: "too-large-for-what-is-on-it",
    severity: Severity::Fault,
    why: "Lampholders, cords and their wires can overheat before a breaker of that size trips.",
    source: Source::Code(Sections::nec("210.21(A) and 210.23", InCanada::Perhaps("30-104 and 14-600"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let large = |(_, breaker): &(_, &crate::model::Breaker)| breaker.amps.value() > 20.0 && !checked.is_feeder(breaker);
    for (_, breaker) in checked.breakers().filter(large) {
        for point in checked.points_on(&breaker.id).filter(|point| point.volts == Volts::new(120)) {
            let (severity, message, remedy) = match point.kind {
                PointKind::Light => (
                    Severity::Fault,
                    format!("{}, a light, is proven on a {} breaker.", point.name, breaker.amps),
                    format!(
                        "Have the light moved to a lighting circuit, or the breaker changed to what wire and light allow. {FOR_QUALIFIED}"
                    ),
                ),
                PointKind::Receptacle if point.configuration.is_none() => (
                    Severity::Note,
                    format!("{}, a receptacle whose face was not read, is proven on a {} breaker.", point.name, breaker.amps),
                    "Read its face and enter it: an ordinary 15 or 20 A one does not belong on this breaker.".into(),
                ),
                _ => continue,
            };
            let finding = found.breaker(breaker, message, remedy);
            finding.severity = severity;
            finding.key.push_str(&format!(":{}", point.id));
            finding.place.point = Some(point.id.clone());
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::said;

    fn proven(line: &str, kind: &str, face: &str) -> Vec<String> {
        let number = line.split(' ').next().unwrap();
        let point = format!(
            r#"fact {{"kind": "point_placed", "point": "it", "room": "hall", "point_kind": "{kind}", "name": "It", "volts": 120{face}}}"#
        );
        said(
            "too-large-for-what-is-on-it",
            &format!("panel 12\n{line} load\nroom Hall\n{point}\nlit it\noff {number}\ndark it\ndark it"),
        )
    }

    #[test]
    fn fires_for_lights_and_unread_faces_above_20_amps() {
        assert_eq!(proven("1 30", "light", ""), ["1: It, a light, is proven on a 30 A breaker."]);
        assert_eq!(
            proven("1 30", "receptacle", ""),
            ["1: It, a receptacle whose face was not read, is proven on a 30 A breaker."]
        );
        assert_eq!(proven("1 25", "light", "").len(), 1);
        assert!(proven("1 20", "light", "").is_empty());
        assert!(proven("1 15", "receptacle", "").is_empty());
        assert!(
            proven("1 30", "receptacle", r#", "configuration": "TT-30", "only_one": true"#).is_empty(),
            "its face says enough"
        );
        assert!(proven("1 30", "appliance", "").is_empty());
    }
}
