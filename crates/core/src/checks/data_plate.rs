//! Rule data-plate: what has a plate goes by it: the wire carries at least the minimum circuit ampacity, the breaker is at most the
//! maximum.
//!
//! Source: NEC 440.4 and 440.22 for cooling units, 110.3(B) for the rest, from memory. The plate of a point and that of a load at it count
//! alike; where both tell the same, it is told once. Example: a plate of 12 A minimum and 20 A maximum on 10 AWG and
//! a 30 A breaker: the wire is fine, the breaker too large; 20 A is right.

use super::Found;
use super::{Checked, FOR_QUALIFIED, InCanada, Rule, Sections, Severity, Source, placed_anew};
use crate::model::{Amps, Breaker, Draw, PointId, ampacity};

pub(super) const RULE: Rule = Rule {
    code: "data-plate",
    severity: Severity::Fault,
    why: "Above the plate's maximum the unit is not protected; below its minimum the wire overheats.",
    source: Source::Code(Sections::nec("440.4 and 440.22", InCanada::Holds)),
    check,
};

/// A plate, at a point or of a load at it.
struct Plate {
    /// Told apart by this in the finding's key.
    id: String,
    name: String,
    point: PointId,
    minimum_ampacity: Option<Amps>,
    maximum_breaker: Option<Amps>,
}

fn plates(checked: &Checked<'_>, breaker: &Breaker) -> Vec<Plate> {
    let mut all = Vec::new();
    for point in checked.points_on(&breaker.id) {
        let told = point.plate.as_ref();
        all.extend(told.map(|plate| Plate {
            id: point.id.to_string(),
            name: point.name.clone(),
            point: point.id.clone(),
            minimum_ampacity: Some(plate.minimum_ampacity),
            maximum_breaker: Some(plate.maximum_breaker),
        }));
        for load in checked.home.loads().at(&point.id) {
            let Draw::Plate(plate) = load.draw else { continue };
            let unless_told =
                |amps: Option<f64>, at_point: Option<Amps>| amps.map(Amps::new).filter(|amps| at_point != Some(*amps));
            all.push(Plate {
                id: load.id.to_string(),
                name: format!("The {}", load.name),
                point: point.id.clone(),
                minimum_ampacity: unless_told(plate.minimum_ampacity, told.map(|plate| plate.minimum_ampacity)),
                maximum_breaker: unless_told(plate.largest_breaker, told.map(|plate| plate.maximum_breaker)),
            });
        }
    }
    all
}

fn check(checked: &Checked<'_>, found: &mut Found<'_>) {
    let carries = |wire| ampacity(wire, checked.home.edition());
    for (_, breaker) in checked.breakers() {
        for plate in plates(checked, breaker) {
            let short = breaker.wire.zip(plate.minimum_ampacity).filter(|(wire, minimum)| carries(*wire) < *minimum);
            if let Some((wire, minimum)) = short {
                let message =
                    format!("{} asks for a wire of {minimum} at least; {} carries {}.", plate.name, wire.words(), carries(wire));
                let remedy = format!("Leave it off, and have the circuit rewired. {FOR_QUALIFIED}");
                let finding = found.breaker(breaker, message, remedy);
                finding.severity = Severity::Danger;
                finding.key.push_str(&format!(":wire:{}", plate.id));
                finding.place.point = Some(plate.point.clone());
            }
            if let Some(most) = plate.maximum_breaker.filter(|most| breaker.amps > *most) {
                let finding = found.breaker(
                    breaker,
                    format!("{} allows a breaker of {most} at most; this one has {}.", plate.name, breaker.amps),
                    format!("Have a breaker of {most} put in that the panel's label names. {FOR_QUALIFIED}"),
                );
                finding.key.push_str(&format!(":breaker:{}", plate.id));
                finding.place.point = Some(plate.point.clone());
                let smaller = vec![placed_anew(breaker, |b| b.amps = most)];
                finding.mended_by(format!("A {most} breaker is in its place"), smaller);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::{said, said_when_mended};

    fn unit(line: &str, plate: &str) -> String {
        let point = format!(
            r#"fact {{"kind": "point_placed", "point": "cooler", "room": "hall", "point_kind": "appliance", "name": "Cooler", "volts": 240{plate}}}"#
        );
        format!("panel 12\n{line} cooler\nroom Hall\n{point}\nlit cooler\noff 1-3\ndark cooler")
    }
    const PLATE: &str = r#", "plate": {"minimum_ampacity": 12, "maximum_breaker": 20}"#;

    /// Common practice: 12 A minimum and 20 A maximum on 10 AWG and 30 A: wire fine, breaker too large; 12 AWG would do.
    #[test]
    fn a_breaker_above_the_plate_fires_and_a_wire_that_does_is_silent() {
        let said_of = |line: &str| said("data-plate", &unit(line, PLATE));
        assert_eq!(said_of("1-3 30/2 #10"), ["1-3: Cooler allows a breaker of 20 A at most; this one has 30 A."]);
        assert!(said_of("1-3 20/2 #10").is_empty());
        assert!(said_of("1-3 20/2 #12").is_empty());
        assert!(said("data-plate", &unit("1-3 30/2 #10", "")).is_empty(), "no plate was read");
        assert!(said_when_mended("data-plate", &unit("1-3 30/2 #10", PLATE)).is_empty());
    }

    #[test]
    fn the_plate_goes_before_the_table_and_a_wire_below_its_minimum_is_a_danger() {
        let plate = r#", "plate": {"minimum_ampacity": 18, "maximum_breaker": 30}"#;
        assert!(said("breaker-over-wire", &unit("1-3 30/2 #12", plate)).is_empty(), "the plate allows 30 A on 12 AWG");
        assert!(said("data-plate", &unit("1-3 30/2 #12", plate)).is_empty());
        let thin = said("data-plate", &unit("1-3 30/2 #14", plate));
        assert_eq!(thin, ["1-3: Cooler asks for a wire of 18 A at least; 14 AWG copper carries 15 A."]);
    }
}
