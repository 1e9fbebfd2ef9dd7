//! What a meter tells of a point: lit, dark, neither, or that something is wrong with the supply.
//!
//! A meter of high impedance shows some volts on a wire that is cut off but lies beside a live one; a load takes them away.
//! The same reading may come from a shared neutral or a second feed, so nobody may take it for dead. From memory, common
//! practice; no source.

use super::{Seen, Volts};

/// Below this it is dark, in volts. Not yet proven dead.
const DARK_BELOW: f64 = 10.0;

/// From this many volts on it is lit: at 120 V 100; from hot to hot 180, as the lowest that 208 V comes down to at an outlet is
/// about 187 and one dead leg of 240 V leaves no more than 120 and what strays.
const fn lit_from(nominal: Volts) -> f64 {
    if nominal.value() > 120 { 180.0 } else { 100.0 }
}

/// More than this no service gives an outlet of 120 V even rarely: ANSI C84.1, from memory.
pub(crate) const RARELY: f64 = 127.0;

/// More than this has to be mended before anything else: a lost neutral lets one leg go high and the other low. ANSI C84.1
/// (from memory) has 127 and 254 V as the most that a service may rarely have; a meter may be two percent off.
const fn too_much(nominal: Volts) -> f64 {
    if nominal.value() > 120 { 260.0 } else { 130.0 }
}

/// With everything on, an outlet of 120 V may come down to this, in volts, and a service up to [`HIGH`]: ANSI C84.1 range A, from
/// memory, with the drop of the wires in the house.
pub(crate) const LOW: f64 = 108.0;
/// See [`LOW`].
pub(crate) const HIGH: f64 = 126.0;

/// Whether a reading from hot to hot is what the other kind of service has: about 208 V where it is entered as 240, or 240 where
/// it is entered as 208. ANSI C84.1 range A, from memory: 228 to 252 and 197 to 218 V.
pub(crate) fn is_of_another_service(volts: f64, between_legs: Volts) -> bool {
    let (of_208, of_240) = ((197.0..=218.0).contains(&volts), (228.0..=252.0).contains(&volts));
    if between_legs.value() == 208 { of_240 } else { of_208 }
}

/// What a reading says; `None`: neither lit nor dark.
pub(crate) fn shows(volts: f64, nominal: Volts) -> Option<Seen> {
    if volts < DARK_BELOW {
        Some(Seen::Dark)
    } else if volts >= lit_from(nominal) {
        Some(Seen::Lit)
    } else {
        None
    }
}

/// Whether so much has to be mended first.
pub(crate) fn is_too_much(volts: f64, nominal: Volts) -> bool {
    volts > too_much(nominal)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_reading_is_lit_dark_or_neither() {
        let (low, high) = (Volts::new(120), Volts::new(240));
        for (volts, nominal, seen) in [
            (0.0, low, Some(Seen::Dark)),
            (9.9, low, Some(Seen::Dark)),
            (10.0, low, None),
            (99.9, low, None),
            // ANSI C84.1, from memory: 104 V is the least that a 120 V outlet may rarely have.
            (104.0, low, Some(Seen::Lit)),
            (120.0, low, Some(Seen::Lit)),
            // One leg of two is dead.
            (120.0, high, None),
            (187.0, high, Some(Seen::Lit)),
            (240.0, high, Some(Seen::Lit)),
        ] {
            assert_eq!(shows(volts, nominal), seen, "{volts} V of {nominal:?}");
        }
    }

    #[test]
    fn what_a_service_may_have_is_not_too_much() {
        // ANSI C84.1 range B, from memory: 110 to 127 and 220 to 254 V.
        for (volts, nominal, too_much) in [(127.0, 120, false), (254.0, 240, false), (138.0, 120, true), (277.0, 240, true)] {
            assert_eq!(is_too_much(volts, Volts::new(nominal)), too_much, "{volts} V of {nominal}");
        }
    }
}
