//! What was measured, what is left, and what solar may add.
//!
//! Source: NEC 220.87 and 705.12(B), from memory.

use serde::Serialize;

use super::{Dwelling, Limits, Measured, Solar};

/// The calculation from a measured demand.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct MeasuredDemand {
    /// The highest demand, in amperes.
    pub demand_a: f64,
    /// A quarter more.
    pub times_1_25: f64,
    /// What is to be added.
    pub new_load_a: f64,
    /// Both.
    pub total_a: f64,
    /// The least that limits the service; `null` where nothing is read.
    pub limit_a: Option<i64>,
    /// Whether it fits; `null` where nothing is read.
    pub fits: Option<bool>,
    /// Whether the measurement is one that the code takes.
    pub valid: bool,
    /// What it does not show.
    pub remarks: Vec<&'static str>,
}

/// To four places, as the sheet shows it.
fn places_4(amps: f64) -> f64 {
    (amps * 10_000.0).round() / 10_000.0
}

/// NEC 220.87; `None` where nothing was measured.
pub fn measured(d: &Dwelling) -> Option<MeasuredDemand> {
    let volts = d.system.volts() as f64;
    let mut remarks = Vec::new();
    let interval = "interval hides 15-minute peaks";
    let (demand, interval_min) = match d.measured.as_ref()? {
        Measured::Recording { days, interval_min, season_add_x10, leg_a_x10, leg_b_x10, solar } => {
            if *days < 30 {
                remarks.push("under 30 days");
            }
            if *solar {
                remarks.push("solar hides load");
            }
            let heavier = leg_a_x10.iter().chain(leg_b_x10).max().copied().unwrap_or(0);
            ((heavier + season_add_x10) as f64 / 10.0, *interval_min)
        }
        Measured::YearPeak { kw_x100, pf_x100, interval_min, net_metered } => {
            if *net_metered {
                remarks.push("net metering hides load");
            }
            (*kw_x100 as f64 * 1000.0 / (*pf_x100).max(1) as f64 / volts, *interval_min)
        }
    };
    if interval_min > 15 {
        remarks.push(interval);
    }
    let valid = remarks.is_empty();
    if matches!(d.measured, Some(Measured::YearPeak { .. })) {
        remarks.push("energy does not show the heavier leg");
    }
    let new_load = d.new_load_va as f64 / volts;
    let total = demand * 1.25 + new_load;
    let limit = d.service.least().map(|(_, amps)| amps);
    Some(MeasuredDemand {
        demand_a: places_4(demand),
        times_1_25: places_4(demand * 1.25),
        new_load_a: places_4(new_load),
        total_a: places_4(total),
        limit_a: limit,
        // The unrounded figure counts; a sum that is a hair over by the machine's own rounding still fits.
        fits: limit.map(|limit| total <= limit as f64 + 1e-9),
        valid,
        remarks,
    })
}

/// What a sheet leaves, and what limits it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct Left {
    /// Amperes; less than none where it is too much already.
    pub left_a: i64,
    /// `main_a`, `bus_a`, `conductor_a` or `meter_a`.
    pub limit: &'static str,
}

/// What whole amperes leave of the least limit.
pub(super) fn left(limits: Limits, amps: i64) -> Option<Left> {
    limits.least().map(|(limit, most)| Left { left_a: most - amps, limit })
}

/// The rule for solar on a panel.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, utoipa::ToSchema)]
pub struct SolarOnBus {
    /// 125 % of the inverter and the main together.
    pub need_a: f64,
    /// 120 % of the bus where its breaker is at the far end, else the bus.
    pub allowed_a: f64,
    /// The largest inverter that would do.
    pub most_inverter_a: f64,
    /// Whether it does.
    pub ok: bool,
}

/// NEC 705.12(B); `None` where there is no solar, or bus or main are not read.
pub fn solar(d: &Dwelling) -> Option<SolarOnBus> {
    let Solar { inverter_a_x10, far_end } = d.solar?;
    let (main, bus) = (d.service.main_a?, d.service.bus_a?);
    // In thousandths of an ampere, so that nothing is rounded before it is compared.
    let need = 125 * inverter_a_x10 + 1000 * main;
    let allowed = if far_end { 1200 } else { 1000 } * bus;
    let thousandths = |amps: i64| amps as f64 / 1000.0;
    Some(SolarOnBus {
        need_a: thousandths(need),
        allowed_a: thousandths(allowed),
        most_inverter_a: thousandths((allowed - 1000 * main).max(0) * 4 / 5),
        ok: need <= allowed,
    })
}
