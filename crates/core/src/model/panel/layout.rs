//! Where a space sits in the panel and which leg feeds it.
//!
//! In most two-column panels a *row* is a leg and legs alternate down the rows (common practice).
//! Some small or side-mounted interiors do not alternate: this is the default, never a reading.

use super::{Breaker, Half, PanelDetails, Slot};
use crate::model::{Amps, PanelId, Volts};

/// How the spaces are numbered on the metal.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Numbering {
    /// Odd numbers down the left, even down the right.
    OddEven,
    /// Straight down the left, then straight down the right.
    StraightDown,
    /// Any other way: the numbers of each column from the top, 0 where the metal has no space.
    AsEngraved {
        /// The left (or only) column.
        left: Vec<u8>,
        /// The right column; empty where there is one column.
        right: Vec<u8>,
    },
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
    /// Three-phase 120/240 V with a high leg: B is 208 V to neutral. Recorded and traced; work on it is an
    /// electrician's.
    HighLeg,
    /// 120 V only: one leg.
    #[serde(rename = "one_leg_120")]
    OneLeg120,
}

impl Service {
    /// Its legs, in the order of the rows.
    pub const fn legs(self) -> &'static [Leg] {
        match self {
            Self::SplitPhase | Self::TwoLegs208 => &[Leg::A, Leg::B],
            Self::ThreePhase | Self::HighLeg => &[Leg::A, Leg::B, Leg::C],
            Self::OneLeg120 => &[Leg::A],
        }
    }

    /// Volts between two different legs.
    pub const fn volts_between_legs(self) -> Volts {
        Volts::new(match self {
            Self::SplitPhase | Self::HighLeg => 240,
            Self::TwoLegs208 | Self::ThreePhase => 208,
            Self::OneLeg120 => 0,
        })
    }
}

/// A hot leg.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[allow(missing_docs)]
pub enum Leg {
    A,
    B,
    C,
}

impl Leg {
    /// `A`.
    pub const fn letter(self) -> &'static str {
        match self {
            Self::A => "A",
            Self::B => "B",
            Self::C => "C",
        }
    }
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
    /// What else is known of it.
    pub details: PanelDetails,
    /// What stands before its numbers elsewhere: `G`; empty for the first panel.
    pub tag: String,
    /// Rows whose leg was read with a meter, against the formula.
    pub legs_read: Vec<PostRow>,
}

/// A row of the panel with its leg.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct PostRow {
    /// From 0, top to bottom.
    pub row: u8,
    /// The leg that feeds it.
    pub leg: Leg,
}

impl Panel {
    /// Number of rows, counted down a column.
    pub fn rows(&self) -> u8 {
        match (&self.numbering, self.columns) {
            (Numbering::AsEngraved { left, right }, _) => left.len().max(right.len()) as u8,
            (_, Columns::One) => self.spaces,
            (_, Columns::Two) => self.spaces.div_ceil(2),
        }
    }

    /// Every space number, left column from the top, then the right.
    pub fn every_space(&self) -> Vec<u8> {
        let column = |side| (0..self.rows()).filter_map(move |row| self.space_at(side, row));
        column(Side::Left).chain(column(Side::Right)).collect()
    }

    /// The space at a side and row (from 0), if there is one.
    pub fn space_at(&self, side: Side, row: u8) -> Option<u8> {
        if row >= self.rows() {
            return None;
        }
        let space = match (self.columns, &self.numbering, side) {
            (_, Numbering::AsEngraved { left, right }, side) => {
                let column = if side == Side::Left { left } else { right };
                return column.get(usize::from(row)).copied().filter(|space| *space > 0);
            }
            (Columns::One, _, Side::Left) => row + 1,
            (Columns::One, _, Side::Right) => return None,
            (Columns::Two, Numbering::OddEven, Side::Left) => 2 * row + 1,
            (Columns::Two, Numbering::OddEven, Side::Right) => 2 * row + 2,
            (Columns::Two, Numbering::StraightDown, Side::Left) => row + 1,
            (Columns::Two, Numbering::StraightDown, Side::Right) => self.rows() + row + 1,
        };
        (space <= self.spaces).then_some(space)
    }

    /// The leg of a row (from 0): as read, else by the formula.
    pub fn leg_of_row(&self, row: u8) -> Leg {
        self.legs_read.iter().find(|read| read.row == row).map_or_else(|| self.leg_by_formula(row), |read| read.leg)
    }

    /// The leg of a row (from 0), by the formula.
    pub fn leg_by_formula(&self, row: u8) -> Leg {
        let legs = self.service.legs();
        legs[usize::from(row) % legs.len()]
    }
}

/// Side and row (from 0) of a space; `None` when the panel has no such space.
pub fn position(panel: &Panel, space: u8) -> Option<(Side, u8)> {
    if space == 0 {
        return None;
    }
    if let Numbering::AsEngraved { left, right } = &panel.numbering {
        let find = |column: &[u8]| column.iter().position(|s| *s == space).map(|row| row as u8);
        return find(left).map(|row| (Side::Left, row)).or_else(|| find(right).map(|row| (Side::Right, row)));
    }
    if space > panel.spaces {
        return None;
    }
    Some(match (panel.columns, &panel.numbering) {
        (Columns::One, _) => (Side::Left, space - 1),
        (Columns::Two, Numbering::StraightDown) if space <= panel.rows() => (Side::Left, space - 1),
        (Columns::Two, Numbering::StraightDown) => (Side::Right, space - 1 - panel.rows()),
        (Columns::Two, _) => (if space % 2 == 1 { Side::Left } else { Side::Right }, (space - 1) / 2),
    })
}

/// The leg of each pole, in the order of the slots.
pub fn legs_of(panel: &Panel, at: &[Slot]) -> Vec<Leg> {
    at.iter().filter_map(|slot| position(panel, slot.space)).map(|(_, row)| panel.leg_of_row(row)).collect()
}

/// Volts between the poles of a breaker with these legs, 0 where two of them are on one leg; one pole: to
/// neutral.
pub fn volts_between(service: Service, legs: &[Leg]) -> Volts {
    match legs {
        [Leg::B] if service == Service::HighLeg => Volts::new(208),
        [_] => Volts::new(120),
        legs if legs.iter().enumerate().any(|(n, leg)| legs[..n].contains(leg)) => Volts::new(0),
        _ => service.volts_between_legs(),
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
    let ordinal = |row: u8| match (row % 10, row % 100) {
        (1, n) if n != 11 => format!("{row}st"),
        (2, n) if n != 12 => format!("{row}nd"),
        (3, n) if n != 13 => format!("{row}rd"),
        _ => format!("{row}th"),
    };
    let half = |slot: &Slot| match slot.half {
        None => "",
        Some(Half::Upper) => ", upper half",
        Some(Half::Lower) => ", lower half",
    };
    let last = breaker.at.iter().filter_map(|slot| position(panel, slot.space)).next_back().map_or(row, |(_, row)| row);
    match breaker.at.as_slice() {
        [one] => format!("{column}{} down{}", ordinal(row + 1), half(one)),
        [first, .., end] if first.half.is_some() && last > row => {
            format!("{column}{} down{} and {} down{}", ordinal(row + 1), half(first), ordinal(last + 1), half(end))
        }
        [first, ..] if first.half.is_some() => format!("{column}{} down, both halves", ordinal(row + 1)),
        _ => format!("{column}{} to {} down", ordinal(row + 1), ordinal(last + 1)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

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
            let panel = home.panels().all().next().unwrap();
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
        let panel = home.panels().all().next().unwrap();
        let said: Vec<_> = home.panels().breakers().map(|b| place_in_words(panel, b)).collect();
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
        assert_eq!(place_in_words(one.panels().all().next().unwrap(), one.panels().breakers().next().unwrap()), "3rd down");
    }
}
