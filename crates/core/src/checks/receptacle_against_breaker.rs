//! Rule receptacle-against-breaker: a receptacle's face fits its circuit's rating and voltage.
//!
//! Source: NEC 210.21(B) and NEMA WD 6, from memory. Example: a 5-20 face on a 15 A breaker; a TT-30, which is
//! 120 V, on a two-pole breaker. Only points that are proven on the breaker are judged.

use super::Found;
use super::{Checked, Rule, Severity, Source};
use crate::model::{Volts, breakers_for, legs_of, volts_between};

pub(super) const RULE: Rule = Rule {
    code: "receptacle-against-breaker",
    severity: Severity::Fault,
    why: "The face tells what may be plugged in; a wrong one invites too much current or the wrong voltage.",
    source: Source::Nec("210.21(B) and NEMA WD 6"),
    check,
};

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    for (panel, breaker) in checked.breakers() {
        let across = volts_between(panel.service, &legs_of(panel, &breaker.at));
        let own_neutral_shared = checked.home.panels().shared_neutral_of(&breaker.id).is_some_and(|group| group.len() == 1);
        for point in checked.points_on(&breaker.id) {
            let Some(face) = point.configuration else { continue };
            let two_hots = face.volts() > Volts::new(120);
            let (severity, message) = if two_hots && across <= Volts::new(120) {
                (
                    Severity::Fault,
                    format!(
                        "{} has a {} face for two hots; breaker {} gives {} V.",
                        point.name,
                        face.name(),
                        breaker.number(),
                        across.value()
                    ),
                )
            } else if !two_hots && breaker.poles() > 1 && !own_neutral_shared {
                (
                    Severity::Danger,
                    format!(
                        "{} has a {} face, which is 120 V, on a breaker of {} poles. If it is wired across them, what is plugged in is destroyed.",
                        point.name,
                        face.name(),
                        breaker.poles()
                    ),
                )
            } else if !breakers_for(face, point.only_one).iter().any(|amps| f64::from(*amps) == breaker.amps.value()) {
                (Severity::Fault, format!("{} has a {} face on a {} breaker.", point.name, face.name(), breaker.amps))
            } else {
                continue;
            };
            let remedy = match severity {
                Severity::Danger => "Plug nothing in, leave it off, and have it read with a meter by somebody qualified.".into(),
                _ => format!(
                    "A {} goes on {}. Have the receptacle or the breaker changed to what the wire carries.",
                    face.name(),
                    super::and(&breakers_for(face, point.only_one).iter().map(|amps| format!("{amps} A")).collect::<Vec<_>>())
                ),
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

    fn faced(line: &str, face: &str, volts: u16, only_one: bool) -> usize {
        let number = line.split(' ').next().unwrap();
        let point = format!(
            r#"fact {{"kind": "point_placed", "point": "wall", "room": "hall", "point_kind": "receptacle", "name": "Wall", "volts": {volts}, "configuration": "{face}", "only_one": {only_one}}}"#
        );
        said(
            "receptacle-against-breaker",
            &format!("panel 12\n{line} hall\nroom Hall\n{point}\nlit wall\noff {number}\ndark wall"),
        )
        .len()
    }

    /// NEC 210.21(B)(1), (3) and its table, from memory.
    #[test]
    fn rating_by_rating() {
        for (line, face, volts, only_one, fires) in [
            ("1 15", "5-15", 120, false, 0),
            ("1 20", "5-15", 120, false, 0),
            ("1 20", "5-15", 120, true, 1),
            ("1 20", "5-20", 120, true, 0),
            ("1 15", "5-20", 120, false, 1),
            ("1 30", "5-20", 120, false, 1),
            ("1 30", "TT-30", 120, true, 0),
            ("1-3 30/2", "TT-30", 120, true, 1),
            ("1-3 30/2", "14-30", 240, true, 0),
            ("1-3 40/2", "14-50", 240, true, 0),
            ("1-3 50/2", "14-50", 240, true, 0),
            ("1-3 50/2", "14-30", 240, true, 1),
            ("1-3 60/2", "14-60", 240, true, 0),
            ("1a-1b 30/2", "14-30", 240, true, 1),
        ] {
            assert_eq!(faced(line, face, volts, only_one), fires, "{face} on {line}");
        }
    }
}
