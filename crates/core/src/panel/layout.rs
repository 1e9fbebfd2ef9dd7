//! Where a space sits in the panel and which leg feeds it.
//!
//! In most two-column panels a *row* is a leg and legs alternate down the rows (common practice).
//! Some small or side-mounted interiors do not alternate: this is the default, never a reading.

use super::{Breaker, Slot};
use crate::{Amps, PanelId, Volts};

/// How the spaces are numbered on the metal.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Numbering {
    /// Odd numbers down the left, even down the right.
    OddEven,
    /// Straight down the left, then straight down the right.
    StraightDown,
}

/// One or two columns of breakers.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Columns {
    /// A single column.
    One,
    /// Two columns, left and right of the bus.
    Two,
}

/// What comes in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Service {
    /// Split-phase 120/240 V: legs A and B.
    SplitPhase,
    /// Two legs of a 208Y/120 V service: legs A and B, 208 V between.
    #[serde(rename = "two_legs_208")]
    TwoLegs208,
    /// Three-phase 208Y/120 V: legs A, B and C.
    ThreePhase,
}

/// A hot leg.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[allow(missing_docs)]
pub enum Leg {
    A,
    B,
    C,
}

/// A column of the panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Side {
    Left,
    Right,
}

/// The size of the door card in millimetres.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CardSize {
    /// Width in mm, 50 to 400.
    pub width_mm: f64,
    /// Height in mm, 50 to 600.
    pub height_mm: f64,
}

/// A panel as described.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Panel {
    /// Its id.
    pub id: PanelId,
    /// What it is called: `Main panel`.
    pub name: String,
    /// Where it hangs: `back hall`.
    pub place: String,
    /// Number of spaces, 2 to 84.
    pub spaces: u8,
    /// One or two columns.
    pub columns: Columns,
    /// How the spaces are numbered.
    pub numbering: Numbering,
    /// What comes in.
    pub service: Service,
    /// Rating of the main breaker, where there is one and it was read.
    pub main: Option<Amps>,
    /// The door card.
    pub card: CardSize,
}

impl Panel {
    /// Number of rows, counted down a column.
    pub fn rows(&self) -> u8 {
        match self.columns {
            Columns::One => self.spaces,
            Columns::Two => self.spaces.div_ceil(2),
        }
    }

    /// The space at a side and row (from 0), if there is one.
    pub fn space_at(&self, side: Side, row: u8) -> Option<u8> {
        if row >= self.rows() {
            return None;
        }
        let space = match (self.columns, self.numbering, side) {
            (Columns::One, _, Side::Left) => row + 1,
            (Columns::One, _, Side::Right) => return None,
            (Columns::Two, Numbering::OddEven, Side::Left) => 2 * row + 1,
            (Columns::Two, Numbering::OddEven, Side::Right) => 2 * row + 2,
            (Columns::Two, Numbering::StraightDown, Side::Left) => row + 1,
            (Columns::Two, Numbering::StraightDown, Side::Right) => self.rows() + row + 1,
        };
        (space <= self.spaces).then_some(space)
    }

    /// The leg of a row (from 0), by the formula.
    pub fn leg_of_row(&self, row: u8) -> Leg {
        match self.service {
            Service::SplitPhase | Service::TwoLegs208 => [Leg::A, Leg::B][usize::from(row % 2)],
            Service::ThreePhase => [Leg::A, Leg::B, Leg::C][usize::from(row % 3)],
        }
    }
}

/// Side and row (from 0) of a space; `None` when the panel has no such space.
pub fn position(panel: &Panel, space: u8) -> Option<(Side, u8)> {
    if space == 0 || space > panel.spaces {
        return None;
    }
    Some(match (panel.columns, panel.numbering) {
        (Columns::One, _) => (Side::Left, space - 1),
        (Columns::Two, Numbering::OddEven) => (if space % 2 == 1 { Side::Left } else { Side::Right }, (space - 1) / 2),
        (Columns::Two, Numbering::StraightDown) if space <= panel.rows() => (Side::Left, space - 1),
        (Columns::Two, Numbering::StraightDown) => (Side::Right, space - 1 - panel.rows()),
    })
}

/// The leg of each pole, in the order of the slots.
pub fn legs_of(panel: &Panel, at: &[Slot]) -> Vec<Leg> {
    at.iter().filter_map(|slot| position(panel, slot.space)).map(|(_, row)| panel.leg_of_row(row)).collect()
}

/// Volts between the poles of a breaker with these legs; one pole: to neutral.
pub fn volts_between(service: Service, legs: &[Leg]) -> Volts {
    match legs {
        [_] => Volts::new(120),
        [first, rest @ ..] if rest.iter().all(|leg| leg == first) => Volts::new(0),
        _ => Volts::new(if service == Service::SplitPhase { 240 } else { 208 }),
    }
}

/// Where to put the hand: `left column, 6th down`; for a half, `right column, 7th down, upper half`.
pub fn place_in_words(panel: &Panel, breaker: &Breaker) -> String {
    let Some((side, row)) = breaker.at.first().and_then(|slot| position(panel, slot.space)) else {
        return String::new();
    };
    let column = match (panel.columns, side) {
        (Columns::One, _) => "",
        (Columns::Two, Side::Left) => "left column, ",
        (Columns::Two, Side::Right) => "right column, ",
    };
    let nth = |row: u8| match (row % 10, row % 100) {
        (1, n) if n != 11 => format!("{row}st"),
        (2, n) if n != 12 => format!("{row}nd"),
        (3, n) if n != 13 => format!("{row}rd"),
        _ => format!("{row}th"),
    };
    let down = match breaker.at.len() {
        1 => format!("{} down", nth(row + 1)),
        n => format!("{} to {} down", nth(row + 1), nth(row + n as u8)),
    };
    let half = match breaker.at[0].half {
        None => "",
        Some(super::Half::Upper) => ", upper half",
        Some(super::Half::Lower) => ", lower half",
    };
    format!("{column}{down}{half}")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::logbook::fixture::written;

    #[test]
    fn every_space_has_one_place_and_every_place_its_space() {
        for (text, rows) in [
            ("panel 2", 1),
            ("panel 12", 6),
            ("panel 24", 12),
            ("panel 25", 13),
            ("panel 42", 21),
            ("panel 84", 42),
            ("panel 25 straight", 13),
            ("panel 84 straight", 42),
            ("panel 12 one-column", 12),
        ] {
            let home = written(text).home;
            let panel = home.panel().unwrap();
            assert_eq!(panel.rows(), rows, "{text}");
            for space in 1..=panel.spaces {
                let (side, row) = position(panel, space).unwrap();
                assert_eq!(panel.space_at(side, row), Some(space), "{text}: space {space}");
            }
            let places = [Side::Left, Side::Right]
                .into_iter()
                .flat_map(|side| (0..panel.rows() + 3).filter_map(move |row| panel.space_at(side, row)))
                .count();
            assert_eq!(places, usize::from(panel.spaces), "{text}: a place without a space");
            assert_eq!(position(panel, 0), None);
            assert_eq!(position(panel, panel.spaces + 1), None);
        }
    }

    #[test]
    fn a_place_is_said_so_that_a_hand_finds_it() {
        let home = written("panel 42\n1 20 a\n2-4 30 b\n5 15 c\n14b 15 d\n21 15 e\n23 15 f\n42 15 g").home;
        let panel = home.panel().unwrap();
        let said: Vec<_> = home.breakers().map(|b| place_in_words(panel, b)).collect();
        assert_eq!(
            said,
            [
                "left column, 1st down",
                "right column, 1st to 2nd down",
                "left column, 3rd down",
                "right column, 7th down, lower half",
                "left column, 11th down",
                "left column, 12th down",
                "right column, 21st down",
            ]
        );
        let one = written("panel 12 one-column\n3 15 a").home;
        assert_eq!(place_in_words(one.panel().unwrap(), one.breakers().next().unwrap()), "3rd down");
    }
}
