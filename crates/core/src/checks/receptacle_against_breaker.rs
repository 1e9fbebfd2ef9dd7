//! Rule receptacle-against-breaker: a receptacle's face fits its circuit's rating and voltage.
//!
//! Source: NEC 210.21(B) and NEMA WD 6, from memory; in Canada CEC 14-600 (?), from memory: the breaker is no larger than the face, so
//! a 15 A face does not belong on 20 A, and nothing is said of a larger face. A single receptacle, alone on its circuit, is rated for no less than the
//! circuit; one that is rated for more is a note. A duplex counts as two. A 120 V face on a two-pole may be right: half of a
//! shared-neutral circuit; that is asked. Example: a 5-20 face among others on a 15 A breaker; a TT-30, which is 120 V, on a
//! two-pole breaker. Only points that are proven on the breaker are judged.

use super::Found;
use super::{Checked, InCanada, Rule, Sections, Severity, Source};
use crate::model::{Breaker, Configuration, Outlets, Point, Volts, breakers_for, legs_of, volts_between};

pub(super) const RULE: Rule = Rule {
    code: "receptacle-against-breaker",
    severity: Severity::Fault,
    why: "The face tells what may be plugged in; a wrong one invites too much current or the wrong voltage.",
    source: Source::Code(Sections::nec("210.21(B) and NEMA WD 6", InCanada::Perhaps("14-600"))),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in checked.breakers() {
        let across = volts_between(panel.service, &legs_of(panel, &breaker.at));
        let own_neutral_shared = checked.home.panels().shared_neutral_of(&breaker.id).is_some_and(|group| group.len() == 1);
        for point in checked.points_on(&breaker.id) {
            let Some(face) = point.configuration else { continue };
            let (name, amps) = (&point.name, f64::from(face.amps()));
            let two_hots = face.volts() > Volts::new(120);
            // A duplex is two receptacles, however lonely; faces of 30 A and more are made as single ones.
            let single = point.only_one && (point.details.outlets == Outlets::Single || face.amps() >= 30);
            let canada = checked.home.edition().is_canadian();
            let fits = if canada {
                breaker.amps.value() <= amps
            } else {
                breakers_for(face, single).iter().any(|allowed| f64::from(*allowed) == breaker.amps.value())
            };
            let (severity, message, remedy) = if two_hots && across <= Volts::new(120) {
                let gives = format!("breaker {} gives {} V", breaker.number(), across.value());
                let message = format!("{name} has a {} face for two hots; {gives}.", face.name());
                (
                    Severity::Fault,
                    message,
                    "Read the face again, and have the circuit read with a meter by somebody qualified.".into(),
                )
            } else if !two_hots && breaker.poles() > 1 && !own_neutral_shared {
                on_two_poles(point, face, breaker)
            } else if fits {
                continue;
            } else if single && amps > breaker.amps.value() {
                (
                    Severity::Note,
                    format!("{name} has a {} face, which is larger than its {} breaker.", face.name(), breaker.amps),
                    format!(
                        "A single receptacle may be: what draws more than {} trips the breaker. A face of the breaker's rating would say so.",
                        breaker.amps
                    ),
                )
            } else {
                let allowed = if canada { &[face.amps()][..] } else { breakers_for(face, single) };
                let allowed = allowed.iter().map(|amps| format!("{amps} A")).collect::<Vec<_>>();
                (
                    Severity::Fault,
                    format!("{name} has a {} face on a {} breaker.", face.name(), breaker.amps),
                    format!(
                        "A {} goes on {}. Have the receptacle or the breaker changed to what the wire carries.",
                        face.name(),
                        super::and(&allowed)
                    ),
                )
            };
            let finding = found.breaker(breaker, message, remedy);
            finding.severity = severity;
            finding.key.push_str(&format!(":{}", point.id));
            finding.place.point = Some(point.id.clone());
        }
    }
}

/// A 120 V face on a breaker of two poles. Faces of 15 and 20 A may be fed from one pole of it and a shared neutral; a larger one
/// is not wired so.
fn on_two_poles(point: &Point, face: Configuration, breaker: &Breaker) -> (Severity, String, String) {
    let message =
        format!("{} has a {} face, which is 120 V, on a breaker of {} poles.", point.name, face.name(), breaker.poles());
    if face.amps() >= 30 {
        (
            Severity::Danger,
            format!("{message} If it is wired across them, what is plugged in is destroyed."),
            "Plug nothing in, leave it off, and have it read with a meter by somebody qualified.".into(),
        )
    } else {
        (
            Severity::Fault,
            format!(
                "{message} That is right where its poles share a neutral; wired across them, it destroys what is plugged in."
            ),
            "Plug nothing in before a meter has shown 120 V there. Is it one of a circuit with two hots and one neutral, or a \
             receptacle whose halves are on the two poles? Then say at the breaker that its poles share a neutral."
                .into(),
        )
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{Severity, findings};
    use crate::fixture::written;

    fn grave(line: &str, face: &str, volts: u16, more: &str) -> Vec<Severity> {
        let number = line.split(' ').next().unwrap();
        let point = format!(
            r#"fact {{"kind": "point_placed", "point": "wall", "room": "hall", "point_kind": "receptacle", "name": "Wall", "volts": {volts}, "configuration": "{face}"{more}}}"#
        );
        let home = written(&format!("panel 12\n{line} hall\nroom Hall\n{point}\nlit wall\noff {number}\ndark wall")).home;
        findings(&home).iter().filter(|f| f.code == "receptacle-against-breaker").map(|f| f.severity).collect()
    }

    const AMONG_OTHERS: &str = "";
    const ALONE: &str = r#", "only_one": true, "details": {"outlets": "single"}"#;
    const LONE_DUPLEX: &str = r#", "only_one": true, "details": {"outlets": "duplex"}"#;

    /// NEC 210.21(B)(1), (3) and its table, from memory.
    #[test]
    fn rating_by_rating() {
        use Severity::{Danger, Fault, Note};
        for (line, face, volts, more, expected) in [
            ("1 15", "5-15", 120, AMONG_OTHERS, None),
            ("1 20", "5-15", 120, AMONG_OTHERS, None),
            ("1 20", "5-15", 120, ALONE, Some(Fault)),
            ("1 20", "5-15", 120, LONE_DUPLEX, None),
            ("1 20", "5-20", 120, ALONE, None),
            ("1 15", "5-20", 120, AMONG_OTHERS, Some(Fault)),
            ("1 15", "5-20", 120, LONE_DUPLEX, Some(Fault)),
            ("1 15", "5-20", 120, ALONE, Some(Note)),
            ("1 30", "5-20", 120, AMONG_OTHERS, Some(Fault)),
            ("1 30", "5-20", 120, ALONE, Some(Fault)),
            ("1 30", "TT-30", 120, ALONE, None),
            ("1 20", "TT-30", 120, ALONE, Some(Note)),
            ("1-3 30/2", "TT-30", 120, ALONE, Some(Danger)),
            ("1-3 30/2", "L5-30", 120, AMONG_OTHERS, Some(Danger)),
            ("1-3 20/2", "5-15", 120, AMONG_OTHERS, Some(Fault)),
            ("1-3 20/2", "5-20", 120, LONE_DUPLEX, Some(Fault)),
            ("1-3 40/2", "14-50", 240, ALONE, None),
            ("1-3 50/2", "14-50", 240, ALONE, None),
            ("1-3 30/2", "14-50", 240, ALONE, Some(Note)),
            ("1-3 30/2", "14-50", 240, AMONG_OTHERS, Some(Fault)),
            ("1-3 50/2", "14-30", 240, ALONE, Some(Fault)),
            ("1-3 60/2", "14-60", 240, ALONE, None),
            ("1a-1b 30/2", "14-30", 240, ALONE, Some(Fault)),
        ] {
            assert_eq!(grave(line, face, volts, more), expected.into_iter().collect::<Vec<_>>(), "{face} on {line} {more}");
        }
    }

    /// CEC 14-600 (?), from memory.
    #[test]
    fn in_canada_the_breaker_is_no_larger_than_the_face() {
        let of = |line: &str, face: &str| {
            let point = format!("room Hall\npoint Hall receptacle wall\nwall is face {face}\nproof wall 1");
            let home = written(&format!("rules cec2021\npanel 12\n{line} hall\n{point}")).home;
            findings(&home).iter().filter(|f| f.code == "receptacle-against-breaker").map(|f| f.severity).collect::<Vec<_>>()
        };
        assert_eq!(of("1 20", "5-15"), [Severity::Fault]);
        assert!(of("1 15", "5-15").is_empty());
        assert!(of("1 20", "5-20").is_empty());
        assert!(of("1 15", "5-20").is_empty(), "what is allowed there is not known here");
    }

    #[test]
    fn half_of_a_shared_neutral_is_right_once_it_is_said() {
        let house = |more: &str| {
            let point = r#"fact {"kind": "point_placed", "point": "wall", "room": "hall", "point_kind": "receptacle", "name": "Wall", "volts": 120, "configuration": "5-15"}"#;
            let home = written(&format!("panel 12\n1-3 20/2 hall\n{more}room Hall\n{point}\nlit wall\noff 1-3\ndark wall")).home;
            findings(&home).iter().filter(|f| f.code == "receptacle-against-breaker").count()
        };
        assert_eq!((house(""), house("share 1-3\n")), (1, 0));
    }
}
