//! What a made-up house is drawn from.

use super::{Refusal, RefusalCode};

/// How much stands against whoever traces it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Level {
    /// The old card is right, every lamp works, one panel, and nothing goes wrong.
    Plain,
    /// The card is a quarter wrong; strays, burnt-out lamps, GFCI chains, shared neutrals, something that must stay on;
    /// breakers that trip or do not latch, outages, points that go by themselves, another handle or point than was meant.
    Usual,
    /// Besides: a sub-panel, a tripped GFCI, switches that are off, voltages that are not there, a breaker that feeds nothing,
    /// points that nobody listed.
    Tricky,
}

/// What is practiced in it.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Lesson {
    /// Which breaker feeds what.
    #[default]
    Trace,
    /// What each circuit carries: everything is traced, what the loads take is hidden. In a usual house a breaker may be worn, in a
    /// tricky one a neutral is open.
    Measure,
    /// Work in its panel: everything is traced and read, and something is wished for. In a usual panel something may be wrong, in a
    /// tricky one something is.
    Work,
    /// Something is dark in it, and why is hidden: everything is traced. In a usual house any cause but an open neutral, in a tricky one
    /// what the others seldom have, and signs of danger.
    Fault,
}

/// What a house is drawn from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Recipe {
    /// Any number.
    pub seed: u32,
    /// How many points are listed, 8 to 150.
    pub points: u16,
    /// How hard.
    pub level: Level,
    /// What is practiced in it.
    #[serde(default, skip_serializing_if = "is_trace")]
    pub lesson: Lesson,
}

fn is_trace(lesson: &Lesson) -> bool {
    *lesson == Lesson::Trace
}

impl Recipe {
    /// A house that is to be traced.
    pub const fn to_trace(seed: u32, points: u16, level: Level) -> Self {
        Self { seed, points, level, lesson: Lesson::Trace }
    }

    /// Refuses what cannot be drawn.
    pub fn admit(self) -> Result<(), Refusal> {
        if (8..=150).contains(&self.points) {
            return Ok(());
        }
        let wrong = format!("A made-up house with {} points cannot be drawn.", self.points);
        Err(Refusal::new(RefusalCode::OutOfRange, "points", wrong, "Give 8 to 150."))
    }
}
