//! What is off now.

use crate::model::{Breaker, BreakerId, Panel, State, position};
use crate::study::Study;

/// A breaker that is off now.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct OffNow {
    /// Which.
    pub breaker: BreakerId,
    /// `5-7`, `G3`.
    pub number: String,
    /// Off or tripped.
    pub state: State,
    /// Off for good, not for this round.
    pub left_off: bool,
}

/// What is off now, in the order of the panels.
pub fn off_now(home: &Study) -> Vec<OffNow> {
    let off = |panel: &Panel| {
        let mut here: Vec<&Breaker> = home.panels().breakers_of(&panel.id).filter(|b| b.state != State::On).collect();
        here.sort_by_key(|b| position(panel, b.at[0].space).map(|(side, row)| (side, row, b.at[0].half)));
        here
    };
    let off = home.panels().all().flat_map(off).map(|b| OffNow {
        breaker: b.id.clone(),
        number: home.panels().number(&b.id),
        state: b.state,
        left_off: b.is_left_off(),
    });
    off.collect()
}
