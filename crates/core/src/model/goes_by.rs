//! Points that go on and off by themselves, or live on without their breaker: how each is looked at.

use super::{Point, PointKind};

/// What makes a point go on and off by itself, or keeps it alive without its breaker. Common practice; no source.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GoesBy {
    /// A timer.
    Timer,
    /// A light sensor: lit in the dark.
    LightSensor,
    /// A motion sensor.
    MotionSensor,
    /// A thermostat, a compressor, a float: it runs now and then.
    Thermostat,
    /// A battery of its own.
    OwnBattery,
    /// It is plugged into a battery supply.
    BatterySupply,
    /// A lamp that is told what to do by radio.
    SmartLamp,
    /// Either of two switches.
    TwoSwitches,
}

impl GoesBy {
    /// What may be so of a kind of point, the most frequent first.
    pub const fn usual_at(kind: PointKind) -> &'static [Self] {
        match kind {
            PointKind::Light => {
                &[Self::MotionSensor, Self::LightSensor, Self::Timer, Self::SmartLamp, Self::TwoSwitches, Self::OwnBattery]
            }
            PointKind::Appliance => &[Self::Thermostat, Self::Timer, Self::OwnBattery],
            PointKind::Alarm => &[Self::OwnBattery],
            PointKind::Fan => &[Self::Timer, Self::MotionSensor, Self::Thermostat],
            PointKind::Receptacle => &[Self::Timer, Self::TwoSwitches, Self::BatterySupply, Self::SmartLamp],
            PointKind::Switch => &[Self::MotionSensor, Self::Timer],
            PointKind::JunctionBox | PointKind::CappedCable => &[],
        }
    }

    /// As a form names it.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Timer => "a timer",
            Self::LightSensor => "a light sensor",
            Self::MotionSensor => "a motion sensor",
            Self::Thermostat => "a thermostat or compressor",
            Self::OwnBattery => "a battery of its own",
            Self::BatterySupply => "a battery supply (UPS)",
            Self::SmartLamp => "an app or radio switch",
            Self::TwoSwitches => "two switches (three-way)",
        }
    }

    /// How it is looked at.
    pub const fn how_to_look(self) -> &'static str {
        match self {
            Self::Timer => "On a timer: set it to stay on while you trace. Sure at once: a meter.",
            Self::LightSensor => {
                "Has a light sensor: cover the sensor until the lamp comes on, which may take a minute. Sure at once: a meter."
            }
            Self::MotionSensor => "Has a motion sensor: set it to stay on, or move in its view and wait. Sure at once: a meter.",
            Self::Thermostat => {
                "Runs now and then: look at what shows its power all the time, such as a door lamp, a display or a clock. Standing \
                 still is not dark."
            }
            Self::OwnBattery => {
                "Has a battery of its own: look at its mains lamp. That it works does not mean that it has power."
            }
            Self::BatterySupply => {
                "On a battery supply: look at the supply's own mains lamp, or plug a tester into the other half of the receptacle."
            }
            Self::SmartLamp => "Worked by an app: see it lit, then let nobody touch the app. Sure at once: a meter.",
            Self::TwoSwitches => "Worked by two switches: see it lit, then let nobody touch either. Sure at once: a meter.",
        }
    }

    /// Whether something on it shows its power all the time, so that a glance at that tells as much as anywhere else.
    pub const fn shows_its_power(self) -> bool {
        matches!(self, Self::Thermostat | Self::OwnBattery | Self::BatterySupply)
    }
}

impl Point {
    /// How it is looked at, where that is not plain.
    pub fn how_to_look(&self) -> Option<&'static str> {
        /// What is said where nobody has told.
        const ALARM: &str =
            "Most wired alarms have a battery, too: look at the mains lamp. That it works does not mean that it has power.";
        const HIGH: &str =
            "Have it switched on: look at its display or lamp, listen for its fan or hum. Its plate names its volts.";
        let usual = match self.kind {
            PointKind::Alarm => Some(ALARM),
            PointKind::Appliance if self.volts.value() > 120 => Some(HIGH),
            _ => None,
        };
        self.details.goes_by.map(GoesBy::how_to_look).or(usual)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_way_of_going_by_itself_is_offered_somewhere_and_says_how_to_look() {
        use GoesBy::*;
        let all = [Timer, LightSensor, MotionSensor, Thermostat, OwnBattery, BatterySupply, SmartLamp, TwoSwitches];
        let kinds =
            [PointKind::Receptacle, PointKind::Light, PointKind::Switch, PointKind::Appliance, PointKind::Alarm, PointKind::Fan];
        for one in all {
            assert!(kinds.iter().any(|kind| GoesBy::usual_at(*kind).contains(&one)), "{one:?}");
            // Where nothing shows its power all the time, only a meter is sure at once, and that is said.
            assert_eq!(one.how_to_look().contains("a meter"), !one.shows_its_power(), "{one:?}");
        }
    }
}
