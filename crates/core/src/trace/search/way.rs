//! How it is traced, by whom and with what.

use super::case::Crew;
use crate::sim::Strategy;
use crate::{Refusal, RefusalCode};

/// A way of tracing.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum School {
    /// One breaker off after the other.
    #[default]
    OneAtATime,
    /// Several off at once where that tells more: the shortest way that still proves each point alone.
    SeveralOff,
    /// A lamp is left at one point, and whoever is at the panel tries breaker after breaker until it goes dark.
    LampAndHelper,
    /// A tone sender at a point is followed to the panel; the breaker it is loudest at is tried first.
    ToneTracer,
}

impl School {
    /// Every school.
    pub const ALL: [Self; 4] = [Self::OneAtATime, Self::LampAndHelper, Self::ToneTracer, Self::SeveralOff];

    pub(crate) const fn strategy(self) -> Strategy {
        match self {
            Self::OneAtATime => Strategy::OneAtATime,
            Self::SeveralOff => Strategy::Adaptive,
            Self::LampAndHelper => Strategy::LampAndHelper,
            Self::ToneTracer => Strategy::ToneTracer,
        }
    }
}

/// How it is traced, by whom and with what.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Way {
    /// Which way.
    pub school: School,
    /// One person does it all; else one stands at the panel and others walk.
    pub alone: bool,
    /// Plug-in testers and lamps together, 1 to 20: all but one can be left plugged in.
    pub testers: u8,
    /// A tone sender and its receiver are there.
    pub tone: bool,
    /// A radio or buzzer is there that is heard at the panel: alone, silence tells from there which breaker it was.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub radio: bool,
    /// People who walk and look at the same time, 1 to 6; the owner at the panel is not counted.
    #[serde(default = "one", skip_serializing_if = "is_one")]
    pub walkers: u8,
    /// The people talk through phones that show each their step, rather than by shouting.
    pub phones: bool,
}

const fn one() -> u8 {
    1
}

#[allow(clippy::trivially_copy_pass_by_ref)]
const fn is_one(walkers: &u8) -> bool {
    *walkers == 1
}

impl Default for Way {
    fn default() -> Self {
        Self { school: School::default(), alone: false, testers: 1, tone: false, radio: false, walkers: 1, phones: false }
    }
}

impl From<School> for Way {
    fn from(school: School) -> Self {
        Self { school, ..Self::default() }
    }
}

impl Way {
    /// Whether a point is listened to from the panel rather than looked at: one person, a radio at the point.
    pub(crate) fn by_ear(self) -> bool {
        self.alone && self.radio && self.school == School::LampAndHelper
    }

    /// How many look at the same time.
    pub(crate) fn looking(self) -> f64 {
        if self.alone { 1.0 } else { f64::from(self.walkers) }
    }

    /// Who that is, for the search.
    pub fn crew(self) -> Crew {
        Crew { alone: self.alone, plugs: usize::from(self.testers), tone: self.tone, radio: self.radio }
    }

    /// Refuses what cannot be.
    pub(crate) fn admit(self) -> Result<(), Refusal> {
        if !(1..=20).contains(&self.testers) {
            let wrong = format!("{} testers and lamps cannot be used.", self.testers);
            return Err(Refusal::new(RefusalCode::OutOfRange, "testers", wrong, "Give 1 to 20."));
        }
        if !(1..=6).contains(&self.walkers) {
            let wrong = format!("{} people cannot walk at the same time.", self.walkers);
            return Err(Refusal::new(RefusalCode::OutOfRange, "walkers", wrong, "Give 1 to 6."));
        }
        Ok(())
    }

    /// `several off at once, by one person, with 3 testers`.
    pub fn in_words(self) -> String {
        let school = match self.school {
            School::OneAtATime => "one breaker at a time",
            School::SeveralOff => "several off at once",
            School::LampAndHelper => "with a lamp and a helper",
            School::ToneTracer => "by tone tracer",
        };
        let crew = match self.walkers {
            _ if self.alone => "one person".to_owned(),
            1 => "two or more".to_owned(),
            walkers => format!("{walkers} who walk and one at the panel"),
        };
        let testers = if self.testers == 1 { "a tester".to_owned() } else { format!("{} testers and lamps", self.testers) };
        format!(
            "{school}, by {crew}, with {testers}{}{}{}",
            if self.tone { " and a tone tracer" } else { "" },
            if self.radio { " and a radio heard at the panel" } else { "" },
            if self.phones { ", a phone each" } else { "" }
        )
    }
}
