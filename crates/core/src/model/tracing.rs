//! How it is traced, by whom and with what.

use super::{EntryId, Refusal, RefusalCode};

/// A way of tracing.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Method {
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

impl Method {
    /// Every method.
    pub const ALL: [Self; 4] = [Self::OneAtATime, Self::LampAndHelper, Self::ToneTracer, Self::SeveralOff];
}

/// How it is traced, by whom and with what.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TraceSetup {
    /// The method.
    #[serde(rename = "school")]
    pub method: Method,
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

impl Default for TraceSetup {
    fn default() -> Self {
        Self { method: Method::default(), alone: false, testers: 1, tone: false, radio: false, walkers: 1, phones: false }
    }
}

impl From<Method> for TraceSetup {
    fn from(method: Method) -> Self {
        Self { method, ..Self::default() }
    }
}

impl TraceSetup {
    /// Whether a point is listened to from the panel rather than looked at: one person, a radio at the point.
    pub(crate) fn by_ear(self) -> bool {
        self.alone && self.radio && self.method == Method::LampAndHelper
    }

    /// How many look at the same time.
    pub(crate) fn looking(self) -> f64 {
        if self.alone { 1.0 } else { f64::from(self.walkers) }
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
        let method = match self.method {
            Method::OneAtATime => "one breaker at a time",
            Method::SeveralOff => "several off at once",
            Method::LampAndHelper => "with a lamp and a helper",
            Method::ToneTracer => "by tone tracer",
        };
        let crew = match self.walkers {
            _ if self.alone => "one person".to_owned(),
            1 => "two or more".to_owned(),
            walkers => format!("{walkers} who walk and one at the panel"),
        };
        let testers = if self.testers == 1 { "a tester".to_owned() } else { format!("{} testers and lamps", self.testers) };
        format!(
            "{method}, by {crew}, with {testers}{}{}{}",
            if self.tone { " and a tone tracer" } else { "" },
            if self.radio { " and a radio heard at the panel" } else { "" },
            if self.phones { ", a phone each" } else { "" }
        )
    }
}

/// What a look showed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Seen {
    /// It has power.
    Lit,
    /// It has none.
    Dark,
}

/// How far an observer's screen had followed the switching when something was seen.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Since {
    /// No handle had moved yet.
    Start,
    /// This line was the last that moved a handle.
    Move(EntryId),
}

/// What was done at a device.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Worked {
    /// A GFCI was tripped with its test button.
    Tripped,
    /// A GFCI was reset.
    Reset,
    /// A GFCI was found tripped, nobody knows since when, and was reset.
    FoundTripped,
    /// A switch was switched on.
    SwitchedOn,
    /// A new lamp was put in.
    NewLamp,
}

/// What a point did that was lit and was watched while a breaker was switched off and on again.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Change {
    /// It went out, and came back.
    CameBack,
    /// It went out, and stayed out.
    StayedOut,
    /// It stayed lit.
    StayedLit,
}

impl Change {
    /// As it stands behind the point: `went out, and came back`.
    pub const fn words(self) -> &'static str {
        match self {
            Self::CameBack => "went out, and came back",
            Self::StayedOut => "went out, and stayed out",
            Self::StayedLit => "stayed lit",
        }
    }
    /// What it showed while the breaker was off, and after that.
    pub const fn seen(self) -> (Seen, Seen) {
        match self {
            Self::CameBack => (Seen::Dark, Seen::Lit),
            Self::StayedOut => (Seen::Dark, Seen::Dark),
            Self::StayedLit => (Seen::Lit, Seen::Lit),
        }
    }
}
