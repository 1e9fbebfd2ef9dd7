//! Reads sizes as they are called out from a tape: `4.2 x 3.6`, `13'9" x 11'10"`, `4.2 x 3.6 less 1.2 x 0.8 top right`.

use crate::model::{Length, Outline, Spot, Units};

/// What is wrong with a typed text, and where.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Misread {
    /// As a sentence.
    pub wrong: String,
    /// The part that is meant.
    pub part: String,
}

impl Misread {
    pub(crate) fn new(part: &str, wrong: impl Into<String>) -> Self {
        Self { wrong: wrong.into(), part: part.trim().to_owned() }
    }
}

/// Which corner of a rectangle is missing.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Corner {
    TopLeft,
    TopRight,
    BottomLeft,
    BottomRight,
}

const LONGEST: f64 = 100_000.0;

/// One length. A bare number is in meters, or in feet where the home is measured so.
pub fn read_length(text: &str, units: Units) -> Result<Length, Misread> {
    let text = text.trim();
    let bad = |wrong: String| Err(Misread::new(text, wrong));
    let low = text.to_lowercase().replace(['′', '’'], "'").replace(['″', '”', '“'], "\"").replace("''", "\"").replace(',', ".");
    if low.is_empty() {
        return bad("A length is missing.".into());
    }
    if low.starts_with(['-', '−']) {
        return bad(format!("“{text}” is below zero."));
    }
    let low = low.replace("feet", "'").replace("foot", "'").replace("ft", "'").replace("inches", "\"").replace("inch", "\"");
    let low = if low.ends_with("in") { format!("{}\"", low.trim_end_matches("in")) } else { low };
    let number = |part: &str| inches_or_number(part).filter(|n| n.is_finite());
    let mm = if let Some((feet, inches)) = low.split_once('\'') {
        let inches = inches.trim().trim_end_matches('"').trim().trim_start_matches('-');
        let inches = if inches.is_empty() { Some(0.0) } else { number(inches) };
        match (number(feet), inches) {
            (Some(_), Some(inches)) if inches >= 12.0 => return bad(format!("“{text}” has 12 inches or more beside the feet.")),
            (Some(feet), Some(inches)) => (feet * 12.0 + inches) * 25.4,
            _ => return bad(format!("“{text}” is no length like 13'9\".")),
        }
    } else if let Some(inches) = low.strip_suffix('"') {
        match number(inches) {
            Some(inches) => inches * 25.4,
            None => return bad(format!("“{text}” is no length in inches.")),
        }
    } else {
        let (digits, scale) = [("mm", 1.0), ("cm", 10.0), ("m", 1000.0)]
            .into_iter()
            .find_map(|(suffix, scale)| low.strip_suffix(suffix).map(|digits| (digits, Some(scale))))
            .unwrap_or((low.as_str(), None));
        let Some(value) = number(digits) else {
            return bad(format!("“{text}” is no length. Write it like 4.2, 420 cm or 13'9\"."));
        };
        match (scale, units) {
            (Some(scale), _) => value * scale,
            (None, Units::Metric) if value > 60.0 => {
                return bad(format!("{text} meters is long for a room. If it is in centimeters, write {text} cm."));
            }
            (None, Units::Metric) => value * 1000.0,
            (None, Units::FeetInches) => value * 304.8,
        }
    };
    if mm < 1.0 {
        return bad(format!("“{text}” is no length above zero."));
    }
    if mm > LONGEST {
        return bad(format!("“{text}” is longer than 100 m."));
    }
    Ok(Length::mm(mm.round() as i32))
}

/// `9`, `9.5`, `9 1/2`, `9½`.
fn inches_or_number(text: &str) -> Option<f64> {
    let text = text.trim();
    for (sign, value) in [('½', 0.5), ('¼', 0.25), ('¾', 0.75)] {
        if let Some(whole) = text.strip_suffix(sign) {
            return if whole.trim().is_empty() { Some(value) } else { plain(whole.trim()).map(|n| n + value) };
        }
    }
    if let Some((whole, fraction)) = text.rsplit_once(' ')
        && let Some((over, under)) = fraction.split_once('/')
    {
        return Some(plain(whole.trim())? + plain(over)? / plain(under).filter(|n| *n > 0.0)?);
    }
    plain(text)
}

fn plain(text: &str) -> Option<f64> {
    let fits = !text.is_empty() && text.len() < 12 && text.bytes().all(|b| b.is_ascii_digit() || b == b'.');
    if fits { text.parse().ok() } else { None }
}

/// The outline that a typed size means, its upper left corner at 0, 0.
pub fn read_size(text: &str, units: Units) -> Result<Outline, Misread> {
    let (whole, less) = match find_word(text, &["less", "minus", "without"]) {
        Some((at, word)) => (&text[..at], Some(&text[at + word..])),
        None => (text, None),
    };
    let (width, depth) = pair(whole, units)?;
    let Some(less) = less else { return checked(Outline::rectangle(width, depth).corners().to_vec(), text) };
    let (sides, corner) = corner(less)?;
    if let (Some(_), None) = (unit_of(whole), unit_of(sides)) {
        return Err(Misread::new(less, "The room says its unit and the missing corner does not. Write it at both."));
    }
    let (w, d) = (width.millimeters(), depth.millimeters());
    let (cut_w, cut_d) = pair(sides, units)?;
    let (cw, cd) = (cut_w.millimeters(), cut_d.millimeters());
    if cw >= w || cd >= d {
        return Err(Misread::new(less, "The corner that is missing is as large as the room."));
    }
    let s = Spot::at;
    let corners = match corner {
        Corner::TopLeft => vec![s(cw, 0), s(w, 0), s(w, d), s(0, d), s(0, cd), s(cw, cd)],
        Corner::TopRight => vec![s(0, 0), s(w - cw, 0), s(w - cw, cd), s(w, cd), s(w, d), s(0, d)],
        Corner::BottomRight => vec![s(0, 0), s(w, 0), s(w, d - cd), s(w - cw, d - cd), s(w - cw, d), s(0, d)],
        Corner::BottomLeft => vec![s(0, 0), s(w, 0), s(w, d), s(cw, d), s(cw, d - cd), s(0, d - cd)],
    };
    checked(corners, text)
}

fn checked(corners: Vec<Spot>, text: &str) -> Result<Outline, Misread> {
    Outline::new(corners).map_err(|wrong| Misread::new(text, wrong))
}

fn find_word(text: &str, words: &[&str]) -> Option<(usize, usize)> {
    let low = text.to_ascii_lowercase();
    words.iter().find_map(|word| low.find(&format!(" {word} ")).map(|at| (at, word.len() + 2)))
}

/// The unit that a typed length names itself.
fn unit_of(text: &str) -> Option<&'static str> {
    let low = text.trim().to_lowercase();
    if low.contains(['\'', '′', '’']) || low.contains("ft") || low.contains("feet") || low.contains("foot") {
        return Some("ft");
    }
    if low.ends_with(['"', '″', '”']) || low.ends_with("in") || low.ends_with("inch") || low.ends_with("inches") {
        return Some("in");
    }
    ["mm", "cm", "m"].into_iter().find(|unit| low.ends_with(unit))
}

/// What stands on both sides of a cross: `x`, `×`, `*`, or the word `by`.
fn sides(text: &str) -> Vec<&str> {
    match text.to_ascii_lowercase().find(" by ") {
        Some(at) => vec![&text[..at], &text[at + 4..]],
        None => text.split(['x', 'X', '×', '*']).map(str::trim).collect(),
    }
}

/// Whether there is a cross between lengths.
pub(super) fn has_cross(text: &str) -> bool {
    sides(text).len() > 1
}

/// Two lengths with a cross between them. A unit behind the second is meant for both; anything else that is mixed is asked about.
fn pair(text: &str, units: Units) -> Result<(Length, Length), Misread> {
    let parts = sides(text);
    let [one, other] = parts.as_slice() else {
        let wrong = match parts.len() {
            1 => format!("“{}” is one length; a room has two, like 4.2 x 3.6.", text.trim()),
            _ => format!("“{}” has more than two lengths.", text.trim()),
        };
        return Err(Misread::new(text, wrong));
    };
    let feet = |unit: &str| ["ft", "in"].contains(&unit);
    let bare = if units == Units::FeetInches { "ft" } else { "m" };
    match (unit_of(one), unit_of(other)) {
        (None, Some(unit)) => Ok((read_length(&format!("{one} {unit}"), units)?, read_length(other, units)?)),
        (Some(unit), None) if unit != bare => Err(Misread::new(
            text,
            format!("“{one}” says its unit and “{other}” does not. Write it at both, like 13 ft x 12 ft."),
        )),
        (Some(one_unit), Some(other_unit)) if feet(one_unit) != feet(other_unit) => {
            Err(Misread::new(text, format!("“{one}” and “{other}” are in feet and in meters. Write both in the same.")))
        }
        _ => Ok((read_length(one, units)?, read_length(other, units)?)),
    }
}

fn corner(text: &str) -> Result<(&str, Corner), Misread> {
    let low = text.to_ascii_lowercase();
    for (words, corner) in [
        ("top left", Corner::TopLeft),
        ("top right", Corner::TopRight),
        ("bottom right", Corner::BottomRight),
        ("bottom left", Corner::BottomLeft),
        ("nw", Corner::TopLeft),
        ("ne", Corner::TopRight),
        ("se", Corner::BottomRight),
        ("sw", Corner::BottomLeft),
    ] {
        if let Some(at) = low.trim_end().strip_suffix(words) {
            return Ok((&text[..at.len()], corner));
        }
    }
    Ok((text, Corner::TopRight))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn lengths_as_people_write_them() {
        for (text, mm) in [
            ("4.2", 4200),
            ("4,2", 4200),
            ("420 cm", 4200),
            ("4200mm", 4200),
            ("4.2 m", 4200),
            // 25.4 mm to the inch by definition of the inch: 13 ft 9 in = 165 in.
            ("13'9\"", 4191),
            ("13' 9\"", 4191),
            ("13ft 9in", 4191),
            ("13′9″", 4191),
            ("13'", 3962),
            ("11'10\"", 3607),
            ("11'10 1/2\"", 3620),
            ("11'10½\"", 3620),
            ("30\"", 762),
        ] {
            assert_eq!(read_length(text, Units::Metric), Ok(Length::mm(mm)), "{text}");
        }
        assert_eq!(read_length("10", Units::FeetInches), Ok(Length::mm(3048)));
    }

    /// 304.8 mm to the foot and 25.4 mm to the inch, by definition of the inch.
    #[test]
    fn a_unit_behind_the_second_length_is_meant_for_both_and_what_is_mixed_is_asked() {
        for (text, width, depth) in [
            ("13 x 12 ft", 3962, 3658),
            ("12 feet by 11 feet", 3658, 3353),
            ("12 BY 11 feet", 3658, 3353),
            ("13 x 11'10\"", 3962, 3607),
            ("150 x 120 in", 3810, 3048),
            ("420 x 360 cm", 4200, 3600),
            ("4.2 m x 3.6 m", 4200, 3600),
            ("4.2 m x 3.6", 4200, 3600),
            ("4200 by 3600 mm", 4200, 3600),
        ] {
            let b = read_size(text, Units::Metric).unwrap_or_else(|misread| panic!("{text}: {misread:?}")).bounds();
            assert_eq!((b.width, b.height), (width, depth), "{text}");
        }
        for (text, says) in [
            ("13 ft x 3.6", "“13 ft” says its unit and “3.6” does not"),
            ("13' x 12", "Write it at both"),
            ("4200 mm x 3.6", "Write it at both"),
            ("13 ft x 3.6 m", "are in feet and in meters"),
            ("4.2 m x 11'10\"", "are in feet and in meters"),
            ("13 x 12 ft less 3 x 2", "the missing corner does not"),
        ] {
            let wrong = read_size(text, Units::Metric).unwrap_err().wrong;
            assert!(wrong.contains(says), "{text}: {wrong}");
        }
        let b = read_size("13' x 12", Units::FeetInches).unwrap().bounds();
        assert_eq!((b.width, b.height), (3962, 3658), "where the home is measured in feet, a bare number is one");
    }

    #[test]
    fn sizes_and_missing_corners() {
        let size = |text: &str| read_size(text, Units::Metric).unwrap();
        assert!((size("4.2 x 3.6").area_m2() - 15.12).abs() < 1e-9);
        assert!((size("13'9\" x 11'10\"").area_m2() - 4.191 * 3.607).abs() < 1e-9);
        for corner in ["top left", "top right", "bottom left", "bottom right", "ne", "sw"] {
            let l = size(&format!("4.2x3.6 less 1.2x0.8 {corner}"));
            assert!((l.area_m2() - 14.16).abs() < 1e-9, "{corner}");
            assert_eq!(l.inward_corners().count(), 1);
        }
        assert!(!size("4x3 less 1x1 top left").holds(Spot::at(500, 500)));
        assert!(!size("4x3 less 1x1").holds(Spot::at(3500, 500)), "top right where it is not said");
    }

    #[test]
    fn what_is_no_size_says_which_part_and_why() {
        for (text, part, says) in [
            ("4,2x-1", "-1", "below zero"),
            ("4.2", "4.2", "two"),
            ("4 x 3 x 2", "4 x 3 x 2", "more than two"),
            ("four x 3", "four", "no length"),
            ("420 x 360", "420", "420 cm"),
            ("4 x 0", "0", "above zero"),
            ("13'14\" x 2'", "13'14\"", "12 inches"),
            ("4 x 1e9", "1e9", "no length"),
            ("4 x 3 less 5 x 1", "5 x 1", "as large as the room"),
            ("0.1 x 0.1", "0.1 x 0.1", "0.2 m²"),
            ("", "", "one length"),
            ("4 x", "", "missing"),
        ] {
            let misread = read_size(text, Units::Metric).unwrap_err();
            assert!(misread.wrong.contains(says), "{text}: {misread:?}");
            assert_eq!(misread.part, part, "{text}");
        }
    }
}
