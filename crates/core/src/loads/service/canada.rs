//! The Canadian calculation for one dwelling.
//!
//! Source: CEC 8-110 and 8-200, from memory.

use serde::Serialize;

use super::{CookingKind, Dwelling, HeatKind, Lines, Sheet, Va};

/// The Canadian calculation.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct Canada {
    /// Its lines.
    #[serde(flatten)]
    pub sheet: Sheet,
    /// Which of the two counts: `a`, the sum of the loads, or `b`, the least for a dwelling of this size.
    pub governs: &'static str,
}

/// What is counted apart from the range only above this.
const SMALL_W: i64 = 1500;

/// Single dwelling: CEC 8-200(1).
pub fn canada(d: &Dwelling) -> Canada {
    let mut lines = Lines::default();
    // Hundredths of a square meter, four times over, because a basement counts three quarters.
    let area_x4 = 4 * (d.canada.ground_dm2 + d.canada.upper_dm2) + 3 * d.canada.basement_dm2;
    let started = ((area_x4 - 4 * 9000).max(0) + 4 * 9000 - 1) / (4 * 9000);
    let basic = Va::new(5000 + 1000 * started);
    lines.add("basic", basic, format!("8-200(1)(a): {} m² of living area", area_x4 as f64 / 400.0));
    let room = Va::new(d.heat.w);
    let room_share = match d.heat.kind {
        HeatKind::Zones => room - room.above(Va::new(10_000)).percent(25),
        _ => room,
    };
    let heat = d.heating() - room + room_share;
    let cool = d.cooling();
    let hvac = if d.heat_cool_together { heat + cool } else { heat.max(cool) };
    lines.add("hvac", hvac, "8-106, 62-118: the larger of heating and cooling where they exclude each other");

    // The largest range counts as one; without a range, tops and ovens together are one (?).
    let units = || d.cooking.iter().filter(|unit| unit.w > SMALL_W);
    let largest = units().filter(|unit| unit.kind == CookingKind::Range).map(|unit| unit.w).max();
    let range_w = largest.unwrap_or_else(|| units().map(|unit| unit.w).sum());
    let second_w: Vec<i64> = match largest {
        None => Vec::new(),
        Some(largest) => {
            let mut rest: Vec<i64> = units().map(|unit| unit.w).collect();
            let own = units().position(|unit| unit.kind == CookingKind::Range && unit.w == largest);
            own.map(|at| rest.remove(at));
            rest
        }
    };
    let range = match range_w {
        0 => Va::ZERO,
        w => Va::new(6000) + Va::new(w).above(Va::new(12_000)).percent(40),
    };
    lines.add("range", range, "8-200(1)(a): 6000 W, and 40 % of what is above 12 kW");
    let full: Va = d.fixed.iter().filter(|fixed| fixed.ca_full).map(|fixed| Va::new(fixed.va)).sum();
    lines.add("full", full, "8-200(1)(a): tankless heater, pool, spa at 100 %");
    let vehicle = d.ev.map_or(Va::ZERO, |ev| ev.takes());
    lines.add("ev", vehicle, "8-200(1)(a): vehicle at 100 %");
    let others: Va = d
        .fixed
        .iter()
        .filter(|fixed| !fixed.ca_full)
        .map(|fixed| fixed.va)
        .chain(d.dryers.iter().map(|dryer| dryer.w))
        .chain(second_w)
        .filter(|w| *w > SMALL_W)
        .map(Va::new)
        .sum();
    let (other, why) = if range_w > 0 {
        (others.percent(25), "8-200(1)(a): 25 % of what is over 1500 W")
    } else {
        (others - others.above(Va::new(6000)).percent(75), "8-200(1)(a): over 1500 W: 6000 W at 100 %, the rest at 25 %")
    };
    lines.add("other", other, why);
    let sum = basic + hvac + range + full + vehicle + other;
    let least = Va::new(if d.canada.ground_dm2 + d.canada.upper_dm2 >= 8000 { 24_000 } else { 14_400 });
    lines.add("sum_a", sum, "");
    lines.add("least_b", least, "8-200(1)(b): 24 000 W from 80 m² without the basement, else 14 400 W");
    let governs = if sum > least { "a" } else { "b" };
    Canada { sheet: Sheet::of(lines, sum.max(least), d.system), governs }
}
