//! Reads what somebody typed from a data plate.

use crate::model::{LoadPlate, Refusal, RefusalCode};

/// `1450 W`, `12A/240`, `240 V 4.5 kW`, `MCA 18 max 30 A`: a bare number after volts, amperes and watts is none of them and is asked
/// about. A bare number beside an ampere figure is its volts where it can be.
pub fn read_plate(text: &str) -> Result<LoadPlate, Refusal> {
    let refuse = |wrong: String| {
        let accepted = "Write it with its units, like 1450 W, 12 A 120 V, or minimum 18 A, maximum 30 A.";
        Err(Refusal::new(RefusalCode::BadText, "plate", wrong, accepted))
    };
    let mut plate = LoadPlate::default();
    let mut bare = Vec::new();
    let mut next = None;
    for token in tokens(text) {
        match token {
            Token::Number(value, unit) => {
                let slot = match (next.take(), unit.as_str()) {
                    (Some(Next::Minimum), "" | "a" | "amp" | "amps") => &mut plate.minimum_ampacity,
                    (Some(Next::Maximum), "" | "a" | "amp" | "amps") => &mut plate.largest_breaker,
                    (_, "v" | "volt" | "volts" | "vac") => &mut plate.volts,
                    (_, "a" | "amp" | "amps") => &mut plate.amps,
                    (_, "w" | "watt" | "watts" | "va") => &mut plate.watts,
                    (_, "kw" | "kva") => {
                        if plate.watts.replace(value * 1000.0).is_some() {
                            return refuse("Two figures are watts.".into());
                        }
                        continue;
                    }
                    (_, "hz" | "ph" | "phase") => continue,
                    (_, "") => {
                        bare.push(value);
                        continue;
                    }
                    (_, unit) => return refuse(format!("“{unit}” is no unit of a data plate.")),
                };
                if slot.replace(value).is_some() {
                    return refuse("Two figures have the same unit.".into());
                }
            }
            Token::Word(word) => match word.as_str() {
                "mca" | "min" | "minimum" => next = Some(Next::Minimum),
                "mop" | "mocp" | "max" | "maximum" => next = Some(Next::Maximum),
                "circuit" | "ampacity" | "fuse" | "breaker" | "or" | "and" | "hacr" | "rla" | "fla" => {}
                _ => return refuse(format!("“{word}” is not understood.")),
            },
        }
    }
    match bare.as_slice() {
        [] => {}
        [volts]
            if plate.volts.is_none() && (100.0..=260.0).contains(volts) && (plate.amps.is_some() || plate.watts.is_some()) =>
        {
            plate.volts = Some(*volts);
        }
        [value, ..] => return refuse(format!("{value} has no unit.")),
    }
    if plate.amps.is_none() && plate.watts.is_none() && plate.minimum_ampacity.is_none() {
        return refuse("There are neither amperes nor watts.".into());
    }
    if plate.volts == Some(0.0) {
        return refuse("0 V cannot be right for a data plate.".into());
    }
    Ok(plate)
}

enum Next {
    Minimum,
    Maximum,
}

enum Token {
    /// A number with the letters behind it, in small letters.
    Number(f64, String),
    Word(String),
}

fn tokens(text: &str) -> Vec<Token> {
    let mut all = Vec::new();
    let mut chars = text.chars().peekable();
    while let Some(next) = chars.peek().copied() {
        if next.is_ascii_digit() {
            let mut number = String::new();
            while let Some(c) = chars.next_if(|c| c.is_ascii_digit() || *c == '.') {
                number.push(c);
            }
            while chars.next_if(|c| *c == ' ').is_some() {}
            let mut unit = String::new();
            let mut ahead = chars.clone();
            while let Some(c) = ahead.next_if(char::is_ascii_alphabetic) {
                unit.push(c.to_ascii_lowercase());
            }
            // `18 max 30`: a word, not a unit.
            if !matches!(unit.as_str(), "mca" | "min" | "minimum" | "mop" | "mocp" | "max" | "maximum" | "or" | "and") {
                chars = ahead;
            } else {
                unit.clear();
            }
            match number.trim_end_matches('.').parse() {
                Ok(value) => all.push(Token::Number(value, unit)),
                Err(_) => all.push(Token::Word(number)),
            }
        } else if next.is_alphabetic() {
            let mut word = String::new();
            while let Some(c) = chars.next_if(|c| c.is_alphabetic()) {
                word.extend(c.to_lowercase());
            }
            all.push(Token::Word(word));
        } else {
            chars.next();
        }
    }
    all
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn plates_as_they_are_typed() {
        let read = |text: &str| {
            let plate = read_plate(text).unwrap();
            (plate.volts, plate.amps, plate.watts, plate.minimum_ampacity, plate.largest_breaker)
        };
        assert_eq!(read("1450 W"), (None, None, Some(1450.0), None, None));
        assert_eq!(read("12A/240"), (Some(240.0), Some(12.0), None, None, None));
        assert_eq!(read("240V 4.5 kW 60 Hz"), (Some(240.0), None, Some(4500.0), None, None));
        assert_eq!(read("MCA 18.2 MOP 30"), (None, None, None, Some(18.2), Some(30.0)));
        assert_eq!(read("240 v, min circuit ampacity 18 A, max fuse 30 A"), (Some(240.0), None, None, Some(18.0), Some(30.0)));
        assert_eq!(read("120 VAC 7,5A".replace(',', ".").as_str()), (Some(120.0), Some(7.5), None, None, None));
    }

    #[test]
    fn what_is_no_plate_is_said() {
        let wrong = |text: &str| read_plate(text).unwrap_err().wrong;
        assert_eq!(wrong("1450"), "1450 has no unit.");
        assert_eq!(wrong("12 A 0 V"), "0 V cannot be right for a data plate.");
        assert_eq!(wrong("12 A 5 A"), "Two figures have the same unit.");
        assert_eq!(wrong("12 horses"), "“horses” is no unit of a data plate.");
        assert_eq!(wrong("240 V"), "There are neither amperes nor watts.");
        assert_eq!(wrong(""), "There are neither amperes nor watts.");
    }
}
