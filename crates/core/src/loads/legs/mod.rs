//! Which breaker goes on which leg: the fewest wires to move so that no leg carries more than it need.
//!
//! In: [`LegPanels`], what sits where and what each hot carries. Out: [`Levelled`], for 0, 1, 2 … moves the least that the worst leg
//! can come to, each with an arrangement, and whether it is worth it at all. A move is one hot wire that ends elsewhere. What
//! shares a neutral or a tie stays together: its hots may only change places among themselves.
//!
//! Exact: for two legs by a table over what leg B carries (`table.rs`), for three by branch and bound (`branch.rs`).

mod branch;
mod input;
mod place;
mod ready;
mod table;

use std::collections::BTreeMap;

use serde::Serialize;

pub use input::{LegPanel, LegPanels, LegSpace, LegSystem, LegUnit, UnitKind};
use place::placed;
pub(super) use ready::neutral;
use ready::{Choice, Ready};

/// From this share of its rating on, a leg is worth a thought (common practice).
const NEAR: f64 = 0.8;

/// What can be reached with so many moves.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct CurvePoint {
    /// Hot wires that end elsewhere, at most.
    pub moves: u32,
    /// The worst leg of all panels by its rating.
    pub ratio: f64,
    /// Each panel's legs, in tenths of an ampere.
    pub legs_x10: BTreeMap<String, Vec<i64>>,
    /// Each panel's neutral, in amperes, loads taken as resistance.
    pub neutral_a: BTreeMap<String, f64>,
    /// The spaces of whatever moved, in the order of its hots.
    pub witness: BTreeMap<String, Vec<usize>>,
}

/// Whether to open the panel for it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LevelDo {
    /// Not worth it.
    Leave,
    /// Worth it.
    Level,
}

/// The advice.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct LevelVerdict {
    /// What to do.
    #[serde(rename = "do")]
    pub act: LevelDo,
    /// Why.
    pub why: &'static str,
    /// With so many moves.
    pub moves: u32,
}

/// The whole answer.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct Levelled {
    /// From no move to the best of all.
    pub curve: Vec<CurvePoint>,
    /// The advice.
    pub verdict: LevelVerdict,
}

/// Levels these panels; an error says what is wrong with them.
pub fn level(panels: &LegPanels) -> Result<Levelled, String> {
    let ready = Ready::of(panels)?;
    let steps = if ready.panels.iter().any(|panel| panel.legs == 3) { branch::steps(&ready) } else { table::steps(&ready) };
    let mut curve: Vec<CurvePoint> = Vec::new();
    for Step { moves, choice } in steps {
        if let Some(last) = curve.last().cloned() {
            curve.extend((last.moves + 1..moves).map(|moves| CurvePoint { moves, ..last.clone() }));
        }
        let legs = ready.legs_with(&choice);
        let named = |at: usize| panels.panels[at].name.clone();
        curve.push(CurvePoint {
            moves,
            ratio: ready.ratio(&legs),
            legs_x10: legs.iter().enumerate().map(|(at, legs)| (named(at), legs.clone())).collect(),
            neutral_a: ready.neutrals(panels, &choice).into_iter().enumerate().map(|(at, amps)| (named(at), amps)).collect(),
            witness: placed(panels, &ready, &choice),
        });
    }
    let verdict = verdict(&curve);
    Ok(Levelled { curve, verdict })
}

fn verdict(curve: &[CurvePoint]) -> LevelVerdict {
    let (first, last) = (&curve[0], &curve[curve.len() - 1]);
    if first.ratio < NEAR {
        return LevelVerdict { act: LevelDo::Leave, why: "under 80 %", moves: 0 };
    }
    if last.ratio >= first.ratio {
        return LevelVerdict { act: LevelDo::Leave, why: "nothing to gain", moves: 0 };
    }
    match curve.iter().find(|point| point.ratio < NEAR) {
        Some(point) => LevelVerdict { act: LevelDo::Level, why: "under 80 % again", moves: point.moves },
        None => {
            let best = curve.iter().find(|point| point.ratio <= last.ratio).map_or(last.moves, |point| point.moves);
            LevelVerdict { act: LevelDo::Level, why: "least reachable, still 80 % or more", moves: best }
        }
    }
}

/// One improvement: so many moves, and what they are.
struct Step {
    moves: u32,
    choice: Choice,
}
