//! Sheets for a service or feeder: what a dwelling comes to by each method of calculation, line by line.
//!
//! In: a [`Dwelling`] in plain numbers. Out: [`Worksheets`], every line with what it rests on. Nothing is rounded before the last
//! line. A sheet is a balanced figure: where large 120 V loads sit on one leg, that leg carries more.

mod canada;
mod cooking;
mod dwelling;
mod measured;
mod sheets;
mod va;

use std::borrow::Cow;

use serde::Serialize;

pub use canada::{Canada, canada};
pub use dwelling::*;
pub use measured::{Left, MeasuredDemand, SolarOnBus, measured, solar};
pub use sheets::{Candidates, Neutral, Optional, Sheet, Standard, existing, optional, standard};
pub use va::Va;

/// A line of a sheet.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct Line {
    /// Which line it is.
    pub key: &'static str,
    /// What it comes to.
    pub va: Va,
    /// The section and the rule; empty for a sum of the lines above it.
    #[serde(skip_serializing_if = "str::is_empty")]
    #[schema(value_type = String)]
    pub note: Cow<'static, str>,
}

#[derive(Default)]
struct Lines(Vec<Line>);

impl Lines {
    fn add(&mut self, key: &'static str, va: Va, note: impl Into<Cow<'static, str>>) {
        self.0.push(Line { key, va, note: note.into() });
    }
}

/// What each calculation leaves of the least limit.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[allow(missing_docs)]
pub struct Capacity {
    pub standard: Option<Left>,
    pub optional: Option<Left>,
    pub existing: Option<Left>,
    pub canada: Option<Left>,
}

/// All calculations of one dwelling.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct Worksheets {
    /// NEC Article 220 Part III.
    pub standard: Standard,
    /// NEC 220.82.
    pub optional: Optional,
    /// NEC 220.83.
    pub existing: Sheet,
    /// NEC 220.87.
    pub measured: Option<MeasuredDemand>,
    /// CEC 8-200.
    pub canada: Canada,
    /// What each leaves.
    pub capacity: Capacity,
    /// NEC 705.12(B).
    pub solar: Option<SolarOnBus>,
}

/// Every calculation of this dwelling. A new load is tried by calculating again with it, never by subtracting: a fourth fixed
/// appliance can make the standard total smaller.
pub fn worksheets(d: &Dwelling) -> Worksheets {
    let (standard, optional, existing, canada) = (standard(d), optional(d), existing(d), canada(d));
    let left = |amps: i64| measured::left(d.service, amps);
    let capacity = Capacity {
        standard: left(standard.sheet.amps),
        optional: left(optional.sheet.amps),
        existing: left(existing.amps),
        canada: left(canada.sheet.amps),
    };
    Worksheets { standard, optional, existing, measured: measured(d), canada, capacity, solar: solar(d) }
}
