//! The three calculations of the United States, and the neutral.
//!
//! Source: NEC Article 220, Parts III and IV, from memory. The figures that are less than sure are marked (?) in their line.

use serde::Serialize;

use super::cooking::{cooking_demand, dryer_demand};
use super::{Dwelling, HeatKind, HeatPump, Line, Lines, ServiceSystem, Va};

/// A calculation: its lines, and what they come to.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct Sheet {
    /// Line by line.
    pub lines: Vec<Line>,
    /// The sum that counts.
    pub total_va: Va,
    /// In amperes, to four places.
    pub amps_exact: f64,
    /// In whole amperes, halves up.
    pub amps: i64,
}

impl Sheet {
    pub(super) fn of(lines: Lines, total: Va, system: ServiceSystem) -> Self {
        let volts = system.volts();
        Self { lines: lines.0, total_va: total, amps_exact: total.amps_exact(volts), amps: total.amps(volts) }
    }
}

/// What the neutral carries.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
#[serde(untagged)]
pub enum Neutral {
    /// The difference of two legs that are opposite.
    Reduced {
        /// 70 % of what the cooking units demand.
        range_70: Va,
        /// 70 % of what the dryers demand.
        dryer_70: Va,
        /// Fixed appliances of 120 V, by the same factor as in the lines.
        fixed_120: Va,
        /// Coolers of 120 V in the worse season, with a quarter of the largest 120 V motor.
        hvac_and_motor_120: Va,
        /// The sum.
        va: Va,
        /// In whole amperes; above 200 A, 70 % of the excess.
        amps: i64,
    },
    /// Two legs of a wye: as much as the lines.
    AsTheLines {
        /// Why.
        rule: &'static str,
        /// In whole amperes.
        amps: i64,
    },
}

/// The standard calculation.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct Standard {
    /// Its lines.
    #[serde(flatten)]
    pub sheet: Sheet,
    /// What the neutral carries.
    pub neutral: Neutral,
}

/// One season: what runs in it, and its largest motor.
struct Season {
    name: &'static str,
    hvac: Va,
    motor: Va,
}

/// What counts as one of the four: 500 W or a quarter horsepower; before 2020 any size (?).
const fn least_fixed_va(edition: u16) -> i64 {
    if edition < 2020 { 0 } else { 500 }
}

/// Where the volt-amperes of a square foot of a dwelling stand.
const fn lighting_section(edition: u16) -> &'static str {
    match edition {
        ..2020 => "220.12",
        2020..2023 => "220.14(J)",
        _ => "220.41",
    }
}

/// Standard method: Part III.
pub fn standard(d: &Dwelling) -> Standard {
    let mut lines = Lines::default();
    let [lighting, kitchen, laundry] = d.general();
    lines.add("lighting", lighting, format!("{}: 3 VA for each square foot", lighting_section(d.edition)));
    lines.add("small_appliance", kitchen, "220.52(A): 1500 VA a circuit, two at least");
    lines.add("laundry", laundry, "220.52(B): 1500 VA a circuit, one at least");
    let general = lighting + kitchen + laundry;
    let net = general - general.above(Va::new(3000)) + general.above(Va::new(3000)).percent(35)
        - general.above(Va::new(120_000)).percent(10);
    lines.add("general_sum", general, "");
    let section = if d.edition >= 2023 { "220.45" } else { "220.42" };
    lines.add("general_net", net, format!("{section}: 3000 VA at 100 %, to 120 000 VA at 35 %, the rest at 25 %"));
    let (range, columns) = cooking_demand(&d.large_cooking());
    lines.add("range", range, format!("220.55: {columns}"));
    let dryer = dryer_demand(d.dryers.iter().map(|dryer| dryer.w));
    lines.add("dryer", dryer, "220.54: 5000 VA or the plate");

    let all = d.fixed();
    let counts = |(va, _, fastened): &&(Va, i64, bool)| *fastened && *va >= Va::new(least_fixed_va(d.edition));
    let count = all.iter().filter(counts).count();
    let percent = if count >= 4 { 75 } else { 100 };
    let share = |fixed: &(Va, i64, bool)| fixed.0.percent(if counts(&fixed) { percent } else { 100 });
    let fixed: Va = all.iter().map(share).sum();
    lines.add("fixed", fixed, format!("220.53: {count} that count, at {percent} %"));
    let vehicle = d.ev.map_or(Va::ZERO, |ev| match ev.managed_va {
        None if d.edition >= 2023 => Va::new(ev.va.max(7200)),
        _ => ev.takes(),
    });
    let why = if d.edition >= 2023 { "220.57: 7200 VA or the plate" } else { "625: the plate" };
    lines.add("ev", vehicle, if d.ev.is_some_and(|ev| ev.managed_va.is_some()) { "750.30: as managed (?)" } else { why });

    let motors = || d.fixed.iter().filter(|fixed| fixed.motor);
    let pump = d.heat_pump.map(|pump| Va::new(pump.va));
    let coolers = d.cool.iter().map(|cooler| Va::new(cooler.va)).chain(pump);
    let largest = |all: &mut dyn Iterator<Item = Va>| all.max().unwrap_or_default();
    let fixed_motor = largest(&mut motors().map(|fixed| Va::new(fixed.va)));
    let cool_motor = largest(&mut coolers.chain([fixed_motor]));
    let heat_motor = fixed_motor.max(pump.filter(|_| d.heat_pump.is_some_and(HeatPump::pumps_at_most)).unwrap_or_default());
    let seasons = if d.heat_cool_together {
        vec![Season { name: "both", hvac: d.heating() + d.cooling(), motor: cool_motor.max(heat_motor) }]
    } else {
        vec![
            Season { name: "heat", hvac: d.heating(), motor: heat_motor },
            Season { name: "cool", hvac: d.cooling(), motor: cool_motor },
        ]
    };
    let worst = seasons.into_iter().max_by_key(|season| season.hvac + season.motor.percent(25));
    let season = worst.unwrap_or(Season { name: "none", hvac: Va::ZERO, motor: fixed_motor });
    let season_word = if season.hvac == Va::ZERO { "none" } else { season.name };
    lines.add("hvac", season.hvac, format!("220.60: the larger season: {season_word}"));
    lines.add("largest_motor_25", season.motor.percent(25), "430.24: a quarter of the largest motor that runs in it");
    let total = net + range + dryer + fixed + vehicle + season.hvac + season.motor.percent(25);
    let sheet = Sheet::of(lines, total, d.system);
    if d.system == ServiceSystem::Wye {
        let rule = "no reduction on two legs of a wye: as the lines";
        return Standard { neutral: Neutral::AsTheLines { rule, amps: sheet.amps }, sheet };
    }
    let fixed_120: Va = all.iter().filter(|(_, volts, _)| *volts == 120).map(share).sum();
    let coolers_120 = || d.cool.iter().filter(|cooler| cooler.volts == 120).map(|cooler| Va::new(cooler.va));
    let motors_120 = motors().filter(|fixed| fixed.volts == 120).map(|fixed| Va::new(fixed.va));
    // The cooling season runs all that the heating season runs of 120 V, and the coolers, so it is the worse one.
    let motor_120 = largest(&mut motors_120.chain(coolers_120()));
    let hvac_and_motor_120 = coolers_120().sum::<Va>() + motor_120.percent(25);
    let (range_70, dryer_70) = (range.percent(70), dryer.percent(70));
    let va = net + range_70 + dryer_70 + fixed_120 + hvac_and_motor_120;
    let two_hundred = Va::new(200 * d.system.volts());
    let amps = (va - va.above(two_hundred).percent(30)).amps(d.system.volts());
    Standard { sheet, neutral: Neutral::Reduced { range_70, dryer_70, fixed_120, hvac_and_motor_120, va, amps } }
}

/// What heating and cooling each would add to the optional calculation.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, utoipa::ToSchema)]
pub struct Candidates {
    /// All cooling, the heat pump with it, at 100 %.
    pub cooling: Va,
    /// Heat pump, with 65 % of its supplement.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub heat_pump: Option<Va>,
    /// Room heaters: 65 %, from four on 40 %.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub zones: Option<Va>,
    /// Central heat: 65 %.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub central: Option<Va>,
    /// Storage heat: 100 %.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub storage: Option<Va>,
}

/// The optional calculation.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct Optional {
    /// Its lines.
    #[serde(flatten)]
    pub sheet: Sheet,
    /// Only for a service or feeder of 100 A and more.
    pub applies: bool,
    /// What each would add.
    pub candidates: Candidates,
    /// The same with the vehicle at 100 %, for a cautious reader.
    pub total_va_ev_at_100: Va,
}

/// The general loads by their plates, as the optional calculations take them: the lines, and their sum.
fn by_plates(d: &Dwelling, lines: &mut Lines) -> Va {
    let [lighting, kitchen, laundry] = d.general();
    let cooking: Va = d.large_cooking().into_iter().map(Va::new).sum();
    let dryers: Va = d.dryers.iter().map(|dryer| Va::new(dryer.w)).sum();
    let fixed: Va = d.fixed().iter().map(|(va, ..)| *va).sum();
    let vehicle = d.ev.map_or(Va::ZERO, |ev| ev.takes());
    let each = [
        ("lighting", lighting, "3 VA for each square foot"),
        ("small_appliance", kitchen, "1500 VA a circuit, two at least"),
        ("laundry", laundry, "1500 VA a circuit, one at least"),
        ("cooking", cooking, "plates"),
        ("dryer", dryers, "plates"),
        ("fixed", fixed, "plates"),
        ("ev", vehicle, "plate, among the general loads (?)"),
    ];
    each.map(|(key, va, note)| {
        lines.add(key, va, note);
        va
    })
    .into_iter()
    .sum()
}

/// The first so many volt-amperes in full, the rest at 40 %.
fn rest_at_40(sum: Va, first: i64) -> Va {
    sum - sum.above(Va::new(first)).percent(60)
}

/// Optional method for a dwelling: NEC 220.82.
pub fn optional(d: &Dwelling) -> Optional {
    const FIRST: i64 = 10_000;
    let mut lines = Lines::default();
    let sum = by_plates(d, &mut lines);
    lines.add("general_sum", sum, "");
    let net = rest_at_40(sum, FIRST);
    lines.add("general_net", net, "220.82(B): 10 kVA at 100 %, the rest at 40 %");
    let room = Va::new(d.heat.w);
    let room_share = match d.heat.kind {
        HeatKind::None => Va::ZERO,
        HeatKind::Zones if d.heat.zones >= 4 => room.percent(40),
        HeatKind::Zones | HeatKind::Central => room.percent(65),
        HeatKind::Storage => room,
    };
    let of = |kind| (d.heat.kind == kind).then_some(room_share);
    let candidates = Candidates {
        cooling: d.cooling(),
        heat_pump: d.heat_pump.map(|pump| {
            let (va, supplement) = (Va::new(pump.va), Va::new(pump.supplement_w).percent(65));
            if pump.together { va + supplement } else { va.max(supplement) }
        }),
        zones: of(HeatKind::Zones),
        central: of(HeatKind::Central),
        storage: of(HeatKind::Storage),
    };
    let heat = room_share + candidates.heat_pump.unwrap_or_default();
    let (hvac, why) = if d.heat_cool_together {
        (heat + candidates.cooling, "both, which run together")
    } else if heat > candidates.cooling {
        (heat, "heat, the larger")
    } else {
        (candidates.cooling, "cooling, the larger")
    };
    lines.add("hvac", hvac, format!("220.82(C): {why}"));
    let vehicle = d.ev.map_or(Va::ZERO, |ev| ev.takes());
    Optional {
        sheet: Sheet::of(lines, net + hvac, d.system),
        applies: d.service.main_a.is_none_or(|main| main >= 100),
        candidates,
        total_va_ev_at_100: rest_at_40(sum - vehicle, FIRST) + vehicle + hvac,
    }
}

/// Existing dwelling: NEC 220.83.
pub fn existing(d: &Dwelling) -> Sheet {
    const FIRST: i64 = 8000;
    let mut lines = Lines::default();
    let sum = by_plates(d, &mut lines);
    let (heat, cool) = (d.heating(), d.cooling());
    if !d.added_hvac {
        let (hvac, why) = if d.heat_cool_together {
            (heat + cool, "heating and cooling")
        } else {
            (heat.max(cool), "the larger of heating and cooling")
        };
        lines.add("hvac_in_general", hvac, format!("220.83(A): {why}, among the other loads"));
        lines.add("other_sum", sum + hvac, "");
        let net = rest_at_40(sum + hvac, FIRST);
        lines.add("other_net", net, "220.83(A): 8 kVA at 100 %, the rest at 40 %");
        return Sheet::of(lines, net, d.system);
    }
    // Four or more room heaters stay among the other loads (?), so each season is worked out whole.
    let zones = if d.heat.kind == HeatKind::Zones && d.heat.zones >= 4 { Va::new(d.heat.w) } else { Va::ZERO };
    let together = if d.heat_cool_together { cool } else { Va::ZERO };
    let seasons = [("heat", zones, heat - zones + together), ("cool", Va::ZERO, cool)];
    let total = |(_, zones, hvac): &(&str, Va, Va)| rest_at_40(sum + *zones, FIRST) + *hvac;
    let worst = if total(&seasons[1]) > total(&seasons[0]) { seasons[1] } else { seasons[0] };
    let (name, zones, hvac) = worst;
    lines.add("zones_in_other", zones, "220.83(B): four or more room heaters (?)");
    lines.add("other_sum", sum + zones, "");
    lines.add("other_net", rest_at_40(sum + zones, FIRST), "220.83(B): 8 kVA at 100 %, the rest at 40 %");
    lines.add("hvac", hvac, format!("220.83(B): the larger season at 100 %: {name}"));
    Sheet::of(lines, total(&worst), d.system)
}
