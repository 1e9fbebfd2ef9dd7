//! The practice-house file: one JSON object a line.

use super::wiring::{Feed, NumberedWiring};
use super::{Case, CasePoint, OffSet, OldLabel, PointClass};
use crate::model::delicate::is_delicate;

/// A point with its true breaker, which only the referee sees.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize)]
pub struct HousePoint {
    /// Its room, by its place in the list.
    pub room: usize,
    /// What it is.
    pub kind: PointClass,
    /// Which appliance.
    pub name: String,
    /// Its lamp is burnt out.
    pub burnt_out: bool,
    /// The breaker that feeds it.
    pub breaker: usize,
    /// How many minutes it may be dark at a stretch.
    pub max_off_min: Option<f64>,
}

/// What the old card says of a breaker.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize)]
pub struct HouseLabel {
    /// `room`, `vague` or `spare`.
    pub says: String,
    /// Which room.
    pub room: Option<usize>,
    /// Which kind.
    pub kind: Option<PointClass>,
    /// Which appliance.
    pub name: String,
}

/// A made-up house.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize)]
pub struct House {
    /// `wayfinder-practice-house`.
    pub format: String,
    /// 1.
    pub version: u16,
    /// Its name.
    pub id: String,
    /// Its rooms.
    pub rooms: Vec<String>,
    /// Seconds from room to room.
    pub walk_s: Vec<Vec<f64>>,
    /// Rooms next door.
    pub next_to: Vec<Vec<usize>>,
    /// Where the panel is.
    pub panel_room: usize,
    /// How many breakers.
    pub breakers: usize,
    /// For each breaker those beside it.
    pub panel_neighbours: Vec<Vec<usize>>,
    /// Breakers that may never be off.
    pub must_stay_on: Vec<usize>,
    /// The old card.
    pub labels: Vec<HouseLabel>,
    /// The points.
    pub points: Vec<HousePoint>,
}

/// Why a line is no practice house.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum HouseError {
    /// No JSON of that shape.
    #[error("line {line} is no practice house: {error}")]
    Shape {
        /// Which line, from 1.
        line: usize,
        /// Why.
        error: serde_json::Error,
    },
    /// Its numbers do not fit together.
    #[error("the house on line {line} does not fit together: {why}")]
    Odd {
        /// Which line, from 1.
        line: usize,
        /// Why.
        why: &'static str,
    },
}

impl House {
    /// Reads a file of houses.
    pub fn read_all(text: &str) -> Result<Vec<Self>, HouseError> {
        let lines = text.lines().enumerate().filter(|(_, line)| !line.trim().is_empty());
        lines
            .map(|(n, line)| {
                let house: Self = serde_json::from_str(line).map_err(|error| HouseError::Shape { line: n + 1, error })?;
                match house.fault() {
                    Some(why) => Err(HouseError::Odd { line: n + 1, why }),
                    None => Ok(house),
                }
            })
            .collect()
    }

    fn fault(&self) -> Option<&'static str> {
        let (rooms, breakers) = (self.rooms.len(), self.breakers);
        let checks = [
            (self.format == "wayfinder-practice-house" && self.version == 1, "its format or version is another"),
            (breakers > 0 && breakers <= super::MOST_BREAKERS, "it has no breakers or too many"),
            (self.walk_s.len() == rooms && self.walk_s.iter().all(|row| row.len() == rooms), "walk_s is not square"),
            (self.next_to.len() == rooms && self.next_to.iter().flatten().all(|r| *r < rooms), "next_to names no room"),
            (self.panel_room < rooms, "its panel is in no room"),
            (self.panel_neighbours.len() == breakers, "panel_neighbours is of another length"),
            (self.panel_neighbours.iter().flatten().chain(&self.must_stay_on).all(|b| *b < breakers), "a breaker is missing"),
            (
                self.labels.len() == breakers && self.labels.iter().all(|l| l.room.is_none_or(|r| r < rooms)),
                "its labels do not fit",
            ),
            (self.points.iter().all(|p| p.room < rooms && p.breaker < breakers), "a point is in no room or on no breaker"),
            (self.walk_s.iter().flatten().all(|s| s.is_finite() && *s >= 0.0), "a walk takes no time that can be"),
        ];
        checks.into_iter().find(|(holds, _)| !holds).map(|(_, why)| why)
    }

    /// What only the referee knows.
    pub(crate) fn wiring(&self) -> NumberedWiring {
        let feed = |p: &HousePoint| Feed { breaker: Some(p.breaker), burnt_out: p.burnt_out, ..Feed::default() };
        NumberedWiring { feeds: self.points.iter().map(feed).enumerate().collect(), ..NumberedWiring::default() }
    }

    /// What a crew sees of it.
    pub fn case(&self) -> Case {
        let label = |l: &HouseLabel| match (l.says.as_str(), l.room, l.kind) {
            ("spare", _, _) => OldLabel::Spare,
            ("room", Some(room), Some(class)) => OldLabel::Room { room, class, name: l.name.clone() },
            ("room", Some(room), None) => OldLabel::Place { room },
            ("vague", _, Some(class)) => OldLabel::Kind { class },
            _ => OldLabel::Blank,
        };
        Case {
            rooms: self.rooms.len(),
            walk_s: self.walk_s.clone(),
            panel_s: self.walk_s[self.panel_room].clone(),
            next_to: self.next_to.clone(),
            beside: self.panel_neighbours.clone(),
            labels: self.labels.iter().map(label).collect(),
            two_pole: vec![false; self.breakers],
            leads_on: OffSet::NONE,
            gone: OffSet::NONE,
            delicate: self.labels.iter().enumerate().filter(|(_, l)| is_delicate(&l.name)).map(|(b, _)| b).collect(),
            stay_on: self.must_stay_on.iter().copied().collect::<OffSet>(),
            points: self
                .points
                .iter()
                .map(|p| CasePoint {
                    room: p.room,
                    class: p.kind,
                    name: p.name.clone(),
                    high: false,
                    max_dark_s: p.max_off_min.map(|min| min * 60.0),
                    by_itself: false,
                    delicate: p.max_off_min.is_some() || is_delicate(&p.name),
                })
                .collect(),
        }
    }
}
