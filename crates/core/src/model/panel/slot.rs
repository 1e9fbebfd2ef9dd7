//! A slot: one space of the panel, or one half of it (tandem).

use std::{fmt, str::FromStr};

/// Which half of a space a tandem handle takes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Half {
    /// The upper half, written `a`.
    Upper,
    /// The lower half, written `b`.
    Lower,
}

/// A space number as on the metal, or half of that space: `5`, `14a`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize)]
#[serde(try_from = "String", into = "String")]
pub struct Slot {
    /// The space number, from 1.
    pub space: u8,
    /// Half of it, or the whole.
    pub half: Option<Half>,
}

impl Slot {
    /// A whole space.
    pub const fn whole(space: u8) -> Self {
        Self { space, half: None }
    }

    /// Whether the two take the same metal.
    pub fn overlaps(self, other: Self) -> bool {
        self.space == other.space && (self.half.is_none() || other.half.is_none() || self.half == other.half)
    }
}

impl utoipa::PartialSchema for Slot {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        <String as utoipa::PartialSchema>::schema()
    }
}

impl utoipa::ToSchema for Slot {}

impl fmt::Display for Slot {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let half = match self.half {
            None => "",
            Some(Half::Upper) => "a",
            Some(Half::Lower) => "b",
        };
        write!(f, "{}{half}", self.space)
    }
}

impl FromStr for Slot {
    type Err = String;

    fn from_str(text: &str) -> Result<Self, String> {
        let (digits, half) = match text.as_bytes().last() {
            Some(b'a' | b'A') => (&text[..text.len() - 1], Some(Half::Upper)),
            Some(b'b' | b'B') => (&text[..text.len() - 1], Some(Half::Lower)),
            _ => (text, None),
        };
        match digits.parse::<u8>() {
            Ok(space) if space > 0 && digits.bytes().all(|b| b.is_ascii_digit()) => Ok(Self { space, half }),
            _ => Err(format!("“{text}” is no space number; one is written 5, or 14a for half of a space")),
        }
    }
}

impl TryFrom<String> for Slot {
    type Error = String;
    fn try_from(text: String) -> Result<Self, String> {
        text.parse()
    }
}

impl From<Slot> for String {
    fn from(slot: Slot) -> Self {
        slot.to_string()
    }
}

/// The number of a breaker as it is said at the panel: `5-7`, `14a`.
pub fn number_of(slots: &[Slot]) -> String {
    slots.iter().map(Slot::to_string).collect::<Vec<_>>().join("-")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn slots_read_back_as_written() {
        for text in ["1", "84", "14a", "14b"] {
            assert_eq!(text.parse::<Slot>().unwrap().to_string(), text);
        }
        for bad in ["", "0", "a", "5c", "-1", "+1", "999", "1.5"] {
            assert!(bad.parse::<Slot>().is_err(), "{bad}");
        }
    }

    #[test]
    fn halves_of_one_space_do_not_overlap_but_each_overlaps_the_whole() {
        let [a, b, whole] = ["14a", "14b", "14"].map(|t| t.parse::<Slot>().unwrap());
        assert!(!a.overlaps(b) && a.overlaps(whole) && whole.overlaps(b) && a.overlaps(a));
    }
}
