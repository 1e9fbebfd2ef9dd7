//! The library of common appliances: what each usually takes, and when.
//!
//! Every figure says where it comes from; a data plate or a reading always goes before it. The table is `appliances.csv` beside this
//! file.

use std::sync::OnceLock;

use serde::{Deserialize, Serialize};

/// Where a figure of the library comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FigureFrom {
    /// Common practice.
    Practice,
    /// Worked out from other figures.
    Arithmetic,
    /// Published tables, from memory.
    Tables,
    /// Our estimate.
    Estimate,
}

/// What a load mostly does with its current: the letter and the color of its circuit on the card.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LoadDoes {
    /// It makes heat.
    Heat,
    /// It cools.
    Cool,
    /// It gives light.
    Light,
    /// It turns something.
    Motor,
    /// Anything else: whatever is plugged in.
    Other,
}

impl LoadDoes {
    /// All, in the order of the legend.
    pub const ALL: [Self; 5] = [Self::Heat, Self::Cool, Self::Light, Self::Motor, Self::Other];

    fn read(word: &str) -> Option<Self> {
        Self::ALL
            .into_iter()
            .zip(["heat", "cool", "light", "motor", "other"])
            .find(|(_, name)| *name == word)
            .map(|(does, _)| does)
    }

    /// The letter on the card, and what it stands for.
    pub const fn letter(self) -> (&'static str, &'static str) {
        match self {
            Self::Heat => ("H", "heat"),
            Self::Cool => ("C", "cool"),
            Self::Light => ("L", "light"),
            Self::Motor => ("M", "motor"),
            Self::Other => ("R", "receptacles and others"),
        }
    }
}

impl FigureFrom {
    fn read(letter: &str) -> Option<Self> {
        Some(match letter {
            "P" => Self::Practice,
            "C" => Self::Arithmetic,
            "T" => Self::Tables,
            "E" => Self::Estimate,
            _ => return None,
        })
    }

    /// In words: `common practice`.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Practice => "common practice",
            Self::Arithmetic => "arithmetic",
            Self::Tables => "published tables, from memory",
            Self::Estimate => "our estimate",
        }
    }
}

/// A part of the day.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DayPart {
    /// 23 to 6 o'clock.
    Night,
    /// 6 to 9 o'clock.
    Morning,
    /// 9 to 17 o'clock.
    Day,
    /// The hours of 7, 12, 17 and 18 o'clock, the last two twice as likely.
    Meal,
    /// 17 to 23 o'clock.
    Evening,
    /// Any hour.
    Any,
}

impl DayPart {
    fn read(word: &str) -> Option<Self> {
        Some(match word {
            "night" => Self::Night,
            "morning" => Self::Morning,
            "day" => Self::Day,
            "meal" => Self::Meal,
            "evening" => Self::Evening,
            "any" => Self::Any,
            _ => return None,
        })
    }

    /// How a day's use is spread over its hours; the sum is 1.
    pub fn weights(self) -> [f64; 24] {
        let mut weights = [0.0; 24];
        let hours: &[usize] = match self {
            Self::Night => &[23, 0, 1, 2, 3, 4, 5],
            Self::Morning => &[6, 7, 8],
            Self::Day => &[9, 10, 11, 12, 13, 14, 15, 16],
            Self::Meal => &[7, 12, 17, 17, 18, 18],
            Self::Evening => &[17, 18, 19, 20, 21, 22],
            Self::Any => {
                weights.fill(1.0 / 24.0);
                return weights;
            }
        };
        for hour in hours {
            weights[*hour] += 1.0 / hours.len() as f64;
        }
        weights
    }
}

/// When in the year something runs.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Season {
    /// All year.
    #[default]
    All,
    /// When it is heated.
    Heat,
    /// When it is cooled.
    Cool,
}

/// How often, how long and when something runs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Usage {
    /// Minutes each time.
    pub minutes: f64,
    /// Times a day.
    pub uses_per_day: f64,
    /// In which parts of the day, each as much as the other.
    pub when: Vec<DayPart>,
    /// In which season.
    #[serde(default)]
    pub season: Season,
}

impl Usage {
    /// The chance of running, hour by hour.
    pub fn hours(&self) -> [f64; 24] {
        let mut hours = [0.0; 24];
        for part in &self.when {
            for (hour, weight) in hours.iter_mut().zip(part.weights()) {
                *hour += weight / self.when.len() as f64;
            }
        }
        hours.map(|weight| (self.minutes * self.uses_per_day * weight / 60.0).min(1.0))
    }
}

/// An appliance of the library.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct Appliance {
    /// Its name in the table.
    pub id: &'static str,
    /// `refrigerator`.
    pub name: &'static str,
    /// What it is counted with: `kitchen`, `lighting`, `heat`.
    pub class: &'static str,
    /// 120 or 240.
    pub volts: u16,
    /// What it usually takes, in watts.
    pub watts: f64,
    /// At the least.
    pub watts_low: f64,
    /// At the most.
    pub watts_high: f64,
    /// How much more it takes for a moment as it starts.
    pub start_factor: f64,
    /// Its power factor.
    pub power_factor: f64,
    /// It runs for three hours or more.
    pub continuous: bool,
    /// A motor.
    pub motor: bool,
    /// When it runs.
    pub usage: Usage,
    /// Where the watts come from.
    pub watts_from: FigureFrom,
    /// Where the usage comes from.
    pub usage_from: FigureFrom,
    /// What it mostly does with the current.
    pub does: LoadDoes,
}

impl Appliance {
    /// The appliance of that name in the table.
    pub fn named(id: &str) -> Option<&'static Self> {
        appliances().iter().find(|appliance| appliance.id == id)
    }

    /// What so many watts of it are, in hundredths of an ampere.
    pub fn amps_x100(&self, watts: f64) -> i64 {
        amps_x100(watts, f64::from(self.volts), self.power_factor)
    }
}

/// Watts as hundredths of an ampere.
fn amps_x100(watts: f64, volts: f64, power_factor: f64) -> i64 {
    (100.0 * watts / (volts * power_factor)).round() as i64
}

/// The library.
pub fn appliances() -> &'static [Appliance] {
    static LIBRARY: OnceLock<Vec<Appliance>> = OnceLock::new();
    LIBRARY.get_or_init(|| {
        let rows = include_str!("appliances.csv").lines().skip(1).filter(|row| !row.is_empty());
        rows.map(|row| read(row).unwrap_or_else(|| panic!("the appliance “{row}” cannot be read; this is a bug"))).collect()
    })
}

fn read(row: &'static str) -> Option<Appliance> {
    let cells: Vec<&'static str> = row.split(',').collect();
    let [
        id,
        name,
        class,
        volts,
        watts,
        low,
        high,
        start,
        pf,
        continuous,
        minutes,
        uses,
        when,
        season,
        motor,
        watts_from,
        usage_from,
        does,
    ] = cells.as_slice()
    else {
        return None;
    };
    let season = match *season {
        "all" => Season::All,
        "heat" => Season::Heat,
        "cool" => Season::Cool,
        _ => return None,
    };
    Some(Appliance {
        id,
        name,
        class,
        volts: volts.parse().ok()?,
        watts: watts.parse().ok()?,
        watts_low: low.parse().ok()?,
        watts_high: high.parse().ok()?,
        start_factor: start.parse().ok()?,
        power_factor: pf.parse().ok()?,
        continuous: *continuous == "1",
        motor: *motor == "1",
        usage: Usage {
            minutes: minutes.parse().ok()?,
            uses_per_day: uses.parse().ok()?,
            when: when.split('+').map(DayPart::read).collect::<Option<_>>()?,
            season,
        },
        watts_from: FigureFrom::read(watts_from)?,
        usage_from: FigureFrom::read(usage_from)?,
        does: LoadDoes::read(does)?,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_whole_table_is_read() {
        let all = appliances();
        assert_eq!(all.len(), 103);
        for appliance in all {
            assert!(appliance.watts_low <= appliance.watts && appliance.watts <= appliance.watts_high, "{}", appliance.id);
            assert!([120, 240].contains(&appliance.volts), "{}", appliance.id);
            assert_eq!(
                all.iter().filter(|other| other.id == appliance.id || other.name == appliance.name).count(),
                1,
                "{}",
                appliance.id
            );
            assert!(appliance.usage.hours().iter().all(|chance| (0.0..=1.0).contains(chance)), "{}", appliance.id);
        }
        assert_eq!(Appliance::named("microwave").map(|it| it.amps_x100(it.watts)), Some(1272));
    }
}
