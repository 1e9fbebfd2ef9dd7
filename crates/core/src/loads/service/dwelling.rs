//! What a sheet is worked out from: one dwelling's area, circuits and plates.

use super::Va;

/// The voltages of the service.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub enum ServiceSystem {
    /// 120/240 V, three wires.
    #[default]
    #[serde(rename = "120/240")]
    SplitPhase,
    /// Two legs and the neutral of a 208Y/120 V service.
    #[serde(rename = "208Y/120")]
    Wye,
}

impl ServiceSystem {
    /// Leg to leg.
    pub const fn volts(self) -> i64 {
        match self {
            Self::SplitPhase => 240,
            Self::Wye => 208,
        }
    }
}

/// What limits the service, each in amperes; what nobody has read is left out.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(default)]
pub struct Limits {
    /// The main breaker.
    pub main_a: Option<i64>,
    /// The bus.
    pub bus_a: Option<i64>,
    /// The service or feeder conductors.
    pub conductor_a: Option<i64>,
    /// The meter base.
    pub meter_a: Option<i64>,
}

impl Limits {
    /// Each that is read, by its name in the file.
    fn read(self) -> impl Iterator<Item = (&'static str, i64)> {
        // Where two are the same, the one that is named is the one that is hardest to change.
        [("bus_a", self.bus_a), ("conductor_a", self.conductor_a), ("meter_a", self.meter_a), ("main_a", self.main_a)]
            .into_iter()
            .filter_map(|(name, amps)| Some((name, amps?)))
    }

    /// The least of those that are read.
    pub fn least(self) -> Option<(&'static str, i64)> {
        self.read().min_by_key(|(_, amps)| *amps)
    }
}

/// What kind of cooking unit.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CookingKind {
    /// A range: oven and top in one.
    Range,
    /// An oven in the wall.
    Oven,
    /// A top in the counter.
    Cooktop,
}

/// A household cooking unit.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Cooking {
    /// What it is.
    pub kind: CookingKind,
    /// Its plate, in watts.
    pub w: i64,
}

/// A dryer.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Dryer {
    /// Its plate, in watts.
    pub w: i64,
}

/// Any other appliance that stays where it is.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Fixed {
    /// `water heater`.
    #[serde(default)]
    pub name: String,
    /// Its plate, in volt-amperes.
    pub va: i64,
    /// 120 or 240.
    pub volts: i64,
    /// Fastened in place.
    #[serde(default)]
    pub fastened: bool,
    /// A motor.
    #[serde(default)]
    pub motor: bool,
    /// Canada: tankless heater, pool, spa: counted in full.
    #[serde(default)]
    pub ca_full: bool,
}

/// How the dwelling is heated, beside a heat pump.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeatKind {
    /// Not by electricity.
    #[default]
    None,
    /// Room heaters, each with its own thermostat.
    Zones,
    /// One electric furnace or boiler.
    Central,
    /// Storage heaters.
    Storage,
}

/// Electric heat beside a heat pump.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Heat {
    /// Its kind.
    pub kind: HeatKind,
    /// All of it, in watts.
    pub w: i64,
    /// How many have a thermostat of their own.
    #[serde(default)]
    pub zones: u32,
}

/// A cooler.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Cooler {
    /// Its plate, in volt-amperes.
    pub va: i64,
    /// 120 or 240.
    pub volts: i64,
}

/// A heat pump; it cools, too.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct HeatPump {
    /// Compressor and blower, in volt-amperes.
    pub va: i64,
    /// Its electric supplement, in watts.
    #[serde(default)]
    pub supplement_w: i64,
    /// Whether the two can run together.
    #[serde(default)]
    pub together: bool,
}

impl HeatPump {
    /// What it takes to heat at most.
    pub(super) fn heating(self) -> Va {
        let (pump, supplement) = (Va::new(self.va), Va::new(self.supplement_w));
        if self.together { pump + supplement } else { pump.max(supplement) }
    }

    /// Whether its compressor runs when it heats at most.
    pub(super) const fn pumps_at_most(self) -> bool {
        self.together || self.va >= self.supplement_w
    }
}

/// A vehicle charger.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Vehicle {
    /// Its plate, in volt-amperes.
    pub va: i64,
    /// What an energy management system holds it to.
    #[serde(default)]
    pub managed_va: Option<i64>,
}

impl Vehicle {
    /// What it takes: what it is held to, else its plate.
    pub(super) fn takes(self) -> Va {
        Va::new(self.managed_va.unwrap_or(self.va))
    }
}

/// A demand that was measured.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Measured {
    /// A recorder on both legs.
    Recording {
        /// For so many days.
        days: u32,
        /// Minutes of each average.
        interval_min: u32,
        /// Heating or cooling that did not run then, in tenths of an ampere.
        #[serde(default)]
        season_add_x10: i64,
        /// Leg A, each average in tenths of an ampere.
        leg_a_x10: Vec<i64>,
        /// Leg B at the same moments.
        leg_b_x10: Vec<i64>,
        /// With solar, wind or peak shaving at work.
        #[serde(default)]
        solar: bool,
    },
    /// The utility's highest demand of a year.
    YearPeak {
        /// In hundredths of a kilowatt.
        kw_x100: i64,
        /// Power factor, in hundredths.
        #[serde(default = "unity")]
        pf_x100: i64,
        /// Minutes of each average.
        interval_min: u32,
        /// Net metered behind solar.
        #[serde(default)]
        net_metered: bool,
    },
}

const fn unity() -> i64 {
    100
}

/// A solar inverter on the panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Solar {
    /// What it gives at most, in tenths of an ampere.
    pub inverter_a_x10: i64,
    /// Its breaker sits at the end of the bus away from the main.
    #[serde(default)]
    pub far_end: bool,
}

/// Areas as Canada counts them, in hundredths of a square meter, inside the walls.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct CanadianArea {
    /// Ground floor.
    pub ground_dm2: i64,
    /// Floors above.
    #[serde(default)]
    pub upper_dm2: i64,
    /// Basement, counted at three quarters.
    #[serde(default)]
    pub basement_dm2: i64,
}

/// One dwelling, as the sheets take it.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Dwelling {
    /// Its name.
    #[serde(default)]
    pub id: String,
    /// The edition of the code: 2017, 2020 or 2023.
    pub edition: u16,
    /// The voltages.
    #[serde(default)]
    pub system: ServiceSystem,
    /// What limits the service.
    #[serde(default)]
    pub service: Limits,
    /// By outside dimensions, without garage and open porch.
    pub area_ft2: i64,
    /// 20 A circuits of kitchen, dining room and pantry.
    #[serde(default)]
    pub small_appliance_circuits: i64,
    /// 20 A circuits of the laundry.
    #[serde(default)]
    pub laundry_circuits: i64,
    /// Ranges, ovens, tops.
    #[serde(default)]
    pub cooking: Vec<Cooking>,
    /// Dryers.
    #[serde(default)]
    pub dryers: Vec<Dryer>,
    /// What else stays where it is.
    #[serde(default)]
    pub fixed: Vec<Fixed>,
    /// Electric heat.
    #[serde(default)]
    pub heat: Heat,
    /// Coolers.
    #[serde(default)]
    pub cool: Vec<Cooler>,
    /// A heat pump.
    #[serde(default)]
    pub heat_pump: Option<HeatPump>,
    /// A vehicle charger.
    #[serde(default)]
    pub ev: Option<Vehicle>,
    /// Heating and cooling can run at one time.
    #[serde(default)]
    pub heat_cool_together: bool,
    /// Heating or cooling is what is added to an existing dwelling.
    #[serde(default)]
    pub added_hvac: bool,
    /// A load to be added to a measured demand, in volt-amperes.
    #[serde(default)]
    pub new_load_va: i64,
    /// A demand that was measured.
    #[serde(default)]
    pub measured: Option<Measured>,
    /// Solar on the panel.
    #[serde(default)]
    pub solar: Option<Solar>,
    /// Areas as Canada counts them.
    #[serde(default)]
    pub canada: CanadianArea,
}

/// Cooking units up to this plate are counted with the other appliances (NEC 220.55, from memory).
const SMALL_COOKING_W: i64 = 1750;

impl Dwelling {
    /// Cooking units that have a table of their own.
    pub(super) fn large_cooking(&self) -> Vec<i64> {
        self.cooking.iter().map(|unit| unit.w).filter(|w| *w > SMALL_COOKING_W).collect()
    }

    /// What is fixed, small cooking units included: volt-amperes, volts, fastened.
    pub(super) fn fixed(&self) -> Vec<(Va, i64, bool)> {
        let small = self.cooking.iter().filter(|unit| unit.w <= SMALL_COOKING_W).map(|unit| (Va::new(unit.w), 120, true));
        self.fixed.iter().map(|fixed| (Va::new(fixed.va), fixed.volts, fixed.fastened)).chain(small).collect()
    }

    /// Everything that cools.
    pub(super) fn cooling(&self) -> Va {
        let pump = self.heat_pump.map_or(0, |pump| pump.va);
        Va::new(pump + self.cool.iter().map(|cooler| cooler.va).sum::<i64>())
    }

    /// Everything that heats.
    pub(super) fn heating(&self) -> Va {
        Va::new(self.heat.w) + self.heat_pump.map_or(Va::ZERO, HeatPump::heating)
    }

    /// The three general lines: light and outlets by the area, kitchen, laundry.
    pub(super) fn general(&self) -> [Va; 3] {
        [
            Va::new(3 * self.area_ft2),
            Va::new(1500 * self.small_appliance_circuits.max(2)),
            Va::new(1500 * self.laundry_circuits.max(1)),
        ]
    }

    /// What is wrong with these numbers, if anything is.
    pub fn refused(&self) -> Result<(), String> {
        const MOST: i64 = 1_000_000;
        let plates = self.cooking.iter().map(|unit| unit.w).chain(self.dryers.iter().map(|dryer| dryer.w));
        let plates = plates.chain(self.fixed.iter().map(|fixed| fixed.va)).chain(self.cool.iter().map(|cooler| cooler.va));
        let plates = plates.chain([self.heat.w, self.new_load_va, self.area_ft2]);
        let plates = plates.chain(self.heat_pump.iter().flat_map(|pump| [pump.va, pump.supplement_w]));
        let plates = plates.chain(self.ev.iter().flat_map(|ev| [ev.va, ev.managed_va.unwrap_or(0)]));
        let plates = plates.chain([self.canada.ground_dm2, self.canada.upper_dm2, self.canada.basement_dm2]);
        if let Some(wrong) = plates.into_iter().find(|value| !(0..=MOST).contains(value)) {
            return Err(format!("{wrong} is no plate or area of a dwelling; give 0 to {MOST}"));
        }
        if !(0..=100).contains(&self.small_appliance_circuits) || !(0..=100).contains(&self.laundry_circuits) {
            return Err("a dwelling has at most 100 kitchen and 100 laundry circuits".into());
        }
        Ok(())
    }
}
